#include "design/strip_checks.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "design/bar_checks.h"
#include "design/support_checks.h"
#include "design/working.h"
#include "reinforcement/bar_choices.h"
#include "strips/sharing.h"
namespace talvik::design {
namespace {

using checks::Check;
using checks::Finding;
using checks::Outcome;
using checks::Sense;
using model::EndCondition;
using reinforcement::StripBasis;
using reinforcement::StripSteel;
using standards::DetailingRules;
using strips::Station;
using strips::Strip;
using trace::Steps;
using units::Kind;

class Checker {
  public:
    Checker(const StripDesign& d, const model::Floor& floor, const analysis::FloorAnalysis& a,
            const StripBasis& in, bool tracing)
        : d_(d),
          strip_(*d.strip),
          stations_(d.stations()),
          floor_(floor),
          a_(a),
          in_(in),
          rules_(in.standard),
          tracing_(tracing),
          b_(in.standard.nativeUnits == units::System::Metric ? 1000 : 304.8),
          usual_(reinforcement::largestBar(in.basis)) {}

    std::vector<Check> run() {
        for (std::size_t i = 0; i < strip_.spans.size(); ++i) {
            auto where = range(strip_.spans[i].clearFrom, strip_.spans[i].clearTo);
            if (!where) continue;
            // The first and last span go on to the strip's ends.
            face(false, spanPlace(i),
                 *range(i == 0 ? strip_.from : strip_.spans[i].clearFrom,
                        i + 1 == strip_.spans.size() ? strip_.to : strip_.spans[i].clearTo));
            shear(i, *where);
            for (int side : {-1, 1}) shearAtFace(i, side);
            slenderness(i, *where);
            if (d_.distribution > 0) distribution(i, *where);
            for (int side : {-1, 1}) anchorage(i, side);
        }
        for (std::size_t s = 0; s < strip_.supports.size(); ++s) {
            auto where = around(s);
            if (where) face(true, supportPlace(s), *where);
            peak(s);
            through(s);
            if (floor_.strips.rules.redistribution > 0) redistribution(s);
        }
        if (strip_.supports.empty())
            if (auto where = range(strip_.from, strip_.to))
                face(true, {floor_.id, "whole strip", "whole", strip_.from, strip_.from, strip_.to}, *where);
        return std::move(checks_);
    }

  private:
    using Range = std::pair<std::size_t, std::size_t>;
    const StripDesign& d_;
    const Strip& strip_;
    const std::vector<Station>& stations_;
    const model::Floor& floor_;
    const analysis::FloorAnalysis& a_;
    const StripBasis& in_;
    const standards::Standard& rules_;
    bool tracing_;
    double b_, usual_;
    std::vector<Check> checks_;

    Steps* tracer(Steps& steps) const { return tracing_ ? &steps : nullptr; }
    std::string combination(std::uint16_t by) const {
        return by < a_.combinations.size() ? a_.combinations[by].name : "";
    }

    void add(const std::string& name, const std::string& title, checks::Place place, Finding finding,
             Steps steps = {}, std::string by = {}) {
        Check c;
        static_cast<Finding&>(c) = std::move(finding);
        c.key = floor_.id + "/" + strip_.key + "/" + place.partId + "/" + name;
        c.title = title + ", " + place.part;
        c.strip = strip_.key;
        c.place = std::move(place);
        c.steps = withoutRepeats(std::move(steps));
        c.combination = std::move(by);
        checks_.push_back(std::move(c));
    }
    checks::Place spanPlace(std::size_t i) const {
        const auto& s = strip_.spans[i];
        return {floor_.id, "span " + s.name, fmt::format("span{}", i), (s.from + s.to) / 2, s.from, s.to};
    }
    checks::Place supportPlace(std::size_t i) const {
        const auto& s = strip_.supports[i];
        return {floor_.id, "support " + s.name, s.id, s.u, s.from, s.to};
    }

    std::optional<Range> range(double a, double b) const {
        std::optional<Range> out;
        for (std::size_t i = 0; i < stations_.size(); ++i) {
            if (stations_[i].u < a - 3 || stations_[i].u > b + 3) continue;
            if (!out) out = Range{i, i};
            out->second = i;
        }
        return out;
    }
    // From the middle of the span before a support to the middle of that after it; cantilevers whole.
    std::optional<Range> around(std::size_t s) const {
        double from = s == 0 ? strip_.from : strip_.supports[s].from,
               to = s + 1 == strip_.supports.size() ? strip_.to : strip_.supports[s].to;
        for (const auto& span : strip_.spans) {
            double mid = (span.clearFrom + span.clearTo) / 2;
            if (span.right == int(s)) from = span.left < 0 ? strip_.from : mid;
            if (span.left == int(s)) to = span.right < 0 ? strip_.to : mid;
        }
        return range(from, to);
    }

    standards::Section section(bool top, std::size_t i, double diameter) const {
        return reinforcement::stripSection(top, diameter > 0 ? diameter : usual_, stations_[i], in_, b_);
    }
    StripSteel steel(bool top, std::size_t i) const {
        return reinforcement::stripSteel(d_.runs, top, stations_[i].u, stations_[i].width);
    }
    bool leftToEdge(std::size_t i) const {
        return reinforcement::leftToEdge(strip_, stations_[i], in_.basis.coverSide);
    }
    // The last stretch of the strip, where bars end at the cover.
    bool beyondBars(std::size_t i) const {
        double reach = in_.basis.coverSide + 50;
        return (!strip_.inside[0] && stations_[i].u < strip_.from + reach) ||
               (!strip_.inside[1] && stations_[i].u > strip_.to - reach);
    }
    // A tenth of what the plain section resists, per width: less than this needs no bar.
    double plain(bool top, std::size_t i) const {
        return 0.1 * rules_.flexure->plain(section(top, i, 0)) / b_;
    }
    // Resistance of the bars at a station as if they were anchored, on its width.
    double allSteel(bool top, std::size_t i) const {
        const StripSteel s = steel(top, i);
        if (s.full <= 0) return 0;
        return rules_.flexure->resistance(section(top, i, s.diameter), s.full * b_, 0).M / b_ *
               stations_[i].width;
    }
    // The stations that govern on a face: where demand stands highest over resistance, where cracks are
    // widest, and where the ends of bars have most to resist (past the last station where they have nothing
    // to).
    struct Governing {
        std::size_t worst, crack, ends;
        double most = 0;           // demand on the strip's width
        bool endsSkipped = false;  // something is asked where ends are not judged
    };
    Governing governing(bool top, Range at) const {
        const auto& line = top ? d_.top : d_.bottom;
        const auto& demand = top ? d_.demand.top : d_.demand.bottom;
        const auto& service = top ? d_.demand.topService : d_.demand.bottomService;
        Governing g{at.first, at.first, stations_.size()};
        double worstRatio = -1, endsRatio = -1, mostService = -1;
        for (std::size_t i = at.first; i <= at.second; ++i) g.most = std::max(g.most, demand[i].value);
        auto ratio = [&](double asked, double resistance, std::size_t i) {
            const double r = std::max(resistance, plain(top, i) * stations_[i].width);
            return asked <= 1e-9 ? 0 : r > 0 ? asked / r : 99;
        };
        for (std::size_t i = at.first; i <= at.second; ++i) {
            const bool atEdge = leftToEdge(i);
            g.endsSkipped |= (atEdge || beyondBars(i)) && demand[i].value > 0.01 * g.most;
            if (beyondBars(i)) continue;
            double r = ratio(demand[i].value, atEdge ? allSteel(top, i) : line.resistance[i], i);
            if (r > worstRatio) worstRatio = r, g.worst = i;
            double k = service[i].value / stations_[i].width;
            if (k > mostService) mostService = k, g.crack = i;
        }
        // The ends of bars matter where they are not yet anchored, or where more is moved to than they
        // resist; elsewhere flexure has said it all.
        for (std::size_t i = at.first; i <= at.second; ++i) {
            if (leftToEdge(i) || line.shifted[i] <= 1e-3 * g.most) continue;
            const double e = ratio(line.shifted[i], line.resistance[i], i);
            const StripSteel here = steel(top, i);
            if (here.full > 0 && here.effective >= here.full * 0.999 && e <= worstRatio * (1 + 1e-6))
                continue;
            // At the faces of end supports the anchorage of the bottom bars is judged by itself.
            if (!top && demand[i].value < 0.05 * g.most && endOfSpan(i)) continue;
            if (e > endsRatio) endsRatio = e, g.ends = i;
        }
        return g;
    }

    // Everything about the tension steel of one face over a span or about a support.
    void face(bool top, const checks::Place& where, Range at) {
        const auto& demand = top ? d_.demand.top : d_.demand.bottom;
        const std::string side = top ? "top" : "bottom";
        const Governing g = governing(top, at);
        const std::size_t worst = g.worst;
        checks::Place place = where;
        place.x = stations_[worst].u;
        const StripSteel s = steel(top, worst);
        if (g.most <= 1e-9 && s.diameter == 0) return;
        const double width = stations_[worst].width;
        auto sec = section(top, worst, s.diameter);
        if (demand[worst].value > 1e-9) {
            Steps steps;
            Finding f;
            f.kind = Kind::MomentPerWidth;
            f.clause = rules_.flexure->clause();
            f.prefix = "m";
            widthSteps(steps, worst, demand[worst].value);
            auto need = rules_.flexure->required(sec, demand[worst].value / width * b_, tracer(steps));
            double As2 = need.doubly ? steel(!top, worst).effective : 0;
            const double counted = leftToEdge(worst) ? s.full : s.effective;
            auto resistance = rules_.flexure->resistance(sec, counted * b_, As2 * b_, tracer(steps));
            f.demand = demand[worst].value / width;
            f.limit = resistance.M / b_;
            if (s.diameter == 0 && f.demand <= plain(top, worst)) {
                f.limit = plain(top, worst);
                f.notes.push_back(
                    "No bars lie here: the moment is under a tenth of what the plain section resists, which "
                    "is taken "
                    "to need none.");
            }
            if (!need.possible)
                f.notes.push_back(
                    "No amount of steel resists this moment in this depth: make the slab thicker.");
            else if (need.doubly)
                f.notes.push_back(
                    fmt::format("Compression steel is needed: {} on the other face; {} is there.",
                                units::text(need.As2 / b_, Kind::SteelPerWidth, in_.basis.units),
                                units::text(As2, Kind::SteelPerWidth, in_.basis.units)));
            if (counted < s.full * 0.999)
                f.notes.push_back(fmt::format("The bars are anchored here to {:.0f} %.",
                                              100 * s.effective / std::max(s.full, 1e-9)));
            if (stations_[worst].share[top] < width)
                f.notes.push_back(
                    fmt::format("The largest mean over {:.2f} m, over which the slab may share it "
                                "({}).",
                                stations_[worst].share[top] / 1000, strips::sharingSource()));
            if (top && floor_.strips.rules.faceOfSupport && stations_[worst].support >= 0)
                f.notes.push_back("The larger of the moments at the faces of the support.");
            if (std::abs(stations_[worst].thickness - stations_[worst].leastThickness) > 1)
                f.notes.push_back(
                    "The thickness varies across the strip; its mean is taken, by which moment "
                    "resistances side by side add up.");
            f.notes.push_back(twistingNote());
            if (strip_.alongBeam)
                f.notes.push_back(
                    "The slab's own share; what the beam along the strip carries is listed beside it "
                    "and not designed here.");
            f.notes.push_back("No axial force: the analysis is of plates in bending.");
            add("flexure-" + side, "Flexure " + side, place, checks::judged(f), std::move(steps),
                combination(demand[worst].by));
        }
        if (s.diameter > 0) bars(top, place, worst, sec, s, g.crack);
        if (g.ends < stations_.size()) curtailment(top, where, g.ends, g.endsSkipped, demand[worst].by);
    }
    bool endOfSpan(std::size_t i) const {
        for (const auto& span : strip_.spans)
            for (int e : {0, 1})
                if ((span.ends[e] == EndCondition::Free || span.ends[e] == EndCondition::OnBeam) &&
                    std::abs(stations_[i].u - (e == 0 ? span.clearFrom : span.clearTo)) <
                        1.5 * stations_[i].thickness)
                    return true;
        return false;
    }
    std::string twistingNote() const {
        bool square = std::abs(std::fmod(std::abs(strip_.otherAngle - strip_.axes.angle), 180) - 90) < 1e-6;
        if (floor_.strips.rules.twisting == model::StripRules::Twisting::WoodArmer || !square)
            return square
                       ? "Twisting moments are added by the method of Wood and Armer (1968)."
                       : fmt::format(
                             "Moments for bars at {:.0f} degrees to those that cross them, by the method of "
                             "Wood and Armer (1968).",
                             std::abs(strip_.otherAngle - strip_.axes.angle));
        return "Twisting moments are left out: only the moment across the strip counts.";
    }
    void widthSteps(Steps& steps, std::size_t i, double moment) const {
        if (!tracing_) return;
        trace::step(&steps, "u", "", {}, stations_[i].u / 1000, "m", "", "the station, along the strip");
        trace::step(&steps, "m", "M/b_strip",
                    {{"M", moment / 1e6, "kNm"}, {"b_strip", stations_[i].width / 1000, "m"}},
                    moment / stations_[i].width / 1000, "kNm/m", "integration across the strip",
                    "moment on the strip over its width at the station");
    }

    void bars(bool top, const checks::Place& place, std::size_t i, const standards::Section& sec,
              const StripSteel& s, std::size_t crackAt) {
        const auto& service = top ? d_.demand.topService : d_.demand.bottomService;
        const std::string side = top ? "top" : "bottom";
        // In a band bars lie between the others.
        double closest = s.spacing;
        for (const auto& r : d_.runs)
            if (r.band && r.top == top && stations_[i].u >= r.from && stations_[i].u <= r.to)
                closest = std::min(closest, 1 / (1 / s.spacing + 1 / r.spacing));
        const double limit = top ? in_.basis.crackLimitTop : in_.basis.crackLimitBottom;
        for (auto& c : barChecks(sec, {s.full, s.spacing, closest, s.diameter}, in_.basis, rules_,
                                 service[crackAt].value > 0 ? limit : 0, in_.twoWay, tracing_))
            add(c.name + "-" + side, c.title + " " + side, place, std::move(c.finding), std::move(c.steps));
        Steps steps;
        const StripSteel c = steel(top, crackAt);
        auto crackSection = section(top, crackAt, c.diameter);
        standards::CrackInput crack{
            crackSection,    service[crackAt].value / stations_[crackAt].width * b_,
            c.full * b_,     c.diameter,
            c.spacing,       (top ? in_.basis.coverTop : in_.basis.coverBottom) + in_.outer(top),
            in_.basis.creep, limit};
        auto width = rules_.service->crack(crack, tracer(steps));
        auto at = place;
        at.x = stations_[crackAt].u;
        add("crack-" + side, "Crack control " + side, at, width, std::move(steps),
            combination(service[crackAt].by));
    }

    void curtailment(bool top, const checks::Place& where, std::size_t i, bool skipped, std::uint16_t by) {
        const auto& line = top ? d_.top : d_.bottom;
        checks::Place place = where;
        place.x = stations_[i].u;
        Finding f;
        f.kind = Kind::MomentPerWidth;
        f.clause = rules_.detailing->clauses(in_.twoWay).curtailment;
        f.prefix = "m";
        f.demand = line.shifted[i] / stations_[i].width;
        f.limit = std::max(line.resistance[i] / stations_[i].width, plain(top, i));
        if (skipped)
            f.notes.push_back(
                "Inside the support at the strip's end, and within a slab thickness of a free edge, the ends "
                "of "
                "bars are not judged: hooks hold them there, and U-bars along the edge that are not placed "
                "yet.");
        Steps steps;
        if (tracing_) {
            auto s = steel(top, i);
            auto sec = section(top, i, s.diameter);
            trace::step(&steps, "u", "", {}, stations_[i].u / 1000, "m", f.clause,
                        "the station with the highest ratio");
            trace::step(&steps, "a_l", "", {}, rules_.detailing->momentShift(sec.d, s.diameter), "mm",
                        f.clause, "the moment line is moved outwards by this");
            if (s.full > 0) {
                trace::step(&steps, "r_anchored", "A_s,eff/A_s",
                            {{"A_s,eff", s.effective * b_, "mm²"}, {"A_s", s.full * b_, "mm²"}},
                            s.effective / s.full, "-", f.clause, "share of the steel that is anchored here");
                rules_.flexure->resistance(sec, s.effective * b_, 0, &steps);
            }
        }
        add(top ? "curtailment-top" : "curtailment-bottom", top ? "Bar ends top" : "Bar ends bottom", place,
            checks::judged(f), std::move(steps), combination(by));
    }

    // At an effective depth from the faces, and beside walls, line loads and steps, wherever there is a
    // station.
    void shear(std::size_t span, Range at) {
        const auto& s = strip_.spans[span];
        double d = std::max(50.0, stations_[at.first].thickness - 1.5 * usual_ - in_.basis.coverTop);
        std::size_t worst = stations_.size();
        double worstRatio = -1;
        for (std::size_t i = at.first; i <= at.second; ++i) {
            double u = stations_[i].u;
            if (s.left >= 0 && u < s.clearFrom + 0.8 * d) continue;
            if (s.right >= 0 && u > s.clearTo - 0.8 * d) continue;
            double r = d_.shearResistance[i] > 0 ? d_.demand.shear[i].value / d_.shearResistance[i] : 0;
            if (r > worstRatio) worstRatio = r, worst = i;
        }
        if (worst == stations_.size()) return;
        auto place = spanPlace(span);
        place.x = stations_[worst].u;
        bool top = -d_.demand.least[worst].value > d_.demand.most[worst].value;
        auto bars = steel(top, worst);
        Station thin = stations_[worst];
        thin.thickness = thin.leastThickness;
        auto sec =
            reinforcement::stripSection(top, bars.diameter > 0 ? bars.diameter : usual_, thin, in_, b_);
        Steps steps;
        Finding f;
        f.kind = Kind::ForcePerWidth;
        f.clause = rules_.shear->clause();
        f.prefix = "v";
        if (tracing_)
            trace::step(&steps, "v", "V/b_strip",
                        {{"V", d_.demand.shear[worst].value / 1000, "kN"},
                         {"b_strip", stations_[worst].width / 1000, "m"}},
                        d_.demand.shear[worst].value / stations_[worst].width, "kN/m",
                        "integration across the strip",
                        fmt::format("at u = {:.2f} m", stations_[worst].u / 1000));
        f.demand = d_.demand.shear[worst].value / stations_[worst].width;
        f.limit = rules_.shear->oneWay(sec, bars.effective * b_, tracer(steps)) / b_;
        f.notes.push_back(
            fmt::format("Not nearer to a support than an effective depth from its face; {} steel, as "
                        "anchored there; the least thickness on the cut.",
                        top ? "top" : "bottom"));
        add("shear", "One-way shear", place, checks::judged(f), std::move(steps),
            combination(d_.demand.shear[worst].by));
    }

    // With concentrated loads nearer to a support than an effective depth: at its face, loads within 2d by
    // their share.
    void shearAtFace(std::size_t i, int side) {
        const auto& span = strip_.spans[i];
        const int support = side < 0 ? span.left : span.right;
        if (support < 0) return;
        const double face = side < 0 ? span.clearFrom : span.clearTo;
        const std::size_t at = strips::nearestStation(stations_, face);
        if (std::abs(stations_[at].u - face) > 6 || stations_[at].width < 1) return;
        const bool top = true;
        const auto bars = steel(top, at);
        Station thin = stations_[at];
        thin.thickness = thin.leastThickness;
        const auto sec =
            reinforcement::stripSection(top, bars.diameter > 0 ? bars.diameter : usual_, thin, in_, b_);
        const auto& forces = *d_.forces;
        // Which load of every case stands how near.
        bool near = false;
        for (const auto& list : forces.loads)
            for (const auto& l : list) {
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
        auto place = supportPlace(std::size_t(support));
        place.x = face;
        const std::string name = side < 0 ? "after" : "before";
        // The steel in tension at the face: the face of the larger demand.
        const bool hogging = d_.demand.top[at].value >= d_.demand.bottom[at].value;
        const auto tension = steel(hogging, at);
        Steps steps;
        Finding f;
        f.kind = Kind::ForcePerWidth, f.prefix = "v";
        f.clause = rules_.shear->nearClause();
        f.demand = std::max(0.0, most) / width;
        f.limit = rules_.shear->oneWay(sec, tension.effective * b_, tracer(steps)) / b_;
        f.notes.push_back(
            "A concentrated load stands nearer to the support than an effective depth: the shear at its "
            "face, loads "
            "within twice the depth by the share that the clause gives them.");
        add("shear-face-" + name, "Shear beside the support", place, checks::judged(f), std::move(steps),
            combination(std::uint16_t(by)));
        Steps more;
        const double limit = rules_.shear->crushing(sec, tracer(more));
        if (limit <= 0) return;
        Finding g;
        g.kind = Kind::ForcePerWidth, g.prefix = "v", g.clause = rules_.shear->nearClause();
        g.demand = whole / width, g.limit = limit / b_;
        g.notes.push_back("The whole shear, without reduction, against what the concrete can take at all.");
        add("shear-crushing-" + name, "Largest shear beside the support", place, checks::judged(g),
            std::move(more));
    }

    void slenderness(std::size_t i, Range at) {
        const auto& span = strip_.spans[i];
        using PanelKind = standards::SlendernessInput::Panel;
        const SpanPanel panel = i < d_.panels.size() ? d_.panels[i] : SpanPanel();
        auto place = spanPlace(i);
        bool cantilever =
            span.ends[0] == EndCondition::Cantilever || span.ends[1] == EndCondition::Cantilever;
        if (span.left < 0 && span.right < 0)
            return add(
                "slenderness", "Span to depth", place,
                checks::notApplicable(rules_.service->slendernessClause(),
                                      "No support lies on this strip; the strips that cross it carry it."));
        // A cantilever's critical section is at its support, that of a span where the bottom is asked most.
        std::size_t critical = cantilever && span.left < 0 ? at.second : at.first;
        while (beyondBars(critical) && critical != (span.left < 0 ? at.first : at.second))
            span.left < 0 ? --critical : ++critical;
        const auto& demand = cantilever ? d_.demand.top : d_.demand.bottom;
        for (std::size_t k = at.first; k <= at.second && !cantilever; ++k)
            if (!beyondBars(k) &&
                demand[k].value / stations_[k].width > demand[critical].value / stations_[critical].width)
                critical = k;
        place.x = stations_[critical].u;
        auto s = steel(cantilever, critical);
        auto sec = section(cantilever, critical, s.diameter);
        auto need = rules_.flexure->required(sec, demand[critical].value / stations_[critical].width * b_);
        standards::SlendernessInput in{
            sec, reinforcement::spanSystem(span), span.length(), need.As, need.As2, s.effective * b_};
        in.panel = panel.kind;
        in.longer = panel.longer, in.shorter = panel.shorter;
        in.exterior = panel.exterior, in.edgeBeam = panel.edgeBeam, in.drop = panel.drop;
        in.stiffness = panel.stiffness, in.softEdge = panel.softEdge;
        Steps steps;
        Finding f;
        const std::string clause = rules_.service->slendernessClause();
        if (span.alongWall)
            f = checks::notApplicable(
                clause,
                "A wall or line support holds the slab along this span; the strips that cross it decide.");
        else if (!cantilever && panel.kind == PanelKind::OneWay && panel.across)
            f = checks::notApplicable(
                clause, "The panel spans the other way; the strips of the other direction decide.");
        else if (!cantilever && panel.longWay)
            f = checks::notApplicable(
                clause, "The panel is held on all sides; the strips along its shorter span decide.");
        else if (cantilever && demand[critical].value <= 0)
            f = checks::notApplicable(rules_.service->slendernessClause(), "Nothing hogs in this overhang.");
        else if (!need.possible)
            f = checks::notChecked(rules_.service->slendernessClause(),
                                   "No amount of steel resists the moment here, by which the limit goes.");
        else
            f = rules_.service->slenderness(in, tracer(steps));
        for (int e : {0, 1})
            if (span.overruled[e])
                f.notes.push_back(
                    fmt::format("The end condition {} of the span was decided by you, against what the "
                                "layout says.",
                                e == 0 ? "at the start" : "at the end"));
        add("slenderness", "Span to depth", place, f, std::move(steps));
    }

    // Bottom bars that go on over a support, or into it at an end.
    void through(std::size_t k) {
        using Over = standards::DetailingRules::Over;
        const auto& p = strip_.supports[k];
        std::optional<BottomOfSpan> spans[2];
        bool columns = false, between = true;
        for (bool before : {true, false}) {
            bool any = false;
            for (std::size_t i = 0; i < strip_.spans.size(); ++i) {
                const auto& span = strip_.spans[i];
                if ((before ? span.right : span.left) != int(k)) continue;
                any = true;
                columns |= i < d_.panels.size() &&
                           d_.panels[i].kind == standards::SlendernessInput::Panel::OnColumns;
                const auto where = range(span.clearFrom, span.clearTo);
                if (span.cantilever() || !where) continue;
                BottomOfSpan& bottom = spans[before ? 0 : 1].emplace();
                for (std::size_t j = where->first; j <= where->second; ++j) {
                    const auto s = steel(false, j);
                    bottom.most = std::max(bottom.most, s.full),
                    bottom.diameter = std::max(bottom.diameter, s.diameter);
                }
            }
            between &= any;
        }
        OverSupport over;
        over.rule = !columns && !between                      ? Over::EndSupport
                    : !columns                                ? Over::Support
                    : p.kind == strips::Support::Kind::Column ? Over::ColumnStrip
                    : strip_.kind == Strip::Kind::Middle      ? Over::MiddleStrip
                                                              : Over::Support;
        over.from = p.from, over.to = p.to, over.across = p.across;
        if (!strip_.inside[0]) over.concreteFrom = strip_.from + in_.basis.coverSide;
        if (!strip_.inside[1]) over.concreteTo = strip_.to - in_.basis.coverSide;
        std::vector<BottomRun> runs;
        for (const auto& r : d_.runs)
            if (!r.top && !r.band) runs.push_back({r.from, r.to, r.area, r.spacing});
        for (auto& c : bottomOver(over, spans, runs, *rules_.detailing, tracing_))
            add(c.name, c.title, supportPlace(k), std::move(c.finding), std::move(c.steps));
    }

    void anchorage(std::size_t i, int side) {
        const auto& span = strip_.spans[i];
        EndCondition end = span.ends[side < 0 ? 0 : 1];
        int support = side < 0 ? span.left : span.right;
        if (support < 0 || (end != EndCondition::Free && end != EndCondition::OnBeam)) return;
        double face = side < 0 ? span.clearFrom : span.clearTo;
        auto place = supportPlace(std::size_t(support));
        place.x = face;
        const reinforcement::StripRun* run = nullptr;
        for (const auto& r : d_.runs)
            if (!r.top && r.from <= face + 1 && r.to >= face - 1) run = &r;
        const std::string clause = rules_.detailing->clauses(in_.twoWay).anchorage;
        if (!run) {
            Finding f = checks::judged({Kind::Length,
                                        0,
                                        1,
                                        Sense::AtLeast,
                                        clause,
                                        Outcome::Within,
                                        "",
                                        {"No bottom bar reaches this support."},
                                        "l"});
            add("anchorage-bottom", "End anchorage bottom", place, f);
            return;
        }
        bool hooked = (side < 0 ? run->start : run->end) == model::BarEnd::Hook;
        auto in = reinforcement::endAnchorage(strip_, stations_, d_.demand, i, side, *run, hooked, in_);
        Steps steps;
        add("anchorage-bottom", "End anchorage bottom", place,
            rules_.detailing->endAnchorage(in, tracer(steps)), std::move(steps));
    }

    // Bottom steel across one-way strips: a share of theirs, and no farther apart than secondary bars may
    // lie.
    void distribution(std::size_t i, Range at) {
        std::size_t mid = (at.first + at.second) / 2;
        auto s = steel(false, mid);
        auto place = spanPlace(i);
        place.x = stations_[mid].u;
        Finding f;
        f.kind = Kind::SteelPerWidth, f.sense = Sense::AtLeast, f.prefix = "As";
        f.clause = rules_.detailing->clauses(in_.twoWay).secondary;
        f.demand = s.full, f.limit = d_.distribution;
        f.notes.push_back(
            "The strips that it crosses span one way; a share of their steel lies across them.");
        Steps steps;
        if (tracing_)
            trace::step(&steps, "a_s,sec", "", {}, d_.distribution * 1000, "mm²/m", f.clause,
                        "of the strongest strip that is crossed");
        add("secondary", "Distribution steel", place, checks::judged(f), std::move(steps));
        if (s.spacing <= 0) return;
        Steps more;
        Finding g;
        g.kind = Kind::BarSpacing, g.prefix = "s", g.clause = rules_.detailing->clauses(in_.twoWay).spacing;
        g.demand = s.spacing;
        g.limit = rules_.detailing->maximumSpacing(DetailingRules::Role::Secondary, true,
                                                   stations_[mid].thickness, tracer(more));
        add("secondary-spacing", "Distribution bar spacing", place, checks::judged(g), std::move(more));
    }

    // Top steel over a column against what the standard wants in the width where moments peak.
    void peak(std::size_t s) {
        for (const auto& band : d_.bands) {
            if (band.support != int(s)) continue;
            auto place = supportPlace(s);
            Finding f;
            f.kind = Kind::SteelPerWidth;
            f.sense = Sense::AtLeast;
            f.clause = band.rule.clause;
            f.prefix = "As";
            f.demand = reinforcement::bandSteel(d_.runs, strip_.supports[s].u);
            f.limit = band.steel;
            f.notes.push_back(band.word);
            Steps steps;
            if (band.transfer && tracing_) {
                rules_.strips->transfer(band.input, &steps);
                trace::step(&steps, "a_s,t", "", {}, band.steel * 1000, "mm²/m", band.rule.clause, band.word);
            } else if (tracing_) {
                std::size_t at = strips::nearestStation(stations_, strip_.supports[s].u);
                auto sec = section(true, at, steel(true, at).diameter);
                rules_.strips->peak(strip_.toNext[0] / 2 + strip_.toNext[1] / 2,
                                    strip_.supports[s].to - strip_.supports[s].from,
                                    strip_.supports[s].across, sec.h, sec.d, &steps);
                trace::step(&steps, "a_s,peak", "", {}, band.steel * 1000, "mm²/m", band.rule.clause,
                            band.word);
            }
            add("peak-top", band.transfer ? "Steel into the column" : "Steel over the column", place,
                checks::judged(f), std::move(steps));
            if (band.most <= 0) continue;
            Finding g;
            g.kind = Kind::Moment, g.prefix = "M", g.clause = band.mostClause;
            g.demand = band.moment, g.limit = band.most;
            g.notes.push_back(
                "More cannot pass into the column without an edge beam: soften the column, or give the slab "
                "more depth.");
            Steps more;
            if (tracing_) rules_.strips->transfer(band.input, &more);
            add("transfer", "Moment into the column", place, checks::judged(g), std::move(more));
        }
    }
    void redistribution(std::size_t s) {
        if (s == 0 || s + 1 >= strip_.supports.size()) return;
        std::size_t at = strips::nearestStation(stations_, strip_.supports[s].u);
        auto bars = steel(true, at);
        if (bars.full <= 0) return;
        Steps steps;
        auto f = rules_.strips->redistribution(section(true, at, bars.diameter), bars.full * b_,
                                               floor_.strips.rules.redistribution, tracer(steps));
        add("redistribution", "Redistribution", supportPlace(s), f, std::move(steps));
    }
};

}  // namespace

void fillLines(StripDesign& d, const StripBasis& in) {
    const auto& stations = d.stations();
    const auto& rules = in.standard;
    const double usual = reinforcement::largestBar(in.basis);
    constexpr double b = 1000;
    for (bool top : {false, true}) {
        auto& line = top ? d.top : d.bottom;
        line = {};
        const auto& demand = top ? d.demand.top : d.demand.bottom;
        std::vector<double> diameters;
        for (const auto& s : stations) {
            auto steel = reinforcement::stripSteel(d.runs, top, s.u, s.width);
            double diameter = steel.diameter > 0 ? steel.diameter : usual;
            auto sec = reinforcement::stripSection(top, diameter, s, in, b);
            const std::size_t i = line.provided.size();
            diameters.push_back(steel.diameter);
            line.provided.push_back(steel.full);
            auto need = rules.flexure->required(sec, demand[i].value / s.width * b);
            double compression =
                need.doubly ? reinforcement::stripSteel(d.runs, !top, s.u, s.width).effective : 0;
            line.resistance.push_back(
                steel.effective > 0
                    ? rules.flexure->resistance(sec, steel.effective * b, compression * b).M / b * s.width
                    : 0);
            line.required.push_back(demand[i].value <= 0 ? 0 : need.possible ? need.As / b : 1e9);
        }
        // Where no bars are, those nearest count.
        std::vector<double> nearest = diameters;
        for (std::size_t i = 0; i < stations.size(); ++i) {
            double least = 1e300;
            for (std::size_t k = 0; k < stations.size() && diameters[i] == 0; ++k)
                if (double away = std::abs(stations[k].u - stations[i].u); diameters[k] > 0 && away < least)
                    least = away, nearest[i] = diameters[k];
            if (nearest[i] == 0) nearest[i] = usual;
        }
        line.shifted = reinforcement::shiftedDemand(stations, demand, top, nearest, in);
    }
    d.shearResistance.clear();
    for (std::size_t i = 0; i < stations.size(); ++i) {
        bool top = -d.demand.least[i].value > d.demand.most[i].value;
        auto steel = reinforcement::stripSteel(d.runs, top, stations[i].u, stations[i].width);
        strips::Station thin = stations[i];
        thin.thickness = thin.leastThickness;
        auto sec = reinforcement::stripSection(top, steel.diameter > 0 ? steel.diameter : usual, thin, in, b);
        d.shearResistance.push_back(rules.shear->oneWay(sec, steel.effective * b) / b * stations[i].width);
    }
}

std::vector<double> compressionNeed(const StripDesign& d, bool top, const StripBasis& in) {
    std::vector<double> out;
    const auto& demand = top ? d.demand.top : d.demand.bottom;
    constexpr double b = 1000;
    for (std::size_t i = 0; i < d.stations().size(); ++i) {
        const auto& s = d.stations()[i];
        auto steel = reinforcement::stripSteel(d.runs, top, s.u, s.width);
        if (steel.diameter == 0 || demand[i].value <= 0) continue;
        auto need = in.standard.flexure->required(reinforcement::stripSection(top, steel.diameter, s, in, b),
                                                  demand[i].value / s.width * b);
        if (!need.possible || !need.doubly) continue;
        out.resize(d.stations().size(), 0);
        out[i] = need.As2 / b;
    }
    return out;
}

std::vector<Check> checkStrip(const StripDesign& d, const model::Floor& floor,
                              const analysis::FloorAnalysis& a, const StripBasis& in, bool tracing) {
    if (d.stations().empty()) {
        Check c;
        static_cast<Finding&>(c) = checks::judged({Kind::Area,
                                                   d.strip->area(),
                                                   0,
                                                   Sense::AtMost,
                                                   "geometry",
                                                   Outcome::Over,
                                                   "",
                                                   {"Nothing of this strip is designed."},
                                                   "A"});
        c.key = floor.id + "/" + d.strip->key + "/stations";
        c.title = "Strip without stations, strip " + d.strip->name;
        c.strip = d.strip->key;
        c.place = {floor.id, "whole strip", "whole", d.strip->from, d.strip->from, d.strip->to};
        return {c};
    }
    return Checker(d, floor, a, in, tracing).run();
}

}  // namespace talvik::design
