#include "drawing/connection_detail.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace talvik::drawing {
namespace {

using geometry::Ring;
using standards::ControlSection;
using units::Kind;
using At = ControlSection::At;

class Maker {
  public:
    Maker(const design::ConnectionDesign& c, const model::Basis& basis, double width)
        : c_(c), basis_(basis), system_(basis.units) {
        s_.width = width, s_.height = 0.5 * width;
        s_.title = c.name;
        planWidth_ = 0.52 * width;
    }

    Sheet make() {
        s_.text({2, s_.height - 5}, 3.2, c_.name, Align::Left, true);
        s_.text({2, s_.height - 9.5}, 2.3, c_.detail(system_));
        if (!c_.without.empty() || c_.sections.empty()) {
            const std::string why = c_.without.empty() ? "No effective control perimeter." : c_.without;
            double y = s_.height - 16;
            for (const auto& line : wrapped(why, 2.3, s_.width - 8)) s_.text({2, y}, 2.3, line), y -= 4;
        }
        plan();
        section();
        words();
        return std::move(s_);
    }

  private:
    const design::ConnectionDesign& c_;
    const model::Basis& basis_;
    const units::System system_;
    Sheet s_;
    double planWidth_, k_ = 1;  // k_: mm of paper per mm
    Point origin_;              // of the middle of what is loaded

    std::string text(double v, Kind kind) const { return units::text(v, kind, system_); }
    std::string number(double v, Kind kind) const { return units::number(v, kind, system_); }
    Point at(Point p) const {
        return {origin_.x + k_ * (p.x - c_.place.middle.x), origin_.y + k_ * (p.y - c_.place.middle.y)};
    }
    double depth() const { return c_.place.hasDrop() ? c_.place.dropH : c_.place.h; }

    // Half of the plan's side in mm of the slab.
    double reach() const {
        double r = 600;
        auto take = [&](Point p) {
            r = std::max({r, std::abs(p.x - c_.place.middle.x), std::abs(p.y - c_.place.middle.y)});
        };
        for (const auto& s : c_.sections)
            for (const auto& path : s.line.paths)
                for (Point p : path) take(p);
        if (c_.steel)
            for (const auto& path : c_.steel->outer.line.paths)
                for (Point p : path) take(p);
        return 1.08 * r;
    }

    // Lines cut off at the frame of the plan.
    void clipped(Point a, Point b, Layer layer, double half) {
        double from = 0, to = 1;
        const Point d{b.x - a.x, b.y - a.y};
        for (auto [p, q] : {std::pair(-d.x, a.x - (c_.place.middle.x - half)),
                            {d.x, c_.place.middle.x + half - a.x},
                            {-d.y, a.y - (c_.place.middle.y - half)},
                            {d.y, c_.place.middle.y + half - a.y}}) {
            if (std::abs(p) < 1e-12) {
                if (q < 0) return;
                continue;
            }
            const double t = q / p;
            p < 0 ? from = std::max(from, t) : to = std::min(to, t);
        }
        if (from < to)
            s_.line(at({a.x + from * d.x, a.y + from * d.y}), at({a.x + to * d.x, a.y + to * d.y}), layer);
    }
    void outline(const Ring& ring, Layer layer, double half) {
        for (std::size_t i = 0; i < ring.size(); ++i)
            clipped(ring[i], ring[(i + 1) % ring.size()], layer, half);
    }
    void paths(const std::vector<std::vector<Point>>& all, Layer layer) {
        for (const auto& path : all) {
            std::vector<Point> points;
            for (Point p : path) points.push_back(at(p));
            s_.polyline(std::move(points), layer);
        }
    }

    void plan() {
        const double half = reach(), side = std::min(planWidth_ - 6, s_.height - 14);
        k_ = side / (2 * half);
        origin_ = {3 + side / 2, side / 2 + 1};
        const auto& site = c_.place.site;
        for (const Ring& r : site.slabs) outline(r, Layer::Outline, half);
        for (const Ring& r : site.openings) {
            outline(r, Layer::Outline, half);
            if (r.size() == 4) clipped(r[0], r[2], Layer::Grid, half), clipped(r[1], r[3], Layer::Grid, half);
        }
        for (const Ring& r : site.bodies) outline(r, Layer::Outline, half);
        if (c_.place.hasDrop()) outline(c_.place.drop, Layer::Hidden, half);
        Polyline column;
        for (Point p : site.loaded) column.points.push_back(at(p));
        column.closed = true, column.filled = true, column.layer = Layer::Structure;
        s_.items.emplace_back(std::move(column));
        const auto* shown = c_.shown();
        for (const auto& s : c_.sections) {
            if (s.at == At::Face) continue;
            paths(s.line.paths, &s == shown ? Layer::Perimeter : Layer::Grid);
            paths(s.line.dead, Layer::Hidden);
        }
        if (c_.steel) {
            const auto& l = *c_.steel;
            paths(l.outer.line.paths, Layer::Resistance);
            for (const auto& line : l.legs.lines) {
                const double last = l.first + (line.perimeters - 1) * l.spacing;
                s_.line(at({line.face.x + l.first * line.way.x, line.face.y + l.first * line.way.y}),
                        at({line.face.x + last * line.way.x, line.face.y + last * line.way.y}),
                        Layer::ShearSteel);
            }
            for (const auto& leg : l.legs.legs)
                s_.circle(at(leg.at), std::max(0.35, k_ * l.diameter / 2), Layer::ShearSteel, leg.counts);
        }
    }

    // Along the longest line of legs, or across the column.
    void section() {
        const double left = planWidth_ + 2, wide = s_.width - left - 4, h = depth();
        double half = c_.place.c1 / 2 + 2.6 * h;
        const punching::LegLine* line = nullptr;
        if (c_.steel)
            for (const auto& l : c_.steel->legs.lines)
                if (!line || l.perimeters > line->perimeters) line = &l;
        if (line)
            half = c_.place.c1 / 2 + c_.steel->first + (line->perimeters - 1) * c_.steel->spacing + 0.6 * h;
        const double k = std::min(wide / (2 * half), 0.3 * s_.height / h), middle = left + wide / 2;
        const double top = s_.height - 18, bottom = top - k * h, slab = top - k * c_.place.h;
        auto X = [&](double u) { return middle + k * u; };
        // The slab, with the drop where there is one.
        if (c_.place.hasDrop()) {
            const double reachOfDrop =
                std::min(half * 0.8, 0.5 * std::sqrt(std::abs(geometry::area(c_.place.drop))));
            s_.polyline({{X(-half), top}, {X(half), top}}, Layer::Outline);
            s_.polyline({{X(-half), slab},
                         {X(-reachOfDrop), slab},
                         {X(-reachOfDrop), bottom},
                         {X(reachOfDrop), bottom},
                         {X(reachOfDrop), slab},
                         {X(half), slab}},
                        Layer::Outline);
        } else {
            s_.polyline({{X(-half), top}, {X(half), top}}, Layer::Outline);
            s_.polyline({{X(-half), bottom}, {X(half), bottom}}, Layer::Outline);
        }
        const double stub = 9, c = c_.place.c1 / 2;
        if (c_.topTension)
            s_.rectangle({X(-c), bottom - stub}, {X(c), bottom}, Layer::Structure, true);
        else
            s_.rectangle({X(-c), top}, {X(c), top + stub / 2}, Layer::Structure, true);
        const double coverTop = k * basis_.coverTop, coverBottom = k * basis_.coverBottom;
        s_.line({X(-half), top - coverTop}, {X(half), top - coverTop}, Layer::BarsX);
        s_.line({X(-half), bottom + coverBottom}, {X(half), bottom + coverBottom}, Layer::BarsX);
        if (!line) return;
        const auto& l = *c_.steel;
        for (double side : {-1.0, 1.0})
            for (int i = 0; i < line->perimeters; ++i) {
                const double x = X(side * (c + l.first + i * l.spacing));
                s_.line({x, bottom + coverBottom}, {x, top - coverTop}, Layer::ShearSteel);
                if (l.kind != standards::ShearSteel::Studs) continue;
                const double head = std::max(0.5, 1.5 * k * l.diameter);
                for (double y : {bottom + coverBottom, top - coverTop})
                    s_.line({x - head, y}, {x + head, y}, Layer::ShearSteel);
            }
        // From the face to the first, then from leg to leg.
        const double y = top + 2.6;
        const double marks[] = {c, c + l.first, c + l.first + l.spacing};
        for (double u : marks) s_.line({X(u), y - 0.8}, {X(u), y + 0.8}, Layer::Dimension);
        s_.line({X(marks[0]), y}, {X(marks[2]), y}, Layer::Dimension);
        s_.text({X(marks[0]) - 0.6, y + 0.8}, 2.1, number(l.first, Kind::Length), Align::Right);
        s_.text({X(marks[2]) + 0.6, y + 0.8}, 2.1, number(l.spacing, Kind::Length) + " " + unit(),
                Align::Left);
        s_.text({X(half), bottom - 4}, 2.1, "legs " + text(l.height, Kind::Length) + " high", Align::Right);
    }
    std::string unit() const { return std::string(units::unit(Kind::Length, system_).symbol); }

    void words() {
        const double left = planWidth_ + 2;
        double y = s_.height * 0.36;
        auto say = [&](const std::string& what, bool bold = false) {
            for (const auto& line : wrapped(what, 2.3, s_.width - left - 3))
                s_.text({left, y}, 2.3, line, Align::Left, bold), y -= 3.9;
        };
        const auto* d = c_.shownDemand();
        const auto* s = c_.shown();
        if (!d || !s) return;
        say(c_.wanted ? c_.steelText(system_) : "No shear reinforcement", true);
        say(fmt::format("V {}, M {} and {}", text(std::abs(d->forces.V), Kind::Force),
                        number(std::abs(d->forces.Mx), Kind::Moment),
                        text(std::abs(d->forces.My), Kind::Moment)));
        say(fmt::format("Perimeter {}, depth {}: {} of {}", text(s->length, Kind::Length),
                        text(s->d, Kind::Length), number(d->stress, Kind::ShearStress),
                        text(d->strength, Kind::ShearStress)));
        if (c_.steel)
            say(fmt::format("No shear reinforcement required beyond {} of perimeter",
                            text(c_.steel->outer.line.length(), Kind::Length)));
        const double dead = punching::Perimeter{s->line.dead, {}, {}, {}}.length();
        if (dead > 1)
            say(fmt::format("{:.0f} % of the control perimeter is ineffective because of openings",
                            100 * dead / (dead + s->length)));
    }
};

}  // namespace

Sheet connectionDetail(const design::ConnectionDesign& connection, const model::Basis& basis, double width) {
    return Maker(connection, basis, width).make();
}

}  // namespace talvik::drawing
