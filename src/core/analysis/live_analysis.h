// Analyses floors in the background: the latest wish counts, what is no longer wanted is stopped, and an
// answer is published only if nothing newer was asked for meanwhile.
#pragma once

#include <condition_variable>
#include <map>
#include <mutex>
#include <optional>
#include <thread>

#include "analysis/floor_analysis.h"

namespace talvik::analysis {

class LiveAnalysis {
  public:
    struct Job {
        std::shared_ptr<const model::Floor> floor;
        std::string path;
        FloorBasis basis;
        std::vector<FloorCombination> combinations;
    };
    using Publish = std::function<void(const model::Id& floor, std::shared_ptr<const FloorAnalysis>)>;
    using Progress = std::function<void(const model::Id& floor, double share)>;
    // Both are called on the background thread.
    explicit LiveAnalysis(Publish publish, Progress progress = {});
    ~LiveAnalysis();
    LiveAnalysis(const LiveAnalysis&) = delete;
    LiveAnalysis& operator=(const LiveAnalysis&) = delete;

    // Jobs in the order wanted; those asked for before and not yet answered are dropped.
    void want(std::vector<Job> jobs);
    void stop() { want({}); }
    bool busy() const;
    void waitUntilIdle();  // for tests and the command line

  private:
    Publish publish_;
    Progress progress_;
    mutable std::mutex mutex_;
    std::condition_variable_any wake_, idle_;
    std::vector<Job> jobs_;
    bool running_ = false;
    std::stop_source stopRun_;
    std::map<model::Id, FloorAnalyser> analysers_;  // background thread only
    std::jthread thread_;

    void work(std::stop_token end);
};

}  // namespace talvik::analysis
