// The thread pool, work left aside, and the solver's parts by themselves.
#include <gtest/gtest.h>

#include <Eigen/Dense>
#include <atomic>
#include <numeric>
#include <random>

#include "fem/parallel/aside.h"
#include "fem/parallel/pool.h"
#include "fem/solver/cholesky.h"

using namespace talvik;

TEST(Pool, DoesEveryPieceOnce) {
    for (unsigned count : {1u, 2u, 8u}) {
        fem::setThreads(count);
        for (std::size_t n : {0, 1, 2, 7, 1000}) {
            std::vector<std::atomic<int>> done(n);
            fem::parallelFor(n, [&](std::size_t i) { ++done[i]; });
            for (auto& d : done) EXPECT_EQ(d, 1);
        }
        EXPECT_LE(fem::threads(), count);
    }
    fem::setThreads(8);
}

TEST(Pool, HandsOnAnException) {
    std::atomic<int> others{0};
    EXPECT_THROW(fem::parallelFor(100,
                                  [&](std::size_t i) {
                                      if (i == 13) throw std::runtime_error("thirteen");
                                      ++others;
                                  }),
                 std::runtime_error);
    EXPECT_EQ(others, 99);
}

TEST(Pool, ServesTwoCallersAtOnce) {
    std::atomic<int> sum{0};
    std::thread other([&] {
        for (int k = 0; k < 200; ++k) fem::parallelFor(20, [&](std::size_t) { ++sum; });
    });
    for (int k = 0; k < 200; ++k) fem::parallelFor(20, [&](std::size_t) { ++sum; });
    other.join();
    EXPECT_EQ(sum, 8000);
}

TEST(Aside, CanBeLeft) {
    auto finished = std::make_shared<std::atomic<bool>>(false);
    std::stop_source stop;
    int waited = 0;
    bool done = fem::doAside(
        [finished] {
            std::this_thread::sleep_for(std::chrono::milliseconds(150));
            *finished = true;
        },
        stop.get_token(),
        [&] {
            if (++waited == 3) stop.request_stop();
        });
    EXPECT_FALSE(done);
    EXPECT_FALSE(*finished) << "it goes on by itself";
    std::this_thread::sleep_for(std::chrono::milliseconds(300));
    EXPECT_TRUE(*finished);
    EXPECT_TRUE(fem::doAside([finished] { *finished = false; }, {}));
    EXPECT_FALSE(*finished);
}

namespace {

// A grid graph of n x n nodes with its places.
std::pair<fem::Graph, std::vector<geometry::Point>> grid(int n) {
    fem::Graph g;
    std::vector<geometry::Point> at;
    g.start = {0};
    for (int j = 0; j < n; ++j)
        for (int i = 0; i < n; ++i) {
            at.push_back({double(i), double(j)});
            for (auto [di, dj] : {std::pair(0, -1), {-1, 0}, {1, 0}, {0, 1}})
                if (i + di >= 0 && i + di < n && j + dj >= 0 && j + dj < n)
                    g.to.push_back((j + dj) * n + i + di);
            g.start.push_back(int(g.to.size()));
        }
    return {g, at};
}
// Entries of the factor of the graph under an order, by symbolic elimination.
std::size_t fill(const fem::Graph& g, const std::vector<int>& order) {
    int n = g.size();
    std::vector<int> place(n);
    for (int i = 0; i < n; ++i) place[order[i]] = i;
    std::vector<std::vector<int>> below(n);
    std::size_t sum = 0;
    for (int p = 0; p < n; ++p) {
        int node = order[p];
        for (int k = g.start[node]; k < g.start[node + 1]; ++k)
            if (place[g.to[k]] > p) below[p].push_back(place[g.to[k]]);
        std::sort(below[p].begin(), below[p].end());
        below[p].erase(std::unique(below[p].begin(), below[p].end()), below[p].end());
        sum += below[p].size() + 1;
        if (below[p].empty()) continue;
        auto& next = below[below[p][0]];
        next.insert(next.end(), below[p].begin() + 1, below[p].end());
    }
    return sum;
}

}  // namespace

TEST(Dissection, IsAPermutationWithLittleFill) {
    for (int n : {1, 3, 10, 40}) {
        auto [g, at] = grid(n);
        auto order = fem::dissect(g, at);
        std::vector<int> sorted = order, natural(order.size());
        std::sort(sorted.begin(), sorted.end());
        std::iota(natural.begin(), natural.end(), 0);
        EXPECT_EQ(sorted, natural);
        if (n == 40) {
            EXPECT_LT(fill(g, order), fill(g, natural) / 2) << "against rows one after the other";
        }
    }
}

TEST(Cholesky, SolvesAsDenseAlgebraDoes) {
    std::mt19937 random(1);
    std::normal_distribution<double> normal;
    int n = 60;
    Eigen::MatrixXd A = Eigen::MatrixXd::Zero(n, n);
    for (int i = 0; i < n; ++i)
        for (int j = 0; j < i; ++j)
            if ((i * 7 + j * 3) % 5 == 0) A(i, j) = A(j, i) = normal(random);
    for (int i = 0; i < n; ++i) A(i, i) = 40;
    auto m = std::make_shared<fem::SparseMatrix>();
    m->start = {0};
    for (int j = 0; j < n; ++j) {
        for (int i = j; i < n; ++i)
            if (A(i, j) != 0) m->row.push_back(i), m->value.push_back(A(i, j));
        m->start.push_back(int(m->row.size()));
    }
    fem::Cholesky c;
    ASSERT_EQ(c.analyse(m), "");
    ASSERT_EQ(c.factorise(m), fem::Cholesky::Outcome::Done);
    Eigen::MatrixXd B = Eigen::MatrixXd::Random(n, 11);
    auto b = std::make_shared<std::vector<double>>(B.data(), B.data() + B.size());
    ASSERT_TRUE(c.solve(b, 11));
    Eigen::Map<Eigen::MatrixXd> X(b->data(), n, 11);
    EXPECT_LT((A * X - B).norm(), 1e-11);
    double det = 0;
    for (double p : c.pivots()) det += std::log(p);
    EXPECT_NEAR(det, std::log(A.determinant()), 1e-9);
    m->value[0] = -1;
    EXPECT_EQ(c.factorise(m), fem::Cholesky::Outcome::NotPositive);
    EXPECT_EQ(c.badColumn(), 0);
}
