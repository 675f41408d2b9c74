#include "model/sources.h"

namespace talvik::model {

std::vector<GoverningValue> governingValues(const Project& p) {
    using units::Kind;
    std::vector<GoverningValue> all{
        {"concrete", "Concrete strength", p.basis.concreteStrength, Kind::Stress},
        {"steel", "Yield strength of reinforcement", p.basis.steelYield, Kind::Stress},
        {"creep", "Creep coefficient", p.basis.creep, Kind::None},
        {"shrinkage", "Shrinkage strain", p.basis.shrinkage, Kind::Strain}};
    for (const auto& slab : p.slabs)
        all.push_back(
            {"imposed " + slab->id, "Imposed load of " + slab->name, slab->imposed, Kind::AreaLoad});
    for (const auto& floor : p.floors) {
        for (const auto& load : floor->actions.loads)
            for (const auto& c : floor->actions.cases)
                if (c.id == load.loadCase && c.nature == LoadCase::Nature::Imposed &&
                    load.kind != FloorLoad::Kind::Moment)
                    all.push_back({"imposed " + load.id, c.name + ", " + floor->name, load.value,
                                   load.kind == FloorLoad::Kind::Area   ? Kind::AreaLoad
                                   : load.kind == FloorLoad::Kind::Line ? Kind::ForcePerWidth
                                                                        : Kind::Force});
        for (const auto& g : floor->grounds)
            all.push_back({"ground " + g.id, "Subgrade modulus of " + (g.name.empty() ? floor->name : g.name),
                           g.modulus, Kind::Subgrade});
        for (const auto& pile : floor->piles)
            all.push_back(
                {"pile " + pile.id, "Stiffness of pile " + pile.name, pile.stiffness, Kind::Stiffness});
    }
    return all;
}

void recordChanges(const Project& before, Project& next, bool failing) {
    std::map<std::string, double> old;
    for (const auto& g : governingValues(before)) old[g.key] = g.value;
    for (const auto& g : governingValues(next))
        if (auto was = old.find(g.key); was != old.end() && was->second != g.value)
            next.sources[g.key].history.push_back({was->second, g.value, failing});
}

}  // namespace talvik::model
