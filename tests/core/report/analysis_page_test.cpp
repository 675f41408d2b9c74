// The analysis of a floor in short: what stands beside the plan is what the report says at more length.
#include <gtest/gtest.h>

#include <algorithm>

#include "design/floor_design.h"
#include "report/report.h"
#include "support/regular_floor.h"

using namespace talvik;
using Kind = report::Block::Kind;

namespace {

const std::vector<std::vector<std::string>>* tableAfter(const report::Document& doc,
                                                        const std::string& heading) {
    for (std::size_t i = 0; i + 1 < doc.blocks.size(); ++i)
        if (doc.blocks[i].kind == Kind::Subheading && doc.blocks[i].text.rfind(heading, 0) == 0 &&
            doc.blocks[i + 1].kind == Kind::Table)
            return &doc.blocks[i + 1].rows;
    return nullptr;
}

}  // namespace

TEST(AnalysisPage, ShowsLoadsReactionsAndSupportForces) {
    const auto p = test::regularFloor(3, 3, 6000, 6000);
    const auto design = design::run(p, {.trace = false});
    const auto& floor = dynamic_cast<const design::FloorDesign&>(*design.elements.at(0));
    const auto page = report::analysisPage(p, design, floor, {});
    const auto* loads = tableAfter(page, "Loads and reactions");
    ASSERT_TRUE(loads);
    EXPECT_EQ(loads->size(), p.floors[0]->actions.cases.size() + 1)
        << "the floor's own cases, not those in turn";
    EXPECT_LT(loads->size(), floor.analysis->cases.size()) << "of which there are more";
    for (std::size_t i = 1; i < loads->size(); ++i)
        EXPECT_EQ((*loads)[i][1], (*loads)[i][2]) << "equilibrium";
    const auto* forces = tableAfter(page, "Support forces");
    ASSERT_TRUE(forces);
    ASSERT_EQ(forces->size(), floor.analysis->model->supports.size() + 1);
    // By brute force, in another order: support by support.
    for (std::size_t s = 0; s + 1 < forces->size(); ++s) {
        double most = -1e300;
        for (std::size_t k = 0; k < floor.analysis->combinations.size(); ++k)
            if (floor.analysis->combinations[k].state == actions::LimitState::Ultimate)
                most = std::max(most, floor.analysis->forces(k)[s].up);
        EXPECT_EQ((*forces)[s + 1][1], units::number(most, units::Kind::Force, p.basis.units));
    }
    EXPECT_FALSE(tableAfter(page, "Combinations")) << "left to the report";
    EXPECT_FALSE(tableAfter(page, "On a mesh"));
    EXPECT_TRUE(std::none_of(page.blocks.begin(), page.blocks.end(), [](const auto& b) {
        return b.kind == Kind::Check;
    })) << "strips have their own places";
    const auto whole = report::make(p, design, report::Depth::Summary);
    ASSERT_TRUE(tableAfter(whole, "Combinations"));
    EXPECT_EQ(tableAfter(whole, "Combinations")->size(), floor.analysis->combinations.size() + 1);
    EXPECT_EQ(*tableAfter(whole, "Support forces"), *forces);
}

TEST(AnalysisPage, TellsHowFarFromConverged) {
    const auto p = test::regularFloor(2, 2, 5000, 5000);
    const auto design = design::run(p, {.trace = false});
    const auto& floor = dynamic_cast<const design::FloorDesign&>(*design.elements.at(0));
    const auto c = design::convergence(p, 0);
    ASSERT_FALSE(c.rows.empty()) << c.error;
    const auto page = report::analysisPage(p, design, floor, c);
    const auto* rows = tableAfter(page, "On a mesh of half the size");
    ASSERT_TRUE(rows);
    EXPECT_EQ(rows->size(), c.rows.size() + 1);
    std::stop_source stop;
    stop.request_stop();
    EXPECT_EQ(design::convergence(p, 0, stop.get_token()).error, "stopped");
}
