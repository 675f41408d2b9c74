#include "design/steel_field.h"

#include <cmath>
#include <numbers>

#include "strips/field_moments.h"

namespace talvik::design {

std::vector<double> requiredSteelField(const FloorDesign& f, int direction, bool top) {
    const auto& a = *f.analysis;
    const std::size_t n = a.model->points.node.size();
    std::vector<double> most(n, 0);
    const strips::Axes axes(f.layout->angle[std::size_t(direction)]);
    const double skew =
        (f.layout->angle[std::size_t(1 - direction)] - f.layout->angle[std::size_t(direction)]) *
        std::numbers::pi / 180;
    for (std::size_t k = 0; k < a.combinations.size(); ++k) {
        if (a.combinations[k].state != actions::LimitState::Ultimate) continue;
        auto mx = a.field(analysis::Field::Mx, k), my = a.field(analysis::Field::My, k),
             mxy = a.field(analysis::Field::Mxy, k);
        for (std::size_t i = 0; i < n; ++i) {
            double c = axes.c, s = axes.s;
            double u = mx[i] * c * c + my[i] * s * s + 2 * mxy[i] * c * s,
                   v = mx[i] * s * s + my[i] * c * c - 2 * mxy[i] * c * s,
                   uv = (my[i] - mx[i]) * c * s + mxy[i] * (c * c - s * s);
            most[i] = std::max(most[i], strips::barMoments(u, v, uv, skew, top).along);
        }
    }
    std::vector<double> thickness(n, 0);
    for (std::size_t t = 0; t < a.model->plate.triangles.size(); ++t)
        for (int k = 0; k < 3; ++k) {
            auto& h = thickness[std::size_t(a.model->points.corner[3 * t + std::size_t(k)])];
            h = h == 0 ? a.model->thickness[t] : std::min(h, a.model->thickness[t]);
        }
    double outerTop = 0, outerBottom = 0, diameter = 0;
    for (const auto& d : f.strips) {
        if (d->strip->direction != direction) continue;
        outerTop = d->outerTop, outerBottom = d->outerBottom;
        for (const auto& r : d->runs)
            if (r.top == top) diameter = std::max(diameter, r.diameter);
    }
    if (diameter == 0) diameter = 12;
    const reinforcement::StripBasis in{*f.basis, *f.standard, outerTop, outerBottom};
    constexpr double b = 1000;
    for (std::size_t i = 0; i < n; ++i) {
        strips::Station s;
        s.thickness = thickness[i];
        auto need =
            f.standard->flexure->required(reinforcement::stripSection(top, diameter, s, in, b), most[i] * b);
        most[i] = need.possible ? need.As / b : 99;
    }
    return most;
}

}  // namespace talvik::design
