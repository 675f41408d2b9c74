// A plate on supports, springs and beams, as numbers: equations, factor, displacements, forces of supports.
// Axes and signs as in element.h: w and loads downwards, rotations bx, by. Any consistent units.
#pragma once

#include <array>
#include <functional>
#include <stop_token>
#include <string>
#include <vector>

#include "fem/mesh/mesh.h"
#include "fem/plate/element.h"
#include "fem/solver/cholesky.h"

namespace talvik::fem {

struct PlateModel {
    struct Material {
        double D = 0, nu = 0, flexibility = 0;  // see ElementGroup
        double oneWay = 0, cosine = 1, sine = 0;  // stiffness in one direction besides, and the direction
    };
    // Puts the material of a triangle into a lane of a group.
    static void fill(ElementGroup& e, int lane, const Material& m);
    // A straight beam between two nodes: bending about its horizontal axis, torsion, shear. S. P. Timoshenko,
    // On the correction for shear, 1921.
    struct Beam {
        int a = 0, b = 0;
        double EI = 0, GJ = 0, flexibility = 0;  // 1 / (shear area times G), zero leaves shear out
        int line = -1;                           // the caller's: which member it is part of
    };
    struct Spring {
        int node = 0;
        double w = 0, xx = 0, xy = 0, yy = 0;  // vertical; against rotations (bx, by), symmetric
    };
    // Nodes that move as one rigid body, told by the movement of `at`.
    struct Rigid {
        Point at;
        std::vector<int> nodes;
    };
    // What is held at a node: w, both rotations, or the rotation component along a direction (cx, cy).
    struct Restraint {
        int node = 0;
        bool w = false, rotations = false;
        bool alongDirection = false;
        double cx = 1, cy = 0;
    };
    std::vector<Point> nodes;
    std::vector<std::array<int, 3>> triangles;
    std::vector<Material> materials;
    std::vector<int> material;  // per triangle
    std::vector<Beam> beams;
    std::vector<Spring> springs;
    std::vector<Rigid> rigid;
    std::vector<Restraint> restraints;
};

// Seconds spent.
struct Stages {
    double mesh = 0, model = 0, order = 0, symbolic = 0, assembly = 0, factor = 0, solve = 0, recover = 0;
    double sum() const { return mesh + model + order + symbolic + assembly + factor + solve + recover; }
};

// Three numbers per node: w, bx, by; or forces: vertical, and the couples that go with bx and by.
using NodeVector = std::vector<double>;

class PlateSystem {
  public:
    // Equations and their order for this model. Gives a sentence when it cannot be set up.
    std::string build(const PlateModel& model, Stages& stages, std::stop_token stop = {});
    // Stiffness and factor; the pattern of `model` is that of build(). What moved too freely is told by
    // badNode() after NotPositive.
    Cholesky::Outcome factorise(const PlateModel& model, Stages& stages, std::stop_token stop = {},
                                const std::function<void(double)>& share = {});
    int badNode() const { return badNode_; }
    // Displacements under loads, one vector per case; empty when stopped. `rounds` of iterative refinement
    // bring the answer of a badly shaped mesh back to full accuracy (J. H. Wilkinson, Rounding Errors in
    // Algebraic Processes, 1963).
    std::vector<NodeVector> solve(const std::vector<NodeVector>& loads, Stages& stages,
                                  std::stop_token stop = {}, int rounds = 0) const;
    // The forces that supports (restraints) exert on their nodes, by what elements and beams around them
    // carry away: pairs of node and force, upwards positive for the first component. Springs tell their own.
    struct Reaction {
        int node;
        std::array<double, 3> force;
    };
    std::vector<std::vector<Reaction>> reactions(const PlateModel& model,
                                                 const std::vector<NodeVector>& loads,
                                                 const std::vector<NodeVector>& u) const;
    int unknowns() const { return 3 * int(graph_.size()); }
    const Cholesky& cholesky() const { return cholesky_; }
    const SparseMatrix& matrix() const { return *matrix_; }
    const Graph& graph() const { return graph_; }
    const std::vector<int>& position() const { return position_; }  // of an equation node in the order

  private:
    using Turn = std::array<double, 9>;      // 3 x 3, row by row
    std::vector<int> equation_;              // per node: its equation node
    std::vector<int> turnOf_;                // per node: index into turns_, -1 for the identity
    std::vector<Turn> turns_;                // node movement = turn x equation movement
    std::vector<Point> at_;                  // per equation node
    std::vector<std::array<char, 3>> held_;  // per equation node
    Graph graph_;                            // of equation nodes
    std::vector<int> order_, position_;
    std::vector<int> incidentStart_, incident_;  // per equation node: triangle * 3 + corner
    std::vector<int> lowerStart_, lower_;        // per position: positions below, ascending
    std::shared_ptr<SparseMatrix> matrix_;
    Cholesky cholesky_;
    int badNode_ = -1;

    void assemble(const PlateModel& model, std::stop_token stop);
    void addBlock(int row, int column, const double* block);
    double* column(int position, int d) { return matrix_->value.data() + matrix_->start[3 * position + d]; }
};

// Forces that displacements u need at the nodes: stiffness times u, elements, beams and springs.
NodeVector internalForces(const PlateModel& model, const NodeVector& u);

// 6 x 6 stiffness of a beam in (w, bx, by) of its two ends, row by row.
std::array<double, 36> beamStiffness(const PlateModel::Beam& beam, Point a, Point b);
// Bending moment (sagging) at its two ends, shear and torque of a beam, from the displacements of its nodes.
struct BeamForces {
    double momentStart = 0, momentEnd = 0, shear = 0, torque = 0;
};
BeamForces beamForces(const PlateModel::Beam& beam, const std::vector<Point>& nodes, const NodeVector& u);

// Parts of the plate that can move without deforming: supports missing. Empty when stable.
struct FreeMovement {
    Point at;            // middle of the part
    bool sinks = false;  // moves down; otherwise it tips about the direction (cx, cy)
    double cx = 0, cy = 0;
    std::size_t nodes = 0;  // in the part
};
std::vector<FreeMovement> freeMovements(const PlateModel& model);

}  // namespace talvik::fem
