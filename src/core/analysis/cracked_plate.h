// Deflection of a plate that is softer than the elastic slab from place to place: cracks, creep, shrinkage.
// The elastic stiffness keeps its factor, by which the softer one is solved with conjugate gradients; what is
// softer is the mean curvature of each triangle. Units N, mm; axes and signs of fem/plate/element.h.
#pragma once

#include <array>
#include <stop_token>

#include "analysis/floor_analysis.h"

namespace talvik::analysis {

// Per triangle, at its middle: of moments Mx, My, Mxy (N) or curvatures kx, ky, kxy (1/mm; kxy = bx,y +
// by,x).
struct Three {
    double x = 0, y = 0, xy = 0;
};
// Flexibility of a triangle, row by row: curvatures of moments; symmetric, positive definite.
using Flexibility = std::array<double, 9>;

struct CrackedState {
    fem::NodeVector u;           // displacements
    std::vector<Three> moments;  // in equilibrium with the loads
    int rounds = 0;
    double left = 0;       // change of deflection in the last round, over the largest
    bool settled = false;  // below `enough`
};

// What is worked out once for a model and serves every state of it.
class CrackedPlate {
  public:
    // `a` is linear and good, and keeps its factor.
    explicit CrackedPlate(const FloorAnalysis& a);
    // Moments of the triangles under an elastic displacement, and the curvatures of an elastic moment.
    std::vector<Three> moments(const fem::NodeVector& u) const;
    Three elastic(std::size_t triangle, const Three& moment) const;
    // Under loads whose elastic displacement is `elastic`, with curvatures besides that no moment causes
    // (`initial`, may be empty); beams are `beams` times as flexible as in the analysis. M. R. Hestenes, E.
    // Stiefel, Methods of Conjugate Gradients for Solving Linear Systems, 1952, preconditioned by the elastic
    // plate.
    CrackedState solve(const fem::NodeVector& elastic, const std::vector<Flexibility>& flexible,
                       const std::vector<Three>& initial = {}, double beams = 1, std::stop_token stop = {},
                       double enough = 1e-3, int most = 80) const;
    const std::vector<fem::Point>& middles() const { return middle_; }
    const std::vector<double>& areas() const { return area_; }

  private:
    const FloorAnalysis& a_;
    std::vector<std::array<double, 27>> B_;  // per triangle: curvatures at its middle from nine unknowns
    std::vector<std::array<double, 9>> D_, inverse_;
    std::vector<fem::Point> middle_;
    std::vector<double> area_;
    std::vector<std::array<double, 36>> beam_;  // stiffness of each beam element

    Three curvature(std::size_t triangle, const fem::NodeVector& u) const;
    // Adds B^T m of moments per triangle, over its area.
    void addForces(const std::vector<Three>& moments, fem::NodeVector& f) const;
};

}  // namespace talvik::analysis
