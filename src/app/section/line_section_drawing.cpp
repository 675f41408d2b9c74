// How the long section is drawn: its edits stand in line_section.cpp.
#include <QPainter>
#include <QPainterPath>
#include <cmath>

#include "section/line_section.h"
#include "strips/strip_edits.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {
namespace {

using units::Kind;
using Style = drawing::LongSection::Style;

QString shortWord(model::EndCondition c) {
    switch (c) {
        case model::EndCondition::Free:
            return QObject::tr("free");
        case model::EndCondition::OnBeam:
            return QObject::tr("beam");
        case model::EndCondition::Continuous:
            return QObject::tr("cont.");
        case model::EndCondition::Cantilever:
            return QObject::tr("tip");
    }
    return {};
}

}  // namespace

void LineSection::paintEvent(QPaintEvent*) {
    QPainter p(this);
    still_.paint(p, *this, [this](QPainter& inner) { drawAll(inner); });
    p.setRenderHint(QPainter::Antialiasing);
    if (session_.line()) drawStation(p);
    paintFocus(p, *this);
}

void LineSection::drawAll(QPainter& p) {
    const Theme& t = theme();
    p.fillRect(rect(), t.field);
    p.setRenderHint(QPainter::Antialiasing);
    const auto* line = session_.line();
    auto say = [&](const QString& text) {
        p.setFont(uiFont(12));
        p.setPen(t.secondary);
        p.drawText(rect().adjusted(30, 30, -30, -30), Qt::AlignCenter | Qt::TextWordWrap, text);
    };
    if (!line) {
        const auto* answer = session_.answer();
        if (answer && !answer->error.empty()) return say(qs(answer->error));
        return say(session_.stale() && session_.selection() ? tr("Designing…") : emptyText_);
    }
    placeCallouts();
    drawHeader(p);
    if (session_.stale() && session_.floor()) p.setOpacity(0.5);
    drawConcrete(p);
    drawBars(p);
    // Rows, the least important left out where there is no room.
    std::vector<const Data::Row*> rows;
    for (const auto& r : data_.rows) rows.push_back(&r);
    const double space = height() - rowsTop - 6;
    auto share = [&] {
        double sum = 0;
        for (const auto* r : rows) sum += r->share;
        return sum;
    };
    while (rows.size() > 1 && space / share() < 34)
        rows.erase(std::max_element(rows.begin(), rows.end(),
                                    [](const auto* a, const auto* b) { return a->rank < b->rank; }));
    p.setPen(QPen(t.hairline, 0.8));
    for (const auto& s : data_.supports)
        p.drawLine(QPointF(pixel(s.u), rowsTop), QPointF(pixel(s.u), height() - 4));
    double y = rowsTop;
    const double unit = space / std::max(0.1, share());
    for (const auto* r : rows) {
        drawRow(p, *r, {y, unit * r->share});
        y += unit * r->share;
    }
    p.setOpacity(1);
}

void LineSection::drawHeader(QPainter& p) const {
    const Theme& t = theme();
    const auto* line = session_.line();
    p.setFont(uiFont(14, QFont::DemiBold));
    p.setPen(t.selection);
    const QString title = qs(line->name);
    p.drawText(QPointF(16, 20), title);
    const double at = 16 + p.fontMetrics().horizontalAdvance(title) + 14;
    p.setFont(uiFont(12));
    double right = width() - 12;
    if (const auto* slab = session_.slab()) {
        p.setPen(t.ink);
        p.drawText(thicknessField(), Qt::AlignRight | Qt::AlignVCenter,
                   tr("%1 thick").arg(session_.text(slab->thickness, Kind::Length)));
        right = thicknessField().left() + 20;
    }
    p.setPen(t.secondary);
    const QString envelope = tr("envelope of %1 · per width").arg(qs(line->envelope));
    const double wide = p.fontMetrics().horizontalAdvance(envelope);
    QString detail = qs(line->detail(session_.project().basis.units));
    const bool both = at + p.fontMetrics().horizontalAdvance(detail) + 24 + wide < right;
    if (both) p.drawText(QRectF(right - wide, 6, wide, 20), Qt::AlignRight | Qt::AlignVCenter, envelope);
    p.drawText(QPointF(at, 20),
               p.fontMetrics().elidedText(detail, Qt::ElideRight, int(right - at - (both ? wide + 16 : 0))));
}

void LineSection::drawConcrete(QPainter& p) const {
    const Theme& t = theme();
    const QRectF band(QPointF(pixel(data_.from), bandTop), QPointF(pixel(data_.to), bandTop + bandDepth));
    p.fillRect(band, t.concrete);
    p.setFont(uiFont(10));
    for (const auto& s : data_.supports) {
        const bool here = session_.selected(Spot::In::Support, s.id);
        double a = pixel(s.from), b = pixel(s.to);
        if (b - a < 3) a = pixel(s.u) - 1.5, b = a + 3;
        const QRectF body(QPointF(a, band.bottom()), QPointF(b, band.bottom() + (s.wall ? 15 : 13)));
        if (s.hinted) {
            p.setPen(QPen(here ? t.selection : t.structure, 1, Qt::DotLine));
            p.setBrush(Qt::NoBrush);
            p.drawRect(body);
        } else {
            p.fillRect(body, here ? t.selection : t.structure);
        }
        p.setPen(here ? t.selection : t.ink);
        p.drawText(QRectF(b + 4, band.bottom() + 1, 80, 12), Qt::AlignLeft | Qt::AlignVCenter, qs(s.name));
    }
    for (const auto& s : data_.spans)
        if (session_.selected(Spot::In::Span, s.id)) {
            QColor tint = t.selection;
            tint.setAlpha(26);
            p.fillRect(QRectF(QPointF(pixel(s.from), bandTop), QPointF(pixel(s.to), height())), tint);
        }
    p.setPen(QPen(t.ink, 1.2));
    p.setBrush(Qt::NoBrush);
    p.drawRect(band);
    for (std::size_t i = 0; i < data_.spans.size(); ++i)
        for (int e : {0, 1}) {
            const auto& s = data_.spans[i];
            const QRectF box = endWord(i, e == 0 ? -1 : 1);
            if (box.width() < 30) continue;
            const QString mark = s.overruled[e] ? QStringLiteral(" •") : QString();
            QString text = QString::fromUtf8(strips::name(s.ends[e])) + mark;
            if (p.fontMetrics().horizontalAdvance(text) > box.width()) text = shortWord(s.ends[e]) + mark;
            p.setPen(s.overruled[e] ? t.attention : t.secondary);
            p.drawText(box, (e == 0 ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter,
                       p.fontMetrics().elidedText(text, Qt::ElideRight, int(box.width())));
        }
}

void LineSection::drawBars(QPainter& p) const {
    const Theme& t = theme();
    const QColor own = session_.line()->direction == 1 ? t.barsY : t.barsX,
                 other = session_.line()->direction == 1 ? t.barsX : t.barsY;
    // Legs of links, and what they are where there is room between the faces.
    for (const auto& z : data_.legs) {
        p.setPen(QPen(t.secondary, 1));
        for (double u = z.from + z.along / 2; u < z.to; u += std::max(z.along, 4 / scale().perMm))
            p.drawLine(QPointF(pixel(u), bandTop + 4), QPointF(pixel(u), bandTop + bandDepth - 4));
        p.setFont(uiFont(10));
        const double m = (pixel(z.from) + pixel(z.to)) / 2,
                     w = p.fontMetrics().horizontalAdvance(qs(z.text)) + 6;
        if (w > pixel(z.to) - pixel(z.from)) continue;
        const QRectF words(m - w / 2, bandTop + bandDepth / 2 - 7, w, 14);
        p.fillRect(words, t.field);
        p.drawText(words, Qt::AlignCenter, qs(z.text));
    }
    for (const auto& a : data_.across) {
        const double y = a.top ? bandTop + 12.5 : bandTop + bandDepth - 12.5,
                     step = std::max(a.spacing * scale().perMm, 6.0);
        p.setPen(Qt::NoPen);
        p.setBrush(session_.selected(Spot::In::Run, a.id) ? t.selection : other);
        for (double x = pixel(a.from); x <= pixel(a.to); x += step) p.drawEllipse(QPointF(x, y), 1.5, 1.5);
    }
    for (const auto& b : data_.bars) {
        const bool here = session_.selected(Spot::In::Run, b.id);
        const QColor colour = here ? t.selection : own;
        const double y = barY(b), far = b.top ? bandTop + bandDepth - 4 : bandTop + 4;
        p.setPen(QPen(colour, here ? 3 : b.band ? 1.4 : 2));
        p.drawLine(QPointF(pixel(b.from), y), QPointF(pixel(b.to), y));
        if (b.hookStart) p.drawLine(QPointF(pixel(b.from), y), QPointF(pixel(b.from), far));
        if (b.hookEnd) p.drawLine(QPointF(pixel(b.to), y), QPointF(pixel(b.to), far));
        if (!callouts_.contains(b.id) && !here) continue;
        p.setFont(uiFont(11, here ? QFont::DemiBold : QFont::Normal));
        p.drawText(callout(b.id).adjusted(-20, 0, 20, 0), Qt::AlignCenter,
                   qs(pixel(b.to) - pixel(b.from) < 90 ? b.brief : b.callout) +
                       (b.fixed ? QStringLiteral(" •") : QString()));
    }
    for (const auto& b : data_.bars)
        for (bool end : {false, true}) {
            const bool hot = hovered_ == Grip{b.id, end};
            p.setPen(QPen(session_.selected(Spot::In::Run, b.id) ? t.selection : own, 1.4));
            p.setBrush(hot ? t.selection : t.field);
            p.drawEllipse(handle(b.id, end), hot ? 5 : 3.3, hot ? 5 : 3.3);
        }
}

void LineSection::drawRow(QPainter& p, const Data::Row& row, Strip room) const {
    const Theme& t = theme();
    const double above = std::clamp(0.2 * room.height, 4.0, 13.0), below = row.low < 0 ? above : 4;
    const double k = (room.height - above - below) / std::max(1e-12, row.high - row.low),
                 axis = room.top + above + row.high * k;
    auto at = [&](drawing::Point v) { return QPointF(pixel(v.x), axis - v.y * k); };
    auto polygon = [&](const std::vector<drawing::Point>& points) {
        QPolygonF q;
        for (auto v : points) q << at(v);
        return q;
    };
    p.setPen(QPen(t.hairline, 1));
    p.drawLine(QPointF(pixel(data_.from), axis), QPointF(pixel(data_.to), axis));
    p.setPen(Qt::NoPen);
    p.setBrush(hatch(t.over));
    for (const auto& gap : row.gaps) p.drawPolygon(polygon(gap));
    const QColor own = session_.line()->direction == 1 ? t.barsY : t.barsX;
    for (const auto& c : row.curves) {
        if (c.points.empty()) continue;
        QPolygonF line = polygon(c.points);
        if (c.washed) {
            QColor wash = t.ink;
            wash.setAlpha(28);
            QPolygonF ground = line;
            ground << QPointF(line.back().x(), axis) << QPointF(line.front().x(), axis);
            p.setPen(Qt::NoPen);
            p.setBrush(wash);
            p.drawPolygon(ground);
        }
        p.setBrush(Qt::NoBrush);
        switch (c.style) {
            case Style::Demand:
                p.setPen(QPen(c.over ? t.over : t.ink, 1.6));
                break;
            case Style::Required:
                p.setPen(QPen(t.ink, 1.3));
                break;
            case Style::Moved:
                p.setPen(QPen(t.secondary, 0.8, Qt::DotLine));
                break;
            case Style::Resistance:
                p.setPen(QPen(own, 1.4, Qt::DashLine));
                break;
            case Style::Limit:
                p.setPen(QPen(t.attention, 1, Qt::DotLine));
                break;
        }
        p.drawPolyline(line);
    }
    p.setFont(uiFont(10));
    double last = -1e9;
    for (const auto& pillar : row.pillars) {
        const QPointF top = at(pillar.at);
        p.fillRect(QRectF(top.x() - 2, top.y(), 4, axis - top.y()),
                   pillar.over ? hatch(t.over) : QBrush(t.ink));
        if (top.x() + 4 < last && !pillar.over) continue;
        last = top.x() + 6 + p.fontMetrics().horizontalAdvance(qs(pillar.text));
        p.setPen(pillar.over ? t.over : t.secondary);
        p.drawText(QRectF(top.x() + 4, std::max(room.top, top.y() - 3), 70, 12),
                   Qt::AlignLeft | Qt::AlignVCenter, qs(pillar.text));
    }
    // Figures where they do not meet one another.
    p.setFont(uiFont(row.rank == 0 ? 11 : 10));
    std::vector<QRectF> taken;
    for (const auto& f : row.figures) {
        const QPointF point = at(f.at);
        if (f.marked) {
            p.setPen(Qt::NoPen);
            p.setBrush(f.over ? t.over : t.ink);
            p.drawEllipse(point, 2.4, 2.4);
        }
        const double w = p.fontMetrics().horizontalAdvance(qs(f.text)) + 4;
        QRectF box(point.x() - w / 2, f.above ? point.y() - 15 : point.y() + 2, w, 13);
        if (f.marked) box.moveLeft(point.x() + 3);
        box.moveTop(std::clamp(box.top(), room.top, std::max(room.top, room.top + room.height - 13)));
        if (std::any_of(taken.begin(), taken.end(), [&](const QRectF& r) { return r.intersects(box); }))
            continue;
        taken.push_back(box.adjusted(-2, 0, 2, 0));
        QColor ground = t.field;
        ground.setAlpha(210);
        p.fillRect(box, ground);
        p.setPen(f.over ? t.over : row.rank == 0 ? t.ink : t.secondary);
        p.drawText(box, Qt::AlignCenter, qs(f.text));
    }
    p.setFont(uiFont(10));
    // In the margin left of the lines: what it is, below it how it is drawn.
    p.setPen(t.secondary);
    const double wide = pixel(data_.from) - 10;
    double y = std::clamp(axis - 13, room.top, std::max(room.top, room.top + room.height - 26));
    for (const QString& part : {qs(row.title), qs(row.how)}) {
        if (part.isEmpty()) continue;
        p.drawText(QRectF(6, y, wide, 13), Qt::AlignLeft | Qt::AlignVCenter,
                   p.fontMetrics().elidedText(part, Qt::ElideRight, int(wide)));
        y += 12;
    }
}

void LineSection::drawStation(QPainter& p) const {
    const Theme& t = theme();
    const double u = session_.station();
    if (!std::isfinite(u) || u < data_.from || u > data_.to || data_.rows.empty()) return;
    p.setPen(QPen(t.selection, 1.2, Qt::DashLine));
    p.drawLine(QPointF(pixel(u), 34), QPointF(pixel(u), height()));
    p.setFont(uiFont(10));
    const QString text = qs(drawing::readingAt(*session_.line(), u, session_.project().basis.units));
    const double w = p.fontMetrics().horizontalAdvance(text) + 8;
    const QRectF box(std::clamp(pixel(u) + 6, 4.0, std::max(4.0, width() - w - 4)), 23, w, 13);
    p.fillRect(box, t.field);
    p.setPen(t.selection);
    p.drawText(box, Qt::AlignCenter, text);
}

}  // namespace talvik::app
