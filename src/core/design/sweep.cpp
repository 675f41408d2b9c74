#include "design/sweep.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "design/quantities.h"
#include "layout/placing.h"
#include "model/edits.h"

namespace talvik::design {

model::Project withThickness(const model::Project& project, std::string_view floor, double thickness) {
    return model::editFloor(project, floor, [&](model::Floor& f, model::Project&) {
        if (f.slabs.empty()) return;
        const double add = thickness - f.slabs.front().thickness;
        for (auto& s : f.slabs) s.thickness += add;
        for (auto& z : f.zones) z.thickness += add;
    });
}

model::Project withDrops(const model::Project& project, std::string_view floor) {
    return model::editFloor(project, floor, [&](model::Floor& f, model::Project& next) {
        if (f.slabs.empty()) return;
        const double step = project.basis.units == units::System::Metric ? 50 : 50.8;
        const auto outlines = model::outlines(f);
        const auto before = f.zones;
        for (const auto& c : f.columns) {
            const geometry::Point at{c.x, c.y};
            double nearest = 1e300, toEdge = 1e300;
            bool on = false;
            for (const auto& other : f.columns)
                if (other.id != c.id) nearest = std::min(nearest, std::hypot(other.x - c.x, other.y - c.y));
            for (const auto& ring : outlines) {
                on = on || geometry::contains(ring, at);
                toEdge = std::min(toEdge, geometry::distanceToEdge(ring, at));
            }
            for (const auto& o : f.openings)
                toEdge = std::min(toEdge, geometry::distanceToEdge(model::ring(o.outline), at));
            if (!on || nearest > 1e200) continue;
            const double side = units::roundDown(nearest / 3, 2 * step);
            if (toEdge < side / 2 + step || side < 2 * std::max(c.width, c.depth)) continue;
            if (std::any_of(before.begin(), before.end(), [&](const model::Zone& z) {
                    return geometry::contains(model::ring(z.outline), at);
                }))
                continue;
            model::Zone z;
            z.id = model::newId(next, 'z');
            z.name = layout::freeName(f, "D");
            z.thickness = units::roundUp(1.5 * f.slabs.front().thickness, step);
            for (auto [x, y] : {std::pair(-0.5, -0.5), {0.5, -0.5}, {0.5, 0.5}, {-0.5, 0.5}})
                z.outline.push_back({c.x + x * side, c.y + y * side});
            f.zones.push_back(std::move(z));
        }
    });
}

std::vector<SweepPoint> sweep(const model::Project& project, std::string_view floor, const SweepWish& wish,
                              std::stop_token stop,
                              const std::function<void(const SweepPoint&, std::size_t)>& each) {
    std::vector<SweepPoint> all;
    std::vector<std::string> concretes = wish.concretes;
    if (concretes.empty()) concretes.push_back(project.basis.concrete);
    const std::size_t number = concretes.size() * wish.thicknesses.size() * (wish.drops ? 2 : 1);
    for (const auto& concrete : concretes)
        for (bool drops : {false, true}) {
            if (drops && !wish.drops) continue;
            for (double thickness : wish.thicknesses) {
                if (stop.stop_requested()) return all;
                SweepPoint p;
                p.thickness = thickness, p.concrete = concrete, p.drops = drops;
                p.project = withThickness(project, floor, thickness);
                if (drops) p.project = withDrops(p.project, floor);
                if (concrete != project.basis.concrete)
                    for (const auto& c : catalogs::concreteClasses())
                        if (c.id == concrete)
                            p.project.basis.concrete = c.id, p.project.basis.concreteStrength = c.strength;
                const auto design = run(p.project, {.trace = false});
                const auto* answer = design.find(floor);
                if (!design.trouble.empty())
                    p.error = design.trouble.front().message;
                else if (!answer)
                    p.error = "The floor has no answer.";
                else if (!answer->error.empty())
                    p.error = answer->error;
                else {
                    p.over = answer->summary.over, p.within = answer->summary.within;
                    for (const auto* c : answer->all())
                        if (checks::isJudged(*c) && checks::ratio(*c) > p.worst)
                            p.worst = checks::ratio(*c), p.governs = c->title;
                    const auto taken = quantities(p.project, design);
                    for (std::size_t i = 0; i < taken.size() && i < design.elements.size(); ++i)
                        if (design.elements[i]->element == floor) {
                            p.concreteVolume = taken[i].concrete, p.steel = taken[i].steel;
                            p.formwork = taken[i].formwork;
                            p.price = taken[i].price, p.carbon = taken[i].carbon;
                        }
                }
                if (each) each(p, number);
                all.push_back(std::move(p));
            }
        }
    return all;
}

std::string sweepCsv(const std::vector<SweepPoint>& points, const model::Project& project) {
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
    auto quoted = [](const std::string& text) {
        std::string s = "\"";
        for (char c : text) s += c == '"' ? std::string("\"\"") : std::string(1, c);
        return s + "\"";
    };
    for (const auto& p : points)
        out +=
            fmt::format("{},{},{},{},{},{:.3f},{},{},{},{:.0f},{},{},{}\n",
                        value(p.thickness, units::Kind::Length), quoted(p.concrete), p.drops ? "yes" : "no",
                        p.over, p.within, p.worst, value(p.concreteVolume * 1e9, units::Kind::Volume),
                        value(p.steel, units::Kind::Mass), value(p.formwork * 1e6, units::Kind::PlanArea),
                        p.price, value(p.carbon, units::Kind::Mass), quoted(p.governs), quoted(p.error));
    return out;
}

}  // namespace talvik::design
