// Answers for elements in the background: the latest wish counts, what is no longer wanted is stopped, and
// an answer is published only if nothing newer was asked for meanwhile.
#pragma once

#include <condition_variable>
#include <map>
#include <mutex>
#include <thread>

#include "design/designer.h"

namespace talvik::design {

class LiveAnswers {
  public:
    using Publish = std::function<void(const Request&, Designer::Answer)>;
    using Progress = std::function<void(const model::Id& element, double share)>;
    // Both are called on the background thread.
    explicit LiveAnswers(Publish publish, Progress progress = {});
    ~LiveAnswers();
    LiveAnswers(const LiveAnswers&) = delete;
    LiveAnswers& operator=(const LiveAnswers&) = delete;

    // In the order wanted; those asked for before and not yet answered are dropped.
    void want(std::vector<Request> requests);
    void stop() { want({}); }
    bool busy() const;
    void waitUntilIdle();  // for tests and the command line

  private:
    Publish publish_;
    Progress progress_;
    mutable std::mutex mutex_;
    std::condition_variable_any wake_, idle_;
    std::vector<Request> requests_;
    bool running_ = false;
    std::stop_source stopRun_;
    std::map<model::Id, std::unique_ptr<Designer>> designers_;  // on the background thread only
    std::map<model::Id, Designer::Answer> answers_;             // likewise: the last of each
    std::jthread thread_;

    void work(std::stop_token end);
};

}  // namespace talvik::design
