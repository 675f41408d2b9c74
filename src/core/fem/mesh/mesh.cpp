#include "fem/mesh/mesh.h"

#include <CGAL/Constrained_Delaunay_triangulation_2.h>
#include <CGAL/Delaunay_mesh_face_base_2.h>
#include <CGAL/Delaunay_mesh_vertex_base_2.h>
#include <CGAL/Delaunay_mesher_2.h>
#include <CGAL/Exact_predicates_inexact_constructions_kernel.h>
#include <CGAL/Spatial_sort_traits_adapter_2.h>
#include <CGAL/Triangulation_face_base_with_info_2.h>
#include <CGAL/Triangulation_vertex_base_with_info_2.h>
#include <CGAL/property_map.h>
#include <CGAL/spatial_sort.h>
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <numbers>
#include <optional>

#include "fem/mesh/size_field.h"
#include "fem/mesh/symmetry.h"
#include "fem/parallel/aside.h"

namespace talvik::fem {
namespace {

using Kernel = CGAL::Exact_predicates_inexact_constructions_kernel;
struct Number {
    int value = -1;
};
using VertexInfo = CGAL::Triangulation_vertex_base_with_info_2<Number, Kernel>;
using VertexBase = CGAL::Delaunay_mesh_vertex_base_2<Kernel, VertexInfo>;
using FaceInfo = CGAL::Triangulation_face_base_with_info_2<Number, Kernel>;
using FaceBase =
    CGAL::Delaunay_mesh_face_base_2<Kernel, CGAL::Constrained_triangulation_face_base_2<Kernel, FaceInfo>>;
using Triangulation = CGAL::Constrained_Delaunay_triangulation_2<
    Kernel, CGAL::Triangulation_data_structure_2<VertexBase, FaceBase>, CGAL::Exact_predicates_tag>;
using Vertex = Triangulation::Vertex_handle;
using Face = Triangulation::Face_handle;

// Refine triangles with a small angle, but none with a side below `least`: where two lines of the outline
// meet at a small angle or nearly touch, refinement must end.
class Criteria {
  public:
    using Face_handle = Face;
    using Quality = double;  // sine of the smallest angle, squared: the least is refined first
    Criteria(double sineSquared = 0, double least = 0) : bound_(sineSquared), least_(least * least) {}
    class Is_bad {
      public:
        using Quality = Criteria::Quality;
        Is_bad(double bound, double least) : bound_(bound), least_(least) {}
        CGAL::Mesh_2::Face_badness operator()(Quality q) const {
            return q < bound_ ? CGAL::Mesh_2::BAD : CGAL::Mesh_2::NOT_BAD;
        }
        CGAL::Mesh_2::Face_badness operator()(const Face& f, Quality& q) const {
            const auto &a = f->vertex(0)->point(), &b = f->vertex(1)->point(), &c = f->vertex(2)->point();
            double A = CGAL::squared_distance(b, c), B = CGAL::squared_distance(c, a),
                   C = CGAL::squared_distance(a, b);
            double shortest = std::min({A, B, C});
            double cross = (b.x() - a.x()) * (c.y() - a.y()) - (b.y() - a.y()) * (c.x() - a.x());
            q = shortest < least_ ? 1 : cross * cross * shortest / (A * B * C);
            return (*this)(q);
        }

      private:
        double bound_, least_;
    };
    Is_bad is_bad_object() const { return Is_bad(bound_, least_); }

  private:
    double bound_, least_;
};

bool inDomain(const MeshTask& input, Point p) {
    bool in = std::any_of(input.slabs.begin(), input.slabs.end(),
                          [&](auto& r) { return geometry::contains(r, p); });
    return in && std::none_of(input.openings.begin(), input.openings.end(),
                              [&](auto& r) { return geometry::contains(r, p); });
}

Point middle(Face f) {
    Point m;
    for (int i = 0; i < 3; ++i) m.x += f->vertex(i)->point().x() / 3, m.y += f->vertex(i)->point().y() / 3;
    return m;
}

class Generator {
  public:
    Generator(const MeshTask& input, std::stop_token stop, std::size_t mostNodes)
        : input_(input), stop_(std::move(stop)), most_(mostNodes) {}

    Mesh run() {
        if (!(input_.size > 0) || input_.slabs.empty()) {
            mesh_.error = "There is no slab to mesh.";
            return std::move(mesh_);
        }
        box();
        SizeField field(input_, low_, high_);
        cutLines();
        placeOnLines(field);
        placeLattice(field);
        if (mesh_.error.empty()) triangulate();
        if (mesh_.error.empty()) refine();
        if (mesh_.error.empty()) extract();
        if (!mesh_.error.empty()) {
            Mesh failed;
            failed.error = mesh_.error;
            return failed;
        }
        return std::move(mesh_);
    }

    bool isLarge() const { return points_.size() > 50000; }
    // In the axes of the task: where points were first taken as one; where more triangles than allowed crowd.
    std::optional<Point> joined() const {
        return work_.joined > 0 ? std::optional(work_.firstJoined) : std::nullopt;
    }
    struct Crowd {
        Point at;
        std::size_t triangles;
    };
    const std::optional<Crowd>& crowded() const { return crowded_; }

  private:
    const MeshTask& input_;
    std::stop_token stop_;
    std::size_t most_;
    std::optional<Crowd> crowded_;
    Mesh mesh_;
    Point low_{1e300, 1e300}, high_{-1e300, -1e300};
    std::vector<MeshTask::Line> lines_;
    Linework work_;
    std::vector<Point> points_;  // of the triangulation: linework, then on lines, then lattice
    std::vector<Point> obstacles_;
    std::vector<double> near_;             // per obstacle: how near a seed may come, of the usual distance
    std::vector<char> soft_;               // per piece of line: square to the lattice
    std::vector<std::vector<int>> chain_;  // per piece: the points along it
    Triangulation cdt_;
    std::vector<Vertex> vertex_;  // per point

    bool stopped() {
        if (stop_.stop_requested()) mesh_.error = "stopped";
        return !mesh_.error.empty();
    }

    void box() {
        for (const auto& ring : input_.slabs)
            for (Point p : ring) {
                low_ = {std::min(low_.x, p.x), std::min(low_.y, p.y)};
                high_ = {std::max(high_.x, p.x), std::max(high_.y, p.y)};
            }
    }

    void cutLines() {
        auto ring = [&](const geometry::Ring& r) {
            for (std::size_t i = 0; i < r.size(); ++i) lines_.push_back({r[i], r[(i + 1) % r.size()], -1});
        };
        for (const auto& r : input_.slabs) ring(r);
        for (const auto& r : input_.openings) ring(r);
        lines_.insert(lines_.end(), input_.lines.begin(), input_.lines.end());
        work_ = joinLines(lines_, input_.points, input_.tolerance, input_.crossing);
        points_ = work_.points;
    }

    // Divides every piece so that its parts follow the wanted size, the same from either end.
    void placeOnLines(const SizeField& field) {
        for (const auto& piece : work_.pieces) {
            Point a = work_.points[piece.a], b = work_.points[piece.b];
            double length = std::hypot(b.x - a.x, b.y - a.y);
            // The number of triangle sides along the piece, summed at equal samples.
            auto samples = std::size_t(std::clamp(length / input_.size * 8, 8.0, 20000.0));
            std::vector<double> sum(samples + 1, 0);
            for (std::size_t i = 0; i < samples; ++i) {
                double u = (double(i) + 0.5) / double(samples);
                sum[i + 1] = sum[i] + length / double(samples) /
                                          field.at({a.x + u * (b.x - a.x), a.y + u * (b.y - a.y)});
            }
            auto count = std::size_t(std::max(1.0, std::round(sum.back())));
            std::vector<int> chain{piece.a};
            using Lattice = MeshTask::Line::Lattice;
            Lattice lattice = Lattice::No;
            for (int l : piece.of)
                if (lines_[std::size_t(l)].lattice != Lattice::No) lattice = lines_[std::size_t(l)].lattice;
            soft_.push_back(lattice == Lattice::Across);
            if (lattice != Lattice::No && sum.back() * input_.size < length * 1.001) {
                alongLattice(a, b, lattice == Lattice::Along ? 1 : std::numbers::sqrt3 / 2, chain);
                chain.push_back(piece.b);
                chain_.push_back(std::move(chain));
                continue;
            }
            std::size_t at = 0;
            for (std::size_t i = 1; i < count; ++i) {
                double want = sum.back() * double(i) / double(count);
                while (sum[at + 1] < want) ++at;
                double u = (double(at) + (want - sum[at]) / (sum[at + 1] - sum[at])) / double(samples);
                chain.push_back(int(points_.size()));
                points_.push_back({a.x + u * (b.x - a.x), a.y + u * (b.y - a.y)});
            }
            chain.push_back(piece.b);
            chain_.push_back(std::move(chain));
        }
    }

    // Places on a line through the lattice between a and b, `step` times the size from seed to seed or from
    // row to row, but for those that would crowd a and b.
    void alongLattice(Point a, Point b, double step, std::vector<int>& chain) {
        const double h = step * input_.size, length = std::hypot(b.x - a.x, b.y - a.y);
        const double ex = (b.x - a.x) / length, ey = (b.y - a.y) / length;
        const Point o = *input_.lattice;
        const double first = (o.x - a.x) * ex + (o.y - a.y) * ey;  // a seed
        for (double k = std::ceil((0.4 * h - first) / h); first + k * h < length - 0.4 * h; ++k) {
            chain.push_back(int(points_.size()));
            points_.push_back({a.x + (first + k * h) * ex, a.y + (first + k * h) * ey});
        }
    }

    // Seeds: nested triangular lattices about the middle of the domain, each half as wide as the one before.
    void placeLattice(const SizeField& field) {
        std::size_t cells = field.columns * field.rows;
        // Points on lines, per cell, with a margin of one cell around them kept clear where they are near.
        obstacles_ = points_;
        near_.assign(points_.size(), 1);
        for (std::size_t c = 0; c < chain_.size(); ++c) {
            const auto& chain = chain_[c];
            // Rows that a line crosses squarely may come within half a side of it.
            if (soft_[c])
                for (std::size_t k = 1; k + 1 < chain.size(); ++k) near_[std::size_t(chain[k])] = 0.8;
            for (std::size_t k = 0; k + 1 < chain.size();
                 ++k) {  // the middles too: seeds must not crowd a side
                Point a = points_[chain[k]], b = points_[chain[k + 1]];
                obstacles_.push_back({(a.x + b.x) / 2, (a.y + b.y) / 2});
                near_.push_back(soft_[c] ? 0.8 : 1);
            }
        }
        std::vector<int> count(cells + 1, 0), list(obstacles_.size());
        for (Point p : obstacles_) ++count[field.cellOf(p) + 1];
        for (std::size_t c = 0; c < cells; ++c) count[c + 1] += count[c];
        std::vector<int> fill(count.begin(), count.end() - 1);
        for (std::size_t i = 0; i < obstacles_.size(); ++i)
            list[fill[field.cellOf(obstacles_[i])]++] = int(i);
        std::vector<char> crossed(cells, 0);
        auto mark = [&](Point p) {
            std::size_t c = field.cellOf(p), x = c % field.columns, y = c / field.columns;
            for (std::size_t j = y ? y - 1 : 0; j <= std::min(y + 1, field.rows - 1); ++j)
                for (std::size_t i = x ? x - 1 : 0; i <= std::min(x + 1, field.columns - 1); ++i)
                    crossed[j * field.columns + i] = 1;
        };
        for (const auto& chain : chain_)
            for (std::size_t k = 0; k + 1 < chain.size(); ++k) {
                Point a = points_[chain[k]], b = points_[chain[k + 1]];
                for (double u : {0.0, 0.5, 1.0}) mark({a.x + u * (b.x - a.x), a.y + u * (b.y - a.y)});
            }
        for (Point p : work_.points) mark(p);

        // Rows along x in the lattice's own axes.
        const Point origin = input_.lattice.value_or(Point{(low_.x + high_.x) / 2, (low_.y + high_.y) / 2});
        const bool upright = input_.upright;
        auto swapped = [upright](double x, double y) { return upright ? Point{y, x} : Point{x, y}; };
        std::size_t fixed = points_.size();
        char last = 0;  // whether the cell before lay inside; only cells no line comes near pass it on
        for (std::size_t cell = 0; cell < cells; ++cell) {
            if (cell % field.columns == 0) last = 0;
            if (cell % 1024 == 0 && stopped()) return;
            if (!crossed[cell]) {
                if (last == 0) last = inDomain(input_, field.centre(cell)) ? 2 : 1;
                if (last == 1) continue;
            } else {
                last = 0;
            }
            double least = field.leastIn(cell);
            Point c = field.centre(cell);
            const auto [x0, y0] =
                swapped(c.x - field.cellSide / 2 - origin.x, c.y - field.cellSide / 2 - origin.y);
            double h = input_.size;
            for (int level = 0; level < 40; ++level, h /= 2) {
                if (level > 0 && least > 1.4 * h) break;
                double dy = h * std::numbers::sqrt3 / 2;
                for (long j = long(std::ceil(y0 / dy)); double(j) * dy < y0 + field.cellSide; ++j) {
                    double shift = (j & 1) ? h / 2 : 0;
                    for (long i = long(std::ceil((x0 - shift) / h));
                         double(i) * h + shift < x0 + field.cellSide; ++i) {
                        // In steps of half a side along x: a point of the coarser lattice has even row and,
                        // counted along the sloping axis, even column.
                        if (level > 0 && !(j & 1) && !((i - (j >> 1)) & 1)) continue;
                        const Point seed = swapped(double(i) * h + shift, double(j) * dy);
                        const Point p{origin.x + seed.x, origin.y + seed.y};
                        double wanted = level == 0 && least >= input_.size ? input_.size : field.at(p);
                        if (level > 0 && wanted > 1.4 * h) continue;
                        if (crossed[cell] && !clear(field, count, list, p, 0.6 * std::min(wanted, h)))
                            continue;
                        points_.push_back(p);
                    }
                }
                if (points_.size() - fixed > most_) {
                    mesh_.error = fmt::format(
                        "The mesh would have more than {} nodes; choose a larger size of mesh.", most_);
                    return;
                }
            }
        }
    }
    bool clear(const SizeField& field, const std::vector<int>& count, const std::vector<int>& list, Point p,
               double distance) const {
        double x = p.x - field.low.x, y = p.y - field.low.y, s = field.cellSide;
        auto index = [&](double v, std::size_t n) {
            return std::size_t(std::clamp(std::floor(v / s), 0.0, double(n - 1)));
        };
        for (std::size_t j = index(y - distance, field.rows); j <= index(y + distance, field.rows); ++j)
            for (std::size_t i = index(x - distance, field.columns); i <= index(x + distance, field.columns);
                 ++i) {
                std::size_t cell = j * field.columns + i;
                for (int k = count[cell]; k < count[cell + 1]; ++k) {
                    Point q = obstacles_[list[k]];
                    double dx = q.x - p.x, dy = q.y - p.y, least = near_[std::size_t(list[k])] * distance;
                    if (dx * dx + dy * dy < least * least) return false;
                }
            }
        return true;
    }

    void triangulate() {
        std::vector<std::pair<Kernel::Point_2, int>> sorted(points_.size());
        for (std::size_t i = 0; i < points_.size(); ++i)
            sorted[i] = {Kernel::Point_2(points_[i].x, points_[i].y), int(i)};
        using Map = CGAL::First_of_pair_property_map<std::pair<Kernel::Point_2, int>>;
        CGAL::spatial_sort(sorted.begin(), sorted.end(), CGAL::Spatial_sort_traits_adapter_2<Kernel, Map>());
        vertex_.resize(points_.size());
        Face hint;
        for (std::size_t i = 0; i < sorted.size(); ++i) {
            if (i % 4096 == 0 && stopped()) return;
            Vertex v = cdt_.insert(sorted[i].first, hint);
            v->info().value = sorted[i].second;
            vertex_[sorted[i].second] = v;
            hint = v->face();
        }
        for (const auto& chain : chain_) {
            if (stopped()) return;
            for (std::size_t k = 0; k + 1 < chain.size(); ++k)
                if (vertex_[chain[k]] != vertex_[chain[k + 1]])
                    cdt_.insert_constraint(vertex_[chain[k]], vertex_[chain[k + 1]]);
        }
    }

    // Numbers the faces of each part of the plane bounded by constrained edges and marks those of the domain;
    // gives a point inside each part of the domain.
    std::vector<Point> findParts() {
        std::vector<Point> points;
        for (auto f = cdt_.all_faces_begin(); f != cdt_.all_faces_end(); ++f) {
            f->set_in_domain(false);
            f->info().value = -2;  // not seen
        }
        std::vector<Face> members;
        for (auto f = cdt_.finite_faces_begin(); f != cdt_.finite_faces_end(); ++f) {
            if (f->info().value != -2) continue;
            members.assign(1, f);
            f->info().value = -1;
            bool unbounded = false;
            double best = -1;
            Face widest = f;
            for (std::size_t k = 0; k < members.size(); ++k) {
                Face g = members[k];
                const auto &a = g->vertex(0)->point(), &b = g->vertex(1)->point(), &c = g->vertex(2)->point();
                double twice = (b.x() - a.x()) * (c.y() - a.y()) - (b.y() - a.y()) * (c.x() - a.x());
                if (twice > best) best = twice, widest = g;
                for (int i = 0; i < 3; ++i) {
                    if (g->is_constrained(i)) continue;
                    Face n = g->neighbor(i);
                    if (cdt_.is_infinite(n)) {
                        unbounded = true;
                    } else if (n->info().value == -2) {
                        n->info().value = -1;
                        members.push_back(n);
                    }
                }
            }
            Point at = middle(widest);
            if (unbounded || !inDomain(input_, at)) continue;
            for (Face g : members) {
                g->set_in_domain(true);
                g->info().value = int(points.size());
            }
            points.push_back(at);
        }
        return points;
    }

    // The middle of the square, of the usual size of triangles, with the most points.
    Point densest() const {
        std::map<std::pair<long, long>, int> count;
        std::pair<long, long> most{0, 0};
        int found = 0;
        for (auto v = cdt_.finite_vertices_begin(); v != cdt_.finite_vertices_end(); ++v) {
            const std::pair<long, long> cell{long(std::floor(v->point().x() / input_.size)),
                                             long(std::floor(v->point().y() / input_.size))};
            if (++count[cell] > found) found = count[cell], most = cell;
        }
        return {(double(most.first) + 0.5) * input_.size, (double(most.second) + 0.5) * input_.size};
    }
    void refine() {
        findParts();
        double sine = std::sin(input_.leastAngle * std::numbers::pi / 180);
        CGAL::Delaunay_mesher_2<Triangulation, Criteria> mesher(
            cdt_, Criteria(sine * sine, std::max(2 * input_.tolerance, input_.size * 1e-4)));
        mesher.init(true);
        // Refinement adds few points to the lattice's, but where lines nearly touch.
        const std::size_t bound = std::min(most_ + most_ / 2, 8 * points_.size() + 50'000);
        for (std::size_t step = 0; !mesher.is_refinement_done(); ++step) {
            if (step % 1024 == 0 && stopped()) return;
            if (cdt_.number_of_vertices() > bound) {
                mesh_.error = "crowded";
                crowded_ = {densest(), 2 * bound};
                return;
            }
            mesher.try_one_step_refine_mesh();
        }
    }

    void extract() {
        mesh_.partPoint = findParts();
        std::vector<int> number;  // per vertex in the order of iteration, by info
        int fresh = int(points_.size());
        for (auto v = cdt_.finite_vertices_begin(); v != cdt_.finite_vertices_end(); ++v)
            if (v->info().value < 0) v->info().value = fresh++;
        number.assign(std::size_t(fresh), -1);
        double least = 2;
        mesh_.shortestSide = std::numeric_limits<double>::max();
        for (auto f = cdt_.finite_faces_begin(); f != cdt_.finite_faces_end(); ++f) {
            if (!f->is_in_domain()) continue;
            std::array<int, 3> t;
            for (int i = 0; i < 3; ++i) {
                Vertex v = f->vertex(i);
                int& n = number[v->info().value];
                if (n < 0) {
                    n = int(mesh_.nodes.size());
                    mesh_.nodes.push_back({v->point().x(), v->point().y()});
                }
                t[i] = n;
            }
            mesh_.triangles.push_back(t);
            mesh_.part.push_back(f->info().value);
            const Point &a = mesh_.nodes[t[0]], &b = mesh_.nodes[t[1]], &c = mesh_.nodes[t[2]];
            auto square = [](Point p, Point q) {
                return (p.x - q.x) * (p.x - q.x) + (p.y - q.y) * (p.y - q.y);
            };
            double A = square(b, c), B = square(c, a), C = square(a, b), shortest = std::min({A, B, C});
            double cross = (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
            double sine = cross * cross * shortest / (A * B * C);
            if (sine < least) least = sine, mesh_.smallestAngleAt = middle(f);
            mesh_.shortestSide = std::min(mesh_.shortestSide, shortest);
            mesh_.longestSide = std::max(mesh_.longestSide, std::max({A, B, C}));
        }
        if (mesh_.triangles.empty()) {
            mesh_.error = "The slab has no area.";
            return;
        }
        mesh_.smallestAngle = std::asin(std::sqrt(std::min(1.0, least))) * 180 / std::numbers::pi;
        mesh_.shortestSide = std::sqrt(mesh_.shortestSide);
        mesh_.longestSide = std::sqrt(mesh_.longestSide);
        for (int p : work_.pointOf) mesh_.pointNode.push_back(number[vertex_[p]->info().value]);
        for (std::size_t i = 0; i < chain_.size(); ++i) edgesAlong(work_.pieces[i], chain_[i], number);
    }
    // The mesh edges of a piece of line: refinement may have cut its parts further.
    void edgesAlong(const Linework::Piece& piece, const std::vector<int>& chain,
                    const std::vector<int>& number) {
        bool wanted = false;
        for (int line : piece.of) wanted |= lines_[line].id >= 0;
        if (!wanted) return;
        std::vector<int> nodes;
        for (std::size_t k = 0; k + 1 < chain.size(); ++k) {
            Vertex v = vertex_[chain[k]], to = vertex_[chain[k + 1]];
            nodes.push_back(number[v->info().value]);
            while (v != to && !cdt_.is_edge(v, to)) {
                // The constrained edge that leads straight on.
                double dx = to->point().x() - v->point().x(), dy = to->point().y() - v->point().y();
                Vertex next;
                double best = 0.99 * std::hypot(dx, dy);
                auto e = cdt_.incident_edges(v), end = e;
                do {
                    if (cdt_.is_infinite(e) || !e->first->is_constrained(e->second)) continue;
                    Vertex w = e->first->vertex(Triangulation::cw(e->second));
                    if (w == v) w = e->first->vertex(Triangulation::ccw(e->second));
                    double ex = w->point().x() - v->point().x(), ey = w->point().y() - v->point().y();
                    double along = (ex * dx + ey * dy) / std::hypot(ex, ey);
                    if (along > best) best = along, next = w;
                } while (++e != end);
                if (next == Vertex()) break;
                v = next;
                nodes.push_back(number[v->info().value]);
            }
        }
        nodes.push_back(number[vertex_[chain.back()]->info().value]);
        for (int line : piece.of) {
            const auto& l = lines_[line];
            if (l.id < 0) continue;
            Point a = work_.points[piece.a], b = work_.points[piece.b];
            bool forward = (b.x - a.x) * (l.b.x - l.a.x) + (b.y - a.y) * (l.b.y - l.a.y) > 0;
            for (std::size_t k = 0; k + 1 < nodes.size(); ++k)
                if (nodes[k] >= 0 && nodes[k + 1] >= 0 && nodes[k] != nodes[k + 1])
                    mesh_.edges.push_back(forward ? Mesh::Edge{nodes[k], nodes[k + 1], l.id}
                                                  : Mesh::Edge{nodes[k + 1], nodes[k], l.id});
        }
    }
};

}  // namespace

Mesh makeMesh(const MeshTask& input, std::stop_token stop, std::size_t mostNodes) {
    const ReducedTask reduced(input);
    auto task = std::make_shared<const MeshTask>(reduced.task());
    auto generator = std::make_shared<Generator>(*task, stop, mostNodes);
    Mesh mesh = generator->run();
    auto place = [&](Point p) {
        p = reduced.toPlan(p);
        // No minus before a nought.
        return fmt::format("({:.3f}, {:.3f}) m", p.x / 1000 + 0.0, p.y / 1000 + 0.0);
    };
    if (const auto& crowd = generator->crowded())
        mesh.error = fmt::format(
            "Lines very close together near {} need more than {} triangles; move them apart or onto each "
            "other, "
            "or choose a larger size of mesh.",
            place(crowd->at), crowd->triangles);
    if (const auto at = generator->joined(); at && mesh.error.empty())
        mesh.notes.push_back(
            fmt::format("Points closer together than {:.2g} mm were taken as one, the first at {}: draw them "
                        "on one place.",
                        input.tolerance, place(*at)));
    if (generator->isLarge())
        letGo(std::make_shared<std::pair<decltype(generator), decltype(task)>>(std::move(generator), task));
    return reduced.whole(std::move(mesh));
}

}  // namespace talvik::fem
