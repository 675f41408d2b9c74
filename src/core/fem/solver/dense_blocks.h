// The dense block operations that CHOLMOD calls (BLAS and LAPACK by their standard names) pass through here,
// on their way to OpenBLAS: so a factorisation can be stopped inside, tells its progress, and shares its
// large blocks among the threads of our pool in small pieces, which is never slower on a busy machine.
// OpenBLAS itself stays at one thread.
#pragma once

#include <functional>
#include <stop_token>

namespace talvik::fem {

// While one lives, block operations of this thread are watched. Once a stop is asked for, they return at once
// with useless numbers, and the Cholesky factorisation of a block reports failure so that CHOLMOD ends.
class WatchBlocks {
  public:
    WatchBlocks(std::stop_token stop, std::function<void(double)> flopsDone);
    ~WatchBlocks();
    WatchBlocks(const WatchBlocks&) = delete;
    WatchBlocks& operator=(const WatchBlocks&) = delete;
    bool stopped() const { return stop_.stop_requested(); }
    void count(double flops);
    const std::stop_token& token() const { return stop_; }

  private:
    std::stop_token stop_;
    std::function<void(double)> tell_;
    double done_ = 0, told_ = 0;
};

}  // namespace talvik::fem
