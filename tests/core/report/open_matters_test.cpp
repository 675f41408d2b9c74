// What stands open before any check.
#include "report/open_matters.h"

#include <gtest/gtest.h>

#include <algorithm>

#include "formats/project_file.h"
#include "layout/placing.h"
#include "model/edits.h"
#include "support/regular_floor.h"

using namespace talvik;
using report::Matter;

namespace {

using Nature = model::LoadCase::Nature;

std::size_t count(const std::vector<Matter>& all, const char* words) {
    return std::size_t(std::count_if(
        all.begin(), all.end(), [&](const auto& m) { return m.message.find(words) != std::string::npos; }));
}

}  // namespace

TEST(OpenMatters, OfTheDemosThereAreNone) {
    const auto slab = formats::demoProject(), deck = formats::demoFloorProject();
    EXPECT_TRUE(report::openMatters(slab, slab.slabs[0]->id).empty());
    EXPECT_TRUE(report::openMatters(deck, deck.floors[0]->id).empty());
    EXPECT_TRUE(report::openMatters(deck, "nothing of that name").empty());
}

TEST(OpenMatters, AFloorWithoutSlabSaysSoAndNothingElse) {
    auto p = model::emptyProject();
    const auto id = layout::addFloor(p, "Quay");
    const auto all = report::openMatters(p, id);
    ASSERT_EQ(all.size(), 1u);
    EXPECT_TRUE(all[0].prevents);
    EXPECT_EQ(count(all, "no slab yet"), 1u);
}

TEST(OpenMatters, LooseEndsComeWithPlaceGapAndMend) {
    auto p = formats::demoFloorProject();
    const auto id = p.floors[0]->id;
    p = model::editFloor(p, id, [](model::Floor& f, model::Project&) { f.beams[0].b.x -= 228; });
    const auto all = report::openMatters(p, id);
    ASSERT_EQ(all.size(), 1u);
    EXPECT_EQ(all[0].kind, Matter::Kind::Loose);
    EXPECT_NEAR(all[0].gap, 3, 1e-6);
    ASSERT_TRUE(all[0].apply);
    p = model::editFloor(p, id, [&](model::Floor& f, model::Project& q) { all[0].apply(q, f); });
    EXPECT_TRUE(report::openMatters(p, id).empty());
}

// A step through which no bars pass is told with both slabs, whichever is drawn first and stands higher.
TEST(OpenMatters, DeepStepsAreToldWithBothSlabs) {
    for (bool swapped : {false, true})
        for (double down : {0.0, 120.0, 400.0, -400.0}) {
            auto p = formats::demoFloorProject();
            const auto id = p.floors[0]->id;
            p = model::editFloor(p, id, [&](model::Floor& f, model::Project&) {
                const auto box = [](double x0, double x1) {
                    return model::Outline{{x0, 0}, {x1, 0}, {x1, 5000}, {x0, 5000}};
                };
                f.slabs = {{"s901", "Hall", box(0, 6000), 250}, {"s902", "Stair", box(6000, 9000), 250}};
                f.slabs[1].level = f.slabs[0].level - down;
                if (swapped) std::swap(f.slabs[0], f.slabs[1]);
            });
            const auto all = report::openMatters(p, id);
            const auto told = std::count_if(all.begin(), all.end(), [](const auto& m) {
                return m.message.find("Hall") != std::string::npos &&
                       m.message.find("Stair") != std::string::npos &&
                       m.message.find("share nothing") != std::string::npos;
            });
            EXPECT_EQ(told, std::abs(down) > 250 ? 1 : 0) << swapped << " " << down;
        }
}

// Of every case by itself whether it has a load, by a count of our own.
TEST(OpenMatters, EveryCaseWithoutLoadIsToldOnce) {
    auto p = formats::demoFloorProject();
    const auto id = p.floors[0]->id;
    for (const auto& c : p.floors[0]->actions.cases) {
        if (c.nature == Nature::SelfWeight) continue;
        auto q = model::editFloor(p, id, [&](model::Floor& f, model::Project&) {
            std::erase_if(f.actions.loads, [&](const auto& l) { return l.loadCase == c.id; });
        });
        const auto all = report::openMatters(q, id);
        ASSERT_EQ(all.size(), 1u) << c.name;
        EXPECT_EQ(count(all, (c.name + " has no load").c_str()), 1u);
        EXPECT_EQ(all[0].ids.front(), c.id);
        // A load of nought everywhere is none.
        q = model::editFloor(q, id, [&](model::Floor& f, model::Project& next) {
            layout::loadEverywhere(next, f, c.id).value = 0;
        });
        EXPECT_EQ(count(report::openMatters(q, id), "has no load"), 1u) << c.name;
    }
    auto bare = model::editFloor(p, id, [](model::Floor& f, model::Project&) { f.actions.loads.clear(); });
    EXPECT_EQ(count(report::openMatters(bare, id), "No imposed load"), 1u);
}

TEST(OpenMatters, PanelsKeptFromBeingLoadedInTurnAreToldWhereTheStandardAsksForIt) {
    auto of = [](int spans, double imposed, const char* standard) {
        auto p = test::regularFloor(spans, 2, 6000, 6000);
        p.basis.standard = standard;
        const auto id = p.floors[0]->id;
        p = model::editFloor(p, id, [&](model::Floor& f, model::Project& q) {
            f.actions.arrangement = model::Arrangement::All;
            for (const auto& c : f.actions.cases)
                if (c.nature == Nature::Imposed) layout::loadEverywhere(q, f, c.id).value = imposed;
        });
        return count(report::openMatters(p, id), "pattern loading");
    };
    EXPECT_EQ(of(3, 3e-3, "en1992"), 1u);
    // ACI 318-19 6.4.3.2: waived where the imposed load is under three quarters of the permanent one.
    EXPECT_EQ(of(3, 1e-3, "aci318-si"), 0u);
    EXPECT_EQ(of(3, 9e-3, "aci318-si"), 1u);
}
