#include "report/margin.h"

#include <fmt/format.h>

#include <algorithm>
#include <functional>
#include <set>

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
    Maker(const model::Project& project, const design::Design& design)
        : project_(project), design_(design), system_(project.basis.units) {}

    std::vector<Line> part(const ElementAnswer& e, const design::PartAnswer& part, const Spot& spot) {
        const auto* line = dynamic_cast<const design::LineAnswer*>(&part);
        const auto sum = checks::summary(part.checks);
        title(part.name,
              fmt::format("{} over, {} within, {} not checked", sum.over, sum.within, sum.notChecked));
        std::function<bool(const checks::Check&)> belongs = [](const auto&) { return true; };
        if (spot.in != Spot::In::Whole)
            belongs = [&spot](const checks::Check& c) { return c.place.spot == spot; };
        if (line) belongs = within(*line, spot, belongs);
        if (spot.in == Spot::In::Whole && sum.over > 0) {
            add(Line::Kind::Remedies, "");
            add(Line::Kind::Heading, "Checks", "worst first");
        }
        if (line && spot.in != Spot::In::Whole && spot.in != Spot::In::Run)
            add(Line::Kind::Note, "In the long section: A adds bars here · Left, Right walk on");
        for (const auto* c : checks::worstFirst(part.checks))
            if (belongs(*c)) lines_.push_back({Line::Kind::Check, "", "", c});
        facts(e, spot);
        return std::move(lines_);
    }

    std::vector<Line> state(std::string_view inHand) {
        std::vector<const ElementAnswer*> all;
        for (const auto& e : design_.elements) all.push_back(e.get());
        std::stable_partition(all.begin(), all.end(), [&](const auto* e) { return e->element == inHand; });
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
        if (sum.over == 0) add(Line::Kind::Note, "None.");
        if (shown > most) add(Line::Kind::Note, fmt::format("And {} more, part by part.", shown - most));
        for (const auto* e : all) {
            if (!e->error.empty()) add(Line::Kind::Note, e->name + ": " + e->error);
            facts(*e, {});
        }
        heading("Not checked", sum.notChecked);
        std::set<std::string> assumed;
        for (const auto* e : all) {
            for (const auto* c : e->all()) {
                if (c->outcome == checks::Outcome::NotChecked)
                    lines_.push_back({Line::Kind::Check, "", "", c});
                assumed.insert(c->notes.begin(), c->notes.end());
            }
            assumed.insert(e->assumptions.begin(), e->assumptions.end());
        }
        add(Line::Kind::Heading, "Assumed");
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
        title(name, run.fixed ? "fixed by you; Delete gives it back to the program"
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
                               std::string_view inHand, const std::optional<model::Spot>& spot) {
    Maker maker(project, design);
    if (!design.trouble.empty() || !design.standard) {
        std::vector<MarginLine> lines{{Line::Kind::Title, project.name}};
        for (const auto& t : design.trouble) lines.push_back({Line::Kind::Note, t.message});
        return lines;
    }
    if (spot)
        if (const auto* e = design.find(spot->part.element))
            if (const auto* part = e->find(spot->part); part && e->error.empty())
                return maker.part(*e, *part, *spot);
    return maker.state(inHand);
}

}  // namespace talvik::report
