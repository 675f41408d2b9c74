// What is measured of an element from its shape: concrete, plan area, formwork, blinding. Fills these of the
// answer and the number of members alike; of one of them. m3, m2.
//
// Formwork is the soffit clear of what holds it and not on ground, with the sides of edges, openings and
// steps. Concrete and formwork of beams below the slab, walls and columns are not in these figures.
#pragma once

#include "design/answer.h"
#include "model/project.h"

namespace talvik::design {

inline constexpr double blindingThickness = 50;  // mm, below slabs on ground

void measure(const model::OneWaySlab& slab, ElementAnswer& answer);
void measure(const model::Floor& floor, ElementAnswer& answer);

}  // namespace talvik::design
