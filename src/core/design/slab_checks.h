// The checks of a one-way slab: joins analysis, bars and the standard's findings to Check objects.
#pragma once

#include "design/design.h"

namespace talvik::design {

// Fills resistances, sag, checks and first thickness of `d`; analysis and demand are there.
void checkSlab(const model::OneWaySlab& slab, const model::Basis& basis, const standards::Standard& standard,
               SlabDesign& d, const Options& options);

// Coefficient moments of the standard, or of the table named in its stead, beside the engine's; with the
// reason where their conditions are not met. Moments per mm of width, signed.
SecondOpinion secondOpinion(const model::OneWaySlab& slab, const standards::Standard& standard,
                            const SlabDesign& d);

}  // namespace talvik::design
