// What would make a failing element pass: one search over edits, each verified by running everything on it.
// The kinds of element supply the attempts (design/ladders).
#pragma once

#include <functional>
#include <stop_token>
#include <string>
#include <vector>

#include "design/answer.h"
#include "design/design.h"

namespace talvik::design {

// One edit after which what it is for is within, and nothing is over that was not; and its price: changes in
// kg, m3 and by the project's rates.
struct Remedy {
    std::string text;
    std::vector<std::string> left;  // titles of checks that were over before and still are
    double worst = 0;               // largest ratio after it, of the part it is for
    double steel = 0, concrete = 0, price = 0, carbon = 0;
    model::Project project;
};
struct Remedies {
    std::vector<Remedy> found;      // those that leave nothing over first, then by price
    std::vector<std::string> vain;  // kinds of edits that were tried and do not help
};

// For a part of an element in which some check is over: the element itself where the part is Whole, nothing
// of which may stay over; of a floor its worst check at least, then what is left is named. Empty where none
// is over, where none was found, or when stopped. Floors are verified with their proof by field and their
// sag. `each` is told every one as it is found. `now`: the complete answer to the project as it is; worked
// out where there is none.
Remedies remedies(const model::Project& project, const model::PartRef& part, std::stop_token stop = {},
                  const std::function<void(const Remedy&)>& each = {},
                  std::shared_ptr<const ElementAnswer> now = nullptr);

}  // namespace talvik::design
