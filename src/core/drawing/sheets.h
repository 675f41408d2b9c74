// The sheets of an element as they leave the office.
#pragma once

#include "design/design.h"
#include "drawing/drawing.h"

namespace talvik::drawing {

// All sheets of an element that is answered, in order; none of one without an answer.
std::vector<Sheet> sheets(const model::Project& project, const design::Design& design,
                          const design::ElementAnswer& element);

}  // namespace talvik::drawing
