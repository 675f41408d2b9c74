#include "bases/context.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>
#include <tuple>

namespace talvik::bases {

using geometry::Point;

namespace {

std::shared_ptr<const model::Basis> special(const model::BaseSet& set, const model::Basis& basis) {
    auto b = std::make_shared<model::Basis>(basis);
    const auto& m = set.kind == model::BaseSet::Kind::Pads ? basis.foundation : basis.pileCap;
    b->concrete = m.concrete, b->concreteStrength = m.strength, b->concreteDensity = m.density;
    b->steel = m.steel, b->steelYield = m.yield, b->creep = m.creep, b->shrinkage = m.shrinkage;
    b->coverTop = b->coverBottom = b->coverSide = basis.coverFoundation;
    b->mainBars = set.bars;
    return b;
}

}  // namespace

Context::Context(const model::BaseSet& s, const model::Basis& b,
                 std::shared_ptr<const standards::Standard> by)
    : set(s), basis(special(s, b)), standard(std::move(by)), rules(*standard->bases) {
    fc = basis->concreteStrength, fy = basis->steelYield, density = basis->concreteDensity,
    cover = basis->coverBottom, columnCover = b.coverSide;
    for (const auto& c : set.columns) columns_.emplace(c.id, &c);
    std::vector<actions::ActionKind> kinds;
    for (std::size_t i = 0; i < set.cases.size(); ++i) {
        cases_.emplace(set.cases[i].id, i);
        caseNames.push_back(set.cases[i].name);
        kinds.push_back(set.cases[i].kind);
    }
    std::set<std::string> out;
    for (int k = 0; k < states; ++k) {
        auto& all = combinations[std::size_t(k)];
        all = rules.combinations(kinds, BaseState(k), {set.twoFormulas, set.approach});
        if (!set.leftOut.empty())
            std::erase_if(all, [&](const standards::BaseCombination& c) {
                const auto name = c.name(caseNames);
                const bool left =
                    std::find(set.leftOut.begin(), set.leftOut.end(), name) != set.leftOut.end();
                if (left) out.insert(name);
                return left;
            });
    }
    leftOut.assign(out.begin(), out.end());
    choices = bars::barChoices(set.bars, basis->spacingMost, *basis, *standard);
}

const model::BaseColumn* Context::column(const model::Id& id) const {
    const auto found = columns_.find(id);
    return found == columns_.end() ? nullptr : found->second;
}

namespace {

// Whether a rectangle lies within a simple outline; touching is within.
bool holds(const geometry::Ring& site, Point c, double B, double L) {
    const double x0 = c.x - B / 2, x1 = c.x + B / 2, y0 = c.y - L / 2, y1 = c.y + L / 2;
    constexpr double touch = 1e-3;
    if (!geometry::contains(site, c)) return false;
    for (std::size_t i = 0; i < site.size(); ++i) {
        // No side of the site passes through the inside: what is left of it after cutting (Liang and Barsky).
        const Point a = site[i], b = site[(i + 1) % site.size()];
        double from = 0, to = 1;
        const double p[4] = {a.x - b.x, b.x - a.x, a.y - b.y, b.y - a.y},
                     q[4] = {a.x - x0 - touch, x1 - a.x - touch, a.y - y0 - touch, y1 - a.y - touch};
        bool through = true;
        for (int k = 0; k < 4 && through; ++k) {
            if (p[k] == 0)
                through = q[k] > 0;
            else if (p[k] < 0)
                from = std::max(from, q[k] / p[k]);
            else
                to = std::min(to, q[k] / p[k]);
        }
        if (through && from < to) return false;
    }
    return true;
}

}  // namespace

// The nearest place is where the rectangle is free, touches one side or corner of the site, or two.
std::optional<Point> Context::within(Point wish, double B, double L) const {
    const auto& site = set.site;
    if (site.size() < 3 || holds(site, wish, B, L)) return wish;
    struct Line {
        double a, b, c;  // a x + b y = c
    };
    std::vector<Line> lines;
    for (std::size_t i = 0; i < site.size(); ++i) {
        const Point p = site[i], q = site[(i + 1) % site.size()];
        const double l = std::max(1e-9, std::hypot(q.x - p.x, q.y - p.y)), a = (q.y - p.y) / l,
                     b = (p.x - q.x) / l, c = a * p.x + b * p.y,
                     reach = std::abs(a) * B / 2 + std::abs(b) * L / 2;
        lines.push_back({a, b, c - reach}), lines.push_back({a, b, c + reach});
        for (double sign : {-1.0, 1.0})
            lines.push_back({1, 0, p.x + sign * B / 2}), lines.push_back({0, 1, p.y + sign * L / 2});
    }
    std::vector<std::pair<double, Point>> tries;
    auto attempt = [&](Point p) {
        const double x = p.x - wish.x, y = p.y - wish.y;
        tries.push_back({x * x + y * y, p});
    };
    for (std::size_t i = 0; i < lines.size(); ++i) {
        const auto& m = lines[i];
        const double off = m.c - m.a * wish.x - m.b * wish.y;
        attempt({wish.x + m.a * off, wish.y + m.b * off});
        for (std::size_t j = 0; j < i; ++j) {
            const auto& n = lines[j];
            if (const double det = m.a * n.b - m.b * n.a; std::abs(det) > 1e-9)
                attempt({(m.c * n.b - m.b * n.c) / det, (m.a * n.c - m.c * n.a) / det});
        }
    }
    std::sort(tries.begin(), tries.end(), [](const auto& a, const auto& b) {
        return std::tuple(a.first, a.second.x, a.second.y) < std::tuple(b.first, b.second.x, b.second.y);
    });
    for (const auto& [far, p] : tries)
        if (holds(site, p, B, L)) return p;
    return {};
}

std::vector<Forces> Context::actions(const model::BaseColumn& column) const {
    std::vector<Forces> all(set.cases.size());
    for (const auto& a : column.actions)
        if (const auto found = cases_.find(a.loadCase); found != cases_.end())
            all[found->second] = {a.N, a.Hx, a.Hy, a.Mx, a.My};
    return all;
}

Forces combined(const std::vector<Forces>& actions, const std::vector<double>& factors) {
    Forces f;
    for (std::size_t i = 0; i < actions.size(); ++i) {
        const double k = factors[i];
        f.N += k * actions[i].N, f.Hx += k * actions[i].Hx, f.Hy += k * actions[i].Hy;
        f.Mx += k * actions[i].Mx, f.My += k * actions[i].My;
    }
    return f;
}

std::string Mat::text() const {
    if (!bar || !number) return {};
    auto text = fmt::format("{}{} {}-{}", bands ? "3 × " : "", number, bar->name, units::plain(spacing));
    if (beyond > 0) text += fmt::format(" + {} {}-{}", beyond, bar->name, units::plain(2 * spacing));
    return text;
}

Mat mat(const Context& in, const model::Base& base, double width, double area, double most, double largest) {
    // As many as fit at their spacing, about the middle of the width.
    auto numberOf = [&](const catalogs::Bar& bar, double spacing) {
        return std::max(2, int(std::floor((width - 2 * in.cover - bar.diameter) / spacing + 1e-9)) + 1);
    };
    // Bars that stand close are more work: as if they were up to two fifths more steel.
    auto weighed = [](const Mat& m) { return m.area() * (1 + 0.4 * std::max(0.0, 150 - m.spacing) / 150); };
    Mat best;
    if (!base.bar.empty() || base.spacing > 0) {
        for (const auto& c : in.choices) {
            if (!base.bar.empty() && c.bar->name != base.bar) continue;
            if (base.spacing > 0 && std::abs(c.spacing - base.spacing) > 0.5) continue;
            Mat m{c.bar, c.spacing, numberOf(*c.bar, c.spacing)};
            if (best.bar && best.area() >= area && m.area() >= best.area()) continue;
            if (!best.bar || m.area() > best.area() || m.area() >= area) best = m;
        }
        return best;
    }
    for (const auto& c : in.choices) {
        // What a choice gives over the width is at the least its own steel: none that costs more can be
        // better.
        if (best.bar && c.area() * (width - 2 * in.cover - c.bar->diameter) > weighed(best)) break;
        if (c.spacing > most + 1e-9 || c.bar->diameter > largest) continue;
        Mat m{c.bar, c.spacing, numberOf(*c.bar, c.spacing)};
        if (m.area() + 1e-9 < area) continue;
        if (!best.bar || weighed(m) < weighed(best) - 1e-9) best = m;
    }
    return best;
}

}  // namespace talvik::bases
