// Pairs of bar and spacing that a project allows.
#pragma once

#include <vector>

#include "model/project.h"
#include "standards/rules.h"

namespace talvik::reinforcement {

struct BarChoice {
    const catalogs::Bar* bar = nullptr;
    double spacing = 0;
    double area() const { return bar->area / spacing; }  // mm2 per mm
};
// All pairs of the allowed bars and the spacings between the least and `largest`, least steel first; the
// larger spacing where equal.
std::vector<BarChoice> barChoices(const std::vector<std::string>& allowed, double largest,
                                  const model::Basis& basis, const standards::Standard& standard);

}  // namespace talvik::reinforcement
