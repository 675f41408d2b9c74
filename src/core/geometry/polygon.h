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

// How much of `whole` is covered by `parts`, and what is covered by more than one of them (areas in mm2).
// `error` names what is invalid and where; the areas are then zero.
struct Coverage {
    double whole = 0, uncovered = 0, overlapped = 0;
    std::string error;
};
Coverage coverage(const Ring& whole, const std::vector<Ring>& parts);

// Why a ring is not a simple polygon, with the place; empty when it is one.
std::string invalid(const Ring& ring);
// Area shared by two valid rings, or of `part` outside all of `wholes`, and a point inside it.
struct Patch {
    double area = 0;
    Point at;
};
Patch shared(const Ring& a, const Ring& b);
Patch outside(const Ring& part, const std::vector<Ring>& wholes);

bool contains(const Ring& ring, Point p);          // edges may count either way
double distanceToEdge(const Ring& ring, Point p);  // to the nearest point of the outline
double distance(Point p, Point a, Point b);        // from p to the segment a b

}  // namespace talvik::geometry
