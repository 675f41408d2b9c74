#include "model/bases.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "model/project.h"

namespace talvik::model {

const BaseColumn* findColumn(const BaseSet& set, std::string_view id) {
    // Columns are mostly asked for in their order.
    for (const auto& c : set.columns)
        if (c.id == id) return &c;
    return nullptr;
}

std::string baseName(const BaseSet& set, const Base& base) {
    std::string all;
    for (const auto& id : base.columns)
        if (const auto* c = findColumn(set, id)) all += (all.empty() ? "" : " + ") + c->name;
    return all.empty() ? base.id : all;
}

void dropLooseStraps(BaseSet& set) {
    for (auto& b : set.bases) {
        const bool own = std::find(b.columns.begin(), b.columns.end(), b.strap.to) != b.columns.end();
        if (b.strap.any() && (own || b.columns.size() != 1 || !findColumn(set, b.strap.to))) b.strap = {};
    }
}

geometry::Point middle(const BaseSet& set, const Base& base) {
    geometry::Point m{0, 0};
    int n = 0;
    for (const auto& id : base.columns)
        if (const auto* c = findColumn(set, id)) m.x += c->x, m.y += c->y, ++n;
    return n ? geometry::Point{m.x / n, m.y / n} : m;
}

void validateBases(const BaseSet& set, const std::string& path, std::vector<Diagnostic>& found) {
    auto number = [&](const std::string& where, double value, double low, double high, double unit,
                      const char* what, const char* name) {
        if (!std::isfinite(value) || value < low || value > high)
            found.push_back(
                {path + "." + where,
                 fmt::format("{} must be between {} and {} {}; it is {}.", what, units::plain(low / unit),
                             units::plain(high / unit), name, units::plain(value / unit))});
    };
    const auto& g = set.ground;
    number("ground.allowable", g.allowable, 0.005, 20, 1e-3, "The allowable pressure", "kN/m²");
    number("ground.cohesion", g.cohesion, 0, 10, 1e-3, "The cohesion of the ground", "kN/m²");
    number("ground.friction", g.friction, g.by == GroundValues::By::Drained ? 1 : 0, 50, 1,
           "The friction angle of the ground", "degrees");
    number("ground.undrained", g.undrained, g.by == GroundValues::By::Undrained ? 1e-3 : 0, 10, 1e-3,
           "The undrained strength of the ground", "kN/m²");
    number("ground.weightBelow", g.weightBelow, 5e-6, 40e-6, 1e-6, "The weight of the ground", "kN/m³");
    number("ground.depth", g.depth, 0, 20000, 1, "The founding depth", "mm");
    number("ground.soil", g.soil, 0, 40e-6, 1e-6, "The weight of the soil above the base", "kN/m³");
    number("ground.surcharge", g.surcharge, 0, 1, 1e-3, "The surcharge", "kN/m²");
    number("ground.waterDepth", g.waterDepth, 0, 100000, 1, "The depth of the water", "mm");
    number("ground.baseFriction", g.baseFriction, 0, 45, 1, "The angle of friction at the base", "degrees");
    number("ground.blinding", g.blinding, 0, 1000, 1, "The blinding", "mm");
    number("ground.adhesion", g.adhesion, 0, 10, 1e-3, "The adhesion at the base", "kN/m²");
    number("ground.passiveShare", g.passiveShare, 0, 1, 1, "The share of passive pressure", "(of one)");
    number("ground.settlement", g.settlement, 1, 1000, 1, "The allowable settlement", "mm");
    if (g.layers.size() > 50) found.push_back({path + ".ground.layers", "The ground has at most 50 layers."});
    for (std::size_t i = 0; i < g.layers.size(); ++i) {
        const std::string at = fmt::format("ground.layers[{}]", i);
        number(at, g.layers[i].thickness, 10, 200000, 1e3, "The thickness of a layer", "m");
        number(at, g.layers[i].modulus, 0.1, 100000, 1, "The modulus of a layer", "MPa");
        number(at, g.layers[i].poisson, 0, 0.499, 1, "Poisson's ratio of a layer", "at the most");
    }
    const auto& p = set.pile;
    number("pile.diameter", p.diameter, 100, 3000, 1, "The size of the pile", "mm");
    if (set.kind == BaseSet::Kind::Caps)
        number("pile.compression", p.compression, 1e3, 1e9, 1e3, "The capacity of the pile in compression",
               "kN");
    number("pile.tension", p.tension, 0, 1e9, 1e3, "The capacity of the pile in tension", "kN");
    number("pile.lateral", p.lateral, 0, 1e9, 1e3, "The capacity of the pile against horizontal forces",
           "kN");
    number("pile.spacingFactor", p.spacingFactor, 1.5, 10, 1, "The spacing of the piles", "times their size");
    number("pile.edge", p.edge, 0, 2000, 1, "The distance from a pile to the edge of the cap", "mm");
    number("pile.embedment", p.embedment, 0, 1000, 1, "The embedment of the piles", "mm");
    number("pile.tolerance", p.tolerance, 0, 500, 1, "The tolerance of the piles", "mm");
    number("pile.length", p.length, 0, 100000, 1e3, "The length of the piles", "m");
    number("planStep", set.planStep, 1, 1000, 1, "The step of plan sizes", "mm");
    number("depthStep", set.depthStep, 1, 1000, 1, "The step of depths", "mm");
    number("leastDepth", set.leastDepth, 150, 5000, 1, "The minimum depth", "mm");
    if (set.approach < 1 || set.approach > 3)
        found.push_back({path + ".approach", "The design approach is 1, 2 or 3."});
    if (set.mostTypes < 0 || set.mostTypes > 100000)
        found.push_back({path + ".mostTypes", "The number of types is zero (no limit) or more."});
    number("sideSpacing", set.sideSpacing, 50, 500, 1, "The spacing of side bars", "mm");
    for (auto p2 : set.site)
        for (double v : {p2.x, p2.y}) number("site", v, -1e7, 1e7, 1e3, "A corner of the site", "m");
    if (!set.site.empty()) {
        const auto why = geometry::invalid(set.site);
        if (!why.empty())
            found.push_back({path + ".site", "The outline of the site cannot be used. " + why});
        else if (std::abs(geometry::area(set.site)) < 1e4)
            found.push_back({path + ".site", "The outline of the site encloses no area."});
    }
    if (set.bars.empty()) found.push_back({path + ".bars", "No bars are allowed for bases; name some."});
    std::set<Id> cases;
    for (std::size_t i = 0; i < set.cases.size(); ++i) cases.insert(set.cases[i].id);
    std::map<Id, const BaseColumn*> columns;
    for (std::size_t i = 0; i < set.columns.size(); ++i) {
        const auto& c = set.columns[i];
        const std::string at = fmt::format("columns[{}]", i);
        if (c.id.empty() || !columns.emplace(c.id, &c).second)
            found.push_back({path + "." + at, "A column lacks an id of its own."});
        number(at + ".x", c.x, -1e7, 1e7, 1e3, "The place of a column", "m");
        number(at + ".y", c.y, -1e7, 1e7, 1e3, "The place of a column", "m");
        number(at + ".width", c.width, 50, 10000, 1, "The width of a column", "mm");
        number(at + ".depth", c.depth, 50, 10000, 1, "The depth of a column", "mm");
        for (const auto& a : c.actions) {
            if (!cases.contains(a.loadCase))
                found.push_back(
                    {path + "." + at, fmt::format("Column {} has an action of no load case.", c.name)});
            for (double v : {a.N, a.Hx, a.Hy}) number(at, v, -1e9, 1e9, 1e3, "A force of a column", "kN");
            for (double v : {a.Mx, a.My}) number(at, v, -1e13, 1e13, 1e6, "A moment of a column", "kNm");
        }
    }
    number("linkSpacing", set.linkSpacing, 50, 600, 1, "The spacing of links", "mm");
    std::map<Id, const Base*> below;
    for (const auto& b : set.bases)
        for (const auto& id : b.columns) below.emplace(id, &b);
    std::set<Id> taken, ids;
    for (std::size_t i = 0; i < set.bases.size(); ++i) {
        const auto& b = set.bases[i];
        const std::string at = fmt::format("bases[{}]", i);
        if (b.id.empty() || !ids.insert(b.id).second)
            found.push_back({path + "." + at, "A base lacks an id of its own."});
        if (b.columns.empty()) found.push_back({path + "." + at, "A base stands below no column."});
        for (const auto& id : b.columns) {
            if (!columns.contains(id))
                found.push_back({path + "." + at, fmt::format("There is no column \"{}\".", id)});
            else if (!taken.insert(id).second)
                found.push_back(
                    {path + "." + at, fmt::format("Column {} stands on two bases.", columns.at(id)->name)});
        }
        for (auto [v, what] : {std::pair(b.B, ".B"), {b.L, ".L"}, {b.h, ".h"}})
            if (v != 0) number(at + what, v, 150, 50000, 1, "A fixed size of a base", "mm");
        if (b.ratio != 0) number(at + ".ratio", b.ratio, 0.1, 10, 1, "The ratio of the sides", "(y to x)");
        const auto& pd = b.pedestal;
        for (double v : {pd.width, pd.depth})
            if (v != 0) number(at + ".pedestal", v, 100, 10000, 1, "A side of a pedestal", "mm");
        number(at + ".pedestal", pd.height, 0, 10000, 1, "The height of a pedestal", "mm");
        if (b.top.edge != 0)
            number(at + ".top", b.top.edge, 100, 5000, 1, "The depth of a base at its edges", "mm");
        number(at + ".top", b.top.shoulder, 0, 5000, 1, "The shoulder of a base about its column", "mm");
        if (b.strap.any()) {
            const auto other = below.find(b.strap.to);
            const std::string strap = path + "." + at + ".strap";
            if (set.kind != BaseSet::Kind::Pads)
                found.push_back({strap, "Straps are for pads only."});
            else if (other == below.end())
                found.push_back({strap, fmt::format("There is no column \"{}\" for a strap.", b.strap.to)});
            else if (other->second == &b)
                found.push_back({strap, "A strap goes to a column of another base."});
            else if (other->second->strap.any())
                found.push_back({strap, "A strap goes to a base that has no strap of its own."});
            if (b.columns.size() != 1)
                found.push_back(
                    {strap, "A base with a strap has one column; take the strap or the others away."});
            if (pd.any() || b.top.kind != BaseTop::Kind::Level)
                found.push_back({strap, "A base with a strap has a level top and no pedestal."});
            for (double v : {b.strap.width, b.strap.depth})
                if (v != 0) number(at + ".strap", v, 150, 5000, 1, "A size of a strap", "mm");
        }
        number(at + ".offX", b.offX, -25000, 25000, 1, "The eccentricity of a base", "mm");
        number(at + ".offY", b.offY, -25000, 25000, 1, "The eccentricity of a base", "mm");
        if (b.piles < 0 || b.piles > 64)
            found.push_back(
                {path + "." + at, "A cap has 1 to 64 piles, or zero where the number is automatic."});
        if (b.spacing != 0) number(at + ".spacing", b.spacing, 50, 1000, 1, "A fixed spacing", "mm");
    }
}

}  // namespace talvik::model
