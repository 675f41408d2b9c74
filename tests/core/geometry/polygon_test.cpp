#include "geometry/polygon.h"

#include <gtest/gtest.h>

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
