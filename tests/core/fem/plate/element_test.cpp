// The plate element: patch tests, rigid movement, thin and thick, skew plates, rotation and mirroring.
#include "fem/plate/element.h"

#include <gtest/gtest.h>

#include <Eigen/Dense>
#include <random>

#include "support/plate_problem.h"

using namespace talvik;
using namespace talvik::test;

namespace {

Eigen::Matrix<double, 9, 9> single(const double (&x)[3], const double (&y)[3], double D, double nu,
                                   double flexibility) {
    fem::ElementGroup e{};
    for (int l = 0; l < fem::lanes; ++l) {
        for (int i = 0; i < 3; ++i) e.x[i][l] = x[i], e.y[i][l] = y[i];
        e.D[l] = D, e.nu[l] = nu, e.flexibility[l] = flexibility;
    }
    fem::Pack k[fem::stiffnessEntries];
    fem::stiffness(e, k);
    Eigen::Matrix<double, 9, 9> K;
    for (int r = 0; r < 9; ++r)
        for (int c = 0; c <= r; ++c) K(r, c) = K(c, r) = k[r * (r + 1) / 2 + c][0];
    return K;
}

// A square whose inner nodes are moved about at random; sides 0 to 3 are edges.
PlateProblem distorted(double size, unsigned seed) {
    PlateProblem p;
    p.makeMesh(PlateProblem::rectangle(1, 1), size, {});
    std::mt19937 random(seed);
    std::uniform_real_distribution<double> move(-0.22 * size, 0.22 * size);
    for (Point& n : p.model.nodes)
        if (n.x > 1e-9 && n.x < 1 - 1e-9 && n.y > 1e-9 && n.y < 1 - 1e-9)
            n.x += move(random), n.y += move(random);
    return p;
}
bool onEdge(Point n) {
    return n.x < 1e-9 || n.x > 1 - 1e-9 || n.y < 1e-9 || n.y > 1 - 1e-9;
}

}  // namespace

TEST(PlateElement, HasThreeRigidMovementsAndNoOther) {
    std::mt19937 random(7);
    std::uniform_real_distribution<double> place(-1, 1);
    int tried = 0;
    while (tried < 200) {
        double x[3], y[3];
        for (int i = 0; i < 3; ++i) x[i] = place(random), y[i] = place(random);
        double area = ((x[1] - x[0]) * (y[2] - y[0]) - (y[1] - y[0]) * (x[2] - x[0])) / 2;
        if (area < 0.05) continue;
        ++tried;
        for (double flexibility : {0.0, 1e-3, 10.0}) {
            auto K = single(x, y, 1, 0.2, flexibility);
            Eigen::SelfAdjointEigenSolver<Eigen::Matrix<double, 9, 9>> eigen(K);
            auto values = eigen.eigenvalues();
            for (int i = 0; i < 3; ++i) EXPECT_NEAR(values[i], 0, 1e-10 * values[8]);
            EXPECT_GT(values[3], 1e-7 * values[8]) << "no fourth movement is free";
            // Sinking and tipping.
            for (auto [a, bx, by] :
                 {std::array{1.0, 0.0, 0.0}, std::array{0.0, 1.0, 0.0}, std::array{0.0, 0.0, 1.0}}) {
                Eigen::Matrix<double, 9, 1> u;
                for (int i = 0; i < 3; ++i) u.segment<3>(3 * i) << a - bx * x[i] - by * y[i], bx, by;
                EXPECT_LT((K * u).norm(), 1e-11 * K.norm());
            }
        }
    }
}

TEST(PlateElement, ConstantCurvaturePatch) {
    double k[3] = {0.8, -0.5, 0.3};  // w = -(k0 x^2 + k1 y^2 + k2 x y) / 2
    for (double flexibility : {0.0, 1e-4, 1.0})
        for (unsigned seed : {1u, 2u, 3u}) {
            PlateProblem p = distorted(0.2, seed);
            double nu = 0.25, D = 3;
            p.material(D, nu, flexibility);
            fem::NodeVector given(3 * p.model.nodes.size(), 0);
            auto exact = [&](Point n) {
                return std::array{-(k[0] * n.x * n.x + k[1] * n.y * n.y + k[2] * n.x * n.y) / 2,
                                  k[0] * n.x + k[2] * n.y / 2, k[1] * n.y + k[2] * n.x / 2};
            };
            for (std::size_t n = 0; n < p.model.nodes.size(); ++n)
                if (onEdge(p.model.nodes[n])) {
                    auto e = exact(p.model.nodes[n]);
                    for (int d = 0; d < 3; ++d) given[3 * n + d] = e[d];
                    fem::PlateModel::Restraint r{int(n)};
                    r.w = r.rotations = true;
                    p.model.restraints.push_back(r);
                }
            auto forces = fem::internalForces(p.model, given);
            auto& f = p.newCase();
            for (std::size_t i = 0; i < f.size(); ++i) f[i] = -forces[i];
            ASSERT_EQ(p.solve(), "");
            fem::NodeVector all = p.u[0];
            for (std::size_t i = 0; i < all.size(); ++i) all[i] += given[i];
            auto m = fem::recoverMoments(p.model, p.points, {all}, p.stages);
            for (std::size_t n = 0; n < p.model.nodes.size(); ++n) {
                auto e = exact(p.model.nodes[n]);
                for (int d = 0; d < 3; ++d) EXPECT_NEAR(all[3 * n + d], e[d], 1e-10);
                EXPECT_NEAR(m[0][3 * n], D * (k[0] + nu * k[1]), 1e-8);
                EXPECT_NEAR(m[0][3 * n + 1], D * (k[1] + nu * k[0]), 1e-8);
                EXPECT_NEAR(m[0][3 * n + 2], D * (1 - nu) / 2 * k[2], 1e-8);
            }
        }
}

TEST(PlateElement, ConstantShearPatchOfAThickPlate) {
    // w = g x without rotation: with shear flexibility far above bending flexibility, inner nodes need no
    // vertical force, and couples equal to the shear force on their share of the area.
    PlateProblem p = distorted(0.2, 5);
    double flexibility = 1e7, g = 2;
    p.material(1, 0.2, flexibility);
    fem::NodeVector u(3 * p.model.nodes.size(), 0);
    for (std::size_t n = 0; n < p.model.nodes.size(); ++n) u[3 * n] = g * p.model.nodes[n].x;
    auto f = fem::internalForces(p.model, u);
    double couples = 0, energy = 0;
    for (std::size_t n = 0; n < p.model.nodes.size(); ++n) {
        couples += f[3 * n + 1];
        energy += f[3 * n] * u[3 * n] / 2;
        if (!onEdge(p.model.nodes[n])) {
            EXPECT_NEAR(f[3 * n] * flexibility, 0, 2e-5);
        }
    }
    EXPECT_NEAR(energy * flexibility, g * g / 2, 1e-5);
    EXPECT_NEAR(couples * flexibility, g * 1.0, 1e-5) << "shear force times the area of the square";
}

TEST(PlateElement, ConstantShearCantilever) {
    // End load on a distorted cantilever, nu = 0: moment linear, shear constant.
    for (double flexibility : {0.0, 0.02, 0.5}) {
        double last = 1;
        for (double size : {0.2, 0.1, 0.05}) {
            PlateProblem p = distorted(size, 11);
            p.material(1, 0, flexibility);
            p.support(3, Edge::Clamped);
            fem::TriangleFinder finder(p.model.nodes, p.model.triangles);
            fem::addLine(finder, 1, {1, 0}, {1, 1}, p.newCase());
            ASSERT_EQ(p.solve(), "");
            double error = std::abs(p.w({1, 0.5}) / (1.0 / 3 + flexibility) - 1);
            EXPECT_LT(error, 0.02) << size << " " << flexibility;
            last = error;
            if (size < 0.06) {
                auto q = fem::recoverShears(p.model, p.points, p.moments[0]);
                EXPECT_NEAR(q[2 * std::size_t(p.node({0.5, 0.5}))], 1, 0.05);
                EXPECT_NEAR(q[2 * std::size_t(p.node({0.5, 0.5})) + 1], 0, 0.05);
                EXPECT_NEAR(p.m({0.5, 0.5}, 0), -(1 - p.model.nodes[p.node({0.5, 0.5})].x), 0.01);
            }
        }
        EXPECT_LT(last, 0.002) << "and it converges";
    }
}

TEST(PlateElement, DoesNotLock) {
    // Clamped square, thinner and thinner: the same D gives the same deflection.
    for (double t : {0.1, 0.01, 1e-3, 1e-4}) {
        double nu = 0.3, E = 12 * (1 - nu * nu) / (t * t * t);
        PlateProblem p;
        p.loadedRectangle(1, 1.0 / 16, {{0.5, 0.5}}, nu, Edge::Clamped,
                          1 / (5.0 / 6 * E / (2 * (1 + nu)) * t));
        ASSERT_EQ(p.solve(), "");
        // Thick: 0.001499 at t = 0.1 (Mindlin); thin: 0.00126532.
        EXPECT_NEAR(p.w({0.5, 0.5}), t > 0.05 ? 0.001499 : 0.00126532, 0.02 * 0.0013) << t;
    }
}

TEST(PlateElement, ConvergesWithTheSquareOfTheSize) {
    std::vector<double> error, edge;
    for (int n : {6, 12, 24, 48}) {
        PlateProblem p;
        p.loadedRectangle(1, 1.0 / n, {{0.5, 0.5}}, 0.3, Edge::Clamped);
        ASSERT_EQ(p.solve(), "");
        error.push_back(std::abs(p.w({0.5, 0.5}) / 0.00126532 - 1));
        edge.push_back(std::abs(p.m({0, 0.5}, 0) / -0.0513338 - 1));
    }
    EXPECT_GT(std::log2(error.front() / error.back()) / 3, 1.7);
    EXPECT_GT(std::log2(edge.front() / edge.back()) / 3, 1.0);
    EXPECT_LT(edge.back(), 0.02);
}

namespace {

// Clamped rhombus of side 1 under q = 1, D = 1 by Ritz's method in oblique coordinates (W. Ritz, 1909):
// products of (1 - s^2)^2 s^i (1 - t^2)^2 t^j, integrated by Gauss points. Deflection at the centre.
double clampedRhombus(double angle) {
    constexpr int terms = 10;
    double c = std::cos(angle), s = std::sin(angle);
    // Gauss-Legendre points by Newton's method.
    constexpr int points = 24;
    double x[points], weight[points];
    for (int i = 0; i < points; ++i) {
        double z = std::cos(std::numbers::pi * (i + 0.75) / (points + 0.5)), slope = 1;
        for (int k = 0; k < 50; ++k) {
            double a = 1, b = 0;
            for (int j = 0; j < points; ++j) {
                double next = ((2 * j + 1) * z * a - j * b) / (j + 1);
                b = a, a = next;
            }
            slope = points * (z * a - b) / (z * z - 1);
            z -= a / slope;
        }
        x[i] = z, weight[i] = 2 / ((1 - z * z) * slope * slope);
    }
    auto shape = [](int i, double z, int derivative) {
        // (1 - z^2)^2 z^i = z^i - 2 z^(i+2) + z^(i+4)
        auto power = [&](int n) {
            if (derivative == 1) return n < 1 ? 0.0 : n * std::pow(z, n - 1);
            if (derivative == 2) return n < 2 ? 0.0 : double(n) * (n - 1) * std::pow(z, n - 2);
            return std::pow(z, n);
        };
        return power(i) - 2 * power(i + 2) + power(i + 4);
    };
    int n = terms * terms;
    Eigen::MatrixXd K = Eigen::MatrixXd::Zero(n, n);
    Eigen::VectorXd f = Eigen::VectorXd::Zero(n), middle(n);
    // x = (u + v c) / 2, y = v s / 2 with u, v in -1 .. 1: the area element is s / 4.
    for (int a = 0; a < points; ++a)
        for (int b = 0; b < points; ++b) {
            Eigen::VectorXd laplace(n);
            double u = x[a], v = x[b], area = weight[a] * weight[b] * s / 4;
            for (int i = 0; i < terms; ++i)
                for (int j = 0; j < terms; ++j) {
                    double uu = 4 * shape(i, u, 2) * shape(j, v, 0), uv = 4 * shape(i, u, 1) * shape(j, v, 1),
                           vv = 4 * shape(i, u, 0) * shape(j, v, 2);
                    laplace[terms * i + j] = (uu - 2 * c * uv + vv) / (s * s);
                    f[terms * i + j] += area * shape(i, u, 0) * shape(j, v, 0);
                    middle[terms * i + j] = shape(i, 0, 0) * shape(j, 0, 0);
                }
            // With clamped edges the Gaussian curvature integrates to zero: the energy is that of the
            // Laplacian.
            K += area * laplace * laplace.transpose();
        }
    return middle.dot(K.ldlt().solve(f));
}

geometry::Ring rhombus(double angle) {
    double c = std::cos(angle), s = std::sin(angle);
    return {{0, 0}, {1, 0}, {1 + c, s}, {c, s}};
}

}  // namespace

TEST(PlateElement, SkewClampedPlates) {
    EXPECT_NEAR(clampedRhombus(std::numbers::pi / 2), 0.00126532, 2e-8) << "the square of the table";
    for (double degrees : {30.0, 45.0, 60.0}) {
        double angle = degrees * std::numbers::pi / 180;
        PlateProblem p;
        Point centre{(1 + std::cos(angle)) / 2, std::sin(angle) / 2};
        p.makeMesh(rhombus(angle), 1.0 / 40, {centre});
        p.material(1, 0.3);
        for (int side = 0; side < 4; ++side) p.support(side, Edge::Clamped);
        p.uniform(1);
        ASSERT_EQ(p.solve(), "");
        EXPECT_NEAR(p.w(centre) / clampedRhombus(angle), 1, 0.01) << degrees;
        EXPECT_GT(p.mesh.smallestAngle, 20);
    }
}

TEST(PlateElement, SkewSimplySupportedPlate) {
    // 30 degrees: L. S. D. Morley, Skew Plates and Structures, 1963: w = 0.000408, principal moments 0.0191
    // and 0.0108 at the centre for nu = 0.3.
    double angle = std::numbers::pi / 6;
    PlateProblem p;
    Point centre{(1 + std::cos(angle)) / 2, std::sin(angle) / 2};
    // Soft supports: at corners as obtuse as these, hard ones (tangential rotation held) converge slowly from
    // below.
    p.task.fine = {{{1, 0}, 0, 0.0003}, {{std::cos(angle), std::sin(angle)}, 0, 0.0003}};
    p.makeMesh(rhombus(angle), 1.0 / 50, {centre});
    p.material(1, 0.3);
    for (int side = 0; side < 4; ++side) p.support(side, Edge::Soft);
    p.uniform(1);
    ASSERT_EQ(p.solve(), "");
    EXPECT_NEAR(p.w(centre), 0.000408, 0.02 * 0.000408);
    double mean = (p.m(centre, 0) + p.m(centre, 1)) / 2,
           r = std::hypot((p.m(centre, 0) - p.m(centre, 1)) / 2, p.m(centre, 2));
    EXPECT_NEAR(mean + r, 0.0191, 0.02 * 0.0191);
    EXPECT_NEAR(mean - r, 0.0108, 0.03 * 0.0108);
}

TEST(PlateElement, TurnedAndMirroredModelsAnswerAlike) {
    auto solved = [](double angle, bool mirror) {
        PlateProblem p = distorted(0.12, 21);
        for (Point& n : p.model.nodes) {
            Point q = mirror ? Point{n.y, n.x} : n;
            n = {q.x * std::cos(angle) - q.y * std::sin(angle) + 3,
                 q.x * std::sin(angle) + q.y * std::cos(angle)};
        }
        if (mirror)
            for (auto& t : p.model.triangles) std::swap(t[1], t[2]);
        p.mesh.nodes = p.model.nodes;
        p.material(1, 0.2, 0.001);
        p.support(0, Edge::Hard);
        p.support(1, Edge::Clamped);
        p.support(2, Edge::Soft);
        p.uniform(1);
        EXPECT_EQ(p.solve(), "");
        return p;
    };
    PlateProblem base = solved(0, false);
    for (double angle : {0.3, 1.0, 2.5})
        for (bool mirror : {false, true}) {
            PlateProblem p = solved(angle, mirror);
            for (std::size_t n = 0; n < p.model.nodes.size(); ++n) {
                EXPECT_NEAR(p.u[0][3 * n], base.u[0][3 * n], 1e-11);
                auto sum = [&](const PlateProblem& q) {
                    return q.moments[0][3 * n] + q.moments[0][3 * n + 1];
                };
                EXPECT_NEAR(sum(p), sum(base), 1e-9);
            }
        }
}

TEST(PlateElement, AnswersAreLinearInTheLoads) {
    PlateProblem p = distorted(0.1, 3);
    p.material(1, 0.2);
    for (int side = 0; side < 4; ++side) p.support(side, Edge::Soft);
    p.uniform(1);
    fem::TriangleFinder finder(p.model.nodes, p.model.triangles);
    fem::addPoint(finder, 3, 0.1, 0.2, {0.3, 0.6}, p.newCase());
    auto& both = p.newCase();
    for (std::size_t i = 0; i < both.size(); ++i) both[i] = 2 * p.loads[0][i] - 0.5 * p.loads[1][i];
    ASSERT_EQ(p.solve(), "");
    for (std::size_t i = 0; i < p.u[2].size(); ++i)
        EXPECT_NEAR(p.u[2][i], 2 * p.u[0][i] - 0.5 * p.u[1][i], 1e-13);
    for (std::size_t i = 0; i < p.moments[2].size(); ++i)
        EXPECT_NEAR(p.moments[2][i], 2 * p.moments[0][i] - 0.5 * p.moments[1][i], 1e-11);
}
