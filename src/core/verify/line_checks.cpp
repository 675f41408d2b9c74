#include "verify/line_checks.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "verify/line_checker.h"

namespace talvik::verify {

checks::Place at(const LineCase& of, checks::Place place, double u) {
    place.x = u;
    place.at = of.plan(u);
    return place;
}
checks::Place spanPlace(const LineCase& of, std::size_t i) {
    const auto& s = of.view.line.spans[i];
    return at(of, {{of.part, model::Spot::In::Span, s.id}, "span " + s.name, 0, s.from, s.to},
              (s.from + s.to) / 2);
}
checks::Place supportPlace(const LineCase& of, std::size_t k) {
    const auto& s = of.view.line.supports[k];
    return at(of, {{of.part, model::Spot::In::Support, s.id}, "support " + s.name, 0, s.from, s.to}, s.u);
}

std::optional<LineChecker::Range> LineChecker::around(std::size_t s) const {
    double from = s == 0 ? line.from : line.supports[s].from,
           to = s + 1 == line.supports.size() ? line.to : line.supports[s].to;
    for (const auto& span : line.spans) {
        const double mid = (span.clearFrom + span.clearTo) / 2;
        if (span.right == int(s)) from = span.left < 0 ? line.from : mid;
        if (span.left == int(s)) to = span.right < 0 ? line.to : mid;
    }
    return range(from, to);
}

bool LineChecker::beyondBars(std::size_t i) const {
    const double reach = in.basis.coverSide + 50;
    return (!line.inside[0] && stations[i].u < line.from + reach) ||
           (!line.inside[1] && stations[i].u > line.to - reach);
}

void LineChecker::widthStep(Steps& steps, const char* symbol, std::size_t i, double onWidth,
                            bool moment) const {
    if (!tracing || of.unitWidth) return;
    if (moment)
        trace::step(&steps, "u", "", {}, stations[i].u / 1000, "m", "", "the station, along the strip");
    trace::step(&steps, symbol, moment ? "M/b_strip" : "V/b_strip",
                {{moment ? "M" : "V", onWidth / (moment ? 1e6 : 1e3), moment ? "kNm" : "kN"},
                 {"b_strip", stations[i].width / 1000, "m"}},
                onWidth / stations[i].width / (moment ? 1000 : 1), moment ? "kNm/m" : "kN/m",
                "integration across the strip",
                moment ? "moment on the strip over its width at the station"
                       : fmt::format("at u = {:.2f} m", stations[i].u / 1000));
}

void checkLine(const LineCase& of, CheckList& list, bool tracing) {
    LineChecker c{of, list, tracing};
    const auto& line = of.view.line;
    for (std::size_t i = 0; i < line.spans.size(); ++i) {
        if (!c.range(line.spans[i].clearFrom, line.spans[i].clearTo)) continue;
        // The first and last span go on to the line's ends.
        c.face(false, spanPlace(of, i),
               *c.range(i == 0 ? line.from : line.spans[i].clearFrom,
                        i + 1 == line.spans.size() ? line.to : line.spans[i].clearTo));
        c.shear(i);
        c.slenderness(i);
        for (int side : {-1, 1}) c.anchorage(i, side);
    }
    for (std::size_t s = 0; s < line.supports.size(); ++s) {
        if (auto where = c.around(s)) c.face(true, supportPlace(of, s), *where);
        c.through(s);
    }
    if (line.supports.empty())
        if (auto where = c.range(line.from, line.to))
            c.face(true,
                   {{of.part, model::Spot::In::Whole, {}}, "whole strip", line.from, line.from, line.to},
                   *where);
}

void fillCurves(LineDesign& d, const line::View& view, const line::LineBasis& in) {
    const auto& [line, stations, demand] = view;
    const auto& rules = in.standard;
    const double usual = model::largestBar(in.basis);
    constexpr double b = 1000;
    for (bool top : {false, true}) {
        auto& curve = top ? d.top : d.bottom;
        curve = {};
        const auto& asked = top ? demand.top : demand.bottom;
        std::vector<double> diameters;
        for (const auto& s : stations) {
            auto steel = bars::steelAt(d.runs, top, s.u, s.width);
            auto sec = line::section(top, steel.diameter > 0 ? steel.diameter : usual, s, in, b);
            const std::size_t i = curve.provided.size();
            diameters.push_back(steel.diameter);
            curve.provided.push_back(steel.full);
            auto need = rules.flexure->required(sec, asked[i].value / s.width * b);
            double compression = need.doubly ? bars::steelAt(d.runs, !top, s.u, s.width).effective : 0;
            curve.resistance.push_back(
                steel.effective > 0
                    ? rules.flexure->resistance(sec, steel.effective * b, compression * b).M / b * s.width
                    : 0);
            curve.required.push_back(asked[i].value <= 0 ? 0 : need.possible ? need.As / b : 1e9);
        }
        // Where no bars are, those nearest count.
        std::vector<double> nearest = diameters;
        for (std::size_t i = 0; i < stations.size(); ++i) {
            double least = 1e300;
            for (std::size_t k = 0; k < stations.size() && diameters[i] == 0; ++k)
                if (double away = std::abs(stations[k].u - stations[i].u); diameters[k] > 0 && away < least)
                    least = away, nearest[i] = diameters[k];
            if (nearest[i] == 0) nearest[i] = usual;
        }
        curve.shifted = line::movedDemand(line, stations, demand, top, nearest, in);
    }
    d.shearResistance.clear(), d.atEdge.clear();
    for (const auto& s : stations) d.atEdge.push_back(bars::leftToEdge(line, s, bars::edgeReach(s, in)));
    for (std::size_t i = 0; i < stations.size(); ++i) {
        const auto at = shearAt(d, view, in, i);
        d.shearResistance.push_back(rules.shear->oneWay(at.section, at.As) / b * stations[i].width);
    }
}

ShearAt shearAt(const LineDesign& design, const line::View& view, const line::LineBasis& in,
                std::size_t station) {
    constexpr double b = 1000;
    const auto& s = view.stations[station];
    const bool top = view.demand.shearHogs[station];
    const auto steel = bars::steelAt(design.runs, top, s.u, s.width);
    const double diameter = steel.diameter > 0 ? steel.diameter : model::largestBar(in.basis);
    return {line::section(top, diameter, s.leastThickness, in, b), steel.effective * b};
}

}  // namespace talvik::verify
