// Free vibrations of a plate: the lowest natural frequencies and their shapes, by subspace iteration on the
// factor that is there (K.-J. Bathe, Finite Element Procedures, 1996, 11.6), masses lumped at the nodes.
// Units N, mm, s: masses in tonnes.
#pragma once

#include <stop_token>

#include "fem/plate/plate_system.h"

namespace talvik::fem {

struct Mode {
    double frequency = 0;      // Hz
    double mass = 0;           // t, of the shape whose largest movement is 1
    std::vector<float> shape;  // w per node
};
// Of a system that is factorised; `mass` per node moves with w. At the most `wanted` of them, ascending,
// those above `highest` Hz left out once they are certain. Empty when stopped or where nothing has mass.
std::vector<Mode> lowestModes(const PlateSystem& system, const std::vector<double>& mass, int wanted,
                              double highest, std::stop_token stop = {});

}  // namespace talvik::fem
