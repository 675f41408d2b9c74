#include "design/connection_sites.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <numeric>

#include "geometry/band.h"
#include "layout/placing.h"
#include "model/steps.h"

namespace talvik::design {
namespace {

using geometry::Point;
using geometry::Ring;
using standards::PunchingPlace;
using Kind = model::FloorLoad::Kind;

constexpr double far = 10;  // openings within so many thicknesses are looked at

double gap(const Ring& a, const Ring& b) {
    double least = 1e300;
    for (const auto* pair : {&a, &b}) {
        const Ring& other = pair == &a ? b : a;
        for (Point p : *pair)
            least = std::min(least, geometry::contains(other, p) ? 0 : geometry::distanceToEdge(other, p));
    }
    return least;
}

bool overlap(const Ring& a, const Ring& b) {
    return geometry::shared(a, b).area > 100;
}

class Finder {
  public:
    Finder(const model::Floor& floor, const standards::PunchingRules& rules, double toSteel)
        : floor_(floor), rules_(rules), toSteel_(toSteel), names_(layout::displayNames(floor)) {
        for (const auto& s : floor.slabs) areas_.push_back(model::ring(s.outline));
        slabs_ = areas_.size() > 1 ? geometry::unite(areas_) : areas_;
        for (const auto& s : floor.slabs) stepped_ |= s.level != floor.slabs.front().level;
        for (const auto& o : floor.openings) openings_.push_back(model::ring(o.outline));
        for (const auto& z : floor.zones) zones_.push_back(model::ring(z.outline));
    }

    std::vector<ConnectionSite> find() {
        for (const auto& c : floor_.columns) {
            if (!c.below && !c.above) continue;
            ConnectionSite s =
                made(c.id, c.circular ? geometry::round({c.x, c.y}, c.width) : model::footprint(c));
            if (!c.name.empty()) s.label = c.name;
            s.place.middle = {c.x, c.y}, s.place.angle = c.angle;
            s.place.c1 = c.width, s.place.c2 = c.circular ? c.width : c.depth, s.place.round = c.circular;
            carried(s, true);
            surround(s);
            if (s.without.empty()) shadedByWalls(s);
            if (!c.circular) {
                const double longer = std::max(c.width, c.depth), shorter = std::min(c.width, c.depth),
                             end = rules_.endThatCounts(longer, shorter,
                                                        depth(s.place.hasDrop() ? s.place.dropH : s.place.h));
                const double turn = (c.angle + (c.width < c.depth ? 90 : 0)) * std::numbers::pi / 180;
                if (end > 0 && longer > 2 * end)
                    s.place.site.idle = {{c.x, c.y}, {std::cos(turn), std::sin(turn)}, longer / 2 - end};
            }
            if (c.below && c.above)
                s.notes.push_back("The column continues above; its moments are those of both parts.");
            all_.push_back(std::move(s));
        }
        const std::size_t columns = all_.size();
        for (const auto& p : floor_.piles) {
            ConnectionSite s = made(p.id, geometry::round({p.x, p.y}, p.diameter));
            if (!p.name.empty()) s.label = p.name;
            s.place.middle = {p.x, p.y}, s.place.c1 = s.place.c2 = p.diameter, s.place.round = true;
            surround(s);
            all_.push_back(std::move(s));
        }
        walls();
        loads();
        joined(columns);
        return std::move(all_);
    }

  private:
    const model::Floor& floor_;
    const standards::PunchingRules& rules_;
    const double toSteel_;
    std::map<model::Id, std::string> names_;
    std::vector<Ring> areas_, slabs_, openings_, zones_;
    bool stepped_ = false;  // slabs lie at different levels
    std::vector<ConnectionSite> all_;

    ConnectionSite made(const model::Id& id, Ring loaded) const {
        ConnectionSite s;
        s.key = id, s.members = {id};
        const auto name = names_.find(id);
        s.name = s.label = name == names_.end() ? id : name->second;
        s.place.site.loaded = std::move(loaded);
        s.place.onGround = !floor_.grounds.empty();
        return s;
    }

    // Beams and walls through what is loaded: they take a share that is not told apart.
    void carried(ConnectionSite& s, bool column) const {
        auto through = [&](Point a, Point b) {
            const Ring& r = s.place.site.loaded;
            if (geometry::contains(r, a) || geometry::contains(r, b)) return true;
            for (std::size_t i = 0; i < r.size(); ++i)
                if (geometry::cross(a, b, r[i], r[(i + 1) % r.size()], nullptr)) return true;
            return false;
        };
        auto say = [&](const auto& list, const char* what) {
            for (const auto& m : list)
                if (s.without.empty() && through(m.a, m.b))
                    s.without = column
                                    ? fmt::format(
                                          "Not checked: a {} frames into this column, {}, and the share of "
                                          "shear in the {} is not determined.",
                                          what, m.name, what)
                                    : fmt::format("It stands over {} {}, which supports it.", what, m.name);
        };
        say(floor_.beams, "beam");
        say(floor_.walls, "wall");
        say(floor_.edges, "line support");
    }

    // Slabs that do not touch each other at a step are apart; those that do carry by what passes between
    // them.
    void level(ConnectionSite& s) const {
        const auto& slabs = floor_.slabs;
        std::size_t own = slabs.size();
        for (std::size_t i = slabs.size(); i-- > 0 && own == slabs.size();)
            if (geometry::contains(areas_[i], s.place.middle)) own = i;
        if (own == slabs.size()) return;
        std::vector<std::size_t> joined{own};
        for (std::size_t k = 0; k < joined.size(); ++k)
            for (std::size_t i = 0; i < slabs.size(); ++i)
                if (std::find(joined.begin(), joined.end(), i) == joined.end() &&
                    model::passing(slabs[joined[k]], slabs[i]) >= model::leastPassing &&
                    gap(areas_[joined[k]], areas_[i]) < 1)
                    joined.push_back(i);
        if (joined.size() == slabs.size()) return;
        std::vector<Ring> rings;
        for (std::size_t i : joined) rings.push_back(areas_[i]);
        s.place.site.slabs = rings.size() > 1 ? geometry::unite(rings) : rings;
        s.notes.push_back(
            "An adjacent slab is so much higher or lower that the two do not touch: the perimeter ends at "
            "the step.");
    }

    // Slab, openings, drop and thickness around.
    void surround(ConnectionSite& s) const {
        auto& p = s.place;
        p.site.slabs = slabs_;
        const Ring& loaded = p.site.loaded;
        if (stepped_) level(s);
        double here = 0;
        for (std::size_t i = 0; i < areas_.size(); ++i)
            if (geometry::contains(areas_[i], p.middle)) here = std::max(here, floor_.slabs[i].thickness);
        if (here == 0) {
            for (const auto& slab : floor_.slabs) here = std::max(here, slab.thickness);
        }
        const double reach = reach_(here);
        for (std::size_t i = 0; i < areas_.size() && stepped_; ++i)
            for (std::size_t k = 0; k < i; ++k) {
                const double both = model::passing(floor_.slabs[i], floor_.slabs[k]);
                if (both < model::leastPassing || both >= here || gap(areas_[i], loaded) >= reach ||
                    gap(areas_[k], loaded) >= reach || gap(areas_[i], areas_[k]) >= 1)
                    continue;
                s.notes.push_back(
                    fmt::format("A step of level lies within the perimeter: the {:.0f} mm that pass there "
                                "are used all round.",
                                both));
                here = both;
            }
        for (std::size_t i = 0; i < areas_.size(); ++i)
            if (floor_.slabs[i].thickness < here && gap(areas_[i], loaded) < reach) {
                s.notes.push_back(fmt::format(
                    "A slab of {:.0f} mm begins within the perimeter: its thickness is used all round.",
                    floor_.slabs[i].thickness));
                here = floor_.slabs[i].thickness;
            }
        std::size_t drop = zones_.size();
        for (std::size_t z = 0; z < zones_.size(); ++z) {
            bool whole = true;
            for (Point q : loaded)
                whole &= geometry::contains(zones_[z], q) || geometry::distanceToEdge(zones_[z], q) < 1 ||
                         std::none_of(slabs_.begin(), slabs_.end(),
                                      [&](const Ring& r) { return geometry::contains(r, q); });
            if (floor_.zones[z].thickness > here) {
                if (whole &&
                    (drop == zones_.size() || floor_.zones[z].thickness < floor_.zones[drop].thickness))
                    drop = z;
            } else if (whole || gap(zones_[z], loaded) < reach) {
                here = floor_.zones[z].thickness;
                s.notes.push_back(fmt::format(
                    "A zone of {:.0f} mm lies within the perimeter: its thickness is used all round.", here));
            }
        }
        p.h = here;
        if (drop < zones_.size()) {
            p.dropH = floor_.zones[drop].thickness;
            std::vector<Point> corners;
            for (const Ring& slab : slabs_)
                for (const auto& part : geometry::intersection(zones_[drop], slab))
                    if (gap(part, loaded) <= 0 || geometry::contains(part, p.middle))
                        corners.insert(corners.end(), part.begin(), part.end());
            p.drop = geometry::hull(corners);
        }
        for (std::size_t o = 0; o < openings_.size(); ++o) {
            if (gap(openings_[o], loaded) > far * std::max(here, p.dropH)) continue;
            p.site.openings.push_back(openings_[o]);
            if (s.without.empty() && overlap(openings_[o], loaded))
                s.without = fmt::format(
                    "Opening {} overlaps it at ({:.2f}, {:.2f}) m: no perimeter can be relied on. Move one "
                    "of them.",
                    floor_.openings[o].name, p.middle.x / 1000, p.middle.y / 1000);
        }
    }

    // Ends of walls, and corners at which two of them end: as much of the wall as lies within 1.5d counts,
    // beyond it the slab lies on the wall.
    void walls() {
        struct End {
            std::size_t wall;
            int which;
            Point at, back;  // back: unit vector along the wall, away from the end
        };
        std::vector<End> ends;
        for (std::size_t w = 0; w < floor_.walls.size(); ++w)
            for (int e : {0, 1}) {
                const auto& wall = floor_.walls[w];
                const Point a = e == 0 ? wall.a : wall.b, b = e == 0 ? wall.b : wall.a;
                const double length = geometry::length(a, b);
                if (length > 1) ends.push_back({w, e, a, {(b.x - a.x) / length, (b.y - a.y) / length}});
            }
        for (const End& end : ends) {
            const auto& wall = floor_.walls[end.wall];
            const double t = wall.thickness;
            // What goes on from the end: other walls, beams, columns.
            std::vector<const End*> meet;
            bool through = false;
            for (const End& o : ends)
                if (&o != &end &&
                    geometry::length(o.at, end.at) < (t + floor_.walls[o.wall].thickness) / 2 + 1)
                    meet.push_back(&o);
            for (std::size_t w = 0; w < floor_.walls.size(); ++w) {
                if (w == end.wall ||
                    std::any_of(meet.begin(), meet.end(), [&](const End* o) { return o->wall == w; }))
                    continue;
                through |= geometry::distance(end.at, floor_.walls[w].a, floor_.walls[w].b) <
                           (t + floor_.walls[w].thickness) / 2 + 1;
            }
            for (const auto& b : floor_.beams)
                through |= geometry::distance(end.at, b.a, b.b) < (t + b.width) / 2 + 1;
            for (const auto& c : floor_.columns)
                through |= geometry::contains(model::footprint(c), end.at) ||
                           geometry::distanceToEdge(model::footprint(c), end.at) < t / 2 + 1;
            if (through || meet.size() > 1) continue;
            if (meet.size() == 1) {
                // A corner, told once; not where the two go straight on, nor nearly back on each other.
                const End& o = *meet.front();
                const double turn = end.back.x * o.back.x + end.back.y * o.back.y;
                if (std::abs(turn) > 0.7 || &o < &end) continue;
                corner(end.wall, end.at, end.back, o.wall, o.back);
                continue;
            }
            wallEnd(end.wall, end.which, end.at, end.back);
        }
    }
    double depth(double h) const { return std::max(20.0, h - toSteel_); }
    double reach_(double h) const { return rules_.reach(depth(h)); }
    // How much of a wall counts as loaded.
    double pieceOf(std::size_t wall) const {
        double h = 0;
        for (const auto& s : floor_.slabs) h = std::max(h, s.thickness);
        return std::min(1.5 * depth(h), 0.5 * geometry::length(floor_.walls[wall].a, floor_.walls[wall].b));
    }
    // The slab on one side of a line: that to which `normal` points.
    static std::vector<Ring> half(const std::vector<Ring>& slabs, Point at, Point normal) {
        constexpr double wide = 1e6;
        const Point along{normal.y, -normal.x};
        const Ring side{{at.x - wide * along.x, at.y - wide * along.y},
                        {at.x + wide * normal.x - wide * along.x, at.y + wide * normal.y - wide * along.y},
                        {at.x + wide * normal.x + wide * along.x, at.y + wide * normal.y + wide * along.y},
                        {at.x + wide * along.x, at.y + wide * along.y}};
        Ring box = side;
        if (geometry::area(box) < 0) std::reverse(box.begin(), box.end());
        std::vector<Ring> all;
        for (const Ring& slab : slabs)
            for (auto& part : geometry::intersection(slab, box)) all.push_back(std::move(part));
        return all;
    }
    bool nearEdge(Point p, double within) const {
        bool in = false;
        double least = 1e300;
        for (const Ring& slab : slabs_) {
            in |= geometry::contains(slab, p);
            least = std::min(least, geometry::distanceToEdge(slab, p));
        }
        return !in || least < within;
    }
    void wallEnd(std::size_t w, int which, Point at, Point back) {
        const auto& wall = floor_.walls[w];
        const double t = wall.thickness, piece = pieceOf(w);
        if (nearEdge({at.x - back.x, at.y - back.y}, 150)) return;  // the wall runs up to the slab's edge
        ConnectionSite s = made(wall.id, {});
        s.key = wall.id + (which == 0 ? "/a" : "/b");
        s.label = (wall.name.empty() ? wall.id : wall.name) + (which == 0 ? " start" : " end");
        s.name += which == 0 ? ", start" : ", end";
        auto& p = s.place;
        p.of = PunchingPlace::Of::Wall;
        p.angle = std::atan2(back.y, back.x) * 180 / std::numbers::pi;
        p.middle = {at.x + back.x * piece / 2, at.y + back.y * piece / 2};
        p.c1 = piece, p.c2 = t;
        p.site.loaded = geometry::rectangle(p.middle, piece, t, p.angle);
        surround(s);
        p.site.slabs = half(p.site.slabs, {at.x + back.x * piece, at.y + back.y * piece}, {-back.x, -back.y});
        s.notes.push_back(
            "The end of a wall: the length within 1.5d counts; the force is the plate's shear along the "
            "perimeter.");
        all_.push_back(std::move(s));
    }
    void corner(std::size_t v, Point at, Point one, std::size_t w, Point other) {
        const auto &a = floor_.walls[v], &b = floor_.walls[w];
        const double piece = std::min(pieceOf(v), pieceOf(w));
        const Point outward{-(one.x + other.x), -(one.y + other.y)};
        const double length = std::hypot(outward.x, outward.y);
        if (nearEdge({at.x + outward.x / length * a.thickness, at.y + outward.y / length * a.thickness}, 150))
            return;
        ConnectionSite s = made(a.id, {});
        s.key = a.id + "+" + b.id;
        s.members.push_back(b.id);
        s.label = (a.name.empty() ? a.id : a.name) + ", " + (b.name.empty() ? b.id : b.name) + " corner";
        s.name = "Walls " + s.label;
        auto& p = s.place;
        p.of = PunchingPlace::Of::Wall;
        p.angle = std::atan2(one.y, one.x) * 180 / std::numbers::pi;
        std::vector<Point> corners;
        for (const auto& [way, t] : {std::pair(one, a.thickness), {other, b.thickness}})
            for (const Point& q :
                 geometry::rectangle({at.x + way.x * (piece - t / 2) / 2, at.y + way.y * (piece - t / 2) / 2},
                                     piece + t / 2, t, std::atan2(way.y, way.x) * 180 / std::numbers::pi))
                corners.push_back(q);
        p.site.loaded = geometry::hull(corners);
        p.middle = at;
        p.c1 = p.c2 = piece;
        surround(s);
        // The slab outside of the two walls, between the places where they stop to count.
        for (const auto& way : {one, other})
            p.site.slabs = half(p.site.slabs, {at.x + way.x * piece, at.y + way.y * piece}, {-way.x, -way.y});
        const double far_ = 1e6;
        Ring inside{at,
                    {at.x + far_ * one.x, at.y + far_ * one.y},
                    {at.x + far_ * (one.x + other.x), at.y + far_ * (one.y + other.y)},
                    {at.x + far_ * other.x, at.y + far_ * other.y}};
        if (geometry::area(inside) < 0) std::reverse(inside.begin(), inside.end());
        std::vector<Ring> left;
        for (const Ring& slab : p.site.slabs)
            for (auto& part : geometry::difference(slab, {inside})) left.push_back(std::move(part));
        p.site.slabs = std::move(left);
        s.notes.push_back(
            "The corner of two walls, on its outer side: the length of each within 1.5d counts; the force is "
            "the plate's shear along the perimeter.");
        all_.push_back(std::move(s));
    }

    // Walls and line supports inside the perimeter take some of the shear: what lies behind them does not
    // count.
    void shadedByWalls(ConnectionSite& s) const {
        const double reach = reach_(s.place.hasDrop() ? s.place.dropH : s.place.h);
        auto look = [&](const auto& list, const char* what, auto thickness) {
            for (const auto& m : list) {
                if (geometry::length(m.a, m.b) < 1) continue;
                const Ring ring = geometry::band(m.a, m.b, thickness(m));
                if (gap(ring, s.place.site.loaded) > reach) continue;
                s.place.site.bodies.push_back(ring);
                s.notes.push_back(fmt::format(
                    "{} {} is inside the perimeter: the perimeter beyond it does not count.", what, m.name));
            }
        };
        look(floor_.walls, "Wall", [](const auto& w) { return w.thickness; });
        look(floor_.edges, "Line support", [](const auto&) { return 20.0; });
    }

    void loads() {
        const auto& all = floor_.actions.loads;
        std::vector<const model::FloorLoad*> seen;
        for (const auto& l : all) {
            if (l.kind != Kind::Point || l.value <= 0) continue;
            const bool known = std::any_of(seen.begin(), seen.end(), [&](const auto* o) {
                return o->a == l.a && o->width == l.width && o->depth == l.depth;
            });
            if (known) continue;
            seen.push_back(&l);
            const bool foot = l.width > 0 && l.depth > 0;
            auto shown = l;
            if (!foot) shown.width = shown.depth = 1;
            ConnectionSite s = made(l.id, model::footprint(shown));
            s.place.of = PunchingPlace::Of::Load;
            s.place.middle = l.a, s.place.c1 = shown.width, s.place.c2 = shown.depth;
            const bool over = std::any_of(floor_.columns.begin(), floor_.columns.end(), [&](const auto& c) {
                return geometry::contains(model::footprint(c), l.a);
            });
            if (over) continue;  // goes straight into the column
            if (!foot)
                s.without = "Not checked: enter the load's footprint (width × depth).";
            else
                carried(s, false);
            surround(s);
            all_.push_back(std::move(s));
        }
    }

    // Columns whose perimeters overlap: one goes round them.
    void joined(std::size_t columns) {
        std::vector<std::size_t> group(columns);
        std::iota(group.begin(), group.end(), std::size_t(0));
        for (std::size_t i = 0; i < columns; ++i)
            for (std::size_t k = 0; k < i; ++k) {
                const auto &a = all_[i].place, &b = all_[k].place;
                if (!all_[i].without.empty() || !all_[k].without.empty()) continue;
                const double near = 2 * reach_(std::min(a.h, b.h));
                if (geometry::length(a.middle, b.middle) > near + a.c1 + a.c2 + b.c1 + b.c2) continue;
                if (gap(a.site.loaded, b.site.loaded) >= near) continue;
                const std::size_t from = group[i], to = group[k];
                for (auto& g : group)
                    if (g == from) g = to;
            }
        for (std::size_t g = 0; g < columns; ++g) {
            std::vector<std::size_t> together;
            for (std::size_t i = 0; i < columns; ++i)
                if (group[i] == g) together.push_back(i);
            if (together.size() < 2) continue;
            ConnectionSite s;
            std::vector<Point> corners;
            std::vector<std::string> names;
            for (std::size_t i : together) {
                const auto& one = all_[i];
                s.key += (s.key.empty() ? "" : "+") + one.key;
                s.members.push_back(one.members.front());
                names.push_back(one.label);
                corners.insert(corners.end(), one.place.site.loaded.begin(), one.place.site.loaded.end());
            }
            s.name = s.label = fmt::format("{} together", fmt::join(names, ", "));
            s.place.site.loaded = geometry::hull(corners);
            s.place.middle = geometry::centroid(s.place.site.loaded);
            s.place.angle = all_[together.front()].place.angle;
            s.place.onGround = !floor_.grounds.empty();
            const double r = s.place.angle * std::numbers::pi / 180;
            for (int k : {0, 1}) {
                double low = 1e300, high = -1e300;
                for (Point p : s.place.site.loaded) {
                    const double v = k == 0 ? p.x * std::cos(r) + p.y * std::sin(r)
                                            : p.y * std::cos(r) - p.x * std::sin(r);
                    low = std::min(low, v), high = std::max(high, v);
                }
                (k == 0 ? s.place.c1 : s.place.c2) = high - low;
            }
            surround(s);
            s.notes.push_back(
                "Their perimeters overlap: a common perimeter is checked as well as each of them.");
            all_.push_back(std::move(s));
        }
    }
};

}  // namespace

std::vector<ConnectionSite> connectionSites(const model::Floor& floor, const standards::PunchingRules& rules,
                                            double toSteel) {
    return Finder(floor, rules, toSteel).find();
}

}  // namespace talvik::design
