// Fixed revisions: what changed since is known, row by row and run by run.
#include "design/revisions.h"

#include <gtest/gtest.h>

#include "drawing/sheets.h"
#include "formats/project_file.h"
#include "model/edits.h"

using namespace talvik;

namespace {

model::Project thicker(const model::Project& p, double h) {
    return model::editSlab(p, p.slabs[0]->id,
                           [&](model::OneWaySlab& s, model::Project&) { s.thickness = h; });
}
int clouds(const model::Project& p) {
    const auto d = design::run(p);
    int n = 0;
    for (const auto& s : drawing::sheets(p, d, *d.elements[0]))
        for (const auto& item : s.items)
            if (const auto* line = std::get_if<drawing::Polyline>(&item))
                n += line->layer == drawing::Layer::Perimeter && line->closed;
    return n;
}

}  // namespace

TEST(Revisions, FixedOnceUnderEachLetter) {
    auto p = formats::demoProject();
    auto fixed = design::fixRevision(p, design::run(p));
    ASSERT_EQ(fixed.why, "");
    ASSERT_EQ(fixed.project.revisions.size(), 1u);
    EXPECT_EQ(fixed.project.revisions[0]->letter, p.sheet.revision);
    EXPECT_EQ(fixed.project.marks, design::run(p).marks);
    p = fixed.project;
    EXPECT_NE(design::fixRevision(p, design::run(p)).why.find("frozen already"), std::string::npos);
    auto other = thicker(p, p.slabs[0]->thickness + 40);
    EXPECT_NE(design::fixRevision(other, design::run(other)).why.find("next letter"), std::string::npos);
    other.sheet.revision = "";
    EXPECT_NE(design::fixRevision(other, design::run(other)).why, "");
    // They are part of the file.
    const auto again = formats::readProject(formats::projectText(p));
    ASSERT_TRUE(again.trouble.empty()) << formats::sentences(again.trouble);
    EXPECT_TRUE(again.project == p);
    EXPECT_EQ(*again.project.revisions[0], *p.revisions[0]);
}

TEST(Revisions, RowsCarryTheLetterUnderWhichTheyLastChanged) {
    auto p = formats::demoProject();
    for (const auto& row : design::run(p).schedule().rows) EXPECT_EQ(row.revision, "");
    p.sheet.revision = "A";
    p = design::fixRevision(p, design::run(p)).project;
    for (const auto& row : design::run(p).schedule().rows) EXPECT_EQ(row.revision, "A");
    EXPECT_EQ(clouds(p), 0) << "there is none before the first";
    p.sheet.revision = "B";
    EXPECT_EQ(clouds(p), 0) << "nothing changed";
    // Another width: more bars of the same, main bars change and edge bars too.
    auto q =
        model::editSlab(p, p.slabs[0]->id, [](model::OneWaySlab& s, model::Project&) { s.width += 1500; });
    const auto before = design::run(p).scheduleOf(*design::run(p).elements[0]);
    const auto d = design::run(q);
    const auto now = d.scheduleOf(*d.elements[0]);
    std::map<std::string, int> was;
    for (const auto& r : before.rows) was[schedule::signature(r.bar, r.shape, r.dimensions)] = r.number;
    int changed = 0, same = 0;
    for (const auto& r : now.rows) {
        const auto found = was.find(schedule::signature(r.bar, r.shape, r.dimensions));
        const bool alike = found != was.end() && found->second == r.number;
        EXPECT_EQ(r.revision, alike ? "A" : "B") << r.mark;
        (alike ? same : changed)++;
    }
    EXPECT_GT(changed, 0);
    EXPECT_GT(clouds(q), 0);
    // Fixed as B and gone on to C without a change: B's rows keep B.
    q = design::fixRevision(q, d).project;
    q.sheet.revision = "C";
    std::set<std::string> letters;
    for (const auto& r : design::run(q).schedule().rows) letters.insert(r.revision);
    EXPECT_FALSE(letters.contains("C"));
    EXPECT_TRUE(letters.contains("B"));
    EXPECT_EQ(clouds(q), 0);
}

TEST(Revisions, WhatIsGoneIsNamed) {
    auto p = formats::demoProject();
    p.sheet.revision = "A";
    p = model::editBars(p, p.slabs[0]->id, [&](auto& bars, model::Project& q) {
        model::BarRun r;
        r.id = model::newId(q, 'b'), r.role = model::Role::TopMain, r.bar = "H20", r.spacing = 150;
        r.from = 3000, r.to = 5000;
        bars.push_back(r);
    });
    p = design::fixRevision(p, design::run(p)).project;
    p.sheet.revision = "B";
    p = model::editBars(p, p.slabs[0]->id, [](auto& bars, model::Project&) { bars.clear(); });
    const auto d = design::run(p);
    const auto gone = design::gone(d, *d.elements[0]);
    ASSERT_FALSE(gone.empty());
    EXPECT_TRUE(std::any_of(gone.begin(), gone.end(),
                            [](const auto& c) { return c.find("H20") != std::string::npos; }));
}
