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

}  // namespace talvik::geometry
