// Design strips: how the slabs of a floor are divided, in two directions, into strips that follow lines of
// supports. Plan mm. A strip has axes of its own: u along it, v to its left, both from the plan's origin.
#pragma once

#include <array>
#include <functional>

#include "line/line.h"
#include "model/floor.h"

namespace talvik::strips {

using geometry::Point;
using geometry::Ring;
using geometry::Segment;
using line::Span;
using line::Station;
using line::Support;
using model::EndCondition;
using model::Id;

// The axes of a direction.
struct Axes {
    double angle = 0, c = 1, s = 0;  // degrees; cosine and sine
    explicit Axes(double degrees = 0);
    Point local(Point p) const { return {p.x * c + p.y * s, p.y * c - p.x * s}; }  // (u, v)
    Point plan(Point l) const { return {l.x * c - l.y * s, l.x * s + l.y * c}; }
};

// A strip is a line with an area.
struct Strip : line::Line {
    // Column: along a line of supports; Middle: between two of them; Full: from half-way to half-way; Whole:
    // no line of supports runs along it; Drawn: by hand.
    enum class Kind { Column, Middle, Full, Whole, Drawn } kind = Kind::Full;
    std::string key;   // stays while its supports stay: "1/c3/column"
    std::string name;  // "X2", "X2-3"
    Id within{};       // the area with directions of its own in which it lies; empty for none
    int direction = 0;
    Axes axes;
    double otherAngle = 90;   // of the bars that cross its own
    std::vector<Ring> parts;  // plan, anticlockwise
    std::vector<Point> axis;  // plan, along u ascending
    double axisFrom = 0,
           axisTo = 0;  // on the axis: shorter than `from`, `to` of its parts where its ends are askew
    Id line;            // for Column, Middle, Full: the line it follows, a middle strip that to its right
    Id lineLeft;        // of a middle strip: that to its left
    double toNext[2] = {0, 0};  // right and left: to the neighbouring line, or to the slab's edge
    bool edge[2] = {false, false};
    bool onLines = false;                          // held by walls and beams that cross it, not by columns
    bool alongBeam = false, alongWall = false;     // on at least a part of its length
    std::vector<std::pair<double, double>> walls;  // u from and to of walls and line supports along its axis
    bool changed = false;                          // an edge was moved by hand
    double area() const;
    double v(double u) const;  // of its axis
};

struct Patch {
    double area = 0;
    Point at;
    std::vector<Ring> parts;
    std::string between;  // for an overlap: names of the strips
};
// Slab in no strip, slab in two strips; of one direction.
struct Coverage {
    double whole = 0, uncovered = 0, overlapped = 0;
    std::vector<Patch> gaps, overlaps;
};

// A line of supports of one direction.
struct SupportLine {
    Id id;                      // of the first of its supports by number
    std::string label;          // of the grid line it follows, else its number
    std::vector<Point> points;  // local to its direction, u ascending; with the extensions at both ends
};

struct StripLayout {
    std::vector<Strip> strips;  // direction by direction, from right to left (v ascending)
    std::array<Coverage, 2> coverage;
    std::array<std::vector<SupportLine>, 2> lines;
    std::array<double, 2> angle{0, 90};
    const Strip* find(std::string_view key) const;
};

// Width of a column strip on one side of its line, by the standard: from the span along the strip and the
// distance to the next line (or twice that to the edge).
using ColumnStripHalf = std::function<double(double span, double across)>;
// A quarter of the shorter of the two (EN 1992-1-1 Annex I, Figure I.1; ACI 318-19 8.4.1.5).
double quarterOfShorter(double span, double across);

// The strips of a floor that is valid (model::validateFloor). Lines of supports join columns, piles, walls,
// beams and line supports that follow each other within about 20 degrees of the direction. The area between
// two lines is divided half-way for full strips; for column and middle strips by `half`, span by span. Where
// the supports of a line are walls, or beams on no columns, that cross it, strips are full width. Slab that no line of
// supports reaches goes to the nearest one. Strips drawn by hand are taken off the others; what someone moved
// or decided (floor.strips) is kept while the supports it hangs on are there.
StripLayout layStrips(const model::Floor& floor, const ColumnStripHalf& half = quarterOfShorter);

// Whether two floors have the same strips without looking: all that layStrips reads is equal.
bool sameLayout(const model::Floor& a, const model::Floor& b);

// Whether the bar in the bottom corner of the U-bars along the slab's edge, on the side of a strip, passes through one
// of its columns.
bool edgeBarThrough(const Strip& strip, std::size_t support);
// Whether a support is a column without beams between two spans of the strip.
bool innerColumn(const Strip& strip, std::size_t support);

// Name of a direction: "X", "Y".
const char* directionName(int direction);

}  // namespace talvik::strips
