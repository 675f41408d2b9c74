#include "catalogs/catalogs.h"

#include <cmath>
#include <nlohmann/json.hpp>
#include <numbers>

#include "catalogs/data.h"
#include "units/units.h"

namespace talvik::catalogs {
namespace {

using nlohmann::json;

json load(std::string_view name) {
    return json::parse(data::file(name));
}

template <class T>
const T* byId(const std::vector<T>& rows, std::string_view id) {
    for (const T& row : rows)
        if (row.id == id) return &row;
    return nullptr;
}

BarCatalog loadBars(std::string_view name) {
    json j = load(name);
    BarCatalog catalog{j["id"], j["title"], {}};
    for (const auto& b : j["bars"]) {
        double d = b["diameter_mm"], area = b.value("area_mm2", std::numbers::pi / 4 * d * d);
        catalog.bars.push_back({b["name"], d, area, b.value("mass_kg_m", massPerMetre(area))});
    }
    return catalog;
}

const json& materials() {
    static const json j = load("materials.json");
    return j;
}

}  // namespace

const Bar* BarCatalog::find(std::string_view name) const {
    for (const Bar& bar : bars)
        if (bar.name == name) return &bar;
    return nullptr;
}

const std::vector<BarCatalog>& barCatalogs() {
    static const std::vector<BarCatalog> all{loadBars("bars_metric.json"), loadBars("bars_us.json"),
                                             loadBars("bars_aci_si.json")};
    return all;
}

const BarCatalog* barCatalog(std::string_view id) {
    return byId(barCatalogs(), id);
}

double massPerMetre(double area) {
    return area * 7850e-6;
}

const std::vector<ConcreteClass>& concreteClasses() {
    static const auto all = [] {
        std::vector<ConcreteClass> rows;
        for (const auto& r : materials()["concrete"])
            rows.push_back({r["id"], r["family"], r["strength_MPa"]});
        return rows;
    }();
    return all;
}

const std::vector<SteelGrade>& steelGrades() {
    static const auto all = [] {
        std::vector<SteelGrade> rows;
        for (const auto& r : materials()["steel"]) rows.push_back({r["id"], r["family"], r["yield_MPa"]});
        return rows;
    }();
    return all;
}

const std::vector<Finish>& finishes() {
    static const auto all = [] {
        std::vector<Finish> rows;
        for (const auto& r : materials()["finishes"])
            rows.push_back({r["id"], r["density_kN_m3"].get<double>() * 1e-6});
        return rows;
    }();
    return all;
}

const std::vector<CoverSet>& coverSets() {
    static const auto all = [] {
        std::vector<CoverSet> rows;
        const json j = load("covers.json");
        for (const auto& r : j["covers"]) rows.push_back({r["id"], r["family"], r["cover_mm"]});
        return rows;
    }();
    return all;
}

const StartingValues& startingValues(std::string_view standard) {
    static const auto all = [] {
        std::vector<StartingValues> rows;
        const json j = load("starting_values.json");
        for (const auto& r : j["standards"]) {
            StartingValues v;
            v.standard = r["standard"], v.usCustomary = r["us_customary"];
            v.bars = r["bars"], v.concrete = r["concrete"], v.steel = r["steel"];
            const auto number = [&](const char* key) { return r[key].get<double>(); };
            v.density = number("density_kN_m3") * 1e-6;
            v.coverTop = r["cover_mm"][0], v.coverBottom = r["cover_mm"][1], v.coverSide = r["cover_mm"][2];
            v.coverFoundation = number("cover_foundation_mm"), v.aggregate = number("aggregate_mm");
            v.main = r["main"], v.secondary = r["secondary"], v.links = r["links"];
            v.foundationBars = r["foundation_bars"];
            v.spacingLeast = r["spacing_mm"][0], v.spacingMost = r["spacing_mm"][1],
            v.spacingStep = r["spacing_mm"][2];
            v.stock = number("stock_mm"), v.crack = number("crack_mm");
            v.spans = r["spans_mm"].get<std::vector<double>>();
            v.width = number("width_mm"), v.thickness = number("thickness_mm"),
            v.support = number("support_mm");
            v.imposed = number("imposed_kN_m2") * 1e-3;
            v.floorSlab = number("floor_slab_mm"), v.zone = number("zone_mm"), v.column = number("column_mm");
            v.wall = number("wall_mm"), v.beamWidth = r["beam_mm"][0], v.beamDepth = r["beam_mm"][1];
            v.storey = number("storey_mm");
            v.areaLoad = number("area_load_kN_m2") * 1e-3, v.lineLoad = number("line_load_kN_m");
            v.pointLoad = number("point_load_kN") * 1e3, v.footprint = number("footprint_mm");
            v.planStep = number("plan_step_mm"), v.depthStep = number("depth_step_mm");
            v.leastDepth = number("least_depth_mm"), v.founding = number("founding_mm");
            v.allowable = number("allowable_kN_m2") * 1e-3;
            v.pile = number("pile_mm"), v.pileCapacity = number("pile_kN") * 1e3;
            rows.push_back(std::move(v));
        }
        return rows;
    }();
    for (const auto& v : all)
        if (v.standard == standard) return v;
    return all.front();
}

const std::vector<ImposedUse>& imposedUses() {
    static const auto all = [] {
        std::vector<ImposedUse> rows;
        const json j = load("imposed_uses.json");
        for (const auto& r : j["uses"])
            rows.push_back({r["id"], r["title"], r["load_kN_m2"].get<double>() * 1e-3, r["psi0"], r["psi1"],
                            r["psi2"], r["sustained"]});
        return rows;
    }();
    return all;
}

const ImposedUse* imposedUse(std::string_view id) {
    return byId(imposedUses(), id);
}

std::string_view dataText(std::string_view name) {
    return data::file(name);
}

const ParameterSet& parameterSet(std::string_view fileName) {
    static std::map<std::string, ParameterSet, std::less<>> sets = [] {
        std::map<std::string, ParameterSet, std::less<>> all;
        for (const char* name : {"parameters_en1992.json", "parameters_aci318.json"}) {
            json j = load(name);
            ParameterSet set{j["id"], j["standard"], {}};
            for (const auto& p : j["parameters"])
                set.parameters.push_back(
                    {p["key"], p["clause"], p["meaning"], p["value"], p["low"], p["high"]});
            all[name] = std::move(set);
        }
        return all;
    }();
    return sets.find(fileName)->second;
}

ParameterValues values(const ParameterSet& set, const ParameterValues& changes) {
    ParameterValues all;
    for (const auto& p : set.parameters) {
        auto changed = changes.find(p.key);
        all[p.key] = changed == changes.end() ? p.value : changed->second;
    }
    return all;
}

const std::vector<Shape>& shapes() {
    static const auto all = [] {
        std::vector<Shape> rows;
        const json j = load("shapes.json");
        for (const auto& r : j["shapes"]) rows.push_back({r["code"], r["dimensions"], r["length"]});
        return rows;
    }();
    return all;
}

const Shape* shape(std::string_view code) {
    for (const Shape& s : shapes())
        if (s.code == code) return &s;
    return nullptr;
}

double bendRadius(double diameter) {
    return diameter <= 16 ? 2 * diameter : std::floor(3.5 * diameter);
}

std::optional<double> cutLength(std::string_view code, double diameter, double radius,
                                const std::map<char, double>& dimensions) {
    const Shape* s = shape(code);
    if (!s) return {};
    std::map<std::string, double, std::less<>> symbols{{"d", diameter}, {"r", radius}};
    for (auto [letter, value] : dimensions) symbols[std::string(1, letter)] = value;
    return units::evaluate(s->length, symbols).value;
}

}  // namespace talvik::catalogs
