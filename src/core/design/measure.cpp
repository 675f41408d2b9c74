#include "design/measure.h"

#include <algorithm>
#include <cmath>

#include "geometry/band.h"

namespace talvik::design {
namespace {

using geometry::Point;
using geometry::Ring;

double sum(const std::vector<Ring>& rings) {
    double a = 0;
    for (const Ring& r : rings) a += std::abs(geometry::area(r));
    return a;
}
std::vector<Ring> clear(const std::vector<Ring>& rings, const std::vector<Ring>& holes) {
    std::vector<Ring> all;
    for (const Ring& r : rings)
        for (Ring& left : geometry::difference(r, holes)) all.push_back(std::move(left));
    return all;
}
class Measuring {
  public:
    explicit Measuring(const model::Floor& f) : f_(f), outlines_(model::outlines(f)), thickness_(f) {
        for (const auto& o : f.openings) openings_.push_back(model::ring(o.outline));
    }

    double concrete() const {
        double volume = 0;
        std::vector<Ring> taken = openings_;
        for (std::size_t z = thickness_.zones().size();
             z-- > 0;) {  // of zones over each other the last one holds
            for (const Ring& o : outlines_)
                volume += sum(clear(geometry::intersection(thickness_.zones()[z], o), taken)) *
                          f_.zones[z].thickness;
            taken.push_back(thickness_.zones()[z]);
        }
        for (const auto& s : f_.slabs) volume += sum(clear({model::ring(s.outline)}, taken)) * s.thickness;
        return volume / 1e9;
    }
    double area() const { return sum(clear(outlines_, openings_)) / 1e6; }

    double onGround() const {
        std::vector<Ring> grounds;
        for (const auto& g : f_.grounds) {
            if (g.outline.empty()) return area();
            grounds.push_back(model::ring(g.outline));
        }
        if (grounds.empty()) return 0;
        double a = 0;
        for (const Ring& g : geometry::unite(grounds))
            for (const Ring& o : outlines_) a += sum(clear(geometry::intersection(g, o), openings_));
        return a / 1e6;
    }
    double soffit() const {
        std::vector<Ring> holes = openings_;
        for (const auto& g : f_.grounds) {
            if (g.outline.empty()) return 0;
            holes.push_back(model::ring(g.outline));
        }
        for (const auto& c : f_.columns)
            if (c.below) holes.push_back(model::footprint(c));
        for (const auto& w : f_.walls) holes.push_back(geometry::band(w.a, w.b, w.thickness));
        for (const auto& b : f_.beams)
            if (!b.upstand) holes.push_back(geometry::band(b.a, b.b, b.width));
        return sum(clear(outlines_, holes)) / 1e6;
    }
    double sides() const {
        double a = 0;
        for (const Ring& o : outlines_)
            for (std::size_t i = 0; i < o.size(); ++i) a += side(o[i], o[(i + 1) % o.size()], true);
        for (const Ring& o : openings_)
            for (std::size_t i = 0; i < o.size(); ++i) a += side(o[i], o[(i + 1) % o.size()], true);
        for (const Ring& z : thickness_.zones())
            for (std::size_t i = 0; i < z.size(); ++i) a += side(z[i], z[(i + 1) % z.size()], false);
        return a / 1e6;
    }

  private:
    const model::Floor& f_;
    std::vector<Ring> outlines_, openings_;
    const model::Thickness thickness_;

    // Thickness of what lies there; 0 outside of the slabs.
    double present(Point p) const {
        const auto in = [&](const Ring& r) { return geometry::contains(r, p); };
        if (!std::any_of(outlines_.begin(), outlines_.end(), in) ||
            std::any_of(openings_.begin(), openings_.end(), in))
            return 0;
        return thickness_.at(p);
    }
    // Of a side, piece by piece, the concrete that stands free beside it: an edge is as high as the slab; a
    // step within it as the difference.
    double side(Point a, Point b, bool edge) const {
        const double length = geometry::length(a, b);
        if (length < 1) return 0;
        const Point way{(b.x - a.x) / length, (b.y - a.y) / length};
        const int n = std::clamp(int(std::ceil(length / 500)), 1, 400);
        double sum = 0;
        for (int k = 0; k < n; ++k) {
            const double t = (k + 0.5) * length / n;
            const Point m{a.x + t * way.x, a.y + t * way.y};
            const double left = present({m.x - 2 * way.y, m.y + 2 * way.x}),
                         right = present({m.x + 2 * way.y, m.y - 2 * way.x});
            const bool both = left > 0 && right > 0;
            if (edge != both) sum += std::abs(left - right) * length / n;
        }
        return sum;
    }
};

}  // namespace

void measure(const model::OneWaySlab& slab, ElementAnswer& a) {
    const double length = model::concreteEnd(slab) - model::concreteStart(slab);
    double held = 0;
    for (const auto& s : slab.supports) held += s.width;
    a.members = slab.members;
    a.concrete = slab.thickness * slab.width * length / 1e9;
    a.area = slab.width * length / 1e6;
    a.formwork =
        (slab.width * std::max(0.0, length - held) + 2 * (slab.width + length) * slab.thickness) / 1e6;
}

void measure(const model::Floor& floor, ElementAnswer& a) {
    const Measuring m(floor);
    a.members = floor.members;
    a.concrete = m.concrete();
    a.area = m.area();
    a.formwork = m.soffit() + m.sides();
    a.blinding = m.onGround() * blindingThickness / 1000;
}

}  // namespace talvik::design
