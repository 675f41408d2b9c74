// All connections of a floor of 60 columns: found and checked from nothing; checked with the sites there;
// designed with studs. Goals: 10 ms checked, 60 ms with steel.
#include <benchmark/benchmark.h>

#include "../tests/support/regular_floor.h"
#include "design/floor_design.h"
#include "model/edits.h"

using namespace talvik;

namespace {

std::shared_ptr<const design::FloorDesign> sixty(bool steel) {
    auto p = test::regularFloor(10, 6, 6600, 6000, 230);
    if (steel) {
        std::vector<std::string> keys;
        for (const auto& c : p.floors[0]->columns) keys.push_back(c.id);
        p = model::setShearSteel(p, "f1", keys, model::ConnectionChoice::Steel::Studs, 0);
    }
    return design::designFloor(p, 0, {}, false);
}

void connections(benchmark::State& state, bool steel) {
    const auto d = sixty(steel);
    std::size_t reinforced = 0;
    for (auto _ : state) {
        design::ConnectionDesigner designer;
        const auto all = designer.design(*d, {});
        if (all.size() != 60) state.SkipWithError("not all are there");
        reinforced = 0;
        for (const auto& c : all) reinforced += c->steel.has_value();
    }
    state.counters["reinforced"] = double(reinforced);
}

void SixtyConnectionsChecked(benchmark::State& s) {
    connections(s, false);
}
void SixtyConnectionsWithSteel(benchmark::State& s) {
    connections(s, true);
}

BENCHMARK(SixtyConnectionsChecked)->Unit(benchmark::kMillisecond);
BENCHMARK(SixtyConnectionsWithSteel)->Unit(benchmark::kMillisecond);

}  // namespace
