// The rule facets that a standard implements. A standard sees sections, demands and bars, never a project or
// an analysis. Units throughout: N, mm, MPa; moments and forces are those on the section's width b.
//
// Tracing: every rule takes `trace::Steps*`; null means no working is kept, otherwise steps are appended.
#pragma once

#include <functional>
#include <map>
#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "actions/actions.h"
#include "catalogs/catalogs.h"
#include "checks/finding.h"
#include "standards/base_rules.h"
#include "standards/punching_rules.h"
#include "trace/trace.h"

namespace talvik::standards {

using checks::Finding;
using trace::Steps;

// A rectangular concrete section of width b and depth h, tension steel at depth d, compression steel at d2
// from the compressed face. fc: characteristic cylinder strength (f_ck, f'_c); fy: characteristic yield
// strength.
struct Section {
    double b = 1000, h = 0, d = 0, d2 = 0, fc = 0, fy = 0;
};

// Steel required for a moment. `possible` is false when compression steel cannot reach compression or the
// concrete cannot resist the moment at any depth; the other members are then meaningless.
struct RequiredSteel {
    bool possible = true;
    double As = 0, As2 = 0;  // tension, compression
    double x = 0, z = 0;     // neutral axis depth, lever arm of the concrete force
    bool doubly = false;
    double sigmaS2 = 0;  // stress of the compression steel
};

struct Resistance {
    double M = 0;       // design resistance
    double x = 0;       // neutral axis depth
    double strain = 0;  // of the tension steel
    double phi = 1;     // strength reduction factor where the standard has one
};

class FlexureRules {
  public:
    virtual ~FlexureRules() = default;
    virtual std::string clause() const = 0;
    virtual RequiredSteel required(const Section& s, double M, Steps* t = nullptr) const = 0;
    virtual Resistance resistance(const Section& s, double As, double As2, Steps* t = nullptr) const = 0;
    // Design moment that the section resists uncracked and without bars.
    virtual double plain(const Section& s, Steps* t = nullptr) const = 0;
    // Neutral-axis or strain limit of the section with the steel provided.
    virtual Finding ductility(const Section& s, double As, double As2, Steps* t = nullptr) const = 0;
};

class ShearRules {
  public:
    virtual ~ShearRules() = default;
    virtual std::string clause() const = 0;
    // Design resistance without shear reinforcement, N on b. As: anchored tension steel on b.
    virtual double oneWay(const Section& s, double As, Steps* t = nullptr) const = 0;
    // Share of a concentrated load at a distance a from the face of a support, measured in the clear, that
    // counts for the shear there; 1 where the standard allows no reduction.
    virtual double nearSupport(double a, double d) const = 0;
    virtual std::string nearClause() const = 0;
    // Largest shear that the concrete can take at all, N on b; 0 where the standard names none for slabs.
    virtual double crushing(const Section& s, Steps* t = nullptr) const = 0;
    // With vertical links: `asw` is the area of all their legs on b, per mm along the member, of yield
    // strength fyw. Design resistance, N on b, never above what the concrete takes; less than that without
    // links where they are fewer than the least.
    struct Linked {
        double V = 0;
        double cot = 1;  // of the struts' angle, where the standard lets it vary
    };
    virtual Linked linked(const Section& s, double As, double asw, double fyw, Steps* t = nullptr) const = 0;
    // Least asw where there are links; their spacing along the member at the most under a shear V.
    virtual double leastLinks(const Section& s, double fyw, Steps* t = nullptr) const = 0;
    virtual double linkSpacing(const Section& s, double V, Steps* t = nullptr) const = 0;
    // Of slabs: those thinner than this take no shear reinforcement, mm (0: no such rule); legs across at the most.
    virtual double leastLinkedThickness() const = 0;
    virtual double linkSpacingAcross(const Section& s, double V) const = 0;
    struct LinkClauses {
        std::string resistance, least, spacing, slabs;
    };
    virtual LinkClauses linkClauses() const = 0;
};

enum class SpanSystem { Simple, End, Interior, Cantilever };

struct SlendernessInput {
    Section section;  // at mid-span, or at the support of a cantilever
    SpanSystem system = SpanSystem::Simple;
    double length = 0;                                                  // effective span
    double requiredSteel = 0, compressionSteel = 0, providedSteel = 0;  // on b
    // The panel around: spans one way; carries both ways on beams or walls all round; on columns. Clear
    // spans.
    enum class Panel { OneWay, OnLines, OnColumns } panel = Panel::OneWay;
    double longer = 0, shorter = 0;
    bool exterior = false;  // at least one edge of the panel is discontinuous
    bool edgeBeam = false;  // all discontinuous edges have beams
    bool drop = false;      // drop panels at its columns
    double stiffness =
        99;  // mean ratio of beam to slab stiffness on the edges of a panel on lines; walls: large
    bool softEdge = false;  // a discontinuous edge with a ratio below 0.80
};

struct CrackInput {
    Section section;
    double M = 0;  // service moment on b under the rule's own combination
    double As = 0, diameter = 0, spacing = 0, cover = 0;
    double creep = 0;
    double limit = 0;  // largest crack width asked for
};

// A station of a span for the calculation of sag: moments on b, sagging positive; steel at both faces on b
// with its depth from the top.
struct SagStation {
    double x = 0;
    double mSustained = 0, mTotal = 0, mPermanent = 0,
           mBefore = 0;  // long-term, all, permanent, before partitions
    double asBottom = 0, dBottom = 0, asTop = 0, dTop = 0;
};
struct SagInput {
    Section section;
    std::vector<SagStation> stations;
    double creep = 0, shrinkage = 0;  // shrinkage strain, positive
    bool cantilever = false;
};
// Curvatures per station, positive where the slab sags; integrated by whoever knows the supports.
struct Curvatures {
    std::vector<double> total, after,
        live;  // long-term; after partitions; immediate, imposed alone (may be empty)
    std::vector<std::string> notes;
};
struct SagLimit {
    enum class Which { Total, After, Live } which;
    double spanOver;  // limit = span / spanOver
    std::string clause, title;
};

// A panel of a floor, for its first thickness. Clear spans; `system` is that of the span that governs.
struct PanelInput {
    enum class Kind { OneWay, OnLines, OnColumns } kind = Kind::OnColumns;
    SpanSystem system = SpanSystem::Interior;
    double shorter = 0, longer = 0;
    bool edgeBeam = false, drop = false;
    double toSteel = 0;     // from the face to the centre of the main bars
    double stiffness = 99;  // as in SlendernessInput
    bool softEdge = false;
    Section section;  // materials
};

// Cracks of sections in tension.
class CrackRules {
  public:
    virtual ~CrackRules() = default;
    // The limit state whose moments `check` wants.
    virtual actions::LimitState state() const = 0;
    // Crack width, or the bar spacing that stands for it.
    virtual Finding check(const CrackInput& in, Steps* t = nullptr) const = 0;
    // Least steel on a face in tension by which cracks stay within the limit when the section first cracks; 0
    // where the standard asks for none. Bars of the given diameter.
    virtual double leastSteel(const Section& s, double diameter, double limit, Steps* t = nullptr) const = 0;
    virtual std::string leastSteelClause() const = 0;
};

// Span-to-depth ratio or least thickness.
class SlendernessRules {
  public:
    virtual ~SlendernessRules() = default;
    virtual std::string clause() const = 0;
    virtual Finding check(const SlendernessInput& in, Steps* t = nullptr) const = 0;
    // Overall depth to start from. `toSteel`: from the face to the centre of the main bars.
    virtual double firstThickness(SpanSystem system, double length, double toSteel, const Section& s,
                                  Steps* t = nullptr) const = 0;
    // The same for a panel that may carry both ways.
    virtual double panelThickness(const PanelInput& in, Steps* t = nullptr) const = 0;
};

// Of a place of a plate in one direction, on the section's width: curvature per moment (1/(N mm2)) with the
// cracks of the moment `mTotal` of its station, and the curvature of shrinkage there.
struct SagPlace {
    double gross = 0;      // at once, uncracked
    double cracked = 0;    // at once
    double lasting = 0;    // of what stays: with creep; where the standard says so, that which comes besides
    double shrinkage = 0;  // 1/mm, sagging positive
    double before = 0;     // at once, of what acts before partitions, or of permanent loads alone
};

// Computed sag.
class SagRules {
  public:
    virtual ~SagRules() = default;
    // By which a computed sag within its limits stands in for span-to-depth.
    virtual std::string clause() const = 0;
    virtual actions::LimitState sustainedState() const { return actions::LimitState::QuasiPermanent; }
    virtual Curvatures curvatures(const SagInput& in, Steps* t = nullptr) const = 0;
    // Moments of the station: `mTotal` the largest that acts before, `mSustained`, and in `mBefore` what acts
    // before partitions (or `mPermanent`). Steel of both faces and depths as there.
    virtual SagPlace place(const Section& s, const SagStation& at, double creep, double shrinkage) const = 0;
    // Whether `lasting` comes beside the sag at once of all loads (ACI 318), or is all there is (EN
    // 1992-1-1).
    virtual bool lastingBesides() const = 0;
    virtual std::vector<SagLimit> limits() const = 0;
    // Clause by which a slab as thick as the standard's table asks needs no computed sag where it supports nothing
    // that large deflections damage; empty without such a rule.
    virtual std::string sparedBy(bool /*twoWay*/) const { return {}; }
    // What formwork may be raised by, as a part of the span: span over this, with the clause.
    virtual std::pair<double, std::string> camber() const { return {250, "office practice"}; }
};

struct AnchorageInput {
    double diameter = 0, area = 0;
    double fc = 0, fy = 0;
    double stress = 0;      // design stress of the bar at the section (EN); ACI develops fy times stress/f_yd
    double cd = 0;          // least of half the clear spacing and the cover, to the bar's surface
    bool good = true;       // good bond; false for top bars with more than the standard's depth below
    bool hooked = false;    // standard 90 degree hook or bend
    double spacing = 0;     // centre to centre
    double lapShare = 100;  // per cent of bars lapped at one place
};

// Bottom bars at a simple support. V: shear at the face, on the section's width; lengths beyond the face and
// beyond the support's centre line up to the bar's end or the outside of its hook.
struct EndAnchorageInput {
    Section section;
    double V = 0, As = 0;
    AnchorageInput bar;
    double beyondFace = 0, beyondCentre = 0;
};

// How much steel, and how far apart.
class SteelRules {
  public:
    virtual ~SteelRules() = default;
    virtual double minimum(const Section& s, Steps* t = nullptr) const = 0;
    // Of beams.
    virtual double beamMinimum(const Section& s, Steps* t = nullptr) const = 0;
    virtual std::string beamClause() const = 0;
    virtual double maximum(const Section& s, Steps* t = nullptr) const = 0;
    // TwoWay: main bars of slabs that carry both ways.
    enum class Role { Main, Secondary, TwoWay };
    virtual double spacing(Role role, bool peak, double h, Steps* t = nullptr) const = 0;
    virtual double clear(double diameter, double aggregate, Steps* t = nullptr) const = 0;
    // Distribution steel across main steel of one-way slabs.
    virtual double secondary(double mainSteel, const Section& s, Steps* t = nullptr) const = 0;
    struct Clauses {
        std::string minimum, maximum, spacing, clear, secondary;
    };
    virtual Clauses clauses(bool twoWay) const = 0;
};

// Anchorage, laps and bends of bars.
class AnchorageRules {
  public:
    virtual ~AnchorageRules() = default;
    virtual double length(const AnchorageInput& in, Steps* t = nullptr) const = 0;
    virtual double lap(const AnchorageInput& in, Steps* t = nullptr) const = 0;
    // Whether bars with this much concrete cast below them are in good bond conditions.
    virtual bool goodBond(double concreteBelow) const = 0;
    // Design yield stress of reinforcement.
    virtual double designYield(double fy) const = 0;
    // Anchorage of the span's bottom steel at a support taken as simple.
    virtual Finding atEnd(const EndAnchorageInput& in, Steps* t = nullptr) const = 0;
    // Straight tail behind a 90 degree bend, from the end of the bend; least inside radius of bends.
    virtual double hookTail(double diameter) const = 0;
    virtual double bendRadius(double diameter) const = 0;
    virtual std::string bendClause() const = 0;
    virtual std::string clause(bool twoWay) const = 0;
    virtual std::string lapClause() const = 0;
};

// Where bars may end, and what goes on over supports.
class BarEndRules {
  public:
    virtual ~BarEndRules() = default;
    // By how much the moment diagram is moved outwards for curtailment.
    virtual double momentShift(double d, double diameter) const = 0;
    // Least reach of top bars past the point where the hogging moment ends.
    virtual double topReach(double clearSpan, double d, double diameter) const = 0;
    // Bottom bars that go on over a support: the share of the span's steel, the length past the face, and how
    // many bars pass through an inner column at least.
    struct Through {
        double share = 0, beyond = 0;
        int bars = 0;
        std::string clause, barsClause;
    };
    enum class Over { EndSupport, Support, ColumnStrip, MiddleStrip };  // the last two of slabs on columns
    virtual Through through(Over over, double diameter, Steps* t = nullptr) const = 0;
    virtual std::string clause(bool twoWay) const = 0;
};

// Moments over supports that the analysis does not give.
class SupportRules {
  public:
    virtual ~SupportRules() = default;
    // Share of the largest span moment that top steel at a simple end resists.
    virtual double endFixity() const = 0;
    virtual std::string endTopClause() const = 0;
    // By how much hogging on the axis of a support on which the slab is free to turn may be rounded off: R is
    // the reaction and t the breadth of the support.
    virtual double roundedOff(double R, double t) const = 0;
    // Least face moment for a support where the span's full fixed-end moment is `fixedEnd` (0 where no rule).
    virtual double momentFloor(double fixedEnd) const = 0;
};

class ActionRules {
  public:
    virtual ~ActionRules() = default;
    virtual std::vector<actions::Combination> combinations(const catalogs::ImposedUse& use) const = 0;
    // Approximate moments of continuous one-way slabs.
    struct Coefficients {
        std::string source;                 // clause or table
        std::string refusal;                // why not; empty when the conditions hold
        std::vector<double> span, support;  // on w l^2, per span and per support; NaN where there is none
        bool onClearSpan = false;           // l is the clear span, for supports the mean of the two beside it
        std::string note;
    };
    struct Spans {
        std::vector<double> lengths;  // between supports, axis to axis
        std::vector<double> clear;
        bool cantileverStart = false, cantileverEnd = false;
        double permanent = 0, imposed = 0;  // unfactored, per area
        double area = 0;                    // of a bay
        bool edgeBeams = true;              // end supports are beams cast with the slab
    };
    virtual Coefficients coefficients(const Spans& spans) const = 0;
    // Factor on the imposed load of a member that carries `area` (mm2); with the reason where it is 1.
    struct AreaReduction {
        double factor = 1;
        std::string clause, note;
    };
    // `actual`: the largest load per area that stands on it, unfactored; 0 takes the use's own.
    virtual AreaReduction areaReduction(const catalogs::ImposedUse& use, double area, double actual = 0,
                                        Steps* t = nullptr) const = 0;
    // Factors for the equilibrium of a support that may lift: on permanent loads that hold, that lift, and on
    // imposed.
    struct Equilibrium {
        double holds = 0.9, lifts = 1.1, imposed = 1.5;
        std::string clause;
    };
    virtual Equilibrium equilibrium() const = 0;
    // Whether imposed loads have to stand on panels in turn, and the share of them that counts then.
    // `twoWay`: at least one panel carries both ways; `imposedOverPermanent`: unfactored, the largest of all
    // panels.
    struct Pattern {
        bool waived = false;
        double share = 1;
        std::string word;  // a sentence with the clause
    };
    virtual Pattern pattern(bool twoWay, const std::function<double()>& imposedOverPermanent) const = 0;
    // Factor of an imposed action that accompanies another, leading one, in a combination of this list.
    virtual double accompanying(const actions::Combination& leading,
                                const catalogs::ImposedUse& use) const = 0;
    // Combinations in which a wind or an accidental action takes part, with factors in the order of `kinds`;
    // those without stand in `combinations`. Ultimate, characteristic and frequent. Where permanent actions
    // have their least factor no imposed action stands beside the wind.
    struct Stated {
        actions::LimitState state;
        actions::FactorSet set;
    };
    virtual std::vector<Stated> windAndAccidental(const std::vector<actions::ActionKind>& kinds) const = 0;
};

// What design strips of two-way slabs take from the standard.
class StripRules {
  public:
    virtual ~StripRules() = default;
    // Width of a column strip on one side of its line of columns, from the span along it and the distance to
    // the next line (twice that to a free edge).
    virtual double columnStripHalf(double span, double across) const = 0;
    virtual std::string columnStripClause() const = 0;
    // Where top steel is concentrated over an inner column: the width, the share of the steel for the whole
    // panel's width that lies in it, or the share of the unbalanced moment that the width resists.
    struct Peak {
        double width = 0, steelShare = 0, momentShare = 0;
        std::string clause;
    };
    // `panels`: sum of half the panel widths on either side; c1, c2: column along the strip and across; h:
    // slab.
    virtual Peak peak(double panels, double c1, double c2, double h, double d, Steps* t = nullptr) const = 0;
    // How a moment passes from the slab into an edge or corner column: the width of slab that resists it, the
    // share that this width has to resist by bars across the edge, and the largest moment that can pass (0:
    // no such ceiling).
    struct Transfer {
        double width = 0, share = 1, most = 0;
        std::string clause, mostClause;
    };
    // c1: column across the edge, along the bars; c2: along the edge; toEdge: from the edge to the column's
    // inner face, along the bars; sides: slab beside the column's two faces along the edge, up to where it
    // ends.
    struct TransferInput {
        bool corner = false;
        double c1 = 0, c2 = 0, toEdge = 0, sides[2] = {0, 0};
        Section section;
    };
    virtual Transfer transfer(const TransferInput& in, Steps* t = nullptr) const = 0;
    // Top steel right over a column that a high shear V around it asks for, mm2 per mm within `width`; nought
    // without such a rule, or where the shear is not high. `edges`: of the slab that the column stands at.
    struct UnderShear {
        double steel = 0, width = 0;
        std::string clause;
    };
    virtual UnderShear underShear(double /*V*/, double /*c1*/, double /*c2*/, int /*edges*/,
                                  const Section& /*s*/) const {
        return {};
    }
    // Whether a share may be taken off the hogging moment of a section with this steel.
    virtual Finding redistribution(const Section& s, double As, double share, Steps* t = nullptr) const = 0;
};

// What the analysis of a floor takes from the standard.
class StiffnessRules {
  public:
    virtual ~StiffnessRules() = default;
    // Short-term modulus of elasticity of concrete of characteristic strength fc, normal weight.
    virtual double modulus(double fc) const = 0;
    // Width of the slab that acts as flange on one side of a beam. `toNext`: from the beam's face to the next
    // beam's, or to the slab's edge where `edge`; `zeroMoment`: between points of zero moment; `clear`: clear
    // span of the beam; `otherSide`: there is slab on the other side of the beam too.
    struct Flange {
        double toNext = 0, zeroMoment = 0, clear = 0, slabThickness = 0;
        bool edge = false, otherSide = true;
    };
    virtual double flange(const Flange& f) const = 0;
    virtual std::string flangeClause() const = 0;
    virtual std::string modulusClause() const = 0;
};

// Something a reviewer might expect to find checked, and why it is not: from the list of coverage of the
// standard.
struct Omission {
    std::string key, title, clause, reason;
    bool slabs = true, floors = true;  // of one-way slabs, of floors
    bool beams = false;                // of floors with beams alone
    bool bases = false;                // of bases alone
};

// On what the characteristic strength of concrete is measured.
enum class StrengthBasis { Cylinder, Cube };

// Everything of one standard. Immutable; facets live as long as the standard does. A facet that a standard
// has none of is null, and `without` says why; what would ask it is then not checked, with that reason.
struct Standard {
    std::string id, title, edition, family;  // family: of materials, see catalogues
    std::string parameterFile;
    units::System nativeUnits = units::System::Metric;
    StrengthBasis strengthBasis = StrengthBasis::Cylinder;
    std::unique_ptr<const FlexureRules> flexure;
    std::unique_ptr<const ShearRules> shear;
    std::unique_ptr<const CrackRules> cracks;
    std::unique_ptr<const SlendernessRules> slenderness;
    std::unique_ptr<const SagRules> sag;
    std::unique_ptr<const SteelRules> steel;
    std::unique_ptr<const AnchorageRules> anchorage;
    std::unique_ptr<const BarEndRules> barEnds;
    std::unique_ptr<const SupportRules> supports;
    std::unique_ptr<const ActionRules> actions;
    std::unique_ptr<const StiffnessRules> stiffness;
    std::unique_ptr<const StripRules> strips;
    std::unique_ptr<const PunchingRules> punching;
    std::unique_ptr<const BaseRules> bases;
    std::map<std::string, std::string> without;  // facet -> why there is none
    std::vector<Omission> omissions;             // what this program does not check by it
};
// Calls f(name, pointer) for every facet, in the order above.
template <class F>
void forEachFacet(const Standard& s, F f) {
    f("flexure", s.flexure.get());
    f("shear", s.shear.get());
    f("cracks", s.cracks.get());
    f("slenderness", s.slenderness.get());
    f("sag", s.sag.get());
    f("steel", s.steel.get());
    f("anchorage", s.anchorage.get());
    f("barEnds", s.barEnds.get());
    f("supports", s.supports.get());
    f("actions", s.actions.get());
    f("stiffness", s.stiffness.get());
    f("strips", s.strips.get());
    f("punching", s.punching.get());
    f("bases", s.bases.get());
}

// Ids of the standards there are, in the order shown.
const std::vector<std::string>& standardIds();
std::string standardTitle(std::string_view id);
// A standard with its parameters; changes are laid over the recommended values. Null for an unknown id.
std::shared_ptr<const Standard> makeStandard(std::string_view id,
                                             const catalogs::ParameterValues& changes = {});

}  // namespace talvik::standards
