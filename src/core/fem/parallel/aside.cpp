#include "fem/parallel/aside.h"

#include <algorithm>
#include <chrono>
#include <future>
#include <list>
#include <mutex>

namespace talvik::fem {
namespace {

// Futures of std::async wait for their work when they go; those of finished work are cleared away.
class LeftBehind {
  public:
    void add(std::future<void> work) {
        std::lock_guard lock(mutex_);
        list_.remove_if(
            [](auto& f) { return f.wait_for(std::chrono::seconds(0)) == std::future_status::ready; });
        list_.push_back(std::move(work));
    }

  private:
    std::mutex mutex_;
    std::list<std::future<void>> list_;
};

LeftBehind& leftBehind() {
    static LeftBehind one;
    return one;
}

}  // namespace

void letGo(std::shared_ptr<void> what) {
    if (what)
        leftBehind().add(
            std::async(std::launch::async, [owned = std::move(what)]() mutable { owned.reset(); }));
}

bool doAside(std::function<void()> work, std::stop_token stop, const std::function<void()>& meanwhile) {
    auto done = std::async(std::launch::async, [work = std::move(work)]() mutable {
        work();
        work = nullptr;  // what it owned is freed here, not where the future goes
    });
    while (done.wait_for(std::chrono::milliseconds(4)) != std::future_status::ready) {
        if (stop.stop_requested()) {
            leftBehind().add(std::move(done));
            return false;
        }
        if (meanwhile) meanwhile();
    }
    done.get();
    return !stop.stop_requested();
}

}  // namespace talvik::fem
