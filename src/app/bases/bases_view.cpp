#include "bases/bases_view.h"

#include <QKeyEvent>
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {
namespace {

using geometry::Point;
using units::Kind;

bool over(const design::BasePart& b) {
    return std::any_of(b.checks.begin(), b.checks.end(),
                       [](const auto& c) { return c.outcome == checks::Outcome::Over; });
}

}  // namespace

BasesView::BasesView(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    setObjectName(QStringLiteral("basesPlan"));
    setAccessibleName(tr("Plan of the bases"));
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setMinimumSize(200, 120);
    for (auto signal : {&Session::answered, &Session::selectionChanged})
        connect(&session, signal, this, qOverload<>(&QWidget::update));
    connect(&session, &Session::changed, this, [this] {
        if (!own_) fit();
        update();
    });
}

QPointF BasesView::at(Point p) const {
    return {left_ + p.x * perMm_, top_ - p.y * perMm_};
}

void BasesView::fit() {
    const auto* set = session_.bases();
    if (!set || set->columns.empty()) return;
    double x0 = 1e300, x1 = -1e300, y0 = 1e300, y1 = -1e300;
    for (const auto& c : set->columns)
        x0 = std::min(x0, c.x), x1 = std::max(x1, c.x), y0 = std::min(y0, c.y), y1 = std::max(y1, c.y);
    constexpr double around = 2500;
    x0 -= around, x1 += around, y0 -= around, y1 += around;
    perMm_ = std::min((width() - 40) / (x1 - x0), (height() - 70) / (y1 - y0));
    left_ = width() / 2.0 - (x0 + x1) / 2 * perMm_;
    top_ = (height() - 20) / 2.0 + (y0 + y1) / 2 * perMm_;
    own_ = false;
    update();
}

void BasesView::resizeEvent(QResizeEvent*) {
    if (!own_) fit();
}

void BasesView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.fillRect(rect(), theme().paper);
    p.setRenderHint(QPainter::Antialiasing);
    const auto* set = session_.bases();
    if (!set) return;
    const auto* answer = session_.basesAnswer();
    if (set->columns.empty()) {
        p.setPen(theme().secondary);
        p.setFont(uiFont(13));
        p.drawText(rect().adjusted(20, 20, -20, -20), Qt::AlignCenter | Qt::TextWordWrap,
                   tr("No columns yet. Columns with their loads come from a table: Ctrl+Shift+K, or the "
                      "button on the left."));
        return;
    }
    if (answer)
        for (const auto& b : answer->bases) {
            const auto& s = b->size();
            const QPointF a = at({b->centre.x - s.B / 2, b->centre.y + s.L / 2});
            const QRectF r(a, QSizeF(s.B * perMm_, s.L * perMm_));
            if (!r.intersects(QRectF(rect()))) continue;
            const bool mine = session_.selection() && session_.selection()->part == b->part;
            p.setPen(QPen(mine ? theme().selection : theme().ink, mine ? 2 : 1));
            p.setBrush(theme().concrete);
            p.drawRect(r);
            if (over(*b)) {
                p.setBrush(hatch(theme().over));
                p.drawRect(r);
            }
            p.setBrush(Qt::NoBrush);
            p.setPen(QPen(theme().secondary, 1, Qt::DashLine));
            for (Point q : b->piles()) {
                const double d = set->pile.diameter / 2 * perMm_;
                const QPointF c = at({b->centre.x + q.x, b->centre.y + q.y});
                set->pile.circular ? p.drawEllipse(c, d, d)
                                   : p.drawRect(QRectF(c.x() - d, c.y() - d, 2 * d, 2 * d));
            }
        }
    p.setPen(Qt::NoPen);
    p.setBrush(theme().structure);
    for (const auto& c : set->columns) {
        const QPointF a = at({c.x - c.width / 2, c.y + c.depth / 2});
        p.drawRect(QRectF(a, QSizeF(std::max(3.0, c.width * perMm_), std::max(3.0, c.depth * perMm_))));
    }
    // Names where there is room for them.
    if (answer) {
        p.setFont(uiFont(10));
        const QFontMetricsF fm(p.font());
        for (const auto& b : answer->bases) {
            const auto& s = b->size();
            const QRectF r(at({b->centre.x - s.B / 2, b->centre.y + s.L / 2}),
                           QSizeF(s.B * perMm_, s.L * perMm_));
            const QString type = qs(b->type), name = qs(model::baseName(*set, set->bases[b->number]));
            p.setPen(theme().ink);
            if (r.width() > fm.horizontalAdvance(type) + 6 && r.height() > 2.4 * fm.height())
                p.drawText(r.adjusted(0, 0, -3, -2), Qt::AlignRight | Qt::AlignBottom, type);
            if (answer->bases.size() <= 200 && r.height() > 14) {
                p.setPen(theme().secondary);
                p.drawText(QPointF(r.left(), r.top() - 3), name);
            }
        }
    }
    p.setPen(theme().secondary);
    p.setFont(uiFont(11));
    if (answer && answer->error.empty()) {
        int n = 0;
        for (const auto& b : answer->bases) n += over(*b);
        p.drawText(QRectF(10, height() - 22, width() - 20, 18), Qt::AlignLeft | Qt::AlignVCenter,
                   tr("%1 bases of %2 types, %3 over%4")
                       .arg(answer->bases.size())
                       .arg(answer->types.size())
                       .arg(n)
                       .arg(session_.stale() ? tr(" · older than the edit") : QString()));
    } else if (answer) {
        p.drawText(QRectF(10, height() - 22, width() - 20, 18), Qt::AlignLeft | Qt::AlignVCenter,
                   qs(answer->error));
    }
    if (hasFocus()) paintFocus(p, *this);
}

const design::BasePart* BasesView::under(QPointF point) const {
    const auto* answer = session_.basesAnswer();
    if (!answer) return nullptr;
    const Point q{(point.x() - left_) / perMm_, (top_ - point.y()) / perMm_};
    const design::BasePart* found = nullptr;
    double least = 1e300;
    for (const auto& b : answer->bases) {
        const auto& s = b->size();
        const double dx = std::abs(q.x - b->centre.x), dy = std::abs(q.y - b->centre.y), more = 4 / perMm_;
        if (dx > s.B / 2 + more || dy > s.L / 2 + more) continue;
        if (const double d = std::hypot(dx, dy); d < least) least = d, found = b.get();
    }
    return found;
}

void BasesView::mousePressEvent(QMouseEvent* event) {
    setFocus();
    pressed_ = last_ = event->position();
    panning_ = event->button() == Qt::MiddleButton;
}
void BasesView::mouseMoveEvent(QMouseEvent* event) {
    const QPointF point = event->position();
    if ((event->buttons() & (Qt::LeftButton | Qt::MiddleButton)) &&
        (panning_ || (point - pressed_).manhattanLength() > 8)) {
        panning_ = own_ = true;
        left_ += point.x() - last_.x(), top_ += point.y() - last_.y();
        last_ = point;
        update();
    }
    emit pointerMoved((point.x() - left_) / perMm_, (top_ - point.y()) / perMm_);
}
void BasesView::mouseReleaseEvent(QMouseEvent* event) {
    if (!panning_ && event->button() == Qt::LeftButton) {
        const auto* b = under(event->position());
        session_.select(b ? std::optional<Spot>({b->part, Spot::In::Whole, {}}) : std::nullopt);
    }
    panning_ = false;
}
void BasesView::mouseDoubleClickEvent(QMouseEvent*) {
    emit activated();
}
void BasesView::wheelEvent(QWheelEvent* event) {
    zoom(std::pow(1.0015, event->angleDelta().y()), event->position());
}
void BasesView::zoom(double factor, QPointF point) {
    const double to = std::clamp(perMm_ * factor, 1e-4, 2.0), real = to / perMm_;
    left_ = point.x() + (left_ - point.x()) * real, top_ = point.y() + (top_ - point.y()) * real;
    perMm_ = to, own_ = true;
    update();
}

void BasesView::step(double dx, double dy) {
    const auto* answer = session_.basesAnswer();
    if (!answer || answer->bases.empty()) return;
    const design::BasePart* now = nullptr;
    if (session_.selection())
        for (const auto& b : answer->bases)
            if (b->part == session_.selection()->part) now = b.get();
    if (!now) return session_.select(Spot{answer->bases.front()->part, Spot::In::Whole, {}});
    const design::BasePart* best = nullptr;
    double least = 1e300;
    for (const auto& b : answer->bases) {
        const double x = b->centre.x - now->centre.x, y = b->centre.y - now->centre.y,
                     along = x * dx + y * dy, aside = std::abs(x * dy - y * dx);
        if (along < 1 || aside > 1.5 * along) continue;
        if (along + 2 * aside < least) least = along + 2 * aside, best = b.get();
    }
    if (best) session_.select(Spot{best->part, Spot::In::Whole, {}});
}

void BasesView::keyPressEvent(QKeyEvent* event) {
    switch (event->key()) {
        case Qt::Key_Left:
            return step(-1, 0);
        case Qt::Key_Right:
            return step(1, 0);
        case Qt::Key_Up:
            return step(0, 1);
        case Qt::Key_Down:
            return step(0, -1);
        case Qt::Key_Plus:
            return zoom(1.25, rect().center());
        case Qt::Key_Minus:
            return zoom(0.8, rect().center());
        case Qt::Key_Return:
        case Qt::Key_Enter:
            return void(emit activated());
        case Qt::Key_Escape:
            return session_.select(std::nullopt);
        default:
            QWidget::keyPressEvent(event);
    }
}

BaseSection::BaseSection(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    setObjectName(QStringLiteral("baseSection"));
    setMinimumSize(200, 120);
    for (auto signal : {&Session::answered, &Session::selectionChanged, &Session::changed})
        connect(&session, signal, this, qOverload<>(&QWidget::update));
}

void BaseSection::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.fillRect(rect(), theme().paper);
    p.setRenderHint(QPainter::Antialiasing);
    const auto* answer = session_.basesAnswer();
    const auto* set = session_.bases();
    if (!set) return;
    const design::BasePart* base = nullptr;
    if (answer && session_.selection())
        base = dynamic_cast<const design::BasePart*>(answer->find(session_.selection()->part));
    p.setFont(uiFont(12));
    p.setPen(theme().secondary);
    if (!base) {
        p.drawText(rect().adjusted(16, 16, -16, -16), Qt::AlignCenter | Qt::TextWordWrap,
                   tr("No base in hand. Click one on the plan, or walk with the arrow keys.\nHere stands its "
                      "section then, "
                      "with its bars and the pressure below it."));
        return;
    }
    const auto& s = base->size();
    const double top = 34, bottom = 116, side = 70;
    const double ground = std::max(set->ground.depth, s.h + 400), stub = std::max(400.0, ground - s.h + 300);
    const double perMm = std::min((width() - 2 * side) / s.B, (height() - top - bottom) / (s.h + stub));
    const double cx = width() / 2.0, floor = height() - bottom;
    auto at = [&](double x, double z) { return QPointF(cx + x * perMm, floor - z * perMm); };
    p.setPen(theme().selection);
    p.setFont(uiFont(13, QFont::DemiBold));
    p.drawText(QPointF(14, 20), tr("%1 · type %2").arg(qs(base->name), qs(base->type)));
    p.setPen(theme().secondary);
    p.setFont(uiFont(11));
    p.drawText(QRectF(0, 6, width() - 14, 18), Qt::AlignRight, tr("section along x"));
    // The ground and the soil's edge.
    if (set->ground.depth > s.h) {
        p.setPen(QPen(theme().secondary, 1));
        const double y = at(0, set->ground.depth).y();
        p.drawLine(QPointF(20, y), QPointF(width() - 20.0, y));
        for (double x = 30; x < width() - 20; x += 26) p.drawLine(QPointF(x, y), QPointF(x - 6, y + 6));
    }
    const double blind = set->ground.blinding;
    if (blind > 0) {
        p.setPen(QPen(theme().hairline, 1));
        p.setBrush(theme().chromeDark);
        p.drawRect(QRectF(at(-s.B / 2 - 100, 0), at(s.B / 2 + 100, -blind)));
    }
    p.setPen(QPen(theme().ink, 1.4));
    p.setBrush(theme().concrete);
    for (Point q : base->piles()) {
        const double half = set->pile.diameter / 2;
        p.drawRect(QRectF(at(q.x - half, set->pile.embedment), at(q.x + half, -900)));
    }
    p.drawRect(QRectF(at(-s.B / 2, s.h), at(s.B / 2, 0)));
    for (const auto& id : set->bases[base->number].columns)
        if (const auto* c = model::findColumn(*set, id)) {
            const double x = c->x - base->centre.x;
            p.setBrush(theme().concrete);
            p.drawRect(QRectF(at(x - c->width / 2, s.h + stub - 100), at(x + c->width / 2, s.h)));
        }
    // Bars: those along x as lines, those along y as dots.
    const double cover = answer->basis->coverBottom,
                 up = base->piles().empty() ? cover : std::max(cover, set->pile.embedment + 20);
    for (const auto& i : base->items) {
        if (i.lie.empty()) continue;
        const bool alongX = std::abs(i.lie[0].b.x - i.lie[0].a.x) > 1, upper = i.layer.starts_with('T');
        double inner = 0;
        if (i.layer.ends_with('2'))
            for (const auto& o : base->items)
                if (o.layer.starts_with(upper ? 'T' : 'B') && o.layer.ends_with('1')) inner = o.diameter;
        const double off = (upper ? cover : up) + inner + i.diameter / 2, z = upper ? s.h - off : off;
        if (alongX) {
            p.setPen(QPen(theme().barsX, std::max(2.0, i.diameter * perMm)));
            const double half = geometry::length(i.lie[0].a, i.lie[0].b) / 2;
            QPolygonF line{at(-half, z), at(half, z)};
            if (i.shape == "21") {
                const double leg = std::min(i.dimensions.at('A'), s.h - 2 * cover),
                             end = upper ? z - leg : z + leg;
                line.prepend(at(-half, end));
                line.append(at(half, end));
            }
            p.setBrush(Qt::NoBrush);
            p.drawPolyline(line);
        } else {
            p.setPen(Qt::NoPen);
            p.setBrush(theme().barsY);
            for (const auto& l : i.lie)
                p.drawEllipse(at(l.a.x - base->centre.x, z), std::max(2.0, i.diameter / 2 * perMm),
                              std::max(2.0, i.diameter / 2 * perMm));
        }
    }
    p.setFont(uiFont(11));
    p.setPen(theme().ink);
    p.drawText(QRectF(at(s.B / 2, s.h).x() + 8, (at(0, s.h).y() + at(0, 0).y()) / 2 - 9, 62, 18),
               Qt::AlignLeft | Qt::AlignVCenter, session_.text(s.h, Kind::Length));
    // Pressure along x, the larger of both edges, below.
    const double y0 = at(0, -std::max(blind, base->piles().empty() ? 0.0 : 900.0)).y() + 6;
    if (base->pressure) {
        const auto* c = base->pressure->corners;
        const double a = std::max(c[0], c[3]), b = std::max(c[1], c[2]), most = std::max({a, b, 1e-9});
        const double scale = 30 / most;
        QPolygonF shape{QPointF(at(-s.B / 2, 0).x(), y0), QPointF(at(s.B / 2, 0).x(), y0),
                        QPointF(at(s.B / 2, 0).x(), y0 + b * scale),
                        QPointF(at(-s.B / 2, 0).x(), y0 + a * scale)};
        p.setBrush(theme().concrete);
        p.setPen(QPen(theme().ink, 1));
        p.drawPolygon(shape);
        p.drawText(QRectF(at(-s.B / 2, 0).x() - 68, y0 + a * scale - 9, 62, 18),
                   Qt::AlignRight | Qt::AlignVCenter, session_.number(a, Kind::AreaLoad));
        p.drawText(QRectF(at(s.B / 2, 0).x() + 6, y0 + b * scale - 9, 66, 18),
                   Qt::AlignLeft | Qt::AlignVCenter, session_.number(b, Kind::AreaLoad));
        p.setPen(theme().secondary);
        const QString words = tr("%1 at the worse edge · %2")
                                  .arg(session_.unit(Kind::AreaLoad), qs(base->pressure->combination));
        p.drawText(QRectF(14, height() - 40.0, width() - 28, 16), Qt::AlignLeft,
                   p.fontMetrics().elidedText(words, Qt::ElideRight, width() - 28));
    }
    p.setPen(theme().ink);
    const double yd = y0 + (base->pressure ? 50 : 18);
    p.drawLine(QPointF(at(-s.B / 2, 0).x(), yd), QPointF(at(s.B / 2, 0).x(), yd));
    p.drawText(QRectF(at(-s.B / 2, 0).x(), yd - 16, s.B * perMm, 15), Qt::AlignCenter,
               session_.text(s.B, Kind::Length));
    p.setPen(theme().barsX);
    QStringList bars;
    for (const auto& i : base->items)
        bars << qs(
            schedule::callout(base->items, i.run, session_.design().marks, session_.project().basis.units));
    bars.removeDuplicates();
    p.drawText(QRectF(14, height() - 22.0, width() - 28, 16), Qt::AlignLeft,
               bars.join(QStringLiteral(" · ")));
}

}  // namespace talvik::app
