#include "fem/plate/plate_system.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <numeric>

#include "fem/parallel/pool.h"
#include "fem/plate/element.h"

namespace talvik::fem {
namespace {

class Clock {
  public:
    explicit Clock(double& into) : into_(into) {}
    ~Clock() { into_ += std::chrono::duration<double>(std::chrono::steady_clock::now() - start_).count(); }
    Clock(const Clock&) = delete;
    Clock& operator=(const Clock&) = delete;

  private:
    double& into_;
    std::chrono::steady_clock::time_point start_ = std::chrono::steady_clock::now();
};

// Lengthens v with zeros to n, in steps between which a stop is seen; false then.
template <class T>
bool grow(std::vector<T>& v, std::size_t n, const std::stop_token& stop) {
    v.reserve(n);
    while (v.size() < n) {
        if (stop.stop_requested()) return false;
        v.resize(std::min(n, v.size() + (std::size_t(1) << 20)));
    }
    return true;
}

// Eight triangles from `first` on; the last is repeated where there are fewer.
void gather(const PlateModel& model, const int* triangles, int count, ElementGroup& e) {
    e.oneWay = false;
    for (int l = 0; l < lanes; ++l) {
        int t = triangles[std::min(l, count - 1)];
        for (int i = 0; i < 3; ++i) {
            Point p = model.nodes[model.triangles[t][i]];
            e.x[i][l] = p.x;
            e.y[i][l] = p.y;
        }
        const auto& m = model.materials[model.material[t]];
        PlateModel::fill(e, l, m);
    }
}

// Entry (3m + a, 3c + b) of a symmetric matrix kept as its lower triangle.
inline int entry(int r, int c) {
    return r >= c ? r * (r + 1) / 2 + c : c * (c + 1) / 2 + r;
}

// T_m^T block T_c, all 3 x 3 row by row; a null turn is the identity.
void turnBlock(const double* tm, const double* tc, double* block) {
    double half[9];
    if (tc) {
        for (int i = 0; i < 3; ++i)
            for (int j = 0; j < 3; ++j)
                half[3 * i + j] =
                    block[3 * i] * tc[j] + block[3 * i + 1] * tc[3 + j] + block[3 * i + 2] * tc[6 + j];
        std::copy(half, half + 9, block);
    }
    if (tm) {
        for (int i = 0; i < 3; ++i)
            for (int j = 0; j < 3; ++j)
                half[3 * i + j] = tm[i] * block[j] + tm[3 + i] * block[3 + j] + tm[6 + i] * block[6 + j];
        std::copy(half, half + 9, block);
    }
}

}  // namespace

std::string PlateSystem::build(const PlateModel& model, Stages& stages, std::stop_token stop) {
    int nodes = int(model.nodes.size()), triangles = int(model.triangles.size());
    {
        Clock clock(stages.order);
        // Equation nodes: one per node, one for all of a rigid body.
        equation_.assign(nodes, -1);
        turnOf_.assign(nodes, -1);
        turns_.clear();
        at_.clear();
        std::vector<int> body(nodes, -1), equationOfBody(model.rigid.size(), -1);
        for (std::size_t r = 0; r < model.rigid.size(); ++r)
            for (int n : model.rigid[r].nodes)
                if (body[n] < 0) body[n] = int(r);
        for (int n = 0; n < nodes; ++n) {
            if (body[n] < 0) {
                equation_[n] = int(at_.size());
                at_.push_back(model.nodes[n]);
                continue;
            }
            int& e = equationOfBody[body[n]];
            if (e < 0) {
                e = int(at_.size());
                at_.push_back(model.rigid[body[n]].at);
            }
            equation_[n] = e;
        }
        int equations = int(at_.size());

        // What is held; a direction turns the axes of its equation node.
        held_.assign(equations, {0, 0, 0});
        std::vector<std::pair<int, std::array<double, 2>>> directions;
        for (const auto& r : model.restraints) {
            auto& h = held_[equation_[r.node]];
            if (r.w) h[0] = 1;
            if (r.rotations) h[1] = h[2] = 1;
            if (r.alongDirection) directions.push_back({equation_[r.node], {r.cx, r.cy}});
        }
        std::vector<int> axis(equations, -1);
        std::vector<std::array<double, 2>> axes;
        for (const auto& [e, d] : directions) {
            if (held_[e][1] && held_[e][2]) continue;
            if (axis[e] < 0) {
                axis[e] = int(axes.size());
                axes.push_back(d);
                held_[e][1] = 1;
            } else if (auto& first = axes[axis[e]]; std::abs(first[0] * d[1] - first[1] * d[0]) > 1e-6) {
                held_[e][1] = held_[e][2] = 1;
            }
        }
        for (int n = 0; n < nodes; ++n) {
            int e = equation_[n];
            bool rigid = body[n] >= 0, turned = axis[e] >= 0 && !(held_[e][1] && held_[e][2]);
            if (!rigid && !turned) continue;
            double c = 1, s = 0;
            if (turned) c = axes[axis[e]][0], s = axes[axis[e]][1];
            double dx = rigid ? model.nodes[n].x - at_[e].x : 0, dy = rigid ? model.nodes[n].y - at_[e].y : 0;
            // (bx, by) = (c b1 - s b2, s b1 + c b2); w moves by -bx dx - by dy.
            turnOf_[n] = int(turns_.size());
            turns_.push_back({1, -(c * dx + s * dy), s * dx - c * dy, 0, c, -s, 0, s, c});
        }

        // Triangles and corners around each equation node; its neighbours.
        incidentStart_.assign(equations + 1, 0);
        incident_.resize(3 * std::size_t(triangles));
        for (const auto& t : model.triangles)
            for (int n : t) ++incidentStart_[equation_[n] + 1];
        std::partial_sum(incidentStart_.begin(), incidentStart_.end(), incidentStart_.begin());
        std::vector<int> fill(incidentStart_.begin(), incidentStart_.end() - 1);
        for (int t = 0; t < triangles; ++t)
            for (int c = 0; c < 3; ++c) incident_[fill[equation_[model.triangles[t][c]]]++] = 3 * t + c;
        std::vector<std::vector<int>> extra;
        std::vector<int> extraOf(equations, -1);
        for (const auto& b : model.beams) {
            int i = equation_[b.a], j = equation_[b.b];
            if (i == j) continue;
            for (auto [from, to] : {std::pair(i, j), std::pair(j, i)}) {
                if (extraOf[from] < 0) {
                    extraOf[from] = int(extra.size());
                    extra.emplace_back();
                }
                extra[extraOf[from]].push_back(to);
            }
        }
        graph_.start.assign(1, 0);
        graph_.start.reserve(equations + 1);
        graph_.to.clear();
        graph_.to.reserve(7 * std::size_t(equations));
        std::vector<int> seen(equations, -1);
        for (int e = 0; e < equations; ++e) {
            if (e % 16384 == 0 && stop.stop_requested()) return "stopped";
            seen[e] = e;
            std::size_t from = graph_.to.size();
            auto add = [&](int other) {
                if (seen[other] == e) return;
                seen[other] = e;
                graph_.to.push_back(other);
            };
            for (int k = incidentStart_[e]; k < incidentStart_[e + 1]; ++k)
                for (int n : model.triangles[incident_[k] / 3]) add(equation_[n]);
            if (extraOf[e] >= 0)
                for (int other : extra[extraOf[e]]) add(other);
            std::sort(graph_.to.begin() + from, graph_.to.end());
            graph_.start.push_back(int(graph_.to.size()));
        }

        order_ = dissect(graph_, at_, stop);
        if (stop.stop_requested()) return "stopped";
        position_.resize(equations);
        for (int p = 0; p < equations; ++p) position_[order_[p]] = p;

        if (stop.stop_requested()) return "stopped";
        lowerStart_.assign(1, 0);
        lower_.clear();
        lower_.reserve(graph_.to.size() / 2);
        for (int p = 0; p < equations; ++p) {
            int e = order_[p];
            std::size_t from = lower_.size();
            for (int k = graph_.start[e]; k < graph_.start[e + 1]; ++k)
                if (position_[graph_.to[k]] > p) lower_.push_back(position_[graph_.to[k]]);
            std::sort(lower_.begin() + from, lower_.end());
            lowerStart_.push_back(int(lower_.size()));
            if (p % 16384 == 0 && stop.stop_requested()) return "stopped";
        }
        std::size_t entries = 6 * std::size_t(equations) + 9 * lower_.size();
        if (entries > 2'000'000'000) return "The model is too large; choose a larger size of mesh.";
        matrix_ = std::make_shared<SparseMatrix>();
        matrix_->start.resize(3 * std::size_t(equations) + 1);
        if (!grow(matrix_->row, entries, stop)) return "stopped";
        matrix_->start[0] = 0;
        for (int p = 0; p < equations; ++p)
            for (int d = 0; d < 3; ++d) {
                if (p % 16384 == 0 && stop.stop_requested()) return "stopped";
                int at = matrix_->start[3 * p + d];
                for (int r = d; r < 3; ++r) matrix_->row[at++] = 3 * p + r;
                for (int k = lowerStart_[p]; k < lowerStart_[p + 1]; ++k)
                    for (int r = 0; r < 3; ++r) matrix_->row[at++] = 3 * lower_[k] + r;
                matrix_->start[3 * p + d + 1] = at;
            }
    }
    Clock clock(stages.symbolic);
    return cholesky_.analyse(matrix_, stop);
}

// Adds a 3 x 3 block (row by row) at equation nodes given by position; row >= column.
void PlateSystem::addBlock(int row, int col, const double* block) {
    if (row == col) {
        for (int d = 0; d < 3; ++d)
            for (int r = d; r < 3; ++r) column(col, d)[r - d] += block[3 * r + d];
        return;
    }
    auto from = lower_.begin() + lowerStart_[col], to = lower_.begin() + lowerStart_[col + 1];
    auto k = std::size_t(std::lower_bound(from, to, row) - from);
    for (int d = 0; d < 3; ++d) {
        double* at = column(col, d) + (3 - d) + 3 * k;
        for (int r = 0; r < 3; ++r) at[r] += block[3 * r + d];
    }
}

void PlateSystem::assemble(const PlateModel& model, std::stop_token stop) {
    std::size_t triangles = model.triangles.size(), groups = (triangles + lanes - 1) / lanes;
    // Not set to zero first: that alone takes a tenth of a second in a large model.
    std::unique_ptr<Pack[]> element(new Pack[groups * stiffnessEntries]);
    constexpr std::size_t perPiece = 64;
    parallelFor((groups + perPiece - 1) / perPiece, [&](std::size_t piece) {
        if (stop.stop_requested()) return;
        ElementGroup e;
        int list[lanes];
        for (std::size_t g = piece * perPiece; g < std::min(groups, (piece + 1) * perPiece); ++g) {
            int count = int(std::min<std::size_t>(lanes, triangles - g * lanes));
            std::iota(list, list + lanes, int(g * lanes));
            gather(model, list, count, e);
            stiffness(e, &element[g * stiffnessEntries]);
        }
    });
    const auto* values = reinterpret_cast<const double*>(element.get());
    if (matrix_.use_count() > 1) matrix_ = std::make_shared<SparseMatrix>(*matrix_);  // one is left behind
    matrix_->value.clear();
    if (!grow(matrix_->value, matrix_->row.size(), stop)) return;
    std::size_t equations = order_.size();
    constexpr std::size_t columnsPerPiece = 512;
    if (stop.stop_requested()) return;
    parallelFor((equations + columnsPerPiece - 1) / columnsPerPiece, [&](std::size_t piece) {
        if (stop.stop_requested()) return;
        for (std::size_t p = piece * columnsPerPiece; p < std::min(equations, (piece + 1) * columnsPerPiece);
             ++p) {
            int e = order_[p];
            for (int k = incidentStart_[e]; k < incidentStart_[e + 1]; ++k) {
                int t = incident_[k] / 3, c = incident_[k] % 3;
                const auto& corner = model.triangles[t];
                const double* source =
                    values + std::size_t(t / lanes) * stiffnessEntries * lanes + std::size_t(t % lanes);
                const double* turnC = turnOf_[corner[c]] < 0 ? nullptr : turns_[turnOf_[corner[c]]].data();
                for (int m = 0; m < 3; ++m) {
                    int row = position_[equation_[corner[m]]];
                    if (row < int(p)) continue;
                    double block[9];
                    for (int a = 0; a < 3; ++a)
                        for (int b = 0; b < 3; ++b)
                            block[3 * a + b] = source[entry(3 * m + a, 3 * c + b) * lanes];
                    const double* turnM =
                        turnOf_[corner[m]] < 0 ? nullptr : turns_[turnOf_[corner[m]]].data();
                    if (turnC || turnM) turnBlock(turnM, turnC, block);
                    addBlock(row, int(p), block);
                }
            }
        }
    });
    if (stop.stop_requested()) return;
    auto turn = [&](int node) { return turnOf_[node] < 0 ? nullptr : turns_[turnOf_[node]].data(); };
    for (const auto& b : model.beams) {
        auto k = beamStiffness(b, model.nodes[b.a], model.nodes[b.b]);
        int ends[2] = {b.a, b.b};
        for (int m = 0; m < 2; ++m)
            for (int c = 0; c < 2; ++c) {
                int row = position_[equation_[ends[m]]], col = position_[equation_[ends[c]]];
                if (row < col) continue;
                double block[9];
                for (int i = 0; i < 3; ++i)
                    for (int j = 0; j < 3; ++j) block[3 * i + j] = k[6 * (3 * m + i) + 3 * c + j];
                turnBlock(turn(ends[m]), turn(ends[c]), block);
                addBlock(row, col, block);
            }
    }
    for (const auto& s : model.springs) {
        double block[9] = {s.w, 0, 0, 0, s.xx, s.xy, 0, s.xy, s.yy};
        turnBlock(turn(s.node), turn(s.node), block);
        int p = position_[equation_[s.node]];
        addBlock(p, p, block);
    }
    // Held movements: their row and column become those of the identity.
    for (std::size_t p = 0; p < equations; ++p)
        for (int d = 0; d < 3; ++d) {
            bool columnHeld = held_[order_[p]][d];
            for (int k = matrix_->start[3 * p + d]; k < matrix_->start[3 * p + d + 1]; ++k) {
                int row = matrix_->row[k];
                if (row == int(3 * p) + d) {
                    if (columnHeld) matrix_->value[k] = 1;
                } else if (columnHeld || held_[order_[row / 3]][row % 3]) {
                    matrix_->value[k] = 0;
                }
            }
        }
}

Cholesky::Outcome PlateSystem::factorise(const PlateModel& model, Stages& stages, std::stop_token stop,
                                         const std::function<void(double)>& share) {
    {
        Clock clock(stages.assembly);
        assemble(model, stop);
    }
    if (stop.stop_requested()) return Cholesky::Outcome::Stopped;
    Clock clock(stages.factor);
    auto outcome = cholesky_.factorise(matrix_, stop, share);
    badNode_ = -1;
    if (outcome == Cholesky::Outcome::NotPositive) {
        int e = order_[std::min<std::size_t>(std::size_t(cholesky_.badColumn()) / 3, order_.size() - 1)];
        badNode_ = int(std::find(equation_.begin(), equation_.end(), e) - equation_.begin());
    }
    return outcome;
}

std::vector<NodeVector> PlateSystem::solve(const std::vector<NodeVector>& loads, Stages& stages,
                                           std::stop_token stop, int rounds) const {
    Clock clock(stages.solve);
    std::size_t n = 3 * order_.size(), nodes = equation_.size();
    auto shared = std::make_shared<std::vector<double>>(n * loads.size(), 0.0);
    std::vector<double>& b = *shared;
    parallelFor(loads.size(), [&](std::size_t c) {
        if (stop.stop_requested()) return;
        double* x = b.data() + c * n;
        for (std::size_t i = 0; i < nodes; ++i) {
            const double* f = &loads[c][3 * i];
            double* to = x + 3 * std::size_t(position_[equation_[i]]);
            if (turnOf_[i] < 0) {
                for (int d = 0; d < 3; ++d) to[d] += f[d];
            } else {
                const auto& t = turns_[turnOf_[i]];
                for (int d = 0; d < 3; ++d) to[d] += t[d] * f[0] + t[3 + d] * f[1] + t[6 + d] * f[2];
            }
        }
        for (std::size_t p = 0; p < order_.size(); ++p)
            for (int d = 0; d < 3; ++d)
                if (held_[order_[p]][d]) x[3 * p + d] = 0;
    });
    std::vector<double> given = rounds > 0 ? b : std::vector<double>();
    if (!cholesky_.solve(shared, int(loads.size()), stop)) return {};
    for (int round = 0; round < rounds; ++round) {
        auto sharedRest = std::make_shared<std::vector<double>>(given);
        std::vector<double>& rest = *sharedRest;
        parallelFor(loads.size(), [&](std::size_t c) {
            if (stop.stop_requested()) return;
            if (stop.stop_requested()) return;
            const double* x = b.data() + c * n;
            double* r = rest.data() + c * n;
            for (std::size_t j = 0; j < n; ++j)
                for (int k = matrix_->start[j]; k < matrix_->start[j + 1]; ++k) {
                    auto i = std::size_t(matrix_->row[k]);
                    r[i] -= matrix_->value[k] * x[j];
                    if (i != j) r[j] -= matrix_->value[k] * x[i];
                }
        });
        if (!cholesky_.solve(sharedRest, int(loads.size()), stop)) return {};
        for (std::size_t i = 0; i < b.size(); ++i) b[i] += rest[i];
    }
    std::vector<NodeVector> u(loads.size());
    parallelFor(loads.size(), [&](std::size_t c) {
        if (stop.stop_requested()) return;
        u[c].resize(3 * nodes);
        for (std::size_t i = 0; i < nodes; ++i) {
            const double* x = b.data() + c * n + 3 * std::size_t(position_[equation_[i]]);
            double* to = &u[c][3 * i];
            if (turnOf_[i] < 0) {
                for (int d = 0; d < 3; ++d) to[d] = x[d];
            } else {
                const auto& t = turns_[turnOf_[i]];
                for (int d = 0; d < 3; ++d)
                    to[d] = t[3 * d] * x[0] + t[3 * d + 1] * x[1] + t[3 * d + 2] * x[2];
            }
        }
    });
    return u;
}

namespace {

// Adds the forces of some triangles under u to f.
void addTriangleForces(const PlateModel& model, const std::vector<int>& triangles, const NodeVector& u,
                       NodeVector& f) {
    ElementGroup e;
    Pack k[stiffnessEntries];
    for (std::size_t g = 0; g < triangles.size(); g += lanes) {
        int count = int(std::min<std::size_t>(lanes, triangles.size() - g));
        gather(model, &triangles[g], count, e);
        stiffness(e, k);
        for (int l = 0; l < count; ++l) {
            const auto& t = model.triangles[triangles[g + l]];
            // Forces come from what is left beside the rigid movement of the first corner: with small
            // triangles the rest would drown in rounding.
            double rest[9];
            const double* first = &u[3 * std::size_t(t[0])];
            for (int i = 0; i < 3; ++i) {
                const double* v = &u[3 * std::size_t(t[i])];
                double dx = model.nodes[t[i]].x - model.nodes[t[0]].x,
                       dy = model.nodes[t[i]].y - model.nodes[t[0]].y;
                rest[3 * i] = (v[0] - first[0]) + first[1] * dx + first[2] * dy;
                rest[3 * i + 1] = v[1] - first[1];
                rest[3 * i + 2] = v[2] - first[2];
            }
            for (int r = 0; r < 9; ++r) {
                double sum = 0;
                for (int c = 0; c < 9; ++c) sum += k[entry(r, c)][l] * rest[c];
                f[3 * std::size_t(t[r / 3]) + r % 3] += sum;
            }
        }
    }
}

void addBeamForces(const PlateModel& model, const PlateModel::Beam& b, const NodeVector& u, NodeVector& f) {
    auto k = beamStiffness(b, model.nodes[b.a], model.nodes[b.b]);
    int ends[2] = {b.a, b.b};
    const double *p = &u[3 * std::size_t(b.a)], *q = &u[3 * std::size_t(b.b)];
    double dx = model.nodes[b.b].x - model.nodes[b.a].x, dy = model.nodes[b.b].y - model.nodes[b.a].y;
    double rest[3] = {(q[0] - p[0]) + p[1] * dx + p[2] * dy, q[1] - p[1], q[2] - p[2]};  // as for triangles
    for (int r = 0; r < 6; ++r)
        for (int c = 0; c < 3; ++c) f[3 * std::size_t(ends[r / 3]) + r % 3] += k[6 * r + 3 + c] * rest[c];
}

void addSpringForces(const PlateModel::Spring& s, const NodeVector& u, NodeVector& f) {
    const double* v = &u[3 * std::size_t(s.node)];
    double* to = &f[3 * std::size_t(s.node)];
    to[0] += s.w * v[0];
    to[1] += s.xx * v[1] + s.xy * v[2];
    to[2] += s.xy * v[1] + s.yy * v[2];
}

}  // namespace

NodeVector internalForces(const PlateModel& model, const NodeVector& u) {
    NodeVector f(u.size(), 0);
    std::vector<int> all(model.triangles.size());
    std::iota(all.begin(), all.end(), 0);
    addTriangleForces(model, all, u, f);
    for (const auto& b : model.beams) addBeamForces(model, b, u, f);
    for (const auto& s : model.springs) addSpringForces(s, u, f);
    return f;
}

std::vector<std::vector<PlateSystem::Reaction>> PlateSystem::reactions(
    const PlateModel& model, const std::vector<NodeVector>& loads, const std::vector<NodeVector>& u) const {
    std::vector<char> held(model.nodes.size(), 0);
    std::vector<int> nodes;
    for (std::size_t n = 0; n < model.nodes.size(); ++n)
        if (auto h = held_[equation_[n]]; h[0] || h[1] || h[2]) {
            held[n] = 1;
            nodes.push_back(int(n));
        }
    std::vector<int> around;
    for (std::size_t t = 0; t < model.triangles.size(); ++t)
        for (int n : model.triangles[t])
            if (held[n]) {
                around.push_back(int(t));
                break;
            }
    std::vector<std::vector<Reaction>> all(u.size());
    parallelFor(u.size(), [&](std::size_t c) {
        NodeVector f(u[c].size(), 0);
        addTriangleForces(model, around, u[c], f);
        for (const auto& b : model.beams)
            if (held[b.a] || held[b.b]) addBeamForces(model, b, u[c], f);
        for (const auto& s : model.springs)
            if (held[s.node]) addSpringForces(s, u[c], f);
        for (int n : nodes) {
            Reaction r{n, {}};
            for (int d = 0; d < 3; ++d)
                r.force[d] = loads[c][3 * std::size_t(n) + d] - f[3 * std::size_t(n) + d];
            all[c].push_back(r);
        }
    });
    return all;
}

std::array<double, 36> beamStiffness(const PlateModel::Beam& beam, Point a, Point b) {
    double dx = b.x - a.x, dy = b.y - a.y, L = std::hypot(dx, dy), c = dx / L, s = dy / L;
    double phi = 12 * beam.EI * beam.flexibility / (L * L);
    double k = beam.EI / (L * L * L * (1 + phi));
    // Along the beam: w and the rotation b = c bx + s by, which is -dw/dx in a slender beam.
    double K[4][4] = {{12 * k, -6 * L * k, -12 * k, -6 * L * k},
                      {-6 * L * k, (4 + phi) * L * L * k, 6 * L * k, (2 - phi) * L * L * k},
                      {-12 * k, 6 * L * k, 12 * k, 6 * L * k},
                      {-6 * L * k, (2 - phi) * L * L * k, 6 * L * k, (4 + phi) * L * L * k}};
    double t = beam.GJ / L;
    std::array<double, 36> out{};
    double along[2] = {c, s}, across[2] = {-s, c};
    for (int i = 0; i < 2; ++i)
        for (int j = 0; j < 2; ++j) {
            out[6 * (3 * i) + 3 * j] = K[2 * i][2 * j];
            for (int q = 0; q < 2; ++q) {
                out[6 * (3 * i) + 3 * j + 1 + q] = K[2 * i][2 * j + 1] * along[q];
                out[6 * (3 * i + 1 + q) + 3 * j] = K[2 * i + 1][2 * j] * along[q];
                for (int r = 0; r < 2; ++r)
                    out[6 * (3 * i + 1 + q) + 3 * j + 1 + r] = K[2 * i + 1][2 * j + 1] * along[q] * along[r] +
                                                               (i == j ? t : -t) * across[q] * across[r];
            }
        }
    return out;
}

BeamForces beamForces(const PlateModel::Beam& beam, const std::vector<Point>& nodes, const NodeVector& u) {
    Point a = nodes[beam.a], b = nodes[beam.b];
    double dx = b.x - a.x, dy = b.y - a.y, L = std::hypot(dx, dy), c = dx / L, s = dy / L;
    const double *p = &u[3 * std::size_t(beam.a)], *q = &u[3 * std::size_t(beam.b)];
    double ba = c * p[1] + s * p[2], bb = c * q[1] + s * q[2];
    double phi = 12 * beam.EI * beam.flexibility / (L * L);
    // Sagging M = EI db/dx; shear V = dM/dx, constant along the element.
    BeamForces f;
    f.shear = -12 * beam.EI / (L * L * L * (1 + phi)) * ((p[0] - q[0]) - L / 2 * (ba + bb));
    double mean = beam.EI * (bb - ba) / L;
    f.momentStart = mean - f.shear * L / 2;
    f.momentEnd = mean + f.shear * L / 2;
    f.torque = beam.GJ / L * ((-s * q[1] + c * q[2]) - (-s * p[1] + c * p[2]));
    return f;
}

void PlateModel::fill(ElementGroup& e, int l, const Material& m) {
    e.D[l] = m.D;
    e.nu[l] = m.nu;
    e.flexibility[l] = m.flexibility;
    e.U[l] = m.oneWay;
    e.cc[l] = m.cosine * m.cosine, e.ss[l] = m.sine * m.sine, e.cs[l] = m.cosine * m.sine;
    if (m.oneWay > 0) e.oneWay = true;
}

}  // namespace talvik::fem
