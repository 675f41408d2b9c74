// Drawings to DXF (R2000 ASCII) through dxflib, in mm at full size: paper mm times the drawing's scale.
#pragma once

#include <string>

#include "drawing/drawing.h"

namespace talvik::formats {

// Empty on success, else a sentence; nothing half-written is left.
std::string writeDxf(const std::string& path, const drawing::Sheet& sheet);

}  // namespace talvik::formats
