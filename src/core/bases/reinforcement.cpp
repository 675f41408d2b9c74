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
    const double depth = units::roundDown(base.h - 2 * in.cover, 5),
                 leg = std::max(depth, schedule::hookLeg(depth, i.diameter, anchorage));
    schedule::shape(i, straight, leg, m.hooked, m.hooked);
    if (m.hooked && leg > depth) i.note = schedule::tilted;
    schedule::cut(i, *m.bar, anchorage);
    const Mat& outer = (top ? base.top : base.bottom)[0];
    const double inner = axis == 1 && outer.bar ? outer.bar->diameter : 0;
    const double off = (top ? in.cover : base.below) + inner + i.diameter / 2, z = top ? base.h - off : off;
    // No leg leaves the base, also one that lies tilted.
    const double end = top ? std::max(z - leg, in.cover) : std::min(z + leg, base.h - in.cover);
    const double pitch = m.number > 1 ? (width - 2 * in.cover - i.diameter) / (m.number - 1) : 0;
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
    const double high = units::roundUp(base.h + base.pedestal + above - stands + d / 2, 5),
                 leg = std::max(250.0, schedule::hookLeg(0, d, anchorage));
    i.shape = "11", i.dimensions = {{'A', high}, {'B', leg}};
    schedule::cut(i, *s.bar, anchorage);

    Laid links;
    auto& l = links.item;
    const catalogs::Bar* thin = nullptr;
    for (const auto& b : catalogs::barCatalog(in.basis->barCatalog)->bars)
        if (!thin && b.diameter >= std::max(6.0, d / 4) - 1e-9) thin = &b;
    const double half[2] = {s.sides[0] / 2 - in.cover - thin->diameter - d / 2,
                            s.sides[1] / 2 - in.cover - thin->diameter - d / 2};
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
    const double first = stands + d / 2 + thin->diameter, last = base.h + base.pedestal - in.cover;
    const int n = std::max(3, int(std::ceil((last - first) / std::min(300.0, 15 * d))) + 1);
    const double a = 2 * half[0] + d + 2 * thin->diameter, b = 2 * half[1] + d + 2 * thin->diameter;
    l.run = "links", l.bar = thin->name, l.diameter = thin->diameter, l.number = n, l.layer = "links";
    const double tail =
        units::roundUp(anchorage.bendRadius(l.diameter) + l.diameter + anchorage.hookTail(l.diameter), 5);
    l.shape = "51", l.dimensions = {{'A', units::rounded(a, 4)}, {'B', units::rounded(b, 4)}, {'C', tail}};
    schedule::cut(l, *thin, anchorage);
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

}  // namespace

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
    return all;
}

}  // namespace talvik::bases
