// Panels: every part of a slab in one, clear spans by hand, one-way and two-way with the reason.
#include "layout/panels.h"

#include <gtest/gtest.h>

#include <cmath>

#include "formats/project_file.h"
#include "support/random_floor.h"

using namespace talvik;

namespace {

model::Outline box(double x0, double y0, double x1, double y1) {
    return {{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}};
}
double covered(const std::vector<layout::Panel>& panels) {
    double sum = 0;
    for (const auto& p : panels)
        for (const auto& part : p.parts) sum += geometry::area(part);
    return sum;
}

}  // namespace

TEST(Panels, OfTheFishHallDeckAreItsEightBays) {
    auto project = formats::demoFloorProject();
    ASSERT_EQ(project.floors.size(), 1u);
    const auto& f = *project.floors[0];
    auto panels = layout::findPanels(f);
    ASSERT_EQ(panels.size(), 8u);
    EXPECT_EQ(panels[0].name, "A–B/1–2");
    EXPECT_EQ(panels[7].name, "B–C/4–5");
    // By hand: 7200 between axes of a 350 square and a 350 square; 6200 between the beam (300 wide) and row
    // B, whose larger columns are 400 across.
    EXPECT_NEAR(panels[0].spans[0].length, 7200, 0.1);
    EXPECT_NEAR(panels[0].spans[0].clear, 7200 - 225 - 275, 0.1);
    EXPECT_NEAR(panels[0].spans[1].clear, 6200 - 150 - 275, 0.1);
    EXPECT_NEAR(panels[5].spans[0].clear, 7200 - 550 / 2 - 550 / 2, 25.1);
    for (const auto& p : panels) EXPECT_FALSE(p.oneWay) << p.name << " " << p.reason;
    EXPECT_NEAR(covered(panels), geometry::area(model::ring(f.slabs[0].outline)), 1e4);
    // A chessboard: neighbours in a row differ.
    for (std::size_t i = 0; i + 1 < 4; ++i) EXPECT_NE(panels[i].chequer, panels[i + 1].chequer);
    EXPECT_NE(panels[0].chequer, panels[4].chequer);
}

TEST(Panels, SayHowTheyCarryAndWhy) {
    model::Floor f;
    f.slabs = {{"d", "S", box(0, 0, 4000, 9000), 200}};
    f.walls = {{"w1", "W1", {0, 0}, {0, 9000}}, {"w2", "W2", {4000, 0}, {4000, 9000}}};
    auto two = layout::findPanels(f);
    ASSERT_EQ(two.size(), 1u);
    EXPECT_TRUE(two[0].oneWay);
    EXPECT_EQ(two[0].direction, 0);
    EXPECT_EQ(two[0].reason, "supported along two opposite sides only");
    EXPECT_NEAR(two[0].spans[0].clear, 3800, 1e-6);
    f.walls.push_back({"w3", "W3", {0, 0}, {4000, 0}});
    f.walls.push_back({"w4", "W4", {0, 9000}, {4000, 9000}});
    auto four = layout::findPanels(f);
    ASSERT_EQ(four.size(), 1u);
    EXPECT_TRUE(four[0].oneWay) << four[0].reason;
    EXPECT_NE(four[0].reason.find("2.32 times"), std::string::npos) << four[0].reason;
    f.slabs[0].outline = box(0, 0, 4000, 7000);
    f.walls[0].b = {0, 7000}, f.walls[1].b = {4000, 7000}, f.walls[3].a = {0, 7000},
    f.walls[3].b = {4000, 7000};
    EXPECT_FALSE(layout::findPanels(f)[0].oneWay);
    // A choice against the sides is marked, and can be taken back.
    model::Project project;
    auto panels = layout::findPanels(f);
    layout::choosePanels(project, f, panels, {0},
                         model::PanelChoice{"", {}, model::PanelChoice::Span::OneWay, 30});
    panels = layout::findPanels(f);
    EXPECT_TRUE(panels[0].chosen && panels[0].differs && panels[0].oneWay);
    EXPECT_EQ(panels[0].direction, 30);
    layout::choosePanels(project, f, panels, {0}, {});
    EXPECT_FALSE(layout::findPanels(f)[0].chosen);
    // A balcony on one wall.
    model::Floor c;
    c.slabs = {{"d", "S", box(0, 0, 4000, 2000), 200}};
    c.walls = {{"w1", "W1", {0, 0}, {4000, 0}}};
    ASSERT_EQ(layout::findPanels(c).size(), 1u);
    EXPECT_EQ(layout::findPanels(c)[0].direction, 90);
    EXPECT_NE(layout::findPanels(c)[0].reason.find("cantilever"), std::string::npos);
}

// Columns at mid-length of the beams round a panel carry the beams; the panel stays one, held on four sides.
TEST(Panels, ColumnsUnderBeamsDivideNoPanel) {
    model::Floor f;
    f.slabs = {{"d", "S", box(0, 0, 14000, 6000), 200}};
    f.beams = {{"b1", "", {0, 0}, {14000, 0}, 300, 500},
               {"b2", "", {14000, 0}, {14000, 6000}, 300, 500},
               {"b3", "", {14000, 6000}, {0, 6000}, 300, 500},
               {"b4", "", {0, 6000}, {0, 0}, 300, 500}};
    int n = 0;
    for (double x : {0.0, 7000.0, 14000.0})
        for (double y : {0.0, 6000.0}) f.columns.push_back({"c" + std::to_string(++n), "", x, y});
    auto one = layout::findPanels(f);
    ASSERT_EQ(one.size(), 1u);
    EXPECT_TRUE(one[0].oneWay) << one[0].reason;
    EXPECT_NEAR(one[0].direction, 90, 1e-9);
    // Without the beams across the ends there are two bays between the beams along.
    f.beams.erase(f.beams.begin() + 3), f.beams.erase(f.beams.begin() + 1);
    EXPECT_EQ(layout::findPanels(f).size(), 2u);
    // With a beam from column to column they are two panels again.
    f.beams.push_back({"b5", "", {7000, 0}, {7000, 6000}, 300, 500});
    EXPECT_EQ(layout::findPanels(f).size(), 2u);
}

// The slab beyond a beam on columns is held along the beam alone.
TEST(Panels, ASlabBeyondABeamIsACantilever) {
    model::Floor f;
    f.slabs = {{"d", "S", box(-200, -1800, 12200, 6200), 200}};
    int n = 0;
    for (double x : {0.0, 6000.0, 12000.0})
        for (double y : {0.0, 6000.0}) f.columns.push_back({"c" + std::to_string(++n), "", x, y});
    for (bool beams : {true, false}) {
        if (beams)
            for (double y : {0.0, 6000.0})
                f.beams.push_back({"b" + std::to_string(++n), "", {0, y}, {12000, y}, 300, 500});
        else
            f.beams.clear();
        int cantilevers = 0;
        for (const auto& p : layout::findPanels(f)) {
            if (p.centre.y > 0) continue;
            ++cantilevers;
            EXPECT_TRUE(p.oneWay) << p.reason;
            EXPECT_NEAR(p.direction, 90, 1e-9);
            EXPECT_NE(p.reason.find("cantilever"), std::string::npos) << p.reason;
            EXPECT_EQ(p.spans[1].ends[0], layout::SideKind::Free);
            EXPECT_NEAR(p.spans[1].clear, beams ? 1650 : 1600, 101);
        }
        EXPECT_EQ(cantilevers, 2) << beams;
    }
}

TEST(Panels, CoverEverySlabOfRandomFloors) {
    int many = 0;
    for (unsigned seed = 0; seed < 120; ++seed) {
        auto f = test::randomFloor(seed);
        auto panels = layout::findPanels(f);
        double slab = 0;
        for (const auto& s : f.slabs) slab += geometry::area(model::ring(s.outline));
        ASSERT_FALSE(panels.empty()) << seed;
        EXPECT_NEAR(covered(panels) / slab, 1, 1e-4) << seed;
        many += panels.size() > 1;
        for (const auto& p : panels) {
            EXPECT_GT(p.spans[0].clear, 0) << seed << " " << p.spans[0].length << " area "
                                           << geometry::area(p.outline) << " of " << p.outline.size();
            EXPECT_LE(p.spans[0].clear, p.spans[0].length) << seed;
            EXPECT_FALSE(p.reason.empty());
        }
    }
    EXPECT_GT(many, 60);
}
