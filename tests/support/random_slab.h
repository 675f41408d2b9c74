// Random one-way slabs for property tests; the same seed gives the same slab.
#pragma once

#include <random>

#include "model/edits.h"

namespace talvik::test {

inline model::Project randomProject(unsigned seed, std::size_t mostSpans = 8) {
    std::mt19937 random(seed);
    auto between = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(random); };
    model::Project p = model::newProject();
    std::size_t n = 1 + random() % mostSpans;
    bool start = n > 1 && random() % 4 == 0, end = n > 1u + start && random() % 3 == 0;
    std::vector<double> lengths;
    for (std::size_t i = 0; i < n; ++i) lengths.push_back(std::round(between(2500, 6500) / 50) * 50);
    if (start) lengths.front() = std::round(between(800, 1800) / 50) * 50;
    if (end) lengths.back() = std::round(between(800, 1800) / 50) * 50;
    p = model::setSpans(p, "s1", lengths, start, end);
    const auto& uses = catalogs::imposedUses();
    return model::editSlab(p, "s1", [&](model::OneWaySlab& s, model::Project& next) {
        s.width = std::round(between(2000, 15000) / 100) * 100;
        s.thickness = std::round(between(140, 300) / 10) * 10;
        const auto& use = uses[random() % uses.size()];
        s.imposedUse = use.id;
        s.imposed = use.load;
        s.otherDead = between(0, 1.5e-3);
        if (random() % 2) s.finishes.push_back({model::newId(next, 'f'), "Sand-cement screed", 60, 22e-6});
        for (auto& support : s.supports) {
            support.kind = random() % 3 ? model::Support::Kind::Beam : model::Support::Kind::Wall;
            support.width = std::round(between(200, 400) / 10) * 10;
            support.monolithic = random() % 4 != 0;
        }
    });
}

}  // namespace talvik::test
