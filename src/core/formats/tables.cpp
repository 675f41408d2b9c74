#include "formats/tables.h"

#include <fmt/format.h>
#include <unistd.h>
#include <xlsxwriter.h>

#include <cmath>
#include <cstdio>
#include <map>
#include <nlohmann/json.hpp>

#include "checks/checks.h"
#include "design/bases.h"
#include "design/floor_design.h"
#include "design/pile_schedule.h"
#include "formats/file.h"
#include "report/quantities_page.h"

namespace talvik::formats {
namespace {

using units::Kind;

// A cell that begins like a formula is led by an apostrophe: it stays text wherever it is opened.
std::string safe(const std::string& s) {
    return !s.empty() && std::string("=+-@\t\r").find(s[0]) != std::string::npos ? "'" + s : s;
}
std::string quoted(const std::string& plain) {
    const std::string s = safe(plain);
    if (s.find_first_of(",\"\n") == std::string::npos) return s;
    std::string out = "\"";
    for (char c : s) out += c == '"' ? std::string("\"\"") : std::string(1, c);
    return out + "\"";
}

struct Columns {
    units::System system;
    double length(double stored) const {
        return *units::evaluate(units::number(stored, Kind::Length, system)).value;
    }
    double mass(double stored) const {
        return std::round(stored / units::unit(Kind::Mass, system).factor * 100) / 100;
    }
    std::vector<std::string> heads() const {
        std::string l(units::unit(Kind::Length, system).symbol), m(units::unit(Kind::Mass, system).symbol);
        return {"Member",          "Mark",          "Type and size",          "Members",
                "In each",         "Total",         "Cut length [" + l + "]", "Shape",
                "A [" + l + "]",   "B [" + l + "]", "C [" + l + "]",          "D [" + l + "]",
                "E/R [" + l + "]", "Revision",      "Mass each [" + m + "]",  "Mass [" + m + "]"};
    }
};
constexpr char letters[] = {'A', 'B', 'C', 'D', 'E'};

// The tables of a page below each other, numbers as numbers, with the words between them.
void writeTables(lxw_workbook* book, lxw_format* bold, const char* name, const report::Document& document) {
    lxw_worksheet* sheet = workbook_add_worksheet(book, name);
    worksheet_set_column(sheet, 0, 0, 24, nullptr);
    worksheet_set_column(sheet, 1, 12, 15, nullptr);
    lxw_row_t row = 0;
    for (const auto& block : document.blocks) {
        if (block.rows.empty()) {
            worksheet_write_string(sheet, row, 0, block.text.c_str(),
                                   block.kind == report::Block::Kind::Paragraph ? nullptr : bold);
            ++row;
            continue;
        }
        for (std::size_t i = 0; i < block.rows.size(); ++i, ++row)
            for (std::size_t k = 0; k < block.rows[i].size(); ++k) {
                const auto& cell = block.rows[i][k];
                char* end = nullptr;
                const double v = std::strtod(cell.c_str(), &end);
                if (i > 0 && k > 0 && !cell.empty() && *end == 0)
                    worksheet_write_number(sheet, row, static_cast<lxw_col_t>(k), v, nullptr);
                else
                    worksheet_write_string(sheet, row, static_cast<lxw_col_t>(k), cell.c_str(),
                                           i == 0 ? bold : nullptr);
            }
        ++row;
    }
}

}  // namespace

std::string scheduleCsv(const model::Project& project, const design::Design& design) {
    Columns c{project.basis.units};
    std::string out;
    for (const auto& h : c.heads()) out += (out.empty() ? "" : ",") + quoted(h);
    out += "\n";
    auto plain = [](double v) { return units::plain(v, 8); };
    auto all = design.schedule();
    for (const auto& row : all.rows) {
        out += fmt::format("{},{:02},{},{},{},{},{},{}", quoted(row.member), row.mark, row.bar, row.members,
                           row.number, row.total(), plain(c.length(row.cutLength)), row.shape);
        for (char letter : letters) {
            auto it = row.dimensions.find(letter);
            if (it == row.dimensions.end() && letter == 'E') it = row.dimensions.find('R');
            out += "," + (it == row.dimensions.end() ? std::string() : plain(c.length(it->second)));
        }
        out += fmt::format(",{},{},{}\n", quoted(row.revision), plain(c.mass(row.massEach)),
                           plain(c.mass(row.mass())));
    }
    for (const auto& t : all.totals)
        out += fmt::format("Total,,{},,,{},{},,,,,,,,,{}\n", t.bar, t.number, plain(c.length(t.length)),
                           plain(c.mass(t.mass)));
    out += fmt::format("Total,,,,,,,,,,,,,,,{}\n", plain(c.mass(all.mass)));
    return out;
}

namespace {

// Closes a workbook and puts it in its place; a sentence where it cannot be written.
std::string finished(lxw_workbook* book, const MemoryFile& memory, const std::string& path) {
    if (lxw_error error = workbook_close(book); error != LXW_NO_ERROR)
        return fmt::format("{} cannot be written: {}.", path,
                           error == LXW_ERROR_CREATING_TMPFILE
                               ? std::string("there is no room for temporary files")
                               : std::string(lxw_strerror(error)));
    const auto content = memory.content();
    return content.error.empty() ? writeFile(path, content.text) : content.error;
}

}  // namespace

std::string writeScheduleXlsx(const std::string& path, const model::Project& project,
                              const design::Design& design) {
    Columns c{project.basis.units};
    const MemoryFile memory;
    lxw_workbook* book = workbook_new(memory.path().c_str());
    lxw_doc_properties properties{};
    std::string title = project.name + ": bar schedule";
    properties.title = title.data();
    properties.created = 946684800;  // a fixed time, so that equal schedules are equal files
    workbook_set_properties(book, &properties);
    lxw_format* bold = workbook_add_format(book);
    format_set_bold(bold);
    lxw_worksheet* bars = workbook_add_worksheet(book, "Bars");
    auto heads = c.heads();
    for (std::size_t i = 0; i < heads.size(); ++i)
        worksheet_write_string(bars, 0, static_cast<lxw_col_t>(i), heads[i].c_str(), bold);
    worksheet_set_column(bars, 0, 0, 22, nullptr);
    worksheet_set_column(bars, 1, 15, 11, nullptr);
    worksheet_freeze_panes(bars, 1, 0);
    auto all = design.schedule();
    lxw_row_t row = 1;
    for (const auto& r : all.rows) {
        auto word = [&](lxw_col_t at, const std::string& s) {
            worksheet_write_string(bars, row, at, s.c_str(), nullptr);
        };
        auto value = [&](lxw_col_t at, double v) { worksheet_write_number(bars, row, at, v, nullptr); };
        word(0, r.member), word(1, fmt::format("{:02}", r.mark)), word(2, r.bar);
        value(3, r.members), value(4, r.number), value(5, r.total()), value(6, c.length(r.cutLength));
        word(7, r.shape);
        for (auto [letter, v] : r.dimensions)
            value(letter == 'R' ? 12 : static_cast<lxw_col_t>(8 + letter - 'A'), c.length(v));
        word(13, r.revision), value(14, c.mass(r.massEach)), value(15, c.mass(r.mass()));
        ++row;
    }
    lxw_worksheet* totals = workbook_add_worksheet(book, "Totals");
    std::string l(units::unit(Kind::Length, c.system).symbol), m(units::unit(Kind::Mass, c.system).symbol);
    const std::string names[] = {"Type and size", "Number", "Length [" + l + "]", "Mass [" + m + "]"};
    for (int i = 0; i < 4; ++i)
        worksheet_write_string(totals, 0, static_cast<lxw_col_t>(i), names[i].c_str(), bold);
    worksheet_set_column(totals, 0, 3, 15, nullptr);
    row = 1;
    for (const auto& t : all.totals) {
        worksheet_write_string(totals, row, 0, t.bar.c_str(), nullptr);
        worksheet_write_number(totals, row, 1, t.number, nullptr);
        worksheet_write_number(totals, row, 2, c.length(t.length), nullptr);
        worksheet_write_number(totals, row, 3, c.mass(t.mass), nullptr);
        ++row;
    }
    worksheet_write_string(totals, row, 0, "Total", bold);
    worksheet_write_number(totals, row, 3, c.mass(all.mass), bold);
    const auto document = report::quantitiesPage(project, design);
    writeTables(book, bold, "Quantities", document);
    const auto cutting = report::cuttingPage(project, design);
    writeTables(book, bold, "Cutting", cutting);
    return finished(book, memory, path);
}

namespace {

nlohmann::json shown(double v, Kind kind, units::System system) {
    return units::rounded(v / units::unit(kind, system).factor, 6);
}

nlohmann::json checkJson(const checks::Check& c, units::System system) {
    using nlohmann::json;
    json check{{"key", c.key},
               {"title", c.title},
               {"clause", c.clause},
               {"outcome", checks::name(c.outcome)},
               {"x", shown(c.place.x, Kind::Span, system)}};
    if (checks::isJudged(c)) {
        check["demand"] = shown(c.demand, c.kind, system);
        check["limit"] = shown(c.limit, c.kind, system);
        check["unit"] = units::unit(c.kind, system).symbol;
        check["ratio"] = std::round(checks::ratio(c) * 1e4) / 1e4;
    } else {
        check["reason"] = c.reason;
    }
    if (!c.combination.empty()) check["combination"] = c.combination;
    if (const auto said = checks::said(c); !said.empty()) check["notes"] = said;
    for (const auto& step : c.steps) {
        json st{{"formula", trace::formula(step, trace::Form::Plain)},
                {"result", units::rounded(step.result, 6)},
                {"unit", step.unit},
                {"clause", step.clause}};
        if (!step.expression.empty()) st["numbers"] = trace::substituted(step, trace::Form::Plain);
        if (!step.note.empty()) st["note"] = step.note;
        check["steps"].push_back(st);
    }
    return check;
}

nlohmann::json checksJson(const std::vector<checks::Check>& all, units::System system) {
    nlohmann::json list = nlohmann::json::array();
    for (const auto& c : all) list.push_back(checkJson(c, system));
    return list;
}

nlohmann::json barsJson(const std::vector<bars::Run>& runs, units::System system) {
    nlohmann::json list = nlohmann::json::array();
    for (const auto& r : runs)
        list.push_back({{"face", r.top() ? "top" : "bottom"},
                        {"bar", r.bar},
                        {"spacing", shown(r.spacing, Kind::BarSpacing, system)},
                        {"from", shown(r.from, Kind::Span, system)},
                        {"to", shown(r.to, Kind::Span, system)},
                        {"breadth", r.band() ? shown(r.width, Kind::Span, system) : nlohmann::json()},
                        {"start", r.start == model::BarEnd::Hook ? "hook" : "straight"},
                        {"end", r.end == model::BarEnd::Hook ? "hook" : "straight"},
                        {"anchorage_start", shown(r.anchorStart, Kind::Length, system)},
                        {"anchorage_end", shown(r.anchorEnd, Kind::Length, system)},
                        {"band", r.band()},
                        {"fixed", r.fixed}});
    return list;
}

// What every element and every part have.
nlohmann::json elementJson(const design::ElementAnswer& e, units::System system) {
    nlohmann::json j{{"id", e.element},
                     {"name", e.name},
                     {"checks", checksJson(e.checks, system)},
                     {"steel_mass", shown(e.steel, Kind::Mass, system)}};
    if (!e.error.empty()) j["error"] = e.error;
    return j;
}
nlohmann::json partJson(const design::ElementAnswer& e, const design::PartAnswer& part,
                        units::System system) {
    nlohmann::json j{{"key", part.part.key}, {"name", part.name}};
    j["checks"] = checksJson(e.withWorking(part), system);
    if (const auto* line = dynamic_cast<const design::LineAnswer*>(&part)) {
        j["from"] = shown(line->view().line.from, Kind::Span, system);
        j["to"] = shown(line->view().line.to, Kind::Span, system);
        j["bars"] = barsJson(line->runs, system);
    }
    return j;
}

// What a base is besides its checks; lengths as shown, piles from the centre.
void addBase(nlohmann::json& j, const design::BasePart& b, units::System system) {
    const auto& s = b.size();
    j["type"] = b.type;
    j["centre"] = {shown(b.centre.x, Kind::Span, system), shown(b.centre.y, Kind::Span, system)};
    j["along_x"] = shown(s.B, Kind::Length, system), j["along_y"] = shown(s.L, Kind::Length, system);
    j["depth"] = shown(s.h, Kind::Length, system);
    for (auto p : b.piles())
        j["piles"].push_back({shown(p.x, Kind::Span, system), shown(p.y, Kind::Span, system)});
    for (bool top : {false, true})
        for (int axis : {0, 1}) {
            const auto& m = (top ? b.top() : b.bottom())[std::size_t(axis)];
            if (!m.bar || !m.number) continue;
            j["bars"].push_back({{"face", top ? "top" : "bottom"},
                                 {"along", axis == 0 ? "x" : "y"},
                                 {"bar", m.bar->name},
                                 {"number", m.number},
                                 {"spacing", shown(m.spacing, Kind::BarSpacing, system)},
                                 {"bent", m.hooked}});
        }
    if (b.shaped)
        j["top"] = {{"kind", b.shaped->stepped() ? "stepped" : "sloped"},
                    {"edge_depth", shown(b.shaped->edge(), Kind::Length, system)},
                    {"shoulder", shown(b.shaped->shoulder(0), Kind::Length, system)}};
    if (const auto* pad = std::get_if<bases::PadDesign>(&b.design); pad && pad->strap.any()) {
        const auto& t = pad->strap;
        auto& strap = j["strap"];
        strap = {{"along", t.line.axis == 0 ? "x" : "y"},
                 {"between_columns", shown(t.line.length, Kind::Span, system)},
                 {"width", shown(t.width, Kind::Length, system)},
                 {"depth", shown(t.depth, Kind::Length, system)},
                 {"top", t.top.text()},
                 {"bottom", t.bottom.text()}};
        if (t.link)
            strap["links"] = {{"bar", t.link->name},
                              {"legs", t.legs},
                              {"spacing", shown(t.spacing, Kind::BarSpacing, system)}};
    }
    if (!b.trouble().empty()) j["trouble"] = b.trouble();
}

nlohmann::json slabJson(const design::SlabAnswer& answer, units::System system) {
    using nlohmann::json;
    const auto& s = *answer.design;
    const auto* row = s.slab.get();
    json slab = elementJson(answer, system);
    slab["thickness"] = shown(row->thickness, Kind::Length, system);
    slab["camber"] = shown(s.camber, Kind::Sag, system);
    slab["imbalance"] = s.analysis.imbalance;
    slab["checks"] = checksJson(answer.withWorking(s), system);
    slab["bars"] = barsJson(s.bars, system);
    for (std::size_t i = 0; i < s.analysis.reactions.size(); ++i) {
        const auto& r = s.analysis.reactions[i];
        slab["reactions"].push_back({{"support", model::supportLabel(*row, i)},
                                     {"permanent", shown(r.permanent, Kind::ForcePerWidth, system)},
                                     {"imposed", shown(r.imposedMax, Kind::ForcePerWidth, system)},
                                     {"ultimate", shown(r.ultimateMax.value, Kind::ForcePerWidth, system)},
                                     {"unit", units::unit(Kind::ForcePerWidth, system).symbol}});
    }
    return slab;
}

// What was found by the mesh's own field, per direction and face.
nlohmann::json proofJson(const design::FloorDesign& f, units::System system) {
    using nlohmann::json;
    json all = json::array();
    if (!f.proof) return all;
    auto row = [&](const design::ProofOf& o, Kind kind) {
        json r{{"judged_m2", units::rounded(o.judged / 1e6, 6)},
               {"short_m2", units::rounded(o.shortArea / 1e6, 6)},
               {"worst", units::rounded(o.worst, 5)},
               {"asked", shown(o.asked, kind, system)},
               {"provided", shown(o.provided, kind, system)},
               {"unit", units::unit(kind, system).symbol},
               {"at", {shown(o.at.x, Kind::Span, system), shown(o.at.y, Kind::Span, system)}}};
        if (!o.combination.empty()) r["combination"] = o.combination;
        return r;
    };
    for (int d : {0, 1})
        for (bool top : {false, true}) {
            json r = row(f.proof->steel[std::size_t(d)][top], Kind::MomentPerWidth);
            r["direction"] = strips::directionName(d);
            r["face"] = top ? "top" : "bottom";
            all.push_back(std::move(r));
        }
    json v = row(f.proof->shear, Kind::ForcePerWidth);
    v["direction"] = "resultant";
    v["face"] = "shear";
    v["left_to_punching_m2"] = units::rounded(f.proof->punching / 1e6, 6);
    all.push_back(std::move(v));
    return all;
}

// Demand at the stations of a strip, per width, with the combinations that govern.
nlohmann::json stationsJson(const design::StripDesign& d, const design::FloorDesign& f,
                            units::System system) {
    using nlohmann::json;
    json all = json::array();
    const auto& combinations = f.analysis->combinations;
    for (std::size_t i = 0; i < d.stations().size(); ++i) {
        const auto& s = d.stations()[i];
        auto value = [&](const line::Extreme& e, Kind kind) {
            return shown(e.value / s.width, kind, system);
        };
        auto by = [&](const line::Extreme& e) {
            return e.value > 0 && e.by < combinations.size() ? json(combinations[e.by].name) : json();
        };
        all.push_back(
            {{"u", shown(s.u, Kind::Span, system)},
             {"width", shown(s.width, Kind::Span, system)},
             {"thickness", shown(s.thickness, Kind::Length, system)},
             {"shared_over_bottom", shown(s.share[0], Kind::Span, system)},
             {"shared_over_top", shown(s.share[1], Kind::Span, system)},
             {"m_bottom", value(d.demand.bottom[i], Kind::MomentPerWidth)},
             {"m_top", value(d.demand.top[i], Kind::MomentPerWidth)},
             {"v", value(d.demand.shear[i], Kind::ForcePerWidth)},
             {"m_bottom_by", by(d.demand.bottom[i])},
             {"m_top_by", by(d.demand.top[i])},
             {"v_by", by(d.demand.shear[i])},
             {"m_bottom_resistance", shown(d.bottom.resistance[i] / s.width, Kind::MomentPerWidth, system)},
             {"m_top_resistance", shown(d.top.resistance[i] / s.width, Kind::MomentPerWidth, system)}});
    }
    return all;
}

// A connection with its perimeters, what passes through each in the combination that governs, its shear
// steel.
nlohmann::json connectionJson(const design::FloorDesign& f, const design::ConnectionDesign& c,
                              units::System system) {
    using nlohmann::json;
    using At = standards::ControlSection::At;
    json j = partJson(f, c, system);
    auto place = [&](geometry::Point p) {
        return json{shown(p.x, Kind::Span, system), shown(p.y, Kind::Span, system)};
    };
    j["at"] = place(c.place.middle);
    j["position"] = c.position();
    if (!c.without.empty()) j["not_checked"] = c.without;
    j["perimeters"] = json::array();
    for (std::size_t i = 0; i < c.sections.size(); ++i) {
        const auto& s = c.sections[i];
        const auto& d = c.demand[i];
        json row{{"which", s.at == At::Face   ? "face"
                           : s.at == At::Drop ? "beyond the drop"
                                              : "control"},
                 {"position", standards::name(s.position)},
                 {"depth", shown(s.d, Kind::Length, system)},
                 {"length", shown(s.length * (s.at == At::Face ? s.scale : 1), Kind::Length, system)},
                 {"stress", shown(d.stress, Kind::ShearStress, system)},
                 {"strength", shown(d.strength, Kind::ShearStress, system)},
                 {"force", shown(d.forces.V, Kind::Force, system)},
                 {"moment_x", shown(d.forces.Mx, Kind::Moment, system)},
                 {"moment_y", shown(d.forces.My, Kind::Moment, system)},
                 {"combination", f.analysis->combinations[d.combination].name}};
        for (const auto& path : s.line.paths) {
            json line = json::array();
            for (auto p : path) line.push_back(place(p));
            row["lines"].push_back(std::move(line));
        }
        j["perimeters"].push_back(std::move(row));
    }
    if (!c.wanted) return j;
    json& steel = j["shear_steel"];
    if (!c.steel) {
        steel["trouble"] = c.steelTrouble;
        return j;
    }
    const auto& l = *c.steel;
    steel = {{"kind", l.kind == standards::ShearSteel::Studs ? "studs" : "links"},
             {"diameter", shown(l.diameter, Kind::Length, system)},
             {"height", shown(l.height, Kind::Length, system)},
             {"first", shown(l.first, Kind::Length, system)},
             {"spacing", shown(l.spacing, Kind::Length, system)},
             {"lines", l.legs.lines.size()},
             {"mass", shown(l.mass, Kind::Mass, system)}};
    if (!l.product.empty()) steel["product"] = l.product;
    std::map<int, int> lines;
    for (const auto& line : l.legs.lines) ++lines[line.perimeters];
    for (const auto& [legs, number] : lines)
        steel["cut"].push_back(
            {{"legs", legs}, {"number", number}, {"length", shown(l.spacing * legs, Kind::Length, system)}});
    for (const auto& leg : l.legs.legs) steel["legs"].push_back(place(leg.at));
    return j;
}

nlohmann::json floorJson(const design::FloorDesign& f, units::System system) {
    using nlohmann::json;
    json floor = elementJson(f, system);
    if (!f.layout) return floor;
    for (int d : {0, 1}) {
        const auto& c = f.layout->coverage[std::size_t(d)];
        floor["coverage"][strips::directionName(d)] = {
            {"whole_m2", units::rounded(c.whole / 1e6, 6)},
            {"in_no_strip_m2", units::rounded(c.uncovered / 1e6, 6)},
            {"in_two_m2", units::rounded(c.overlapped / 1e6, 6)}};
    }
    floor["steel_everywhere"] = proofJson(f, system);
    floor["strips"] = json::array();
    for (const auto& s : f.strips) {
        json strip = partJson(f, *s, system);
        strip["name"] = s->strip->name;
        strip["direction"] = strips::directionName(s->strip->direction);
        strip["angle"] = s->strip->axes.angle;
        for (const auto& ring : s->strip->parts) {
            json part = json::array();
            for (auto p : ring)
                part.push_back({shown(p.x, Kind::Span, system), shown(p.y, Kind::Span, system)});
            strip["outline"].push_back(std::move(part));
        }
        for (auto p : s->strip->axis)
            strip["axis"].push_back({shown(p.x, Kind::Span, system), shown(p.y, Kind::Span, system)});
        strip["stations"] = stationsJson(*s, f, system);
        floor["strips"].push_back(std::move(strip));
    }
    floor["connections"] = json::array();
    for (const auto& c : f.connections) floor["connections"].push_back(connectionJson(f, *c, system));
    return floor;
}

}  // namespace

std::string resultsJson(const model::Project& project, const design::Design& design) {
    using nlohmann::json;
    json j;
    j["project"] = project.name;
    j["standard"] = design.standard ? design.standard->title : project.basis.standard;
    auto sum = design.summary();
    j["summary"] = {{"over", sum.over},
                    {"within", sum.within},
                    {"not_checked", sum.notChecked},
                    {"not_applicable", sum.notApplicable}};
    j["slabs"] = json::array();
    for (const auto& e : design.elements) {
        const auto system = project.basis.units;
        if (const auto* slab = dynamic_cast<const design::SlabAnswer*>(e.get())) {
            j["slabs"].push_back(slabJson(*slab, system));
        } else if (const auto* floor = dynamic_cast<const design::FloorDesign*>(e.get())) {
            j["floors"].push_back(floorJson(*floor, system));
        } else {
            json other = elementJson(*e, system);
            for (const auto& part : e->parts) {
                json one = partJson(*e, *part, system);
                if (const auto* base = dynamic_cast<const design::BasePart*>(part.get()))
                    addBase(one, *base, system);
                other["parts"].push_back(std::move(one));
            }
            j["elements"].push_back(std::move(other));
        }
    }
    return j.dump(1, ' ', false, json::error_handler_t::replace) + "\n";
}

namespace {

template <class F>
void eachBase(const design::Design& design, F f) {
    for (const auto& e : design.elements)
        if (const auto* set = dynamic_cast<const design::BasesAnswer*>(e.get()))
            for (const auto& b : set->bases) f(*set, *b);
}

}  // namespace

namespace {

const std::vector<std::string> registerHeads{"base",  "kind",         "type",      "x[m]",     "y[m]",
                                             "B[mm]", "L[mm]",        "h[mm]",     "ex[mm]",   "ey[mm]",
                                             "piles", "bars_x",       "bars_y",    "bars_top", "governing",
                                             "ratio", "concrete[m3]", "steel[kg]", "cost"};
bool isWords(std::size_t column) {
    return column < 3 || (column >= 11 && column <= 14);
}
// A row per base, as bases-format.md says.
std::vector<std::vector<std::string>> registerRows(const design::Design& design) {
    std::vector<std::vector<std::string>> all;
    eachBase(design, [&](const design::BasesAnswer& set, const design::BasePart& b) {
        const auto& row = set.set->bases[b.number];
        const auto middle = model::middle(*set.set, row);
        const auto& s = b.size();
        const auto* worst = b.governing();
        std::string top;
        for (const auto& m : b.top())
            if (const auto text = m.text(); !text.empty()) top += (top.empty() ? "" : " + ") + text;
        auto value = [](double v, double digits = 3) {
            return units::plain(std::round(v * std::pow(10, digits)) / std::pow(10, digits));
        };
        all.push_back({model::baseName(*set.set, row),
                       set.set->kind == model::BaseSet::Kind::Pads ? "pad" : "cap", b.type,
                       value(middle.x / 1000), value(middle.y / 1000), value(s.B), value(s.L), value(s.h),
                       value(s.off.x), value(s.off.y), std::to_string(b.piles().size()), b.bottom()[0].text(),
                       b.bottom()[1].text(), top, worst ? worst->title : b.trouble(),
                       value(worst ? std::min(checks::ratio(*worst), 99.0) : 99.0), value(b.concrete),
                       value(b.steel, 1), value(b.cost, 2)});
    });
    return all;
}

}  // namespace

std::string baseRegisterCsv(const design::Design& design) {
    std::string out = fmt::format("{}\n", fmt::join(registerHeads, ","));
    for (const auto& row : registerRows(design))
        for (std::size_t c = 0; c < row.size(); ++c)
            out += (isWords(c) ? quoted(row[c]) : row[c]) + (c + 1 < row.size() ? "," : "\n");
    return out;
}

std::string writeBaseRegisterXlsx(const std::string& path, const design::Design& design) {
    const MemoryFile memory;
    lxw_workbook* book = workbook_new(memory.path().c_str());
    lxw_doc_properties properties{};
    std::string title = "Register of bases";
    properties.title = title.data();
    properties.created = 946684800;
    workbook_set_properties(book, &properties);
    lxw_format* bold = workbook_add_format(book);
    format_set_bold(bold);
    lxw_worksheet* sheet = workbook_add_worksheet(book, "Bases");
    for (std::size_t c = 0; c < registerHeads.size(); ++c)
        worksheet_write_string(sheet, 0, lxw_col_t(c), registerHeads[c].c_str(), bold);
    worksheet_set_column(sheet, 0, lxw_col_t(registerHeads.size() - 1), 12, nullptr);
    worksheet_freeze_panes(sheet, 1, 1);
    lxw_row_t at = 1;
    for (const auto& row : registerRows(design)) {
        for (std::size_t c = 0; c < row.size(); ++c)
            if (isWords(c))
                worksheet_write_string(sheet, at, lxw_col_t(c), row[c].c_str(), nullptr);
            else
                worksheet_write_number(sheet, at, lxw_col_t(c), std::strtod(row[c].c_str(), nullptr),
                                       nullptr);
        ++at;
    }
    return finished(book, memory, path);
}

std::string pileScheduleCsv(const design::Design& design) {
    std::string out = "base,pile,x[m],y[m],head below ground[m],largest[kN],under,least[kN],under (least)\n";
    eachBase(design, [&](const design::BasesAnswer& set, const design::BasePart& b) {
        for (const auto& p : design::pilesOf(set, b))
            out += fmt::format("{},{},{:.3f},{:.3f},{:.3f},{:.1f},{},{:.1f},{}\n",
                               quoted(model::baseName(*set.set, set.set->bases[b.number])), p.number,
                               p.at.x / 1000, p.at.y / 1000, design::cutOff(*set.set) / 1000,
                               p.largest / 1000, quoted(p.largestIn), p.least / 1000, quoted(p.leastIn));
    });
    return out;
}
std::string pileReactionsCsv(const design::Design& design) {
    std::string out = "base,combination,pile,reaction[kN]\n";
    eachBase(design, [&](const design::BasesAnswer& set, const design::BasePart& b) {
        const auto found = design::pileReactions(set, b);
        for (std::size_t i = 0; i < found.forces.size(); ++i)
            for (std::size_t k = 0; k < found.forces[i].size(); ++k)
                out += fmt::format("{},{},{},{:.2f}\n",
                                   quoted(model::baseName(*set.set, set.set->bases[b.number])),
                                   quoted(found.combinations[i]), k + 1, found.forces[i][k] / 1000);
    });
    return out;
}

std::string baseChecksJson(const design::Design& design) {
    nlohmann::json all = nlohmann::json::array();
    eachBase(design, [&](const design::BasesAnswer& set, const design::BasePart& b) {
        nlohmann::json one{{"base", model::baseName(*set.set, set.set->bases[b.number])},
                           {"piles", nlohmann::json::array()},
                           {"checks", checksJson(b.checks, units::System::Metric)}};
        for (auto p : b.piles())
            one["piles"].push_back({units::rounded(p.x / 1000, 9), units::rounded(p.y / 1000, 9)});
        if (!b.trouble().empty()) one["trouble"] = b.trouble();
        all.push_back(std::move(one));
    });
    return all.dump(1, ' ', false, nlohmann::json::error_handler_t::replace) + "\n";
}

std::string sweepCsv(const std::vector<design::SweepPoint>& points, const model::Project& project) {
    const auto system = project.basis.units;
    auto unit = [&](units::Kind kind) { return std::string(units::unit(kind, system).symbol); };
    auto value = [&](double v, units::Kind kind) {
        return units::plain(units::rounded(v / units::unit(kind, system).factor, 6));
    };
    std::string out = fmt::format(
        "thickness[{}],class,drops,over,within,largest ratio,concrete[{}],steel[{}],formwork[{}],cost[{}],"
        "carbon[{}],governs,trouble\n",
        unit(units::Kind::Length), unit(units::Kind::Volume), unit(units::Kind::Mass),
        unit(units::Kind::PlanArea), project.basis.rates.currency, unit(units::Kind::Mass));
    for (const auto& p : points)
        out +=
            fmt::format("{},{},{},{},{},{:.3f},{},{},{},{:.0f},{},{},{}\n",
                        value(p.thickness, units::Kind::Length), quoted(p.concrete), p.drops ? "yes" : "no",
                        p.over, p.within, p.worst, value(p.concreteVolume * 1e9, units::Kind::Volume),
                        value(p.steel, units::Kind::Mass), value(p.formwork * 1e6, units::Kind::PlanArea),
                        p.price, value(p.carbon, units::Kind::Mass), quoted(p.governs), quoted(p.error));
    return out;
}

}  // namespace talvik::formats
