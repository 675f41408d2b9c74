#include "reinforcement/strip_steel.h"

#include <algorithm>
#include <cmath>

namespace talvik::reinforcement {

StripSteel stripSteel(const std::vector<StripRun>& runs, bool top, double u, double width) {
    StripSteel s;
    for (const auto& r : runs) {
        if (r.top != top || u < r.from || u > r.to) continue;
        double area = r.area * (r.band ? std::min(1.0, r.width / std::max(width, 1.0)) : 1);
        double anchored = std::min({1.0, r.anchorStart > 0 ? (u - r.from) / r.anchorStart : 1.0,
                                    r.anchorEnd > 0 ? (r.to - u) / r.anchorEnd : 1.0});
        s.full += area;
        s.effective += area * std::max(0.0, anchored);
        s.diameter = std::max(s.diameter, r.diameter);
        // Runs that lie together, as in a lap, lie between each other.
        if (!r.band) s.spacing = s.spacing == 0 ? r.spacing : 1 / (1 / s.spacing + 1 / r.spacing);
    }
    return s;
}

bool leftToEdge(const strips::Strip& strip, const strips::Station& station, double cover) {
    for (int side : {-1, 1}) {
        if (strip.inside[side < 0 ? 0 : 1]) continue;  // bars go on
        const double away = side < 0 ? station.u - strip.from : strip.to - station.u;
        const int end = strip.spans.empty() ? -1
                        : side < 0          ? strip.spans.front().left
                                            : strip.spans.back().right;
        const auto* support = end < 0 ? nullptr : &strip.supports[std::size_t(end)];
        if (away < std::max(cover + 50, station.thickness)) return true;
        if (support && support->kind != strips::Support::Kind::Columns &&
            (side < 0 ? station.u < support->to - 1.5 : station.u > support->from + 1.5))
            return true;
    }
    return false;
}

double bandSteel(const std::vector<StripRun>& runs, double u) {
    double sum = 0;
    for (const auto& r : runs)
        if (r.top && u >= r.from && u <= r.to) sum += r.area;
    return sum;
}

standards::Section stripSection(bool top, double diameter, const strips::Station& station,
                                const StripBasis& in, double b) {
    double cover = top ? in.basis.coverTop : in.basis.coverBottom,
           other = top ? in.basis.coverBottom : in.basis.coverTop;
    return {b,
            station.thickness,
            station.thickness - cover - in.outer(top) - diameter / 2,
            other + in.outer(!top) + diameter / 2,
            in.basis.concreteStrength,
            in.basis.steelYield};
}

standards::AnchorageInput stripAnchorage(const StripRun& run, bool hooked, double thickness,
                                         const StripBasis& in) {
    standards::AnchorageInput a;
    a.diameter = run.diameter;
    a.area = run.area * run.spacing;
    a.fc = in.basis.concreteStrength;
    a.fy = in.basis.steelYield;
    a.stress = in.standard.detailing->designYield(a.fy);
    a.cd = std::min((run.spacing - run.diameter) / 2,
                    (run.top ? in.basis.coverTop : in.basis.coverBottom) + in.outer(run.top));
    a.good = !run.top ||
             in.standard.detailing->goodBond(thickness - in.basis.coverTop - in.outer(true) - run.diameter);
    a.hooked = hooked;
    a.spacing = run.spacing;
    return a;
}

std::vector<double> shiftedDemand(const std::vector<strips::Station>& stations,
                                  const std::vector<strips::Extreme>& demand, bool top,
                                  const std::vector<double>& diameter, const StripBasis& in) {
    std::vector<double> out(stations.size());
    auto per = [&](std::size_t i) { return demand[i].value / stations[i].width; };
    auto at = [&](double u) {
        if (u <= stations.front().u) return per(0);
        for (std::size_t i = 1; i < stations.size(); ++i)
            if (u <= stations[i].u) {
                double k = (u - stations[i - 1].u) / (stations[i].u - stations[i - 1].u);
                return per(i - 1) + k * (per(i) - per(i - 1));
            }
        return per(stations.size() - 1);
    };
    for (std::size_t i = 0; i < stations.size(); ++i) {
        const double shift = in.standard.detailing->momentShift(
            stripSection(top, diameter[i], stations[i], in, 1000).d, diameter[i]);
        double u = stations[i].u, best = std::max({per(i), at(u - shift), at(u + shift)});
        for (std::size_t k = i; k-- > 0 && u - stations[k].u <= shift;) best = std::max(best, per(k));
        for (std::size_t k = i + 1; k < stations.size() && stations[k].u - u <= shift; ++k)
            best = std::max(best, per(k));
        out[i] = best * stations[i].width;
    }
    return out;
}

standards::SpanSystem spanSystem(const strips::Span& span) {
    using model::EndCondition;
    using standards::SpanSystem;
    if (span.ends[0] == EndCondition::Cantilever || span.ends[1] == EndCondition::Cantilever)
        return SpanSystem::Cantilever;
    int on = (span.ends[0] == EndCondition::Continuous) + (span.ends[1] == EndCondition::Continuous);
    return on == 2 ? SpanSystem::Interior : on == 1 ? SpanSystem::End : SpanSystem::Simple;
}

standards::EndAnchorageInput endAnchorage(const strips::Strip& strip,
                                          const std::vector<strips::Station>& stations,
                                          const strips::StripDemand& demand, std::size_t span, int side,
                                          const StripRun& run, bool hooked, const StripBasis& in) {
    const auto& s = strip.spans[span];
    double face = side > 0 ? s.clearTo : s.clearFrom, axis = side > 0 ? s.to : s.from;
    const std::size_t at = strips::nearestStation(stations, face);
    standards::EndAnchorageInput e;
    const double width = stations[at].width;
    e.section = stripSection(false, run.diameter, stations[at], in, width);
    e.V = demand.shear[at].value;
    e.As = run.area * width;
    e.bar = stripAnchorage(run, hooked, stations[at].thickness, in);
    double end = side > 0 ? run.to : run.from;
    e.beyondFace = std::abs(end - face);
    e.beyondCentre = side > 0 ? end - axis : axis - end;
    return e;
}

}  // namespace talvik::reinforcement
