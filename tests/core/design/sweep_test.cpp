// The sweep of thicknesses: its points are full designs, one by one; drops lie under inner columns.
#include "design/sweep.h"

#include <gtest/gtest.h>

#include "formats/tables.h"
#include "model/edits.h"
#include "support/reference.h"
#include "support/regular_floor.h"

using namespace talvik;

namespace {

// A cell of a table without commas in its cells.
std::string csvCell(const std::string& csv, std::size_t row, std::size_t column) {
    std::size_t at = 0;
    for (std::size_t r = 0; r < row; ++r) at = csv.find('\n', at) + 1;
    for (std::size_t c = 0; c < column; ++c) at = csv.find(',', at) + 1;
    return csv.substr(at, csv.find_first_of(",\n", at) - at);
}

}  // namespace

TEST(Sweep, PointsAreFullDesignsToTheByte) {
    const auto p = test::regularFloor(3, 3, 6000, 5500, 240);
    design::SweepWish wish;
    wish.thicknesses = {200, 240, 280}, wish.concretes = {"C30/37", "C40/50"}, wish.drops = true;
    std::size_t told = 0;
    const auto points = design::sweep(p, "f1", wish, {}, [&](const design::SweepPoint&, std::size_t of) {
        ++told;
        EXPECT_EQ(of, 12u);
    });
    ASSERT_EQ(points.size(), 12u);
    EXPECT_EQ(told, 12u);
    for (std::size_t k : {0u, 4u, 7u, 11u}) {
        // By hand: thickness, class, drops put in one by one.
        const auto& point = points[k];
        auto q = model::editFloor(
            p, "f1", [&](model::Floor& f, model::Project&) { f.slabs[0].thickness = point.thickness; });
        if (point.drops) q = design::withDrops(q, "f1");
        q.basis.concrete = point.concrete;
        q.basis.concreteStrength = point.concrete == "C30/37" ? 30 : 40;
        EXPECT_TRUE(q == point.project) << k;
        const auto d = design::run(q, {.trace = false}), e = design::run(point.project, {.trace = false});
        EXPECT_EQ(formats::resultsJson(q, d), formats::resultsJson(point.project, e)) << k;
        EXPECT_EQ(point.over, d.find("f1")->summary.over);
        EXPECT_NEAR(point.worst, d.find("f1")->worst(), 1e-12);
        EXPECT_GT(point.price, 0);
        EXPECT_FALSE(point.governs.empty());
    }
    // Thicker slabs take more concrete; the table has a row for each.
    EXPECT_LT(points[0].concreteVolume, points[2].concreteVolume);
    const auto rows = test::rows(formats::sweepCsv(points, p));
    ASSERT_EQ(rows.size(), 12u);
    EXPECT_EQ(rows[4].at("drops"), "yes");
    EXPECT_EQ(rows[0].at("thickness"), "200");
    // 12.4 by 11.4 m, 200 mm thick, its soffit and sides.
    EXPECT_NEAR(std::stod(csvCell(formats::sweepCsv(points, p), 1, 6)), 12.4 * 11.4 * 0.2, 0.3);
    EXPECT_GT(std::stod(csvCell(formats::sweepCsv(points, p), 1, 8)), 120);
    EXPECT_EQ(formats::sweepCsv(points, p), formats::sweepCsv(points, p));
}

TEST(Sweep, DropsLieUnderInnerColumns) {
    const auto p = test::regularFloor(4, 3, 6000, 5400, 240);
    const auto q = design::withDrops(p, "f1");
    ASSERT_TRUE(model::validate(q).empty());
    const auto& zones = q.floors[0]->zones;
    ASSERT_EQ(zones.size(), 2u) << "of four by three columns two stand inside";
    for (const auto& z : zones) {
        EXPECT_EQ(z.thickness, 400) << "half as deep again, in steps of 50 mm";
        EXPECT_EQ(z.outline[1].x - z.outline[0].x, 1800) << "a third of 5.4 m";
    }
    EXPECT_TRUE(design::withDrops(q, "f1") == q) << "none is put on another";
}

TEST(Sweep, StopsAndSaysWhatHasNoDesign) {
    auto p = test::regularFloor(3, 3, 6000, 5500, 240);
    std::stop_source stop;
    design::SweepWish wish;
    for (int h = 160; h <= 400; h += 10) wish.thicknesses.push_back(h);
    const auto some = design::sweep(p, "f1", wish, stop.get_token(),
                                    [&](const design::SweepPoint&, std::size_t) { stop.request_stop(); });
    EXPECT_GE(some.size(), 1u);
    EXPECT_LT(some.size(), wish.thicknesses.size()) << "but for those under way";
    p = model::editFloor(p, "f1", [](model::Floor& f, model::Project&) { f.columns.clear(); });
    wish.thicknesses = {200};
    EXPECT_FALSE(design::sweep(p, "f1", wish)[0].error.empty());
}
