// Shear steel of random connections, held against the standards' rules by a plain routine of its own:
// positions of legs are measured, nothing is asked of the program but where they stand.
#include "design/shear_steel.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <cmath>
#include <numbers>
#include <random>

#include "standards/rules.h"

using namespace talvik;
using namespace talvik::design;
using geometry::Point;
using geometry::Ring;
using standards::ControlSection;
using standards::PunchingForces;
using standards::ShearSteel;
using At = ControlSection::At;
using std::numbers::pi;

namespace {

struct Random {
    std::mt19937 engine;
    double operator()(double low, double high) {
        return std::uniform_real_distribution<double>(low, high)(engine);
    }
    bool coin(double p) { return (*this)(0, 1) < p; }
};

// A connection of any class with openings and rims, whose stress passes what concrete carries.
verify::ConnectionCase randomCase(Random& u, const standards::PunchingRules& rules,
                                  std::vector<PunchingForces>& forces) {
    verify::ConnectionCase c;
    auto& p = c.place;
    const double far = 1e5, c1 = u(250, 700), c2 = u(250, 700);
    const int kind = int(u(0, 3));
    p.round = u.coin(0.3);
    p.c1 = c1, p.c2 = p.round ? c1 : c2;
    p.angle = kind == 0 && u.coin(0.3) ? u(0, 90) : 0;
    p.site.loaded = p.round ? geometry::round({0, 0}, c1) : geometry::rectangle({0, 0}, c1, c2, p.angle);
    const double left = kind == 0 ? -far : -p.c1 / 2 - u(0, 400),
                 below = kind < 2 ? -far : -p.c2 / 2 - u(0, 400);
    p.site.slabs = {{{left, below}, {far, below}, {far, far}, {left, far}}};
    if (u.coin(0.3)) {
        const double a = u(0, 2 * pi), r = u(500, 1200), side = u(150, 500);
        const auto o = geometry::rectangle(
            {r * std::cos(a) + 300 * std::cos(a), r * std::sin(a) + 300 * std::sin(a)}, side, side, u(0, 90));
        bool clear = true;
        for (Point q : o)
            clear &= geometry::contains(p.site.slabs[0], q) &&
                     geometry::distanceToEdge(p.site.slabs[0], q) > 100 &&
                     !geometry::contains(p.site.loaded, q);
        if (clear) p.site.openings.push_back(o);
    }
    p.h = std::round(u(210, 500)), p.d = p.h - u(38, 52), p.fc = u(25, 45), p.fy = 500;
    for (double& a : p.steel) a = u(0.004, 0.012) * p.d;
    std::copy(p.steel, p.steel + 2, p.dropSteel);
    c.sections = rules.sections(p);
    if (c.sections.empty()) return c;
    // Moments into the slab where there is an edge; scaled so that concrete alone does not carry it.
    const PunchingForces shape{1, kind == 0 ? u(-60, 60) : u(0, 90), kind < 2 ? u(-60, 60) : u(0, 90)};
    const int control = [&] {
        c.demand.resize(c.sections.size());
        for (std::size_t i = 0; i < c.sections.size(); ++i) {
            c.demand[i].stress = rules.stress(p, c.sections[i], shape);
            c.demand[i].strength = rules.strength(p, c.sections[i]);
        }
        return c.governing(At::Control);
    }();
    const double k = u(1.03, 1.55) / c.demand[std::size_t(control)].ratio();
    const PunchingForces f{k * shape.V, k * shape.Mx, k * shape.My};
    for (auto& d : c.demand) d.stress *= k, d.forces = f;
    c.most = c.demand[std::size_t(control)];
    forces = {f};
    return c;
}

double distanceTo(const Ring& ring, Point p) {
    return geometry::contains(ring, p) ? 0 : geometry::distanceToEdge(ring, p);
}

// The rules as they stand in the standards, for a slab of depth d.
struct Rule {
    double firstLeast, firstMost, radial, round, roundOutside, inside;
};
Rule ruleOf(bool en, ShearSteel kind, double d, double v, double fc) {
    if (en) return {0.3 * d, 0.5 * d, 0.75 * d, 1.5 * d, 2 * d, 2 * d};  // EN 1992-1-1 9.4.3(1)
    // ACI 318-19 Tables 8.7.6.3 and 8.7.7.1.2.
    const bool wide = kind == ShearSteel::Studs && v <= 0.75 * 0.5 * std::sqrt(fc);
    return {0, d / 2, wide ? 0.75 * d : d / 2, 2 * d, 1e9, d / 2};
}

}  // namespace

TEST(ShearSteel, OfRandomConnectionsKeepsTheRulesByAPlainRoutine) {
    Random u{std::mt19937(2026)};
    model::Basis basis;
    basis.linkBars = {"H8", "H10", "H12"};
    std::map<std::string, int> laid, refused;
    int designed = 0, grids = 0, moved = 0;
    for (int i = 0; designed < 500 && i < 3000; ++i) {
        const bool en = i % 2 == 0;
        const auto standard = standards::makeStandard(en ? "en1992" : "aci318-si");
        const auto& rules = *standard->punching;
        std::vector<PunchingForces> forces;
        const auto c = randomCase(u, rules, forces);
        if (forces.empty()) continue;
        ShearSteelTask task(c, rules, basis);
        task.kind = i % 4 < 2 ? ShearSteel::Studs : ShearSteel::Links;
        task.forces = forces, task.combinations = {0};
        task.barDiameter = 16;
        task.bars[0] = {0, std::round(u(4, 12)) * 25}, task.bars[1] = {90, std::round(u(4, 12)) * 25};
        task.grid = i % 3 == 0 && !c.place.round;
        const auto answer = shearSteel(task);
        const std::string where =
            fmt::format("case {} {} {}{}", i, en ? "en" : "aci",
                        task.kind == ShearSteel::Studs ? "studs" : "links", task.grid ? " on a grid" : "");
        if (!answer.layout) {
            EXPECT_FALSE(answer.trouble.empty()) << where;
            ++refused[answer.trouble.substr(0, 30)];
            continue;
        }
        ++designed;
        const auto& l = *answer.layout;
        const auto& p = c.place;
        const auto& s = c.sections[std::size_t(c.governing(At::Control))];
        const double v = c.demand[std::size_t(c.governing(At::Control))].stress, d = s.d;
        const Rule rule = ruleOf(en, l.kind, d, v, p.fc);
        ++laid[standards::name(s.position)];
        // Perimeters: how far from the face legs stand, measured.
        EXPECT_GE(l.first, rule.firstLeast - 1e-6) << where;
        EXPECT_LE(l.first, rule.firstMost + 1e-6) << where;
        EXPECT_LE(l.spacing, rule.radial + 1e-6) << where;
        EXPECT_GE(l.legs.perimeters, 2) << where;
        std::vector<std::vector<Point>> rings(std::size_t(l.legs.perimeters));
        std::vector<double> counted(rings.size(), 0);
        const double area = pi / 4 * l.diameter * l.diameter;
        for (const auto& leg : l.legs.legs) {
            const auto k = std::size_t(leg.perimeter);
            // A pair stands a little farther out where the face is round or at a corner.
            const double pair = l.kind == ShearSteel::Links ? 12 : 1.5,
                         ring = l.first + double(k) * l.spacing;
            if (task.grid) {
                // On rectangles; beside a corner a line may have been moved between bars.
                const double a = p.angle * pi / 180,
                             along = std::abs(leg.at.x * std::cos(a) + leg.at.y * std::sin(a)) - p.c1 / 2,
                             across = std::abs(leg.at.y * std::cos(a) - leg.at.x * std::sin(a)) - p.c2 / 2;
                const bool beside = along > 1 && across > 1;
                EXPECT_NEAR(std::max(along, across), ring, beside ? 0.5 * l.spacing + 130 : pair) << where;
                grids += beside;
            } else {
                EXPECT_NEAR(distanceTo(p.site.loaded, leg.at), ring, pair) << where;
            }
            rings[k].push_back(leg.at);
            counted[k] += leg.counts ? area : 0;
            EXPECT_TRUE(geometry::contains(p.site.slabs[0], leg.at)) << where;
            EXPECT_GT(geometry::distanceToEdge(p.site.slabs[0], leg.at), basis.coverSide - 20) << where;
            for (const auto& o : p.site.openings) {
                EXPECT_FALSE(geometry::contains(o, leg.at)) << where;
                // In the shadow of an opening near enough nothing counts.
                if (!leg.counts) continue;
                Point mean;
                for (Point q : o) mean = {mean.x + q.x / double(o.size()), mean.y + q.y / double(o.size())};
                const double to = std::atan2(mean.y, mean.x), at = std::atan2(leg.at.y, leg.at.x);
                double near = 1e300;
                for (Point q : o) near = std::min(near, distanceTo(p.site.loaded, q));
                if (near < (en ? 5.5 * d : 3.5 * p.h)) {
                    EXPECT_GT(std::abs(std::remainder(at - to, 2 * pi)), 0.02)
                        << where << " behind an opening";
                }
            }
        }
        // Round the column: neighbours by angle, unless an edge or an opening parts them.
        for (std::size_t k = 0; k < rings.size(); ++k) {
            auto& ring = rings[k];
            std::sort(ring.begin(), ring.end(),
                      [](Point a, Point b) { return std::atan2(a.y, a.x) < std::atan2(b.y, b.x); });
            const double r = l.first + double(k) * l.spacing,
                         limit = r <= rule.inside + 1e-6 ? rule.round : rule.roundOutside;
            for (std::size_t n = 0; n < ring.size() && ring.size() > 1; ++n) {
                const Point a = ring[n], b = ring[(n + 1) % ring.size()];
                double turn = std::remainder(std::atan2(b.y, b.x) - std::atan2(a.y, a.x), 2 * pi);
                if (turn < 0) turn += 2 * pi;
                // Half-way between them on the same ring: where there is no room for a leg there is none to
                // miss.
                const double mid = std::atan2(a.y, a.x) + turn / 2;
                bool room = turn < 2.2;
                // No legs towards edges at which the control perimeter ends.
                for (Point e : s.line.edges) room &= std::cos(mid) * e.x + std::sin(mid) * e.y > 0;
                for (double t = 100; t < 5000; t += 5) {
                    const Point q{t * std::cos(mid), t * std::sin(mid)};
                    if (distanceTo(p.site.loaded, q) < r) continue;
                    room &= geometry::contains(p.site.slabs[0], q) &&
                            geometry::distanceToEdge(p.site.slabs[0], q) > 110;
                    break;
                }
                for (const auto& o : p.site.openings)
                    for (std::size_t e = 0; e < o.size(); ++e)
                        for (double t = 0; t <= 1; t += 0.05) {
                            const Point q{a.x + t * (b.x - a.x), a.y + t * (b.y - a.y)};
                            room &= !(geometry::contains(o, q) || geometry::distanceToEdge(o, q) < 60);
                            // Lines that an opening cut short leave none behind it.
                            const double at = std::atan2(q.y, q.x);
                            for (Point w : o)
                                room &= std::abs(std::remainder(at - std::atan2(w.y, w.x), 2 * pi)) > 0.35;
                        }
                if (room) {
                    EXPECT_LE(geometry::length(a, b), limit + 1) << where << " perimeter " << k;
                }
            }
        }
        // Enough steel in every perimeter within 2d (EN) or beside the section (ACI).
        const double fck = p.fc;
        double need = 0, least = 0;
        if (en) {
            const double rho = std::min(0.02, std::sqrt(p.steel[0] / d * p.steel[1] / d)),
                         k = std::min(2.0, 1 + std::sqrt(200 / d)),
                         vc = std::max(0.12 * k * std::cbrt(100 * rho * fck),
                                       0.035 * std::pow(k, 1.5) * std::sqrt(fck));
            const double fy = std::min(250 + 0.25 * d, l.yield / 1.15);
            EXPECT_LE(v, 1.5 * vc * (1 + 1e-9)) << where << " ceiling";
            need = (v - 0.75 * vc) * s.length * l.spacing / (1.5 * fy);
            // (9.11), with the widest spacing that is used.
            least = 0.08 * std::sqrt(fck) / l.yield / 1.5 * l.spacing *
                    std::max(l.legs.widest, l.legs.widestOutside);
            EXPECT_GE(area * (1 + 1e-9), least) << where << " least leg";
            // Beyond the outermost legs by 1.5d none is needed: hull and circle, where nothing is near.
            if (s.position == standards::Position::Interior && p.site.openings.empty()) {
                std::vector<Point> all;
                for (const auto& leg : l.legs.legs) all.push_back(leg.at);
                const auto hull = geometry::hull(all);
                double u_out = 2 * pi * 1.5 * d;
                for (std::size_t n = 0; n < hull.size(); ++n)
                    u_out += geometry::length(hull[n], hull[(n + 1) % hull.size()]);
                EXPECT_LE(v * s.length / u_out, vc * (1 + 2e-3)) << where << " beyond";
            }
        } else {
            const double size = std::min(1.0, std::sqrt(2 / (1 + 0.004 * d))), root = std::sqrt(fck),
                         vc = (l.kind == ShearSteel::Studs ? 0.25 : 0.17) * size * root,
                         fy = std::min(l.yield, 420.0);
            EXPECT_LE(v, 0.75 * (l.kind == ShearSteel::Studs ? 0.66 : 0.5) * root * (1 + 1e-9))
                << where << " ceiling";
            need = (v / 0.75 - vc) * s.length * l.spacing / fy;
            if (l.kind == ShearSteel::Studs) {
                EXPECT_GE(counted[0] / l.spacing, 0.17 * root * s.length / fy * (1 - 1e-9)) << where;
            }
            if (l.kind == ShearSteel::Links) {
                EXPECT_LE(l.diameter, d / 16 + 1e-9) << where;
            }
        }
        for (std::size_t k = 0; k < counted.size(); ++k)
            if (l.first + double(k) * l.spacing <= rule.inside + 1e-6) {
                EXPECT_GE(counted[k], need * (1 - 1e-9)) << where << " " << k;
            }
        EXPECT_LE(answer.outer.stress, answer.outer.strength * (1 + 1e-9)) << where;
        // What is specified can be bought.
        if (l.kind == ShearSteel::Studs) {
            bool found = false;
            for (const auto& r : catalogs::studRails())
                if (r.name == l.product && r.diameter == l.diameter && r.spacing == l.spacing &&
                    r.height == l.height) {
                    found = true;
                    for (const auto& line : l.legs.lines)
                        EXPECT_TRUE(line.perimeters >= r.least && line.perimeters <= r.most) << where;
                }
            EXPECT_TRUE(found) << where << " " << l.product;
            EXPECT_LE(l.height, p.h - basis.coverTop - basis.coverBottom) << where;
            EXPECT_GE(l.height, p.h - basis.coverTop - basis.coverBottom - 10) << where;
        }
        moved += !l.legs.fitted;
        EXPECT_TRUE(l.legs.fitted || !l.note.empty()) << where;
        // Legs of lines that run along bars stand clear of them, with the bars set out in one of two ways.
        for (const auto& g : task.bars) {
            const Point way{std::cos(g.angle * pi / 180), std::sin(g.angle * pi / 180)},
                across{-way.y, way.x};
            bool some = false;
            for (double phase : {0.0, 0.5}) {
                bool clear = true;
                for (const auto& leg : l.legs.legs) {
                    const auto& line = l.legs.lines[std::size_t(leg.line)];
                    if (p.round || std::abs(line.way.x * way.x + line.way.y * way.y) < 0.9998) continue;
                    const double t = (leg.at.x * across.x + leg.at.y * across.y) / g.spacing - phase;
                    clear &= std::abs(t - std::round(t)) * g.spacing >= (l.diameter + task.barDiameter) / 2;
                }
                some |= clear;
            }
            // Where a side is so short that no gap lies on it nothing can be fitted.
            if (l.legs.fitted && std::min(p.c1, p.c2) > g.spacing + 130 && p.angle == 0 &&
                g.spacing < 0.5 * rule.round) {
                EXPECT_TRUE(some) << where << " bars at " << g.angle << " every " << g.spacing;
            }
        }
    }
    EXPECT_EQ(designed, 500);
    EXPECT_GT(laid["interior"], 100);
    EXPECT_GT(laid["edge"], 80);
    EXPECT_GT(laid["corner"], 50);
    EXPECT_LT(moved, 60) << "grids of links where bars have to be moved";
    EXPECT_GT(grids, 1000) << "legs beside corners";
    for (const auto& [why, n] : refused) RecordProperty(why.substr(0, 20), n);
}

TEST(ShearSteel, CannotBeReinforcedNamesTheCeilingAndByHowMuch) {
    model::Basis basis;
    const auto standard = standards::makeStandard("en1992");
    Random u{std::mt19937(7)};
    std::vector<PunchingForces> forces;
    verify::ConnectionCase c;
    do c = randomCase(u, *standard->punching, forces);
    while (forces.empty() || c.governing(At::Control) < 0);
    auto& d = c.demand[std::size_t(c.governing(At::Control))];
    d.stress = 2 * d.strength;
    ShearSteelTask task(c, *standard->punching, basis);
    task.forces = forces, task.combinations = {0};
    const auto answer = shearSteel(task);
    EXPECT_FALSE(answer.layout);
    EXPECT_NE(answer.trouble.find("exceed the maximum"), std::string::npos) << answer.trouble;
    EXPECT_NE(answer.trouble.find("by 33 %"), std::string::npos) << answer.trouble;
    EXPECT_EQ(answer.clause, "EN 1992-1-1 6.4.5(1)");
    // At the face: whatever the steel.
    auto& face = c.demand[std::size_t(c.governing(At::Face))];
    d.stress = 1.2 * d.strength, face.stress = 1.1 * face.strength;
    const auto other = shearSteel(task);
    EXPECT_NE(other.trouble.find("cannot help"), std::string::npos) << other.trouble;
    // A table that has nothing of the height.
    face.stress = 0.5 * face.strength;
    basis.studRails = {{"S", 12, 900, 60, 120, 2, 6, 480}};
    basis.studTable = "Own";
    task.kind = ShearSteel::Studs;
    EXPECT_NE(shearSteel(task).trouble.find("No stud in \"Own\""), std::string::npos)
        << shearSteel(task).trouble;
    // A diameter of someone's own.
    basis.studRails.clear();
    task.diameter = 14;
    const auto pinned = shearSteel(task);
    if (pinned.layout) {
        EXPECT_EQ(pinned.layout->diameter, 14);
    }
}

// Legs as high as a drop stand in the drop; the line beyond them has the slab's depth where it leaves it.
TEST(ShearSteel, InADropLegsStayInIt) {
    Random u{std::mt19937(77)};
    model::Basis basis;
    basis.linkBars = {"H8", "H10", "H12"};
    int designed = 0, outside = 0;
    for (int i = 0; i < 400 && designed < 60; ++i) {
        const auto standard = standards::makeStandard(i % 2 ? "en1992" : "aci318-si");
        const auto& rules = *standard->punching;
        verify::ConnectionCase c;
        auto& p = c.place;
        p.c1 = p.c2 = u(300, 500);
        p.site.loaded = geometry::rectangle({0, 0}, p.c1, p.c2);
        p.h = 240, p.d = 195, p.fc = 30, p.fy = 500, p.dropH = u(300, 420), p.dropD = p.dropH - 45;
        const double side = u(1000, 2600);
        p.drop = geometry::rectangle({0, 0}, side, side);
        for (int k : {0, 1}) p.steel[k] = p.dropSteel[k] = 0.006 * p.d;
        c.sections = rules.sections(p);
        const PunchingForces f{u(600, 1400) * 1e3, 0, 0};
        for (const auto& s : c.sections) {
            verify::ConnectionCase::Demand d;
            d.stress = rules.stress(p, s, f), d.strength = rules.strength(p, s), d.forces = f;
            c.demand.push_back(d);
        }
        const int control = c.governing(At::Control);
        if (control < 0 || c.demand[std::size_t(control)].ratio() <= 1) continue;
        ShearSteelTask task(c, rules, basis);
        task.kind = ShearSteel::Links;
        task.forces = {f}, task.combinations = {0}, task.barDiameter = 16;
        const auto answer = shearSteel(task);
        if (!answer.layout) continue;
        ++designed;
        for (const auto& leg : answer.layout->legs.legs)
            EXPECT_LT(std::max(std::abs(leg.at.x), std::abs(leg.at.y)), side / 2) << i;
        bool leaves = false;
        for (const auto& path : answer.layout->outer.line.paths)
            for (Point q : path) leaves |= std::max(std::abs(q.x), std::abs(q.y)) > side / 2 + 1;
        EXPECT_EQ(answer.layout->outer.d, leaves ? p.d : p.dropD) << i;
        outside += leaves;
    }
    EXPECT_GT(designed, 20);
    EXPECT_GT(outside, 3);
}
