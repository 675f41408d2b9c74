// What all bars share when they are cut and bent: shapes of bars with hooks, cut lengths, masses.
#pragma once

#include "schedule/schedule.h"

namespace talvik::schedule {

// Leg of a hook at the end of a bar: through the depth between the covers, or as long as its bend and tail
// ask. Longer than the depth it lies tilted; `tilted` says so as a note.
double hookLeg(double depth, double diameter, const standards::AnchorageRules& rules);
inline constexpr const char* tilted = "hooks tilted: the tail is longer than the depth between the covers";
// A bar of this straight length with hooks at none, one or both of its ends.
void shape(Item& item, double straight, double leg, bool start, bool end);
// Cut length, rounded up to 25 mm, and mass of an item with its shape and dimensions.
void cut(Item& item, const catalogs::Bar& bar, const standards::AnchorageRules& rules);

}  // namespace talvik::schedule
