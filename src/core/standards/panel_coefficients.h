// Moments of two-way panels supported on four sides, corners held down, under a uniform load: the nine cases
// of edge conditions as equations. BS 8110-1:1997 3.5.3.4, equations (14) to (18). Used as a second opinion
// whatever the project's standard.
#pragma once

#include <array>
#include <string>

namespace talvik::standards {

// Which edges run on into a neighbouring panel (or are held against rotation).
struct PanelEdges {
    std::array<bool, 2> longContinuous{false, false}, shortContinuous{false, false};
};
// Coefficients on n lx^2 with lx the shorter span: sagging positive, hogging at a continuous edge negative, 0
// at one that is not. `spanShort` is the moment of the strip along lx.
struct PanelCoefficients {
    int caseNumber = 1;  // 1 to 9, from all edges continuous to none
    std::string caseName;
    double spanShort = 0, spanLong = 0, supportShort = 0, supportLong = 0;
    std::string refusal;  // why the equations do not apply
};
PanelCoefficients panelCoefficients(double lx, double ly, const PanelEdges& edges);

}  // namespace talvik::standards
