// Random sets of bases for property tests and for comparing answers: pads and caps of every shape, free and
// pinned, on dry and wet ground; the same seed gives the same set.
#pragma once

#include <random>

#include "model/project.h"

namespace talvik::test {

// One base, but for every sixth set of pads, which has a strap to a second one. `basis` gets materials and
// cover.
inline model::BaseSet randomBases(unsigned seed, model::Basis& basis) {
    std::mt19937 random(seed);
    auto number = [&](double low, double high) { return low + (high - low) * double(random() % 1000) / 999; };
    auto one = [&](int n) { return random() % unsigned(n) == 0; };
    model::BaseSet s;
    s.id = "f1", s.name = "Bases";
    s.kind = seed % 3 == 2 ? model::BaseSet::Kind::Caps : model::BaseSet::Kind::Pads;
    const bool pads = s.kind == model::BaseSet::Kind::Pads;
    s.approach = 1 + int(random() % 3);
    s.cases = {{"q1", "G", {actions::Nature::Permanent, ""}},
               {"q2", "Q", {actions::Nature::Imposed, "B"}},
               {"q3", "W", {actions::Nature::Wind, ""}}};
    basis.foundation.strength = basis.pileCap.strength = 5 * std::round(number(5, 8));
    basis.coverFoundation = 5 * std::round(number(8, 15));
    s.ground.allowable = number(0.1, 0.5), s.ground.depth = 50 * std::round(number(12, 50));
    if (one(4)) s.ground.water = true, s.ground.waterDepth = number(0, 2500);
    if (one(5)) s.ground.by = model::GroundValues::By::Drained;
    s.pile = {true, 450, number(500, 1500) * 1e3, number(0, 300) * 1e3, 0, one(4), 3,
              150,  75,  one(2) ? 75.0 : 0.0};
    if (one(3)) s.linkBar = "H12";
    auto column = [&](const char* id, double x, double y) {
        const double side = 50 * std::round(number(6, 14));
        s.columns.push_back({id,
                             id,
                             x,
                             y,
                             side,
                             one(2) ? side : 50 * std::round(number(6, 14)),
                             {{"q1", number(100, 2500) * 1e3},
                              {"q2", number(0, 1500) * 1e3},
                              {"q3", number(-100, 100) * 1e3, number(-40, 40) * 1e3, 0, number(-60, 60) * 1e6,
                               number(-120, 120) * 1e6}}});
    };
    column("c1", 0, 0);
    model::Base b;
    b.id = "b1", b.columns = {"c1"};
    if (pads) {
        if (one(4)) b.top.kind = one(2) ? model::BaseTop::Kind::Sloped : model::BaseTop::Kind::Stepped;
        if (one(6)) b.pedestal = {s.columns[0].width + 400, s.columns[0].depth + 400, 450};
        if (one(6)) b.ratio = number(0.5, 2);
        if (one(6)) b.B = 100 * std::round(number(15, 40));
    }
    if (one(6)) b.h = 50 * std::round(number(7, 25));
    if (one(8)) b.bar = "H16", b.spacing = 25 * std::round(number(4, 12));
    if (!pads && one(4)) b.piles = 1 + int(random() % 6);
    if (seed % 6 == 1) {
        column("c2", number(4000, 7000), 0);
        model::Base far;
        far.id = "b2", far.columns = {"c2"};
        b.strap.to = "c2", b.top = {}, b.pedestal = {};
        s.bases = {b, far};
        const double beyond = s.columns[0].width / 2;
        s.site = {{-beyond, -8000}, {15000, -8000}, {15000, 8000}, {-beyond, 8000}};
        return s;
    }
    if (one(6)) column("c2", number(2500, 6000), number(-500, 500)), b.columns.push_back("c2");
    s.bases = {b};
    return s;
}

}  // namespace talvik::test
