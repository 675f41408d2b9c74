// Which columns stand on one base.
#pragma once

#include <vector>

#include "model/edits.h"

namespace talvik::model {

// The columns of all these bases on the first of them, which keeps its pins of depth and bars; sizes in plan,
// offsets and places of piles were for other columns and are given back. Fewer than two: unchanged.
void joinInSet(BaseSet& set, const std::vector<Id>& bases);
Project joinBases(const Project& project, std::string_view set, const std::vector<Id>& bases);
// Each column of these bases on one of its own; the first keeps the base.
Project partBases(const Project& project, std::string_view set, const std::vector<Id>& bases);

}  // namespace talvik::model
