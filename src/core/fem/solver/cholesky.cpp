#include "fem/solver/cholesky.h"

#include <omp.h>
#include <suitesparse/cholmod.h>

#include <algorithm>
#include <atomic>
#include <cstring>

#include "fem/parallel/aside.h"
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
    c.quick_return_if_not_posdef = 1;
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

namespace {

constexpr std::size_t large = 30000;  // unknowns; below it CHOLMOD ends soon enough by itself

// Aside where it is large and may be stopped.
bool run(std::size_t unknowns, std::function<void()> work, std::stop_token stop,
         const std::function<void()>& meanwhile = {}) {
    if (unknowns >= large && stop.stop_possible()) return doAside(std::move(work), stop, meanwhile);
    work();
    return !stop.stop_requested();
}

}  // namespace

std::string Cholesky::analyse(const std::shared_ptr<const SparseMatrix>& matrix, std::stop_token stop) {
    inner_ = std::make_shared<Inner>();
    auto work = [inner = inner_, matrix] {
        SerialLoops serial;
        cholmod_sparse a = view(*matrix);
        inner->factor = cholmod_analyze(&a, &inner->common);
    };
    if (!run(matrix->start.size(), work, stop)) {
        inner_ = std::make_shared<Inner>();
        return "stopped";
    }
    const auto& c = inner_->common;
    inner_->flops = c.fl;
    inner_->entries = c.lnz;
    if (inner_->factor && c.status >= 0) return {};
    return c.status == CHOLMOD_TOO_LARGE || c.status == CHOLMOD_OUT_OF_MEMORY
               ? "The model is too large for this machine; choose a larger size of mesh."
               : "The system of equations could not be ordered.";
}

Cholesky::Outcome Cholesky::factorise(const std::shared_ptr<const SparseMatrix>& matrix, std::stop_token stop,
                                      const std::function<void(double)>& share) {
    // A run that was stopped took the symbolic part with it.
    if (!inner_->factor && !analyse(matrix, stop).empty())
        return stop.stop_requested() ? Outcome::Stopped : Outcome::TooLarge;
    auto done = std::make_shared<std::atomic<double>>(0);
    auto work = [inner = inner_, matrix, stop, done] {
        SerialLoops serial;
        WatchBlocks watched(stop, [done](double flops) { *done = flops; });
        cholmod_sparse a = view(*matrix);
        cholmod_factorize(&a, inner->factor, &inner->common);
    };
    auto tell = [&] {
        if (share) share(std::min(1.0, *done / std::max(1.0, inner_->flops)));
    };
    if (!run(matrix->start.size(), work, stop, tell)) {
        inner_ = std::make_shared<Inner>();  // the other may still be in use
        return Outcome::Stopped;
    }
    const auto& c = inner_->common;
    if (c.status == CHOLMOD_NOT_POSDEF) {
        badColumn_ = int(inner_->factor->minor);
        return Outcome::NotPositive;
    }
    if (c.status < 0) return Outcome::TooLarge;
    badColumn_ = -1;
    return Outcome::Done;
}

bool Cholesky::solve(const std::shared_ptr<std::vector<double>>& b, int columns, std::stop_token stop) const {
    auto work = [inner = inner_, b, columns, stop] {
        auto n = inner->factor->n;
        // Blocks of columns, so that two threads share them and a stop is seen between them.
        int width = std::max(1, std::min(8, (columns + int(threads()) - 1) / int(threads())));
        auto blocks = std::size_t((columns + width - 1) / width);
        while (inner->solvers.size() < blocks) inner->solvers.push_back(std::make_unique<Solver>());
        parallelFor(blocks, [&](std::size_t k) {
            if (stop.stop_requested()) return;
            SerialLoops serial;
            WatchBlocks watched(stop, {});
            auto& s = *inner->solvers[k];
            int first = int(k) * width, count = std::min(width, columns - first);
            double* at = b->data() + std::ptrdiff_t(first) * std::ptrdiff_t(n);
            cholmod_dense rhs{};
            rhs.nrow = rhs.d = n;
            rhs.ncol = std::size_t(count);
            rhs.nzmax = n * rhs.ncol;
            rhs.x = at;
            rhs.xtype = CHOLMOD_REAL;
            rhs.dtype = CHOLMOD_DOUBLE;
            cholmod_solve2(CHOLMOD_A, inner->factor, &rhs, nullptr, &s.x, nullptr, &s.y, &s.e, &s.common);
            std::memcpy(at, s.x->x, sizeof(double) * rhs.nzmax);
        });
    };
    return run(inner_->factor->n, work, stop);
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
