#include "design/slab_checks.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "design/slab_sag.h"

namespace talvik::design {
namespace {

using checks::Finding;
using checks::Outcome;
using checks::Topic;
using standards::BarEndRules;
using standards::SteelRules;
using trace::Steps;
using units::Kind;

class Checker {
  public:
    Checker(const model::OneWaySlab& slab, const line::LineBasis& in, SlabDesign& d, bool tracing)
        : slab_(slab),
          basis_(in.basis),
          standard_(in.standard),
          in_(in),
          d_(d),
          a_(d.analysis),
          of_{{d.line.line, d.line.stations, d.line.demand},
              d,
              in,
              {slab.id, model::PartKind::OneWaySlab, {}},
              {}},
          list_(slab.id + "/"),
          tracing_(tracing),
          b_(in.workedWidth()) {
        of_.unitWidth = true;
        of_.combination = [this](std::uint16_t by) { return a_.name(a_.governing(by)); };
        for (std::size_t i = 0; i < slab_.spans.size(); ++i) {
            const auto between = analysis::shearChecked(slab_, basis_, i);
            const double x = model::spanStart(slab_, i);
            of_.spans.push_back({x + between.from - 1, x + between.to + 1, {}, {}});
        }
        for (std::size_t s = 0; s < slab_.supports.size(); ++s) {
            const bool end = d_.line.supports[s].endFixity;
            of_.over.push_back(end ? BarEndRules::Over::EndSupport : BarEndRules::Over::Support);
            of_.supportNotes.push_back({supportNote(s)});
        }
        of_.endsNote = "The last 50 mm behind the cover of a free tip are left to the U-bars there.";
    }

    void run() {
        if (slab_.shearLinks) verify::addLinks(d_, of_);
        const auto within = checkSags(slab_, of_, d_, list_, tracing_);
        for (std::size_t i = 0; i < within.size(); ++i) of_.spans[i].sagWithin = within[i];
        verify::checkLine(of_, list_, tracing_);
        for (std::size_t s = 0; s < slab_.supports.size(); ++s) uplift(s);
        secondary();
        omissions();
        firstThickness();
        d_.checks = list_.take();
        if (!standard_.sag) return;
        // By span: of one as thick as the table asks.
        for (const auto& c : std::vector<checks::Check>(d_.checks))
            if (c.topic == Topic::Slenderness && c.outcome == checks::Outcome::Within)
                spareSags(
                    d_.checks, standard_.sag->sparedBy(false),
                    [&](const checks::Check& sag) { return sag.place.spot == c.place.spot; }, basis_.units);
    }

  private:
    const model::OneWaySlab& slab_;
    const model::Basis& basis_;
    const standards::Standard& standard_;
    const line::LineBasis& in_;
    SlabDesign& d_;
    const analysis::SlabAnalysis& a_;
    verify::LineCase of_;
    verify::CheckList list_;
    bool tracing_;
    double b_;  // width on which sections are worked: 1 m or 1 ft

    Steps* tracer(Steps& steps) const { return tracing_ ? &steps : nullptr; }
    standards::Section section() const {
        return line::section(false, model::largestBar(basis_), slab_.thickness, in_, b_);
    }
    checks::Place whole() const {
        return {{of_.part, model::Spot::In::Whole, {}},
                "slab",
                (d_.line.line.from + d_.line.line.to) / 2,
                d_.line.line.from,
                d_.line.line.to};
    }
    std::string supportNote(std::size_t s) const {
        const auto& support = d_.line.supports[s];
        if (support.endFixity)
            return "For unintended fixity at a support taken as simple: a share of the span moment (" +
                   standard_.supports->endTopClause() + ").";
        if (support.floored)
            return "The minimum share of the span's full fixed-end moment, w l_n²/12, governs at the face.";
        if (slab_.supports[s].monolithic)
            return "Taken at the face of the support, which is monolithic with the slab.";
        return "Taken on the axis of the simple support, and rounded there where the standard allows it.";
    }

    // By the factors of equilibrium, span by span.
    void uplift(std::size_t s) {
        const auto& r = a_.reactions[s];
        double presses = 0, lifts = 0;
        for (double each : r.perSpan) (each > 0 ? presses : lifts) += std::abs(each);
        const auto rule = standard_.actions->equilibrium();
        const auto worst = verify::lifting(rule, a_.load.permanent() * presses, a_.load.permanent() * lifts,
                                           a_.load.imposed * lifts);
        list_.add(
            {"uplift", "Uplift", Topic::Uplift, verify::upliftFinding(worst, rule, Kind::ForcePerWidth), {}},
            verify::supportPlace(of_, s));
    }

    void secondary() {
        const bars::Run* run = nullptr;
        double mainSteel = 0;
        const double x0 = d_.line.line.from, x1 = d_.line.line.to;
        double covered = 0;
        for (const auto& r : d_.bars) {
            if (r.role == model::Role::BottomMain) mainSteel = std::max(mainSteel, r.area);
            if (r.role != model::Role::BottomSecondary) continue;
            covered += r.to - r.from;
            if (!run || r.area < run->area) run = &r;
        }
        const auto clauses = standard_.steel->clauses(false);
        Finding f;
        f.kind = Kind::SteelPerWidth;
        f.sense = checks::Sense::AtLeast;
        f.clause = clauses.secondary;
        f.prefix = "As";
        Steps steps;
        f.limit = standard_.steel->secondary(mainSteel * b_, section(), tracer(steps)) / b_;
        const bool all = run && covered >= x1 - x0 - 2 * basis_.coverSide - 2 * run->spacing;
        if (all)
            f.demand = run->area;
        else
            f.here.push_back("The distribution bars do not cover the whole length of the slab.");
        list_.add({"secondary", "Distribution steel", Topic::Steel, checks::judged(f), std::move(steps)},
                  whole(), {}, model::Face::Bottom);
        if (!run) return;
        Steps more;
        Finding s;
        s.kind = Kind::BarSpacing;
        s.clause = clauses.spacing;
        s.prefix = "s";
        s.demand = run->spacing;
        s.limit = standard_.steel->spacing(SteelRules::Role::Secondary, true, slab_.thickness, tracer(more));
        list_.add({"secondary-spacing", "Distribution bar spacing", Topic::Spacing, checks::judged(s),
                   std::move(more)},
                  whole(), {}, model::Face::Bottom);
    }

    void omissions() {
        auto omit = [&](const std::string& name, const std::string& title, Finding f) {
            list_.add({"omitted-" + name, title, Topic::Omission, std::move(f), {}}, whole());
        };
        for (const auto& o : standard_.omissions)
            if (o.slabs) omit(o.key, o.title, checks::notChecked(o.clause, o.reason));
        omit("supports", "Beams and walls below",
             checks::notChecked("",
                                "Only reactions are given; the slab is assumed to rest on rigid, "
                                "torsion-free line supports."));
    }

    // Depth suggested by the span-to-depth rule; the governing span.
    void firstThickness() {
        const double c = basis_.coverBottom + model::largestBar(basis_) / 2;
        auto suggested = [&](std::size_t i, Steps* t) {
            return standard_.slenderness->firstThickness(line::spanSystem(d_.line.line.spans[i]),
                                                         slab_.spans[i].length, c, section(), t);
        };
        for (std::size_t i = 0; i < slab_.spans.size(); ++i)
            if (double h = suggested(i, nullptr); h > d_.firstThickness)
                d_.firstThickness = h, d_.firstThicknessSpan = i;
        const std::size_t i = d_.firstThicknessSpan;
        Steps steps;
        suggested(i, tracer(steps));
        Finding f =
            checks::notApplicable(standard_.slenderness->clause(),
                                  fmt::format("Guidance, not a limit: {} suggested, span {} governs.",
                                              units::text(d_.firstThickness, Kind::Length, basis_.units),
                                              model::spanLabel(slab_, i)));
        list_.add({"first-thickness", "First thickness", Topic::Slenderness, std::move(f), std::move(steps)},
                  verify::at(of_, whole(), model::spanStart(slab_, i)));
    }
};

}  // namespace

void checkSlab(const model::OneWaySlab& slab, const line::LineBasis& in, SlabDesign& d, bool tracing) {
    Checker(slab, in, d, tracing).run();
}

}  // namespace talvik::design
