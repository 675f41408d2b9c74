// Grids, placing, copying and changing members; snapping and typed points.
#include "layout/placing.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "formats/project_file.h"
#include "layout/properties.h"
#include "layout/snapping.h"
#include "model/floor_validation.h"
#include "support/random_floor.h"

using namespace talvik;
using layout::Point;
using model::Floor;
using model::Project;

namespace {

Floor gridded(Project& p) {
    Floor f;
    f.id = "f";
    model::Grid g;
    g.origin = {1000, 2000};
    g.along = units::parseSpacingList("2@6.0 4.5", units::Kind::Span, units::System::Metric).values;
    g.across = {5000, 5500};
    layout::add(p, f, g);
    return f;
}

}  // namespace

TEST(Grid, LabelsItsLinesAndSkipsIAndO) {
    model::Grid g;
    g.along = std::vector<double>(3, 6000);
    g.across = std::vector<double>(30, 5000);
    EXPECT_EQ(layout::crossingName(g, 2, 1), "B3");
    EXPECT_EQ(layout::label(g, false, 7), "H");
    EXPECT_EQ(layout::label(g, false, 8), "J");
    EXPECT_EQ(layout::label(g, false, 13), "P");
    EXPECT_EQ(layout::label(g, false, 24), "AA");
    g.alongLabels = {"", "Quay"};
    EXPECT_EQ(layout::label(g, true, 0), "1");
    EXPECT_EQ(layout::label(g, true, 1), "Quay");
    g.angle = 30, g.between = 75;  // skew
    Point p = layout::crossing(g, 1, 0), q = layout::crossing(g, 0, 1);
    EXPECT_NEAR(std::atan2(p.y, p.x) * 180 / M_PI, 30, 1e-9);
    EXPECT_NEAR(std::atan2(q.y, q.x) * 180 / M_PI, 105, 1e-9);
    EXPECT_NEAR(std::hypot(q.x, q.y), 5000, 1e-9);
}

TEST(Placing, ABoxOverCrossingsPlacesNamedColumnsOnce) {
    Project p;
    Floor f = gridded(p);
    layout::Box box{{0, 0}, {14000, 8000}};
    EXPECT_EQ(layout::placeColumns(p, f, box, {}).size(), 6u);
    EXPECT_EQ(layout::placeColumns(p, f, box, {}).size(), 0u);
    EXPECT_EQ(f.columns[0].name, "A1");
    EXPECT_EQ(f.columns[5].name, "B3");
    EXPECT_EQ(f.columns[5].x, 13000);
    EXPECT_EQ(f.columns[5].y, 7000);
}

TEST(Placing, ABoxOverBaysPlacesBeamsAndSlabsThatMeet) {
    Project p;
    Floor f = gridded(p);
    layout::Box box{{0, 0}, {20000, 20000}};
    // 3 x 2 bays: 3 rows of 3 and 4 columns of 2 sides.
    EXPECT_EQ(layout::placeBeams(p, f, box, {}).size(), 17u);
    EXPECT_EQ(layout::placeBeams(p, f, box, {}).size(), 0u);
    EXPECT_EQ(layout::placePanels(p, f, box, {}).size(), 6u);
    EXPECT_EQ(layout::placePanels(p, f, box, {}).size(), 0u);
    layout::placeColumns(p, f, box, {});
    EXPECT_TRUE(model::validateFloor(f, "f").empty());
    EXPECT_TRUE(model::nearMisses(f, "f").empty());
}

TEST(Placing, ALongBeamIsSplitAtWhatItPasses) {
    Project p;
    Floor f = gridded(p);
    layout::placeColumns(p, f, {{0, 0}, {20000, 3000}}, {});
    auto id = layout::add(p, f, model::FloorBeam{"", "", {1000, 2000}, {17500, 2000}});
    layout::add(p, f, model::FloorBeam{"", "", {4000, 0}, {4000, 5000}});
    auto pieces = layout::splitBeam(p, f, id);
    ASSERT_EQ(pieces.size(), 4u);  // columns at 7000 and 13000, a beam at 4000
    EXPECT_EQ(pieces[0], id);
    double sum = 0;
    for (const auto& b : f.beams)
        if (b.a.y == 2000 && b.b.y == 2000) sum += b.b.x - b.a.x;
    EXPECT_NEAR(sum, 16500, 1e-9);
    EXPECT_TRUE(layout::splitBeam(p, f, id).empty()) << "nothing left to split";
}

TEST(Placing, CopiesMirrorsTurnsAndRepeats) {
    Project p;
    Floor f = gridded(p);
    model::Opening o;
    o.outline = {{1500, 2500}, {2500, 2500, 0.4}, {2500, 3000}};
    auto id = layout::add(p, f, o);
    double area = geometry::area(model::ring(f.openings[0].outline));
    auto twice = layout::copy(p, f, {id}, {3000, 0}, 2);
    ASSERT_EQ(twice.size(), 2u);
    EXPECT_EQ(f.openings[2].outline[0].x, 7500);
    auto mirrored = layout::mirror(p, f, {id}, {0, 0}, {0, 0});
    EXPECT_TRUE(mirrored.empty()) << "a line of no length mirrors nothing";
    mirrored = layout::mirror(p, f, {id}, {0, 0}, {0, 1000});
    ASSERT_EQ(mirrored.size(), 1u);
    EXPECT_NEAR(f.openings[3].outline[0].x, -1500, 1e-9);
    EXPECT_NEAR(std::abs(geometry::area(model::ring(f.openings[3].outline))), area, 1)
        << "the arc bulges the same way";
    // Twice mirrored is where it was.
    layout::mirror(p, f, {mirrored[0]}, {0, 0}, {0, 1000});
    EXPECT_NEAR(f.openings[4].outline[1].bulge, 0.4, 1e-12);
    EXPECT_NEAR(f.openings[4].outline[1].x, 2500, 1e-9);
    layout::rotate(f, {id}, {0, 0}, 90);
    EXPECT_EQ(f.openings[0].outline[0].x, -2500);
    EXPECT_EQ(f.openings[0].outline[0].y, 1500);
    auto col = layout::add(p, f, model::Column{"", "", 1000, 2000});
    EXPECT_EQ(layout::repeatAlongGrid(p, f, {col}, true, false).size(), 3u);
    EXPECT_EQ(layout::repeatAlongGrid(p, f, {col}, true, true).size(), 11u);
}

TEST(Placing, OffsetsOneSideOrAll) {
    model::Outline square = layout::rectangle({0, 0}, {4000, 3000});
    auto all = layout::offsetSide(square, -1, 250);
    EXPECT_NEAR(geometry::area(model::ring(all)), 4500.0 * 3500, 1e-3);
    auto one = layout::offsetSide(square, 1, 500);
    EXPECT_NEAR(geometry::area(model::ring(one)), 4500.0 * 3000, 1e-3);
    std::reverse(square.begin(), square.end());  // clockwise: outwards stays outwards
    EXPECT_NEAR(geometry::area(model::ring(layout::offsetSide(square, -1, 250))), 4500.0 * 3500, 1e-3);
    EXPECT_TRUE(layout::offsetSide(square, -1, -1600).empty()) << "nothing would be left";
    auto longer = layout::setSideLength(layout::rectangle({0, 0}, {4000, 3000}), 0, 5000);
    EXPECT_NEAR(geometry::area(model::ring(longer)), 5000.0 * 3000, 1e-3) << "a rectangle stays one";
}

TEST(Properties, ChangeManyAtOnce) {
    Project p;
    Floor f = gridded(p);
    auto ids = layout::placeColumns(p, f, {{0, 0}, {20000, 20000}}, {});
    auto wall = layout::add(p, f, model::Wall{"", "", {0, 0}, {5000, 0}});
    std::set<model::Id> all(ids.begin(), ids.end());
    std::set<std::string> mixed;
    auto common = layout::commonProperties(f, all, &mixed);
    EXPECT_TRUE(mixed.contains("x") && mixed.contains("name") && !mixed.contains("width"));
    layout::setProperty(f, all, "shape", std::string("circular"));
    layout::setProperty(f, all, "width", 450.0);
    for (const auto& c : f.columns) EXPECT_TRUE(c.circular && c.width == 450 && c.depth == 450);
    all.insert(wall);
    common = layout::commonProperties(f, all, nullptr);
    for (const auto& c : common) EXPECT_EQ(c.key, "name");
    layout::setProperty(f, {wall}, "length", 6000.0);
    EXPECT_EQ(f.walls[0].b.x, 6000);
    // Every property that can be read can be written back without a change.
    for (unsigned seed = 0; seed < 20; ++seed) {
        Floor g = test::randomFloor(seed), before = g;
        model::eachMember(before, [&](const std::string&, const auto& m) {
            for (const auto& q : layout::properties(before, m.id))
                layout::setProperty(g, {m.id}, q.key, q.value);
        });
        for (auto* x : {&g, &before})
            for (auto& c : x->columns)
                if (c.circular) c.depth = c.width;
        EXPECT_EQ(g.columns, before.columns);
        EXPECT_EQ(g.beams, before.beams);
        EXPECT_EQ(g.actions.loads, before.actions.loads);
    }
}

TEST(Snapping, CatchesWithAReasonThePointMeant) {
    Project p;
    Floor f = gridded(p);
    layout::add(p, f, model::FloorBeam{"", "B1", {0, 0}, {9000, 0}});
    layout::add(p, f, model::Wall{"", "W1", {3000, -2000}, {3000, 1000}});
    layout::SnapIndex index(f, {{{20000, 0}, {20000, 10000}}});
    auto at = [&](double x, double y, std::optional<Point> from = {}) {
        return index.snap({x, y}, 200, from);
    };
    EXPECT_EQ(at(1050, 2060)->reason, layout::Catch::Crossing);
    EXPECT_EQ(at(1050, 2060)->of, "A1");
    EXPECT_EQ(at(8950, 40)->reason, layout::Catch::End);
    EXPECT_EQ(at(4480, 30)->reason, layout::Catch::Middle);
    EXPECT_EQ(at(3040, 40)->reason, layout::Catch::Intersection);
    EXPECT_EQ(at(2000, 60)->reason, layout::Catch::Edge);
    EXPECT_EQ(at(2000, 60)->of, "Beam B1");
    EXPECT_EQ(at(20060, 4000)->of, "the drawing below");
    EXPECT_EQ(at(6000, 100, Point{6020, 3000})->reason, layout::Catch::Perpendicular);
    EXPECT_EQ(at(6000, 100, Point{6020, 3000})->at, (Point{6020, 0}));
    EXPECT_EQ(at(1100, 4400)->reason, layout::Catch::OnGrid);
    EXPECT_FALSE(at(15000, -1000));
}

TEST(Snapping, FindsWhatASearchOverAllFinds) {
    std::mt19937 random(5);
    for (unsigned seed = 0; seed < 30; ++seed) {
        auto f = test::randomFloor(seed);
        layout::SnapIndex index(f, {});
        auto near = layout::handles(f, f.slabs[0].id);
        for (Point corner : near)
            for (int k = 0; k < 5; ++k) {
                std::uniform_real_distribution<double> d(-100, 100);
                Point p{corner.x + d(random), corner.y + d(random)};
                auto s = index.snap(p, 250);
                ASSERT_TRUE(s) << seed;
                EXPECT_LE(geometry::length(s->at, p), 250 + 1e-9);
            }
    }
}

TEST(Snapping, TypedPointsAreLengthsAnglesAndCoordinates) {
    auto point = [](const char* text, std::optional<Point> from = Point{1000, 1000},
                    Point to = {2000, 1000}) {
        return layout::typedPoint(text, from, to, units::System::Metric);
    };
    EXPECT_EQ(point("6.5").at, (Point{7500, 1000}));
    EXPECT_EQ(point("2<90").at, (Point{1000, 3000}));
    EXPECT_EQ(point("3.2, 4").at, (Point{3200, 4000}));
    EXPECT_EQ(point("@1,-2").at, (Point{2000, -1000}));
    EXPECT_EQ(point("250 mm, 1 m").at, (Point{250, 1000}));
    EXPECT_NEAR(point("2*3.1").at->x, 7200, 1e-9);
    EXPECT_FALSE(point("6.5", {}).error.empty());
    EXPECT_FALSE(point("x,y").error.empty());
    EXPECT_FALSE(point("6.5", Point{0, 0}, {0, 0}).error.empty());
    EXPECT_NEAR(point("10,0", {}, {}).at->x, 10000, 1e-9);
    Project p;
    Floor f = gridded(p);
    f.grids[0].angle = 20;
    Point s = layout::straight(f, {0, 0}, {1000, 380});
    EXPECT_NEAR(std::atan2(s.y, s.x) * 180 / M_PI, 20, 1e-6) << "along the grid, which is nearer than 45";
    EXPECT_EQ(layout::straight(f, {0, 0}, {1000, 30}).y, 0);
}

TEST(Hit, TakesTheSmallestThingFirst) {
    auto project = formats::demoFloorProject();
    const auto& f = *project.floors[0];
    EXPECT_EQ(layout::displayName(f, layout::hit(f, {7500, 6500}, 50)), "Column B2");
    EXPECT_TRUE(layout::displayName(f, layout::hit(f, {11000, 9000}, 50)).starts_with("Opening"));
    EXPECT_TRUE(layout::displayName(f, layout::hit(f, {3000, 300}, 50)).starts_with("Beam"));
    EXPECT_EQ(layout::displayName(f, layout::hit(f, {15000, 3400}, 50)), "Line load Finishes");
    EXPECT_TRUE(layout::displayName(f, layout::hit(f, {18300, 4900}, 50)).starts_with("Point load"));
    EXPECT_TRUE(layout::displayName(f, layout::hit(f, {3000, 9000}, 50)).starts_with("Slab"));
    EXPECT_EQ(layout::hit(f, {-3000, 9000}, 50), "");
    auto whole = layout::inside(f, {{-1000, -1000}, {30000, 14000}}, false);
    EXPECT_TRUE(whole.contains(f.slabs[0].id) && whole.contains(f.columns[0].id));
    auto part = layout::inside(f, {{7000, 6000}, {8000, 7000}}, false);
    EXPECT_EQ(part.size(), 1u);
    EXPECT_TRUE(layout::inside(f, {{-1000, 1000}, {1000, 2000}}, true).contains(f.slabs[0].id));
}

TEST(Grid, SaysWhereAPointLies) {
    Project p;
    Floor f = gridded(p);
    EXPECT_EQ(layout::reference(f, {7000, 2000}), "A/2");
    EXPECT_EQ(layout::reference(f, {7300, 2400}), "near A/2");
    EXPECT_EQ(layout::reference(f, {90000, 0}), "(90.00, 0.00) m");
    EXPECT_EQ(layout::reference({}, {1234, 0}), "(1.23, 0.00) m");
    EXPECT_EQ(layout::crossingAt(f, {7000.4, 2000}, 1).value_or(""), "A2");
    EXPECT_FALSE(layout::crossingAt(f, {7100, 2000}, 1));
}

TEST(Placing, RemovingACaseTakesItsLoadsAndFactorsAlong) {
    Project p = formats::demoFloorProject();
    Floor f = *p.floors[0];
    auto hall = f.actions.cases[2].id, kept = f.actions.cases[3].id;
    f.actions.combinations = {{"r1", "own", "", actions::LimitState::Ultimate, {{hall, 1.5}, {kept, 1.2}}}};
    layout::remove(f, {hall});
    EXPECT_EQ(f.actions.cases.size(), 3u);
    for (const auto& l : f.actions.loads) EXPECT_NE(l.loadCase, hall);
    EXPECT_EQ(f.actions.combinations[0].factors, (std::map<model::Id, double>{{kept, 1.2}}));
    EXPECT_TRUE(model::wellFormed(f, "f").empty());
}

TEST(Placing, HandlesAreThePointsThatCanBeDragged) {
    Project p = formats::demoFloorProject();
    Floor f = *p.floors[0];
    model::eachMember(*p.floors[0], [&](const std::string&, const auto& m) {
        auto before = layout::handles(f, m.id);
        for (std::size_t i = 0; i < before.size(); ++i) {
            layout::setHandle(f, m.id, i, {before[i].x + 10, before[i].y - 5});
            auto after = layout::handles(f, m.id);
            ASSERT_EQ(after.size(), before.size());
            EXPECT_EQ(after[i].x, before[i].x + 10);
            EXPECT_EQ(after[i].y, before[i].y - 5);
            for (std::size_t k = 0; k < after.size(); ++k)
                if (k != i) {
                    EXPECT_EQ(after[k], before[k]);
                }
            layout::setHandle(f, m.id, i, before[i]);
        }
        EXPECT_FALSE(layout::displayName(f, m.id).empty());
    });
    EXPECT_EQ(f, *p.floors[0]);
}

TEST(Placing, MovedThereAndBackIsWhereItWas) {
    for (unsigned seed = 0; seed < 40; ++seed) {
        Floor f = test::randomFloor(seed);
        layout::roundPlaces(f);
        Floor before = f;
        std::set<model::Id> all;
        model::eachMember(f, [&](const std::string&, const auto& m) { all.insert(m.id); });
        layout::move(f, all, {1234.5, -777.25});
        layout::move(f, all, {-1234.5, 777.25});
        layout::roundPlaces(f);
        EXPECT_EQ(f, before) << seed;
        layout::rotate(f, all, {100, 200}, 90);
        layout::rotate(f, all, {100, 200}, -90);
        layout::roundPlaces(f);
        EXPECT_EQ(f.walls, before.walls) << seed;
        EXPECT_EQ(f.beams, before.beams) << seed;
        EXPECT_EQ(f.slabs, before.slabs) << seed;
    }
}
