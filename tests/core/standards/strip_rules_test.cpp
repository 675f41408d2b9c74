// What strips take from the standards: widths, peaks over columns, redistribution; cracks by table.
#include <gtest/gtest.h>

#include <cmath>

#include "standards/rules.h"

using namespace talvik;
using namespace talvik::standards;

TEST(StripRules, WidthsPeaksAndRedistribution) {
    auto en = makeStandard("en1992"), aci = makeStandard("aci318-si"), us = makeStandard("aci318-us");
    for (const auto& s : {en, aci, us}) {
        EXPECT_DOUBLE_EQ(s->strips->columnStripHalf(6000, 5000), 1250);
        EXPECT_DOUBLE_EQ(s->strips->columnStripHalf(4000, 5000), 1000);
        EXPECT_FALSE(s->strips->columnStripClause().empty());
    }
    auto p = en->strips->peak(6000, 400, 400, 250, 210);
    EXPECT_DOUBLE_EQ(p.width, 1500);  // 0.125 of the panel on either side
    EXPECT_DOUBLE_EQ(p.steelShare, 0.5);
    auto q = aci->strips->peak(6000, 400, 600, 250, 210);
    EXPECT_NEAR(q.width, 600 + 750, 1e-9);
    EXPECT_NEAR(q.momentShare, 1 / (1 + 2.0 / 3 * std::sqrt(610.0 / 810)), 1e-12);
    auto r = us->strips->peak(6000, 400, 600, 250, 210);
    EXPECT_NEAR(r.width, q.width, 1e-9) << "the same whatever the units";
    // Lightly reinforced: what the standards allow at most; heavily: less or nothing.
    Section light{1000, 250, 210, 40, 30, 500};
    EXPECT_EQ(en->strips->redistribution(light, 500, 0.3).outcome, checks::Outcome::Within);
    EXPECT_EQ(aci->strips->redistribution(light, 500, 0.2).outcome, checks::Outcome::Within);
    EXPECT_EQ(aci->strips->redistribution(light, 500, 0.21).outcome, checks::Outcome::Over);
    EXPECT_EQ(en->strips->redistribution(light, 4500, 0.2).outcome, checks::Outcome::Over);
    EXPECT_EQ(aci->strips->redistribution(light, 5000, 0.05).outcome, checks::Outcome::Over);
    // More steel never allows more.
    double before = 1;
    for (double as = 200; as < 5000; as += 200) {
        double now = en->strips->redistribution(light, as, 0.1).limit;
        EXPECT_LE(now, before + 1e-12);
        before = now;
    }
}

TEST(StripRules, CracksByTableTakeSizeOrSpacing) {
    auto table = makeStandard("en1992", {{"crack_by_table", 1}});
    CrackInput in{{1000, 250, 214, 36, 30, 500}, 40e6, 754, 12, 200, 30, 2.0, 0.3};
    trace::Steps steps;
    auto f = table->service->crack(in, &steps);
    EXPECT_EQ(f.outcome, checks::Outcome::Over);  // about 270 MPa: 165 mm or less of spacing, or fine bars
    double stress = steps[0].result;
    EXPECT_GT(stress, 240);
    EXPECT_LT(stress, 300);
    in.spacing = 100;
    EXPECT_EQ(table->service->crack(in).outcome, checks::Outcome::Within);
    in.spacing = 280, in.diameter = 6;
    EXPECT_EQ(table->service->crack(in).outcome, checks::Outcome::Within)
        << "small bars may lie farther apart";
    in.limit = 0.15;
    EXPECT_EQ(table->service->crack(in).outcome, checks::Outcome::NotChecked);
    // At the tabulated stresses the tabulated spacing.
    in = {{1000, 250, 214, 36, 30, 500}, 0, 754, 32, 200, 30, 2.0, 0.3};
    for (auto [target, spacing] : {std::pair(200.0, 250.0), {240.0, 200.0}, {280.0, 150.0}}) {
        double low = 1e5, high = 2e8;
        for (int i = 0; i < 80; ++i) {
            in.M = (low + high) / 2;
            steps.clear();
            table->service->crack(in, &steps);
            (steps[0].result < target ? low : high) = in.M;
        }
        EXPECT_NEAR(steps[1].result, spacing, 1e-3);
    }
}

TEST(StripRules, SlabsOnColumnsHaveTheirOwnSpanToDepth) {
    for (const char* id : {"en1992", "aci318-si"}) {
        auto s = makeStandard(id);
        SlendernessInput in{{1000, 250, 214, 36, 30, 500}, SpanSystem::Interior, 6000, 600, 0, 700};
        in.clear = 5600;
        auto lines = s->service->slenderness(in);
        in.onColumns = true;
        auto columns = s->service->slenderness(in);
        EXPECT_NE(lines.limit, columns.limit) << id;
        if (columns.prefix == "l/d") {
            EXPECT_NEAR(columns.limit / lines.limit, 1.2 / 1.5, 1e-9);
        }
    }
}
