#include "bases/reinforcement.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <map>

#include "bases/cap_shapes.h"
#include "schedule/cutting.h"

namespace talvik::bases {
namespace {

using geometry::Point;

// Bars side by side along a direction, bent up (at the top: down) at both ends where they are hooked.
struct Lay {
    const Mat& mat;
    bool top;
    std::string run, layer;
    bool lines;       // wanted
    double level;     // from the underside to their middle
    double leg, end;  // of hooks: length, and height of their ends
    bool tilted;      // legs that are longer than the concrete is deep
};
Lay layOf(const Context& in, const Reinforced& base, const Mat& m, bool top, double inner) {
    const auto& anchorage = *in.standard->anchorage;
    const double tall = !top && base.edge > 0 ? base.edge : base.h, d = m.bar->diameter;
    // Legs rise from their own layer.
    const double depth = units::roundDown(tall - in.cover - (top ? in.cover : base.below) - inner, 5),
                 leg = std::max(depth, schedule::hookLeg(depth, d, anchorage)),
                 off = (top ? in.cover : base.below) + inner + d / 2, z = top ? base.h - off : off;
    // No leg leaves the base, also one that lies tilted.
    return {m,
            top,
            {},
            {},
            base.lines,
            z,
            leg,
            top ? std::max(z - leg, in.cover) : std::min(z + leg, tall - in.cover),
            m.hooked && leg > depth};
}
// Bars of one length between pairs of places on plan.
Laid cutAlike(const Context& in, const Lay& l, double length,
              const std::vector<std::pair<Point, Point>>& places) {
    const Mat& m = l.mat;
    Laid out;
    auto& i = out.item;
    const auto& anchorage = *in.standard->anchorage;
    i.run = l.run, i.bar = m.bar->name, i.diameter = m.bar->diameter, i.number = int(places.size());
    i.spacing = m.spacing, i.layer = l.layer, i.from = -length / 2, i.to = length / 2;
    schedule::shape(i, length, l.leg, m.hooked, m.hooked);
    if (l.tilted) i.note = schedule::tilted;
    schedule::cut(i, *m.bar, anchorage);
    for (const auto& [a, b] : places) {
        i.lie.push_back({a, b});
        if (!l.lines) continue;
        std::vector<Point3> line;
        // Middle lines: lengths are outside to outside.
        const double short_ = m.hooked ? i.diameter / 2 : 0, far = geometry::length(a, b),
                     ux = short_ * (b.x - a.x) / far, uy = short_ * (b.y - a.y) / far;
        if (m.hooked) line.push_back({a.x + ux, a.y + uy, l.end});
        line.push_back({a.x + ux, a.y + uy, l.level}), line.push_back({b.x - ux, b.y - uy, l.level});
        if (m.hooked) line.push_back({b.x - ux, b.y - uy, l.end});
        out.lines.push_back(std::move(line));
    }
    return out;
}

// Bars of one mat. On an outline that is no rectangle they are as long as there is room, cut in steps.
std::vector<Laid> mat(const Context& in, const Reinforced& base, int axis, bool top) {
    const Mat& m = (top ? base.top : base.bottom)[std::size_t(axis)];
    const double length = axis == 0 ? base.B : base.L, width = axis == 0 ? base.L : base.B;
    const Mat& outer = (top ? base.top : base.bottom)[0];
    Lay l = layOf(in, base, m, top, axis == 1 && outer.bar ? outer.bar->diameter : 0);
    l.run = fmt::format("{}/{}", top ? "top" : "bottom", axis == 0 ? "x" : "y");
    l.layer = fmt::format("{}{}", top ? 'T' : 'B', axis == 0 ? 1 : 2);
    auto at = [&](double u, double v) {
        return axis == 0 ? Point{base.centre.x + u, base.centre.y + v}
                         : Point{base.centre.x + v, base.centre.y + u};
    };
    std::vector<Laid> all;
    if (!base.outline.empty()) {
        const auto every = matPlaces(in, base.outline, m, axis);
        for (bool beyond : {false, true}) {
            std::map<double, std::vector<std::pair<Point, Point>>, std::greater<>> alike;
            for (const auto& p : every) {
                if (p.beyond != beyond) continue;
                const double long_ = units::roundDown(p.to - p.from, 50), middle = (p.from + p.to) / 2;
                alike[long_].push_back({at(middle - long_ / 2, p.at), at(middle + long_ / 2, p.at)});
            }
            if (beyond) l.run += "/outer";
            for (const auto& [long_, places] : alike) {
                all.push_back(cutAlike(in, l, long_, places));
                if (beyond) all.back().item.spacing = 2 * m.spacing;
            }
        }
        return all;
    }
    const double straight = units::roundDown(length - 2 * in.cover, 5);
    // At the spacing that is called out, where that has room.
    const double pitch =
        m.number > 1 ? std::min(m.spacing, (width - 2 * in.cover - m.bar->diameter) / (m.number - 1)) : 0;
    std::vector<std::pair<Point, Point>> places;
    for (int k = 0; k < m.number; ++k) {
        const double v = (k - (m.number - 1) / 2.0) * pitch;
        places.push_back({at(-straight / 2, v), at(straight / 2, v)});
    }
    all.push_back(cutAlike(in, l, straight, places));
    return all;
}

// Three bands, each over two piles and one layer above the other.
std::vector<Laid> bands(const Context& in, const Reinforced& base) {
    std::vector<Laid> all;
    const Mat& m = base.bottom[0];
    const double d = m.bar->diameter;
    for (std::size_t k = 0; k < 3; ++k) {
        Lay l = layOf(in, base, m, false, double(k) * d);
        l.run = fmt::format("bottom/band {}", k + 1), l.layer = fmt::format("B{}", k + 1);
        const Point p = base.piles[k], q = base.piles[(k + 1) % 3];
        const double far = geometry::length(p, q);
        const Point way{(q.x - p.x) / far, (q.y - p.y) / far}, back{-way.x, -way.y};
        const geometry::Ring room = geometry::offset(base.outline, -(in.cover + d / 2)).front();
        // As long as the shortest of the band has room, all alike.
        double before = 1e300, after = 1e300;
        for (int n = 0; n < m.number; ++n) {
            const double v = (n - (m.number - 1) / 2.0) * m.spacing;
            before = std::min(before, reach(room, {p.x - v * way.y, p.y + v * way.x}, back));
            after = std::min(after, reach(room, {p.x - v * way.y, p.y + v * way.x}, way));
        }
        const double long_ = units::roundDown(before + after, 5),
                     from = -before + (before + after - long_) / 2;
        std::vector<std::pair<Point, Point>> places;
        for (int n = 0; n < m.number; ++n) {
            const double v = (n - (m.number - 1) / 2.0) * m.spacing;
            auto at = [&](double u) {
                return Point{base.centre.x + p.x + u * way.x - v * way.y,
                             base.centre.y + p.y + u * way.y + v * way.x};
            };
            places.push_back({at(from), at(from + long_)});
        }
        all.push_back(cutAlike(in, l, long_, places));
    }
    return all;
}

// A closed link as it lies: its middle line from corner to corner, sides outside to outside.
void closed(Laid& into, const Context& in, const catalogs::Bar& bar, int number, double a, double b) {
    auto& l = into.item;
    const auto& anchorage = *in.standard->anchorage;
    l.bar = bar.name, l.diameter = bar.diameter, l.number = number, l.layer = "links";
    const double tail =
        units::roundUp(anchorage.bendRadius(l.diameter) + l.diameter + anchorage.hookTail(l.diameter), 5);
    l.shape = "51", l.dimensions = {{'A', units::rounded(a, 4)}, {'B', units::rounded(b, 4)}, {'C', tail}};
    schedule::cut(l, bar, anchorage);
}

std::vector<Laid> starters(const Context& in, const Reinforced& base, const Starters& s) {
    if (!s.bar) return {};
    Laid bars;
    auto& i = bars.item;
    const auto& anchorage = *in.standard->anchorage;
    const double d = s.bar->diameter;
    i.run = "starters", i.bar = s.bar->name, i.diameter = d, i.number = s.number(), i.layer = "starters";
    double stands = base.below + d / 2;
    for (const auto& m : base.bottom)
        if (m.bar) stands += m.bar->diameter;
    if (base.bottom[0].bands) stands += base.bottom[0].bar->diameter;  // three of them cross
    standards::AnchorageInput lap;
    lap.diameter = d, lap.area = s.bar->area, lap.fc = in.fc, lap.fy = in.fy;
    lap.stress = anchorage.designYield(in.fy), lap.cd = in.cover, lap.spacing = startersApart;
    const double above = units::roundUp(anchorage.lap(lap), 25);
    // Above all concrete about the column: the base with its pedestal, its own strap, and one that ends
    // there.
    const double concrete =
        std::max({base.h + base.pedestal, base.strap.any() ? base.strap.depth : 0, s.strap});
    const double high = units::roundUp(concrete + above - stands + d / 2, 5),
                 leg = std::max(250.0, schedule::hookLeg(0, d, anchorage));
    i.shape = "11", i.dimensions = {{'A', high}, {'B', leg}};
    schedule::cut(i, *s.bar, anchorage);

    Laid links;
    auto& l = links.item;
    const catalogs::Bar* thin = nullptr;
    for (const auto& b : catalogs::barCatalog(in.basis->barCatalog)->bars)
        if (!thin && b.diameter >= std::max(6.0, d / 4) - 1e-9) thin = &b;
    const double half[2] = {s.sides[0] / 2 - in.columnCover - thin->diameter - d / 2,
                            s.sides[1] / 2 - in.columnCover - thin->diameter - d / 2};
    // One place after the other round the column; legs point away from it, or inwards where the base ends.
    auto put = [&](double u, double v) {
        const double x = s.at.x + u, y = s.at.y + v;
        const bool alongX = std::abs(u) * half[1] >= std::abs(v) * half[0];
        double way = (alongX ? u : v) >= 0 ? 1 : -1;
        const double reach =
            alongX ? base.B / 2 - way * (x - base.centre.x) : base.L / 2 - way * (y - base.centre.y);
        if (reach < leg + in.cover) way = -way;
        const double lx = alongX ? way * (leg - d / 2) : 0, ly = alongX ? 0 : way * (leg - d / 2);
        bars.lines.push_back({{x + lx, y + ly, stands}, {x, y, stands}, {x, y, stands - d / 2 + high}});
    };
    for (int side : {-1, 1})
        for (int k = 0; base.lines && k < s.along[0]; ++k)
            put(half[0] * (2.0 * k / (s.along[0] - 1) - 1), side * half[1]);
    for (int side : {-1, 1})
        for (int k = 1; base.lines && k + 1 < s.along[1]; ++k)
            put(side * half[0], half[1] * (2.0 * k / (s.along[1] - 1) - 1));
    if (half[0] < d || half[1] < d) return {std::move(bars)};
    // Three links hold them until the column is there, more along a pedestal.
    const double first = stands + d / 2 + thin->diameter, last = concrete - in.cover;
    const int n = std::max(3, int(std::ceil((last - first) / std::min(300.0, 15 * d))) + 1);
    const double a = 2 * half[0] + d + 2 * thin->diameter, b = 2 * half[1] + d + 2 * thin->diameter;
    l.run = "links";
    closed(links, in, *thin, n, a, b);
    const double x = a / 2 - thin->diameter / 2, y = b / 2 - thin->diameter / 2;
    for (int k = 0; base.lines && k < n; ++k) {
        const double z = first + k * (last - first) / (n - 1);
        links.lines.push_back({{s.at.x - x, s.at.y - y, z},
                               {s.at.x + x, s.at.y - y, z},
                               {s.at.x + x, s.at.y + y, z},
                               {s.at.x - x, s.at.y + y, z},
                               {s.at.x - x, s.at.y - y, z}});
    }
    return {std::move(bars), std::move(links)};
}

// Along the sides of a cap cut to its piles, level upon level: each bar goes round the next corner and laps
// there with the next.
std::vector<Laid> cutSides(const Context& in, const Reinforced& base, const catalogs::Bar& bar, int levels,
                           double lap) {
    std::vector<Laid> all;
    const double d = bar.diameter, low = base.below, high = base.h - in.cover;
    const auto rooms = geometry::offset(base.outline, -(in.cover + d / 2));
    if (rooms.empty()) return all;
    const auto& ring = rooms.front();
    std::map<double, std::vector<std::vector<Point3>>, std::greater<>> alike;
    const double leg = units::roundUp(lap, 25);
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Point a = ring[i], b = ring[(i + 1) % ring.size()], c = ring[(i + 2) % ring.size()];
        const double own = geometry::length(a, b), next = geometry::length(b, c),
                     on = std::min(leg, next) / next, side = units::roundDown(own, 5);
        for (int k = 1; k <= levels; ++k) {
            const double z = low + k * (high - low) / (levels + 1);
            auto at = [&](Point p) { return Point3{base.centre.x + p.x, base.centre.y + p.y, z}; };
            alike[side].push_back({at(a), at(b), at({b.x + on * (c.x - b.x), b.y + on * (c.y - b.y)})});
        }
    }
    for (auto& [side, lines] : alike) {
        Laid out;
        auto& i = out.item;
        i.run = "sides", i.bar = bar.name, i.diameter = d, i.number = int(lines.size()), i.layer = "sides";
        i.spacing = units::roundDown((high - low) / (levels + 1), 5);
        for (const auto& line : lines) i.lie.push_back({{line[0].x, line[0].y}, {line[1].x, line[1].y}});
        i.shape = "15", i.dimensions = {{'A', leg}, {'C', side}};
        schedule::cut(i, bar, *in.standard->anchorage);
        out.lines = std::move(lines);
        all.push_back(std::move(out));
    }
    return all;
}

// U-shaped bars in pairs that lap on the two sides along x, level upon level.
std::vector<Laid> sides(const Context& in, const Reinforced& base) {
    const auto* bar = catalogs::barCatalog(in.basis->barCatalog)->find(in.set.sideBar);
    if (!bar) return {};
    const auto& anchorage = *in.standard->anchorage;
    const double d = bar->diameter, low = base.below, high = base.h - in.cover;
    const int levels = int(std::ceil((high - low) / in.set.sideSpacing)) - 1;
    if (levels < 1) return {};
    Laid out;
    auto& i = out.item;
    i.run = "sides", i.bar = bar->name, i.diameter = d, i.number = 2 * levels, i.layer = "sides";
    i.spacing = units::roundDown((high - low) / (levels + 1), 5);
    standards::AnchorageInput lap;
    lap.diameter = d, lap.area = bar->area, lap.fc = in.fc, lap.fy = in.fy;
    lap.stress = anchorage.designYield(in.fy), lap.cd = in.cover, lap.spacing = in.set.sideSpacing;
    if (!base.outline.empty()) return cutSides(in, base, *bar, levels, anchorage.lap(lap));
    const double length = base.B - 2 * in.cover, width = units::roundDown(base.L - 2 * in.cover, 5),
                 leg = units::roundUp(std::min(length, length / 2 + anchorage.lap(lap) / 2), 5);
    i.shape = "21", i.dimensions = {{'A', leg}, {'B', width}, {'C', leg}};
    schedule::cut(i, *bar, anchorage);
    for (int k = 1; k <= levels; ++k)
        for (double way : {-1.0, 1.0}) {
            const double z = low + k * (high - low) / (levels + 1),
                         x = base.centre.x - way * (base.B / 2 - in.cover - d / 2), y = width / 2 - d / 2;
            out.lines.push_back({{x + way * (leg - d / 2), base.centre.y - y, z},
                                 {x, base.centre.y - y, z},
                                 {x, base.centre.y + y, z},
                                 {x + way * (leg - d / 2), base.centre.y + y, z}});
        }
    return {std::move(out)};
}

// Bars of a strap, bent at both ends, and its links.
std::vector<Laid> strap(const Context& in, const Reinforced& base) {
    const auto& s = base.strap;
    if (!s.link) return {};
    std::vector<Laid> all;
    auto at = [&](double along, double across, double z) {
        const double u = s.line.way * along;
        return s.line.axis == 0 ? Point3{base.strapAt.x + u, base.strapAt.y + across, z}
                                : Point3{base.strapAt.x + across, base.strapAt.y + u, z};
    };
    const auto& anchorage = *in.standard->anchorage;
    const double link = s.link->diameter, low = s.under, high = s.depth - in.cover;
    for (bool top : {false, true}) {
        const auto& bars = top ? s.top : s.bottom;
        Laid l;
        auto& i = l.item;
        const double d = bars.bar->diameter, room = high - low - 2 * link;
        i.run = top ? "strap/top" : "strap/bottom", i.bar = bars.bar->name, i.diameter = d;
        i.number = bars.number, i.layer = std::string(top ? "T" : "B") + (s.line.axis == 0 ? "S1" : "S2");
        const double straight = units::roundDown(s.to - s.from - 2 * in.cover, 5),
                     leg = units::roundDown(std::max(std::min(room, 12 * d + 6 * d), 10 * d), 5);
        schedule::shape(i, straight, leg, true, true);
        schedule::cut(i, *bars.bar, anchorage);
        const double z = top ? high - link - d / 2 : low + link + d / 2,
                     end = top ? z + d / 2 - leg : z - d / 2 + leg, x0 = s.from + in.cover + d / 2,
                     x1 = x0 + straight - d, half = s.width / 2 - in.cover - link - d / 2;
        for (int k = 0; k < bars.number; ++k) {
            const double v = half * (2.0 * k / std::max(1, bars.number - 1) - 1);
            l.lines.push_back({at(x0, v, end), at(x0, v, z), at(x1, v, z), at(x1, v, end)});
        }
        all.push_back(std::move(l));
    }
    const double x0 = s.from + in.cover + link / 2, x1 = s.line.length - s.line.farSide / 2;
    const int n = int(std::ceil((x1 - x0) / s.spacing)) + 1;
    // Four legs: a narrower link within each.
    for (double share : s.legs > 2 ? std::vector{1.0, 1.0 / 3} : std::vector{1.0}) {
        Laid l;
        l.item.run = share < 1 ? "strap/inner links" : "strap/links";
        l.item.spacing = s.spacing;
        const double b = share * (s.width - 2 * in.cover), a = high - low;
        closed(l, in, *s.link, n, a, b);
        const double v = b / 2 - link / 2, z0 = low + link / 2, z1 = high - link / 2;
        for (int k = 0; k < n; ++k) {
            const double x = x0 + k * (x1 - x0) / (n - 1);
            l.lines.push_back({at(x, -v, z0), at(x, v, z0), at(x, v, z1), at(x, -v, z1), at(x, -v, z0)});
        }
        all.push_back(std::move(l));
    }
    return all;
}

// Links of a cap: each stands along x, level with the bars along x and between them, about those along y.
std::vector<Laid> capLinks(const Context& in, const Reinforced& base) {
    const auto g = linkGrid(in, base.B, base.L);
    if (!g.bar) return {};
    Laid l;
    l.item.run = "cap links", l.item.spacing = g.apart[1];
    const double d = g.bar->diameter, low = base.below, high = base.h - in.cover,
                 wide = units::roundDown(g.apart[0], 5);
    geometry::Ring room;
    if (!base.outline.empty()) room = geometry::offset(base.outline, -(in.cover + d / 2)).front();
    for (int row = 0; row < g.number[0]; row += 2)
        for (int k = 0; k < g.number[1]; ++k) {
            const double x = base.centre.x + (row + 0.5 - (g.number[0] - 1) / 2.0) * g.apart[0],
                         y = base.centre.y + (k - (g.number[1] - 1) / 2.0) * g.apart[1], u = wide / 2 - d / 2;
            const Point own{x - base.centre.x, y - base.centre.y};
            if (!room.empty() && !(geometry::contains(room, {own.x - u, own.y}) &&
                                   geometry::contains(room, {own.x + u, own.y})))
                continue;
            l.lines.push_back({{x - u, y, low + d / 2},
                               {x + u, y, low + d / 2},
                               {x + u, y, high - d / 2},
                               {x - u, y, high - d / 2},
                               {x - u, y, low + d / 2}});
        }
    closed(l, in, *g.bar, int(l.lines.size()), high - low, wide);
    return {std::move(l)};
}

}  // namespace

std::vector<MatPlace> matPlaces(const Context& in, const geometry::Ring& outline, const Mat& m, int axis) {
    std::vector<MatPlace> all;
    const double d = m.bar->diameter;
    const auto rooms = geometry::offset(outline, -(in.cover + d / 2));
    if (rooms.empty()) return all;
    double far = 0;
    for (Point p : outline) far = std::max(far, std::abs(axis == 0 ? p.y : p.x));
    constexpr double shortest = 500;
    auto place = [&](double v, bool beyond) {
        const auto c = chord(rooms.front(), 1 - axis, v);
        // Ends keep their cover from the middle line on, outside to outside.
        if (c.length() + d >= shortest) all.push_back({v, c.from - d / 2, c.to + d / 2, beyond});
    };
    const double last = (m.number - 1) / 2.0 * m.spacing;
    for (int k = 0; k < m.number; ++k) place(k * m.spacing - last, false);
    for (double v = last + 2 * m.spacing; v < far; v += 2 * m.spacing) place(v, true), place(-v, true);
    return all;
}

LinkGrid linkGrid(const Context& in, double B, double L) {
    LinkGrid g;
    if (in.set.linkBar.empty()) return g;
    g.bar = catalogs::barCatalog(in.basis->barCatalog)->find(in.set.linkBar);
    if (!g.bar) return g;
    for (int axis : {0, 1}) {
        const double room = (axis == 0 ? B : L) - 2 * in.cover - 2 * g.bar->diameter;
        g.number[axis] = std::max(2, int(std::ceil(room / in.set.linkSpacing - 1e-9)) + 1);
        if (axis == 0) g.number[0] += g.number[0] % 2;  // legs stand in pairs along x
        g.apart[axis] = room / (g.number[axis] - 1);
    }
    return g;
}

std::vector<Laid> lay(const Context& in, const Reinforced& base) {
    std::vector<Laid> all;
    for (bool top : {false, true})
        for (int axis : {0, 1}) {
            const Mat& m = (top ? base.top : base.bottom)[std::size_t(axis)];
            if (!m.bar || !m.number || (m.bands && axis == 1)) continue;
            for (auto& l : m.bands ? bands(in, base) : mat(in, base, axis, top)) all.push_back(std::move(l));
        }
    for (const auto& s : base.starters)
        for (auto& l : starters(in, base, s)) all.push_back(std::move(l));
    if (base.sides)
        for (auto& l : sides(in, base)) all.push_back(std::move(l));
    if (base.links)
        for (auto& l : capLinks(in, base)) all.push_back(std::move(l));
    if (base.strap.any())
        for (auto& l : strap(in, base)) all.push_back(std::move(l));
    return all;
}
std::vector<schedule::Item> items(const Context& in, const Reinforced& base) {
    std::vector<schedule::Item> all;
    for (auto& l : lay(in, base)) all.push_back(std::move(l.item));
    return all;
}

}  // namespace talvik::bases
