// A pile cap: equal piles in a standard arrangement, or where someone put them, under a rigid cap with one
// column or several. The number of piles is the least by which their capacity holds, then the depth the least
// by which the cap carries, unless pinned. Units N, mm, MPa.
//
// Readings. Reactions are those of equal elastic piles under a rigid cap, with the cap's own weight; the
// whole group may stand off by the tolerance in x and y at once, which counts for the piles and not for the
// bars. Moments at the faces of columns by bending, beside struts and ties for the nodes. Bars lie above the
// heads of the piles.
#pragma once

#include "bases/pad.h"

namespace talvik::bases {

// Centres of n piles, nearest ones `spacing` apart, about their middle: a row, a triangle, a square, five
// with one in the middle, rows; empty where this number has no standard arrangement.
std::vector<geometry::Point> pileArrangement(int n, double spacing);
// The numbers that have one, rising.
const std::vector<int>& pileNumbers();

struct CapDesign {
    PadSize size;
    std::vector<geometry::Point> piles;  // from the cap's centre
    std::array<Mat, 2> bottom, top;
    std::array<double, 2> d{};
    std::string trouble;
    bool possible() const { return trouble.empty(); }
};

class Cap {
  public:
    Cap(const Context& in, const model::Base& base);
    CapDesign solve() const;
    std::vector<checks::Check> checks(const CapDesign& design, const model::PartRef& part,
                                      bool working) const;
    std::vector<schedule::Item> items(const CapDesign& design) const;
    // Largest and least force of a pile with weight and tolerance; what moment no pile can take.
    struct PileForces {
        Asked compression, tension, across;
    };
    PileForces pileForces(const CapDesign& design) const;
    geometry::Point centre(const PadSize& size) const {
        return {middle_.x + size.off.x, middle_.y + size.off.y};
    }

  private:
    struct Column {
        const model::BaseColumn* column;
        geometry::Point at;
        std::vector<Forces> actions;
    };
    struct Sum {
        double N = 0, alongX = 0, alongY = 0, Hx = 0, Hy = 0;
    };
    struct Demand {
        Asked moment[2], top[2], shear[2], reduced[2];
    };
    const Context& in_;
    const model::Base& base_;
    geometry::Point middle_;
    std::vector<Column> columns_;
    std::array<std::vector<Sum>, states> sums_;

    const std::vector<standards::BaseCombination>& of(BaseState s) const {
        return in_.combinations[std::size_t(s)];
    }
    BaseState capacityState() const {
        return in_.set.pile.ultimate ? BaseState::Strength : BaseState::Service;
    }
    double toBars() const;  // from the underside to the bars
    double weight(const PadSize& size) const;
    CapDesign laid(std::vector<geometry::Point> piles, double h) const;
    bool held(const CapDesign& design) const;
    bool strong(CapDesign& design) const;
    void chooseBars(CapDesign& design) const;
    std::vector<double> upward(const CapDesign& design, std::size_t combination) const;
    Demand demand(const CapDesign& design) const;
    // Of the bars along an axis beyond the inner face of the outermost piles, legs counted.
    checks::Finding anchorage(const CapDesign& design, int axis, double moment, trace::Steps* t) const;
    struct Punched {
        checks::Finding found, face;
        int combination = -1;
    };
    Punched atColumns(const CapDesign& design, trace::Steps* t) const;
    Punched atPiles(const CapDesign& design, trace::Steps* t) const;
    struct Struts {
        checks::Finding column, pile;
        int combination = -1;
    };
    Struts struts(const CapDesign& design, trace::Steps* t) const;
    standards::FootingPunching blank(const CapDesign& design) const;
    std::string combination(BaseState s, int i) const;
};

}  // namespace talvik::bases
