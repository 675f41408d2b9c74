// Sketch of a panel or section of the bench, with its bars.
#pragma once

#include "design/bench.h"
#include "drawing/drawing.h"

namespace talvik::drawing {

// A sheet `width` mm of paper wide.
Sheet benchSketch(const design::BenchInput& input, const design::BenchAnswer& answer,
                  const model::Basis& basis, double width);

}  // namespace talvik::drawing
