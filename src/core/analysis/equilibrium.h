// What acts on the slab inside an outline, by equilibrium: supports, loads, ground. Units N, mm.
#pragma once

#include "analysis/floor_analysis.h"

namespace talvik::analysis {

// A resultant upwards, and its moments up * x, up * y about a place: its line of action lies at (mx / up, my
// / up) from there.
struct Resultant {
    double up = 0, mx = 0, my = 0;
    Resultant& operator+=(const Resultant& o) {
        up += o.up, mx += o.mx, my += o.my;
        return *this;
    }
    Resultant operator*(double k) const { return {k * up, k * mx, k * my}; }
};

// Of one floor and its analysis, which must outlive it.
class Equilibrium {
  public:
    // density: of concrete, N/mm3.
    Equilibrium(const model::Floor& floor, const FloorAnalysis& analysis, double density);
    // Of every load case, or of every combination where the analysis is not linear: the columns and piles
    // named, and area, line and point loads, self-weight of the slab and pressure of the ground as far as
    // they lie inside. `outline` is convex and anticlockwise. Other supports and beams are left out.
    std::vector<Resultant> inside(const geometry::Ring& outline, model::Point about,
                                  const std::vector<model::Id>& supports) const;
    // A combination of what `inside` gives.
    Resultant combined(const std::vector<Resultant>& inside, std::size_t combination) const;

  private:
    struct Piece {  // slab that carries something: a ring with its box
        geometry::Ring ring;
        model::Point low, high;
        bool convex;  // and anticlockwise
    };
    struct Weighed {
        Piece piece;
        double thickness;
    };
    struct AreaLoad {
        std::size_t loadCase, pieces;  // pieces: number in pieces_
        double intensity;
    };
    const model::Floor& floor_;
    const FloorAnalysis& a_;
    double density_;
    std::vector<Weighed> weighed_;
    std::vector<std::vector<Piece>> pieces_;
    std::vector<AreaLoad> areaLoads_;
    std::vector<char> selfWeight_;  // per case
    bool onGround_ = false;

    static Piece piece(geometry::Ring ring);
    void ground(const geometry::Ring& outline, model::Point about, std::vector<Resultant>& into) const;
};

// The shear of the plate along lines, where equilibrium does not tell: beside walls. Of one analysis, which
// must outlive it.
class LineShear {
  public:
    explicit LineShear(const FloorAnalysis& analysis);
    ~LineShear();
    // What passes across lines that run anticlockwise round a place, from outside to inside, downwards: of
    // every load case, or of every combination where the analysis is not linear.
    std::vector<Resultant> across(const std::vector<std::vector<model::Point>>& lines,
                                  model::Point about) const;

  private:
    struct Kept;
    std::unique_ptr<const Kept> kept_;
};

}  // namespace talvik::analysis
