// Sag of the spans of a one-way slab, from the curvatures of the standard along them.
#pragma once

#include "design/slab_design.h"

namespace talvik::design {

// Sags of all spans and their checks against the standard's limits, gathered in `list`; whether a span is
// within all of its limits. `of` is the slab's line.
std::vector<char> checkSags(const model::OneWaySlab& slab, const verify::LineCase& of, SlabDesign& d,
                            verify::CheckList& list, bool tracing);

}  // namespace talvik::design
