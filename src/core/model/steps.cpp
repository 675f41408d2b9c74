#include "model/steps.h"

#include <algorithm>
#include <cmath>

namespace talvik::model {
namespace {

using geometry::Point;
using geometry::Ring;

double soffit(const SlabArea& s) {
    return s.level - s.thickness;
}
bool alike(double a, double b) {
    return std::abs(a - b) <= sameHeight;
}
bool alike(const SlabArea& a, const SlabArea& b) {
    return alike(a.level, b.level) && alike(soffit(a), soffit(b));
}

// Of each slab what later ones leave of it.
std::vector<std::vector<Ring>> clear(const Floor& floor) {
    std::vector<Ring> rings;
    for (const auto& s : floor.slabs) rings.push_back(ring(s.outline));
    std::vector<std::vector<Ring>> all;
    for (std::size_t i = 0; i < rings.size(); ++i)
        all.push_back(geometry::difference(rings[i], {rings.begin() + std::ptrdiff_t(i) + 1, rings.end()}));
    return all;
}

}  // namespace

double passing(const SlabArea& a, const SlabArea& b) {
    return std::min(a.level, b.level) - std::max(soffit(a), soffit(b));
}

std::vector<FaceLevel> faceLevels(const Floor& floor, bool top) {
    auto height = [&](const SlabArea& s) { return top ? s.level : soffit(s); };
    std::vector<FaceLevel> all;
    for (const auto& s : floor.slabs)
        if (std::none_of(all.begin(), all.end(), [&](const auto& f) { return alike(f.height, height(s)); }))
            all.push_back({height(s), {}, {}});
    std::sort(all.begin(), all.end(), [](const auto& a, const auto& b) { return a.height < b.height; });
    if (all.size() < 2) return all;
    const auto parts = clear(floor);
    for (auto& f : all)
        for (std::size_t i = 0; i < parts.size(); ++i) {
            const auto& s = floor.slabs[i];
            if (alike(f.height, height(s))) continue;
            const bool passes = top ? s.level > f.height && soffit(s) <= f.height - leastPassing
                                    : soffit(s) < f.height && s.level >= f.height + leastPassing;
            f.others.insert(f.others.end(), parts[i].begin(), parts[i].end());
            if (!passes) f.missing.insert(f.missing.end(), parts[i].begin(), parts[i].end());
        }
    return all;
}

std::vector<SlabSide> slabSides(const Floor& floor) {
    std::vector<SlabSide> all;
    if (floor.slabs.empty()) return all;
    const auto parts = clear(floor);
    auto slabAt = [&](Point p) {
        for (std::size_t i = floor.slabs.size(); i-- > 0;)
            if (geometry::contains(ring(floor.slabs[i].outline), p)) return int(i);
        return -1;
    };
    std::vector<Ring> drops;
    for (const auto& z : floor.zones) drops.push_back(ring(z.outline));
    // Slabs alike have their outlines together.
    std::vector<char> done(floor.slabs.size(), 0);
    std::vector<std::pair<std::size_t, std::vector<Ring>>> groups;
    for (std::size_t i = 0; i < floor.slabs.size(); ++i) {
        if (done[i]) continue;
        std::vector<Ring> rings;
        for (std::size_t k = i; k < floor.slabs.size(); ++k) {
            if (done[k] || !alike(floor.slabs[i], floor.slabs[k])) continue;
            done[k] = 1;
            rings.insert(rings.end(), parts[k].begin(), parts[k].end());
        }
        groups.push_back({i, std::move(rings)});
    }
    if (groups.size() == 1) {
        for (const Ring& o : outlines(floor))
            for (std::size_t i = 0; i < o.size(); ++i) all.push_back({{o[i], o[(i + 1) % o.size()]}, 0, -1});
        return all;
    }
    for (auto& [slab, rings] : groups) rings = geometry::unite(rings);
    for (std::size_t g = 0; g < groups.size(); ++g)
        for (const Ring& o : groups[g].second)
            for (std::size_t i = 0; i < o.size(); ++i) {
                const Point a = o[i], b = o[(i + 1) % o.size()];
                const double length = geometry::length(a, b);
                if (length < 1) continue;
                const Point way{(b.x - a.x) / length, (b.y - a.y) / length};
                // What lies beside it changes at corners of others and at drops only.
                std::vector<double> stops{0, length};
                for (const auto& [slab, rings] : groups)
                    for (const Ring& r : rings)
                        for (const Point& p : r)
                            if (geometry::distance(p, a, b) < 2)
                                stops.push_back((p.x - a.x) * way.x + (p.y - a.y) * way.y);
                for (const Ring& r : drops)
                    for (std::size_t k = 0; k < r.size(); ++k)
                        if (Point at; geometry::cross(a, b, r[k], r[(k + 1) % r.size()], &at))
                            stops.push_back(geometry::length(a, at));
                std::sort(stops.begin(), stops.end());
                SlabSide last;
                bool open = false;
                double from = 0;
                auto close = [&](double at) {
                    if (open)
                        last.along = {{a.x + from * way.x, a.y + from * way.y},
                                      {a.x + at * way.x, a.y + at * way.y}},
                        all.push_back(last);
                    open = false;
                };
                for (std::size_t k = 0; k + 1 < stops.size(); ++k) {
                    if (stops[k + 1] - stops[k] < 1) continue;
                    const double m = (stops[k] + stops[k + 1]) / 2;
                    const Point on{a.x + m * way.x, a.y + m * way.y};
                    const int beside = slabAt({on.x + 5 * way.y, on.y - 5 * way.x}),
                              own = slabAt({on.x - 5 * way.y, on.y + 5 * way.x});
                    SlabSide s{{}, own < 0 ? groups[g].first : std::size_t(own), beside};
                    bool ends = beside < 0;
                    if (beside >= 0) {
                        const auto &here = floor.slabs[s.slab], &there = floor.slabs[std::size_t(beside)];
                        const bool drop = std::any_of(drops.begin(), drops.end(), [&](const Ring& r) {
                            return geometry::contains(r, on);
                        });
                        ends = here.level > there.level + sameHeight ||
                               (!drop && soffit(here) < soffit(there) - sameHeight);
                    }
                    if (open && (!ends || s.slab != last.slab || s.beside != last.beside)) close(stops[k]);
                    if (ends && !open) last = s, open = true, from = stops[k];
                }
                close(length);
            }
    return all;
}

std::vector<geometry::Segment> gaps(const Floor& floor) {
    std::vector<geometry::Segment> all;
    if (floor.slabs.size() < 2) return all;
    for (const auto& side : slabSides(floor)) {
        if (side.beside < 0 || passing(floor.slabs[side.slab], floor.slabs[std::size_t(side.beside)]) >= leastPassing)
            continue;
        const auto [a, b] = side.along;
        const double length = geometry::length(a, b);
        if (length < 1) continue;
        const Point way{(b.x - a.x) / length, (b.y - a.y) / length};
        // What walls and beams along it cover.
        std::vector<std::pair<double, double>> covered;
        auto cover = [&](Point p, Point q, double thickness) {
            auto off = [&](Point x) { return std::abs((x.y - a.y) * way.x - (x.x - a.x) * way.y); };
            if (off(p) > thickness / 2 + 1 || off(q) > thickness / 2 + 1) return;
            auto [from, to] = std::minmax({(p.x - a.x) * way.x + (p.y - a.y) * way.y,
                                           (q.x - a.x) * way.x + (q.y - a.y) * way.y});
            if (to - from > thickness) covered.emplace_back(from, to);
        };
        for (const auto& w : floor.walls) cover(w.a, w.b, w.thickness);
        for (const auto& m : floor.beams) cover(m.a, m.b, m.width);
        std::sort(covered.begin(), covered.end());
        double from = 0;
        auto open = [&](double to) {
            if (to - from > 1)
                all.push_back({{a.x + from * way.x, a.y + from * way.y}, {a.x + to * way.x, a.y + to * way.y}});
        };
        for (const auto& [low, high] : covered) {
            open(std::min(low, length));
            from = std::max(from, high);
        }
        open(length);
    }
    return all;
}

Levels::Levels(const Floor& floor) : floor_(floor) {
    for (const auto& s : floor.slabs) {
        slabs_.push_back(ring(s.outline));
        stepped_ |= !alike(s, floor.slabs.front());
    }
}
const SlabArea* Levels::slab(Point p) const {
    if (stepped_)
        for (std::size_t i = slabs_.size(); i-- > 0;)
            if (geometry::contains(slabs_[i], p)) return &floor_.slabs[i];
    return floor_.slabs.empty() ? nullptr : &floor_.slabs.front();
}
double Levels::at(Point p) const {
    const auto* s = slab(p);
    return s ? s->level : 0;
}
double Levels::ofBar(geometry::Segment bar, bool top) const {
    auto on = [&](double t) {
        return slab({bar.a.x + t * (bar.b.x - bar.a.x), bar.a.y + t * (bar.b.y - bar.a.y)});
    };
    const auto* middle = on(0.5);
    if (!middle) return 0;
    double height = top ? middle->level : soffit(*middle);
    for (double t : {0.0, 0.25, 0.75, 1.0}) {
        if (!stepped_) break;
        height = top ? std::min(height, on(t)->level) : std::max(height, soffit(*on(t)));
    }
    return top ? height : height + middle->thickness;
}

}  // namespace talvik::model
