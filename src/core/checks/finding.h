// What a rule of a standard finds: a demand against a limit.
#pragma once

#include <string>
#include <vector>

#include "units/units.h"

namespace talvik::checks {

enum class Outcome { Within, Over, NotApplicable, NotChecked };
enum class Sense { AtMost, AtLeast };  // demand <= limit, or demand >= limit

// What a rule of a standard finds: values in stored units of `kind` (see units.h). A rule that does not exist
// or does not apply says so with its reason.
struct Finding {
    units::Kind kind = units::Kind::None;
    double demand = 0, limit = 0;
    Sense sense = Sense::AtMost;
    std::string clause;
    Outcome outcome = Outcome::Within;  // set by `judged`
    std::string reason;                 // for NotApplicable and NotChecked
    std::vector<std::string> notes;     // assumptions and readings, which the whole project rests on
    std::vector<std::string> here;      // what holds at this place alone
    std::string prefix;                 // what stands before both numbers: "l/d", "w"
};

inline bool isJudged(const Finding& f) {
    return f.outcome == Outcome::Within || f.outcome == Outcome::Over;
}
// All that is said about it: what holds here, then assumptions.
std::vector<std::string> said(const Finding& finding);
// Demand over limit (or its inverse for AtLeast): up to 1 is within. 0 demand against 0 limit is 0; anything
// against a zero limit is 99.
double ratio(const Finding& finding);
// Sets Within or Over from the ratio, forgiving a relative 1e-9.
Finding judged(Finding finding);
Finding notApplicable(std::string clause, std::string reason);
Finding notChecked(std::string clause, std::string reason);

}  // namespace talvik::checks
