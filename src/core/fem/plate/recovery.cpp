#include "fem/plate/recovery.h"

#include <Eigen/Dense>
#include <algorithm>
#include <chrono>
#include <cmath>
#include <numbers>

#include "fem/parallel/pool.h"
#include "fem/plate/element.h"

namespace talvik::fem {
namespace {

double twiceArea(const PlateModel& model, std::size_t t) {
    Point a = model.nodes[model.triangles[t][0]], b = model.nodes[model.triangles[t][1]],
          c = model.nodes[model.triangles[t][2]];
    return (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
}

std::pair<int, int> ordered(int a, int b) {
    return a < b ? std::pair(a, b) : std::pair(b, a);
}

// Least squares, weighted by area, of a polynomial (3 terms: a plane, 6: of second degree) about a node to
// the values at the middles of triangles. False where they do not determine it well.
template <int terms>
bool fitAt(const PlateModel& model, int point, int node, const std::vector<int>& patch,
           std::vector<std::pair<int, FieldPoints::Part>>& parts) {
    using Row = Eigen::Matrix<double, terms, 1>;
    if (int(patch.size()) < 2 * terms - 1) return false;
    Point at = model.nodes[node];
    double area = 0;
    for (int t : patch) area += twiceArea(model, std::size_t(t));
    double scale = 1 / std::sqrt(area);
    auto row = [&](int t) {
        double x = 0, y = 0;
        for (int n : model.triangles[t]) x += model.nodes[n].x / 3, y += model.nodes[n].y / 3;
        x = (x - at.x) * scale, y = (y - at.y) * scale;
        Row r;
        if constexpr (terms == 6)
            r << 1, x, y, x * x, std::numbers::sqrt2 * x * y, y * y;  // alike in every direction
        else
            r << 1, x, y;
        return r;
    };
    Eigen::Matrix<double, terms, terms> A = Eigen::Matrix<double, terms, terms>::Zero();
    for (int t : patch) A += twiceArea(model, std::size_t(t)) / area * row(t) * row(t).transpose();
    Eigen::LLT<Eigen::Matrix<double, terms, terms>> factor(A);
    if (factor.info() != Eigen::Success) return false;
    Eigen::Matrix<double, terms, terms> inverse = factor.solve(decltype(A)::Identity());
    if (A.norm() * inverse.norm() > (terms == 6 ? 1e4 : 1e3)) return false;
    Row value = inverse.col(0);
    for (int t : patch)
        parts.push_back({t, {point, twiceArea(model, std::size_t(t)) / area * row(t).dot(value)}});
    return true;
}

// Fits for the points on the edge of their group of triangles.
void fitEdges(const PlateModel& model, FieldPoints& points, std::stop_token stop) {
    std::size_t count = points.node.size(), triangles = model.triangles.size();
    // Inside, each neighbour comes once before and once after the point in a triangle; at an edge two do not.
    std::vector<long> open(count, 0);
    std::vector<int> start(count + 1, 0);
    for (std::size_t t = 0; t < triangles; ++t)
        for (int c = 0; c < 3; ++c) {
            int p = points.corner[3 * t + c];
            long after = model.triangles[t][(c + 1) % 3], before = model.triangles[t][(c + 2) % 3];
            open[p] += (after - before) * (1 + 7 * (after + before));
            ++start[p + 1];
        }
    for (std::size_t p = 0; p < count; ++p) start[p + 1] += start[p];
    std::vector<int> around(3 * triangles), fill(start.begin(), start.end() - 1);
    for (std::size_t k = 0; k < 3 * triangles; ++k) around[fill[points.corner[k]]++] = int(k / 3);

    std::vector<char> held(model.nodes.size(), 0);
    for (const auto& r : model.restraints)
        if (r.w) held[r.node] = 1;
    for (const auto& s : model.springs)
        if (s.w > 0) held[s.node] = 1;
    // At a support all by itself moments have a peak, which a plane would overshoot.
    auto alone = [&](std::size_t p) {
        if (!held[points.node[p]]) return false;
        std::vector<int> others;
        for (int k = start[p]; k < start[p + 1]; ++k)
            for (int n : model.triangles[around[k]])
                if (n != points.node[p] && held[n] &&
                    std::find(others.begin(), others.end(), n) == others.end())
                    others.push_back(n);
        return others.size() < 2;
    };
    std::vector<int> edge;
    for (std::size_t p = 0; p < count; ++p)
        if (open[p] != 0 && !alone(p)) edge.push_back(int(p));
    constexpr std::size_t perPiece = 32;
    std::vector<std::vector<std::pair<int, FieldPoints::Part>>> found((edge.size() + perPiece - 1) /
                                                                      perPiece);
    parallelFor(found.size(), [&](std::size_t piece) {
        if (stop.stop_requested()) return;
        std::vector<int> patch;
        for (std::size_t k = piece * perPiece; k < std::min(edge.size(), (piece + 1) * perPiece); ++k) {
            int p = edge[k];
            // Triangles around the point, and twice their neighbours across corners.
            patch.assign(around.begin() + start[p], around.begin() + start[p + 1]);
            for (int ring = 0; ring < 2; ++ring) {
                std::size_t before = patch.size();
                for (std::size_t t = 0; t < before; ++t)
                    for (int c = 0; c < 3; ++c) {
                        int q = points.corner[3 * patch[t] + c];
                        patch.insert(patch.end(), around.begin() + start[q], around.begin() + start[q + 1]);
                    }
                std::sort(patch.begin(), patch.end());
                patch.erase(std::unique(patch.begin(), patch.end()), patch.end());
            }
            if (fitAt<6>(model, p, points.node[p], patch, found[piece]) ||
                fitAt<3>(model, p, points.node[p], patch, found[piece]))
                points.share[p] = 0;  // otherwise, where it is too narrow, the mean stays
        }
    });
    std::vector<std::pair<int, FieldPoints::Part>> parts;
    for (auto& f : found) parts.insert(parts.end(), f.begin(), f.end());
    std::stable_sort(parts.begin(), parts.end(), [](auto& a, auto& b) { return a.first < b.first; });
    points.fitStart.assign(triangles + 1, 0);
    for (const auto& [t, part] : parts) {
        ++points.fitStart[t + 1];
        points.fit.push_back(part);
    }
    for (std::size_t t = 0; t < triangles; ++t) points.fitStart[t + 1] += points.fitStart[t];
}

}  // namespace

FieldPoints fieldPoints(const PlateModel& model, const std::vector<std::pair<int, int>>& breaks,
                        std::stop_token stop) {
    std::size_t nodes = model.nodes.size(), triangles = model.triangles.size();
    std::vector<std::pair<int, int>> cut;
    std::vector<char> special(nodes, 0);
    for (auto [a, b] : breaks) {
        cut.push_back(ordered(a, b));
        special[a] = special[b] = 1;
    }
    std::sort(cut.begin(), cut.end());
    std::vector<int> material(nodes, -1);
    for (std::size_t t = 0; t < triangles; ++t)
        for (int n : model.triangles[t]) {
            if (material[n] < 0)
                material[n] = model.material[t];
            else if (material[n] != model.material[t])
                special[n] = 1;
        }
    FieldPoints points;
    points.node.resize(nodes);
    for (std::size_t n = 0; n < nodes; ++n) points.node[n] = int(n);
    points.corner.resize(3 * triangles);
    std::vector<std::vector<int>> around;  // corners at special nodes
    std::vector<int> aroundOf(nodes, -1);
    for (std::size_t t = 0; t < triangles; ++t)
        for (int c = 0; c < 3; ++c) {
            int n = model.triangles[t][c];
            points.corner[3 * t + c] = n;
            if (!special[n]) continue;
            if (aroundOf[n] < 0) aroundOf[n] = int(around.size()), around.emplace_back();
            around[aroundOf[n]].push_back(int(3 * t) + c);
        }
    for (std::size_t n = 0; n < nodes; ++n) {
        if (aroundOf[n] < 0) continue;
        const auto& corners = around[aroundOf[n]];
        std::vector<int> group(corners.size(), -1);
        int groups = 0;
        for (std::size_t first = 0; first < corners.size(); ++first) {
            if (group[first] >= 0) continue;
            std::vector<std::size_t> stack{first};
            group[first] = groups;
            while (!stack.empty()) {
                std::size_t i = stack.back();
                stack.pop_back();
                const auto& t = model.triangles[corners[i] / 3];
                for (std::size_t j = 0; j < corners.size(); ++j) {
                    if (group[j] >= 0 || model.material[corners[i] / 3] != model.material[corners[j] / 3])
                        continue;
                    int shared = -1;
                    for (int other : model.triangles[corners[j] / 3])
                        if (other != int(n) && (other == t[0] || other == t[1] || other == t[2]))
                            shared = other;
                    if (shared < 0 || std::binary_search(cut.begin(), cut.end(), ordered(int(n), shared)))
                        continue;
                    group[j] = groups;
                    stack.push_back(j);
                }
            }
            ++groups;
        }
        for (std::size_t i = 0; i < corners.size(); ++i)
            if (group[i] > 0) points.corner[corners[i]] = int(points.node.size()) + group[i] - 1;
        for (int g = 1; g < groups; ++g) points.node.push_back(int(n));
    }
    points.share.assign(points.node.size(), 0);
    for (std::size_t t = 0; t < triangles; ++t)
        for (int c = 0; c < 3; ++c) points.share[points.corner[3 * t + c]] += twiceArea(model, t);
    for (double& s : points.share) s = s > 0 ? 1 / s : 0;
    if (!stop.stop_requested()) fitEdges(model, points, stop);
    return points;
}

std::vector<MomentField> recoverMoments(const PlateModel& model, const FieldPoints& points,
                                        const std::vector<NodeVector>& u, Stages& stages,
                                        std::stop_token stop) {
    auto start = std::chrono::steady_clock::now();
    std::vector<MomentField> all(u.size());
    std::size_t triangles = model.triangles.size();
    constexpr std::size_t together = 4;  // cases that share the geometry of the elements
    parallelFor((u.size() + together - 1) / together, [&](std::size_t piece) {
        std::size_t from = piece * together, count = std::min(together, u.size() - from);
        for (std::size_t c = 0; c < count; ++c) all[from + c].assign(3 * points.node.size(), 0);
        ElementGroup e;
        Pack in[9 * together], out[9 * together];
        for (std::size_t t = 0; t < triangles; t += lanes) {
            if (t % 8192 == 0 && stop.stop_requested()) return;
            std::size_t inGroup = std::min<std::size_t>(lanes, triangles - t);
            e.oneWay = false;
            for (int l = 0; l < lanes; ++l) {
                std::size_t k = t + std::min<std::size_t>(l, inGroup - 1);
                const auto& corner = model.triangles[k];
                for (int i = 0; i < 3; ++i) {
                    e.x[i][l] = model.nodes[corner[i]].x;
                    e.y[i][l] = model.nodes[corner[i]].y;
                    for (std::size_t c = 0; c < count; ++c)
                        for (int d = 0; d < 3; ++d)
                            in[9 * c + 3 * i + d][l] = u[from + c][3 * std::size_t(corner[i]) + d];
                }
                const auto& m = model.materials[model.material[k]];
                PlateModel::fill(e, l, m);
            }
            cornerMoments(e, int(count), in, out);
            for (std::size_t l = 0; l < inGroup; ++l) {
                double weight = twiceArea(model, t + l);
                for (int i = 0; i < 3; ++i) {
                    auto p = std::size_t(points.corner[3 * (t + l) + i]);
                    double w = weight * points.share[p];
                    for (std::size_t c = 0; c < count; ++c)
                        for (int d = 0; d < 3; ++d) all[from + c][3 * p + d] += w * out[9 * c + 3 * i + d][l];
                }
                for (int k = points.fitStart[t + l]; k < points.fitStart[t + l + 1]; ++k)
                    for (std::size_t c = 0; c < count; ++c)
                        for (int d = 0; d < 3; ++d)
                            all[from + c][3 * std::size_t(points.fit[k].point) + d] +=
                                points.fit[k].weight / 3 *
                                (out[9 * c + d][l] + out[9 * c + 3 + d][l] + out[9 * c + 6 + d][l]);
            }
        }
    });
    stages.recover += std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count();
    return all;
}

ShearField recoverShears(const PlateModel& model, const FieldPoints& points, const MomentField& m) {
    ShearField q(2 * points.node.size(), 0);
    std::vector<double> area(points.node.size(), 0);
    for (std::size_t t = 0; t < model.triangles.size(); ++t) {
        const auto& n = model.triangles[t];
        Point p[3] = {model.nodes[n[0]], model.nodes[n[1]], model.nodes[n[2]]};
        double qx = 0, qy = 0;  // times twice the area
        for (int i = 0; i < 3; ++i) {
            Point a = p[(i + 1) % 3], b = p[(i + 2) % 3];
            double gx = a.y - b.y, gy = b.x - a.x;
            const double* v = &m[3 * std::size_t(points.corner[3 * t + i])];
            qx += gx * v[0] + gy * v[2];
            qy += gy * v[1] + gx * v[2];
        }
        for (int i = 0; i < 3; ++i) {
            auto k = std::size_t(points.corner[3 * t + i]);
            q[2 * k] += qx;
            q[2 * k + 1] += qy;
            area[k] += twiceArea(model, t);
        }
    }
    for (std::size_t k = 0; k < area.size(); ++k)
        if (area[k] > 0) q[2 * k] /= area[k], q[2 * k + 1] /= area[k];
    return q;
}

}  // namespace talvik::fem
