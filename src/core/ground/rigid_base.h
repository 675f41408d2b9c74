// A rigid base on ground that pushes and does not pull: the pressure is a plane where it is positive and
// nothing beyond. Units N, mm, MPa; plan axes x, y; the base may have any outline.
#pragma once

#include <string>

#include "geometry/polygon.h"

namespace talvik::ground {

using geometry::Point;
using geometry::Ring;

// Downward force through the origin of the plan, and moments that move it to +x by Mx/N and to +y by My/N, N
// mm.
struct Resultant {
    double N = 0, alongX = 0, alongY = 0;
    Point at() const { return {alongX / N, alongY / N}; }
};

struct Pressure {
    // pressure = a + b x + c y, MPa, where that is positive.
    double a = 0, b = 0, c = 0;
    Ring contact;         // where it is; the whole base without uplift
    double share = 0;     // of the base in contact
    double largest = 0;   // at a corner
    std::string trouble;  // why there is none: the resultant leaves the base, and by how much
    double outside = 0;   // mm by which it leaves it; 0 within
    double at(Point p) const;
    bool good() const { return trouble.empty(); }
};

// Exact equilibrium of force and both moments: of all planes the one that makes 1/2 integral p^2 - N a - ...
// least (convex), by Newton steps with integrals over the exact polygon in contact. A resultant on the edge
// of the base or beyond has no answer with finite pressure; `trouble` says by how much it leaves the base.
Pressure pressure(const Ring& base, const Resultant& resultant);

// The same of a rectangle B by L about the origin, in closed form where all of it is in contact.
Pressure rectanglePressure(double B, double L, const Resultant& resultant);

// Of the pressure beyond a line across x (axis 0) or y (axis 1), on the side towards +axis or away from it:
// its sum, and its moment about that line, both positive upwards.
struct Beyond {
    double force = 0, moment = 0;
};
Beyond beyond(const Pressure& pressure, int axis, double at, bool positive);

// Part of a convex base on which a uniform pressure is centred on the resultant of a rectangle B by L (EN
// 1997-1 Annex D): B - 2 eB and L - 2 eL; not below 0.
struct EffectiveArea {
    double B = 0, L = 0;
    double area() const { return B * L; }
};
EffectiveArea effectiveArea(double B, double L, double eB, double eL);

// Smallest square, mm, whose largest edge pressure (no tension taken) and whose pressure on the effective
// area stay at an allowable value: column load and moments, weight of base and fill per area added to the
// load.
struct LeastSide {
    double byEdge = 0, byEffectiveArea = 0;
};
LeastSide leastSide(double N, double Mx, double My, double weight, double allowable);

// Sliding and overturning of a base: (N tan delta + adhesion B L) / H, and N B / 2 over the overturning
// moment.
struct Stability {
    double sliding = 0, overturning = 0;
};
Stability stability(double N, double H, double B, double L, double M, double tanDelta, double adhesion);

}  // namespace talvik::ground
