// Two slabs worked by hand on paper, number by number, against the whole pipeline.
#include <gtest/gtest.h>

#include <cmath>

#include "design/design.h"
#include "model/edits.h"

using namespace talvik;

namespace {

const checks::Check& find(const design::Design& d, const std::string& ending) {
    for (const auto& c : d.slab(0).checks)
        if (c.key.ends_with(ending)) return c;
    throw std::runtime_error(ending);
}

// One span of 5 m on walls 300 wide that let it turn; 200 thick, C25/30, B500B, cover 25; H12-150 bottom.
model::Project simpleSpan() {
    model::Project p = model::newProject();
    p.basis.concrete = "C25/30", p.basis.concreteStrength = 25;
    p = model::setSpans(p, "s1", {5000}, false, false);
    return model::editSlab(p, "s1", [](model::OneWaySlab& s, model::Project&) {
        s.thickness = 200, s.width = 6000;
        s.otherDead = 1.5e-3, s.imposedUse = "B", s.imposed = 3e-3;
        for (auto& u : s.supports) u.width = 300, u.kind = model::Support::Kind::Wall, u.monolithic = false;
        s.bars = {{"b1", {}, model::Role::BottomMain, -115, 5115, "H12", 150},
                  {"b2", {}, model::Role::BottomSecondary, -115, 5115, "H8", 250}};
    });
}

}  // namespace

TEST(WorkedExample, SimpleSpanToEn1992) {
    model::Project p = simpleSpan();
    auto d = design::run(p);
    const std::string span = p.slabs[0]->spans[0].id;
    // Loads: 0.2*25 = 5.0; + 1.5 = 6.5 kN/m2; w = 1.35*6.5 + 1.5*3 = 13.275 kN/m2; M = w*25/8 = 41.48 kNm/m.
    const double w = 13.275, M = w * 25 / 8;
    const auto& flexure = find(d, span + "/flexure-bottom");
    EXPECT_NEAR(flexure.demand / 1000, M, 1e-6);
    // As = 753.98 mm2/m, d = 169; f_cd = 16.667, f_yd = 434.78; depth of block 753.98*434.78/16667 = 19.67;
    // M_Rd.
    const double As = M_PI * 36 / 0.15, dd = 169, block = As * 434.7826087 / 16666.667;
    EXPECT_NEAR(flexure.limit / 1000, As * 434.7826087 * (dd - block / 2) / 1e6, 1e-4);
    EXPECT_EQ(flexure.combination, "1.35 G + 1.5 Q on all spans");
    // Shear an effective depth from the face; d by the largest main bar allowed (H20): 165.
    const auto& shear = find(d, span + "/shear");
    EXPECT_NEAR(shear.demand, w * (2.5 - 0.15 - 0.165), 1e-6);
    EXPECT_EQ(shear.clause, "EN 1992-1-1 6.2.2(1)");
    // Minimum steel 0.26*2.565/500*1000*169 = 225.4 mm2/m.
    EXPECT_NEAR(find(d, span + "/minimum-bottom").limit * 1000,
                0.26 * 0.3 * std::pow(25, 2.0 / 3) / 500 * 1000 * 169, 0.01);
    EXPECT_NEAR(find(d, span + "/maximum-bottom").limit * 1000, 8000, 1e-6);
    EXPECT_EQ(find(d, span + "/spacing-bottom").limit, 250);
    // Distribution: 20 % of 754.
    EXPECT_NEAR(find(d, "/secondary").limit * 1000, 0.2 * As, 1e-6);
    // Reactions: 13.275*2.5.
    EXPECT_NEAR(d.slab(0).analysis.reactions[0].ultimateMax.value, w * 2.5, 1e-9);
    // Top steel at the ends for a quarter of the span moment.
    EXPECT_NEAR(d.slab(0).line.supports[0].moment / 1000, M / 4, 1e-6);
    // Quasi-permanent moment (6.5 + 0.3*3)*25/8 = 23.125 cracks the section; the crack stays under 0.3 mm.
    const auto& crack = find(d, span + "/crack-bottom");
    EXPECT_EQ(crack.outcome, checks::Outcome::Within);
    EXPECT_GT(crack.demand, 0.1);
}

TEST(WorkedExample, TwoSpansToAci318) {
    // Two spans of 4.5 m, 180 thick, f'c 28, Grade 420; D = 4.32 + 1.0, L = 2.4 kN/m2 (w_c 24 kN/m3).
    model::Project p = model::newProject();
    p.basis.standard = "aci318-si";
    p.basis.concreteStrength = 28, p.basis.steelYield = 420, p.basis.concreteDensity = 24e-6;
    p = model::setSpans(p, "s1", {4500, 4500}, false, false);
    p = model::editSlab(p, "s1", [](model::OneWaySlab& s, model::Project&) {
        s.thickness = 180, s.otherDead = 1e-3, s.imposed = 2.4e-3;
        for (auto& u : s.supports) u.width = 300;
    });
    auto d = design::run(p);
    const double D = 5.32, L = 2.4;
    // Middle support with both spans loaded: (1.2 D + 1.6 L) l^2/8 at the axis; at the face less V a - w
    // a^2/2.
    double w = 1.2 * D + 1.6 * L, M = w * 4.5 * 4.5 / 8, V = 5.0 / 8 * w * 4.5, a = 0.15;
    const auto& top = find(d, p.slabs[0]->supports[1].id + "/flexure-top");
    EXPECT_NEAR(top.demand / 1000, M - V * a + w * a * a / 2, 1e-6);
    EXPECT_EQ(top.combination, "1.2 D + 1.6 L on all spans");
    // Span with that span alone loaded: R = 3/8 wD l + 7/16 wL l; M = R^2 / 2w.
    double R = 3.0 / 8 * 1.2 * D * 4.5 + 7.0 / 16 * 1.6 * L * 4.5;
    EXPECT_NEAR(find(d, p.slabs[0]->spans[0].id + "/flexure-bottom").demand / 1000, R * R / 2 / w,
                0.002 * R * R / 2 / w);
    // Least steel 0.0018 Ag, least thickness l/24.
    EXPECT_NEAR(find(d, p.slabs[0]->spans[0].id + "/minimum-bottom").limit * 1000, 324, 1e-9);
    for (const auto& step : find(d, p.slabs[0]->spans[0].id + "/slenderness").steps) {
        if (step.symbol == "h_min") {
            EXPECT_NEAR(step.result, 4500 / 24.0, 1e-9);
        }
    }
}

// A propped cantilever slab: the cantilever's moment is statics whatever the spans behind it are.
TEST(WorkedExample, CantileverMomentIsStatics) {
    for (double back : {3000.0, 5000.0, 7000.0}) {
        model::Project p = simpleSpan();
        p = model::setSpans(p, "s1", {back, 1500}, false, true);
        p = model::editSlab(p, "s1", [](model::OneWaySlab& s, model::Project&) {
            for (auto& u : s.supports) u.monolithic = true;
        });
        auto d = design::run(p);
        double c = 1.5 - 0.15, w = 13.275, floor = 0.65 * w * std::pow(back / 1000 - 0.3, 2) / 12;
        EXPECT_NEAR(d.slab(0).line.supports[1].moment / 1000, std::max(w * c * c / 2, std::max(floor, 0.0)),
                    0.35 * w * c * c / 2)
            << "the face moment of the cantilever or of the span beside it";
        EXPECT_NEAR(
            -d.slab(0).analysis.momentExtreme(actions::LimitState::Ultimate, false, 1, 0).value / 1000,
            w * 1.5 * 1.5 / 2, 1e-6);
    }
}
