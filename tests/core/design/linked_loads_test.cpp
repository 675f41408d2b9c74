// Loads that floors hand down to bases: their sums are those on the floor, an edit above reaches the bases,
// and what changed is told.
#include "design/linked_loads.h"

#include <gtest/gtest.h>

#include <cmath>
#include <map>

#include "design/bases.h"
#include "design/design.h"
#include "design/floors.h"
#include "formats/project_file.h"
#include "formats/tables.h"
#include "model/edits.h"
#include "support/regular_floor.h"

using namespace talvik;

namespace {

// A floor of 3 by 3 columns and an empty set of bases below it.
model::Project withSet(double lx = 6000, double ly = 5000) {
    auto p = test::regularFloor(3, 3, lx, ly);
    auto set = std::make_shared<model::BaseSet>();
    set->id = model::newId(p, 'f'), set->name = "Below";
    p.bases.push_back(set);
    return p;
}
model::Project linkedProject(std::vector<std::string>* left = nullptr) {
    auto p = withSet();
    std::vector<std::string> none;
    return design::linkFloor(p, p.bases[0]->id, *p.floors[0], left ? *left : none);
}
std::shared_ptr<const design::BasesAnswer> answer(const model::Project& p) {
    return std::dynamic_pointer_cast<const design::BasesAnswer>(design::designNow(p, p.bases[0]->id));
}
double total(const model::BaseSet& set, actions::Nature nature) {
    double sum = 0;
    for (const auto& k : set.cases)
        for (const auto& c : set.columns)
            for (const auto& a : c.actions)
                if (a.loadCase == k.id && k.kind.nature == nature) sum += a.N;
    return sum;
}

}  // namespace

TEST(LinkedLoads, SumsAreTheLoadsOfTheFloor) {
    const auto p = linkedProject();
    ASSERT_EQ(p.bases[0]->columns.size(), 9u);
    EXPECT_TRUE(model::validate(p).empty()) << formats::sentences(model::validate(p));
    const auto a = answer(p);
    ASSERT_TRUE(a);
    ASSERT_EQ(a->error, "");
    // Slab of 12.4 by 10.4 m, 250 thick: 25 kN/m3, 1.5 and 3 kN/m2.
    const double area = 12.4e3 * 10.4e3;
    // And nine columns of 400 by 400, 3 m high below the floor: 12 kN each.
    EXPECT_NEAR(total(*a->set, actions::Nature::Permanent), area * (25e-6 * 250 + 1.5e-3) + 9 * 12e3,
                2e-3 * area * 7.75e-3);
    EXPECT_NEAR(total(*a->set, actions::Nature::Imposed), area * 3e-3, 2e-3 * area * 3e-3);
    // The inner column has a quarter of it and more.
    for (const auto& c : a->set->columns) {
        const double share = c.actions[0].N / total(*a->set, actions::Nature::Imposed);
        const bool inner = c.x == 6000 && c.y == 5000;
        EXPECT_GT(share, inner ? 0.25 : 0.02) << c.name;
    }
    for (const auto& c : a->bases) EXPECT_TRUE(c->trouble().empty()) << c->trouble();
}

// Corner columns of a frame push outwards and lean outwards at a fixed foot; a hinge passes no moment. The
// couple in the head is that of statics: forces and moments of all supports about any point are the load's.
TEST(LinkedLoads, MomentsOfTheFootByFrame) {
    auto p = linkedProject();
    for (bool fixed : {true, false}) {
        p = model::editFloor(p, "f1", [&](model::Floor& f, model::Project&) {
            for (auto& c : f.columns) c.farEndsFixed = fixed;
        });
        const auto a = answer(p);
        ASSERT_EQ(a->error, "");
        double H = 0;
        for (const auto& c : a->set->columns) {
            const auto& g = c.actions[0];
            H += g.Hx;
            if (c.x == 0 && c.y == 5000) {
                EXPECT_LT(g.Hx, -1e3) << "outwards";
                EXPECT_TRUE(fixed ? g.My < -1e5 : g.My == 0) << g.My;
                EXPECT_NEAR(g.Hy, 0, 200) << "in the middle of a side";
            }
            EXPECT_TRUE(!(c.x == 12000 && c.y == 5000) || g.Hx > 1e3);
            // Fixed: H h = 1.5 M_head, M_foot = 0.5 M_head, so M_foot = H h / 3.
            if (!fixed) continue;
            EXPECT_NEAR(g.My, g.Hx * 3000 / 3, std::abs(g.My) * 1e-3 + 2e3);
            EXPECT_NEAR(-g.Mx, g.Hy * 3000 / 3, std::abs(g.Mx) * 1e-3 + 2e3);
        }
        EXPECT_NEAR(H, 0, 1e3) << "a floor that is symmetric does not sway";
    }
    // Statics of the floor itself: reactions and couples hold the load's moment about the origin.
    const auto analysis = design::analyseFloor(p, 0);
    double N = 0, alongX = 0, alongY = 0;
    for (std::size_t s = 0; s < analysis.model->supports.size(); ++s) {
        const auto& f = analysis.supportForces[0][s];
        const auto at = analysis.model->supports[s].at;
        // Handed down: N at the place, and My_head = -mx, Mx_head = my.
        N += f.up, alongX += f.up * at.x - f.mx, alongY += f.up * at.y - f.my;
    }
    EXPECT_NEAR(alongX / N, 6000, 5);
    EXPECT_NEAR(alongY / N, 5000, 5);
}

TEST(LinkedLoads, AnEditAboveReachesTheBasesAndIsTold) {
    auto p = linkedProject();
    const auto first = answer(p);
    // Nothing was taken note of: all is new. Then nothing is.
    EXPECT_EQ(first->changed.size(), 18u);
    p = design::takeNote(p, p.bases[0]->id, *first->set);
    EXPECT_TRUE(model::validate(p).empty()) << formats::sentences(model::validate(p));
    const auto noted = answer(p);
    EXPECT_TRUE(noted->changed.empty());
    EXPECT_EQ(noted->bases[4]->size().B, first->bases[4]->size().B);
    // A designer that lives on follows the floor as one from nothing.
    design::BasesDesigner designer;
    auto live = [&](const model::Project& q) {
        std::shared_ptr<const design::ElementAnswer> got;
        designer.design({std::make_shared<const model::Project>(q), q.bases[0]->id}, {}, {},
                        [&](auto a) { got = std::move(a); });
        return std::dynamic_pointer_cast<const design::BasesAnswer>(got);
    };
    EXPECT_TRUE(live(p)->changed.empty());
    const auto heavier = model::editFloor(p, "f1", [](model::Floor& f, model::Project&) {
        for (auto& l : f.actions.loads)
            if (l.loadCase == "q3") l.value *= 2;
    });
    const auto now = live(heavier);
    ASSERT_EQ(now->error, "");
    EXPECT_EQ(now->changed.size(), 9u) << "imposed alone";
    for (const auto& c : now->changed) {
        EXPECT_NEAR(c.now, 2 * c.before, 0.01 * std::abs(c.now));
        EXPECT_NE(c.loadCase.find("Imposed"), std::string::npos);
    }
    EXPECT_GT(now->bases[4]->size().B, noted->bases[4]->size().B);
    const auto fresh = answer(heavier);
    auto text = [&](const std::shared_ptr<const design::BasesAnswer>& a) {
        return formats::baseChecksJson(design::joined(heavier, a->standard, {a}));
    };
    EXPECT_EQ(text(now), text(fresh));
    // The margin of the set and of a base say it.
    bool said = false;
    for (const auto& f : now->facts({}, units::System::Metric)) said |= f.text == "Loads from floors";
    EXPECT_TRUE(said);
    int notes = 0;
    for (const auto& f :
         now->facts(model::Spot{now->bases[4]->part, model::Spot::In::Whole, {}}, units::System::Metric))
        notes += f.text.find("from floors") != std::string::npos;
    EXPECT_EQ(notes, 1);
    // All of a project at once, and its file.
    const auto all = design::run(heavier, {.trace = false});
    ASSERT_EQ(all.elements.size(), 2u);
    EXPECT_EQ(text(std::dynamic_pointer_cast<const design::BasesAnswer>(all.elements[1])), text(fresh));
    const auto read = formats::readProject(formats::projectText(heavier));
    ASSERT_TRUE(read.trouble.empty()) << formats::sentences(read.trouble);
    EXPECT_TRUE(*read.project.bases[0] == *heavier.bases[0]);
}

// Storeys one above the other add up; moments come from the lowest alone; typed actions stay beside.
TEST(LinkedLoads, TwoFloorsAndTypedActions) {
    auto p = linkedProject();
    std::vector<std::string> left;
    const auto one = answer(p);
    p = formats::withCopy(p, "f1", "Upper").project;
    ASSERT_EQ(p.floors.size(), 2u);
    p = design::linkFloor(p, p.bases[0]->id, *p.floors[1], left);
    ASSERT_EQ(p.bases[0]->columns.size(), 9u);
    p = model::editBases(p, p.bases[0]->id, [](model::BaseSet& s, model::Project&) {
        s.cases.push_back({"w1", "Wind", {actions::Nature::Wind, ""}});
        s.columns[0].actions.push_back({"w1", 0, 40e3});
    });
    const auto two = answer(p);
    ASSERT_EQ(two->error, "");
    for (std::size_t i = 0; i < 9; ++i) {
        const auto &a = one->set->columns[i].actions[0], *b = &two->set->columns[i].actions[i == 0 ? 1 : 0];
        EXPECT_NEAR(b->N, 2 * a.N, 3);
        EXPECT_NEAR(b->Hx, a.Hx, 2);
    }
    EXPECT_EQ(two->set->columns[0].actions[0].Hx, 40e3);
    // Unlinked, one goes; unlinked both, the columns without other loads go.
    auto q = design::unlinkFloor(p, p.bases[0]->id, p.floors[1]->id);
    EXPECT_EQ(q.bases[0]->columns.size(), 9u);
    q = design::unlinkFloor(q, q.bases[0]->id, "f1");
    EXPECT_EQ(q.bases[0]->columns.size(), 1u);
    EXPECT_TRUE(model::validate(q).empty()) << formats::sentences(model::validate(q));
}

// Winds of floors keep their direction: those with one name act at once, others never.
TEST(LinkedLoads, WindsOfFloorsByTheirNames) {
    auto p = linkedProject();
    const auto before = answer(p);
    p = model::editFloor(p, "f1", [](model::Floor& f, model::Project&) {
        for (auto [id, name, value] :
             {std::tuple("w1", "Wind, uplift", -1e-3), {"w2", "Wind, pressing", 0.5e-3}}) {
            model::LoadCase c;
            c.id = id, c.name = name, c.nature = model::LoadCase::Nature::Wind;
            f.actions.cases.push_back(c);
            model::FloorLoad l;
            l.id = std::string("l") + id, l.loadCase = id, l.value = value;
            f.actions.loads.push_back(l);
        }
    });
    p = formats::withCopy(p, "f1", "Upper").project;
    std::vector<std::string> left;
    p = design::linkFloor(p, p.bases[0]->id, *p.floors[1], left);
    const auto a = answer(p);
    ASSERT_EQ(a->error, "");
    std::map<std::string, double> sums;
    int winds = 0;
    for (const auto& k : a->set->cases) {
        winds += k.kind.nature == actions::Nature::Wind;
        for (const auto& c : a->set->columns)
            for (const auto& x : c.actions)
                if (x.loadCase == k.id) sums[k.name] += x.N;
    }
    EXPECT_EQ(winds, 2);
    const double area = 12.4e3 * 10.4e3;
    EXPECT_NEAR(sums["Wind, uplift of floors"], -2 * area * 1e-3, 4e-3 * area * 1e-3);
    EXPECT_NEAR(sums["Wind, pressing of floors"], area * 1e-3, 4e-3 * area * 1e-3);
    EXPECT_NEAR(total(*a->set, actions::Nature::Permanent),
                2 * total(*before->set, actions::Nature::Permanent), 100);
}

TEST(LinkedLoads, WhatIsMissingIsSaid) {
    auto p = linkedProject();
    // A column that goes, a floor without an answer, a floor that goes.
    auto q = model::editFloor(p, "f1",
                              [](model::Floor& f, model::Project&) { f.columns.erase(f.columns.begin()); });
    EXPECT_NE(answer(q)->error.find("no longer exists"), std::string::npos) << answer(q)->error;
    q = model::editFloor(p, "f1", [](model::Floor& f, model::Project&) { f.columns.clear(); });
    EXPECT_NE(answer(q)->error.find("no results"), std::string::npos) << answer(q)->error;
    q = p;
    q.floors.clear();
    EXPECT_NE(answer(q)->error.find("floor that no longer exists"), std::string::npos) << answer(q)->error;
    // Walls become long columns; askew ones are left out and named.
    auto walls = withSet();
    walls = model::editFloor(walls, "f1", [](model::Floor& f, model::Project&) {
        f.walls.push_back({"w1", "W1", {0, 0}, {0, 5000}, 200});
        f.walls.push_back({"w2", "W2", {6000, 5000}, {9000, 8000}, 200});
        f.columns.erase(f.columns.begin(), f.columns.begin() + 2);
    });
    std::vector<std::string> left;
    walls = design::linkFloor(walls, walls.bases[0]->id, *walls.floors[0], left);
    ASSERT_EQ(left.size(), 1u);
    EXPECT_NE(left[0].find("W2"), std::string::npos);
    const auto a = answer(walls);
    ASSERT_EQ(a->error, "");
    const auto* w = model::findColumn(*a->set, walls.bases[0]->columns.back().id);
    EXPECT_EQ(w->depth, 5000);
    EXPECT_GT(w->actions[0].N, 50e3);
}
