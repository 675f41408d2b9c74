// Sheets of a set of bases: the plan with types and sizes, and of each type a plan and a section with its
// bars.
#pragma once

#include "design/bases.h"
#include "design/design.h"
#include "drawing/drawing.h"

namespace talvik::drawing {

std::vector<Sheet> baseSheets(const model::Project& project, const design::Design& design,
                              const design::BasesAnswer& answer);

// Of one base at a scale (1:scale), lower left at the origin: plan, or section along x with its bars, mm of
// paper.
struct BaseFigure {
    Sheet sheet;
    double width = 0, height = 0;
};
BaseFigure basePlan(const design::BasesAnswer& answer, const design::BasePart& base,
                    const design::Design& design, double scale, units::System system);
BaseFigure baseSection(const design::BasesAnswer& answer, const design::BasePart& base, double scale,
                       units::System system);

}  // namespace talvik::drawing
