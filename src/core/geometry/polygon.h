// Polygons in plan, mm. Set operations go through GEOS (chosen over Boost.Geometry and Clipper because it
// reports invalid input with its place, offsets with real distances, and compiles behind a C interface in no
// time).
#pragma once

#include <string>
#include <vector>

namespace talvik::geometry {

struct Point {
    double x = 0, y = 0;
    bool operator==(const Point&) const = default;
};
using Ring = std::vector<Point>;  // closed implicitly: the last point is not the first

double area(const Ring& ring);  // positive counter-clockwise
Point centroid(const Ring& ring);
// Of sides a and b, the first turned from the x axis; and a polygon with the circle of this diameter round
// it.
Ring rectangle(Point centre, double a, double b, double degrees = 0);
Ring round(Point centre, double diameter, int sides = 72);
// Whether it turns left at every corner, once round.
bool convex(const Ring& ring);
// What of a ring lies in a convex one, both anticlockwise. Parts of it may hang together along the convex
// one's sides, which changes neither area nor centroid.
Ring clipped(const Ring& ring, const Ring& convex);

// Why a ring is not a simple polygon, with the place; empty when it is one.
std::string invalid(const Ring& ring);
// Area shared by two valid rings, or of `part` outside all of `wholes`, and a point inside it.
struct Patch {
    double area = 0;
    Point at;
};
Patch shared(const Ring& a, const Ring& b);
Patch outside(const Ring& part, const std::vector<Ring>& wholes);

// Set operations; the answers are outlines without holes (what has one is cut in two through it),
// anticlockwise, largest first, slivers under 1 mm2 left out. An outline that crosses or repeats itself
// stands for the area that it winds round (see `invalid` for where); one with fewer than three corners has
// none.
std::vector<Ring> intersection(const Ring& a, const Ring& b);
std::vector<Ring> difference(const Ring& a, const std::vector<Ring>& b);
// Moved outwards (inwards where negative) by a distance, corners kept sharp.
std::vector<Ring> offset(const Ring& ring, double distance);
// The least convex outline that holds all points, anticlockwise; empty where they lie on a line.
Ring hull(const std::vector<Point>& points);
// The outlines of all of them together; what touches along a side becomes one.
std::vector<Ring> unite(const std::vector<Ring>& rings);
// What of `wholes`, less `holes`, is in none of `parts`; and where two parts share area, with their numbers.
// Patches under `least` mm2 are rounding and left out.
struct Cover {
    double whole = 0;  // area of the wholes less the holes
    std::vector<Ring> gaps;
    struct Overlap {
        std::size_t a, b;
        std::vector<Ring> patch;
    };
    std::vector<Overlap> overlaps;
};
Cover cover(const std::vector<Ring>& wholes, const std::vector<Ring>& holes, const std::vector<Ring>& parts,
            double least = 100);
Point inside(const Ring& ring);  // a point in the interior of a valid ring
struct Segment {
    Point a, b;
    bool operator==(const Segment&) const = default;
};
// The faces into which segments divide the plane; they may cross. Loose ends bound nothing.
std::vector<Ring> faces(const std::vector<Segment>& segments);

bool contains(const Ring& ring, Point p);          // edges may count either way
double distanceToEdge(const Ring& ring, Point p);  // to the nearest point of the outline
double distance(Point p, Point a, Point b);        // from p to the segment a b
double length(Point a, Point b);
Point nearest(Point p, Point a, Point b);  // of the segment a b
// Where two segments cross or touch; false when they do not or run along each other.
bool cross(Point a, Point b, Point c, Point d, Point* at);

// Points along an arc from a to b, without its ends: `bulge` is the tangent of a quarter of its angle,
// positive anticlockwise; chords leave the arc by `tolerance` at the most. None along a straight line.
std::vector<Point> alongArc(Point a, Point b, double bulge, double tolerance);

}  // namespace talvik::geometry
