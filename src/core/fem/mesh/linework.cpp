#include <algorithm>
#include <cmath>
#include <map>
#include <unordered_map>

#include "fem/mesh/mesh.h"

namespace talvik::fem {
namespace {

// Points of the plane that are one when nearer than the tolerance; the first comer keeps its place.
class Welder {
  public:
    explicit Welder(double tolerance) : tolerance_(tolerance) {}
    int add(Point p) {
        long cx = cell(p.x), cy = cell(p.y);
        for (long i = cx - 1; i <= cx + 1; ++i)
            for (long j = cy - 1; j <= cy + 1; ++j)
                if (auto found = cells_.find(key(i, j)); found != cells_.end())
                    for (int at : found->second)
                        if (std::hypot(points[at].x - p.x, points[at].y - p.y) <= tolerance_) {
                            if (!(points[at] == p) && ++joined == 1) first = p;
                            return at;
                        }
        points.push_back(p);
        cells_[key(cx, cy)].push_back(int(points.size()) - 1);
        return int(points.size()) - 1;
    }
    std::vector<Point> points;
    int joined = 0;
    Point first{0, 0};  // of those joined

  private:
    long cell(double v) const { return long(std::floor(v / (2 * tolerance_))); }
    static long key(long i, long j) { return i * 73856093L ^ j * 19349663L; }
    double tolerance_;
    std::unordered_map<long, std::vector<int>> cells_;
};

struct Box {
    double x0, y0, x1, y1;
    bool apart(const Box& o, double by) const {
        return x0 > o.x1 + by || o.x0 > x1 + by || y0 > o.y1 + by || o.y0 > y1 + by;
    }
};

}  // namespace

Linework joinLines(const std::vector<MeshTask::Line>& lines, const std::vector<Point>& points,
                   double tolerance, double crossing) {
    Welder weld(tolerance);
    struct Segment {
        int a, b, line;
        Box box;
        std::vector<int> cuts;
    };
    std::vector<Segment> segments;
    Linework work;
    for (std::size_t i = 0; i < lines.size(); ++i) {
        int a = weld.add(lines[i].a), b = weld.add(lines[i].b);
        if (a == b) continue;
        Point p = weld.points[a], q = weld.points[b];
        segments.push_back({a,
                            b,
                            int(i),
                            {std::min(p.x, q.x), std::min(p.y, q.y), std::max(p.x, q.x), std::max(p.y, q.y)},
                            {}});
    }
    for (Point p : points) work.pointOf.push_back(weld.add(p));
    work.joined = weld.joined, work.firstJoined = weld.first;

    // Sweep along x: each pair whose boxes touch.
    const double reach = std::max(tolerance, crossing);
    std::vector<int> order(segments.size());
    for (std::size_t i = 0; i < order.size(); ++i) order[i] = int(i);
    std::stable_sort(order.begin(), order.end(),
                     [&](int i, int j) { return segments[i].box.x0 < segments[j].box.x0; });
    std::vector<char> yields(weld.points.size(), 1);
    for (const Segment& s : segments)
        if (!lines[s.line].yields) yields[s.a] = yields[s.b] = 0;
    for (int p : work.pointOf) yields[p] = 0;
    auto onLine = [&](const Segment& s, int p) {  // cut s at a point that lies on it
        if (p == s.a || p == s.b) return false;
        Point a = weld.points[s.a], b = weld.points[s.b], c = weld.points[p];
        double dx = b.x - a.x, dy = b.y - a.y, length = std::hypot(dx, dy);
        double along = ((c.x - a.x) * dx + (c.y - a.y) * dy) / length;
        double off = std::abs((c.x - a.x) * dy - (c.y - a.y) * dx) / length;
        bool soft = p < int(yields.size()) && yields[p];
        return off <= (soft ? reach : tolerance) && along > 0 && along < length;
    };
    for (std::size_t i = 0; i < order.size(); ++i)
        for (std::size_t j = i + 1; j < order.size(); ++j) {
            Segment &s = segments[order[i]], &t = segments[order[j]];
            if (t.box.x0 > s.box.x1 + reach) break;
            if (s.box.apart(t.box, reach)) continue;
            bool touched = s.a == t.a || s.a == t.b || s.b == t.a || s.b == t.b;
            for (int p : {t.a, t.b})
                if (onLine(s, p)) s.cuts.push_back(p), touched = true;
            for (int p : {s.a, s.b})
                if (onLine(t, p)) t.cuts.push_back(p), touched = true;
            if (touched) continue;
            Point a = weld.points[s.a], b = weld.points[s.b], c = weld.points[t.a], d = weld.points[t.b];
            double den = (b.x - a.x) * (d.y - c.y) - (b.y - a.y) * (d.x - c.x);
            if (den == 0) continue;
            double u = ((c.x - a.x) * (d.y - c.y) - (c.y - a.y) * (d.x - c.x)) / den;
            double v = ((c.x - a.x) * (b.y - a.y) - (c.y - a.y) * (b.x - a.x)) / den;
            if (u <= 0 || u >= 1 || v <= 0 || v >= 1) continue;
            Point at{a.x + u * (b.x - a.x), a.y + u * (b.y - a.y)};
            // Close to an end of one of them, the lines meet at that end: no tiny piece is left over.
            int p = -1;
            double least = reach;
            for (int end : {s.a, s.b, t.a, t.b})
                if (double off = std::hypot(weld.points[end].x - at.x, weld.points[end].y - at.y);
                    off < least)
                    least = off, p = end;
            if (p < 0) p = weld.add(at);
            if (p != s.a && p != s.b) s.cuts.push_back(p);
            if (p != t.a && p != t.b) t.cuts.push_back(p);
        }
    // Single points, and crossings that other lines pass closely.
    std::vector<int> byX(weld.points.size());
    for (std::size_t i = 0; i < byX.size(); ++i) byX[i] = int(i);
    std::stable_sort(byX.begin(), byX.end(),
                     [&](int i, int j) { return weld.points[i].x < weld.points[j].x; });
    for (Segment& s : segments) {
        auto from = std::lower_bound(byX.begin(), byX.end(), s.box.x0 - tolerance,
                                     [&](int i, double x) { return weld.points[i].x < x; });
        for (; from != byX.end() && weld.points[*from].x <= s.box.x1 + tolerance; ++from)
            if (double y = weld.points[*from].y;
                y >= s.box.y0 - tolerance && y <= s.box.y1 + tolerance && onLine(s, *from))
                s.cuts.push_back(*from);
    }

    std::map<std::pair<int, int>, std::size_t> known;
    for (Segment& s : segments) {
        Point a = weld.points[s.a], b = weld.points[s.b];
        auto along = [&](int p) {
            return (weld.points[p].x - a.x) * (b.x - a.x) + (weld.points[p].y - a.y) * (b.y - a.y);
        };
        std::vector<int> stops = s.cuts;
        std::stable_sort(stops.begin(), stops.end(), [&](int i, int j) { return along(i) < along(j); });
        stops.insert(stops.begin(), s.a);
        stops.push_back(s.b);
        stops.erase(std::unique(stops.begin(), stops.end()), stops.end());
        for (std::size_t k = 0; k + 1 < stops.size(); ++k) {
            auto ends = std::minmax(stops[k], stops[k + 1]);
            auto [found, fresh] = known.try_emplace(ends, work.pieces.size());
            if (fresh)
                work.pieces.push_back({stops[k], stops[k + 1], {s.line}});
            else if (work.pieces[found->second].of.back() != s.line)
                work.pieces[found->second].of.push_back(s.line);
        }
    }
    work.points = std::move(weld.points);
    return work;
}

}  // namespace talvik::fem
