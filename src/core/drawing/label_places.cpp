#include "drawing/label_places.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace talvik::drawing {

using geometry::Ring;

namespace {

bool meets(const Ring& ring, Point a, Point b) {
    if (geometry::contains(ring, a) || geometry::contains(ring, b)) return true;
    for (std::size_t i = 0; i < ring.size(); ++i)
        if (geometry::cross(a, b, ring[i], ring[(i + 1) % ring.size()], nullptr)) return true;
    return false;
}

}  // namespace

Ring LabelPlaces::box(const Text& t, double margin) {
    const double w = textWidth(t.text, t.height) * (t.bold ? 1.06 : 1),
                 from = t.align == Align::Left     ? 0
                        : t.align == Align::Centre ? -w / 2
                                                   : -w,
                 r = t.angle * std::numbers::pi / 180, c = std::cos(r), s = std::sin(r);
    Ring ring;
    for (const auto& [x, y] : {std::pair(from - margin, -0.3 * t.height - margin),
                               {from + w + margin, -0.3 * t.height - margin},
                               {from + w + margin, t.height + margin},
                               {from - margin, t.height + margin}})
        ring.push_back({t.at.x + x * c - y * s, t.at.y + x * s + y * c});
    return ring;
}

LabelPlaces::Box LabelPlaces::boxed(Ring ring) {
    Box b{std::move(ring), {1e300, 1e300}, {-1e300, -1e300}};
    for (Point p : b.ring) {
        b.low = {std::min(b.low.x, p.x), std::min(b.low.y, p.y)};
        b.high = {std::max(b.high.x, p.x), std::max(b.high.y, p.y)};
    }
    return b;
}

void LabelPlaces::block(Point a, Point b) {
    bars_.push_back({a, b});
}
void LabelPlaces::blockText(const Ring& ring) {
    texts_.push_back(boxed(ring));
}

int LabelPlaces::beside(Point a, Point b) const {
    const double length = std::max(geometry::length(a, b), 1e-9);
    const Point way{(b.x - a.x) / length, (b.y - a.y) / length};
    return int(std::count_if(bars_.begin(), bars_.end(), [&](const Bar& o) {
        auto local = [&](Point p) {
            return Point{(p.x - a.x) * way.x + (p.y - a.y) * way.y,
                         (p.y - a.y) * way.x - (p.x - a.x) * way.y};
        };
        const Point p = local(o.a), q = local(o.b);
        return std::abs(p.y) < 3.5 && std::abs(q.y) < 3.5 && std::max(p.x, q.x) > 0 &&
               std::min(p.x, q.x) < length;
    }));
}

bool LabelPlaces::free(const Ring& ring) const {
    const Box own = boxed(ring);
    if (own.low.x < low_.x || own.low.y < low_.y || own.high.x > high_.x || own.high.y > high_.y)
        return false;
    for (const Box& t : texts_) {
        if (t.low.x > own.high.x || t.high.x < own.low.x || t.low.y > own.high.y || t.high.y < own.low.y)
            continue;
        const Ring part = geometry::clipped(t.ring, ring);
        if (part.size() > 2 && std::abs(geometry::area(part)) > 1e-6) return false;
    }
    for (const Bar& b : bars_) {
        if (std::min(b.a.x, b.b.x) > own.high.x || std::max(b.a.x, b.b.x) < own.low.x ||
            std::min(b.a.y, b.b.y) > own.high.y || std::max(b.a.y, b.b.y) < own.low.y)
            continue;
        if (meets(ring, b.a, b.b)) return false;
    }
    return true;
}

bool LabelPlaces::put(const std::vector<Text>& offered, Point tip, Place& out) {
    auto take = [&](const Text& t, bool leader) {
        out = {t, tip, leader};
        texts_.push_back(boxed(box(t)));
        return true;
    };
    for (const Text& t : offered)
        if (free(box(t))) return take(t, false);
    // Around: upright text on rings that grow.
    Text t = offered.front();
    t.angle = 0, t.align = Align::Centre;
    const double w = textWidth(t.text, t.height);
    for (double r = 4; r < 90; r += 3)
        for (int k = 0; k < 24; ++k) {
            const double a = k * std::numbers::pi / 12;
            t.at = {tip.x + (r + w / 2) * std::cos(a), tip.y + r * std::sin(a)};
            if (free(box(t))) return take(t, true);
        }
    out = {offered.front(), tip, false};
    return false;
}

void leader(Sheet& sheet, const LabelPlaces::Place& place) {
    const auto box = LabelPlaces::box(place.text, 0.1);
    Point from = box.front();
    double least = 1e300;
    for (std::size_t k = 0; k < box.size(); ++k) {
        const Point p = geometry::nearest(place.tip, box[k], box[(k + 1) % box.size()]);
        if (geometry::length(p, place.tip) < least) least = geometry::length(p, place.tip), from = p;
    }
    sheet.line(from, place.tip, Layer::Dimension);
    sheet.circle(place.tip, 0.4, Layer::Dimension, true);
}

}  // namespace talvik::drawing
