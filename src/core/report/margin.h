// What the calculation margin lists: the checks of what is in hand, worst first, with what else is known
// about it; with nothing in hand the state of the whole project. In Layout and Actions what stands open
// there.
#pragma once

#include <optional>
#include <set>

#include "design/design.h"
#include "report/open_matters.h"

namespace talvik::report {

struct MarginLine {
    // Like: checks of one kind at several places, the worst of them in `check`.
    enum class Kind { Title, Subtitle, Heading, Check, Like, Note, Pair, Remedies, Matter } kind;
    std::string text, right = {};
    const checks::Check* check = nullptr;  // points into the design, which must outlive it
    std::size_t matter = 0;                // number in what stands open
};

struct MarginView {
    std::string_view inHand;          // the element, by which the state of the project begins
    std::optional<model::Spot> spot;  // what is selected
    // In Layout and Actions: what stands open there, shown instead of the selection; null elsewhere.
    const std::vector<Matter>* matters = nullptr;
    std::set<std::string> unfolded = {};  // likes of which every check is listed, by what they check
};

// Where `Remedies` stands there is room for what would make the element pass. Checks over their limit are
// listed one by one; of the others three or more of a kind are gathered in one line.
std::vector<MarginLine> margin(const model::Project& project, const design::Design& design,
                               const MarginView& view);

}  // namespace talvik::report
