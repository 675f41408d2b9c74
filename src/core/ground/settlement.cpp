#include "ground/settlement.h"

#include <cmath>
#include <numbers>

namespace talvik::ground {
namespace {

using std::numbers::pi;

// Settlement of the corner of a rectangle B by L down to depth z, per pressure, of one modulus.
double corner(double B, double L, double z, double E, double nu) {
    if (z <= 0 || B <= 0 || L <= 0) return 0;
    const double D = std::hypot(B, L), R = std::sqrt(B * B + L * L + z * z);
    const double F1 = (L * std::log((B + D) * std::hypot(L, z) / (L * (B + R))) +
                       B * std::log((L + D) * std::hypot(B, z) / (B * (L + R)))) /
                      pi;
    const double F2 = z * std::atan(B * L / (z * R)) / (2 * pi);
    return (1 - nu * nu) / E * (F1 + (1 - 2 * nu) / (1 - nu) * F2);
}
// Vertical stress below the corner of a rectangle, per pressure (Boussinesq).
double stressBelow(double B, double L, double z) {
    if (B <= 0 || L <= 0) return 0;
    const double b = B * B, l = L * L, zz = z * z, R = std::sqrt(b + l + zz);
    return (std::atan(B * L / (z * R)) + B * L * z / R * (1 / (b + zz) + 1 / (l + zz))) / (2 * pi);
}

// Of the four rectangles that meet at a point of the base, x and y from its corner.
template <class F>
double meeting(double B, double L, double x, double y, F of) {
    return of(x, y) + of(B - x, y) + of(x, L - y) + of(B - x, L - y);
}

}  // namespace

Settlement settlement(double pressure, double B, double L, const std::vector<SoilLayer>& layers) {
    Settlement s;
    auto at = [&](double x, double y) {
        double sum = 0, top = 0;
        for (const auto& layer : layers) {
            const double bottom = top + layer.thickness;
            sum += meeting(B, L, x, y, [&](double b, double l) {
                return corner(b, l, bottom, layer.modulus, layer.poisson) -
                       corner(b, l, top, layer.modulus, layer.poisson);
            });
            top = bottom;
        }
        return pressure * sum;
    };
    s.centre = at(B / 2, L / 2), s.corner = at(0, 0), s.characteristic = at(0.13 * B, 0.13 * L);
    double top = 0;
    for (const auto& layer : layers) {
        const double z = top + layer.thickness / 2;
        s.stress.push_back(pressure * meeting(B, L, 0.13 * B, 0.13 * L,
                                              [&](double b, double l) { return stressBelow(b, l, z); }));
        top += layer.thickness;
    }
    return s;
}

}  // namespace talvik::ground
