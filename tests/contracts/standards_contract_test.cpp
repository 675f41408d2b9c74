// What every standard must keep, whatever it says: run over the catalogue, so that a new standard is covered
// by being listed.
#include <gtest/gtest.h>

#include <cmath>
#include <set>

#include "design/design.h"
#include "model/edits.h"
#include "standards/rules.h"
#include "support/random_slab.h"
#include "units/units.h"

using namespace talvik;
using namespace talvik::standards;

class EveryStandard : public ::testing::TestWithParam<std::string> {
  protected:
    std::shared_ptr<const Standard> standard = makeStandard(GetParam());
    std::vector<Section> sections() const {
        std::vector<Section> all;
        for (double h : {140.0, 200.0, 320.0})
            for (double fc : {20.0, 30.0, 50.0, 60.0})
                for (double fy : {420.0, 500.0}) all.push_back({1000, h, h - 35, 35, fc, fy});
        return all;
    }
};

namespace {

// Stored and printed forms of every step give its result.
void expectTrue(const trace::Step& step, const std::string& where) {
    EXPECT_FALSE(step.clause.empty()) << where << ": " << step.symbol << " names no clause";
    if (step.expression.empty()) {
        EXPECT_TRUE(step.inputs.empty());
        return;
    }
    std::map<std::string, double, std::less<>> symbols;
    for (const auto& q : step.inputs) symbols[q.symbol] = q.value;
    auto stored = units::evaluate(step.expression, symbols);
    ASSERT_TRUE(stored.value) << where << ": " << step.expression << ": " << stored.error;
    double scale = std::max(std::abs(step.result), 1e-6);
    EXPECT_NEAR(*stored.value, step.result, 1e-9 * scale)
        << where << ": " << step.symbol << " = " << step.expression;
    auto printed = units::evaluate(trace::substitutedExpression(step));
    ASSERT_TRUE(printed.value) << where << ": " << trace::substitutedExpression(step) << ": "
                               << printed.error;
    // Five printed digits; differences of nearly equal numbers lose some of them.
    EXPECT_NEAR(*printed.value, step.result, 1e-2 * scale)
        << where << ": " << trace::substitutedExpression(step);
}

}  // namespace

TEST_P(EveryStandard, IsComplete) {
    ASSERT_TRUE(standard);
    EXPECT_EQ(standard->id, GetParam());
    EXPECT_FALSE(standard->title.empty());
    // Every facet is there, or it is said why not; and nothing is said of others.
    std::set<std::string> facets;
    standards::forEachFacet(*standard, [&](const std::string& name, const void* facet) {
        facets.insert(name);
        const auto why = standard->without.find(name);
        EXPECT_NE(facet == nullptr, why == standard->without.end()) << name;
        EXPECT_TRUE(facet || why == standard->without.end() || why->second.size() > 10) << name;
    });
    EXPECT_GE(facets.size(), 12u);
    for (const auto& [name, why] : standard->without) EXPECT_TRUE(facets.contains(name)) << name;
    EXPECT_FALSE(standard->omissions.empty());
    for (const auto& o : standard->omissions) EXPECT_FALSE(o.reason.empty()) << o.key;
    auto combinations = standard->actions->combinations(*catalogs::imposedUse("B"));
    for (auto state : {actions::LimitState::Ultimate, actions::LimitState::Characteristic,
                       actions::LimitState::Frequent, actions::LimitState::QuasiPermanent})
        EXPECT_TRUE(std::any_of(combinations.begin(), combinations.end(),
                                [&](const auto& c) { return c.state == state && !c.clause.empty(); }));
}

// Required steel, put into the resistance, resists the moment; without the ceiling on z exactly.
TEST_P(EveryStandard, RequiredSteelResistsItsMoment) {
    for (const Section& s : sections())
        for (double share : {0.05, 0.2, 0.4, 0.7, 0.9, 1.2}) {
            double M = share * 0.15 * s.fc * s.b * s.d * s.d;
            auto need = standard->flexure->required(s, M);
            if (!need.possible) continue;
            auto r = standard->flexure->resistance(s, need.As, need.As2);
            EXPECT_GE(r.M, M * (1 - 2e-3)) << s.h << " " << s.fc << " " << share;
            EXPECT_LE(r.M, M * 1.06);
        }
}

// More steel never lowers the resistance of a tension-controlled section, and required steel grows with the
// moment.
TEST_P(EveryStandard, MoreSteelNeverLowersTensionControlledResistance) {
    for (const Section& s : sections()) {
        double last = 0;
        for (double As = 100; As < 12000; As += 50) {
            if (standard->flexure->ductility(s, As, 0).outcome != checks::Outcome::Within) break;
            double M = standard->flexure->resistance(s, As, 0).M;
            EXPECT_GE(M, last) << As;
            last = M;
        }
        EXPECT_GT(last, 0);
        double As = 0;
        for (double M = 1e6; M < 1.5e8; M += 1e6) {
            auto need = standard->flexure->required(s, M);
            if (!need.possible) break;
            EXPECT_GE(need.As + 1e-9, As);
            As = need.As;
        }
    }
}

TEST_P(EveryStandard, ShearGrowsWithSteelAndStrength) {
    for (const Section& s : sections()) {
        double last = 0;
        for (double As : {100.0, 300.0, 600.0, 1200.0, 3000.0}) {
            double V = standard->shear->oneWay(s, As);
            EXPECT_GE(V, last);
            last = V;
        }
        Section stronger = s;
        stronger.fc += 10;
        EXPECT_GE(standard->shear->oneWay(stronger, 600), standard->shear->oneWay(s, 600));
    }
}

TEST_P(EveryStandard, DetailingIsSensible) {
    const auto& d = *standard->steel;
    const auto& bars = *standard->anchorage;
    for (const Section& s : sections()) {
        EXPECT_GT(d.minimum(s), 0);
        EXPECT_GT(d.maximum(s), d.minimum(s));
        EXPECT_GT(d.spacing(SteelRules::Role::Main, true, s.h), d.clear(16, 20));
        EXPECT_GE(d.spacing(SteelRules::Role::Secondary, false, s.h),
                  d.spacing(SteelRules::Role::Main, true, s.h));
        AnchorageInput in{12, 113, s.fc, s.fy, bars.designYield(s.fy), 25, true, false, 200, 100};
        double good = bars.length(in);
        in.good = false;
        EXPECT_GE(bars.length(in), good);
        EXPECT_GE(bars.lap(in), bars.length(in) * (1 - 1e-9));
    }
    for (bool twoWay : {false, true}) {
        const auto c = d.clauses(twoWay);
        for (const auto& clause : {c.minimum, c.maximum, c.spacing, c.clear, c.secondary, bars.clause(twoWay),
                                   bars.lapClause(), bars.bendClause(), standard->barEnds->clause(twoWay)})
            EXPECT_FALSE(clause.empty());
    }
}

// Closer bars of the same size never crack wider or break the spacing rule more.
TEST_P(EveryStandard, CloserBarsAreNeverWorseForCracks) {
    for (const Section& s : sections()) {
        double last = 0;
        for (double spacing : {75.0, 100.0, 125.0, 150.0}) {
            CrackInput in{s, 2e7, 113.1 * 1000 / spacing, 12, spacing, 29, 2, 0.3};
            double r = checks::ratio(standard->cracks->check(in));
            EXPECT_GE(r, last);
            last = r;
        }
    }
}

// Every step of every check of random slabs, and of sections pushed into compression steel.
TEST_P(EveryStandard, EveryStepNamesAClauseAndReevaluates) {
    std::size_t steps = 0;
    for (unsigned seed = 1; seed <= 12; ++seed) {
        model::Project p = test::randomProject(seed);
        p.basis.standard = GetParam();
        const auto design = design::run(p);
        for (const auto& c : design.slab(0).checks) {
            if (c.outcome != checks::Outcome::NotChecked && c.topic != checks::Topic::Omission) {
                EXPECT_FALSE(c.clause.empty()) << c.key;
            }
            for (const auto& step : c.steps) expectTrue(step, c.key), ++steps;
        }
    }
    EXPECT_GT(steps, 1000u);
    trace::Steps heavy;
    Section s{1000, 200, 165, 35, 25, 500};
    standard->flexure->required(s, 2.2e8, &heavy);
    standard->flexure->resistance(s, 3000, 800, &heavy);
    EXPECT_GT(heavy.size(), 6u);
    for (const auto& step : heavy) expectTrue(step, "doubly reinforced");
}

TEST_P(EveryStandard, ChangedParametersAreHeard) {
    const auto& set = catalogs::parameterSet(standard->parameterFile);
    ASSERT_FALSE(set.parameters.empty());
    if (GetParam() == "en1992") {
        auto other = makeStandard("en1992", {{"gamma_c", 1.3}, {"gamma_G", 1.2}});
        Section s{1000, 200, 165, 35, 25, 500};
        EXPECT_GT(other->shear->oneWay(s, 2000), standard->shear->oneWay(s, 2000));
        EXPECT_EQ(other->actions->combinations(*catalogs::imposedUse("B")).front().factorG, 1.2);
    }
}

INSTANTIATE_TEST_SUITE_P(Catalogue, EveryStandard, ::testing::ValuesIn(standardIds()), [](const auto& row) {
    std::string name = row.param;
    std::replace(name.begin(), name.end(), '-', '_');
    return name;
});

TEST(Standards, UnknownIdGivesNothing) {
    EXPECT_EQ(makeStandard("none"), nullptr);
    EXPECT_EQ(standardTitle("none"), "");
}
