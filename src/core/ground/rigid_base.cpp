#include "ground/rigid_base.h"

#include <fmt/format.h>

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

namespace talvik::ground {
namespace {

// What of a ring lies where a + b x + c y > 0.
Ring positive(const Ring& ring, double a, double b, double c) {
    Ring out;
    auto value = [&](Point p) { return a + b * p.x + c * p.y; };
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Point p = ring[i], q = ring[(i + 1) % ring.size()];
        const double u = value(p), v = value(q);
        if (u > 0) out.push_back(p);
        if ((u > 0) != (v > 0)) {
            const double t = u / (u - v);
            out.push_back({p.x + t * (q.x - p.x), p.y + t * (q.y - p.y)});
        }
    }
    return out;
}

// Integrals of 1, x, y, x2, xy, y2 over an anticlockwise ring: a symmetric matrix of [1 x y] by itself.
Eigen::Matrix3d integrals(const Ring& r) {
    double s0 = 0, sx = 0, sy = 0, sxx = 0, sxy = 0, syy = 0;
    for (std::size_t i = 0; i < r.size(); ++i) {
        const Point p = r[i], q = r[(i + 1) % r.size()];
        const double w = p.x * q.y - q.x * p.y;
        s0 += w / 2;
        sx += w * (p.x + q.x) / 6, sy += w * (p.y + q.y) / 6;
        sxx += w * (p.x * p.x + p.x * q.x + q.x * q.x) / 12;
        syy += w * (p.y * p.y + p.y * q.y + q.y * q.y) / 12;
        sxy += w * (p.x * q.y + 2 * p.x * p.y + 2 * q.x * q.y + q.x * p.y) / 24;
    }
    Eigen::Matrix3d m;
    m << s0, sx, sy, sx, sxx, sxy, sy, sxy, syy;
    return m;
}

}  // namespace

double Pressure::at(Point p) const {
    return good() ? std::max(0.0, a + b * p.x + c * p.y) : 0;
}

Pressure pressure(const Ring& outline, const Resultant& resultant) {
    Pressure out;
    Ring base = outline;
    if (geometry::area(base) < 0) std::reverse(base.begin(), base.end());
    if (base.size() < 3 || !(geometry::area(base) > 0)) {
        out.trouble = "The base has no area.";
        return out;
    }
    if (!(resultant.N > 0)) {
        out.trouble = "The base is not pressed down: the vertical force is not downwards.";
        return out;
    }
    const Point e = resultant.at();
    // A resultant needs ground around it: within the hull of the base, not on its edge.
    const Ring hull = geometry::hull(base);
    const bool in = geometry::contains(hull, e);
    const double toEdge = geometry::distanceToEdge(hull, e), size = std::sqrt(geometry::area(base));
    if (!in || toEdge < 1e-6 * size) {
        out.outside = in ? 0 : toEdge;
        out.trouble = in ? std::string("The resultant lies on the edge of the base.")
                         : fmt::format("The resultant falls {:.0f} mm outside the base.", toEdge);
        return out;
    }
    // In lengths of the base about its middle, and pressures of the mean one: all numbers near 1.
    const Point o = geometry::centroid(base);
    const double mean = resultant.N / geometry::area(base);
    Ring unit;
    for (Point p : base) unit.push_back({(p.x - o.x) / size, (p.y - o.y) / size});
    const Eigen::Vector3d load(1, (e.x - o.x) / size, (e.y - o.y) / size);
    Eigen::Vector3d plane(1, 0, 0);
    auto energy = [&](const Eigen::Vector3d& p) {
        const Ring c = positive(unit, p[0], p[1], p[2]);
        return 0.5 * (c.size() < 3 ? 0.0 : p.dot(integrals(c) * p)) - load.dot(p);
    };
    for (int step = 0; step < 200; ++step) {
        const Ring contact = positive(unit, plane[0], plane[1], plane[2]);
        const Eigen::Matrix3d K = contact.size() < 3 ? Eigen::Matrix3d::Zero() : integrals(contact);
        const Eigen::Vector3d left = load - K * plane;
        if (left.norm() < 1e-13) break;
        // A little of the whole base keeps the step defined where little is in contact.
        Eigen::Matrix3d slope = K;
        if (K.determinant() < 1e-14) slope += 1e-6 * integrals(unit);
        const Eigen::Vector3d way = slope.fullPivLu().solve(left);
        double t = 1;
        const double now = energy(plane), falls = left.dot(way);
        while (t > 1e-9 && energy(plane + t * way) > now - 1e-4 * t * falls + 1e-15) t /= 2;
        plane += t * way;
        if (t <= 1e-9) break;
    }
    out.b = mean * plane[1] / size, out.c = mean * plane[2] / size;
    out.a = mean * plane[0] - out.b * o.x - out.c * o.y;
    out.contact = positive(base, out.a, out.b, out.c);
    out.share = std::abs(geometry::area(out.contact)) / geometry::area(base);
    for (Point p : base) out.largest = std::max(out.largest, out.a + out.b * p.x + out.c * p.y);
    return out;
}

Pressure rectanglePressure(double B, double L, const Resultant& r) {
    const Ring base{{-B / 2, -L / 2}, {B / 2, -L / 2}, {B / 2, L / 2}, {-B / 2, L / 2}};
    if (!(B > 0) || !(L > 0) || !(r.N > 0)) return pressure(base, r);
    const Point e = r.at();
    if (std::abs(e.x) / B + std::abs(e.y) / L > 1.0 / 6) return pressure(base, r);
    Pressure p;
    p.a = r.N / (B * L);
    p.b = p.a * 12 * e.x / (B * B), p.c = p.a * 12 * e.y / (L * L);
    p.contact = base, p.share = 1;
    p.largest = p.a + std::abs(p.b) * B / 2 + std::abs(p.c) * L / 2;
    return p;
}

Beyond beyond(const Pressure& p, int axis, double at, bool side) {
    if (!p.good()) return {};
    const double sign = side ? 1 : -1;
    const Ring part = positive(p.contact, -sign * at, axis == 0 ? sign : 0, axis == 1 ? sign : 0);
    if (part.size() < 3) return {};
    const Eigen::Matrix3d m = integrals(part);
    const Eigen::Vector3d plane(p.a, p.b, p.c);
    const Eigen::Vector3d of = m * plane;  // integrals of p, p x, p y
    return {of[0], sign * (of[1 + axis] - at * of[0])};
}

EffectiveArea effectiveArea(double B, double L, double eB, double eL) {
    return {std::max(0.0, B - 2 * std::abs(eB)), std::max(0.0, L - 2 * std::abs(eL))};
}

LeastSide leastSide(double N, double Mx, double My, double weight, double allowable) {
    LeastSide out;
    if (!(N > 0) || !(allowable > weight)) return out;
    auto search = [&](auto enough) {
        double low = 0,
               high = 2 * std::sqrt(N / (allowable - weight)) + 4 * (std::abs(Mx) + std::abs(My)) / N;
        while (!enough(high)) high *= 2;
        for (int k = 0; k < 100; ++k) {
            const double m = (low + high) / 2;
            (enough(m) ? high : low) = m;
        }
        return high;
    };
    out.byEdge = search([&](double s) {
        const Ring base{{-s / 2, -s / 2}, {s / 2, -s / 2}, {s / 2, s / 2}, {-s / 2, s / 2}};
        const auto p = pressure(base, {N + weight * s * s, My, Mx});
        return p.good() && p.largest <= allowable;
    });
    out.byEffectiveArea = search([&](double s) {
        const double all = N + weight * s * s;
        const auto a = effectiveArea(s, s, My / all, Mx / all);
        return a.area() > 0 && all / a.area() <= allowable;
    });
    return out;
}

Stability stability(double N, double H, double B, double L, double M, double tanDelta, double adhesion) {
    return {(N * tanDelta + adhesion * B * L) / H, N * B / (2 * M)};
}

}  // namespace talvik::ground
