// A set of bases: columns with their characteristic actions, and the pad footings or pile caps below them on
// one ground. What someone fixed stays (a pin); nought or nothing leaves it to be solved. Units N, mm, MPa.
//
// Axes as in plan, x to the right, y up. N downwards is positive; moments are right-handed and act at the top
// of the base: Mx > 0 moves the resultant to -y by Mx/N, My > 0 to +x by My/N. Hx at the top of a base of
// depth h adds Hx h to My, Hy takes Hy h from Mx.
#pragma once

#include <string>
#include <vector>

#include "actions/factor_sets.h"
#include "geometry/polygon.h"
#include "model/part.h"

namespace talvik::model {

struct ActionCase {
    Id id;
    std::string name;
    actions::ActionKind kind;
    bool fromFloors = false;  // what linked floors put on: their actions in it are not typed
    bool operator==(const ActionCase&) const = default;
};
struct ColumnAction {
    Id loadCase;
    double N = 0, Hx = 0, Hy = 0, Mx = 0, My = 0;
    bool operator==(const ColumnAction&) const = default;
};
// A column or wall of a floor of the project that stands on a base.
struct FloorSupport {
    Id floor, support;
    bool operator==(const FloorSupport&) const = default;
};
struct BaseColumn {
    Id id;
    std::string name;
    double x = 0, y = 0, width = 300, depth = 300;  // width along x
    // Those in cases from floors are what was taken note of last; what counts is worked out anew.
    std::vector<ColumnAction> actions;
    // Of the floors it carries, the lowest first: that alone brings moments and horizontal forces.
    std::vector<FloorSupport> from{};
    bool operator==(const BaseColumn&) const = default;
};

// A thicker stub between a base and its column, about the column's axis; 0: none. Actions act at its top.
struct Pedestal {
    double width = 0, depth = 0, height = 0;  // width along x
    bool any() const { return width > 0 && depth > 0 && height > 0; }
    bool operator==(const Pedestal&) const = default;
};
// The top of a pad below one column: level, or down to the edges by a slope or a step.
struct BaseTop {
    enum class Kind { Level, Sloped, Stepped } kind = Kind::Level;
    double edge = 0;        // pin: depth at the edges; solved, it is half of the depth
    double shoulder = 100;  // level about what stands on it, beyond its faces
    bool operator==(const BaseTop&) const = default;
};
// A beam from the one column of a pad, near a boundary, to a column of a pad further in, along x or y: it
// holds the pad against turning.
struct Strap {
    Id to;                        // the column further in; none: no strap
    double width = 0, depth = 0;  // pins
    bool any() const { return !to.empty(); }
    bool operator==(const Strap&) const = default;
};
struct Base {
    Id id;
    std::vector<Id> columns;
    double B = 0, L = 0, h = 0;  // pins: along x, along y, depth
    double ratio = 0;            // pin: L/B, where not both are pinned
    bool offPinned = false;      // the centre stands so far off the middle of the columns
    double offX = 0, offY = 0;
    int piles = 0;                         // pin
    std::vector<geometry::Point> pilesAt;  // pin: off the middle of the columns; then `piles` is their number
    std::string bar;                       // pin: bars of both directions, with their spacing
    double spacing = 0;
    std::string type;  // bases with one name, given by hand, are alike
    Pedestal pedestal;
    BaseTop top;
    Strap strap;
    std::vector<std::string> leftOut;  // names of combinations not looked at for this base, besides the set's
    bool operator==(const Base&) const = default;
};

// A layer of the ground below the underside, for settlements.
struct GroundLayer {
    double thickness = 0, modulus = 0, poisson = 0.3;  // mm, MPa (drained), -
    bool operator==(const GroundLayer&) const = default;
};
// What bases stand in and on.
struct GroundValues {
    // By an allowable pressure, gross (with all weights) or net (less that of the soil dug out), or by
    // resistance, drained or undrained (EN 1997-1 Annex D).
    enum class By { Gross, Net, Drained, Undrained } by = By::Gross;
    double allowable = 0.2;                             // MPa
    double cohesion = 0, friction = 30, undrained = 0;  // MPa, degrees, MPa
    double weightBelow = 18e-6;                         // of the ground below the base, N/mm3
    double depth = 1000;                                // from the ground to the underside
    double soil = 18e-6;                                // weight of the soil above the base
    double surcharge = 0;                               // MPa, variable
    bool water = false;
    double waterDepth = 3000;         // below the ground
    double baseFriction = 25;         // degrees, between base and ground
    double adhesion = 0;              // MPa, between base and ground
    double passiveShare = 0;          // of the passive pressure beside a base, that helps against sliding
    std::vector<GroundLayer> layers;  // none: no settlement is worked out
    double settlement = 25;           // the most that is accepted
    double blinding = 50;
    bool operator==(const GroundValues&) const = default;
};
struct PileValues {
    bool circular = true;
    double diameter = 600;  // or side
    double compression = 1000e3, tension = 0, lateral = 0;
    bool ultimate = false;  // the capacities are design values; else for characteristic loads
    double spacingFactor = 3, edge = 150, embedment = 75, tolerance = 0;
    double length = 0;  // below the cap, for cost and carbon; 0: not given, and piles are not in them
    bool operator==(const PileValues&) const = default;
};
// Caps on plan: rectangles; with sides parallel to the outer rows of piles, so that three piles have a
// triangle; or the same with sharp corners cut off, so that three piles have six sides.
enum class CapOutline { Rectangular, AlongPiles, CornersCut };
// What the bars of caps are found by: bending at the faces of columns, the truss of struts and ties, or the
// one that asks for more.
enum class CapSteel { Greater, Bending, Truss };

struct BaseSet {
    Id id;
    std::string name;
    enum class Kind { Pads, Caps } kind = Kind::Pads;
    GroundValues ground;
    PileValues pile;
    bool twoFormulas = false;  // EN 1990 (6.10a) and (6.10b)
    int approach = 1;          // of EN 1997-1
    int mostTypes = 0;         // so many different bases at the most; 0: as many as there are
    double planStep = 50, depthStep = 50, leastDepth = 300;
    std::vector<std::string> bars{"H12", "H16", "H20", "H25"};
    std::string starterBar;    // for the columns; none: solved
    std::string sideBar;       // round the sides of caps; none: no such bars
    double sideSpacing = 200;  // at the most
    CapOutline outline = CapOutline::Rectangular;
    CapSteel capSteel = CapSteel::Greater;
    bool topBars = false;               // of caps, also where no pile is in tension
    std::string linkBar;                // vertical links of caps, one leg at each place of a grid; none
    double linkSpacing = 200;           // of the grid
    std::vector<geometry::Point> site;  // corners of the outline that no base leaves; none: no bound
    std::vector<std::string> leftOut;   // names of combinations that nobody is to look at
    std::vector<ActionCase> cases;
    std::vector<BaseColumn> columns;
    std::vector<Base> bases;
    bool operator==(const BaseSet&) const = default;
};

const BaseColumn* findColumn(const BaseSet& set, std::string_view id);
// The names of its columns, joined by " + ".
std::string baseName(const BaseSet& set, const Base& base);
// Straps to columns that are not there, or that stand on the same base by now, go.
void dropLooseStraps(BaseSet& set);
// Middle of the columns of a base.
geometry::Point middle(const BaseSet& set, const Base& base);

struct Diagnostic;
// What no set of bases may hold; `path` leads to it.
void validateBases(const BaseSet& set, const std::string& path, std::vector<Diagnostic>& found);

}  // namespace talvik::model
