// A floor: slabs of any outline on columns, walls, beams, edges, piles or ground, with its actions. A value.
// Plan axes x, y in mm; stored units N, mm, MPa. Loads act downwards.
#pragma once

#include <string>
#include <vector>

#include "geometry/polygon.h"

namespace talvik::model {

using Id = std::string;
using geometry::Point;

// A corner of an outline. `bulge` makes the side to the next corner an arc: the tangent of a quarter of its
// angle, positive where it turns anticlockwise; 0 for a straight side.
struct Corner {
    double x = 0, y = 0, bulge = 0;
    bool operator==(const Corner&) const = default;
};
using Outline = std::vector<Corner>;
// The outline as a polygon, anticlockwise; arcs stay within `tolerance` of it.
geometry::Ring ring(const Outline& outline, double tolerance = 5);

struct SlabArea {
    Id id;
    std::string name;
    Outline outline;
    double thickness = 250;
    bool operator==(const SlabArea&) const = default;
};
// A part of the slabs with another thickness: which face stays level with the slab's.
struct Zone {
    Id id;
    std::string name;
    Outline outline;
    double thickness = 350;
    enum class Level { Top, Bottom, Middle } level = Level::Top;
    bool operator==(const Zone&) const = default;
};
struct Opening {
    Id id;
    std::string name;
    Outline outline;
    bool operator==(const Opening&) const = default;
};

// Spring: the slab rests on the column's section as on a bed of springs, in all as stiff as the column in
// compression and bending; pinned: held at a point, free to turn; rigid: the section stays plane.
enum class Bearing { Spring, Pinned, Rigid };
struct Column {
    Id id;
    std::string name;
    double x = 0, y = 0;
    bool circular = false;
    double width = 400, depth = 400;  // along its own x and y; a circle has its diameter as width
    double angle = 0;                 // of its own x from the plan's, degrees
    bool below = true, above = false;
    double heightBelow = 3000, heightAbove = 3000;
    bool farEndsFixed = true;
    Bearing bearing = Bearing::Spring;
    bool operator==(const Column&) const = default;
};
struct Wall {
    Id id;
    std::string name;
    Point a, b;  // middle line
    double thickness = 200, height = 3000;
    bool stiff = false;  // bends with the slab; otherwise the slab is free to turn on it
    bool operator==(const Wall&) const = default;
};
// A line along which the slab is held without more being known of what holds it.
struct LineSupport {
    Id id;
    std::string name;
    Point a, b;
    enum class Kind { Simple, Clamped, Symmetry } kind = Kind::Simple;
    bool operator==(const LineSupport&) const = default;
};
struct FloorBeam {
    Id id;
    std::string name;
    Point a, b;
    double width = 300, depth = 500;  // the depth includes the slab
    bool upstand = false;
    double torsion = 0.1;  // share of the uncracked torsional stiffness; 0 for none
    bool operator==(const FloorBeam&) const = default;
};
struct Ground {
    Id id;
    std::string name;
    Outline outline;        // empty: under every slab
    double modulus = 0.02;  // of subgrade reaction, N/mm3
    bool operator==(const Ground&) const = default;
};
struct Pile {
    Id id;
    std::string name;
    double x = 0, y = 0;
    double diameter = 450;
    double stiffness = 200e3;  // N/mm
    bool operator==(const Pile&) const = default;
};

struct LoadCase {
    Id id;
    std::string name;
    enum class Nature { SelfWeight, Permanent, Imposed } nature = Nature::Permanent;
    std::string use = "B";  // of an imposed case
    bool operator==(const LoadCase&) const = default;
};
struct FloorLoad {
    Id id;
    Id loadCase;
    enum class Kind { Area, Line, Point, Moment } kind = Kind::Area;
    double value = 0;             // N/mm2, N/mm, N; of a moment about the y axis, sagging along x, N mm
    double valueY = 0;            // of a moment about the x axis, sagging along y, N mm
    Outline outline;              // of an area load; empty: on every slab
    Point a, b;                   // of a line load; a for points and moments
    double width = 0, depth = 0;  // footprint of a point load; 0 for none
    bool operator==(const FloorLoad&) const = default;
};

struct Modifiers {
    double slab = 1, beam = 1, column = 1, wall = 1;  // on bending stiffness
    bool operator==(const Modifiers&) const = default;
};
struct AnalysisChoices {
    double meshSize = 0;  // largest triangle, mm; 0: chosen by the program
    bool shearDeformation = true;
    bool groundTakesTension = false;
    Modifiers modifiers;
    bool operator==(const AnalysisChoices&) const = default;
};

struct FloorActions {
    std::vector<LoadCase> cases;
    std::vector<FloorLoad> loads;
    bool operator==(const FloorActions&) const = default;
};

struct Floor {
    Id id;
    std::string name;
    std::vector<SlabArea> slabs;
    std::vector<Zone> zones;
    std::vector<Opening> openings;
    std::vector<Column> columns;
    std::vector<Wall> walls;
    std::vector<LineSupport> edges;
    std::vector<FloorBeam> beams;
    std::vector<Ground> grounds;
    std::vector<Pile> piles;
    AnalysisChoices choices;
    FloorActions actions;
    bool operator==(const Floor&) const = default;
};

// Section of a column in plan, corners of a rectangle or a polygon of equal area around a circle.
geometry::Ring footprint(const Column& column);
geometry::Ring footprint(const FloorLoad& load);
double area(const Column& column);
// Calls f(path, object) for everything of a floor that has an id, in the order of the file.
template <class Floor, class F>
void eachMember(Floor& floor, F f) {
    auto list = [&](const char* name, auto& all) {
        for (std::size_t i = 0; i < all.size(); ++i)
            f(std::string(name) + "[" + std::to_string(i) + "]", all[i]);
    };
    list("slabs", floor.slabs);
    list("zones", floor.zones);
    list("openings", floor.openings);
    list("columns", floor.columns);
    list("walls", floor.walls);
    list("edges", floor.edges);
    list("beams", floor.beams);
    list("grounds", floor.grounds);
    list("piles", floor.piles);
    list("cases", floor.actions.cases);
    list("loads", floor.actions.loads);
}

}  // namespace talvik::model
