// Bars that someone fixed. The project keeps no others: all the rest is chosen anew at every change.
#pragma once

#include <string>

#include "model/part.h"

namespace talvik::model {

enum class BarEnd { Straight, Hook };

// How a run lies in its part. Along the line: the main bars of a face, and bars in a band over a column,
// between the others. Across it: secondary bars, which fill the zone from..to. U-bars at a tip, legs
// from..to, and along both long edges over from..to.
enum class Role { BottomMain, TopMain, TopBand, BottomSecondary, TopSecondary, EndU, SideU };
inline bool across(Role role) {
    return role == Role::BottomSecondary || role == Role::TopSecondary;
}
inline bool topFace(Role role) {
    return role == Role::TopMain || role == Role::TopBand || role == Role::TopSecondary;
}
inline bool isMain(Role role) {
    return role == Role::BottomMain || role == Role::TopMain;
}

// Equal bars side by side. Positions along the part's line, mm, to the outside of the bars: of a one-way
// slab from its first axis, of a strip from the plan's origin.
struct BarRun {
    Id id;
    std::string part{};  // key of the part within its element: of a strip; empty in a one-way slab
    Role role = Role::BottomMain;
    double from = 0, to = 0;
    std::string bar{};  // name in the bar catalogue
    double spacing = 200;
    BarEnd start = BarEnd::Straight, end = BarEnd::Straight;
    bool operator==(const BarRun&) const = default;
};

}  // namespace talvik::model
