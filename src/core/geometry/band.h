// The plan of what runs along a line with a width: a wall, a beam.
#pragma once

#include "geometry/polygon.h"

namespace talvik::geometry {

// A rectangle with the middle line a b.
Ring band(Point a, Point b, double width);

}  // namespace talvik::geometry
