#include "strips/support_lines.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>
#include <optional>

#include "layout/grid.h"

namespace talvik::strips {
namespace {

constexpr double parallel = 20;  // degrees: members closer than this to the direction run along it
constexpr double drift = 0.36;   // sideways per length: how far a line may turn from one support to the next
constexpr double longestLink = 25000;
constexpr double far = 1e7;

double degrees(double a) {
    return a * 180 / std::numbers::pi;
}
// Between two lines, 0 to 90.
double angleBetween(double a, double b) {
    double d = std::fmod(std::abs(a - b), 180);
    return std::min(d, 180 - d);
}

// Where a member that crosses meets a line of points.
std::optional<Point> meet(const std::vector<Point>& line, const Element& e) {
    for (std::size_t i = 0; i + 1 < line.size(); ++i) {
        Point at;
        if (geometry::cross(line[i], line[i + 1], e.a, e.b, &at)) return at;
    }
    return std::nullopt;
}
// A member that ends on a line of supports crosses it too.
Element longer(const Element& e) {
    Element l = e;
    double length = std::hypot(e.b.x - e.a.x, e.b.y - e.a.y), k = 300 / std::max(length, 1.0);
    l.a = {e.a.x - k * (e.b.x - e.a.x), e.a.y - k * (e.b.y - e.a.y)};
    l.b = {e.b.x + k * (e.b.x - e.a.x), e.b.y + k * (e.b.y - e.a.y)};
    return l;
}

}  // namespace

double Element::vAt(double u) const {
    return b.x - a.x > 1e-9 ? a.y + (b.y - a.y) * std::clamp((u - a.x) / (b.x - a.x), 0.0, 1.0) : a.y;
}

double Chain::v(double u) const {
    const auto& p = out.points;
    if (u <= p.front().x) return p.front().y;
    auto right = std::upper_bound(p.begin(), p.end(), u, [](double x, const Point& q) { return x < q.x; });
    if (right == p.end()) return p.back().y;
    auto left = right - 1;
    return left->y + (right->y - left->y) * (u - left->x) / (right->x - left->x);
}
double Chain::spanAt(double u) const {
    if (supports.size() < 2) return end() - start();
    std::size_t i = 1;
    while (i + 1 < supports.size() && supports[i].u < u) ++i;
    return supports[i].u - supports[i - 1].u;
}
bool Chain::onLines() const {
    if (beam || wall) return false;
    for (const auto& s : supports)
        if (s.kind == Support::Kind::Column && !s.onBeam) return false;
    return true;
}

bool Chain::fullWidth() const {
    return onLines() && std::none_of(supports.begin(), supports.end(),
                                     [](const Support& s) { return s.kind == Support::Kind::Column; });
}

bool smaller(const Id& a, const Id& b) {
    return std::tuple(a.size(), a) < std::tuple(b.size(), b);
}

void joinTouching(std::vector<Support>& all) {
    std::stable_sort(all.begin(), all.end(), [](const Support& a, const Support& b) { return a.u < b.u; });
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
            const Id wall = o.wall.empty() ? s.wall : o.wall;
            const bool turns = o.turns && s.turns;
            if (rank(s) < rank(o)) o = s;
            o.wall = wall, o.turns = turns;
            o.from = from, o.to = to, o.onBeam = onBeam;
            continue;
        }
        out.push_back(s);
        out.back().onBeam = out.back().onBeam || s.kind == Support::Kind::Beam;
    }
    all = std::move(out);
}

SupportLines::SupportLines(const model::Floor& floor, double angle, const std::vector<Ring>& domain,
                           bool join)
    : f_(floor), axes_(angle), low_{far, far}, high_{-far, -far} {
    for (const auto& ring : domain) {
        Ring local;
        for (Point p : ring) {
            local.push_back(axes_.local(p));
            low_ = {std::min(low_.x, local.back().x), std::min(low_.y, local.back().y)};
            high_ = {std::max(high_.x, local.back().x), std::max(high_.y, local.back().y)};
        }
        local_.push_back(std::move(local));
    }
    gather();
    if (!join) return;
    link();
    for (auto& l : lines_) extend(l);
    auto middle = [](const Chain& l) { return l.v((l.first + l.last) / 2); };
    std::stable_sort(lines_.begin(), lines_.end(),
                     [&](const Chain& a, const Chain& b) { return middle(a) < middle(b); });
    nameLines();
    for (auto& l : lines_) {
        addCrossing(l.supports, l.out.points);
        joinTouching(l.supports);
    }
}

bool SupportLines::inside(Point local, double tolerance) const {
    for (const auto& r : local_)
        if (geometry::contains(r, local) || geometry::distanceToEdge(r, local) < tolerance) return true;
    return false;
}

void SupportLines::gather() {
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
        if constexpr (requires { m.stiff; }) e.turns = !m.stiff;
        bool along = angleBetween(degrees(std::atan2(b.y - a.y, b.x - a.x)), 0) < parallel;
        if (along && !inside({(a.x + b.x) / 2, (a.y + b.y) / 2})) return;
        (along ? elements_ : across_).push_back(e);
    };
    for (const auto& w : f_.walls) segment(w, w.thickness, Support::Kind::Wall);
    for (const auto& b : f_.beams) segment(b, b.width, Support::Kind::Beam);
    for (const auto& l : f_.edges) segment(l, 0, Support::Kind::Line);
}

// Whether most of the way from p to q is on the slab.
bool SupportLines::onSlab(Point p, Point q) const {
    constexpr int n = 10;
    int in = 0;
    for (int i = 1; i < n; ++i) in += inside({p.x + (q.x - p.x) * i / n, p.y + (q.y - p.y) * i / n}, 100);
    return in >= 6;
}

// Elements that follow each other become lines: each is joined to the one that comes next where that
// one's nearest before it is it.
void SupportLines::link() {
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
            if (std::abs(h.vAt(mid) - (e.a.y + e.b.y) / 2) < h.half + e.across / 2 + 250) host[i] = int(k);
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
        if (before[i] >= 0 && next[std::size_t(before[i])] == int(i)) continue;  // not the first of its line
        std::vector<int> chain{int(i)};
        for (int k = next[i]; k >= 0 && before[std::size_t(k)] == chain.back(); k = next[std::size_t(k)])
            chain.push_back(k);
        make(chain, host);
    }
}

// Both ends of a wall or line support along the direction. Its end holds the slab as a support as long as the
// wall is thick would; between the two the slab is held by the wall itself.
void SupportLines::wallEnds(const Element& e, std::vector<Support>& all) const {
    const double length = e.b.x - e.a.x, half = std::min(length / 2, std::max(e.half, 50.0));
    for (int end : {0, 1}) {
        const double from = end == 0 ? e.a.x : e.b.x - 2 * half;
        if (end == 1 && from <= e.a.x + 1) break;  // so short that both ends are one support
        const double u = from + half;
        Support s{e.kind, e.id + (end == 0 ? "-from" : "-to"),
                  e.name, u,
                  from,   from + 2 * half,
                  0,      axes_.plan({u, e.vAt(u)})};
        s.wall = e.id;
        all.push_back(std::move(s));
    }
}

void SupportLines::make(const std::vector<int>& chain, const std::vector<int>& host) {
    Chain line;
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
            wallEnds(e, line.supports);
            line.walls.emplace_back(e.a.x, e.b.x);
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
double SupportLines::reach(Point p, int sign) const {
    double stop = 0;
    for (const auto& r : local_) {
        if (!geometry::contains(r, {p.x + sign * 5, p.y}) && geometry::distanceToEdge(r, p) > 20) continue;
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
void SupportLines::extend(Chain& l) const {
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

void SupportLines::nameLines() {
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
                if (b.x - a.x < 1 || angleBetween(degrees(std::atan2(b.y - a.y, b.x - a.x)), 0) > 5) continue;
                double d = std::abs(a.y + (b.y - a.y) * (u - a.x) / (b.x - a.x) - v);
                if (d < best) best = d, l.out.label = g.label;
            }
        if (l.out.label.empty()) l.out.label = fmt::format("({})", number);
        if (int n = used[l.out.label]++; n > 0) l.out.label += char('a' + n);
    }
}

void SupportLines::addCrossing(std::vector<Support>& all, const std::vector<Point>& line) const {
    for (const auto& e : across_) {
        auto at = meet(line, longer(e));
        if (!at) continue;
        double length = std::hypot(e.b.x - e.a.x, e.b.y - e.a.y),
               sine = std::max(0.3, std::abs(e.b.y - e.a.y) / std::max(length, 1.0));
        all.push_back(
            {e.kind, e.id, e.name, at->x, at->x - e.half / sine, at->x + e.half / sine, 0, axes_.plan(*at)});
        all.back().turns = e.turns;
    }
}

}  // namespace talvik::strips
