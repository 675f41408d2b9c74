// Sets of bases: goals are 0.5 ms for one base checked again, 60 ms for 21 bases from nothing, 6 s for 5,000
// solved, typed and scheduled, growing with their number, 33 ms after an edit of one of 5,000.
#include <benchmark/benchmark.h>

#include <cmath>

#include "design/bases.h"
#include "design/design.h"
#include "model/edits.h"

using namespace talvik;

namespace {

model::Project columns(int n) {
    auto p = model::emptyProject();
    auto set = std::make_shared<model::BaseSet>();
    set->id = model::newId(p, 'f'), set->name = "Bases";
    set->cases = {{"q1001", "G", {actions::Nature::Permanent, ""}},
                  {"q1002", "Q", {actions::Nature::Imposed, "B"}},
                  {"q1003", "W", {actions::Nature::Wind, ""}}};
    for (int i = 0; i < n; ++i) {
        const double N = 200e3 + 1.3e3 * ((i * 7919) % 1000);
        model::BaseColumn c{"c" + std::to_string(2000000 + i),
                            "C" + std::to_string(i),
                            6000.0 * (i % 100),
                            7000.0 * (i / 100),
                            400,
                            400,
                            {}};
        c.actions = {{"q1001", N}, {"q1002", 0.5 * N}, {"q1003", -20e3, 10e3, 0, 0, 25e6}};
        set->columns.push_back(c);
        model::Base b;
        b.id = "b" + std::to_string(4000000 + i), b.columns = {c.id};
        set->bases.push_back(b);
    }
    p.bases.push_back(set);
    return p;
}

void BaseCheckedAgain(benchmark::State& state) {
    const auto p = columns(1);
    const auto standard = standards::makeStandard("en1992");
    const bases::Context in(*p.bases[0], p.basis, standard);
    const bases::Pad pad(in, p.bases[0]->bases[0]);
    const auto d = pad.solve();
    for (auto _ : state) benchmark::DoNotOptimize(pad.checks(d, {}, false));
}
BENCHMARK(BaseCheckedAgain)->Unit(benchmark::kMillisecond)->UseRealTime();

void BasesFromNothing(benchmark::State& state) {
    const auto p = columns(int(state.range(0)));
    for (auto _ : state) {
        const auto d = design::run(p, {.trace = false});
        benchmark::DoNotOptimize(d.scheduleOf(*d.elements[0]).mass);
    }
}
BENCHMARK(BasesFromNothing)->Arg(21)->Arg(1000)->Arg(5000)->Unit(benchmark::kMillisecond)->UseRealTime();

void OneOfThousandsEdited(benchmark::State& state) {
    auto p = columns(5000);
    design::BasesDesigner designer;
    double N = 1;
    std::shared_ptr<const design::ElementAnswer> last;
    auto ask = [&] {
        designer.design({std::make_shared<const model::Project>(p), p.bases[0]->id}, {}, {},
                        [&](auto a) { last = std::move(a); });
    };
    ask();
    for (auto _ : state) {
        p = model::editBases(p, p.bases[0]->id, [&](model::BaseSet& s, model::Project&) {
            s.columns[77].actions[0].N = 500e3 + 1e3 * ++N;
        });
        ask();
    }
}
BENCHMARK(OneOfThousandsEdited)->Unit(benchmark::kMillisecond)->UseRealTime();

}  // namespace
