// The checks of a strip, from its demand and the bars provided.
#pragma once

#include "design/floor_design.h"

namespace talvik::design {

// Lines of required, provided and resistance at the stations.
void fillLines(StripDesign& d, const reinforcement::StripBasis& in);
// `bands`: the top steel that the standard wants over columns; see peakBands. Checks carry no working unless
// `tracing`.
std::vector<checks::Check> checkStrip(const StripDesign& d, const model::Floor& floor,
                                      const analysis::FloorAnalysis& analysis,
                                      const reinforcement::StripBasis& in, bool tracing);
// Compression steel that the other face must give at every station, mm2 per mm; empty where none is needed.
std::vector<double> compressionNeed(const StripDesign& d, bool top, const reinforcement::StripBasis& in);

}  // namespace talvik::design
