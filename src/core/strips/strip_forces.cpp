#include "strips/strip_forces.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "fem/parallel/pool.h"
#include "model/steps.h"
#include "strips/field_moments.h"
#include "strips/sharing.h"
#include "strips/strip_loads.h"

namespace talvik::strips {
namespace {

using model::Floor;

// Intervals of v in which a line u = constant lies on the strip.
std::vector<std::pair<double, double>> across(const Strip& strip, double u) {
    std::vector<std::pair<double, double>> all;
    for (const auto& part : strip.parts) {
        std::vector<double> cuts;
        Point before = strip.axes.local(part.back());
        for (Point corner : part) {
            Point p = strip.axes.local(corner);
            if ((before.x > u) != (p.x > u))
                cuts.push_back(before.y + (p.y - before.y) * (u - before.x) / (p.x - before.x));
            before = p;
        }
        std::sort(cuts.begin(), cuts.end());
        for (std::size_t k = 0; k + 1 < cuts.size(); k += 2)
            if (cuts[k + 1] - cuts[k] > 1) all.emplace_back(cuts[k], cuts[k + 1]);
    }
    std::sort(all.begin(), all.end());
    std::vector<std::pair<double, double>> joined;
    for (auto [a, b] : all) {
        if (!joined.empty() && a <= joined.back().second + 1)
            joined.back().second = std::max(joined.back().second, b);
        else
            joined.emplace_back(a, b);
    }
    return joined;
}

// Where the strip's axis crosses a segment of the plan.
void crossingsOf(const Strip& strip, Point a, Point b, std::vector<double>& out) {
    for (std::size_t i = 0; i + 1 < strip.axis.size(); ++i) {
        Point at;
        if (geometry::cross(strip.axis[i], strip.axis[i + 1], a, b, &at))
            out.push_back(strip.axes.local(at).x);
    }
}

constexpr double aside = 3;

Span nearestSpan(const Strip& strip, double u) {
    Span best;
    best.from = strip.from, best.to = strip.to;
    double least = 1e300;
    for (const auto& s : strip.spans)
        if (double away = std::max({s.from - u, u - s.to, 0.0}); away < least) least = away, best = s;
    return best;
}
// Whether the standard's own widths hold for the top: within 0.3 of the clear span of a line of columns.
bool hoggingOverColumns(const Strip& strip, double u) {
    for (std::size_t k = 0; k < strip.supports.size(); ++k) {
        const auto& p = strip.supports[k];
        if (p.kind != Support::Kind::Column && p.kind != Support::Kind::Columns) continue;
        // Over columns that carry beams the width of a column strip is what hogging gathers in.
        if (p.onBeam && strip.kind != Strip::Kind::Column && strip.kind != Strip::Kind::Middle) continue;
        for (const auto& s : strip.spans) {
            const double reach = 0.3 * (s.clearTo - s.clearFrom) + 5;  // the station there too
            if (s.left == int(k) && u >= p.from - 1 && u <= p.to + reach) return true;
            if (s.right == int(k) && u <= p.to + 1 && u >= p.from - reach) return true;
        }
    }
    return false;
}

}  // namespace

std::vector<Station> stations(const Strip& strip, const Floor& floor) {
    const model::Thickness thickness(floor);
    std::vector<double> us, marks;
    auto together = [](double a, double b) { return b - a < 4; };
    auto inner = [&](double u) { return std::clamp(u, strip.from + 2, strip.to - 2); };
    us.push_back(inner(strip.from));
    us.push_back(inner(strip.to));
    for (double beside : {150.0, 300.0})
        marks.push_back(inner(strip.from + beside)), marks.push_back(inner(strip.to - beside));
    for (double k : {0.2, 0.4, 0.6, 0.8, 1.0}) {  // ends askew
        if (strip.axisFrom - strip.from > 20) us.push_back(strip.from + k * (strip.axisFrom - strip.from));
        if (strip.to - strip.axisTo > 20) us.push_back(strip.to - k * (strip.to - strip.axisTo));
    }
    for (const auto& span : strip.spans) {
        double a = span.clearFrom, L = span.clearTo - span.clearFrom;
        // Beside axes and faces, not on them: moments and shears jump at walls and beams.
        us.push_back(inner(span.from + aside));
        us.push_back(inner(span.to - aside));
        for (double k : {0.0, 0.025, 0.05, 0.1, 0.15, 0.2, 0.25, 0.3, 0.4, 0.5, 0.6, 0.7, 0.75, 0.8, 0.85,
                         0.9, 0.95, 0.975, 1.0})
            us.push_back(inner(a + std::min(std::max(k * L, aside), L - aside)));
        double d = 0.85 * thickness.at(strip.axes.plan({a + L / 2, strip.v(a + L / 2)}));
        if (span.left >= 0 && d < L / 2) us.push_back(a + d);
        if (span.right >= 0 && d < L / 2) us.push_back(a + L - d);
    }
    std::vector<double> steps;
    for (const auto& l : floor.actions.loads) {
        using Kind = model::FloorLoad::Kind;
        if (l.kind == Kind::Line) {
            const std::size_t before = steps.size();
            crossingsOf(strip, l.a, l.b, steps);
            // And clear of it, from where its jump in shear is put right.
            for (std::size_t k = before; k < steps.size(); ++k) {
                const double clear = 3.5 * thickness.at(strip.axes.plan({steps[k], strip.v(steps[k])}));
                for (double side : {-clear, clear})
                    if (steps[k] + side > strip.from + 2 && steps[k] + side < strip.to - 2)
                        us.push_back(steps[k] + side);
            }
        }
        if (l.kind != Kind::Point && l.kind != Kind::Moment) continue;
        // Where the load stands, also a little beside the strip: what peaks there reaches into it.
        const bool here = std::any_of(strip.parts.begin(), strip.parts.end(), [&](const Ring& r) {
            return geometry::contains(r, l.a) || geometry::distanceToEdge(r, l.a) < 500;
        });
        const double u = strip.axes.local(l.a).x;
        if (here && u > strip.from && u < strip.to) steps.push_back(u);
    }
    // At steps of level the slab is as thick as what passes.
    std::vector<std::pair<double, double>> passing;
    const bool stepped = std::any_of(floor.slabs.begin(), floor.slabs.end(), [&](const auto& s) {
        return s.level != floor.slabs.front().level || s.thickness != floor.slabs.front().thickness;
    });
    if (stepped)
        for (const auto& side : model::slabSides(floor)) {
            if (side.beside < 0) continue;
            const double both = model::passing(floor.slabs[side.slab], floor.slabs[std::size_t(side.beside)]);
            const std::size_t before = steps.size();
            crossingsOf(strip, side.along.a, side.along.b, steps);
            for (std::size_t k = before; k < steps.size() && both >= model::leastPassing; ++k)
                passing.emplace_back(steps[k], both);
        }
    for (const auto& r : thickness.zones())
        for (std::size_t i = 0; i < r.size(); ++i) crossingsOf(strip, r[i], r[(i + 1) % r.size()], steps);
    for (double u : steps)
        for (double side : {-5.0, 5.0})
            if (u + side > strip.from + 2 && u + side < strip.to - 2) us.push_back(u + side);
    std::sort(us.begin(), us.end());
    std::sort(marks.begin(), marks.end());
    // One of those that fall together, rather beside an axis or a face than where it fell by chance.
    us.erase(std::unique(us.begin(), us.end(), together), us.end());
    for (double m : marks)
        if (std::none_of(us.begin(), us.end(), [&](double u) { return std::abs(u - m) < 4; }))
            us.push_back(m);
    std::sort(us.begin(), us.end());
    std::vector<Station> all;
    for (double u : us) {
        Station s;
        s.u = u;
        for (std::size_t i = 0; i < strip.spans.size() && s.span < 0; ++i)
            if (u >= strip.spans[i].from - 3 && u <= strip.spans[i].to + 3) s.span = int(i);
        for (std::size_t i = 0; i < strip.supports.size(); ++i)
            if (u > strip.supports[i].from + 1 && u < strip.supports[i].to - 1) s.support = int(i);
        double area = 0;
        s.leastThickness = 1e300;
        const auto pieces = across(strip, u);
        for (auto [low, high] : pieces) {
            // A sliver beside an opening carries nothing that could be designed: the slab beside it does.
            if (pieces.size() > 1 &&
                high - low < thickness.at(strip.axes.plan({u, (low + high) / 2})) / 4)
                continue;
            // From high to low, so that the normal points along u.
            Segment cut{strip.axes.plan({u, high}), strip.axes.plan({u, low})};
            s.width += high - low;
            thickness.along(cut, area, s.leastThickness);
            s.cuts.push_back(cut);
        }
        if (s.width < 1) continue;
        s.thickness = area / s.width;
        for (const auto& [at, both] : passing)
            if (std::abs(u - at) < 6) {
                s.thickness = std::min(s.thickness, both);
                s.leastThickness = std::min(s.leastThickness, both);
            }
        s.share[0] = s.share[1] = sharingWidth(s.thickness, nearestSpan(strip, u).length());
        if (hoggingOverColumns(strip, u)) s.share[1] = s.width;
        // A width that someone chose is the width of the mean.
        if (strip.kind == Strip::Kind::Drawn || strip.changed) s.share[0] = s.share[1] = s.width;
        all.push_back(std::move(s));
    }
    return all;
}

ForceReader::ForceReader(const analysis::FloorAnalysis& a, actions::LimitState service, std::stop_token stop)
    : a_(a), cutter_(*a.model), shears_(a.moments.size()) {
    fem::parallelFor(a.moments.size(), [&](std::size_t k) {
        if (!stop.stop_requested())
            shears_[k] = fem::recoverShears(a.model->plate, a.model->points, a.moments[k]);
    });
    for (std::size_t k = 0; k < a.combinations.size(); ++k) {
        auto state = a.combinations[k].state;
        if (state != actions::LimitState::Ultimate && state != service) continue;
        Weights w{k, {}};
        if (a.nonlinear)
            w.cases.emplace_back(k, 1);
        else
            for (std::size_t c = 0; c < a.combinations[k].factors.size(); ++c)
                if (a.combinations[k].factors[c] != 0) w.cases.emplace_back(c, a.combinations[k].factors[c]);
        weights_.push_back(std::move(w));
    }
}

StripForces ForceReader::read(const Strip& strip, const Floor& floor) const {
    StripForces out;
    out.stations = stations(strip, floor);
    out.combinations = a_.combinations.size();
    const std::size_t n = out.stations.size(), cases = a_.moments.size();
    out.all.assign(out.combinations * n, {});
    double skew = (strip.otherAngle - strip.axes.angle) * std::numbers::pi / 180;
    const bool square = std::abs(std::cos(skew)) < 1e-9;
    if (square) skew = std::numbers::pi / 2;  // the sign of a right angle does not matter
    // Without twisting there is nothing that bars askew could be designed by.
    const bool twisting = floor.strips.rules.twisting == model::StripChoices::Twisting::WoodArmer || !square;
    const StripLoads loads(strip, floor, a_);
    for (std::size_t c = 0; c < cases; ++c) out.loads.push_back(loads.all(c));
    std::vector<std::vector<double>> shears(cases, std::vector<double>(n, 0)), moments = shears;
    std::vector<analysis::Tensor> samples;           // case by case
    std::vector<double> at, low, high, mx, my, mxy;  // of all cuts of a station, one after the other
    // Nothing is shared across an opening, unless the standard takes the strip as a whole.
    struct Shared {
        std::size_t first, count;
        SharedMean mean;
    };
    auto shared = [&](const std::vector<analysis::CutLine>& lines, const Station& station, int face) {
        std::vector<Shared> all;
        if (station.share[face] >= station.width) {
            all.push_back({0, at.size(), SharedMean(at, station.share[face])});
            return all;
        }
        std::size_t first = 0;
        for (const auto& line : lines) {
            const std::size_t count = line.samples.size();
            all.push_back(
                {first, count, SharedMean(std::span(at).subspan(first, count), station.share[face])});
            first += count;
        }
        return all;
    };
    auto largest = [](const std::vector<Shared>& all, const std::vector<double>& values) {
        double most = 0;
        for (const auto& s : all)
            most = std::max(most, s.mean.largest(std::span(values).subspan(s.first, s.count)));
        return most;
    };
    for (std::size_t i = 0; i < n; ++i) {
        const Station& station = out.stations[i];
        std::vector<analysis::CutLine> lines;
        std::size_t points = 0;
        at.clear();
        for (const auto& segment : station.cuts) {
            lines.push_back(cutter_.cut(segment.a, segment.b));
            points += lines.back().samples.size();
            for (const auto& p : lines.back().samples) at.push_back(p.along);
        }
        samples.resize(points * cases);
        for (auto* v : {&low, &high, &mx, &my, &mxy}) v->resize(points);
        std::vector<Values> own(cases);
        for (std::size_t c = 0; c < cases; ++c) {
            const auto& m = a_.moments[c];
            std::size_t first = c * points;
            for (const auto& line : lines) {
                own[c].shear += analysis::slabShear(line, m, shears_[c]);
                if (!line.beams.empty()) {
                    auto beams = analysis::beamShare(line, *a_.model, a_.u[c]);
                    own[c].beamMoment += beams.moment;
                    own[c].beamShear += beams.shear;
                }
                for (std::size_t p = 0; p < line.samples.size(); ++p)
                    samples[first + p] = analysis::tensorAt(line.samples[p], m, line.nx, line.ny);
                for (std::size_t p = 0; p + 1 < line.samples.size(); p += 2)
                    own[c].moment += (samples[first + p].along + samples[first + p + 1].along) / 2 *
                                     (line.samples[p + 1].along - line.samples[p].along);
                first += line.samples.size();
            }
        }
        const auto below = shared(lines, station, 0), above = shared(lines, station, 1);
        for (std::size_t c = 0; c < cases; ++c) shears[c][i] = own[c].shear, moments[c][i] = own[c].moment;
        for (const auto& w : weights_) {
            Values& total = out.all[w.combination * n + i];
            for (const auto& [c, factor] : w.cases) {
                total.moment += factor * own[c].moment;
                total.beamMoment += factor * own[c].beamMoment, total.beamShear += factor * own[c].beamShear;
            }
            std::fill(mx.begin(), mx.end(), 0.0);
            std::fill(my.begin(), my.end(), 0.0);
            std::fill(mxy.begin(), mxy.end(), 0.0);
            for (const auto& [c, factor] : w.cases) {
                const analysis::Tensor* t = samples.data() + c * points;
                for (std::size_t p = 0; p < points; ++p)
                    mx[p] += factor * t[p].along, my[p] += factor * t[p].across,
                        mxy[p] += factor * t[p].twist;
            }
            if (twisting && square)
                squareBarMoments(mx, my, mxy, low, high);
            else
                for (std::size_t p = 0; p < points; ++p) {
                    low[p] = twisting ? barMoments(mx[p], my[p], mxy[p], skew, false).along : mx[p];
                    high[p] = twisting ? barMoments(mx[p], my[p], mxy[p], skew, true).along : -mx[p];
                }
            total.bottom = largest(below, low) * station.width;
            total.top = largest(above, high) * station.width;
        }
    }
    for (std::size_t c = 0; c < cases; ++c) {
        auto moment = moments[c];
        loads.putRight(c, out.stations, shears[c], moment);
        for (std::size_t i = 0; i < n; ++i) moments[c][i] = moment[i] - moments[c][i];  // what is added
    }
    for (const auto& w : weights_)
        for (std::size_t i = 0; i < n; ++i) {
            Values& total = out.all[w.combination * n + i];
            double added = 0;
            for (const auto& [c, factor] : w.cases)
                total.shear += factor * shears[c][i], added += factor * moments[c][i];
            if (added == 0) continue;
            total.moment += added;
            if (total.bottom > 0 || added > 0) total.bottom = std::max(0.0, total.bottom + added);
            if (total.top > 0 || added < 0) total.top = std::max(0.0, total.top - added);
        }
    return out;
}

namespace {

// Hogging over a support on which the slab is free to turn: that on the axis, rounded off by its reaction,
// where this is more than at the faces.
double roundedTop(const StripForces& f, const std::vector<Values>& v, const Support& s, double faces,
                  const std::function<double(double R, double t)>& rounded) {
    std::ptrdiff_t before = -1, after = -1;
    for (std::size_t i = 0; i < f.stations.size(); ++i) {
        if (f.stations[i].u <= s.u && f.stations[i].u > s.from) before = std::ptrdiff_t(i);
        if (after < 0 && f.stations[i].u >= s.u && f.stations[i].u < s.to) after = std::ptrdiff_t(i);
    }
    double most = faces, left = 0, right = 0;
    if (before >= 0) left = v[std::size_t(before)].shear;
    if (after >= 0) right = v[std::size_t(after)].shear;
    const double off = rounded(std::abs(right - left), s.to - s.from);
    for (std::ptrdiff_t i : {before, after})
        if (i >= 0) most = std::max(most, v[std::size_t(i)].top - off);
    return most;
}

// Hogging over inner supports less by a share, sagging more by what statics then asks: the change varies
// linearly between supports.
void redistribute(const Strip& strip, const std::vector<Station>& stations, double share,
                  std::vector<Values>& v) {
    std::vector<std::pair<double, double>> change;  // u, added moment
    for (std::size_t s = 0; s < strip.supports.size(); ++s) {
        const auto& p = strip.supports[s];
        bool inner = s > 0 && s + 1 < strip.supports.size();
        double hogging = 0;
        for (std::size_t i = 0; i < stations.size(); ++i)
            if (stations[i].u > p.from - 5 && stations[i].u < p.to + 5) hogging = std::max(hogging, v[i].top);
        change.emplace_back(p.u, inner ? share * hogging : 0);
    }
    if (change.size() < 3) return;
    for (std::size_t i = 0; i < stations.size(); ++i) {
        double u = stations[i].u, add = 0;
        for (std::size_t s = 0; s + 1 < change.size(); ++s)
            if (u >= change[s].first && u <= change[s + 1].first)
                add = change[s].second + (change[s + 1].second - change[s].second) * (u - change[s].first) /
                                             (change[s + 1].first - change[s].first);
        if (add == 0) continue;
        v[i].bottom = v[i].bottom > 0 ? v[i].bottom + add : std::max(0.0, add - v[i].top);
        v[i].top = std::max(0.0, v[i].top - add);
        v[i].moment += add;
    }
}

}  // namespace

line::Demand demand(const Strip& strip, const StripForces& f, const analysis::FloorAnalysis& a,
                    const model::StripChoices& rules, actions::LimitState crackState,
                    const std::function<double(double R, double t)>& rounded) {
    const std::size_t n = f.stations.size();
    line::Demand d;
    for (auto* line : {&d.bottom, &d.top, &d.shear, &d.bottomService, &d.topService, &d.most, &d.least,
                       &d.beamMost, &d.beamLeast})
        line->assign(n, {});
    bool first = true;
    for (std::size_t k = 0; k < f.combinations; ++k) {
        const auto state = a.combinations[k].state;
        const bool ultimate = state == actions::LimitState::Ultimate;
        if (!ultimate && state != crackState) continue;
        std::vector<Values> v(f.all.begin() + std::ptrdiff_t(k * n),
                              f.all.begin() + std::ptrdiff_t((k + 1) * n));
        if (ultimate && rules.redistribution > 0) redistribute(strip, f.stations, rules.redistribution, v);
        if (rules.faceOfSupport) {
            for (const auto& s : strip.supports) {
                // The nearest stations at or outside the two faces.
                double top = 0;
                std::ptrdiff_t before = -1, after = -1;
                for (std::size_t i = 0; i < n; ++i) {
                    if (f.stations[i].u <= s.from + 1.5) before = std::ptrdiff_t(i);
                    if (after < 0 && f.stations[i].u >= s.to - 1.5) after = std::ptrdiff_t(i);
                }
                // A face beyond the slab's end or far from the last station does not count.
                for (std::ptrdiff_t i : {before, after})
                    if (i >= 0 && std::min(std::abs(f.stations[std::size_t(i)].u - s.from),
                                           std::abs(f.stations[std::size_t(i)].u - s.to)) < 10)
                        top = std::max(top, v[std::size_t(i)].top);
                if (s.turns && rounded && s.to - s.from > 20) top = roundedTop(f, v, s, top, rounded);
                for (std::size_t i = 0; i < n; ++i)
                    if (f.stations[i].u > s.from + 1.5 && f.stations[i].u < s.to - 1.5)
                        v[i].top = std::min(v[i].top, top);
            }
        }
        auto more = [k](line::Extreme& e, double value) {
            if (value > e.value) e = {value, std::uint16_t(k)};
        };
        for (std::size_t i = 0; i < n; ++i) {
            if (!ultimate) {
                more(d.bottomService[i], v[i].bottom);
                more(d.topService[i], v[i].top);
                continue;
            }
            more(d.bottom[i], v[i].bottom);
            more(d.top[i], v[i].top);
            more(d.shear[i], std::abs(v[i].shear));
            auto extreme = [&](line::Extreme& most, line::Extreme& least, double value) {
                if (first || value > most.value) most = {value, std::uint16_t(k)};
                if (first || value < least.value) least = {value, std::uint16_t(k)};
            };
            extreme(d.most[i], d.least[i], v[i].moment);
            extreme(d.beamMost[i], d.beamLeast[i], v[i].beamMoment);
        }
        if (ultimate) first = false;
    }
    for (std::size_t i = 0; i < n; ++i) d.shearHogs.push_back(-d.least[i].value > d.most[i].value);
    return d;
}

}  // namespace talvik::strips
