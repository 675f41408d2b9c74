// A project in which the bars that the program chooses for its one-way slabs are fixed, so that a test can
// change them one by one.
#pragma once

#include "design/design.h"
#include "model/edits.h"

namespace talvik::test {

inline model::Project chosenBars(model::Project project) {
    for (auto& slab : project.slabs)
        project = model::editBars(project, slab->id, [](auto& bars, auto&) { bars.clear(); });
    const auto design = design::run(project, {.trace = false, .floors = false});
    for (std::size_t i = 0; i < project.slabs.size(); ++i)
        project = model::editBars(project, model::Id(project.slabs[i]->id), [&](auto& bars, auto& next) {
            for (const auto& run : design.slab(i).bars) bars.emplace_back(run).id = model::newId(next, 'b');
        });
    return project;
}

}  // namespace talvik::test
