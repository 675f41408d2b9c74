#include "actions/factor_sets.h"

#include <algorithm>

namespace talvik::actions {
namespace {

using Kinds = std::vector<ActionKind>;

std::vector<std::size_t> where(const Kinds& kinds, Nature nature) {
    std::vector<std::size_t> all;
    for (std::size_t i = 0; i < kinds.size(); ++i)
        if (kinds[i].nature == nature) all.push_back(i);
    return all;
}
std::vector<double> permanents(const Kinds& kinds, double factor) {
    std::vector<double> f(kinds.size(), 0.0);
    for (std::size_t i : where(kinds, Nature::Permanent)) f[i] = factor;
    return f;
}

// Choices of variable actions: any of the imposed ones, and one wind or none.
std::vector<std::vector<std::size_t>> choices(const Kinds& kinds) {
    const auto imposed = where(kinds, Nature::Imposed), winds = where(kinds, Nature::Wind);
    std::vector<std::vector<std::size_t>> some;
    if (imposed.size() <= 8) {
        for (std::size_t bits = 0; bits < (std::size_t(1) << imposed.size()); ++bits) {
            auto& one = some.emplace_back();
            for (std::size_t k = 0; k < imposed.size(); ++k)
                if (bits >> k & 1) one.push_back(imposed[k]);
        }
    } else {
        some = {{}, imposed};
        for (std::size_t i : imposed) some.push_back({i});
    }
    std::vector<std::vector<std::size_t>> all = some;
    for (std::size_t w : winds)
        for (const auto& one : some) {
            all.push_back(one);
            all.back().push_back(w);
        }
    return all;
}

// Combinations of groups with factors: every action of a group gets the group's factor; winds one at a time.
struct Groups {
    std::vector<double> of(double g, double l, double r, double wind, std::size_t whichWind) const {
        std::vector<double> f(kinds.size(), 0.0);
        for (std::size_t i = 0; i < kinds.size(); ++i) {
            const auto& k = kinds[i];
            if (k.nature == Nature::Permanent) f[i] = g;
            if (k.nature == Nature::Imposed) f[i] = isRoof(k) ? r : l;
        }
        if (wind != 0) f[whichWind] = wind;
        return f;
    }
    static bool isRoof(const ActionKind& k) { return k.use == "H"; }
    explicit Groups(const Kinds& k) : kinds(k), winds(where(k, Nature::Wind)) {
        for (std::size_t i : where(k, Nature::Imposed)) (isRoof(k[i]) ? roof : live) = true;
    }
    const Kinds& kinds;
    std::vector<std::size_t> winds;
    bool live = false, roof = false;
    void add(std::vector<FactorSet>& all, const char* clause, double g, double l, double r, double w) const {
        if (w == 0) all.push_back({clause, of(g, l, r, 0, 0)});
        for (std::size_t i : winds)
            if (w != 0) all.push_back({clause, of(g, l, r, w, i)});
    }
};

}  // namespace

std::vector<FactorSet> distinct(std::vector<FactorSet> sets) {
    std::stable_sort(sets.begin(), sets.end(),
                     [](const FactorSet& a, const FactorSet& b) { return a.factors > b.factors; });
    sets.erase(std::unique(sets.begin(), sets.end(),
                           [](const FactorSet& a, const FactorSet& b) { return a.factors == b.factors; }),
               sets.end());
    return sets;
}

std::vector<FactorSet> leading(const Kinds& kinds, const Leading& rule) {
    std::vector<FactorSet> all;
    for (double g : rule.permanent)
        for (const auto& some : choices(kinds)) {
            if (some.empty()) all.push_back({rule.clause, permanents(kinds, g)});
            for (std::size_t first : some) {
                auto f = permanents(kinds, g);
                for (std::size_t i : some) f[i] = rule.variable * (i == first ? 1 : rule.psi0(kinds[i]));
                all.push_back({rule.clause, std::move(f)});
            }
        }
    return distinct(std::move(all));
}

std::vector<FactorSet> accompanyingOnly(const Kinds& kinds, const Leading& rule) {
    std::vector<FactorSet> all;
    for (double g : rule.permanent)
        for (const auto& some : choices(kinds)) {
            auto f = permanents(kinds, g);
            for (std::size_t i : some) f[i] = rule.variable * rule.psi0(kinds[i]);
            all.push_back({rule.clause, std::move(f)});
        }
    return distinct(std::move(all));
}

std::vector<FactorSet> accidental(const Kinds& kinds, const std::function<double(const ActionKind&)>& psi1,
                                  const std::function<double(const ActionKind&)>& psi2,
                                  const std::string& clause) {
    std::vector<FactorSet> all;
    for (std::size_t a : where(kinds, Nature::Accidental))
        for (const auto& some : choices(kinds)) {
            auto base = permanents(kinds, 1);
            base[a] = 1;
            if (some.empty()) all.push_back({clause, base});
            for (std::size_t first : some) {
                auto f = base;
                for (std::size_t i : some) f[i] = i == first ? psi1(kinds[i]) : psi2(kinds[i]);
                all.push_back({clause, std::move(f)});
            }
        }
    return distinct(std::move(all));
}

std::vector<FactorSet> frequentWinds(const Kinds& kinds, const std::function<double(const ActionKind&)>& psi1,
                                     const std::function<double(const ActionKind&)>& psi2,
                                     const std::string& clause) {
    std::vector<FactorSet> all;
    for (std::size_t w : where(kinds, Nature::Wind)) {
        auto f = permanents(kinds, 1);
        for (std::size_t i : where(kinds, Nature::Imposed)) f[i] = psi2(kinds[i]);
        f[w] = psi1(kinds[w]);
        all.push_back({clause, std::move(f)});
    }
    return all;
}
bool acts(const Kinds& kinds, const FactorSet& set, Nature nature) {
    for (std::size_t i : where(kinds, nature))
        if (set.factors[i] != 0) return true;
    return false;
}

std::vector<FactorSet> aciStrength(const Kinds& kinds) {
    const Groups of(kinds);
    std::vector<FactorSet> all;
    of.add(all, "5.3.1a", 1.4, 0, 0, 0);
    if (of.live)
        for (double r : {0.0, 0.5}) of.add(all, "5.3.1b", 1.2, 1.6, r, 0);
    if (of.roof) {
        of.add(all, "5.3.1c", 1.2, 0, 1.6, 0);
        of.add(all, "5.3.1c", 1.2, 1, 1.6, 0);
        of.add(all, "5.3.1c", 1.2, 0, 1.6, 0.5);
    }
    for (double l : {0.0, 1.0})
        for (double r : {0.0, 0.5}) of.add(all, "5.3.1d", 1.2, l, r, 1);
    of.add(all, "5.3.1f", 0.9, 0, 0, 1);
    for (std::size_t a : where(kinds, Nature::Accidental))
        for (double l : {0.0, 0.5})
            for (double g : {1.2, 0.9}) {
                auto f = of.of(g, g > 1 ? l : 0, 0, 0, 0);
                f[a] = 1;
                all.push_back({"ASCE/SEI 7-16 2.5.2.1", std::move(f)});
            }
    return distinct(std::move(all));
}
std::vector<FactorSet> aciService(const Kinds& kinds) {
    const Groups of(kinds);
    std::vector<FactorSet> all;
    of.add(all, "ASCE/SEI 7-16 2.4.1", 1, 0, 0, 0);
    for (auto [l, r] : {std::pair(1.0, 0.0), {0.0, 1.0}, {0.75, 0.75}})
        of.add(all, "ASCE/SEI 7-16 2.4.1", 1, l, r, 0);
    of.add(all, "ASCE/SEI 7-16 2.4.1", 1, 0, 0, 0.6);
    for (double l : {0.0, 0.75})
        for (double r : {0.0, 0.75}) of.add(all, "ASCE/SEI 7-16 2.4.1", 1, l, r, 0.45);
    return distinct(std::move(all));
}
std::vector<FactorSet> aciStability(const Kinds& kinds) {
    const Groups of(kinds);
    std::vector<FactorSet> all;
    of.add(all, "ASCE/SEI 7-16 2.4.1", 0.6, 0, 0, 0);
    of.add(all, "ASCE/SEI 7-16 2.4.1", 0.6, 0, 0, 0.6);
    for (double l : {0.0, 1.0}) of.add(all, "ASCE/SEI 7-16 2.4.1", 1, l, l, 0);
    for (double l : {0.0, 0.75}) of.add(all, "ASCE/SEI 7-16 2.4.1", 1, l, l, 0.45);
    of.add(all, "ASCE/SEI 7-16 2.4.1", 1, 0, 0, 0.6);
    return distinct(std::move(all));
}

std::vector<FactorSet> bsUltimate(const Kinds& kinds) {
    const Groups of(kinds);
    std::vector<FactorSet> all;
    for (double g : {1.4, 1.0}) {
        of.add(all, "Table 2.1", g, 0, 0, 0);
        if (of.live) of.add(all, "Table 2.1", g, 1.6, 0, 0);
        of.add(all, "Table 2.1", g, 0, 0, 1.4);
    }
    if (of.live) of.add(all, "Table 2.1", 1.2, 1.2, 0, 1.2);
    return distinct(std::move(all));
}
std::vector<FactorSet> isUltimate(const Kinds& kinds) {
    const Groups of(kinds);
    std::vector<FactorSet> all;
    of.add(all, "Table 18", 1.5, 0, 0, 0);
    if (of.live) of.add(all, "Table 18", 1.5, 1.5, 0, 0);
    for (double g : {1.5, 0.9}) of.add(all, "Table 18", g, 0, 0, 1.5);
    if (of.live) of.add(all, "Table 18", 1.2, 1.2, 0, 1.2);
    return distinct(std::move(all));
}
std::vector<FactorSet> isService(const Kinds& kinds) {
    const Groups of(kinds);
    std::vector<FactorSet> all;
    of.add(all, "Table 18", 1, 0, 0, 0);
    if (of.live) of.add(all, "Table 18", 1, 1, 0, 0);
    of.add(all, "Table 18", 1, 0, 0, 1);
    if (of.live) of.add(all, "Table 18", 1, 0.8, 0, 0.8);
    return distinct(std::move(all));
}
std::vector<FactorSet> csaUltimate(const Kinds& kinds) {
    const Groups of(kinds);
    std::vector<FactorSet> all;
    of.add(all, "Table C.1a", 1.4, 0, 0, 0);
    for (double g : {1.25, 0.9}) {
        if (of.live)
            for (double w : {0.0, 0.4}) of.add(all, "Table C.1a", g, 1.5, 0, w);
        for (double l : {0.0, 0.5}) of.add(all, "Table C.1a", g, l, 0, 1.4);
    }
    return distinct(std::move(all));
}

}  // namespace talvik::actions
