#include "analysis/slab_analysis.h"

#include <algorithm>
#include <cmath>
#include <utility>

namespace talvik::analysis {
namespace {

constexpr int intervals = 40;  // stations per span, besides the faces of supports

std::vector<Station> makeStations(const model::OneWaySlab& slab, const model::Basis& basis) {
    std::vector<Station> all;
    for (std::size_t i = 0; i < slab.spans.size(); ++i) {
        double x0 = model::spanStart(slab, i), L = slab.spans[i].length;
        std::vector<double> at;
        for (int k = 0; k <= intervals; ++k) at.push_back(L * k / intervals);
        for (double face : {model::faceBefore(slab, i) - x0, model::faceAfter(slab, i) - x0})
            if (face > 0 && face < L) at.push_back(face);
        const Between shear = shearChecked(slab, basis, i);
        at.push_back(shear.from), at.push_back(shear.to);
        std::sort(at.begin(), at.end());
        at.erase(std::unique(at.begin(), at.end(), [](double a, double b) { return b - a < 0.1; }), at.end());
        for (double local : at) all.push_back({x0 + local, i, local});
    }
    return all;
}

double totalLoad(const fem::Beam& beam, const std::vector<double>& load) {
    double sum = 0;
    for (std::size_t i = 0; i < load.size(); ++i) sum += load[i] * beam.spans[i].length;
    return sum;
}

// Calls f(governing) for each combination of the state with each arrangement; combinations without imposed
// load once.
template <class F>
void forEach(const SlabAnalysis& a, actions::LimitState state, F f) {
    for (int c = 0; c < static_cast<int>(a.combinations.size()); ++c) {
        if (a.combinations[c].state != state) continue;
        int arrangements = a.combinations[c].factorQ == 0 ? 1 : static_cast<int>(a.arrangements.size());
        for (int r = 0; r < arrangements; ++r) f(Governing{c, r});
    }
}

void raise(Extreme& e, double value, Governing by) {
    if (value > e.value) e = {value, by};
}
void lower(Extreme& e, double value, Governing by) {
    if (value < e.value) e = {value, by};
}

Envelope makeEnvelope(const SlabAnalysis& a, actions::LimitState state) {
    Envelope e;
    std::size_t n = a.stations.size();
    e.momentMax.assign(n, {-HUGE_VAL, {}}), e.momentMin.assign(n, {HUGE_VAL, {}});
    e.shearMax.assign(n, {-HUGE_VAL, {}}), e.shearMin.assign(n, {HUGE_VAL, {}});
    forEach(a, state, [&](Governing by) {
        for (std::size_t i = 0; i < n; ++i) {
            double m = a.moment(by, a.stations[i].span, a.stations[i].local),
                   v = a.shear(by, a.stations[i].span, a.stations[i].local);
            raise(e.momentMax[i], m, by), lower(e.momentMin[i], m, by);
            raise(e.shearMax[i], v, by), lower(e.shearMin[i], v, by);
        }
    });
    return e;
}

}  // namespace

Loads loads(const model::OneWaySlab& slab, const model::Basis& basis) {
    Loads l{slab.thickness * basis.concreteDensity, 0, slab.otherDead, slab.imposed};
    for (const auto& layer : slab.finishes) l.finishes += layer.thickness * layer.density;
    return l;
}

Between shearChecked(const model::OneWaySlab& slab, const model::Basis& basis, std::size_t span) {
    const double d = slab.thickness - basis.coverTop - model::largestBar(basis) / 2,
                 L = slab.spans[span].length;
    const int before = model::supportBefore(slab, span), after = model::supportAfter(slab, span);
    auto half = [&](int support) { return slab.supports[std::size_t(support)].width / 2; };
    // Towards a tip there is no support to stay away from.
    const double least = before < 0 ? 0 : half(before) + d, most = after < 0 ? L : L - half(after) - d;
    if (before < 0) return {0, std::max(most, 0.0)};
    if (after < 0) return {std::min(least, L), L};
    return {std::min(least, L / 2), std::max(most, L / 2)};
}

const Envelope& SlabAnalysis::envelope(actions::LimitState state) const {
    switch (state) {
        case actions::LimitState::Ultimate:
            return ultimate;
        case actions::LimitState::Characteristic:
            return characteristic;
        case actions::LimitState::Frequent:
            return frequent;
        case actions::LimitState::QuasiPermanent:
            return quasiPermanent;
    }
    return ultimate;
}

double SlabAnalysis::moment(Governing by, std::size_t span, double local) const {
    const auto& c = combinations[by.combination];
    return c.factorG * load.permanent() * permanent.moment(span, local) +
           c.factorQ * load.imposed * imposed[by.arrangement].moment(span, local);
}
double SlabAnalysis::shear(Governing by, std::size_t span, double local) const {
    const auto& c = combinations[by.combination];
    return c.factorG * load.permanent() * permanent.shear(span, local) +
           c.factorQ * load.imposed * imposed[by.arrangement].shear(span, local);
}

Extreme SlabAnalysis::momentExtreme(actions::LimitState state, bool largest, std::size_t span,
                                    double local) const {
    Extreme e{largest ? -HUGE_VAL : HUGE_VAL, {}};
    forEach(*this, state, [&](Governing by) {
        double m = moment(by, span, local);
        largest ? raise(e, m, by) : lower(e, m, by);
    });
    return e;
}

Extreme SlabAnalysis::shearExtreme(actions::LimitState state, std::size_t span, double local) const {
    Extreme e{-1, {}};
    forEach(*this, state, [&](Governing by) { raise(e, std::abs(shear(by, span, local)), by); });
    return e;
}

std::string SlabAnalysis::name(Governing by) const {
    const auto& c = combinations[by.combination];
    return c.factorQ == 0 ? c.name : c.name + " on " + arrangements[by.arrangement].name;
}

std::uint16_t SlabAnalysis::number(Governing by) const {
    return std::uint16_t(by.combination * int(arrangements.size()) + by.arrangement);
}
Governing SlabAnalysis::governing(std::uint16_t number) const {
    const int each = int(arrangements.size());
    return {number / each, number % each};
}

SlabAnalysis analyse(const model::OneWaySlab& slab, const model::Basis& basis,
                     const std::vector<actions::Combination>& combinations) {
    SlabAnalysis a;
    a.load = loads(slab, basis);
    a.combinations = combinations;
    std::vector<std::string> names;
    std::size_t n = slab.spans.size();
    for (std::size_t i = 0; i < n; ++i) {
        names.push_back(model::spanLabel(slab, i));
        a.beam.spans.push_back({slab.spans[i].length, 1.0});
    }
    a.beam.supported.assign(n + 1, true);
    if (slab.cantileverStart) a.beam.supported.front() = false;
    if (slab.cantileverEnd) a.beam.supported.back() = false;
    a.arrangements = actions::spanArrangements(names);

    std::vector<std::vector<double>> cases{std::vector<double>(n, 1.0)};
    for (const auto& arrangement : a.arrangements)
        cases.emplace_back(arrangement.loaded.begin(), arrangement.loaded.end());
    for (std::size_t i = 0; i < n; ++i) cases.emplace_back(n, 0.0)[i] = 1;
    fem::BeamResult solved = fem::solve(a.beam, cases);
    if (!solved.error.empty()) {
        a.error = solved.error;
        return a;
    }
    for (const auto& s : solved.cases) {
        double sum = 0, load = totalLoad(a.beam, s.load);
        for (double r : s.reaction) sum += r;
        if (load > 0) a.imbalance = std::max(a.imbalance, std::abs(sum - load) / load);
    }
    a.permanent = solved.cases.front();
    const auto single = solved.cases.end() - static_cast<std::ptrdiff_t>(n);  // each span by itself
    a.imposed.assign(std::make_move_iterator(solved.cases.begin() + 1), std::make_move_iterator(single));
    a.stations = makeStations(slab, basis);
    using actions::LimitState;
    for (auto [state, target] : {std::pair{LimitState::Ultimate, &a.ultimate},
                                 std::pair{LimitState::Characteristic, &a.characteristic},
                                 std::pair{LimitState::Frequent, &a.frequent},
                                 std::pair{LimitState::QuasiPermanent, &a.quasiPermanent}})
        *target = makeEnvelope(a, state);

    for (std::size_t s = 0; s < slab.supports.size(); ++s) {
        std::size_t node = s + slab.cantileverStart;
        Reaction r;
        r.permanent = a.load.permanent() * a.permanent.reaction[node];
        for (auto one = single; one != solved.cases.end(); ++one) r.perSpan.push_back(one->reaction[node]);
        for (const auto& q : a.imposed) {
            r.imposedMax = std::max(r.imposedMax, a.load.imposed * q.reaction[node]);
            r.imposedMin = std::min(r.imposedMin, a.load.imposed * q.reaction[node]);
        }
        r.ultimateMax.value = -HUGE_VAL, r.ultimateMin.value = HUGE_VAL;
        forEach(a, LimitState::Ultimate, [&](Governing by) {
            const auto& c = combinations[by.combination];
            double value = c.factorG * r.permanent +
                           c.factorQ * a.load.imposed * a.imposed[by.arrangement].reaction[node];
            raise(r.ultimateMax, value, by), lower(r.ultimateMin, value, by);
        });
        a.reactions.push_back(r);
    }
    return a;
}

}  // namespace talvik::analysis
