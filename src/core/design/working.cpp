#include "design/working.h"

#include <algorithm>

namespace talvik::design {

trace::Steps withoutRepeats(trace::Steps steps) {
    trace::Steps once;
    for (auto& step : steps) {
        bool known = std::any_of(once.begin(), once.end(), [&](const trace::Step& t) {
            return t.symbol == step.symbol && t.expression == step.expression && t.result == step.result;
        });
        if (!known) once.push_back(std::move(step));
    }
    return once;
}

}  // namespace talvik::design
