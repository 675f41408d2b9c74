#include "fem/plate/loads.h"

#include <algorithm>
#include <cmath>

namespace talvik::fem {

TriangleFinder::TriangleFinder(const std::vector<Point>& nodes,
                               const std::vector<std::array<int, 3>>& triangles)
    : nodes_(nodes), triangles_(triangles) {
    Point high{-1e300, -1e300};
    low_ = {1e300, 1e300};
    for (Point p : nodes) {
        low_ = {std::min(low_.x, p.x), std::min(low_.y, p.y)};
        high = {std::max(high.x, p.x), std::max(high.y, p.y)};
    }
    if (triangles.empty()) low_ = high = {0, 0};
    double width = std::max(high.x - low_.x, 1e-9), height = std::max(high.y - low_.y, 1e-9);
    cell_ = std::max(std::sqrt(width * height / double(std::max<std::size_t>(1, triangles.size()))) * 1.5,
                     std::max(width, height) / 4000);
    columns_ = std::size_t(width / cell_) + 1;
    rows_ = std::size_t(height / cell_) + 1;
    start_.assign(columns_ * rows_ + 1, 0);
    auto each = [&](auto f) {
        for (std::size_t t = 0; t < triangles_.size(); ++t) {
            Point a = nodes_[triangles_[t][0]], b = nodes_[triangles_[t][1]], c = nodes_[triangles_[t][2]];
            auto x0 = std::size_t((std::min({a.x, b.x, c.x}) - low_.x) / cell_),
                 x1 = std::size_t((std::max({a.x, b.x, c.x}) - low_.x) / cell_),
                 y0 = std::size_t((std::min({a.y, b.y, c.y}) - low_.y) / cell_),
                 y1 = std::size_t((std::max({a.y, b.y, c.y}) - low_.y) / cell_);
            for (std::size_t y = y0; y <= y1; ++y)
                for (std::size_t x = x0; x <= x1; ++x) f(y * columns_ + x, int(t));
        }
    };
    each([&](std::size_t cell, int) { ++start_[cell + 1]; });
    for (std::size_t c = 0; c + 1 < start_.size(); ++c) start_[c + 1] += start_[c];
    list_.resize(start_.back());
    std::vector<int> fill(start_.begin(), start_.end() - 1);
    each([&](std::size_t cell, int t) { list_[fill[cell]++] = t; });
}

std::array<double, 3> TriangleFinder::shares(int t, Point p) const {
    Point a = nodes_[triangles_[t][0]], b = nodes_[triangles_[t][1]], c = nodes_[triangles_[t][2]];
    double twice = (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
    double u = ((b.x - p.x) * (c.y - p.y) - (b.y - p.y) * (c.x - p.x)) / twice;
    double v = ((c.x - p.x) * (a.y - p.y) - (c.y - p.y) * (a.x - p.x)) / twice;
    return {u, v, 1 - u - v};
}

int TriangleFinder::find(Point p, std::array<double, 3>* out) const {
    double x = std::floor((p.x - low_.x) / cell_), y = std::floor((p.y - low_.y) / cell_);
    // A point on the very edge may fall a hair outside.
    if (x == -1) x = 0;
    if (y == -1) y = 0;
    if (x == double(columns_)) x -= 1;
    if (y == double(rows_)) y -= 1;
    if (!(x >= 0 && y >= 0 && x < double(columns_) && y < double(rows_))) return -1;
    std::size_t cell = std::size_t(y) * columns_ + std::size_t(x);
    for (int k = start_[cell]; k < start_[cell + 1]; ++k) {
        auto s = shares(list_[k], p);
        if (std::min({s[0], s[1], s[2]}) < -1e-7) continue;
        if (out) *out = s;
        return list_[k];
    }
    return -1;
}

void TriangleFinder::touching(Point low, Point high, const std::function<void(int)>& f) const {
    auto index = [&](double v, std::size_t n) {
        return std::size_t(std::clamp(std::floor(v / cell_), 0.0, double(n - 1)));
    };
    std::vector<int> found;
    found.reserve(256);
    for (std::size_t y = index(low.y - low_.y, rows_); y <= index(high.y - low_.y, rows_); ++y)
        for (std::size_t x = index(low.x - low_.x, columns_); x <= index(high.x - low_.x, columns_); ++x)
            for (int k = start_[y * columns_ + x]; k < start_[y * columns_ + x + 1]; ++k)
                found.push_back(list_[k]);
    std::sort(found.begin(), found.end());
    found.erase(std::unique(found.begin(), found.end()), found.end());
    for (int t : found) f(t);
}

std::vector<double> TriangleFinder::crossings(Point a, Point b) const {
    std::vector<double> stops{0, 1};
    double square = (b.x - a.x) * (b.x - a.x) + (b.y - a.y) * (b.y - a.y);
    touching({std::min(a.x, b.x), std::min(a.y, b.y)}, {std::max(a.x, b.x), std::max(a.y, b.y)}, [&](int t) {
        for (int i = 0; i < 3; ++i) {
            Point p = nodes_[triangles_[t][i]], r = nodes_[triangles_[t][(i + 1) % 3]];
            double sp = (b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x);
            double sr = (b.x - a.x) * (r.y - a.y) - (b.y - a.y) * (r.x - a.x);
            if ((sp > 0) == (sr > 0) && sp != 0 && sr != 0) continue;
            if (sp == sr) continue;
            double w = sp / (sp - sr), x = p.x + w * (r.x - p.x), y = p.y + w * (r.y - p.y);
            double u = ((x - a.x) * (b.x - a.x) + (y - a.y) * (b.y - a.y)) / square;
            if (w >= 0 && w <= 1 && u > 0 && u < 1) stops.push_back(u);
        }
    });
    std::sort(stops.begin(), stops.end());
    return stops;
}

namespace {

double areaOf(const TriangleFinder& plate, int t) {
    Point a = plate.nodes()[plate.triangles()[t][0]], b = plate.nodes()[plate.triangles()[t][1]],
          c = plate.nodes()[plate.triangles()[t][2]];
    return 0.5 * ((b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x));
}

void put(const TriangleFinder& plate, int t, const std::array<double, 3>& share, double force,
         NodeVector& f) {
    for (int i = 0; i < 3; ++i) f[3 * std::size_t(plate.triangles()[t][i])] += share[i] * force;
}

// Part of a ring on the left of the line from a to b (I. E. Sutherland and G. W. Hodgman, Reentrant polygon
// clipping, 1974). For a ring that is not convex, parts may be joined by edges of no area, which integrals of
// area and first moment do not see.
void clip(geometry::Ring& ring, Point a, Point b) {
    geometry::Ring kept;
    auto side = [&](Point p) { return (b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x); };
    for (std::size_t i = 0; i < ring.size(); ++i) {
        Point p = ring[i], q = ring[(i + 1) % ring.size()];
        double sp = side(p), sq = side(q);
        if (sp >= 0) kept.push_back(p);
        if ((sp >= 0) != (sq >= 0)) {
            double u = sp / (sp - sq);
            kept.push_back({p.x + u * (q.x - p.x), p.y + u * (q.y - p.y)});
        }
    }
    ring = std::move(kept);
}

}  // namespace

double addPressure(const TriangleFinder& plate, double q, const std::function<bool(int)>& loaded,
                   NodeVector& f) {
    double total = 0;
    for (std::size_t t = 0; t < plate.triangles().size(); ++t) {
        if (!loaded(int(t))) continue;
        double force = q * areaOf(plate, int(t));
        put(plate, int(t), {1.0 / 3, 1.0 / 3, 1.0 / 3}, force, f);
        total += force;
    }
    return total;
}

double addPressure(const TriangleFinder& plate, double q, const geometry::Ring& polygon, NodeVector& f) {
    if (polygon.size() < 3) return 0;
    geometry::Ring ring = polygon;
    if (geometry::area(ring) < 0) std::reverse(ring.begin(), ring.end());
    Point low = ring[0], high = ring[0];
    for (Point p : ring) {
        low = {std::min(low.x, p.x), std::min(low.y, p.y)};
        high = {std::max(high.x, p.x), std::max(high.y, p.y)};
    }
    // Triangles that an edge of the polygon may pass are cut; the others lie in or out as a whole.
    std::vector<char> cut(plate.triangles().size(), 0);
    for (std::size_t i = 0; i < ring.size(); ++i) {
        Point a = ring[i], b = ring[(i + 1) % ring.size()];
        plate.touching({std::min(a.x, b.x), std::min(a.y, b.y)}, {std::max(a.x, b.x), std::max(a.y, b.y)},
                       [&](int t) {
                           int left = 0, right = 0;
                           for (int n : plate.triangles()[t]) {
                               Point p = plate.nodes()[n];
                               double side = (b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x);
                               left += side >= 0, right += side <= 0;
                           }
                           if (left && right) cut[t] = 1;
                       });
    }
    double total = 0;
    plate.touching(low, high, [&](int t) {
        if (!cut[t]) {
            Point p = plate.nodes()[plate.triangles()[t][0]];
            if (!geometry::contains(ring, p)) return;
            double force = q * areaOf(plate, t);
            put(plate, t, {1.0 / 3, 1.0 / 3, 1.0 / 3}, force, f);
            total += force;
            return;
        }
        Point c[3];
        for (int i = 0; i < 3; ++i) c[i] = plate.nodes()[plate.triangles()[t][i]];
        geometry::Ring part = ring;
        for (int i = 0; i < 3 && !part.empty(); ++i) clip(part, c[i], c[(i + 1) % 3]);
        if (part.size() < 3) return;
        // Area and first moment about the first corner.
        double twice = 0, mx = 0, my = 0;
        for (std::size_t i = 0; i < part.size(); ++i) {
            Point p{part[i].x - c[0].x, part[i].y - c[0].y};
            Point r{part[(i + 1) % part.size()].x - c[0].x, part[(i + 1) % part.size()].y - c[0].y};
            double cross = p.x * r.y - p.y * r.x;
            twice += cross;
            mx += cross * (p.x + r.x) / 3;
            my += cross * (p.y + r.y) / 3;
        }
        if (!(twice > 0)) return;
        Point g{c[0].x + mx / twice, c[0].y + my / twice};
        double whole = 2 * areaOf(plate, t);
        double u = ((c[1].x - g.x) * (c[2].y - g.y) - (c[1].y - g.y) * (c[2].x - g.x)) / whole;
        double v = ((c[2].x - g.x) * (c[0].y - g.y) - (c[2].y - g.y) * (c[0].x - g.x)) / whole;
        put(plate, t, {u, v, 1 - u - v}, q * twice / 2, f);
        total += q * twice / 2;
    });
    return total;
}

double addLine(const TriangleFinder& plate, double q, Point a, Point b, NodeVector& f) {
    double length = std::hypot(b.x - a.x, b.y - a.y);
    if (length == 0) return 0;
    std::vector<double> stops = plate.crossings(a, b);
    double total = 0;
    for (std::size_t k = 0; k + 1 < stops.size(); ++k) {
        double u = (stops[k] + stops[k + 1]) / 2, part = stops[k + 1] - stops[k];
        if (part < 1e-12) continue;
        std::array<double, 3> share;
        int t = plate.find({a.x + u * (b.x - a.x), a.y + u * (b.y - a.y)}, &share);
        if (t < 0) continue;
        put(plate, t, share, q * length * part, f);
        total += q * length * part;
    }
    return total;
}

double addPoint(const TriangleFinder& plate, double force, double mx, double my, Point p, NodeVector& f) {
    std::array<double, 3> share;
    int t = plate.find(p, &share);
    if (t < 0) return 0;
    put(plate, t, share, force, f);
    for (int i = 0; i < 3; ++i) {
        f[3 * std::size_t(plate.triangles()[t][i]) + 1] += share[i] * mx;
        f[3 * std::size_t(plate.triangles()[t][i]) + 2] += share[i] * my;
    }
    return force;
}

}  // namespace talvik::fem
