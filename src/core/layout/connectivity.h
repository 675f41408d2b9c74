// What is not joined, not held or in the way on a floor: marked where it is, with the gap, and where possible
// one action that mends it.
#pragma once

#include <functional>

#include "model/project.h"

namespace talvik::layout {

struct LooseEnd {
    std::string message;  // what is wrong, in a sentence
    geometry::Point at;
    double gap = 0;              // mm; 0 where it is not about a gap
    std::vector<model::Id> ids;  // of the members concerned, the one that a mend changes first
    bool prevents = false;       // the floor cannot be analysed before it is mended
    std::string mend;            // what the action does: "Extend beam B1 by 3 mm"; empty: none is offered
    std::function<void(model::Project&, model::Floor&)> apply;
};

// In a fixed order: by kind, then as in the file. A mend leaves a well-formed floor without this loose end.
std::vector<LooseEnd> looseEnds(const model::Floor& floor);

}  // namespace talvik::layout
