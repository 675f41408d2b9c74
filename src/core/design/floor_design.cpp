#include "design/floor_design.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <optional>

#include "design/strip_checks.h"
#include "fem/parallel/pool.h"

namespace talvik::design {
namespace {

using checks::Check;
using checks::Finding;
using reinforcement::PeakBand;
using strips::Strip;

// Top steel that a strip asks over a support, for its whole width.
double steelOver(const StripDesign& d, double from, double to) {
    double most = 0;
    for (std::size_t i = 0; i < d.stations().size(); ++i)
        if (d.stations()[i].u > from - 10 && d.stations()[i].u < to + 10 && d.top.required[i] < 1e8)
            most = std::max(most, d.top.required[i] * d.stations()[i].width);
    return most;
}

const StripDesign* beside(const FloorDesign& f, const Strip& s, bool left) {
    for (const auto& o : f.strips) {
        const Strip& m = *o->strip;
        if (m.direction != s.direction || m.kind != Strip::Kind::Middle) continue;
        if ((left ? m.lineLeft : m.line) == s.line && !s.line.empty()) return o.get();
    }
    return nullptr;
}

// The largest moment that passes into a column along a strip, ultimate.
double columnMoment(const FloorDesign& f, const model::Id& column, const strips::Axes& axes) {
    double most = 0;
    const auto& a = *f.analysis;
    for (std::size_t q = 0; q < a.model->supports.size(); ++q) {
        if (a.model->supports[q].id != column) continue;
        for (std::size_t c = 0; c < a.combinations.size(); ++c) {
            if (a.combinations[c].state != actions::LimitState::Ultimate) continue;
            double mx = 0, my = 0;
            if (a.nonlinear) {
                const auto force = a.forces(c)[q];
                mx = force.mx, my = force.my;
            } else {
                for (std::size_t k = 0; k < a.combinations[c].factors.size(); ++k) {
                    mx += a.combinations[c].factors[k] * a.supportForces[k][q].mx;
                    my += a.combinations[c].factors[k] * a.supportForces[k][q].my;
                }
            }
            most = std::max(most, std::abs(mx * axes.c + my * axes.s));
        }
    }
    return most;
}

// Top steel across the slab's edge by which its moment passes into an edge or corner column; none under 2
// kNm.
std::optional<PeakBand> edgeBand(const FloorDesign& f, const StripDesign& d, const line::LineBasis& in,
                                 std::size_t k) {
    const Strip& s = *d.strip;
    const auto& p = s.supports[k];
    const bool first = k == 0;
    const double M = columnMoment(f, p.id, s.axes);
    if (M < 2e6 || p.onBeam) return std::nullopt;
    const auto& station = d.stations()[line::nearestStation(d.stations(), first ? p.to : p.from)];
    double diameter = 0;
    for (const auto& r : d.runs)
        if (r.top && !r.band && r.from <= p.u && p.u <= r.to) diameter = std::max(diameter, r.diameter);
    standards::StripRules::TransferInput t;
    t.corner = s.edge[0] || s.edge[1];
    t.c1 = p.to - p.from, t.c2 = p.across;
    t.toEdge = first ? p.to - s.from : s.to - p.from;
    for (int side : {0, 1}) t.sides[side] = std::max(0.0, s.toNext[side] - p.across / 2);
    t.section = line::section(true, diameter > 0 ? diameter : 16, station, in, 1000);
    PeakBand band;
    band.support = int(k);
    band.transfer = true;
    const auto rule = in.standard.strips->transfer(t);
    band.width = rule.width;
    band.moment = M, band.most = rule.most;
    band.rule.clause = rule.clause;
    band.mostClause = rule.mostClause;
    auto section = t.section;
    section.b = rule.width;
    const auto need = in.standard.flexure->required(section, rule.share * M);
    band.steel = need.possible ? need.As / rule.width : 1e3;
    band.input = t;
    band.word =
        fmt::format("For {:.0f} % of the moment that passes into the column, {:.1f} kNm, within {:.2f} m.",
                    100 * rule.share, M / 1e6, rule.width / 1000);
    return band;
}

// What the standard wants in the width over inner columns where hogging peaks, and into columns at edges.
std::vector<PeakBand> peakBands(const FloorDesign& f, const StripDesign& d, const line::LineBasis& in) {
    std::vector<PeakBand> bands;
    const Strip& s = *d.strip;
    if (s.kind != Strip::Kind::Column && !(s.kind == Strip::Kind::Full && !s.onLines)) return bands;
    if (s.alongBeam) return bands;
    const bool atEdge = s.edge[0] || s.edge[1];
    for (std::size_t k = 0; k < s.supports.size(); ++k) {
        const auto& p = s.supports[k];
        if (p.kind != strips::Support::Kind::Column || p.onBeam || p.across <= 0) continue;
        bool before = false, after = false, onWall = false;
        for (const auto& span : s.spans) {
            before |= span.right == int(k), after |= span.left == int(k);
            onWall |= span.alongWall && (span.right == int(k) || span.left == int(k));
        }
        if (onWall || (!before && !after)) continue;
        if (before != after) {
            if (auto band = edgeBand(f, d, in, k)) bands.push_back(std::move(*band));
            continue;
        }
        if (atEdge) continue;  // a cantilever beyond or not, the edge has its own bars
        std::size_t at = 0;
        for (std::size_t i = 0; i < d.stations().size(); ++i)
            if (std::abs(d.stations()[i].u - p.u) < std::abs(d.stations()[at].u - p.u)) at = i;
        double diameter = 0;
        for (const auto& r : d.runs)
            if (r.top && !r.band && r.from <= p.u && p.u <= r.to) diameter = std::max(diameter, r.diameter);
        if (diameter == 0) continue;
        auto sec = line::section(true, diameter, d.stations()[at], in, 1000);
        double panels = s.toNext[0] / 2 + s.toNext[1] / 2;
        PeakBand band;
        band.support = int(k);
        band.rule = in.standard.strips->peak(panels, p.to - p.from, p.across, sec.h, sec.d);
        band.width = f.floor->strips.rules.peakWidth > 0 ? f.floor->strips.rules.peakWidth : band.rule.width;
        if (band.rule.steelShare > 0) {
            double total = steelOver(d, p.from, p.to);
            for (bool left : {false, true})
                if (const auto* m = beside(f, s, left)) total += steelOver(*m, p.from, p.to) / 2;
            band.steel = band.rule.steelShare * total / band.width;
            band.word = fmt::format(
                "{:.0f} % of the top steel of the panels on both sides, {:.0f} mm², within {:.2f} m over the "
                "column.",
                100 * band.rule.steelShare, total, band.width / 1000);
        } else if (band.rule.momentShare > 0) {
            const double most = columnMoment(f, p.id, s.axes);
            sec.b = band.width;
            auto need = in.standard.flexure->required(sec, band.rule.momentShare * most);
            band.steel = need.possible ? need.As / band.width : 1e3;
            band.word = fmt::format(
                "For {:.0f} % of the moment that passes into the column, {:.1f} kNm, within {:.2f} m over "
                "it.",
                100 * band.rule.momentShare, most / 1e6, band.width / 1000);
        }
        bands.push_back(std::move(band));
    }
    return bands;
}

// Whether a strip carries one way: held by lines that cross it alone, or along one-way panels.
bool carriesOneWay(const StripDesign& d) {
    return d.strip->onLines ||
           (!d.panels.empty() && std::all_of(d.panels.begin(), d.panels.end(),
                                             [](const SpanPanel& p) { return p.oneWay && !p.across; }));
}

// Bottom steel that strips held by lines alone ask of those that cross them: a share of their own.
double distributionSteel(const FloorDesign& f, const StripDesign& d, const line::LineBasis& in) {
    const Strip& s = *d.strip;
    if (carriesOneWay(d) || d.stations().empty()) return 0;
    double most = 0;
    for (const auto& o : f.strips) {
        const Strip& main = *o->strip;
        if (main.direction == s.direction || !carriesOneWay(*o) || main.spans.empty() ||
            main.supports.size() < 2)
            continue;
        bool cross = false;
        for (std::size_t i = 0; i + 1 < s.axis.size() && !cross; ++i)
            for (std::size_t k = 0; k + 1 < main.axis.size() && !cross; ++k)
                cross = geometry::cross(s.axis[i], s.axis[i + 1], main.axis[k], main.axis[k + 1], nullptr);
        if (!cross) continue;
        for (const auto& r : o->runs) {
            if (r.top) continue;
            auto section = line::section(false, r.diameter, d.stations()[d.stations().size() / 2], in, 1000);
            most = std::max(most, in.standard.steel->secondary(r.area * 1000, section) / 1000);
        }
    }
    return most;
}

// The least moment at the face of inner supports cast with the slab, of strips that span one way between
// beams and stiff walls (EN 1992-1-1 5.3.2.2(3)): a share of the fixed-end moment of the span, w l_n2 / 12,
// which is two thirds of its static moment.
void leastFaceMoments(StripDesign& d, const analysis::FloorAnalysis& a, const standards::Standard& standard) {
    const Strip& s = *d.strip;
    if (!s.onLines || standard.supports->momentFloor(1) <= 0 || d.stations().empty()) return;
    const auto& st = d.stations();
    for (const auto& span : s.spans) {
        if (span.cantilever() || span.alongWall) continue;
        const std::size_t from = line::nearestStation(st, span.clearFrom),
                          to = line::nearestStation(st, span.clearTo),
                          mid = line::nearestStation(st, (span.clearFrom + span.clearTo) / 2);
        double most = 0;
        std::size_t by = 0;
        for (std::size_t k = 0; k < a.combinations.size(); ++k) {
            if (a.combinations[k].state != actions::LimitState::Ultimate) continue;
            const double fixed = 2.0 / 3 *
                                 (d.forces->at(k, mid).moment -
                                  (d.forces->at(k, from).moment + d.forces->at(k, to).moment) / 2);
            if (fixed > most) most = fixed, by = k;
        }
        const double least = standard.supports->momentFloor(most);
        for (int e : {0, 1}) {
            if (span.ends[e] != model::EndCondition::Continuous) continue;
            const auto& p = s.supports[std::size_t(e == 0 ? span.left : span.right)];
            if (p.turns || p.kind == strips::Support::Kind::Columns) continue;
            for (std::size_t i = 0; i < st.size(); ++i)
                if (st[i].u > p.from - 6 && st[i].u < p.to + 6 && d.demand.top[i].value < least)
                    d.demand.top[i] = {least, std::uint16_t(by)};
        }
    }
}

// What lifts supports against what holds them: imposed loads on the panels that lift, and permanent ones that
// hold.
std::optional<Finding> uplift(const FloorDesign& f) {
    const auto& a = *f.analysis;
    if (a.nonlinear || a.model->supports.empty()) return std::nullopt;
    const auto rule = f.standard->actions->equilibrium();
    verify::Lifting worst{0, 1};
    std::string where = "No load lifts any support.";
    std::vector<std::string> lifted;
    for (std::size_t s = 0; s < a.model->supports.size(); ++s) {
        if (a.model->supports[s].kind == analysis::FloorSupport::Kind::Ground) continue;
        double permanent = 0;
        std::map<std::string, double> imposed;  // by arrangement
        for (std::size_t c = 0; c < a.cases.size() && c < f.floor->actions.cases.size(); ++c) {
            const auto& row = f.floor->actions.cases[c];
            const double up = a.supportForces[c][s].up;
            const auto slash = row.id.find('/');
            if (row.nature != model::LoadCase::Nature::Imposed)
                permanent += up;
            else
                imposed[slash == std::string::npos ? "" : row.id.substr(slash)] -= std::min(0.0, up);
        }
        double most = 0;
        for (const auto& [name, down] : imposed) most = std::max(most, down);
        const auto here = verify::lifting(rule, std::max(0.0, permanent), std::max(0.0, -permanent), most);
        if (here.ratio() > 1) lifted.push_back(a.model->supports[s].name);
        if (here.ratio() <= worst.ratio()) continue;
        worst = here;
        where = fmt::format("Support {}: {:.1f} kN lift, {:.1f} kN hold.", a.model->supports[s].name,
                            here.lifts / 1000, here.holds / 1000);
    }
    Finding x = verify::upliftFinding(worst, rule, units::Kind::Force);
    x.here.push_back(where);
    if (lifted.size() > 1)
        x.here.push_back(fmt::format("{} supports lift: {}.", lifted.size(), fmt::join(lifted, ", ")));
    x.notes.push_back(
        "Permanent loads of single panels are not told apart, and walls and lines are taken whole.");
    return x;
}

void floorChecks(FloorDesign& f) {
    using checks::Topic;
    verify::CheckList list(f.floor->id + "/");
    const checks::Place whole{{{f.floor->id}, model::Spot::In::Whole, {}}, "floor"};
    auto add = [&](const std::string& name, const std::string& title, Topic topic, Finding finding) {
        list.add({name, title, topic, std::move(finding), {}}, whole);
    };
    for (int d : {0, 1}) {
        const auto& cover = f.layout->coverage[std::size_t(d)];
        Finding gap;
        gap.kind = units::Kind::Area;
        gap.prefix = "A";
        gap.clause = "geometry";
        gap.demand = cover.uncovered;
        for (const auto& p : cover.gaps)
            gap.here.push_back(fmt::format("{:.2f} m² in no strip near ({:.2f}, {:.2f}) m: not designed.",
                                           p.area / 1e6, p.at.x / 1000, p.at.y / 1000));
        add(fmt::format("uncovered-{}", d + 1), fmt::format("Slab in no strip {}", strips::directionName(d)),
            Topic::Coverage, checks::judged(gap));
        Finding both = gap;
        both.here.clear();
        both.demand = cover.overlapped;
        for (const auto& p : cover.overlaps)
            both.here.push_back(fmt::format("{:.2f} m² in two strips, {}, near ({:.2f}, {:.2f}) m.",
                                            p.area / 1e6, p.between, p.at.x / 1000, p.at.y / 1000));
        if (cover.overlapped > 0)
            add(fmt::format("overlapped-{}", d + 1),
                fmt::format("Slab in two strips {}", strips::directionName(d)), Topic::Coverage,
                checks::judged(both));
    }
    proofChecks(f, f.proof.get(), list);
    if (auto lifting = uplift(f)) add("uplift", "Uplift of supports", Topic::Uplift, std::move(*lifting));
    for (const auto& o : f.standard->omissions)
        if (o.floors || (o.beams && !f.floor->beams.empty()))
            add("omitted-" + o.key, o.title, Topic::Omission, checks::notChecked(o.clause, o.reason));
    f.checks = list.take();
}

void summarise(FloorDesign& f) {
    f.summary = checks::summary(f.checks);
    for (const auto& s : f.strips) f.summary += checks::summary(s->checks);
}

}  // namespace

bool StripDesign::twoWay() const {
    return std::any_of(panels.begin(), panels.end(), [](const SpanPanel& p) { return p.twoWay(); });
}

double StripDesign::worst() const {
    double most = 0;
    for (const auto& c : checks)
        if (c.outcome == checks::Outcome::Over || c.outcome == checks::Outcome::Within)
            most = std::max(most, checks::ratio(c));
    return most;
}

const StripDesign* FloorDesign::find(std::string_view key) const {
    for (const auto& s : strips)
        if (s->strip->key == key) return s.get();
    return nullptr;
}
const Check* FloorDesign::check(std::string_view key) const {
    for (const auto* c : all())
        if (c->key == key) return c;
    return nullptr;
}
std::vector<const Check*> FloorDesign::all() const {
    std::vector<const Check*> list;
    for (const auto& c : checks) list.push_back(&c);
    for (const auto& s : strips)
        for (const auto& c : s->checks) list.push_back(&c);
    return list;
}

std::vector<Check> withWorking(const FloorDesign& design, const StripDesign& strip) {
    line::LineBasis in{*design.basis, *design.standard, strip.outerTop, strip.outerBottom, 0, strip.twoWay()};
    return checkStrip(strip, *design.floor, *design.analysis, in, true);
}
Check withWorking(const FloorDesign& design, const Check& check) {
    if (const auto* d = design.find(check.place.spot.part.key))
        for (auto& c : withWorking(design, *d))
            if (c.key == check.key) return c;
    return check;
}

std::shared_ptr<const FloorDesign> FloorDesigner::design(
    const std::shared_ptr<const model::Floor>& floor,
    const std::shared_ptr<const analysis::FloorAnalysis>& analysis, const model::Basis& of,
    std::stop_token stop) {
    // Slabs on ground are cast like foundations.
    model::Basis basis = of;
    if (!floor->grounds.empty()) basis.coverBottom = basis.coverFoundation;
    if (!analysis || !analysis->good() || analysis->stopped) return nullptr;
    auto f = std::make_shared<FloorDesign>();
    f->floor = floor;
    f->analysis = analysis;
    const bool sameBasis = last_ && *last_->basis == basis;
    f->basis = sameBasis ? last_->basis : std::make_shared<model::Basis>(basis);
    f->standard = sameBasis ? last_->standard : standards::makeStandard(basis.standard, basis.parameters);
    if (!f->standard) return nullptr;
    const auto& rules = floor->strips.rules;
    const bool sameLayout = sameBasis && strips::sameLayout(*last_->floor, *floor);
    const auto half = [&](double span, double across) {
        return f->standard->strips->columnStripHalf(span, across);
    };
    f->layout = sameLayout ? last_->layout
                           : std::make_shared<const strips::StripLayout>(strips::layStrips(*floor, half));
    if (stop.stop_requested()) return nullptr;
    if (!sameLayout || last_->floor->panels != floor->panels || last_->floor->zones != floor->zones)
        panels_ = std::make_shared<const std::vector<layout::Panel>>(layout::findPanels(*floor));
    const bool sameAnalysis = last_ && readFrom_ == analysis;
    if (!sameAnalysis) {
        reader_ = std::make_shared<const strips::ForceReader>(*analysis, f->standard->cracks->state(), stop);
        readFrom_ = analysis;
        if (stop.stop_requested()) {
            readFrom_ = nullptr;
            return nullptr;
        }
    }
    const bool sameZones = last_ && last_->floor->zones == floor->zones &&
                           last_->floor->panels == floor->panels &&
                           last_->floor->actions.loads == floor->actions.loads;
    const bool sameForces = sameAnalysis && sameLayout && sameZones && last_->floor->strips.rules == rules;
    const std::size_t n = f->layout->strips.size();
    std::vector<std::shared_ptr<StripDesign>> made(n);
    const auto crackState = f->standard->cracks->state();
    fem::parallelFor(n, [&](std::size_t i) {
        if (stop.stop_requested()) return;
        auto d = std::make_shared<StripDesign>();
        if (sameForces) {
            d->strip = last_->strips[i]->strip;
            d->forces = last_->strips[i]->forces;
            d->demand = last_->strips[i]->demand;
            d->panels = last_->strips[i]->panels;
        } else {
            d->strip = std::make_shared<const Strip>(f->layout->strips[i]);
            d->forces = std::make_shared<const strips::StripForces>(reader_->read(*d->strip, *floor));
            d->demand =
                strips::demand(*d->strip, *d->forces, *analysis, rules, crackState,
                               [&](double R, double t) { return f->standard->supports->roundedOff(R, t); });
            leastFaceMoments(*d, *analysis, *f->standard);
            d->panels = spanPanels(*d->strip, *floor, *panels_);
            // Top steel at ends on beams and walls, for unintended fixity.
            double share = f->standard->supports->endFixity();
            for (const auto& span : d->strip->spans)
                for (int e : {0, 1}) {
                    if (span.ends[e] != model::EndCondition::OnBeam || span.cantilever()) continue;
                    line::Extreme most;
                    double width = 1;
                    const auto& st = d->forces->stations;
                    for (std::size_t k = 0; k < st.size(); ++k)
                        if (st[k].u > span.from && st[k].u < span.to &&
                            d->demand.bottom[k].value / st[k].width > most.value / width)
                            most = d->demand.bottom[k], width = st[k].width;
                    double face = e == 0 ? span.clearFrom : span.clearTo;
                    for (std::size_t k = 0; k < st.size(); ++k)
                        if (std::abs(st[k].u - face) < 5 &&
                            share * most.value / width * st[k].width > d->demand.top[k].value)
                            d->demand.top[k] = {share * most.value / width * st[k].width, most.by};
                }
        }
        made[i] = std::move(d);
    });
    if (stop.stop_requested()) {
        readFrom_ = nullptr;
        return nullptr;
    }
    // What of the last answer may stay as it is: nothing of the strip and of those around it changed.
    const bool sameBars = sameForces && last_->floor->strips.bars == floor->strips.bars;
    if (sameBars) {
        f->strips = last_->strips;
        f->checks = last_->checks;
        f->summary = last_->summary;
        last_ = f;
        return f;
    }
    auto barsOf = [](const model::Floor& in, const std::string& key) {
        std::vector<model::StripBars> list;
        for (const auto& b : in.strips.bars)
            if (b.strip == key) list.push_back(b);
        return list;
    };
    // Bars of the outer layer of each face first: the others lie inside of them.
    double outer[2] = {0, 0};  // bottom, top
    std::vector<char> kept(n, 0);
    std::vector<std::array<char, 2>> sameRuns(n, {0, 0});
    for (int pass : {0, 1})
        for (bool top : {true, false}) {
            const int first = top ? rules.outerTop : rules.outerBottom;
            fem::parallelFor(n, [&](std::size_t i) {
                StripDesign& d = *made[i];
                if ((d.strip->direction == first) != (pass == 0)) return;
                (top ? d.outerTop : d.outerBottom) = pass == 0 ? 0 : outer[top];
                if (sameForces && barsOf(*last_->floor, d.strip->key) == barsOf(*floor, d.strip->key)) {
                    const auto& before = *last_->strips[i];
                    if ((top ? before.outerTop : before.outerBottom) == (pass == 0 ? 0 : outer[top])) {
                        for (const auto& r : before.runs)
                            if (r.top == top) d.runs.push_back(r);
                        sameRuns[i][top] = 1;
                        return;
                    }
                }
                line::LineBasis in{*f->basis, *f->standard, d.outerTop, d.outerBottom, 0, d.twoWay()};
                for (auto& r : reinforcement::proposeStrip(*d.strip, d.stations(), d.demand, top, in,
                                                           floor->strips.bars, {}))
                    d.runs.push_back(std::move(r));
            });
            if (pass == 0)
                for (const auto& d : made)
                    for (const auto& r : d->runs)
                        if (r.top == top) outer[top] = std::max(outer[top], r.diameter);
        }
    // Bands over columns follow from what the strips ask side by side; compression steel from the other face.
    std::vector<std::shared_ptr<const StripDesign>> plain(made.begin(), made.end());
    fem::parallelFor(n, [&](std::size_t i) {
        StripDesign& d = *made[i];
        if (sameRuns[i][0] && sameRuns[i][1]) {
            const auto& before = *last_->strips[i];
            d.top = before.top, d.bottom = before.bottom, d.shearResistance = before.shearResistance;
            return;
        }
        verify::fillCurves(d, viewOf(d), {*f->basis, *f->standard, d.outerTop, d.outerBottom});
    });
    f->strips = plain;
    std::vector<std::vector<PeakBand>> bands(n);
    std::vector<double> distribution(n, 0);
    for (std::size_t i = 0; i < n; ++i) {
        line::LineBasis in{*f->basis, *f->standard, made[i]->outerTop, made[i]->outerBottom};
        bands[i] = peakBands(*f, *made[i], in);
        distribution[i] = distributionSteel(*f, *made[i], in);
    }
    fem::parallelFor(n, [&](std::size_t i) {
        StripDesign& d = *made[i];
        line::LineBasis in{*f->basis, *f->standard, d.outerTop, d.outerBottom, 0, d.twoWay()};
        if (sameForces) {
            const auto& before = *last_->strips[i];
            if (before.outerTop == d.outerTop && before.outerBottom == d.outerBottom &&
                before.distribution == distribution[i] &&
                barsOf(*last_->floor, d.strip->key) == barsOf(*floor, d.strip->key) &&
                before.bands.size() == bands[i].size() &&
                std::equal(bands[i].begin(), bands[i].end(), before.bands.begin(),
                           [](const PeakBand& a, const PeakBand& b) {
                               return a.support == b.support && a.width == b.width && a.steel == b.steel;
                           })) {
                kept[i] = 1;
                return;
            }
        }
        d.bands = bands[i];
        d.distribution = in.leastBottom = distribution[i];
        bool again = false;
        if (distribution[i] > 0) {
            std::erase_if(d.runs, [](const auto& r) { return !r.top; });
            for (auto& r : reinforcement::proposeStrip(*d.strip, d.stations(), d.demand, false, in,
                                                       floor->strips.bars, {}))
                d.runs.push_back(std::move(r));
            again = true;
        }
        if (!bands[i].empty()) {
            std::erase_if(d.runs, [](const auto& r) { return r.top; });
            for (auto& r : reinforcement::proposeStrip(*d.strip, d.stations(), d.demand, true, in,
                                                       floor->strips.bars, bands[i]))
                d.runs.push_back(std::move(r));
            again = true;
        }
        for (bool top : {true, false}) {
            auto compression = compressionNeed(d, top, in);
            if (compression.empty()) continue;
            // The other face is chosen for the steel that this compression asks, as a moment would.
            auto demand = d.demand;
            auto& other = top ? demand.bottom : demand.top;
            for (std::size_t k = 0; k < compression.size(); ++k) {
                if (compression[k] <= 0) continue;
                auto sec = line::section(!top, 16, d.stations()[k], in, 1000);
                double m = f->standard->flexure->resistance(sec, compression[k] * 1000, 0).M / 1000;
                other[k].value = std::max(other[k].value, m * d.stations()[k].width);
            }
            std::erase_if(d.runs, [&](const auto& r) { return r.top != top; });
            for (auto& r : reinforcement::proposeStrip(*d.strip, d.stations(), demand, !top, in,
                                                       floor->strips.bars, bands[i]))
                d.runs.push_back(std::move(r));
            again = true;
        }
        if (again) verify::fillCurves(d, viewOf(d), in);
        d.checks = checkStrip(d, *floor, *analysis, in, false);
    });
    for (std::size_t i = 0; i < n; ++i)
        if (kept[i]) f->strips[i] = last_->strips[i];
    floorChecks(*f);
    summarise(*f);
    last_ = f;
    return f;
}

std::shared_ptr<const FloorDesign> designFloor(const model::Project& project, std::size_t floor,
                                               const std::function<void(double)>& progress, bool prove,
                                               std::stop_token stop) {
    auto in = floorInput(project, floor);
    auto a = std::make_shared<const analysis::FloorAnalysis>(
        analysis::FloorAnalyser().analyse(*in.floor, in.path, in.basis, in.combinations, stop, progress));
    auto d = FloorDesigner().design(in.floor, a, project.basis, stop);
    return d && prove ? proved(d, stop) : d;
}

std::shared_ptr<const FloorDesign> proved(const std::shared_ptr<const FloorDesign>& design,
                                          std::stop_token stop) {
    auto proof = proveByField(*design, stop);
    if (!proof) return nullptr;
    auto f = std::make_shared<FloorDesign>(*design);
    f->proof = std::move(proof);
    f->checks.clear();
    floorChecks(*f);
    summarise(*f);
    return f;
}

}  // namespace talvik::design
