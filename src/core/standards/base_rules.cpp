#include "standards/base_rules.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include "units/units.h"

namespace talvik::standards {

using geometry::Point;

std::string BaseCombination::name(const std::vector<std::string>& actions) const {
    std::string all;
    for (std::size_t i = 0; i < factors.size() && i < actions.size(); ++i)
        if (factors[i] != 0)
            all += fmt::format("{}{} {}", all.empty() ? "" : " + ",
                               units::plain(units::rounded(factors[i], 5)), actions[i]);
    if (all.empty()) all = "weight alone";
    return lightStrap ? all + ", no imposed load on inner column" : all;
}

double FootingPunching::depth(double a) const {
    if (low <= 0 || a <= shoulder) return d;
    return step ? low : d - (d - low) * std::clamp((a - shoulder) / std::max(1.0, run), 0.0, 1.0);
}
double FootingPunching::clear(geometry::Point at) const {
    return std::hypot(std::max(0.0, std::abs(at.x) - sides[0] / 2),
                      std::max(0.0, std::abs(at.y) - sides[1] / 2));
}

namespace {

// Of a side of an anticlockwise outline: outwards, of unit length.
Point outwards(const geometry::Ring& ring, std::size_t side) {
    const Point p = ring[side], q = ring[(side + 1) % ring.size()];
    const double l = geometry::length(p, q);
    return {(q.y - p.y) / l, -(q.x - p.x) / l};
}

}  // namespace

std::vector<FootingPunching::Room> FootingPunching::rooms() const {
    std::vector<Room> all;
    if (outline.empty()) {
        for (std::size_t i = 0; i < 4; ++i) all.push_back({over[i], over[i ^ 1]});
        return all;
    }
    for (std::size_t i = 0; i < outline.size(); ++i) {
        const Point a = outline[i], n = outwards(outline, i);
        const double half = (std::abs(n.x) * sides[0] + std::abs(n.y) * sides[1]) / 2;
        double away = 1e300;
        for (Point p : outline) away = std::min(away, n.x * p.x + n.y * p.y);
        all.push_back({std::max(0.0, n.x * a.x + n.y * a.y - half), std::max(0.0, -away - half)});
    }
    return all;
}

double FootingPunching::freeSides() const {
    const double all = 2 * (sides[0] + sides[1]);
    const auto edges = rooms();
    double left = all;
    if (outline.empty()) {
        for (std::size_t i = 0; i < 4; ++i)
            if (near(edges[i])) left -= sides[i < 2 ? 1 : 0];
        return left;
    }
    std::vector<Point> towards;
    for (std::size_t i = 0; i < outline.size(); ++i)
        if (near(edges[i])) towards.push_back(outwards(outline, i));
    constexpr int parts = 360;
    int free = 0;
    for (int k = 0; k < parts; ++k) {
        const double t = 2 * std::numbers::pi * (k + 0.5) / parts;
        free += std::none_of(towards.begin(), towards.end(), [t](Point n) {
            return std::cos(t) * n.x + std::sin(t) * n.y > std::numbers::sqrt2 / 2;
        });
    }
    return all * free / parts;
}

namespace {

// A perimeter on a base of any convex outline, in straight pieces. Towards edges that are nearer than it, the
// column reaches to the edge by its shadow at right angles: lines run so to the edge, as on a rectangle.
struct Traced {
    std::vector<geometry::Segment> pieces;
    double area = 0;
    bool whole = true;
};
Traced traced(const FootingPunching& in, double a, bool rounded) {
    Traced out;
    const auto& ring = in.outline;
    const auto rooms = in.rooms();
    std::vector<Point> points;
    for (int k = 0; k < 4; ++k)
        points.push_back({(k % 2 ? 0.5 : -0.5) * in.sides[0], (k / 2 ? 0.5 : -0.5) * in.sides[1]});
    for (std::size_t i = 0; i < ring.size(); ++i) {
        if (rooms[i].over >= a) continue;
        out.whole = false;
        const Point n = outwards(ring, i);
        for (int k = 0; k < 4; ++k) {
            const Point c = points[std::size_t(k)];
            const double away = n.x * (ring[i].x - c.x) + n.y * (ring[i].y - c.y);
            points.push_back({c.x + away * n.x, c.y + away * n.y});
        }
        if (rooms[(i + 1) % ring.size()].over < a) points.push_back(ring[(i + 1) % ring.size()]);
    }
    const geometry::Ring near = geometry::clipped(geometry::hull(points), ring);
    out.area = std::abs(geometry::area(near));
    const std::size_t n = near.size();
    if (n < 3) return out;
    auto onEdge = [&](Point p, Point q) {
        for (std::size_t i = 0; i < ring.size(); ++i)
            if (geometry::distance(p, ring[i], ring[(i + 1) % ring.size()]) < 0.01 &&
                geometry::distance(q, ring[i], ring[(i + 1) % ring.size()]) < 0.01)
                return true;
        return false;
    };
    // What of a piece lies on the base.
    auto add = [&](Point p, Point q) {
        double from = 0, to = 1;
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point m = outwards(ring, i);
            const double u = m.x * (ring[i].x - p.x) + m.y * (ring[i].y - p.y),
                         v = m.x * (q.x - p.x) + m.y * (q.y - p.y);
            if (std::abs(v) < 1e-9) {
                if (u < -1e-6) return;
            } else if (v > 0) {
                to = std::min(to, u / v);
            } else {
                from = std::max(from, u / v);
            }
        }
        if (to - from < 1e-9) return;
        const Point s{p.x + from * (q.x - p.x), p.y + from * (q.y - p.y)},
            e{p.x + to * (q.x - p.x), p.y + to * (q.y - p.y)};
        out.pieces.push_back({s, e});
    };
    std::vector<Point> normals(n);
    std::vector<bool> free(n);
    for (std::size_t i = 0; i < n; ++i) {
        const Point p = near[i], q = near[(i + 1) % n];
        const double l = geometry::length(p, q);
        free[i] = l > 0.01 && !onEdge(p, q);
        if (l > 0.01) normals[i] = outwards(near, i);
        if (!free[i]) continue;
        add({p.x + a * normals[i].x, p.y + a * normals[i].y},
            {q.x + a * normals[i].x, q.y + a * normals[i].y});
        out.area += l * a;
    }
    for (std::size_t i = 0; i < n; ++i) {
        const std::size_t j = (i + 1) % n;
        if (!free[i] || !free[j]) continue;
        const Point c = near[j];
        const double from = std::atan2(normals[i].y, normals[i].x),
                     turn =
                         std::remainder(std::atan2(normals[j].y, normals[j].x) - from, 2 * std::numbers::pi);
        if (rounded) {
            const int parts = std::max(1, int(std::ceil(turn / (std::numbers::pi / 24))));
            for (int k = 0; k < parts; ++k) {
                const double s = from + turn * k / parts, e = from + turn * (k + 1) / parts;
                add({c.x + a * std::cos(s), c.y + a * std::sin(s)},
                    {c.x + a * std::cos(e), c.y + a * std::sin(e)});
            }
            out.area += a * a * turn / 2;
        } else {
            const double more = a * std::tan(turn / 2);
            const Point p{c.x + a * normals[i].x, c.y + a * normals[i].y},
                q{c.x + a * normals[j].x, c.y + a * normals[j].y},
                corner{p.x - more * normals[i].y, p.y + more * normals[i].x};
            add(p, corner), add(corner, q);
            out.area += a * more;
        }
    }
    return out;
}

struct Cuts {
    bool cut[4];
    double ext[4];
    Cuts(const FootingPunching& in, double a) {
        for (int i = 0; i < 4; ++i) cut[i] = in.over[i] < a, ext[i] = std::clamp(in.over[i], 0.0, a);
    }
};

}  // namespace

FootingPerimeter footingPerimeter(const FootingPunching& in, double a, bool rounded) {
    if (!in.outline.empty()) {
        const auto t = traced(in, a, rounded);
        FootingPerimeter p;
        p.area = t.area, p.whole = t.whole;
        for (const auto& s : t.pieces) p.length += geometry::length(s.a, s.b);
        p.open = p.length < 1;
        return p;
    }
    const Cuts c(in, a);
    const double arc = rounded ? std::numbers::pi * a / 2 : 2 * a,
                 off = rounded ? (1 - std::numbers::pi / 4) * a * a : 0;
    FootingPerimeter p;
    p.area = (in.sides[0] + c.ext[0] + c.ext[1]) * (in.sides[1] + c.ext[2] + c.ext[3]);
    for (int i = 0; i < 4; ++i) {
        p.whole = p.whole && !c.cut[i];
        if (!c.cut[i]) p.length += in.sides[i < 2 ? 1 : 0];
    }
    for (int i : {0, 1})
        for (int j : {2, 3}) {
            if (!c.cut[i] && !c.cut[j]) p.length += arc, p.area -= off;
            if (c.cut[i] != c.cut[j]) p.length += c.cut[i] ? c.ext[i] : c.ext[j];
        }
    p.open = p.length < 1;
    return p;
}

namespace {

// Pieces of a perimeter as stretches along an axis, each a length at a place, or spread evenly between two.
struct Piece {
    double from, to, length;
};
void onRectangle(const FootingPunching& in, double a, bool rounded, int axis, FootingMoments& m,
                 std::vector<Piece>& all) {
    const Cuts c(in, a);
    const int lo = axis == 0 ? 0 : 2, ac = axis == 0 ? 2 : 0;  // sides at the ends of the axis, and across it
    const double half = in.sides[axis] / 2, across = in.sides[1 - axis];
    for (int s : {0, 1}) {
        // The side at the end of the axis.
        if (!c.cut[lo + s]) {
            const double at = (s == 0 ? -1 : 1) * (half + a);
            all.push_back({at, at, across});
        }
        // The side along the axis.
        if (!c.cut[ac + s]) all.push_back({-half, half, 2 * half}), m.along += 2 * half;
    }
    for (int i : {0, 1})
        for (int j : {0, 1}) {
            const double sign = i == 0 ? -1 : 1;
            const bool ci = c.cut[lo + i], cj = c.cut[ac + j];
            if (!ci && !cj && rounded) {
                constexpr int parts = 12;
                for (int k = 0; k < parts; ++k) {
                    auto at = [&](int n) {
                        return sign * (half + a * std::sin(std::numbers::pi / 2 * n / parts));
                    };
                    all.push_back({at(k), at(k + 1), std::numbers::pi * a / 2 / parts});
                }
            } else if (!ci && !cj) {
                all.push_back({sign * half, sign * (half + a), a}), m.along += a;
                all.push_back({sign * (half + a), sign * (half + a), a});
            } else if (ci && !cj) {
                all.push_back({sign * half, sign * (half + c.ext[lo + i]), c.ext[lo + i]}),
                    m.along += c.ext[lo + i];
            } else if (!ci && cj) {
                all.push_back({sign * (half + a), sign * (half + a), c.ext[ac + j]});
            }
        }
}

}  // namespace

FootingMoments footingMoments(const FootingPunching& in, double a, bool rounded, int axis) {
    std::vector<Piece> all;
    FootingMoments m;
    if (!in.outline.empty()) {
        for (const auto& s : traced(in, a, rounded).pieces) {
            const double from = axis == 0 ? s.a.x : s.a.y, to = axis == 0 ? s.b.x : s.b.y;
            all.push_back({from, to, geometry::length(s.a, s.b)}), m.along += std::abs(to - from);
        }
    } else {
        onRectangle(in, a, rounded, axis, m, all);
    }
    double length = 0;
    for (const Piece& p : all) m.centroid += p.length * (p.from + p.to) / 2, length += p.length;
    if (length <= 0) return m;
    m.centroid /= length;
    for (Piece p : all) {
        p.from -= m.centroid, p.to -= m.centroid;
        if (p.from > p.to) std::swap(p.from, p.to);
        const double w = p.to - p.from, mid = (p.from + p.to) / 2;
        m.second += p.length * (mid * mid + w * w / 12);
        m.first += w > 1e-9 && p.from < 0 && p.to > 0 ? p.length / w * (p.from * p.from + p.to * p.to) / 2
                                                      : p.length * std::abs(mid);
        m.far = std::max({m.far, std::abs(p.from), std::abs(p.to)});
    }
    return m;
}

}  // namespace talvik::standards
