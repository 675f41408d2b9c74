#include "schedule/schedule.h"

#include <gtest/gtest.h>

#include <cmath>
#include <set>

#include "bars/run_edits.h"
#include "design/design.h"
#include "formats/project_file.h"
#include "model/edits.h"
#include "support/random_slab.h"

using namespace talvik;

namespace {

// Items of one run in a slab 200 thick and 6 m wide.
std::vector<schedule::Item> itemsOf(const model::BarRun& bars, const std::string& id = "en1992") {
    const model::Basis basis;
    const auto standard = standards::makeStandard(id);
    const line::LineBasis in{basis, *standard};
    bars::Run run{bars};
    bars::size(run, 200, in);
    return schedule::items({run}, {200, 6000}, in);
}

}  // namespace

TEST(Schedule, StraightHookedAndUBars) {
    auto straight = itemsOf({"b1", {}, model::Role::BottomMain, 0, 4000, "H12", 200});
    ASSERT_EQ(straight.size(), 1u);
    EXPECT_EQ(straight[0].shape, "00");
    EXPECT_EQ(straight[0].cutLength, 4000);
    EXPECT_EQ(straight[0].number, static_cast<int>(std::ceil((6000 - 70) / 200.0)) + 1);
    auto hook = itemsOf({"b1", {}, model::Role::TopMain, 0, 4000, "H12", 200, model::BarEnd::Hook});
    EXPECT_EQ(hook[0].shape, "11");
    EXPECT_EQ(hook[0].dimensions.at('B'), 150);  // 200 less the covers
    EXPECT_EQ(hook[0].cutLength, units::roundUp(4000 + 150 - 12 - 12, 25));
    auto u = itemsOf({"b1", {}, model::Role::EndU, 0, 400, "H8", 200});
    EXPECT_EQ(u[0].shape, "21");
    EXPECT_EQ(u[0].dimensions.at('A'), 400);
    EXPECT_EQ(u[0].dimensions.at('B'), 150);
    auto across = itemsOf({"b1", {}, model::Role::BottomSecondary, 0, 3000, "H8", 300});
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
    const auto items =
        itemsOf({"b1", {}, model::Role::TopMain, 0, 4000, "H12", 200, model::BarEnd::Hook}, "aci318-si");
    const auto& item = items.at(0);
    EXPECT_EQ(item.dimensions.at('B'), 195) << "16 * 12 = 192, to 5 mm";
    const double exact = item.dimensions.at('A') + 195 - (8 - 3.5 * M_PI / 2) * 12;
    EXPECT_GE(item.cutLength, exact - 1.2) << "the shape's formula is good to 0.1 d";
    EXPECT_LT(item.cutLength, exact + 25 + 1.2);
}

TEST(Schedule, LongRunsAreLappedFromStock) {
    const model::Basis basis;
    const auto items = itemsOf({"b1", {}, model::Role::BottomMain, 0, 30000, "H12", 200});
    // EN 1992-1-1 8.7.3 with all bars lapped at one place, good bond, C30/37, B500B: alpha_6 = 1.5, alpha_2
    // by the cover of 25 mm, l_b,rqd = 12/4 * 435/3.04 mm.
    const double lap = 1.5 * (1 - 0.15 * (25 - 12) / 12) * 3 * (500 / 1.15) /
                       (2.25 * 0.7 * 0.3 * std::pow(30, 2.0 / 3) / 1.5);
    ASSERT_EQ(items.size(), 3u);
    double sum = 0;
    for (const auto& i : items) {
        EXPECT_LE(i.cutLength, basis.stockLength);
        sum += i.dimensions.at('A');
    }
    EXPECT_GE(sum, 30000 + 2 * lap - 20);
    for (std::size_t i = 1; i < items.size(); ++i)
        EXPECT_GE(items[i - 1].to - items[i].from, lap - 1e-6) << "laps are long enough";
    EXPECT_NEAR(items.back().to, 30000, 1e-9);
}

TEST(Schedule, EqualBarsShareAMarkAndMarksGivenOutStay) {
    model::Project p = formats::demoProject();
    const auto design = design::run(p);
    const auto& items = design.slab(0).items;
    std::set<int> marks;
    for (const auto& [signature, mark] : design.marks) {
        EXPECT_GT(mark, 0);
        EXPECT_TRUE(marks.insert(mark).second);
    }
    for (const auto& item : items) EXPECT_TRUE(design.marks.contains(schedule::signature(item)));
    p.marks = design.marks;  // as they leave the office
    // Change one run: the others keep their marks, and what is new gets a number that nothing had.
    auto run = design.slab(0).bars[1];
    run.to -= 500;
    auto q = model::editBars(p, "s1", [&](auto& bars, auto& next) { bars::fixRun(next, bars, run); });
    const auto after = design::run(q);
    int fresh = 0;
    for (const auto& item : after.slab(0).items) {
        const auto known = design.marks.find(schedule::signature(item));
        const int mark = after.marks.at(schedule::signature(item));
        fresh += known == design.marks.end();
        if (known == design.marks.end())
            EXPECT_FALSE(marks.contains(mark));
        else
            EXPECT_EQ(mark, known->second);
    }
    EXPECT_EQ(fresh, 1);
    // And back again: the old mark returns.
    q.marks = after.marks;
    const auto back = design::run(model::editBars(q, "s1", [](auto& bars, auto&) { bars.clear(); }));
    EXPECT_EQ(back.marks.at(schedule::signature(items[1])), design.marks.at(schedule::signature(items[1])));
}

TEST(Schedule, TotalsAreTheSumOfRows) {
    auto design = design::run(formats::demoProject());
    const auto s = design.schedule();
    double rows = 0, totals = 0;
    int number = 0, items = 0;
    for (const auto& r : s.rows) rows += r.mass(), number += r.number;
    for (const auto& t : s.totals) totals += t.mass;
    for (const auto& i : design.slab(0).items) items += i.number;
    EXPECT_NEAR(rows, s.mass, 1e-9);
    EXPECT_NEAR(totals, s.mass, 1e-9);
    EXPECT_EQ(number, items);
    for (const auto& r : s.rows)
        EXPECT_NEAR(r.massEach,
                    r.cutLength / 1000 * catalogs::barCatalog("metric")->find(r.bar)->massPerMetre, 1e-9);
}

TEST(Schedule, CalloutsAreInTradeForm) {
    schedule::Item item;
    item.number = 29, item.bar = "H12", item.spacing = 200, item.layer = "B1";
    EXPECT_EQ(schedule::callout(item, {{schedule::signature(item), 1}}, units::System::Metric),
              "29 H12-01-200 B1");
    EXPECT_EQ(schedule::callout({item}, "nobody", {}, units::System::Metric), "");
}

// Brute force over random slabs: bars stand no further apart than they should over the whole breadth, pieces
// reach from end to end with laps in between, and the mass is that of their lengths.
TEST(Schedule, OfRandomSlabsIsWhatLiesInThem) {
    std::size_t lapped = 0, linked = 0;
    for (unsigned seed = 1; seed <= 40; ++seed) {
        auto p = test::randomProject(seed);
        p.basis.standard = standards::standardIds()[seed % standards::standardIds().size()];
        if (seed % 2 == 0) p.basis.stockLength = 6000;
        const auto design = design::run(p, {.trace = false});
        const auto& d = design.slab(0);
        const line::LineBasis in{p.basis, *design.standard};
        double mass = 0;
        for (const auto& run : d.bars) {
            std::vector<const schedule::Item*> pieces;
            for (const auto& item : d.items)
                if (item.run == run.id) pieces.push_back(&item);
            ASSERT_FALSE(pieces.empty()) << run.id;
            const auto* bar = catalogs::barCatalog(p.basis.barCatalog)->find(run.bar);
            const bool across = model::across(run.role);
            const double inside = d.slab->width - 2 * p.basis.coverSide;
            const double spread = run.role == model::Role::SideU || across ? run.to - run.from : inside,
                         length = across ? inside : run.to - run.from;
            for (const auto* item : pieces) {
                const int rows = run.role == model::Role::SideU ? item->number / 2 : item->number;
                EXPECT_GE((rows - 1) * run.spacing, spread - 1e-6) << seed << " " << run.id;
                EXPECT_LT((rows - 2) * run.spacing, spread) << "one bar more than needed";
                EXPECT_NEAR(item->massEach, item->cutLength / 1000 * bar->massPerMetre, 1e-9);
                EXPECT_LE(item->cutLength, p.basis.stockLength + 25);
                mass += item->number * item->massEach;
            }
            if (run.role == model::Role::EndU || run.role == model::Role::SideU) continue;
            double straight = 0;
            for (const auto* item : pieces) straight += item->dimensions.at(item->shape == "21" ? 'B' : 'A');
            const double lap = bars::lapLength(run, d.slab->thickness, in);
            EXPECT_GE(straight, length + double(pieces.size() - 1) * lap - 5.0 * double(pieces.size()))
                << run.id;
            for (std::size_t i = 1; i < pieces.size() && !across; ++i, ++lapped)
                EXPECT_GE(pieces[i - 1]->to - pieces[i]->from, lap - 1e-6) << seed << " " << run.id;
        }
        // Links: legs where they are called for, over the breadth that bars lie in.
        for (const auto& z : d.links)
            for (const auto& item : d.items) {
                if (item.layer != "S" || item.from != z.from) continue;
                const double area = (z.to - z.from) * (d.slab->width - 2 * p.basis.coverSide);
                EXPECT_GE(2 * item.number * z.along * z.across, area * (1 - 1e-9)) << seed;
                EXPECT_LE(2 * item.number * z.along * z.across, area * 2.5) << seed;
                mass += item.number * item.massEach, ++linked;
            }
        EXPECT_NEAR(design.schedule().mass, mass, 1e-6 * mass);
        EXPECT_NEAR(design.elements[0]->steel, mass, 1e-6 * mass);
    }
    EXPECT_GT(lapped, 20u);
    EXPECT_GT(linked, 3u);
}

// Marks of several elements are one series, whichever comes first.
TEST(Schedule, MarksAreOneSeriesOverAllElements) {
    auto p = model::addSlab(formats::demoProject(), "Second");
    const auto design = design::run(p, {.trace = false});
    std::set<int> marks;
    for (const auto& [what, mark] : design.marks) EXPECT_TRUE(marks.insert(mark).second) << what;
    EXPECT_EQ(marks.size(), std::size_t(*marks.rbegin())) << "from 1 on, without gaps";
    const auto one = design.scheduleOf(*design.elements[0]), two = design.scheduleOf(*design.elements[1]);
    EXPECT_NEAR(design.schedule().mass, one.mass + two.mass, 1e-9);
    EXPECT_EQ(two.rows.front().member, "Second");
    for (const auto& a : one.rows)
        for (const auto& b : two.rows)
            if (a.mark == b.mark) {
                EXPECT_EQ(std::tuple(a.bar, a.shape, a.dimensions), std::tuple(b.bar, b.shape, b.dimensions));
            }
}
