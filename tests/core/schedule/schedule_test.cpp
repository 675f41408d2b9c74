#include "schedule/schedule.h"

#include <gtest/gtest.h>

#include <cmath>
#include <set>

#include "design/design.h"
#include "formats/project_file.h"
#include "model/edits.h"

using namespace talvik;

namespace {

const schedule::LapLength lap600 = [](const model::BarRun&) { return 600.0; };
const schedule::Bends bends{[](double d) { return catalogs::bendRadius(d); }, [](double d) { return 5 * d; }};

model::OneWaySlab slabWith(model::BarRun run) {
    model::OneWaySlab s = *model::newProject().slabs.front();
    s.width = 6000;
    s.bars = {run};
    return s;
}

}  // namespace

TEST(Schedule, StraightHookedAndUBars) {
    model::Basis basis;
    auto straight = schedule::items(slabWith({"b1", model::Role::BottomMain, 0, 4000, "H12", 200}), basis, {},
                                    lap600, bends);
    ASSERT_EQ(straight.size(), 1u);
    EXPECT_EQ(straight[0].shape, "00");
    EXPECT_EQ(straight[0].cutLength, 4000);
    EXPECT_EQ(straight[0].number, static_cast<int>(std::ceil((6000 - 70) / 200.0)) + 1);
    auto hook =
        schedule::items(slabWith({"b1", model::Role::TopMain, 0, 4000, "H12", 200, model::BarEnd::Hook}),
                        basis, {}, lap600, bends);
    EXPECT_EQ(hook[0].shape, "11");
    EXPECT_EQ(hook[0].dimensions.at('B'), 150);  // 200 less the covers
    EXPECT_EQ(hook[0].cutLength, units::roundUp(4000 + 150 - 12 - 12, 25));
    auto u =
        schedule::items(slabWith({"b1", model::Role::EndU, 0, 400, "H8", 200}), basis, {}, lap600, bends);
    EXPECT_EQ(u[0].shape, "21");
    EXPECT_EQ(u[0].dimensions.at('A'), 400);
    EXPECT_EQ(u[0].dimensions.at('B'), 150);
    auto across = schedule::items(slabWith({"b1", model::Role::BottomSecondary, 0, 3000, "H8", 300}), basis,
                                  {}, lap600, bends);
    EXPECT_EQ(across[0].number, 11);
    EXPECT_EQ(across[0].dimensions.at('A'), 6000 - 70);
}

TEST(Schedule, AmericanBendsAreWider) {
    // ACI 318-19 Table 25.3.1: inside diameters of 6 d up to No. 25, 8 d for No. 29 to 36, 10 d above.
    for (auto [d, inside] :
         {std::pair{12.0, 72.0}, {25.0, 150.0}, {25.4, 152.4}, {32.0, 256.0}, {35.8, 286.4}, {40.0, 400.0}})
        EXPECT_NEAR(2 * standards::makeStandard("aci318-si")->anchorage->bendRadius(d), inside, 1e-9) << d;
    // A hook of 12 d behind a bend of 3 d: the leg is 16 d from outside, and the bar is shorter by the bend
    // than its legs: a quarter circle of the middle line, radius 3.5 d, for two legs of 4 d.
    model::Project p = formats::demoProject();
    p.basis.standard = "aci318-si";
    auto& slab = p.slabs[0];
    auto hooked = *slab;
    hooked.bars = {{"b1", model::Role::TopMain, 0, 4000, "H12", 200, model::BarEnd::Hook}};
    slab = std::make_shared<model::OneWaySlab>(hooked);
    const auto design = design::run(p);
    ASSERT_EQ(design.slabs.at(0).error, "");
    const auto& item = design.slabs[0].items.at(0);
    EXPECT_EQ(item.dimensions.at('B'), 195) << "16 * 12 = 192, to 5 mm";
    const double exact = item.dimensions.at('A') + 195 - (8 - 3.5 * M_PI / 2) * 12;
    EXPECT_GE(item.cutLength, exact - 1.2) << "the shape's formula is good to 0.1 d";
    EXPECT_LT(item.cutLength, exact + 25 + 1.2);
}

TEST(Schedule, LongRunsAreLappedFromStock) {
    model::Basis basis;
    model::OneWaySlab s = slabWith({"b1", model::Role::BottomMain, 0, 30000, "H12", 200});
    s.spans = {{"p1", 30000}};
    auto items = schedule::items(s, basis, {}, lap600, bends);
    ASSERT_EQ(items.size(), 3u);
    double sum = 0;
    for (const auto& i : items) {
        EXPECT_LE(i.cutLength, basis.stockLength);
        sum += i.dimensions.at('A');
    }
    EXPECT_GE(sum, 30000 + 2 * 600 - 20);
    for (std::size_t i = 1; i < items.size(); ++i)
        EXPECT_GE(items[i - 1].to - items[i].from, 600 - 1e-6) << "laps are long enough";
    EXPECT_NEAR(items.back().to, 30000, 1e-9);
}

TEST(Schedule, EqualBarsShareAMarkAndMarksAreStable) {
    model::Project p = formats::demoProject();
    auto design = design::run(p);
    std::map<std::string, int> bySignature;
    for (const auto& item : design.slabs[0].items) {
        EXPECT_GT(item.mark, 0);
        auto [it, fresh] = bySignature.emplace(schedule::signature(item), item.mark);
        EXPECT_EQ(it->second, item.mark);
    }
    std::set<int> marks;
    for (const auto& [signature, mark] : bySignature) EXPECT_TRUE(marks.insert(mark).second);
    // Change one run: the others keep their marks.
    model::BarRun run = p.slabs[0]->bars[1];
    run.to -= 500;
    model::Project q = design::withMarks(model::setRun(p, p.slabs[0]->id, run));
    auto after = design::run(q);
    for (const auto& item : after.slabs[0].items)
        if (item.run != run.id) {
            EXPECT_EQ(item.mark, bySignature.at(schedule::signature(item)));
        }
    // And back again: the old mark returns.
    auto back = design::run(design::withMarks(model::setRun(q, p.slabs[0]->id, p.slabs[0]->bars[1])));
    EXPECT_EQ(back.slabs[0].items[1].mark, design.slabs[0].items[1].mark);
}

TEST(Schedule, BarsWithoutAMarkGetOneBeforeTheyAreListed) {
    model::Project p = formats::demoProject();
    p.marks.clear();
    auto design = design::run(p);
    double mass = 0;
    for (const auto& item : design.slabs[0].items) {
        EXPECT_GT(item.mark, 0);
        mass += item.number * item.massEach;
    }
    EXPECT_NEAR(design.slabs[0].schedule.mass, mass, 1e-9);
    EXPECT_NEAR(mass, design::run(formats::demoProject()).slabs[0].schedule.mass, 1e-9);
}

TEST(Schedule, TotalsAreTheSumOfRows) {
    auto design = design::run(formats::demoProject());
    const auto& s = design.slabs[0].schedule;
    double rows = 0, totals = 0;
    int number = 0, items = 0;
    for (const auto& r : s.rows) rows += r.mass(), number += r.number;
    for (const auto& t : s.totals) totals += t.mass;
    for (const auto& i : design.slabs[0].items) items += i.number;
    EXPECT_NEAR(rows, s.mass, 1e-9);
    EXPECT_NEAR(totals, s.mass, 1e-9);
    EXPECT_EQ(number, items);
    for (const auto& r : s.rows)
        EXPECT_NEAR(r.massEach,
                    r.cutLength / 1000 * catalogs::barCatalog("metric")->find(r.bar)->massPerMetre, 1e-9);
}

TEST(Schedule, CalloutsAreInTradeForm) {
    schedule::Item item;
    item.number = 29, item.bar = "H12", item.mark = 1, item.spacing = 200, item.layer = "B1";
    EXPECT_EQ(schedule::callout(item, units::System::Metric), "29 H12-01-200 B1");
    EXPECT_EQ(schedule::callout({item}, "nobody", units::System::Metric), "");
}
