// Sets of bases as an element: incremental answers, types against all groupings, remedies that hold, files.
#include "design/bases.h"

#include <gtest/gtest.h>

#include <cmath>
#include <functional>
#include <random>
#include <set>

#include "design/base_types.h"
#include "design/design.h"
#include "design/remedies.h"
#include "drawing/sheets.h"
#include "formats/column_loads.h"
#include "formats/ifc.h"
#include "formats/project_file.h"
#include "formats/tables.h"
#include "model/edits.h"
#include "report/margin.h"
#include "support/cases.h"
#include "support/reference.h"

using namespace talvik;

namespace {

model::Project demo(const char* what) {
    auto p = model::emptyProject();
    const std::string stem = std::string(TALVIK_SOURCE_DIR) + "/demos/sundvarg_" + what;
    auto read = formats::readColumnLoads(test::readText(stem + "_loads.csv"), {}, p);
    EXPECT_EQ(read.error, "");
    auto set = std::make_shared<model::BaseSet>(std::move(read.set));
    set->id = model::newId(p, 'f');
    set->name = what;
    std::string source;
    EXPECT_EQ(formats::readGround(test::readText(stem + "_ground.json"), p, *set, source), "");
    p.bases.push_back(set);
    EXPECT_TRUE(model::validate(p).empty()) << formats::sentences(model::validate(p));
    return p;
}
std::shared_ptr<const design::BasesAnswer> answer(const model::Project& p) {
    return std::dynamic_pointer_cast<const design::BasesAnswer>(design::designNow(p, p.bases[0]->id));
}

}  // namespace

TEST(BaseSets, DemosAreWithin) {
    for (const char* what : {"canopy", "cap"}) {
        const auto p = demo(what);
        const auto a = answer(p);
        ASSERT_TRUE(a);
        EXPECT_EQ(a->bases.size(), p.bases[0]->bases.size());
        for (const auto* c : a->all())
            EXPECT_NE(c->outcome, checks::Outcome::Over) << what << " " << c->title << " " << c->place.name;
        std::set<std::string> types;
        int number = 0;
        for (const auto& b : a->bases) {
            types.insert(b->type);
            EXPECT_FALSE(b->type.empty());
        }
        for (const auto& [name, n] : a->types) number += n;
        EXPECT_EQ(types.size(), a->types.size());
        EXPECT_EQ(number, int(a->bases.size()));
    }
    // One of the caps is pulled, and has from two to six piles.
    const auto a = answer(demo("cap"));
    bool pulled = false;
    for (const auto& b : a->bases) {
        EXPECT_GE(b->piles().size(), 2u);
        EXPECT_LE(b->piles().size(), 6u);
        for (const auto& c : b->checks)
            pulled |= c.key.ends_with("pile-tension") && checks::isJudged(c) && c.demand > 1;
    }
    EXPECT_TRUE(pulled);
}

TEST(BaseSets, FileKeepsAllOfThem) {
    for (const char* what : {"canopy", "cap"}) {
        auto p = demo(what);
        p = model::editBases(p, p.bases[0]->id, [](model::BaseSet& s, model::Project&) {
            auto& b = s.bases[0];
            b.B = 2500, b.offPinned = true, b.offX = 100, b.bar = s.bars[0], b.type = "edge",
            b.pilesAt = {{-600, 0}, {600, 250}};
            s.ground.water = true, s.pile.circular = false, s.approach = 2, s.twoFormulas = true;
            b.ratio = 1.5, b.pedestal = {700, 600, 400};
            s.ground.adhesion = 0.01, s.ground.passiveShare = 0.3, s.ground.layers = {{2000, 25, 0.25}};
            s.pile.lateral = 30e3, s.starterBar = "H16", s.sideBar = "H12", s.sideSpacing = 175;
            s.site = {{-9000, -9000}, {90000, -9000}, {90000, 90000}}, s.leftOut = {"1.35 G"};
            s.columns[0].from = {{"f9", "c3"}};
            s.linkBar = "H10", s.linkSpacing = 150;
            s.bases[1].top = {model::BaseTop::Kind::Stepped, 350, 75};
            if (s.kind == model::BaseSet::Kind::Pads) {
                s.bases[3].columns.resize(1);
                s.bases[3].strap = {s.bases[2].columns[0], 350, 900};
            }
        });
        const auto read = formats::readProject(formats::projectText(p));
        ASSERT_TRUE(read.trouble.empty()) << formats::sentences(read.trouble);
        EXPECT_TRUE(read.project.bases[0]->cases == p.bases[0]->cases);
        EXPECT_TRUE(read.project.bases[0]->columns == p.bases[0]->columns);
        EXPECT_TRUE(read.project.bases[0]->bases == p.bases[0]->bases);
        EXPECT_TRUE(read.project.bases[0]->ground == p.bases[0]->ground);
        EXPECT_TRUE(read.project.bases[0]->pile == p.bases[0]->pile);
        EXPECT_TRUE(*read.project.bases[0] == *p.bases[0]);
        EXPECT_TRUE(formats::readProject(formats::projectText(read.project)).project == read.project);
        const auto copy = formats::withCopy(p, p.bases[0]->id, "Copy");
        ASSERT_EQ(copy.project.bases.size(), 2u);
        EXPECT_EQ(copy.project.bases[1]->bases.size(), p.bases[0]->bases.size());
        EXPECT_NE(copy.project.bases[1]->bases[0].id, p.bases[0]->bases[0].id);
        EXPECT_TRUE(model::validate(copy.project).empty());
    }
}

TEST(BaseSets, SlipsAreSentencesWithTheirPlace) {
    auto p = demo("canopy");
    auto trouble = [&](auto change) {
        const auto q =
            model::editBases(p, p.bases[0]->id, [&](model::BaseSet& s, model::Project&) { change(s); });
        return formats::sentences(model::validate(q));
    };
    EXPECT_EQ(trouble([](model::BaseSet&) {}), "");
    EXPECT_NE(trouble([](auto& s) { s.ground.allowable = 0; }).find("allowable pressure"), std::string::npos);
    EXPECT_NE(trouble([](auto& s) { s.columns[3].x = std::nan(""); }).find("columns[3]"), std::string::npos);
    EXPECT_NE(trouble([](auto& s) { s.bases[2].columns = {"nowhere"}; }).find("no column"),
              std::string::npos);
    EXPECT_NE(trouble([](auto& s) { s.bases[1].columns = s.bases[0].columns; }).find("two bases"),
              std::string::npos);
    EXPECT_NE(trouble([](auto& s) {
                  s.site = {{0, 0}, {5000, 5000}, {5000, 0}, {0, 5000}};
              }).find("site"),
              std::string::npos);
    EXPECT_NE(trouble([](auto& s) {
                  s.ground.layers = {{2000, 0, 0.3}};
              }).find("modulus of a layer"),
              std::string::npos);
    EXPECT_NE(trouble([](auto& s) { s.ground.passiveShare = 1.5; }).find("passive"), std::string::npos);
    EXPECT_NE(trouble([](auto& s) { s.bases[0].pedestal.width = -3; }).find("pedestal"), std::string::npos);
    EXPECT_NE(trouble([](auto& s) { s.starterBar = "H99"; }).find("H99"), std::string::npos);
    EXPECT_NE(trouble([](auto& s) { s.bars = {"H99"}; }).find("H99"), std::string::npos);
    EXPECT_NE(trouble([](auto& s) {
                  s.kind = model::BaseSet::Kind::Caps, s.pile.compression = 0;
              }).find("compression"),
              std::string::npos);
    EXPECT_NE(trouble([](auto& s) { s.columns[0].actions[0].loadCase = "q999"; }).find("no load case"),
              std::string::npos);
}

// One edit after another, kept answers are those from nothing.
TEST(BaseSets, AnswersAfterEditsAreThoseFromNothing) {
    auto p = demo("canopy");
    design::BasesDesigner designer;
    std::mt19937 random(2);
    for (int k = 0; k < 12; ++k) {
        p = model::editBases(p, p.bases[0]->id, [&](model::BaseSet& s, model::Project&) {
            auto& b = s.bases[random() % s.bases.size()];
            if (k % 4 == 0) b.B = 2000 + 100 * double(random() % 10);
            if (k % 4 == 1) b.h = 400 + 50 * double(random() % 6);
            if (k % 4 == 2) s.columns[random() % s.columns.size()].actions[0].N *= 1.2;
            if (k % 4 == 3) s.ground.allowable = 0.15 + 0.01 * double(random() % 8);
        });
        std::shared_ptr<const design::ElementAnswer> kept;
        designer.design({std::make_shared<const model::Project>(p), p.bases[0]->id}, {}, {},
                        [&](auto a) { kept = std::move(a); });
        const auto fresh = answer(p);
        const auto text = [&](std::shared_ptr<const design::ElementAnswer> a) {
            return formats::baseChecksJson(design::joined(p, a->standard, {a})) +
                   formats::baseRegisterCsv(design::joined(p, a->standard, {a}));
        };
        ASSERT_TRUE(kept);
        EXPECT_EQ(text(kept), text(fresh)) << k;
    }
}

// Groupings in stretches against all there are.
TEST(BaseTypes, CostLeastAgainstAllGroupings) {
    std::mt19937 random(6);
    for (int k = 0; k < 200; ++k) {
        const std::size_t n = 1 + random() % 9, most = 1 + random() % n;
        std::vector<double> size, weight;
        for (std::size_t i = 0; i < n; ++i)
            size.push_back(1 + double(random() % 50)), weight.push_back(1 + double(random() % 5));
        std::sort(size.begin(), size.end());
        auto of = [&](std::size_t a, std::size_t b) {
            double w = 0;
            for (std::size_t i = a; i <= b; ++i) w += weight[i];
            return w * size[b] + 3;
        };
        const auto g = design::group(n, most, of);
        ASSERT_EQ(g.costs.size(), most);
        for (std::size_t types = 1; types <= most; ++types) {
            double best = 1e300;
            for (std::size_t cuts = 0; cuts < (std::size_t(1) << (n - 1)); ++cuts) {
                if (std::size_t(__builtin_popcountll(cuts)) >= types) continue;
                double cost = 0;
                std::size_t from = 0;
                for (std::size_t i = 0; i < n; ++i)
                    if (i + 1 == n || (cuts >> i & 1)) cost += of(from, i), from = i + 1;
                best = std::min(best, cost);
            }
            EXPECT_NEAR(g.costs[types - 1], best, 1e-9) << k << " " << types;
        }
        double own = 0;
        for (std::size_t i = 0; i < g.begins.size(); ++i)
            own += of(g.begins[i], i + 1 < g.begins.size() ? g.begins[i + 1] - 1 : n - 1);
        EXPECT_NEAR(own, g.costs.back(), 1e-9);
        EXPECT_LE(g.begins.size(), most);
    }
}

// Groupings in any sets against all partitions there are, written one after another.
TEST(BaseTypes, SetsLeastAgainstAllPartitions) {
    std::mt19937 random(16);
    for (int k = 0; k < 200; ++k) {
        const std::size_t n = 1 + random() % 7, most = 1 + random() % n;
        std::vector<double> a, b, weight;
        for (std::size_t i = 0; i < n; ++i)
            a.push_back(1 + double(random() % 50)), b.push_back(1 + double(random() % 50)),
                weight.push_back(1 + double(random() % 5));
        auto of = [&](unsigned set) {
            double A = 0, B = 0, w = 0;
            for (std::size_t i = 0; i < n; ++i)
                if (set >> i & 1) A = std::max(A, a[i]), B = std::max(B, b[i]), w += weight[i];
            return w * A * B + 3;
        };
        std::vector<double> best(n + 1, 1e300);
        std::vector<unsigned> parts;
        std::function<void(std::size_t, double)> place = [&](std::size_t i, double) {
            if (i == n) {
                double cost = 0;
                for (unsigned p : parts) cost += of(p);
                for (std::size_t t = parts.size(); t <= n; ++t) best[t] = std::min(best[t], cost);
                return;
            }
            for (std::size_t p = 0; p < parts.size(); ++p) {
                parts[p] |= 1u << i;
                place(i + 1, 0);
                parts[p] &= ~(1u << i);
            }
            parts.push_back(1u << i);
            place(i + 1, 0);
            parts.pop_back();
        };
        place(0, 0);
        const auto g = design::groupSets(n, most, of);
        ASSERT_EQ(g.costs.size(), most);
        for (std::size_t t = 1; t <= most; ++t) EXPECT_NEAR(g.costs[t - 1], best[t], 1e-9) << k;
        double own = 0;
        unsigned all = 0;
        for (unsigned t : g.types) {
            EXPECT_EQ(all & t, 0u);
            own += of(t), all |= t;
        }
        EXPECT_EQ(all, (1u << n) - 1);
        EXPECT_NEAR(own, g.costs.back(), 1e-9);
        EXPECT_LE(g.types.size(), most);
    }
}

TEST(BaseTypes, FewerTypesHoldAllTheirBases) {
    const auto p = demo("canopy");
    double before = 0;
    for (int most : {1, 2, 3, 8}) {
        const auto q = model::editBases(p, p.bases[0]->id,
                                        [&](model::BaseSet& s, model::Project&) { s.mostTypes = most; });
        const auto a = answer(q);
        // The base with a strap is a type of its own.
        EXPECT_LE(int(a->types.size()), std::max(2, most));
        double cost = 0;
        std::map<std::string, std::set<std::string>> shapes;
        for (const auto& b : a->bases) {
            cost += b->cost;
            shapes[b->type].insert(std::to_string(b->size().B) + "/" + std::to_string(b->size().h) +
                                   b->bottom()[0].text() + b->bottom()[1].text());
            for (const auto& c : b->checks)
                EXPECT_NE(c.outcome, checks::Outcome::Over) << most << " " << b->name << " " << c.title;
        }
        for (const auto& [type, all] : shapes) EXPECT_EQ(all.size(), 1u) << type;
        if (before > 0) {
            EXPECT_LE(cost, before * 1.001) << "more types cost no more";
        }
        before = cost;
        for (std::size_t i = 1; i < a->costs.size(); ++i) EXPECT_LE(a->costs[i], a->costs[i - 1]);
    }
    // By hand: three bases of one name are alike.
    const auto q = model::editBases(p, p.bases[0]->id, [&](model::BaseSet& s, model::Project&) {
        for (int i : {0, 4, 7}) s.bases[std::size_t(i)].type = "Mine";
    });
    const auto a = answer(q);
    for (int i : {4, 7}) EXPECT_EQ(a->bases[std::size_t(i)]->size().B, a->bases[0]->size().B);
    EXPECT_EQ(a->bases[0]->type, "Mine");
}

// Five hundred bases with pins that do not do, one by one; whatever is offered holds when it is done.
TEST(BaseSets, RemediesHold) {
    std::mt19937 random(8);
    auto u = [&](double low, double high) { return low + (high - low) * double(random() % 1000) / 999; };
    const int wanted = test::share(500);
    int failing = 0, offered = 0;
    std::map<std::string, int> kinds;
    for (int k = 0; failing < wanted && k < 3000; ++k) {
        auto p = model::emptyProject();
        auto set = std::make_shared<model::BaseSet>();
        set->id = model::newId(p, 'f'), set->name = "One";
        set->cases = {{"q1", "G", {actions::Nature::Permanent, ""}},
                      {"q2", "Q", {actions::Nature::Imposed, "B"}},
                      {"q3", "W", {actions::Nature::Wind, ""}}};
        set->columns = {{"c1",
                         "A1",
                         0,
                         0,
                         400,
                         400,
                         {{"q1", u(200, 1500) * 1e3},
                          {"q2", u(0, 900) * 1e3},
                          {"q3", 0, u(-30, 30) * 1e3, 0, 0, u(-120, 120) * 1e6}}}};
        model::Base b;
        b.id = "b1", b.columns = {"c1"};
        set->ground.depth = 1500;
        if (k % 3 == 0) {
            set->kind = model::BaseSet::Kind::Caps;
            set->pile.compression = u(500, 1500) * 1e3, set->pile.tension = 150e3, set->pile.lateral = 60e3;
            b.piles = 1 + int(random() % 3), b.h = k % 2 ? 400 : 0;
        } else if (k % 3 == 1) {
            b.B = 50 * std::round(u(20, 50)), b.L = k % 2 ? b.B : 0;
        } else {
            b.h = 50 * std::round(u(4, 9)), b.spacing = k % 2 ? 300 : 0, b.bar = k % 4 == 0 ? "H12" : "";
        }
        set->bases = {b};
        p.bases.push_back(set);
        ASSERT_TRUE(model::validate(p).empty()) << formats::sentences(model::validate(p));
        const auto now = answer(p);
        const model::PartRef part{set->id, model::PartKind::Base, "b1"};
        if (now->find(part)->worst() <= 1) continue;
        ++failing;
        for (const auto& r : design::remedies(p, part, {}, {}).found) {
            ++offered;
            ++kinds[r.text.substr(0, r.text.find(' '))];
            const auto then = answer(r.project);
            for (const auto& c : then->find(part)->checks)
                EXPECT_NE(c.outcome, checks::Outcome::Over) << k << " " << r.text << ": " << c.title;
            EXPECT_TRUE(model::validate(r.project).empty());
        }
    }
    EXPECT_EQ(failing, wanted);
    EXPECT_GT(offered, wanted * 9 / 5);
    for (const char* kind : {"Release", "Depth", "In", "Concrete", "Pedestal"})
        EXPECT_GT(kinds[kind], 0) << kind;
}

// Bases that lie on each other are told, both, and joined by what is offered.
TEST(BaseSets, OverlapsAreToldAndJoined) {
    auto p = demo("canopy");
    p = model::editBases(p, p.bases[0]->id, [](model::BaseSet& s, model::Project&) {
        for (auto& b : s.bases) b.B = b.L = 2600;
        for (auto& c : s.columns)
            if (c.name == "C1") c.x = 21600 - 2500;  // 100 mm into the base of D1
    });
    auto over = [](const design::BasesAnswer& a) {
        std::set<std::string> names;
        for (const auto& b : a.bases)
            for (const auto& c : b->checks)
                if (c.key.ends_with("/clear")) {
                    EXPECT_EQ(c.outcome, checks::Outcome::Over);
                    EXPECT_NEAR(c.demand, 100, 1e-6);
                    names.insert(b->name);
                }
        return names;
    };
    design::BasesDesigner designer;
    auto live = [&](const model::Project& q) {
        std::shared_ptr<const design::ElementAnswer> got;
        designer.design({std::make_shared<const model::Project>(q), q.bases[0]->id}, {}, {},
                        [&](auto a) { got = std::move(a); });
        return std::dynamic_pointer_cast<const design::BasesAnswer>(got);
    };
    const auto now = live(p);
    EXPECT_EQ(over(*now), (std::set<std::string>{"Base C1", "Base D1"}));
    // Against all pairs, on random plans.
    std::mt19937 random(3);
    for (int k = 0; k < 20; ++k) {
        auto q = model::editBases(p, p.bases[0]->id, [&](model::BaseSet& s, model::Project&) {
            for (auto& c : s.columns) c.x += double(random() % 4000), c.y += double(random() % 9000);
            s.site.clear();
        });
        const auto a = live(q);
        for (std::size_t i = 0; i < a->bases.size(); ++i) {
            std::vector<std::size_t> on;
            for (std::size_t j = 0; j < a->bases.size(); ++j) {
                const auto &x = *a->bases[i], &y = *a->bases[j];
                if (i != j && std::abs(x.centre.x - y.centre.x) < (x.size().B + y.size().B) / 2 - 1 &&
                    std::abs(x.centre.y - y.centre.y) < (x.size().L + y.size().L) / 2 - 1)
                    on.push_back(j);
            }
            EXPECT_EQ(a->bases[i]->overlaps, on) << k << " " << i;
        }
    }
    const model::PartRef part = now->bases[5]->part;
    bool joined = false;
    for (const auto& b : now->bases) {
        if (b->name != "Base C1") continue;
        for (const auto& r : design::remedies(p, b->part, {}, {}).found)
            if (r.text.starts_with("One base for")) {
                joined = true;
                EXPECT_TRUE(over(*answer(r.project)).empty());
                EXPECT_EQ(r.project.bases[0]->bases.size(), p.bases[0]->bases.size() - 1);
            }
    }
    EXPECT_TRUE(joined);
    // And taken back where they no longer do.
    const auto apart = model::editBases(p, p.bases[0]->id, [](model::BaseSet& s, model::Project&) {
        for (auto& c : s.columns)
            if (c.name == "C1") c.x = 14400;
    });
    EXPECT_TRUE(over(*live(apart)).empty());
}

// Sizes offered as alternatives carry, each of them pinned; the solved one is among them.
TEST(BaseSets, AlternativesCarryWhenPinned) {
    for (const char* what : {"canopy", "cap"}) {
        const auto p = demo(what);
        const auto a = answer(p);
        int tried = 0;
        for (std::size_t n : {std::size_t(0), std::size_t(3)}) {
            const auto& base = *a->bases[n];
            const auto all = design::alternatives(*a, base);
            ASSERT_GT(all.size(), 3u) << what;
            bool own = false;
            for (std::size_t i = 0; i < all.size(); ++i) {
                const auto& s = all[i];
                own |= s.size.B == base.size().B && s.size.L == base.size().L && s.size.h == base.size().h;
                EXPECT_GE(s.cost, all[i ? i - 1 : 0].cost);
                const auto q = model::editBases(p, p.bases[0]->id, [&](model::BaseSet& set, model::Project&) {
                    auto& b = set.bases[n];
                    // Fixed sizes are those of rectangles: outlines cut to their piles follow their number.
                    if (s.size.outline.empty()) b.B = s.size.B, b.L = s.size.L;
                    b.h = s.size.h, b.piles = s.piles;
                });
                const auto then = answer(q);
                EXPECT_NEAR(then->bases[n]->cost, s.cost, 1e-6 * s.cost);
                for (const auto& c : then->bases[n]->checks)
                    EXPECT_NE(c.outcome, checks::Outcome::Over) << what << " " << c.title;
                ++tried;
            }
            EXPECT_TRUE(own) << what << " " << n;
        }
        EXPECT_GT(tried, 10);
    }
}

// A combination left out governs nothing, and is listed as not checked.
TEST(BaseSets, CombinationsLeftOutAreNamed) {
    const auto p = demo("canopy");
    const auto before = answer(p);
    const auto* governs = before->bases[4]->governing();
    ASSERT_TRUE(governs && !governs->combination.empty());
    const auto q = model::editBases(p, p.bases[0]->id, [&](model::BaseSet& s, model::Project&) {
        s.leftOut = {governs->combination, "never made"};
    });
    const auto after = answer(q);
    for (const auto* c : after->all()) {
        if (c->topic == checks::Topic::Omission) continue;
        EXPECT_NE(c->combination, governs->combination) << c->title;
    }
    bool named = false;
    for (const auto& c : after->checks)
        named |= c.topic == checks::Topic::Omission && c.title == "Combination " + governs->combination;
    EXPECT_TRUE(named);
    // For one base alone: the others are as they were.
    const auto one = answer(model::editBases(p, p.bases[0]->id, [&](model::BaseSet& s, model::Project&) {
        s.bases[4].leftOut = {governs->combination};
    }));
    bool told = false;
    for (const auto& c : one->bases[4]->checks) {
        told |= c.topic == checks::Topic::Omission && c.title == "Combination " + governs->combination;
        EXPECT_TRUE(c.topic == checks::Topic::Omission || c.combination != governs->combination) << c.title;
    }
    EXPECT_TRUE(told);
    EXPECT_EQ(one->bases[1]->checks.size(), before->bases[1]->checks.size());
}

// Nothing that reads answers has a branch for bases: margin, report, JSON, drawings, model have them.
TEST(BaseSets, AreInAllThatLeaves) {
    for (const char* what : {"canopy", "cap"}) {
        const auto p = demo(what);
        const auto d = design::run(p, {.trace = false});
        ASSERT_TRUE(d.trouble.empty());
        const auto& e = *d.elements.at(0);
        const auto schedule = d.scheduleOf(e);
        EXPECT_NEAR(schedule.mass, e.steel, 0.01 * e.steel);
        const auto sheets = drawing::sheets(p, d, e);
        EXPECT_GE(sheets.size(), 2u);
        for (const auto& s : sheets)
            for (const auto& i : s.items)
                if (const auto* t = std::get_if<drawing::Text>(&i)) {
                    EXPECT_TRUE(t->at.x >= 0 && t->at.x <= s.width && t->at.y >= 0 && t->at.y <= s.height)
                        << t->text;
                }
        const auto lines =
            report::margin(p, d, {e.element, model::Spot{e.parts[0]->part, model::Spot::In::Whole, {}}});
        bool seen = false;
        for (const auto& l : lines) seen |= l.check != nullptr;
        EXPECT_TRUE(seen);
        // What it takes is told in the units that it has.
        const auto* first = dynamic_cast<const design::BasePart*>(e.parts[0].get());
        bool told = false;
        for (const auto& f :
             e.facts(model::Spot{first->part, model::Spot::In::Whole, {}}, units::System::Metric))
            told |= f.text == "Concrete, steel" && std::abs(std::stod(f.value) - first->concrete) < 0.06;
        EXPECT_TRUE(told);
        EXPECT_NE(formats::resultsJson(p, d).find("\"along_x\""), std::string::npos);
        EXPECT_GT(formats::ifcText(p, d).size(), 500u);
        // Working of a check is that of the check.
        const auto working = e.withWorking(*e.parts[0]);
        ASSERT_EQ(working.size(), e.parts[0]->checks.size());
        int steps = 0;
        for (std::size_t i = 0; i < working.size(); ++i) {
            EXPECT_EQ(working[i].key, e.parts[0]->checks[i].key);
            EXPECT_NEAR(working[i].demand, e.parts[0]->checks[i].demand,
                        1e-6 * std::abs(working[i].demand) + 1e-9);
            EXPECT_NEAR(working[i].limit, e.parts[0]->checks[i].limit,
                        1e-6 * std::abs(working[i].limit) + 1e-9);
            steps += int(working[i].steps.size());
            // Each step says what it gives.
            for (const auto& s : working[i].steps) {
                if (s.expression.empty()) continue;
                const auto v = units::evaluate(trace::substitutedExpression(s));
                ASSERT_TRUE(v.value) << s.symbol << " " << trace::substitutedExpression(s);
                EXPECT_NEAR(*v.value, s.result, 2e-3 * std::abs(s.result) + 1e-6)
                    << working[i].title << ": " << s.symbol;
            }
        }
        EXPECT_GT(steps, 15);
    }
}
