// What leaves the office: goals are 2 s for the whole issue set of the demo floor once it is designed, 0.5 s
// for the schedule of 20,000 bars, 15 s and bounded memory for a report of 500 pages.
#include <benchmark/benchmark.h>
#include <sys/resource.h>

#include <QGuiApplication>
#include <filesystem>

#include "design/economy.h"
#include "formats/project_file.h"
#include "formats/tables.h"
#include "model/edits.h"
#include "paper/issue_set.h"
#include "report/report.h"

using namespace talvik;

namespace {

void painting() {
    static int count = 1;
    static char name[] = "talvik";
    static char* arguments[] = {name, nullptr};
    qputenv("QT_QPA_PLATFORM", "offscreen");
    static QGuiApplication application(count, arguments);
}
std::string scratch() {
    return (std::filesystem::temp_directory_path() / ("talvik-bench-" + std::to_string(::getpid()))).string();
}

void DemoIssueSet(benchmark::State& state) {
    painting();
    const auto p = formats::demoFloorProject();
    const auto d = design::run(p, {.trace = false});
    for (auto _ : state) {
        const auto set = paper::writeIssueSet(scratch(), p, d, {});
        if (!set.why.empty()) state.SkipWithError(set.why.c_str());
    }
    std::filesystem::remove_all(scratch());
}

// 20,000 bars of 2,000 kinds in 4,000 runs, numbered, put together, cut from stock and written.
void Schedule20000(benchmark::State& state) {
    design::Design d;
    auto element = std::make_shared<design::ElementAnswer>();
    element->name = "Floor";
    auto part = std::make_shared<design::PartAnswer>();
    for (int i = 0; i < 4000; ++i) {
        schedule::Item item;
        item.run = std::to_string(i), item.bar = i % 3 ? "H12" : "H16", item.diameter = i % 3 ? 12 : 16;
        item.shape = "00", item.cutLength = 1000 + 5 * (i % 2000), item.number = 5;
        item.dimensions = {{'A', item.cutLength}}, item.massEach = item.cutLength / 1000 * 0.9;
        part->items.push_back(std::move(item));
    }
    element->parts.push_back(part);
    const auto p = model::newProject();
    for (auto _ : state) {
        auto all = design::joined(p, standards::makeStandard(p.basis.standard, {}), {element});
        benchmark::DoNotOptimize(formats::scheduleCsv(p, all).size());
    }
}

void Report500Pages(benchmark::State& state) {
    painting();
    const auto p = formats::demoProject();
    const auto d = design::run(p);
    const auto one = report::make(p, d, report::Depth::Full);
    report::Document all = one;
    // The gallery's report has 17 pages without its contents.
    for (int k = 1; k < 30; ++k) {
        for (auto b : one.blocks) {
            if (b.kind == report::Block::Kind::Title) continue;
            all.blocks.push_back(std::move(b));
        }
    }
    rusage before{};
    getrusage(RUSAGE_SELF, &before);
    std::string why;
    for (auto _ : state) why = paper::writeReportPdf(scratch() + ".pdf", all);
    if (!why.empty()) state.SkipWithError(why.c_str());
    rusage after{};
    getrusage(RUSAGE_SELF, &after);
    state.counters["more_MB"] = double(after.ru_maxrss - before.ru_maxrss) / 1024;
    state.counters["file_MB"] = double(std::filesystem::file_size(scratch() + ".pdf")) / 1e6;
    std::filesystem::remove(scratch() + ".pdf");
}

void DemoEconomicalBars(benchmark::State& state) {
    const auto p = formats::demoFloorProject();
    design::Economy found;
    for (auto _ : state) found = design::economicalLayout(p, p.floors[0]->id);
    state.counters["tried"] = found.tried;
    state.counters["saved"] = found.before.price - found.after.price;
}

}  // namespace

BENCHMARK(DemoIssueSet)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(3);
BENCHMARK(Schedule20000)->Unit(benchmark::kMillisecond);
BENCHMARK(Report500Pages)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(1);
BENCHMARK(DemoEconomicalBars)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(1);
