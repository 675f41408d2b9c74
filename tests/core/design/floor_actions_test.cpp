// Combinations, reduction by area, arrangements, take-off and first thickness of floors.
#include <gtest/gtest.h>

#include <cmath>
#include <map>
#include <set>

#include "design/designer.h"
#include "design/floors.h"
#include "design/panel_depth.h"
#include "formats/project_file.h"
#include "layout/placing.h"
#include "model/edits.h"
#include "support/regular_floor.h"

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
    std::set<long> factors;  // leading, and accompanying with psi_0 = 0.7
    for (const auto& c : design::floorCombinations(*p.floors[0], *en))
        if (c.clause == "EN 1990 (6.10)") factors.insert(std::lround(c.factors[2] * 1e9));
    EXPECT_EQ(factors, (std::set<long>{0, 630000000, 900000000}));
    // ASCE/SEI 7: 0.25 + 15/sqrt(A in ft2); 900 ft2 gives 0.75.
    auto aci = standards::makeStandard("aci318_si");
    if (!aci) aci = standards::makeStandard(standards::standardIds().back());
    EXPECT_NEAR(aci->actions->areaReduction(*catalogs::imposedUse("B"), 900 * 304.8 * 304.8).factor, 0.75,
                1e-3);
    EXPECT_EQ(aci->actions->areaReduction(*catalogs::imposedUse("B"), 20e6).factor, 1);
    // Over 100 psf by what really stands there, not by the use's own load.
    EXPECT_EQ(aci->actions->areaReduction(*catalogs::imposedUse("B"), 900 * 304.8 * 304.8, 6e-3).factor, 1);
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
    auto p = demo();
    auto plain =
        edited(p, [](model::Floor& f, model::Project&) { f.actions.arrangement = model::Arrangement::All; });
    EXPECT_EQ(p.floors[0]->actions.arrangement, model::Arrangement::InTurn) << "what nobody chose";
    EXPECT_GT(design::floorInput(p, 0).combinations.size(), design::floorInput(plain, 0).combinations.size());
    auto a = design::analyseFloor(p, 0), b = design::analyseFloor(plain, 0);
    ASSERT_TRUE(a.good()) << a.trouble[0].message;
    // Complementary arrangements add up to the whole case, by the loads that the analysis puts on.
    std::map<std::string, double> loads;
    for (const auto& c : a.cases) {
        EXPECT_LT(c.imbalance, 1e-7) << c.name;
        loads[c.name] = c.load;
    }
    for (const auto& [odd, even] :
         {std::pair("panels A–B", "panels B–C"), {"panels 1–2, 3–4", "panels 2–3, 4–5"},
          {"panels A–B/1–2, A–B/3–4, B–C/2–3, B–C/4–5", "panels A–B/2–3, A–B/4–5, B–C/1–2, B–C/3–4"}}) {
        const double one = loads[std::string("Hall, ") + odd], other = loads[std::string("Hall, ") + even];
        EXPECT_GT(one, 0) << odd;
        EXPECT_NEAR(one + other, loads["Hall"], 2e-3 * loads["Hall"]) << even;
    }
    for (const auto& c : b.cases) EXPECT_NEAR(loads[c.name], c.load, 1e-6 * c.load) << c.name;
    // More arrangements never lower an envelope.
    auto more = a.envelope(analysis::Field::Mx, actions::LimitState::Ultimate),
         less = b.envelope(analysis::Field::Mx, actions::LimitState::Ultimate);
    for (std::size_t i = 0; i < more.most.size(); ++i) {
        EXPECT_GE(more.most[i], less.most[i] - 1e-3f * std::abs(less.most[i]) - 1e-3f);
        EXPECT_LE(more.least[i], less.least[i] + 1e-3f * std::abs(less.least[i]) + 1e-3f);
    }
    // It is said either way.
    auto said = [](const analysis::FloorAnalysis& x, const char* part) {
        return std::any_of(x.assumptions.begin(), x.assumptions.end(),
                           [&](const std::string& s) { return s.find(part) != std::string::npos; });
    };
    EXPECT_TRUE(said(a, "each two neighbours"));
    EXPECT_TRUE(said(b, "by the user"));
}

// Five panels in a row: every pair of neighbours stands loaded with the others bare, by the loads of each
// panel.
TEST(FloorActions, EveryTwoNeighboursAreLoadedAlone) {
    for (int spans : {2, 3, 5, 9, 14}) {
        std::vector<layout::Panel> panels(std::size_t(spans), layout::Panel{});
        for (int i = 0; i < spans; ++i)
            panels[std::size_t(i)].column = i, panels[std::size_t(i)].chequer = i % 2;
        auto all = design::panelLoadings(panels);
        for (int i = 0; i + 1 < spans; ++i) {
            bool found = false;
            for (const auto& l : all) {
                auto at = [&](int k) { return k >= 0 && k < spans && l.loaded[std::size_t(k)]; };
                found |= at(i) && at(i + 1) && !at(i - 1) && !at(i + 2) && !at(i - 2) && !at(i + 3) &&
                         !at(i - 3) && !at(i + 4);
            }
            EXPECT_EQ(found, spans > 2) << spans << " " << i;  // of two spans the pair is all
        }
        for (int parity : {0, 1}) {
            bool found = false;
            for (const auto& l : all) {
                bool alternate = true;
                for (int k = 0; k < spans; ++k) alternate &= l.loaded[std::size_t(k)] == (k % 2 == parity);
                found |= alternate;
            }
            EXPECT_TRUE(found) << spans;
        }
        EXPECT_LE(all.size(), 7u);
    }
}

// A line load over three bays is cut at their edges: what stands on every second one is its length there.
TEST(FloorActions, LineLoadsAreCutAtPanels) {
    auto p = test::regularFloor(4, 2, 6000, 5000, 200, 0);
    p = edited(p, [](model::Floor& f, model::Project&) {
        f.actions.loads.erase(f.actions.loads.begin() + 1);
        model::FloorLoad l;
        l.id = "l9", l.loadCase = "q3", l.kind = model::FloorLoad::Kind::Line, l.value = 10;
        l.a = {1000, 2000}, l.b = {17000, 2000};
        f.actions.loads.push_back(l);
    });
    auto a = design::analyseFloor(p, 0);
    ASSERT_TRUE(a.good());
    std::map<std::string, double> loads;
    for (const auto& c : a.cases) loads[c.name] = c.load;
    EXPECT_NEAR(loads["Imposed"], 160e3, 1);
    EXPECT_NEAR(loads["Imposed, panels P1, P3"], 100e3, 20);
    EXPECT_NEAR(loads["Imposed, panels P2"], 60e3, 20);
    EXPECT_NEAR(loads["Imposed, panels P1, P2"], 110e3, 20);
}

// By hand: two imposed cases of use B and E, each leading once (EN 1990 6.10 with psi_0 0.7 and 1.0).
TEST(FloorActions, AccompanyingImposedLoadsHaveTheSmallerFactor) {
    auto p = test::regularFloor(2, 2, 6000, 5000);
    p = edited(p, [](model::Floor& f, model::Project&) {
        f.actions.cases.push_back({"q4", "Stock", model::LoadCase::Nature::Imposed, "E"});
    });
    auto standard = standards::makeStandard("en1992");
    std::set<std::vector<double>> ultimate;
    for (const auto& c : design::floorCombinations(*p.floors[0], *standard))
        if (c.state == actions::LimitState::Ultimate)
            ultimate.insert(std::vector<double>{std::round(100 * c.factors[0]),
                                                std::round(100 * c.factors[2]),
                                                std::round(100 * c.factors[3])});
    EXPECT_EQ(ultimate, (std::set<std::vector<double>>{{135, 150, 150},
                                                       {135, 105, 150},
                                                       {135, 150, 0},
                                                       {135, 0, 150},
                                                       {100, 150, 150},
                                                       {100, 105, 150},
                                                       {100, 150, 0},
                                                       {100, 0, 150}}));
}

// ACI 318-19 6.4.3.2 and 6.4.2 by hand: 0.2 m of 24 kN/m3 and 1.5 kN/m2 are 6.3 kN/m2.
TEST(FloorActions, TheStandardWaivesPanelsInTurnForLightImposedLoadsOnTwoWayFloorsAlone) {
    auto of = [](double imposed, bool walls) {
        auto p = test::regularFloor(4, 2, 6000, 5000, 200, 0);
        p.basis.standard = "aci318-si";
        p.basis.concreteDensity = 24e-6;
        return edited(p, [&](model::Floor& f, model::Project&) {
            f.actions.loads[1].value = imposed;
            if (!walls) return;
            f.columns.clear();
            for (int i = 0; i < 4; ++i)
                f.walls.push_back({"w" + std::to_string(i), "", {i * 6000.0, 0}, {i * 6000.0, 5000}});
        });
    };
    auto patterned = [](const model::Project& p) {
        double share = 0;
        for (const auto& c : design::floorInput(p, 0).combinations)
            for (std::size_t i = 3; i < c.factors.size(); ++i) share = std::max(share, c.factors[i]);
        return share;
    };
    EXPECT_EQ(patterned(of(0.74 * 6.3e-3, false)), 0) << "waived";
    EXPECT_NEAR(patterned(of(0.76 * 6.3e-3, false)), 1.2, 1e-9);
    EXPECT_NEAR(patterned(of(0.3 * 6.3e-3, true)), 1.6, 1e-9) << "one way: the whole load";
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
    // EN 1992-1-1 (7.16a) at 0.5 % for C35: 11 + 1.5 sqrt(35) + 3.2 sqrt(35) (sqrt(35)*1e-3/0.005 - 1)^1.5,
    // times K = 1.2; 7.2 m less half of a 450 and of a 550 column.
    double root = std::sqrt(35.0), rho0 = root * 1e-3, x = rho0 / 0.005 - 1;
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
        EXPECT_NEAR(standard->slenderness->panelThickness(in), 7000.0 / 30, 12.8) << id;
        auto interior = in;
        interior.system = standards::SpanSystem::Interior;
        EXPECT_LT(standard->slenderness->panelThickness(interior), standard->slenderness->panelThickness(in));
        interior.drop = true;
        EXPECT_NEAR(standard->slenderness->panelThickness(interior), 7000.0 / 36, 12.8);
        auto beams = in;
        beams.kind = standards::PanelInput::Kind::OnLines;
        EXPECT_NEAR(
            standard->slenderness->panelThickness(beams),
            7000 * (0.8 + (id == "aci318-us" ? 60e3 / 200e3 : in.section.fy / 1400)) / (36 + 9 * 7.0 / 6),
            12.8);
    }
}

namespace {

// Combinations of a regular floor with more cases, as sets of factors by the names of cases.
using Factors = std::map<std::string, double>;
std::vector<std::pair<actions::LimitState, Factors>> combinationsWith(
    const std::vector<model::LoadCase>& more, const standards::Standard& standard) {
    auto p = edited(test::regularFloor(2, 2, 6000, 6000), [&](model::Floor& f, model::Project&) {
        f.actions.cases.insert(f.actions.cases.end(), more.begin(), more.end());
    });
    std::vector<std::pair<actions::LimitState, Factors>> all;
    for (const auto& c : design::floorCombinations(*p.floors[0], standard)) {
        Factors f;
        for (std::size_t i = 0; i < c.factors.size(); ++i)
            if (c.factors[i] != 0)
                f[p.floors[0]->actions.cases[i].name] = std::round(1e6 * c.factors[i]) / 1e6;
        all.emplace_back(c.state, f);
    }
    return all;
}
model::LoadCase caseOf(const char* id, model::LoadCase::Nature nature) {
    model::LoadCase c;
    c.id = id, c.name = id, c.nature = nature;
    return c;
}

}  // namespace

// By hand from EN 1990 6.4.3, 6.5.3 and Table A1.1 (offices: 0.7, 0.5, 0.3; wind: 0.6, 0.2, 0).
TEST(FloorActions, WindAndAccidentsAsEN1990PutsThemTogether) {
    using enum actions::LimitState;
    using Nature = model::LoadCase::Nature;
    const auto en = standards::makeStandard("en1992");
    const auto all = combinationsWith(
        {caseOf("W1", Nature::Wind), caseOf("W2", Nature::Wind), caseOf("A", Nature::Accidental)}, *en);
    auto g = [](double f, Factors more) {
        more["Self"] = more["Dead"] = f;
        return more;
    };
    std::vector<std::pair<actions::LimitState, Factors>> expected{
        // Without wind: as ever.
        {Ultimate, g(1.35, {{"Imposed", 1.5}})},
        {Ultimate, g(1, {{"Imposed", 1.5}})},
        {Characteristic, g(1, {{"Imposed", 1}})},
        {Frequent, g(1, {{"Imposed", 0.5}})},
        {QuasiPermanent, g(1, {{"Imposed", 0.3}})},
        // An accident with nothing else, with imposed load first or second.
        {Ultimate, g(1, {{"A", 1}})},
        {Ultimate, g(1, {{"A", 1}, {"Imposed", 0.5}})}};
    for (const char* w : {"W1", "W2"})
        for (auto& e : std::vector<std::pair<actions::LimitState, Factors>>{
                 {Ultimate, g(1.35, {{w, 1.5}})},
                 {Ultimate, g(1.35, {{w, 1.5}, {"Imposed", 1.05}})},
                 {Ultimate, g(1.35, {{w, 0.9}, {"Imposed", 1.5}})},
                 {Ultimate, g(1, {{w, 1.5}})},
                 {Ultimate, g(1, {{"A", 1}, {w, 0.2}})},
                 {Ultimate, g(1, {{"A", 1}, {w, 0.2}, {"Imposed", 0.3}})},
                 {Characteristic, g(1, {{w, 1}})},
                 {Characteristic, g(1, {{w, 1}, {"Imposed", 0.7}})},
                 {Characteristic, g(1, {{w, 0.6}, {"Imposed", 1}})},
                 {Frequent, g(1, {{w, 0.2}, {"Imposed", 0.3}})}})
            expected.push_back(e);
    for (const auto& e : expected)
        EXPECT_EQ(std::count(all.begin(), all.end(), e), 1)
            << int(e.first) << " " << testing::PrintToString(e.second);
    EXPECT_EQ(all.size(), expected.size());
    // Without such cases nothing changes.
    EXPECT_EQ(combinationsWith({}, *en).size(), 5u);
}

// ACI 318-19 5.3.1 and ASCE/SEI 7-16 2.4.1 for D, L and W.
TEST(FloorActions, WindAsACI318PutsItTogether) {
    using enum actions::LimitState;
    const auto aci = standards::makeStandard("aci318-si");
    ASSERT_TRUE(aci);
    const auto all = combinationsWith({caseOf("W", model::LoadCase::Nature::Wind)}, *aci);
    auto g = [](double f, Factors more) {
        more["Self"] = more["Dead"] = f;
        return more;
    };
    std::size_t windy = 0;
    for (const auto& c : all) windy += c.second.contains("W");
    const std::vector<std::pair<actions::LimitState, Factors>> expected{
        {Ultimate, g(1.2, {{"W", 1}})},
        {Ultimate, g(1.2, {{"W", 1}, {"Imposed", 1}})},
        {Ultimate, g(0.9, {{"W", 1}})},
        {Characteristic, g(1, {{"W", 0.6}})},
        {Characteristic, g(1, {{"W", 0.45}, {"Imposed", 0.75}})},
        {Characteristic, g(1, {{"W", 0.45}})}};
    for (const auto& e : expected)
        EXPECT_EQ(std::count(all.begin(), all.end(), e), 1)
            << int(e.first) << " " << testing::PrintToString(e.second);
    EXPECT_EQ(windy, expected.size());
}

// Suction that is more than the slab weighs bends it upwards and lifts its supports: statics of a slab over
// two walls, and the check of equilibrium.
TEST(FloorActions, SuctionLiftsWhatIsLight) {
    auto p = edited(test::regularFloor(2, 2, 6000, 6000), [&](model::Floor& f, model::Project&) {
        f.columns.clear();
        f.slabs[0].outline = test::rectangle(0, 0, 6000, 8000);
        f.edges.push_back({"s1", "", {0, 0}, {0, 8000}});
        f.edges.push_back({"s2", "", {6000, 0}, {6000, 8000}});
        f.actions.cases.push_back(caseOf("W", model::LoadCase::Nature::Wind));
        model::FloorLoad l;
        l.id = "lw", l.loadCase = "W", l.value = -9e-3;
        f.actions.loads.push_back(l);
    });
    const auto a = design::analyseFloor(p, 0);
    ASSERT_TRUE(a.good()) << a.trouble[0].message;
    double least = 0;
    for (std::size_t k = 0; k < a.combinations.size(); ++k)
        for (const auto& f : a.forces(k)) least = std::min(least, f.up);
    // 1.0 x (25 x 0.25 + 1.5) - 1.5 x 9 kN/m2 on half of the slab.
    EXPECT_NEAR(least, -(13.5 - 7.75) * 1e-3 * 3000 * 8000, 2e3);
    const auto run = design::designNow(p, "f1");
    bool lifts = false;
    for (const auto* c : run->all())
        if (c->topic == checks::Topic::Uplift) lifts |= c->outcome == checks::Outcome::Over;
    EXPECT_TRUE(lifts);
}
