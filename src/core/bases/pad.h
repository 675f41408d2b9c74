// A pad footing: a rectangle on the ground below one column or several. Sizes are solved where nobody fixed
// them: the least plan size by steps for which the ground and stability are within, then the least depth for
// which the base itself is, with the least bars. Units N, mm, MPa; moments on the whole width.
//
// Readings. The base is rigid, the ground pushes and does not pull (exact, see ground/rigid_base). Weights of
// base and soil cause no bending or shear where all of it is in contact. Moments act at the faces of columns,
// shear at d from them; between columns the moment of the beam as a whole counts. Against sliding the ground
// beside the base helps with the share of Rankine's passive pressure that someone chose. Settlement is that
// of the sustained loads less the soil dug out, on elastic layers. Tops that are not level: weights act at
// the middle of the base; what is compressed in flexure is as wide as the base is at the depth looked at.
#pragma once

#include <optional>

#include "bases/top.h"

namespace talvik::bases {

inline constexpr double noAnswer = 99;
// What a base of a size asks of the ground, as ratios of the worst combination; `noAnswer` where there is
// none.
struct GroundAnswer {
    Asked pressure, sliding, overturning, uplift, settlement;
    double largest = 0, limit = 0;  // pressure, or load and resistance where that is the rule
    double slides = 0, holds = 0;   // forces
    double turns = 0, stands = 0;   // moments
    double lifts = 0, weighs = 0;   // forces
    double outside = 0;             // mm by which a resultant leaves the base; 0 where none does
    int outsideIn = -1;             // in which combination
    double contact = 1;             // least share
    double settles = 0;             // mm
    bool onSite = true;             // within the site, with its columns on it
    double worst() const;
};

struct PadDesign {
    PadSize size;
    std::array<Mat, 2> bottom, top;  // along x, along y
    std::array<double, 2> d{};       // of the bottom bars
    StrapDesign strap;
    std::string trouble;  // why there is none
    bool possible() const { return trouble.empty(); }
};

class Pad : public Standing {
  public:
    Pad(const Context& in, const model::Base& base, std::vector<StrapEnd> ends = {});
    PadDesign solve() const;
    // What its strap does to the base further in, where it has one that can be.
    std::optional<StrapEnd> strapEnd(const PadSize& size) const;
    // Concrete and formwork of the base without pedestals and strap; mm3, mm2.
    Top top(const PadSize& size) const;
    // The size as pinned, where it is not free; bars chosen for it whether it carries or not.
    PadDesign ofSize(const PadSize& size) const;
    // Largest ratio of all checks; for searches.
    double ratio(const PadDesign& design) const;
    GroundAnswer ground(const PadSize& size) const;
    // Checks with their working where `working`; `key` begins their keys.
    std::vector<checks::Check> checks(const PadDesign& design, const model::PartRef& part,
                                      bool working) const;
    model::Amounts amounts(const PadDesign& design) const;  // without steel
    std::vector<schedule::Item> items(const PadDesign& design) const;
    std::vector<Laid> laid(const PadDesign& design) const;
    // A size moved onto the site, as far as it has room there.
    PadSize sited(PadSize size) const;
    // Pressures under the base in the service combination that governs.
    struct Shown {
        double corners[4] = {0, 0, 0, 0};  // -x-y, +x-y, +x+y, -x+y
        std::string combination;
    };
    std::optional<Shown> shown(const PadDesign& design) const;

  private:
    struct Demand {
        Asked moment[2], top[2], shear[2];
        double atFace[2] = {0, 0};  // overhang, side of the column there
        double side[2] = {0, 0};
        double edge[2] = {0, 0};  // net pressure over the outer h/2 where the moment is largest
        // At places of a top that is not level, beyond the faces.
        struct Lower {
            double from = 0, cut = 0;  // where moment and shear are taken
            Asked moment, shear;
        };
        std::vector<Lower> lower[2];
        double outside = 0;  // mm by which a resultant leaves the base
        int outsideIn = -1;
    };
    double spanX_ = 0, spanY_ = 0;
    geometry::Point wish_{
        0, 0};          // where the centre goes where nobody pinned it: below the loads of several columns
    double ratio_ = 0;   // L/B, pinned or tried
    double longer_ = 0;  // by which B is longer than the mean side, and L shorter; tried
    // Least side along an axis that has the columns on it, with the centre so far off.
    double leastSide(int axis, double off) const;
    std::optional<StrapLine> strap_;
    std::string strapTrouble_;
    double strapWidth_ = 0, strapDepth_ = 0;

    Reinforced bars(const PadDesign& design) const;
    PadDesign solved() const;
    PadDesign unstrapped() const;
    // The least depth at a growth, bars chosen; false where none carries.
    bool deepened(PadDesign& design, double grown, double first) const;
    // From the top to the middle of the top bars along an axis, as a depth.
    double topDepth(const PadDesign& design, int axis) const;
    // A face as its checks see it; `strength`, `service`: what is asked in both states.
    Face face(const PadDesign& design, const Top& shape, const Demand& strength, const Demand& service,
              Way way) const;
    // Moments across a line of columns: each column's own share, on a strip as wide as it and a depth either
    // side.
    void acrossColumns(const PadSize& size, const std::vector<Forces>& forces, int axis, int combination,
                       Demand& into) const;
    // Of tops that are not level, at the edges: by the standard, or room for the bars.
    double leastEdge() const { return in_.cover + std::max(in_.rules.leastDepth(false).d, in_.cover + 50); }
    double strapDepth(const PadSize& size) const { return std::max(size.h, size.strap); }
    // The strap under a combination; and the resultant of the base with what it adds.
    StrapLoad strapOn(const Sum& sum, const PadSize& size) const;
    double strapAdds(const Sum& sum, const PadSize& size) const;
    ground::Resultant resultant(const Sum& sum, const PadSize& size, double weight) const;
    StrapBeam strapBeam(const PadSize& size) const;
    void chooseStrap(PadDesign& design) const;
    // A section across an axis at a distance beyond the faces, as wide as it is at its full depth; with the
    // same area of shear.
    standards::Section across(const PadDesign& design, const Top& top, int axis, double from) const;
    standards::Section sheared(const PadDesign& design, const Top& top, int axis, double from) const;
    // Of a section through the column: its gross area over its depth.
    static double meanWidth(const Top& top, const PadSize& size, int axis);
    // The worst of the places of a top that is not level.
    struct Lowest {
        std::size_t place = 0;
        double ratio = 0;
    };
    std::optional<Lowest> lowest(const PadDesign& design, const Top& top, const Demand& demand, int axis,
                                 bool shear) const;

    // Base and soil, per area; with the factors of a combination, and less the water's uplift.
    double weights(const PadSize& size, const standards::BaseCombination* k = nullptr) const;
    double downward(const PadSize& size, const standards::BaseCombination& k) const {
        return weights(size, &k) - waterPressure();
    }
    double waterPressure() const;
    // Of the soil below the base, which bears what the water leaves; `more` per area besides the weights.
    ground::Pressure soilPressure(const Sum& sum, const PadSize& size, const standards::BaseCombination& k,
                                  double more = 0) const;
    // Net pressure of the sustained loads, and the settlement under it.
    std::pair<double, double> settlement(const PadSize& size, std::size_t combination) const;
    // What holds against sliding under a combination of the ground; forces.
    double holds(const PadSize& size, std::size_t combination, trace::Steps* t = nullptr) const;
    void groundChecks(Sink& sink, const PadSize& size) const;
    void stabilityChecks(Sink& sink, const PadSize& size, const GroundAnswer& found) const;
    void notLookedAt(Sink& sink, const PadDesign& design) const;
    void bodyChecks(Sink& sink, const PadDesign& design, const Demand& service) const;
    // Moments about the edge at +/- `sign` along an axis: those that turn, those that hold.
    std::pair<double, double> turning(const PadSize& size, std::size_t combination, int axis,
                                      double sign) const;
    // The state and whether it is by an allowable pressure that the ground is looked at.
    bool allowable() const;
    BaseState groundState() const { return allowable() ? BaseState::Service : BaseState::Ground; }
    PadSize sized(double grown, double h) const;
    double leastPlan(double h, double from) const;
    bool strong(PadDesign& design) const;
    Demand demand(const PadSize& size, BaseState state, const std::array<double, 2>& d) const;
    Demand serviceDemand(const PadSize& size) const { return demand(size, crackState(), {1e9, 1e9}); }
    // By how much more steel along an axis lies evenly, for a band about the column.
    double evenly(const PadSize& size, int axis, trace::Steps* t = nullptr) const;
    void chooseBars(PadDesign& design, const Demand& service) const;
    standards::FootingAnchorage anchored(const PadDesign& design, const Demand& demand, int axis,
                                         bool hooked) const;
    std::pair<checks::Finding, int> columnFoot(const PadSize& size, bool deepest, trace::Steps* t) const;
    struct Punched {
        std::size_t column = 0;
        int combination = -1;
        standards::PunchingFound found;
        standards::FootingPunching in;
    };
    // The column and combination that govern; combination -1 where no column presses down.
    Punched punched(const PadDesign& design, trace::Steps* t = nullptr) const;
    standards::FootingPunching punchingOf(const PadDesign& design, std::size_t column,
                                          std::size_t combination) const;
};

}  // namespace talvik::bases
