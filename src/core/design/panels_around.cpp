#include "design/panels_around.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace talvik::design {
namespace {

using layout::Panel;
using layout::SideKind;
using model::Point;
using Kind = standards::SlendernessInput::Panel;

// Degrees between two lines, 0 to 90.
double between(double a, double b) {
    return std::abs(std::remainder(a - b, 180.0));
}

// Ratio of a beam's stiffness to that of the slab that it carries (ACI 318-19 8.10.2.7, beam by 8.4.1.8), of
// the same concrete. `carried`: breadth of slab.
double beamRatio(const model::FloorBeam& beam, double slab, double carried, bool edge) {
    const double web = std::max(0.0, beam.depth - slab),
                 flange = beam.width + (edge ? 1 : 2) * std::min(web, 4 * slab);
    const double a1 = flange * slab, a2 = beam.width * web;
    if (a1 + a2 <= 0 || carried <= 0 || slab <= 0) return 0;
    const double y = (a1 * slab / 2 + a2 * (slab + web / 2)) / (a1 + a2);
    const double I = flange * std::pow(slab, 3) / 12 + a1 * std::pow(y - slab / 2, 2) +
                     beam.width * std::pow(web, 3) / 12 + a2 * std::pow(slab + web / 2 - y, 2);
    return I / (carried * std::pow(slab, 3) / 12);
}

}  // namespace

bool hasDropPanels(const Panel& panel, const model::Floor& floor) {
    int columns = 0;
    for (const auto& c : floor.columns) {
        const Point at{c.x, c.y};
        if (!c.below ||
            (!geometry::contains(panel.outline, at) && geometry::distanceToEdge(panel.outline, at) > 600))
            continue;
        ++columns;
        bool dropped = false;
        for (const auto& z : floor.zones) {
            if (z.thickness < 1.25 * panel.thickness - 1e-6) continue;
            const auto ring = model::ring(z.outline);
            if (!geometry::contains(ring, at)) continue;
            bool wide = true;
            for (const auto& s : panel.spans) {
                const double t = s.angle * std::numbers::pi / 180, reach = s.length / 6 - 1;
                // Into the panel: on the side of its centre.
                const double side =
                    (panel.centre.x - at.x) * std::cos(t) + (panel.centre.y - at.y) * std::sin(t);
                const double sign = side >= 0 ? 1 : -1;
                wide &= geometry::contains(
                    ring, {at.x + sign * reach * std::cos(t), at.y + sign * reach * std::sin(t)});
            }
            dropped |= wide;
        }
        if (!dropped) return false;
    }
    return columns > 0;
}

SpanPanel spanPanel(const Panel& p, const model::Floor& floor, double angle) {
    SpanPanel out;
    out.known = true;
    const auto &a = p.spans[0], &c = p.spans[1];
    out.longer = std::max(a.clear, c.clear), out.shorter = std::min(a.clear, c.clear);
    int lines = 0, columns = 0;
    out.edgeBeam = true;
    double ratios = 0;
    for (int s = 0; s < 2; ++s)
        for (int e = 0; e < 2; ++e) {
            const auto& span = p.spans[s];
            lines += span.ends[e] == SideKind::Line, columns += span.ends[e] == SideKind::Columns;
            const bool edge = !span.continuous[e];
            out.exterior |= edge;
            out.edgeBeam &= !edge || span.ends[e] == SideKind::Line;
            // The member on that side: a beam there has a stiffness, walls are taken as stiff.
            const double t = span.angle * std::numbers::pi / 180, way = (e == 0 ? -0.5 : 0.5) * span.length;
            const Point at{p.centre.x + way * std::cos(t), p.centre.y + way * std::sin(t)};
            double ratio = span.ends[e] == SideKind::Line ? 99 : 0;
            for (const auto& beam : floor.beams)
                if (geometry::distance(at, beam.a, beam.b) < 600)
                    ratio = beamRatio(beam, p.thickness, edge ? span.length / 2 : span.length, edge);
            ratios += std::min(ratio, 99.0);
            out.softEdge |= edge && ratio < 0.8;
        }
    out.edgeBeam &= out.exterior;
    out.stiffness = ratios / 4;
    out.drop = hasDropPanels(p, floor);
    if (p.oneWay) {
        out.kind = Kind::OneWay;
        out.oneWay = true;
        out.across = between(angle, p.direction) > 45;
        return out;
    }
    out.kind = columns > 0 ? Kind::OnColumns : lines == 4 ? Kind::OnLines : Kind::OneWay;
    const double own = between(angle, a.angle) < between(angle, c.angle) ? a.clear : c.clear;
    out.longWay = out.kind == Kind::OnLines && own > out.shorter * 1.001;
    return out;
}

std::vector<SpanPanel> spanPanels(const strips::Strip& strip, const model::Floor& floor,
                                  const std::vector<Panel>& panels) {
    auto panelAt = [&](Point at) -> const Panel* {
        for (const auto& p : panels)
            for (const auto& part : p.parts)
                if (geometry::contains(part, at)) return &p;
        return nullptr;
    };
    auto weight = [](const SpanPanel& p) {
        return std::pair(!p.known                    ? 0
                         : p.kind == Kind::OnColumns ? 3
                         : p.kind == Kind::OnLines   ? 2
                                                     : 1,
                         p.longer);
    };
    std::vector<SpanPanel> all;
    const bool onLine = strip.kind == strips::Strip::Kind::Column || strip.kind == strips::Strip::Kind::Full;
    for (const auto& span : strip.spans) {
        const double u = (span.clearFrom + span.clearTo) / 2, v = strip.v(u);
        SpanPanel best;
        for (double side : onLine ? std::vector<double>{-0.3 * strip.toNext[0], 0.3 * strip.toNext[1]}
                                  : std::vector<double>{0})
            if (const auto* p = panelAt(strip.axes.plan({u, v + side}))) {
                auto seen = spanPanel(*p, floor, strip.axes.angle);
                if (weight(seen) > weight(best)) best = seen;
            }
        all.push_back(best);
    }
    return all;
}

}  // namespace talvik::design
