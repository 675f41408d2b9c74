// Loads of bases from the floors of the same project that stand on them: what supports of a floor carry, case
// by case, put in the place of the actions that were taken note of last.
//
// Readings. Imposed loads are those on all panels at once. Moments and horizontal forces come from the lowest
// floor alone: of the couple that passes from a slab into a column, the share of the storey below (by 1/h
// where the column goes on above), half of it at a fixed foot and none at a hinged one, with the horizontal
// force that goes with them. Walls pass on where along their length they are loaded; across, a wall that
// bends with the slab counts as fixed at its foot. Units N, mm; signs as in model/bases.h.
#pragma once

#include <functional>
#include <memory>

#include "analysis/floor_analysis.h"
#include "model/project.h"

namespace talvik::design {

struct LinkedChange {
    model::Id column;
    std::string loadCase;
    double before = 0, now = 0;  // N, downwards
    bool operator==(const LinkedChange&) const = default;
};
struct LinkedLoads {
    // With the actions that count; the set itself where nothing is linked.
    std::shared_ptr<const model::BaseSet> set;
    std::string error;                  // a floor or a support that is not there or has no answer
    std::vector<LinkedChange> changed;  // beside what was taken note of: by more than 0.5 % and 0.5 kN
    std::vector<std::string> notes;
};
// The analysis of a floor of the project; null where it has none.
using AnalysisOf = std::function<std::shared_ptr<const analysis::FloorAnalysis>(const model::Floor&)>;
LinkedLoads withFloors(const model::Project& project, const std::shared_ptr<const model::BaseSet>& set,
                       const AnalysisOf& analysisOf);
// Whether some column takes its loads from a floor.
bool linked(const model::BaseSet& set);

// Each column and wall of a floor that stands on something below it becomes a column on a base of its own;
// one that stands where the set has a column already, loads that column besides. Walls askew, and what is
// held without more being known, are left out and named in `left`.
model::Project linkFloor(const model::Project& project, std::string_view set, const model::Floor& floor,
                         std::vector<std::string>& left);
// The same columns without loads from this floor; those that nothing else loads go with their bases.
model::Project unlinkFloor(const model::Project& project, std::string_view set, std::string_view floor);
// What the floors put on now is what was taken note of.
model::Project takeNote(const model::Project& project, std::string_view set, const model::BaseSet& withLoads);

}  // namespace talvik::design
