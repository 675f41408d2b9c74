// Bar runs become scheduled bars: shapes, dimensions, numbers, marks, cut lengths and masses. Lengths mm,
// masses kg. Shapes and lengths by BS 8666:2020 / ISO 3766 (see catalogs::shapes), with the bends of the
// standard; cut lengths rounded up to 25 mm.
#pragma once

#include <functional>
#include <map>
#include <string>
#include <vector>

#include "model/project.h"

namespace talvik::schedule {

// One kind of bar of one run. A run longer than the stock length is made of several lapped pieces.
struct Item {
    model::Id slab, run;
    model::Role role = model::Role::BottomMain;
    int mark = 0;
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
};

// Lap length of a run's bars; the design knows it by the standard.
using LapLength = std::function<double(const model::BarRun&)>;
// Of a bend, by bar diameter: least inside radius and the straight tail behind it.
struct Bends {
    std::function<double(double)> radius, tail;
};

// Items of a slab, in the order of its runs, with the marks of `marks` (0 where a bar has none yet).
std::vector<Item> items(const model::OneWaySlab& slab, const model::Basis& basis,
                        const std::map<std::string, int>& marks, const LapLength& lap, const Bends& bends);

// What makes bars equal: size, shape and dimensions. The key of Project::marks.
std::string signature(const Item& item);

// Gives a mark to every bar that has none; existing marks stay, also of bars no longer there.
void assignMarks(model::Project& project, const LapLength& lap, const Bends& bends);

// "29 H12-01-200 B1": number, type and size, mark, spacing, layer.
std::string callout(const Item& item, units::System system);
// The same for a whole run whose pieces may carry several marks: "29 H12-01/02-200 B1".
std::string callout(const std::vector<Item>& all, const model::Id& run, units::System system);

struct Row {
    int mark = 0;
    std::string member, bar, shape;
    std::map<char, double> dimensions;
    double diameter = 0, cutLength = 0, massEach = 0;
    int number = 0;
    double mass() const { return massEach * number; }
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
Schedule make(const std::vector<Item>& items, const std::string& member);
// Joins the schedules of several members.
Schedule join(const std::vector<Schedule>& parts);

}  // namespace talvik::schedule
