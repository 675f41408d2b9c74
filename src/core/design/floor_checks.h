// The checks of a floor as a whole: coverage by strips, the proof by field, uplift of supports, and what is
// not checked.
#pragma once

#include "design/floor_design.h"

namespace talvik::design {

void checkFloor(FloorDesign& f);

}  // namespace talvik::design
