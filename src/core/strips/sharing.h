// Over what width a slab may share a moment that peaks, and the largest mean over such a width.
#pragma once

#include <span>
#include <string>

namespace talvik::strips {

// Width across the bars over which the moment of a slab of thickness h and span l (mm) may be shared between
// bars: min(5 h, l/5), not less than 2 h. C. Pacoste, M. Plos and M. Johansson, Recommendations for finite
// element analysis for the design of reinforced concrete slabs, KTH Stockholm 2012, section 3.2, for the ductile
// sections that slabs have (x/d up to about 0.15). Over columns of slabs without beams the standards give wider
// ones: those of column and middle strips (EN 1992-1-1 Annex I, ACI 318-19 8.4.1.5).
double sharingWidth(double h, double l);
inline const char* sharingSource() { return "Pacoste, Plos and Johansson (2012)"; }

// The largest mean over any stretch of the given width of a function that is linear between samples two by two:
// at[2k] to at[2k+1] it goes from value[2k] to value[2k+1]; stretches between the pieces, where there is no
// slab, count as nothing and add no width. `at` ascends. Where all pieces together are no wider, their mean.
double largestMean(std::span<const double> at, std::span<const double> value, double width);

}  // namespace talvik::strips
