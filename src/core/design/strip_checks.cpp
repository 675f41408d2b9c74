#include "design/strip_checks.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

namespace talvik::design {
namespace {

using checks::Finding;
using checks::Outcome;
using checks::Sense;
using checks::Topic;
using line::LineBasis;
using standards::BarEndRules;
using standards::SteelRules;
using strips::Station;
using strips::Strip;
using trace::Steps;
using units::Kind;

std::string twistingNote(const Strip& strip, const model::Floor& floor) {
    bool square = std::abs(std::fmod(std::abs(strip.otherAngle - strip.axes.angle), 180) - 90) < 1e-6;
    if (floor.strips.rules.twisting == model::StripChoices::Twisting::WoodArmer || !square)
        return square ? "Twisting moments are added by the method of Wood and Armer (1968)."
                      : fmt::format(
                            "Moments for bars at {:.0f} degrees to those that cross them, by the method of "
                            "Wood and Armer "
                            "(1968).",
                            std::abs(strip.otherAngle - strip.axes.angle));
    return "Twisting moments are left out: only the moment across the strip counts.";
}

// Why the strips of another direction decide by span-to-depth; empty where this one does.
std::string elsewhere(const strips::Span& span, const SpanPanel& panel) {
    if (span.alongWall)
        return "A wall or line support carries the slab along this span; the strips that cross it govern.";
    if (panel.kind == standards::SlendernessInput::Panel::OneWay && panel.across)
        return "The panel spans the other way; the strips of the other direction govern.";
    if (panel.longWay)
        return "The panel is supported on all sides; the strips along its shorter span govern.";
    return {};
}

// What bottom bars have to do over a support, by the panels beside it.
BarEndRules::Over overSupport(const StripDesign& d, std::size_t k) {
    using Over = BarEndRules::Over;
    const Strip& strip = *d.strip;
    bool columns = false, before = false, after = false;
    for (std::size_t i = 0; i < strip.spans.size(); ++i) {
        const auto& span = strip.spans[i];
        if (span.right != int(k) && span.left != int(k)) continue;
        (span.right == int(k) ? before : after) = true;
        columns |= i < d.panels.size() && d.panels[i].kind == standards::SlendernessInput::Panel::OnColumns;
    }
    if (!columns) return before && after ? Over::Support : Over::EndSupport;
    if (strip.supports[k].kind == strips::Support::Kind::Column) return Over::ColumnStrip;
    return strip.kind == Strip::Kind::Middle ? Over::MiddleStrip : Over::Support;
}

// Lines on which bottom bars pass through a column, within its breadth less what holds them in.
int barsThrough(const StripDesign& d, const line::Support& column) {
    const auto& axes = d.strip->axes;
    const double v = d.strip->v(column.u), half = column.across / 2 - line::coreCover;
    std::map<long, std::vector<std::pair<double, double>>> lines;  // by v in mm: from where to where
    for (const auto& item : d.items) {
        if (item.layer.empty() || item.layer.front() != 'B') continue;
        for (const auto& l : item.lie) {
            const auto a = axes.local(l.a), b = axes.local(l.b);
            if (std::abs(a.y - v) <= half + 1e-6) lines[std::lround(a.y)].push_back(std::minmax(a.x, b.x));
        }
    }
    // In pieces that lap, or in one.
    return int(std::count_if(lines.begin(), lines.end(), [&](auto& line) {
        auto& pieces = line.second;
        std::sort(pieces.begin(), pieces.end());
        double to = column.from;
        for (const auto& [low, high] : pieces)
            if (low <= to) to = std::max(to, high);
        return to >= column.to;
    }));
}

verify::LineCase caseOf(const StripDesign& d, const model::Floor& floor, const analysis::FloorAnalysis& a,
                        const LineBasis& in) {
    const Strip& strip = *d.strip;
    verify::LineCase c{d.view(), d, in, {floor.id, model::PartKind::Strip, strip.key}, {}};
    c.combination = [&a](std::uint16_t by) {
        return by < a.combinations.size() ? a.combinations[by].name : "";
    };
    c.plan = [&strip](double u) { return std::optional(strip.axes.plan({u, strip.v(u)})); };
    const double usual = model::largestBar(in.basis);
    for (std::size_t i = 0; i < strip.spans.size(); ++i) {
        const auto& span = strip.spans[i];
        verify::LineCase::SpanRules s{-1e300, 1e300, {}, {}};
        if (const auto clear = line::stationsWithin(d.stations(), span.clearFrom, span.clearTo)) {
            // Stations stand there by an estimate of the depth.
            const double depth =
                0.8 * std::max(50.0, d.stations()[clear->first].thickness - 1.5 * usual - in.basis.coverTop);
            // Around columns that carry the slab directly the shear is that of punching.
            auto from = [&](int support, std::size_t at) {
                const auto& p = strip.supports[std::size_t(support)];
                if (p.kind != strips::Support::Kind::Column || p.onBeam || !in.standard.punching)
                    return depth;
                return std::max(depth, in.standard.punching->reach(d.stations()[at].thickness - usual -
                                                                   in.basis.coverTop));
            };
            if (span.left >= 0) s.shearFrom = span.clearFrom + from(span.left, clear->first);
            if (span.right >= 0) s.shearTo = span.clearTo - from(span.right, clear->second);
        }
        const SpanPanel panel = i < d.panels.size() ? d.panels[i] : SpanPanel();
        s.slender.panel = panel.kind;
        s.slender.longer = panel.longer, s.slender.shorter = panel.shorter;
        s.slender.exterior = panel.exterior, s.slender.edgeBeam = panel.edgeBeam, s.slender.drop = panel.drop;
        s.slender.stiffness = panel.stiffness, s.slender.softEdge = panel.softEdge;
        s.slendernessElsewhere = elsewhere(span, panel);
        c.spans.push_back(std::move(s));
    }
    for (std::size_t k = 0; k < strip.supports.size(); ++k) {
        c.over.push_back(overSupport(d, k));
        c.barsThrough.push_back(strips::innerColumn(strip, k)
                                    ? barsThrough(d, strip.supports[k]) + strips::edgeBarThrough(strip, k)
                                    : -1);
    }
    std::vector<std::string> faces;
    if (floor.strips.rules.faceOfSupport) faces = {"The larger of the moments at the faces of the support."};
    c.supportNotes.assign(strip.supports.size(), faces);
    c.notes.push_back(twistingNote(strip, floor));
    if (strip.alongBeam)
        c.notes.push_back(
            "Slab moment only; the beam's moment is listed separately and the beam is not designed.");
    c.notes.push_back("No axial force: the analysis is of plates in bending.");
    c.shearNote =
        "; the minimum thickness on the cut; within the control perimeter of a column punching is checked";
    c.endsNote =
        "Inside the support at the strip's end, and within a slab thickness of a free edge, bar ends are not "
        "checked: hooks anchor them there, and U-bars along the edge.";
    return c;
}

// What only strips have: loads beside supports, bars across one-way strips, bands over columns,
// redistribution.
class StripChecker {
  public:
    StripChecker(const StripDesign& d, const model::Floor& floor, const analysis::FloorAnalysis& a,
                 const verify::LineCase& of, verify::CheckList& list, bool tracing)
        : d_(d),
          strip_(*d.strip),
          stations_(d.stations()),
          floor_(floor),
          a_(a),
          of_(of),
          in_(of.in),
          rules_(of.in.standard),
          list_(list),
          tracing_(tracing),
          b_(in_.workedWidth()),
          usual_(model::largestBar(in_.basis)) {}

    void run() {
        for (std::size_t i = 0; i < strip_.spans.size(); ++i) {
            const auto where =
                line::stationsWithin(stations_, strip_.spans[i].clearFrom, strip_.spans[i].clearTo);
            if (!where) continue;
            for (int side : {-1, 1}) shearAtFace(i, side);
            if (d_.distribution > 0) distribution(i, (where->first + where->second) / 2);
        }
        for (std::size_t s = 0; s < strip_.supports.size(); ++s) {
            peak(s);
            if (floor_.strips.rules.redistribution > 0) redistribution(s);
        }
    }

  private:
    const StripDesign& d_;
    const Strip& strip_;
    const std::vector<Station>& stations_;
    const model::Floor& floor_;
    const analysis::FloorAnalysis& a_;
    const verify::LineCase& of_;
    const LineBasis& in_;
    const standards::Standard& rules_;
    verify::CheckList& list_;
    bool tracing_;
    double b_, usual_;

    Steps* tracer(Steps& steps) const { return tracing_ ? &steps : nullptr; }
    bars::Steel steel(bool top, std::size_t i) const {
        return bars::steelAt(d_.runs, top, stations_[i].u, stations_[i].width);
    }
    standards::Section section(bool top, std::size_t i, double diameter) const {
        return line::section(top, diameter > 0 ? diameter : usual_, stations_[i], in_, b_);
    }

    // With concentrated loads nearer to a support than an effective depth: at its face, loads within 2d by
    // their share.
    void shearAtFace(std::size_t i, int side) {
        const auto& span = strip_.spans[i];
        const int support = side < 0 ? span.left : span.right;
        if (support < 0) return;
        const double face = side < 0 ? span.clearFrom : span.clearTo;
        const std::size_t at = line::nearestStation(stations_, face);
        if (std::abs(stations_[at].u - face) > 6 || stations_[at].width < 1) return;
        const auto bars = steel(true, at);
        const auto sec = line::section(true, bars.diameter > 0 ? bars.diameter : usual_,
                                       stations_[at].leastThickness, in_, b_);
        const auto& forces = *d_.forces;
        // Which load of every case stands how near.
        bool near = false;
        for (const auto& loads : forces.loads)
            for (const auto& l : loads) {
                const double a = side < 0 ? l.u - face : face - l.u;
                near |= a > 0 && a < sec.d && std::abs(l.force) > 0.02 * std::abs(d_.demand.shear[at].value);
            }
        if (!near || a_.nonlinear) return;
        double most = -1, whole = 0;
        std::size_t by = 0;
        for (std::size_t k = 0; k < a_.combinations.size(); ++k) {
            if (a_.combinations[k].state != actions::LimitState::Ultimate) continue;
            const double V = std::abs(forces.at(k, at).shear);
            double less = 0;
            for (std::size_t c = 0; c < forces.loads.size() && c < a_.combinations[k].factors.size(); ++c)
                for (const auto& l : forces.loads[c]) {
                    const double a = side < 0 ? l.u - face : face - l.u;
                    if (a <= 0 || a >= 2 * sec.d) continue;
                    less += (1 - rules_.shear->nearSupport(a, sec.d)) *
                            std::max(0.0, a_.combinations[k].factors[c] * l.force);
                }
            whole = std::max(whole, V);
            if (V - less > most) most = V - less, by = k;
        }
        const double width = stations_[at].width;
        const auto place = verify::at(of_, verify::supportPlace(of_, std::size_t(support)), face);
        const std::string name = side < 0 ? "after" : "before";
        // The steel in tension at the face: the face of the larger demand.
        const auto tension = steel(d_.demand.top[at].value >= d_.demand.bottom[at].value, at);
        Steps steps;
        Finding f;
        f.kind = Kind::ForcePerWidth, f.prefix = "v";
        f.clause = rules_.shear->nearClause();
        f.demand = std::max(0.0, most) / width;
        f.limit = verify::shearResistance(*rules_.shear, sec, tension.effective * b_,
                                          verify::linksAt(d_, face), in_.basis.steelYield, tracer(steps)) /
                  b_;
        f.notes.push_back(
            "A concentrated load is nearer to the support than d: shear at the face, loads within 2d reduced "
            "as the clause allows.");
        list_.add({"shear-face-" + name, "Shear near support (a_v ≤ 2d)", Topic::OneWayShear,
                   checks::judged(f), std::move(steps)},
                  place, of_.combination(std::uint16_t(by)));
        Steps more;
        const double limit = rules_.shear->crushing(sec, tracer(more));
        if (limit <= 0) return;
        Finding g;
        g.kind = Kind::ForcePerWidth, g.prefix = "v", g.clause = rules_.shear->nearClause();
        g.demand = whole / width, g.limit = limit / b_;
        g.notes.push_back(
            "The whole shear, without reduction, against the maximum resistance of the concrete.");
        list_.add({"shear-crushing-" + name, "Crushing (V_Rd,max) near support", Topic::OneWayShear,
                   checks::judged(g), std::move(more)},
                  place);
    }

    // Bottom steel across one-way strips: a share of theirs, and no farther apart than secondary bars may
    // lie.
    void distribution(std::size_t i, std::size_t mid) {
        const auto s = steel(false, mid);
        const auto place = verify::at(of_, verify::spanPlace(of_, i), stations_[mid].u);
        Finding f;
        f.kind = Kind::SteelPerWidth, f.sense = Sense::AtLeast, f.prefix = "As";
        f.clause = rules_.steel->clauses(in_.twoWay).secondary;
        f.demand = s.full, f.limit = d_.distribution;
        f.notes.push_back(
            "The strips that it crosses span one way; a share of their steel lies across them.");
        Steps steps;
        if (tracing_)
            trace::step(&steps, "a_s,sec", "", {}, d_.distribution * 1000, "mm²/m", f.clause,
                        "of the strongest strip that is crossed");
        list_.add({"secondary", "Distribution steel", Topic::Steel, checks::judged(f), std::move(steps)},
                  place, {}, model::Face::Bottom);
        if (s.spacing <= 0) return;
        Steps more;
        Finding g;
        g.kind = Kind::BarSpacing, g.prefix = "s", g.clause = rules_.steel->clauses(in_.twoWay).spacing;
        g.demand = s.spacing;
        g.limit =
            rules_.steel->spacing(SteelRules::Role::Secondary, true, stations_[mid].thickness, tracer(more));
        list_.add({"secondary-spacing", "Distribution bar spacing", Topic::Spacing, checks::judged(g),
                   std::move(more)},
                  place, {}, model::Face::Bottom);
    }

    // Top steel over a column against what the standard wants in the width where moments peak.
    void peak(std::size_t s) {
        for (const auto& band : d_.bands) {
            if (band.support != int(s) || band.underShear) continue;
            const auto place = verify::supportPlace(of_, s);
            Finding f;
            f.kind = Kind::SteelPerWidth;
            f.sense = Sense::AtLeast;
            f.clause = band.rule.clause;
            f.prefix = "As";
            // Over the support, or where the slab's edge lies on its axis, just inside.
            f.demand = bars::bandSteel(d_.runs,
                                       std::clamp(strip_.supports[s].u, strip_.from + in_.basis.coverSide + 1,
                                                  strip_.to - in_.basis.coverSide - 1));
            f.limit = band.steel;
            f.here.push_back(band.word);
            Steps steps;
            if (band.transfer && tracing_) {
                rules_.strips->transfer(band.input, &steps);
                trace::step(&steps, "a_s,t", "", {}, band.steel * 1000, "mm²/m", band.rule.clause, band.word);
            } else if (tracing_) {
                std::size_t at = line::nearestStation(stations_, strip_.supports[s].u);
                auto sec = section(true, at, steel(true, at).diameter);
                rules_.strips->peak(strip_.toNext[0] / 2 + strip_.toNext[1] / 2,
                                    strip_.supports[s].to - strip_.supports[s].from,
                                    strip_.supports[s].across, sec.h, sec.d, &steps);
                trace::step(&steps, "a_s,peak", "", {}, band.steel * 1000, "mm²/m", band.rule.clause,
                            band.word);
            }
            list_.add(
                {"peak-top",
                 band.transfer ? "Steel for moment transfer to column" : "Top steel concentrated over column",
                 Topic::Steel, checks::judged(f), std::move(steps)},
                place, {}, model::Face::Top);
            if (band.most <= 0) continue;
            Finding g;
            g.kind = Kind::Moment, g.prefix = "M", g.clause = band.mostClause;
            g.demand = band.moment, g.limit = band.most;
            g.notes.push_back(
                "Exceeds the maximum transferable moment: provide an edge beam, reduce the column stiffness "
                "or thicken the slab.");
            Steps more;
            if (tracing_) rules_.strips->transfer(band.input, &more);
            list_.add(
                {"transfer", "Moment transfer to column", Topic::Flexure, checks::judged(g), std::move(more)},
                place);  // of no face: no bars of the slab change it
        }
    }
    void redistribution(std::size_t s) {
        if (s == 0 || s + 1 >= strip_.supports.size()) return;
        std::size_t at = line::nearestStation(stations_, strip_.supports[s].u);
        auto bars = steel(true, at);
        if (bars.full <= 0) return;
        Steps steps;
        auto f = rules_.strips->redistribution(section(true, at, bars.diameter), bars.full * b_,
                                               floor_.strips.rules.redistribution, tracer(steps));
        list_.add({"redistribution", "Redistribution", Topic::Redistribution, std::move(f), std::move(steps)},
                  verify::supportPlace(of_, s), {}, model::Face::Top);
    }
};

}  // namespace

std::vector<double> compressionNeed(const StripDesign& d, bool top, const LineBasis& in) {
    std::vector<double> out;
    const auto& demand = top ? d.demand.top : d.demand.bottom;
    constexpr double b = 1000;
    for (std::size_t i = 0; i < d.stations().size(); ++i) {
        const auto& s = d.stations()[i];
        auto steel = bars::steelAt(d.runs, top, s.u, s.width);
        if (steel.diameter == 0 || demand[i].value <= 0) continue;
        auto need = in.standard.flexure->required(line::section(top, steel.diameter, s, in, b),
                                                  demand[i].value / s.width * b);
        if (!need.possible || !need.doubly) continue;
        out.resize(d.stations().size(), 0);
        out[i] = need.As2 / b;
    }
    return out;
}

void addStripLinks(StripDesign& d, const model::Floor& floor, const analysis::FloorAnalysis& a,
                   const LineBasis& in) {
    if (!d.stations().empty()) verify::addLinks(d, caseOf(d, floor, a, in));
}

std::vector<checks::Check> checkStrip(const StripDesign& d, const model::Floor& floor,
                                      const analysis::FloorAnalysis& a, const LineBasis& in, bool tracing) {
    verify::CheckList list(floor.id + "/" + d.strip->key + "/", "whole");
    const auto of = caseOf(d, floor, a, in);
    if (d.stations().empty()) {
        Finding f;
        f.kind = Kind::Area, f.prefix = "A", f.clause = "geometry";
        f.demand = d.strip->area();
        f.here.push_back("Nothing of this strip is designed.");
        checks::Place place;
        place.spot.part = of.part;
        place.name = "strip " + d.strip->name;
        place.x = place.from = d.strip->from, place.to = d.strip->to;
        list.add({"stations", "Strip without stations", Topic::Coverage, checks::judged(f), {}}, place);
        return list.take();
    }
    verify::checkLine(of, list, tracing);
    StripChecker(d, floor, a, of, list, tracing).run();
    auto all = list.take();
    if (floor.strips.rules.redistribution > 0)
        for (auto& c : all)
            if (c.topic == Topic::Cracks && checks::isJudged(c))
                c.notes.push_back(
                    "Cracks are checked with the moments of the analysis, before redistribution.");
    return all;
}

}  // namespace talvik::design
