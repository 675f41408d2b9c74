#include "drawing/base_figures.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <numbers>
#include <set>

namespace talvik::drawing {
namespace {

using bases::Laid;
using bases::Point3;
using design::BasePart;

constexpr double small = 2.0;
constexpr double shownColumn = 400;  // mm of a column above its base

Layer barLayer(int axis, bool top) {
    return axis == 0 ? (top ? Layer::BarsXTop : Layer::BarsX) : (top ? Layer::BarsYTop : Layer::BarsY);
}
Layer layerOf(const BarStroke& s) {
    using enum BarStroke::Kind;
    if (s.kind == AlongX || s.kind == AlongY) return barLayer(s.kind == AlongX ? 0 : 1, s.top);
    if (s.kind == Slanting) return barLayer(1, s.top);
    return Layer::ShearSteel;
}
std::string length(double v, units::System system) {
    return units::number(v, units::Kind::Length, system);
}
// Of bars that lie neither along x nor along y.
bool slanting(const schedule::Item& i) {
    if (i.lie.empty()) return false;
    const Point a = i.lie[0].a, b = i.lie[0].b;
    return std::min(std::abs(b.x - a.x), std::abs(b.y - a.y)) > 1;
}
BarStroke::Kind kindOf(const schedule::Item& i) {
    using enum BarStroke::Kind;
    return i.run == "starters"      ? Starter
           : i.layer == "links"     ? Link
           : i.run == "sides"       ? Side
           : slanting(i)            ? Slanting
           : i.layer.ends_with('1') ? AlongX
                                    : AlongY;
}

// Each line through `see`; what comes out as a point is a dot, and what lies on another is left out.
template <class See>
std::vector<BarStroke> strokes(const std::vector<Laid>& bars, See see) {
    std::vector<BarStroke> all;
    for (const auto& l : bars) {
        std::set<std::vector<long>> known;
        for (const auto& line : l.lines) {
            BarStroke s;
            s.kind = kindOf(l.item), s.top = l.item.layer.starts_with('T'), s.diameter = l.item.diameter;
            std::vector<long> key;
            for (const auto& p : line) {
                const Point q = see(p);
                if (!s.line.empty() && std::hypot(s.line.back().x - q.x, s.line.back().y - q.y) < 0.5)
                    continue;
                s.line.push_back(q);
                key.push_back(std::lround(q.x)), key.push_back(std::lround(q.y));
            }
            s.dot = s.line.size() == 1;
            if (known.insert(key).second) all.push_back(std::move(s));
        }
    }
    return all;
}

void draw(Sheet& sheet, const std::vector<BarStroke>& all, double scale,
          const std::function<Point(Point)>& at) {
    for (const auto& s : all) {
        if (s.dot) {
            sheet.circle(at(s.line.front()), std::max(0.5, s.diameter / 2 / scale), layerOf(s), true);
            continue;
        }
        std::vector<Point> line;
        for (Point p : s.line) line.push_back(at(p));
        sheet.polyline(line, layerOf(s));
    }
}

// The twelve edges of a box.
void box(std::vector<std::array<Point, 2>>& into, const CageView& view, Point3 a, Point3 b) {
    const Point3 c[8] = {{a.x, a.y, a.z}, {b.x, a.y, a.z}, {b.x, b.y, a.z}, {a.x, b.y, a.z},
                         {a.x, a.y, b.z}, {b.x, a.y, b.z}, {b.x, b.y, b.z}, {a.x, b.y, b.z}};
    for (int k = 0; k < 4; ++k) {
        into.push_back({seen(view, c[k]), seen(view, c[(k + 1) % 4])});
        into.push_back({seen(view, c[k + 4]), seen(view, c[(k + 1) % 4 + 4])});
        into.push_back({seen(view, c[k]), seen(view, c[k + 4])});
    }
}

// Run of bars that have no lines on plan: their call-outs stand above it.
const char* const aside[] = {"links",        "sides",       "cap links",        "strap/top",
                             "strap/bottom", "strap/links", "strap/inner links"};

}  // namespace

SectionOutline sectionOutline(const BasePart& base, int axis) {
    SectionOutline out;
    const auto& s = base.size();
    const auto top = base.solid();
    const double half = s.side(axis) / 2;
    const auto* u = &top.upper()[std::size_t(2 * axis)];
    out.base = {{-half, 0}, {half, 0}, {half, top.edge()}};
    if (!top.level()) {
        if (top.stepped()) out.base.push_back({u[1], top.edge()});
        out.base.push_back({u[1], s.h}), out.base.push_back({u[0], s.h});
        if (top.stepped()) out.base.push_back({u[0], top.edge()});
    }
    out.base.push_back({-half, top.edge()});
    if (const auto& on = base.strap) {
        const auto& t = std::get<bases::PadDesign>(base.design).strap;
        const double c = axis == 0 ? base.centre.x : base.centre.y;
        const auto* p = &(*on)[std::size_t(2 * axis)];
        out.strap = {p[0] - c, p[1] - c, 0, t.depth};
    }
    return out;
}

Point seen(const CageView& view, const Point3& p) {
    const double t = view.turn * std::numbers::pi / 180, e = view.tilt * std::numbers::pi / 180;
    const double x = p.x * std::cos(t) - p.y * std::sin(t), away = p.x * std::sin(t) + p.y * std::cos(t);
    return {x, p.z * std::cos(e) + away * std::sin(e)};
}

std::vector<BarStroke> sectionStrokes(const std::vector<Laid>& bars, Point centre, int axis) {
    auto all = strokes(bars, [&](const Point3& p) {
        return axis == 0 ? Point{p.x - centre.x, p.z} : Point{p.y - centre.y, p.z};
    });
    // What is bent towards the eye: the leg of a bar that is a dot shows as nothing.
    for (auto& s : all)
        if ((s.kind == BarStroke::Kind::AlongX || s.kind == BarStroke::Kind::AlongY) &&
            (s.kind == BarStroke::Kind::AlongX) != (axis == 0) && !s.dot) {
            s.dot = true;
            // The bar itself lies at the lowest point of a bottom bar, the highest of one at the top.
            const auto end = s.top ? std::max_element(s.line.begin(), s.line.end(),
                                                      [](Point a, Point b) { return a.y < b.y; })
                                   : std::min_element(s.line.begin(), s.line.end(),
                                                      [](Point a, Point b) { return a.y < b.y; });
            s.line = {*end};
        }
    return all;
}

std::vector<BarStroke> cageStrokes(const std::vector<Laid>& bars, Point centre, const CageView& view) {
    return strokes(bars, [&](const Point3& p) { return seen(view, {p.x - centre.x, p.y - centre.y, p.z}); });
}

std::vector<std::array<Point, 2>> cageEdges(const design::BasesAnswer& answer, const BasePart& base,
                                            const CageView& view) {
    std::vector<std::array<Point, 2>> all;
    const auto& s = base.size();
    const auto& row = answer.set->bases[base.number];
    const auto shape = base.solid();
    if (s.outline.empty()) {
        box(all, view, {-s.B / 2, -s.L / 2, 0}, {s.B / 2, s.L / 2, shape.edge()});
    } else {
        for (std::size_t i = 0; i < s.outline.size(); ++i) {
            const Point p = s.outline[i], q = s.outline[(i + 1) % s.outline.size()];
            all.push_back({seen(view, {p.x, p.y, 0}), seen(view, {q.x, q.y, 0})});
            all.push_back({seen(view, {p.x, p.y, s.h}), seen(view, {q.x, q.y, s.h})});
            all.push_back({seen(view, {p.x, p.y, 0}), seen(view, {p.x, p.y, s.h})});
        }
    }
    if (const auto& u = shape.upper(); !shape.level()) {
        box(all, view, {u[0], u[2], shape.stepped() ? shape.edge() : s.h}, {u[1], u[3], s.h});
        if (!shape.stepped())
            for (int i : {0, 1})
                for (int k : {0, 1})
                    all.push_back({seen(view, {(i - 0.5) * s.B, (k - 0.5) * s.L, shape.edge()}),
                                   seen(view, {u[std::size_t(i)], u[std::size_t(2 + k)], s.h})});
    }
    if (const auto& t = base.strap) {
        const double x = base.centre.x, y = base.centre.y;
        box(all, view, {(*t)[0] - x, (*t)[2] - y, 0},
            {(*t)[1] - x, (*t)[3] - y, std::get<bases::PadDesign>(base.design).strap.depth});
    }
    for (const auto& id : row.columns) {
        const auto* c = answer.context->column(id);
        if (!c) continue;
        const double x = c->x - base.centre.x, y = c->y - base.centre.y;
        double top = s.h;
        if (const auto& p = row.pedestal; p.any()) {
            top += p.height;
            box(all, view, {x - p.width / 2, y - p.depth / 2, s.h}, {x + p.width / 2, y + p.depth / 2, top});
        }
        box(all, view, {x - c->width / 2, y - c->depth / 2, top},
            {x + c->width / 2, y + c->depth / 2, top + shownColumn});
    }
    return all;
}

BaseFigure basePlan(const design::BasesAnswer& answer, const BasePart& base, const design::Design& design,
                    double scale, units::System system) {
    BaseFigure f;
    const auto& s = base.size();
    const double left = 14, below = 14, w = s.B / scale, h = s.L / scale;
    const auto& row = answer.set->bases[base.number];
    f.width = left + w + 6;
    f.sheet.scale = scale;
    auto at = [&](Point p) {
        return Point{left + w / 2 + (p.x - base.centre.x) / scale,
                     below + h / 2 + (p.y - base.centre.y) / scale};
    };
    auto& sheet = f.sheet;
    std::vector<Point> around;
    for (Point p : base.outline()) around.push_back(at(p));
    around.push_back(around.front());
    sheet.polyline(around, Layer::Outline);
    // Sides of outlines that are no rectangles, along them and outside.
    if (!s.outline.empty())
        for (std::size_t i = 0; i + 1 < around.size(); ++i) {
            const Point p = around[i], q = around[i + 1];
            const double l = std::hypot(q.x - p.x, q.y - p.y), ux = (q.x - p.x) / l, uy = (q.y - p.y) / l;
            // Read from below or from the right: the foot of the text is towards the side or away from it.
            const bool turned = ux < -0.01 || (std::abs(ux) <= 0.01 && uy < 0);
            const double away = turned ? 0.8 : 0.8 + small,
                         angle = std::atan2(turned ? -uy : uy, turned ? -ux : ux) * 180 / std::numbers::pi;
            if (std::abs(uy) < 0.01 && p.y < below + h / 2) continue;  // the dimensions stand there
            sheet.text({(p.x + q.x) / 2 + away * uy, (p.y + q.y) / 2 - away * ux}, small,
                       length(l * scale, system), Align::Centre, false, angle);
        }
    if (const auto shape = base.solid(); !shape.level()) {
        const auto& u = shape.upper();
        auto own = [&](double x, double y) { return at({base.centre.x + x, base.centre.y + y}); };
        sheet.rectangle(own(u[0], u[2]), own(u[1], u[3]), Layer::Outline);
        if (!shape.stepped())
            for (int i : {0, 1})
                for (int k : {0, 1})
                    sheet.line(own((i - 0.5) * s.B, (k - 0.5) * s.L),
                               own(u[std::size_t(i)], u[std::size_t(2 + k)]), Layer::Outline);
    }
    if (const auto& t = base.strap) {
        // As far as the plan reaches; the whole of it stands in the section.
        const double x0 = std::max((*t)[0], base.centre.x - s.B / 2),
                     x1 = std::min((*t)[1], base.centre.x + s.B / 2),
                     y0 = std::max((*t)[2], base.centre.y - s.L / 2),
                     y1 = std::min((*t)[3], base.centre.y + s.L / 2);
        sheet.rectangle(at({x0, y0}), at({x1, y1}), Layer::Outline);
    }
    for (const auto& id : row.columns)
        if (const auto* c = answer.context->column(id))
            sheet.rectangle(at({c->x - c->width / 2, c->y - c->depth / 2}),
                            at({c->x + c->width / 2, c->y + c->depth / 2}), Layer::Structure);
    const auto& pile = answer.set->pile;
    int number = 0;
    for (Point p : base.piles()) {
        const Point c = at({base.centre.x + p.x, base.centre.y + p.y});
        const double r = pile.diameter / 2 / scale;
        if (pile.circular)
            sheet.circle(c, r, Layer::Hidden);
        else
            sheet.rectangle({c.x - r, c.y - r}, {c.x + r, c.y + r}, Layer::Hidden);
        sheet.text({c.x - 0.6 * r, c.y + 0.35 * r}, small, std::to_string(++number), Align::Centre, true);
    }
    // Piles are set out from the sides of the cap.
    for (int axis : {0, 1}) {
        std::vector<double> places;
        for (Point p : base.piles()) places.push_back(axis == 0 ? p.x : p.y);
        if (places.empty()) break;
        places.push_back(-s.side(axis) / 2), places.push_back(s.side(axis) / 2);
        std::sort(places.begin(), places.end());
        places.erase(
            std::unique(places.begin(), places.end(), [](double a, double b) { return std::abs(a - b) < 1; }),
            places.end());
        for (std::size_t k = 1; k < places.size(); ++k) {
            const double a = places[k - 1] / scale, b = places[k] / scale;
            const auto call = length(places[k] - places[k - 1], system);
            if (axis == 0)
                sheet.dimension({left + w / 2 + a, below}, {left + w / 2 + b, below}, -5, call);
            else
                sheet.dimension({left, below + h / 2 + b}, {left, below + h / 2 + a}, -5, call);
        }
    }
    // One bar of each mat clear of the columns, with its call-out beside it; call-outs that the plan is too
    // small for stand above it.
    std::vector<std::string> above;
    auto covered = [&](bool alongX, Point p) {
        return std::any_of(row.columns.begin(), row.columns.end(), [&](const model::Id& id) {
            const auto* c = answer.context->column(id);
            return c && (alongX ? std::abs(p.y - c->y) < c->depth / 2 + 80
                                : std::abs(p.x - c->x) < c->width / 2 + 80);
        });
    };
    std::set<std::string> called;
    for (const auto& i : base.items) {
        // Of bars in several lengths the longest.
        if (i.lie.empty() || i.run == "sides" || !called.insert(i.run).second) continue;
        if (slanting(i)) {
            const auto& l = i.lie[i.lie.size() / 2];
            sheet.line(at(l.a), at(l.b), barLayer(1, false));
            above.push_back(schedule::callout(base.items, i.run, design.marks, system));
            continue;
        }
        const bool alongX = std::abs(i.lie[0].b.x - i.lie[0].a.x) > std::abs(i.lie[0].b.y - i.lie[0].a.y);
        const bool upper = i.layer.starts_with('T');
        std::size_t shown = 0;
        for (double share : {0.25, 0.15, 0.4, 0.5, 0.6, 0.08}) {
            shown =
                std::min(i.lie.size() - 1, std::size_t(double(i.lie.size()) * (upper ? 1 - share : share)));
            if (!covered(alongX, i.lie[shown].a)) break;
        }
        const auto& l = i.lie[shown];
        sheet.line(at(l.a), at(l.b), barLayer(alongX ? 0 : 1, upper));
        const auto call = schedule::callout(base.items, i.run, design.marks, system);
        const Point a = at(l.a);
        const double long_ = textWidth(call, small) + 4;
        if (long_ > (alongX ? w : h))
            above.push_back(call);
        else if (alongX)
            sheet.text({left + std::max(0.64 * w, 0.0), a.y + 0.8}, small, call, Align::Centre);
        else
            sheet.text({a.x - 0.8, below + std::min(0.7 * h, h - long_ / 2)}, small, call, Align::Centre,
                       false, 90);
    }
    // Starter bars end on.
    bool standing = false;
    for (const auto& l : answer.laid(base)) {
        if (l.item.run != "starters") continue;
        for (const auto& line : l.lines)
            sheet.circle(at({line.back().x, line.back().y}), 0.5, Layer::ShearSteel, true);
        if (!standing) above.push_back(schedule::callout(base.items, "starters", design.marks, system));
        standing = true;
    }
    for (const char* run : aside)
        if (const auto call = schedule::callout(base.items, run, design.marks, system); !call.empty())
            above.push_back(call);
    double y = below + h + 2;
    for (auto line = above.rbegin(); line != above.rend(); ++line, y += 3.2)
        sheet.text({left, y}, small, *line);
    sheet.text({left, y + 1.5}, 3, fmt::format("{} plan", base.type), Align::Left, true);
    f.height = y + 8;
    for (const auto& line : above) f.width = std::max(f.width, left + textWidth(line, small) + 4);
    const double out = base.piles().empty() ? -6 : -10;
    sheet.dimension({left, below}, {left + w, below}, out, length(s.B, system));
    sheet.dimension({left, below + h}, {left, below}, out, length(s.L, system));
    return f;
}

BaseFigure baseSection(const design::BasesAnswer& answer, const BasePart& base, int axis, double scale,
                       units::System system) {
    BaseFigure f;
    const auto& s = base.size();
    const auto& row = answer.set->bases[base.number];
    const double side = s.side(axis), stubs = row.pedestal.any() ? row.pedestal.height : 0;
    const auto bars = sectionStrokes(answer.laid(base), base.centre, axis);
    const auto outline = sectionOutline(base, axis);
    double tall = s.h + stubs + shownColumn, low = -side / 2, high = side / 2;
    if (outline.strap)
        tall = std::max(tall, (*outline.strap)[3] + shownColumn), low = std::min(low, (*outline.strap)[0]),
        high = std::max(high, (*outline.strap)[1]);
    for (const auto& stroke : bars)
        for (Point p : stroke.line) tall = std::max(tall, p.y);
    const double first = 14, below = 14, w = side / scale, h = s.h / scale,
                 left = first + (-side / 2 - low) / scale;
    f.width = first + (high - low) / scale + 6, f.height = below + tall / scale + 12;
    f.sheet.scale = scale;
    auto& sheet = f.sheet;
    sheet.text({first, below + tall / scale + 6}, 3,
               fmt::format("{} section along {}", base.type, axis == 0 ? "x" : "y"), Align::Left, true);
    auto at = [&](double u, double z) { return Point{left + (u + side / 2) / scale, below + z / scale}; };
    std::vector<Point> around;
    for (Point p : outline.base) around.push_back(at(p.x, p.y));
    around.push_back(around.front());
    sheet.polyline(around, Layer::Outline);
    if (outline.strap)
        sheet.rectangle(at((*outline.strap)[0], (*outline.strap)[2]),
                        at((*outline.strap)[1], (*outline.strap)[3]), Layer::Outline);
    const double stands = std::max(s.h, outline.strap ? (*outline.strap)[3] : 0);
    for (const auto& id : row.columns)
        if (const auto* c = answer.context->column(id)) {
            const double u = axis == 0 ? c->x - base.centre.x : c->y - base.centre.y,
                         half = (axis == 0 ? c->width : c->depth) / 2;
            double top = stands;
            if (const auto& p = row.pedestal; p.any()) {
                const double wide = (axis == 0 ? p.width : p.depth) / 2;
                top += p.height;
                sheet.polyline({at(u - wide, s.h), at(u - wide, top), at(u + wide, top), at(u + wide, s.h)},
                               Layer::Outline);
            }
            for (double way : {-1.0, 1.0})
                sheet.line(at(u + way * half, top), at(u + way * half, top + shownColumn), Layer::Outline);
        }
    const double blinding = answer.set->ground.blinding;
    if (blinding > 0) sheet.rectangle(at(-side / 2 - 100, -blinding), at(side / 2 + 100, 0), Layer::Hidden);
    const auto& pile = answer.set->pile;
    for (Point p : base.piles()) {
        const double u = axis == 0 ? p.x : p.y;
        for (double way : {-1.0, 1.0})
            sheet.line(at(u + way * pile.diameter / 2, pile.embedment), at(u + way * pile.diameter / 2, -300),
                       Layer::Hidden);
    }
    draw(sheet, bars, scale, [&](Point p) { return at(p.x, p.y); });
    sheet.dimension({left, below}, {left + w, below}, -6, length(side, system));
    sheet.dimension({left, below + h}, {left, below}, -6, length(s.h, system));
    if (const auto shape = base.solid(); !shape.level())
        sheet.dimension({left + w, below}, {left + w, below + shape.edge() / scale}, -4,
                        length(shape.edge(), system));
    if (outline.strap) {
        const Point a = at((*outline.strap)[1], 0), b = at((*outline.strap)[1], (*outline.strap)[3]);
        sheet.dimension(a, b, -4, length((*outline.strap)[3], system));
    }
    return f;
}

BaseFigure baseCage(const design::BasesAnswer& answer, const BasePart& base, const CageView& view,
                    double scale) {
    BaseFigure f;
    const auto edges = cageEdges(answer, base, view);
    const auto bars = cageStrokes(answer.laid(base), base.centre, view);
    double x0 = 1e300, x1 = -1e300, y0 = 1e300, y1 = -1e300;
    auto reach = [&](Point p) {
        x0 = std::min(x0, p.x), x1 = std::max(x1, p.x), y0 = std::min(y0, p.y), y1 = std::max(y1, p.y);
    };
    for (const auto& e : edges) reach(e[0]), reach(e[1]);
    for (const auto& b : bars)
        for (Point p : b.line) reach(p);
    const double left = 4, below = 4;
    f.width = left + (x1 - x0) / scale + 4, f.height = below + (y1 - y0) / scale + 12;
    f.sheet.scale = scale;
    auto at = [&](Point p) { return Point{left + (p.x - x0) / scale, below + (p.y - y0) / scale}; };
    f.sheet.text({left, f.height - 6}, 3, fmt::format("{} cage, not to scale", base.type), Align::Left, true);
    for (const auto& e : edges) f.sheet.line(at(e[0]), at(e[1]), Layer::Hidden);
    draw(f.sheet, bars, scale, at);
    return f;
}

}  // namespace talvik::drawing
