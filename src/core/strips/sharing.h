// Over what width a slab may share a moment that peaks, and the largest mean over such a width.
#pragma once

#include <span>
#include <string>
#include <vector>

namespace talvik::strips {

// Width across the bars over which the moment of a slab of thickness h and span l (mm) may be shared between
// bars: min(5 h, l/5), not less than 2 h. C. Pacoste, M. Plos and M. Johansson, Recommendations for finite
// element analysis for the design of reinforced concrete slabs, KTH Stockholm 2012, section 3.2, for the ductile
// sections that slabs have (x/d up to about 0.15). Over columns of slabs without beams the standards give wider
// ones: those of column and middle strips (EN 1992-1-1 Annex I, ACI 318-19 8.4.1.5).
double sharingWidth(double h, double l);
inline const char* sharingSource() { return "Pacoste, Plos and Johansson (2012)"; }

// All stretches of a width among which a largest mean is sought, worked out once for places and used for many sets of
// values. Values are linear between samples two by two: from at[2k] to at[2k+1]; what lies between such pieces is no
// slab and adds no width. `at` ascends. Where all pieces together are no wider than `width`, it is their mean.
class SharedMean {
  public:
    SharedMean(std::span<const double> at, double width);
    // Of values at the places; at least 0. Not from two threads at a time.
    double largest(std::span<const double> value) const;

  private:
    struct Stretch {
        std::size_t low, high;  // pieces in which it begins and ends
        double from, to;        // shares of them
        double place;           // of its beginning
    };
    std::vector<double> part_;
    std::vector<Stretch> stretches_;
    double whole_ = 0, width_;
    mutable std::vector<double> sum_;
};

}  // namespace talvik::strips
