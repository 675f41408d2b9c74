// Where legs of shear steel stand round a loaded area: on lines square to its sides, fanned at its corners or
// parallel to the sides there, and as perimeters at equal distances from it. Plan mm.
#pragma once

#include "punching/perimeter.h"

namespace talvik::punching {

// Bars of one direction between which lines of legs run that lie along them; they are set out from the middle
// of what is loaded, with a bar or a gap there.
struct BarGrid {
    double angle = 0, spacing = 0;  // degrees, mm; 0: none
};
struct LegPlan {
    double first = 0, spacing = 0;  // of the first perimeter from the face; from one to the next
    int perimeters = 2;
    // Largest distance of neighbouring legs of a perimeter within `inside` of the face, and beyond.
    double apart = 0, apartOutside = 0, inside = 0;
    double clear = 0;   // least from edges and openings to a leg
    double across = 0;  // legs that stand in pairs, so far apart; 0: single
    Rule shaded{};      // which openings take legs in their shadow out of the count
    int least = 1;      // legs on a line, or none of them
    // At corners of a right angle lines parallel to those of the sides, in place of a fan: legs stand on a
    // grid, and the k-th perimeter is the k-th rectangle. Of round ones and other corners fans remain.
    bool grid = false;
    std::vector<BarGrid> bars;
    // Of free edges at which the control perimeter ends, unit vectors into the slab: no line goes out to
    // them.
    std::vector<Point> edges;
};
struct Leg {
    Point at;
    int perimeter = 0, line = 0;
    bool counts = true;  // not in the shadow of an opening
};
struct LegLine {
    Point face, way;  // from where on the face (of a grid beside a corner: level with it), and the direction
    int perimeters = 0;
    int beside = -1;  // of a grid: beside a corner, by as much as this perimeter is away
};
struct Legs {
    std::vector<Leg> legs;
    std::vector<LegLine> lines;
    double widest = 0;         // largest distance of neighbours along a perimeter within `inside`
    double widestOutside = 0;  // and beyond
    int fewest = 0;            // legs that count, of the perimeters within `inside` the one with the fewest
    int perimeters = 0;
    bool fitted = true;  // lines beside corners of a grid stand between the bars along them
    // Around the outermost legs that count.
    Ring hull() const;
};
// `round`: what is loaded is a circle of this diameter; 0 for a polygon. `angle`: of the first line round a
// circle.
Legs placeLegs(const Site& site, double round, double angle, const LegPlan& plan);

}  // namespace talvik::punching
