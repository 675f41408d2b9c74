// A plate for tests: mesh, supports along edges, loads, answers at points. Any consistent units.
#pragma once

#include <cmath>
#include <functional>
#include <map>
#include <numbers>

#include "fem/mesh/mesh.h"
#include "fem/plate/loads.h"
#include "fem/plate/plate_system.h"
#include "fem/plate/recovery.h"

namespace talvik::test {

using fem::Point;

enum class Edge { Free, Soft, Hard, Clamped, Symmetry };

struct PlateProblem {
    fem::MeshTask task;
    fem::Mesh mesh;
    fem::PlateModel model;
    fem::FieldPoints points;
    fem::Stages stages;
    std::vector<fem::NodeVector> loads, u;
    std::vector<fem::MomentField> moments;
    std::vector<std::vector<fem::PlateSystem::Reaction>> reactions;

    static geometry::Ring rectangle(double a, double b) { return {{0, 0}, {a, 0}, {a, b}, {0, b}}; }
    static geometry::Ring circle(double r, int sides) {
        geometry::Ring ring;
        for (int i = 0; i < sides; ++i) {
            double t = 2 * std::numbers::pi * i / sides;
            ring.push_back({r * std::cos(t), r * std::sin(t)});
        }
        return ring;
    }
    // Thin unless t is given; D = 1 then scales with E.
    void makeMesh(const geometry::Ring& ring, double size, const std::vector<Point>& nodesAt) {
        task.slabs = {ring};
        task.size = size;
        task.tolerance = size * 1e-4;
        task.points = nodesAt;
        for (std::size_t i = 0; i < ring.size(); ++i)
            task.lines.push_back({ring[i], ring[(i + 1) % ring.size()], int(i)});
        mesh = fem::makeMesh(task);
        model.nodes = mesh.nodes;
        model.triangles = mesh.triangles;
        model.material.assign(mesh.triangles.size(), 0);
    }
    void material(double D, double nu, double flexibility = 0) { model.materials = {{D, nu, flexibility}}; }
    // A rectangle of one by b with all sides held alike, under a load of one everywhere.
    void loadedRectangle(double b, double size, const std::vector<Point>& nodesAt, double nu, Edge edge,
                         double flexibility = 0) {
        makeMesh(rectangle(1, b), size, nodesAt);
        material(1, nu, flexibility);
        for (int side = 0; side < 4; ++side) support(side, edge);
        uniform(1);
    }
    // The condition of side i of the ring.
    void support(int side, Edge edge) {
        for (const auto& e : mesh.edges) {
            if (e.line != side || edge == Edge::Free) continue;
            Point a = mesh.nodes[e.a], b = mesh.nodes[e.b];
            double L = std::hypot(b.x - a.x, b.y - a.y), cx = (b.x - a.x) / L, cy = (b.y - a.y) / L;
            for (int n : {e.a, e.b}) {
                fem::PlateModel::Restraint r{n};
                r.w = edge != Edge::Symmetry;
                r.rotations = edge == Edge::Clamped;
                r.alongDirection = edge == Edge::Hard || edge == Edge::Symmetry;
                r.cx = edge == Edge::Hard ? cx : -cy;
                r.cy = edge == Edge::Hard ? cy : cx;
                model.restraints.push_back(r);
            }
        }
    }
    // Springs per area on every triangle, lumped at its corners.
    void bed(double k) {
        for (const auto& t : model.triangles) {
            Point a = model.nodes[t[0]], b = model.nodes[t[1]], c = model.nodes[t[2]];
            double area = ((b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x)) / 2;
            for (int n : t) model.springs.push_back({n, k * area / 3});
        }
    }
    fem::NodeVector& newCase() { return loads.emplace_back(3 * model.nodes.size(), 0.0); }
    void uniform(double q) {
        fem::TriangleFinder finder(model.nodes, model.triangles);
        auto& f = newCase();
        fem::addPressure(
            finder, q, [](int) { return true; }, f);
    }
    std::string solve() {
        points = fem::fieldPoints(model, {});
        fem::PlateSystem system;
        if (auto error = system.build(model, stages); !error.empty()) return error;
        if (system.factorise(model, stages) != fem::Cholesky::Outcome::Done) return "not positive";
        u = system.solve(loads, stages);
        moments = fem::recoverMoments(model, points, u, stages);
        reactions = system.reactions(model, loads, u);
        return {};
    }
    int node(Point p) const {
        int best = 0;
        double least = 1e300;
        for (std::size_t i = 0; i < model.nodes.size(); ++i)
            if (double d = std::hypot(model.nodes[i].x - p.x, model.nodes[i].y - p.y); d < least)
                least = d, best = int(i);
        return best;
    }
    double w(Point p, std::size_t c = 0) const { return u[c][3 * std::size_t(node(p))]; }
    double m(Point p, int component, std::size_t c = 0) const {
        return moments[c][3 * std::size_t(node(p)) + component];
    }
    double reactionSum(std::size_t c = 0) const {
        double sum = 0;
        for (const auto& r : reactions[c]) sum += r.force[0];
        return sum;
    }
    double loadSum(std::size_t c = 0) const {
        double sum = 0;
        for (std::size_t n = 0; n < model.nodes.size(); ++n) sum += loads[c][3 * n];
        return sum;
    }
};

}  // namespace talvik::test
