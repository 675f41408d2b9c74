#include "report/open_matters.h"

#include <fmt/format.h>

#include <algorithm>

#include "design/arrangements.h"

namespace talvik::report {
namespace {

using Nature = model::LoadCase::Nature;

void unloaded(const model::Project& project, const std::shared_ptr<const model::Floor>& floor,
              std::vector<Matter>& all) {
    auto add = [&](std::string text, std::vector<model::Id> ids = {}) {
        Matter m;
        m.kind = Matter::Kind::Unloaded, m.message = std::move(text), m.ids = std::move(ids);
        all.push_back(std::move(m));
    };
    const auto& actions = floor->actions;
    bool imposed = false;
    for (const auto& c : actions.cases) {
        const bool loaded = std::any_of(actions.loads.begin(), actions.loads.end(), [&](const auto& l) {
            return l.loadCase == c.id && (l.kind != model::FloorLoad::Kind::Area || model::intensity(l) != 0);
        });
        imposed |= c.nature == Nature::Imposed && loaded;
        if (c.nature != Nature::SelfWeight && !loaded)
            add(fmt::format("The {} case {} has no load: it counts for nothing.",
                            c.nature == Nature::Imposed ? "imposed" : "permanent", c.name),
                {c.id});
    }
    if (!imposed)
        add("No imposed load stands on this floor: give a case its load on every slab, or draw one.");
    if (actions.arrangement != model::Arrangement::All) return;
    auto turned = std::make_shared<model::Floor>(*floor);
    turned->actions.arrangement = model::Arrangement::InTurn;
    const auto standard = standards::makeStandard(project.basis.standard, project.basis.parameters);
    if (standard && design::arranged(turned, project.basis, *standard).floor != turned)
        add(fmt::format(
            "{} asks for imposed loads on panels in turn; they stand on all at once, by your choice.",
            standard->title));
}

}  // namespace

std::vector<Matter> openMatters(const model::Project& project, std::string_view element) {
    std::vector<Matter> all;
    if (const auto* slab = model::findSlab(project, element); slab && slab->imposed == 0) {
        Matter m;
        m.kind = Matter::Kind::Unloaded, m.message = "No imposed load stands on this slab.";
        all.push_back(m);
    }
    for (const auto& floor : project.floors) {
        if (floor->id != element) continue;
        for (auto& e : layout::looseEnds(*floor)) all.push_back({std::move(e), Matter::Kind::Loose});
        if (!floor->slabs.empty()) {
            unloaded(project, floor, all);
            continue;
        }
        Matter none;
        none.message = "There is no slab yet: draw its outline, or lay slabs over the bays of a grid.";
        none.prevents = true;
        all.push_back(none);
    }
    return all;
}

}  // namespace talvik::report
