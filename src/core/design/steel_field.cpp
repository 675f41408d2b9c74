#include "design/steel_field.h"

#include <cmath>
#include <numbers>

#include "strips/field_moments.h"
#include "strips/strip_finder.h"

namespace talvik::design {
namespace {

// The strip of a direction in which each field point lies, as a place in f.strips; -1 in a gap.
std::vector<int> stripOfPoints(const FloorDesign& f, int direction) {
    const auto& model = *f.analysis->model;
    std::vector<int> of(model.points.node.size(), -1);
    const strips::StripFinder finder(*f.layout, direction);
    auto at = [&](geometry::Point p) { return finder.at(p); };
    for (std::size_t i = 0; i < of.size(); ++i)
        of[i] = at(model.plate.nodes[std::size_t(model.points.node[i])]);
    // Those on the slab's own edge belong to the strip of a triangle beside them.
    for (std::size_t t = 0; t < model.plate.triangles.size(); ++t)
        for (std::size_t c = 0; c < 3; ++c) {
            int& owner = of[std::size_t(model.points.corner[3 * t + c])];
            if (owner >= 0) continue;
            geometry::Point p{0, 0};
            for (int n : model.plate.triangles[t]) {
                p.x += model.plate.nodes[std::size_t(n)].x / 3;
                p.y += model.plate.nodes[std::size_t(n)].y / 3;
            }
            owner = at(p);
        }
    return of;
}

}  // namespace

std::vector<double> requiredSteelField(const FloorDesign& f, int direction, bool top) {
    const auto& a = *f.analysis;
    const std::size_t n = a.model->points.node.size();
    struct Bars {
        strips::Axes axes;
        double skew = 0, diameter = 0;
        line::LineBasis in;
    };
    const auto& angle = f.layout->angle;
    auto radians = [](double degrees) { return degrees * std::numbers::pi / 180; };
    // What holds in a gap, then in every strip.
    const std::size_t d = std::size_t(direction);
    std::vector<Bars> bars{
        {strips::Axes(angle[d]), radians(angle[1 - d] - angle[d]), 0, {*f.basis, *f.standard}}};
    for (const auto& s : f.strips) {
        Bars own{s->strip->axes,
                 radians(s->strip->otherAngle - s->strip->axes.angle),
                 0,
                 {*f.basis, *f.standard, s->outerTop, s->outerBottom}};
        for (const auto& r : s->runs)
            if (r.top() == top) own.diameter = std::max(own.diameter, r.diameter);
        if (s->strip->direction == direction) {
            bars[0].diameter = std::max(bars[0].diameter, own.diameter);
            bars[0].in.outerTop = s->outerTop, bars[0].in.outerBottom = s->outerBottom;
        }
        bars.push_back(own);
    }
    if (bars[0].diameter == 0) bars[0].diameter = 12;
    const auto owner = stripOfPoints(f, direction);
    std::vector<double> most(n, 0);
    for (std::size_t k = 0; k < a.combinations.size(); ++k) {
        if (a.combinations[k].state != actions::LimitState::Ultimate) continue;
        auto mx = a.field(analysis::Field::Mx, k), my = a.field(analysis::Field::My, k),
             mxy = a.field(analysis::Field::Mxy, k);
        for (std::size_t i = 0; i < n; ++i) {
            const Bars& own = bars[std::size_t(owner[i] + 1)];
            double c = own.axes.c, s = own.axes.s;
            double u = mx[i] * c * c + my[i] * s * s + 2 * mxy[i] * c * s,
                   v = mx[i] * s * s + my[i] * c * c - 2 * mxy[i] * c * s,
                   uv = (my[i] - mx[i]) * c * s + mxy[i] * (c * c - s * s);
            most[i] = std::max(most[i], strips::barMoments(u, v, uv, own.skew, top).along);
        }
    }
    std::vector<double> thickness(n, 0);
    for (std::size_t t = 0; t < a.model->plate.triangles.size(); ++t)
        for (std::size_t k = 0; k < 3; ++k) {
            auto& h = thickness[std::size_t(a.model->points.corner[3 * t + k])];
            h = h == 0 ? a.model->thickness[t] : std::min(h, a.model->thickness[t]);
        }
    constexpr double b = 1000;
    for (std::size_t i = 0; i < n; ++i) {
        const Bars& own = bars[std::size_t(owner[i] + 1)];
        strips::Station s;
        s.thickness = thickness[i];
        double diameter = own.diameter > 0 ? own.diameter : bars[0].diameter;
        auto section = line::section(top, diameter, s, own.in, b);
        auto need = f.standard->flexure->required(section, most[i] * b);
        most[i] = need.possible ? need.As / b : 99;
    }
    return most;
}

}  // namespace talvik::design
