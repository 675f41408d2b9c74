// The shear of a floor as a picture: stresses of its field beside what concrete carries alone.
#pragma once

#include "design/floor_design.h"

namespace talvik::design {

// Per field point of the analysis, MPa: the largest resultant transverse shear of all ultimate combinations
// over the effective depth, as the mesh has it, not averaged; and the strength of one-way shear with the
// tension steel there (as anchored, by the direction of the resultant).
struct ShearPicture {
    std::vector<double> stress, strength;
};
ShearPicture shearPicture(const FloorDesign& design);

}  // namespace talvik::design
