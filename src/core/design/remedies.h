// What would make a failing element pass: one search over edits, each verified by running everything on it.
// The kinds of element supply the attempts (design/ladders).
#pragma once

#include <functional>
#include <stop_token>
#include <string>
#include <vector>

#include "design/answer.h"
#include "design/design.h"
#include "design/ladders.h"

namespace talvik::design {

// One edit after which what it is for is within, and nothing is over that was not; and its price: changes in
// kg, m3 (with beams and columns) and by the project's rates of all that changes.
struct Remedy {
    std::string text;
    std::vector<std::string> left;  // titles of checks that were over before and still are
    double worst = 0;               // largest ratio after it, of the part it is for
    std::string beside;             // of the checks within before the one that it brings closest to its limit
    Reach reach = Reach::Bars;
    double steel = 0, concrete = 0, price = 0, carbon = 0;
    model::Project project;
};
// A kind of edits that was tried and does not help; how near it came: the least of the largest ratios, of the part
// it was for, with nothing new over; 0 where each put something else over.
struct InVain {
    std::string what;
    double nearest = 0;
    std::string text() const;  // "studs: 1.12 at best"
    bool operator==(const InVain&) const = default;
};
struct Remedies {
    // Those that leave nothing over first; then what changes little before what changes much, then by price.
    std::vector<Remedy> found;
    std::vector<InVain> vain;
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
