// The beam solver against closed forms.
#include "fem/beam/continuous_beam.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

using namespace talvik::fem;

namespace {

Beam beam(std::vector<double> lengths, double EI = 1, bool freeStart = false, bool freeEnd = false) {
    Beam b;
    for (double l : lengths) b.spans.push_back({l, EI});
    b.supported.assign(lengths.size() + 1, true);
    if (freeStart) b.supported.front() = false;
    if (freeEnd) b.supported.back() = false;
    return b;
}

}  // namespace

TEST(ContinuousBeam, SimplySupported) {
    double L = 6, q = 3, EI = 7;
    Beam b = beam({L}, EI);
    auto s = solve(b, {{q}}).cases.at(0);
    EXPECT_NEAR(s.moment(0, L / 2), q * L * L / 8, 1e-12);
    EXPECT_NEAR(s.shear(0, 0), q * L / 2, 1e-12);
    EXPECT_NEAR(deflection(b, s, 0, L / 2), 5 * q * std::pow(L, 4) / 384 / EI, 1e-10);
}

TEST(ContinuousBeam, TwoEqualSpans) {
    auto s = solve(beam({5, 5}), {{2, 2}}).cases.at(0);
    EXPECT_NEAR(s.moment(0, 5), -2 * 25 / 8.0, 1e-10);
    EXPECT_NEAR(s.reaction[1], 1.25 * 2 * 5, 1e-10);
    EXPECT_NEAR(s.moment(0, 0.375 * 5), 9.0 / 128 * 2 * 25, 1e-10);
}

TEST(ContinuousBeam, ThreeEqualSpansKnownCoefficients) {
    auto all = solve(beam({1, 1, 1}), {{1, 1, 1}, {1, 0, 1}, {0, 1, 0}, {1, 1, 0}}).cases;
    EXPECT_NEAR(all[0].moment(0, 1), -0.1, 1e-12);
    EXPECT_NEAR(all[0].moment(1, 0.5), 0.025, 1e-12);
    EXPECT_NEAR(all[1].moment(1, 0.5), -0.05, 1e-12);
    EXPECT_NEAR(all[2].moment(1, 0.5), 0.075, 1e-12);
    EXPECT_NEAR(all[3].moment(0, 1), -7.0 / 60, 1e-12);  // adjacent spans loaded: 0.1167
}

TEST(ContinuousBeam, CantileverAndItsNeighbour) {
    double c = 2, L = 5, q = 3, EI = 11;
    Beam b = beam({L, c}, EI, false, true);
    auto s = solve(b, {{0, q}}).cases.at(0);
    EXPECT_NEAR(s.moment(1, 0), -q * c * c / 2, 1e-10);
    EXPECT_NEAR(s.reaction[0], -q * c * c / 2 / L, 1e-10);  // uplift at the far end
    EXPECT_EQ(s.reaction[2], 0);
    double M = q * c * c / 2;
    EXPECT_NEAR(s.deflection[2], M * L / (3 * EI) * c + q * std::pow(c, 4) / (8 * EI), 1e-9);
}

TEST(ContinuousBeam, TooFewSupportsIsAMechanism) {
    EXPECT_NE(solve(beam({3}, 1, true), {{1}}).error, "");
    EXPECT_NE(solve(beam({3}, 1, true, true), {{1}}).error, "");
}

// Three-moment equation, an independent route, on random unequal spans.
TEST(ContinuousBeam, AgreesWithTheThreeMomentEquation) {
    std::mt19937 random(7);
    std::uniform_real_distribution<double> length(2, 8), load(0, 10);
    for (int trial = 0; trial < 50; ++trial) {
        std::size_t n = 2 + random() % 12;
        std::vector<double> L(n), q(n);
        for (std::size_t i = 0; i < n; ++i) L[i] = length(random), q[i] = load(random);
        // Tridiagonal system for the support moments, Thomas algorithm.
        std::vector<double> a(n + 1, 0), b(n + 1, 1), c(n + 1, 0), r(n + 1, 0);
        for (std::size_t i = 1; i < n; ++i) {
            a[i] = L[i - 1], b[i] = 2 * (L[i - 1] + L[i]), c[i] = L[i];
            r[i] = -(q[i - 1] * std::pow(L[i - 1], 3) + q[i] * std::pow(L[i], 3)) / 4;
        }
        for (std::size_t i = 1; i <= n; ++i) {
            double m = a[i] / b[i - 1];
            b[i] -= m * c[i - 1], r[i] -= m * r[i - 1];
        }
        std::vector<double> M(n + 1);
        for (std::size_t i = n + 1; i-- > 0;) M[i] = (r[i] - (i < n ? c[i] * M[i + 1] : 0)) / b[i];
        auto s = solve(beam(L), {q}).cases.at(0);
        for (std::size_t i = 0; i < n; ++i)
            EXPECT_NEAR(s.moment(i, L[i]), M[i + 1], 1e-8 * (1 + std::abs(M[i + 1])));
    }
}

TEST(ContinuousBeam, MirroredBeamMirrorsItsMoments) {
    auto s = solve(beam({3, 5, 4}), {{1, 2, 3}}).cases.at(0),
         m = solve(beam({4, 5, 3}), {{3, 2, 1}}).cases.at(0);
    for (double t : {0.0, 0.3, 0.7, 1.0}) EXPECT_NEAR(s.moment(0, 3 * t), m.moment(2, 3 * (1 - t)), 1e-10);
}

TEST(Integration, UniformCurvatureIsAParabola) {
    std::vector<double> x, k;
    for (int i = 0; i <= 20; ++i) x.push_back(i * 0.5), k.push_back(2e-3);
    auto sag = integrateBetweenSupports(x, k);
    EXPECT_NEAR(sag.w[10], 2e-3 * 100 / 8, 1e-12);
    EXPECT_NEAR(sag.slopeStart, 2e-3 * 10 / 2, 1e-12);
    EXPECT_NEAR(sag.slopeEnd, -2e-3 * 10 / 2, 1e-12);
    EXPECT_NEAR(integrateFrom(0, x, k).back(), -2e-3 * 100 / 2, 1e-12);
}

// Integrating M/EI reproduces the elastic line of the solver.
TEST(Integration, ReproducesTheElasticLine) {
    Beam b = beam({4, 6, 5}, 9);
    auto s = solve(b, {{1, 2, 1}}).cases.at(0);
    std::vector<double> x, k;
    for (int i = 0; i <= 400; ++i) x.push_back(6.0 * i / 400), k.push_back(s.moment(1, x.back()) / 9);
    auto sag = integrateBetweenSupports(x, k);
    for (int i : {100, 200, 300})
        EXPECT_NEAR(sag.w[i], deflection(b, s, 1, x[i]), 1e-4 * std::abs(sag.w[200]));
}
