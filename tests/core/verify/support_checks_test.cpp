// Bottom bars over supports: those of the span itself count, by hand.
#include "verify/support_checks.h"

#include <gtest/gtest.h>

using namespace talvik;
using namespace talvik::verify;

TEST(BottomOver, BarsOfTheNeighbourDoNotHoldTheSpan) {
    const auto standard = standards::makeStandard("en1992");
    // A wall of 200 at 5,000; 565 mm2/m in both spans, H12.
    OverSupport wall;
    wall.from = 4900, wall.to = 5100;
    const std::optional<BottomOfSpan> spans[2] = {BottomOfSpan{0.565, 12, 4800}, BottomOfSpan{0.565, 12, 4800}};
    auto covers = [&](std::vector<BottomRun> runs) {
        const auto all = bottomOver(wall, spans, runs, *standard->barEnds, false);
        return all.front().finding.outcome == checks::Outcome::Within;
    };
    EXPECT_TRUE(covers({{0, 5150, 0.565, 200}, {4850, 10000, 0.565, 200}}));
    // Those of the first span end 500 short: what reaches over the wall is the neighbour's.
    EXPECT_FALSE(covers({{0, 4400, 0.565, 200}, {4850, 10000, 0.565, 200}}));
    EXPECT_FALSE(covers({{0, 5150, 0.565, 200}, {5600, 10000, 0.565, 200}}));
    EXPECT_TRUE(covers({{0, 10000, 0.565, 200}}));
}
