// How caps look on plan: standard arrangements of piles, and outlines that follow them. mm.
#pragma once

#include <vector>

#include "geometry/polygon.h"
#include "model/bases.h"

namespace talvik::bases {

// Centres of n piles, nearest ones `spacing` apart, about their middle: a row, a triangle, a square, five
// with one in the middle, rows; empty where this number has no standard arrangement.
std::vector<geometry::Point> pileArrangement(int n, double spacing);
// The numbers that have one, rising.
const std::vector<int>& pileNumbers();

// The convex outline whose sides are parallel to the outer rows of piles, `edge` away from their centres,
// anticlockwise; with sharp corners cut off at the same distance, at right angles to their bisector. Empty
// where piles lie in one line, or where this is a rectangle along the axes.
geometry::Ring alongPiles(const std::vector<geometry::Point>& piles, double edge, bool cornersCut);

// Of a convex outline: from and to where along the other axis a line across `axis` at a place lies in it
// (from > to: nowhere), and how far it reaches from a place within in a direction of unit length.
struct Chord {
    double from = 0, to = 0;
    double length() const { return to > from ? to - from : 0; }
};
Chord chord(const geometry::Ring& convex, int axis, double at);
double reach(const geometry::Ring& convex, geometry::Point from, geometry::Point way);

}  // namespace talvik::bases
