// The long section of a line as data: the concrete with its supports and bars, and below it, on the same
// axis, rows of curves with figures. Window, report and sheet draw it.
#pragma once

#include "design/design.h"
#include "drawing/drawing.h"

namespace talvik::drawing {

struct LongSection {
    double from = 0, to = 0;  // of the concrete, mm along the line
    struct Held {
        model::Id id;
        std::string name;
        double u = 0, from = 0, to = 0;
        bool hinted = false;  // stands beside the line
        bool wall = false;
    };
    struct Span {
        model::Id id;
        double from = 0, to = 0;
        model::EndCondition ends[2];
        bool overruled[2];
    };
    // Bars along the line.
    struct Bar {
        model::Id id;
        std::string callout, brief;
        double from = 0, to = 0;
        bool top = false, band = false, fixed = false, hookStart = false, hookEnd = false;
        int turn = 0;         // counts those that lie alike, from the first on
        double fromFace = 0;  // from the face to the middle of the bars, mm
    };
    // Bars across it, seen as dots.
    struct Across {
        model::Id id;
        bool top = false;
        double from = 0, to = 0, spacing = 0, fromFace = 0;
    };
    // Legs of links.
    struct Legs {
        double from = 0, to = 0, along = 0;
        std::string text;  // "H8 175 × 200"
    };
    std::vector<Legs> legs;
    std::vector<Held> supports;
    std::vector<Span> spans;
    std::vector<Bar> bars;
    std::vector<Across> across;

    // Values upwards, in stored units: hogging and shear up, sagging and sag down.
    enum class Style { Demand, Moved, Resistance, Required, Limit };
    struct Curve {
        std::vector<Point> points;  // u, value
        Style style = Style::Demand;
        bool over = false, washed = false;  // the ground between the curve and the axis
    };
    struct Figure {
        Point at;
        std::string text;
        bool over = false, above = true, marked = false;  // with a dot
    };
    struct Row {
        std::string title, how;    // "shear, kN/m", "resistance broken"
        double share = 1;          // of the height
        int rank = 0;              // which goes first where there is little room: the largest
        double low = 0, high = 0;  // of what is shown
        std::vector<Curve> curves;
        std::vector<std::vector<Point>> gaps;  // asked for and not there
        std::vector<Figure> pillars;           // from the axis to the value
        std::vector<Figure> figures;
    };
    std::vector<Row> rows;
};

LongSection longSection(const design::LineAnswer& line, const model::Basis& basis,
                        const schedule::Marks& marks);
// The same as a figure for the report, `width` mm wide: moments and sag.
Sheet lineFigure(const LongSection& section, const std::string& title, double width);
// What is asked and what is there at the station nearest to u, per width.
std::string readingAt(const design::LineAnswer& line, double u, units::System system);

}  // namespace talvik::drawing
