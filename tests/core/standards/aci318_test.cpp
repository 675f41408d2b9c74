// ACI 318-19 against hand arithmetic in its own units.
#include "standards/aci318/aci318.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace talvik;
using namespace talvik::standards;

namespace {

const auto& si = aci318::si();
const auto& us = aci318::inchPound();
const catalogs::ParameterValues values = catalogs::values(catalogs::parameterSet("parameters_aci318.json"));
constexpr double in = 25.4, psi = 4.4482216152605 / 645.16, kipFoot = 4448.2216152605 * 304.8;

}  // namespace

// A 12 in wide strip, d = 6 in, #5 at 8 in (0.465 in2), 4000 psi, 60 ksi: a = 0.465*60/(0.85*4*12) = 0.684
// in, Mn = 27.9*(6 - 0.342) = 157.9 kip in, phi Mn = 11.84 kip ft.
TEST(Aci318, FlexureByHandInInchPound) {
    auto r = aci318::flexureRules(us)->resistance({12 * in, 7 * in, 6 * in, 1 * in, 4000 * psi, 60000 * psi},
                                                  0.465 * in * in, 0);
    double a = 0.465 * 60 / (0.85 * 4 * 12), M = 0.9 * 0.465 * 60 * (6 - a / 2) / 12;
    EXPECT_NEAR(r.M / kipFoot, M, 1e-6);
    EXPECT_NEAR(r.x / in, a / 0.85, 1e-6);
    EXPECT_EQ(r.phi, 0.9);
}

TEST(Aci318, PhiFallsBetweenTheLimits) {
    Section s{300, 600, 540, 60, 28, 420};
    auto rules = aci318::flexureRules(si);
    double last = 1;
    for (double As = 500; As < 9000; As += 100) {
        auto r = rules->resistance(s, As, 0);
        EXPECT_LE(r.phi, last + 1e-12);
        EXPECT_GE(r.phi, 0.65);
        EXPECT_EQ(r.phi == 0.9, r.strain >= 420.0 / 200000 + 0.003 - 1e-12);
        last = r.phi;
    }
    EXPECT_LT(last, 0.7);
    EXPECT_EQ(rules->ductility(s, 1000, 0).outcome, checks::Outcome::Within);
    EXPECT_EQ(rules->ductility(s, 8000, 0).outcome, checks::Outcome::Over);
}

TEST(Aci318, ShearByHandInInchPound) {
    // 8 * lambda_s * rho^(1/3) * sqrt(fc) * b d with d = 6 in: lambda_s = 1.
    Section s{12 * in, 7 * in, 6 * in, 0, 4000 * psi, 60000 * psi};
    double V = 0.75 * 8 * std::cbrt(0.465 / 72) * std::sqrt(4000.0) * 72;
    EXPECT_NEAR(aci318::shearRules(us, 1)->oneWay(s, 0.465 * in * in) / 4.4482216152605, V, 1e-6 * V);
    EXPECT_LT(aci318::shearRules(us, 0.75)->oneWay(s, 300), aci318::shearRules(us, 1)->oneWay(s, 300));
}

TEST(Aci318, LeastThicknessOfTable7311) {
    auto slenderness = aci318::slendernessRules(si);
    auto h = [&](SpanSystem system, double fy) {
        SlendernessInput input{{1000, 200, 165, 30, 28, fy}, system, 5000, 0, 0, 0};
        return slenderness->check(input).limit;
    };
    EXPECT_NEAR(h(SpanSystem::Simple, 420), 250, 1e-9);
    EXPECT_NEAR(h(SpanSystem::End, 420), 5000 / 24.0, 1e-9);
    EXPECT_NEAR(h(SpanSystem::Interior, 420), 5000 / 28.0, 1e-9);
    EXPECT_NEAR(h(SpanSystem::Cantilever, 420), 500, 1e-9);
    EXPECT_NEAR(h(SpanSystem::Simple, 280), 250 * 0.8, 1e-9);
    EXPECT_NEAR(slenderness->firstThickness(SpanSystem::End, 5000, 30, {1000, 0, 0, 0, 28, 420}), 210, 1e-9);
}

TEST(Aci318, CrackSpacingOfTable2432) {
    EXPECT_NEAR(aci318::crackSpacing(si, 280, 20), 300, 1e-9);
    EXPECT_NEAR(aci318::crackSpacing(si, 280, 50), 380 - 125, 1e-9);
    EXPECT_NEAR(aci318::crackSpacing(us, 40000 * psi, 2 * in) / in, 10, 1e-9);
    auto cracks = aci318::crackRules(si);
    CrackInput input{{1000, 200, 165, 35, 28, 420}, 2e7, 600, 12, 310, 25, 2, 0.3};
    EXPECT_EQ(cracks->check(input).outcome, checks::Outcome::Over);
    input.spacing = 200;
    EXPECT_EQ(cracks->check(input).outcome, checks::Outcome::Within);
    input.M = 0;
    EXPECT_EQ(cracks->check(input).outcome, checks::Outcome::NotApplicable);
}

TEST(Aci318, LastingSagFollowsTheTimeFactor) {
    auto sag = [&](double xi, double topSteel) {
        auto p = values;
        p["xi"] = xi;
        SagInput input{
            {1000, 200, 165, 35, 28, 420}, {{0, 1.5e7, 2e7, 1.2e7, 0, 600, 165, topSteel, 35}}, 0, 0, false};
        auto k = aci318::sagRules(si, p)->curvatures(input);
        return k.after[0] - k.live[0];
    };
    EXPECT_NEAR(sag(2, 0), 2 * sag(1, 0), 1e-15);
    EXPECT_NEAR(sag(2, 1650), sag(2, 0) / 1.5, 1e-12);  // rho' = 1 %
}

TEST(Aci318, UncrackedSpanKeepsItsGrossInertia) {
    SagInput input{{1000, 200, 165, 35, 28, 420}, {{0, 5e6, 5e6, 0, 0, 600, 165, 0, 35}}, 0, 0, false};
    double Ec = 4700 * std::sqrt(28.0), Ig = 1000 * std::pow(200, 3) / 12;
    EXPECT_NEAR(aci318::sagRules(si, values)->curvatures(input).live[0], 5e6 / (Ec * Ig), 1e-15);
}

TEST(Aci318, HookOfNumberFour) {
    // l_dh = fy psi_r psi_o psi_c db^1.5 / (55 sqrt(fc)), #4, 4000 psi, wide spacing.
    auto d = aci318::anchorageRules(us);
    AnchorageInput bar{0.5 * in, 129, 4000 * psi, 60000 * psi, 0, 0.75 * in, true, true, 8 * in, 100};
    double ldh = 60000 * 1.0 * 1.25 * (4000.0 / 15000 + 0.6) / (55 * std::sqrt(4000.0)) * std::pow(0.5, 1.5);
    EXPECT_NEAR(d->length(bar) / in, std::max(ldh, 6.0), 1e-6);
    bar.spacing = 2.5 * in;  // closer than six diameters
    EXPECT_GT(d->length(bar) / in, ldh * 1.5);
    EXPECT_EQ(d->hookTail(10), 120);
}

TEST(Aci318, TopBarsReachPastInflection) {
    auto d = aci318::barEndRules(si);
    EXPECT_EQ(d->topReach(4800, 165, 12), 300);
    EXPECT_EQ(d->topReach(1600, 165, 12), 165);
    EXPECT_EQ(d->momentShift(120, 12), 144);
}

TEST(Aci318, EndAnchorageAtASimpleSupport) {
    auto d = aci318::anchorageRules(si);
    EndAnchorageInput input;
    input.section = {1000, 200, 165, 35, 28, 420};
    input.V = 40e3, input.As = 600;
    input.bar = {12, 113, 28, 420, 420, 25, true, false, 190, 100};
    input.beyondFace = 100, input.beyondCentre = 20;
    EXPECT_EQ(d->atEnd(input).outcome, checks::Outcome::Over) << "less than 150 mm into the support";
    input.beyondFace = 200, input.beyondCentre = 90;
    auto f = d->atEnd(input);
    double Mn = 600 * 420 * (165 - 600 * 420 / (0.85 * 28 * 1000) / 2);
    EXPECT_NEAR(f.limit, 1.3 * Mn / 40e3 + 90, 1e-6);
    EXPECT_EQ(f.outcome, checks::Outcome::Within);
    input.bar.hooked = true;
    EXPECT_NEAR(d->atEnd(input).limit, 150, 1e-9);
}

TEST(Aci318, CombinationsAndCoefficients) {
    auto rules = aci318::actionRules();
    auto all = rules->combinations(*catalogs::imposedUse("B"));
    EXPECT_EQ(all[0].factorG, 1.4);
    EXPECT_EQ(all[1].factorQ, 1.6);
    ActionRules::Spans s{{5000, 5500, 5000}, {4700, 5200, 4700}, false, false, 6e-3, 4e-3, 40e6, true};
    auto c = rules->coefficients(s);
    EXPECT_EQ(c.refusal, "");
    EXPECT_TRUE(c.onClearSpan);
    EXPECT_NEAR(c.span[0], 1.0 / 14, 1e-15);
    EXPECT_NEAR(c.support[1], -0.1, 1e-15);
    s.lengths[1] = 6100;
    EXPECT_NE(rules->coefficients(s).refusal.find("20 %"), std::string::npos);
    s.lengths = {5000}, s.clear = {4700};
    EXPECT_NE(rules->coefficients(s).refusal, "");
    ActionRules::Spans two{{5000, 5000}, {4700, 4700}, false, false, 6e-3, 4e-3, 40e6, false};
    EXPECT_NEAR(rules->coefficients(two).support[1], -1.0 / 9, 1e-15);
    EXPECT_NEAR(rules->coefficients(two).span[0], 1.0 / 11, 1e-15);
}
