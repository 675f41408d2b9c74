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

TEST(Coverage, FindsGapsAndOverlaps) {
    Ring slab = box(0, 0, 10, 5);
    EXPECT_NEAR(coverage(slab, {slab}).uncovered, 0, 1e-9);
    auto gap = coverage(slab, {box(0, 0, 4, 5), box(6, 0, 12, 5)});
    EXPECT_NEAR(gap.uncovered, 10, 1e-9);
    EXPECT_NEAR(gap.overlapped, 0, 1e-9);
    auto twice = coverage(slab, {box(0, 0, 6, 5), box(4, 0, 10, 5)});
    EXPECT_NEAR(twice.overlapped, 10, 1e-9);
    EXPECT_NEAR(coverage(slab, {}).uncovered, 50, 1e-9);
}

TEST(Coverage, InvalidOutlineIsNamedWithItsPlace) {
    auto crossed = coverage({{0, 0}, {10000, 10000}, {10000, 0}, {0, 10000}}, {});
    EXPECT_NE(crossed.error.find("(5.00, 5.00)"), std::string::npos) << crossed.error;
    EXPECT_NE(coverage({{0, 0}, {1, 1}}, {}).error, "");
}
