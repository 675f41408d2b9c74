// Analyses and designs floors in the background: the latest wish counts, what is no longer wanted is stopped,
// and an answer is published only if nothing newer was asked for meanwhile.
#pragma once

#include <condition_variable>
#include <map>
#include <mutex>
#include <optional>
#include <thread>

#include "design/floor_design.h"

namespace talvik::design {

class LiveFloors {
  public:
    struct Job {
        FloorInput input;
        std::shared_ptr<const model::Basis> basis;  // null: analysed only
        int asked = 0;  // the asker's own number, given back: an answer handed on late may be old by then
    };
    // The design is null where there is none: trouble in the analysis, or no basis.
    using Publish = std::function<void(const Job&, std::shared_ptr<const analysis::FloorAnalysis>,
                                       std::shared_ptr<const FloorDesign>)>;
    using Progress = std::function<void(const model::Id& floor, double share)>;
    // Both are called on the background thread.
    explicit LiveFloors(Publish publish, Progress progress = {});
    ~LiveFloors();
    LiveFloors(const LiveFloors&) = delete;
    LiveFloors& operator=(const LiveFloors&) = delete;

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
    // Of a floor, on the background thread only: what can be kept from the last answer.
    struct Kept {
        analysis::FloorAnalyser analyser;
        FloorDesigner designer;
        Job job;
        std::shared_ptr<const analysis::FloorAnalysis> answer;
    };
    std::map<model::Id, Kept> kept_;
    std::jthread thread_;

    void work(std::stop_token end);
};

}  // namespace talvik::design
