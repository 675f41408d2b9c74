// A pile cap: equal piles in a standard arrangement, or where someone put them, under a rigid cap with one
// column or several. The number of piles is the least by which their capacity holds, then the depth the least
// by which the cap carries, unless pinned. Units N, mm, MPa.
//
// Readings. Reactions are those of equal elastic piles under a rigid cap, with the cap's own weight less the
// water's uplift; the whole group may stand off by the tolerance in x and y at once: for the bars the
// reactions follow, along one axis at a time, and the places of piles stay. Across piles in one line the load
// times the tolerance is left to tie beams, which is told. Moments at the faces of columns by bending, beside
// struts and ties for the nodes: the column's share of each strut stands on the column's own face, and the
// node is as deep as the horizontal force asks for. Bars lie above the heads of the piles.
#pragma once

#include "bases/standing.h"
#include "ground/pile_group.h"

namespace talvik::bases {

struct CapDesign {
    PadSize size;
    std::vector<geometry::Point> piles;  // from the cap's centre
    std::array<Mat, 2> bottom, top;
    std::array<double, 2> d{};
    std::string trouble;
    bool squared =
        false;  // a rectangle, although the set wants caps cut to their piles: their bars do not do
    bool possible() const { return trouble.empty(); }
};

class Cap : public Standing {
  public:
    Cap(const Context& in, const model::Base& base);
    CapDesign solve() const;
    std::vector<checks::Check> checks(const CapDesign& design, const model::PartRef& part,
                                      bool working) const;
    model::Amounts amounts(const CapDesign& design) const;  // without steel
    std::vector<schedule::Item> items(const CapDesign& design) const;
    std::vector<Laid> laid(const CapDesign& design) const;
    // Largest and least force of a pile with weight and tolerance; what moment no pile can take; its share of
    // the horizontal force.
    struct PileForces {
        Asked compression, tension, across, lateral;
    };
    PileForces pileForces(const CapDesign& design) const;
    // What every pile carries in each combination that its capacity is compared in, with the weight of the
    // cap and the soil, piles as drawn: [combination][pile], N; and the names of those combinations.
    std::vector<std::vector<double>> reactions(const CapDesign& design) const;
    std::vector<std::string> reactionNames() const;

  private:
    struct Demand {
        Asked moment[2], top[2], shear[2], reduced[2];
        Asked tie[2];  // of the truss, along x and y; of bands the largest in one of them, in both
        double clear[2] = {1e9, 1e9};  // from a column's face to the nearest pile beyond it
        bool pulled = false;           // a pile is in tension
    };
    BaseState capacityState() const {
        return in_.set.pile.ultimate ? BaseState::Strength : BaseState::Service;
    }
    double toBars() const;  // from the underside to the bars
    // Of cap and soil, with the factors of a combination, less the uplift of the water on the underside.
    double weight(const PadSize& size, const standards::BaseCombination* k = nullptr) const;
    ground::CapLoad load(const Sum& sum, const PadSize& size, double weight) const;
    CapDesign laid(std::vector<geometry::Point> piles, double h, bool mayCut) const;
    // The outline along the piles put in; false where there is none besides the rectangle.
    bool cut(CapDesign& design) const;
    bool held(const CapDesign& design) const;
    bool strong(CapDesign& design) const;
    void chooseBars(CapDesign& design) const;
    // One-way shear that the section takes, with the set's links where they help; `by`: its clause.
    double oneWay(const CapDesign& design, const Demand& demand, int axis, std::string* by,
                  trace::Steps* t) const;
    // `slipX`, `slipY`: by how much the columns stand off the group.
    std::vector<double> upward(const CapDesign& design, std::size_t combination, double slipX = 0,
                               double slipY = 0) const;
    double topDepth(const CapDesign& design, int axis) const;
    // Of the piles under the largest force each, with the tolerance.
    std::vector<Asked> largestReactions(const CapDesign& design) const;
    Demand demand(const CapDesign& design, BaseState state = BaseState::Strength) const;
    Reinforced bars(const CapDesign& design) const;
    CapDesign solvedFrom(int leastPiles, bool mayCut) const;
    CapDesign solvedFrom(int leastPiles) const;
    // The piles, and what they stand under; the cap itself.
    void pileChecks(Sink& sink, const CapDesign& design) const;
    void bodyChecks(Sink& sink, const CapDesign& design) const;
    void tieCheck(Sink& sink, const CapDesign& design, const Demand& demand, int axis) const;
    // Breadth of the cap across an axis where columns' faces are, on the narrower side, or `beyond` them;
    // and that over which bars along the axis reach the nearest piles on both sides.
    double breadth(const PadSize& size, int axis, double beyond = 0) const;
    double reached(const CapDesign& design, int axis) const;
    // Bars in bands along the lines of piles: three piles below a cap cut to them.
    static bool banded(const CapDesign& design) {
        return design.piles.size() == 3 && !design.size.outline.empty();
    }
    bool trussed(const CapDesign& design) const {
        return in_.set.capSteel != model::CapSteel::Bending && columns_.size() == 1 &&
               design.piles.size() > 1;
    }
    bool bent(const CapDesign& design) const {
        return in_.set.capSteel != model::CapSteel::Truss || !trussed(design);
    }
    // From a quarter of the column's side to a pile.
    double run(const CapDesign& design, std::size_t pile, int axis) const;
    // The depth of the node below the column with the lever arm that it leaves; nought where there is none.
    struct Arm {
        double node = 0, z = 0;
        double moment[2] = {0, 0};  // of the struts along x and y: the tie's force times its arm
    };
    Arm arm(const CapDesign& design, const std::vector<double>& reactions) const;
    // The largest force in a band along the line of two piles.
    double bandForce(const CapDesign& design, const std::vector<double>& reactions, double z) const;
    // A section across an axis, with the effective depth of the bottom bars.
    standards::Section across(const CapDesign& design, int axis) const {
        return {breadth(design.size, axis),
                design.size.h,
                design.d[std::size_t(axis)],
                in_.cover + 10,
                in_.fc,
                in_.fy};
    }
    Face face(const CapDesign& design, const Demand& strength, const Demand& service, Way way) const;
    // Of the bars along an axis beyond the inner face of the outermost piles, legs counted.
    checks::Finding anchorage(const CapDesign& design, int axis, const Demand& demand, trace::Steps* t) const;
    double roomBeyondPiles(const CapDesign& design, int axis) const;
    struct Punched {
        standards::PunchingFound found;
        int combination = -1;
    };
    // The worst of several places where something punches.
    struct Worst;
    Punched atColumns(const CapDesign& design, trace::Steps* t) const;
    Punched atPiles(const CapDesign& design, trace::Steps* t) const;
    struct Struts {
        checks::Finding column, pile;
        int combination = -1;
    };
    Struts struts(const CapDesign& design, trace::Steps* t) const;
};

}  // namespace talvik::bases
