#include "bases/cap_shapes.h"

#include <algorithm>
#include <cmath>

namespace talvik::bases {

using geometry::Point;
using geometry::Ring;

namespace {

std::vector<Point> rows(const std::vector<int>& numbers, double along, double apart) {
    std::vector<Point> all;
    for (std::size_t r = 0; r < numbers.size(); ++r)
        for (int k = 0; k < numbers[r]; ++k)
            all.push_back({(k - (numbers[r] - 1) / 2.0) * along,
                           (double(r) - (double(numbers.size()) - 1) / 2) * apart});
    return all;
}

// Where two lines n p = c meet.
Point meet(Point n, double c, Point m, double e) {
    const double det = n.x * m.y - n.y * m.x;
    return {(c * m.y - e * n.y) / det, (n.x * e - m.x * c) / det};
}

}  // namespace

const std::vector<int>& pileNumbers() {
    static const std::vector<int> all{1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 15, 16, 20, 25, 30, 36};
    return all;
}

std::vector<Point> pileArrangement(int n, double s) {
    const double slope = s * std::sqrt(3.0) / 2;
    switch (n) {
        case 1:
            return {{0, 0}};
        case 2:
            return rows({2}, s, s);
        case 3:
            return {{-s / 2, -slope / 3}, {s / 2, -slope / 3}, {0, 2 * slope / 3}};
        case 4:
            return rows({2, 2}, s, s);
        case 5: {
            const double a = s / std::sqrt(2.0);
            return {{-a, -a}, {a, -a}, {0, 0}, {-a, a}, {a, a}};
        }
        case 6:
            return rows({3, 3}, s, s);
        case 7:
            return rows({2, 3, 2}, s, slope);
        case 8:
            return rows({3, 2, 3}, s, slope);
        case 9:
            return rows({3, 3, 3}, s, s);
        case 10:
            return rows({3, 4, 3}, s, slope);
        case 11:
            return rows({4, 3, 4}, s, slope);
        case 12:
            return rows({4, 4, 4}, s, s);
        case 15:
            return rows({5, 5, 5}, s, s);
        case 16:
            return rows({4, 4, 4, 4}, s, s);
        case 20:
            return rows({5, 5, 5, 5}, s, s);
        case 25:
            return rows({5, 5, 5, 5, 5}, s, s);
        case 30:
            return rows({6, 6, 6, 6, 6}, s, s);
        case 36:
            return rows({6, 6, 6, 6, 6, 6}, s, s);
        default:
            return {};
    }
}

Ring alongPiles(const std::vector<Point>& piles, double edge, bool cornersCut) {
    const Ring hull = geometry::hull(piles);
    const std::size_t n = hull.size();
    if (n < 3) return {};
    struct Side {
        Point normal;
        double away;
    };
    std::vector<Side> sides;
    bool rectangle = true;
    for (std::size_t i = 0; i < n; ++i) {
        const Point a = hull[i], b = hull[(i + 1) % n];
        const double l = geometry::length(a, b);
        const Point out{(b.y - a.y) / l, -(b.x - a.x) / l};
        rectangle &= std::min(std::abs(out.x), std::abs(out.y)) < 1e-9;
        if (cornersCut && i > 0 && out.x * sides.back().normal.x + out.y * sides.back().normal.y < -1e-6) {
            const Point p = sides.back().normal;
            const double m = std::hypot(p.x + out.x, p.y + out.y);
            const Point cut{(p.x + out.x) / m, (p.y + out.y) / m};
            sides.push_back({cut, cut.x * a.x + cut.y * a.y + edge});
        }
        sides.push_back({out, out.x * a.x + out.y * a.y + edge});
    }
    if (rectangle) return {};
    if (const Point p = sides.back().normal, q = sides.front().normal;
        cornersCut && p.x * q.x + p.y * q.y < -1e-6) {
        const double m = std::hypot(p.x + q.x, p.y + q.y);
        const Point cut{(p.x + q.x) / m, (p.y + q.y) / m};
        sides.push_back({cut, cut.x * hull[0].x + cut.y * hull[0].y + edge});
    }
    Ring out;
    for (std::size_t i = 0; i < sides.size(); ++i) {
        const auto& a = sides[(i + sides.size() - 1) % sides.size()];
        out.push_back(meet(a.normal, a.away, sides[i].normal, sides[i].away));
    }
    return out;
}

Chord chord(const Ring& convex, int axis, double at) {
    Chord c{1e300, -1e300};
    for (std::size_t i = 0; i < convex.size(); ++i) {
        const Point a = convex[i], b = convex[(i + 1) % convex.size()];
        const double ua = axis == 0 ? a.x : a.y, ub = axis == 0 ? b.x : b.y, va = axis == 0 ? a.y : a.x,
                     vb = axis == 0 ? b.y : b.x;
        if (std::min(ua, ub) > at + 1e-9 || std::max(ua, ub) < at - 1e-9) continue;
        if (std::abs(ub - ua) < 1e-9) {
            c.from = std::min({c.from, va, vb}), c.to = std::max({c.to, va, vb});
            continue;
        }
        const double v = va + (vb - va) * std::clamp((at - ua) / (ub - ua), 0.0, 1.0);
        c.from = std::min(c.from, v), c.to = std::max(c.to, v);
    }
    return c;
}

double reach(const Ring& convex, Point from, Point way) {
    double far = 1e300;
    for (std::size_t i = 0; i < convex.size(); ++i) {
        const Point a = convex[i], b = convex[(i + 1) % convex.size()];
        // Outwards by n, not of unit length.
        const Point n{b.y - a.y, -(b.x - a.x)};
        const double towards = n.x * way.x + n.y * way.y;
        if (towards <= 1e-12) continue;
        far = std::min(far, (n.x * (a.x - from.x) + n.y * (a.y - from.y)) / towards);
    }
    return std::max(0.0, far);
}

}  // namespace talvik::bases
