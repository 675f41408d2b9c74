// Sag of the spans of a one-way slab, from the curvatures of the standard along them.
#pragma once

#include <functional>

#include "design/slab_design.h"

namespace talvik::design {

// Limits of the standard, with those that the basis sets otherwise in their place.
std::vector<standards::SagLimit> sagLimits(const standards::SagRules& rules, const model::Basis& basis);

// Deflections over limits of the standard that it does not ask for, by the clause (none: it does): what was computed
// is told. Limits that the basis sets hold.
void spareSags(std::vector<checks::Check>& all, const std::string& clause,
               const std::function<bool(const checks::Check&)>& spared, units::System system);

// Sags of all spans and their checks against the standard's limits, gathered in `list`; whether a span is
// within all of its limits. `of` is the slab's line.
std::vector<char> checkSags(const model::OneWaySlab& slab, const verify::LineCase& of, SlabDesign& d,
                            verify::CheckList& list, bool tracing);

}  // namespace talvik::design
