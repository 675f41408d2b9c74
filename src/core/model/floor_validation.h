// What makes a floor impossible to analyse, and what looks like a slip.
#pragma once

#include "model/project.h"

namespace talvik::model {

// Sentences with their place; empty when the floor can be analysed. Ids are checked by validate().
std::vector<Diagnostic> validateFloor(const Floor& floor, const std::string& path);

// Ends of beams and walls that stop just short of what they should meet, and other near misses: the gap, the
// place and what to do. The floor can be analysed all the same.
std::vector<Diagnostic> nearMisses(const Floor& floor, const std::string& path);

}  // namespace talvik::model
