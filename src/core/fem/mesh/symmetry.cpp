#include "fem/mesh/symmetry.h"

#include <algorithm>
#include <cmath>

namespace talvik::fem {
namespace {

double& coordinate(Point& p, int axis) {
    return axis == 0 ? p.x : p.y;
}
Point image(Point p, int axis) {
    coordinate(p, axis) = -coordinate(p, axis);
    return p;
}
bool near(Point a, Point b, double alike) {
    return std::abs(a.x - b.x) < alike && std::abs(a.y - b.y) < alike;
}

// For every one of `all` another (or itself) that `same(one, other)` takes for its image, each used once;
// empty where there is none. Places are looked up by one coordinate.
template <class T, class Key, class Same>
std::vector<int> pair(const std::vector<T>& all, double alike, Key key, Same same) {
    std::vector<int> order(all.size()), partner(all.size(), -1);
    for (std::size_t i = 0; i < all.size(); ++i) order[i] = int(i);
    std::stable_sort(order.begin(), order.end(),
                     [&](int a, int b) { return key(all[std::size_t(a)]) < key(all[std::size_t(b)]); });
    std::vector<char> used(all.size(), 0);
    for (std::size_t i = 0; i < all.size(); ++i) {
        const double k = key(all[i]);
        auto at = std::lower_bound(order.begin(), order.end(), k - alike,
                                   [&](int a, double v) { return key(all[std::size_t(a)]) < v; });
        for (; at != order.end() && key(all[std::size_t(*at)]) <= k + alike && partner[i] < 0; ++at)
            if (!used[std::size_t(*at)] && same(all[i], all[std::size_t(*at)]))
                used[std::size_t(*at)] = 1, partner[i] = *at;
        if (partner[i] < 0) return {};
    }
    return partner;
}

// The part of a ring on the side where the coordinate is not positive (I. E. Sutherland and G. W. Hodgman,
// 1974); what is cut runs along the axis.
geometry::Ring below(const geometry::Ring& ring, int axis) {
    geometry::Ring out;
    for (std::size_t i = 0; i < ring.size(); ++i) {
        Point a = ring[i], b = ring[(i + 1) % ring.size()];
        const double va = coordinate(a, axis), vb = coordinate(b, axis);
        if (va <= 0) out.push_back(a);
        if ((va < 0 && vb > 0) || (va > 0 && vb < 0)) {
            const double t = va / (va - vb);
            Point p{a.x + t * (b.x - a.x), a.y + t * (b.y - a.y)};
            coordinate(p, axis) = 0;
            out.push_back(p);
        }
    }
    return out;
}

}  // namespace

Point ReducedTask::toLocal(Point p) const {
    const double x = p.x - origin_.x, y = p.y - origin_.y;
    return {x * c_ + y * s_, y * c_ - x * s_};
}
Point ReducedTask::toPlan(Point p) const {
    return {origin_.x + p.x * c_ - p.y * s_, origin_.y + p.x * s_ + p.y * c_};
}

ReducedTask::ReducedTask(const MeshTask& input) : input_(input), local_(input), alike_(0.01) {
    // Longest edge; those as long to a millionth are taken in the order of the outline.
    double longest = 0;
    for (const auto& r : input.slabs)
        for (std::size_t i = 0; i < r.size(); ++i) {
            const Point a = r[i], b = r[(i + 1) % r.size()];
            const double length = std::hypot(b.x - a.x, b.y - a.y);
            if (length > longest * (1 + 1e-6))
                longest = length, c_ = (b.x - a.x) / length, s_ = (b.y - a.y) / length;
        }
    for (double* v : {&c_, &s_})
        if (std::abs(*v) < 1e-12) *v = 0;
    if (c_ == 0) s_ = std::copysign(1.0, s_);
    if (s_ == 0) c_ = std::copysign(1.0, c_);
    Point low{1e300, 1e300}, high{-1e300, -1e300};
    for (const auto& r : input.slabs)
        for (Point p : r) {
            const Point q = toLocal(p);
            low = {std::min(low.x, q.x), std::min(low.y, q.y)};
            high = {std::max(high.x, q.x), std::max(high.y, q.y)};
        }
    if (low.x > high.x) return;
    origin_ = toPlan({(low.x + high.x) / 2, (low.y + high.y) / 2});
    // What turning leaves of rounding would make equal places differ.
    auto place = [&](Point& p) {
        p = toLocal(p);
        if (c_ == 0 || s_ == 0) return;
        constexpr double step = 1e-9;
        p = {std::round(p.x / step) * step + 0.0, std::round(p.y / step) * step + 0.0};
    };
    for (auto* rings : {&local_.slabs, &local_.openings})
        for (auto& r : *rings)
            for (auto& p : r) place(p);
    for (auto& l : local_.lines) place(l.a), place(l.b);
    for (auto& p : local_.points) place(p);
    for (auto& f : local_.fine) place(f.at);
    task_ = local_;
    for (int axis : {0, 1}) mirror_[axis] = symmetric(axis);
    // From here on a line of the reduced task is known by its place among the input's.
    for (std::size_t i = 0; i < task_.lines.size(); ++i)
        if (task_.lines[i].id >= 0) task_.lines[i].id = int(i);
    pointAt_.resize(task_.points.size());
    for (std::size_t i = 0; i < pointAt_.size(); ++i) pointAt_[i] = int(i);
    for (int axis : {0, 1})
        if (mirror_[axis]) cut(axis);
    // The lattice is symmetric about a seed; its rows follow one of the mirror axes.
    if (mirror_[0] || mirror_[1]) {
        task_.lattice = Point{0, 0};
        task_.upright = !mirror_[1];
        task_.lines.back().lattice = MeshTask::Line::Lattice::Along;
        if (mirror_[0] && mirror_[1])
            task_.lines[task_.lines.size() - 2].lattice = MeshTask::Line::Lattice::Across;
    }
}

bool ReducedTask::symmetric(int axis) {
    const double alike = alike_;
    auto other = [axis](Point p) { return coordinate(p, 1 - axis); };
    std::vector<Point> corners;
    for (const auto* rings : {&local_.slabs, &local_.openings}) {
        corners.clear();
        std::vector<double> size;
        for (const auto& r : *rings) corners.insert(corners.end(), r.begin(), r.end());
        if (!corners.empty() && pair(corners, alike, other, [axis, alike](Point a, Point b) {
                                    return near(image(a, axis), b, alike);
                                }).empty())
            return false;
        // The same corners may be joined otherwise.
        std::vector<MeshTask::Line> sides;
        for (const auto& r : *rings)
            for (std::size_t i = 0; i < r.size(); ++i) sides.push_back({r[i], r[(i + 1) % r.size()]});
        if (!sides.empty() &&
            pair(
                sides, alike, [&](const auto& l) { return other(l.a) + other(l.b); },
                [axis, alike](const auto& a, const auto& b) {
                    return (near(image(a.a, axis), b.b, alike) && near(image(a.b, axis), b.a, alike)) ||
                           (near(image(a.a, axis), b.a, alike) && near(image(a.b, axis), b.b, alike));
                })
                .empty())
            return false;
    }
    if (!local_.lines.empty()) {
        partner_[axis] = pair(
            local_.lines, alike, [&](const auto& l) { return (other(l.a) + other(l.b)) / 2; },
            [axis, alike](const auto& a, const auto& b) {
                return a.yields == b.yields && (a.id >= 0) == (b.id >= 0) &&
                       ((near(image(a.a, axis), b.b, alike) && near(image(a.b, axis), b.a, alike)) ||
                        (near(image(a.a, axis), b.a, alike) && near(image(a.b, axis), b.b, alike)));
            });
        if (partner_[axis].empty()) return false;
    }
    if (!local_.points.empty()) {
        pointPartner_[axis] = pair(local_.points, alike, other, [axis, alike](Point a, Point b) {
            return near(image(a, axis), b, alike);
        });
        if (pointPartner_[axis].empty()) return false;
    }
    return local_.fine.empty() || !pair(
                                       local_.fine, alike, [&](const auto& f) { return other(f.at); },
                                       [axis, alike](const auto& a, const auto& b) {
                                           return near(image(a.at, axis), b.at, alike) &&
                                                  std::abs(a.radius - b.radius) < alike &&
                                                  std::abs(a.size - b.size) < alike;
                                       })
                                       .empty();
}

void ReducedTask::cut(int axis) {
    auto settle = [axis, this](Point& p) {
        if (std::abs(coordinate(p, axis)) < alike_) coordinate(p, axis) = 0;
    };
    for (auto* rings : {&task_.slabs, &task_.openings}) {
        std::vector<geometry::Ring> kept;
        for (auto& r : *rings) {
            for (auto& p : r) settle(p);
            auto part = below(r, axis);
            if (part.size() > 2 && std::abs(geometry::area(part)) > 1e-9) kept.push_back(std::move(part));
        }
        *rings = std::move(kept);
    }
    std::vector<MeshTask::Line> lines;
    double low = 1e300, high = -1e300;
    for (const auto& r : task_.slabs)
        for (Point p : r)
            low = std::min(low, coordinate(p, 1 - axis)), high = std::max(high, coordinate(p, 1 - axis));
    for (auto l : task_.lines) {
        settle(l.a), settle(l.b);
        const double a = coordinate(l.a, axis), b = coordinate(l.b, axis);
        if (a > 0 && b > 0) continue;
        if (std::max(a, b) > 0) {
            if (std::min(a, b) == 0) continue;  // beyond, but for its end
            const double t = a / (a - b);
            Point p{l.a.x + t * (l.b.x - l.a.x), l.a.y + t * (l.b.y - l.a.y)};
            coordinate(p, axis) = 0;
            (a > 0 ? l.a : l.b) = p;
        }
        lines.push_back(l);
    }
    MeshTask::Line mirror;
    coordinate(mirror.a, 1 - axis) = low, coordinate(mirror.b, 1 - axis) = high;
    lines.push_back(mirror);
    task_.lines = std::move(lines);
    std::vector<Point> points;
    std::vector<int> at(task_.points.size(), -1);
    for (std::size_t i = 0; i < task_.points.size(); ++i) {
        Point p = task_.points[i];
        settle(p);
        if (coordinate(p, axis) > 0) continue;
        at[i] = int(points.size());
        points.push_back(p);
    }
    for (int& k : pointAt_)
        if (k >= 0) k = at[std::size_t(k)];
    task_.points = std::move(points);
    std::erase_if(task_.fine, [&](auto& f) {
        settle(f.at);
        return coordinate(f.at, axis) > 0;
    });
}

void ReducedTask::unfold(Mesh& m, int axis) const {
    const std::size_t nodes = m.nodes.size(), triangles = m.triangles.size(), parts = m.partPoint.size();
    std::vector<int> of(nodes);
    for (std::size_t n = 0; n < nodes; ++n) {
        if (std::abs(coordinate(m.nodes[n], axis)) < alike_ * 1e-6) {
            coordinate(m.nodes[n], axis) = 0;
            of[n] = int(n);
            continue;
        }
        of[n] = int(m.nodes.size());
        m.nodes.push_back(image(m.nodes[n], axis));
    }
    for (std::size_t t = 0; t < triangles; ++t) {
        const auto k = m.triangles[t];
        m.triangles.push_back({of[std::size_t(k[0])], of[std::size_t(k[2])], of[std::size_t(k[1])]});
        m.part.push_back(m.part[t] + int(parts));
    }
    for (std::size_t p = 0; p < parts; ++p) m.partPoint.push_back(image(m.partPoint[p], axis));
    const std::size_t edges = m.edges.size();
    for (std::size_t e = 0; e < edges; ++e) {
        const auto edge = m.edges[e];
        const int line = partner_[axis][std::size_t(edge.line)];
        int a = of[std::size_t(edge.a)], b = of[std::size_t(edge.b)];
        if (a == edge.a && b == edge.b) continue;  // on the axis
        const auto& l = local_.lines[std::size_t(line)];
        const Point p = m.nodes[std::size_t(a)], q = m.nodes[std::size_t(b)];
        if ((q.x - p.x) * (l.b.x - l.a.x) + (q.y - p.y) * (l.b.y - l.a.y) < 0) std::swap(a, b);
        m.edges.push_back({a, b, line});
    }
    // Points of the other side are the images of their partners.
    for (std::size_t i = 0; i < m.pointNode.size(); ++i)
        if (m.pointNode[i] == -2) {
            const int from = m.pointNode[std::size_t(pointPartner_[axis][i])];
            if (from != -2) m.pointNode[i] = from < 0 ? from : of[std::size_t(from)];
        }
}

Mesh ReducedTask::whole(Mesh m) const {
    if (!m.error.empty()) return m;
    std::vector<int> pointNode(input_.points.size(), -2);
    for (std::size_t i = 0; i < pointNode.size(); ++i)
        if (pointAt_[i] >= 0) pointNode[i] = m.pointNode[std::size_t(pointAt_[i])];
    m.pointNode = std::move(pointNode);
    for (int axis : {1, 0})
        if (mirror_[axis]) unfold(m, axis);
    for (int& n : m.pointNode)
        if (n == -2) n = -1;
    for (auto& p : m.nodes) p = toPlan(p);
    for (auto& p : m.partPoint) p = toPlan(p);
    m.smallestAngleAt = toPlan(m.smallestAngleAt);
    for (auto& e : m.edges) e.line = input_.lines[std::size_t(e.line)].id;
    return m;
}

}  // namespace talvik::fem
