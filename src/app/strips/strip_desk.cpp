#include "strips/strip_desk.h"

#include <algorithm>
#include <cmath>

#include "model/edits.h"
#include "model/floor_validation.h"
#include "widgets/text.h"

namespace talvik::app {

StripDesk::StripDesk(Session& session, BarDesk& bars, QObject* parent)
    : QObject(parent), session_(session), bars_(bars) {
    connect(&session_, &Session::changed, this, [this] {
        seen_ = nullptr;
        emit changed();
    });
    connect(&session_, &Session::selectionChanged, this, [this] {
        if (const auto* s = strip()) direction_ = s->direction;
        emit changed();
    });
    connect(&session_, &Session::answered, this, &StripDesk::changed);
}

const strips::StripLayout* StripDesk::layout() const {
    const auto* f = session_.floor();
    if (!f || f->slabs.empty() || !session_.design().standard) return nullptr;
    if (seen_ == f) return &layout_;
    const auto& rules = *session_.design().standard->strips;
    const std::string standard = session_.project().basis.standard;
    if (!layoutOf_ || standard_ != standard || !strips::sameLayout(*layoutOf_, *f)) {
        // What cannot be analysed yet may not bear being divided either.
        if (!model::validateFloor(*f, "").empty()) return nullptr;
        layout_ = strips::layStrips(
            *f, [&](double span, double across) { return rules.columnStripHalf(span, across); });
        layoutOf_ = *f;
        standard_ = standard;
    }
    seen_ = f;
    return &layout_;
}

void StripDesk::setDirection(int direction) {
    if (direction == direction_) return;
    direction_ = direction;
    if (const auto* s = strip(); s && s->direction != direction) session_.select(std::nullopt);
    emit changed();
}

void StripDesk::setTool(StripTool tool) {
    tool_ = tool;
    points_.clear();
    emit changed();
}

QString StripDesk::prompt() const {
    switch (tool_) {
        case StripTool::Split:
            return tr(
                "Split: click where to cut the strip across; with Shift along it. Esc leaves the tool.");
        case StripTool::Draw:
            return points_.empty()
                       ? tr("Draw: click the corners of a strip %1; Enter closes it, Esc leaves.")
                             .arg(QString::fromUtf8(strips::directionName(direction_)))
                       : tr("Draw: next corner; Enter closes the strip, Backspace takes a corner back.");
        case StripTool::Area:
            return tr(
                "Area: click the corners of a part with directions of bars of its own; Enter closes it, Esc "
                "leaves.");
        case StripTool::Merge:
            return tr("Merge: click the strip that joins the one selected. Esc leaves the tool.");
        case StripTool::Select:
            break;
    }
    return tr(
        "X Y direction · arrow keys select strips, spans and supports · drag an edge of the selected strip · "
        "S split, D draw, M merge, A area, T turn, R reset");
}

const strips::Strip* StripDesk::strip() const {
    const auto& s = session_.selection();
    const auto* l = layout();
    return l && s && session_.floor() ? l->find(s->part.key) : nullptr;
}
const design::StripDesign* StripDesk::stripDesign() const {
    auto d = design();
    const auto& s = session_.selection();
    return d && s ? d->find(s->part.key) : nullptr;
}
void StripDesk::select(const std::string& key) {
    if (const auto* l = layout())
        if (const auto* s = l->find(key)) direction_ = s->direction;
    if (key.empty() || !session_.floor()) return session_.select(std::nullopt);
    session_.select(spot(key, Spot::In::Whole, {}));
}
Spot StripDesk::spot(const std::string& key, Spot::In in, const model::Id& part) const {
    return {{session_.floor()->id, model::PartKind::Strip, key}, in, part};
}
std::string StripDesk::stripAt(model::Point p) const {
    if (const auto* l = layout())
        for (const auto& s : l->strips)
            if (s.direction == direction_)
                for (const auto& part : s.parts)
                    if (geometry::contains(part, p)) return s.key;
    return {};
}

void StripDesk::walk(int by, int parts) {
    const auto* l = layout();
    if (!l || l->strips.empty()) return;
    if (by != 0 || !strip()) {
        std::vector<const strips::Strip*> all;
        for (const auto& s : l->strips)
            if (s.direction == direction_) all.push_back(&s);
        if (all.empty()) return;
        auto at = std::find(all.begin(), all.end(), strip());
        long n = long(all.size()),
             i = at == all.end() ? (by > 0 ? 0 : n - 1) : std::clamp(at - all.begin() + by, 0L, n - 1);
        if (at == all.end() && by == 0) i = 0;
        return select(all[std::size_t(i)]->key);
    }
    bars_.walk(parts);
}

void StripDesk::stepBack() {
    if (tool_ != StripTool::Select) return cancel();
    session_.stepBack();
}

bool StripDesk::edit(const QString& text,
                     const std::function<std::string(model::Floor&, model::Project&)>& change,
                     const QString& merge) {
    const auto* now = session_.floor();
    if (!now) return false;
    std::string why;
    auto next = model::editFloor(session_.base(), now->id,
                                 [&](model::Floor& f, model::Project& p) { why = change(f, p); });
    if (!why.empty()) {
        emit said(qs(why));
        return false;
    }
    return session_.apply(text, std::move(next), merge);
}

void StripDesk::click(model::Point p, bool along) {
    const std::string under = stripAt(p);
    const auto* l = layout();
    if (!l) return;
    switch (tool_) {
        case StripTool::Select:
            return select(under);
        case StripTool::Split:
            if (under.empty()) return emit said(tr("Click inside a strip to split it."));
            if (edit(tr("Split strip"), [&](auto& f, auto& project) {
                    return strips::split(project, f, *l, under, p, along);
                })) {
                setTool(StripTool::Select);
                select(stripAt(p));
            }
            return;
        case StripTool::Merge: {
            const auto* s = strip();
            if (!s) return select(under);
            const std::string first = s->key;
            if (edit(tr("Merge strips"),
                     [&](auto& f, auto& project) { return strips::merge(project, f, *l, first, under); })) {
                setTool(StripTool::Select);
                select(stripAt(p));
            }
            return;
        }
        case StripTool::Draw:
        case StripTool::Area:
            points_.push_back(p);
            return emit changed();
    }
}

void StripDesk::finish() {
    if (tool_ != StripTool::Draw && tool_ != StripTool::Area) return;
    if (points_.size() < 3) return emit said(tr("It needs at least three corners; click them on the plan."));
    const auto* l = layout();
    const auto corners = points_;
    if (tool_ == StripTool::Area) {
        std::array<double, 2> angles = l ? l->angle : std::array<double, 2>{0, 90};
        if (edit(tr("Area of strips"),
                 [&](auto& f, auto& project) { return strips::drawArea(project, f, angles, corners); })) {
            setTool(StripTool::Select);
            // A strip of the area, so that its directions can be said.
            const model::Id area = session_.floor()->strips.areas.back().id;
            for (const auto& s : layout() ? layout()->strips : std::vector<strips::Strip>{})
                if (s.within == area && s.direction == direction_) {
                    select(s.key);
                    break;
                }
            emit anglesWanted();
        }
        return;
    }
    double angle = l ? l->angle[std::size_t(direction_)] : 90.0 * direction_;
    if (edit(tr("Draw strip"),
             [&](auto& f, auto& project) { return strips::draw(project, f, direction_, angle, corners); })) {
        setTool(StripTool::Select);
        if (const auto* f = session_.floor(); f && !f->strips.drawn.empty())
            select(f->strips.drawn.back().id);
    }
}

void StripDesk::cancel() {
    if ((tool_ == StripTool::Draw || tool_ == StripTool::Area) && !points_.empty()) {
        points_.pop_back();
        return emit changed();
    }
    setTool(StripTool::Select);
}

strips::EdgeOf StripDesk::edgeAt(model::Point p, double within) const {
    const auto* l = layout();
    const auto* s = strip();
    strips::EdgeOf best;
    if (!l || !s) return best;
    for (const auto& e : strips::edgesOf(*l, *s))
        for (std::size_t i = 0; i + 1 < e.path.size(); ++i)
            if (double d = geometry::distance(p, e.path[i], e.path[i + 1]); d < within) within = d, best = e;
    return best;
}
void StripDesk::dragEdge(const strips::EdgeOf& edge, model::Point to) {
    const auto* l = layout();
    if (!l) return;
    double step = session_.project().basis.units == units::System::Metric ? 25 : 25.4;
    for (const auto& s : l->strips)
        if (s.direction == direction_ && s.line == edge.line && s.kind != strips::Strip::Kind::Middle) {
            auto p = s.axes.local(to);
            double offset = std::round(edge.side * (p.y - s.v(p.x)) / step) * step;
            return typeOffset(edge, std::max(offset, 50.0));
        }
}
void StripDesk::typeOffset(const strips::EdgeOf& edge, double offset) {
    edit(
        tr("Edge of a strip"),
        [&](auto& f, auto& project) {
            strips::moveEdge(project, f, direction_, edge, offset);
            return std::string();
        },
        QStringLiteral("edge%1%2").arg(qs(edge.line)).arg(edge.side));
}

bool StripDesk::turnArea(double first, double second) {
    const auto* s = strip();
    if (!s || s->within.empty()) return false;
    const model::Id area = s->within;
    bool good = edit(tr("Directions of an area"), [&](auto& f, auto&) {
        for (auto& a : f.strips.areas)
            if (a.id == area) a.angle[0] = first, a.angle[1] = second;
        return std::string();
    });
    if (good && !strip() && layout())
        for (const auto& x : layout()->strips)
            if (x.within == area && x.direction == direction_) return select(x.key), true;
    return good;
}
void StripDesk::turn(double angle) {
    const auto* s = strip();
    const auto* l = layout();
    if (!s || !l) return emit said(tr("Select the strip to turn."));
    const std::string key = s->key;
    if (edit(tr("Turn strip"),
             [&](auto& f, auto& project) { return strips::reAim(project, f, *l, key, angle); }))
        if (const auto* f = session_.floor(); f && !f->strips.drawn.empty() && !strip())
            select(f->strips.drawn.back().id);
}
void StripDesk::release() {
    const auto* s = strip();
    const auto* l = layout();
    if (!s || !l) return emit said(tr("Select the strip to reset."));
    const std::string key = s->key;
    bool any = false;
    edit(tr("Reset strip to automatic"), [&](auto& f, auto&) {
        any = strips::release(f, *l, key);
        return std::string();
    });
    if (!any) emit said(tr("Nothing about this strip was changed by hand."));
    if (!strip()) session_.select(std::nullopt);
}
void StripDesk::setEnd(std::size_t span, int side, std::optional<model::EndCondition> condition) {
    const auto* s = strip();
    if (!s || span >= s->spans.size()) return;
    edit(tr("End condition"), [&](auto& f, auto& project) {
        strips::setEnd(project, f, *s, span, side, condition);
        return std::string();
    });
}
void StripDesk::setRules(const QString& text, const std::function<void(model::StripChoices&)>& change) {
    edit(text, [&](auto& f, auto&) {
        change(f.strips.rules);
        return std::string();
    });
}

}  // namespace talvik::app
