#include "drawing/long_section.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace talvik::drawing {
namespace {

using units::Kind;
using Row = LongSection::Row;
using Style = LongSection::Style;

class Maker {
  public:
    Maker(const design::LineAnswer& line, const model::Basis& basis, const schedule::Marks& marks)
        : d_(line), view_(line.view()), basis_(basis), marks_(marks) {}

    LongSection make() {
        s_.from = view_.line.from, s_.to = view_.line.to;
        concrete();
        bars();
        if (view_.stations.empty()) return std::move(s_);
        moments();
        steel();
        shear();
        cracks();
        sag();
        return std::move(s_);
    }

  private:
    const design::LineAnswer& d_;
    const line::View view_;
    const model::Basis& basis_;
    const schedule::Marks& marks_;
    LongSection s_;

    std::string number(double v, Kind kind) const { return units::number(v, kind, basis_.units); }
    std::string unit(Kind kind) const { return std::string(units::unit(kind, basis_.units).symbol); }
    double u(std::size_t i) const { return view_.stations[i].u; }
    double perWidth(std::size_t i, double value) const { return value / view_.stations[i].width; }

    void concrete() {
        for (const auto& p : view_.line.supports)
            s_.supports.push_back({p.id, p.name, p.u, std::max(p.from, s_.from), std::min(p.to, s_.to),
                                   p.kind == line::Support::Kind::Columns,
                                   p.kind == line::Support::Kind::Wall});
        for (const auto& p : view_.line.spans)
            s_.spans.push_back(
                {p.id, p.from, p.to, {p.ends[0], p.ends[1]}, {p.overruled[0], p.overruled[1]}});
    }

    void bars() {
        std::map<model::Role, int> turns;
        for (const auto& r : d_.runs) {
            LongSection::Bar b;
            b.id = r.id, b.from = r.from, b.to = r.to;
            b.top = r.top(), b.band = r.band(), b.fixed = r.fixed;
            b.hookStart = r.start == model::BarEnd::Hook, b.hookEnd = r.end == model::BarEnd::Hook;
            b.turn = turns[r.role]++;
            b.fromFace = (r.top() ? basis_.coverTop : basis_.coverBottom) + r.diameter / 2;
            b.brief = fmt::format("{}-{}", r.bar, number(r.spacing, Kind::BarSpacing));
            if (r.band())
                b.brief = fmt::format("+ {} in {}", b.brief, units::text(r.width, Kind::Span, basis_.units));
            b.callout = schedule::callout(d_.items, r.id, marks_, basis_.units);
            if (b.callout.empty()) b.callout = b.brief;
            s_.bars.push_back(std::move(b));
        }
        for (const auto& z : d_.links)
            s_.legs.push_back({z.from, z.to, z.along,
                               fmt::format("{} {} × {}", z.bar, number(z.along, Kind::BarSpacing),
                                           number(z.across, Kind::BarSpacing))});
        for (const auto& r : d_.crossing())
            if (model::across(r.role))
                s_.across.push_back({r.id, r.top(), r.from, r.to, r.spacing,
                                     (r.top() ? basis_.coverTop : basis_.coverBottom) + 2.4 * r.diameter});
    }

    // A curve of values at the stations, `sign` upwards, shown up to `most`.
    template <class F>
    LongSection::Curve curve(Style style, double sign, double most, F value) const {
        LongSection::Curve c;
        c.style = style;
        for (std::size_t i = 0; i < view_.stations.size(); ++i)
            c.points.push_back({u(i), sign * std::min(value(i), most)});
        return c;
    }
    // The station from..to with the largest value; none where that is under `least`.
    template <class F>
    std::optional<std::size_t> peak(double from, double to, double least, F value) const {
        std::optional<std::size_t> best;
        for (std::size_t i = 0; i < view_.stations.size(); ++i)
            if (u(i) >= from && u(i) <= to && value(i) >= least && (!best || value(i) > value(*best)))
                best = i;
        return best;
    }

    void moments() {
        Row row;
        row.title = "moment, " + unit(Kind::MomentPerWidth), row.how = "top above";
        row.share = 2.2;
        double most[2] = {1e-9, 1e-9}, held[2] = {0, 0};  // bottom, top
        auto asked = [&](bool top) {
            return [this, top](std::size_t i) {
                return perWidth(i, (top ? view_.demand.top : view_.demand.bottom)[i].value);
            };
        };
        auto resisted = [&](bool top) {
            return [this, top](std::size_t i) { return perWidth(i, d_.curve(top).resistance[i]); };
        };
        auto moved = [&](bool top) {
            return [this, top](std::size_t i) { return perWidth(i, d_.curve(top).shifted[i]); };
        };
        for (bool top : {false, true})
            for (std::size_t i = 0; i < view_.stations.size(); ++i) {
                most[top] = std::max(most[top], asked(top)(i));
                held[top] = std::max(held[top], resisted(top)(i));
            }
        // Resistance far beyond what is asked is cut off.
        double shown[2];
        for (bool top : {false, true})
            shown[top] = std::max({most[top], std::min(held[top], 2.5 * std::max(most[top], most[!top] / 3)),
                                   0.2 * most[!top]});
        row.low = -shown[0], row.high = shown[1];
        for (bool top : {true, false}) {
            const double sign = top ? 1 : -1;
            for (std::size_t i = 0; i + 1 < view_.stations.size(); ++i) {
                const std::size_t k = i + 1;
                const double a = moved(top)(i), b = moved(top)(k), ha = resisted(top)(i),
                             hb = resisted(top)(k);
                if (d_.atEdge[i] || d_.atEdge[k] || (a <= ha * (1 + 1e-9) && b <= hb * (1 + 1e-9))) continue;
                row.gaps.push_back({{u(i), sign * a},
                                    {u(k), sign * b},
                                    {u(k), sign * std::min(b, hb)},
                                    {u(i), sign * std::min(a, ha)}});
            }
            row.curves.push_back(curve(Style::Moved, sign, shown[top], moved(top)));
            row.curves.push_back(curve(Style::Demand, sign, shown[top], asked(top)));
            row.curves.push_back(curve(Style::Resistance, sign, shown[top], resisted(top)));
        }
        const double least = 0.04 * (shown[0] + shown[1]);
        auto figure = [&](bool top, double from, double to) {
            if (auto i = peak(from, to, least, asked(top)))
                row.figures.push_back({{u(*i), (top ? 1 : -1) * asked(top)(*i)},
                                       number(asked(top)(*i), Kind::MomentPerWidth),
                                       false,
                                       top});
        };
        for (const auto& p : view_.line.supports) figure(true, p.from - 10, p.to + 10);
        for (const auto& p : view_.line.spans) figure(false, p.clearFrom, p.clearTo);
        s_.rows.push_back(std::move(row));
    }

    void steel() {
        Row row;
        row.title = "steel, " + unit(Kind::SteelPerWidth), row.how = "provided dashed";
        row.share = 1.4;
        row.rank = d_.sag.empty() ? 1 : 4;
        double shown[2] = {1e-9, 1e-9};
        for (bool top : {false, true})
            for (std::size_t i = 0; i < view_.stations.size(); ++i) {
                const auto& c = d_.curve(top);
                shown[top] = std::max({shown[top], c.provided[i], std::min(c.required[i], 3 * shown[top])});
            }
        for (bool top : {false, true}) shown[top] = std::max(shown[top], 0.2 * shown[!top]);
        row.low = -shown[0], row.high = shown[1];
        for (bool top : {true, false}) {
            const double sign = top ? 1 : -1;
            auto need = curve(Style::Required, sign, shown[top],
                              [&](std::size_t i) { return d_.curve(top).required[i]; });
            need.washed = true;
            row.curves.push_back(std::move(need));
            // Provided as the bars lie, not only where stations are.
            std::vector<double> stops{s_.from, s_.to};
            for (const auto& r : d_.runs)
                if (r.top() == top)
                    for (double u : {r.from, r.to}) stops.push_back(std::clamp(u, s_.from, s_.to));
            std::sort(stops.begin(), stops.end());
            LongSection::Curve have;
            have.style = Style::Resistance;
            for (std::size_t i = 0; i + 1 < stops.size(); ++i) {
                const double middle = (stops[i] + stops[i + 1]) / 2;
                const auto& at = view_.stations[line::nearestStation(view_.stations, middle)];
                const double as = bars::steelAt(d_.runs, top, middle, at.width).full;
                for (double x : {stops[i], stops[i + 1]})
                    have.points.push_back({x, sign * std::min(as, shown[top])});
            }
            row.curves.push_back(std::move(have));
        }
        for (const auto& r : d_.runs)
            if (!r.band())
                row.figures.push_back({{(r.from + r.to) / 2, (r.top() ? 1 : -1) * r.area},
                                       number(r.area, Kind::SteelPerWidth),
                                       false,
                                       r.top()});
        s_.rows.push_back(std::move(row));
    }

    // Between the supports; what governs is marked.
    void shear() {
        Row row;
        row.title = "shear, " + unit(Kind::ForcePerWidth), row.how = "resistance dashed";
        row.share = 0.95;
        row.rank = 2;
        LongSection::Curve asked{{}, Style::Required, false, false},
            resisted{{}, Style::Resistance, false, false};
        auto flush = [&] {
            for (auto* c : {&asked, &resisted})
                if (c->points.size() > 1) row.curves.push_back(*c);
            asked.points.clear(), resisted.points.clear();
        };
        for (std::size_t i = 0; i < view_.stations.size(); ++i) {
            const auto& s = view_.stations[i];
            if (s.support >= 0 || (i && s.span != view_.stations[i - 1].span)) flush();
            if (s.support >= 0) continue;
            asked.points.push_back({s.u, perWidth(i, view_.demand.shear[i].value)});
            resisted.points.push_back({s.u, perWidth(i, d_.shearResistance[i])});
            row.high = std::max({row.high, asked.points.back().y, resisted.points.back().y});
        }
        flush();
        for (const auto& c : d_.checks)
            if (c.topic == checks::Topic::OneWayShear && c.place.spot.in == model::Spot::In::Span &&
                checks::isJudged(c))
                row.figures.push_back({{c.place.x, c.demand},
                                       number(c.demand, Kind::ForcePerWidth),
                                       c.outcome == checks::Outcome::Over,
                                       true,
                                       true});
        s_.rows.push_back(std::move(row));
    }

    // As shares of their limits.
    void cracks() {
        Row row;
        row.share = 0.75;
        row.rank = 3;
        row.high = 1.2;
        Kind kind = Kind::Crack;
        for (const auto& c : d_.checks) {
            if (c.topic != checks::Topic::Cracks || !checks::isJudged(c)) continue;
            kind = c.kind;
            row.pillars.push_back({{c.place.x, std::min(checks::ratio(c), 1.15)},
                                   number(c.demand, c.kind),
                                   c.outcome == checks::Outcome::Over});
        }
        row.title = (kind == Kind::Crack ? "cracks, " : "crack spacing, ") + unit(kind);
        row.how = "limit dotted";
        row.curves.push_back({{{s_.from, 1}, {s_.to, 1}}, Style::Limit, false, false});
        s_.rows.push_back(std::move(row));
    }

    void sag() {
        if (d_.sag.empty()) return;
        Row row;
        row.title = "deflection, " + unit(Kind::Sag), row.how = "limit dotted";
        row.share = 1.35;
        row.rank = 1;
        double most = 1e-9;
        for (const auto& sag : d_.sag)
            for (double w : sag.total) most = std::max(most, w), row.high = std::max(row.high, -w);
        for (const auto& sag : d_.sag) most = std::max(most, std::min(sag.limit, 3 * most));
        row.low = -most;
        for (std::size_t i = 0; i < d_.sag.size(); ++i) {
            const auto& sag = d_.sag[i];
            const auto& span = s_.spans[i];
            LongSection::Curve c;
            for (std::size_t k = 0; k < sag.x.size(); ++k) c.points.push_back({sag.x[k], -sag.total[k]});
            c.over = sag.limit > 0 && sag.largest > sag.limit;
            if (sag.largest > 0.05 * most)
                row.figures.push_back({{sag.at, -sag.largest}, number(sag.largest, Kind::Sag), c.over, true});
            row.curves.push_back(std::move(c));
            if (sag.limit <= 0 || sag.limit > most * 1.001) continue;
            const double inset = 0.03 * (span.to - span.from);
            row.curves.push_back({{{span.from + inset, -sag.limit}, {span.to - inset, -sag.limit}},
                                  Style::Limit,
                                  false,
                                  false});
        }
        s_.rows.push_back(std::move(row));
    }
};

}  // namespace

LongSection longSection(const design::LineAnswer& line, const model::Basis& basis,
                        const schedule::Marks& marks) {
    return Maker(line, basis, marks).make();
}

std::string readingAt(const design::LineAnswer& d, double u, units::System system) {
    const auto view = d.view();
    const std::size_t i = line::nearestStation(view.stations, u);
    auto number = [&](double v) {
        return units::number(v / view.stations[i].width, Kind::MomentPerWidth, system);
    };
    return fmt::format("T {} of {} · B {} of {} {}", number(view.demand.top[i].value),
                       number(d.top.resistance[i]), number(view.demand.bottom[i].value),
                       number(d.bottom.resistance[i]), units::unit(Kind::MomentPerWidth, system).symbol);
}

Sheet lineFigure(const LongSection& section, const std::string& title, double width) {
    Sheet s;
    s.width = width, s.height = 92;
    s.title = title;
    const double k = (width - 26) / (section.to - section.from);
    auto X = [&](double u) { return 20 + (u - section.from) * k; };
    s.rectangle({X(section.from), 76}, {X(section.to), 80}, Layer::Outline);
    for (const auto& p : section.supports) {
        s.rectangle({X(p.from), 72}, {X(p.to), 76}, Layer::Structure, !p.hinted);
        s.text({X(p.u), 84}, 2.4, p.name, Align::Centre, true);
        s.line({X(p.u), 82}, {X(p.u), 4}, Layer::Grid);
    }
    double top = 66;
    for (const auto& row : section.rows) {
        const bool sag = row.rank == 1 && &row == &section.rows.back();
        if (row.rank != 0 && !sag) continue;
        const double high = row.rank == 0 ? 44 : 16, scale = high / (row.high - row.low);
        const double axis = top - row.high * scale;
        auto at = [&](Point p) { return Point{X(p.x), axis + p.y * scale}; };
        s.line({X(section.from), axis}, {X(section.to), axis}, Layer::Dimension);
        s.text({0, top - 1}, 2.2, row.title.substr(0, row.title.find(',')));
        for (const auto& c : row.curves) {
            if (c.style != Style::Demand && c.style != Style::Resistance) continue;
            std::vector<Point> points;
            for (Point p : c.points) points.push_back(at(p));
            s.polyline(std::move(points), c.style == Style::Demand ? Layer::Moment : Layer::Resistance);
        }
        for (const auto& f : row.figures) {
            Point p = at(f.at);
            s.text({p.x, p.y + (f.above && f.at.y > 0 ? 1.2 : -3.2)}, 2, f.text, Align::Centre);
        }
        top -= high + 6;
    }
    return s;
}

}  // namespace talvik::drawing
