// Bars as data for bending machines: lines of the BVBS guideline "Exchange of reinforcement data" (BF2D: bars
// bent in one plane). Lengths mm outside to outside, angles degrees, masses kg.
#pragma once

#include <string>

#include "design/design.h"

namespace talvik::formats {

// One line for each mark with its number of bars; rails that are bought are none. Lines end in CR LF, as the
// guideline asks.
std::string bendingData(const model::Project& project, const design::Design& design);
// The check character value of a line up to and with its "C": 96 less the sum of all bytes modulo 32.
int bendingChecksum(std::string_view upToC);

}  // namespace talvik::formats
