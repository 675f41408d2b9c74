// Catalogues of bars, materials, finishes, imposed uses, bar shapes and parameter sets. All read from data
// files at first use; all plain values. Units: mm, mm2, MPa, N/mm2, N/mm3; masses kg and kg per metre of bar.
#pragma once

#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace talvik::catalogs {

struct Bar {
    std::string name;  // as in call-outs: "H12", "#4"
    double diameter = 0, area = 0, massPerMetre = 0;
};
struct BarCatalog {
    std::string id, title;
    std::vector<Bar> bars;  // ascending by diameter
    const Bar* find(std::string_view name) const;
};
const std::vector<BarCatalog>& barCatalogs();
const BarCatalog* barCatalog(std::string_view id);
// Mass of a metre of bar of `area` mm2 at 7850 kg/m3.
double massPerMetre(double area);

struct ConcreteClass {
    std::string id, family;  // family: "en", "aci-si", "aci-us"
    double strength = 0;     // characteristic cylinder strength
};
struct SteelGrade {
    std::string id, family;
    double yield = 0;
};
struct Finish {
    std::string id;
    double density = 0;
};
struct ImposedUse {
    std::string id, title;
    double load = 0;                      // recommended value
    double psi0 = 0, psi1 = 0, psi2 = 0;  // combination, frequent, quasi-permanent
    double sustained = 0;                 // share taken as sustained where the standard has no psi2
};
// Nominal cover by the place where a slab stands.
struct CoverSet {
    std::string id, family;
    double cover = 0;
};
const std::vector<CoverSet>& coverSets();
// What new projects and elements begin with under a standard: values that are round in its units. mm, N/mm2, N/mm,
// N, N/mm3 as everywhere. Those of the first standard where another has none of its own.
struct StartingValues {
    std::string standard;
    bool usCustomary = false;
    std::string bars, concrete, steel;
    double density = 0, coverTop = 0, coverBottom = 0, coverSide = 0, coverFoundation = 0, aggregate = 0;
    std::vector<std::string> main, secondary, links, foundationBars;
    double spacingLeast = 0, spacingMost = 0, spacingStep = 0, stock = 0, crack = 0;
    std::vector<double> spans;
    double width = 0, thickness = 0, support = 0, imposed = 0;
    double floorSlab = 0, zone = 0, column = 0, wall = 0, beamWidth = 0, beamDepth = 0, storey = 0;
    double areaLoad = 0, lineLoad = 0, pointLoad = 0, footprint = 0;
    double planStep = 0, depthStep = 0, leastDepth = 0, founding = 0, allowable = 0, pile = 0, pileCapacity = 0;
};
const StartingValues& startingValues(std::string_view standard);
// Headed studs welded to a rail, as they can be bought, with any number of studs from the least to the most:
// lengths mm, `height` over the heads, `first` from the end of the rail to its first stud.
struct StudRail {
    std::string name;
    double diameter = 0, height = 0, first = 0, spacing = 0;
    int least = 2, most = 8;
    double yield = 500;
    bool operator==(const StudRail&) const = default;
};
// A list of them from comma-separated text. Its first row names the columns with their units: name, diameter,
// height, first and spacing in mm or in, least studs, most studs, yield in MPa or ksi. A list with a row that cannot be right is
// refused as a whole; `trouble` names rows and columns.
struct StudTable {
    std::vector<StudRail> rails;
    std::vector<std::string> trouble;
};
StudTable readStudRails(std::string_view csv);
// The list that comes with the program. Made up.
const std::vector<StudRail>& studRails();
// The text of a file of data/ that is compiled in.
std::string_view dataText(std::string_view name);
const std::vector<ConcreteClass>& concreteClasses();
const std::vector<SteelGrade>& steelGrades();
const std::vector<Finish>& finishes();
const std::vector<ImposedUse>& imposedUses();
const ImposedUse* imposedUse(std::string_view id);

// A parameter of a standard that a nation or office may set, with its range of sense.
struct Parameter {
    std::string key, clause, meaning;
    double value = 0, low = 0, high = 0;
};
struct ParameterSet {
    std::string id, standard;
    std::vector<Parameter> parameters;
};
const ParameterSet& parameterSet(std::string_view fileName);

// Values by key: a parameter set with a project's own changes laid over it.
using ParameterValues = std::map<std::string, double, std::less<>>;
ParameterValues values(const ParameterSet& set, const ParameterValues& changes = {});

// Bar shapes of BS 8666:2020 / ISO 3766. `dimensions` letters A..E and R, outside to outside, mm.
struct Shape {
    std::string code, dimensions, length;
};
const std::vector<Shape>& shapes();
const Shape* shape(std::string_view code);
// Least internal bend radius, mm, by BS 8666:2020 Table 2: 2d up to 16 mm, 3.5d above in whole millimetres.
double bendRadius(double diameter);
// Cut length before rounding with bends of this inside radius; nullopt for an unknown code.
std::optional<double> cutLength(std::string_view code, double diameter, double radius,
                                const std::map<char, double>& dimensions);

}  // namespace talvik::catalogs
