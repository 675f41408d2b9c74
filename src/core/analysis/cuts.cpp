#include "analysis/cuts.h"

#include <cmath>

namespace talvik::analysis {

using model::Point;

Cutter::Cutter(const FloorModel& model)
    : model_(model),
      finder_(model.plate.nodes, model.plate.triangles),
      carried_(model.plate.nodes.size(), 0) {
    for (const auto& r : model.plate.restraints)
        if (r.w) carried_[std::size_t(r.node)] = 1;
    for (const auto& b : model.plate.beams) carried_[std::size_t(b.a)] = carried_[std::size_t(b.b)] = 1;
}

CutLine Cutter::cut(Point from, Point to) const {
    CutLine c;
    c.from = from, c.to = to;
    c.length = std::hypot(to.x - from.x, to.y - from.y);
    if (c.length == 0) return c;
    const double L = c.length;
    c.nx = -(to.y - from.y) / L, c.ny = (to.x - from.x) / L;
    auto place = [&](double u) { return Point{from.x + u * (to.x - from.x), from.y + u * (to.y - from.y)}; };
    // Stations where the cut passes from triangle to triangle; values vary linearly in between.
    std::vector<double> stops = finder_.crossings(from, to);
    // A station, taken a little inside the part that it belongs to.
    auto sample = [&](double u, double nudge) {
        CutLine::Sample s;
        s.along = u * L;
        s.triangle = finder_.find(place(u + nudge), &s.share);
        if (s.triangle >= 0)
            for (int i = 0; i < 3; ++i) s.point[i] = model_.points.corner[3 * std::size_t(s.triangle) + i];
        return s;
    };
    // Whether the slab ends just beyond a place on the cut.
    auto edgeAt = [&](double u, int side) { return finder_.find(place(u + side * 2.0 / L)) < 0; };
    // Whether the slab's edge next to a place on it is free: neither held nor stiffened by a beam.
    auto freeEdge = [&](double u) {
        int t = finder_.find(place(u));
        if (t < 0) return false;
        int held = 0;
        for (int n : model_.plate.triangles[t]) held += carried_[std::size_t(n)];
        return held < 2;
    };
    // The normal of the slab's edge through which the cut leaves in a direction. Where it leaves at a node,
    // the triangle it leaves may touch the edge with that corner alone.
    auto edgeNormal = [&](const CutLine::Sample& s, int side) {
        const Point p = place(s.along / L), t{side * c.ny, side * -c.nx};
        CutLine::FreeEnd e{0, t.x, t.y};
        double least = 1e300;
        finder_.touching({p.x - 3, p.y - 3}, {p.x + 3, p.y + 3}, [&](int triangle) {
            const auto& corners = model_.plate.triangles[std::size_t(triangle)];
            for (int i = 0; i < 3; ++i) {
                const Point a = model_.plate.nodes[std::size_t(corners[i])],
                            b = model_.plate.nodes[std::size_t(corners[(i + 1) % 3])];
                const double length = geometry::length(a, b), ex = (b.y - a.y) / length,
                             ey = -(b.x - a.x) / length;
                if (ex * t.x + ey * t.y <= 0) continue;
                const Point beyond{(a.x + b.x) / 2 + ex, (a.y + b.y) / 2 + ey};
                const double d = geometry::distance(p, a, b);
                if (d < least && finder_.find(beyond) < 0) least = d, e.ex = ex, e.ey = ey;
            }
        });
        return e;
    };
    auto freeEnd = [&](std::size_t index, const CutLine::Sample& s, int side) {
        auto e = edgeNormal(s, side);
        e.sample = index;
        c.freeEnds.push_back(e);
    };
    bool before = false;
    double end = 0;  // of the last part on the slab
    for (std::size_t i = 0; i + 1 < stops.size(); ++i) {
        double part = stops[i + 1] - stops[i];
        if (part * L < 1e-6) continue;
        auto s = sample(stops[i], part * 1e-3), e = sample(stops[i + 1], -part * 1e-3);
        bool here = s.triangle >= 0 && e.triangle >= 0;
        if (here && !before && freeEdge(stops[i] + part * 1e-3) && edgeAt(stops[i], -1))
            freeEnd(c.samples.size(), s, -1);
        if (!here && before && freeEdge(end) && edgeAt(stops[i], 1))
            freeEnd(c.samples.size() - 1, c.samples.back(), 1);
        before = here;
        if (!here) continue;
        c.samples.push_back(s);
        c.samples.push_back(e);
        c.onSlab += part * L;
        end = stops[i + 1] - part * 1e-3;
    }
    if (before && freeEdge(end) && edgeAt(1, 1)) freeEnd(c.samples.size() - 1, c.samples.back(), 1);
    const auto& nodes = model_.plate.nodes;
    for (std::size_t k = 0; k < model_.plate.beams.size(); ++k) {
        const auto& b = model_.plate.beams[k];
        Point p = nodes[std::size_t(b.a)], q = nodes[std::size_t(b.b)];
        double sp = (p.x - from.x) * c.nx + (p.y - from.y) * c.ny,
               sq = (q.x - from.x) * c.nx + (q.y - from.y) * c.ny;
        if ((sp >= 0) == (sq >= 0)) continue;
        double s = sp / (sp - sq), x = p.x + s * (q.x - p.x), y = p.y + s * (q.y - p.y);
        double along = ((x - from.x) * (to.x - from.x) + (y - from.y) * (to.y - from.y)) / (L * L);
        if (along < 0 || along > 1) continue;
        double len = std::hypot(q.x - p.x, q.y - p.y), cx = (q.x - p.x) / len, cy = (q.y - p.y) / len;
        double onNormal = cx * c.nx + cy * c.ny, sign = std::copysign(1.0, onNormal);
        // The part of the couple about the cut; the torque's share with the beam aslant.
        c.beams.push_back({int(k), s, std::abs(onNormal), (-cy * c.nx + cx * c.ny) * sign, sign});
    }
    return c;
}

Tensor tensorAt(const CutLine::Sample& s, const fem::MomentField& m, double nx, double ny) {
    double mx = 0, my = 0, mxy = 0;
    for (std::size_t i = 0; i < 3; ++i) {
        const double* v = &m[3 * std::size_t(s.point[i])];
        mx += s.share[i] * v[0], my += s.share[i] * v[1], mxy += s.share[i] * v[2];
    }
    const double xx = nx * nx, yy = ny * ny, xy = nx * ny;
    return {mx * xx + my * yy + 2 * mxy * xy, mx * yy + my * xx - 2 * mxy * xy,
            (my - mx) * xy + mxy * (xx - yy)};
}
double shearAt(const CutLine& c, const CutLine::Sample& s, const fem::ShearField& q) {
    double value = 0;
    for (int i = 0; i < 3; ++i) {
        const double* v = &q[2 * std::size_t(s.point[i])];
        value += s.share[i] * (v[0] * c.nx + v[1] * c.ny);
    }
    return value;
}

double slabMoment(const CutLine& c, const fem::MomentField& m) {
    double sum = 0;
    for (std::size_t i = 0; i + 1 < c.samples.size(); i += 2)
        sum +=
            (tensorAt(c.samples[i], m, c.nx, c.ny).along + tensorAt(c.samples[i + 1], m, c.nx, c.ny).along) /
            2 * (c.samples[i + 1].along - c.samples[i].along);
    return sum;
}
double slabShear(const CutLine& c, const fem::MomentField& m, const fem::ShearField& q) {
    double sum = 0;
    for (std::size_t i = 0; i + 1 < c.samples.size(); i += 2)
        sum += (shearAt(c, c.samples[i], q) + shearAt(c, c.samples[i + 1], q)) / 2 *
               (c.samples[i + 1].along - c.samples[i].along);
    for (const auto& e : c.freeEnds) {
        double twist = tensorAt(c.samples[e.sample], m, e.ex, e.ey).twist;
        sum -= std::copysign(twist, twist * (-e.ey * c.nx + e.ex * c.ny));
    }
    return sum;
}
BeamShare beamShare(const CutLine& c, const FloorModel& model, const fem::NodeVector& u) {
    BeamShare sum;
    for (const auto& b : c.beams) {
        auto f = fem::beamForces(model.plate.beams[std::size_t(b.element)], model.plate.nodes, u);
        sum.moment +=
            (f.momentStart + b.share * (f.momentEnd - f.momentStart)) * b.cosine + f.torque * b.torque;
        sum.shear += f.shear * b.sign;
    }
    return sum;
}

CombinationCuts::CombinationCuts(const FloorAnalysis& a, const Cutter& cutter, std::size_t combination)
    : a_(a),
      cutter_(cutter),
      weight_(a.combinations[combination].factors),
      m_(3 * a.model->points.node.size(), 0) {
    if (a.nonlinear) weight_.assign(a.u.size(), 0), weight_[combination] = 1;
    for (std::size_t k = 0; k < a.u.size(); ++k)
        if (weight_[k] != 0)
            for (std::size_t i = 0; i < m_.size(); ++i) m_[i] += weight_[k] * a.moments[k][i];
    q_ = fem::recoverShears(a.model->plate, a.model->points, m_);
}
Cut CombinationCuts::cut(Point from, Point to) const {
    Cut c;
    const CutLine line = cutter_.cut(from, to);
    for (std::size_t k = 0; k < a_.u.size(); ++k) {
        if (weight_[k] == 0) continue;
        const auto beams = beamShare(line, *a_.model, a_.u[k]);
        c.beamMoment += weight_[k] * beams.moment;
        c.beamShear += weight_[k] * beams.shear;
    }
    for (const auto& s : line.samples) {
        const auto t = tensorAt(s, m_, line.nx, line.ny);
        c.stations.push_back({s.along, t.along, shearAt(line, s, q_), t.twist});
    }
    c.slabMoment = slabMoment(line, m_);
    c.slabShear = slabShear(line, m_, q_);
    c.length = line.onSlab;
    return c;
}

}  // namespace talvik::analysis
