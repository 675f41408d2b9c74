// Analysis of a floor: displacements, moments, shears, reactions, per load case and combination. Units N, mm,
// MPa; w downwards, moments per width sagging positive (N), shears per width (N/mm), reactions upwards.
#pragma once

#include <functional>
#include <memory>
#include <stop_token>

#include "actions/actions.h"
#include "analysis/floor_model.h"

namespace talvik::analysis {

// Factors on the load cases of one floor.
struct FloorCombination {
    std::string name, clause;
    actions::LimitState state = actions::LimitState::Ultimate;
    std::vector<double> factors;  // per case
};

struct FloorCase {
    model::Id id;
    std::string name;
    bool arranged = false;  // stands on some panels alone
    double load = 0;        // put on, downwards
    double reaction = 0;    // of all supports
    // The largest of the differences of forces and of moments about both axes, over the sum of the
    // magnitudes.
    double imbalance = 0;
};

// A force of a support on the slab, upwards, and the couples about its middle that go with rotations bx, by.
struct SupportForce {
    double up = 0, mx = 0, my = 0;
};

// Kinds of value kept at points.
enum class Field { Deflection, Mx, My, Mxy, Qx, Qy, Pressure };
inline constexpr int fieldCount = 7;
const char* key(Field f);    // "deflection", "mx", ... as on the command line
const char* title(Field f);  // "Deflection", "Moment mx", ...
const char* unit(Field f);   // metric unit and factor for printing: value / factor
double factor(Field f);
units::Kind kind(Field f);  // for display in the project's units

struct FloorAnalysis {
    std::vector<model::Diagnostic> trouble;  // why there is no answer
    std::vector<model::Diagnostic> notes;    // slips and limits that do not prevent one
    std::vector<std::string> assumptions;
    std::shared_ptr<const FloorModel> model;
    std::shared_ptr<const fem::PlateSystem> system;  // with its factor, for more loads on the same slab
    std::vector<FloorCase> cases;
    std::vector<FloorCombination> combinations;
    std::vector<std::vector<SupportForce>> supportForces;  // per case, per support
    // Ground that lets go: the combinations do not add up from cases then. Empty otherwise.
    bool nonlinear = false;
    std::string contactWord;  // how the search for the contact went
    fem::Stages stages;
    bool reusedFactor = false, reusedAll = false;
    int unknowns = 0;
    double factorEntries = 0;

    bool good() const { return trouble.empty() && model != nullptr; }
    bool stopped = false;

    // Values per point of model->points (moments, shears) or per node (deflection, pressure).
    std::vector<double> field(Field f, const std::vector<double>& factors) const;
    std::vector<double> field(Field f, std::size_t combination) const;
    bool perNode(Field f) const { return f == Field::Deflection || f == Field::Pressure; }
    // Largest and smallest over the combinations of a limit state, with the combination that governs.
    struct Envelope {
        std::vector<float> most, least;
        std::vector<std::uint16_t> mostBy, leastBy;
    };
    Envelope envelope(Field f, actions::LimitState state) const;
    struct Extreme {
        double value = 0;
        model::Point at;
        std::size_t combination = 0;
    };
    struct Extremes {
        Field field;
        Extreme most, least;
    };
    std::vector<Extremes> extremes(actions::LimitState state) const;
    // Support forces of a combination.
    std::vector<SupportForce> forces(std::size_t combination) const;
    SupportForce force(std::size_t combination, std::size_t support) const;

    // Displacements and moments of cases (or of combinations when nonlinear); kept for the functions above.
    std::vector<fem::NodeVector> u;
    std::vector<fem::MomentField> moments;
};

// Answers at a place: the triangle's own values, so that either side of a line can be asked for.
struct PointValues {
    double w = 0, mx = 0, my = 0, mxy = 0, qx = 0, qy = 0;
    bool onSlab = false;
};
PointValues valuesAt(const FloorAnalysis& a, std::size_t combination, model::Point p);

// A straight cut: values at stations, in axes along the cut's normal (pointing left of a to b), and their
// integrals.
struct Cut {
    struct Station {
        double along = 0, moment = 0, shear = 0, twist = 0;  // mnn, qn, mnt
    };
    std::vector<Station> stations;
    // Integrals of the slab's own; see cuts.h.
    double slabMoment = 0, slabShear = 0;
    double beamMoment = 0, beamShear = 0;  // of beams that cross: their part normal to the cut
    double length = 0;                     // of cut on the slab
};
Cut cut(const FloorAnalysis& a, std::size_t combination, model::Point from, model::Point to);

// How far the answer still moves: governing quantities on the mesh and on one with half the size.
struct Convergence {
    struct Row {
        std::string what;
        double coarse = 0, fine = 0;
        double change() const { return fine != 0 ? coarse / fine - 1 : 0; }
        std::string unit;
    };
    std::vector<Row> rows;
    std::size_t trianglesCoarse = 0, trianglesFine = 0;
    std::string error;
};

// Keeps what an edit does not touch: same geometry and stiffness, same factor; same loads too, the answer
// itself.
class FloorAnalyser {
  public:
    // `progress` is told the share done. Stops soon after the token asks for it: `stopped` is set then.
    FloorAnalysis analyse(const model::Floor& floor, const std::string& path, const FloorBasis& basis,
                          const std::vector<FloorCombination>& combinations, std::stop_token stop = {},
                          const std::function<void(double)>& progress = {});
    Convergence convergence(const model::Floor& floor, const std::string& path, const FloorBasis& basis,
                            const std::vector<FloorCombination>& combinations, std::stop_token stop = {});

  private:
    struct Kept;
    std::shared_ptr<Kept> kept_;
    bool refined_ = false;  // half the size beside columns too
};

}  // namespace talvik::analysis
