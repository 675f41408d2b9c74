#include "plan/plan_view.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>
#include <cmath>
#include <limits>

#include "model/edits.h"
#include "widgets/inline_edit.h"
#include "widgets/labels.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {
namespace {

using units::Kind;

}  // namespace

PlanView::PlanView(Session& session, BarDesk& desk, StripScale& scale, QWidget* parent)
    : QWidget(parent), session_(session), desk_(desk), scale_(scale) {
    setObjectName(QStringLiteral("plan"));
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setMinimumSize(300, 180);
    setAccessibleName(tr("Plan"));
    for (auto signal : {&Session::changed, &Session::answered, &Session::selectionChanged,
                        &Session::placeChanged, &Session::stationChanged})
        connect(&session, signal, this, qOverload<>(&QWidget::update));
    connect(&scale, &StripScale::changed, this, qOverload<>(&QWidget::update));
}

void PlanView::fit() {
    const auto* slab = session_.slab();
    ownView_ = false;
    if (!slab) return;
    double x0 = model::concreteStart(*slab), x1 = model::concreteEnd(*slab);
    double perMm = std::min((width() - 150.0) / (x1 - x0), (height() - 150.0) / slab->width);
    scale_.set(105 + (width() - 150 - (x1 - x0) * perMm) / 2 - x0 * perMm, perMm);
    yTop_ = 78 + std::max(0.0, (height() - 150 - slab->width * scale_.perMm()) / 2);
}

QPointF PlanView::at(double x, double y) const {
    const auto* slab = session_.slab();
    return {scale_.toPixel(x), yTop_ + ((slab ? slab->width : 0) - y) * scale_.perMm()};
}

QRectF PlanView::concrete() const {
    const auto* slab = session_.slab();
    return QRectF(at(model::concreteStart(*slab), slab->width), at(model::concreteEnd(*slab), 0));
}

QPointF PlanView::spanCentre(std::size_t span) const {
    const auto* slab = session_.slab();
    return at(model::spanStart(*slab, span) + slab->spans[span].length / 2, slab->width * 0.72);
}

QRectF PlanView::spanDimension(std::size_t span) const {
    const auto* slab = session_.slab();
    QPointF c = at(model::spanStart(*slab, span) + slab->spans[span].length / 2, 0);
    return QRectF(c.x() - 32, c.y() + 12, 64, 18);
}

void PlanView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const Theme& t = theme();
    p.fillRect(rect(), t.paper);
    const auto* slab = session_.slab();
    if (!slab) {
        p.setPen(t.secondary);
        p.setFont(uiFont(14));
        p.drawText(rect(), Qt::AlignCenter,
                   tr("There is no slab yet.\nChoose File ▸ Add slab, then type its spans "
                      "in Layout (2)."));
        return;
    }
    if (!session_.design().trouble.empty()) {
        p.setPen(t.over);
        p.drawText(rect(), Qt::AlignCenter | Qt::TextWordWrap, qs(session_.design().trouble.front().message));
        return;
    }
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(concrete(), t.concrete);
    drawSelection(p);
    drawSupports(p);
    p.setPen(QPen(t.ink, 1.6));
    p.setBrush(Qt::NoBrush);
    p.drawRect(concrete());
    drawGrid(p);
    drawDimensions(p);
    switch (session_.place()) {
        case Place::Actions:
            drawLoads(p);
            break;
        case Place::Checks:
            drawVerdicts(p);
            break;
        case Place::Bars:
            drawBars(p);
            break;
        default:
            break;
    }
    if (double x = session_.station(); std::isfinite(x)) {
        p.setPen(QPen(t.selection, 1.2, Qt::DashLine));
        p.drawLine(QPointF(scale_.toPixel(x), 0), QPointF(scale_.toPixel(x), height()));
    }
    drawScaleBar(p);
    paintFocus(p, *this);
}

void PlanView::drawSelection(QPainter& p) const {
    const auto* slab = session_.slab();
    if (!session_.selection()) return;
    QColor tint = theme().selection;
    tint.setAlpha(28);
    p.fillRect(concrete(), tint);
    p.setPen(QPen(theme().selection, 1.2));
    QRectF c = concrete();
    p.drawLine(c.topLeft(), c.topRight());
    p.drawLine(c.bottomLeft(), c.bottomRight());
    tint.setAlpha(60);
    for (std::size_t i = 0; i < slab->spans.size(); ++i)
        if (session_.selected(Spot::In::Span, slab->spans[i].id))
            p.fillRect(
                QRectF(at(model::spanStart(*slab, i), slab->width), at(model::spanStart(*slab, i + 1), 0)),
                tint);
    for (std::size_t i = 0; i < slab->supports.size(); ++i)
        if (session_.selected(Spot::In::Support, slab->supports[i].id)) {
            double x = model::axis(*slab, i),
                   half = std::max(slab->supports[i].width / 2, 5 / scale_.perMm());
            p.fillRect(QRectF(at(x - half, slab->width + 300), at(x + half, -300)), tint);
        }
}

void PlanView::drawSupports(QPainter& p) const {
    const auto* slab = session_.slab();
    const Theme& t = theme();
    for (std::size_t i = 0; i < slab->supports.size(); ++i) {
        double x = model::axis(*slab, i), half = slab->supports[i].width / 2;
        QRectF r(at(x - half, slab->width), at(x + half, 0));
        if (slab->supports[i].kind == model::Support::Kind::Wall) {
            p.fillRect(r, t.structure);
        } else {
            p.setPen(QPen(t.secondary, 1, Qt::DashLine));
            p.drawLine(r.topLeft(), r.bottomLeft());
            p.drawLine(r.topRight(), r.bottomRight());
        }
    }
}

void PlanView::drawGrid(QPainter& p) const {
    const auto* slab = session_.slab();
    const Theme& t = theme();
    p.setFont(uiFont(12, QFont::DemiBold));
    double lastBubble = 0;
    for (std::size_t i = 0; i < slab->supports.size(); ++i) {
        double x = scale_.toPixel(model::axis(*slab, i));
        p.setPen(QPen(t.secondary, 0.8, Qt::DashDotLine));
        p.drawLine(QPointF(x, concrete().top() - 26), QPointF(x, concrete().bottom() + 8));
        if (i && x - lastBubble < 24) continue;  // no room: zoom in to see the axes between
        lastBubble = x;
        QRectF bubble(x - 11, concrete().top() - 48, 22, 22);
        bool chosen = session_.selected(Spot::In::Support, slab->supports[i].id);
        p.setPen(QPen(chosen ? t.selection : t.secondary, chosen ? 2 : 1));
        p.setBrush(t.paper);
        p.drawEllipse(bubble);
        p.setPen(chosen ? t.selection : t.ink);
        p.drawText(bubble, Qt::AlignCenter, qs(model::supportLabel(*slab, i)));
    }
}

void PlanView::drawDimensions(QPainter& p) const {
    const auto* slab = session_.slab();
    const Theme& t = theme();
    p.setFont(uiFont(12));
    bool layout = session_.place() == Place::Layout;
    double y = concrete().bottom() + 32;
    for (std::size_t i = 0; i < slab->spans.size(); ++i) {
        double a = scale_.toPixel(model::spanStart(*slab, i)),
               b = scale_.toPixel(model::spanStart(*slab, i + 1));
        p.setPen(QPen(t.secondary, 0.8));
        p.drawLine(QPointF(a, y), QPointF(b, y));
        for (double x : {a, b}) p.drawLine(QPointF(x - 3, y + 3), QPointF(x + 3, y - 3));
        p.setPen(layout ? t.selection : t.ink);
        QString text = session_.number(slab->spans[i].length, Kind::Span);
        if (i == 0) text += QStringLiteral(" ") + session_.unit(Kind::Span);
        if (b - a > p.fontMetrics().horizontalAdvance(text))
            p.drawText(QRectF(a, y - 19, b - a, 16), Qt::AlignCenter, text);
    }
    // Width, at the left.
    double x = concrete().left() - 30;
    p.setPen(QPen(t.secondary, 0.8));
    p.drawLine(QPointF(x, concrete().top()), QPointF(x, concrete().bottom()));
    for (double yy : {concrete().top(), concrete().bottom()})
        p.drawLine(QPointF(x - 3, yy + 3), QPointF(x + 3, yy - 3));
    p.save();
    p.translate(x - 4, concrete().center().y());
    p.rotate(-90);
    p.setPen(t.ink);
    p.drawText(QRectF(-60, -16, 120, 15), Qt::AlignCenter, session_.text(slab->width, Kind::Span));
    p.restore();
    p.setFont(uiFont(12));
    p.setPen(t.ink);
    if (session_.place() == Place::Bars) return;
    const QString thick = tr("%1 thick").arg(session_.text(slab->thickness, Kind::Length));
    const QRectF box(concrete().left() + 6, concrete().top() + 5,
                     p.fontMetrics().horizontalAdvance(thick) + 6, 17);
    p.fillRect(box, t.concrete);
    p.drawText(box, Qt::AlignCenter, thick);
}

void PlanView::drawLoads(QPainter& p) const {
    const auto* slab = session_.slab();
    const auto* d = session_.slabDesign();
    if (!d || !d->error.empty()) return;
    const Theme& t = theme();
    const auto& l = d->analysis.load;
    // Diagonals say that the load covers all of it.
    p.setPen(QPen(t.attention, 0.8, Qt::DotLine));
    for (std::size_t i = 0; i < slab->spans.size(); ++i)
        p.drawLine(at(model::spanStart(*slab, i), 0), at(model::spanStart(*slab, i + 1), slab->width));
    QRectF box = concrete();
    QStringList lines{
        tr("self-weight %1").arg(session_.text(l.self, Kind::AreaLoad)),
        tr("finishes %1").arg(session_.text(l.finishes, Kind::AreaLoad)),
        tr("other permanent %1").arg(session_.text(l.other, Kind::AreaLoad)),
        tr("imposed %1, use %2").arg(session_.text(l.imposed, Kind::AreaLoad), qs(slab->imposedUse))};
    p.setFont(uiFont(13));
    QRectF note(box.center().x() - 130, box.center().y() - 46, 260, 92);
    p.setBrush(t.paper);
    p.setPen(QPen(t.hairline, 1));
    p.drawRoundedRect(note, 4, 4);
    p.setPen(t.ink);
    p.drawText(note, Qt::AlignCenter, lines.join(QLatin1Char('\n')));
}

// Worst ratio of every span and support, and a hatch where something is over.
void PlanView::drawVerdicts(QPainter& p) const {
    const auto* slab = session_.slab();
    const auto* d = session_.slabDesign();
    if (!d || !d->error.empty()) return;
    const Theme& t = theme();
    auto worst = [&](const model::Id& id) {
        const checks::Check* found = nullptr;
        for (const auto& c : d->checks)
            if (c.place.spot.id == id && (checks::isJudged(c)) &&
                (!found || checks::ratio(c) > checks::ratio(*found)))
                found = &c;
        return found;
    };
    Labels labels;
    auto tag = [&](QPointF centre, const checks::Check& c, const QString& label) {
        bool over = c.outcome == checks::Outcome::Over;
        QString text = QStringLiteral("%1  %2").arg(label, qs(checks::ratioText(c)));
        p.setFont(uiFont(12, over ? QFont::DemiBold : QFont::Normal));
        double w = p.fontMetrics().horizontalAdvance(text) + 14;
        const auto free = labels.place(QRectF(centre.x() - w / 2, centre.y() - 11, w, 22));
        if (!free) return;  // no room: zoom in
        const QRectF& r = *free;
        p.setBrush(t.paper);
        p.setPen(QPen(over ? t.over : t.hairline, 1));
        p.drawRoundedRect(r, 3, 3);
        p.setPen(over ? t.over : t.ink);
        p.drawText(r, Qt::AlignCenter, text);
    };
    for (std::size_t i = 0; i < slab->spans.size(); ++i) {
        const auto* c = worst(slab->spans[i].id);
        if (!c) continue;
        QRectF r(at(model::faceBefore(*slab, i), slab->width * 0.62),
                 at(model::faceAfter(*slab, i), slab->width * 0.38));
        if (c->outcome == checks::Outcome::Over) p.fillRect(r, hatch(t.over));
        tag(r.center(), *c, qs(model::spanLabel(*slab, i)));
    }
    for (std::size_t i = 0; i < slab->supports.size(); ++i) {
        const auto* c = worst(slab->supports[i].id);
        if (!c) continue;
        double x = model::axis(*slab, i), half = slab->supports[i].width / 2 + 200;
        QRectF r(at(x - half, slab->width * 0.30), at(x + half, slab->width * 0.10));
        if (c->outcome == checks::Outcome::Over) p.fillRect(r, hatch(t.over));
        tag(r.center(), *c, qs(model::supportLabel(*slab, i)));
    }
}

double PlanView::barY(const bars::Run& run, int turn) const {
    const auto* slab = session_.slab();
    bool top = run.top();
    double share = top ? (turn % 2 ? 0.90 : 0.76) : (turn % 2 ? 0.40 : 0.54);
    return slab->width * share;
}

void PlanView::drawBars(QPainter& p) const {
    const auto* slab = session_.slab();
    const auto* d = session_.slabDesign();
    if (!d || !d->error.empty()) return;
    const Theme& t = theme();
    int turns[2] = {0, 0}, crossTurn = 0;
    struct Callout {
        QPointF centre;
        const bars::Run* run;
        QColor ink;
    };
    std::vector<Callout> callouts;
    auto label = [&](QPointF centre, const bars::Run& run, const QColor& colour, bool chosen) {
        callouts.push_back({centre, &run, chosen ? t.selection : colour});
    };
    for (const auto& run : d->bars) {
        bool top = run.top(), chosen = session_.selected(Spot::In::Run, run.id);
        if (run.role == model::Role::BottomMain || run.role == model::Role::TopMain) {
            double y = barY(run, turns[top]++);
            QColor colour = chosen ? t.selection : t.barsX;
            p.setPen(QPen(colour, chosen ? 3 : 2, top ? Qt::DashLine : Qt::SolidLine));
            p.drawLine(at(run.from, y), at(run.to, y));
            p.setPen(QPen(colour, 1.4));
            for (double x : {run.from, run.to})
                p.drawLine(at(x, y) + QPointF(0, -4), at(x, y) + QPointF(0, 4));
            label(at((run.from + run.to) / 2, y), run, colour, chosen);
        } else if (model::across(run.role)) {
            // The zone across which they lie, as a line with end ticks, and one of the bars.
            double y = slab->width * (top ? 0.06 : 0.24),
                   x = run.from + (run.to - run.from) * (top ? 0.85 : 0.47);
            QColor colour = chosen ? t.selection : t.barsY;
            p.setPen(QPen(colour, 1.4, top ? Qt::DashLine : Qt::SolidLine));
            p.drawLine(at(x, slab->width * (top ? 0.02 : 0.10)), at(x, slab->width * (top ? 0.18 : 0.34)));
            p.setPen(QPen(t.secondary, 0.8));
            p.drawLine(at(run.from, y), at(run.to, y));
            for (double end : {run.from, run.to})
                p.drawLine(at(end, y) + QPointF(0, -3), at(end, y) + QPointF(0, 3));
            if (!top || crossTurn++ % 2 == 0 || chosen)
                label(at((run.from + run.to) / 2, y), run, colour, chosen);
        }
    }
    // Over the bars, and clear of each other.
    Labels labels;
    for (const auto& c : callouts) {
        p.setFont(uiFont(11, session_.selected(Spot::In::Run, c.run->id) ? QFont::DemiBold : QFont::Normal));
        const QString text = qs(session_.design().callout(*d, c.run->id, session_.project().basis.units));
        const double w = p.fontMetrics().horizontalAdvance(text) + 6;
        const auto box = labels.place(QRectF(c.centre.x() - w / 2, c.centre.y() - 17, w, 14));
        if (!box) continue;
        p.fillRect(*box, t.concrete);
        p.setPen(c.ink);
        p.drawText(*box, Qt::AlignCenter, text);
    }
}

void PlanView::drawScaleBar(QPainter& p) const {
    const Theme& t = theme();
    bool metric = session_.project().basis.units == units::System::Metric;
    double unit = metric ? 1000 : 304.8, steps[] = {0.5, 1, 2, 5, 10, 20, 50};
    double length = steps[0];
    for (double s : steps)
        if (s * unit * scale_.perMm() < 130) length = s;
    double x = 18, y = height() - 14, w = length * unit * scale_.perMm();
    p.setPen(QPen(t.ink, 1.6));
    p.drawLine(QPointF(x, y), QPointF(x + w, y));
    p.setFont(uiFont(10));
    p.setPen(t.secondary);
    p.drawText(QRectF(x, y - 16, w, 12), Qt::AlignLeft, QStringLiteral("0"));
    p.drawText(QRectF(x, y - 16, w, 12), Qt::AlignRight,
               QStringLiteral("%1 %2").arg(length).arg(metric ? QStringLiteral("m") : QStringLiteral("ft")));
}

std::optional<Spot> PlanView::under(QPointF point) const {
    const auto* slab = session_.slab();
    if (!slab) return {};
    const model::PartRef part{slab->id, model::PartKind::OneWaySlab, {}};
    if (const auto* d = session_.slabDesign(); d && session_.place() == Place::Bars) {
        int turns[2] = {0, 0};
        for (const auto& run : d->bars) {
            if (run.role != model::Role::BottomMain && run.role != model::Role::TopMain) continue;
            double y = at(0, barY(run, turns[run.top()]++)).y(), a = scale_.toPixel(run.from),
                   b = scale_.toPixel(run.to);
            if (point.x() > a - 3 && point.x() < b + 3 && point.y() > y - 18 && point.y() < y + 5)
                return Spot{part, Spot::In::Run, run.id};
        }
    }
    for (std::size_t i = 0; i < slab->supports.size(); ++i) {
        double x = scale_.toPixel(model::axis(*slab, i)),
               half = std::max(6.0, slab->supports[i].width / 2 * scale_.perMm());
        bool bubble = QRectF(x - 12, concrete().top() - 50, 24, 26).contains(point);
        if (bubble ||
            (std::abs(point.x() - x) <= half && concrete().adjusted(-20, -20, 20, 10).contains(point)))
            return Spot{part, Spot::In::Support, slab->supports[i].id};
    }
    if (!concrete().contains(point)) return {};
    if (!session_.selection()) return Spot{part, Spot::In::Whole, {}};
    double x = scale_.toMm(point.x());
    for (std::size_t i = 0; i < slab->spans.size(); ++i)
        if (x >= model::spanStart(*slab, i) && x <= model::spanStart(*slab, i + 1))
            return Spot{part, Spot::In::Span, slab->spans[i].id};
    return Spot{part, Spot::In::Whole, {}};
}

void PlanView::mousePressEvent(QMouseEvent* event) {
    pressed_ = lastDrag_ = event->position();
    panning_ = event->button() == Qt::MiddleButton;
}

void PlanView::mouseMoveEvent(QMouseEvent* event) {
    const auto* slab = session_.slab();
    if (!slab) return;
    QPointF point = event->position();
    if ((event->buttons() & (Qt::LeftButton | Qt::MiddleButton)) &&
        (panning_ || (point - pressed_).manhattanLength() > 8)) {
        panning_ = ownView_ = true;
        scale_.pan(point.x() - lastDrag_.x());
        yTop_ += point.y() - lastDrag_.y();
        lastDrag_ = point;
        setCursor(Qt::ClosedHandCursor);
    }
    double x = scale_.toMm(point.x()), y = slab->width - (point.y() - yTop_) / scale_.perMm();
    session_.setStation(concrete().contains(point) ? x : std::numeric_limits<double>::quiet_NaN());
    emit pointerMoved(x, y);
}

void PlanView::mouseReleaseEvent(QMouseEvent* event) {
    if (!panning_ && event->button() == Qt::LeftButton) session_.select(under(event->position()));
    panning_ = false;
    unsetCursor();
}

void PlanView::mouseDoubleClickEvent(QMouseEvent* event) {
    const auto* slab = session_.slab();
    if (!slab) return;
    for (std::size_t i = 0; i < slab->spans.size(); ++i)
        if (spanDimension(i).contains(event->position())) return editSpan(i);
    emit activated();
}

void PlanView::editSpan(std::size_t span) {
    const auto* slab = session_.slab();
    const auto system = session_.project().basis.units;
    InlineEdit::open(this, spanDimension(span), session_.number(slab->spans[span].length, Kind::Span),
                     [this, span, system](const QString& text) {
                         auto parsed = units::parse(text.toStdString(), Kind::Span, system);
                         if (!parsed.value) return qs(parsed.error);
                         const auto* s = session_.slab();
                         if (!s || span >= s->spans.size()) return QString();
                         std::vector<double> lengths;
                         for (const auto& each : s->spans) lengths.push_back(each.length);
                         lengths[span] = *parsed.value;
                         bool good = session_.apply(tr("Span %1").arg(qs(model::spanLabel(*s, span))),
                                                    model::setSpans(session_.base(), s->id, lengths,
                                                                    s->cantileverStart, s->cantileverEnd));
                         return good ? QString() : tr("This length is not possible here.");
                     });
}

void PlanView::wheelEvent(QWheelEvent* event) {
    ownView_ = true;
    double factor = std::pow(1.0015, event->angleDelta().y());
    double before = scale_.perMm();
    scale_.zoom(factor, event->position().x());
    double k = scale_.perMm() / before;
    yTop_ = event->position().y() - (event->position().y() - yTop_) * k;
    update();
}

void PlanView::leaveEvent(QEvent*) {
    session_.setStation(std::numeric_limits<double>::quiet_NaN());
}

void PlanView::resizeEvent(QResizeEvent*) {
    if (!ownView_) fit();
}

void PlanView::keyPressEvent(QKeyEvent* event) {
    switch (event->key()) {
        case Qt::Key_Left:
            return desk_.walk(-1);
        case Qt::Key_Right:
            return desk_.walk(1);
        case Qt::Key_Escape:
            return session_.stepBack();
        case Qt::Key_Return:
        case Qt::Key_Enter:
            if (!session_.selection()) session_.select(Spot::In::Whole);
            emit activated();
            return;
        default:
            QWidget::keyPressEvent(event);
    }
}

}  // namespace talvik::app
