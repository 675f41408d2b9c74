// Bending of a line and the steel of its faces.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "strips/sharing.h"
#include "verify/line_checker.h"
#include "verify/section_checks.h"

namespace talvik::verify {

// Resistance of the bars at a station as if they were anchored, on its width.
double LineChecker::allSteel(bool top, std::size_t i) const {
    const Steel s = steel(top, i);
    if (s.full <= 0) return 0;
    return rules.flexure->resistance(section(top, i, s.diameter), s.full * b, 0).M / b * stations[i].width;
}

// Near the face of an end support, where the anchorage of the bottom bars is judged by itself.
bool LineChecker::endOfSpan(std::size_t i) const {
    for (const auto& span : line.spans)
        for (int e : {0, 1})
            if ((span.ends[e] == EndCondition::Free || span.ends[e] == EndCondition::OnBeam) &&
                std::abs(stations[i].u - (e == 0 ? span.clearFrom : span.clearTo)) <
                    1.5 * stations[i].thickness)
                return true;
    return false;
}

Critical LineChecker::governing(bool top, const checks::Place& where, Range range) const {
    const auto& curve = design.curve(top);
    const auto& ultimate = asked(top);
    const auto& service = top ? demand.topService : demand.bottomService;
    const std::size_t none = stations.size();
    Critical g{range.first, none, none, none};
    double worstRatio = -1, endsRatio = -1, mostService = -1, full = 0;
    for (std::size_t i = range.first; i <= range.second; ++i) g.most = std::max(g.most, ultimate[i].value);
    auto ratio = [&](double need, double resistance, std::size_t i) {
        if (need <= 1e-9) return 0.0;
        const double r = std::max(resistance, plain(top, i) * stations[i].width);
        return r > 0 ? need / r : 99;
    };
    for (std::size_t i = range.first; i <= range.second; ++i) {
        const bool atEdge = leftToEdge(i);
        g.endsSkipped |= (atEdge || beyondBars(i)) && ultimate[i].value > 0.01 * g.most;
        if (beyondBars(i)) continue;
        double r = ratio(ultimate[i].value, atEdge ? allSteel(top, i) : curve.resistance[i], i);
        if (r > worstRatio) worstRatio = r, g.worst = i;
        const double there = curve.provided[i], k = service[i].value / stations[i].width;
        if (there > full) full = there, g.bars = i;
        if (there > 0 && k > mostService) mostService = k, g.crack = i;
    }
    if (curve.provided[g.worst] > 0 && worstRatio > 0) g.bars = g.worst;
    // The ends of bars matter where they are not yet anchored, or where more is moved to than they resist;
    // elsewhere flexure has said it all.
    for (std::size_t i = range.first; i <= range.second; ++i) {
        if (leftToEdge(i) || curve.shifted[i] <= 1e-3 * g.most) continue;
        double e = endRatio(top, i);
        const Steel here = steel(top, i);
        if (here.full > 0 && here.effective >= here.full * 0.999 && e <= worstRatio * (1 + 1e-6)) continue;
        if (!top && ultimate[i].value < 0.05 * g.most && endOfSpan(i)) continue;
        if (const auto reach = endReach(top, where, i)) e = reach->needed / reach->reach;
        if (e > endsRatio) endsRatio = e, g.ends = i;
    }
    return g;
}

// Everything about the tension steel of one face over a span or about a support.
void LineChecker::face(bool top, const checks::Place& where, Range range) {
    const Critical g = governing(top, where, range);
    if (asked(top)[g.worst].value > 1e-9) flexure(top, at(of, where, stations[g.worst].u), g.worst);
    if (g.bars < stations.size()) bars(top, at(of, where, stations[g.bars].u), g.bars, g.crack);
    if (g.ends < stations.size()) barEnds(top, where, g);
}

void LineChecker::flexure(bool top, checks::Place place, std::size_t worst) {
    const Steel s = steel(top, worst);
    const auto& ultimate = asked(top)[worst];
    const auto& station = stations[worst];
    const auto sec = section(top, worst, s.diameter);
    Steps steps;
    widthStep(steps, "m", worst, ultimate.value, true);
    const double counted = leftToEdge(worst) ? s.full : s.effective;
    Finding f = bending(sec, ultimate.value / station.width, counted, steel(!top, worst).effective, rules,
                        in.basis.units, tracer(steps));
    if (s.diameter == 0 && f.demand <= plain(top, worst)) {
        f.limit = plain(top, worst);
        f.here.push_back(
            "No bars here: the moment is under a tenth of the resistance of the plain section, for which "
            "none are required.");
    }
    if (counted < s.full * 0.999)
        f.here.push_back(fmt::format("The bars are anchored here to {:.0f} %.",
                                     100 * s.effective / std::max(s.full, 1e-9)));
    if (station.share[top] < station.width)
        f.here.push_back(fmt::format("The largest mean over {:.2f} m, over which the slab may share it ({}).",
                                     station.share[top] / 1000, strips::sharingSource()));
    if (top && station.support >= 0)
        for (const auto& note : of.supportNotes[std::size_t(station.support)]) f.notes.push_back(note);
    if (std::abs(station.thickness - station.leastThickness) > 1)
        f.here.push_back(
            "The thickness varies across the strip; its mean is used, as moment resistances side by side add "
            "up.");
    f.notes.insert(f.notes.end(), of.notes.begin(), of.notes.end());
    list.add({top ? "flexure-top" : "flexure-bottom", top ? "Flexure top" : "Flexure bottom", Topic::Flexure,
              checks::judged(f), std::move(steps)},
             place, of.combination(ultimate.by), top ? model::Face::Top : model::Face::Bottom);
}

void LineChecker::bars(bool top, const checks::Place& place, std::size_t worst, std::size_t crackAt) {
    const Steel s = steel(top, worst);
    const auto& service = (top ? demand.topService : demand.bottomService)[crackAt];
    const auto side = top ? model::Face::Top : model::Face::Bottom;
    // In a band bars lie between the others.
    double closest = s.spacing;
    for (const auto& r : design.runs)
        if (r.band() && r.top() == top && stations[worst].u >= r.from && stations[worst].u <= r.to)
            closest = std::min(closest, 1 / (1 / s.spacing + 1 / r.spacing));
    for (auto& c :
         sectionChecks(section(top, worst, s.diameter), {s.full, s.spacing, closest, s.diameter}, in.basis,
                       rules, service.value > 0 ? in.crackLimit(top) : 0, in.twoWay, tracing)) {
        c.name += top ? "-top" : "-bottom", c.title += top ? " top" : " bottom";
        list.add(std::move(c), place, {}, side);
    }
    const Steel there = steel(top, crackAt);
    const auto crack = line::crackInput(section(top, crackAt, there.diameter), top,
                                        service.value / stations[crackAt].width * b, there.full * b,
                                        there.diameter, there.spacing, in);
    Steps steps;
    auto width = rules.cracks->check(crack, tracer(steps));
    list.add({top ? "crack-top" : "crack-bottom", top ? "Crack control top" : "Crack control bottom",
              Topic::Cracks, std::move(width), std::move(steps)},
             at(of, place, stations[crackAt].u), service.value > 0 ? of.combination(service.by) : "", side);
}

}  // namespace talvik::verify
