#include "design/bar_checks.h"

namespace talvik::design {

using checks::Sense;
using standards::DetailingRules;
using units::Kind;

std::vector<BarCheck> barChecks(const standards::Section& section, const BarsAt& bars,
                                const model::Basis& basis, const standards::Standard& standard, double crackLimit,
                                bool twoWay, bool tracing) {
    std::vector<BarCheck> all;
    trace::Steps steps;
    trace::Steps* t = tracing ? &steps : nullptr;
    const auto& rules = *standard.detailing;
    const auto clauses = rules.clauses(twoWay);
    auto add = [&](const char* name, const char* title, checks::Finding finding) {
        all.push_back({name, title, std::move(finding), std::move(steps)});
        steps = {};
    };
    auto judge = [&](const char* name, const char* title, Kind kind, Sense sense, double demand, double limit,
                     const std::string& clause, const char* prefix) {
        checks::Finding f;
        f.kind = kind, f.sense = sense, f.demand = demand, f.limit = limit, f.clause = clause,
        f.prefix = prefix;
        add(name, title, checks::judged(f));
    };
    const double b = section.b;
    auto ductility = standard.flexure->ductility(section, bars.area * b, 0, t);
    add("ductility", "Neutral axis", std::move(ductility));
    if (basis.minimumSteel) {
        double least = rules.minimumSteel(section, t) / b;
        judge("minimum", "Least steel", Kind::SteelPerWidth, Sense::AtLeast, bars.area, least,
              clauses.minimum, "As");
        if (crackLimit > 0) {
            const double wanted =
                standard.service->leastForCracking(section, bars.diameter, crackLimit, t) / b;
            if (wanted > 0)
                judge("crack-least", "Least steel for cracking", Kind::SteelPerWidth, Sense::AtLeast, bars.area,
                      wanted, standard.service->crackSteelClause(), "As");
        }
    } else {
        add("minimum", "Least steel",
            checks::notChecked(clauses.minimum, "The rule of minimum steel is switched off in the basis."));
    }
    double most = rules.maximumSteel(section, t) / b;
    judge("maximum", "Most steel", Kind::SteelPerWidth, Sense::AtMost, bars.area, most, clauses.maximum,
          "As");
    double widest = rules.maximumSpacing(twoWay ? DetailingRules::Role::TwoWay : DetailingRules::Role::Main, true,
                                         section.h, t);
    judge("spacing", "Bar spacing", Kind::BarSpacing, Sense::AtMost, bars.spacing, widest, clauses.spacing,
          "s");
    double clear = rules.minimumClearSpacing(bars.diameter, basis.aggregate, t);
    judge("clear", "Clear distance", Kind::BarSpacing, Sense::AtLeast, bars.closest - bars.diameter, clear,
          clauses.clear, "a");
    return all;
}

}  // namespace talvik::design
