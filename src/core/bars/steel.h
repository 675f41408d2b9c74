// Bars along a line: the runs that lie in it, the steel they give at any station, and the runs the program
// chooses where nobody fixed any. Positions along the line, mm; steel in mm2 per mm of width.
#pragma once

#include <functional>

#include "line/section.h"
#include "strips/strip_forces.h"

namespace talvik::bars {

// Bars as they lie, fixed by someone or chosen: their sizes and anchorage known. The id is that in the
// project where they stand there, else the zone's: "bottom/0" for the bottom of the first span, "top/c3" for
// the top over a support.
struct Run : model::BarRun {
    bool fixed = false;
    double width = 0;                       // of a band, mm
    double area = 0, diameter = 0;          // mm2 per mm where they lie
    double anchorStart = 0, anchorEnd = 0;  // anchorage lengths of the ends
    bool top() const { return model::topFace(role); }
    bool band() const { return role == model::Role::TopBand; }
};
// Fills area, diameter and anchorage of a run of the slab's catalogue from its bar and spacing.
void size(Run& run, double thickness, const line::LineBasis& in);
// Whether bars that someone fixed take the place of a run: they lie alike, and share more than half of the
// shorter's length.
bool replaces(const Run& fixed, const Run& run);

// Steel of one face at a station over its width: bands count by their share of it. Each run counts in
// proportion to how far it is anchored there: resistance grows linearly along the anchorage length (EN
// 1992-1-1 9.2.1.3). `spacing` is that of all runs that lie there side by side, as in laps; 0 without bars.
struct Steel {
    double full = 0, effective = 0;  // mm2 per mm; `effective` as far as anchored
    double diameter = 0, spacing = 0;
};
Steel steelAt(const std::vector<Run>& runs, bool top, double u, double width);
// In the band over a column alone.
double bandSteel(const std::vector<Run>& runs, double u);

// Whether a station lies where the ends of bars are not judged: inside a support at the line's end, where the
// moment has passed into it at its face, or within `reach` of the slab's edge, where hooks and the U-bars
// along the edge hold (EN 1992-1-1 9.3.1.3, 9.3.1.4).
bool leftToEdge(const line::Line& line, const line::Station& station, double reach);
// How far that is: where U-bars are placed at the edge, their cover and 50 mm; else a slab thickness at
// least.
double edgeReach(const line::Station& station, const line::LineBasis& in);

standards::AnchorageInput anchorageInput(const Run& run, bool hooked, double thickness,
                                         const line::LineBasis& in);
// Works out the anchorage lengths of a run's ends.
void anchor(Run& run, double thickness, const line::LineBasis& in);

// Neighbouring bars of the top over two supports either lap in full or leave a gap that is drawn: where those
// that were chosen come closer than `apart`, or overlap by less than a lap, both are lengthened to a lap, in
// steps. Bands and runs of other faces are left alone. `lap`: of a run, mm.
void lapNeighbours(std::vector<Run>& runs, double apart, double step,
                   const std::function<double(const Run&)>& lap);

// Top steel in a band over a column, by the standard or by the moment that peaks there or passes into it.
struct PeakBand {
    int support = -1;
    double width = 0, steel = 0;  // required, mm2 per mm of the band
    standards::StripRules::Peak rule;
    std::string word;
    // Across the slab's edge into an edge or corner column: the moment, and the largest that can pass (0:
    // none set).
    bool transfer = false;
    double moment = 0, most = 0;
    bool underShear = false;  // for the shear of the connection, by whose checks it is judged
    std::string mostClause;
    standards::StripRules::TransferInput input;
};

// The runs of a face: those fixed by someone, and those chosen as the least steel from the allowed sets that
// satisfies flexure, minimum steel, spacing and crack rules; the least of `usual` instead, where one suffices
// with little more steel. Bottom bars run through every span and past its supports; top bars cover what
// hogging there is, with the standard's shift and anchorage, ends rounded to 50 mm. Where no allowed bar
// suffices the strongest is taken, and the checks then say "over".
struct BarChoice;
std::vector<Run> proposeStrip(const strips::Strip& strip, const std::vector<strips::Station>& stations,
                              const line::Demand& demand, bool top, const line::LineBasis& in,
                              const std::vector<model::BarRun>& fixed, const std::vector<PeakBand>& bands,
                              const std::vector<BarChoice>& usual);

// Whether a bar end straight or hooked anchors the bottom bars at the end of a span; see EndAnchorageInput.
standards::EndAnchorageInput endAnchorage(const line::Line& line, const std::vector<line::Station>& stations,
                                          const line::Demand& demand, std::size_t span, int side,
                                          const Run& run, bool hooked, const line::LineBasis& in);

}  // namespace talvik::bars
