#include "analysis/floor_model.h"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <numbers>

#include "fem/mesh/parting.h"
#include "model/floor_validation.h"
#include "model/steps.h"

namespace talvik::analysis {
namespace {

using model::Point;

constexpr double acrossShare = 0.002;  // of one-way slabs; said in design::floorInput

std::string metres(Point p) {
    return fmt::format("({:.2f}, {:.2f}) m", p.x / 1000, p.y / 1000);
}

// The least distance between two parallel lines that have all rings between them and one edge on a line, over
// the edges longer than a tenth of the longest: the same however the floor lies in plan.
double leastWidth(const std::vector<geometry::Ring>& rings) {
    double longest = 0, least = 1e300;
    for (const auto& r : rings)
        for (std::size_t i = 0; i < r.size(); ++i)
            longest = std::max(longest, geometry::length(r[i], r[(i + 1) % r.size()]));
    for (const auto& ring : rings)
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point a = ring[i], b = ring[(i + 1) % ring.size()];
            const double length = geometry::length(a, b);
            if (length < 0.1 * longest) continue;
            double low = 1e300, high = -1e300;
            for (const auto& r : rings)
                for (Point p : r) {
                    const double v = ((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) / length;
                    low = std::min(low, v), high = std::max(high, v);
                }
            least = std::min(least, high - low);
        }
    return least;
}

class Builder {
  public:
    Builder(const model::Floor& floor, std::string path, const FloorBasis& basis, bool refined)
        : f_(floor),
          path_(std::move(path)),
          basis_(basis),
          scale_(refined ? 0.5 : 1),
          beamModulus_(basis.beamModulus.value_or(basis.modulus)),
          columnModulus_(basis.columnModulus.value_or(basis.modulus)) {}

    FloorModel run(fem::Stages& stages, std::stop_token stop) {
        auto start = std::chrono::steady_clock::now();
        auto since = [&] {
            auto now = std::chrono::steady_clock::now();
            double s = std::chrono::duration<double>(now - start).count();
            start = now;
            return s;
        };
        describeMesh();
        m_.mesh = fem::makeMesh(in_, stop);
        stages.mesh += since();
        if (!m_.mesh.error.empty()) {
            if (m_.mesh.error != "stopped") m_.trouble.push_back({path_, m_.mesh.error});
            return std::move(m_);
        }
        for (const auto& note : m_.mesh.notes) m_.notes.push_back({path_, note});
        if (m_.mesh.smallestAngle < 15)
            m_.notes.push_back(
                {path_,
                 fmt::format("The smallest angle of the mesh is {:.0f}°, at {}: lines meet there at a small "
                             "angle or nearly touch. Results close by are rough.",
                             m_.mesh.smallestAngle, metres(m_.mesh.smallestAngleAt))});
        // Slabs that do not touch at a step of level are apart.
        beside_ = fem::part(m_.mesh, model::gaps(f_), in_.tolerance);
        if (!beside_.empty())
            m_.notes.push_back(
                {path_,
                 "Slabs that share less than 100 mm at a step of level, without a wall or beam along "
                 "it, are not joined there."});
        m_.plate.nodes = m_.mesh.nodes;
        m_.plate.triangles = m_.mesh.triangles;
        m_.nodeSupport.assign(m_.mesh.nodes.size(), -1);
        for (auto step : {&Builder::slabs, &Builder::columns, &Builder::piles, &Builder::walls,
                          &Builder::lineSupports, &Builder::beams, &Builder::ground}) {
            if (stop.stop_requested()) return std::move(m_);
            (this->*step)();
        }
        std::vector<std::pair<int, int>> breaks;
        for (const auto& e : m_.mesh.edges) breaks.push_back({e.a, e.b});
        m_.points = fem::fieldPoints(m_.plate, breaks, stop);
        stages.model += since();
        auto misses = model::nearMisses(f_, path_);
        m_.notes.insert(m_.notes.end(), misses.begin(), misses.end());
        return std::move(m_);
    }

  private:
    const model::Floor& f_;
    std::string path_;
    const FloorBasis& basis_;
    double scale_, beamModulus_, columnModulus_;
    FloorModel m_;
    fem::MeshTask in_;
    std::vector<geometry::Ring> slabRings_, zoneRings_, groundRings_, columnRings_;
    std::vector<std::pair<int, int>> beside_;  // nodes where slabs are apart: one, and another at its place
    std::size_t firstPile_ = 0;                // among the mesh's points; before it the columns' centres
    // Ids of mesh lines: walls, then line supports, then beams.
    int edgeId(std::size_t i) const { return int(f_.walls.size() + i); }
    int beamId(std::size_t i) const { return int(f_.walls.size() + f_.edges.size() + i); }

    void describeMesh() {
        double thinnest = 1e300;
        for (const auto& s : f_.slabs) thinnest = std::min(thinnest, s.thickness);
        for (const auto& s : f_.slabs) slabRings_.push_back(model::ring(s.outline));
        for (const auto& z : f_.zones) zoneRings_.push_back(model::ring(z.outline));
        for (const auto& g : f_.grounds)
            groundRings_.push_back(g.outline.empty() ? geometry::Ring{} : model::ring(g.outline));
        double narrow = leastWidth(slabRings_);
        // Beside columns no coarser than the slab is thick; in spans 2.2 thicknesses, at least 12 to the
        // width.
        double size = f_.choices.meshSize > 0 ? f_.choices.meshSize : std::min(2.2 * thinnest, narrow / 12);
        m_.meshSize = size *= scale_;
        double atColumns = std::min(size, 0.6 * thinnest * scale_);
        in_.slabs = slabRings_;
        for (const auto& o : f_.openings) in_.openings.push_back(model::ring(o.outline));
        in_.size = size;
        // Lines nearer than a fiftieth of the thickness are one: between them there is no slab to speak of.
        in_.tolerance = std::clamp(thinnest / 50, 0.5, 5.0);
        auto follow = [&](const geometry::Ring& ring, bool yields) {
            for (std::size_t i = 0; i < ring.size(); ++i)
                in_.lines.push_back({ring[i], ring[(i + 1) % ring.size()], -1, yields});
        };
        for (const auto& r : zoneRings_) follow(r, false);
        for (const auto& r : groundRings_) follow(r, false);
        for (const auto& c : f_.columns) {
            columnRings_.push_back(model::footprint(c));
            if (c.bearing != model::Bearing::Pinned) follow(columnRings_.back(), true);
            double half = c.circular ? c.width / 2 : std::hypot(c.width, c.depth) / 2;
            in_.points.push_back({c.x, c.y});
            in_.fine.push_back({{c.x, c.y}, half, atColumns});
        }
        firstPile_ = in_.points.size();
        for (const auto& p : f_.piles) {
            in_.points.push_back({p.x, p.y});
            in_.fine.push_back({{p.x, p.y}, p.diameter / 2, atColumns});
        }
        for (std::size_t i = 0; i < f_.walls.size(); ++i) {
            in_.lines.push_back({f_.walls[i].a, f_.walls[i].b, int(i)});
            for (Point p : {f_.walls[i].a, f_.walls[i].b}) in_.fine.push_back({p, 0, atColumns});
        }
        for (std::size_t i = 0; i < f_.edges.size(); ++i)
            in_.lines.push_back({f_.edges[i].a, f_.edges[i].b, edgeId(i)});
        for (std::size_t i = 0; i < f_.beams.size(); ++i)
            in_.lines.push_back({f_.beams[i].a, f_.beams[i].b, beamId(i)});
    }

    void slabs() {
        // Each part of the plane bounded by lines has one thickness.
        struct Made {
            double thickness;
            int material;
        };
        std::vector<Made> part;
        std::vector<double> known;
        for (Point p : m_.mesh.partPoint) {
            double t = 0;
            for (std::size_t i = 0; i < slabRings_.size(); ++i)
                if (geometry::contains(slabRings_[i], p)) t = f_.slabs[i].thickness;
            for (std::size_t i = 0; i < zoneRings_.size(); ++i)
                if (geometry::contains(zoneRings_[i], p)) t = f_.zones[i].thickness;
            auto found = std::find(known.begin(), known.end(), t);
            part.push_back({t, int(found - known.begin())});
            if (found == known.end()) known.push_back(t);
        }
        double E = basis_.modulus * f_.choices.modifiers.slab, nu = basis_.poisson;
        for (double t : known)
            m_.plate.materials.push_back(
                {E * t * t * t / 12 / (1 - nu * nu), nu,
                 f_.choices.shearDeformation ? 1 / (5.0 / 6 * E / 2 / (1 + nu) * t) : 0});
        for (int p : m_.mesh.part) {
            m_.plate.material.push_back(part[p].material);
            m_.thickness.push_back(part[p].thickness);
        }
        oneWay(E, known);
    }

    // Of slab that carries one way a small share of the stiffness is left across and in twisting, without
    // Poisson's effect: along it bends as a beam of its width.
    void oneWay(double E, const std::vector<double>& known) {
        for (const auto& area : basis_.oneWay) {
            std::vector<int> of(known.size(), -1);
            const double t = area.angle * std::numbers::pi / 180;
            for (std::size_t k = 0; k < m_.mesh.triangles.size(); ++k) {
                Point g{0, 0};
                for (int n : m_.mesh.triangles[k])
                    g.x += m_.mesh.nodes[std::size_t(n)].x / 3, g.y += m_.mesh.nodes[std::size_t(n)].y / 3;
                if (std::none_of(area.parts.begin(), area.parts.end(),
                                 [&](const auto& r) { return geometry::contains(r, g); }))
                    continue;
                const double h = m_.thickness[k], D = E * h * h * h / 12;
                const auto which = std::size_t(std::find(known.begin(), known.end(), h) - known.begin());
                if (of[which] < 0) {
                    of[which] = int(m_.plate.materials.size());
                    const double flexibility =
                        m_.plate.materials[std::size_t(m_.plate.material[k])].flexibility;
                    m_.plate.materials.push_back(
                        {acrossShare * D, 0, flexibility, (1 - acrossShare) * D, std::cos(t), std::sin(t)});
                }
                m_.plate.material[k] = of[which];
            }
        }
    }

    int addSupport(FloorSupport::Kind kind, const model::Id& id, const std::string& name, Point at) {
        m_.supports.push_back({kind, id, name.empty() ? id : name, at});
        return int(m_.supports.size()) - 1;
    }
    void spring(int node, double w, double xx, double xy, double yy, int support) {
        m_.plate.springs.push_back({node, w, xx, xy, yy});
        m_.springSupport.push_back(support);
    }
    void restrain(fem::PlateModel::Restraint r, int support) {
        m_.plate.restraints.push_back(r);
        if (m_.nodeSupport[r.node] < 0) m_.nodeSupport[r.node] = support;
    }

    // All nodes at the place of one.
    std::vector<int> at(int node) const {
        std::vector<int> all{node};
        for (const auto& [was, added] : beside_)
            if (was == node) all.push_back(added);
        return all;
    }

    void columns() {
        for (std::size_t i = 0; i < f_.columns.size(); ++i) {
            const auto& c = f_.columns[i];
            int centre = m_.mesh.pointNode[i];
            if (centre < 0 || (!c.below && !c.above)) continue;
            int support = addSupport(FloorSupport::Kind::Column, c.id, c.name, {c.x, c.y});
            if (c.bearing == model::Bearing::Pinned) {
                for (int n : at(centre)) {
                    fem::PlateModel::Restraint r{n};
                    r.w = true;
                    if (c.below) restrain(r, support);
                }
                continue;
            }
            double E = columnModulus_ * f_.choices.modifiers.column, far = c.farEndsFixed ? 4 : 3;
            double I[2];  // bending along its own x, along its own y
            if (c.circular)
                I[0] = I[1] = std::numbers::pi / 64 * std::pow(c.width, 4);
            else
                I[0] = c.depth * std::pow(c.width, 3) / 12, I[1] = c.width * std::pow(c.depth, 3) / 12;
            double perLength = (c.below ? 1 / c.heightBelow : 0) + (c.above ? 1 / c.heightAbove : 0);
            double w = c.below ? columnModulus_ * model::area(c) / c.heightBelow : 0;
            double k[2] = {far * E * I[0] * perLength, far * E * I[1] * perLength};
            double cs = std::cos(c.angle * std::numbers::pi / 180),
                   sn = std::sin(c.angle * std::numbers::pi / 180);
            // Nodes on the section, with the area each stands for.
            std::vector<std::pair<int, double>> share;
            double area = 0;
            for (std::size_t part = 0; part < m_.mesh.partPoint.size(); ++part) {
                Point g = m_.mesh.partPoint[part];
                if (std::abs(g.x - c.x) + std::abs(g.y - c.y) > 1.5 * (c.width + c.depth) ||
                    !geometry::contains(columnRings_[i], g))
                    continue;
                for (int t : trianglesOf(int(part))) {
                    double a = triangleArea(std::size_t(t));
                    area += a;
                    for (int n : m_.mesh.triangles[t]) share.push_back({n, a / 3});
                }
            }
            std::sort(share.begin(), share.end());
            std::vector<std::pair<int, double>> nodes;
            for (auto [n, a] : share)
                if (!nodes.empty() && nodes.back().first == n)
                    nodes.back().second += a;
                else
                    nodes.push_back({n, a});
            auto turn = [&](double a, double b, double scale, int node, double vertical) {
                spring(node, vertical, (a * cs * cs + b * sn * sn) * scale, (a - b) * cs * sn * scale,
                       (a * sn * sn + b * cs * cs) * scale, support);
            };
            if (c.bearing == model::Bearing::Rigid || nodes.empty()) {
                if (!nodes.empty()) {
                    fem::PlateModel::Rigid body{{c.x, c.y}, {}};
                    for (auto [n, a] : nodes) body.nodes.push_back(n);
                    m_.plate.rigid.push_back(body);
                }
                turn(k[0], k[1], 1, centre, w);
                continue;
            }
            // The bed of springs turns with w I/A already; what is missing is added as springs against
            // rotation.
            double bedTurn[2] = {0, 0};
            for (auto [n, a] : nodes) {
                double dx = m_.mesh.nodes[n].x - c.x, dy = m_.mesh.nodes[n].y - c.y;
                double u = dx * cs + dy * sn, v = -dx * sn + dy * cs;
                bedTurn[0] += w * a / area * u * u;
                bedTurn[1] += w * a / area * v * v;
            }
            for (auto [n, a] : nodes)
                turn(std::max(0.0, k[0] - bedTurn[0]), std::max(0.0, k[1] - bedTurn[1]), a / area, n,
                     w * a / area);
        }
    }

    void piles() {
        for (std::size_t i = 0; i < f_.piles.size(); ++i) {
            int node = m_.mesh.pointNode[firstPile_ + i];
            if (node < 0) continue;
            const auto& p = f_.piles[i];
            const int support = addSupport(FloorSupport::Kind::Pile, p.id, p.name, {p.x, p.y});
            const auto nodes = at(node);
            for (int n : nodes) spring(n, p.stiffness / double(nodes.size()), 0, 0, 0, support);
        }
    }

    // Calls f(edge, cx, cy, length) along a line of the mesh, with the direction of the line, not of the
    // mesh: where that bends by a hair, two directions would hold a node against every turning. Says when
    // part of the line has no slab under it.
    template <class F>
    void along(int id, Point a, Point b, const std::string& what, const std::string& at, F f) {
        double found = 0, whole = length(a, b);
        for (const auto& e : m_.mesh.edges) {
            if (e.line != id) continue;
            const double L = length(m_.mesh.nodes[e.a], m_.mesh.nodes[e.b]);
            found += L;
            f(e, (b.x - a.x) / whole, (b.y - a.y) / whole, L);
        }
        if (found < whole - 2)
            m_.notes.push_back(
                {path_ + "." + at,
                 fmt::format("{} from {} leaves the slab for {:.0f} mm of its {:.0f} mm; only the "
                             "part on the slab is analysed.",
                             what, metres(a), whole - found, whole)});
    }

    void walls() {
        for (std::size_t i = 0; i < f_.walls.size(); ++i) {
            const auto& wall = f_.walls[i];
            int support = addSupport(FloorSupport::Kind::Wall, wall.id, wall.name,
                                     {(wall.a.x + wall.b.x) / 2, (wall.a.y + wall.b.y) / 2});
            double k = 3 * columnModulus_ * f_.choices.modifiers.wall * std::pow(wall.thickness, 3) / 12 /
                       wall.height;
            along(int(i), wall.a, wall.b, "Wall " + m_.supports.back().name, fmt::format("walls[{}]", i),
                  [&](const fem::Mesh::Edge& e, double cx, double cy, double L) {
                      for (int n : {e.a, e.b}) {
                          fem::PlateModel::Restraint r{n};
                          r.w = true;
                          r.alongDirection = true;
                          r.cx = cx, r.cy = cy;
                          restrain(r, support);
                          if (wall.stiff)  // against rotation across the wall
                              spring(n, 0, k * L / 2 * cy * cy, -k * L / 2 * cx * cy, k * L / 2 * cx * cx,
                                     support);
                      }
                  });
        }
    }

    void lineSupports() {
        for (std::size_t i = 0; i < f_.edges.size(); ++i) {
            const auto& line = f_.edges[i];
            using Kind = model::LineSupport::Kind;
            int support = addSupport(FloorSupport::Kind::Line, line.id, line.name,
                                     {(line.a.x + line.b.x) / 2, (line.a.y + line.b.y) / 2});
            along(edgeId(i), line.a, line.b, "Line support " + m_.supports.back().name,
                  fmt::format("edges[{}]", i), [&](const fem::Mesh::Edge& e, double cx, double cy, double) {
                      for (int n : {e.a, e.b}) {
                          fem::PlateModel::Restraint r{n};
                          r.w = line.kind != Kind::Symmetry;
                          r.rotations = line.kind == Kind::Clamped;
                          r.alongDirection = line.kind != Kind::Clamped;
                          // Simple: the rotation along the line is held; symmetry: the one across it.
                          r.cx = line.kind == Kind::Symmetry ? -cy : cx;
                          r.cy = line.kind == Kind::Symmetry ? cx : cy;
                          restrain(r, support);
                      }
                  });
        }
    }

    // Distance from p along (dx, dy) to the first beam line that is roughly parallel, or the end of the slab.
    std::pair<double, bool> reach(Point p, double dx, double dy, std::size_t self) const {
        double best = 1e300;
        bool edge = true;
        auto cross = [&](Point a, Point b, bool isEdge, double half) {
            double ex = b.x - a.x, ey = b.y - a.y, den = dx * ey - dy * ex;
            if (std::abs(den) < 1e-9 * length(a, b)) return;
            double t = ((a.x - p.x) * ey - (a.y - p.y) * ex) / den,
                   u = ((a.x - p.x) * dy - (a.y - p.y) * dx) / den;
            if (u < 0 || u > 1 || t < 1) return;
            if (t - half < best) best = t - half, edge = isEdge;
        };
        for (const auto& r : in_.slabs)
            for (std::size_t i = 0; i < r.size(); ++i) cross(r[i], r[(i + 1) % r.size()], true, 0);
        for (const auto& r : in_.openings)
            for (std::size_t i = 0; i < r.size(); ++i) cross(r[i], r[(i + 1) % r.size()], true, 0);
        for (std::size_t i = 0; i < f_.beams.size(); ++i)
            if (i != self) cross(f_.beams[i].a, f_.beams[i].b, false, f_.beams[i].width / 2);
        for (const auto& w : f_.walls) cross(w.a, w.b, false, w.thickness / 2);
        return {std::max(0.0, best), edge};
    }

    void beams() {
        double E = beamModulus_ * f_.choices.modifiers.beam, G = beamModulus_ / 2 / (1 + basis_.poisson);
        for (std::size_t i = 0; i < f_.beams.size(); ++i) {
            const auto& beam = f_.beams[i];
            double whole = length(beam.a, beam.b), cx = (beam.b.x - beam.a.x) / whole,
                   cy = (beam.b.y - beam.a.y) / whole;
            // Supports on its line divide it into spans.
            std::vector<std::pair<double, double>> stops;  // along it; half the support's width
            for (const auto& c : f_.columns)
                if (geometry::distance({c.x, c.y}, beam.a, beam.b) <
                    std::max(c.width, c.circular ? 0 : c.depth) / 2)
                    stops.push_back({(c.x - beam.a.x) * cx + (c.y - beam.a.y) * cy, c.width / 2});
            for (const auto& w : f_.walls)
                for (Point p : {w.a, w.b})
                    if (geometry::distance(p, beam.a, beam.b) < w.thickness)
                        stops.push_back({(p.x - beam.a.x) * cx + (p.y - beam.a.y) * cy, w.thickness / 2});
            for (double end : {0.0, whole}) stops.push_back({end, 0});
            std::sort(stops.begin(), stops.end());
            std::vector<std::pair<double, double>> kept;
            for (auto s : stops)
                if (kept.empty() || s.first - kept.back().first > 300)
                    kept.push_back(s);
                else
                    kept.back().second = std::max(kept.back().second, s.second);
            std::size_t spans = std::max<std::size_t>(1, kept.size() - 1);
            int flush = 0;
            along(
                beamId(i), beam.a, beam.b, "Beam " + (beam.name.empty() ? beam.id : beam.name),
                fmt::format("beams[{}]", i), [&](const fem::Mesh::Edge& e, double, double, double) {
                    Point p = m_.mesh.nodes[e.a], q = m_.mesh.nodes[e.b],
                          mid{(p.x + q.x) / 2, (p.y + q.y) / 2};
                    double at = (mid.x - beam.a.x) * cx + (mid.y - beam.a.y) * cy;
                    std::size_t span = 0;
                    while (span + 1 < spans && at > kept[span + 1].first) ++span;
                    double L =
                        spans == 1 && kept.size() < 2 ? whole : kept[span + 1].first - kept[span].first;
                    bool outer = span == 0 || span + 1 == spans;
                    double zero = spans == 1 ? L : outer ? 0.85 * L : 0.7 * L;
                    double clear = kept.size() < 2 ? L : L - kept[span].second - kept[span + 1].second;
                    double t = thicknessAt(e);
                    double flange = beam.width;
                    auto left = reach(mid, -cy, cx, i), right = reach(mid, cy, -cx, i);
                    for (const auto& [one, other] : {std::pair(left, right), std::pair(right, left)}) {
                        if (!basis_.flange || one.first <= beam.width / 2 + 1) continue;
                        FloorBasis::Flange in{one.first - beam.width / 2,      zero, clear, t, one.second,
                                              other.first > beam.width / 2 + 1};
                        flange += std::max(0.0, basis_.flange(in));
                    }
                    BeamSection s = beamSection(beam, flange, t);
                    if (beam.depth <= t) ++flush;
                    m_.plate.beams.push_back(
                        {e.a, e.b, E * s.added, G * beam.torsion * s.torsion * f_.choices.modifiers.beam,
                         f_.choices.shearDeformation && s.shearArea > 0 ? 1 / (G * s.shearArea) : 0, int(i)});
                    m_.sections.push_back(s);
                });
            if (flush > 0)
                m_.notes.push_back({path_ + fmt::format(".beams[{}].depth", i),
                                    fmt::format("Beam {} is no deeper than the slab; it adds no stiffness.",
                                                beam.name.empty() ? beam.id : beam.name)});
        }
    }
    // Thickness of the slab beside a mesh edge on a beam: the thinner of the two sides.
    double thicknessAt(const fem::Mesh::Edge& e) {
        auto key = [](int a, int b) { return std::pair(std::min(a, b), std::max(a, b)); };
        if (edgeThickness_.empty()) {
            std::vector<char> onBeam(m_.mesh.nodes.size(), 0);
            for (const auto& edge : m_.mesh.edges)
                if (edge.line >= beamId(0)) onBeam[edge.a] = onBeam[edge.b] = 1;
            for (std::size_t t = 0; t < m_.mesh.triangles.size(); ++t)
                for (int c = 0; c < 3; ++c) {
                    int a = m_.mesh.triangles[t][c], b = m_.mesh.triangles[t][(c + 1) % 3];
                    if (onBeam[a] && onBeam[b]) edgeThickness_.push_back({key(a, b), m_.thickness[t]});
                }
            std::sort(edgeThickness_.begin(), edgeThickness_.end());
        }
        auto it =
            std::lower_bound(edgeThickness_.begin(), edgeThickness_.end(), std::pair(key(e.a, e.b), 0.0));
        return it == edgeThickness_.end() ? 0 : it->second;
    }
    std::vector<std::pair<std::pair<int, int>, double>> edgeThickness_;

    void ground() {
        m_.bed.assign(m_.mesh.triangles.size(), 0);
        if (f_.grounds.empty()) return;
        std::vector<int> supports;
        for (const auto& g : f_.grounds) {
            Point at = slabRings_[0][0];
            if (!g.outline.empty()) at = {g.outline[0].x, g.outline[0].y};
            supports.push_back(addSupport(FloorSupport::Kind::Ground, g.id, g.name, at));
        }
        std::vector<int> under(m_.mesh.partPoint.size(), -1);
        for (std::size_t p = 0; p < under.size(); ++p)
            for (std::size_t i = 0; i < f_.grounds.size(); ++i)
                if (groundRings_[i].empty() || geometry::contains(groundRings_[i], m_.mesh.partPoint[p]))
                    under[p] = int(i);  // later areas lie over earlier ones
        std::vector<std::vector<double>> perNode(f_.grounds.size());
        for (std::size_t t = 0; t < m_.mesh.triangles.size(); ++t) {
            int g = under[m_.mesh.part[t]];
            if (g < 0) continue;
            m_.bed[t] = f_.grounds[g].modulus;
            if (perNode[g].empty()) perNode[g].assign(m_.mesh.nodes.size(), 0);
            for (int n : m_.mesh.triangles[t]) perNode[g][n] += m_.bed[t] * triangleArea(t) / 3;
        }
        for (std::size_t g = 0; g < perNode.size(); ++g)
            for (std::size_t n = 0; n < perNode[g].size(); ++n)
                if (perNode[g][n] > 0) {
                    m_.groundSprings.push_back(int(m_.plate.springs.size()));
                    spring(int(n), perNode[g][n], 0, 0, 0, supports[g]);
                }
    }

    double triangleArea(std::size_t t) const {
        const auto& n = m_.mesh.triangles[t];
        Point a = m_.mesh.nodes[n[0]], b = m_.mesh.nodes[n[1]], c = m_.mesh.nodes[n[2]];
        return ((b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x)) / 2;
    }
    std::vector<std::vector<int>> byPart_;
    const std::vector<int>& trianglesOf(int part) {
        if (byPart_.empty()) {
            byPart_.resize(m_.mesh.partPoint.size());
            for (std::size_t t = 0; t < m_.mesh.part.size(); ++t) byPart_[m_.mesh.part[t]].push_back(int(t));
        }
        return byPart_[part];
    }
};

}  // namespace

double torsionConstant(double a, double b) {
    double s = std::min(a, b), l = std::max(a, b);
    return l * s * s * s * (1.0 / 3 - 0.21 * s / l * (1 - std::pow(s / l, 4) / 12));
}

BeamSection beamSection(const model::FloorBeam& beam, double flangeWidth, double t) {
    BeamSection s;
    s.flangeWidth = flangeWidth;
    s.webDepth = std::max(0.0, beam.depth - t);
    double web = s.webDepth, b = beam.width;
    // Flange over its whole width, web beyond it; an upstand is the same section upside down.
    double af = flangeWidth * t, aw = b * web;
    double y = (af * t / 2 + aw * (t + web / 2)) / (af + aw);  // from the flange's outer face
    s.inertia = flangeWidth * t * t * t / 12 + af * std::pow(y - t / 2, 2) + b * std::pow(web, 3) / 12 +
                aw * std::pow(t + web / 2 - y, 2);
    s.added = std::max(0.0, s.inertia - flangeWidth * t * t * t / 12);
    if (web > 0) {
        s.torsion = torsionConstant(b, beam.depth);
        s.shearArea = 5.0 / 6 * b * beam.depth;
    }
    return s;
}

FloorModel makeFloorModel(const model::Floor& floor, const std::string& path, const FloorBasis& basis,
                          fem::Stages& stages, std::stop_token stop, bool refined) {
    return Builder(floor, path, basis, refined).run(stages, std::move(stop));
}

std::vector<std::string> assumptions(const model::Floor& f) {
    std::vector<std::string> all{"The slab is elastic and uncracked, with the stiffness modifiers given.",
                                 f.choices.shearDeformation
                                     ? "Shear deformation of slab and beams is included."
                                     : "Shear deformation is left out, as chosen.",
                                 "Forces in the plane of the slab are not analysed."};
    if (!f.zones.empty())
        all.push_back(
            "Zones of another thickness share the middle plane of the slab; the step between the planes "
            "stiffens the slab a little more than this.");
    if (!f.beams.empty())
        all.push_back(
            "A beam acts with its effective flange: it adds the stiffness of its T or L section beyond the "
            "slab's own strip, over the flange's whole width at the beam's line.");
    if (!f.walls.empty())
        all.push_back("Walls do not shorten; over them the slab does not rotate about the wall's normal.");
    for (const auto& e : f.edges)
        if (e.kind == model::LineSupport::Kind::Simple) {
            all.push_back(
                "Simple line supports are rigid: the slab does not rotate about the line's normal.");
            break;
        }
    bool above = false;
    for (const auto& c : f.columns) above |= c.above;
    if (above)
        all.push_back("A column above resists rotation, but carries no load down unless one is given.");
    if (!f.grounds.empty())
        all.push_back(f.choices.groundTakesTension ? "The ground acts in tension too, as chosen."
                                                   : "The ground is independent springs without tension.");
    return all;
}

}  // namespace talvik::analysis
