// What is loose is seen with its gap, and every mend offered leaves a sound floor without it.
#include "layout/connectivity.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <random>

#include "formats/project_file.h"
#include "layout/placing.h"
#include "model/floor_validation.h"
#include "support/random_floor.h"

using namespace talvik;
using model::Floor;
using model::Project;

namespace {

model::Outline box(double x0, double y0, double x1, double y1) {
    return layout::rectangle({x0, y0}, {x1, y1});
}
Floor good() {
    Floor f;
    f.id = "f1";
    f.slabs = {{"d1", "S1", box(0, 0, 9000, 6000), 250}};
    f.columns = {{"c1", "C1", 1000, 1000},
                 {"c2", "C2", 8000, 1000},
                 {"c3", "C3", 1000, 5000},
                 {"c4", "C4", 8000, 5000}};
    return f;
}
// The one loose end whose message holds `part`, mended: it is gone and the floor can be analysed.
void mends(Floor f, const std::string& part, double gap = -1) {
    auto all = layout::looseEnds(f);
    auto found = std::find_if(all.begin(), all.end(),
                              [&](const auto& e) { return e.message.find(part) != std::string::npos; });
    ASSERT_NE(found, all.end()) << part << ": " << (all.empty() ? "nothing" : all[0].message);
    if (gap >= 0) {
        EXPECT_NEAR(found->gap, gap, 0.01) << part;
    }
    ASSERT_TRUE(found->apply) << found->message;
    EXPECT_FALSE(found->mend.empty());
    Project p;
    p.nextId = 1000;
    found->apply(p, f);
    for (const auto& e : layout::looseEnds(f))
        EXPECT_EQ(e.message.find(part), std::string::npos) << e.message;
    auto left = model::validateFloor(f, "f");
    EXPECT_TRUE(left.empty()) << (left.empty() ? "" : left[0].message);
}

}  // namespace

TEST(Connectivity, FindsNothingOnGoodFloors) {
    EXPECT_TRUE(layout::looseEnds(good()).empty());
    auto demo = formats::demoFloorProject();
    auto all = layout::looseEnds(*demo.floors[0]);
    EXPECT_TRUE(all.empty()) << all[0].message;
}

TEST(Connectivity, OffersAMendForEachKind) {
    Floor f = good();
    f.beams = {{"b1", "B1", {1000, 1000}, {7797, 1000}}};
    mends(f, "Beam B1 ends 3 mm short of column C2", 3);
    f = good();
    f.slabs.push_back({"d2", "S2", box(8000, 0, 12000, 6000), 250});
    mends(f, "lies over slab S1 by 6.00 m²");
    f = good();
    f.slabs.push_back({"d2", "S2", box(9040, 0, 9080 + 2900, 6000), 250});
    {  // both corners near, each mended in turn
        auto all = layout::looseEnds(f);
        int gaps = int(std::count_if(all.begin(), all.end(), [](const auto& e) { return e.gap == 40; }));
        EXPECT_GE(gaps, 2);
        Project p;
        for (int i = 0; i < 4 && !layout::looseEnds(f).empty() && layout::looseEnds(f)[0].gap == 40; ++i)
            layout::looseEnds(f)[0].apply(p, f);
        for (const auto& e : layout::looseEnds(f)) EXPECT_NE(e.gap, 40) << e.message;
    }
    f = good();
    f.openings = {{"o1", "O1", box(7000, 4000, 8500, 5500)}};
    mends(f, "Opening O1 lies over column C4");
    f = good();
    f.openings = {{"o1", "O1", box(8500, 3000, 10000, 4500)}};
    mends(f, "reaches 1.50 m² beyond");
    f = good();
    f.columns.push_back({"c9", "C9", 9200, 3000});
    mends(f, "Column C9 stands 200 mm beside the slab", 200);
    f = good();
    f.columns.push_back({"c9", "C9", 15000, 3000});
    mends(f, "stands 6000 mm beside");
    f = good();
    f.columns.push_back({"c9", "C9", 1000, 1000});
    mends(f, "stand at the same place");
    f = good();
    f.columns.push_back({"c9", "C9", 4000, 3000});
    f.columns.back().below = false, f.columns.back().above = true;
    mends(f, "stands on the slab alone");
    f = good();
    f.walls = {{"w1", "W1", {1000, 3000}, {12000, 3000}}};
    mends(f, "Wall W1 leaves the slab");
    f = good();
    f.columns.clear();
    mends(f, "Slab S1 is not supported");
    f = good();
    f.columns = {{"c1", "C1", 1000, 1000}, {"c3", "C3", 1000, 5000}};
    mends(f, "An edge of slab S1 is 8.0 m from");
    f = good();
    f.zones = {{"z1", "D1", box(20000, 0, 21000, 1000), 400}};
    mends(f, "Thickness zone D1 lies beside every slab");
    f = good();
    f.actions.cases = {{"q1", "Imposed", model::LoadCase::Nature::Imposed, "B"}};
    model::FloorLoad l;
    l.id = "l1", l.loadCase = "q1", l.value = 3e-3, l.outline = box(8000, 1000, 12000, 2000);
    f.actions.loads = {l};
    mends(f, "3.00 m² of it lie beside the slab");
    f.actions.loads[0].kind = model::FloorLoad::Kind::Point;
    f.actions.loads[0].a = {20000, 0};
    mends(f, "stands beside every slab");
    f.actions.loads[0].kind = model::FloorLoad::Kind::Line;
    f.actions.loads[0].a = {4000, 3000}, f.actions.loads[0].b = {14000, 3000};
    mends(f, "leaves the slab");
}

// Random slips in random floors: each mend leaves a well-formed floor, and mending everything in turn ends.
TEST(Connectivity, EveryMendOfferedLeavesTheFloorSound) {
    int offered = 0;
    for (unsigned seed = 0; seed < 300; ++seed) {
        std::mt19937 random(seed);
        auto u = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(random); };
        Floor f = test::randomFloor(seed);
        Project p;
        p.nextId = 10000;
        for (auto& c : f.columns)
            if (u(0, 1) < 0.2) c.x += u(-4000, 4000), c.y += u(-4000, 4000);
        for (auto& b : f.beams) b.b.x += u(-80, 3000);
        for (auto& w : f.walls) w.a.x += u(-80, 80);
        for (auto& o : f.openings)
            if (u(0, 1) < 0.5) layout::move(f, {o.id}, {u(-5000, 5000), u(-5000, 5000)});
        if (u(0, 1) < 0.4) layout::copy(p, f, {f.slabs[0].id}, {u(-20000, 20000), u(-100, 100)});
        if (!model::wellFormed(f, "f").empty()) continue;
        for (int round = 0; round < 200; ++round) {
            auto all = layout::looseEnds(f);
            bool any = false;
            for (const auto& e : all) {
                if (!e.apply) continue;
                any = true;
                ++offered;
                Floor next = f;
                e.apply(p, next);
                auto wrong = model::wellFormed(next, "f");
                ASSERT_TRUE(wrong.empty())
                    << seed << ": " << e.message << " / " << e.mend << ": " << wrong[0].message;
                EXPECT_FALSE(next == f) << seed << ": " << e.message << " / " << e.mend;
            }
            if (!any) break;
            ASSERT_LT(round, 150) << seed << ": " << all[0].message;
            std::find_if(all.begin(), all.end(), [](const auto& e) { return bool(e.apply); })->apply(p, f);
        }
    }
    EXPECT_GT(offered, 500);
}
