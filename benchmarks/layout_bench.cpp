// Drawing stays fluid: frames of a plan of 2,000 members over 10,000 lines, finding what lies under the
// pointer, and reading a DXF drawing of 50 MB. Goals: 16 ms a frame, 1 ms, 5 s.
#include <benchmark/benchmark.h>

#include <QApplication>
#include <QImage>
#include <QWheelEvent>
#include <algorithm>
#include <chrono>
#include <cstdio>
#include <random>

#include "../tests/support/regular_floor.h"
#include "board/floor_canvas.h"
#include "formats/dxf_reading.h"
#include "layout/placing.h"
#include "model/edits.h"
#include "section/line_section.h"
#include "strips/strip_desk.h"
#include "window/main_window.h"

using namespace talvik;
using namespace talvik::app;

namespace {

// 1,000 columns, 950 beams and 50 openings on a slab.
model::Project large() {
    model::Project p = model::emptyProject();
    model::Id id = layout::addFloor(p, "Large");
    return model::editFloor(p, id, [](model::Floor& f, model::Project& project) {
        model::Grid g;
        g.along.assign(39, 6000), g.across.assign(24, 6000);
        layout::add(project, f, g);
        layout::add(project, f, model::SlabArea{"", "", layout::rectangle({-500, -500}, {234500, 144500})});
        layout::placeColumns(project, f, {{-1, -1}, {1e6, 1e6}}, {});
        for (std::size_t j = 0; j < 25; ++j)
            for (std::size_t i = 0; i < 38; ++i)
                layout::add(
                    project, f,
                    model::FloorBeam{"", "B", layout::crossing(g, i, j), layout::crossing(g, i + 1, j)});
        for (int k = 0; k < 50; ++k)
            layout::add(
                project, f,
                model::Opening{"", "O",
                               layout::rectangle({2000.0 + 6000 * (k % 39), 2000.0 + 6000 * (k / 39)},
                                                 {4000.0 + 6000 * (k % 39), 4000.0 + 6000 * (k / 39)})});
    });
}
std::string drawing(std::size_t lines) {
    std::mt19937 random(3);
    std::uniform_real_distribution<double> x(0, 234000), y(0, 144000);
    std::string text = "0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n4\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n";
    char buffer[200];
    for (std::size_t i = 0; i < lines; ++i) {
        double a = x(random), b = y(random);
        std::snprintf(
            buffer, sizeof buffer,
            "  0\nLINE\n  8\nWALLS\n 10\n%.4f\n 20\n%.4f\n 30\n0.0\n 11\n%.4f\n 21\n%.4f\n 31\n0.0\n", a, b,
            a + 900, b + 300);
        text += buffer;
    }
    return text + "0\nENDSEC\n0\nEOF\n";
}

struct Desk {
    MainWindow window;
    Session& session = window.session();
    Desk() {
        window.resize(1280, 800);
        session.start(large(), {});
        session.setPlace(Place::Layout);
        QString path = QStringLiteral("/tmp/talvik_layout_bench.dxf");
        if (FILE* f = std::fopen("/tmp/talvik_layout_bench.dxf", "wb")) {
            std::string text = drawing(10000);
            std::fwrite(text.data(), 1, text.size(), f);
            std::fclose(f);
        }
        window.desk().openDrawing(path);
        while (window.desk().below().empty()) QApplication::processEvents();
        session.stopAnswers();
        window.show();
        QApplication::processEvents();
        window.fit();
    }
};
Desk& desk() {
    static Desk* d = new Desk;  // lives as long as the application, which goes first
    return *d;
}

void frame(benchmark::State& state, bool zoom) {
    auto& canvas = desk().window.canvas();
    canvas.fit();
    QImage image(canvas.size(), QImage::Format_ARGB32_Premultiplied);
    int k = 0;
    canvas.render(&image);
    for (auto _ : state) {
        if (zoom) {
            QWheelEvent wheel(QPointF(400, 300), QPointF(400, 300), {}, QPoint(0, k++ % 2 ? -60 : 60), {}, {},
                              Qt::NoScrollPhase, false);
            QApplication::sendEvent(&canvas, &wheel);
        } else {
            canvas.centreOn({117000.0 + 900 * (k % 7), 72000.0 - 700 * (k % 5)});
            ++k;
        }
        canvas.render(&image);
    }
}
void pan(benchmark::State& state) {
    frame(state, false);
}
void zoom(benchmark::State& state) {
    frame(state, true);
}
void hitTest(benchmark::State& state) {
    const auto& f = *desk().session.floor();
    std::mt19937 random(1);
    std::uniform_real_distribution<double> x(0, 234000), y(0, 144000);
    for (auto _ : state) benchmark::DoNotOptimize(layout::hit(f, {x(random), y(random)}, 100));
}
void snap(benchmark::State& state) {
    layout::SnapIndex index(*desk().session.floor(), desk().window.desk().below());
    std::mt19937 random(1);
    std::uniform_real_distribution<double> x(0, 234000), y(0, 144000);
    for (auto _ : state) benchmark::DoNotOptimize(index.snap({x(random), y(random)}, 1500));
}
void looseEnds(benchmark::State& state) {
    for (auto _ : state) benchmark::DoNotOptimize(layout::looseEnds(*desk().session.floor()).size());
}
void panels(benchmark::State& state) {
    for (auto _ : state) benchmark::DoNotOptimize(layout::findPanels(*desk().session.floor()).size());
}
// One step of dragging a member: the edit, what follows from it, the tables, and a frame.
void dragStep(benchmark::State& state) {
    auto& d = desk().window.desk();
    auto& canvas = desk().window.canvas();
    model::Id id = desk().session.floor()->columns[400].id;
    d.select({id});
    QImage image(canvas.size(), QImage::Format_ARGB32_Premultiplied);
    double x = 60000;
    for (auto _ : state) {
        d.drag(id, 0, {x += 7, 61234}, 1, false);
        canvas.render(&image);
    }
    d.endDrag();
    desk().session.stopAnswers();
}
// One step of dragging a strip's edge on a floor of 60 columns while the answers to the last steps are worked
// out behind: the edit, plan and long section. Goal 33 ms.
void stripDragStep(benchmark::State& state) {
    static MainWindow window;
    auto& session = window.session();
    session.start(test::regularFloor(10, 6, 6600, 6000), {});
    session.setPlace(Place::Strips);
    window.resize(1280, 800);
    window.show();
    QApplication::processEvents();
    auto& desk = window.strips();
    desk.select("1/c3/column");
    QApplication::processEvents();
    auto edges = strips::edgesOf(*desk.layout(), *desk.strip());
    if (edges.empty()) return state.SkipWithError("no edge");
    QImage plan(window.canvas().size(), QImage::Format_ARGB32_Premultiplied),
        section(window.section().size(), QImage::Format_ARGB32_Premultiplied);
    double longest = 0;
    int n = 0;
    for (auto _ : state) {
        auto start = std::chrono::steady_clock::now();
        desk.typeOffset(edges.front(), 1200 + 25.0 * (++n % 20));
        QApplication::processEvents();
        window.canvas().render(&plan);
        window.section().render(&section);
        longest = std::max(longest,
                           std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count());
    }
    state.counters["longest_ms"] = longest * 1e3;
    session.stopAnswers();
}
// The demo floor with a strip in hand: the station line moved, in plan and long section; goal 8 ms.
void stationLine(benchmark::State& state) {
    MainWindow window;
    window.resize(1280, 800);
    window.openFloorDemo();
    window.show();
    auto& session = window.session();
    session.setPlace(Place::Checks);
    while (!session.answer() || !session.answer()->complete)
        QApplication::processEvents(QEventLoop::WaitForMoreEvents, 50);
    window.strips().walk(1, 0);
    QImage plan(window.canvas().size(), QImage::Format_ARGB32_Premultiplied),
        section(window.section().size(), QImage::Format_ARGB32_Premultiplied);
    double u = 0;
    for (auto _ : state) {
        session.setStation(std::fmod(u += 173, 14000));
        window.canvas().render(&plan);
        window.section().render(&section);
    }
}
// Another place on the demo floor, with all that is drawn anew; goal 50 ms.
void placeChange(benchmark::State& state) {
    MainWindow window;
    window.resize(1280, 800);
    window.openFloorDemo();
    window.show();
    auto& session = window.session();
    while (!session.answer() || !session.answer()->complete)
        QApplication::processEvents(QEventLoop::WaitForMoreEvents, 50);
    while (!session.sought()) QApplication::processEvents(QEventLoop::WaitForMoreEvents, 50);
    int k = 0;
    for (auto _ : state) {
        session.setPlace(static_cast<Place>(1 + k++ % 7));
        QApplication::processEvents();  // paints what changed
    }
}
// What an edit of the demo's slab holds the window's thread: the edit with all that listens to it. Goal 5 ms;
// the answer is worked out elsewhere, and painting comes after.
void slabEdit(benchmark::State& state) {
    MainWindow window;
    window.resize(1280, 800);
    window.openDemo(false);
    auto& session = window.session();
    window.show();
    auto settle = [&] {
        while (session.stale()) QApplication::processEvents(QEventLoop::WaitForMoreEvents, 50);
    };
    settle();
    std::vector<double> edits;
    double h = 200;
    for (auto _ : state) {
        h = h == 200 ? 210 : 200;
        const auto start = std::chrono::steady_clock::now();
        session.apply(QStringLiteral("thickness"),
                      model::editSlab(session.base(), "s1", [&](auto& s, auto&) { s.thickness = h; }));
        edits.push_back(std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count() *
                        1e3);
        settle();
    }
    std::sort(edits.begin(), edits.end());
    state.counters["ms_median"] = edits[edits.size() / 2];
    state.counters["ms_longest"] = edits.back();
    state.counters["of_goal"] = edits[edits.size() / 2] / 5;
}
void readDrawing(benchmark::State& state) {
    std::string text = drawing(50'000'000 / 92);
    for (auto _ : state) benchmark::DoNotOptimize(formats::readDxfText(text).work.paths.size());
    state.counters["MB"] = double(text.size()) / 1e6;
}

}  // namespace

BENCHMARK(pan)->Unit(benchmark::kMillisecond);
BENCHMARK(zoom)->Unit(benchmark::kMillisecond);
BENCHMARK(hitTest)->Unit(benchmark::kMicrosecond);
BENCHMARK(snap)->Unit(benchmark::kMicrosecond);
BENCHMARK(looseEnds)->Unit(benchmark::kMillisecond);
BENCHMARK(panels)->Unit(benchmark::kMillisecond);
BENCHMARK(dragStep)->Unit(benchmark::kMillisecond);
BENCHMARK(stripDragStep)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(stationLine)->Unit(benchmark::kMillisecond);
BENCHMARK(placeChange)->Unit(benchmark::kMillisecond);
BENCHMARK(slabEdit)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(readDrawing)->Unit(benchmark::kMillisecond)->Iterations(3);

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    benchmark::Initialize(&argc, argv);
    benchmark::RunSpecifiedBenchmarks();
}
