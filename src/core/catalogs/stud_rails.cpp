// Studs on rails that can be bought, read from comma-separated text.
#include <fmt/format.h>

#include <array>
#include <cmath>
#include <cstdlib>

#include "catalogs/catalogs.h"

namespace talvik::catalogs {
namespace {

std::string_view trimmed(std::string_view s) {
    const auto from = s.find_first_not_of(" \t\r");
    if (from == std::string_view::npos) return {};
    return s.substr(from, s.find_last_not_of(" \t\r") - from + 1);
}

std::vector<std::string> cells(std::string_view line) {
    std::vector<std::string> all;
    for (std::size_t from = 0; from <= line.size();) {
        const std::size_t to = std::min(line.find(',', from), line.size());
        all.emplace_back(trimmed(line.substr(from, to - from)));
        from = to + 1;
    }
    return all;
}

// What a column holds, and between which values in mm, MPa or pieces it makes sense.
struct Column {
    const char *name, *units;  // with the units that are understood
    double low, high;
    const char* heading;  // as it may stand in the first line
};
constexpr std::array columns{
    Column{"name", "", 0, 0, "\"name\""},
    Column{"diameter", "mm in", 6, 40, "\"diameter mm\" or \"diameter in\""},
    Column{"height", "mm in", 60, 2000, "\"height mm\" or \"height in\""},
    Column{"first", "mm in", 5, 1000, "\"first mm\" or \"first in\""},
    Column{"spacing", "mm in", 20, 1500, "\"spacing mm\" or \"spacing in\""},
    Column{"least studs", "", 1, 100, "\"least studs\""},
    Column{"most studs", "", 1, 100, "\"most studs\""},
    Column{"yield", "MPa ksi", 200, 1000, "\"yield MPa\" or \"yield ksi\""},
};

}  // namespace

StudTable readStudRails(std::string_view csv) {
    StudTable table;
    auto trouble = [&](std::string sentence) { table.trouble.push_back(std::move(sentence)); };
    if (csv.starts_with("\xEF\xBB\xBF")) csv.remove_prefix(3);
    std::array<int, columns.size()> at;
    std::array<double, columns.size()> factor;
    at.fill(-1), factor.fill(1);
    std::size_t width = 0;
    for (int line = 1; !csv.empty(); ++line) {
        const std::string_view text = csv.substr(0, csv.find('\n'));
        csv.remove_prefix(std::min(csv.size(), text.size() + 1));
        if (trimmed(text).empty()) continue;
        const auto row = cells(text);
        if (width == 0) {
            width = row.size();
            for (std::size_t i = 0; i < row.size(); ++i)
                for (std::size_t k = 0; k < columns.size(); ++k) {
                    const std::string name = columns[k].name, units = columns[k].units;
                    if (row[i] == name && units.empty()) at[k] = int(i);
                    if (!row[i].starts_with(name + " ") || units.empty()) continue;
                    const std::string unit = row[i].substr(name.size() + 1);
                    if (unit != "mm" && unit != "in" && unit != "MPa" && unit != "ksi") continue;
                    if (units.find(unit) == std::string::npos) continue;
                    at[k] = int(i);
                    factor[k] = unit == "in" ? 25.4 : unit == "ksi" ? 6.894757 : 1;
                }
            for (std::size_t k = 0; k < columns.size(); ++k)
                if (at[k] < 0)
                    trouble(fmt::format("Line {}: there is no column {}.", line, columns[k].heading));
            if (!table.trouble.empty()) return table;
            continue;
        }
        if (row.size() != width) {
            trouble(fmt::format("Line {} has {} cells; the first line names {} columns.", line, row.size(),
                                width));
            continue;
        }
        StudRail rail;
        std::array<double, columns.size()> value{};
        bool good = true;
        for (std::size_t k = 0; k < columns.size(); ++k) {
            const std::string& cell = row[std::size_t(at[k])];
            const auto& column = columns[k];
            if (column.high == 0) {
                rail.name = cell;
                if (cell.empty()) trouble(fmt::format("Line {}: the name is missing.", line)), good = false;
                continue;
            }
            char* end = nullptr;
            value[k] = std::strtod(cell.c_str(), &end) * factor[k];
            if (cell.empty() || *end != 0 || !std::isfinite(value[k])) {
                trouble(fmt::format("Line {}, column {}: \"{}\" is no number.", line, column.name, cell));
                good = false;
            } else if (value[k] < column.low || value[k] > column.high) {
                trouble(fmt::format(
                    "Line {}, column {}: {} cannot be right; expected {} to {}. Check the unit in the "
                    "first line.",
                    line, column.name, cell, column.low / factor[k], column.high / factor[k]));
                good = false;
            }
        }
        rail.diameter = value[1], rail.height = value[2], rail.first = value[3], rail.spacing = value[4];
        rail.least = int(value[5]), rail.most = int(value[6]), rail.yield = value[7];
        if (good && rail.most < rail.least) {
            trouble(fmt::format("Line {}: the most studs are fewer than the least.", line));
            good = false;
        }
        if (good) table.rails.push_back(std::move(rail));
    }
    if (table.rails.empty() && table.trouble.empty()) trouble("The table has no rows.");
    if (!table.trouble.empty()) table.rails.clear();
    return table;
}

const std::vector<StudRail>& studRails() {
    static const auto all = readStudRails(dataText("stud_rails.csv")).rails;
    return all;
}

}  // namespace talvik::catalogs
