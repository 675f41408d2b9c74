// One section or one panel in a minute, without a model: section by moment, one-way slab by coefficients,
// two-way panel by the nine cases of edge conditions.
#pragma once

#include "checks/checks.h"
#include "model/project.h"
#include "standards/rules.h"

namespace talvik::opinions {

// Lengths mm, loads N/mm2 unfactored, moment N mm on the width. Materials, covers and bars are the basis'.
struct BenchInput {
    enum class Kind { Section, OneWay, TwoWay } kind = Kind::TwoWay;
    double thickness = 200;
    double width = 1000, moment = 50e6;  // section; hogging negative
    int spans = 3;                       // one-way: equal spans
    double span = 5000, support = 200;   // one-way: axis to axis, width of supports
    double lx = 4500, ly = 6000;         // two-way: between axes of supports
    bool continuous[4] = {true, true, true,
                          true};  // two-way: left, right (ends of lx), below, above (ends of ly)
    double permanent = 1.5e-3;    // besides self-weight
    double imposed = 3e-3;
    std::string use = "B";
    bool operator==(const BenchInput&) const = default;
};
struct BenchAnswer {
    std::string trouble;  // why there is none
    std::string source;   // of the moments
    std::vector<std::string> notes;
    double selfWeight = 0, ultimate = 0;  // loads per area
    // A place and the bars there.
    struct Row {
        std::string place;
        bool top = false, alongX = true;
        double moment = 0;    // magnitude per mm of width
        double required = 0;  // mm2 per mm
        std::string bar;
        double spacing = 0, provided = 0;
    };
    std::vector<Row> rows;
    std::vector<checks::Check> checks;  // with working
    std::vector<checks::Check> brief;   // for one page: bending and what is over, with one working
};
// Moments from coefficients (for panels Kind TwoWay those of BS 8110-1 3.5.3.4, named so, whatever the
// standard), bars as the least steel of the allowed sets that satisfies flexure, least steel, spacing and
// cracks by the standard's rules, and the checks of what was chosen. The moment for cracks is the ultimate
// one in the ratio of the loads of its combination. Trouble in a sentence where the input has no answer.
BenchAnswer bench(const BenchInput& input, const model::Basis& basis);

}  // namespace talvik::opinions
