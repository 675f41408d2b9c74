#include "design/floors.h"

#include <fmt/format.h>

namespace talvik::design {

analysis::FloorBasis floorBasis(const model::Basis& basis, const standards::Standard& standard) {
    analysis::FloorBasis b;
    auto modulus = [&](double own, double strength) {
        return own > 0 ? own : standard.stiffness->modulus(strength);
    };
    b.modulus = modulus(0, basis.concreteStrength);
    b.beamModulus = modulus(basis.beam.modulus, basis.beam.strength);
    b.columnModulus = modulus(basis.column.modulus, basis.column.strength);
    b.density = basis.concreteDensity;
    b.beamDensity = basis.beam.density;
    // The rules of a standard live as long as the program keeps one: copy what is needed by making it anew.
    auto kept = standards::makeStandard(standard.id);
    b.flange = [kept](const analysis::FloorBasis::Flange& f) {
        return kept->stiffness->flange(
            {f.toNext, f.zeroMoment, f.clear, f.slabThickness, f.edge, f.otherSide});
    };
    return b;
}

std::vector<analysis::FloorCombination> floorCombinations(const model::Floor& floor,
                                                          const standards::Standard& standard) {
    using Nature = model::LoadCase::Nature;
    const auto& cases = floor.actions.cases;
    std::vector<std::size_t> imposed;
    for (std::size_t i = 0; i < cases.size(); ++i)
        if (cases[i].nature == Nature::Imposed) imposed.push_back(i);
    // The same list for every use, with factors of its own.
    std::vector<std::vector<actions::Combination>> lists;
    for (std::size_t i : imposed)
        if (const auto* use = catalogs::imposedUse(cases[i].use))
            lists.push_back(standard.actions->combinations(*use));
    bool anyImposed = !lists.empty();
    if (!anyImposed) lists.push_back(standard.actions->combinations(catalogs::imposedUses().front()));
    std::vector<std::vector<std::size_t>> together{{}};
    for (std::size_t j = 0; j < imposed.size(); ++j) together[0].push_back(j);
    if (imposed.size() > 1)
        for (std::size_t j = 0; j < imposed.size(); ++j) together.push_back({j});
    std::vector<analysis::FloorCombination> all;
    for (std::size_t k = 0; k < lists[0].size(); ++k) {
        bool withImposed = false;
        for (const auto& l : lists) withImposed |= l[k].factorQ != 0;
        for (std::size_t set = 0; set < together.size(); ++set) {
            if (set > 0 && !withImposed) break;
            analysis::FloorCombination c{"", lists[0][k].clause, lists[0][k].state,
                                         std::vector<double>(cases.size(), 0)};
            std::string name;
            for (std::size_t i = 0; i < cases.size(); ++i)
                if (cases[i].nature != Nature::Imposed) c.factors[i] = lists[0][k].factorG;
            name = fmt::format("{:.4g} G", lists[0][k].factorG);
            if (anyImposed && withImposed)
                for (std::size_t j : together[set]) {
                    double q = lists[j][k].factorQ;
                    c.factors[imposed[j]] = q;
                    if (q != 0) name += fmt::format(" + {:.4g} {}", q, cases[imposed[j]].name);
                }
            c.name = name;
            bool known = false;
            for (const auto& o : all) known |= o.state == c.state && o.factors == c.factors;
            if (!known) all.push_back(std::move(c));
        }
    }
    return all;
}

analysis::FloorAnalysis analyseFloor(const model::Project& project, std::size_t floor,
                                     const std::function<void(double)>& progress) {
    auto standard = standards::makeStandard(project.basis.standard, project.basis.parameters);
    return analysis::FloorAnalyser().analyse(
        *project.floors[floor], fmt::format("floors[{}]", floor), floorBasis(project.basis, *standard),
        floorCombinations(*project.floors[floor], *standard), {}, progress);
}

}  // namespace talvik::design
