#include "units/rows.h"

#include <fmt/format.h>

namespace talvik::units {

Rows parseRows(std::string_view text, const std::vector<Kind>& kinds, System system, std::size_t optional) {
    Rows out;
    std::size_t number = 0;
    while (!text.empty()) {
        const auto end = text.find(';');
        std::string_view row = text.substr(0, end);
        text = end == std::string_view::npos ? std::string_view() : text.substr(end + 1);
        ++number;
        std::vector<std::string> words;
        std::string word;
        for (char c : row) {
            if (c == ' ' || c == '\t') {
                if (!word.empty() && word.back() == ',') word.pop_back();
                if (!word.empty()) words.push_back(std::move(word));
                word.clear();
            } else {
                word += c;
            }
        }
        if (!word.empty()) words.push_back(std::move(word));
        if (words.empty()) continue;
        if (words.size() > kinds.size() || words.size() + optional < kinds.size())
            return {
                {},
                fmt::format("Row {} has {} values; it needs {}, with blanks between them and a semicolon at "
                            "the end.",
                            number, words.size(), kinds.size())};
        std::vector<double> values;
        for (std::size_t i = 0; i < words.size(); ++i) {
            const auto parsed = parse(words[i], kinds[i], system);
            if (!parsed.value) return {{}, fmt::format("Row {}: {}", number, parsed.error)};
            values.push_back(*parsed.value);
        }
        out.rows.push_back(std::move(values));
    }
    return out;
}

std::string rowsText(const std::vector<std::vector<double>>& rows, const std::vector<Kind>& kinds,
                     System system) {
    std::string all;
    for (const auto& row : rows) {
        if (!all.empty()) all += "; ";
        for (std::size_t i = 0; i < row.size() && i < kinds.size(); ++i)
            all += (i ? " " : "") + plain(rounded(row[i] / unit(kinds[i], system).factor, 9));
    }
    return all;
}

}  // namespace talvik::units
