// Regular floors: for benchmarks and for comparing with published coefficients.
#pragma once

#include <string>

#include "model/edits.h"

namespace talvik::test {

inline model::Outline rectangle(double x0, double y0, double x1, double y1) {
    return {{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}};
}

// nx by ny columns at lx and ly with a slab that ends `over` beyond them; self-weight, 1.5 and 3 kN/m2 all
// over. `beamDepth` > 0: beams along all lines.
inline model::Project regularFloor(int nx, int ny, double lx, double ly, double thickness = 250,
                                   double over = 200, double beamDepth = 0) {
    model::Floor f;
    f.id = "f1";
    f.name = "Regular";
    f.slabs.push_back(
        {"d1", "S", rectangle(-over, -over, (nx - 1) * lx + over, (ny - 1) * ly + over), thickness});
    int next = 0;
    for (int i = 0; i < nx; ++i)
        for (int k = 0; k < ny; ++k) f.columns.push_back({"c" + std::to_string(++next), "", i * lx, k * ly});
    if (beamDepth > 0) {
        for (int k = 0; k < ny; ++k)
            f.beams.push_back(
                {"b" + std::to_string(++next), "", {0, k * ly}, {(nx - 1) * lx, k * ly}, 400, beamDepth});
        for (int i = 0; i < nx; ++i)
            f.beams.push_back(
                {"b" + std::to_string(++next), "", {i * lx, 0}, {i * lx, (ny - 1) * ly}, 400, beamDepth});
    }
    using Nature = model::LoadCase::Nature;
    f.actions.cases = {{"q1", "Self", Nature::SelfWeight, "B"},
                       {"q2", "Dead", Nature::Permanent, "B"},
                       {"q3", "Imposed", Nature::Imposed, "B"}};
    for (auto [id, of, value] : {std::tuple("l1", "q2", 1.5e-3), {"l2", "q3", 3e-3}}) {
        model::FloorLoad l;
        l.id = id, l.loadCase = of, l.value = value;
        f.actions.loads.push_back(l);
    }
    model::Project p = model::emptyProject();
    p.floors.push_back(std::make_shared<const model::Floor>(std::move(f)));
    p.nextId = 1000;
    return p;
}

}  // namespace talvik::test
