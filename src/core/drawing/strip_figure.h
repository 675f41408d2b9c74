// The long section of a strip with its bars and their call-outs, as it stands on a sheet.
#pragma once

#include "drawing/drawing.h"
#include "drawing/long_section.h"

namespace talvik::drawing {

// Height that a section asks for, mm of paper: more where many bars have to be called out.
double stripFigureHeight(const LongSection& section);
// Depth is enlarged; ends of bars are given from the nearest support.
Sheet stripFigure(const LongSection& section, const std::string& title, double width, double height,
                  units::System system);

}  // namespace talvik::drawing
