// All elements of a project with what was found for them: everything that margin, window, report and files
// show.
#pragma once

#include "design/slab_design.h"

namespace talvik::design {

struct Design {
    std::shared_ptr<const standards::Standard> standard;
    std::vector<model::Diagnostic> trouble;  // the project is not valid; nothing else is filled then
    std::vector<std::shared_ptr<const ElementAnswer>> elements;  // those answered, as the project lists them
    schedule::Marks marks;  // of all bars: as given out, the others as they would be next
    // As the project has them: what was fixed, and the letter under which changes leave next.
    std::vector<std::shared_ptr<const model::Revision>> revisions;
    std::string letter;

    const ElementAnswer* find(std::string_view element) const;
    const SlabDesign& slab(std::size_t number) const;  // the one-way slab in that place of the list
    checks::Summary summary() const;
    // Of all members of an element, with the letter under which each row last changed; and of some of its
    // bars alone.
    schedule::Schedule scheduleOf(const ElementAnswer& element) const;
    schedule::Schedule scheduleOf(const ElementAnswer& element,
                                  const std::vector<schedule::Item>& items) const;
    // Of what so many members have each.
    schedule::Schedule scheduleOf(const ElementAnswer& element, const std::vector<schedule::Item>& items,
                                  const std::string& member, int members) const;
    schedule::Schedule schedule() const;
    std::string callout(const PartAnswer& part, const model::Id& run, units::System system) const;
};
// Puts answers together; `standard` is the project's.
Design joined(const model::Project& project, std::shared_ptr<const standards::Standard> standard,
              std::vector<std::shared_ptr<const ElementAnswer>> elements);

struct Options {
    bool trace = true;   // keep the working of every check
    bool floors = true;  // which take longer
};
// Everything worked out now, element by element; an invalid project gives its trouble.
Design run(const model::Project& project, const Options& options = {});

// Every one-way slab of which the thickness is not pinned: the smallest (10 mm or half-inch steps) at which
// no check is over with the bars that follow. `progress` is told the share done and answers whether to go
// on; a stopped search gives the project unchanged.
using Progress = std::function<bool(double)>;
model::Project designAll(const model::Project& project, const Progress& progress = {});

}  // namespace talvik::design
