#include "geometry/polygon.h"

#include <fmt/format.h>
#include <geos_c.h>

#include <algorithm>
#include <cmath>
#include <memory>
#include <numbers>

namespace talvik::geometry {
namespace {

// Everything GEOS needs for one operation; frees itself.
class Workspace {
  public:
    Workspace() : handle_(GEOS_init_r()) {}
    ~Workspace() {
        for (auto* g : made_) GEOSGeom_destroy_r(handle_, g);
        GEOS_finish_r(handle_);
    }
    Workspace(const Workspace&) = delete;
    Workspace& operator=(const Workspace&) = delete;

    GEOSGeometry* keep(GEOSGeometry* g) {
        if (g) made_.push_back(g);
        return g;
    }
    GEOSGeometry* outline(const Ring& ring) {
        auto* sequence = GEOSCoordSeq_create_r(handle_, static_cast<unsigned>(ring.size() + 1), 2);
        for (std::size_t i = 0; i <= ring.size(); ++i) {
            const Point& p = ring[i % ring.size()];
            GEOSCoordSeq_setXY_r(handle_, sequence, static_cast<unsigned>(i), p.x, p.y);
        }
        return keep(
            GEOSGeom_createPolygon_r(handle_, GEOSGeom_createLinearRing_r(handle_, sequence), nullptr, 0));
    }
    // What the ring winds round. One that only touches itself is that already; of one that crosses itself
    // parts would count against each other.
    GEOSGeometry* polygon(const Ring& ring) {
        if (ring.size() < 3) return keep(GEOSGeom_createEmptyPolygon_r(handle_));
        GEOSGeometry* g = outline(ring);
        if (!g || GEOSisValid_r(handle_, g) == 1) return g;
        GEOSGeometry* whole = keep(GEOSMakeValid_r(handle_, g));
        const double plain = std::abs(geometry::area(ring)), wound = area(whole);
        return whole && std::abs(wound - plain) > 1e-6 * wound + 1 ? whole : g;
    }
    std::string invalid(const GEOSGeometry* g) {
        char* reason = nullptr;
        GEOSGeometry* place = nullptr;
        std::string text;
        if (GEOSisValidDetail_r(handle_, g, 0, &reason, &place) != 1) {
            double x = 0, y = 0;
            if (place) GEOSGeomGetX_r(handle_, place, &x), GEOSGeomGetY_r(handle_, place, &y);
            text = fmt::format(
                "The outline crosses or repeats itself near ({:.2f}, {:.2f}) m; move the corner there.",
                x / 1000, y / 1000);
        }
        GEOSFree_r(handle_, reason);
        keep(place);
        return text;
    }
    double area(const GEOSGeometry* g) {
        double a = 0;
        if (g) GEOSArea_r(handle_, g, &a);
        return a;
    }
    GEOSContextHandle_t handle() { return handle_; }

  private:
    GEOSContextHandle_t handle_;
    std::vector<GEOSGeometry*> made_;
};

}  // namespace

double area(const Ring& ring) {
    double twice = 0;
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Point &p = ring[i], &q = ring[(i + 1) % ring.size()];
        twice += p.x * q.y - q.x * p.y;
    }
    return twice / 2;
}

Point centroid(const Ring& ring) {
    // From a corner of its own, so that places far from the origin lose nothing.
    if (ring.empty()) return {};
    const Point o = ring.front();
    double sum = 0, x = 0, y = 0;
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Point a{ring[i].x - o.x, ring[i].y - o.y},
            b{ring[(i + 1) % ring.size()].x - o.x, ring[(i + 1) % ring.size()].y - o.y};
        const double twice = a.x * b.y - a.y * b.x;
        sum += twice, x += twice * (a.x + b.x), y += twice * (a.y + b.y);
    }
    return sum == 0 ? o : Point{o.x + x / (3 * sum), o.y + y / (3 * sum)};
}

Ring rectangle(Point centre, double a, double b, double degrees) {
    const double r = degrees * std::numbers::pi / 180, c = std::cos(r), s = std::sin(r);
    Ring ring;
    for (auto [u, v] : {std::pair(-0.5, -0.5), {0.5, -0.5}, {0.5, 0.5}, {-0.5, 0.5}})
        ring.push_back({centre.x + u * a * c - v * b * s, centre.y + u * a * s + v * b * c});
    return ring;
}

Ring round(Point centre, double diameter, int sides) {
    Ring ring;
    for (int k = 0; k < sides; ++k) {
        const double angle = 2 * std::numbers::pi * k / sides;
        ring.push_back(
            {centre.x + diameter / 2 * std::cos(angle), centre.y + diameter / 2 * std::sin(angle)});
    }
    return ring;
}

bool convex(const Ring& ring) {
    double turned = 0;
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Point a = ring[i], b = ring[(i + 1) % ring.size()], c = ring[(i + 2) % ring.size()];
        const double ux = b.x - a.x, uy = b.y - a.y, vx = c.x - b.x, vy = c.y - b.y;
        if (ux * vy < uy * vx) return false;
        turned += std::atan2(ux * vy - uy * vx, ux * vx + uy * vy);
    }
    return turned < 7;  // once round
}

Ring clipped(const Ring& ring, const Ring& convex) {
    // I. E. Sutherland and G. W. Hodgman, Reentrant polygon clipping, 1974: side by side.
    Ring now = ring, next;
    for (std::size_t i = 0; i < convex.size() && !now.empty(); ++i) {
        const Point a = convex[i], b = convex[(i + 1) % convex.size()];
        auto off = [&](Point p) { return (b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x); };
        if (std::all_of(now.begin(), now.end(), [&](Point p) { return off(p) >= 0; })) continue;
        next.clear();
        double last = off(now.back());
        for (std::size_t k = 0; k < now.size(); ++k) {
            const Point p = now[(k + now.size() - 1) % now.size()], q = now[k];
            const double here = off(q);
            if ((last < 0) != (here < 0)) {
                const double t = last / (last - here);
                next.push_back({p.x + t * (q.x - p.x), p.y + t * (q.y - p.y)});
            }
            if (here >= 0) next.push_back(q);
            last = here;
        }
        now.swap(next);
    }
    return now;
}

namespace {

Patch patch(Workspace& w, GEOSGeometry* g) {
    Patch result;
    result.area = w.area(g);
    if (result.area > 0) {
        GEOSGeometry* at = w.keep(GEOSPointOnSurface_r(w.handle(), g));
        if (at) {
            GEOSGeomGetX_r(w.handle(), at, &result.at.x);
            GEOSGeomGetY_r(w.handle(), at, &result.at.y);
        }
    }
    return result;
}

}  // namespace

std::string invalid(const Ring& ring) {
    if (ring.size() < 3) return "The outline has fewer than three corners; draw at least three.";
    Workspace w;
    return w.invalid(w.outline(ring));
}

Patch shared(const Ring& a, const Ring& b) {
    Workspace w;
    return patch(w, w.keep(GEOSIntersection_r(w.handle(), w.polygon(a), w.polygon(b))));
}

Patch outside(const Ring& part, const std::vector<Ring>& wholes) {
    Workspace w;
    GEOSGeometry* left = w.polygon(part);
    for (const Ring& whole : wholes)
        if (left) left = w.keep(GEOSDifference_r(w.handle(), left, w.polygon(whole)));
    return patch(w, left);
}

namespace {

// Corners of the answers lie on this grid, mm: edges that nearly coincide then do, and leave no slivers.
constexpr double grid = 1e-3;

// Outer outlines of the polygons in a geometry.
std::vector<Ring> rings(Workspace& w, const GEOSGeometry* g, int depth = 0) {
    std::vector<Ring> all;
    if (!g) return all;
    for (int i = 0; i < GEOSGetNumGeometries_r(w.handle(), g); ++i) {
        const GEOSGeometry* part = GEOSGetGeometryN_r(w.handle(), g, i);
        if (!part || GEOSGeomTypeId_r(w.handle(), part) != GEOS_POLYGON || w.area(part) < 1) continue;
        if (GEOSGetNumInteriorRings_r(w.handle(), part) > 0 && depth < 200) {
            // An outline cannot have holes: cut through the middle of the first one.
            double x0 = 0, x1 = 0, big = 1e9;
            const GEOSGeometry* hole = GEOSGetInteriorRingN_r(w.handle(), part, 0);
            GEOSGeom_getXMin_r(w.handle(), hole, &x0);
            GEOSGeom_getXMax_r(w.handle(), hole, &x1);
            double x = (x0 + x1) / 2;
            for (double side : {-big, big}) {
                Ring half{{std::min(x, x + side), -big},
                          {std::max(x, x + side), -big},
                          {std::max(x, x + side), big},
                          {std::min(x, x + side), big}};
                auto more = rings(w, w.keep(GEOSIntersectionPrec_r(w.handle(), part, w.polygon(half), grid)),
                                  depth + 1);
                all.insert(all.end(), more.begin(), more.end());
            }
            continue;
        }
        const GEOSCoordSequence* s =
            GEOSGeom_getCoordSeq_r(w.handle(), GEOSGetExteriorRing_r(w.handle(), part));
        unsigned n = 0;
        GEOSCoordSeq_getSize_r(w.handle(), s, &n);
        Ring ring;
        for (unsigned k = 0; k + 1 < n; ++k) {
            Point p;
            GEOSCoordSeq_getXY_r(w.handle(), s, k, &p.x, &p.y);
            ring.push_back(p);
        }
        if (area(ring) < 0) std::reverse(ring.begin(), ring.end());
        all.push_back(std::move(ring));
    }
    std::stable_sort(all.begin(), all.end(), [](const Ring& a, const Ring& b) { return area(a) > area(b); });
    return all;
}

}  // namespace

std::vector<Ring> intersection(const Ring& a, const Ring& b) {
    Workspace w;
    return rings(w, w.keep(GEOSIntersectionPrec_r(w.handle(), w.polygon(a), w.polygon(b), grid)));
}
std::vector<Ring> difference(const Ring& a, const std::vector<Ring>& b) {
    Workspace w;
    GEOSGeometry* left = w.polygon(a);
    for (const Ring& part : b)
        if (left) left = w.keep(GEOSDifferencePrec_r(w.handle(), left, w.polygon(part), grid));
    return rings(w, left);
}
Ring hull(const std::vector<Point>& points) {
    // A. M. Andrew, Another efficient algorithm for convex hulls in two dimensions, 1979: lower side, then
    // upper.
    Ring sorted = points;
    std::sort(sorted.begin(), sorted.end(),
              [](Point a, Point b) { return a.x < b.x || (a.x == b.x && a.y < b.y); });
    sorted.erase(std::unique(sorted.begin(), sorted.end()), sorted.end());
    if (sorted.size() < 3) return {};
    Ring out;
    for (int side : {0, 1}) {
        const std::size_t first = out.size();
        for (Point p : sorted) {
            while (out.size() >= first + 2) {
                const Point a = out[out.size() - 2], b = out.back();
                if ((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x) > 1e-6) break;
                out.pop_back();
            }
            out.push_back(p);
        }
        out.pop_back();  // begins the other side
        if (side == 0) std::reverse(sorted.begin(), sorted.end());
    }
    return out.size() < 3 ? Ring{} : out;
}

std::vector<Ring> offset(const Ring& ring, double distance) {
    Workspace w;
    return rings(w, w.keep(GEOSBufferWithStyle_r(w.handle(), w.polygon(ring), distance, 8, GEOSBUF_CAP_FLAT,
                                                 GEOSBUF_JOIN_MITRE, 10)));
}
namespace {

GEOSGeometry* united(Workspace& w, const std::vector<Ring>& rings) {
    std::vector<GEOSGeometry*> polygons;
    bool single = true;
    for (const Ring& r : rings) {
        polygons.push_back(GEOSGeom_clone_r(w.handle(), w.polygon(r)));
        single &= GEOSGeomTypeId_r(w.handle(), polygons.back()) == GEOS_POLYGON;
    }
    // The collection owns the polygons.
    GEOSGeometry* all =
        w.keep(GEOSGeom_createCollection_r(w.handle(), single ? GEOS_MULTIPOLYGON : GEOS_GEOMETRYCOLLECTION,
                                           polygons.data(), static_cast<unsigned>(polygons.size())));
    return w.keep(GEOSUnaryUnionPrec_r(w.handle(), all, grid));
}

struct Box {
    double x0 = 1e300, y0 = 1e300, x1 = -1e300, y1 = -1e300;
    explicit Box(const Ring& r) {
        for (const Point& p : r)
            x0 = std::min(x0, p.x), x1 = std::max(x1, p.x), y0 = std::min(y0, p.y), y1 = std::max(y1, p.y);
    }
    bool meets(const Box& b) const { return x0 < b.x1 && b.x0 < x1 && y0 < b.y1 && b.y0 < y1; }
};

}  // namespace

std::vector<Ring> unite(const std::vector<Ring>& all) {
    if (all.empty()) return {};
    Workspace w;
    return rings(w, united(w, all));
}

Cover cover(const std::vector<Ring>& wholes, const std::vector<Ring>& holes, const std::vector<Ring>& parts,
            double least) {
    Cover result;
    if (wholes.empty()) return result;
    Workspace w;
    GEOSGeometry* left = united(w, wholes);
    if (!holes.empty()) left = w.keep(GEOSDifferencePrec_r(w.handle(), left, united(w, holes), grid));
    result.whole = w.area(left);
    if (!parts.empty()) left = w.keep(GEOSDifferencePrec_r(w.handle(), left, united(w, parts), grid));
    auto large = [least](const Ring& r) { return area(r) >= least; };
    for (auto& r : rings(w, left))
        if (large(r)) result.gaps.push_back(std::move(r));
    std::vector<Box> boxes(parts.begin(), parts.end());
    for (std::size_t i = 0; i < parts.size(); ++i)
        for (std::size_t k = i + 1; k < parts.size(); ++k) {
            if (!boxes[i].meets(boxes[k])) continue;
            Cover::Overlap both{i, k, {}};
            for (auto& r : intersection(parts[i], parts[k]))
                if (large(r)) both.patch.push_back(std::move(r));
            if (!both.patch.empty()) result.overlaps.push_back(std::move(both));
        }
    return result;
}

Point inside(const Ring& ring) {
    Workspace w;
    return patch(w, w.polygon(ring)).at;
}

std::vector<Ring> faces(const std::vector<Segment>& segments) {
    Workspace w;
    std::vector<GEOSGeometry*> lines;
    for (const Segment& s : segments) {
        auto* sequence = GEOSCoordSeq_create_r(w.handle(), 2, 2);
        GEOSCoordSeq_setXY_r(w.handle(), sequence, 0, s.a.x, s.a.y);
        GEOSCoordSeq_setXY_r(w.handle(), sequence, 1, s.b.x, s.b.y);
        lines.push_back(GEOSGeom_createLineString_r(w.handle(), sequence));
    }
    if (lines.empty()) return {};
    // The collection owns the lines.
    GEOSGeometry* all = w.keep(GEOSGeom_createCollection_r(w.handle(), GEOS_MULTILINESTRING, lines.data(),
                                                           static_cast<unsigned>(lines.size())));
    const GEOSGeometry* noded = w.keep(GEOSUnaryUnion_r(w.handle(), all));
    return noded ? rings(w, w.keep(GEOSPolygonize_r(w.handle(), &noded, 1))) : std::vector<Ring>{};
}

double length(Point a, Point b) {
    return std::hypot(b.x - a.x, b.y - a.y);
}
Point nearest(Point p, Point a, Point b) {
    double dx = b.x - a.x, dy = b.y - a.y, square = dx * dx + dy * dy;
    double u = square > 0 ? std::clamp(((p.x - a.x) * dx + (p.y - a.y) * dy) / square, 0.0, 1.0) : 0;
    return {a.x + u * dx, a.y + u * dy};
}
bool cross(Point a, Point b, Point c, Point d, Point* at) {
    double ux = b.x - a.x, uy = b.y - a.y, vx = d.x - c.x, vy = d.y - c.y, det = ux * vy - uy * vx;
    if (det * det < 1e-18 * (ux * ux + uy * uy) * (vx * vx + vy * vy) || det == 0) return false;
    double s = ((c.x - a.x) * vy - (c.y - a.y) * vx) / det, t = ((c.x - a.x) * uy - (c.y - a.y) * ux) / det;
    constexpr double slack = 1e-9;
    if (s < -slack || s > 1 + slack || t < -slack || t > 1 + slack) return false;
    if (at) *at = {a.x + s * ux, a.y + s * uy};
    return true;
}

bool contains(const Ring& ring, Point p) {
    bool in = false;
    for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++) {
        Point a = ring[i], b = ring[j];
        if ((a.y > p.y) != (b.y > p.y) && p.x < (b.x - a.x) * (p.y - a.y) / (b.y - a.y) + a.x) in = !in;
    }
    return in;
}

double distance(Point p, Point a, Point b) {
    return length(p, nearest(p, a, b));
}

double distanceToEdge(const Ring& ring, Point p) {
    double least = 1e300;
    for (std::size_t i = 0; i < ring.size(); ++i)
        least = std::min(least, distance(p, ring[i], ring[(i + 1) % ring.size()]));
    return least;
}

std::vector<Point> alongArc(Point a, Point b, double bulge, double tolerance) {
    std::vector<Point> points;
    const double chord = std::hypot(b.x - a.x, b.y - a.y), angle = 4 * std::atan(bulge);
    if (bulge == 0 || chord == 0) return points;
    const double radius = chord / 2 / std::abs(std::sin(angle / 2));
    // A chord of angle t leaves radius (1 - cos t/2) of its arc.
    const double step = 2 * std::acos(std::max(0.0, 1 - std::min(tolerance, radius / 2) / radius));
    const int parts = std::clamp(int(std::ceil(std::abs(angle) / step)), 2, 720);
    // Centre: to the left of the chord for a turn anticlockwise of less than half a circle.
    const double away = chord / 2 / std::tan(angle / 2);
    const Point centre{(a.x + b.x) / 2 - (b.y - a.y) / chord * away,
                       (a.y + b.y) / 2 + (b.x - a.x) / chord * away};
    const double start = std::atan2(a.y - centre.y, a.x - centre.x);
    for (int k = 1; k < parts; ++k) {
        const double t = start + angle * k / parts;
        points.push_back({centre.x + radius * std::cos(t), centre.y + radius * std::sin(t)});
    }
    return points;
}

}  // namespace talvik::geometry
