// How the long section of a strip is drawn: its edits stand in strip_section.cpp.
#include <QPainter>
#include <cmath>

#include "floor/strip_section.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {
namespace {

using units::Kind;

QString word(model::EndCondition c) {
    return QString::fromUtf8(strips::name(c));
}

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

void StripSection::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const Theme& t = theme();
    p.fillRect(rect(), t.field);
    p.setRenderHint(QPainter::Antialiasing);
    const auto* s = desk_.strip();
    p.setFont(uiFont(12));
    p.setPen(t.secondary);
    auto say = [&](const QString& text) {
        p.setPen(t.secondary);
        p.drawText(rect().adjusted(30, 30, -30, -30), Qt::AlignCenter | Qt::TextWordWrap, text);
    };
    if (!desk_.layout())
        return say(tr(
            "Strips appear when the floor has a slab and supports that can be analysed; place 2 says what is "
            "missing."));
    if (!s)
        return say(tr(
            "No strip in hand. Click one on the plan, or press the up arrow; X and Y choose the direction.\n"
            "Here stands its long section then: bars, moments with the resistance of the bars, steel "
            "required "
            "and provided, shear, cracks."));
    p.setFont(uiFont(14, QFont::DemiBold));
    p.setPen(t.selection);
    QString title = tr("Strip %1").arg(qs(s->name));
    p.drawText(QPointF(16, 20), title);
    double at = 16 + p.fontMetrics().horizontalAdvance(title) + 14;
    p.setFont(uiFont(12));
    p.setPen(t.secondary);
    using K = strips::Strip::Kind;
    QString kind = s->kind == K::Column   ? s->alongBeam   ? tr("along a beam")
                                            : s->alongWall ? tr("along a wall")
                                                           : tr("column strip")
                     : s->kind == K::Middle ? tr("middle strip")
                   : s->kind == K::Drawn  ? tr("drawn by hand")
                                          : tr("full width");
    QString detail = tr("%1, %2 wide · bars at %3°")
                         .arg(kind, session_.text(s->area() / std::max(1.0, s->to - s->from), Kind::Span))
                         .arg(s->axes.angle, 0, 'g', 4);
    if (s->changed) detail += tr(" · changed by you");
    auto design = desk_.design();
    const auto* d = desk_.stripDesign();
    QString right;
    if (design) {
        int count = 0;
        for (const auto& c : design->analysis->combinations)
            count += c.state == actions::LimitState::Ultimate;
        right = tr("envelope of %1 combinations · per width").arg(count);
    }
    double room = width() - at - p.fontMetrics().horizontalAdvance(right) - 30;
    p.drawText(QPointF(at, 20),
               p.fontMetrics().elidedText(detail, Qt::ElideRight, int(std::max(80.0, room))));
    if (room > 120) p.drawText(QRectF(0, 6, width() - 12, 20), Qt::AlignRight | Qt::AlignVCenter, right);
    drawSlab(p);
    if (!d || d->stations().empty()) {
        p.setFont(uiFont(12));
        return say(session_.floorStale() ? tr("Answering…")
                                         : tr("This strip has no answer; see the places before."));
    }
    if (session_.floorStale()) p.setOpacity(0.5);
    drawBars(p);
    double space = height() - rowsTop - 6, y = rowsTop;
    bool shear = space > 150, cracks = space > 185;
    double unit = space / (2.1 + 1.4 + (shear ? 0.95 : 0) + (cracks ? 0.75 : 0));
    auto next = [&](double share) {
        Row r{y, unit * share};
        y += r.height;
        return r;
    };
    p.setPen(QPen(t.hairline, 0.8));
    for (const auto& support : s->supports)
        p.drawLine(QPointF(X(support.u), rowsTop), QPointF(X(support.u), height() - 4));
    drawMoments(p, next(2.1));
    drawSteel(p, next(1.4));
    if (shear) drawShear(p, next(0.95));
    if (cracks) drawCracks(p, next(0.75));
    p.setOpacity(1);
    if (double u = session_.station(); std::isfinite(u) && u >= s->from && u <= s->to) {
        p.setPen(QPen(t.selection, 1.2, Qt::DashLine));
        p.drawLine(QPointF(X(u), 30), QPointF(X(u), height()));
        // What holds there.
        const std::size_t i = line::nearestStation(d->stations(), u);
        QString text =
            tr("T %1 of %2 · B %3 of %4 %5")
                .arg(session_.number(perWidth(*d, i, d->demand.top[i].value), Kind::MomentPerWidth),
                     session_.number(perWidth(*d, i, d->top.resistance[i]), Kind::MomentPerWidth),
                     session_.number(perWidth(*d, i, d->demand.bottom[i].value), Kind::MomentPerWidth),
                     session_.number(perWidth(*d, i, d->bottom.resistance[i]), Kind::MomentPerWidth),
                     session_.unit(Kind::MomentPerWidth));
        p.setFont(uiFont(10));
        double w = p.fontMetrics().horizontalAdvance(text) + 8;
        QRectF box(std::clamp(X(u) + 6, 4.0, width() - w - 4), 27, w, 14);
        p.fillRect(box, t.field);
        p.setPen(t.selection);
        p.drawText(box, Qt::AlignCenter, text);
    }
}

void StripSection::axisLine(QPainter& p, double y) const {
    p.setPen(QPen(theme().hairline, 1));
    p.drawLine(QPointF(X(desk_.strip()->from), y), QPointF(X(desk_.strip()->to), y));
}

void StripSection::drawSlab(QPainter& p) const {
    const auto* s = desk_.strip();
    const Theme& t = theme();
    QRectF band(QPointF(X(s->from), bandTop), QPointF(X(s->to), bandTop + bandDepth));
    p.fillRect(band, t.concrete);
    p.setFont(uiFont(10));
    for (const auto& support : s->supports) {
        bool here = session_.selected(Spot::In::Support) && desk_.part() == support.id;
        double a = std::max(X(support.from), band.left()), b = std::min(X(support.to), band.right());
        if (b - a < 3) a = X(support.u) - 1.5, b = a + 3;
        bool between = support.kind == strips::Support::Kind::Columns;
        QRectF body(QPointF(a, bandTop + bandDepth), QPointF(b, bandTop + bandDepth + 13));
        if (between) {  // a line between columns beside the strip: only hinted at
            p.setPen(QPen(here ? t.selection : t.structure, 1, Qt::DotLine));
            p.setBrush(Qt::NoBrush);
            p.drawRect(body);
        } else {
            p.fillRect(body, here ? t.selection : t.structure);
        }
        p.setPen(here ? t.selection : t.ink);
        p.drawText(QRectF((a + b) / 2 - 40, bandTop + bandDepth + 28, 80, 12), Qt::AlignCenter,
                   qs(support.name));
    }
    if (session_.selected(Spot::In::Span))
        for (std::size_t i = 0; i < s->spans.size(); ++i)
            if (desk_.part() == s->spans[i].id) {
                QColor tint = t.selection;
                tint.setAlpha(26);
                p.fillRect(
                    QRectF(QPointF(X(s->spans[i].from), bandTop), QPointF(X(s->spans[i].to), height())),
                    tint);
            }
    p.setPen(QPen(t.ink, 1.2));
    p.setBrush(Qt::NoBrush);
    p.drawRect(band);
    for (std::size_t i = 0; i < s->spans.size(); ++i)
        for (int e : {0, 1}) {
            QRectF box = endWord(i, e == 0 ? -1 : 1);
            if (box.width() < 30) continue;
            QString text =
                word(s->spans[i].ends[e]) + (s->spans[i].overruled[e] ? QStringLiteral(" •") : QString());
            if (p.fontMetrics().horizontalAdvance(text) > box.width())
                text = shortWord(s->spans[i].ends[e]) +
                       (s->spans[i].overruled[e] ? QStringLiteral(" •") : QString());
            p.setPen(s->spans[i].overruled[e] ? t.attention : t.secondary);
            p.drawText(box, (e == 0 ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter,
                       p.fontMetrics().elidedText(text, Qt::ElideRight, int(box.width())));
        }
}

void StripSection::drawBars(QPainter& p) const {
    const auto* s = desk_.strip();
    const auto& d = *desk_.stripDesign();
    const Theme& t = theme();
    QColor own = s->direction == 0 ? t.barsX : t.barsY;
    double taken[3] = {-1e9, -1e9, -1e9};  // bottom, top, bands
    for (const auto& r : d.runs) {
        bool here = session_.selected(Spot::In::Run) && desk_.part() == r.id;
        QColor colour = here ? t.selection : own;
        double y = barY(r), far = r.top ? bandTop + bandDepth - 4 : bandTop + 4;
        p.setPen(QPen(colour, here ? 3 : r.band ? 1.4 : 2));
        p.drawLine(QPointF(X(r.from), y), QPointF(X(r.to), y));
        if (r.start == model::BarEnd::Hook) p.drawLine(QPointF(X(r.from), y), QPointF(X(r.from), far));
        if (r.end == model::BarEnd::Hook) p.drawLine(QPointF(X(r.to), y), QPointF(X(r.to), far));
        p.setFont(uiFont(11, here ? QFont::DemiBold : QFont::Normal));
        QString text = QStringLiteral("%1-%2").arg(qs(r.bar), session_.number(r.spacing, Kind::BarSpacing));
        if (r.band) text = tr("+ %1 in %2").arg(text, session_.text(r.width, Kind::Span));
        if (r.fixed) text += QStringLiteral(" •");
        QRectF place = callout(r.id);
        double w = p.fontMetrics().horizontalAdvance(text);
        double& end = taken[r.band ? 2 : r.top];
        if (place.center().x() - w / 2 < end && !here) continue;
        end = place.center().x() + w / 2 + 6;
        p.setPen(colour);
        p.drawText(place.adjusted(-20, 0, 20, 0), Qt::AlignCenter, text);
    }
    for (const auto& r : d.runs)
        for (bool end : {false, true}) {
            bool hot = hovered_ && hovered_->run == r.id && hovered_->end == end;
            p.setPen(QPen(desk_.part() == r.id ? t.selection : own, 1.4));
            p.setBrush(hot ? t.selection : t.field);
            p.drawEllipse(handle(r.id, end), hot ? 5 : 3.2, hot ? 5 : 3.2);
        }
}

void StripSection::rowTitle(QPainter& p, Row row, const QString& text) const {
    p.setFont(uiFont(10));
    QRectF r(6, row.top + 2, p.fontMetrics().horizontalAdvance(text) + 4, 13);
    QColor ground = theme().field;
    ground.setAlpha(225);
    p.fillRect(r, ground);
    p.setPen(theme().secondary);
    p.drawText(r, Qt::AlignLeft | Qt::AlignVCenter, text);
}

void StripSection::drawMoments(QPainter& p, Row row) const {
    const auto& d = *desk_.stripDesign();
    const Theme& t = theme();
    const auto& st = d.stations();
    double up = 1e-9, down = 1e-9;
    std::vector<double> top, bottom, hasTop, hasBottom, movedTop, movedBottom;
    for (std::size_t i = 0; i < st.size(); ++i) {
        top.push_back(perWidth(d, i, d.demand.top[i].value));
        bottom.push_back(perWidth(d, i, d.demand.bottom[i].value));
        hasTop.push_back(perWidth(d, i, d.top.resistance[i]));
        hasBottom.push_back(perWidth(d, i, d.bottom.resistance[i]));
        movedTop.push_back(perWidth(d, i, d.top.shifted[i]));
        movedBottom.push_back(perWidth(d, i, d.bottom.shifted[i]));
        up = std::max({up, top[i], std::min(hasTop[i], 2.5 * std::max(top[i], up))});
        down = std::max({down, bottom[i], hasBottom[i]});
    }
    up = std::max(up, 0.2 * down);
    double k = (row.height - 22) / (up + down), axis = row.top + 13 + up * k;
    auto path = [&](const std::vector<double>& v, double sign) {
        QPolygonF line;
        for (std::size_t i = 0; i < v.size(); ++i)
            line << QPointF(X(st[i].u), axis - sign * std::min(v[i], sign > 0 ? up : down) * k);
        return line;
    };
    axisLine(p, axis);
    for (double sign : {1.0, -1.0}) {
        const auto &need = sign > 0 ? top : bottom, &have = sign > 0 ? hasTop : hasBottom;
        for (std::size_t i = 0; i + 1 < st.size(); ++i) {
            if (need[i] <= have[i] * (1 + 1e-9) && need[i + 1] <= have[i + 1] * (1 + 1e-9)) continue;
            QPolygonF q{QPointF(X(st[i].u), axis - sign * need[i] * k),
                        QPointF(X(st[i + 1].u), axis - sign * need[i + 1] * k),
                        QPointF(X(st[i + 1].u), axis - sign * std::min(have[i + 1], need[i + 1]) * k),
                        QPointF(X(st[i].u), axis - sign * std::min(have[i], need[i]) * k)};
            p.setPen(Qt::NoPen);
            p.setBrush(hatch(t.over));
            p.drawPolygon(q);
        }
    }
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.secondary, 0.8, Qt::DotLine));
    p.drawPolyline(path(movedTop, 1));
    p.drawPolyline(path(movedBottom, -1));
    p.setPen(QPen(t.ink, 1.6));
    p.drawPolyline(path(top, 1));
    p.drawPolyline(path(bottom, -1));
    p.setPen(QPen(desk_.strip()->direction == 0 ? t.barsX : t.barsY, 1.4, Qt::DashLine));
    p.drawPolyline(path(hasTop, 1));
    p.drawPolyline(path(hasBottom, -1));
    // Peaks: over supports and in spans.
    p.setFont(uiFont(11));
    auto figure = [&](double low, double high, const std::vector<double>& v, double sign) {
        std::size_t best = st.size();
        for (std::size_t i = 0; i < st.size(); ++i)
            if (st[i].u >= low && st[i].u <= high && (best == st.size() || v[i] > v[best])) best = i;
        if (best == st.size() || v[best] < 0.04 * (up + down)) return;
        QString text = session_.number(v[best], Kind::MomentPerWidth);
        double w = p.fontMetrics().horizontalAdvance(text) + 4;
        if (X(high) - X(low) < w && sign < 0) return;
        QRectF r(X(st[best].u) - w / 2, sign > 0 ? axis - v[best] * k - 15 : axis + v[best] * k - 15, w, 13);
        r.moveTop(std::max(r.top(), row.top));
        QColor ground = t.field;
        ground.setAlpha(210);
        p.fillRect(r, ground);
        p.setPen(t.ink);
        p.drawText(r, Qt::AlignCenter, text);
    };
    for (const auto& s : desk_.strip()->supports) figure(s.from - 10, s.to + 10, top, 1);
    for (const auto& s : desk_.strip()->spans) figure(s.clearFrom, s.clearTo, bottom, -1);
    rowTitle(p, row, tr("moment, %1, top above").arg(session_.unit(Kind::MomentPerWidth)));
}

void StripSection::drawSteel(QPainter& p, Row row) const {
    const auto& d = *desk_.stripDesign();
    const Theme& t = theme();
    const auto& st = d.stations();
    double up = 1e-9, down = 1e-9;
    for (std::size_t i = 0; i < st.size(); ++i) {
        up = std::max({up, d.top.provided[i], std::min(d.top.required[i], 3 * up)});
        down = std::max({down, d.bottom.provided[i], std::min(d.bottom.required[i], 3 * down)});
    }
    up = std::max(up, 0.2 * down), down = std::max(down, 0.2 * up);
    double k = (row.height - 20) / (up + down), axis = row.top + 12 + up * k;
    axisLine(p, axis);
    for (double sign : {1.0, -1.0}) {
        const auto& line = sign > 0 ? d.top : d.bottom;
        QPolygonF have, need;
        for (std::size_t i = 0; i < st.size(); ++i)
            need << QPointF(X(st[i].u), axis - sign * std::min(line.required[i], sign > 0 ? up : down) * k);
        // Provided as the bars lie, not only where stations are.
        std::vector<double> stops{d.strip->from, d.strip->to};
        for (const auto& r : d.runs)
            if (r.top == (sign > 0)) stops.insert(stops.end(), {r.from, r.to});
        std::sort(stops.begin(), stops.end());
        for (std::size_t i = 0; i + 1 < stops.size(); ++i) {
            double mid = (stops[i] + stops[i + 1]) / 2, width = 1;
            for (const auto& s : st)
                if (s.u <= mid || width == 1) width = s.width;
            double as =
                std::min(reinforcement::steelAt(d.runs, sign > 0, mid, width).full, sign > 0 ? up : down);
            have << QPointF(X(stops[i]), axis - sign * as * k)
                 << QPointF(X(stops[i + 1]), axis - sign * as * k);
        }
        QPolygonF area = need;
        area << QPointF(X(st.back().u), axis) << QPointF(X(st.front().u), axis);
        QColor wash = t.ink;
        wash.setAlpha(28);
        p.setPen(Qt::NoPen);
        p.setBrush(wash);
        p.drawPolygon(area);
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(t.ink, 1.3));
        p.drawPolyline(need);
        p.setPen(QPen(d.strip->direction == 0 ? t.barsX : t.barsY, 1.5, Qt::DashLine));
        p.drawPolyline(have);
    }
    p.setFont(uiFont(10));
    p.setPen(t.secondary);
    double last[2] = {-1e9, -1e9};
    for (const auto& r : d.runs) {
        if (r.band) continue;
        QString text = session_.number(r.area, Kind::SteelPerWidth);
        double w = p.fontMetrics().horizontalAdvance(text) + 4, x = X((r.from + r.to) / 2);
        if (x - w / 2 < last[r.top] || X(r.to) - X(r.from) < w) continue;
        last[r.top] = x + w / 2 + 8;
        double y = r.top ? axis - r.area * k - 12 : axis + r.area * k;
        QRectF box(x - w / 2, std::clamp(y, row.top, row.top + row.height - 12), w, 12);
        p.fillRect(box, t.field);
        p.drawText(box, Qt::AlignCenter, text);
    }
    rowTitle(p, row, tr("steel required, provided broken, %1").arg(session_.unit(Kind::SteelPerWidth)));
}

void StripSection::drawShear(QPainter& p, Row row) const {
    const auto& d = *desk_.stripDesign();
    const Theme& t = theme();
    const auto& st = d.stations();
    double peak = 1e-9;
    for (std::size_t i = 0; i < st.size(); ++i)
        if (st[i].support < 0)
            peak = std::max(
                {peak, perWidth(d, i, d.demand.shear[i].value), perWidth(d, i, d.shearResistance[i])});
    double base = row.top + row.height - 5, k = (row.height - 20) / peak;
    axisLine(p, base);
    QPolygonF demand, resistance;
    auto flush = [&] {
        p.setPen(QPen(t.ink, 1.3));
        p.drawPolyline(demand);
        p.setPen(QPen(t.barsX, 1.2, Qt::DashLine));
        p.drawPolyline(resistance);
        demand.clear(), resistance.clear();
    };
    for (std::size_t i = 0; i < st.size(); ++i) {
        if (st[i].support >= 0) {
            flush();
            continue;
        }
        demand << QPointF(X(st[i].u), base - perWidth(d, i, d.demand.shear[i].value) * k);
        resistance << QPointF(X(st[i].u), base - perWidth(d, i, d.shearResistance[i]) * k);
    }
    flush();
    p.setFont(uiFont(10));
    double last = -1e9;
    for (const auto& c : d.checks) {
        if (c.topic != checks::Topic::OneWayShear || c.place.spot.in != Spot::In::Span) continue;
        bool over = c.outcome == checks::Outcome::Over;
        QString text = session_.number(c.demand, Kind::ForcePerWidth);
        double w = p.fontMetrics().horizontalAdvance(text) + 4, x = X(c.place.x);
        p.setPen(Qt::NoPen);
        p.setBrush(over ? t.over : t.ink);
        p.drawEllipse(QPointF(x, base - c.demand * k), 2.4, 2.4);
        if (x - w / 2 < last) continue;
        last = x + w;
        p.setPen(over ? t.over : t.secondary);
        p.drawText(QRectF(x + 3, std::max(row.top, base - c.demand * k - 13), w, 12),
                   Qt::AlignLeft | Qt::AlignVCenter, text);
    }
    rowTitle(p, row, tr("shear, resistance broken, %1").arg(session_.unit(Kind::ForcePerWidth)));
}

void StripSection::drawCracks(QPainter& p, Row row) const {
    const auto& d = *desk_.stripDesign();
    const Theme& t = theme();
    double base = row.top + row.height - 4, full = (row.height - 18) * 0.8;
    p.setPen(QPen(t.attention, 1, Qt::DotLine));
    p.drawLine(QPointF(X(d.strip->from), base - full), QPointF(X(d.strip->to), base - full));
    axisLine(p, base);
    p.setFont(uiFont(10));
    double last = -1e9;
    Kind kind = Kind::Crack;
    for (const auto& c : d.checks) {
        if (c.topic != checks::Topic::Cracks ||
            (c.outcome != checks::Outcome::Within && c.outcome != checks::Outcome::Over))
            continue;
        kind = c.kind;
        double r = checks::ratio(c), x = X(c.place.x), h = std::min(r, 1.15) * full;
        bool over = c.outcome == checks::Outcome::Over;
        p.fillRect(QRectF(x - 2, base - h, 4, h), over ? hatch(t.over) : QBrush(t.ink));
        QString text = session_.number(c.demand, c.kind);
        if (x + 4 < last && !over) continue;
        last = x + 6 + p.fontMetrics().horizontalAdvance(text);
        p.setPen(over ? t.over : t.secondary);
        p.drawText(QRectF(x + 4, base - h - 3, 70, 12), Qt::AlignLeft | Qt::AlignVCenter, text);
    }
    rowTitle(p, row,
             (kind == Kind::Crack ? tr("crack width, limit dotted, %1")
                                  : tr("spacing for cracks, limit dotted, %1"))
                 .arg(session_.unit(kind)));
}

}  // namespace talvik::app
