#include "strips/strip_layout.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <numbers>
#include <optional>

#include "layout/grid.h"

namespace talvik::strips {
namespace {

constexpr double parallel = 20;  // degrees: members closer than this to the direction run along it
constexpr double drift = 0.36;   // sideways per length: how far a line may turn from one support to the next
constexpr double longestLink = 25000;
constexpr double shortOverhang = 300;  // beyond a support's face: not a cantilever yet
constexpr double far = 1e7;

double degrees(double a) {
    return a * 180 / std::numbers::pi;
}
// Between two lines, 0 to 90.
double angleBetween(double a, double b) {
    double d = std::fmod(std::abs(a - b), 180);
    return std::min(d, 180 - d);
}

// Something that holds the slab, in the axes of a direction.
struct Element {
    Id id;
    std::string name;
    Support::Kind kind = Support::Kind::Column;
    Point a, b;         // local, a.x <= b.x; the same for columns
    Point at;           // plan
    double half = 0;    // of its size along the strip (columns) or of its thickness
    double across = 0;  // of a column, across the strip
    bool column() const { return kind == Support::Kind::Column; }
    double vAt(double u) const {
        return b.x - a.x > 1e-9 ? a.y + (b.y - a.y) * std::clamp((u - a.x) / (b.x - a.x), 0.0, 1.0) : a.y;
    }
};

// A line of supports under construction.
struct Line {
    SupportLine out;
    std::vector<Support> supports;  // u ascending; those on the line and those that cross it
    bool beam = false, wall = false, columns = false;  // what runs along it or stands on it by itself
    double first = 0, last = 0;                        // u of its own supports
    double start() const { return out.points.front().x; }
    double end() const { return out.points.back().x; }
    double v(double u) const {
        const auto& p = out.points;
        if (u <= p.front().x) return p.front().y;
        auto right =
            std::upper_bound(p.begin(), p.end(), u, [](double x, const Point& q) { return x < q.x; });
        if (right == p.end()) return p.back().y;
        auto left = right - 1;
        return left->y + (right->y - left->y) * (u - left->x) / (right->x - left->x);
    }
    // The span in which u lies, or the one nearest.
    double spanAt(double u) const {
        if (supports.size() < 2) return end() - start();
        std::size_t i = 1;
        while (i + 1 < supports.size() && supports[i].u < u) ++i;
        return supports[i].u - supports[i - 1].u;
    }
};

bool smaller(const Id& a, const Id& b) {
    return std::tuple(a.size(), a) < std::tuple(b.size(), b);
}

// Boundaries of one strip over a stretch of u: lower and upper v at both ends.
struct Stretch {
    double a, b, low[2], high[2];
};

// What the strips of one area and direction are made of.
class Layer {
  public:
    // `lines`: whether lines of supports are sought, or only what could be on them.
    Layer(const model::Floor& floor, const ColumnStripHalf& half, int direction, double angle, double other,
          std::vector<Ring> domain, std::vector<Ring> cutters, std::string prefix, bool lines = true)
        : f_(floor),
          half_(half),
          direction_(direction),
          axes_(angle),
          other_(other),
          domain_(std::move(domain)),
          cutters_(std::move(cutters)),
          prefix_(std::move(prefix)) {
        for (const auto& ring : domain_) {
            Ring local;
            for (Point p : ring) local.push_back(axes_.local(p));
            local_.push_back(std::move(local));
        }
        low_ = {far, far}, high_ = {-far, -far};
        for (const auto& r : local_)
            for (Point p : r) {
                low_ = {std::min(low_.x, p.x), std::min(low_.y, p.y)};
                high_ = {std::max(high_.x, p.x), std::max(high_.y, p.y)};
            }
        gather();
        if (!lines) return;
        link();
        for (auto& l : lines_) extend(l);
        auto middle = [](const Line& l) { return l.v((l.first + l.last) / 2); };
        std::stable_sort(lines_.begin(), lines_.end(),
                         [&](const Line& a, const Line& b) { return middle(a) < middle(b); });
        nameLines();
        for (auto& l : lines_) l.supports = supportsOf(l);
    }

    const std::vector<Line>& lines() const { return lines_; }
    const Axes& axes() const { return axes_; }

    std::vector<Strip> strips() {
        if (lines_.empty())
            whole();
        else
            sweep();
        std::vector<Strip> all;
        for (const auto& key : order_) {
            Strip& s = made_.at(key);
            s.parts = partsOf(stretches_.at(key));
            if (s.parts.empty()) continue;
            all.push_back(std::move(s));
        }
        return all;
    }

    // Supports of any strip of this direction with its own axis.
    void place(Strip& s, const Layer* crossing) const {
        extent(s);
        if (s.supports.empty() && (s.kind == Strip::Kind::Column || s.kind == Strip::Kind::Full)) {
            for (const auto& l : lines_)
                if (prefix_ + l.out.id == s.line) s.supports = l.supports;
        } else if (s.supports.empty()) {
            s.supports = s.kind == Strip::Kind::Middle ? between(s) : within(s);
        }
        std::erase_if(s.supports, [&](const Support& p) { return p.to < s.from - 1 || p.from > s.to + 1; });
        if (s.supports.size() < 2 && crossing) {
            for (auto& p : crossings(s, *crossing)) s.supports.push_back(std::move(p));
            join(s.supports);
        }
        spans(s);
    }

  private:
    const model::Floor& f_;
    const ColumnStripHalf& half_;
    int direction_;
    Axes axes_;
    double other_;
    std::vector<Ring> domain_, cutters_, local_;
    std::string prefix_;
    Point low_, high_;
    std::vector<Element> elements_;  // along the direction, and columns
    std::vector<Element> across_;    // members that cross it
    std::vector<Line> lines_;
    std::map<std::string, Strip> made_;
    std::map<std::string, std::vector<Stretch>> stretches_;
    std::vector<std::string> order_;

    bool inside(Point local, double tolerance = 400) const {
        for (const auto& r : local_)
            if (geometry::contains(r, local) || geometry::distanceToEdge(r, local) < tolerance) return true;
        return false;
    }

    void gather() {
        auto column = [&](const auto& c, double width, double depth, double angle, const std::string& name) {
            Element e{c.id, name, Support::Kind::Column, axes_.local({c.x, c.y}), {}, {c.x, c.y}};
            e.b = e.a;
            if (!inside(e.a)) return;
            double t = (angle - axes_.angle) * std::numbers::pi / 180, ct = std::abs(std::cos(t)),
                   st = std::abs(std::sin(t));
            e.half = (width * ct + depth * st) / 2;
            e.across = width * st + depth * ct;
            elements_.push_back(e);
        };
        bool raft = !f_.grounds.empty() || !f_.piles.empty();
        for (const auto& c : f_.columns) {
            if (!c.below && !raft) continue;
            double square = c.width * std::sqrt(std::numbers::pi) / 2;  // of equal area
            column(c, c.circular ? square : c.width, c.circular ? square : c.depth,
                   c.circular ? axes_.angle : c.angle, c.name.empty() ? c.id : c.name);
        }
        for (const auto& p : f_.piles) {
            double square = p.diameter * std::sqrt(std::numbers::pi) / 2;
            column(p, square, square, axes_.angle, p.name.empty() ? p.id : p.name);
        }
        auto segment = [&](const auto& m, double thickness, Support::Kind kind) {
            Point a = axes_.local(m.a), b = axes_.local(m.b);
            if (a.x > b.x) std::swap(a, b);
            Element e{m.id,
                      m.name.empty() ? m.id : m.name,
                      kind,
                      a,
                      b,
                      {(m.a.x + m.b.x) / 2, (m.a.y + m.b.y) / 2},
                      thickness / 2};
            bool along = angleBetween(degrees(std::atan2(b.y - a.y, b.x - a.x)), 0) < parallel;
            if (along && !inside({(a.x + b.x) / 2, (a.y + b.y) / 2})) return;
            (along ? elements_ : across_).push_back(e);
        };
        for (const auto& w : f_.walls) segment(w, w.thickness, Support::Kind::Wall);
        for (const auto& b : f_.beams) segment(b, b.width, Support::Kind::Beam);
        for (const auto& l : f_.edges) segment(l, 0, Support::Kind::Line);
    }

    // Whether most of the way from p to q is on the slab.
    bool onSlab(Point p, Point q) const {
        constexpr int n = 10;
        int in = 0;
        for (int i = 1; i < n; ++i) in += inside({p.x + (q.x - p.x) * i / n, p.y + (q.y - p.y) * i / n}, 100);
        return in >= 6;
    }

    // Elements that follow each other become lines: each is joined to the one that comes next where that
    // one's nearest before it is it.
    void link() {
        const std::size_t n = elements_.size();
        // A column that stands on a wall or beam of the direction belongs to it, and so does a member that
        // lies within a longer one.
        std::vector<int> host(n, -1);
        for (std::size_t i = 0; i < n; ++i)
            for (std::size_t k = 0; k < n; ++k) {
                const Element &e = elements_[i], &h = elements_[k];
                if (i == k || h.column() || host[k] >= 0) continue;
                double length = e.b.x - e.a.x, longer = h.b.x - h.a.x;
                if (length > longer || (length == longer && i < k)) continue;
                double mid = (e.a.x + e.b.x) / 2;
                if (mid < h.a.x - 300 || mid > h.b.x + 300) continue;
                if (e.a.x < h.a.x - 300 - 0.2 * length || e.b.x > h.b.x + 300 + 0.2 * length) continue;
                if (std::abs(h.vAt(mid) - (e.a.y + e.b.y) / 2) < h.half + e.across / 2 + 250)
                    host[i] = int(k);
            }
        std::vector<int> next(n, -1), before(n, -1);
        auto cost = [&](const Element& a, const Element& b) {
            double du = b.a.x - a.b.x, dv = std::abs(b.a.y - a.b.y);
            if (du < -300 || du > longestLink || b.b.x < a.b.x + 1 || b.a.x < a.a.x + 1) return 1e300;
            if (dv > drift * std::max(du, 0.0) + 150) return 1e300;
            return std::max(du, 0.0) + 3 * dv;
        };
        for (std::size_t i = 0; i < n; ++i) {
            if (host[i] >= 0) continue;
            std::vector<std::pair<double, int>> after;
            for (std::size_t k = 0; k < n; ++k)
                if (k != i && host[k] < 0)
                    if (double c = cost(elements_[i], elements_[k]); c < 1e300) after.emplace_back(c, int(k));
            std::sort(after.begin(), after.end());
            for (const auto& [c, k] : after)
                if (onSlab(elements_[i].b, elements_[std::size_t(k)].a)) {
                    next[i] = k;
                    break;
                }
        }
        // Of several that go on to the same element, the nearest does.
        for (std::size_t i = 0; i < n; ++i) {
            if (next[i] < 0) continue;
            int& b = before[std::size_t(next[i])];
            if (b < 0 || cost(elements_[i], elements_[std::size_t(next[i])]) <
                             cost(elements_[std::size_t(b)], elements_[std::size_t(next[i])]))
                b = int(i);
        }
        for (std::size_t i = 0; i < n; ++i) {
            if (host[i] >= 0) continue;
            if (before[i] >= 0 && next[std::size_t(before[i])] == int(i))
                continue;  // not the first of its line
            std::vector<int> chain{int(i)};
            for (int k = next[i]; k >= 0 && before[std::size_t(k)] == chain.back(); k = next[std::size_t(k)])
                chain.push_back(k);
            make(chain, host);
        }
    }

    void make(const std::vector<int>& chain, const std::vector<int>& host) {
        Line line;
        std::optional<Id> column, other;
        auto know = [&](const Element& e) {
            auto& best = e.column() ? column : other;
            if (!best || smaller(e.id, *best)) best = e.id;
        };
        auto point = [&](Point p) {
            auto& all = line.out.points;
            if (all.empty() || p.x > all.back().x + 1) all.push_back(p);
        };
        auto add = [&](const Element& e) {
            know(e);
            if (e.column()) {
                line.supports.push_back(
                    {e.kind, e.id, e.name, e.a.x, e.a.x - e.half, e.a.x + e.half, e.across, e.at});
                line.columns = true;
            } else if (e.kind == Support::Kind::Beam) {
                line.beam = true;
            } else {
                line.supports.push_back({e.kind, e.id, e.name, (e.a.x + e.b.x) / 2, e.a.x, e.b.x, 0, e.at});
                line.wall = true;
            }
        };
        for (int k : chain) {
            const Element& e = elements_[std::size_t(k)];
            point(e.a);
            point(e.b);
            add(e);
            for (std::size_t i = 0; i < host.size(); ++i)
                if (host[i] == k) add(elements_[i]);
        }
        line.out.id = column ? *column : *other;
        line.first = line.out.points.front().x;
        line.last = line.out.points.back().x;
        lines_.push_back(std::move(line));
    }

    // How far the slab goes on from a point of it along +u or -u.
    double reach(Point p, int sign) const {
        double stop = 0;
        for (const auto& r : local_) {
            if (!geometry::contains(r, {p.x + sign * 5, p.y}) && geometry::distanceToEdge(r, p) > 20)
                continue;
            double exit = far;
            for (std::size_t i = 0; i < r.size(); ++i) {
                Point a = r[i], b = r[(i + 1) % r.size()];
                if ((a.y > p.y) == (b.y > p.y)) continue;
                double u = a.x + (b.x - a.x) * (p.y - a.y) / (b.y - a.y), d = sign * (u - p.x);
                if (d > 5) exit = std::min(exit, d);
            }
            if (exit < far) stop = std::max(stop, exit);
        }
        return stop;
    }
    void extend(Line& l) const {
        auto& p = l.out.points;
        double usual = p.size() > 1 ? (p.back().x - p.front().x) / double(p.size() - 1) : 6000;
        auto by = [&](Point from, int sign) {
            double exit = reach(from, sign);
            if (exit < 5) exit = reach({from.x, from.y + 30}, sign);
            // Where the slab goes on for long, other lines may take over.
            return exit > 0.75 * usual ? 0.6 * usual : exit + 3000;
        };
        Point a = p.front(), b = p.back();
        double before = by(a, -1), after = by(b, 1);
        p.insert(p.begin(), {a.x - before, a.y});
        p.push_back({b.x + after, b.y});
    }

    void nameLines() {
        std::map<std::string, int> used;
        int number = 0;
        for (auto& l : lines_) {
            ++number;
            double u = (l.first + l.last) / 2, v = l.v(u);
            double best = 600;
            for (const auto& grid : f_.grids)
                for (const auto& g : layout::gridLines(grid, 0)) {
                    Point a = axes_.local(g.line.a), b = axes_.local(g.line.b);
                    if (a.x > b.x) std::swap(a, b);
                    if (b.x - a.x < 1 || angleBetween(degrees(std::atan2(b.y - a.y, b.x - a.x)), 0) > 5)
                        continue;
                    double d = std::abs(a.y + (b.y - a.y) * (u - a.x) / (b.x - a.x) - v);
                    if (d < best) best = d, l.out.label = g.label;
                }
            if (l.out.label.empty()) l.out.label = fmt::format("({})", number);
            if (int n = used[l.out.label]++; n > 0) l.out.label += char('a' + n);
        }
    }

    // Where a member that crosses meets a line of points.
    static std::optional<Point> meet(const std::vector<Point>& line, const Element& e) {
        for (std::size_t i = 0; i + 1 < line.size(); ++i) {
            Point at;
            if (geometry::cross(line[i], line[i + 1], e.a, e.b, &at)) return at;
        }
        return std::nullopt;
    }
    // A member that ends on a line of supports crosses it too.
    Element longer(const Element& e) const {
        Element l = e;
        double length = std::hypot(e.b.x - e.a.x, e.b.y - e.a.y), k = 300 / std::max(length, 1.0);
        l.a = {e.a.x - k * (e.b.x - e.a.x), e.a.y - k * (e.b.y - e.a.y)};
        l.b = {e.b.x + k * (e.b.x - e.a.x), e.b.y + k * (e.b.y - e.a.y)};
        return l;
    }
    void addCrossing(std::vector<Support>& all, const std::vector<Point>& line) const {
        for (const auto& e : across_) {
            auto at = meet(line, longer(e));
            if (!at) continue;
            double length = std::hypot(e.b.x - e.a.x, e.b.y - e.a.y),
                   sine = std::max(0.3, std::abs(e.b.y - e.a.y) / std::max(length, 1.0));
            all.push_back({e.kind, e.id, e.name, at->x, at->x - e.half / sine, at->x + e.half / sine, 0,
                           axes_.plan(*at)});
        }
    }
    // In order, with those that touch made one: a column keeps its name and place.
    static void join(std::vector<Support>& all) {
        std::stable_sort(all.begin(), all.end(),
                         [](const Support& a, const Support& b) { return a.u < b.u; });
        std::vector<Support> out;
        for (const auto& s : all) {
            if (!out.empty() && (s.from <= out.back().to + 50 || std::abs(s.u - out.back().u) < 400)) {
                Support& o = out.back();
                double from = std::min(o.from, s.from), to = std::max(o.to, s.to);
                bool onBeam =
                    o.onBeam || s.onBeam || s.kind == Support::Kind::Beam || o.kind == Support::Kind::Beam;
                auto rank = [](const Support& x) {
                    return x.kind == Support::Kind::Column    ? 0
                           : x.kind == Support::Kind::Wall    ? 1
                           : x.kind == Support::Kind::Columns ? 3
                                                              : 2;
                };
                if (rank(s) < rank(o)) o = s;
                o.from = from, o.to = to, o.onBeam = onBeam;
                continue;
            }
            out.push_back(s);
            out.back().onBeam = out.back().onBeam || s.kind == Support::Kind::Beam;
        }
        all = std::move(out);
    }
    std::vector<Support> supportsOf(const Line& l) const {
        auto all = l.supports;
        addCrossing(all, l.out.points);
        join(all);
        return all;
    }

    // Held by members that cross and nothing of its own: the slab spans one way, full width.
    bool onLines(const Line& l) const {
        if (l.beam || l.wall) return false;
        for (const auto& s : l.supports)
            if (s.kind == Support::Kind::Column && !s.onBeam) return false;
        return true;
    }

    std::string stripKey(const Id& line, const char* what) const {
        return fmt::format("{}{}/{}/{}", prefix_, direction_ + 1, line, what);
    }
    Strip& strip(const std::string& key, Strip::Kind kind, const std::string& name) {
        auto found = made_.find(key);
        if (found != made_.end()) return found->second;
        order_.push_back(key);
        Strip s;
        s.kind = kind;
        s.key = key;
        s.name = (prefix_.empty() ? "" : prefix_ + " ") + name;
        s.direction = direction_;
        s.axes = axes_;
        s.otherAngle = other_;
        return made_[key] = s;
    }
    std::optional<double> moved(const Line& l, int side) const {
        for (const auto& e : f_.strips.edges)
            if (e.direction == direction_ && e.line == prefix_ + l.out.id && e.side == side) return e.offset;
        return std::nullopt;
    }

    // No line of supports: strips side by side over the whole width, none wider than about half the length.
    void whole() {
        double width = high_.y - low_.y, length = high_.x - low_.x;
        int n = std::max(1, int(std::ceil(width / std::max(2000.0, 0.6 * length) - 0.05)));
        for (int i = 0; i < n; ++i) {
            double a = low_.y + width * i / n, b = low_.y + width * (i + 1) / n;
            auto key = stripKey("whole", std::to_string(i + 1).c_str());
            Strip& s = strip(
                key, Strip::Kind::Whole,
                fmt::format("{}{}", directionName(direction_), n > 1 ? fmt::format("({})", i + 1) : ""));
            s.toNext[0] = s.toNext[1] = (b - a) / 2;
            s.edge[0] = i == 0, s.edge[1] = i + 1 == n;
            s.onLines = true;
            s.axis = {axes_.plan({low_.x - 1000, (a + b) / 2}), axes_.plan({high_.x + 1000, (a + b) / 2})};
            stretches_[key] = {{low_.x - 1000,
                                high_.x + 1000,
                                {i == 0 ? a - 1000 : a, i == 0 ? a - 1000 : a},
                                {i + 1 == n ? b + 1000 : b, i + 1 == n ? b + 1000 : b}}};
        }
    }

    // Stretches of u between the points of all lines; in each the lines that are there share the slab.
    void sweep() {
        std::vector<double> stops{low_.x - 1000, high_.x + 1000};
        for (const auto& l : lines_)
            for (Point p : l.out.points)
                if (p.x > low_.x && p.x < high_.x) stops.push_back(p.x);
        for (const auto& l : lines_)
            for (const auto& s : l.supports)
                if (s.u > low_.x && s.u < high_.x) stops.push_back(s.u);
        for (const auto& r : local_)
            if (r.size() < 30)
                for (Point p : r) stops.push_back(p.x);
        std::sort(stops.begin(), stops.end());
        stops.erase(std::unique(stops.begin(), stops.end(), [](double a, double b) { return b - a < 1; }),
                    stops.end());
        for (std::size_t i = 0; i + 1 < stops.size(); ++i) share(stops[i], stops[i + 1]);
        for (auto& [key, s] : made_)
            if (s.kind == Strip::Kind::Middle) s.axis = middleAxis(stretches_.at(key));
    }

    // Where the slab is at u: intervals of v.
    std::vector<std::pair<double, double>> section(double u) const {
        std::vector<std::pair<double, double>> all;
        for (const auto& r : local_) {
            std::vector<double> cuts;
            for (std::size_t i = 0; i < r.size(); ++i) {
                Point a = r[i], b = r[(i + 1) % r.size()];
                if ((a.x > u) != (b.x > u)) cuts.push_back(a.y + (b.y - a.y) * (u - a.x) / (b.x - a.x));
            }
            std::sort(cuts.begin(), cuts.end());
            for (std::size_t k = 0; k + 1 < cuts.size(); k += 2) all.emplace_back(cuts[k], cuts[k + 1]);
        }
        std::sort(all.begin(), all.end());
        std::vector<std::pair<double, double>> joined;
        for (auto [a, b] : all) {
            if (!joined.empty() && a <= joined.back().second + 10)
                joined.back().second = std::max(joined.back().second, b);
            else
                joined.emplace_back(a, b);
        }
        return joined;
    }

    void share(double ua, double ub) {
        double um = (ua + ub) / 2;
        auto slab = section(um);
        std::vector<const Line*> here;
        for (const auto& l : lines_)
            if (l.start() <= um && um <= l.end()) here.push_back(&l);
        // A part of the slab that none of them comes near takes the line that ends nearest to it.
        for (auto [a, b] : slab) {
            bool near = std::any_of(here.begin(), here.end(), [&, a = a, b = b](const Line* l) {
                return l->v(um) > a - 1500 && l->v(um) < b + 1500;
            });
            if (near) continue;
            const Line* best = nullptr;
            double least = 1e300;
            for (const auto& l : lines_) {
                double du = std::max({l.start() - um, um - l.end(), 0.0}),
                       dv = std::max({a - l.v(um), l.v(um) - b, 0.0});
                if (du + dv < least) least = du + dv, best = &l;
            }
            if (best && std::find(here.begin(), here.end(), best) == here.end()) here.push_back(best);
        }
        if (here.empty()) {
            auto away = [um](const Line& l) { return std::max({l.start() - um, um - l.end(), 0.0}); };
            here.push_back(
                &*std::min_element(lines_.begin(), lines_.end(),
                                   [&](const Line& a, const Line& b) { return away(a) < away(b); }));
        }
        std::stable_sort(here.begin(), here.end(),
                         [um](const Line* a, const Line* b) { return a->v(um) < b->v(um); });
        // Bounds from below to above: (strip, v at ua, v at ub) where the strip begins.
        struct Bound {
            std::string key;
            double v[2];
        };
        std::vector<Bound> bounds;
        const bool full = f_.strips.rules.width == model::StripRules::Width::Full;
        auto at = [&](const Line& l, int e) { return l.v(e == 0 ? ua : ub); };
        auto bound = [&](const std::string& key, const Line& from, double offset) {
            bounds.push_back({key, {at(from, 0) + offset, at(from, 1) + offset}});
        };
        auto own = [&](const Line& l, bool wide) {
            auto key = stripKey(l.out.id, wide ? "full" : "column");
            Strip& s = strip(key, wide ? Strip::Kind::Full : Strip::Kind::Column,
                             directionName(direction_) + l.out.label);
            s.line = prefix_ + l.out.id;
            s.onLines = onLines(l);
            s.alongBeam = l.beam, s.alongWall = l.wall;
            if (s.axis.empty())
                for (Point p : l.out.points) s.axis.push_back(axes_.plan(p));
            return key;
        };
        auto slabEdge = [&](const Line& l, int side) {
            double v = l.v(um), best = v;
            for (auto [a, b] : slab)
                if (v >= a - 600 && v <= b + 600) best = side > 0 ? std::max(v, b) : std::min(v, a);
            return std::abs(best - v);
        };
        const double below = low_.y - 1000;
        for (std::size_t i = 0; i < here.size(); ++i) {
            const Line& l = *here[i];
            const bool wide = full || onLines(l);
            std::string key = own(l, wide);
            Strip& s = made_.at(key);
            if (i == 0) {
                double over = slabEdge(l, -1), inner = half_(l.spanAt(um), 2 * over);
                auto hand = moved(l, -1);
                if (!wide && (hand ? *hand < over - 50 : over > 0.75 * l.spanAt(um))) {
                    auto edgeKey = stripKey(l.out.id, "edge");
                    Strip& e = strip(edgeKey, Strip::Kind::Middle,
                                     fmt::format("{}edge-{}", directionName(direction_), l.out.label));
                    e.line = prefix_ + l.out.id;
                    e.edge[0] = true;
                    bounds.push_back({edgeKey, {below, below}});
                    double offset = hand ? *hand : inner;
                    if (hand) s.changed = true;
                    made_.at(edgeKey).changed |= hand.has_value();
                    bound(key, l, -offset);
                } else {
                    bounds.push_back({key, {below, below}});
                }
                s.edge[0] = true;
                s.toNext[0] = std::max(s.toNext[0], over);
            }
            if (i + 1 == here.size()) {
                double over = slabEdge(l, 1), inner = half_(l.spanAt(um), 2 * over);
                auto hand = moved(l, 1);
                s.edge[1] = true;
                s.toNext[1] = std::max(s.toNext[1], over);
                if (!wide && (hand ? *hand < over - 50 : over > 0.75 * l.spanAt(um))) {
                    auto edgeKey = stripKey(l.out.id, "middle");
                    Strip& e = strip(edgeKey, Strip::Kind::Middle,
                                     fmt::format("{}{}-edge", directionName(direction_), l.out.label));
                    e.lineLeft = prefix_ + l.out.id;
                    e.edge[1] = true;
                    e.changed |= hand.has_value();
                    made_.at(key).changed |= hand.has_value();
                    bound(edgeKey, l, hand ? *hand : inner);
                }
                continue;
            }
            const Line& n = *here[i + 1];
            const double gap = n.v(um) - l.v(um);
            s.toNext[1] = std::max(s.toNext[1], gap);
            const bool nextWide = full || onLines(n);
            std::string nextKey = own(n, nextWide);
            made_.at(nextKey).toNext[0] = std::max(made_.at(nextKey).toNext[0], gap);
            auto left = moved(l, 1), right = moved(n, -1);
            if (wide || nextWide) {
                auto place = [&](int e) {
                    double g = at(n, e) - at(l, e);
                    double share = left ? *left : right ? g - *right : g / 2;
                    return at(l, e) + std::clamp(share, std::min(50.0, g / 2), std::max(g - 50, g / 2));
                };
                made_.at(key).changed |= left || right;
                made_.at(nextKey).changed |= left || right;
                bounds.push_back({nextKey, {place(0), place(1)}});
                continue;
            }
            double h1 = half_(l.spanAt(um), gap), h2 = half_(n.spanAt(um), gap);
            if (left) h1 = std::clamp(*left, 50.0, gap - 100);
            if (right) h2 = std::clamp(*right, 50.0, gap - 100);
            auto middleKey = stripKey(l.out.id, "middle");
            if (h1 + h2 > gap - 40) {
                double share = left ? h1 : right ? gap - h2 : gap / 2;
                bound(nextKey, l, share);
            } else {
                Strip& m = strip(middleKey, Strip::Kind::Middle,
                                 fmt::format("{}{}-{}", directionName(direction_),
                                             smaller(n.out.label, l.out.label) ? n.out.label : l.out.label,
                                             smaller(n.out.label, l.out.label) ? l.out.label : n.out.label));
                m.lineLeft = prefix_ + l.out.id;
                m.line = prefix_ + n.out.id;
                m.toNext[0] = m.toNext[1] = std::max(m.toNext[0], gap / 2);
                m.changed |= left || right;
                bound(middleKey, l, h1);
                bounds.push_back({nextKey, {at(n, 0) - h2, at(n, 1) - h2}});
            }
            made_.at(key).changed |= left.has_value();
            made_.at(nextKey).changed |= right.has_value();
        }
        // Lines may approach each other over the stretch: bounds never cross.
        for (std::size_t i = 1; i < bounds.size(); ++i)
            for (int e : {0, 1}) bounds[i].v[e] = std::max(bounds[i].v[e], bounds[i - 1].v[e]);
        const double above = high_.y + 1000;
        for (std::size_t i = 0; i < bounds.size(); ++i) {
            bool last = i + 1 == bounds.size();
            stretches_[bounds[i].key].push_back(
                {ua,
                 ub,
                 {bounds[i].v[0], bounds[i].v[1]},
                 {last ? above : bounds[i + 1].v[0], last ? above : bounds[i + 1].v[1]}});
        }
    }

    // The middle of a strip between two lines; over an edge the slab's own edge counts.
    std::vector<Point> middleAxis(const std::vector<Stretch>& all) const {
        std::vector<Point> axis;
        auto clampV = [&](double v) { return std::clamp(v, low_.y, high_.y); };
        for (const auto& s : all)
            for (int e : {0, 1}) {
                double v = (clampV(s.low[e]) + clampV(s.high[e])) / 2, u = e == 0 ? s.a : s.b;
                if (!axis.empty() && u < axis.back().x + 1) {
                    axis.back().y = (axis.back().y + v) / 2;
                    continue;
                }
                axis.push_back({u, v});
            }
        for (Point& p : axis) p = axes_.plan(p);
        return axis;
    }

    std::vector<Ring> partsOf(const std::vector<Stretch>& all) const {
        std::vector<Ring> parts;
        auto corner = [](std::vector<Point>& line, Point p) {
            if (!line.empty() && geometry::length(line.back(), p) < 1e-6) return;
            // Straight on: the point between is not needed.
            if (line.size() > 1) {
                Point a = line[line.size() - 2], b = line.back();
                if (std::abs((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) <
                    1e-6 * geometry::length(a, p) * geometry::length(a, b))
                    line.pop_back();
            }
            line.push_back(p);
        };
        for (std::size_t i = 0; i < all.size();) {
            std::vector<Point> low, high;
            std::size_t k = i;
            for (; k < all.size() && (k == i || std::abs(all[k].a - all[k - 1].b) < 1e-9); ++k) {
                corner(low, {all[k].a, all[k].low[0]});
                corner(low, {all[k].b, all[k].low[1]});
                corner(high, {all[k].a, all[k].high[0]});
                corner(high, {all[k].b, all[k].high[1]});
            }
            i = k;
            Ring ring;
            for (Point p : low) ring.push_back(axes_.plan(p));
            for (auto p = high.rbegin(); p != high.rend(); ++p) ring.push_back(axes_.plan(*p));
            if (std::abs(geometry::area(ring)) < 100) continue;
            for (const auto& slab : domain_)
                for (const auto& piece : geometry::intersection(slab, ring))
                    for (auto& part :
                         cutters_.empty() ? std::vector<Ring>{piece} : geometry::difference(piece, cutters_))
                        parts.push_back(std::move(part));
        }
        std::stable_sort(parts.begin(), parts.end(),
                         [](const Ring& a, const Ring& b) { return geometry::area(a) > geometry::area(b); });
        return parts;
    }

    // From where to where the axis is on the strip.
    void extent(Strip& s) const {
        double low = far, high = -far, partLow = far, partHigh = -far;
        std::vector<Point> axis;
        for (Point p : s.axis) axis.push_back(s.axes.local(p));
        for (const auto& part : s.parts)
            for (std::size_t i = 0; i < part.size(); ++i) {
                Point a = s.axes.local(part[i]), b = s.axes.local(part[(i + 1) % part.size()]);
                partLow = std::min(partLow, a.x), partHigh = std::max(partHigh, a.x);
                for (std::size_t k = 0; k + 1 < axis.size(); ++k) {
                    Point at;
                    if (!geometry::cross(axis[k], axis[k + 1], a, b, &at)) continue;
                    low = std::min(low, at.x), high = std::max(high, at.x);
                }
            }
        if (high - low < 100) low = partLow, high = partHigh;
        s.from = low, s.to = high;
        // The axis from there to there.
        std::vector<Point> cutAxis;
        cutAxis.push_back(s.axes.plan({low, s.v(low)}));
        for (std::size_t i = 0; i < axis.size(); ++i)
            if (axis[i].x > low + 1 && axis[i].x < high - 1) cutAxis.push_back(s.axis[i]);
        cutAxis.push_back(s.axes.plan({high, s.v(high)}));
        s.axis = std::move(cutAxis);
    }
    std::vector<Point> localAxis(const Strip& s, double beyond) const {
        std::vector<Point> axis;
        for (Point p : s.axis) axis.push_back(s.axes.local(p));
        if (axis.empty()) return axis;
        axis.front().x -= beyond, axis.back().x += beyond;
        return axis;
    }

    // Supports of a middle strip: members that cross it, and the lines between columns on either side.
    std::vector<Support> between(const Strip& s) const {
        std::vector<Support> all;
        addCrossing(all, localAxis(s, 300));
        const Line *left = nullptr, *right = nullptr;
        for (const auto& l : lines_) {
            if (prefix_ + l.out.id == s.lineLeft) left = &l;
            if (prefix_ + l.out.id == s.line) right = &l;
        }
        auto columns = [](const Line& l) {
            std::vector<const Support*> list;
            for (const auto& p : l.supports)
                if (p.kind == Support::Kind::Column) list.push_back(&p);
            return list;
        };
        if (left && right) {
            auto partners = columns(*right);
            for (const Support* a : columns(*left)) {
                const Support* best = nullptr;
                for (const Support* b : partners)
                    if (!best || std::abs(b->u - a->u) < std::abs(best->u - a->u)) best = b;
                if (!best ||
                    std::abs(best->u - a->u) > 0.35 * std::min(left->spanAt(a->u), right->spanAt(best->u)))
                    continue;
                double h = (a->to - a->from + best->to - best->from) / 4, u = (a->u + best->u) / 2;
                all.push_back({Support::Kind::Columns, a->id, fmt::format("{}|{}", a->name, best->name), u,
                               u - h, u + h, 0, s.axes.plan({u, s.v(u)})});
            }
        } else if (left || right) {
            for (const Support* a : columns(left ? *left : *right))
                all.push_back({Support::Kind::Columns, a->id, a->name, a->u, a->from, a->to, 0,
                               s.axes.plan({a->u, s.v(a->u)})});
        }
        join(all);
        return all;
    }
    // Supports of a strip by where it lies.
    std::vector<Support> within(const Strip& s) const {
        std::vector<Support> all;
        Axes own = s.axes;
        auto in = [&](Point plan) {
            return std::any_of(s.parts.begin(), s.parts.end(), [&](const Ring& r) {
                return geometry::contains(r, plan) || geometry::distanceToEdge(r, plan) < 250;
            });
        };
        // Its own direction may be another than the layer's.
        const Layer turned(f_, half_, s.direction, own.angle, s.otherAngle, domain_, {}, "", false);
        for (const auto& e : turned.elements_) {
            if (e.kind == Support::Kind::Beam || !in(e.at)) continue;
            double from = e.column() ? e.a.x - e.half : e.a.x, to = e.column() ? e.a.x + e.half : e.b.x;
            all.push_back({e.kind, e.id, e.name, (from + to) / 2, from, to, e.across, e.at});
        }
        turned.addCrossing(all, localAxis(s, 300));
        join(all);
        return all;
    }
    // Where lines of columns of the other direction cross the strip's axis.
    std::vector<Support> crossings(const Strip& s, const Layer& other) const {
        std::vector<Support> all;
        auto axis = localAxis(s, 0);
        for (const auto& l : other.lines_) {
            if (l.supports.size() < 2) continue;
            std::vector<Point> line;
            for (Point p : l.out.points) line.push_back(s.axes.local(other.axes_.plan(p)));
            for (std::size_t i = 0; i + 1 < line.size(); ++i)
                for (std::size_t k = 0; k + 1 < axis.size(); ++k) {
                    Point at;
                    if (!geometry::cross(line[i], line[i + 1], axis[k], axis[k + 1], &at)) continue;
                    bool known = std::any_of(all.begin(), all.end(),
                                             [&](const Support& p) { return p.id == l.out.id; });
                    if (known) continue;
                    double h = 0;
                    for (const auto& p : l.supports) h = std::max(h, p.across / 2);
                    all.push_back({Support::Kind::Columns, l.out.id, l.out.label, at.x, at.x - h, at.x + h, 0,
                                   s.axes.plan(at)});
                }
        }
        return all;
    }

    void spans(Strip& s) const {
        double thickness = 1e300;
        for (const auto& slab : f_.slabs) thickness = std::min(thickness, slab.thickness);
        const double overhang = std::max(shortOverhang, thickness);
        auto held = [](const Support& p) {
            return p.onBeam || p.kind == Support::Kind::Beam || p.kind == Support::Kind::Wall ||
                   p.kind == Support::Kind::Line;
        };
        auto add = [&](int left, int right) {
            Span span;
            span.left = left, span.right = right;
            const Support* a = left >= 0 ? &s.supports[std::size_t(left)] : nullptr;
            const Support* b = right >= 0 ? &s.supports[std::size_t(right)] : nullptr;
            auto reach = [&](const Support& p, int side) {
                // A long wall holds the slab from a little behind its face.
                double half = (p.to - p.from) / 2;
                return half > 500 ? (side > 0 ? p.to - std::min(half, thickness / 2)
                                              : p.from + std::min(half, thickness / 2))
                                  : p.u;
            };
            span.from = a ? reach(*a, 1) : s.from;
            span.to = b ? reach(*b, -1) : s.to;
            span.clearFrom = a ? std::max(a->to, s.from) : s.from;
            span.clearTo = b ? std::min(b->from, s.to) : s.to;
            if (span.clearTo - span.clearFrom < 100) return;
            span.name = a && b ? a->name + "–" + b->name
                        : a    ? a->name + "–tip"
                        : b    ? "tip–" + b->name
                               : "whole";
            s.spans.push_back(span);
        };
        if (s.supports.empty()) {
            add(-1, -1);
        } else {
            // Lines between columns end where the columns do: the slab's edge askew of them makes no
            // cantilever.
            auto least = [&](std::size_t support, std::size_t next) {
                if (s.supports[support].kind != Support::Kind::Columns || s.supports.size() < 2)
                    return overhang;
                return std::max(overhang, 0.2 * std::abs(s.supports[next].u - s.supports[support].u));
            };
            const std::size_t n = s.supports.size();
            if (s.supports.front().from - s.from > least(0, std::min<std::size_t>(1, n - 1))) add(-1, 0);
            for (std::size_t i = 0; i + 1 < s.supports.size(); ++i) add(int(i), int(i + 1));
            if (s.to - s.supports.back().to > least(n - 1, n > 1 ? n - 2 : 0))
                add(int(s.supports.size()) - 1, -1);
        }
        for (std::size_t i = 0; i < s.spans.size(); ++i) {
            Span& span = s.spans[i];
            for (int e : {0, 1}) {
                int support = e == 0 ? span.left : span.right;
                EndCondition found = EndCondition::Free;
                if (support < 0) {
                    found = span.cantilever() ? EndCondition::Cantilever : EndCondition::Free;
                } else {
                    bool on = e == 0 ? i > 0 : i + 1 < s.spans.size();
                    found = on                                       ? EndCondition::Continuous
                            : held(s.supports[std::size_t(support)]) ? EndCondition::OnBeam
                                                                     : EndCondition::Free;
                    if (span.cantilever()) found = EndCondition::Continuous;
                }
                span.ends[e] = found;
                const Id id = support < 0 ? Id() : s.supports[std::size_t(support)].id;
                for (const auto& o : f_.strips.ends)
                    if (o.strip == s.key && o.support == id && o.side == (e == 0 ? 1 : -1)) {
                        span.overruled[e] = o.condition != found;
                        span.ends[e] = o.condition;
                    }
            }
        }
    }
};

std::vector<Ring> ringsOf(const auto& list) {
    std::vector<Ring> all;
    for (const auto& m : list) all.push_back(model::ring(m.outline));
    return all;
}

}  // namespace

Axes::Axes(double degreesOf)
    : angle(degreesOf),
      c(std::cos(degreesOf * std::numbers::pi / 180)),
      s(std::sin(degreesOf * std::numbers::pi / 180)) {
    // Exact along the plan's axes, so that what is drawn square stays square.
    if (std::abs(c) < 1e-15) c = 0;
    if (std::abs(s) < 1e-15) s = 0;
}

double Strip::area() const {
    double sum = 0;
    for (const auto& r : parts) sum += geometry::area(r);
    return sum;
}

double Strip::v(double u) const {
    if (axis.empty()) return 0;
    Point before = axes.local(axis.front());
    if (u <= before.x) return before.y;
    for (std::size_t i = 1; i < axis.size(); ++i) {
        Point p = axes.local(axis[i]);
        if (u <= p.x)
            return p.x - before.x > 1e-9 ? before.y + (p.y - before.y) * (u - before.x) / (p.x - before.x)
                                         : p.y;
        before = p;
    }
    return before.y;
}

const Strip* StripLayout::find(std::string_view key) const {
    for (const auto& s : strips)
        if (s.key == key) return &s;
    return nullptr;
}

const char* directionName(int direction) {
    return direction == 0 ? "X" : "Y";
}

double quarterOfShorter(double span, double across) {
    return std::min(span, across) / 4;
}

bool sameLayout(const model::Floor& a, const model::Floor& b) {
    const auto &r = a.strips.rules, &q = b.strips.rules;
    return a.slabs == b.slabs && a.openings == b.openings && a.columns == b.columns && a.walls == b.walls &&
           a.edges == b.edges && a.beams == b.beams && a.piles == b.piles && a.grids == b.grids &&
           a.grounds.empty() == b.grounds.empty() && a.strips.areas == b.strips.areas &&
           a.strips.edges == b.strips.edges && a.strips.drawn == b.strips.drawn &&
           a.strips.ends == b.strips.ends && r.ownAngles == q.ownAngles && r.angle[0] == q.angle[0] &&
           r.angle[1] == q.angle[1] && r.automatic[0] == q.automatic[0] && r.automatic[1] == q.automatic[1] &&
           r.width == q.width;
}

StripLayout layStrips(const model::Floor& floor, const ColumnStripHalf& half) {
    StripLayout out;
    const auto& rules = floor.strips.rules;
    if (rules.ownAngles)
        out.angle = {rules.angle[0], rules.angle[1]};
    else if (!floor.grids.empty())
        out.angle = {floor.grids.front().angle, floor.grids.front().angle + floor.grids.front().between};
    auto slabs = ringsOf(floor.slabs), openings = ringsOf(floor.openings);
    std::vector<Ring> areas;
    struct Part {
        std::vector<Ring> domain, cutters;
        std::array<double, 2> angle;
        std::string prefix;
    };
    std::vector<Part> parts;
    for (const auto& a : floor.strips.areas) {
        Part p{{}, openings, {a.angle[0], a.angle[1]}, a.id + ":"};
        Ring outline = model::ring(a.outline);
        for (const auto& slab : slabs)
            for (auto& r : geometry::intersection(slab, outline)) p.domain.push_back(std::move(r));
        p.cutters.insert(p.cutters.end(), areas.begin(), areas.end());
        areas.push_back(std::move(outline));
        parts.push_back(std::move(p));
    }
    Part rest{{}, openings, out.angle, ""};
    for (const auto& slab : slabs) {
        if (areas.empty())
            rest.domain.push_back(slab);
        else
            for (auto& r : geometry::difference(slab, areas)) rest.domain.push_back(std::move(r));
    }
    parts.push_back(std::move(rest));
    std::array<std::vector<Strip>, 2> all;
    for (const auto& part : parts) {
        if (part.domain.empty()) continue;
        std::array<std::optional<Layer>, 2> layers;
        for (int d : {0, 1}) {
            auto cutters = part.cutters;
            for (const auto& drawn : floor.strips.drawn)
                if (drawn.direction == d) cutters.push_back(model::ring(drawn.outline));
            layers[std::size_t(d)].emplace(floor, half, d, part.angle[std::size_t(d)],
                                           part.angle[std::size_t(1 - d)], part.domain, cutters, part.prefix);
            for (const auto& l : layers[std::size_t(d)]->lines()) out.lines[std::size_t(d)].push_back(l.out);
        }
        for (std::size_t d : {0u, 1u}) {
            if (rules.automatic[d])
                for (auto& s : layers[d]->strips()) {
                    layers[d]->place(s, &*layers[1 - d]);
                    all[d].push_back(std::move(s));
                }
            if (!part.prefix.empty()) continue;
            for (const auto& drawn : floor.strips.drawn) {
                if (std::size_t(drawn.direction) != d) continue;
                Strip s;
                s.kind = Strip::Kind::Drawn;
                s.key = drawn.id;
                s.name = drawn.name.empty() ? drawn.id : drawn.name;
                s.direction = drawn.direction;
                s.axes = Axes(drawn.angle);
                s.otherAngle = out.angle[1 - d];
                s.changed = true;
                Ring outline = model::ring(drawn.outline);
                for (const auto& slab : slabs)
                    for (const auto& piece : geometry::intersection(slab, outline))
                        for (auto& r : openings.empty() ? std::vector<Ring>{piece}
                                                        : geometry::difference(piece, openings))
                            s.parts.push_back(std::move(r));
                if (s.parts.empty()) continue;
                double low = far, high = -far, v0 = far, v1 = -far;
                for (const auto& r : s.parts)
                    for (Point p : r) {
                        Point l = s.axes.local(p);
                        low = std::min(low, l.x), high = std::max(high, l.x);
                        v0 = std::min(v0, l.y), v1 = std::max(v1, l.y);
                    }
                s.axis = {s.axes.plan({low - 500, (v0 + v1) / 2}), s.axes.plan({high + 500, (v0 + v1) / 2})};
                s.toNext[0] = s.toNext[1] = (v1 - v0) / 2;
                layers[d]->place(s, &*layers[1 - d]);
                all[d].push_back(std::move(s));
            }
        }
    }
    for (std::size_t d : {0u, 1u}) {
        auto order = [](const Strip& s) { return std::pair(s.axes.angle, s.v((s.from + s.to) / 2)); };
        std::stable_sort(all[d].begin(), all[d].end(),
                         [&](const Strip& a, const Strip& b) { return order(a) < order(b); });
        std::vector<Ring> rings;
        std::vector<std::string> names;
        for (const auto& s : all[d])
            for (const auto& r : s.parts) rings.push_back(r), names.push_back(s.name);
        auto cover = geometry::cover(slabs, openings, rings);
        Coverage& c = out.coverage[d];
        c.whole = cover.whole;
        for (auto& gap : cover.gaps) {
            c.gaps.push_back({geometry::area(gap), geometry::inside(gap), {gap}, ""});
            c.uncovered += c.gaps.back().area;
        }
        for (auto& o : cover.overlaps) {
            Patch p{0, geometry::inside(o.patch.front()), o.patch, names[o.a] + ", " + names[o.b]};
            for (const auto& r : o.patch) p.area += geometry::area(r);
            c.overlapped += p.area;
            c.overlaps.push_back(std::move(p));
        }
        for (auto& s : all[d]) out.strips.push_back(std::move(s));
    }
    return out;
}

}  // namespace talvik::strips
