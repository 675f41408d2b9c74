// Yield lines of rectangular panels: an upper bound of what they carry. N, mm.
#pragma once

namespace talvik::opinions {

// The isotropic sagging moment of resistance, per width, at which a rectangle a by b held on four sides
// collapses under a uniform load w, with hogging resistances i times as large along its edges: `i[0]`, `i[1]`
// at the two edges that bound the span a, `i[2]`, `i[3]` at those that bound b; 0 for edges free to turn (K.
// W. Johansen, Brudlinieteorier, 1943). An upper bound on the load for a given moment, so the moment is a
// lower one; corner levers are left out.
double yieldLineMoment(double w, double a, double b, const double (&i)[4]);

}  // namespace talvik::opinions
