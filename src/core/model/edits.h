// Edits: functions from a project to the next. Window, command line and tests use the same ones.
#pragma once

#include <optional>

#include "model/project.h"

namespace talvik::model {

// A copy of the project in which slab `id` is changed by `change(OneWaySlab&, Project&)`; the other slabs are
// shared. Unknown id: the project comes back unchanged.
template <class F>
Project editSlab(const Project& project, std::string_view id, F change) {
    Project next = project;
    for (auto& row : next.slabs) {
        if (row->id != id) continue;
        auto copy = std::make_shared<OneWaySlab>(*row);
        change(*copy, next);
        row = std::move(copy);
        break;
    }
    return next;
}

// The same for a floor: `change(Floor&, Project&)`.
template <class F>
Project editFloor(const Project& project, std::string_view id, F change) {
    Project next = project;
    for (auto& row : next.floors) {
        if (row->id != id) continue;
        auto copy = std::make_shared<Floor>(*row);
        change(*copy, next);
        row = std::move(copy);
        break;
    }
    return next;
}

// A project with no slab; and one with a single default slab of three spans, the start of new work.
Project emptyProject();
Project newProject();
Project addSlab(const Project& project, std::string name);
Project removeSlab(const Project& project, std::string_view slab);

// Replaces the span lengths (cantilevers included), keeping ids of spans and supports by position; new
// supports copy the last one. With as many spans and the same ends as before, bars move with their supports
// and tips; otherwise the bars of the old layout are dropped.
Project setSpans(const Project& project, std::string_view slab, const std::vector<double>& lengths,
                 bool cantileverStart, bool cantileverEnd);
Project setRun(const Project& project, std::string_view slab, const BarRun& run);  // by id; marks it pinned
Project addRun(const Project& project, std::string_view slab, BarRun run);         // gives it an id; pinned
Project removeRun(const Project& project, std::string_view slab, std::string_view run);
Project setUnpinned(const Project& project, std::string_view slab);  // all runs free again

}  // namespace talvik::model
