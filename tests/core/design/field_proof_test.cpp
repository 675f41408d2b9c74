// The proof by field: floors that are designed everywhere, faults that it finds, and properties over random floors.
#include "design/field_proof.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

#include "design/floor_design.h"
#include "formats/project_file.h"
#include "model/edits.h"
#include "strips/strip_finder.h"
#include "support/random_floor.h"
#include "support/regular_floor.h"

namespace talvik {
namespace {

model::Project projectOf(model::Floor f) {
    auto p = model::emptyProject();
    p.floors.push_back(std::make_shared<const model::Floor>(std::move(f)));
    return p;
}

TEST(FieldProof, Explore) {
    auto show = [](const design::FloorDesign& d, const char* name) {
        for (int k : {0, 1})
            for (int top : {0, 1}) {
                const auto& o = d.proof->steel[k][top];
                if (o.worst <= 1) continue;
                std::printf("%s %s %s judged %.1f short %.2f worst %.2f at %.2f %.2f (%.2f of %.2f)\n", name, k ? "Y" : "X", top ? "top" : "bottom", o.judged / 1e6, o.shortArea / 1e6, o.worst, o.at.x/1000, o.at.y/1000, o.asked/1e3, o.provided/1e3);
                {
                    strips::StripFinder finder(*d.layout, k);
                    model::Point at = o.at;
                    int own = finder.at(at);
                    auto nearR = [&](const auto& list) { double m = 1e9; for (auto& x : list) m = std::min(m, geometry::distanceToEdge(model::ring(x.outline), at)); return m; };
                    std::printf("   edge %.0f opening %.0f", nearR(d.floor->slabs), nearR(d.floor->openings));
                    for (auto& c : d.floor->columns) if (geometry::length({c.x, c.y}, at) < 1500) std::printf(" column %s at %.0f (below %d bearing %d)", c.id.c_str(), geometry::length({c.x, c.y}, at), c.below, int(c.bearing));
                    for (auto& c : d.floor->walls) if (geometry::distance(at, c.a, c.b) < 1500) std::printf(" wall at %.0f, stiff %d", geometry::distance(at, c.a, c.b), c.stiff);
                    for (auto& c : d.floor->beams) if (geometry::distance(at, c.a, c.b) < 1500) std::printf(" beam at %.0f", geometry::distance(at, c.a, c.b));
                    for (auto& c : d.floor->piles) if (geometry::length(at, {c.x, c.y}) < 1500) std::printf(" pile at %.0f", geometry::length(at, {c.x, c.y}));
                    for (auto& l : d.floor->actions.loads) if (l.kind != model::FloorLoad::Kind::Area) { double q = l.kind == model::FloorLoad::Kind::Line ? geometry::distance(at, l.a, l.b) : geometry::length(at, l.a); if (q < 1500) std::printf(" load kind %d at %.0f", int(l.kind), q); }
                    std::printf("\n");
                    if (own < 0) { double m = 1e9; for (auto& q : d.layout->strips) if (q.direction == k) for (auto& part : q.parts) m = std::min(m, geometry::distanceToEdge(part, at)); std::printf("   no strip; nearest %.3f coverage %.3f gaps %zu inner %d\n", m, d.layout->coverage[k].uncovered, d.layout->coverage[k].gaps.size(), 0); }
                    if (own >= 0) {
                        auto& sd = *d.strips[std::size_t(own)];
                        auto& st = *sd.strip;
                        std::printf("   strip %s kind %d u %.0f..%.0f own u %.0f v %.0f (axis v %.0f)\n", st.key.c_str(), int(st.kind), st.from, st.to, st.axes.local(at).x, st.axes.local(at).y, st.v(st.axes.local(at).x));
                        for (auto& sp : st.spans) std::printf("     span %s clear %.0f..%.0f wall %d\n", sp.name.c_str(), sp.clearFrom, sp.clearTo, sp.alongWall);
                        for (auto& r : sd.runs) if (r.top == bool(top)) std::printf("     run %.0f..%.0f %s@%.0f\n", r.from, r.to, r.bar.c_str(), r.spacing);
                        auto& dm = top ? sd.demand.top : sd.demand.bottom;
                        for (std::size_t q = 0; q < sd.stations().size(); ++q) if (std::abs(sd.stations()[q].u - st.axes.local(at).x) < 700) std::printf("     station %.0f m %.1f r %.1f share %.0f width %.0f\n", sd.stations()[q].u, dm[q].value / sd.stations()[q].width / 1e3, (top ? sd.top : sd.bottom).resistance[q] / sd.stations()[q].width / 1e3, sd.stations()[q].share[top], sd.stations()[q].width);
                    }
                }
                std::vector<std::pair<float, std::size_t>> all;
                for (std::size_t i = 0; i < o.ratio.size(); ++i) if (o.ratio[i] > 1) all.emplace_back(o.ratio[i], i);
                std::sort(all.rbegin(), all.rend());
                for (std::size_t i = 0; i < std::min<std::size_t>(3, all.size()); ++i) {
                    auto p = d.analysis->model->plate.nodes[std::size_t(d.analysis->model->points.node[all[i].second])];
                    std::printf("   %.2f at %.2f %.2f\n", all[i].first, p.x / 1000, p.y / 1000);
                }
            }
        if (d.proof->shear.worst > 1) std::printf("%s shear %.2f at %.2f %.2f short %.2f\n", name, d.proof->shear.worst, d.proof->shear.at.x/1000, d.proof->shear.at.y/1000, d.proof->shear.shortArea/1e6);
    };
    auto d = design::designFloor(formats::demoFloorProject(), 0);
    ASSERT_TRUE(d && d->proof);
    show(*d, "demo");
    int n = 0, bad = 0;
    for (unsigned seed = 1; seed <= 150; ++seed) {
        auto r = design::designFloor(projectOf(test::randomFloor(seed)), 0);
        if (!r) continue;
        bool over = false;
        for (const auto& s : r->strips) for (const auto& c : s->checks)
            over |= c.outcome == checks::Outcome::Over && (c.key.find("flexure") != std::string::npos || c.key.find("curtail") != std::string::npos);
        bool shortOf = false;
        for (auto& a : r->proof->steel) for (auto& o : a) shortOf |= o.worst > 1;
        ++n;
        if (shortOf && !over) { ++bad; show(*r, std::to_string(seed).c_str()); }
    }
    std::printf("%d floors, %d short though strips within\n", n, bad);
}

}  // namespace
}  // namespace talvik
