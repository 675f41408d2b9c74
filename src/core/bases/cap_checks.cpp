// The checks of a cap with their working, and its bars as they lie.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "bases/cap.h"
#include "verify/check_list.h"

namespace talvik::bases {
namespace {

using checks::Finding;
using checks::Topic;
using geometry::Point;
using standards::Section;

bool inLine(const std::vector<Point>& piles) {
    for (Point p : piles)
        for (Point q : piles)
            if (std::abs((p.x - piles[0].x) * (q.y - piles[0].y) - (p.y - piles[0].y) * (q.x - piles[0].x)) > 1)
                return false;
    return true;
}

}  // namespace

// Both faces: cracks, spacing, ductility, maximum steel.
void Cap::faceChecks(const Add& add, const CapDesign& design, const Demand& m, bool working) const {
    const auto& rules = *in_.standard;
    const auto& s = design.size;
    const auto service = demand(design, crackState());
    const double most = rules.steel->spacing(standards::SteelRules::Role::TwoWay, true, s.h);
    for (int axis : {0, 1})
        for (bool top : {false, true}) {
            const auto a = std::size_t(axis);
            const Mat& mat = top ? design.top[a] : design.bottom[a];
            if (!mat.bar) continue;
            const Section section{s.side(1 - axis), s.h, top ? topDepth(design, axis) : design.d[a],
                                  in_.cover + 10, in_.fc, in_.fy};
            standingFace(add, section, mat, axis, top, most, working);
            trace::Steps t;
            if (const auto wide = cracks(design, service, axis, top, working ? &t : nullptr))
                add(fmt::format("cracks-{}{}", axis == 0 ? 'x' : 'y', top ? "-top" : ""),
                    fmt::format("Cracks along {}{}", axis == 0 ? 'x' : 'y', top ? ", top" : ""), Topic::Cracks,
                    *wide, t, combination(crackState(), (top ? service.top : service.moment)[axis].combination),
                    top ? model::Face::Top : model::Face::Bottom);
        }
    if (m.pulled)
        for (int axis : {0, 1}) {
            const auto& top = design.top[std::size_t(axis)];
            Finding f = finding(units::Kind::Count, top.number, 2, "EN 1992-1-1 9.8.1(3)");
            f.sense = checks::Sense::AtLeast;
            add(axis == 0 ? "top-bars-x" : "top-bars-y",
                axis == 0 ? "Top bars above piles in tension, along x" : "Top bars above piles in tension, along y",
                Topic::Steel, checks::judged(f), {}, {}, model::Face::Top);
        }
}

std::vector<checks::Check> Cap::checks(const CapDesign& design, const model::PartRef& part,
                                       bool working) const {
    const auto& s = design.size;
    const auto& pile = in_.set.pile;
    verify::CheckList list(part.key.empty() ? std::string() : part.key + "/");
    const std::string name = model::baseName(in_.set, base_);
    auto add = [&](std::string key, std::string title, Topic topic, Finding f, trace::Steps steps,
                   std::string combination, std::optional<model::Face> face = {}) {
        checks::Place p;
        p.spot.part = part, p.name = name, p.at = centre(s);
        list.add({key, title, topic, std::move(f), std::move(steps)}, p, std::move(combination), face);
    };
    if (design.piles.empty()) {
        Finding f = finding(units::Kind::Count, base_.piles, 0, "statics");
        f.here.push_back(design.trouble);
        f.demand = std::max(f.demand, 1.0);
        f = checks::judged(f);
        add("piles", "Arrangement of piles", Topic::Ground, f, {}, {});
        return list.take();
    }
    const BaseState state = capacityState();
    const auto forces = pileForces(design);
    const std::string clause =
        pile.ultimate ? "design capacity as given" : "capacity as given, for characteristic loads";
    {
        trace::Steps t;
        Finding f = finding(units::Kind::Force, forces.compression.value, pile.compression, clause);
        if (working && forces.compression.combination >= 0) {
            const auto i = std::size_t(forces.compression.combination);
            const Sum& sum = sums(state)[i];
            using trace::step;
            const double W = weight(s, &of(state)[i]);
            step(&t, "N", "N_c + W", {{"N_c", sum.N / 1000, "kN"}, {"W", W / 1000, "kN"}}, (sum.N + W) / 1000,
                 "kN", f.clause, "with the weight of the cap and the soil on it, less the water's uplift");
            step(&t, "R_mean", "N/n", {{"N", (sum.N + W) / 1000, "kN"}, {"n", double(design.piles.size())}},
                 (sum.N + W) / double(design.piles.size()) / 1000, "kN", f.clause);
            step(&t, "R_max", "", {}, forces.compression.value / 1000, "kN", f.clause,
                 "equal elastic piles under a rigid cap, the group off by the tolerance in x and y");
        }
        f.notes.push_back(pile.ultimate
                              ? "Capacities of piles are design values, compared with ultimate reactions."
                              : "Capacities of piles are for characteristic reactions.");
        add("pile-compression", "Largest pile compression", Topic::Ground, checks::judged(f), t,
            combination(state, forces.compression.combination));
    }
    {
        Finding f = finding(units::Kind::Force, std::max(0.0, forces.tension.value), pile.tension, clause);
        add("pile-tension", "Largest pile tension", Topic::Ground,
            forces.tension.value > 0 ? checks::judged(f)
                                     : checks::notApplicable(clause, "No pile is pulled."),
            {}, combination(state, forces.tension.combination));
    }
    if (forces.lateral.value > 1) {
        trace::Steps t;
        Finding f = finding(units::Kind::Force, forces.lateral.value, pile.lateral, clause);
        if (working) {
            const Sum& sum = sums(state)[std::size_t(forces.lateral.combination)];
            trace::step(&t, "H_pile", "sqrt(H_x^2 + H_y^2)/n",
                        {{"H_x", sum.Hx / 1000, "kN"},
                         {"H_y", sum.Hy / 1000, "kN"},
                         {"n", double(design.piles.size())}},
                        forces.lateral.value / 1000, "kN", clause, "shared evenly by the piles");
        }
        f.notes.push_back(
            "Horizontal forces are shared evenly by the piles of a cap; the ground beside the "
            "cap takes none, and what they bend the piles is not checked.");
        add("pile-lateral", "Horizontal force of a pile", Topic::Ground,
            pile.lateral > 0
                ? checks::judged(f)
                : checks::notChecked(clause, "The set says nothing of what a pile takes horizontally."),
            t, combination(state, forces.lateral.combination));
    }
    if (!s.onSite) {
        Finding f = finding(units::Kind::Length, 1, 0, "the set's outline of the site");
        f.here.push_back("The cap does not lie within the outline of the site.");
        add("site", "Within the site", Topic::Ground, checks::judged(f), {}, {});
    }
    const bool line = inLine(design.piles);
    if (line && pile.tolerance > 0) {
        Asked N;
        for (std::size_t i = 0; i < sums(BaseState::Strength).size(); ++i)
            N.larger(sums(BaseState::Strength)[i].N, int(i));
        Finding f = checks::notChecked(
            "statics", fmt::format("Tie beams must resist {:.0f} kNm across the piles ({:.0f} kN at a tolerance of {:.0f} mm): "
                                   "they are not designed here. Three or more piles need none.",
                                   N.value * pile.tolerance / 1e6, N.value / 1000, pile.tolerance));
        add("tie-beams", "Tie beams across the piles", Topic::Ground, f, {},
            combination(BaseState::Strength, N.combination));
    }
    if (forces.across.value > 1e-3 * pile.compression * pile.diameter) {
        Finding f = finding(units::Kind::Moment, forces.across.value, 0, "statics");
        f.here.push_back(
            "Piles in one line carry no moment across it: more piles, or beams that hold the cap.");
        add("across", "Moment across the piles", Topic::Ground, checks::judged(f), {},
            combination(BaseState::Strength, forces.across.combination));
    }
    const auto m = demand(design);
    double nearest = 1e300;
    for (std::size_t i = 0; i < design.piles.size(); ++i)
        for (std::size_t k = 0; k < i; ++k)
            nearest = std::min(nearest, geometry::length(design.piles[i], design.piles[k]));
    // Arrangements of the program keep it by themselves.
    if (!base_.pilesAt.empty() && design.piles.size() > 1) {
        Finding f =
            finding(units::Kind::Length, nearest, pile.spacingFactor * pile.diameter, "the set's rule");
        f.sense = checks::Sense::AtLeast;
        add("pile-spacing", "Spacing of piles", Topic::Ground, checks::judged(f), {}, {});
    }
    if (m.pulled)
        add("pile-connection", "Connection of piles in tension", Topic::Anchorage,
            checks::notChecked("the pile's own design",
                               "Piles are in tension: the anchorage of their bars in the cap is not checked."),
            {}, {});
    const auto& rules = *in_.standard;
    const double side[2] = {s.B, s.L};
    static constexpr const char* keys[2][6] = {
        {"flexure-x", "top-x", "least-x", "shear-x", "crushing-x", "anchorage-x"},
        {"flexure-y", "top-y", "least-y", "shear-y", "crushing-y", "anchorage-y"}};
    static constexpr const char* titles[2][6] = {
        {"Flexure along x", "Flexure along x, top", "Least steel along x", "One-way shear along x",
         "Crushing along x", "Anchorage along x"},
        {"Flexure along y", "Flexure along y, top", "Least steel along y", "One-way shear along y",
         "Crushing along y", "Anchorage along y"}};
    for (int axis : {0, 1}) {
        const auto a = std::size_t(axis);
        const Mat& mat = design.bottom[a];
        const Section section{side[1 - axis], s.h, design.d[a], in_.cover + 10, in_.fc, in_.fy};
        if (!mat.bar) {
            Finding f = finding(units::Kind::Moment, m.moment[axis].value, 0, rules.flexure->clause());
            f.here.push_back("No allowed bars carry it; the cap is too shallow.");
            f.demand = std::max(f.demand, 1.0);
            f = checks::judged(f);
            add(keys[axis][0], titles[axis][0], Topic::Flexure, f, {},
                combination(BaseState::Strength, m.moment[axis].combination));
            continue;
        }
        {
            trace::Steps t;
            Finding f = finding(units::Kind::Moment, m.moment[axis].value, 0, rules.flexure->clause());
            f.prefix = "M";
            f.limit = rules.flexure->resistance(section, mat.area(), 0, working ? &t : nullptr).M;
            f.notes.push_back(
                "Moments of caps are those of the piles beyond the faces of columns, on the whole width.");
            add(keys[axis][0], titles[axis][0], Topic::Flexure, checks::judged(f), t,
                combination(BaseState::Strength, m.moment[axis].combination), model::Face::Bottom);
        }
        if (m.top[axis].value > 0) {
            trace::Steps t;
            const Mat& top = design.top[a];
            Section upper = section;
            if (top.bar) upper.d = topDepth(design, axis);
            Finding f = finding(units::Kind::Moment, m.top[axis].value, 0, rules.flexure->clause());
            f.prefix = "M";
            f.limit = top.bar ? rules.flexure->resistance(upper, top.area(), 0, working ? &t : nullptr).M
                              : rules.flexure->plain(section, working ? &t : nullptr);
            if (!top.bar) f.here.push_back("Without bars at the top: the plain section carries what hogs.");
            add(keys[axis][1], titles[axis][1], Topic::Flexure, checks::judged(f), t,
                combination(BaseState::Strength, m.top[axis].combination), model::Face::Top);
        }
        {
            trace::Steps t;
            Finding f = finding(units::Kind::Area, mat.area(), 0, rules.steel->clauses(true).minimum);
            f.sense = checks::Sense::AtLeast, f.prefix = "As";
            f.limit = rules.steel->minimum(section, working ? &t : nullptr);
            add(keys[axis][2], titles[axis][2], Topic::Steel, checks::judged(f), t, {}, model::Face::Bottom);
        }
        {
            trace::Steps t;
            Finding f = finding(units::Kind::Force, m.reduced[axis].value, 0, in_.rules.oneWayClause(true));
            f.prefix = "V";
            f.limit = oneWay(design, m, axis, &f.clause, working ? &t : nullptr);
            f.notes.push_back(fmt::format("Shear of caps: of piles near the column a share counts ({}).",
                                          in_.rules.pileShareClause()));
            add(keys[axis][3], titles[axis][3], Topic::OneWayShear, checks::judged(f), t,
                combination(BaseState::Strength, m.reduced[axis].combination));
        }
        {
            trace::Steps t;
            add(keys[axis][5], titles[axis][5], Topic::Anchorage,
                anchorage(design, axis, m.moment[axis].value, working ? &t : nullptr), t,
                combination(BaseState::Strength, m.moment[axis].combination), model::Face::Bottom);
        }
        if (const double most = rules.shear->crushing(section); most > 0) {
            trace::Steps t;
            Finding f = finding(units::Kind::Force, m.shear[axis].value, 0, rules.shear->clause());
            f.prefix = "V";
            f.limit = rules.shear->crushing(section, working ? &t : nullptr);
            add(keys[axis][4], titles[axis][4], Topic::OneWayShear, checks::judged(f), t,
                combination(BaseState::Strength, m.shear[axis].combination));
        }
    }
    if (!design.bottom[0].bar || !design.bottom[1].bar) return list.take();
    if (const auto least = in_.rules.leastDepth(true); least.d > 0) {
        Finding f = finding(units::Kind::Length, std::min(design.d[0], design.d[1]), least.d, least.clause);
        f.sense = checks::Sense::AtLeast, f.prefix = "d";
        add("least-depth", "Minimum effective depth above the piles", Topic::Steel, checks::judged(f), {}, {});
    }
    faceChecks(add, design, m, working);
    {
        trace::Steps t;
        const auto p = atColumns(design, working ? &t : nullptr);
        add("punching", "Punching at the column", Topic::Punching, p.found.stress, t,
            combination(BaseState::Strength, p.combination));
        if (checks::isJudged(p.found.face))
            add("punching-face", "Punching at the column's face", Topic::Punching, p.found.face, t,
                combination(BaseState::Strength, p.combination));
    }
    {
        trace::Steps t;
        const auto p = atPiles(design, working ? &t : nullptr);
        add("punching-pile", "Punching at the piles", Topic::Punching, p.found.stress, t,
            combination(BaseState::Strength, p.combination));
    }
    {
        trace::Steps t;
        const auto at = struts(design, working ? &t : nullptr);
        add("node-column", "Node of struts below the column", Topic::Bearing, at.column, t,
            combination(BaseState::Strength, at.combination));
        add("node-pile", "Node of struts above the piles", Topic::Bearing, at.pile, t,
            combination(BaseState::Strength, at.combination));
    }
    if (const auto grid = linkGrid(in_, s.B, s.L); grid.bar)
        for (int axis : {0, 1}) {
            const Section section{side[1 - axis], s.h,    design.d[std::size_t(axis)],
                                  in_.cover + 10, in_.fc, in_.fy};
            const auto clauses = rules.shear->linkClauses();
            trace::Steps t, l;
            Finding f =
                finding(units::Kind::BarSpacing, grid.apart[axis],
                        rules.shear->linkSpacing(section, m.shear[axis].value, working ? &t : nullptr),
                        clauses.spacing);
            f.prefix = "s";
            // Links that keep a rule no longer are bars of the cage alone: the concrete carries the shear
            // then.
            f = checks::judged(f);
            if (f.outcome == checks::Outcome::Over)
                f = checks::notApplicable(clauses.spacing,
                                          "Links stand further apart than that: none of them is counted.");
            add(axis == 0 ? "links-x" : "links-y",
                axis == 0 ? "Spacing of links along x" : "Spacing of links along y", Topic::Spacing, f, t,
                {});
            Finding g =
                finding(units::Kind::SteelPerWidth, grid.area(axis),
                        rules.shear->leastLinks(section, in_.fy, working ? &l : nullptr), clauses.least);
            g.sense = checks::Sense::AtLeast, g.prefix = "asw";
            g = checks::judged(g);
            if (g.outcome == checks::Outcome::Over)
                g = checks::notApplicable(clauses.least,
                                          "Fewer links than the least: none of them is counted.");
            add(axis == 0 ? "least-links-x" : "least-links-y",
                axis == 0 ? "Least links along x" : "Least links along y", Topic::Steel, g, l, {});
        }
    starterChecks(add, s, toBars(), working);
    commonChecks(add);
    return list.take();
}

std::vector<schedule::Item> Cap::items(const CapDesign& design) const {
    std::vector<schedule::Item> all;
    for (auto& l : laid(design)) all.push_back(std::move(l.item));
    return all;
}
std::vector<Laid> Cap::laid(const CapDesign& design) const {
    auto r = reinforced(design.size, design.bottom, design.top, toBars());
    r.sides = !in_.set.sideBar.empty();
    r.links = true;
    return lay(in_, r);
}

}  // namespace talvik::bases
