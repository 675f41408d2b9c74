#include "fem/plate/modes.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>
#include <numbers>
#include <random>

namespace talvik::fem {

std::vector<Mode> lowestModes(const PlateSystem& system, const std::vector<double>& mass, int wanted,
                              double highest, std::stop_token stop) {
    const std::size_t n = mass.size();
    const int heavy = int(std::count_if(mass.begin(), mass.end(), [](double m) { return m > 0; }));
    if (heavy < 1 || wanted < 1) return {};
    const double enough = std::pow(2 * std::numbers::pi * highest, 2);
    // Forces to start with: the masses themselves, then shapes without order, the same every time.
    std::mt19937 random(1);
    std::vector<NodeVector> forces;
    Eigen::MatrixXd X;
    Eigen::VectorXd before;
    Stages stages;
    // As many as there are below the highest frequency: twice as many until the last lies above it.
    int found = std::min({wanted, heavy, 12});
    while (true) {
        const int q = std::min(found + 8, heavy);
        while (int(forces.size()) < q) {
            auto& f = forces.emplace_back(3 * n, 0);
            for (std::size_t i = 0; i < n; ++i)
                f[3 * i] = mass[i] * (forces.size() == 1 ? 1 : double(random()) / double(random.max()) - 0.5);
        }
        X.resize(Eigen::Index(n), q);
        before = Eigen::VectorXd::Zero(q);
        for (int round = 0; round < 60; ++round) {
            const auto moved = system.solve(forces, stages, stop);
            if (moved.size() != forces.size()) return {};
            for (int k = 0; k < q; ++k)
                for (std::size_t i = 0; i < n; ++i) X(Eigen::Index(i), k) = moved[std::size_t(k)][3 * i];
            // Both matrices on the shapes: K X is what was put on.
            Eigen::MatrixXd MX = X, F(Eigen::Index(n), q);
            for (std::size_t i = 0; i < n; ++i) MX.row(Eigen::Index(i)) *= mass[i];
            for (int k = 0; k < q; ++k)
                for (std::size_t i = 0; i < n; ++i) F(Eigen::Index(i), k) = forces[std::size_t(k)][3 * i];
            Eigen::MatrixXd K = X.transpose() * F, M = X.transpose() * MX;
            K = (K + K.transpose().eval()) / 2, M = (M + M.transpose().eval()) / 2;
            // Scaled, so that shapes that are small together are not taken for none.
            const Eigen::VectorXd scale = M.diagonal().cwiseMax(1e-300).cwiseSqrt().cwiseInverse();
            K = scale.asDiagonal() * K * scale.asDiagonal(), M = scale.asDiagonal() * M * scale.asDiagonal();
            const Eigen::GeneralizedSelfAdjointEigenSolver<Eigen::MatrixXd> solver(K, M);
            if (solver.info() != Eigen::Success) return {};
            const Eigen::MatrixXd turn = scale.asDiagonal() * solver.eigenvectors();
            X *= turn, MX *= turn;
            const Eigen::VectorXd now = solver.eigenvalues();
            double change = 0;
            for (int k = 0; k < found; ++k)
                change = std::max(change, std::abs(now[k] - before[k]) / std::max(1e-12, std::abs(now[k])));
            before = now;
            for (int k = 0; k < q; ++k)
                for (std::size_t i = 0; i < n; ++i) forces[std::size_t(k)][3 * i] = MX(Eigen::Index(i), k);
            if (change < 1e-7) break;
        }
        if (before[found - 1] > enough || found >= wanted || q >= heavy) break;
        found = std::min({2 * found, wanted, heavy});
    }
    wanted = found;
    std::vector<Mode> all;
    for (int k = 0; k < wanted; ++k) {
        Mode m;
        m.frequency = std::sqrt(std::max(0.0, before[k])) / (2 * std::numbers::pi);
        if (m.frequency > highest && k > 0) break;
        // The largest movement is 1, and downwards: shapes do not hang on how the search went.
        Eigen::Index at = 0;
        X.col(k).cwiseAbs().maxCoeff(&at);
        const double top = X(at, k);
        if (std::abs(top) < 1e-300) continue;
        m.shape.resize(n);
        for (std::size_t i = 0; i < n; ++i) {
            const double w = X(Eigen::Index(i), k) / top;
            m.shape[i] = float(w), m.mass += mass[i] * w * w;
        }
        all.push_back(std::move(m));
    }
    return all;
}

}  // namespace talvik::fem
