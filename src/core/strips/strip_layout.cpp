#include "strips/strip_layout.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <optional>

#include "strips/layer.h"

namespace talvik::strips {
namespace {

constexpr double far = 1e7;

std::vector<Ring> ringsOf(const auto& list) {
    std::vector<Ring> all;
    for (const auto& m : list) all.push_back(model::ring(m.outline));
    return all;
}

}  // namespace

Axes::Axes(double degreesOf)
    : angle(degreesOf),
      c(std::cos(degreesOf * std::numbers::pi / 180)),
      s(std::sin(degreesOf * std::numbers::pi / 180)) {
    // Exact along the plan's axes, so that what is drawn square stays square.
    if (std::abs(c) < 1e-15) c = 0;
    if (std::abs(s) < 1e-15) s = 0;
}

double Strip::area() const {
    double sum = 0;
    for (const auto& r : parts) sum += geometry::area(r);
    return sum;
}

double Strip::v(double u) const {
    if (axis.empty()) return 0;
    Point before = axes.local(axis.front());
    if (u <= before.x) return before.y;
    for (std::size_t i = 1; i < axis.size(); ++i) {
        Point p = axes.local(axis[i]);
        if (u <= p.x)
            return p.x - before.x > 1e-9 ? before.y + (p.y - before.y) * (u - before.x) / (p.x - before.x)
                                         : p.y;
        before = p;
    }
    return before.y;
}

const Strip* StripLayout::find(std::string_view key) const {
    for (const auto& s : strips)
        if (s.key == key) return &s;
    return nullptr;
}

const char* directionName(int direction) {
    return direction == 0 ? "X" : "Y";
}

double quarterOfShorter(double span, double across) {
    return std::min(span, across) / 4;
}

bool edgeBarThrough(const Strip& strip, std::size_t support) {
    constexpr double bar = 45;  // from the edge to the bar
    for (int side : {0, 1})
        if (strip.edge[side] && strip.toNext[side] - bar <= strip.supports[support].across / 2 - line::coreCover)
            return true;
    return false;
}

bool innerColumn(const Strip& strip, std::size_t support) {
    const auto& p = strip.supports[support];
    bool before = false, after = false;
    for (const auto& span : strip.spans) {
        before |= span.right == int(support) && span.left >= 0;
        after |= span.left == int(support) && span.right >= 0;
    }
    return p.kind == Support::Kind::Column && !p.onBeam && p.across > 0 && before && after;
}

bool sameLayout(const model::Floor& a, const model::Floor& b) {
    const auto &r = a.strips.rules, &q = b.strips.rules;
    return a.slabs == b.slabs && a.openings == b.openings && a.columns == b.columns && a.walls == b.walls &&
           a.edges == b.edges && a.beams == b.beams && a.piles == b.piles && a.grids == b.grids &&
           a.grounds.empty() == b.grounds.empty() && a.strips.areas == b.strips.areas &&
           a.strips.edges == b.strips.edges && a.strips.drawn == b.strips.drawn &&
           a.strips.ends == b.strips.ends && r.ownAngles == q.ownAngles && r.angle[0] == q.angle[0] &&
           r.angle[1] == q.angle[1] && r.automatic[0] == q.automatic[0] && r.automatic[1] == q.automatic[1] &&
           r.width == q.width;
}

StripLayout layStrips(const model::Floor& floor, const ColumnStripHalf& half) {
    StripLayout out;
    const auto& rules = floor.strips.rules;
    if (rules.ownAngles)
        out.angle = {rules.angle[0], rules.angle[1]};
    else if (!floor.grids.empty())
        out.angle = {floor.grids.front().angle, floor.grids.front().angle + floor.grids.front().between};
    auto slabs = ringsOf(floor.slabs), openings = ringsOf(floor.openings);
    std::vector<Ring> areas;
    struct Part {
        std::vector<Ring> domain, cutters;
        std::array<double, 2> angle;
        Id area;  // with directions of its own; empty for the rest of the floor
        std::string prefix() const { return area.empty() ? "" : area + ":"; }
    };
    std::vector<Part> parts;
    for (const auto& a : floor.strips.areas) {
        Part p{{}, openings, {a.angle[0], a.angle[1]}, a.id};
        Ring outline = model::ring(a.outline);
        for (const auto& slab : slabs)
            for (auto& r : geometry::intersection(slab, outline)) p.domain.push_back(std::move(r));
        p.cutters.insert(p.cutters.end(), areas.begin(), areas.end());
        areas.push_back(std::move(outline));
        parts.push_back(std::move(p));
    }
    Part rest{{}, openings, out.angle, ""};
    for (const auto& slab : slabs) {
        if (areas.empty())
            rest.domain.push_back(slab);
        else
            for (auto& r : geometry::difference(slab, areas)) rest.domain.push_back(std::move(r));
    }
    parts.push_back(std::move(rest));
    std::array<std::vector<Strip>, 2> all;
    for (const auto& part : parts) {
        if (part.domain.empty()) continue;
        std::array<std::optional<Layer>, 2> layers;
        for (int d : {0, 1}) {
            auto cutters = part.cutters;
            for (const auto& drawn : floor.strips.drawn)
                if (drawn.direction == d) cutters.push_back(model::ring(drawn.outline));
            layers[std::size_t(d)].emplace(
                Layer{floor, half, d, part.angle[std::size_t(1 - d)], part.domain, cutters, part.prefix(),
                      slabs, openings, SupportLines(floor, part.angle[std::size_t(d)], part.domain)});
            for (const auto& l : layers[std::size_t(d)]->lines.lines())
                out.lines[std::size_t(d)].push_back(l.out);
        }
        for (std::size_t d : {0u, 1u}) {
            if (rules.automatic[d])
                for (auto& s : shareSlab(*layers[d])) {
                    hold(s, *layers[d], *layers[1 - d]);
                    s.within = part.area;
                    all[d].push_back(std::move(s));
                }
            if (!part.area.empty()) continue;
            for (const auto& drawn : floor.strips.drawn) {
                if (std::size_t(drawn.direction) != d) continue;
                Strip s;
                s.kind = Strip::Kind::Drawn;
                s.key = drawn.id;
                s.name = drawn.name.empty() ? drawn.id : drawn.name;
                s.direction = drawn.direction;
                s.axes = Axes(drawn.angle);
                s.otherAngle = out.angle[1 - d];
                s.changed = true;
                Ring outline = model::ring(drawn.outline);
                for (const auto& slab : slabs)
                    for (const auto& piece : geometry::intersection(slab, outline))
                        for (auto& r : openings.empty() ? std::vector<Ring>{piece}
                                                        : geometry::difference(piece, openings))
                            s.parts.push_back(std::move(r));
                if (s.parts.empty()) continue;
                double low = far, high = -far, v0 = far, v1 = -far;
                for (const auto& r : s.parts)
                    for (Point p : r) {
                        Point l = s.axes.local(p);
                        low = std::min(low, l.x), high = std::max(high, l.x);
                        v0 = std::min(v0, l.y), v1 = std::max(v1, l.y);
                    }
                s.axis = {s.axes.plan({low - 500, (v0 + v1) / 2}), s.axes.plan({high + 500, (v0 + v1) / 2})};
                s.toNext[0] = s.toNext[1] = (v1 - v0) / 2;
                hold(s, *layers[d], *layers[1 - d]);
                all[d].push_back(std::move(s));
            }
        }
    }
    for (std::size_t d : {0u, 1u}) {
        auto order = [](const Strip& s) { return std::pair(s.axes.angle, s.v((s.from + s.to) / 2)); };
        std::stable_sort(all[d].begin(), all[d].end(),
                         [&](const Strip& a, const Strip& b) { return order(a) < order(b); });
        std::vector<Ring> rings;
        std::vector<std::string> names;
        for (const auto& s : all[d])
            for (const auto& r : s.parts) rings.push_back(r), names.push_back(s.name);
        auto cover = geometry::cover(slabs, openings, rings);
        Coverage& c = out.coverage[d];
        c.whole = cover.whole;
        for (auto& gap : cover.gaps) {
            c.gaps.push_back({geometry::area(gap), geometry::inside(gap), {gap}, ""});
            c.uncovered += c.gaps.back().area;
        }
        for (auto& o : cover.overlaps) {
            Patch p{0, geometry::inside(o.patch.front()), o.patch, names[o.a] + ", " + names[o.b]};
            for (const auto& r : o.patch) p.area += geometry::area(r);
            c.overlapped += p.area;
            c.overlaps.push_back(std::move(p));
        }
        for (auto& s : all[d]) out.strips.push_back(std::move(s));
    }
    return out;
}

}  // namespace talvik::strips
