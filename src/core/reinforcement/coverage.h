// The steel that the bar runs give at any place along a slab, with their anchorage.
#pragma once

#include <vector>

#include "model/project.h"
#include "standards/rules.h"

namespace talvik::reinforcement {

// Main steel of one face at a station, per mm of width. `effective` counts each run in proportion to how far
// it is anchored there (EN 1992-1-1 9.2.1.3: resistance grows linearly along the anchorage length).
struct SteelAt {
    double full = 0, effective = 0;  // mm2 per mm
    double diameter = 0;             // largest bar
    double spacing = 0;              // smallest spacing of a run, 0 without bars
};

class Coverage {
  public:
    Coverage(const model::OneWaySlab& slab, const model::Basis& basis, const standards::Standard& standard);
    SteelAt at(bool top, double x) const;
    // Anchorage length of a run's end, mm.
    static double anchorageLength(const model::BarRun& run, bool hooked, const model::OneWaySlab& slab,
                                  const model::Basis& basis, const standards::Standard& standard,
                                  trace::Steps* t = nullptr);
    static standards::AnchorageInput anchorageInput(const model::BarRun& run, bool hooked,
                                                    const model::OneWaySlab& slab, const model::Basis& basis,
                                                    const standards::Standard& standard);

  private:
    struct Piece {
        bool top;
        double from, to, lengthStart, lengthEnd, area, diameter, spacing;
    };
    std::vector<Piece> pieces_;
};

// Effective depth of main bars of a face: the outermost layer.
double effectiveDepth(bool top, double diameter, const model::OneWaySlab& slab, const model::Basis& basis);
// The slab's section of width b for tension on a face with bars of this diameter.
standards::Section section(bool top, double diameter, const model::OneWaySlab& slab,
                           const model::Basis& basis, double b);

}  // namespace talvik::reinforcement
