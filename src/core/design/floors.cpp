#include "design/floors.h"

#include <fmt/format.h>

#include <cmath>

#include "layout/panels.h"
#include "model/floor_validation.h"

namespace talvik::design {

analysis::FloorBasis floorBasis(const model::Basis& basis,
                                const std::shared_ptr<const standards::Standard>& standard) {
    analysis::FloorBasis b;
    auto modulus = [&](double own, double strength) {
        return own > 0 ? own : standard->stiffness->modulus(strength);
    };
    b.modulus = modulus(0, basis.concreteStrength);
    b.beamModulus = modulus(basis.beam.modulus, basis.beam.strength);
    b.columnModulus = modulus(basis.column.modulus, basis.column.strength);
    b.density = basis.concreteDensity;
    b.beamDensity = basis.beam.density;
    b.flange = [kept = standard](const analysis::FloorBasis::Flange& f) {
        return kept->stiffness->flange(
            {f.toNext, f.zeroMoment, f.clear, f.slabThickness, f.edge, f.otherSide});
    };
    return b;
}

namespace {

// Combinations on the floor's own cases, without arrangements.
std::vector<analysis::FloorCombination> plainCombinations(const model::Floor& floor,
                                                          const standards::Standard& standard) {
    using Nature = model::LoadCase::Nature;
    std::vector<model::LoadCase> cases;
    for (const auto& c : floor.actions.cases)
        if (!c.arranged()) cases.push_back(c);
    std::vector<analysis::FloorCombination> all;
    if (!floor.actions.combinations.empty()) {
        for (const auto& row : floor.actions.combinations) {
            analysis::FloorCombination c{row.name, row.clause, row.state,
                                         std::vector<double>(cases.size(), 0)};
            for (std::size_t i = 0; i < cases.size(); ++i)
                if (auto f = row.factors.find(cases[i].id); f != row.factors.end()) c.factors[i] = f->second;
            all.push_back(std::move(c));
        }
        return all;
    }
    std::vector<std::size_t> imposed;
    for (std::size_t i = 0; i < cases.size(); ++i)
        if (cases[i].nature == Nature::Imposed) imposed.push_back(i);
    // The largest load per area of a case.
    auto actual = [&](std::size_t i) {
        double most = 0;
        for (const auto& l : floor.actions.loads)
            if (l.loadCase == cases[i].id && l.kind == model::FloorLoad::Kind::Area)
                most = std::max(most, model::intensity(l));
        return most;
    };
    // The same list for every use, with factors of its own.
    std::vector<std::vector<actions::Combination>> lists;
    std::vector<double> reduction;
    for (std::size_t i : imposed)
        if (const auto* use = catalogs::imposedUse(cases[i].use)) {
            lists.push_back(standard.actions->combinations(*use));
            reduction.push_back(
                cases[i].reductionArea > 0
                    ? standard.actions->areaReduction(*use, cases[i].reductionArea, actual(i)).factor
                    : 1);
        }
    bool anyImposed = !lists.empty();
    if (!anyImposed) lists.push_back(standard.actions->combinations(catalogs::imposedUses().front()));
    // Each imposed case leads in turn, with the others beside it and alone.
    struct Set {
        std::size_t leading;
        bool others;
    };
    std::vector<Set> together;
    for (std::size_t j = 0; j < std::max<std::size_t>(imposed.size(), 1); ++j) {
        together.push_back({j, true});
        if (imposed.size() > 1) together.push_back({j, false});
    }
    for (std::size_t k = 0; k < lists[0].size(); ++k) {
        bool withImposed = false;
        for (const auto& l : lists) withImposed |= l[k].factorQ != 0;
        for (std::size_t set = 0; set < together.size(); ++set) {
            if (set > 0 && !withImposed) break;
            analysis::FloorCombination c{"", lists[0][k].clause, lists[0][k].state,
                                         std::vector<double>(cases.size(), 0)};
            std::string name;
            for (std::size_t i = 0; i < cases.size(); ++i)
                if (cases[i].permanent()) c.factors[i] = lists[0][k].factorG;
            name = fmt::format("{:.4g} G", lists[0][k].factorG);
            if (anyImposed && withImposed)
                for (std::size_t j = 0; j < imposed.size(); ++j) {
                    const auto [leading, others] = together[set];
                    if (j != leading && !others) continue;
                    const auto* use = catalogs::imposedUse(cases[imposed[j]].use);
                    const double q =
                        (j == leading ? lists[j][k].factorQ
                                      : standard.actions->accompanying(lists[leading][k], *use)) *
                        reduction[j];
                    c.factors[imposed[j]] = q;
                    if (q != 0) name += fmt::format(" + {:.4g} {}", q, cases[imposed[j]].name);
                }
            c.name = name;
            bool known = false;
            for (const auto& o : all) known |= o.state == c.state && o.factors == c.factors;
            if (!known) all.push_back(std::move(c));
        }
    }
    std::vector<actions::ActionKind> kinds;
    for (const auto& c : cases) kinds.push_back(c.kind());
    for (const auto& [state, set] : standard.actions->windAndAccidental(kinds)) {
        analysis::FloorCombination c{"", set.clause, state, set.factors};
        for (std::size_t j = 0; j < imposed.size() && j < reduction.size(); ++j)
            c.factors[imposed[j]] *= reduction[j];
        for (std::size_t i = 0; i < cases.size(); ++i)
            if (cases[i].permanent() && c.name.empty()) c.name = fmt::format("{:.4g} G", c.factors[i]);
        for (std::size_t i = 0; i < cases.size(); ++i)
            if (!cases[i].permanent() && c.factors[i] != 0)
                c.name +=
                    fmt::format("{}{:.4g} {}", c.name.empty() ? "" : " + ", c.factors[i], cases[i].name);
        all.push_back(std::move(c));
    }
    return all;
}

}  // namespace

std::vector<analysis::FloorCombination> floorCombinations(const model::Floor& floor,
                                                          const standards::Standard& standard, double share) {
    auto all = plainCombinations(floor, standard);
    const auto& cases = floor.actions.cases;
    std::size_t own = 0;
    while (own < cases.size() && !cases[own].arranged()) ++own;
    for (auto& c : all) c.factors.resize(cases.size(), 0);
    if (own == cases.size()) return all;
    // Arrangements by their number; each takes the place of the imposed cases where all of these act.
    std::map<int, std::map<model::Id, std::size_t>> sets;
    for (std::size_t i = own; i < cases.size(); ++i) sets[cases[i].arrangement][cases[i].whole] = i;
    std::vector<analysis::FloorCombination> more;
    for (const auto& c : all) {
        bool ultimate = c.state == actions::LimitState::Ultimate, every = true, some = false;
        for (std::size_t i = 0; i < own; ++i)
            if (cases[i].nature == model::LoadCase::Nature::Imposed)
                every &= c.factors[i] != 0, some |= c.factors[i] != 0;
        if (!ultimate || !every || !some) continue;
        for (const auto& [number, members] : sets) {
            auto next = c;
            std::string title;
            for (std::size_t i = 0; i < own; ++i) {
                if (cases[i].nature != model::LoadCase::Nature::Imposed) continue;
                next.factors[i] = 0;
                if (auto found = members.find(cases[i].id); found != members.end()) {
                    next.factors[found->second] = share * c.factors[i];
                    title = cases[found->second].name.substr(cases[i].name.size() + 2);
                }
            }
            next.name = c.name + ", " + title;
            more.push_back(std::move(next));
        }
    }
    all.insert(all.end(), more.begin(), more.end());
    return all;
}

std::vector<model::CombinationRow> combinationRows(model::Project& project, const model::Floor& floor,
                                                   const standards::Standard& standard) {
    std::vector<model::CombinationRow> rows;
    for (const auto& c : plainCombinations(floor, standard)) {
        model::CombinationRow row{newId(project, 'r'), c.name, c.clause, c.state, {}};
        for (std::size_t i = 0; i < c.factors.size(); ++i)
            if (c.factors[i] != 0) row.factors[floor.actions.cases[i].id] = c.factors[i];
        rows.push_back(std::move(row));
    }
    return rows;
}

FloorInput floorInput(const model::Project& project, std::size_t floor) {
    auto standard = standards::makeStandard(project.basis.standard, project.basis.parameters);
    if (!standard) {
        FloorInput none{project.floors[floor], fmt::format("floors[{}]", floor), {}, {}};
        none.basis.trouble.push_back(
            {"basis.standard", fmt::format("There is no standard \"{}\"; choose one in the basis of design.",
                                           project.basis.standard)});
        return none;
    }
    auto whole = arranged(project.floors[floor], project.basis, *standard);
    FloorInput in{whole.floor, fmt::format("floors[{}]", floor), floorBasis(project.basis, standard),
                  floorCombinations(*whole.floor, *standard, whole.share)};
    if (!whole.word.empty()) in.basis.assumptions.push_back(whole.word);
    if (!whole.floor->panels.empty() && model::wellFormed(*whole.floor, "").empty()) {
        for (const auto& p : layout::findPanels(*whole.floor))
            if (p.chosen && p.oneWay) in.basis.oneWay.push_back({p.parts, p.direction});
        if (!in.basis.oneWay.empty())
            in.basis.assumptions.push_back(
                "Panels set to span one way bend along their direction as beams; 0.2 % of that stiffness is "
                "kept across it and in twisting.");
    }
    return in;
}

TakeOff takeOff(const model::Floor& floor, const analysis::FloorAnalysis& a) {
    TakeOff out;
    if (!a.good()) return out;
    for (std::size_t c = 0; c < a.cases.size() && c < floor.actions.cases.size(); ++c) {
        out.cases.push_back(floor.actions.cases[c].name);
        out.load.push_back(a.cases[c].load);
    }
    for (const auto& s : a.model->supports) out.rows.push_back({s.id, s.name, s.at, {}, 0, 0});
    for (std::size_t s = 0; s < out.rows.size(); ++s)
        for (std::size_t c = 0; c < out.cases.size(); ++c)
            out.rows[s].perCase.push_back(s < a.supportForces[c].size() ? a.supportForces[c][s].up : 0);
    for (std::size_t k = 0; k < a.combinations.size(); ++k) {
        auto state = a.combinations[k].state;
        if (state != actions::LimitState::Ultimate && state != actions::LimitState::Characteristic) continue;
        auto forces = a.forces(k);
        for (std::size_t s = 0; s < out.rows.size(); ++s) {
            double& into =
                state == actions::LimitState::Ultimate ? out.rows[s].ultimate : out.rows[s].service;
            into = std::max(into, forces[s].up);
        }
    }
    return out;
}

analysis::FloorAnalysis analyseFloor(const model::Project& project, std::size_t floor,
                                     const std::function<void(double)>& progress) {
    auto in = floorInput(project, floor);
    return analysis::FloorAnalyser().analyse(*in.floor, in.path, in.basis, in.combinations, {}, progress);
}

analysis::Convergence convergence(const model::Project& project, std::size_t floor, std::stop_token stop) {
    const auto in = floorInput(project, floor);
    return analysis::FloorAnalyser().convergence(*in.floor, in.path, in.basis, in.combinations, stop);
}

}  // namespace talvik::design
