// What differs between two projects.
#include "formats/comparison.h"

#include <gtest/gtest.h>

#include <nlohmann/json.hpp>

#include "formats/project_file.h"
#include "model/edits.h"
#include "support/regular_floor.h"

using namespace talvik;

namespace {

formats::Comparison compared(const model::Project& a, const model::Project& b) {
    return formats::compare(a, design::run(a, {.trace = false}), b, design::run(b, {.trace = false}));
}
const formats::Comparison::Input* input(const formats::Comparison& c, const std::string& end) {
    for (const auto& i : c.inputs)
        if (i.what.ends_with(end)) return &i;
    return nullptr;
}

}  // namespace

TEST(Comparison, EqualProjectsDifferInNothing) {
    const auto p = formats::demoProject();
    const auto c = compared(p, p);
    EXPECT_TRUE(c.same());
    for (const auto& a : c.amounts) EXPECT_EQ(a.before, a.after) << a.what;
    EXPECT_FALSE(c.amounts.empty());
}

TEST(Comparison, AThinnerSlabSaysWhatItChanged) {
    const auto p = formats::demoProject();
    const auto q = model::editSlab(p, p.slabs[0]->id, [](model::OneWaySlab& s, model::Project&) {
        s.thickness -= 80;
        s.finishes.clear();
        s.spans[0].length += 200;
    });
    const auto c = compared(p, q);
    const auto* h = input(c, p.slabs[0]->name + " › thickness mm");
    ASSERT_TRUE(h);
    EXPECT_EQ(std::stod(h->before) - std::stod(h->after), 80);
    const auto* span = input(c, " › length mm");
    ASSERT_TRUE(span);
    EXPECT_EQ(std::stod(span->after) - std::stod(span->before), 200);
    // Finishes are gone, one line each.
    int gone = 0;
    for (const auto& i : c.inputs) gone += i.what.find("finishes") != std::string::npos && i.after.empty();
    EXPECT_EQ(gone, int(p.slabs[0]->finishes.size()));
    ASSERT_FALSE(c.checks.empty());
    EXPECT_TRUE(c.checks.front().worse) << "what is now over comes first";
    for (std::size_t i = 0; i + 1 < c.checks.size(); ++i)
        if (c.checks[i].worse == c.checks[i + 1].worse) {
            EXPECT_GE(c.checks[i].change, c.checks[i + 1].change);
        }
    bool concrete = false;
    for (const auto& a : c.amounts)
        if (a.what == p.slabs[0]->name + ": concrete") concrete = a.after < a.before;
    EXPECT_TRUE(concrete);
    const auto j = nlohmann::json::parse(formats::comparisonJson(c));
    EXPECT_EQ(j["inputs"].size(), c.inputs.size());
    EXPECT_EQ(j["checks"].size(), c.checks.size());
    const auto html =
        report::html(formats::comparisonPage(c, "one", "two", p.basis.units), report::Target::Page);
    EXPECT_NE(html.find("now failing"), std::string::npos);
    EXPECT_NE(html.find("thickness mm"), std::string::npos);
}

TEST(Comparison, ElementsThatComeAndGo) {
    auto p = formats::demoProject(), q = p;
    q.slabs.clear();
    const auto c = compared(p, q);
    for (const auto& k : c.checks) EXPECT_EQ(k.after, "");
    const auto back = compared(q, p);
    for (const auto& k : back.checks) EXPECT_EQ(k.before, "");
    EXPECT_EQ(back.checks.size(), c.checks.size());
}

TEST(Comparison, AnElementWithoutADesignIsTold) {
    const auto p = test::regularFloor(2, 2, 3000, 3000, 200), thin = test::regularFloor(2, 2, 3000, 3000, 60);
    EXPECT_TRUE(compared(p, p).notes.empty());
    for (const bool later : {false, true}) {
        const auto c = later ? compared(p, thin) : compared(thin, p);
        ASSERT_EQ(c.notes.size(), 1u);
        EXPECT_EQ(c.notes[0].find(later ? "Regular has no design after: Slab S, 60 mm thick"
                                        : "Regular has no design before: Slab S, 60 mm thick"),
                  0u)
            << c.notes[0];
        const auto html =
            report::html(formats::comparisonPage(c, "one", "two", p.basis.units), report::Target::Page);
        EXPECT_NE(html.find("has no design"), std::string::npos);
        EXPECT_EQ(nlohmann::json::parse(formats::comparisonJson(c))["notes"].size(), 1u);
    }
}
