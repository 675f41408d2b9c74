#include "layout/panels.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <unordered_map>

namespace talvik::layout {
namespace {

constexpr double onLine = 20;  // mm: how far a boundary may lie off what supports it
constexpr double overhang =
    1200;  // mm: narrower strips beyond a line of supports belong to the panel beside them
constexpr double closeBy = 300;    // mm: an edge so near to a support bounds no panel
constexpr double sideways = 0.45;  // of the distance: how far off its line a neighbouring column may stand

struct LineOfSupport {
    Segment s;
    double half = 0;  // of its width
    bool columns = false;
    bool ends = false;  // from a column to the slab's edge: bounds a panel, carries nothing
    int rank() const { return int(columns) + int(ends); }
};

class Finder {
  public:
    explicit Finder(const model::Floor& floor) : f_(floor) {
        if (!f_.grids.empty()) {
            angle_[0] = f_.grids.front().angle;
            angle_[1] = f_.grids.front().angle + f_.grids.front().between;
        } else if (f_.strips.rules.ownAngles) {
            angle_[0] = f_.strips.rules.angle[0], angle_[1] = f_.strips.rules.angle[1];
        }
        for (int k = 0; k < 2; ++k) {
            double t = angle_[k] * std::numbers::pi / 180;
            e_[k] = {std::cos(t), std::sin(t)};
        }
        for (const auto& s : f_.slabs) slabs_.push_back(model::ring(s.outline));
    }

    std::vector<Panel> run() {
        if (slabs_.empty()) return {};
        gather();
        if (lines_.empty()) return {};
        file();
        std::vector<Segment> all;
        for (const auto& r : slabs_)
            for (std::size_t i = 0; i < r.size(); ++i) all.push_back({r[i], r[(i + 1) % r.size()]});
        for (const auto& l : lines_) all.push_back(l.s);
        all.insert(all.end(), dividers_.begin(), dividers_.end());
        std::vector<Panel> panels;
        std::vector<geometry::Ring> strips;
        for (auto& face : geometry::faces(all)) {
            int slab = slabAt(inner(face));
            if (slab < 0) continue;
            if (narrow(face)) {
                strips.push_back(std::move(face));
                continue;
            }
            Panel p;
            p.thickness = f_.slabs[std::size_t(slab)].thickness;
            p.outline = std::move(face);
            p.parts = {p.outline};
            panels.push_back(std::move(p));
        }
        if (panels.empty()) return {};
        giveStrips(panels, strips);
        for (auto& p : panels) describe(p);
        order(panels);
        return panels;
    }

  private:
    const model::Floor& f_;
    double angle_[2] = {0, 90};
    Point e_[2];
    std::vector<geometry::Ring> slabs_;
    std::vector<LineOfSupport> lines_;
    std::size_t members_ = 0;  // the first of them: walls, beams, line supports
    std::vector<Segment>
        dividers_;  // from supports to an edge close by: what overhangs there goes to either side

    // Lines by the cells they pass, so that what supports a point is found without looking at all of them.
    static constexpr double cell = 4000;
    std::unordered_map<std::int64_t, std::vector<int>> cells_;
    static std::int64_t key(Point p, int dx = 0, int dy = 0) {
        return (static_cast<std::int64_t>(std::floor(p.x / cell)) + dx) * 4000037 +
               static_cast<std::int64_t>(std::floor(p.y / cell)) + dy;
    }
    void file() {
        for (std::size_t i = 0; i < lines_.size(); ++i) {
            const auto& s = lines_[i].s;
            int steps = std::max(1, int(std::ceil(geometry::length(s.a, s.b) / (cell / 2))));
            for (int k = 0; k <= steps; ++k) {
                double u = double(k) / steps;
                Point p{s.a.x + u * (s.b.x - s.a.x), s.a.y + u * (s.b.y - s.a.y)};
                for (int dx : {-1, 0, 1})
                    for (int dy : {-1, 0, 1})
                        if (auto& list = cells_[key(p, dx, dy)]; list.empty() || list.back() != int(i))
                            list.push_back(int(i));
            }
        }
    }

    int slabAt(Point p) const {
        for (std::size_t i = 0; i < slabs_.size(); ++i)
            if (geometry::contains(slabs_[i], p)) return int(i);
        return -1;
    }
    static double along(Point p, Point e) { return p.x * e.x + p.y * e.y; }

    void gather() {
        for (const auto& w : f_.walls) lines_.push_back({{w.a, w.b}, w.thickness / 2, false});
        for (const auto& b : f_.beams) lines_.push_back({{b.a, b.b}, b.width / 2, false});
        for (const auto& l : f_.edges) lines_.push_back({{l.a, l.b}, 0, false});
        for (const auto& l : lines_)
            for (auto [a, b] : {std::pair(l.s.a, l.s.b), {l.s.b, l.s.a}})
                if (const double L = geometry::length(a, b); L > 1)
                    divide(b, {(b.x - a.x) / L, (b.y - a.y) / L});
        std::vector<Point> points;
        for (const auto& c : f_.columns)
            if (c.below) points.push_back({c.x, c.y});
        for (const auto& q : f_.piles) points.push_back({q.x, q.y});
        members_ = lines_.size();
        for (const Point& p : points)
            for (int k = 0; k < 2; ++k)
                for (double sign : {1.0, -1.0})
                    reachOut(p, {sign * e_[k].x, sign * e_[k].y}, {sign * e_[1 - k].x, sign * e_[1 - k].y},
                             points);
    }
    // Whether a wall or beam runs through a point, more across a direction than along it.
    bool onMember(Point p, Point e) const {
        for (std::size_t i = 0; i < members_; ++i) {
            const auto& s = lines_[i].s;
            const double L = geometry::length(s.a, s.b);
            if (L > 1 && geometry::distance(p, s.a, s.b) < onLine &&
                std::abs((s.b.x - s.a.x) * e.x + (s.b.y - s.a.y) * e.y) < 0.7 * L)
                return true;
        }
        return false;
    }
    // Whether someone who goes from a point meets a wall or beam before the slab's edge.
    bool memberBeyond(Point p, Point e) const {
        const Point far{p.x + 25000 * e.x, p.y + 25000 * e.y};
        double edge = 1e300, member = 1e300;
        Point at;
        for (const auto& r : slabs_)
            for (std::size_t i = 0; i < r.size(); ++i)
                if (geometry::cross(p, far, r[i], r[(i + 1) % r.size()], &at))
                    edge = std::min(edge, geometry::length(p, at));
        for (std::size_t i = 0; i < members_; ++i)
            if (geometry::cross(p, far, lines_[i].s.a, lines_[i].s.b, &at))
                member = std::min(member, geometry::length(p, at));
        return member <= edge + closeBy && member < 1e299;
    }
    // Whether a line would only divide a panel that walls or beams hold on all sides: from one that crosses
    // it to another, with one more on either side.
    bool insideMembers(Point p, Point q, Point e, Point side) const {
        const Point mid{(p.x + q.x) / 2, (p.y + q.y) / 2};
        return onMember(p, e) && onMember(q, e) && memberBeyond(mid, side) &&
               memberBeyond(mid, {-side.x, -side.y});
    }
    void divide(Point p, Point e) {
        const Point far{p.x + closeBy * e.x, p.y + closeBy * e.y};
        double least = 1e300;
        for (const auto& r : slabs_)
            for (std::size_t i = 0; i < r.size(); ++i)
                if (Point at; geometry::cross(p, far, r[i], r[(i + 1) % r.size()], &at))
                    least = std::min(least, geometry::length(p, at));
        // A little beyond, so that the faces close.
        if (least > 1 && least <= closeBy)
            dividers_.push_back({p, {p.x + (least + 1) * e.x, p.y + (least + 1) * e.y}});
    }
    // The line from a column to its neighbour in a direction: another column, else the next line of support
    // or the slab's edge.
    void reachOut(Point p, Point e, Point side, const std::vector<Point>& points) {
        const Point* next = nullptr;
        double least = 1e300;
        for (const Point& q : points) {
            double u = (q.x - p.x) * e.x + (q.y - p.y) * e.y,
                   v = std::abs((q.y - p.y) * e.x - (q.x - p.x) * e.y);
            if (u < 500 || v > sideways * u || u > 25000) continue;
            if (u + 2 * v < least) least = u + 2 * v, next = &q;
        }
        Point far{p.x + 25000 * e.x, p.y + 25000 * e.y};
        double stop = 25000;
        auto block = [&](Point a, Point b) {
            Point at;
            if (!geometry::cross(p, far, a, b, &at)) return;
            double u = geometry::length(p, at);
            if (u > closeBy) stop = std::min(stop, u);
        };
        for (const auto& r : slabs_)
            for (std::size_t i = 0; i < r.size(); ++i) block(r[i], r[(i + 1) % r.size()]);
        divide(p, e);
        if (next && geometry::length(p, *next) <= stop * 1.02 + 600) {
            if (!insideMembers(p, *next, e, side)) lines_.push_back({{p, *next}, 0, true});
            return;
        }
        // A wall or beam on the way ends it.
        bool edge = true;
        for (std::size_t i = 0; i < members_; ++i)
            if (Point at; geometry::cross(p, far, lines_[i].s.a, lines_[i].s.b, &at))
                if (const double u = geometry::length(p, at); u > closeBy && u < stop) stop = u, edge = false;
        if (stop >= 25000) return;
        // A little beyond, so that the faces close.
        const Point to{p.x + (stop + 1) * e.x, p.y + (stop + 1) * e.y};
        if (edge || !insideMembers(p, to, e, side)) lines_.push_back({{p, to}, 0, true, edge});
    }

    // Too narrow to be a panel: an overhang beyond a line of supports, or what is left between two such
    // lines.
    bool narrow(const geometry::Ring& face) const {
        double perimeter = 0;
        bool free = false;
        for (std::size_t i = 0; i < face.size(); ++i) {
            Point a = face[i], b = face[(i + 1) % face.size()];
            double L = geometry::length(a, b);
            perimeter += L;
            if (L > 50) free = free || !supportAt({(a.x + b.x) / 2, (a.y + b.y) / 2});
        }
        return 2 * geometry::area(face) / perimeter < (free ? 0.75 : 0.5) * overhang;
    }
    static Point inner(const geometry::Ring& r) {
        // The middle of the widest piece of a line across the face, which lies inside even where the centroid
        // does not.
        double y0 = 1e300, y1 = -1e300;
        for (Point p : r) y0 = std::min(y0, p.y), y1 = std::max(y1, p.y);
        double y = y0 + 0.487 * (y1 - y0);
        std::vector<double> xs;
        for (std::size_t i = 0; i < r.size(); ++i) {
            Point a = r[i], b = r[(i + 1) % r.size()];
            if ((a.y > y) != (b.y > y)) xs.push_back(a.x + (y - a.y) / (b.y - a.y) * (b.x - a.x));
        }
        std::sort(xs.begin(), xs.end());
        Point best = r.front();
        double wide = -1;
        for (std::size_t i = 0; i + 1 < xs.size(); i += 2)
            if (xs[i + 1] - xs[i] > wide) wide = xs[i + 1] - xs[i], best = {(xs[i] + xs[i + 1]) / 2, y};
        return best;
    }

    static double common(const geometry::Ring& a, const geometry::Ring& b) {
        double sum = 0;
        for (std::size_t i = 0; i < a.size(); ++i) {
            Point p = a[i], q = a[(i + 1) % a.size()];
            double L = geometry::length(p, q);
            constexpr int parts = 24;
            for (int k = 0; k < parts; ++k) {
                double u = (k + 0.5) / parts;
                if (geometry::distanceToEdge(b, {p.x + u * (q.x - p.x), p.y + u * (q.y - p.y)}) < 2)
                    sum += L / parts;
            }
        }
        return sum;
    }
    struct Extent {
        double x0 = 1e300, x1 = -1e300, y0 = 1e300, y1 = -1e300;
        explicit Extent(const geometry::Ring& r) {
            for (Point p : r)
                x0 = std::min(x0, p.x), x1 = std::max(x1, p.x), y0 = std::min(y0, p.y),
                y1 = std::max(y1, p.y);
        }
        bool touches(const Extent& o) const {
            return x0 <= o.x1 + 5 && o.x0 <= x1 + 5 && y0 <= o.y1 + 5 && o.y0 <= y1 + 5;
        }
    };
    // Each strip goes to the panel, or to the strip already given away, with which it shares most of its
    // edge.
    static void giveStrips(std::vector<Panel>& panels, const std::vector<geometry::Ring>& strips) {
        struct Best {
            double shared = 0;
            std::size_t panel = 0;
        };
        std::vector<Best> best(strips.size());
        std::vector<bool> given(strips.size(), false);
        std::vector<Extent> extents;
        for (const auto& r : strips) extents.emplace_back(r);
        auto offer = [&](const geometry::Ring& part, std::size_t panel) {
            Extent e(part);
            for (std::size_t k = 0; k < strips.size(); ++k)
                if (!given[k] && extents[k].touches(e))
                    if (double c = common(strips[k], part); c > best[k].shared) best[k] = {c, panel};
        };
        for (std::size_t p = 0; p < panels.size(); ++p) offer(panels[p].outline, p);
        for (;;) {
            std::size_t next = strips.size();
            for (std::size_t k = 0; k < strips.size(); ++k)
                if (!given[k] && best[k].shared > 0 &&
                    (next == strips.size() || best[k].shared > best[next].shared))
                    next = k;
            if (next == strips.size()) return;
            given[next] = true;
            panels[best[next].panel].parts.push_back(strips[next]);
            offer(strips[next], best[next].panel);
        }
    }

    // What supports the boundary at a point, or bounds it, the best first.
    const LineOfSupport* supportAt(Point p) const {
        const LineOfSupport* found = nullptr;
        auto near = cells_.find(key(p));
        if (near == cells_.end()) return nullptr;
        for (int i : near->second)
            if (const auto& l = lines_[std::size_t(i)];
                geometry::distance(p, l.s.a, l.s.b) < onLine && (!found || l.rank() < found->rank()))
                found = &l;
        return found;
    }
    // Half the size, in a direction, of the columns at the ends of a line.
    double halfColumn(const LineOfSupport& l, Point e) const {
        double half = 0;
        for (const auto& c : f_.columns)
            for (Point p : {l.s.a, l.s.b})
                if (c.below && geometry::length({c.x, c.y}, p) < 1) {
                    double reach = 0;
                    for (Point q : footprint(c))
                        reach = std::max(reach, std::abs((q.x - c.x) * e.x + (q.y - c.y) * e.y));
                    half = std::max(half, c.circular ? c.width / 2 : reach);
                }
        return half;
    }

    void describe(Panel& p) const {
        p.centre = inner(p.outline);
        double area = 0, cx = 0, cy = 0;
        const auto& r = p.outline;
        for (std::size_t i = 0; i < r.size(); ++i) {
            Point a = r[i], b = r[(i + 1) % r.size()];
            double w = a.x * b.y - b.x * a.y;
            area += w / 2, cx += (a.x + b.x) * w / 6, cy += (a.y + b.y) * w / 6;
        }
        if (Point c{cx / area, cy / area}; geometry::contains(r, c)) p.centre = c;
        for (int k = 0; k < 2; ++k) {
            auto& s = p.spans[k];
            s.angle = angle_[k];
            s.length = s.clear = 0;
            for (int end = 0; end < 2; ++end) {
                Point e = end ? e_[k] : Point{-e_[k].x, -e_[k].y};
                Point far{p.centre.x + 1e5 * e.x, p.centre.y + 1e5 * e.y}, at = p.centre;
                double reach = 1e300;
                for (std::size_t i = 0; i < r.size(); ++i)
                    if (Point c; geometry::cross(p.centre, far, r[i], r[(i + 1) % r.size()], &c))
                        if (double d = geometry::length(p.centre, c); d > 1 && d < reach) reach = d, at = c;
                if (reach > 1e299) continue;
                const auto* support = supportAt(at);
                const bool held = support && !support->ends;
                s.ends[end] = !held ? SideKind::Free : support->columns ? SideKind::Columns : SideKind::Line;
                double half = !held ? 0 : support->columns ? halfColumn(*support, e_[k]) : support->half;
                s.continuous[end] = support && slabAt({at.x + overhang * e.x, at.y + overhang * e.y}) >= 0;
                s.length += reach;
                s.clear += reach - std::min(half, reach);
            }
        }
        judge(p);
        for (const auto& choice : f_.panels) {
            if (!geometry::contains(r, choice.at)) continue;
            bool oneWay = choice.span == model::PanelChoice::Span::OneWay;
            p.chosen = true;
            p.differs = oneWay != p.oneWay ||
                        (oneWay && std::abs(std::remainder(choice.angle - p.direction, 180.0)) > 0.5);
            p.reason = (p.differs ? "set by hand; its sides say " +
                                        std::string(p.oneWay ? "one-way" : "two-way") + ": " + p.reason
                                  : "set by hand, as its sides say: " + p.reason);
            p.oneWay = oneWay;
            p.direction = oneWay ? choice.angle : 0;
        }
    }
    static void judge(Panel& p) {
        const auto &a = p.spans[0], &b = p.spans[1];
        auto lines = [](const Panel::Span& s) {
            return int(s.ends[0] == SideKind::Line) + int(s.ends[1] == SideKind::Line);
        };
        auto free = [](const Panel::Span& s) {
            return int(s.ends[0] == SideKind::Free) + int(s.ends[1] == SideKind::Free);
        };
        double ratio = std::max(a.clear, b.clear) / std::max(1.0, std::min(a.clear, b.clear));
        auto oneWay = [&](const Panel::Span& s, std::string why) {
            p.oneWay = true, p.direction = s.angle, p.reason = std::move(why);
        };
        if (free(a) + free(b) == 4) {
            p.reason = "supported along none of its sides";
        } else if (lines(a) == 2 && lines(b) == 2) {
            if (ratio > 2)
                oneWay(a.clear <= b.clear ? a : b,
                       fmt::format("supported on four sides, the longer clear span {:.2f} times the shorter",
                                   ratio));
            else
                p.reason = fmt::format(
                    "supported on four sides, the longer clear span {:.2f} times the shorter", ratio);
        } else if (lines(a) == 2 && lines(b) == 0) {
            oneWay(a, "supported along two opposite sides only");
        } else if (lines(b) == 2 && lines(a) == 0) {
            oneWay(b, "supported along two opposite sides only");
        } else if (free(a) + free(b) == 3) {
            oneWay(free(a) == 1 ? a : b, "supported on one side only: a cantilever");
        } else if (lines(a) + lines(b) == 0) {
            p.reason = "on columns: the whole load is carried in both directions";
        } else {
            p.reason = "supported on sides that meet, or on columns";
        }
    }

    void order(std::vector<Panel>& panels) const {
        // Strips: centres that lie closer than half of the lesser span count as one row.
        auto cluster = [&](int k, int Panel::*into) {
            std::vector<std::size_t> at(panels.size());
            for (std::size_t i = 0; i < at.size(); ++i) at[i] = i;
            std::stable_sort(at.begin(), at.end(), [&](std::size_t x, std::size_t y) {
                return along(panels[x].centre, e_[k]) < along(panels[y].centre, e_[k]);
            });
            int row = 0;
            double first = 0;
            for (std::size_t i = 0; i < at.size(); ++i) {
                double v = along(panels[at[i]].centre, e_[k]);
                if (i > 0 && v - first > 0.4 * panels[at[i]].spans[k].length) ++row, first = v;
                if (i == 0) first = v;
                panels[at[i]].*into = row;
            }
        };
        cluster(0, &Panel::column);
        cluster(1, &Panel::row);
        std::stable_sort(panels.begin(), panels.end(), [&](const Panel& x, const Panel& y) {
            return x.row != y.row ? x.row < y.row : along(x.centre, e_[0]) < along(y.centre, e_[0]);
        });
        for (std::size_t i = 0; i < panels.size(); ++i) {
            panels[i].chequer = (panels[i].row + panels[i].column) % 2;
            panels[i].name = name(panels[i], i);
        }
        // The same name twice would mislead.
        for (std::size_t i = 0; i < panels.size(); ++i)
            for (std::size_t k = 0, n = 1; k < i; ++k)
                if (panels[k].name == panels[i].name) panels[i].name += fmt::format(" ({})", ++n);
    }
    std::string name(const Panel& p, std::size_t index) const {
        if (f_.grids.empty()) return "P" + std::to_string(index + 1);
        const auto& g = f_.grids.front();
        double det = e_[0].x * e_[1].y - e_[0].y * e_[1].x;
        Point d{p.centre.x - g.origin.x, p.centre.y - g.origin.y};
        double u = (d.x * e_[1].y - d.y * e_[1].x) / det, v = (e_[0].x * d.y - e_[0].y * d.x) / det;
        auto between = [&](const std::vector<double>& spacings, double at, bool alongIt) {
            auto xs = positions(spacings);
            std::size_t i = 0;
            while (i + 1 < xs.size() && xs[i + 1] < at) ++i;
            if (at < 0) return "before " + label(g, alongIt, 0);
            if (i + 1 == xs.size()) return "after " + label(g, alongIt, i);
            return label(g, alongIt, i) + "–" + label(g, alongIt, i + 1);
        };
        return between(g.across, v, false) + "/" + between(g.along, u, true);
    }
};

}  // namespace

std::vector<Panel> findPanels(const model::Floor& floor) {
    return Finder(floor).run();
}

void choosePanels(model::Project& project, model::Floor& floor, const std::vector<Panel>& panels,
                  const std::vector<std::size_t>& which, std::optional<model::PanelChoice> choice) {
    for (std::size_t i : which) {
        if (i >= panels.size()) continue;
        std::erase_if(floor.panels,
                      [&](const auto& c) { return geometry::contains(panels[i].outline, c.at); });
        if (!choice) continue;
        model::PanelChoice c = *choice;
        c.id = newId(project, 'k');
        c.at = panels[i].centre;
        floor.panels.push_back(c);
    }
}

void setCamber(model::Project& project, model::Floor& floor, const std::vector<Panel>& panels,
               const std::vector<std::size_t>& which, double rise) {
    for (std::size_t i : which) {
        if (i >= panels.size()) continue;
        std::erase_if(floor.cambers,
                      [&](const auto& c) { return geometry::contains(panels[i].outline, c.at); });
        if (rise > 0) floor.cambers.push_back({newId(project, 'k'), panels[i].centre, rise});
    }
}
double camberOf(const model::Floor& floor, const Panel& panel) {
    for (const auto& c : floor.cambers)
        if (geometry::contains(panel.outline, c.at)) return c.rise;
    return 0;
}

}  // namespace talvik::layout
