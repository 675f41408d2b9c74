// The economical slab: a floor designed in full at every thickness of a list, of chosen classes of concrete,
// as it is and with drops under its inner columns. Units N, mm.
#pragma once

#include <functional>
#include <stop_token>

#include "design/design.h"

namespace talvik::design {

struct SweepWish {
    std::vector<double> thicknesses;     // of the first slab; others keep their difference to it
    std::vector<std::string> concretes;  // ids of classes of the standard's family; none: the one there is
    bool drops = false;                  // each point with drops besides
};
struct SweepPoint {
    double thickness = 0;
    std::string concrete;
    bool drops = false;
    model::Project project;  // what was designed
    int over = 0, within = 0;
    double worst = 0;                                    // largest ratio
    std::string governs;                                 // title of the check that has it
    double concreteVolume = 0, steel = 0, formwork = 0;  // m3, kg, m2, of all members
    double price = 0, carbon = 0;                        // by the rates of the basis; kg CO2e
    std::string error;                                   // why there is no design
};
// Points by concrete, then without and with drops, then by thickness; each is `run` of its project. `each` is
// told every point as it is done and how many there are. What is done when stopped.
std::vector<SweepPoint> sweep(const model::Project& project, std::string_view floor, const SweepWish& wish,
                              std::stop_token stop = {},
                              const std::function<void(const SweepPoint&, std::size_t)>& each = {});

// The project with its floor as a point has it.
model::Project asPoint(const model::Project& project, std::string_view floor, double thickness,
                       const std::string& concrete, bool drops);
// A floor of another thickness; and one with a square drop, half as deep again as the slab, a third of the
// way to the next column, under every column that has slab all round it and no drop yet.
model::Project withThickness(const model::Project& project, std::string_view floor, double thickness);
model::Project withDrops(const model::Project& project, std::string_view floor);

}  // namespace talvik::design
