// Fixing a revision, and what changed since one was.
#pragma once

#include "design/design.h"

namespace talvik::design {

// The project with what leaves the office under its letter now kept; the marks given out with it. `why` says
// where it cannot be: without a letter, or under one that was fixed with other bars.
struct Fixed {
    model::Project project;
    std::string why;
};
Fixed fixRevision(const model::Project& project, const Design& of);

// The revision with which drawings are compared: the last one fixed under another letter than the project's
// now; null for none.
const model::Revision* compared(const Design& of);
// The key under which a call-out is kept.
std::string callKey(const PartAnswer& part, const model::Id& run);
// Whether a run's call-out is another one than in the revision compared with; false without one.
bool changed(const Design& of, const PartAnswer& part, const model::Id& run, const std::string& callout);
// What was called out of an element in the revision compared with and is no longer: the call-outs.
std::vector<std::string> gone(const Design& of, const ElementAnswer& element);

}  // namespace talvik::design
