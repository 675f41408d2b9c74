// What bars have to keep, against values worked out by hand.
#include "design/bar_checks.h"

#include <gtest/gtest.h>

#include <cmath>

#include "model/edits.h"

namespace talvik {
namespace {

using checks::Outcome;

class BarChecks : public testing::Test {
  protected:
    model::Basis basis = model::emptyProject().basis;
    std::shared_ptr<const standards::Standard> standard = standards::makeStandard("en1992", {});
    standards::Section section{1000, 200, 170, 40, 30, 500};
    std::vector<design::BarCheck> with(design::BarsAt bars, bool tracing = false) const {
        return design::barChecks(section, bars, basis, *standard, tracing);
    }
    static const design::BarCheck& named(const std::vector<design::BarCheck>& all, const std::string& name) {
        for (const auto& c : all)
            if (c.name == name) return c;
        ADD_FAILURE() << "there is no check " << name;
        return all.front();
    }
};

TEST_F(BarChecks, LimitsAreThoseOfTheClauses) {
    basis.aggregate = 20;
    auto all = with({0.565, 200, 200, 12});
    ASSERT_EQ(all.size(), 5u);
    // 0.26 f_ctm / f_yk d with f_ctm = 0.3 30^(2/3) (9.2.1.1); 4 % of the concrete; 2 h and 250 mm in peak
    // regions (9.3.1.1); d_g + 5 mm (8.2).
    EXPECT_NEAR(named(all, "minimum").finding.limit, 0.26 * 0.3 * std::pow(30, 2 / 3.0) / 500 * 170, 1e-6);
    EXPECT_NEAR(named(all, "maximum").finding.limit, 0.04 * 200, 1e-9);
    EXPECT_NEAR(named(all, "spacing").finding.limit, 250, 1e-9);
    EXPECT_NEAR(named(all, "clear").finding.limit, 25, 1e-9);
    EXPECT_NEAR(named(all, "clear").finding.demand, 188, 1e-9);
    for (const auto& c : all) EXPECT_EQ(c.finding.outcome, Outcome::Within) << c.name;
}

TEST_F(BarChecks, EachIsOverByItself) {
    auto over = [&](design::BarsAt bars, const std::string& name) {
        for (const auto& c : with(bars))
            EXPECT_EQ(c.finding.outcome == Outcome::Over, c.name == name) << c.name << " for " << name;
    };
    over({0.2, 200, 200, 8}, "minimum");
    over({0.565, 300, 300, 12}, "spacing");
    over({0.565, 200, 30, 12}, "clear");
    auto heavy = with({9, 200, 200, 32});
    EXPECT_EQ(named(heavy, "maximum").finding.outcome, Outcome::Over);
    EXPECT_EQ(named(heavy, "ductility").finding.outcome, Outcome::Over);
}

TEST_F(BarChecks, LeastSteelCanBeSwitchedOffAndSaysSo) {
    basis.minimumSteel = false;
    auto all = with({0.1, 200, 200, 8});
    const auto& least = named(all, "minimum").finding;
    EXPECT_EQ(least.outcome, Outcome::NotChecked);
    EXPECT_NE(least.reason.find("switched off"), std::string::npos);
}

TEST_F(BarChecks, WorkingEndsInTheLimit) {
    for (const char* id : {"en1992", "aci318-si", "aci318-us"}) {
        standard = standards::makeStandard(id, {});
        for (const auto& c : with({0.565, 200, 200, 12})) EXPECT_TRUE(c.steps.empty());
        for (const auto& c : with({0.565, 200, 200, 12}, true)) {
            EXPECT_FALSE(c.steps.empty()) << id << " " << c.name;
            for (const auto& step : c.steps) EXPECT_NE(step.clause, "") << id << " " << c.name;
        }
    }
}

}  // namespace
}  // namespace talvik
