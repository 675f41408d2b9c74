// The working of a check, put together from several rules.
#pragma once

#include "trace/trace.h"

namespace talvik::design {

// The steps in their order, each once: the same step may come from two rules.
trace::Steps withoutRepeats(trace::Steps steps);

}  // namespace talvik::design
