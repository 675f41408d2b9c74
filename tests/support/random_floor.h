// Random irregular floors that stand up: for property tests.
#pragma once

#include <cmath>
#include <numbers>
#include <random>

#include "model/floor.h"

namespace talvik::test {

inline model::Floor randomFloor(unsigned seed) {
    std::mt19937 random(seed);
    auto u = [&](double low, double high) {
        return std::uniform_real_distribution<double>(low, high)(random);
    };
    auto coin = [&](double p) { return u(0, 1) < p; };
    model::Floor f;
    int next = 0;
    auto id = [&](char c) { return c + std::to_string(++next); };
    f.id = "f";
    f.name = "Random " + std::to_string(seed);
    int nx = 2 + int(u(0, 3)), ny = 2 + int(u(0, 2));
    double dx = u(4000, 7500), dy = u(4000, 7500), over = u(0, 1500), turn = u(0, std::numbers::pi);
    double c = std::cos(turn), s = std::sin(turn), ox = u(-50000, 50000), oy = u(-50000, 50000);
    auto at = [&](double x, double y) { return model::Point{ox + x * c - y * s, oy + x * s + y * c}; };
    auto corner = [&](double x, double y, double bulge = 0) {
        auto p = at(x, y);
        return model::Corner{p.x, p.y, bulge};
    };
    double W = (nx - 1) * dx, H = (ny - 1) * dy, cut = coin(0.6) ? u(500, 2500) : 0;
    model::SlabArea slab{id('d'), "S", {}, u(180, 400)};
    slab.outline = {corner(-over, -over, coin(0.4) ? u(0.05, 0.3) : 0), corner(W + over, -over)};
    if (cut > 0)
        slab.outline.insert(slab.outline.end(),
                            {corner(W + over, H + over - cut), corner(W + over - cut, H + over)});
    else
        slab.outline.push_back(corner(W + over, H + over));
    slab.outline.push_back(corner(-over, H + over));
    f.slabs.push_back(slab);
    for (int i = 0; i < nx; ++i)
        for (int j = 0; j < ny; ++j) {
            if (i == nx - 1 && j == ny - 1 && cut > 0) continue;
            auto p = at(i * dx + u(-300, 300), j * dy + u(-300, 300));
            if (over < 400 && (i == 0 || j == 0 || i == nx - 1 || j == ny - 1)) p = at(i * dx, j * dy);
            model::Column col{id('c'), "C", p.x, p.y};
            col.circular = coin(0.3);
            col.width = u(250, 600), col.depth = u(250, 600), col.angle = u(0, 90);
            col.above = coin(0.4);
            col.heightBelow = u(2500, 5000);
            col.farEndsFixed = coin(0.5);
            col.bearing = coin(0.6)   ? model::Bearing::Spring
                          : coin(0.5) ? model::Bearing::Rigid
                                      : model::Bearing::Pinned;
            f.columns.push_back(col);
        }
    auto box = [&](double x, double y, double w, double h) {
        return model::Outline{corner(x, y), corner(x + w, y), corner(x + w, y + h), corner(x, y + h)};
    };
    if (coin(0.6))
        f.openings.push_back({id('o'), "O", box(0.35 * dx, 0.35 * dy, u(600, 0.4 * dx), u(600, 0.4 * dy))});
    if (coin(0.5) && ny > 2)
        f.zones.push_back({id('z'), "Z", box(dx - 1200, dy - 1000, 2400, 2000), slab.thickness + 120});
    if (coin(0.5)) {
        auto a = at(0, 0), b = at(dx, 0);
        f.beams.push_back({id('b'), "B", a, b, 300, slab.thickness + u(150, 500), coin(0.3), u(0, 0.5)});
    }
    if (coin(0.4)) {
        auto a = at(0, 0.2 * dy), b = at(0, 0.8 * dy);
        f.walls.push_back({id('w'), "W", a, b, 200, 3000, coin(0.5)});
    }
    if (coin(0.25))
        f.grounds.push_back(
            {id('g'), "G", coin(0.5) ? model::Outline{} : box(0, 0, W / 2, H / 2), u(0.005, 0.05)});
    if (coin(0.25)) {
        auto p = at(0.5 * dx, 0.15 * dy);
        f.piles.push_back({id('p'), "P", p.x, p.y, 450, u(50e3, 400e3)});
    }
    f.choices.shearDeformation = coin(0.7);
    f.choices.groundTakesTension = true;
    using Nature = model::LoadCase::Nature;
    f.actions.cases = {{id('q'), "Self", Nature::SelfWeight, "B"},
                       {id('q'), "Dead", Nature::Permanent, "B"},
                       {id('q'), "Imposed", Nature::Imposed, "B"}};
    using Kind = model::FloorLoad::Kind;
    auto load = [&](int k, Kind kind, double value) {
        model::FloorLoad l;
        l.id = id('l');
        l.loadCase = f.actions.cases[std::size_t(k)].id;
        l.kind = kind;
        l.value = value;
        return l;
    };
    f.actions.loads.push_back(load(1, Kind::Area, u(0.5e-3, 3e-3)));
    auto patch = load(2, Kind::Area, u(1e-3, 8e-3));
    patch.outline = box(0.1 * W, 0.1 * H, 0.6 * W, 0.3 * H);
    f.actions.loads.push_back(patch);
    auto line = load(1, Kind::Line, u(1, 20));
    line.a = at(0.05 * W, 0.3 * dy), line.b = at(0.9 * W, 0.25 * dy);
    f.actions.loads.push_back(line);
    auto point = load(2, Kind::Point, u(1e4, 2e5));
    point.a = at(0.2 * dx, 0.8 * dy);
    if (coin(0.5)) point.width = point.depth = u(200, 800);
    f.actions.loads.push_back(point);
    auto couple = load(2, Kind::Moment, u(-5e7, 5e7));
    couple.valueY = u(-5e7, 5e7);
    couple.a = at(0.8 * dx, 0.2 * dy);
    f.actions.loads.push_back(couple);
    return f;
}

}  // namespace talvik::test
