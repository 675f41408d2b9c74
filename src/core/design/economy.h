// The bars of an element at least cost: of mass, kinds of bars to draw, bend and sort, pieces to place, and
// what is cut off, by the rates of the basis.
//
// Local search from the bars that the program chooses by least steel (and those someone fixed, which stay):
// for all runs of a face and direction together, then run by run, every allowed pair of bar and spacing that
// gives as much steel; an edit is kept where the whole element, designed anew, costs less and no check is
// over that was not before. Deterministic; never dearer than what it began with.
#pragma once

#include <functional>
#include <stop_token>

#include "design/design.h"

namespace talvik::design {

struct LayoutCost {
    double steel = 0, waste = 0;  // kg: in the bars, and cut off from stock
    int marks = 0, pieces = 0;
    double price = 0;
};
LayoutCost layoutCost(const ElementAnswer& element, const model::Basis& basis);

struct Economy {
    model::Project project;  // with the runs found as fixed bars; unchanged where nothing is saved or stopped
    LayoutCost before, after;
    int tried = 0, changed = 0;  // layouts worked out; runs that are other than before
    bool stopped = false;
};
// `progress` is told the share done.
Economy economicalLayout(const model::Project& project, const model::Id& element, std::stop_token stop = {},
                         const std::function<void(double)>& progress = {});

}  // namespace talvik::design
