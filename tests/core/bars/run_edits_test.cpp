// Bars as people write and step them; dividing and adding runs of strips.
#include "bars/run_edits.h"

#include <gtest/gtest.h>

#include "design/floor_design.h"
#include "formats/project_file.h"
#include "model/edits.h"
#include "model/floor_validation.h"

namespace talvik {
namespace {

TEST(RunEdits, BarsAreReadAsPeopleWriteThem) {
    model::Basis metric = model::emptyProject().basis;
    struct Case {
        const char* text;
        std::optional<std::string> bar;
        std::optional<double> spacing;
    };
    for (const auto& c : {Case{"H16 @ 150", "H16", 150}, Case{"H16@150", "H16", 150},
                          Case{" H12 200 ", "H12", 200}, Case{"H20-125", "H20", 125}, Case{"H25", "H25", {}},
                          Case{"175", {}, 175}, Case{"@ 17.5 cm", {}, 175}}) {
        auto r = bars::readBars(c.text, metric);
        EXPECT_EQ(r.trouble, "") << c.text;
        EXPECT_EQ(r.bar, c.bar) << c.text;
        ASSERT_EQ(r.spacing.has_value(), c.spacing.has_value()) << c.text;
        EXPECT_NEAR(r.spacing.value_or(0), c.spacing.value_or(0), 1e-9) << c.text;
    }
    for (const char* text : {"", "  @ ", "H16 @ many", "Q99 150", "H16 @ 3 kN"}) {
        auto r = bars::readBars(text, metric);
        EXPECT_NE(r.trouble.find("such as"), std::string::npos) << text;
        EXPECT_FALSE(r.bar || r.spacing) << text;
    }
    model::Basis us = metric;
    us.units = units::System::UsCustomary;
    us.barCatalog = "us";
    us.mainBars = {"#5"};
    auto r = bars::readBars("#5 @ 6", us);
    EXPECT_EQ(r.bar, "#5");
    EXPECT_NEAR(r.spacing.value_or(0), 152.4, 1e-9);
}

TEST(RunEdits, StepsStayWithinWhatIsAllowed) {
    model::Basis b = model::emptyProject().basis;
    for (double s = b.spacingLeast; s <= b.spacingMost; s += 1) {
        double up = bars::nextSpacing(s, 1, b), down = bars::nextSpacing(s, -1, b);
        EXPECT_TRUE(up > s || up == b.spacingMost) << s;
        EXPECT_TRUE(down < s || down == b.spacingLeast) << s;
        EXPECT_LE(up - s, b.spacingStep + 1e-9);
        EXPECT_LE(s - down, b.spacingStep + 1e-9);
    }
    std::string bar = "H8";
    for (int i = 0; i < 40; ++i) bar = bars::nextBar(bar, 1, b);
    EXPECT_EQ(bar, catalogs::barCatalog(b.barCatalog)->bars.back().name);
    EXPECT_EQ(bars::nextBar(bars::nextBar("H16", 1, b), -1, b), "H16");
}

// The demo floor with one edit of its bars, designed anew.
class Bars : public testing::Test {
  protected:
    model::Project project = formats::demoFloorProject();
    std::shared_ptr<const design::FloorDesign> before = design::designFloor(project, 0);
    std::shared_ptr<const design::StripDesign> strip() {
        for (const auto& s : before->strips)
            if (s->strip->kind == strips::Strip::Kind::Column && s->strip->spans.size() > 2) return s;
        return nullptr;
    }
    std::shared_ptr<const design::FloorDesign> with(const std::function<void(model::Floor&)>& change) {
        auto f = std::make_shared<model::Floor>(*project.floors[0]);
        change(*f);
        EXPECT_TRUE(model::validateFloor(*f, "floors[0]").empty());
        project.floors[0] = f;
        return design::designFloor(project, 0);
    }
    static double steel(const design::StripDesign& d, bool top, double u) {
        double sum = 0;
        for (const auto& r : d.runs)
            if (r.top() == top && !r.band() && r.from <= u && r.to >= u) sum += r.area;
        return sum;
    }
};

TEST_F(Bars, DividedLapAndKeepTheSteelEverywhere) {
    auto s = strip();
    ASSERT_TRUE(s);
    const bars::Run* longest = nullptr;
    for (const auto& r : s->runs)
        if (!r.top() && (!longest || r.to - r.from > longest->to - longest->from)) longest = &r;
    ASSERT_TRUE(longest);
    const line::LineBasis in{*before->basis, *before->standard, s->outerTop, s->outerBottom};
    double lap = bars::lapLength(*longest, 250, in), u = (longest->from + longest->to) / 2;
    EXPECT_GT(lap, 20 * longest->diameter);
    EXPECT_GE(lap, longest->anchorStart - 10) << "a lap is never shorter than the anchorage";
    bars::SplitRun split;
    auto after =
        with([&](model::Floor& f) { split = bars::splitRun(project, f.strips.bars, *longest, u, lap); });
    EXPECT_EQ(split.trouble, "");
    const auto* now = after->find(s->strip->key);
    ASSERT_TRUE(now);
    int fixed = 0;
    for (const auto& r : now->runs)
        if (r.fixed) {
            ++fixed;
            EXPECT_TRUE(r.id == split.first || r.id == split.second);
        }
    EXPECT_EQ(fixed, 2);
    EXPECT_EQ(now->runs.size(), s->runs.size() + 1) << "the program's own run made place for both";
    for (std::size_t i = 0; i < s->stations().size(); ++i) {
        double x = s->stations()[i].u;
        EXPECT_NEAR(steel(*now, false, x), steel(*s, false, x) * (std::abs(x - u) <= lap / 2 ? 2 : 1), 1e-9)
            << x;
        EXPECT_GE(now->bottom.resistance[i], s->bottom.resistance[i] * (1 - 1e-6))
            << "weaker in the lap at " << x;
    }
}

TEST_F(Bars, AreNotDividedWhereALapDoesNotFit) {
    auto s = strip();
    const bars::Run r = s->runs.front();
    model::Floor f = *project.floors[0];
    const auto as = f;
    for (double u : {r.from + 100, r.to - 100, r.from - 500}) {
        auto split = bars::splitRun(project, f.strips.bars, r, u, 600);
        EXPECT_NE(split.trouble.find("600 mm"), std::string::npos) << split.trouble;
        EXPECT_EQ(f, as) << "nothing is changed";
    }
}

TEST_F(Bars, AddedOnesComeOnTopOfThoseThere) {
    auto s = strip();
    for (bool top : {false, true}) {
        const bars::Run* run = nullptr;
        for (const auto& r : s->runs)
            if (r.top() == top && !r.band()) run = &r;
        ASSERT_TRUE(run);
        double from = run->from + 0.3 * (run->to - run->from), to = run->to - 0.3 * (run->to - run->from);
        model::Id id;
        const double area = run->area, at = (from + to) / 2, was = steel(*s, top, at);
        auto after = with(
            [&](model::Floor& f) { id = bars::addRun(project, f.strips.bars, *run, from, to, s->runs); });
        const auto* now = after->find(s->strip->key);
        ASSERT_TRUE(now);
        EXPECT_NEAR(steel(*now, top, at), was + area, 1e-9) << "top " << top;
        EXPECT_NEAR(steel(*now, top, run->from + 10), steel(*s, top, run->from + 10), 1e-9);
        bool there = false;
        for (const auto& r : now->runs) there |= r.id == id && r.fixed && r.from == from && r.to == to;
        EXPECT_TRUE(there);
    }
}

}  // namespace
}  // namespace talvik
