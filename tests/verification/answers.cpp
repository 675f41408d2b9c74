// Writes every check of 200 random one-way slabs, floors and sets of bases each, a line each, so that the
// answers of two states of the program can be compared: talvik_answers > before.txt;
// scripts/compare_answers.py before.txt after.txt.
#include <fmt/format.h>

#include <algorithm>

#include "design/bases.h"
#include "design/design.h"
#include "design/floor_design.h"
#include "support/random_bases.h"
#include "support/random_floor.h"
#include "support/random_slab.h"

using namespace talvik;

namespace {

void print(const std::string& of, const checks::Check& c) {
    std::string notes;
    for (const auto& n : checks::said(c)) notes += " | " + n;
    fmt::print("{}\t{}\t{}\t{}\t{:.9g}\t{:.9g}\t{}\t{:.2f}\t{}\t{}{}\n", of, c.key, c.title,
               checks::name(c.outcome), c.demand, c.limit, c.clause, c.place.x, c.combination, c.reason,
               notes);
}

// Bars as the program chooses them, and in every third slab all fixed and some changed by hand.
model::Project slab(unsigned seed) {
    auto p = test::randomProject(seed, 6);
    const auto& ids = standards::standardIds();
    p.basis.standard = ids[seed % ids.size()];
    if (seed % 3 != 0) return p;
    const auto design = design::run(p, {.trace = false});
    return model::editSlab(p, "s1", [&](model::OneWaySlab& s, model::Project& next) {
        std::mt19937 random(seed);
        for (const auto& run : design.slab(0).bars) {
            auto& r = s.bars.emplace_back(run);
            r.id = model::newId(next, 'b');
            if (random() % 3 == 0) r.spacing = 100 + 25.0 * double(random() % 8);
            if (random() % 4 == 0) r.to -= 0.15 * (r.to - r.from);
            if (random() % 4 == 0) r.end = model::BarEnd::Straight;
        }
    });
}

}  // namespace

int main(int count, char**) {
    for (unsigned seed = 1; seed <= 200; ++seed) {
        model::Basis basis = model::emptyProject().basis;
        const auto set = std::make_shared<model::BaseSet>(test::randomBases(seed, basis));
        const auto& ids = standards::standardIds();
        const auto standard = standards::makeStandard(ids[seed / 2 % 2]);
        if (const auto d = design::designBases(set, basis, standard))
            for (const auto& b : d->bases) {
                fmt::print("bases {}\t{}\t{}\n", seed, b->part.key + "/size",
                           fmt::format("{:.0f} {:.0f} {:.0f} {} {} {} {} {}", b->size().B, b->size().L,
                                       b->size().h, b->piles().size(), b->bottom()[0].text(),
                                       b->bottom()[1].text(), b->trouble(), b->steel));
                for (const auto& c : b->checks) print(fmt::format("bases {}", seed), c);
            }
    }
    if (count > 1) return 0;  // bases alone
    for (unsigned seed = 1; seed <= 200; ++seed) {
        const auto design = design::run(slab(seed), {.trace = false});
        for (const auto& c : design.slab(0).checks) print(fmt::format("slab {}", seed), c);
    }
    for (unsigned seed = 1; seed <= 200; ++seed) {
        auto p = model::emptyProject();
        const auto& ids = standards::standardIds();
        p.basis.standard = ids[seed % ids.size()];
        p.floors.push_back(std::make_shared<const model::Floor>(test::randomFloor(seed)));
        if (auto d = design::designFloor(p, 0, {}, false))
            for (const auto* c : d->all()) print(fmt::format("floor {}", seed), *c);
    }
}
