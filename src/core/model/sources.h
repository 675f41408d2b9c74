// Governing values and where they come from. A value that people push until a check passes must show that.
#pragma once

#include "model/project.h"

namespace talvik::model {

// A value that decides much and is not the designer's to choose freely. `key` is stable: it names the value
// in Project::sources.
struct GoverningValue {
    std::string key, label;
    double value = 0;
    units::Kind kind = units::Kind::None;
};
std::vector<GoverningValue> governingValues(const Project& project);

// Adds to the history in `next` every governing value that differs from `before`; `failing`: some check of
// `before` was over its limit. Values that are gone keep their history, so that undo and re-entry find it.
void recordChanges(const Project& before, Project& next, bool failing);

}  // namespace talvik::model
