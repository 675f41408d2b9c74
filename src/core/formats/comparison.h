// Two states of a project beside each other: inputs, checks, steel, quantities and cost.
#pragma once

#include <string>
#include <vector>

#include "design/quantities.h"
#include "report/report.h"

namespace talvik::formats {

struct Comparison {
    // An input by the path in the project file, members by their names: "Fish hall › column C3 › width_mm".
    // Empty where there is none.
    struct Input {
        std::string what, before, after;
    };
    // A check of which the ratio moved by 0.005 or more, or the outcome changed; null where there is none.
    struct Check {
        std::string element, title;
        std::string before, after;  // ratio or outcome
        double change = 0;          // of the ratio; outcomes that became worse first
        bool worse = false;         // it is over and was not
    };
    struct Amount {
        std::string what, unit;
        double before = 0, after = 0;
    };
    std::vector<std::string> notes;  // elements that have no design in one of the two, and why
    std::vector<Input> inputs;
    std::vector<Check> checks;
    std::vector<Amount> amounts;  // steel, concrete, cost, carbon by element and in all; steel by size
    bool same() const { return inputs.empty() && checks.empty(); }
};
// Designs of both projects; what is broken in one counts as not there, and is told.
Comparison compare(const model::Project& before, const design::Design& designBefore,
                   const model::Project& after, const design::Design& designAfter);
report::Document comparisonPage(const Comparison& comparison, const std::string& before,
                                const std::string& after, units::System system);
std::string comparisonJson(const Comparison& comparison);

}  // namespace talvik::formats
