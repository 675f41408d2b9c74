#include "line/one_way.h"

#include <algorithm>
#include <cmath>

namespace talvik::line {
namespace {

using actions::LimitState;
using analysis::SlabAnalysis;
using model::OneWaySlab;

// Largest ultimate load per area on any span.
double ultimateLoad(const SlabAnalysis& a) {
    double w = 0;
    for (const auto& c : a.combinations)
        if (c.state == LimitState::Ultimate)
            w = std::max(w, c.factorG * a.load.permanent() + c.factorQ * a.load.imposed);
    return w;
}

class Maker {
  public:
    Maker(const OneWaySlab& slab, const SlabAnalysis& a, const standards::Standard& standard)
        : slab_(slab), a_(a), standard_(standard) {}

    OneWayLine run() {
        l_.line = lineOf(slab_);
        stations();
        for (std::size_t s = 0; s < slab_.supports.size(); ++s) support(s);
        service();
        return std::move(l_);
    }

  private:
    const OneWaySlab& slab_;
    const SlabAnalysis& a_;
    const standards::Standard& standard_;
    OneWayLine l_;

    bool over(std::size_t support, double x) const {
        return std::abs(x - model::axis(slab_, support)) <= slab_.supports[support].width / 2 + 0.5;
    }

    // What the envelopes say, before anything is taken off.
    void stations() {
        auto& d = l_.demand;
        l_.spans.resize(slab_.spans.size());
        for (std::size_t i = 0; i < a_.stations.size(); ++i) {
            const auto& st = a_.stations[i];
            Station s;
            s.u = st.x, s.span = int(st.span);
            for (std::size_t k = 0; k < slab_.supports.size(); ++k)
                if (over(k, st.x)) s.support = int(k);
            s.width = 1, s.thickness = s.leastThickness = slab_.thickness;
            s.share[0] = s.share[1] = 1;
            l_.stations.push_back(s);
            const auto& e = a_.ultimate;
            auto entry = [&](double value, analysis::Governing by) { return Extreme{value, a_.number(by)}; };
            d.bottom.push_back(entry(std::max(0.0, e.momentMax[i].value), e.momentMax[i].by));
            d.top.push_back(entry(std::max(0.0, -e.momentMin[i].value), e.momentMin[i].by));
            d.most.push_back(entry(e.momentMax[i].value, e.momentMax[i].by));
            d.least.push_back(entry(e.momentMin[i].value, e.momentMin[i].by));
            const auto& v = std::abs(e.shearMax[i].value) >= std::abs(e.shearMin[i].value) ? e.shearMax[i]
                                                                                           : e.shearMin[i];
            d.shear.push_back(entry(std::abs(v.value), v.by));
            d.shearHogs.push_back(a_.moment(v.by, st.span, st.local) < 0);
            auto& span = l_.spans[st.span];
            if (d.bottom[i].value > span.moment)
                span = {d.bottom[i].value, st.x, st.local, e.momentMax[i].by};
        }
    }

    void support(std::size_t s) {
        OneWayLine::SupportMoment support;
        const double half = slab_.supports[s].width / 2;
        support.x = model::axis(slab_, s);
        auto take = [&](std::size_t span, double local) {
            auto e = a_.momentExtreme(LimitState::Ultimate, false, span, local);
            if (-e.value > support.moment)
                support = {-e.value, model::spanStart(slab_, span) + local, span, e.by, false, false};
        };
        const bool first = s == 0 && !slab_.cantileverStart,
                   last = s + 1 == slab_.supports.size() && !slab_.cantileverEnd;
        const std::size_t right = s + slab_.cantileverStart;  // span after the support, where there is one
        if (first || last) {
            const std::size_t span = first ? right : right - 1;
            support.moment = standard_.supports->endFixity() * l_.spans[span].moment;
            support.x = first ? model::faceBefore(slab_, span) : model::faceAfter(slab_, span);
            support.span = span;
            support.by = l_.spans[span].by;
            support.endFixity = true;
        } else if (slab_.supports[s].monolithic) {
            take(right - 1, slab_.spans[right - 1].length - half);
            take(right, half);
            const double w = ultimateLoad(a_);
            for (std::size_t span : {right - 1, right}) {
                if (model::isCantilever(slab_, span)) continue;
                double ln = model::clearSpan(slab_, span),
                       least = standard_.supports->momentFloor(w * ln * ln / 12);
                if (least > support.moment) support.moment = least, support.floored = true;
            }
        } else {
            take(right, 0);
            const auto& c = a_.combinations[std::size_t(support.by.combination)];
            double reaction =
                c.factorG * a_.load.permanent() * a_.permanent.reaction[right] +
                c.factorQ * a_.load.imposed * a_.imposed[std::size_t(support.by.arrangement)].reaction[right];
            support.moment =
                std::max(0.0, support.moment - standard_.supports->roundedOff(reaction, 2 * half));
        }
        for (std::size_t i = 0; i < l_.stations.size(); ++i)
            if (l_.stations[i].support == int(s)) l_.demand.top[i] = {support.moment, a_.number(support.by)};
        l_.supports.push_back(support);
    }

    // Moments of the crack rule's state; over a support the larger of those at its faces.
    void service() {
        auto& d = l_.demand;
        const auto state = standard_.cracks->state();
        const auto& e = a_.envelope(state);
        for (std::size_t i = 0; i < l_.stations.size(); ++i) {
            d.bottomService.push_back({std::max(0.0, e.momentMax[i].value), a_.number(e.momentMax[i].by)});
            d.topService.push_back({std::max(0.0, -e.momentMin[i].value), a_.number(e.momentMin[i].by)});
        }
        for (std::size_t s = 0; s < slab_.supports.size(); ++s) {
            const double half = slab_.supports[s].width / 2;
            const std::size_t right = s + slab_.cantileverStart;
            Extreme most;
            auto take = [&](std::size_t span, double local) {
                auto at = a_.momentExtreme(state, false, span, local);
                if (-at.value > most.value) most = {-at.value, a_.number(at.by)};
            };
            if (right > 0) take(right - 1, slab_.spans[right - 1].length - half);
            if (right < slab_.spans.size()) take(right, half);
            for (std::size_t i = 0; i < l_.stations.size(); ++i)
                if (l_.stations[i].support == int(s)) d.topService[i] = most;
        }
    }
};

}  // namespace

Line lineOf(const OneWaySlab& slab) {
    Line line;
    line.from = model::concreteStart(slab), line.to = model::concreteEnd(slab);
    line.alone = true;
    for (std::size_t s = 0; s < slab.supports.size(); ++s) {
        const auto& from = slab.supports[s];
        Support support;
        support.kind = from.kind == model::Support::Kind::Wall ? Support::Kind::Wall : Support::Kind::Beam;
        support.id = from.id, support.name = model::supportLabel(slab, s);
        support.u = model::axis(slab, s);
        support.from = support.u - from.width / 2, support.to = support.u + from.width / 2;
        support.turns = !from.monolithic;
        line.supports.push_back(support);
    }
    for (std::size_t i = 0; i < slab.spans.size(); ++i) {
        Span span;
        span.id = slab.spans[i].id, span.name = model::spanLabel(slab, i);
        span.left = model::supportBefore(slab, i), span.right = model::supportAfter(slab, i);
        span.from = model::spanStart(slab, i), span.to = span.from + slab.spans[i].length;
        span.clearFrom = model::faceBefore(slab, i), span.clearTo = model::faceAfter(slab, i);
        for (int e : {0, 1}) {
            const bool goesOn = e == 0 ? i > 0 : i + 1 < slab.spans.size();
            span.ends[e] = (e == 0 ? span.left : span.right) < 0 ? EndCondition::Cantilever
                           : goesOn                              ? EndCondition::Continuous
                                                                 : EndCondition::OnBeam;
        }
        line.spans.push_back(span);
    }
    return line;
}

OneWayLine lineOf(const OneWaySlab& slab, const SlabAnalysis& a, const standards::Standard& standard) {
    return Maker(slab, a, standard).run();
}

}  // namespace talvik::line
