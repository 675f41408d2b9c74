// A check: one demand against one limit at one place, with its clause, outcome and working. Margin, report,
// JSON and tests all read this struct; nobody recomputes a ratio.
#pragma once

#include <string>
#include <vector>

#include "trace/trace.h"
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
    std::vector<std::string> notes;     // assumptions and readings
    std::string prefix;                 // what stands before both numbers: "l/d", "w"
};

// Demand over limit (or its inverse for AtLeast): up to 1 is within. 0 demand against 0 limit is 0; anything
// against a zero limit is 99.
double ratio(const Finding& finding);
// Sets Within or Over from the ratio, forgiving a relative 1e-9.
Finding judged(Finding finding);
Finding notApplicable(std::string clause, std::string reason);
Finding notChecked(std::string clause, std::string reason);

// Where a check belongs. Positions along the strip in mm from the slab's left axis.
struct Place {
    std::string slab;    // id
    std::string part;    // "span 2", "support C", "slab", a bar run's id
    std::string partId;  // id of the span, support or run; empty for the whole slab
    double x = 0;        // governing station
    double from = 0, to = 0;
};

struct Check : Finding {
    std::string key;    // stable across runs: "slab-1/span-2/flexure-bottom"
    std::string title;  // "Flexure bottom, span B–C"
    std::string combination;
    Place place;
    std::string strip;  // key of a strip of a floor, whose id is place.slab; positions are then along its axis
    trace::Steps steps;
};

struct Summary {
    int over = 0, within = 0, notChecked = 0, notApplicable = 0;
    Summary& operator+=(const Summary& more);
};
Summary summary(const std::vector<Check>& all);
// Worst first: over by ratio, within by ratio, then not checked and not applicable; ties by key.
std::vector<const Check*> worstFirst(const std::vector<Check>& all);
// "within", "over", "not applicable", "not checked".
std::string name(Outcome outcome);
// "m 74.6 of 68.9 kNm/m", "As 503, min 224 mm²/m" in display units.
std::string figures(const Finding& finding, units::System system);

}  // namespace talvik::checks
