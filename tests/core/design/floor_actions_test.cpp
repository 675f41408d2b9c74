// Combinations, reduction by area, arrangements, take-off and first thickness of floors.
#include <gtest/gtest.h>

#include <cmath>

#include "design/floors.h"
#include "design/panel_depth.h"
#include "formats/project_file.h"
#include "layout/placing.h"
#include "model/edits.h"

using namespace talvik;

namespace {

model::Project demo() {
    return formats::demoFloorProject();
}
model::Project edited(model::Project p, const std::function<void(model::Floor&, model::Project&)>& change) {
    return model::editFloor(p, p.floors[0]->id, change);
}

}  // namespace

TEST(FloorActions, ImposedLoadsAreReducedByArea) {
    auto p =
        edited(demo(), [](model::Floor& f, model::Project&) { f.actions.cases[2].reductionArea = 100e6; });
    auto en = standards::makeStandard("en1992");
    // EN 1991-1-1 (6.1): 5/7 * 0.7 + 10/100 = 0.6, which is also the least for use D.
    auto r = en->actions->areaReduction(*catalogs::imposedUse("D"), 100e6);
    EXPECT_NEAR(r.factor, 0.6, 1e-12);
    EXPECT_NEAR(en->actions->areaReduction(*catalogs::imposedUse("B"), 50e6).factor, 0.7, 1e-12);
    EXPECT_EQ(en->actions->areaReduction(*catalogs::imposedUse("B"), 5e6).factor, 1);
    EXPECT_EQ(en->actions->areaReduction(*catalogs::imposedUse("H"), 500e6).factor, 1);
    for (const auto& c : design::floorCombinations(*p.floors[0], *en))
        if (c.clause == "EN 1990 (6.10)" && c.factors[2] != 0) {
            EXPECT_NEAR(c.factors[2], 1.5 * 0.6, 1e-12);
        }
    // ASCE/SEI 7: 0.25 + 15/sqrt(A in ft2); 900 ft2 gives 0.75.
    auto aci = standards::makeStandard("aci318_si");
    if (!aci) aci = standards::makeStandard(standards::standardIds().back());
    EXPECT_NEAR(aci->actions->areaReduction(*catalogs::imposedUse("B"), 900 * 304.8 * 304.8).factor, 0.75,
                1e-3);
    EXPECT_EQ(aci->actions->areaReduction(*catalogs::imposedUse("B"), 20e6).factor, 1);
    EXPECT_EQ(aci->actions->areaReduction(*catalogs::imposedUse("C3"), 200e6).factor, 1);
}

TEST(FloorActions, OnesOwnTableReplacesTheStandards) {
    auto p = demo();
    auto standard = standards::makeStandard(p.basis.standard);
    auto generated = design::floorCombinations(*p.floors[0], *standard);
    p = edited(p, [&](model::Floor& f, model::Project& project) {
        f.actions.combinations = design::combinationRows(project, f, *standard);
    });
    auto own = design::floorCombinations(*p.floors[0], *standard);
    ASSERT_EQ(own.size(), generated.size());
    for (std::size_t i = 0; i < own.size(); ++i) {
        EXPECT_EQ(own[i].factors, generated[i].factors);
        EXPECT_EQ(own[i].name, generated[i].name);
    }
    p = edited(p, [](model::Floor& f, model::Project&) {
        f.actions.combinations.resize(1);
        f.actions.combinations[0].factors = {{f.actions.cases[2].id, 2}};
    });
    own = design::floorCombinations(*p.floors[0], *standard);
    ASSERT_EQ(own.size(), 1u);
    EXPECT_EQ(own[0].factors, (std::vector<double>{0, 0, 2, 0}));
    // It survives the file, and a case that is removed takes its factors along.
    auto read = formats::readProject(formats::projectText(p));
    ASSERT_TRUE(read.trouble.empty()) << formats::sentences(read.trouble);
    EXPECT_EQ(*read.project.floors[0], *p.floors[0]);
    auto without =
        edited(p, [](model::Floor& f, model::Project&) { layout::remove(f, {f.actions.cases[2].id}); });
    EXPECT_TRUE(without.floors[0]->actions.combinations[0].factors.empty());
    EXPECT_TRUE(model::validate(without).empty());
}

TEST(FloorActions, ArrangementsShareTheImposedLoadBetweenThem) {
    for (auto kind : {model::Arrangement::Panels, model::Arrangement::Strips}) {
        auto p = edited(demo(), [&](model::Floor& f, model::Project&) { f.actions.arrangement = kind; });
        auto in = design::floorInput(p, 0);
        auto plain = design::floorInput(demo(), 0);
        EXPECT_GT(in.combinations.size(), plain.combinations.size());
        auto a = design::analyseFloor(p, 0), b = design::analyseFloor(demo(), 0);
        ASSERT_TRUE(a.good()) << a.trouble[0].message;
        // Complementary arrangements add up to the whole case, by the loads that the analysis puts on.
        double hall = 0, parts = 0, plainHall = 0;
        for (std::size_t i = 0; i < a.cases.size(); ++i) {
            EXPECT_LT(a.cases[i].imbalance, 1e-7) << a.cases[i].name;
            if (a.cases[i].name == "Hall") hall = a.cases[i].load;
            if (design::isArrangement(a.cases[i].id) && a.cases[i].name.starts_with("Hall"))
                parts += a.cases[i].load;
        }
        for (const auto& c : b.cases)
            if (c.name == "Hall") plainHall = c.load;
        EXPECT_NEAR(hall, plainHall, 1e-6 * hall);
        EXPECT_NEAR(parts, hall * (kind == model::Arrangement::Panels ? 1 : 2), 2e-3 * hall);
        // More arrangements never lower an envelope.
        auto more = a.envelope(analysis::Field::Mx, actions::LimitState::Ultimate),
             less = b.envelope(analysis::Field::Mx, actions::LimitState::Ultimate);
        float most = *std::max_element(more.most.begin(), more.most.end()),
              before = *std::max_element(less.most.begin(), less.most.end());
        EXPECT_GE(most, before * 0.999f);
    }
}

TEST(FloorActions, TakeOffAddsUpToTheLoads) {
    auto p = demo();
    auto a = design::analyseFloor(p, 0);
    auto t = design::takeOff(*p.floors[0], a);
    ASSERT_EQ(t.cases.size(), 4u);
    ASSERT_EQ(t.rows.size(), 15u);
    for (std::size_t c = 0; c < 4; ++c) {
        double sum = 0;
        for (const auto& r : t.rows) sum += r.perCase[c];
        EXPECT_NEAR(sum, t.load[c], 1e-6 * t.load[c]);
    }
    for (const auto& r : t.rows) EXPECT_GT(r.ultimate, r.service);
    // Finishes by hand: 0.2 + 0.055*20 + 0.015*20 = 1.6 kN/m2 on the slab less its opening, and 16 m of 7.5
    // kN/m.
    double area = 29.2 * 13 - 3.6 * 3.6 / 2 - 2.4 * 3.2;
    EXPECT_NEAR(t.load[1] / 1000, 1.6 * area + 16 * 7.5, 0.05);
}

TEST(PanelDepth, FollowsTheStandardsTables) {
    auto p = demo();
    const auto& f = *p.floors[0];
    auto panels = layout::findPanels(f);
    auto en = standards::makeStandard("en1992");
    auto depths = design::panelDepths(p, f, panels, *en);
    ASSERT_EQ(depths.size(), panels.size());
    // EN 1992-1-1 (7.16a) at 0.5 % for C30: 11 + 1.5 sqrt(30) + 3.2 sqrt(30) (sqrt(30)*1e-3/0.005 - 1)^1.5,
    // times K = 1.2; 7.2 m less half of a 350 and of a 400 column.
    double root = std::sqrt(30.0), rho0 = root * 1e-3, x = rho0 / 0.005 - 1;
    double ld = 1.2 * (11 + 1.5 * root * rho0 / 0.005 + 3.2 * root * std::pow(x, 1.5));
    double h = panels[0].spans[0].clear / ld + 25 + 8;
    EXPECT_EQ(depths[0].thickness, units::roundUp(h, 10));
    EXPECT_FALSE(depths[0].steps.empty());
    EXPECT_LT(design::governing(depths), panels.size());
    // ACI 318-19 Table 8.3.1.1, edge panel without edge beam, 60 ksi: l_n/30.
    standards::PanelInput in;
    in.system = standards::SpanSystem::End, in.longer = 7000, in.shorter = 6000;
    in.section.fy = 60 * 6.894757, in.section.fc = 30;
    for (const auto& id : standards::standardIds()) {
        auto standard = standards::makeStandard(id);
        if (standard->family.find("aci") == std::string::npos) continue;
        EXPECT_NEAR(standard->service->panelThickness(in), 7000.0 / 30, 12.8) << id;
        auto interior = in;
        interior.system = standards::SpanSystem::Interior;
        EXPECT_LT(standard->service->panelThickness(interior), standard->service->panelThickness(in));
        interior.drop = true;
        EXPECT_NEAR(standard->service->panelThickness(interior), 7000.0 / 36, 12.8);
        auto beams = in;
        beams.kind = standards::PanelInput::Kind::OnLines;
        EXPECT_NEAR(standard->service->panelThickness(beams),
                    7000 * (0.8 + in.section.fy / 1400) / (36 + 9 * 7.0 / 6), 12.8);
    }
}
