#include "layout/placing.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

#include "layout/free_names.h"

namespace talvik::layout {
namespace {

// What of a member is geometry: calls `point` for free points and `outline` for outlines.
template <class M, class P, class O>
void geometryOf(M& m, P point, O outline) {
    using T = std::remove_const_t<M>;
    if constexpr (std::is_same_v<T, model::Column> || std::is_same_v<T, model::Pile>) {
        Point p{m.x, m.y};
        point(p);
        if constexpr (!std::is_const_v<M>) m.x = p.x, m.y = p.y;
    } else if constexpr (std::is_same_v<T, model::Grid>) {
        point(m.origin);
    } else if constexpr (std::is_same_v<T, model::Underlay> || std::is_same_v<T, model::PanelChoice> ||
                         std::is_same_v<T, model::Camber>) {
        point(m.at);
    } else if constexpr (std::is_same_v<T, model::FloorLoad>) {
        if (m.kind == model::FloorLoad::Kind::Area) {
            if (!m.outline.empty()) outline(m.outline);
        } else {
            point(m.a);
            if (m.kind == model::FloorLoad::Kind::Line) point(m.b);
        }
    } else if constexpr (requires { m.outline; }) {
        if (!m.outline.empty()) outline(m.outline);
    } else if constexpr (requires { m.a; }) {
        point(m.a);
        point(m.b);
    }
}

// Calls f(list, index) for the member with the id.
template <class Floor, class F>
bool withMember(Floor& floor, const Id& id, F f) {
    bool found = false;
    model::eachMember(floor, [&](const std::string&, auto& m) {
        if (!found && m.id == id) found = true, f(m);
    });
    return found;
}

// Calls f(list) for every list of members that can be copied.
template <class Floor, class F>
void eachCopied(Floor& f, F call) {
    call(f.slabs, 'd');
    call(f.zones, 'z');
    call(f.openings, 'o');
    call(f.columns, 'c');
    call(f.walls, 'w');
    call(f.edges, 'e');
    call(f.beams, 'b');
    call(f.grounds, 'g');
    call(f.piles, 'p');
    call(f.sagLines, 's');
    call(f.actions.loads, 'l');
}

void renew(Project& project, model::FloorLoad& load) {
    for (auto& layer : load.layers) layer.id = newId(project, 'y');
}
template <class M>
void renew(Project&, M&) {}

// Puts a member into its list with an id and a name of its own.
template <class T>
Id put(Project& project, Floor& floor, std::vector<T>& list, T m, char letter) {
    m.id = newId(project, letter);
    renew(project, m);
    if constexpr (requires { m.name; }) {
        if constexpr (std::is_same_v<T, model::Column>)
            if (m.name.empty())
                if (auto name = crossingAt(floor, {m.x, m.y}, 1))
                    if (std::none_of(list.begin(), list.end(),
                                     [&](const auto& o) { return o.name == *name; }))
                        m.name = *name;
        if (m.name.empty()) m.name = freeName(floor, namePrefix<T>());
    }
    list.push_back(std::move(m));
    return list.back().id;
}

model::Corner corner(Point p, double bulge = 0) {
    return {p.x, p.y, bulge};
}

}  // namespace

bool Box::contains(Point p) const {
    return p.x >= std::min(a.x, b.x) && p.x <= std::max(a.x, b.x) && p.y >= std::min(a.y, b.y) &&
           p.y <= std::max(a.y, b.y);
}

std::string freeName(const Floor& floor, const std::string& prefix) {
    return FreeNames(floor).next(prefix);
}

Id addFloor(Project& project, std::string name) {
    auto floor = std::make_shared<Floor>();
    floor->id = newId(project, 'f');
    floor->name = std::move(name);
    using Nature = model::LoadCase::Nature;
    for (auto [title, nature] : {std::pair{"Self-weight", Nature::SelfWeight},
                                 {"Finishes", Nature::Permanent},
                                 {"Imposed", Nature::Imposed}})
        floor->actions.cases.push_back({newId(project, 'q'), title, nature, "B"});
    project.floors.push_back(floor);
    return floor->id;
}

Id add(Project& p, Floor& f, model::Column m) {
    return put(p, f, f.columns, std::move(m), 'c');
}
Id add(Project& p, Floor& f, model::Wall m) {
    return put(p, f, f.walls, std::move(m), 'w');
}
Id add(Project& p, Floor& f, model::FloorBeam m) {
    return put(p, f, f.beams, std::move(m), 'b');
}
Id add(Project& p, Floor& f, model::LineSupport m) {
    return put(p, f, f.edges, std::move(m), 'e');
}
Id add(Project& p, Floor& f, model::SagLine m) {
    return put(p, f, f.sagLines, std::move(m), 's');
}
Id add(Project& p, Floor& f, model::SlabArea m) {
    return put(p, f, f.slabs, std::move(m), 'd');
}
Id add(Project& p, Floor& f, model::Zone m) {
    return put(p, f, f.zones, std::move(m), 'z');
}
Id add(Project& p, Floor& f, model::Opening m) {
    return put(p, f, f.openings, std::move(m), 'o');
}
Id add(Project& p, Floor& f, model::Pile m) {
    return put(p, f, f.piles, std::move(m), 'p');
}
Id add(Project& p, Floor& f, model::Ground m) {
    return put(p, f, f.grounds, std::move(m), 'g');
}
Id add(Project& p, Floor& f, model::FloorLoad m) {
    return put(p, f, f.actions.loads, std::move(m), 'l');
}
Id add(Project& p, Floor& f, model::Grid m) {
    if (m.name.empty()) m.name = f.grids.empty() ? "Grid" : freeName(f, "Grid ");
    return put(p, f, f.grids, std::move(m), 'g');
}
Id add(Project& p, Floor& f, model::LoadCase m) {
    if (m.name.empty()) m.name = freeName(f, "Case ");
    return put(p, f, f.actions.cases, std::move(m), 'q');
}

Ids placeColumns(Project& project, Floor& floor, const Box& box, const model::Column& like) {
    Ids made;
    for (const auto& c : crossings(floor)) {
        if (!box.contains(c.at)) continue;
        if (std::any_of(floor.columns.begin(), floor.columns.end(), [&](const auto& o) {
                return geometry::length({o.x, o.y}, c.at) < 1;
            }))
            continue;
        model::Column m = like;
        m.x = c.at.x, m.y = c.at.y;
        m.name.clear();
        made.push_back(add(project, floor, m));
    }
    return made;
}

namespace {

// Bays of a grid: their four corners, anticlockwise.
std::vector<std::array<Point, 4>> bays(const Floor& floor) {
    std::vector<std::array<Point, 4>> all;
    for (const auto& g : floor.grids)
        for (std::size_t j = 0; j < g.across.size(); ++j)
            for (std::size_t i = 0; i < g.along.size(); ++i)
                all.push_back({crossing(g, i, j), crossing(g, i + 1, j), crossing(g, i + 1, j + 1),
                               crossing(g, i, j + 1)});
    return all;
}
// From a side of a slab outwards to the farthest face of what stands on it; nought where a slab lies beyond.
double toOuterFaces(const Floor& floor, const std::vector<geometry::Ring>& slabs, Point a, Point b) {
    const double length = geometry::length(a, b);
    if (length < 1) return 0;
    const Point out{(b.y - a.y) / length, (a.x - b.x) / length},
        beyond{(a.x + b.x) / 2 + 5 * out.x, (a.y + b.y) / 2 + 5 * out.y};
    for (const auto& r : slabs)
        if (geometry::contains(r, beyond)) return 0;
    double most = 0;
    auto line = [&](const auto& m, double thickness) {
        const bool along = geometry::distance(m.a, a, b) < 1 || geometry::distance(a, m.a, m.b) < 1;
        const Point way{m.b.x - m.a.x, m.b.y - m.a.y};
        const double off = std::abs(way.x * out.x + way.y * out.y),
                     mid = geometry::distance({(a.x + b.x) / 2, (a.y + b.y) / 2}, m.a, m.b);
        if (along && off < 1 && mid < 1) most = std::max(most, thickness / 2);
    };
    for (const auto& w : floor.walls) line(w, w.thickness);
    for (const auto& m : floor.beams) line(m, m.width);
    for (const auto& c : floor.columns) {
        if (geometry::distance({c.x, c.y}, a, b) > 1) continue;
        if (c.circular) most = std::max(most, c.width / 2);
        for (Point p : footprint(c))
            if (!c.circular) most = std::max(most, (p.x - c.x) * out.x + (p.y - c.y) * out.y);
    }
    return most;
}
Point middle(const std::array<Point, 4>& c) {
    return {(c[0].x + c[1].x + c[2].x + c[3].x) / 4, (c[0].y + c[1].y + c[2].y + c[3].y) / 4};
}

}  // namespace

Ids placeBeams(Project& project, Floor& floor, const Box& box, const model::FloorBeam& like) {
    Ids made;
    auto there = [&](Point a, Point b) {
        return std::any_of(floor.beams.begin(), floor.beams.end(), [&](const auto& o) {
            return geometry::distance(a, o.a, o.b) < 1 && geometry::distance(b, o.a, o.b) < 1;
        });
    };
    for (const auto& bay : bays(floor)) {
        if (!box.contains(middle(bay))) continue;
        for (std::size_t k = 0; k < 4; ++k) {
            // The lower and left ends first, so that neighbouring bays draw the same beam.
            Point a = bay[k], b = bay[(k + 1) % 4];
            if (k >= 2) std::swap(a, b);
            if (there(a, b)) continue;
            model::FloorBeam m = like;
            m.a = a, m.b = b;
            m.name.clear();
            made.push_back(add(project, floor, m));
        }
    }
    return made;
}

Ids placePanels(Project& project, Floor& floor, const Box& box, const model::SlabArea& like) {
    Ids made;
    for (const auto& bay : bays(floor)) {
        Point at = middle(bay);
        if (!box.contains(at)) continue;
        if (std::any_of(floor.slabs.begin(), floor.slabs.end(),
                        [&](const auto& s) { return geometry::contains(model::ring(s.outline), at); }))
            continue;
        model::SlabArea m = like;
        m.outline.clear();
        for (Point p : bay) m.outline.push_back(corner(p));
        m.name.clear();
        made.push_back(add(project, floor, m));
    }
    // Which sides are free is asked of the bays as they lie between their axes.
    std::vector<geometry::Ring> all;
    for (const auto& s : floor.slabs) all.push_back(model::ring(s.outline));
    for (auto& s : floor.slabs) {
        if (std::find(made.begin(), made.end(), s.id) == made.end()) continue;
        const auto axes = model::ring(s.outline);
        for (std::size_t k = 0; k < axes.size(); ++k) {
            const Point a = axes[k], b = axes[(k + 1) % axes.size()];
            const double out = toOuterFaces(floor, all, a, b);
            if (out <= 0) continue;
            if (auto wider = offsetSide(s.outline, int(k), out); !wider.empty()) s.outline = std::move(wider);
        }
    }
    return made;
}

Ids splitBeam(Project& project, Floor& floor, const Id& id) {
    auto found =
        std::find_if(floor.beams.begin(), floor.beams.end(), [&](const auto& b) { return b.id == id; });
    if (found == floor.beams.end()) return {};
    const model::FloorBeam whole = *found;
    double length = geometry::length(whole.a, whole.b);
    std::vector<double> cuts;
    auto cut = [&](Point p) {
        double u = geometry::length(whole.a, geometry::nearest(p, whole.a, whole.b));
        if (u > 50 && u < length - 50) cuts.push_back(u);
    };
    for (const auto& c : floor.columns)
        if (auto r = footprint(c); geometry::distance({c.x, c.y}, whole.a, whole.b) < 1 ||
                                   geometry::contains(r, geometry::nearest({c.x, c.y}, whole.a, whole.b)))
            cut({c.x, c.y});
    auto lines = [&](const auto& list) {
        for (const auto& m : list) {
            Point at;
            if (m.id == id) continue;
            if (geometry::cross(whole.a, whole.b, m.a, m.b, &at)) cut(at);
            for (Point end : {m.a, m.b})
                if (geometry::distance(end, whole.a, whole.b) < 1) cut(end);
        }
    };
    lines(floor.walls);
    lines(floor.beams);
    std::sort(cuts.begin(), cuts.end());
    cuts.erase(std::unique(cuts.begin(), cuts.end(), [](double a, double b) { return b - a < 50; }),
               cuts.end());
    if (cuts.empty()) return {};
    cuts.push_back(length);
    auto at = [&](double u) -> Point {
        if (u == length) return whole.b;
        return {whole.a.x + u / length * (whole.b.x - whole.a.x),
                whole.a.y + u / length * (whole.b.y - whole.a.y)};
    };
    found->b = at(cuts[0]);
    Ids made{id};
    for (std::size_t k = 0; k + 1 < cuts.size(); ++k) {
        model::FloorBeam piece = whole;
        piece.a = at(cuts[k]), piece.b = at(cuts[k + 1]);
        piece.name.clear();
        made.push_back(add(project, floor, piece));
    }
    return made;
}

void roundPlaces(Floor& floor) {
    auto round = [](double x) { return std::round(x * 1000) / 1000 + 0.0; };
    model::eachMember(floor, [&](const std::string&, auto& m) {
        if constexpr (std::is_same_v<std::decay_t<decltype(m)>, model::Underlay>) return;
        geometryOf(
            m,
            [&](Point& p) {
                p = {round(p.x), round(p.y)};
            },
            [&](model::Outline& o) {
                for (auto& c : o) c.x = round(c.x), c.y = round(c.y);
            });
    });
}

void move(Floor& floor, const std::set<Id>& ids, Point by) {
    model::eachMember(floor, [&](const std::string&, auto& m) {
        if (!ids.contains(m.id)) return;
        geometryOf(
            m,
            [&](Point& p) {
                p = {p.x + by.x, p.y + by.y};
            },
            [&](model::Outline& o) {
                for (auto& c : o) c.x += by.x, c.y += by.y;
            });
    });
}

namespace {

template <class M>
void turn(M& m, Point about, double degrees) {
    double c = std::cos(degrees * std::numbers::pi / 180), s = std::sin(degrees * std::numbers::pi / 180);
    if (std::abs(std::remainder(degrees, 90)) < 1e-12) c = std::round(c), s = std::round(s);
    auto turned = [&](double x, double y) {
        return Point{about.x + c * (x - about.x) - s * (y - about.y),
                     about.y + s * (x - about.x) + c * (y - about.y)};
    };
    geometryOf(
        m, [&](Point& p) { p = turned(p.x, p.y); },
        [&](model::Outline& o) {
            for (auto& q : o) {
                Point p = turned(q.x, q.y);
                q.x = p.x, q.y = p.y;
            }
        });
    if constexpr (requires { m.angle; }) m.angle = std::remainder(m.angle + degrees, 360.0);
}
template <class M>
void reflect(M& m, Point a, Point b) {
    double ux = b.x - a.x, uy = b.y - a.y, square = ux * ux + uy * uy;
    auto mirrored = [&](double x, double y) {
        double t = ((x - a.x) * ux + (y - a.y) * uy) / square;
        return Point{2 * (a.x + t * ux) - x, 2 * (a.y + t * uy) - y};
    };
    geometryOf(
        m, [&](Point& p) { p = mirrored(p.x, p.y); },
        [&](model::Outline& o) {
            for (auto& q : o) {
                Point p = mirrored(q.x, q.y);
                q = {p.x, p.y, -q.bulge};
            }
        });
    if constexpr (requires { m.angle; })
        m.angle = std::remainder(2 * std::atan2(uy, ux) * 180 / std::numbers::pi - m.angle, 360.0);
}

// Copies of the members with these ids, changed by `change`.
template <class F>
Ids copies(Project& project, Floor& floor, const std::set<Id>& ids, F change) {
    Ids made;
    eachCopied(floor, [&](auto& list, char letter) {
        auto before = list;
        for (const auto& m : before) {
            if (!ids.contains(m.id)) continue;
            auto next = m;
            if constexpr (requires { next.name; }) next.name.clear();
            change(next);
            made.push_back(put(project, floor, list, std::move(next), letter));
        }
    });
    return made;
}

}  // namespace

void rotate(Floor& floor, const std::set<Id>& ids, Point about, double degrees) {
    model::eachMember(floor, [&](const std::string&, auto& m) {
        if (ids.contains(m.id)) turn(m, about, degrees);
    });
}

void remove(Floor& floor, const std::set<Id>& ids) {
    auto gone = [&](const auto& m) { return ids.contains(m.id); };
    eachCopied(floor, [&](auto& list, char) { std::erase_if(list, gone); });
    std::erase_if(floor.grids, gone);
    std::erase_if(floor.underlays, gone);
    std::erase_if(floor.panels, gone);
    std::erase_if(floor.cambers, gone);
    std::erase_if(floor.actions.cases, gone);
    std::erase_if(floor.actions.combinations, gone);
    std::erase_if(floor.actions.loads, [&](const auto& l) { return ids.contains(l.loadCase); });
    for (auto& row : floor.actions.combinations)
        std::erase_if(row.factors, [&](const auto& f) { return ids.contains(f.first); });
}

Ids copy(Project& project, Floor& floor, const std::set<Id>& ids, Point by, int times) {
    Ids made;
    for (int k = 1; k <= times; ++k) {
        Ids more = copies(project, floor, ids, [&](auto& m) {
            geometryOf(
                m,
                [&](Point& p) {
                    p = {p.x + k * by.x, p.y + k * by.y};
                },
                [&](model::Outline& o) {
                    for (auto& c : o) c.x += k * by.x, c.y += k * by.y;
                });
        });
        made.insert(made.end(), more.begin(), more.end());
    }
    return made;
}

Ids mirror(Project& project, Floor& floor, const std::set<Id>& ids, Point a, Point b) {
    if (geometry::length(a, b) < 1) return {};
    return copies(project, floor, ids, [&](auto& m) { reflect(m, a, b); });
}

Ids repeatAlongGrid(Project& project, Floor& floor, const std::set<Id>& ids, bool along, bool across) {
    // The crossing nearest to the middle of the members is where they are repeated from.
    double sx = 0, sy = 0;
    int n = 0;
    for (const Id& id : ids)
        for (Point p : handles(floor, id)) sx += p.x, sy += p.y, ++n;
    if (n == 0 || floor.grids.empty()) return {};
    Point centre{sx / n, sy / n};
    const model::Grid* grid = nullptr;
    std::size_t i0 = 0, j0 = 0;
    double least = 1e300;
    for (const auto& g : floor.grids)
        for (std::size_t i = 0; i <= g.along.size(); ++i)
            for (std::size_t j = 0; j <= g.across.size(); ++j)
                if (double d = geometry::length(crossing(g, i, j), centre); d < least)
                    least = d, grid = &g, i0 = i, j0 = j;
    const model::Grid g = *grid;
    Point from = crossing(g, i0, j0);
    Ids made;
    for (std::size_t j = 0; j <= g.across.size(); ++j)
        for (std::size_t i = 0; i <= g.along.size(); ++i) {
            if ((i != i0 && !along) || (j != j0 && !across) || (i == i0 && j == j0)) continue;
            Point to = crossing(g, i, j);
            Ids more = copy(project, floor, ids, {to.x - from.x, to.y - from.y});
            made.insert(made.end(), more.begin(), more.end());
        }
    return made;
}

model::Outline offsetSide(const model::Outline& o, int side, double distance) {
    std::size_t n = o.size();
    if (n < 3) return {};
    double turn = geometry::area([&] {
        geometry::Ring r;
        for (const auto& c : o) r.push_back({c.x, c.y});
        return r;
    }());
    double sign = turn >= 0 ? 1 : -1;
    struct Line {
        Point p, u;
    };
    std::vector<Line> lines(n);
    for (std::size_t i = 0; i < n; ++i) {
        Point a{o[i].x, o[i].y}, b{o[(i + 1) % n].x, o[(i + 1) % n].y};
        double L = geometry::length(a, b);
        if (L == 0) return {};
        Point u{(b.x - a.x) / L, (b.y - a.y) / L};
        bool moved = side < 0 || side == static_cast<int>(i);
        if (moved && o[i].bulge != 0) return {};
        double d = moved ? sign * distance : 0;
        lines[i] = {{a.x + u.y * d, a.y - u.x * d}, u};
    }
    model::Outline out = o;
    for (std::size_t i = 0; i < n; ++i) {
        std::size_t before = (i + n - 1) % n;
        bool touched = side < 0 || side == static_cast<int>(i) || side == static_cast<int>(before);
        if (!touched) continue;
        if (o[i].bulge != 0 || o[before].bulge != 0) return {};
        const Line &l = lines[before], &m = lines[i];
        double det = l.u.x * m.u.y - l.u.y * m.u.x;
        if (std::abs(det) < 1e-9) {
            if (side >= 0) return {};
            out[i].x = m.p.x, out[i].y = m.p.y;
            continue;
        }
        double t = ((m.p.x - l.p.x) * m.u.y - (m.p.y - l.p.y) * m.u.x) / det;
        out[i].x = l.p.x + t * l.u.x, out[i].y = l.p.y + t * l.u.y;
    }
    // A side that would turn round has been moved too far.
    for (std::size_t i = 0; i < n; ++i) {
        const auto &a = out[i], &b = out[(i + 1) % n];
        if ((b.x - a.x) * lines[i].u.x + (b.y - a.y) * lines[i].u.y <= 0) return {};
    }
    return out;
}

model::Outline setSideLength(const model::Outline& o, std::size_t side, double length) {
    model::Outline out = o;
    auto &a = out[side], &b = out[(side + 1) % out.size()];
    double L = std::hypot(b.x - a.x, b.y - a.y);
    if (L == 0 || length <= 0) return o;
    double dx = (b.x - a.x) * (length / L - 1), dy = (b.y - a.y) * (length / L - 1);
    b.x += dx, b.y += dy;
    // The corner after it comes along where that keeps the next side's direction square to this one.
    auto& c = out[(side + 2) % out.size()];
    double dot = (b.x - dx - c.x) * dx + (b.y - dy - c.y) * dy;
    if (out.size() == 4 && std::abs(dot) < 1e-6 * L * L) c.x += dx, c.y += dy;
    return out;
}

model::Outline rectangle(Point a, Point b) {
    double x0 = std::min(a.x, b.x), x1 = std::max(a.x, b.x), y0 = std::min(a.y, b.y), y1 = std::max(a.y, b.y);
    return {{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}};
}

std::set<Id> inside(const Floor& floor, const Box& box, bool crossingToo) {
    std::set<Id> found;
    Point c[4] = {box.a, {box.b.x, box.a.y}, box.b, {box.a.x, box.b.y}};
    model::eachMember(floor, [&](const std::string&, const auto& m) {
        std::vector<Point> points;
        geometryOf(
            m, [&](const Point& p) { points.push_back(p); },
            [&](const model::Outline& o) {
                for (Point p : model::ring(o)) points.push_back(p);
                points.push_back(points.front());
            });
        using T = std::decay_t<decltype(m)>;
        if (points.empty() || std::is_same_v<T, model::Underlay> || std::is_same_v<T, model::PanelChoice> ||
            std::is_same_v<T, model::Camber> || std::is_same_v<T, model::Grid>)
            return;
        bool all = true, any = false;
        for (Point p : points) (box.contains(p) ? any : all) = box.contains(p);
        if (crossingToo && !any)
            for (std::size_t i = 0; i + 1 < points.size(); ++i)
                for (int k = 0; k < 4; ++k)
                    any |= geometry::cross(points[i], points[i + 1], c[k], c[(k + 1) % 4], nullptr);
        if (all || (crossingToo && any)) found.insert(m.id);
    });
    return found;
}

std::vector<Id> hits(const Floor& floor, Point p, double tolerance) {
    std::vector<std::pair<int, Id>> found;  // the smaller kind first
    auto within = [&](const model::Outline& o, bool body) {
        // Quick refusal by the box of the corners; arcs reach at most half a chord beyond.
        double x0 = 1e300, x1 = -1e300, y0 = 1e300, y1 = -1e300, more = tolerance;
        for (std::size_t i = 0; i < o.size(); ++i) {
            x0 = std::min(x0, o[i].x), x1 = std::max(x1, o[i].x), y0 = std::min(y0, o[i].y),
            y1 = std::max(y1, o[i].y);
            if (o[i].bulge != 0)
                more = std::max(more, std::abs(o[i].bulge) * std::hypot(o[(i + 1) % o.size()].x - o[i].x,
                                                                        o[(i + 1) % o.size()].y - o[i].y));
        }
        if (p.x < x0 - more || p.x > x1 + more || p.y < y0 - more || p.y > y1 + more) return false;
        auto r = model::ring(o);
        return (body && geometry::contains(r, p)) || geometry::distanceToEdge(r, p) <= tolerance;
    };
    for (const auto& l : floor.actions.loads) {
        using Kind = model::FloorLoad::Kind;
        if (l.kind == Kind::Area) {
            if (!l.outline.empty() && within(l.outline, false))
                found.push_back({3, l.id});
            else if (!l.outline.empty() && within(l.outline, true))
                found.push_back({7, l.id});
        } else if (l.kind == Kind::Line) {
            if (geometry::distance(p, l.a, l.b) <= tolerance) found.push_back({2, l.id});
        } else if (geometry::length(p, l.a) <= std::max(tolerance, std::max(l.width, l.depth) / 2)) {
            found.push_back({0, l.id});
        }
    }
    for (const auto& c : floor.columns) {
        double reach = std::hypot(c.width, c.depth) / 2 + tolerance;
        if (std::abs(p.x - c.x) > reach || std::abs(p.y - c.y) > reach) continue;
        auto r = footprint(c);
        if (geometry::contains(r, p) || geometry::distanceToEdge(r, p) <= tolerance)
            found.push_back({1, c.id});
    }
    for (const auto& q : floor.piles)
        if (geometry::length(p, {q.x, q.y}) <= q.diameter / 2 + tolerance) found.push_back({1, q.id});
    auto line = [&](const auto& list, auto width) {
        for (const auto& m : list)
            if (geometry::distance(p, m.a, m.b) <= std::max(tolerance, width(m) / 2))
                found.push_back({2, m.id});
    };
    line(floor.walls, [](const auto& w) { return w.thickness; });
    line(floor.beams, [](const auto& b) { return b.width; });
    line(floor.edges, [](const auto&) { return 0.0; });
    line(floor.sagLines, [](const auto&) { return 0.0; });
    for (const auto& o : floor.openings)
        if (within(o.outline, true)) found.push_back({4, o.id});
    for (const auto& z : floor.zones)
        if (within(z.outline, true)) found.push_back({6, z.id});
    for (const auto& g : floor.grounds)
        if (!g.outline.empty() && within(g.outline, false)) found.push_back({5, g.id});
    for (const auto& s : floor.slabs)
        if (within(s.outline, true)) found.push_back({8, s.id});
    std::stable_sort(found.begin(), found.end(),
                     [](const auto& a, const auto& b) { return a.first < b.first; });
    std::vector<Id> ids;
    for (auto& f : found) ids.push_back(f.second);
    return ids;
}
Id hit(const Floor& floor, Point p, double tolerance) {
    auto all = hits(floor, p, tolerance);
    return all.empty() ? Id() : all.front();
}

namespace {

// Nature of a member in words: "Column", "Slab", "Line load".
template <class T>
std::string kindName(const T& m) {
    if constexpr (std::is_same_v<T, model::FloorLoad>) {
        using Kind = model::FloorLoad::Kind;
        return m.kind == Kind::Area    ? "Area load"
               : m.kind == Kind::Line  ? "Line load"
               : m.kind == Kind::Point ? "Point load"
                                       : "Moment";
    } else {
        return std::is_same_v<T, model::SlabArea>         ? "Slab"
               : std::is_same_v<T, model::Zone>           ? "Thickness zone"
               : std::is_same_v<T, model::Opening>        ? "Opening"
               : std::is_same_v<T, model::Column>         ? "Column"
               : std::is_same_v<T, model::Wall>           ? "Wall"
               : std::is_same_v<T, model::LineSupport>    ? "Line support"
               : std::is_same_v<T, model::FloorBeam>      ? "Beam"
               : std::is_same_v<T, model::Ground>         ? "Ground"
               : std::is_same_v<T, model::Pile>           ? "Pile"
               : std::is_same_v<T, model::Grid>           ? "Grid"
               : std::is_same_v<T, model::Underlay>       ? "Drawing below"
               : std::is_same_v<T, model::PanelChoice>    ? "Panel"
               : std::is_same_v<T, model::Camber>         ? "Precamber"
               : std::is_same_v<T, model::SagLine>        ? "Deflection limit"
               : std::is_same_v<T, model::CombinationRow> ? "Combination"
                                                          : "Load case";
    }
}
template <class T>
std::string nameOf(const Floor& floor, const T& m) {
    std::string own;
    if constexpr (std::is_same_v<T, model::FloorLoad>) {
        for (const auto& c : floor.actions.cases)
            if (c.id == m.loadCase) own = c.name;
    } else if constexpr (requires { m.name; }) {
        own = m.name;
    }
    return own.empty() ? kindName(m) : kindName(m) + " " + own;
}

}  // namespace

std::string displayName(const Floor& floor, const Id& id) {
    std::string name;
    withMember(floor, id, [&](const auto& m) { name = nameOf(floor, m); });
    return name;
}
std::map<Id, std::string> displayNames(const Floor& floor) {
    std::map<Id, std::string> all;
    model::eachMember(floor, [&](const std::string&, const auto& m) { all[m.id] = nameOf(floor, m); });
    return all;
}

std::vector<Point> handles(const Floor& floor, const Id& id) {
    std::vector<Point> all;
    withMember(floor, id, [&](const auto& m) {
        geometryOf(
            m, [&](const Point& p) { all.push_back(p); },
            [&](const model::Outline& o) {
                for (const auto& c : o) all.push_back({c.x, c.y});
            });
    });
    return all;
}
void setHandle(Floor& floor, const Id& id, std::size_t handle, Point to) {
    withMember(floor, id, [&](auto& m) {
        std::size_t k = 0;
        geometryOf(
            m,
            [&](Point& p) {
                if (k++ == handle) p = to;
            },
            [&](model::Outline& o) {
                if (handle < o.size()) o[handle].x = to.x, o[handle].y = to.y;
            });
    });
}

const model::Outline* outlineOf(const Floor& floor, const Id& id) {
    return outlineOf(const_cast<Floor&>(floor), id);
}
model::Outline* outlineOf(Floor& floor, const Id& id) {
    model::Outline* found = nullptr;
    withMember(floor, id, [&](auto& m) {
        if constexpr (requires { m.outline; })
            if (!m.outline.empty()) found = &m.outline;
    });
    return found;
}

const model::FloorLoad* loadEverywhere(const model::Floor& floor, const model::Id& loadCase) {
    for (const auto& l : floor.actions.loads)
        if (l.loadCase == loadCase && l.kind == model::FloorLoad::Kind::Area && l.outline.empty()) return &l;
    return nullptr;
}
model::FloorLoad& loadEverywhere(model::Project& project, model::Floor& floor, const model::Id& loadCase) {
    const auto* there = loadEverywhere(floor, loadCase);
    for (auto& l : floor.actions.loads)
        if (&l == there) return l;
    model::FloorLoad l;
    l.loadCase = loadCase;
    add(project, floor, l);
    return floor.actions.loads.back();
}

}  // namespace talvik::layout
