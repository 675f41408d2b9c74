// A one-way slab seen as a line of one mm of width: stations of its analysis, and the design moments there
// with the reductions that belong to its supports.
#pragma once

#include "analysis/slab_analysis.h"
#include "line/line.h"

namespace talvik::line {

struct OneWayLine {
    Line line;
    std::vector<Station> stations;  // those of the analysis, one by one
    // `by` counts analysis::SlabAnalysis::number. Over a support cast with the slab the hogging moment is
    // held to the larger of its two face values, not less than the standard's share of the fixed-end moment;
    // over others it is rounded by a parabola over the support's width (reaction * width / 8, EN
    // 1992-1-1 5.3.2.2(4)). At an end support taken as simple, top carries the standard's share of the span
    // moment.
    Demand demand;
    // Per support: design hogging moment, where it is taken, what governs.
    struct SupportMoment {
        double moment = 0, x = 0;
        std::size_t span = 0;  // in which it is taken
        analysis::Governing by;
        bool floored = false;    // the share of the fixed-end moment governs
        bool endFixity = false;  // a share of the span moment at a simple end
    };
    std::vector<SupportMoment> supports;
    // Per span: largest sagging moment and where.
    struct SpanMoment {
        double moment = 0, x = 0, local = 0;
        analysis::Governing by;
    };
    std::vector<SpanMoment> spans;
};

// Supports, spans and end conditions of the slab; needs no analysis.
Line lineOf(const model::OneWaySlab& slab);
OneWayLine lineOf(const model::OneWaySlab& slab, const analysis::SlabAnalysis& a,
                  const standards::Standard& standard);

}  // namespace talvik::line
