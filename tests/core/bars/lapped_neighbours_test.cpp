// Bars of the top over neighbouring supports: they lap in full or part with a gap that can be drawn, in slabs that span
// one way and in strips of floors, whatever was chosen.
#include <gtest/gtest.h>

#include "bars/steel.h"
#include "design/design.h"
#include "design/floor_design.h"
#include "design/slab_design.h"
#include "support/random_floor.h"
#include "support/random_slab.h"

using namespace talvik;

namespace {

// Lap length by hand: EN 1992-1-1 8.4.2 to 8.7.3 at full stress with alpha_1 to alpha_5 of 1 as an upper bound, and
// 0.7 of it as the lower one, alpha_6 1.5; ACI not below 300 mm.
double least(const bars::Run& r, const model::Basis& b) {
    if (b.standard != "en1992") return 300;
    const double fctd = 0.7 * 0.3 * std::pow(b.concreteStrength, 2.0 / 3) / 1.5;
    return 0.7 * 1.5 * r.diameter / 4 * (b.steelYield / 1.15) / (2.25 * fctd);
}
int neighbours(const std::vector<bars::Run>& all, const model::Basis& basis, const std::string& what) {
    std::vector<bars::Run> tops;
    for (const auto& r : all)
        if (r.role == model::Role::TopMain) tops.push_back(r);
    std::sort(tops.begin(), tops.end(), [](const auto& a, const auto& b) { return a.from < b.from; });
    int met = 0;
    for (std::size_t k = 0; k + 1 < tops.size(); ++k) {
        const double overlap = tops[k].to - tops[k + 1].from;
        if (overlap <= -100 + 1e-6) continue;
        ++met;
        // One that lies within the other carries all by itself.
        if (tops[k + 1].to <= tops[k].to + 1e-6 || tops[k + 1].from <= tops[k].from + 1e-6) continue;
        EXPECT_GE(overlap, least(tops[k], basis) - 1) << what << " " << tops[k].id << " " << tops[k + 1].id;
    }
    return met;
}

}  // namespace

TEST(LappedNeighbours, OfSlabsThatSpanOneWay) {
    int met = 0;
    for (unsigned seed = 1; seed <= 60; ++seed)
        for (const char* standard : {"en1992", "aci318-si"}) {
            auto p = test::randomProject(seed);
            p.basis.standard = standard;
            const auto d = design::run(p, {.trace = false});
            met += neighbours(d.slab(0).runs, p.basis, std::to_string(seed));
        }
    EXPECT_GT(met, 20);
}

TEST(LappedNeighbours, OfStripsOfFloors) {
    int met = 0;
    for (unsigned seed = 1; seed <= 10; ++seed) {
        auto p = model::emptyProject();
        p.floors.push_back(std::make_shared<const model::Floor>(test::randomFloor(seed)));
        const auto d = design::run(p, {.trace = false});
        const auto* f = dynamic_cast<const design::FloorDesign*>(d.elements.at(0).get());
        if (!f || !f->error.empty()) continue;
        for (const auto& s : f->strips) met += neighbours(s->runs, p.basis, std::to_string(seed) + " " + s->name);
    }
    EXPECT_GT(met, 20);
}
