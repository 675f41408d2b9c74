#include "bars/bar_choices.h"

#include <algorithm>
#include <tuple>

namespace talvik::bars {

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

std::optional<double> suffices(const BarChoice& choice, bool top, double thickness, double moment,
                               double service, const line::LineBasis& in) {
    constexpr double b = 1000;
    const auto& rules = in.standard;
    const double diameter = choice.bar->diameter, As = choice.area() * b;
    const auto section = line::section(top, diameter, thickness, in, b);
    const auto need = rules.flexure->required(section, moment * b);
    if (!need.possible || need.doubly || As < need.As || As < rules.steel->minimum(section) ||
        As > rules.steel->maximum(section))
        return {};
    if (in.basis.minimumSteel && service > 0 &&
        As < rules.cracks->leastSteel(section, diameter, in.crackLimit(top)))
        return {};
    const auto crack = line::crackInput(section, top, service * b, As, diameter, choice.spacing, in);
    if (rules.cracks->check(crack).outcome == checks::Outcome::Over) return {};
    return need.As / b;
}

}  // namespace talvik::bars
