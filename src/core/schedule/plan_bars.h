// Bars of a strip as they lie in plan, one by one, and as they are cut and bent.
//
// Bars stand over the width of the strip at its spacing, the outermost no nearer to an edge than their cover,
// so many that they give the steel of the run over that width at least. Each lies where there is concrete:
// ends at edges and openings keep their cover, ends where a strip grows narrower go on by their anchorage.
// Bars of lengths that differ little are cut alike, in steps, never longer than there is room. What is longer
// than the stock length is lapped, by turns nearer to one end and to the other.
#pragma once

#include "schedule/schedule.h"
#include "strips/strip_layout.h"

namespace talvik::schedule {

using geometry::Ring;

// Where bars may lie in plan: slabs less openings, less the cover of sides and half a bar. Of one floor.
class Room {
  public:
    Room(const model::Floor& floor, double cover);
    struct Stretch {
        double from = 0, to = 0;
    };
    // The same in the axes of a strip.
    Room in(const strips::Axes& axes) const;
    // What of a line, y constant, is in it; of one with x constant; ascending.
    std::vector<Stretch> along(double y) const;
    std::vector<Stretch> across(double x) const;
    double cover() const { return cover_; }

  private:
    double cover_;
    std::vector<Ring> slabs_, openings_;
    std::vector<Stretch> cut(bool along, double at) const;
};

struct StripBody {
    const strips::Strip& strip;
    const Room& room;
    const std::vector<line::Station>& stations;
    double thickness = 0;  // the least
};
// Items of a strip's runs in their order; `lie` of each is filled.
std::vector<Item> items(const std::vector<bars::Run>& runs, const StripBody& body, const line::LineBasis& in);

}  // namespace talvik::schedule
