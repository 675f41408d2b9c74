// Connections on the plan of a floor: how much each is used, and perimeters and shear steel of the one in
// hand.
#include <QPainter>

#include "board/floor_canvas.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {

void FloorCanvas::paintConnections(QPainter& p) {
    const Theme& t = theme();
    const bool checks = session_.place() == Place::Checks;
    const auto* hand = connections_.inHand();
    p.setOpacity(session_.stale() ? 0.5 : 1);
    auto path = [&](const std::vector<geometry::Point>& points) {
        QPolygonF line;
        for (auto q : points) line << toPixel(q.x, q.y);
        return line;
    };
    // Shear steel of all where bars are worked on; of the one in hand everywhere.
    for (const auto& c : connections_.all()) {
        if (!c->steel || (c.get() != hand && session_.place() != Place::Bars && !checks)) continue;
        const bool here = c.get() == hand;
        p.setPen(QPen(t.barsY, here ? 1.4 : 0.9));
        for (const auto& line : c->steel->legs.lines) {
            const double last = c->steel->first + (line.perimeters - 1) * c->steel->spacing;
            p.drawLine(toPixel(line.face.x + c->steel->first * line.way.x,
                               line.face.y + c->steel->first * line.way.y),
                       toPixel(line.face.x + last * line.way.x, line.face.y + last * line.way.y));
        }
        if (!here || scale_ < 0.02) continue;
        p.setBrush(t.barsY);
        const double r = std::max(1.6, c->steel->diameter * scale_ / 2);
        for (const auto& leg : c->steel->legs.legs) {
            p.setBrush(leg.counts ? QBrush(t.barsY) : QBrush(t.paper));
            p.drawEllipse(toPixel(leg.at.x, leg.at.y), r, r);
        }
        p.setBrush(Qt::NoBrush);
    }
    if (hand) {
        p.setBrush(Qt::NoBrush);
        for (std::size_t i = 0; i < hand->sections.size(); ++i) {
            const auto& s = hand->sections[i];
            if (s.at == standards::ControlSection::At::Face) continue;
            const bool strong = &s == hand->shown();
            const bool over = hand->demand[i].ratio() > 1 && !hand->steel;
            p.setPen(QPen(over ? t.over : t.ink, strong ? 2.2 : 1.1));
            for (const auto& line : s.line.paths) p.drawPolyline(path(line));
            p.setPen(QPen(t.secondary, 1.1, Qt::DashLine));
            for (const auto& line : s.line.dead) p.drawPolyline(path(line));
        }
        if (hand->steel) {
            p.setPen(QPen(t.selection, 1.2));
            for (const auto& line : hand->steel->outer.line.paths) p.drawPolyline(path(line));
        }
        // What is loaded, as chosen.
        QPolygonF ring;
        for (auto q : hand->place.site.loaded) ring << toPixel(q.x, q.y);
        p.setPen(QPen(t.selection, 2));
        p.drawPolygon(ring);
        p.setFont(uiFont(11));
        if (const auto* s = hand->shown(); s && !s->line.paths.empty()) {
            const auto& first = s->line.paths.front();
            const auto at = first[first.size() / 8];
            tag(p, toPixel(at.x, at.y), tr("u %1").arg(session_.text(s->length, units::Kind::Length)), t.ink);
        }
    }
    // How much each is used: beside the column, those over in their colour.
    if (checks) {
        p.setFont(uiFont(11, QFont::DemiBold));
        for (const auto& c : connections_.all()) {
            const double worst = c->worst();
            if (worst <= 0 || (worst <= 1 && scale_ < 0.016) || c->site->members.size() > 1) continue;
            const double r = std::max(c->place.c1, c->place.c2) / 2 * scale_;
            tag(p, toPixel(c->place.middle.x, c->place.middle.y) + QPointF(r + 4, r + 10),
                QString::number(worst, 'f', 2), worst > 1 ? t.over : t.ink, false);
        }
    }
    p.setOpacity(1);
}

}  // namespace talvik::app
