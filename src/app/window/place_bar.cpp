#include "window/place_bar.h"

#include <QMouseEvent>
#include <QPainter>

#include "widgets/theme.h"

namespace talvik::app {

PlaceBar::PlaceBar(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    setObjectName(QStringLiteral("placeBar"));
    setFixedHeight(44);
    setMouseTracking(true);
    setAccessibleName(tr("Places of work"));
    for (auto signal : {&Session::changed, &Session::placeChanged, &Session::fileChanged, &Session::answered})
        connect(&session, signal, this, qOverload<>(&QWidget::update));
}

QString PlaceBar::name(Place place) {
    static const QStringList names{tr("Basis"),  tr("Layout"), tr("Actions"), tr("Strips"),
                                   tr("Checks"), tr("Bars"),   tr("Issue")};
    return names[static_cast<int>(place) - 1];
}

int PlaceBar::open(const Session& session, Place place) {
    const auto& design = session.design();
    int count = 0;
    switch (place) {
        case Place::Basis:
            return static_cast<int>(design.trouble.size());
        case Place::Layout:
            if (const auto* a = session.floor() ? session.floorAnalysis() : nullptr)
                return static_cast<int>(a->trouble.size() + a->notes.size());
            return session.project().slabs.empty() && session.project().floors.empty() ? 1 : 0;
        case Place::Actions:
            if (const auto* f = session.floor()) return f->actions.loads.empty();
            for (const auto& s : session.project().slabs) count += s->imposed == 0;
            return count;
        case Place::Strips:
            if (auto d = session.floorDesign()) {
                for (const auto& c : d->layout->coverage) count += int(c.gaps.size() + c.overlaps.size());
                return count;
            }
            return 0;
        case Place::Checks:
            return design.summary().over;
        case Place::Bars:
            for (const auto& e : design.elements)
                for (const auto* c : e->all())
                    count +=
                        c->topic == checks::Topic::Flexure && c->face && c->outcome == checks::Outcome::Over;
            return count;
        case Place::Issue:
            return 0;
    }
    return 0;
}

QRectF PlaceBar::placeRect(Place place) const {
    double each = std::clamp((width() - 620.0) / 7, 70.0, 96.0),
           start = std::max(330.0, (width() - 7 * each) / 2 + 10);
    return QRectF(start + (static_cast<int>(place) - 1) * each, 7, each - 2, 30);
}

QRectF PlaceBar::standardRect() const {
    return QRectF(width() - 200, 7, 186, 30);
}

QRectF PlaceBar::slabRect() const {
    double x = 16 +
               QFontMetricsF(uiFont(14, QFont::DemiBold))
                   .horizontalAdvance(QString::fromStdString(session_.project().name)) +
               14;
    return QRectF(x, 7, std::max(60.0, placeRect(Place::Basis).left() - x - 8), 30);
}

void PlaceBar::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const Theme& t = theme();
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), t.chrome);
    p.setPen(QPen(t.hairline, 1));
    p.drawLine(0, height() - 1, width(), height() - 1);
    p.setFont(uiFont(14, QFont::DemiBold));
    p.setPen(t.ink);
    p.drawText(QRectF(16, 7, placeRect(Place::Basis).left() - 20, 30), Qt::AlignLeft | Qt::AlignVCenter,
               QString::fromStdString(session_.project().name) +
                   (session_.modified() ? QStringLiteral(" *") : QString()));
    const auto* slab = session_.slab();
    const auto* floor = session_.floor();
    if (slab || floor) {
        p.setFont(uiFont(12));
        p.setPen(hover_ == -2 ? t.selection : t.secondary);
        QString text = QString::fromStdString(slab ? slab->name : floor->name) + QStringLiteral(" ▾");
        p.drawText(slabRect(), Qt::AlignLeft | Qt::AlignVCenter,
                   p.fontMetrics().elidedText(text, Qt::ElideRight, static_cast<int>(slabRect().width())));
    }
    for (int i = 1; i <= 7; ++i) {
        Place place = static_cast<Place>(i);
        QRectF r = placeRect(place);
        bool here = session_.place() == place;
        if (here) {
            p.setPen(QPen(t.selection, 1.6));
            p.setBrush(t.field);
            p.drawRoundedRect(r.adjusted(1, 0, -1, 0), 4, 4);
        }
        int count = open(session_, place);
        p.setFont(uiFont(11));
        p.setPen(t.secondary);
        p.drawText(QRectF(r.left() + 9, r.top(), 12, r.height()), Qt::AlignLeft | Qt::AlignVCenter,
                   QString::number(i));
        p.setFont(uiFont(13, here ? QFont::DemiBold : QFont::Normal));
        p.setPen(here || hover_ == i ? t.selection : t.ink);
        p.drawText(QRectF(r.left() + 21, r.top(), r.width() - 22, r.height()),
                   Qt::AlignLeft | Qt::AlignVCenter, name(place));
        if (count > 0) {
            QString text = QString::number(count);
            double x = r.left() + 21 + p.fontMetrics().horizontalAdvance(name(place)) + 4;
            p.setFont(uiFont(10, QFont::DemiBold));
            double w = p.fontMetrics().horizontalAdvance(text) + 7;
            p.setPen(Qt::NoPen);
            p.setBrush(t.over);
            p.drawRoundedRect(QRectF(x, r.center().y() - 7, w, 14), 3, 3);
            p.setPen(Qt::white);
            p.drawText(QRectF(x, r.center().y() - 7, w, 14), Qt::AlignCenter, text);
        }
    }
    p.setFont(uiFont(12));
    p.setPen(hover_ == -1 ? t.selection : t.secondary);
    QString standard = QString::fromStdString(standards::standardTitle(session_.project().basis.standard));
    p.drawText(standardRect(), Qt::AlignRight | Qt::AlignVCenter,
               tr("%1 · %2 ▾")
                   .arg(standard,
                        session_.project().basis.units == units::System::Metric ? tr("kN m") : tr("kip ft")));
}

void PlaceBar::mousePressEvent(QMouseEvent* event) {
    for (int i = 1; i <= 7; ++i)
        if (placeRect(static_cast<Place>(i)).contains(event->position()))
            return session_.setPlace(static_cast<Place>(i));
    if (standardRect().contains(event->position()))
        emit standardWanted(mapToGlobal(QPoint(width() - 200, height())));
    else if ((session_.slab() || session_.floor()) && slabRect().contains(event->position()))
        emit slabWanted(mapToGlobal(QPoint(static_cast<int>(slabRect().left()), height())));
}

void PlaceBar::mouseMoveEvent(QMouseEvent* event) {
    int now = standardRect().contains(event->position()) ? -1
              : slabRect().contains(event->position())   ? -2
                                                         : 0;
    for (int i = 1; i <= 7; ++i)
        if (placeRect(static_cast<Place>(i)).contains(event->position())) now = i;
    if (now != hover_) {
        hover_ = now;
        setCursor(now ? Qt::PointingHandCursor : Qt::ArrowCursor);
        update();
    }
}

void PlaceBar::leaveEvent(QEvent*) {
    hover_ = 0;
    update();
}

}  // namespace talvik::app
