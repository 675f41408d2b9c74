// The checks of a one-way slab: those of any line, its sags, and what the slab as a whole has to keep.
#pragma once

#include "design/slab_design.h"

namespace talvik::design {

// Fills links, sag, checks and first thickness of `d`; analysis, line, bars and curves are there.
void checkSlab(const model::OneWaySlab& slab, const line::LineBasis& in, SlabDesign& d, bool tracing);

// Coefficient moments of the standard, or of the table named in its stead, beside the engine's; with the
// reason where their conditions are not met. Moments per mm of width, signed.
SecondOpinion secondOpinion(const model::OneWaySlab& slab, const standards::Standard& standard,
                            const SlabDesign& d);

}  // namespace talvik::design
