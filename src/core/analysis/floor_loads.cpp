#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <numeric>

#include "analysis/floor_model.h"
#include "fem/parallel/pool.h"
#include "fem/plate/loads.h"

namespace talvik::analysis {
namespace {

double fullMagnitude(const model::FloorLoad& l, double slabArea) {
    using Kind = model::FloorLoad::Kind;
    switch (l.kind) {
        case Kind::Area:
            return intensity(l) *
                   (l.outline.empty() ? slabArea : std::abs(geometry::area(model::ring(l.outline))));
        case Kind::Line:
            return l.value * std::hypot(l.b.x - l.a.x, l.b.y - l.a.y);
        default:
            return l.value;
    }
}

}  // namespace

namespace {

// Pressures on the outlines of area loads. Panels loaded in turn put the same outlines on again and again:
// the forces of one are worked out once.
class Pressures {
    struct Unit {
        double total = 0;
        std::vector<std::pair<std::size_t, double>> forces;
    };

  public:
    Pressures(const fem::TriangleFinder& finder, const std::vector<model::FloorLoad>& loads,
              std::size_t unknowns)
        : finder_(finder) {
        std::vector<std::pair<Unit*, const model::FloorLoad*>> all;
        for (const auto& load : loads)
            if (load.kind == model::FloorLoad::Kind::Area)
                if (const auto [at, fresh] = made_.try_emplace(key(load)); fresh)
                    all.push_back({&at->second, &load});
        constexpr std::size_t few = 64;
        fem::parallelFor((all.size() + few - 1) / few, [&](std::size_t piece) {
            fem::NodeVector scratch(unknowns, 0);
            for (std::size_t k = few * piece; k < std::min(all.size(), few * (piece + 1)); ++k)
                make(*all[k].first, *all[k].second, scratch);
        });
    }
    // Adds to the forces at nodes; gives what was put on.
    double add(const model::FloorLoad& load, fem::NodeVector& f) const {
        const Unit& unit = made_.at(key(load));
        const double q = intensity(load);
        for (const auto& [i, force] : unit.forces) f[i] += q * force;
        return q * unit.total;
    }

  private:
    static std::vector<double> key(const model::FloorLoad& load) {
        std::vector<double> key;
        for (const auto& c : load.outline) key.insert(key.end(), {c.x, c.y, c.bulge});
        return key;
    }
    // `scratch` is nought before and after. Only what lies about the outline is looked at: a floor may have a
    // thousand panels.
    void make(Unit& unit, const model::FloorLoad& load, fem::NodeVector& scratch) const {
        std::vector<std::size_t> reached;
        if (load.outline.empty()) {
            unit.total = fem::addPressure(
                finder_, 1, [](int) { return true; }, scratch);
            reached.resize(scratch.size());
            std::iota(reached.begin(), reached.end(), 0);
        } else {
            const auto ring = model::ring(load.outline);
            unit.total = fem::addPressure(finder_, 1, ring, scratch);
            model::Point low = ring[0], high = ring[0];
            for (const auto p : ring) {
                low = {std::min(low.x, p.x), std::min(low.y, p.y)};
                high = {std::max(high.x, p.x), std::max(high.y, p.y)};
            }
            finder_.touching(low, high, [&](int t) {
                for (int n : finder_.triangles()[std::size_t(t)])
                    for (std::size_t d : {0u, 1u, 2u}) reached.push_back(3 * std::size_t(n) + d);
            });
            std::sort(reached.begin(), reached.end());
            reached.erase(std::unique(reached.begin(), reached.end()), reached.end());
        }
        for (std::size_t i : reached) {
            if (scratch[i] == 0) continue;
            unit.forces.emplace_back(i, scratch[i]);
            scratch[i] = 0;
        }
    }

    const fem::TriangleFinder& finder_;
    std::map<std::vector<double>, Unit> made_;
};

}  // namespace

FloorLoads floorLoads(const model::Floor& floor, const std::string& path, const FloorModel& m,
                      const FloorBasis& basis, std::stop_token stop) {
    using Kind = model::FloorLoad::Kind;
    FloorLoads out;
    std::size_t nodes = m.plate.nodes.size();
    fem::TriangleFinder finder(m.plate.nodes, m.plate.triangles);
    const Pressures pressures(finder, floor.actions.loads, 3 * nodes);
    double slabArea = 0;
    {
        fem::NodeVector scratch(3 * nodes, 0);
        slabArea = fem::addPressure(
            finder, 1, [](int) { return true; }, scratch);
    }
    for (const auto& c : floor.actions.cases) {
        fem::NodeVector& f = out.cases.emplace_back(3 * nodes, 0.0);
        double total = 0;
        if (c.nature == model::LoadCase::Nature::SelfWeight) {
            for (std::size_t t = 0; t < m.plate.triangles.size(); ++t) {
                const auto& n = m.plate.triangles[t];
                model::Point p = m.plate.nodes[n[0]], q = m.plate.nodes[n[1]], r = m.plate.nodes[n[2]];
                double force = basis.density * m.thickness[t] *
                               ((q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x)) / 2;
                for (int k : n) f[3 * std::size_t(k)] += force / 3;
                total += force;
            }
            for (std::size_t i = 0; i < m.plate.beams.size(); ++i) {
                const auto& e = m.plate.beams[i];
                const auto& beam = floor.beams[std::size_t(e.line)];
                model::Point a = m.plate.nodes[e.a], b = m.plate.nodes[e.b];
                double force = basis.beamDensity.value_or(basis.density) * beam.width *
                               m.sections[i].webDepth * std::hypot(b.x - a.x, b.y - a.y);
                f[3 * std::size_t(e.a)] += force / 2;
                f[3 * std::size_t(e.b)] += force / 2;
                total += force;
            }
        }
        for (std::size_t i = 0; i < floor.actions.loads.size(); ++i) {
            const auto& l = floor.actions.loads[i];
            if (l.loadCase != c.id || stop.stop_requested()) continue;
            double put = 0;
            if (l.kind == Kind::Area) {
                put = pressures.add(l, f);
            } else if (l.kind == Kind::Line) {
                put = fem::addLine(finder, l.value, l.a, l.b, f);
            } else if (l.kind == Kind::Point) {
                if (l.width > 0 && l.depth > 0)
                    put = fem::addPressure(finder, l.value / (l.width * l.depth), model::footprint(l), f);
                else
                    put = fem::addPoint(finder, l.value, 0, 0, l.a, f);
            } else {
                fem::addPoint(finder, 0, l.value, l.valueY, l.a, f);
            }
            total += put;
            double full = l.kind == Kind::Moment ? 0 : fullMagnitude(l, slabArea);
            // The mesh may pass an edge by a few millimetres where it follows a column beside it.
            const double slack = l.kind == Kind::Area ? 1e5 * std::abs(intensity(l)) : 0;
            // What the program lays on panels in turn is not a load that anyone could move.
            if (!c.arranged() && std::abs(put - full) > 1e-3 * std::abs(full) + slack + 1e-6)
                out.notes.push_back(
                    {path + fmt::format(".loads[{}]", i),
                     fmt::format("Of load {} ({}), {:.1f} kN of {:.1f} kN lie outside the slab or in "
                                 "an opening and are not counted; move it onto the slab.",
                                 l.id, c.name, (full - put) / 1000, full / 1000)});
        }
        out.total.push_back(total);
    }
    return out;
}

}  // namespace talvik::analysis
