#include "strips/field_moments.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace talvik::strips {
namespace {
constexpr double square = std::numbers::pi / 2;
}

// Bars give along cos^2 t + other cos^2(t - a) on a normal at t. What is left over the applied moments must
// not be negative for any t. With K = other sin^2 a - my >= 0 that is along >= A + B^2 / K, where
// A = mx + my cot^2 a - 2 mxy cot a and B = my cot a - mxy; the sum along + other is least at K = |B| sin a.
BarMoments barMoments(double mx, double my, double mxy, double angle, bool top) {
    if (top) mx = -mx, my = -my, mxy = -mxy;
    if (angle == square) {  // the usual case, without trigonometry
        const double t = std::abs(mxy);
        double along = mx + t, other = my + t;
        if (along >= 0 && other >= 0) return {along, other};
        if (along < 0) return {0, std::max(0.0, mx < 0 ? my + mxy * mxy / -mx : other)};
        return {std::max(0.0, my < 0 ? mx + mxy * mxy / -my : along), 0};
    }
    const double sine = std::sin(angle), cot = std::abs(std::cos(angle)) < 1e-12 ? 0 : std::cos(angle) / sine;
    const double A = mx + my * cot * cot - 2 * mxy * cot, B = my * cot - mxy, s = std::abs(sine);
    double along = A + std::abs(B) / s, other = my / (s * s) + std::abs(B) / s;
    if (along >= 0 && other >= 0) return {along, other};
    if (along < 0) {
        // Bars of the other direction alone, as far as they can.
        along = 0;
        other = A < 0 ? (my + B * B / -A) / (s * s) : std::max(0.0, other);
    } else {
        other = 0;
        along = my < 0 ? A + B * B / -my : std::max(0.0, along);
    }
    return {std::max(0.0, along), std::max(0.0, other)};
}

void squareBarMoments(std::span<const double> mx, std::span<const double> my, std::span<const double> mxy,
                      std::span<double> bottom, std::span<double> top) {
    // The square case above without jumps, so that several places go at once.
    for (std::size_t i = 0; i < mx.size(); ++i) {
        const double x = mx[i], y = my[i], t = std::abs(mxy[i]), q = t * t;
        const double other = std::max(std::abs(y), 1e-300);
        const double low = y < 0 && y + t < 0 ? x + q / other : x + t;
        const double high = y > 0 && t - y < 0 ? q / other - x : t - x;
        bottom[i] = x + t < 0 ? 0 : std::max(0.0, low);
        top[i] = t - x < 0 ? 0 : std::max(0.0, high);
    }
}

}  // namespace talvik::strips
