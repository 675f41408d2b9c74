// Connections on floors: what is found, what acts on it, what is said where nothing can be checked.
#include "design/connections.h"

#include <gtest/gtest.h>

#include <cmath>
#include <functional>

#include "design/floor_design.h"
#include "formats/project_file.h"
#include "model/edits.h"
#include "support/random_floor.h"
#include "support/regular_floor.h"

using namespace talvik;
using namespace talvik::design;
using standards::ControlSection;
using At = ControlSection::At;

namespace {

model::Project changed(const model::Project& p, const std::function<void(model::Floor&)>& change) {
    return model::editFloor(p, p.floors.front()->id, [&](model::Floor& f, model::Project&) { change(f); });
}
std::shared_ptr<const FloorDesign> designed(const model::Project& p) {
    return designFloor(p, 0, {}, false);
}
const checks::Check* check(const ConnectionDesign& c, const std::string& name) {
    for (const auto& k : c.checks)
        if (k.key.ends_with("/" + name)) return &k;
    return nullptr;
}

}  // namespace

TEST(Connections, ClassesAreFoundFromTheGeometry) {
    // 3 x 3 columns, the slab 200 beyond their middles.
    const auto d = designed(test::regularFloor(3, 3, 6000, 6000));
    ASSERT_TRUE(d);
    ASSERT_EQ(d->connections.size(), 9u);
    int interior = 0, edge = 0, corner = 0;
    for (const auto& c : d->connections) {
        interior += c->position() == "interior";
        edge += c->position() == "edge";
        corner += c->position() == "corner";
        EXPECT_TRUE(c->topTension);
        EXPECT_EQ(c->part.kind, model::PartKind::Connection);
        EXPECT_EQ(d->find(c->part), c.get()) << "a part like others";
    }
    EXPECT_EQ(interior, 1);
    EXPECT_EQ(edge, 4);
    EXPECT_EQ(corner, 4);
    const auto notch = changed(test::regularFloor(3, 3, 6000, 6000), [](model::Floor& f) {
        // Column c9 stood where the notch is.
        f.slabs.front().outline = {{-200, -200}, {12200, -200}, {12200, 6200},
                                   {6200, 6200}, {6200, 12200}, {-200, 12200}};
        f.columns.erase(f.columns.begin() + 8);
        f.openings.push_back({"o1", "O1", test::rectangle(300, 5900, 700, 6300)});
    });
    const auto n = designed(notch);
    ASSERT_TRUE(n);
    EXPECT_EQ(n->connection("c5")->position(), "re-entrant corner");
    EXPECT_EQ(n->connection("c2")->position(), "edge, near an opening");
}

// One load all over a regular floor: each column carries what statics say, less what stands inside its
// perimeter.
TEST(Connections, DemandIsTheReactionLessWhatStandsInside) {
    auto p = changed(test::regularFloor(3, 3, 6000, 6000),
                     [](model::Floor& f) { f.actions.arrangement = model::Arrangement::All; });
    const auto d = designed(p);
    ASSERT_TRUE(d);
    const auto& c = *d->connection("c5");
    const int at = c.governing(At::Control);
    ASSERT_GE(at, 0);
    const auto& s = c.sections[std::size_t(at)];
    const auto& demand = c.demand[std::size_t(at)];
    EXPECT_EQ(d->analysis->combinations[demand.combination].state, actions::LimitState::Ultimate);
    double reaction = 0;
    const auto forces = d->analysis->forces(demand.combination);
    for (std::size_t i = 0; i < forces.size(); ++i)
        if (d->analysis->model->supports[i].id == "c5") reaction = forces[i].up;
    // 1.35 (self-weight + 1.5) + 1.5 x 3 kN/m2 on the area inside a perimeter at 2d.
    const double q = 1.35 * (250 * d->basis->concreteDensity + 1.5e-3) + 1.5 * 3e-3, r = 2 * s.d,
                 inside = 400 * 400 + 4 * 400 * r + M_PI * r * r;
    EXPECT_NEAR(demand.forces.V, reaction - q * inside, 2e-3 * reaction);
    EXPECT_NEAR(demand.forces.Mx, 0, 0.01 * reaction * 100);
    EXPECT_NEAR(demand.reaction, reaction - q * 400 * 400, 1e-6 * reaction);
    // Edge columns: the line of action lies inside the slab, as it does in theirs.
    const auto& left = *d->connection("c2");
    EXPECT_GT(left.shownDemand()->forces.Mx / left.shownDemand()->forces.V, 20);
    const auto& right = *d->connection("c8");
    EXPECT_LT(right.shownDemand()->forces.Mx / right.shownDemand()->forces.V, -20);
    EXPECT_NEAR(left.controlRatio(), right.controlRatio(), 1e-6 * left.controlRatio()) << "mirrored";
}

// Equilibrium against the shear of the plate along the same line, which knows nothing of it.
TEST(Connections, ForceInsideEqualsTheShearAlongThePerimeter) {
    double worst = 0, sum = 0;
    int compared = 0, floors = 0, rough = 0;
    for (unsigned seed = 1; seed <= 100; ++seed) {
        model::Project p = model::emptyProject();
        p.nextId = 1000;
        auto floor = test::randomFloor(seed);
        floor.choices.meshSize = 200;
        floor.actions.arrangement = model::Arrangement::All;
        floor.grounds.clear();  // springs of the ground stand at nodes, a perimeter passes between them
        p.floors.push_back(std::make_shared<const model::Floor>(std::move(floor)));
        const auto input = floorInput(p, 0);
        const auto a =
            analysis::FloorAnalyser().analyse(*input.floor, input.path, input.basis, input.combinations);
        if (!a.good() || a.nonlinear) continue;
        ++floors;
        const auto standard = standards::makeStandard("en1992");
        const analysis::Equilibrium equilibrium(*input.floor, a, input.basis.density);
        const analysis::LineShear along(a);
        for (const auto& site : connectionSites(*input.floor, *standard->punching, 40)) {
            if (!site.without.empty() || site.members.size() > 1 || site.key[0] != 'c' ||
                site.place.of != standards::PunchingPlace::Of::Column)
                continue;
            auto place = site.place;
            place.d = place.h - 40, place.dropD = place.dropH - 40;
            for (const auto& s : standard->punching->sections(place)) {
                if (s.at != At::Control || s.position == standards::Position::Between) continue;
                // Supports and beams that equilibrium leaves out.
                bool other = false;
                for (const auto& m : a.model->supports)
                    other |= m.id != site.key && m.kind != analysis::FloorSupport::Kind::Ground &&
                             geometry::contains(s.line.outline, m.at);
                auto crosses = [&](model::Point from, model::Point to) {
                    for (int k = 0; k <= 40; ++k) {
                        const double t = k / 40.0;
                        if (geometry::contains(s.line.outline,
                                               {from.x + t * (to.x - from.x), from.y + t * (to.y - from.y)}))
                            return true;
                    }
                    return false;
                };
                for (const auto& w : input.floor->walls)
                    other |= crosses(w.a, w.b) || geometry::distanceToEdge(s.line.outline, w.a) < 400 ||
                             geometry::distanceToEdge(s.line.outline, w.b) < 400;
                for (const auto& b : input.floor->beams)
                    other |= crosses(b.a, b.b) || geometry::distanceToEdge(s.line.outline, b.a) < 400 ||
                             geometry::distanceToEdge(s.line.outline, b.b) < 400;
                if (other) continue;
                auto lines = s.line.paths;
                lines.insert(lines.end(), s.line.dead.begin(), s.line.dead.end());
                const auto forces = equilibrium.inside(s.line.outline, place.middle, {site.key});
                const auto shears = along.across(lines, place.middle);
                double most = 0;
                for (const auto& f : forces) most = std::max(most, std::abs(f.up));
                for (std::size_t c = 0; c < a.cases.size(); ++c) {
                    const double force = forces[c].up;
                    if (std::abs(force) < std::max(0.3 * most, 0.02 * std::abs(a.cases[c].load))) continue;
                    const double shear = shears[c].up;
                    const double off = std::abs(shear / force - 1);
                    worst = std::max(worst, off), sum += off, ++compared;
                    rough += off > 0.1;
                    EXPECT_LT(off, 0.35) << "floor " << seed << " " << site.name << " case " << c << ": "
                                         << shear << " of " << force << " " << standards::name(s.position);
                }
            }
        }
    }
    EXPECT_GT(floors, 60);
    EXPECT_GT(compared, 500);
    // The tolerance of a mesh of 200 mm: shears are derivatives of moments, and openings and edges stand
    // near.
    EXPECT_LT(sum / compared, 0.02);
    EXPECT_LT(rough, 0.03 * compared);
    RecordProperty("mean", std::to_string(sum / compared));
    RecordProperty("worst", std::to_string(worst));
}

TEST(Connections, PointLoadsPunchFromAbove) {
    auto p = changed(test::regularFloor(3, 3, 6000, 6000), [](model::Floor& f) {
        model::FloorLoad l;
        l.kind = model::FloorLoad::Kind::Point;
        l.loadCase = "q3", l.value = 150e3, l.a = {3000, 3000}, l.width = l.depth = 200;
        l.id = "l8";
        f.actions.loads.push_back(l);
        l.id = "l9", l.a = {9000, 3000}, l.width = l.depth = 0;
        f.actions.loads.push_back(l);
        l.id = "l10", l.a = {6000, 6000}, l.width = l.depth = 200;
        f.actions.loads.push_back(l);
        l.id = "l11", l.a = {3000, 3000}, l.value = 50e3;
        f.actions.loads.push_back(l);
    });
    const auto d = designed(p);
    ASSERT_TRUE(d);
    const auto* c = d->connection("l8");
    ASSERT_TRUE(c);
    EXPECT_FALSE(c->topTension);
    EXPECT_EQ(c->position(), "interior");
    // Both loads that stand there, and what lies on the slab inside.
    EXPECT_LT(c->shownDemand()->forces.V, -1.5 * 200e3);
    EXPECT_GT(c->shownDemand()->forces.V, -1.5 * 200e3 - 30e3);
    EXPECT_FALSE(d->connection("l11")) << "one connection for one place";
    EXPECT_FALSE(d->connection("l10")) << "straight into the column";
    const auto* none = d->connection("l9");
    ASSERT_TRUE(none);
    ASSERT_EQ(none->checks.size(), 1u);
    EXPECT_EQ(none->checks[0].outcome, checks::Outcome::NotChecked);
    EXPECT_NE(none->checks[0].reason.find("footprint"), std::string::npos);
}

TEST(Connections, WhatCannotBeCheckedSaysSoWithThePlace) {
    auto p = changed(test::regularFloor(3, 3, 6000, 6000), [](model::Floor& f) {
        f.openings.push_back({"o1", "O1", test::rectangle(6100, 5900, 6700, 6300)});
        f.beams.push_back({"b1", "B1", {0, 0}, {6000, 0}, 300, 600});
    });
    const auto d = designed(p);
    ASSERT_TRUE(d);
    const auto* through = d->connection("c5");
    ASSERT_EQ(through->checks.size(), 1u);
    EXPECT_EQ(through->checks[0].outcome, checks::Outcome::NotChecked);
    EXPECT_NE(through->checks[0].reason.find("O1 overlaps it at (6.00, 6.00) m"), std::string::npos)
        << through->checks[0].reason;
    EXPECT_NE(d->connection("c1")->checks[0].reason.find("beam frames into this column, B1"), std::string::npos);
    EXPECT_GT(d->connection("c9")->checks.size(), 1u);
    // A slab so small that edges and openings take the whole perimeter: still a sentence.
    auto tiny = changed(test::regularFloor(2, 2, 6000, 6000, 250, 0), [](model::Floor& f) {
        for (auto& c : f.columns) c.width = c.depth = 2000;
    });
    const auto t = designed(tiny);
    ASSERT_TRUE(t);
    for (const auto& c : t->connections) EXPECT_FALSE(c->checks.empty());
}

TEST(Connections, ColumnsCloseTogetherGetAPerimeterRoundThemAll) {
    auto p = changed(test::regularFloor(3, 3, 6000, 6000), [](model::Floor& f) {
        f.columns[4].x = 5600;
        auto twin = f.columns[4];
        twin.id = "c99", twin.x = 6400;
        f.columns.push_back(twin);
    });
    const auto d = designed(p);
    ASSERT_TRUE(d);
    const auto* both = d->connection("c5+c99");
    ASSERT_TRUE(both);
    EXPECT_EQ(both->site->members.size(), 2u);
    const auto *one = d->connection("c5"), *other = d->connection("c99");
    EXPECT_NEAR(both->shownDemand()->forces.V, one->shownDemand()->forces.V + other->shownDemand()->forces.V,
                0.1 * both->shownDemand()->forces.V);
    EXPECT_LT(both->shown()->length, one->shown()->length + other->shown()->length);
    EXPECT_GT(both->controlRatio(), one->controlRatio());
}

TEST(Connections, DropsAreCheckedInsideAndBeyond) {
    auto p = changed(test::regularFloor(3, 3, 6000, 6000, 220), [](model::Floor& f) {
        f.zones.push_back({"z1", "D1", test::rectangle(4800, 4800, 7200, 7200), 400});
    });
    const auto with = designed(p), without = designed(test::regularFloor(3, 3, 6000, 6000, 220));
    ASSERT_TRUE(with && without);
    const auto &a = *with->connection("c5"), &b = *without->connection("c5");
    EXPECT_GE(a.governing(At::Drop), 0);
    EXPECT_GE(a.governing(At::Control), 0);
    EXPECT_TRUE(check(a, "drop"));
    EXPECT_LT(a.controlRatio(), b.controlRatio()) << "that is what a drop is for";
    const auto& beyond = a.sections[std::size_t(a.governing(At::Drop))];
    EXPECT_NEAR(beyond.length, 4 * 2400 + 4 * M_PI * beyond.d, 5);
    EXPECT_NEAR(beyond.d + 180, a.sections[std::size_t(a.governing(At::Control))].d, 1e-9);
    // A small one leaves only the line beyond it (EN 1992-1-1 6.4.2(8)).
    auto small = changed(test::regularFloor(3, 3, 6000, 6000, 220), [](model::Floor& f) {
        f.zones.push_back({"z1", "D1", test::rectangle(5700, 5700, 6300, 6300), 400});
    });
    const auto s = designed(small);
    EXPECT_LT(s->connection("c5")->governing(At::Control), 0);
    EXPECT_GE(s->connection("c5")->governing(At::Drop), 0);
}

// Two walls that end inside the slab, mirrored, and two that meet at a corner.
TEST(Connections, EndsAndCornersOfWallsAreFoundAndCarryThePlatesShear) {
    auto walls = [](double mesh) {
        return changed(test::regularFloor(3, 3, 6000, 6000), [mesh](model::Floor& f) {
            f.columns.erase(f.columns.begin() + 4);
            f.walls.push_back({"w1", "W1", {6000, 6000}, {6000, 8500}, 200});
            f.actions.arrangement = model::Arrangement::All;
            f.choices.meshSize = mesh;
        });
    };
    const auto d = designed(walls(0));
    ASSERT_TRUE(d);
    const auto *low = d->connection("w1/a"), *high = d->connection("w1/b");
    ASSERT_TRUE(low && high);
    EXPECT_EQ(low->place.of, standards::PunchingPlace::Of::Wall);
    const int at = low->governing(At::Control);
    ASSERT_GE(at, 0);
    const auto& s = low->sections[std::size_t(at)];
    // As much of the wall as lies within 1.5 of the depth to expect, then half a circle at 2d.
    EXPECT_NEAR(s.length, 200 + 2 * 1.5 * (250 - 41) + 2 * M_PI * s.d, 30);
    EXPECT_GT(low->demand[std::size_t(at)].forces.V, 50e3);
    // The line of action lies beyond the end of the wall, on its axis.
    const auto& f = low->demand[std::size_t(at)].forces;
    EXPECT_NEAR(f.Mx / f.V, 0, 20);
    EXPECT_LT(f.My / f.V, -100);
    // A finer mesh moves it little.
    const auto fine = designed(walls(200));
    const auto* again = fine->connection("w1/a");
    EXPECT_NEAR(again->shownDemand()->forces.V, f.V, 0.12 * f.V);
    for (const auto& c : low->checks) EXPECT_NE(c.outcome, checks::Outcome::NotChecked) << c.title;
    // An L of two walls has its corner once, and two ends.
    const auto l = designed(changed(test::regularFloor(3, 3, 6000, 6000), [](model::Floor& floor) {
        floor.columns.erase(floor.columns.begin() + 4);
        floor.walls.push_back({"w1", "W1", {5000, 5000}, {7500, 5000}, 200});
        floor.walls.push_back({"w2", "W2", {5000, 5000}, {5000, 7500}, 250});
    }));
    ASSERT_TRUE(l);
    const auto* corner = l->connection("w1+w2");
    ASSERT_TRUE(corner);
    EXPECT_TRUE(l->connection("w1/b"));
    EXPECT_TRUE(l->connection("w2/b"));
    EXPECT_FALSE(l->connection("w1/a"));
    ASSERT_TRUE(corner->shown());
    // A quarter of a circle at 2d and the two stretches of wall.
    const double piece = 1.5 * (250 - 41);
    EXPECT_NEAR(corner->shown()->length, M_PI * corner->shown()->d + 2 * piece + 100 + 125, 120);
    EXPECT_GT(corner->shownDemand()->forces.V, 10e3);
    // A wall that runs up to the edge, and one that a beam goes on from, end at nothing that punches.
    const auto none = designed(changed(test::regularFloor(3, 3, 6000, 6000), [](model::Floor& floor) {
        floor.walls.push_back({"w1", "W1", {3000, -200}, {3000, 3000}, 200});
        floor.beams.push_back({"b1", "B1", {3000, 3000}, {3000, 6000}, 300, 500});
    }));
    ASSERT_TRUE(none);
    EXPECT_FALSE(none->connection("w1/a"));
    EXPECT_FALSE(none->connection("w1/b"));
}

// What an edit leaves alone stays; what it touches changes as from nothing.
TEST(Connections, AreKeptWhereNothingTheyDependOnChanged) {
    const auto p = test::regularFloor(3, 3, 6000, 6000);
    FloorDesigner designer;
    std::shared_ptr<const FloorDesign> last;
    auto ask = [&](const model::Project& q) {
        designer.design(
            {std::make_shared<const model::Project>(q), "f1", 0}, {}, {},
            [&](const Designer::Answer& a) { last = std::dynamic_pointer_cast<const FloorDesign>(a); });
        return last;
    };
    const auto first = ask(p);
    ASSERT_TRUE(first);
    const auto q = model::setShearSteel(p, "f1", {"c5"}, model::ConnectionChoice::Steel::Studs, 0);
    const auto second = ask(q);
    int kept = 0;
    for (std::size_t i = 0; i < first->connections.size(); ++i)
        kept += first->connections[i] == second->connections[i];
    EXPECT_EQ(kept, 8);
    const auto moved = changed(q, [](model::Floor& f) { f.columns[0].x += 300; });
    const auto third = ask(moved), fresh = designed(moved);
    ASSERT_EQ(third->connections.size(), fresh->connections.size());
    for (std::size_t i = 0; i < fresh->connections.size(); ++i) {
        ASSERT_EQ(third->connections[i]->checks.size(), fresh->connections[i]->checks.size());
        for (std::size_t k = 0; k < fresh->connections[i]->checks.size(); ++k)
            EXPECT_EQ(checks::ratio(third->connections[i]->checks[k]),
                      checks::ratio(fresh->connections[i]->checks[k]));
    }
}

TEST(Connections, ChoicesAreKeptInTheFileAndTakenBack) {
    auto p = model::setShearSteel(test::regularFloor(3, 3, 6000, 6000), "f1", {"c5", "c2"},
                                  model::ConnectionChoice::Steel::Links, 10);
    p = changed(p, [](model::Floor& f) { f.punching.fixedEccentricity = f.punching.moreByBending = true; });
    p = model::editConnections(p, "f1", {"c5", "c6"}, [](auto& c) {
        c.pinned = true, c.legs = model::ConnectionChoice::Legs::Grid;
    });
    p.basis.studTable = "Own";
    p.basis.studRails = {{"S", 12, 200, 60, 120, 2, 6, 480}};
    const auto again = formats::readProject(formats::projectText(p));
    ASSERT_TRUE(again.trouble.empty()) << again.trouble.front().message;
    EXPECT_EQ(formats::projectText(again.project), formats::projectText(p));
    EXPECT_EQ(model::studRails(again.project.basis).size(), 1u);
    const auto none = model::setShearSteel(p, "f1", {"c5", "c2"}, model::ConnectionChoice::Steel::Solved, 0);
    EXPECT_EQ(none.floors.front()->punching.choices.size(), 2u) << "pins stay";
    const auto nothing = model::editConnections(none, "f1", {"c5", "c6"}, [](auto& c) {
        c.pinned = false, c.legs = model::ConnectionChoice::Legs::Fanned;
    });
    EXPECT_TRUE(nothing.floors.front()->punching.choices.empty());
}

TEST(Connections, DemoHasOnePunchingOneTopSteelAndOneSagOver) {
    const auto d = designFloor(formats::demoFloorProject(), 0);
    ASSERT_TRUE(d);
    std::vector<std::string> over;
    for (const auto* c : d->all())
        if (c->outcome == checks::Outcome::Over && c->topic != checks::Topic::Coverage)
            over.push_back(c->title);
    ASSERT_EQ(over.size(), 3u);
    EXPECT_EQ(over[0], "Deflection after partitions, line Glazed front");
    EXPECT_EQ(over[1], "Flexure top, support C3");
    EXPECT_EQ(over[2], "Punching, without shear reinforcement, B4");
}

// Studs of the list that comes with the program are those of a plain order: 350 MPa by ASTM A1044 for ACI, 500 by EN;
// a list of one's own says so itself.
TEST(Connections, StudsHaveTheStrengthOfAPlainOrder) {
    for (const auto& [standard, yield] : {std::pair{"en1992", 500.0}, {"aci318-si", 350.0}}) {
        auto p = test::regularFloor(3, 3, 7600, 7600, 250);
        p.basis.standard = standard, p.basis.shearSteel = model::ConnectionChoice::Steel::Studs;
        for (bool own : {false, true}) {
            if (own) {
                p.basis.studRails = catalogs::studRails(), p.basis.studTable = "Yard";
                for (auto& r : p.basis.studRails) r.yield = 450;
            }
            const auto f = design::designFloor(p, 0);
            int seen = 0;
            for (const auto& c : f->connections)
                if (c->steel) {
                    ++seen;
                    EXPECT_EQ(c->steel->yield, own ? 450 : yield) << standard;
                }
            EXPECT_GT(seen, 0) << standard;
        }
    }
}
