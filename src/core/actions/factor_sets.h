// Factors of permanent, imposed, wind and accidental actions in combinations: EN 1990 6.4.3, ACI 318-19 5.3.1
// with ASCE/SEI 7-16 2.4 and 2.5, and for the calculator BS 8110-1 Table 2.1, IS 456 Table 18 and CSA A23.3
// Annex C. Winds (directions) exclude one another; a variable action is absent where that is worse.
#pragma once

#include <functional>
#include <string>
#include <vector>

namespace talvik::actions {

enum class Nature { Permanent, Imposed, Wind, Accidental };
// Something that acts as one. `use`: category of EN 1991-1-1, "A" to "H"; in ACI 318 "H" is a roof (L_r).
struct ActionKind {
    Nature nature = Nature::Permanent;
    std::string use{};
    bool operator==(const ActionKind&) const = default;
};

// One combination: a factor for each action, in their order.
struct FactorSet {
    std::string clause;
    std::vector<double> factors;
};
// Factors falling, and each once: of equal ones the first given stays.
std::vector<FactorSet> distinct(std::vector<FactorSet> sets);

// EN 1990: permanent actions with each of `permanent`, then a leading variable action with `variable`, and
// every choice of the others with `variable` times psi0; or none. Of many imposed actions (more than 8) all,
// each alone or none.
struct Leading {
    std::vector<double> permanent{1.35, 1.0};
    double variable = 1.5;
    std::function<double(const ActionKind&)> psi0;
    std::string clause;
};
std::vector<FactorSet> leading(const std::vector<ActionKind>& kinds, const Leading& rule);
// Every choice of variable actions, also none, all with psi0 (EN 1990 6.10a).
std::vector<FactorSet> accompanyingOnly(const std::vector<ActionKind>& kinds, const Leading& rule);
// EN 1990 (6.11): permanent actions with 1, one accidental action with 1, the first variable action with
// psi1, others with psi2; none where nothing is accidental.
std::vector<FactorSet> accidental(const std::vector<ActionKind>& kinds,
                                  const std::function<double(const ActionKind&)>& psi1,
                                  const std::function<double(const ActionKind&)>& psi2,
                                  const std::string& clause);

// EN 1990 (6.15): permanent actions with 1, each wind with psi1, imposed ones with psi2.
std::vector<FactorSet> frequentWinds(const std::vector<ActionKind>& kinds,
                                     const std::function<double(const ActionKind&)>& psi1,
                                     const std::function<double(const ActionKind&)>& psi2,
                                     const std::string& clause);
// Whether an action of that nature takes part.
bool acts(const std::vector<ActionKind>& kinds, const FactorSet& set, Nature nature);

// Strength (5.3.1; with accidental actions ASCE/SEI 7-16 2.5.2), and what soil pressure and stability are
// looked at under. Imposed actions that are no roof act as one, roofs as one.
std::vector<FactorSet> aciStrength(const std::vector<ActionKind>& kinds);
std::vector<FactorSet> aciService(const std::vector<ActionKind>& kinds);
std::vector<FactorSet> aciStability(const std::vector<ActionKind>& kinds);

// All of a combination act; one that names an action that is not there is left out.
std::vector<FactorSet> bsUltimate(const std::vector<ActionKind>& kinds);
std::vector<FactorSet> isUltimate(const std::vector<ActionKind>& kinds);
std::vector<FactorSet> isService(const std::vector<ActionKind>& kinds);
std::vector<FactorSet> csaUltimate(const std::vector<ActionKind>& kinds);

}  // namespace talvik::actions
