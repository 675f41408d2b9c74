#include "checks/checks.h"

#include <gtest/gtest.h>

using namespace talvik;
using namespace talvik::checks;

namespace {

Check make(const char* key, double demand, double limit, Sense sense = Sense::AtMost) {
    Check c;
    c.key = key;
    c.kind = units::Kind::Length;
    c.demand = demand;
    c.limit = limit;
    c.sense = sense;
    c.outcome = judged(c).outcome;
    return c;
}

}  // namespace

TEST(Checks, RatioReadsTheSense) {
    EXPECT_DOUBLE_EQ(ratio(make("a", 50, 100)), 0.5);
    EXPECT_DOUBLE_EQ(ratio(make("a", 50, 100, Sense::AtLeast)), 2);
    EXPECT_DOUBLE_EQ(ratio(make("a", 0, 0)), 0);
    EXPECT_DOUBLE_EQ(ratio(make("a", 1, 0)), 99);
    EXPECT_EQ(make("a", 100, 100).outcome, Outcome::Within);
    EXPECT_EQ(make("a", 100.001, 100).outcome, Outcome::Over);
}

TEST(Checks, WorstFirstWithStableTies) {
    std::vector<Check> all{make("b", 10, 100), make("a", 10, 100), make("over", 120, 100),
                           make("close", 99, 100)};
    Check omitted;
    omitted.key = "omitted";
    omitted.outcome = Outcome::NotChecked;
    all.push_back(omitted);
    std::vector<std::string> keys;
    for (const auto* c : worstFirst(all)) keys.push_back(c->key);
    EXPECT_EQ(keys, (std::vector<std::string>{"over", "close", "a", "b", "omitted"}));
    Summary s = summary(all);
    EXPECT_EQ(s.over, 1);
    EXPECT_EQ(s.within, 3);
    EXPECT_EQ(s.notChecked, 1);
}

TEST(Checks, FiguresReadAsWords) {
    EXPECT_EQ(figures(make("a", 250, 300), units::System::Metric), "250 of 300 mm");
    EXPECT_EQ(figures(make("a", 250, 300, Sense::AtLeast), units::System::Metric), "250, min 300 mm");
    EXPECT_EQ(figures(notChecked("c", "why"), units::System::Metric), "not checked");
}
