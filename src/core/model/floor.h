// A floor: slabs of any outline on columns, walls, beams, edges, piles or ground, with its actions. A value.
// Plan axes x, y in mm; stored units N, mm, MPa. Loads act downwards.
#pragma once

#include <map>
#include <string>
#include <vector>

#include "actions/actions.h"
#include "actions/factor_sets.h"
#include "geometry/polygon.h"
#include "model/bar_run.h"

namespace talvik::model {

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

// Reference lines in two directions from an origin. Lines "along": numbered 1, 2, 3 at the running sums of
// `along`, measured in direction `angle`; lines "across": lettered A, B, C at the sums of `across`, measured
// in direction `angle` + `between`. Each line runs in the other direction. Labels of one's own replace the
// first ones.
struct Grid {
    Id id;
    std::string name;
    Point origin;
    double angle = 0, between = 90;     // degrees
    std::vector<double> along, across;  // spacings, mm
    std::vector<std::string> alongLabels, acrossLabels;
    bool operator==(const Grid&) const = default;
};
// A drawing of someone else below the plan: a file, and how it lies. A point q of it is shown at
// at + scale * rotation(angle) q.
struct Underlay {
    Id id;
    std::string name;  // of the file, relative to the project's folder where it lies below it
    Point at;
    double angle = 0, scale = 1;      // degrees; mm per unit of the file
    std::vector<std::string> hidden;  // layers
    bool operator==(const Underlay&) const = default;
};
// What someone decided about the panel around a point, in place of what its sides say.
struct PanelChoice {
    Id id;
    Point at;
    enum class Span { OneWay, TwoWay } span = Span::OneWay;
    double angle = 0;  // of the direction in which a one-way panel spans, degrees
    bool operator==(const PanelChoice&) const = default;
};

// Formwork of the panel around a place, raised by so much in its middle.
struct Camber {
    Id id;
    Point at;
    double rise = 0;
    bool operator==(const Camber&) const = default;
};
// A line, as below a facade, on which the slab may sag by so much and no more.
struct SagLine {
    Id id;
    std::string name;
    Point a, b;
    enum class Of { AfterPartitions, Total } of = Of::AfterPartitions;
    double limit = 10;
    bool operator==(const SagLine&) const = default;
};

struct SlabArea {
    Id id;
    std::string name;
    Outline outline;
    double thickness = 250;
    double level = 0;  // of the top, above the floor's; a step where neighbours differ: see model/steps.h
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
    // Winds (directions) exclude one another, accidental cases too. Loads of both may point up (negative).
    enum class Nature { SelfWeight, Permanent, Imposed, Wind, Accidental } nature = Nature::Permanent;
    std::string use = "B";     // of an imposed case
    double reductionArea = 0;  // area that the member in question carries, mm2; 0: no reduction by area
    // Of an imposed case on some panels alone, which no project holds: its own case, and which arrangement.
    Id whole = {};
    int arrangement = 0;
    bool arranged() const { return arrangement > 0; }
    bool permanent() const { return nature == Nature::SelfWeight || nature == Nature::Permanent; }
    actions::ActionKind kind() const;
    bool operator==(const LoadCase&) const = default;
};
struct Finish {
    Id id;
    std::string material;
    double thickness = 0, density = 0;
    bool operator==(const Finish&) const = default;
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
    std::vector<Finish> layers;   // of an area load: their weight comes on top of `value`
    bool operator==(const FloorLoad&) const = default;
};
// Value with the layers of an area load.
double intensity(const FloorLoad& load);

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

// A combination of the user's own: factors on cases by id; cases not named have none.
struct CombinationRow {
    Id id;
    std::string name, clause;
    actions::LimitState state = actions::LimitState::Ultimate;
    std::map<Id, double> factors;
    bool operator==(const CombinationRow&) const = default;
};
// Which panels of a floor carry imposed loads in ultimate combinations: panels in turn and neighbouring
// pairs, besides all, as the standard asks; or all alone.
enum class Arrangement { InTurn, All };

// How the slabs of a floor are divided into design strips, and what is designed for in them.
struct StripChoices {
    bool ownAngles = false;            // otherwise those of the first grid, or the plan's axes
    double angle[2] = {0, 90};         // of the strips of the two directions, degrees
    bool automatic[2] = {true, true};  // otherwise only strips drawn by hand
    enum class Width { ColumnAndMiddle, Full } width = Width::ColumnAndMiddle;
    enum class Twisting { WoodArmer, None } twisting = Twisting::WoodArmer;
    bool faceOfSupport = true;  // moments are designed for at the face, not at the axis
    double peakWidth = 0;       // over columns, in which top steel is concentrated, mm; 0: by the standard
    int outerTop = 0, outerBottom = 0;  // the direction whose bars lie nearest to the face
    double redistribution = 0;          // share taken off hogging moments over inner supports
    bool links = true;                  // where concrete alone does not carry one-way shear
    bool operator==(const StripChoices&) const = default;
};
// A part of a floor with directions of strips and bars of its own.
struct StripArea {
    Id id;
    std::string name;
    Outline outline;
    double angle[2] = {0, 90};
    bool operator==(const StripArea&) const = default;
};
// A strip's edge that was moved by hand. Strips follow lines of supports; `line` is the id by which the line
// is known, `side` is +1 on the left of it (looking along the strip), -1 on the right.
struct StripEdge {
    Id id;
    int direction = 0;
    Id line;
    int side = 1;
    double offset = 0;  // from the line of supports, mm
    bool operator==(const StripEdge&) const = default;
};
// A strip drawn by hand. It takes its area away from the strips that are found.
struct DrawnStrip {
    Id id;
    std::string name;
    int direction = 0;  // the set of strips to which it belongs
    double angle = 0;   // in which it runs, degrees
    Outline outline;
    bool operator==(const DrawnStrip&) const = default;
};
enum class EndCondition { Free, OnBeam, Continuous, Cantilever };
// The end condition of a span of a strip, decided by someone against what the layout says.
struct SpanEnd {
    Id id;
    std::string strip;  // key of the strip
    Id support;         // at which the span ends; empty for a tip
    int side = 1;       // the span after the support (+1) or before it (-1)
    EndCondition condition = EndCondition::Free;
    bool operator==(const SpanEnd&) const = default;
};
struct FloorStrips {
    StripChoices rules;
    std::vector<StripArea> areas;
    std::vector<StripEdge> edges;
    std::vector<DrawnStrip> drawn;
    std::vector<SpanEnd> ends;
    std::vector<BarRun> bars;  // fixed by someone; `part` is the strip's key
    bool operator==(const FloorStrips&) const = default;
};

// What someone decided about the connection of a slab with a column, the end of a wall, a pile or a load, by
// the key under which it is known: the member's id, "w2/a" for an end of a wall, "c3+c4" where one perimeter
// goes round several.
struct ConnectionChoice {
    Id id;
    std::string connection;
    // Solved: as the basis prefers, where concrete alone does not carry.
    enum class Steel { None, Links, Studs, Solved } steel = Steel::Solved;
    double diameter = 0;  // of legs, mm; 0: chosen by the program
    // Lines of legs square to the sides and fanned at corners, or all parallel to the sides: a grid.
    enum class Legs { Fanned, Grid } legs = Legs::Fanned;
    bool pinned = false;  // the column stays as large as it is: no remedy offers a larger one
    bool operator==(const ConnectionChoice&) const = default;
};
struct FloorPunching {
    // Fixed factors for eccentricity where the standard has them: someone says that the structure is braced
    // and neighbouring spans are alike.
    bool fixedEccentricity = false;
    // As much of the moment of a column by bending of the slab as the standard and the bars there allow.
    bool moreByBending = false;
    std::vector<ConnectionChoice> choices;
    bool operator==(const FloorPunching&) const = default;
};

struct FloorActions {
    std::vector<LoadCase> cases;
    std::vector<FloorLoad> loads;
    std::vector<CombinationRow> combinations;  // empty: those of the standard
    Arrangement arrangement = Arrangement::InTurn;
    bool operator==(const FloorActions&) const = default;
};

// How a floor is looked at under people who walk on it.
struct FloorVibration {
    bool on = false;
    double imposed = 0.1;   // share of the imposed loads that is there as mass
    double damping = 0.03;  // of critical
    double limit = 4;       // of the response factor: accelerations over those that are just felt
    bool operator==(const FloorVibration&) const = default;
};

struct Floor {
    Id id;
    std::string name;
    int members = 1;  // floors that are alike and built from this one's bars and drawings
    std::vector<Grid> grids;
    std::vector<Underlay> underlays;
    std::vector<SlabArea> slabs;
    std::vector<Zone> zones;
    std::vector<Opening> openings;
    std::vector<Column> columns;
    std::vector<Wall> walls;
    std::vector<LineSupport> edges;
    std::vector<FloorBeam> beams;
    std::vector<Ground> grounds;
    std::vector<Pile> piles;
    std::vector<PanelChoice> panels;
    std::vector<Camber> cambers;
    std::vector<SagLine> sagLines;
    AnalysisChoices choices;
    FloorActions actions;
    FloorStrips strips;
    FloorPunching punching;
    FloorVibration vibration;
    bool operator==(const Floor&) const = default;
};

// Whether two floors differ in nothing but their strips and what was decided about punching and sag.
bool sameButStrips(const Floor& a, const Floor& b);
// The slabs together, as outlines without what lies between them.
std::vector<geometry::Ring> outlines(const Floor& floor);
// The same with walls and beams that stand out beyond its edges: where bars of the slab may lie.
std::vector<geometry::Ring> concrete(const Floor& floor);
// Thickness in plan. Of zones over each other, and of slabs, the last one holds, as in the analysis. Refers
// to the floor.
class Thickness {
  public:
    explicit Thickness(const Floor& floor);
    double at(Point p) const;  // of the first slab where the place is in none
    // Adds the area of the cut along a segment, and takes the least thickness in it.
    void along(geometry::Segment s, double& area, double& least) const;
    const std::vector<geometry::Ring>& zones() const { return zones_; }

  private:
    const Floor& floor_;
    std::vector<geometry::Ring> zones_, slabs_;
};
// Section of a column in plan, corners of a rectangle or a polygon of equal area around a circle.
geometry::Ring footprint(const Column& column);
geometry::Ring footprint(const FloorLoad& load);
// Of walls and beams; empty where one is shorter than 1 mm.
geometry::Ring footprint(const Wall& wall);
geometry::Ring footprint(const FloorBeam& beam);
double area(const Column& column);
// Calls f(name, list) for the lists of what a floor holds but for its strips; names are those of the file.
template <class Floor, class F>
void eachList(Floor& floor, F f) {
    f("grids", floor.grids);
    f("underlays", floor.underlays);
    f("slabs", floor.slabs);
    f("zones", floor.zones);
    f("openings", floor.openings);
    f("columns", floor.columns);
    f("walls", floor.walls);
    f("edges", floor.edges);
    f("beams", floor.beams);
    f("grounds", floor.grounds);
    f("piles", floor.piles);
    f("panels", floor.panels);
    f("cambers", floor.cambers);
    f("sag_lines", floor.sagLines);
    f("cases", floor.actions.cases);
    f("loads", floor.actions.loads);
    f("combinations", floor.actions.combinations);
}
// Calls f(path, object) for everything of a floor that has an id, in the order of the file.
template <class Floor, class F>
void eachMember(Floor& floor, F f) {
    eachList(floor, [&](const char* name, auto& all) {
        for (std::size_t i = 0; i < all.size(); ++i)
            f(std::string(name) + "[" + std::to_string(i) + "]", all[i]);
    });
}
// The same for what someone decided about the strips.
template <class Floor, class F>
void eachStripItem(Floor& floor, F f) {
    auto list = [&](const char* name, auto& all) {
        for (std::size_t i = 0; i < all.size(); ++i)
            f("strips." + std::string(name) + "[" + std::to_string(i) + "]", all[i]);
    };
    list("areas", floor.strips.areas);
    list("edges", floor.strips.edges);
    list("drawn", floor.strips.drawn);
    list("ends", floor.strips.ends);
    list("bars", floor.strips.bars);
    for (std::size_t i = 0; i < floor.punching.choices.size(); ++i)
        f("punching.choices[" + std::to_string(i) + "]", floor.punching.choices[i]);
}

}  // namespace talvik::model
