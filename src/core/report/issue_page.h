// What whoever issues should know before anything leaves: what is over, not checked, assumed, still open.
#pragma once

#include "report/report.h"

namespace talvik::report {

struct IssueLine {
    enum class Kind { Over, Open, NotChecked, Assumed } kind = Kind::Over;
    std::string element, text;
    const checks::Check* check = nullptr;  // points into the design, which must outlive it; may be null
};
// Of every element, the gravest first; of checks that are not made, each said once.
std::vector<IssueLine> beforeIssue(const model::Project& project, const design::Design& design);
// The same on a page.
Document issuePage(const model::Project& project, const design::Design& design);

}  // namespace talvik::report
