#include "analysis/cracked_plate.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

#include "fem/parallel/pool.h"

namespace talvik::analysis {
namespace {

Three times(const std::array<double, 9>& m, const Three& v) {
    return {m[0] * v.x + m[1] * v.y + m[2] * v.xy, m[3] * v.x + m[4] * v.y + m[5] * v.xy,
            m[6] * v.x + m[7] * v.y + m[8] * v.xy};
}

}  // namespace

CrackedPlate::CrackedPlate(const FloorAnalysis& a) : a_(a) {
    const auto& plate = a.model->plate;
    const std::size_t n = plate.triangles.size();
    B_.resize(n), D_.resize(n), inverse_.resize(n), middle_.resize(n), area_.resize(n);
    constexpr std::size_t lanes = fem::lanes;
    fem::parallelFor((n + lanes - 1) / lanes, [&](std::size_t group) {
        fem::ElementGroup e{};
        const std::size_t from = group * lanes, count = std::min(lanes, n - from);
        for (std::size_t l = 0; l < lanes; ++l) {
            const std::size_t t = from + std::min(l, count - 1);
            for (int c = 0; c < 3; ++c) {
                const auto& p = plate.nodes[std::size_t(plate.triangles[t][std::size_t(c)])];
                e.x[c][l] = p.x, e.y[c][l] = p.y;
            }
            fem::PlateModel::fill(e, int(l), plate.materials[std::size_t(plate.material[t])]);
        }
        fem::Pack u[81]{}, m[81]{};
        for (int k = 0; k < 9; ++k)
            for (std::size_t l = 0; l < lanes; ++l) u[9 * k + k][l] = 1;
        fem::cornerMoments(e, 9, u, m);
        for (std::size_t l = 0; l < count; ++l) {
            const std::size_t t = from + l;
            const auto& mat = plate.materials[std::size_t(plate.material[t])];
            const double v[3] = {mat.cosine * mat.cosine, mat.sine * mat.sine, mat.cosine * mat.sine};
            Eigen::Matrix3d D = Eigen::Matrix3d::Zero();
            D(0, 0) = D(1, 1) = mat.D, D(0, 1) = D(1, 0) = mat.D * mat.nu, D(2, 2) = mat.D * (1 - mat.nu) / 2;
            for (int r = 0; r < 3; ++r)
                for (int c = 0; c < 3; ++c) D(r, c) += mat.oneWay * v[r] * v[c];
            const Eigen::Matrix3d back = D.inverse();
            for (int r = 0; r < 3; ++r)
                for (int c = 0; c < 3; ++c)
                    D_[t][std::size_t(3 * r + c)] = D(r, c), inverse_[t][std::size_t(3 * r + c)] = back(r, c);
            for (int k = 0; k < 9; ++k) {
                // Moments vary linearly: at the middle the mean of the corners.
                Eigen::Vector3d at = Eigen::Vector3d::Zero();
                for (int corner = 0; corner < 3; ++corner)
                    for (int r = 0; r < 3; ++r) at(r) += m[9 * k + 3 * corner + r][l] / 3;
                const Eigen::Vector3d b = back * at;
                for (int r = 0; r < 3; ++r) B_[t][std::size_t(9 * r + k)] = b(r);
            }
            const auto &p = plate.nodes[std::size_t(plate.triangles[t][0])],
                       &q = plate.nodes[std::size_t(plate.triangles[t][1])],
                       &s = plate.nodes[std::size_t(plate.triangles[t][2])];
            middle_[t] = {(p.x + q.x + s.x) / 3, (p.y + q.y + s.y) / 3};
            area_[t] = ((q.x - p.x) * (s.y - p.y) - (q.y - p.y) * (s.x - p.x)) / 2;
        }
    });
    for (const auto& beam : plate.beams)
        beam_.push_back(
            fem::beamStiffness(beam, plate.nodes[std::size_t(beam.a)], plate.nodes[std::size_t(beam.b)]));
}

Three CrackedPlate::curvature(std::size_t t, const fem::NodeVector& u) const {
    const auto& nodes = a_.model->plate.triangles[t];
    double k[3] = {0, 0, 0};
    for (int c = 0; c < 3; ++c)
        for (int d = 0; d < 3; ++d) {
            const double v = u[std::size_t(3 * nodes[std::size_t(c)] + d)];
            for (int r = 0; r < 3; ++r) k[r] += B_[t][std::size_t(9 * r + 3 * c + d)] * v;
        }
    return {k[0], k[1], k[2]};
}

std::vector<Three> CrackedPlate::moments(const fem::NodeVector& u) const {
    std::vector<Three> all(B_.size());
    for (std::size_t t = 0; t < B_.size(); ++t) all[t] = times(D_[t], curvature(t, u));
    return all;
}

Three CrackedPlate::elastic(std::size_t t, const Three& moment) const {
    return times(inverse_[t], moment);
}

void CrackedPlate::addForces(const std::vector<Three>& moments, fem::NodeVector& f) const {
    const auto& plate = a_.model->plate;
    for (std::size_t t = 0; t < B_.size(); ++t) {
        const Three& m = moments[t];
        for (int c = 0; c < 3; ++c)
            for (int d = 0; d < 3; ++d) {
                const auto k = std::size_t(3 * c + d);
                f[std::size_t(3 * plate.triangles[t][std::size_t(c)] + d)] +=
                    area_[t] * (B_[t][k] * m.x + B_[t][9 + k] * m.y + B_[t][18 + k] * m.xy);
            }
    }
}

CrackedState CrackedPlate::solve(const fem::NodeVector& elastic, const std::vector<Flexibility>& flexible,
                                 const std::vector<Three>& initial, double beams, std::stop_token stop,
                                 double enough, int most) const {
    const std::size_t n = B_.size();
    const auto& plate = a_.model->plate;
    CrackedState out;
    out.u = elastic;
    std::vector<std::array<double, 9>> stiff(n);
    for (std::size_t t = 0; t < n; ++t) {
        const Eigen::Matrix3d s = Eigen::Map<const Eigen::Matrix3d>(flexible[t].data()).inverse();
        for (int k = 0; k < 9; ++k) stiff[t][std::size_t(k)] = s(k / 3, k % 3);
    }
    const double softer = 1 - 1 / std::max(1.0, beams);
    std::vector<Three> m(n);
    // What the softer plate asks for less than the elastic one.
    auto less = [&](const fem::NodeVector& u) {
        for (std::size_t t = 0; t < n; ++t) {
            const Three k = curvature(t, u), e = times(D_[t], k), s = times(stiff[t], k);
            m[t] = {e.x - s.x, e.y - s.y, e.xy - s.xy};
        }
        fem::NodeVector f(u.size(), 0.0);
        addForces(m, f);
        if (softer > 0)
            for (std::size_t e = 0; e < beam_.size(); ++e)
                for (std::size_t r = 0; r < 6; ++r) {
                    double sum = 0;
                    for (std::size_t k = 0; k < 6; ++k)
                        sum += beam_[e][6 * r + k] *
                               u[std::size_t(3 * (k < 3 ? plate.beams[e].a : plate.beams[e].b)) + k % 3];
                    f[std::size_t(3 * (r < 3 ? plate.beams[e].a : plate.beams[e].b)) + r % 3] += softer * sum;
                }
        return f;
    };
    auto dot = [](const fem::NodeVector& a, const fem::NodeVector& b) {
        double sum = 0;
        for (std::size_t i = 0; i < a.size(); ++i) sum += a[i] * b[i];
        return sum;
    };
    fem::Stages stages;
    // Begun with the elastic answer, whose rest is what is softer.
    auto r = less(out.u);
    if (!initial.empty()) {
        for (std::size_t t = 0; t < n; ++t) m[t] = times(stiff[t], initial[t]);
        addForces(m, r);
    }
    auto solved = a_.system->solve({r}, stages, stop);
    if (solved.empty()) return out;
    auto z = std::move(solved[0]);
    auto p = z, q = r;  // q: the elastic stiffness times p
    double rz = dot(r, z);
    int small = 0;
    for (out.rounds = 1; out.rounds <= most && rz > 0; ++out.rounds) {
        const auto soft = less(p);
        double bends = 0;
        for (std::size_t i = 0; i < p.size(); ++i) bends += p[i] * (q[i] - soft[i]);
        if (!(bends > 0)) break;
        const double step = rz / bends;
        double change = 0, largest = 1e-12;
        for (std::size_t i = 0; i < p.size(); ++i) {
            out.u[i] += step * p[i], r[i] -= step * (q[i] - soft[i]);
            if (i % 3 == 0)
                change = std::max(change, std::abs(step * p[i])),
                largest = std::max(largest, std::abs(out.u[i]));
        }
        out.left = change / largest;
        small = out.left < enough ? small + 1 : 0;
        if (small == 2) break;
        solved = a_.system->solve({r}, stages, stop);
        if (solved.empty()) return out;
        z = std::move(solved[0]);
        const double next = dot(r, z), more = next / rz;
        rz = next;
        for (std::size_t i = 0; i < p.size(); ++i) p[i] = z[i] + more * p[i], q[i] = r[i] + more * q[i];
    }
    // Nothing softer at all leaves nothing to do.
    out.settled = small == 2 || !(rz > 0);
    out.moments.resize(n);
    for (std::size_t t = 0; t < n; ++t) {
        Three k = curvature(t, out.u);
        if (!initial.empty()) k.x -= initial[t].x, k.y -= initial[t].y, k.xy -= initial[t].xy;
        out.moments[t] = times(stiff[t], k);
    }
    return out;
}

}  // namespace talvik::analysis
