// What can be found leads to where it is.
#include "report/index.h"

#include <gtest/gtest.h>

#include <set>

#include "design/floor_design.h"
#include "formats/project_file.h"
#include "model/edits.h"
#include "support/regular_floor.h"

using namespace talvik;
using In = model::Spot::In;

TEST(Index, HoldsEveryPlaceMarkAndCheck) {
    auto p = model::addSlab(test::regularFloor(3, 2, 6000, 5000), "Ramp");
    const auto design = design::run(p, {.trace = false});
    const auto all = report::index(design, p.floors[0]->id, units::System::Metric);
    std::set<std::string> checks, runs;
    std::size_t supports = 0, spans = 0;
    for (const auto& e : all) {
        EXPECT_FALSE(e.text.empty() || e.detail.empty());
        const auto* element = design.find(e.spot.part.element);
        ASSERT_TRUE(element) << e.text;
        if (!e.check.empty()) {
            const auto* c = element->check(e.check);
            ASSERT_TRUE(c) << e.check;
            EXPECT_EQ(e.spot, c->place.spot);
            EXPECT_EQ(e.text.rfind(c->title, 0), 0u) << "begins with its title";
            EXPECT_TRUE(checks.insert(e.check).second) << e.check;
            continue;
        }
        EXPECT_TRUE(element->find(e.spot.part)) << e.text;
        supports += e.spot.in == In::Support, spans += e.spot.in == In::Span;
        if (e.spot.in == In::Run) runs.insert(e.spot.part.element + e.spot.part.key + "/" + e.spot.id);
    }
    std::size_t checksThere = 0, supportsThere = 0, spansThere = 0;
    for (const auto& e : design.elements) {
        checksThere += e->all().size();
        for (const auto& part : e->parts) {
            const auto* line = dynamic_cast<const design::LineAnswer*>(part.get());
            if (!line) continue;
            const auto view = line->view();
            supportsThere += view.line.supports.size(), spansThere += view.line.spans.size();
        }
    }
    EXPECT_EQ(checks.size(), checksThere);
    EXPECT_EQ(supports, supportsThere);
    EXPECT_EQ(spans, spansThere);
    std::set<std::string> runsThere;  // of slabs, strips, edges and shear steel
    for (const auto& e : design.elements)
        for (const auto& part : e->parts)
            for (const auto& i : part->items) runsThere.insert(e->element + part->part.key + "/" + i.run);
    EXPECT_EQ(runs, runsThere);
    EXPECT_GT(runs.size(), 40u);
    EXPECT_EQ(all.front().spot.part.element, p.floors[0]->id) << "the element in hand comes first";
    EXPECT_EQ(report::index(design, p.slabs[0]->id, units::System::Metric).front().spot.part.element,
              p.slabs[0]->id);
}

TEST(Index, ChecksComeWorstFirst) {
    const auto p = formats::demoProject();
    const auto design = design::run(p, {.trace = false});
    double last = 1e9;
    for (const auto& e : report::index(design, "s1", units::System::Metric))
        if (!e.check.empty()) {
            const double ratio = checks::ratio(*design.elements[0]->check(e.check));
            EXPECT_LE(ratio, last + 1e-12);
            last = ratio;
        }
}
