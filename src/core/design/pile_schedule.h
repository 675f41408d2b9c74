// The piles of a set of caps, numbered cap by cap, where they stand and what they carry.
#pragma once

#include "design/bases.h"

namespace talvik::design {

struct ScheduledPile {
    const BasePart* base = nullptr;
    int number = 0;                  // within its cap, as on drawings
    geometry::Point at;              // on plan, mm
    double largest = 0, least = 0;   // N, compression positive; with the weight of the cap, piles as drawn
    std::string largestIn, leastIn;  // names of combinations
};
// None of pads.
std::vector<ScheduledPile> pileSchedule(const BasesAnswer& answer);
// The same of one cap; in every combination: [combination][pile], N.
std::vector<ScheduledPile> pilesOf(const BasesAnswer& answer, const BasePart& base);
struct PileReactions {
    std::vector<std::string> combinations;
    std::vector<std::vector<double>> forces;
};
PileReactions pileReactions(const BasesAnswer& answer, const BasePart& base);
// From the ground down to the heads of the piles, mm.
double cutOff(const model::BaseSet& set);

}  // namespace talvik::design
