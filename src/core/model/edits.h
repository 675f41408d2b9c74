// Edits: functions from a project to the next. Window, command line and tests use the same ones.
#pragma once

#include <functional>
#include <optional>

#include "model/project.h"

namespace talvik::model {

// A copy of the project in which the row `id` of a list is changed by `change(row, Project&)`; all others are
// shared. Unknown id: the project comes back unchanged.
template <class T, class F>
Project editRow(const Project& project, std::vector<std::shared_ptr<const T>> Project::*list,
                std::string_view id, F change) {
    Project next = project;
    for (auto& row : next.*list) {
        if (row->id != id) continue;
        auto copy = std::make_shared<T>(*row);
        change(*copy, next);
        row = std::move(copy);
        break;
    }
    return next;
}
template <class F>
Project editSlab(const Project& project, std::string_view id, F change) {
    return editRow(project, &Project::slabs, id, change);
}
template <class F>
Project editFloor(const Project& project, std::string_view id, F change) {
    return editRow(project, &Project::floors, id, change);
}
template <class F>
Project editBases(const Project& project, std::string_view id, F change) {
    return editRow(project, &Project::bases, id, change);
}

// The same for the fixed bars of an element: `change(std::vector<BarRun>&, Project&)`.
template <class F>
Project editBars(const Project& project, std::string_view element, F change) {
    if (findSlab(project, element))
        return editSlab(project, element, [&](OneWaySlab& s, Project& next) { change(s.bars, next); });
    return editFloor(project, element, [&](Floor& f, Project& next) { change(f.strips.bars, next); });
}

// Changes what someone decided about connections of a floor, by their keys; a choice that is as if nobody
// had made it is dropped.
Project editConnections(const Project& project, std::string_view floor,
                        const std::vector<std::string>& connections,
                        const std::function<void(ConnectionChoice&)>& change);
// Asks for shear steel of a kind and a diameter (0: chosen by the program) at connections of a floor, by
// their keys; None takes it back.
Project setShearSteel(const Project& project, std::string_view floor,
                      const std::vector<std::string>& connections, ConnectionChoice::Steel steel,
                      double diameter);

// A project with no slab; and one with a single default slab of three spans, the start of new work.
Project emptyProject();
// What a new project of the window and the command line begins with: nothing in it, materials, covers, bars and
// units of its standard, shear reinforcement by studs.
Project freshProject(const std::string& standard = "en1992");
Project newProject();
// A new set of bases with what its standard begins with, as yet without columns; in no project.
std::shared_ptr<BaseSet> newBaseSet(const Project& project, std::string name, BaseSet::Kind kind);
Project addSlab(const Project& project, std::string name);

// Elements of every kind: taken out, called otherwise, moved by so many places among those of their kind
// (held within them). The project as it was where there is no such element.
Project removeElement(const Project& project, std::string_view element);
Project renameElement(const Project& project, std::string_view element, const std::string& name);
Project moveElement(const Project& project, std::string_view element, int by);

// Replaces the span lengths (cantilevers included), keeping ids of spans and supports by position; new
// supports copy the last one. With as many spans and the same ends as before, fixed bars move with their
// supports and tips; otherwise those of the old layout are dropped.
Project setSpans(const Project& project, std::string_view slab, const std::vector<double>& lengths,
                 bool cantileverStart, bool cantileverEnd);
}  // namespace talvik::model
