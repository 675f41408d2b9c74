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
            if (std::abs((p.x - piles[0].x) * (q.y - piles[0].y) - (p.y - piles[0].y) * (q.x - piles[0].x)) >
                1)
                return false;
    return true;
}

}  // namespace

std::vector<checks::Check> Cap::checks(const CapDesign& design, const model::PartRef& part,
                                       bool working) const {
    verify::CheckList list(part.key.empty() ? std::string() : part.key + "/");
    Sink sink = gathering(list, part, design.size, working);
    pileChecks(sink, design);
    if (!design.piles.empty()) bodyChecks(sink, design);
    return list.take();
}

void Cap::pileChecks(Sink& sink, const CapDesign& design) const {
    const auto& s = design.size;
    const auto& pile = in_.set.pile;
    const bool working = sink.working();
    if (design.piles.empty()) {
        Finding f = finding(units::Kind::Count, base_.piles, 0, "statics");
        f.here.push_back(design.trouble);
        f.demand = std::max(f.demand, 1.0);
        f = checks::judged(f);
        sink.add("piles", "Arrangement of piles", Topic::Ground, f, {}, {});
        return;
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
        sink.add("pile-compression", "Pile compression", Topic::Ground, checks::judged(f), t,
                 {state, forces.compression.combination});
    }
    {
        Finding f = finding(units::Kind::Force, std::max(0.0, forces.tension.value), pile.tension, clause);
        sink.add("pile-tension", "Pile tension", Topic::Ground,
                 forces.tension.value > 0 ? checks::judged(f)
                                          : checks::notApplicable(clause, "No pile in tension."),
                 {}, {state, forces.tension.combination});
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
            "Horizontal forces are shared evenly by the piles of a cap; soil beside the cap is neglected, "
            "and bending of the piles is not checked.");
        sink.add("pile-lateral", "Horizontal pile force", Topic::Ground,
                 pile.lateral > 0 ? checks::judged(f)
                                  : checks::notChecked(clause, "No lateral pile capacity is given."),
                 t, {state, forces.lateral.combination});
    }
    if (!s.onSite) {
        Finding f = finding(units::Kind::Length, 1, 0, "the set's outline of the site");
        f.here.push_back("The cap extends beyond the outline of the site.");
        sink.add("site", "Within the site", Topic::Ground, checks::judged(f), {}, {});
    }
    const bool line = inLine(design.piles);
    if (line && pile.tolerance > 0) {
        Asked N;
        for (std::size_t i = 0; i < sums(BaseState::Strength).size(); ++i)
            N.larger(sums(BaseState::Strength)[i].N, int(i));
        Finding f = checks::notChecked(
            "statics",
            fmt::format(
                "Tie beams must resist {:.0f} kNm across the piles ({:.0f} kN at a tolerance of {:.0f} mm): "
                "they are not designed here. Three or more piles need none.",
                N.value * pile.tolerance / 1e6, N.value / 1000, pile.tolerance));
        sink.add("tie-beams", "Tie beams across the piles", Topic::Ground, f, {},
                 {BaseState::Strength, N.combination});
    }
    if (forces.across.value > 1e-3 * pile.compression * pile.diameter) {
        Finding f = finding(units::Kind::Moment, forces.across.value, 0, "statics");
        f.here.push_back(
            "A single row of piles cannot resist moment across the row: add piles or tie beams.");
        sink.add("across", "Moment across the piles", Topic::Ground, checks::judged(f), {},
                 {BaseState::Strength, forces.across.combination});
    }
    double nearest = 1e300;
    for (std::size_t i = 0; i < design.piles.size(); ++i)
        for (std::size_t k = 0; k < i; ++k)
            nearest = std::min(nearest, geometry::length(design.piles[i], design.piles[k]));
    // Arrangements of the program keep it by themselves.
    if (!base_.pilesAt.empty() && design.piles.size() > 1) {
        Finding f =
            finding(units::Kind::Length, nearest, pile.spacingFactor * pile.diameter, "the set's rule");
        f.sense = checks::Sense::AtLeast;
        sink.add("pile-spacing", "Spacing of piles", Topic::Ground, checks::judged(f), {}, {});
    }
    if (!base_.pilesAt.empty() || base_.B > 0 || base_.L > 0) {
        const auto ring = s.ring();
        double least = 1e300;  // from the axis of a pile to the edge of the cap
        for (Point p : design.piles)
            least = std::min(least, geometry::contains(ring, p) ? geometry::distanceToEdge(ring, p) : 0);
        Finding f = finding(units::Kind::Length, least, pile.diameter / 2 + pile.edge, "the set's rule");
        f.sense = checks::Sense::AtLeast;
        f.notes.push_back(
            "From the axis of the pile: half of its diameter and the edge distance of the set.");
        if (least < pile.diameter / 2) f.here.push_back("A pile stands partly or wholly beyond the cap.");
        sink.add("pile-edge", "Edge distance of piles", Topic::Ground, checks::judged(f), {}, {});
    }
}

void Cap::tieCheck(Sink& sink, const CapDesign& design, const Demand& m, int axis) const {
    const Mat& mat = design.bottom[std::size_t(axis)];
    if (mat.bands && axis == 1) return;
    trace::Steps t;
    Finding f = finding(units::Kind::Force, m.tie[axis].value, 0, in_.rules.tieClause());
    f.prefix = "T";
    const double steel = mat.bands ? mat.bar->area * mat.number : mat.area(), stress = in_.rules.tie(in_.fy);
    f.limit = steel * stress;
    if (sink.working() && m.tie[axis].combination >= 0) {
        using trace::step;
        const auto R = upward(design, std::size_t(m.tie[axis].combination));
        const Arm a = arm(design, R);
        const double d = (design.d[0] + design.d[1]) / 2;
        step(&t, "z", "d - y_node/2", {{"d", d, "mm"}, {"y_node", a.node, "mm"}}, a.z, "mm",
             in_.rules.nodeClause(), "piles as drawn");
        const double T = a.z <= 0 ? 0 : mat.bands ? bandForce(design, R, a.z) : a.moment[axis] / a.z;
        step(&t, "T_drawn", "", {}, T / 1000, "kN", f.clause,
             mat.bands ? "largest force in a band: the horizontal force of a strut, R a/z, shared by the two "
                         "bands over its pile"
                       : "sum of R a/z of the piles on one side, a from the quarter of the column's side");
        step(&t, "T", "", {}, f.demand / 1000, "kN", f.clause, "with the tolerance of the piles");
        step(&t, "T_Rd", "A_s*f/1000", {{"A_s", steel, "mm²"}, {"f", stress, "MPa"}}, f.limit / 1000, "kN",
             f.clause);
    }
    f.notes.push_back("Struts of caps start at the quarters of the column's sides.");
    const Under under{BaseState::Strength, m.tie[axis].combination};
    if (mat.bands)
        sink.add("tie", "Tie along the lines of piles", Topic::Flexure, checks::judged(f), std::move(t),
                 under);
    else
        sink.add("tie", "Tie of the truss", {axis, false}, Topic::Flexure, checks::judged(f), std::move(t),
                 under);
}

void Cap::bodyChecks(Sink& sink, const CapDesign& design) const {
    const auto& s = design.size;
    const bool working = sink.working();
    const auto m = demand(design), service = demand(design, crackState());
    if (m.pulled)
        sink.add("pile-connection", "Connection of piles in tension", Topic::Anchorage,
                 checks::notChecked(
                     "the pile's own design",
                     "Piles are in tension: the anchorage of their bars in the cap is not checked."),
                 {}, {});
    const auto& rules = *in_.standard;
    for (int axis : {0, 1}) {
        const Mat& mat = design.bottom[std::size_t(axis)];
        const Section section = across(design, axis);
        for (bool top : {false, true}) checkFace(in_, face(design, m, service, {axis, top}), sink);
        if (sink.enough()) return;
        if (!mat.bar) continue;
        if (trussed(design)) tieCheck(sink, design, m, axis);
        {
            trace::Steps t;
            Finding f = finding(units::Kind::Force, m.reduced[axis].value, 0, in_.rules.oneWayClause(true));
            f.prefix = "V";
            f.limit = oneWay(design, m, axis, &f.clause, working ? &t : nullptr);
            f.notes.push_back(fmt::format("Piles near the column face count with a reduced force ({}).",
                                          in_.rules.pileShareClause()));
            sink.add(axis == 0 ? "shear-x" : "shear-y",
                     axis == 0 ? "One-way shear along x" : "One-way shear along y", Topic::OneWayShear,
                     checks::judged(f), std::move(t), {BaseState::Strength, m.reduced[axis].combination});
        }
        {
            trace::Steps t;
            auto held = anchorage(design, axis, m, sink.steps(t));
            sink.add("anchorage", "Anchorage", {axis, false}, Topic::Anchorage, std::move(held), std::move(t),
                     {BaseState::Strength, m.moment[axis].combination});
        }
        if (const double most = rules.shear->crushing(section); most > 0) {
            trace::Steps t;
            Finding f = finding(units::Kind::Force, m.shear[axis].value, 0, rules.shear->clause());
            f.prefix = "V";
            f.limit = rules.shear->crushing(section, working ? &t : nullptr);
            sink.add(axis == 0 ? "crushing-x" : "crushing-y",
                     axis == 0 ? "Crushing along x" : "Crushing along y", Topic::OneWayShear,
                     checks::judged(f), std::move(t), {BaseState::Strength, m.shear[axis].combination});
        }
        if (sink.enough()) return;
    }
    if (!design.bottom[0].bar || !design.bottom[1].bar) return;
    if (const auto least = in_.rules.leastDepth(true); least.d > 0) {
        Finding f = finding(units::Kind::Length, std::min(design.d[0], design.d[1]), least.d, least.clause);
        f.sense = checks::Sense::AtLeast, f.prefix = "d";
        sink.add("least-depth", "Minimum effective depth above the piles", Topic::Steel, checks::judged(f),
                 {}, {});
    }
    if (const auto least = in_.rules.topBars(); m.pulled && least.number > 0)
        for (int axis : {0, 1}) {
            Finding f =
                finding(units::Kind::Count, design.top[std::size_t(axis)].number, least.number, least.clause);
            f.sense = checks::Sense::AtLeast;
            sink.add(axis == 0 ? "top-bars-x" : "top-bars-y",
                     axis == 0 ? "Top bars above piles in tension, along x"
                               : "Top bars above piles in tension, along y",
                     Topic::Steel, checks::judged(f), {}, {}, model::Face::Top);
        }
    if (sink.enough()) return;
    {
        trace::Steps t;
        const auto p = atColumns(design, working ? &t : nullptr);
        sink.add("punching", "Punching at the column", Topic::Punching, p.found.stress, t,
                 {BaseState::Strength, p.combination});
        if (checks::isJudged(p.found.face))
            sink.add("punching-face", "Punching at the column's face", Topic::Punching, p.found.face, t,
                     {BaseState::Strength, p.combination});
    }
    {
        trace::Steps t;
        const auto p = atPiles(design, working ? &t : nullptr);
        sink.add("punching-pile", "Punching at the piles", Topic::Punching, p.found.stress, t,
                 {BaseState::Strength, p.combination});
    }
    {
        trace::Steps t;
        const auto at = struts(design, working ? &t : nullptr);
        sink.add("node-column", "Strut-and-tie node at column", Topic::Bearing, at.column, t,
                 {BaseState::Strength, at.combination});
        sink.add("node-pile", "Strut-and-tie node at pile", Topic::Bearing, at.pile, t,
                 {BaseState::Strength, at.combination});
    }
    if (const auto grid = linkGrid(in_, s.B, s.L); grid.bar)
        for (int axis : {0, 1}) {
            const Section section = across(design, axis);
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
                f = checks::notApplicable(
                    clauses.spacing, "Link spacing exceeds the limit: links ignored in shear resistance.");
            sink.add(axis == 0 ? "links-x" : "links-y",
                     axis == 0 ? "Spacing of links along x" : "Spacing of links along y", Topic::Spacing, f,
                     t, {});
            Finding g =
                finding(units::Kind::SteelPerWidth, grid.area(axis),
                        rules.shear->leastLinks(section, in_.fy, working ? &l : nullptr), clauses.least);
            g.sense = checks::Sense::AtLeast, g.prefix = "asw";
            g = checks::judged(g);
            if (g.outcome == checks::Outcome::Over)
                g = checks::notApplicable(clauses.least,
                                          "Less than minimum links: links ignored in shear resistance.");
            sink.add(axis == 0 ? "least-links-x" : "least-links-y",
                     axis == 0 ? "Minimum links along x" : "Minimum links along y", Topic::Steel, g, l, {});
        }
    starterChecks(sink, s, toBars());
    commonChecks(sink);
}

std::vector<schedule::Item> Cap::items(const CapDesign& design) const {
    auto r = bars(design);
    r.lines = false;
    return bases::items(in_, r);
}
model::Amounts Cap::amounts(const CapDesign& design) const {
    const auto& s = design.size;
    auto all = standingAmounts(s, s.area() * s.h, s.perimeter() * s.h);
    all.pileLength = double(design.piles.size()) * in_.set.pile.length / 1000;
    return all;
}
Reinforced Cap::bars(const CapDesign& design) const {
    auto r = reinforced(design.size, design.bottom, design.top, toBars());
    r.sides = !in_.set.sideBar.empty();
    r.links = true;
    r.piles = design.piles;
    return r;
}
std::vector<Laid> Cap::laid(const CapDesign& design) const {
    return lay(in_, bars(design));
}

}  // namespace talvik::bases
