// The checks of a line, whatever it is a line of: from what is asked along it and the bars provided.
#pragma once

#include <functional>

#include "bars/steel.h"
#include "verify/check_list.h"
#include "verify/support_checks.h"

namespace talvik::verify {

// Legs of vertical links over a stretch of a line, on all of its width: where concrete alone does not carry the shear.
struct LinkZone {
    double from = 0, to = 0;
    std::string bar;
    double diameter = 0, along = 0, across = 0;  // between legs
    double steel() const;                        // area of legs, mm2 per mm2 of plan
    bool operator==(const LinkZone&) const = default;
};

// Bars of a line, and what they resist at its stations.
struct LineDesign {
    std::vector<bars::Run> runs;
    std::vector<LinkZone> links;
    // Moments on the station's width: demand moved outwards, resistance of the bars as anchored there. Steel
    // per mm of width: what the moment asks, and what is there.
    struct Curve {
        std::vector<double> shifted, resistance, required, provided;
    } top, bottom;
    std::vector<double> shearResistance;  // on the width
    std::vector<char> atEdge;             // stations where the ends of bars are not judged
    const Curve& curve(bool ofTop) const { return ofTop ? top : bottom; }
};
void fillCurves(LineDesign& design, const line::View& view, const line::LineBasis& in);

// What the checks of a line need besides: where it is, and what only its kind knows. Refers to the rest,
// which must outlive it.
struct LineCase {
    line::View view;
    const LineDesign& design;
    const line::LineBasis& in;
    model::PartRef part;
    std::function<std::string(std::uint16_t by)> combination;
    std::function<std::optional<geometry::Point>(double u)> plan = [](double) { return std::nullopt; };
    bool unitWidth =
        false;  // values per width are those asked for; no step says how they came from the width
    struct SpanRules {
        // From where to where one-way shear is checked.
        double shearFrom = 0, shearTo = 0;
        standards::SlendernessInput slender;  // the panel around
        std::string slendernessElsewhere;     // why another line decides; empty where this one does
        bool sagWithin = false;               // the computed sag is within all its limits
    };
    std::vector<SpanRules> spans{};
    std::vector<standards::BarEndRules::Over> over{};      // per support
    std::vector<int> barsThrough{};  // bottom bars that lie within each support's breadth; none: by their spacing
    std::vector<std::vector<std::string>> supportNotes{};  // with the top over each
    std::vector<std::string> notes{};                      // with every check of flexure
    std::string shearNote{}, endsNote{};  // with checks of shear; where bar ends are not judged somewhere
};
// Flexure, bars, cracks and bar ends of both faces, one-way shear, span to depth, bottom bars at supports; in
// the order of spans, then of supports. No working is kept unless `tracing`.
void checkLine(const LineCase& of, CheckList& list, bool tracing);

// Puts the least links into a design where concrete alone does not carry the shear, on stretches that reach
// an effective depth beyond, and its resistance with them; none where no links do (the slab too thin, the
// struts crushed). `of` is the case of this design, which has no links yet.
void addLinks(LineDesign& design, const LineCase& of);
const LinkZone* linksAt(const LineDesign& design, double u);  // null without
// Shear that a section carries, N on its breadth: by concrete alone, or with these links where that is more;
// struts no flatter than the shift of the tension by an effective depth, by which bars are curtailed, allows.
double shearResistance(const standards::ShearRules& rules, const standards::Section& section, double As,
                       const LinkZone* links, double yield, trace::Steps* t = nullptr);

// A place on a line: over a support, in a span, or the whole.
checks::Place supportPlace(const LineCase& of, std::size_t support);
checks::Place spanPlace(const LineCase& of, std::size_t span);
checks::Place at(const LineCase& of, checks::Place place, double u);

}  // namespace talvik::verify
