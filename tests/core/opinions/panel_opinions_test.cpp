// Second opinions of panels beside the analysis.
#include "opinions/panel_opinions.h"

#include <gtest/gtest.h>

#include <cmath>
#include <set>

#include "design/floors.h"
#include "formats/project_file.h"
#include "model/edits.h"
#include "standards/panel_coefficients.h"

using namespace talvik;

namespace {

model::Floor uniform(double a, double b, double t, double q) {
    model::Floor f;
    f.id = "f1", f.name = "Panel";
    f.slabs = {{"d1", "S1", {{0, 0}, {a, 0}, {a, b}, {0, b}}, t}};
    f.actions.cases = {{"q1", "Dead", model::LoadCase::Nature::Permanent, "B"}};
    model::FloorLoad l;
    l.id = "l1", l.loadCase = "q1", l.value = q;
    f.actions.loads = {l};
    return f;
}
std::vector<opinions::PanelOpinion> opinionsOn(const model::Floor& f, double factor = 1) {
    analysis::FloorBasis basis{30000, 0.2, 25e-6, {}};
    auto a = analysis::FloorAnalyser().analyse(f, "f", basis,
                                               {{"G", "", actions::LimitState::Ultimate, {factor}}});
    EXPECT_TRUE(a.good());
    return opinions::panelOpinions(f, a);
}

}  // namespace

TEST(PanelCoefficients, AgreeWithTheValuesTabledInTheStandard) {
    // BS 8110-1:1997 Table 3.14, as read there to three places: square and ly/lx = 1.5, 2.
    standards::PanelEdges interior{{true, true}, {true, true}}, corner{{true, false}, {true, false}}, none;
    struct Row {
        standards::PanelEdges edges;
        double ratio, span, support;
    };
    for (auto [e, ratio, span, support] :
         {Row{interior, 1.0, 0.024, -0.031}, Row{interior, 1.5, 0.040, -0.053},
          Row{interior, 2.0, 0.048, -0.063}, Row{corner, 1.0, 0.036, -0.047}, Row{corner, 2.0, 0.070, -0.093},
          Row{none, 1.0, 0.055, 0.0}, Row{none, 2.0, 0.111, 0.0}}) {
        auto c = standards::panelCoefficients(1, ratio, e);
        EXPECT_EQ(c.refusal, "");
        EXPECT_NEAR(c.spanShort, span, 0.0011) << ratio;
        EXPECT_NEAR(c.supportShort, support, 0.0016) << ratio;
    }
    EXPECT_NEAR(standards::panelCoefficients(1, 1, interior).spanLong, 0.024, 1e-9);
    EXPECT_NEAR(standards::panelCoefficients(1, 1, none).spanLong, 0.056, 1e-9);
    std::set<int> cases;
    for (int k = 0; k < 16; ++k)
        cases.insert(
            standards::panelCoefficients(1, 1.2, {{(k & 1) != 0, (k & 2) != 0}, {(k & 4) != 0, (k & 8) != 0}})
                .caseNumber);
    EXPECT_EQ(cases.size(), 9u);
    EXPECT_NE(standards::panelCoefficients(1, 2.1, none).refusal, "");
    EXPECT_NE(standards::panelCoefficients(2, 1, none).refusal, "");
}

TEST(PanelCoefficients, GrowWithAspectRatioAndFallWithContinuity) {
    for (int k = 0; k < 15; ++k) {
        standards::PanelEdges e{{(k & 1) != 0, (k & 2) != 0}, {(k & 4) != 0, (k & 8) != 0}};
        double last = 0;
        for (double ratio = 1; ratio <= 2; ratio += 0.1) {
            double v = standards::panelCoefficients(1, ratio, e).spanShort;
            EXPECT_GT(v, last);
            last = v;
        }
        standards::PanelEdges all{{true, true}, {true, true}};
        EXPECT_GT(standards::panelCoefficients(1, 1.3, e).spanShort,
                  standards::panelCoefficients(1, 1.3, all).spanShort);
    }
}

TEST(Panels, SimplySupportedPanelIsCaseNine) {
    auto f = uniform(6000, 7500, 200, 10e-3);
    model::Point c[4] = {{0, 0}, {6000, 0}, {6000, 7500}, {0, 7500}};
    for (int i = 0; i < 4; ++i) f.edges.push_back({"e" + std::to_string(i), "", c[i], c[(i + 1) % 4]});
    auto all = opinionsOn(f, 1.35);
    ASSERT_EQ(all.size(), 1u);
    EXPECT_NE(all[0].source.find("case 9"), std::string::npos) << all[0].source;
    ASSERT_EQ(all[0].rows.size(), 3u);
    // Elastic moments are below the coefficients, which stand for an ultimate mechanism with corners held
    // down.
    double lx2 = 1.35 * 10e-3 * 6000 * 6000;
    EXPECT_NEAR(all[0].rows[0].opinion, standards::panelCoefficients(6, 7.5, {}).spanShort * lx2, 1);
    EXPECT_GT(all[0].rows[0].engine, 0.6 * all[0].rows[0].opinion);
    EXPECT_LT(all[0].rows[0].engine, 1.1 * all[0].rows[0].opinion);
}

TEST(Panels, ClampedEdgesCountAsContinuous) {
    auto f = uniform(6000, 6000, 200, 10e-3);
    model::Point c[4] = {{0, 0}, {6000, 0}, {6000, 6000}, {0, 6000}};
    for (int i = 0; i < 4; ++i)
        f.edges.push_back(
            {"e" + std::to_string(i), "", c[i], c[(i + 1) % 4], model::LineSupport::Kind::Clamped});
    auto all = opinionsOn(f);
    ASSERT_EQ(all.size(), 1u);
    EXPECT_NE(all[0].source.find("case 1"), std::string::npos);
    ASSERT_EQ(all[0].rows.size(), 7u);
    for (const auto& r : all[0].rows) EXPECT_GT(r.engine / r.opinion, 0.7) << r.what;
    for (const auto& r : all[0].rows) EXPECT_LT(r.engine / r.opinion, 1.6) << r.what;
}

// Held along two sides, or twice as long as wide: statics of one span, n l2 / 8.
TEST(Panels, OneWayPanelsGoByOneWayCoefficients) {
    for (bool four : {false, true}) {
        auto f = uniform(4000, 12000, 200, 10e-3);
        f.edges = {{"e1", "", {0, 0}, {0, 12000}}, {"e2", "", {4000, 0}, {4000, 12000}}};
        if (four) {
            f.edges.push_back({"e3", "", {0, 0}, {4000, 0}});
            f.edges.push_back({"e4", "", {0, 12000}, {4000, 12000}});
        }
        const auto all = opinionsOn(f);
        ASSERT_EQ(all.size(), 1u) << four;
        EXPECT_NE(all[0].source.find("3.12"), std::string::npos) << all[0].source;
        ASSERT_EQ(all[0].rows.size(), 1u);
        EXPECT_NEAR(all[0].rows[0].opinion, 10e-3 * 4000 * 4000 / 8, 1);
        EXPECT_NEAR(all[0].rows[0].engine / all[0].rows[0].opinion, 1, four ? 0.12 : 0.04) << four;
    }
}

TEST(Panels, InteriorPanelOfAFlatSlabHasTheTotalStaticMoment) {
    // Three by three bays on slender columns: the middle panel is close to that of an endless floor.
    auto f = uniform(22000, 22000, 250, 10e-3);
    int n = 0;
    for (double x : {2000., 8000., 14000., 20000.})
        for (double y : {2000., 8000., 14000., 20000.}) {
            model::Column c{"c" + std::to_string(++n), "", x, y};
            c.width = c.depth = 300;
            f.columns.push_back(c);
        }
    auto all = opinionsOn(f);
    ASSERT_EQ(all.size(), 9u);
    const auto& middle = all[4];
    EXPECT_EQ(middle.name, "panel at (11.00, 11.00) m");
    for (const auto& r : middle.rows) EXPECT_NEAR(r.engine / r.opinion, 1, 0.06) << r.what;
}

TEST(FloorCombinations, AreThoseOfTheStandard) {
    auto p = formats::demoFloorProject();
    const auto& f = *p.floors[0];
    for (const auto& id : standards::standardIds()) {
        auto standard = standards::makeStandard(id);
        auto all = design::floorCombinations(f, *standard);
        std::set<std::string> names;
        int ultimate = 0, together = 0;
        for (const auto& c : all) {
            ASSERT_EQ(c.factors.size(), 4u);
            EXPECT_EQ(c.factors[0], c.factors[1]) << "permanent cases share their factor";
            names.insert(std::to_string(int(c.state)) + c.name);
            ultimate += c.state == actions::LimitState::Ultimate;
            together += c.factors[2] > 0 && c.factors[3] > 0;
        }
        EXPECT_EQ(names.size(), all.size()) << id;
        EXPECT_GE(ultimate, 3) << id;
        EXPECT_GE(together, 3) << id;
    }
}

TEST(Stiffness, ModulusAndFlangesByTheStandards) {
    auto en = standards::makeStandard("en1992"), si = standards::makeStandard("aci318-si"),
         us = standards::makeStandard("aci318-us");
    EXPECT_NEAR(en->stiffness->modulus(30), 32837, 1) << "22 (38/10)^0.3 GPa";
    EXPECT_NEAR(si->stiffness->modulus(28), 4700 * std::sqrt(28.0), 1);
    EXPECT_NEAR(us->stiffness->modulus(4000 * 0.00689476), 57000 * std::sqrt(4000.0) * 0.00689476, 2);
    // EN: b_i = 1500 (half of 3000), l0 = 7000: 0.2 * 1500 + 700 = 1000, at most 1400 and 1500.
    EXPECT_NEAR(en->stiffness->flange({3000, 7000, 9600, 200, false, true}), 1000, 1e-9);
    EXPECT_NEAR(en->stiffness->flange({800, 7000, 9600, 200, true, true}), 800, 1e-9)
        << "all there is at an edge";
    EXPECT_NEAR(en->stiffness->flange({20000, 5000, 9600, 200, false, true}), 1000, 1e-9) << "0.2 l0";
    // ACI: 8 h, s_w / 2, l_n / 8; one-sided 6 h, s_w / 2, l_n / 12.
    EXPECT_NEAR(si->stiffness->flange({3000, 7000, 9600, 200, false, true}), 1200, 1e-9);
    EXPECT_NEAR(si->stiffness->flange({3000, 7000, 9600, 200, false, false}), 800, 1e-9);
    EXPECT_NEAR(si->stiffness->flange({3000, 7000, 96000, 100, false, true}), 800, 1e-9);
}
