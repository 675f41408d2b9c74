// Strips, bars and checks of floors against brute force and equilibrium.
#include "design/floor_design.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numbers>

#include "formats/project_file.h"
#include "model/edits.h"
#include "support/cases.h"
#include "support/random_floor.h"
#include "support/regular_floor.h"

namespace talvik {
namespace {

model::Project projectOf(model::Floor f, const std::string& standard = "en1992") {
    model::Project p = model::emptyProject();
    p.basis.standard = standard;
    p.floors.push_back(std::make_shared<const model::Floor>(std::move(f)));
    return p;
}

// A second layer of bars needs a depth; without one there is no design but a sentence. Where there is one,
// every figure is a number.
TEST(FloorDesign, ASlabTooThinForItsBarsIsToldNotDesigned) {
    for (const bool onGround : {false, true})
        for (double thickness = 50; thickness <= 160; thickness += 5) {
            auto p = test::regularFloor(2, 2, 3000, 3000, thickness);
            auto f = *p.floors[0];
            if (onGround) f.columns.clear(), f.grounds = {{"g1", "", {}, 0.02}};
            p.floors = {std::make_shared<const model::Floor>(f)};
            const double cover = onGround ? p.basis.coverFoundation : p.basis.coverTop;
            const auto answer =
                std::dynamic_pointer_cast<const design::FloorDesign>(design::designNow(p, "f1"));
            ASSERT_TRUE(answer && answer->analysis->good());
            // The inner layer of H20 lies 30 mm inside the cover, with 20 mm of depth at least.
            if (thickness < cover + 30 + 20) {
                EXPECT_NE(answer->error.find("Slab S, " + units::plain(thickness) + " mm thick"),
                          std::string::npos)
                    << answer->error;
                EXPECT_NE(answer->error.find("at least " + units::plain(cover + 50) + " mm"),
                          std::string::npos)
                    << answer->error;
                EXPECT_TRUE(answer->all().empty());
                continue;
            }
            EXPECT_EQ(answer->error, "");
            EXPECT_FALSE(answer->all().empty());
            for (const auto* c : answer->all())
                EXPECT_TRUE(std::isfinite(c->demand) && std::isfinite(c->limit))
                    << thickness << ' ' << c->key;
        }
}

// Where the margin says within, the steel provided is nowhere less than required: worked out anew at every
// station from the analysis' own moments, whatever the checks chose to look at.
TEST(FloorDesign, ProvidedCoversRequiredWhereverTheMarginSaysWithin) {
    int stations = 0, strips = 0, over = 0;
    for (unsigned seed = 1; seed <= unsigned(test::share(200)); ++seed) {
        auto f = test::randomFloor(seed);
        // Most along the floor's own sides, some askew of them.
        const auto &a = f.slabs[0].outline[1], &b = f.slabs[0].outline[2];
        double turn = std::atan2(b.y - a.y, b.x - a.x) * 180 / std::numbers::pi - 90;
        if (seed % 4) f.strips.rules = {true, {turn, turn + 90}};
        auto p = projectOf(f, seed % 3 ? "en1992" : "aci318-si");
        auto d = design::designFloor(p, 0, {}, false);
        if (!d) continue;
        for (const auto& s : d->strips) {
            ++strips;
            for (bool top : {false, true}) {
                bool within = true, any = false;
                for (const auto& c : s->checks) {
                    bool flexure = c.key.ends_with(top ? "/flexure-top" : "/flexure-bottom");
                    if (!flexure) continue;
                    any = true;
                    within = within && c.outcome == checks::Outcome::Within;
                }
                if (!within) ++over;
                if (!within || !any) continue;
                const auto& st = s->stations();
                for (std::size_t i = 0; i < st.size(); ++i) {
                    double m = (top ? s->demand.top : s->demand.bottom)[i].value;
                    if (m <= 1 || st[i].u < s->strip->from + 90 || st[i].u > s->strip->to - 90) continue;
                    // Bottom steel at the last faces is judged by its anchorage; over supports by the faces.
                    bool inSpan = false;
                    for (const auto& span : s->strip->spans)
                        inSpan |= st[i].u > span.clearFrom + 5 && st[i].u < span.clearTo - 5;
                    if (!top && !inSpan) continue;
                    double as = 0, phi = 0;
                    for (const auto& r : s->runs)
                        if (r.top() == top && r.from <= st[i].u && st[i].u <= r.to) {
                            as += r.area * (r.band() ? std::min(1.0, r.width / st[i].width) : 1);
                            phi = std::max(phi, r.diameter);
                        }
                    ASSERT_GT(as, 0) << seed << " " << s->strip->key << " u " << st[i].u << " top " << top
                                     << " m " << m / 1e6;
                    double cover = top ? p.basis.coverTop : p.basis.coverBottom;
                    double depth = st[i].thickness - cover - (top ? s->outerTop : s->outerBottom) - phi / 2;
                    standards::Section section{st[i].width, st[i].thickness,          depth,
                                               40,          p.basis.concreteStrength, p.basis.steelYield};
                    double resistance = d->standard->flexure->resistance(section, as * st[i].width, 0).M;
                    double other = 0;
                    for (const auto& r : s->runs)
                        if (r.top() != top && r.from <= st[i].u && st[i].u <= r.to) other += r.area;
                    if (resistance < m)
                        resistance =
                            d->standard->flexure->resistance(section, as * st[i].width, other * st[i].width)
                                .M;
                    EXPECT_GE(resistance, m * (1 - 1e-6))
                        << seed << " " << s->strip->key << " u " << st[i].u << " top " << top;
                    ++stations;
                }
            }
        }
    }
    EXPECT_GT(stations, test::share(10000));
    EXPECT_LT(over, strips / 4) << "most random floors can be reinforced";
}

// Where the margin says that bar ends are within, the bars as anchored resist at every station what is asked
// within the standard's shift of it; and where flexure is within, the program's own bars hardly ever end too
// early or crack too wide.
TEST(FloorDesign, BarEndsResistTheMovedMomentWhereverTheMarginSaysWithin) {
    int stations = 0, judged = 0, early = 0, wide = 0;
    for (unsigned seed = 1; seed <= unsigned(test::share(200)); ++seed) {
        auto f = test::randomFloor(seed);
        f.grounds.clear();  // uplift on half a floor asks for more than slabs can have
        const auto &a = f.slabs[0].outline[1], &b = f.slabs[0].outline[2];
        double turn = std::atan2(b.y - a.y, b.x - a.x) * 180 / std::numbers::pi - 90;
        f.strips.rules = {true, {turn, turn + 90}};
        const bool aci = seed % 3 == 0;
        auto p = projectOf(f, aci ? "aci318-si" : "en1992");
        auto d = design::designFloor(p, 0, {}, false);
        if (!d) continue;
        for (const auto& s : d->strips)
            for (bool top : {false, true}) {
                bool flexure = true, ends = true, cracks = true;
                int here = 0;
                for (const auto& c : s->checks) {
                    const bool fine = c.outcome == checks::Outcome::Within;
                    if (c.key.ends_with(top ? "/flexure-top" : "/flexure-bottom")) flexure &= fine, ++here;
                    if (c.key.ends_with(top ? "/curtailment-top" : "/curtailment-bottom")) ends &= fine;
                    if (c.key.ends_with(top ? "/crack-top" : "/crack-bottom"))
                        cracks &= c.outcome != checks::Outcome::Over;
                }
                if (!flexure || here == 0) continue;
                ++judged;
                early += !ends, wide += !cracks;
                if (!ends) continue;
                const auto& st = s->stations();
                const auto& demand = top ? s->demand.top : s->demand.bottom;
                double most = 0;
                for (std::size_t i = 0; i < st.size(); ++i)
                    most = std::max(most, demand[i].value / st[i].width);
                for (std::size_t i = 0; i < st.size(); ++i) {
                    if (bars::leftToEdge(*s->strip, st[i], std::max(p.basis.coverSide + 50, st[i].thickness)))
                        continue;
                    bool inSpan = top;
                    for (const auto& span : s->strip->spans)
                        inSpan |= st[i].u > span.clearFrom + 1.5 * st[i].thickness &&
                                  st[i].u < span.clearTo - 1.5 * st[i].thickness;
                    if (!inSpan) continue;
                    double steel = 0, other = 0, phi = 0;
                    for (const auto& r : s->runs) {
                        if (r.from > st[i].u || r.to < st[i].u) continue;
                        double share = std::min(
                            {1.0, (st[i].u - r.from) / r.anchorStart, (r.to - st[i].u) / r.anchorEnd});
                        if (r.band()) share *= std::min(1.0, r.width / st[i].width);
                        (r.top() == top ? steel : other) += share * r.area;
                        if (r.top() == top) phi = std::max(phi, r.diameter);
                    }
                    double cover = top ? p.basis.coverTop : p.basis.coverBottom;
                    double depth = st[i].thickness - cover - (top ? s->outerTop : s->outerBottom) - phi / 2;
                    // EN 1992-1-1 9.2.1.3 (2) for slabs; ACI 318-19 7.7.3.3.
                    double shift = aci ? std::max(depth, 12 * phi) : depth, asks = 0;
                    for (std::size_t k = 0; k < st.size(); ++k)
                        if (std::abs(st[k].u - st[i].u) <= shift - 1)
                            asks = std::max(asks, demand[k].value / st[k].width);
                    if (asks < 0.02 * most) continue;
                    standards::Section section{1000, st[i].thickness,          depth,
                                               40,   p.basis.concreteStrength, p.basis.steelYield};
                    double holds = d->standard->flexure->resistance(section, steel * 1000, 0).M / 1000;
                    if (holds < asks)
                        holds =
                            d->standard->flexure->resistance(section, steel * 1000, other * 1000).M / 1000;
                    EXPECT_GE(holds, asks * (1 - 1e-6))
                        << seed << " " << s->strip->key << " u " << st[i].u << " top " << top;
                    ++stations;
                }
            }
    }
    EXPECT_GT(stations, test::share(20000));
    EXPECT_LT(early, 0.01 * judged);
    EXPECT_LT(wide, 0.01 * judged);
    RecordProperty("early", early);
    RecordProperty("judged", judged);
}

TEST(FloorDesign, TheAnswerOfOneEditIsThatOfDesigningAnew) {
    auto read = formats::openProject(std::string(TALVIK_SOURCE_DIR) + "/demos/sundvarg_fish_hall.talvik");
    ASSERT_TRUE(read.trouble.empty());
    auto p = read.project;
    auto a = std::make_shared<const analysis::FloorAnalysis>(design::analyseFloor(p, 0));
    design::FloorDesigner kept;
    auto before = kept.design(p.floors[0], a, p.basis);
    ASSERT_TRUE(before);
    const auto& strip = *before->strips[before->strips.size() / 2];
    const auto& run = strip.runs.front();
    auto f = std::make_shared<model::Floor>(*p.floors[0]);
    f->strips.bars.push_back(
        {"x1", strip.strip->key, run.role, run.from, run.to, "H16", 125, run.start, run.end});
    auto after = kept.design(f, a, p.basis);
    auto anew = design::FloorDesigner().design(f, a, p.basis);
    ASSERT_EQ(after->strips.size(), anew->strips.size());
    std::size_t same = 0;
    for (std::size_t i = 0; i < after->strips.size(); ++i) {
        same += after->strips[i] == before->strips[i];
        ASSERT_EQ(after->strips[i]->checks.size(), anew->strips[i]->checks.size()) << i;
        for (std::size_t k = 0; k < anew->strips[i]->checks.size(); ++k) {
            EXPECT_EQ(after->strips[i]->checks[k].key, anew->strips[i]->checks[k].key);
            EXPECT_EQ(after->strips[i]->checks[k].demand, anew->strips[i]->checks[k].demand);
            EXPECT_EQ(after->strips[i]->checks[k].limit, anew->strips[i]->checks[k].limit);
        }
    }
    EXPECT_GT(same, after->strips.size() / 3) << "strips that the edit does not touch stay";
    bool found = false;
    for (const auto& r : after->find(strip.strip->key)->runs) found |= r.fixed && r.id == "x1";
    EXPECT_TRUE(found);
}

TEST(FloorDesign, WorkingIsThatOfTheCheck) {
    auto d = design::designFloor(projectOf(test::randomFloor(12)), 0, {}, false);
    ASSERT_TRUE(d);
    int looked = 0;
    for (const auto& s : d->strips)
        for (const auto& c : s->checks) {
            if (looked > 400) break;
            auto open = design::withWorking(*d, c);
            EXPECT_EQ(open.demand, c.demand) << c.key;
            EXPECT_EQ(open.limit, c.limit) << c.key;
            EXPECT_TRUE(c.steps.empty());
            if (c.key.ends_with("flexure-bottom") || c.key.ends_with("/shear")) {
                EXPECT_FALSE(open.steps.empty());
            }
            ++looked;
        }
    EXPECT_GT(looked, 50);
}

TEST(FloorDesign, OuterLayersLieDeeperAndMinimumSteelCanBeSwitchedOff) {
    auto f = test::randomFloor(21);
    auto p = projectOf(f);
    auto d = design::designFloor(p, 0, {}, false);
    for (const auto& s : d->strips) {
        EXPECT_EQ(s->outerTop > 0, s->strip->direction != 0);
        EXPECT_EQ(s->outerBottom > 0, s->strip->direction != 0);
    }
    f.strips.rules.outerTop = 1;
    p.basis.minimumSteel = false;
    d = design::designFloor(projectOf(f), 0, {}, false);
    for (const auto& s : d->strips) EXPECT_EQ(s->outerTop > 0, s->strip->direction == 0);
    auto q = projectOf(f);
    q.basis.minimumSteel = false;
    d = design::designFloor(q, 0, {}, false);
    int off = 0;
    for (const auto* c : d->all())
        if (c->key.find("/minimum-") != std::string::npos) off += c->outcome == checks::Outcome::NotChecked;
    EXPECT_GT(off, 0) << "the margin says what was switched off";
}

TEST(FloorDesign, StripsAcrossOneWayOnesHaveDistributionSteel) {
    auto p = test::regularFloor(2, 2, 7000, 5000, 200);
    auto f = std::make_shared<model::Floor>(*p.floors[0]);
    f->columns.clear();
    f->slabs[0].outline = test::rectangle(-100, 0, 14100, 9000);
    for (int i = 0; i < 3; ++i)
        f->walls.push_back({"w" + std::to_string(i), "", {i * 7000.0, 0}, {i * 7000.0, 9000}, 200});
    p.floors[0] = f;
    auto d = design::designFloor(p, 0, {}, false);
    ASSERT_TRUE(d);
    double most = 0;
    for (const auto& s : d->strips)
        if (s->strip->direction == 0)
            for (const auto& r : s->runs)
                if (!r.top()) most = std::max(most, r.area);
    int checked = 0;
    for (const auto& s : d->strips)
        for (const auto& c : s->checks)
            if (c.key.ends_with("/secondary")) {
                ++checked;
                EXPECT_EQ(s->strip->direction, 1);
                EXPECT_NEAR(c.limit, 0.2 * most, 1e-9);  // EN 1992-1-1 9.3.1.1(2)
                EXPECT_EQ(c.outcome, checks::Outcome::Within);
            }
    EXPECT_GT(checked, 0);
}

TEST(FloorDesign, AGapIsACheckOverItsLimit) {
    auto f = test::randomFloor(4);
    f.strips.rules.automatic[1] = false;
    auto d = design::designFloor(projectOf(f), 0, {}, false);
    const auto* c = d->check(f.id + "/uncovered-2");
    ASSERT_TRUE(c);
    EXPECT_EQ(c->outcome, checks::Outcome::Over);
    EXPECT_FALSE(c->here.empty());
    EXPECT_EQ(d->check(f.id + "/uncovered-1")->outcome, checks::Outcome::Within);
}

TEST(FloorDesign, RedistributionLowersSupportsAndRaisesSpans) {
    int judged = 0;
    for (unsigned seed = 1; seed <= 12; ++seed) {
        auto f = test::randomFloor(seed);
        auto plain = design::designFloor(projectOf(f), 0, {}, false);
        f.strips.rules.redistribution = 0.15;
        auto moved = design::designFloor(projectOf(f), 0, {}, false);
        for (std::size_t i = 0; i < plain->strips.size(); ++i) {
            const auto &a = *plain->strips[i], &b = *moved->strips[i];
            if (a.strip->supports.size() < 3) continue;
            double topA = 0, topB = 0, bottomA = 0, bottomB = 0;
            for (std::size_t k = 0; k < a.stations().size(); ++k) {
                topA = std::max(topA, a.demand.top[k].value), topB = std::max(topB, b.demand.top[k].value);
                bottomA = std::max(bottomA, a.demand.bottom[k].value),
                bottomB = std::max(bottomB, b.demand.bottom[k].value);
            }
            EXPECT_LE(topB, topA * (1 + 1e-9));
            EXPECT_GE(bottomB, bottomA * (1 - 1e-9));
            for (const auto& c : b.checks) judged += c.key.ends_with("/redistribution");
        }
    }
    EXPECT_GT(judged, 0);
}

// What the analysis takes from the standard follows the project's own parameters, not the recommended ones.
TEST(FloorBasis, IsOfTheProjectsOwnStandard) {
    auto standard = standards::makeStandard("en1992", {{"gamma_c", 1.35}});
    const auto basis = model::emptyProject().basis;
    std::weak_ptr<const standards::Standard> watch = standard;
    auto of = design::floorBasis(basis, standard);
    const auto* wanted = standard.get();
    standard.reset();
    ASSERT_FALSE(watch.expired()) << "kept as long as the basis lives";
    EXPECT_EQ(watch.lock().get(), wanted);
    of = {};
    EXPECT_TRUE(watch.expired());
}

}  // namespace
}  // namespace talvik
