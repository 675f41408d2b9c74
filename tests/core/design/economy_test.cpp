// Bars at least cost: never dearer than the plain layout, near the best of all layouts where those can be
// tried, nothing over that was not, the same twice, and stopped when asked.
#include "design/economy.h"

#include <gtest/gtest.h>

#include <cmath>

#include "bars/bar_choices.h"
#include "design/designer.h"
#include "formats/project_file.h"
#include "model/edits.h"
#include "support/random_slab.h"
#include "support/regular_floor.h"

using namespace talvik;

namespace {

design::LayoutCost costOf(const model::Project& p, const model::Id& element) {
    return design::layoutCost(*design::run(p, {.trace = false}).find(element), p.basis);
}
// One span between walls: bottom bars, bars across them, and what lies along the edges.
model::Project small(double length, double imposed) {
    auto p = formats::demoProject();
    model::OneWaySlab s = *p.slabs[0];
    p.slabs.clear();
    s.spans.resize(1), s.spans[0].length = length;
    s.supports.resize(2);
    for (auto& support : s.supports) support.kind = model::Support::Kind::Wall, support.monolithic = false;
    s.cantileverStart = s.cantileverEnd = false;
    s.bars.clear(), s.imposed = imposed, s.thickness = 200, s.width = 7000;
    p.slabs.push_back(std::make_shared<const model::OneWaySlab>(s));
    p.basis.mainBars = {"H10", "H12"}, p.basis.secondaryBars = {"H8"};
    p.basis.spacingStep = 50, p.basis.spacingLeast = 150, p.basis.spacingMost = 250;
    return p;
}

}  // namespace

TEST(Economy, CostIsMassWasteMarksAndPieces) {
    const auto p = formats::demoProject();
    const auto d = design::run(p, {.trace = false});
    const auto c = design::layoutCost(*d.elements[0], p.basis);
    const auto s = d.scheduleOf(*d.elements[0]);
    int pieces = 0;
    for (const auto& row : s.rows) pieces += row.number;
    EXPECT_NEAR(c.steel, s.mass, 1e-6);
    EXPECT_EQ(c.marks, int(s.rows.size()));
    EXPECT_EQ(c.pieces, pieces);
    EXPECT_GT(c.waste, 0);
    const auto& r = p.basis.rates;
    EXPECT_NEAR(c.price,
                (c.steel + c.waste) * r.steel.price + c.marks * r.mark.price + c.pieces * r.piece.price,
                1e-6);
}

TEST(Economy, NearTheBestOfAllLayoutsOfASmallSlab) {
    for (const auto& [length, imposed] : {std::pair(4200.0, 3e-3), {5300.0, 4e-3}, {3600.0, 7.5e-3}}) {
        const auto p = small(length, imposed);
        const auto id = p.slabs[0]->id;
        ASSERT_TRUE(model::validate(p).empty());
        const auto plain = design::run(p, {.trace = false});
        std::set<std::string> over;
        for (const auto* c : plain.elements[0]->all())
            if (c->outcome == checks::Outcome::Over) over.insert(c->key);
        // All pairs for the runs that can be chosen, one with the other.
        std::vector<bars::Run> runs;
        const auto& slab = plain.slab(0);
        for (const auto& r : slab.bars)
            if (r.role != model::Role::EndU && r.role != model::Role::SideU) runs.push_back(r);
        ASSERT_LE(runs.size(), 6u);
        double best = costOf(p, id).price;
        std::vector<bars::BarChoice> choices[6];
        for (std::size_t i = 0; i < runs.size(); ++i)
            for (const auto& c :
                 bars::barChoices(model::across(runs[i].role) ? p.basis.secondaryBars : p.basis.mainBars,
                                  p.basis.spacingMost, p.basis, *plain.standard))
                if (c.area() >= runs[i].area * (1 - 1e-9) && c.area() < 1.6 * runs[i].area)
                    choices[i].push_back(c);
        int tried = 0;
        auto go = [&](auto&& self, std::size_t at, const model::Project& so) -> void {
            if (at == runs.size()) {
                const auto answer = design::designNow(so, id);
                ++tried;
                for (const auto* c : answer->all())
                    if (c->outcome == checks::Outcome::Over && !over.contains(c->key)) return;
                best = std::min(best, design::layoutCost(*answer, so.basis).price);
                return;
            }
            for (const auto& c : choices[at])
                self(self, at + 1, model::editBars(so, id, [&](auto& fixed, model::Project& q) {
                         model::BarRun r = runs[at];
                         r.id = model::newId(q, 'b'), r.bar = c.bar->name, r.spacing = c.spacing;
                         fixed.push_back(r);
                     }));
        };
        go(go, 0, p);
        EXPECT_GT(tried, 4);
        const auto found = design::economicalLayout(p, id);
        EXPECT_LE(found.after.price, found.before.price);
        EXPECT_LE(found.after.price, 1.05 * best) << length << " of " << tried;
        EXPECT_NEAR(costOf(found.project, id).price, found.after.price, 1e-6) << "as it then is";
    }
}

TEST(Economy, NeverDearerNeverOverOnRandomSlabs) {
    int cheaper = 0;
    for (unsigned seed = 1; seed <= 12; ++seed) {
        const auto p = test::randomProject(seed, 4);
        if (!model::validate(p).empty()) continue;
        const auto id = p.slabs[0]->id;
        const auto before = design::run(p, {.trace = false});
        if (!before.elements[0]->error.empty()) continue;
        const auto found = design::economicalLayout(p, id);
        EXPECT_LE(found.after.price, found.before.price + 1e-9) << seed;
        EXPECT_TRUE(model::validate(found.project).empty());
        const auto after = design::run(found.project, {.trace = false});
        std::set<std::string> over;
        for (const auto* c : before.elements[0]->all())
            if (c->outcome == checks::Outcome::Over) over.insert(c->key);
        for (const auto* c : after.elements[0]->all())
            if (c->outcome == checks::Outcome::Over) {
                EXPECT_TRUE(over.contains(c->key)) << seed << " " << c->title;
            }
        EXPECT_NEAR(design::layoutCost(*after.elements[0], p.basis).price, found.after.price, 1e-6) << seed;
        cheaper += found.after.price < found.before.price - 1;
        const auto again = design::economicalLayout(p, id);
        EXPECT_TRUE(again.project == found.project) << seed;
    }
    EXPECT_GT(cheaper, 3);
}

TEST(Economy, DearMarksGiveFewerOfThem) {
    auto p = formats::demoProject();
    const auto id = p.slabs[0]->id;
    p.basis.rates.mark.price = 0, p.basis.rates.piece.price = 0;
    const auto light = design::economicalLayout(p, id).after;
    p.basis.rates.mark.price = 500;
    const auto few = design::economicalLayout(p, id).after;
    EXPECT_LE(few.marks, light.marks);
    EXPECT_GE(few.steel + few.waste, light.steel + light.waste - 1e-6);
}

TEST(Economy, StopsAndLeavesWhatSomeoneFixed) {
    auto p = formats::demoProject();
    const auto id = p.slabs[0]->id;
    std::stop_source stop;
    stop.request_stop();
    const auto none = design::economicalLayout(p, id, stop.get_token());
    EXPECT_TRUE(none.stopped);
    EXPECT_TRUE(none.project == p);
    p = model::editBars(p, id, [&](auto& fixed, model::Project& q) {
        fixed.clear();
        model::BarRun r = design::run(p, {.trace = false}).slab(0).runs.front();
        r.id = model::newId(q, 'b'), r.bar = "H20", r.spacing = 150;
        fixed.push_back(r);
    });
    const auto found = design::economicalLayout(p, id);
    const auto& bars = found.project.slabs[0]->bars;
    ASSERT_FALSE(bars.empty());
    EXPECT_EQ(bars[0], p.slabs[0]->bars[0]);
}
