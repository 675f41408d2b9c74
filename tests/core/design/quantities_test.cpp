// Quantities against figures worked out by hand.
#include "design/quantities.h"

#include <gtest/gtest.h>

#include "design/bases.h"
#include "design/measure.h"
#include "formats/project_file.h"
#include "layout/placing.h"
#include "model/edits.h"
#include "report/quantities_page.h"
#include "support/random_floor.h"

using namespace talvik;

namespace {

model::Outline box(double x0, double y0, double x1, double y1) {
    return {{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}};
}
design::ElementAnswer measured(const model::Floor& f) {
    design::ElementAnswer a;
    design::measure(f, a);
    return a;
}

}  // namespace

// Two slabs of 250 and 300 beside each other, an opening across their seam, a drop of 450 in the first one
// and a column below.
TEST(Quantities, ConcreteAndFormworkByHand) {
    model::Floor f;
    f.slabs.push_back({"s1", "", box(0, 0, 6000, 5000), 250});
    f.slabs.push_back({"s2", "", box(6000, 0, 10000, 5000), 300});
    f.openings.push_back({"o1", "", box(5500, 2000, 6500, 3000)});
    f.zones.push_back({"z1", "", box(1000, 1000, 3000, 3000), 450});
    model::Column c;
    c.id = "c1", c.x = 2000, c.y = 2000, c.width = 400, c.depth = 500;
    f.columns.push_back(c);
    f.members = 3;
    const auto a = measured(f);
    EXPECT_EQ(a.members, 3);
    EXPECT_NEAR(a.area, 50 - 1, 1e-9);
    EXPECT_NEAR(a.concrete, (30 - 0.5 - 4) * 0.25 + (20 - 0.5) * 0.30 + 4 * 0.45, 1e-9);
    const double soffit = 50 - 1 - 0.4 * 0.5;
    const double edges = (6 + 6 + 5) * 0.25 + (4 + 4 + 5) * 0.30;
    const double opening = (0.5 + 0.5 + 1) * 0.25 + (0.5 + 0.5 + 1) * 0.30;
    const double drop = 8 * 0.20;
    EXPECT_NEAR(a.formwork, soffit + edges + opening + drop, 1e-6);
    EXPECT_EQ(a.blinding, 0);
}

TEST(Quantities, OnGroundThereIsBlindingAndNoSoffit) {
    model::Floor f;
    f.slabs.push_back({"s1", "", box(0, 0, 6000, 5000), 400});
    f.grounds.push_back({"g1", "", {}, 0.02});
    auto a = measured(f);
    EXPECT_NEAR(a.formwork, 22 * 0.4, 1e-9);
    EXPECT_NEAR(a.blinding, 30 * 0.05, 1e-9);
    f.grounds[0].outline = box(0, 0, 2000, 5000);
    a = measured(f);
    EXPECT_NEAR(a.formwork, 20 + 22 * 0.4, 1e-9);
    EXPECT_NEAR(a.blinding, 10 * 0.05, 1e-9);
}

// Of any floor: concrete by counting points on a fine grid, by the rule that of what lies over each other the
// last one holds.
TEST(Quantities, ConcreteOfRandomFloorsByCountingPoints) {
    for (unsigned seed = 1; seed <= 12; ++seed) {
        const auto f = test::randomFloor(seed);
        const auto a = measured(f);
        double x0 = 1e300, y0 = 1e300, x1 = -1e300, y1 = -1e300;
        for (const auto& s : f.slabs)
            for (auto p : model::ring(s.outline))
                x0 = std::min(x0, p.x), y0 = std::min(y0, p.y), x1 = std::max(x1, p.x),
                y1 = std::max(y1, p.y);
        constexpr int n = 400;
        double volume = 0, area = 0;
        const double piece = (x1 - x0) * (y1 - y0) / n / n;
        for (int i = 0; i < n; ++i)
            for (int k = 0; k < n; ++k) {
                const geometry::Point p{x0 + (i + 0.5) * (x1 - x0) / n, y0 + (k + 0.5) * (y1 - y0) / n};
                double h = 0;
                for (const auto& s : f.slabs)
                    if (geometry::contains(model::ring(s.outline), p)) h = s.thickness;
                for (const auto& z : f.zones)
                    if (h > 0 && geometry::contains(model::ring(z.outline), p)) h = z.thickness;
                for (const auto& o : f.openings)
                    if (geometry::contains(model::ring(o.outline), p)) h = 0;
                volume += h * piece / 1e9, area += (h > 0) * piece / 1e6;
            }
        EXPECT_NEAR(a.concrete, volume, 0.01 * volume) << seed;
        EXPECT_NEAR(a.area, area, 0.01 * area) << seed;
    }
}

TEST(Quantities, SteelIsThatOfTheScheduleAndMembersMultiply) {
    auto p = formats::demoProject();
    const auto one = design::sum(design::quantities(p, design::run(p)));
    p = model::editSlab(p, p.slabs[0]->id, [](model::OneWaySlab& s, model::Project&) { s.members = 4; });
    const auto d = design::run(p);
    const auto all = design::quantities(p, d);
    ASSERT_EQ(all.size(), p.slabs.size());
    double mass = 0;
    for (const auto& [size, m] : all[0].bySize) mass += m;
    EXPECT_NEAR(mass, all[0].steel, 1e-9);
    EXPECT_NEAR(all[0].steel, 4 * d.elements[0]->steel, 1e-6);
    EXPECT_EQ(all[0].members, 4);
    const auto& r = p.basis.rates;
    double bars = 0;
    for (const auto& row : d.scheduleOf(*d.elements[0]).rows) bars += row.total();
    EXPECT_GT(bars, 0);
    EXPECT_NEAR(all[0].cost,
                all[0].concrete * r.concrete.price + all[0].steel * r.steel.price +
                    all[0].formwork * r.formwork.price + bars * r.piece.price,
                1e-6);
    EXPECT_GT(design::sum(all).steel, one.steel);
    for (const auto& row : d.scheduleOf(*d.elements[0]).rows) EXPECT_EQ(row.total(), 4 * row.number);
    // Concrete 1.2 by hand of one of them: width, length and thickness.
    const auto& s = *p.slabs[0];
    EXPECT_NEAR(all[0].concrete / 4,
                s.width * s.thickness * (model::concreteEnd(s) - model::concreteStart(s)) / 1e9, 1e-9);
}

// Pads and caps: what the register says of each base adds up to the quantities, and both are as by hand.
TEST(Quantities, BasesCostTheSameInRegisterAndTable) {
    for (auto kind : {model::BaseSet::Kind::Pads, model::BaseSet::Kind::Caps}) {
        auto p = model::emptyProject();
        auto set = std::make_shared<model::BaseSet>();
        set->id = model::newId(p, 'f'), set->name = "Bases", set->kind = kind;
        set->cases = {{"q1", "G", {actions::Nature::Permanent, ""}}};
        set->ground.depth = 1200, set->ground.blinding = 75, set->pile.length = 9000;
        for (int k = 0; k < 3; ++k) {
            const auto n = std::to_string(k);
            set->columns.push_back({"c" + n, "A" + n, 8000.0 * k, 0, 400, 400, {{"q1", 600e3 + 400e3 * k}}});
            model::Base base;
            base.id = "b" + n, base.columns = {"c" + n};
            set->bases.push_back(base);
        }
        p.bases.push_back(set);
        const auto d = design::run(p);
        const auto* answer = dynamic_cast<const design::BasesAnswer*>(d.elements.back().get());
        ASSERT_NE(answer, nullptr);
        const auto& r = p.basis.rates;
        double cost = 0;
        for (const auto& b : answer->bases) {
            cost += b->cost;
            const auto& s = b->size();
            ASSERT_TRUE(s.outline.empty());
            double steel = 0, bars = 0;
            for (const auto& i : b->items) steel += i.number * i.massEach, bars += i.number;
            const double dug = (s.B + 200) * (s.L + 200) / 1e6;
            EXPECT_NEAR(b->cost,
                        s.B * s.L * s.h / 1e9 * r.concrete.price + steel * r.steel.price +
                            2 * (s.B + s.L) * s.h / 1e6 * r.formwork.price + dug * 0.075 * r.blinding.price +
                            dug * (std::max(1.2, s.h / 1000) + 0.075) * r.excavation.price +
                            9.0 * double(b->piles().size()) * r.pile.price + bars * r.piece.price,
                        1e-6 * b->cost);
        }
        const auto all = design::quantities(p, d);
        EXPECT_NEAR(all.back().cost, cost, 1e-6 * cost);
        const auto html = report::html(report::quantitiesPage(p, d), report::Target::Page);
        EXPECT_NE(html.find("excavation"), std::string::npos);
        EXPECT_EQ(html.find("piles 90") != std::string::npos, kind == model::BaseSet::Kind::Caps);
    }
}

TEST(QuantitiesPage, SaysAmountsAndWhatIsNotInThem) {
    const auto p = formats::demoFloorProject();
    const auto d = design::run(p, {.trace = false});
    const auto html = report::html(report::quantitiesPage(p, d), report::Target::Page);
    for (const char* wanted :
         {"kg/m³", "kg/m²", "Formwork m²", "CO₂e", "walls and columns are not included", "H12"})
        EXPECT_NE(html.find(wanted), std::string::npos) << wanted;
    const auto cutting = report::html(report::cuttingPage(p, d), report::Target::Page);
    EXPECT_NE(cutting.find("Minimum waste"), std::string::npos);
}
