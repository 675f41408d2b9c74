// From required steel to bars people can fix.
#pragma once

#include <functional>
#include <vector>

#include "line/one_way.h"
#include "line/section.h"

namespace talvik::reinforcement {

// Bar runs for a slab: those pinned by the user stay; the others are chosen from the allowed diameters and
// spacings as the least steel that satisfies flexure, minimum steel, spacing and crack rules of the standard
// and, where any choice can, its slenderness rule. Bottom bars run through every span and past its supports;
// top bars cover the hogging moments with the standard's shift and anchorage, ends rounded to 50 mm. Ids are
// taken by `newId`. A zone in which no allowed bar suffices gets the strongest there is, and the checks then
// say "over".
std::vector<model::BarRun> proposeBars(const model::OneWaySlab& slab, const line::LineBasis& in,
                                       const line::OneWayLine& line, const std::function<model::Id()>& newId);

}  // namespace talvik::reinforcement
