#include "design/base_types.h"

#include <algorithm>

namespace talvik::design {

Grouping group(std::size_t rows, std::size_t most,
               const std::function<double(std::size_t, std::size_t)>& of) {
    Grouping out;
    if (rows == 0 || most == 0) return out;
    most = std::min(most, rows);
    constexpr double never = 1e300;
    std::vector<double> cost(rows * rows, never);
    for (std::size_t a = 0; a < rows; ++a)
        for (std::size_t b = a; b < rows; ++b) cost[a * rows + b] = of(a, b);
    std::vector<double> before(rows + 1, never);
    std::vector<std::vector<std::size_t>> from(most + 1, std::vector<std::size_t>(rows + 1, 0));
    before[0] = 0;
    std::size_t bestTypes = 1;
    std::vector<double> last;
    for (std::size_t n = 1; n <= most; ++n) {
        std::vector<double> now(rows + 1, never);
        for (std::size_t k = 1; k <= rows; ++k)
            for (std::size_t i = 0; i < k; ++i) {
                if (before[i] >= never) continue;
                if (const double c = before[i] + cost[i * rows + k - 1]; c < now[k])
                    now[k] = c, from[n][k] = i;
            }
        before = now;
        before[0] = never;
        const double least = now[rows];
        if (out.costs.empty() || least < out.costs.back()) bestTypes = n;
        out.costs.push_back(out.costs.empty() ? least : std::min(out.costs.back(), least));
    }
    for (std::size_t n = bestTypes, k = rows; n > 0; --n) k = from[n][k], out.begins.push_back(k);
    std::reverse(out.begins.begin(), out.begins.end());
    return out;
}

SetGrouping groupSets(std::size_t rows, std::size_t most, const std::function<double(unsigned)>& of) {
    SetGrouping out;
    if (rows == 0 || rows > mostSets || most == 0) return out;
    most = std::min(most, rows);
    const unsigned all = (1u << rows) - 1;
    constexpr double never = 1e300;
    std::vector<double> cost(all + 1, never), before(all + 1, never);
    for (unsigned s = 1; s <= all; ++s) cost[s] = of(s);
    before[0] = 0;
    std::vector<std::vector<unsigned>> with(most + 1, std::vector<unsigned>(all + 1, 0));
    std::size_t bestTypes = 1;
    for (std::size_t n = 1; n <= most; ++n) {
        std::vector<double> now(all + 1, never);
        for (unsigned s = 1; s <= all; ++s) {
            // The type that holds the lowest row of what is left.
            const unsigned low = s & (~s + 1), rest = s ^ low;
            for (unsigned sub = rest;; sub = (sub - 1) & rest) {
                const unsigned type = sub | low;
                if (before[s ^ type] < never)
                    if (const double c = before[s ^ type] + cost[type]; c < now[s])
                        now[s] = c, with[n][s] = type;
                if (sub == 0) break;
            }
        }
        before = now;
        before[0] = never;
        if (out.costs.empty() || now[all] < out.costs.back()) bestTypes = n;
        out.costs.push_back(out.costs.empty() ? now[all] : std::min(out.costs.back(), now[all]));
    }
    unsigned left = all;
    for (std::size_t n = bestTypes; n > 0 && left; --n)
        out.types.push_back(with[n][left]), left ^= with[n][left];
    return out;
}

}  // namespace talvik::design
