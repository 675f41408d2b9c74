#include "bases/bases_view.h"

#include <QKeyEvent>
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>
#include <map>
#include <string_view>

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
    for (auto signal : {&Session::answered, &Session::selectionChanged, &Session::placeChanged})
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
            QPolygonF outline;
            for (Point q : b->outline()) outline << at(q);
            p.drawPolygon(outline);
            if (over(*b)) {
                p.setBrush(hatch(theme().over));
                p.drawPolygon(outline);
            }
            auto rectangle = [&](double x0, double x1, double y0, double y1) {
                p.drawRect(QRectF(at({x0, y1}), at({x1, y0})));
            };
            p.setPen(QPen(mine ? theme().selection : theme().ink, 1));
            if (const auto& t = b->strap) {
                p.setBrush(theme().concrete);
                rectangle((*t)[0], (*t)[1], (*t)[2], (*t)[3]);
            }
            p.setBrush(Qt::NoBrush);
            if (b->shaped) {
                const auto& u = b->shaped->upper();
                rectangle(b->centre.x + u[0], b->centre.x + u[1], b->centre.y + u[2], b->centre.y + u[3]);
                if (!b->shaped->stepped())
                    for (int i : {0, 1})
                        for (int k : {0, 1})
                            p.drawLine(
                                at({b->centre.x + (i - 0.5) * s.B, b->centre.y + (k - 0.5) * s.L}),
                                at({b->centre.x + u[std::size_t(i)], b->centre.y + u[std::size_t(2 + k)]}));
            }
            p.setPen(QPen(theme().secondary, 1, Qt::DashLine));
            int number = 0;
            for (Point q : b->piles()) {
                const double d = set->pile.diameter / 2 * perMm_;
                const QPointF c = at({b->centre.x + q.x, b->centre.y + q.y});
                set->pile.circular ? p.drawEllipse(c, d, d)
                                   : p.drawRect(QRectF(c.x() - d, c.y() - d, 2 * d, 2 * d));
                if (++number; d > 9) {
                    p.setFont(uiFont(10));
                    p.drawText(QRectF(c.x() - d, c.y() - d, 2 * d, 2 * d), Qt::AlignCenter,
                               QString::number(number));
                }
            }
        }
    if (set->site.size() > 2) {
        QPolygonF outline;
        for (Point q : set->site) outline << at(q);
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(theme().secondary, 1.4, Qt::DashDotLine));
        p.drawPolygon(outline);
    }
    if (session_.place() == Place::Actions) paintLoads(p);
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
            const bool beside = !b->piles().empty();  // piles stand in the corners
            if (!beside && r.width() > fm.horizontalAdvance(type) + 6 && r.height() > 2.4 * fm.height())
                p.drawText(r.adjusted(0, 0, -3, -2), Qt::AlignRight | Qt::AlignBottom, type);
            if (answer->bases.size() <= 40 || (answer->bases.size() <= 200 && r.height() > 14)) {
                p.setPen(theme().secondary);
                p.drawText(QPointF(r.left(), r.top() - 3),
                           beside ? name + QStringLiteral(" · ") + type : name);
            }
        }
    }
    p.setPen(theme().secondary);
    p.setFont(uiFont(11));
    if (answer && answer->error.empty()) {
        int n = 0;
        for (const auto& b : answer->bases) n += over(*b);
        p.drawText(
            QRectF(10, height() - 22, width() - 20, 18), Qt::AlignLeft | Qt::AlignVCenter,
            tr("%1 · %2 · %3 failing%4")
                .arg(counted(answer->bases.size(), tr("base")), counted(answer->types.size(), tr("type")))
                .arg(n)
                .arg(session_.stale() ? tr(" · updating") : QString()));
    } else if (answer) {
        p.drawText(QRectF(10, height() - 22, width() - 20, 18), Qt::AlignLeft | Qt::AlignVCenter,
                   qs(answer->error));
    }
    if (hasFocus()) paintFocus(p, *this);
}

// Beside each column what acts on it, case by case, where there is room between columns.
void BasesView::paintLoads(QPainter& p) const {
    const auto* answer = session_.basesAnswer();
    const auto& set = answer && answer->error.empty() && answer->set ? *answer->set : *session_.bases();
    if (set.columns.size() > 400) return;
    p.setFont(uiFont(10));
    const QFontMetricsF fm(p.font());
    p.setPen(theme().ink);
    std::map<std::string_view, QString> names;
    for (const auto& c : set.cases) names[c.id] = qs(c.name);
    for (const auto& c : set.columns) {
        // Up to the next column in its row.
        double room = 150;
        for (const auto& o : set.columns)
            if (o.x > c.x + 1 && std::abs(o.y - c.y) < 1500) room = std::min(room, (o.x - c.x) * perMm_ - 12);
        // Where the next stands near, to the left of it.
        const bool leftwards = room < 40;
        if (leftwards) room = 110;
        // Below the base, from its left side on.
        QPointF place = at({c.x - c.width / 2, c.y - c.depth / 2});
        if (answer)
            for (const auto& b : answer->bases)
                if (std::abs(b->centre.x - c.x) <= b->size().B / 2 &&
                    std::abs(b->centre.y - c.y) <= b->size().L / 2)
                    place.setY(at({0, b->centre.y - b->size().L / 2}).y());
        double y = place.y() + fm.height();
        if (!leftwards) room = std::min(room, width() - place.x() - 4);
        for (const auto& a : c.actions) {
            QString words = session_.number(a.N, Kind::Force) + QLatin1Char(' ') + names[a.loadCase];
            const bool all = room > 110;
            if (const double H = std::hypot(a.Hx, a.Hy); H > 1 && all)
                words += tr(" · H %1").arg(session_.number(H, Kind::Force));
            if (const double M = std::hypot(a.Mx, a.My); M > 1e3 && all)
                words += tr(" · M %1").arg(session_.number(M, Kind::Moment));
            words = fm.elidedText(words, Qt::ElideRight, room);
            p.drawText(QPointF(leftwards ? place.x() - fm.horizontalAdvance(words) : place.x(), y), words);
            y += fm.height();
        }
    }
    p.setPen(theme().secondary);
    p.setFont(uiFont(11));
    p.drawText(QRectF(10, 6, width() - 20.0, 16), Qt::AlignLeft,
               tr("Characteristic loads at the top of the bases: N down and H in %1, M in %2")
                   .arg(session_.unit(Kind::Force), session_.unit(Kind::Moment)));
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

}  // namespace talvik::app
