// What the elements of a project take: concrete, formwork, steel by diameter, cost and embodied carbon, of
// all members together.
#pragma once

#include "design/design.h"

namespace talvik::design {

struct Quantities {
    std::string name;
    int members = 1;
    double concrete = 0, formwork = 0, blinding = 0, area = 0;  // m3, m2, m3, m2 in plan
    double steel = 0;                                           // kg
    std::map<std::pair<double, std::string>, double> bySize;    // diameter and type: kg
    double price = 0, carbon = 0;                               // by the rates of the basis; kg CO2e
    double perVolume() const { return concrete > 0 ? steel / concrete : 0; }  // kg/m3
    double perArea() const { return area > 0 ? steel / area : 0; }            // kg/m2
    Quantities& operator+=(const Quantities& other);
};
// Of the elements that are answered, in their order.
std::vector<Quantities> quantities(const model::Project& project, const Design& design);
Quantities sum(const std::vector<Quantities>& all);

}  // namespace talvik::design
