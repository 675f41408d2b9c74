#include "analysis/equilibrium.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <optional>

#include "analysis/cuts.h"

namespace talvik::analysis {
namespace {

using geometry::Point;
using geometry::Ring;

constexpr Point nowhere{1e300, 1e300};

struct Box {
    Point low = nowhere, high{-1e300, -1e300};
    explicit Box(const Ring& ring) {
        for (Point p : ring) {
            low = {std::min(low.x, p.x), std::min(low.y, p.y)};
            high = {std::max(high.x, p.x), std::max(high.y, p.y)};
        }
    }
    bool meets(Point otherLow, Point otherHigh) const {
        return low.x < otherHigh.x && otherLow.x < high.x && low.y < otherHigh.y && otherLow.y < high.y;
    }
};

// Where both are convex, clipping is much quicker.
std::vector<Ring> common(const Ring& a, const Ring& b) {
    if (!geometry::convex(a) || !geometry::convex(b)) return geometry::intersection(a, b);
    Ring part = geometry::clipped(b, a);
    return part.size() < 3 ? std::vector<Ring>{} : std::vector<Ring>{std::move(part)};
}
// Less those of the holes that it meets.
std::vector<Ring> less(const Ring& ring, const std::vector<Ring>& holes) {
    const Box box(ring);
    std::vector<Ring> near;
    for (const Ring& h : holes)
        if (const Box other(h); box.meets(other.low, other.high)) near.push_back(h);
    return near.empty() ? std::vector<Ring>{ring} : geometry::difference(ring, near);
}

Resultant down(double force, Point at, Point about) {
    return {-force, -force * (at.x - about.x), -force * (at.y - about.y)};
}

// The part of a line inside a convex outline, as shares of its length; empty where `from` >= `to`.
std::pair<double, double> within(const Ring& convex, Point a, Point b) {
    double from = 0, to = 1;
    for (std::size_t i = 0; i < convex.size(); ++i) {
        const Point p = convex[i], q = convex[(i + 1) % convex.size()];
        auto off = [&](Point x) { return (q.x - p.x) * (x.y - p.y) - (q.y - p.y) * (x.x - p.x); };
        const double s = off(a), e = off(b);
        if (s < 0 && e < 0) return {1, 0};
        if (s < 0) from = std::max(from, s / (s - e));
        if (e < 0) to = std::min(to, s / (s - e));
    }
    return {from, to};
}

}  // namespace

Equilibrium::Piece Equilibrium::piece(Ring ring) {
    const Box box(ring);
    const bool round = geometry::convex(ring);
    return {std::move(ring), box.low, box.high, round};
}

Equilibrium::Equilibrium(const model::Floor& floor, const FloorAnalysis& analysis, double density)
    : floor_(floor), a_(analysis), density_(density) {
    onGround_ =
        std::any_of(analysis.model->bed.begin(), analysis.model->bed.end(), [](double k) { return k > 0; });
    std::vector<Ring> slabs, openings, zones;
    for (const auto& s : floor.slabs) slabs.push_back(model::ring(s.outline));
    for (const auto& o : floor.openings) openings.push_back(model::ring(o.outline));
    for (const auto& z : floor.zones) zones.push_back(model::ring(z.outline));
    auto taken = openings;
    taken.insert(taken.end(), zones.begin(), zones.end());
    for (std::size_t s = 0; s < slabs.size(); ++s) {
        for (auto& r : less(slabs[s], taken))
            weighed_.push_back({piece(std::move(r)), floor.slabs[s].thickness});
        for (std::size_t z = 0; z < zones.size(); ++z)
            for (const auto& part : common(slabs[s], zones[z]))
                for (auto& r : less(part, openings))
                    weighed_.push_back({piece(std::move(r)), floor.zones[z].thickness});
    }
    for (const auto& c : a_.cases) {
        const auto found = std::find_if(floor.actions.cases.begin(), floor.actions.cases.end(),
                                        [&](const auto& x) { return x.id == c.id; });
        selfWeight_.push_back(found != floor.actions.cases.end() &&
                              found->nature == model::LoadCase::Nature::SelfWeight);
    }
    // Panels loaded in turn put the same outlines on again and again.
    std::map<std::vector<double>, std::size_t> known;
    for (const auto& l : floor.actions.loads) {
        if (l.kind != model::FloorLoad::Kind::Area) continue;
        const auto c = std::size_t(std::find_if(a_.cases.begin(), a_.cases.end(),
                                                [&](const auto& x) { return x.id == l.loadCase; }) -
                                   a_.cases.begin());
        if (c == a_.cases.size()) continue;
        std::vector<double> key;
        for (const auto& corner : l.outline) key.insert(key.end(), {corner.x, corner.y, corner.bulge});
        const auto [at, fresh] = known.try_emplace(std::move(key), pieces_.size());
        if (fresh) {
            auto& list = pieces_.emplace_back();
            for (const Ring& slab : slabs)
                for (const auto& part :
                     l.outline.empty() ? std::vector<Ring>{slab} : common(slab, model::ring(l.outline)))
                    for (auto& r : less(part, openings)) list.push_back(piece(std::move(r)));
        }
        areaLoads_.push_back({c, at->second, model::intensity(l)});
    }
}

std::vector<Resultant> Equilibrium::inside(const Ring& outline, Point about,
                                           const std::vector<model::Id>& supports) const {
    const Box box(outline);
    std::vector<std::size_t> held;
    for (std::size_t s = 0; s < a_.model->supports.size(); ++s)
        if (std::find(supports.begin(), supports.end(), a_.model->supports[s].id) != supports.end())
            held.push_back(s);
    auto add = [&](Resultant& sum, std::size_t s, const SupportForce& f) {
        const Point at = a_.model->supports[s].at;
        sum += {f.up, f.up * (at.x - about.x) - f.mx, f.up * (at.y - about.y) - f.my};
    };
    std::vector<Resultant> cases(a_.cases.size());
    auto areaOf = [&](const Piece& p) -> std::pair<double, Point> {
        if (!box.meets(p.low, p.high)) return {0, {}};
        // Clipping takes the product of both numbers of sides: the one with many is better clipped.
        const Ring part = p.convex && p.ring.size() < outline.size() ? geometry::clipped(outline, p.ring)
                                                                     : geometry::clipped(p.ring, outline);
        return part.size() < 3 ? std::pair(0.0, Point{})
                               : std::pair(geometry::area(part), geometry::centroid(part));
    };
    std::vector<std::optional<std::pair<double, Point>>> shares(pieces_.size());
    for (const auto& l : areaLoads_) {
        auto& share = shares[l.pieces];
        if (!share) {
            double area = 0, x = 0, y = 0;
            for (const auto& p : pieces_[l.pieces]) {
                const auto [part, at] = areaOf(p);
                area += part, x += part * at.x, y += part * at.y;
            }
            share = {area, area > 0 ? Point{x / area, y / area} : Point{}};
        }
        if (share->first > 0) cases[l.loadCase] += down(l.intensity * share->first, share->second, about);
    }
    if (std::find(selfWeight_.begin(), selfWeight_.end(), 1) != selfWeight_.end()) {
        Resultant own;
        for (const auto& w : weighed_)
            if (const auto [area, at] = areaOf(w.piece); area > 0)
                own += down(density_ * w.thickness * area, at, about);
        for (std::size_t c = 0; c < cases.size(); ++c)
            if (selfWeight_[c]) cases[c] += own;
    }
    for (const auto& l : floor_.actions.loads) {
        using Kind = model::FloorLoad::Kind;
        if (l.kind == Kind::Area) continue;
        Resultant r;
        if (l.kind == Kind::Line) {
            const auto [from, to] = within(outline, l.a, l.b);
            if (from >= to) continue;
            const double t = (from + to) / 2;
            r = down(l.value * (to - from) * geometry::length(l.a, l.b),
                     {l.a.x + t * (l.b.x - l.a.x), l.a.y + t * (l.b.y - l.a.y)}, about);
        } else if (l.kind == Kind::Point && l.width > 0 && l.depth > 0) {
            const Ring foot = geometry::clipped(model::footprint(l), outline);
            if (foot.size() < 3) continue;
            r = down(l.value * geometry::area(foot) / (l.width * l.depth), geometry::centroid(foot), about);
        } else {
            if (!geometry::contains(outline, l.a)) continue;
            r = l.kind == Kind::Point ? down(l.value, l.a, about) : Resultant{0, l.value, l.valueY};
        }
        for (std::size_t c = 0; c < cases.size(); ++c)
            if (a_.cases[c].id == l.loadCase) cases[c] += r;
    }
    if (!a_.nonlinear) {
        for (std::size_t c = 0; c < cases.size(); ++c)
            for (std::size_t s : held) add(cases[c], s, a_.supportForces[c][s]);
        ground(outline, about, cases);
        return cases;
    }
    std::vector<Resultant> all;
    for (std::size_t k = 0; k < a_.combinations.size(); ++k) {
        Resultant sum;
        for (std::size_t c = 0; c < cases.size() && c < a_.combinations[k].factors.size(); ++c)
            sum += cases[c] * a_.combinations[k].factors[c];
        const auto forces = a_.forces(k);
        for (std::size_t s : held) add(sum, s, forces[s]);
        all.push_back(sum);
    }
    ground(outline, about, all);
    return all;
}

// Pressure of the ground: modulus times the deflection, which varies linearly over each triangle; none where
// the slab has lifted off and the ground takes no tension.
void Equilibrium::ground(const Ring& outline, Point about, std::vector<Resultant>& into) const {
    const auto& m = *a_.model;
    if (!onGround_) return;
    const Box box(outline);
    for (std::size_t t = 0; t < m.plate.triangles.size(); ++t) {
        if (m.bed[t] <= 0) continue;
        const auto& n = m.plate.triangles[t];
        const Ring triangle{m.plate.nodes[std::size_t(n[0])], m.plate.nodes[std::size_t(n[1])],
                            m.plate.nodes[std::size_t(n[2])]};
        const Box own(triangle);
        if (!box.meets(own.low, own.high)) continue;
        const Ring part = geometry::clipped(outline, triangle);
        if (part.size() < 3) continue;
        const double area = geometry::area(part), whole = geometry::area(triangle);
        const Point at = geometry::centroid(part);
        for (std::size_t c = 0; c < into.size() && c < a_.u.size(); ++c) {
            double w = 0;
            for (std::size_t i = 0; i < 3; ++i) {
                const Ring opposite{at, triangle[(i + 1) % 3], triangle[(i + 2) % 3]};
                w += a_.u[c][3 * std::size_t(n[i])] * geometry::area(opposite) / whole;
            }
            if (a_.nonlinear && w < 0) continue;
            into[c] += down(-m.bed[t] * w * area, at, about);
        }
    }
}

struct LineShear::Kept {
    Cutter cutter;
    const std::vector<fem::MomentField>& moments;
    fem::TriangleFinder finder;
    std::vector<fem::ShearField> shears;
};
LineShear::LineShear(const FloorAnalysis& a) {
    auto kept = std::make_unique<Kept>(
        Kept{Cutter(*a.model), a.moments, {a.model->plate.nodes, a.model->plate.triangles}, {}});
    for (const auto& m : a.moments)
        kept->shears.push_back(fem::recoverShears(a.model->plate, a.model->points, m));
    kept_ = std::move(kept);
}
LineShear::~LineShear() = default;

std::vector<Resultant> LineShear::across(const std::vector<std::vector<Point>>& lines, Point about) const {
    std::vector<Resultant> all(kept_->shears.size());
    // Lines that end at an edge go on over it, so that what the edge's twisting adds is met: the mesh's edge
    // need not be the drawing's to the millimetre.
    constexpr double over = 30;
    auto extended = [&](Point from, Point end) {
        const double l = geometry::length(from, end);
        if (l < 1e-9) return end;
        const Point far{end.x + over * (end.x - from.x) / l, end.y + over * (end.y - from.y) / l};
        return kept_->finder.find(far) < 0 ? far : end;
    };
    for (auto line : lines) {
        if (line.size() < 2) continue;
        line.front() = extended(line[1], line.front());
        line.back() = extended(line[line.size() - 2], line.back());
        for (std::size_t k = 0; k + 1 < line.size(); ++k) {
            const auto cut = kept_->cutter.cut(line[k], line[k + 1]);
            if (cut.length <= 0) continue;
            const Point middle{(line[k].x + line[k + 1].x) / 2 - about.x,
                               (line[k].y + line[k + 1].y) / 2 - about.y};
            for (std::size_t c = 0; c < all.size(); ++c) {
                const double v = -slabShear(cut, kept_->moments[c], kept_->shears[c]);
                all[c] += {v, v * middle.x, v * middle.y};
            }
        }
    }
    return all;
}

Resultant Equilibrium::combined(const std::vector<Resultant>& inside, std::size_t combination) const {
    if (a_.nonlinear) return inside[combination];
    Resultant sum;
    const auto& factors = a_.combinations[combination].factors;
    for (std::size_t c = 0; c < factors.size() && c < inside.size(); ++c)
        if (factors[c] != 0) sum += inside[c] * factors[c];
    return sum;
}

}  // namespace talvik::analysis
