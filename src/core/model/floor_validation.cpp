#include "model/floor_validation.h"

#include <fmt/format.h>

#include <cmath>

namespace talvik::model {
namespace {

std::string metres(Point p) {
    return fmt::format("({:.3f}, {:.3f}) m", p.x / 1000, p.y / 1000);
}

class Validator {
  public:
    std::vector<Diagnostic> found;
    const bool placed;  // what lies where matters too
    Validator(std::string path, bool placedToo) : placed(placedToo), path_(std::move(path)) {}

    void add(const std::string& at, std::string message) {
        found.push_back({path_ + "." + at, std::move(message)});
    }
    void number(const std::string& at, double value, double low, double high, const std::string& what,
                const char* unit, double factor) {
        if (!std::isfinite(value) || value < low || value > high)
            add(at,
                fmt::format("{} must be between {} and {} {}; it is {}.", what, units::plain(low / factor),
                            units::plain(high / factor), unit, units::plain(value / factor)));
    }
    bool place(const std::string& at, Point p, const std::string& what) {
        if (std::isfinite(p.x) && std::isfinite(p.y) && std::abs(p.x) <= 2e6 && std::abs(p.y) <= 2e6)
            return true;
        add(at, what + " lies more than 2 km from the origin of the plan; move the drawing nearer to it.");
        return false;
    }
    // A valid ring, or an empty one after saying why not.
    geometry::Ring outline(const std::string& at, const Outline& o, const std::string& what) {
        for (const Corner& c : o) {
            if (!place(at, {c.x, c.y}, "A corner of " + what)) return {};
            if (!std::isfinite(c.bulge) || std::abs(c.bulge) > 10) {
                add(at, "An arc of " + what + " turns too far; draw it as two arcs.");
                return {};
            }
        }
        if (o.size() > 5000) {
            add(at,
                fmt::format("The outline of {} has {} corners; at most 5000 are possible.", what, o.size()));
            return {};
        }
        for (std::size_t i = 0; i < o.size() && o.size() >= 3; ++i) {
            const Corner &p = o[i], &q = o[(i + 1) % o.size()];
            if (std::hypot(p.x - q.x, p.y - q.y) < 0.5) {
                add(at, fmt::format("Corners {} and {} of {} lie at the same place, {}; remove one.", i + 1,
                                    (i + 1) % o.size() + 1, what, metres({p.x, p.y})));
                return {};
            }
        }
        geometry::Ring r = ring(o);
        if (auto why = geometry::invalid(r); !why.empty()) {
            add(at, what + ": " + why);
            return {};
        }
        if (std::abs(geometry::area(r)) < 1e4) {
            add(at, what + " encloses no area; draw it larger or remove it.");
            return {};
        }
        return r;
    }
    void line(const std::string& at, Point a, Point b, const std::string& what,
              const std::vector<geometry::Ring>& slabs) {
        if (!place(at, a, "An end of " + what) || !place(at, b, "An end of " + what)) return;
        if (std::hypot(a.x - b.x, a.y - b.y) < 50) {
            add(at, fmt::format("{} is shorter than 50 mm, at {}; lengthen or remove it.", what, metres(a)));
            return;
        }
        for (Point p : {a, b})
            if (placed && !on(slabs, p, 1))
                add(at, fmt::format(
                            "{} ends outside every slab, at {}; shorten it to the slab or extend the slab.",
                            what, metres(p)));
    }
    static bool on(const std::vector<geometry::Ring>& slabs, Point p, double tolerance) {
        for (const auto& r : slabs)
            if (geometry::contains(r, p) || geometry::distanceToEdge(r, p) <= tolerance) return true;
        return false;
    }

  private:
    std::string path_;
};

template <class Member>
std::string named(const char* kind, const Member& m) {
    return std::string(kind) + " " + (m.name.empty() ? m.id : m.name);
}

}  // namespace

namespace {

std::vector<Diagnostic> look(const Floor& f, const std::string& path, bool placed) {
    Validator v(path, placed);
    auto at = [](const char* list, std::size_t i) { return fmt::format("{}[{}]", list, i); };
    if (placed && f.slabs.empty()) v.add("slabs", fmt::format("{} has no slab; draw an outline.", f.name));
    std::size_t members = f.slabs.size() + f.zones.size() + f.openings.size() + f.columns.size() +
                          f.walls.size() + f.edges.size() + f.beams.size() + f.grounds.size() +
                          f.piles.size();
    if (members > 20000)
        v.add("", fmt::format("The floor has {} members; at most 20 000 are possible.", members));
    std::vector<geometry::Ring> slabs, openings;
    for (std::size_t i = 0; i < f.slabs.size(); ++i) {
        std::string name = named("slab", f.slabs[i]);
        v.number(at("slabs", i) + ".thickness", f.slabs[i].thickness, 50, 5000, "The thickness of " + name,
                 "mm", 1);
        auto r = v.outline(at("slabs", i) + ".outline", f.slabs[i].outline, name);
        if (r.empty()) continue;
        for (std::size_t k = 0; k < slabs.size() && placed; ++k)
            if (auto both = geometry::shared(slabs[k], r); both.area > 1e4)
                v.add(at("slabs", i) + ".outline",
                      fmt::format(
                          "{} lies over another slab by {:.2f} m², near {}; draw their common edge once.",
                          name, both.area / 1e6, metres(both.at)));
        slabs.push_back(std::move(r));
    }
    if (!v.found.empty()) return v.found;  // what follows is placed on the slabs
    for (std::size_t i = 0; i < f.slabs.size(); ++i)
        v.number(at("slabs", i) + ".level", f.slabs[i].level, -20000, 20000,
                 "The level of " + named("slab", f.slabs[i]), "mm", 1);
    for (std::size_t i = 0; i < f.grids.size(); ++i) {
        const Grid& g = f.grids[i];
        std::string where = at("grids", i);
        v.place(where, g.origin, "The origin of the grid");
        v.number(where + ".angle", g.angle, -360, 360, "The angle of the grid", "degrees", 1);
        v.number(where + ".between", g.between, 20, 160, "The angle between the grid's directions", "degrees",
                 1);
        for (const auto* list : {&g.along, &g.across}) {
            if (list->size() > 200) v.add(where, "A grid has at most 200 spacings in each direction.");
            for (double d : *list) v.number(where, d, 100, 100000, "A spacing of the grid", "m", 1000);
        }
    }
    for (std::size_t i = 0; i < f.underlays.size(); ++i) {
        v.place(at("underlays", i), f.underlays[i].at, "The drawing " + f.underlays[i].name);
        v.number(at("underlays", i) + ".scale", f.underlays[i].scale, 1e-6, 1e6, "The scale of the drawing",
                 "", 1);
        v.number(at("underlays", i) + ".angle", f.underlays[i].angle, -360, 360, "The angle of the drawing",
                 "degrees", 1);
    }
    for (std::size_t i = 0; i < f.panels.size(); ++i) {
        v.place(at("panels", i), f.panels[i].at, "The choice for a panel");
        v.number(at("panels", i) + ".angle", f.panels[i].angle, -360, 360, "The direction of a panel",
                 "degrees", 1);
    }
    for (std::size_t i = 0; i < f.cambers.size(); ++i) {
        v.place(at("cambers", i), f.cambers[i].at, "The precamber of a panel");
        v.number(at("cambers", i) + ".rise", f.cambers[i].rise, 0, 500, "The precamber of a panel", "mm", 1);
    }
    for (std::size_t i = 0; i < f.sagLines.size(); ++i) {
        const std::string name = named("deflection limit", f.sagLines[i]), where = at("sag_lines", i);
        v.number(where + ".limit", f.sagLines[i].limit, 0.1, 1000, "The deflection that " + name + " allows",
                 "mm", 1);
        v.line(where, f.sagLines[i].a, f.sagLines[i].b, name, slabs);
    }
    for (std::size_t i = 0; i < f.openings.size(); ++i) {
        std::string name = named("opening", f.openings[i]), where = at("openings", i) + ".outline";
        auto r = v.outline(where, f.openings[i].outline, name);
        if (r.empty()) continue;
        if (!placed) continue;
        if (auto beyond = geometry::outside(r, slabs); beyond.area > 1e3)
            v.add(where,
                  fmt::format("{} reaches {:.2f} m² beyond the slab, near {}; move it inside, or make the "
                              "recess part of the slab's outline.",
                              name, beyond.area / 1e6, metres(beyond.at)));
        openings.push_back(std::move(r));
    }
    for (std::size_t i = 0; i < f.zones.size(); ++i) {
        std::string name = named("zone", f.zones[i]);
        v.number(at("zones", i) + ".thickness", f.zones[i].thickness, 50, 5000, "The thickness of " + name,
                 "mm", 1);
        v.outline(at("zones", i) + ".outline", f.zones[i].outline, name);
    }
    auto inOpening = [&](Point p) {
        for (const auto& r : openings)
            if (geometry::contains(r, p) && geometry::distanceToEdge(r, p) > 1) return true;
        return false;
    };
    for (std::size_t i = 0; i < f.columns.size(); ++i) {
        const Column& c = f.columns[i];
        std::string name = named("column", c), where = at("columns", i);
        v.number(where + ".width", c.width, 50, 10000, "The width of " + name, "mm", 1);
        if (!c.circular) v.number(where + ".depth", c.depth, 50, 10000, "The depth of " + name, "mm", 1);
        v.number(where + ".angle", c.angle, -360, 360, "The angle of " + name, "degrees", 1);
        if (c.below)
            v.number(where + ".heightBelow", c.heightBelow, 100, 100000, "The height below of " + name, "m",
                     1000);
        if (c.above)
            v.number(where + ".heightAbove", c.heightAbove, 100, 100000, "The height above of " + name, "m",
                     1000);
        if (!v.place(where, {c.x, c.y}, name) || !placed) continue;
        if (!Validator::on(slabs, {c.x, c.y}, 1))
            v.add(where, fmt::format("{} stands outside every slab, at {}; move it or extend the slab.", name,
                                     metres({c.x, c.y})));
        else if (inOpening({c.x, c.y}))
            v.add(where,
                  fmt::format("{} stands in an opening, at {}; move one of them.", name, metres({c.x, c.y})));
        for (std::size_t k = 0; k < i; ++k)
            if (std::hypot(c.x - f.columns[k].x, c.y - f.columns[k].y) < 1)
                v.add(where, fmt::format("{} and {} stand at the same place, {}; remove one.", name,
                                         named("column", f.columns[k]), metres({c.x, c.y})));
    }
    for (std::size_t i = 0; i < f.walls.size(); ++i) {
        std::string name = named("wall", f.walls[i]), where = at("walls", i);
        v.number(where + ".thickness", f.walls[i].thickness, 50, 5000, "The thickness of " + name, "mm", 1);
        v.number(where + ".height", f.walls[i].height, 100, 100000, "The height of " + name, "m", 1000);
        v.line(where, f.walls[i].a, f.walls[i].b, name, slabs);
    }
    for (std::size_t i = 0; i < f.edges.size(); ++i)
        v.line(at("edges", i), f.edges[i].a, f.edges[i].b, named("line support", f.edges[i]), slabs);
    for (std::size_t i = 0; i < f.beams.size(); ++i) {
        const FloorBeam& b = f.beams[i];
        std::string name = named("beam", b), where = at("beams", i);
        v.number(where + ".width", b.width, 50, 10000, "The width of " + name, "mm", 1);
        v.number(where + ".depth", b.depth, 60, 10000, "The depth of " + name, "mm", 1);
        v.number(where + ".torsion", b.torsion, 0, 1, "The share of torsional stiffness of " + name, "", 1);
        v.line(where, b.a, b.b, name, slabs);
    }
    for (std::size_t i = 0; i < f.grounds.size(); ++i) {
        std::string name = named("ground", f.grounds[i]), where = at("grounds", i);
        v.number(where + ".modulus", f.grounds[i].modulus, 1e-5, 10,
                 "The modulus of subgrade reaction of " + name, "MN/m³", 1e-3);
        if (!f.grounds[i].outline.empty()) v.outline(where + ".outline", f.grounds[i].outline, name);
    }
    for (std::size_t i = 0; i < f.piles.size(); ++i) {
        const Pile& p = f.piles[i];
        std::string name = named("pile", p), where = at("piles", i);
        v.number(where + ".diameter", p.diameter, 50, 5000, "The diameter of " + name, "mm", 1);
        v.number(where + ".stiffness", p.stiffness, 1, 1e9, "The stiffness of " + name, "kN/mm", 1000);
        if (v.place(where, {p.x, p.y}, name) && placed && !Validator::on(slabs, {p.x, p.y}, 1))
            v.add(where, fmt::format("{} stands outside every slab, at {}; move it or extend the slab.", name,
                                     metres({p.x, p.y})));
    }
    v.number("vibration.imposed", f.vibration.imposed, 0, 1, "The share of imposed loads that vibrates along",
             "", 1);
    v.number("vibration.damping", f.vibration.damping, 0.002, 0.2, "The damping", "of critical", 1);
    v.number("vibration.limit", f.vibration.limit, 0.5, 100, "The limit of the response factor", "", 1);
    const auto& ch = f.choices;
    if (ch.meshSize != 0) v.number("choices.meshSize", ch.meshSize, 20, 20000, "The size of mesh", "mm", 1);
    for (auto [key, value] : {std::pair("slab", ch.modifiers.slab),
                              {"beam", ch.modifiers.beam},
                              {"column", ch.modifiers.column},
                              {"wall", ch.modifiers.wall}})
        v.number(std::string("choices.modifiers.") + key, value, 0.01, 10, "The stiffness modifier", "", 1);

    if (f.actions.cases.size() > 100) v.add("cases", "More than 100 load cases in one floor.");
    int self = 0;
    for (std::size_t i = 0; i < f.actions.cases.size(); ++i) {
        const LoadCase& c = f.actions.cases[i];
        if (c.nature == LoadCase::Nature::SelfWeight && ++self > 1)
            v.add(at("cases", i), "The self-weight is counted twice; keep one case of self-weight.");
        v.number(at("cases", i) + ".reductionArea", c.reductionArea, 0, 1e11, "The area carried", "m²", 1e6);
        if (c.nature == LoadCase::Nature::Imposed && !catalogs::imposedUse(c.use))
            v.add(at("cases", i) + ".use", fmt::format("There is no imposed use \"{}\".", c.use));
    }
    for (std::size_t i = 0; i < f.actions.loads.size(); ++i) {
        const FloorLoad& l = f.actions.loads[i];
        std::string name = "load " + l.id, where = at("loads", i);
        bool known = false;
        for (const auto& c : f.actions.cases) known |= c.id == l.loadCase;
        if (!known)
            v.add(where + ".loadCase", fmt::format("There is no load case \"{}\" for {}.", l.loadCase, name));
        v.number(where + ".value", l.value, -1e12, 1e12, "The value of " + name, "N, mm", 1);
        for (const Finish& layer : l.layers) {
            v.number(where + ".layers", layer.thickness, 0, 2000, "The thickness of a layer of " + name, "mm",
                     1);
            v.number(where + ".layers", layer.density, 0, 100e-6, "The density of a layer of " + name,
                     "kN/m³", 1e-6);
        }
        v.number(where + ".valueY", l.valueY, -1e12, 1e12, "The value of " + name, "N, mm", 1);
        if (l.kind == FloorLoad::Kind::Area) {
            if (l.outline.empty()) continue;
            auto r = v.outline(where + ".outline", l.outline, name);
            if (!r.empty() && placed && geometry::outside(r, slabs).area > 0.999 * geometry::area(r))
                v.add(where + ".outline",
                      fmt::format("{} lies outside every slab, near {}; move it onto a slab.", name,
                                  metres(geometry::outside(r, slabs).at)));
        } else if (l.kind == FloorLoad::Kind::Line) {
            v.line(where, l.a, l.b, name, slabs);
        } else {
            v.number(where + ".width", l.width, 0, 1e5, "The footprint of " + name, "mm", 1);
            v.number(where + ".depth", l.depth, 0, 1e5, "The footprint of " + name, "mm", 1);
            if (v.place(where, l.a, name) && placed && (!Validator::on(slabs, l.a, 1) || inOpening(l.a)))
                v.add(where, fmt::format("{} lies outside every slab, at {}; move it onto a slab.", name,
                                         metres(l.a)));
        }
    }
    for (std::size_t i = 0; i < f.actions.combinations.size(); ++i) {
        const CombinationRow& row = f.actions.combinations[i];
        for (const auto& [id, factor] : row.factors) {
            bool known = false;
            for (const auto& c : f.actions.cases) known |= c.id == id;
            if (!known)
                v.add(at("combinations", i),
                      fmt::format("Combination {} names the load case \"{}\", which is not there.", row.name,
                                  id));
            v.number(at("combinations", i), factor, -10, 10, "A factor of combination " + row.name, "", 1);
        }
    }
    const FloorStrips& strips = f.strips;
    auto direction = [&](const std::string& where, int d) {
        if (d != 0 && d != 1) v.add(where, "A strip belongs to direction 0 or 1.");
    };
    auto angles = [&](const std::string& where, const double(&angle)[2], const std::string& what) {
        for (double a : angle) v.number(where, a, -360, 360, "An angle of " + what, "degrees", 1);
        double between = std::fmod(std::abs(angle[1] - angle[0]), 180);
        if (std::min(between, 180 - between) < 20)
            v.add(where,
                  fmt::format("The two directions of {} are less than 20 degrees apart; turn one of them.",
                              what));
    };
    angles("strips.rules.angle", strips.rules.angle, "the strips");
    v.number("strips.rules.peakWidth", strips.rules.peakWidth, 0, 20000, "The band width over columns", "mm",
             1);
    v.number("strips.rules.redistribution", strips.rules.redistribution, 0, 0.3, "The redistribution", "", 1);
    direction("strips.rules", strips.rules.outerTop);
    direction("strips.rules", strips.rules.outerBottom);
    for (std::size_t i = 0; i < strips.areas.size(); ++i) {
        std::string name = named("strip area", strips.areas[i]), where = at("strips.areas", i);
        v.outline(where + ".outline", strips.areas[i].outline, name);
        angles(where + ".angle", strips.areas[i].angle, name);
    }
    for (std::size_t i = 0; i < strips.edges.size(); ++i) {
        std::string where = at("strips.edges", i);
        direction(where, strips.edges[i].direction);
        v.number(where, strips.edges[i].offset, 0, 1e5, "The offset of a strip's edge", "mm", 1);
    }
    for (std::size_t i = 0; i < strips.drawn.size(); ++i) {
        std::string name = named("strip", strips.drawn[i]), where = at("strips.drawn", i);
        direction(where, strips.drawn[i].direction);
        v.number(where + ".angle", strips.drawn[i].angle, -360, 360, "The direction of " + name, "degrees",
                 1);
        v.outline(where + ".outline", strips.drawn[i].outline, name);
    }
    for (std::size_t i = 0; i < f.punching.choices.size(); ++i)
        v.number(at("punching.choices", i), f.punching.choices[i].diameter, 0, 40,
                 "The diameter of shear steel at " + f.punching.choices[i].connection, "mm", 1);
    return v.found;
}

}  // namespace

std::vector<Diagnostic> wellFormed(const Floor& f, const std::string& path) {
    return look(f, path, false);
}
std::vector<Diagnostic> validateFloor(const Floor& f, const std::string& path) {
    return look(f, path, true);
}

std::vector<Diagnostic> nearMisses(const Floor& f, const std::string& path) {
    constexpr double least = 0.5, most = 100;  // mm: below it ends are joined, above it a gap is meant
    std::vector<Diagnostic> found;
    struct Target {
        std::string name;
        double gap;
    };
    auto nearest = [&](Point p, const Id& self) {
        Target best{"", 1e300};
        auto take = [&](double gap, const std::string& name) {
            if (gap < best.gap) best = {name, std::max(0.0, gap)};
        };
        for (const auto& c : f.columns) {
            auto r = footprint(c);
            take(geometry::contains(r, p) ? 0 : geometry::distanceToEdge(r, p), named("column", c));
        }
        for (const auto& w : f.walls)
            if (w.id != self) take(geometry::distance(p, w.a, w.b), named("wall", w));
        for (const auto& b : f.beams)
            if (b.id != self) take(geometry::distance(p, b.a, b.b), named("beam", b));
        for (const auto& e : f.edges)
            if (e.id != self) take(geometry::distance(p, e.a, e.b), named("line support", e));
        return best;
    };
    auto end = [&](const std::string& at, const char* kind, const auto& member) {
        for (Point p : {member.a, member.b}) {
            auto t = nearest(p, member.id);
            if (t.gap > least && t.gap <= most)
                found.push_back(
                    {path + "." + at, fmt::format("{} ends {:.0f} mm short of {}, at {}; extend it to meet.",
                                                  named(kind, member), t.gap, t.name, metres(p))});
        }
    };
    for (std::size_t i = 0; i < f.beams.size(); ++i) end(fmt::format("beams[{}]", i), "beam", f.beams[i]);
    for (std::size_t i = 0; i < f.walls.size(); ++i) end(fmt::format("walls[{}]", i), "wall", f.walls[i]);
    std::vector<geometry::Ring> slabs;
    for (const auto& s : f.slabs) slabs.push_back(ring(s.outline));
    for (std::size_t i = 0; i < slabs.size(); ++i)
        for (std::size_t k = 0; k < i; ++k)
            for (Point p : slabs[i]) {
                double gap = geometry::distanceToEdge(slabs[k], p);
                if (gap > least && gap <= most && !geometry::contains(slabs[k], p)) {
                    found.push_back(
                        {path + fmt::format(".slabs[{}]", i),
                         fmt::format("{} stops {:.0f} mm from {}, at {}; move the corner onto its edge.",
                                     named("slab", f.slabs[i]), gap, named("slab", f.slabs[k]), metres(p))});
                    break;
                }
            }
    return found;
}

}  // namespace talvik::model
