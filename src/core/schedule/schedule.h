// Bars as they lie become scheduled bars: shapes, dimensions, numbers, marks, cut lengths and masses. Lengths
// mm, masses kg. Shapes and lengths by BS 8666:2020 / ISO 3766 (see catalogs::shapes), with the bends of the
// standard; cut lengths rounded up to 25 mm.
#pragma once

#include <map>
#include <string>
#include <vector>

#include "bars/steel.h"

namespace talvik::schedule {

// One kind of bar of one run. A run longer than the stock length is made of several lapped pieces.
struct Item {
    model::Id run;
    std::string bar;
    double diameter = 0;
    std::string shape;
    std::map<char, double> dimensions;
    int number = 0;        // bars of this item
    double cutLength = 0;  // each, rounded up
    double massEach = 0;
    double spacing = 0;
    std::string layer;        // "B1": bottom outer, "B2" inside it, "T1", "T2", "U"
    double from = 0, to = 0;  // of this piece along the run
    std::string note;
    bool hookStart = false;              // of a bar with one hook: at the start of its line, not at the end
    std::vector<geometry::Segment> lie;  // each of its bars, of parts that lie in a plan
};

// What the bars of a part lie in: concrete of this thickness and breadth (across the bars along the line).
struct Body {
    double thickness = 0, breadth = 0;
};
// Items of a part, in the order of its runs.
std::vector<Item> items(const std::vector<bars::Run>& runs, const Body& body, const line::LineBasis& in);

// Closed links round two legs each, in rows of legs `along` the part and no farther apart than `across`.
Item links(const std::string& bar, double from, double to, double along, double across, const Body& body,
           const line::LineBasis& in);
// Where the rows of links over a stretch stand: no farther apart than `along`, the outer ones half of that
// from its ends.
std::vector<double> linkRows(double from, double to, double along);
// Links of two legs in a row of this breadth, no leg farther from the next than `across`.
int linkPairs(double breadth, double diameter, double across);
// One closed link with legs `apart` from each other at the most, in concrete of this thickness; without a
// number.
Item closedLink(const std::string& bar, double thickness, double apart, const line::LineBasis& in);

// What makes bars equal: size, shape and dimensions.
std::string signature(const Item& item);
std::string signature(const std::string& bar, const std::string& shape,
                      const std::map<char, double>& dimensions);
// Marks by signature. Those given out stay, also of bars that are no longer there.
using Marks = std::map<std::string, int>;
// Gives the next free mark to every bar that has none.
void number(const std::vector<Item>& items, Marks& marks);

// "29 H12-01-200 B1": number, type and size, mark, spacing, layer.
std::string callout(const Item& item, const Marks& marks, units::System system);
// The same for a whole run whose pieces may carry several marks: "29 H12-01/02-200 B1"; of more than three
// the first and the last are given.
std::string callout(const std::vector<Item>& all, const model::Id& run, const Marks& marks,
                    units::System system);

struct Row {
    int mark = 0;
    std::string member, bar, shape;
    std::map<char, double> dimensions;
    double diameter = 0, cutLength = 0, massEach = 0;
    int number = 0;        // in each member
    int members = 1;       // that are alike
    std::string revision;  // letter under which it last changed; empty before anything was fixed
    int total() const { return number * members; }
    double mass() const { return massEach * total(); }
};
struct Total {
    std::string bar;
    double diameter = 0, length = 0, mass = 0;
    int number = 0;
};
struct Schedule {
    std::vector<Row> rows;      // by mark
    std::vector<Total> totals;  // by diameter
    double mass = 0;
};
Schedule make(const std::vector<Item>& items, const Marks& marks, const std::string& member, int members = 1);
// Joins the schedules of several members.
Schedule join(const std::vector<Schedule>& parts);

}  // namespace talvik::schedule
