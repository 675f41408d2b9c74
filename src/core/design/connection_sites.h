// The connections of a floor: where columns, piles, ends and corners of walls and loads press through its
// slab, with what surrounds them. Geometry alone; plan mm.
#pragma once

#include "model/floor.h"
#include "standards/punching_rules.h"

namespace talvik::design {

struct ConnectionSite {
    std::string key, name, label;    // "c3", "Column B/2", "B/2"; see model::ConnectionChoice
    std::vector<model::Id> members;  // columns, piles, walls or loads that make it
    standards::PunchingPlace place;  // without depths and steel
    std::string without;             // why no perimeter is checked; empty where one is
    std::vector<std::string> notes;  // what is special here
};

// In the order of columns, piles, walls, loads, then of columns so close that one perimeter goes round them.
// Loads of equal place and footprint are one connection. `toSteel`: from the face to the middle of the bars
// to expect.
std::vector<ConnectionSite> connectionSites(const model::Floor& floor, const standards::PunchingRules& rules,
                                            double toSteel);

}  // namespace talvik::design
