#include "fem/parallel/pool.h"

#include <algorithm>
#include <atomic>
#include <condition_variable>
#include <exception>
#include <mutex>
#include <thread>
#include <vector>

namespace talvik::fem {
namespace {

class Pool {
  public:
    Pool() : limit_(std::max(1u, std::min(8u, std::thread::hardware_concurrency()))) {
        for (unsigned i = 1; i < limit_; ++i)
            workers_.emplace_back([this](std::stop_token stop) { work(stop); });
    }
    ~Pool() {
        for (auto& w : workers_) w.request_stop();
        wake_.notify_all();
    }
    std::atomic<unsigned> allowed{8};
    unsigned limit() const { return limit_; }

    void run(std::size_t count, const std::function<void(std::size_t)>& piece) {
        std::unique_lock busy(oneCaller_, std::try_to_lock);
        if (!busy || count < 2 || std::min(allowed.load(), limit_) < 2) {
            for (std::size_t i = 0; i < count; ++i) piece(i);
            return;
        }
        {
            std::lock_guard lock(mutex_);
            piece_ = &piece;
            count_ = count;
            next_ = 0;
            failure_ = nullptr;
            seats_ = std::min(allowed.load(), limit_) - 1;
            ++round_;
        }
        wake_.notify_all();
        take(piece, count);
        std::unique_lock lock(mutex_);
        seats_ = 0;  // who has not come yet need not
        done_.wait(lock, [&] { return inside_ == 0; });
        piece_ = nullptr;
        if (failure_) std::rethrow_exception(failure_);
    }

  private:
    void take(const std::function<void(std::size_t)>& piece, std::size_t count) {
        for (std::size_t i; (i = next_.fetch_add(1)) < count;) {
            try {
                piece(i);
            } catch (...) {
                std::lock_guard lock(mutex_);
                if (!failure_) failure_ = std::current_exception();
            }
        }
    }
    void work(std::stop_token stop) {
        std::size_t seen = 0;
        std::unique_lock lock(mutex_);
        while (!stop.stop_requested()) {
            if (!wake_.wait(lock, stop, [&] { return round_ != seen; })) return;
            seen = round_;
            if (seats_ == 0 || !piece_) continue;
            --seats_;
            ++inside_;
            auto* piece = piece_;
            std::size_t count = count_;
            lock.unlock();
            take(*piece, count);
            lock.lock();
            if (--inside_ == 0) done_.notify_one();
        }
    }

    unsigned limit_;
    std::mutex oneCaller_, mutex_;
    std::condition_variable_any wake_;
    std::condition_variable done_;
    const std::function<void(std::size_t)>* piece_ = nullptr;
    std::size_t count_ = 0, round_ = 0;
    std::atomic<std::size_t> next_{0};
    unsigned seats_ = 0, inside_ = 0;
    std::exception_ptr failure_;
    std::vector<std::jthread> workers_;  // last: they end before what they use
};

Pool& pool() {
    static Pool one;
    return one;
}

}  // namespace

void setThreads(unsigned count) {
    pool().allowed = std::max(1u, count);
}
unsigned threads() {
    return std::min(pool().allowed.load(), pool().limit());
}
void parallelFor(std::size_t count, const std::function<void(std::size_t)>& piece) {
    pool().run(count, piece);
}

}  // namespace talvik::fem
