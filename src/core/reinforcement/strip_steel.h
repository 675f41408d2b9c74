// Bars of a design strip: the runs that lie in it, the steel they give at any station, and the runs the
// program chooses where nobody fixed any. Positions along the strip from the plan's origin, mm; steel in mm2
// per mm of width.
#pragma once

#include "model/project.h"
#include "standards/rules.h"
#include "strips/strip_forces.h"

namespace talvik::reinforcement {

struct StripRun {
    std::string id;    // of the bars in the project where someone fixed them, else the zone's key
    std::string zone;  // "bottom/0" for the bottom of the first span, "top/c3" for the top over a support
    bool top = false, band = false, fixed = false;
    double from = 0, to = 0;
    std::string bar;
    double spacing = 200;
    model::BarEnd start = model::BarEnd::Straight, end = model::BarEnd::Straight;
    double width = 0;                       // of a band, mm
    double area = 0, diameter = 0;          // mm2 per mm where they lie
    double anchorStart = 0, anchorEnd = 0;  // anchorage lengths of the ends
};

// What a strip's bars depend on besides its forces. `outer`: diameter of the bars of the other direction that
// lie between these and the face; 0 where these are the outermost.
struct StripBasis {
    const model::Basis& basis;
    const standards::Standard& standard;
    double outerTop = 0, outerBottom = 0;
    double leastBottom = 0;  // of strips that cross one-way ones: distribution steel, mm2 per mm
    bool twoWay = false;     // the slab carries both ways
    standards::DetailingRules::Role role() const {
        return twoWay ? standards::DetailingRules::Role::TwoWay : standards::DetailingRules::Role::Main;
    }
    double outer(bool top) const { return top ? outerTop : outerBottom; }
};

// Steel of one face at a station over the width of the strip: bands count by their share of it.
struct StripSteel {
    double full = 0, effective = 0;  // mm2 per mm; `effective` as far as anchored
    double diameter = 0, spacing = 0;
};
StripSteel stripSteel(const std::vector<StripRun>& runs, bool top, double u, double width);
// In the band over a column alone.
double bandSteel(const std::vector<StripRun>& runs, double u);

// Whether a station lies where the ends of bars are not judged: inside a support at the strip's end, where
// the moment has passed into it at its face, or within a slab thickness of the slab's edge, where hooks and the
// U-bars along the edge hold (EN 1992-1-1 9.3.1.3, 9.3.1.4).
bool leftToEdge(const strips::Strip& strip, const strips::Station& station, double cover);

// Section of a station for tension on a face, on the width b. Thickness: the mean over the strip's width, by
// which moment resistance of slabs of several thicknesses side by side adds up.
standards::Section stripSection(bool top, double diameter, const strips::Station& station,
                                const StripBasis& in, double b);
standards::AnchorageInput stripAnchorage(const StripRun& run, bool hooked, double thickness,
                                         const StripBasis& in);

// Demand per width moved outwards by the standard's shift: per station, on its width. `diameter`: of the bars
// at every station, by which the effective depth and so the shift varies.
std::vector<double> shiftedDemand(const std::vector<strips::Station>& stations,
                                  const std::vector<strips::Extreme>& demand, bool top,
                                  const std::vector<double>& diameter, const StripBasis& in);

// Top steel in a band over a column, by the standard or by the moment that peaks there or passes into it.
struct PeakBand {
    int support = -1;
    double width = 0, steel = 0;  // required, mm2 per mm of the band
    standards::StripRules::Peak rule;
    std::string word;
    // Across the slab's edge into an edge or corner column: the moment, and the largest that can pass (0: none set).
    bool transfer = false;
    double moment = 0, most = 0;
    std::string mostClause;
    standards::StripRules::TransferInput input;
};

// The runs of a face: those fixed by someone, and those chosen as the least steel from the allowed sets that
// satisfies flexure, minimum steel, spacing and crack rules. Bottom bars run through every span and past its
// supports; top bars cover what hogging there is, with the standard's shift and anchorage, ends rounded to
// 50 mm. Where no allowed bar suffices the strongest is taken, and the checks then say "over".
std::vector<StripRun> proposeStrip(const strips::Strip& strip, const std::vector<strips::Station>& stations,
                                   const strips::StripDemand& demand, bool top, const StripBasis& in,
                                   const std::vector<model::StripBars>& fixed,
                                   const std::vector<PeakBand>& bands);

// System of a span for span-to-depth rules, from its end conditions.
standards::SpanSystem spanSystem(const strips::Span& span);
// Whether a bar end straight or hooked anchors the bottom bars at the end of a span; see EndAnchorageInput.
standards::EndAnchorageInput endAnchorage(const strips::Strip& strip,
                                          const std::vector<strips::Station>& stations,
                                          const strips::StripDemand& demand, std::size_t span, int side,
                                          const StripRun& run, bool hooked, const StripBasis& in);

}  // namespace talvik::reinforcement
