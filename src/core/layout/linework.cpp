#include "layout/linework.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <optional>
#include <unordered_set>

#include "layout/free_names.h"
#include "layout/grid.h"

namespace talvik::layout {
namespace {

constexpr double meets = 5;  // mm

double hundredth(double x) {
    return std::round(x * 100) / 100 + 0.0;
}

}  // namespace

Point placed(const model::Underlay& u, Point p) {
    double t = u.angle * std::numbers::pi / 180, c = std::cos(t), s = std::sin(t);
    if (u.angle == 0) c = 1, s = 0;
    return {u.at.x + u.scale * (c * p.x - s * p.y), u.at.y + u.scale * (s * p.x + c * p.y)};
}
model::Outline placed(const model::Underlay& u, const model::Outline& corners) {
    model::Outline out;
    for (const auto& c : corners) {
        Point p = placed(u, Point{c.x, c.y});
        out.push_back({p.x, p.y, c.bulge});
    }
    return out;
}

model::Underlay placeAsDrawn(const Linework& work, std::string name) {
    model::Underlay u;
    u.name = std::move(name);
    u.scale = work.unit;
    double x0 = 1e300, y0 = 1e300, far = 0;
    for (const auto& p : work.paths)
        for (const auto& c : p.corners) {
            x0 = std::min(x0, c.x), y0 = std::min(y0, c.y);
            far = std::max({far, std::abs(c.x), std::abs(c.y)});
        }
    if (far * work.unit > 1e6) u.at = {-x0 * work.unit, -y0 * work.unit};
    for (std::size_t i = 0; i < work.layers.size(); ++i)
        if (i < work.offInFile.size() && work.offInFile[i]) u.hidden.push_back(work.layers[i]);
    return u;
}

void placeByTwoPoints(model::Underlay& u, Point a, Point b, Point newA, Point newB) {
    double from = geometry::length(a, b), to = geometry::length(newA, newB);
    if (from < 1e-9 || to < 1e-9) return;
    double turn = std::atan2(newB.y - newA.y, newB.x - newA.x) - std::atan2(b.y - a.y, b.x - a.x),
           k = to / from;
    double c = std::cos(turn), s = std::sin(turn), dx = u.at.x - a.x, dy = u.at.y - a.y;
    u.at = {newA.x + k * (c * dx - s * dy), newA.y + k * (s * dx + c * dy)};
    u.scale *= k;
    u.angle = std::remainder(u.angle + turn * 180 / std::numbers::pi, 360.0);
    if (std::abs(u.angle) < 1e-9) u.angle = 0;
}

namespace {

std::vector<bool> shown(const Linework& work, const model::Underlay& under) {
    std::vector<bool> on(work.layers.size(), true);
    for (std::size_t i = 0; i < on.size(); ++i)
        on[i] = std::find(under.hidden.begin(), under.hidden.end(), work.layers[i]) == under.hidden.end();
    return on;
}
// Straight pieces of a path in plan.
template <class F>
void pieces(const Path& path, const model::Underlay& under, double tolerance, F f) {
    model::Outline o = placed(under, path.corners);
    std::size_t n = o.size();
    for (std::size_t i = 0; i + (path.closed ? 0 : 1) < n; ++i) {
        const auto &a = o[i], &b = o[(i + 1) % n];
        Point last{a.x, a.y};
        for (Point next : geometry::alongArc(last, {b.x, b.y}, a.bulge, tolerance)) {
            f(Segment{last, next});
            last = next;
        }
        if (a.bulge == 0 || a.x != b.x || a.y != b.y) f(Segment{last, {b.x, b.y}});
    }
}

}  // namespace

std::vector<Segment> segments(const Linework& work, const model::Underlay& under) {
    auto on = shown(work, under);
    std::vector<Segment> all;
    for (const auto& p : work.paths)
        if (on[std::size_t(p.layer)]) pieces(p, under, 20, [&](const Segment& s) { all.push_back(s); });
    return all;
}

int pathAt(const Linework& work, const model::Underlay& under, Point p, double tolerance) {
    auto on = shown(work, under);
    int best = -1;
    double least = tolerance;
    for (std::size_t i = 0; i < work.paths.size(); ++i)
        if (on[std::size_t(work.paths[i].layer)])
            pieces(work.paths[i], under, 20, [&](const Segment& s) {
                if (double d = geometry::distance(p, s.a, s.b); d <= least) least = d, best = int(i);
            });
    return best;
}

Joined join(const Linework& work, const model::Underlay& under, const std::vector<int>& which) {
    Joined out;
    struct Chain {
        model::Outline o;  // open: the last corner's bulge means nothing
        bool used = false;
    };
    std::vector<Chain> chains;
    for (int i : which) {
        const Path& p = work.paths[std::size_t(i)];
        model::Outline o = placed(under, p.corners);
        // Corners drawn twice, and a last one on the first.
        model::Outline clean;
        for (const auto& c : o)
            if (clean.empty() || std::hypot(clean.back().x - c.x, clean.back().y - c.y) > 0.6)
                clean.push_back(c);
            else
                clean.back().bulge = c.bulge;
        bool closed = p.closed;
        if (clean.size() > 2 &&
            std::hypot(clean.back().x - clean.front().x, clean.back().y - clean.front().y) < meets)
            clean.pop_back(), closed = true;
        for (auto& c : clean) c.x = hundredth(c.x), c.y = hundredth(c.y);
        bool round = clean.size() == 2 && clean[0].bulge != 0 && clean[1].bulge != 0;
        if (closed && (clean.size() > 2 || round))
            out.closed.push_back(std::move(clean));
        else if (clean.size() > 1)
            chains.push_back({std::move(clean)});
    }
    auto reversed = [](const model::Outline& o) {
        model::Outline r(o.rbegin(), o.rend());
        for (std::size_t i = 0; i + 1 < r.size(); ++i) r[i].bulge = -o[o.size() - 2 - i].bulge;
        r.back().bulge = 0;
        return r;
    };
    auto near = [](const model::Corner& a, const model::Corner& b) {
        return std::hypot(a.x - b.x, a.y - b.y) < meets;
    };
    for (std::size_t i = 0; i < chains.size(); ++i) {
        if (chains[i].used) continue;
        chains[i].used = true;
        model::Outline o = chains[i].o;
        bool closed = false;
        for (bool grown = true; grown && !closed;) {
            grown = false;
            for (auto& next : chains) {
                if (next.used) continue;
                bool flip = near(o.back(), next.o.back());
                if (!flip && !near(o.back(), next.o.front())) {
                    // Or at the other end.
                    if (near(o.front(), next.o.front()) || near(o.front(), next.o.back()))
                        o = reversed(o);
                    else
                        continue;
                    flip = near(o.back(), next.o.back());
                }
                next.used = true;
                model::Outline more = flip ? reversed(next.o) : next.o;
                o.back().bulge = more.front().bulge;
                o.insert(o.end(), more.begin() + 1, more.end());
                grown = true;
                break;
            }
            if (o.size() > 3 && near(o.front(), o.back())) o.pop_back(), closed = true;
        }
        (closed ? out.closed : out.open).push_back(std::move(o));
    }
    return out;
}

namespace {

// The rectangle of a four-sided outline, or the smallest turned one around it along its longest side.
struct Rectangle {
    Point centre;
    double width = 0, depth = 0, angle = 0;  // width along the angle
    bool exact = false;
};
Rectangle rectangleOf(const model::Outline& o) {
    auto r = model::ring(o);
    std::size_t longest = 0;
    double most = -1;
    for (std::size_t i = 0; i < r.size(); ++i)
        if (double d = geometry::length(r[i], r[(i + 1) % r.size()]); d > most + 1e-6) most = d, longest = i;
    Point a = r[longest], b = r[(longest + 1) % r.size()];
    Point e{(b.x - a.x) / most, (b.y - a.y) / most};
    double u0 = 1e300, u1 = -1e300, v0 = 1e300, v1 = -1e300;
    for (Point p : r) {
        double u = p.x * e.x + p.y * e.y, v = -p.x * e.y + p.y * e.x;
        u0 = std::min(u0, u), u1 = std::max(u1, u), v0 = std::min(v0, v), v1 = std::max(v1, v);
    }
    Rectangle out;
    double u = (u0 + u1) / 2, v = (v0 + v1) / 2;
    out.centre = {hundredth(u * e.x - v * e.y), hundredth(u * e.y + v * e.x)};
    out.width = hundredth(u1 - u0), out.depth = hundredth(v1 - v0);
    out.angle = hundredth(std::atan2(e.y, e.x) * 180 / std::numbers::pi);
    // Upright ones have width along x; half turns mean nothing, and a square none beyond a quarter.
    out.angle = std::remainder(out.angle, 180.0);
    if (out.angle == -90) out.angle = 90;
    bool square = std::abs(out.width - out.depth) < 0.05;
    if (square) out.angle = std::remainder(out.angle, 90.0), out.depth = out.width;
    if (std::abs(out.angle) == 45 && square) out.angle = 45;
    if (out.angle == 90) std::swap(out.width, out.depth), out.angle = 0;
    out.angle += 0.0;
    out.exact = std::abs(geometry::area(r) - (u1 - u0) * (v1 - v0)) < 1e-3 * geometry::area(r);
    return out;
}

bool isCircle(const model::Outline& o, Point* centre, double* diameter) {
    for (const auto& c : o)
        if (c.bulge == 0) return false;
    if (o.size() < 2) return false;
    auto r = model::ring(o, 0.05);
    double cx = 0, cy = 0;
    if (o.size() == 2) {
        cx = (o[0].x + o[1].x) / 2, cy = (o[0].y + o[1].y) / 2;
    } else {
        for (Point p : r) cx += p.x / double(r.size()), cy += p.y / double(r.size());
    }
    double least = 1e300, most = 0;
    for (Point p : r) {
        double d = std::hypot(p.x - cx, p.y - cy);
        least = std::min(least, d), most = std::max(most, d);
    }
    if (most - least > 0.01 * most) return false;
    *centre = {hundredth(cx), hundredth(cy)};
    *diameter = hundredth(2 * most);
    return true;
}

// A grid of lines in two directions: the direction of the longest line, and the most frequent other one.
std::optional<model::Grid> gridOf(const std::vector<Segment>& lines) {
    if (lines.size() < 3) return {};
    auto angleOf = [](const Segment& s) {
        double a = std::atan2(s.b.y - s.a.y, s.b.x - s.a.x) * 180 / std::numbers::pi;
        a = std::remainder(a, 180.0);
        return a <= -89.95 ? a + 180 : a;
    };
    std::vector<std::pair<double, double>> angles;  // angle, length in it
    for (const auto& s : lines) {
        bool known = false;
        for (auto& [a, sum] : angles)
            if (std::abs(std::remainder(a - angleOf(s), 180.0)) < 0.1)
                sum += geometry::length(s.a, s.b), known = true;
        if (!known) angles.push_back({angleOf(s), geometry::length(s.a, s.b)});
    }
    std::stable_sort(angles.begin(), angles.end(), [](auto& x, auto& y) { return x.second > y.second; });
    if (angles.size() < 2) return {};
    double a = angles[0].first, b = angles[1].first;
    if (std::abs(a) > std::abs(b)) std::swap(a, b);  // the flatter one first
    double between = std::remainder(b - a, 180.0);
    if (between < 0) between += 180;
    if (between < 20 || between > 160) return {};
    auto unit = [](double degrees) {
        double t = degrees * std::numbers::pi / 180;
        return Point{std::cos(t), std::sin(t)};
    };
    Point e = unit(a), n = unit(a + between);
    double det = e.x * n.y - e.y * n.x;
    // Lines along n stand at u; lines along e at v.
    std::vector<double> us, vs;
    for (const auto& s : lines) {
        Point m{(s.a.x + s.b.x) / 2, (s.a.y + s.b.y) / 2};
        double u = (m.x * n.y - m.y * n.x) / det, v = (e.x * m.y - e.y * m.x) / det, angle = angleOf(s);
        auto put = [](std::vector<double>& list, double x) {
            for (double o : list)
                if (std::abs(o - x) < 50) return;
            list.push_back(x);
        };
        if (std::abs(std::remainder(angle - b, 180.0)) < 0.1)
            put(us, u);
        else if (std::abs(std::remainder(angle - a, 180.0)) < 0.1)
            put(vs, v);
    }
    if (us.size() < 2 || vs.size() < 2) return {};
    std::sort(us.begin(), us.end());
    std::sort(vs.begin(), vs.end());
    model::Grid g;
    g.angle = hundredth(a), g.between = hundredth(between);
    g.origin = {hundredth(us[0] * e.x + vs[0] * n.x), hundredth(us[0] * e.y + vs[0] * n.y)};
    for (std::size_t i = 1; i < us.size(); ++i) g.along.push_back(hundredth(us[i] - us[i - 1]));
    for (std::size_t i = 1; i < vs.size(); ++i) g.across.push_back(hundredth(vs[i] - vs[i - 1]));
    return g;
}

}  // namespace

Ids make(Project& project, Floor& floor, const Linework& work, const model::Underlay& under,
         const std::vector<int>& paths, As as, const model::Id& loadCase, std::vector<std::string>& notes) {
    Ids made;
    if (as == As::Grid) {
        std::vector<Segment> lines;
        for (int i : paths)
            pieces(work.paths[std::size_t(i)], under, 20, [&](const Segment& s) {
                if (geometry::length(s.a, s.b) > 1000) lines.push_back(s);
            });
        if (auto g = gridOf(lines))
            made.push_back(add(project, floor, *g));
        else
            notes.push_back("The lines chosen are no grid: two directions with two lines each are needed.");
        return made;
    }
    // Named here, as there may be very many of them.
    FreeNames names(floor);
    std::unordered_set<std::string> columns;
    for (const auto& c : floor.columns) columns.insert(c.name);
    auto put = [&]<class T>(T m) {
        if constexpr (std::is_same_v<T, model::Column>) {
            if (const auto crossing = crossingAt(floor, {m.x, m.y}, 1); crossing && !columns.contains(*crossing))
                m.name = *crossing, names.take(m.name);
            else
                m.name = names.next(namePrefix<T>());
            columns.insert(m.name);
        } else if constexpr (requires { m.name; }) {
            m.name = names.next(namePrefix<T>());
        }
        made.push_back(add(project, floor, std::move(m)));
    };
    Joined all = join(work, under, paths);
    auto where = [](const model::Outline& o) {
        return fmt::format("({:.2f}, {:.2f}) m", o.front().x / 1000, o.front().y / 1000);
    };
    auto line = [&](Point a, Point b, double width) {
        switch (as) {
            case As::Wall: {
                model::Wall w{"", "", a, b};
                if (width > 0) w.thickness = width;
                put(w);
                break;
            }
            case As::Beam: {
                model::FloorBeam m{"", "", a, b};
                if (width > 0) m.width = width;
                put(m);
                break;
            }
            case As::LineSupport:
                put(model::LineSupport{"", "", a, b});
                break;
            default: {
                model::FloorLoad l;
                l.kind = model::FloorLoad::Kind::Line;
                l.loadCase = loadCase, l.a = a, l.b = b;
                put(l);
            }
        }
    };
    for (const auto& o : all.closed) {
        switch (as) {
            case As::Slab:
                put(model::SlabArea{"", "", o});
                break;
            case As::Zone:
                put(model::Zone{"", "", o});
                break;
            case As::Opening:
                put(model::Opening{"", "", o});
                break;
            case As::AreaLoad: {
                model::FloorLoad l;
                l.loadCase = loadCase, l.outline = o;
                put(l);
                break;
            }
            case As::Column: {
                model::Column c;
                Point at;
                double d = 0;
                if (isCircle(o, &at, &d)) {
                    c.circular = true, c.width = c.depth = d;
                } else {
                    auto r = rectangleOf(o);
                    at = r.centre, c.width = r.width, c.depth = r.depth, c.angle = r.angle;
                    if (!r.exact)
                        notes.push_back("The outline at " + where(o) +
                                        " is no rectangle; the column is the rectangle around it.");
                }
                c.x = at.x, c.y = at.y;
                put(c);
                break;
            }
            default: {
                auto r = rectangleOf(o);
                if (!r.exact || std::min(r.width, r.depth) < 50) {
                    notes.push_back("The outline at " + where(o) + " is no rectangle and was left out.");
                    continue;
                }
                double length = std::max(r.width, r.depth),
                       t = (r.angle + (r.depth > r.width ? 90 : 0)) * std::numbers::pi / 180;
                double c = std::cos(t), s = std::sin(t);
                Point a{hundredth(r.centre.x - length / 2 * c), hundredth(r.centre.y - length / 2 * s)},
                    b{hundredth(r.centre.x + length / 2 * c), hundredth(r.centre.y + length / 2 * s)};
                if (a.x > b.x + 1e-6 || (std::abs(a.x - b.x) <= 1e-6 && a.y > b.y)) std::swap(a, b);
                line(a, b, std::min(r.width, r.depth));
            }
        }
    }
    bool lines = as == As::Wall || as == As::Beam || as == As::LineSupport || as == As::LineLoad;
    for (const auto& o : all.open) {
        if (!lines) {
            notes.push_back(
                fmt::format("The line from {} does not close: {:.0f} mm are missing. It was left out.",
                            where(o), std::hypot(o.back().x - o.front().x, o.back().y - o.front().y)));
            continue;
        }
        for (std::size_t i = 0; i + 1 < o.size(); ++i)
            if (std::hypot(o[i + 1].x - o[i].x, o[i + 1].y - o[i].y) >= 50)
                line({o[i].x, o[i].y}, {o[i + 1].x, o[i + 1].y}, 0);
    }
    return made;
}

}  // namespace talvik::layout
