// Control perimeters of punching: the shortest line round a loaded area at a distance from it, closed or
// ending at free edges of the slab, less what openings nearby make ineffective. Plan coordinates, mm.
// Geometry alone: distances and corners come from the standard.
#pragma once

#include <optional>

#include "geometry/polygon.h"

namespace talvik::punching {

using geometry::Point;
using geometry::Ring;

// A loaded area with the slab around it.
struct Site {
    Ring loaded;  // convex, anticlockwise; round ones as polygons. What overhangs the slab does not count
    std::vector<Ring> slabs;     // outlines; what two share is no edge. Empty: slab without end
    std::vector<Ring> openings;  // holes: they make a sector ineffective where they lie near enough
    std::vector<Ring> bodies{};  // walls and the like: they make a sector ineffective as openings do
    // From where openings are seen; without, from the middle of what is loaded.
    std::optional<Point> from{};
    // Of a long loaded area whose ends count alone: what lies beside it within `half` of `middle`, along a unit
    // vector, is as ineffective as what lies behind an opening.
    struct Idle {
        Point middle, along;
        double half = 0;
        bool operator==(const Idle&) const = default;
    };
    std::optional<Idle> idle{};
    bool operator==(const Site&) const = default;
};
struct Rule {
    double distance = 0;        // from the loaded area
    bool rounded = true;        // corners as arcs, or sharp as those of the loaded area
    double openingsWithin = 0;  // of the loaded area: openings so near shadow the perimeter behind them
    // An opening that is longer outwards (l1) than across (l2) counts as sqrt(l1 l2) wide (EN 1992-1-1 Figure
    // 6.14).
    bool longOpenings = false;
};

// Straight pieces in plan; arcs in chords of two degrees at the most.
struct Perimeter {
    std::vector<std::vector<Point>> paths;  // what counts; a closed one ends where it begins
    std::vector<std::vector<Point>> dead;   // in the shadow of openings, or over them
    Ring outline;                           // convex: with the slab's edges it bounds the slab that is inside
    // Of the free edges at which it ends: unit vectors into the slab.
    std::vector<Point> edges;
    bool closed() const;  // all round; else it ends at free edges
    double length() const;
    // Of the line itself: its centroid, and about an axis through `about` at `angle` (degrees from x), per mm
    // of depth: the integral of the distance, of its square, and of the square of the direction's share along
    // the axis.
    Point centroid() const;
    struct Moments {
        double first = 0;          // of |e|, mm2
        double second = 0;         // of e2, mm3
        double across = 0;         // of cos2 of each piece to the direction in which e grows, mm
        double reach[2] = {0, 0};  // least and largest e
    };
    Moments moments(Point about, double angle) const;
    // By how much it turns from one end to the other, degrees: 360 all round, 180 at an edge, 90 at a corner,
    // 270 at a corner that looks inwards.
    double turning() const;
    // Integral of e1 e2, both along the directions of `moments` at `angle` and a right angle on.
    double product(Point about, double angle) const;
};

// Of all lines that enclose the loaded area at the distance or farther and end at right angles at free edges,
// the shortest. An opening within `openingsWithin` takes out what lies between the two tangents drawn to it
// from the middle of the loaded area (EN 1992-1-1 6.4.2(3), ACI 318-19 22.6.4.3). A straight cut from one edge
// to another is no such line: it is a section of one-way shear. Empty paths where nothing is left.
Perimeter perimeter(const Site& site, const Rule& rule);
// The shortest that goes all round, that ends at one edge, at two, at more; those there are, the shortest
// first.
std::vector<Perimeter> perimeters(const Site& site, const Rule& rule);

// Which points lie in the shadow of the openings that the rule looks at, or beside what is idle.
std::vector<char> shaded(const Site& site, const Rule& rule, const std::vector<Point>& points);

}  // namespace talvik::punching
