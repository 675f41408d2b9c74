// The slab of one area and direction, from which its strips are made. Inside this room only.
#pragma once

#include "strips/support_lines.h"

namespace talvik::strips {

struct Layer {
    const model::Floor& floor;
    const ColumnStripHalf& half;
    int direction;
    double otherAngle;                  // degrees: of the bars that cross
    std::vector<Ring> domain, cutters;  // plan: the slab, and what is taken off its strips
    std::string prefix;                 // of keys: the area's id and a colon, or nothing
    const std::vector<Ring>&slabs, &openings;  // of the floor
    SupportLines lines;
};

// The slab shared by the lines of supports, or by strips side by side where there are none. Without supports
// and spans yet.
std::vector<Strip> shareSlab(const Layer& layer);

// Finds extent, supports, spans and end conditions of a strip from its axis and parts. `crossing`: the layer
// of the other direction, whose lines hold the strip where nothing else does.
void hold(Strip& s, const Layer& layer, const Layer& crossing);

}  // namespace talvik::strips
