// Forces of design strips: fields of the analysis integrated across a strip at stations along it. Moments in
// N mm on the width of the strip, sagging positive; shears in N. There is no axial force: plates in bending
// have none.
#pragma once

#include <functional>
#include <stop_token>

#include "analysis/cuts.h"
#include "strips/strip_layout.h"

namespace talvik::strips {

// What a strip carries, in one combination.
struct Values {
    double moment = 0, beamMoment = 0;  // of the slab's own; of beams that run along
    double shear = 0, beamShear = 0;    // beside concentrated loads by statics
    // To be resisted by the slab's bars along the strip: magnitudes, with twisting. The largest mean over the
    // width of sharing, times the width of the strip, so that no bar counts on others farther away.
    double bottom = 0, top = 0;
};

// A line load across a strip, or a point load on it: where it stands, and its force downwards.
struct ConcentratedLoad {
    double u = 0, force = 0;
    bool line = false;
};

struct StripForces {
    std::vector<Station> stations;
    std::vector<std::vector<ConcentratedLoad>> loads;  // per load case
    std::size_t combinations = 0;
    std::vector<Values> all;  // combination by combination, station by station
    const Values& at(std::size_t combination, std::size_t station) const {
        return all[combination * stations.size() + station];
    }
};

// Stations of a strip, over its whole length: dense near supports, at their faces, an effective depth away
// from them, on both sides of line and point loads and of changes of thickness.
std::vector<Station> stations(const Strip& strip, const model::Floor& floor);

// Reads strips out of an analysis. Holds shears per load case, which take longest; keep it while the analysis
// is the same. The analysis must outlive it.
class ForceReader {
  public:
    // Combinations of the ultimate state and of `service` are read; the others stay nought.
    ForceReader(const analysis::FloorAnalysis& a,
                actions::LimitState service = actions::LimitState::QuasiPermanent, std::stop_token stop = {});
    StripForces read(const Strip& strip, const model::Floor& floor) const;

  private:
    const analysis::FloorAnalysis& a_;
    analysis::Cutter cutter_;
    std::vector<fem::ShearField> shears_;  // per case
    // Per combination that is read: its number, the cases in it and their factors.
    struct Weights {
        std::size_t combination;
        std::vector<std::pair<std::size_t, double>> cases;
    };
    std::vector<Weights> weights_;
};

// What a strip is designed for. Hogging over a support is held to the larger of the values at its faces where
// `faceOfSupport` says so.
// `rounded`: by how much hogging on the axis of a support on which the slab is free to turn may be rounded
// off, from reaction and breadth; there the moment at the face does not count (EN 1992-1-1 5.3.2.2(4)).
line::Demand demand(const Strip& strip, const StripForces& forces, const analysis::FloorAnalysis& a,
                    const model::StripChoices& rules, actions::LimitState crackState,
                    const std::function<double(double R, double t)>& rounded = {});

}  // namespace talvik::strips
