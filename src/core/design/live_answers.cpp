#include "design/live_answers.h"

namespace talvik::design {

LiveAnswers::LiveAnswers(Publish publish, Progress progress)
    : publish_(std::move(publish)),
      progress_(std::move(progress)),
      thread_([this](std::stop_token end) { work(end); }) {}

LiveAnswers::~LiveAnswers() {
    stop();
    thread_.request_stop();
    wake_.notify_all();
}

void LiveAnswers::want(std::vector<Request> requests) {
    std::lock_guard lock(mutex_);
    stopRun_.request_stop();
    requests_ = std::move(requests);
    wake_.notify_all();
}

bool LiveAnswers::busy() const {
    std::lock_guard lock(mutex_);
    return running_ || !requests_.empty();
}

void LiveAnswers::waitUntilIdle() {
    std::unique_lock lock(mutex_);
    idle_.wait(lock, [&] { return !running_ && requests_.empty(); });
}

void LiveAnswers::work(std::stop_token end) {
    std::unique_lock lock(mutex_);
    while (wake_.wait(lock, end, [&] { return !requests_.empty(); })) {
        Request request = std::move(requests_.front());
        request.known = [this](const model::Id& id) {
            const auto found = answers_.find(id);
            return found == answers_.end() ? nullptr : found->second;
        };
        requests_.erase(requests_.begin());
        running_ = true;
        stopRun_ = {};
        const std::stop_token stop = stopRun_.get_token();
        lock.unlock();
        auto& designer = designers_[request.element];
        if (!designer || !designer->serves(*request.project, request.element))
            designer = makeDesigner(*request.project, request.element);
        if (designer)
            designer->design(
                request, stop,
                [&](double share) {
                    if (progress_ && !stop.stop_requested()) progress_(request.element, share);
                },
                [&](Designer::Answer answer) {
                    answers_[request.element] = answer;
                    if (!stop.stop_requested()) publish_(request, std::move(answer));
                });
        lock.lock();
        running_ = false;
        if (requests_.empty()) idle_.notify_all();
    }
    idle_.notify_all();
}

}  // namespace talvik::design
