#include "fem/solver/cholesky.h"

#include <omp.h>
#include <suitesparse/cholmod.h>

#include <algorithm>
#include <chrono>
#include <cstring>
#include <future>
#include <thread>

#include "fem/parallel/pool.h"
#include "fem/solver/dense_blocks.h"

namespace talvik::fem {
namespace {

// CHOLMOD's own loops start four threads whatever the machine; ours share the work instead.
struct SerialLoops {
    int before = omp_get_max_active_levels();
    SerialLoops() { omp_set_max_active_levels(0); }
    ~SerialLoops() { omp_set_max_active_levels(before); }
};

cholmod_sparse view(const SparseMatrix& m) {
    cholmod_sparse a{};
    a.nrow = a.ncol = std::size_t(m.size());
    a.nzmax = m.row.size();
    a.p = const_cast<int*>(m.start.data());
    a.i = const_cast<int*>(m.row.data());
    a.x = m.value.empty() ? nullptr : const_cast<double*>(m.value.data());
    a.stype = -1;
    a.itype = CHOLMOD_INT;
    a.xtype = m.value.empty() ? CHOLMOD_PATTERN : CHOLMOD_REAL;
    a.dtype = CHOLMOD_DOUBLE;
    a.sorted = a.packed = 1;
    return a;
}

void configure(cholmod_common& c) {
    cholmod_start(&c);
    c.print = 0;
    c.supernodal = CHOLMOD_SUPERNODAL;
    c.nmethods = 1;
    c.method[0].ordering = CHOLMOD_NATURAL;
    c.postorder = 0;
    c.final_ll = 1;
}

// Workspace of one thread that solves.
struct Solver {
    cholmod_common common;
    cholmod_dense *x = nullptr, *y = nullptr, *e = nullptr;
    Solver() { configure(common); }
    ~Solver() {
        cholmod_free_dense(&x, &common);
        cholmod_free_dense(&y, &common);
        cholmod_free_dense(&e, &common);
        cholmod_finish(&common);
    }
    Solver(const Solver&) = delete;
    Solver& operator=(const Solver&) = delete;
};

}  // namespace

struct Cholesky::Inner {
    cholmod_common common;
    cholmod_factor* factor = nullptr;
    double flops = 0, entries = 0;
    mutable std::vector<std::unique_ptr<Solver>> solvers;
    Inner() { configure(common); }
    ~Inner() {
        cholmod_free_factor(&factor, &common);
        cholmod_finish(&common);
    }
    Inner(const Inner&) = delete;
    Inner& operator=(const Inner&) = delete;
};

Cholesky::Cholesky() : inner_(std::make_shared<Inner>()) {}
Cholesky::~Cholesky() = default;
Cholesky::Cholesky(Cholesky&&) noexcept = default;
Cholesky& Cholesky::operator=(Cholesky&&) noexcept = default;

namespace {

std::string analysePattern(cholmod_common& c, cholmod_factor*& factor, const SparseMatrix& matrix) {
    SerialLoops serial;
    cholmod_sparse a = view(matrix);
    factor = cholmod_analyze(&a, &c);
    if (factor && c.status >= 0) return {};
    return c.status == CHOLMOD_TOO_LARGE || c.status == CHOLMOD_OUT_OF_MEMORY
               ? "The model is too large for this machine; choose a larger size of mesh."
               : "The system of equations could not be ordered.";
}

}  // namespace

std::string Cholesky::analyse(const SparseMatrix& matrix, std::stop_token stop) {
    inner_ = std::make_shared<Inner>();
    constexpr int large = 30000;  // below it takes less than 20 ms
    std::string error;
    if (matrix.size() < large || !stop.stop_possible()) {
        error = analysePattern(inner_->common, inner_->factor, matrix);
    } else {
        auto pattern = std::make_shared<SparseMatrix>();
        pattern->start = matrix.start;
        pattern->row = matrix.row;
        auto promise = std::make_shared<std::promise<std::string>>();
        auto done = promise->get_future();
        std::thread([inner = inner_, pattern, promise] {
            promise->set_value(analysePattern(inner->common, inner->factor, *pattern));
        }).detach();
        while (done.wait_for(std::chrono::milliseconds(5)) != std::future_status::ready)
            if (stop.stop_requested()) {
                inner_ = std::make_shared<Inner>();
                return "stopped";
            }
        error = done.get();
    }
    inner_->flops = inner_->common.fl;
    inner_->entries = inner_->common.lnz;
    return error;
}

Cholesky::Outcome Cholesky::factorise(const SparseMatrix& matrix, std::stop_token stop,
                                      const std::function<void(double)>& share) {
    auto& c = inner_->common;
    SerialLoops serial;
    double all = std::max(1.0, inner_->flops);
    WatchBlocks watched(
        stop, share ? [&](double done) { share(std::min(1.0, done / all)); } : std::function<void(double)>());
    cholmod_sparse a = view(matrix);
    cholmod_factorize(&a, inner_->factor, &c);
    if (stop.stop_requested()) return Outcome::Stopped;
    if (c.status == CHOLMOD_NOT_POSDEF) {
        badColumn_ = int(inner_->factor->minor);
        return Outcome::NotPositive;
    }
    if (c.status < 0) return Outcome::TooLarge;
    badColumn_ = -1;
    return Outcome::Done;
}

bool Cholesky::solve(double* b, int columns, std::stop_token stop) const {
    auto n = inner_->factor->n;
    // Blocks of columns, so that two threads share them and a stop is seen between them.
    int width = std::max(1, std::min(8, (columns + int(threads()) - 1) / int(threads())));
    auto blocks = std::size_t((columns + width - 1) / width);
    while (inner_->solvers.size() < blocks) inner_->solvers.push_back(std::make_unique<Solver>());
    parallelFor(blocks, [&](std::size_t k) {
        if (stop.stop_requested()) return;
        SerialLoops serial;
        WatchBlocks watched(stop, {});
        auto& s = *inner_->solvers[k];
        int first = int(k) * width, count = std::min(width, columns - first);
        double* at = b + std::ptrdiff_t(first) * std::ptrdiff_t(n);
        cholmod_dense rhs{};
        rhs.nrow = rhs.d = n;
        rhs.ncol = std::size_t(count);
        rhs.nzmax = n * rhs.ncol;
        rhs.x = at;
        rhs.xtype = CHOLMOD_REAL;
        rhs.dtype = CHOLMOD_DOUBLE;
        cholmod_solve2(CHOLMOD_A, inner_->factor, &rhs, nullptr, &s.x, nullptr, &s.y, &s.e, &s.common);
        std::memcpy(at, s.x->x, sizeof(double) * rhs.nzmax);
    });
    return !stop.stop_requested();
}

std::vector<double> Cholesky::pivots() const {
    const cholmod_factor& f = *inner_->factor;
    std::vector<double> d(f.n, 0);
    auto *super = static_cast<int*>(f.super), *px = static_cast<int*>(f.px), *pi = static_cast<int*>(f.pi);
    auto* x = static_cast<double*>(f.x);
    if (!f.is_super || !x) return d;
    for (std::size_t s = 0; s < f.nsuper; ++s) {
        int rows = pi[s + 1] - pi[s];
        for (int k = 0; k < super[s + 1] - super[s]; ++k) {
            double v = x[px[s] + k + std::ptrdiff_t(k) * rows];
            d[std::size_t(super[s] + k)] = v * v;
        }
    }
    return d;
}

double Cholesky::entries() const {
    return inner_->entries;
}
double Cholesky::flops() const {
    return inner_->flops;
}

}  // namespace talvik::fem
