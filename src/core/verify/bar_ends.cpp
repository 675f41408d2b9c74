// Where bars end, how they are anchored, and what goes on over supports.
#include <algorithm>
#include <cmath>

#include "verify/line_checker.h"

namespace talvik::verify {

// The resistance of the bars, as anchored, against the moved moment.
void LineChecker::barEnds(bool top, const checks::Place& where, const Critical& g) {
    const std::size_t i = g.ends;
    const auto& curve = design.curve(top);
    Finding f;
    f.kind = Kind::MomentPerWidth;
    f.clause = rules.barEnds->clause(in.twoWay);
    f.prefix = "m";
    f.demand = curve.shifted[i] / stations[i].width;
    f.limit = std::max(curve.resistance[i] / stations[i].width, plain(top, i));
    if (g.endsSkipped) f.notes.push_back(of.endsNote);
    Steps steps;
    if (tracing) {
        const auto s = steel(top, i);
        const auto sec = section(top, i, s.diameter);
        trace::step(&steps, "u", "", {}, stations[i].u / 1000, "m", f.clause,
                    "the station with the highest ratio");
        trace::step(&steps, "a_l", "", {}, rules.barEnds->momentShift(sec.d, s.diameter), "mm", f.clause,
                    "the moment line is moved outwards by this");
        if (s.full > 0) {
            trace::step(&steps, "r_anchored", "A_s,eff/A_s",
                        {{"A_s,eff", s.effective * b, "mm²"}, {"A_s", s.full * b, "mm²"}},
                        s.effective / s.full, "-", f.clause, "share of the steel that is anchored here");
            rules.flexure->resistance(sec, s.effective * b, 0, &steps);
        }
    }
    list.add({top ? "curtailment-top" : "curtailment-bottom", top ? "Bar ends top" : "Bar ends bottom",
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
            const auto where = range(span.clearFrom, span.clearTo);
            if (!where) continue;
            BottomOfSpan& bottom = spans[before ? 0 : 1].emplace();
            for (std::size_t j = where->first; j <= where->second; ++j) {
                const auto s = steel(false, j);
                bottom.most = std::max(bottom.most, s.full),
                bottom.diameter = std::max(bottom.diameter, s.diameter);
            }
        }
    OverSupport over;
    over.rule = of.over[k];
    over.from = p.from, over.to = p.to, over.across = p.across;
    if (!line.inside[0]) over.concreteFrom = line.from + in.basis.coverSide;
    if (!line.inside[1]) over.concreteTo = line.to - in.basis.coverSide;
    std::vector<BottomRun> runs;
    for (const auto& r : design.runs)
        if (!r.top()) runs.push_back({r.from, r.to, r.area, r.spacing});
    for (auto& c : bottomOver(over, spans, runs, *rules.barEnds, tracing))
        list.add(std::move(c), supportPlace(of, k), {}, model::Face::Bottom);
}

}  // namespace talvik::verify
