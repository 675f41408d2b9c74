// What bars have to keep, against values worked out by hand.
#include "verify/section_checks.h"

#include <gtest/gtest.h>

#include <cmath>

#include "model/edits.h"

namespace talvik {
namespace {

using checks::Outcome;

class SectionChecks : public testing::Test {
  protected:
    model::Basis basis = model::emptyProject().basis;
    std::shared_ptr<const standards::Standard> standard = standards::makeStandard("en1992", {});
    standards::Section section{1000, 200, 170, 40, 30, 500};
    double crackLimit = 0;  // of a face that service loads put in tension
    bool twoWay = false;
    std::vector<verify::NamedFinding> with(verify::BarsAt bars, bool tracing = false) const {
        return verify::sectionChecks(section, bars, basis, *standard, crackLimit, twoWay, tracing);
    }
    static const verify::NamedFinding& named(const std::vector<verify::NamedFinding>& all, const std::string& name) {
        for (const auto& c : all)
            if (c.name == name) return c;
        ADD_FAILURE() << "there is no check " << name;
        return all.front();
    }
};

TEST_F(SectionChecks, LimitsAreThoseOfTheClauses) {
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

TEST_F(SectionChecks, EachIsOverByItself) {
    auto over = [&](verify::BarsAt bars, const std::string& name) {
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

// EN 1992-1-1 (7.1) by hand: h = 350, d = 302, 16 mm bars, C30/37 (f_ctm 2.896), 0.3 mm. k = 0.965; (7.6N) gives
// phi* = 16 * 2.9/2.896 * 4 * 48 / (0.4 * 350) = 21.97, between 25 (200 MPa) and 16 (240 MPa): 213.5 MPa.
TEST_F(SectionChecks, ThickSlabsNeedSteelForCracking) {
    section = {1000, 350, 302, 48, 30, 500};
    EXPECT_EQ(with({0.503, 400, 400, 16}).size(), 5u) << "not in tension";
    crackLimit = 0.3;
    auto all = with({0.503, 400, 400, 16});
    const auto& f = named(all, "crack-least").finding;
    const double fctm = 0.3 * std::pow(30, 2.0 / 3), star = 16 * 2.9 / fctm * 4 * 48 / (0.4 * 350),
                 stress = 200 + 40 * (25 - star) / 9;
    EXPECT_NEAR(star, 21.97, 0.01);
    EXPECT_NEAR(f.limit, 0.4 * 0.965 * fctm * 1000 * 175 / stress / 1000, 1e-6);
    EXPECT_GT(f.limit, 0.8);
    EXPECT_EQ(f.outcome, Outcome::Over);
    section.h = 200, section.d = 160;  // 7.3.3(1)
    EXPECT_EQ(with({0.503, 200, 200, 12}).size(), 5u);
}

// ACI 318-19 8.7.2.2: 2h at critical sections of two-way slabs, 3h of one-way ones; clauses follow.
TEST_F(SectionChecks, TwoWaySlabsHaveTheirOwnSpacingAndClauses) {
    standard = standards::makeStandard("aci318-si", {});
    section = {1000, 150, 120, 30, 30, 420};
    auto one = with({0.565, 200, 200, 12});
    twoWay = true;
    auto two = with({0.565, 200, 200, 12});
    EXPECT_NEAR(named(one, "spacing").finding.limit, 450, 1e-9);
    EXPECT_NEAR(named(two, "spacing").finding.limit, 300, 1e-9);
    EXPECT_EQ(named(one, "minimum").finding.clause, "ACI 318-19 7.6.1.1");
    EXPECT_EQ(named(two, "minimum").finding.clause, "ACI 318-19 8.6.1.1");
    EXPECT_EQ(named(two, "spacing").finding.clause, "ACI 318-19 8.7.2.2");
}

TEST_F(SectionChecks, LeastSteelCanBeSwitchedOffAndSaysSo) {
    basis.minimumSteel = false;
    auto all = with({0.1, 200, 200, 8});
    const auto& least = named(all, "minimum").finding;
    EXPECT_EQ(least.outcome, Outcome::NotChecked);
    EXPECT_NE(least.reason.find("disabled"), std::string::npos);
}

TEST_F(SectionChecks, WorkingEndsInTheLimit) {
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
