#include "model/floor.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "geometry/band.h"

namespace talvik::model {

actions::ActionKind LoadCase::kind() const {
    using To = actions::Nature;
    switch (nature) {
        case Nature::Imposed:
            return {To::Imposed, use};
        case Nature::Wind:
            return {To::Wind};
        case Nature::Accidental:
            return {To::Accidental};
        case Nature::SelfWeight:
        case Nature::Permanent:
            break;
    }
    return {};
}

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

std::vector<geometry::Ring> outlines(const Floor& floor) {
    std::vector<geometry::Ring> all;
    for (const auto& s : floor.slabs) all.push_back(ring(s.outline));
    return all.size() > 1 ? geometry::unite(all) : all;
}
std::vector<geometry::Ring> concrete(const Floor& floor) {
    auto all = outlines(floor);
    std::vector<geometry::Ring> out;
    auto add = [&](geometry::Ring r) {
        if (r.empty()) return;
        auto on = [&](Point p) {
            return std::any_of(all.begin(), all.end(), [&](const auto& s) {
                return geometry::contains(s, p) || geometry::distanceToEdge(s, p) < 1;
            });
        };
        const bool inside = std::all_of(r.begin(), r.end(), on), apart = std::none_of(r.begin(), r.end(), on);
        if (!inside && !apart) out.push_back(std::move(r));
    };
    for (const auto& w : floor.walls) add(footprint(w));
    for (const auto& b : floor.beams) add(footprint(b));
    if (out.empty()) return all;
    out.insert(out.end(), all.begin(), all.end());
    return geometry::unite(out);
}
Thickness::Thickness(const Floor& floor) : floor_(floor) {
    for (const auto& z : floor.zones) zones_.push_back(ring(z.outline));
    for (const auto& s : floor.slabs) slabs_.push_back(ring(s.outline));
}
double Thickness::at(Point p) const {
    for (std::size_t i = zones_.size(); i-- > 0;)
        if (geometry::contains(zones_[i], p)) return floor_.zones[i].thickness;
    for (std::size_t i = slabs_.size(); i-- > 0;)
        if (geometry::contains(slabs_[i], p)) return floor_.slabs[i].thickness;
    return slabs_.empty() ? 0 : floor_.slabs.front().thickness;
}
void Thickness::along(geometry::Segment s, double& area, double& least) const {
    std::vector<double> stops{0, 1};
    const double length = geometry::length(s.a, s.b);
    auto cutBy = [&](const geometry::Ring& r) {
        for (std::size_t i = 0; i < r.size(); ++i) {
            Point at;
            if (geometry::cross(s.a, s.b, r[i], r[(i + 1) % r.size()], &at))
                stops.push_back(geometry::length(s.a, at) / length);
        }
    };
    for (const auto& r : zones_) cutBy(r);
    if (slabs_.size() > 1)
        for (const auto& r : slabs_) cutBy(r);
    std::sort(stops.begin(), stops.end());
    for (std::size_t i = 0; i + 1 < stops.size(); ++i) {
        if ((stops[i + 1] - stops[i]) * length < 1) continue;
        const double m = (stops[i] + stops[i + 1]) / 2;
        const double t = at({s.a.x + m * (s.b.x - s.a.x), s.a.y + m * (s.b.y - s.a.y)});
        area += t * (stops[i + 1] - stops[i]) * length;
        least = std::min(least, t);
    }
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

geometry::Ring footprint(const Wall& w) {
    return geometry::length(w.a, w.b) < 1 ? geometry::Ring{} : geometry::band(w.a, w.b, w.thickness);
}
geometry::Ring footprint(const FloorBeam& b) {
    return geometry::length(b.a, b.b) < 1 ? geometry::Ring{} : geometry::band(b.a, b.b, b.width);
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
    c.cambers = b.cambers, c.sagLines = b.sagLines, c.vibration = b.vibration;
    return c == b;
}

}  // namespace talvik::model
