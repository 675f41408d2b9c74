#include "opinions/panel_opinions.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <optional>

#include "analysis/cuts.h"
#include "opinions/yield_lines.h"
#include "standards/panel_coefficients.h"

namespace talvik::opinions {
namespace {

using model::Point;
constexpr double tolerance = 60;  // mm: how far a support may be off the panel's corner or edge

struct Line {
    Point a, b;
    double half;  // of its width
    bool clamped;
};

class Finder {
  public:
    Finder(const model::Floor& floor, const analysis::FloorAnalysis& a)
        : f_(floor), a_(a), cutter_(*a.model) {
        for (const auto& s : f_.slabs) slabs_.push_back(model::ring(s.outline));
        for (const auto& o : f_.openings) openings_.push_back(model::ring(o.outline));
        for (const auto& w : f_.walls) lines_.push_back({w.a, w.b, w.thickness / 2, false});
        for (const auto& b : f_.beams)
            if (b.depth >=
                2 * thickness({(b.a.x + b.b.x) / 2, (b.a.y + b.b.y) / 2}))  // a slender one is no support
                lines_.push_back({b.a, b.b, b.width / 2, false});
        for (const auto& e : f_.edges)
            if (e.kind != model::LineSupport::Kind::Symmetry)
                lines_.push_back({e.a, e.b, 0, e.kind == model::LineSupport::Kind::Clamped});
    }

    std::vector<PanelOpinion> run() {
        std::vector<PanelOpinion> all;
        std::vector<double> xs, ys;
        auto add = [](std::vector<double>& v, double x) {
            for (double o : v)
                if (std::abs(o - x) < tolerance) return;
            v.push_back(x);
        };
        for (const auto& c : f_.columns)
            if (c.below) add(xs, c.x), add(ys, c.y);
        for (const auto& l : lines_)
            for (Point p : {l.a, l.b}) add(xs, p.x), add(ys, p.y);
        std::sort(xs.begin(), xs.end());
        std::sort(ys.begin(), ys.end());
        if (xs.size() > 60 || ys.size() > 60) return all;
        for (std::size_t i = 0; i < xs.size(); ++i)
            for (std::size_t j = 0; j < ys.size(); ++j) {
                if (!corner({xs[i], ys[j]})) continue;
                // The nearest corners to the right and above.
                std::size_t r = i + 1, t = j + 1;
                while (r < xs.size() && !corner({xs[r], ys[j]})) ++r;
                while (t < ys.size() && !corner({xs[i], ys[t]})) ++t;
                if (r == xs.size() || t == ys.size() || !corner({xs[r], ys[t]})) continue;
                if (auto p = panel(xs[i], ys[j], xs[r], ys[t])) all.push_back(*p);
            }
        return all;
    }

  private:
    const model::Floor& f_;
    const analysis::FloorAnalysis& a_;
    std::vector<geometry::Ring> slabs_, openings_;
    std::vector<Line> lines_;
    const analysis::Cutter cutter_;
    mutable std::map<std::size_t, analysis::CombinationCuts> cuts_;  // by combination, as they are wanted
    analysis::Cut cutThrough(std::size_t combination, Point from, Point to) const {
        return cuts_.try_emplace(combination, a_, cutter_, combination).first->second.cut(from, to);
    }

    bool onSlab(Point p) const {
        auto in = [&](const auto& r) { return geometry::contains(r, p); };
        return std::any_of(slabs_.begin(), slabs_.end(), in) &&
               std::none_of(openings_.begin(), openings_.end(), in);
    }
    double thickness(Point p) const {
        double t = 0;
        for (std::size_t i = 0; i < slabs_.size(); ++i)
            if (t == 0 || geometry::contains(slabs_[i], p)) t = f_.slabs[i].thickness;
        return t;
    }
    const model::Column* columnAt(Point p) const {
        for (const auto& c : f_.columns)
            if (c.below && std::abs(c.x - p.x) < tolerance && std::abs(c.y - p.y) < tolerance) return &c;
        return nullptr;
    }
    const Line* lineAt(Point p) const {
        for (const auto& l : lines_)
            if (geometry::distance(p, l.a, l.b) < tolerance) return &l;
        return nullptr;
    }
    bool corner(Point p) const { return columnAt(p) || lineAt(p); }
    // The line that supports the whole side, or none.
    const Line* side(Point p, Point q) const {
        const Line* found = nullptr;
        for (double u : {0.05, 0.25, 0.5, 0.75, 0.95}) {
            found = lineAt({p.x + u * (q.x - p.x), p.y + u * (q.y - p.y)});
            if (!found) return nullptr;
        }
        return found;
    }

    std::optional<PanelOpinion> panel(double x0, double y0, double x1, double y1) const {
        Point middle{(x0 + x1) / 2, (y0 + y1) / 2};
        for (double u : {0.1, 0.5, 0.9})
            for (double v : {0.1, 0.5, 0.9})
                if (!onSlab({x0 + u * (x1 - x0), y0 + v * (y1 - y0)})) return {};
        // Largest ultimate load spread over it.
        std::vector<double> pressure(f_.actions.cases.size(), 0);
        for (std::size_t c = 0; c < pressure.size(); ++c) {
            if (f_.actions.cases[c].nature == model::LoadCase::Nature::SelfWeight)
                pressure[c] += selfWeight(c);
            for (const auto& l : f_.actions.loads)
                if (l.loadCase == f_.actions.cases[c].id && l.kind == model::FloorLoad::Kind::Area &&
                    (l.outline.empty() || covers(l, x0, y0, x1, y1)))
                    pressure[c] += model::intensity(l);
        }
        double n = 0;
        int by = -1;
        for (std::size_t k = 0; k < a_.combinations.size(); ++k) {
            if (a_.combinations[k].state != actions::LimitState::Ultimate) continue;
            double sum = 0;
            for (std::size_t c = 0; c < pressure.size(); ++c)
                sum += a_.combinations[k].factors[c] * pressure[c];
            if (sum > n) n = sum, by = int(k);
        }
        if (by < 0) return {};
        auto k = std::size_t(by);
        PanelOpinion p;
        p.name = fmt::format("panel at ({:.2f}, {:.2f}) m", middle.x / 1000, middle.y / 1000);
        // Sides: 0 below, 1 right, 2 above, 3 left.
        Point corners[4] = {{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}};
        const Line* sides[4];
        int held = 0;
        for (int i = 0; i < 4; ++i) held += (sides[i] = side(corners[i], corners[(i + 1) % 4])) != nullptr;
        double a = x1 - x0, b = y1 - y0;
        auto continuous = [&](int i) {
            Point out{i == 1   ? x1 + 0.15 * a
                      : i == 3 ? x0 - 0.15 * a
                               : middle.x,
                      i == 2   ? y1 + 0.15 * b
                      : i == 0 ? y0 - 0.15 * b
                               : middle.y};
            return sides[i]->clamped || onSlab(out);
        };
        // Twice as long as wide, or held along two opposite sides alone: it spans one way.
        const bool shortX = held == 4 ? a <= b : sides[1] && sides[3];
        if ((held == 4 && std::max(a, b) > 2 * std::min(a, b)) ||
            (held == 2 && ((sides[1] && sides[3]) || (sides[0] && sides[2])))) {
            oneWay(p, k, n, shortX, {x0, y0}, {x1, y1},
                   {continuous(shortX ? 3 : 0), continuous(shortX ? 1 : 2)});
            return p;
        }
        if (held == 4) {
            bool xShort = a <= b;
            standards::PanelEdges edges;  // the short span runs between the long edges
            edges.longContinuous =
                xShort ? std::array{continuous(1), continuous(3)} : std::array{continuous(0), continuous(2)};
            edges.shortContinuous =
                xShort ? std::array{continuous(0), continuous(2)} : std::array{continuous(1), continuous(3)};
            double lx = std::min(a, b);
            auto c = standards::panelCoefficients(lx, std::max(a, b), edges);
            if (!c.refusal.empty()) return {};
            p.source = fmt::format("{} (case {}), BS 8110-1 3.5.3.4, n = {:.2f} kN/m²", c.caseName,
                                   c.caseNumber, n * 1000);
            auto add = [&](std::string what, double engine, double opinion, double low, double high,
                           const char* word) {
                Opinion o{p.source, std::move(what), engine, opinion, units::Kind::MomentPerWidth};
                if (o.ratio() < low || o.ratio() > high) o.word = word;
                p.rows.push_back(std::move(o));
            };
            auto row = [&](std::string what, double engine, double coefficient) {
                add(std::move(what), engine, coefficient * n * lx * lx, 0.7, 1.3,
                    "further apart than expected: beams that deflect or rotate, non-uniform loads");
            };
            auto mean = [&](bool alongX, double at) {  // over the middle half of the width
                auto cut = alongX ? cutThrough(k, {at, y0 + b / 4}, {at, y1 - b / 4})
                                  : cutThrough(k, {x0 + a / 4, at}, {x1 - a / 4, at});
                return cut.length > 0 ? cut.slabMoment / cut.length : 0;
            };
            row("span, along the shorter side", mean(xShort, xShort ? middle.x : middle.y), c.spanShort);
            row("span, along the longer side", mean(!xShort, xShort ? middle.y : middle.x), c.spanLong);
            for (int i = 0; i < 4; ++i) {
                if (!continuous(i)) continue;
                bool crossedByX = i == 1 || i == 3, shortSpan = crossedByX == xShort;
                double inward = 1;  // just inside the panel
                double at = i == 0 ? y0 + inward : i == 1 ? x1 - inward : i == 2 ? y1 - inward : x0 + inward;
                constexpr const char* names[] = {"lower", "right", "upper", "left"};
                row(fmt::format("{} edge", names[i]), mean(crossedByX, at),
                    shortSpan ? c.supportShort : c.supportLong);
            }
            // Isotropic steel with hogging a third more than sagging, as the coefficients have it.
            auto i = [&](int edge) { return continuous(edge) ? 4.0 / 3 : 0.0; };
            add("span, mean of both ways, by yield lines", (mean(true, middle.x) + mean(false, middle.y)) / 2,
                yieldLineMoment(n, a, b, {i(1), i(3), i(0), i(2)}), 0.6, 1.5,
                "further apart than expected: yield lines share moments freely");
            return p;
        }
        if (held > 0) return {};
        for (Point q : corners)
            if (!columnAt(q)) return {};
        p.source = fmt::format(
            "total static moment n l2 ln^2 / 8 (J. R. Nichols, 1914; ACI 318-19 8.10.3.2), n = {:.2f} "
            "kN/m²",
            n * 1000);
        for (bool alongX : {true, false}) {
            double l1 = alongX ? a : b, l2 = alongX ? b : a;
            const auto *from = columnAt(corners[0]), *to = columnAt(alongX ? corners[1] : corners[3]);
            auto half = [&](const model::Column* c) {
                return c->circular ? 0.89 * c->width / 2 : (alongX ? c->width : c->depth) / 2;
            };
            double ln = std::max(l1 - half(from) - half(to), 0.65 * l1);
            auto moment = [&](double at) {
                auto cut = alongX ? cutThrough(k, {at, y0}, {at, y1}) : cutThrough(k, {x0, at}, {x1, at});
                return cut.slabMoment + cut.beamMoment;
            };
            double start = alongX ? x0 : y0, end = alongX ? x1 : y1;
            double span = moment((start + end) / 2),
                   supports = (moment(start + half(from)) + moment(end - half(to))) / 2;
            Opinion o{p.source,
                      alongX ? "span + mean support moment, along x" : "span + mean support moment, along y",
                      span - supports, n * l2 * ln * ln / 8, units::Kind::Moment};
            if (o.ratio() < 0.85 || o.ratio() > 1.15)
                o.word = "further apart than expected: neighbours unlike this panel, or line and point loads";
            p.rows.push_back(std::move(o));
        }
        return p;
    }
    // A panel that spans one way, by the coefficients of continuous slabs, at the middle of its width.
    void oneWay(PanelOpinion& p, std::size_t k, double n, bool alongX, Point low, Point high,
                std::array<bool, 2> continuous) const {
        const double l = alongX ? high.x - low.x : high.y - low.y,
                     wide = alongX ? high.y - low.y : high.x - low.x;
        p.source = fmt::format("one-way slabs, BS 8110-1 Table 3.12, n = {:.2f} kN/m²", n * 1000);
        const int ends = continuous[0] + continuous[1];
        // Of F l = n l2: inner spans and supports; an end span, simply supported at its end; a single one.
        const double span = ends == 2   ? 0.063
                            : ends == 1 ? 0.086
                                        : 0.125,
                     support = ends == 2 ? 0.063 : 0.086;
        auto mean = [&](double at) {
            const double from = (alongX ? low.y : low.x) + wide / 4, to = from + wide / 2;
            const auto cut =
                alongX ? cutThrough(k, {at, from}, {at, to}) : cutThrough(k, {from, at}, {to, at});
            return cut.length > 0 ? cut.slabMoment / cut.length : 0;
        };
        auto row = [&](std::string what, double engine, double opinion) {
            Opinion o{p.source, std::move(what), engine, opinion, units::Kind::MomentPerWidth};
            if (o.ratio() < 0.7 || o.ratio() > 1.3)
                o.word =
                    "further apart than expected: beams that deflect or rotate, non-uniform spans or loads";
            p.rows.push_back(std::move(o));
        };
        const double start = alongX ? low.x : low.y, end = start + l;
        row(alongX ? "span, along x" : "span, along y", mean(start + l / 2), span * n * l * l);
        for (int e : {0, 1})
            if (continuous[std::size_t(e)])
                row(alongX ? (e ? "right edge" : "left edge") : (e ? "upper edge" : "lower edge"),
                    mean(e ? end - 1 : start + 1), -support * n * l * l);
    }
    double selfWeight(std::size_t c) const {
        double area = 0;
        for (const auto& r : slabs_) area += geometry::area(r);
        for (const auto& r : openings_) area -= geometry::area(r);
        return area > 0 ? a_.cases[c].load / area : 0;
    }
    bool covers(const model::FloorLoad& l, double x0, double y0, double x1, double y1) const {
        auto r = model::ring(l.outline);
        for (double u : {0.1, 0.5, 0.9})
            for (double v : {0.1, 0.5, 0.9})
                if (!geometry::contains(r, {x0 + u * (x1 - x0), y0 + v * (y1 - y0)})) return false;
        return true;
    }
};

}  // namespace

std::vector<PanelOpinion> panelOpinions(const model::Floor& floor, const analysis::FloorAnalysis& a) {
    if (!a.good() || a.nonlinear) return {};
    return Finder(floor, a).run();
}

}  // namespace talvik::opinions
