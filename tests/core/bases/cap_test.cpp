// Pile caps: arrangements, piles by statics, the least number and depth.
#include "bases/cap.h"

#include <gtest/gtest.h>

#include <cmath>
#include <optional>
#include <random>

#include "found.h"
#include "model/edits.h"

using namespace talvik;
using test::find;
using test::standard;

namespace {

model::BaseSet one(double G, double Q, double My = 0, double W = 0) {
    model::BaseSet set;
    set.id = "f1", set.kind = model::BaseSet::Kind::Caps;
    set.cases = {{"q1", "G", {actions::Nature::Permanent, ""}},
                 {"q2", "Q", {actions::Nature::Imposed, "E"}},
                 {"q3", "W", {actions::Nature::Wind, ""}}};
    set.columns = {{"c1", "A1", 0, 0, 600, 600, {{"q1", G}, {"q2", Q}, {"q3", W, 0, 0, 0, My}}}};
    model::Base base;
    base.id = "b1", base.columns = {"c1"};
    set.bases = {base};
    set.pile = {true, 600, 1200e3, 200e3, 0, false, 3, 150, 75, 75};
    return set;
}

}  // namespace

TEST(Cap, ArrangementsKeepTheirSpacingAndTheirMiddle) {
    for (int n : bases::pileNumbers()) {
        const auto piles = bases::pileArrangement(n, 1800);
        ASSERT_EQ(int(piles.size()), n);
        double x = 0, y = 0, nearest = 1e300;
        for (std::size_t i = 0; i < piles.size(); ++i) {
            x += piles[i].x, y += piles[i].y;
            for (std::size_t k = 0; k < i; ++k)
                nearest = std::min(nearest, geometry::length(piles[i], piles[k]));
        }
        EXPECT_NEAR(x, 0, 1e-6) << n;
        EXPECT_NEAR(y, 0, 1e-6) << n;
        if (n > 1) {
            EXPECT_NEAR(nearest, 1800, 1e-6) << n;
        }
    }
    EXPECT_TRUE(bases::pileArrangement(13, 1800).empty());
}

// Four piles by hand: weight, moment, tolerance in both directions.
TEST(Cap, ForcesOfFourPilesByHand) {
    auto set = one(2000e3, 800e3, 150e6);
    set.bases[0].piles = 4, set.bases[0].h = 900;
    set.ground.depth = 0;
    const bases::Context in(set, model::emptyProject().basis, standard());
    const bases::Cap cap(in, set.bases[0]);
    const auto d = cap.solve();
    ASSERT_EQ(d.piles.size(), 4u);
    EXPECT_EQ(d.size.B, 1800 + 600 + 300);
    const double W = 25e-6 * 900 * 2700 * 2700, N = 2000e3 + 800e3 + W;
    // 0.6 W beside the leading imposed load, or W leading with psi0 = 1 of storage.
    const double most = N / 4 + (150e6 + N * 75) / (2 * 1800) + N * 75 / (2 * 1800);
    EXPECT_NEAR(cap.pileForces(d).compression.value, most, 1);
    const auto all = cap.checks(d, {"f1", model::PartKind::Base, "b1"}, true);
    EXPECT_NEAR(find(all, "pile-compression")->demand, most, 1);
    EXPECT_EQ(find(all, "pile-tension")->outcome, checks::Outcome::NotApplicable);
    // Bending at the face: two piles 600 mm beyond it, without the weight.
    // With the load 75 mm off towards them.
    const double ultimate = 1.35 * 2000e3 + 1.5 * 800e3,
                 R = ultimate / 4 * 2 + (1.5 * 150e6 + ultimate * 75) / 1800;
    EXPECT_NEAR(find(all, "flexure-x")->demand, R * 600, 1e-3 * R * 600);
}

TEST(Cap, NumberAndDepthAreTheLeast) {
    std::mt19937 random(9);
    auto number = [&](double low, double high) { return low + (high - low) * double(random() % 1000) / 999; };
    int solved = 0;
    for (int k = 0; k < 120; ++k) {
        auto set = one(number(300, 3500) * 1e3, number(0, 2000) * 1e3, number(0, 600) * 1e6,
                       number(-400, 100) * 1e3);
        set.pile.ultimate = k % 3 == 0;
        set.columns[0].width = set.columns[0].depth = 800;
        const bases::Context in(set, model::emptyProject().basis, standard(k % 2));
        const bases::Cap cap(in, set.bases[0]);
        const auto d = cap.solve();
        if (!d.possible()) {
            EXPECT_FALSE(d.trouble.empty());
            continue;
        }
        ++solved;
        for (const auto& c : cap.checks(d, {"f1", model::PartKind::Base, "b1"}, false))
            EXPECT_NE(c.outcome, checks::Outcome::Over)
                << k << " " << c.title << " " << d.piles.size() << " " << d.size.h;
        // With one pile less (of those there are) they do not hold, at this depth or the least.
        const auto& all = bases::pileNumbers();
        const auto at = std::find(all.begin(), all.end(), int(d.piles.size())) - all.begin();
        if (at > 0) {
            auto fewer = set;
            fewer.bases[0].piles = all[std::size_t(at - 1)], fewer.bases[0].h = d.size.h;
            const bases::Context less(fewer, model::emptyProject().basis, standard(k % 2));
            const bases::Cap other(less, fewer.bases[0]);
            const auto trial = other.solve();
            bool over = false;
            for (const auto& c : other.checks(trial, {"f1", model::PartKind::Base, "b1"}, false))
                over |= c.outcome == checks::Outcome::Over;
            EXPECT_TRUE(over) << k << " " << all[std::size_t(at - 1)];
        }
        if (d.size.h > 350) {
            auto shallow = set;
            shallow.bases[0].piles = int(d.piles.size()), shallow.bases[0].h = d.size.h - 50;
            const bases::Context less(shallow, model::emptyProject().basis, standard(k % 2));
            const bases::Cap other(less, shallow.bases[0]);
            const auto trial = other.solve();
            bool over = !trial.trouble.empty();
            for (const auto& c : other.checks(trial, {"f1", model::PartKind::Base, "b1"}, false))
                over |= c.outcome == checks::Outcome::Over;
            EXPECT_TRUE(over) << k << " " << d.size.h;
        }
    }
    EXPECT_GT(solved, 90);
}

TEST(Cap, OwnPlacesPinnedNumbersAndSlips) {
    auto set = one(1500e3, 500e3);
    set.bases[0].pilesAt = {{-900, 0}, {900, 0}, {900, 100}};
    {
        const bases::Context in(set, model::emptyProject().basis, standard());
        const auto d = bases::Cap(in, set.bases[0]).solve();
        EXPECT_NE(d.trouble.find("overlap"), std::string::npos);
    }
    set.bases[0].pilesAt = {};
    set.bases[0].piles = 13;
    {
        const bases::Context in(set, model::emptyProject().basis, standard());
        const bases::Cap cap(in, set.bases[0]);
        const auto d = cap.solve();
        EXPECT_NE(d.trouble.find("13 piles"), std::string::npos);
        const auto all = cap.checks(d, {"f1", model::PartKind::Base, "b1"}, false);
        ASSERT_EQ(all.size(), 1u);
        EXPECT_EQ(all[0].outcome, checks::Outcome::Over);
    }
    // Two piles in a row carry no moment across it.
    set.bases[0].piles = 2;
    set.columns[0].actions = {{"q1", 1500e3, 0, 0, 80e6, 0}};
    const bases::Context in(set, model::emptyProject().basis, standard());
    const bases::Cap cap(in, set.bases[0]);
    const auto all = cap.checks(cap.solve(), {"f1", model::PartKind::Base, "b1"}, false);
    ASSERT_NE(find(all, "across"), nullptr);
    EXPECT_EQ(find(all, "across")->outcome, checks::Outcome::Over);
}

// Four piles 1,800 apart: their axes stand 900 from the middle, so that 100 are left of a side of 2,000 and 450 of
// 2,700, half of a pile and 150. Sides that the program finds keep it by themselves.
TEST(Cap, SidesFixedTooShortForThePilesAreTold) {
    auto set = one(2500e3, 800e3);
    set.bases[0].piles = 4;
    auto edge = [&](double B, double L) {
        set.bases[0].B = B, set.bases[0].L = L;
        const bases::Context in(set, model::emptyProject().basis, standard());
        const bases::Cap cap(in, set.bases[0]);
        const auto all = cap.checks(cap.solve(), {"f1", model::PartKind::Base, "b1"}, false);
        const auto* c = find(all, "pile-edge");
        return c ? std::optional(*c) : std::nullopt;
    };
    EXPECT_FALSE(edge(0, 0));
    for (auto [B, L] : {std::pair{2000.0, 2700.0}, {2700.0, 2000.0}}) {
        const auto c = edge(B, L);
        ASSERT_TRUE(c);
        EXPECT_EQ(c->outcome, checks::Outcome::Over);
        EXPECT_NEAR(c->demand, 100, 1e-6);
        EXPECT_NEAR(c->limit, 450, 1e-6);
        EXPECT_FALSE(c->here.empty()) << "200 of the pile lie beyond";
    }
    EXPECT_EQ(edge(2700, 2700)->outcome, checks::Outcome::Within);
    EXPECT_EQ(edge(1600, 2700)->demand, 0);
}
