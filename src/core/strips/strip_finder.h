// In which strip of a direction a place lies.
#pragma once

#include "strips/strip_layout.h"

namespace talvik::strips {

// Keeps pointers to the layout's strips; ask from one thread at a time.
class StripFinder {
  public:
    StripFinder(const StripLayout& layout, int direction);
    // The place of the strip in layout.strips, -1 where there is none.
    int at(Point plan) const;

  private:
    struct Part {
        int strip;
        const Ring* ring;
        Point low{1e300, 1e300}, high{-1e300, -1e300};
    };
    std::vector<Part> parts_;
    mutable std::size_t last_ = 0;  // places that follow each other lie close together
};

}  // namespace talvik::strips
