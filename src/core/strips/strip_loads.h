// Concentrated loads on a strip, and shear by statics beside them. Inside this room only. N, mm.
#pragma once

#include "analysis/floor_analysis.h"
#include "strips/strip_forces.h"

namespace talvik::strips {

// Line and point loads of every load case that stand on a strip, in order along it.
class StripLoads {
  public:
    StripLoads(const Strip& strip, const model::Floor& floor, const analysis::FloorAnalysis& a);
    const std::vector<ConcentratedLoad>& all(std::size_t loadCase) const { return loads_[loadCase]; }

    // The shear and the moment of a load case at the stations, put right beside its concentrated loads and beside
    // walls, beams and line supports: a field of finite elements spreads jumps and kinks over an element or two. There
    // the nearest station clear of them is taken, on the same side of every support, with what stands between by
    // statics: V(u) = V(u') + loads from u to u', and the moment with their arms. Moments are put right beside line
    // loads alone: under a point load they peak.
    void putRight(std::size_t loadCase, const std::vector<Station>& stations, std::vector<double>& shear,
                  std::vector<double>& moment) const;

  private:
    const Strip& strip_;
    const model::Floor& floor_;
    const analysis::FloorAnalysis& a_;
    double reach_;                                       // over which the field smears a jump
    std::vector<std::vector<ConcentratedLoad>> loads_;  // per case
    double spread(std::size_t loadCase, const Station& at) const;  // area loads per length of the strip
};

}  // namespace talvik::strips
