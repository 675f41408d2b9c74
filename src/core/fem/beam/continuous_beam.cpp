#include "fem/beam/continuous_beam.h"

#include <Eigen/SparseCholesky>
#include <algorithm>

namespace talvik::fem {
namespace {

// Element stiffness in (w1, t1, w2, t2) with w downwards and t = dw/dx.
Eigen::Matrix4d stiffness(const Beam::Span& s) {
    double L = s.length, k = s.EI / (L * L * L);
    Eigen::Matrix4d K;
    K << 12, 6 * L, -12, 6 * L,               //
        6 * L, 4 * L * L, -6 * L, 2 * L * L,  //
        -12, -6 * L, 12, -6 * L,              //
        6 * L, 2 * L * L, -6 * L, 4 * L * L;
    return k * K;
}

Eigen::Vector4d equivalentLoad(double q, double L) {
    return {q * L / 2, q * L * L / 12, q * L / 2, -q * L * L / 12};
}

}  // namespace

BeamResult solve(const Beam& beam, const std::vector<std::vector<double>>& loads) {
    const std::size_t nodes = beam.spans.size() + 1;
    if (std::count(beam.supported.begin(), beam.supported.end(), true) < 2)
        return {{}, "The slab turns about its only support; it needs two supports at least."};
    std::vector<int> dof(2 * nodes, -1);
    int free = 0;
    for (std::size_t n = 0; n < nodes; ++n) {
        if (!beam.supported[n]) dof[2 * n] = free++;
        dof[2 * n + 1] = free++;
    }
    std::vector<Eigen::Triplet<double>> entries;
    Eigen::MatrixXd rhs = Eigen::MatrixXd::Zero(free, static_cast<Eigen::Index>(loads.size()));
    for (std::size_t e = 0; e < beam.spans.size(); ++e) {
        Eigen::Matrix4d K = stiffness(beam.spans[e]);
        for (int i = 0; i < 4; ++i) {
            int row = dof[2 * e + i];
            if (row < 0) continue;
            for (int j = 0; j < 4; ++j)
                if (int col = dof[2 * e + j]; col >= 0) entries.emplace_back(row, col, K(i, j));
            for (std::size_t c = 0; c < loads.size(); ++c)
                rhs(row, static_cast<Eigen::Index>(c)) +=
                    equivalentLoad(loads[c][e], beam.spans[e].length)(i);
        }
    }
    Eigen::SparseMatrix<double> K(free, free);
    K.setFromTriplets(entries.begin(), entries.end());
    Eigen::SimplicialLDLT<Eigen::SparseMatrix<double>> factor(K);
    if (factor.info() != Eigen::Success)
        return {{}, "The stiffness of the slab strip is singular; check its spans and supports."};
    Eigen::MatrixXd u = factor.solve(rhs);
    u += factor.solve(rhs - K * u);  // one step of refinement

    BeamResult result;
    for (std::size_t c = 0; c < loads.size(); ++c) {
        BeamSolution s;
        s.load = loads[c];
        s.reaction.assign(nodes, 0);
        auto value = [&](std::size_t d) {
            return dof[d] < 0 ? 0.0 : u(dof[d], static_cast<Eigen::Index>(c));
        };
        for (std::size_t n = 0; n < nodes; ++n) {
            s.deflection.push_back(value(2 * n));
            s.rotation.push_back(value(2 * n + 1));
        }
        for (std::size_t e = 0; e < beam.spans.size(); ++e) {
            Eigen::Vector4d end{value(2 * e), value(2 * e + 1), value(2 * e + 2), value(2 * e + 3)};
            Eigen::Vector4d f =
                stiffness(beam.spans[e]) * end - equivalentLoad(loads[c][e], beam.spans[e].length);
            // f(0): force the node puts on the element, downwards; the shear there is its opposite.
            s.shearStart.push_back(-f(0));
            s.momentStart.push_back(f(1));
            s.reaction[e] += -f(0);
            s.reaction[e + 1] += -f(2);
        }
        for (std::size_t n = 0; n < nodes; ++n)
            if (!beam.supported[n]) s.reaction[n] = 0;
        result.cases.push_back(std::move(s));
    }
    return result;
}

double deflection(const Beam& beam, const BeamSolution& s, std::size_t span, double x) {
    double L = beam.spans[span].length, t = x / L;
    double shape = s.deflection[span] * (1 - 3 * t * t + 2 * t * t * t) +
                   s.rotation[span] * L * (t - 2 * t * t + t * t * t) +
                   s.deflection[span + 1] * (3 * t * t - 2 * t * t * t) +
                   s.rotation[span + 1] * L * (t * t * t - t * t);
    return shape + s.load[span] * x * x * (L - x) * (L - x) / (24 * beam.spans[span].EI);
}

std::vector<double> integrateFrom(double slope, const std::vector<double>& x,
                                  const std::vector<double>& curvature) {
    std::vector<double> w(x.size(), 0);
    for (std::size_t i = 1; i < x.size(); ++i) {
        double h = x[i] - x[i - 1], a = curvature[i - 1], b = curvature[i];
        w[i] = w[i - 1] + slope * h - h * h * (2 * a + b) / 6;  // w'' = -curvature, linear in between
        slope -= h * (a + b) / 2;
    }
    return w;
}

IntegratedSag integrateBetweenSupports(const std::vector<double>& x, const std::vector<double>& curvature) {
    IntegratedSag sag;
    std::vector<double> w = integrateFrom(0, x, curvature);
    double L = x.back() - x.front();
    sag.slopeStart = -w.back() / L;
    sag.slopeEnd = sag.slopeStart;
    for (std::size_t i = 1; i < x.size(); ++i)
        sag.slopeEnd -= (x[i] - x[i - 1]) * (curvature[i] + curvature[i - 1]) / 2;
    for (std::size_t i = 0; i < x.size(); ++i) w[i] += sag.slopeStart * (x[i] - x.front());
    sag.w = std::move(w);
    return sag;
}

}  // namespace talvik::fem
