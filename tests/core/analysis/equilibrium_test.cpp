// What acts inside an outline, against areas and forces by hand; on ground against a slab that settles
// evenly.
#include "analysis/equilibrium.h"

#include <gtest/gtest.h>

#include "design/floors.h"
#include "model/edits.h"
#include "support/regular_floor.h"

using namespace talvik;

namespace {

analysis::FloorAnalysis analysed(const model::Project& p) {
    return design::analyseFloor(p, 0);
}

}  // namespace

TEST(Equilibrium, SumsLoadsOfEveryKindAndTheSelfWeightOfZones) {
    auto p = model::editFloor(
        test::regularFloor(3, 3, 6000, 6000, 250), "f1", [](model::Floor& f, model::Project&) {
            f.actions.arrangement = model::Arrangement::All;
            f.zones.push_back({"z1", "Z", test::rectangle(2000, 2000, 3000, 3000), 400});
            f.openings.push_back({"o1", "O", test::rectangle(3000, 3000, 3500, 3500)});
            model::FloorLoad l;
            l.id = "l5", l.loadCase = "q2", l.kind = model::FloorLoad::Kind::Line, l.value = 8;
            l.a = {0, 2500}, l.b = {12000, 2500};
            f.actions.loads.push_back(l);
            l = {};
            l.id = "l6", l.loadCase = "q3", l.kind = model::FloorLoad::Kind::Point, l.value = 40e3;
            l.a = {2500, 3500}, l.width = 1000, l.depth = 1000;  // half of it inside
            f.actions.loads.push_back(l);
        });
    const auto a = analysed(p);
    ASSERT_TRUE(a.good());
    const double density = p.basis.concreteDensity;
    const analysis::Equilibrium e(*p.floors[0], a, density);
    // 1.5 to 3.5 m both ways: 4 m2, of it 1 m2 of zone and 0.25 m2 of opening.
    const auto inside = e.inside({{1500, 1500}, {3500, 1500}, {3500, 3500}, {1500, 3500}}, {2500, 2500}, {});
    ASSERT_EQ(inside.size(), 3u);
    const double slab = 4e6 - 1e6 - 0.25e6;
    EXPECT_NEAR(inside[0].up, -density * (slab * 250 + 1e6 * 400), 1e-6 * 1e5);
    EXPECT_NEAR(inside[1].up, -(1.5e-3 * 3.75e6 + 8 * 2000), 1e-3);
    EXPECT_NEAR(inside[2].up, -(3e-3 * 3.75e6 + 20e3), 1e-3);
    // The point's half lies 750 above the middle; the opening's corner takes its share off.
    EXPECT_NEAR(inside[2].my, -(20e3 * 750) + 3e-3 * 0.25e6 * 750, 1);
    EXPECT_NEAR(inside[2].mx, 3e-3 * 0.25e6 * 750, 1);
    // A column counts where it is named.
    const auto with =
        e.inside({{5500, 5500}, {6500, 5500}, {6500, 6500}, {5500, 6500}}, {6000, 6000}, {"c5"});
    EXPECT_GT(with[1].up, 0);
}

TEST(Equilibrium, OnGroundThePressureInsideIsTakenOff) {
    // A slab with a uniform load on even ground settles evenly: inside any outline nothing is left over.
    auto p = model::editFloor(test::regularFloor(2, 2, 6000, 6000, 400), "f1",
                              [](model::Floor& f, model::Project&) {
                                  f.columns.clear();
                                  f.grounds.push_back({"g1", "G", {}, 0.03});
                              });
    const auto a = analysed(p);
    ASSERT_TRUE(a.good()) << (a.trouble.empty() ? "" : a.trouble[0].message);
    const analysis::Equilibrium e(*p.floors[0], a, p.basis.concreteDensity);
    const geometry::Ring outline = geometry::round({2900, 3100}, 1700);
    const auto inside = e.inside(outline, {2900, 3100}, {});
    for (std::size_t k = 0; k < a.combinations.size(); ++k) {
        const auto left = e.combined(inside, k);
        EXPECT_NEAR(left.up, 0, 1e-3 * geometry::area(outline) * 10e-3) << a.combinations[k].name;
    }
}
