// The pictures of the long section: slab and bars, then the rows below them.
#include <QPainter>
#include <cmath>

#include "checks/checks.h"
#include "section/section_view.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {
namespace {

using units::Kind;

bool isMain(model::Role role) {
    return role == model::Role::BottomMain || role == model::Role::TopMain;
}

}  // namespace

void SectionView::drawSlab(QPainter& p) const {
    const auto* slab = session_.slab();
    const Theme& t = theme();
    QRectF band(QPointF(X(model::concreteStart(*slab)), bandTop),
                QPointF(X(model::concreteEnd(*slab)), bandTop + bandDepth));
    p.fillRect(band, t.concrete);
    for (std::size_t i = 0; i < slab->supports.size(); ++i) {
        double a = model::axis(*slab, i), half = slab->supports[i].width / 2;
        bool chosen = session_.selected(Spot::In::Support, slab->supports[i].id);
        p.fillRect(QRectF(QPointF(X(a - half), bandTop + bandDepth),
                          QPointF(X(a + half),
                                  bandTop + bandDepth +
                                      (slab->supports[i].kind == model::Support::Kind::Wall ? 20 : 14))),
                   chosen ? t.selection : t.structure);
    }
    if (session_.selected(Spot::In::Span))
        for (std::size_t i = 0; i < slab->spans.size(); ++i)
            if (slab->spans[i].id == session_.selectedId()) {
                QColor tint = t.selection;
                tint.setAlpha(40);
                p.fillRect(QRectF(QPointF(X(model::spanStart(*slab, i)), bandTop),
                                  QPointF(X(model::spanStart(*slab, i + 1)), height())),
                           QColor(tint.red(), tint.green(), tint.blue(), 22));
                p.fillRect(QRectF(QPointF(X(model::spanStart(*slab, i)), bandTop),
                                  QPointF(X(model::spanStart(*slab, i + 1)), bandTop + bandDepth)),
                           tint);
            }
    p.setPen(QPen(t.ink, 1.2));
    p.setBrush(Qt::NoBrush);
    p.drawRect(band);
}

void SectionView::drawBars(QPainter& p) const {
    const auto* slab = session_.slab();
    const auto* d = session_.slabDesign();
    const Theme& t = theme();
    const auto system = session_.project().basis.units;
    for (const auto& run : slab->bars) {
        bool chosen = session_.selected(Spot::In::Run, run.id);
        if (model::across(run.role)) {
            double y = model::topFace(run.role) ? bandTop + 12.5 : bandTop + bandDepth - 12.5,
                   step = std::max(run.spacing * scale_.perMm(), 6.0);
            p.setPen(Qt::NoPen);
            p.setBrush(chosen ? t.selection : t.barsY);
            for (double x = X(run.from); x <= X(run.to); x += step) p.drawEllipse(QPointF(x, y), 1.5, 1.5);
            continue;
        }
        if (!isMain(run.role)) continue;
        bool top = model::topFace(run.role);
        double y = barY(run), far = top ? bandTop + bandDepth - 5 : bandTop + 5;
        QColor colour = chosen ? t.selection : t.barsX;
        p.setPen(QPen(colour, chosen ? 3 : 2));
        p.drawLine(QPointF(X(run.from), y), QPointF(X(run.to), y));
        if (run.start == model::BarEnd::Hook) p.drawLine(QPointF(X(run.from), y), QPointF(X(run.from), far));
        if (run.end == model::BarEnd::Hook) p.drawLine(QPointF(X(run.to), y), QPointF(X(run.to), far));
        p.setFont(uiFont(11, chosen ? QFont::DemiBold : QFont::Normal));
        p.setPen(colour);
        QString text = qs(schedule::callout(d->items, run.id, system));
        if (run.pinned) text += QStringLiteral(" •");
        QRectF place = callout(run.id);
        double room = (run.to - run.from) * scale_.perMm();
        if (room < 60) text = text.section(QLatin1Char(' '), 1, 1);
        if (room < 34 && !chosen) continue;
        p.drawText(place, Qt::AlignCenter, text);
    }
    for (const auto& run : slab->bars) {
        if (!isMain(run.role)) continue;
        for (bool end : {false, true}) {
            bool hot = hovered_ && hovered_->run == run.id && hovered_->end == end;
            p.setPen(QPen(session_.selectedId() == run.id ? t.selection : t.barsX, 1.4));
            p.setBrush(hot ? t.selection : t.field);
            p.drawEllipse(handle(run.id, end), hot ? 5 : 3.4, hot ? 5 : 3.4);
        }
    }
}

void SectionView::rowTitle(QPainter& p, Row row, const QString& name, const QString& unit) const {
    p.setFont(uiFont(10));
    p.setPen(theme().secondary);
    QString text = unit.isEmpty() ? name : name + QStringLiteral(", ") + unit;
    QRectF r(6, row.top + 2, p.fontMetrics().horizontalAdvance(text) + 4, 13);
    p.fillRect(r, theme().field);
    p.drawText(r, Qt::AlignLeft | Qt::AlignVCenter, text);
}

void SectionView::drawMoments(QPainter& p, Row row) const {
    const auto* slab = session_.slab();
    const auto& d = *session_.slabDesign();
    const Theme& t = theme();
    const auto& stations = d.line.stations;
    const auto top = line::values(d.line.demand.top), bottom = line::values(d.line.demand.bottom);
    double up = 1e-9, down = 1e-9;
    for (std::size_t i = 0; i < stations.size(); ++i) {
        up = std::max({up, top[i], d.top.resistance[i]});
        down = std::max({down, bottom[i], d.bottom.resistance[i]});
    }
    double room = row.height - 26, k = room / (up + down), axis = row.top + 13 + up * k;
    auto path = [&](const std::vector<double>& v, double sign) {
        QPolygonF line;
        for (std::size_t i = 0; i < v.size(); ++i) line << QPointF(X(stations[i].u), axis - sign * v[i] * k);
        return line;
    };
    p.setPen(QPen(t.hairline, 1));
    p.drawLine(QPointF(X(model::concreteStart(*slab)), axis), QPointF(X(model::concreteEnd(*slab)), axis));
    // Where the shifted demand is over the resistance.
    auto overs = [&](const std::vector<double>& need, const std::vector<double>& have, double sign) {
        for (std::size_t i = 0; i + 1 < need.size(); ++i) {
            if (need[i] <= have[i] * (1 + 1e-9) && need[i + 1] <= have[i + 1] * (1 + 1e-9)) continue;
            QPolygonF q{QPointF(X(stations[i].u), axis - sign * need[i] * k),
                        QPointF(X(stations[i + 1].u), axis - sign * need[i + 1] * k),
                        QPointF(X(stations[i + 1].u), axis - sign * std::min(have[i + 1], need[i + 1]) * k),
                        QPointF(X(stations[i].u), axis - sign * std::min(have[i], need[i]) * k)};
            p.setPen(Qt::NoPen);
            p.setBrush(hatch(t.over));
            p.drawPolygon(q);
        }
    };
    overs(d.top.shifted, d.top.resistance, 1);
    overs(d.bottom.shifted, d.bottom.resistance, -1);
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.secondary, 0.8, Qt::DotLine));
    p.drawPolyline(path(d.top.shifted, 1));
    p.drawPolyline(path(d.bottom.shifted, -1));
    p.setPen(QPen(t.ink, 1.6));
    p.drawPolyline(path(top, 1));
    p.drawPolyline(path(bottom, -1));
    p.setPen(QPen(t.barsX, 1.4, Qt::DashLine));
    p.drawPolyline(path(d.top.resistance, 1));
    p.drawPolyline(path(d.bottom.resistance, -1));
    p.setFont(uiFont(11));
    auto figure = [&](double x, double m, double sign) {
        if (m < 0.03 * (up + down) || usualSpan() < 36) return;
        p.setPen(t.ink);
        QString text = session_.number(m, Kind::MomentPerWidth);
        double w = p.fontMetrics().horizontalAdvance(text) + 4;
        QRectF r(X(x) - w / 2, sign > 0 ? axis - m * k - 15 : axis + m * k - 15, w, 13);
        QColor ground = t.field;
        ground.setAlpha(210);
        p.fillRect(r, ground);
        p.drawText(r, Qt::AlignCenter, text);
    };
    for (const auto& s : d.line.supports)
        if (!s.endFixity) figure(s.x, s.moment, 1);
    for (const auto& s : d.line.spans) figure(s.x, s.moment, -1);
    rowTitle(p, row, tr("moment"), session_.unit(Kind::MomentPerWidth));
}

void SectionView::drawShear(QPainter& p, Row row) const {
    const auto* slab = session_.slab();
    const auto& d = *session_.slabDesign();
    const Theme& t = theme();
    const auto& a = d.analysis;
    double peak = 1e-9;
    for (std::size_t i = 0; i < a.stations.size(); ++i)
        peak = std::max({peak, a.ultimate.shearMax[i].value, -a.ultimate.shearMin[i].value});
    double axis = row.top + row.height / 2, k = (row.height / 2 - 8) / peak;
    p.setPen(QPen(t.hairline, 1));
    p.drawLine(QPointF(X(model::concreteStart(*slab)), axis), QPointF(X(model::concreteEnd(*slab)), axis));
    p.setPen(QPen(t.ink, 1.2));
    for (bool largest : {true, false}) {
        QPolygonF line;
        for (std::size_t i = 0; i < a.stations.size(); ++i) {
            if (i && a.stations[i].span != a.stations[i - 1].span) {
                p.drawPolyline(line);
                line.clear();
            }
            line << QPointF(
                X(a.stations[i].x),
                axis - (largest ? a.ultimate.shearMax[i].value : a.ultimate.shearMin[i].value) * k);
        }
        p.drawPolyline(line);
    }
    // The largest of each side of a support.
    p.setFont(uiFont(10));
    p.setPen(t.secondary);
    for (std::size_t i = 0; i < a.stations.size(); ++i) {
        bool first = i == 0 || a.stations[i].span != a.stations[i - 1].span,
             last = i + 1 == a.stations.size() || a.stations[i].span != a.stations[i + 1].span;
        double v = first ? a.ultimate.shearMax[i].value : last ? -a.ultimate.shearMin[i].value : 0;
        if (v < 0.2 * peak || usualSpan() < 64) continue;
        double x = X(a.stations[i].x);
        QString text = session_.number(v, Kind::ForcePerWidth);
        double w = p.fontMetrics().horizontalAdvance(text) + 4;
        QRectF place =
            first ? QRectF(x + 2, axis - v * k - 9, w, 11) : QRectF(x - 2 - w, axis + v * k - 2, w, 11);
        p.fillRect(place, t.field);
        p.drawText(place, Qt::AlignCenter, text);
    }
    rowTitle(p, row, tr("shear"), session_.unit(Kind::ForcePerWidth));
}

void SectionView::drawCracks(QPainter& p, Row row) const {
    const auto& d = *session_.slabDesign();
    const Theme& t = theme();
    double base = row.top + row.height - 6, full = (row.height - 20) * 0.8;
    p.setPen(QPen(t.attention, 1, Qt::DotLine));
    p.drawLine(QPointF(X(model::concreteStart(*session_.slab())), base - full),
               QPointF(X(model::concreteEnd(*session_.slab())), base - full));
    p.setPen(QPen(t.hairline, 1));
    p.drawLine(QPointF(X(model::concreteStart(*session_.slab())), base),
               QPointF(X(model::concreteEnd(*session_.slab())), base));
    p.setFont(uiFont(10));
    Kind kind = Kind::Crack;
    for (const auto& c : d.checks) {
        if (c.topic != checks::Topic::Cracks ||
            (c.outcome != checks::Outcome::Within && c.outcome != checks::Outcome::Over))
            continue;
        kind = c.kind;
        double r = checks::ratio(c), x = X(c.place.x), h = std::min(r, 1.15) * full;
        bool over = c.outcome == checks::Outcome::Over;
        p.fillRect(QRectF(x - 2, base - h, 4, h), over ? hatch(t.over) : QBrush(t.ink));
        p.setPen(over ? t.over : t.secondary);
        if (usualSpan() < 60 && !over) continue;
        p.drawText(QRectF(x + 4, base - h - 3, 70, 12), Qt::AlignLeft | Qt::AlignVCenter,
                   session_.number(c.demand, c.kind));
    }
    rowTitle(p, row, kind == Kind::Crack ? tr("cracks") : tr("spacing, cracks"), session_.unit(kind));
}

void SectionView::drawSag(QPainter& p, Row row) const {
    const auto* slab = session_.slab();
    const auto& d = *session_.slabDesign();
    const Theme& t = theme();
    double peak = 1e-9, least = 0;
    for (const auto& sag : d.sag)
        for (double w : sag.total) peak = std::max(peak, w), least = std::min(least, w);
    for (const auto& sag : d.sag) peak = std::max(peak, std::min(sag.limit, 3 * peak));
    double axis = row.top + 12, k = (row.height - 24) / (peak - least);
    axis -= least * k;
    p.setPen(QPen(t.hairline, 1));
    p.drawLine(QPointF(X(model::concreteStart(*slab)), axis), QPointF(X(model::concreteEnd(*slab)), axis));
    p.setFont(uiFont(11));
    for (std::size_t i = 0; i < d.sag.size(); ++i) {
        const auto& sag = d.sag[i];
        QPolygonF line;
        for (std::size_t j = 0; j < sag.x.size(); ++j) line << QPointF(X(sag.x[j]), axis + sag.total[j] * k);
        bool over = sag.limit > 0 && sag.largest > sag.limit;
        p.setPen(QPen(over ? t.over : t.ink, 1.4));
        p.drawPolyline(line);
        if (sag.largest > 0.05 * peak && usualSpan() > 34)
            p.drawText(QRectF(X(sag.at) - 30, axis - 13, 60, 13), Qt::AlignCenter,
                       session_.number(sag.largest, Kind::Sag));
        if (sag.limit > 0 && sag.limit <= peak * 1.001) {
            p.setPen(QPen(t.attention, 1, Qt::DotLine));
            double y = axis + sag.limit * k;
            double end = X(model::spanStart(*slab, i + 1)) - 4;
            p.drawLine(QPointF(X(model::spanStart(*slab, i)) + 4, y), QPointF(end, y));
            if (usualSpan() < 44) continue;
            QString text = session_.number(sag.limit, Kind::Sag);
            QRectF place(end - 6 - p.fontMetrics().horizontalAdvance(text), y - 7,
                         p.fontMetrics().horizontalAdvance(text) + 4, 14);
            p.fillRect(place, t.field);
            p.setPen(t.attention);
            p.drawText(place, Qt::AlignCenter, text);
        }
    }
    rowTitle(p, row, tr("sag"), session_.unit(Kind::Sag));
}

}  // namespace talvik::app
