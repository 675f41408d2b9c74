// A connection drawn: its perimeters and shear steel in plan, a section along one line of legs beside it.
#pragma once

#include "design/connections.h"
#include "drawing/drawing.h"

namespace talvik::drawing {

// On a sheet of this width, about half as high. `basis`: covers and display units.
Sheet connectionDetail(const design::ConnectionDesign& connection, const model::Basis& basis,
                       double width = 190);

}  // namespace talvik::drawing
