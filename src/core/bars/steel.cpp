#include "bars/steel.h"

#include <algorithm>
#include <cmath>

namespace talvik::bars {

Steel steelAt(const std::vector<Run>& runs, bool top, double u, double width) {
    Steel s;
    for (const auto& r : runs) {
        if (r.top() != top || u < r.from || u > r.to) continue;
        double area = r.area * (r.band() ? std::min(1.0, r.width / std::max(width, 1.0)) : 1);
        double anchored = std::min({1.0, r.anchorStart > 0 ? (u - r.from) / r.anchorStart : 1.0,
                                    r.anchorEnd > 0 ? (r.to - u) / r.anchorEnd : 1.0});
        s.full += area;
        s.effective += area * std::max(0.0, anchored);
        s.diameter = std::max(s.diameter, r.diameter);
        // Runs that lie together, as in a lap, lie between each other.
        if (!r.band()) s.spacing = s.spacing == 0 ? r.spacing : 1 / (1 / s.spacing + 1 / r.spacing);
    }
    return s;
}

void size(Run& run, double thickness, const line::LineBasis& in) {
    const catalogs::Bar& bar = *catalogs::barCatalog(in.basis.barCatalog)->find(run.bar);
    run.area = bar.area / run.spacing, run.diameter = bar.diameter;
    anchor(run, thickness, in);
}
bool replaces(const Run& fixed, const Run& run) {
    const double both = std::min(fixed.to, run.to) - std::max(fixed.from, run.from);
    return fixed.role == run.role && both > 0.5 * std::min(fixed.to - fixed.from, run.to - run.from);
}

double edgeReach(const line::Station& station, const line::LineBasis& in) {
    const double least = in.basis.coverSide + 50;
    return in.edgesClosed ? least : std::max(least, station.thickness);
}
bool leftToEdge(const line::Line& line, const line::Station& station, double reach) {
    for (int side : {-1, 1}) {
        if (line.inside[side < 0 ? 0 : 1]) continue;  // bars go on
        const double away = side < 0 ? station.u - line.from : line.to - station.u;
        const int end = line.spans.empty() ? -1
                        : side < 0         ? line.spans.front().left
                                           : line.spans.back().right;
        const auto* support = end < 0 ? nullptr : &line.supports[std::size_t(end)];
        if (away < reach) return true;
        if (support && support->kind != line::Support::Kind::Columns &&
            (side < 0 ? station.u < support->to - 1.5 : station.u > support->from + 1.5))
            return true;
    }
    return false;
}

double bandSteel(const std::vector<Run>& runs, double u) {
    double sum = 0;
    for (const auto& r : runs)
        if (r.top() && u >= r.from && u <= r.to) sum += r.area;
    return sum;
}

standards::AnchorageInput anchorageInput(const Run& run, bool hooked, double thickness,
                                         const line::LineBasis& in) {
    standards::AnchorageInput a;
    a.diameter = run.diameter;
    a.area = run.area * run.spacing;
    a.fc = in.basis.concreteStrength;
    a.fy = in.basis.steelYield;
    a.stress = in.standard.anchorage->designYield(a.fy);
    a.cd = std::min((run.spacing - run.diameter) / 2,
                    (run.top() ? in.basis.coverTop : in.basis.coverBottom) + in.outer(run.top()));
    a.good = !run.top() ||
             in.standard.anchorage->goodBond(thickness - in.basis.coverTop - in.outer(true) - run.diameter);
    a.hooked = hooked;
    a.spacing = run.spacing;
    return a;
}

void anchor(Run& run, double thickness, const line::LineBasis& in) {
    const auto& rules = *in.standard.anchorage;
    run.anchorStart = rules.length(anchorageInput(run, run.start == model::BarEnd::Hook, thickness, in));
    run.anchorEnd = rules.length(anchorageInput(run, run.end == model::BarEnd::Hook, thickness, in));
}

standards::EndAnchorageInput endAnchorage(const line::Line& line, const std::vector<line::Station>& stations,
                                          const line::Demand& demand, std::size_t span, int side,
                                          const Run& run, bool hooked, const line::LineBasis& in) {
    const auto& s = line.spans[span];
    double face = side > 0 ? s.clearTo : s.clearFrom, axis = side > 0 ? s.to : s.from;
    const std::size_t at = line::nearestStation(stations, face);
    standards::EndAnchorageInput e;
    const double width = stations[at].width;
    e.section = line::section(false, run.diameter, stations[at], in, width);
    e.V = demand.shear[at].value;
    e.As = run.area * width;
    e.bar = anchorageInput(run, hooked, stations[at].thickness, in);
    double end = side > 0 ? run.to : run.from;
    e.beyondFace = std::abs(end - face);
    e.beyondCentre = side > 0 ? end - axis : axis - end;
    return e;
}

void lapNeighbours(std::vector<Run>& runs, double apart, double step,
                   const std::function<double(const Run&)>& lap) {
    std::vector<Run*> tops;
    for (auto& r : runs)
        if (r.role == model::Role::TopMain) tops.push_back(&r);
    std::stable_sort(tops.begin(), tops.end(), [](const Run* a, const Run* b) { return a->from < b->from; });
    for (std::size_t k = 0; k + 1 < tops.size(); ++k) {
        Run &a = *tops[k], &b = *tops[k + 1];
        if (a.fixed || b.fixed || b.from - a.to >= apart) continue;
        const double lacks = units::roundUp(std::max(lap(a), lap(b)), step) - (a.to - b.from);
        if (lacks <= 1e-6) continue;
        const double each = units::roundUp(lacks / 2, step);
        // No further than the other one reaches.
        a.to = std::min(a.to + each, std::max(a.to, b.to));
        b.from = std::max(b.from - each, std::min(b.from, a.from));
    }
}

}  // namespace talvik::bars
