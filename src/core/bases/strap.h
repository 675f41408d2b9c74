// Strap beams: a pad whose column stands off its middle, held against turning by a beam to a column further
// in.
//
// Readings. The strap and both pads are rigid. Its statics alone decide: the pad presses evenly along the
// strap, its reaction passes through its centre; the base further in loses what the strap lifts. Along the
// strap the beam carries all of it, the pad spans from it to both sides. The strap lies on no ground, its
// weight beyond the pad counts in full. Horizontal forces stay with the base they act on. To the base
// further in each combination comes twice: with all that lifts it and no weight of the strap, and with that
// weight but without imposed loads that would lift it. Units N, mm, MPa.
#pragma once

#include <functional>

#include "bases/context.h"
#include "bases/sink.h"
#include "checks/checks.h"

namespace talvik::bases {

// From the column of the pad to the one further in.
struct StrapLine {
    int axis = 0;         // along x, y
    double way = 1;       // -1 where it goes towards smaller x or y
    double length = 0;    // between the columns
    double farSide = 0;   // of the far column along it
    std::string trouble;  // they are not in one line along an axis
};
StrapLine strapLine(const model::BaseColumn& near, const model::BaseColumn& far);

// Forces on a strap; places from the near column towards the far one. The column brings N and m, which moves
// its resultant towards the far one by m/N; the pad is B long about its centre at e.
struct StrapLoad {
    double N = 0, m = 0, e = 0, B = 0, length = 0;
    double w = 0;            // weight per length beyond the pad
    double weight() const;   // of all of it
    double lifts() const;    // at the far column; negative where it presses there
    double presses() const;  // on the pad, at its centre
    // Sagging positive; from the left.
    double moment(double x) const;
    double shear(double x) const;
};

// What a strap does to the base of its far column.
struct StrapEnd {
    model::Id column;
    std::vector<Forces> actions;  // of the near column
    StrapLine line;
    double e = 0, B = 0, lever = 0, w = 0;  // lever of horizontal forces; weight per length, characteristic
    double lifts(const standards::BaseCombination& k, const std::vector<model::ActionCase>& cases) const;
};

struct StrapBars {
    const catalogs::Bar* bar = nullptr;
    int number = 0;
    double area() const { return bar ? bar->area * number : 0; }
    std::string text() const;  // "4 H20"
};
struct StrapDesign {
    StrapLine line;
    double width = 0, depth = 0;
    // From the near column: where it begins, at the pad's edge (negative), and ends, at the far column's
    // outer face.
    double from = 0, to = 0;
    double under = 0;      // from the underside to its links
    double d[2] = {0, 0};  // of bottom and top bars
    StrapBars bottom, top;
    const catalogs::Bar* link = nullptr;
    int legs = 2;
    double spacing = 0;  // of links
    bool any() const { return width > 0; }
};

class StrapBeam {
  public:
    // Loads of a state in the order of its combinations; `side` of the near column along it.
    struct Loads {
        BaseState state = BaseState::Strength;
        std::vector<StrapLoad> all{};
    };
    StrapBeam(const Context& in, const StrapLine& line, double side, Loads strength, Loads service);
    // Bars for a section; `under`: from the underside to the links. Without bars where none do.
    StrapDesign choose(double width, double depth, double under) const;
    bool carries(const StrapDesign& design) const;
    void checks(const StrapDesign& design, Sink& sink) const;

  private:
    struct Extreme {
        double value = 0, at = 0;
        int in = -1;
    };
    // Moments at both faces (bottom, top) beyond the column's own faces.
    std::array<Extreme, 2> moments(const Loads& loads) const;
    Extreme shear(double d) const;
    standards::Section section(const StrapDesign& design, bool top) const;
    const Context& in_;
    StrapLine line_;
    double side_;
    Loads strength_, service_;
};

}  // namespace talvik::bases
