// Where bars end, how they are anchored, and what goes on over supports.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "verify/line_checker.h"

namespace talvik::verify {

double LineChecker::endRatio(bool top, std::size_t i) const {
    const auto& curve = design.curve(top);
    const double resistance = std::max(curve.resistance[i], plain(top, i) * stations[i].width);
    if (curve.shifted[i] <= 1e-9) return 0;
    return resistance > 0 ? curve.shifted[i] / resistance : 99;
}

std::optional<EndReach> LineChecker::endReach(bool top, const checks::Place& where, std::size_t i) const {
    const auto& station = stations[i];
    const double moved = design.curve(top).shifted[i] / station.width, u = station.u,
                 middle = where.spot.in == model::Spot::In::Support ? where.x : (where.from + where.to) / 2;
    if (moved <= plain(top, i)) return {};
    const auto need = rules.flexure->required(section(top, i, steel(top, i).diameter), moved * b);
    if (!need.possible || need.doubly) return {};
    std::optional<EndReach> best;
    // Those that lie in the middle of the span or over the support have to reach; without such, any.
    auto there = [&](const bars::Run& r) { return r.top() == top && r.from <= middle && r.to >= middle; };
    const bool some = std::any_of(design.runs.begin(), design.runs.end(), there);
    for (const auto& run : design.runs) {
        if (some ? !there(run) : run.top() != top) continue;
        std::vector<bars::Run> others;
        for (const auto& o : design.runs)
            if (&o != &run) others.push_back(o);
        const double width = run.band() ? std::min(1.0, run.width / std::max(station.width, 1.0)) : 1,
                     left = need.As / b - bars::steelAt(others, top, u, station.width).effective;
        if (left <= 0 || left > run.area * width) continue;  // the others do, or no length is enough
        for (bool end : {false, true}) {
            if (end ? u < run.from : u > run.to) continue;
            const double side = end ? 1 : -1, at = end ? run.to : run.from;
            EndReach e{&run, end, side * (u - middle), left / width, end ? run.anchorEnd : run.anchorStart};
            e.reach = side * (at - middle);
            if (const double half = (run.to - run.from) / 2; e.reach < half)
                e.reach = half, e.away = side * (u - (run.from + run.to) / 2);
            e.needed = e.away + e.required / run.area * e.anchorage;
            // Both ends have to hold: of a run that which lacks more, of all runs that which lacks least.
            auto lacks = [](const EndReach& r) { return r.needed - r.reach; };
            if (best && best->run == &run ? lacks(e) > lacks(*best) : !best || lacks(e) < lacks(*best))
                best = e;
        }
    }
    // Where the curves say otherwise by a hair, they decide.
    if (best && (best->needed > best->reach) != (endRatio(top, i) > 1)) return {};
    return best;
}

// Whether bars reach far enough to be anchored for the moved moment; where longer bars do not help, its
// resistance.
void LineChecker::barEnds(bool top, const checks::Place& where, const Critical& g) {
    const std::size_t i = g.ends;
    const auto& curve = design.curve(top);
    const auto s = steel(top, i);
    const auto sec = section(top, i, s.diameter);
    const auto reach = endReach(top, where, i);
    Finding f;
    f.clause = rules.barEnds->clause(in.twoWay);
    if (g.endsSkipped) f.notes.push_back(of.endsNote);
    Steps steps;
    trace::step(tracer(steps), "u", "", {}, stations[i].u / 1000, "m", f.clause,
                "the station at which bar ends fall shortest");
    trace::step(tracer(steps), "a_l", "", {}, rules.barEnds->momentShift(sec.d, s.diameter), "mm", f.clause,
                "the moment line is moved outwards by this");
    if (reach) {
        f.kind = Kind::Length, f.prefix = "l", f.demand = reach->needed, f.limit = reach->reach;
        rules.flexure->required(sec, curve.shifted[i] / stations[i].width * b, tracer(steps));
        const double share = trace::step(
            tracer(steps), "r_needed", "A_left/A_s",
            {{"A_left", reach->required * b, "mm²"}, {"A_s", reach->run->area * b, "mm²"}},
            reach->required / reach->run->area, "-", f.clause,
            "the share of the steel that has to be anchored there, less the contribution of other bars");
        trace::step(
            tracer(steps), "l_needed", "l_u + r_needed*l_anchorage",
            {{"l_u", reach->away, "mm"}, {"r_needed", share}, {"l_anchorage", reach->anchorage, "mm"}},
            reach->needed, "mm", f.clause,
            "how far the bars must extend; l_u: to the station, from where the length is measured");
        if (reach->needed > reach->reach)
            f.here.push_back(
                fmt::format("Bars must extend {} further.",
                            units::text(reach->needed - reach->reach, Kind::Length, in.basis.units)));
    } else {
        f.kind = Kind::MomentPerWidth, f.prefix = "m";
        f.demand = curve.shifted[i] / stations[i].width;
        f.limit = std::max(curve.resistance[i] / stations[i].width, plain(top, i));
        if (tracing && s.full > 0) {
            trace::step(&steps, "r_anchored", "A_s,eff/A_s",
                        {{"A_s,eff", s.effective * b, "mm²"}, {"A_s", s.full * b, "mm²"}},
                        s.effective / s.full, "-", f.clause, "share of the steel that is anchored here");
            rules.flexure->resistance(sec, s.effective * b, 0, &steps);
        }
        if (f.demand > f.limit && s.full > 0)
            f.here.push_back("Longer bars alone do not help here: more steel is needed.");
    }
    list.add({top ? "curtailment-top" : "curtailment-bottom", top ? "Curtailment top" : "Curtailment bottom",
              Topic::BarEnds, checks::judged(f), std::move(steps)},
             at(of, where, stations[i].u), of.combination(asked(top)[i].by),
             top ? model::Face::Top : model::Face::Bottom);
}

// Bottom bars of a span at an end support.
void LineChecker::anchorage(std::size_t i, int side) {
    const auto& span = line.spans[i];
    const EndCondition end = span.ends[side < 0 ? 0 : 1];
    const int support = side < 0 ? span.left : span.right;
    if (support < 0 || (end != EndCondition::Free && end != EndCondition::OnBeam)) return;
    const double face = side < 0 ? span.clearFrom : span.clearTo;
    const auto place = at(of, supportPlace(of, std::size_t(support)), face);
    const bars::Run* run = nullptr;
    for (const auto& r : design.runs)
        if (!r.top() && r.from <= face + 1 && r.to >= face - 1) run = &r;
    Steps steps;
    Finding f;
    std::string by;
    if (run) {
        const bool hooked = (side < 0 ? run->start : run->end) == model::BarEnd::Hook;
        auto input = bars::endAnchorage(line, stations, demand, i, side, *run, hooked, in);
        f = rules.anchorage->atEnd(input, tracer(steps));
        by = of.combination(demand.shear[line::nearestStation(stations, face)].by);
    } else {
        f.kind = Kind::Length, f.prefix = "l";
        f.demand = 0, f.limit = 1, f.sense = Sense::AtLeast;
        f.clause = rules.anchorage->clause(in.twoWay);
        f.here.push_back("No bottom bar reaches this support.");
        f = checks::judged(f);
    }
    list.add({"anchorage-bottom", "End anchorage bottom", Topic::Anchorage, std::move(f), std::move(steps)},
             place, std::move(by), model::Face::Bottom);
}

// Bottom bars that go on over a support, or into it at an end.
void LineChecker::through(std::size_t k) {
    const auto& p = line.supports[k];
    std::optional<BottomOfSpan> spans[2];
    for (const auto& span : line.spans)
        for (bool before : {true, false}) {
            if ((before ? span.right : span.left) != int(k) || span.cantilever()) continue;
            const double clear = span.clearTo - span.clearFrom;
            auto where = range(span.clearFrom + clear / 4, span.clearTo - clear / 4);
            if (!where) where = range(span.clearFrom, span.clearTo);
            if (!where) continue;
            BottomOfSpan& bottom = spans[before ? 0 : 1].emplace();
            bottom.clear = clear;
            for (std::size_t j = where->first; j <= where->second; ++j) {
                const auto s = steel(false, j);
                bottom.most = std::max(bottom.most, s.full),
                bottom.diameter = std::max(bottom.diameter, s.diameter);
            }
        }
    OverSupport over;
    over.rule = of.over[k];
    over.from = p.from, over.to = p.to, over.across = p.across;
    if (k < of.barsThrough.size()) over.lying = of.barsThrough[k];
    if (!line.inside[0]) over.concreteFrom = line.from - line.room[0] + in.basis.coverSide;
    if (!line.inside[1]) over.concreteTo = line.to + line.room[1] - in.basis.coverSide;
    std::vector<BottomRun> runs;
    for (const auto& r : design.runs)
        if (!r.top()) runs.push_back({r.from, r.to, r.area, r.spacing});
    for (auto& c : bottomOver(over, spans, runs, *rules.barEnds, tracing))
        list.add(std::move(c), supportPlace(of, k), {}, model::Face::Bottom);
}

}  // namespace talvik::verify
