#include "report/margin.h"

#include <fmt/format.h>

#include <algorithm>
#include <functional>
#include <map>

#include "report/assumed.h"
#include "strips/strip_edits.h"

namespace talvik::report {
namespace {

using design::ElementAnswer;
using model::Spot;
using units::Kind;
using Line = MarginLine;

constexpr int most = 60;  // checks over their limits that the state of a project lists

class Maker {
  public:
    Maker(const model::Project& project, const design::Design& design, const MarginView& view)
        : project_(project), design_(design), view_(view), system_(project.basis.units) {}

    std::vector<Line> part(const ElementAnswer& e, const design::PartAnswer& part, const Spot& spot) {
        const auto* line = dynamic_cast<const design::LineAnswer*>(&part);
        const auto sum = checks::summary(part.checks);
        title(part.name,
              fmt::format("{} failing, {} passing, {} not checked", sum.over, sum.within, sum.notChecked));
        std::function<bool(const checks::Check&)> belongs = [](const auto&) { return true; };
        if (spot.in != Spot::In::Whole)
            belongs = [&spot](const checks::Check& c) { return c.place.spot == spot; };
        if (line) belongs = within(*line, spot, belongs);
        if (spot.in == Spot::In::Whole && sum.over > 0) {
            add(Line::Kind::Remedies, "");
            add(Line::Kind::Heading, "Checks", "worst first");
        }
        if (line && spot.in != Spot::In::Whole && spot.in != Spot::In::Run)
            add(Line::Kind::Note, "In the long section: A adds bars here · Left, Right select others");
        std::vector<const checks::Check*> listed;
        for (const auto* c : checks::worstFirst(part.checks))
            if (belongs(*c)) listed.push_back(c);
        gather(listed);
        facts(e, spot);
        return std::move(lines_);
    }

    // What stands open in Layout and Actions, what is taken for granted, and the element as it is.
    std::vector<Line> open(const ElementAnswer* e) {
        title(e ? e->name : project_.name,
              !e ? "Not analysed yet."
                 : fmt::format("{} failing, {} passing, {} not checked", e->summary.over, e->summary.within,
                               e->summary.notChecked));
        const auto* floor = model::findFloor(project_, view_.inHand);
        using M = Matter::Kind;
        for (auto [kind, text, none] :
             {std::tuple(M::Loose, "Connectivity", "No unconnected or unsupported members."),
              std::tuple(M::Unloaded, "Unloaded", "All members have loads.")}) {
            // One-way slabs are entered in figures; where there is no slab nothing is unloaded.
            if (kind == M::Loose ? !floor : floor && floor->slabs.empty()) continue;
            const auto count = std::count_if(view_.matters->begin(), view_.matters->end(),
                                             [k = kind](const auto& m) { return m.kind == k; });
            add(Line::Kind::Heading, text, std::to_string(count));
            for (std::size_t i = 0; i < view_.matters->size(); ++i)
                if (const auto& m = (*view_.matters)[i]; m.kind == kind)
                    lines_.push_back({Line::Kind::Matter, m.message, m.mend, nullptr, i});
            if (count == 0) add(Line::Kind::Note, none);
        }
        if (!e) return std::move(lines_);
        if (!e->error.empty()) {
            const bool told = std::any_of(view_.matters->begin(), view_.matters->end(),
                                          [](const auto& m) { return m.prevents; });
            if (!told) add(Line::Kind::Note, e->error);
            return std::move(lines_);
        }
        add(Line::Kind::Heading, "Assumptions");
        std::set<std::string> assumed(e->assumptions.begin(), e->assumptions.end());
        for (const auto& note : assumed) add(Line::Kind::Note, note);
        if (assumed.empty()) add(Line::Kind::Note, "None besides the notes of the checks.");
        asItIs(*e);
        return std::move(lines_);
    }

    std::vector<Line> state() {
        std::vector<const ElementAnswer*> all;
        for (const auto& e : design_.elements) all.push_back(e.get());
        std::stable_partition(all.begin(), all.end(),
                              [&](const auto* e) { return e->element == view_.inHand; });
        title(project_.name,
              fmt::format("{} · {}", counted(all.size(), "element"), design_.standard->edition));
        add(Line::Kind::Remedies, "");
        auto heading = [&](const char* text, int count) {
            add(Line::Kind::Heading, text, std::to_string(count));
        };
        const auto sum = design_.summary();
        heading("Over the limit", sum.over);
        int shown = 0;
        for (const auto* e : all)
            for (const auto* c : checks::worstFirst(e->all()))
                if (c->outcome == checks::Outcome::Over && ++shown <= most)
                    lines_.push_back({Line::Kind::Check, "", "", c});
        const bool answered = std::ranges::all_of(all, [](const auto* e) { return e->error.empty(); });
        if (sum.over == 0 && answered) add(Line::Kind::Note, "None.");
        if (shown > most) add(Line::Kind::Note, fmt::format("And {} more, part by part.", shown - most));
        for (const auto* e : all) {
            if (!e->error.empty()) add(Line::Kind::Note, e->name + ": " + e->error);
            if (e->element == view_.inHand) asItIs(*e);
            facts(*e, {});
        }
        heading("Not checked", sum.notChecked);
        for (const auto* e : all)
            if (!e->error.empty()) add(Line::Kind::Note, e->name + ": nothing (no design).");
        std::set<std::string> assumed;
        std::vector<const checks::Check*> unchecked;
        for (const auto* e : all) {
            for (const auto* c : e->all()) {
                if (c->outcome == checks::Outcome::NotChecked) unchecked.push_back(c);
                assumed.insert(c->notes.begin(), c->notes.end());
            }
        }
        gather(unchecked);
        add(Line::Kind::Heading, "Assumed");
        for (auto& a : report::assumed(project_, design_))
            add(Line::Kind::Note, a.text), assumed.erase(a.text);
        for (const auto& note : assumed) add(Line::Kind::Note, note);
        double steel = 0, concrete = 0;
        for (const auto* e : all) steel += e->steel, concrete += e->concrete;
        add(Line::Kind::Heading, "Quantities");
        add(Line::Kind::Pair, "Concrete", fmt::format("{:.1f} m³", concrete));
        add(Line::Kind::Pair, "Reinforcement", units::text(steel, Kind::Mass, system_));
        return std::move(lines_);
    }

  private:
    const model::Project& project_;
    const design::Design& design_;
    const MarginView& view_;
    const units::System system_;
    std::vector<Line> lines_;

    static std::string counted(std::size_t n, const std::string& what) {
        return fmt::format("{} {}{}", n, what, n == 1 ? "" : "s");
    }
    std::string text(double v, Kind kind) const { return units::text(v, kind, system_); }
    void add(Line::Kind kind, std::string text, std::string right = {}) {
        lines_.push_back({kind, std::move(text), std::move(right)});
    }
    void title(std::string text, std::string sub) {
        lines_.clear();
        add(Line::Kind::Title, std::move(text));
        add(Line::Kind::Subtitle, std::move(sub));
    }
    // Every kind of check of an element with its worst.
    void asItIs(const ElementAnswer& e) {
        std::vector<const checks::Check*> judged;
        for (const auto* c : checks::worstFirst(e.all()))
            if (checks::isJudged(*c)) judged.push_back(c);
        if (judged.empty()) return;
        add(Line::Kind::Heading, "All checks", "worst of each type");
        gather(judged, true);
    }
    // In the order given; `all`: also those over their limit and those that are few of a kind.
    void gather(const std::vector<const checks::Check*>& checks, bool all = false) {
        using Like = std::pair<std::string, checks::Outcome>;
        auto like = [&](const checks::Check& c) {
            return Like(c.what, all ? checks::Outcome::Within : c.outcome);
        };
        std::map<Like, std::vector<const checks::Check*>> likes;
        for (const auto* c : checks) likes[like(*c)].push_back(c);
        for (const auto* c : checks) {
            auto& same = likes[like(*c)];
            const bool single =
                all ? same.size() == 1
                    : c->outcome == checks::Outcome::Over || (!same.empty() && same.size() < 3);
            if (single) {
                lines_.push_back({Line::Kind::Check, "", "", c});
                continue;
            }
            if (same.empty()) continue;  // told already
            const std::string where = c->place.name.empty() ? "" : ", worst: " + c->place.name;
            lines_.push_back({Line::Kind::Like, c->what, fmt::format("{} places{}", same.size(), where), c});
            if (view_.unfolded.contains(c->what))
                for (const auto* s : same) lines_.push_back({Line::Kind::Check, "", "", s});
            same.clear();
        }
    }
    void facts(const ElementAnswer& e, const std::optional<Spot>& spot) {
        using F = design::Fact::Kind;
        for (auto& f : e.facts(spot, system_))
            add(f.kind == F::Heading ? Line::Kind::Heading
                : f.kind == F::Pair  ? Line::Kind::Pair
                                     : Line::Kind::Note,
                std::move(f.text), std::move(f.value));
    }
    // Title of a span, support or run of a line, and which checks belong to it.
    std::function<bool(const checks::Check&)> within(const design::LineAnswer& d, const Spot& spot,
                                                     std::function<bool(const checks::Check&)> plain) {
        const auto view = d.view();
        for (const auto& s : view.line.spans)
            if (spot.in == Spot::In::Span && s.id == spot.id)
                title("Span " + s.name, fmt::format("{}, clear {} · {}, {}", text(s.length(), Kind::Span),
                                                    text(s.clearTo - s.clearFrom, Kind::Span),
                                                    strips::name(s.ends[0]), strips::name(s.ends[1])));
        for (const auto& s : view.line.supports)
            if (spot.in == Spot::In::Support && s.id == spot.id)
                title("Support " + s.name,
                      fmt::format("of {} · {} wide along it", d.name, text(s.to - s.from, Kind::Length)));
        if (spot.in != Spot::In::Run) return plain;
        auto all = d.crossing();
        all.insert(all.begin(), d.runs.begin(), d.runs.end());
        const auto run = std::find_if(all.begin(), all.end(), [&](const auto& r) { return r.id == spot.id; });
        if (run == all.end()) return [](const auto&) { return false; };
        describe(d, *run);
        return [face = run->top() ? model::Face::Top : model::Face::Bottom, from = run->from, to = run->to,
                along = model::isMain(run->role) || run->band()](const checks::Check& c) {
            return c.face == face && along && c.place.to >= from && c.place.from <= to;
        };
    }

    void describe(const design::LineAnswer& d, const bars::Run& run) {
        std::string name = design_.callout(d, run.id, system_);
        if (name.empty())
            name = fmt::format("{}-{} {}", run.bar, units::number(run.spacing, Kind::BarSpacing, system_),
                               run.top() ? "top" : "bottom");
        title(name, run.fixed ? "fixed by hand; Delete resets it to automatic"
                              : "chosen by the program; an edit fixes it");
        const auto& spans = d.view().line.spans;
        const double origin = spans.empty() ? d.view().line.from : spans.front().from;
        add(Line::Kind::Pair, "From, to",
            text(run.from - origin, Kind::Span) + ", " + text(run.to - origin, Kind::Span));
        add(Line::Kind::Pair, "Steel", text(run.area, Kind::SteelPerWidth));
        for (const auto& item : d.items)
            if (item.run == run.id)
                add(Line::Kind::Pair,
                    fmt::format("Mark {:02}, shape {}", design_.marks.at(schedule::signature(item)),
                                item.shape),
                    fmt::format("{} × {}", item.number, text(item.cutLength, Kind::Length)));
        if (model::across(run.role)) return;
        add(Line::Kind::Pair, "Anchorage at the ends",
            text(run.anchorStart, Kind::Length) + ", " + text(run.anchorEnd, Kind::Length));
        add(Line::Kind::Note,
            "In the long section: drag an end · double-click the call-out · keys + − spacing, [ ] size, "
            "H hook, S divides at the station line, Alt+arrows start, Ctrl+arrows end");
    }
};

}  // namespace

std::vector<MarginLine> margin(const model::Project& project, const design::Design& design,
                               const MarginView& view) {
    Maker maker(project, design, view);
    if (!design.trouble.empty() || !design.standard) {
        std::vector<MarginLine> lines{{Line::Kind::Title, project.name}};
        for (const auto& t : design.trouble) lines.push_back({Line::Kind::Note, t.message});
        return lines;
    }
    if (view.matters) return maker.open(design.find(view.inHand));
    if (view.spot)
        if (const auto* e = design.find(view.spot->part.element))
            if (const auto* part = e->find(view.spot->part); part && e->error.empty())
                return maker.part(*e, *part, *view.spot);
    return maker.state();
}

}  // namespace talvik::report
