#include "strips/strip_layout.h"

#include <gtest/gtest.h>

#include <cmath>

#include "support/random_floor.h"

namespace talvik {
namespace {

using model::EndCondition;
using strips::Strip;

model::Outline box(double x0, double y0, double x1, double y1) {
    return {{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}};
}

// Columns on a grid with an overhang of slab all round.
model::Floor flatSlab(int nx, int ny, double lx, double ly, double over = 200) {
    model::Floor f;
    f.id = "f";
    f.slabs.push_back({"d1", "S", box(-over, -over, (nx - 1) * lx + over, (ny - 1) * ly + over), 250});
    int next = 0;
    for (int i = 0; i < nx; ++i)
        for (int k = 0; k < ny; ++k)
            f.columns.push_back({"c" + std::to_string(++next),
                                 std::string(1, char('A' + i)) + std::to_string(k + 1), i * lx, k * ly});
    return f;
}

std::vector<const Strip*> of(const strips::StripLayout& l, int direction) {
    std::vector<const Strip*> all;
    for (const auto& s : l.strips)
        if (s.direction == direction) all.push_back(&s);
    return all;
}

TEST(StripLayout, AFlatSlabHasColumnAndMiddleStripsOfTheStandardsWidth) {
    auto l = strips::layStrips(flatSlab(4, 3, 6000, 5000));
    auto x = of(l, 0), y = of(l, 1);
    ASSERT_EQ(x.size(), 5u);  // three column strips, two between
    ASSERT_EQ(y.size(), 7u);
    EXPECT_EQ(x[0]->kind, Strip::Kind::Column);
    EXPECT_EQ(x[1]->kind, Strip::Kind::Middle);
    // A quarter of the shorter span on either side; at the edge with the overhang.
    EXPECT_NEAR(x[2]->area(), 2 * 1250 * 18400.0, 1);
    EXPECT_NEAR(x[0]->area(), (1250 + 200) * 18400.0, 1);
    EXPECT_NEAR(x[1]->area(), 2500 * 18400.0, 1);
    EXPECT_NEAR(y[3]->area(), (6000 - 2500) * 10400.0, 1);
    ASSERT_EQ(x[2]->spans.size(), 3u);
    EXPECT_DOUBLE_EQ(x[2]->spans[0].length(), 6000);
    EXPECT_EQ(x[2]->spans[0].ends[0], EndCondition::Free);
    EXPECT_EQ(x[2]->spans[0].ends[1], EndCondition::Continuous);
    EXPECT_EQ(x[2]->spans[0].name, "A2–B2");
    for (const auto& c : l.coverage) {
        EXPECT_EQ(c.uncovered, 0);
        EXPECT_EQ(c.overlapped, 0);
        EXPECT_NEAR(c.whole, 18400.0 * 10400, 1);
    }
}

TEST(StripLayout, OverhangsAreCantileversAndBeamsAreFound) {
    auto f = flatSlab(3, 3, 6000, 6000, 1500);
    auto l = strips::layStrips(f);
    auto s = of(l, 0)[2];
    ASSERT_EQ(s->spans.size(), 4u);
    EXPECT_TRUE(s->spans.front().cantilever());
    EXPECT_EQ(s->spans.front().ends[0], EndCondition::Cantilever);
    EXPECT_EQ(s->spans[1].ends[0], EndCondition::Continuous);
    auto g = flatSlab(3, 3, 6000, 6000, 150);
    g.beams.push_back({"b1", "B", {0, 0}, {0, 12000}});
    auto m = strips::layStrips(g);
    EXPECT_EQ(of(m, 0)[2]->spans[0].ends[0], EndCondition::OnBeam);
    EXPECT_TRUE(of(m, 1).back()->alongBeam);  // v grows towards the left of the strip
    EXPECT_EQ(of(m, 0)[2]->spans.back().ends[1], EndCondition::Free);
}

TEST(StripLayout, ASlabOnWallsIsDividedIntoFullWidths) {
    model::Floor f;
    f.slabs.push_back({"d1", "S", box(0, 0, 12000, 8000), 200});
    for (int i = 0; i < 3; ++i)
        f.walls.push_back({"w" + std::to_string(i), "W", {i * 6000.0, 0}, {i * 6000.0, 8000}});
    auto l = strips::layStrips(f);
    auto x = of(l, 0);
    ASSERT_FALSE(x.empty());
    for (const auto* s : x) {
        EXPECT_EQ(s->kind, Strip::Kind::Whole);
        ASSERT_EQ(s->spans.size(), 2u);
        EXPECT_EQ(s->spans[0].ends[0], EndCondition::OnBeam);
        EXPECT_NEAR(s->spans[0].clearTo - s->spans[0].clearFrom, 5800, 1);
    }
    EXPECT_EQ(l.coverage[0].uncovered, 0);
    EXPECT_EQ(l.coverage[1].uncovered, 0);
}

TEST(StripLayout, WhatSomeoneChangedStaysWhenTheFloorChanges) {
    auto f = flatSlab(4, 3, 6000, 5000);
    auto before = strips::layStrips(f);
    const std::string key = of(before, 0)[2]->key;
    f.strips.edges.push_back({"e1", 0, of(before, 0)[2]->line, 1, 1900});
    f.strips.ends.push_back({"e2", key, "c2", 1, EndCondition::OnBeam});
    f.columns[4].x += 300;  // the floor moves under it
    f.slabs[0].thickness = 300;
    auto l = strips::layStrips(f);
    const Strip* s = l.find(key);
    ASSERT_TRUE(s);
    EXPECT_TRUE(s->changed);
    EXPECT_NEAR(s->area(), (1250 + 1900) * 18400.0, 18400 * 2500 * 0.01);
    ASSERT_TRUE(s->spans[0].overruled[0]);
    EXPECT_EQ(s->spans[0].ends[0], EndCondition::OnBeam);
    EXPECT_EQ(l.coverage[0].uncovered, 0);
    EXPECT_EQ(l.coverage[0].overlapped, 0);
}

TEST(StripLayout, DrawnStripsTakeTheirAreaAndGapsAreListed) {
    auto f = flatSlab(4, 3, 6000, 5000);
    f.strips.drawn.push_back({"t1", "by hand", 0, 0, box(1000, 1000, 9000, 4000)});
    auto l = strips::layStrips(f);
    EXPECT_EQ(l.coverage[0].uncovered, 0);
    EXPECT_EQ(l.coverage[0].overlapped, 0);
    EXPECT_NEAR(l.find("t1")->area(), 24e6, 1);
    f.strips.drawn.push_back({"t2", "over it", 0, 0, box(8000, 1000, 12000, 4000)});
    l = strips::layStrips(f);
    EXPECT_NEAR(l.coverage[0].overlapped, 3e6, 1);
    ASSERT_EQ(l.coverage[0].overlaps.size(), 1u);
    EXPECT_EQ(l.coverage[0].overlaps[0].between, "by hand, over it");
    f.strips.rules.automatic[0] = false;  // now only what is drawn
    l = strips::layStrips(f);
    EXPECT_NEAR(l.coverage[0].uncovered, 18400.0 * 10400 - 33e6, 1);
    EXPECT_EQ(l.coverage[1].uncovered, 0);
    for (const auto& gap : l.coverage[0].gaps) EXPECT_TRUE(geometry::contains(gap.parts.front(), gap.at));
}

TEST(StripLayout, AnAreaMayHaveDirectionsOfItsOwn) {
    auto f = flatSlab(4, 3, 6000, 5000);
    f.strips.areas.push_back({"a1", "bay", box(5800, -200, 18200, 10200), {30, 120}});
    auto l = strips::layStrips(f);
    EXPECT_EQ(l.coverage[0].uncovered, 0);
    EXPECT_EQ(l.coverage[1].overlapped, 0);
    int turned = 0;
    for (const auto& s : l.strips) turned += s.axes.angle == 30 || s.axes.angle == 120;
    EXPECT_GT(turned, 2);
}

// The slab inside a strip per direction: everything once, whatever the floor.
TEST(StripLayout, TwoHundredRandomFloorsAreCoveredExactly) {
    for (unsigned seed = 1; seed <= 200; ++seed) {
        auto f = test::randomFloor(seed);
        if (seed % 2) f.strips.rules = {true, {double(seed % 90), double(seed % 90) + 60 + seed % 50}};
        if (seed % 3 == 0) f.strips.rules.width = model::StripChoices::Width::Full;
        auto l = strips::layStrips(f);
        for (int d : {0, 1}) {
            double sum = 0;
            for (const auto* s : of(l, d)) sum += s->area();
            EXPECT_EQ(l.coverage[d].uncovered, 0) << "seed " << seed << " direction " << d;
            EXPECT_EQ(l.coverage[d].overlapped, 0) << "seed " << seed << " direction " << d;
            EXPECT_NEAR(sum, l.coverage[d].whole, 1e-7 * sum + 2000) << "seed " << seed;
            for (const auto* s : of(l, d))
                for (std::size_t i = 1; i < s->supports.size(); ++i)
                    EXPECT_GE(s->supports[i].from, s->supports[i - 1].to) << seed << " " << s->key;
        }
    }
}

}  // namespace
}  // namespace talvik
