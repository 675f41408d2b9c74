#include "design/remedies.h"

#include <gtest/gtest.h>

#include "bars/run_edits.h"
#include "design/floor_design.h"
#include "formats/project_file.h"
#include "model/edits.h"
#include "support/chosen_bars.h"
#include "support/random_slab.h"
#include "support/regular_floor.h"

using namespace talvik;

namespace {
model::Project thin(double h) {
    return model::editSlab(test::chosenBars(formats::demoProject()), "s1",
                           [h](model::OneWaySlab& s, model::Project&) { s.thickness = h; });
}
}  // namespace

TEST(Remedies, NoneWhereNothingIsOver) {
    EXPECT_TRUE(design::remedies(formats::demoProject(), "s1").empty());
    EXPECT_TRUE(design::remedies(formats::demoProject(), "nobody").empty());
}

TEST(Remedies, EachWasVerifiedAndSaysItsPrice) {
    for (double h : {130.0, 150.0, 170.0}) {
        model::Project p = thin(h);
        auto all = design::remedies(p, "s1");
        ASSERT_FALSE(all.empty()) << h;
        auto before = design::run(p);
        for (const auto& r : all) {
            auto after = design::run(r.project);
            EXPECT_EQ(after.summary().over, 0) << r.text;
            EXPECT_LE(r.worst, 1 + 1e-9);
            EXPECT_NEAR(after.schedule().mass - before.schedule().mass, r.steel, 1e-6) << r.text;
            EXPECT_FALSE(r.text.empty());
        }
    }
}

TEST(Remedies, KeepWhatTheUserFixedWhereTheyCan) {
    model::Project p = formats::demoProject();
    const auto before = design::run(p);
    auto run = before.slab(0).bars[2];
    run.spacing = 300;  // far too wide
    p = model::editBars(p, "s1", [&](auto& bars, auto& next) { bars::fixRun(next, bars, run); });
    auto all = design::remedies(p, "s1");
    ASSERT_FALSE(all.empty());
    EXPECT_EQ(all.front().text, "All bars given back to the program");
    EXPECT_TRUE(all.front().project.slabs[0]->bars.empty());
    for (std::size_t i = 1; i < all.size(); ++i) {
        ASSERT_EQ(all[i].project.slabs[0]->bars.size(), 1u) << all[i].text;
        EXPECT_EQ(all[i].project.slabs[0]->bars[0].spacing, 300);
    }
}

TEST(Remedies, StopAtOnceWhenAsked) {
    std::stop_source source;
    source.request_stop();
    EXPECT_TRUE(design::remedies(thin(140), "s1", source.get_token()).empty());
}

TEST(Remedies, OfRandomSlabsAreTrue) {
    int some = 0;
    for (unsigned seed = 1; seed <= 15; ++seed) {
        model::Project p = test::randomProject(seed);
        p = model::editSlab(test::chosenBars(p), "s1",
                            [](model::OneWaySlab& s, model::Project&) { s.thickness -= 20; });
        for (const auto& r : design::remedies(p, "s1")) {
            EXPECT_EQ(design::run(r.project, {.trace = false}).summary().over, 0) << seed << " " << r.text;
            ++some;
        }
    }
    EXPECT_GT(some, 5);
}

// A floor on columns too thin for its spans: every remedy is true, proof by field included, and its price is
// what it adds.
TEST(Remedies, OfFloorsAreVerifiedAndPriced) {
    auto p = test::regularFloor(3, 3, 6000, 6000, 190, 400);
    p = model::editFloor(p, "f1", [](model::Floor& f, model::Project&) {
        for (auto& c : f.columns) c.width = c.depth = 900;  // so that punching decides nothing
    });
    ASSERT_TRUE(design::designFloor(p, 0)->summary.over > 0);
    const auto all = design::remedies(p, "f1");
    ASSERT_FALSE(all.empty());
    const auto ladders = design::ladders(p, "f1");
    EXPECT_GE(ladders.size(), 2u);
    double area = geometry::area(model::ring(p.floors[0]->slabs[0].outline)) / 1e6;
    for (const auto& r : all) {
        auto after = design::designFloor(r.project, 0);
        ASSERT_TRUE(after);
        EXPECT_EQ(after->summary.over, 0) << r.text;
        EXPECT_LE(r.worst, 1 + 1e-9);
        const double added = r.project.floors[0]->slabs[0].thickness - 190;
        EXPECT_NEAR(r.concrete, area * added / 1000, 1e-6) << r.text;
        EXPECT_NEAR(r.price, r.concrete * p.basis.rates.concrete.price + r.steel * p.basis.rates.steel.price,
                    1e-6);
    }
    // The first rung that helps: one less does not.
    const auto& thicker = all.front();
    ASSERT_GT(thicker.concrete, 0) << thicker.text;
    auto less = model::editFloor(thicker.project, "f1",
                                 [](model::Floor& f, model::Project&) { f.slabs[0].thickness -= 10; });
    EXPECT_GT(design::designFloor(less, 0)->summary.over, 0);
    std::stop_source source;
    source.request_stop();
    EXPECT_TRUE(design::remedies(p, "f1", source.get_token()).empty());
}

TEST(Remedies, OfFloorsWithinAreNone) {
    auto p = test::regularFloor(3, 3, 5000, 5000, 260, 400);
    p = model::editFloor(p, "f1", [](model::Floor& f, model::Project&) {
        for (auto& c : f.columns) c.width = c.depth = 600;
    });
    ASSERT_EQ(design::designFloor(p, 0)->summary.over, 0);
    EXPECT_TRUE(design::remedies(p, "f1").empty());
}
