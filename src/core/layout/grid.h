// Grids: their lines, crossings and labels. Lines numbered 1, 2, 3 stand at the running sums of `along`;
// lines lettered A, B, C (without I and O, which read as figures) at those of `across`.
#pragma once

#include <optional>

#include "model/project.h"

namespace talvik::layout {

using geometry::Point;
using geometry::Segment;

// Running sums of spacings, from 0: one more than there are spacings.
std::vector<double> positions(const std::vector<double>& spacings);
std::string label(const model::Grid& grid, bool along, std::size_t index);
Point crossing(const model::Grid& grid, std::size_t along, std::size_t across);
std::string crossingName(const model::Grid& grid, std::size_t along, std::size_t across);  // "B2"

struct GridLine {
    std::string label;
    bool along;  // one of the numbered lines
    std::size_t index;
    Segment line;
};
// Lines of a grid, each `beyond` mm longer at both ends than the grid reaches.
std::vector<GridLine> gridLines(const model::Grid& grid, double beyond);

struct Crossing {
    Point at;
    std::string name;
};
std::vector<Crossing> crossings(const model::Floor& floor);
// The name of the crossing within `tolerance` of a point.
std::optional<std::string> crossingAt(const model::Floor& floor, Point p, double tolerance);
// Where a point lies, for people: "B/2" at a crossing, else "near B/2", else "(3.20, 4.00) m" without a grid.
std::string reference(const model::Floor& floor, Point p);

}  // namespace talvik::layout
