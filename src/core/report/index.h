// What can be looked for by a word: parts, spans, supports, marks of bars and checks of every element.
#pragma once

#include "design/design.h"

namespace talvik::report {

struct Entry {
    std::string text, detail;
    model::Spot spot;   // to which it leads
    std::string check;  // key of a check; empty for places and bars
};
// The element in hand first; within each its parts with what lies on them, then its checks, worst first.
std::vector<Entry> index(const design::Design& design, std::string_view inHand, units::System system);

}  // namespace talvik::report
