#include "design/peak_bands.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <optional>

namespace talvik::design {
namespace {

using bars::PeakBand;
using strips::Strip;

// Top steel that a strip asks over a support, for its whole width.
double steelOver(const StripDesign& d, double from, double to) {
    double most = 0;
    for (std::size_t i = 0; i < d.stations().size(); ++i)
        if (d.stations()[i].u > from - 10 && d.stations()[i].u < to + 10 && d.top.required[i] < 1e8)
            most = std::max(most, d.top.required[i] * d.stations()[i].width);
    return most;
}

const StripDesign* beside(const FloorDesign& f, const Strip& s, bool left) {
    for (const auto& o : f.strips) {
        const Strip& m = *o->strip;
        if (m.direction != s.direction || m.kind != Strip::Kind::Middle) continue;
        if ((left ? m.lineLeft : m.line) == s.line && !s.line.empty()) return o.get();
    }
    return nullptr;
}

// The largest of something of a column's force over the ultimate combinations.
template <class Measure>
double largestAt(const FloorDesign& f, const model::Id& column, Measure measure) {
    double most = 0;
    const auto& a = *f.analysis;
    for (std::size_t q = 0; q < a.model->supports.size(); ++q) {
        if (a.model->supports[q].id != column) continue;
        for (std::size_t c = 0; c < a.combinations.size(); ++c)
            if (a.combinations[c].state == actions::LimitState::Ultimate)
                most = std::max(most, measure(a.force(c, q)));
    }
    return most;
}
double columnMoment(const FloorDesign& f, const model::Id& column, const strips::Axes& axes) {
    return largestAt(f, column, [&](const auto& force) { return std::abs(force.mx * axes.c + force.my * axes.s); });
}
double columnForce(const FloorDesign& f, const model::Id& column) {
    return largestAt(f, column, [](const auto& force) { return force.up; });
}

// Top steel across the slab's edge by which its moment passes into an edge or corner column; none under 2
// kNm.
std::optional<PeakBand> edgeBand(const FloorDesign& f, const StripDesign& d, const line::LineBasis& in,
                                 std::size_t k) {
    const Strip& s = *d.strip;
    const auto& p = s.supports[k];
    const bool first = k == 0;
    const double M = columnMoment(f, p.id, s.axes);
    if (M < 2e6 || p.onBeam) return std::nullopt;
    const auto& station = d.stations()[line::nearestStation(d.stations(), first ? p.to : p.from)];
    double diameter = 0;
    for (const auto& r : d.runs)
        if (r.top() && !r.band() && r.from <= p.u && p.u <= r.to) diameter = std::max(diameter, r.diameter);
    standards::StripRules::TransferInput t;
    t.corner = s.edge[0] || s.edge[1];
    t.c1 = p.to - p.from, t.c2 = p.across;
    t.toEdge = first ? p.to - s.from : s.to - p.from;
    for (int side : {0, 1}) t.sides[side] = std::max(0.0, s.toNext[side] - p.across / 2);
    t.section = line::section(true, diameter > 0 ? diameter : 16, station, in, 1000);
    PeakBand band;
    band.support = int(k);
    band.transfer = true;
    const auto rule = in.standard.strips->transfer(t);
    band.width = rule.width;
    band.moment = M, band.most = rule.most;
    band.rule.clause = rule.clause;
    band.mostClause = rule.mostClause;
    auto section = t.section;
    section.b = rule.width;
    const auto need = in.standard.flexure->required(section, rule.share * M);
    band.steel = need.possible ? need.As / rule.width : 1e3;
    band.input = t;
    band.word =
        fmt::format("For {:.0f} % of the moment that passes into the column, {:.1f} kNm, within {:.2f} m.",
                    100 * rule.share, M / 1e6, rule.width / 1000);
    return band;
}

}  // namespace

std::vector<PeakBand> peakBands(const FloorDesign& f, const StripDesign& d, const line::LineBasis& in) {
    std::vector<PeakBand> bands;
    const Strip& s = *d.strip;
    if (s.alongBeam || s.onLines || (s.kind != Strip::Kind::Column && s.kind != Strip::Kind::Full)) return bands;
    const bool atEdge = s.edge[0] || s.edge[1];
    for (std::size_t k = 0; k < s.supports.size(); ++k) {
        const auto& p = s.supports[k];
        if (p.kind != strips::Support::Kind::Column || p.onBeam || p.across <= 0) continue;
        bool before = false, after = false, onWall = false;
        double tip = 1e9;  // how far the slab goes on beyond it where there is no other support
        for (const auto& span : s.spans) {
            if (span.cantilever() && (span.right == int(k) || span.left == int(k)))
                tip = std::min(tip, span.clearTo - span.clearFrom);
            before |= span.right == int(k), after |= span.left == int(k);
            onWall |= span.alongWall && (span.right == int(k) || span.left == int(k));
        }
        if (onWall || (!before && !after)) continue;
        {
            const auto& there = d.stations()[line::nearestStation(d.stations(), before ? p.from : p.to)];
            const auto section = line::section(true, 16, there, in, 1000);
            const int edges = int(before != after || tip < 5 * section.d) + int(atEdge);
            // A little more than there is, since depths are those of the bars that follow.
            const auto least = in.standard.strips->underShear(1.02 * columnForce(f, p.id), p.to - p.from, p.across, edges,
                                                              section);
            if (least.steel > 0) {
                PeakBand band;
                band.support = int(k), band.width = least.width, band.steel = least.steel;
                band.rule.clause = least.clause, band.underShear = true;
                bands.push_back(std::move(band));
            }
        }
        if (before != after) {
            if (auto band = edgeBand(f, d, in, k)) bands.push_back(std::move(*band));
            continue;
        }
        if (atEdge) continue;  // a cantilever beyond or not, the edge has its own bars
        std::size_t at = 0;
        for (std::size_t i = 0; i < d.stations().size(); ++i)
            if (std::abs(d.stations()[i].u - p.u) < std::abs(d.stations()[at].u - p.u)) at = i;
        double diameter = 0;
        for (const auto& r : d.runs)
            if (r.top() && !r.band() && r.from <= p.u && p.u <= r.to)
                diameter = std::max(diameter, r.diameter);
        if (diameter == 0) continue;
        auto sec = line::section(true, diameter, d.stations()[at], in, 1000);
        double panels = s.toNext[0] / 2 + s.toNext[1] / 2;
        PeakBand band;
        band.support = int(k);
        band.rule = in.standard.strips->peak(panels, p.to - p.from, p.across, sec.h, sec.d);
        band.width = f.floor->strips.rules.peakWidth > 0 ? f.floor->strips.rules.peakWidth : band.rule.width;
        if (band.rule.steelShare > 0) {
            double total = steelOver(d, p.from, p.to);
            for (bool left : {false, true})
                if (const auto* m = beside(f, s, left)) total += steelOver(*m, p.from, p.to) / 2;
            band.steel = band.rule.steelShare * total / band.width;
            band.word = fmt::format(
                "{:.0f} % of the top steel of the panels on both sides, {:.0f} mm², within {:.2f} m over the "
                "column.",
                100 * band.rule.steelShare, total, band.width / 1000);
        } else if (band.rule.momentShare > 0) {
            const double most = columnMoment(f, p.id, s.axes);
            sec.b = band.width;
            auto need = in.standard.flexure->required(sec, band.rule.momentShare * most);
            band.steel = need.possible ? need.As / band.width : 1e3;
            band.word = fmt::format(
                "For {:.0f} % of the moment that passes into the column, {:.1f} kNm, within {:.2f} m over "
                "it.",
                100 * band.rule.momentShare, most / 1e6, band.width / 1000);
        }
        bands.push_back(std::move(band));
    }
    return bands;
}

namespace {

// Whether a strip carries one way: held by lines that cross it alone, or along one-way panels.
bool carriesOneWay(const StripDesign& d) {
    return d.strip->onLines ||
           (!d.panels.empty() && std::all_of(d.panels.begin(), d.panels.end(),
                                             [](const SpanPanel& p) { return p.oneWay && !p.across; }));
}

}  // namespace

double distributionSteel(const FloorDesign& f, const StripDesign& d, const line::LineBasis& in) {
    const Strip& s = *d.strip;
    if (carriesOneWay(d) || d.stations().empty()) return 0;
    double most = 0;
    for (const auto& o : f.strips) {
        const Strip& main = *o->strip;
        if (main.direction == s.direction || !carriesOneWay(*o) || main.spans.empty() ||
            main.supports.size() < 2)
            continue;
        bool cross = false;
        for (std::size_t i = 0; i + 1 < s.axis.size() && !cross; ++i)
            for (std::size_t k = 0; k + 1 < main.axis.size() && !cross; ++k)
                cross = geometry::cross(s.axis[i], s.axis[i + 1], main.axis[k], main.axis[k + 1], nullptr);
        if (!cross) continue;
        for (const auto& r : o->runs) {
            if (r.top()) continue;
            auto section = line::section(false, r.diameter, d.stations()[d.stations().size() / 2], in, 1000);
            most = std::max(most, in.standard.steel->secondary(r.area * 1000, section) / 1000);
        }
    }
    return most;
}

}  // namespace talvik::design
