// Fuzz target: any bytes as a project file, and as geometry of a floor. Nothing may crash, hang or give an
// answer that is not in balance. Built by scripts/fuzz.sh with libFuzzer and sanitizers.
#include <cmath>
#include <cstdint>
#include <cstdlib>
#include <cstring>
#include <string_view>

#include "design/floor_design.h"
#include "formats/project_file.h"
#include "model/floor_validation.h"

using namespace talvik;

namespace {

// Small numbers from the bytes, so that lines often touch, cross or coincide.
struct Bytes {
    const std::uint8_t* data;
    std::size_t left;
    int next() { return left ? (--left, *data++) : 0; }
    double place() { return (next() - 20) * 100 + (next() % 7) * 0.4; }
    model::Outline outline() {
        model::Outline o;
        int corners = 3 + next() % 6;
        for (int i = 0; i < corners; ++i) {
            double x = place(), y = place();
            o.push_back({x, y, next() % 5 == 0 ? (next() - 128) / 200.0 : 0});
        }
        return o;
    }
};

model::Floor floorOf(Bytes b) {
    model::Floor f;
    f.id = "f1";
    f.choices.meshSize = 300 + 10 * (b.next() % 100);
    int n = 0;
    auto id = [&](char c) { return c + std::to_string(++n); };
    for (int i = b.next() % 2; i >= 0; --i)
        f.slabs.push_back({id('d'), "", b.outline(), 50.0 + 4 * b.next()});
    for (int i = b.next() % 3; i > 0; --i) f.openings.push_back({id('o'), "", b.outline()});
    for (int i = b.next() % 3; i > 0; --i) f.zones.push_back({id('z'), "", b.outline(), 50.0 + 4 * b.next()});
    for (int i = b.next() % 6; i > 0; --i) {
        double x = b.place(), y = b.place();
        model::Column c{id('c'), "", x, y};
        c.width = 50 + 10 * b.next(), c.depth = 50 + 10 * b.next(), c.angle = b.next();
        c.circular = b.next() % 3 == 0, c.bearing = model::Bearing(b.next() % 3);
        f.columns.push_back(c);
    }
    auto point = [&] {
        double x = b.place();
        return model::Point{x, b.place()};
    };
    for (int i = b.next() % 3; i > 0; --i) {
        auto p = point(), q = point();
        f.walls.push_back({id('w'), "", p, q});
    }
    for (int i = b.next() % 3; i > 0; --i) {
        auto p = point(), q = point();
        f.beams.push_back({id('b'), "", p, q});
    }
    if (b.next() % 4 == 0)
        f.grounds.push_back({id('g'), "", b.next() % 2 ? b.outline() : model::Outline{}, 0.02});
    f.actions.cases = {{id('q'), "", model::LoadCase::Nature::SelfWeight},
                       {id('q'), "", model::LoadCase::Nature::Permanent}};
    for (int i = b.next() % 4; i > 0; --i) {
        model::FloorLoad l;
        l.id = id('l'), l.loadCase = f.actions.cases[1].id, l.kind = model::FloorLoad::Kind(b.next() % 4);
        l.value = b.next() - 100, l.a = point(), l.b = point();
        if (l.kind == model::FloorLoad::Kind::Area) l.value *= 1e-4, l.outline = b.outline();
        l.width = b.next(), l.depth = b.next();
        f.actions.loads.push_back(l);
    }
    return f;
}

// Strips and checks on top of an analysis: every point in one strip each way, every figure a number.
void checkStrips(const model::Project& project, std::size_t floor, analysis::FloorAnalysis a) {
    auto d = design::FloorDesigner().design(
        project.floors[floor], std::make_shared<const analysis::FloorAnalysis>(std::move(a)), project.basis);
    if (!d) return;
    const auto& strips = d->floor->strips;
    for (int k : {0, 1}) {
        const auto& c = d->layout->coverage[std::size_t(k)];
        if (strips.drawn.empty() && strips.rules.automatic[k] &&
            c.uncovered + c.overlapped > 1e-6 * c.whole + 1e4)
            std::abort();
    }
    for (const auto* c : d->all())
        if (std::isnan(c->demand) || std::isnan(c->limit) || std::isnan(checks::ratio(*c))) std::abort();
}

void analyse(const model::Project& project, std::size_t floor) {
    const auto& f = *project.floors[floor];
    double area = 0, least = f.choices.meshSize > 0 ? f.choices.meshSize : 1e9;
    for (const auto& s : f.slabs)
        area += geometry::area(model::ring(s.outline)), least = std::min(least, s.thickness);
    if (area / (least * least) > 3e4) return;  // too long for a fuzzer
    auto a = design::analyseFloor(project, floor);
    if (a.good() && a.trouble.empty())
        for (const auto& c : a.cases)
            if (!(c.imbalance < 1e-6)) std::abort();
    for (const auto& t : a.trouble)
        if (t.message.empty()) std::abort();
    if (a.good()) checkStrips(project, floor, std::move(a));
}

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    if (size < 2) return 0;
    if (data[0] % 4 == 0) {
        auto read = formats::readProject(std::string_view(reinterpret_cast<const char*>(data + 1), size - 1));
        if (read.trouble.empty())
            for (std::size_t i = 0; i < read.project.floors.size(); ++i) analyse(read.project, i);
        return 0;
    }
    model::Project project;
    project.floors.push_back(std::make_shared<model::Floor>(floorOf({data + 1, size - 1})));
    if (model::validateFloor(*project.floors[0], "f").empty()) {
        model::nearMisses(*project.floors[0], "f");
        analyse(project, 0);
    }
    return 0;
}
