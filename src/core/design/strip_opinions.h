// Second opinions on a strip: what statics and the standard's coefficients say beside the analysis.
#pragma once

#include "design/floor_design.h"
#include "opinions/opinion.h"

namespace talvik::design {

// For every span of a line of supports that has strips on both sides of it: the total static moment w l2 ln^2
// / 8 of the panel's width (J. R. Nichols, 1914) beside the sum of the sagging moment at mid-span and the
// mean of the hogging moments at the faces, column strip and half of each middle strip, beams included; one
// combination, that of the largest load. For strips held by lines that cross them: the standard's
// coefficients for continuous one-way slabs. Loads are those spread over areas; expected to agree within 10
// %, coefficients within 25 %.
std::vector<opinions::Opinion> stripOpinions(const FloorDesign& design, const StripDesign& strip);

}  // namespace talvik::design
