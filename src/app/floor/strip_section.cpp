#include "floor/strip_section.h"

#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <cmath>
#include <limits>

#include "widgets/inline_edit.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {
namespace {

using reinforcement::Run;
using units::Kind;

QString word(model::EndCondition c) {
    return QString::fromUtf8(strips::name(c));
}

}  // namespace

StripSection::StripSection(Session& session, StripDesk& desk, FloorCanvas& canvas, QWidget* parent)
    : QWidget(parent), session_(session), desk_(desk), canvas_(canvas) {
    setObjectName(QStringLiteral("stripSection"));
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setMinimumSize(300, 230);
    setAccessibleName(tr("Long section of the strip"));
    for (auto signal : {&Session::changed, &Session::selectionChanged, &Session::placeChanged,
                        &Session::stationChanged, &Session::floorChanged})
        connect(&session, signal, this, qOverload<>(&QWidget::update));
    connect(&desk, &StripDesk::changed, this, qOverload<>(&QWidget::update));
    connect(&canvas, &FloorCanvas::moved, this, qOverload<>(&QWidget::update));
}

bool StripSection::shared() const {
    const auto* s = desk_.strip();
    if (!s || s->axes.angle != 0) return false;
    // Only while the strip is in view there.
    double a = canvas_.pixelX(s->from), b = canvas_.pixelX(s->to);
    return a > 0 && b < width() && b - a > 0.45 * width();
}
double StripSection::X(double u) const {
    if (shared()) return canvas_.pixelX(u);
    const auto* s = desk_.strip();
    if (!s) return 0;
    return 64 + (u - s->from) / std::max(1.0, s->to - s->from) * (width() - 64 - 34);
}
double StripSection::toU(double x) const {
    const auto* s = desk_.strip();
    if (!s) return 0;
    double a = X(s->from), b = X(s->to);
    return s->from + (x - a) / (b - a) * (s->to - s->from);
}
double StripSection::perWidth(const design::StripDesign& d, std::size_t i, double v) const {
    return v / d.stations()[i].width;
}

double StripSection::barY(const Run& run) const {
    int turn = 0;
    if (const auto* d = desk_.stripDesign())
        for (const auto& r : d->runs) {
            if (r.id == run.id) break;
            turn += r.top == run.top && r.band == run.band;
        }
    double shift = (turn % 2 ? 3 : 0) + (run.band ? 6 : 0);
    return run.top ? bandTop + 5 + shift : bandTop + bandDepth - 5 - shift;
}
QPointF StripSection::handle(const std::string& id, bool end) const {
    if (const auto* d = desk_.stripDesign())
        for (const auto& r : d->runs)
            if (r.id == id) return {X(end ? r.to : r.from), barY(r)};
    return {};
}
QRectF StripSection::callout(const std::string& id) const {
    const auto* d = desk_.stripDesign();
    if (!d) return {};
    for (const auto& r : d->runs) {
        if (r.id != id) continue;
        double x = std::clamp(X((r.from + r.to) / 2), 60.0, width() - 60.0);
        return r.top ? QRectF(x - 52, bandTop - 17 - (r.band ? 13 : 0), 104, 13)
                     : QRectF(x - 52, bandTop + bandDepth + 15, 104, 13);
    }
    return {};
}
// Beside the support, under the slab.
QRectF StripSection::endWord(std::size_t span, int side) const {
    const auto* s = desk_.strip();
    if (!s || span >= s->spans.size()) return {};
    const auto& p = s->spans[span];
    double half = (X(p.to) - X(p.from)) / 2 - 6;
    double w = std::min(118.0, half), y = bandTop + bandDepth + 40;
    return side < 0 ? QRectF(X(p.from) + 5, y, w, 13) : QRectF(X(p.to) - 5 - w, y, w, 13);
}

std::optional<StripSection::Grip> StripSection::gripAt(QPointF point) const {
    const auto* d = desk_.stripDesign();
    std::optional<Grip> best;
    double nearest = 8;
    if (!d) return best;
    for (const auto& r : d->runs)
        for (bool end : {false, true}) {
            QPointF h = handle(r.id, end) - point;
            double distance = std::hypot(h.x(), h.y()) - (desk_.part() == r.id ? 3 : 0);
            if (distance < nearest) nearest = distance, best = Grip{r.id, end};
        }
    return best;
}

void StripSection::mousePressEvent(QMouseEvent* event) {
    const auto* s = desk_.strip();
    const auto* d = desk_.stripDesign();
    setFocus();
    if (!s || event->button() != Qt::LeftButton) return;
    QPointF point = event->position();
    for (std::size_t i = 0; i < s->spans.size(); ++i)
        for (int side : {-1, 1})
            if (endWord(i, side).contains(point)) return chooseEnd(i, side, mapToGlobal(point.toPoint()));
    if (d) {
        if (auto grip = gripAt(point)) {
            dragged_ = grip;
            dragOffset_ = handle(grip->run, grip->end).x() - point.x();
            return desk_.selectPart(Spot::In::Run, grip->run);
        }
        for (const auto& r : d->runs) {
            bool onBar = std::abs(point.y() - barY(r)) < 3 && point.x() > X(r.from) && point.x() < X(r.to);
            if (callout(r.id).contains(point) || onBar) return desk_.selectPart(Spot::In::Run, r.id);
        }
    }
    double u = toU(point.x());
    for (const auto& p : s->supports)
        if (std::abs(X(u) - X(p.u)) < std::max(5.0, (X(p.to) - X(p.from)) / 2))
            return desk_.selectPart(Spot::In::Support, p.id);
    for (std::size_t i = 0; i < s->spans.size(); ++i)
        if (u > s->spans[i].from && u < s->spans[i].to)
            return desk_.selectPart(Spot::In::Span, s->spans[i].id);
}

void StripSection::chooseEnd(std::size_t span, int side, QPoint at) {
    auto* menu = new QMenu(this);
    menu->setAttribute(Qt::WA_DeleteOnClose);
    menu->setObjectName(QStringLiteral("endMenu"));
    // In the desk's terms: the span lies after (+1) the support at its start.
    int deskSide = side < 0 ? 1 : -1;
    menu->addAction(tr("As the layout says"), this,
                    [=, this] { desk_.setEnd(span, deskSide, std::nullopt); });
    menu->addSeparator();
    for (auto c : {model::EndCondition::Free, model::EndCondition::OnBeam, model::EndCondition::Continuous,
                   model::EndCondition::Cantilever})
        menu->addAction(word(c), this, [=, this] { desk_.setEnd(span, deskSide, c); });
    menu->popup(at);
}

void StripSection::mouseMoveEvent(QMouseEvent* event) {
    const auto* s = desk_.strip();
    if (!s) return;
    QPointF point = event->position();
    double u = toU(point.x());
    session_.setStation(u >= s->from && u <= s->to ? u : std::numeric_limits<double>::quiet_NaN());
    const auto* d = desk_.stripDesign();
    if (dragged_ && d) {
        const Run* run = desk_.run();
        if (!run) return;
        Run r = *run;
        double cover = session_.project().basis.coverSide,
               step = event->modifiers() & Qt::ShiftModifier ? 100 : 10;
        double to = std::clamp(std::round(toU(point.x() + dragOffset_) / step) * step, s->from + cover,
                               s->to - cover);
        (dragged_->end ? r.to : r.from) =
            dragged_->end ? std::max(to, r.from + 300) : std::min(to, r.to - 300);
        if (r.to == run->to && r.from == run->from) return;
        desk_.setRun(tr("Bar end"), r, QStringLiteral("drag"));
        return;
    }
    auto grip = gripAt(point);
    bool onWord = false;
    for (std::size_t i = 0; i < s->spans.size(); ++i)
        for (int side : {-1, 1}) onWord |= endWord(i, side).contains(point);
    setCursor(grip ? Qt::SizeHorCursor : onWord ? Qt::PointingHandCursor : Qt::ArrowCursor);
    if (grip.has_value() != hovered_.has_value() ||
        (grip && (grip->run != hovered_->run || grip->end != hovered_->end))) {
        hovered_ = grip;
        update();
    }
}

void StripSection::mouseReleaseEvent(QMouseEvent*) {
    if (dragged_) desk_.endDrag();
    dragged_.reset();
}

void StripSection::mouseDoubleClickEvent(QMouseEvent* event) {
    if (const auto* d = desk_.stripDesign())
        for (const auto& r : d->runs)
            if (callout(r.id).contains(event->position())) return editCallout(r.id);
}

void StripSection::editCallout(const std::string& id) {
    const auto* d = desk_.stripDesign();
    const Run* run = nullptr;
    if (d)
        for (const auto& r : d->runs)
            if (r.id == id) run = &r;
    if (!run) return;
    desk_.selectPart(Spot::In::Run, id);
    QString now =
        QStringLiteral("%1 @ %2").arg(qs(run->bar), session_.number(run->spacing, Kind::BarSpacing));
    InlineEdit::open(this, callout(id), now, [this](const QString& text) -> QString {
        const auto* held = desk_.run();
        if (!held) return tr("These bars are no longer there.");
        Run changed = *held;
        auto written = reinforcement::readBars(text.toStdString(), session_.project().basis);
        if (!written.trouble.empty()) return qs(written.trouble);
        changed.bar = written.bar.value_or(changed.bar);
        changed.spacing = written.spacing.value_or(changed.spacing);
        return desk_.setRun(tr("Bars"), changed) ? QString() : tr("This spacing is not possible.");
    });
}

void StripSection::leaveEvent(QEvent*) {
    session_.setStation(std::numeric_limits<double>::quiet_NaN());
}

void StripSection::keyPressEvent(QKeyEvent* event) {
    double step = event->modifiers() & Qt::ShiftModifier ? 10 : 50;
    bool alt = event->modifiers() & Qt::AltModifier, control = event->modifiers() & Qt::ControlModifier;
    const auto* run = desk_.run();
    switch (event->key()) {
        case Qt::Key_Plus:
            desk_.changeSpacing(1);
            return;
        case Qt::Key_Minus:
            desk_.changeSpacing(-1);
            return;
        case Qt::Key_BracketRight:
            desk_.changeBar(1);
            return;
        case Qt::Key_BracketLeft:
            desk_.changeBar(-1);
            return;
        case Qt::Key_H:
            desk_.toggleHook(!(event->modifiers() & Qt::ShiftModifier));
            return;
        case Qt::Key_S:
            desk_.splitRun(session_.station());
            return;
        case Qt::Key_A:
            desk_.addRun();
            return;
        case Qt::Key_Delete:
            if (run && run->fixed) desk_.releaseRun(run->id);
            return;
        case Qt::Key_Return:
        case Qt::Key_Enter:
            if (run)
                editCallout(run->id);
            else
                emit activated();
            return;
        case Qt::Key_Escape:
            return desk_.stepBack();
        case Qt::Key_Left:
        case Qt::Key_Right: {
            int sign = event->key() == Qt::Key_Left ? -1 : 1;
            if ((alt || control) && run)
                desk_.moveEnd(control, sign * step);
            else
                desk_.walk(0, sign);
            return;
        }
        case Qt::Key_Up:
        case Qt::Key_Down: {  // walk the runs
            const auto* d = desk_.stripDesign();
            if (!d || d->runs.empty()) return;
            long n = long(d->runs.size()), at = -1;
            for (long i = 0; i < n; ++i)
                if (d->runs[std::size_t(i)].id == desk_.part()) at = i;
            int by = event->key() == Qt::Key_Down ? 1 : -1;
            at = at < 0 ? (by > 0 ? 0 : n - 1) : std::clamp(at + by, 0L, n - 1);
            desk_.selectPart(Spot::In::Run, d->runs[std::size_t(at)].id);
            return;
        }
        default:
            QWidget::keyPressEvent(event);
    }
}

}  // namespace talvik::app
