#include "actions/actions.h"

#include <fmt/format.h>

namespace talvik::actions {

std::vector<Arrangement> spanArrangements(const std::vector<std::string>& names) {
    std::size_t n = names.size();
    std::vector<Arrangement> all{{"all spans", std::vector<bool>(n, true)}};
    if (n < 2) return all;
    for (std::size_t first : {0u, 1u}) {
        Arrangement alternate{"", std::vector<bool>(n, false)};
        std::size_t count = 0;
        for (std::size_t i = first; i < n; i += 2) {
            alternate.loaded[i] = true;
            if (++count <= 4) alternate.name += (alternate.name.empty() ? "" : ", ") + names[i];
        }
        if (count > 4) alternate.name += " …";
        all.push_back(alternate);
    }
    for (std::size_t i = 0; n > 2 && i + 1 < n; ++i) {
        Arrangement pair{names[i] + " and " + names[i + 1], std::vector<bool>(n, false)};
        pair.loaded[i] = pair.loaded[i + 1] = true;
        all.push_back(pair);
    }
    return all;
}

}  // namespace talvik::actions
