// The top of a pad that is not level: down from a shoulder about its column to the edges, by a slope or a
// step. Units mm; places from the centre of the base.
//
// Readings. A slope falls evenly from the shoulder to each edge, the solid between is a prismatoid. Where the
// column stands off the middle the sides fall differently; depths along an axis are those of the steeper one.
// Edges that nobody pinned are half as deep as the base, by steps of 50 mm, and 250 mm at the least.
#pragma once

#include "bases/standing.h"

namespace talvik::bases {

class Top {
  public:
    // `at`, `sides`: of what stands on the base. Level where the edges are as deep as the middle.
    Top(const PadSize& size, geometry::Point at, const double (&sides)[2], const model::BaseTop& top);
    bool level() const { return level_; }
    bool stepped() const { return stepped_; }
    // Of the concrete, and of the soil on it up to `depth` above the underside.
    double volume() const;
    double soil(double depth) const;
    // Sides, and slopes steeper than 1 in 3: flatter ones need none.
    double formwork() const;
    // At a distance beyond the faces along an axis: how deep the base is, and how wide it is as deep as that.
    double height(int axis, double from) const;
    double breadth(int axis, double from) const;
    // Where it is looked at beyond the faces: at the step, or at quarters of the slope. Ascending.
    std::vector<double> places(int axis) const;
    double shoulder(int axis) const { return shoulder_[axis]; }
    double run(int axis) const { return run_[axis]; }  // of the steeper slope
    double edge() const { return edge_; }
    // The part that is level at the full depth: least and largest x, least and largest y.
    const std::array<double, 4>& upper() const { return upper_; }

  private:
    double area(double z) const;  // of the concrete at a height
    double B_, L_, h_, edge_;
    bool level_ = true, stepped_ = false;
    std::array<double, 4> upper_{};
    double shoulder_[2] = {0, 0}, run_[2] = {0, 0};
};

}  // namespace talvik::bases
