#include "strips/strip_edits.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace talvik::strips {
namespace {

model::Outline outlineOf(const Ring& ring) {
    model::Outline o;
    for (Point p : ring) o.push_back({std::round(p.x * 1000) / 1000, std::round(p.y * 1000) / 1000, 0});
    return o;
}

// Parts of a strip as strips drawn by hand; those of less than a hundredth of a square metre are left out.
void addDrawn(model::Project& project, model::Floor& floor, const std::string& name, int direction,
              double angle, const std::vector<Ring>& parts) {
    int n = 0;
    for (const auto& r : parts) {
        if (geometry::area(r) < 1e4) continue;
        ++n;
        floor.strips.drawn.push_back({model::newId(project, 't'),
                                      n > 1 ? fmt::format("{} ({})", name, n) : name, direction, angle,
                                      outlineOf(r)});
    }
}
void forget(model::Floor& floor, std::string_view key) {
    auto mine = [key](const auto& item) { return item.strip == key; };
    std::erase_if(floor.strips.ends, mine);
    std::erase_if(floor.strips.bars, [key](const auto& bars) { return bars.part == key; });
    std::erase_if(floor.strips.drawn, [key](const auto& d) { return d.id == key; });
}

// How far the strip reaches from its axis on a side, at u; 0 where it does not.
double reachAt(const Strip& s, double u, int side) {
    double best = 0, axis = s.v(u);
    for (const auto& part : s.parts)
        for (std::size_t i = 0; i < part.size(); ++i) {
            Point p = s.axes.local(part[i]), q = s.axes.local(part[(i + 1) % part.size()]);
            if ((p.x > u) == (q.x > u)) continue;
            best = std::max(best, side * (p.y + (q.y - p.y) * (u - p.x) / (q.x - p.x) - axis));
        }
    return best;
}
// Key of the strip just beyond the edge on a side, at u.
std::string beyond(const StripLayout& layout, const Strip& s, double u, int side) {
    Point p = s.axes.plan({u, s.v(u) + side * (reachAt(s, u, side) + 20)});
    for (const auto& o : layout.strips)
        if (o.direction == s.direction && o.key != s.key)
            for (const auto& part : o.parts)
                if (geometry::contains(part, p)) return o.key;
    return {};
}

}  // namespace

std::vector<EdgeOf> edgesOf(const StripLayout& layout, const Strip& strip) {
    std::vector<EdgeOf> all;
    if (strip.kind != Strip::Kind::Column && strip.kind != Strip::Kind::Full &&
        strip.kind != Strip::Kind::Middle)
        return all;
    auto add = [&](const Strip& owner, int side) {
        EdgeOf e;
        e.line = owner.line;
        e.side = side;
        // Between the corners of the strip, where the edge runs straight.
        std::vector<double> stops{owner.from, owner.to};
        for (const auto& part : owner.parts)
            for (Point p : part)
                if (double u = owner.axes.local(p).x; u > owner.from && u < owner.to) stops.push_back(u);
        std::sort(stops.begin(), stops.end());
        double nearest = 1e300;
        const double middle = (owner.from + owner.to) / 2;
        for (std::size_t i = 0; i + 1 < stops.size(); ++i) {
            if (stops[i + 1] - stops[i] < 5) continue;
            const double u = (stops[i] + stops[i + 1]) / 2;
            auto other = beyond(layout, owner, u, side);
            if (other.empty()) continue;
            for (double end : {stops[i] + 1, stops[i + 1] - 1})
                e.path.push_back(owner.axes.plan({end, owner.v(end) + side * reachAt(owner, end, side)}));
            const double at = std::clamp(middle, stops[i] + 1, stops[i + 1] - 1);
            if (std::abs(at - middle) >= nearest) continue;
            nearest = std::abs(at - middle);
            e.other = std::move(other);
            e.offset = reachAt(owner, at, side);
            e.handle = owner.axes.plan({at, owner.v(at) + side * e.offset});
        }
        if (e.path.empty() || e.offset <= 0) return;
        if (const Strip* o = layout.find(e.other); o && o->kind != Strip::Kind::Middle) e.otherLine = o->line;
        all.push_back(std::move(e));
    };
    if (strip.kind == Strip::Kind::Middle) {
        for (const auto& o : layout.strips) {
            if (o.direction != strip.direction || o.kind != Strip::Kind::Column) continue;
            if (!strip.lineLeft.empty() && o.line == strip.lineLeft) add(o, 1);
            if (!strip.line.empty() && o.line == strip.line) add(o, -1);
        }
    } else {
        add(strip, -1);
        add(strip, 1);
    }
    return all;
}

void moveEdge(model::Project& project, model::Floor& floor, int direction, const EdgeOf& edge,
              double offset) {
    offset = std::max(50.0, offset);
    // What was decided about it from the other side no longer counts.
    if (!edge.otherLine.empty())
        std::erase_if(floor.strips.edges, [&](const model::StripEdge& e) {
            return e.direction == direction && e.line == edge.otherLine && e.side == -edge.side;
        });
    for (auto& e : floor.strips.edges)
        if (e.direction == direction && e.line == edge.line && e.side == edge.side) {
            e.offset = offset;
            return;
        }
    floor.strips.edges.push_back({model::newId(project, 'e'), direction, edge.line, edge.side, offset});
}

std::string split(model::Project& project, model::Floor& floor, const StripLayout& layout,
                  std::string_view key, Point at, bool along) {
    const Strip* s = layout.find(key);
    if (!s) return "The strip is no longer there.";
    Point l = s->axes.local(at);
    constexpr double far = 1e6;
    std::array<std::vector<Ring>, 2> halves;
    for (int side : {0, 1}) {
        double a = side == 0 ? -far : 0, b = side == 0 ? 0 : far;
        Ring half = along ? Ring{{-far, l.y + a}, {far, l.y + a}, {far, l.y + b}, {-far, l.y + b}}
                          : Ring{{l.x + a, -far}, {l.x + b, -far}, {l.x + b, far}, {l.x + a, far}};
        for (Point& p : half) p = s->axes.plan(p);
        for (const auto& part : s->parts)
            for (auto& piece : geometry::intersection(part, half))
                halves[std::size_t(side)].push_back(std::move(piece));
        halves[std::size_t(side)] = geometry::unite(halves[std::size_t(side)]);
        double area = 0;
        for (const auto& r : halves[std::size_t(side)]) area += geometry::area(r);
        if (area < 0.05e6) return "The cut does not pass through the strip; choose a place inside it.";
    }
    Strip copy = *s;
    forget(floor, key);
    for (int side : {0, 1})
        addDrawn(project, floor, copy.name + (side == 0 ? "a" : "b"), copy.direction, copy.axes.angle,
                 halves[std::size_t(side)]);
    return {};
}

std::string merge(model::Project& project, model::Floor& floor, const StripLayout& layout, std::string_view a,
                  std::string_view b) {
    const Strip *s = layout.find(a), *t = layout.find(b);
    if (!s || !t || s == t) return "Choose two strips to merge.";
    if (s->direction != t->direction) return "The strips are of two directions; merge strips of one.";
    auto parts = s->parts;
    parts.insert(parts.end(), t->parts.begin(), t->parts.end());
    auto whole = geometry::unite(parts);
    std::erase_if(whole, [](const Ring& r) { return geometry::area(r) < 1e4; });
    auto alone = geometry::unite(s->parts);
    auto other = geometry::unite(t->parts);
    if (whole.size() >= alone.size() + other.size())
        return fmt::format("{} and {} do not touch; merge strips that lie side by side.", s->name, t->name);
    std::string name = s->name + "+" + t->name;
    int direction = s->direction;
    double angle = s->axes.angle;
    forget(floor, a);
    forget(floor, b);
    addDrawn(project, floor, name, direction, angle, whole);
    return {};
}

std::string reAim(model::Project& project, model::Floor& floor, const StripLayout& layout,
                  std::string_view key, double angle) {
    const Strip* s = layout.find(key);
    if (!s) return "The strip is no longer there.";
    double between = std::fmod(std::abs(angle - s->otherAngle), 180);
    if (std::min(between, 180 - between) < 20)
        return "Bars of the two directions would be less than 20 degrees apart; choose another angle.";
    for (auto& d : floor.strips.drawn)
        if (d.id == key) {
            d.angle = angle;
            return {};
        }
    Strip copy = *s;
    forget(floor, key);
    addDrawn(project, floor, copy.name, copy.direction, angle, geometry::unite(copy.parts));
    return {};
}

std::string draw(model::Project& project, model::Floor& floor, int direction, double angle,
                 const std::vector<Point>& corners) {
    if (auto why = geometry::invalid(corners); !why.empty()) return why;
    Ring ring = corners;
    if (geometry::area(ring) < 0) std::reverse(ring.begin(), ring.end());
    std::string name = fmt::format("{}h{}", directionName(direction), floor.strips.drawn.size() + 1);
    addDrawn(project, floor, name, direction, angle, {ring});
    return {};
}

std::string drawArea(model::Project& project, model::Floor& floor, const std::array<double, 2>& angles,
                     const std::vector<Point>& corners) {
    if (auto why = geometry::invalid(corners); !why.empty()) return why;
    Ring ring = corners;
    if (geometry::area(ring) < 0) std::reverse(ring.begin(), ring.end());
    model::StripArea a{model::newId(project, 'a'),
                       fmt::format("area {}", floor.strips.areas.size() + 1),
                       outlineOf(ring),
                       {angles[0], angles[1]}};
    floor.strips.areas.push_back(std::move(a));
    return {};
}

bool release(model::Floor& floor, const StripLayout& layout, std::string_view key) {
    auto before = floor.strips;
    forget(floor, key);
    if (const Strip* s = layout.find(key))
        for (const auto& e : edgesOf(layout, *s))
            std::erase_if(floor.strips.edges, [&](const model::StripEdge& o) {
                return o.direction == s->direction &&
                       ((o.line == e.line && o.side == e.side) ||
                        (!e.otherLine.empty() && o.line == e.otherLine && o.side == -e.side));
            });
    if (const Strip* s = layout.find(key); s && before == floor.strips)
        std::erase_if(floor.strips.areas, [&](const model::StripArea& a) { return a.id == s->within; });
    return !(before == floor.strips);
}

void setEnd(model::Project& project, model::Floor& floor, const Strip& strip, std::size_t span, int side,
            std::optional<EndCondition> condition) {
    const Span& s = strip.spans[span];
    int support = side > 0 ? s.left : s.right;  // +1: the span after its support
    Id id = support < 0 ? Id() : strip.supports[std::size_t(support)].id;
    std::erase_if(floor.strips.ends, [&](const model::SpanEnd& e) {
        return e.strip == strip.key && e.support == id && e.side == side;
    });
    if (condition) floor.strips.ends.push_back({model::newId(project, 'e'), strip.key, id, side, *condition});
}

const char* name(EndCondition c) {
    switch (c) {
        case EndCondition::Free:
            return "free";
        case EndCondition::OnBeam:
            return "on a beam or wall";
        case EndCondition::Continuous:
            return "continuous";
        case EndCondition::Cantilever:
            return "cantilever";
    }
    return "";
}

}  // namespace talvik::strips
