// The long section as data: what is drawn is what the answer holds, and stays within its row.
#include "drawing/long_section.h"

#include <gtest/gtest.h>

#include "bars/run_edits.h"
#include "design/floor_design.h"
#include "formats/project_file.h"
#include "model/edits.h"
#include "support/random_floor.h"
#include "support/random_slab.h"

using namespace talvik;
using drawing::LongSection;

namespace {

const LongSection::Row* row(const LongSection& s, const char* title) {
    for (const auto& r : s.rows)
        if (r.title.rfind(title, 0) == 0) return &r;
    return nullptr;
}

void expectWithinItsRows(const LongSection& s) {
    for (const auto& r : s.rows) {
        SCOPED_TRACE(r.title);
        const double slack = 1e-6 * (r.high - r.low);
        EXPECT_GT(r.high - r.low, 0);
        EXPECT_NE(r.title.find(", "), std::string::npos) << "a title names its unit";
        for (const auto& c : r.curves)
            for (auto p : c.points) {
                EXPECT_GE(p.x, s.from - 1);
                EXPECT_LE(p.x, s.to + 1);
                EXPECT_GE(p.y, r.low - slack);
                EXPECT_LE(p.y, r.high + slack);
            }
        for (const auto& p : r.pillars) EXPECT_LE(p.at.y, r.high);
    }
}

// Where more is asked than is there, some check of bending or of bar ends is over.
void expectGapsAreOver(const design::LineAnswer& line, const LongSection& s) {
    double worst = 0;
    for (const auto& gap : row(s, "moment")->gaps)
        for (std::size_t i : {0u, 1u}) {
            const double asked = std::abs(gap[i].y), there = std::abs(gap[3 - i].y);
            if (asked > 0) worst = std::max(worst, (asked - there) / std::max(asked, s.rows[0].high / 100));
        }
    if (worst < 0.02) return;
    EXPECT_TRUE(std::any_of(line.checks.begin(), line.checks.end(),
                            [](const auto& c) {
                                return c.outcome == checks::Outcome::Over &&
                                       (c.topic == checks::Topic::Flexure ||
                                        c.topic == checks::Topic::BarEnds);
                            }))
        << line.name << " short by " << worst;
}

}  // namespace

TEST(LongSection, OfTheDemoShowsItsBarsMomentsAndSag) {
    const auto p = formats::demoProject();
    const auto design = design::run(p, {.trace = false});
    const auto& d = design.slab(0);
    const auto s = drawing::longSection(d, p.basis, design.marks);
    EXPECT_EQ(s.supports.size(), p.slabs[0]->supports.size());
    EXPECT_EQ(s.spans.size(), p.slabs[0]->spans.size());
    EXPECT_EQ(s.bars.size(), d.runs.size());
    EXPECT_EQ(s.bars.size() + s.across.size() + 2, d.bars.size()) << "and U-bars at the tip and the edges";
    for (const auto& b : s.bars) EXPECT_EQ(b.callout, design.callout(d, b.id, p.basis.units));
    ASSERT_TRUE(row(s, "moment") && row(s, "steel") && row(s, "shear") && row(s, "crack") && row(s, "deflection"));
    EXPECT_TRUE(row(s, "moment")->gaps.empty());
    std::set<std::string> shown;
    for (const auto& f : row(s, "moment")->figures) shown.insert(f.text);
    for (const auto& span : d.line.spans) {
        const auto text = units::number(span.moment, units::Kind::MomentPerWidth, p.basis.units);
        EXPECT_TRUE(span.moment < 1e3 || shown.contains(text)) << text;
    }
    double sag = 0;
    for (const auto& each : d.sag) sag = std::max(sag, each.largest);
    double lowest = 0;
    for (const auto& c : row(s, "deflection")->curves)
        if (c.style == LongSection::Style::Demand)
            for (auto point : c.points) lowest = std::min(lowest, point.y);
    EXPECT_NEAR(lowest, -sag, 1e-9);
    expectWithinItsRows(s);
}

TEST(LongSection, AShortenedBarLeavesAGap) {
    auto p = formats::demoProject();
    const auto before = design::run(p, {.trace = false});
    auto run = before.slab(0).runs.front();
    run.to -= 2000;
    p = model::editBars(p, "s1", [&](auto& bars, auto& next) { bars::fixRun(next, bars, run); });
    const auto after = design::run(p, {.trace = false});
    const auto s = drawing::longSection(after.slab(0), p.basis, after.marks);
    ASSERT_FALSE(row(s, "moment")->gaps.empty());
    for (const auto& gap : row(s, "moment")->gaps)
        for (auto point : gap) EXPECT_GT(point.x, run.to - 1500) << "where the bar is missing";
    expectGapsAreOver(after.slab(0), s);
    EXPECT_TRUE(std::any_of(s.bars.begin(), s.bars.end(), [](const auto& b) { return b.fixed; }));
}

TEST(LongSection, OfRandomLinesStaysWithinItsRows) {
    int strips = 0;
    for (unsigned seed = 1; seed <= 15; ++seed) {
        auto p = test::randomProject(seed);
        p.basis.standard = standards::standardIds()[seed % standards::standardIds().size()];
        p.floors.push_back(std::make_shared<const model::Floor>(test::randomFloor(seed)));
        const auto design = design::run(p, {.trace = false, .floors = seed <= 8});
        for (const auto& e : design.elements)
            for (const auto& part : e->parts) {
                const auto* of = dynamic_cast<const design::LineAnswer*>(part.get());
                if (!of) continue;
                const auto& line = *of;
                const auto s = drawing::longSection(line, p.basis, design.marks);
                SCOPED_TRACE(std::to_string(seed) + " " + line.name);
                if (s.rows.empty()) continue;
                expectWithinItsRows(s);
                expectGapsAreOver(line, s);
                strips += line.part.kind == model::PartKind::Strip;
                EXPECT_NE(drawing::readingAt(line, (s.from + s.to) / 2, p.basis.units).find("T "),
                          std::string::npos);
            }
    }
    EXPECT_GT(strips, 40);
}

TEST(LongSection, AsAFigureStaysOnItsPaper) {
    const auto p = formats::demoProject();
    const auto design = design::run(p, {.trace = false});
    const auto figure =
        drawing::lineFigure(drawing::longSection(design.slab(0), p.basis, design.marks), "Gallery", 180);
    int curves = 0, texts = 0;
    for (const auto& item : figure.items) {
        if (const auto* line = std::get_if<drawing::Polyline>(&item)) {
            curves += line->points.size() > 10;
            for (auto q : line->points) {
                EXPECT_TRUE(q.x > -1 && q.x < figure.width + 1 && q.y > -1 && q.y < figure.height + 1)
                    << q.x << " " << q.y;
            }
        } else if (const auto* t = std::get_if<drawing::Text>(&item)) {
            ++texts;
            EXPECT_TRUE(t->at.y > -1 && t->at.y < figure.height) << t->text;
        }
    }
    EXPECT_GE(curves, 5) << "demand and resistance of both faces, and sag";
    EXPECT_GT(texts, 15);
}
