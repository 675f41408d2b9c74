// What bases (pad footings, pile caps) take from a standard: combinations, partial factors of the ground,
// punching close to the column, bearing at its foot, anchorage of their bars. Units N, mm, MPa.
#pragma once

#include <string>
#include <vector>

#include "actions/factor_sets.h"
#include "checks/finding.h"
#include "geometry/polygon.h"
#include "trace/trace.h"

namespace talvik::standards {

struct Section;

// What a combination is for: an allowable pressure or service loads of piles; bars, shear and punching;
// resistance of the ground and sliding; overturning and uplift; cracks.
enum class BaseState { Service, Strength, Ground, Stability, Sustained };
struct BaseCombination {
    std::string clause;
    BaseState state = BaseState::Service;
    std::vector<double> factors;  // per action
    double weight = 1;            // on the weight of the soil above the base
    double concrete = 1;          // on the weight of the base itself
    double surcharge = 0;         // where it adds to what is asked
    // Partial factors by which tan phi, c' and c_u are divided, and the resistances in bearing and sliding
    // and of the ground beside.
    double friction = 1, cohesion = 1, undrained = 1, bearing = 1, sliding = 1, passive = 1;
    // Imposed loads at the far end of a strap are not there where they would take load off this base.
    bool lightStrap = false;
    // "1.35 G + 1.5 Q + 0.9 W"
    std::string name(const std::vector<std::string>& actions) const;
};
struct BaseChoices {
    bool twoFormulas = false;  // EN 1990 (6.10a) and (6.10b) instead of (6.10)
    int approach = 1;          // design approach of EN 1997-1
};

// A rectangular column on a base: sides and overhangs of the base beyond its faces at -x, +x, -y, +y.
struct FootingPunching {
    double sides[2] = {0, 0};
    double over[4] = {0, 0, 0, 0};
    double d = 0, rho[2] = {0, 0}, fc = 0;
    // Of tops that are not level: as deep as d up to the shoulder from the faces, from there down to `low` by
    // a step or, evenly, over `run`. Nought: level.
    double shoulder = 0, run = 0, low = 0;
    bool step = false;
    // Effective depth at a distance from the faces.
    double depth(double a) const;
    double N = 0;                 // of the column, downwards
    double moment[2] = {0, 0};    // along x, along y
    double pressure = 0;          // upwards at the column, net of what lies on the base, MPa
    double gradient[2] = {0, 0};  // by which it grows along x and y, MPa per mm
    // Piles of a cap: places from the column's middle, what they push up, their size.
    struct Push {
        geometry::Point at;
        double up = 0, size = 0;
    };
    std::vector<Push> piles{};
    bool onPiles = false;  // a cap, whatever piles lie near
    // What pushes is a pile, whose head passes on no moment: edges near it count by the standard's own rule
    // or not at all, and not by how far the middle of the perimeter lies off the pile.
    bool pile = false;
    double farthest =
        0;  // perimeters go no farther: what pushes the other way begins there; 0: no such bound
    // Of bases that are no rectangles along the axes: the convex outline, anticlockwise, from the column's
    // middle; `over` is then to the sides of the rectangle about it.
    geometry::Ring outline{};
    // From the column's face to a place; 0 under it.
    double clear(geometry::Point at) const;
    // From the column's faces to each edge of the base, and to what lies opposite.
    struct Room {
        double over = 0, opposite = 0;
    };
    std::vector<Room> rooms() const;
    // What of the column's own perimeter does not face an edge as near as d and half as near as what lies
    // opposite: of rectangles by whole sides, of other outlines what is turned away by 45 degrees and more.
    double freeSides() const;
    // On outlines that are no rectangles what lies opposite may be a corner: a quarter of the way there.
    bool near(const Room& edge) const {
        return edge.over < d && edge.over < (outline.empty() ? 0.5 : 0.25) * edge.opposite;
    }
};
struct PunchingFound {
    checks::Finding stress;  // at the perimeter that governs
    double distance = 0, perimeter = 0, force = 0;
    checks::Finding face;  // of the column's own perimeter; not applicable where the standard looks at none
};
struct FootingAnchorage {
    double overhang = 0, h = 0, d = 0, columnSide = 0, cover = 0;
    double edgePressure = 0;  // net, mean over the outer h/2, MPa
    double moment = 0;        // at the face, per mm of width
    double area = 0;          // of bars, per mm of width
    double diameter = 0, barArea = 0, spacing = 0, fc = 0, fy = 0;
    bool hooked = false;
};

class BaseRules {
  public:
    virtual ~BaseRules() = default;
    virtual std::vector<BaseCombination> combinations(const std::vector<actions::ActionKind>& actions,
                                                      BaseState state, const BaseChoices& choices) const = 0;
    // Of perimeters on the base: wholly where there is room, cut off by its edges where a column stands near
    // one.
    virtual PunchingFound punching(const FootingPunching& in, trace::Steps* t = nullptr) const = 0;
    // One-way shear of a section of a base without links, N on its width.
    virtual double oneWay(const Section& s, double As, bool onPiles, trace::Steps* t = nullptr) const = 0;
    virtual std::string oneWayClause(bool onPiles) const = 0;
    // Least effective depth of a footing on ground, or of a cap above its piles; 0 without such a rule.
    struct LeastDepth {
        double d = 0;
        std::string clause;
    };
    virtual LeastDepth leastDepth(bool onPiles) const = 0;
    // Concrete below a column: loaded area, and the largest similar area about it within the base.
    virtual checks::Finding columnFoot(double N, double loaded, double spread, double fc, double fcColumn,
                                       trace::Steps* t = nullptr) const = 0;
    // By how much a side of that area may be longer than the column's, per depth of the base below it.
    virtual double footSpread() const = 0;
    // Whether the anchorage of bent bars is measured along them, the leg included, or ends at the bend.
    virtual bool legsCount() const = 0;
    virtual checks::Finding anchorage(const FootingAnchorage& in, trace::Steps* t = nullptr) const = 0;
    // Share of a pile's force that counts in one-way shear at the face of a column: `clear` from there to the
    // pile.
    virtual double pileShare(double clear, double d, double pile) const = 0;
    virtual std::string pileShareClause() const = 0;
    // Strength of the nodes of struts and ties: one from which a tie goes, or one of struts alone, confined
    // by concrete around that is `spread` times its area. MPa.
    virtual double node(bool tied, double fc, double spread, trace::Steps* t = nullptr) const = 0;
    virtual std::string nodeClause() const = 0;
    // Strength of a tie per area of its steel, MPa.
    virtual double tie(double fy) const = 0;
    virtual std::string tieClause() const = 0;
    // Least steel of starter bars below a column that presses with N; fcColumn: of its own concrete.
    virtual double dowels(double N, double columnArea, double fcColumn, double fy) const = 0;
    virtual std::string dowelClause() const = 0;
    // By how much the steel along the shorter side of a rectangular base grows where it lies evenly, although
    // a band about the column asks for more of it: `ratio` of the longer to the shorter side. 1 where the
    // standard asks for no band.
    virtual double evenSpread(double ratio, trace::Steps* t = nullptr) const = 0;
    virtual std::string evenSpreadClause() const = 0;
    virtual std::string clause(BaseState state) const = 0;
    // Bars at the top of a cap above a pile in tension, at least; 0 without such a rule.
    struct TopBars {
        int number = 0;
        std::string clause;
    };
    virtual TopBars topBars() const { return {}; }
    // What vertical links, `asw` on the width, carry of loads whose faces are `clear` away; N. Very large
    // without such a rule.
    virtual double nearLinks(double /*clear*/, double /*asw*/, double /*fywd*/,
                             trace::Steps* = nullptr) const {
        return 1e300;
    }
    // Where the rules of the ground come from: settlement; that it is asked for on clay; eccentricity beyond
    // which more care is asked for, as a part of the side; how high a pedestal is over what it stands out.
    struct Care {
        std::string settlement = "elastic layers", clay = "good practice", eccentricity = "good practice",
                    pedestal = "good practice";
        double eccentric = 1.0 / 3, pedestalHeight = 2;
    };
    virtual Care care() const { return {}; }
    // Whether combinations are chosen among several formulas and design approaches (BaseChoices).
    virtual bool hasApproaches() const { return false; }
};

// The control perimeter at a distance from a column on a base: length, area inside, and where edges cut it
// off (see FootingPunching). Closed form.
struct FootingPerimeter {
    double length = 0, area = 0;
    bool whole = true;
    bool open = false;  // nothing is left of it
};
// `rounded`: with quarter circles at the corners, else square ones.
FootingPerimeter footingPerimeter(const FootingPunching& in, double a, bool rounded);
// Along axis i of the same perimeter: its centroid from the column's middle, first moment of the lengths
// about that, second moment per depth of the section without and with the d^3/12 of sides along the axis.
struct FootingMoments {
    double centroid = 0, first = 0, second = 0, along = 0, far = 0;  // along: length of sides along the axis
};
FootingMoments footingMoments(const FootingPunching& in, double a, bool rounded, int axis);

}  // namespace talvik::standards
