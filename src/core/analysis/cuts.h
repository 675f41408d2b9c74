// Straight cuts through a floor: what a cut takes from the fields of an analysis, worked out once and then
// evaluated for any load case or combination. Units N, mm.
#pragma once

#include "analysis/floor_analysis.h"
#include "fem/plate/loads.h"

namespace talvik::analysis {

// A cut from `from` to `to`. Moments and shears are those on its normal, which points to the left of it.
struct CutLine {
    model::Point from, to;
    double nx = 0, ny = 0, length = 0;
    // Where the cut enters and leaves a triangle, two by two: the field points of the triangle and their
    // shares. Fields vary linearly between the two.
    struct Sample {
        double along = 0;
        int triangle = 0;
        std::array<int, 3> point{};
        std::array<double, 3> share{};
    };
    std::vector<Sample> samples;
    // Free edges of the slab at which the cut ends: the twisting moment of the edge passes on as a shear
    // along it (G. R. Kirchhoff, 1850; W. Thomson and P. G. Tait, 1867) and is part of the cut's shear. The
    // edge's normal points out of the slab.
    struct FreeEnd {
        std::size_t sample;
        double ex, ey;
    };
    std::vector<FreeEnd> freeEnds;
    // Beam elements that are crossed: the place on them, the cosine of beam and normal (positive), the factor
    // of the torque, and the sign of the shear.
    struct Crossing {
        int element = 0;
        double share = 0, cosine = 1, torque = 0, sign = 1;
    };
    std::vector<Crossing> beams;
    double onSlab = 0;  // length of the cut on the slab
};

// Cuts through one model. Keeps references to it.
class Cutter {
  public:
    explicit Cutter(const FloorModel& model);
    CutLine cut(model::Point from, model::Point to) const;

  private:
    const FloorModel& model_;
    fem::TriangleFinder finder_;
    std::vector<char> carried_;  // nodes that are held or stiffened by a beam
};

// Moments at a sample on axes along a unit vector n and to the left of it: those whose bars run along n,
// those across it, and twisting. From mx, my, mxy by three per field point.
struct Tensor {
    double along = 0, across = 0, twist = 0;
};
Tensor tensorAt(const CutLine::Sample& s, const fem::MomentField& m, double nx, double ny);
// Shear on the normal, from qx, qy by two per field point.
double shearAt(const CutLine& c, const CutLine::Sample& s, const fem::ShearField& q);

// Integrals along the cut, for one field.
double slabMoment(const CutLine& c, const fem::MomentField& m);
double slabShear(const CutLine& c, const fem::MomentField& m, const fem::ShearField& q);
struct BeamShare {
    double moment = 0, shear = 0;
};
BeamShare beamShare(const CutLine& c, const FloorModel& model, const fem::NodeVector& u);

// Cuts through one combination: its fields are put together once for any number of them.
class CombinationCuts {
  public:
    // Both must outlive it.
    CombinationCuts(const FloorAnalysis& a, const Cutter& cutter, std::size_t combination);
    Cut cut(model::Point from, model::Point to) const;

  private:
    const FloorAnalysis& a_;
    const Cutter& cutter_;
    std::vector<double> weight_;
    fem::MomentField m_;
    fem::ShearField q_;
};

}  // namespace talvik::analysis
