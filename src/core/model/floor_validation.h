// What makes a floor impossible to analyse, and what looks like a slip.
#pragma once

#include "model/project.h"

namespace talvik::model {

// What no floor may hold, even half drawn: numbers out of range, outlines that cross themselves, references
// to nothing. Sentences with their place. Ids are checked by validate().
std::vector<Diagnostic> wellFormed(const Floor& floor, const std::string& path);

// That, and what a drawing under way may have but an analysis may not: no slab, slabs over each other,
// members off the slab. Empty when the floor can be analysed.
std::vector<Diagnostic> validateFloor(const Floor& floor, const std::string& path);

// Ends of beams and walls that stop just short of what they should meet, and other near misses: the gap, the
// place and what to do. The floor can be analysed all the same.
std::vector<Diagnostic> nearMisses(const Floor& floor, const std::string& path);

}  // namespace talvik::model
