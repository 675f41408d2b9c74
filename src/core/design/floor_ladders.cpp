// What may mend a floor, a strip or a connection of it.
#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>
#include <set>

#include "design/floor_design.h"
#include "design/ladders.h"
#include "layout/panels.h"
#include "layout/placing.h"
#include "model/edits.h"

namespace talvik::design {
namespace {

using geometry::Point;
using model::PartKind;
using model::Project;

Ladder deeperLadder(const Project& project, const model::Floor& floor) {
    Ladder deeper{"more depth, up to 120 mm", Reach::Whole};
    const double step = thicknessStep(project),
                 first = floor.slabs.empty() ? 0 : floor.slabs.front().thickness;
    const bool alike = std::all_of(floor.slabs.begin(), floor.slabs.end(),
                                   [&](const auto& s) { return s.thickness == first; });
    for (double add = step; add <= mostAdded && !floor.slabs.empty(); add += step)
        deeper.push_back({alike ? "Slab " + thicker(first, first + add, project)
                                : "All slabs +" + units::text(add, units::Kind::Length, project.basis.units),
                          [id = floor.id, add](const Project& p) {
                              return model::editFloor(p, id, [add](model::Floor& f, Project&) {
                                  for (auto& s : f.slabs) s.thickness += add;
                                  for (auto& z : f.zones) z.thickness += add;
                              });
                          }});
    return deeper;
}

// Panels in which checks fail.
std::vector<layout::Panel> failing(const model::Floor& floor, const std::vector<const checks::Check*>& over) {
    std::vector<layout::Panel> some;
    for (auto& panel : layout::findPanels(floor))
        if (std::any_of(over.begin(), over.end(), [&](const checks::Check* c) {
                return c->place.at && c->topic != checks::Topic::Punching &&
                       std::any_of(panel.parts.begin(), panel.parts.end(),
                                   [&](const auto& ring) { return geometry::contains(ring, *c->place.at); });
            }))
            some.push_back(std::move(panel));
    return some;
}
std::string named(const std::vector<layout::Panel>& panels) {
    if (panels.size() > 3) return fmt::format("{} panels", panels.size());
    std::vector<std::string> names;
    for (const auto& p : panels) names.push_back(p.name);
    return fmt::format("{} {}", names.size() == 1 ? "panel" : "panels", fmt::join(names, ", "));
}

// Formwork raised where the long-term sag alone is over, as the checks propose.
Ladder camberLadder(const Project& project, const FloorDesign& f) {
    Ladder all{"precamber", Reach::Panels};
    if (!f.sag || !f.standard->sag) return all;
    std::vector<std::pair<Point, double>> rises;
    for (const auto& row : f.sag->rows)
        if (const double rise = proposedCamber(row, *f.standard->sag); rise > 0)
            rises.emplace_back(row.centre, rise);
    if (rises.empty()) return all;
    const auto panels = layout::findPanels(*f.floor);
    std::vector<std::string> words;
    std::vector<std::pair<std::size_t, double>> which;
    for (const auto& [centre, rise] : rises)
        for (std::size_t i = 0; i < panels.size(); ++i)
            if (panels[i].centre.x == centre.x && panels[i].centre.y == centre.y) {
                which.emplace_back(i, rise);
                words.push_back(units::text(rise, units::Kind::Length, project.basis.units) + " in " +
                                panels[i].name);
            }
    if (words.size() > 3) words = {fmt::format("{} panels", words.size())};
    all.push_back({fmt::format("Precamber {}", fmt::join(words, ", ")),
                   [id = f.floor->id, panels, which](const Project& p) {
                       return model::editFloor(p, id, [&](model::Floor& floor, Project& next) {
                           for (const auto& [i, rise] : which)
                               layout::setCamber(next, floor, panels, {i}, rise);
                       });
                   }});
    return all;
}

// The panels in which checks fail thicker; drops in them stay at least as deep.
Ladder zoneLadder(const Project& project, const FloorDesign& f, const std::vector<layout::Panel>& panels) {
    Ladder all{"more depth in the panels that fail", Reach::Panels};
    if (panels.empty() || panels.size() == layout::findPanels(*f.floor).size()) return all;
    struct Zone {
        model::Outline outline;
        double thickness;
    };
    std::vector<Zone> zones;
    for (const auto& panel : panels) {
        auto rings = geometry::unite(panel.parts);
        if (rings.size() != 1) rings = {panel.outline};
        Zone z{{}, panel.thickness};
        for (Point p : rings.front()) z.outline.push_back({p.x, p.y});
        zones.push_back(std::move(z));
    }
    const double step = thicknessStep(project) * 2;
    for (double add = step; add <= mostAdded; add += step)
        all.push_back({fmt::format("{} thicker: {}",
                                   units::text(add, units::Kind::Length, project.basis.units), named(panels)),
                       [id = f.floor->id, zones, add](const Project& p) {
                           return model::editFloor(p, id, [&](model::Floor& floor, Project& next) {
                               for (const auto& z : zones) {
                                   const auto ring = model::ring(z.outline);
                                   for (auto& drop : floor.zones)
                                       for (Point q : model::ring(drop.outline))
                                           if (geometry::contains(ring, q))
                                               drop.thickness = std::max(drop.thickness, z.thickness + add);
                                   model::Zone zone;
                                   zone.id = model::newId(next, 'z');
                                   zone.name = layout::freeName(floor, "D");
                                   zone.outline = z.outline, zone.thickness = z.thickness + add;
                                   floor.zones.insert(floor.zones.begin(), std::move(zone));
                               }
                           });
                       }});
    return all;
}

// Beams along the free sides of panels that fail.
Ladder edgeBeamLadder(const Project& project, const FloorDesign& f,
                      const std::vector<layout::Panel>& panels) {
    Ladder all{"beams along free edges", Reach::Panels};
    const auto outlines = model::outlines(*f.floor);
    struct Side {
        Point a, b;
    };
    std::vector<Side> sides;
    double deepest = 0;
    const auto& floor = *f.floor;
    auto lies = [&](Point p) {
        auto on = [&](const auto& list, double beyond) {
            return std::any_of(list.begin(), list.end(),
                               [&](const auto& m) { return geometry::distance(p, m.a, m.b) < beyond; });
        };
        return on(floor.walls, 300) || on(floor.beams, 300) || on(floor.edges, 300);
    };
    for (const auto& panel : panels)
        for (std::size_t i = 0; i < panel.outline.size(); ++i) {
            const Point a = panel.outline[i], b = panel.outline[(i + 1) % panel.outline.size()],
                        m{(a.x + b.x) / 2, (a.y + b.y) / 2};
            const bool free = std::any_of(outlines.begin(), outlines.end(), [&](const auto& ring) {
                return geometry::distanceToEdge(ring, m) < 600;
            });
            auto held = [&](Point p) {
                return std::any_of(floor.columns.begin(), floor.columns.end(), [&](const auto& c) {
                    return geometry::length(p, {c.x, c.y}) < 400;
                });
            };
            if (geometry::length(a, b) < 2000 || !free || lies(m) || !held(a) || !held(b)) continue;
            sides.push_back({a, b});
            deepest = std::max(deepest, panel.thickness);
        }
    if (sides.empty()) return all;
    const double step = thicknessStep(project) * 10;
    for (int k = 2; k <= 6; ++k) {
        const double depth = units::roundUp(deepest, step / 2) + k * step, width = 3 * step;
        all.push_back(
            {fmt::format("{} × {}: {}", units::number(width, units::Kind::Length, project.basis.units),
                         units::text(depth, units::Kind::Length, project.basis.units),
                         sides.size() == 1 ? "a beam along the edge"
                                           : fmt::format("beams along {} edges", sides.size())),
             [id = floor.id, sides, depth, width](const Project& p) {
                 return model::editFloor(p, id, [&](model::Floor& g, Project& next) {
                     for (const auto& s : sides) {
                         model::FloorBeam b;
                         b.a = s.a, b.b = s.b, b.width = width, b.depth = depth;
                         layout::add(next, g, b);
                     }
                 });
             }});
    }
    return all;
}

using Steel = model::ConnectionChoice::Steel;

Attempt shearSteelAttempt(const model::Id& floor, const std::vector<std::string>& keys, Steel steel) {
    return {
        (steel == Steel::Studs ? "Studs on rails" : "Links") +
            (keys.size() > 1 ? fmt::format(" at {} connections", keys.size()) : std::string()),
        [floor, keys, steel](const Project& p) { return model::setShearSteel(p, floor, keys, steel, 0); }};
}

// Bars of a face at some places replaced by as many more as make the steel so many times what lies there: of
// both directions, fixed where they lie now.
Ladder moreSteel(const FloorDesign& f, const std::vector<Point>& places, bool top,
                 const model::Basis& basis) {
    struct Run {
        std::string strip;
        bars::Run run;
    };
    std::vector<Run> runs;
    for (const auto& d : f.strips) {
        auto holds = [&](Point at, const bars::Run& r) {
            const auto local = d->strip->axes.local(at);
            return r.from < local.x && r.to > local.x &&
                   std::any_of(d->strip->parts.begin(), d->strip->parts.end(),
                               [&](const auto& ring) { return geometry::contains(ring, at); });
        };
        for (const auto& r : d->runs)
            if (r.top() == top && !r.band() && model::isMain(r.role) &&
                std::any_of(places.begin(), places.end(), [&](Point at) { return holds(at, r); }))
                runs.push_back({d->strip->key, r});
    }
    Ladder all{top ? "more top bars" : "more bottom bars"};
    const auto* catalog = catalogs::barCatalog(basis.barCatalog);
    if (runs.empty() || !catalog) return all;
    for (double more : {1.25, 1.5, 1.75, 2.0, 2.5, 3.0}) {
        std::vector<Run> next;
        std::set<std::string> kinds;
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
            kinds.insert(fmt::format("{}-{:.0f}", best.run.bar, best.run.spacing));
            next.push_back(std::move(best));
        }
        if (next.size() < runs.size()) break;
        const std::string text = kinds.size() <= 4 ? fmt::format("{}", fmt::join(kinds, ", "))
                                                   : fmt::format("{:.0f} % more", 100 * (more - 1));
        all.push_back(
            {(top ? "Top bars " : "Bottom bars ") + text, [id = f.floor->id, next](const Project& p) {
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
    const double side = std::max(c.place.c1, c.place.c2), step = thicknessStep(project) * 5;
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
    Ladder all{"a drop", Reach::Member};
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
    Ladder all{"a larger column", Reach::Member};
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
                all.steps[std::size_t(k - 1)].text =
                    "Column Ø " +
                    units::text(column.width + k * step, units::Kind::Length, project.basis.units);
    }
    return all;
}

}  // namespace

std::vector<Ladder> floorLadders(const Project& project, const FloorDesign& f, const model::PartRef& part) {
    std::vector<Ladder> all;
    const auto& floor = *model::findFloor(project, part.element);
    if (const auto* c = f.connection(part.key); part.kind == PartKind::Connection && c) {
        Ladder legs{"studs or links"};
        for (Steel steel : {Steel::Studs, Steel::Links}) {
            const Ladder one{steel == Steel::Studs ? "studs" : "links",
                             Reach::Bars,
                             {shearSteelAttempt(floor.id, {part.key}, steel)}};
            if (c->choice.steel != steel) all.push_back(one);
            legs.push_back(one.steps.front());
        }
        const auto more = moreSteel(f, {c->place.middle}, c->topTension, project.basis);
        const auto drops = dropLadder(project, *c), columns = columnLadder(project, *c);
        for (const auto& one : {more, drops, columns}) all.push_back(one);
        for (auto& two : {together("studs or links and more bars", more, legs),
                          together("a drop and studs or links", drops, legs),
                          together("a larger column and studs or links", columns, legs)})
            all.push_back(two), all.back().onlyWhereNoneDoes = true;
        all.push_back(barsLadder(floor.id, floor.strips.bars));
        all.push_back(deeperLadder(project, floor));
        all.push_back(concreteLadder(project));
        return all;
    }
    std::vector<const checks::Check*> over;
    for (const auto* c : f.all())
        if (c->outcome == checks::Outcome::Over &&
            (part.kind == PartKind::Whole || c->place.spot.part == part))
            over.push_back(c);
    const auto panels = failing(floor, over);
    all.push_back(barsLadder(floor.id, floor.strips.bars));
    for (auto& one : barEndLadders(project, f, part, floor.strips.bars)) all.push_back(std::move(one));
    all.push_back(camberLadder(project, f));
    // Where it sags or bends too far.
    std::vector<Point> low, high;
    for (const auto* c : over) {
        if (!c->place.at) continue;
        if (c->topic == checks::Topic::Sag ||
            (c->topic != checks::Topic::Punching && c->face == model::Face::Bottom))
            low.push_back(*c->place.at);
        else if (c->face == model::Face::Top)
            high.push_back(*c->place.at);
    }
    all.push_back(moreSteel(f, low, false, project.basis));
    all.push_back(moreSteel(f, high, true, project.basis));
    if (!floor.strips.rules.links)
        all.push_back(linksLadder([id = floor.id](const Project& p) {
            return model::editFloor(p, id, [](model::Floor& g, Project&) { g.strips.rules.links = true; });
        }));
    std::vector<std::string> punched;
    for (const auto& c : f.connections)
        if (c->worst() > 1) punched.push_back(c->site->key);
    if (part.kind == PartKind::Whole && !punched.empty())
        all.push_back({"studs on rails", Reach::Bars, {shearSteelAttempt(floor.id, punched, Steel::Studs)}});
    const auto zones = zoneLadder(project, f, panels), beams = edgeBeamLadder(project, f, panels),
               deeper = deeperLadder(project, floor), camber = camberLadder(project, f);
    for (const auto& one : {zones, beams, deeper}) all.push_back(one);
    all.push_back(concreteLadder(project));
    const auto bottom = moreSteel(f, low, false, project.basis);
    for (auto& two : {together("more bottom bars and precamber", bottom, camber, 6),
                      together("more depth and precamber", deeper, camber, 8),
                      together("beams along free edges and more bottom bars", beams, bottom, 8)})
        all.push_back(two), all.back().onlyWhereNoneDoes = true;
    if (part.kind == PartKind::Whole && !punched.empty()) {
        const Ladder studs{"studs on rails", Reach::Bars, {shearSteelAttempt(floor.id, punched, Steel::Studs)}};
        all.push_back(together("more depth and studs", deeper, studs, 8)), all.back().onlyWhereNoneDoes = true;
    }
    return all;
}

}  // namespace talvik::design
