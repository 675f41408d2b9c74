// Pressure under a rigid base against equilibrium summed over a grid of points, statics where the whole base
// or a strip of it presses, and properties over random bases.
#include "ground/rigid_base.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

using namespace talvik;
using namespace talvik::ground;

namespace {

Ring box(double B, double L) {
    return {{-B / 2, -L / 2}, {B / 2, -L / 2}, {B / 2, L / 2}, {-B / 2, L / 2}};
}
// Force and moments of the pressure, point by point.
Resultant summed(const Ring& base, const Pressure& p, int n = 700) {
    double x0 = 1e300, x1 = -1e300, y0 = 1e300, y1 = -1e300;
    for (Point q : base)
        x0 = std::min(x0, q.x), x1 = std::max(x1, q.x), y0 = std::min(y0, q.y), y1 = std::max(y1, q.y);
    Resultant r;
    const double dx = (x1 - x0) / n, dy = (y1 - y0) / n;
    for (int i = 0; i < n; ++i)
        for (int k = 0; k < n; ++k) {
            const Point q{x0 + (i + 0.5) * dx, y0 + (k + 0.5) * dy};
            if (!geometry::contains(base, q)) continue;
            const double f = p.at(q) * dx * dy;
            r.N += f, r.alongX += f * q.x, r.alongY += f * q.y;
        }
    return r;
}

}  // namespace

TEST(RigidBase, WholeBaseAndTriangleByHand) {
    const auto even = pressure(box(2000, 3000), {600e3, 0, 0});
    ASSERT_TRUE(even.good());
    EXPECT_NEAR(even.largest, 0.1, 1e-12);
    EXPECT_NEAR(even.share, 1, 1e-12);
    // Within the kern: N/A + M/W.
    const auto kern = pressure(box(2000, 3000), {600e3, 0, 120e6});
    EXPECT_NEAR(kern.largest, 0.1 + 120e6 / (2000.0 * 3000 * 3000 / 6), 1e-9);
    // Beyond it along one axis: a triangle three times as long as the resultant is from the edge.
    const auto part = pressure(box(2000, 3000), {600e3, 0, 600e3 * 1000.0});
    EXPECT_NEAR(part.share, 0.5, 1e-9);
    EXPECT_NEAR(part.largest, 2 * 600e3 / (1500.0 * 2000), 1e-9);
}

TEST(RigidBase, EquilibriumOnRandomBases) {
    std::mt19937 random(5);
    auto between = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(random); };
    int lifted = 0;
    for (int k = 0; k < 60; ++k) {
        // A rectangle, or one with a corner cut off, turned and moved.
        const double B = between(800, 5000), L = between(800, 5000);
        Ring base = box(B, L);
        if (k % 3 == 0) base = {{-B / 2, -L / 2}, {B / 2, -L / 2}, {B / 2, 0}, {0, L / 2}, {-B / 2, L / 2}};
        const double t = between(0, 3), c = std::cos(t), s = std::sin(t);
        const Point off{between(-2000, 2000), between(-2000, 2000)};
        for (Point& p : base) p = {off.x + c * p.x - s * p.y, off.y + s * p.x + c * p.y};
        const double N = between(100e3, 5000e3);
        const Point o = geometry::centroid(base);
        Point e;
        do e = {o.x + between(-0.45, 0.45) * B, o.y + between(-0.45, 0.45) * L};
        while (!geometry::contains(base, e) || geometry::distanceToEdge(base, e) < 0.04 * std::min(B, L));
        const auto p = pressure(base, {N, N * e.x, N * e.y});
        ASSERT_TRUE(p.good()) << k << " " << p.trouble;
        const auto r = summed(base, p);
        EXPECT_NEAR(r.N, N, 0.012 * N) << k << " contact " << p.share;
        EXPECT_NEAR(r.at().x, e.x, 0.008 * (B + L)) << k;
        EXPECT_NEAR(r.at().y, e.y, 0.008 * (B + L)) << k;
        EXPECT_LE(p.share, 1 + 1e-12);
        lifted += p.share < 0.999;
        // Twice the load, twice the pressure; the same turned over.
        const auto twice = pressure(base, {2 * N, 2 * N * e.x, 2 * N * e.y});
        EXPECT_NEAR(twice.largest, 2 * p.largest, 1e-6 * twice.largest);
    }
    EXPECT_GT(lifted, 20);
}

// A thousand loads against a base cut into cells, each a spring that pushes and does not pull: contact is found
// by letting go what pulls and taking back what closes, over and over, with no integral of the exact one.
TEST(RigidBase, AThousandLoadsAgainstCells) {
    std::mt19937 random(12);
    auto between = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(random); };
    int lifted = 0;
    for (int k = 0; k < 1000; ++k) {
        const double B = between(900, 4000), L = between(900, 4000), N = between(200e3, 3000e3);
        const double ex = between(-0.4, 0.4) * B, ey = between(-0.4, 0.4) * L;
        if (std::abs(ex) / B + std::abs(ey) / L > 0.42) continue;  // nearly on an edge: few cells are left
        const auto exact = rectanglePressure(B, L, {N, N * ex, N * ey});
        ASSERT_TRUE(exact.good()) << exact.trouble;
        constexpr int n = 60;
        std::vector<double> x, y;
        for (int i = 0; i < n; ++i)
            for (int j = 0; j < n; ++j) x.push_back(((i + 0.5) / n - 0.5) * B), y.push_back(((j + 0.5) / n - 0.5) * L);
        const double cell = B * L / n / n;
        std::vector<char> on(x.size(), 1);
        double p[3] = {0, 0, 0};
        for (int round = 0; round < 200; ++round) {
            double m[3][4] = {};
            for (std::size_t c = 0; c < x.size(); ++c) {
                if (!on[c]) continue;
                const double f[3] = {1, x[c], y[c]};
                for (int r = 0; r < 3; ++r)
                    for (int q = 0; q < 3; ++q) m[r][q] += f[r] * f[q] * cell;
            }
            m[0][3] = N, m[1][3] = N * ex, m[2][3] = N * ey;
            for (int r = 0; r < 3; ++r)
                for (int q = 0; q < 3; ++q) {
                    if (q == r) continue;
                    const double s = m[q][r] / m[r][r];
                    for (int t = 0; t < 4; ++t) m[q][t] -= s * m[r][t];
                }
            for (int r = 0; r < 3; ++r) p[r] = m[r][3] / m[r][r];
            bool changed = false;
            for (std::size_t c = 0; c < x.size(); ++c) {
                const char now = p[0] + p[1] * x[c] + p[2] * y[c] > 0;
                changed = changed || now != on[c], on[c] = now;
            }
            if (!changed) break;
        }
        double largest = 0, share = 0;
        for (double sx : {-1.0, 1.0})
            for (double sy : {-1.0, 1.0}) largest = std::max(largest, p[0] + p[1] * sx * B / 2 + p[2] * sy * L / 2);
        for (char c : on) share += c / double(on.size());
        EXPECT_NEAR(exact.largest, largest, 0.03 * largest) << k << " " << ex / B << " " << ey / L;
        EXPECT_NEAR(exact.share, share, 0.02) << k;
        lifted += exact.share < 0.999;
    }
    EXPECT_GT(lifted, 400);
}

TEST(RigidBase, ResultantOutsideSaysByHowMuch) {
    const auto p = pressure(box(2000, 2000), {100e3, 100e3 * 1250, 0});
    EXPECT_FALSE(p.good());
    EXPECT_NEAR(p.outside, 250, 1e-6);
    EXPECT_NE(p.trouble.find("250 mm"), std::string::npos);
    EXPECT_FALSE(pressure(box(2000, 2000), {-5, 0, 0}).good());
    EXPECT_FALSE(pressure(box(2000, 2000), {100e3, 100e3 * 1000, 0}).good()) << "on the edge";
    EXPECT_EQ(p.at({0, 0}), 0);
}

TEST(RigidBase, LeastSideJustPasses) {
    for (double M : {0.0, 40e6, 120e6}) {
        const auto s = leastSide(900e3, M, M / 2, 0.02, 0.25);
        const double all = 900e3 + 0.02 * s.byEdge * s.byEdge;
        const auto p = pressure(box(s.byEdge, s.byEdge), {all, M / 2, M});
        EXPECT_NEAR(p.largest, 0.25, 1e-5);
        EXPECT_LE(s.byEffectiveArea, s.byEdge + 1e-6) << "a uniform pressure spreads further";
    }
    EXPECT_EQ(leastSide(900e3, 0, 0, 0.3, 0.25).byEdge, 0) << "its own weight is too much";
}
