// One-way shear and span to depth of the spans of a line.
#include <fmt/format.h>

#include <algorithm>

#include "verify/line_checker.h"

namespace talvik::verify {

// At an effective depth from the faces, and beside walls, line loads and steps, wherever there is a station.
void LineChecker::shear(std::size_t span) {
    const auto& s = line.spans[span];
    const auto clear = range(s.clearFrom, s.clearTo);
    std::size_t worst = stations.size();
    double worstRatio = -1;
    for (std::size_t i = clear->first; i <= clear->second; ++i) {
        if (stations[i].u < of.spans[span].shearFrom || stations[i].u > of.spans[span].shearTo) continue;
        double r = design.shearResistance[i] > 0 ? demand.shear[i].value / design.shearResistance[i] : 0;
        if (r > worstRatio) worstRatio = r, worst = i;
    }
    if (worst == stations.size()) return;
    const bool top = demand.shearHogs[worst];
    const auto bars = steel(top, worst);
    Steps steps;
    Finding f;
    f.kind = Kind::ForcePerWidth;
    f.clause = rules.shear->clause();
    f.prefix = "v";
    widthStep(steps, "v", worst, demand.shear[worst].value, false);
    f.demand = demand.shear[worst].value / stations[worst].width;
    const auto section = thinSection(top, worst, bars.diameter);
    const auto* zone = linksAt(design, stations[worst].u);
    f.limit =
        shearResistance(*rules.shear, section, bars.effective * b, zone, in.basis.steelYield, tracer(steps)) /
        b;
    if (zone) {
        f.clause = rules.shear->linkClauses().resistance;
        f.here.push_back(fmt::format("With links {}, legs {} along and {} across, over {}.", zone->bar,
                                     units::text(zone->along, Kind::BarSpacing, in.basis.units),
                                     units::text(zone->across, Kind::BarSpacing, in.basis.units),
                                     units::text(zone->to - zone->from, Kind::Span, in.basis.units)));
        f.notes.push_back("The strut angle is taken no flatter than the shift of the tension by d allows.");
    } else if (const double least = rules.shear->leastLinkedThickness();
               f.demand > f.limit && section.h < least) {
        f.here.push_back(fmt::format("Slabs thinner than {} cannot have links ({}).",
                                     units::text(least, Kind::Length, in.basis.units),
                                     rules.shear->linkClauses().slabs));
    }
    f.here.push_back(
        fmt::format("Not nearer to a support than d from its face; {} steel, as anchored there{}.",
                    top ? "top" : "bottom", of.shearNote));
    list.add({"shear", "One-way shear", Topic::OneWayShear, checks::judged(f), std::move(steps)},
             at(of, spanPlace(of, span), stations[worst].u), of.combination(demand.shear[worst].by));
}

void LineChecker::slenderness(std::size_t i) {
    const auto& span = line.spans[i];
    const auto& special = of.spans[i];
    const auto clear = range(span.clearFrom, span.clearTo);
    const std::string clause = rules.slenderness->clause();
    auto add = [&](Finding f, const checks::Place& place, Steps steps) {
        list.add({"slenderness", "Span/depth ratio", Topic::Slenderness, std::move(f), std::move(steps)},
                 place);
    };
    if (span.left < 0 && span.right < 0)
        return add(checks::notApplicable(
                       clause, "No support lies on this strip; the strips that cross it support it."),
                   spanPlace(of, i), {});
    const bool cantilever =
        span.ends[0] == EndCondition::Cantilever || span.ends[1] == EndCondition::Cantilever;
    // A cantilever's critical section is at its support, that of a span where the bottom is asked most.
    const std::size_t first = clear->first, last = clear->second;
    std::size_t critical = cantilever && span.left < 0 ? last : first;
    while (beyondBars(critical) && critical != (span.left < 0 ? first : last))
        span.left < 0 ? --critical : ++critical;
    const auto& need = asked(cantilever);
    for (std::size_t k = first; k <= last && !cantilever; ++k)
        if (!beyondBars(k) &&
            need[k].value / stations[k].width > need[critical].value / stations[critical].width)
            critical = k;
    const auto s = steel(cantilever, critical);
    const auto sec = section(cantilever, critical, s.diameter);
    const auto required = rules.flexure->required(sec, need[critical].value / stations[critical].width * b);
    standards::SlendernessInput input = special.slender;
    input.section = sec;
    input.system = line::spanSystem(span), input.length = span.length();
    input.requiredSteel = required.As, input.compressionSteel = required.As2,
    input.providedSteel = s.effective * b;
    Steps steps;
    Finding f;
    if (!special.slendernessElsewhere.empty() && (!cantilever || span.alongWall))
        f = checks::notApplicable(clause, special.slendernessElsewhere);
    else if (cantilever && need[critical].value <= 0)
        f = checks::notApplicable(clause, "No hogging moment in this cantilever.");
    else if (!required.possible)
        f = checks::notChecked(clause, "Section insufficient in bending; the l/d limit cannot be evaluated.");
    else
        f = rules.slenderness->check(input, tracer(steps));
    for (int e : {0, 1})
        if (span.overruled[e])
            f.notes.push_back(
                fmt::format("The end condition {} of the span is a user override of the layout.",
                            e == 0 ? "at the start" : "at the end"));
    if (f.outcome == Outcome::Over && special.sagWithin) {
        f.outcome = Outcome::NotApplicable;
        f.reason = fmt::format(
            "Exceeded ({:.2f}), but the computed deflection is within its limit and governs ({}).",
            checks::ratio(f), rules.sag->clause());
    }
    add(std::move(f), at(of, spanPlace(of, i), stations[critical].u), std::move(steps));
}

}  // namespace talvik::verify
