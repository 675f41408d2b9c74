// Sparse Cholesky factorisation by CHOLMOD (SuiteSparse), supernodal, with one factor for all right-hand
// sides. Symmetric positive definite matrices made of 3 x 3 blocks, one per node of a graph.
#pragma once

#include <functional>
#include <memory>
#include <stop_token>
#include <string>
#include <vector>

#include "fem/solver/ordering.h"

namespace talvik::fem {

// Lower triangle by columns, row indices ascending, in the order of elimination.
struct SparseMatrix {
    std::vector<int> start, row;
    std::vector<double> value;
    int size() const { return int(start.size()) - 1; }
};

class Cholesky {
  public:
    Cholesky();
    ~Cholesky();
    Cholesky(Cholesky&&) noexcept;
    Cholesky& operator=(Cholesky&&) noexcept;

    // Symbolic part: kept while the pattern stays. The matrix is in the order of elimination already. Gives a
    // sentence on failure. CHOLMOD cannot be stopped here: a large one is left to end by itself on a thread
    // of its own, on a copy of the pattern, when a stop is asked for.
    std::string analyse(const SparseMatrix& matrix, std::stop_token stop = {});
    // Numeric part. Can be stopped between and inside the dense blocks; `share` is told how much is done.
    enum class Outcome { Done, NotPositive, Stopped, TooLarge };
    Outcome factorise(const SparseMatrix& matrix, std::stop_token stop = {},
                      const std::function<void(double)>& share = {});
    // Column at which the last factorisation met a pivot that was not positive.
    int badColumn() const { return badColumn_; }
    // Solves for `columns` right-hand sides, column by column in b, which becomes the answer. False if
    // stopped.
    bool solve(double* b, int columns, std::stop_token stop = {}) const;
    // Pivots: the squares of the factor's diagonal, in the order of elimination.
    std::vector<double> pivots() const;
    double entries() const;  // in the factor
    double flops() const;    // of the factorisation

  private:
    struct Inner;
    std::shared_ptr<Inner> inner_;
    int badColumn_ = -1;
};

}  // namespace talvik::fem
