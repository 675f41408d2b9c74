// Plain jobs from an empty project, with the values that statics and clauses give by hand.
#include <gtest/gtest.h>

#include <cmath>
#include <numbers>

#include "design/bases.h"
#include "design/connection_sites.h"
#include "design/connections.h"
#include "design/design.h"
#include "design/floor_design.h"
#include "design/pile_schedule.h"
#include "design/remedies.h"
#include "formats/column_loads.h"
#include "layout/panels.h"
#include "model/edits.h"
#include "support/regular_floor.h"

using namespace talvik;
using checks::Outcome;
using checks::Topic;

namespace {

std::string failing(const design::ElementAnswer& answer) {
    std::string all;
    for (const auto* c : answer.all())
        if (c->outcome == Outcome::Over) all += c->key + " " + std::to_string(checks::ratio(*c)) + "; ";
    return all;
}
std::shared_ptr<const design::FloorDesign> designed(const model::Project& p) {
    return std::dynamic_pointer_cast<const design::FloorDesign>(design::designNow(p, p.floors[0]->id));
}
// An empty floor with its three cases and loads all over.
model::Project floorOf(model::Floor& f, double permanent, double imposed) {
    auto p = test::regularFloor(2, 2, 5000, 5000);
    f.id = "f1", f.name = "Deck";
    f.actions = p.floors[0]->actions;
    f.actions.loads[0].value = permanent * 1e-3, f.actions.loads[1].value = imposed * 1e-3;
    return p;
}
model::Project with(model::Project p, const model::Floor& f) {
    p.floors[0] = std::make_shared<model::Floor>(f);
    return p;
}
void columns(model::Floor& f, const std::vector<double>& xs, const std::vector<double>& ys, double side) {
    for (double x : xs)
        for (double y : ys) {
            model::Column c{"c" + std::to_string(f.columns.size() + 1), "", x, y};
            c.width = c.depth = side, c.heightBelow = 3000, c.above = false;
            f.columns.push_back(c);
        }
}
void beam(model::Floor& f, model::Point a, model::Point b, double width, double depth) {
    f.beams.push_back({"b" + std::to_string(f.beams.size() + 1), "", a, b, width, depth});
}

model::Project flatSlab() {
    model::Floor f;
    auto p = floorOf(f, 1.6, 3);
    f.slabs.push_back({"d1", "S", test::rectangle(-200, -200, 21800, 13400), 280});
    columns(f, {0, 7200, 14400, 21600}, {0, 6600, 13200}, 400);
    p.basis.shearSteel = model::ConnectionChoice::Steel::Studs;
    return with(p, f);
}
model::Project beamsOneWay(double balcony) {
    model::Floor f;
    auto p = floorOf(f, 1, 3);
    f.slabs.push_back({"d1", "S", test::rectangle(-175, -175 - balcony, 36175, 10975), 180});
    columns(f, {0, 6000, 12000, 18000, 24000, 30000, 36000}, {0, 5400, 10800}, 350);
    for (double y : {0.0, 5400.0, 10800.0}) beam(f, {0, y}, {36000, y}, 300, 550);
    if (balcony > 0) {
        model::FloorLoad rail;
        rail.id = "l9", rail.loadCase = "q2", rail.kind = model::FloorLoad::Kind::Line, rail.value = 1;
        rail.a = {-175, -155 - balcony}, rail.b = {36175, -155 - balcony};
        auto more = f.actions.loads[1];
        more.id = "l10", more.value = 1e-3, more.outline = test::rectangle(-175, -175 - balcony, 36175, -150);
        f.actions.loads.push_back(rail), f.actions.loads.push_back(more);
    }
    return with(p, f);
}

}  // namespace

TEST(Jobs, OneWaySlabOfOneSpan) {
    auto p = model::setSpans(model::newProject(), "s1", {4800}, false, false);
    p = model::editSlab(p, "s1", [](model::OneWaySlab& s, model::Project&) {
        s.thickness = 200, s.width = 6000, s.otherDead = 1.5e-3, s.imposed = 3e-3, s.imposedUse = "B";
        s.finishes.clear();
        for (auto& w : s.supports) w.kind = model::Support::Kind::Wall, w.width = 200, w.monolithic = false;
    });
    p.basis.coverTop = p.basis.coverBottom = 25;
    const auto d = design::run(p);
    const auto& slab = d.slab(0);
    double most = 0, required = 0;
    for (const auto& m : slab.line.demand.bottom) most = std::max(most, m.value / 1e3);
    for (double a : slab.bottom.required) required = std::max(required, a * 1e3);
    EXPECT_NEAR(most, 38.2, 0.1);  // 13.28 * 4.8^2 / 8
    EXPECT_NEAR(required, 545, 15);
    EXPECT_EQ(failing(*d.elements[0]), "");
    EXPECT_LE(d.elements[0]->steel / (5.0 * 6.0), 14);
}

TEST(Jobs, OneWaySlabInInchPound) {
    constexpr double ft = 304.8, in = 25.4, psf = 47.8803e-6;
    auto p = model::newProject();
    p.basis.standard = "aci318-us", p.basis.units = units::System::UsCustomary;
    p = model::setSpans(p, "s1", {12 * ft}, false, false);
    p.basis.concreteStrength = 4000 * 6.894757e-3, p.basis.steelYield = 60000 * 6.894757e-3;
    p.basis.concreteDensity = 150 * 47.8803e-6 / ft;
    p.basis.barCatalog = "us", p.basis.mainBars = {"#3", "#4", "#5", "#6"};
    p.basis.secondaryBars = {"#3", "#4"}, p.basis.linkBars = {"#3", "#4"};
    p = model::editSlab(p, "s1", [&](model::OneWaySlab& s, model::Project&) {
        s.thickness = 7.5 * in, s.width = 20 * ft, s.otherDead = 20 * psf, s.imposed = 60 * psf;
        s.finishes.clear();
        for (auto& w : s.supports)
            w.kind = model::Support::Kind::Wall, w.width = 8 * in, w.monolithic = false;
    });
    const auto d = design::run(p);
    ASSERT_TRUE(d.trouble.empty()) << d.trouble[0].message;
    double most = 0;
    for (const auto& m : d.slab(0).line.demand.bottom) most = std::max(most, m.value);
    EXPECT_NEAR(most / 4448.2216, 4.19, 0.02);  // kip ft/ft are kip
    for (const auto& c : d.slab(0).checks)
        if (c.key.ends_with("/minimum") && c.face == model::Face::Bottom) {
            EXPECT_NEAR(c.limit / in / in * 12 * in, 0.162, 0.001) << c.key;
        }
    EXPECT_EQ(failing(*d.elements[0]), "");
}

TEST(Jobs, FlatSlabByGrid) {
    for (const char* standard : {"en1992", "aci318-si"}) {
        auto p = flatSlab();
        p.basis.standard = standard;
        const auto f = designed(p);
        ASSERT_TRUE(f);
        double G = 0, Q = 0;
        for (const auto& c : f->analysis->cases) {
            if (c.name == "Imposed") Q += c.load / 1e3;
            if (c.name == "Self" || c.name == "Dead") G += c.load / 1e3;
        }
        EXPECT_NEAR(G, 2573, 3) << standard;
        EXPECT_NEAR(Q, 898, 1) << standard;
        EXPECT_EQ(failing(*f), "") << standard;
        // Columns alike in the plan's two symmetries have legs alike.
        for (const auto& a : f->connections)
            for (const auto& b : f->connections)
                if (std::abs(a->place.middle.x + b->place.middle.x - 21600) < 1 &&
                    std::abs(a->place.middle.y + b->place.middle.y - 13200) < 1) {
                    EXPECT_EQ(a->steelText(units::System::Metric), b->steelText(units::System::Metric));
                }
    }
}

TEST(Jobs, BeamsOneWayAndABalcony) {
    const auto f = designed(beamsOneWay(0));
    ASSERT_TRUE(f);
    for (const auto& panel : layout::findPanels(*f->floor)) {
        EXPECT_TRUE(panel.oneWay) << panel.name;
        EXPECT_NEAR(std::abs(std::sin(panel.direction * std::numbers::pi / 180)), 1, 1e-6) << panel.name;
    }
    const double w = 1.35 * (0.18 * 25 + 1) + 1.5 * 3;
    EXPECT_NEAR(w, 11.93, 0.01);
    for (const auto& s : f->strips) {
        if (s->strip->direction != 1) continue;
        for (std::size_t i = 0; i < s->stations().size(); ++i)
            if (s->stations()[i].support == 1) {
                EXPECT_LT(s->demand.top[i].value / s->stations()[i].width / 1e3, w * 5.4 * 5.4 / 8 * 1.02)
                    << s->strip->name;
            }
    }
    EXPECT_LE(f->steel / f->area, 15);
    EXPECT_EQ(failing(*f), "");

    const auto b = designed(beamsOneWay(1400));
    ASSERT_TRUE(b);
    int cantilevers = 0;
    for (const auto& s : b->strips) {
        if (s->strip->direction != 1) continue;
        for (const auto& span : s->view().line.spans) {
            if (!span.cantilever() || span.length() < 1000) continue;
            ++cantilevers;
            // From the outer face of the edge beam (a span's clear end there), top bars go back as far.
            const double face = std::max(span.clearFrom, span.clearTo),
                         reach = face - std::min(span.clearFrom, span.clearTo);
            double back = -1e9;
            for (const auto& r : s->runs)
                if (r.top() && r.from < face - reach / 2) back = std::max(back, r.to - face);
            EXPECT_GE(back, reach) << s->strip->name;
        }
    }
    EXPECT_GE(cantilevers, 6);
    // Shear of the field beside the columns of the edge beam: steel along it where concrete alone does not carry.
    ASSERT_TRUE(b->proof);
    EXPECT_LE(b->proof->shear.worst, 1) << b->proof->shear.at.x << " " << b->proof->shear.at.y;
    EXPECT_EQ(failing(*b), "");
    int told = 0;
    for (const auto& s : b->strips)
        for (const auto& fact : b->facts(model::Spot{s->part, model::Spot::In::Whole, {}}, units::System::Metric))
            told += fact.text.find("the FE field requires it") != std::string::npos;
    EXPECT_GT(told, 0);
}

TEST(Jobs, LongPanelOnFourBeams) {
    model::Floor f;
    auto p = floorOf(f, 1, 3);
    f.slabs.push_back({"d1", "S", test::rectangle(-150, -150, 10650, 4750), 180});
    columns(f, {0, 5250, 10500}, {0, 4600}, 300);
    beam(f, {0, 0}, {10500, 0}, 300, 500), beam(f, {10500, 0}, {10500, 4600}, 300, 500);
    beam(f, {10500, 4600}, {0, 4600}, 300, 500), beam(f, {0, 4600}, {0, 0}, 300, 500);
    const auto panels = layout::findPanels(f);
    ASSERT_EQ(panels.size(), 1u);
    EXPECT_TRUE(panels[0].oneWay);
    EXPECT_NEAR(std::abs(std::sin(panels[0].direction * std::numbers::pi / 180)), 1, 1e-6);
    EXPECT_EQ(failing(*designed(with(p, f))), "");
}

TEST(Jobs, LShapeWithADiagonalSide) {
    model::Floor f;
    auto p = floorOf(f, 1.5, 3);
    const std::vector<double> X{0, 5800, 11600, 17400, 22300}, Y{0, 6200, 12400, 18600, 24800};
    // Upper right quarter missing; the lower right corner cut from (17.4, 0) to (22.3, 6.2).
    const double e = 150, tilt = std::hypot(4900, 6200), nx = e * 6200 / tilt, ny = e * 4900 / tilt;
    auto cut = [&](double x) {
        return (x - 17400 - nx) * 6200 / 4900 - ny;
    };  // outer face of the diagonal beam
    const double meets = 17400 + nx + (ny - e) * 4900 / 6200;
    f.slabs.push_back({"d1",
                       "S",
                       {{-e, -e},
                        {meets, -e},
                        {22300 + e, cut(22300 + e)},
                        {22300 + e, 12400 + e},
                        {11600 + e, 12400 + e},
                        {11600 + e, 24800 + e},
                        {-e, 24800 + e}},
                       150});
    auto inside = [&](double x, double y) { return !(x > 11700 && y > 12500) && !(x > 22200 && y < 100); };
    for (double x : X)
        for (double y : Y)
            if (inside(x, y)) columns(f, {x}, {y}, 300);
    for (double y : Y) beam(f, {0, y}, {y > 12500 ? 11600.0 : y < 100 ? 17400.0 : 22300.0, y}, 300, 500);
    for (double x : X) beam(f, {x, x > 22200 ? 6200.0 : 0.0}, {x, x > 11700 ? 12400.0 : 24800.0}, 300, 500);
    beam(f, {17400, 0}, {22300, 6200}, 300, 500);
    beam(f, {2900, 0}, {2900, 6200}, 250, 400), beam(f, {8700, 0}, {8700, 6200}, 250, 400);  // secondary
    // The diagonal bay spans square to its long side.
    f.panels.push_back({"p1", {19000, 4000}, model::PanelChoice::Span::OneWay, -37});
    const auto panels = layout::findPanels(f);
    double covered = 0;
    int chosen = 0;
    for (const auto& panel : panels) {
        EXPECT_FALSE(panel.reason.empty()) << panel.name;
        for (const auto& part : panel.parts) covered += geometry::area(part);
        chosen += panel.chosen;
        if (panel.chosen) {
            EXPECT_NEAR(std::remainder(panel.direction + 37, 180), 0, 1e-6);
        }
    }
    const double whole = std::abs(geometry::area(model::ring(f.slabs[0].outline)));
    EXPECT_EQ(panels.size(), 14u);  // 12 bays, two of them halved
    EXPECT_EQ(chosen, 1);
    EXPECT_NEAR(covered, whole, 1e-4 * whole) << "no panel twice, none left out";
    const auto d = designed(with(p, f));
    ASSERT_TRUE(d);
    ASSERT_EQ(d->error, "");
    const double area = whole / 1e6;
    for (const auto& c : d->analysis->cases) {
        EXPECT_NEAR(c.reaction, c.load, 1e-6 * c.load) << c.name;
        if (c.name == "Imposed") {
            EXPECT_NEAR(c.load / 1e3, 3 * area, 0.005 * 3 * area);
        }
    }
    EXPECT_EQ(failing(*d), "");
}

namespace {

model::BaseSet setOf(const std::vector<std::pair<double, double>>& loads, double side) {
    model::BaseSet set;
    set.id = "f1", set.name = "Bases";
    set.cases = {{"q1", "G", {actions::Nature::Permanent, ""}}, {"q2", "Q", {actions::Nature::Imposed, "B"}}};
    int n = 0;
    for (auto [G, Q] : loads) {
        const std::string id = std::to_string(++n);
        set.columns.push_back(
            {"c" + id, "C" + id, (n - 1) * 8000.0, 0, side, side, {{"q1", G * 1e3}, {"q2", Q * 1e3}}});
        model::Base base;
        base.id = "b" + id, base.columns = {"c" + id};
        set.bases.push_back(base);
    }
    return set;
}
std::shared_ptr<const design::BasesAnswer> answerOf(const model::BaseSet& set) {
    return design::designBases(std::make_shared<model::BaseSet>(set), model::emptyProject().basis,
                               standards::makeStandard("en1992"));
}
const checks::Check* find(const design::BasePart& part, const std::string& key) {
    for (const auto& c : part.checks)
        if (c.key.ends_with("/" + key)) return &c;
    return nullptr;
}

}  // namespace

TEST(Jobs, OnePadTyped) {
    auto set = setOf({{420, 210}}, 400);
    set.columns[0].actions[0].My = 30e6, set.columns[0].actions[1].My = 20e6;
    set.ground.allowable = 0.2, set.ground.depth = 1200, set.ground.soil = 18e-6;
    set.bases[0].B = set.bases[0].L = 2000, set.bases[0].h = 500;
    const auto pinned = answerOf(set);
    const auto* ground = find(*pinned->bases[0], "pressure");
    ASSERT_NE(ground, nullptr);
    // (630 + 2*2*(0.5*25 + 0.7*18))/4 = 182.6; 50/(2^3/6) = 37.5
    EXPECT_NEAR(ground->demand * 1e3, 182.6 + 37.5, 0.6);
    EXPECT_EQ(ground->outcome, Outcome::Over);
    EXPECT_NEAR(checks::ratio(*ground), 1.10, 0.005);
    model::Project p = model::emptyProject();
    p.bases.push_back(std::make_shared<model::BaseSet>(set));
    bool wider = false;
    for (const auto& r : design::remedies(p, {"f1", model::PartKind::Base, "b1"}).found)
        wider |= r.text.find("In plan") != std::string::npos || r.text.find("Along") != std::string::npos;
    EXPECT_TRUE(wider);
    set.bases[0].B = set.bases[0].L = set.bases[0].h = 0;
    EXPECT_EQ(failing(*answerOf(set)), "");
}

TEST(Jobs, PadsBelowABuilding) {
    auto p = flatSlab();
    p = model::editFloor(p, "f1", [](model::Floor& f, model::Project&) {
        for (auto& c : f.columns) c.heightBelow = 3400, c.heightAbove = 3400, c.above = true;
    });
    auto upper = *p.floors[0];
    upper.id = "f2", upper.name = "Roof deck";
    for (auto& c : upper.columns) c.above = false;
    p.floors.push_back(std::make_shared<model::Floor>(upper));
    auto set = std::make_shared<model::BaseSet>();
    set->id = "t1", set->name = "Pads", set->ground.allowable = 0.25, set->ground.depth = 1200,
    set->mostTypes = 4;
    p.bases.push_back(set);
    std::vector<std::string> left;
    p = design::linkFloor(p, "t1", *p.floors[0], left);
    p = design::linkFloor(p, "t1", *p.floors[1], left);
    EXPECT_TRUE(left.empty());
    // Wind by table: 15 kN and 20 kNm at the foot of each column.
    p = model::editBases(p, "t1", [](model::BaseSet& s, model::Project&) {
        s.cases.push_back({"w1", "Wind x", {actions::Nature::Wind, ""}});
        for (auto& c : s.columns) c.actions.push_back({"w1", 0, 15e3, 0, 0, 20e6});
    });
    ASSERT_EQ(p.bases[0]->columns.size(), 12u);
    const auto answer = std::dynamic_pointer_cast<const design::BasesAnswer>(design::designNow(p, "t1"));
    ASSERT_TRUE(answer);
    ASSERT_EQ(answer->error, "");
    double G = 0;
    for (const auto& k : answer->set->cases)
        for (const auto& c : answer->set->columns)
            for (const auto& a : c.actions)
                if (a.loadCase == k.id && k.kind.nature == actions::Nature::Permanent) G += a.N / 1e3;
    EXPECT_NEAR(G, 2 * (2573 + 12 * 0.4 * 0.4 * 3.4 * 25), 10) << "two floors and the columns below each";
    EXPECT_EQ(failing(*answer), "");
    EXPECT_LE(answer->types.size(), 4u);
    // Loads that change in the floor are told.
    p = design::takeNote(p, "t1", *answer->set);
    p = model::editFloor(p, "f1", [](model::Floor& f, model::Project&) { f.actions.loads[1].value = 4e-3; });
    const auto changed = std::dynamic_pointer_cast<const design::BasesAnswer>(design::designNow(p, "t1"));
    EXPECT_GE(changed->changed.size(), 12u);
}

TEST(Jobs, AColumnOnTheBoundary) {
    auto set = setOf({{650, 260}, {900, 400}}, 300);
    set.columns[1].x = 5400;
    set.ground.allowable = 0.2;
    set.site = {{-250, -5000}, {12000, -5000}, {12000, 5000}, {-250, 5000}};
    set.bases[0].strap.to = "c2";
    const auto answer = answerOf(set);
    EXPECT_EQ(failing(*answer), "");
    const auto &near = *answer->bases[0], &far = *answer->bases[1];
    const auto& s = near.size();
    EXPECT_GE(near.centre.x - s.B / 2, -250 - 1) << "on the site";
    const double e = near.centre.x, N = 910e3, L = 5400;
    const auto& t = std::get<bases::PadDesign>(near.design).strap;
    ASSERT_TRUE(t.any());
    const auto& in = *answer->context;
    const double W = in.density * t.width * t.depth * (L - e - s.B / 2);
    const double R = (N * L + W * (L - (e + s.B / 2 + L) / 2)) / (L - e);
    ASSERT_TRUE(near.pressure);
    const double weight = in.density * s.h + set.ground.soil * (set.ground.depth - s.h);
    EXPECT_NEAR(near.pressure->corners[0] - weight, R / s.area(), 1e-6 + 1e-3 * R / s.area());
    // What the strap lifts from the base further in is said there.
    bool said = false;
    for (const auto& c : far.checks)
        for (const auto* notes : {&c.here, &c.notes})
            for (const auto& note : *notes) said |= note.find("strap") != std::string::npos;
    EXPECT_TRUE(said);
}

TEST(Jobs, CapsOfTwoToSixPiles) {
    auto set = setOf({{1050, 420}, {700, 280}, {2000, 900}}, 450);
    set.kind = model::BaseSet::Kind::Caps;
    set.pile.diameter = 500, set.pile.compression = 650e3, set.pile.lateral = 60e3, set.pile.tolerance = 75;
    set.outline = model::CapOutline::CornersCut;
    const auto answer = answerOf(set);
    const int least[] = {3, 2, 5}, most[] = {3, 2, 6};
    for (int i = 0; i < 3; ++i) {
        const auto& b = *answer->bases[std::size_t(i)];
        EXPECT_EQ(b.trouble(), "") << i;
        EXPECT_GE(int(b.piles().size()), least[i]);
        EXPECT_LE(int(b.piles().size()), most[i]);
        EXPECT_LE(b.size().h, 1100) << i;
        EXPECT_GE(b.size().h, 500) << i;
        // Reactions of every pile under every combination add up to the loads with the cap's own weight.
        const auto found = design::pileReactions(*answer, b);
        ASSERT_EQ(found.combinations.size(), found.forces.size());
        ASSERT_GE(found.forces.size(), 2u);
        const double N[] = {1470e3, 980e3, 2900e3};
        double largest = 0;
        for (const auto& R : found.forces) {
            double sum = 0;
            for (double r : R) sum += r;
            largest = std::max(largest, sum);
        }
        const double W = answer->context->density * b.size().h * b.size().area() +
                         set.ground.soil * std::max(0.0, set.ground.depth - b.size().h) * b.size().area();
        EXPECT_NEAR(largest, N[i] + W, 1e-6 * largest);
        const auto* tie = find(b, i == 0 ? "tie" : "tie-x");
        ASSERT_NE(tie, nullptr) << i;
        EXPECT_LE(tie->demand, tie->limit);
    }
    EXPECT_EQ(answer->bases[0]->size().outline.size(), 6u);
}

TEST(Jobs, CapOfThreePilesFromATableInKip) {
    auto project = model::emptyProject();
    const auto read = formats::readColumnLoads(
        "column,x[ft],y[ft],width[in],depth[in],case,nature,use,N[kip],Hx[kip],Hy[kip],Mx[kip.ft],My[kip.ft]"
        "\n"
        "K1,0,0,18,18,G,permanent,,250,0,0,0,25\n",
        {}, project);
    ASSERT_EQ(read.error, "");
    auto set = read.set;
    set.id = "f1", set.name = "Caps", set.kind = model::BaseSet::Kind::Caps;
    EXPECT_NEAR(set.columns[0].actions[0].N, 250 * 4448.2216, 1);
    EXPECT_NEAR(set.columns[0].actions[0].My, 25 * 1.3558179e6, 100);
    set.bases[0].piles = 3;
    set.pile.diameter = 500, set.pile.compression = 650e3;
    // Three-sided or six-sided, as is asked for.
    for (auto outline : {model::CapOutline::AlongPiles, model::CapOutline::CornersCut}) {
        set.outline = outline;
        const auto cut = answerOf(set);
        EXPECT_EQ(failing(*cut), "");
        EXPECT_EQ(cut->bases[0]->outline().size(), outline == model::CapOutline::AlongPiles ? 3u : 6u);
        const auto piles = design::pileSchedule(*cut);
        ASSERT_EQ(piles.size(), 3u);
        EXPECT_EQ(piles[2].number, 3);
        // About the column at the origin.
        EXPECT_NEAR(piles[0].at.x + piles[1].at.x + piles[2].at.x, 0, 1e-6);
        EXPECT_NEAR(piles[0].at.y + piles[1].at.y + piles[2].at.y, 0, 1e-6);
    }
    set.outline = model::CapOutline::Rectangular;
    const auto answer = answerOf(set);
    const auto& cap = *answer->bases[0];
    EXPECT_EQ(failing(*answer), "");
    ASSERT_EQ(cap.piles().size(), 3u);
    // Every pile: (N + W)/3 + M x / sum x2.
    double xx = 0, outer = -1e9;
    for (const auto& q : cap.piles()) xx += q.x * q.x, outer = std::max(outer, q.x);
    const auto* force = find(cap, "pile-compression");
    ASSERT_NE(force, nullptr);
    const double W = answer->context->density * cap.concrete * 1e9 +
                     set.ground.soil * std::max(0.0, set.ground.depth - cap.size().h) * cap.size().area();
    EXPECT_NEAR(force->demand, (250 * 4448.2216 + W) / 3 + 25 * 1.3558179e6 * outer / xx,
                0.02 * force->demand);
}

TEST(Jobs, PunchingOfOneColumn) {
    const auto f = designed(flatSlab());
    ASSERT_TRUE(f);
    const design::ConnectionDesign* c = nullptr;
    for (const auto& one : f->connections)
        if (geometry::length(one->place.middle, {7200, 6600}) < 1) c = one.get();
    ASSERT_NE(c, nullptr);
    const int at = c->governing(standards::ControlSection::At::Control);
    ASSERT_GE(at, 0);
    const auto& s = c->sections[std::size_t(at)];
    const auto& demand = c->demand[std::size_t(at)];
    const double u1 = 4 * 400 + 4 * std::numbers::pi * s.d;
    EXPECT_NEAR(s.length, u1, 0.005 * u1);
    // 1.15 V / (u1 d) at least, as the clause's fixed factor is for such a column; V: the load of the bay
    // less what lies inside.
    const double w = 1.35 * (0.28 * 25 + 1.6) + 1.5 * 3;
    EXPECT_NEAR(demand.forces.V / 1e3, 1.1 * w * 7.2 * 6.6, 0.12 * w * 7.2 * 6.6);
    EXPECT_GT(demand.ratio(), 1) << "concrete alone does not do";
    ASSERT_TRUE(c->steel);
    EXPECT_FALSE(c->steel->product.empty());
    EXPECT_GE(c->steel->legs.lines.size(), 8u);
    EXPECT_LE(c->worst(), 1);
}
