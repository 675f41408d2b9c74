// From an edit to the answer with all checks, of floors: the demo and one of 60 columns; a bar edit alone.
// Goals: 100 ms and 400 ms median, 5 ms. Long-term sag of a design that is there: 300 ms and 2 s. The first
// remedy of the demo, which fails: 1 s; 13 thicknesses of it: 10 s on two cores.
#include <benchmark/benchmark.h>

#include "../tests/support/regular_floor.h"
#include "design/floor_design.h"
#include "design/remedies.h"
#include "design/sweep.h"
#include "formats/project_file.h"

using namespace talvik;

namespace {

model::Project demo() {
    return formats::demoFloorProject();
}
model::Project sixty() {
    return test::regularFloor(10, 6, 6600, 6000);
}

// Each edit as the window answers it: with what is kept from the last one.
void edits(benchmark::State& state, const model::Project& start,
           const std::function<void(model::Floor&, int)>& change) {
    analysis::FloorAnalyser analyser;
    design::FloorDesigner designer;
    auto p = start;
    auto answer = [&] {
        auto in = design::floorInput(p, 0);
        auto a = std::make_shared<const analysis::FloorAnalysis>(
            analyser.analyse(*in.floor, in.path, in.basis, in.combinations));
        return designer.design(in.floor, a, p.basis);
    };
    answer();
    int n = 0;
    for (auto _ : state) {
        auto f = std::make_shared<model::Floor>(*start.floors[0]);
        change(*f, ++n);
        p.floors[0] = f;
        auto d = answer();
        if (!d || d->summary.within == 0) state.SkipWithError("no answer");
        state.counters["checks"] = double(d->summary.within + d->summary.over);
    }
}
void moveColumn(model::Floor& f, int n) {
    f.columns[f.columns.size() / 2].x += 20 * (n % 7 + 1);
}
void moreLoad(model::Floor& f, int n) {
    f.actions.loads[0].value *= 1 + 0.01 * (n % 9 + 1);
}

void DemoColumnMoves(benchmark::State& s) {
    edits(s, demo(), moveColumn);
}
void DemoLoadChanges(benchmark::State& s) {
    edits(s, demo(), moreLoad);
}
void SixtyColumnsColumnMoves(benchmark::State& s) {
    edits(s, sixty(), moveColumn);
}
void SixtyColumnsLoadChanges(benchmark::State& s) {
    edits(s, sixty(), moreLoad);
}

void sags(benchmark::State& state, const model::Project& p) {
    const auto d = design::designFloor(p, 0, {}, false);
    for (auto _ : state) {
        const auto sag = design::floorSag(*d);
        if (!sag || !sag->why.empty()) state.SkipWithError("no sag");
        state.counters["rounds"] = sag ? sag->rounds : 0;
    }
}
void DemoSag(benchmark::State& s) {
    sags(s, demo());
}
void DemoFirstRemedy(benchmark::State& s) {
    const auto p = demo();
    const auto now = design::designNow(p, p.floors[0]->id);
    for (auto _ : s) {
        std::stop_source stop;
        design::remedies(
            p, {p.floors[0]->id}, stop.get_token(), [&](const design::Remedy&) { stop.request_stop(); }, now);
        if (!stop.stop_requested()) s.SkipWithError("no remedy");
    }
}
void DemoSweep(benchmark::State& s) {
    const auto p = demo();
    design::SweepWish wish;
    for (int i = 0; i < 13; ++i) wish.thicknesses.push_back(200 + 10 * i);
    for (auto _ : s)
        if (design::sweep(p, p.floors[0]->id, wish).size() != 13) s.SkipWithError("no answer");
}
void SixtyColumnsSag(benchmark::State& s) {
    sags(s, sixty());
}

// A strip's bars change: the analysis is the one there was.
void barEdits(benchmark::State& state, const model::Project& p) {
    auto in = design::floorInput(p, 0);
    auto a = std::make_shared<const analysis::FloorAnalysis>(
        analysis::FloorAnalyser().analyse(*in.floor, in.path, in.basis, in.combinations));
    design::FloorDesigner designer;
    auto d = designer.design(in.floor, a, p.basis);
    const auto& strip = *d->strips[d->strips.size() / 2];
    const auto run = strip.runs.front();
    int n = 0;
    for (auto _ : state) {
        auto f = std::make_shared<model::Floor>(*in.floor);
        f->strips.bars = {{"b9999", strip.strip->key, run.role, run.from, run.to, run.bar,
                           125.0 + 25 * (++n % 5), run.start, run.end}};
        auto answer = designer.design(f, a, p.basis);
        benchmark::DoNotOptimize(answer);
    }
}
void DemoBarEdit(benchmark::State& s) {
    barEdits(s, demo());
}
void SixtyColumnsBarEdit(benchmark::State& s) {
    barEdits(s, sixty());
}
// What a frame of dragging an edge waits for: strips laid anew. The rest is answered behind.
void SixtyColumnsStripsLaid(benchmark::State& s) {
    auto p = sixty();
    for (auto _ : s) benchmark::DoNotOptimize(strips::layStrips(*p.floors[0]));
}

BENCHMARK(DemoColumnMoves)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(DemoLoadChanges)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(SixtyColumnsColumnMoves)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(SixtyColumnsLoadChanges)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(DemoBarEdit)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(SixtyColumnsBarEdit)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(SixtyColumnsStripsLaid)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(DemoFirstRemedy)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(1);
BENCHMARK(DemoSweep)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(1);
BENCHMARK(DemoSag)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(SixtyColumnsSag)->Unit(benchmark::kMillisecond)->UseRealTime();

}  // namespace
