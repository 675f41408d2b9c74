#include "design/remedies.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>
#include <tuple>

#include "design/bases.h"
#include "design/designer.h"
#include "design/floor_design.h"
#include "layout/placing.h"
#include "model/base_edits.h"
#include "model/edits.h"

namespace talvik::design {
namespace {

using model::OneWaySlab;
using model::PartKind;
using model::Project;

constexpr double mostAdded = 120;  // mm of thickness

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
    if (!standard || project.slabs.size() + project.floors.size() + project.bases.size() > 1) return all;
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

using Steel = model::ConnectionChoice::Steel;

Attempt shearSteelAttempt(const model::Id& floor, const std::string& key, Steel steel) {
    return {steel == Steel::Studs ? "Studs on rails" : "Links", [floor, key, steel](const Project& p) {
                return model::setShearSteel(p, floor, {key}, steel, 0);
            }};
}

// Top bars over a connection replaced by as many more as make the steel so many times what lies there: of
// both directions, fixed where they lie now.
Ladder moreTopSteel(const FloorDesign& f, const ConnectionDesign& c, const model::Basis& basis) {
    struct Run {
        std::string strip;
        bars::Run run;
    };
    std::vector<Run> runs;
    for (const auto& d : f.strips) {
        const auto local = d->strip->axes.local(c.place.middle);
        const bool here = std::any_of(d->strip->parts.begin(), d->strip->parts.end(), [&](const auto& ring) {
            return geometry::contains(ring, c.place.middle);
        });
        if (!here) continue;
        for (const auto& r : d->runs)
            if (r.top() == c.topTension && !r.band() && model::isMain(r.role) && r.from < local.x &&
                r.to > local.x)
                runs.push_back({d->strip->key, r});
    }
    Ladder all;
    const auto* catalog = catalogs::barCatalog(basis.barCatalog);
    if (runs.empty() || !catalog) return all;
    for (double more : {1.25, 1.5, 1.75, 2.0, 2.5, 3.0}) {
        std::vector<Run> next;
        std::string text;
        for (const auto& r : runs) {
            // Of the bars and spacings allowed the least that gives as much.
            double least = 1e300;
            Run best;
            for (const auto& name : basis.mainBars)
                if (const auto* bar = catalog->find(name))
                    for (double s = basis.spacingMost; s >= basis.spacingLeast - 1e-6; s -= basis.spacingStep)
                        if (bar->area / s >= more * r.run.area - 1e-9 && bar->area / s < least - 1e-9)
                            least = bar->area / s, best = r, best.run.bar = name, best.run.spacing = s;
            if (least > 1e299) break;
            text += fmt::format("{}{}-{:.0f}", text.empty() ? "" : ", ", best.run.bar, best.run.spacing);
            next.push_back(std::move(best));
        }
        if (next.size() < runs.size()) break;
        all.push_back({"Top bars " + text, [id = f.floor->id, next](const Project& p) {
                           return model::editBars(p, id, [&](auto& fixed, Project& project) {
                               for (const auto& r : next) {
                                   std::erase_if(fixed, [&](const auto& o) { return o.id == r.run.id; });
                                   model::BarRun run = r.run;
                                   run.id = model::newId(project, 'b');
                                   run.part = r.strip;
                                   fixed.push_back(std::move(run));
                               }
                           });
                       }});
    }
    return all;
}

// Drops centred under what is loaded, square, the least concrete first.
Ladder dropLadder(const Project& project, const ConnectionDesign& c) {
    const model::Id& floor = c.part.element;
    const double side = std::max(c.place.c1, c.place.c2), step = stepOf(project) * 5;
    struct Drop {
        double side, h;
    };
    std::vector<Drop> drops;
    const double h = c.place.h;
    for (double more : {0.25, 0.5, 0.75, 1.0})
        for (double reach : {1.5, 2.5, 4.0, 6.0}) {
            const double deep = std::ceil(h * (1 + more) / step - 1e-9) * step;
            drops.push_back({std::ceil((side + 2 * reach * h * 0.5) / (2 * step) - 1e-9) * 2 * step, deep});
        }
    std::stable_sort(drops.begin(), drops.end(), [&](const Drop& a, const Drop& b) {
        return a.side * a.side * (a.h - h) < b.side * b.side * (b.h - h);
    });
    Ladder all;
    if (c.place.hasDrop()) return all;
    for (const auto& d : drops)
        all.push_back(
            {fmt::format("Drop {} × {}, {} deep",
                         units::number(d.side, units::Kind::Span, project.basis.units),
                         units::text(d.side, units::Kind::Span, project.basis.units),
                         units::text(d.h, units::Kind::Length, project.basis.units)),
             [floor, d, at = c.place.middle](const Project& p) {
                 return model::editFloor(p, floor, [&](model::Floor& f, Project& next) {
                     model::Zone z;
                     z.id = model::newId(next, 'z');
                     z.name = layout::freeName(f, "D");
                     z.thickness = d.h;
                     for (auto [x, y] : {std::pair(-0.5, -0.5), {0.5, -0.5}, {0.5, 0.5}, {-0.5, 0.5}})
                         z.outline.push_back({at.x + x * d.side, at.y + y * d.side});
                     f.zones.push_back(std::move(z));
                 });
             }});
    return all;
}

Ladder columnLadder(const Project& project, const ConnectionDesign& c) {
    Ladder all;
    if (c.choice.pinned) return all;
    const auto* floor = model::findFloor(project, c.part.element);
    const double step = project.basis.units == units::System::Metric ? 50 : 50.8;
    for (const auto& column : floor->columns) {
        if (c.site->members.size() != 1 || column.id != c.site->key) continue;
        for (int k = 1; k <= 6; ++k)
            all.push_back(
                {fmt::format("Column {} × {}",
                             units::number(column.width + k * step, units::Kind::Length, project.basis.units),
                             units::text((column.circular ? column.width : column.depth) + k * step,
                                         units::Kind::Length, project.basis.units)),
                 [floor = floor->id, id = column.id, more = k * step](const Project& p) {
                     return model::editFloor(p, floor, [&](model::Floor& f, Project&) {
                         for (auto& o : f.columns)
                             if (o.id == id) o.width += more, o.depth += more;
                     });
                 }});
        if (column.circular)
            for (int k = 1; k <= 6; ++k)
                all[std::size_t(k - 1)].text =
                    "Column Ø " +
                    units::text(column.width + k * step, units::Kind::Length, project.basis.units);
    }
    return all;
}

// Stronger concrete of all bases of this kind in the project, weakest first; only where it has no other set
// of the kind, and nothing else that is cast of it.
Ladder baseConcreteLadder(const Project& project, const model::BaseSet& set) {
    Ladder all;
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
    Ladder deeper, wider, piles, bars, stub;
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
    Ladder shifted;
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
        all.push_back({{text, [id = set.id, key = part.key, clear](const Project& p) {
                            return model::editBases(p, id, [&](model::BaseSet& s, Project&) {
                                for (auto& b : s.bases)
                                    if (key.empty() || b.id == key) clear(b);
                            });
                        }}});
    };
    using B = model::Base;
    auto plan = [](B& b) { b.B = b.L = 0; };
    auto depth = [](B& b) { b.h = 0; };
    auto bars = [](B& b) { b.bar.clear(), b.spacing = 0; };
    auto piles = [](B& b) { b.piles = 0, b.pilesAt.clear(); };
    free(
        "Pin off: depth", [](const B& b) { return b.h > 0; }, depth);
    free(
        "Pin off: size in plan", [](const B& b) { return b.B > 0 || b.L > 0; }, plan);
    free(
        "Pin off: bars", [](const B& b) { return !b.bar.empty() || b.spacing > 0; }, bars);
    free(
        "Pin off: piles", [](const B& b) { return b.piles > 0 || !b.pilesAt.empty(); }, piles);
    free(
        "Pin off: centre", [](const B& b) { return b.offPinned; }, [](B& b) { b.offPinned = false; });
    free(
        "Pins off: solve all free sizes",
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
    if (const auto* set = model::findBases(project, part.element)) {
        auto all = baseLadders(project, *set, part);
        const auto* base = dynamic_cast<const BasePart*>(now.find(part));
        if (base && !base->overlaps.empty()) {
            std::vector<model::Id> bases{set->bases[base->number].id};
            std::string names = model::baseName(*set, set->bases[base->number]);
            for (std::size_t n : base->overlaps)
                bases.push_back(set->bases[n].id), names += " + " + model::baseName(*set, set->bases[n]);
            all.insert(all.begin(), {{"One base for " + names, [id = set->id, bases](const Project& p) {
                                          return model::joinBases(p, id, bases);
                                      }}});
        }
        return all;
    }
    const auto* f = dynamic_cast<const FloorDesign*>(&now);
    const auto* c = f ? f->connection(part.key) : nullptr;
    if (!c) return ladders(project, part.element);
    std::vector<Ladder> all;
    for (Steel steel : {Steel::Studs, Steel::Links})
        if (c->choice.steel != steel) all.push_back({shearSteelAttempt(part.element, part.key, steel)});
    all.push_back(moreTopSteel(*f, *c, project.basis));
    all.push_back(dropLadder(project, *c));
    all.push_back(columnLadder(project, *c));
    for (auto& ladder : ladders(project, part.element)) all.push_back(std::move(ladder));
    return all;
}

std::vector<Ladder> ladders(const Project& project, std::string_view element) {
    if (const auto* slab = model::findSlab(project, element)) return ladders(project, *slab);
    if (const auto* floor = model::findFloor(project, element)) return ladders(project, *floor);
    if (const auto* set = model::findBases(project, element)) return baseLadders(project, *set, {set->id});
    return {};
}

namespace {

// What has to be so after an edit: of a whole element nothing over; of a part none of its own checks, and
// none that was within before.
class Goal {
  public:
    Goal(const model::PartRef& part, const ElementAnswer& now)
        : part_(part), whole_(part.kind == PartKind::Whole) {
        for (const auto* c : now.all())
            if (c->outcome == checks::Outcome::Over) over_.insert(c->key);
    }
    bool reached(const ElementAnswer& then) const {
        if (whole_) return then.summary.over == 0;
        for (const auto* c : then.all())
            if (c->outcome == checks::Outcome::Over &&
                (!over_.contains(c->key) || c->place.spot.part == part_))
                return false;
        return true;
    }
    // Whether there is anything to seek.
    bool open(const ElementAnswer& now) const {
        if (whole_) return now.summary.over > 0;
        const auto* own = now.find(part_);
        return own && own->worst() > 1;
    }
    double worst(const ElementAnswer& then) const {
        const auto* own = whole_ ? nullptr : then.find(part_);
        return own ? own->worst() : then.worst();
    }

  private:
    const model::PartRef& part_;
    const bool whole_;
    std::set<std::string> over_;
};

}  // namespace

std::vector<Remedy> remedies(const Project& project, std::string_view element, std::stop_token stop) {
    return remedies(project, model::PartRef{model::Id(element)}, std::move(stop));
}

std::vector<Remedy> remedies(const Project& project, const model::PartRef& part, std::stop_token stop,
                             const std::function<void(const Remedy&)>& each) {
    std::vector<Remedy> found;
    if (stop.stop_requested() || !model::validate(project).empty()) return found;
    // Of a part all that takes longer is needed first: it says what was over before.
    const bool whole = part.kind == PartKind::Whole;
    const auto now = designNow(project, part.element, stop,
                               [&](const ElementAnswer& first) { return whole && first.summary.over > 0; });
    if (!now || !now->error.empty()) return found;
    const Goal goal(part, *now);
    if (!goal.open(*now)) return found;
    const auto& rates = project.basis.rates;
    for (const auto& ladder : whole ? ladders(project, part.element) : ladders(project, *now, part))
        for (const auto& attempt : ladder) {
            if (stop.stop_requested()) return {};
            Project next = attempt.edit(project);
            if (next == project || !model::validate(next).empty()) continue;
            // What takes longer only where nothing is wrong so far.
            const auto then = designNow(next, part.element, stop,
                                        [&](const ElementAnswer& first) { return !goal.reached(first); });
            if (!then || !then->error.empty() || !goal.reached(*then)) continue;
            Remedy r{attempt.text,
                     whole ? 0 : then->summary.over,
                     goal.worst(*then),
                     then->steel - now->steel,
                     then->concrete - now->concrete,
                     0,
                     std::move(next)};
            r.price = r.steel * rates.steel.price + r.concrete * rates.concrete.price;
            if (each) each(r);
            found.push_back(std::move(r));
            break;
        }
    return stop.stop_requested() ? std::vector<Remedy>{} : found;
}

}  // namespace talvik::design
