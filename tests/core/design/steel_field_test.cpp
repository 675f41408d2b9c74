// Required steel all over a floor resists bending about every axis, along whatever directions the bars have.
#include "design/steel_field.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numbers>

#include "formats/project_file.h"

namespace talvik {
namespace {

// The strip of a direction that holds a place well inside; null where there is none.
const design::StripDesign* stripAt(const design::FloorDesign& f, int direction, geometry::Point p) {
    for (const auto& s : f.strips)
        if (s->strip->direction == direction)
            for (const auto& r : s->strip->parts)
                if (geometry::contains(r, p) && geometry::distanceToEdge(r, p) > 250) return s.get();
    return nullptr;
}

// Resistance per width of the field's steel of a direction, N.
double resistance(const design::FloorDesign& f, const design::StripDesign& s, bool top, double steel,
                  double thickness) {
    double diameter = 0;
    for (const auto& r : s.runs)
        if (r.top() == top) diameter = std::max(diameter, r.diameter);
    if (diameter == 0)  // no bars on this face: the direction's largest
        for (const auto& other : f.strips)
            for (const auto& r : other->runs)
                if (other->strip->direction == s.strip->direction && r.top() == top)
                    diameter = std::max(diameter, r.diameter);
    strips::Station station;
    station.thickness = thickness;
    auto section =
        line::section(top, diameter, station, {*f.basis, *f.standard, s.outerTop, s.outerBottom}, 1000);
    // The moment that asks for just this steel, with compression steel where it does.
    double low = 0, high = 5e9;
    for (int i = 0; i < 60; ++i) {
        double m = (low + high) / 2;
        auto need = f.standard->flexure->required(section, m);
        (need.possible && need.As <= steel * 1000 ? low : high) = m;
    }
    return low / 1000;
}

TEST(SteelField, ResistsBendingAboutEveryAxisAlsoWhereBarsAreAskew) {
    auto project = formats::demoFloorProject();
    auto floor = std::make_shared<model::Floor>(*project.floors[0]);
    model::StripArea area;
    area.id = "sa1";
    area.outline = {{1000, 6600}, {13500, 6600}, {13500, 11800}, {1000, 11800}};
    area.angle[0] = 25, area.angle[1] = 100;
    floor->strips.areas.push_back(area);
    project.floors[0] = floor;
    auto f = design::designFloor(project, 0);
    ASSERT_TRUE(f);
    const auto& a = *f->analysis;
    std::vector<std::array<std::vector<double>, 3>> moments;
    for (std::size_t k = 0; k < a.combinations.size(); ++k)
        moments.push_back({a.field(analysis::Field::Mx, k), a.field(analysis::Field::My, k),
                           a.field(analysis::Field::Mxy, k)});
    int points = 0, askew = 0;
    double tightest = 1e300;
    for (bool top : {false, true}) {
        const std::array<std::vector<double>, 2> steel{design::requiredSteelField(*f, 0, top),
                                                       design::requiredSteelField(*f, 1, top)};
        for (std::size_t t = 0; t < a.model->plate.triangles.size(); t += 3) {
            std::size_t i = std::size_t(a.model->points.corner[3 * t]);
            auto p = a.model->plate.nodes[std::size_t(a.model->points.node[i])];
            const design::StripDesign* s[2] = {stripAt(*f, 0, p), stripAt(*f, 1, p)};
            if (!s[0] || !s[1] || a.model->thickness[t] != floor->slabs[0].thickness) continue;
            if (steel[0][i] == 99 || steel[1][i] == 99) continue;  // said: no steel suffices
            ++points;
            askew += s[0]->strip->axes.angle == 25 && s[1]->strip->axes.angle == 100;
            double M[2];
            for (int d : {0, 1})
                M[d] = resistance(*f, *s[d], top, steel[std::size_t(d)][i], a.model->thickness[t]);
            for (int degrees = 0; degrees < 180; degrees += 9) {
                double n = degrees * std::numbers::pi / 180, holds = 0;
                for (int d : {0, 1}) {
                    double c = std::cos(n - s[d]->strip->axes.angle * std::numbers::pi / 180);
                    holds += M[d] * c * c;
                }
                for (std::size_t k = 0; k < a.combinations.size(); ++k) {
                    if (a.combinations[k].state != actions::LimitState::Ultimate) continue;
                    const auto& m = moments[k];
                    double asks = m[0][i] * std::cos(n) * std::cos(n) + m[1][i] * std::sin(n) * std::sin(n) +
                                  2 * m[2][i] * std::sin(n) * std::cos(n);
                    if (top) asks = -asks;
                    ASSERT_LE(asks, holds * (1 + 1e-6) + 1)
                        << "at " << p.x << ", " << p.y << " on " << degrees << " degrees, top " << top;
                    if (asks > 1000) tightest = std::min(tightest, holds / asks);
                }
            }
        }
    }
    EXPECT_GT(points, 300);
    EXPECT_GT(askew, 30) << "the area has points";
    EXPECT_LT(tightest, 1.02) << "and no more than needed somewhere";
}

}  // namespace
}  // namespace talvik
