#include "design/steel_at.h"

#include <algorithm>
#include <cmath>

namespace talvik::design {

using geometry::Point;

SlabEdges::SlabEdges(const model::Floor& floor) {
    outline = model::outlines(floor);
    for (const auto& o : floor.openings) outline.push_back(model::ring(o.outline));
}

double SlabEdges::toEdge(Point p) const {
    double least = 1e300;
    for (const auto& r : outline) least = std::min(least, geometry::distanceToEdge(r, p));
    return least;
}

double SlabEdges::along(Point p, double ex, double ey) const {
    const Point far{p.x + 1e6 * ex, p.y + 1e6 * ey};
    double least = 1e6;
    for (const auto& r : outline)
        for (std::size_t i = 0; i < r.size(); ++i)
            if (Point at; geometry::cross(p, far, r[i], r[(i + 1) % r.size()], &at))
                least = std::min(least, geometry::length(p, at));
    return least;
}

SteelAt steelAt(const StripDesign& d, bool top, Point local, bool edge, double cover,
                const SlabEdges& edges) {
    SteelAt s;
    const auto& strip = *d.strip;
    for (const auto& r : d.runs) {
        if (r.top() != top) continue;
        if (r.band() && std::abs(local.y - strip.v(local.x)) > r.width / 2) continue;
        double ends[2] = {local.x - r.from, r.to - local.x};
        const bool goesOn[2] = {r.from <= strip.from + cover + 60, r.to >= strip.to - cover - 60};
        for (int e : {0, 1}) {
            if (!goesOn[e]) continue;
            const double anchorage = e == 0 ? r.anchorStart : r.anchorEnd,
                         askew = e == 0 ? strip.axisFrom - strip.from : strip.to - strip.axisTo;
            if (ends[e] > anchorage + 2 * std::max(0.0, askew) + cover) continue;
            const double way = e == 0 ? -1 : 1, toEdge = edges.along(strip.axes.plan(local),
                                                                     way * strip.axes.c, way * strip.axes.s) -
                                                         cover;
            ends[e] = edge ? std::max(ends[e], 0.0) : ends[e] < 0 ? toEdge : std::min(ends[e], toEdge);
        }
        if (ends[0] < 0 || ends[1] < 0) continue;
        const double share = std::min({1.0, r.anchorStart > 0 ? ends[0] / r.anchorStart : 1.0,
                                       r.anchorEnd > 0 ? ends[1] / r.anchorEnd : 1.0});
        s.full += r.area, s.anchored += r.area * std::max(0.0, share);
        s.diameter = std::max(s.diameter, r.diameter);
        s.spacing = s.spacing > 0 && r.spacing > 0 ? 1 / (1 / s.spacing + 1 / r.spacing) : r.spacing;
    }
    return s;
}

}  // namespace talvik::design
