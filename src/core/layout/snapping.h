// What the pointer catches on: of the grid, the members and the drawing below. Plan mm.
#pragma once

#include <optional>
#include <unordered_map>

#include "model/project.h"

namespace talvik::layout {

using geometry::Point;
using geometry::Segment;

// In order of preference at equal distance.
enum class Catch { Crossing, End, Centre, Intersection, Middle, Perpendicular, OnGrid, Edge };
const char* word(Catch reason);  // "grid crossing", "end", ...

struct Snap {
    Point at;
    Catch reason = Catch::End;
    std::string of;  // what was caught: "B2", "Beam B1", "drawing below"
};

// An index over everything that can be caught, made once per change of the floor or the drawing. Searching
// looks at the neighbourhood only.
class SnapIndex {
  public:
    // `below`: segments of the drawing below, in plan. `without`: a member that is being moved.
    SnapIndex(const model::Floor& floor, const std::vector<Segment>& below, const model::Id& without = {});
    // The best catch within `radius` of p; `from`: the last point drawn, for perpendiculars.
    std::optional<Snap> snap(Point p, double radius, std::optional<Point> from = {}) const;
    // What else is drawn at this time: corners of an outline under way.
    void setPending(std::vector<Point> corners) { pending_ = std::move(corners); }

  private:
    struct Target {
        Point at;
        Catch reason;
        int name;
    };
    struct Line {
        Segment s;
        int name;
        bool grid;
    };
    std::vector<Target> points_;
    std::vector<Line> lines_;
    std::vector<std::string> names_;
    std::vector<Point> pending_;
    double cell_ = 1000;
    std::unordered_map<std::int64_t, std::vector<int>> pointCells_, lineCells_;

    int name(std::string text);
    void point(Point p, Catch reason, int name);
    void line(Segment s, int name, bool grid);
    void file();
    std::int64_t key(double x, double y) const;
    template <class F>
    void near(const std::unordered_map<std::int64_t, std::vector<int>>& cells, Point p, double radius,
              F f) const;
};

// The end of a line from `from` towards p: along the nearest of the directions of grid and plan in steps of
// 45 degrees, for a straight-line constraint.
Point straight(const model::Floor& floor, Point from, Point p);

// A point typed while drawing, by spaces: "6.5" a length towards the pointer, "6.5<30" length and angle,
// "3.2,4" coordinates in plan, "@1,-2" from the last point. Lengths in `system`'s unit of spans, or with
// units of their own.
struct TypedPoint {
    std::optional<Point> at;
    std::string error;
};
TypedPoint typedPoint(std::string_view text, std::optional<Point> from, Point towards, units::System system);

}  // namespace talvik::layout
