#include "punching/legs.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>
#include <set>

namespace talvik::punching {
namespace {

using std::numbers::pi;

Point operator+(Point a, Point b) {
    return {a.x + b.x, a.y + b.y};
}
Point operator-(Point a, Point b) {
    return {a.x - b.x, a.y - b.y};
}
Point operator*(double k, Point a) {
    return {k * a.x, k * a.y};
}
double dot(Point a, Point b) {
    return a.x * b.x + a.y * b.y;
}
Point turned(Point a, double angle) {
    return {a.x * std::cos(angle) - a.y * std::sin(angle), a.x * std::sin(angle) + a.y * std::cos(angle)};
}

class Placer {
  public:
    Placer(const Site& site, double round, double angle, const LegPlan& plan)
        : site_(site), plan_(plan), round_(round), angle_(angle * pi / 180) {
        for (Point p : site.loaded) middle_ = middle_ + (1.0 / double(site.loaded.size())) * p;
    }

    Legs place() {
        if (round_ > 0)
            roundLines();
        else
            polygonLines();
        stand();
        measure();
        return std::move(out_);
    }

  private:
    const Site& site_;
    const LegPlan& plan_;
    double round_, angle_;
    Point middle_;
    std::vector<LegLine> wanted_;  // in order round the area; an empty direction parts what are no neighbours
    Legs out_;
    std::map<std::size_t, double> phase_;  // of each set of bars: 0 with a gap in the middle, 0.5 with a bar
    bool right_ = false;                   // there are lines beside corners: a grid
    std::set<std::size_t> gaps_;           // lines after which the next is no neighbour: an edge lies between

    double at(int perimeter) const { return plan_.first + perimeter * plan_.spacing; }
    double limit(int perimeter) const {
        return at(perimeter) <= plan_.inside + 1e-6 ? plan_.apart : plan_.apartOutside;
    }
    Point leg(const LegLine& line, int perimeter) const { return line.face + at(perimeter) * line.way; }
    bool near(const LegLine& a, const LegLine& b) const {
        for (int k = 0; k < plan_.perimeters; ++k)
            if (geometry::length(leg(a, k), leg(b, k)) > limit(k) + 1e-6) return false;
        return true;
    }
    // A pair stands off its line by half its breadth.
    double clear() const { return plan_.clear + plan_.across / 2 - 1e-6; }
    bool sound(Point p) const {
        bool in = site_.slabs.empty();
        for (const Ring& slab : site_.slabs)
            if (geometry::contains(slab, p) && geometry::distanceToEdge(slab, p) >= clear()) in = true;
        for (const auto* list : {&site_.openings, &site_.bodies})
            for (const Ring& o : *list)
                in = in && !geometry::contains(o, p) && geometry::distanceToEdge(o, p) >= clear();
        return in;
    }

    // Whether nothing parts two places: neither an edge of the slab nor an opening.
    bool open(Point p, Point q) const {
        for (const auto* list : {&site_.slabs, &site_.openings, &site_.bodies})
            for (const Ring& r : *list)
                for (std::size_t e = 0; e < r.size(); ++e)
                    if (geometry::cross(p, q, r[e], r[(e + 1) % r.size()], nullptr)) return false;
        return true;
    }

    void roundLines() {
        for (int n = 6; n <= 48; n += 2) {
            wanted_.clear();
            for (int i = 0; i < n; ++i) {
                const double a = angle_ + 2 * pi * i / n;
                const Point way{std::cos(a), std::sin(a)};
                wanted_.push_back({middle_ + round_ / 2 * way, way});
            }
            if (near(wanted_[0], wanted_[1])) return;
        }
    }

    void polygonLines() {
        const Ring& r = site_.loaded;
        const std::size_t n = r.size();
        std::vector<std::vector<LegLine>> sides(n);
        std::vector<Point> normals(n);
        for (std::size_t i = 0; i < n; ++i) {
            const Point a = r[i], b = r[(i + 1) % n];
            const double length = geometry::length(a, b);
            if (length < 1) continue;
            const Point along = 1 / length * (b - a);
            normals[i] = {along.y, -along.x};
            sides[i] = side(a, along, length, normals[i]);
        }
        for (std::size_t i = 0; i < n; ++i) {
            for (const auto& l : sides[i]) wanted_.push_back(l);
            if (sides[i].empty() && geometry::length(r[i], r[(i + 1) % n]) >= 1) wanted_.push_back({});
            const std::size_t next = (i + 1) % n;
            if (sides[i].empty() || sides[next].empty()) continue;
            const double turn = std::atan2(normals[i].x * normals[next].y - normals[i].y * normals[next].x,
                                           dot(normals[i], normals[next]));
            if (turn < 0.05) continue;
            if (plan_.grid && std::abs(turn - pi / 2) < 0.01 && !outward(normals[i]) &&
                !outward(normals[next])) {
                besideCorner(sides, normals, i, next, r);
                continue;
            }
            // As few lines out of the corner as keep all legs near enough.
            std::vector<LegLine> fan;
            for (int m = 0; m <= 12; ++m) {
                fan.assign(1, sides[i].back());
                for (int k = 1; k <= m; ++k) fan.push_back({r[next], turned(normals[i], turn * k / (m + 1))});
                fan.push_back(sides[next].front());
                bool good = true;
                for (std::size_t k = 0; k + 1 < fan.size(); ++k) good &= near(fan[k], fan[k + 1]);
                if (good) break;
            }
            wanted_.insert(wanted_.end(), fan.begin() + 1, fan.end() - 1);
        }
    }

    bool outward(Point way) const {
        return std::any_of(plan_.edges.begin(), plan_.edges.end(),
                           [&](Point e) { return dot(way, e) < -0.05; });
    }

    // Of a grid: the lines between those of two sides run along with those of one of them, every other side
    // in turn; between the bars where the lines of the side are.
    void besideCorner(const std::vector<std::vector<LegLine>>& sides, const std::vector<Point>& normals,
                      std::size_t i, std::size_t next, const Ring& r) {
        const bool own = i % 2 == 0;
        const Point way = own ? normals[i] : normals[next], off = own ? normals[next] : normals[i],
                    corner = r[next];
        const LegLine& last = own ? sides[i].back() : sides[next].front();
        std::vector<double> places;
        for (int j = 0; j < plan_.perimeters; ++j) places.push_back(at(j));
        auto fitted = places;
        const double apart = std::min(plan_.apart, plan_.apartOutside);
        for (std::size_t k = 0; k < plan_.bars.size(); ++k) {
            const auto& g = plan_.bars[k];
            const Point bars{std::cos(g.angle * pi / 180), std::sin(g.angle * pi / 180)};
            if (g.spacing <= 0 || std::abs(dot(bars, way)) < 0.9998 || !phase_.contains(k)) continue;
            const double middle = dot(middle_ - corner, off), phase = phase_.at(k),
                         room = std::max(0.0, (g.spacing - plan_.across) / 2 - 25);
            double before = dot(last.face - corner, off);
            for (double& t : fitted) {
                double n = std::round((t - middle) / g.spacing - phase);
                auto place = [&] {
                    const double gap = middle + (n + phase) * g.spacing;
                    return std::clamp(t, gap - room, gap + room);
                };
                while (place() < before + 40 + plan_.across) ++n;
                t = place();
                // As they were where bars stand too far apart.
                if (t - before > apart + 1e-6 ||
                    t - places[std::size_t(&t - fitted.data())] > plan_.spacing / 2 + 1e-6) {
                    fitted = places;
                    out_.fitted = false;
                    break;
                }
                before = t;
            }
        }
        std::vector<LegLine> lines;
        for (int j = 0; j < plan_.perimeters; ++j)
            lines.push_back({corner + fitted[std::size_t(j)] * off, way, 0, j});
        if (!own) std::reverse(lines.begin(), lines.end());
        wanted_.insert(wanted_.end(), lines.begin(), lines.end());
        right_ = true;
    }

    // Lines square to a side, within the stretch whose first legs stand in the slab.
    std::vector<LegLine> side(Point a, Point along, double length, Point normal) {
        constexpr double step = 5;
        double from = -1, to = -1;
        for (double t = 0; t <= length + 1e-6; t += step) {
            if (!sound(a + t * along + plan_.first * normal)) {
                if (from >= 0) break;
                continue;
            }
            if (from < 0) from = t;
            to = t;
        }
        if (from < 0) return {};
        const double inset = std::min(40.0, (to - from) / 4);
        from = std::max(from, std::min(inset, length / 2)),
        to = std::min(to, std::max(length - inset, length / 2));
        if (to < from) to = from = (from + to) / 2;
        const double apart = std::min(plan_.apart, plan_.apartOutside);
        // Between the bars that run along them; where their gaps are too far apart for that, evenly.
        for (bool fitted : {true, false})
            for (int n = to - from < 60 ? 1 : 2; n < 40; ++n) {
                std::vector<double> places;
                for (int k = 0; k < n; ++k)
                    places.push_back(n == 1 ? (from + to) / 2 : from + (to - from) * k / (n - 1));
                if (fitted) fit(places, a, along, normal, from, to);
                // The ends, too: the fans of the corners begin there.
                bool good = places.front() - from <= apart / 2 && to - places.back() <= apart / 2;
                for (std::size_t k = 0; k + 1 < places.size(); ++k)
                    good &= places[k + 1] - places[k] <= apart + 1e-6;
                if (!good) continue;
                std::vector<LegLine> lines;
                for (double t : places) lines.push_back({a + t * along, normal});
                return lines;
            }
        return {};
    }

    // Moves lines that run along bars into the gaps between them, with a bar or a gap in the middle,
    // whichever moves them less.
    void fit(std::vector<double>& places, Point a, Point along, Point normal, double from, double to) {
        for (std::size_t k = 0; k < plan_.bars.size(); ++k) {
            const auto& g = plan_.bars[k];
            const Point bars{std::cos(g.angle * pi / 180), std::sin(g.angle * pi / 180)};
            if (g.spacing <= 0 || std::abs(dot(bars, normal)) < 0.9998) continue;
            const double middle = dot(middle_ - a, along);
            auto moved = [&](double phase, double& most) {
                std::vector<double> all;
                most = 0;
                for (double t : places) {
                    double n = std::round((t - middle) / g.spacing - phase);
                    auto place = [&] { return middle + (n + phase) * g.spacing; };
                    if (place() < from - 1) ++n;
                    if (place() > to + 1) --n;
                    if (place() < from - 1) continue;  // no gap on this stretch
                    if (!all.empty() && place() <= all.back() + 1) continue;
                    most = std::max(most, std::abs(place() - t));
                    all.push_back(place());
                }
                return all;
            };
            // One way of setting the bars out, for all lines along them.
            if (!phase_.contains(k)) {
                double whole = 0, half = 0;
                const bool some = !moved(0, whole).empty(), other = !moved(0.5, half).empty();
                phase_[k] = some && (!other || whole <= half + 1e-6) ? 0 : 0.5;
            }
            double most = 0;
            if (auto best = moved(phase_[k], most); !best.empty()) places = std::move(best);
            return;
        }
    }

    void stand() {
        std::vector<Point> points;
        bool parted = false, first = false;  // no line stands before the next one, before the first one
        for (auto line : wanted_) {
            int n = 0;
            if (outward(line.way) || (line.way.x == 0 && line.way.y == 0)) {
                parted = true;
                continue;
            }
            while (n < plan_.perimeters && sound(leg(line, n)) &&
                   (n == 0 || open(leg(line, n - 1), leg(line, n))))
                ++n;
            if (n == 0) parted = true;
            if (n < plan_.least) continue;
            line.perimeters = n;
            if (parted && !out_.lines.empty()) gaps_.insert(out_.lines.size() - 1);
            if (parted && out_.lines.empty()) first = true;
            parted = false;
            for (int k = 0; k < n; ++k) {
                const Point p = leg(line, k), side{-line.way.y, line.way.x};
                for (double off : {-plan_.across / 2, plan_.across / 2}) {
                    out_.legs.push_back({p + off * side, std::max(k, line.beside), int(out_.lines.size())});
                    if (plan_.across <= 0) break;
                }
            }
            out_.lines.push_back(line);
        }
        if ((parted || first) && !out_.lines.empty()) gaps_.insert(out_.lines.size() - 1);
        for (const auto& l : out_.legs) points.push_back(l.at);
        const auto dark = shaded(site_, plan_.shaded, points);
        for (std::size_t i = 0; i < points.size(); ++i) out_.legs[i].counts = !dark[i];
    }

    void measure() {
        out_.perimeters = plan_.perimeters;
        std::vector<int> count(std::size_t(plan_.perimeters), 0);
        for (const auto& l : out_.legs) count[std::size_t(l.perimeter)] += l.counts;
        out_.fewest = count.empty() ? 0 : count.front();
        for (int k = 0; k < plan_.perimeters; ++k)
            if (at(k) <= plan_.inside + 1e-6) out_.fewest = std::min(out_.fewest, count[std::size_t(k)]);
        const auto& lines = out_.lines;
        if (right_) return measureGrid();
        for (std::size_t i = 0; i < lines.size() && lines.size() > 1; ++i) {
            if (gaps_.contains(i)) continue;
            const auto &a = lines[i], &b = lines[(i + 1) % lines.size()];
            for (int k = 0; k < std::min(a.perimeters, b.perimeters); ++k) {
                // Neighbours with slab between them: not across an edge or an opening.
                const Point p = leg(a, k), q = leg(b, k);
                if (!open(p, q)) continue;
                double& widest = at(k) <= plan_.inside + 1e-6 ? out_.widest : out_.widestOutside;
                widest = std::max(widest, geometry::length(p, q) - plan_.across);
            }
        }
    }

    // Rectangle after rectangle, in order round the middle; legs that could not stand part their neighbours.
    void measureGrid() {
        auto stands = [&](const LegLine& w, int k) {
            return std::any_of(out_.lines.begin(), out_.lines.end(), [&](const LegLine& l) {
                return l.face == w.face && l.way == w.way && k < l.perimeters;
            });
        };
        for (int ring = 0; ring < plan_.perimeters; ++ring) {
            struct Place {
                double angle;
                Point at;
                bool there;
            };
            std::vector<Place> round;
            for (const auto& w : wanted_) {
                if (w.way.x == 0 && w.way.y == 0) continue;
                for (int k = 0; k < plan_.perimeters; ++k) {
                    if (std::max(k, w.beside) != ring) continue;
                    const Point p = leg(w, k);
                    round.push_back(
                        {std::atan2(p.y - middle_.y, p.x - middle_.x), p, !outward(w.way) && stands(w, k)});
                }
            }
            std::sort(round.begin(), round.end(),
                      [](const Place& a, const Place& b) { return a.angle < b.angle; });
            double& widest = at(ring) <= plan_.inside + 1e-6 ? out_.widest : out_.widestOutside;
            for (std::size_t i = 0; i < round.size() && round.size() > 1; ++i) {
                const Place &a = round[i], &b = round[(i + 1) % round.size()];
                const double turn = std::remainder(b.angle - a.angle, 2 * pi);
                // A side without lines faces an edge.
                if (!a.there || !b.there || turn < 0 || turn > 1.75 || !open(a.at, b.at)) continue;
                widest = std::max(widest, geometry::length(a.at, b.at) - plan_.across);
            }
        }
    }
};

}  // namespace

Ring Legs::hull() const {
    std::vector<Point> all;
    for (const auto& l : legs)
        if (l.counts) all.push_back(l.at);
    return geometry::hull(all);
}

Legs placeLegs(const Site& site, double round, double angle, const LegPlan& plan) {
    return Placer(site, round, angle, plan).place();
}

}  // namespace talvik::punching
