// From a floor as drawn to a plate as numbers: mesh, stiffness, supports. Units N, mm.
#pragma once

#include <functional>
#include <optional>
#include <stop_token>

#include "fem/plate/plate_system.h"
#include "fem/plate/recovery.h"
#include "model/project.h"

namespace talvik::analysis {

// What the analysis takes from basis and standard.
struct FloorBasis {
    double modulus = 33000, poisson = 0.2;  // of uncracked concrete, short-term
    double density = 25e-6;
    // Flange on one side of a beam; arguments as in standards::StiffnessRules::Flange.
    struct Flange {
        double toNext = 0, zeroMoment = 0, clear = 0, slabThickness = 0;
        bool edge = false, otherSide = true;
    };
    std::function<double(const Flange&)> flange;
    // Of beams, and of columns and walls, where not as the slab's.
    std::optional<double> beamModulus{}, columnModulus{}, beamDensity{};
    // Slab that carries one way by someone's word: its outlines, and the direction in degrees.
    struct OneWay {
        std::vector<geometry::Ring> parts;
        double angle = 0;
        bool operator==(const OneWay&) const = default;
    };
    std::vector<OneWay> oneWay{};
    std::vector<std::string> assumptions{};    // what whoever asks takes for granted, told with the others
    std::vector<model::Diagnostic> trouble{};  // why there is no basis: nothing is analysed then
};

struct FloorSupport {
    enum class Kind { Column, Wall, Line, Pile, Ground } kind = Kind::Column;
    model::Id id;
    std::string name;
    model::Point at;
};

// Section of a piece of beam with its flange.
struct BeamSection {
    double flangeWidth = 0;  // with the web
    double inertia = 0;      // of the T or L section about its own axis
    double added = 0;        // what the beam adds to the slab's own strip: inertia - flangeWidth t^3 / 12
    double torsion = 0;      // torsional constant used, of the web over the full depth
    double shearArea = 0;    // 5/6 of the web
    double webDepth = 0;     // beyond the slab
};
BeamSection beamSection(const model::FloorBeam& beam, double flangeWidth, double slabThickness);
// Torsional constant of a rectangle (A. J. C. Barre de Saint-Venant, 1855, by the usual series cut short).
double torsionConstant(double a, double b);

struct FloorModel {
    fem::Mesh mesh;
    fem::PlateModel plate;
    fem::FieldPoints points;
    std::vector<double> thickness;  // per triangle
    std::vector<double> bed;        // ground modulus per triangle; 0 for none
    std::vector<FloorSupport> supports;
    std::vector<int> springSupport;     // per spring of the plate: its support
    std::vector<int> nodeSupport;       // per node: the support that restrains it, -1 for none
    std::vector<int> groundSprings;     // springs that the ground may let go
    std::vector<BeamSection> sections;  // per beam element of the plate
    std::vector<model::Diagnostic> trouble, notes;
    double meshSize = 0;  // chosen
};
// The mesh and the plate of a valid floor; `refined` halves every size. Trouble names what and where.
FloorModel makeFloorModel(const model::Floor& floor, const std::string& path, const FloorBasis& basis,
                          fem::Stages& stages, std::stop_token stop = {}, bool refined = false);

// What the model takes for granted, in sentences, for this floor.
std::vector<std::string> assumptions(const model::Floor& floor);

// Forces at nodes per load case, what was put on, and what of it fell beside the slab.
struct FloorLoads {
    std::vector<fem::NodeVector> cases;
    std::vector<double> total;
    std::vector<model::Diagnostic> notes;
};
FloorLoads floorLoads(const model::Floor& floor, const std::string& path, const FloorModel& model,
                      const FloorBasis& basis, std::stop_token stop = {});

}  // namespace talvik::analysis
