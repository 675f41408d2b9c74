// Plates softer than elastic ones: against the same plate analysed with less stiffness, and against itself.
#include "analysis/cracked_plate.h"

#include <gtest/gtest.h>

#include <cmath>

#include "design/floors.h"
#include "support/random_floor.h"
#include "support/regular_floor.h"

using namespace talvik;
using analysis::Three;

namespace {

// The largest difference of deflections over the largest deflection.
double apart(const fem::NodeVector& a, const fem::NodeVector& b) {
    double most = 0, off = 0;
    for (std::size_t i = 0; i < a.size(); i += 3)
        most = std::max(most, std::abs(b[i])), off = std::max(off, std::abs(a[i] - b[i]));
    return off / most;
}
fem::NodeVector all(const analysis::FloorAnalysis& a) {
    fem::NodeVector u(a.u[0].size(), 0.0);
    for (const auto& one : a.u)
        for (std::size_t i = 0; i < u.size(); ++i) u[i] += one[i];
    return u;
}
std::vector<analysis::Flexibility> softer(const analysis::CrackedPlate& plate, double factor) {
    std::vector<analysis::Flexibility> all(plate.areas().size());
    for (std::size_t t = 0; t < all.size(); ++t)
        for (int c = 0; c < 3; ++c) {
            const Three k = plate.elastic(t, {c == 0 ? 1.0 : 0, c == 1 ? 1.0 : 0, c == 2 ? 1.0 : 0});
            all[t][std::size_t(c)] = factor * k.x, all[t][std::size_t(3 + c)] = factor * k.y,
            all[t][std::size_t(6 + c)] = factor * k.xy;
        }
    return all;
}

}  // namespace

TEST(CrackedPlate, ElasticStaysElastic) {
    for (unsigned seed : {1u, 5u, 9u}) {
        auto p = test::regularFloor(3, 3, 6000, 5000);
        p.floors[0] = std::make_shared<model::Floor>(test::randomFloor(seed));
        const auto a = design::analyseFloor(p, 0);
        ASSERT_TRUE(a.good());
        if (!a.system) continue;
        const analysis::CrackedPlate plate(a);
        const auto state = plate.solve(all(a), softer(plate, 1));
        EXPECT_TRUE(state.settled);
        EXPECT_LT(apart(state.u, all(a)), 1e-9);
        // Moments at the middles are those of the recovery, where that does not smooth them away: their sum
        // over the slab is the same.
        double own = 0, other = 0;
        const auto m = plate.moments(all(a));
        for (std::size_t t = 0; t < m.size(); ++t) own += m[t].x * plate.areas()[t];
        for (std::size_t t = 0; t < m.size(); ++t)
            for (int c = 0; c < 3; ++c)
                for (const auto& field : a.moments)
                    other += field[3 * std::size_t(a.model->points.corner[3 * t + std::size_t(c)])] / 3 *
                             plate.areas()[t];
        EXPECT_NEAR(own, other, 0.04 * std::abs(other) + 1e-3 * std::abs(m[0].x) * 1e6) << seed;
    }
}

// Two and a half times as flexible everywhere is what an analysis with 40 % of the slab's stiffness says,
// with the same columns and beams; and beams alone three times as flexible.
TEST(CrackedPlate, SofterSlabAndBeamsAgainstAnotherAnalysis) {
    for (double beams : {0.0, 500.0}) {
        auto p = test::regularFloor(3, 3, 6000, 5000, 250, 200, beams);
        const auto a = design::analyseFloor(p, 0);
        const analysis::CrackedPlate plate(a);
        auto q = model::editFloor(p, "f1",
                                  [](model::Floor& f, model::Project&) { f.choices.modifiers.slab = 0.4; });
        const auto soft = design::analyseFloor(q, 0);
        const auto state = plate.solve(all(a), softer(plate, 2.5), {}, 1, {}, 1e-6, 200);
        EXPECT_TRUE(state.settled) << state.left;
        // What varies within a triangle stays elastic: a little too stiff on this mesh.
        EXPECT_LT(apart(state.u, all(soft)), 0.03) << beams;
        if (beams == 0) continue;
        q = model::editFloor(p, "f1",
                             [](model::Floor& f, model::Project&) { f.choices.modifiers.beam = 1.0 / 3; });
        const auto limp = design::analyseFloor(q, 0);
        const auto with = plate.solve(all(a), softer(plate, 1), {}, 3, {}, 1e-6, 200);
        EXPECT_TRUE(with.settled) << with.left;
        EXPECT_LT(apart(with.u, all(limp)), 0.012);
    }
}

// A slab on walls all round does not share its moments otherwise when it is softer evenly: it only sags more.
TEST(CrackedPlate, EvenSofteningScalesTheSag) {
    auto p = test::regularFloor(2, 2, 6000, 5000, 200, 0);
    p = model::editFloor(p, "f1", [](model::Floor& f, model::Project&) {
        f.columns.clear();
        const model::Point c[4] = {{0, 0}, {6000, 0}, {6000, 5000}, {0, 5000}};
        for (int i = 0; i < 4; ++i)
            f.edges.push_back(
                {"e" + std::to_string(i), "", c[i], c[(i + 1) % 4], model::LineSupport::Kind::Simple});
    });
    const auto a = design::analyseFloor(p, 0);
    ASSERT_TRUE(a.good()) << a.trouble.front().message;
    const analysis::CrackedPlate plate(a);
    auto u = all(a);
    const auto state = plate.solve(u, softer(plate, 4), {}, 1, {}, 1e-6, 200);
    EXPECT_TRUE(state.settled);
    for (double& v : u) v *= 4;
    EXPECT_LT(apart(state.u, u), 0.015);
    EXPECT_LE(state.rounds, 20);
}
