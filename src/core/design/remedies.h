// What would make a failing slab pass: searches over edits, each verified by running the whole pipeline on
// it.
#pragma once

#include <stop_token>
#include <string>
#include <vector>

#include "design/design.h"

namespace talvik::design {

// One edit after which no check of the slab is over. `steel` and `concrete` are its price: changes in kg and
// m3.
struct Remedy {
    std::string text;
    double worst = 0;  // largest ratio after it
    double steel = 0, concrete = 0;
    model::Project project;
};

// Remedies for a slab in which some check is over, smallest interventions first; empty where none is over,
// where none was found, or when stopped. Tried: bars proposed anew (runs fixed by the user kept, then all
// free); a thicker slab, up to 120 mm more, with the bars as they are and with bars anew; stronger concrete
// with bars anew.
std::vector<Remedy> remedies(const model::Project& project, std::string_view slab, std::stop_token stop = {});

}  // namespace talvik::design
