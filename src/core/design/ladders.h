// Edits that may mend an element, by its kind: of each kind of edit a ladder, from the smallest intervention
// on. See design/remedies, which tries them.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "design/answer.h"
#include "model/project.h"

namespace talvik::design {

// One edit that may help.
struct Attempt {
    std::string text;
    std::function<model::Project(const model::Project&)> edit;
};
// How much of a structure an edit changes, the least first.
enum class Reach { Bars, Member, Panels, Whole, Material };
// Edits of one kind, of which the first that helps counts; `what` names the kind: "more depth, up to 120 mm".
struct Ladder {
    std::string what;
    Reach reach = Reach::Bars;
    std::vector<Attempt> steps{};
    bool onlyWhereNoneDoes = false;  // of those before that leave nothing over
    void push_back(Attempt a) { steps.push_back(std::move(a)); }
    bool empty() const { return steps.empty(); }
};

// Of one-way slabs: bars fixed by someone given back, all of it thicker, stronger concrete. Of floors
// besides: precamber, more bars and more depth where checks fail, shear steel, beams along edges. Of a
// connection: studs, links, more top steel, a drop sized and placed, a larger column, then as of its floor.
// Of bases: pins off and pins larger, a pedestal, one base for those that lie on each other. Stronger
// concrete is that of the whole project, and is tried only where it has one element. Bars follow by
// themselves.
std::vector<Ladder> ladders(const model::Project& project, const ElementAnswer& now,
                            const model::PartRef& part);
// Two measures of these at once, for where none of them does alone: each of `first` with each of `second`.
Ladder together(std::string what, const Ladder& first, const Ladder& second, std::size_t most = 12);
// Links where concrete alone does not carry one-way shear, of an element that had chosen none.
Ladder linksLadder(std::function<model::Project(const model::Project&)> allow);
// Ends of fixed bars hooked, and the bars longer, where they are short of what the checks of a part ask.
std::vector<Ladder> barEndLadders(const model::Project& project, const ElementAnswer& now, const model::PartRef& part,
                                  const std::vector<model::BarRun>& fixed);

// Of the parts of floors, and what all kinds share.
struct FloorDesign;
std::vector<Ladder> floorLadders(const model::Project& project, const FloorDesign& now,
                                 const model::PartRef& part);
inline constexpr double mostAdded = 120;  // mm of thickness
double thicknessStep(const model::Project& project);
std::string thicker(double from, double to, const model::Project& project);
Ladder concreteLadder(const model::Project& project);
Ladder barsLadder(const model::Id& id, const std::vector<model::BarRun>& fixed);

}  // namespace talvik::design
