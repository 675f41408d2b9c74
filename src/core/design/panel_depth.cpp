#include "design/panel_depth.h"

#include <algorithm>
#include <cmath>

#include "design/panels_around.h"

namespace talvik::design {

std::vector<PanelDepth> panelDepths(const model::Project& project, const model::Floor& floor,
                                    const std::vector<layout::Panel>& panels,
                                    const standards::Standard& standard) {
    using layout::SideKind;
    std::vector<PanelDepth> all;
    for (const auto& p : panels) {
        PanelDepth out;
        standards::PanelInput in;
        auto loose = [](const layout::Panel::Span& s) {
            return s.ends[0] == SideKind::Free && s.ends[1] == SideKind::Free;
        };
        if (loose(p.spans[0]) && loose(p.spans[1])) {
            out.system = "not supported";
            all.push_back(std::move(out));
            continue;
        }
        const auto &a = p.spans[0], &b = p.spans[1];
        in.shorter = std::min(a.clear, b.clear), in.longer = std::max(a.clear, b.clear);
        // The span that governs: across for one-way panels, the shorter on lines, the longer on columns.
        bool columns = a.ends[0] == SideKind::Columns || a.ends[1] == SideKind::Columns ||
                       b.ends[0] == SideKind::Columns || b.ends[1] == SideKind::Columns;
        const auto* span = columns == (a.clear >= b.clear) ? &a : &b;
        if (p.oneWay) {
            span = std::abs(std::remainder(p.direction - a.angle, 180.0)) <=
                           std::abs(std::remainder(p.direction - b.angle, 180.0))
                       ? &a
                       : &b;
            in.kind = standards::PanelInput::Kind::OneWay;
            in.shorter = in.longer = span->length;  // as the check of strips
        } else {
            in.kind = columns ? standards::PanelInput::Kind::OnColumns : standards::PanelInput::Kind::OnLines;
        }
        int continuous = int(span->continuous[0]) + int(span->continuous[1]);
        bool cantilever = span->ends[0] == SideKind::Free || span->ends[1] == SideKind::Free;
        if (columns && !p.oneWay) {  // an edge panel has an edge in either direction
            bool interior = a.continuous[0] && a.continuous[1] && b.continuous[0] && b.continuous[1];
            continuous = interior ? 2 : 1, cantilever = false;
        }
        using standards::SpanSystem;
        in.system = cantilever        ? SpanSystem::Cantilever
                    : continuous == 2 ? SpanSystem::Interior
                    : continuous == 1 ? SpanSystem::End
                                      : SpanSystem::Simple;
        const char* names[] = {"simply supported", "end span", "interior span", "cantilever"};
        out.system = names[static_cast<int>(in.system)];
        if (in.kind == standards::PanelInput::Kind::OnColumns)
            out.system =
                in.system == SpanSystem::Interior ? "on columns, interior panel" : "on columns, edge panel";
        const auto seen = spanPanel(p, floor, span->angle);
        in.drop = seen.drop, in.edgeBeam = seen.edgeBeam, in.stiffness = seen.stiffness,
        in.softEdge = seen.softEdge;
        in.toSteel = project.basis.coverBottom + 8;
        in.section.fc = project.basis.concreteStrength;
        in.section.fy = project.basis.steelYield;
        out.thickness = standard.slenderness->panelThickness(in, &out.steps);
        all.push_back(std::move(out));
    }
    return all;
}

std::size_t governing(const std::vector<PanelDepth>& depths) {
    return std::size_t(
        std::max_element(depths.begin(), depths.end(),
                         [](const auto& x, const auto& y) { return x.thickness < y.thickness; }) -
        depths.begin());
}

}  // namespace talvik::design
