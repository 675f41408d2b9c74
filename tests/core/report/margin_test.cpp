// The margin's content: of what is in hand all that belongs to it and nothing else.
#include "report/margin.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <algorithm>
#include <map>
#include <set>

#include "formats/project_file.h"
#include "model/edits.h"
#include "support/regular_floor.h"

using namespace talvik;
using report::MarginLine;
using In = model::Spot::In;

namespace {

std::set<std::string> keys(const std::vector<MarginLine>& lines) {
    std::set<std::string> all;
    for (const auto& l : lines)
        if (l.check) all.insert(l.check->key);
    return all;
}
const MarginLine* listing(const std::vector<MarginLine>& lines, const std::string& text) {
    for (const auto& l : lines)
        if (l.text.find(text) != std::string::npos) return &l;
    return nullptr;
}

class Margin : public ::testing::Test {
  protected:
    model::Project project = formats::demoProject();
    design::Design design = design::run(project, {.trace = false});
    const design::SlabDesign& slab() { return design.slab(0); }
    std::vector<MarginLine> of(In in, const model::Id& id = {}) {
        report::MarginView view{"s1", model::Spot{slab().part, in, id}};
        for (const auto& c : slab().checks) view.unfolded.insert(c.what);
        return report::margin(project, design, view);
    }
};

}  // namespace

TEST_F(Margin, OfSpansSupportsAndRunsListsWhatBelongsThere) {
    std::set<std::string> all;
    for (const auto& s : slab().line.line.spans) {
        const auto listed = of(In::Span, s.id);
        EXPECT_TRUE(listing(listed, "Span " + s.name));
        for (const auto& c : slab().checks)
            EXPECT_EQ(keys(listed).contains(c.key), c.place.spot.in == In::Span && c.place.spot.id == s.id);
        all.merge(keys(listed));
    }
    for (const auto& s : slab().line.line.supports) {
        const auto listed = of(In::Support, s.id);
        EXPECT_TRUE(listing(listed, "Reaction")) << "and what it carries";
        all.merge(keys(listed));
    }
    for (const auto& c : slab().checks) EXPECT_EQ(all.contains(c.key), c.place.spot.in != In::Whole) << c.key;
    for (const auto& r : slab().bars) {
        const auto listed = of(In::Run, r.id);
        ASSERT_TRUE(listing(listed, "From, to")) << r.id;
        EXPECT_TRUE(listing(listed, "chosen by the program"));
        for (const auto& key : keys(listed)) {
            const auto* c = design.elements[0]->check(key);
            EXPECT_EQ(c->face, r.top() ? model::Face::Top : model::Face::Bottom);
            EXPECT_TRUE(c->place.to >= r.from && c->place.from <= r.to);
        }
        EXPECT_EQ(keys(listed).empty(), !model::isMain(r.role)) << r.id;
    }
}

TEST_F(Margin, OfTheWholeListsEverythingWorstFirst) {
    const auto listed = of(In::Whole);
    EXPECT_EQ(keys(listed).size(), slab().checks.size());
    // Likes stand where their worst belongs.
    double last = 1e9;
    std::set<std::string> told;
    const auto folded = report::margin(project, design, {"s1", model::Spot{slab().part, In::Whole, {}}});
    for (const auto& l : folded)
        if (l.check) {
            EXPECT_TRUE(told.insert(l.check->key).second) << l.check->key;
        }
    EXPECT_LT(told.size(), slab().checks.size() / 2);
    for (const auto& l : folded)
        if (l.check && checks::isJudged(*l.check)) {
            EXPECT_LE(checks::ratio(*l.check), last + 1e-12);
            last = checks::ratio(*l.check);
        }
    EXPECT_TRUE(listing(listed, "Cross-check") && listing(listed, "Reactions"));
    for (const auto& l : listed) EXPECT_NE(l.kind, MarginLine::Kind::Remedies) << "nothing is over";
}

TEST_F(Margin, WithNothingInHandIsTheStateOfAllElements) {
    project = model::addSlab(test::regularFloor(2, 2, 5000, 5000, 160, 300), "Ramp");
    design = design::run(project, {.trace = false});
    ASSERT_EQ(design.elements.size(), 2u);
    const auto sum = design.summary();
    report::MarginView view{project.floors[0]->id, {}};
    for (const auto& e : design.elements)
        for (const auto* c : e->all())
            if (c->outcome == checks::Outcome::NotChecked) view.unfolded.insert(c->what);
    const auto listed = report::margin(project, design, view);
    EXPECT_EQ(listing(listed, "Over the limit")->right, std::to_string(sum.over));
    EXPECT_EQ(listing(listed, "Not checked")->right, std::to_string(sum.notChecked));
    std::set<std::string> over, open;
    for (const auto& l : listed) {
        if (l.kind != MarginLine::Kind::Check) continue;
        if (l.check->outcome == checks::Outcome::Over) over.insert(l.check->key);
        if (l.check->outcome == checks::Outcome::NotChecked) open.insert(l.check->key);
    }
    EXPECT_GE(over.size(), std::size_t(std::min(sum.over, 60)));
    EXPECT_EQ(open.size(), std::size_t(sum.notChecked));
    // The element in hand as it is: every kind of check with its worst.
    std::map<std::string, double> worst, shown;
    for (const auto* c : design.elements[1]->all())
        if (checks::isJudged(*c)) worst[c->what] = std::max(worst[c->what], checks::ratio(*c));
    const auto from =
        std::find_if(listed.begin(), listed.end(), [](const auto& l) { return l.text == "All checks"; });
    ASSERT_NE(from, listed.end());
    for (auto l = from + 1; l != listed.end() && l->check; ++l)
        shown.try_emplace(l->check->what, checks::ratio(*l->check));
    EXPECT_EQ(shown, worst);
    ASSERT_TRUE(listing(listed, "Strips X"));
    EXPECT_EQ(listing(listed, "Strips X")->right, "complete");
    const double concrete = design.elements[0]->concrete + design.elements[1]->concrete;
    const auto volume =
        std::find_if(listed.begin(), listed.end(), [](const auto& l) { return l.text == "Concrete"; });
    ASSERT_NE(volume, listed.end());
    EXPECT_EQ(volume->right, fmt::format("{:.1f} m³", concrete));
    EXPECT_NEAR(design.elements[1]->concrete, 5.6 * 5.6 * 0.16, 1e-6)
        << "the floor's: a bay with 300 mm around";
}

TEST_F(Margin, SaysWhyThereIsNothing) {
    auto bad = project;
    bad.basis.standard = "none";
    const auto listed = report::margin(bad, design::run(bad), {"s1", {}});
    EXPECT_TRUE(listing(listed, "There is no standard"));
    // Analysed, but too thin for bars: nothing is over, and nothing is said to be within.
    const auto thin = test::regularFloor(2, 2, 3000, 3000, 60);
    const auto state = report::margin(thin, design::run(thin), {"f1", {}});
    EXPECT_TRUE(listing(state, "leaves no room for two layers of bars"));
    EXPECT_TRUE(listing(state, "Regular: nothing (no design)"));
    EXPECT_FALSE(listing(state, "None."));
    // Of a part that is gone: the state of the project.
    const auto gone = report::margin(
        project, design, {"s1", model::Spot{{"s9", model::PartKind::OneWaySlab, {}}, In::Whole, {}}});
    EXPECT_TRUE(listing(gone, project.name));
}
