// Bars along the edges of a floor and round its openings, which belong to no strip: U-bars with a bar in
// either corner (EN 1992-1-1 9.3.1.4), beside openings as much steel as they cut off, half on either side,
// and in drops below the slab a mat of bars bent up at their ends. Their spacing is that of the least steel
// allowed across strips; nothing is designed for them.
#pragma once

#include "design/floor_design.h"
#include "schedule/plan_bars.h"

namespace talvik::design {

// One part for the outlines of the slabs together, one for each drop and one for each opening.
std::vector<std::shared_ptr<const PartAnswer>> edgeBars(const FloorDesign& f, const schedule::Room& room);

}  // namespace talvik::design
