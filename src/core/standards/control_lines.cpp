#include "standards/control_lines.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace talvik::standards {
namespace {

constexpr double longest = 1.05;  // of the shortest line

Position positionOf(const punching::Perimeter& line) {
    if (line.closed()) return Position::Interior;
    if (line.paths.size() > 1 && line.dead.empty()) return Position::Between;
    const double turn = line.turning();
    return turn < 135   ? Position::Corner
           : turn < 225 ? Position::Edge
           : turn < 340 ? Position::ReEntrant
                        : Position::Interior;
}

}  // namespace

double dot(geometry::Point a, geometry::Point b) {
    return a.x * b.x + a.y * b.y;
}
geometry::Point along(double angle) {
    const double r = angle * std::numbers::pi / 180;
    return {std::cos(r), std::sin(r)};
}
double extent(const geometry::Ring& ring, geometry::Point way) {
    double low = 1e300, high = -1e300;
    for (geometry::Point p : ring) low = std::min(low, dot(p, way)), high = std::max(high, dot(p, way));
    return high - low;
}

bool leavesDrop(const PunchingPlace& at, const punching::Perimeter& line) {
    if (!at.hasDrop()) return false;
    for (const auto& path : line.paths)
        for (geometry::Point p : path)
            if (!geometry::contains(at.drop, p) && geometry::distanceToEdge(at.drop, p) > 1) return true;
    return false;
}

ControlLine classed(punching::Perimeter line) {
    const double length = line.length();
    const Position position = positionOf(line);
    return {std::move(line), length, position};
}

std::vector<ControlLine> controlLines(const punching::Site& site, const punching::Rule& rule) {
    std::vector<ControlLine> all;
    for (auto& line : punching::perimeters(site, rule)) {
        ControlLine c = classed(std::move(line));
        if (c.length <= 0 || (!all.empty() && c.length > longest * all.front().length)) continue;
        if (std::any_of(all.begin(), all.end(), [&](const auto& o) { return o.position == c.position; }))
            continue;
        all.push_back(std::move(c));
    }
    return all;
}

}  // namespace talvik::standards
