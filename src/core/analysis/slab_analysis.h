// Analysis of a one-way slab: loads, the continuous strip per unit width, envelopes. All per mm of width:
// moments N (N mm per mm), shears and reactions N/mm, loads N/mm2. Moments sagging positive.
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "actions/actions.h"
#include "fem/beam/continuous_beam.h"
#include "model/project.h"

namespace talvik::analysis {

struct Loads {
    double self = 0, finishes = 0, other = 0, imposed = 0;
    double permanent() const { return self + finishes + other; }
};
Loads loads(const model::OneWaySlab& slab, const model::Basis& basis);

// Which combination and which arrangement of imposed load.
struct Governing {
    int combination = 0, arrangement = 0;
};
struct Extreme {
    double value = 0;
    Governing by;
};
struct Station {
    double x = 0;  // along the strip
    std::size_t span = 0;
    double local = 0;  // from the span's left end
};
// Largest and smallest values at each station over the combinations of one limit state.
struct Envelope {
    std::vector<Extreme> momentMax, momentMin, shearMax, shearMin;
};
struct Reaction {
    double permanent = 0, imposedMax = 0, imposedMin = 0;  // unfactored
    Extreme ultimateMax, ultimateMin;
    std::vector<double> perSpan;  // mm: under a load of 1 N/mm2 on each span by itself
};

struct SlabAnalysis {
    Loads load;
    std::vector<actions::Combination> combinations;
    std::vector<actions::Arrangement> arrangements;
    fem::Beam beam;
    fem::BeamSolution permanent;             // unit permanent load of 1 on all spans
    std::vector<fem::BeamSolution> imposed;  // unit imposed load, per arrangement
    // Ascending; a support has one for either side. Faces of supports are among them, and sections at an
    // effective depth of the outermost main bars from them, where shear is checked.
    std::vector<Station> stations;
    Envelope ultimate, characteristic, frequent, quasiPermanent;
    std::vector<Reaction> reactions;  // per support
    double imbalance = 0;             // largest |sum of reactions - sum of loads| / loads over all cases
    std::string error;                // a sentence; the rest is empty then

    const Envelope& envelope(actions::LimitState state) const;
    // Values at any point of a span under one combination and arrangement.
    double moment(Governing by, std::size_t span, double local) const;
    double shear(Governing by, std::size_t span, double local) const;
    // Extremes at any point, over the combinations of a limit state.
    Extreme momentExtreme(actions::LimitState state, bool largest, std::size_t span, double local) const;
    Extreme shearExtreme(actions::LimitState state, std::size_t span,
                         double local) const;  // largest magnitude
    std::string name(Governing by) const;      // "1.35 G + 1.5 Q, spans A–B, C–D"
    // One number for both, and back.
    std::uint16_t number(Governing by) const;
    Governing governing(std::uint16_t number) const;
};

// From where to where in a span, from its left end, one-way shear is checked: an effective depth from the
// faces of its supports; the middle alone where the span is shorter than that.
struct Between {
    double from = 0, to = 0;
};
Between shearChecked(const model::OneWaySlab& slab, const model::Basis& basis, std::size_t span);

// Never throws; a mechanism is reported in `error`.
SlabAnalysis analyse(const model::OneWaySlab& slab, const model::Basis& basis,
                     const std::vector<actions::Combination>& combinations);

}  // namespace talvik::analysis
