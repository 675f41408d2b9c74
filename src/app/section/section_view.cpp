#include "section/section_view.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <QWheelEvent>
#include <cmath>
#include <limits>

#include "checks/checks.h"
#include "model/edits.h"
#include "plan/plan_view.h"
#include "reinforcement/run_edits.h"
#include "widgets/inline_edit.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {
namespace {

using units::Kind;

bool isMain(model::Role role) {
    return role == model::Role::BottomMain || role == model::Role::TopMain;
}

}  // namespace

SectionView::SectionView(Session& session, StripScale& scale, QWidget* parent)
    : QWidget(parent), session_(session), scale_(scale) {
    setObjectName(QStringLiteral("section"));
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setMinimumSize(300, 230);
    setAccessibleName(tr("Long section"));
    for (auto signal :
         {&Session::changed, &Session::selectionChanged, &Session::placeChanged, &Session::stationChanged})
        connect(&session, signal, this, qOverload<>(&QWidget::update));
    connect(&scale, &StripScale::changed, this, qOverload<>(&QWidget::update));
}

double SectionView::barY(const model::BarRun& run) const {
    const auto* slab = session_.slab();
    int turn = 0;
    for (const auto& r : slab->bars) {
        if (r.id == run.id) break;
        turn += r.role == run.role;
    }
    double shift = turn % 2 ? 4 : 0;
    return model::topFace(run.role) ? bandTop + 6 + shift : bandTop + bandDepth - 6 - shift;
}

double SectionView::usualSpan() const {
    const auto* slab = session_.slab();
    return model::length(*slab) / static_cast<double>(slab->spans.size()) * scale_.perMm();
}

QPointF SectionView::handle(const model::Id& id, bool end) const {
    for (const auto& run : session_.slab()->bars)
        if (run.id == id) return {X(end ? run.to : run.from), barY(run)};
    return {};
}

QRectF SectionView::callout(const model::Id& id) const {
    int turns[2] = {0, 0};
    for (const auto& run : session_.slab()->bars) {
        if (!isMain(run.role)) continue;
        bool top = model::topFace(run.role);
        int turn = turns[top]++;
        if (run.id != id) continue;
        double x = std::max(X((run.from + run.to) / 2), 62.0);
        const auto* slab = session_.slab();
        for (std::size_t i = 0; !top && i < slab->spans.size(); ++i) {  // clear of the supports below
            double a = model::spanStart(*slab, i), b = model::spanStart(*slab, i + 1);
            if (a < (run.from + run.to) / 2 && b > (run.from + run.to) / 2 && run.from < a + 500 &&
                run.to > b - 500)
                x = X((a + b) / 2);
        }
        return top ? QRectF(x - 60, bandTop - 18 - 13 * (turn % 2), 120, 13)
                   : QRectF(x - 60, bandTop + bandDepth + 20 + 13 * (turn % 2), 120, 13);
    }
    return {};
}

QRectF SectionView::thicknessField() const {
    return QRectF(width() - 150, 6, 136, 20);
}

void SectionView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const Theme& t = theme();
    p.fillRect(rect(), t.field);
    const auto* slab = session_.slab();
    const auto* d = session_.slabDesign();
    if (!slab || !d) return;
    p.setRenderHint(QPainter::Antialiasing);
    p.setFont(uiFont(14, QFont::DemiBold));
    p.setPen(t.selection);
    QString title = tr("Strip X1");
    p.drawText(QPointF(16, 20), title);
    double at = 16 + p.fontMetrics().horizontalAdvance(title) + 14;
    p.setFont(uiFont(12));
    p.setPen(t.secondary);
    QString detail =
        tr("one-way, the whole width of %1 · per unit width").arg(session_.text(slab->width, Kind::Span));
    if (!d->error.empty()) detail = qs(d->error);
    detail = p.fontMetrics().elidedText(detail, Qt::ElideRight,
                                        static_cast<int>(thicknessField().left() + 30 - at));
    p.drawText(QPointF(at, 20), detail);
    p.setPen(t.ink);
    p.drawText(thicknessField(), Qt::AlignRight | Qt::AlignVCenter,
               tr("%1 thick").arg(session_.text(slab->thickness, Kind::Length)));
    int combinations = 0;
    for (const auto& c : d->analysis.combinations) combinations += c.state == actions::LimitState::Ultimate;
    QString envelope = tr("envelope of %1 combinations × %2 arrangements")
                           .arg(combinations)
                           .arg(d->analysis.arrangements.size());
    double room = thicknessField().left() - at - p.fontMetrics().horizontalAdvance(detail) - 30;
    p.setPen(t.secondary);
    if (p.fontMetrics().horizontalAdvance(envelope) < room)
        p.drawText(QRectF(0, 6, thicknessField().left() - 10, 20), Qt::AlignRight | Qt::AlignVCenter,
                   envelope);
    drawSlab(p);
    drawBars(p);
    if (!d->error.empty()) return;

    double space = height() - rowsTop - 6;
    bool shear = space > 150, cracks = space > 200;
    double unit = space / (2.2 + 1.35 + (shear ? 0.8 : 0) + (cracks ? 0.7 : 0)), y = rowsTop;
    auto next = [&](double share) {
        Row r{y, unit * share};
        y += r.height;
        return r;
    };
    p.setPen(QPen(t.hairline, 0.8));
    for (std::size_t i = 0; i < slab->supports.size(); ++i)
        p.drawLine(QPointF(X(model::axis(*slab, i)), rowsTop),
                   QPointF(X(model::axis(*slab, i)), height() - 4));
    drawMoments(p, next(2.2));
    if (shear) drawShear(p, next(0.8));
    if (cracks) drawCracks(p, next(0.7));
    drawSag(p, next(1.35));
    if (double x = session_.station(); std::isfinite(x)) {
        p.setPen(QPen(t.selection, 1.2, Qt::DashLine));
        p.drawLine(QPointF(X(x), header), QPointF(X(x), height()));
    }
}

std::optional<SectionView::Grip> SectionView::gripAt(QPointF point) const {
    const auto* slab = session_.slab();
    if (!slab) return {};
    std::optional<Grip> best;
    double nearest = 9;
    for (const auto& run : slab->bars) {
        if (!isMain(run.role)) continue;
        for (bool end : {false, true}) {
            QPointF h = handle(run.id, end) - point;
            double distance =
                std::hypot(h.x(), h.y()) -
                (session_.selectedId() == run.id ? 3 : 0);  // the selected run's handles come first
            if (distance < nearest) nearest = distance, best = Grip{run.id, end};
        }
    }
    return best;
}

void SectionView::mousePressEvent(QMouseEvent* event) {
    const auto* slab = session_.slab();
    if (!slab || event->button() != Qt::LeftButton) return;
    QPointF point = event->position();
    if (auto grip = gripAt(point)) {
        dragged_ = grip;
        dragOffset_ = handle(grip->run, grip->end).x() - point.x();
        session_.select(Spot::In::Run, grip->run);
        return;
    }
    for (const auto& run : slab->bars) {
        if (!isMain(run.role)) continue;
        bool onBar = std::abs(point.y() - barY(run)) < 3 && point.x() > X(run.from) && point.x() < X(run.to);
        if (callout(run.id).contains(point) || onBar) return session_.select(Spot::In::Run, run.id);
    }
    double x = scale_.toMm(point.x());
    for (std::size_t i = 0; i < slab->supports.size(); ++i)
        if (std::abs(x - model::axis(*slab, i)) < std::max(slab->supports[i].width / 2, 5 / scale_.perMm()))
            return session_.select(Spot::In::Support, slab->supports[i].id);
    for (std::size_t i = 0; i < slab->spans.size(); ++i)
        if (x > model::spanStart(*slab, i) && x < model::spanStart(*slab, i + 1))
            return session_.select(Spot::In::Span, slab->spans[i].id);
}

void SectionView::mouseMoveEvent(QMouseEvent* event) {
    const auto* slab = session_.slab();
    if (!slab) return;
    QPointF point = event->position();
    double x = scale_.toMm(point.x());
    session_.setStation(x >= model::concreteStart(*slab) && x <= model::concreteEnd(*slab)
                            ? x
                            : std::numeric_limits<double>::quiet_NaN());
    if (dragged_) {
        for (model::BarRun run : slab->bars) {
            if (run.id != dragged_->run) continue;
            double cover = session_.project().basis.coverSide,
                   step = event->modifiers() & Qt::ShiftModifier ? 100 : 10;
            double to = std::clamp(std::round(scale_.toMm(point.x() + dragOffset_) / step) * step,
                                   model::concreteStart(*slab) + cover, model::concreteEnd(*slab) - cover);
            (dragged_->end ? run.to : run.from) =
                dragged_->end ? std::max(to, run.from + 300) : std::min(to, run.to - 300);
            editRun(tr("Bar end"), run, QStringLiteral("drag"));
            break;
        }
        return;
    }
    auto grip = gripAt(point);
    setCursor(grip ? Qt::SizeHorCursor : Qt::ArrowCursor);
    if (grip.has_value() != hovered_.has_value() ||
        (grip && (grip->run != hovered_->run || grip->end != hovered_->end))) {
        hovered_ = grip;
        update();
    }
}

void SectionView::mouseReleaseEvent(QMouseEvent*) {
    if (dragged_) session_.endMerge();
    dragged_.reset();
}

void SectionView::mouseDoubleClickEvent(QMouseEvent* event) {
    const auto* slab = session_.slab();
    if (!slab) return;
    for (const auto& run : slab->bars)
        if (isMain(run.role) && callout(run.id).contains(event->position())) return editCallout(run.id);
    if (thicknessField().contains(event->position()))
        InlineEdit::open(
            this, thicknessField(), session_.number(slab->thickness, Kind::Length),
            [this](const QString& text) {
                auto parsed = units::parse(text.toStdString(), Kind::Length, session_.project().basis.units);
                if (!parsed.value) return qs(parsed.error);
                const auto* s = session_.slab();
                bool good =
                    s && session_.apply(tr("Thickness"),
                                        model::editSlab(session_.base(), s->id,
                                                        [&](model::OneWaySlab& slab_, model::Project&) {
                                                            slab_.thickness = *parsed.value;
                                                        }));
                return good ? QString() : tr("This thickness is not possible here.");
            });
}

void SectionView::editCallout(const model::Id& id) {
    const model::BarRun* run = nullptr;
    for (const auto& r : session_.slab()->bars)
        if (r.id == id) run = &r;
    if (!run) return;
    session_.select(Spot::In::Run, id);
    QString now =
        QStringLiteral("%1 @ %2").arg(qs(run->bar), session_.number(run->spacing, Kind::BarSpacing));
    InlineEdit::open(this, callout(id), now, [this, id](const QString& text) {
        for (model::BarRun changed : session_.slab()->bars) {
            if (changed.id != id) continue;
            auto written = reinforcement::readBars(text.toStdString(), session_.project().basis);
            if (!written.trouble.empty()) return qs(written.trouble);
            changed.bar = written.bar.value_or(changed.bar);
            changed.spacing = written.spacing.value_or(changed.spacing);
            return editRun(tr("Bars"), changed) ? QString() : tr("This spacing is not possible.");
        }
        return QString();
    });
}

const model::BarRun* SectionView::selectedRun() const {
    if (!session_.slab() || !session_.selected(Spot::In::Run)) return nullptr;
    for (const auto& run : session_.slab()->bars)
        if (run.id == session_.selectedId()) return &run;
    return nullptr;
}

bool SectionView::editRun(const QString& text, const model::BarRun& run, const QString& merge) {
    return session_.apply(text, model::setRun(session_.base(), session_.slab()->id, run),
                          merge.isEmpty() ? merge : merge + qs(run.id));
}

bool SectionView::changeSpacing(int steps) {
    const auto* run = selectedRun();
    if (!run) return false;
    model::BarRun changed = *run;
    changed.spacing = reinforcement::nextSpacing(run->spacing, steps, session_.project().basis);
    return editRun(tr("Spacing"), changed, QStringLiteral("spacing"));
}

bool SectionView::changeBar(int steps) {
    const auto* run = selectedRun();
    if (!run) return false;
    model::BarRun changed = *run;
    changed.bar = reinforcement::nextBar(run->bar, steps, session_.project().basis);
    return editRun(tr("Bar size"), changed, QStringLiteral("size"));
}

bool SectionView::moveEnd(bool end, double by) {
    const auto* run = selectedRun();
    if (!run) return false;
    model::BarRun changed = *run;
    double cover = session_.project().basis.coverSide, low = model::concreteStart(*session_.slab()) + cover,
           high = model::concreteEnd(*session_.slab()) - cover;
    if (end)
        changed.to = std::clamp(run->to + by, run->from + 300, high);
    else
        changed.from = std::clamp(run->from + by, low, run->to - 300);
    return editRun(tr("Bar end"), changed, end ? QStringLiteral("to") : QStringLiteral("from"));
}

bool SectionView::toggleHook(bool end) {
    const auto* run = selectedRun();
    if (!run) return false;
    model::BarRun changed = *run;
    model::BarEnd& which = end ? changed.end : changed.start;
    which = which == model::BarEnd::Hook ? model::BarEnd::Straight : model::BarEnd::Hook;
    return editRun(tr("Hook"), changed);
}

bool SectionView::removeRun() {
    const auto* run = selectedRun();
    if (!run || session_.slab()->bars.size() < 2) return false;
    model::Id id = run->id;
    bool good = session_.apply(tr("Remove bars"), model::removeRun(session_.base(), session_.slab()->id, id));
    session_.select(Spot::In::Whole);
    return good;
}

void SectionView::wheelEvent(QWheelEvent* event) {
    scale_.zoom(std::pow(1.0015, event->angleDelta().y()), event->position().x());
}

void SectionView::leaveEvent(QEvent*) {
    session_.setStation(std::numeric_limits<double>::quiet_NaN());
}

void SectionView::keyPressEvent(QKeyEvent* event) {
    double step = event->modifiers() & Qt::ShiftModifier ? 10 : 50;
    bool alt = event->modifiers() & Qt::AltModifier, control = event->modifiers() & Qt::ControlModifier;
    switch (event->key()) {
        case Qt::Key_Plus:
            changeSpacing(1);
            return;
        case Qt::Key_Minus:
            changeSpacing(-1);
            return;
        case Qt::Key_BracketRight:
            changeBar(1);
            return;
        case Qt::Key_BracketLeft:
            changeBar(-1);
            return;
        case Qt::Key_H:
            toggleHook(!(event->modifiers() & Qt::ShiftModifier));
            return;
        case Qt::Key_Delete:
            removeRun();
            return;
        case Qt::Key_Return:
        case Qt::Key_Enter:
            if (selectedRun()) editCallout(session_.selectedId());
            return;
        case Qt::Key_Escape:
            session_.stepBack();
            return;
        case Qt::Key_Left:
        case Qt::Key_Right: {
            int sign = event->key() == Qt::Key_Left ? -1 : 1;
            if (alt || control)
                moveEnd(control, sign * step);
            else
                stepSelection(session_, sign);
            return;
        }
        case Qt::Key_Up:
        case Qt::Key_Down: {  // walk the main bar runs
            std::vector<model::Id> ids;
            for (const auto& run : session_.slab()->bars)
                if (isMain(run.role)) ids.push_back(run.id);
            if (ids.empty()) return;
            auto at = std::find(ids.begin(), ids.end(), session_.selectedId());
            long n = static_cast<long>(ids.size()),
                 i = at == ids.end() ? (event->key() == Qt::Key_Down ? -1 : n) : at - ids.begin();
            session_.select(Spot::In::Run, ids[static_cast<std::size_t>(std::clamp(
                                               i + (event->key() == Qt::Key_Down ? 1 : -1), 0L, n - 1))]);
            return;
        }
        default:
            QWidget::keyPressEvent(event);
    }
}

}  // namespace talvik::app
