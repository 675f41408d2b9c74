#include "schedule/cutting.h"

#include <algorithm>

namespace talvik::schedule {

double hookLeg(double depth, double diameter, const standards::AnchorageRules& rules) {
    return std::max(depth,
                    units::roundUp(rules.bendRadius(diameter) + diameter + rules.hookTail(diameter), 5));
}

void shape(Item& item, double straight, double leg, bool start, bool end) {
    item.hookStart = start && !end;
    if (start && end)
        item.shape = "21", item.dimensions = {{'A', leg}, {'B', straight}, {'C', leg}};
    else if (start || end)
        item.shape = "11", item.dimensions = {{'A', straight}, {'B', leg}};
    else
        item.shape = "00", item.dimensions = {{'A', straight}};
}

void cut(Item& item, const catalogs::Bar& bar, const standards::AnchorageRules& rules) {
    item.cutLength = units::roundUp(
        catalogs::cutLength(item.shape, bar.diameter, rules.bendRadius(bar.diameter), item.dimensions)
            .value_or(0),
        25);
    item.massEach = item.cutLength / 1000 * bar.massPerMetre;
}

}  // namespace talvik::schedule
