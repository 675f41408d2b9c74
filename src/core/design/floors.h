// What the analysis of floors takes from project and standard.
#pragma once

#include "analysis/floor_analysis.h"
#include "model/project.h"
#include "standards/rules.h"

namespace talvik::design {

analysis::FloorBasis floorBasis(const model::Basis& basis, const standards::Standard& standard);

// Combinations of the standard over the floor's cases: permanent cases together; imposed cases all together,
// and each by itself where there are several. Reading: imposed cases that act together all count as leading,
// without the smaller combination factor of accompanying ones; that is on the safe side.
std::vector<analysis::FloorCombination> floorCombinations(const model::Floor& floor,
                                                          const standards::Standard& standard);

// One floor of a project, analysed from nothing: for the command line and tests.
analysis::FloorAnalysis analyseFloor(const model::Project& project, std::size_t floor,
                                     const std::function<void(double)>& progress = {});

}  // namespace talvik::design
