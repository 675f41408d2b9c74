#include "actions/actions.h"

#include <gtest/gtest.h>

#include <algorithm>

using namespace talvik::actions;

TEST(SpanArrangements, AllAlternateAndNeighbours) {
    auto all = spanArrangements({"1", "2", "3", "4"});
    ASSERT_EQ(all.size(), 6u);
    auto has = [&](std::vector<bool> loaded) {
        return std::any_of(all.begin(), all.end(), [&](const auto& a) { return a.loaded == loaded; });
    };
    EXPECT_TRUE(has({true, true, true, true}));
    EXPECT_TRUE(has({true, false, true, false}));
    EXPECT_TRUE(has({false, true, false, true}));
    for (std::size_t i = 0; i < 3; ++i) {
        std::vector<bool> pair(4, false);
        pair[i] = pair[i + 1] = true;
        EXPECT_TRUE(has(pair));
    }
    EXPECT_EQ(all[3].name, "1 and 2");
}

TEST(SpanArrangements, OneAndTwoSpans) {
    EXPECT_EQ(spanArrangements({"1"}).size(), 1u);
    EXPECT_EQ(spanArrangements({"1", "2"}).size(), 3u);
}
