#include "geometry/polygon.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

using namespace talvik::geometry;

namespace {
Ring box(double x0, double y0, double x1, double y1) {
    return {{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}};
}
}  // namespace

TEST(Polygon, AreaIsSignedByDirection) {
    EXPECT_DOUBLE_EQ(area(box(0, 0, 4, 3)), 12);
    EXPECT_DOUBLE_EQ(area({{0, 0}, {0, 3}, {4, 3}, {4, 0}}), -12);
}

TEST(Polygon, CoverFindsGapsAndOverlaps) {
    Ring slab = box(0, 0, 100, 50);
    auto sum = [](const std::vector<Ring>& rings) {
        double all = 0;
        for (const auto& r : rings) all += area(r);
        return all;
    };
    EXPECT_TRUE(cover({slab}, {}, {slab}).gaps.empty());
    auto gap = cover({slab}, {}, {box(0, 0, 40, 50), box(60, 0, 120, 50)});
    EXPECT_NEAR(sum(gap.gaps), 1000, 1e-6);
    EXPECT_TRUE(gap.overlaps.empty());
    auto twice = cover({slab}, {}, {box(0, 0, 60, 50), box(40, 0, 100, 50)});
    ASSERT_EQ(twice.overlaps.size(), 1u);
    EXPECT_NEAR(sum(twice.overlaps[0].patch), 1000, 1e-6);
    EXPECT_NEAR(sum(cover({slab}, {}, {}).gaps), 5000, 1e-6);
}

TEST(Polygon, InvalidOutlineIsNamedWithItsPlace) {
    EXPECT_NE(invalid({{0, 0}, {10000, 10000}, {10000, 0}, {0, 10000}}).find("(5.00, 5.00)"),
              std::string::npos);
    EXPECT_NE(invalid({{0, 0}, {1, 1}}), "");
}

// A bow tie of two triangles of 25 m2 each: operations answer with the area that it winds round, not with
// nothing.
TEST(Polygon, OutlinesThatCrossThemselvesStandForTheirArea) {
    const Ring tie{{0, 0}, {10000, 10000}, {10000, 0}, {0, 10000}}, whole = box(-1000, -1000, 11000, 11000);
    auto sum = [](const std::vector<Ring>& rings) {
        double all = 0;
        for (const auto& r : rings) all += area(r);
        return all / 1e6;
    };
    EXPECT_NEAR(sum(intersection(tie, whole)), 50, 1e-3);
    EXPECT_NEAR(sum(intersection(whole, tie)), 50, 1e-3);
    EXPECT_NEAR(sum(difference(whole, {tie})), 144 - 50, 1e-3);
    EXPECT_NEAR(sum(difference(tie, {box(5000, 0, 10000, 10000)})), 25, 1e-3);
    EXPECT_NEAR(sum(unite({tie, box(10000, 0, 20000, 10000)})), 150, 1e-3);
    EXPECT_NEAR(shared(tie, whole).area / 1e6, 50, 1e-3);
    EXPECT_NEAR(outside(tie, {box(0, 0, 5000, 10000)}).area / 1e6, 25, 1e-3);
    EXPECT_NEAR(sum(cover({whole}, {tie}, {}).gaps), 144 - 50, 1e-3);
    EXPECT_TRUE(intersection(whole, {{0, 0}, {1, 1}}).empty());
}

// Points of an arc lie on its circle, on the side to which it turns, and no chord leaves it by more than
// asked.
TEST(Arc, PointsLieOnTheCircleWithinTheTolerance) {
    for (double bulge : {-2.5, -1.0, -0.2, 0.05, std::tan(M_PI / 8), 1.0, 4.0}) {
        const Point a{1000, 2000}, b{5000, -1000};  // 5 m apart
        for (double tolerance : {1.0, 20.0}) {
            const auto points = alongArc(a, b, bulge, tolerance);
            ASSERT_FALSE(points.empty());
            // Radius from chord and rise: rise = bulge * chord / 2.
            const double rise = std::abs(bulge) * 2500, radius = (2500 * 2500 + rise * rise) / (2 * rise);
            const Point middle{3000, 500}, left{3.0 / 5, 4.0 / 5};  // of the chord, unit
            const double away =
                (radius - rise) * (bulge > 0 ? 1 : -1);  // an arc that turns left bulges right
            const Point centre{middle.x + left.x * away, middle.y + left.y * away};
            Point last = a;
            auto all = points;
            all.push_back(b);
            for (Point p : all) {
                EXPECT_NEAR(std::hypot(p.x - centre.x, p.y - centre.y), radius, 1e-6 * radius) << bulge;
                const Point half{(p.x + last.x) / 2, (p.y + last.y) / 2};
                EXPECT_LE(radius - std::hypot(half.x - centre.x, half.y - centre.y), tolerance * (1 + 1e-9))
                    << bulge;
                last = p;
            }
        }
    }
    EXPECT_TRUE(alongArc({0, 0}, {5000, 0}, 0, 1).empty()) << "a straight line";
    EXPECT_TRUE(alongArc({7, 7}, {7, 7}, 1, 1).empty()) << "no chord";
}

TEST(Polygon, ClippedByAConvexOneItIsWhatBothShare) {
    std::mt19937 random(9);
    std::uniform_real_distribution<double> u(-1000, 1000);
    for (int i = 0; i < 300; ++i) {
        // A star, not convex, and the hull of random points.
        Ring star;
        for (int k = 0; k < 10; ++k) {
            const double r = k % 2 ? 900 : 350, a = k * 3.14159265358979 / 5;
            star.push_back({r * std::cos(a), r * std::sin(a)});
        }
        std::vector<Point> points;
        for (int k = 0; k < 8; ++k) points.push_back({u(random), u(random)});
        const Ring convex = hull(points), part = clipped(star, convex);
        double shares = 0, x = 0, y = 0;
        for (const auto& r : intersection(star, convex)) {
            const double a = area(r);
            shares += a, x += a * centroid(r).x, y += a * centroid(r).y;
        }
        EXPECT_NEAR(area(part), shares, 1e-6 * 1e6);
        if (shares < 1e3) continue;
        EXPECT_NEAR(centroid(part).x, x / shares, 1e-3);
        EXPECT_NEAR(centroid(part).y, y / shares, 1e-3);
    }
    const Ring r = rectangle({300, -200}, 400, 100, 30);
    EXPECT_NEAR(area(r), 40000, 1e-6);
    EXPECT_NEAR(centroid(r).x, 300, 1e-9);
    EXPECT_NEAR(area(talvik::geometry::round({5, 5}, 200, 720)), 3.14159265358979 * 1e4, 1);
}
