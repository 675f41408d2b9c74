// Sections of a line and the demand moved along it: what depends on cover, layers and standard, and not on
// bars yet.
#pragma once

#include "line/line.h"
#include "model/project.h"

namespace talvik::line {

// What the design of a line depends on besides its forces. `outer`: diameter of the bars of the other
// direction that lie between these and the face; 0 where these are the outermost.
struct LineBasis {
    const model::Basis& basis;
    const standards::Standard& standard;
    double outerTop = 0, outerBottom = 0;
    double leastBottom = 0;    // of strips that cross one-way ones: distribution steel, mm2 per mm
    bool twoWay = false;       // the slab carries both ways
    bool edgesClosed = false;  // U-bars are placed at free edges
    standards::SteelRules::Role role() const {
        return twoWay ? standards::SteelRules::Role::TwoWay : standards::SteelRules::Role::Main;
    }
    // On which sections are worked: 1 m, or 1 ft where the standard is written in inches.
    double workedWidth() const { return standard.nativeUnits == units::System::Metric ? 1000 : 304.8; }
    double outer(bool top) const { return top ? outerTop : outerBottom; }
    double cover(bool top) const { return top ? basis.coverTop : basis.coverBottom; }
    double crackLimit(bool top) const { return top ? basis.crackLimitTop : basis.crackLimitBottom; }
};

// Section for tension on a face with bars of this diameter, on the width b.
standards::Section section(bool top, double diameter, double thickness, const LineBasis& in, double b);
// Of a station: the mean thickness over its width, by which moment resistance of slabs of several thicknesses
// side by side adds up.
standards::Section section(bool top, double diameter, const Station& station, const LineBasis& in, double b);
// What bars ask of the rule of cracks at such a section; the moment of its state and the steel on the width.
standards::CrackInput crackInput(const standards::Section& section, bool top, double moment, double area,
                                 double diameter, double spacing, const LineBasis& in);

// Demand per width moved outwards by the standard's shift, read between stations too: per station, on its
// width. `diameter`: of the bars at every station, by which the effective depth and so the shift varies. In a
// cantilever of a line that stands alone not more than m + |V| a_l, the same rule written as a force (EN
// 1992-1-1 9.2.1.3(2)), which ends at the tip as the shear does.
std::vector<double> movedDemand(const Line& line, const std::vector<Station>& stations, const Demand& demand,
                                bool top, const std::vector<double>& diameter, const LineBasis& in);

}  // namespace talvik::line
