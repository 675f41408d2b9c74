// Steps of level against small cases by hand and against sampling of random slabs.
#include "model/steps.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "support/regular_floor.h"

using namespace talvik;
using geometry::Point;

namespace {

model::SlabArea slab(const char* id, double x0, double y0, double x1, double y1, double level,
                     double thickness) {
    model::SlabArea s{id, id, test::rectangle(x0, y0, x1, y1), thickness};
    s.level = level;
    return s;
}
bool in(const std::vector<geometry::Ring>& rings, Point p) {
    for (const auto& r : rings)
        if (geometry::contains(r, p)) return true;
    return false;
}

}  // namespace

TEST(Steps, LevelSlabsHaveNone) {
    model::Floor f;
    f.slabs = {slab("a", 0, 0, 4000, 3000, 0, 200), slab("b", 4000, 0, 9000, 3000, 0, 200)};
    EXPECT_EQ(model::faceLevels(f, true).size(), 1u);
    EXPECT_EQ(model::faceLevels(f, false).size(), 1u);
    double length = 0;
    for (const auto& s : model::slabSides(f)) {
        EXPECT_EQ(s.beside, -1);
        length += geometry::length(s.along.a, s.along.b);
    }
    EXPECT_NEAR(length, 24000, 0.1);
}

TEST(Steps, ALowerSlabBesideAnother) {
    model::Floor f;
    f.slabs = {slab("a", 0, 0, 4000, 3000, 0, 250), slab("b", 4000, 0, 9000, 3000, -100, 250)};
    EXPECT_DOUBLE_EQ(model::passing(f.slabs[0], f.slabs[1]), 150);
    const auto tops = model::faceLevels(f, true), soffits = model::faceLevels(f, false);
    ASSERT_EQ(tops.size(), 2u);
    ASSERT_EQ(soffits.size(), 2u);
    // Top bars of b pass below those of a; those of a end. Bottom bars of a pass above those of b.
    EXPECT_DOUBLE_EQ(tops[0].height, -100);
    EXPECT_TRUE(tops[0].missing.empty());
    EXPECT_TRUE(in(tops[0].others, {2000, 1500}));
    EXPECT_TRUE(in(tops[1].missing, {6000, 1500}));
    EXPECT_DOUBLE_EQ(soffits[1].height, -250);
    EXPECT_TRUE(soffits[1].missing.empty());
    EXPECT_TRUE(in(soffits[0].missing, {2000, 1500}));
    // Both have a face that ends at the step.
    int ending = 0;
    for (const auto& s : model::slabSides(f))
        if (s.beside >= 0) {
            ++ending;
            EXPECT_NEAR(s.along.a.x, 4000, 1e-6);
            EXPECT_NEAR(s.along.b.x, 4000, 1e-6);
            EXPECT_NE(int(s.slab), s.beside);
        }
    EXPECT_EQ(ending, 2);
    // A bar that crosses: below the higher top, above the lower soffit.
    const model::Levels levels(f);
    EXPECT_DOUBLE_EQ(levels.at({6000, 10}), -100);
    EXPECT_DOUBLE_EQ(levels.ofBar({{3500, 1500}, {8000, 1500}}, true), -100);
    EXPECT_DOUBLE_EQ(levels.ofBar({{1000, 1500}, {4500, 1500}}, false), 0);
    EXPECT_DOUBLE_EQ(levels.ofBar({{4200, 1500}, {8500, 1500}}, false), -100);
}

TEST(Steps, OneSoffitAndOneTopOnly) {
    model::Floor f;
    f.slabs = {slab("a", 0, 0, 4000, 3000, 0, 250), slab("b", 4000, 0, 9000, 3000, 0, 400)};
    EXPECT_EQ(model::faceLevels(f, true).size(), 1u);
    EXPECT_EQ(model::faceLevels(f, false).size(), 2u);
    // Only the deeper one has a face that ends.
    for (const auto& s : model::slabSides(f))
        if (s.beside >= 0) {
            EXPECT_EQ(s.slab, 1u);
        }
    f.slabs[1].level = 150;  // soffits together now
    EXPECT_EQ(model::faceLevels(f, true).size(), 2u);
    EXPECT_EQ(model::faceLevels(f, false).size(), 1u);
    f.slabs[1].level = 200, f.slabs[1].thickness = 180;  // 20 above the other: only 230 and 0 are shared
    EXPECT_DOUBLE_EQ(model::passing(f.slabs[0], f.slabs[1]), -20);
    for (const auto& face : model::faceLevels(f, true)) EXPECT_FALSE(face.missing.empty());
}

// A slab sunk into a larger one, drawn over it, and random others: every side that is told has concrete of
// its slab on the left and what is said on the right; areas agree with sampling.
TEST(Steps, RandomSlabsAgreeWithSampling) {
    std::mt19937 random(5);
    for (int k = 0; k < 60; ++k) {
        model::Floor f;
        auto number = [&](int low, int high) { return low + int(random() % unsigned(high - low + 1)); };
        f.slabs.push_back(slab("a", 0, 0, 9000, 7000, 0, 250));
        f.slabs.push_back(slab("b", 9000, 0, 9000 + 100 * number(20, 50), 100 * number(30, 90),
                               50 * number(-4, 4), 50 * number(4, 8)));
        const double x = 500 * number(2, 6), y = 500 * number(2, 6);
        f.slabs.push_back(
            slab("c", x, y, x + 500 * number(2, 6), y + 500 * number(2, 5), 50 * number(-3, 3), 250));
        auto at = [&](Point p) {
            int last = -1;
            for (std::size_t i = 0; i < f.slabs.size(); ++i)
                if (geometry::contains(model::ring(f.slabs[i].outline), p)) last = int(i);
            return last;
        };
        for (const auto& s : model::slabSides(f)) {
            const double l = geometry::length(s.along.a, s.along.b);
            const Point way{(s.along.b.x - s.along.a.x) / l, (s.along.b.y - s.along.a.y) / l};
            for (double t : {0.03, 0.5, 0.97}) {
                const Point p{s.along.a.x + t * l * way.x, s.along.a.y + t * l * way.y};
                const int own = at({p.x - 3 * way.y, p.y + 3 * way.x}),
                          other = at({p.x + 3 * way.y, p.y - 3 * way.x});
                ASSERT_GE(own, 0);
                EXPECT_EQ(f.slabs[std::size_t(own)].level, f.slabs[s.slab].level);
                EXPECT_EQ(f.slabs[std::size_t(own)].thickness, f.slabs[s.slab].thickness);
                ASSERT_EQ(other < 0, s.beside < 0) << k;
                if (other < 0) continue;
                const auto &a = f.slabs[std::size_t(own)], &b = f.slabs[std::size_t(other)];
                EXPECT_TRUE(a.level > b.level || a.level - a.thickness < b.level - b.thickness);
            }
        }
        for (bool top : {false, true})
            for (const auto& face : model::faceLevels(f, top))
                for (int n = 0; n < 60; ++n) {
                    const Point p{number(0, 14000) + 0.37, number(0, 9000) + 0.41};
                    const int i = at(p);
                    if (i < 0) continue;
                    const auto& s = f.slabs[std::size_t(i)];
                    const double bottom = s.level - s.thickness, here = top ? s.level : bottom;
                    const bool alone = model::faceLevels(f, top).size() < 2;
                    if (alone) continue;
                    EXPECT_EQ(in(face.others, p), std::abs(here - face.height) > model::sameHeight);
                    // 100 mm of concrete beyond the face, in at least as high (or deep) a slab.
                    const bool there =
                        top ? s.level >= face.height - model::sameHeight && bottom <= face.height - 100
                            : bottom <= face.height + model::sameHeight && s.level >= face.height + 100;
                    EXPECT_EQ(in(face.missing, p), !there) << k;
                }
    }
}

// A slab and one 400 lower: apart along the step, less where a wall runs along it.
TEST(Steps, SlabsThatDoNotTouchAreApart) {
    model::Floor f;
    f.slabs = {{"d1", "", {{0, 0}, {6000, 0}, {6000, 5000}, {0, 5000}}, 240},
               {"d2", "", {{6000, 0}, {12000, 0}, {12000, 5000}, {6000, 5000}}, 240}};
    EXPECT_TRUE(model::gaps(f).empty());
    auto length = [&] {
        double sum = 0;
        std::vector<std::pair<double, double>> seen;
        for (const auto& s : model::gaps(f)) {
            EXPECT_NEAR(s.a.x, 6000, 1e-6);
            EXPECT_NEAR(s.b.x, 6000, 1e-6);
            auto at = std::minmax(s.a.y, s.b.y);
            if (std::find(seen.begin(), seen.end(), std::pair<double, double>(at)) == seen.end())
                seen.push_back(at), sum += at.second - at.first;
        }
        return sum;
    };
    f.slabs[1].level = -100;  // 140 pass
    EXPECT_EQ(length(), 0);
    f.slabs[1].level = -400;
    EXPECT_NEAR(length(), 5000, 1e-6);
    f.walls = {{"w1", "", {6000, 1000}, {6000, 3000}, 200}};
    EXPECT_NEAR(length(), 3000, 1e-6);
    f.walls = {{"w1", "", {4000, 2500}, {8000, 2500}, 200}};  // across: joins at its own place alone
    EXPECT_NEAR(length(), 5000, 1e-6);
}
