// Which bases are alike: at the most so many types at the least cost.
#pragma once

#include <cstddef>
#include <functional>
#include <vector>

namespace talvik::design {

// Rows in an order; a type is a stretch of them, whose cost `of(first, last)` (both included) gives. Least
// costs of all rows with 1, 2, ... `most` types, and for `most` where each type begins. Exact among stretches
// (dynamic programming); `of` may be infinite. O(rows^2 most) calls less those kept.
struct Grouping {
    std::vector<double> costs;        // [n - 1]: with at the most n types
    std::vector<std::size_t> begins;  // of the best with at the most `most`
};
Grouping group(std::size_t rows, std::size_t most, const std::function<double(std::size_t, std::size_t)>& of);

// The same over all groupings whatever, not stretches alone: `of` is asked for sets of rows as bits. Exact
// (dynamic programming over subsets), for at the most 11 rows. `types`: of the best with at the most `most`.
struct SetGrouping {
    std::vector<double> costs;
    std::vector<unsigned> types;
};
inline constexpr std::size_t mostSets = 11;
SetGrouping groupSets(std::size_t rows, std::size_t most, const std::function<double(unsigned)>& of);

}  // namespace talvik::design
