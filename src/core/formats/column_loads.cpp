#include "formats/column_loads.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <nlohmann/json.hpp>
#include <optional>
#include <set>

#include "formats/fields.h"
#include "model/base_edits.h"
#include "model/edits.h"
#include "standards/rules.h"

namespace talvik::formats {
namespace {

using actions::Nature;
using nlohmann::json;

// Rows of a table with the line of the file that each begins at; quotes as in RFC 4180.
struct Row {
    std::size_t line = 0;
    std::vector<std::string> cells;
};
std::string trimmed(std::string_view s) {
    const auto from = s.find_first_not_of(" \t"), to = s.find_last_not_of(" \t");
    return from == std::string_view::npos ? std::string() : std::string(s.substr(from, to - from + 1));
}
std::string lower(std::string s) {
    for (char& c : s)
        if (c >= 'A' && c <= 'Z') c = char(c - 'A' + 'a');
    return s;
}
struct Table {
    std::vector<Row> rows;
    char between = ',';
    std::size_t open = 0;  // line of a quote that nothing closes; 0: none
};
constexpr std::size_t headLines = 20;  // among which the heads are looked for
Table rowsOf(std::string_view text) {
    if (text.starts_with("\xEF\xBB\xBF")) text.remove_prefix(3);
    Table table;
    std::size_t line = 1;
    // A first line that names what stands between fields.
    const auto first = lower(trimmed(text.substr(0, text.find_first_of("\r\n"))));
    const bool named = first.size() == 5 && first.starts_with("sep=");
    if (named) {
        table.between = first[4];
        const auto end = text.find('\n');
        text.remove_prefix(end == std::string_view::npos ? text.size() : end + 1), ++line;
    }
    // Else what stands there most often in one of the first lines: a title may be above the heads.
    std::ptrdiff_t most = 0;
    std::string_view rest = text;
    for (std::size_t k = 0; k < headLines && !rest.empty() && !named; ++k) {
        const auto one = rest.substr(0, rest.find('\n'));
        for (char c : {',', ';', '\t'})
            if (const auto n = std::count(one.begin(), one.end(), c); n > most) most = n, table.between = c;
        rest.remove_prefix(std::min(rest.size(), one.size() + 1));
    }
    const char between = table.between;
    auto& all = table.rows;
    Row row{line, {}};
    std::string cell;
    bool quoted = false, any = false;
    auto end = [&] {
        row.cells.push_back(trimmed(cell));
        cell.clear();
        if (any || row.cells.size() > 1 || !row.cells[0].empty()) all.push_back(std::move(row));
        row = {line, {}}, any = false;
    };
    for (std::size_t i = 0; i < text.size(); ++i) {
        const char c = text[i];
        if (c == '\n') ++line;
        if (quoted) {
            if (c == '"' && i + 1 < text.size() && text[i + 1] == '"')
                cell += '"', ++i;
            else if (c == '"')
                quoted = false;
            else
                cell += c;
        } else if (c == '"' && trimmed(cell).empty()) {
            quoted = any = true, cell.clear(), table.open = line;
        } else if (c == between) {
            row.cells.push_back(trimmed(cell));
            cell.clear(), any = true;
        } else if (c == '\n') {
            end();
            row.line = line;
        } else if (c != '\r') {
            cell += c;
        }
    }
    if (!cell.empty() || !row.cells.empty()) end();
    if (!quoted) table.open = 0;
    return table;
}

enum class Quantity { Text, Length, Size, Force, Moment };
struct Field {
    const char* name;
    Quantity quantity;
    bool needed = true;
};
constexpr Field fields[] = {
    {"column", Quantity::Text}, {"x", Quantity::Length},        {"y", Quantity::Length},
    {"width", Quantity::Size},  {"depth", Quantity::Size},      {"case", Quantity::Text},
    {"nature", Quantity::Text}, {"use", Quantity::Text, false}, {"N", Quantity::Force},
    {"Hx", Quantity::Force},    {"Hy", Quantity::Force},        {"Mx", Quantity::Moment},
    {"My", Quantity::Moment}};
constexpr std::size_t count = std::size(fields);

// Stored units of one unit; nothing where it does not fit.
std::optional<double> unitOf(std::string unit, Quantity q) {
    for (const char* dot : {"\u00b7", "\u22c5", "*", " ", "."})
        for (auto at = unit.find(dot); at != std::string::npos; at = unit.find(dot))
            unit.replace(at, std::string(dot).size(), "-");
    constexpr double foot = 304.8, kip = 4448.2216152605;
    static const std::map<std::string, double, std::less<>> lengths{
        {"mm", 1}, {"cm", 10}, {"m", 1000}, {"ft", foot}, {"in", 25.4}};
    static const std::map<std::string, double, std::less<>> forces{
        {"N", 1}, {"kN", 1e3}, {"MN", 1e6}, {"kip", kip}};
    static const std::map<std::string, double, std::less<>> moments{
        {"kNm", 1e6}, {"kN-m", 1e6}, {"MNm", 1e9},           {"MN-m", 1e9},
        {"Nm", 1e3},  {"N-m", 1e3},  {"kip-ft", kip * foot}, {"kipft", kip * foot}};
    const auto& table = q == Quantity::Force ? forces : q == Quantity::Moment ? moments : lengths;
    if (unit.empty())
        return q == Quantity::Length ? 1000 : q == Quantity::Size ? 1 : q == Quantity::Force ? 1e3 : 1e6;
    const auto found = table.find(unit);
    return found == table.end() ? std::optional<double>() : found->second;
}
// "N[kN]" or "N (kN)".
struct Header {
    std::string name, unit;
};
Header headerOf(const std::string& text) {
    for (auto [open, close] : {std::pair('[', ']'), {'(', ')'}}) {
        const auto a = text.find(open), b = text.find(close);
        if (a != std::string::npos && b != std::string::npos && b > a)
            return {trimmed(text.substr(0, a)), trimmed(text.substr(a + 1, b - a - 1))};
    }
    return {trimmed(text), {}};
}
std::string shown(const std::string& text) {
    std::string out;
    for (char c : text.substr(0, 60)) out += static_cast<unsigned char>(c) < 32 || c == 127 ? '?' : c;
    return text.size() > 60 ? out + "…" : out;
}
// How figures are written: with commas between thousands, or as the decimal mark.
enum class Commas { None, Thousands, Decimal };
std::optional<double> numberOf(std::string cell, Commas commas) {
    if (const auto comma = cell.rfind(','); comma != std::string::npos) {
        const auto dot = cell.rfind('.');
        const bool decimal = dot != std::string::npos ? comma > dot : commas == Commas::Decimal;
        if (dot == std::string::npos && commas == Commas::None) return {};
        std::erase(cell, decimal ? '.' : ',');
        if (decimal) {
            if (std::count(cell.begin(), cell.end(), ',') > 1) return {};
            std::replace(cell.begin(), cell.end(), ',', '.');
        }
    }
    const char* from = cell.c_str();
    char* end = nullptr;
    const double v = std::strtod(from, &end);
    // No hexadecimal, no "inf": figures as people write them.
    if (cell.empty() || *end != 0 || !std::isfinite(v) || cell.find_first_of("xXnNiIpP") != std::string::npos)
        return {};
    return v;
}

}  // namespace

std::string columnLoadsTemplate(units::System system) {
    const bool us = system == units::System::UsCustomary;
    std::string out;
    for (const auto& f : fields) {
        const char* unit = f.quantity == Quantity::Length   ? us ? "[ft]" : "[m]"
                           : f.quantity == Quantity::Size   ? us ? "[in]" : "[mm]"
                           : f.quantity == Quantity::Force  ? us ? "[kip]" : "[kN]"
                           : f.quantity == Quantity::Moment ? us ? "[kip.ft]" : "[kNm]"
                                                            : "";
        out += fmt::format("{}{}{}", out.empty() ? "" : ",", f.name, unit);
    }
    out += us ? "\nA1,0,0,16,16,G,permanent,,95,0,0,0,7\nA1,0,0,16,16,Q,imposed,B,47,0,0,0,4.5\n"
                "A1,0,0,16,16,W,wind,,0,3,0,0,15\nB1,20,0,16,16,G,permanent,,140,,,,\n"
              : "\nA1,0,0,400,400,G,permanent,,420,0,0,0,10\nA1,0,0,400,400,Q,imposed,B,210,0,0,0,6\n"
                "A1,0,0,400,400,W,wind,,0,12,0,0,20\nB1,6,0,400,400,G,permanent,,620,,,,\n";
    return out;
}

ColumnLoads readColumnLoads(std::string_view csv, const std::map<std::string, std::string>& headers,
                            model::Project& project) {
    ColumnLoads out;
    constexpr std::size_t most = 1000000;
    auto table = rowsOf(csv);
    auto& rows = table.rows;
    if (table.open > 0) {
        out.error = fmt::format(
            "Row {} of the table of loads opens a quotation mark that nothing closes; close it or take it "
            "away. Nothing was imported.",
            table.open);
        return out;
    }
    if (rows.empty()) {
        out.error = "The table of loads is empty.";
        return out;
    }
    if (rows.size() > most) {
        out.error = fmt::format("The table of loads has {} rows; at most {} are read.", rows.size(), most);
        return out;
    }
    // The heads are the first row that has most of their names: titles may stand above.
    {
        std::size_t best = 0, named = 0;
        for (std::size_t r = 0; r < std::min(rows.size(), headLines); ++r) {
            std::size_t n = 0;
            for (const auto& cell : rows[r].cells)
                for (const auto& f : fields) {
                    const auto asked = headers.find(f.name);
                    const auto name = headerOf(cell).name;
                    n += asked != headers.end()
                             ? trimmed(asked->second) == cell || trimmed(asked->second) == name
                             : lower(name) == lower(f.name);
                }
            if (n > named) named = n, best = r;
        }
        if (named >= 3) rows.erase(rows.begin(), rows.begin() + std::ptrdiff_t(best));
    }
    // Which column of the table is which.
    std::size_t at[count];
    double factor[count];
    std::string missing;
    for (std::size_t f = 0; f < count; ++f) {
        at[f] = most;
        const auto asked = headers.find(fields[f].name);
        Header found;
        for (int pass = 0; pass < 2 && at[f] == most; ++pass)
            for (std::size_t c = 0; c < rows[0].cells.size() && at[f] == most; ++c) {
                const auto header = headerOf(rows[0].cells[c]);
                const bool is = asked != headers.end()
                                    ? trimmed(asked->second) == rows[0].cells[c] ||
                                          (pass == 1 && trimmed(asked->second) == header.name)
                                : pass == 0 ? header.name == fields[f].name
                                            : lower(header.name) == lower(fields[f].name);
                if (is) at[f] = c, found = header;
            }
        if (at[f] == most) {
            if (asked != headers.end()) {
                out.error = fmt::format("The table of loads has no column \"{}\", which is to be {}.",
                                        shown(asked->second), fields[f].name);
                return out;
            }
            if (fields[f].needed) missing += (missing.empty() ? "" : ", ") + std::string(fields[f].name);
            continue;
        }
        if (fields[f].quantity == Quantity::Text) continue;
        const auto unit = unitOf(found.unit, fields[f].quantity);
        if (!unit) {
            out.error = fmt::format("Column {} of the table of loads is in \"{}\", which is no unit of {}.",
                                    fields[f].name, shown(found.unit),
                                    fields[f].quantity == Quantity::Force    ? "force"
                                    : fields[f].quantity == Quantity::Moment ? "moment"
                                                                             : "length");
            return out;
        }
        factor[f] = *unit;
    }
    if (!missing.empty()) {
        out.error = "The table of loads lacks: " + missing + ".";
        return out;
    }
    enum { Column, X, Y, Width, Depth, Case, NatureOf, Use, N, Hx, Hy, Mx, My };
    std::map<std::string, std::size_t> known;  // columns by name
    std::map<std::string, std::size_t> cases;  // cases by name
    std::set<std::string> bad;
    std::vector<std::set<model::Id>> seen;
    // Where fields are not parted by commas, these part thousands if any figure has a decimal point, else
    // they are the decimal mark.
    Commas commas = Commas::None;
    if (table.between != ',') {
        commas = Commas::Decimal;
        for (std::size_t r = 1; r < rows.size() && commas == Commas::Decimal; ++r)
            for (std::size_t f = 0; f < count; ++f)
                if (fields[f].quantity != Quantity::Text && at[f] < rows[r].cells.size() &&
                    rows[r].cells[at[f]].find('.') != std::string::npos &&
                    rows[r].cells[at[f]].find(',') == std::string::npos)
                    commas = Commas::Thousands;
    }
    std::size_t cellsNeeded = 0;
    for (std::size_t f = 0; f < count; ++f)
        if (at[f] != most) cellsNeeded = std::max(cellsNeeded, at[f] + 1);
    auto& set = out.set;
    for (std::size_t r = 1; r < rows.size(); ++r) {
        const Row& row = rows[r];
        std::string name = at[Column] < row.cells.size() ? row.cells[at[Column]] : std::string();
        auto refuse = [&](const std::string& why) {
            out.keptOut.push_back(fmt::format("row {}: {}", row.line, why));
            if (!name.empty()) bad.insert(name);
        };
        if (row.cells.size() < cellsNeeded) {
            refuse("it has too few fields.");
            continue;
        }
        if (name.empty()) {
            refuse("the column has no name.");
            continue;
        }
        auto broken = [](const std::string& s) {
            return std::any_of(s.begin(), s.end(),
                               [](char c) { return static_cast<unsigned char>(c) < 32 || c == 127; });
        };
        if (broken(name)) {
            refuse("the name of the column holds a line break or another control character.");
            continue;
        }
        if (broken(row.cells[at[Case]])) {
            refuse("the name of the load case holds a line break or another control character.");
            continue;
        }
        if (name.size() > 200) {
            refuse("the name of the column is longer than 200 characters.");
            name.clear();
            continue;
        }
        double v[count] = {};
        bool fine = true;
        for (std::size_t f = 0; f < count && fine; ++f) {
            if (fields[f].quantity == Quantity::Text) continue;
            const bool load = fields[f].quantity == Quantity::Force || fields[f].quantity == Quantity::Moment;
            // A load that is not written is none.
            const auto value =
                load && row.cells[at[f]].empty() ? std::optional(0.0) : numberOf(row.cells[at[f]], commas);
            if (!value || std::abs(*value * factor[f]) > 1e15) {
                refuse(fmt::format("{} is \"{}\", which is no finite number.", fields[f].name,
                                   shown(row.cells[at[f]])));
                fine = false;
            } else {
                // As a project file keeps it: twelve digits of its own unit.
                const double unit = fields[f].quantity == Quantity::Force    ? 1e3
                                    : fields[f].quantity == Quantity::Moment ? 1e6
                                                                             : 1;
                v[f] = units::rounded(*value * factor[f] / unit, 12) * unit;
            }
        }
        if (!fine) continue;
        if (!(v[Width] > 0) || !(v[Depth] > 0)) {
            refuse("the width and depth of the column have to be above 0.");
            continue;
        }
        if (v[Width] < 50 || v[Width] > 10000 || v[Depth] < 50 || v[Depth] > 10000) {
            refuse("the width and depth of a column are between 50 mm and 10 m.");
            continue;
        }
        if (std::abs(v[X]) > 1e7 || std::abs(v[Y]) > 1e7) {
            refuse("the column stands farther than 10 km from the origin.");
            continue;
        }
        if (std::abs(v[N]) > 1e9 || std::abs(v[Hx]) > 1e9 || std::abs(v[Hy]) > 1e9 ||
            std::abs(v[Mx]) > 1e13 || std::abs(v[My]) > 1e13) {
            refuse("a force above 1,000 MN or a moment above 10,000 MNm is outside the permitted range.");
            continue;
        }
        const std::string nature = lower(row.cells[at[NatureOf]]), caseName = row.cells[at[Case]];
        static const std::map<std::string, Nature, std::less<>> natures{{"permanent", Nature::Permanent},
                                                                        {"imposed", Nature::Imposed},
                                                                        {"wind", Nature::Wind},
                                                                        {"accidental", Nature::Accidental}};
        const auto is = natures.find(nature);
        if (is == natures.end()) {
            refuse(fmt::format("the nature \"{}\" is not known; permanent, imposed, wind and accidental are.",
                               shown(row.cells[at[NatureOf]])));
            continue;
        }
        if (caseName.empty()) {
            refuse("the load case has no name.");
            continue;
        }
        std::string use = at[Use] != most ? row.cells[at[Use]] : std::string();
        if (is->second != Nature::Imposed) use.clear();
        const auto [ofCase, freshCase] = cases.try_emplace(caseName, set.cases.size());
        if (freshCase) {
            set.cases.push_back({{}, caseName, {is->second, use}});
            if (is->second == Nature::Imposed && !catalogs::imposedUse(use) && use != "C" && use != "G")
                out.notes.push_back(fmt::format(
                    "Case {} has the use \"{}\", which is not known: it is combined as offices are.",
                    shown(caseName), shown(use)));
            if (set.cases.size() > 200) {
                out.error = "The table of loads has more than 200 load cases.";
                return out;
            }
        } else if (set.cases[ofCase->second].kind != actions::ActionKind{is->second, use}) {
            refuse(fmt::format("case {} has another nature or use than before.", shown(caseName)));
            continue;
        }
        const auto [ofColumn, fresh] = known.try_emplace(name, set.columns.size());
        if (fresh) {
            set.columns.push_back({{}, name, v[X], v[Y], v[Width], v[Depth], {}});
            seen.emplace_back();
        }
        auto& column = set.columns[ofColumn->second];
        auto same = [](double a, double b) { return std::abs(a - b) < 0.5; };
        if (!same(column.x, v[X]) || !same(column.y, v[Y]) || !same(column.width, v[Width]) ||
            !same(column.depth, v[Depth])) {
            refuse(fmt::format("column {} stands at another place or has another size than before.",
                               shown(name)));
            continue;
        }
        if (!seen[ofColumn->second].insert(caseName).second) {
            refuse(fmt::format("column {} has the case {} twice.", shown(name), shown(caseName)));
            continue;
        }
        // The case by its place for now; it gets its id below.
        column.actions.push_back({caseName, v[N], v[Hx], v[Hy], v[Mx], v[My]});
    }
    std::erase_if(set.columns, [&](const auto& c) { return bad.contains(c.name); });
    for (const auto& name : bad)
        out.keptOut.push_back(fmt::format("Column {} is not imported.", shown(name)));
    if (set.columns.empty()) {
        out.error = rows.size() < 2 ? "The table of loads has no rows."
                                    : "No column of the table of loads can be used.";
        return out;
    }
    std::map<std::string, model::Id> ids;
    for (auto& c : set.cases) ids[c.name] = c.id = model::newId(project, 'q');
    for (auto& c : set.columns) {
        c.id = model::newId(project, 'c');
        for (auto& a : c.actions) a.loadCase = ids[a.loadCase];
        model::Base base;
        base.id = model::newId(project, 'b');
        base.columns = {c.id};
        set.bases.push_back(std::move(base));
    }
    return out;
}

std::string readColumnMap(std::string_view text, std::map<std::string, std::string>& headers) {
    const json j = json::parse(text, nullptr, false);
    if (j.is_discarded() || !j.is_object()) return "The map of columns is no JSON object.";
    for (const auto& [key, value] : j.items()) {
        if (std::none_of(std::begin(fields), std::end(fields),
                         [&k = key](const Field& f) { return k == f.name; }))
            return fmt::format("The map of columns names \"{}\", which no column is called here.",
                               shown(key));
        if (!value.is_string())
            return fmt::format("The map of columns gives no text for \"{}\".", shown(key));
        headers[key] = value.get<std::string>();
    }
    return {};
}

std::string readGround(std::string_view text, model::Project& project, model::BaseSet& set,
                       std::string& source, std::vector<std::string>* notes) {
    const json j = json::parse(text, nullptr, false);
    if (j.is_discarded() || !j.is_object()) return "The ground is no JSON object.";
    std::string why;
    std::set<std::string> asked;
    auto trouble = [&](const std::string& key, const std::string& words) {
        if (why.empty()) why = fmt::format("\"{}\" of the ground {}", key, words);
    };
    auto number = [&](const json& of, const std::string& path, const char* key, double& into, double unit,
                      double low, double high, bool needed = false) {
        const std::string name = path + key;
        asked.insert(name);
        const auto found = of.find(key);
        if (found == of.end()) {
            if (needed) trouble(name, "is missing.");
            return;
        }
        if (!found->is_number() || !std::isfinite(found->get<double>()))
            return trouble(name, "is no number.");
        const double v = found->get<double>();
        if (v < low || v > high)
            return trouble(name, fmt::format("is {}; it has to be from {} to {}.", units::plain(v),
                                             units::plain(low), units::plain(high)));
        into = v * unit;
    };
    auto word = [&](const json& of, const std::string& path, const char* key, std::string& into,
                    std::vector<std::string> known, bool needed = false) {
        const std::string name = path + key;
        asked.insert(name);
        const auto found = of.find(key);
        if (found == of.end()) {
            if (needed) trouble(name, "is missing.");
            return;
        }
        if (!found->is_string()) return trouble(name, "is no text.");
        const auto v = found->get<std::string>();
        if (!known.empty() && std::find(known.begin(), known.end(), v) == known.end())
            return trouble(name,
                           fmt::format("is \"{}\"; it is one of {}.", shown(v), fmt::join(known, ", ")));
        into = v;
    };
    std::string kind, standard = "en1992", combinations = "6.10", approach = "DA1", is;
    word(j, "", "kind", kind, {"pads", "caps"}, true);
    word(j, "", "standard", standard, {"en1992", "aci318-si", "aci318-us"});
    word(j, "", "combinations", combinations, {"6.10", "6.10ab"});
    word(j, "", "approach", approach, {"DA1", "DA2", "DA3"});
    word(j, "", "source", source, {});
    auto& basis = project.basis;
    basis.standard = standard;
    set.kind = kind == "caps" ? model::BaseSet::Kind::Caps : model::BaseSet::Kind::Pads;
    set.twoFormulas = combinations == "6.10ab";
    set.approach = approach.back() - '0';
    // Where the standard's family has bars of its own, these: mid sizes for bases and slabs, small ones
    // beside.
    const auto rules = standards::makeStandard(standard);
    if (const auto* bars = rules ? catalogs::barCatalog(rules->family) : nullptr) {
        basis.barCatalog = bars->id;
        set.bars.clear(), basis.mainBars.clear(), basis.secondaryBars.clear();
        for (const auto& b : bars->bars) {
            if (b.diameter > 12 && b.diameter < 30) set.bars.push_back(b.name);
            if (b.diameter > 12 && b.diameter < 23) basis.mainBars.push_back(b.name);
            if (b.diameter < 13) basis.secondaryBars.push_back(b.name);
        }
        basis.linkBars = basis.secondaryBars;
    }
    double strength = 30, yield = 500, density = 25e-6;
    // In inch-pound all begins with the round values of its units.
    if (catalogs::startingValues(standard).usCustomary) {
        const auto begun = model::freshProject(standard);
        basis = begun.basis;
        strength = basis.concreteStrength, yield = basis.steelYield, density = basis.concreteDensity;
        const auto fresh = model::newBaseSet(begun, set.name, set.kind);
        set.bars = fresh->bars;
        set.planStep = fresh->planStep, set.depthStep = fresh->depthStep, set.leastDepth = fresh->leastDepth;
        set.ground.depth = fresh->ground.depth;
    }
    number(j, "", "concrete_strength_MPa", strength, 1, 12, 90);
    number(j, "", "steel_yield_MPa", yield, 1, 200, 700);
    number(j, "", "concrete_density_kN_m3", density, 1e-6, 10, 40);
    number(j, "", "cover_foundation_mm", basis.coverFoundation, 1, 10, 200);
    for (auto* m : {&basis.foundation, &basis.pileCap}) {
        if (m->strength != strength) m->concrete = fmt::format("fc {}", units::plain(strength));
        if (m->yield != yield) m->steel = fmt::format("fy {}", units::plain(yield));
        m->strength = strength, m->yield = yield, m->density = density;
    }
    auto& g = set.ground;
    number(j, "", "founding_depth_m", g.depth, 1000, 0, 20);
    number(j, "", "cover_soil_kN_m3", g.soil, 1e-6, 0, 40);
    number(j, "", "surcharge_kPa", g.surcharge, 1e-3, 0, 1000);
    asked.insert("water_depth_m");
    if (j.contains("water_depth_m") && !j["water_depth_m"].is_null()) {
        number(j, "", "water_depth_m", g.waterDepth, 1000, 0, 100);
        g.water = true;
    }
    number(j, "", "base_friction_deg", g.baseFriction, 1, 0, 45);
    number(j, "", "blinding_mm", g.blinding, 1, 0, 1000);
    number(j, "", "adhesion_kPa", g.adhesion, 1e-3, 0, 10000);
    number(j, "", "passive_share", g.passiveShare, 1, 0, 1);
    number(j, "", "ground_friction_deg", g.friction, 1, 1, 50);
    number(j, "", "settlement_mm", g.settlement, 1, 1, 1000);
    for (const char* key : {"layers", "site", "one_base", "straps"}) {
        asked.insert(key);
        if (j.contains(key) && (!j[key].is_array() || j[key].size() > 1000)) trouble(key, "is no list.");
    }
    if (!why.empty()) return why;
    for (const auto& row : j.value("layers", json::array())) {
        if (!row.is_object()) {
            trouble("layers", "has a row that is no object.");
            break;
        }
        auto& layer = g.layers.emplace_back();
        number(row, "layers.", "thickness_m", layer.thickness, 1000, 0.01, 200, true);
        number(row, "layers.", "modulus_MPa", layer.modulus, 1, 0.1, 100000, true);
        number(row, "layers.", "poisson", layer.poisson, 1, 0, 0.499);
        for (const auto& [key, value] : row.items())
            if (!asked.contains("layers." + key))
                trouble("layers." + key, "is not known; check its spelling.");
    }
    for (const auto& corner : j.value("site", json::array())) {
        if (!corner.is_array() || corner.size() != 2 || !corner[0].is_number() || !corner[1].is_number()) {
            trouble("site", "has a corner that is no [x, y] in m.");
            break;
        }
        set.site.push_back({corner[0].get<double>() * 1000, corner[1].get<double>() * 1000});
    }
    auto named = [&](const std::string& name) {
        return std::find_if(set.columns.begin(), set.columns.end(),
                            [&](const model::BaseColumn& c) { return c.name == name; });
    };
    for (const auto& group : j.value("one_base", json::array())) {
        std::vector<model::Id> bases;
        if (!group.is_array()) {
            trouble("one_base", "has a row that is no list of columns.");
            break;
        }
        for (const auto& name : group) {
            const auto column = name.is_string() ? named(name.get<std::string>()) : set.columns.end();
            if (column == set.columns.end()) {
                if (notes)
                    notes->push_back(
                        fmt::format("\"one_base\" of the ground names {}, which is no column of the table.",
                                    name.is_string() ? "\"" + shown(name.get<std::string>()) + "\""
                                                     : std::string("something")));
                continue;
            }
            for (const auto& b : set.bases)
                if (std::find(b.columns.begin(), b.columns.end(), column->id) != b.columns.end())
                    bases.push_back(b.id);
        }
        model::joinInSet(set, bases);
    }
    for (const auto& [key, bar] : {std::pair{"starter_bar", &set.starterBar},
                                   {"side_bar", &set.sideBar},
                                   {"link_bar", &set.linkBar}}) {
        std::vector<std::string> known{""};
        for (const auto& b : catalogs::barCatalog(basis.barCatalog)->bars) known.push_back(b.name);
        word(j, "", key, *bar, known);
    }
    std::string outline = "rectangular", steel = "greater";
    word(j, "", "cap_outline", outline, {"rectangular", "along_piles", "corners_cut"});
    word(j, "", "cap_steel", steel, {"greater", "bending", "truss"});
    set.outline = outline == "along_piles"   ? model::CapOutline::AlongPiles
                  : outline == "corners_cut" ? model::CapOutline::CornersCut
                                             : model::CapOutline::Rectangular;
    set.capSteel = steel == "bending" ? model::CapSteel::Bending
                   : steel == "truss" ? model::CapSteel::Truss
                                      : model::CapSteel::Greater;
    if (j.contains("top_bars")) {
        asked.insert("top_bars");
        if (j["top_bars"].is_boolean())
            set.topBars = j["top_bars"].get<bool>();
        else
            trouble("top_bars", "is neither true nor false.");
    }
    number(j, "", "side_spacing_mm", set.sideSpacing, 1, 50, 500);
    number(j, "", "link_spacing_mm", set.linkSpacing, 1, 50, 600);
    asked.insert("top");
    for (const auto& row : j.value("straps", json::array())) {
        const bool two = row.is_array() && row.size() == 2 && row[0].is_string() && row[1].is_string();
        if (!two) {
            trouble("straps", "has a row that is no pair of columns.");
            break;
        }
        const auto near = named(row[0].get<std::string>()), far = named(row[1].get<std::string>());
        for (const auto& [found, name] : {std::pair{near, row[0]}, {far, row[1]}})
            if (found == set.columns.end() && notes)
                notes->push_back(
                    fmt::format("\"straps\" of the ground names \"{}\", which is no column of the table.",
                                shown(name.get<std::string>())));
        if (near == set.columns.end() || far == set.columns.end()) continue;
        for (auto& b : set.bases)
            if (std::find(b.columns.begin(), b.columns.end(), near->id) != b.columns.end())
                b.strap.to = far->id;
    }
    if (j.contains("top")) {
        const json& t = j["top"];
        if (!t.is_object()) {
            trouble("top", "is no object.");
        } else {
            model::BaseTop top;
            std::string fall = "level";
            word(t, "top.", "kind", fall, {"level", "sloped", "stepped"}, true);
            number(t, "top.", "edge_mm", top.edge, 1, 100, 5000);
            number(t, "top.", "shoulder_mm", top.shoulder, 1, 0, 5000);
            top.kind = fall == "sloped"    ? model::BaseTop::Kind::Sloped
                       : fall == "stepped" ? model::BaseTop::Kind::Stepped
                                           : model::BaseTop::Kind::Level;
            for (const auto& [key, value] : t.items())
                if (!asked.contains("top." + key)) trouble("top." + key, "is not known; check its spelling.");
            // Bases with straps or several columns stay level.
            for (auto& b : set.bases)
                if (b.columns.size() == 1 && !b.strap.any()) b.top = top;
        }
    }
    using By = model::GroundValues::By;
    for (const char* key : {"allowable_kPa", "allowable_is", "bearing", "pile"}) asked.insert(key);
    const bool allowable = j.contains("allowable_kPa"), bearing = j.contains("bearing");
    if (set.kind == model::BaseSet::Kind::Pads) {
        if (allowable && bearing) trouble("bearing", "stands beside \"allowable_kPa\"; give one of the two.");
        if (!allowable && !bearing) trouble("allowable_kPa", "is missing, and so is \"bearing\".");
    }
    if (allowable) {
        number(j, "", "allowable_kPa", g.allowable, 1e-3, 5, 20000);
        word(j, "", "allowable_is", is, {"gross", "net"}, true);
        g.by = is == "net" ? By::Net : By::Gross;
    }
    if (bearing) {
        const json& b = j["bearing"];
        if (!b.is_object()) {
            trouble("bearing", "is no object.");
        } else {
            g.by = b.contains("cu_kPa") ? By::Undrained : By::Drained;
            number(b, "bearing.", "c_kPa", g.cohesion, 1e-3, 0, 10000);
            number(b, "bearing.", "phi_deg", g.friction, 1, 1, 50, g.by == By::Drained);
            number(b, "bearing.", "cu_kPa", g.undrained, 1e-3, 1, 10000);
            number(b, "bearing.", "unit_weight_kN_m3", g.weightBelow, 1e-6, 5, 40);
            for (const auto& [key, value] : b.items())
                if (!asked.contains("bearing." + key))
                    trouble("bearing." + key, "is not known; check its spelling.");
        }
    }
    auto& p = set.pile;
    if (j.contains("pile")) {
        const json& b = j["pile"];
        if (!b.is_object()) {
            trouble("pile", "is no object.");
        } else {
            std::string shape = "circular", state = "service";
            word(b, "pile.", "shape", shape, {"circular", "square"});
            word(b, "pile.", "at", state, {"service", "ultimate"}, true);
            number(b, "pile.", "diameter_mm", p.diameter, 1, 100, 3000, true);
            number(b, "pile.", "compression_kN", p.compression, 1e3, 1, 1e6, true);
            number(b, "pile.", "tension_kN", p.tension, 1e3, 0, 1e6);
            number(b, "pile.", "lateral_kN", p.lateral, 1e3, 0, 1e6);
            number(b, "pile.", "spacing_factor", p.spacingFactor, 1, 1.5, 10);
            number(b, "pile.", "edge_mm", p.edge, 1, 0, 2000);
            number(b, "pile.", "embedment_mm", p.embedment, 1, 0, 1000);
            number(b, "pile.", "tolerance_mm", p.tolerance, 1, 0, 500);
            number(b, "pile.", "length_m", p.length, 1e3, 0, 100);
            p.circular = shape == "circular", p.ultimate = state == "ultimate";
            for (const auto& [key, value] : b.items())
                if (!asked.contains("pile." + key))
                    trouble("pile." + key, "is not known; check its spelling.");
        }
    } else if (set.kind == model::BaseSet::Kind::Caps) {
        trouble("pile", "is missing.");
    }
    for (const auto& [key, value] : j.items())
        if (!asked.contains(key)) trouble(shown(key), "is not known; check its spelling.");
    return why;
}

}  // namespace talvik::formats
