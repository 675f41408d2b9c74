// A floor as sorted text without ids and names: two floors drawn by different hands are alike when it is
// equal.
#pragma once

#include <algorithm>
#include <cstdio>
#include <string>
#include <vector>

#include "model/floor.h"

namespace talvik::test {

inline std::vector<std::string> likeness(const model::Floor& f) {
    std::vector<std::string> all;
    auto text = [](const char* format, auto... v) {
        char line[200];
        std::snprintf(line, sizeof line, format, (v + 0)...);
        return std::string(line);
    };
    auto outline = [&](const model::Outline& o) {
        std::vector<std::string> corners;
        for (const auto& c : o)
            corners.push_back(text(" (%.1f %.1f %.3f)", c.x + 0.0, c.y + 0.0, c.bulge + 0.0));
        std::sort(corners.begin(), corners.end());
        std::string s;
        for (auto& c : corners) s += c;
        return s;
    };
    auto ends = [&](model::Point a, model::Point b) {
        if (b.x < a.x || (b.x == a.x && b.y < a.y)) std::swap(a, b);
        return text(" %.1f %.1f to %.1f %.1f", a.x, a.y, b.x, b.y);
    };
    for (const auto& g : f.grids) {
        std::string s = text("grid %.1f %.1f %.2f %.2f", g.origin.x, g.origin.y, g.angle, g.between);
        for (double d : g.along) s += text(" %.1f", d);
        s += " /";
        for (double d : g.across) s += text(" %.1f", d);
        all.push_back(s);
    }
    for (const auto& s : f.slabs)
        all.push_back(text("slab %.1f %.1f", s.thickness, s.level) + outline(s.outline));
    for (const auto& z : f.zones)
        all.push_back(text("zone %.1f %d", z.thickness, int(z.level)) + outline(z.outline));
    for (const auto& o : f.openings) all.push_back("opening" + outline(o.outline));
    for (const auto& c : f.columns)
        all.push_back(
            text("column %.1f %.1f %d %.1f %.1f %.1f", c.x, c.y, int(c.circular), c.width, c.depth, c.angle) +
            text(" %d %d %.1f %.1f %d %d", int(c.below), int(c.above), c.heightBelow, c.heightAbove,
                 int(c.farEndsFixed), int(c.bearing)));
    for (const auto& w : f.walls)
        all.push_back(text("wall %.1f %.1f %d", w.thickness, w.height, int(w.stiff)) + ends(w.a, w.b));
    for (const auto& e : f.edges) all.push_back(text("edge %d", int(e.kind)) + ends(e.a, e.b));
    for (const auto& b : f.beams)
        all.push_back(text("beam %.1f %.1f %d %.3f", b.width, b.depth, int(b.upstand), b.torsion) +
                      ends(b.a, b.b));
    auto caseName = [&](const model::Id& id) {
        for (const auto& c : f.actions.cases)
            if (c.id == id) return c.name;
        return std::string("?");
    };
    for (const auto& c : f.actions.cases) {
        bool imposed = c.nature == model::LoadCase::Nature::Imposed;
        all.push_back("case " + c.name + text(" %d ", int(c.nature)) + (imposed ? c.use : "") +
                      text(" %.1f", c.reductionArea));
    }
    for (const auto& l : f.actions.loads) {
        std::string s = "load " + caseName(l.loadCase) +
                        text(" %d %.6g %.6g %.1f %.1f", int(l.kind), l.value, l.valueY, l.width, l.depth);
        if (l.kind == model::FloorLoad::Kind::Area)
            s += outline(l.outline);
        else if (l.kind == model::FloorLoad::Kind::Line)
            s += ends(l.a, l.b);
        else
            s += text(" %.1f %.1f", l.a.x, l.a.y);
        for (const auto& y : l.layers) s += " " + y.material + text(" %.1f %.6g", y.thickness, y.density);
        all.push_back(s);
    }
    std::sort(all.begin(), all.end());
    return all;
}

}  // namespace talvik::test
