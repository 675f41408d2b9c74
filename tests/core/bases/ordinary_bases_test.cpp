// Foundations as they are met in practice, against statics by hand and brute force: water, tolerance, columns
// side by side, tension, and what the program chooses by itself against its own checks.
#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "bases/cap.h"
#include "bases/pad.h"
#include "design/bases.h"
#include "model/edits.h"
#include "support/cases.h"

using namespace talvik;
using bases::BaseState;
using checks::Outcome;

namespace {

std::shared_ptr<const standards::Standard> standard(bool en) {
    static const auto a = standards::makeStandard("en1992"), b = standards::makeStandard("aci318-si");
    return en ? a : b;
}
model::Basis basis() {
    return model::emptyProject().basis;
}
model::BaseSet set(model::BaseSet::Kind kind, double G, double Q, model::ColumnAction wind = {},
                   double side = 400) {
    model::BaseSet s;
    s.id = "f1", s.kind = kind, s.approach = 2;
    s.cases = {{"q1", "G", {actions::Nature::Permanent, ""}},
               {"q2", "Q", {actions::Nature::Imposed, "B"}},
               {"q3", "W", {actions::Nature::Wind, ""}}};
    wind.loadCase = "q3";
    s.columns = {{"c1", "A1", 0, 0, side, side, {{"q1", G}, {"q2", Q}, wind}}};
    model::Base base;
    base.id = "b1", base.columns = {"c1"};
    s.bases = {base};
    s.pile = {true, 450, 600e3, 0, 0, false, 3, 150, 75, 0};
    return s;
}
const checks::Check* find(const std::vector<checks::Check>& all, const std::string& key) {
    for (const auto& c : all)
        if (c.key.ends_with(key)) return &c;
    return nullptr;
}
const model::PartRef part{"f1", model::PartKind::Base, "b1"};

// Pressure without tension below a rectangle by squares: the plane found by bisection in its slope along x.
struct Squares {
    double B, L;
    int n = 400;
    // Plane p = max(0, a + b x) with this sum and this moment along x.
    double a = 0, b = 0;
    std::pair<double, double> sums(double a_, double b_) const {
        double N = 0, M = 0;
        for (int i = 0; i < n; ++i) {
            const double x = -B / 2 + (i + 0.5) * B / n, p = std::max(0.0, a_ + b_ * x);
            N += p * L * B / n, M += p * x * L * B / n;
        }
        return {N, M};
    }
    void solve(double N, double M) {
        double low = 0, high = 100 * N / (B * B * L);
        for (int k = 0; k < 200; ++k) {
            b = (low + high) / 2;
            double from = -b * B, to = 10 * N / (B * L) + b * B;
            for (int j = 0; j < 200; ++j) {
                a = (from + to) / 2;
                (sums(a, b).first < N ? from : to) = a;
            }
            (sums(a, b).second < M ? low : high) = b;
        }
    }
};

}  // namespace

// Water up to the ground, most of the base lifted by the wind: soil carries what the water leaves.
TEST(OrdinaryBases, WaterBelowABaseThatLiftsTakesItsPart) {
    auto s = set(model::BaseSet::Kind::Pads, 150e3, 0, {"", 0, 0, 0, 0, 170e6});
    s.ground.depth = 2000, s.ground.water = true, s.ground.waterDepth = 0, s.ground.allowable = 0.4;
    s.bases[0].B = 3000, s.bases[0].L = 2500, s.bases[0].h = 500;
    const auto b = basis();
    const bases::Context in(s, b, standard(true));
    const bases::Pad pad(in, s.bases[0]);
    const auto d = pad.solve();
    const auto all = pad.checks(d, part, false);
    const double A = 3000.0 * 2500, u = 9.81e-6 * 2000, w = 25e-6 * 500 + 18e-6 * 1500;
    // Service: 1.0 G + 1.0 W.
    Squares soil{3000, 2500};
    soil.solve(150e3 + (w - u) * A, 170e6);
    const double most = soil.a + soil.b * 1500 + u;
    EXPECT_NEAR(find(all, "pressure")->demand, most, 0.01 * most);
    // Strength: 1.0 G + 1.5 W lifts most; moment at the face of the column, 200 mm off the middle.
    double worst = 0;
    for (double g : {1.0, 1.35}) {
        Squares q{3000, 2500};
        q.solve(g * 150e3 + (g * w - u) * A, 1.5 * 170e6);
        double M = 0;
        for (int i = 0; i < 2000; ++i) {
            const double x = 200 + (i + 0.5) * 1300 / 2000;
            M += (std::max(0.0, q.a + q.b * x) + u - g * w) * (x - 200) * 2500 * 1300 / 2000;
        }
        worst = std::max(worst, M);
    }
    EXPECT_NEAR(find(all, "flexure-x")->demand, worst, 0.01 * worst);
}

// Water on the underside of a cap that is founded deep: its pull by hand.
TEST(OrdinaryBases, WaterLiftsACapByAllOfItsDepth) {
    auto s = set(model::BaseSet::Kind::Caps, 100e3, 0, {"", -700e3});
    s.ground.depth = 3000, s.ground.water = true, s.ground.waterDepth = 0;
    s.pile.tension = 500e3;
    s.bases[0].piles = 5, s.bases[0].h = 700;
    const auto b = basis();
    const bases::Context in(s, b, standard(true));
    const bases::Cap cap(in, s.bases[0]);
    const auto d = cap.solve();
    const double A = d.size.B * d.size.L, W = (25e-6 * 700 + 18e-6 * 2300 - 9.81e-6 * 3000) * A;
    const double pull = -(100e3 - 700e3 + W) / 5;
    EXPECT_NEAR(cap.pileForces(d).tension.value, pull, 1);
    // Pulled piles have bars at the top, and what holds them to their piles is declared.
    const auto all = cap.checks(d, part, false);
    EXPECT_TRUE(d.top[0].bar && d.top[1].bar);
    ASSERT_TRUE(find(all, "pile-connection"));
    EXPECT_EQ(find(all, "pile-connection")->outcome, Outcome::NotChecked);
}

// Two piles that may stand off: the bars follow the reaction, tie beams across are told, the room is less.
TEST(OrdinaryBases, ToleranceOfPilesCountsInStrengthToo) {
    auto s = set(model::BaseSet::Kind::Caps, 650e3, 200e3);
    s.bases[0].piles = 2, s.bases[0].h = 700;
    double moment[2], room[2];
    for (int k : {0, 1}) {
        s.pile.tolerance = k ? 75 : 0;
        const auto b = basis();
        const bases::Context in(s, b, standard(true));
        const bases::Cap cap(in, s.bases[0]);
        const auto d = cap.solve();
        const auto all = cap.checks(d, part, false);
        moment[k] = find(all, "flexure-x")->demand, room[k] = find(all, "anchorage-x")->limit;
        const auto* ties = find(all, "tie-beams");
        EXPECT_EQ(ties != nullptr, k == 1);
        if (ties) {
            EXPECT_EQ(ties->outcome, Outcome::NotChecked);
            // 1.35 * 650 + 1.5 * 200 = 1177.5 kN, 75 mm off.
            EXPECT_NE(ties->reason.find("88 kNm"), std::string::npos) << ties->reason;
        }
    }
    const double N = 1.35 * 650e3 + 1.5 * 200e3;
    EXPECT_NEAR(moment[0], N / 2 * (675 - 200), 1e-3 * moment[0]);
    EXPECT_NEAR(moment[1], N / 2 * (1 + 2 * 75.0 / 1350) * (675 - 200), 1e-3 * moment[1]);
    EXPECT_NEAR(room[0] - room[1], 75, 1e-6);
}

// A light and a heavy column on one base: across it, the heavy one bends a strip as wide as it and a depth on
// either side.
TEST(OrdinaryBases, TheHeavierOfTwoColumnsBendsItsOwnStripAcross) {
    auto s = set(model::BaseSet::Kind::Pads, 300e3, 0);
    s.columns.push_back({"c2", "A2", 4500, 0, 400, 400, {{"q1", 2000e3}}});
    s.bases[0].columns = {"c1", "c2"};
    s.bases[0].B = 8150, s.bases[0].L = 3650, s.bases[0].h = 700;
    s.ground.allowable = 0.3;
    const auto b = basis();
    const bases::Context in(s, b, standard(true));
    const bases::Pad pad(in, s.bases[0]);
    const auto d = pad.solve();
    const auto all = pad.checks(d, part, false);
    const double dEff = 700 - 50 - 20, strip = 400 + 2 * dEff, over = (3650 - 400) / 2.0,
                 perWidth = 1.35 * 2000e3 / 3650 * over * over / 2 / strip;
    EXPECT_NEAR(find(all, "flexure-y")->demand / 8150, perWidth, 0.02 * perWidth);
}

// Two columns of different loads: centred below the resultant, the base is far smaller.
TEST(OrdinaryBases, ABaseOfTwoColumnsStandsBelowTheirResultant) {
    auto s = set(model::BaseSet::Kind::Pads, 600e3, 200e3);
    s.columns.push_back({"c2", "A2", 3000, 0, 400, 400, {{"q1", 1200e3}, {"q2", 400e3}}});
    s.bases[0].columns = {"c1", "c2"};
    const auto b = basis();
    const bases::Context in(s, b, standard(true));
    const auto free = bases::Pad(in, s.bases[0]).solve();
    auto middle = s;
    middle.bases[0].offPinned = true;
    const bases::Context other(middle, b, standard(true));
    const auto central = bases::Pad(other, middle.bases[0]).solve();
    ASSERT_TRUE(free.possible());
    EXPECT_GT(free.size.off.x, 100);
    EXPECT_LT(free.size.area() * free.size.h, 0.95 * central.size.area() * central.size.h);
}

// ACI: caps keep the size factor of shear, footings on ground do not (13.2.6.2); least depths; what the
// column's concrete does not bear, bars across the joint do.
TEST(OrdinaryBases, SizeFactorLeastDepthAndDowelsOfAci) {
    auto s = set(model::BaseSet::Kind::Caps, 1500e3, 500e3);
    s.bases[0].piles = 4, s.bases[0].h = 1200;
    const auto b = basis();
    const bases::Context in(s, b, standard(false));
    const bases::Cap cap(in, s.bases[0]);
    const auto d = cap.solve();
    const auto all = cap.checks(d, part, false);
    const double mean = (d.d[0] + d.d[1]) / 2, size = std::sqrt(2 / (1 + 0.004 * mean));
    const auto* p = find(all, "/punching");
    ASSERT_TRUE(p);
    // At most 0.33 sqrt(f'c) with the factor; without it, 1.6 times as much.
    EXPECT_LE(p->limit, 0.75 * 0.33 * size * std::sqrt(30.0) * 1.001);
    EXPECT_LT(size, 0.63);
    EXPECT_EQ(find(all, "least-depth")->limit, 300);

    auto shallow = set(model::BaseSet::Kind::Pads, 60e3, 20e3);
    shallow.leastDepth = 150;
    const bases::Context inPads(shallow, b, standard(false));
    const bases::Pad pad(inPads, shallow.bases[0]);
    const auto flat = pad.solve();
    EXPECT_GE(std::min(flat.d[0], flat.d[1]), 150);
    const bases::Context inEn(shallow, b, standard(true));
    EXPECT_LT(bases::Pad(inEn, shallow.bases[0]).solve().size.h, flat.size.h)
        << "no such rule in EN 1992-1-1";

    // 1.2 * 1200 + 1.6 * 500 = 2240 kN on 300 by 300: 0.65 * 0.85 * 30 * 300^2 = 1492 kN bear.
    auto joint = set(model::BaseSet::Kind::Pads, 1200e3, 500e3, {}, 300);
    const bases::Context inJoint(joint, b, standard(false));
    const bases::Pad with(inJoint, joint.bases[0]);
    const double need = (2240e3 - 0.65 * 0.85 * 30 * 300 * 300) / (0.65 * 500);
    EXPECT_NEAR(with.starters().front().need, need, 1e-3 * need);
    EXPECT_GE(with.starters().front().area(), need);
}

// Approach 3: the weight of the concrete is a structural action, that of the soil a geotechnical one.
TEST(OrdinaryBases, InApproachThreeConcreteIsStructural) {
    auto s = set(model::BaseSet::Kind::Pads, 400e3, 0);
    s.approach = 3, s.ground.by = model::GroundValues::By::Drained, s.ground.friction = 32,
    s.ground.depth = 1500;
    s.bases[0].B = s.bases[0].L = 2500, s.bases[0].h = 800;
    const auto b = basis();
    const bases::Context in(s, b, standard(true));
    const bases::Pad pad(in, s.bases[0]);
    const auto all = pad.checks(pad.solve(), part, false);
    const double A = 2500.0 * 2500;
    EXPECT_NEAR(find(all, "pressure")->demand, 1.35 * (400e3 + 25e-6 * 800 * A) + 18e-6 * 700 * A, 1e3);
}

// A plan that no depth makes strong is made larger; the next number of piles likewise.
TEST(OrdinaryBases, ThePlanGrowsWhereTheBaseItselfAsksForIt) {
    auto s = set(model::BaseSet::Kind::Pads, 450e3, 150e3, {"", 0, 80e3, 0, 0, 420e6});
    s.ground.allowable = 0.35;
    const auto b = basis();
    const bases::Context in(s, b, standard(true));
    const bases::Pad pad(in, s.bases[0]);
    const auto d = pad.solve();
    EXPECT_TRUE(d.possible()) << d.trouble;
    EXPECT_LT(d.size.B, 3600);
    for (const auto& c : pad.checks(d, part, false)) EXPECT_NE(c.outcome, Outcome::Over) << c.title;
}

// What is called out lies there: so many bars at that spacing, within the cover.
TEST(OrdinaryBases, BarsLieAtTheSpacingThatIsCalledOut) {
    for (double B : {1400.0, 1900.0, 2350.0, 3050.0}) {
        auto s = set(model::BaseSet::Kind::Pads, 300e3, 100e3);
        s.bases[0].B = s.bases[0].L = B;
        const auto b = basis();
        const bases::Context in(s, b, standard(true));
        const bases::Pad pad(in, s.bases[0]);
        const auto d = pad.solve();
        for (const auto& laid : pad.laid(d)) {
            if (!laid.item.run.starts_with("bottom")) continue;
            const bool x = laid.item.run.ends_with("x");
            std::vector<double> at;
            for (const auto& l : laid.item.lie) at.push_back(x ? l.a.y : l.a.x);
            std::sort(at.begin(), at.end());
            ASSERT_EQ(int(at.size()), laid.item.number);
            for (std::size_t k = 0; k + 1 < at.size(); ++k)
                EXPECT_NEAR(at[k + 1] - at[k], laid.item.spacing, 0.01) << B;
            EXPECT_GE(at.front() + B / 2, 50 + laid.item.diameter / 2 - 0.01);
            // No more is left at the sides than half a spacing beyond the cover.
            EXPECT_LE(at.front() + B / 2, 50 + laid.item.diameter / 2 + laid.item.spacing / 2 + 0.01);
        }
    }
}

// What nothing is pinned of fails no check; over if and only if the ratio is above 1.
TEST(OrdinaryBases, OwnChoicesPassOwnChecks) {
    std::mt19937 random(20);
    auto number = [&](double low, double high) { return low + (high - low) * double(random() % 1000) / 999; };
    const int n = test::share(1000);
    int solved = 0;
    for (int k = 0; k < n; ++k) {
        const bool caps = k % 4 == 3;
        auto s = set(caps ? model::BaseSet::Kind::Caps : model::BaseSet::Kind::Pads, number(100, 2500) * 1e3,
                     number(0, 1500) * 1e3,
                     {"", number(-100, 100) * 1e3, number(-40, 40) * 1e3, 0, number(-60, 60) * 1e6,
                      number(-120, 120) * 1e6},
                     50 * std::round(number(6, 14)));
        auto b = basis();
        b.foundation.strength = b.pileCap.strength = 5 * std::round(number(5, 8));
        b.coverFoundation = 5 * std::round(number(8, 15));
        s.ground.allowable = number(0.1, 0.5), s.ground.depth = number(600, 2500);
        s.pile.compression = number(500, 1500) * 1e3, s.pile.tension = number(50, 300) * 1e3;
        s.pile.tolerance = k % 3 ? 75 : 0;
        const auto by = standard(k % 2);
        const bases::Context in(s, b, by);
        std::vector<checks::Check> all;
        std::string trouble;
        if (caps) {
            const bases::Cap cap(in, s.bases[0]);
            const auto d = cap.solve();
            trouble = d.trouble, all = cap.checks(d, part, false);
        } else {
            const bases::Pad pad(in, s.bases[0]);
            const auto d = pad.solve();
            trouble = d.trouble, all = pad.checks(d, part, false);
        }
        solved += trouble.empty();
        for (const auto& c : all) {
            if (trouble.empty() && c.topic != checks::Topic::Bearing) {
                // A column without room for its starters is no choice of the program; the check says so.
                const bool forbidden = c.key.find("starters") != std::string::npos &&
                                       std::any_of(c.here.begin(), c.here.end(), [](const auto& note) {
                                           return note.find("a larger column") != std::string::npos;
                                       });
                EXPECT_TRUE(c.outcome != Outcome::Over || forbidden)
                    << k << " " << c.title << " " << checks::ratio(c);
            }
            if (checks::isJudged(c)) {
                EXPECT_EQ(c.outcome == Outcome::Over, checks::ratio(c) > 1 + 1e-9) << c.title;
            }
        }
    }
    EXPECT_GT(solved, n * 8 / 10);
}

// What is not checked is declared: soft clay without layers, far eccentricity, columns side by side or in
// tension; a base that stands out of the ground is told.
TEST(OrdinaryBases, WhatIsNotCheckedIsDeclared) {
    auto s = set(model::BaseSet::Kind::Pads, 300e3, 120e3);
    s.ground.by = model::GroundValues::By::Undrained, s.ground.undrained = 0.035, s.ground.depth = 300;
    s.bases[0].h = 500, s.leastDepth = 500;
    const auto b = basis();
    const bases::Context in(s, b, standard(true));
    const bases::Pad clay(in, s.bases[0]);
    auto all = clay.checks(clay.solve(), part, false);
    ASSERT_TRUE(find(all, "settlement"));
    EXPECT_EQ(find(all, "settlement")->outcome, Outcome::NotChecked);
    bool told = false;
    for (const auto& word : find(all, "pressure")->here)
        told |= word.find("200 mm above") != std::string::npos;
    EXPECT_TRUE(told);

    auto pulled = set(model::BaseSet::Kind::Pads, 100e3, 0, {"", -300e3, 20e3});
    pulled.columns.push_back({"c2", "A2", 900, 0, 400, 400, {{"q1", 800e3}}});
    pulled.bases[0].columns = {"c1", "c2"};
    const bases::Context two(pulled, b, standard(true));
    const bases::Pad near(two, pulled.bases[0]);
    all = near.checks(near.solve(), part, false);
    for (const char* key : {"punching-uplift", "punching-together"}) {
        ASSERT_TRUE(find(all, key)) << key;
        EXPECT_EQ(find(all, key)->outcome, Outcome::NotChecked) << key;
    }
}
