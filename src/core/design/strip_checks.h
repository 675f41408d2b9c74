// The checks of a strip: those of any line, and those of strips alone.
#pragma once

#include "design/floor_design.h"

namespace talvik::design {

// Checks carry no working unless `tracing`.
std::vector<checks::Check> checkStrip(const StripDesign& d, const model::Floor& floor,
                                      const analysis::FloorAnalysis& analysis, const line::LineBasis& in,
                                      bool tracing);
// Links that the shear of a strip asks for, whose bars are chosen.
void addStripLinks(StripDesign& d, const model::Floor& floor, const analysis::FloorAnalysis& a,
                   const line::LineBasis& in);
// Compression steel that the other face must give at every station, mm2 per mm; empty where none is needed.
std::vector<double> compressionNeed(const StripDesign& d, bool top, const line::LineBasis& in);

}  // namespace talvik::design
