// Bearing resistance of a shallow foundation with a horizontal base, EN 1997-1 Annex D. Units N, mm, MPa,
// degrees. Strengths are used as they are given: design values where a partial factor applies. No depth
// factors; the base is rough.
#pragma once

namespace talvik::ground {

// What lies on and below the effective area B' by L', B' the shorter side (EN 1997-1 6.5.4).
struct BearingInput {
    double B = 0, L = 0;    // effective, mm
    double overburden = 0;  // at the base, MPa: effective where drained, total where not
    double V = 0, H = 0;    // normal and parallel to the base, N
    double angle = 90;      // between H and the direction of L', degrees
};
struct BearingResistance {
    double Nq = 0, Nc = 0, Ng = 0, sq = 1, sc = 1, sg = 1, m = 0, iq = 1, ic = 1, ig = 1;
    double stress = 0;      // R/A', MPa
    double resistance = 0;  // R, N
};
// Drained, D.4: friction angle and cohesion of the ground, weight below the base, N/mm3 (buoyant below
// water). The shape factors of the rectangle serve for the square. Without friction there is no answer: take
// the undrained one.
BearingResistance drained(const BearingInput& base, double friction, double cohesion, double weight);
// Undrained, D.3: shear strength; H at most A' cu, else no resistance.
BearingResistance undrained(const BearingInput& base, double strength);

}  // namespace talvik::ground
