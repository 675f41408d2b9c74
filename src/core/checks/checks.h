// A check: one demand against one limit at one place, with its clause, outcome and working. Margin, report,
// JSON and tests all read this struct; nobody recomputes a ratio.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "checks/finding.h"
#include "geometry/polygon.h"
#include "model/part.h"
#include "trace/trace.h"

namespace talvik::checks {

// What a check is about, whatever element and standard it belongs to.
enum class Topic {
    None,  // of no check that is made
    Flexure,
    Ductility,
    OneWayShear,
    Punching,
    Steel,    // least, most, distribution, in bands over columns
    Spacing,  // centre to centre, and clear
    BarEnds,
    Anchorage,  // at and over supports
    Cracks,
    Sag,
    Slenderness,
    Redistribution,
    Uplift,
    Ground,    // pressure, sliding, overturning, settlement of bases; forces of piles
    Bearing,   // concrete below columns, nodes of struts
    Coverage,  // slab in no strip; steel and shear everywhere
    Omission   // what is not checked at all
};

// Where a check belongs: its spot, and the station along the part's line, mm. `at`: in plan, where there is
// one.
struct Place {
    model::Spot spot;
    std::string name;  // "span B–C", "support C", "slab"
    double x = 0;      // governing station
    double from = 0, to = 0;
    std::optional<geometry::Point> at = {};
};

struct Check : Finding {
    std::string key;    // stable across runs, for files and people; nothing reads meaning out of it
    std::string what;   // "Flexure bottom": the same of like checks at other places
    std::string title;  // "Flexure bottom, span B–C"
    Topic topic = Topic::None;
    std::optional<model::Face> face = {};  // of checks of one face
    std::string combination;
    Place place;
    trace::Steps steps;
};

struct Summary {
    int over = 0, within = 0, notChecked = 0, notApplicable = 0;
    Summary& operator+=(const Summary& more);
};
Summary summary(const std::vector<Check>& all);
// Worst first: over by ratio, within by ratio, then not checked and not applicable; ties by key.
std::vector<const Check*> worstFirst(const std::vector<Check>& all);
std::vector<const Check*> worstFirst(std::vector<const Check*> all);
// Largest ratio of those judged; 0 without.
double worst(const std::vector<Check>& all);
// "within", "over", "not applicable", "not checked".
std::string name(Outcome outcome);
// "m 74.6 of 68.9 kNm/m", "As 503, min 224 mm²/m" in display units.
std::string figures(const Finding& finding, units::System system);
// The ratio with two decimals, more where it is over by less than these show; the outcome of what is not judged.
std::string ratioText(const Finding& finding);

}  // namespace talvik::checks
