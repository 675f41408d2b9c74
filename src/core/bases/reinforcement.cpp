#include "bases/reinforcement.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "schedule/cutting.h"

namespace talvik::bases {
namespace {

using geometry::Point;

// Straight bars or bars bent up (at the top: down) at both ends of one mat, side by side.
Laid mat(const Context& in, const Reinforced& base, int axis, bool top) {
    const Mat& m = (top ? base.top : base.bottom)[std::size_t(axis)];
    const double length = axis == 0 ? base.B : base.L, width = axis == 0 ? base.L : base.B;
    Laid out;
    auto& i = out.item;
    i.run = fmt::format("{}/{}", top ? "top" : "bottom", axis == 0 ? "x" : "y");
    i.bar = m.bar->name, i.diameter = m.bar->diameter, i.number = m.number, i.spacing = m.spacing;
    i.layer = fmt::format("{}{}", top ? 'T' : 'B', axis == 0 ? 1 : 2);
    const double straight = units::roundDown(length - 2 * in.cover, 5);
    i.from = -straight / 2, i.to = straight / 2;
    const auto& anchorage = *in.standard->anchorage;
    const double tall = !top && base.edge > 0 ? base.edge : base.h;
    const Mat& outer = (top ? base.top : base.bottom)[0];
    const double inner = axis == 1 && outer.bar ? outer.bar->diameter : 0;
    // Legs rise from their own layer.
    const double depth = units::roundDown(tall - in.cover - (top ? in.cover : base.below) - inner, 5),
                 leg = std::max(depth, schedule::hookLeg(depth, i.diameter, anchorage));
    schedule::shape(i, straight, leg, m.hooked, m.hooked);
    if (m.hooked && leg > depth) i.note = schedule::tilted;
    schedule::cut(i, *m.bar, anchorage);
    const double off = (top ? in.cover : base.below) + inner + i.diameter / 2, z = top ? base.h - off : off;
    // No leg leaves the base, also one that lies tilted.
    const double end = top ? std::max(z - leg, in.cover) : std::min(z + leg, tall - in.cover);
    // At the spacing that is called out, where that has room.
    const double pitch =
        m.number > 1 ? std::min(m.spacing, (width - 2 * in.cover - i.diameter) / (m.number - 1)) : 0;
    for (int k = 0; k < m.number; ++k) {
        const double v = (k - (m.number - 1) / 2.0) * pitch;
        auto at = [&](double u) {
            return axis == 0 ? Point{base.centre.x + u, base.centre.y + v}
                             : Point{base.centre.x + v, base.centre.y + u};
        };
        const Point a = at(i.from), b = at(i.to);
        i.lie.push_back({a, b});
        std::vector<Point3> line;
        // Middle lines: lengths are outside to outside.
        const double short_ = m.hooked ? i.diameter / 2 : 0, ux = axis == 0 ? short_ : 0,
                     uy = axis == 0 ? 0 : short_;
        if (m.hooked) line.push_back({a.x + ux, a.y + uy, end});
        line.push_back({a.x + ux, a.y + uy, z}), line.push_back({b.x - ux, b.y - uy, z});
        if (m.hooked) line.push_back({b.x - ux, b.y - uy, end});
        out.lines.push_back(std::move(line));
    }
    return out;
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
    standards::AnchorageInput lap;
    lap.diameter = d, lap.area = s.bar->area, lap.fc = in.fc, lap.fy = in.fy;
    lap.stress = anchorage.designYield(in.fy), lap.cd = in.cover, lap.spacing = startersApart;
    const double above = units::roundUp(anchorage.lap(lap), 25);
    // Above all concrete about the column: the base with its pedestal, its own strap, and one that ends there.
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
        for (int k = 0; k < s.along[0]; ++k) put(half[0] * (2.0 * k / (s.along[0] - 1) - 1), side * half[1]);
    for (int side : {-1, 1})
        for (int k = 1; k + 1 < s.along[1]; ++k)
            put(side * half[0], half[1] * (2.0 * k / (s.along[1] - 1) - 1));
    if (half[0] < d || half[1] < d) return {std::move(bars)};
    // Three links hold them until the column is there, more along a pedestal.
    const double first = stands + d / 2 + thin->diameter, last = concrete - in.cover;
    const int n = std::max(3, int(std::ceil((last - first) / std::min(300.0, 15 * d))) + 1);
    const double a = 2 * half[0] + d + 2 * thin->diameter, b = 2 * half[1] + d + 2 * thin->diameter;
    l.run = "links";
    closed(links, in, *thin, n, a, b);
    const double x = a / 2 - thin->diameter / 2, y = b / 2 - thin->diameter / 2;
    for (int k = 0; k < n; ++k) {
        const double z = first + k * (last - first) / (n - 1);
        links.lines.push_back({{s.at.x - x, s.at.y - y, z},
                               {s.at.x + x, s.at.y - y, z},
                               {s.at.x + x, s.at.y + y, z},
                               {s.at.x - x, s.at.y + y, z},
                               {s.at.x - x, s.at.y - y, z}});
    }
    return {std::move(bars), std::move(links)};
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
    closed(l, in, *g.bar, g.number[0] * g.number[1] / 2, high - low, wide);
    for (int row = 0; row < g.number[0]; row += 2)
        for (int k = 0; k < g.number[1]; ++k) {
            const double x = base.centre.x + (row + 0.5 - (g.number[0] - 1) / 2.0) * g.apart[0],
                         y = base.centre.y + (k - (g.number[1] - 1) / 2.0) * g.apart[1], u = wide / 2 - d / 2;
            l.lines.push_back({{x - u, y, low + d / 2},
                               {x + u, y, low + d / 2},
                               {x + u, y, high - d / 2},
                               {x - u, y, high - d / 2},
                               {x - u, y, low + d / 2}});
        }
    return {std::move(l)};
}

}  // namespace

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
            if (m.bar && m.number) all.push_back(mat(in, base, axis, top));
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

}  // namespace talvik::bases
