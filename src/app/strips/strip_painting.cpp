// Strips on the plan: edges, the strip in hand, what is in no strip or in two, widths over columns, the
// station.
#include <QPainter>
#include <cmath>

#include "board/floor_canvas.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {
namespace {

using strips::Strip;

void label(QPainter& p, const QRectF& box, const QString& text, const QColor& ink, const QColor& ground) {
    p.setPen(QPen(ink, 1));
    p.setBrush(ground);
    p.drawRoundedRect(box, 2, 2);
    p.drawText(box, Qt::AlignCenter, text);
}
QRectF boxOf(QPainter& p, QPointF at, const QString& text) {
    QRectF box = QFontMetricsF(p.font()).boundingRect(text).adjusted(-4, -2, 4, 2);
    box.moveCenter(at);
    return box;
}

}  // namespace

// Where the names of strips go, before others take the room; they are painted over lines and bars.
void FloorCanvas::placeStripNames(QPainter& p) {
    stripNames_.clear();
    const auto* layout = strips_.layout();
    if (!layout) return;
    const Theme& t = theme();
    const auto* chosen = strips_.strip();
    auto design = strips_.design();
    // Names at the left end; ratios where something is over.
    p.setFont(uiFont(11, QFont::DemiBold));
    for (const auto& s : layout->strips) {
        if (s.direction != strips_.direction() || s.axis.empty()) continue;
        const auto* d = design ? design->find(s.key) : nullptr;
        double worst = d ? d->worst() : 0;
        QPointF a = toPixel(s.axis.front().x, s.axis.front().y),
                b = toPixel(s.axis.back().x, s.axis.back().y);
        QLineF axis(a, b);
        if (axis.length() < 40) continue;
        QString text = qs(s.name) + (s.changed ? QStringLiteral(" •") : QString());
        if (s.area() / std::max(s.to - s.from, 1.0) * scale_ < 15) continue;  // too narrow to carry a name
        bool over = worst > 1 + 1e-9;
        if (over) text += QStringLiteral("  %1").arg(std::min(worst, 99.0), 0, 'f', 2);
        // Clear of the column at the end and its name.
        double wide = QFontMetricsF(p.font()).horizontalAdvance(text) + 8;
        double inset =
            std::min(axis.length() / 3, 30 + std::abs(std::cos(axis.angle() * M_PI / 180)) * wide / 2);
        if (const auto box = labels_.place(boxOf(p, axis.pointAt(inset / axis.length()), text)))
            stripNames_.push_back({*box, text, over ? t.over : &s == chosen ? t.selection : t.secondary});
    }
}

void FloorCanvas::paintStripNames(QPainter& p) {
    p.setFont(uiFont(11, QFont::DemiBold));
    p.setOpacity(session_.stale() ? 0.6 : 1);
    for (const auto& n : stripNames_) label(p, n.box, n.text, n.ink, theme().paper);
    p.setOpacity(1);
}

void FloorCanvas::paintStrips(QPainter& p) {
    const auto* layout = strips_.layout();
    if (!layout) return;
    const Theme& t = theme();
    auto outline = [&](const geometry::Ring& ring) {
        QPolygonF out;
        for (auto v : ring) out << toPixel(v.x, v.y);
        return out;
    };
    const auto* chosen = strips_.strip();
    const bool fieldShown = shows() != nullptr;
    for (const auto& s : layout->strips) {
        if (s.direction != strips_.direction()) continue;
        const bool here = &s == chosen;
        QColor wash = t.selection;
        wash.setAlphaF(here ? 0.13f : s.kind == Strip::Kind::Middle || fieldShown ? 0.0f : 0.045f);
        p.setBrush(wash);
        p.setPen(here ? QPen(t.selection, 1.8) : QPen(t.secondary, 0.9, Qt::DotLine));
        for (const auto& part : s.parts) p.drawPolygon(outline(part));
    }
    // No strip, or two: never to be overlooked.
    for (std::size_t d : {0u, 1u}) {
        const auto& c = layout->coverage[d];
        for (const auto* list : {&c.gaps, &c.overlaps})
            for (const auto& patch : *list) {
                p.setPen(QPen(t.over, 1.4));
                p.setBrush(hatch(list == &c.gaps ? t.over : t.attention));
                for (const auto& r : patch.parts) p.drawPolygon(outline(r));
                if (int(d) != strips_.direction() || patch.area < 0.2e6) continue;
                p.setFont(uiFont(11, QFont::DemiBold));
                const QString text = list == &c.gaps
                                         ? tr("no strip %1, %2 m²")
                                               .arg(QString::fromUtf8(strips::directionName(int(d))))
                                               .arg(patch.area / 1e6, 0, 'f', 1)
                                         : tr("two strips, %1 m²").arg(patch.area / 1e6, 0, 'f', 1);
                const QRectF box = boxOf(p, toPixel(patch.at.x, patch.at.y), text);
                label(p, box, text, t.over, t.paper);
                labels_.reserve(box);
            }
    }
    if (!chosen) return;
    // Where the strip in hand is held, and the width over columns in which top steel is concentrated.
    const auto* d = strips_.stripDesign();
    for (std::size_t i = 0; i < chosen->supports.size(); ++i) {
        const auto& s = chosen->supports[i];
        bool here = session_.selected(Spot::In::Support, s.id);
        p.setPen(QPen(t.selection, here ? 3 : 1.2));
        p.setBrush(Qt::NoBrush);
        double v = chosen->v(s.u), half = 7 / scale_;
        for (double u : {s.from, s.to}) {
            auto a = chosen->axes.plan({u, v - half}), b = chosen->axes.plan({u, v + half});
            p.drawLine(toPixel(a.x, a.y), toPixel(b.x, b.y));
        }
        if (!d) continue;
        for (const auto& band : d->bands)
            if (band.support == int(i)) {
                QPolygonF box;
                for (auto [du, dv] : {std::pair(-1.0, -0.5), {1.0, -0.5}, {1.0, 0.5}, {-1.0, 0.5}}) {
                    auto q = chosen->axes.plan({s.u + du * 0.35 * band.width, v + dv * band.width});
                    box << toPixel(q.x, q.y);
                }
                p.setPen(QPen(t.barsX, 1, Qt::DashLine));
                p.drawPolygon(box);
            }
    }
    for (std::size_t i = 0; i < chosen->spans.size(); ++i) {
        const auto& s = chosen->spans[i];
        if (!session_.selected(Spot::In::Span, s.id)) continue;
        auto a = chosen->axes.plan({s.from, chosen->v(s.from)}),
             b = chosen->axes.plan({s.to, chosen->v(s.to)});
        p.setPen(QPen(t.selection, 3));
        p.drawLine(toPixel(a.x, a.y), toPixel(b.x, b.y));
    }
    // Edges that can be dragged, with their distance from the line of supports.
    if (session_.place() == Place::Strips && strips_.tool() == StripTool::Select) {
        p.setFont(uiFont(10));
        for (const auto& e : strips::edgesOf(*layout, *chosen)) {
            bool hot = hand_ == Hand::StripEdge
                           ? e.line == heldEdge_.line && e.side == heldEdge_.side
                           : e.line == hotEdge_.line && e.side == hotEdge_.side && !hotEdge_.line.empty();
            p.setPen(QPen(t.selection, hot ? 3 : 1.8));
            QPolygonF path;
            for (auto at : e.path) path << toPixel(at.x, at.y);
            p.drawPolyline(path);
            QPointF mid = toPixel(e.handle.x, e.handle.y);
            p.setBrush(hot ? t.selection : t.paper);
            p.drawRect(QRectF(mid - QPointF(4, 4), QSizeF(8, 8)));
            if (hot || hand_ == Hand::StripEdge)
                label(p, boxOf(p, mid + QPointF(46, -14), session_.text(e.offset, units::Kind::Span)),
                      session_.text(e.offset, units::Kind::Span), t.selection, t.paper);
        }
    }
}

void FloorCanvas::paintStation(QPainter& p) {
    const auto* chosen = strips_.strip();
    const double u = session_.station();
    if (!chosen || !std::isfinite(u) || u < chosen->from || u > chosen->to) return;
    // Across the strip, where it is cut.
    p.setPen(QPen(theme().selection, 1.2, Qt::DashLine));
    for (const auto& part : chosen->parts) {
        double low = 1e300, high = -1e300;
        for (std::size_t i = 0; i < part.size(); ++i) {
            auto a = chosen->axes.local(part[i]), b = chosen->axes.local(part[(i + 1) % part.size()]);
            if ((a.x > u) == (b.x > u)) continue;
            double v = a.y + (b.y - a.y) * (u - a.x) / (b.x - a.x);
            low = std::min(low, v), high = std::max(high, v);
        }
        if (high < low) continue;
        auto a = chosen->axes.plan({u, low}), b = chosen->axes.plan({u, high});
        p.drawLine(toPixel(a.x, a.y), toPixel(b.x, b.y));
    }
}

void FloorCanvas::paintDrawnPoints(QPainter& p) {
    const auto& points = strips_.points();
    p.setPen(QPen(theme().selection, 1.8));
    for (std::size_t i = 0; i < points.size(); ++i)
        p.drawLine(toPixel(points[i].x, points[i].y),
                   i + 1 < points.size() ? toPixel(points[i + 1].x, points[i + 1].y) : now_);
}

// Bars of the strip in hand, as many as there is room for, with their call-out.
void FloorCanvas::paintStripBars(QPainter& p) {
    const auto* s = strips_.strip();
    const auto* d = strips_.stripDesign();
    if (!s || !d) return;
    const Theme& t = theme();
    QColor colour = s->direction == 0 ? t.barsX : t.barsY;
    p.setFont(uiFont(11, QFont::DemiBold));
    const double width = s->area() / std::max(s->to - s->from, 1.0);
    int turn = 0;
    std::vector<std::tuple<QPointF, QString, QColor>> callouts;
    for (const auto& r : d->runs) {
        bool here = session_.selected(Spot::In::Run, r.id);
        QPen pen(here ? t.selection : colour, here ? 2.4 : 1.6, r.top() ? Qt::DashLine : Qt::SolidLine);
        p.setPen(pen);
        // Bottom bars a little below the axis, top bars above it, bands on it.
        double off = (r.band() ? 0.0 : r.top() ? 0.22 : -0.22) * width * (1 + 0.25 * (turn % 2));
        ++turn;
        double mid = (r.from + r.to) / 2;
        auto a = s->axes.plan({r.from, s->v(mid) + off}), b = s->axes.plan({r.to, s->v(mid) + off});
        QPointF pa = toPixel(a.x, a.y), pb = toPixel(b.x, b.y);
        p.drawLine(pa, pb);
        p.setPen(QPen(here ? t.selection : colour, 1.2));
        p.setBrush(t.paper);
        for (QPointF e : {pa, pb}) p.drawEllipse(e, 2.5, 2.5);
        if (QLineF(pa, pb).length() < 46) continue;
        callouts.emplace_back();
        auto& [at, text, ink] = callouts.back();
        at = (pa + pb) / 2 + QPointF(0, r.top() ? -9 : 9), ink = here ? t.selection : colour;
        text = tr("%1-%2 %3%4")
                   .arg(qs(r.bar), session_.number(r.spacing, units::Kind::BarSpacing),
                        r.top() ? QStringLiteral("T") : QStringLiteral("B"))
                   .arg((r.top() ? d->outerTop : d->outerBottom) > 0 ? 2 : 1);
    }
    for (const auto& [at, text, ink] : callouts) tag(p, at, text, ink);
}

}  // namespace talvik::app
