// Punching, 6.4 and 9.4.3.
#include <algorithm>
#include <cmath>

#include "standards/en1992/en1992.h"

namespace talvik::standards::en1992 {

Punching punching(const Parameters& p, double d, double rho_y, double rho_z, double fck, double fywk) {
    const double k = std::min(1 + std::sqrt(200 / d), 2.0), rho = std::min(std::sqrt(rho_y * rho_z), 0.02),
                 nu = 0.6 * (1 - fck / 250), fcd = p.alpha_cc * fck / p.gamma_c;
    Punching r{};
    r.v_Rdc = std::max(p.shear_numerator / p.gamma_c * k * std::cbrt(100 * rho * fck),
                       p.v_min_factor * std::pow(k, 1.5) * std::sqrt(fck));
    r.v_Rdmax = 0.4 * nu * fcd;
    r.v_Rdmaxn = 0.5 * nu * fcd;
    r.f_ywd_ef = std::min(250 + 0.25 * d, fywk / p.gamma_s);
    r.leastLeg = 0.08 * std::sqrt(fck) / fywk / 1.5;
    return r;
}

double Punching::steel(double v, double u1, double s_r) const {
    return v <= v_Rdc ? 0 : std::max(0.0, (v - 0.75 * v_Rdc) * s_r * u1 / (1.5 * f_ywd_ef));
}

double columnPerimeter(Place place, double c1, double c2, double d) {
    if (place == Place::Interior) return 2 * (c1 + c2);
    return place == Place::Edge ? std::min(c2 + 3 * d, c2 + 2 * c1) : std::min(3 * d, c1 + c2);
}

double eccentricityShare(double ratio) {
    constexpr double at[] = {0.5, 1, 2, 3}, k[] = {0.45, 0.60, 0.70, 0.80};
    if (ratio <= at[0]) return k[0];
    for (int i = 1; i < 4; ++i)
        if (ratio <= at[i]) return k[i - 1] + (k[i] - k[i - 1]) * (ratio - at[i - 1]) / (at[i] - at[i - 1]);
    return k[3];
}

double reducedPerimeter(Place place, double u1, double c1, double c2, double d) {
    auto lost = [d](double side) { return side - std::min(1.5 * d, 0.5 * side); };
    return place == Place::Interior ? u1
           : place == Place::Edge   ? u1 - 2 * lost(c1)
                                    : u1 - lost(c1) - lost(c2);
}

}  // namespace talvik::standards::en1992
