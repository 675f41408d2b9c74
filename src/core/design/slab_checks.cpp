#include "design/slab_checks.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "design/bar_checks.h"
#include "design/support_checks.h"
#include "design/working.h"
#include "fem/beam/continuous_beam.h"
#include "reinforcement/bar_choices.h"
#include "reinforcement/coverage.h"
#include "reinforcement/proposal.h"

namespace talvik::design {
namespace {

using actions::LimitState;
using analysis::Governing;
using checks::Check;
using checks::Finding;
using checks::Outcome;
using standards::DetailingRules;
using trace::Steps;
using units::Kind;

class Checker {
  public:
    Checker(const model::OneWaySlab& slab, const model::Basis& basis, const standards::Standard& standard,
            SlabDesign& d, const Options& options)
        : slab_(slab),
          basis_(basis),
          standard_(standard),
          d_(d),
          a_(d.analysis),
          coverage_(slab, basis, standard),
          tracing_(options.trace),
          b_(standard.nativeUnits == units::System::Metric ? 1000 : 304.8) {}

    void run() {
        resistances();
        for (std::size_t i = 0; i < slab_.spans.size(); ++i) {
            if (!model::isCantilever(slab_, i)) face(false, i);
            shear(i);
            stiffness(i);
        }
        for (std::size_t s = 0; s < slab_.supports.size(); ++s) {
            face(true, s);
            endAnchorage(s);
            through(s);
            uplift(s);
        }
        secondary();
        omissions();
        firstThickness();
    }

  private:
    // A check under construction: `finding` is judged by whoever makes it.
    void add(std::string name, std::string title, checks::Place place, Finding finding, Steps steps = {},
             std::string combination = {}) {
        Check c;
        static_cast<Finding&>(c) = std::move(finding);
        c.key = slab_.id + "/" + (place.partId.empty() ? "" : place.partId + "/") + std::move(name);
        c.title = std::move(title);
        c.place = std::move(place);
        c.steps = withoutRepeats(std::move(steps));
        c.combination = std::move(combination);
        d_.checks.push_back(std::move(c));
    }
    Steps* tracer(Steps& steps) const { return tracing_ ? &steps : nullptr; }

    checks::Place spanPlace(std::size_t i, double x) const {
        return {slab_.id, "span " + model::spanLabel(slab_, i), slab_.spans[i].id,
                x,        model::spanStart(slab_, i),           model::spanStart(slab_, i + 1)};
    }
    checks::Place supportPlace(std::size_t s, double x) const {
        double axis = model::axis(slab_, s), half = slab_.supports[s].width / 2;
        return {slab_.id,   "support " + model::supportLabel(slab_, s), slab_.supports[s].id, x, axis - half,
                axis + half};
    }

    double largestBar() const { return reinforcement::largestBar(basis_); }
    standards::Section sectionFor(bool top, const reinforcement::SteelAt& steel) const {
        return reinforcement::section(top, steel.diameter > 0 ? steel.diameter : largestBar(), slab_, basis_,
                                      b_);
    }

    // Resistance lines and the shifted demand at every station.
    void resistances() {
        for (bool top : {false, true}) {
            auto& line = top ? d_.resistanceTop : d_.resistanceBottom;
            double shift = 0;
            for (const auto& st : a_.stations) {
                auto steel = coverage_.at(top, st.x);
                auto sec = sectionFor(top, steel);
                line.push_back(steel.effective > 0
                                   ? standard_.flexure->resistance(sec, steel.effective * b_, 0).M / b_
                                   : 0);
                shift = std::max(shift, standard_.detailing->momentShift(sec.d, steel.diameter));
            }
            (top ? d_.shiftedTop : d_.shiftedBottom) =
                reinforcement::shifted(slab_, a_, top ? d_.demand.top : d_.demand.bottom, shift);
        }
    }

    // Everything about the tension steel of one face: bottom of a span, top over a support.
    void face(bool top, std::size_t index) {
        const auto& support = top ? d_.demand.supports[index] : reinforcement::Demand::Support{};
        double moment = top ? support.moment : d_.demand.spans[index].moment;
        double x = top ? support.x : d_.demand.spans[index].x;
        if (!top && moment <= 0) x = model::spanStart(slab_, index) + slab_.spans[index].length / 2;
        Governing by = top ? support.by : d_.demand.spans[index].by;
        checks::Place place = top ? supportPlace(index, x) : spanPlace(index, x);
        const std::string side = top ? "top" : "bottom", where = place.part;
        auto steel = coverage_.at(top, x);
        auto sec = sectionFor(top, steel);
        const double As = steel.effective * b_;
        const std::string combination = a_.name(by);
        if (moment <= 1e-9 && steel.diameter == 0) return;
        if (moment > 1e-9) {
            Steps steps;
            Finding f;
            f.kind = Kind::MomentPerWidth;
            f.clause = standard_.flexure->clause();
            f.prefix = "m";
            auto need = standard_.flexure->required(sec, moment * b_, tracer(steps));
            auto resistance = standard_.flexure->resistance(sec, As, 0, tracer(steps));
            f.demand = moment;
            f.limit = resistance.M / b_;
            if (!need.possible)
                f.notes.push_back(
                    "No amount of steel resists this moment in this depth: make the slab thicker.");
            else if (need.doubly)
                f.notes.push_back(
                    "Tension steel alone does not do at this depth: make the slab thicker or the concrete "
                    "stronger.");
            if (steel.effective < steel.full * 0.999)
                f.notes.push_back(fmt::format("The bars are anchored here to {:.0f} %.",
                                              100 * steel.effective / steel.full));
            if (top && support.endFixity)
                f.notes.push_back(
                    "For unintended fixity at a support taken as simple: a share of the span moment (" +
                    standard_.detailing->clauses().endTop + ").");
            else if (top && support.floored)
                f.notes.push_back(
                    "The least share of the span's full fixed-end moment, w l_n²/12, governs at the face.");
            else if (top && slab_.supports[index].monolithic)
                f.notes.push_back("Taken at the face of the support, which is cast with the slab.");
            add("flexure-" + side, "Flexure " + side + ", " + where, place, checks::judged(f), steps,
                combination);
        }
        if (steel.diameter > 0) bars(top, index, place, sec, steel);
        curtailment(top, index, place);
    }

    void bars(bool top, std::size_t index, const checks::Place& place, const standards::Section& sec,
              const reinforcement::SteelAt& steel) {
        const std::string side = top ? "top" : "bottom", where = place.part;
        const double As = steel.full * b_, cover = top ? basis_.coverTop : basis_.coverBottom;
        auto service = reinforcement::crackMoment(slab_, standard_, a_, top, index);
        for (auto& c :
             barChecks(sec, {steel.full, steel.spacing, steel.spacing, steel.diameter}, basis_, standard_,
                       service.moment > 0 ? (top ? basis_.crackLimitTop : basis_.crackLimitBottom) : 0, false,
                       tracing_))
            add(c.name + "-" + side, c.title + " " + side + ", " + where, place, std::move(c.finding),
                std::move(c.steps));
        Steps steps;
        standards::CrackInput crack{sec,
                                    service.moment * b_,
                                    As,
                                    steel.diameter,
                                    steel.spacing,
                                    cover,
                                    basis_.creep,
                                    top ? basis_.crackLimitTop : basis_.crackLimitBottom};
        auto width = standard_.service->crack(crack, tracer(steps));
        add("crack-" + side, "Crack control " + side + ", " + where, place, width, std::move(steps),
            service.moment > 0 ? a_.name(service.by) : "");
    }

    // The last stretch of a cantilever, where bars have ended at the cover and U-bars close the edge.
    bool nearFreeTip(double x) const {
        double reach = basis_.coverSide + 50;
        return (slab_.cantileverStart && x < model::concreteStart(slab_) + reach) ||
               (slab_.cantileverEnd && x > model::concreteEnd(slab_) - reach);
    }

    // The resistance of the bars, as anchored, against the shifted moment along the part.
    void curtailment(bool top, std::size_t index, const checks::Place& place) {
        double from = place.from, to = place.to;
        if (top) {  // to the middle of the neighbouring spans, whole cantilevers
            std::size_t right = index + slab_.cantileverStart;
            if (right > 0)
                from = model::spanStart(slab_, right - 1) +
                       (model::isCantilever(slab_, right - 1) ? 0 : slab_.spans[right - 1].length / 2);
            if (right < slab_.spans.size())
                to = model::spanStart(slab_, right) +
                     slab_.spans[right].length / (model::isCantilever(slab_, right) ? 1 : 2);
            if (d_.demand.supports[index].endFixity) return;
        }
        const auto &line = top ? d_.resistanceTop : d_.resistanceBottom,
                   &need = top ? d_.shiftedTop : d_.shiftedBottom;
        std::size_t worst = a_.stations.size();
        double worstRatio = -1;
        double largest = *std::max_element(need.begin(), need.end());
        for (std::size_t i = 0; i < a_.stations.size(); ++i) {
            double x = a_.stations[i].x;
            if (x < from - 1e-6 || x > to + 1e-6 || need[i] <= 1e-4 * largest) continue;
            if (nearFreeTip(x)) continue;
            if (!top && (x < place.from + 1 || x > place.to - 1)) continue;  // end anchorage judges the ends
            double r = line[i] > 0 ? need[i] / line[i] : 99;
            if (r > worstRatio) worstRatio = r, worst = i;
        }
        if (worst == a_.stations.size()) return;
        checks::Place at = place;
        at.x = a_.stations[worst].x;
        Finding f;
        f.kind = Kind::MomentPerWidth;
        f.clause = standard_.detailing->clauses().curtailment;
        f.prefix = "m";
        f.demand = need[worst];
        f.limit = line[worst];
        if (top && (slab_.cantileverStart || slab_.cantileverEnd))
            f.notes.push_back("The last 50 mm behind the cover of a free tip are left to the U-bars there.");
        Steps steps;
        auto steel = coverage_.at(top, at.x);
        auto sec = sectionFor(top, steel);
        if (tracing_) {
            trace::step(&steps, "x", "", {}, at.x / 1000, "m", f.clause,
                        "the station with the highest ratio, from the first axis");
            trace::step(&steps, "a_l", "", {}, standard_.detailing->momentShift(sec.d, steel.diameter), "mm",
                        f.clause, "the moment line is moved outwards by this");
            if (steel.full > 0)
                trace::step(&steps, "r_anchored", "A_s,eff/A_s",
                            {{"A_s,eff", steel.effective * b_, "mm²"}, {"A_s", steel.full * b_, "mm²"}},
                            steel.effective / steel.full, "-", f.clause,
                            "share of the steel that is anchored here");
        }
        add(top ? "curtailment-top" : "curtailment-bottom",
            fmt::format("Bar ends {}, {}", top ? "top" : "bottom", place.part), at, checks::judged(f),
            std::move(steps),
            a_.name(top ? a_.ultimate.momentMin[worst].by : a_.ultimate.momentMax[worst].by));
    }

    void shear(std::size_t i) {
        Steps best;
        Finding worst;
        double worstRatio = -1, worstX = 0;
        Governing by;
        for (bool left : {true, false}) {
            int support = left ? model::supportBefore(slab_, i) : model::supportAfter(slab_, i);
            if (support < 0) continue;
            double half = slab_.supports[support].width / 2, L = slab_.spans[i].length;
            double d = reinforcement::effectiveDepth(true, largestBar(), slab_, basis_);
            double local = left ? std::min(half + d, L / 2) : std::max(L - half - d, L / 2);
            if (model::isCantilever(slab_, i))
                local = left ? std::min(half + d, L) : std::max(L - half - d, 0.0);
            auto e = a_.shearExtreme(LimitState::Ultimate, i, local);
            bool top = a_.moment(e.by, i, local) < 0;
            double x = model::spanStart(slab_, i) + local;
            auto steel = coverage_.at(top, x);
            auto sec = sectionFor(top, steel);
            Steps steps;
            Finding f;
            f.kind = Kind::ForcePerWidth;
            f.clause = standard_.shear->clause();
            f.prefix = "v";
            f.demand = e.value;
            f.limit = standard_.shear->oneWay(sec, steel.effective * b_, tracer(steps)) / b_;
            f.notes.push_back(fmt::format(
                "At an effective depth from the face of support {}; {} steel, as anchored there.",
                model::supportLabel(slab_, static_cast<std::size_t>(support)), top ? "top" : "bottom"));
            if (double r = checks::ratio(f); r > worstRatio)
                worstRatio = r, worst = f, best = std::move(steps), by = e.by, worstX = x;
        }
        add("shear", "One-way shear, span " + model::spanLabel(slab_, i), spanPlace(i, worstX),
            checks::judged(worst), best, a_.name(by));
    }

    std::vector<standards::SagStation> sagStations(std::size_t span, Governing sustained,
                                                   Governing total) const {
        // Finer than the analysis stations: the curvature jumps where the section begins to crack.
        constexpr int intervals = 320;
        std::vector<standards::SagStation> all;
        const double start = model::spanStart(slab_, span), L = slab_.spans[span].length;
        for (int i = 0; i <= intervals; ++i) {
            const struct { double x, local; } st{start + L * i / intervals, L * i / intervals};
            auto bottom = coverage_.at(false, st.x), top = coverage_.at(true, st.x);
            double permanent = a_.permanent.moment(span, st.local);
            standards::SagStation s;
            s.x = st.x;
            s.mSustained = a_.moment(sustained, span, st.local) * b_;
            s.mTotal = a_.moment(total, span, st.local) * b_;
            s.mPermanent = a_.load.permanent() * permanent * b_;
            s.mBefore = a_.load.self * permanent * b_;
            s.asBottom = bottom.effective * b_;
            s.dBottom = reinforcement::effectiveDepth(
                false, bottom.diameter > 0 ? bottom.diameter : largestBar(), slab_, basis_);
            s.asTop = top.effective * b_;
            s.dTop =
                slab_.thickness - reinforcement::effectiveDepth(
                                      true, top.diameter > 0 ? top.diameter : largestBar(), slab_, basis_);
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
    Governing worstForSag(LimitState state, std::size_t span, double critical) const {
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

    // Slenderness and computed sag of a span.
    void stiffness(std::size_t i) {
        const bool cantilever = model::isCantilever(slab_, i);
        const double L = slab_.spans[i].length;
        double critical = cantilever ? (i == 0 ? L : 0) : d_.demand.spans[i].local;
        if (!cantilever && d_.demand.spans[i].moment <= 0) critical = L / 2;
        double x = model::spanStart(slab_, i) + critical;
        checks::Place place = spanPlace(i, x);
        auto steel = coverage_.at(cantilever, x);
        auto sec = sectionFor(cantilever, steel);

        Governing sustained = worstForSag(standard_.service->sustainedState(), i, critical);
        Governing total = worstForSag(LimitState::Characteristic, i, critical);
        Steps sagSteps;
        standards::SagInput in{sec, sagStations(i, sustained, total), basis_.creep, basis_.shrinkage,
                               cantilever};
        auto curvature = standard_.service->curvatures(in, tracer(sagSteps));
        standards::Curvatures beside;
        standards::SagInput besideIn;
        if (cantilever) {
            std::size_t next = i == 0 ? 1 : i - 1;
            besideIn = {sec, sagStations(next, sustained, total), basis_.creep, basis_.shrinkage, false};
            beside = standard_.service->curvatures(besideIn);
        }
        auto positions = [](const standards::SagInput& input) {
            std::vector<double> xs;
            for (const auto& s : input.stations) xs.push_back(s.x);
            return xs;
        };
        SpanSag sag;
        sag.x = positions(in);
        auto besideX = positions(besideIn);
        auto line = [&](const std::vector<double>& k, const std::vector<double>& kBeside) {
            return k.empty() ? std::vector<double>{} : sagLine(i, sag.x, k, besideX, kBeside);
        };
        sag.total = line(curvature.total, beside.total);
        sag.after = line(curvature.after, beside.after);
        sag.live = line(curvature.live, beside.live);
        auto peak = [&](const std::vector<double>& w) {
            return w.empty() ? w.end() : std::max_element(w.begin(), w.end());
        };
        if (auto p = peak(sag.total); p != sag.total.end())
            sag.largest = *p, sag.at = sag.x[static_cast<std::size_t>(p - sag.total.begin())];

        bool sagWithin = steel.diameter > 0;
        for (const auto& limit : standard_.service->sagLimits()) {
            const auto& w = limit.which == standards::SagLimit::Which::Total   ? sag.total
                            : limit.which == standards::SagLimit::Which::After ? sag.after
                                                                               : sag.live;
            if (w.empty()) continue;
            auto p = peak(w);
            checks::Place at = place;
            at.x = sag.x[static_cast<std::size_t>(p - w.begin())];
            Finding f;
            f.kind = Kind::Sag;
            f.clause = limit.clause;
            f.prefix = "w";
            f.demand = std::max(0.0, *p);
            Steps steps = sagSteps;
            f.limit = trace::step(tracer(steps), "w_lim", "l/n", {{"l", L, "mm"}, {"n", limit.spanOver}},
                                  L / limit.spanOver, "mm", limit.clause,
                                  cantilever ? "l of a cantilever is its length" : "");
            if (tracing_)
                trace::step(&steps, "w", "", {}, f.demand, "mm", limit.clause,
                            "by integrating the curvatures along the span twice");
            f.notes = curvature.notes;
            const char* name = "sag-after";
            if (limit.which == standards::SagLimit::Which::Live) name = "sag-live";
            if (limit.which == standards::SagLimit::Which::Total) {
                name = "sag-total";
                sag.camber = units::roundUp(std::max(0.0, f.demand - f.limit), 5);
                if (sag.camber > 0)
                    f.notes.push_back(fmt::format("A camber of {} mm would leave the sag within its limit.",
                                                  units::plain(sag.camber)));
            }
            if (steel.diameter == 0)
                f = checks::notChecked(limit.clause, "There are no bars in this span yet.");
            else
                f = checks::judged(f);
            sagWithin = sagWithin && f.outcome == Outcome::Within;
            add(name, limit.title + ", span " + model::spanLabel(slab_, i), at, f, std::move(steps),
                a_.name(sustained));
        }
        d_.camber = std::max(d_.camber, sag.camber);
        d_.sag.push_back(std::move(sag));

        Steps steps;
        double moment = cantilever ? d_.demand.supports[i == 0 ? 0 : slab_.supports.size() - 1].moment
                                   : d_.demand.spans[i].moment;
        auto need = standard_.flexure->required(sec, moment * b_);
        standards::SlendernessInput slender{
            sec, reinforcement::spanSystem(slab_, i), L, need.As, need.As2, steel.effective * b_};
        Finding f = standard_.service->slenderness(slender, tracer(steps));
        if (f.outcome == Outcome::Over && sagWithin) {
            f.outcome = Outcome::NotApplicable;
            f.reason =
                fmt::format("Over its limit ({:.2f}), but the computed sag is within and decides ({}).",
                            checks::ratio(f), standard_.service->computedSagClause());
        }
        add("slenderness", "Span to depth, span " + model::spanLabel(slab_, i), place, f, std::move(steps));
    }

    void endAnchorage(std::size_t s) {
        const bool first = s == 0 && !slab_.cantileverStart,
                   last = s + 1 == slab_.supports.size() && !slab_.cantileverEnd;
        if (!first && !last) return;
        std::size_t span = first ? 0 : slab_.spans.size() - 1;
        double half = slab_.supports[s].width / 2, axis = model::axis(slab_, s),
               face = first ? axis + half : axis - half;
        checks::Place place = supportPlace(s, face);
        std::string title = "End anchorage bottom, " + place.part,
                    clause = standard_.detailing->clauses().anchorage;
        const model::BarRun* run = nullptr;
        for (const auto& r : slab_.bars)
            if (r.role == model::Role::BottomMain &&
                (first ? r.from <= face && r.to > face : r.to >= face && r.from < face))
                run = &r;
        if (!run) {
            Finding f = checks::judged({Kind::Length,
                                        0,
                                        1,
                                        checks::Sense::AtLeast,
                                        clause,
                                        Outcome::Within,
                                        "",
                                        {"No bottom bar reaches this support."},
                                        "l"});
            add("anchorage-bottom", title, place, f);
            return;
        }
        bool hooked = (first ? run->start : run->end) == model::BarEnd::Hook;
        double end = first ? run->from : run->to;
        const auto* bar = catalogs::barCatalog(basis_.barCatalog)->find(run->bar);
        standards::EndAnchorageInput in;
        in.section = reinforcement::section(false, bar->diameter, slab_, basis_, b_);
        auto v = a_.shearExtreme(LimitState::Ultimate, span, first ? half : slab_.spans[span].length - half);
        in.V = v.value * b_;
        in.As = bar->area / run->spacing * b_;
        in.bar = reinforcement::Coverage::anchorageInput(*run, hooked, slab_, basis_, standard_);
        in.beyondFace = std::abs(face - end);
        in.beyondCentre = first ? axis - end : end - axis;
        Steps steps;
        Finding f = standard_.detailing->endAnchorage(in, tracer(steps));
        add("anchorage-bottom", title, place, f, std::move(steps), a_.name(v.by));
    }

    // Bottom bars that go on over a support, or into it at an end.
    void through(std::size_t s) {
        const std::size_t right = s + slab_.cantileverStart;
        std::optional<BottomOfSpan> spans[2];
        bool between = right > 0 && right < slab_.spans.size();
        for (bool before : {true, false}) {
            if (before ? right == 0 : right == slab_.spans.size()) continue;
            const std::size_t span = before ? right - 1 : right;
            if (model::isCantilever(slab_, span)) continue;
            BottomOfSpan& bottom = spans[before ? 0 : 1].emplace();
            for (const auto& st : a_.stations) {
                if (st.span != span) continue;
                const auto steel = coverage_.at(false, st.x);
                bottom.most = std::max(bottom.most, steel.full);
                bottom.diameter = std::max(bottom.diameter, steel.diameter);
            }
        }
        OverSupport over;
        over.rule = between ? DetailingRules::Over::Support : DetailingRules::Over::EndSupport;
        const double axis = model::axis(slab_, s), half = slab_.supports[s].width / 2;
        over.from = axis - half, over.to = axis + half;
        over.concreteFrom = model::concreteStart(slab_) + basis_.coverSide;
        over.concreteTo = model::concreteEnd(slab_) - basis_.coverSide;
        std::vector<BottomRun> runs;
        const auto& catalog = *catalogs::barCatalog(basis_.barCatalog);
        for (const auto& r : slab_.bars)
            if (r.role == model::Role::BottomMain)
                runs.push_back({r.from, r.to, catalog.find(r.bar)->area / r.spacing, r.spacing});
        const checks::Place place = supportPlace(s, axis);
        for (auto& c : bottomOver(over, spans, runs, *standard_.detailing, tracing_))
            add(c.name, c.title + " " + place.part, place, std::move(c.finding), std::move(c.steps));
    }

    // By the factors of equilibrium, span by span.
    void uplift(std::size_t s) {
        const auto& r = a_.reactions[s];
        double presses = 0, lifts = 0;
        for (double each : r.perSpan) (each > 0 ? presses : lifts) += std::abs(each);
        const auto rule = standard_.actions->equilibrium();
        const auto worst = lifting(rule, a_.load.permanent() * presses, a_.load.permanent() * lifts,
                                   a_.load.imposed * lifts);
        checks::Place place = supportPlace(s, model::axis(slab_, s));
        add("uplift", "Uplift, " + place.part, place, upliftFinding(worst, rule, Kind::ForcePerWidth));
    }

    void secondary() {
        const model::BarRun* run = nullptr;
        double mainSteel = 0;
        double x0 = model::concreteStart(slab_), x1 = model::concreteEnd(slab_), covered = 0;
        const auto& catalog = *catalogs::barCatalog(basis_.barCatalog);
        for (const auto& r : slab_.bars) {
            const auto* bar = catalog.find(r.bar);
            if (r.role == model::Role::BottomMain) mainSteel = std::max(mainSteel, bar->area / r.spacing);
            if (r.role != model::Role::BottomSecondary) continue;
            covered += r.to - r.from;
            if (!run || bar->area / r.spacing < catalog.find(run->bar)->area / run->spacing) run = &r;
        }
        checks::Place place{slab_.id, "slab", "", (x0 + x1) / 2, x0, x1};
        const auto clauses = standard_.detailing->clauses();
        Finding f;
        f.kind = Kind::SteelPerWidth;
        f.sense = checks::Sense::AtLeast;
        f.clause = clauses.secondary;
        f.prefix = "As";
        Steps steps;
        auto sec = reinforcement::section(false, largestBar(), slab_, basis_, b_);
        f.limit = standard_.detailing->secondarySteel(mainSteel * b_, sec, tracer(steps)) / b_;
        bool whole = run && covered >= x1 - x0 - 2 * basis_.coverSide - 2 * run->spacing;
        if (whole)
            f.demand = catalog.find(run->bar)->area / run->spacing;
        else
            f.notes.push_back("The distribution bars do not cover the whole length of the slab.");
        add("secondary", "Distribution steel", place, checks::judged(f), std::move(steps));
        if (!run) return;
        Steps more;
        Finding s;
        s.kind = Kind::BarSpacing;
        s.clause = clauses.spacing;
        s.prefix = "s";
        s.demand = run->spacing;
        s.limit = standard_.detailing->maximumSpacing(DetailingRules::Role::Secondary, true, slab_.thickness,
                                                      tracer(more));
        add("secondary-spacing", "Distribution bar spacing", place, checks::judged(s), std::move(more));
    }

    void omissions() {
        for (const auto& o : standard_.omissions)
            if (o.slabs)
                add("omitted-" + o.key, o.title, {slab_.id, "slab", "", 0, 0, model::length(slab_)},
                    checks::notChecked(o.clause, o.reason));
        add("omitted-supports", "Beams and walls below", {slab_.id, "slab", "", 0, 0, model::length(slab_)},
            checks::notChecked("",
                               "Only their reactions are given; the slab is taken as resting on knife edges "
                               "that do not sink or twist."));
    }

    // Depth suggested by the span-to-depth rule; the governing span.
    void firstThickness() {
        double c = basis_.coverBottom + largestBar() / 2;
        auto sec = reinforcement::section(false, largestBar(), slab_, basis_, b_);
        for (std::size_t i = 0; i < slab_.spans.size(); ++i) {
            double h = standard_.service->firstThickness(reinforcement::spanSystem(slab_, i),
                                                         slab_.spans[i].length, c, sec);
            if (h > d_.firstThickness) d_.firstThickness = h, d_.firstThicknessSpan = i;
        }
        std::size_t i = d_.firstThicknessSpan;
        Steps steps;
        standard_.service->firstThickness(reinforcement::spanSystem(slab_, i), slab_.spans[i].length, c, sec,
                                          tracer(steps));
        Finding f =
            checks::notApplicable(standard_.service->slendernessClause(),
                                  fmt::format("Advice, not a limit: {} suggested, span {} governs.",
                                              units::text(d_.firstThickness, Kind::Length, basis_.units),
                                              model::spanLabel(slab_, i)));
        add("first-thickness", "First thickness",
            {slab_.id, "slab", "", model::spanStart(slab_, i), 0, model::length(slab_)}, f, std::move(steps));
    }

    const model::OneWaySlab& slab_;
    const model::Basis& basis_;
    const standards::Standard& standard_;
    SlabDesign& d_;
    const analysis::SlabAnalysis& a_;
    reinforcement::Coverage coverage_;
    bool tracing_;
    double b_;  // width on which sections are worked: 1 m or 1 ft
};

}  // namespace

void checkSlab(const model::OneWaySlab& slab, const model::Basis& basis, const standards::Standard& standard,
               SlabDesign& d, const Options& options) {
    Checker(slab, basis, standard, d, options).run();
}

}  // namespace talvik::design
