#include "line/line.h"

#include <cmath>

namespace talvik::line {

std::vector<double> values(const std::vector<Extreme>& extremes) {
    std::vector<double> all;
    all.reserve(extremes.size());
    for (const auto& e : extremes) all.push_back(e.value);
    return all;
}

std::size_t nearestStation(const std::vector<Station>& stations, double u) {
    std::size_t best = 0;
    for (std::size_t i = 0; i < stations.size(); ++i)
        if (std::abs(stations[i].u - u) < std::abs(stations[best].u - u)) best = i;
    return best;
}

std::optional<std::pair<std::size_t, std::size_t>> stationsWithin(const std::vector<Station>& stations,
                                                                  double a, double b) {
    std::optional<std::pair<std::size_t, std::size_t>> found;
    for (std::size_t i = 0; i < stations.size(); ++i) {
        if (stations[i].u < a - 3 || stations[i].u > b + 3) continue;
        if (!found) found = {i, i};
        found->second = i;
    }
    return found;
}

standards::SpanSystem spanSystem(const Span& span) {
    using standards::SpanSystem;
    if (span.ends[0] == EndCondition::Cantilever || span.ends[1] == EndCondition::Cantilever)
        return SpanSystem::Cantilever;
    int on = (span.ends[0] == EndCondition::Continuous) + (span.ends[1] == EndCondition::Continuous);
    return on == 2 ? SpanSystem::Interior : on == 1 ? SpanSystem::End : SpanSystem::Simple;
}

}  // namespace talvik::line
