// Floors: outlines with arcs, and every kind of bad input named with its place.
#include "model/floor.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numbers>

#include "model/edits.h"
#include "model/floor_validation.h"
#include "support/random_floor.h"

using namespace talvik;
using model::Floor;

namespace {

model::Outline box(double x0, double y0, double x1, double y1) {
    return {{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}};
}
Floor good() {
    Floor f;
    f.id = "f1";
    f.name = "Deck";
    f.slabs = {{"d1", "S1", box(0, 0, 10000, 8000), 250}};
    f.columns = {{"c1", "C1", 1000, 1000}, {"c2", "C2", 9000, 1000}, {"c3", "C3", 5000, 7000}};
    f.actions.cases = {{"q1", "Imposed", model::LoadCase::Nature::Imposed, "B"}};
    model::FloorLoad l;
    l.id = "l1", l.loadCase = "q1", l.value = 3e-3;
    f.actions.loads = {l};
    return f;
}
// The one sentence about the floor.
std::string trouble(const Floor& f) {
    auto all = model::validateFloor(f, "floors[0]");
    EXPECT_FALSE(all.empty());
    return all.empty() ? "" : all[0].path + ": " + all[0].message;
}
void expectNamed(const Floor& f, const std::string& path, const std::string& part) {
    std::string text = trouble(f);
    EXPECT_NE(text.find(path), std::string::npos) << text;
    EXPECT_NE(text.find(part), std::string::npos) << text;
}

}  // namespace

TEST(Outline, ArcsStayWithinTheirTolerance) {
    // A full circle of two half-circle arcs.
    for (double r : {500.0, 3000.0, 20000.0})
        for (double tolerance : {1.0, 5.0, 20.0}) {
            auto ring = model::ring({{-r, 0, 1}, {r, 0, 1}}, tolerance);
            for (std::size_t i = 0; i < ring.size(); ++i) {
                auto p = ring[i], q = ring[(i + 1) % ring.size()];
                EXPECT_NEAR(std::hypot(p.x, p.y), r, 1e-6 * r);
                EXPECT_LT(r - std::hypot((p.x + q.x) / 2, (p.y + q.y) / 2), tolerance * 1.001);
            }
            EXPECT_NEAR(geometry::area(ring), std::numbers::pi * r * r, 7 * r * tolerance);
        }
    // A quarter arc that bulges outwards, and the same inwards.
    double quarter = std::tan(std::numbers::pi / 8);
    model::Outline square = box(0, 0, 1000, 1000);
    double segment = (std::numbers::pi / 4 - 0.5) * 0.5e6;  // radius 1000 / sqrt(2)
    square[0].bulge = quarter;
    EXPECT_NEAR(geometry::area(model::ring(square, 0.1)), 1e6 + segment, 500);
    square[0].bulge = -quarter;
    EXPECT_NEAR(geometry::area(model::ring(square, 0.1)), 1e6 - segment, 500);
    // Clockwise outlines come out anticlockwise.
    EXPECT_GT(geometry::area(model::ring({{0, 0}, {0, 1}, {1, 1}, {1, 0}})), 0);
}

TEST(Footprint, HasTheColumnsArea) {
    model::Column c{"c", "", 3, 4};
    c.width = 300, c.depth = 500, c.angle = 27;
    EXPECT_NEAR(geometry::area(model::footprint(c)), 150000, 1e-6);
    c.circular = true;
    EXPECT_NEAR(geometry::area(model::footprint(c)), std::numbers::pi * 150 * 150, 1e-6);
}

TEST(FloorValidation, AcceptsGoodFloors) {
    EXPECT_TRUE(model::validateFloor(good(), "f").empty());
    EXPECT_TRUE(model::nearMisses(good(), "f").empty());
}

TEST(FloorValidation, NamesEveryKindOfBadInputWithItsPlace) {
    Floor f = good();
    f.slabs[0].outline = {{0, 0}, {10000, 8000}, {10000, 0}, {0, 8000}};
    expectNamed(f, "slabs[0].outline", "crosses or repeats itself near (5.00, 4.00) m");

    f = good();
    f.slabs[0].outline.insert(f.slabs[0].outline.begin() + 1, {0.1, 0});
    expectNamed(f, "slabs[0].outline", "Corners 1 and 2 of slab S1 lie at the same place, (0.000, 0.000) m");

    f = good();
    f.slabs[0].thickness = 0;
    expectNamed(f, "slabs[0].thickness", "must be between 50 and 5000 mm; it is 0");

    f = good();
    f.openings = {{"o1", "Stair", box(9000, 3000, 11000, 4000)}};
    expectNamed(f, "openings[0].outline", "reaches 1.00 m² beyond the slab, near (10.5");

    f = good();
    f.columns[1].x = 12000;
    expectNamed(f, "columns[1]", "column C2 stands outside every slab, at (12.000, 1.000) m");

    f = good();
    f.openings = {{"o1", "", box(4000, 6000, 6000, 7500)}};
    expectNamed(f, "columns[2]", "column C3 stands in an opening, at (5.000, 7.000) m");

    f = good();
    f.columns[1].x = f.columns[0].x;
    expectNamed(f, "columns[1]", "column C2 and column C1 stand at the same place");

    f = good();
    f.beams = {{"b1", "B1", {1000, 1000}, {1000, 9000}}};
    expectNamed(f, "beams[0]", "beam B1 ends outside every slab, at (1.000, 9.000) m");

    f = good();
    f.walls = {{"w1", "W1", {1000, 1000}, {1010, 1000}}};
    expectNamed(f, "walls[0]", "wall W1 is shorter than 50 mm");

    f = good();
    f.slabs.push_back({"d2", "S2", box(9000, 0, 15000, 8000), 250});
    expectNamed(f, "slabs[1].outline", "lies over another slab by 8.00 m²");

    f = good();
    f.actions.loads[0].kind = model::FloorLoad::Kind::Point;
    f.actions.loads[0].a = {20000, 0};
    expectNamed(f, "loads[0]", "load l1 lies outside every slab, at (20.000, 0.000) m");

    f = good();
    f.actions.loads[0].outline = box(20000, 0, 22000, 2000);
    expectNamed(f, "loads[0].outline", "lies outside every slab, near (21.0");

    f = good();
    f.actions.loads[0].loadCase = "q9";
    expectNamed(f, "loads[0].loadCase", "There is no load case \"q9\"");

    f = good();
    f.slabs.clear();
    expectNamed(f, "slabs", "has no slab");

    f = good();
    f.slabs[0].outline[2].x = std::nan("");
    expectNamed(f, "slabs[0].outline", "2 km");

    f = good();
    f.actions.cases[0].use = "none";
    expectNamed(f, "cases[0].use", "There is no imposed use");
    f = good();
    f.actions.cases = {{"q1", "a", model::LoadCase::Nature::SelfWeight},
                       {"q2", "b", model::LoadCase::Nature::SelfWeight}};
    expectNamed(f, "cases[1]", "self-weight is counted twice");
}

TEST(FloorValidation, SeesABeamThatStopsThreeMillimetresShort) {
    Floor f = good();
    // From inside column C1 to 3 mm before the face of C2 (400 wide at x = 9000).
    f.beams = {{"b1", "B1", {1000, 1000}, {8797, 1000}}};
    auto misses = model::nearMisses(f, "floors[0]");
    ASSERT_EQ(misses.size(), 1u);
    EXPECT_EQ(misses[0].path, "floors[0].beams[0]");
    EXPECT_EQ(misses[0].message,
              "beam B1 ends 3 mm short of column C2, at (8.797, 1.000) m; extend it to meet.");
    f.beams[0].b.x = 8800;
    EXPECT_TRUE(model::nearMisses(f, "f").empty());
    f.beams[0].b.x = 6000;
    EXPECT_TRUE(model::nearMisses(f, "f").empty()) << "far away it is meant";
    f.slabs.push_back({"d2", "S2", box(10012, 0, 15000, 8000), 250});
    ASSERT_EQ(model::nearMisses(f, "f").size(), 1u);
    EXPECT_NE(model::nearMisses(f, "f")[0].message.find("stops 12 mm from slab S1"), std::string::npos);
}

TEST(FloorEdits, ShareWhatIsNotTouched) {
    model::Project p = model::emptyProject();
    for (unsigned i = 0; i < 3; ++i) {
        auto f = test::randomFloor(i + 1);
        f.id = "f" + std::to_string(i);
        p.floors.push_back(std::make_shared<Floor>(f));
    }
    auto next = model::editFloor(p, "f1", [](Floor& f, model::Project&) { f.name = "New"; });
    EXPECT_EQ(next.floors[0], p.floors[0]);
    EXPECT_NE(next.floors[1], p.floors[1]);
    EXPECT_EQ(p.floors[1]->name, "Random 2");
    EXPECT_FALSE(next == p);
    EXPECT_EQ(model::findFloor(next, "f1")->name, "New");
    EXPECT_EQ(model::findFloor(next, "x"), nullptr);
    EXPECT_TRUE(model::editFloor(p, "x", [](Floor&, model::Project&) { FAIL(); }) == p);
}
