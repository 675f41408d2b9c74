// What stands on a base: its columns about their middle, and what they do together in every combination. Pads
// and caps are built on it. Units N, mm, MPa.
#pragma once

#include <optional>

#include "bases/cap_shapes.h"
#include "bases/faces.h"
#include "bases/reinforcement.h"
#include "checks/checks.h"
#include "ground/rigid_base.h"
#include "model/amounts.h"

namespace talvik::bases {

inline constexpr double waterWeight = 9.81e-6;  // N/mm3
inline constexpr double largestDepth = 6000;    // mm: deeper there is no base

struct PadSize {
    double B = 0, L = 0, h = 0;
    geometry::Point off{};  // of the centre from the middle of the columns
    bool onSite = true;     // within the outline of the site
    double strap = 0;       // depth of the strap, where there is one
    // Of a cap cut to its piles, anticlockwise from the centre, which is that of the sides B and L about it;
    // empty: the rectangle.
    geometry::Ring outline{};
    geometry::Point shift{};  // of the centre from the middle of the piles
    double side(int axis) const { return axis == 0 ? B : L; }
    double area() const { return outline.empty() ? B * L : geometry::area(outline); }
    double perimeter() const;
    geometry::Ring ring() const { return outline.empty() ? geometry::rectangle({0, 0}, B, L) : outline; }
    // Where its weight acts, from the centre.
    geometry::Point heavy() const {
        return outline.empty() ? geometry::Point{} : geometry::centroid(outline);
    }
    // From and to where along the other axis it reaches at a place along `axis`.
    Chord across(int axis, double at) const {
        return outline.empty() ? Chord{-side(1 - axis) / 2, side(1 - axis) / 2} : chord(outline, axis, at);
    }
};

// Concrete and formwork (mm3, mm2) of a base with its blinding and excavation, which is wider by 100 mm on
// every side; without steel, piles and pedestals.
model::Amounts amountsOf(const model::BaseSet& set, const PadSize& size, double solid, double forms);

checks::Finding finding(units::Kind kind, double demand, double limit, std::string clause);
// The larger of what is judged at the perimeter and at the face.
double ratioOf(const standards::PunchingFound& found);
class Standing {
  public:
    geometry::Point centre(const PadSize& size) const {
        return {middle_.x + size.off.x, middle_.y + size.off.y};
    }

    // What each column asks for, and the bars that give it.
    const std::vector<Starters>& starters() const { return starters_; }

  protected:
    struct Column {
        const model::BaseColumn* column;
        geometry::Point at;  // from the middle
        std::vector<Forces> actions;
        double sides[2];  // of what stands on the base: the column's, or its pedestal's
        double side(int axis) const { return sides[axis]; }
        double place(int axis, const PadSize& s) const { return axis == 0 ? at.x - s.off.x : at.y - s.off.y; }
    };
    // Of all columns together about their middle: moments without those of H, which grow with the depth.
    struct Sum {
        double N = 0, alongX = 0, alongY = 0, Hx = 0, Hy = 0;
        double weight = 1;  // factor of the weight of concrete
    };
    // `ends`: of straps of other bases at columns of this one.
    Standing(const Context& in, const model::Base& base, std::vector<StrapEnd> ends = {});
    const std::vector<standards::BaseCombination>& of(BaseState s) const {
        return own_ ? (*own_)[std::size_t(s)] : in_.combinations[std::size_t(s)];
    }
    const std::vector<Sum>& sums(BaseState s) const { return sums_[std::size_t(s)]; }
    std::string combination(BaseState s, int i) const;
    // The combinations under which the standard looks at cracks.
    BaseState crackState() const;
    // Gathers into a list, with the place of the base and the names of its combinations.
    Sink gathering(verify::CheckList& list, const model::PartRef& part, const PadSize& size,
                   bool working) const;
    // Of a square base whose mats differ: what may serve both directions, as sites like it, the best first: the
    // heavier one unless it is a quarter more, then the thinner bar of the two, closer, with up to a fifth
    // more steel in all. None where they are the same or someone chose. `most`: spacing, mm.
    std::vector<Mat> sameBothWays(const PadSize& size, const std::array<Mat, 2>& mats, double most) const;
    double price(model::Amounts built, const std::vector<schedule::Item>& bars) const;  // by the project's rates
    // With pedestals.
    model::Amounts standingAmounts(const PadSize& size, double solid, double forms) const;
    bool pinnedBars() const { return !base_.bar.empty() || base_.spacing > 0; }
    // At the underside about the centre of the base, with a weight there.
    ground::Resultant resultant(const Sum& sum, const PadSize& size, double weight) const;
    // With the weight of a pedestal, and its height as lever of horizontal forces.
    Forces forces(const Column& c, BaseState s, std::size_t i) const { return forces(c, of(s)[i]); }
    Forces forces(const Column& c, const standards::BaseCombination& k) const;
    // Starter bars that are pulled, from the bottom bars (`stands` above the underside) to the top.
    std::pair<checks::Finding, int> pulledOut(const Starters& s, double h, double stands,
                                              trace::Steps* t) const;
    // What was left out for this base, as checks that were not made; and what a pedestal asks for.
    void commonChecks(Sink& sink) const;
    void starterChecks(Sink& sink, const PadSize& size, double below) const;
    Reinforced reinforced(const PadSize& size, const std::array<Mat, 2>& bottom,
                          const std::array<Mat, 2>& top, double below) const;
    // Weight of one pedestal, and of the soil where all of them stand above a base of depth h.
    double pedestal() const;
    double soilDisplaced(double h) const;
    // The centre moved, if it has to be, so that the base lies within the site; false where it cannot.
    bool placed(PadSize& size) const;
    // Ultimate combinations in which punching of a column looks worst, by the force and what its eccentricity
    // adds: at the most three.
    std::vector<std::size_t> worstLooking(const Column& c, double h, double d) const;
    // Something at a place (from the centre) that pushes through the base: sides, distances to the edges,
    // steel.
    standards::FootingPunching pushing(geometry::Point at, double sideX, double sideY, const PadSize& size,
                                       const std::array<double, 2>& d,
                                       const std::array<Mat, 2>& bottom) const;

    const Context& in_;
    const model::Base& base_;
    geometry::Point middle_{0, 0};
    std::vector<Column> columns_;
    const std::vector<StrapEnd> ends_;

  private:
    // Where some combinations are left out for this base: those that are not.
    std::optional<std::array<std::vector<standards::BaseCombination>, states>> own_;
    std::array<std::vector<Sum>, states> sums_;
    std::vector<Starters> starters_;
    void findStarters();
};

}  // namespace talvik::bases
