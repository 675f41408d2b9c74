#include "geometry/band.h"

#include <cmath>
#include <numbers>

namespace talvik::geometry {

Ring band(Point a, Point b, double width) {
    return rectangle({(a.x + b.x) / 2, (a.y + b.y) / 2}, length(a, b), width,
                     std::atan2(b.y - a.y, b.x - a.x) * 180 / std::numbers::pi);
}

}  // namespace talvik::geometry
