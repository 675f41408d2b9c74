// Copies of elements: all ids new, all references kept among themselves, the same answers.
#include <gtest/gtest.h>

#include <set>

#include "design/floor_design.h"
#include "formats/project_file.h"
#include "layout/placing.h"
#include "model/edits.h"
#include "support/likeness.h"
#include "support/random_floor.h"
#include "support/random_slab.h"

using namespace talvik;

namespace {

std::set<model::Id> ids(const model::Floor& f) {
    std::set<model::Id> all{f.id};
    model::eachMember(f, [&](const std::string&, const auto& m) { all.insert(m.id); });
    return all;
}

}  // namespace

TEST(Copy, OfRandomFloorsIsTheSameFloorWithIdsOfItsOwn) {
    for (unsigned seed = 1; seed <= 60; ++seed) {
        model::Project p = model::emptyProject();
        auto f = std::make_shared<model::Floor>(test::randomFloor(seed));
        p.floors = {f};
        p.nextId = 100000;
        const auto copied = formats::withCopy(p, f->id, "Next storey");
        ASSERT_EQ(copied.project.floors.size(), 2u) << seed;
        const auto& copy = *copied.project.floors[1];
        EXPECT_EQ(copied.project.floors[0], p.floors[0]) << "the first is left alone";
        EXPECT_EQ(copy.id, copied.copy);
        EXPECT_EQ(copy.name, "Next storey");
        EXPECT_TRUE(model::validate(copied.project).empty()) << seed;
        for (const auto& id : ids(copy)) EXPECT_FALSE(ids(*f).contains(id)) << id;
        EXPECT_EQ(ids(copy).size(), ids(*f).size());
        auto named = copy;
        named.name = f->name;
        EXPECT_EQ(test::likeness(named), test::likeness(*f)) << seed;
        for (const auto& l : copy.actions.loads) {
            bool known = false;
            for (const auto& c : copy.actions.cases) known |= c.id == l.loadCase;
            EXPECT_TRUE(known) << "a load refers to a case of its own floor";
        }
        EXPECT_TRUE(formats::readProject(formats::projectText(copied.project)).trouble.empty());
    }
}

// With strips changed by hand and a bar fixed, which are known by keys that hold ids.
TEST(Copy, OfTheDemoFloorAnswersAlike) {
    auto p = formats::demoFloorProject();
    const auto id = p.floors[0]->id;
    const auto before = design::designFloor(p, 0, {}, false);
    ASSERT_TRUE(before);
    const auto& strip = *before->strips[2];
    p = model::editBars(p, id, [&](std::vector<model::BarRun>& bars, model::Project& next) {
        auto run = strip.runs.front();
        run.id = model::newId(next, 'b'), run.spacing = 75;
        bars.push_back(run);
    });
    const auto copied = formats::withCopy(p, id, "Upper deck");
    const auto a = design::designFloor(copied.project, 0, {}, false),
               b = design::designFloor(copied.project, 1, {}, false);
    ASSERT_TRUE(a && b);
    ASSERT_EQ(a->strips.size(), b->strips.size());
    std::size_t checks = 0, fixed = 0;
    for (std::size_t s = 0; s < a->strips.size(); ++s) {
        ASSERT_EQ(a->strips[s]->checks.size(), b->strips[s]->checks.size());
        for (const auto& r : b->strips[s]->runs) fixed += r.fixed;
        for (std::size_t c = 0; c < a->strips[s]->checks.size(); ++c, ++checks) {
            const auto &x = a->strips[s]->checks[c], &y = b->strips[s]->checks[c];
            EXPECT_EQ(x.title, y.title);
            EXPECT_NEAR(x.demand, y.demand, 1e-9 * (1 + std::abs(x.demand)));
            EXPECT_NEAR(x.limit, y.limit, 1e-9 * (1 + std::abs(x.limit)));
        }
    }
    EXPECT_GT(checks, 500u);
    EXPECT_EQ(fixed, 2u) << "the bars that are fixed are fixed in the copy";
    // Connections and what was asked of them come along under their new keys.
    ASSERT_EQ(a->connections.size(), b->connections.size());
    for (std::size_t i = 0; i < a->connections.size(); ++i) {
        EXPECT_EQ(a->connections[i]->wanted, b->connections[i]->wanted) << a->connections[i]->name;
        EXPECT_NEAR(a->connections[i]->worst(), b->connections[i]->worst(), 1e-9);
    }
}

TEST(Copy, OfSlabsStandsBehindThemAndUnknownOnesChangeNothing) {
    auto p = test::randomProject(3);
    const auto first = p.slabs[0]->id;
    const auto copied = formats::withCopy(p, first, "Again");
    ASSERT_EQ(copied.project.slabs.size(), p.slabs.size() + 1);
    EXPECT_EQ(copied.project.slabs[1]->id, copied.copy);
    EXPECT_EQ(copied.project.slabs[1]->spans.size(), p.slabs[0]->spans.size());
    EXPECT_TRUE(model::validate(copied.project).empty());
    const auto none = formats::withCopy(p, "nothing", "X");
    EXPECT_EQ(none.project, p);
    EXPECT_TRUE(none.copy.empty());
}

TEST(Elements, AreRenamedMovedAndRemovedAmongTheirKind) {
    auto p = formats::demoProject();
    p = formats::withCopy(p, "s1", "Second").project;
    p = formats::withCopy(p, p.slabs[1]->id, "Third").project;
    const auto third = p.slabs[2]->id;
    p = model::moveElement(p, third, -1);
    EXPECT_EQ(p.slabs[1]->id, third);
    p = model::moveElement(p, third, -9);
    EXPECT_EQ(p.slabs[0]->id, third) << "held within the list";
    p = model::moveElement(p, third, 9);
    EXPECT_EQ(p.slabs[2]->id, third);
    p = model::renameElement(p, third, "Terrace");
    EXPECT_EQ(p.slabs[2]->name, "Terrace");
    EXPECT_EQ(model::renameElement(p, "none", "X"), p);
    p = model::removeElement(p, third);
    EXPECT_EQ(p.slabs.size(), 2u);
    EXPECT_EQ(model::removeElement(p, "none"), p);
}
