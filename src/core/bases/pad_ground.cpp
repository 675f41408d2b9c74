// A pad on its ground: weights, water, pressure, sliding, overturning, uplift, settlement.
#include <algorithm>
#include <cmath>
#include <numbers>

#include "bases/pad.h"
#include "ground/bearing_resistance.h"
#include "ground/rigid_base.h"
#include "ground/settlement.h"

namespace talvik::bases {

using geometry::Point;

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
         P / 1000, "kN", clause, "the chosen share of the passive resistance beside the base");
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
                    out.pressure.larger(noAnswer, int(i));
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
                double ratio = noAnswer, R = 0, V = r.N;
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
                    ratio = R > 0 ? std::min(noAnswer, V / R) : noAnswer;
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
                const double R = holds(s, i), ratio = R > 0 ? std::min(noAnswer, H / R) : noAnswer;
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
                const double ratio = stands > 0 ? std::min(noAnswer, turns / stands) : noAnswer;
                if (ratio > out.overturning.value) out.turns = turns, out.stands = stands;
                out.overturning.larger(ratio, int(i));
            }
        const double up = -stable[i].N - strapAdds(stable[i], s);
        if (up > 0) {
            const double ratio = W > 0 ? std::min(noAnswer, up / W) : noAnswer;
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

}  // namespace talvik::bases
