#include "reinforcement/demand.h"

#include <algorithm>
#include <cmath>

namespace talvik::reinforcement {
namespace {

using actions::LimitState;

// Largest ultimate load per area on any span.
double ultimateLoad(const analysis::SlabAnalysis& a) {
    double w = 0;
    for (const auto& c : a.combinations)
        if (c.state == LimitState::Ultimate)
            w = std::max(w, c.factorG * a.load.permanent() + c.factorQ * a.load.imposed);
    return w;
}

}  // namespace

Demand demand(const model::OneWaySlab& slab, const analysis::SlabAnalysis& a,
              const standards::Standard& standard) {
    Demand d;
    const std::size_t n = a.stations.size();
    d.bottom.resize(n), d.top.resize(n);
    d.spans.resize(slab.spans.size());
    for (std::size_t i = 0; i < n; ++i) {
        const auto& st = a.stations[i];
        d.bottom[i] = std::max(0.0, a.ultimate.momentMax[i].value);
        d.top[i] = std::max(0.0, -a.ultimate.momentMin[i].value);
        auto& span = d.spans[st.span];
        if (d.bottom[i] > span.moment) span = {d.bottom[i], st.x, st.local, a.ultimate.momentMax[i].by};
    }
    double w = ultimateLoad(a);
    for (std::size_t s = 0; s < slab.supports.size(); ++s) {
        Demand::Support support;
        const double axis = model::axis(slab, s), half = slab.supports[s].width / 2;
        support.x = axis;
        auto take = [&](std::size_t span, double local) {
            auto e = a.momentExtreme(LimitState::Ultimate, false, span, local);
            if (-e.value > support.moment)
                support = {-e.value, model::spanStart(slab, span) + local, span, e.by, false, false};
        };
        const bool first = s == 0 && !slab.cantileverStart,
                   last = s + 1 == slab.supports.size() && !slab.cantileverEnd;
        const std::size_t right = s + slab.cantileverStart;  // span after the support, where there is one
        if (first || last) {
            const std::size_t span = first ? right : right - 1;
            support.moment = standard.detailing->endFixity() * d.spans[span].moment;
            support.x = first ? model::faceBefore(slab, span) : model::faceAfter(slab, span);
            support.span = span;
            support.by = d.spans[span].by;
            support.endFixity = true;
        } else if (slab.supports[s].monolithic) {
            take(right - 1, slab.spans[right - 1].length - half);
            take(right, half);
            for (std::size_t span : {right - 1, right}) {
                if (model::isCantilever(slab, span)) continue;
                double ln = model::clearSpan(slab, span),
                       floor = standard.detailing->supportMomentFloor(w * ln * ln / 12);
                if (floor > support.moment) support.moment = floor, support.floored = true;
            }
        } else {
            take(right, 0);
            const auto& c = a.combinations[support.by.combination];
            double reaction = c.factorG * a.load.permanent() * a.permanent.reaction[right] +
                              c.factorQ * a.load.imposed * a.imposed[support.by.arrangement].reaction[right];
            support.moment = std::max(0.0, support.moment - reaction * 2 * half / 8);
        }
        for (std::size_t i = 0; i < n; ++i)
            if (std::abs(a.stations[i].x - axis) <= half + 0.5) d.top[i] = support.moment;
        d.supports.push_back(support);
    }
    return d;
}

std::vector<double> shifted(const model::OneWaySlab& slab, const analysis::SlabAnalysis& a,
                            const std::vector<double>& m, double shift) {
    const auto& stations = a.stations;
    std::vector<double> out(m.size());
    for (std::size_t i = 0; i < m.size(); ++i) {
        double best = m[i];
        for (std::size_t j = i; j-- > 0 && stations[i].x - stations[j].x <= shift;)
            best = std::max(best, m[j]);
        for (std::size_t j = i + 1; j < m.size() && stations[j].x - stations[i].x <= shift; ++j)
            best = std::max(best, m[j]);
        if (model::isCantilever(slab, stations[i].span)) {
            double v =
                std::max(std::abs(a.ultimate.shearMax[i].value), std::abs(a.ultimate.shearMin[i].value));
            best = std::min(best, m[i] + v * shift);
        }
        out[i] = best;
    }
    return out;
}

}  // namespace talvik::reinforcement
