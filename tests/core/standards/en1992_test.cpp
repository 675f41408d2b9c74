// EN 1992-1-1 against values of its own tables and against hand arithmetic.
#include "standards/en1992/en1992.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace talvik;
using namespace talvik::standards;

namespace {

en1992::Parameters parameters(const catalogs::ParameterValues& changes = {}) {
    return en1992::Parameters(catalogs::values(catalogs::parameterSet("parameters_en1992.json"), changes));
}
const Section slab{1000, 200, 165, 35, 30, 500};

}  // namespace

// Table 3.1, as printed there (two or three digits).
TEST(En1992, ConcreteFollowsTable31) {
    struct Row {
        double fck, fctm, Ecm, eps_c2, eps_cu2, n;
    };
    for (const Row& r :
         {Row{20, 2.2, 30, 2.0, 3.5, 2}, Row{25, 2.6, 31, 2.0, 3.5, 2}, Row{30, 2.9, 33, 2.0, 3.5, 2},
          Row{40, 3.5, 35, 2.0, 3.5, 2}, Row{50, 4.1, 37, 2.0, 3.5, 2}, Row{60, 4.4, 39, 2.3, 2.9, 1.6},
          Row{80, 4.8, 42, 2.5, 2.6, 1.4}}) {
        auto c = en1992::concrete(r.fck);
        EXPECT_NEAR(c.fctm, r.fctm, 0.05) << r.fck;
        EXPECT_NEAR(c.Ecm / 1000, r.Ecm, 0.55) << r.fck;
        EXPECT_NEAR(c.eps_c2 * 1000, r.eps_c2, 0.05);
        EXPECT_NEAR(c.eps_cu2 * 1000, r.eps_cu2, 0.05);
        EXPECT_NEAR(c.n, r.n, 0.05);
    }
    EXPECT_DOUBLE_EQ(en1992::concrete(50).lambda, 0.8);
    EXPECT_DOUBLE_EQ(en1992::concrete(90).lambda, 0.7);
    EXPECT_DOUBLE_EQ(en1992::concrete(90).eta, 0.8);
}

TEST(En1992, CombinationsOfEn1990) {
    auto use = *catalogs::imposedUse("C3");
    auto all = en1992::actionRules(parameters())->combinations(use);
    EXPECT_EQ(all[0].name, "1.35 G + 1.5 Q");
    EXPECT_EQ(all[0].clause, "EN 1990 (6.10)");
    EXPECT_EQ(all.back().factorQ, use.psi2);
    auto split = en1992::actionRules(parameters({{"use_6.10ab", 1}}))->combinations(use);
    EXPECT_NEAR(split[0].factorQ, 1.5 * 0.7, 1e-12);
    EXPECT_NEAR(split[1].factorG, 0.85 * 1.35, 1e-12);
    EXPECT_EQ(split[1].clause, "EN 1990 (6.10b)");
}

TEST(En1992, TheLeverArmCeilingOnlyAddsSteel) {
    auto with = en1992::flexureRules(parameters()),
         without = en1992::flexureRules(parameters({{"z_ceiling", 0}}));
    for (double M : {5e6, 1.5e7, 3e7, 8e7})
        EXPECT_GE(with->required(slab, M).As, without->required(slab, M).As * (1 - 1e-12));
    EXPECT_NEAR(with->required(slab, 1e7).z, 0.95 * 165, 1e-9);
}

TEST(En1992, BlockAndParabolaAgreeClosely) {
    auto rules = en1992::flexureRules(parameters());
    for (double As : {300.0, 800.0, 1500.0, 3000.0})
        for (double fck : {20.0, 30.0, 50.0, 70.0}) {
            Section s = slab;
            s.fc = fck;
            double block = rules->resistance(s, As, 0).M,
                   parabola = en1992::parabolaResistance(parameters(), s, As, 0).M;
            EXPECT_NEAR(parabola, block, 0.015 * block) << As << " " << fck;
        }
}

// Equilibrium of the doubly reinforced section, summed independently from the trace's own numbers.
TEST(En1992, DoublyReinforcedSectionIsInEquilibrium) {
    auto rules = en1992::flexureRules(parameters());
    for (double M : {1.65e8, 1.8e8, 2.2e8}) {
        auto r = rules->required(slab, M);
        ASSERT_TRUE(r.doubly);
        double C = 20.0 * 1000 * 0.8 * r.x, Cs = r.As2 * r.sigmaS2, T = r.As * 500 / 1.15;
        EXPECT_NEAR(C + Cs, T, 1e-6 * T);
        EXPECT_NEAR(C * (165 - 0.4 * r.x) + Cs * (165 - 35), M, 1e-6 * M);
        EXPECT_NEAR(r.x / 165, 0.448, 1e-12);
    }
}

TEST(En1992, ImpossibleWhereCompressionSteelIsTooDeep) {
    Section s = slab;
    s.d2 = 90;
    EXPECT_FALSE(en1992::flexureRules(parameters())->required(s, 3e8).possible);
    EXPECT_EQ(en1992::flexureRules(parameters())->required(s, 0).As, 0);
    EXPECT_EQ(en1992::flexureRules(parameters())->resistance(s, 0, 0).M, 0);
}

// v_min governs a lightly reinforced slab, the cube-root rule a heavily reinforced one.
TEST(En1992, ShearTakesTheLargerOfTwo) {
    auto rules = en1992::shearRules(parameters());
    double vmin = 0.035 * std::pow(2, 1.5) * std::sqrt(30.0) * 165;
    EXPECT_NEAR(rules->oneWay(slab, 200) / 1000, vmin, 1e-9);
    double v = 0.12 * 2 * std::cbrt(100 * 0.02 * 30) * 165;
    EXPECT_NEAR(rules->oneWay(slab, 99999) / 1000, v, 1e-9);
}

TEST(En1992, CrackRuleNeedsTensionAndSteel) {
    auto cracks = en1992::crackRules(parameters());
    CrackInput in{slab, 0, 600, 12, 190, 25, 2, 0.3};
    EXPECT_EQ(cracks->check(in).outcome, checks::Outcome::NotApplicable);
    in.M = 2e7, in.As = 0;
    EXPECT_EQ(cracks->check(in).outcome, checks::Outcome::NotChecked);
    in.As = 600;
    double first = cracks->check(in).demand;
    in.M = 3e7;
    EXPECT_GT(cracks->check(in).demand, first);
}

TEST(En1992, EndAnchorageByHand) {
    // V = 30 kN/m, H10-200: F = 30/0.9 = 33.3 kN, sigma = 33.3e3/392.7 = 84.9 MPa, f_bd = 2.25*0.7*2.896/1.5
    // = 3.04, l_b,rqd = 2.5*84.9/3.04 = 69.8; the least is 100.
    auto d = en1992::anchorageRules(parameters());
    EndAnchorageInput in;
    in.section = {1000, 200, 170, 30, 30, 500};
    in.V = 30e3, in.As = 392.7;
    in.bar = {10, 78.5, 30, 500, 435, 25, true, false, 200, 100};
    in.beyondFace = 120;
    auto f = d->atEnd(in);
    EXPECT_NEAR(f.demand, 100, 1e-9);
    EXPECT_EQ(f.outcome, checks::Outcome::Within);
    in.V = 150e3;
    f = d->atEnd(in);
    EXPECT_NEAR(
        f.demand,
        2.5 * (150e3 / 0.9 / 392.7) / (2.25 * 0.7 * en1992::concrete(30).fctm / 1.5) * (1 - 0.15 * 1.5), 0.2);
    EXPECT_EQ(f.outcome, checks::Outcome::Over);
}

TEST(En1992, BondIsPoorHighInThickSlabs) {
    auto d = en1992::anchorageRules(parameters());
    EXPECT_TRUE(d->goodBond(250));
    EXPECT_FALSE(d->goodBond(251));
    EXPECT_EQ(en1992::barEndRules()->momentShift(165, 12), 165);
    EXPECT_EQ(en1992::supportRules(parameters())->endFixity(), 0.25);
}

// Sag: a cracked section curves more than an uncracked one, creep and shrinkage add, and the sign follows the
// moment.
TEST(En1992, CurvaturesBehave) {
    auto sag = en1992::sagRules(parameters());
    auto at = [&](double m, double creep, double shrinkage) {
        SagInput in{slab, {{0, m, m, m, 0, 600, 165, 600, 35}}, creep, shrinkage, false};
        return sag->curvatures(in).total[0];
    };
    EXPECT_GT(at(3e7, 0, 0) / 3e7, 1.5 * at(1e7, 0, 0) / 1e7);
    EXPECT_GT(at(3.5e7, 2, 0), at(3.5e7, 0, 0));
    EXPECT_GT(at(3.5e7, 2, 4e-4), at(3.5e7, 2, 0));
    EXPECT_NEAR(at(-2e7, 2, 4e-4), -at(2e7, 2, 4e-4), 1e-12);
    EXPECT_EQ(sag->limits().size(), 2u);
}

TEST(En1992, CoefficientsNeedTheirConditions) {
    auto rules = en1992::actionRules(parameters());
    ActionRules::Spans s{{5000, 5000, 5000}, {4700, 4700, 4700}, false, false, 7e-3, 3e-3, 40e6, true};
    auto c = rules->coefficients(s);
    EXPECT_EQ(c.refusal, "");
    EXPECT_DOUBLE_EQ(c.span[0], 0.086);
    EXPECT_DOUBLE_EQ(c.span[1], 0.063);
    EXPECT_DOUBLE_EQ(c.support[1], -0.086);
    auto refused = [&](auto change) {
        auto other = s;
        change(other);
        return rules->coefficients(other).refusal;
    };
    EXPECT_NE(refused([](auto& x) { x.lengths = {5000, 5000}; }), "");
    EXPECT_NE(refused([](auto& x) { x.lengths[1] = 8000; }), "");
    EXPECT_NE(refused([](auto& x) { x.imposed = 6e-3; }), "");
    EXPECT_NE(refused([](auto& x) { x.area = 20e6; }), "");
    s.cantileverEnd = true;
    EXPECT_TRUE(std::isnan(rules->coefficients(s).span[2]));
}
