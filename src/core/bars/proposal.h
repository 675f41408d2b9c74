// From required steel to bars people can fix.
#pragma once

#include <vector>

#include "bars/steel.h"
#include "line/one_way.h"

namespace talvik::bars {

// The bars of a slab: those that someone fixed, and where there are none such chosen from the allowed
// diameters and spacings as the least steel that satisfies flexure, minimum steel, spacing and crack rules of
// the standard and, where any choice can, its slenderness rule. Bottom bars run through every span and past
// its supports; top bars cover the hogging moments with the standard's shift and anchorage, ends rounded to
// 50 mm. A zone in which no allowed bar suffices gets the strongest there is, and the checks then say "over".
// In the order of roles, then from the first axis on.
std::vector<Run> proposeSlab(const model::OneWaySlab& slab, const line::LineBasis& in,
                             const line::OneWayLine& line);

}  // namespace talvik::bars
