#include "window/place_bar.h"

#include <QMouseEvent>
#include <QPainter>

#include "widgets/theme.h"

namespace talvik::app {

PlaceBar::PlaceBar(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    setObjectName(QStringLiteral("placeBar"));
    setFixedHeight(44);
    setMouseTracking(true);
    setAccessibleName(tr("Places"));
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
            if (const auto* set = session.bases()) return set->columns.empty() ? 1 : 0;
            if (!session.slab() && !session.floor()) return 1;
            [[fallthrough]];
        case Place::Actions:
            for (const auto& m : session.matters())
                count += (m.kind == report::Matter::Kind::Loose) == (place == Place::Layout);
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

// As wide as its number, name and count are; wider where there is room.
double PlaceBar::placeWidth(Place place) const {
    const int count = open(session_, place);
    const double counted =
        count > 0 ? QFontMetricsF(uiFont(10, QFont::DemiBold)).horizontalAdvance(QString::number(count)) + 11
                  : 0;
    return 27 + QFontMetricsF(uiFont(13, QFont::DemiBold)).horizontalAdvance(name(place)) + counted +
           std::clamp((width() - 1060.0) / 7, 0.0, 24.0);
}
double PlaceBar::placesStart() const {
    double all = 0;
    for (int i = 1; i <= 7; ++i) all += placeWidth(static_cast<Place>(i));
    // In the middle where both sides have room; else what is left of the standard.
    return std::min((width() - all) / 2 + 10, standardRect().left() - all - 6);
}
QRectF PlaceBar::placeRect(Place place) const {
    double x = placesStart();
    for (int i = 1; i < static_cast<int>(place); ++i) x += placeWidth(static_cast<Place>(i));
    return QRectF(x, 7, placeWidth(place) - 2, 30);
}

QString PlaceBar::standard() const {
    const auto& basis = session_.project().basis;
    return tr("%1 · %2 ▾")
        .arg(QString::fromStdString(standards::standardTitle(basis.standard)),
             basis.units == units::System::Metric ? tr("kN m") : tr("kip ft"));
}
QRectF PlaceBar::standardRect() const {
    const double w = QFontMetricsF(uiFont(12)).horizontalAdvance(standard()) + 4;
    return QRectF(width() - w - 14, 7, w, 30);
}

QRectF PlaceBar::elementRect() const {
    // The project's name gives way to that of the element.
    const double left = placesStart() - 8,
                 project = QFontMetricsF(uiFont(14, QFont::DemiBold))
                               .horizontalAdvance(QString::fromStdString(session_.project().name + " *")),
                 element = QFontMetricsF(uiFont(12)).horizontalAdvance(elementText()),
                 x = 16 + std::max(40.0, std::min(project + 14, left - 16 - element));
    return QRectF(x, 7, std::max(40.0, left - x), 30);
}
QString PlaceBar::elementText() const {
    const auto* slab = session_.slab();
    const auto* floor = session_.floor();
    if (const auto* set = session_.bases()) return QString::fromStdString(set->name) + QStringLiteral(" ▾");
    return slab || floor ? QString::fromStdString(slab ? slab->name : floor->name) + QStringLiteral(" ▾")
                         : QString();
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
    const QRectF element = elementRect();
    p.drawText(QRectF(16, 7, element.left() - 26, 30), Qt::AlignLeft | Qt::AlignVCenter,
               p.fontMetrics().elidedText(QString::fromStdString(session_.project().name) +
                                              (session_.modified() ? QStringLiteral(" *") : QString()),
                                          Qt::ElideRight, static_cast<int>(element.left()) - 26));
    p.setFont(uiFont(12));
    p.setPen(hover_ == -2 ? t.selection : t.secondary);
    p.drawText(element, Qt::AlignLeft | Qt::AlignVCenter,
               p.fontMetrics().elidedText(elementText(), Qt::ElideRight, static_cast<int>(element.width())));
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
    p.drawText(standardRect(), Qt::AlignRight | Qt::AlignVCenter, standard());
}

void PlaceBar::mousePressEvent(QMouseEvent* event) {
    for (int i = 1; i <= 7; ++i)
        if (placeRect(static_cast<Place>(i)).contains(event->position()))
            return session_.setPlace(static_cast<Place>(i));
    if (standardRect().contains(event->position()))
        emit standardWanted(mapToGlobal(QPoint(static_cast<int>(standardRect().left()), height())));
    else if (elementRect().contains(event->position()))
        emit elementWanted(mapToGlobal(QPoint(static_cast<int>(elementRect().left()), height())));
}

void PlaceBar::mouseMoveEvent(QMouseEvent* event) {
    int now = standardRect().contains(event->position())  ? -1
              : elementRect().contains(event->position()) ? -2
                                                          : 0;
    for (int i = 1; i <= 7; ++i)
        if (placeRect(static_cast<Place>(i)).contains(event->position())) now = i;
    if (now != hover_) {
        hover_ = now;
        setToolTip(now > 0 ? tr("%1 (Ctrl+%2)").arg(name(static_cast<Place>(now))).arg(now) : QString());
        setCursor(now ? Qt::PointingHandCursor : Qt::ArrowCursor);
        update();
    }
}

void PlaceBar::leaveEvent(QEvent*) {
    hover_ = 0;
    update();
}

}  // namespace talvik::app
