#include "layout/connectivity.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <optional>

#include "layout/placing.h"

namespace talvik::layout {
namespace {

constexpr double joined = 0.5,
                 meant = 100;  // mm: below the first ends are joined, above the second a gap is meant

geometry::Ring plain(const model::Outline& o) {
    return model::ring(o);
}
model::Outline outline(const geometry::Ring& ring) {
    model::Outline o;
    for (Point p : ring) {
        // Clipped corners land on round hundredths, so that they meet again.
        Point q{std::round(p.x * 100) / 100, std::round(p.y * 100) / 100};
        if (o.empty() || std::hypot(o.back().x - q.x, o.back().y - q.y) > 1) o.push_back({q.x, q.y});
    }
    while (o.size() > 3 && std::hypot(o.back().x - o.front().x, o.back().y - o.front().y) <= 1) o.pop_back();
    return o;
}

class Finder {
  public:
    explicit Finder(const Floor& floor) : f_(floor) {
        for (const auto& s : f_.slabs) slabs_.push_back(plain(s.outline));
        for (const auto& o : f_.openings) openings_.push_back(plain(o.outline));
        for (const auto& c : f_.columns) columns_.push_back(footprint(c));
    }

    std::vector<LooseEnd> run() {
        overlaps();
        slabGaps();
        openings();
        zones();
        columns();
        lines(f_.beams, &Floor::beams, "beam");
        lines(f_.walls, &Floor::walls, "wall");
        lines(f_.edges, &Floor::edges, "line support");
        restingOnNothing();
        freeEdges();
        loads();
        return std::move(found_);
    }

  private:
    const Floor& f_;
    std::vector<geometry::Ring> slabs_, openings_, columns_;
    std::vector<LooseEnd> found_;

    template <class M>
    static std::string named(const char* kind, const M& m) {
        return std::string(kind) + " " + (m.name.empty() ? m.id : m.name);
    }
    LooseEnd& note(std::string message, Point at, std::vector<Id> ids, bool prevents) {
        return found_.emplace_back(LooseEnd{std::move(message), at, 0, std::move(ids), prevents, {}, {}});
    }
    bool onSlab(Point p, double tolerance) const {
        for (const auto& r : slabs_)
            if (geometry::contains(r, p) || geometry::distanceToEdge(r, p) <= tolerance) return true;
        return false;
    }
    static void removal(LooseEnd& e, const std::string& what, const Id& id) {
        e.mend = "Remove " + what;
        e.apply = [id](Project&, Floor& f) { layout::remove(f, {id}); };
    }
    // The outline of member `id` becomes the largest of `rings`.
    static void reshape(LooseEnd& e, std::string text, const Id& id,
                        const std::vector<geometry::Ring>& rings) {
        if (rings.empty() || geometry::area(rings.front()) < 1e5) return;
        model::Outline next = outline(rings.front());
        if (next.size() < 3 || !geometry::invalid(model::ring(next)).empty()) return;
        e.mend = std::move(text);
        e.apply = [id, next](Project&, Floor& f) {
            if (auto* o = outlineOf(f, id)) *o = next;
        };
    }

    void overlaps() {
        for (std::size_t i = 0; i < slabs_.size(); ++i)
            for (std::size_t k = 0; k < i; ++k) {
                auto both = geometry::shared(slabs_[k], slabs_[i]);
                if (both.area <= 1e4) continue;
                auto& e = note(fmt::format("{} lies over {} by {:.2f} m².", named("Slab", f_.slabs[i]),
                                           named("slab", f_.slabs[k]), both.area / 1e6),
                               both.at, {f_.slabs[i].id, f_.slabs[k].id}, true);
                auto left = geometry::difference(slabs_[i], {slabs_[k]});
                if (left.empty())
                    removal(e, named("slab", f_.slabs[i]), f_.slabs[i].id);
                else
                    reshape(e, fmt::format("Cut {} back to the edge", named("slab", f_.slabs[i])),
                            f_.slabs[i].id, left);
            }
    }
    void slabGaps() {
        for (std::size_t i = 0; i < slabs_.size(); ++i)
            for (std::size_t k = 0; k < slabs_.size(); ++k) {
                if (i == k) continue;
                const auto& o = f_.slabs[i].outline;
                for (std::size_t c = 0; c < o.size(); ++c) {
                    Point p{o[c].x, o[c].y};
                    double gap = geometry::distanceToEdge(slabs_[k], p);
                    if (gap <= joined || gap > meant || geometry::contains(slabs_[k], p)) continue;
                    auto& e = note(fmt::format("A corner of {} stops {:.0f} mm from {}.",
                                               named("slab", f_.slabs[i]), gap, named("slab", f_.slabs[k])),
                                   p, {f_.slabs[i].id, f_.slabs[k].id}, false);
                    e.gap = gap;
                    // Its corner, where one is near; else the nearest point of its edge.
                    std::optional<Point> to;
                    const auto& r = slabs_[k];
                    for (Point q : r)
                        if (geometry::length(p, q) <= meant) to = q;
                    double least = 1e300;
                    if (!to)
                        for (std::size_t s = 0; s < r.size(); ++s) {
                            Point q = geometry::nearest(p, r[s], r[(s + 1) % r.size()]);
                            if (double d = geometry::length(p, q); d < least) least = d, to = q;
                        }
                    model::Outline moved = o;
                    moved[c].x = to->x, moved[c].y = to->y;
                    bool apart =
                        geometry::invalid(plain(moved)).empty() && geometry::area(plain(moved)) > 1e5;
                    for (std::size_t s = 0; s < moved.size(); ++s)
                        apart = apart && std::hypot(moved[s].x - moved[(s + 1) % moved.size()].x,
                                                    moved[s].y - moved[(s + 1) % moved.size()].y) >= 1;
                    if (!apart) continue;
                    e.mend = "Move the corner onto the edge";
                    e.apply = [id = f_.slabs[i].id, c, q = *to](Project&, Floor& f) {
                        setHandle(f, id, c, q);
                    };
                }
            }
    }
    void openings() {
        for (std::size_t i = 0; i < openings_.size(); ++i) {
            const auto& o = f_.openings[i];
            if (auto beyond = geometry::outside(openings_[i], slabs_); beyond.area > 1e3) {
                auto& e = note(fmt::format("{} reaches {:.2f} m² beyond the slab.", named("Opening", o),
                                           beyond.area / 1e6),
                               beyond.at, {o.id}, true);
                std::vector<geometry::Ring> inside;
                for (const auto& s : slabs_)
                    for (auto& r : geometry::intersection(openings_[i], s))
                        if (inside.empty() || geometry::area(r) > geometry::area(inside.front()))
                            inside = {r};
                if (inside.empty())
                    removal(e, named("opening", o), o.id);
                else
                    reshape(e, "Cut the opening back to the slab", o.id, inside);
            }
            for (std::size_t c = 0; c < columns_.size(); ++c) {
                const auto& col = f_.columns[c];
                Point p{col.x, col.y};
                if (!geometry::contains(openings_[i], p) || geometry::distanceToEdge(openings_[i], p) <= 1)
                    continue;
                auto& e = note(fmt::format("{} lies over {}.", named("Opening", o), named("column", col)), p,
                               {o.id, col.id}, true);
                clear(e, i, col);
            }
        }
    }
    // Cuts an opening back to the side of a column that leaves most of it.
    void clear(LooseEnd& e, std::size_t opening, const model::Column& column) {
        double reach = (column.circular ? column.width : std::hypot(column.width, column.depth)) / 2 + 50;
        constexpr double far = 1e6;
        std::vector<geometry::Ring> best;
        for (auto [dx, dy] : {std::pair{1.0, 0.0}, {-1.0, 0.0}, {0.0, 1.0}, {0.0, -1.0}}) {
            Point m{column.x + dx * reach, column.y + dy * reach};
            Point along{-dy, dx};
            geometry::Ring half{{m.x - far * along.x, m.y - far * along.y},
                                {m.x + far * along.x, m.y + far * along.y},
                                {m.x + far * along.x + far * dx, m.y + far * along.y + far * dy},
                                {m.x - far * along.x + far * dx, m.y - far * along.y + far * dy}};
            if (geometry::area(half) < 0) std::reverse(half.begin(), half.end());
            auto left = geometry::intersection(openings_[opening], half);
            if (!left.empty() &&
                (best.empty() || geometry::area(left.front()) > geometry::area(best.front())))
                best = left;
        }
        reshape(e, "Cut the opening back clear of the column", f_.openings[opening].id, best);
        if (e.mend.empty()) removal(e, named("opening", f_.openings[opening]), f_.openings[opening].id);
    }
    void zones() {
        if (slabs_.empty()) return;
        for (const auto& z : f_.zones) {
            auto r = plain(z.outline);
            auto beyond = geometry::outside(r, slabs_);
            if (beyond.area < 0.999 * geometry::area(r)) continue;
            auto& e = note(fmt::format("{} lies beside every slab.", named("Thickness zone", z)), beyond.at,
                           {z.id}, false);
            removal(e, named("thickness zone", z), z.id);
        }
    }
    void columns() {
        for (std::size_t i = 0; i < f_.columns.size(); ++i) {
            const auto& c = f_.columns[i];
            Point p{c.x, c.y};
            for (std::size_t k = 0; k < i; ++k)
                if (geometry::length(p, {f_.columns[k].x, f_.columns[k].y}) < 1) {
                    auto& e = note(fmt::format("{} and {} stand at the same place.", named("Column", c),
                                               named("column", f_.columns[k])),
                                   p, {c.id, f_.columns[k].id}, true);
                    removal(e, named("column", c), c.id);
                }
            if (slabs_.empty()) continue;
            if (!onSlab(p, 1)) {
                Point to;
                double least = 1e300;
                for (const auto& r : slabs_)
                    for (std::size_t s = 0; s < r.size(); ++s) {
                        Point q = geometry::nearest(p, r[s], r[(s + 1) % r.size()]);
                        if (double d = geometry::length(p, q); d < least) least = d, to = q;
                    }
                auto& e = note(fmt::format("{} stands {:.0f} mm beside the slab.", named("Column", c), least),
                               p, {c.id}, true);
                e.gap = least;
                if (least <= 1000) {
                    e.mend = "Move the column onto the slab's edge";
                    e.apply = [id = c.id, to](Project&, Floor& f) { setHandle(f, id, 0, to); };
                } else {
                    removal(e, named("column", c), c.id);
                }
            } else if (c.above && !c.below) {
                bool carried = false;
                for (const auto& w : f_.walls)
                    carried |= geometry::distance(p, w.a, w.b) < w.thickness / 2 + 50;
                for (const auto& b : f_.beams) carried |= geometry::distance(p, b.a, b.b) < b.width / 2 + 50;
                if (carried) continue;
                auto& e = note(fmt::format("{} above stands on the slab alone: nothing is below it. Its load "
                                           "is to be given by hand.",
                                           named("Column", c)),
                               p, {c.id}, false);
                e.mend = "Continue the column below";
                e.apply = [id = c.id](Project&, Floor& f) {
                    for (auto& x : f.columns)
                        if (x.id == id) x.below = true;
                };
            }
        }
    }

    struct Target {
        std::string name;
        double gap = 1e300;
        Point to;
        Id id;
    };
    static bool near(Point p, Point a, Point b) {
        return p.x >= std::min(a.x, b.x) - meant && p.x <= std::max(a.x, b.x) + meant &&
               p.y >= std::min(a.y, b.y) - meant && p.y <= std::max(a.y, b.y) + meant;
    }
    // What holds or could hold the end of a line, within the largest gap of interest.
    Target nearestSupport(Point p, const Id& self) const {
        Target best;
        auto take = [&](double gap, Point to, std::string name, const Id& id) {
            if (gap < best.gap) best = {std::move(name), std::max(0.0, gap), to, id};
        };
        for (std::size_t i = 0; i < columns_.size(); ++i) {
            const auto& c = f_.columns[i];
            double reach = c.width + c.depth + meant;  // farther ones do not matter here
            if (std::abs(c.x - p.x) > reach || std::abs(c.y - p.y) > reach) continue;
            bool in = geometry::contains(columns_[i], p);
            take(in ? 0 : geometry::distanceToEdge(columns_[i], p), {c.x, c.y}, named("column", c), c.id);
        }
        auto along = [&](const auto& list, const char* kind) {
            for (const auto& m : list)
                if (m.id != self && near(p, m.a, m.b))
                    take(geometry::distance(p, m.a, m.b), geometry::nearest(p, m.a, m.b), named(kind, m),
                         m.id);
        };
        along(f_.walls, "wall");
        along(f_.beams, "beam");
        along(f_.edges, "line support");
        return best;
    }
    template <class List>
    void lines(const List& list, List Floor::*, const char* kind) {
        for (const auto& m : list) {
            Point ends[2] = {m.a, m.b};
            bool outside = false;
            for (int k = 0; k < 2 && !slabs_.empty(); ++k) outside |= !onSlab(ends[k], 1);
            if (outside) {
                trim(m, kind);
                continue;
            }
            if (std::string(kind) == "line support") continue;
            for (int k = 0; k < 2; ++k) {
                auto t = nearestSupport(ends[k], m.id);
                if (t.gap <= joined || t.gap > meant) continue;
                auto& e = note(fmt::format("{} ends {:.0f} mm short of {}.", named(kind, m), t.gap, t.name),
                               ends[k], {m.id, t.id}, false);
                e.message[0] = static_cast<char>(std::toupper(e.message[0]));
                e.gap = t.gap;
                if (geometry::length(ends[1 - k], t.to) < 60) continue;
                e.mend = fmt::format("Extend it to {}", t.name);
                e.apply = [id = m.id, k, to = t.to](Project&, Floor& f) {
                    setHandle(f, id, std::size_t(k), to);
                };
            }
        }
    }
    // Cuts a line that leaves the slab to its longest part on it.
    template <class M>
    void trim(const M& m, const char* kind) {
        std::vector<double> cuts{0, 1};
        double length = geometry::length(m.a, m.b);
        for (const auto& r : slabs_)
            for (std::size_t s = 0; s < r.size(); ++s)
                if (Point at; geometry::cross(m.a, m.b, r[s], r[(s + 1) % r.size()], &at))
                    cuts.push_back(geometry::length(m.a, at) / length);
        std::sort(cuts.begin(), cuts.end());
        auto at = [&](double u) { return Point{m.a.x + u * (m.b.x - m.a.x), m.a.y + u * (m.b.y - m.a.y)}; };
        double from = 0, to = 0, start = -1, end = -1;
        for (std::size_t i = 0; i + 1 < cuts.size(); ++i) {
            if (cuts[i + 1] - cuts[i] < 1e-9) continue;
            bool in = onSlab(at((cuts[i] + cuts[i + 1]) / 2), 1);
            if (in && start < 0) start = cuts[i];
            if (in) end = cuts[i + 1];
            if ((!in || i + 2 == cuts.size()) && start >= 0) {
                if (end - start > to - from) from = start, to = end;
                start = -1;
            }
        }
        Point off = onSlab(m.a, 1) ? m.b : m.a;
        auto& e = note(fmt::format("{} leaves the slab.", named(kind, m)), off, {m.id}, true);
        e.message[0] = static_cast<char>(std::toupper(e.message[0]));
        if ((to - from) * length < 60) return removal(e, named(kind, m), m.id);
        e.mend = "Cut it back to the slab";
        e.apply = [id = m.id, a = at(from), b = at(to)](Project&, Floor& f) {
            setHandle(f, id, 0, a);
            setHandle(f, id, 1, b);
        };
    }

    // The least distance from a point to anything that holds the slab.
    double toSupport(Point p) const {
        double least = 1e300;
        for (const auto& c : f_.columns)
            if (c.below) least = std::min(least, geometry::length(p, {c.x, c.y}));
        for (const auto& q : f_.piles) least = std::min(least, geometry::length(p, {q.x, q.y}));
        auto along = [&](const auto& list) {
            for (const auto& m : list) least = std::min(least, geometry::distance(p, m.a, m.b));
        };
        along(f_.walls);
        along(f_.edges);
        along(f_.beams);
        return least;
    }
    bool grounded(const geometry::Ring& slab) const {
        for (const auto& g : f_.grounds)
            if (g.outline.empty() || geometry::shared(slab, plain(g.outline)).area > 1e4) return true;
        return false;
    }
    void restingOnNothing() {
        for (std::size_t i = 0; i < slabs_.size(); ++i) {
            const auto& r = slabs_[i];
            if (grounded(r)) continue;
            bool held = false;
            auto on = [&](Point p) {
                held |= geometry::contains(r, p) || geometry::distanceToEdge(r, p) <= 1;
            };
            for (const auto& c : f_.columns)
                if (c.below) on({c.x, c.y});
            for (const auto& q : f_.piles) on({q.x, q.y});
            auto along = [&](const auto& list) {
                for (const auto& m : list) on(m.a), on(m.b), on({(m.a.x + m.b.x) / 2, (m.a.y + m.b.y) / 2});
            };
            along(f_.walls);
            along(f_.edges);
            along(f_.beams);
            for (std::size_t k = 0; k < slabs_.size(); ++k)  // a neighbour may hold it
                if (k != i)
                    for (Point p : r) held |= geometry::distanceToEdge(slabs_[k], p) <= joined;
            if (held) continue;
            Point middle{0, 0};
            for (Point p : r) middle.x += p.x / double(r.size()), middle.y += p.y / double(r.size());
            auto& e = note(fmt::format("{} is not supported.", named("Slab", f_.slabs[i])), middle,
                           {f_.slabs[i].id}, false);
            e.mend = "Support it along all its edges";
            e.apply = [r](Project& project, Floor& f) {
                for (std::size_t s = 0; s < r.size(); ++s)
                    if (geometry::length(r[s], r[(s + 1) % r.size()]) >= 60)
                        add(project, f, model::LineSupport{"", "", r[s], r[(s + 1) % r.size()]});
            };
        }
    }
    // Edges whose middle is farther from every support than a slab of that thickness cantilevers.
    void freeEdges() {
        for (std::size_t i = 0; i < slabs_.size(); ++i) {
            const auto& o = f_.slabs[i].outline;
            if (grounded(slabs_[i])) continue;
            double reach = 12 * f_.slabs[i].thickness;
            for (std::size_t s = 0; s < o.size(); ++s) {
                if (o[s].bulge != 0) continue;
                Point a{o[s].x, o[s].y}, b{o[(s + 1) % o.size()].x, o[(s + 1) % o.size()].y};
                if (geometry::length(a, b) < 1000) continue;
                Point m{(a.x + b.x) / 2, (a.y + b.y) / 2};
                bool inner = false;  // along a neighbour
                for (std::size_t k = 0; k < slabs_.size(); ++k)
                    if (k != i)
                        inner |= geometry::contains(slabs_[k], m) ||
                                 geometry::distanceToEdge(slabs_[k], m) <= joined;
                double least = 1e300;  // of the whole edge
                for (int t = 0; t <= 8; ++t)
                    least = std::min(least,
                                     toSupport({a.x + t / 8.0 * (b.x - a.x), a.y + t / 8.0 * (b.y - a.y)}));
                if (inner || least <= reach || least > 1e299) continue;
                auto& e = note(fmt::format("An edge of {} is {:.1f} m from the nearest support.",
                                           named("slab", f_.slabs[i]), least / 1000),
                               m, {f_.slabs[i].id}, false);
                e.gap = least;
                e.mend = "Support this edge by a line support";
                e.apply = [a, b](Project& project, Floor& f) {
                    add(project, f, model::LineSupport{"", "", a, b});
                };
            }
        }
    }
    void loads() {
        if (slabs_.empty()) return;
        using Kind = model::FloorLoad::Kind;
        for (const auto& l : f_.actions.loads) {
            std::string name = displayName(f_, l.id);
            if (l.kind == Kind::Line) {
                bool off = !onSlab(l.a, 1) || !onSlab(l.b, 1);
                if (!off) continue;
                struct Named {
                    Id id;
                    std::string name;
                    Point a, b;
                } m{l.id, "", l.a, l.b};
                trim(m, "line load");
                found_.back().message = name + " leaves the slab.";
            } else if (l.kind == Kind::Area) {
                if (l.outline.empty()) continue;
                auto r = plain(l.outline);
                auto beyond = geometry::outside(r, slabs_);
                if (beyond.area <= 0.001 * geometry::area(r)) continue;
                auto& e = note(fmt::format("{}: {:.2f} m² of it lie beside the slab and are not counted.",
                                           name, beyond.area / 1e6),
                               beyond.at, {l.id}, beyond.area > 0.999 * geometry::area(r));
                std::vector<geometry::Ring> inside;
                for (const auto& s : slabs_)
                    for (auto& part : geometry::intersection(r, s))
                        if (inside.empty() || geometry::area(part) > geometry::area(inside.front()))
                            inside = {part};
                if (inside.empty())
                    removal(e, "the load", l.id);
                else if (slabs_.size() == 1)
                    reshape(e, "Cut the load back to the slab", l.id, inside);
            } else {
                bool hole = false;
                for (const auto& r : openings_)
                    hole |= geometry::contains(r, l.a) && geometry::distanceToEdge(r, l.a) > 1;
                if (onSlab(l.a, 1) && !hole) continue;
                auto& e = note(name + (hole ? " stands in an opening." : " stands beside every slab."), l.a,
                               {l.id}, true);
                removal(e, "the load", l.id);
            }
        }
    }
};

}  // namespace

std::vector<LooseEnd> looseEnds(const Floor& floor) {
    return Finder(floor).run();
}

}  // namespace talvik::layout
