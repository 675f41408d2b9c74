// Sheets of a set of bases: the plan with types and sizes, and of each type a plan, two sections
// and its cage.
#pragma once

#include "design/bases.h"
#include "design/design.h"
#include "drawing/base_figures.h"

namespace talvik::drawing {

std::vector<Sheet> baseSheets(const model::Project& project, const design::Design& design,
                              const design::BasesAnswer& answer);

}  // namespace talvik::drawing
