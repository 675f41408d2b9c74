// Control perimeters against closed forms, against another construction by hand, and by properties over
// random sites.
#include "punching/perimeter.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <random>

using namespace talvik;
using namespace talvik::punching;
using geometry::rectangle;
using std::numbers::pi;

namespace {

double distanceTo(const Ring& ring, Point p) {
    return geometry::contains(ring, p) ? 0 : geometry::distanceToEdge(ring, p);
}
Ring turned(const Ring& ring, double degrees, Point by = {}) {
    const double c = std::cos(degrees * pi / 180), s = std::sin(degrees * pi / 180);
    Ring out;
    for (Point p : ring) out.push_back({by.x + c * p.x - s * p.y, by.y + s * p.x + c * p.y});
    return out;
}
const Ring wide{{-1e5, -1e5}, {1e5, -1e5}, {1e5, 1e5}, {-1e5, 1e5}};

// The boundary of a rectangle moved outwards with round corners, in fine steps from an angle on,
// anticlockwise.
std::vector<Point> roundedBoundary(double a, double b, double r, double degrees) {
    std::vector<Point> all;
    const Point corners[] = {{a / 2, b / 2}, {-a / 2, b / 2}, {-a / 2, -b / 2}, {a / 2, -b / 2}};
    for (int k = 0; k < 4; ++k)
        for (int i = 0; i <= 400; ++i) {
            const double t = (k + i / 400.0) * pi / 2;
            all.push_back({corners[k].x + r * std::cos(t), corners[k].y + r * std::sin(t)});
        }
    return turned(all, degrees);
}

}  // namespace

TEST(ControlPerimeter, OfInteriorColumnsIsTheClosedFormAtAnyAngle) {
    std::mt19937 random(1);
    std::uniform_real_distribution<double> side(200, 900), depth(120, 500), angle(0, 360);
    for (int i = 0; i < 100; ++i) {
        const double a = side(random), b = side(random), d = depth(random), turn = angle(random);
        const Site site{rectangle({3000, -2000}, a, b, turn), {wide}, {}};
        const auto en = perimeter(site, {2 * d, true}), aci = perimeter(site, {d / 2, false});
        EXPECT_TRUE(en.closed() && aci.closed());
        EXPECT_NEAR(en.length() / (2 * (a + b) + 4 * pi * d), 1, 2e-4);
        EXPECT_NEAR(aci.length(), 2 * (a + b) + 4 * d, 0.01);
        EXPECT_NEAR(geometry::length(en.centroid(), {3000, -2000}), 0, 1);
        // EN 1992-1-1 (6.41), and J_c of ACI 318-19 R8.4.4.2.3 for the axis across side a.
        EXPECT_NEAR(en.moments(en.centroid(), turn).first /
                        (a * a / 2 + a * b + 4 * b * d + 16 * d * d + 2 * pi * d * a),
                    1, 1e-3);
        const auto m = aci.moments(aci.centroid(), turn);
        const double A = a + d, B = b + d;
        EXPECT_NEAR((d * m.second + d * d * d / 12 * m.across) /
                        (d * A * A * A / 6 + A * d * d * d / 6 + d * B * A * A / 2),
                    1, 1e-5);
    }
    const auto circle = perimeter({geometry::round({0, 0}, 500), {}, {}}, {400, true});
    EXPECT_NEAR(circle.length() / (pi * 1300), 1, 2e-3);
}

// Round a column near one edge: the boundary of the area moved outwards between the two places where it runs
// square to the edge, on the side away from it, and straight on to the edge.
TEST(ControlPerimeter, AtAnEdgeOfAnyDirectionEndsSquareToIt) {
    std::mt19937 random(2);
    std::uniform_real_distribution<double> side(200, 900), depth(120, 400), angle(0, 90), over(0, 1);
    int open = 0;
    for (int i = 0; i < 500; ++i) {
        const double a = side(random), b = side(random), d = depth(random), turn = angle(random), r = 2 * d;
        const Ring column = rectangle({0, 0}, a, b, turn);
        double low = 0;
        for (Point p : column) low = std::min(low, p.y);
        const double edge = low - 5 * d * over(random);  // at y = edge, slab above
        const auto p =
            perimeter({column, {{{-1e5, edge}, {1e5, edge}, {1e5, 1e5}, {-1e5, 1e5}}}, {}}, {r, true});
        const auto boundary = roundedBoundary(a, b, r, turn);
        std::size_t right = 0, left = 0;
        double all = 0, lowest = 0;
        for (std::size_t k = 0; k < boundary.size(); ++k) {
            if (boundary[k].x > boundary[right].x) right = k;
            if (boundary[k].x < boundary[left].x) left = k;
            lowest = std::min(lowest, boundary[k].y);
            all += geometry::length(boundary[k], boundary[(k + 1) % boundary.size()]);
        }
        double upper = boundary[right].y - edge + boundary[left].y - edge;
        for (std::size_t k = right; k != left; k = (k + 1) % boundary.size())
            upper += geometry::length(boundary[k], boundary[(k + 1) % boundary.size()]);
        const double expected = lowest >= edge ? std::min(all, upper) : upper;
        EXPECT_NEAR(p.length() / expected, 1, 5e-4)
            << a << " " << b << " " << d << " " << turn << " " << edge;
        open += !p.closed();
        for (const auto& path : p.paths)
            for (Point q : path) {
                EXPECT_GE(distanceTo(column, q), r * (1 - 2e-4)) << "nowhere nearer";
                EXPECT_GE(q.y, edge - 1e-6);
            }
    }
    EXPECT_GT(open, 200);
    EXPECT_LT(open, 480);
}

// Columns turned anyhow near an edge, with an opening anywhere: the lit line against the same line sampled in
// steps of 2 mm, by the bearings of the samples.
TEST(ControlPerimeter, WithEdgesAndOpeningsItsLengthIsThatOfSamples) {
    std::mt19937 random(4);
    std::uniform_real_distribution<double> side(200, 900), depth(120, 400), angle(0, 90), over(0, 1),
        place(-2600, 2600), size(150, 900);
    int shadowed = 0, open = 0;
    for (int i = 0; i < 1600; ++i) {
        const double a = side(random), b = side(random), d = depth(random), turn = angle(random), r = 2 * d;
        const Ring column = rectangle({0, 0}, a, b, turn);
        double low = 0;
        for (Point p : column) low = std::min(low, p.y);
        const double edge = low - 5 * d * over(random);
        const Ring opening =
            rectangle({place(random), place(random)}, size(random), size(random), angle(random));
        double apart = 1e9, lowest = 1e9;
        bool meets = false;
        for (int k = 0; k < 4; ++k)
            for (int t = 0; t < 200; ++t) {
                const Point p = opening[std::size_t(k)], q = opening[std::size_t(k + 1) % 4];
                const Point at{p.x + (q.x - p.x) * t / 200, p.y + (q.y - p.y) * t / 200};
                apart = std::min(apart, distanceTo(column, at)), lowest = std::min(lowest, at.y);
                meets |= geometry::contains(column, at);
            }
        for (Point p : column) meets |= geometry::contains(opening, p);
        const double near = 6 * d;
        if (meets || apart < 20 || std::abs(apart - near) < 30 || lowest < edge + 50) continue;
        const auto p = perimeter({column, {{{-1e5, edge}, {1e5, edge}, {1e5, 1e5}, {-1e5, 1e5}}}, {opening}},
                                 {r, true, near});

        const auto boundary = roundedBoundary(a, b, r, turn);
        std::size_t right = 0, left = 0;
        for (std::size_t k = 0; k < boundary.size(); ++k) {
            if (boundary[k].x > boundary[right].x) right = k;
            if (boundary[k].x < boundary[left].x) left = k;
        }
        Ring line;
        if (p.edges.empty()) {
            line = boundary;
            line.push_back(boundary.front());
        } else {
            ++open;
            line.push_back({boundary[right].x, edge});
            for (std::size_t k = right; k != left; k = (k + 1) % boundary.size()) line.push_back(boundary[k]);
            line.push_back(boundary[left]);
            line.push_back({boundary[left].x, edge});
        }
        const double to = std::atan2((opening[0].y + opening[2].y) / 2, (opening[0].x + opening[2].x) / 2);
        double from = 0, until = 0;
        for (Point q : opening) {
            const double off = std::remainder(std::atan2(q.y, q.x) - to, 2 * pi);
            from = std::min(from, off), until = std::max(until, off);
        }
        double lit = 0, whole = 0;
        for (std::size_t k = 0; k + 1 < line.size(); ++k) {
            const double l = geometry::length(line[k], line[k + 1]);
            const int steps = std::max(1, int(std::ceil(l / 2)));
            for (int t = 0; t < steps; ++t) {
                const double at = (t + 0.5) / steps;
                const Point q{line[k].x + at * (line[k + 1].x - line[k].x),
                              line[k].y + at * (line[k + 1].y - line[k].y)};
                const double off = std::remainder(std::atan2(q.y, q.x) - to, 2 * pi);
                whole += l / steps;
                if (apart > near || off < from || off > until) lit += l / steps;
            }
        }
        shadowed += lit < whole - 1;
        EXPECT_NEAR(p.length(), lit, 5e-4 * whole + 5) << i;
    }
    EXPECT_GT(shadowed, 250);
    EXPECT_GT(open, 150);
}

// From the inside over an edge to a corner: no jump that the slab does not have.
TEST(ControlPerimeter, ChangesSteadilyAsTheColumnMovesToTheEdgeAndTheCorner) {
    const double d = 220, a = 400, b = 300, step = 10;
    const Ring slab{{0, 0}, {20000, 0}, {20000, 20000}, {0, 20000}};
    for (const Rule& rule : {Rule{2 * d, true}, Rule{d / 2, false}}) {
        double last = -1, most = 0;
        bool closed = true;
        auto at = [&](double x, double y) {
            const auto p = perimeter({rectangle({x, y}, a, b), {slab}, {}}, rule);
            if (last > 0) most = std::max(most, std::abs(p.length() - last));
            last = p.length(), closed = p.closed();
        };
        for (double x = 5000; x >= a / 2; x -= step) at(x, 5000);
        EXPECT_FALSE(closed);
        EXPECT_LE(most, 2.1 * step);
        for (double y = 5000; y >= b / 2; y -= step) at(a / 2, y);
        EXPECT_FALSE(closed);
        EXPECT_LE(most, 2.1 * step);
    }
}

// Shadows of openings: what is left and what is dead make up the whole; a piece is dead just where the line
// from the middle of the column to it lies between the outermost lines to points of an opening that is near
// enough.
TEST(ControlPerimeter, OpeningsShadowWhatLiesBetweenTheTangents) {
    std::mt19937 random(3);
    std::uniform_real_distribution<double> place(-2600, 2600), size(150, 900), angle(0, 90);
    int shadowed = 0;
    for (int i = 0; i < 400; ++i) {
        const double d = 200, near = 6 * d;
        const Ring column = rectangle({0, 0}, 400, 300, angle(random));
        const Ring opening =
            rectangle({place(random), place(random)}, size(random), size(random), angle(random));
        double apart = 1e9;
        bool over = false;
        for (int k = 0; k < 4; ++k)
            for (int t = 0; t < 200; ++t) {
                const Point p = opening[std::size_t(k)], q = opening[std::size_t(k + 1) % 4];
                const Point at{p.x + (q.x - p.x) * t / 200, p.y + (q.y - p.y) * t / 200};
                apart = std::min(apart, distanceTo(column, at));
            }
        for (Point p : column) over |= geometry::contains(opening, p);
        if (over || apart < 20 || std::abs(apart - near) < 30) continue;
        const Rule rule{2 * d, true, near};
        const auto whole = perimeter({column, {wide}, {}}, rule),
                   cut = perimeter({column, {wide}, {opening}}, rule);
        double dead = 0;
        for (const auto& path : cut.dead)
            for (std::size_t k = 0; k + 1 < path.size(); ++k) dead += geometry::length(path[k], path[k + 1]);
        EXPECT_NEAR(cut.length() + dead, whole.length(), 1e-3);
        if (apart > near) {
            EXPECT_EQ(dead, 0);
            continue;
        }
        ++shadowed;
        // By bearing, in fine steps along the outline of the opening.
        const double to = std::atan2((opening[0].y + opening[2].y) / 2, (opening[0].x + opening[2].x) / 2);
        double low = 0, high = 0;
        for (int k = 0; k < 4; ++k)
            for (int t = 0; t <= 100; ++t) {
                const Point p = opening[std::size_t(k)], q = opening[std::size_t(k + 1) % 4];
                const double off = std::remainder(
                    std::atan2(p.y + (q.y - p.y) * t / 100, p.x + (q.x - p.x) * t / 100) - to, 2 * pi);
                low = std::min(low, off), high = std::max(high, off);
            }
        auto in = [&](Point p) {
            const double off = std::remainder(std::atan2(p.y, p.x) - to, 2 * pi);
            return off > low && off < high;
        };
        for (const auto& path : cut.dead)
            for (std::size_t k = 0; k + 1 < path.size(); ++k)
                EXPECT_TRUE(in({(path[k].x + path[k + 1].x) / 2, (path[k].y + path[k + 1].y) / 2}));
        for (const auto& path : cut.paths)
            for (std::size_t k = 0; k + 1 < path.size(); ++k)
                EXPECT_FALSE(in({(path[k].x + path[k + 1].x) / 2, (path[k].y + path[k + 1].y) / 2}));
    }
    EXPECT_GT(shadowed, 100);
}

// Moments of any perimeter against sums over small steps.
TEST(ControlPerimeter, MomentsAreThoseOfSmallSteps) {
    std::mt19937 random(4);
    std::uniform_real_distribution<double> side(200, 900), where(300, 1500), angle(0, 180);
    for (int i = 0; i < 100; ++i) {
        const Ring slab{{0, 0}, {12000, 0}, {12000, 9000}, {0, 9000}};
        const auto p =
            perimeter({rectangle({where(random), where(random)}, side(random), side(random), angle(random)),
                       {slab},
                       {rectangle({2500, 2500}, 600, 400)}},
                      {400, true, 1200});
        const double turn = angle(random);
        const Point c = p.centroid(), way{std::cos(turn * pi / 180), std::sin(turn * pi / 180)};
        double length = 0, first = 0, second = 0, product = 0, about = 0;
        for (const auto& path : p.paths)
            for (std::size_t k = 0; k + 1 < path.size(); ++k) {
                const Point a = path[k], b = path[k + 1];
                const int n = 50;
                const double l = geometry::length(a, b) / n;
                for (int t = 0; t < n; ++t) {
                    const Point q{a.x + (b.x - a.x) * (t + 0.5) / n - c.x,
                                  a.y + (b.y - a.y) * (t + 0.5) / n - c.y};
                    const double e = q.x * way.x + q.y * way.y, f = q.y * way.x - q.x * way.y;
                    length += l, first += l * std::abs(e), second += l * e * e, product += l * e * f,
                        about += l * e;
                }
            }
        ASSERT_GT(length, 0);
        const auto m = p.moments(c, turn);
        EXPECT_NEAR(p.length(), length, 1e-6 * length);
        EXPECT_NEAR(about, 0, 1e-6 * first) << "the centroid";
        EXPECT_NEAR(m.first, first, 1e-3 * first);
        EXPECT_NEAR(m.second, second, 1e-3 * second);
        EXPECT_NEAR(p.product(c, turn), product, 1e-3 * second);
    }
}

TEST(ControlPerimeter, StripsTipsAndReEntrantCornersAreCutAsTheyLie) {
    const double d = 200;
    // A strip of slab 1.5 m wide: two lines square across it.
    const Ring strip{{0, 0}, {20000, 0}, {20000, 1500}, {0, 1500}};
    const auto across = perimeter({rectangle({9000, 750}, 300, 300), {strip}, {}}, {2 * d, true});
    EXPECT_EQ(across.paths.size(), 2u);
    EXPECT_NEAR(across.length(), 3000, 1e-6);
    // At its tip the cut across, 1500 long, is one of one-way shear: the line turns from the end to a side.
    const auto tip = perimeter({rectangle({150, 750}, 300, 300), {strip}, {}}, {2 * d, true});
    EXPECT_EQ(tip.paths.size(), 1u);
    EXPECT_NEAR(tip.length(), 300 + pi * d + 300 + 600, 1);
    // In a re-entrant corner the slab lies round three quarters of the column.
    const Ring corner{{-8000, -8000}, {8000, -8000}, {8000, 0}, {0, 0}, {0, 8000}, {-8000, 8000}};
    const auto inner = perimeter({rectangle({-150, -150}, 300, 300), {corner}, {}}, {2 * d, true});
    EXPECT_NEAR(inner.length() / (4 * 300 + 3 * pi * d), 1, 1e-3)
        << "all but the quarter that there is no slab for";
    // Two slabs side by side are one; their common side is no edge.
    const auto joined = perimeter({rectangle({0, 0}, 300, 300),
                                   {{{-8000, -8000}, {0, -8000}, {0, 8000}, {-8000, 8000}},
                                    {{0, -8000}, {8000, -8000}, {8000, 8000}, {0, 8000}}},
                                   {}},
                                  {2 * d, true});
    EXPECT_TRUE(joined.closed());
    EXPECT_NEAR(joined.length() / (1200 + 4 * pi * d), 1, 2e-4);
}

namespace {

// The shortest line round a convex area from one place of an edge to another: of the hull of the area and the two
// places the longer way between them; over all pairs of places, in steps. Lines that leave the slab do not count.
double shortestByPairs(const Ring& slab, const std::vector<Point>& whole, double step) {
    std::vector<Point> edge, area;
    for (std::size_t i = 0; i < whole.size(); i += 12)
        if (geometry::contains(slab, whole[i])) area.push_back(whole[i]);
    Point middle{0, 0};
    for (Point p : area) middle = {middle.x + p.x / double(area.size()), middle.y + p.y / double(area.size())};
    double reach = 0;
    for (Point p : area) reach = std::max(reach, geometry::length(p, middle));
    for (std::size_t i = 0; i < slab.size(); ++i) {
        const Point a = slab[i], b = slab[(i + 1) % slab.size()];
        const int n = std::max(1, int(std::ceil(geometry::length(a, b) / step)));
        for (int k = 0; k < n; ++k) {
            const Point p{a.x + (b.x - a.x) * k / n, a.y + (b.y - a.y) * k / n};
            if (geometry::length(p, middle) < 2 * reach) edge.push_back(p);
        }
    }
    double best = 1e300;
    for (std::size_t i = 0; i < edge.size(); ++i)
        for (std::size_t k = 0; k < i; ++k) {
            if (geometry::length(edge[i], edge[k]) < reach) continue;
            auto all = area;
            all.push_back(edge[i]), all.push_back(edge[k]);
            const Ring h = geometry::hull(all);
            // Both are corners of the hull; the longer way round from one to the other lies on the slab.
            auto corner = [&](Point x) {
                for (std::size_t m = 0; m < h.size(); ++m)
                    if (geometry::length(h[m], x) < 1e-6) return m;
                return h.size();
            };
            std::size_t from = corner(edge[i]), to = corner(edge[k]);
            if (from == h.size() || to == h.size()) continue;
            auto way = [&](std::size_t a, std::size_t b) {
                double sum = 0;
                for (std::size_t m = a; m != b; m = (m + 1) % h.size())
                    sum += geometry::length(h[m], h[(m + 1) % h.size()]);
                return sum;
            };
            if (way(from, to) < way(to, from)) std::swap(from, to);
            bool on = true;
            for (std::size_t m = from; m != to && on; m = (m + 1) % h.size()) {
                const Point p = h[m], q = h[(m + 1) % h.size()];
                for (double t : {0.02, 0.5, 0.98}) {
                    const Point x{p.x + t * (q.x - p.x), p.y + t * (q.y - p.y)};
                    on &= geometry::contains(slab, x) || geometry::distanceToEdge(slab, x) < 1;
                }
            }
            if (on) best = std::min(best, way(from, to));
        }
    return best;
}

}  // namespace

// Edges that turn near a column, and a round slab of many sides: against all pairs of places of the edge.
TEST(ControlPerimeter, AtEdgesThatTurnItIsTheShortestOfAllPairs) {
    std::mt19937 random(11);
    std::uniform_real_distribution<double> turn(-14, 25), rim(0, 350), size(300, 600), depth(150, 260), off(-500, 500);
    int shorter = 0;
    for (int i = 0; i < 24; ++i) {
        const double c = size(random), d = depth(random), bend = turn(random) * pi / 180, over = rim(random),
                     at = off(random), far = 6000;
        const double y = -c / 2 - over;
        // Along x up to the kink, then turned by `bend` (downwards where positive).
        const Ring slab{{-far, y},
                        {at, y},
                        {at + far * std::cos(bend), y - far * std::sin(bend)},
                        {far, far},
                        {-far, far}};
        const Ring column = geometry::round({0, 0}, c);
        const auto p = perimeter({column, {slab}, {}}, {2 * d, true});
        double expected = shortestByPairs(slab, roundedBoundary(0.01, 0.01, c / 2 + 2 * d, 0), 30);
        if (y <= -c / 2 - 2 * d) expected = std::min(expected, 2 * pi * (c / 2 + 2 * d));
        EXPECT_LE(p.length(), expected * 1.004) << i;
        EXPECT_GE(p.length(), expected * 0.990) << i;
        shorter += std::abs(bend) > 0.05;
    }
    EXPECT_GT(shorter, 12);
    // A column 900 from the rim of a round slab drawn by 72 sides.
    const Ring round72 = [] {
        Ring r;
        for (int k = 0; k < 72; ++k) r.push_back({4000 * std::cos(k * pi / 36), 4000 * std::sin(k * pi / 36)});
        return r;
    }();
    const Point at{3500, 130};
    std::vector<Point> area;
    for (Point p : roundedBoundary(0.01, 0.01, 200 + 400, 0)) area.push_back({p.x + at.x, p.y + at.y});
    const auto p = perimeter({geometry::round(at, 400), {round72}, {}}, {400, true});
    EXPECT_NEAR(p.length() / shortestByPairs(round72, area, 12), 1, 4e-3);
}

// Openings longer outwards than across count as sqrt(l1 l2) wide at their near end: by bearings of samples.
TEST(ControlPerimeter, LongOpeningsCountWiderThanTheyAre) {
    for (double turn : {0.0, 30.0})
        for (double across : {200.0, 300.0, 700.0, 1500.0}) {
            const double c = 500, d = 170, r = 2 * d, length = 1200, gap = 250;
            const Ring opening = turned(rectangle({c / 2 + gap + length / 2, 0}, length, across), turn);
            const Ring column = turned(rectangle({0, 0}, c, c), turn);
            const auto p = perimeter({column, {wide}, {opening}}, {r, true, 6 * d, true});
            const double width = across < length ? std::sqrt(length * across) : across,
                         half = std::atan2(width / 2, c / 2 + gap) * 180 / pi;
            double lit = 0;
            const auto line = roundedBoundary(c, c, r, turn);
            for (std::size_t k = 0; k < line.size(); ++k) {
                const Point a = line[k], b = line[(k + 1) % line.size()];
                const double l = geometry::length(a, b);
                const int steps = std::max(1, int(l / 2));
                for (int t = 0; t < steps; ++t) {
                    const double x = a.x + (t + 0.5) / steps * (b.x - a.x), y = a.y + (t + 0.5) / steps * (b.y - a.y);
                    if (std::abs(std::remainder(std::atan2(y, x) * 180 / pi - turn, 360)) > half) lit += l / steps;
                }
            }
            EXPECT_NEAR(p.length(), lit, 6) << across;
        }
}

// Beyond shear steel openings are seen from the column, wherever the legs stand.
TEST(ControlPerimeter, OpeningsAreSeenFromTheColumn) {
    const Ring legs{{-700, -600}, {200, -600}, {200, 600}, {-700, 600}};  // not about the column
    const Ring opening = rectangle({900, 300}, 300, 300);
    const auto p = perimeter({legs, {wide}, {opening}, {}, Point{0, 0}}, {300, true, 2000});
    double low = 1e9, high = -1e9, dead = 0;
    for (Point q : opening) low = std::min(low, std::atan2(q.y, q.x)), high = std::max(high, std::atan2(q.y, q.x));
    for (const auto& path : p.dead)
        for (std::size_t i = 0; i + 1 < path.size(); ++i) {
            const Point m{(path[i].x + path[i + 1].x) / 2, (path[i].y + path[i + 1].y) / 2};
            EXPECT_GT(std::atan2(m.y, m.x), low - 1e-6);
            EXPECT_LT(std::atan2(m.y, m.x), high + 1e-6);
            dead += geometry::length(path[i], path[i + 1]);
        }
    // On the side x = 500 from bearing to bearing.
    EXPECT_NEAR(dead, 500 * (std::tan(high) - std::tan(low)), 2);
}

// A straight cut across a narrow slab is a section of one-way shear: the line that goes on round the area is there.
TEST(ControlPerimeter, StraightCutsAreNone) {
    for (double width : {900.0, 1200.0, 1600.0})
        for (double end : {250.0, 400.0, 700.0}) {
            const Ring walkway{{-end, -width / 2}, {8000, -width / 2}, {8000, width / 2}, {-end, width / 2}};
            for (const auto& p : perimeters({rectangle({0, 0}, 400, 400), {walkway}, {}}, {400, true})) {
                double most = 0;
                for (const auto& path : p.paths)
                    for (Point q : path) most = std::max(most, std::abs(q.x - p.paths[0][0].x));
                EXPECT_GT(most, 50) << width << " " << end;
                EXPECT_GT(p.moments(p.centroid(), 0).first, 1e4);
            }
        }
}
