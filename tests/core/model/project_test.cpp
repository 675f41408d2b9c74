#include "model/project.h"

#include <gtest/gtest.h>

#include <cmath>

#include "model/edits.h"
#include "support/chosen_bars.h"
#include "support/random_slab.h"

using namespace talvik;
using namespace talvik::model;

namespace {

Project three() {
    return setSpans(newProject(), "s1", {4000, 5000, 1500}, false, true);
}
const OneWaySlab& slab(const Project& p) {
    return *p.slabs.front();
}
std::string firstTrouble(const Project& p) {
    auto t = validate(p);
    return t.empty() ? "" : t.front().path + ": " + t.front().message;
}

}  // namespace

TEST(Geometry, AxesFacesAndLabels) {
    Project p = three();
    const auto& s = slab(p);
    ASSERT_EQ(s.supports.size(), 3u);
    EXPECT_EQ(axis(s, 1), 4000);
    EXPECT_EQ(axis(s, 2), 9000);
    EXPECT_EQ(length(s), 10500);
    EXPECT_EQ(concreteStart(s), -150);
    EXPECT_EQ(concreteEnd(s), 10500);
    EXPECT_TRUE(isCantilever(s, 2));
    EXPECT_EQ(clearSpan(s, 0), 3700);
    EXPECT_EQ(clearSpan(s, 2), 1350);
    EXPECT_EQ(spanLabel(s, 1), "B–C");
    EXPECT_EQ(spanLabel(s, 2), "C–end");
    EXPECT_EQ(supportAfter(s, 2), -1);
    Project q = setSpans(p, "s1", {1500, 4000, 5000}, true, false);
    EXPECT_EQ(axis(slab(q), 0), 1500);
    EXPECT_EQ(spanLabel(slab(q), 0), "end–A");
}

TEST(Edits, ShareUnchangedSlabs) {
    Project p = addSlab(newProject(), "Second");
    Project q = editSlab(p, "s1", [](OneWaySlab& s, Project&) { s.thickness = 250; });
    EXPECT_NE(p.slabs[0], q.slabs[0]);
    EXPECT_EQ(p.slabs[1], q.slabs[1]) << "the untouched row is the same object";
    EXPECT_EQ(p.slabs[0]->thickness, 200) << "the old project is as it was";
    EXPECT_FALSE(p == q);
    EXPECT_TRUE(p == editSlab(p, "nobody", [](OneWaySlab& s, Project&) { s.thickness = 1; }));
}

TEST(Edits, IdsAreUniqueAndOutliveReshaping) {
    Project p = three();
    Id first = slab(p).spans[0].id;
    Project q = setSpans(p, "s1", {4200, 5000, 5000, 1500}, false, true);
    EXPECT_EQ(slab(q).spans[0].id, first);
    EXPECT_EQ(firstTrouble(q), "");
    EXPECT_GT(q.nextId, p.nextId);
}

TEST(Edits, BarsMoveWithTheirSupports) {
    Project p = test::chosenBars(three());
    auto topOverB = [](const Project& project) {
        for (const auto& r : slab(project).bars)
            if (r.role == Role::TopMain && r.from < axis(slab(project), 1) && r.to > axis(slab(project), 1))
                return r;
        return BarRun{};
    };
    BarRun before = topOverB(p);
    ASSERT_FALSE(before.id.empty());
    Project q = setSpans(p, "s1", {4600, 5000, 1500}, false, true);
    BarRun after = topOverB(q);
    EXPECT_EQ(after.id, before.id);
    EXPECT_NEAR(axis(slab(q), 1) - after.from, axis(slab(p), 1) - before.from, 1e-9);
    EXPECT_EQ(firstTrouble(q), "");
    EXPECT_TRUE(slab(setSpans(p, "s1", {4000, 5000}, false, false)).bars.empty());
}

TEST(Validate, NamesWhatIsWrongAndWhere) {
    auto with = [](auto change) {
        return editSlab(three(), "s1", [&](OneWaySlab& s, Project&) { change(s); });
    };
    EXPECT_EQ(firstTrouble(three()), "");
    EXPECT_NE(firstTrouble(with([](OneWaySlab& s) { s.thickness = -5; })).find("slabs[0].thickness"),
              std::string::npos);
    EXPECT_NE(firstTrouble(with([](OneWaySlab& s) { s.thickness = NAN; })), "");
    EXPECT_NE(firstTrouble(with([](OneWaySlab& s) { s.spans[1].length = 1e9; })).find("spans[1].length"),
              std::string::npos);
    EXPECT_NE(firstTrouble(with([](OneWaySlab& s) { s.spans.resize(51, {"x", 3000}); })), "");
    EXPECT_NE(firstTrouble(with([](OneWaySlab& s) { s.spans[1].id = s.spans[0].id; })).find("twice"),
              std::string::npos);
    EXPECT_NE(firstTrouble(with([](OneWaySlab& s) { s.supports.pop_back(); })).find("supports"),
              std::string::npos);
    EXPECT_NE(firstTrouble(with([](OneWaySlab& s) {
                  s.supports[1].width = 2900, s.spans[0].length = 1500;
              })).find("clear span"),
              std::string::npos);
    EXPECT_NE(firstTrouble(with([](OneWaySlab& s) { s.imposedUse = "Q"; })), "");
    EXPECT_NE(firstTrouble(with([](OneWaySlab& s) {
                  s.bars.push_back({"b1", {}, Role::BottomMain, 0, 99999, "H12", 200});
              })).find("leave the slab"),
              std::string::npos);
    EXPECT_NE(firstTrouble(with([](OneWaySlab& s) {
                  s.bars.push_back({"b1", {}, Role::BottomMain, 0, 900, "H13", 200});
              })).find("H13"),
              std::string::npos);
    Project p = three();
    p.basis.barCatalog = "none";
    EXPECT_NE(firstTrouble(p), "");
    p = three();
    p.basis.mainBars.clear();
    EXPECT_NE(firstTrouble(p), "");
    for (const auto& t : validate(with([](OneWaySlab& s) { s.width = 0, s.thickness = 5; })))
        EXPECT_EQ(t.message.back(), '.');
}

TEST(Validate, RandomSlabsAreGood) {
    for (unsigned seed = 1; seed <= 100; ++seed)
        EXPECT_EQ(firstTrouble(test::randomProject(seed)), "") << seed;
}
