// Moment coefficients beside the analysis.
#include <algorithm>
#include <cmath>

#include "design/slab_checks.h"

namespace talvik::design {

SecondOpinion secondOpinion(const model::OneWaySlab& slab, const standards::Standard& standard,
                            const SlabDesign& d) {
    standards::ActionRules::Spans in;
    std::vector<std::size_t> index;
    for (std::size_t i = 0; i < slab.spans.size(); ++i) {
        if (model::isCantilever(slab, i)) continue;
        index.push_back(i);
        in.lengths.push_back(slab.spans[i].length);
        in.clear.push_back(model::clearSpan(slab, i));
        in.area = in.area == 0 ? slab.spans[i].length * slab.width
                               : std::min(in.area, slab.spans[i].length * slab.width);
    }
    in.cantileverStart = slab.cantileverStart, in.cantileverEnd = slab.cantileverEnd;
    in.permanent = d.analysis.load.permanent(), in.imposed = d.analysis.load.imposed;
    in.edgeBeams = slab.supports.front().monolithic && slab.supports.back().monolithic;
    auto c = standard.actions->coefficients(in);
    SecondOpinion so;
    so.source = c.source, so.refusal = c.refusal, so.note = c.note;
    if (!c.refusal.empty()) return so;
    double w = 0;
    for (const auto& k : d.analysis.combinations)
        if (k.state == actions::LimitState::Ultimate)
            w = std::max(w, k.factorG * d.analysis.load.permanent() + k.factorQ * d.analysis.load.imposed);
    auto square = [](double v) { return v * v; };
    const auto& l = c.onClearSpan ? in.clear : in.lengths;
    for (std::size_t s = 0; s <= index.size(); ++s) {
        if (s < c.support.size() && std::isfinite(c.support[s]) && d.line.supports[s].moment > 0 &&
            !d.line.supports[s].endFixity) {
            double mean = s == 0 ? l[0] : s == index.size() ? l[s - 1] : (l[s - 1] + l[s]) / 2;
            so.rows.push_back({c.source, "support " + model::supportLabel(slab, s),
                               -d.line.supports[s].moment, c.support[s] * w * square(mean),
                               units::Kind::MomentPerWidth});
        }
        if (s < index.size() && std::isfinite(c.span[s]))
            so.rows.push_back({c.source, "span " + model::spanLabel(slab, index[s]),
                               d.line.spans[index[s]].moment, c.span[s] * w * square(l[s]),
                               units::Kind::MomentPerWidth});
    }
    return so;
}

}  // namespace talvik::design
