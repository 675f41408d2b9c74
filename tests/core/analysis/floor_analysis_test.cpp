// Floors: balance on random plans, beams with flanges, columns, ground, reuse, combinations, places.
#include "analysis/floor_analysis.h"

#include <gtest/gtest.h>

#include <cmath>

#include "design/floors.h"
#include "formats/project_file.h"
#include "model/floor_validation.h"
#include "support/cases.h"
#include "support/random_floor.h"

using namespace talvik;
using analysis::Field;
using analysis::FloorAnalyser;
using model::Floor;
using Nature = model::LoadCase::Nature;
using Kind = model::FloorLoad::Kind;

namespace {

analysis::FloorBasis basis(double E = 30000, double nu = 0.2) {
    return {E, nu, 25e-6,
            [](const analysis::FloorBasis::Flange& f) { return std::min(f.toNext / 2, 500.0); }};
}
// Every case by itself, ultimate and quasi-permanent.
std::vector<analysis::FloorCombination> eachCase(const Floor& f) {
    std::vector<analysis::FloorCombination> all;
    for (std::size_t i = 0; i < f.actions.cases.size(); ++i)
        for (auto state : {actions::LimitState::Ultimate, actions::LimitState::QuasiPermanent}) {
            analysis::FloorCombination c{f.actions.cases[i].name, "", state, {}};
            c.factors.assign(f.actions.cases.size(), 0);
            c.factors[i] = 1;
            all.push_back(c);
        }
    return all;
}
model::Outline box(double x0, double y0, double x1, double y1) {
    return {{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}};
}
// A rectangular slab under a uniform load, on nothing yet.
Floor plain(double a, double b, double t = 250, double q = 10e-3) {
    Floor f;
    f.id = "f1";
    f.name = "Test";
    f.slabs = {{"d1", "S1", box(0, 0, a, b), t}};
    f.actions.cases = {{"q1", "Load", Nature::Permanent, "B"}};
    model::FloorLoad l;
    l.id = "l1", l.loadCase = "q1", l.value = q;
    f.actions.loads = {l};
    return f;
}
void edges(Floor& f, double a, double b, model::LineSupport::Kind kind, std::initializer_list<int> which) {
    model::Point c[4] = {{0, 0}, {a, 0}, {a, b}, {0, b}};
    for (int i : which) f.edges.push_back({"e" + std::to_string(i), "", c[i], c[(i + 1) % 4], kind});
}
analysis::FloorAnalysis solve(const Floor& f, const analysis::FloorBasis& b = basis()) {
    EXPECT_TRUE(model::validateFloor(f, "floors[0]").empty());
    return FloorAnalyser().analyse(f, "floors[0]", b, eachCase(f));
}

}  // namespace

TEST(FloorAnalysis, HundredRandomFloorsAreInBalance) {
    for (unsigned seed = 1; seed <= unsigned(test::share(100)); ++seed) {
        Floor f = test::randomFloor(seed);
        auto wrong = model::validateFloor(f, "floors[0]");
        ASSERT_TRUE(wrong.empty()) << seed << " " << wrong[0].message;
        auto a = solve(f);
        ASSERT_TRUE(a.good()) << seed << " " << (a.trouble.empty() ? "" : a.trouble[0].message);
        for (const auto& c : a.cases) {
            EXPECT_LT(c.imbalance, 1e-9) << seed << " " << c.name;
            EXPECT_NEAR(c.reaction, c.load, 1e-9 * std::abs(c.load) + 1e-6) << seed;
        }
        // What is put on is what was given: by hand, openings apart.
        double line = 0;
        for (const auto& l : f.actions.loads)
            if (l.kind == Kind::Line) line = l.value * std::hypot(l.b.x - l.a.x, l.b.y - l.a.y);
        EXPECT_LE(line, a.cases[1].load);
        // Sides of columns that cross the outline at a small angle leave small triangles; that is said.
        EXPECT_GT(a.model->mesh.smallestAngle, 0.5) << seed;
        bool said = false;
        for (const auto& n : a.notes) said |= n.message.find("smallest angle") != std::string::npos;
        EXPECT_EQ(said, a.model->mesh.smallestAngle < 15) << seed;
    }
}

TEST(FloorAnalysis, SimplySupportedRectangleWithShear) {
    // The closed form of tests/reference/plate_ss_rect, through the whole chain.
    double a = 6000, b = 6000, t = 100, q = 10e-3, E = 30000, nu = 0.2,
           D = E * t * t * t / 12 / (1 - nu * nu);
    Floor f = plain(a, b, t, q);
    edges(f, a, b, model::LineSupport::Kind::Simple, {0, 1, 2, 3});
    f.choices.meshSize = 250;
    auto r = solve(f);
    ASSERT_TRUE(r.good());
    auto v = analysis::valuesAt(r, 0, {3000, 3000});
    EXPECT_NEAR(v.w, 0.00406235 * q * std::pow(a, 4) / D, 0.01 * v.w);
    EXPECT_NEAR(v.mx, 0.0442028 * q * a * a, 0.02 * v.mx);
    EXPECT_NEAR(v.my, v.mx, 0.01 * v.mx);
    EXPECT_FALSE(analysis::valuesAt(r, 0, {-1, 3000}).onSlab);
    // Cuts: half of the load comes down past a line through the middle of one half, by statics of the whole.
    auto c = analysis::cut(r, 0, {3000, 0}, {3000, 6000});
    EXPECT_NEAR(c.length, 6000, 1);
    EXPECT_NEAR(c.slabShear, 0, 0.01 * q * a * b) << "symmetry";
    auto edge = analysis::cut(r, 0, {1500, 0}, {1500, 6000});
    EXPECT_GT(std::abs(edge.slabShear), 0.04 * q * a * b);
}

TEST(FloorAnalysis, CutsSatisfyStaticsOfASlabStrip) {
    // Two opposite edges: every cut carries the moment and shear of the simple beam.
    double a = 6000, b = 3000, q = 10e-3;
    Floor f = plain(a, b, 200, q);
    edges(f, a, b, model::LineSupport::Kind::Simple, {1, 3});
    f.choices.meshSize = 200;
    auto r = solve(f);
    for (double x : {900.0, 1500.0, 3000.0, 4321.0}) {
        auto c = analysis::cut(r, 0, {x, b}, {x, 0});  // its normal points along +x
        EXPECT_NEAR(c.slabMoment, q * b * x * (a - x) / 2, 0.01 * q * b * a * a / 8) << x;
        EXPECT_NEAR(c.slabShear, q * b * (a / 2 - x), 0.03 * q * b * a / 2) << x;
        EXPECT_EQ(c.beamMoment, 0);
    }
}

TEST(FloorAnalysis, BeamWithFlangeIsATeeSection) {
    // A slab strip with a downstand along its middle, nu = 0, on two edges: together they are one T-beam; the
    // flange is the whole width. By hand: I of the T section, w = 5 q l^4 / 384 E I.
    double a = 8000, b = 1000, t = 200, q = 20e-3, E = 30000;
    Floor f = plain(a, b, t, q);
    edges(f, a, b, model::LineSupport::Kind::Simple, {1, 3});
    f.beams = {{"b1", "B1", {0, b / 2}, {a, b / 2}, 250, 600, false, 0}};
    f.choices.shearDeformation = false;
    f.choices.meshSize = 150;
    auto wide = basis(E, 0);
    wide.flange = [](const analysis::FloorBasis::Flange& in) { return in.toNext; };
    auto r = solve(f, wide);
    ASSERT_TRUE(r.good());
    double y = (1000. * 200 * 100 + 250. * 400 * 400) / (1000. * 200 + 250. * 400);
    double I = 1000. * 8e6 / 12 + 2e5 * std::pow(y - 100, 2) + 250. * 64e6 / 12 + 1e5 * std::pow(400 - y, 2);
    ASSERT_FALSE(r.model->sections.empty());
    EXPECT_NEAR(r.model->sections[0].flangeWidth, 1000, 1e-6);
    EXPECT_NEAR(r.model->sections[0].inertia, I, 1e-6 * I);
    auto v = analysis::valuesAt(r, 0, {a / 2, b / 2});
    EXPECT_NEAR(v.w, 5.0 / 384 * q * b * std::pow(a, 4) / (E * I), 0.01 * v.w);
    auto c = analysis::cut(r, 0, {a / 2 + 10, b}, {a / 2 + 10, 0});
    double whole = q * b * a * a / 8;
    EXPECT_NEAR(c.slabMoment + c.beamMoment, whole, 0.01 * whole);
    double slabShare = 1000. * 8e6 / 12 / I;
    EXPECT_NEAR(c.slabMoment / whole, slabShare, 0.02) << "the slab's own bending, told apart";
    // Shear makes it deflect more: q l^2 / (8 G A) for the web at least.
    f.choices.shearDeformation = true;
    auto s = solve(f, wide);
    EXPECT_GT(analysis::valuesAt(s, 0, {a / 2, b / 2}).w, v.w);
    // An upstand is as stiff.
    f.choices.shearDeformation = false;
    f.beams[0].upstand = true;
    EXPECT_NEAR(analysis::valuesAt(solve(f, wide), 0, {a / 2, b / 2}).w, v.w, 1e-9);
}

TEST(FloorAnalysis, LSectionAndTorsionConstant) {
    // J of a square: 0.1406 a^4; of a long strip: l s^3 / 3.
    EXPECT_NEAR(analysis::torsionConstant(300, 300), 0.1406 * std::pow(300, 4), 0.001 * std::pow(300, 4));
    EXPECT_NEAR(analysis::torsionConstant(10000, 100), 10000. * 1e6 / 3, 0.01 * 10000. * 1e6 / 3);
    model::FloorBeam beam{"b", "", {}, {}, 300, 500, false, 0.1};
    auto flush = analysis::beamSection(beam, 900, 500);
    EXPECT_EQ(flush.added, 0);
    EXPECT_EQ(flush.torsion, 0);
}

TEST(FloorAnalysis, TorsionOfAnEdgeBeamHoldsTheSlab) {
    Floor f = plain(6000, 6000, 200);
    model::Point c[4] = {{0, 0}, {6000, 0}, {6000, 6000}, {0, 6000}};
    for (int i = 0; i < 4; ++i) {
        f.beams.push_back({"b" + std::to_string(i), "", c[i], c[(i + 1) % 4], 400, 700, false, 0});
        f.columns.push_back({"c" + std::to_string(i), "", c[i].x, c[i].y});
    }
    auto without = solve(f);
    for (auto& b : f.beams) b.torsion = 1;
    auto with = solve(f);
    EXPECT_LT(analysis::valuesAt(with, 0, {3000, 3000}).w,
              0.9 * analysis::valuesAt(without, 0, {3000, 3000}).w);
}

TEST(FloorAnalysis, ColumnStiffnessIsThatOfItsHeightAndSection) {
    // A rigid plate on one column, loaded off centre: sinks by N h / E A and turns by M h / 4 E I.
    for (auto bearing : {model::Bearing::Spring, model::Bearing::Rigid})
        for (double angle : {0.0, 30.0}) {
            Floor f = plain(2000, 2000, 250, 0);
            f.choices.modifiers.slab = 10;
            f.slabs[0].thickness = 3000;
            f.choices.shearDeformation = false;
            f.columns = {{"c1", "C1", 1000, 1000}};
            auto& c = f.columns[0];
            c.width = 300, c.depth = 600, c.angle = angle, c.heightBelow = 4000, c.bearing = bearing;
            model::FloorLoad p;
            p.id = "p", p.loadCase = "q1", p.kind = Kind::Point, p.value = 1e5, p.a = {1500, 1000};
            f.actions.loads.push_back(p);
            auto r = solve(f);
            ASSERT_TRUE(r.good());
            double E = 30000, A = 300 * 600, sink = 1e5 * 4000 / (E * A);
            auto w = [&](double x, double y) { return analysis::valuesAt(r, 0, {x, y}).w; };
            EXPECT_NEAR((w(500, 1000) + w(1500, 1000)) / 2, sink, 0.01 * sink);
            double k0 = 4 * E * 600 * std::pow(300, 3) / 12 / 4000,
                   k1 = 4 * E * 300 * std::pow(600, 3) / 12 / 4000;
            double cs = std::cos(angle * M_PI / 180), sn = std::sin(angle * M_PI / 180), M = 1e5 * 500;
            // Slope along x from a couple about y, with the stiffnesses of the turned section.
            double slope = M * (cs * cs / k0 + sn * sn / k1);
            EXPECT_NEAR((w(1500, 1000) - w(500, 1000)) / 1000, slope, 0.02 * slope) << angle;
            EXPECT_NEAR(r.supportForces[0][0].up, 1e5, 1);
            EXPECT_NEAR(std::abs(r.supportForces[0][0].mx), M, 1e-3 * M);
            EXPECT_NEAR(r.supportForces[0][0].my, 0, 1e-3 * M);
        }
}

TEST(FloorAnalysis, ThicknessZonesAndModifiersCount) {
    Floor f = plain(6000, 6000, 200);
    edges(f, 6000, 6000, model::LineSupport::Kind::Simple, {0, 1, 2, 3});
    double before = analysis::valuesAt(solve(f), 0, {3000, 3000}).w;
    Floor half = f;
    half.choices.modifiers.slab = 0.5;
    EXPECT_NEAR(analysis::valuesAt(solve(half), 0, {3000, 3000}).w, 2 * before, 1e-6 * before);
    f.zones.push_back({"z1", "", box(0, 0, 6000, 6000), 400});
    f.choices.shearDeformation = false;
    Floor thick = plain(6000, 6000, 400);
    edges(thick, 6000, 6000, model::LineSupport::Kind::Simple, {0, 1, 2, 3});
    thick.choices.shearDeformation = false;
    thick.choices.meshSize = f.choices.meshSize = 400;
    EXPECT_NEAR(analysis::valuesAt(solve(f), 0, {3000, 3000}).w,
                analysis::valuesAt(solve(thick), 0, {3000, 3000}).w, 1e-9);
    // Moments jump at the edge of a thicker part, and both values are kept.
    f.zones[0].outline = box(0, 0, 3000, 6000);
    f.choices.meshSize = 140;
    auto r = solve(f);
    auto left = analysis::valuesAt(r, 0, {2999, 3000}), right = analysis::valuesAt(r, 0, {3001, 3000});
    EXPECT_NEAR(left.mx, right.mx, 0.12 * std::abs(right.mx)) << "continuous across";
    EXPECT_GT(left.my, 1.5 * right.my) << "the stiffer part takes more along the step";
}

TEST(FloorAnalysis, SymmetricFloorsAnswerSymmetrically) {
    Floor f = plain(12000, 8000, 250);
    int n = 0;
    for (double x : {500.0, 6000.0, 11500.0})
        for (double y : {500.0, 7500.0}) f.columns.push_back({"c" + std::to_string(++n), "", x, y});
    auto r = solve(f);
    ASSERT_TRUE(r.good());
    double scale = analysis::valuesAt(r, 0, {3250, 4000}).w;
    for (auto [x, y] : {std::pair(3250., 4000.), {1500., 1000.}, {4000., 6500.}})
        for (auto q : {model::Point{12000 - x, y}, {x, 8000 - y}, {12000 - x, 8000 - y}}) {
            auto a = analysis::valuesAt(r, 0, {x, y}), b = analysis::valuesAt(r, 0, q);
            EXPECT_NEAR(a.w, b.w, 0.005 * scale);
            EXPECT_NEAR(a.mx, b.mx, 0.02 * 50e3);
        }
    for (int pair : {0, 1})
        EXPECT_NEAR(r.supportForces[0][std::size_t(pair)].up, r.supportForces[0][std::size_t(pair + 4)].up,
                    0.002 * r.supportForces[0][std::size_t(pair)].up);
}

TEST(FloorAnalysis, TurnedFloorsAnswerAlike) {
    auto turned = [](double angle) {
        Floor f = plain(9000, 7000, 220);
        int n = 0;
        for (double x : {400.0, 4300.0, 8600.0})
            for (double y : {400.0, 6600.0}) f.columns.push_back({"c" + std::to_string(++n), "", x, y});
        double c = std::cos(angle), s = std::sin(angle);
        auto turn = [&](double& x, double& y) {
            double u = x * c - y * s;
            y = x * s + y * c, x = u;
        };
        for (auto& p : f.slabs[0].outline) turn(p.x, p.y);
        for (auto& col : f.columns) turn(col.x, col.y), col.angle = angle * 180 / M_PI;
        return f;
    };
    auto base = solve(turned(0));
    for (double angle : {0.4, 1.2, 2.8}) {
        auto r = solve(turned(angle));
        for (std::size_t s = 0; s < base.supportForces[0].size(); ++s)
            EXPECT_NEAR(r.supportForces[0][s].up, base.supportForces[0][s].up,
                        0.01 * base.supportForces[0][s].up);
        auto most = [](const analysis::FloorAnalysis& x) {
            return x.extremes(actions::LimitState::Ultimate)[0].most.value;
        };
        EXPECT_NEAR(most(r), most(base), 0.02 * most(base));
    }
}

TEST(FloorAnalysis, RaftOnGroundSettlesUniformly) {
    Floor f = plain(8000, 8000, 500, 50e-3);
    f.grounds = {{"g1", "", {}, 0.02}};
    auto r = solve(f);
    ASSERT_TRUE(r.good());
    auto p = r.field(Field::Pressure, std::size_t(0));
    for (double v : p) EXPECT_NEAR(v, 50e-3, 1e-8);
    EXPECT_NEAR(analysis::valuesAt(r, 0, {1000, 7000}).w, 2.5, 1e-6);
    EXPECT_FALSE(r.nonlinear);
}

TEST(FloorAnalysis, GroundLetsGoOfAStiffRaft) {
    // A stiff strip with a point load at a distance e > L/6 from its middle: no tension leaves a triangle of
    // pressure over 3 (L/2 - e), the largest 2 P / (3 b (L/2 - e)).
    double L = 6000, b = 1000, P = 1e6, e = 1500;
    Floor f = plain(L, b, 3000, 0);
    f.choices.modifiers.slab = 10;
    f.choices.shearDeformation = false;
    f.choices.meshSize = 125;
    f.grounds = {{"g1", "", {}, 0.01}};
    model::FloorLoad p;
    p.id = "p", p.loadCase = "q1", p.kind = Kind::Point, p.value = P, p.a = {L / 2 + e, b / 2};
    f.actions.loads.push_back(p);
    auto r = solve(f);
    ASSERT_TRUE(r.good());
    EXPECT_TRUE(r.nonlinear);
    EXPECT_NE(r.contactWord.find("converged"), std::string::npos);
    auto pressure = r.field(Field::Pressure, std::size_t(0));
    double most = 0, sum = 0;
    for (double v : pressure) {
        EXPECT_GE(v, 0);
        most = std::max(most, v);
    }
    for (std::size_t t = 0; t < r.model->plate.triangles.size(); ++t) {
        auto n = r.model->plate.triangles[t];
        auto &x = r.model->plate.nodes[n[0]], &y = r.model->plate.nodes[n[1]],
             &z = r.model->plate.nodes[n[2]];
        sum += ((y.x - x.x) * (z.y - x.y) - (y.y - x.y) * (z.x - x.x)) / 6 *
               (pressure[n[0]] + pressure[n[1]] + pressure[n[2]]);
    }
    EXPECT_NEAR(sum, P, 0.01 * P);
    EXPECT_NEAR(most, 2 * P / (3 * b * (L / 2 - e)), 0.03 * most);
    EXPECT_NEAR(r.forces(0)[0].up, P, 1e-6 * P);
    // Answered again: kept while nothing changed, and right when a load does.
    FloorAnalyser analyser;
    auto first = analyser.analyse(f, "f", basis(), eachCase(f));
    auto kept = analyser.analyse(f, "f", basis(), eachCase(f));
    EXPECT_TRUE(kept.reusedAll);
    EXPECT_EQ(kept.u, first.u);
    Floor twice = f;
    twice.actions.loads.back().value *= 2;
    auto doubled = analyser.analyse(twice, "f", basis(), eachCase(twice));
    EXPECT_FALSE(doubled.reusedFactor) << "its factor was that of another contact";
    EXPECT_NEAR(doubled.field(Field::Pressure, std::size_t(0))[0],
                2 * first.field(Field::Pressure, std::size_t(0))[0], 1e-6 * most);
    // With tension allowed, the left end pulls.
    f.choices.groundTakesTension = true;
    auto linear = solve(f);
    EXPECT_FALSE(linear.nonlinear);
    auto low = linear.field(Field::Pressure, std::size_t(0));
    EXPECT_LT(*std::min_element(low.begin(), low.end()), 0);
}

TEST(FloorAnalysis, ContactStoppedHalfWayLeavesNoFactorBehind) {
    Floor f = plain(8000, 3000, 400, 20e-3);
    f.grounds = {{"g1", "", {}, 0.02}};
    FloorAnalyser analyser;
    ASSERT_FALSE(analyser.analyse(f, "f", basis(), eachCase(f)).nonlinear);
    Floor lifting = f;
    model::FloorLoad p;
    p.id = "p", p.loadCase = "q1", p.kind = Kind::Point, p.value = 3e6, p.a = {7800, 1500};
    lifting.actions.loads.push_back(p);
    std::stop_source stop;
    auto stopped =
        analyser.analyse(lifting, "f", basis(), eachCase(lifting), stop.get_token(), [&](double share) {
            if (share > 0.9) stop.request_stop();
        });
    ASSERT_TRUE(stopped.stopped);
    Floor heavier = f;
    heavier.actions.loads[0].value *= 2;
    auto after = analyser.analyse(heavier, "f", basis(), eachCase(heavier));
    EXPECT_EQ(after.u, FloorAnalyser().analyse(heavier, "f", basis(), eachCase(heavier)).u);
}

TEST(FloorAnalysis, RaftThatLiftsOffSaysSo) {
    Floor f = plain(4000, 4000, 400, -5e-3);  // pulled up
    f.grounds = {{"g1", "", {}, 0.01}};
    auto r = solve(f);
    EXPECT_TRUE(r.nonlinear);
    ASSERT_FALSE(r.notes.empty());
    EXPECT_NE(r.notes.back().message.find("did not converge"), std::string::npos);
}

TEST(FloorAnalysis, ReusesWhatAnEditDidNotTouch) {
    Floor f = test::randomFloor(7);
    FloorAnalyser analyser;
    auto first = analyser.analyse(f, "f", basis(), eachCase(f));
    ASSERT_TRUE(first.good());
    EXPECT_FALSE(first.reusedFactor);
    Floor more = f;
    more.actions.loads[0].value *= 2;
    auto second = analyser.analyse(more, "f", basis(), eachCase(more));
    EXPECT_TRUE(second.reusedFactor);
    EXPECT_FALSE(second.reusedAll);
    EXPECT_EQ(second.stages.factor, 0);
    auto fresh = FloorAnalyser().analyse(more, "f", basis(), eachCase(more));
    EXPECT_EQ(second.u, fresh.u) << "the same to the last bit";
    EXPECT_EQ(second.moments, fresh.moments);
    Floor named = more;
    named.name = "Other";
    EXPECT_TRUE(analyser.analyse(named, "f", basis(), eachCase(named)).reusedAll);
    Floor moved = more;
    moved.columns[0].width += 20;
    EXPECT_FALSE(analyser.analyse(moved, "f", basis(), eachCase(moved)).reusedFactor);
}

TEST(FloorAnalysis, CombinationsAndEnvelopes) {
    auto project = formats::demoFloorProject();
    ASSERT_EQ(project.floors.size(), 1u);
    auto a = design::analyseFloor(project, 0);
    ASSERT_TRUE(a.good());
    // Envelope by brute force at every point.
    auto e = a.envelope(Field::Mx, actions::LimitState::Ultimate);
    std::vector<double> most(e.most.size(), -1e300);
    int ultimate = 0;
    for (std::size_t k = 0; k < a.combinations.size(); ++k) {
        if (a.combinations[k].state != actions::LimitState::Ultimate) continue;
        ++ultimate;
        for (std::size_t i = 0; i < most.size(); ++i) {
            double v = 0;
            for (std::size_t c = 0; c < a.cases.size(); ++c)
                v += a.combinations[k].factors[c] * a.moments[c][3 * i];
            most[i] = std::max(most[i], v);
        }
    }
    EXPECT_GE(ultimate, 3);
    for (std::size_t i = 0; i < most.size(); ++i)
        EXPECT_NEAR(e.most[i], most[i], 1e-3 * std::abs(most[i]) + 1);
    // Reactions of a combination sum to its factored loads.
    for (std::size_t k = 0; k < a.combinations.size(); ++k) {
        double up = 0, down = 0;
        for (const auto& s : a.forces(k)) up += s.up;
        for (std::size_t c = 0; c < a.cases.size(); ++c)
            down += a.combinations[k].factors[c] * a.cases[c].load;
        EXPECT_NEAR(up, down, 1e-9 * down);
    }
    // Self-weight by hand: slab less opening, drop, web of the beam.
    double slab = 29200. * 13000 - 3600. * 3600 / 2 - 2400. * 3200;
    double hand = 25e-6 * (slab * 290 + 2400. * 2400 * 140 + 300. * 310 * 28600);
    EXPECT_NEAR(a.cases[0].load, hand, 1e-9 * hand);
}

TEST(FloorAnalysis, MeshIsNoCoarserThanTheSlabBesideColumns) {
    auto project = formats::demoFloorProject();
    auto a = design::analyseFloor(project, 0);
    const auto& f = *project.floors[0];
    for (const auto& t : a.model->plate.triangles)
        for (int i = 0; i < 3; ++i) {
            auto p = a.model->plate.nodes[t[i]], q = a.model->plate.nodes[t[(i + 1) % 3]];
            for (const auto& c : f.columns)
                if (std::hypot((p.x + q.x) / 2 - c.x, (p.y + q.y) / 2 - c.y) < c.width / 2 + 100) {
                    EXPECT_LE(std::hypot(p.x - q.x, p.y - q.y), f.slabs[0].thickness) << c.name;
                }
        }
    EXPECT_LT(a.model->mesh.longestSide, 4 * f.slabs[0].thickness);
}

TEST(FloorAnalysis, TellsHowFarTheMeshIsFromConverged) {
    auto project = formats::demoFloorProject();
    auto standard = standards::makeStandard("en1992");
    const auto& f = *project.floors[0];
    auto c = FloorAnalyser().convergence(f, "floors[0]", design::floorBasis(project.basis, standard),
                                         design::floorCombinations(f, *standard));
    EXPECT_EQ(c.error, "");
    ASSERT_GE(c.rows.size(), 5u);
    EXPECT_GT(c.trianglesFine, 2 * c.trianglesCoarse);
    EXPECT_LT(std::abs(c.rows[0].change()), 0.03) << "deflection";
    EXPECT_LT(std::abs(c.rows.back().change()), 0.01) << "column reaction";
}

TEST(FloorAnalysis, NamesWhatMoves) {
    auto sentence = [](const Floor& f) {
        auto a = FloorAnalyser().analyse(f, "floors[0]", basis(), eachCase(f));
        EXPECT_FALSE(a.good());
        return a.trouble.empty() ? std::string() : a.trouble[0].message;
    };
    Floor f = plain(6000, 4000);
    EXPECT_EQ(sentence(f),
              "Slab S1 has no support near (3.00, 2.00) m; add a column, a wall, a beam on supports or "
              "ground there.");
    f.columns = {{"c1", "", 1000, 2000}, {"c2", "", 5000, 2000}};
    for (auto& c : f.columns) c.bearing = model::Bearing::Pinned;
    EXPECT_NE(sentence(f).find("can rotate about a line at 0°"), std::string::npos);
    // A second slab that touches nothing.
    f = plain(6000, 4000);
    edges(f, 6000, 4000, model::LineSupport::Kind::Simple, {0, 2});
    f.slabs.push_back({"d2", "S2", box(7000, 0, 9000, 2000), 200});
    EXPECT_NE(sentence(f).find("Slab S2 has no support near (8.00, 1.00) m"), std::string::npos);
}

TEST(FloorAnalysis, StopsAndStartsAgain) {
    Floor f = plain(30000, 30000, 250);
    f.choices.meshSize = 150;
    edges(f, 30000, 30000, model::LineSupport::Kind::Simple, {0, 1, 2, 3});
    FloorAnalyser analyser;
    for (double at : {0.0, 0.15, 0.3, 0.6}) {
        std::stop_source stop;
        auto a = analyser.analyse(f, "f", basis(), eachCase(f), stop.get_token(), [&](double share) {
            EXPECT_GE(share, 0);
            EXPECT_LE(share, 1);
            if (share >= at) stop.request_stop();
        });
        EXPECT_TRUE(a.stopped) << at;
        EXPECT_TRUE(a.u.empty());
    }
}

namespace {

// A slab between supports with a line drawn `gap` beside another: what the analysis makes of it.
enum class Beside { Wall, Zone, Support };
analysis::FloorAnalysis withLineBeside(Beside what, double gap) {
    Floor f;
    f.id = "f";
    f.slabs = {{"d1", "", box(0, 0, 8000, 6000), 250}};
    f.edges = {{"e1", "", {0, 0}, {0, 6000}}, {"e2", "", {8000, 0}, {8000, 6000}}};
    if (what == Beside::Wall) f.walls = {{"w1", "", {1000, gap}, {7000, gap}, 200}};
    if (what == Beside::Zone) f.zones = {{"z1", "", box(2000, gap, 6000, 3000), 350}};
    if (what == Beside::Support) f.edges.push_back({"e3", "", {500, -gap}, {7500, -gap}});
    f.actions.cases = {{"q1", "Self", Nature::SelfWeight, "B"}};
    return FloorAnalyser().analyse(f, "f", basis(), eachCase(f), {});
}
double largestSag(const analysis::FloorAnalysis& a) {
    double most = 0;
    for (std::size_t i = 0; i < a.u[0].size(); i += 3) most = std::max(most, a.u[0][i]);
    return most;
}

}  // namespace

// No side that refinement makes is shorter than a 25th of the thickness; where lines crowd over a large
// floor, as hatching does, that is said with the place and not worked at for minutes.
TEST(FloorAnalysis, LinesThatCrowdAreTold) {
    for (double gap : {11.0, 200.0}) {
        Floor f;
        f.id = "f";
        f.slabs = {{"d1", "", box(0, 0, 60000, 24000), 250}};
        for (int i = 0; i < 250; ++i)
            f.edges.push_back({"e" + std::to_string(i), "", {5000 + gap * i, 2000}, {5000 + gap * i, 22000}});
        f.actions.cases = {{"q1", "Self", Nature::SelfWeight, "B"}};
        const auto a = FloorAnalyser().analyse(f, "f", basis(), eachCase(f), {});
        EXPECT_EQ(a.good(), gap > 100) << gap;
        if (a.good()) continue;
        ASSERT_EQ(a.trouble.size(), 1u);
        double x = 0, y = 0;
        const auto& said = a.trouble[0].message;
        ASSERT_NE(said.find("near ("), std::string::npos) << said;
        ASSERT_EQ(std::sscanf(said.c_str() + said.find("near (") + 6, "%lf, %lf", &x, &y), 2) << said;
        EXPECT_TRUE(x > 4.5 && x < 5.5 + gap * 250 / 1000 && y > 1.5 && y < 22.5) << said;
    }
}

// A wall 1 mm inside an edge, a zone 0.6 mm off one, a line support 0.9 mm outside: as if on it, told, and
// with no more triangles. Whatever the gap, triangles stay bounded by the square of the thickness.
TEST(FloorAnalysis, LinesAHairApartAreOne) {
    for (auto what : {Beside::Wall, Beside::Zone, Beside::Support}) {
        const auto on = withLineBeside(what, 0);
        ASSERT_TRUE(on.good()) << on.trouble[0].message;
        const double area = 8000.0 * 6000;
        for (double gap : {0.3, 0.6, 0.9, 1.0, 2.0, 4.0, 6.0, 11.0, 30.0, 120.0}) {
            if (what == Beside::Support && gap > 1) continue;  // then it is told to lie outside
            const auto a = withLineBeside(what, gap);
            ASSERT_TRUE(a.good()) << int(what) << " " << gap << " " << a.trouble[0].message;
            const auto& mesh = a.model->mesh;
            EXPECT_LT(double(mesh.triangles.size()), 150 * area / (250.0 * 250)) << int(what) << " " << gap;
            EXPECT_LT(a.cases[0].imbalance, 1e-6);
            if (gap >= 5) continue;
            EXPECT_LT(mesh.triangles.size(), 1.3 * double(on.model->mesh.triangles.size())) << gap;
            EXPECT_GT(mesh.smallestAngle, 12) << int(what) << " " << gap;
            EXPECT_NEAR(largestSag(a), largestSag(on), 0.01 * largestSag(on)) << int(what) << " " << gap;
            bool told = false;
            for (const auto& n : mesh.notes) {
                if (n.find("taken as one") == std::string::npos) continue;
                told = true;
                double x = 0, y = 0;
                ASSERT_EQ(std::sscanf(n.c_str() + n.find("at (") + 4, "%lf, %lf", &x, &y), 2) << n;
                EXPECT_NEAR(y, 0, 0.01) << n << ": all that is near an edge lies at y = 0";
                EXPECT_TRUE(x >= 0 && x <= 8) << n;
            }
            EXPECT_TRUE(told) << int(what) << " " << gap;
        }
    }
}

// Two slabs on lines of their own, one 400 lower: apart they carry as two overhanging beams, by statics; level, or
// with 140 that pass, they carry together.
TEST(FloorAnalysis, SlabsThatDoNotTouchAtAStepAreApart) {
    auto far = [](double level) {
        const double b = 4000, q = 10e-3;
        Floor f = plain(6000, b, 240, q);
        f.slabs.push_back({"d2", "S2", box(6000, 0, 12000, b), 240, level});
        f.actions.loads[0].outline = box(0, 0, 6000, b);  // on the first alone
        int n = 0;
        for (double x : {0.0, 4500.0, 7500.0, 12000.0})
            f.edges.push_back({"e" + std::to_string(++n), "", {x, 0}, {x, b}, model::LineSupport::Kind::Simple});
        auto flat = basis();
        flat.poisson = 0;
        const auto a = solve(f, flat);
        EXPECT_TRUE(a.good());
        std::vector<double> R(4, 0);
        for (std::size_t s = 0; s < a.model->supports.size(); ++s)
            for (std::size_t k = 0; k < 4; ++k)
                if (a.model->supports[s].id == f.edges[k].id) R[k] += a.supportForces[0][s].up / (q * b * 1000);
        return R;
    };
    const auto apart = far(-400);
    EXPECT_NEAR(apart[0], 2, 1e-3);  // 6 m from 0, held at 0 and 4.5: 6 * (4.5 - 3) / 4.5
    EXPECT_NEAR(apart[1], 4, 1e-3);
    EXPECT_NEAR(apart[2], 0, 1e-6);
    EXPECT_NEAR(apart[3], 0, 1e-6);
    for (double level : {0.0, -100.0}) EXPECT_GT(std::abs(far(level)[2]), 0.1) << level;
}
