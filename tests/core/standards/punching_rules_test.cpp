// The facet of punching against the independent tables of single columns, numeric integration, and properties
// that any standard keeps.
#include <gtest/gtest.h>

#include <cmath>
#include <numbers>
#include <random>

#include "standards/rules.h"
#include "support/reference.h"
#include "units/units.h"

using namespace talvik;
using namespace talvik::standards;
using geometry::Point;
using geometry::Ring;
using At = ControlSection::At;

namespace {

constexpr double far = 1e5, kN = 1e3, kNm = 1e6;

// A column at the origin, its outer faces flush with the edges: towards negative x at edges, also negative y
// at corners.
PunchingPlace place(const std::string& kind, double c1, double c2, double d) {
    PunchingPlace p;
    const double left = kind == "interior" ? -far : -c1 / 2, below = kind == "corner" ? -c2 / 2 : -far;
    p.site = {
        geometry::rectangle({0, 0}, c1, c2), {{{left, below}, {far, below}, {far, far}, {left, far}}}, {}};
    p.c1 = c1, p.c2 = c2, p.h = d + 40, p.d = d, p.fc = 30, p.fy = 500;
    return p;
}
const ControlSection* of(const std::vector<ControlSection>& all, At at) {
    for (const auto& s : all)
        if (s.at == at) return &s;
    return nullptr;
}
std::shared_ptr<const Standard> en() {
    return makeStandard("en1992");
}
std::shared_ptr<const Standard> aci() {
    return makeStandard("aci318-si");
}
std::vector<test::TextRow> table(const std::string& name) {
    return test::rows(test::readText(test::referencePath(name)));
}
void near(double value, double expected, double relative, const std::string& what) {
    EXPECT_NEAR(value, expected, relative * std::max(std::abs(expected), 1e-9)) << what;
}

}  // namespace

TEST(PunchingRules, EnStrengthsPerimetersAndSteelAreThoseOfTheTable) {
    const auto standard = en();
    int rows = 0;
    for (const auto& r : table("en_punching")) {
        auto p = place(r.at("kind"), test::num(r, "c1"), test::num(r, "c2"), test::num(r, "d"));
        p.fc = test::num(r, "fck");
        p.steel[0] = test::num(r, "rho_y") / 100 * p.d, p.steel[1] = test::num(r, "rho_z") / 100 * p.d;
        const auto& rules = *standard->punching;
        const auto all = rules.sections(p);
        const auto *face = of(all, At::Face), *control = of(all, At::Control);
        ASSERT_TRUE(face && control);
        near(face->length * face->scale, test::num(r, "u0"), 1e-3, "u0 " + r.at("kind"));
        near(control->length, test::num(r, "u1"), 1e-3, "u1");
        near(rules.strength(p, *control), test::num(r, "vrdc"), 1e-5, "v_Rd,c");
        near(rules.strength(p, *face), test::num(r, "vrdmax"), 1e-5, "v_Rd,max");
        const double v = test::num(r, "v1");
        const auto steel = rules.steel(p, *control, ShearSteel::Links, v, 500);
        if (test::num(r, "need") > 0) {
            near(steel.perSpacing * 0.75 * p.d, test::num(r, "Asw"), 2e-3, "A_sw");
            // What is asked for carries it, up to the ceiling.
            near(rules.withSteel(p, *control, ShearSteel::Links, steel.perSpacing * 100, 100, 500),
                 std::min(v, steel.ceiling), 1e-9, "v_Rd,cs");
        }
        near(steel.least * 0.75 * p.d * 1.5 * p.d, test::num(r, "leg"), 1e-4, "leg");
        EXPECT_DOUBLE_EQ(steel.ceiling, 1.5 * rules.strength(p, *control));
        ++rows;
    }
    EXPECT_GT(rows, 20);
}

TEST(PunchingRules, EnEccentricityIsThatOfTheTable) {
    const auto standard = en();
    const auto& rules = *standard->punching;
    int rows[3] = {0, 0, 0};
    for (const auto& r : table("en_punching_beta")) {
        const std::string kind = r.at("kind");
        auto p = place(kind, test::num(r, "c1"), test::num(r, "c2"), test::num(r, "d"));
        const double V = test::num(r, "V_") * kN, M1 = test::num(r, "M1") * kNm,
                     M2 = test::num(r, "M2") * kNm;
        const auto all = rules.sections(p);
        const auto* control = of(all, At::Control);
        ASSERT_TRUE(control);
        // Eccentricities into the slab at edges and corners; at interior columns the table takes M1 alone.
        const PunchingForces f{V, M1, kind == "interior" ? 0 : M2};
        const double v = rules.stress(p, *control, f);
        near(v * control->length * control->d / V, test::num(r, "beta"), 1.5e-3, "beta " + kind);
        if (kind != "interior") near(control->reduced, test::num(r, "u1s"), 1.5e-3, "u1*");
        // Of both axes: near (6.43), which is meant for such columns with the shares of square ones.
        if (kind == "interior" && std::abs(p.c1 - p.c2) < 1)
            near(rules.stress(p, *control, {V, M1, M2}) * control->length * control->d / V,
                 test::num(r, "beta_bi"), 0.05, "beta of both");
        // The sense of a moment does not matter where nothing tells the sides apart.
        if (kind == "interior") {
            EXPECT_NEAR(rules.stress(p, *control, {V, -M1, 0}), v, 1e-9 * v);
        }
        // Out of the slab at an edge: by (6.39), never less than nought of it.
        if (kind != "interior") {
            EXPECT_GT(rules.stress(p, *control, {V, -M1, M2}) * control->length * control->d / V, 1);
        }
        ++rows[kind == "interior" ? 0 : kind == "edge" ? 1 : 2];
    }
    for (int n : rows) EXPECT_GT(n, 3);
}

TEST(PunchingRules, EnFixedFactorsStandForCalculatedOnes) {
    const auto standard = en();
    for (auto [kind, factor] : {std::pair("interior", 1.15), {"edge", 1.4}, {"corner", 1.5}}) {
        auto p = place(kind, 400, 400, 220);
        p.fixedEccentricity = true;
        const auto all = standard->punching->sections(p);
        const auto* control = of(all, At::Control);
        const double v = standard->punching->stress(p, *control, {500 * kN, 90 * kNm, -40 * kNm});
        EXPECT_NEAR(v * control->length * control->d, factor * 500 * kN, 1e-6 * 500 * kN);
    }
}

TEST(PunchingRules, AciStressesAndStrengthsAreThoseOfTheTable) {
    const auto standard = aci();
    const auto& rules = *standard->punching;
    int rows = 0;
    for (const auto& r : table("aci_punching_si")) {
        const std::string kind = r.at("kind");
        auto p = place(kind, test::num(r, "c1"), test::num(r, "c2"), test::num(r, "d"));
        p.fc = test::num(r, "fc");
        const auto all = rules.sections(p);
        const auto* s = of(all, At::Control);
        ASSERT_TRUE(s);
        near(s->length, test::num(r, "bo"), 1e-5, "bo");
        near(rules.strength(p, *s), test::num(r, "phivc"), 1e-5, "phi v_c");
        near(s->about.x, test::num(r, "g1"), 1e-4, "g1");
        if (kind == "corner")
            continue;  // the table takes the column's axes there, the facet the principal ones
        const double V = test::num(r, "V_") * kN;
        const bool atColumn = test::num(r, "at_column") > 0;
        // Moments about the centroid, or about the column's middle.
        PunchingForces f{V, test::num(r, "M1") * kNm, test::num(r, "M2") * kNm};
        if (!atColumn) f.Mx += V * s->about.x, f.My += V * s->about.y;
        near(rules.stress(p, *s, f), test::num(r, "vmax"), 1e-4, "v_max " + kind);
        ++rows;
    }
    EXPECT_GT(rows, 15);
}

// Where all of the moment is taken by shear, stresses about principal axes are those of a plane through the
// whole section, solved at once: the same for any axes.
TEST(PunchingRules, AciPrincipalAxesGiveThePlaneThatCarriesForceAndMoments) {
    std::mt19937 random(5);
    std::uniform_real_distribution<double> u(0, 1);
    const auto standard = aci();
    int cut = 0;
    for (int i = 0; i < 200; ++i) {
        auto p = place(i % 3 == 0   ? "interior"
                       : i % 3 == 1 ? "edge"
                                    : "corner",
                       250 + 500 * u(random), 250 + 500 * u(random), 120 + 250 * u(random));
        if (i % 2) {
            const double a = 2 * std::numbers::pi * u(random), r = 500 + 300 * u(random);
            p.site.openings.push_back(geometry::rectangle({r * std::cos(a), r * std::sin(a)}, 300, 300, 30));
        }
        const auto all = standard->punching->sections(p);
        const auto* s = of(all, At::Control);
        if (!s) continue;
        cut += !s->line.dead.empty();
        auto one = *s;
        one.share[0] = one.share[1] = 1;
        const PunchingForces f{1e5 + 9e5 * u(random), 2e8 * (u(random) - 0.5), 2e8 * (u(random) - 0.5)};
        // Numeric integration of the section as a strip of height d: n, n x, n y, with the vertical spread of
        // the sides along an axis.
        double A = 0, sx = 0, sy = 0;
        for (const auto& path : s->line.paths)
            for (std::size_t k = 0; k + 1 < path.size(); ++k) {
                const double l = geometry::length(path[k], path[k + 1]);
                A += l * s->d, sx += l * s->d * (path[k].x + path[k + 1].x) / 2,
                    sy += l * s->d * (path[k].y + path[k + 1].y) / 2;
            }
        const double cx = sx / A, cy = sy / A;
        double xx = 0, yy = 0, xy = 0;
        for (const auto& path : s->line.paths)
            for (std::size_t k = 0; k + 1 < path.size(); ++k) {
                const double l = geometry::length(path[k], path[k + 1]);
                if (l < 1e-9) continue;
                const double tx = (path[k + 1].x - path[k].x) / l, ty = (path[k + 1].y - path[k].y) / l;
                constexpr int n = 200;
                for (int j = 0; j < n; ++j) {
                    const double t = (j + 0.5) / n, x = path[k].x + t * (path[k + 1].x - path[k].x) - cx,
                                 y = path[k].y + t * (path[k + 1].y - path[k].y) - cy, w = l / n;
                    xx += w * s->d * x * x, yy += w * s->d * y * y, xy += w * s->d * x * y;
                }
                const double own = l * s->d * s->d * s->d / 12;
                xx += own * tx * tx, yy += own * ty * ty, xy += own * tx * ty;
            }
        const double mx = f.Mx - f.V * cx, my = f.My - f.V * cy, det = xx * yy - xy * xy;
        const double a = (mx * yy - my * xy) / det, b = (my * xx - mx * xy) / det;
        double most = 0;
        for (const auto& path : s->line.paths)
            for (Point q : path) most = std::max(most, std::abs(f.V / A + a * (q.x - cx) + b * (q.y - cy)));
        near(standard->punching->stress(p, one, f), most, 2e-3, std::to_string(i));
    }
    EXPECT_GT(cut, 40);
}

TEST(PunchingRules, AciShearSteelIsThatOfTheTable) {
    const auto standard = aci();
    const auto& rules = *standard->punching;
    int rows = 0;
    for (const auto& r : table("aci_punching_steel")) {
        auto p = place(r.at("kind"), test::num(r, "c1"), test::num(r, "c2"), test::num(r, "d"));
        p.fc = test::num(r, "fc");
        const auto all = rules.sections(p);
        const auto* s = of(all, At::Control);
        const double fyt = test::num(r, "fyt"), v = test::num(r, "vu");
        if (fyt > 420) continue;  // capped by Table 20.2.2.4(a)
        const auto links = rules.steel(p, *s, ShearSteel::Links, v, fyt),
                   studs = rules.steel(p, *s, ShearSteel::Studs, v, fyt);
        near(links.ceiling, test::num(r, "vmax_t"), 1e-5, "ceiling of links");
        near(studs.ceiling, test::num(r, "vmax_s"), 1e-5, "ceiling of studs");
        near(links.perSpacing, test::num(r, "Avs_t"), 1e-4, "links");
        near(std::max(studs.perSpacing, studs.leastPerimeter), test::num(r, "Avs_s"), 1e-4, "studs");
        near(links.radial, test::num(r, "smax_t"), 1e-9, "spacing of links");
        near(studs.radial, test::num(r, "smax_s"), 1e-9, "spacing of studs");
        auto outer = *s;
        outer.at = At::Outer;
        near(rules.strength(p, outer), test::num(r, "v_out"), 1e-5, "beyond");
        near(rules.withSteel(p, *s, ShearSteel::Studs, studs.perSpacing * 100, 100, fyt),
             std::clamp(v, 0.75 * test::num(r, "vc_s"), studs.ceiling), 1e-6, "with studs");
        ++rows;
    }
    EXPECT_GT(rows, 5);
}

TEST(PunchingRules, AciLeastSteelIsThatOfTheTable) {
    const auto standard = aci();
    int rows = 0;
    for (const auto& r : table("aci_min_steel_column")) {
        auto p = place("interior", 400, 400, 200);
        p.fy = test::num(r, "fy"), p.fc = 1;  // any shear is high then
        const auto all = standard->punching->sections(p);
        auto s = *of(all, At::Control);
        s.length = test::num(r, "bo");
        s.position = r.at("kind") == "interior" ? Position::Interior
                     : r.at("kind") == "edge"   ? Position::Edge
                                                : Position::Corner;
        p.overWidth[0] = test::num(r, "bslab");
        const double V = test::num(r, "vuv") * s.length * s.d;
        const auto least = standard->punching->leastSteel(p, s, {V, 0, 0}, 0);
        near(least.area, test::num(r, "As"), 1e-5, "A_s,min");
        EXPECT_EQ(standard->punching->leastSteel(p, s, {0.01 * V, 0, 0}, 0).area, 0)
            << "low shear asks for none";
        ++rows;
    }
    EXPECT_GT(rows, 5);
}

// 8.4.2.2 by hand: a square column passes six tenths by bending, by choice three quarters where shear is low
// and the bars yield far enough; the bars carry As fy (d - a/2).
TEST(PunchingRules, AciPassesMoreByBendingWhereTheTableAllows) {
    const auto standard = aci();
    const auto& rules = *standard->punching;
    auto p = place("interior", 400, 400, 200);
    for (int k : {0, 1}) p.overSteel[k] = 1.3, p.overWidth[k] = 400 + 3 * p.h;
    const auto all = rules.sections(p);
    const auto& s = *of(all, At::Control);
    const double b = 1120, As = 1.3 * b, a = As * 500 / (0.85 * 30 * b), Mn = 0.9 * As * 500 * (200 - a / 2);
    // phi v_c without moments: 0.33 lambda_s sqrt(f'c) on 4 * 600 * 200, lambda_s = sqrt(2 / 1.8) held at 1.
    const double vc = 0.75 * 0.33 * std::sqrt(30.0) * 4 * 600 * 200;
    const PunchingForces low{0.39 * vc, 50 * kNm, 0}, high{0.41 * vc, 50 * kNm, 0};
    auto plain = rules.bending(p, s, low, 0);
    near(plain.share, 0.6, 1e-9, "gamma_f");
    near(plain.moment, 30 * kNm, 1e-9, "M_f");
    near(plain.resistance, Mn, 1e-6, "phi M_n");
    EXPECT_NEAR(rules.bending(p, s, low, 1).moment, 0, 1e-3) << "nothing along the other bars";
    const double J =
        200 * (2 * std::pow(600, 3) / 12 + 2 * 600 * 300 * 300.0) + 2 * 600 * std::pow(200, 3) / 12;
    auto stress = [&](const PunchingForces& f, double gamma_v) {
        return f.V / (4 * 600 * 200) + gamma_v * f.Mx * 300 / J;
    };
    near(rules.stress(p, s, low), stress(low, 0.4), 1e-6, "v_u");
    p.moreByBending = true;
    near(rules.bending(p, s, low, 0).share, 0.75, 1e-9, "modified");
    near(rules.stress(p, s, low), stress(low, 0.25), 1e-6, "v_u with it");
    near(rules.bending(p, s, high, 0).share, 0.6, 1e-9, "high shear");
    near(rules.stress(p, s, high), stress(high, 0.4), 1e-6, "v_u");
    // No more than the bars take; none where they do not yield by far.
    const PunchingForces large{0.39 * vc, Mn / 0.7, 0};
    near(rules.bending(p, s, large, 0).share, 0.7, 1e-9, "what the bars take");
    for (int k : {0, 1}) p.overSteel[k] = 5;
    near(rules.bending(p, s, low, 0).share, 0.6, 1e-9, "too much steel");
    // At an edge the whole moment square to it, up to three quarters of phi v_c.
    auto e = place("edge", 400, 400, 200);
    for (int k : {0, 1}) e.overSteel[k] = 1.3, e.overWidth[k] = k == 0 ? 1120 : 760;
    e.moreByBending = true;
    const auto some = rules.sections(e);
    const auto& t = *of(some, At::Control);
    const double ve = 0.75 * 0.33 * std::sqrt(30.0) * t.length * 200;
    near(rules.bending(e, t, {0.74 * ve, 50 * kNm, 0}, 0).share, 1, 1e-9, "square to the edge");
    EXPECT_LT(rules.bending(e, t, {0.76 * ve, 50 * kNm, 0}, 0).share, 0.7);
    EXPECT_LT(rules.bending(e, t, {0.41 * ve, 0, 50 * kNm}, 1).share, 0.7) << "along it";
    EXPECT_EQ(en()->punching->bending(e, t, {ve, 50 * kNm, 0}, 0).clause, "");
    EXPECT_TRUE(en()->punching->bendingFactors().empty());
}

// Both systems of units of one standard say the same, but for rounding in its own constants.
TEST(PunchingRules, InchPoundAndSiAgree) {
    const auto si = aci(), us = makeStandard("aci318-us");
    for (const char* kind : {"interior", "edge", "corner"}) {
        auto p = place(kind, 450, 350, 230);
        const auto a = si->punching->sections(p), b = us->punching->sections(p);
        ASSERT_EQ(a.size(), b.size());
        for (std::size_t i = 0; i < a.size(); ++i) {
            const PunchingForces f{4e5, 6e7, -2e7};
            near(us->punching->stress(p, b[i], f), si->punching->stress(p, a[i], f), 1e-9, "stress");
            near(us->punching->strength(p, b[i]), si->punching->strength(p, a[i]), 0.015, "strength");
        }
    }
}

class EveryPunching : public ::testing::TestWithParam<std::string> {
  protected:
    std::shared_ptr<const Standard> standard = makeStandard(GetParam());
};

// More steel, stronger concrete, a deeper slab: never weaker. More force or moment: never less stress.
TEST_P(EveryPunching, StrengthAndStressGrowAsTheyShould) {
    std::mt19937 random(11);
    std::uniform_real_distribution<double> u(0, 1);
    const auto& rules = *standard->punching;
    for (int i = 0; i < 200; ++i) {
        auto p = place(i % 3 == 0   ? "interior"
                       : i % 3 == 1 ? "edge"
                                    : "corner",
                       250 + 400 * u(random), 250 + 400 * u(random), 120 + 300 * u(random));
        for (int k : {0, 1}) p.steel[k] = 0.01 * u(random) * p.d;
        p.round = i % 3 == 0 && i % 2;
        if (p.round) p.c2 = p.c1, p.site.loaded = geometry::round({0, 0}, p.c1);
        for (const auto& s : rules.sections(p)) {
            const double v = rules.strength(p, s);
            auto more = p;
            more.fc += 10;
            EXPECT_GE(rules.strength(more, s), v * (1 - 1e-12));
            more = p;
            for (double& a : more.steel) a *= 1.5;
            EXPECT_GE(rules.strength(more, s), v * (1 - 1e-12));
            const PunchingForces f{2e5 + 8e5 * u(random), 1e8 * (u(random) - 0.5), 1e8 * (u(random) - 0.5)};
            const double stress = rules.stress(p, s, f);
            EXPECT_GT(stress, 0);
            EXPECT_NEAR(rules.stress(p, s, {2 * f.V, 2 * f.Mx, 2 * f.My}), 2 * stress, 1e-9 * stress)
                << "proportional loads, proportional stress";
            EXPECT_NEAR(rules.stress(p, s, {-f.V, -f.Mx, -f.My}), stress, 1e-9 * stress) << "uplift likewise";
            EXPECT_GE(stress * (1 + 1e-9), std::abs(f.V) / (s.length * s.scale * s.d)) << "at least the mean";
            EXPECT_FALSE(rules.clause(s.at).empty());
        }
    }
}

// Every printed formula gives its result again.
TEST_P(EveryPunching, WorkingGivesItsResult) {
    const auto& rules = *standard->punching;
    for (const char* kind : {"interior", "edge", "corner"}) {
        auto p = place(kind, 420, 360, 210);
        p.steel[0] = 1.2, p.steel[1] = 1.6;
        for (int k : {0, 1}) p.overSteel[k] = 1.3, p.overWidth[k] = 900;
        p.moreByBending = true;
        Steps steps;
        for (const auto& s : rules.sections(p)) {
            rules.stress(p, s, {1e5, 3e7, 5e7}, &steps);
            for (int k : {0, 1}) rules.bending(p, s, {1e5, 3e7, 5e7}, k, &steps);
            rules.stress(p, s, {4e5, 3e7, 5e7}, &steps);
            rules.stress(p, s, {4e5, -3e7, 5e7}, &steps);
            rules.strength(p, s, &steps);
            if (s.at != At::Control) continue;
            for (auto k : {ShearSteel::Links, ShearSteel::Studs}) {
                rules.steel(p, s, k, 1.1, 400, &steps);
                rules.withSteel(p, s, k, 800, 120, 400, &steps);
            }
            rules.leastSteel(p, s, {9e5, 0, 0}, 0, &steps);
        }
        EXPECT_GT(steps.size(), 10u);
        for (const auto& step : steps) {
            EXPECT_FALSE(step.clause.empty()) << step.symbol;
            if (step.expression.empty()) continue;
            std::map<std::string, double, std::less<>> symbols;
            for (const auto& q : step.inputs) symbols[q.symbol] = q.value;
            const auto value = units::evaluate(step.expression, symbols);
            ASSERT_TRUE(value.value) << step.expression << ": " << value.error;
            EXPECT_NEAR(*value.value, step.result, 1e-9 * std::max(std::abs(step.result), 1e-6))
                << step.symbol << " = " << step.expression;
        }
    }
}

// A column that moves from inside over an edge to a corner: what the slab carries changes by no jump that the
// standard does not have.
TEST_P(EveryPunching, AMovingColumnGivesNoJumps) {
    const auto& rules = *standard->punching;
    auto most = [&](double x, double y, double V) {
        auto p = place("interior", 400, 400, 220);
        p.site.slabs = {{{0, 0}, {far, 0}, {far, far}, {0, far}}};
        p.site.loaded = geometry::rectangle({x, y}, 400, 400);
        p.middle = {x, y};
        for (double& a : p.steel) a = 1.5;
        double worst = 0;
        for (const auto& s : rules.sections(p))
            if (s.at == At::Control)
                worst = std::max(worst, rules.stress(p, s, {V, 0, 0}) / rules.strength(p, s));
        return worst;
    };
    double last = 0, largest = 0;
    for (double x = 3000; x >= 200; x -= 10) {
        const double now = most(x, 3000, 5e5);
        if (last > 0) largest = std::max(largest, std::abs(now / last - 1));
        last = now;
    }
    const double edge = last;
    for (double y = 3000; y >= 200; y -= 10) {
        const double now = most(200, y, 5e5);
        largest = std::max(largest, std::abs(now / last - 1));
        last = now;
    }
    EXPECT_GT(edge, most(3000, 3000, 5e5) * 1.2) << "an edge column is worse off";
    EXPECT_GT(last, edge * 1.2) << "a corner column more so";
    // The class changes where a perimeter to the edge becomes the shorter one or comes near it: EN
    // 1992-1-1 6.4.3 then asks for the reduced perimeter, ACI 318-19 for alpha_s of another class and the
    // moment of the new centroid.
    RecordProperty("largest", std::to_string(largest));
    EXPECT_LT(largest, GetParam() == "en1992" ? 0.15 : 0.6);
}

INSTANTIATE_TEST_SUITE_P(Catalogue, EveryPunching, ::testing::ValuesIn(standardIds()), [](const auto& each) {
    std::string name = each.param;
    for (char& c : name)
        if (c == '-') c = '_';
    return name;
});

// On ground: every perimeter up to 2d with 2d/a times the strength of 6.4.4(1), by hand.
TEST(PunchingRules, OnGroundPerimetersInsideTwoDepthsAreLookedAt) {
    const auto standard = standards::makeStandard("en1992");
    standards::PunchingPlace at;
    at.c1 = at.c2 = 400, at.h = 750, at.d = 690, at.fc = 30, at.fy = 500;
    at.steel[0] = at.steel[1] = 0.005 * at.d;
    at.site.loaded = geometry::rectangle({0, 0}, 400, 400);
    EXPECT_EQ(standard->punching->sections(at).size(), 2u) << "the face, and 2d";
    at.onGround = true;
    const double basic = std::max(0.12 * (1 + std::sqrt(200 / 690.0)) * std::cbrt(100 * 0.005 * 30),
                                  0.035 * std::pow(1 + std::sqrt(200 / 690.0), 1.5) * std::sqrt(30.0));
    int nearer = 0;
    for (const auto& s : standard->punching->sections(at)) {
        if (s.at != standards::ControlSection::At::Control) continue;
        const double a = s.distance > 0 ? s.distance : 2 * 690;
        EXPECT_NEAR(s.length, 1600 + 2 * M_PI * a, 2e-3 * s.length);
        EXPECT_NEAR(standard->punching->strength(at, s), basic * 2 * 690 / a, 1e-3 * basic * 1380 / a);
        nearer += s.distance > 0;
    }
    EXPECT_GE(nearer, 12);
}

// ACI 318-19 5.3.1 has no combination of 0.9 D with imposed loads.
TEST(PunchingRules, AciHasNoCombinationOfLightPermanentAndImposedLoads) {
    const auto standard = standards::makeStandard("aci318-si");
    for (const auto& c : standard->actions->combinations(*catalogs::imposedUse("B")))
        EXPECT_FALSE(c.factorG < 1 && c.factorQ > 0) << c.name;
}
