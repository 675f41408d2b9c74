// Figures of one base: plan, sections, and its bars as a cage in an axonometric view. On sheets, in the
// report and on screen.
#pragma once

#include "design/bases.h"
#include "design/design.h"
#include "drawing/drawing.h"

namespace talvik::drawing {

// A figure at a scale (1:scale), lower left at the origin, mm of paper.
struct BaseFigure {
    Sheet sheet;
    double width = 0, height = 0;
};
BaseFigure basePlan(const design::BasesAnswer& answer, const design::BasePart& base,
                    const design::Design& design, double scale, units::System system);
// Through the base along x (axis 0) or y.
BaseFigure baseSection(const design::BasesAnswer& answer, const design::BasePart& base, int axis,
                       double scale, units::System system);

// The concrete of a base as a section along an axis shows it, mm from the middle of its underside: around the
// base, and the strap where it is seen.
struct SectionOutline {
    std::vector<Point> base;
    std::optional<std::array<double, 4>> strap;  // from, to; least and largest height
};
SectionOutline sectionOutline(const design::BasePart& base, int axis);

// Parallel projection: turned about the vertical, seen from so far above the horizon; degrees.
struct CageView {
    double turn = 30, tilt = 22;
    bool operator==(const CageView&) const = default;
};
Point seen(const CageView& view, const bases::Point3& p);
BaseFigure baseCage(const design::BasesAnswer& answer, const design::BasePart& base, const CageView& view,
                    double scale);

// Middle lines of bars as a figure shows them, mm from the middle of the base's underside; bars that are seen
// end on are dots. Lines that lie on each other come once.
struct BarStroke {
    enum class Kind { AlongX, AlongY, Slanting, Starter, Link, Side } kind = Kind::AlongX;
    bool top = false, dot = false;
    double diameter = 0;
    std::vector<Point> line;
};
std::vector<BarStroke> sectionStrokes(const std::vector<bases::Laid>& bars, Point centre, int axis);
std::vector<BarStroke> cageStrokes(const std::vector<bases::Laid>& bars, Point centre, const CageView& view);
// Edges of the concrete of a base with its pedestals and column stubs, seen the same way.
std::vector<std::array<Point, 2>> cageEdges(const design::BasesAnswer& answer, const design::BasePart& base,
                                            const CageView& view);

}  // namespace talvik::drawing
