// What all bases of a set have in common while they are solved and checked.
#pragma once

#include <array>
#include <map>
#include <memory>
#include <optional>

#include "bars/bar_choices.h"
#include "model/project.h"
#include "schedule/schedule.h"

namespace talvik::bases {

using standards::BaseState;
inline constexpr int states = 5;

// Characteristic actions of a column put together with factors.
struct Forces {
    double N = 0, Hx = 0, Hy = 0, Mx = 0, My = 0;
    // Moment at the underside of a base of depth h that moves the resultant along x (axis 0) or y.
    double along(int axis, double h) const { return axis == 0 ? My + Hx * h : -Mx + Hy * h; }
};

class Context {
  public:
    // `basis` is that of the project; materials, cover and bars of bases are put in.
    Context(const model::BaseSet& set, const model::Basis& basis,
            std::shared_ptr<const standards::Standard> standard);
    const model::BaseSet& set;
    const std::shared_ptr<const model::Basis> basis;
    const std::shared_ptr<const standards::Standard> standard;
    const standards::BaseRules& rules;
    std::vector<std::string> caseNames;
    std::array<std::vector<standards::BaseCombination>, states> combinations;
    std::vector<bars::BarChoice> choices;  // by steel, with spacings up to the project's largest
    double fc, fy, density, cover;
    double columnCover;  // of starter bars: that of the structure above
    const model::BaseColumn* column(const model::Id& id) const;
    // Names of combinations that were left out of each state, by the user's word.
    std::vector<std::string> leftOut;
    // The place nearest to `wish` where a rectangle lies within the site; none where there is no room.
    std::optional<geometry::Point> within(geometry::Point wish, double B, double L) const;
    // Per case of the set; nothing where the column has no action in it.
    std::vector<Forces> actions(const model::BaseColumn& column) const;

  private:
    std::map<model::Id, const model::BaseColumn*> columns_;
    std::map<model::Id, std::size_t> cases_;
};

Forces combined(const std::vector<Forces>& actions, const std::vector<double>& factors);

// Bars of one direction at one face.
struct Mat {
    const catalogs::Bar* bar = nullptr;
    double spacing = 0;
    int number = 0;
    bool hooked = false;
    // Of outlines that are no rectangles: besides those that reach the piles at both ends, so many more at
    // twice the spacing, which do not count.
    int beyond = 0;
    // Of three piles: in three bands along the lines of piles, with `number` in each. Of their steel one and
    // a half bands counts along any axis: the sum of the squares of the cosines.
    bool bands = false;
    double area() const {  // mm2, of all that count
        return bar ? bar->area * (bands ? 1.5 * number : number) : 0;
    }
    std::string text() const;  // "13 H16-150", "3 × 5 H16-100"
};
// The least bars that give `area` over the width, at spacings up to `most`; those pinned where there are any.
// Number nought where none do. `largest`: no thicker bars, unless pinned.
Mat mat(const Context& in, const model::Base& base, double width, double area, double most,
        double largest = 1e9);

}  // namespace talvik::bases
