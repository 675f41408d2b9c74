// Piles under a cap: equilibrium over random groups, a line of piles, the tolerance by trying all shifts.
#include "ground/pile_group.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "ground/settlement.h"

using namespace talvik;
using namespace talvik::ground;

TEST(PileGroup, ReactionsBalanceAnyLoad) {
    std::mt19937 random(9);
    auto between = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(random); };
    for (int k = 0; k < 100; ++k) {
        std::vector<Point> piles;
        for (int n = 3 + int(random() % 8); n > 0; --n)
            piles.push_back({between(-3000, 3000), between(-3000, 3000)});
        const CapLoad load{between(500e3, 9e6), between(-2e9, 2e9), between(-2e9, 2e9)};
        const auto r = reactions(piles, load);
        double N = 0, x = 0, y = 0;
        for (std::size_t i = 0; i < piles.size(); ++i)
            N += r.all[i], x += r.all[i] * piles[i].x, y += r.all[i] * piles[i].y;
        EXPECT_NEAR(N, load.N, 1e-6 * load.N);
        EXPECT_NEAR(x, load.alongX, 1e-6 * (std::abs(load.alongX) + load.N * 3000));
        EXPECT_NEAR(y, load.alongY, 1e-6 * (std::abs(load.alongY) + load.N * 3000));
        EXPECT_EQ(r.acrossLeft, 0);
        const auto e = withTolerance(piles, load, 75);
        EXPECT_GE(e.most, r.most);
        EXPECT_LE(e.least, r.least);
    }
}

TEST(PileGroup, ALineTakesNoMomentAcrossIt) {
    const std::vector<Point> two{{-900, 0}, {900, 0}};
    const auto r = reactions(two, {1000e3, 180e6, 50e6});
    EXPECT_NEAR(r.all[1] - r.all[0], 200e3, 1e-6) << "180 kNm over 1.8 m, twice";
    EXPECT_NEAR(r.acrossLeft, 50e6, 1);
    // Turned by 30 degrees the same.
    const double c = std::cos(0.5), s = std::sin(0.5);
    const auto t = reactions({{-900 * c, -900 * s}, {900 * c, 900 * s}},
                             {1000e3, 180e6 * c - 50e6 * s, 180e6 * s + 50e6 * c});
    EXPECT_NEAR(t.all[1], r.all[1], 1);
    EXPECT_NEAR(t.acrossLeft, 50e6, 100);
    EXPECT_EQ(reactions({}, {1, 0, 0}).all.size(), 0u);
}

TEST(PileGroup, TwoPileNodeIsInEquilibrium) {
    const auto t = twoPileTie(2600e3, 1650, 1100, 600, 600, 30);
    const double sigma = (1 - 30 / 250.0) * 30 / 1.5;
    EXPECT_NEAR(t.force, t.node * 600 * sigma, 1);
    EXPECT_NEAR(t.force * t.z, 2600e3 / 2 * (1650 / 2.0 - 150), 1e3);
    EXPECT_NEAR(t.z, 1100 - t.node / 2, 1e-9);
    EXPECT_EQ(twoPileTie(9e9, 1650, 500, 600, 600, 30).force, 0) << "no room for the node";
}

// Settlement against the stress of Boussinesq integrated over depth, for a Poisson's ratio at which the
// strain is that of the vertical stress and the two horizontal ones; here by the simplest case, a square of
// one layer, and layers that are all alike give the sum of one.
TEST(Settlement, LayersAlikeAreOneAndStressFallsOff) {
    const auto one = settlement(0.2, 3000, 4000, {{20, 0.3, 6000}});
    const auto three = settlement(0.2, 3000, 4000, {{20, 0.3, 1000}, {20, 0.3, 2000}, {20, 0.3, 3000}});
    EXPECT_NEAR(one.centre, three.centre, 1e-9);
    EXPECT_NEAR(one.corner, three.corner, 1e-9);
    EXPECT_GT(one.centre, one.characteristic);
    EXPECT_GT(one.characteristic, one.corner);
    ASSERT_EQ(three.stress.size(), 3u);
    EXPECT_LT(three.stress[0], 0.2);
    EXPECT_GT(three.stress[0], three.stress[1]);
    EXPECT_GT(three.stress[1], three.stress[2]);
    // Far below, the stress is that of a point load: 3 P / (2 pi z2).
    const auto deep = settlement(0.2, 1000, 1000, {{20, 0.3, 80000}});
    EXPECT_NEAR(deep.stress[0], 3 * 0.2 * 1e6 / (2 * M_PI * 4e4 * 4e4), 1e-3 * deep.stress[0] + 1e-9);
    // The centre of a square settles about twice its corner on a deep layer.
    const auto half = settlement(0.2, 2000, 2000, {{20, 0.3, 2e6}});
    EXPECT_NEAR(half.centre / half.corner, 2, 0.01);
}
