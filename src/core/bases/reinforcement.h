// Bars of a base as they lie: mats, starter bars of columns with their links, bars round the sides of caps. z
// upwards from the underside, x and y as in plan; mm.
#pragma once

#include "bases/strap.h"

namespace talvik::bases {

struct Point3 {
    double x = 0, y = 0, z = 0;
};
// Bars of one kind, and the middle line of each of them.
struct Laid {
    schedule::Item item;
    std::vector<std::vector<Point3>> lines;
};

// L-shaped bars that stand on the bottom mats and lap with those of a column above the base.
struct Starters {
    geometry::Point at;  // of the column
    double sides[2] = {0, 0};
    const catalogs::Bar* bar = nullptr;  // null: none that is allowed fits
    int along[2] = {2, 2};               // bars on a side along x, along y
    double need = 0;                     // mm2
    double tension = 0;                  // N, of all
    double strap = 0;                    // depth of a strap of another base that ends at the column
    int combination = -1, pulledIn = -1;
    int number() const { return bar ? 2 * (along[0] + along[1]) - 4 : 0; }
    double area() const { return bar ? bar->area * number() : 0; }
};

struct Reinforced {
    bool lines = true;  // wanted of each bar
    geometry::Point centre;
    double B = 0, L = 0, h = 0;
    std::array<Mat, 2> bottom, top;  // along x, along y
    double below = 0;                // from the underside to the bottom bars
    double pedestal = 0;             // height above the base
    std::vector<Starters> starters;
    bool sides = false;  // of a cap: the set's side bars
    double edge = 0;     // depth at the edges where that is less; 0: as deep as h
    StrapDesign strap;
    geometry::Point strapAt;             // its near column
    bool links = false;                  // of a cap: the set's links
    geometry::Ring outline;              // of a cap cut to its piles, from the centre; empty: the rectangle
    std::vector<geometry::Point> piles;  // of bands along their lines, from the centre
};
// Vertical links of a cap in plan: their legs along x (an even number) and y, and how far apart.
struct LinkGrid {
    const catalogs::Bar* bar = nullptr;  // null: the set has none
    int number[2] = {0, 0};
    double apart[2] = {0, 0};
    // Of all legs on the width, per mm along an axis.
    double area(int axis) const { return bar ? bar->area * number[1 - axis] / apart[axis] : 0; }
};
LinkGrid linkGrid(const Context& in, double B, double L);
// Of a mat on an outline that is no rectangle: where each of its bars lies across its axis, and from where to
// where along it; those that are shorter than half a metre are left out.
struct MatPlace {
    double at, from, to;
    bool beyond;
};
std::vector<MatPlace> matPlaces(const Context& in, const geometry::Ring& outline, const Mat& mat, int axis);
// Mats bottom first, then starters, links, bars of the sides.
std::vector<Laid> lay(const Context& in, const Reinforced& base);
// The same without their middle lines and places, for what they weigh.
std::vector<schedule::Item> items(const Context& in, const Reinforced& base);

// Of the bars that stand on a side of a column: none further apart than this.
inline constexpr double startersApart = 300;

}  // namespace talvik::bases
