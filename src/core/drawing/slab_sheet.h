// Drawings of a one-way slab.
#pragma once

#include "design/design.h"
#include "drawing/drawing.h"

namespace talvik::drawing {

// The sheet that goes to site: plans of bottom and top bars, long section, notes, schedule and title block on
// A2. The scale is the largest of the usual ones that fits.
Sheet slabSheet(const model::Project& project, const design::Design& design, const design::SlabDesign& d);

}  // namespace talvik::drawing
