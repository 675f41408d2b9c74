#include "fem/solver/dense_blocks.h"

#include <cblas.h>
#include <dlfcn.h>

#include <algorithm>
#include <vector>

#include "fem/parallel/pool.h"

namespace talvik::fem {
namespace {

thread_local WatchBlocks* watch = nullptr;

constexpr int tile = 256;             // side of the pieces handed to threads
constexpr double worthSharing = 4e6;  // multiplications below which one thread is quicker

struct OneThread {
    OneThread() { openblas_set_num_threads(1); }
};
void ensureOneThread() {
    static OneThread once;
}

bool stopped() {
    return watch && watch->stopped();
}
void count(double flops) {
    if (watch) watch->count(flops);
}

// Tiles of an m x n result; `lower`: only those that touch the lower triangle.
struct Tile {
    int i, j, m, n;
};
std::vector<Tile> tiles(int m, int n, bool lower) {
    std::vector<Tile> all;
    // As few pieces as keep both threads busy, as many as let a stop be seen soon.
    int side = std::clamp((std::max(m, n) + 3) / 4, 64, tile);
    for (int j = 0; j < n; j += side)
        for (int i = 0; i < m; i += side)
            if (!lower || i + side > j) all.push_back({i, j, std::min(side, m - i), std::min(side, n - j)});
    return all;
}

}  // namespace

WatchBlocks::WatchBlocks(std::stop_token stop, std::function<void(double)> flopsDone)
    : stop_(std::move(stop)), tell_(std::move(flopsDone)) {
    ensureOneThread();
    watch = this;
}
WatchBlocks::~WatchBlocks() {
    watch = nullptr;
}
void WatchBlocks::count(double flops) {
    done_ += flops;
    if (tell_ && done_ > told_ + 2e8) {
        told_ = done_;
        tell_(done_);
    }
}

// C (m x n, column by column) = alpha A B^T + beta C
void multiply(CBLAS_TRANSPOSE ta, CBLAS_TRANSPOSE tb, int m, int n, int k, double alpha, const double* a,
              int lda, const double* b, int ldb, double beta, double* c, int ldc) {
    double work = double(m) * n * k;
    if (!watch || work < worthSharing) {
        if (!stopped()) cblas_dgemm(CblasColMajor, ta, tb, m, n, k, alpha, a, lda, b, ldb, beta, c, ldc);
        count(2 * work);
        return;
    }
    auto pieces = tiles(m, n, false);
    std::stop_token stop = watch->token();
    parallelFor(pieces.size(), [&](std::size_t p) {
        if (stop.stop_requested()) return;
        auto [i, j, rows, columns] = pieces[p];
        cblas_dgemm(CblasColMajor, ta, tb, rows, columns, k, alpha,
                    a + (ta == CblasNoTrans ? i : std::ptrdiff_t(i) * lda), lda,
                    b + (tb == CblasNoTrans ? std::ptrdiff_t(j) * ldb : j), ldb, beta,
                    c + i + std::ptrdiff_t(j) * ldc, ldc);
    });
    count(2 * work);
}

// Lower triangle of C (n x n) = alpha A A^T + beta C, A n x k.
void multiplySymmetric(int n, int k, double alpha, const double* a, int lda, double beta, double* c,
                       int ldc) {
    double work = double(n) * n * k / 2;
    if (!watch || work < worthSharing) {
        if (!stopped())
            cblas_dsyrk(CblasColMajor, CblasLower, CblasNoTrans, n, k, alpha, a, lda, beta, c, ldc);
        count(2 * work);
        return;
    }
    auto pieces = tiles(n, n, true);
    std::stop_token stop = watch->token();
    parallelFor(pieces.size(), [&](std::size_t p) {
        if (stop.stop_requested()) return;
        auto [i, j, rows, columns] = pieces[p];
        double* at = c + i + std::ptrdiff_t(j) * ldc;
        if (i == j)
            cblas_dsyrk(CblasColMajor, CblasLower, CblasNoTrans, rows, k, alpha, a + i, lda, beta, at, ldc);
        else
            cblas_dgemm(CblasColMajor, CblasNoTrans, CblasTrans, rows, columns, k, alpha, a + i, lda, a + j,
                        lda, beta, at, ldc);
    });
    count(2 * work);
}

// B (m x n) = B L^-T, L lower n x n: rows of B are independent.
void solveFromRight(int m, int n, const double* l, int ldl, double* b, int ldb) {
    double work = double(m) * n * n / 2;
    auto rows = [&](int i, int count) {
        cblas_dtrsm(CblasColMajor, CblasRight, CblasLower, CblasTrans, CblasNonUnit, count, n, 1.0, l, ldl,
                    b + i, ldb);
    };
    if (!watch || work < worthSharing) {
        if (!stopped()) rows(0, m);
    } else {
        int side = std::clamp((m + 3) / 4, 32, tile);
        std::stop_token stop = watch->token();
        parallelFor(std::size_t((m + side - 1) / side), [&](std::size_t p) {
            if (!stop.stop_requested()) rows(int(p) * side, std::min(side, m - int(p) * side));
        });
    }
    count(2 * work);
}

// OpenBLAS's own factorisation of a dense block: the next in line behind the standard name taken over below.
using DensePotrf = void (*)(const char*, const int*, double*, const int*, int*);
DensePotrf openBlasPotrf() {
    static auto real = reinterpret_cast<DensePotrf>(dlsym(RTLD_NEXT, "dpotrf_"));
    return real;
}

// Lower Cholesky factor in place, by halves down to blocks that one thread does quickly; 0, or the column
// (from 1) whose pivot is not positive, or 1 when stopped.
int factorBlock(int n, double* a, int lda) {
    if (stopped()) return 1;
    if (!watch || n <= 192) {
        int info = 0;
        openBlasPotrf()("L", &n, a, &lda, &info);
        count(double(n) * n * n / 3);
        return info;
    }
    int half = (n / 2 + 31) / 32 * 32;
    if (int bad = factorBlock(half, a, lda)) return bad;
    double* below = a + half;
    double* corner = a + half + std::ptrdiff_t(half) * lda;
    solveFromRight(n - half, half, a, lda, below, lda);
    multiplySymmetric(n - half, half, -1, below, lda, 1, corner, lda);
    int bad = factorBlock(n - half, corner, lda);
    return bad ? half + bad : 0;
}

}  // namespace talvik::fem

// The standard names, as CHOLMOD calls them: it uses exactly these forms, and others go straight on.
extern "C" {
void dgemm_(const char* transa, const char* transb, const int* m, const int* n, const int* k,
            const double* alpha, const double* a, const int* lda, const double* b, const int* ldb,
            const double* beta, double* c, const int* ldc) {
    auto form = [](const char* t) { return *t == 'N' || *t == 'n' ? CblasNoTrans : CblasTrans; };
    talvik::fem::multiply(form(transa), form(transb), *m, *n, *k, *alpha, a, *lda, b, *ldb, *beta, c, *ldc);
}
void dsyrk_(const char* uplo, const char* trans, const int* n, const int* k, const double* alpha,
            const double* a, const int* lda, const double* beta, double* c, const int* ldc) {
    bool lower = *uplo == 'L' || *uplo == 'l', plain = *trans == 'N' || *trans == 'n';
    if (lower && plain)
        talvik::fem::multiplySymmetric(*n, *k, *alpha, a, *lda, *beta, c, *ldc);
    else
        cblas_dsyrk(CblasColMajor, lower ? CblasLower : CblasUpper, plain ? CblasNoTrans : CblasTrans, *n, *k,
                    *alpha, a, *lda, *beta, c, *ldc);
}
void dtrsm_(const char* side, const char* uplo, const char* trans, const char* diag, const int* m,
            const int* n, const double* alpha, const double* a, const int* lda, double* b, const int* ldb) {
    bool right = *side == 'R' || *side == 'r', lower = *uplo == 'L' || *uplo == 'l';
    bool plain = *trans == 'N' || *trans == 'n', unit = *diag == 'U' || *diag == 'u';
    if (right && lower && !plain && !unit && *alpha == 1)
        talvik::fem::solveFromRight(*m, *n, a, *lda, b, *ldb);
    else if (!talvik::fem::stopped())
        cblas_dtrsm(CblasColMajor, right ? CblasRight : CblasLeft, lower ? CblasLower : CblasUpper,
                    plain ? CblasNoTrans : CblasTrans, unit ? CblasUnit : CblasNonUnit, *m, *n, *alpha, a,
                    *lda, b, *ldb);
}
void dpotrf_(const char* uplo, const int* n, double* a, const int* lda, int* info) {
    if (*uplo == 'L' || *uplo == 'l')
        *info = talvik::fem::factorBlock(*n, a, *lda);
    else
        talvik::fem::openBlasPotrf()(uplo, n, a, lda, info);
}
}
