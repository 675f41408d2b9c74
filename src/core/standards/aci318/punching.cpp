// Two-way shear, 22.6 and 8.4.4.
#include <algorithm>
#include <cmath>

#include "standards/aci318/native.h"

namespace talvik::standards::aci318 {

TwoWayShear twoWayShear(const Edition& e, double d, double bo, double beta, double alpha, double fc,
                        double lambda) {
    constexpr double phi = 0.75;
    const bool metric = e.units == units::System::Metric;
    const double root = std::min(std::sqrt(fc / e.stress), e.rootCap) * e.stress, by = lambda * root;
    TwoWayShear r{};
    r.size = sizeFactor(e, d);
    r.plain = (metric ? 0.33 : 4) * r.size * by;
    r.ratio = (metric ? 0.17 : 2) * (1 + 2 / beta) * r.size * by;
    r.perimeter = (metric ? 0.083 : 1) * (2 + alpha * d / bo) * r.size * by;
    r.strength = phi * std::min({r.plain, r.ratio, r.perimeter});
    r.withStirrups = (metric ? 0.17 : 2) * r.size * by;
    r.withStuds = (metric ? 0.25 : 3) * r.size * by;
    r.halfDepth = r.ceilingStirrups = phi * (metric ? 0.50 : 6) * root;
    r.ceilingStuds = phi * (metric ? 0.66 : 8) * root;
    r.outside = phi * r.withStirrups;
    r.leastStuds = (metric ? 0.17 : 2) * root;
    return r;
}

double momentByShear(double b1, double b2) {
    return 1 - 1 / (1 + 2.0 / 3 * std::sqrt(b1 / b2));
}

}  // namespace talvik::standards::aci318
