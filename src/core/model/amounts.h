// What is built, and what it comes to by the rates of the basis: one sum for every table and window.
#pragma once

#include "model/project.h"

namespace talvik::model {

struct Amounts {
    double concrete = 0, steel = 0, formwork = 0;  // m3, kg, m2
    double blinding = 0, excavation = 0;           // m3
    double pileLength = 0;                         // m, of all piles; 0 where it is not given
    double pieces = 0;                             // bars placed
    Amounts& operator+=(const Amounts& other);
    Amounts times(double number) const;
    double price(const Rates& rates) const;
    double carbon(const Rates& rates) const;  // kg CO2e
};

}  // namespace talvik::model
