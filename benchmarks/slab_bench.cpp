// Speed goals of the one-way slab, each as a counter `of_goal` (at most 1): a full re-check after one edit
// under 5 ms, `talvik check` as a process under 100 ms, window start to first painted plan under 1 s.
#include <benchmark/benchmark.h>

#include <cstdio>
#include <cstdlib>

#include "design/design.h"
#include "formats/project_file.h"
#include "model/edits.h"

using namespace talvik;

// Time per iteration over the goal in seconds.
static void goal(benchmark::State& state, double seconds) {
    state.counters["of_goal"] = benchmark::Counter(
        seconds, benchmark::Counter::kIsIterationInvariantRate | benchmark::Counter::kInvert);
}

static void recheckAfterEdit(benchmark::State& state) {
    model::Project p = formats::demoProject();
    double h = 190;
    for (auto _ : state) {
        h = h == 190 ? 200 : 190;
        model::Project next =
            model::editSlab(p, "s1", [&](model::OneWaySlab& s, model::Project&) { s.thickness = h; });
        benchmark::DoNotOptimize(design::run(next));
    }
    goal(state, 5e-3);
}
BENCHMARK(recheckAfterEdit)->Unit(benchmark::kMillisecond)->Name("recheck_after_edit/demo");

static void recheckFiftySpans(benchmark::State& state) {
    model::Project p =
        model::setSpans(model::newProject(), "s1", std::vector<double>(50, 4500), false, false);
    for (auto _ : state) benchmark::DoNotOptimize(design::run(p));
}
BENCHMARK(recheckFiftySpans)->Unit(benchmark::kMillisecond)->Name("recheck/50_spans");

static void checkProcess(benchmark::State& state) {
    std::string file = "/tmp/talvik-bench.talvik";
    formats::saveProject(file, formats::demoProject());
    std::string command = std::string(TALVIK_BINARY) + " check " + file + " > /dev/null";
    for (auto _ : state)
        if (std::system(command.c_str()) != 0) state.SkipWithError("talvik check failed");
    std::remove(file.c_str());
    goal(state, 0.1);
}
BENCHMARK(checkProcess)->Unit(benchmark::kMillisecond)->Name("process/talvik_check")->UseRealTime();

static void windowToPlan(benchmark::State& state) {
    std::string command =
        std::string("QT_QPA_PLATFORM=offscreen ") + TALVIK_DESKTOP + " --time-to-plan > /dev/null 2>&1";
    for (auto _ : state)
        if (std::system(command.c_str()) != 0) state.SkipWithError("talvik-desktop failed");
    goal(state, 1);
}
BENCHMARK(windowToPlan)
    ->Unit(benchmark::kMillisecond)
    ->Name("process/window_to_first_plan")
    ->UseRealTime()
    ->Iterations(5);

BENCHMARK_MAIN();
