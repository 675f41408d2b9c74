// The sheets of a floor: bottom and top bars on plan with their extents and call-outs, connections with shear
// steel, the bar schedule.
#pragma once

#include "design/design.h"
#include "design/floor_design.h"
#include "drawing/drawing.h"

namespace talvik::drawing {

std::vector<Sheet> floorSheets(const model::Project& project, const design::Design& design,
                               const design::FloorDesign& floor);

}  // namespace talvik::drawing
