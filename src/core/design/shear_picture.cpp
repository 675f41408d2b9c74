#include "design/shear_picture.h"

#include <algorithm>
#include <cmath>

#include "design/steel_at.h"
#include "fem/parallel/pool.h"
#include "strips/strip_finder.h"

namespace talvik::design {

using geometry::Point;

ShearPicture shearPicture(const FloorDesign& f) {
    const auto& a = *f.analysis;
    const auto& m = *a.model;
    const std::size_t n = m.points.node.size();
    ShearPicture picture{std::vector<double>(n, 0), std::vector<double>(n, 0)};
    std::vector<fem::ShearField> q(a.moments.size());
    fem::parallelFor(q.size(),
                     [&](std::size_t c) { q[c] = fem::recoverShears(m.plate, m.points, a.moments[c]); });
    std::vector<double> thickness(n, 0);
    std::vector<Point> place(n);
    for (std::size_t t = 0; t < m.plate.triangles.size(); ++t) {
        Point g;
        for (int k : m.plate.triangles[t]) {
            const Point p = m.plate.nodes[std::size_t(k)];
            g.x += p.x / 3, g.y += p.y / 3;
        }
        for (std::size_t k = 0; k < 3; ++k) {
            const auto i = std::size_t(m.points.corner[3 * t + k]);
            const Point node = m.plate.nodes[std::size_t(m.points.node[i])];
            thickness[i] = thickness[i] > 0 ? std::min(thickness[i], m.thickness[t]) : m.thickness[t];
            place[i] = {node.x + 0.05 * (g.x - node.x), node.y + 0.05 * (g.y - node.y)};
        }
    }
    const SlabEdges edges(*f.floor);
    constexpr std::size_t block = 256;
    fem::parallelFor((n + block - 1) / block, [&](std::size_t piece) {
        const strips::StripFinder finders[2] = {{*f.layout, 0}, {*f.layout, 1}};
        for (std::size_t i = piece * block; i < std::min(n, (piece + 1) * block); ++i) {
            double most = 0, ex = 1, ey = 0;
            std::size_t by = 0;
            for (std::size_t k = 0; k < a.combinations.size(); ++k) {
                if (a.combinations[k].state != actions::LimitState::Ultimate) continue;
                double x = 0, y = 0;
                if (a.nonlinear)
                    x = q[k][2 * i], y = q[k][2 * i + 1];
                else
                    for (std::size_t c = 0; c < a.combinations[k].factors.size() && c < q.size(); ++c)
                        x += a.combinations[k].factors[c] * q[c][2 * i],
                            y += a.combinations[k].factors[c] * q[c][2 * i + 1];
                if (const double v = std::hypot(x, y); v > most) most = v, ex = x / v, ey = y / v, by = k;
            }
            double bending = 0;
            auto moment = [&](const fem::MomentField& field) {
                return field[3 * i] * ex * ex + field[3 * i + 1] * ey * ey + 2 * field[3 * i + 2] * ex * ey;
            };
            if (a.nonlinear)
                bending = moment(a.moments[by]);
            else
                for (std::size_t c = 0; c < a.combinations[by].factors.size() && c < a.moments.size(); ++c)
                    bending += a.combinations[by].factors[c] * moment(a.moments[c]);
            const bool top = bending < 0;
            double area = 0, depth = 0, share = 0;
            for (int k : {0, 1}) {
                const int strip = finders[k].at(place[i]);
                if (strip < 0) continue;
                const StripDesign& s = *f.strips[std::size_t(strip)];
                const bool edge = edges.toEdge(place[i]) < std::max(thickness[i], f.basis->coverSide + 50);
                const auto steel =
                    steelAt(s, top, s.strip->axes.local(place[i]), edge, f.basis->coverSide, edges);
                const double along = ex * s.strip->axes.c + ey * s.strip->axes.s, w = along * along;
                area += w * (edge ? steel.full : steel.anchored);
                depth += w * line::section(top, steel.diameter > 0 ? steel.diameter : 12, thickness[i],
                                           {*f.basis, *f.standard, s.outerTop, s.outerBottom}, 1000)
                                 .d;
                share += w;
            }
            const double d =
                share > 0 ? depth / share : std::max(20.0, thickness[i] - f.basis->coverTop - 16);
            picture.stress[i] = most / d;
            if (share > 0)
                picture.strength[i] =
                    f.standard->shear->oneWay(
                        {1000, thickness[i], d, 30, f.basis->concreteStrength, f.basis->steelYield},
                        area / share * 1000) /
                    (1000 * d);
        }
    });
    return picture;
}

}  // namespace talvik::design
