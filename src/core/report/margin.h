// What the calculation margin lists: the checks of what is in hand, worst first, with what else is known
// about it; with nothing in hand the state of the whole project.
#pragma once

#include <optional>

#include "design/design.h"

namespace talvik::report {

struct MarginLine {
    enum class Kind { Title, Subtitle, Heading, Check, Note, Pair, Remedies } kind;
    std::string text, right = {};
    const checks::Check* check = nullptr;  // points into the design, which must outlive it
};

// `inHand` is the element in hand, by which the state of the project begins; `spot` what is selected in it.
// Where `Remedies` stands there is room for what would make the element pass.
std::vector<MarginLine> margin(const model::Project& project, const design::Design& design,
                               std::string_view inHand, const std::optional<model::Spot>& spot);

}  // namespace talvik::report
