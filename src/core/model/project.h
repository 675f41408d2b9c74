// The project: a value. Edits make a new one that shares the unchanged slabs; undo keeps the old ones.
// Units N, mm, MPa as everywhere in the core. Ids are identities, written "s1", "b12", and never reused.
#pragma once

#include <map>
#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "catalogs/catalogs.h"
#include "model/bar_run.h"
#include "model/bases.h"
#include "model/floor.h"
#include "units/units.h"

namespace talvik::model {

// Concrete and steel of one kind of member.
struct Material {
    std::string concrete = "C30/37";
    double strength = 30, density = 25e-6;
    double modulus = 0;  // MPa; 0: by the standard
    double creep = 2.0, shrinkage = 400e-6;
    std::string steel = "B500B";
    double yield = 500;
    bool operator==(const Material&) const = default;
};
// Prices and embodied carbon, for comparing: never needed to design. Money in the currency named.
struct Rates {
    std::string currency = "EUR";
    struct Rate {
        double price = 0, carbon = 0;  // per unit; kg CO2e per unit
        bool operator==(const Rate&) const = default;
    };
    Rate concrete{130, 265};  // m3
    Rate steel{1.6, 1.2};     // kg
    Rate formwork{48, 5};     // m2
    Rate blinding{95, 160};   // m3
    Rate excavation{22, 6};   // m3
    Rate pile{90, 75};        // m
    Rate mark{15, 0};         // of bars: drawing, bending and sorting one more kind
    Rate piece{0.5, 0};       // of bars: placing one more
    Rate stronger{1.2, 2.5};  // m3 and MPa of strength by which concrete is stronger
    bool operator==(const Rates&) const = default;
};
// Where a governing value comes from, and what it was before.
struct Source {
    enum class Kind { Assumed, Investigation, Client, Standard } kind = Kind::Assumed;
    std::string note;
    struct Change {
        double from = 0, to = 0;    // stored units
        bool afterFailure = false;  // made while a check was over its limit
        bool operator==(const Change&) const = default;
    };
    std::vector<Change> history;
    bool operator==(const Source&) const = default;
};

// What all members share: standard, materials, bars, covers. The single values of concrete and steel are
// those of slabs; the other kinds have their own.
struct Basis {
    std::string standard = "en1992";
    units::System units = units::System::Metric;
    catalogs::ParameterValues parameters;  // changes to the standard's recommended values, for that standard
    std::string concrete = "C30/37";
    double concreteStrength = 30, concreteDensity = 25e-6;
    std::string steel = "B500B";
    double steelYield = 500;
    double aggregate = 20;
    double creep = 2.0, shrinkage = 400e-6;
    double coverTop = 25, coverBottom = 25, coverSide = 35;
    double crackLimitTop = 0.3, crackLimitBottom = 0.3;
    std::string barCatalog = "metric";
    std::vector<std::string> mainBars{"H10", "H12", "H16", "H20"}, secondaryBars{"H8", "H10", "H12"},
        linkBars{"H8", "H10"};
    Material beam, column, foundation, pileCap;
    double coverFoundation = 50;                 // cast on blinding
    double sagLimit = 250, sagLimitAfter = 500;  // of floors: span over the sag; after partitions
    bool minimumSteel = true;                    // of floors; a warning stands wherever it is off
    // Studs on rails that can be bought, and the name of the list they come from. Empty: the list that comes
    // with the program.
    std::string studTable;
    std::vector<catalogs::StudRail> studRails;
    // Shear reinforcement of connections at which nobody chose any, where concrete alone does not carry.
    ConnectionChoice::Steel shearSteel = ConnectionChoice::Steel::None;
    Rates rates;
    double spacingLeast = 100, spacingMost = 300, spacingStep = 25;
    double stockLength = 12000;
    double lengthStep = 0;  // in which bars are cut at skew and round edges, mm; 0: by the program
    bool operator==(const Basis&) const = default;
};

const std::vector<catalogs::StudRail>& studRails(const Basis& basis);
std::string studTable(const Basis& basis);  // its name
// The largest diameter that the basis allows for main bars, mm.
double largestBar(const Basis& basis);

struct Support {
    Id id;
    enum class Kind { Beam, Wall } kind = Kind::Beam;
    double width = 300;
    bool monolithic = true;  // cast with the slab: moments count at its face
    bool operator==(const Support&) const = default;
};
struct Span {
    Id id;
    double length = 0;  // axis to axis; a cantilever from the axis to its tip
    bool operator==(const Span&) const = default;
};

// A one-way slab spanning along x over parallel line supports; x runs from the first support's axis, or from
// the tip of a cantilever before it. The width runs along y.
struct OneWaySlab {
    Id id;
    std::string name;
    int members = 1;  // that are alike and built from this one's bars and drawings
    double width = 6000, thickness = 200;
    bool thicknessPinned = false;
    std::vector<Span> spans;  // left to right, cantilevers included
    bool cantileverStart = false, cantileverEnd = false;
    std::vector<Support> supports;  // left to right: spans - cantilevers + 1
    std::vector<Finish> finishes;
    double otherDead = 0;
    std::string imposedUse = "B";
    double imposed = 3e-3;
    std::vector<BarRun> bars;  // fixed by someone
    bool shearLinks = true;    // where concrete alone does not carry the shear
    bool operator==(const OneWaySlab&) const = default;
};

// Paper of drawings, longer side first, mm.
struct Paper {
    const char* name;
    double width, height;
};
const std::vector<Paper>& papers();  // from the smallest
const Paper* paperSize(std::string_view name);

struct IssueSheet {
    std::string number = "01", revision = "A", date, author, note;
    std::string paper;      // "A3" to "A0"; empty: chosen to fit
    double scale = 0;       // of plans, 1:scale; 0: chosen to fit
    double north = 90;      // its direction in plan, degrees from the x axis
    bool everyBar = false;  // plans show every bar, not one of each run
    bool operator==(const IssueSheet&) const = default;
};

// What left the office under a letter, so that what changed since is known.
struct Revision {
    std::string letter, date, author, note;
    std::map<std::string, int> bars;           // in each member, by element and what a bar is
    std::map<std::string, std::string> calls;  // call-outs, by element, part and run
    bool operator==(const Revision&) const = default;
};

struct Project {
    std::string name;
    Basis basis;
    std::vector<std::shared_ptr<const OneWaySlab>> slabs;
    std::vector<std::shared_ptr<const Floor>> floors;
    std::vector<std::shared_ptr<const BaseSet>> bases;
    IssueSheet sheet;
    std::map<std::string, int> marks;       // given out so far: what a bar is -> its mark; see schedule
    std::map<std::string, Source> sources;  // of governing values, by their key; see model/sources.h
    std::vector<std::shared_ptr<const Revision>> revisions;  // as they were fixed, the last one last
    int nextId = 1;
};
bool operator==(const Project& a, const Project& b);

Id newId(Project& project, char prefix);
const OneWaySlab* findSlab(const Project& project, std::string_view id);
const Floor* findFloor(const Project& project, std::string_view id);
const BaseSet* findBases(const Project& project, std::string_view id);

// Geometry derived from a slab.
double length(const OneWaySlab& slab);                       // sum of spans
double spanStart(const OneWaySlab& slab, std::size_t span);  // x of the span's left end
double axis(const OneWaySlab& slab, std::size_t support);    // x of the support
double concreteStart(const OneWaySlab& slab);  // x where the concrete begins (outer face or tip)
double concreteEnd(const OneWaySlab& slab);
bool isCantilever(const OneWaySlab& slab, std::size_t span);
// Supports at the ends of a span; -1 at a cantilever's tip.
int supportBefore(const OneWaySlab& slab, std::size_t span);
int supportAfter(const OneWaySlab& slab, std::size_t span);
double clearSpan(const OneWaySlab& slab, std::size_t span);
double faceBefore(const OneWaySlab& slab, std::size_t span);  // x of the face bounding the span on its left
double faceAfter(const OneWaySlab& slab, std::size_t span);
std::string supportLabel(const OneWaySlab& slab, std::size_t support);  // "A", "B", ...
std::string spanLabel(const OneWaySlab& slab, std::size_t span);        // "A–B", "F–end"

// Trouble with its place: a path into the project ("slabs[0].spans[2].length") and a sentence.
struct Diagnostic {
    std::string path, message;
};
// Everything that makes a project impossible to analyse; empty when good.
std::vector<Diagnostic> validate(const Project& project);

}  // namespace talvik::model
