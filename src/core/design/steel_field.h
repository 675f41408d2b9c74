// Required steel all over a floor, for lines of equal value on plan.
#pragma once

#include "design/floor_design.h"

namespace talvik::design {

// Steel of a face for bars along a direction (0 or 1), mm2 per mm of width, at the field points of the
// analysis: the largest over the ultimate combinations of the moments by Wood and Armer (1968), which peak
// over columns and are not averaged here. Layers and covers as in the strips; least steel not included. 99
// where no steel suffices.
std::vector<double> requiredSteelField(const FloorDesign& design, int direction, bool top);

}  // namespace talvik::design
