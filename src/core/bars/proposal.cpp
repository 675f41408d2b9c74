#include "bars/proposal.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <map>
#include <optional>

#include "bars/bar_choices.h"

namespace talvik::bars {
namespace {

using model::BarEnd;
using model::Role;
using standards::SteelRules;

constexpr double b = 1000;        // width on which steel is chosen
constexpr double endStep = 50;    // bar ends are rounded to this
constexpr double drawnGap = 100;  // between bars that do not lap

using Choice = BarChoice;

class Proposer {
  public:
    Proposer(const model::OneWaySlab& slab, const line::LineBasis& in, const line::OneWayLine& line)
        : slab_(slab), in_(in), basis_(in.basis), standard_(in.standard), line_(line) {
        for (const auto& bars : slab.bars) {
            Run& run = runs_.emplace_back(Run{bars});
            run.fixed = true;
            size(run, slab.thickness, in);
        }
    }

    std::vector<Run> run() {
        for (std::size_t i = 0; i < slab_.spans.size(); ++i)
            if (!model::isCantilever(slab_, i)) bottom(i);
        for (std::size_t s = 0; s < slab_.supports.size(); ++s) top(s);
        lapNeighbours(runs_, drawnGap, endStep, [&](const Run& r) {
            return standard_.anchorage->lap(anchorageInput(r, false, slab_.thickness, in_));
        });
        secondary();
        edges();
        std::stable_sort(runs_.begin(), runs_.end(), [](const Run& p, const Run& q) {
            return std::tuple(p.role, p.from) < std::tuple(q.role, q.from);
        });
        return runs_;
    }

  private:
    // A run goes in unless bars that someone fixed take its place.
    void add(Run run) {
        if (std::none_of(runs_.begin(), runs_.end(),
                         [&](const Run& r) { return r.fixed && replaces(r, run); }))
            runs_.push_back(std::move(run));
    }

    standards::Section section(bool top, double diameter) const {
        return line::section(top, diameter, slab_.thickness, in_, b);
    }
    std::vector<Choice> choices(const std::vector<std::string>& allowed, double largest) const {
        return barChoices(allowed, largest, basis_, standard_);
    }

    // The least steel for a moment (per mm) on a face. `index`: span (bottom) or support (top).
    // `anchored` says whether a choice can be anchored where it ends; choices that cannot come last.
    Choice choose(bool top, double moment, std::size_t index, std::optional<std::size_t> slenderSpan,
                  const std::function<bool(const Choice&)>& anchored) const {
        double largest = standard_.steel->spacing(SteelRules::Role::Main, true, slab_.thickness);
        auto all = choices(basis_.mainBars, largest);
        double service = 0;
        for (std::size_t i = 0; i < line_.stations.size(); ++i)
            if (top ? line_.stations[i].support == int(index) : line_.stations[i].span == int(index))
                service =
                    std::max(service, (top ? line_.demand.topService : line_.demand.bottomService)[i].value);
        std::optional<Choice> plain, loose;
        for (const Choice& c : all) {
            const auto need = suffices(c, top, slab_.thickness, moment, service, in_);
            if (!need) continue;
            if (!loose) loose = c;
            if (!anchored(c)) continue;
            if (!slenderSpan) return c;
            if (!plain) plain = c;
            standards::SlendernessInput slender{section(top, c.bar->diameter),
                                                line::spanSystem(line_.line.spans[*slenderSpan]),
                                                slab_.spans[*slenderSpan].length,
                                                *need * b,
                                                0,
                                                c.area() * b};
            if (standard_.slenderness->check(slender).outcome == checks::Outcome::Within) return c;
        }
        return plain ? *plain : loose ? *loose : all.back();
    }

    Run make(model::Id id, Role role, double from, double to, const Choice& c) const {
        Run r;
        r.id = std::move(id), r.role = role;
        r.from = from, r.to = to;
        r.bar = c.bar->name, r.spacing = c.spacing;
        size(r, slab_.thickness, in_);
        return r;
    }
    double outerStart() const { return model::concreteStart(slab_) + basis_.coverSide; }
    double outerEnd() const { return model::concreteEnd(slab_) - basis_.coverSide; }

    void bottom(std::size_t span) {
        double start = model::spanStart(slab_, span), end = start + slab_.spans[span].length;
        int before = model::supportBefore(slab_, span), after = model::supportAfter(slab_, span);
        bool first = before == 0, last = after + 1 == static_cast<int>(slab_.supports.size());
        const bool simpleStart = first && !slab_.cantileverStart, simpleEnd = last && !slab_.cantileverEnd;
        auto anchored = [&](const Choice& c) {
            const Run r = make({}, Role::BottomMain, outerStart(), outerEnd(), c);
            return (!simpleStart || endAnchored(r, true, span, true)) &&
                   (!simpleEnd || endAnchored(r, true, span, false));
        };
        Choice c = choose(false, line_.spans[span].moment, span, span, anchored);
        // Past an inner support by its half width or ten diameters from its face, and 150 mm past its axis at
        // least.
        auto past = [&](int support) {
            return units::roundUp(std::max(150.0, 10 * c.bar->diameter - slab_.supports[support].width / 2),
                                  endStep);
        };
        Run r = make("bottom/" + slab_.spans[span].id, Role::BottomMain,
                     first ? outerStart() : start - past(before), last ? outerEnd() : end + past(after), c);
        if (simpleStart && !endAnchored(r, false, span, true)) r.start = BarEnd::Hook;
        if (simpleEnd && !endAnchored(r, false, span, false)) r.end = BarEnd::Hook;
        add(std::move(r));
    }

    // Whether an end, straight or hooked, anchors the bottom bars at a simple support.
    bool endAnchored(Run run, bool hooked, std::size_t span, bool atStart) const {
        run.from = outerStart(), run.to = outerEnd();
        const auto input =
            endAnchorage(line_.line, line_.stations, line_.demand, span, atStart ? -1 : 1, run, hooked, in_);
        return standard_.anchorage->atEnd(input).outcome == checks::Outcome::Within;
    }

    void top(std::size_t s) {
        double axis = model::axis(slab_, s), half = slab_.supports[s].width / 2;
        const std::size_t right = s + slab_.cantileverStart;
        bool hasLeft = right > 0, hasRight = right < slab_.spans.size();
        // At an end support the bars are hooked over the support and count as far as they are anchored at its
        // face.
        auto anchored = [&](const Choice& c) {
            if (!line_.supports[s].endFixity || line_.supports[s].moment <= 0) return true;
            Run r = make({}, Role::TopMain, axis, axis, c);
            r.start = BarEnd::Hook;
            anchor(r, slab_.thickness, in_);
            double share = std::min(1.0, (2 * half - basis_.coverSide) / r.anchorStart);
            return standard_.flexure->resistance(section(true, c.bar->diameter), share * c.area() * b, 0).M >=
                   line_.supports[s].moment * b;
        };
        Choice c = choose(true, line_.supports[s].moment, s, std::nullopt, anchored);
        Run r = make("top/" + slab_.supports[s].id, Role::TopMain, axis, axis, c);
        auto reachEnd = [&](std::size_t span, bool leftwards) {
            if (model::isCantilever(slab_, span)) return leftwards ? outerStart() : outerEnd();
            return curtailed(r, span, leftwards, half, c);
        };
        if (hasLeft)
            r.from = reachEnd(right - 1, true);
        else
            r.from = outerStart(), r.start = BarEnd::Hook;
        if (hasRight)
            r.to = reachEnd(right, false);
        else
            r.to = outerEnd(), r.end = BarEnd::Hook;
        add(std::move(r));
    }

    // Hogging moved outwards for bars of one diameter along the whole line.
    const std::vector<double>& movedFor(double diameter) const {
        auto [known, fresh] = moved_.try_emplace(diameter);
        if (fresh)
            known->second = line::movedDemand(line_.line, line_.stations, line_.demand, true,
                                              std::vector<double>(line_.stations.size(), diameter), in_);
        return known->second;
    }

    // The nearest end, in steps, at which the run's resistance covers the shifted hogging moment of the span;
    // the far axis where hogging never ends in it. At simple ends a quarter of the clear span.
    double curtailed(const Run& run, std::size_t span, bool leftwards, double half, const Choice& c) const {
        double sign = leftwards ? -1 : 1,
               near = leftwards ? model::spanStart(slab_, span + 1) : model::spanStart(slab_, span);
        double L = slab_.spans[span].length, clear = model::clearSpan(slab_, span);
        auto sec = section(true, c.bar->diameter);
        Run straight = run;
        straight.start = straight.end = BarEnd::Straight;
        anchor(straight, slab_.thickness, in_);
        const double anchorage = straight.anchorEnd;
        const auto& stations = line_.stations;
        const auto& moved = movedFor(c.bar->diameter);
        // Distance from the axis to where hogging ends, unshifted; and the demand as (distance, moment).
        double zero = 0;
        std::vector<std::pair<double, double>> asked;
        bool open = true;
        for (std::size_t k = 0; k < stations.size(); ++k) {
            std::size_t i = leftwards ? stations.size() - 1 - k : k;
            if (stations[i].span != int(span)) continue;
            double distance = std::abs(stations[i].u - near);
            if (open && line_.demand.top[i].value > 1e-6)
                zero = distance;
            else if (distance > half)
                open = false;
            if (distance > L / 2 && !open && moved[i] > 0) break;  // the other support's hogging
            asked.emplace_back(distance, moved[i]);
        }
        if (open) return near + sign * L;
        double reach =
            std::max(half + clear / 4, zero + standard_.barEnds->topReach(clear, sec.d, c.bar->diameter));
        for (double end = units::roundUp(reach, endStep); end < L; end += endStep) {
            bool enough = std::all_of(asked.begin(), asked.end(), [&](const auto& point) {
                if (point.second <= 1e-6) return true;
                double share = std::clamp((end - point.first) / anchorage, 0.0, 1.0);
                return standard_.flexure->resistance(sec, share * c.area() * b, 0).M >=
                       point.second * b * (1 - 1e-9);
            });
            if (enough) return near + sign * end;
        }
        return near + sign * L;
    }

    void secondary() {
        auto lightest = [&](double area, double largest) {
            auto all = choices(basis_.secondaryBars, largest);
            for (const Choice& c : all)
                if (c.area() >= area - 1e-12) return c;
            return all.back();
        };
        double largest = standard_.steel->spacing(SteelRules::Role::Secondary, true, slab_.thickness);
        double x0 = outerStart(), x1 = outerEnd(), need = 0;
        for (const Run& r : runs_)
            if (r.role == Role::BottomMain)
                need = std::max(need, standard_.steel->secondary(r.area * b, section(false, r.diameter)) / b);
        add(make("bottom-across", Role::BottomSecondary, x0, x1, lightest(need, largest)));
        const std::vector<Run> all = runs_;
        for (const Run& r : all)
            if (r.role == Role::TopMain)
                add(make("across/" + r.id, Role::TopSecondary, r.from, r.to, lightest(0, largest)));
    }

    // U-bars at free edges, legs twice the depth (EN 1992-1-1 9.3.1.4; good practice elsewhere).
    void edges() {
        Choice c = choices(basis_.secondaryBars, basis_.spacingMost).front();
        double leg = units::roundUp(2 * slab_.thickness, endStep);
        const double x0 = outerStart(), x1 = outerEnd();
        if (slab_.cantileverStart) add(make("tip/start", Role::EndU, x0, std::min(x0 + leg, x1), c));
        if (slab_.cantileverEnd) add(make("tip/end", Role::EndU, std::max(x1 - leg, x0), x1, c));
        add(make("edges", Role::SideU, x0, x1, c));
    }

    const model::OneWaySlab& slab_;
    const line::LineBasis& in_;
    const model::Basis& basis_;
    const standards::Standard& standard_;
    const line::OneWayLine& line_;
    mutable std::map<double, std::vector<double>> moved_;  // by diameter
    std::vector<Run> runs_;
};

}  // namespace

std::vector<Run> proposeSlab(const model::OneWaySlab& slab, const line::LineBasis& in,
                             const line::OneWayLine& line) {
    return Proposer(slab, in, line).run();
}

}  // namespace talvik::bars
