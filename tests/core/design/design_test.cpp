#include "design/design.h"

#include <gtest/gtest.h>

#include <cmath>
#include <set>

#include "formats/project_file.h"
#include "formats/tables.h"
#include "model/edits.h"
#include "support/chosen_bars.h"
#include "support/random_slab.h"

using namespace talvik;
using checks::Outcome;

namespace {

const checks::Check& find(const design::Design& d, const std::string& ending) {
    for (const auto& c : d.slab(0).checks)
        if (c.key.ends_with(ending)) return c;
    throw std::runtime_error(ending);
}

}  // namespace

TEST(Design, DemoIsWithinAndSaysWhatItLeftOut) {
    auto d = design::run(formats::demoProject());
    auto sum = d.summary();
    EXPECT_EQ(sum.over, 0);
    EXPECT_GT(sum.within, 80);
    EXPECT_GT(sum.notChecked, 3);
    EXPECT_LT(d.slab(0).analysis.imbalance, 1e-12);
    std::set<std::string> keys;
    for (const auto& c : d.slab(0).checks) {
        EXPECT_TRUE(keys.insert(c.key).second) << c.key;
        EXPECT_FALSE(c.title.empty());
        if (c.outcome == Outcome::NotChecked || c.outcome == Outcome::NotApplicable) {
            EXPECT_FALSE(c.reason.empty()) << c.key;
        }
    }
}

// The demo's bottom flexure of span A-B by hand: rectangular block, EN 1992-1-1.
TEST(Design, FlexureAgreesWithAHandCalculation) {
    model::Project p = formats::demoProject();
    auto d = design::run(p);
    const auto& slab = *p.slabs[0];
    const auto& c = find(d, slab.spans[0].id + "/flexure-bottom");
    const auto* run = &d.slab(0).bars[0];
    double phi = catalogs::barCatalog("metric")->find(run->bar)->diameter,
           As = M_PI / 4 * phi * phi * 1000 / run->spacing;
    double depth = slab.thickness - 25 - phi / 2, fyd = 500 / 1.15, fcd = 30 / 1.5,
           a = As * fyd / (1000 * fcd);
    EXPECT_NEAR(c.limit, As * fyd * (depth - a / 2) / 1000, 1e-6 * c.limit);
    EXPECT_EQ(c.clause, "EN 1992-1-1 6.1");
}

TEST(Design, ThickerMeansMoreReserveInFlexureAndShear) {
    model::Project p = test::chosenBars(formats::demoProject());
    double lastFlexure = 9, lastShear = 9;
    for (double h : {150.0, 180.0, 210.0, 250.0}) {
        auto d = design::run(
            model::editSlab(p, "s1", [&](model::OneWaySlab& s, model::Project&) { s.thickness = h; }));
        const auto& span = p.slabs[0]->spans[2].id;
        double flexure = checks::ratio(find(d, span + "/flexure-bottom")),
               shear = checks::ratio(find(d, span + "/shear"));
        EXPECT_LT(flexure, lastFlexure);
        EXPECT_LT(shear, lastShear);
        lastFlexure = flexure, lastShear = shear;
    }
}

TEST(Design, EveryStandardAnswersAndDesignAllLeavesNothingOver) {
    for (const auto& id : standards::standardIds()) {
        model::Project p = formats::demoProject();
        p.basis.standard = id;
        p.slabs = {p.slabs[0]};
        model::Project q = design::designAll(p);
        EXPECT_EQ(design::run(q).summary().over, 0) << id;
        // One step thinner cannot do, or the search would have stopped there.
        double step = id == "aci318-us" ? 12.7 : 10;
        model::Project thinner =
            model::editSlab(q, "s1", [&](model::OneWaySlab& s, model::Project&) { s.thickness -= step; });
        EXPECT_GT(design::run(thinner).summary().over, 0) << id;
        // A pinned thickness stays.
        model::Project pinned = model::editSlab(p, "s1", [&](model::OneWaySlab& s, model::Project&) {
            s.thickness = 260, s.thicknessPinned = true;
        });
        EXPECT_EQ(design::designAll(pinned).slabs[0]->thickness, 260);
    }
}

TEST(Design, SearchTellsItsProgressAndCanBeStopped) {
    model::Project p = formats::demoProject();
    double last = 0;
    design::designAll(p, [&](double share) {
        EXPECT_GE(share, last);
        EXPECT_LE(share, 1);
        last = share;
        return true;
    });
    EXPECT_GT(last, 0);
    int calls = 0;
    EXPECT_TRUE(design::designAll(p, [&](double) { return ++calls < 3; }) == p);
    EXPECT_EQ(calls, 3);
}

TEST(Design, SagOverrulesSlendernessOnlyWhenWithin) {
    for (unsigned seed = 1; seed <= 40; ++seed) {
        model::Project p = test::randomProject(seed);
        auto d = design::run(p);
        for (const auto& span : p.slabs[0]->spans) {
            const auto& c = find(d, span.id + "/slenderness");
            if (c.outcome != Outcome::NotApplicable) continue;
            for (const char* sag : {"/sag-total", "/sag-after"})
                EXPECT_EQ(find(d, span.id + sag).outcome, Outcome::Within);
        }
    }
}

TEST(Design, CamberIsTheExcessInStepsOfFive) {
    model::Project p = model::editSlab(formats::demoProject(), "s1",
                                       [](model::OneWaySlab& s, model::Project&) { s.thickness = 140; });
    auto d = design::run(p);
    bool some = false;
    for (std::size_t i = 0; i < d.slab(0).sag.size(); ++i) {
        const auto& c = find(d, p.slabs[0]->spans[i].id + "/sag-total");
        double excess = std::max(0.0, c.demand - c.limit), camber = d.slab(0).sag[i].camber;
        EXPECT_GE(camber, excess - 1e-9);
        EXPECT_LT(camber, excess + 5);
        EXPECT_NEAR(std::remainder(camber, 5), 0, 1e-9);
        some = some || camber > 0;
    }
    EXPECT_TRUE(some);
}

TEST(Design, MissingBarsAreOverNotSilent) {
    model::Project p = formats::demoProject();
    p = model::editSlab(test::chosenBars(p), "s1", [](model::OneWaySlab& s, model::Project&) {
        for (auto& r : s.bars)
            if (r.role == model::Role::BottomMain) r.to = r.from + 300;  // next to nothing
    });
    auto d = design::run(p);
    for (std::size_t i = 0; i + 1 < p.slabs[0]->spans.size(); ++i) {
        EXPECT_EQ(find(d, p.slabs[0]->spans[i].id + "/flexure-bottom").outcome, Outcome::Over);
        EXPECT_EQ(find(d, p.slabs[0]->spans[i].id + "/sag-total").outcome, Outcome::NotChecked);
    }
}

TEST(Design, SecondOpinionHoldsWhereItsConditionsDo) {
    model::Project p = formats::demoProject();
    p = model::setSpans(p, "s1", {4500, 4500, 4500, 4500, 4500}, false, false);
    for (const auto& id : {"en1992", "aci318-si"}) {
        p.basis.standard = id;
        p = model::editSlab(p, "s1",
                            [](model::OneWaySlab& s, model::Project&) { s.imposed = 3e-3, s.width = 8000; });
        auto d = design::run(p);
        const auto& so = d.slab(0).secondOpinion;
        EXPECT_EQ(so.refusal, "") << id;
        ASSERT_GE(so.rows.size(), 6u);
        for (const auto& row : so.rows) {
            EXPECT_GT(row.ratio(), 0.6) << id << " " << row.what;
            EXPECT_LT(row.ratio(), 1.5) << id << " " << row.what;
        }
    }
    p = model::setSpans(p, "s1", {3000, 6000, 3000}, false, false);
    EXPECT_NE(design::run(p).slab(0).secondOpinion.refusal, "");
}

TEST(Design, SameInputGivesTheSameBytes) {
    model::Project p = formats::demoProject();
    EXPECT_EQ(formats::resultsJson(p, design::run(p)), formats::resultsJson(p, design::run(p)));
}

TEST(Design, InvalidProjectsAreReportedNotRun) {
    model::Project p = model::editSlab(formats::demoProject(), "s1",
                                       [](model::OneWaySlab& s, model::Project&) { s.thickness = 1; });
    auto d = design::run(p);
    EXPECT_FALSE(d.trouble.empty());
    EXPECT_TRUE(d.elements.empty());
    p = formats::demoProject();
    p.basis.standard = "none";
    EXPECT_FALSE(design::run(p).trouble.empty());
    EXPECT_TRUE(design::designAll(p) == p);
}

TEST(Design, FiftySpansAndManySlabsAreAnswered) {
    model::Project p = model::newProject();
    p = model::setSpans(p, "s1", std::vector<double>(50, 4500), false, false);
    p = model::addSlab(p, "Second");
    auto d = design::run(p);
    ASSERT_EQ(d.elements.size(), 2u);
    EXPECT_EQ(d.slab(0).sag.size(), 50u);
    EXPECT_NE(d.find(p.slabs[1]->id), nullptr);
    EXPECT_EQ(d.find("nobody"), nullptr);
}
