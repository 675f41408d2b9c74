// Punching: what a standard says of the connection of a slab with a column, the end of a wall or a load.
// Units N, mm, MPa; plan axes x, y.
#pragma once

#include <string>
#include <vector>

#include "checks/finding.h"
#include "punching/perimeter.h"
#include "trace/trace.h"

namespace talvik::standards {

// A connection before any load. Depths and steel are those of the face in tension there.
struct PunchingPlace {
    punching::Site site;
    geometry::Point middle;  // of what is loaded
    double angle = 0;        // of its first side, degrees
    double c1 = 0, c2 = 0;   // its sides; of a round one the diameter
    bool round = false;
    enum class Of { Column, Load, Wall } of = Of::Column;
    double h = 0, d = 0;  // slab, mean effective depth
    // Of the two directions of bars: tension steel that is anchored beyond the control section, mm2 per mm of
    // the width of what is loaded and 3d on either side; of the drop and 3d; and by how much its depth
    // differs from d.
    double steel[2] = {0, 0}, dropSteel[2] = {0, 0}, offset[2] = {0, 0};
    double fc = 0, fy = 0;  // cylinder strength; yield strength of the bars
    // A drop that contains what is loaded: its outline, its depth in place of the slab's; empty without.
    geometry::Ring drop;
    double dropH = 0, dropD = 0;
    bool onGround = false;
    // Fixed factors for eccentricity in place of calculated ones, where the standard has them and someone
    // says that their conditions hold.
    bool fixedEccentricity = false;
    // Of the two directions of bars: their angle, degrees; and tension steel right over it, mm2 per mm within
    // `overWidth`, which is what is loaded and 1.5 depths on either side as far as there is slab.
    double directions[2] = {0, 90}, overSteel[2] = {0, 0}, overWidth[2] = {0, 0};
    // As much of a moment by bending as the bars there take and the standard allows.
    bool moreByBending = false;
    bool hasDrop() const { return !drop.empty(); }
    bool operator==(const PunchingPlace&) const = default;
};
// What passes through the section: the resultant V, and its moments V e about the middle of what is loaded:
// its line of action lies at (Mx / V, My / V) from there.
struct PunchingForces {
    double V = 0, Mx = 0, My = 0;
};

enum class Position { Interior, Edge, Corner, ReEntrant, Between };
std::string name(Position position);  // "interior", "edge", "corner", "re-entrant corner", "between edges"

// A section on which stress is compared with strength: a line round the connection with its depth, and what a
// standard worked out of it once for all loads.
struct ControlSection {
    // Face: of the column; Control: beside it; Drop: beyond the drop; Outer: beyond shear steel.
    enum class At { Face, Control, Drop, Outer } at = At::Control;
    punching::Perimeter line;
    Position position = Position::Interior;
    double d = 0, length = 0;  // length: of what counts
    double distance = 0;       // from what is loaded, of a line nearer than the standard's own; else 0
    double reduced = 0;  // of the part that counts where the eccentricity is inwards; 0 without such a rule
    geometry::Point about;  // about which moments count: its centroid
    double axis = 0;        // of the first of two axes there, degrees; the second is 90 further on
    double W[2] = {0, 0};   // first (EN) or second moment (ACI, with depth) for eccentricity along each axis
    double share[2] = {0, 0};   // of the moment that shear carries
    double extent[2] = {0, 0};  // of what is loaded, or of the line, along each axis
    double scale = 1;  // by which `length` is multiplied where eccentricity is that of another section
    std::vector<geometry::Point> corners;  // from `about` along the two axes; where stress is looked for
};

enum class ShearSteel { Links, Studs };

// What shear steel has to keep at a connection.
struct ShearSteelRule {
    bool possible = true;
    std::string ceilingClause, clause, spacingClause, leastClause, word;
    double ceiling = 0;                    // largest stress on the control section
    double perSpacing = 0;                 // steel of one perimeter over its spacing, mm2 per mm
    double firstLeast = 0, firstMost = 0;  // of the first perimeter from the face
    double radial = 0;                     // largest spacing of perimeters
    double tangential = 0,
           tangentialOutside = 0;  // of legs along a perimeter, within `inside` of the face and beyond
    double inside = 0;
    double beyond = 0;          // from the outermost legs to the perimeter that needs none
    double least = 0;           // area of a leg over both spacings; or of a perimeter, see leastPerimeter
    double leastPerimeter = 0;  // steel of a perimeter over its spacing
    int perimeters = 2;         // at least
    double diameterMost = 0;    // of a leg; 0 without such a rule
};

class PunchingRules {
  public:
    virtual ~PunchingRules() = default;
    // How far from what is loaded the control section lies.
    virtual double reach(double d) const = 0;
    // Of a column so long that its ends count alone: how much of either does; 0 where all of it counts.
    virtual double endThatCounts(double /*longer*/, double /*shorter*/, double /*d*/) const { return 0; }
    // The line at this distance from what is loaded, with the openings that count.
    virtual punching::Rule lineAt(double distance, double h, double d) const = 0;
    // The face first where the standard looks there; of Control and Drop each line that might govern.
    virtual std::vector<ControlSection> sections(const PunchingPlace& place) const = 0;
    // Largest shear stress along the section.
    virtual double stress(const PunchingPlace& place, const ControlSection& section,
                          const PunchingForces& forces, trace::Steps* t = nullptr) const = 0;
    // Strength without shear steel; of the face the most there can be at all.
    virtual double strength(const PunchingPlace& place, const ControlSection& section,
                            trace::Steps* t = nullptr) const = 0;
    // Under which conditions fixed factors of eccentricity may stand for calculated ones; empty without such
    // a rule.
    virtual std::string fixedFactors() const { return {}; }
    virtual std::string clause(ControlSection::At at) const = 0;
    virtual std::vector<std::string> notes(const PunchingPlace& place,
                                           const ControlSection& section) const = 0;
    // Steel that a stress on the control section asks for.
    virtual ShearSteelRule steel(const PunchingPlace& place, const ControlSection& control, ShearSteel kind,
                                 double stress, double fyw, trace::Steps* t = nullptr) const = 0;
    // Yield strength of studs that nobody ordered from a list of their own, MPa.
    virtual double stockStudYield() const { return 500; }
    // Strength with steel of this area in each perimeter at this spacing.
    virtual double withSteel(const PunchingPlace& place, const ControlSection& control, ShearSteel kind,
                             double area, double spacing, double fyw, trace::Steps* t = nullptr) const = 0;
    // The section beyond outermost legs, of which `legs` is the hull.
    virtual ControlSection outer(const PunchingPlace& place, const ControlSection& control,
                                 const geometry::Ring& legs) const = 0;
    // Tension steel of one of the two directions right over the column that high shear asks for, mm2 within
    // `overWidth`; 0 where there is no such rule or the shear is not high.
    struct LeastSteel {
        double area = 0;
        std::string clause;
    };
    virtual LeastSteel leastSteel(const PunchingPlace& place, const ControlSection& control,
                                  const PunchingForces& forces, int direction,
                                  trace::Steps* t = nullptr) const = 0;
    // The part of the moment along one of the two directions of bars that passes into a column by bending,
    // and what the bars right over it resist. Empty where there is no such rule.
    struct Bending {
        double share = 0, plain = 0;  // of the moment, gamma_f: as it counts, and without anyone's choice
        double moment = 0, resistance = 0;
        std::string clause;
        double ratio() const { return resistance > 0 ? moment / resistance : moment > 0 ? 99 : 0; }
    };
    virtual Bending bending(const PunchingPlace&, const ControlSection&, const PunchingForces&, int,
                            trace::Steps* = nullptr) const {
        return {};
    }
    // Under which conditions more than the plain share may pass by bending; empty without such a rule.
    virtual std::string bendingFactors() const { return {}; }
};

}  // namespace talvik::standards
