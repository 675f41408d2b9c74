// What is checked at a support, whatever stands on it: bottom bars that go on over it, and whether loads lift
// it.
#pragma once

#include <optional>

#include "standards/rules.h"
#include "verify/check_list.h"

namespace talvik::verify {

// Bottom bars as a support sees them: where they begin and end along the member, mm2 per mm.
struct BottomRun {
    double from = 0, to = 0, area = 0, spacing = 0;
};
// The span on one side of a support: the most bottom steel in its middle half, its largest bar, its clear length.
struct BottomOfSpan {
    double most = 0, diameter = 0, clear = 0;
};
// Faces of the support along the member; breadth of a column across it (0: not a column). `concreteFrom`,
// `concreteTo`: how far bars can reach.
struct OverSupport {
    standards::BarEndRules::Over rule = standards::BarEndRules::Over::Support;
    double from = 0, to = 0, across = 0;
    double concreteFrom = -1e300, concreteTo = 1e300;
    int lying = -1;  // bottom bars that lie within the breadth, 40 mm from its faces; -1: by their spacing
};
// The share of the spans' bottom steel that goes on over the support, as far as the standard asks: bars that begin
// a quarter of the clear span or more before it, since those of the neighbour do not hold this span; and,
// between two spans over a column, how many bars pass within it. Empty where no span has bottom steel.
// `spans`: before and after.
std::vector<NamedFinding> bottomOver(const OverSupport& support,
                                     const std::optional<BottomOfSpan> (&spans)[2],
                                     const std::vector<BottomRun>& runs, const standards::BarEndRules& rules,
                                     bool tracing);

// What lifts a support and what holds it, by the factors of the standard: N or N/mm, none negative.
struct Lifting {
    double lifts = 0, holds = 0;
    double ratio() const { return lifts <= 0 ? 0 : holds > 0 ? lifts / holds : 99; }
};
// Unfactored: permanent loads that press on it, permanent ones that lift, imposed ones that lift.
Lifting lifting(const standards::ActionRules::Equilibrium& rule, double presses, double permanentLifts,
                double imposedLifts);
// `kind`: Force or ForcePerWidth.
checks::Finding upliftFinding(const Lifting& worst, const standards::ActionRules::Equilibrium& rule,
                              units::Kind kind);

}  // namespace talvik::verify
