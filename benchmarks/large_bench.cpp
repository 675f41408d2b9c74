// Work that must not grow faster than its input. Goals: `analyse` of a floor on 300 / 1,000 columns 3 / 12 s;
// `design` of 200 slabs 8 s, their PDF report 20 s, 300 MB and 40 MB of file; import of 20,000 columns from
// DXF 3 s. As processes, with the memory of each.
#include <benchmark/benchmark.h>
#include <fmt/format.h>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

#include <filesystem>
#include <fstream>

#include "formats/project_file.h"
#include "model/edits.h"

using namespace talvik;
namespace fs = std::filesystem;

namespace {

fs::path scratch() {
    const auto dir = fs::temp_directory_path() / ("talvik-large-" + std::to_string(::getpid()));
    fs::create_directories(dir);
    return dir;
}
// Runs talvik; its largest memory in MB, negative where it failed.
double run(const std::string& arguments, bool overIsFine = true) {
    const pid_t child = ::fork();
    if (child == 0) {
        const std::string command = "exec '" TALVIK_BINARY "' " + arguments + " > /dev/null 2> /dev/null";
        ::execl("/bin/bash", "bash", "-c", command.c_str(), nullptr);
        ::_exit(127);
    }
    int status = 0;
    rusage used{};
    ::wait4(child, &status, 0, &used);
    const int code = WIFEXITED(status) ? WEXITSTATUS(status) : 127;
    return code == 0 || (overIsFine && code == 1) ? double(used.ru_maxrss) / 1024 : -1;
}
void timed(benchmark::State& state, const std::string& arguments) {
    double most = 0;
    for (auto _ : state) {
        const double memory = run(arguments);
        if (memory < 0) state.SkipWithError("it failed");
        most = std::max(most, memory);
    }
    state.counters["MB"] = most;
}

std::string grid(int nx, int ny) {
    auto p = model::emptyProject();
    model::Floor f;
    f.id = "f1", f.name = "Grid";
    const double l = 6000, x = (nx - 1) * l + 300, y = (ny - 1) * l + 300;
    f.slabs.push_back({"d1", "", {{-300, -300}, {x, -300}, {x, y}, {-300, y}}, 220});
    for (int i = 0; i < nx; ++i)
        for (int k = 0; k < ny; ++k)
            f.columns.push_back({"c" + std::to_string(i * ny + k), "", i * l, k * l});
    f.actions.cases = {{"q1", "Self", model::LoadCase::Nature::SelfWeight, "B"},
                       {"q2", "Imposed", model::LoadCase::Nature::Imposed, "B"}};
    model::FloorLoad load;
    load.id = "l1", load.loadCase = "q2", load.value = 3e-3;
    f.actions.loads.push_back(load);
    p.floors.push_back(std::make_shared<model::Floor>(f));
    p.nextId = 100000;
    const auto path = (scratch() / fmt::format("grid{}.talvik", nx * ny)).string();
    formats::saveProject(path, p);
    return path;
}
std::string slabs(int n) {
    auto p = formats::demoProject();
    const auto first = *p.slabs.front();
    for (int i = 1; i < n; ++i) {
        // Ids of their own: the same with a number before them.
        auto j = first;
        auto own = [&](model::Id& id) { id = id.substr(0, 1) + std::to_string(1000 * i) + id.substr(1); };
        own(j.id), j.name = fmt::format("Slab {}", i), j.thickness += i % 7 * 5;
        for (auto& span : j.spans) own(span.id);
        for (auto& support : j.supports) own(support.id);
        for (auto& finish : j.finishes) own(finish.id);
        j.bars.clear();
        p.slabs.push_back(std::make_shared<model::OneWaySlab>(j));
    }
    p.nextId = 1000000;
    const auto path = (scratch() / "slabs.talvik").string();
    formats::saveProject(path, p);
    return path;
}
std::string drawing(int n) {
    const auto path = (scratch() / fmt::format("columns{}.dxf", n)).string();
    std::ofstream out(path);
    const int side = int(std::ceil(std::sqrt(double(n))));
    auto box = [&](const char* layer, double x0, double y0, double x1, double y1) {
        out << "0\nLWPOLYLINE\n8\n" << layer << "\n90\n4\n70\n1\n";
        const double c[4][2] = {{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}};
        for (const auto& p : c) out << "10\n" << p[0] << "\n20\n" << p[1] << "\n";
    };
    out << "0\nSECTION\n2\nENTITIES\n";
    box("SLAB", -500, -500, side * 6000.0, side * 6000.0);
    // With the slab no more members than a floor may have.
    for (int i = 0; i < std::min(n, 19999); ++i) {
        const double x = i % side * 6000.0, y = i / side * 6000.0;
        box("COLUMN", x - 200, y - 200, x + 200, y + 200);
    }
    out << "0\nENDSEC\n0\nEOF\n";
    std::ofstream(scratch() / "map.json")
        << R"({"talvik_import": 1, "floor": "Large", "make": [{"as": "slab", "layers": ["SLAB"], "set": {"thickness": "250 mm"}},)"
        << R"( {"as": "column", "layers": ["COLUMN"]}]})";
    return path;
}

void AnalyseColumns(benchmark::State& s) {
    const int side = int(s.range(0)) == 300 ? 20 : 40;
    timed(s, "analyse " + grid(side, int(s.range(0)) / side));
    fs::remove_all(scratch());
}
void DesignSlabs(benchmark::State& s) {
    const auto path = slabs(int(s.range(0)));
    timed(s, "design " + path + " -o " + (scratch() / "out.talvik").string());
    fs::remove_all(scratch());
}
void ReportSlabs(benchmark::State& s) {
    const auto path = slabs(int(s.range(0))), out = (scratch() / "report.pdf").string();
    timed(s, "report " + path + " -o " + out);
    if (fs::exists(out)) s.counters["file_MB"] = double(fs::file_size(out)) / 1e6;
    fs::remove_all(scratch());
}
void ImportColumns(benchmark::State& s) {
    const auto path = drawing(int(s.range(0)));
    timed(s, "import " + path + " --map " + (scratch() / "map.json").string() + " -o " +
                 (scratch() / "out.talvik").string());
    fs::remove_all(scratch());
}

BENCHMARK(AnalyseColumns)->Arg(300)->Arg(1000)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(1);
BENCHMARK(DesignSlabs)->Arg(50)->Arg(200)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(1);
BENCHMARK(ReportSlabs)->Arg(50)->Arg(200)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(1);
BENCHMARK(ImportColumns)->Arg(4000)->Arg(20000)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(1);

}  // namespace
