// The margin of a floor: the checks of the strip in hand or of a part of it; with nothing selected, the state
// of the floor: what is over, in no strip, not checked, changed by hand, assumed.
#include <set>

#include "design/strip_opinions.h"
#include "margin/margin_view.h"
#include "strips/strip_edits.h"
#include "widgets/text.h"

namespace talvik::app {

void MarginView::addFloor() {
    using Kind = Item::Kind;
    held_ = session_.floorDesign();
    const auto* floor = session_.floor();
    if (!held_) {
        items_.push_back({Kind::Title, qs(floor->name), "", nullptr, nullptr});
        const auto* a = session_.floorAnalysis();
        if (session_.floorStale() || !a)
            items_.push_back({Kind::Note, tr("Answering…"), "", nullptr, nullptr});
        else
            for (const auto& t : a->trouble)
                items_.push_back({Kind::Note, qs(t.message), "", nullptr, nullptr});
        return;
    }
    const auto& spot = session_.selection();
    const auto* d = spot ? held_->find(spot->part.key) : nullptr;
    if (!d) return addFloorState();
    addStrip(*d, *spot);
}

void MarginView::addFloorState() {
    using Kind = Item::Kind;
    const auto& f = *held_;
    items_.push_back({Kind::Title, qs(session_.floor()->name), "", nullptr, nullptr});
    items_.push_back({Kind::Subtitle, tr("%1 strips · %2").arg(f.strips.size()).arg(qs(f.standard->edition)),
                      "", nullptr, nullptr});
    addRemedies(true);
    auto all = f.all();
    std::stable_sort(all.begin(), all.end(), [](const checks::Check* a, const checks::Check* b) {
        double x = checks::ratio(*a), y = checks::ratio(*b);
        return x != y ? x > y : a->key < b->key;
    });
    items_.push_back(
        {Kind::Heading, tr("Over the limit"), QString::number(f.summary.over), nullptr, nullptr});
    int shown = 0;
    for (const auto* c : all)
        if (c->outcome == checks::Outcome::Over && ++shown <= 60)
            items_.push_back({Kind::Check, "", "", c, nullptr});
    if (!f.summary.over) items_.push_back({Kind::Note, tr("None."), "", nullptr, nullptr});
    if (shown > 60)
        items_.push_back(
            {Kind::Note, tr("And %1 more, strip by strip.").arg(shown - 60), "", nullptr, nullptr});
    items_.push_back({Kind::Heading, tr("Coverage"), tr("of the slab"), nullptr, nullptr});
    for (int d : {0, 1}) {
        const auto& c = f.layout->coverage[std::size_t(d)];
        items_.push_back({Kind::Pair, tr("Strips %1").arg(QString::fromUtf8(strips::directionName(d))),
                          c.uncovered == 0 && c.overlapped == 0 ? tr("every point in one")
                                                                : tr("%1 m² in none, %2 m² in two")
                                                                      .arg(c.uncovered / 1e6, 0, 'f', 2)
                                                                      .arg(c.overlapped / 1e6, 0, 'f', 2),
                          nullptr, nullptr});
    }
    int moved = 0, over = 0;
    const auto& s = session_.floor()->strips;
    for (const auto& x : f.layout->strips) {
        moved += x.changed;
        for (const auto& span : x.spans) over += span.overruled[0] + span.overruled[1];
    }
    if (moved || over || !s.bars.empty()) {
        items_.push_back({Kind::Heading, tr("Decided by you"), "", nullptr, nullptr});
        if (moved)
            items_.push_back(
                {Kind::Pair, tr("Strips changed or drawn"), QString::number(moved), nullptr, nullptr});
        if (over)
            items_.push_back(
                {Kind::Pair, tr("End conditions overruled"), QString::number(over), nullptr, nullptr});
        if (!s.bars.empty())
            items_.push_back(
                {Kind::Pair, tr("Bars fixed"), QString::number(s.bars.size()), nullptr, nullptr});
    }
    items_.push_back(
        {Kind::Heading, tr("Not checked"), QString::number(f.summary.notChecked), nullptr, nullptr});
    for (const auto* c : all)
        if (c->outcome == checks::Outcome::NotChecked) items_.push_back({Kind::Check, "", "", c, nullptr});
    items_.push_back({Kind::Heading, tr("Assumed"), "", nullptr, nullptr});
    std::set<std::string> notes(f.analysis->assumptions.begin(), f.analysis->assumptions.end());
    for (const auto& note : notes) items_.push_back({Kind::Note, qs(note), "", nullptr, nullptr});
}

void MarginView::addStrip(const design::StripDesign& d, const model::Spot& spot) {
    using Kind = Item::Kind;
    const auto& strip = *d.strip;
    auto text = [&](double v, units::Kind k) { return session_.text(v, k); };
    QString title = tr("Strip %1").arg(qs(strip.name)), sub;
    auto sum = checks::summary(d.checks);
    sub = tr("%1 over, %2 within · %3 long")
              .arg(sum.over)
              .arg(sum.within)
              .arg(text(strip.to - strip.from, units::Kind::Span));
    std::function<bool(const checks::Check&)> belongs = [](const auto&) { return true; };
    const reinforcement::Run* run = nullptr;
    if (spot.in == Spot::In::Span || spot.in == Spot::In::Support)
        belongs = [&spot](const checks::Check& c) { return c.place.spot == spot; };
    if (spot.in == Spot::In::Span) {
        for (const auto& s : strip.spans)
            if (s.id == spot.id) {
                title = tr("Span %1").arg(qs(s.name));
                sub = tr("%1, clear %2 · %3, %4")
                          .arg(text(s.length(), units::Kind::Span),
                               text(s.clearTo - s.clearFrom, units::Kind::Span),
                               QString::fromUtf8(strips::name(s.ends[0])),
                               QString::fromUtf8(strips::name(s.ends[1])));
            }
    } else if (spot.in == Spot::In::Support) {
        for (const auto& s : strip.supports)
            if (s.id == spot.id)
                title = tr("Support %1").arg(qs(s.name)), sub = tr("of strip %1").arg(qs(strip.name));
    } else if (spot.in == Spot::In::Run) {
        for (const auto& r : d.runs)
            if (r.id == spot.id) run = &r;
        if (run) {
            title = tr("%1-%2 %3")
                        .arg(qs(run->bar), session_.number(run->spacing, units::Kind::BarSpacing),
                             run->top ? tr("top") : tr("bottom"));
            sub = run->fixed ? tr("fixed by you; Delete gives it back to the program")
                             : tr("chosen by the program; an edit fixes it");
            belongs = [run](const checks::Check& c) {
                return c.face == (run->top ? model::Face::Top : model::Face::Bottom) &&
                       c.place.to >= run->from && c.place.from <= run->to;
            };
        }
    }
    items_.push_back({Kind::Title, title, "", nullptr, nullptr});
    items_.push_back({Kind::Subtitle, sub, "", nullptr, nullptr});
    if (run) {
        items_.push_back({Kind::Pair, tr("From, to"),
                          tr("%1, %2").arg(text(run->from - strip.from, units::Kind::Span),
                                           text(run->to - strip.from, units::Kind::Span)),
                          nullptr, nullptr});
        items_.push_back(
            {Kind::Pair, tr("Steel"), text(run->area, units::Kind::SteelPerWidth), nullptr, nullptr});
        items_.push_back({Kind::Pair, tr("Anchorage at the ends"),
                          tr("%1, %2").arg(text(run->anchorStart, units::Kind::Length),
                                           text(run->anchorEnd, units::Kind::Length)),
                          nullptr, nullptr});
        items_.push_back({Kind::Note,
                          tr("In the long section: drag an end · double-click the call-out · keys + − "
                             "spacing, [ ] size, H hook, S divides at the station line, Alt+arrows start, "
                             "Ctrl+arrows end"),
                          "", nullptr, nullptr});
    }
    const bool within = spot.in != Spot::In::Whole;
    if (within && !run)
        items_.push_back({Kind::Note, tr("In the long section: A adds bars here · Left, Right walk on"), "",
                          nullptr, nullptr});
    for (const auto* c : checks::worstFirst(d.checks))
        if (belongs(*c)) items_.push_back({Kind::Check, "", "", c, nullptr});
    if (within) return;
    // What the strip carries: the slab's own, and beams along it apart.
    double slab[2] = {0, 0}, beam[2] = {0, 0};
    for (std::size_t i = 0; i < d.stations().size(); ++i) {
        slab[0] = std::max(slab[0], d.demand.most[i].value),
        slab[1] = std::min(slab[1], d.demand.least[i].value);
        beam[0] = std::max(beam[0], d.demand.beamMost[i].value),
        beam[1] = std::min(beam[1], d.demand.beamLeast[i].value);
    }
    items_.push_back({Kind::Heading, tr("On the whole strip"), tr("largest, smallest"), nullptr, nullptr});
    items_.push_back(
        {Kind::Pair, tr("Moment of the slab"),
         tr("%1, %2").arg(session_.number(slab[0], units::Kind::Moment), text(slab[1], units::Kind::Moment)),
         nullptr, nullptr});
    if (beam[0] > 1e5 || beam[1] < -1e5)
        items_.push_back({Kind::Pair, tr("Moment of beams"),
                          tr("%1, %2").arg(session_.number(beam[0], units::Kind::Moment),
                                           text(beam[1], units::Kind::Moment)),
                          nullptr, nullptr});
    items_.push_back({Kind::Pair, tr("Axial force"), tr("none: plate in bending"), nullptr, nullptr});
    if (strip.kind == strips::Strip::Kind::Column)
        items_.push_back({Kind::Note,
                          tr("Width by %1.").arg(qs(held_->standard->strips->columnStripClause())), "",
                          nullptr, nullptr});
    auto opinions = design::stripOpinions(*held_, d);
    if (opinions.empty()) return;
    items_.push_back({Kind::Heading, tr("Second opinion"), tr("analysis / opinion"), nullptr, nullptr});
    std::string source;
    for (const auto& o : opinions) {
        if (o.source != source) items_.push_back({Kind::Note, qs(source = o.source), "", nullptr, nullptr});
        items_.push_back({Kind::Pair, qs(o.what),
                          tr("%1 / %2 = %3")
                              .arg(session_.number(o.engine, o.kind), session_.number(o.opinion, o.kind))
                              .arg(o.ratio(), 0, 'f', 2),
                          nullptr, nullptr});
        if (!o.word.empty()) items_.push_back({Kind::Note, qs(o.word), "", nullptr, nullptr});
    }
}

}  // namespace talvik::app
