// A floor in plan as a figure: slabs, openings, what holds them, grid and overall dimensions.
#pragma once

#include "drawing/drawing.h"
#include "model/floor.h"
#include "units/units.h"

namespace talvik::drawing {

Sheet planFigure(const model::Floor& floor, double width, units::System system);

}  // namespace talvik::drawing
