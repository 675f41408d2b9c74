#include "layout/snapping.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "layout/placing.h"

namespace talvik::layout {

const char* word(Catch reason) {
    switch (reason) {
        case Catch::Crossing:
            return "grid crossing";
        case Catch::End:
            return "end";
        case Catch::Centre:
            return "centre";
        case Catch::Intersection:
            return "intersection";
        case Catch::Middle:
            return "middle";
        case Catch::Perpendicular:
            return "perpendicular";
        case Catch::OnGrid:
            return "on grid line";
        case Catch::Edge:
            return "on edge";
    }
    return "";
}

SnapIndex::SnapIndex(const model::Floor& floor, const std::vector<Segment>& below, const model::Id& without) {
    for (const auto& g : floor.grids) {
        for (std::size_t i = 0; i <= g.along.size(); ++i)
            for (std::size_t j = 0; j <= g.across.size(); ++j)
                point(crossing(g, i, j), Catch::Crossing, name(crossingName(g, i, j)));
        for (const auto& l : gridLines(g, 2000)) line(l.line, name(l.label), true);
    }
    const auto names = displayNames(floor);
    model::eachMember(floor, [&](const std::string&, const auto& m) {
        using T = std::decay_t<decltype(m)>;
        if (m.id == without) return;
        if constexpr (std::is_same_v<T, model::Column> || std::is_same_v<T, model::Pile>) {
            int n = name(names.at(m.id));
            point({m.x, m.y}, Catch::Centre, n);
            if constexpr (std::is_same_v<T, model::Column>)
                if (!m.circular) {
                    auto r = footprint(m);
                    for (std::size_t i = 0; i < r.size(); ++i) line({r[i], r[(i + 1) % r.size()]}, n, false);
                    for (Point p : r) point(p, Catch::End, n);
                }
        } else if constexpr (requires { m.outline; }) {
            if (m.outline.empty()) return;
            int n = name(names.at(m.id));
            auto r = model::ring(m.outline);
            for (const auto& c : m.outline) point({c.x, c.y}, Catch::End, n);
            for (std::size_t i = 0; i < m.outline.size(); ++i)
                if (m.outline[i].bulge == 0) {
                    const auto &a = m.outline[i], &b = m.outline[(i + 1) % m.outline.size()];
                    point({(a.x + b.x) / 2, (a.y + b.y) / 2}, Catch::Middle, n);
                }
            for (std::size_t i = 0; i < r.size(); ++i) line({r[i], r[(i + 1) % r.size()]}, n, false);
        } else if constexpr (requires { m.b; }) {
            int n = name(names.at(m.id));
            point(m.a, Catch::End, n);
            point(m.b, Catch::End, n);
            point({(m.a.x + m.b.x) / 2, (m.a.y + m.b.y) / 2}, Catch::Middle, n);
            line({m.a, m.b}, n, false);
        }
    });
    if (!below.empty()) {
        int n = name("the drawing below");
        for (const auto& s : below) {
            point(s.a, Catch::End, n);
            point(s.b, Catch::End, n);
            point({(s.a.x + s.b.x) / 2, (s.a.y + s.b.y) / 2}, Catch::Middle, n);
            line(s, n, false);
        }
    }
    file();
}

int SnapIndex::name(std::string text) {
    names_.push_back(std::move(text));
    return static_cast<int>(names_.size()) - 1;
}
void SnapIndex::point(Point p, Catch reason, int n) {
    points_.push_back({p, reason, n});
}
void SnapIndex::line(Segment s, int n, bool grid) {
    lines_.push_back({s, n, grid});
}
std::int64_t SnapIndex::key(double x, double y) const {
    return static_cast<std::int64_t>(std::floor(x / cell_)) * 4000003 +
           static_cast<std::int64_t>(std::floor(y / cell_));
}
void SnapIndex::file() {
    double x0 = 1e300, x1 = -1e300, y0 = 1e300, y1 = -1e300;
    for (const auto& t : points_)
        x0 = std::min(x0, t.at.x), x1 = std::max(x1, t.at.x), y0 = std::min(y0, t.at.y),
        y1 = std::max(y1, t.at.y);
    cell_ = points_.empty() ? 1000 : std::max({500.0, (x1 - x0) / 200, (y1 - y0) / 200});
    for (std::size_t i = 0; i < points_.size(); ++i)
        pointCells_[key(points_[i].at.x, points_[i].at.y)].push_back(int(i));
    for (std::size_t i = 0; i < lines_.size(); ++i) {
        // Cells along the line, at half a cell's steps, and their neighbours are covered by the search's
        // reach.
        const auto& s = lines_[i].s;
        int steps = std::clamp(int(std::ceil(2 * geometry::length(s.a, s.b) / cell_)), 1, 2000);
        std::int64_t last = 0;
        for (int k = 0; k <= steps; ++k) {
            double u = double(k) / steps;
            std::int64_t at = key(s.a.x + u * (s.b.x - s.a.x), s.a.y + u * (s.b.y - s.a.y));
            if (k == 0 || at != last) lineCells_[at].push_back(int(i));
            last = at;
        }
    }
}

template <class F>
void SnapIndex::near(const std::unordered_map<std::int64_t, std::vector<int>>& cells, Point p, double radius,
                     F f) const {
    // Half a cell more: lines are filed at steps of half a cell.
    int reach = std::min(6, int(std::ceil((radius + cell_ / 2) / cell_)));
    for (int i = -reach; i <= reach; ++i)
        for (int j = -reach; j <= reach; ++j)
            if (auto found = cells.find(key(p.x + i * cell_, p.y + j * cell_)); found != cells.end())
                for (int k : found->second) f(k);
}

std::optional<Snap> SnapIndex::snap(Point p, double radius, std::optional<Point> from) const {
    std::optional<Snap> best;
    double bestScore = 1e300;
    // Points go before lines; among points the nearer wins, with a little preference in the order of Catch.
    auto take = [&](Point at, Catch reason, const std::string& of) {
        double d = geometry::length(p, at);
        if (d > radius) return;
        double score =
            d + radius * (0.12 * static_cast<int>(reason)) + (reason >= Catch::OnGrid ? 10 * radius : 0);
        if (score < bestScore) bestScore = score, best = Snap{at, reason, of};
    };
    near(pointCells_, p, radius, [&](int i) {
        const auto& t = points_[std::size_t(i)];
        take(t.at, t.reason, names_[std::size_t(t.name)]);
    });
    for (Point c : pending_) take(c, Catch::End, "this outline");
    std::vector<int> nearby;
    near(lineCells_, p, radius, [&](int i) {
        if (geometry::distance(p, lines_[std::size_t(i)].s.a, lines_[std::size_t(i)].s.b) <= radius)
            nearby.push_back(i);
    });
    std::sort(nearby.begin(), nearby.end());
    nearby.erase(std::unique(nearby.begin(), nearby.end()), nearby.end());
    if (nearby.size() > 60) nearby.resize(60);
    for (std::size_t a = 0; a < nearby.size(); ++a) {
        const Line& l = lines_[std::size_t(nearby[a])];
        const std::string& of = names_[std::size_t(l.name)];
        take(geometry::nearest(p, l.s.a, l.s.b), l.grid ? Catch::OnGrid : Catch::Edge, of);
        if (from) {
            Point foot = geometry::nearest(*from, l.s.a, l.s.b);
            double dot = (foot.x - from->x) * (l.s.b.x - l.s.a.x) + (foot.y - from->y) * (l.s.b.y - l.s.a.y);
            if (geometry::length(foot, *from) > 1 &&
                std::abs(dot) < 1e-6 * geometry::length(foot, *from) * geometry::length(l.s.a, l.s.b))
                take(foot, Catch::Perpendicular, of);
        }
        for (std::size_t b = a + 1; b < nearby.size(); ++b) {
            const Line& m = lines_[std::size_t(nearby[b])];
            Point at;
            if (l.name != m.name && geometry::cross(l.s.a, l.s.b, m.s.a, m.s.b, &at))
                take(at, Catch::Intersection, of + " and " + names_[std::size_t(m.name)]);
        }
    }
    return best;
}

Point straight(const model::Floor& floor, Point from, Point p) {
    double length = geometry::length(from, p);
    if (length == 0) return p;
    std::vector<double> angles;
    for (int k = 0; k < 4; ++k) angles.push_back(45.0 * k);
    for (const auto& g : floor.grids) angles.insert(angles.end(), {g.angle, g.angle + g.between});
    Point best = p;
    double most = -1;
    for (double degrees : angles) {
        double t = degrees * std::numbers::pi / 180, c = std::cos(t), s = std::sin(t);
        if (std::abs(c) < 1e-12) c = 0;
        if (std::abs(s) < 1e-12) s = 0;
        double along = (p.x - from.x) * c + (p.y - from.y) * s;
        if (std::abs(along) > most) most = std::abs(along), best = {from.x + along * c, from.y + along * s};
    }
    return best;
}

TypedPoint typedPoint(std::string_view text, std::optional<Point> from, Point towards, units::System system) {
    TypedPoint out;
    auto lengthOf = [&](std::string_view part, double& into) {
        auto v = units::parse(part, units::Kind::Span, system);
        if (!v.value) return out.error = v.error, false;
        into = *v.value;
        return true;
    };
    bool relative = !text.empty() && text.front() == '@';
    if (relative) text.remove_prefix(1);
    if (auto comma = text.find(','); comma != std::string_view::npos) {
        double x = 0, y = 0;
        if (!lengthOf(text.substr(0, comma), x) || !lengthOf(text.substr(comma + 1), y)) return out;
        if (relative && !from)
            return {{}, "There is no point yet to measure from; give coordinates without @."};
        out.at = relative ? Point{from->x + x, from->y + y} : Point{x, y};
        return out;
    }
    if (!from) return {{}, "Give the first point by its coordinates, such as 3.2, 4.5, or click it."};
    double length = 0, angle = 0;
    if (auto mark = text.find('<'); mark != std::string_view::npos) {
        if (!lengthOf(text.substr(0, mark), length)) return out;
        auto v = units::parse(text.substr(mark + 1), units::Kind::Angle, system);
        if (!v.value) return {{}, v.error};
        angle = *v.value;
        double t = angle * std::numbers::pi / 180, c = std::cos(t), s = std::sin(t);
        if (std::abs(c) < 1e-12) c = 0;
        if (std::abs(s) < 1e-12) s = 0;
        out.at = {from->x + length * c, from->y + length * s};
        return out;
    }
    if (!lengthOf(text, length)) return out;
    double d = geometry::length(*from, towards);
    if (d < 1e-6) return {{}, "Point in a direction first, or type an angle as well, such as 6.5<90."};
    out.at = {from->x + length * (towards.x - from->x) / d, from->y + length * (towards.y - from->y) / d};
    return out;
}

}  // namespace talvik::layout
