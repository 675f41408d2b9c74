#include "punching/perimeter.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <numbers>
#include <optional>
#include <set>
#include <tuple>

namespace talvik::punching {
namespace {

using Path = std::vector<Point>;
using Points = std::vector<Point>;
using std::numbers::pi;

constexpr double touch = 0.5;  // mm: what is nearer lies on a line
constexpr int most = 5;        // free edges that are thought of at once

Point operator-(Point a, Point b) {
    return {a.x - b.x, a.y - b.y};
}
Point operator+(Point a, Point b) {
    return {a.x + b.x, a.y + b.y};
}
Point operator*(double k, Point a) {
    return {k * a.x, k * a.y};
}
double dot(Point a, Point b) {
    return a.x * b.x + a.y * b.y;
}

// A straight free edge; what lies on it is at nought of the normal.
struct Line {
    Point at, normal;
    double off(Point p) const { return dot(p - at, normal); }
    Point mirrored(Point p) const { return p - 2 * off(p) * normal; }
    bool same(const Line& o) const {
        return std::abs(dot({-normal.y, normal.x}, o.normal)) < 1e-6 && std::abs(off(o.at)) < touch;
    }
};

double apart(const Ring& a, const Ring& b) {
    double least = std::numeric_limits<double>::max();
    for (const auto* pair : {&a, &b}) {
        const Ring& other = pair == &a ? b : a;
        for (Point p : *pair) {
            if (geometry::contains(other, p)) return 0;
            least = std::min(least, geometry::distanceToEdge(other, p));
        }
    }
    return least;
}

// What openings near a loaded area take out: the sectors between the tangents to them from its middle.
class Shadows {
  public:
    Shadows(const Site& site, const Ring& loaded, const Rule& rule) {
        if (site.from)
            middle_ = *site.from;
        else
            for (Point p : loaded) middle_ = middle_ + (1.0 / double(loaded.size())) * p;
        idle_ = site.idle;
        for (const auto* list : {&site.openings, &site.bodies})
            for (const Ring& o : *list) {
                if (o.size() < 3 || apart(o, loaded) > rule.openingsWithin) continue;
                add(o, rule.longOpenings && list == &site.openings);
            }
    }
    bool any() const { return !sectors_.empty() || idle_; }
    bool dark(Point q) const {
        if (idle_ && std::abs(dot(q - idle_->middle, idle_->along)) < idle_->half) return true;
        const double a = std::atan2(q.y - middle_.y, q.x - middle_.x);
        return std::any_of(sectors_.begin(), sectors_.end(), [&](const Sector& s) {
            return std::abs(std::remainder(a - s.middle, 2 * pi)) < s.half;
        });
    }
    // Where the sides of sectors cross a piece, as shares of its length.
    void cuts(Point a, Point b, std::vector<double>& into) const {
        for (const Sector& s : sectors_)
            for (double side : {-1.0, 1.0}) {
                const double angle = s.middle + side * s.half;
                const Point far = middle_ + 1e6 * Point{std::cos(angle), std::sin(angle)};
                Point at;
                if (geometry::cross(a, b, middle_, far, &at))
                    into.push_back(geometry::length(a, at) / std::max(geometry::length(a, b), 1e-9));
            }
        if (!idle_) return;
        const double p = dot(a - idle_->middle, idle_->along), q = dot(b - idle_->middle, idle_->along);
        for (double side : {-idle_->half, idle_->half})
            if ((p - side) * (q - side) < 0) into.push_back((side - p) / (q - p));
    }

  private:
    struct Sector {
        double middle, half;
    };
    std::vector<Sector> sectors_;
    Point middle_;
    std::optional<Site::Idle> idle_;

    void add(const Ring& o, bool longer) {
        const Point to = geometry::inside(o) - middle_;
        const double middle = std::atan2(to.y, to.x);
        double low = 0, high = 0;
        auto reach = [&](Point q) {
            const double off = std::remainder(std::atan2(q.y - middle_.y, q.x - middle_.x) - middle, 2 * pi);
            low = std::min(low, off), high = std::max(high, off);
        };
        for (Point q : o) reach(q);
        if (longer) widen(o, {std::cos(middle), std::sin(middle)}, reach);
        sectors_.push_back({middle + (low + high) / 2, (high - low) / 2});
    }
    // An opening longer outwards than across: two points at its near end, as far apart as it counts to be wide.
    template <class Reach>
    void widen(const Ring& o, Point out, Reach reach) const {
        const Point across{-out.y, out.x};
        double near = 1e300, far = -1e300, left = 1e300, right = -1e300;
        for (Point q : o) {
            const double u = dot(q - middle_, out), v = dot(q - middle_, across);
            near = std::min(near, u), far = std::max(far, u);
            left = std::min(left, v), right = std::max(right, v);
        }
        const double length = far - near, width = right - left;
        if (length <= width || near <= 0) return;
        const double half = std::sqrt(length * width) / 2, mid = (left + right) / 2;
        for (double side : {-half, half}) reach(middle_ + near * out + (mid + side) * across);
    }
};

class Finder {
  public:
    Finder(const Site& site, const Rule& rule) : site_(site), rule_(rule) {
        slabs_ = site.slabs.size() > 1 ? geometry::unite(site.slabs) : site.slabs;
        loaded_ = site.loaded;
        // What overhangs the slab carries nothing.
        for (const Ring& slab : slabs_) {
            bool whole = true;
            for (Point p : site.loaded)
                whole &= geometry::contains(slab, p) && geometry::distanceToEdge(slab, p) > touch;
            for (Point p : slab) whole &= !geometry::contains(site.loaded, p);
            if (whole) break;
            // In a convex slab it stays one piece.
            const bool convex = slab.size() < 10 && geometry::convex(slab);
            auto parts = convex ? std::vector<Ring>{geometry::clipped(site.loaded, slab)}
                                : geometry::intersection(site.loaded, slab);
            if (convex) {
                auto& r = parts.front();
                r.erase(std::unique(r.begin(), r.end(),
                                    [](Point a, Point b) { return geometry::length(a, b) < 1e-6; }),
                        r.end());
                if (r.size() > 1 && geometry::length(r.front(), r.back()) < 1e-6) r.pop_back();
            }
            if (!parts.empty() && parts.front().size() > 2 && geometry::area(parts.front()) > 1)
                loaded_ = parts.front();
        }
        for (Point p : loaded_) middle_ = middle_ + (1.0 / double(loaded_.size())) * p;
        moveOut();
        findEdges();
    }

    std::vector<Perimeter> find() const {
        std::vector<Found> all;
        for (unsigned chosen = 0; chosen < 1u << edges_.size(); ++chosen)
            if (auto f = along(chosen); !f.line.paths.empty()) all.push_back(std::move(f));
        if (kinked_) taut(all);
        std::erase_if(all, [](const Found& f) { return cut(f.line); });
        std::stable_sort(all.begin(), all.end(),
                         [](const Found& p, const Found& q) { return p.length < q.length - 1e-6; });
        // The shortest of those that end square to edges alone, unless one that meets some edge a little
        // aslant is much shorter; of all where none is sound. Then others that are square, one for every
        // number of edges.
        const Found *square = nullptr, *sound = nullptr;
        for (const Found& f : all) {
            if (f.square && !square) square = &f;
            if (f.sound && !sound) sound = &f;
        }
        const Found* first = square && (!sound || square->length < 1.1 * sound->length) ? square
                             : sound                                                    ? sound
                             : all.empty()                                              ? nullptr
                                                                                        : &all.front();
        std::vector<Perimeter> out;
        if (!first) return out;
        std::set<std::size_t> ends{first->line.edges.size()};
        out.push_back(first->line);
        for (const Found& f : all)
            if (f.square && ends.insert(f.line.edges.size()).second) out.push_back(f.line);
        for (auto& p : out) shadow(p);
        return out;
    }

  private:
    // A line that encloses the area. Sound: it meets no edge aslant but those at which it was made to end.
    // Square: it meets no others at all, and without any it goes all round.
    struct Found {
        Perimeter line;
        double length = 0;
        bool sound = true, square = true;
    };
    const Site& site_;
    const Rule& rule_;
    std::vector<Ring> slabs_;
    Ring loaded_;
    Point middle_;
    Points outside_;        // of which the hull is the loaded area moved outwards
    bool ordered_ = false;  // as they stand they are that hull
    std::vector<Line> edges_;
    std::vector<std::pair<Point, Point>> near_;  // sides of the slab near by
    bool kinked_ = false;  // the slab turns near by, otherwise than at right angles

    // A straight line from one edge to another.
    static bool cut(const Perimeter& p) {
        return p.paths.size() == 1 && !p.closed() && std::abs(p.turning()) < 20;
    }

    void moveOut() {
        if (!rule_.rounded) {
            for (const Ring& r : geometry::offset(loaded_, rule_.distance))
                outside_.insert(outside_.end(), r.begin(), r.end());
            return;
        }
        // At every corner the arc between the normals of the sides that meet there, in steps of two degrees.
        const std::size_t n = loaded_.size();
        ordered_ = true;
        for (std::size_t i = 0; i < n; ++i) {
            auto normal = [&](std::size_t k) {
                const Point side = loaded_[(k + 1) % n] - loaded_[k % n];
                return std::atan2(-side.x, side.y);
            };
            const double from = normal(i + n - 1);
            double to = normal(i);
            while (to < from - 1e-9) to += 2 * pi;
            ordered_ &= to - from < pi;  // turns left
            auto add = [&](double a) {
                outside_.push_back(loaded_[i] + rule_.distance * Point{std::cos(a), std::sin(a)});
            };
            add(from);
            for (int k = int(std::floor(from * 90 / pi)) + 1; k * pi / 90 < to; ++k) add(k * pi / 90);
            add(to);
        }
    }

    // Free edges at which a perimeter might end: farther away going round is shorter.
    void findEdges() {
        double size = 0;
        for (Point p : loaded_) size = std::max(size, geometry::length(p, middle_));
        std::vector<std::pair<double, Line>> near;
        for (const Ring& slab : slabs_)
            for (std::size_t i = 0; i < slab.size(); ++i) {
                const Point a = slab[i], b = slab[(i + 1) % slab.size()];
                const double long_ = geometry::length(a, b);
                if (long_ < touch) continue;
                double away = std::numeric_limits<double>::max();
                for (Point p : loaded_) away = std::min(away, geometry::distance(p, a, b));
                if (away > 2 * size + 2.5 * rule_.distance) continue;
                near_.emplace_back(a, b);
                const Point c = slab[(i + 2) % slab.size()];
                const double turn = std::abs(std::remainder(
                    std::atan2(c.y - b.y, c.x - b.x) - std::atan2(b.y - a.y, b.x - a.x), pi / 2));
                if (turn > 0.01 && geometry::length(b, middle_) < 3 * size + 3 * rule_.distance)
                    kinked_ = true;
                const Line line{a, {-(b.y - a.y) / long_, (b.x - a.x) / long_}};
                auto known = std::find_if(near.begin(), near.end(),
                                          [&](const auto& n) { return n.second.same(line); });
                if (known == near.end())
                    near.emplace_back(away, line);
                else
                    known->first = std::min(known->first, away);
            }
        std::stable_sort(near.begin(), near.end(),
                         [](const auto& p, const auto& q) { return p.first < q.first; });
        for (std::size_t i = 0; i < near.size() && i < most; ++i) edges_.push_back(near[i].second);
    }

    // The shortest line that ends at the chosen edges: what of the hull of the area and its images in them
    // lies inside.
    Found along(unsigned chosen) const {
        Points all = outside_;
        std::vector<const Line*> lines;
        for (std::size_t i = 0; i < edges_.size(); ++i)
            if (chosen >> i & 1) lines.push_back(&edges_[i]);
        for (const Line* e : lines) {
            for (Point p : outside_) all.push_back(e->mirrored(p));
            for (const Line* f : lines)
                if (e != f)
                    for (Point p : outside_) all.push_back(e->mirrored(f->mirrored(p)));
        }
        // Round a convex area the points stand in order.
        const Ring ring = lines.empty() && ordered_ ? all : geometry::hull(all);
        Found out;
        out.line.outline = ring;
        for (const Line* l : lines) out.line.edges.push_back(l->normal);
        clip(ring, lines, out);
        if (lines.empty()) {
            out.sound &= out.line.paths.size() == 1;
            out.square &= out.line.closed();
        }
        out.length = out.line.length();
        return out;
    }

    // Lines that may end at any place of the slab's boundary: square to a side of it, or where it turns inwards.
    // From either end the line runs to the hull of the area moved outwards, which it then follows anticlockwise.
    // Mirror images say the same where edges are straight or meet at right angles.
    void taut(std::vector<Found>& into) const {
        const Ring hull = ordered_ ? outside_ : geometry::hull(outside_);
        const std::size_t n = hull.size();
        if (n < 3) return;
        std::vector<double> upTo(n + 1, 0);
        for (std::size_t i = 0; i < n; ++i)
            upTo[i + 1] = upTo[i] + geometry::length(hull[i], hull[(i + 1) % n]);
        struct End {
            Point at;
            std::size_t touch;
            double cost;
        };
        std::vector<End> starts, finishes;
        // The corner of the hull that has all of it on the left of a line along `way`; of two the first or the
        // last that is met going round.
        auto touching = [&](Point way, bool start) {
            const Point left{-way.y, way.x};
            std::size_t best = 0;
            for (std::size_t i = 1; i < n; ++i) {
                const double off = dot(hull[i] - hull[best], left);
                if (off < -1e-9 || (off < 1e-9 && dot(hull[i] - hull[best], way) * (start ? -1 : 1) > 0)) best = i;
            }
            return best;
        };
        for (const auto& [a, b] : near_) {
            const double long_ = geometry::length(a, b);
            const Point normal{-(b.y - a.y) / long_, (b.x - a.x) / long_};
            for (bool start : {true, false}) {
                const std::size_t k = touching(start ? normal : -1.0 * normal, start);
                const double off = dot(hull[k] - a, normal), t = dot(hull[k] - a, {normal.y, -normal.x});
                if (off <= touch || t < 0 || t > long_) continue;
                (start ? starts : finishes).push_back({hull[k] - off * normal, k, start ? off - upTo[k] : off + upTo[k]});
            }
        }
        for (const Ring& slab : slabs_)
            for (std::size_t i = 0, m = slab.size(); i < m; ++i) {
                const Point p = slab[(i + m - 1) % m], q = slab[i], r = slab[(i + 1) % m];
                if ((q.x - p.x) * (r.y - q.y) - (q.y - p.y) * (r.x - q.x) > -1e-6) continue;
                if (geometry::length(q, middle_) > 4 * rule_.distance + 1000 || geometry::contains(hull, q)) continue;
                for (bool start : {true, false}) {
                    for (std::size_t k = 0; k < n; ++k) {
                        const Point way = start ? hull[k] - q : q - hull[k], left{-way.y, way.x};
                        if (std::any_of(hull.begin(), hull.end(),
                                        [&](Point h) { return dot(h - hull[k], left) < -1e-6; }))
                            continue;
                        const double off = geometry::length(q, hull[k]);
                        (start ? starts : finishes).push_back({q, k, start ? off - upTo[k] : off + upTo[k]});
                        break;
                    }
                }
            }
        std::vector<std::tuple<double, std::size_t, std::size_t>> pairs;
        for (std::size_t s = 0; s < starts.size(); ++s)
            for (std::size_t f = 0; f < finishes.size(); ++f) {
                double all = starts[s].cost + finishes[f].cost;
                if (starts[s].touch > finishes[f].touch) all += upTo[n];
                pairs.emplace_back(all, s, f);
            }
        std::sort(pairs.begin(), pairs.end());
        for (const auto& [all, s, f] : pairs) {
            Path path{starts[s].at};
            for (std::size_t k = starts[s].touch;; k = (k + 1) % n) {
                path.push_back(hull[k]);
                if (k == finishes[f].touch) break;
            }
            path.push_back(finishes[f].at);
            Found out;
            out.line.paths = {path};
            out.length = all;
            if (cut(out.line) || !within(path)) continue;
            for (const auto* end : {&starts[s], &finishes[f]}) {
                const Point way = hull[end->touch] - end->at;
                out.line.edges.push_back((1 / std::max(1e-9, geometry::length({0, 0}, way))) * way);
            }
            // With what of the slab lies between the line and its edge.
            if (out.line.turning() < 179) {
                const double far = 4 * rule_.distance + 2000;
                path.insert(path.begin(), path.front() - far * out.line.edges.front());
                path.push_back(path.back() - far * out.line.edges.back());
            }
            if (geometry::length(out.line.edges[0], out.line.edges[1]) < 0.35) out.line.edges.pop_back();
            out.line.outline = geometry::hull(path);
            into.push_back(std::move(out));
            return;  // the shortest
        }
    }
    // A line that meets the slab's boundary at its ends alone, and itself nowhere.
    bool within(const Path& path) const {
        const std::size_t n = path.size();
        if (geometry::cross(path[0], path[1], path[n - 2], path[n - 1], nullptr) && n > 3) return false;
        for (std::size_t i = 0; i + 1 < n; ++i) {
            const Point way = path[i + 1] - path[i];
            const double long_ = geometry::length(path[i], path[i + 1]);
            if (long_ < 2 * touch) continue;
            const double off = touch / long_;
            const Point p = i == 0 ? path[i] + off * way : path[i],
                        q = i + 2 == n ? path[i + 1] - off * way : path[i + 1];
            bool in = false;
            for (const Ring& slab : slabs_) {
                in |= geometry::contains(slab, 0.5 * (p + q));
                for (std::size_t k = 0; k < slab.size(); ++k)
                    if (geometry::cross(p, q, slab[k], slab[(k + 1) % slab.size()], nullptr)) return false;
            }
            if (!in) return false;
        }
        return true;
    }

    void clip(const Ring& ring, const std::vector<const Line*>& lines, Found& into) const {
        auto& paths = into.line.paths;
        if (slabs_.empty()) {
            Path whole = ring;
            whole.push_back(ring.front());
            paths.push_back(std::move(whole));
            return;
        }
        std::vector<std::pair<Point, Point>> pieces;
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point a = ring[i], b = ring[(i + 1) % ring.size()];
            std::vector<double> cuts{0, 1};
            for (const Ring& slab : slabs_)
                for (std::size_t k = 0; k < slab.size(); ++k) {
                    const Point c = slab[k], d = slab[(k + 1) % slab.size()];
                    Point at;
                    if (!geometry::cross(a, b, c, d, &at)) continue;
                    const double t = geometry::length(a, at) / std::max(geometry::length(a, b), 1e-9);
                    cuts.push_back(t);
                    const bool known = std::any_of(lines.begin(), lines.end(), [&](const Line* l) {
                        return std::abs(l->off(c)) < touch && std::abs(l->off(d)) < touch;
                    });
                    const Point way = b - a, along_ = d - c;
                    const double turn = std::abs(way.x * along_.y - way.y * along_.x) /
                                        std::max(geometry::length(a, b) * geometry::length(c, d), 1e-9);
                    if (!known && turn < 0.7) into.sound = false;
                    if (!known) into.square = false;
                }
            std::sort(cuts.begin(), cuts.end());
            for (std::size_t k = 0; k + 1 < cuts.size(); ++k) {
                const Point p = a + cuts[k] * (b - a), q = a + cuts[k + 1] * (b - a), m = 0.5 * (p + q);
                if (geometry::length(p, q) < 1e-6) continue;
                bool in = false;
                for (const Ring& slab : slabs_)
                    in |= geometry::contains(slab, m) && geometry::distanceToEdge(slab, m) > 1e-6;
                if (in) pieces.emplace_back(p, q);
            }
        }
        for (const auto& [p, q] : pieces) {
            if (paths.empty() || geometry::length(paths.back().back(), p) > 1e-6) paths.push_back({p});
            paths.back().push_back(q);
        }
        // The first and the last piece may be one that was cut open where the ring begins.
        if (paths.size() > 1 && geometry::length(paths.back().back(), paths.front().front()) < 1e-6) {
            Path joined = std::move(paths.back());
            joined.insert(joined.end(), paths.front().begin() + 1, paths.front().end());
            paths.front() = std::move(joined);
            paths.pop_back();
        }
    }

    // Takes out what lies between the tangents to openings near by.
    void shadow(Perimeter& p) const {
        const Shadows shadows(site_, loaded_, rule_);
        if (!shadows.any()) return;
        std::vector<Path> light;
        for (const Path& path : p.paths) {
            bool last = false, open = false;
            for (std::size_t i = 0; i + 1 < path.size(); ++i) {
                const Point a = path[i], b = path[i + 1];
                std::vector<double> cuts{0, 1};
                shadows.cuts(a, b, cuts);
                std::sort(cuts.begin(), cuts.end());
                for (std::size_t k = 0; k + 1 < cuts.size(); ++k) {
                    const Point from = a + cuts[k] * (b - a), to = a + cuts[k + 1] * (b - a);
                    if (geometry::length(from, to) < 1e-9) continue;
                    const bool now = shadows.dark(0.5 * (from + to));
                    auto& into = now ? p.dead : light;
                    if (!open || now != last) into.push_back({from});
                    into.back().push_back(to);
                    last = now, open = true;
                }
            }
        }
        p.paths = std::move(light);
    }
};

template <class F>
void eachPiece(const std::vector<Path>& paths, F f) {
    for (const Path& path : paths)
        for (std::size_t i = 0; i + 1 < path.size(); ++i)
            f(path[i], path[i + 1], geometry::length(path[i], path[i + 1]));
}

}  // namespace

bool Perimeter::closed() const {
    return paths.size() == 1 && geometry::length(paths[0].front(), paths[0].back()) < touch;
}

double Perimeter::length() const {
    double sum = 0;
    eachPiece(paths, [&](Point, Point, double l) { sum += l; });
    return sum;
}

Point Perimeter::centroid() const {
    Point sum;
    eachPiece(paths, [&](Point a, Point b, double l) { sum = sum + (l / 2) * (a + b); });
    const double all = length();
    return all > 0 ? (1 / all) * sum : sum;
}

Perimeter::Moments Perimeter::moments(Point about, double angle) const {
    const Point way{std::cos(angle * pi / 180), std::sin(angle * pi / 180)};
    Moments m;
    m.reach[0] = std::numeric_limits<double>::max(), m.reach[1] = std::numeric_limits<double>::lowest();
    eachPiece(paths, [&](Point a, Point b, double l) {
        const double p = dot(a - about, way), q = dot(b - about, way);
        m.first += p * q >= 0 ? l * std::abs(p + q) / 2 : l * (p * p + q * q) / (2 * std::abs(q - p));
        m.second += l * (p * p + p * q + q * q) / 3;
        m.across += l > 0 ? (q - p) * (q - p) / l : 0;
        m.reach[0] = std::min({m.reach[0], p, q}), m.reach[1] = std::max({m.reach[1], p, q});
    });
    return m;
}

double Perimeter::product(Point about, double angle) const {
    const double r = angle * pi / 180;
    const Point one{std::cos(r), std::sin(r)}, other{-one.y, one.x};
    double sum = 0;
    eachPiece(paths, [&](Point a, Point b, double l) {
        const double p1 = dot(a - about, one), q1 = dot(b - about, one), p2 = dot(a - about, other),
                     q2 = dot(b - about, other);
        sum += l * (2 * p1 * p2 + 2 * q1 * q2 + p1 * q2 + q1 * p2) / 6;
    });
    return sum;
}

double Perimeter::turning() const {
    // Of the whole line, with what lies in shadow: its outline turns on where the slab is.
    double sum = 0;
    std::vector<Path> all = paths;
    all.insert(all.end(), dead.begin(), dead.end());
    if (closed()) return 360;
    Point last{0, 0};
    for (const Path& path : all) {
        last = {0, 0};
        for (std::size_t i = 0; i + 1 < path.size(); ++i) {
            const Point way = path[i + 1] - path[i];
            if (dot(way, way) < 1e-6) continue;
            if (dot(last, last) > 0) sum += std::atan2(last.x * way.y - last.y * way.x, dot(last, way));
            last = way;
        }
    }
    return sum * 180 / pi;
}

std::vector<Perimeter> perimeters(const Site& site, const Rule& rule) {
    return Finder(site, rule).find();
}

Perimeter perimeter(const Site& site, const Rule& rule) {
    auto all = perimeters(site, rule);
    return all.empty() ? Perimeter{} : std::move(all.front());
}

std::vector<char> shaded(const Site& site, const Rule& rule, const std::vector<Point>& points) {
    const Shadows shadows(site, site.loaded, rule);
    std::vector<char> out;
    for (Point p : points) out.push_back(shadows.dark(p));
    return out;
}

}  // namespace talvik::punching
