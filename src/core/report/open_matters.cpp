#include "report/open_matters.h"

#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "design/arrangements.h"
#include "model/steps.h"

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
            add(fmt::format("The {} case {} has no load and no effect.",
                            c.nature == Nature::Imposed      ? "imposed"
                            : c.nature == Nature::Wind       ? "wind"
                            : c.nature == Nature::Accidental ? "accidental"
                                                             : "permanent",
                            c.name),
                {c.id});
    }
    if (!imposed) add("No imposed load acts on this floor: give a case its load on every slab, or draw one.");
    if (actions.arrangement != model::Arrangement::All) return;
    auto turned = std::make_shared<model::Floor>(*floor);
    turned->actions.arrangement = model::Arrangement::InTurn;
    const auto standard = standards::makeStandard(project.basis.standard, project.basis.parameters);
    if (standard && design::arranged(turned, project.basis, *standard).floor != turned)
        add(fmt::format("{} requires pattern loading; it is switched off by the user.", standard->title));
}

// Steps so deep that no bars pass.
void deepSteps(const model::Floor& floor, std::vector<Matter>& all) {
    std::set<std::pair<std::size_t, std::size_t>> told;
    for (const auto& side : model::slabSides(floor)) {
        if (side.beside < 0) continue;
        const auto pair = std::minmax({side.slab, std::size_t(side.beside)});
        const auto &a = floor.slabs[pair.first], &b = floor.slabs[pair.second];
        const double left = model::passing(a, b);
        if (left >= model::leastPassing || !told.insert(pair).second) continue;
        auto name = [](const model::SlabArea& s) { return s.name.empty() ? s.id : s.name; };
        Matter m;
        m.kind = Matter::Kind::Loose;
        m.message = fmt::format(
            "Slabs {} and {} share {} of concrete at the step between them: no bars pass, and the analysis "
            "joins them "
            "only where a wall or beam runs along it. Put one there, or lessen the step.",
            name(a), name(b), left > 0 ? units::plain(left) + " mm" : "nothing");
        m.ids = {a.id, b.id};
        m.at = {(side.along.a.x + side.along.b.x) / 2, (side.along.a.y + side.along.b.y) / 2};
        all.push_back(std::move(m));
    }
}

}  // namespace

std::vector<Matter> openMatters(const model::Project& project, std::string_view element) {
    std::vector<Matter> all;
    if (const auto* slab = model::findSlab(project, element); slab && slab->imposed == 0) {
        Matter m;
        m.kind = Matter::Kind::Unloaded, m.message = "No imposed load acts on this slab.";
        all.push_back(m);
    }
    for (const auto& floor : project.floors) {
        if (floor->id != element) continue;
        for (auto& e : layout::looseEnds(*floor)) all.push_back({std::move(e), Matter::Kind::Loose});
        if (!floor->slabs.empty()) {
            deepSteps(*floor, all);
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
