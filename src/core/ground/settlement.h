// Elastic settlement of a flexible, uniformly loaded rectangle on layers over a rigid base (EN 1997-1 6.6.2,
// Annex F.1): closed form of Steinbrenner in the uniform half-space, each layer with its own modulus between
// its top and bottom. Units N, mm, MPa.
#pragma once

#include <vector>

namespace talvik::ground {

struct SoilLayer {
    double modulus = 0, poisson = 0, thickness = 0;  // MPa, -, mm; from the base of the foundation down
};
struct Settlement {
    double centre = 0, corner = 0, characteristic = 0;  // mm; the last 0.37 B and 0.37 L off the centre
    std::vector<double> stress;                         // in the middle of each layer below that point, MPa
};
Settlement settlement(double pressure, double B, double L, const std::vector<SoilLayer>& layers);

}  // namespace talvik::ground
