#include "bases/pad.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include "ground/bearing_resistance.h"
#include "ground/rigid_base.h"
#include "ground/settlement.h"
#include "schedule/cutting.h"
#include "verify/check_list.h"

namespace talvik::bases {
namespace {

using checks::Finding;
using checks::Topic;
using geometry::Point;
using standards::Section;

constexpr double largestPlan = 30000;  // mm: beyond that there is no base
constexpr double none = 99;

}  // namespace

double GroundAnswer::worst() const {
    return std::max({pressure.value, sliding.value, overturning.value, uplift.value, settlement.value,
                     onSite ? 0 : none});
}

Pad::Pad(const Context& in, const model::Base& base, std::vector<StrapEnd> ends)
    : Standing(in, base, std::move(ends)) {
    if (columns_.empty()) return;
    if (const auto* far = base.strap.any() && columns_.size() == 1 ? in.column(base.strap.to) : nullptr) {
        const auto line = strapLine(*columns_.front().column, *far);
        strapTrouble_ = line.trouble;
        if (strapTrouble_.empty()) strap_ = line;
        strapWidth_ = base.strap.width > 0
                          ? base.strap.width
                          : units::roundUp(std::max(300.0, columns_.front().side(1 - line.axis)), 50);
    }
    double x0 = 1e300, x1 = -1e300, y0 = 1e300, y1 = -1e300;
    for (const auto& c : columns_) {
        x0 = std::min(x0, c.at.x), x1 = std::max(x1, c.at.x), y0 = std::min(y0, c.at.y),
        y1 = std::max(y1, c.at.y);
    }
    spanX_ = x1 - x0, spanY_ = y1 - y0;
    ratio_ = base.ratio;
    if (base.offPinned) wish_ = {base.offX, base.offY};
    if (base.offPinned || columns_.size() < 2) return;
    // In the middle of where the resultants of all service combinations fall.
    Point low{1e300, 1e300}, high{-1e300, -1e300};
    for (const auto& sum : sums(BaseState::Service)) {
        if (!(sum.N > 0)) continue;
        const Point e{sum.alongX / sum.N, sum.alongY / sum.N};
        low = {std::min(low.x, e.x), std::min(low.y, e.y)}, high = {std::max(high.x, e.x), std::max(high.y, e.y)};
    }
    if (low.x < 1e299)
        wish_ = {25 * std::round((low.x + high.x) / 50), 25 * std::round((low.y + high.y) / 50)};
}

double Pad::leastSide(int axis, double off) const {
    double least = 0;
    for (const auto& c : columns_)
        least = std::max(least, 2 * (std::abs((axis == 0 ? c.at.x : c.at.y) - off) + c.side(axis) / 2));
    return least;
}
BaseState Pad::crackState() const {
    return in_.standard->cracks->state() == actions::LimitState::QuasiPermanent ? BaseState::Sustained
                                                                                : BaseState::Service;
}
double Pad::topDepth(const PadDesign& design, int axis) const {
    const auto& top = design.top;
    return design.size.h - in_.cover - (axis == 1 && top[0].bar ? top[0].bar->diameter : 0) -
           (top[std::size_t(axis)].bar ? top[std::size_t(axis)].bar->diameter : 16) / 2;
}
std::optional<checks::Finding> Pad::cracks(const PadDesign& design, const Demand& service, int axis, bool top,
                                           trace::Steps* t) const {
    const auto a = std::size_t(axis);
    const Mat& mat = top ? design.top[a] : design.bottom[a];
    const double M = top ? service.top[axis].value : service.moment[axis].value;
    if (!mat.bar || !(M > 0)) return {};
    const auto& outer = top ? design.top[0] : design.bottom[0];
    const double cover = in_.cover + (axis == 1 && outer.bar ? outer.bar->diameter : 0);
    Section section = across(design, this->top(design.size), axis, 0);
    section.d = design.size.h - cover - mat.bar->diameter / 2;
    return in_.standard->cracks->check(
        {section, M, mat.area(), mat.bar->diameter, mat.spacing, cover, in_.basis->creep,
         top ? in_.basis->crackLimitTop : in_.basis->crackLimitBottom},
        t);
}

bool Pad::allowable() const {
    using By = model::GroundValues::By;
    return in_.set.ground.by == By::Gross || in_.set.ground.by == By::Net;
}
double Pad::weights(const PadSize& s, const standards::BaseCombination* k) const {
    double concrete = in_.density * s.h,
           soil = in_.set.ground.soil * std::max(0.0, in_.set.ground.depth - s.h);
    if (const Top top = this->top(s); !top.level())
        concrete = in_.density * top.volume() / s.area(),
        soil = in_.set.ground.soil * top.soil(in_.set.ground.depth) / s.area();
    soil -= soilDisplaced(s.h) / s.area();
    return k ? k->concrete * concrete + k->weight * soil : concrete + soil;
}
ground::Pressure Pad::soilPressure(const Sum& sum, const PadSize& s, const standards::BaseCombination& k,
                                   double more) const {
    return ground::rectanglePressure(s.B, s.L, resultant(sum, s, (downward(s, k) + more) * s.area()));
}
double Pad::waterPressure() const {
    const auto& g = in_.set.ground;
    return g.water ? waterWeight * std::max(0.0, g.depth - g.waterDepth) : 0;
}
std::pair<double, double> Pad::settlement(const PadSize& s, std::size_t i) const {
    const auto& g = in_.set.ground;
    const Sum& sum = sums(BaseState::Sustained)[i];
    const double p = std::max(0.0, (sum.N + strapAdds(sum, s)) / s.area() + weights(s) - g.soil * g.depth);
    std::vector<ground::SoilLayer> layers;
    for (const auto& l : g.layers) layers.push_back({l.modulus, l.poisson, l.thickness});
    return {p, ground::settlement(p, s.B, s.L, layers).characteristic};
}

double Pad::holds(const PadSize& s, std::size_t i, trace::Steps* t) const {
    using trace::step;
    const auto& g = in_.set.ground;
    const auto& k = of(BaseState::Ground)[i];
    const Sum& sum = sums(BaseState::Ground)[i];
    const double W = downward(s, k) * s.area();
    const std::string clause = in_.rules.clause(BaseState::Ground);
    const auto r = resultant(sum, s, W);
    step(t, "V", "N_c + W", {{"N_c", (r.N - W) / 1000, "kN"}, {"W", W / 1000, "kN"}}, r.N / 1000, "kN",
         clause,
         strap_ ? "with what the strap adds, base and soil, less the water's uplift"
                : "with base and soil, less the water's uplift");
    if (!(r.N > 0)) return 0;
    const Point e = r.at();
    const double area = ground::effectiveArea(s.B, s.L, e.x, e.y).area();
    double R = 0;
    if (g.by == model::GroundValues::By::Undrained) {
        R = std::min(area * g.undrained / k.undrained, 0.4 * r.N);
        step(t, "R", "min(A*c_u/(1000*gamma_cu), 0.4*V)/gamma_R",
             {{"A", area, "mm²"},
              {"c_u", g.undrained, "MPa"},
              {"gamma_cu", k.undrained},
              {"V", r.N / 1000, "kN"},
              {"gamma_R", k.sliding}},
             R / k.sliding / 1000, "kN", clause, "on the effective area");
    } else {
        R = r.N * std::tan(g.baseFriction * std::numbers::pi / 180) / k.friction +
            area * g.adhesion / k.cohesion;
        step(t, "R", "(V*f/gamma_phi + A*a/(1000*gamma_c))/gamma_R",
             {{"V", r.N / 1000, "kN"},
              {"f", std::tan(g.baseFriction * std::numbers::pi / 180)},
              {"gamma_phi", k.friction},
              {"A", area, "mm²"},
              {"a", g.adhesion, "MPa"},
              {"gamma_c", k.cohesion},
              {"gamma_R", k.sliding}},
             R / k.sliding / 1000, "kN", clause, "f: tangent of the angle at the base");
    }
    R /= k.sliding;
    if (g.passiveShare <= 0) return R;
    const double H = std::hypot(sum.Hx, sum.Hy);
    if (!(H > 0)) return R;
    // Effective stress beside the base between its top, or the ground, and its underside.
    const double top = std::max(0.0, g.depth - this->top(s).edge()), zw = g.water ? g.waterDepth : 1e12;
    auto upTo = [&](double z) {
        return g.soil * z * z / 2 - waterWeight * std::pow(std::max(0.0, z - zw), 2) / 2;
    };
    const double stress = std::max(0.0, upTo(g.depth) - upTo(top)),
                 phi = std::atan(std::tan(g.friction * std::numbers::pi / 180) / k.friction),
                 K = std::pow(std::tan(std::numbers::pi / 4 + phi / 2), 2);
    // The face that is pushed: along H no more than either side gives.
    const double across = std::min(std::abs(sum.Hx) > 1e-9 * H ? s.L * H / std::abs(sum.Hx) : 1e300,
                                   std::abs(sum.Hy) > 1e-9 * H ? s.B * H / std::abs(sum.Hy) : 1e300);
    const double P = g.passiveShare * K * stress * across / k.passive;
    step(t, "R_p", "s*K_p*E*b/(1000*gamma_Re)",
         {{"s", g.passiveShare},
          {"K_p", K},
          {"E", stress, "N/mm"},
          {"b", across, "mm"},
          {"gamma_Re", k.passive}},
         P / 1000, "kN", clause, "the chosen share of the passive pressure beside the base");
    return R + P;
}

std::pair<double, double> Pad::turning(const PadSize& s, std::size_t i, int axis, double sign) const {
    if (strap_ && axis == strap_->axis) return {0, 1};  // the strap holds it
    const auto& k = of(BaseState::Stability)[i];
    const double W = downward(s, k) * s.area();
    double turns = 0, stands = std::max(0.0, W) * s.side(axis) / 2;
    for (const auto& c : columns_) {
        Forces f = forces(c, k);
        f.N += strapAdds(sums(BaseState::Stability)[i], s);
        const double arm = s.side(axis) / 2 - sign * c.place(axis, s);
        const double m = sign * f.along(axis, strapDepth(s));
        (f.N * arm > 0 ? stands : turns) += std::abs(f.N * arm);
        if (m > 0) turns += m;
    }
    return {turns, stands};
}

GroundAnswer Pad::ground(const PadSize& s) const {
    GroundAnswer out;
    out.onSite = s.onSite;
    if (s.onSite && in_.set.site.size() > 2)
        for (const auto& c : columns_)
            for (int axis : {0, 1})
                out.onSite =
                    out.onSite && std::abs(c.place(axis, s)) + c.side(axis) / 2 <= s.side(axis) / 2 + 1;
    const auto& g = in_.set.ground;
    const double A = s.area(), u = waterPressure();
    using By = model::GroundValues::By;
    const bool allowable = this->allowable();
    if (allowable) {
        const double limit = g.allowable + (g.by == By::Net ? g.depth * g.soil : 0);
        out.limit = limit;
        const auto& all = sums(BaseState::Service);
        for (std::size_t i = 0; i < all.size(); ++i) {
            const auto& k = of(BaseState::Service)[i];
            for (double q : {0.0, k.surcharge * g.surcharge}) {
                // The pressure on the ground is that of soil and water together.
                auto p = soilPressure(all[i], s, k, q);
                p.largest += u;
                if (!p.good()) {
                    out.pressure.larger(none, int(i));
                    if (out.outsideIn < 0 || p.outside > out.outside)
                        out.outside = p.outside, out.outsideIn = int(i);
                } else {
                    if (p.largest / limit > out.pressure.value) out.largest = p.largest;
                    out.pressure.larger(p.largest / limit, int(i));
                    out.contact = std::min(out.contact, p.share);
                }
                if (g.surcharge <= 0) break;
            }
        }
    }
    const auto& all = sums(BaseState::Ground);
    for (std::size_t i = 0; i < all.size(); ++i) {
        const auto& k = of(BaseState::Ground)[i];
        const Sum& sum = all[i];
        const double H = std::hypot(sum.Hx, sum.Hy);
        for (double q : {0.0, allowable ? 0.0 : k.surcharge * g.surcharge}) {
            const auto r = resultant(sum, s, (downward(s, k) + q) * A);
            const Point e = r.N > 0 ? r.at() : Point{1e9, 1e9};
            const auto eff = ground::effectiveArea(s.B, s.L, e.x, e.y);
            if (!allowable) {
                double ratio = none, R = 0, V = r.N;
                if (r.N > 0 && eff.area() > 0) {
                    const bool turned = eff.B > eff.L;
                    ground::BearingInput in;
                    in.B = std::min(eff.B, eff.L), in.L = std::max(eff.B, eff.L), in.V = r.N, in.H = H;
                    // The angle of H against the longer side.
                    const double along = turned ? std::abs(sum.Hx) : std::abs(sum.Hy),
                                 across = turned ? std::abs(sum.Hy) : std::abs(sum.Hx);
                    in.angle = H > 0 ? std::atan2(across, along) * 180 / std::numbers::pi : 90;
                    if (g.by == By::Drained) {
                        in.overburden = std::max(0.0, g.depth * g.soil - u);
                        const double phi =
                            std::atan(std::tan(g.friction * std::numbers::pi / 180) / k.friction) * 180 /
                            std::numbers::pi;
                        const bool wet = g.water && g.waterDepth < g.depth + in.B;
                        R = ground::drained(in, phi, g.cohesion / k.cohesion,
                                            std::max(1e-7, g.weightBelow - (wet ? waterWeight : 0)))
                                .resistance;
                    } else {
                        in.overburden = g.depth * g.soil, in.V = r.N + u * A, V = in.V;
                        R = ground::undrained(in, g.undrained / k.undrained).resistance;
                    }
                    R /= k.bearing;
                    ratio = R > 0 ? std::min(none, V / R) : none;
                } else if (r.N > 0) {
                    const double x = std::max(0.0, std::abs(e.x) - s.B / 2),
                                 y = std::max(0.0, std::abs(e.y) - s.L / 2);
                    if (out.outsideIn < 0) out.outsideIn = int(i);
                    out.outside = std::max(out.outside, std::hypot(x, y));
                }
                if (ratio > out.pressure.value) out.largest = V, out.limit = R;
                out.pressure.larger(ratio, int(i));
            }
            if (q == 0 && H > 1) {
                const double R = holds(s, i), ratio = R > 0 ? std::min(none, H / R) : none;
                if (ratio > out.sliding.value) out.slides = H, out.holds = R;
                out.sliding.larger(ratio, int(i));
            }
            if (allowable || g.surcharge <= 0) break;
        }
    }
    const auto& stable = sums(BaseState::Stability);
    for (std::size_t i = 0; i < stable.size(); ++i) {
        const auto& k = of(BaseState::Stability)[i];
        const double W = downward(s, k) * A;
        for (int axis : {0, 1})
            for (double sign : {1.0, -1.0}) {
                const auto [turns, stands] = turning(s, i, axis, sign);
                if (turns <= 0) continue;
                const double ratio = stands > 0 ? std::min(none, turns / stands) : none;
                if (ratio > out.overturning.value) out.turns = turns, out.stands = stands;
                out.overturning.larger(ratio, int(i));
            }
        const double up = -stable[i].N - strapAdds(stable[i], s);
        if (up > 0) {
            const double ratio = W > 0 ? std::min(none, up / W) : none;
            if (ratio > out.uplift.value) out.lifts = up, out.weighs = std::max(0.0, W);
            out.uplift.larger(ratio, int(i));
        }
    }
    if (!g.layers.empty())
        for (std::size_t i = 0; i < sums(BaseState::Sustained).size(); ++i) {
            const double settles = settlement(s, i).second;
            if (settles > out.settles) out.settles = settles;
            out.settlement.larger(settles / g.settlement, int(i));
        }
    return out;
}

Pad::Demand Pad::demand(const PadSize& s, BaseState state, const std::array<double, 2>& d) const {
    Demand out;
    const double side[2] = {s.B, s.L};
    const Top top = this->top(s);
    for (int axis : {0, 1})
        for (double from : top.places(axis)) {
            // Shear beyond a step as beyond a column: at the depth there from it.
            const double away = top.stepped() ? d[std::size_t(axis)] - (s.h - top.edge()) : 0;
            out.lower[axis].push_back({from, from + away, {}, {}});
        }
    const auto& sums = this->sums(state);
    for (std::size_t i = 0; i < sums.size(); ++i) {
        const auto& k = of(state)[i];
        // Upwards the soil's pressure where there is any and the water's everywhere.
        const double wk = downward(s, k);
        const auto p = soilPressure(sums[i], s, k);
        if (!p.good()) {
            if (out.outsideIn < 0 || p.outside > out.outside) out.outside = p.outside, out.outsideIn = int(i);
            continue;
        }
        std::vector<Forces> forces;
        for (const auto& c : columns_) forces.push_back(this->forces(c, k));
        if (strap_) forces.front().N += strapAdds(sums[i], s);
        for (int axis : {0, 1}) {
            if (strap_ && axis == strap_->axis) {
                out.atFace[axis] = side[axis] / 2, out.side[axis] = columns_.front().side(axis);
                continue;
            }
            const double half = side[axis] / 2, width = side[1 - axis];
            auto sideOf = [&](const Column& c) { return strap_ ? strapWidth_ : c.side(axis); };
            // Net of the weights, and of columns beyond, on the side where the base ends sooner.
            auto at = [&](double x) {
                const bool positive = x >= 0;
                const double sign = positive ? 1 : -1, reach = std::max(0.0, half - std::abs(x));
                auto b = ground::beyond(p, axis, x, positive);
                b.force -= wk * width * reach, b.moment -= wk * width * reach * reach / 2;
                for (std::size_t c = 0; c < columns_.size(); ++c) {
                    const double arm = sign * (columns_[c].place(axis, s) - x);
                    if (arm <= 0) continue;
                    const Forces& f = forces[c];
                    b.force -= f.N;
                    b.moment -= f.N * arm + sign * f.along(axis, strapDepth(s));
                }
                return b;
            };
            auto bend = [&](double x, const Column* c) {
                if (std::abs(x) >= half) return;
                const double m = at(x).moment;
                if (m > out.moment[axis].value) {
                    out.moment[axis] = {m, int(i)};
                    if (c) {
                        const double edge = std::min(s.h / 2, half - std::abs(x));
                        const double from = (x >= 0 ? 1 : -1) * (half - edge);
                        const auto b = ground::beyond(p, axis, from, x >= 0);
                        out.edge[axis] = edge > 0 ? std::max(0.0, b.force / (edge * width) - wk) : 0;
                        out.atFace[axis] = half - std::abs(x), out.side[axis] = sideOf(*c);
                    }
                }
                out.top[axis].larger(-m, int(i));
            };
            for (const auto& c : columns_)
                for (double sign : {1.0, -1.0}) {
                    const double face = c.place(axis, s) + sign * sideOf(c) / 2,
                                 cut = face + sign * d[std::size_t(axis)];
                    bend(face, &c);
                    if (std::abs(cut) < half) out.shear[axis].larger(std::abs(at(cut).force), int(i));
                    for (auto& low : out.lower[axis]) {
                        const double x = face + sign * low.from, v = face + sign * low.cut;
                        if (std::abs(x) < half) low.moment.larger(at(x).moment, int(i));
                        if (std::abs(v) < half) low.shear.larger(std::abs(at(v).force), int(i));
                    }
                }
            if (columns_.size() > 1)
                for (int n = 1; n < 24; ++n) {
                    const double x = -half + n * side[axis] / 24;
                    if (std::none_of(columns_.begin(), columns_.end(), [&](const Column& c) {
                            return std::abs(x - c.place(axis, s)) < c.side(axis) / 2;
                        }))
                        bend(x, nullptr);
                }
            acrossColumns(s, forces, axis, int(i), out);
        }
    }
    return out;
}

// Reading: the load of a column spreads over the breadth of the base within a strip as wide as the column and a
// depth on either side, cut off half-way to its neighbours and at the edges; the pressure across it is the plane
// that balances the column's force and moment. All of the base gets the steel that the worst strip asks for.
void Pad::acrossColumns(const PadSize& s, const std::vector<Forces>& forces, int axis, int i, Demand& into) const {
    if (columns_.size() < 2) return;
    const int line = 1 - axis;
    const double side = s.side(axis), d = std::max(50.0, s.h - in_.cover - 20);
    for (std::size_t k = 0; k < columns_.size(); ++k) {
        const Column& c = columns_[k];
        const double at = c.place(line, s), half = s.side(line) / 2;
        double low = std::max(-half, at - c.side(line) / 2 - d), high = std::min(half, at + c.side(line) / 2 + d);
        bool alone = true;
        for (const auto& other : columns_) {
            const double there = other.place(line, s);
            if (&other == &c) continue;
            // Columns side by side along this axis share their strip: the beam as a whole is looked at.
            if (std::abs(there - at) < (c.side(line) + other.side(line)) / 2) alone = false;
            if (there > at) high = std::min(high, (at + there) / 2);
            if (there < at) low = std::max(low, (at + there) / 2);
        }
        if (!alone || !(forces[k].N > 0) || high - low < 1) continue;
        const double e = c.place(axis, s), M = std::abs(forces[k].along(axis, s.h) + forces[k].N * e);
        for (double sign : {1.0, -1.0}) {
            const double over = side / 2 - sign * e - c.side(axis) / 2;
            if (over <= 0) continue;
            const double q = forces[k].N / side + 6 * M / (side * side),
                         m = q * over * over / 2 / (high - low) * s.side(line);
            if (m <= into.moment[axis].value) continue;
            into.moment[axis] = {m, i};
            into.atFace[axis] = over, into.side[axis] = c.side(axis);
            into.edge[axis] = std::max(into.edge[axis], q / (high - low));
        }
    }
}

// Bars for the moments of a size: the least that carry them, keep the least steel, the spacing, and the crack
// rule.
bool Pad::chooseBars(PadDesign& design) const {
    bool fine = true;
    const auto& s = design.size;
    const auto& rules = *in_.standard;
    const double side[2] = {s.B, s.L};
    const auto m = demand(s, BaseState::Strength, {1e9, 1e9});
    const auto service = demand(s, crackState(), {1e9, 1e9});
    const double most = rules.steel->spacing(standards::SteelRules::Role::TwoWay, true, s.h);
    const bool pinned = !base_.bar.empty() || base_.spacing > 0;
    const Top shape = this->top(s);
    design.bottom = {}, design.top = {};
    for (int axis : {0, 1}) {
        const double b = side[1 - axis], up = shape.breadth(axis, 0);
        for (bool top : {false, true}) {
            auto& mats = top ? design.top : design.bottom;
            Mat& mat = mats[std::size_t(axis)];
            const double M = top ? m.top[axis].value : m.moment[axis].value;
            const double below = axis == 0 ? 0 : mats[0].bar ? mats[0].bar->diameter : top ? 0 : 16;
            // Concrete without bars carries the little that hogs, as the standard says; tops that are not level
            // have no bars.
            if (top && (!shape.level() ||
                        M <= rules.flexure->plain({up, s.h, s.h - in_.cover - below - 10, in_.cover + 10, in_.fc,
                                                   in_.fy})))
                continue;
            // What the bars chosen ask for with their own depth; more, as long as they crack too wide.
            double area = 0, diameter = 16, largest = 1e9;
            bool cracked = false;
            for (int pass = 0; pass < 30; ++pass) {
                Section section{b, s.h, s.h - in_.cover - below - diameter / 2, in_.cover + 10, in_.fc, in_.fy};
                if (section.d < 50) break;
                // What is compressed is as wide as the base is there.
                auto required = [&](double from, double moment) {
                    Section there = section;
                    there.b = shape.breadth(axis, from), there.h = shape.height(axis, from);
                    there.d = section.d - (s.h - there.h);
                    if (there.d < 50) return 1e9;
                    const auto need = rules.flexure->required(there, moment);
                    return need.possible && !need.doubly ? need.As : 1e9;
                };
                double needs = required(0, M);
                if (!top)
                    for (const auto& low : m.lower[axis])
                        needs = std::max(needs, required(low.from, low.moment.value));
                Section gross = section;
                gross.b = meanWidth(shape, s, axis);
                const double least = std::max(needs < 1e9 ? needs * (top ? 1 : evenly(s, axis)) : 1e9,
                                              rules.steel->minimum(gross));
                if (pass > 0 && mat.area() + 1e-9 >= least) {
                    const auto wide = cracks(design, service, axis, top, nullptr);
                    cracked = wide && wide->outcome == checks::Outcome::Over;
                    if (pinned) break;
                    if (cracked) {
                        area = std::max(area, 1.06 * mat.area());
                    } else {
                        if (top) break;
                        // Thinner bars where these are not anchored even bent.
                        design.d[std::size_t(axis)] = section.d;
                        if (in_.rules.anchorage(anchored(design, m, axis, true)).outcome != checks::Outcome::Over)
                            break;
                        if (!bases::mat(in_, base_, b, least, most, mat.bar->diameter - 0.1).bar) break;
                        area = least, largest = mat.bar->diameter - 0.1;
                    }
                }
                area = std::max(area, least);
                mat = bases::mat(in_, base_, b, area, most, largest);
                if (!mat.bar || (pinned && pass > 2)) break;
                diameter = mat.bar->diameter;
            }
            fine = fine && !cracked;
            if (top) continue;
            design.d[std::size_t(axis)] = s.h - in_.cover - below - (mat.bar ? mat.bar->diameter / 2 : 10);
            // Bent up where straight bars are not anchored.
            if (mat.bar)
                mat.hooked =
                    in_.rules.anchorage(anchored(design, m, axis, false)).outcome == checks::Outcome::Over;
        }
    }
    return fine;
}

double Pad::evenly(const PadSize& s, int axis, trace::Steps* t) const {
    const double ratio = s.side(1 - axis) / s.side(axis);
    return columns_.size() == 1 && ratio > 1 + 1e-9 ? in_.rules.evenSpread(ratio, t) : 1;
}

standards::FootingAnchorage Pad::anchored(const PadDesign& design, const Demand& m, int axis,
                                          bool hooked) const {
    const auto a = std::size_t(axis);
    const Mat& mat = design.bottom[a];
    const double b = design.size.side(1 - axis);
    const double lower = design.size.h - top(design.size).edge();
    return {m.atFace[axis],
            design.size.h - lower,
            design.d[a] - lower,
            m.side[axis],
            in_.cover,
            m.edge[axis],
            m.moment[axis].value / b,
            mat.area() / b,
            mat.bar->diameter,
            mat.bar->area,
            mat.spacing,
            in_.fc,
            in_.fy,
            hooked};
}

standards::FootingPunching Pad::punchingOf(const PadDesign& design, std::size_t column, std::size_t i) const {
    const auto& s = design.size;
    const Column& c = columns_[column];
    const Forces f = forces(c, BaseState::Strength, i);
    const auto& k = of(BaseState::Strength)[i];
    const double wk = downward(s, k);
    const Point at{c.place(0, s), c.place(1, s)};
    auto in = pushing(at, c.side(0), c.side(1), s, design.d, design.bottom);
    in.N = f.N, in.moment[0] = f.along(0, s.h), in.moment[1] = f.along(1, s.h);
    if (const Top top = this->top(s); !top.level()) {
        in.shoulder = std::min(top.shoulder(0), top.shoulder(1)), in.step = top.stepped();
        in.low = in.d - (s.h - top.edge());
        in.run = std::min(top.run(0) > 1 ? top.run(0) : 1e9, top.run(1) > 1 ? top.run(1) : 1e9);
    }
    const auto p = soilPressure(sums(BaseState::Strength)[i], s, k);
    if (p.good()) {
        in.pressure = std::max(0.0, p.at(at) - wk);
        if (p.share > 1 - 1e-9) in.gradient[0] = p.b, in.gradient[1] = p.c;
    }
    return in;
}

Pad::Punched Pad::punched(const PadDesign& design, trace::Steps* t) const {
    Punched worst;
    if (!(design.d[0] > 50) || !(design.d[1] > 50) || strap_) return worst;
    const Top top = this->top(design.size);
    const double d = (design.d[0] + design.d[1]) / 2;
    double most = -1;
    for (std::size_t c = 0; c < columns_.size(); ++c)
        for (std::size_t i : worstLooking(columns_[c], design.size.h, d)) {
            Punched p;
            p.column = c, p.combination = int(i), p.in = punchingOf(design, c, i);
            if (!(p.in.N > 0) || (!top.level() && p.in.low < 50)) continue;
            p.found = in_.rules.punching(p.in);
            if (const double ratio = ratioOf(p.found); ratio > most) most = ratio, worst = p;
            if (top.level() || !top.stepped()) continue;
            // The upper part, as if it were a column on the lower one.
            const auto& u = top.upper();
            const Point middle{(u[0] + u[1]) / 2, (u[2] + u[3]) / 2};
            const double lower = design.size.h - top.edge();
            auto block = pushing(middle, u[1] - u[0], u[3] - u[2], design.size,
                                 {design.d[0] - lower, design.d[1] - lower}, design.bottom);
            block.N = p.in.N, block.pressure = p.in.pressure;
            for (int axis : {0, 1}) {
                const double off = columns_[c].place(axis, design.size) - (axis == 0 ? middle.x : middle.y);
                block.moment[axis] = p.in.moment[axis] + p.in.N * off;
                block.gradient[axis] = p.in.gradient[axis];
            }
            p.in = block;
            p.found = in_.rules.punching(p.in);
            if (const double ratio = ratioOf(p.found); ratio > most) most = ratio, worst = p;
        }
    if (worst.combination >= 0 && t) worst.found = in_.rules.punching(worst.in, t);
    return worst;
}

// Whether the base itself carries, with the bars chosen for it.
bool Pad::strong(PadDesign& design) const {
    if (!chooseBars(design)) return false;
    const auto& s = design.size;
    if (!design.bottom[0].bar || !design.bottom[1].bar) return false;
    const auto m = demand(s, BaseState::Strength, design.d);
    if (m.outsideIn >= 0 || !startersHold(s.h, in_.cover)) return false;
    const Top top = this->top(s);
    if (!top.level() && top.edge() < leastEdge()) return false;
    if (std::min(design.d[0], design.d[1]) < in_.rules.leastDepth(false).d) return false;
    for (int axis : {0, 1}) {
        const auto a = std::size_t(axis);
        const auto& mat = design.bottom[a];
        const Section section = across(design, top, axis, 0), cut = sheared(design, top, axis, design.d[a]);
        if (m.moment[axis].value > in_.standard->flexure->resistance(section, mat.area(), 0).M * (1 + 1e-9))
            return false;
        if (m.shear[axis].combination >= 0 &&
            m.shear[axis].value > in_.rules.oneWay(cut, mat.area(), false) * (1 + 1e-9))
            return false;
        for (bool shear : {false, true})
            if (const auto low = lowest(design, top, m, axis, shear); low && low->ratio > 1 + 1e-9)
                return false;
        Section gross = section;
        gross.b = meanWidth(top, s, axis);
        if (in_.standard->flexure->ductility(gross, mat.area(), 0).outcome == checks::Outcome::Over ||
            mat.area() > in_.standard->steel->maximum(gross) * (1 + 1e-9))
            return false;
        if (const double more = evenly(s, axis);
            more > 1 + 1e-9 && mat.area() * (1 + 1e-9) <
                                   more * in_.standard->flexure->required(section, m.moment[axis].value).As)
            return false;
        if (mat.hooked &&
            in_.rules.anchorage(anchored(design, m, axis, true)).outcome == checks::Outcome::Over)
            return false;
    }
    // A foot that more depth does not help is told by its check.
    if (columnFoot(s, false, nullptr).first.outcome == checks::Outcome::Over &&
        columnFoot(s, true, nullptr).first.outcome != checks::Outcome::Over)
        return false;
    const auto p = punched(design);
    return p.combination < 0 ||
           (p.found.stress.outcome != checks::Outcome::Over && p.found.face.outcome != checks::Outcome::Over);
}

PadSize Pad::sized(double grown, double h) const {
    const double step = in_.set.planStep;
    PadSize s;
    s.h = h;
    if (strap_) s.strap = base_.strap.depth > 0 ? base_.strap.depth : strapDepth_;
    s.off = wish_;
    const double leastX = leastSide(0, s.off.x), leastY = leastSide(1, s.off.y);
    s.B = base_.B > 0 ? base_.B : units::roundUp(std::max(spanX_ + grown, leastX) - 1e-6, step);
    s.L = base_.L > 0 ? base_.L : units::roundUp(std::max(spanY_ + grown, leastY) - 1e-6, step);
    if (const double r = ratio_; r > 0) {
        if (!(base_.L > 0))
            s.L = units::roundUp(std::max(s.B * r, leastY) - 1e-6, step);
        else if (!(base_.B > 0))
            s.B = units::roundUp(std::max(s.L / r, leastX) - 1e-6, step);
    }
    placed(s);
    return s;
}
PadSize Pad::sited(PadSize s) const {
    placed(s);
    return s;
}

// The least growth beyond the columns, by steps, for which the ground is within; negative without.
double Pad::leastPlan(double h, double from) const {
    auto enough = [&](double g) { return ground(sized(g, h)).worst() <= 1 + 1e-9; };
    if (base_.B > 0 && base_.L > 0) return enough(0) ? 0 : -1;
    const double step = in_.set.planStep;
    double low = 0, high = std::max(step, units::roundUp(from, step));
    while (!enough(high)) {
        low = high, high *= 1.5;
        high = units::roundUp(high, step);
        if (high > largestPlan) return -1;
    }
    while (high - low > step * 1.5) {
        const double m = units::roundUp((low + high) / 2 - 1e-6, step);
        (enough(m) ? high : low) = m;
    }
    return high;
}

PadDesign Pad::ofSize(const PadSize& size) const {
    PadDesign d;
    d.size = size;
    strong(d);
    chooseStrap(d);
    return d;
}

// The strap is as deep as it has to be: it decides how far above the underside horizontal forces act.
PadDesign Pad::solve() const {
    if (!strap_) {
        PadDesign out = unstrapped();
        if (out.possible()) out.trouble = strapTrouble_;
        return out;
    }
    Pad own = *this;
    const double step = in_.set.depthStep, most = std::max(2000.0, strap_->length / 2);
    for (own.strapDepth_ = units::roundUp(strap_->length / 8, step);; own.strapDepth_ += step) {
        PadDesign out = own.solved();
        own.chooseStrap(out);
        if (!out.possible() || own.strapBeam(out.size).carries(out.strap)) return out;
        if (base_.strap.depth > 0 || own.strapDepth_ > most) {
            out.trouble = base_.strap.depth > 0
                              ? fmt::format("The pinned depth of the strap of {} does not do.",
                                            units::plain(base_.strap.depth))
                              : "No depth of the strap carries it; make it wider.";
            return out;
        }
    }
}

// Of several columns also with its centre in their middle, of a base that the site pushes aside also long ones
// along it: whichever has the least concrete.
PadDesign Pad::unstrapped() const {
    PadDesign best = solved();
    auto attempt = [&](const Pad& other) {
        PadDesign next = other.solved();
        if (next.possible() && (!best.possible() || other.top(next.size).volume() < 0.999 * top(best.size).volume()))
            best = std::move(next);
    };
    if (std::hypot(wish_.x, wish_.y) > 1 && !base_.offPinned) {
        Pad other = *this;
        other.wish_ = {0, 0};
        attempt(other);
    }
    const bool aside = best.size.onSite && std::hypot(best.size.off.x - wish_.x, best.size.off.y - wish_.y) > 1;
    if (in_.set.site.size() > 2 && (aside || !best.possible()) && !(base_.ratio > 0) && !(base_.B > 0) &&
        !(base_.L > 0) && columns_.size() == 1)
        for (double r : {1.5, 2.0, 2.5, 3.0, 4.0})
            for (double ratio : {r, 1 / r}) {
                Pad other = *this;
                other.ratio_ = ratio;
                attempt(other);
            }
    return best;
}

bool Pad::deepened(PadDesign& out, double grown, double first) const {
    const double step = in_.set.depthStep;
    out.size = sized(grown, first);
    if (strong(out)) return true;
    // Deeper: by steps that grow, then back.
    double low = first, high = first;
    do {
        low = high, high += std::max(step, units::roundUp(0.25 * high, step));
        out.size.h = high;
    } while (high < largestDepth && !strong(out));
    if (high >= largestDepth) return false;
    while (high - low > step * 1.5) {
        const double m = units::roundUp((low + high) / 2 - 1e-6, step);
        out.size.h = m;
        (strong(out) ? high : low) = m;
    }
    out.size.h = high;
    return true;
}

PadDesign Pad::solved() const {
    PadDesign out;
    if (columns_.empty()) {
        out.trouble = "The base has no column.";
        return out;
    }
    const double step = in_.set.depthStep;
    const double first = base_.h > 0 ? base_.h : units::roundUp(in_.set.leastDepth, step);
    double h = first, grown = 0;
    double service = 0;
    for (const auto& s : sums(BaseState::Service)) service = std::max(service, s.N);
    const double guess = std::sqrt(std::max(service, 1e4) / std::max(in_.set.ground.allowable, 0.05));
    double widened = 0;  // where the base itself asked for a larger plan
    for (int round = 0; round < 8; ++round) {
        grown = leastPlan(h, round == 0 ? guess : grown);
        if (grown >= 0) grown = std::max(grown, widened);
        if (grown < 0) {
            // As large as it may be, to say what fails.
            out = ofSize(sized(std::min(largestPlan, 4 * guess + 4000), h));
            const auto g = ground(out.size);
            out.trouble = !g.onSite ? "The outline of the site has no room for a base that carries this."
                          : g.outsideIn >= 0 && g.outside > 0
                              ? fmt::format("The resultant leaves the base by {:.0f} mm.", g.outside)
                          : g.uplift.value > 1 ? "The base lifts: no weight that it can have holds it."
                          : g.settlement.value > 1
                              ? "No base is large enough for the settlement that is accepted."
                          : g.sliding.value > 1 ? "No base is heavy enough against sliding."
                                                : "No base is large enough for the ground.";
            if (base_.B > 0 || base_.L > 0) {
                out.size = sized(guess, h);
                out = ofSize(out.size);
                out.trouble =
                    fmt::format("The pinned size {} does not do.", base_.B > 0 && base_.L > 0 ? "in plan"
                                                                   : base_.B > 0              ? "along x"
                                                                                              : "along y");
            }
            return out;
        }
        if (base_.h > 0) break;
        const double before = h;
        bool carries = deepened(out, grown, h);
        // Where no depth does, a larger plan may.
        for (double g = grown; !carries && !(base_.B > 0 && base_.L > 0) && g < 1.8 * grown + 500;) {
            g += std::max(in_.set.planStep, units::roundUp(0.04 * grown, in_.set.planStep));
            PadDesign wider;
            if ((carries = deepened(wider, g, h))) out = wider, grown = widened = g;
        }
        if (!carries) {
            out.size = sized(grown, std::max(first, units::roundUp(0.25 * std::max(out.size.B, out.size.L), step)));
            strong(out);
            out.trouble = "No depth carries it with the bars allowed.";
            return out;
        }
        h = out.size.h;
        if (h == before) break;
    }
    out.size = sized(grown, h);
    // Down again: one step less of either has to fail.
    for (int round = 0; round < 80; ++round) {
        if (base_.h == 0 && out.size.h - step >= first - 1e-9) {
            PadDesign less = out;
            less.size.h -= step;
            if (ground(less.size).worst() <= 1 + 1e-9 && strong(less)) {
                out.size = less.size, h = less.size.h;
                continue;
            }
        }
        if (!(base_.B > 0 && base_.L > 0) && grown > in_.set.planStep) {
            PadDesign less;
            less.size = sized(grown - in_.set.planStep, h);
            if ((less.size.B < out.size.B || less.size.L < out.size.L) &&
                ground(less.size).worst() <= 1 + 1e-9 && (base_.h > 0 || strong(less))) {
                grown -= in_.set.planStep, out.size = less.size;
                continue;
            }
        }
        break;
    }
    if (!strong(out) && base_.h > 0)
        out.trouble = fmt::format("The pinned depth of {} does not do.", units::plain(base_.h));
    return out;
}

double Pad::ratio(const PadDesign& design) const {
    double most = 0;
    for (const auto& c : checks(design, {}, false))
        most = std::max(most, checks::isJudged(c) ? checks::ratio(c) : 0);
    return most;
}

void Pad::stabilityChecks(const Add& add, const PadSize& s, const GroundAnswer& ga, bool working) const {
    using trace::step;
    const auto& g = in_.set.ground;
    if (!ga.onSite) {
        Finding f = finding(units::Kind::Length, 1, 0, "the set's outline of the site");
        f.here.push_back("No place within the outline of the site has room for this base below its columns.");
        add("site", "Within the site", Topic::Ground, checks::judged(f), {}, {}, {});
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
        f.notes.push_back(
            g.passiveShare > 0
                ? fmt::format("Against sliding {:.0f} % of the passive pressure beside bases helps, "
                              "by your word; that the soil stays there is up to you.",
                              100 * g.passiveShare)
                : "Passive pressure beside bases is left out against sliding.");
        add("sliding", "Against sliding", Topic::Ground, checks::judged(f), t,
            combination(BaseState::Ground, i), {});
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
        f.notes.push_back("Overturning is about the edges of the base; surcharge does not hold.");
        add("overturning", "Against overturning", Topic::Ground, checks::judged(f), t,
            combination(BaseState::Stability, i), {});
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
        add("uplift", "Against uplift", Topic::Ground, checks::judged(f), t,
            combination(BaseState::Stability, i), {});
    }
    if (!g.layers.empty()) {
        const int i = std::max(0, ga.settlement.combination);
        trace::Steps t;
        Finding f = finding(units::Kind::Length, ga.settles, g.settlement, "EN 1997-1 6.6.2, Annex F.1");
        f.prefix = "s";
        if (working && std::size_t(i) < sums(BaseState::Sustained).size()) {
            const auto [p, settles] = settlement(s, std::size_t(i));
            step(&t, "p", "max(N/A*1000000 + w - gamma*D/1000, 0)",
                 {{"N", sums(BaseState::Sustained)[std::size_t(i)].N / 1000, "kN"},
                  {"A", s.area(), "mm²"},
                  {"w", weights(s) * 1000, "kN/m²"},
                  {"gamma", g.soil * 1e6, "kN/m³"},
                  {"D", g.depth, "mm"}},
                 p * 1000, "kN/m²", f.clause, "sustained loads, less the soil dug out");
            step(&t, "s", "", {}, settles, "mm", f.clause,
                 "elastic layers below the characteristic point of a flexible rectangle");
        }
        f.notes.push_back(
            "Settlement: elastic layers below the base, each with its own modulus; bases beside it, "
            "consolidation "
            "with time and differences between bases are not looked at.");
        add("settlement", "Settlement", Topic::Ground, checks::judged(f), t,
            combination(BaseState::Sustained, i), {});
    } else if (g.by == model::GroundValues::By::Undrained) {
        add("settlement", "Settlement", Topic::Ground,
            checks::notChecked("EN 1997-1 6.6.2(16)",
                               "Settlement on clay must be calculated unless the bearing resistance is three times the "
                               "service load: enter the soil layers."),
            {}, {}, {});
    }
    if (!allowable()) {
        double most = 0;
        for (std::size_t i = 0; i < sums(BaseState::Ground).size(); ++i) {
            const auto r = resultant(sums(BaseState::Ground)[i], s, downward(s, of(BaseState::Ground)[i]) * s.area());
            if (r.N > 0) most = std::max({most, std::abs(r.at().x) / s.B, std::abs(r.at().y) / s.L});
        }
        if (most > 1.0 / 3)
            add("eccentric", "Large eccentricity", Topic::Ground,
                checks::notChecked("EN 1997-1 6.5.4",
                                   "The eccentricity exceeds a third of the side: the careful review of design values and the "
                                   "tolerance of 0.10 m required by 6.5.4 are not included."),
                {}, {}, {});
    }
}

std::vector<checks::Check> Pad::checks(const PadDesign& design, const model::PartRef& part,
                                       bool working) const {
    const auto& s = design.size;
    const auto& g = in_.set.ground;
    verify::CheckList list(part.key.empty() ? std::string() : part.key + "/");
    const std::string name = model::baseName(in_.set, base_);
    const Point c = centre(s);
    auto add = [&](std::string key, std::string title, Topic topic, Finding f, trace::Steps steps,
                   std::string combination, std::optional<model::Face> face = {}) {
        checks::Place p;
        p.spot.part = part, p.name = name, p.at = c;
        list.add({key, title, topic, std::move(f), std::move(steps)}, p, std::move(combination), face);
    };
    const auto ga = ground(s);
    // On the ground.
    {
        const bool allowable = this->allowable();
        const BaseState state = groundState();
        Finding f = allowable ? finding(units::Kind::AreaLoad, ga.largest, ga.limit, in_.rules.clause(state))
                              : finding(units::Kind::Force, ga.largest, ga.limit,
                                        in_.rules.clause(state) + ", Annex D");
        trace::Steps t;
        if (ga.pressure.value >= none) {
            f.demand = none * std::max(f.limit, 1e-3);
            if (ga.outsideIn >= 0)
                f.here.push_back(ga.outside > 0
                                     ? fmt::format("The resultant leaves the base by {:.0f} mm under {}.",
                                                   ga.outside, combination(state, ga.outsideIn))
                                     : fmt::format("Nothing presses the base down under {}.",
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
                     N / 1000, "kN", f.clause, strap_ ? strapped : "U: uplift of the water on the whole base");
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
            f.here.push_back(
                fmt::format("{:.0f} % of the base is in contact at the least.", 100 * ga.contact));
        f.notes.push_back(
            "Bases are rigid; the ground pushes and does not pull, its pressure is a plane where it acts.");
        if (s.h > g.depth + 1)
            f.here.push_back(fmt::format(
                "The base is {:.0f} mm deep and founded {:.0f} mm below ground level: its top is {:.0f} mm above it.",
                s.h, g.depth, s.h - g.depth));
        f = checks::judged(f);
        add("pressure", allowable ? "Ground pressure" : "Ground bearing", Topic::Ground, f, t,
            combination(state, ga.pressure.combination));
    }
    stabilityChecks(add, s, ga, working);

    // The base itself.
    const auto& rules = *in_.standard;
    const Top shape = this->top(s);
    const auto m = demand(s, BaseState::Strength, design.d);
    const auto service = demand(s, crackState(), {1e9, 1e9});
    const double most = rules.steel->spacing(standards::SteelRules::Role::TwoWay, true, s.h);
    static constexpr const char* keys[2][7] = {
        {"flexure-x", "top-x", "least-x", "spacing-x", "shear-x", "anchorage-x", "cracks-x"},
        {"flexure-y", "top-y", "least-y", "spacing-y", "shear-y", "anchorage-y", "cracks-y"}};
    static constexpr const char* titles[2][7] = {
        {"Flexure along x", "Flexure along x, top", "Least steel along x", "Spacing along x",
         "One-way shear along x", "Anchorage along x", "Cracks along x"},
        {"Flexure along y", "Flexure along y, top", "Least steel along y", "Spacing along y",
         "One-way shear along y", "Anchorage along y", "Cracks along y"}};
    for (int axis : {0, 1}) {
        const auto a = std::size_t(axis);
        const Mat& mat = design.bottom[a];
        if (!mat.bar) {
            add(
                keys[axis][0], titles[axis][0], Topic::Flexure,
                [&] {
                    Finding f =
                        finding(units::Kind::Moment, m.moment[axis].value, 0, rules.flexure->clause());
                    f.here.push_back("No allowed bars carry it; the base is too shallow.");
                    return checks::judged(f);
                }(),
                {}, combination(BaseState::Strength, m.moment[axis].combination), model::Face::Bottom);
            continue;
        }
        const Section section = across(design, shape, axis, 0);
        Section whole = section;
        whole.b = meanWidth(shape, s, axis);
        auto flexure = [&](const Section& sec, const Mat& bars, const Asked& asked, int which,
                           model::Face face) {
            trace::Steps t;
            Finding f = finding(units::Kind::Moment, asked.value, 0, rules.flexure->clause());
            f.prefix = "M";
            f.limit = rules.flexure->resistance(sec, bars.area(), 0, working ? &t : nullptr).M;
            f.notes.push_back("Moments of bases are those at the faces of columns, on the whole width.");
            if (columns_.size() > 1)
                f.notes.push_back(
                    "Across a line of columns the load of each one is taken by a strip as wide as the column and a "
                    "depth on either side; the whole base has the reinforcement of the worst strip.");
            add(keys[axis][which], titles[axis][which], Topic::Flexure, checks::judged(f), t,
                combination(BaseState::Strength, asked.combination), face);
        };
        flexure(section, mat, m.moment[axis], 0, model::Face::Bottom);
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
                    "Tops that are not level are looked at at the step (shear at the depth there beyond it), "
                    "or at "
                    "quarters of the slope no nearer to the column than the depth there: what is compressed "
                    "is as "
                    "wide as the base is there, what is sheared its area.");
                const char* where = shape.stepped() ? "at the step" : "on the slope";
                add(fmt::format("{}-{}-{}", shear ? "shear" : "flexure", axis == 0 ? 'x' : 'y',
                                shape.stepped() ? "step" : "slope"),
                    fmt::format("{} along {} {}", shear ? "One-way shear" : "Flexure", axis == 0 ? 'x' : 'y',
                                where),
                    shear ? Topic::OneWayShear : Topic::Flexure, checks::judged(f), t,
                    combination(BaseState::Strength, (shear ? place.shear : place.moment).combination),
                    model::Face::Bottom);
            }
        const Mat& top = design.top[a];
        if (m.top[axis].value > 0) {
            Section upper = section;
            if (top.bar) {
                upper.d = topDepth(design, axis);
                flexure(upper, top, m.top[axis], 1, model::Face::Top);
                trace::Steps least;
                Finding f = finding(units::Kind::Area, top.area(), 0, rules.steel->clauses(true).minimum);
                f.sense = checks::Sense::AtLeast, f.prefix = "As";
                f.limit = rules.steel->minimum(upper, working ? &least : nullptr);
                add(fmt::format("{}-top", keys[axis][2]), fmt::format("{}, top", titles[axis][2]), Topic::Steel,
                    checks::judged(f), least, {}, model::Face::Top);
                standingFace(add, upper, top, axis, true, most, working);
                trace::Steps wide;
                if (const auto found = cracks(design, service, axis, true, working ? &wide : nullptr))
                    add(fmt::format("{}-top", keys[axis][6]), fmt::format("{}, top", titles[axis][6]),
                        Topic::Cracks, *found, wide,
                        combination(crackState(), service.top[axis].combination), model::Face::Top);
            } else {
                trace::Steps t;
                Finding f = finding(units::Kind::Moment, m.top[axis].value, 0, rules.flexure->clause());
                f.prefix = "M";
                f.limit = rules.flexure->plain(section, working ? &t : nullptr);
                f.here.push_back(
                    shape.level()
                        ? "Without bars at the top: the plain section carries what hogs."
                        : "A top that is not level has no bars: the plain section carries what hogs.");
                add(keys[axis][1], titles[axis][1], Topic::Flexure, checks::judged(f), t,
                    combination(BaseState::Strength, m.top[axis].combination), model::Face::Top);
            }
        }
        {
            trace::Steps t;
            Finding f = finding(units::Kind::Area, mat.area(), 0, rules.steel->clauses(true).minimum);
            f.sense = checks::Sense::AtLeast, f.prefix = "As";
            f.limit = rules.steel->minimum(whole, working ? &t : nullptr);
            add(keys[axis][2], titles[axis][2], Topic::Steel, checks::judged(f), t, {}, model::Face::Bottom);
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
                "Steel along the shorter side lies evenly, as much as the band about the column asks "
                "for all over.");
            add(axis == 0 ? "band-x" : "band-y", axis == 0 ? "Band along x" : "Band along y", Topic::Steel,
                checks::judged(f), band, combination(BaseState::Strength, m.moment[axis].combination),
                model::Face::Bottom);
        }
        standingFace(add, whole, mat, axis, false, most, working);
        {
            trace::Steps t;
            Finding f = finding(units::Kind::Force, m.shear[axis].value, 0, in_.rules.oneWayClause(false));
            f.prefix = "V";
            f.limit = in_.rules.oneWay(sheared(design, shape, axis, design.d[a]), mat.area(), false,
                                       working ? &t : nullptr);
            if (m.shear[axis].combination < 0)
                f = checks::notApplicable(f.clause,
                                          strap_ && axis == strap_->axis
                                              ? "Along the strap the strap carries it."
                                              : "The section at d from the column lies outside the base.");
            else
                f.notes.push_back("One-way shear of bases is that at d from the faces of columns.");
            add(keys[axis][4], titles[axis][4], Topic::OneWayShear,
                f.outcome == checks::Outcome::NotApplicable ? f : checks::judged(f), t,
                combination(BaseState::Strength, m.shear[axis].combination));
        }
        {
            trace::Steps t;
            add(keys[axis][5], titles[axis][5], Topic::Anchorage,
                in_.rules.anchorage(anchored(design, m, axis, mat.hooked), working ? &t : nullptr), t,
                combination(BaseState::Strength, m.moment[axis].combination), model::Face::Bottom);
        }
        trace::Steps wide;
        if (const auto found = cracks(design, service, axis, false, working ? &wide : nullptr))
            add(keys[axis][6], titles[axis][6], Topic::Cracks, *found, wide,
                combination(crackState(), service.moment[axis].combination), model::Face::Bottom);
    }
    trace::Steps pt;
    if (const auto p = punched(design, working ? &pt : nullptr); p.combination >= 0) {
        add("punching", "Punching", Topic::Punching, p.found.stress, pt,
            combination(BaseState::Strength, p.combination));
        if (p.found.face.outcome != checks::Outcome::NotApplicable)
            add("punching-face", "Punching at the column", Topic::Punching, p.found.face, pt,
                combination(BaseState::Strength, p.combination));
    }
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
        add("punching-uplift", "Punching by a column in tension", Topic::Punching,
            checks::notChecked(in_.rules.clause(BaseState::Strength),
                               "A column is in tension: upward punching is not checked."),
            {}, {});
    if (near)
        add("punching-together", "Punching of columns together", Topic::Punching,
            checks::notChecked(in_.rules.clause(BaseState::Strength),
                               "Columns are closer than twice the effective depth: a common control perimeter is not "
                               "checked."),
            {}, {});
    trace::Steps ft;
    if (const auto [foot, in] = columnFoot(s, false, working ? &ft : nullptr); in >= 0)
        add("foot", "Concrete below the column", Topic::Bearing, foot, ft,
            combination(BaseState::Strength, in));
    if (strap_) {
        add("punching", "Punching", Topic::Punching,
            checks::notApplicable(in_.rules.clause(BaseState::Strength),
                                  "The strap carries the column over the whole length of the base."),
            {}, {});
        strapChecks(add, design, working);
    }
    const auto least = in_.rules.leastDepth(false);
    if (!shape.level()) {
        Finding f = finding(units::Kind::Length, shape.edge(), leastEdge(),
                            least.d > 0 ? least.clause : "room for the bars");
        f.sense = checks::Sense::AtLeast, f.prefix = "h";
        add("edge", "Depth at the edges", Topic::Steel, checks::judged(f), {}, {});
    }
    if (least.d > 0) {
        Finding f = finding(units::Kind::Length, std::min(design.d[0], design.d[1]), least.d, least.clause);
        f.sense = checks::Sense::AtLeast, f.prefix = "d";
        add("least-depth", "Minimum effective depth", Topic::Steel, checks::judged(f), {}, {});
    }
    starterChecks(add, s, in_.cover, working);
    commonChecks(add);
    if (m.outsideIn >= 0) {
        Finding f = finding(units::Kind::Length, m.outside, 0, in_.rules.clause(BaseState::Strength));
        f.here.push_back(
            m.outside > 0
                ? fmt::format("Under {} the resultant leaves the base by {:.0f} mm: nothing balances it.",
                              combination(BaseState::Strength, m.outsideIn), m.outside)
                : fmt::format("Nothing presses the base down under {}.",
                              combination(BaseState::Strength, m.outsideIn)));
        f.demand = std::max(f.demand, 1.0);
        f = checks::judged(f);
        add("resultant", "Resultant at ultimate loads", Topic::Ground, f, {},
            combination(BaseState::Strength, m.outsideIn));
    }
    return list.take();
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
    std::vector<schedule::Item> all;
    for (auto& l : laid(design)) all.push_back(std::move(l.item));
    return all;
}
std::vector<Laid> Pad::laid(const PadDesign& design) const {
    auto r = reinforced(design.size, design.bottom, design.top, in_.cover);
    if (const Top top = this->top(design.size); !top.level()) r.edge = top.edge();
    r.strap = design.strap;
    if (strap_) r.strapAt = {columns_.front().column->x, columns_.front().column->y};
    return lay(in_, r);
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
