#include "ground/bearing_resistance.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace talvik::ground {

BearingResistance drained(const BearingInput& in, double friction, double cohesion, double weight) {
    BearingResistance r;
    const double phi = friction * std::numbers::pi / 180, tan = std::tan(phi), ratio = in.B / in.L,
                 area = in.B * in.L;
    if (!(tan > 0) || !(area > 0)) return r;
    r.Nq = std::exp(std::numbers::pi * tan) * std::pow(std::tan(std::numbers::pi / 4 + phi / 2), 2);
    r.Nc = (r.Nq - 1) / tan;
    r.Ng = 2 * (r.Nq - 1) * tan;
    r.sq = 1 + ratio * std::sin(phi);
    r.sg = 1 - 0.3 * ratio;
    r.sc = (r.sq * r.Nq - 1) / (r.Nq - 1);
    const double mB = (2 + ratio) / (1 + ratio), mL = (2 + 1 / ratio) / (1 + 1 / ratio),
                 theta = in.angle * std::numbers::pi / 180;
    r.m = mL * std::pow(std::cos(theta), 2) + mB * std::pow(std::sin(theta), 2);
    const double left = std::max(0.0, 1 - in.H / (in.V + area * cohesion / tan));
    r.iq = std::pow(left, r.m), r.ig = std::pow(left, r.m + 1);
    r.ic = r.iq - (1 - r.iq) / (r.Nc * tan);
    r.stress = cohesion * r.Nc * r.sc * r.ic + in.overburden * r.Nq * r.sq * r.iq +
               0.5 * weight * in.B * r.Ng * r.sg * r.ig;
    r.stress = std::max(0.0, r.stress);
    r.resistance = r.stress * area;
    return r;
}

BearingResistance undrained(const BearingInput& in, double strength) {
    BearingResistance r;
    const double area = in.B * in.L, share = in.H / (area * strength);
    r.Nc = std::numbers::pi + 2, r.Nq = 1;
    r.sc = 1 + 0.2 * in.B / in.L;
    if (!(share <= 1)) {
        r.ic = 0;
        return r;
    }
    r.ic = 0.5 * (1 + std::sqrt(1 - share));
    r.stress = r.Nc * strength * r.sc * r.ic + in.overburden;
    r.resistance = r.stress * area;
    return r;
}

}  // namespace talvik::ground
