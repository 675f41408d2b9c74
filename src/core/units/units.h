// Units of measurement: what kinds of quantity exist, how each is shown in a unit system, and how typed text
// becomes a value.
//
// Stored values are plain doubles in one consistent set everywhere in the core: N, mm, MPa (N/mm2); loads per
// area in N/mm2, densities in N/mm3, forces per width in N/mm, moments per width in N (N mm per mm), steel
// per width in mm2/mm, mass in kg. Only this room knows other units; the display never changes what is
// stored.
#pragma once

#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace talvik::units {

enum class System { Metric, UsCustomary };

enum class Kind {
    None,            // ratio or plain number
    Length,          // section sizes, bar positions: mm, in
    Span,            // layout lengths: m, ft
    BarSpacing,      // mm, in
    Area,            // mm2, in2
    SteelPerWidth,   // mm2/m, in2/ft
    Force,           // kN, kip
    ForcePerWidth,   // kN/m, kip/ft
    MomentPerWidth,  // kNm/m, kip ft/ft
    Moment,          // kNm, kip ft
    Stress,          // MPa, psi
    ShearStress,     // of concrete: MPa with two decimals, psi
    AreaLoad,        // kN/m2, psf
    Density,         // kN/m3, pcf
    Crack,           // mm with two decimals, in with three
    Sag,             // mm with one decimal, in with two
    Mass,            // kg, lb
    Percent,         // stored as a ratio
    Strain,          // stored as a ratio, shown in 1e-3
    PlanArea,        // m2, ft2
    Subgrade,        // modulus of subgrade reaction: MN/m3, pci
    Stiffness,       // of a spring: kN/mm, kip/in
    Angle,           // degrees, also stored
    Volume,          // m3, ft3
    MassPerVolume,   // kg/m3, lb/ft3
    MassPerArea,     // kg/m2, lb/ft2
    Count
};

// A unit as shown: `symbol` for people, `factor` = stored value of one unit, `decimals` for display.
struct Unit {
    std::string_view symbol;
    double factor;
    int decimals;
};

const Unit& unit(Kind kind, System system);

// Display text of a stored value: fixed decimals, true minus sign never used, "-0" never shown.
std::string number(double stored, Kind kind, System system);
// With so many decimals more than the kind has.
std::string number(double stored, Kind kind, System system, int more);
// The same with its unit symbol, e.g. "220 mm". Kinds without a unit give the number alone.
std::string text(double stored, Kind kind, System system);

// A value from typed text, or the sentence that says what is wrong with it.
struct Parsed {
    std::optional<double> value;
    std::string error;
};

// Evaluates an arithmetic expression: + - * / ^ ( ), min max sqrt abs ln, numbers with exponent, and the
// given symbols (letters, digits, '_', ',', '\''). Used for value fields and to re-evaluate printed formulas.
// Fails with a sentence on syntax errors, unknown symbols, division by zero and non-finite results.
Parsed evaluate(std::string_view expression, const std::map<std::string, double, std::less<>>& symbols = {});

// A stored value from a value field: arithmetic in the displayed unit, or with a unit written behind it
// ("1.1*500/280", "8 in", "0.2 m"). A unit of another kind of quantity is an error.
Parsed parse(std::string_view text, Kind kind, System system);

// Lengths from a spacing list such as "5@6.0 4.5" or "5 @ 6 m, 4.5" (stored mm each). At most `limit`
// entries.
struct ParsedList {
    std::vector<double> values;
    std::string error;  // empty when good
};
ParsedList parseSpacingList(std::string_view text, Kind kind, System system, std::size_t limit = 50);
// The inverse: equal neighbours are gathered, "2@6.00 4.50".
std::string spacingList(const std::vector<double>& stored, Kind kind, System system);

// A stored value as a plain number with at most `significant` digits and no exponent between 1e-6 and 1e9:
// the form in which workings and tables print numbers.
std::string plain(double value, int significant = 6);

// The value rounded to so many significant digits: what a table or file should hold. Independent of the
// locale.
double rounded(double value, int significant);

// Rounds up (down) to a multiple of `step`, forgiving 1e-9 relative noise.
double roundUp(double value, double step);
double roundDown(double value, double step);

}  // namespace talvik::units
