#include "verify/support_checks.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "line/line.h"

namespace talvik::verify {

using checks::Finding;
using checks::Sense;
using units::Kind;

std::vector<NamedFinding> bottomOver(const OverSupport& support,
                                     const std::optional<BottomOfSpan> (&spans)[2],
                                     const std::vector<BottomRun>& runs, const standards::BarEndRules& rules,
                                     bool tracing) {
    std::vector<NamedFinding> all;
    trace::Steps steps;
    double least = 1e300, need = 0, spacing = 1e300;
    standards::BarEndRules::Through rule;
    for (bool before : {true, false}) {
        const auto& span = spans[before ? 0 : 1];
        if (!span || span->most <= 0) continue;
        rule = rules.through(support.rule, span->diameter, tracing && least > 1e299 ? &steps : nullptr);
        // Past the face on this side by the standard's length, or ten diameters past the far one where the
        // support is shorter; no farther than there is concrete.
        const double ten = 10 * span->diameter, face = before ? support.from : support.to;
        const double reach = before ? std::min({face + rule.beyond, std::max(face, support.to + ten),
                                                std::max(face, support.concreteTo)})
                                    : std::max({face - rule.beyond, std::min(face, support.from - ten),
                                                std::min(face, support.concreteFrom)});
        double there = 0;
        for (const auto& r : runs) {
            const double own = std::max(1.0, span->clear / 4);
            const bool covers =
                before ? r.from < face - own && r.to >= reach - 1 : r.to > face + own && r.from <= reach + 1;
            if (covers) there += r.area, spacing = std::min(spacing, r.spacing);
        }
        if (there - rule.share * span->most < least - need) least = there, need = rule.share * span->most;
    }
    if (least > 1e299) return all;
    Finding f;
    f.kind = Kind::SteelPerWidth, f.sense = Sense::AtLeast, f.prefix = "As";
    f.clause = rule.clause;
    f.demand = least, f.limit = need;
    f.here.push_back(fmt::format("{:.0f} % of the bottom steel of the span continues over the support.",
                                 100 * rule.share));
    all.push_back({"through-bottom", "Bottom steel carried to support", checks::Topic::Anchorage,
                   checks::judged(f), std::move(steps)});
    if (rule.bars <= 0 || support.across <= 0 || !spans[0] || !spans[1]) return all;
    Finding g;
    g.kind = Kind::Count, g.sense = Sense::AtLeast, g.prefix = "n";
    g.clause = rule.barsClause;
    g.demand = support.lying >= 0 ? support.lying
               : spacing > 1e299
                   ? 0
                   : std::floor(std::max(0.0, support.across - 2 * line::coreCover) / spacing) + 1;
    g.limit = rule.bars;
    g.notes.push_back(
        support.lying >= 0
            ? "Bars as placed within the column's width, 40 mm from its faces; at an edge with the one in "
              "the corner of its U-bars."
            : "Bars that fit within the column's width, 40 mm from its faces, at the spacing there.");
    all.push_back(
        {"through-column", "Integrity bars through column", checks::Topic::Anchorage, checks::judged(g), {}});
    return all;
}

Lifting lifting(const standards::ActionRules::Equilibrium& rule, double presses, double permanentLifts,
                double imposedLifts) {
    return {rule.imposed * imposedLifts + rule.lifts * permanentLifts, rule.holds * presses};
}

Finding upliftFinding(const Lifting& worst, const standards::ActionRules::Equilibrium& rule, Kind kind) {
    Finding f;
    f.kind = kind, f.prefix = "R", f.clause = rule.clause;
    f.demand = worst.lifts, f.limit = worst.holds;
    if (worst.lifts > worst.holds)
        f.here.push_back("Uplift must be resisted by the support, or weight must be added.");
    f.notes.push_back(fmt::format("Factors: {:.2g} G stabilising, {:.2g} G and {:.2g} Q destabilising.",
                                  rule.holds, rule.lifts, rule.imposed));
    return checks::judged(f);
}

}  // namespace talvik::verify
