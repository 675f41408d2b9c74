// The checks of a one-way slab: joins analysis, bars and the standard's findings to Check objects.
#pragma once

#include "design/design.h"

namespace talvik::design {

// Fills resistances, sag, checks, first thickness and second opinion of `d`; analysis and demand are there.
void checkSlab(const model::OneWaySlab& slab, const model::Basis& basis, const standards::Standard& standard,
               SlabDesign& d, const Options& options);

}  // namespace talvik::design
