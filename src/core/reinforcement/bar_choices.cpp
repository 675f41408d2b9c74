#include "reinforcement/bar_choices.h"

#include <algorithm>
#include <tuple>

namespace talvik::reinforcement {

std::vector<BarChoice> barChoices(const std::vector<std::string>& allowed, double largest,
                                  const model::Basis& basis, const standards::Standard& standard) {
    const auto& catalog = *catalogs::barCatalog(basis.barCatalog);
    std::vector<BarChoice> all;
    for (const auto& name : allowed) {
        const catalogs::Bar* bar = catalog.find(name);
        double least = std::max(basis.spacingLeast,
                                bar->diameter + standard.steel->clear(bar->diameter, basis.aggregate));
        double top = units::roundDown(std::min(largest, basis.spacingMost), basis.spacingStep);
        for (double s = units::roundUp(least, basis.spacingStep); s <= top + 1e-9; s += basis.spacingStep)
            all.push_back({bar, s});
        if (all.empty() || all.back().bar != bar) all.push_back({bar, std::max(least, std::min(top, least))});
    }
    std::sort(all.begin(), all.end(), [](const BarChoice& p, const BarChoice& q) {
        return std::tuple(p.area(), -p.spacing, p.bar->diameter) <
               std::tuple(q.area(), -q.spacing, q.bar->diameter);
    });
    return all;
}

}  // namespace talvik::reinforcement
