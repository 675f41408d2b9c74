// Design moments along a one-way slab: the ultimate envelope with the reductions that belong to its supports.
// Per mm of width: moments N (N mm per mm).
#pragma once

#include <vector>

#include "analysis/slab_analysis.h"
#include "standards/rules.h"

namespace talvik::reinforcement {

// Moments to design for at the analysis stations, as magnitudes: bottom for sagging, top for hogging. Over a
// support cast with the slab the hogging moment is held to the larger of its two face values, not less than
// the standard's share of the fixed-end moment; over others it is rounded by a parabola over the support's
// width (reaction * width / 8, EN 1992-1-1 5.3.2.2(4)). At an end support taken as simple, top carries the
// standard's share of the span moment.
struct Demand {
    std::vector<double> bottom, top;
    // Per support: design hogging moment, where it is taken, what governs.
    struct Support {
        double moment = 0, x = 0;
        std::size_t span = 0;  // in which it is taken
        analysis::Governing by;
        bool floored = false;    // the share of the fixed-end moment governs
        bool endFixity = false;  // a share of the span moment at a simple end
    };
    std::vector<Support> supports;
    // Per span: largest sagging moment and where.
    struct Span {
        double moment = 0, x = 0, local = 0;
        analysis::Governing by;
    };
    std::vector<Span> spans;
};
Demand demand(const model::OneWaySlab& slab, const analysis::SlabAnalysis& a,
              const standards::Standard& standard);

// The moment line moved outwards: the largest value of `m` within `shift` of each station. In a cantilever
// not more than m + |V| shift, the same rule written as a force (EN 1992-1-1 9.2.1.3(2)), which ends at the
// tip as the shear does.
std::vector<double> shifted(const model::OneWaySlab& slab, const analysis::SlabAnalysis& a,
                            const std::vector<double>& m, double shift);

}  // namespace talvik::reinforcement
