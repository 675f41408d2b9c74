#include "formats/fields.h"

#include <fmt/format.h>

#include <nlohmann/json.hpp>

#include "units/units.h"

namespace talvik::formats {
namespace {

using analysis::Field;
using nlohmann::json;

struct Column {
    Field field;
    std::vector<double> values;
};

double figure(double v) {
    v = units::rounded(v, 6);
    return v == 0 ? 0 : v;  // no minus before nothing
}

std::string csv(const analysis::FloorAnalysis& a, const std::vector<Column>& columns) {
    const auto& m = *a.model;
    std::string out = "x[m],y[m]";
    bool perNode = true;
    for (const auto& c : columns) {
        out += fmt::format(",{}[{}]", analysis::key(c.field), analysis::unit(c.field));
        perNode &= a.perNode(c.field);
    }
    out += "\n";
    std::size_t rows = perNode ? m.plate.nodes.size() : m.points.node.size();
    for (std::size_t i = 0; i < rows; ++i) {
        std::size_t n = perNode ? i : std::size_t(m.points.node[i]);
        out += fmt::format("{:.6g},{:.6g}", m.plate.nodes[n].x / 1000, m.plate.nodes[n].y / 1000);
        for (const auto& c : columns)
            out += fmt::format(",{:.6g}",
                               figure(c.values[a.perNode(c.field) ? n : i] / analysis::factor(c.field)));
        out += "\n";
    }
    return out;
}

// Points are repeated where values jump, so that every value stands at a point of its own.
std::string vtu(const analysis::FloorAnalysis& a, const std::vector<Column>& columns) {
    const auto& m = *a.model;
    std::string out = fmt::format(
        "<?xml version=\"1.0\"?>\n<VTKFile type=\"UnstructuredGrid\" version=\"0.1\" "
        "byte_order=\"LittleEndian\">\n<UnstructuredGrid>\n<Piece NumberOfPoints=\"{}\" "
        "NumberOfCells=\"{}\">\n<Points>\n<DataArray type=\"Float64\" NumberOfComponents=\"3\" "
        "format=\"ascii\">\n",
        m.points.node.size(), m.plate.triangles.size());
    for (int n : m.points.node)
        out += fmt::format("{:.6g} {:.6g} 0\n", m.plate.nodes[n].x / 1000, m.plate.nodes[n].y / 1000);
    out +=
        "</DataArray>\n</Points>\n<Cells>\n<DataArray type=\"Int32\" Name=\"connectivity\" "
        "format=\"ascii\">\n";
    for (std::size_t t = 0; t < m.plate.triangles.size(); ++t)
        out += fmt::format("{} {} {}\n", m.points.corner[3 * t], m.points.corner[3 * t + 1],
                           m.points.corner[3 * t + 2]);
    out += "</DataArray>\n<DataArray type=\"Int32\" Name=\"offsets\" format=\"ascii\">\n";
    for (std::size_t t = 1; t <= m.plate.triangles.size(); ++t) out += fmt::format("{}\n", 3 * t);
    out += "</DataArray>\n<DataArray type=\"UInt8\" Name=\"types\" format=\"ascii\">\n";
    for (std::size_t t = 0; t < m.plate.triangles.size(); ++t) out += "5\n";
    out += "</DataArray>\n</Cells>\n<PointData>\n";
    for (const auto& c : columns) {
        out += fmt::format("<DataArray type=\"Float64\" Name=\"{} [{}]\" format=\"ascii\">\n",
                           analysis::key(c.field), analysis::unit(c.field));
        for (std::size_t i = 0; i < m.points.node.size(); ++i)
            out += fmt::format("{:.6g}\n",
                               figure(c.values[a.perNode(c.field) ? std::size_t(m.points.node[i]) : i] /
                                      analysis::factor(c.field)));
        out += "</DataArray>\n";
    }
    return out + "</PointData>\n</Piece>\n</UnstructuredGrid>\n</VTKFile>\n";
}

json rounded(double v) {
    return units::rounded(v, 9);
}

}  // namespace

FieldText fieldText(const analysis::FloorAnalysis& a, const std::string& field,
                    const std::string& combination, const std::string& format) {
    std::vector<Field> wanted;
    std::string known;
    for (int f = 0; f < analysis::fieldCount; ++f) {
        if (field == "all" || field == analysis::key(Field(f))) wanted.push_back(Field(f));
        known += std::string(analysis::key(Field(f))) + ", ";
    }
    if (wanted.empty())
        return {"",
                fmt::format("There is no field \"{}\"; there are: {}and all of them: all.", field, known)};
    int which = -1, asCase = -1;
    for (std::size_t k = 0; k < a.combinations.size() && which < 0; ++k)
        if (combination.empty() ? a.combinations[k].state == actions::LimitState::Ultimate
                                : a.combinations[k].name == combination)
            which = int(k);
    for (std::size_t c = 0; c < a.cases.size() && which < 0; ++c)
        if (a.cases[c].name == combination || a.cases[c].id == combination) asCase = int(c);
    if (asCase >= 0 && a.nonlinear)
        return {"",
                "Uplift from the ground occurs in some combinations (non-linear), so that cases cannot be "
                "shown by themselves; name a combination."};
    if (which < 0 && asCase < 0) {
        std::string names;
        for (const auto& k : a.combinations) names += "\n  " + k.name;
        for (const auto& c : a.cases) names += "\n  " + c.name;
        return {"",
                fmt::format("There is no combination or load case \"{}\"; there are:{}", combination, names)};
    }
    std::vector<double> factors(a.u.size(), 0);
    if (asCase >= 0) factors[std::size_t(asCase)] = 1;
    std::vector<Column> columns;
    for (Field f : wanted)
        columns.push_back({f, asCase >= 0 ? a.field(f, factors) : a.field(f, std::size_t(which))});
    return {format == "vtu" ? vtu(a, columns) : csv(a, columns), ""};
}

std::string analysisJson(const model::Floor& floor, const analysis::FloorAnalysis& a,
                         const AnalysisExtras& extras) {
    json j;
    j["floor"] = floor.name;
    const auto& m = *a.model;
    j["mesh"] = {{"triangles", m.plate.triangles.size()},
                 {"nodes", m.plate.nodes.size()},
                 {"unknowns", a.unknowns},
                 {"smallest_angle_deg", rounded(m.mesh.smallestAngle)},
                 {"shortest_side_mm", rounded(m.mesh.shortestSide)},
                 {"longest_side_mm", rounded(m.mesh.longestSide)}};
    j["cases"] = json::array();
    for (const auto& c : a.cases)
        j["cases"].push_back({{"name", c.name},
                              {"loads_kN", rounded(c.load / 1000)},
                              {"reactions_kN", rounded(c.reaction / 1000)},
                              {"in_balance_to_1e-9", c.imbalance < 1e-9}});
    j["combinations"] = json::array();
    for (const auto& k : a.combinations)
        j["combinations"].push_back({{"name", k.name}, {"clause", k.clause}, {"factors", k.factors}});
    auto extremes = [&](actions::LimitState state) {
        json all = json::array();
        for (const auto& e : a.extremes(state))
            for (auto [which, x] : {std::pair("most", &e.most), std::pair("least", &e.least)})
                all.push_back({{"field", analysis::key(e.field)},
                               {"which", which},
                               {"value", units::rounded(x->value / analysis::factor(e.field), 6)},
                               {"unit", analysis::unit(e.field)},
                               {"x_m", units::rounded(x->at.x / 1000, 6)},
                               {"y_m", units::rounded(x->at.y / 1000, 6)},
                               {"combination", a.combinations[x->combination].name}});
        return all;
    };
    j["ultimate"] = extremes(actions::LimitState::Ultimate);
    j["quasi_permanent"] = extremes(actions::LimitState::QuasiPermanent);
    j["supports"] = json::array();
    for (std::size_t s = 0; s < m.supports.size(); ++s) {
        json row{{"name", m.supports[s].name}};
        if (!a.nonlinear)
            for (std::size_t c = 0; c < a.cases.size(); ++c)
                row["cases_kN"][a.cases[c].name] = units::rounded(a.supportForces[c][s].up / 1000, 6);
        double most = 0;
        for (std::size_t k = 0; k < a.combinations.size(); ++k)
            if (a.combinations[k].state == actions::LimitState::Ultimate)
                most = std::max(most, a.forces(k)[s].up);
        row["largest_ultimate_kN"] = units::rounded(most / 1000, 6);
        j["supports"].push_back(row);
    }
    j["panels"] = json::array();
    for (const auto& p : extras.panels) {
        json rows = json::array();
        for (const auto& r : p.rows) {
            const auto& unit = units::unit(r.kind, units::System::Metric);
            rows.push_back({{"what", r.what},
                            {"engine", units::rounded(r.engine / unit.factor, 6)},
                            {"second_opinion", units::rounded(r.opinion / unit.factor, 6)},
                            {"unit", unit.symbol}});
        }
        j["panels"].push_back({{"name", p.name}, {"source", p.source}, {"rows", rows}});
    }
    for (const auto& r : extras.convergence.rows)
        j["convergence"].push_back({{"what", r.what},
                                    {"value", units::rounded(r.coarse, 6)},
                                    {"half_size", units::rounded(r.fine, 6)},
                                    {"unit", r.unit}});
    j["assumptions"] = a.assumptions;
    if (!a.contactWord.empty()) j["contact"] = a.contactWord;
    j["notes"] = json::array();
    for (const auto& n : a.notes) j["notes"].push_back({{"path", n.path}, {"message", n.message}});
    const auto& t = a.stages;
    j["milliseconds"] = {{"mesh", t.mesh * 1e3},         {"model", t.model * 1e3},
                         {"order", t.order * 1e3},       {"symbolic", t.symbolic * 1e3},
                         {"assembly", t.assembly * 1e3}, {"factor", t.factor * 1e3},
                         {"solve", t.solve * 1e3},       {"recover", t.recover * 1e3}};
    return j.dump(1, ' ', false, json::error_handler_t::replace) + "\n";
}

}  // namespace talvik::formats
