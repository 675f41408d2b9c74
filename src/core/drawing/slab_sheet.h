// Drawings of a one-way slab.
#pragma once

#include "design/design.h"
#include "drawing/drawing.h"

namespace talvik::drawing {

// The sheet that goes to site: plans of bottom and top bars, long section, notes, schedule and title block on
// A2. The scale is the largest of the usual ones that fits.
Sheet slabSheet(const model::Project& project, const model::OneWaySlab& slab, const design::Design& design,
                const design::SlabDesign& d);

// A figure for the report: long section with moments, resistance and sag, `width` mm wide.
Sheet slabFigure(const model::Project& project, const model::OneWaySlab& slab, const design::SlabDesign& d,
                 double width);

}  // namespace talvik::drawing
