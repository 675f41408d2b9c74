// What the elements of a project take, of all members together, with steel by diameter.
#pragma once

#include "design/design.h"

namespace talvik::design {

struct Quantities : model::Amounts {
    std::string name;
    int members = 1;
    double area = 0;                                          // m2 in plan
    std::map<std::pair<double, std::string>, double> bySize;  // diameter and type: kg
    double cost = 0, emissions = 0;                           // by the rates of the basis; kg CO2e
    double perVolume() const { return concrete > 0 ? steel / concrete : 0; }  // kg/m3
    double perArea() const { return area > 0 ? steel / area : 0; }            // kg/m2
    Quantities& operator+=(const Quantities& other);
};
// Of the elements that are answered, in their order.
std::vector<Quantities> quantities(const model::Project& project, const Design& design);
Quantities sum(const std::vector<Quantities>& all);

}  // namespace talvik::design
