// Second opinions on the panels of a floor: coefficients for panels on four sides, the total static moment
// for panels on columns, beside integrals of the analysis.
#pragma once

#include "analysis/floor_analysis.h"
#include "opinions/opinion.h"

namespace talvik::opinions {

struct PanelOpinion {
    std::string name;  // "panel at (3.75, 3.40) m"
    std::string source;
    std::vector<Opinion> rows;
};

// Panels are sought along the plan's axes: rectangles whose corners are columns or lie on walls, beams or
// line supports, with no such corner inside. The load is the largest ultimate one spread over the panel; line
// and point loads count in the engine only, which the ratio then shows.
std::vector<PanelOpinion> panelOpinions(const model::Floor& floor, const analysis::FloorAnalysis& a);

}  // namespace talvik::opinions
