// Symmetric floors have symmetric answers: equal bars at mirrored places, equal ratios.
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <random>

#include "design/floor_design.h"
#include "model/edits.h"
#include "support/regular_floor.h"

namespace talvik {
namespace {

// Mirrored about the middle of x; random spans, sizes, walls, beams, openings and loads in pairs. `middle`:
// of x.
model::Project symmetric(unsigned seed, double& middle) {
    std::mt19937 random(seed);
    auto u = [&](double low, double high) {
        return std::uniform_real_distribution<double>(low, high)(random);
    };
    auto coin = [&](double p) { return u(0, 1) < p; };
    const int half = 1 + int(u(0, 2)), ny = 2 + int(u(0, 3));
    std::vector<double> x{0}, y{0};
    std::vector<double> spans;
    for (int i = 0; i < half; ++i) spans.push_back(std::round(u(4500, 7500)));
    std::vector<double> all = spans;
    if (coin(0.5)) all.push_back(std::round(u(4500, 7500)));
    all.insert(all.end(), spans.rbegin(), spans.rend());
    for (double s : all) x.push_back(x.back() + s);
    for (int k = 1; k < ny; ++k) y.push_back(y.back() + std::round(u(4500, 7000)));
    const double W = x.back(), H = y.back(), over = coin(0.5) ? 200 : u(300, 1500);
    middle = W / 2;
    auto p = test::regularFloor(2, 2, W, H, std::round(u(200, 320)), over);
    return model::editFloor(p, "f1", [&](model::Floor& f, model::Project&) {
        f.columns.clear();
        int next = 100;
        auto id = [&](char c) { return c + std::to_string(++next); };
        const std::size_t n = x.size();
        std::vector<double> sizes;
        for (std::size_t i = 0; i < n; ++i)
            sizes.push_back(i < (n + 1) / 2 ? std::round(u(300, 550)) : sizes[n - 1 - i]);
        for (std::size_t i = 0; i < n; ++i)
            for (double at : y) f.columns.push_back({id('c'), "", x[i], at, false, sizes[i], 400});
        auto both = [&](double a, double b, auto make) { make(a, b), make(W - b, W - a); };
        if (coin(0.4))
            both(x[0] + 1500, x[0] + 2900, [&](double a, double b) {
                f.openings.push_back({id('o'), "", test::rectangle(a, 1500, b, 2700)});
            });
        if (coin(0.4))
            both(x[0], x[1], [&](double a, double b) {
                f.beams.push_back({id('b'), "", {a, 0}, {b, 0}, 300, 600});
            });
        if (coin(0.3))
            both(x[0], x[0], [&](double a, double) {
                f.walls.push_back({id('w'), "", {a, y[0]}, {a, y[1]}, 200});
            });
        if (coin(0.5))
            both(x[0] + 1000, x[0] + 1000, [&](double a, double) {
                model::FloorLoad l;
                l.id = id('l'), l.loadCase = "q2", l.kind = model::FloorLoad::Kind::Line, l.value = 15;
                l.a = {a, 0}, l.b = {a, H};
                f.actions.loads.push_back(l);
            });
        f.actions.arrangement = coin(0.5) ? model::Arrangement::All : model::Arrangement::InTurn;
    });
}

}  // namespace

TEST(Symmetry, MirroredPlacesHaveEqualBarsAndRatios) {
    int floors = 0, runs = 0;
    double worst = 0;
    for (unsigned seed = 1; seed <= 100; ++seed) {
        double middle = 0;
        auto d = design::designFloor(symmetric(seed, middle), 0, {}, false);
        ASSERT_TRUE(d) << seed;
        ++floors;
        auto mirrored = [&](const design::StripDesign& s) -> const design::StripDesign* {
            if (s.strip->direction == 0) return &s;
            const double v = s.strip->v((s.strip->from + s.strip->to) / 2);  // -x
            const design::StripDesign* best = nullptr;
            for (const auto& o : d->strips)
                if (o->strip->direction == 1 && o->strip->kind == s.strip->kind &&
                    std::abs(o->strip->v((o->strip->from + o->strip->to) / 2) + 2 * middle + v) < 30)
                    best = o.get();
            return best;
        };
        for (const auto& s : d->strips) {
            const auto* other = mirrored(*s);
            ASSERT_TRUE(other) << seed << " " << s->strip->key;
            for (const auto& r : s->runs) {
                ++runs;
                const double from = s->strip->direction == 0 ? 2 * middle - r.to : r.from,
                             to = s->strip->direction == 0 ? 2 * middle - r.from : r.to;
                EXPECT_TRUE(std::any_of(other->runs.begin(), other->runs.end(),
                                        [&](const auto& o) {
                                            return o.top() == r.top() && o.band() == r.band() &&
                                                   o.bar == r.bar && o.spacing == r.spacing &&
                                                   std::abs(o.from - from) < 51 && std::abs(o.to - to) < 51;
                                        }))
                    << seed << " " << s->strip->key << (r.top() ? " top " : " bottom ") << r.bar << "-"
                    << r.spacing << " " << r.from << " to " << r.to;
            }
            const double off = std::abs(s->worst() - other->worst()) / std::max(s->worst(), 1e-9);
            worst = std::max(worst, off);
            EXPECT_LT(off, 1e-3) << seed << " " << s->strip->key;
        }
    }
    EXPECT_EQ(floors, 100);
    EXPECT_GT(runs, 1000);
    RecordProperty("worst", std::to_string(worst));
}

}  // namespace talvik
