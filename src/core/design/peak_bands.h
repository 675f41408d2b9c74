// Steel that a strip owes to what lies beside it: over columns, and across strips that carry one way.
#pragma once

#include "design/floor_design.h"

namespace talvik::design {

// What the standard wants in the width over inner columns where hogging peaks, and into columns at edges.
std::vector<bars::PeakBand> peakBands(const FloorDesign& f, const StripDesign& d, const line::LineBasis& in);
// Bottom steel that strips held by lines alone ask of those that cross them: a share of their own, mm2 per
// mm.
double distributionSteel(const FloorDesign& f, const StripDesign& d, const line::LineBasis& in);

}  // namespace talvik::design
