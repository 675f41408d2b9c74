// A part seen along an axis: supports, spans, stations, and what is asked at the stations. A one-way slab is
// one line, a design strip is one. u runs along the axis, mm. Forces are those on a station's width: moments
// N mm, sagging positive; shears N.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "geometry/polygon.h"
#include "model/floor.h"
#include "standards/rules.h"

namespace talvik::line {

using geometry::Point;
using geometry::Segment;
using model::EndCondition;
using model::Id;

// Where a line is held by what crosses it or stands on its axis. `from` and `to` are its faces along the
// line, `u` where spans are measured from. A wall or line support that runs along the axis holds it all the
// way; its two ends are supports, and the spans between them are "along a wall".
struct Support {
    enum class Kind {
        Column,
        Wall,
        Beam,
        Line,
        Columns
    } kind = Kind::Column;  // Columns: between two of them
    Id id;                  // within the line; that of the member, but for the ends of a wall along it
    std::string name;
    double u = 0, from = 0, to = 0;
    double across = 0;    // width of a column across the line
    Point at;             // in plan
    bool onBeam = false;  // a beam is here too
    bool turns = false;   // the slab is free to turn on it: a plain wall or a line support
    Id wall{};            // of a wall along the line that begins or ends here; empty for none
};

inline constexpr double coreCover = 40;  // mm: bars so far inside the faces of a column pass through it

struct Span {
    std::string name;           // "B–C"
    int left = -1, right = -1;  // supports; -1 for a free tip
    double from = 0, to = 0;    // axis to axis, or to the tip
    double clearFrom = 0, clearTo = 0;
    EndCondition ends[2] = {EndCondition::Free, EndCondition::Free};
    bool overruled[2] = {false, false};
    bool alongWall = false;  // a wall or line support runs along the axis below most of it
    Id id{};                 // within the line
    bool cantilever() const { return left < 0 || right < 0; }
    double length() const { return to - from; }
};

struct Line {
    double from = 0, to = 0;          // of the concrete
    bool inside[2] = {false, false};  // the slab goes on beyond that end: bars do too
    double room[2] = {0, 0};  // concrete of walls and beams beyond the slab's edge there, into which bars reach
    bool alone = false;  // nothing passes into slab beside it: its moments follow from its own shears
    std::vector<Support> supports;
    std::vector<Span> spans;
};

struct Station {
    double u = 0;
    int span = -1;         // -1 outside every span
    int support = -1;      // over which it lies; -1 for none
    double width = 0;      // of slab that is cut
    double thickness = 0;  // mean over the width, weighted by it
    double leastThickness = 0;
    double share[2] = {
        0, 0};  // width over which moments of the bottom, of the top are shared; see strips/sharing.h
    std::vector<Segment> cuts;  // in plan
};

// A value and the combination it comes from, by the number that whoever made the line gave it.
struct Extreme {
    double value = 0;
    std::uint16_t by = 0;
};
// What a line is designed for, at its stations. Magnitudes, moved nowhere.
struct Demand {
    std::vector<Extreme> bottom, top, shear;         // ultimate
    std::vector<char> shearHogs;                     // whether the steel in tension there is that of the top
    std::vector<Extreme> bottomService, topService;  // of the crack rule's state
    std::vector<Extreme> most, least;                // moments of the slab's own, signed, ultimate
    std::vector<Extreme> beamMost, beamLeast;        // of beams along it; empty where there can be none
};

// The values alone.
std::vector<double> values(const std::vector<Extreme>& extremes);

// A line with its stations and what is asked there. Refers to them; they must outlive it.
struct View {
    const Line& line;
    const std::vector<Station>& stations;
    const Demand& demand;
};

// The station nearest to u, the first of two as near; `stations` is not empty.
std::size_t nearestStation(const std::vector<Station>& stations, double u);
// First and last station in [a, b], 3 mm more or less; none where there is none.
std::optional<std::pair<std::size_t, std::size_t>> stationsWithin(const std::vector<Station>& stations,
                                                                  double a, double b);

// System of a span for span-to-depth rules, from its end conditions.
standards::SpanSystem spanSystem(const Span& span);

}  // namespace talvik::line
