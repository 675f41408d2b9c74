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
    for (const auto& set : p.bases) {
        using By = GroundValues::By;
        const auto& g = set->ground;
        if (set->kind == BaseSet::Kind::Caps) {
            all.push_back({"capacity " + set->id, "Capacity of piles, " + set->name, set->pile.compression,
                           Kind::Force});
            all.push_back({"capacity tension " + set->id, "Capacity of piles in tension, " + set->name,
                           set->pile.tension, Kind::Force});
        } else if (g.by == By::Gross || g.by == By::Net) {
            all.push_back(
                {"allowable " + set->id, "Allowable pressure, " + set->name, g.allowable, Kind::AreaLoad});
        } else if (g.by == By::Drained) {
            all.push_back({"friction " + set->id, "Friction angle of the ground, " + set->name, g.friction,
                           Kind::Angle});
            all.push_back(
                {"cohesion " + set->id, "Cohesion of the ground, " + set->name, g.cohesion, Kind::AreaLoad});
        } else {
            all.push_back(
                {"undrained " + set->id, "Undrained strength, " + set->name, g.undrained, Kind::AreaLoad});
        }
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
