#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include "strips/layer.h"

namespace talvik::strips {
namespace {

constexpr double shortOverhang = 300;  // beyond a support's face: not a cantilever yet
constexpr double far = 1e7;

// From where to where the axis is on the strip.
void extent(Strip& s) {
    double low = far, high = -far, partLow = far, partHigh = -far;
    std::vector<Point> axis;
    for (Point p : s.axis) axis.push_back(s.axes.local(p));
    // An axis that ends on the strip's own edge crosses it.
    if (!axis.empty()) axis.front().x -= 5, axis.back().x += 5;
    for (const auto& part : s.parts)
        for (std::size_t i = 0; i < part.size(); ++i) {
            Point a = s.axes.local(part[i]), b = s.axes.local(part[(i + 1) % part.size()]);
            partLow = std::min(partLow, a.x), partHigh = std::max(partHigh, a.x);
            for (std::size_t k = 0; k + 1 < axis.size(); ++k) {
                Point at;
                if (!geometry::cross(axis[k], axis[k + 1], a, b, &at)) continue;
                low = std::min(low, at.x), high = std::max(high, at.x);
            }
        }
    if (high - low < 100) low = partLow, high = partHigh;
    s.from = partLow, s.to = partHigh;
    s.axisFrom = low, s.axisTo = high;
    // The axis from there to there.
    std::vector<Point> cutAxis;
    cutAxis.push_back(s.axes.plan({low, s.v(low)}));
    for (std::size_t i = 0; i < axis.size(); ++i)
        if (axis[i].x > low + 1 && axis[i].x < high - 1) cutAxis.push_back(s.axis[i]);
    cutAxis.push_back(s.axes.plan({high, s.v(high)}));
    s.axis = std::move(cutAxis);
}
std::vector<Point> localAxis(const Strip& s, double beyond) {
    std::vector<Point> axis;
    for (Point p : s.axis) axis.push_back(s.axes.local(p));
    if (axis.empty()) return axis;
    axis.front().x -= beyond, axis.back().x += beyond;
    return axis;
}

// Whether the slab goes on beyond the ends of a strip: over a quarter of the width there and more.
void findInside(Strip& s, const Layer& layer) {
    auto onSlab = [&](Point p) {
        auto in = [&](const Ring& r) { return geometry::contains(r, p); };
        return std::any_of(layer.slabs.begin(), layer.slabs.end(), in) &&
               std::none_of(layer.openings.begin(), layer.openings.end(), in);
    };
    for (int end : {0, 1}) {
        const double u = end == 0 ? s.axisFrom : s.axisTo, way = end == 0 ? -1 : 1;
        int there = 0, on = 0;
        double low = 1e300, high = -1e300;
        for (const auto& part : s.parts)
            for (std::size_t i = 0; i < part.size(); ++i) {
                const Point a = s.axes.local(part[i]), b = s.axes.local(part[(i + 1) % part.size()]);
                const double at = u - way * 20;
                if ((a.x > at) == (b.x > at)) continue;
                const double v = a.y + (b.y - a.y) * (at - a.x) / (b.x - a.x);
                low = std::min(low, v), high = std::max(high, v);
            }
        constexpr int samples = 16;
        for (int k = 0; k < samples && low < high; ++k) {
            const double v = low + (k + 0.5) / samples * (high - low);
            if (!onSlab(s.axes.plan({u - way * 20, v}))) continue;
            ++there;
            on += onSlab(s.axes.plan({u + way * 150, v}));
        }
        s.inside[end] = there > 0 && 4 * on >= there;
    }
}

// How far walls and beams at the ends of a strip stand out beyond the slab's edge, on all of its width.
void findRoom(Strip& s, const Layer& layer) {
    std::vector<Ring> members;
    auto add = [&](Ring ring) {
        if (!ring.empty()) members.push_back(std::move(ring));
    };
    for (const auto& w : layer.floor.walls) add(model::footprint(w));
    for (const auto& b : layer.floor.beams) add(model::footprint(b));
    if (members.empty()) return;
    for (int end : {0, 1}) {
        if (s.inside[end]) continue;
        const double u = end == 0 ? s.axisFrom : s.axisTo, way = end == 0 ? -1 : 1;
        double low = 1e300, high = -1e300, least = 1e300;
        for (const auto& part : s.parts)
            for (Point p : part) {
                const Point l = s.axes.local(p);
                if (std::abs(l.x - u) < 50) low = std::min(low, l.y), high = std::max(high, l.y);
            }
        constexpr int samples = 8;
        constexpr double step = 5;
        for (int k = 0; k < samples && low < high && least > 0; ++k) {
            const double v = low + (k + 0.5) / samples * (high - low);
            double out = 0;
            for (double at = step; at < 1000; at += step) {
                const Point p = s.axes.plan({u + way * at, v});
                if (std::none_of(members.begin(), members.end(),
                                 [&](const Ring& r) { return geometry::contains(r, p); }))
                    break;
                out = at;
            }
            least = std::min(least, out);
        }
        s.room[end] = least < 1e299 ? least : 0;
    }
}

// Supports of a middle strip: members that cross it, and the lines between columns on either side.
std::vector<Support> between(const Strip& s, const Layer& layer) {
    std::vector<Support> all;
    layer.lines.addCrossing(all, localAxis(s, 300));
    const Chain *left = nullptr, *right = nullptr;
    for (const auto& l : layer.lines.lines()) {
        if (layer.prefix + l.out.id == s.lineLeft) left = &l;
        if (layer.prefix + l.out.id == s.line) right = &l;
    }
    auto columns = [](const Chain& l) {
        std::vector<const Support*> list;
        for (const auto& p : l.supports)
            if (p.kind == Support::Kind::Column || !p.wall.empty()) list.push_back(&p);
        return list;
    };
    if (left && right) {
        auto partners = columns(*right);
        for (const Support* a : columns(*left)) {
            const Support* best = nullptr;
            for (const Support* b : partners)
                if (!best || std::abs(b->u - a->u) < std::abs(best->u - a->u)) best = b;
            // Where walls run along on both sides, the strip is held by what crosses it.
            if (!best || (a->kind != Support::Kind::Column && best->kind != Support::Kind::Column) ||
                std::abs(best->u - a->u) > 0.35 * std::min(left->spanAt(a->u), right->spanAt(best->u)))
                continue;
            double h = (a->to - a->from + best->to - best->from) / 4, u = (a->u + best->u) / 2;
            all.push_back({Support::Kind::Columns, a->id, fmt::format("{}|{}", a->name, best->name), u, u - h,
                           u + h, 0, s.axes.plan({u, s.v(u)})});
        }
    } else if (left || right) {
        for (const Support* a : columns(left ? *left : *right))
            if (a->kind == Support::Kind::Column)
                all.push_back({Support::Kind::Columns, a->id, a->name, a->u, a->from, a->to, 0,
                               s.axes.plan({a->u, s.v(a->u)})});
    }
    joinTouching(all);
    return all;
}
// Supports of a strip by where it lies.
std::vector<Support> within(Strip& s, const Layer& layer) {
    std::vector<Support> all;
    auto in = [&](Point plan) {
        return std::any_of(s.parts.begin(), s.parts.end(), [&](const Ring& r) {
            return geometry::contains(r, plan) || geometry::distanceToEdge(r, plan) < 250;
        });
    };
    // Its own direction may be another than the layer's.
    const SupportLines turned(layer.floor, s.axes.angle, layer.domain, false);
    for (const auto& e : turned.elements()) {
        if (e.kind == Support::Kind::Beam || !in(e.at)) continue;
        if (e.column())
            all.push_back({e.kind, e.id, e.name, e.a.x, e.a.x - e.half, e.a.x + e.half, e.across, e.at});
        else
            turned.wallEnds(e, all), s.walls.emplace_back(e.a.x, e.b.x);
    }
    turned.addCrossing(all, localAxis(s, 300));
    joinTouching(all);
    return all;
}
// Where lines of columns of the other direction cross the strip's axis.
std::vector<Support> crossings(const Strip& s, const SupportLines& other) {
    std::vector<Support> all;
    auto axis = localAxis(s, 0);
    for (const auto& l : other.lines()) {
        if (l.supports.size() < 2) continue;
        std::vector<Point> line;
        for (Point p : l.out.points) line.push_back(s.axes.local(other.axes().plan(p)));
        for (std::size_t i = 0; i + 1 < line.size(); ++i)
            for (std::size_t k = 0; k + 1 < axis.size(); ++k) {
                Point at;
                if (!geometry::cross(line[i], line[i + 1], axis[k], axis[k + 1], &at)) continue;
                bool known =
                    std::any_of(all.begin(), all.end(), [&](const Support& p) { return p.id == l.out.id; });
                if (known) continue;
                double h = 0;
                for (const auto& p : l.supports) h = std::max(h, p.across / 2);
                all.push_back({Support::Kind::Columns, l.out.id, l.out.label, at.x, at.x - h, at.x + h, 0,
                               s.axes.plan(at)});
            }
    }
    return all;
}

void spans(Strip& s, const model::Floor& floor) {
    double thickness = 1e300;
    for (const auto& slab : floor.slabs) thickness = std::min(thickness, slab.thickness);
    const double overhang = std::max(shortOverhang, thickness);
    auto held = [](const Support& p) {
        return p.onBeam || p.kind == Support::Kind::Beam || p.kind == Support::Kind::Wall ||
               p.kind == Support::Kind::Line;
    };
    auto add = [&](int left, int right) {
        Span span;
        span.left = left, span.right = right;
        const Support* a = left >= 0 ? &s.supports[std::size_t(left)] : nullptr;
        const Support* b = right >= 0 ? &s.supports[std::size_t(right)] : nullptr;
        auto reach = [&](const Support& p, int side) {
            // A long wall holds the slab from a little behind its face.
            double half = (p.to - p.from) / 2;
            return half > 500 ? (side > 0 ? p.to - std::min(half, thickness / 2)
                                          : p.from + std::min(half, thickness / 2))
                              : p.u;
        };
        span.from = a ? reach(*a, 1) : s.axisFrom;
        span.to = b ? reach(*b, -1) : s.axisTo;
        span.clearFrom = a ? std::max(a->to, s.axisFrom) : s.axisFrom;
        span.clearTo = b ? std::min(b->from, s.axisTo) : s.axisTo;
        if (span.clearTo - span.clearFrom < 100) return;
        double onWall = 0;
        for (auto [from, to] : s.walls)
            onWall += std::max(0.0, std::min(to, span.clearTo) - std::max(from, span.clearFrom));
        span.alongWall = onWall > 0.6 * (span.clearTo - span.clearFrom);
        span.name = a && b ? a->name + "–" + b->name : a ? a->name + "–tip" : b ? "tip–" + b->name : "whole";
        span.id = fmt::format("span{}", s.spans.size());
        s.spans.push_back(span);
    };
    if (s.supports.empty()) {
        add(-1, -1);
    } else {
        // Lines between columns end where the columns do: the slab's edge askew of them makes no
        // cantilever.
        auto least = [&](std::size_t support, std::size_t next) {
            if (s.supports[support].kind != Support::Kind::Columns || s.supports.size() < 2) return overhang;
            return std::max(overhang, 0.2 * std::abs(s.supports[next].u - s.supports[support].u));
        };
        const std::size_t n = s.supports.size();
        if (s.supports.front().from - s.axisFrom > least(0, std::min<std::size_t>(1, n - 1))) add(-1, 0);
        for (std::size_t i = 0; i + 1 < s.supports.size(); ++i) add(int(i), int(i + 1));
        if (s.axisTo - s.supports.back().to > least(n - 1, n > 1 ? n - 2 : 0))
            add(int(s.supports.size()) - 1, -1);
    }
    // Held at one place with next to nothing beyond it: the strip is one piece all the same.
    if (s.spans.empty()) add(-1, -1);
    for (std::size_t i = 0; i < s.spans.size(); ++i) {
        Span& span = s.spans[i];
        for (int e : {0, 1}) {
            int support = e == 0 ? span.left : span.right;
            EndCondition found = EndCondition::Free;
            if (support < 0) {
                found = span.cantilever() ? EndCondition::Cantilever : EndCondition::Free;
            } else {
                bool on = e == 0 ? i > 0 : i + 1 < s.spans.size();
                found = on                                       ? EndCondition::Continuous
                        : held(s.supports[std::size_t(support)]) ? EndCondition::OnBeam
                                                                 : EndCondition::Free;
                if (span.cantilever()) found = EndCondition::Continuous;
            }
            span.ends[e] = found;
            const Id id = support < 0 ? Id() : s.supports[std::size_t(support)].id;
            for (const auto& o : floor.strips.ends)
                if (o.strip == s.key &&
                    (o.support == id || (!span.alongWall && support >= 0 && !o.support.empty() &&
                                         o.support == s.supports[std::size_t(support)].wall)) &&
                    o.side == (e == 0 ? 1 : -1)) {
                    span.overruled[e] = o.condition != found;
                    span.ends[e] = o.condition;
                }
        }
    }
}

}  // namespace

void hold(Strip& s, const Layer& layer, const Layer& crossing) {
    extent(s);
    findInside(s, layer);
    findRoom(s, layer);
    if (s.kind == Strip::Kind::Column || s.kind == Strip::Kind::Full) {
        for (const auto& l : layer.lines.lines())
            if (layer.prefix + l.out.id == s.line) s.supports = l.supports, s.walls = l.walls;
    } else {
        s.supports = s.kind == Strip::Kind::Middle ? between(s, layer) : within(s, layer);
    }
    std::erase_if(s.supports,
                  [&](const Support& p) { return p.to < s.axisFrom - 1 || p.from > s.axisTo + 1; });
    if (s.supports.size() < 2) {
        for (auto& p : crossings(s, crossing.lines)) s.supports.push_back(std::move(p));
        joinTouching(s.supports);
    }
    spans(s, layer.floor);
}

}  // namespace talvik::strips
