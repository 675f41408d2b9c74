// Bars of strips that take what is usual around where it costs them little: against the same strips each with
// its least steel.
#include <gtest/gtest.h>

#include <algorithm>
#include <random>
#include <set>

#include "bars/bar_choices.h"
#include "bars/steel.h"
#include "design/floor_design.h"
#include "support/random_floor.h"
#include "support/regular_floor.h"

using namespace talvik;

TEST(StripProposal, TakesWhatIsUsualWhereItCostsLittle) {
    std::size_t alone = 0, together = 0;
    int floors = 0;
    double least = 0, given = 0;
    for (unsigned seed = 1; seed <= 30; ++seed) {
        auto p = model::emptyProject();
        auto f = test::randomFloor(seed);
        f.grounds.clear();
        p.floors.push_back(std::make_shared<const model::Floor>(std::move(f)));
        const auto d = design::designFloor(p, 0, {}, false);
        if (!d || !d->layout) continue;
        ++floors;
        for (int direction : {0, 1})
            for (bool top : {false, true}) {
                std::set<std::pair<std::string, double>> own, usual;
                for (const auto& s : d->strips) {
                    if (s->direction != direction || !s->bands.empty() || s->distribution > 0) continue;
                    const line::LineBasis in{*d->basis, *d->standard, s->outerTop, s->outerBottom,
                                             0,         s->twoWay()};
                    auto propose = [&](const std::vector<bars::BarChoice>& choices) {
                        return bars::proposeStrip(*s->strip, s->stations(), s->demand, top, in, {}, {},
                                                  choices);
                    };
                    const auto plain = propose({}), like = propose(d->usual[std::size_t(direction)][top]);
                    double a = 0, b = 0;
                    for (const auto& r : plain) own.insert({r.bar, r.spacing}), a += r.area * (r.to - r.from);
                    for (const auto& r : like)
                        usual.insert({r.bar, r.spacing}), b += r.area * (r.to - r.from);
                    // Little more, even where bars of another size are anchored farther.
                    EXPECT_LE(b, 1.3 * a + 1e-9) << d->name << " " << s->name;
                    least += a, given += b;
                }
                alone += own.size(), together += usual.size();
            }
    }
    EXPECT_GT(floors, 20);
    EXPECT_LT(together, 0.92 * double(alone));
    EXPECT_LT(given, 1.05 * least);
}

// A choice that is usual but does not suffice is not taken, nor one that costs much more.
TEST(StripProposal, UsualIsNoReasonForTooLittleOrMuchMore) {
    const auto p = test::regularFloor(3, 3, 6000, 6000, 240);
    const auto d = design::designFloor(p, 0, {}, false);
    ASSERT_TRUE(d && d->layout);
    const auto& s = *d->strips.front();
    const line::LineBasis in{*d->basis, *d->standard, s.outerTop, s.outerBottom, 0, s.twoWay()};
    const auto plain = bars::proposeStrip(*s.strip, s.stations(), s.demand, true, in, {}, {}, {});
    ASSERT_FALSE(plain.empty());
    const auto all = bars::barChoices(d->basis->mainBars, d->basis->spacingMost, *d->basis, *d->standard);
    for (const auto& c : all) {
        const auto with = bars::proposeStrip(*s.strip, s.stations(), s.demand, true, in, {}, {}, {c});
        ASSERT_EQ(with.size(), plain.size());
        for (std::size_t i = 0; i < with.size(); ++i) {
            EXPECT_GE(with[i].area, plain[i].area * (1 - 1e-9));
            EXPECT_LE(with[i].area, plain[i].area * bars::littleMore + 1e-9);
        }
    }
}

// Against all ways to keep some of few choices: the last is always kept, the others go to the next kept
// above.
TEST(StripProposal, UsualChoicesAreTheBestOfAll) {
    const auto basis = model::emptyProject().basis;
    const auto standard = standards::makeStandard(basis.standard, basis.parameters);
    const auto choices = bars::barChoices(basis.mainBars, basis.spacingMost, basis, *standard);
    std::mt19937 random(2);
    int merged = 0;
    for (int k = 0; k < 200; ++k) {
        std::vector<std::pair<bars::BarChoice, double>> own;
        std::set<std::size_t> taken;
        while (taken.size() < 2 + random() % 8) taken.insert(random() % choices.size());
        double all = 0;
        for (std::size_t i : taken)
            own.push_back({choices[i], 1.0 + double(random() % 100)}), all += own.back().second;
        const std::size_t n = own.size();
        double best = 1e300;
        std::size_t bestSet = 0;
        for (std::size_t set = 0; set < (std::size_t(1) << n); ++set) {
            if (!(set >> (n - 1) & 1)) continue;
            double cost = 0;
            for (std::size_t i = 0; i < n; ++i) {
                std::size_t to = i;
                while (!(set >> to & 1)) ++to;
                const double more = own[to].first.area() / own[i].first.area();
                cost += more > bars::littleMore ? 1e300 : own[i].second * (more - 1);
                cost += (set >> i & 1) ? 0.02 * all : 0;
            }
            if (cost < best - 1e-9) best = cost, bestSet = set;
        }
        std::vector<std::pair<std::string, double>> want, is;
        for (std::size_t i = 0; i < n; ++i)
            if (bestSet >> i & 1) want.push_back({own[i].first.bar->name, own[i].first.spacing});
        std::shuffle(own.begin(), own.end(), random);
        for (const auto& c : bars::usualChoices(own)) is.push_back({c.bar->name, c.spacing});
        EXPECT_EQ(is, want) << k;
        merged += is.size() < n;
    }
    EXPECT_GT(merged, 50);
}
