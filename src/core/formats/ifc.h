// The building as an IFC 4 file (ISO 16739-1, ISO 10303-21 text): slabs with their thickenings and openings,
// columns, walls, beams, and every bar where it lies.
//
// Each element of the project stands in a storey of its own at its own origin: a project does not say how
// they lie to each other; one-way slabs are set out below the plan, one beside the other. One reinforcing-bar
// object stands for all bars of one mark in one run, with a shape for each of them. Lengths mm, axis z
// upwards from the top of the floor. What has no known extent (piles, ground, line supports) is left out.
#pragma once

#include <string>

#include "design/design.h"

namespace talvik::formats {

std::string ifcText(const model::Project& project, const design::Design& design);

}  // namespace talvik::formats
