// Governing values keep their history, and say when they were raised after a check had failed.
#include "model/sources.h"

#include <gtest/gtest.h>

#include "design/design.h"
#include "formats/project_file.h"
#include "model/edits.h"
#include "report/report.h"

using namespace talvik;

TEST(Sources, HistoryShowsWhatWasChangedAndWhether) {
    model::Project before = formats::demoFloorProject(), next = before;
    next.basis.concreteStrength = 40;
    next = model::editFloor(next, next.floors[0]->id, [](model::Floor& f, model::Project&) {
        for (auto& l : f.actions.loads)
            if (l.kind == model::FloorLoad::Kind::Point) l.value = 40e3;
    });
    model::recordChanges(before, next, true);
    ASSERT_EQ(next.sources.size(), 2u);
    EXPECT_EQ(next.sources.at("concrete").history[0], (model::Source::Change{35, 40, true}));
    EXPECT_EQ(next.sources.at("imposed l128").history[0].to, 40e3);
    model::Project last = next;
    last.basis.concreteStrength = 35;
    model::recordChanges(next, last, false);
    EXPECT_EQ(last.sources.at("concrete").history.size(), 2u);
    EXPECT_FALSE(last.sources.at("concrete").history[1].afterFailure);
    // The report shows them.
    auto document = report::make(last, design::run(last), report::Depth::Summary);
    std::string html = report::html(document, report::Target::Page);
    EXPECT_NE(html.find("35.0 → 40.0 (after a check failed) → 35.0"), std::string::npos);
    // They survive the file.
    last.sources["concrete"].kind = model::Source::Kind::Client;
    last.sources["concrete"].note = "agreed on site";
    auto read = formats::readProject(formats::projectText(last));
    ASSERT_TRUE(read.trouble.empty());
    EXPECT_EQ(read.project.sources, last.sources);
}
