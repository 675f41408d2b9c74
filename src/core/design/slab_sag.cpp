#include "design/slab_sag.h"

#include <fmt/format.h>

#include <algorithm>

#include "fem/beam/continuous_beam.h"

namespace talvik::design {
namespace {

using actions::LimitState;
using analysis::Governing;
using checks::Finding;
using standards::SagLimit;
using trace::Steps;
using units::Kind;

class Sags {
  public:
    Sags(const model::OneWaySlab& slab, const verify::LineCase& of, const SlabDesign& d, bool tracing)
        : slab_(slab),
          of_(of),
          in_(of.in),
          rules_(*of.in.standard.sag),
          a_(d.analysis),
          d_(d),
          tracing_(tracing),
          b_(of.in.workedWidth()),
          usual_(model::largestBar(in_.basis)) {}

    struct Answer {
        SpanSag sag;
        bool within = true;
    };
    Answer span(std::size_t i, verify::CheckList& list) const {
        const bool cantilever = model::isCantilever(slab_, i);
        const double L = slab_.spans[i].length;
        double critical = cantilever ? (i == 0 ? L : 0) : d_.line.spans[i].local;
        if (!cantilever && d_.line.spans[i].moment <= 0) critical = L / 2;
        const double x = model::spanStart(slab_, i) + critical;
        const auto steel = bars::steelAt(d_.runs, cantilever, x, 1);
        const auto sec =
            line::section(cantilever, steel.diameter > 0 ? steel.diameter : usual_, slab_.thickness, in_, b_);

        const Governing sustained = worst(rules_.sustainedState(), i, critical);
        const Governing total = worst(LimitState::Characteristic, i, critical);
        Steps sagSteps;
        standards::SagInput input{sec, stations(i, sustained, total), in_.basis.creep, in_.basis.shrinkage,
                                  cantilever};
        const auto curvature = rules_.curvatures(input, tracer(sagSteps));
        standards::Curvatures beside;
        standards::SagInput besideInput;
        if (cantilever) {
            besideInput = {sec, stations(i == 0 ? 1 : i - 1, sustained, total), in_.basis.creep,
                           in_.basis.shrinkage, false};
            beside = rules_.curvatures(besideInput);
        }
        Answer out;
        SpanSag& sag = out.sag;
        sag.x = positions(input);
        const auto besideX = positions(besideInput);
        auto curve = [&](const std::vector<double>& k, const std::vector<double>& kBeside) {
            return k.empty() ? std::vector<double>{} : sagLine(i, sag.x, k, besideX, kBeside);
        };
        sag.total = curve(curvature.total, beside.total);
        sag.after = curve(curvature.after, beside.after);
        sag.live = curve(curvature.live, beside.live);
        if (!sag.total.empty()) {
            const auto p = std::max_element(sag.total.begin(), sag.total.end());
            sag.largest = *p, sag.at = sag.x[std::size_t(p - sag.total.begin())];
        }
        out.within = steel.diameter > 0;
        for (const auto& limit : sagLimits(rules_, in_.basis)) {
            const auto& w = limit.which == SagLimit::Which::Total   ? sag.total
                            : limit.which == SagLimit::Which::After ? sag.after
                                                                    : sag.live;
            if (w.empty()) continue;
            const auto p = std::max_element(w.begin(), w.end());
            Finding f;
            f.kind = Kind::Sag, f.prefix = "w";
            f.clause = limit.clause;
            f.demand = std::max(0.0, *p);
            Steps steps = sagSteps;
            f.limit = trace::step(tracer(steps), "w_lim", "l/n", {{"l", L, "mm"}, {"n", limit.spanOver}},
                                  L / limit.spanOver, "mm", limit.clause,
                                  cantilever ? "l of a cantilever is its length" : "");
            if (tracing_)
                trace::step(&steps, "w", "", {}, f.demand, "mm", limit.clause,
                            "by integrating the curvatures along the span twice");
            f.notes = curvature.notes;
            if (limit.which == SagLimit::Which::Total) {
                if (steel.diameter > 0) sag.limit = f.limit;
                sag.camber = units::roundUp(std::max(0.0, f.demand - f.limit), 5);
                if (sag.camber > 0)
                    f.here.push_back(
                        fmt::format("A precamber of {} mm would bring the deflection within its limit.",
                                    units::plain(sag.camber)));
            }
            f = steel.diameter == 0 ? checks::notChecked(limit.clause, "There are no bars in this span yet.")
                                    : checks::judged(f);
            out.within = out.within && f.outcome == checks::Outcome::Within;
            list.add({name(limit.which), limit.title, checks::Topic::Sag, std::move(f), std::move(steps)},
                     verify::at(of_, verify::spanPlace(of_, i), sag.x[std::size_t(p - w.begin())]),
                     a_.name(sustained));
        }
        return out;
    }

  private:
    const model::OneWaySlab& slab_;
    const verify::LineCase& of_;
    const line::LineBasis& in_;
    const standards::SagRules& rules_;
    const analysis::SlabAnalysis& a_;
    const SlabDesign& d_;
    bool tracing_;
    double b_, usual_;

    Steps* tracer(Steps& steps) const { return tracing_ ? &steps : nullptr; }
    static const char* name(SagLimit::Which which) {
        return which == SagLimit::Which::Live    ? "sag-live"
               : which == SagLimit::Which::Total ? "sag-total"
                                                 : "sag-after";
    }
    static std::vector<double> positions(const standards::SagInput& input) {
        std::vector<double> xs;
        for (const auto& s : input.stations) xs.push_back(s.x);
        return xs;
    }

    std::vector<standards::SagStation> stations(std::size_t span, Governing sustained,
                                                Governing total) const {
        // Finer than the analysis stations: the curvature jumps where the section begins to crack.
        constexpr int intervals = 320;
        std::vector<standards::SagStation> all;
        const double start = model::spanStart(slab_, span), L = slab_.spans[span].length;
        auto depth = [&](bool top, const bars::Steel& steel) {
            return line::section(top, steel.diameter > 0 ? steel.diameter : usual_, slab_.thickness, in_, b_)
                .d;
        };
        for (int i = 0; i <= intervals; ++i) {
            const double local = L * i / intervals, permanent = a_.permanent.moment(span, local);
            const auto bottom = bars::steelAt(d_.runs, false, start + local, 1),
                       top = bars::steelAt(d_.runs, true, start + local, 1);
            standards::SagStation s;
            s.x = start + local;
            s.mSustained = a_.moment(sustained, span, local) * b_;
            s.mTotal = a_.moment(total, span, local) * b_;
            s.mPermanent = a_.load.permanent() * permanent * b_;
            s.mBefore = a_.load.self * permanent * b_;
            s.asBottom = bottom.effective * b_, s.dBottom = depth(false, bottom);
            s.asTop = top.effective * b_, s.dTop = slab_.thickness - depth(true, top);
            all.push_back(s);
        }
        return all;
    }

    // Deflection line of a span from curvatures: between supports, or out from the support of a cantilever
    // with the end slope of the span beside it under the same loads.
    std::vector<double> sagLine(std::size_t span, const std::vector<double>& x, const std::vector<double>& k,
                                const std::vector<double>& besideX,
                                const std::vector<double>& besideK) const {
        if (!model::isCantilever(slab_, span)) return fem::integrateBetweenSupports(x, k).w;
        auto beside = fem::integrateBetweenSupports(besideX, besideK);
        if (span > 0) return fem::integrateFrom(beside.slopeEnd, x, k);
        std::vector<double> mirroredX, mirroredK(k.rbegin(), k.rend());
        for (auto it = x.rbegin(); it != x.rend(); ++it) mirroredX.push_back(-*it);
        auto w = fem::integrateFrom(-beside.slopeStart, mirroredX, mirroredK);
        std::reverse(w.begin(), w.end());
        return w;
    }

    // The combination and arrangement for a span's sag: largest moment in a span; in a cantilever, whose
    // moment is the same under many arrangements, the largest elastic sag of its tip.
    Governing worst(LimitState state, std::size_t span, double critical) const {
        Governing by = a_.momentExtreme(state, !model::isCantilever(slab_, span), span, critical).by;
        if (!model::isCantilever(slab_, span)) return by;
        const std::size_t tip = span == 0 ? 0 : slab_.spans.size();
        double most = 0;
        for (std::size_t r = 0; r < a_.imposed.size(); ++r) {
            double sag = a_.imposed[r].deflection[tip];
            if (r == 0 || sag > most + 1e-9 * std::abs(most))
                most = sag, by.arrangement = static_cast<int>(r);
        }
        return by;
    }
};

// Ends the clause of a limit that the basis sets otherwise than the standard.
constexpr const char* ownLimit = ", as set in Basis";

}  // namespace

std::vector<SagLimit> sagLimits(const standards::SagRules& rules, const model::Basis& basis) {
    static const model::Basis usual;
    auto all = rules.limits();
    for (auto& limit : all) {
        const bool total = limit.which == SagLimit::Which::Total,
                   after = limit.which == SagLimit::Which::After;
        const double own = total ? basis.sagLimit : basis.sagLimitAfter;
        if ((total || after) && own != (total ? usual.sagLimit : usual.sagLimitAfter))
            limit.spanOver = own, limit.clause += ownLimit;
    }
    return all;
}

void spareSags(std::vector<checks::Check>& all, const std::string& clause,
               const std::function<bool(const checks::Check&)>& spared, units::System system) {
    if (clause.empty()) return;
    for (auto& c : all) {
        if (c.topic != checks::Topic::Sag || c.outcome != checks::Outcome::Over || !spared(c) ||
            c.clause.ends_with(ownLimit))
            continue;
        const double demand = c.demand, limit = c.limit;
        c.outcome = checks::Outcome::NotApplicable;
        c.reason = fmt::format(
            "Span/depth is within its limit, so that no deflection calculation is required ({}). Computed: "
            "{}, more than the {} that would apply otherwise.",
            clause, units::text(demand, units::Kind::Sag, system),
            units::text(limit, units::Kind::Sag, system));
    }
}

std::vector<char> checkSags(const model::OneWaySlab& slab, const verify::LineCase& of, SlabDesign& d,
                            verify::CheckList& list, bool tracing) {
    std::vector<char> within;
    for (std::size_t i = 0; i < slab.spans.size(); ++i) {
        auto answer = Sags(slab, of, d, tracing).span(i, list);
        within.push_back(answer.within);
        d.camber = std::max(d.camber, answer.sag.camber);
        d.sag.push_back(std::move(answer.sag));
    }
    return within;
}

}  // namespace talvik::design
