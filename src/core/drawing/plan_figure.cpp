#include "drawing/plan_figure.h"

#include <algorithm>

#include "geometry/band.h"
#include "layout/grid.h"

namespace talvik::drawing {

using geometry::Ring;

void drawStructure(Sheet& sheet, const model::Floor& floor, const OnPaper& at, Layer walls) {
    auto outline = [&](const Ring& ring, Layer layer, bool filled = false) {
        std::vector<Point> points;
        for (Point p : ring) points.push_back(at(p));
        sheet.items.emplace_back(Polyline{std::move(points), true, filled, layer});
    };
    auto band = [&](Point a, Point b, double width, Layer layer) {
        if (geometry::length(a, b) >= 1) outline(geometry::band(a, b, width), layer);
    };
    for (const auto& s : floor.slabs) outline(model::ring(s.outline), Layer::Outline);
    for (const auto& z : floor.zones) outline(model::ring(z.outline), Layer::Hidden);
    for (const auto& o : floor.openings) {
        const Ring ring = model::ring(o.outline);
        outline(ring, Layer::Outline);
        if (ring.size() != 4) continue;
        for (std::size_t k : {0u, 1u}) sheet.line(at(ring[k]), at(ring[k + 2]), Layer::Dimension);
    }
    for (const auto& b : floor.beams) band(b.a, b.b, b.width, Layer::Hidden);
    for (const auto& w : floor.walls) band(w.a, w.b, w.thickness, walls);
    for (const auto& e : floor.edges) sheet.line(at(e.a), at(e.b), Layer::Hidden);
    for (const auto& c : floor.columns) outline(model::footprint(c), Layer::Structure, true);
}

Sheet planFigure(const model::Floor& floor, double width, units::System system) {
    Sheet s;
    s.width = width, s.title = floor.name;
    Point low{1e300, 1e300}, high{-1e300, -1e300};
    auto take = [&](Point p) {
        low = {std::min(low.x, p.x), std::min(low.y, p.y)};
        high = {std::max(high.x, p.x), std::max(high.y, p.y)};
    };
    for (const auto& a : floor.slabs)
        for (Point p : model::ring(a.outline)) take(p);
    for (const auto& c : floor.columns)
        for (Point p : model::footprint(c)) take(p);
    if (low.x > high.x) {
        s.height = 10;
        return s;
    }
    constexpr double left = 20, around = 16, tallest = 190;
    const double scale =
        std::max((high.x - low.x) / (width - left - around), (high.y - low.y) / (tallest - left - around));
    s.scale = scale;
    s.height = (high.y - low.y) / scale + left + around;
    auto at = [&](Point p) { return Point{left + (p.x - low.x) / scale, left + (p.y - low.y) / scale}; };
    for (const auto& g : floor.grids)
        for (const auto& l : layout::gridLines(g, 7 * scale)) {
            const Point a = at(l.line.a), b = at(l.line.b);
            auto inside = [&](Point p) { return p.x > 0 && p.y > 0 && p.x < s.width && p.y < s.height; };
            if (!inside(a) || !inside(b)) continue;
            s.line(a, b, Layer::Grid);
            s.text({a.x, a.y - (l.along ? 3.5 : 1)}, 2.4, l.label, l.along ? Align::Centre : Align::Right,
                   true);
        }
    drawStructure(s, floor, at, Layer::Structure);
    for (const auto& p : floor.piles) s.circle(at({p.x, p.y}), p.diameter / 2 / scale, Layer::Structure);
    auto length = [&](double v) { return units::number(v, units::Kind::Length, system); };
    s.dimension(at(low), at({high.x, low.y}), -13, length(high.x - low.x), 0.0);
    s.dimension(at({high.x, low.y}), at(high), -8, length(high.y - low.y), 90.0);
    return s;
}

}  // namespace talvik::drawing
