#include "punching/legs.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numbers>
#include <random>

using namespace talvik;
using namespace talvik::punching;
using geometry::rectangle;

namespace {

const Ring wide{{-1e5, -1e5}, {1e5, -1e5}, {1e5, 1e5}, {-1e5, 1e5}};

LegPlan plan() {
    LegPlan p;
    p.first = 100, p.spacing = 150, p.perimeters = 4;
    p.apart = 330, p.apartOutside = 440, p.inside = 440;
    p.clear = 45;
    return p;
}
std::vector<Point> turned(const std::vector<Leg>& legs, double quarter) {
    std::vector<Point> all;
    for (const auto& l : legs)
        all.push_back({l.at.x * std::cos(quarter) - l.at.y * std::sin(quarter),
                       l.at.x * std::sin(quarter) + l.at.y * std::cos(quarter)});
    return all;
}

}  // namespace

TEST(Legs, RoundASquareTheyAreAsSymmetricAsItIs) {
    const auto legs = placeLegs({rectangle({0, 0}, 400, 400), {wide}, {}}, 0, 0, plan());
    EXPECT_EQ(legs.lines.size() % 4, 0u);
    EXPECT_EQ(legs.fewest, int(legs.lines.size()));
    EXPECT_EQ(legs.legs.size(), 4 * legs.lines.size());
    for (Point q : turned(legs.legs, M_PI / 2)) {
        double least = 1e9;
        for (const auto& l : legs.legs) least = std::min(least, geometry::length(l.at, q));
        EXPECT_LT(least, 1e-6);
    }
    EXPECT_LE(legs.widest, 330 + 1e-6);
    EXPECT_LE(legs.widestOutside, 440 + 1e-6);
}

TEST(Legs, RoundACircleTheyStandEvenly) {
    const auto legs = placeLegs({geometry::round({0, 0}, 500), {wide}, {}}, 500, 0, plan());
    const double turn = 2 * M_PI / double(legs.lines.size());
    for (std::size_t i = 0; i < legs.lines.size(); ++i)
        EXPECT_NEAR(
            std::remainder(std::atan2(legs.lines[i].way.y, legs.lines[i].way.x) - double(i) * turn, 2 * M_PI),
            0, 1e-9);
    // The chord of the outermost perimeter.
    EXPECT_NEAR(legs.widestOutside, 2 * (250 + 100 + 3 * 150) * std::sin(turn / 2), 1e-6);
}

TEST(Legs, AtEdgesAndOpeningsTheyStayClearAndWhatLiesInShadowDoesNotCount) {
    auto p = plan();
    p.shaded.openingsWithin = 1500;
    p.edges = {{1, 0}};
    const Ring edge{{-300, -1e5}, {1e5, -1e5}, {1e5, 1e5}, {-300, 1e5}};
    const Ring opening = rectangle({700, 0}, 300, 400);
    const auto legs = placeLegs({rectangle({0, 0}, 400, 400), {edge}, {opening}}, 0, 0, p);
    int shaded = 0;
    for (const auto& l : legs.legs) {
        EXPECT_GE(l.at.x, -300 + 45 - 1e-6);
        EXPECT_FALSE(geometry::contains(opening, l.at));
        EXPECT_GE(geometry::distanceToEdge(opening, l.at), 45 - 1e-6);
        shaded += !l.counts;
    }
    for (const auto& line : legs.lines) EXPECT_GE(line.way.x, -0.05) << "none towards the edge";
    EXPECT_GT(shaded, 0);
    EXPECT_LT(legs.fewest, int(legs.lines.size()));
    for (Point q : legs.hull()) EXPECT_GT(q.x, -300);
}

TEST(Legs, LinesRunBetweenTheBarsWhereTheirGapsAreNearEnough) {
    auto p = plan();
    p.bars = {{0, 150}, {90, 1000}};
    const auto legs = placeLegs({rectangle({0, 0}, 500, 500), {wide}, {}}, 0, 0, p);
    double phase = -1;
    int along = 0;
    for (const auto& line : legs.lines) {
        if (std::abs(line.way.x) < 0.999) continue;
        ++along;
        const double t = line.face.y / 150;
        if (phase < 0) phase = std::abs(t - std::round(t)) < 0.25 ? 0 : 0.5;
        EXPECT_NEAR(t - phase, std::round(t - phase), 1e-6) << "one way of setting the bars out";
    }
    EXPECT_GE(along, 4);
    // Bars a metre apart leave no gaps near enough: the lines stand evenly all the same.
    int across = 0;
    for (const auto& line : legs.lines) across += std::abs(line.way.y) > 0.999;
    EXPECT_GE(across, 4);
    EXPECT_LE(legs.widest, 330 + 1e-6);
}

// On a grid all lines run along the sides; every rectangle is whole, its legs near enough, and no two lines
// of a direction are closer than a hand.
TEST(Legs, OnAGridStandOnWholeRectangles) {
    std::mt19937 engine(7);
    auto u = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(engine); };
    for (int i = 0; i < 200; ++i) {
        auto p = plan();
        p.grid = true;
        p.perimeters = 2 + i % 5;
        if (i % 2) p.bars = {{0, 50 + 25.0 * (i % 6)}, {90, 150}};
        const double c1 = u(200, 800), c2 = u(200, 800), turn = i % 2 ? 0 : u(0, 90);
        const Ring column = rectangle({0, 0}, c1, c2, turn);
        const auto legs = placeLegs({column, {wide}, {}}, 0, 0, p);
        const double a = turn * std::numbers::pi / 180;
        std::vector<int> count(std::size_t(p.perimeters), 0);
        for (const auto& line : legs.lines) {
            const double x = line.way.x * std::cos(a) + line.way.y * std::sin(a),
                         y = line.way.y * std::cos(a) - line.way.x * std::sin(a);
            EXPECT_NEAR(std::max(std::abs(x), std::abs(y)), 1, 1e-9) << "along a side";
            EXPECT_EQ(line.perimeters, p.perimeters);
        }
        for (const auto& l : legs.legs) {
            EXPECT_FALSE(geometry::contains(column, l.at));
            ++count[std::size_t(l.perimeter)];
        }
        // One leg more at either side of every corner with every rectangle.
        for (std::size_t k = 1; k < count.size(); ++k) EXPECT_EQ(count[k], count[k - 1] + 8);
        EXPECT_LE(legs.widest, p.apart + 1e-6);
        EXPECT_LE(legs.widestOutside, p.apartOutside + 1e-6);
        // The hull is the outermost rectangle, but for what lines moved between bars.
        const double out = p.first + (p.perimeters - 1) * p.spacing;
        EXPECT_NEAR(geometry::area(legs.hull()), (c1 + 2 * out) * (c2 + 2 * out),
                    i % 2 ? 0.15 * (c1 + 2 * out) * (c2 + 2 * out) : 1);
    }
}

TEST(Legs, FewerThanTheLeastOnALineAreNone) {
    auto p = plan();
    p.least = 3;
    const Ring narrow{{-1e5, -500}, {1e5, -500}, {1e5, 500}, {-1e5, 500}};
    const auto legs = placeLegs({rectangle({0, 0}, 400, 400), {narrow}, {}}, 0, 0, p);
    for (const auto& line : legs.lines) EXPECT_GE(line.perimeters, 3);
    EXPECT_FALSE(legs.lines.empty());
}
