#include "section/bar_desk.h"

#include <algorithm>
#include <cmath>

#include "model/edits.h"
#include "widgets/text.h"

namespace talvik::app {

using bars::Run;

BarDesk::BarDesk(Session& session, QObject* parent) : QObject(parent), session_(session) {}

std::optional<Run> BarDesk::find(const model::Id& id) const {
    std::optional<Run> found;
    if (const auto* line = session_.line()) {
        auto all = line->crossing();
        all.insert(all.end(), line->runs.begin(), line->runs.end());
        for (auto& r : all)
            if (r.id == id) found = std::move(r);
    }
    for (const auto& bars : session_.fixedBars())
        if (bars.id == id) {
            if (!found) found.emplace();
            static_cast<model::BarRun&>(*found) = bars;
            found->fixed = true;
        }
    return found;
}
std::optional<Run> BarDesk::run() const {
    return session_.selected(Spot::In::Run) ? find(session_.selectedId()) : std::nullopt;
}

void BarDesk::walkRuns(int by) {
    const auto* line = session_.line();
    if (!line || line->runs.empty()) return;
    const long n = long(line->runs.size());
    long at = -1;
    for (long i = 0; i < n; ++i)
        if (line->runs[std::size_t(i)].id == session_.selectedId()) at = i;
    at = at < 0 ? (by > 0 ? 0 : n - 1) : std::clamp(at + by, 0L, n - 1);
    session_.select(Spot::In::Run, line->runs[std::size_t(at)].id);
}

void BarDesk::walk(int by) {
    const auto* line = session_.line();
    if (!line) return;
    // Supports and spans in the order in which they stand along the line.
    const auto view = line->view();
    std::vector<std::pair<double, Spot>> all;
    for (const auto& p : view.line.supports) all.push_back({p.u, {line->part, Spot::In::Support, p.id}});
    for (const auto& p : view.line.spans)
        all.push_back({(p.from + p.to) / 2, {line->part, Spot::In::Span, p.id}});
    if (all.empty()) return;
    std::stable_sort(all.begin(), all.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
    const auto at =
        std::find_if(all.begin(), all.end(), [&](const auto& x) { return x.second == session_.selection(); });
    const long n = long(all.size()),
               i = at == all.end() ? (by > 0 ? 0 : n - 1) : std::clamp(at - all.begin() + by, 0L, n - 1);
    session_.select(all[std::size_t(i)].second);
    session_.setStation(all[std::size_t(i)].first);
}

std::optional<Spot> BarDesk::spanAt(double u) const {
    const auto* line = session_.line();
    if (!line) return {};
    const auto view = line->view();
    for (const auto& s : view.line.spans)
        if (u > s.from && u < s.to) return Spot{line->part, Spot::In::Span, s.id};
    return {};
}

bool BarDesk::edit(const QString& text, const Change& change, const QString& merge) {
    const auto* line = session_.line();
    if (!line) return false;
    std::string why;
    auto next = model::editBars(session_.base(), line->part.element,
                                [&](bars::Fixed& bars, model::Project& p) { why = change(bars, p); });
    if (!why.empty()) {
        emit said(qs(why));
        return false;
    }
    return session_.apply(text, std::move(next), merge);
}

bool BarDesk::setRun(const QString& text, const Run& run, const QString& merge) {
    // The id that it has, or is about to get: steps of one drag belong together from the first.
    auto ahead = session_.base();
    const model::Id wanted = run.fixed ? run.id : model::newId(ahead, 'b');
    model::Id id;
    const bool good = edit(
        text,
        [&](auto& bars, auto& project) {
            id = bars::fixRun(project, bars, run);
            return std::string();
        },
        merge.isEmpty() ? merge : merge + qs(wanted));
    if (good) session_.select(Spot::In::Run, id);
    return good;
}

bool BarDesk::changeSpacing(int steps) {
    auto r = run();
    if (!r) return false;
    r->spacing = bars::nextSpacing(r->spacing, steps, session_.project().basis);
    return setRun(tr("Spacing"), *r, QStringLiteral("spacing"));
}

bool BarDesk::changeBar(int steps) {
    auto r = run();
    if (!r) return false;
    r->bar = bars::nextBar(r->bar, steps, session_.project().basis);
    return setRun(tr("Bar size"), *r, QStringLiteral("size"));
}

bool BarDesk::dragEnd(const Run& run, bool end, double to) {
    const auto* line = session_.line();
    if (!line) return false;
    Run r = run;
    const auto view = line->view();
    const double cover = session_.project().basis.coverSide;
    to = std::clamp(to, view.line.from + cover, view.line.to - cover);
    (end ? r.to : r.from) = end ? std::max(to, r.from + 300) : std::min(to, r.to - 300);
    if (r.from == run.from && r.to == run.to) return false;
    return setRun(tr("Bar end"), r, end ? QStringLiteral("to") : QStringLiteral("from"));
}

bool BarDesk::moveEnd(bool end, double by) {
    const auto r = run();
    return r && dragEnd(*r, end, (end ? r->to : r->from) + by);
}

bool BarDesk::toggleHook(bool end) {
    auto r = run();
    if (!r) return false;
    auto& which = end ? r->end : r->start;
    which = which == model::BarEnd::Hook ? model::BarEnd::Straight : model::BarEnd::Hook;
    return setRun(tr("Hook"), *r);
}

QString BarDesk::write(const model::Id& id, const QString& text) {
    auto r = find(id);
    if (!r) return tr("These bars are no longer there.");
    const auto written = bars::readBars(text.toStdString(), session_.project().basis);
    if (!written.trouble.empty()) return qs(written.trouble);
    r->bar = written.bar.value_or(r->bar);
    r->spacing = written.spacing.value_or(r->spacing);
    return setRun(tr("Bars"), *r) ? QString() : tr("This spacing is not possible.");
}

bool BarDesk::splitRun(double u) {
    const auto r = run();
    const auto* line = session_.line();
    const auto* answer = session_.answer();
    if (!r || !line || !answer) {
        emit said(tr("Select the bars to divide."));
        return false;
    }
    if (!(u > r->from && u < r->to)) u = (r->from + r->to) / 2;
    const auto view = line->view();
    const auto& at = view.stations[line::nearestStation(view.stations, u)];
    const double lap = bars::lapLength(*r, at.thickness, design::lineBasis(*answer, *line));
    model::Id second;
    const bool good = edit(tr("Divide bars"), [&](auto& bars, auto& project) {
        auto done = bars::splitRun(project, bars, *r, std::round(u / 10) * 10, lap);
        second = done.second;
        return done.trouble;
    });
    if (good) session_.select(Spot::In::Run, second);
    return good;
}

bool BarDesk::splitInMiddle() {
    return splitRun(session_.station());
}

bool BarDesk::joinRuns() {
    const auto r = run();
    const auto* line = session_.line();
    if (!r || !line) {
        emit said(tr("Select the bars to join with the next."));
        return false;
    }
    auto all = line->runs;
    const auto across = line->crossing();
    all.insert(all.end(), across.begin(), across.end());
    const Run* with = bars::neighbour(all, *r);
    if (!with) {
        emit said(tr("There are no other bars in this face to join with."));
        return false;
    }
    model::Id one;
    const bool good = edit(tr("Join bars"), [&](auto& bars, auto& project) {
        one = bars::joinRuns(project, bars, *r, *with);
        return std::string();
    });
    if (good) session_.select(Spot::In::Run, one);
    return good;
}

bool BarDesk::addRun() {
    const auto* line = session_.line();
    const bool top = session_.selected(Spot::In::Support);
    auto refuse = [&](const QString& why) {
        emit said(why);
        return false;
    };
    if (!line || (!top && !session_.selected(Spot::In::Span)))
        return refuse(tr("Select the span or the support at which bars are to be added."));
    const auto& basis = session_.project().basis;
    const auto room = bars::roomForRun(line->view().line, top, session_.selectedId(), basis.coverSide);
    if (!room) return refuse(tr("There is no room for bars here."));
    Run like;
    like.part = line->part.key;
    like.bar = basis.mainBars.front();
    like.spacing = basis.spacingMost;
    for (const auto& r : line->runs)
        if (r.top() == top && !r.band() && r.from < room->middle && r.to > room->middle) like = r;
    like.role = top ? model::Role::TopMain : model::Role::BottomMain;
    model::Id id;
    const bool good = edit(tr("Add bars"), [&](auto& bars, auto& project) {
        id = bars::addRun(project, bars, like, room->from, room->to, line->runs);
        return std::string();
    });
    if (good) session_.select(Spot::In::Run, id);
    return good;
}

bool BarDesk::release() {
    const auto r = run();
    if (!r || !r->fixed) {
        emit said(tr(
            "Bars chosen by the program follow the demand; bars fixed by hand can be reset to automatic."));
        return false;
    }
    const bool good = edit(tr("Reset bars to automatic"), [&](auto& bars, auto&) {
        std::erase_if(bars, [&](const auto& b) { return b.id == r->id; });
        return std::string();
    });
    session_.select(Spot::In::Whole);
    return good;
}

void BarDesk::releaseAll() {
    edit(tr("Reset all bars to automatic"), [](auto& bars, auto&) {
        bars.clear();
        return std::string();
    });
}

}  // namespace talvik::app
