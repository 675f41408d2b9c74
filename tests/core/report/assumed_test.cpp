// What is taken for granted is the same on screen, in the report and before issue.
#include "report/assumed.h"

#include <gtest/gtest.h>

#include <algorithm>

#include "formats/project_file.h"
#include "report/issue_page.h"
#include "report/margin.h"
#include "report/report.h"

using namespace talvik;

TEST(Assumed, IsTheSameInAllThreePlaces) {
    auto p = formats::demoProject();
    const auto design = design::run(p, {.trace = false});
    const auto all = report::assumed(p, design);
    auto has = [&](const std::string& what) {
        return std::any_of(all.begin(), all.end(), [&](const auto& a) { return a.text.find(what) == 0; });
    };
    EXPECT_TRUE(has("Creep coefficient: "));
    EXPECT_TRUE(has("Imposed load of " + p.slabs[0]->name));
    std::vector<std::string> margin, page, text;
    for (const auto& l : report::margin(p, design, report::MarginView{"s1", {}})) margin.push_back(l.text);
    for (const auto& l : report::beforeIssue(p, design)) page.push_back(l.text);
    for (const auto& b : report::make(p, design, report::Depth::Summary).blocks) text.push_back(b.text);
    for (const auto& a : all)
        for (const auto* place : {&margin, &page, &text})
            EXPECT_NE(std::find(place->begin(), place->end(), a.text), place->end()) << a.text;
    // With a source it is no assumption.
    p.sources["creep"].kind = model::Source::Kind::Investigation;
    const auto fewer = report::assumed(p, design::run(p, {.trace = false}));
    EXPECT_EQ(fewer.size() + 1, all.size());
}
