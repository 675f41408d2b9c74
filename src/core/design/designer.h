// Who answers for an element. A kind of element has one designer; it keeps from its last answer what an edit
// leaves alone.
#pragma once

#include <functional>
#include <stop_token>

#include "design/answer.h"
#include "model/project.h"

namespace talvik::design {

// An element of a project that is valid.
struct Request {
    std::shared_ptr<const model::Project> project;
    model::Id element;
    int asked = 0;  // whoever asks may count
    // Answers there are for other elements, perhaps to an older state; null, or nothing to call, without.
    std::function<std::shared_ptr<const ElementAnswer>(const model::Id&)> known{};
};

class Designer {
  public:
    using Answer = std::shared_ptr<const ElementAnswer>;
    virtual ~Designer() = default;
    virtual bool serves(const model::Project& project, const model::Id& element) const = 0;
    // Gives the answer to `publish`, more than once where a first one is not complete yet; not at all when
    // stopped. `progress` is told the share done, by kinds that take their time.
    virtual void design(const Request& request, std::stop_token stop,
                        const std::function<void(double)>& progress,
                        const std::function<void(Answer)>& publish) = 0;
    // The complete answer to a request, worked out by another of its kind: what an edit of it leaves alone
    // may be kept.
    virtual void startFrom(const Request&, const Answer&) {}
};

// One that serves the element that the project has under this id; null without.
std::unique_ptr<Designer> makeDesigner(const model::Project& project, const model::Id& element);

// The answer to one element worked out from nothing, for the command line, remedies and tests: the complete
// one, or the first for which `enough` holds. Null when stopped.
Designer::Answer designNow(const model::Project& project, const model::Id& element, std::stop_token stop = {},
                           const std::function<bool(const ElementAnswer&)>& enough = {});

}  // namespace talvik::design
