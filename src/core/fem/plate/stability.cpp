#include <Eigen/Eigenvalues>
#include <cmath>
#include <numeric>

#include "fem/plate/plate_system.h"

namespace talvik::fem {

// A plate deforms in every movement but three: sinking and tipping about two axes. So each connected part is
// stable when its supports resist these three.
std::vector<FreeMovement> freeMovements(const PlateModel& model) {
    std::vector<int> root(model.nodes.size());
    std::iota(root.begin(), root.end(), 0);
    auto find = [&](int i) {
        while (root[i] != i) i = root[i] = root[root[i]];
        return i;
    };
    auto join = [&](int i, int j) { root[find(i)] = find(j); };
    for (const auto& t : model.triangles) join(t[0], t[1]), join(t[1], t[2]);
    for (const auto& b : model.beams) join(b.a, b.b);
    for (const auto& r : model.rigid)
        for (int n : r.nodes) join(n, r.nodes.front());

    struct Part {
        double x = 0, y = 0, area = 0, square = 0;
        std::size_t nodes = 0;
        Eigen::Matrix3d K =
            Eigen::Matrix3d::Zero();  // against (w, bx, by) of the part's middle, made dimensionless
    };
    std::vector<int> index(model.nodes.size(), -1);
    std::vector<Part> parts;
    for (std::size_t n = 0; n < model.nodes.size(); ++n) {
        int& i = index[find(int(n))];
        if (i < 0) i = int(parts.size()), parts.emplace_back();
        ++parts[i].nodes;
    }
    for (const auto& t : model.triangles) {
        Part& p = parts[index[find(t[0])]];
        Point a = model.nodes[t[0]], b = model.nodes[t[1]], c = model.nodes[t[2]];
        double area = (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
        p.area += area;
        p.x += area * (a.x + b.x + c.x) / 3, p.y += area * (a.y + b.y + c.y) / 3;
    }
    for (auto& p : parts)
        if (p.area > 0) p.x /= p.area, p.y /= p.area;
    auto partOf = [&](int node) -> Part& { return parts[index[find(node)]]; };
    for (std::size_t n = 0; n < model.nodes.size(); ++n) {
        Part& p = partOf(int(n));
        p.square += std::pow(model.nodes[n].x - p.x, 2) + std::pow(model.nodes[n].y - p.y, 2);
    }
    // Adds a stiffness against movement m (as seen at the node) in the part's own three movements. Only
    // whether there is resistance matters: every support counts the same.
    auto add = [&](int node, double w, double bx, double by) {
        Part& p = partOf(node);
        double r = std::max(1e-9, std::sqrt(p.square / double(p.nodes)));
        double dx = model.nodes[node].x - p.x, dy = model.nodes[node].y - p.y;
        Eigen::Vector3d v(w, (bx - w * dx) / r, (by - w * dy) / r);
        if (w == 0) v *= r * 0.1;
        p.K += v * v.transpose();
    };
    for (const auto& r : model.restraints) {
        if (r.w) add(r.node, 1, 0, 0);
        if (r.rotations) add(r.node, 0, 1, 0), add(r.node, 0, 0, 1);
        if (r.alongDirection) add(r.node, 0, r.cx, r.cy);
    }
    for (const auto& s : model.springs) {
        if (s.w > 0) add(s.node, 1, 0, 0);
        if (s.xx > 0) add(s.node, 0, 1, 0);
        if (s.yy > 0) add(s.node, 0, 0, 1);
    }
    std::vector<FreeMovement> all;
    for (const auto& p : parts) {
        Eigen::SelfAdjointEigenSolver<Eigen::Matrix3d> eigen(p.K);
        if (eigen.eigenvalues()[0] > 1e-8) continue;
        Eigen::Vector3d v = eigen.eigenvectors().col(0);
        FreeMovement f;
        f.at = {p.x, p.y};
        f.nodes = p.nodes;
        double tip = std::hypot(v[1], v[2]);
        f.sinks = eigen.eigenvalues()[2] < 1e-8 || std::abs(v[0]) > tip;
        if (tip > 0) f.cx = -v[2] / tip, f.cy = v[1] / tip;
        all.push_back(f);
    }
    return all;
}

}  // namespace talvik::fem
