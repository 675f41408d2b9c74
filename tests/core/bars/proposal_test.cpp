#include "bars/proposal.h"

#include <gtest/gtest.h>

#include <cmath>

#include "design/design.h"
#include "support/chosen_bars.h"
#include "support/random_slab.h"

using namespace talvik;
using model::Role;

namespace {

model::Project proposed(unsigned seed, const std::string& standard) {
    model::Project p = test::randomProject(seed);
    p.basis.standard = standard;
    return p;
}

}  // namespace

class Proposals : public ::testing::TestWithParam<std::string> {};

// Brute force over the stations of random slabs: wherever the bars checks say within, the steel that is
// anchored there resists the shifted moment; and the proposal itself leaves no flexure or bar-end check over
// unless the strongest bars do not do.
TEST_P(Proposals, ProvidedSteelIsNowhereLessThanRequired) {
    int clean = 0;
    for (unsigned seed = 1; seed <= 60; ++seed) {
        model::Project p = proposed(seed, GetParam());
        const auto& slab = *p.slabs.front();
        auto design = design::run(p);
        const auto& d = design.slab(0);
        bool over = false;
        for (const auto& c : d.checks)
            over |= (c.topic == checks::Topic::BarEnds || c.topic == checks::Topic::Flexure) &&
                    c.outcome == checks::Outcome::Over;
        if (over) continue;
        ++clean;
        const line::LineBasis in{p.basis, *design.standard};
        double largest = *std::max_element(d.top.shifted.begin(), d.top.shifted.end());
        for (std::size_t i = 0; i < d.analysis.stations.size(); ++i) {
            double x = d.analysis.stations[i].x;
            auto top = bars::steelAt(d.runs, true, x, 1);
            auto sec = line::section(true, top.diameter > 0 ? top.diameter : 20, slab.thickness, in, 1000);
            bool endSupport = (!slab.cantileverStart && x < slab.spans.front().length / 2) ||
                              (!slab.cantileverEnd && x > model::length(slab) - slab.spans.back().length / 2);
            // Behind a free tip the bars have ended at the cover and U-bars close the edge.
            double reach = p.basis.coverSide + 51;
            bool tip = (slab.cantileverStart && x < reach) ||
                       (slab.cantileverEnd && x > model::length(slab) - reach);
            if (d.top.shifted[i] > 1e-4 * largest && !endSupport && !tip) {
                double have =
                    top.effective > 0
                        ? design.standard->flexure->resistance(sec, top.effective * 1000, 0).M / 1000
                        : 0;
                EXPECT_GE(have * (1 + 1e-6), d.top.shifted[i]) << "seed " << seed << " x " << x;
            }
        }
    }
    EXPECT_GT(clean, 50);
}

TEST_P(Proposals, BarsAreFromTheAllowedSets) {
    for (unsigned seed = 1; seed <= 40; ++seed) {
        model::Project p = proposed(seed, GetParam());
        const auto& slab = *p.slabs.front();
        EXPECT_TRUE(model::validate(p).empty());
        const auto design = design::run(p, {.trace = false});
        for (const auto& run : design.slab(0).bars) {
            const auto& allowed = run.role == Role::BottomMain || run.role == Role::TopMain
                                      ? p.basis.mainBars
                                      : p.basis.secondaryBars;
            EXPECT_NE(std::find(allowed.begin(), allowed.end(), run.bar), allowed.end());
            EXPECT_NEAR(std::remainder(run.spacing, p.basis.spacingStep), 0, 1e-9);
            EXPECT_GE(run.spacing, p.basis.spacingLeast);
            EXPECT_LE(run.spacing, p.basis.spacingMost);
        }
        for (std::size_t i = 0; i < slab.spans.size(); ++i) {
            if (model::isCantilever(slab, i)) continue;
            double mid = model::spanStart(slab, i) + slab.spans[i].length / 2;
            EXPECT_TRUE(std::any_of(
                design.slab(0).bars.begin(), design.slab(0).bars.end(),
                [&](const auto& r) { return r.role == Role::BottomMain && r.from < mid && r.to > mid; }));
        }
    }
}

// Bars that someone fixed as they had been chosen leave no room for others.
TEST_P(Proposals, FixedBarsAreKeptAndNoneAreAdded) {
    for (unsigned seed : {2u, 9u, 17u}) {
        const auto p = proposed(seed, GetParam());
        const auto chosen = design::run(p, {.trace = false}),
                   fixed = design::run(test::chosenBars(p), {.trace = false});
        ASSERT_EQ(chosen.slab(0).bars.size(), fixed.slab(0).bars.size());
        for (std::size_t i = 0; i < chosen.slab(0).bars.size(); ++i) {
            const auto &a = chosen.slab(0).bars[i], &b = fixed.slab(0).bars[i];
            EXPECT_TRUE(b.fixed && !a.fixed);
            EXPECT_EQ(std::tuple(a.role, a.from, a.to, a.bar, a.spacing, a.start, a.end),
                      std::tuple(b.role, b.from, b.to, b.bar, b.spacing, b.start, b.end));
        }
    }
}

// Bars follow what is asked: twice the load is carried without a word from anybody.
TEST_P(Proposals, BarsFollowTheLoad) {
    auto p = proposed(9, GetParam());
    const auto before = design::run(p, {.trace = false});
    p = model::editSlab(p, "s1", [](model::OneWaySlab& s, model::Project&) { s.imposed *= 2; });
    const auto after = design::run(p, {.trace = false});
    EXPECT_GT(after.elements[0]->steel, before.elements[0]->steel);
    for (const auto& c : after.slab(0).checks)
        EXPECT_FALSE(c.topic == checks::Topic::Flexure && c.outcome == checks::Outcome::Over) << c.key;
}

INSTANTIATE_TEST_SUITE_P(Catalogue, Proposals, ::testing::ValuesIn(standards::standardIds()),
                         [](const auto& row) {
                             std::string name = row.param;
                             std::replace(name.begin(), name.end(), '-', '_');
                             return name;
                         });
