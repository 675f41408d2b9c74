// Bars of a strip as they lie in plan, one by one, and as they are cut and bent.
//
// Bars stand over the width of the strip at its spacing, the outermost no nearer to an edge than their cover,
// so many that they give the steel of the run over that width at least. Each lies where there is concrete:
// ends at edges and openings keep their cover, ends where a strip grows narrower go on by their anchorage.
// At steps of level bars of the lower top and of the higher soffit go on by their lap where there is
// concrete. Bars of lengths that differ little are cut alike, in steps, never longer than there is room. What
// is longer than the stock length is lapped, by turns nearer to one end and to the other.
#pragma once

#include "schedule/schedule.h"
#include "strips/strip_layout.h"

namespace talvik::schedule {

using geometry::Ring;

// Where bars may lie in plan: slabs less openings, less the cover of sides and half a bar. Of one floor. At
// steps of level bars of the face end; where concrete of the slab beside passes at their height they go on
// into it.
class Room {
  public:
    Room(const model::Floor& floor, double cover);
    struct Stretch {
        double from = 0, to = 0;
    };
    // Of a line: where the face lies at one height, and how far bars of it may reach.
    struct Piece {
        Stretch own, free;
    };
    // The same in the axes of a strip.
    Room in(const strips::Axes& axes) const;
    // What of a line, y constant, is in it; of one with x constant; ascending.
    std::vector<Stretch> along(double y) const;
    std::vector<Stretch> across(double x) const;
    // For bars of a face along a line with y constant; ascending. `own` reaches beyond the slab where it
    // ends.
    std::vector<Piece> pieces(double y, bool top) const;
    bool stepped(bool top) const { return !levels_[top].empty(); }
    double cover() const { return cover_; }

  private:
    struct Level {
        std::vector<Ring> others, missing;
    };
    double cover_;
    std::vector<Ring> slabs_, openings_;
    std::vector<Level> levels_[2];  // of soffits, of tops; none where all lie at one height
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
// Closed links round two legs each, in rows across a strip; legs no farther apart than asked.
Item links(const std::string& bar, double from, double to, double along, double across, const StripBody& body,
           const line::LineBasis& in);

}  // namespace talvik::schedule
