// What someone does to strips, as edits of the floor. Each says in a sentence why it cannot be done, or
// nothing.
#pragma once

#include <optional>

#include "model/project.h"
#include "strips/strip_layout.h"

namespace talvik::strips {

// An edge of a strip that can be moved: the line of supports from which it is measured, and on which side.
struct EdgeOf {
    Id line;
    int side = 1;             // +1 left of the line, -1 right
    double offset = 0;        // of the handle, now
    std::string other;        // key of the strip on the far side, empty at the slab's edge
    Id otherLine;             // of that strip, where it follows one itself: it has the edge in common
    std::vector<Point> path;  // where another strip begins; plan, along u
    Point handle;             // on it, near its middle
};
// The edges of a strip that follows lines of supports; a drawn strip has none.
std::vector<EdgeOf> edgesOf(const StripLayout& layout, const Strip& strip);

void moveEdge(model::Project& project, model::Floor& floor, int direction, const EdgeOf& edge, double offset);
// Cuts a strip in two at u, across it, or along it at v: both become strips drawn by hand.
std::string split(model::Project& project, model::Floor& floor, const StripLayout& layout,
                  std::string_view key, Point at, bool along);
// Two strips that touch become one, drawn by hand, in the direction of the first.
std::string merge(model::Project& project, model::Floor& floor, const StripLayout& layout, std::string_view a,
                  std::string_view b);
// A strip turned to another angle keeps its area and becomes one drawn by hand.
std::string reAim(model::Project& project, model::Floor& floor, const StripLayout& layout,
                  std::string_view key, double angle);
std::string draw(model::Project& project, model::Floor& floor, int direction, double angle,
                 const std::vector<Point>& corners);
// A part of the floor with directions of its own.
std::string drawArea(model::Project& project, model::Floor& floor, const std::array<double, 2>& angles,
                     const std::vector<Point>& corners);
// Takes back what someone did to a strip: moved edges, the area in which it lies, or the drawn strip itself,
// its end conditions and bars.
bool release(model::Floor& floor, const StripLayout& layout, std::string_view key);
// No condition: what the layout says.
void setEnd(model::Project& project, model::Floor& floor, const Strip& strip, std::size_t span, int side,
            std::optional<EndCondition> condition);
const char* name(EndCondition condition);

}  // namespace talvik::strips
