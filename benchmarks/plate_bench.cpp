// Speed of the plate analysis against the reference R: bare CHOLMOD with METIS ordering of the node graph and
// one BLAS thread on the same matrix in the same process (order, analyse, factor, ten right-hand sides).
// Analysis and R are timed in turn; the ratios are those of the medians.
#include <benchmark/benchmark.h>
#include <cblas.h>
#include <metis.h>
#include <suitesparse/cholmod.h>
#include <sys/resource.h>

#include <algorithm>
#include <atomic>
#include <chrono>
#include <thread>

#include "analysis/floor_analysis.h"
#include "fem/parallel/pool.h"
#include "fem/plate/loads.h"
#include "fem/plate/recovery.h"

using namespace talvik;
using fem::Point;

namespace {

double now() {
    return std::chrono::duration<double>(std::chrono::steady_clock::now().time_since_epoch()).count();
}
double median(std::vector<double> v) {
    std::sort(v.begin(), v.end());
    return v[v.size() / 2];
}
double peakMegabytes() {
    rusage use{};
    getrusage(RUSAGE_SELF, &use);
    return double(use.ru_maxrss) / 1024;
}

// A flat slab on columns 8 m apart with an opening and a wall, meshed to about the unknowns wanted. N, mm.
struct Floor {
    fem::MeshTask mesh;
    std::vector<Point> columns;
    Floor(double side, double size) {
        mesh.slabs = {{{0, 0}, {side * 1.5, 0}, {side * 1.5, side * 0.8}, {side * 1.4, side}, {0, side}}};
        mesh.openings = {{{9000, 9000}, {12000, 9000}, {12000, 11500}, {9000, 11500}}};
        mesh.lines = {{{side - 7000, 2000}, {side - 7000, 6500}, 0}};
        mesh.size = size;
        for (double x = 4000; x < side * 1.4; x += 8000)
            for (double y = 4000; y < side; y += 8000) {
                columns.push_back({x, y});
                mesh.points.push_back({x, y});
                mesh.fine.push_back({{x, y}, 250, 250});
                for (int k = 0; k < 4; ++k) {
                    double c[5][2] = {{-200, -200}, {200, -200}, {200, 200}, {-200, 200}, {-200, -200}};
                    mesh.lines.push_back(
                        {{x + c[k][0], y + c[k][1]}, {x + c[k + 1][0], y + c[k + 1][1]}, -1});
                }
            }
    }
};

struct Run {
    fem::Stages stages;
    double total = 0;
    fem::Mesh mesh;
    fem::PlateModel model;
    fem::FieldPoints points;
    fem::PlateSystem system;
    std::vector<fem::NodeVector> loads, u;
    std::vector<fem::MomentField> moments;

    void geometry(const Floor& floor) {
        double t = now();
        mesh = fem::makeMesh(floor.mesh);
        stages.mesh = now() - t;
        t = now();
        model.nodes = mesh.nodes;
        model.triangles = mesh.triangles;
        double E = 33000, h = 250, nu = 0.2;
        model.materials = {{E * h * h * h / 12 / (1 - nu * nu), nu, 1 / (5.0 / 6 * E / 2 / (1 + nu) * h)}};
        model.material.assign(mesh.triangles.size(), 0);
        for (std::size_t k = 0; k < floor.columns.size(); ++k)
            model.springs.push_back({mesh.pointNode[k], 2e6, 5e10, 0, 5e10});
        for (const auto& e : mesh.edges)
            for (int n : {e.a, e.b}) model.restraints.push_back({n, true});
        points = fem::fieldPoints(model, {});
        stages.model = now() - t;
    }
    void load() {
        fem::TriangleFinder finder(model.nodes, model.triangles);
        loads.assign(10, fem::NodeVector(3 * model.nodes.size(), 0));
        for (int c = 0; c < 10; ++c) {
            fem::addPressure(
                finder, 1e-3 * (1 + c), [&](int t) { return (t >> 4) % 10 != c; }, loads[c]);
            fem::addPoint(finder, 1e4, 0, 0, model.nodes[model.nodes.size() / 20 * (c + 1)], loads[c]);
        }
    }
    void answer() {
        u = system.solve(loads, stages);
        moments = fem::recoverMoments(model, points, u, stages);
    }
    void whole(const Floor& floor) {
        *this = Run();
        double t = now();
        geometry(floor);
        double l = now();
        load();
        stages.model += now() - l;
        if (!system.build(model, stages).empty() ||
            system.factorise(model, stages) != fem::Cholesky::Outcome::Done)
            std::abort();
        answer();
        total = now() - t;
    }
    void loadOnly() {
        double t = now();
        load();
        answer();
        total = now() - t;
    }
};

double reference(const fem::PlateSystem& system) {
    openblas_set_num_threads(1);
    double t = now();
    const fem::Graph& g = system.graph();
    idx_t n = g.size();
    std::vector<idx_t> start(g.start.begin(), g.start.end()), to(g.to.begin(), g.to.end()), perm(n),
        inverse(n);
    METIS_NodeND(&n, start.data(), to.data(), nullptr, nullptr, perm.data(), inverse.data());
    std::vector<int> order(3 * std::size_t(n));
    for (idx_t i = 0; i < n; ++i)
        for (int d = 0; d < 3; ++d) order[3 * std::size_t(i) + d] = 3 * system.position()[perm[i]] + d;
    cholmod_common c;
    cholmod_start(&c);
    c.supernodal = CHOLMOD_SUPERNODAL;
    c.nmethods = 1;
    c.method[0].ordering = CHOLMOD_GIVEN;
    const fem::SparseMatrix& m = system.matrix();
    cholmod_sparse a{};
    a.nrow = a.ncol = std::size_t(m.size());
    a.nzmax = m.row.size();
    a.p = const_cast<int*>(m.start.data());
    a.i = const_cast<int*>(m.row.data());
    a.x = const_cast<double*>(m.value.data());
    a.stype = -1;
    a.itype = CHOLMOD_INT;
    a.xtype = CHOLMOD_REAL;
    a.dtype = CHOLMOD_DOUBLE;
    a.sorted = a.packed = 1;
    cholmod_factor* factor = cholmod_analyze_p(&a, order.data(), nullptr, 0, &c);
    cholmod_factorize(&a, factor, &c);
    cholmod_dense* b = cholmod_ones(a.nrow, 10, CHOLMOD_REAL, &c);
    cholmod_dense* x = cholmod_solve(CHOLMOD_A, factor, b, &c);
    double spent = now() - t;
    cholmod_free_dense(&x, &c);
    cholmod_free_dense(&b, &c);
    cholmod_free_factor(&factor, &c);
    cholmod_finish(&c);
    return spent;
}

void report(benchmark::State& state, const std::vector<Run>& runs) {
    auto stage = [&](const char* name, double fem::Stages::*member) {
        std::vector<double> v;
        for (const auto& r : runs) v.push_back(r.stages.*member);
        state.counters[name] = 1e3 * median(v);
    };
    stage("ms_mesh", &fem::Stages::mesh);
    stage("ms_model", &fem::Stages::model);
    stage("ms_order", &fem::Stages::order);
    stage("ms_symbolic", &fem::Stages::symbolic);
    stage("ms_assembly", &fem::Stages::assembly);
    stage("ms_factor", &fem::Stages::factor);
    stage("ms_solve", &fem::Stages::solve);
    stage("ms_recover", &fem::Stages::recover);
}

void wholeAnalysis(benchmark::State& state, double side, double size, int rounds) {
    Floor floor(side, size);
    std::vector<double> ours, theirs, loadOnly;
    std::vector<Run> stagesOnly;
    for (auto _ : state) {
        for (int i = -1; i < rounds; ++i) {  // the first round warms up
            Run run;
            run.whole(floor);
            double whole = run.total;
            fem::Stages stages = run.stages;
            if (i < 0) {
                state.counters["unknowns"] = run.system.unknowns();
                state.counters["triangles"] = double(run.model.triangles.size());
                state.counters["smallest_angle"] = run.mesh.smallestAngle;
                state.counters["peak_MB"] = peakMegabytes();
                state.counters["memory_to_L"] =
                    peakMegabytes() * 1048576 / (8 * run.system.cholesky().entries());
            }
            run.loadOnly();
            if (rounds > 1 && i < 0) continue;
            loadOnly.push_back(run.total);
            ours.push_back(whole);
            fem::PlateSystem system = std::move(run.system);
            run = Run();
            run.stages = stages;
            stagesOnly.push_back(std::move(run));
            theirs.push_back(reference(system));
            if (rounds == 1) break;
        }
    }
    report(state, stagesOnly);
    state.counters["ms_whole"] = 1e3 * median(ours);
    state.counters["ms_R"] = 1e3 * median(theirs);
    state.counters["ratio_to_R"] = median(ours) / median(theirs);
    state.counters["load_only_to_whole"] = median(loadOnly) / median(ours);
    state.counters["us_per_unknown"] = 1e6 * median(ours) / state.counters["unknowns"];
}

// With one core busy elsewhere: two threads over one.
void busyCore(benchmark::State& state, double side, double size, int rounds) {
    Floor floor(side, size);
    std::atomic<bool> over{false};
    std::thread busy([&] {
        volatile double x = 1;
        while (!over) x = x * 1.0000001;
    });
    std::vector<double> one, two;
    for (auto _ : state)
        for (int i = 0; i < rounds; ++i) {
            Run run;
            fem::setThreads(2);
            run.whole(floor);
            two.push_back(run.total);
            fem::setThreads(1);
            run.whole(floor);
            one.push_back(run.total);
            fem::setThreads(8);
        }
    over = true;
    busy.join();
    state.counters["two_to_one_thread"] = median(two) / median(one);
}

// A typical floor as drawn: ten cases, fourteen combinations; one column is moved and all is answered anew,
// envelopes of the moments included. Goal: 80 ms.
model::Floor typicalFloor(double meshSize) {
    model::Floor f;
    f.id = "f", f.name = "Typical";
    f.slabs = {{"d1", "S1", {{0, 0}, {40000, 0}, {40000, 16000}, {36000, 20000}, {0, 20000}}, 250}};
    f.openings = {{"o1", "", {{9000, 9000}, {12000, 9000}, {12000, 12000}, {9000, 12000}}}};
    f.choices.meshSize = meshSize;
    int n = 0;
    for (double x = 2000; x < 40000; x += 8700)
        for (double y = 2000; y < 20000; y += 5300)
            if (x + y < 54000) f.columns.push_back({"c" + std::to_string(++n), "", x, y});
    f.beams = {{"b1", "", {2000, 2000}, {38000, 2000}, 300, 600}};
    for (int c = 0; c < 10; ++c) {
        f.actions.cases.push_back({"q" + std::to_string(c), "", model::LoadCase::Nature::Imposed, "B"});
        model::FloorLoad l;
        l.id = "l" + std::to_string(c), l.loadCase = f.actions.cases.back().id, l.value = 1e-3 * (c + 1);
        if (c % 2)
            l.outline = {
                {2000. * c, 500}, {2000. * c + 15000, 500}, {2000. * c + 15000, 15000}, {2000. * c, 15000}};
        f.actions.loads.push_back(l);
    }
    return f;
}
std::vector<analysis::FloorCombination> fourteen() {
    std::vector<analysis::FloorCombination> all;
    for (int k = 0; k < 14; ++k) {
        analysis::FloorCombination c{"", "", actions::LimitState::Ultimate, std::vector<double>(10, 1)};
        c.factors[std::size_t(k % 10)] = 1.5, c.factors[std::size_t((k + 3) % 10)] = 0;
        all.push_back(c);
    }
    return all;
}
const analysis::FloorBasis concrete{33000, 0.2, 25e-6,
                                    [](const analysis::FloorBasis::Flange&) { return 700.0; }};

void floorEdit(benchmark::State& state, bool geometry) {
    model::Floor f = typicalFloor(800);
    auto combinations = fourteen();
    analysis::FloorAnalyser analyser;
    analysis::FloorAnalysis a;
    std::vector<double> times;
    for (auto _ : state)
        for (int i = 0; i < 30; ++i) {
            if (geometry)
                f.columns[5].x += i % 2 ? 150 : -150;
            else
                f.actions.loads[0].value += 1e-4;
            double t = now();
            a = analyser.analyse(f, "f", concrete, combinations);
            for (auto field : {analysis::Field::Mx, analysis::Field::My, analysis::Field::Mxy,
                               analysis::Field::Deflection})
                benchmark::DoNotOptimize(a.envelope(field, actions::LimitState::Ultimate));
            times.push_back(now() - t);
        }
    state.counters["unknowns"] = a.unknowns;
    state.counters["ms_median"] = 1e3 * median(times);
    if (geometry) state.counters["of_goal"] = median(times) / 0.08;
}

// From the wish to stop until the analysis has come back, at moments spread over a run. Goal: 50 ms.
void stopping(benchmark::State& state, double meshSize, int tries) {
    model::Floor f = typicalFloor(meshSize);
    auto combinations = fourteen();
    double longest = 0;
    for (auto _ : state) {
        double whole = now();
        {
            auto a = analysis::FloorAnalyser().analyse(f, "f", concrete, combinations);
            state.counters["unknowns"] = a.unknowns;
        }
        whole = now() - whole;
        for (int i = 0; i < tries; ++i) {
            std::stop_source stop;
            double asked = 0, back = 0;
            std::thread run([&] {
                benchmark::DoNotOptimize(analysis::FloorAnalyser()
                                             .analyse(f, "f", concrete, combinations, stop.get_token())
                                             .stopped);
                back = now();
            });
            std::this_thread::sleep_for(std::chrono::duration<double>(whole * (i + 0.5) / tries));
            asked = now();
            stop.request_stop();
            run.join();
            if (back > asked) longest = std::max(longest, back - asked);
        }
    }
    state.counters["ms_longest"] = 1e3 * longest;
    state.counters["of_goal"] = longest / 0.05;
}

void registerAll() {
    auto once = [](const char* name, auto f) {
        benchmark::RegisterBenchmark(name, f)->Iterations(1)->Unit(benchmark::kMillisecond)->UseRealTime();
    };
    // Without a count of iterations the names stay as they are; one iteration is long enough to end with.
    auto plain = [](const char* name, auto f) {
        benchmark::RegisterBenchmark(name, f)->Unit(benchmark::kMillisecond);
    };
    plain("whole_analysis/8k", [](benchmark::State& s) { wholeAnalysis(s, 24000, 670, 25); });
    plain("whole_analysis/100k", [](benchmark::State& s) { wholeAnalysis(s, 48000, 350, 11); });
    plain("whole_analysis/1M", [](benchmark::State& s) { wholeAnalysis(s, 96000, 222, 1); });
    once("geometry_edit/typical_floor", [](benchmark::State& s) { floorEdit(s, true); });
    once("load_edit/typical_floor", [](benchmark::State& s) { floorEdit(s, false); });
    once("stop/100k", [](benchmark::State& s) { stopping(s, 150, 24); });
    once("stop/1M", [](benchmark::State& s) { stopping(s, 46, 24); });
    once("busy_core/8k", [](benchmark::State& s) { busyCore(s, 24000, 670, 25); });
    once("busy_core/100k", [](benchmark::State& s) { busyCore(s, 48000, 350, 7); });
}
const bool registered = (registerAll(), true);

}  // namespace
