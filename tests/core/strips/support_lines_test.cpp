// Lines of supports in plans that are not regular.
#include "strips/support_lines.h"

#include <gtest/gtest.h>

namespace talvik {
namespace {

using strips::Support;
using strips::SupportLines;

model::Floor slab(model::Outline outline) {
    model::Floor f;
    f.id = "f";
    f.slabs.push_back({"d1", "S", std::move(outline), 250});
    return f;
}
void column(model::Floor& f, double x, double y) {
    f.columns.push_back({"c" + std::to_string(f.columns.size() + 1), "", x, y});
}
SupportLines linesOf(const model::Floor& f, double angle = 0) {
    return SupportLines(f, angle, {model::ring(f.slabs[0].outline)});
}
const model::Outline hall{{-300, -300}, {18300, -300}, {18300, 12300}, {-300, 12300}};

TEST(SupportLines, ARowThatWavesIsOneLine) {
    auto f = slab(hall);
    for (int i = 0; i < 4; ++i) column(f, 6000.0 * i, 6000 + (i % 2 ? 700 : -700));
    auto l = linesOf(f);
    ASSERT_EQ(l.lines().size(), 1u);
    const auto& line = l.lines().front();
    EXPECT_EQ(line.supports.size(), 4u);
    EXPECT_NEAR(line.v(3000), 6000, 1e-9) << "half-way between two of them";
    EXPECT_NEAR(line.v(6000), 6700, 1e-9);
    EXPECT_NEAR(line.spanAt(7000), 6000, 1e-9);
    for (std::size_t i = 1; i < line.out.points.size(); ++i)
        EXPECT_GT(line.out.points[i].x, line.out.points[i - 1].x);
}

TEST(SupportLines, AStepAsideBeginsAnother) {
    auto f = slab(hall);
    for (double x : {0.0, 6000.0}) column(f, x, 2000);
    for (double x : {12000.0, 18000.0}) column(f, x, 9000);
    auto l = linesOf(f);
    ASSERT_EQ(l.lines().size(), 2u);
    EXPECT_LT(l.lines()[0].v(3000), l.lines()[1].v(15000)) << "lowest first";
    for (const auto& line : l.lines()) EXPECT_EQ(line.supports.size(), 2u);
}

TEST(SupportLines, DoNotPassWhereThereIsNoSlab) {
    // A U: the row along its upper end is interrupted by the court.
    auto f = slab({{-300, -300},
                   {18300, -300},
                   {18300, 12300},
                   {13000, 12300},
                   {13000, 4000},
                   {5000, 4000},
                   {5000, 12300},
                   {-300, 12300}});
    for (double x : {0.0, 4700.0, 13300.0, 18000.0}) column(f, x, 11000);
    for (double x : {0.0, 6000.0, 12000.0, 18000.0}) column(f, x, 1000);
    auto l = linesOf(f);
    ASSERT_EQ(l.lines().size(), 3u);
    EXPECT_EQ(l.lines()[0].supports.size(), 4u);
    EXPECT_EQ(l.lines()[1].supports.size(), 2u);
    EXPECT_EQ(l.lines()[2].supports.size(), 2u);
}

TEST(SupportLines, AColumnOnABeamBelongsToIt) {
    auto f = slab(hall);
    f.beams.push_back({"b1", "B", {0, 6000}, {18000, 6000}, 300, 600});
    for (double x : {0.0, 9000.0, 18000.0}) column(f, x, 6100);
    auto l = linesOf(f);
    ASSERT_EQ(l.lines().size(), 1u);
    EXPECT_TRUE(l.lines()[0].beam && l.lines()[0].columns);
    EXPECT_EQ(l.lines()[0].supports.size(), 3u) << "the beam is no support of a strip along it";
    // Across it, the beam is what holds.
    f.columns.clear();
    std::vector<Support> met;
    linesOf(f, 90).addCrossing(met, {{-300, -9000}, {12300, -9000}});
    ASSERT_EQ(met.size(), 1u);
    EXPECT_EQ(met[0].kind, Support::Kind::Beam);
    EXPECT_NEAR(met[0].u, 6000, 1e-6);
    EXPECT_NEAR(met[0].to - met[0].from, 300, 1e-6);
}

TEST(SupportLines, ASlabThatSpansOneWayIsHeldByWhatCrosses) {
    auto f = slab(hall);
    for (double x : {0.0, 6000.0, 12000.0, 18000.0})
        f.walls.push_back({"w" + std::to_string(int(x) / 6000 + 1), "", {x, 0}, {x, 12000}, 200});
    EXPECT_TRUE(linesOf(f, 0).lines().empty());
    auto across = linesOf(f, 90);
    EXPECT_EQ(across.lines().size(), 4u);
    for (const auto& line : across.lines()) {
        EXPECT_TRUE(line.wall);
        EXPECT_FALSE(line.onLines());
    }
}

TEST(SupportLines, WhatTouchesIsOneSupport) {
    auto at = [](Support::Kind kind, const char* id, double from, double to) {
        Support p;
        p.kind = kind, p.id = id, p.name = id, p.u = (from + to) / 2, p.from = from, p.to = to;
        return p;
    };
    std::vector<Support> all{
        at(Support::Kind::Column, "c2", 8800, 9200), at(Support::Kind::Wall, "w1", 800, 1200),
        at(Support::Kind::Beam, "b1", 4900, 5100), at(Support::Kind::Column, "c1", 1000, 1400)};
    strips::joinTouching(all);
    ASSERT_EQ(all.size(), 3u);
    EXPECT_EQ(all[0].id, "c1") << "a column keeps its name";
    EXPECT_EQ(all[0].from, 800);
    EXPECT_EQ(all[0].to, 1400);
    EXPECT_TRUE(all[1].onBeam);
    EXPECT_EQ(all[2].id, "c2");
    EXPECT_TRUE(strips::smaller("c9", "c10"));
    EXPECT_FALSE(strips::smaller("c10", "c9"));
}

}  // namespace
}  // namespace talvik
