#include "design/ladders.h"

#include <fmt/format.h>

#include <algorithm>
#include <set>
#include <tuple>

#include "design/bases.h"
#include "design/floor_design.h"
#include "model/base_edits.h"
#include "model/edits.h"

namespace talvik::design {

double thicknessStep(const model::Project& project) {
    return project.basis.units == units::System::Metric ? 10 : 12.7;
}
std::string thicker(double from, double to, const model::Project& project) {
    const auto system = project.basis.units;
    return fmt::format("{} → {}", units::number(from, units::Kind::Length, system),
                       units::number(to, units::Kind::Length, system));
}

// Stronger concrete of the same family, weakest first.
Ladder concreteLadder(const model::Project& project) {
    Ladder all{"stronger concrete", Reach::Material};
    auto standard = standards::makeStandard(project.basis.standard, project.basis.parameters);
    if (!standard || project.slabs.size() + project.floors.size() + project.bases.size() > 1) return all;
    for (const auto& c : catalogs::concreteClasses())
        if (c.family == standard->family && c.strength > project.basis.concreteStrength)
            all.push_back({"Concrete " + c.id, [&c](const model::Project& p) {
                               model::Project next = p;
                               next.basis.concrete = c.id;
                               next.basis.concreteStrength = c.strength;
                               return next;
                           }});
    return all;
}

// Bars follow by themselves but for those that someone fixed.
Ladder barsLadder(const model::Id& id, const std::vector<model::BarRun>& fixed) {
    if (fixed.empty()) return {"other bars"};
    return {"bars reset to automatic",
            Reach::Bars,
            {{"Reset all bars to automatic", [id](const model::Project& p) {
                  return model::editBars(p, id, [](auto& bars, model::Project&) { bars.clear(); });
              }}}};
}

Ladder linksLadder(std::function<model::Project(const model::Project&)> allow) {
    return {"links for one-way shear",
            Reach::Bars,
            {{"Links where the concrete alone is not sufficient in shear", std::move(allow)}}};
}

Ladder together(std::string what, const Ladder& first, const Ladder& second, std::size_t most) {
    Ladder all{std::move(what), std::max(first.reach, second.reach)};
    // The small steps of both before the large ones of either.
    for (std::size_t sum = 0; sum + 1 < first.steps.size() + second.steps.size(); ++sum)
        for (std::size_t i = 0; i <= sum; ++i) {
            if (i >= first.steps.size() || sum - i >= second.steps.size() || all.steps.size() >= most)
                continue;
            const auto &a = first.steps[i], &b = second.steps[sum - i];
            all.push_back({a.text + "; " + b.text, [one = a.edit, other = b.edit](const model::Project& p) {
                               return other(one(p));
                           }});
        }
    return all;
}

std::vector<Ladder> barEndLadders(const model::Project& project, const ElementAnswer& now,
                                  const model::PartRef& part, const std::vector<model::BarRun>& fixed) {
    // Faces, per part, of which some end is over.
    std::set<std::pair<std::string, bool>> short_;
    for (const auto* c : now.all())
        if (c->outcome == checks::Outcome::Over && c->face &&
            (c->topic == checks::Topic::Anchorage || c->topic == checks::Topic::BarEnds) &&
            (part.kind == model::PartKind::Whole || c->place.spot.part == part))
            short_.emplace(c->place.spot.part.key, *c->face == model::Face::Top);
    std::vector<model::Id> runs;
    for (const auto& r : fixed)
        if (model::isMain(r.role) && short_.contains({r.part, model::topFace(r.role)})) runs.push_back(r.id);
    Ladder hooks{"hooks at the ends of bars"}, longer{"longer bars"};
    if (runs.empty()) return {};
    auto edit = [&](std::string text, auto change) {
        return Attempt{std::move(text), [id = part.element, runs, change](const model::Project& p) {
                           return model::editBars(p, id, [&](auto& bars, model::Project&) {
                               for (auto& b : bars)
                                   if (std::find(runs.begin(), runs.end(), b.id) != runs.end()) change(b);
                           });
                       }};
    };
    hooks.push_back(
        edit(fmt::format("Hooks at the ends of {} fixed bar set{}", runs.size(), runs.size() > 1 ? "s" : ""),
             [](model::BarRun& b) { b.start = b.end = model::BarEnd::Hook; }));
    const double step = project.basis.units == units::System::Metric ? 250 : 152.4;
    for (int k = 1; k <= 8; ++k)
        longer.push_back(edit("Fixed bars longer by " +
                                  units::text(k * step, units::Kind::Length, project.basis.units) +
                                  " at each end",
                              [by = k * step](model::BarRun& b) { b.from -= by, b.to += by; }));
    return {hooks, longer};
}

namespace {

using model::OneWaySlab;
using model::PartKind;
using model::Project;

std::vector<Ladder> ladders(const Project& project, const ElementAnswer& now, const OneWaySlab& slab) {
    const model::Id id = slab.id;
    Ladder deeper{"more depth, up to 120 mm", Reach::Whole};
    const double step = thicknessStep(project);
    for (double h = units::roundDown(slab.thickness, step) + step; h <= slab.thickness + mostAdded; h += step)
        deeper.push_back({"Slab " + thicker(slab.thickness, h, project), [id, h](const Project& p) {
                              return model::editSlab(p, id,
                                                     [h](OneWaySlab& s, Project&) { s.thickness = h; });
                          }});
    auto all = barEndLadders(project, now, {id}, slab.bars);
    all.insert(all.begin(), barsLadder(id, slab.bars));
    if (!slab.shearLinks)
        all.push_back(linksLadder([id](const Project& p) {
            return model::editSlab(p, id, [](OneWaySlab& s, Project&) { s.shearLinks = true; });
        }));
    all.push_back(deeper);
    all.push_back(concreteLadder(project));
    return all;
}

// Stronger concrete of all bases of this kind in the project, weakest first; only where it has no other set
// of the kind, and nothing else that is cast of it.
Ladder baseConcreteLadder(const Project& project, const model::BaseSet& set) {
    Ladder all{"stronger concrete of bases", Reach::Material};
    const auto standard = standards::makeStandard(project.basis.standard, project.basis.parameters);
    const bool pads = set.kind == model::BaseSet::Kind::Pads;
    if (!standard || std::count_if(project.bases.begin(), project.bases.end(),
                                   [&](const auto& b) { return b->kind == set.kind; }) > 1)
        return all;
    const auto material = pads ? &model::Basis::foundation : &model::Basis::pileCap;
    for (const auto& c : catalogs::concreteClasses())
        if (c.family == standard->family && c.strength > (project.basis.*material).strength)
            all.push_back({"Concrete of bases " + c.id, [&c, material](const Project& p) {
                               Project next = p;
                               (next.basis.*material).concrete = c.id;
                               (next.basis.*material).strength = c.strength;
                               return next;
                           }});
    return all;
}

// What one base has pinned, by steps larger: deeper, wider, more piles, more bars; and a pedestal below its
// column, where it has none.
void largerPins(const Project& project, const model::BaseSet& set, const model::Base& base,
                std::vector<Ladder>& all) {
    using B = model::Base;
    auto attempt = [&](std::string text, auto change) {
        return Attempt{std::move(text), [id = set.id, key = base.id, change](const Project& p) {
                           return model::editBases(p, id, [&](model::BaseSet& s, Project&) {
                               for (auto& b : s.bases)
                                   if (b.id == key) change(b);
                           });
                       }};
    };
    auto length = [&](double v) { return units::text(v, units::Kind::Length, project.basis.units); };
    Ladder deeper{"more depth", Reach::Member}, wider{"larger plan size", Reach::Member},
        piles{"more piles", Reach::Member}, bars{"smaller bar spacing"}, stub{"a pedestal", Reach::Member};
    if (base.h > 0)
        for (int k = 1; k <= 20; ++k) {
            const double h = base.h + k * set.depthStep;
            deeper.push_back(attempt("Depth " + length(h), [h](B& b) { b.h = h; }));
        }
    if (base.B > 0 || base.L > 0)
        for (int k = 1; k <= 40; ++k) {
            const double x = base.B > 0 ? base.B + k * set.planStep : 0,
                         y = base.L > 0 ? base.L + k * set.planStep : 0;
            wider.push_back(attempt(x > 0 && y > 0 ? "In plan " + length(x) + " × " + length(y)
                                    : x > 0        ? "Along x " + length(x)
                                                   : "Along y " + length(y),
                                    [x, y](B& b) { b.B = x, b.L = y; }));
        }
    if (base.piles > 0 && base.pilesAt.empty())
        for (int n : bases::pileNumbers())
            if (n > base.piles)
                piles.push_back(attempt(fmt::format("{} piles", n), [n](B& b) { b.piles = n; }));
    if (base.spacing > 0)
        for (double to = base.spacing - 25; to >= 75; to -= 25)
            bars.push_back(attempt("Bars at " + length(to), [to](B& b) { b.spacing = to; }));
    const auto* column = base.columns.empty() ? nullptr : model::findColumn(set, base.columns.front());
    if (const double room = set.ground.depth - std::max(base.h, set.leastDepth);
        column && !base.pedestal.any() && room >= 300 && set.kind == model::BaseSet::Kind::Pads)
        for (int k = 1; k <= 4; ++k) {
            const model::Pedestal p{column->width + 200 * k, column->depth + 200 * k,
                                    units::roundDown(std::min(room, 300.0 * k), 50)};
            stub.push_back(attempt(
                "Pedestal " + length(p.width) + " × " + length(p.depth) + ", " + length(p.height) + " high",
                [p](B& b) { b.pedestal = p; }));
        }
    // Off its columns, towards where the loads press.
    Ladder shifted{"eccentric base", Reach::Member};
    if (!base.offPinned && set.site.empty() && set.kind == model::BaseSet::Kind::Pads)
        for (int k = 1; k <= 6; ++k)
            for (auto [x, y, way] : {std::tuple(1, 0, "+x"), {-1, 0, "−x"}, {0, 1, "+y"}, {0, -1, "−y"}}) {
                const double off = 50.0 * k;
                shifted.push_back(attempt("Base " + length(off) + " to " + way, [off, ux = x, uy = y](B& b) {
                    b.offPinned = true, b.offX = off * ux, b.offY = off * uy;
                }));
            }
    for (auto* ladder : {&deeper, &wider, &piles, &bars, &shifted, &stub})
        if (!ladder->empty()) all.push_back(std::move(*ladder));
}

// What is not pinned is solved already: pins given back, one by one and all together; those of one base made
// larger; stronger concrete. Of the whole set pins of all its bases.
std::vector<Ladder> baseLadders(const Project& project, const model::BaseSet& set,
                                const model::PartRef& part) {
    std::vector<Ladder> all;
    auto free = [&](const char* text, auto pinned, auto clear) {
        bool any = false;
        for (const auto& b : set.bases) any |= (part.key.empty() || b.id == part.key) && pinned(b);
        if (!any) return;
        all.push_back(
            {"released sizes", Reach::Member, {{text, [id = set.id, key = part.key, clear](const Project& p) {
                                                    return model::editBases(
                                                        p, id, [&](model::BaseSet& s, Project&) {
                                                            for (auto& b : s.bases)
                                                                if (key.empty() || b.id == key) clear(b);
                                                        });
                                                }}}});
    };
    using B = model::Base;
    auto plan = [](B& b) { b.B = b.L = 0; };
    auto depth = [](B& b) { b.h = 0; };
    auto bars = [](B& b) { b.bar.clear(), b.spacing = 0; };
    auto piles = [](B& b) { b.piles = 0, b.pilesAt.clear(); };
    free(
        "Release fixed depth", [](const B& b) { return b.h > 0; }, depth);
    free(
        "Release fixed plan size", [](const B& b) { return b.B > 0 || b.L > 0; }, plan);
    free(
        "Release fixed bars", [](const B& b) { return !b.bar.empty() || b.spacing > 0; }, bars);
    free(
        "Release fixed piles", [](const B& b) { return b.piles > 0 || !b.pilesAt.empty(); }, piles);
    free(
        "Release fixed position", [](const B& b) { return b.offPinned; }, [](B& b) { b.offPinned = false; });
    free(
        "Release all fixed sizes",
        [](const B& b) {
            return int(b.h > 0) + int(b.B > 0 || b.L > 0) + int(!b.bar.empty() || b.spacing > 0) +
                       int(b.piles > 0 || !b.pilesAt.empty()) + int(b.offPinned) >
                   1;
        },
        [=](B& b) { plan(b), depth(b), bars(b), piles(b), b.offPinned = false; });
    for (const auto& b : set.bases)
        if (b.id == part.key) largerPins(project, set, b, all);
    if (auto concrete = baseConcreteLadder(project, set); !concrete.empty())
        all.push_back(std::move(concrete));
    return all;
}

}  // namespace

std::vector<Ladder> ladders(const Project& project, const ElementAnswer& now, const model::PartRef& part) {
    if (const auto* slab = model::findSlab(project, part.element)) return ladders(project, now, *slab);
    if (const auto* floor = dynamic_cast<const FloorDesign*>(&now))
        return floorLadders(project, *floor, part);
    const auto* set = model::findBases(project, part.element);
    if (!set) return {};
    auto all = baseLadders(project, *set, part);
    const auto* base = dynamic_cast<const BasePart*>(now.find(part));
    if (base && !base->overlaps.empty()) {
        std::vector<model::Id> bases{set->bases[base->number].id};
        std::string names = model::baseName(*set, set->bases[base->number]);
        for (std::size_t n : base->overlaps)
            bases.push_back(set->bases[n].id), names += " + " + model::baseName(*set, set->bases[n]);
        all.insert(all.begin(), {"one base for several columns",
                                 Reach::Member,
                                 {{"One base for " + names, [id = set->id, bases](const Project& p) {
                                       return model::joinBases(p, id, bases);
                                   }}}});
    }
    return all;
}

}  // namespace talvik::design
