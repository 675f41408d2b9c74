// Bars of floors one by one: in the concrete with their cover, as many as their run asks for, and the same in
// schedule, drawing and quantity. Distances and counts are measured here from the outlines alone.
#include "schedule/plan_bars.h"

#include <gtest/gtest.h>

#include <cmath>
#include <map>
#include <numbers>
#include <random>
#include <set>

#include "bars/steel.h"
#include "design/design.h"
#include "design/floor_design.h"
#include "design/quantities.h"
#include "formats/project_file.h"
#include "model/edits.h"
#include "support/random_floor.h"
#include "support/random_slab.h"
#include "support/regular_floor.h"

using namespace talvik;
using geometry::Point;

namespace {

std::shared_ptr<const design::FloorDesign> designed(const model::Project& p) {
    return design::designFloor(p, 0, {}, false);
}
model::Project random(unsigned seed) {
    auto p = model::emptyProject();
    auto f = test::randomFloor(seed);
    f.grounds.clear();
    p.floors.push_back(std::make_shared<const model::Floor>(std::move(f)));
    return p;
}
// Distance into the concrete: negative outside.
double inside(const model::Floor& f, Point p) {
    double least = -1e300;
    for (const auto& s : f.slabs) {
        const auto r = model::ring(s.outline);
        least = std::max(least, (geometry::contains(r, p) ? 1 : -1) * geometry::distanceToEdge(r, p));
    }
    for (const auto& o : f.openings) {
        const auto r = model::ring(o.outline);
        least = std::min(least, (geometry::contains(r, p) ? -1 : 1) * geometry::distanceToEdge(r, p));
    }
    return least;
}

// Whether concrete lies all round a place within a radius, by samples: slab, or walls and beams beyond its edge.
bool surrounded(const model::Floor& f, Point p, double radius) {
    std::vector<geometry::Ring> rings;
    for (const auto& s : f.slabs) rings.push_back(model::ring(s.outline));
    auto add = [&](Point a, Point b, double thickness) {
        rings.push_back(geometry::rectangle({(a.x + b.x) / 2, (a.y + b.y) / 2}, geometry::length(a, b), thickness,
                                            std::atan2(b.y - a.y, b.x - a.x) * 180 / M_PI));
    };
    for (const auto& w : f.walls) add(w.a, w.b, w.thickness);
    for (const auto& b : f.beams) add(b.a, b.b, b.width);
    for (int k = 0; k < 24; ++k) {
        const double a = k * M_PI / 12;
        const Point q{p.x + radius * std::cos(a), p.y + radius * std::sin(a)};
        if (std::none_of(rings.begin(), rings.end(), [&](const auto& r) { return geometry::contains(r, q); }))
            return false;
        for (const auto& o : f.openings)
            if (geometry::contains(model::ring(o.outline), q)) return false;
    }
    return true;
}

}  // namespace

TEST(PlanBars, LieInTheConcreteWithTheirCover) {
    int bars = 0, floors = 0;
    for (unsigned seed = 1; seed <= 60; ++seed) {
        const auto f = designed(random(seed));
        if (!f || !f->layout) continue;
        ++floors;
        const double cover = f->basis->coverSide;
        for (const auto& part : f->parts)
            for (const auto& i : part->items) {
                ASSERT_EQ(std::size_t(i.number), i.lie.size()) << i.run;
                EXPECT_LE(i.cutLength, f->basis->stockLength + 1e-6) << f->name << " " << i.run;
                EXPECT_GT(i.massEach, 0);
                if (part->part.kind != model::PartKind::Strip && !i.run.starts_with("drop/")) continue;
                for (const auto& l : i.lie) {
                    ++bars;
                    // The straight part is what is scheduled.
                    const char letter = i.shape == "21" || i.shape == "51" ? 'B' : 'A';
                    EXPECT_NEAR(geometry::length(l.a, l.b), i.dimensions.at(letter), 0.01);
                    for (double t : {0.0, 0.25, 0.5, 0.75, 1.0}) {
                        const Point p{l.a.x + t * (l.b.x - l.a.x), l.a.y + t * (l.b.y - l.a.y)};
                        const double least = cover + i.diameter / 2 - 0.6;
                        EXPECT_TRUE(inside(*f->floor, p) >= least || surrounded(*f->floor, p, least))
                            << f->name << " " << part->name << " " << i.run;
                    }
                }
            }
    }
    EXPECT_GT(floors, 40);
    EXPECT_GT(bars, 10000);
}

// Across every station stand as many bars as the steel of the runs there over its width asks for, less than
// one bar of each run short where the strip changes its width; over all stations together none is short.
TEST(PlanBars, AreAsManyAsTheRunsAskFor) {
    double asked = 0, there = 0;
    int stations = 0, shortOf = 0;
    for (unsigned seed = 1; seed <= 40; ++seed) {
        const auto f = designed(random(seed));
        if (!f || !f->layout) continue;
        for (const auto& s : f->strips) {
            const auto& axes = s->strip->axes;
            for (const auto& st : s->stations())
                for (bool top : {false, true}) {
                    double want = 0, most = 0, count = 0;
                    bool end = false;
                    for (const auto& r : s->runs) {
                        if (r.top() != top) continue;
                        // Not within a step of a run's end, nor near an edge, where lengths are cut in steps.
                        end |= std::abs(st.u - r.from) < 260 || std::abs(st.u - r.to) < 260;
                        if (st.u < r.from || st.u > r.to) continue;
                        want += r.area * (r.band() ? r.width : st.width);
                        most += r.area * r.spacing;
                    }
                    for (const auto& cut : st.cuts)
                        for (double t : {0.02, 0.5, 0.98}) {
                            const Point p{cut.a.x + t * (cut.b.x - cut.a.x),
                                          cut.a.y + t * (cut.b.y - cut.a.y)};
                            for (double off : {-300.0, 300.0})
                                end |= inside(*f->floor, {p.x + off * axes.c, p.y + off * axes.s}) < 100;
                        }
                    if (end || want <= 0 || st.width < 300) continue;
                    for (const auto& i : s->items) {
                        if (i.layer.starts_with('T') != top) continue;
                        const double area = std::numbers::pi / 4 * i.diameter * i.diameter;
                        std::set<long> lines;  // lapped pieces count once
                        for (const auto& l : i.lie) {
                            const Point a = axes.local(l.a), b = axes.local(l.b);
                            if (a.x < st.u && b.x > st.u) lines.insert(std::lround(a.y * 10));
                        }
                        count += area * double(lines.size());
                    }
                    ++stations;
                    asked += want, there += count;
                    shortOf += count < want - 1e-6;
                    EXPECT_GE(count, want - 1.7 * most - 1e-6) << f->name << " " << s->name << " at " << st.u;
                }
        }
    }
    EXPECT_GT(stations, 3000);
    EXPECT_GE(there, asked);
    EXPECT_LT(shortOf, stations / 20) << "by part of a bar";
}

TEST(PlanBars, ScheduleQuantityAndDrawingAreTheSame) {
    const auto p = formats::demoFloorProject();
    const auto all = design::run(p, {.trace = false});
    ASSERT_EQ(all.elements.size(), 1u);
    const auto& f = *all.elements[0];
    const auto schedule = all.scheduleOf(f);
    double mass = 0;
    int number = 0;
    std::size_t lie = 0;
    for (const auto& part : f.parts)
        for (const auto& i : part->items)
            mass += i.massEach * i.number, number += i.number, lie += i.lie.size();
    int rows = 0;
    for (const auto& r : schedule.rows) rows += r.number;
    EXPECT_NEAR(schedule.mass, mass, 1e-6);
    EXPECT_NEAR(f.steel, mass, 1e-6);
    EXPECT_EQ(rows, number);
    EXPECT_EQ(lie, std::size_t(number));
    // Every connection with shear steel has its rails, every edge and opening its bars.
    int edges = 0, rails = 0;
    for (const auto& part : f.parts) {
        edges += part->part.kind == model::PartKind::Edge && !part->items.empty();
        rails += part->part.kind == model::PartKind::Connection && !part->items.empty();
    }
    EXPECT_EQ(edges, 3) << "edges, the drop and the opening";
    EXPECT_EQ(rails, 8);
}

// On random slabs and floors: what is drawn, scheduled, weighed and checked are the same bars. Every run's
// call-out has as many as are drawn, each bar is drawn as long as it is cut, and the steel over the width is
// no less than the run that the checks read.
TEST(PlanBars, DrawnScheduledAndCheckedAgreeOnRandomProjects) {
    int projects = 0;
    auto agree = [&](const model::Project& p, unsigned seed) {
        const auto d = design::run(p, {.trace = false});
        if (d.elements.empty() || !d.elements[0]->error.empty()) return;
        const auto& e = *d.elements[0];
        ++projects;
        const auto schedule = d.scheduleOf(e);
        double mass = 0, length = 0;
        long number = 0;
        for (const auto& part : e.parts)
            for (const auto& i : part->items) {
                mass += i.massEach * i.number, number += i.number, length += i.cutLength * i.number;
                if (e.parts.size() > 1) {
                    EXPECT_EQ(std::size_t(i.number), i.lie.size()) << seed;
                }
            }
        long rows = 0;
        double totals = 0, lengths = 0;
        for (const auto& r : schedule.rows) rows += r.total();
        for (const auto& t : schedule.totals) totals += t.mass, lengths += t.length;
        const double exact = 1e-9 * std::max(mass, 1.0);
        EXPECT_EQ(rows, number) << seed;
        EXPECT_NEAR(schedule.mass, mass, exact) << seed;
        EXPECT_NEAR(totals, mass, exact) << seed;
        EXPECT_NEAR(e.steel, mass, exact) << seed;
        EXPECT_NEAR(lengths, length, 1e-9 * length) << seed;
        EXPECT_NEAR(design::quantities(p, d).at(0).steel, mass, exact) << seed;
        for (const auto& part : e.parts) {
            const auto* line = dynamic_cast<const design::LineAnswer*>(part.get());
            if (!line) continue;
            auto runs = line->runs;
            const auto across = line->crossing();
            runs.insert(runs.end(), across.begin(), across.end());
            for (const auto& r : runs) {
                int bars = 0, first = 0;
                double area = 0;
                for (const auto& i : part->items)
                    if (i.run == r.id) {
                        if (first == 0) first = i.number;
                        bars += i.number;
                        area = std::numbers::pi / 4 * i.diameter * i.diameter;
                        EXPECT_EQ(i.bar, r.bar) << seed << " " << part->name << " " << r.id << " "
                                                << int(r.role) << " " << r.from << " " << r.to;
                        EXPECT_EQ(i.spacing, r.spacing);
                    }
                if (bars == 0) continue;
                const int drawn = part->items.front().lie.empty() ? first : bars;
                EXPECT_EQ(std::stoi(d.callout(*part, r.id, p.basis.units)), drawn) << seed << " " << r.id;
                EXPECT_NEAR(area / r.spacing, r.area, 0.01 * r.area) << "what the checks read";
                if (e.parts.size() > 1 || r.role == model::Role::EndU || r.role == model::Role::SideU)
                    continue;
                const double width =
                    (model::across(r.role) ? r.to - r.from : p.slabs[0]->width - 2 * p.basis.coverSide) -
                    r.spacing;
                EXPECT_GE(first * area, r.area * width - 1e-6) << seed << " " << r.id;
            }
        }
    };
    for (unsigned seed = 1; seed <= 160; ++seed) agree(test::randomProject(seed), seed);
    for (unsigned seed = 101; seed <= 145; ++seed) agree(random(seed), seed);
    EXPECT_GT(projects, 190);
}

// A floor of equal bays: bars of like places are alike, so there are few marks; both halves hold the same.
TEST(PlanBars, EqualBaysShareTheirMarks) {
    auto marksOf = [](int n) {
        const auto all = design::run(test::regularFloor(n, n, 6000, 6000), {.trace = false});
        return all.scheduleOf(*all.elements[0]).rows.size();
    };
    const auto five = marksOf(5), seven = marksOf(7);
    EXPECT_LE(seven, five + 10) << "more bays of the same kind bring hardly any mark";
    EXPECT_LT(five, 60u);
    const auto f = designed(test::regularFloor(4, 4, 6000, 6000));
    std::multiset<std::string> left, right;
    for (const auto& s : f->strips)
        for (const auto& i : s->items)
            for (const auto& l : i.lie) {
                const Point m{(l.a.x + l.b.x) / 2 - 9000, (l.a.y + l.b.y) / 2 - 9000};
                if (s->direction == 1 && std::abs(m.x) > 60)
                    (m.x < 0 ? left : right).insert(schedule::signature(i));
            }
    EXPECT_NEAR(double(left.size()), double(right.size()), 0.01 * double(left.size()));
    EXPECT_GT(left.size(), 200u);
}

// What is longer than the stock is lapped: the pieces of a line overlap by the standard's length at least,
// and laps of neighbouring lines lie apart.
TEST(PlanBars, LongBarsAreLappedByTurns) {
    const auto f = designed(test::regularFloor(6, 3, 7000, 6000));
    int lapped = 0, apart = 0, pairs = 0;
    for (const auto& s : f->strips) {
        const auto& axes = s->strip->axes;
        for (const auto& r : s->runs) {
            std::map<long, std::vector<std::pair<double, double>>> lines;
            for (const auto& i : s->items)
                if (i.run == r.id)
                    for (const auto& l : i.lie)
                        lines[std::lround(axes.local(l.a).y)].emplace_back(axes.local(l.a).x,
                                                                           axes.local(l.b).x);
            const line::LineBasis in{*f->basis, *f->standard, s->outerTop, s->outerBottom};
            const double lap =
                f->standard->anchorage->lap(bars::anchorageInput(r, false, f->floor->slabs[0].thickness, in));
            double last = -1;
            for (auto& [v, pieces] : lines) {
                std::sort(pieces.begin(), pieces.end());
                for (std::size_t k = 0; k + 1 < pieces.size(); ++k) {
                    ++lapped;
                    EXPECT_GE(pieces[k].second - pieces[k + 1].first, lap - 1e-6) << s->name << " " << r.id;
                }
                if (pieces.size() < 2) continue;
                if (last >= 0) ++pairs, apart += std::abs(pieces[0].second - last) > 1.25 * lap;
                last = pieces[0].second;
            }
        }
    }
    EXPECT_GT(lapped, 50);
    EXPECT_GT(apart, 0.95 * pairs);
}

TEST(PlanBars, BesideAnOpeningLiesWhatItCutsOff) {
    auto p = test::regularFloor(3, 3, 6000, 6000);
    p = model::editFloor(p, "f1", [](model::Floor& f, model::Project&) {
        f.openings.push_back({"o1", "O1", test::rectangle(2200, 2200, 3800, 3800)});
    });
    const auto f = designed(p);
    const design::PartAnswer* opening = nullptr;
    for (const auto& part : f->parts)
        if (part->part.kind == model::PartKind::Edge && part->part.key == "o1") opening = part.get();
    ASSERT_NE(opening, nullptr);
    double beside = 0;
    int u = 0;
    for (const auto& i : opening->items) {
        if (i.shape == "21") u += i.number;
        if (i.run == "beside/0b") beside += std::numbers::pi / 4 * i.diameter * i.diameter * i.number;
    }
    double cut = 0;
    for (const auto& s : f->strips)
        if (s->direction == 0)
            for (const auto& r : s->runs)
                if (!r.top() && r.from < 2200 && r.to > 3800 &&
                    std::any_of(s->strip->parts.begin(), s->strip->parts.end(), [](const auto& ring) {
                        return geometry::distanceToEdge(ring, {3000, 2100}) < 400;
                    }))
                    cut = std::max(cut, r.area * 1600);
    EXPECT_GE(beside, cut * 0.999);
    // Four sides of 1.6 m at 300 mm.
    EXPECT_EQ(u, 4 * (int(std::ceil((1600 - 2 * f->basis->coverSide) / 300)) + 1));
}

// U-bars take the depth of the slab where they stand, bars along edges lap by the standard's length, and a
// drop has its mat within it.
TEST(PlanBars, EdgesFollowTheSlabAndDropsHaveTheirMat) {
    auto p = test::regularFloor(3, 3, 6000, 6000);
    auto f = std::make_shared<model::Floor>(*p.floors[0]);
    // The slab divided into one of 250 and one of 320.
    const auto whole = f->slabs[0];
    double x0 = 1e300, x1 = -1e300, y0 = 1e300, y1 = -1e300;
    for (auto q : whole.outline) {
        x0 = std::min(x0, q.x), x1 = std::max(x1, q.x), y0 = std::min(y0, q.y), y1 = std::max(y1, q.y);
    }
    const double seam = x0 + 0.45 * (x1 - x0);
    f->slabs[0].outline = {{x0, y0}, {seam, y0}, {seam, y1}, {x0, y1}};
    f->slabs[0].thickness = 250;
    auto other = f->slabs[0];
    other.id = "s900", other.thickness = 320;
    other.outline = {{seam, y0}, {x1, y0}, {x1, y1}, {seam, y1}};
    f->slabs.push_back(other);
    model::Zone z;
    z.id = "z900", z.thickness = 450;
    z.outline = {
        {x0 + 5000, y0 + 5000}, {x0 + 7000, y0 + 5000}, {x0 + 7000, y0 + 7000}, {x0 + 5000, y0 + 7000}};
    f->zones.push_back(z);
    p.floors[0] = f;
    ASSERT_TRUE(model::validate(p).empty());
    const auto d = designed(p);
    ASSERT_TRUE(d && d->layout);
    const auto& b = *d->basis;
    int thin = 0, thick = 0, mat = 0;
    for (const auto& part : d->parts) {
        if (part->part.kind != model::PartKind::Edge) continue;
        for (const auto& i : part->items) {
            if (part->part.key == "z900") {
                EXPECT_EQ(i.shape, "21");
                EXPECT_NEAR(i.dimensions.at('A'), 450 - b.coverTop - b.coverBottom, 5);
                for (const auto& l : i.lie)
                    for (Point q : {l.a, l.b}) {
                        ++mat;
                        EXPECT_GT(q.x, x0 + 5000 + b.coverSide - 1);
                        EXPECT_LT(q.x, x0 + 7000 - b.coverSide + 1);
                        EXPECT_GT(q.y, y0 + 5000 + b.coverSide - 1);
                        EXPECT_LT(q.y, y0 + 7000 - b.coverSide + 1);
                    }
            } else if (i.shape == "21") {
                for (const auto& l : i.lie) {
                    const bool left = l.a.x < seam;
                    EXPECT_NEAR(i.dimensions.at('B'), (left ? 250 : 320) - b.coverTop - b.coverBottom, 5)
                        << part->name << " " << i.run << " " << l.a.x << " " << l.a.y;
                    (left ? thin : thick)++;
                }
            } else if (i.run.ends_with("/along") && i.cutLength > 5000) {
                // Pieces of a side lap by the standard's length at least.
                for (std::size_t k = 0; k + 2 < i.lie.size(); k += 2) {
                    const auto &a = i.lie[k], &c = i.lie[k + 2];
                    const bool same = std::abs(a.a.y - c.a.y) < 1 && std::abs(a.a.y - a.b.y) < 1;
                    if (!same) continue;
                    const line::LineBasis in{b, *d->standard};
                    bars::Run r;
                    r.role = model::Role::TopMain, r.bar = i.bar, r.spacing = 200;
                    bars::size(r, 250, in);
                    EXPECT_GE(std::min(a.b.x, c.b.x) - std::max(a.a.x, c.a.x),
                              d->standard->anchorage->lap(bars::anchorageInput(r, false, 250, in)) - 51);
                }
            }
        }
    }
    EXPECT_GT(thin, 20);
    EXPECT_GT(thick, 20);
    EXPECT_GT(mat, 20);
}

// A floor that is its own mirror image has bars that are: every bar has its like on the other side, in the
// same place of its own side.
TEST(PlanBars, SymmetricFloorsHaveSymmetricBars) {
    std::mt19937 random(11);
    int bars = 0;
    for (int k = 0; k < 12; ++k) {
        const double lx = 3500 + 100 * int(random() % 18), ly = 3500 + 100 * int(random() % 18);
        auto p = test::regularFloor(3, 3, lx, ly, 220 + 10 * int(random() % 8), 150 + 50 * int(random() % 5));
        if (k % 3 == 1) {  // an opening in the middle of a bay, on the axis
            auto f = std::make_shared<model::Floor>(*p.floors[0]);
            model::Opening o;
            o.id = "o900";
            o.outline = test::rectangle(lx - 500, ly / 2 - 400, lx + 500, ly / 2 + 400);
            f->openings.push_back(o);
            p.floors[0] = f;
        }
        const auto f = designed(p);
        ASSERT_TRUE(f && f->layout);
        // Across the middle line x = lx.
        std::multiset<std::tuple<std::string, long, long, long, long>> here, there;
        for (const auto& s : f->strips)
            for (const auto& i : s->items)
                for (const auto& l : i.lie) {
                    ++bars;
                    const std::string what = i.bar + "/" + i.shape + i.layer;
                    auto key = [&](Point a, Point b) {
                        if (std::pair(b.x, b.y) < std::pair(a.x, a.y)) std::swap(a, b);
                        return std::tuple(what, std::lround(a.x / 10), std::lround(a.y / 10),
                                          std::lround(b.x / 10), std::lround(b.y / 10));
                    };
                    here.insert(key(l.a, l.b));
                    there.insert(key({2 * lx - l.a.x, l.a.y}, {2 * lx - l.b.x, l.b.y}));
                }
        std::vector<std::tuple<std::string, long, long, long, long>> alone;
        std::set_difference(here.begin(), here.end(), there.begin(), there.end(), std::back_inserter(alone));
        std::size_t far = 0;
        for (const auto& a : alone) {
            bool near = false;
            for (const auto& b : there)
                near |= std::get<0>(a) == std::get<0>(b) && std::abs(std::get<1>(a) - std::get<1>(b)) < 2 &&
                        std::abs(std::get<2>(a) - std::get<2>(b)) < 2 &&
                        std::abs(std::get<3>(a) - std::get<3>(b)) < 2 &&
                        std::abs(std::get<4>(a) - std::get<4>(b)) < 2;
            far += !near;
        }
        EXPECT_EQ(far, 0u) << k << ": of " << here.size() << ", " << lx << " by " << ly;
    }
    EXPECT_GT(bars, 3000);
}

// Bars of slabs at different levels: each fits, at the height of one of the slabs it lies in, in the concrete
// with its cover, measured in three dimensions by sampling; across the step bars go on by a lap.
TEST(PlanBars, AtStepsOfLevelBarsStayInTheConcreteAndLap) {
    std::mt19937 random(3);
    int bars = 0, crossing = 0, steps = 0;
    for (int k = 0; k < 15; ++k) {
        auto p = test::regularFloor(3, 3, 6000, 5000, 300);
        auto f = std::make_shared<model::Floor>(*p.floors[0]);
        const double level = 50 * (int(random() % 7) - 3), thickness = 250 + 50 * int(random() % 4);
        model::SlabArea other{"d900", "Low", test::rectangle(6000, -200, 12200, 10200), thickness};
        other.level = level;
        if (k % 3 == 0) {  // sunk (or raised) among the others
            f->slabs[0].outline = test::rectangle(-200, -200, 2000, 10200);
            other.outline = test::rectangle(2000, 1500, 5000, 4000);
            f->slabs.push_back({"d901", "", test::rectangle(2000, -200, 5000, 1500), 300});
            f->slabs.push_back({"d902", "", test::rectangle(2000, 4000, 5000, 10200), 300});
            f->slabs.push_back({"d903", "", test::rectangle(5000, -200, 12200, 10200), 300});
        } else {
            f->slabs[0].outline = test::rectangle(-200, -200, 6000, 10200);
        }
        f->slabs.push_back(other);
        p.floors[0] = f;
        const auto d = designed(p);
        ASSERT_TRUE(d && d->layout);
        auto slabAt = [&](Point q) -> const model::SlabArea* {
            for (std::size_t i = f->slabs.size(); i-- > 0;)
                if (geometry::contains(model::ring(f->slabs[i].outline), q)) return &f->slabs[i];
            return nullptr;
        };
        auto concrete = [&](Point q, double z) {
            const auto* s = slabAt(q);
            return s && z < s->level + 0.1 && z > s->level - s->thickness - 0.1;
        };
        const double cover = d->basis->coverSide;
        const bool stepped = level != 0 || thickness != 300;
        for (const auto& part : d->parts) {
            steps += part->part.key == "steps";
            if (!stepped) {
                EXPECT_NE(part->part.key, "steps");
            }
            if (part->part.kind != model::PartKind::Strip) continue;
            for (const auto& i : part->items)
                for (const auto& l : i.lie) {
                    ++bars;
                    const bool top = i.layer.starts_with('T');
                    bool fits = false, over[2] = {false, false};  // the last slab, others
                    for (const auto& s : f->slabs) {
                        const double z = top ? s.level - d->basis->coverTop
                                             : s.level - s.thickness + d->basis->coverBottom;
                        bool all = true, own = false;
                        for (int n = 0; n <= 40; ++n) {
                            const Point q{l.a.x + n / 40.0 * (l.b.x - l.a.x),
                                          l.a.y + n / 40.0 * (l.b.y - l.a.y)};
                            own |= slabAt(q) == &s || geometry::distanceToEdge(model::ring(s.outline), q) < 1;
                            over[&s == &f->slabs.back()] |= slabAt(q) == &s;
                            const double c = cover + i.diameter / 2 - 0.7;
                            for (Point e : {Point{c, 0}, {-c, 0}, {0, c}, {0, -c}})
                                all = all && concrete({q.x + e.x, q.y + e.y}, z);
                        }
                        fits |= all && own;
                    }
                    EXPECT_TRUE(fits) << k << " " << part->name << " " << i.run << " " << l.a.x << " "
                                      << l.a.y << " to " << l.b.x << " " << l.b.y;
                    crossing += stepped && over[0] && over[1];
                }
        }
        // Across the step in the middle of the second bay's line, as far as the lap on the side where they go
        // on.
        if (k % 3 == 0 || level == 0 || std::abs(level) > 150) continue;
        for (const auto& s : d->strips) {
            if (s->direction != 0) continue;
            for (const auto& r : s->runs) {
                if (!r.top() || r.band() || r.from > 6000 - 1500 || r.to < 6000 + 1500) continue;
                line::LineBasis in{*d->basis, *d->standard};
                const double lap = d->standard->anchorage->lap(bars::anchorageInput(r, false, 250, in));
                int on = 0;
                for (const auto& i : s->items) {
                    if (i.run != r.id) continue;
                    for (const auto& l : i.lie) {
                        const double from = std::min(l.a.x, l.b.x), to = std::max(l.a.x, l.b.x);
                        if (from > 5990 || to < 6010) continue;
                        ++on;
                        EXPECT_GE(level < 0 ? 6000 - from : to - 6000, std::min(lap, 1400.0) - 1) << k;
                    }
                }
                EXPECT_GT(on, 3) << k << " " << r.id;
            }
        }
    }
    EXPECT_GT(bars, 5000);
    EXPECT_GT(crossing, 300);
    EXPECT_GT(steps, 9);
}
