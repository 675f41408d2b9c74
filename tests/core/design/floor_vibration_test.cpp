// Natural frequencies against thin-plate and beam theory, the response to walking against one mode in closed
// form, and what has to hold of any floor.
#include "design/floor_vibration.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numbers>
#include <random>

#include "design/floor_design.h"
#include "formats/project_file.h"
#include "model/edits.h"
#include "support/regular_floor.h"

using namespace talvik;

namespace {

constexpr double pi = std::numbers::pi, gravity = 9810;

// A rectangle on line supports at those of its sides (south, east, north, west) that are named.
model::Project plate(double a, double b, double h, const std::string& sides, double more = 0) {
    auto p = test::regularFloor(2, 2, a, b, h, 0);
    return model::editFloor(p, "f1", [&](model::Floor& f, model::Project&) {
        f.columns.clear();
        const geometry::Point c[4] = {{0, 0}, {a, 0}, {a, b}, {0, b}};
        for (int k = 0; k < 4; ++k)
            if (sides.find("senw"[k]) != std::string::npos)
                f.edges.push_back({"e" + std::to_string(k), "", c[k], c[(k + 1) % 4]});
        for (auto& l : f.actions.loads) l.value = l.loadCase == "q2" ? std::max(1e-9, more) : 1e-9;
        f.vibration.on = true;
        f.choices.meshSize = std::min(a, b) / 16;
        f.choices.shearDeformation = false;
    });
}
std::shared_ptr<const design::FloorVibration> found(const model::Project& p) {
    const auto f = design::designFloor(p, 0);
    return f ? f->vibration : nullptr;
}
double stiffness(const model::Project& p) {
    return design::designFloor(p, 0, {}, false)->analysis->model->plate.materials.front().D;
}

}  // namespace

// S. P. Timoshenko: f = pi/2 (m2/a2 + n2/b2) sqrt(D/mass).
TEST(FloorVibration, SimplySupportedPlates) {
    for (auto [a, b, h] :
         {std::tuple(6000.0, 6000.0, 150.0), {8000.0, 5000.0, 180.0}, {7000.0, 6500.0, 200.0}}) {
        const auto p = plate(a, b, h, "senw");
        const auto v = found(p);
        ASSERT_TRUE(v);
        const double D = stiffness(p), m = 25e-6 * h / gravity;
        std::vector<double> exact;
        for (int i = 1; i < 8; ++i)
            for (int k = 1; k < 8; ++k)
                exact.push_back(pi / 2 * (i * i / a / a + k * k / b / b) * std::sqrt(D / m));
        std::sort(exact.begin(), exact.end());
        // Stiff plates lie above the fifth harmonic: their modes are still there.
        ASSERT_GE(v->modes.size(), 1u);
        for (std::size_t k = 0; k < std::min<std::size_t>(v->modes.size(), 4); ++k)
            EXPECT_NEAR(v->modes[k].frequency, exact[k], 0.015 * exact[k]) << a << " " << k;
        // The first shape is a sine both ways: a quarter of the mass moves.
        EXPECT_NEAR(v->modes[0].mass, m * a * b / 4, 0.02 * m * a * b / 4);
    }
}

// A wide strip between two supports: with the plate's stiffness it is a beam.
TEST(FloorVibration, AStripIsABeam) {
    const double L = 9000, h = 200;
    const auto p = plate(L, 3000, h, "ew");
    const auto v = found(p);
    ASSERT_TRUE(v && !v->modes.empty());
    const double E = stiffness(p) * (1 - 0.04) * 12 / h / h / h, m = 25e-6 * h / gravity;
    const double f = pi / 2 / L / L * std::sqrt(E * h * h * h / 12 / m);
    EXPECT_NEAR(v->modes[0].frequency, f, 0.02 * f);
    EXPECT_EQ(v->why, "");
}

// More mass: slower by the root, whatever the floor; with all loads in one proportion exactly.
TEST(FloorVibration, GoesWithTheRootOfTheMass) {
    auto p = test::regularFloor(3, 3, 7000, 6000, 220);
    auto light = model::editFloor(p, "f1", [](model::Floor& f, model::Project&) {
        f.vibration.on = true, f.vibration.imposed = 0;
        for (auto& l : f.actions.loads) l.value = 220 * 25e-6;
    });
    auto heavy =
        model::editFloor(light, "f1", [](model::Floor& f, model::Project&) { f.vibration.imposed = 1; });
    const auto a = found(light), b = found(heavy);
    ASSERT_TRUE(a && b);
    // Self-weight and as much again, against that and as much once more.
    EXPECT_NEAR(a->modes[0].frequency / b->modes[0].frequency, std::sqrt(1.5), 2e-3);
    EXPECT_NEAR(b->mass / a->mass, 1.5, 1e-3);
    // Twice as heavy moves less in resonance.
    EXPECT_GT(a->modes.size(), 3u);
}

TEST(Walking, OneModeInClosedForm) {
    for (double f : {2.0, 4.0, 5.5, 7.2, 9.0})
        for (double damping : {0.01, 0.03, 0.06}) {
            const std::vector<fem::Mode> mode{{f, 20, {}}};
            const auto w = design::walking(mode, {1.0}, damping);
            // In resonance with the lowest harmonic that reaches it.
            double best = 0;
            for (int n = 1; n <= design::harmonics; ++n) {
                const double pace = f / n;
                if (pace < design::slowest || pace > design::fastest) continue;
                const double rms =
                    design::harmonic(n, pace) * design::walker / 20 / (2 * damping) / std::sqrt(2.0);
                best = std::max(best, rms / design::justFelt(f));
            }
            // Other harmonics add a little.
            EXPECT_GE(w.response, best * 0.99) << f;  // paces go by 1/500
            EXPECT_LE(w.response, best * 1.25 + 0.5) << f;
            // Half the movement answers a quarter as much.
            EXPECT_NEAR(design::walking(mode, {0.5}, damping).response, w.response / 4, 1e-9);
        }
    EXPECT_NEAR(design::justFelt(4), 5, 1e-9);
    EXPECT_NEAR(design::justFelt(16), 10, 1e-9);
    EXPECT_NEAR(design::harmonic(1, 2), 0.37, 1e-12);
}

// Brute force in time: the steady state of one mode under the harmonics, stepped by the exact solution.
TEST(Walking, AgainstStepsInTime) {
    const double f = 6.1, mass = 15, damping = 0.03, pace = 2.0;
    const double w0 = 2 * pi * f, dt = 1e-4;
    for (int n : {3, 4}) {
        // u'' + 2 z w u' + w2 u = F/m sin(W t), Newmark with average acceleration.
        double u = 0, v = 0, acc = 0, sum = 0;
        int counted = 0;
        const double W = 2 * pi * n * pace, P = design::harmonic(n, pace) * design::walker / mass;
        for (int i = 1; i < 400000; ++i) {
            const double t = i * dt, p = P * std::sin(W * t);
            const double a1 =
                (p - 2 * damping * w0 * (v + dt / 2 * acc) - w0 * w0 * (u + dt * v + dt * dt / 4 * acc)) /
                (1 + damping * w0 * dt + w0 * w0 * dt * dt / 4);
            u += dt * v + dt * dt / 4 * (acc + a1), v += dt / 2 * (acc + a1), acc = a1;
            if (t > 20) sum += acc * acc, ++counted;
        }
        const double rms = std::sqrt(sum / counted), r = n * pace / f;
        const double closed = P * r * r / std::hypot(1 - r * r, 2 * damping * r) / std::sqrt(2.0);
        EXPECT_NEAR(rms, closed, 0.01 * closed) << n;
    }
}

TEST(FloorVibration, IsACheckThatMayBeSwitchedOff) {
    auto p = test::regularFloor(3, 3, 8500, 8000, 240);
    const auto off = design::designFloor(p, 0);
    ASSERT_TRUE(off);
    EXPECT_FALSE(off->vibration);
    auto told = [](const design::FloorDesign& f, const char* key) {
        int n = 0;
        for (const auto* c : f.all()) n += c->key.find(key) != std::string::npos;
        return n;
    };
    EXPECT_EQ(told(*off, "omitted-vibration"), 1);
    p = model::editFloor(p, "f1", [](model::Floor& f, model::Project&) { f.vibration.on = true; });
    const auto on = design::designFloor(p, 0);
    ASSERT_TRUE(on && on->vibration);
    EXPECT_EQ(told(*on, "omitted-vibration"), 0);
    EXPECT_EQ(told(*on, "/vibration/"), 4);
    // Symmetric floors answer symmetrically.
    const auto& rows = on->vibration->rows;
    ASSERT_EQ(rows.size(), 4u);
    for (const auto& r : rows) EXPECT_NEAR(r.response, rows[0].response, 0.02 * rows[0].response);
    // Damping calms, a stiffer slab in the end, too; the limit is the user's.
    auto calm =
        model::editFloor(p, "f1", [](model::Floor& f, model::Project&) { f.vibration.damping = 0.06; });
    EXPECT_LT(found(calm)->rows[0].response, rows[0].response);
    for (const auto* c : on->all())
        if (c->key.find("/vibration/") != std::string::npos) {
            EXPECT_EQ(c->limit, 4);
            EXPECT_GT(c->demand, 0);
        }
    // A designer that keeps what an edit leaves alone says what a fresh one says.
    design::FloorDesigner designer;
    std::shared_ptr<const design::ElementAnswer> last;
    for (double damping : {0.03, 0.02, 0.02}) {
        const auto q = model::editFloor(
            p, "f1", [&](model::Floor& f, model::Project&) { f.vibration.damping = damping; });
        designer.design({std::make_shared<model::Project>(q), "f1"}, {}, {},
                        [&](auto a) { last = std::move(a); });
        const auto kept = std::dynamic_pointer_cast<const design::FloorDesign>(last);
        ASSERT_TRUE(kept && kept->vibration);
        EXPECT_EQ(kept->vibration->response, found(q)->response);
    }
    // The file keeps it.
    const auto text = formats::projectText(p);
    const auto read = formats::readProject(text);
    ASSERT_TRUE(read.trouble.empty());
    EXPECT_TRUE(read.project.floors[0]->vibration == p.floors[0]->vibration);
    EXPECT_FALSE(model::validate(model::editFloor(p, "f1", [](model::Floor& f, model::Project&) {
                     f.vibration.damping = 0;
                 })).empty());
}
