// Piles below a rigid cap, and what the cap carries to them. Units N, mm, MPa.
#pragma once

#include <vector>

#include "geometry/polygon.h"

namespace talvik::ground {

using geometry::Point;

// Downward force at the origin; moments that load piles at +x and at +y.
struct CapLoad {
    double N = 0, alongX = 0, alongY = 0;
};
// Reactions of equal elastic piles under a rigid cap, N, compression positive, in their order: N/n plus the
// shares of the moments about the centroid of the piles, with their product of inertia. Piles in one line
// carry no moment across it: that is left out, and `acrossLeft` says how much there is.
struct PileReactions {
    std::vector<double> all;
    double most = 0, least = 0, acrossLeft = 0;
};
PileReactions reactions(const std::vector<Point>& piles, const CapLoad& load);
// The largest and least reaction where the whole group may stand off by `tolerance` in x and y at once: the
// force acts so far off the origin, with every combination of signs, and the place as drawn; of piles in a
// line along that line only.
struct Extremes {
    double most = 0, least = 0;
};
Extremes withTolerance(const std::vector<Point>& piles, const CapLoad& load, double tolerance);
// Moment of a cap at the worse face of a column of this size, bending theory: reactions beyond the face times
// their distance from it. For bars along x; along y with x and y exchanged.
double faceMoment(const std::vector<Point>& piles, const std::vector<double>& reactions, double columnX);

// Strut and tie of a cap on two, three or four piles (EN 1992-1-1 6.5.3): the force in one tie (two piles:
// the tie; three: along one side; four: one of the two of a direction), z from the tie to the node below the
// column. Struts start a quarter of the column's side off its middle, or in the middle.
double tieForce(int piles, double N, double spacing, double z, double column, bool fromMiddle);

// Two piles with the height of the node below the column from its stress (EN 1992-1-1 6.5.4(4)a with
// gamma_c 1.5 and alpha_cc 1: (1 - fck/250) fck / 1.5).
struct TwoPileTie {
    double force = 0, z = 0, node = 0;  // N, mm, mm
};
TwoPileTie twoPileTie(double N, double spacing, double d, double column, double columnAcross, double fck);

// A footing on two columns under uniform pressure (statics; column loads act as line loads at the columns'
// middles).
struct TwoColumns {
    double N1 = 0, N2 = 0, apart = 0, a1 = 0;  // loads; distance; from the fixed left end to the first
    double c1 = 0, c2 = 0, d = 0, allowable = 0;
};
struct TwoColumnFooting {
    double resultant = 0, length = 0, a2 = 0, width = 0, load = 0;  // mm, mm, mm, mm, N/mm
    double zeroShear = 0, largest = 0;                      // where, and the moment there (hogging negative)
    double outer1 = 0, inner1 = 0, inner2 = 0, outer2 = 0;  // moments at the faces
    double left1 = 0, right1 = 0, left2 = 0, right2 = 0;    // shears beside the columns' middles
    double at1 = 0, at2 = 0;                                // at d from the inner faces
};
TwoColumnFooting twoColumnFooting(const TwoColumns& in);

}  // namespace talvik::ground
