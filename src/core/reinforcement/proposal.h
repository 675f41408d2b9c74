// From required steel to bars people can fix.
#pragma once

#include <functional>
#include <vector>

#include "reinforcement/demand.h"

namespace talvik::reinforcement {

// Bar runs for a slab: those pinned by the user stay; the others are chosen from the allowed diameters and
// spacings as the least steel that satisfies flexure, minimum steel, spacing and crack rules of the standard
// and, where any choice can, its slenderness rule. Bottom bars run through every span and past its supports;
// top bars cover the hogging moments with the standard's shift and anchorage, ends rounded to 50 mm. Ids are
// taken by `newId`. A zone in which no allowed bar suffices gets the strongest there is, and the checks then
// say "over".
std::vector<model::BarRun> proposeBars(const model::OneWaySlab& slab, const model::Basis& basis,
                                       const standards::Standard& standard, const analysis::SlabAnalysis& a,
                                       const Demand& demand, const std::function<model::Id()>& newId);

// System of a span for span-to-depth rules, found from the layout: a cantilever; both neighbours continuous;
// one; none.
standards::SpanSystem spanSystem(const model::OneWaySlab& slab, std::size_t span);

// Largest service moment of the crack rule on a face within a span (both = at any of its stations).
struct ServiceMoment {
    double moment = 0;  // per mm of width, magnitude
    analysis::Governing by;
};
ServiceMoment crackMoment(const model::OneWaySlab& slab, const standards::Standard& standard,
                          const analysis::SlabAnalysis& a, bool top, std::size_t index);

}  // namespace talvik::reinforcement
