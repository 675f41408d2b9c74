// The steel that runs give along a line.
#include "bars/steel.h"

#include <gtest/gtest.h>

#include <cmath>

#include "support/random_slab.h"

using namespace talvik;
using model::Role;

namespace {

struct OneSlab {
    model::Basis basis;
    std::shared_ptr<const standards::Standard> standard = standards::makeStandard("en1992");
    std::vector<bars::Run> runs;
    explicit OneSlab(std::vector<model::BarRun> bars) {
        for (auto& each : bars) {
            auto& run = runs.emplace_back(bars::Run{each});
            bars::size(run, 200, {basis, *standard});
        }
    }
    bars::Steel at(bool top, double u) const { return bars::steelAt(runs, top, u, 1); }
};

}  // namespace

TEST(Steel, GrowsAlongTheAnchorage) {
    const OneSlab s({{"b1", {}, Role::BottomMain, 0, 2400, "H12", 150}});
    const double lb = s.runs.front().anchorStart, full = M_PI * 36 / 150;
    EXPECT_GT(lb, 10 * 12);
    EXPECT_NEAR(s.at(false, 1200).effective, full, 1e-12);
    EXPECT_NEAR(s.at(false, lb / 2).effective, full / 2, 1e-12);
    EXPECT_NEAR(s.at(false, 0).effective, 0, 1e-12);
    EXPECT_NEAR(s.at(false, lb / 2).full, full, 1e-12);
    EXPECT_EQ(s.at(true, 1200).full, 0);
    EXPECT_EQ(s.at(false, 2500).full, 0);
}

// Where two runs lap, bars at 200 and at 150 lie side by side: their areas add up, and per metre there are 5
// + 6.67.
TEST(Steel, OfRunsThatLieTogetherIsSummedWithTheirCommonSpacing) {
    const OneSlab s({{"b1", {}, Role::BottomMain, 0, 2400, "H12", 200},
                     {"b2", {}, Role::BottomMain, 1800, 4000, "H16", 150}});
    const auto both = s.at(false, 2100);
    EXPECT_NEAR(both.full, M_PI * (36 / 200.0 + 64 / 150.0), 1e-12);
    EXPECT_NEAR(both.spacing, 1000 / (1000 / 200.0 + 1000 / 150.0), 1e-9);
    EXPECT_EQ(both.diameter, 16);
    EXPECT_EQ(s.at(false, 1000).spacing, 200);
}

// Fixed bars take the place of those chosen that lie alike and share more than half of the shorter's length.
TEST(Steel, FixedBarsReplaceTheChosenThatTheyMostlyCover) {
    auto run = [](Role role, double from, double to) {
        return bars::Run{{"b1", {}, role, from, to, "H12", 150}};
    };
    const auto chosen = run(Role::BottomMain, 0, 4000);
    EXPECT_TRUE(bars::replaces(run(Role::BottomMain, 0, 4000), chosen));
    EXPECT_TRUE(bars::replaces(run(Role::BottomMain, 3000, 4800), chosen)) << "1000 of 1800";
    EXPECT_FALSE(bars::replaces(run(Role::BottomMain, 3000, 5200), chosen)) << "1000 of 2200";
    EXPECT_TRUE(bars::replaces(run(Role::BottomMain, 1000, 1500), chosen)) << "all of a short one";
    EXPECT_FALSE(bars::replaces(run(Role::TopMain, 0, 4000), chosen));
    EXPECT_FALSE(bars::replaces(run(Role::BottomMain, 5000, 9000), chosen));
}
