// What the analysis of floors takes from project and standard.
#pragma once

#include "analysis/floor_analysis.h"
#include "design/arrangements.h"
#include "model/project.h"
#include "standards/rules.h"

namespace talvik::design {

analysis::FloorBasis floorBasis(const model::Basis& basis,
                                const std::shared_ptr<const standards::Standard>& standard);

// The floor's own combinations where it has a table of them; else combinations of the standard over the
// floor's cases: permanent cases together; imposed cases all together, and each by itself where there are
// several; each leads in turn, the others accompany it with the standard's factors or are absent. Imposed
// cases are reduced by area where they say so. Cases of arrangements take the place of their own cases in
// ultimate combinations with all imposed cases, with the share `share`; the other limit states have all
// panels loaded.
std::vector<analysis::FloorCombination> floorCombinations(const model::Floor& floor,
                                                          const standards::Standard& standard,
                                                          double share = 1);

// The generated combinations as rows that can be edited.
std::vector<model::CombinationRow> combinationRows(model::Project& project, const model::Floor& floor,
                                                   const standards::Standard& standard);

// What the analysis of one floor of a project is asked.
struct FloorInput {
    std::shared_ptr<const model::Floor> floor;
    std::string path;
    analysis::FloorBasis basis;
    std::vector<analysis::FloorCombination> combinations;
};
FloorInput floorInput(const model::Project& project, std::size_t floor);

// What supports carry, per load case of the floor and in the largest combination of a state.
struct TakeOff {
    struct Row {
        model::Id id;
        std::string name;
        model::Point at;
        std::vector<double> perCase;  // upwards, N; in the order of the floor's cases
        double service = 0, ultimate = 0;
    };
    std::vector<std::string> cases;
    std::vector<double> load;  // total of each case, downwards
    std::vector<Row> rows;
};
TakeOff takeOff(const model::Floor& floor, const analysis::FloorAnalysis& a);

// One floor of a project, analysed from nothing: for the command line and tests.
analysis::FloorAnalysis analyseFloor(const model::Project& project, std::size_t floor,
                                     const std::function<void(double)>& progress = {});

// What a mesh of half the size says beside this one; no rows where there is no answer, or when stopped.
analysis::Convergence convergence(const model::Project& project, std::size_t floor,
                                  std::stop_token stop = {});

}  // namespace talvik::design
