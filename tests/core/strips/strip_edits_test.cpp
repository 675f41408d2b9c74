// Edits of strips on random floors: whatever someone does, every point stays in one strip per direction, and
// what is given back is as it was.
#include "strips/strip_edits.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numbers>
#include <random>

#include "model/edits.h"
#include "support/random_floor.h"

namespace talvik {
namespace {

using strips::Strip;
using strips::StripLayout;

// A random floor with strips along its own sides.
model::Floor floorOf(unsigned seed) {
    auto f = test::randomFloor(seed);
    const auto &a = f.slabs[0].outline[1], &b = f.slabs[0].outline[2];
    double turn = std::atan2(b.y - a.y, b.x - a.x) * 180 / std::numbers::pi - 90;
    f.strips.rules = {true, {turn, turn + 90}};
    return f;
}

void expectCovered(const StripLayout& l, unsigned seed, const char* after) {
    for (int d : {0, 1}) {
        EXPECT_LT(l.coverage[d].uncovered, 1) << "seed " << seed << " after " << after << " direction " << d;
        EXPECT_LT(l.coverage[d].overlapped, 1) << "seed " << seed << " after " << after << " direction " << d;
    }
}

bool holds(const Strip& s, model::Point p) {
    for (const auto& part : s.parts)
        if (geometry::contains(part, p)) return true;
    return false;
}

TEST(StripEdits, EdgesLieBetweenTheStripAndItsNeighbour) {
    int points = 0;
    for (unsigned seed = 1; seed <= 60; ++seed) {
        auto f = floorOf(seed);
        auto l = strips::layStrips(f);
        for (const auto& s : l.strips)
            for (const auto& e : strips::edgesOf(l, s)) {
                ASSERT_GE(e.path.size(), 2u);
                EXPECT_GT(e.offset, 0);
                const Strip* owner = nullptr;
                for (const auto& o : l.strips)
                    if (o.line == e.line && o.direction == s.direction && o.kind != Strip::Kind::Middle)
                        owner = &o;
                ASSERT_TRUE(owner) << seed << " " << s.key;
                for (std::size_t i = 0; i + 1 < e.path.size(); i += 2) {
                    auto a = owner->axes.local(e.path[i]), b = owner->axes.local(e.path[i + 1]);
                    EXPECT_LT(a.x, b.x) << "in order along the strip";
                    if (b.x - a.x < 50) continue;
                    model::Point mid{(a.x + b.x) / 2, (a.y + b.y) / 2};
                    auto in = owner->axes.plan({mid.x, mid.y - 3.0 * e.side}),
                         out = owner->axes.plan({mid.x, mid.y + 25.0 * e.side});
                    EXPECT_TRUE(holds(*owner, in)) << seed << " " << s.key << " u " << mid.x;
                    bool other = false;
                    for (const auto& o : l.strips)
                        other |= o.direction == owner->direction && &o != owner && holds(o, out);
                    EXPECT_TRUE(other) << seed << " " << s.key << " u " << mid.x;
                    ++points;
                }
            }
    }
    EXPECT_GT(points, 500);
}

TEST(StripEdits, AMovedEdgeStandsWhereItWasPutAndIsGivenBack) {
    int moved = 0;
    for (unsigned seed = 1; seed <= 60; ++seed) {
        auto f = floorOf(seed);
        const auto start = f.strips;
        auto p = model::emptyProject();
        auto l = strips::layStrips(f);
        std::mt19937 random(seed);
        const Strip& s = l.strips[random() % l.strips.size()];
        auto edges = strips::edgesOf(l, s);
        if (edges.empty()) continue;
        const auto e = edges[random() % edges.size()];
        strips::moveEdge(p, f, s.direction, e, 0.8 * e.offset);
        auto after = strips::layStrips(f);
        expectCovered(after, seed, "moving an edge");
        const Strip* now = after.find(s.key);
        ASSERT_TRUE(now);
        EXPECT_TRUE(now->changed);
        for (const auto& x : strips::edgesOf(after, *now))
            if (x.line == e.line && x.side == e.side) {
                EXPECT_NEAR(x.offset, 0.8 * e.offset, 30) << seed << " " << s.key;
                ++moved;
            }
        strips::moveEdge(p, f, s.direction, e, 0.7 * e.offset);
        EXPECT_EQ(f.strips.edges.size(), 1u) << "the same edge again is the same decision";
        EXPECT_TRUE(strips::release(f, strips::layStrips(f), s.key));
        EXPECT_EQ(f.strips, start);
        EXPECT_FALSE(strips::release(f, strips::layStrips(f), s.key)) << "nothing left to give back";
    }
    EXPECT_GT(moved, 30);
}

TEST(StripEdits, AnEdgeBetweenTwoFullStripsIsOneFromBothSides) {
    int shared = 0;
    for (unsigned seed = 1; seed <= 30; ++seed) {
        auto f = floorOf(seed);
        f.strips.rules.width = model::StripChoices::Width::Full;
        auto p = model::emptyProject();
        for (int turn = 0; turn < 2; ++turn) {
            auto l = strips::layStrips(f);
            const Strip& s = l.strips.front();
            auto edges = strips::edgesOf(l, s);
            if (edges.empty() || edges.back().otherLine.empty()) break;
            const auto mine = edges.back();
            const Strip* other = l.find(mine.other);
            ASSERT_TRUE(other);
            for (const auto& theirs : strips::edgesOf(l, *other))
                if (theirs.otherLine == mine.line) {
                    strips::moveEdge(p, f, s.direction, turn == 0 ? mine : theirs,
                                     0.8 * (turn == 0 ? mine : theirs).offset);
                    EXPECT_EQ(f.strips.edges.size(), 1u);
                    auto after = strips::layStrips(f);
                    double area = after.find(s.key)->area();
                    EXPECT_TRUE(turn == 0 ? area < s.area() : area > s.area()) << seed << " turn " << turn;
                    expectCovered(after, seed, "moving a common edge");
                    ++shared;
                    break;
                }
        }
    }
    EXPECT_GT(shared, 30);
}

TEST(StripEdits, WhateverIsDoneEveryPointStaysInOneStrip) {
    int done = 0, refused = 0;
    for (unsigned seed = 1; seed <= 120; ++seed) {
        auto f = floorOf(seed);
        auto p = model::emptyProject();
        std::mt19937 random(seed);
        auto u = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(random); };
        for (int step = 0; step < 4; ++step) {
            auto l = strips::layStrips(f);
            const Strip& s = l.strips[random() % l.strips.size()];
            double at = s.from + u(0.3, 0.7) * (s.to - s.from);
            auto place = s.axes.plan({at, s.v(at) + 10});
            const auto before = f.strips;
            std::string why;
            const char* what = "";
            switch (random() % 4) {
                case 0:
                    what = "cutting across";
                    why = strips::split(p, f, l, s.key, place, false);
                    break;
                case 1:
                    what = "cutting along";
                    why = strips::split(p, f, l, s.key, place, true);
                    break;
                case 2: {
                    what = "merging";
                    auto edges = strips::edgesOf(l, s);
                    const std::string other =
                        edges.empty() ? l.strips[random() % l.strips.size()].key : edges.front().other;
                    why = strips::merge(p, f, l, s.key, other);
                    break;
                }
                default:
                    what = "turning";
                    why = strips::reAim(p, f, l, s.key, u(0, 180));
            }
            why.empty() ? ++done : ++refused;
            if (!why.empty()) {
                EXPECT_EQ(f.strips, before) << "refused, and nothing changed: " << why;
                EXPECT_EQ(why.back(), '.') << why;
                continue;
            }
            expectCovered(strips::layStrips(f), seed, what);
        }
    }
    EXPECT_GT(done, 240);
    EXPECT_GT(refused, 0);
}

TEST(StripEdits, AnEndConditionIsDecidedAndLeftToTheLayoutAgain) {
    model::Floor f;
    StripLayout l;
    auto p = model::emptyProject();
    const Strip* s = nullptr;
    for (unsigned seed = 1; seed <= 20 && !s; ++seed) {
        f = floorOf(seed);
        l = strips::layStrips(f);
        for (const auto& x : l.strips)
            if (x.spans.size() > 1 && x.spans[0].left >= 0 && x.spans[0].right >= 0) s = &x;
    }
    ASSERT_TRUE(s);
    const auto found = s->spans[0].ends[0];
    const auto other =
        found == model::EndCondition::Free ? model::EndCondition::Continuous : model::EndCondition::Free;
    strips::setEnd(p, f, *s, 0, 1, other);
    const std::string key = s->key;
    auto after = strips::layStrips(f);
    EXPECT_EQ(after.find(key)->spans[0].ends[0], other);
    EXPECT_TRUE(after.find(key)->spans[0].overruled[0]);
    EXPECT_FALSE(after.find(key)->spans[0].overruled[1]);
    strips::setEnd(p, f, *s, 0, 1, found);  // as the layout says: not an overruling
    EXPECT_FALSE(strips::layStrips(f).find(key)->spans[0].overruled[0]);
    strips::setEnd(p, f, *s, 0, 1, std::nullopt);
    EXPECT_TRUE(f.strips.ends.empty());
}

TEST(StripEdits, DrawingNeedsAnOutlineThatHoldsSomething) {
    auto f = floorOf(3);
    auto p = model::emptyProject();
    const auto start = f.strips;
    EXPECT_NE(strips::draw(p, f, 0, 0, {{0, 0}, {1000, 0}}), "");
    EXPECT_NE(strips::drawArea(p, f, {0, 90}, {{0, 0}, {1000, 0}}), "");
    EXPECT_EQ(f.strips, start);
}

}  // namespace
}  // namespace talvik
