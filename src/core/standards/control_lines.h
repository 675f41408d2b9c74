// Control sections shared by the standards: which lines round a connection might govern, and their class.
#pragma once

#include "standards/punching_rules.h"

namespace talvik::standards {

double dot(geometry::Point a, geometry::Point b);
geometry::Point along(double angle);  // unit vector; degrees
// Breadth of a ring along a unit vector.
double extent(const geometry::Ring& ring, geometry::Point way);

// Whether a line lies outside of the drop somewhere: there the slab's depth counts.
bool leavesDrop(const PunchingPlace& at, const punching::Perimeter& line);

// A line with its length and class.
struct ControlLine {
    punching::Perimeter line;
    double length;
    Position position;
};
ControlLine classed(punching::Perimeter line);
// The shortest of each class, and none much longer than the first: where a rim is so thin that two are about
// as long, its class is in doubt and both are looked at.
std::vector<ControlLine> controlLines(const punching::Site& site, const punching::Rule& rule);

}  // namespace talvik::standards
