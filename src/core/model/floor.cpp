#include "model/floor.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace talvik::model {

geometry::Ring ring(const Outline& outline, double tolerance) {
    geometry::Ring points;
    for (std::size_t i = 0; i < outline.size(); ++i) {
        const Corner &p = outline[i], &q = outline[(i + 1) % outline.size()];
        points.push_back({p.x, p.y});
        const auto arc = geometry::alongArc({p.x, p.y}, {q.x, q.y}, p.bulge, tolerance);
        points.insert(points.end(), arc.begin(), arc.end());
    }
    if (points.size() >= 3 && geometry::area(points) < 0) std::reverse(points.begin(), points.end());
    return points;
}

geometry::Ring footprint(const Column& c) {
    if (!c.circular) return geometry::rectangle({c.x, c.y}, c.width, c.depth, c.angle);
    constexpr int sides = 12;
    // Radius at which the polygon has the circle's area.
    double r = c.width / 2 * std::sqrt(2 * std::numbers::pi / sides / std::sin(2 * std::numbers::pi / sides));
    geometry::Ring all;
    for (int i = 0; i < sides; ++i) {
        double t = (c.angle + 360.0 * (i + 0.5) / sides) * std::numbers::pi / 180;
        all.push_back({c.x + r * std::cos(t), c.y + r * std::sin(t)});
    }
    return all;
}

geometry::Ring footprint(const FloorLoad& load) {
    return geometry::rectangle(load.a, load.width, load.depth);
}

double intensity(const FloorLoad& load) {
    double sum = load.value;
    for (const Finish& f : load.layers) sum += f.thickness * f.density;
    return sum;
}

double area(const Column& c) {
    return c.circular ? std::numbers::pi / 4 * c.width * c.width : c.width * c.depth;
}

bool sameButStrips(const Floor& a, const Floor& b) {
    Floor c = a;
    c.strips = b.strips;
    c.punching = b.punching;
    return c == b;
}

}  // namespace talvik::model
