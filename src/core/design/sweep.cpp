#include "design/sweep.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <mutex>
#include <thread>

#include "design/quantities.h"
#include "layout/placing.h"
#include "model/edits.h"

namespace talvik::design {

model::Project withThickness(const model::Project& project, std::string_view floor, double thickness) {
    return model::editFloor(project, floor, [&](model::Floor& f, model::Project&) {
        if (f.slabs.empty()) return;
        const double add = thickness - f.slabs.front().thickness;
        for (auto& s : f.slabs) s.thickness += add;
        for (auto& z : f.zones) z.thickness += add;
    });
}

model::Project withDrops(const model::Project& project, std::string_view floor) {
    return model::editFloor(project, floor, [&](model::Floor& f, model::Project& next) {
        if (f.slabs.empty()) return;
        const double step = project.basis.units == units::System::Metric ? 50 : 50.8;
        const auto outlines = model::outlines(f);
        const auto before = f.zones;
        for (const auto& c : f.columns) {
            const geometry::Point at{c.x, c.y};
            double nearest = 1e300, toEdge = 1e300;
            bool on = false;
            for (const auto& other : f.columns)
                if (other.id != c.id) nearest = std::min(nearest, std::hypot(other.x - c.x, other.y - c.y));
            for (const auto& ring : outlines) {
                on = on || geometry::contains(ring, at);
                toEdge = std::min(toEdge, geometry::distanceToEdge(ring, at));
            }
            for (const auto& o : f.openings)
                toEdge = std::min(toEdge, geometry::distanceToEdge(model::ring(o.outline), at));
            if (!on || nearest > 1e200) continue;
            const double side = units::roundDown(nearest / 3, 2 * step);
            if (toEdge < side / 2 + step || side < 2 * std::max(c.width, c.depth)) continue;
            if (std::any_of(before.begin(), before.end(), [&](const model::Zone& z) {
                    return geometry::contains(model::ring(z.outline), at);
                }))
                continue;
            model::Zone z;
            z.id = model::newId(next, 'z');
            z.name = layout::freeName(f, "D");
            z.thickness = units::roundUp(1.5 * f.slabs.front().thickness, step);
            for (auto [x, y] : {std::pair(-0.5, -0.5), {0.5, -0.5}, {0.5, 0.5}, {-0.5, 0.5}})
                z.outline.push_back({c.x + x * side, c.y + y * side});
            f.zones.push_back(std::move(z));
        }
    });
}

model::Project asPoint(const model::Project& project, std::string_view floor, double thickness,
                       const std::string& concrete, bool drops) {
    auto next = withThickness(project, floor, thickness);
    if (drops) next = withDrops(next, floor);
    if (concrete != project.basis.concrete)
        for (const auto& c : catalogs::concreteClasses())
            if (c.id == concrete) next.basis.concrete = c.id, next.basis.concreteStrength = c.strength;
    return next;
}

namespace {

void designPoint(SweepPoint& p, std::string_view floor) {
    const auto design = run(p.project, {.trace = false});
    const auto* answer = design.find(floor);
    if (!design.trouble.empty())
        p.error = design.trouble.front().message;
    else if (!answer)
        p.error = "The floor could not be designed.";
    else if (!answer->error.empty())
        p.error = answer->error;
    else {
        p.over = answer->summary.over, p.within = answer->summary.within;
        for (const auto* c : answer->all())
            if (checks::isJudged(*c) && checks::ratio(*c) > p.worst)
                p.worst = checks::ratio(*c), p.governs = c->title;
        const auto taken = quantities(p.project, design);
        for (std::size_t i = 0; i < taken.size() && i < design.elements.size(); ++i)
            if (design.elements[i]->element == floor) {
                p.concreteVolume = taken[i].concrete, p.steel = taken[i].steel;
                p.formwork = taken[i].formwork;
                p.price = taken[i].cost, p.carbon = taken[i].emissions;
            }
    }
}

}  // namespace

std::vector<SweepPoint> sweep(const model::Project& project, std::string_view floor, const SweepWish& wish,
                              std::stop_token stop,
                              const std::function<void(const SweepPoint&, std::size_t)>& each) {
    std::vector<SweepPoint> all;
    std::vector<std::string> concretes = wish.concretes;
    if (concretes.empty()) concretes.push_back(project.basis.concrete);
    for (const auto& concrete : concretes)
        for (bool drops : {false, true}) {
            if (drops && !wish.drops) continue;
            for (double thickness : wish.thicknesses) {
                SweepPoint p;
                p.thickness = thickness, p.concrete = concrete, p.drops = drops;
                all.push_back(std::move(p));
            }
        }
    // On all cores, a design to each; told in their order.
    std::mutex mutex;
    std::vector<char> done(all.size(), 0);
    std::size_t next = 0, told = 0;
    auto work = [&] {
        std::unique_lock hold(mutex);
        while (next < all.size() && !stop.stop_requested()) {
            const std::size_t i = next++;
            hold.unlock();
            auto& p = all[i];
            p.project = asPoint(project, floor, p.thickness, p.concrete, p.drops);
            designPoint(p, floor);
            hold.lock();
            done[i] = 1;
            for (; told < all.size() && done[told]; ++told)
                if (each) each(all[told], all.size());
        }
    };
    {
        std::vector<std::jthread> others;
        const std::size_t cores = std::max(1u, std::min(8u, std::thread::hardware_concurrency()));
        for (std::size_t i = 1; i < std::min(cores, all.size()); ++i) others.emplace_back(work);
        work();
    }
    all.resize(told);
    return all;
}

}  // namespace talvik::design
