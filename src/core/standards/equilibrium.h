// Section equilibrium shared by the standards: steel forces from plane strains and the neutral axis by
// bisection.
#pragma once

#include <algorithm>
#include <cmath>

namespace talvik::standards {

// Forces of tension steel As at d and steel As2 at d2 for the neutral axis depth x with the extreme concrete
// strain eps_cu; elastic-plastic steel. `compression` is positive in compression. Units N, mm, MPa.
struct SteelForces {
    double strain, tension, compression;
    SteelForces(double As, double As2, double d, double d2, double x, double eps_cu, double Es, double yield)
        : strain(eps_cu * (d - x) / x),
          tension(As * std::clamp(Es * strain, -yield, yield)),
          compression(As2 * std::clamp(Es * eps_cu * (x - d2) / x, -yield, yield)) {}
    double net() const { return compression - tension; }
};

// The depth x in (0, d] at which `sum` (compression less tension, growing with x) vanishes; d where it stays
// below.
template <class F>
double neutralAxis(double d, F sum) {
    double low = d * 1e-9, high = d;
    for (int i = 0; i < 200 && high - low > d * 1e-14; ++i) {
        double x = (low + high) / 2;
        (sum(x) < 0 ? low : high) = x;
    }
    return (low + high) / 2;
}

}  // namespace talvik::standards
