#include "analysis/slab_analysis.h"

#include <gtest/gtest.h>

#include <cmath>

#include "standards/rules.h"
#include "support/random_slab.h"

using namespace talvik;
using actions::LimitState;

namespace {

analysis::SlabAnalysis analysed(const model::Project& p) {
    auto standard = standards::makeStandard(p.basis.standard);
    const auto& slab = *p.slabs.front();
    return analysis::analyse(slab, p.basis,
                             standard->actions->combinations(*catalogs::imposedUse(slab.imposedUse)));
}

}  // namespace

TEST(SlabAnalysis, LoadsAddUp) {
    model::Project p = test::randomProject(3);
    p = model::editSlab(p, "s1", [](model::OneWaySlab& s, model::Project&) {
        s.thickness = 200;
        s.finishes = {{"f1", "Terrazzo", 25, 24e-6}, {"f2", "Sand-cement screed", 60, 22e-6}};
        s.otherDead = 0.5e-3;
    });
    auto l = analysis::loads(*p.slabs.front(), p.basis);
    EXPECT_NEAR(l.self, 5e-3, 1e-15);
    EXPECT_NEAR(l.finishes, 0.6e-3 + 1.32e-3, 1e-15);
    EXPECT_NEAR(l.permanent(), 7.42e-3, 1e-15);
}

// 200 random slabs: reactions balance loads to 1e-9 in every case and combination, and in every span under
// every case the mean of the end moments and the midspan moment make up w l^2/8.
TEST(SlabAnalysis, EquilibriumAndTotalStaticMomentOf200RandomSlabs) {
    for (unsigned seed = 1; seed <= 200; ++seed) {
        model::Project p = test::randomProject(seed, seed % 10 == 0 ? 50 : 8);
        const auto& slab = *p.slabs.front();
        auto a = analysed(p);
        ASSERT_EQ(a.error, "");
        EXPECT_LT(a.imbalance, 1e-9) << "seed " << seed;
        double total = 0, expected = a.load.permanent() * model::length(slab);
        for (const auto& r : a.reactions) total += r.permanent;
        EXPECT_NEAR(total, expected, 1e-9 * expected);
        std::vector<const fem::BeamSolution*> cases{&a.permanent};
        for (const auto& c : a.imposed) cases.push_back(&c);
        for (const auto* c : cases)
            for (std::size_t i = 0; i < slab.spans.size(); ++i) {
                double L = slab.spans[i].length, static_ = c->load[i] * L * L / 8;
                double found = c->moment(i, L / 2) - (c->moment(i, 0) + c->moment(i, L)) / 2;
                EXPECT_NEAR(found, static_, 1e-9 * L * L);
            }
    }
}

// The standard's arrangements against brute force over every subset of loaded spans.
TEST(SlabAnalysis, ArrangementsFindWhatAllSubsetsWould) {
    for (unsigned seed = 1; seed <= 30; ++seed) {
        model::Project p = test::randomProject(seed, 6);
        const auto& slab = *p.slabs.front();
        auto a = analysed(p);
        std::size_t n = slab.spans.size();
        std::vector<std::vector<double>> subsets;
        for (std::size_t mask = 0; mask < (1u << n); ++mask) {
            std::vector<double> load(n);
            for (std::size_t i = 0; i < n; ++i) load[i] = (mask >> i & 1) ? 1 : 0;
            subsets.push_back(load);
        }
        auto all = fem::solve(a.beam, subsets).cases;
        for (std::size_t i = 0; i < n; ++i) {
            if (model::isCantilever(slab, i)) continue;
            double L = slab.spans[i].length, brute = -1e300, ours = -1e300;
            for (const auto& s : all) brute = std::max(brute, s.moment(i, L / 2));
            for (const auto& s : a.imposed) ours = std::max(ours, s.moment(i, L / 2));
            EXPECT_LE(ours, brute * (1 + 1e-9));
            EXPECT_NEAR(ours, brute, 1e-9 * L * L) << "alternate spans give the largest span moment";
            if (i + 1 < n && !model::isCantilever(slab, i + 1)) {
                double bruteSupport = 1e300, oursSupport = 1e300;
                for (const auto& s : all) bruteSupport = std::min(bruteSupport, s.moment(i, L));
                for (const auto& s : a.imposed) oursSupport = std::min(oursSupport, s.moment(i, L));
                EXPECT_GE(oursSupport, bruteSupport * (1 + 1e-9));
                EXPECT_LT(oursSupport, 0.8 * bruteSupport)
                    << "two neighbours come close to the largest support moment";
            }
        }
    }
}

TEST(SlabAnalysis, EnvelopeHoldsEveryCombination) {
    model::Project p = test::randomProject(11);
    auto a = analysed(p);
    for (std::size_t i = 0; i < a.stations.size(); ++i) {
        const auto& st = a.stations[i];
        EXPECT_GE(a.ultimate.momentMax[i].value, a.ultimate.momentMin[i].value);
        EXPECT_DOUBLE_EQ(a.ultimate.momentMax[i].value,
                         a.moment(a.ultimate.momentMax[i].by, st.span, st.local));
        EXPECT_DOUBLE_EQ(a.momentExtreme(LimitState::Ultimate, true, st.span, st.local).value,
                         a.ultimate.momentMax[i].value);
    }
}

TEST(SlabAnalysis, StationsAscendAndHoldFaces) {
    model::Project p = test::randomProject(5);
    const auto& slab = *p.slabs.front();
    auto a = analysed(p);
    for (std::size_t i = 1; i < a.stations.size(); ++i) EXPECT_GE(a.stations[i].x, a.stations[i - 1].x);
    for (std::size_t s = 0; s < slab.spans.size(); ++s) {
        double face = model::faceBefore(slab, s);
        bool there = std::any_of(a.stations.begin(), a.stations.end(),
                                 [&](const auto& st) { return std::abs(st.x - face) < 0.2; });
        EXPECT_TRUE(there);
    }
}

TEST(SlabAnalysis, SlabOnOneSupportIsRefusedWithASentence) {
    model::OneWaySlab slab;
    slab.spans = {{"p1", 2000}};
    slab.cantileverEnd = true;
    slab.supports = {{"u1"}};
    auto standard = standards::makeStandard("en1992");
    auto a = analysis::analyse(slab, {}, standard->actions->combinations(catalogs::imposedUses().front()));
    EXPECT_NE(a.error, "");
}
