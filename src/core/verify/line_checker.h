// What the checks of lines share. Inside this room only.
#pragma once

#include "verify/line_checks.h"

namespace talvik::verify {

using bars::Steel;
using checks::Finding;
using checks::Outcome;
using checks::Sense;
using checks::Topic;
using model::EndCondition;
using trace::Steps;
using units::Kind;

// Stations that govern on a face: where demand stands highest over resistance, the same or the one with most
// steel where no bars lie there, where cracks of bars are widest, and where the ends of bars have most to
// resist (past the last station where there is none such).
struct Critical {
    std::size_t worst, bars, crack, ends;
    double most = 0;           // demand on the width
    bool endsSkipped = false;  // something is asked where ends are not judged
};

// How far the end of a run has to reach for what is asked at a station, and how far it does: from the middle
// of the span or the support's axis, or from the run's own middle where that is farther. mm.
struct EndReach {
    const bars::Run* run = nullptr;
    bool end = false;      // which of the two
    double away = 0;       // of the station from where reach is measured, towards that end
    double required = 0;   // steel that the others leave to this run, mm2 per mm
    double anchorage = 0;  // of the end
    double needed = 0, reach = 0;
};

// What resists shear at a station: the section of its least thickness, and the anchored tension steel, on 1
// m.
struct ShearAt {
    standards::Section section;
    double As = 0;
};
ShearAt shearAt(const LineDesign& design, const line::View& view, const line::LineBasis& in,
                std::size_t station);

struct LineChecker {
    const LineCase& of;
    CheckList& list;
    bool tracing;
    const talvik::line::Line& line = of.view.line;
    const std::vector<talvik::line::Station>& stations = of.view.stations;
    const talvik::line::Demand& demand = of.view.demand;
    const LineDesign& design = of.design;
    const talvik::line::LineBasis& in = of.in;
    const standards::Standard& rules = in.standard;
    double b = in.workedWidth();
    double usual = model::largestBar(in.basis);

    using Range = std::pair<std::size_t, std::size_t>;

    void face(bool top, const checks::Place& where, Range at);
    void shear(std::size_t span);
    void slenderness(std::size_t span);
    void anchorage(std::size_t span, int side);
    void through(std::size_t support);

    Steps* tracer(Steps& steps) const { return tracing ? &steps : nullptr; }
    std::optional<Range> range(double from, double to) const {
        return line::stationsWithin(stations, from, to);
    }
    // From the middle of the span before a support to the middle of that after it; cantilevers whole.
    std::optional<Range> around(std::size_t support) const;
    standards::Section section(bool top, std::size_t i, double diameter) const {
        return line::section(top, diameter > 0 ? diameter : usual, stations[i], in, b);
    }
    // Of the least thickness on the cut.
    standards::Section thinSection(bool top, std::size_t i, double diameter) const {
        return line::section(top, diameter > 0 ? diameter : usual, stations[i].leastThickness, in, b);
    }
    Steel steel(bool top, std::size_t i) const {
        return bars::steelAt(design.runs, top, stations[i].u, stations[i].width);
    }
    const std::vector<talvik::line::Extreme>& asked(bool top) const {
        return top ? demand.top : demand.bottom;
    }
    bool leftToEdge(std::size_t i) const { return design.atEdge[i]; }
    // The last stretch of the line, where bars end at the cover.
    bool beyondBars(std::size_t i) const;
    // A tenth of what the plain section resists, per width: less than this needs no bar.
    double plain(bool top, std::size_t i) const { return 0.1 * rules.flexure->plain(section(top, i, 0)) / b; }

  private:
    Critical governing(bool top, const checks::Place& where, Range at) const;
    // Of the end that lacks least there; none where longer bars do not help, or nothing is asked of bars.
    std::optional<EndReach> endReach(bool top, const checks::Place& where, std::size_t i) const;
    double endRatio(bool top, std::size_t i) const;  // of what is moved there to what the bars resist
    bool endOfSpan(std::size_t i) const;
    double allSteel(bool top, std::size_t i) const;
    void flexure(bool top, checks::Place place, std::size_t worst);
    void bars(bool top, const checks::Place& place, std::size_t worst, std::size_t crackAt);
    void barEnds(bool top, const checks::Place& where, const Critical& g);
    void widthStep(Steps& steps, const char* symbol, std::size_t i, double onWidth, bool moment) const;
};

}  // namespace talvik::verify
