// Elastic properties of rectangular sections with one layer of steel, transformed to concrete.
#pragma once

#include <cmath>

namespace talvik::standards {

// x: neutral axis from the compressed face, mm; I: second moment about it, mm4.
struct TransformedSection {
    double x = 0, I = 0;
};

// Cracked: concrete in tension ignored. ratio = E_s/E_c.
inline TransformedSection cracked(double b, double d, double As, double ratio) {
    double n = ratio * As / b;
    double x = n * (std::sqrt(1 + 2 * d / n) - 1);
    if (As <= 0) return {0, 0};
    return {x, b * x * x * x / 3 + ratio * As * (d - x) * (d - x)};
}

// Uncracked: whole depth h, steel counted as (ratio - 1) As.
inline TransformedSection uncracked(double b, double h, double d, double As, double ratio) {
    double extra = (ratio - 1) * As, A = b * h + extra;
    double x = (b * h * h / 2 + extra * d) / A;
    return {x, b * h * h * h / 12 + b * h * (x - h / 2) * (x - h / 2) + extra * (d - x) * (d - x)};
}

}  // namespace talvik::standards
