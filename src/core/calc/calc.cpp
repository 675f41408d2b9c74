#include "calc/calc.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <set>

namespace talvik::calc {
namespace {

std::string trimmed(std::string_view s) {
    while (!s.empty() && std::isspace(static_cast<unsigned char>(s.front()))) s.remove_prefix(1);
    while (!s.empty() && std::isspace(static_cast<unsigned char>(s.back()))) s.remove_suffix(1);
    return std::string(s);
}

// Cells of one line; quotes may hold commas and doubled quotes.
std::vector<std::string> cells(std::string_view line) {
    std::vector<std::string> all(1);
    bool quoted = false;
    for (std::size_t i = 0; i < line.size(); ++i) {
        char c = line[i];
        if (c == '"' && quoted && i + 1 < line.size() && line[i + 1] == '"')
            all.back() += line[++i];
        else if (c == '"')
            quoted = !quoted;
        else if (c == ',' && !quoted)
            all.emplace_back();
        else
            all.back() += c;
    }
    for (auto& cell : all) cell = trimmed(cell);
    return all;
}

std::string problem(const Column& column, const std::string& cell, double& value) {
    if (cell.empty()) return "the cell is empty; give a value";
    auto [end, code] = std::from_chars(cell.data() + (cell[0] == '+'), cell.data() + cell.size(), value);
    if (code != std::errc() || end != cell.data() + cell.size() || !std::isfinite(value))
        return fmt::format("\"{}\" is not a number", cell);
    switch (column.accepts) {
        case Accepts::Positive:
            return value > 0 ? "" : fmt::format("{} must be more than zero", cell);
        case Accepts::NotNegative:
            return value >= 0 ? "" : fmt::format("{} must not be negative", cell);
        case Accepts::Share:
            return value >= 0 && value <= 1 ? "" : fmt::format("{} must lie between 0 and 1", cell);
        case Accepts::Flag:
            return value == 0 || value == 1 ? "" : fmt::format("{} must be 0 or 1", cell);
        case Accepts::Signed:
        case Accepts::Text:
            return "";
    }
    return "";
}

struct Header {
    std::vector<int> inputAt;  // cell of each input
    std::size_t width = 0;
    std::string error;
};

std::string baseName(const std::string& heading) {
    return trimmed(heading.substr(0, heading.find('[')));
}

Header readHeader(const Topic& topic, const std::vector<std::string>& names) {
    Header h;
    h.width = names.size();
    h.inputAt.assign(topic.inputs.size(), -1);
    auto known = [&](const std::string& name) {
        auto named = [&](const Column& c) { return c.name == name; };
        return std::any_of(topic.outputs.begin(), topic.outputs.end(), named) ||
               std::any_of(topic.lists.begin(), topic.lists.end(), named) ||
               std::find(topic.otherOutputs.begin(), topic.otherOutputs.end(), name) !=
                   topic.otherOutputs.end();
    };
    std::set<std::string> seen;
    for (std::size_t i = 0; i < names.size(); ++i) {
        std::string name = baseName(names[i]);
        if (!seen.insert(name).second)
            return {{}, 0, fmt::format("The column {} stands there twice (line 1).", name)};
        auto input = std::find_if(topic.inputs.begin(), topic.inputs.end(),
                                  [&](const Column& c) { return c.name == name; });
        if (input != topic.inputs.end()) {
            if (names[i] != input->heading())
                return {
                    {},
                    0,
                    fmt::format("Column {} must be headed {}, its unit in brackets; found \"{}\" (line 1).",
                                name, input->heading(), names[i])};
            h.inputAt[static_cast<std::size_t>(input - topic.inputs.begin())] = static_cast<int>(i);
        } else if (!known(name)) {
            return {{},
                    0,
                    fmt::format("The column \"{}\" is not known to {} (line 1); see talvik calc --list.",
                                names[i], topic.name)};
        }
    }
    for (std::size_t i = 0; i < topic.inputs.size(); ++i)
        if (h.inputAt[i] < 0)
            return {{},
                    0,
                    fmt::format("The column {} is missing (line 1); {} needs it.", topic.inputs[i].heading(),
                                topic.name)};
    return h;
}

std::string quotedCell(const std::string& s) {
    return s.find_first_of(",\"") == std::string::npos ? s : '"' + s + '"';
}

}  // namespace

const Topic* topic(std::string_view name) {
    for (const Topic& t : topics())
        if (t.name == name) return &t;
    return nullptr;
}

Result run(const Topic& topic, std::string_view csv) {
    if (csv.starts_with("\xEF\xBB\xBF")) csv.remove_prefix(3);
    std::string out;
    Header header;
    int line = 0, row = 0;
    while (!csv.empty()) {
        std::string_view text = csv.substr(0, csv.find('\n'));
        csv.remove_prefix(std::min(csv.size(), text.size() + 1));
        ++line;
        if (trimmed(text).empty() && line > 1) continue;
        std::vector<std::string> cell = cells(text);
        if (line == 1) {
            header = readHeader(topic, cell);
            if (!header.error.empty()) return {{}, header.error};
            for (const auto* list : {&topic.inputs, &topic.outputs, &topic.lists})
                for (const Column& c : *list) out += (out.empty() ? "" : ",") + c.heading();
            out += "\n";
            continue;
        }
        ++row;
        auto where = [&](const std::string& column) {
            return fmt::format("Row {} (line {}), column {}: ", row, line, column);
        };
        if (cell.size() != header.width)
            return {{},
                    fmt::format("Row {} (line {}) has {} cells; the first line names {} columns.", row, line,
                                cell.size(), header.width)};
        Row values;
        std::string echoed;
        for (std::size_t i = 0; i < topic.inputs.size(); ++i) {
            const Column& column = topic.inputs[i];
            const std::string& raw = cell[static_cast<std::size_t>(header.inputAt[i])];
            if (column.accepts == Accepts::Text) {
                if (raw.empty()) return {{}, where(column.heading()) + "the cell is empty; give a value."};
                values.text[column.name] = raw;
            } else {
                double value = 0;
                if (std::string why = problem(column, raw, value); !why.empty())
                    return {{}, where(column.heading()) + why + "."};
                values.number[column.name] = value;
            }
            echoed += (i ? "," : "") + quotedCell(raw);
        }
        out += echoed;
        try {
            for (double v : topic.rule(values)) {
                if (!std::isfinite(v))
                    return {
                        {},
                        fmt::format("Row {} (line {}) has no finite result; check its values.", row, line)};
                out += fmt::format(",{:.6g}", v);
            }
            if (topic.listRule)
                for (const auto& list : topic.listRule(values)) out += "," + quotedCell(list);
        } catch (const NoAnswer& none) {
            return {{}, fmt::format("Row {} (line {}): {}", row, line, none.sentence)};
        }
        out += "\n";
    }
    if (line == 0)
        return {{}, "The input is empty; its first line must name the columns of " + topic.name + "."};
    return {out, {}};
}

std::string describe(const Topic& topic) {
    std::string s = fmt::format("{}\n  {}\n  Basis: {}\n", topic.name, topic.title, topic.basis);
    auto list = [&](const char* title, const std::vector<Column>& columns) {
        s += fmt::format("  {}:\n", title);
        for (const Column& c : columns) s += fmt::format("    {:<16} {}\n", c.heading(), c.meaning);
    };
    list("Inputs", topic.inputs);
    list("Outputs", topic.outputs);
    if (!topic.lists.empty()) list("Lists", topic.lists);
    if (!topic.otherOutputs.empty())
        s += fmt::format("  Not calculated yet, ignored in the input: {}\n",
                         fmt::join(topic.otherOutputs, ", "));
    return s;
}

}  // namespace talvik::calc
