#include "strips/strip_forces.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numbers>
#include <random>

#include "strips/field_moments.h"
#include "support/random_floor.h"

namespace talvik {
namespace {

using actions::LimitState;
using analysis::FloorCombination;

analysis::FloorAnalysis answer(const model::Floor& f) {
    analysis::FloorBasis basis;
    return analysis::FloorAnalyser().analyse(f, "f", basis,
                                             {{"all", "", LimitState::Ultimate, {1.35, 1.35, 1.5}},
                                              {"long", "", LimitState::QuasiPermanent, {1, 1, 0.3}}});
}

// Bars by the method resist bending on every normal, and none of them could be spared.
TEST(FieldMoments, ResistEveryDirectionOfBending) {
    std::mt19937 random(7);
    std::uniform_real_distribution<double> m(-100, 100), skew(25, 155);
    for (int i = 0; i < 4000; ++i) {
        double mx = m(random), my = m(random), mxy = m(random),
               a = (i % 4 ? skew(random) : 90) * std::numbers::pi / 180;
        for (bool top : {false, true}) {
            auto bars = strips::barMoments(mx, my, mxy, a, top);
            double sign = top ? -1 : 1, least = 1e300;
            for (int k = 0; k < 720; ++k) {
                double t = k * std::numbers::pi / 720, c = std::cos(t), s = std::sin(t), o = std::cos(t - a);
                double applied = sign * (mx * c * c + my * s * s + 2 * mxy * s * c);
                least = std::min(least, bars.along * c * c + bars.other * o * o - applied);
            }
            EXPECT_GT(least, -1e-6 * 100);
            if (bars.along + bars.other > 1e-6) {
                EXPECT_LT(least, 0.2) << mx << " " << my << " " << mxy;
            }
        }
    }
    // Many places at once: the same.
    std::vector<double> x, y, xy, low(500), high(500);
    for (int i = 0; i < 500; ++i)
        x.push_back(i % 7 ? m(random) : 0), y.push_back(i % 5 ? m(random) : 0),
            xy.push_back(i % 3 ? m(random) : 0);
    strips::squareBarMoments(x, y, xy, low, high);
    for (std::size_t i = 0; i < x.size(); ++i) {
        EXPECT_NEAR(low[i], strips::barMoments(x[i], y[i], xy[i], std::numbers::pi / 2, false).along, 1e-9);
        EXPECT_NEAR(high[i], strips::barMoments(x[i], y[i], xy[i], std::numbers::pi / 2, true).along, 1e-9);
    }
    // Square bars: the textbook's form.
    auto b = strips::barMoments(50, 20, -15, std::numbers::pi / 2, false);
    EXPECT_NEAR(b.along, 65, 1e-9);
    EXPECT_NEAR(b.other, 35, 1e-9);
    auto n = strips::barMoments(50, -40, 20, std::numbers::pi / 2, false);
    EXPECT_NEAR(n.along, 50 + 400.0 / 40, 1e-9);
    EXPECT_EQ(n.other, 0);
}

// On a cut across the whole floor the strips together carry what statics asks: loads and reactions on one
// side of it.
TEST(StripForces, StripsTogetherBalanceTheFloorOnEitherSideOfACut) {
    double worstShear = 0, worstMoment = 0, worstStretch = 0, sumStretch = 0;
    int cuts = 0, stretches = 0;
    for (unsigned seed = 1; seed <= 200; ++seed) {
        auto f = test::randomFloor(seed);
        f.grounds.clear();  // whose reaction is spread
        f.zones.clear();
        f.walls.clear();
        if (seed % 2) f.strips.rules = {true, {double(seed % 90), double(seed % 90) + 60 + seed % 50}};
        auto a = answer(f);
        ASSERT_TRUE(a.good()) << seed;
        auto layout = strips::layStrips(f);
        strips::ForceReader reader(a);
        for (int d : {0, 1}) {
            std::vector<const strips::Strip*> all;
            double low = 1e300, high = -1e300;
            for (const auto& s : layout.strips)
                if (s.direction == d) {
                    all.push_back(&s);
                    for (const auto& part : s.parts)
                        for (auto p : part) {
                            double u = s.axes.local(p).x;
                            low = std::min(low, u), high = std::max(high, u);
                        }
                }
            const auto& axes = all.front()->axes;
            struct Error {
                double u, moment;
            };
            std::vector<Error> errors;
            double whole = 0;
            for (double share : {0.2, 0.31, 0.37, 0.46, 0.54, 0.61, 0.7, 0.8}) {
                double u = low + share * (high - low);
                // Clear of what the mesh spreads over a triangle or two: columns, point loads and couples,
                // the corners of openings.
                bool clear = true;
                auto apart = [&](model::Point p) { clear &= std::abs(axes.local(p).x - u) > 600; };
                for (const auto& s : a.model->supports) apart(s.at);
                for (const auto& l : f.actions.loads)
                    if (l.kind == model::FloorLoad::Kind::Point || l.kind == model::FloorLoad::Kind::Moment)
                        apart(l.a);
                for (const auto& o : f.openings)
                    for (auto p : model::ring(o.outline)) apart(p);
                if (!clear) continue;
                // Every strip's own values there.
                double moment = 0, shear = 0;
                analysis::Cutter cutter(*a.model);
                for (const auto* s : all) {
                    strips::Strip one = *s;
                    one.from = -1e9, one.to = 1e9;
                    one.spans = {{"", -1, -1, u - 3, u + 3, u - 3, u + 3}};  // one station, at u
                    auto forces = reader.read(one, f);
                    if (forces.stations.empty()) continue;
                    const std::size_t i = line::nearestStation(forces.stations, u);
                    if (std::abs(forces.stations[i].u - u) > 5) continue;
                    moment += forces.at(0, i).moment + forces.at(0, i).beamMoment;
                    shear += forces.at(0, i).shear + forces.at(0, i).beamShear;
                }
                // The side below u: loads down, reactions up, by the difference to the whole's balance.
                double V = 0, M = 0, total = 0, arm = high - low;
                auto forces = a.forces(0);
                for (std::size_t k = 0; k < forces.size(); ++k) {
                    double x = axes.local(a.model->supports[k].at).x;
                    if (x > u) continue;
                    V += forces[k].up;
                    M += forces[k].up * (u - x);
                    M += forces[k].mx * axes.c + forces[k].my * axes.s;
                }
                // Loads below u, integrated on a fine grid of their own.
                const double reach = 80000;
                std::vector<geometry::Ring> slabs{model::ring(f.slabs[0].outline)}, openings;
                for (const auto& o : f.openings) openings.push_back(model::ring(o.outline));
                geometry::Ring half;
                for (auto p : {model::Point{low - reach, -1e6}, {u, -1e6}, {u, 1e6}, {low - reach, 1e6}})
                    half.push_back(axes.plan(p));
                auto pressure = [&](const geometry::Ring& region, double q) {
                    for (const auto& piece : geometry::intersection(region, half)) {
                        double area = geometry::area(piece), first = 0;
                        for (std::size_t i = 0; i < piece.size(); ++i) {
                            auto p = axes.local(piece[i]), r = axes.local(piece[(i + 1) % piece.size()]);
                            first += (p.x + r.x) * (p.x * r.y - r.x * p.y) / 6;
                        }
                        V -= q * area, M -= q * (area * u - first);
                    }
                };
                auto onSlab = [&](const geometry::Ring& region, double q) {
                    for (const auto& piece : geometry::intersection(region, slabs[0])) {
                        for (const auto& r : openings.empty() ? std::vector<geometry::Ring>{piece}
                                                              : geometry::difference(piece, openings))
                            pressure(r, q);
                    }
                };
                onSlab(slabs[0], 1.35 * f.slabs[0].thickness * 25e-6);
                for (const auto& l : f.actions.loads) {
                    double factor = l.loadCase == f.actions.cases[2].id ? 1.5 : 1.35;
                    using K = model::FloorLoad::Kind;
                    if (l.kind == K::Area)
                        onSlab(l.outline.empty() ? slabs[0] : model::ring(l.outline), factor * l.value);
                    if (l.kind == K::Line || l.kind == K::Point) {
                        int n = l.kind == K::Line ? 4000 : 1;
                        double each = l.kind == K::Line ? l.value * geometry::length(l.a, l.b) / n : l.value;
                        for (int i = 0; i < n; ++i) {
                            double t = l.kind == K::Line ? (i + 0.5) / n : 0;
                            model::Point p{l.a.x + t * (l.b.x - l.a.x), l.a.y + t * (l.b.y - l.a.y)};
                            bool in = geometry::contains(slabs[0], p);
                            for (const auto& o : openings) in &= !geometry::contains(o, p);
                            if (!in && l.kind == K::Line) continue;
                            double x = axes.local(p).x;
                            if (x < u) V -= factor * each, M -= factor * each * (u - x);
                        }
                    }
                    if (l.kind == K::Moment && axes.local(l.a).x < u)
                        M -= factor * (l.value * axes.c + l.valueY * axes.s);
                }
                for (const auto& b : f.beams) {  // the part of its web beyond the slab
                    double w = 1.35 * b.width * (b.depth - f.slabs[0].thickness) * 25e-6;
                    double length = geometry::length(b.a, b.b);
                    for (int i = 0; i < 2000; ++i) {
                        double t = (i + 0.5) / 2000;
                        double x = axes.local({b.a.x + t * (b.b.x - b.a.x), b.a.y + t * (b.b.y - b.a.y)}).x;
                        if (x < u) V -= w * length / 2000, M -= w * length / 2000 * (u - x);
                    }
                }
                for (const auto& c : a.cases) total += 1.4 * c.load;
                ++cuts;
                errors.push_back({u, moment - M});
                whole = total;
                double dv = std::abs(shear - V) / total, dm = std::abs(moment - M) / (total * arm / 8);
                worstShear = std::max(worstShear, dv);
                worstMoment = std::max(worstMoment, dm);
                EXPECT_LT(dv, 0.06) << "seed " << seed << " direction " << d << " " << shear / 1e3 << " "
                                    << V / 1e3;
                EXPECT_LT(dm, 0.03) << "seed " << seed << " direction " << d << " " << moment / 1e6 << " "
                                    << M / 1e6;
            }
            // Between two cuts the moment midway, less the mean at the cuts, is the static moment of what
            // lies between: a third cut shows it. Its size is that of the stretch, not of the floor.
            for (std::size_t i = 0; i < errors.size(); ++i)
                for (std::size_t k = i + 2; k < errors.size(); ++k)
                    for (std::size_t m = i + 1; m < k; ++m) {
                        double L = errors[k].u - errors[i].u, x = (errors[m].u - errors[i].u) / L;
                        if (x < 0.25 || x > 0.75) continue;
                        double off = errors[m].moment - (1 - x) * errors[i].moment - x * errors[k].moment;
                        double statics = whole / (high - low) * L * L * x * (1 - x) / 2;
                        worstStretch = std::max(worstStretch, std::abs(off) / statics);
                        EXPECT_LT(std::abs(off), 0.2 * statics) << "seed " << seed << " direction " << d;
                        ++stretches;
                        sumStretch += std::abs(off) / statics;
                    }
        }
    }
    EXPECT_GT(cuts, 150);
    EXPECT_GT(stretches, 100);
    EXPECT_LT(sumStretch / stretches, 0.03) << "on average";
    RecordProperty("mean_stretch", std::to_string(sumStretch / stretches));
    RecordProperty("stretches", stretches);
    RecordProperty("worst_stretch", std::to_string(worstStretch));
    RecordProperty("worst_shear", std::to_string(worstShear));
    RecordProperty("worst_moment", std::to_string(worstMoment));
}

}  // namespace
}  // namespace talvik
