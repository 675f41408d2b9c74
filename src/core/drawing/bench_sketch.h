// Sketch of a panel or section of the bench, with its bars.
#pragma once

#include "drawing/drawing.h"
#include "opinions/bench.h"

namespace talvik::drawing {

// A sheet `width` mm of paper wide.
Sheet benchSketch(const opinions::BenchInput& input, const opinions::BenchAnswer& answer,
                  const model::Basis& basis, double width);

}  // namespace talvik::drawing
