// Each check, made to fail and to pass by the one thing it is about.
#include <gtest/gtest.h>

#include <cmath>

#include "design/design.h"
#include "formats/project_file.h"
#include "model/edits.h"
#include "support/chosen_bars.h"

using namespace talvik;
using checks::Outcome;
using model::BarRun;
using model::Role;

namespace {

const checks::Check* find(const design::Design& d, const std::string& ending) {
    for (const auto& c : d.slab(0).checks)
        if (c.key.ends_with(ending)) return &c;
    return nullptr;
}

class SlabChecks : public ::testing::TestWithParam<std::string> {
  protected:
    model::Project project = designed();
    model::Project designed() {
        model::Project p = formats::demoProject();
        p.basis.standard = GetParam();
        return test::chosenBars(design::designAll(p));
    }
    const model::OneWaySlab& slab() const { return *project.slabs[0]; }
    // The checks after a change of the slab.
    template <class F>
    design::Design after(F change) const {
        return design::run(
            model::editSlab(project, "s1", [&](model::OneWaySlab& s, model::Project&) { change(s); }));
    }
    static BarRun& first(model::OneWaySlab& s, Role role) {
        return *std::find_if(s.bars.begin(), s.bars.end(), [&](const BarRun& r) { return r.role == role; });
    }
    std::string spanKey(std::size_t i, const char* name) const { return slab().spans[i].id + "/" + name; }
    std::string supportKey(std::size_t i, const char* name) const {
        return slab().supports[i].id + "/" + name;
    }
};

}  // namespace

TEST_P(SlabChecks, WideSpacingBreaksSpacingAndCrackRules) {
    auto d = after([](auto& s) { first(s, Role::BottomMain).spacing = 600; });
    EXPECT_EQ(find(d, spanKey(0, "spacing-bottom"))->outcome, Outcome::Over);
    EXPECT_EQ(find(d, spanKey(0, "minimum-bottom"))->outcome, Outcome::Over);
    EXPECT_EQ(find(d, spanKey(0, "spacing-bottom"))->demand, 600);
    EXPECT_EQ(find(d, spanKey(1, "spacing-bottom"))->outcome, Outcome::Within)
        << "the next span has bars of its own";
}

TEST_P(SlabChecks, BarsTooCloseBreakTheClearDistance) {
    auto d = after(
        [](auto& s) { first(s, Role::BottomMain).spacing = 40, first(s, Role::BottomMain).bar = "H32"; });
    const auto* c = find(d, spanKey(0, "clear-bottom"));
    EXPECT_EQ(c->outcome, Outcome::Over);
    EXPECT_NEAR(c->demand, 8, 1e-9);
    EXPECT_EQ(find(d, spanKey(0, "ductility-bottom"))->outcome, Outcome::Over);
}

TEST_P(SlabChecks, ShortTopBarsBreakTheBarEnds) {
    std::size_t middle = 2;
    double axis = model::axis(slab(), middle);
    auto d = after([&](auto& s) {
        std::erase_if(
            s.bars, [&](const BarRun& r) { return r.role == Role::TopMain && r.from < axis && r.to > axis; });
        s.bars.push_back({"b900", {}, Role::TopMain, axis - 500, axis + 500, "H12", 100});
    });
    EXPECT_EQ(find(d, supportKey(middle, "curtailment-top"))->outcome, Outcome::Over);
}

// A bar end that comes too early is told by how much: reaching so much farther is enough, and less is not. Of
// two bar ends the one that lacks more comes first, whatever moment they leave uncovered.
TEST_P(SlabChecks, TheMissingLengthOfABarEndIsWhatMendsIt) {
    const std::size_t middle = 2;
    const double axis = model::axis(slab(), middle);
    auto with = [&](double to) {
        const auto d = after([&](auto& s) {
            std::erase_if(s.bars, [&](const BarRun& r) {
                return r.role == Role::TopMain && r.from < axis && r.to > axis;
            });
            s.bars.push_back({"b900", {}, Role::TopMain, axis - 3000, to, "H12", 100});
        });
        return *find(d, supportKey(middle, "curtailment-top"));
    };
    double last = 0;
    for (double reach : {900.0, 700.0, 500.0, 300.0}) {
        const auto short_ = with(axis + reach);
        ASSERT_EQ(short_.outcome, Outcome::Over) << reach;
        ASSERT_EQ(short_.kind, units::Kind::Length);
        EXPECT_FALSE(short_.here.empty());
        const double missing = short_.demand - short_.limit;
        EXPECT_GT(missing, last) << "the shorter the more";
        last = missing;
        EXPECT_EQ(with(axis + reach + missing + 1).outcome, Outcome::Within) << reach;
        EXPECT_EQ(with(axis + reach + missing - 20).outcome, Outcome::Over) << reach;
        EXPECT_LT(checks::ratio(short_), 3) << "of the order of what it is";
    }
}

TEST_P(SlabChecks, BottomBarsThatStopShortAreNotAnchored) {
    auto d = after([](auto& s) { first(s, Role::BottomMain).from = 300; });
    const auto* c = find(d, supportKey(0, "anchorage-bottom"));
    ASSERT_NE(c, nullptr);
    EXPECT_EQ(c->outcome, Outcome::Over);
    EXPECT_FALSE(c->here.empty());
}

TEST_P(SlabChecks, DistributionSteelMustCoverTheSlabAndSuffice) {
    auto shorter = after([](auto& s) { first(s, Role::BottomSecondary).to = 9000; });
    EXPECT_EQ(find(shorter, "/secondary")->outcome, Outcome::Over);
    auto thin = after([](auto& s) { first(s, Role::BottomSecondary).spacing = 900; });
    EXPECT_EQ(find(thin, "/secondary")->outcome, Outcome::Over);
    EXPECT_EQ(find(thin, "/secondary-spacing")->outcome, Outcome::Over);
    auto none = after([](auto& s) {
        std::erase_if(s.bars, [](const BarRun& r) { return r.role == Role::BottomSecondary; });
    });
    EXPECT_EQ(find(none, "/secondary")->outcome, Outcome::Within) << "the program's own are there again";
}

TEST_P(SlabChecks, HeavyLoadBreaksShearAndFlexure) {
    auto d = after([](auto& s) { s.imposed = 60e-3, s.shearLinks = false; });
    EXPECT_EQ(find(d, spanKey(2, "shear"))->outcome, Outcome::Over);
    EXPECT_EQ(find(d, spanKey(2, "flexure-bottom"))->outcome, Outcome::Over);
    EXPECT_EQ(find(d, supportKey(2, "flexure-top"))->outcome, Outcome::Over);
}

TEST_P(SlabChecks, AShortEndSpanIsLiftedAndSaysSo) {
    model::Project p = model::setSpans(project, "s1", {1000, 6000, 6000}, false, false);
    p = test::chosenBars(p);
    auto d = design::run(p);
    const auto* c = find(d, p.slabs[0]->supports[0].id + "/uplift");
    EXPECT_EQ(c->outcome, Outcome::Over);
    EXPECT_GT(c->demand, 0);
    EXPECT_FALSE(c->notes.empty());
    EXPECT_EQ(find(d, p.slabs[0]->supports[1].id + "/uplift")->outcome, Outcome::Within);
}

// Two spans by the three-moment theorem: what each of them does to the end support of the short one.
TEST_P(SlabChecks, UpliftIsByTheFactorsOfEquilibrium) {
    const double a = 2000, b = 6000;
    model::Project p = model::setSpans(project, "s1", {a, b}, false, false);
    p = test::chosenBars(p);
    const auto& slab = *p.slabs[0];
    double g = slab.thickness * p.basis.concreteDensity + slab.otherDead;
    for (const auto& f : slab.finishes) g += f.thickness * f.density;
    const bool en = p.basis.standard == "en1992";
    const double presses = a / 2 - a * a * a / (8 * a * (a + b)), lifts = b * b * b / (8 * a * (a + b));
    auto d = design::run(p);
    const auto* c = find(d, slab.supports[0].id + "/uplift");
    ASSERT_NE(c, nullptr);
    EXPECT_NEAR(c->demand, ((en ? 1.1 : 1.2) * g + (en ? 1.5 : 1.6) * slab.imposed) * lifts,
                1e-6 * c->demand);
    EXPECT_NEAR(c->limit, 0.9 * g * presses, 1e-6 * c->limit);
    EXPECT_EQ(c->outcome, Outcome::Over);
}

TEST_P(SlabChecks, BottomBarsThatStopBeforeASupportAreOver) {
    auto over = [&](const model::Project& p, std::size_t support) {
        auto d = design::run(p);
        const auto* c = find(d, supportKey(support, "through-bottom"));
        EXPECT_NE(c, nullptr);
        return c && c->outcome == Outcome::Over;
    };
    auto p = model::setSpans(project, "s1", {5000, 5000, 5000}, false, false);
    p = test::chosenBars(p);
    for (std::size_t s : {0, 1, 2, 3}) EXPECT_FALSE(over(p, s)) << s;
    // Every bottom bar of the middle span ends 600 mm before support 1; the first span's go on.
    auto cut = model::editSlab(p, "s1", [](model::OneWaySlab& s, model::Project&) {
        for (auto& r : s.bars)
            if (r.role == model::Role::BottomMain && r.from < 7500 && r.to > 7500) r.from = 5600;
    });
    EXPECT_TRUE(over(cut, 1));
    EXPECT_FALSE(over(cut, 2));
    // None of the first span reaches the end support.
    auto end = model::editSlab(p, "s1", [](model::OneWaySlab& s, model::Project&) {
        for (auto& r : s.bars)
            if (r.role == model::Role::BottomMain && r.from < 2500) r.from = 400;
    });
    EXPECT_TRUE(over(end, 0));
}

TEST_P(SlabChecks, EveryPlaceLiesOnTheSlab) {
    auto d = design::run(project);
    double a = model::concreteStart(slab()), b = model::concreteEnd(slab());
    for (const auto& c : d.slab(0).checks) {
        EXPECT_EQ(c.place.spot.part.element, "s1");
        EXPECT_GE(c.place.x, a - 1) << c.key;
        EXPECT_LE(c.place.x, b + 1) << c.key;
        EXPECT_LE(c.place.from, c.place.to);
    }
    EXPECT_EQ(d.slab(0).sag.size(), slab().spans.size());
    for (std::size_t i = 0; i < slab().spans.size(); ++i) {
        const auto& sag = d.slab(0).sag[i];
        EXPECT_NEAR(sag.total.front(), 0, 1e-9) << "no sag over a support";
        if (!model::isCantilever(slab(), i)) {
            EXPECT_NEAR(sag.total.back(), 0, 1e-9);
        }
    }
}

TEST_P(SlabChecks, TraceCanBeLeftOutWithTheSameVerdicts) {
    auto with = design::run(project), without = design::run(project, {.trace = false});
    ASSERT_EQ(with.slab(0).checks.size(), without.slab(0).checks.size());
    for (std::size_t i = 0; i < with.slab(0).checks.size(); ++i) {
        EXPECT_EQ(with.slab(0).checks[i].demand, without.slab(0).checks[i].demand);
        EXPECT_EQ(with.slab(0).checks[i].limit, without.slab(0).checks[i].limit);
        EXPECT_TRUE(without.slab(0).checks[i].steps.empty());
    }
}

TEST_P(SlabChecks, CantileverAtEitherEndIsTheMirrorOfTheOther) {
    auto lengthsOf = [](const model::OneWaySlab& s) {
        std::vector<double> l;
        for (const auto& span : s.spans) l.push_back(span.length);
        return l;
    };
    model::Project right = model::setSpans(project, "s1", {4200, 5000, 1500}, false, true);
    std::vector<double> mirrored = lengthsOf(*right.slabs[0]);
    std::reverse(mirrored.begin(), mirrored.end());
    model::Project left = model::setSpans(project, "s1", mirrored, true, false);
    for (auto* p : {&right, &left})
        *p = model::editSlab(*p, "s1", [](model::OneWaySlab& s, model::Project&) {
            for (auto& u : s.supports) u.width = 300, u.kind = model::Support::Kind::Beam;
            s.bars.clear();
        });
    auto r = design::run(right), l = design::run(left);
    std::size_t n = 3;
    for (std::size_t i = 0; i < n; ++i) {
        EXPECT_NEAR(r.slab(0).sag[i].largest, l.slab(0).sag[n - 1 - i].largest,
                    0.02 * std::abs(r.slab(0).sag[i].largest) + 0.02)
            << i;
        EXPECT_NEAR(r.slab(0).line.spans[i].moment, l.slab(0).line.spans[n - 1 - i].moment,
                    1e-6 * (1 + r.slab(0).line.spans[i].moment));
        EXPECT_NEAR(r.slab(0).line.supports[i].moment, l.slab(0).line.supports[n - 1 - i].moment,
                    1e-6 * (1 + r.slab(0).line.supports[i].moment));
    }
    EXPECT_NEAR(r.schedule().mass, l.schedule().mass, 0.02 * r.schedule().mass);
}

INSTANTIATE_TEST_SUITE_P(Catalogue, SlabChecks, ::testing::ValuesIn(standards::standardIds()),
                         [](const auto& row) {
                             std::string name = row.param;
                             std::replace(name.begin(), name.end(), '-', '_');
                             return name;
                         });
