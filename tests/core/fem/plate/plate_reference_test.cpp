// The plate against series solutions and closed forms: tests/reference/plate_*, winkler_*, flat_slab_panel.
#include <gtest/gtest.h>

#include "support/plate_problem.h"
#include "support/reference.h"

using namespace talvik;
using namespace talvik::test;

namespace {

void near(double value, double expected, double tolerance, const std::string& what) {
    EXPECT_NEAR(value, expected, std::abs(expected) * tolerance + 1e-12) << what;
}
std::vector<TextRow> table(const char* name) {
    auto all = rows(readText(referencePath(name)));
    EXPECT_GE(all.size(), 4u) << name;
    return all;
}
std::string label(const TextRow& row) {
    std::string s;
    for (const auto& [key, value] : row) s += key + "=" + value + " ";
    return s;
}

}  // namespace

TEST(PlateReference, SimplySupportedRectangle) {
    for (const auto& row : table("plate_ss_rect")) {
        double b = num(row, "ratio");
        PlateProblem p;
        p.loadedRectangle(b, 1.0 / 20, {{0.5, b / 2}}, num(row, "nu"), Edge::Hard);
        ASSERT_EQ(p.solve(), "");
        Point centre{0.5, b / 2};
        near(p.w(centre), num(row, "w"), 0.01, "w " + label(row));
        near(p.m(centre, 0), num(row, "Ma"), 0.02, "Ma " + label(row));
        near(p.m(centre, 1), num(row, "Mb"), 0.02, "Mb " + label(row));
        near(std::abs(p.m({0, 0}, 2)), num(row, "Mxy"), 0.05, "Mxy " + label(row));
        EXPECT_NEAR(p.reactionSum(), p.loadSum(), 1e-9 * b);
    }
}

TEST(PlateReference, CornerReaction) {
    // The corner is held down by 2 Mxy; in a mesh the force comes at the corner node and its neighbours.
    for (const auto& row : table("plate_ss_rect")) {
        double b = num(row, "ratio");
        if (b > 1.5) continue;
        PlateProblem p;
        p.loadedRectangle(b, 1.0 / 40, {{0.5, b / 2}}, num(row, "nu"), Edge::Hard);
        ASSERT_EQ(p.solve(), "");
        double corner = 0;
        for (const auto& r : p.reactions[0])
            if (std::hypot(p.model.nodes[r.node].x, p.model.nodes[r.node].y) < 0.03) corner -= r.force[0];
        near(corner, num(row, "R"), 0.10, "R " + label(row));
    }
}

TEST(PlateReference, ClampedRectangle) {
    for (const auto& row : table("plate_clamped_rect")) {
        double b = num(row, "ratio");
        PlateProblem p;
        p.loadedRectangle(b, 1.0 / 30, {{0.5, b / 2}, {0, b / 2}, {0.5, 0}}, num(row, "nu"), Edge::Clamped);
        ASSERT_EQ(p.solve(), "");
        Point centre{0.5, b / 2};
        near(p.w(centre), num(row, "w"), 0.01, "w " + label(row));
        near(p.m(centre, 0), num(row, "Ma"), 0.02, "Ma " + label(row));
        near(p.m(centre, 1), num(row, "Mb"), 0.02, "Mb " + label(row));
        near(p.m({0, b / 2}, 0), num(row, "Mea"), 0.04, "Mea " + label(row));
        near(p.m({0.5, 0}, 1), num(row, "Meb"), 0.04, "Meb " + label(row));
    }
}

TEST(PlateReference, TwoEdgesFree) {
    for (const auto& row : table("plate_ss_free")) {
        double b = num(row, "width_ratio");
        PlateProblem p;
        p.makeMesh(PlateProblem::rectangle(1, b), std::min(1.0 / 32, b / 16), {{0.5, b / 2}, {0.5, 0}});
        p.material(1, num(row, "nu"));
        p.support(1, Edge::Hard);
        p.support(3, Edge::Hard);
        p.uniform(1);
        ASSERT_EQ(p.solve(), "");
        near(p.w({0.5, b / 2}), num(row, "w"), 0.015, "w " + label(row));
        near(p.m({0.5, b / 2}, 0), num(row, "Mx"), 0.02, "Mx " + label(row));
        EXPECT_NEAR(p.m({0.5, b / 2}, 1), num(row, "My"), std::max(0.04 * num(row, "My"), 2e-4))
            << label(row);
        near(p.w({0.5, 0}), num(row, "wf"), 0.015, "wf " + label(row));
        near(p.m({0.5, 0}, 0), num(row, "Mf"), 0.04, "Mf " + label(row));
    }
}

TEST(PlateReference, ShearFlexibleSquare) {
    for (const auto& row : table("plate_mindlin_ss_square")) {
        double t = num(row, "t_over_L"), nu = num(row, "nu");
        // With D = 1: E = 12 (1 - nu^2) / t^3.
        double E = 12 * (1 - nu * nu) / (t * t * t);
        PlateProblem p;
        p.loadedRectangle(1, 1.0 / 24, {{0.5, 0.5}}, nu, Edge::Hard, 1 / (5.0 / 6 * E / (2 * (1 + nu)) * t));
        ASSERT_EQ(p.solve(), "");
        near(p.w({0.5, 0.5}), num(row, "w"), 0.01, "w " + label(row));
        near(p.m({0.5, 0.5}, 0), num(row, "M"), 0.02, "M " + label(row));
    }
}

TEST(PlateReference, Circle) {
    for (const auto& row : table("plate_circular")) {
        double q = num(row, "q") * 1e-3, a = num(row, "a") * 1e3, E = num(row, "E") * 1e3,
               t = num(row, "t") * 1e3, nu = num(row, "nu"), D = E * t * t * t / 12 / (1 - nu * nu);
        for (bool clamped : {false, true}) {
            PlateProblem p;
            p.makeMesh(PlateProblem::circle(a, 120), a / 20, {{0, 0}});
            p.material(D, nu);
            for (int side = 0; side < 120; ++side) p.support(side, clamped ? Edge::Clamped : Edge::Soft);
            p.uniform(q);
            fem::TriangleFinder finder(p.model.nodes, p.model.triangles);
            fem::addPoint(finder, q * std::numbers::pi * a * a, 0, 0, {0, 0}, p.newCase());
            ASSERT_EQ(p.solve(), "");
            std::string end = clamped ? "_cl" : "_ss";
            near(p.w({0, 0}), num(row, "w" + end), 0.01, "w" + end + label(row));
            near(p.m({0, 0}, 0) * 1e-3, num(row, "M" + end), 0.02, "M" + end + label(row));
            near(p.m({0, 0}, 1) * 1e-3, num(row, "M" + end), 0.02, "M" + end + label(row));
            near(p.w({0, 0}, 1), num(row, "wP" + end), 0.01, "wP" + end + label(row));
            if (clamped) {
                near(p.m({a, 0}, 0) * 1e-3, num(row, "Mr_cl"), 0.04, "Mr " + label(row));
                EXPECT_NEAR(p.m({a, 0}, 1) * 1e-3, num(row, "Mt_cl"), 0.04 * std::abs(num(row, "Mr_cl")))
                    << label(row);
            }
        }
    }
}

TEST(PlateReference, FlatSlabPanel) {
    for (const auto& row : table("flat_slab_panel")) {
        double nu = num(row, "nu");
        PlateProblem p;
        p.task.growth = 0.2;
        for (Point c : {Point{0, 0}, {1, 0}, {1, 1}, {0, 1}}) p.task.fine.push_back({c, 0.0, 0.006});
        p.makeMesh(PlateProblem::rectangle(1, 1), 1.0 / 40, {{0.5, 0.5}, {0.5, 0}});
        p.material(1, nu);
        for (int side = 0; side < 4; ++side) p.support(side, Edge::Symmetry);
        for (Point c : {Point{0, 0}, {1, 0}, {1, 1}, {0, 1}}) {
            fem::PlateModel::Restraint r{p.node(c)};
            r.w = true;
            p.model.restraints.push_back(r);
        }
        p.uniform(1);
        ASSERT_EQ(p.solve(), "");
        near(p.w({0.5, 0.5}), num(row, "wc"), 0.02, "wc " + label(row));
        near(p.w({0.5, 0}), num(row, "wm"), 0.02, "wm " + label(row));
        near(p.m({0.5, 0.5}, 0), num(row, "Mc"), 0.03, "Mc " + label(row));
        near(p.m({0.5, 0}, 0), num(row, "Mmx"), 0.03, "Mmx " + label(row));
        EXPECT_NEAR(p.m({0.5, 0}, 1), num(row, "Mmy"), 0.035 * num(row, "Mmx")) << label(row);
        // Averages along the support line y = 0 .. 1 at x = 0, and mid-panel at x = 1/2.
        double recovered = 0, negative = 0, positive = 0;
        for (const auto& e : p.mesh.edges)
            if (e.line == 3) {
                Point a = p.mesh.nodes[e.a], b = p.mesh.nodes[e.b];
                recovered += std::abs(b.y - a.y) * (p.m(a, 0) + p.m(b, 0)) / 2;
            }
        for (const auto& r : p.reactions[0])  // exactly, by the couples that hold the line
            if (p.model.nodes[r.node].x < 1e-9) negative += r.force[1];
        fem::TriangleFinder finder(p.model.nodes, p.model.triangles);
        for (int i = 0; i < 400; ++i) {
            std::array<double, 3> s;
            int t = finder.find({0.5, (i + 0.5) / 400}, &s);
            for (int c = 0; c < 3; ++c)
                positive += s[c] * p.moments[0][3 * std::size_t(p.model.triangles[t][c])] / 400;
        }
        near(recovered, num(row, "Mneg"), 0.06, "recovered Mneg " + label(row));
        near(negative, num(row, "Mneg"), 0.01, "Mneg " + label(row));
        near(positive, num(row, "Mpos"), 0.01, "Mpos " + label(row));
        near(positive - negative, 0.125, 0.01, "statics " + label(row));
    }
}

TEST(WinklerReference, SimplySupportedRectangle) {
    for (const auto& row : table("winkler_ss_rect")) {
        double a = num(row, "a") * 1e3, b = num(row, "b") * 1e3, E = num(row, "E") * 1e3,
               t = num(row, "t") * 1e3, nu = num(row, "nu"), k = num(row, "k") * 1e-3,
               D = E * t * t * t / 12 / (1 - nu * nu);
        PlateProblem p;
        p.makeMesh(PlateProblem::rectangle(a, b), std::min(a, b) / 24, {{a / 2, b / 2}});
        p.material(D, nu);
        for (int side = 0; side < 4; ++side) p.support(side, Edge::Hard);
        p.bed(k);
        p.uniform(num(row, "q") * 1e-3);
        fem::TriangleFinder finder(p.model.nodes, p.model.triangles);
        fem::addPoint(finder, num(row, "P_") * 1e3, 0, 0, {a / 2, b / 2}, p.newCase());
        ASSERT_EQ(p.solve(), "");
        Point centre{a / 2, b / 2};
        near(p.w(centre), num(row, "wq"), 0.015, "wq " + label(row));
        near(p.m(centre, 0) * 1e-3, num(row, "Mx"), 0.03, "Mx " + label(row));
        near(p.m(centre, 1) * 1e-3, num(row, "My"), 0.03, "My " + label(row));
        near(p.w(centre, 1), num(row, "wP"), 0.015, "wP " + label(row));
    }
}

TEST(WinklerReference, FreeBeamAsPlateStrip) {
    for (const auto& row : table("winkler_beam")) {
        double L = num(row, "L") * 1e3, b = num(row, "b") * 1e3, h = num(row, "h") * 1e3,
               E = num(row, "E") * 1e3, k = num(row, "k") * 1e-3;
        PlateProblem p;
        p.task.lines.push_back({{L / 2, 0}, {L / 2, b}, 100});
        p.makeMesh(PlateProblem::rectangle(L, b), std::min(L / 40, b / 4), {{L / 2, b / 2}, {0, b / 2}});
        p.material(E * h * h * h / 12, 0);
        p.bed(k);
        fem::TriangleFinder finder(p.model.nodes, p.model.triangles);
        fem::addLine(finder, num(row, "P_") * 1e3 / b, {L / 2, 0}, {L / 2, b}, p.newCase());
        ASSERT_EQ(p.solve(), "");
        near(p.w({L / 2, b / 2}), num(row, "y_mid"), 0.01, "y_mid " + label(row));
        EXPECT_NEAR(p.w({0, b / 2}), num(row, "y_end"), 0.01 * num(row, "y_mid")) << label(row);
        // Along x the moment has a cusp under the load: take the mean of the values either side.
        near(p.m({L / 2, b / 2}, 0) * b * 1e-6, num(row, "M_mid"), 0.04, "M_mid " + label(row));
        near(k * p.w({L / 2, b / 2}) * 1e3, num(row, "p_mid"), 0.01, "p_mid " + label(row));
    }
}

TEST(WinklerReference, InfinitePlate) {
    for (const auto& row : table("winkler_infinite_plate")) {
        double E = num(row, "E") * 1e3, t = num(row, "t") * 1e3, nu = num(row, "nu"),
               k = num(row, "k") * 1e-3, r = num(row, "r") * 1e3, c = num(row, "c") * 1e3,
               l = num(row, "l") * 1e3, P = num(row, "P_") * 1e3, D = E * t * t * t / 12 / (1 - nu * nu);
        PlateProblem p;
        double side = 12 * l;
        p.task.fine.push_back({{side / 2, side / 2}, c, c / 8});
        p.makeMesh(PlateProblem::rectangle(side, side), l / 5,
                   {{side / 2, side / 2}, {side / 2 + r, side / 2}});
        p.material(D, nu);
        p.bed(k);
        fem::TriangleFinder finder(p.model.nodes, p.model.triangles);
        Point centre{side / 2, side / 2};
        fem::addPoint(finder, P, 0, 0, centre, p.newCase());
        auto patch = PlateProblem::circle(c, 60);
        for (Point& v : patch) v = {v.x + centre.x, v.y + centre.y};
        fem::addPressure(finder, P / std::abs(geometry::area(patch)), patch, p.newCase());
        ASSERT_EQ(p.solve(), "");
        near(p.w(centre), num(row, "w0"), 0.02, "w0 " + label(row));
        EXPECT_NEAR(p.w({centre.x + r, centre.y}), num(row, "wr"), 0.02 * num(row, "w0")) << label(row);
        near(p.w(centre, 1), num(row, "wpatch"), 0.02, "wpatch " + label(row));
        near(p.m(centre, 0, 1) * 1e-3, num(row, "Mpatch"), 0.04, "Mpatch " + label(row));
    }
}
