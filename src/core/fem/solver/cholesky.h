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

// Large systems are worked on aside, so that a stop is answered at once although CHOLMOD takes its time to
// end: hence the shared ownership of matrix and right-hand sides.
class Cholesky {
  public:
    Cholesky();

    // Symbolic part: kept while the pattern stays. The matrix is in the order of elimination already. Gives a
    // sentence on failure.
    std::string analyse(const std::shared_ptr<const SparseMatrix>& matrix, std::stop_token stop = {});
    // Numeric part. Stops between and inside the dense blocks; `share` is told how much is done.
    enum class Outcome { Done, NotPositive, Stopped, TooLarge };
    Outcome factorise(const std::shared_ptr<const SparseMatrix>& matrix, std::stop_token stop = {},
                      const std::function<void(double)>& share = {});
    // Column at which the last factorisation met a pivot that was not positive.
    int badColumn() const { return badColumn_; }
    // Solves for `columns` right-hand sides, column by column in b, which becomes the answer. False if
    // stopped; b is then of no use.
    bool solve(const std::shared_ptr<std::vector<double>>& b, int columns, std::stop_token stop = {}) const;
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
