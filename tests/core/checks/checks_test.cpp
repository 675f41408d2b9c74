#include "checks/checks.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

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

// What is shown agrees: the two numbers as they stand there have the ratio that stands beside them, and what is over
// is not shown as 1.00 or as a demand within its limit.
TEST(Checks, FiguresHaveTheRatioThatIsShown) {
    std::mt19937 random(7);
    auto u = [&](double a, double b) { return std::uniform_real_distribution<>(a, b)(random); };
    using units::Kind;
    for (int k = 0; k < 4000; ++k) {
        checks::Finding f;
        const Kind kinds[] = {Kind::MomentPerWidth, Kind::ForcePerWidth, Kind::Crack, Kind::SteelPerWidth,
                              Kind::ShearStress, Kind::Sag, Kind::Length};
        f.kind = kinds[k % 7];
        const auto system = k % 2 ? units::System::Metric : units::System::UsCustomary;
        f.limit = units::unit(f.kind, system).factor * std::exp(u(-2, 7));
        f.demand = f.limit * (k % 3 == 0 ? 1 + u(-0.01, 0.01) : u(0.05, 3));
        f.sense = k % 5 == 0 ? checks::Sense::AtLeast : checks::Sense::AtMost;
        f = checks::judged(f);
        const std::string ratio = checks::ratioText(f), figures = checks::figures(f, system);
        if (f.outcome == checks::Outcome::Over) {
            EXPECT_GT(std::stod(ratio), 1) << ratio;
        }
        const auto middle = figures.find(f.sense == checks::Sense::AtMost ? " of " : ", min ");
        ASSERT_NE(middle, std::string::npos) << figures;
        const double first = std::stod(figures), second = std::stod(figures.substr(middle + (f.sense == checks::Sense::AtMost ? 4 : 6)));
        if (first <= 0 || second <= 0) continue;  // next to nothing
        const double shown = f.sense == checks::Sense::AtMost ? first / second : second / first;
        EXPECT_NEAR(shown, std::stod(ratio), 0.0057) << figures << " " << ratio;
        EXPECT_EQ(shown > 1, f.outcome == checks::Outcome::Over) << figures << " " << ratio;
    }
}
