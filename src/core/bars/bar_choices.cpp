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

std::vector<BarChoice> usualChoices(std::vector<std::pair<BarChoice, double>> choices) {
    constexpr double perChoice = 0.02;
    auto order = [](const BarChoice& c) { return std::tuple(c.area(), -c.spacing, c.bar->diameter); };
    std::sort(choices.begin(), choices.end(),
              [&](const auto& p, const auto& q) { return order(p.first) < order(q.first); });
    double all = 0;
    for (const auto& c : choices) all += c.second;
    // least[k]: of the first k, the last of which is kept.
    std::vector<double> least(choices.size() + 1, 1e300);
    std::vector<std::size_t> from(choices.size() + 1, 0);
    least[0] = 0;
    for (std::size_t k = 1; k <= choices.size(); ++k) {
        const double kept = choices[k - 1].first.area();
        double added = 0;
        for (std::size_t i = k; i-- > 0;) {
            const double own = choices[i].first.area();
            if (kept > littleMore * own) break;
            added += choices[i].second * (kept / own - 1);
            if (const double sum = least[i] + added + perChoice * all; sum < least[k])
                least[k] = sum, from[k] = i;
        }
    }
    std::vector<BarChoice> usual;
    for (std::size_t k = choices.size(); k > 0; k = from[k]) usual.push_back(choices[k - 1].first);
    std::reverse(usual.begin(), usual.end());
    return usual;
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
