// "5 columns: A1, A2, ...": where something stands, by number and names.
#pragma once

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <string>
#include <vector>

namespace talvik::checks {

// The first eight by name; empty where there are none. `one` and `many` name the kind.
inline std::string places(std::vector<std::string> names, const char* one, const char* many) {
    if (names.empty()) return {};
    const std::size_t all = names.size();
    if (all > 8) names.resize(8), names.push_back("…");
    return fmt::format("{} {}: {}.", all, all > 1 ? many : one, fmt::join(names, ", "));
}

}  // namespace talvik::checks
