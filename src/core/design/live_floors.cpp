#include "design/live_floors.h"

namespace talvik::design {

LiveFloors::LiveFloors(Publish publish, Progress progress)
    : publish_(std::move(publish)),
      progress_(std::move(progress)),
      thread_([this](std::stop_token end) { work(end); }) {}

LiveFloors::~LiveFloors() {
    stop();
    thread_.request_stop();
    wake_.notify_all();
}

void LiveFloors::want(std::vector<Job> jobs) {
    std::lock_guard lock(mutex_);
    stopRun_.request_stop();
    jobs_ = std::move(jobs);
    wake_.notify_all();
}

bool LiveFloors::busy() const {
    std::lock_guard lock(mutex_);
    return running_ || !jobs_.empty();
}

void LiveFloors::waitUntilIdle() {
    std::unique_lock lock(mutex_);
    idle_.wait(lock, [&] { return !running_ && jobs_.empty(); });
}

void LiveFloors::work(std::stop_token end) {
    std::unique_lock lock(mutex_);
    while (wake_.wait(lock, end, [&] { return !jobs_.empty(); })) {
        Job job = std::move(jobs_.front());
        jobs_.erase(jobs_.begin());
        running_ = true;
        stopRun_ = {};
        std::stop_token stop = stopRun_.get_token();
        lock.unlock();
        const model::Id id = job.input.floor->id;
        Kept& kept = kept_[id];
        // What the analysis is asked has not changed: only strips, bars or names of the design did.
        const bool same = kept.answer && job.basis && kept.job.basis && *job.basis == *kept.job.basis &&
                          model::sameButStrips(*job.input.floor, *kept.job.input.floor);
        auto answer = kept.answer;
        if (!same)
            answer = std::make_shared<const analysis::FloorAnalysis>(
                kept.analyser.analyse(*job.input.floor, job.input.path, job.input.basis,
                                      job.input.combinations, stop, [&](double share) {
                                          if (progress_ && !stop.stop_requested()) progress_(id, share);
                                      }));
        if (!answer->stopped && !stop.stop_requested()) {
            kept.answer = answer;
            kept.job = job;
            std::shared_ptr<const FloorDesign> design;
            if (job.basis) design = kept.designer.design(job.input.floor, answer, *job.basis, stop);
            if (!stop.stop_requested()) publish_(job, answer, design);
            // The proof takes longer than the design: it follows, unless something newer is asked meanwhile.
            if (design && !stop.stop_requested())
                if (auto whole = proved(design, stop); whole && !stop.stop_requested()) publish_(job, answer, whole);
        }
        lock.lock();
        running_ = false;
        if (jobs_.empty()) idle_.notify_all();
    }
    idle_.notify_all();
}

}  // namespace talvik::design
