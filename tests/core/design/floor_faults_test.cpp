// Floors on which something was once left out without a word, each against an independent value.
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

#include "design/floor_design.h"
#include "model/edits.h"
#include "support/regular_floor.h"

namespace talvik {
namespace {

using checks::Outcome;
using Nature = model::LoadCase::Nature;

std::shared_ptr<const design::FloorDesign> designed(const model::Project& p) {
    return design::designFloor(p, 0);
}
model::Project edited(model::Project p, const std::function<void(model::Floor&)>& change) {
    return model::editFloor(p, "f1", [&](model::Floor& f, model::Project&) { change(f); });
}
const checks::Check* named(const design::StripDesign& s, const std::string& part) {
    for (const auto& c : s.checks)
        if (c.key.find(part) != std::string::npos) return &c;
    return nullptr;
}
// Stations every tenth of the length or so, from end to end.
void hasStationsAllOver(const design::StripDesign& s) {
    ASSERT_FALSE(s.stations().empty()) << s.strip->key;
    EXPECT_LT(s.stations().front().u, s.strip->from + 60) << s.strip->key;
    EXPECT_GT(s.stations().back().u, s.strip->to - 60) << s.strip->key;
    for (std::size_t i = 1; i < s.stations().size(); ++i)
        EXPECT_LT(s.stations()[i].u - s.stations()[i - 1].u, 0.15 * (s.strip->to - s.strip->from) + 400)
            << s.strip->key;
}
double worstOf(const design::FloorDesign& d) {
    double most = 0;
    for (const auto& a : d.proof->steel)
        for (const auto& o : a) most = std::max(most, o.worst);
    return most;
}

// Three by three panels of 6 by 6 m, 180 mm, on walls: half of the floor lay bare.
TEST(FloorFaults, StripsAlongWallsAreDesigned) {
    auto p = edited(test::regularFloor(2, 2, 18000, 18000, 180, 0), [](model::Floor& f) {
        f.columns.clear();
        int next = 0;
        for (int i = 0; i <= 3; ++i) {
            f.walls.push_back({"w" + std::to_string(++next), "", {i * 6000.0, 0}, {i * 6000.0, 18000}});
            f.walls.push_back({"w" + std::to_string(++next), "", {0, i * 6000.0}, {18000, i * 6000.0}});
        }
    });
    auto d = designed(p);
    ASSERT_TRUE(d);
    for (const auto& s : d->strips) {
        hasStationsAllOver(*s);
        bool bottom = false, top = false;
        for (const auto& r : s->runs) (r.top() ? top : bottom) = true;
        EXPECT_TRUE(bottom && top) << s->strip->key;
        EXPECT_FALSE(s->strip->spans.empty());
        for (const auto& span : s->strip->spans)
            if (s->strip->alongWall) {
                EXPECT_TRUE(span.alongWall) << s->strip->key << " " << span.name;
                EXPECT_NEAR(span.length(), 6000, 200);  // by the walls that cross
            }
    }
    EXPECT_LE(worstOf(*d), 1.0);
    for (const auto& c : d->checks)
        if (c.key.find("everywhere-top") != std::string::npos ||
            c.key.find("everywhere-bottom") != std::string::npos) {
            EXPECT_EQ(c.outcome, Outcome::Within) << c.title << " " << checks::ratio(c);
        }
}

// One panel on four simple edges, 6 by 6 m: m_x is 0.0442 q a2 in the middle (nu = 0.2, S. Timoshenko and S.
// Woinowsky-Krieger, 1959), and where the outer strip ends, a quarter of the side from the edge, still most
// of that.
TEST(FloorFaults, TheOuterStripsOfASinglePanelHaveBars) {
    auto p = edited(test::regularFloor(2, 2, 6000, 6000, 180, 0), [](model::Floor& f) {
        f.columns.clear();
        f.actions.arrangement = model::Arrangement::All;
        f.edges = {{"e1", "", {0, 0}, {6000, 0}},
                   {"e2", "", {6000, 0}, {6000, 6000}},
                   {"e3", "", {6000, 6000}, {0, 6000}},
                   {"e4", "", {0, 6000}, {0, 0}}};
    });
    auto d = designed(p);
    ASSERT_TRUE(d);
    const double q = 1.35 * (180 * 25e-6 + 1.5e-3) + 1.5 * 3e-3, middle = 0.0442 * q * 6000 * 6000;
    for (const auto& s : d->strips) {
        hasStationsAllOver(*s);
        double most = 0;
        for (std::size_t i = 0; i < s->stations().size(); ++i)
            most = std::max(most, s->demand.bottom[i].value / s->stations()[i].width);
        if (s->strip->kind == strips::Strip::Kind::Middle) {
            EXPECT_NEAR(most, middle, 0.08 * middle) << s->strip->key;
        } else {
            EXPECT_GT(most, 0.55 * middle) << s->strip->key;
        }
    }
    EXPECT_LE(worstOf(*d), 1.0);
}

// Columns at both ends of a 7 m wall: two supports of the line, and two of the middle strip beside it.
TEST(FloorFaults, AWallOnALineSwallowsNoSupports) {
    auto p = edited(test::regularFloor(4, 3, 7000, 6000, 250, 200), [](model::Floor& f) {
        f.walls.push_back({"w1", "", {7000, 6000}, {14000, 6000}});
    });
    auto d = designed(p);
    ASSERT_TRUE(d);
    int middles = 0;
    for (const auto& s : d->strips) {
        hasStationsAllOver(*s);
        if (s->strip->direction != 0) continue;
        EXPECT_EQ(s->strip->supports.size(), 4u) << s->strip->key;
        EXPECT_EQ(s->strip->spans.size(), 3u) << s->strip->key;
        for (const auto& support : s->strip->supports)
            EXPECT_LT(support.to - support.from, 700) << s->strip->key;
        middles += s->strip->kind == strips::Strip::Kind::Middle;
        // Bottom bars without a gap from the first to the last support.
        double reached = -1e9;
        std::vector<const bars::Run*> bottom;
        for (const auto& r : s->runs)
            if (!r.top()) bottom.push_back(&r);
        std::sort(bottom.begin(), bottom.end(), [](auto* a, auto* b) { return a->from < b->from; });
        for (const auto* r : bottom) {
            if (reached > -1e8) {
                EXPECT_LE(r->from, reached) << s->strip->key;
            }
            reached = std::max(reached, r->to);
        }
        EXPECT_GT(reached, 20500);
    }
    EXPECT_EQ(middles, 2);
    EXPECT_LE(worstOf(*d), 1.02);
}

// A slab of l by b on line supports along its two sides of length b, 250 mm, with more loads.
model::Project onTwoLines(double l, double b, std::vector<model::FloorLoad> loads) {
    return edited(test::regularFloor(2, 2, l, b, 250, 0), [&](model::Floor& f) {
        f.columns.clear();
        f.edges = {{"e1", "", {0, 0}, {0, b}}, {"e2", "", {l, 0}, {l, b}}};
        for (auto& load : loads) {
            load.id = "more" + std::to_string(f.actions.loads.size());
            f.actions.loads.push_back(load);
        }
    });
}

// A 9 m wide one-way floor of 6 m with 100 kN on 0.3 by 0.3 m in the middle: the mean over the whole width
// hid it. In an infinite strip the moment under it is P/4pi ((1 + nu) ln(2 l/(pi c)) + 1), c = 0.57 of the
// side (S. Timoshenko and S. Woinowsky-Krieger, 1959, articles 35 and 37).
TEST(FloorFaults, AConcentratedLoadIsNotSharedByNineMetres) {
    model::FloorLoad l;
    l.loadCase = "q3", l.kind = model::FloorLoad::Kind::Point, l.value = 100e3;
    l.a = {3000, 4500}, l.width = l.depth = 300;
    auto p = onTwoLines(6000, 9000, {l});
    auto d = designed(p);
    ASSERT_TRUE(d);
    const double spread = (1.35 * (250 * 25e-6 + 1.5e-3) + 1.5 * 3e-3) * 36e6 / 8,
                 load = 1.5 * 100e3 / (4 * M_PI) * (1.2 * std::log(2 * 6000 / (M_PI * 0.57 * 300)) + 1);
    double most = 0;
    for (const auto& s : d->strips)
        if (s->strip->direction == 0)
            for (std::size_t i = 0; i < s->stations().size(); ++i)
                most = std::max(most, s->demand.bottom[i].value / s->stations()[i].width);
    EXPECT_GT(most, spread + 0.75 * load) << "the peak, shared over a metre";
    EXPECT_LT(most, spread + 1.05 * load);
    EXPECT_GT(load, 2 * 1.5 * 100e3 * 6000 / 4 / 9000) << "over twice the mean over nine metres";
    EXPECT_LE(worstOf(*d), 1.0);
}

// 80 kN/m across a 5 m span, 0.30 m from a support: V at the support's side of it is by statics, and EN
// 1992-1-1 6.2.2(6) counts a_v/2d of it at the face.
TEST(FloorFaults, ShearBesideALineLoadIsThatOfStatics) {
    model::FloorLoad near, far;
    near.loadCase = "q2", near.kind = model::FloorLoad::Kind::Line, near.value = 80;
    near.a = {150, 0}, near.b = {150, 4000};
    far = near, far.a = {4700, 0}, far.b = {4700, 4000};
    auto p = onTwoLines(5000, 4000, {near, far});
    auto d = designed(p);
    ASSERT_TRUE(d);
    const double w = 1.35 * (250 * 25e-6 + 1.5e-3) + 1.5 * 3e-3;
    const double left = w * 2500 + 1.35 * 80 * (4850 + 300) / 5000.0, right = w * 5000 + 1.35 * 160 - left;
    for (const auto& s : d->strips) {
        if (s->strip->direction != 0) continue;
        auto at = [&](double u) {
            const auto i = line::nearestStation(s->stations(), u);
            EXPECT_LT(std::abs(s->stations()[i].u - u), 60);
            return s->demand.shear[i].value / s->stations()[i].width +
                   w * (s->stations()[i].u - u) * (u < 2500 ? 1 : -1);
        };
        EXPECT_NEAR(at(4705), right - w * 295, 0.03 * right);
        EXPECT_NEAR(at(4695), right - w * 305 - 1.35 * 80, 0.03 * right);
        EXPECT_NEAR(at(3), left - w * 3, 0.03 * left);
        // The load 150 mm from the support: a quarter of 2d at least.
        const auto* face = named(*s, "shear-face-after");
        ASSERT_TRUE(face) << s->strip->key;
        const double depth = 250 - p.basis.coverTop - 6;
        EXPECT_NEAR(face->demand, left - 1.35 * 80 * (1 - 150 / (2 * depth)), 0.06 * left);
        EXPECT_TRUE(named(*s, "shear-crushing-after"));
        EXPECT_FALSE(named(*s, "shear-face-before")) << "300 mm is farther than d";
    }
}

// The moment that passes into edge columns: asked of the width of Figure 9.9, and of c_2 + 3h in ACI 318-19.
// What is asked is compared with section formulas by hand on the column's own moment.
TEST(FloorFaults, MomentsIntoEdgeColumnsHaveTheirSteel) {
    for (const char* id : {"en1992", "aci318-si"}) {
        auto p = test::regularFloor(4, 4, 7000, 7000, 250, 200);
        p.basis.standard = id;
        auto d = designed(p);
        ASSERT_TRUE(d);
        int edges = 0;
        for (const auto& s : d->strips) {
            if (s->strip->direction != 0 || s->strip->kind != strips::Strip::Kind::Column ||
                s->strip->edge[0] || s->strip->edge[1])
                continue;
            for (const auto& band : s->bands) {
                if (!band.transfer) continue;
                ++edges;
                const auto& support = s->strip->supports[std::size_t(band.support)];
                double moment = 0;
                for (std::size_t k = 0; k < d->analysis->combinations.size(); ++k) {
                    if (d->analysis->combinations[k].state != actions::LimitState::Ultimate) continue;
                    const auto forces = d->analysis->forces(k);
                    for (std::size_t q = 0; q < forces.size(); ++q)
                        if (d->analysis->model->supports[q].id == support.id)
                            moment = std::max(moment, std::abs(forces[q].mx));
                }
                EXPECT_NEAR(band.moment, moment, 1e-6 * moment);
                const bool en = std::string(id) == "en1992";
                EXPECT_NEAR(band.width, en ? 400 + 400 : 400 + 750, 1) << id;
                const double depth = band.input.section.d, b1 = 400 + depth / 2, b2 = 400 + depth,
                             share = en ? 1 : 1 / (1 + 2.0 / 3 * std::sqrt(b1 / b2));
                // As from the rectangular block.
                const double f = en ? 30 / 1.5 : 0.9 * 0.85 * p.basis.concreteStrength,
                             y = en ? p.basis.steelYield / 1.15 : 0.9 * p.basis.steelYield,
                             fc = en ? p.basis.concreteStrength / 1.5 : f;
                const double a = depth - std::sqrt(depth * depth - 2 * share * moment / (fc * band.width));
                EXPECT_NEAR(band.steel * band.width, fc * a * band.width / y, 0.02 * band.steel * band.width)
                    << id;
                const auto* check = named(*s, support.id + "/peak-top");
                ASSERT_TRUE(check);
                EXPECT_EQ(check->outcome, Outcome::Within) << id;
                EXPECT_GE(check->demand, band.steel);
            }
            if (std::string(id) == "en1992") {
                EXPECT_TRUE(named(*s, "/transfer"));
            }
        }
        EXPECT_EQ(edges, 4) << id;
    }
}

// Panels on stiff beams span between these: ACI 318-19 asks 8.3.1.2 of them, not the table of one-way slabs;
// EN K = 1.5 for inner panels, not 1.2 of slabs on columns.
TEST(FloorFaults, StripsAskTheirPanelsHowTheyCarry) {
    for (const char* id : {"en1992", "aci318-si"}) {
        auto p = test::regularFloor(4, 4, 6000, 6000, 180, 200, 900);
        p.basis.standard = id;
        auto d = designed(p);
        ASSERT_TRUE(d);
        int inner = 0;
        for (const auto& s : d->strips)
            for (std::size_t i = 0; i < s->panels.size(); ++i) {
                EXPECT_EQ(s->panels[i].kind, standards::SlendernessInput::Panel::OnLines) << s->strip->key;
                if (s->panels[i].exterior || s->strip->kind != strips::Strip::Kind::Middle) continue;
                const auto* c = named(*s, "span" + std::to_string(i) + "/slenderness");
                ASSERT_TRUE(c);
                ++inner;
                if (std::string(id) == "en1992") {
                    auto whole = design::withWorking(*d, *c);
                    bool found = false;
                    for (const auto& step : whole.steps)
                        for (const auto& in : step.inputs)
                            if (in.symbol == "K") {
                                found = true;
                                EXPECT_NEAR(in.value, 1.5, 1e-9);
                            }
                    EXPECT_TRUE(found);
                } else {
                    EXPECT_EQ(c->clause, "ACI 318-19 8.3.1.2");
                    EXPECT_NEAR(c->limit, 5600 * (0.8 + p.basis.steelYield / 1400) / 45, 2);
                }
            }
        EXPECT_EQ(inner, 2) << id;  // one inner panel, both ways
    }
}

// Hogging over a wall on which the slab is free to turn: at the axis less F t/8 (EN 1992-1-1 5.3.2.2(4)). Two
// spans of 5 m: M = q l2/8, F = 1.25 q l.
TEST(FloorFaults, HoggingOverPlainWallsIsRoundedOffNotCutToTheFace) {
    auto p = edited(test::regularFloor(2, 2, 10000, 4000, 200, 0), [](model::Floor& f) {
        f.columns.clear();
        f.actions.arrangement = model::Arrangement::All;
        f.choices.shearDeformation = false;
        f.edges = {{"e1", "", {0, 0}, {0, 4000}}, {"e2", "", {10000, 0}, {10000, 4000}}};
        f.walls = {{"w1", "", {5000, 0}, {5000, 4000}, 300}};
    });
    auto d = designed(p);
    ASSERT_TRUE(d);
    const double q = 1.35 * (200 * 25e-6 + 1.5e-3) + 1.5 * 3e-3, M = q * 25e6 / 8, F = 1.25 * q * 5000;
    for (const auto& s : d->strips) {
        if (s->strip->direction != 0) continue;
        double most = 0;
        for (std::size_t i = 0; i < s->stations().size(); ++i)
            most = std::max(most, s->demand.top[i].value / s->stations()[i].width);
        EXPECT_NEAR(most, M - F * 300 / 8, 0.04 * M) << s->strip->key;
    }
}

// Bottom bars that stop 600 mm before an inner column.
TEST(FloorFaults, BottomBarsThatStopBeforeASupportAreOver) {
    for (const char* id : {"en1992", "aci318-si"}) {
        auto p = test::regularFloor(4, 3, 6000, 6000, 250, 200);
        p.basis.standard = id;
        auto d = designed(p);
        ASSERT_TRUE(d);
        const auto* s = d->find("1/c2/column");
        ASSERT_TRUE(s);
        const auto* good = named(*s, "/through-bottom");
        ASSERT_TRUE(good);
        EXPECT_EQ(good->outcome, Outcome::Within) << id;
        auto shorter = edited(p, [&](model::Floor& f) {
            f.strips.bars.push_back({"b1", s->strip->key, model::Role::BottomMain, 200, 5400, "H16", 150});
            f.strips.bars.push_back({"b2", s->strip->key, model::Role::BottomMain, 6600, 17800, "H16", 150});
            if (std::string(id) != "en1992")
                for (auto& b : f.strips.bars) b.bar = s->runs.front().bar;
        });
        auto e = designed(shorter);
        ASSERT_TRUE(e);
        const auto* t = e->find("1/c2/column");
        int over = 0;
        for (const auto& c : t->checks)
            over += c.outcome == Outcome::Over && c.key.find("through-") != std::string::npos;
        EXPECT_GE(over, 2) << id << ": the share of the steel, and the bars through the column";
    }
}

// A square panel on walls all round that carries one way by someone's word: a beam along, next to nothing
// across, and no load on the walls beside it. At 135 degrees in a corner bay every strip spans between the
// two walls that it meets.
TEST(FloorFaults, APanelSaidToCarryOneWayDoes) {
    auto of = [](double angle, bool chosen) {
        return edited(test::regularFloor(2, 2, 6000, 6000, 200, 0), [&](model::Floor& f) {
            f.columns.clear();
            f.choices.shearDeformation = false;
            f.choices.meshSize = 250;
            f.actions.arrangement = model::Arrangement::All;
            f.edges = {{"e1", "", {0, 0}, {6000, 0}},
                       {"e2", "", {6000, 0}, {6000, 6000}},
                       {"e3", "", {6000, 6000}, {0, 6000}},
                       {"e4", "", {0, 6000}, {0, 0}}};
            if (chosen) f.panels.push_back({"k1", {3000, 3000}, model::PanelChoice::Span::OneWay, angle});
        });
    };
    const double q = 1.35 * (200 * 25e-6 + 1.5e-3) + 1.5 * 3e-3, beam = q * 36e6 / 8;
    auto ultimate = [](const analysis::FloorAnalysis& a) {
        std::size_t best = 0;
        double most = 0;
        for (std::size_t k = 0; k < a.combinations.size(); ++k)
            if (a.combinations[k].state == actions::LimitState::Ultimate)
                if (double up = a.forces(k)[0].up + a.forces(k)[1].up; up > most) most = up, best = k;
        return best;
    };
    auto two = design::analyseFloor(of(0, false), 0);
    EXPECT_LT(analysis::valuesAt(two, ultimate(two), {3000, 3010}).mx, 0.5 * beam);
    auto one = design::analyseFloor(of(0, true), 0);
    ASSERT_TRUE(one.good());
    const auto k = ultimate(one);
    for (double y : {1500.0, 3010.0, 4400.0}) {
        const auto v = analysis::valuesAt(one, k, {3000, y});
        EXPECT_NEAR(v.mx, beam, (y == 3010 ? 0.03 : 0.07) * beam)
            << y;  // what is left across is felt beside the walls
        EXPECT_LT(std::abs(v.my), 0.03 * beam) << y;
    }
    // The walls that the strips do not meet carry next to nothing.
    const auto forces = one.forces(k);
    EXPECT_NEAR(forces[1].up + forces[3].up, q * 36e6, 0.1 * q * 36e6);
    // The same panel turned in plan by 135 degrees, and its direction with it.
    auto turned =
        design::analyseFloor(edited(of(135, true),
                                    [](model::Floor& f) {
                                        const double t = 135 * M_PI / 180, co = std::cos(t), si = std::sin(t);
                                        auto turn = [&](auto& p) {
                                            const double x = p.x, y = p.y;
                                            p.x = co * x - si * y, p.y = si * x + co * y;
                                        };
                                        for (auto& p : f.slabs[0].outline) turn(p);
                                        for (auto& e : f.edges) turn(e.a), turn(e.b);
                                        turn(f.panels[0].at);
                                        f.strips.rules.ownAngles = true;
                                        f.strips.rules.angle[0] = 135, f.strips.rules.angle[1] = 225;
                                    }),
                             0);
    ASSERT_TRUE(turned.good());
    const double t = 135 * M_PI / 180;
    const auto middle = analysis::valuesAt(
        turned, ultimate(turned),
        {3000 * std::cos(t) - 3010 * std::sin(t), 3000 * std::sin(t) + 3010 * std::cos(t)});
    EXPECT_NEAR((middle.mx + middle.my) / 2 - middle.mxy, beam, 0.03 * beam);
    EXPECT_LT(std::abs((middle.mx + middle.my) / 2 + middle.mxy), 0.03 * beam);
    // At 135 degrees the strip through the middle spans the diagonal between corners; those beside it less.
    auto askew = design::analyseFloor(of(135, true), 0);
    ASSERT_TRUE(askew.good());
    const auto c = ultimate(askew);
    for (double off : {900.0, 1500.0}) {
        // A strip `off` from the diagonal, square to it: both ends on walls, its middle on the other
        // diagonal.
        const double s = off / std::sqrt(2), length = 6000 * std::sqrt(2) - 2 * off,
                     exact = q * length * length / 8;
        const auto v = analysis::valuesAt(askew, c, {3000 + s, 3000 + s});
        const double along = (v.mx + v.my) / 2 - v.mxy;  // on axes at 135 degrees
        EXPECT_NEAR(along, exact, 0.2 * exact) << off << ": next to strips of other lengths";
    }
    // The design follows: the strips along are beams, those across have distribution steel.
    auto d = designed(of(0, true));
    ASSERT_TRUE(d);
    bool said = false;
    for (const auto& w : d->analysis->assumptions)
        said |= w.find("set to span one way") != std::string::npos;
    EXPECT_TRUE(said);
    for (const auto& s : d->strips) {
        if (s->strip->direction == 1) {
            EXPECT_GT(s->distribution, 0) << s->strip->key;
            continue;
        }
        double most = 0;
        for (std::size_t i = 0; i < s->stations().size(); ++i)
            most = std::max(most, s->demand.bottom[i].value / s->stations()[i].width);
        if (s->strip->kind == strips::Strip::Kind::Middle) {
            EXPECT_NEAR(most, beam, 0.08 * beam) << s->strip->key;
        }
    }
}

// Spans of 2 and 8 m, imposed load on the longer: R = -q b3 / (8 a (a + b)) at the short end (E. Clapeyron),
// and what the permanent load gives there, lifting too, with 1.1.
TEST(FloorFaults, ASupportThatLiftsIsTold) {
    auto of = [](double longer, double imposed) {
        return edited(test::regularFloor(2, 2, 2000 + longer, 4000, 250, 0), [&](model::Floor& f) {
            f.columns.clear();
            f.choices.shearDeformation = false;
            f.actions.loads[1].value = imposed;
            f.edges = {{"e1", "", {0, 0}, {0, 4000}},
                       {"e2", "", {2000, 0}, {2000, 4000}},
                       {"e3", "", {2000 + longer, 0}, {2000 + longer, 4000}}};
        });
    };
    auto d = designed(of(8000, 5e-3));
    ASSERT_TRUE(d);
    const double a = 2000, b = 8000, g = (250 * 25e-6 + 1.5e-3) * 4000, q = 5e-3 * 4000;
    const double lift = q * b * b * b / (8 * a * (a + b)),
                 permanent = g * a / 2 - g * (a * a * a + b * b * b) / (8 * a * (a + b));
    ASSERT_LT(permanent, 0);
    const auto* c = d->check("f1/uplift");
    ASSERT_TRUE(c);
    EXPECT_EQ(c->outcome, Outcome::Over);
    EXPECT_NEAR(c->demand, 1.5 * lift - 1.1 * permanent, 0.03 * c->demand);
    EXPECT_EQ(c->limit, 0);
    // Held by the permanent load: a ratio that means something.
    auto e = designed(of(2600, 5e-3));
    const auto* within = e->check("f1/uplift");
    ASSERT_TRUE(within);
    EXPECT_EQ(within->outcome, Outcome::Within);
    EXPECT_GT(checks::ratio(*within), 0.1);
}

// A slab on ground has the cover of foundations below; the same slab on columns that of slabs.
TEST(FloorFaults, SlabsOnGroundHaveTheCoverOfFoundations) {
    auto p = test::regularFloor(3, 3, 5000, 5000, 300, 500);
    p.basis.coverFoundation = 75;
    auto raft = edited(p, [](model::Floor& f) { f.grounds.push_back({"g1", "", {}, 0.02}); });
    auto a = designed(p), b = designed(raft);
    ASSERT_TRUE(a && b);
    EXPECT_EQ(a->basis->coverBottom, p.basis.coverBottom);
    EXPECT_EQ(b->basis->coverBottom, 75);
}

// Two equal spans of panels and three: mirrored places have equal bars and ratios.
TEST(FloorFaults, SymmetricBaysHaveEqualBars) {
    auto d = designed(test::regularFloor(4, 3, 6600, 6000, 250, 200));
    ASSERT_TRUE(d);
    const double mid = 3 * 6600.0;  // u + mirrored u
    for (const auto& s : d->strips) {
        if (s->strip->direction != 0) continue;
        for (const auto& r : s->runs) {
            const bool found = std::any_of(s->runs.begin(), s->runs.end(), [&](const auto& o) {
                return o.top() == r.top() && o.band() == r.band() && o.bar == r.bar &&
                       o.spacing == r.spacing && std::abs(o.from - (mid - r.to)) < 1 &&
                       std::abs(o.to - (mid - r.from)) < 1;
            });
            EXPECT_TRUE(found) << s->strip->key << " " << r.bar << " " << r.from << " " << r.to;
        }
    }
}

}  // namespace
// Openings that leave a few millimetres of a strip beside them: that sliver has no shear of its own.
TEST(FloorFaults, SliversBesideOpeningsCarryNothing) {
    const auto plain = test::regularFloor(3, 3, 6000, 6000, 250);
    const auto without = designed(plain);
    double usual = 0, edge = 0;  // shear per width; an edge of a column strip along x
    for (const auto& s : without->strips) {
        for (std::size_t i = 0; i < s->stations().size(); ++i)
            usual = std::max(usual, s->demand.shear[i].value / s->stations()[i].width);
        if (s->strip->direction == 0 && s->strip->kind == strips::Strip::Kind::Column)
            for (const auto& part : s->strip->parts)
                for (const auto& q : part)
                    if (q.y > 6100 && q.y < 8000) edge = q.y;
    }
    ASSERT_GT(edge, 6100);
    for (double left : {5.0, 20.0, 40.0}) {
        const auto d = designed(edited(plain, [&](model::Floor& f) {
            f.openings.push_back({"o1", "", test::rectangle(2600, edge - 900, 3400, edge - left)});
        }));
        for (const auto& s : d->strips)
            for (std::size_t i = 0; i < s->stations().size(); ++i) {
                EXPECT_GT(s->stations()[i].width, 60) << left << " " << s->strip->name;
                EXPECT_LT(s->demand.shear[i].value / s->stations()[i].width, 2.5 * usual)
                    << left << " " << s->strip->name << " " << s->stations()[i].u;
            }
    }
}

// Drops and studs carry what passes into columns: shear of strips over the least thickness does not ask again.
TEST(FloorFaults, StripShearBesideColumnsIsPunchings) {
    for (const char* standard : {"en1992", "aci318-si"}) {
        auto p = test::regularFloor(4, 4, 7800, 7800, 250);
        p.basis.standard = standard, p.basis.shearSteel = model::ConnectionChoice::Steel::Studs;
        p = edited(p, [](model::Floor& f) {
            f.strips.rules.links = false;
            int n = 0;
            for (const auto& c : f.columns)
                f.zones.push_back({"z" + std::to_string(++n), "",
                                   test::rectangle(c.x - 1200, c.y - 1200, c.x + 1200, c.y + 1200), 400});
        });
        const auto d = designed(p);
        for (const auto& s : d->strips)
            for (const auto& c : s->checks)
                if (c.topic == checks::Topic::OneWayShear) {
                    EXPECT_NE(c.outcome, Outcome::Over) << standard << " " << c.key << " " << checks::ratio(c);
                }
        // The field, which knows the drops, agrees: nowhere over.
        for (const auto* c : d->all())
            if (c->key.find("field") != std::string::npos && c->topic == checks::Topic::OneWayShear) {
                EXPECT_NE(c->outcome, Outcome::Over) << standard << " " << checks::ratio(*c);
            }
    }
}

// What the program itself lays on panels in turn reaches the slab's edge and not a load's: nobody is warned of it.
TEST(FloorFaults, LoadsInTurnAreNotWarnedOf) {
    const auto d = designed(edited(test::regularFloor(3, 3, 6000, 5000, 220, 700), [](model::Floor& f) {
        f.openings.push_back({"o1", "", test::rectangle(1000, 1000, 2200, 2200)});
    }));
    EXPECT_GT(d->analysis->cases.size(), 3u) << "imposed loads stand on panels in turn";
    for (const auto& n : d->analysis->notes)
        EXPECT_EQ(n.message.find("outside the slab"), std::string::npos) << n.message;
}

}  // namespace talvik
