#include "design/remedies.h"

#include <fmt/format.h>

#include <algorithm>

#include "design/designer.h"
#include "model/edits.h"

namespace talvik::design {
namespace {

using model::OneWaySlab;
using model::Project;

constexpr double mostAdded = 120;  // mm of thickness

// The element designed anew, with all that takes longer only where nothing is over so far; null where it has
// no answer.
Designer::Answer designed(const Project& project, std::string_view element, std::stop_token stop) {
    auto answer = designNow(project, model::Id(element), stop,
                            [](const ElementAnswer& first) { return first.summary.over > 0; });
    return answer && answer->error.empty() ? answer : nullptr;
}
double stepOf(const Project& project) {
    return project.basis.units == units::System::Metric ? 10 : 12.7;
}
std::string thicker(double from, double to, const Project& project) {
    const auto system = project.basis.units;
    return fmt::format("{} → {}", units::number(from, units::Kind::Length, system),
                       units::number(to, units::Kind::Length, system));
}

// Stronger concrete of the same family, weakest first.
Ladder concreteLadder(const Project& project) {
    Ladder all;
    auto standard = standards::makeStandard(project.basis.standard, project.basis.parameters);
    if (!standard || project.slabs.size() + project.floors.size() > 1) return all;
    for (const auto& c : catalogs::concreteClasses())
        if (c.family == standard->family && c.strength > project.basis.concreteStrength)
            all.push_back({"Concrete " + c.id, [&c](const Project& p) {
                               Project next = p;
                               next.basis.concrete = c.id;
                               next.basis.concreteStrength = c.strength;
                               return next;
                           }});
    return all;
}

// Bars follow by themselves but for those that someone fixed.
Ladder barsLadder(const model::Id& id, const std::vector<model::BarRun>& fixed) {
    if (fixed.empty()) return {};
    return {{"All bars given back to the program", [id](const Project& p) {
                 return model::editBars(p, id, [](auto& bars, Project&) { bars.clear(); });
             }}};
}

std::vector<Ladder> ladders(const Project& project, const OneWaySlab& slab) {
    const model::Id id = slab.id;
    Ladder deeper;
    const double step = stepOf(project);
    for (double h = units::roundDown(slab.thickness, step) + step; h <= slab.thickness + mostAdded; h += step)
        deeper.push_back({"Slab " + thicker(slab.thickness, h, project), [id, h](const Project& p) {
                              return model::editSlab(p, id,
                                                     [h](OneWaySlab& s, Project&) { s.thickness = h; });
                          }});
    return {barsLadder(id, slab.bars), deeper, concreteLadder(project)};
}

std::vector<Ladder> ladders(const Project& project, const model::Floor& floor) {
    const model::Id id = floor.id;
    Ladder deeper;
    const double step = stepOf(project), first = floor.slabs.empty() ? 0 : floor.slabs.front().thickness;
    const bool alike = std::all_of(floor.slabs.begin(), floor.slabs.end(),
                                   [&](const auto& s) { return s.thickness == first; });
    for (double add = step; add <= mostAdded && !floor.slabs.empty(); add += step)
        deeper.push_back({alike ? "Slab " + thicker(first, first + add, project)
                                : "All slabs +" + units::text(add, units::Kind::Length, project.basis.units),
                          [id, add](const Project& p) {
                              return model::editFloor(p, id, [add](model::Floor& f, Project&) {
                                  for (auto& s : f.slabs) s.thickness += add;
                                  for (auto& z : f.zones) z.thickness += add;
                              });
                          }});
    return {barsLadder(id, floor.strips.bars), deeper, concreteLadder(project)};
}

}  // namespace

std::vector<Ladder> ladders(const Project& project, std::string_view element) {
    if (const auto* slab = model::findSlab(project, element)) return ladders(project, *slab);
    if (const auto* floor = model::findFloor(project, element)) return ladders(project, *floor);
    return {};
}

std::vector<Remedy> remedies(const Project& project, std::string_view element, std::stop_token stop) {
    std::vector<Remedy> found;
    if (stop.stop_requested() || !model::validate(project).empty()) return found;
    const auto now = designed(project, element, stop);
    if (!now || now->summary.over == 0) return found;
    const auto& rates = project.basis.rates;
    for (const auto& ladder : ladders(project, element))
        for (const auto& attempt : ladder) {
            if (stop.stop_requested()) return {};
            Project next = attempt.edit(project);
            if (!model::validate(next).empty()) continue;
            const auto then = designed(next, element, stop);
            if (!then || then->summary.over > 0) continue;
            Remedy r{
                attempt.text,   then->worst(), then->steel - now->steel, then->concrete - now->concrete, 0,
                std::move(next)};
            r.price = r.steel * rates.steel.price + r.concrete * rates.concrete.price;
            found.push_back(std::move(r));
            break;
        }
    return stop.stop_requested() ? std::vector<Remedy>{} : found;
}

}  // namespace talvik::design
