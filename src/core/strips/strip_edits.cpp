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
    std::erase_if(floor.strips.bars, mine);
    std::erase_if(floor.strips.drawn, [key](const auto& d) { return d.id == key; });
}

// Nearest of a strip's outline to its line: offset of the edge on a side, at the middle of the line.
double offsetAt(const Strip& s, const SupportLine& line, int side) {
    double best = 0;
    Point a = line.points.front(), b = line.points.back();
    double u0 = std::max(a.x, s.from), u1 = std::min(b.x, s.to);
    for (double k : {0.5, 0.35, 0.65}) {
        double u = u0 + k * (u1 - u0), v = 0;
        for (std::size_t i = 0; i + 1 < line.points.size(); ++i) {
            Point p = line.points[i], q = line.points[i + 1];
            if (u >= p.x && u <= q.x && q.x > p.x) v = p.y + (q.y - p.y) * (u - p.x) / (q.x - p.x);
        }
        for (const auto& part : s.parts)
            for (std::size_t i = 0; i < part.size(); ++i) {
                Point p = s.axes.local(part[i]), q = s.axes.local(part[(i + 1) % part.size()]);
                if ((p.x > u) == (q.x > u)) continue;
                double at = p.y + (q.y - p.y) * (u - p.x) / (q.x - p.x);
                if (side * (at - v) > 1) best = std::max(best, side * (at - v));
            }
        if (best > 0) return best;
    }
    return best;
}

}  // namespace

std::vector<EdgeOf> edgesOf(const StripLayout& layout, const Strip& strip) {
    std::vector<EdgeOf> all;
    if (strip.kind != Strip::Kind::Column && strip.kind != Strip::Kind::Full &&
        strip.kind != Strip::Kind::Middle)
        return all;
    auto add = [&](const Strip& owner, int side) {
        std::string prefix =
            owner.key.substr(0, owner.key.find(':') == std::string::npos ? 0 : owner.key.find(':') + 1);
        for (const auto& line : layout.lines[std::size_t(owner.direction)]) {
            if (prefix + line.id != owner.line) continue;
            EdgeOf e;
            e.line = owner.line;
            e.side = side;
            e.offset = offsetAt(owner, line, side);
            if (e.offset <= 0) return;
            double u0 = std::max(line.points.front().x, owner.from),
                   u1 = std::min(line.points.back().x, owner.to);
            auto v = [&](double u) { return owner.v(u) + side * e.offset; };
            e.at = {owner.axes.plan({u0, v(u0)}), owner.axes.plan({u1, v(u1)})};
            Point beyond = owner.axes.plan({(u0 + u1) / 2, v((u0 + u1) / 2) + side * 20});
            for (const auto& o : layout.strips)
                if (o.direction == owner.direction && &o != &owner)
                    for (const auto& part : o.parts)
                        if (geometry::contains(part, beyond)) e.other = o.key;
            if (!e.other.empty()) all.push_back(e);
            return;
        }
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
                return o.direction == s->direction && o.line == e.line && o.side == e.side;
            });
    if (before == floor.strips)
        if (auto colon = key.find(':'); colon != std::string_view::npos)
            std::erase_if(floor.strips.areas,
                          [&](const model::StripArea& a) { return a.id == key.substr(0, colon); });
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
