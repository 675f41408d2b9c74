// Pad footings: sizes are the least there are, equilibrium against brute force, the ground's answer by hand.
#include "bases/pad.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "found.h"
#include "model/edits.h"

using namespace talvik;
using bases::BaseState;
using test::find;

namespace {

// One column with permanent, imposed and wind actions.
model::BaseSet one(double G, double Q, double Mx = 0, double My = 0, double Hx = 0, double Hy = 0) {
    model::BaseSet set;
    set.id = "f1", set.name = "Pads";
    set.cases = {{"q1", "G", {actions::Nature::Permanent, ""}},
                 {"q2", "Q", {actions::Nature::Imposed, "B"}},
                 {"q3", "W", {actions::Nature::Wind, ""}}};
    set.columns = {{"c1", "A1", 0, 0, 400, 400, {{"q1", G}, {"q2", Q}, {"q3", 0, Hx, Hy, Mx, My}}}};
    model::Base base;
    base.id = "b1", base.columns = {"c1"};
    set.bases = {base};
    return set;
}
std::shared_ptr<const standards::Standard> en() {
    static const auto standard = standards::makeStandard("en1992");
    return standard;
}
std::shared_ptr<const standards::Standard> aci() {
    static const auto standard = standards::makeStandard("aci318-si");
    return standard;
}
model::Basis basis() {
    return model::emptyProject().basis;
}

}  // namespace

// A concentric load by hand: side from N/(p - w), least depth with the same column.
TEST(Pad, ConcentricSizeByHand) {
    auto set = one(600e3, 400e3);
    set.ground.allowable = 0.2, set.ground.depth = 1000, set.ground.soil = 18e-6;
    const bases::Context in(set, basis(), en());
    const bases::Pad pad(in, set.bases[0]);
    const auto d = pad.solve();
    ASSERT_TRUE(d.possible()) << d.trouble;
    EXPECT_EQ(d.size.B, d.size.L);
    const double w = 25e-6 * d.size.h + 18e-6 * (1000 - d.size.h), side = std::sqrt(1000e3 / (0.2 - w));
    EXPECT_EQ(d.size.B, std::ceil(side / 50) * 50);
    const auto all = pad.checks(d, {"f1", model::PartKind::Base, "b1"}, true);
    const auto* p = find(all, "pressure");
    ASSERT_NE(p, nullptr);
    EXPECT_NEAR(p->demand, 1000e3 / (d.size.B * d.size.B) + w, 1e-9);
    // Flexure at the face: uniform net pressure on a cantilever.
    const double net = (1.35 * 600e3 + 1.5 * 400e3) / (d.size.B * d.size.B), over = (d.size.B - 400) / 2;
    for (const char* key : {"flexure-x", "flexure-y"})
        EXPECT_NEAR(find(all, key)->demand, net * d.size.B * over * over / 2,
                    1e-3 * net * d.size.B * over * over)
            << key;
    const double cut = over - d.d[0];
    EXPECT_NEAR(find(all, "shear-x")->demand, net * d.size.B * cut, 1);
    for (const auto& c : all) EXPECT_NE(c.outcome, checks::Outcome::Over) << c.title;
}

// What is solved is least: one step less of plan or depth fails; and nothing of it is over.
TEST(Pad, FiveHundredSizesAreTheLeast) {
    std::mt19937 random(4);
    auto number = [&](double low, double high) { return low + (high - low) * double(random() % 1000) / 999; };
    int solved = 0;
    for (int k = 0; k < 500; ++k) {
        auto set = one(number(100, 2500) * 1e3, number(0, 1500) * 1e3, number(-200, 200) * 1e6,
                       number(-200, 200) * 1e6, number(-60, 60) * 1e3, number(-60, 60) * 1e3);
        set.columns[0].width = 50 * std::round(number(5, 14)),
        set.columns[0].depth = 50 * std::round(number(5, 14));
        set.ground.allowable = number(80, 500) * 1e-3, set.ground.depth = number(300, 2000);
        set.ground.surcharge = k % 3 ? 0 : 5e-3;
        set.ground.water = k % 5 == 0, set.ground.waterDepth = 500;
        if (k % 4 == 1) set.ground.by = model::GroundValues::By::Net;
        if (k % 4 == 2)
            set.ground.by = model::GroundValues::By::Drained, set.ground.friction = number(25, 38);
        if (k % 4 == 3)
            set.ground.by = model::GroundValues::By::Undrained, set.ground.undrained = number(40, 200) * 1e-3;
        const auto standard = k % 2 ? en() : aci();
        const bases::Context in(set, basis(), standard);
        const bases::Pad pad(in, set.bases[0]);
        const auto d = pad.solve();
        if (!d.possible()) continue;
        ++solved;
        const auto all = pad.checks(d, {"f1", model::PartKind::Base, "b1"}, false);
        // Concrete too weak for the column is no matter of the base's size.
        if (find(all, "foot") && find(all, "foot")->outcome == checks::Outcome::Over) continue;
        for (const auto& c : all)
            EXPECT_NE(c.outcome, checks::Outcome::Over)
                << k << " " << c.title << " " << checks::ratio(c) << " " << d.size.B << " " << d.size.h;
        // Square, or with the same overhang all round.
        auto fails = [&](double less, double h) {
            const double B = d.size.B - less, L = d.size.L - less;
            if (h < set.leastDepth || B < set.columns[0].width || L < set.columns[0].depth) return true;
            auto trial = d;
            trial.size.B = B, trial.size.L = L, trial.size.h = h;
            trial = pad.ofSize(trial.size);
            return pad.ratio(trial) > 1 + 1e-9 || !trial.bottom[0].bar || !trial.bottom[1].bar;
        };
        EXPECT_TRUE(fails(50, d.size.h)) << k << " in plan " << d.size.B << " " << d.size.h;
        EXPECT_TRUE(fails(0, d.size.h - 50)) << k << " in depth " << d.size.B << " " << d.size.h;
    }
    EXPECT_GT(solved, 420);
}

// Mirrored loads have mirrored answers; exchanged axes exchange the bars' directions' demands.
TEST(Pad, AnswersMirrorWithTheirLoads) {
    const auto size = [](double Mx, double My, double Hx, double Hy) {
        auto set = one(700e3, 300e3, Mx, My, Hx, Hy);
        const bases::Context in(set, basis(), en());
        const bases::Pad pad(in, set.bases[0]);
        const auto d = pad.solve();
        return std::tuple(d.size.B, d.size.h, d.bottom[0].number + d.bottom[1].number);
    };
    const auto plain = size(80e6, 30e6, 20e3, -10e3);
    EXPECT_EQ(std::get<0>(size(-80e6, -30e6, -20e3, 10e3)), std::get<0>(plain));
    EXPECT_EQ(std::get<1>(size(-80e6, -30e6, -20e3, 10e3)), std::get<1>(plain));
    EXPECT_EQ(std::get<0>(size(30e6, -80e6, -10e3, -20e3)), std::get<0>(plain));
}

// Signs: My > 0 presses at +x, Mx > 0 at -y; H at the top of the base adds its depth.
TEST(Pad, SignsOfMomentsAndForces) {
    struct Case {
        double Mx, My, Hx, Hy;
        int corner[2];  // more pressure at the first than at the second: -x-y, +x-y, +x+y, -x+y
    };
    for (const Case& c : {Case{0, 60e6, 0, 0, {1, 0}},
                          {60e6, 0, 0, 0, {0, 3}},
                          {0, 0, 60e3, 0, {1, 0}},
                          {0, 0, 0, 60e3, {3, 0}}}) {
        auto set = one(900e3, 0, c.Mx, c.My, c.Hx, c.Hy);
        // As a permanent action, so that it is there in what is shown.
        set.columns[0].actions = {{"q1", 900e3, c.Hx, c.Hy, c.Mx, c.My}};
        const bases::Context in(set, basis(), en());
        const bases::Pad pad(in, set.bases[0]);
        const auto shown = pad.shown(pad.solve());
        ASSERT_TRUE(shown.has_value());
        EXPECT_GT(shown->corners[c.corner[0]], shown->corners[c.corner[1]] + 1e-4);
    }
}

TEST(Pad, PinsStayAndWhatIsImpossibleIsNamed) {
    auto set = one(800e3, 500e3, 40e6);
    set.bases[0].B = 3000, set.bases[0].h = 900, set.bases[0].bar = "H16", set.bases[0].spacing = 150;
    {
        const bases::Context in(set, basis(), en());
        const auto d = bases::Pad(in, set.bases[0]).solve();
        EXPECT_TRUE(d.possible()) << d.trouble;
        EXPECT_EQ(d.size.B, 3000);
        EXPECT_EQ(d.size.h, 900);
        EXPECT_EQ(d.bottom[0].bar->name, "H16");
        EXPECT_EQ(d.bottom[0].spacing, 150);
    }
    set.bases[0].L = 800;
    {
        const bases::Context in(set, basis(), en());
        const auto d = bases::Pad(in, set.bases[0]).solve();
        EXPECT_FALSE(d.possible());
        EXPECT_NE(d.trouble.find("fixed"), std::string::npos);
    }
    // Nothing holds a column that pulls more than any base weighs; it is said by how much the resultant is
    // off.
    auto up = one(-90e6, 0);
    up.ground.depth = 300;
    const bases::Context in(up, basis(), en());
    const bases::Pad pad(in, up.bases[0]);
    const auto d = pad.solve();
    EXPECT_FALSE(d.possible());
    bool over = false;
    for (const auto& c : pad.checks(d, {"f1", model::PartKind::Base, "b1"}, false))
        over |= c.outcome == checks::Outcome::Over;
    EXPECT_TRUE(over);
}

// Two columns on one base: moment and shear against statics of a beam under uniform pressure.
TEST(Pad, TwoColumnsBendLikeABeam) {
    model::BaseSet set = one(0, 0);
    set.columns = {{"c1", "A1", 0, 0, 400, 400, {{"q1", 800e3}}},
                   {"c2", "A2", 3000, 0, 400, 400, {{"q1", 800e3}}}};
    set.bases[0].columns = {"c1", "c2"};
    set.bases[0].B = 5000, set.bases[0].L = 2000, set.bases[0].h = 700;
    const bases::Context in(set, basis(), en());
    const bases::Pad pad(in, set.bases[0]);
    const auto d = pad.solve();
    const double w = 1.35 * 1600e3 / 5000;  // N per mm of length
    const auto all = pad.checks(d, {"f1", model::PartKind::Base, "b1"}, false);
    // At the outer face: 1 m less half the column; in the middle between them hogging.
    const double face = w * 800 * 800 / 2, middle = 1.35 * 800e3 * 1500 - w * 2500 * 2500 / 2;
    EXPECT_NEAR(find(all, "flexure-x")->demand, std::max(face, w * 1200 * 1200 / 2 - 1.35 * 800e3 * 200),
                2e-3 * face);
    ASSERT_GT(middle, 0);
    ASSERT_NE(find(all, "flexure-x-top"), nullptr);
    EXPECT_NEAR(find(all, "flexure-x-top")->demand, middle, 0.02 * middle);
    EXPECT_GT(d.top[0].number, 0);
}

// Uplift, overturning and sliding by hand.
TEST(Pad, StabilityByHand) {
    auto set = one(-120e3, 0, 0, 0, 30e3, 0);
    set.ground.depth = 1500, set.ground.allowable = 0.3;
    set.bases[0].B = set.bases[0].L = 3000, set.bases[0].h = 600;
    const bases::Context in(set, basis(), en());
    const bases::Pad pad(in, set.bases[0]);
    const auto d = pad.solve();
    const auto all = pad.checks(d, {"f1", model::PartKind::Base, "b1"}, false);
    const double W = (25e-6 * 600 + 18e-6 * 900) * 9e6;
    const auto* up = find(all, "uplift");
    ASSERT_NE(up, nullptr);
    EXPECT_NEAR(up->demand, 1.1 * 120e3, 1);
    EXPECT_NEAR(up->limit, 0.9 * W, 1);
    const auto* over = find(all, "overturning");
    ASSERT_NE(over, nullptr);
    EXPECT_NEAR(over->demand, 1.1 * 120e3 * 1500 + 1.5 * 30e3 * 600, 1e3);
    EXPECT_NEAR(over->limit, 0.9 * W * 1500, 1e3);
    const auto* slide = find(all, "sliding");
    ASSERT_NE(slide, nullptr);
    // Approach 1, second combination: G 1.0, wind 1.3, tan of the friction over 1.25; first: wind 1.5.
    const double second = 1.3 * 30e3 / ((W - 120e3) * std::tan(25 * M_PI / 180) / 1.25),
                 first = 1.5 * 30e3 / ((W * 1.35 - 1.35 * 120e3) * std::tan(25 * M_PI / 180)),
                 low = 1.5 * 30e3 / ((W - 120e3) * std::tan(25 * M_PI / 180));
    EXPECT_NEAR(checks::ratio(*slide), std::max({first, second, low}), 1e-3 * second);
}

// A square pad has the same bars both ways, where that is not much more steel, and they carry.
TEST(Pad, SquareOnesHaveTheSameBarsBothWays) {
    std::mt19937 random(11);
    int same = 0;
    constexpr int all = 60;
    for (int k = 0; k < all; ++k) {
        auto set = one(200e3 + 30e3 * double(random() % 60), 100e3 + 10e3 * double(random() % 60));
        set.ground.allowable = 0.1 + 0.01 * double(random() % 25);
        const bases::Context in(set, basis(), k % 2 ? aci() : en());
        const bases::Pad pad(in, set.bases[0]);
        const auto d = pad.solve();
        ASSERT_TRUE(d.possible()) << d.trouble;
        ASSERT_EQ(d.size.B, d.size.L);
        for (const auto& c : pad.checks(d, {"f1", model::PartKind::Base, "b1"}, false))
            EXPECT_NE(c.outcome, checks::Outcome::Over) << k << " " << c.title;
        const auto &x = d.bottom[0], &y = d.bottom[1];
        // By ACI 318-19 the cover of the inner layer may ask for closer bars there.
        if (x.text() == y.text())
            same += k % 2 == 0;
        else
            EXPECT_GT(std::max(x.area(), y.area()), 1.1 * std::min(x.area(), y.area())) << k;
    }
    EXPECT_GT(same, all / 2 * 8 / 10);
}

// On rock: the bars along x are deeper and would be thinner ones; the thinner bar closer together serves
// both.
TEST(Pad, SquareOnesHaveTheThinnerBarBothWaysWhereTheHeavierIsTooMuch) {
    auto set = one(2500e3, 1500e3);
    set.columns[0].width = set.columns[0].depth = 500;
    set.ground.allowable = 1.5, set.ground.depth = 1200;
    const bases::Context in(set, basis(), en());
    const bases::Pad pad(in, set.bases[0]);
    const auto d = pad.solve();
    ASSERT_TRUE(d.possible()) << d.trouble;
    ASSERT_EQ(d.size.B, d.size.L);
    EXPECT_EQ(d.bottom[0].text(), d.bottom[1].text());
    // By hand: M at the face of the inner layer by the net pressure, z = 0.9 d.
    const double p = (1.35 * 2500e3 + 1.5 * 1500e3) / (d.size.B * d.size.B), a = (d.size.B - 500) / 2,
                 need = p * d.size.B * a * a / 2 / (0.9 * d.d[1] * 500 / 1.15);
    EXPECT_GT(d.bottom[1].area(), 0.97 * need);
    EXPECT_LT(d.bottom[1].area(), 1.7 * need) << "cracks ask for half as much again";
    for (const auto& c : pad.checks(d, {"f1", model::PartKind::Base, "b1"}, false))
        EXPECT_NE(c.outcome, checks::Outcome::Over) << c.title;
}

// Below a column of 1,200 by 300: the same overhang all round, with a good deal less concrete than a square;
// the other way about the plan turns with it. A pinned side and a ratio stay as they are.
TEST(Pad, AColumnMuchLongerThanWideHasTheSameOverhangAllRound) {
    auto set = one(1300e3, 550e3);
    set.columns[0].width = 1200, set.columns[0].depth = 300;
    set.ground.allowable = 0.2, set.ground.depth = 1200;
    auto solved = [&] {
        const bases::Context in(set, basis(), en());
        const bases::Pad pad(in, set.bases[0]);
        const auto d = pad.solve();
        EXPECT_TRUE(d.possible()) << d.trouble;
        for (const auto& c : pad.checks(d, {"f1", model::PartKind::Base, "b1"}, false))
            EXPECT_NE(c.outcome, checks::Outcome::Over) << c.title;
        return d.size;
    };
    const auto s = solved();
    EXPECT_NEAR(s.B - s.L, 900, 50 + 1e-6);
    // By hand: N/(p - w) is the area, 3.5 by 2.7 m to the next steps.
    const double w = 25e-6 * s.h + set.ground.soil * (1200 - s.h), area = 1850e3 / (0.2 - w);
    EXPECT_GE(s.B * s.L, area);
    EXPECT_LT((s.B - 50) * (s.L - 50), 1.05 * area);
    set.bases[0].ratio = 1;
    const auto square = solved();
    EXPECT_EQ(square.B, square.L);
    EXPECT_LT(s.B * s.L * s.h, 0.9 * square.B * square.L * square.h);
    set.bases[0].ratio = 0;
    std::swap(set.columns[0].width, set.columns[0].depth);
    const auto turned = solved();
    EXPECT_NEAR(turned.L - turned.B, 900, 50 + 1e-6);
    set.bases[0].B = 3000;
    EXPECT_EQ(solved().B, 3000);
}
