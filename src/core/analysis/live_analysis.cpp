#include "analysis/live_analysis.h"

namespace talvik::analysis {

LiveAnalysis::LiveAnalysis(Publish publish, Progress progress)
    : publish_(std::move(publish)),
      progress_(std::move(progress)),
      thread_([this](std::stop_token end) { work(end); }) {}

LiveAnalysis::~LiveAnalysis() {
    stop();
    thread_.request_stop();
    wake_.notify_all();
}

void LiveAnalysis::want(std::vector<Job> jobs) {
    std::lock_guard lock(mutex_);
    stopRun_.request_stop();
    jobs_ = std::move(jobs);
    wake_.notify_all();
}

bool LiveAnalysis::busy() const {
    std::lock_guard lock(mutex_);
    return running_ || !jobs_.empty();
}

void LiveAnalysis::waitUntilIdle() {
    std::unique_lock lock(mutex_);
    idle_.wait(lock, [&] { return !running_ && jobs_.empty(); });
}

void LiveAnalysis::work(std::stop_token end) {
    std::unique_lock lock(mutex_);
    while (wake_.wait(lock, end, [&] { return !jobs_.empty(); })) {
        Job job = std::move(jobs_.front());
        jobs_.erase(jobs_.begin());
        running_ = true;
        stopRun_ = {};
        std::stop_token stop = stopRun_.get_token();
        lock.unlock();
        auto answer = std::make_shared<FloorAnalysis>(analysers_[job.floor->id].analyse(
            *job.floor, job.path, job.basis, job.combinations, stop, [&](double share) {
                if (progress_ && !stop.stop_requested()) progress_(job.floor->id, share);
            }));
        if (!answer->stopped && !stop.stop_requested()) publish_(job.floor->id, std::move(answer));
        lock.lock();
        running_ = false;
        if (jobs_.empty()) idle_.notify_all();
    }
    idle_.notify_all();
}

}  // namespace talvik::analysis
