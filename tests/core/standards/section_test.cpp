// The small mechanics shared by the standards, against closed forms.
#include <gtest/gtest.h>

#include "standards/cracked_section.h"
#include "standards/equilibrium.h"

using namespace talvik::standards;

TEST(CrackedSection, NeutralAxisBalancesFirstMoments) {
    for (double d : {120.0, 300.0, 700.0})
        for (double As : {300.0, 1200.0, 4000.0})
            for (double n : {6.0, 15.0}) {
                auto s = cracked(1000, d, As, n);
                EXPECT_NEAR(1000 * s.x * s.x / 2, n * As * (d - s.x), 1e-6 * n * As * d);
                EXPECT_GT(s.x, 0);
                EXPECT_LT(s.x, d);
                EXPECT_LT(s.I, uncracked(1000, d + 40, d, As, n).I);
            }
    EXPECT_EQ(cracked(1000, 200, 0, 7).I, 0);
}

TEST(UncrackedSection, WithoutSteelIsTheRectangle) {
    auto s = uncracked(1000, 200, 160, 0, 7);
    EXPECT_DOUBLE_EQ(s.x, 100);
    EXPECT_DOUBLE_EQ(s.I, 1000 * 200.0 * 200 * 200 / 12);
    EXPECT_GT(uncracked(1000, 200, 160, 2000, 7).x, 100) << "steel below draws the axis down";
}

TEST(Equilibrium, FindsTheRootOfAGrowingSum) {
    EXPECT_NEAR(neutralAxis(300, [](double x) { return x - 87.25; }), 87.25, 1e-9);
    EXPECT_NEAR(neutralAxis(300, [](double) { return -1.0; }), 300, 1e-6)
        << "no root inside: the whole depth";
}

TEST(Equilibrium, SteelYieldsAndChangesSign) {
    SteelForces shallow(1000, 500, 300, 40, 30, 0.0035, 200000, 435),
        deep(1000, 500, 300, 40, 250, 0.0035, 200000, 435);
    EXPECT_NEAR(shallow.tension, 435e3, 1e-6);
    EXPECT_LT(shallow.compression, 0) << "steel below the axis is in tension";
    EXPECT_NEAR(deep.compression, 500 * 435, 1e-6);
    EXPECT_NEAR(deep.tension, 1000 * 200000 * 0.0035 * 50 / 250, 1e-6);
    EXPECT_NEAR(deep.net(), deep.compression - deep.tension, 1e-9);
}
