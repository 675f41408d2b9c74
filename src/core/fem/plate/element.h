// The discrete Kirchhoff-Mindlin triangle: a shear-flexible plate element with nine unknowns, right from thin
// to thick. I. Katili, A new discrete Kirchhoff-Mindlin element based on Mindlin-Reissner plate theory and
// assumed shear strain fields, part I, Int. J. Numer. Meth. Engng 36 (1993) 1859-1883. Rotations vary
// quadratically along the sides, shear strains follow from the equilibrium of each side taken as a beam.
//
// Axes and signs: x, y in plan, w and z downwards. Rotations bx, by are such that the displacement in plan is
// u = z bx, v = z by; a thin plate has bx = -dw/dx. Moments are sagging positive: Mx = D (bx,x + nu by,y),
// My = D (by,y + nu bx,x), Mxy = D (1 - nu)/2 (bx,y + by,x). Shears Qx = Mx,x + Mxy,y, Qy = My,y + Mxy,x.
// Any consistent units. Unknowns per node: w, bx, by.
#pragma once

#include <array>

#include "fem/plate/pack.h"

namespace talvik::fem {

// What an element is made of, for eight elements at once.
struct ElementGroup {
    Pack x[3], y[3];   // corners, counter-clockwise
    Pack D, nu;        // bending stiffness E t^3 / 12 (1 - nu^2), Poisson's ratio
    Pack flexibility;  // 1 / (5/6 G t); zero leaves shear deformation out
    // Bending stiffness in one direction besides, of slabs that carry one way: U (k_x c^2 + k_y s^2 + k_xy c s)^2 with
    // the curvatures and the direction's cosine c and sine s.
    bool oneWay = false;
    Pack U, cc, ss, cs;
};

// Lower triangle of the 9 x 9 stiffness, row by row: 45 packs.
inline constexpr int stiffnessEntries = 45;
void stiffness(const ElementGroup& e, Pack* k);

// Moments Mx, My, Mxy at the three corners, corner by corner: 9 packs, from the nine unknowns.
// `cases` sets of unknowns and results, each after the other.
void cornerMoments(const ElementGroup& e, int cases, const Pack* u, Pack* m);

}  // namespace talvik::fem
