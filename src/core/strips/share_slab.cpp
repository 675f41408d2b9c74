#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <optional>

#include "strips/layer.h"

namespace talvik::strips {
namespace {

// Boundaries of one strip over a stretch of u: lower and upper v at both ends.
struct Stretch {
    double a, b, low[2], high[2];
};

class Sweep {
  public:
    explicit Sweep(const Layer& layer)
        : layer_(layer),
          lines_(layer.lines.lines()),
          slab_(layer.lines.slab()),
          low_(layer.lines.low()),
          high_(layer.lines.high()) {}

    std::vector<Strip> strips() {
        if (lines_.empty())
            whole();
        else
            sweep();
        std::vector<Strip> all;
        for (const auto& key : order_) {
            Strip& s = made_.at(key);
            s.parts = partsOf(stretches_.at(key));
            if (!s.parts.empty()) all.push_back(std::move(s));
        }
        return all;
    }

  private:
    const Layer& layer_;
    const std::vector<Chain>& lines_;
    const std::vector<Ring>& slab_;
    Point low_, high_;
    std::map<std::string, Strip> made_;
    std::map<std::string, std::vector<Stretch>> stretches_;
    std::vector<std::string> order_;

    std::string stripKey(const Id& line, const char* what) const {
        return fmt::format("{}{}/{}/{}", layer_.prefix, layer_.direction + 1, line, what);
    }
    Strip& strip(const std::string& key, Strip::Kind kind, const std::string& name) {
        auto found = made_.find(key);
        if (found != made_.end()) return found->second;
        order_.push_back(key);
        Strip s;
        s.kind = kind;
        s.key = key;
        s.name = (layer_.prefix.empty() ? "" : layer_.prefix + " ") + name;
        s.direction = layer_.direction;
        s.axes = layer_.lines.axes();
        s.otherAngle = layer_.otherAngle;
        return made_[key] = s;
    }
    std::optional<double> moved(const Chain& l, int side) const {
        for (const auto& e : layer_.floor.strips.edges)
            if (e.direction == layer_.direction && e.line == layer_.prefix + l.out.id && e.side == side)
                return e.offset;
        return std::nullopt;
    }

    // No line of supports: strips side by side over the whole width, none wider than about half the length.
    void whole() {
        double width = high_.y - low_.y, length = high_.x - low_.x;
        int n = std::max(1, int(std::ceil(width / std::max(2000.0, 0.6 * length) - 0.05)));
        for (int i = 0; i < n; ++i) {
            double a = low_.y + width * i / n, b = low_.y + width * (i + 1) / n;
            auto key = stripKey("whole", std::to_string(i + 1).c_str());
            Strip& s = strip(key, Strip::Kind::Whole,
                             fmt::format("{}{}", directionName(layer_.direction),
                                         n > 1 ? fmt::format("({})", i + 1) : ""));
            s.toNext[0] = s.toNext[1] = (b - a) / 2;
            s.edge[0] = i == 0, s.edge[1] = i + 1 == n;
            s.onLines = true;
            s.axis = {layer_.lines.axes().plan({low_.x - 1000, (a + b) / 2}),
                      layer_.lines.axes().plan({high_.x + 1000, (a + b) / 2})};
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
        for (const auto& r : slab_)
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
        for (const auto& r : slab_) {
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

    // The lines that share the slab at u, lowest first.
    std::vector<const Chain*> linesAt(double um, const std::vector<std::pair<double, double>>& slab) const {
        std::vector<const Chain*> here;
        for (const auto& l : lines_)
            if (l.start() <= um && um <= l.end()) here.push_back(&l);
        // A part of the slab that none of them comes near takes the line that ends nearest to it.
        for (auto [a, b] : slab) {
            bool near = std::any_of(here.begin(), here.end(), [&, a = a, b = b](const Chain* l) {
                return l->v(um) > a - 1500 && l->v(um) < b + 1500;
            });
            if (near) continue;
            const Chain* best = nullptr;
            double least = 1e300;
            for (const auto& l : lines_) {
                double du = std::max({l.start() - um, um - l.end(), 0.0}),
                       dv = std::max({a - l.v(um), l.v(um) - b, 0.0});
                if (du + dv < least) least = du + dv, best = &l;
            }
            if (best && std::find(here.begin(), here.end(), best) == here.end()) here.push_back(best);
        }
        if (here.empty()) {
            auto away = [um](const Chain& l) { return std::max({l.start() - um, um - l.end(), 0.0}); };
            here.push_back(
                &*std::min_element(lines_.begin(), lines_.end(),
                                   [&](const Chain& a, const Chain& b) { return away(a) < away(b); }));
        }
        std::stable_sort(here.begin(), here.end(),
                         [um](const Chain* a, const Chain* b) { return a->v(um) < b->v(um); });
        return here;
    }

    void share(double ua, double ub) {
        double um = (ua + ub) / 2;
        auto slab = section(um);
        auto here = linesAt(um, slab);
        // Bounds from below to above: (strip, v at ua, v at ub) where the strip begins.
        struct Bound {
            std::string key;
            double v[2];
        };
        std::vector<Bound> bounds;
        const bool full = layer_.floor.strips.rules.width == model::StripChoices::Width::Full;
        auto at = [&](const Chain& l, int e) { return l.v(e == 0 ? ua : ub); };
        auto bound = [&](const std::string& key, const Chain& from, double offset) {
            bounds.push_back({key, {at(from, 0) + offset, at(from, 1) + offset}});
        };
        auto own = [&](const Chain& l, bool wide) {
            auto key = stripKey(l.out.id, wide ? "full" : "column");
            Strip& s = strip(key, wide ? Strip::Kind::Full : Strip::Kind::Column,
                             directionName(layer_.direction) + l.out.label);
            s.line = layer_.prefix + l.out.id;
            s.onLines = l.onLines();
            s.alongBeam = l.beam, s.alongWall = l.wall;
            if (s.axis.empty())
                for (Point p : l.out.points) s.axis.push_back(layer_.lines.axes().plan(p));
            return key;
        };
        auto slabEdge = [&](const Chain& l, int side) {
            double v = l.v(um), best = v;
            for (auto [a, b] : slab)
                if (v >= a - 600 && v <= b + 600) best = side > 0 ? std::max(v, b) : std::min(v, a);
            return std::abs(best - v);
        };
        const double below = low_.y - 1000;
        for (std::size_t i = 0; i < here.size(); ++i) {
            const Chain& l = *here[i];
            const bool wide = full || l.fullWidth();
            std::string key = own(l, wide);
            Strip& s = made_.at(key);
            if (i == 0) {
                double over = slabEdge(l, -1), inner = layer_.half(l.spanAt(um), 2 * over);
                auto hand = moved(l, -1);
                if (!wide && (hand ? *hand < over - 50 : over > 0.75 * l.spanAt(um))) {
                    auto edgeKey = stripKey(l.out.id, "edge");
                    Strip& e = strip(edgeKey, Strip::Kind::Middle,
                                     fmt::format("{}edge-{}", directionName(layer_.direction), l.out.label));
                    e.line = layer_.prefix + l.out.id;
                    e.edge[0] = true, e.onLines = l.onLines();
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
                double over = slabEdge(l, 1), inner = layer_.half(l.spanAt(um), 2 * over);
                auto hand = moved(l, 1);
                s.edge[1] = true;
                s.toNext[1] = std::max(s.toNext[1], over);
                if (!wide && (hand ? *hand < over - 50 : over > 0.75 * l.spanAt(um))) {
                    auto edgeKey = stripKey(l.out.id, "middle");
                    Strip& e = strip(edgeKey, Strip::Kind::Middle,
                                     fmt::format("{}{}-edge", directionName(layer_.direction), l.out.label));
                    e.lineLeft = layer_.prefix + l.out.id;
                    e.edge[1] = true, e.onLines = l.onLines();
                    e.changed |= hand.has_value();
                    made_.at(key).changed |= hand.has_value();
                    bound(edgeKey, l, hand ? *hand : inner);
                }
                continue;
            }
            const Chain& n = *here[i + 1];
            const double gap = n.v(um) - l.v(um);
            s.toNext[1] = std::max(s.toNext[1], gap);
            const bool nextWide = full || n.fullWidth();
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
            // At both ends of the stretch, so that an edge runs on without steps where lines draw nearer.
            double h1[2], h2[2];
            for (int e : {0, 1}) {
                double g = std::max(at(n, e) - at(l, e), 0.0);
                h1[e] =
                    left ? std::clamp(*left, 50.0, std::max(g - 100, 50.0)) : layer_.half(l.spanAt(um), g);
                h2[e] =
                    right ? std::clamp(*right, 50.0, std::max(g - 100, 50.0)) : layer_.half(n.spanAt(um), g);
            }
            auto middleKey = stripKey(l.out.id, "middle");
            if ((h1[0] + h1[1] + h2[0] + h2[1]) / 2 > gap - 40) {
                double share = left ? h1[0] : right ? gap - h2[0] : gap / 2;
                bound(nextKey, l, share);
            } else {
                Strip& m = strip(middleKey, Strip::Kind::Middle,
                                 fmt::format("{}{}-{}", directionName(layer_.direction),
                                             smaller(n.out.label, l.out.label) ? n.out.label : l.out.label,
                                             smaller(n.out.label, l.out.label) ? l.out.label : n.out.label));
                m.lineLeft = layer_.prefix + l.out.id;
                m.line = layer_.prefix + n.out.id;
                m.toNext[0] = m.toNext[1] = std::max(m.toNext[0], gap / 2);
                m.changed |= left || right;
                m.onLines = l.onLines() && n.onLines();
                bounds.push_back({middleKey, {at(l, 0) + h1[0], at(l, 1) + h1[1]}});
                bounds.push_back({nextKey, {at(n, 0) - h2[0], at(n, 1) - h2[1]}});
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
        for (Point& p : axis) p = layer_.lines.axes().plan(p);
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
            for (Point p : low) ring.push_back(layer_.lines.axes().plan(p));
            for (auto p = high.rbegin(); p != high.rend(); ++p) ring.push_back(layer_.lines.axes().plan(*p));
            if (std::abs(geometry::area(ring)) < 100) continue;
            for (const auto& slab : layer_.domain)
                for (const auto& piece : geometry::intersection(slab, ring))
                    for (auto& part : layer_.cutters.empty() ? std::vector<Ring>{piece}
                                                             : geometry::difference(piece, layer_.cutters))
                        if (geometry::area(part) >= 100) parts.push_back(std::move(part));
        }
        std::stable_sort(parts.begin(), parts.end(),
                         [](const Ring& a, const Ring& b) { return geometry::area(a) > geometry::area(b); });
        return parts;
    }
};

}  // namespace

std::vector<Strip> shareSlab(const Layer& layer) {
    return Sweep(layer).strips();
}

}  // namespace talvik::strips
