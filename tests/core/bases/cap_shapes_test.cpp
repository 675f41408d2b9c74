// Caps cut to their piles: outlines, perimeters on them by another route, bands in equilibrium, bars within.
#include "bases/cap_shapes.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numbers>
#include <random>

#include "bases/cap.h"
#include "found.h"
#include "ground/pile_group.h"
#include "model/edits.h"

using namespace talvik;
using geometry::Point;
using test::find;
using test::standard;

namespace {

model::BaseSet one(double G, int piles, model::CapOutline outline, double diameter = 500) {
    model::BaseSet set;
    set.id = "f1", set.kind = model::BaseSet::Kind::Caps;
    set.cases = {{"q1", "G", {actions::Nature::Permanent, ""}}};
    set.columns = {{"c1", "A1", 0, 0, 450, 450, {{"q1", G}}}};
    model::Base base;
    base.id = "b1", base.columns = {"c1"}, base.piles = piles;
    set.bases = {base};
    set.outline = outline;
    set.pile = {true, diameter, 650e3, 200e3, 0, false, 3, 150, 75, 0};
    set.ground.depth = 0;
    return set;
}

}  // namespace

TEST(CapShapes, SidesStandOffThePilesByTheEdge) {
    for (bool cut : {false, true})
        for (int n : {3, 7, 10}) {
            const auto piles = bases::pileArrangement(n, 1500);
            const auto ring = bases::alongPiles(piles, 400, cut);
            ASSERT_EQ(ring.size(), n == 3 ? (cut ? 6u : 3u) : 6u) << n;
            EXPECT_TRUE(geometry::convex(ring));
            EXPECT_GT(geometry::area(ring), 0);
            // No pile nearer to a side than the edge, and some as near to each.
            for (std::size_t i = 0; i < ring.size(); ++i) {
                double nearest = 1e300;
                for (Point p : piles)
                    nearest = std::min(nearest, geometry::distance(p, ring[i], ring[(i + 1) % ring.size()]));
                EXPECT_NEAR(nearest, 400, 1e-6) << n << " " << i;
            }
        }
    // Three piles: area of the triangle through them, a strip along it, and what the corners add.
    const auto piles = bases::pileArrangement(3, 1500);
    const double inner = std::sqrt(3.0) / 4 * 1500 * 1500, strips = 3 * 1500 * 400;
    EXPECT_NEAR(geometry::area(bases::alongPiles(piles, 400, false)),
                inner + strips + 3 * 400 * 400 * std::sqrt(3.0), 1);
    EXPECT_NEAR(geometry::area(bases::alongPiles(piles, 400, true)),
                inner + strips + 3 * 2 * 400 * 400 * std::tan(std::numbers::pi / 6), 1);
    // Rows in a rectangle have none of their own.
    for (int n : {1, 2, 4, 5, 6, 8, 9, 11, 12})
        EXPECT_TRUE(bases::alongPiles(bases::pileArrangement(n, 1500), 400, true).empty()) << n;
}

TEST(CapShapes, ChordsAndReachesBySampling) {
    std::mt19937 random(5);
    auto number = [&](double low, double high) {
        return low + (high - low) * double(random() % 10000) / 1e4;
    };
    for (int k = 0; k < 100; ++k) {
        const auto ring = bases::alongPiles(bases::pileArrangement(k % 2 ? 3 : 7, number(900, 2400)),
                                            number(200, 600), k % 3 == 0);
        const double at = number(-500, 500);
        for (int axis : {0, 1}) {
            const auto c = bases::chord(ring, axis, at);
            auto within = [&](double v) {
                return geometry::contains(ring, axis == 0 ? Point{at, v} : Point{v, at});
            };
            EXPECT_TRUE(within(c.from + 1) && within(c.to - 1));
            EXPECT_FALSE(within(c.from - 1) || within(c.to + 1));
        }
        const double t = number(0, 6.28);
        const Point way{std::cos(t), std::sin(t)};
        const double far = bases::reach(ring, {10, 20}, way);
        EXPECT_TRUE(geometry::contains(ring, {10 + (far - 1) * way.x, 20 + (far - 1) * way.y}));
        EXPECT_FALSE(geometry::contains(ring, {10 + (far + 1) * way.x, 20 + (far + 1) * way.y}));
    }
}

// A rectangle given as an outline has the perimeters of the closed form, wherever the column stands.
TEST(CapShapes, PerimetersOnARectangleAreThoseOfTheClosedForm) {
    std::mt19937 random(7);
    auto number = [&](double low, double high) {
        return low + (high - low) * double(random() % 10000) / 1e4;
    };
    for (int k = 0; k < 200; ++k) {
        standards::FootingPunching in;
        in.sides[0] = number(200, 800), in.sides[1] = number(200, 800), in.d = 500;
        for (double& o : in.over) o = number(0, 1500);
        auto traced = in;
        const double x0 = -in.sides[0] / 2 - in.over[0], x1 = in.sides[0] / 2 + in.over[1],
                     y0 = -in.sides[1] / 2 - in.over[2], y1 = in.sides[1] / 2 + in.over[3];
        traced.outline = {{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}};
        const double a = number(50, 900);
        // Three cut edges and more leave two lines that are no perimeter round a column.
        int cuts = 0;
        for (double o : in.over) cuts += o < a;
        if (cuts > 2) continue;
        for (bool rounded : {false, true}) {
            const auto p = standards::footingPerimeter(in, a, rounded),
                       q = standards::footingPerimeter(traced, a, rounded);
            EXPECT_NEAR(q.length, p.length, 2e-3 * p.length + 1) << k;
            EXPECT_NEAR(q.area, p.area, 2e-3 * p.area) << k;
            EXPECT_EQ(q.whole, p.whole);
            for (int axis : {0, 1}) {
                const auto m = standards::footingMoments(in, a, rounded, axis),
                           n = standards::footingMoments(traced, a, rounded, axis);
                EXPECT_NEAR(n.centroid, m.centroid, 5e-3 * a + 1) << k;
                EXPECT_NEAR(n.first, m.first, 1e-2 * m.first) << k;
                EXPECT_NEAR(n.second, m.second, 2e-2 * m.second) << k;
            }
        }
        double free = 0;
        for (int i = 0; i < 4; ++i)
            free += in.near({in.over[i], in.over[i ^ 1]}) ? 0 : in.sides[i < 2 ? 1 : 0];
        EXPECT_NEAR(in.freeSides(), free, 1e-9);
    }
}

// In the sharp corner of a triangle the perimeter is the line across it, no longer than the chord there.
TEST(CapShapes, PerimeterInASharpCornerIsTheChord) {
    const auto piles = bases::pileArrangement(3, 1500);
    const auto ring = bases::alongPiles(piles, 400, true);
    standards::FootingPunching in;
    in.sides[0] = in.sides[1] = 400, in.d = 500;
    for (Point p : ring) in.outline.push_back({p.x - piles[2].x, p.y - piles[2].y});
    const double a = 500;
    const auto p = standards::footingPerimeter(in, a, true);
    const double across = bases::chord(in.outline, 1, -200 - a).length();
    EXPECT_FALSE(p.whole);
    EXPECT_LT(p.length, across * 1.05);
    EXPECT_GT(p.length, 0.7 * across);
}

TEST(CapShapes, BandsOfThreePilesBalanceTheStruts) {
    auto set = one(1500e3, 3, model::CapOutline::CornersCut);
    set.capSteel = model::CapSteel::Truss;
    const bases::Context in(set, model::emptyProject().basis, standard());
    const bases::Cap cap(in, set.bases[0]);
    const auto d = cap.solve();
    ASSERT_EQ(d.trouble, "");
    ASSERT_EQ(d.size.outline.size(), 6u);
    const auto all = cap.checks(d, {"f1", model::PartKind::Base, "b1"}, true);
    const auto* tie = find(all, "/tie");
    ASSERT_NE(tie, nullptr);
    EXPECT_EQ(find(all, "flexure-x"), nullptr);
    // Resolved by hand at each pile: struts from the quarters of the column's sides, R a/z, into two bands.
    double z = 0;
    for (const auto& s : tie->steps)
        if (s.symbol == "z") z = s.result;
    ASSERT_GT(z, 0);
    const double R = 1.35 * 1500e3 / 3;
    // The pile above the column: straight along y.
    const double apex = R * (2 * 750 / std::sqrt(3.0) - 450 / 4) / z / (2 * std::cos(std::numbers::pi / 6));
    // Those at the side: along x and y.
    const double hx = R * (750 - 450 / 4) / z, hy = R * (750 / std::sqrt(3.0) - 450 / 4) / z;
    const double slant = hy / std::sin(std::numbers::pi / 3), level = hx - slant / 2;
    EXPECT_NEAR(tie->demand, std::max({apex, slant, level}), 2e-3 * tie->demand);
    // From the middle of the column the three bands are alike; struts from its quarters ask for less.
    EXPECT_LT(tie->demand, ground::tieForce(3, 1.35 * 1500e3, 1500, z, 450, true) * 1.02);
    // The steel of a band carries it.
    const auto& m = d.bottom[0];
    EXPECT_TRUE(m.bands);
    EXPECT_NEAR(tie->limit, m.number * m.bar->area * 500 / 1.15, 1e-3 * tie->limit);
    EXPECT_GE(tie->limit, tie->demand);
}

TEST(CapShapes, BarsLieWithinTheConcreteAndOverThePiles) {
    for (bool en : {true, false})
        for (auto outline : {model::CapOutline::AlongPiles, model::CapOutline::CornersCut})
            for (int n : {3, 7, 10}) {
                auto set = one(330e3 * n, n, outline);
                set.topBars = true, set.sideBar = en ? "H12" : "No.13", set.linkBar = en ? "H10" : "No.10";
                if (!en) set.bars = {"No.13", "No.16", "No.19", "No.25"};
                const auto project = en ? model::emptyProject() : model::freshProject("aci318-si");
                const bases::Context in(set, project.basis, standard(en));
                const bases::Cap cap(in, set.bases[0]);
                const auto d = cap.solve();
                ASSERT_EQ(d.trouble, "") << en << n;
                // Hooks of ACI 318-19 are longer than such outlines leave room for.
                EXPECT_FALSE(en && d.squared);
                if (d.squared) continue;
                const Point c = cap.centre(d.size);
                const auto room = geometry::offset(d.size.outline, -in.cover + 1).front();
                int bars = 0;
                for (const auto& l : cap.laid(d)) {
                    ASSERT_EQ(std::size_t(l.item.number), l.lines.size()) << l.item.run;
                    for (const auto& line : l.lines) {
                        ++bars;
                        for (const auto& p : line)
                            EXPECT_TRUE(geometry::contains(room, {p.x - c.x, p.y - c.y}))
                                << en << " " << n << " " << l.item.run << " " << p.x << " " << p.y;
                    }
                }
                EXPECT_GT(bars, 10);
                // The middle of the piles is below the column, and the weight is where its area is.
                double x = 0, y = 0;
                for (Point p : d.piles) x += (p.x + c.x) / n, y += (p.y + c.y) / n;
                EXPECT_NEAR(x, 0, 1e-6);
                EXPECT_NEAR(y, 0, 1e-6);
                const auto forces = cap.reactions(d);
                double most = 0, least = 1e300;
                for (double r : forces[0]) most = std::max(most, r), least = std::min(least, r);
                EXPECT_NEAR(most, least, 1e-6 * most) << n;
                EXPECT_NEAR(most * n, 330e3 * n + in.density * d.size.h * geometry::area(d.size.outline), 10);
                for (const auto& check : cap.checks(d, {"f1", model::PartKind::Base, "b1"}, false))
                    EXPECT_NE(check.outcome, checks::Outcome::Over) << en << n << check.title;
            }
}

TEST(CapShapes, TheTrussAndBendingAskForTheirOwn) {
    double area[3];
    for (auto by : {model::CapSteel::Greater, model::CapSteel::Bending, model::CapSteel::Truss}) {
        auto set = one(2200e3, 4, model::CapOutline::Rectangular);
        set.capSteel = by, set.bases[0].h = 1000;
        const bases::Context in(set, model::emptyProject().basis, standard());
        const bases::Cap cap(in, set.bases[0]);
        const auto d = cap.solve();
        const auto all = cap.checks(d, {"f1", model::PartKind::Base, "b1"}, true);
        EXPECT_EQ(find(all, "tie-x") != nullptr, by != model::CapSteel::Bending);
        EXPECT_EQ(find(all, "flexure-x") != nullptr, by != model::CapSteel::Truss);
        if (const auto* tie = find(all, "tie-x")) {
            double z = 0;
            for (const auto& s : tie->steps)
                if (s.symbol == "z") z = s.result;
            // Two of four piles on a side: twice the tie between two of them.
            EXPECT_NEAR(tie->demand, 2 * ground::tieForce(4, 1.35 * 2200e3, 1500, z, 450, false),
                        1e-3 * tie->demand);
        }
        area[int(by)] = d.bottom[0].area();
    }
    EXPECT_GE(area[0], std::max(area[1], area[2]) - 1e-9);
}
