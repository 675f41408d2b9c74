// The checks of a pad with their working, and its bars as they lie.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "bases/pad.h"
#include "ground/rigid_base.h"
#include "verify/check_list.h"

namespace talvik::bases {

using checks::Finding;
using checks::Topic;
using geometry::Point;
using standards::Section;

void Pad::stabilityChecks(Sink& sink, const PadSize& s, const GroundAnswer& ga) const {
    using trace::step;
    const bool working = sink.working();
    const auto& g = in_.set.ground;
    if (!ga.onSite) {
        Finding f = finding(units::Kind::Length, 1, 0, "the set's outline of the site");
        f.here.push_back("The outline of the site has no room for this base below its columns.");
        sink.add("site", "Within the site", Topic::Ground, checks::judged(f), {}, {}, {});
    }
    if (const int i = ga.sliding.combination; i >= 0) {
        trace::Steps t;
        Finding f = finding(units::Kind::Force, ga.slides, ga.holds, in_.rules.clause(BaseState::Ground));
        f.prefix = "H";
        if (working) {
            const Sum& sum = sums(BaseState::Ground)[std::size_t(i)];
            step(&t, "H", "sqrt(H_x^2 + H_y^2)", {{"H_x", sum.Hx / 1000, "kN"}, {"H_y", sum.Hy / 1000, "kN"}},
                 ga.slides / 1000, "kN", f.clause);
            holds(s, std::size_t(i), &t);
        }
        f.notes.push_back(g.passiveShare > 0
                              ? fmt::format("{:.0f} % of the passive resistance is counted against sliding, "
                                            "as specified. The soil must remain in place.",
                                            100 * g.passiveShare)
                              : "Passive resistance is neglected in sliding.");
        sink.add("sliding", "Sliding", Topic::Ground, checks::judged(f), t, {BaseState::Ground, i}, {});
    }
    const std::string stability = in_.rules.clause(BaseState::Stability);
    if (const int i = ga.overturning.combination; i >= 0) {
        trace::Steps t;
        Finding f = finding(units::Kind::Moment, ga.turns, ga.stands, stability);
        f.prefix = "M";
        if (working) {
            const auto& k = of(BaseState::Stability)[std::size_t(i)];
            const double W = downward(s, k) * s.area();
            step(&t, "W", "k*W_k - U",
                 {{"k", k.weight},
                  {"W_k", weights(s) * s.area() / 1000, "kN"},
                  {"U", waterPressure() * s.area() / 1000, "kN"}},
                 W / 1000, "kN", stability, "base and soil, less the water's uplift");
            step(&t, "M_turns", "", {}, ga.turns / 1e6, "kNm", stability, "about the edge that governs");
            step(&t, "M_holds", "", {}, ga.stands / 1e6, "kNm", stability,
                 "weights at half the side, columns by their lever");
        }
        f.notes.push_back(
            "Overturning is about the edges of the base; surcharge is not counted as stabilising.");
        sink.add("overturning", "Overturning", Topic::Ground, checks::judged(f), t, {BaseState::Stability, i},
                 {});
    }
    if (const int i = ga.uplift.combination; i >= 0) {
        trace::Steps t;
        Finding f = finding(units::Kind::Force, ga.lifts, ga.weighs, stability);
        f.prefix = "N";
        if (working) {
            const auto& k = of(BaseState::Stability)[std::size_t(i)];
            step(&t, "W", "max(k*W_k - U, 0)",
                 {{"k", k.weight},
                  {"W_k", weights(s) * s.area() / 1000, "kN"},
                  {"U", waterPressure() * s.area() / 1000, "kN"}},
                 ga.weighs / 1000, "kN", stability, "base and soil, less the water's uplift");
        }
        sink.add("uplift", "Uplift of base", Topic::Ground, checks::judged(f), t, {BaseState::Stability, i},
                 {});
    }
    const auto care = in_.rules.care();
    if (!g.layers.empty()) {
        const int i = std::max(0, ga.settlement.combination);
        trace::Steps t;
        Finding f = finding(units::Kind::Length, ga.settles, g.settlement, care.settlement);
        f.prefix = "s";
        if (working && std::size_t(i) < sums(BaseState::Sustained).size()) {
            const auto [p, settles] = settlement(s, std::size_t(i));
            step(&t, "p", "max(N/A*1000000 + w - gamma*D/1000, 0)",
                 {{"N", sums(BaseState::Sustained)[std::size_t(i)].N / 1000, "kN"},
                  {"A", s.area(), "mm²"},
                  {"w", weights(s) * 1000, "kN/m²"},
                  {"gamma", g.soil * 1e6, "kN/m³"},
                  {"D", g.depth, "mm"}},
                 p * 1000, "kN/m²", f.clause, "sustained loads, net of excavated soil");
            step(&t, "s", "", {}, settles, "mm", f.clause,
                 "elastic layers below the characteristic point of a flexible rectangle");
        }
        f.notes.push_back(
            "Settlement: elastic layers below the base, each with its own modulus; neighbouring bases, "
            "consolidation with time and differential settlement are not considered.");
        sink.add("settlement", "Settlement", Topic::Ground, checks::judged(f), t, {BaseState::Sustained, i},
                 {});
    } else if (g.by == model::GroundValues::By::Undrained) {
        sink.add("settlement", "Settlement", Topic::Ground,
                 checks::notChecked(
                     care.clay,
                     "Settlement on clay must be calculated unless the bearing resistance is three times the "
                     "service load: enter the soil layers."),
                 {}, {}, {});
    }
    if (!allowable()) {
        double most = 0;
        for (std::size_t i = 0; i < sums(BaseState::Ground).size(); ++i) {
            const auto r =
                resultant(sums(BaseState::Ground)[i], s, downward(s, of(BaseState::Ground)[i]) * s.area());
            if (r.N > 0) most = std::max({most, std::abs(r.at().x) / s.B, std::abs(r.at().y) / s.L});
        }
        if (most > care.eccentric)
            sink.add(
                "eccentric", "Large eccentricity", Topic::Ground,
                checks::notChecked(
                    care.eccentricity,
                    "The eccentricity exceeds a third of the side: a careful review of the design values "
                    "and a tolerance of 0.10 m of the base are not included."),
                {}, {}, {});
    }
}

std::vector<checks::Check> Pad::checks(const PadDesign& design, const model::PartRef& part,
                                       bool working) const {
    verify::CheckList list(part.key.empty() ? std::string() : part.key + "/");
    Sink sink = gathering(list, part, design.size, working);
    groundChecks(sink, design.size);
    bodyChecks(sink, design, serviceDemand(design.size));
    return list.take();
}

void Pad::groundChecks(Sink& sink, const PadSize& s) const {
    const auto& g = in_.set.ground;
    const bool working = sink.working();
    const auto ga = ground(s);
    // On the ground.
    {
        const bool allowable = this->allowable();
        const BaseState state = groundState();
        Finding f = allowable ? finding(units::Kind::AreaLoad, ga.largest, ga.limit, in_.rules.clause(state))
                              : finding(units::Kind::Force, ga.largest, ga.limit,
                                        in_.rules.clause(state) + ", Annex D");
        trace::Steps t;
        if (ga.pressure.value >= noAnswer) {
            f.demand = noAnswer * std::max(f.limit, 1e-3);
            if (ga.outsideIn >= 0)
                f.here.push_back(ga.outside > 0
                                     ? fmt::format("The resultant falls {:.0f} mm outside the base under {}.",
                                                   ga.outside, combination(state, ga.outsideIn))
                                     : fmt::format("No net downward load under {} (uplift).",
                                                   combination(state, ga.outsideIn)));
        } else if (working && allowable) {
            const auto& k = of(state)[std::size_t(ga.pressure.combination)];
            const Sum& sum = sums(state)[std::size_t(ga.pressure.combination)];
            const double w = weights(s);
            using trace::step;
            const double beside = soilDisplaced(s.h) / 1000;
            const Top top = this->top(s);
            if (top.level())
                step(&t, "W", "(gamma_c*h + gamma_s*t)*B*L/1000000000 - W_p",
                     {{"gamma_c", in_.density * 1e6, "kN/m³"},
                      {"h", s.h, "mm"},
                      {"gamma_s", g.soil * 1e6, "kN/m³"},
                      {"t", std::max(0.0, g.depth - s.h), "mm"},
                      {"B", s.B, "mm"},
                      {"L", s.L, "mm"},
                      {"W_p", beside, "kN"}},
                     w * s.area() / 1000, "kN", f.clause,
                     beside > 0 ? "base and soil above it, less that where the pedestals stand, whose weight "
                                  "is in N_c"
                                : "base and soil above it");
            if (!top.level())
                step(&t, "W", "gamma_c*V_c + gamma_s*V_s - W_p",
                     {{"gamma_c", in_.density * 1e6, "kN/m³"},
                      {"V_c", top.volume() / 1e9, "m³"},
                      {"gamma_s", g.soil * 1e6, "kN/m³"},
                      {"V_s", top.soil(g.depth) / 1e9, "m³"},
                      {"W_p", beside, "kN"}},
                     w * s.area() / 1000, "kN", f.clause, "base, and soil above it and its lower parts");
            const double u = waterPressure() * s.area();
            const auto r = resultant(sum, s, w * k.weight * s.area() - u);
            const double N = r.N, column = N - w * k.weight * s.area() + u;
            const char* strapped =
                strap_ ? "N_c with what the strap adds, which passes through the centre along it" : "";
            if (u > 0)
                step(&t, "N", "N_c + k*W - U",
                     {{"N_c", column / 1000, "kN"},
                      {"k", k.weight},
                      {"W", w * s.area() / 1000, "kN"},
                      {"U", u / 1000, "kN"}},
                     N / 1000, "kN", f.clause,
                     strap_ ? strapped : "U: uplift of the water on the whole base");
            else
                step(&t, "N", "N_c + k*W",
                     {{"N_c", column / 1000, "kN"}, {"k", k.weight}, {"W", w * s.area() / 1000, "kN"}},
                     N / 1000, "kN", f.clause, strapped);
            const double ax = r.alongX, ay = r.alongY;
            step(&t, "e_x", "M_x/N*1000", {{"M_x", ax / 1e6, "kNm"}, {"N", N / 1000, "kN"}}, ax / N, "mm",
                 f.clause);
            step(&t, "e_y", "M_y/N*1000", {{"M_y", ay / 1e6, "kNm"}, {"N", N / 1000, "kN"}}, ay / N, "mm",
                 f.clause);
            step(&t, "p_max", "", {}, ga.largest * 1000, "kN/m²", f.clause,
                 ga.contact < 1 - 1e-9
                     ? "plane pressure over the part in contact, exact; with surcharge where that is worse"
                     : "plane pressure over the whole base; with surcharge where that is worse");
            if (u > 0)
                step(&t, "u", "gamma_w*(D - z_w)/1000",
                     {{"gamma_w", waterWeight * 1e6, "kN/m³"},
                      {"D", g.depth, "mm"},
                      {"z_w", g.waterDepth, "mm"}},
                     u / s.area() * 1000, "kN/m²", f.clause, "pressure of the water, contained in p_max");
        }
        if (ga.contact < 1 - 1e-9 && allowable)
            f.here.push_back(fmt::format("At least {:.0f} % of the base is in contact.", 100 * ga.contact));
        for (const auto& e : ends_) {
            double most = 0;
            for (const auto& k : of(state)) most = std::max(most, e.lifts(k, in_.set.cases));
            f.here.push_back(fmt::format("The strap that ends here causes uplift on this column of up to {}.",
                                         units::text(most, units::Kind::Force, in_.basis->units)));
        }
        f.notes.push_back("Rigid base, linear pressure distribution, no tension between base and ground.");
        if (s.h > g.depth + 1)
            f.here.push_back(
                fmt::format("The base is {:.0f} mm deep and founded {:.0f} mm below ground level: its top is "
                            "{:.0f} mm above it.",
                            s.h, g.depth, s.h - g.depth));
        f = checks::judged(f);
        sink.add("pressure", allowable ? "Bearing pressure" : "Bearing resistance", Topic::Ground, f, t,
                 {state, ga.pressure.combination});
    }
    stabilityChecks(sink, s, ga);
}

// The base itself.
void Pad::bodyChecks(Sink& sink, const PadDesign& design, const Demand& service) const {
    const auto& s = design.size;
    const bool working = sink.working();
    const auto& rules = *in_.standard;
    const Top shape = this->top(s);
    const auto m = demand(s, BaseState::Strength, design.d);
    if (m.outsideIn >= 0) {
        Finding f = finding(units::Kind::Length, m.outside, 0, in_.rules.clause(BaseState::Strength));
        f.here.push_back(
            m.outside > 0
                ? fmt::format("Under {} the resultant falls {:.0f} mm outside the base: no equilibrium.",
                              combination(BaseState::Strength, m.outsideIn), m.outside)
                : fmt::format("No net downward load under {} (uplift).",
                              combination(BaseState::Strength, m.outsideIn)));
        f.demand = std::max(f.demand, 1.0);
        f = checks::judged(f);
        sink.add("resultant", "Resultant at ultimate loads", Topic::Ground, f, {},
                 {BaseState::Strength, m.outsideIn});
    }
    if (sink.enough()) return;
    for (int axis : {0, 1}) {
        const auto a = std::size_t(axis);
        const Mat& mat = design.bottom[a];
        for (bool top : {false, true}) {
            if (top && !(m.top[axis].value > 0)) continue;
            checkFace(in_, face(design, shape, m, service, {axis, top}), sink);
        }
        if (sink.enough()) return;
        if (!mat.bar) continue;
        const Section section = across(design, shape, axis, 0);
        const Under strength{BaseState::Strength, m.moment[axis].combination};
        for (bool shear : {false, true})
            if (const auto low = lowest(design, shape, m, axis, shear)) {
                const auto& place = m.lower[axis][low->place];
                trace::Steps t;
                Finding f =
                    shear ? finding(units::Kind::Force, place.shear.value, 0, in_.rules.oneWayClause(false))
                          : finding(units::Kind::Moment, place.moment.value, 0, rules.flexure->clause());
                f.prefix = shear ? "V" : "M";
                auto* steps = working ? &t : nullptr;
                const double away = shear ? place.cut : place.from;
                trace::step(steps, "a", "", {}, away, "mm", f.clause,
                            "beyond the face of the column, where it is worst");
                f.limit =
                    shear ? in_.rules.oneWay(sheared(design, shape, axis, away), mat.area(), false, steps)
                          : rules.flexure->resistance(across(design, shape, axis, away), mat.area(), 0, steps)
                                .M;
                f.notes.push_back(
                    "Sloped or stepped footings are checked at the step (shear with the depth beyond it), or "
                    "at quarter points of the slope no nearer to the column than the depth there; "
                    "compression width and shear area are those at the section.");
                const char* where = shape.stepped() ? "at the step" : "on the slope";
                sink.add(fmt::format("{}-{}-{}", shear ? "shear" : "flexure", axis == 0 ? 'x' : 'y',
                                     shape.stepped() ? "step" : "slope"),
                         fmt::format("{} along {} {}", shear ? "One-way shear" : "Flexure",
                                     axis == 0 ? 'x' : 'y', where),
                         shear ? Topic::OneWayShear : Topic::Flexure, checks::judged(f), std::move(t),
                         {BaseState::Strength, (shear ? place.shear : place.moment).combination},
                         model::Face::Bottom);
            }
        trace::Steps band;
        if (const double more = evenly(s, axis, working ? &band : nullptr); more > 1 + 1e-9) {
            Finding f = finding(units::Kind::Area, mat.area(), 0, in_.rules.evenSpreadClause());
            f.sense = checks::Sense::AtLeast, f.prefix = "As";
            const double need = rules.flexure->required(section, m.moment[axis].value).As;
            f.limit = more * need;
            if (working)
                trace::step(&band, "A_s,even", "f*A_s", {{"f", more}, {"A_s", need, "mm²"}}, more * need,
                            "mm²", f.clause);
            f.notes.push_back(
                "Short-direction steel is spread uniformly at the density required in the band under the "
                "column.");
            sink.add("band", "Band", {axis, false}, Topic::Steel, checks::judged(f), std::move(band),
                     strength);
        }
        {
            trace::Steps t;
            Finding f = finding(units::Kind::Force, m.shear[axis].value, 0, in_.rules.oneWayClause(false));
            f.prefix = "V";
            f.limit = in_.rules.oneWay(sheared(design, shape, axis, design.d[a]), mat.area(), false,
                                       working ? &t : nullptr);
            if (m.shear[axis].combination < 0)
                f = checks::notApplicable(f.clause,
                                          strap_ && axis == strap_->axis
                                              ? "Along the strap the strap acts."
                                              : "The section at d from the column lies outside the base.");
            else
                f.notes.push_back("One-way shear of bases is that at d from the faces of columns.");
            sink.add(axis == 0 ? "shear-x" : "shear-y",
                     axis == 0 ? "One-way shear along x" : "One-way shear along y", Topic::OneWayShear,
                     f.outcome == checks::Outcome::NotApplicable ? f : checks::judged(f), std::move(t),
                     {BaseState::Strength, m.shear[axis].combination});
        }
        trace::Steps t;
        auto held = in_.rules.anchorage(anchored(design, m, axis, mat.hooked), sink.steps(t));
        sink.add("anchorage", "Anchorage", {axis, false}, Topic::Anchorage, std::move(held), std::move(t),
                 strength);
        if (sink.enough()) return;
    }
    trace::Steps pt;
    if (const auto p = punched(design, working ? &pt : nullptr); p.combination >= 0) {
        sink.add("punching", "Punching", Topic::Punching, p.found.stress, pt,
                 {BaseState::Strength, p.combination});
        if (p.found.face.outcome != checks::Outcome::NotApplicable)
            sink.add("punching-face", "Punching at the column", Topic::Punching, p.found.face, pt,
                     {BaseState::Strength, p.combination});
    }
    if (sink.gathers()) notLookedAt(sink, design);
    trace::Steps ft;
    if (const auto [foot, in] = columnFoot(s, false, working ? &ft : nullptr); in >= 0) {
        // A foot that no depth helps is a matter of the column and the concrete.
        const bool helpless = foot.outcome == checks::Outcome::Over &&
                              columnFoot(s, true, nullptr).first.outcome == checks::Outcome::Over;
        sink.addOrAside(helpless, "foot", "Bearing at column base (partially loaded area)", Topic::Bearing,
                        foot, std::move(ft), Under{BaseState::Strength, in});
    }
    if (strap_) {
        sink.add("punching", "Punching", Topic::Punching,
                 checks::notApplicable(in_.rules.clause(BaseState::Strength),
                                       "The strap carries the column over the whole length of the base."),
                 {}, {});
        if (design.strap.any()) strapBeam(s).checks(design.strap, sink);
    }
    const auto least = in_.rules.leastDepth(false);
    if (!shape.level()) {
        Finding f = finding(units::Kind::Length, shape.edge(), leastEdge(),
                            least.d > 0 ? least.clause : "room for the bars");
        f.sense = checks::Sense::AtLeast, f.prefix = "h";
        sink.add("edge", "Edge thickness", Topic::Steel, checks::judged(f), {}, {});
    }
    if (least.d > 0) {
        Finding f = finding(units::Kind::Length, std::min(design.d[0], design.d[1]), least.d, least.clause);
        f.sense = checks::Sense::AtLeast, f.prefix = "d";
        sink.add("least-depth", "Minimum effective depth", Topic::Steel, checks::judged(f), {}, {});
    }
    starterChecks(sink, s, in_.cover);
    commonChecks(sink);
}

// What punching leaves out.
void Pad::notLookedAt(Sink& sink, const PadDesign& design) const {
    bool pulled = false, near = false;
    for (const auto& col : columns_) {
        for (std::size_t i = 0; i < of(BaseState::Strength).size(); ++i)
            pulled |= forces(col, BaseState::Strength, i).N < -1e3;
        for (const auto& other : columns_)
            near |= &other != &col &&
                    std::max(std::abs(col.at.x - other.at.x) - (col.side(0) + other.side(0)) / 2,
                             std::abs(col.at.y - other.at.y) - (col.side(1) + other.side(1)) / 2) <
                        2 * (design.d[0] + design.d[1]) / 2;
    }
    if (pulled)
        sink.add("punching-uplift", "Punching by a column in tension", Topic::Punching,
                 checks::notChecked(in_.rules.clause(BaseState::Strength),
                                    "A column in tension: upward punching is not checked."),
                 {}, {});
    if (near)
        sink.add("punching-together", "Punching of columns together", Topic::Punching,
                 checks::notChecked(
                     in_.rules.clause(BaseState::Strength),
                     "Columns are closer than twice the effective depth: a common control perimeter is not "
                     "checked."),
                 {}, {});
}

// The column that presses hardest on its foot; `deepest`: with as much spread as any depth gives.
std::pair<checks::Finding, int> Pad::columnFoot(const PadSize& s, bool deepest, trace::Steps* t) const {
    std::pair<checks::Finding, int> worst{{}, -1};
    double most = 0;
    for (const auto& col : columns_) {
        const double cx = col.column->width, cy = col.column->depth;
        const double x = std::abs(col.at.x - s.off.x), y = std::abs(col.at.y - s.off.y);
        // On a pedestal its top is what the column presses on; the base below it is pressed less.
        const auto& p = base_.pedestal;
        const double over = p.any() ? p.height : deepest ? 1e9 : s.h;
        // Where the top falls away the load spreads no further than the shoulder.
        const Top top = this->top(s);
        const auto& u = top.upper();
        const bool own = p.any() || !top.level();
        const double wx = p.any() ? col.side(0) : u[1] - u[0], wy = p.any() ? col.side(1) : u[3] - u[2];
        const double spread =
            std::max(1.0, std::min({3.0, (own ? wx : s.B - 2 * x) / cx, (own ? wy : s.L - 2 * y) / cy,
                                    1 + in_.rules.footSpread() * over / std::max(cx, cy)}));
        Asked press;
        for (std::size_t i = 0; i < of(BaseState::Strength).size(); ++i)
            press.larger(combined(col.actions, of(BaseState::Strength)[i].factors).N, int(i));
        const auto [N, in] = press;
        if (in < 0) continue;
        trace::Steps steps;
        auto f = in_.rules.columnFoot(N, cx * cy, cx * cy * spread * spread, in_.fc,
                                      in_.basis->column.strength, t ? &steps : nullptr);
        if (const double ratio = checks::ratio(f); ratio > most) {
            most = ratio, worst.first = f, worst.second = in;
            if (t) *t = std::move(steps);
        }
    }
    return worst;
}

std::vector<schedule::Item> Pad::items(const PadDesign& design) const {
    auto r = bars(design);
    r.lines = false;
    return bases::items(in_, r);
}
model::Amounts Pad::amounts(const PadDesign& design) const {
    const auto& s = design.size;
    const Top top = this->top(s);
    double solid = top.volume(), forms = top.formwork();
    if (const auto& t = design.strap; t.any()) {
        // Above the pad, and from its edge to the far column.
        const double on = s.side(t.line.axis),
                     off = std::max(0.0, t.line.length - t.line.farSide / 2 - t.from - on);
        solid += t.width * ((t.depth - s.h) * on + t.depth * off);
        forms += 2 * ((t.depth - s.h) * on + t.depth * off);
    }
    return standingAmounts(s, solid, forms);
}
Reinforced Pad::bars(const PadDesign& design) const {
    auto r = reinforced(design.size, design.bottom, design.top, in_.cover);
    if (const Top top = this->top(design.size); !top.level()) r.edge = top.edge();
    r.strap = design.strap;
    if (strap_) r.strapAt = {columns_.front().column->x, columns_.front().column->y};
    return r;
}
std::vector<Laid> Pad::laid(const PadDesign& design) const {
    return lay(in_, bars(design));
}

std::optional<Pad::Shown> Pad::shown(const PadDesign& design) const {
    const auto& s = design.size;
    const auto ga = ground(s);
    const BaseState state = groundState();
    const int i = ga.pressure.combination;
    if (i < 0) return {};
    const Sum& sum = sums(state)[std::size_t(i)];
    const auto& k = of(state)[std::size_t(i)];
    auto pressed = [&](double q) { return soilPressure(sum, s, k, q); };
    // With the surcharge where that is worse.
    auto p = pressed(0);
    if (const auto more = pressed(k.surcharge * in_.set.ground.surcharge);
        more.good() && (!p.good() || more.largest > p.largest))
        p = more;
    if (!p.good()) return {};
    Shown out;
    const Point corners[4] = {
        {-s.B / 2, -s.L / 2}, {s.B / 2, -s.L / 2}, {s.B / 2, s.L / 2}, {-s.B / 2, s.L / 2}};
    for (int c = 0; c < 4; ++c) out.corners[c] = p.at(corners[c]) + waterPressure();
    out.combination = combination(state, i);
    return out;
}

}  // namespace talvik::bases
