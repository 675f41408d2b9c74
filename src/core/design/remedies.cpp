#include "design/remedies.h"

#include <fmt/format.h>

#include <algorithm>
#include <optional>

#include "design/floor_design.h"
#include "model/edits.h"

namespace talvik::design {
namespace {

using model::OneWaySlab;
using model::Project;

constexpr double mostAdded = 120;  // mm of thickness

struct Verdict {
    int over = 0;
    double worst = 0, steel = 0, concrete = 0;  // kg, m3
    void count(const checks::Check& c) {
        over += c.outcome == checks::Outcome::Over;
        if (c.outcome == checks::Outcome::Over || c.outcome == checks::Outcome::Within)
            worst = std::max(worst, checks::ratio(c));
    }
};

std::optional<Verdict> verdict(Project alone, const OneWaySlab& slab) {
    std::erase_if(alone.slabs, [&](const auto& s) { return s->id != slab.id; });
    alone.floors.clear();
    const Design d = run(alone, {.trace = false});
    if (d.slabs.empty() || !d.slabs[0].error.empty()) return std::nullopt;
    Verdict v;
    for (const auto& c : d.slabs[0].checks) v.count(c);
    v.steel = d.slabs[0].schedule.mass;
    v.concrete = slab.thickness * slab.width * (model::concreteEnd(slab) - model::concreteStart(slab)) / 1e9;
    return v;
}

// Main bars of all strips over their widths; concrete of the slabs, less openings.
std::optional<Verdict> verdict(const Project& project, std::size_t index, std::stop_token stop) {
    auto d = designFloor(project, index, {}, false, stop);
    if (!d) return std::nullopt;
    Verdict v;
    for (const auto* c : d->all()) v.count(*c);
    if (v.over == 0) {  // only what passes so far is worth the longer proof
        d = proved(d, stop);
        if (!d) return std::nullopt;
        v = {};
        for (const auto* c : d->all()) v.count(*c);
    }
    constexpr double density = 7850e-9;  // kg per mm3
    for (const auto& s : d->strips)
        for (const auto& r : s->runs) {
            const double width =
                r.band ? r.width : s->strip->area() / std::max(s->strip->to - s->strip->from, 1.0);
            v.steel += r.area * width * (r.to - r.from) * density;
        }
    const auto& f = *d->floor;
    for (const auto& s : f.slabs)
        v.concrete += std::abs(geometry::area(model::ring(s.outline))) * s.thickness / 1e9;
    for (const auto& z : f.zones)
        v.concrete += std::abs(geometry::area(model::ring(z.outline))) *
                      (z.thickness - f.slabs.front().thickness) / 1e9;
    for (const auto& o : f.openings)
        v.concrete -= std::abs(geometry::area(model::ring(o.outline))) * f.slabs.front().thickness / 1e9;
    return v;
}

std::optional<Verdict> verdict(const Project& project, std::string_view element, std::stop_token stop) {
    if (const auto* slab = model::findSlab(project, element)) return verdict(project, *slab);
    for (std::size_t i = 0; i < project.floors.size(); ++i)
        if (project.floors[i]->id == element) return verdict(project, i, stop);
    return std::nullopt;
}

double stepOf(const Project& project) {
    return project.basis.units == units::System::Metric ? 10 : 12.7;
}
std::string thicker(double from, double to, const Project& project, const char* more = "") {
    const auto system = project.basis.units;
    return fmt::format("{} → {}{}", units::number(from, units::Kind::Length, system),
                       units::number(to, units::Kind::Length, system), more);
}

// Stronger concrete of the same family, weakest first.
Ladder concreteLadder(const Project& project, const char* more,
                      const std::function<Project(const Project&)>& then) {
    Ladder all;
    auto standard = standards::makeStandard(project.basis.standard, project.basis.parameters);
    if (!standard || project.slabs.size() + project.floors.size() > 1) return all;
    for (const auto& c : catalogs::concreteClasses())
        if (c.family == standard->family && c.strength > project.basis.concreteStrength)
            all.push_back({fmt::format("Concrete {}{}", c.id, more), [&c, then](const Project& p) {
                               Project next = p;
                               next.basis.concrete = c.id;
                               next.basis.concreteStrength = c.strength;
                               return then(next);
                           }});
    return all;
}

std::vector<Ladder> ladders(const Project& project, const OneWaySlab& slab) {
    const model::Id id = slab.id;
    auto anew = [id](const Project& p) { return proposeBars(p, id); };
    auto free = [id, anew](const Project& p) { return anew(model::setUnpinned(p, id)); };
    const bool pinned =
        std::any_of(slab.bars.begin(), slab.bars.end(), [](const auto& r) { return r.pinned; });
    std::vector<Ladder> all;
    if (pinned)
        all.push_back({{"Other bars anew, yours kept", anew}, {"All bars anew", free}});
    else
        all.push_back({{"Bars anew", anew}});
    const double step = stepOf(project);
    for (bool withBars : {false, true}) {
        Ladder deeper;
        for (double h = units::roundDown(slab.thickness, step) + step; h <= slab.thickness + mostAdded;
             h += step)
            deeper.push_back({"Slab " + thicker(slab.thickness, h, project, withBars ? ", bars anew" : ""),
                              [id, h, withBars, anew](const Project& p) {
                                  auto next = model::editSlab(
                                      p, id, [h](OneWaySlab& s, Project&) { s.thickness = h; });
                                  return withBars ? anew(next) : next;
                              }});
        all.push_back(std::move(deeper));
    }
    all.push_back(concreteLadder(project, ", bars anew", anew));
    return all;
}

std::vector<Ladder> ladders(const Project& project, const model::Floor& floor) {
    const model::Id id = floor.id;
    std::vector<Ladder> all;
    if (!floor.strips.bars.empty())
        all.push_back({{"All bars given back to the program", [id](const Project& p) {
                            return model::editFloor(p, id,
                                                    [](model::Floor& f, Project&) { f.strips.bars.clear(); });
                        }}});
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
    all.push_back(std::move(deeper));
    all.push_back(concreteLadder(project, "", [](const Project& p) { return p; }));
    return all;
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
    const auto now = verdict(project, element, stop);
    if (!now || now->over == 0) return found;
    const auto& rates = project.basis.rates;
    for (const auto& ladder : ladders(project, element))
        for (const auto& attempt : ladder) {
            if (stop.stop_requested()) return {};
            Project next = withMarks(attempt.edit(project));
            if (!model::validate(next).empty()) continue;
            const auto v = verdict(next, element, stop);
            if (!v || v->over > 0) continue;
            Remedy r{attempt.text,   v->worst, v->steel - now->steel, v->concrete - now->concrete, 0,
                     std::move(next)};
            r.price = r.steel * rates.steel.price + r.concrete * rates.concrete.price;
            found.push_back(std::move(r));
            break;
        }
    // The same intervention twice, the later with no less steel: bars anew bring nothing.
    for (std::size_t i = 0; i + 1 < found.size(); ++i)
        if (found[i].concrete > 1e-9 && std::abs(found[i].concrete - found[i + 1].concrete) < 1e-9 &&
            found[i].project.basis == found[i + 1].project.basis && found[i + 1].steel >= found[i].steel)
            found.erase(found.begin() + std::ptrdiff_t(i) + 1);
    return stop.stop_requested() ? std::vector<Remedy>{} : found;
}

}  // namespace talvik::design
