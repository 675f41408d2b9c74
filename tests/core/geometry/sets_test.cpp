// Set operations against areas by hand and by random sampling; faces against Euler's count.
#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "geometry/polygon.h"

using namespace talvik::geometry;

namespace {

Ring box(double x0, double y0, double x1, double y1) {
    return {{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}};
}
double sum(const std::vector<Ring>& rings) {
    double a = 0;
    for (const auto& r : rings) a += area(r);
    return a;
}
Ring star(std::mt19937& random, double x, double y) {
    std::uniform_real_distribution<double> r(500, 2500);
    Ring out;
    for (int k = 0; k < 9; ++k) {
        double t = 2 * M_PI * k / 9, d = r(random);
        out.push_back({x + d * std::cos(t), y + d * std::sin(t)});
    }
    return out;
}

}  // namespace

TEST(Sets, SimpleCasesByHand) {
    EXPECT_NEAR(sum(intersection(box(0, 0, 4000, 4000), box(3000, 3000, 9000, 9000))), 1e6, 1e-3);
    EXPECT_TRUE(intersection(box(0, 0, 1, 1), box(5, 5, 6, 6)).empty());
    auto left = difference(box(0, 0, 4000, 4000), {box(1000, -1, 2000, 5000)});
    ASSERT_EQ(left.size(), 2u);
    EXPECT_NEAR(area(left[0]), 8e6, 1e-3);
    EXPECT_NEAR(area(left[1]), 4e6, 1e-3);
    // A hole is cut through: no ring holds it, and nothing is lost.
    auto ringed = difference(box(0, 0, 4000, 4000), {box(1000, 1000, 2000, 2000)});
    EXPECT_GE(ringed.size(), 2u);
    EXPECT_NEAR(sum(ringed), 15e6, 1);
    for (const auto& r : ringed) EXPECT_FALSE(contains(r, {1500, 1501}));
    EXPECT_NEAR(sum(offset(box(0, 0, 1000, 1000), 100)), 1200.0 * 1200, 1e-3);
    EXPECT_NEAR(sum(offset(box(0, 0, 1000, 1000), -100)), 800.0 * 800, 1e-3);
    EXPECT_TRUE(offset(box(0, 0, 100, 100), -60).empty());
}

TEST(Sets, SharesAndRestsOfRandomStarsAddUp) {
    std::mt19937 random(7);
    std::uniform_real_distribution<double> at(-2500, 2500);
    for (int k = 0; k < 200; ++k) {
        Ring a = star(random, 0, 0), b = star(random, at(random), at(random));
        auto both = intersection(a, b), rest = difference(a, {b});
        EXPECT_NEAR(sum(both) + sum(rest), area(a), 1e-6 * area(a) + 20) << k;
        for (int i = 0; i < 50; ++i) {
            Point p{at(random), at(random)};
            int in = 0;
            for (const auto& r : both) in += contains(r, p);
            double near = std::min(distanceToEdge(a, p), distanceToEdge(b, p));
            if (near > 1) {
                EXPECT_EQ(in, int(contains(a, p) && contains(b, p))) << k;
            }
        }
    }
}

TEST(Sets, FacesOfALatticeAreItsCells) {
    std::vector<Segment> lines;
    for (int i = 0; i <= 4; ++i) lines.push_back({{1000.0 * i, -300}, {1000.0 * i, 3300}});
    for (int j = 0; j <= 3; ++j) lines.push_back({{-200, 1000.0 * j}, {4200, 1000.0 * j}});
    auto all = faces(lines);
    EXPECT_EQ(all.size(), 12u);
    for (const auto& f : all) EXPECT_NEAR(area(f), 1e6, 1e-3);
    lines.push_back({{500, 500}, {700, 700}});  // a loose end bounds nothing
    EXPECT_EQ(faces(lines).size(), 12u);
    EXPECT_TRUE(faces({}).empty());
}

TEST(Sets, CrossingsAndNearestPoints) {
    Point at;
    EXPECT_TRUE(cross({0, 0}, {10, 10}, {0, 10}, {10, 0}, &at));
    EXPECT_NEAR(at.x, 5, 1e-12);
    EXPECT_TRUE(cross({0, 0}, {10, 0}, {10, 0}, {10, 5}, &at)) << "touching ends count";
    EXPECT_FALSE(cross({0, 0}, {10, 0}, {0, 1}, {10, 1}, nullptr));
    EXPECT_FALSE(cross({0, 0}, {4, 0}, {5, -1}, {5, 1}, nullptr));
    EXPECT_EQ(nearest({3, 4}, {0, 0}, {10, 0}), (Point{3, 0}));
    EXPECT_EQ(nearest({-3, 4}, {0, 0}, {10, 0}), (Point{0, 0}));
    EXPECT_NEAR(distance({3, 4}, {0, 0}, {10, 0}), 4, 1e-12);
}
