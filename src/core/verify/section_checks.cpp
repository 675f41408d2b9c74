#include "verify/section_checks.h"

#include <fmt/format.h>

namespace talvik::verify {

using checks::Sense;
using standards::SteelRules;
using units::Kind;

checks::Finding bending(const standards::Section& section, double moment, double area, double otherFace,
                        const standards::Standard& standard, units::System system, trace::Steps* steps) {
    const auto& flexure = *standard.flexure;
    const double b = section.b;
    checks::Finding f;
    f.kind = Kind::MomentPerWidth, f.clause = flexure.clause(), f.prefix = "m";
    f.demand = moment;
    const auto need = flexure.required(section, moment * b, steps);
    const double As2 = need.doubly ? otherFace : 0;
    f.limit = flexure.resistance(section, area * b, As2 * b, steps).M / b;
    if (!need.possible)
        f.here.push_back(
            "Section too shallow: the moment cannot be resisted with any reinforcement. Increase the "
            "thickness.");
    else if (need.doubly)
        f.here.push_back(fmt::format("Compression steel is required: {} on the other face; {} is provided.",
                                     units::text(need.As2 / b, Kind::SteelPerWidth, system),
                                     units::text(As2, Kind::SteelPerWidth, system)));
    return f;
}

std::vector<NamedFinding> sectionChecks(const standards::Section& section, const BarsAt& bars,
                                        const model::Basis& basis, const standards::Standard& standard,
                                        double crackLimit, bool twoWay, bool tracing) {
    std::vector<NamedFinding> all;
    trace::Steps steps;
    trace::Steps* t = tracing ? &steps : nullptr;
    const auto& rules = *standard.steel;
    const auto clauses = rules.clauses(twoWay);
    using checks::Topic;
    auto add = [&](const char* name, const char* title, Topic topic, checks::Finding finding) {
        all.push_back({name, title, topic, std::move(finding), std::move(steps)});
        steps = {};
    };
    auto judge = [&](const char* name, const char* title, Topic topic, Kind kind, Sense sense, double demand,
                     double limit, const std::string& clause, const char* prefix) {
        checks::Finding f;
        f.kind = kind, f.sense = sense, f.demand = demand, f.limit = limit, f.clause = clause,
        f.prefix = prefix;
        add(name, title, topic, checks::judged(f));
    };
    const double b = section.b;
    auto ductility = standard.flexure->ductility(section, bars.area * b, 0, t);
    add("ductility", "Neutral axis depth x/d", Topic::Ductility, std::move(ductility));
    if (basis.minimumSteel) {
        double least = rules.minimum(section, t) / b;
        judge("minimum", "Minimum reinforcement", Topic::Steel, Kind::SteelPerWidth, Sense::AtLeast,
              bars.area, least, clauses.minimum, "As");
        if (crackLimit > 0) {
            const double wanted = standard.cracks->leastSteel(section, bars.diameter, crackLimit, t) / b;
            if (wanted > 0)
                judge("crack-least", "Minimum reinforcement for crack control", Topic::Steel,
                      Kind::SteelPerWidth, Sense::AtLeast, bars.area, wanted,
                      standard.cracks->leastSteelClause(), "As");
        }
    } else {
        add("minimum", "Minimum reinforcement", Topic::Steel,
            checks::notChecked(clauses.minimum, "Minimum reinforcement is disabled in Basis (1)."));
    }
    double most = rules.maximum(section, t) / b;
    judge("maximum", "Maximum reinforcement", Topic::Steel, Kind::SteelPerWidth, Sense::AtMost, bars.area,
          most, clauses.maximum, "As");
    double widest =
        rules.spacing(twoWay ? SteelRules::Role::TwoWay : SteelRules::Role::Main, true, section.h, t);
    judge("spacing", "Bar spacing", Topic::Spacing, Kind::BarSpacing, Sense::AtMost, bars.spacing, widest,
          clauses.spacing, "s");
    double clear = rules.clear(bars.diameter, basis.aggregate, t);
    judge("clear", "Clear distance", Topic::Spacing, Kind::BarSpacing, Sense::AtLeast,
          bars.closest - bars.diameter, clear, clauses.clear, "a");
    return all;
}

}  // namespace talvik::verify
