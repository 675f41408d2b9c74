// Required steel all over a floor, for lines of equal value on plan.
#pragma once

#include "design/floor_design.h"

namespace talvik::design {

// Steel of a face for the bars of a direction (0 or 1), mm2 per mm of width, at the field points of the
// analysis: the largest over the ultimate combinations of the moments by Wood and Armer (1968), which peak
// over columns and are not averaged here; where compression steel is needed, the tension steel that goes with
// it. Directions of the bars, layers and covers are those of the strip in which a point lies, so of an area
// or a drawn strip where it has its own; least steel is not included. 99 where no steel suffices.
std::vector<double> requiredSteelField(const FloorDesign& design, int direction, bool top);

}  // namespace talvik::design
