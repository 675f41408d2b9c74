// Meshes: they cover the domain, follow lines, keep angles, grade, and mend what nearly coincides.
#include "fem/mesh/mesh.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numbers>
#include <random>
#include <set>

using namespace talvik;
using fem::Point;

namespace {

double area(const fem::Mesh& m) {
    double sum = 0;
    for (const auto& t : m.triangles) {
        Point a = m.nodes[t[0]], b = m.nodes[t[1]], c = m.nodes[t[2]];
        double twice = (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
        EXPECT_GT(twice, 0);
        sum += twice / 2;
    }
    return sum;
}
geometry::Ring box(double x0, double y0, double x1, double y1) {
    return {{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}};
}
double along(const fem::Mesh& m, int line) {
    double sum = 0;
    for (const auto& e : m.edges)
        if (e.line == line)
            sum += std::hypot(m.nodes[e.b].x - m.nodes[e.a].x, m.nodes[e.b].y - m.nodes[e.a].y);
    return sum;
}

}  // namespace

namespace {

// Two bays with a wall, a beam line askew and its mirror image, columns and an opening in each half.
fem::MeshTask symmetricTask() {
    fem::MeshTask in;
    in.slabs = {box(0, 0, 12000, 7000)};
    in.openings = {box(1500, 1000, 2700, 2500), box(9300, 1000, 10500, 2500)};
    in.size = 500;
    in.lines = {
        {{3000, 3000}, {5000, 6500}, 7}, {{7000, 6500}, {9000, 3000}, 9}, {{1000, 5000}, {11000, 5000}, 4}};
    in.points = {{4000, 1500}, {8000, 1500}, {6000, 4000}};
    for (Point p : in.points) in.fine.push_back({p, 200, 120});
    return in;
}
Point turned(Point p, double degrees, double dx, double dy) {
    double t = degrees * std::numbers::pi / 180;
    return {dx + p.x * std::cos(t) - p.y * std::sin(t), dy + p.x * std::sin(t) + p.y * std::cos(t)};
}
std::multiset<std::pair<long, long>> rounded(const std::vector<Point>& all, double step) {
    std::multiset<std::pair<long, long>> set;
    for (Point p : all) set.emplace(std::lround(p.x / step), std::lround(p.y / step));
    return set;
}

}  // namespace

TEST(Mesh, ASymmetricTaskHasASymmetricMesh) {
    auto in = symmetricTask();
    auto m = fem::makeMesh(in);
    ASSERT_EQ(m.error, "");
    EXPECT_NEAR(area(m), 12e3 * 7e3 - 2 * 1200 * 1500, 1);
    auto mirrored = m.nodes;
    for (Point& p : mirrored) p.x = 12000 - p.x;
    EXPECT_EQ(rounded(m.nodes, 0.01), rounded(mirrored, 0.01));
    // Every line keeps its length, its id and its direction; points are nodes.
    EXPECT_NEAR(along(m, 7), std::hypot(2000, 3500), 0.01);
    EXPECT_NEAR(along(m, 9), std::hypot(2000, 3500), 0.01);
    EXPECT_NEAR(along(m, 4), 10000, 0.01);
    for (const auto& e : m.edges)
        EXPECT_GT(m.nodes[std::size_t(e.b)].x, m.nodes[std::size_t(e.a)].x) << e.line;
    for (std::size_t i = 0; i < in.points.size(); ++i) {
        ASSERT_GE(m.pointNode[i], 0);
        EXPECT_NEAR(m.nodes[std::size_t(m.pointNode[i])].x, in.points[i].x, 0.01);
        EXPECT_NEAR(m.nodes[std::size_t(m.pointNode[i])].y, in.points[i].y, 0.01);
    }
    for (std::size_t t = 0; t < m.triangles.size(); ++t) {
        EXPECT_GE(m.part[t], 0);
        EXPECT_LT(m.part[t], int(m.partPoint.size()));
    }
    // One column moved: no longer symmetric, and still a mesh.
    in.points[0].x += 300;
    auto other = fem::makeMesh(in);
    ASSERT_EQ(other.error, "");
    EXPECT_NEAR(area(other), 12e3 * 7e3 - 2 * 1200 * 1500, 1);
}

TEST(Mesh, TurnedInPlanItIsTheSameMesh) {
    auto in = symmetricTask();
    in.points.pop_back();
    in.openings.pop_back();  // not symmetric
    auto m = fem::makeMesh(in);
    for (double degrees : {17.3, 90.0, 213.7}) {
        auto other = in;
        auto turn = [&](Point& p) { p = turned(p, degrees, 31234.5, -8000); };
        for (auto* rings : {&other.slabs, &other.openings})
            for (auto& r : *rings)
                for (auto& p : r) turn(p);
        for (auto& l : other.lines) turn(l.a), turn(l.b);
        for (auto& p : other.points) turn(p);
        for (auto& f : other.fine) turn(f.at);
        auto t = fem::makeMesh(other);
        auto expected = m.nodes;
        for (auto& p : expected) turn(p);
        ASSERT_EQ(t.nodes.size(), expected.size()) << degrees;
        ASSERT_EQ(t.triangles.size(), m.triangles.size()) << degrees;
        for (Point p : expected) {  // in whatever order
            double least = 1e300;
            for (Point q : t.nodes) least = std::min(least, std::hypot(p.x - q.x, p.y - q.y));
            EXPECT_LT(least, 0.01);
        }
    }
}

TEST(Mesh, CoversTheSlabLessItsOpenings) {
    fem::MeshTask in;
    in.slabs = {box(0, 0, 12000, 8000), box(12000, 2000, 15000, 6000)};
    in.openings = {box(3000, 3000, 5000, 4500)};
    in.lines = {
        {{0, 5000}, {9000, 5000}, 7}, {{9000, 1000}, {9000, 8000}, 8}, {{1000, 1000}, {2000, 2500}, 9}};
    in.points = {{6000, 2000}, {20000, 0}};
    in.size = 600;
    auto m = fem::makeMesh(in);
    ASSERT_EQ(m.error, "");
    EXPECT_NEAR(area(m), 96e6 + 12e6 - 3e6, 1);
    EXPECT_GT(m.smallestAngle, 22);
    EXPECT_NEAR(along(m, 7), 9000, 1e-6);
    EXPECT_NEAR(along(m, 8), 7000, 1e-6);
    EXPECT_NEAR(along(m, 9), std::hypot(1000, 1500), 1e-6);
    ASSERT_GE(m.pointNode[0], 0);
    EXPECT_EQ(m.nodes[m.pointNode[0]], (Point{6000, 2000}));
    EXPECT_EQ(m.pointNode[1], -1) << "outside";
    std::set<int> parts(m.part.begin(), m.part.end());
    EXPECT_EQ(parts.size(), m.partPoint.size());
    EXPECT_LT(m.longestSide, 1.75 * in.size);
}

TEST(Mesh, IsFineAtColumnsAndGrows) {
    fem::MeshTask in;
    in.slabs = {box(0, 0, 10000, 10000)};
    in.points = {{5000, 5000}};
    in.fine = {{{5000, 5000}, 200, 100}};
    in.size = 800;
    auto m = fem::makeMesh(in);
    ASSERT_EQ(m.error, "");
    double nearColumn = 0;
    for (const auto& t : m.triangles)
        for (int i = 0; i < 3; ++i) {
            Point a = m.nodes[t[i]], b = m.nodes[t[(i + 1) % 3]];
            double d = std::hypot((a.x + b.x) / 2 - 5000, (a.y + b.y) / 2 - 5000);
            double side = std::hypot(a.x - b.x, a.y - b.y);
            if (d < 200) nearColumn = std::max(nearColumn, side);
            EXPECT_LT(side, 1.9 * std::min(800.0, 100 + 0.3 * std::max(0.0, d - 200)));
        }
    EXPECT_LT(nearColumn, 190);
    EXPECT_GT(m.smallestAngle, 22);
}

TEST(Mesh, ManyRandomFloorsHaveGoodAngles) {
    std::mt19937 random(3);
    std::uniform_real_distribution<double> u(0, 1);
    for (int i = 0; i < 60; ++i) {
        fem::MeshTask in;
        double a = 5000 + 20000 * u(random), b = 5000 + 15000 * u(random), cut = 3000 * u(random) + 500;
        in.slabs = {{{0, 0}, {a, 0}, {a, b - cut}, {a - cut * (0.7 + 0.6 * u(random)), b}, {0, b}}};
        double turn = u(random) * std::numbers::pi;
        auto rotate = [&](Point p) {
            return Point{p.x * std::cos(turn) - p.y * std::sin(turn),
                         p.x * std::sin(turn) + p.y * std::cos(turn)};
        };
        for (Point& p : in.slabs[0]) p = rotate(p);
        for (int k = 0; k < 6; ++k) {
            Point p = rotate({a * (0.1 + 0.6 * u(random)), b * (0.1 + 0.6 * u(random))});
            in.points.push_back(p);
            in.fine.push_back({p, 200, 150});
        }
        in.size = 500 + 500 * u(random);
        auto m = fem::makeMesh(in);
        ASSERT_EQ(m.error, "");
        EXPECT_NEAR(area(m), geometry::area(in.slabs[0]), 1) << i;
        EXPECT_GT(m.smallestAngle, 20) << i;
    }
}

TEST(Mesh, IsTheSameEveryTime) {
    fem::MeshTask in;
    in.slabs = {box(0, 0, 12345, 6789)};
    in.lines = {{{1000, 1000}, {9000, 5000}, 1}, {{1000, 5000}, {9000, 1000}, 2}};
    in.fine = {{{3000, 3000}, 200, 90}};
    in.size = 500;
    auto a = fem::makeMesh(in), b = fem::makeMesh(in);
    EXPECT_EQ(a.nodes, b.nodes);
    EXPECT_EQ(a.triangles, b.triangles);
}

TEST(Mesh, StopsAndRefusesWhatIsTooLarge) {
    fem::MeshTask in;
    in.slabs = {box(0, 0, 10000, 10000)};
    in.size = 20;
    std::stop_source stop;
    stop.request_stop();
    EXPECT_EQ(fem::makeMesh(in, stop.get_token()).error, "stopped");
    EXPECT_NE(fem::makeMesh(in, {}, 1000).error.find("more than 1000 nodes"), std::string::npos);
    in.slabs = {{{0, 0}, {1000, 0}, {2000, 0}}};
    in.size = 100;
    EXPECT_NE(fem::makeMesh(in).error, "") << "no area";
    EXPECT_NE(fem::makeMesh({}).error, "");
}

TEST(Linework, CutsAndJoins) {
    using Line = fem::MeshTask::Line;
    {
        auto w = fem::joinLines({Line{{0, 0}, {10, 0}, 1}, Line{{5, -5}, {5, 5}, 2}}, {}, 0.1, 2);
        EXPECT_EQ(w.pieces.size(), 4u) << "crossing";
        EXPECT_EQ(w.points.size(), 5u);
    }
    {
        auto w = fem::joinLines({Line{{0, 0}, {10, 0}, 1}, Line{{5, 0.05}, {5, 5}, 2}}, {}, 0.1, 2);
        EXPECT_EQ(w.pieces.size(), 3u) << "an end near a line is on it";
    }
    {
        auto w = fem::joinLines({Line{{0, 0}, {10, 0}, 1}, Line{{2, 0}, {12, 0}, 2}}, {}, 0.1, 2);
        ASSERT_EQ(w.pieces.size(), 3u) << "overlapping lines share their middle";
        int shared = 0;
        for (const auto& p : w.pieces) shared += p.of.size() == 2;
        EXPECT_EQ(shared, 1);
    }
    {
        auto w = fem::joinLines({Line{{0, 0}, {10, 0}, 1}, Line{{0.05, 0}, {0, 10}, 2}}, {{3, 0.02}}, 0.1, 2);
        EXPECT_EQ(w.joined, 1);
        EXPECT_EQ(w.pieces.size(), 3u) << "a point cuts the line it lies on";
    }
    {  // degenerate lines vanish
        EXPECT_TRUE(fem::joinLines({Line{{1, 1}, {1, 1}, 1}}, {}, 0.1, 2).pieces.empty());
    }
}
