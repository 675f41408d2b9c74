// A floor in plan as a figure: slabs, openings, what holds them, grid and overall dimensions.
#pragma once

#include <functional>

#include "drawing/drawing.h"
#include "model/floor.h"
#include "units/units.h"

namespace talvik::drawing {

// Where a point of the plan lies on paper.
using OnPaper = std::function<Point(Point)>;
// Slabs, zones, openings, beams, walls on a layer of choice, line supports and columns.
void drawStructure(Sheet& sheet, const model::Floor& floor, const OnPaper& at, Layer walls);

Sheet planFigure(const model::Floor& floor, double width, units::System system);

}  // namespace talvik::drawing
