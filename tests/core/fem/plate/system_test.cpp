// Beams, springs, rigid areas, loads and stability of the plate system.
#include <gtest/gtest.h>

#include "support/plate_problem.h"

using namespace talvik;
using namespace talvik::test;

namespace {

void hold(PlateProblem& p, Point at, bool rotations = false) {
    fem::PlateModel::Restraint r{p.node(at)};
    r.w = true;
    r.rotations = rotations;
    p.model.restraints.push_back(r);
}

}  // namespace

TEST(BeamElement, FrameOfBeamsIsABeam) {
    // A very soft plate with a stiff beam along y = 1/2, held at its ends: w = 5 q l^4 / 384 EI + shear.
    for (double flexibility : {0.0, 0.3}) {
        PlateProblem p;
        p.task.lines.push_back({{0, 0.5}, {1, 0.5}, 50});
        p.makeMesh(PlateProblem::rectangle(1, 1), 0.05, {});
        p.material(1e-7, 0);
        p.support(1, Edge::Hard);
        p.support(3, Edge::Hard);
        for (const auto& e : p.mesh.edges)
            if (e.line == 50) p.model.beams.push_back({e.a, e.b, 2.0, 0.0, flexibility, 0});
        fem::TriangleFinder finder(p.model.nodes, p.model.triangles);
        fem::addLine(finder, 1, {0, 0.5}, {1, 0.5}, p.newCase());
        ASSERT_EQ(p.solve(), "");
        EXPECT_NEAR(p.w({0.5, 0.5}), 5.0 / 384 / 2 + flexibility / 8, 3e-3 * p.w({0.5, 0.5}));
        double most = 0;
        for (const auto& b : p.model.beams) {
            auto f = fem::beamForces(b, p.model.nodes, p.u[0]);
            most = std::max({most, f.momentStart, f.momentEnd});
            if (p.model.nodes[b.a].x < 1e-9) {
                EXPECT_NEAR(f.shear, 0.5 - 0.025, 1e-3);
            }
        }
        EXPECT_NEAR(most, 1.0 / 8, 1e-3);
    }
}

TEST(BeamElement, TwistsByItsTorsion) {
    fem::PlateModel::Beam beam{0, 1, 3, 5, 0, 0};
    std::vector<Point> nodes{{0, 0}, {3, 4}};
    // Rotation about the beam's own axis: b across the beam.
    fem::NodeVector u{0, 0, 0, 0, -0.8 * 0.01, 0.6 * 0.01};
    auto f = fem::beamForces(beam, nodes, u);
    EXPECT_NEAR(f.torque, 5.0 / 5 * 0.01, 1e-14);
    EXPECT_NEAR(f.momentStart, 0, 1e-14);
    EXPECT_NEAR(f.shear, 0, 1e-14);
    auto k = fem::beamStiffness(beam, nodes[0], nodes[1]);
    for (int i = 0; i < 6; ++i)
        for (int j = 0; j < 6; ++j) EXPECT_NEAR(k[6 * i + j], k[6 * j + i], 1e-12);
}

TEST(RigidArea, StaysPlane) {
    PlateProblem p;
    for (int i = 0; i < 4; ++i) {
        double c[5][2] = {{0.4, 0.4}, {0.6, 0.4}, {0.6, 0.6}, {0.4, 0.6}, {0.4, 0.4}};
        p.task.lines.push_back({{c[i][0], c[i][1]}, {c[i + 1][0], c[i + 1][1]}, 60});
    }
    p.makeMesh(PlateProblem::rectangle(1, 1), 0.05, {{0.5, 0.5}});
    p.material(1, 0.2);
    fem::PlateModel::Rigid body{{0.5, 0.5}, {}};
    for (std::size_t n = 0; n < p.model.nodes.size(); ++n)
        if (Point q = p.model.nodes[n]; std::abs(q.x - 0.5) < 0.1001 && std::abs(q.y - 0.5) < 0.1001)
            body.nodes.push_back(int(n));
    p.model.rigid.push_back(body);
    p.model.springs.push_back({p.node({0.5, 0.5}), 100, 2, 0, 3});
    fem::TriangleFinder finder(p.model.nodes, p.model.triangles);
    fem::addPoint(finder, 1, 0, 0, {0.9, 0.7}, p.newCase());
    ASSERT_EQ(p.solve(), "");
    int centre = p.node({0.5, 0.5});
    double w = p.u[0][3 * std::size_t(centre)], bx = p.u[0][3 * std::size_t(centre) + 1],
           by = p.u[0][3 * std::size_t(centre) + 2];
    EXPECT_NEAR(w, 1.0 / 100, 1e-10);
    EXPECT_NEAR(bx, -0.4 / 2, 1e-9) << "the couple of the load about the spring";
    EXPECT_NEAR(by, -0.2 / 3, 1e-9);
    for (int n : body.nodes) {
        Point q = p.model.nodes[n];
        EXPECT_NEAR(p.u[0][3 * std::size_t(n)], w - bx * (q.x - 0.5) - by * (q.y - 0.5), 1e-12);
    }
}

TEST(Loads, KeepTheirSumAndTheirMoment) {
    PlateProblem p;
    p.makeMesh({{0, 0}, {2, 0.2}, {1.7, 1.4}, {0.3, 1.1}}, 0.11, {});
    fem::TriangleFinder finder(p.model.nodes, p.model.triangles);
    auto moments = [&](const fem::NodeVector& f) {
        std::array<double, 3> sum{};
        for (std::size_t n = 0; n < p.model.nodes.size(); ++n) {
            sum[0] += f[3 * n];
            sum[1] += f[3 * n] * p.model.nodes[n].x;
            sum[2] += f[3 * n] * p.model.nodes[n].y;
        }
        return sum;
    };
    {  // an L-shaped polygon of area 0.15, centroid by hand
        fem::NodeVector f(3 * p.model.nodes.size(), 0);
        geometry::Ring l{{0.6, 0.4}, {1.1, 0.4}, {1.1, 0.6}, {0.8, 0.6}, {0.8, 0.65}, {0.6, 0.65}};
        double area = 0.5 * 0.2 + 0.2 * 0.05;
        EXPECT_NEAR(fem::addPressure(finder, 3, l, f), 3 * area, 1e-12);
        auto m = moments(f);
        EXPECT_NEAR(m[0], 3 * area, 1e-12);
        EXPECT_NEAR(m[1], 3 * (0.1 * 0.85 + 0.01 * 0.7), 1e-12);
        EXPECT_NEAR(m[2], 3 * (0.1 * 0.5 + 0.01 * 0.625), 1e-12);
        std::reverse(l.begin(), l.end());
        fem::NodeVector g(f.size(), 0);
        EXPECT_NEAR(fem::addPressure(finder, 3, l, g), 3 * area, 1e-12) << "either way round";
    }
    {
        fem::NodeVector f(3 * p.model.nodes.size(), 0);
        EXPECT_NEAR(fem::addLine(finder, 2, {0.5, 0.5}, {1.5, 0.9}, f), 2 * std::hypot(1, 0.4), 1e-12);
        auto m = moments(f);
        EXPECT_NEAR(m[1] / m[0], 1.0, 1e-12);
        EXPECT_NEAR(m[2] / m[0], 0.7, 1e-12);
    }
    {
        fem::NodeVector f(3 * p.model.nodes.size(), 0);
        EXPECT_EQ(fem::addPoint(finder, 5, 1, -2, {1.234, 0.777}, f), 5);
        auto m = moments(f);
        EXPECT_NEAR(m[1], 5 * 1.234, 1e-12);
        EXPECT_NEAR(m[2], 5 * 0.777, 1e-12);
        EXPECT_EQ(fem::addPoint(finder, 5, 0, 0, {9, 9}, f), 0) << "outside";
    }
    {  // along an edge of the mesh nothing is counted twice
        fem::NodeVector f(3 * p.model.nodes.size(), 0);
        EXPECT_NEAR(fem::addLine(finder, 1, {0, 0}, {2, 0.2}, f), std::hypot(2, 0.2), 1e-12);
    }
}

TEST(Stability, NamesWhatMoves) {
    auto plate = [] {
        PlateProblem p;
        p.makeMesh(PlateProblem::rectangle(4, 2), 0.4, {{1, 1}, {3, 1}, {2, 0.3}});
        p.material(1, 0.2);
        return p;
    };
    {
        auto p = plate();
        auto free = fem::freeMovements(p.model);
        ASSERT_EQ(free.size(), 1u);
        EXPECT_TRUE(free[0].sinks);
        EXPECT_NEAR(free[0].at.x, 2, 0.1);
    }
    {
        auto p = plate();
        hold(p, {1, 1});
        hold(p, {3, 1});
        auto free = fem::freeMovements(p.model);
        ASSERT_EQ(free.size(), 1u);
        EXPECT_FALSE(free[0].sinks);
        EXPECT_NEAR(std::abs(free[0].cx), 1, 1e-6) << "tips about the line through both";
        p.uniform(1);
        hold(p, {2, 0.3});
        EXPECT_TRUE(fem::freeMovements(p.model).empty());
        EXPECT_EQ(p.solve(), "");
    }
    {
        auto p = plate();
        hold(p, {1, 1}, true);
        EXPECT_TRUE(fem::freeMovements(p.model).empty()) << "one fixed column is enough";
    }
}

TEST(Solver, StopsInsideTheFactorisation) {
    PlateProblem p;
    p.makeMesh(PlateProblem::rectangle(1, 1), 1.0 / 150, {});
    p.material(1, 0.2);
    for (int side = 0; side < 4; ++side) p.support(side, Edge::Soft);
    fem::PlateSystem system;
    ASSERT_EQ(system.build(p.model, p.stages), "");
    std::stop_source stop;
    int told = 0;
    auto outcome = system.factorise(p.model, p.stages, stop.get_token(), [&](double share) {
        EXPECT_GE(share, 0);
        EXPECT_LE(share, 1);
        if (++told == 2) stop.request_stop();
    });
    EXPECT_EQ(outcome, fem::Cholesky::Outcome::Stopped);
    EXPECT_GE(told, 2);
    EXPECT_LE(told, 4) << "hardly anything was done after the stop";
    EXPECT_EQ(system.factorise(p.model, p.stages), fem::Cholesky::Outcome::Done) << "and it can begin again";
    p.uniform(1);
    auto u = system.solve(p.loads, p.stages);
    auto f = fem::internalForces(p.model, u[0]);
    int n = p.node({0.5, 0.5});
    EXPECT_NEAR(f[3 * std::size_t(n)], p.loads[0][3 * std::size_t(n)], 1e-9);
}
