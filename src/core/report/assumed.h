// What a project takes for granted, in the same words on screen, in the report and before issue.
#pragma once

#include <string>
#include <vector>

#include "design/design.h"
#include "model/project.h"

namespace talvik::report {

struct Assumed {
    std::string element;  // its name; empty for the project
    std::string text;
};
// Governing values without a source or whose source is an assumption, equal ones named once, then what the answers
// assume. Of the whole project, or of one element with what all share; checks' own notes are not among them.
std::vector<Assumed> assumed(const model::Project& project, const design::Design& design,
                             const model::Id& only = {});

}  // namespace talvik::report
