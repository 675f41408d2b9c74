#include "opinions/bench.h"

#include <gtest/gtest.h>

#include <cmath>

#include "model/edits.h"
#include "opinions/yield_lines.h"
#include "report/bench_page.h"
#include "standards/panel_coefficients.h"

namespace talvik {
namespace {

using opinions::BenchInput;

TEST(Bench, TwoWayMomentsAreTheCoefficientsTimesTheLoad) {
    auto basis = model::emptyProject().basis;
    BenchInput in;
    in.continuous[0] = false;
    auto a = opinions::bench(in, basis);
    ASSERT_TRUE(a.trouble.empty());
    double w = 1.35 * (0.2 * 25 + 1.5) + 1.5 * 3;
    EXPECT_NEAR(a.ultimate * 1000, w, 1e-9);
    auto c = standards::panelCoefficients(4500, 6000, {{false, true}, {true, true}});
    EXPECT_NEAR(a.rows[0].moment / 1000, c.spanShort * w * 4.5 * 4.5, 1e-9);
    for (const auto& r : a.rows) EXPECT_GE(r.provided, r.required);
    for (const auto& check : a.checks) EXPECT_NE(check.outcome, checks::Outcome::Over) << check.key;
    // The page holds bending at each place and the checks of the whole panel, with one working.
    EXPECT_EQ(a.brief.size(), a.rows.size() + 2);
    int told = 0;
    for (const auto& b : a.brief) told += !b.steps.empty() && b.key.ends_with("/flexure");
    EXPECT_EQ(told, 1);
}

// Statics of a strip of 4 m that is continuous at one end: V = w l/2 + M/l, less what stands within d of the
// face.
TEST(Bench, ShearBesideADiscontinuousEdgeIsThatOfTheOther) {
    auto basis = model::emptyProject().basis;
    BenchInput in;
    in.lx = 4000, in.ly = 8000;
    auto shear = [&](bool left, bool right) {
        in.continuous[0] = left, in.continuous[1] = right;
        auto a = opinions::bench(in, basis);
        for (const auto& c : a.checks)
            if (c.key.ends_with("shear")) return std::pair(c.demand, a.ultimate);
        return std::pair(0.0, 0.0);
    };
    auto [both, w] = shear(true, true);
    auto [one, same] = shear(false, true);
    ASSERT_GT(both, 0);
    EXPECT_EQ(w, same);
    const auto c = standards::panelCoefficients(4000, 8000, {{false, true}, {true, true}});
    EXPECT_NEAR(one - both, std::abs(c.supportShort) * w * 4000, 1e-6 * one);
    EXPECT_GT(one, 1.1 * both);
}

TEST(Bench, OneWayMomentsAndItsConditions) {
    auto basis = model::emptyProject().basis;
    BenchInput in;
    in.kind = BenchInput::Kind::OneWay;
    in.spans = 4;
    auto a = opinions::bench(in, basis);
    ASSERT_TRUE(a.trouble.empty());
    EXPECT_NEAR(a.rows[0].moment, 0.086 * a.ultimate * 25e6, 1e-6 * a.rows[0].moment);
    EXPECT_NEAR(a.rows[2].moment, 0.063 * a.ultimate * 25e6, 1e-6 * a.rows[2].moment);
    in.spans = 1;
    a = opinions::bench(in, basis);
    EXPECT_NEAR(a.rows[0].moment, a.ultimate * 25e6 / 8, 1e-6 * a.rows[0].moment);
    in.spans = 3;
    in.imposed = 0.02;
    a = opinions::bench(in, basis);
    EXPECT_NE(a.trouble.find("do not apply"), std::string::npos);
}

TEST(Bench, EveryStandardAnswersAndThePageTellsIt) {
    for (const auto& id : standards::standardIds())
        for (auto kind : {BenchInput::Kind::Section, BenchInput::Kind::OneWay, BenchInput::Kind::TwoWay}) {
            auto basis = model::emptyProject().basis;
            basis.standard = id;
            BenchInput in;
            in.kind = kind;
            auto a = opinions::bench(in, basis);
            ASSERT_TRUE(a.trouble.empty()) << id << a.trouble;
            auto page = report::benchPage(in, a, basis);
            auto html = report::html(page, report::Target::Page);
            EXPECT_NE(html.find(a.rows.front().bar), std::string::npos);
            EXPECT_NE(html.find("<svg"), std::string::npos);
            for (const auto& c : a.checks) EXPECT_FALSE(c.clause.empty()) << c.key;
        }
    BenchInput in;
    in.lx = 2000, in.ly = 5000;
    EXPECT_NE(opinions::bench(in, model::emptyProject().basis).trouble.find("one way"), std::string::npos);
    in = {};
    in.thickness = 0;
    EXPECT_FALSE(opinions::bench(in, model::emptyProject().basis).trouble.empty());
}

// Against the virtual work of roof-shaped mechanisms, their shape searched by brute force.
TEST(YieldLines, AreTheLeastOfAllRoofMechanisms) {
    for (double ratio : {1.0, 1.3, 2.0})
        for (int edges = 0; edges < 16; ++edges) {
            double a = 5000, b = 5000 * ratio, w = 0.01, i[4];
            for (int k = 0; k < 4; ++k) i[k] = edges >> k & 1 ? 1.2 : 0;
            // Ridge along b at x from the first edge of a; its ends y1, y2 from the edges of b. Unit sag of
            // the ridge.
            double most = 0;
            for (int n = 1; n < 48; ++n)
                for (int p = 1; p < 96; ++p)
                    for (int q = 1; p + q <= 96; ++q) {
                        double x = a * n / 48, y1 = b * p / 96, y2 = b * q / 96;
                        double outside = w * (a * (b - y1 - y2) / 2 + a * (y1 + y2) / 3);
                        double inside = b * ((1 + i[0]) / x + (1 + i[1]) / (a - x)) +
                                        a * ((1 + i[2]) / y1 + (1 + i[3]) / y2);
                        most = std::max(most, outside / inside);
                        // The ridge may run the other way too.
                        double u = b * n / 48, v1 = a * p / 96, v2 = a * q / 96;
                        outside = w * (b * (a - v1 - v2) / 2 + b * (v1 + v2) / 3);
                        inside = a * ((1 + i[2]) / u + (1 + i[3]) / (b - u)) +
                                 b * ((1 + i[0]) / v1 + (1 + i[1]) / v2);
                        most = std::max(most, outside / inside);
                    }
            EXPECT_NEAR(opinions::yieldLineMoment(w, a, b, i) / most, 1, 0.004) << ratio << " " << edges;
        }
}

}  // namespace
}  // namespace talvik
