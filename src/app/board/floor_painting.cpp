// What the plan of a floor shows, from the drawing below to the line under way.
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "board/floor_canvas.h"
#include "layout/panels.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {

void FloorCanvas::paintShort(QPainter& p) {
    if (shown_ != Shown::Proof || values_.empty() || !model_) return;
    QPainterPath path;
    for (std::size_t k = 0; k < model_->plate.triangles.size(); ++k) {
        bool over = false;
        for (std::size_t i = 0; i < 3; ++i)
            over |= values_[std::size_t(model_->points.corner[3 * k + i])] > 1;
        if (!over) continue;
        QPolygonF triangle;
        for (int n : model_->plate.triangles[k]) {
            const auto& at = model_->plate.nodes[std::size_t(n)];
            triangle << toPixel(at.x, at.y);
        }
        triangle << triangle.front();
        path.addPolygon(triangle);
    }
    path.setFillRule(Qt::WindingFill);
    p.setPen(Qt::NoPen);
    p.setBrush(hatch(theme().over));
    p.drawPath(path);
    p.setBrush(Qt::NoBrush);
}

void FloorCanvas::paintLines(QPainter& p) {
    paintShort(p);
    const Theme& t = theme();
    p.setOpacity(session_.stale() ? 0.35 : 1);
    double unit = displayFactor();
    struct Label {
        QRectF box;
        QString text;
    };
    std::vector<Label> labels;
    p.setFont(uiFont(10));
    QFontMetricsF metrics(p.font());
    for (const auto& line : lines_) {
        // Below zero in long dashes, zero itself heavier.
        bool zero = std::abs(line.value) < 1e-9 * step_;
        QPen pen(line.value < 0 ? t.barsY : t.barsX, zero ? 1.8 : 1.1);
        if (line.value < 0) pen.setDashPattern({7, 3});
        if (zero) pen.setColor(t.ink);
        if (shown_ == Shown::Proof) {  // the limit stands out, what is far below it fades
            const bool limit = std::abs(line.value - 1) < 1e-9;
            pen.setColor(line.value >= 1 ? t.over : line.value > 0.6 ? t.ink : t.secondary);
            pen.setWidthF(limit ? 2.2 : 1.1);
        }
        pen.setCapStyle(Qt::FlatCap);
        p.setPen(pen);
        p.setBrush(Qt::NoBrush);
        QPainterPath path;
        for (const auto& chain : line.chains) {
            // Through the points with the slope between their neighbours.
            const qsizetype n = chain.size();
            auto at = [&](qsizetype k) {
                const auto& c = chain[std::clamp<qsizetype>(k, 0, n - 1)];
                return toPixel(c.x(), c.y());
            };
            path.moveTo(at(0));
            for (qsizetype k = 0; k + 1 < n; ++k)
                path.cubicTo(at(k) + (at(k + 1) - at(k - 1)) / 6, at(k + 1) - (at(k + 2) - at(k)) / 6,
                             at(k + 1));
        }
        p.drawPath(path);
        QString text = QString::number(line.value / unit, 'g', 6);
        double wide = metrics.horizontalAdvance(text);
        int put = 0;
        for (const auto& chain : line.chains)
            for (qsizetype i = chain.size() / 3; i < chain.size() && put < 4; i += 14) {
                const QPointF at = toPixel(chain[i].x(), chain[i].y());
                QRectF box(0, 0, wide + 5, metrics.height());
                box.moveCenter(at);
                bool good =
                    rect().adjusted(10, 10, -10, -10).contains(box.toAlignedRect()) && labels_.free(box);
                for (const auto& l : labels)
                    good &= l.text != text || QLineF(l.box.center(), at).length() > 170;
                if (!good) continue;
                labels_.reserve(box.adjusted(-6, -4, 6, 4));
                labels.push_back({box, text});
                ++put;
            }
    }
    if (strong_) {
        p.setPen(QPen(t.over, 2.4));
        p.setBrush(Qt::NoBrush);
        for (const auto& chain : strong_->chains) {
            QPolygonF points;
            for (QPointF q : chain) points << toPixel(q.x(), q.y());
            p.drawPolyline(points);
        }
    }
    for (const auto& l : labels) {
        p.fillRect(l.box, t.concrete);
        p.setPen(t.ink);
        p.drawText(l.box, Qt::AlignCenter, l.text);
    }
    p.setOpacity(1);
}

namespace {

template <class Map>
QPolygonF mapped(const geometry::Ring& ring, Map map) {
    QPolygonF out;
    out.reserve(int(ring.size()));
    for (auto v : ring) out << map(v.x, v.y);
    return out;
}

QRectF boxOf(QPainter& p, QPointF at, const QString& text, bool centred) {
    QRectF box = QFontMetricsF(p.font()).boundingRect(text).adjusted(-3, -1, 3, 1);
    box.moveCenter(centred ? at : at + QPointF(box.width() / 2, 0));
    return box;
}
void write(QPainter& p, const QRectF& box, const QString& text, const QColor& ink) {
    QColor ground = theme().paper;
    ground.setAlphaF(0.88f);
    p.fillRect(box, ground);
    p.setPen(ink);
    p.drawText(box, Qt::AlignCenter, text);
}
// What belongs to the pointer stands beside it, whatever is there.
void pointed(QPainter& p, QPointF at, const QString& text, const QColor& ink, bool centred = false) {
    write(p, boxOf(p, at, text, centred), text, ink);
}

}  // namespace

void FloorCanvas::tag(QPainter& p, QPointF at, const QString& text, const QColor& ink, bool centred) {
    if (const auto box = labels_.place(boxOf(p, at, text, centred))) write(p, *box, text, ink);
}

QRectF FloorCanvas::nameRect(const model::Column& c) const {
    const double reach = model::footprint(c).empty() || c.circular ? std::abs(c.width * scale_ / 2) : [&] {
        double most = 0;
        for (auto v : model::footprint(c)) most = std::max(most, std::abs(v.x - c.x));
        return most * scale_;
    }();
    const QFontMetricsF metrics(uiFont(10, QFont::DemiBold));
    return QRectF(toPixel(c.x, c.y) + QPointF(reach + 3, -reach - 2 - metrics.ascent()),
                  QSizeF(metrics.horizontalAdvance(qs(c.name)), metrics.height()));
}

void FloorCanvas::reserveNames() {
    labels_.clear();
    const auto& f = *session_.floor();
    if (f.columns.size() > 400) return;
    if (scale_ > 0.012)
        for (const auto& c : f.columns) {
            labels_.reserve(nameRect(c));
            const double r = c.width * scale_ / 2;
            labels_.reserve(QRectF(toPixel(c.x, c.y) - QPointF(r, r), QSizeF(2 * r, 2 * r)));
        }
    for (const auto& b : bubbles()) labels_.reserve(QRectF(b.at - QPointF(12, 12), QSizeF(24, 24)));
}

void FloorCanvas::paintEvent(QPaintEvent*) {
    QPainter p(this);
    still_.paint(p, *this, [this](QPainter& inner) { paintAll(inner); });
    p.setRenderHint(QPainter::Antialiasing);
    if (session_.floor() && stripping()) paintStation(p);
    paintFocus(p, *this);
}

void FloorCanvas::paintAll(QPainter& p) {
    p.fillRect(rect(), theme().paper);
    if (!session_.floor()) return;
    reserveNames();
    if (drawing()) paintBelow(p);
    p.setRenderHint(QPainter::Antialiasing);
    paintStructure(p);
    paintGrid(p);
    if (session_.place() == Place::Layout && !desk_.dragging()) paintPanels(p);
    if (stripping()) placeStripNames(p), paintStrips(p);
    if (!drawing() && session_.place() != Place::Basis) paintLines(p);
    if (session_.place() == Place::Actions) paintLoads(p);
    paintColumns(p);
    if (session_.place() == Place::Bars) paintStripBars(p);
    if (session_.place() == Place::Checks || session_.place() == Place::Bars) paintConnections(p);
    if (stripping()) paintStripNames(p);
    if (stripping()) paintDrawnPoints(p);
    if (drawing()) {
        paintSelection(p);
        paintPending(p);
    }
    paintPreview(p);
    paintScale(p);
}

// What differs in the floor that a remedy would make: members that come or change, with their size.
void FloorCanvas::paintPreview(QPainter& p) {
    const auto* f = session_.floor();
    if (!preview_ || preview_->id != f->id) return;
    const Theme& t = theme();
    auto map = [this](double x, double y) { return toPixel(x, y); };
    auto changed = [](const auto& now, const auto& then) {
        return std::none_of(now.begin(), now.end(), [&](const auto& m) { return m == then; });
    };
    auto length = [this](double v) { return session_.text(v, units::Kind::Length); };
    auto outline = [&](const QPolygonF& ring, const QString& words) {
        p.setPen(QPen(t.selection, 2, Qt::DashLine));
        p.setBrush(Qt::NoBrush);
        p.drawPolygon(ring);
        p.setFont(uiFont(11, QFont::DemiBold));
        tag(p, ring.boundingRect().center(), words, t.selection, false);
    };
    for (const auto& s : preview_->slabs)
        if (changed(f->slabs, s)) outline(mapped(model::ring(s.outline), map), length(s.thickness));
    for (const auto& z : preview_->zones)
        if (changed(f->zones, z)) outline(mapped(model::ring(z.outline), map), length(z.thickness));
    for (const auto& c : preview_->columns)
        if (changed(f->columns, c))
            outline(mapped(model::footprint(c), map), tr("%1 × %2").arg(length(c.width), length(c.depth)));
    for (const auto& b : preview_->beams)
        if (changed(f->beams, b))
            outline(mapped(model::footprint(b), map), tr("%1 × %2").arg(length(b.width), length(b.depth)));
    for (const auto& k : preview_->punching.choices)
        if (changed(f->punching.choices, k))
            for (const auto& c : f->columns)
                if (c.id == k.connection) {
                    p.setPen(QPen(t.selection, 2, Qt::DashLine));
                    p.setBrush(Qt::NoBrush);
                    p.drawEllipse(toPixel(c.x, c.y), 16, 16);
                }
}

void FloorCanvas::setPreview(std::shared_ptr<const model::Floor> floor) {
    preview_ = std::move(floor);
    update();
}

void FloorCanvas::paintBelow(QPainter& p) {
    const auto& all = desk_.below();
    if (all.empty()) return;
    // Kept as a picture while the view stands still.
    QString key = QStringLiteral("%1 %2 %3 %4 %5 %6")
                      .arg(scale_)
                      .arg(origin_.x())
                      .arg(origin_.y())
                      .arg(width())
                      .arg(height())
                      .arg(quintptr(all.data()));
    key += QString::number(all.size());
    if (key != belowKey_) {
        belowKey_ = key;
        qreal ratio = devicePixelRatioF();
        belowPixmap_ = QPixmap(size() * ratio);
        belowPixmap_.setDevicePixelRatio(ratio);
        belowPixmap_.fill(theme().paper);
        QPainter q(&belowPixmap_);
        // Faint by its colour: transparent pens are several times slower.
        auto mix = [](int a, int b) { return (55 * a + 45 * b) / 100; };
        QColor ink = theme().secondary, ground = theme().paper;
        q.setPen(QPen(QColor(mix(ink.red(), ground.red()), mix(ink.green(), ground.green()),
                             mix(ink.blue(), ground.blue())),
                      0));
        QVector<QLineF> lines;
        lines.reserve(int(all.size()));
        QRectF view = QRectF(rect()).adjusted(-2, -2, 2, 2);
        for (const auto& s : all) {
            QPointF a = toPixel(s.a.x, s.a.y), b = toPixel(s.b.x, s.b.y);
            if (std::max(a.x(), b.x()) < view.left() || std::min(a.x(), b.x()) > view.right() ||
                std::max(a.y(), b.y()) < view.top() || std::min(a.y(), b.y()) > view.bottom())
                continue;
            lines << QLineF(a, b);
        }
        q.drawLines(lines);
    }
    p.drawPixmap(0, 0, belowPixmap_);
    // Lines picked are drawn again, in the colour of what is selected.
    const auto* f = session_.floor();
    if (desk_.picked().empty() || f->underlays.empty()) return;
    const auto* work = desk_.linework(f->underlays.front().id);
    if (!work) return;
    p.setPen(QPen(theme().selection, 2));
    for (int i : desk_.picked()) {
        layout::Linework one;
        one.layers = work->layers;
        one.paths = {work->paths[std::size_t(i)]};
        for (const auto& s : layout::segments(one, f->underlays.front()))
            p.drawLine(toPixel(s.a.x, s.a.y), toPixel(s.b.x, s.b.y));
    }
}

std::vector<FloorCanvas::Bubble> FloorCanvas::bubbles() const {
    std::vector<Bubble> all;
    for (const auto& g : session_.floor()->grids)
        for (const auto& l : layout::gridLines(g, std::clamp(26 / scale_, 600.0, 2600.0))) {
            QPointF a = toPixel(l.line.a.x, l.line.a.y), b = toPixel(l.line.b.x, l.line.b.y);
            // It stands where its line begins from the left or from above.
            QLineF out(l.along ? a : b, l.along ? b : a);
            QPointF end = out.p1();
            out.setLength(out.length() + 11);
            all.push_back({g.id, l.along, l.index, out.p2(), end, qs(l.label)});
        }
    return all;
}
const FloorCanvas::Bubble* FloorCanvas::bubbleAt(const std::vector<Bubble>& all, QPointF p) const {
    for (const auto& b : all)
        if (QLineF(b.at, p).length() <= 11) return &b;
    return nullptr;
}

void FloorCanvas::paintGrid(QPainter& p) {
    const Theme& t = theme();
    p.setFont(uiFont(11, QFont::DemiBold));
    auto all = bubbles();
    for (const auto& b : all) {
        QPen pen(t.secondary, 0.8);
        if (all.size() < 40)
            pen.setDashPattern({14, 4, 3, 4});
        else
            pen.setColor(t.hairline);
        p.setPen(pen);
        p.drawLine(b.end, b.at);
    }
    for (const auto& b : all) {
        double wide = std::max(22.0, QFontMetricsF(p.font()).horizontalAdvance(b.label) + 10);
        QRectF bubble(0, 0, wide, 22);
        bubble.moveCenter(b.at);
        p.setPen(QPen(t.secondary, 1));
        p.setBrush(t.paper);
        p.drawRoundedRect(bubble, 11, 11);
        p.setPen(t.ink);
        p.drawText(bubble, Qt::AlignCenter, b.label);
    }
}

void FloorCanvas::paintStructure(QPainter& p) {
    const auto* f = session_.floor();
    const Theme& t = theme();
    auto map = [this](double x, double y) { return toPixel(x, y); };
    p.setPen(QPen(t.ink, 1.4));
    QColor ground = t.concrete;
    if (drawing() && !desk_.below().empty()) ground.setAlphaF(0.6f);
    p.setBrush(ground);
    for (const auto& s : f->slabs) p.drawPolygon(mapped(model::ring(s.outline), map));
    if (mesh_ && model_ && !drawing()) {
        p.setPen(QPen(t.hairline, 0.6));
        p.setBrush(Qt::NoBrush);
        for (const auto& tri : model_->plate.triangles) {
            QPolygonF out;
            for (int n : tri)
                out << toPixel(model_->plate.nodes[std::size_t(n)].x, model_->plate.nodes[std::size_t(n)].y);
            p.drawPolygon(out);
        }
    }
    p.setFont(uiFont(10));
    bool words = scale_ > 0.008;
    p.setPen(t.secondary);
    for (const auto& s : f->slabs)  // a step: the level stands in the slab's lower left
        if (words && s.level != 0)
            p.drawText(mapped(model::ring(s.outline), map).boundingRect().bottomLeft() + QPointF(8, -8),
                       tr("top %1%2")
                           .arg(s.level > 0 ? QStringLiteral("+") : QString(),
                                session_.text(s.level, units::Kind::Length)));
    for (const auto& z : f->zones) {
        auto ring = mapped(model::ring(z.outline), map);
        p.setPen(QPen(t.secondary, 1, Qt::DashLine));
        p.setBrush(Qt::NoBrush);
        p.drawPolygon(ring);
        p.setPen(t.secondary);
        p.setFont(uiFont(10));
        if (words && drawing())
            tag(p, ring.boundingRect().bottomLeft() + QPointF(0, 9),
                session_.text(z.thickness, units::Kind::Length), t.secondary, false);
    }
    for (const auto& o : f->openings) {
        auto ring = mapped(model::ring(o.outline), map);
        p.setPen(QPen(t.ink, 1));
        p.setBrush(t.paper);
        p.drawPolygon(ring);
        p.setPen(QPen(t.hairline, 1));
        if (ring.size() == 4) {
            p.drawLine(ring[0], ring[2]);
            p.drawLine(ring[1], ring[3]);
        }
    }
    auto along = [&](model::Point a, model::Point b, double width, const QPen& pen, const QBrush& brush) {
        double L = std::hypot(b.x - a.x, b.y - a.y);
        if (L == 0) return;
        if (width * scale_ < 3) {  // too thin for two edges
            p.setPen(QPen(pen.color(), std::max(1.0, width * scale_)));
            p.drawLine(toPixel(a.x, a.y), toPixel(b.x, b.y));
            return;
        }
        double nx = -(b.y - a.y) / L * width / 2, ny = (b.x - a.x) / L * width / 2;
        p.setPen(pen);
        p.setBrush(brush);
        p.drawPolygon(QPolygonF({toPixel(a.x + nx, a.y + ny), toPixel(b.x + nx, b.y + ny),
                                 toPixel(b.x - nx, b.y - ny), toPixel(a.x - nx, a.y - ny)}));
    };
    // A beam below the slab is hidden by it: dashed.
    for (const auto& b : f->beams)
        along(b.a, b.b, b.width, QPen(t.secondary, 1, b.upstand ? Qt::SolidLine : Qt::DashLine), Qt::NoBrush);
    for (const auto& w : f->walls) along(w.a, w.b, w.thickness, QPen(t.structure, 1), t.structure);
    for (const auto& e : f->edges) {
        p.setPen(
            QPen(t.structure, 3, e.kind == model::LineSupport::Kind::Symmetry ? Qt::DotLine : Qt::SolidLine));
        p.drawLine(toPixel(e.a.x, e.a.y), toPixel(e.b.x, e.b.y));
    }
    p.setFont(uiFont(9));
    for (const auto& l : f->sagLines) {
        p.setPen(QPen(t.attention, 1.4, Qt::DashDotLine));
        const QPointF a = toPixel(l.a.x, l.a.y), b = toPixel(l.b.x, l.b.y);
        p.drawLine(a, b);
        const QString limit = QStringLiteral("≤ ") + session_.text(l.limit, units::Kind::Sag);
        if (QLineF(a, b).length() > 90) p.drawText(a + 0.36 * (b - a) + QPointF(4, -4), limit);
    }
    if (!drawing())
        for (const auto& l : f->actions.loads) {
            p.setPen(QPen(t.secondary, 1, Qt::DotLine));
            p.setBrush(Qt::NoBrush);
            if (l.kind == model::FloorLoad::Kind::Line)
                p.drawLine(toPixel(l.a.x, l.a.y), toPixel(l.b.x, l.b.y));
            if (l.kind == model::FloorLoad::Kind::Area && !l.outline.empty())
                p.drawPolygon(mapped(model::ring(l.outline), map));
            if (l.kind == model::FloorLoad::Kind::Point && l.width > 0)
                p.drawPolygon(mapped(model::footprint(l), map));
        }
    p.setBrush(Qt::NoBrush);
    for (const auto& pile : f->piles) {
        p.setPen(QPen(t.structure, 1, Qt::DashLine));
        double r = pile.diameter / 2 * scale_;
        p.drawEllipse(toPixel(pile.x, pile.y), r, r);
    }
}

void FloorCanvas::paintColumns(QPainter& p) {
    const Theme& t = theme();
    p.setFont(uiFont(10, QFont::DemiBold));
    bool words = scale_ > 0.012;
    QRectF view = QRectF(rect()).adjusted(-40, -40, 40, 40);
    for (const auto& c : session_.floor()->columns) {
        QPointF at = toPixel(c.x, c.y);
        if (!view.contains(at)) continue;
        double x = std::abs(c.width * scale_ / 2);
        if (x < 2) {  // a speck
            p.fillRect(QRectF(at - QPointF(1.5, 1.5), QSizeF(3, 3)), t.structure);
            continue;
        }
        // Cut below: filled. Above only: an outline. Both: filled with the one above shown in it.
        p.setPen(QPen(t.structure, 1.2));
        p.setBrush(c.below ? QBrush(t.structure) : Qt::NoBrush);
        if (c.circular) {
            p.drawEllipse(at, x, x);
        } else {
            QPolygonF ring;
            for (auto v : model::footprint(c)) ring << toPixel(v.x, v.y);
            p.drawPolygon(ring);
        }
        if (c.above) {
            p.setPen(QPen(c.below ? t.paper : t.structure, 1.2));
            p.setBrush(Qt::NoBrush);
            p.drawLine(at + QPointF(-x * 0.6, 0), at + QPointF(x * 0.6, 0));
            p.drawLine(at + QPointF(0, -x * 0.6), at + QPointF(0, x * 0.6));
        }
        p.setPen(t.ink);
        if (!words) continue;
        // With a halo, where lines run through it.
        const QRectF name = nameRect(c);
        QPainterPath letters;
        letters.addText(name.bottomLeft() - QPointF(0, p.fontMetrics().descent()), p.font(), qs(c.name));
        p.strokePath(letters, QPen(t.paper, 3, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
        p.fillPath(letters, t.ink);
    }
}

void FloorCanvas::paintPanels(QPainter& p) {
    const auto* f = session_.floor();
    if (f->columns.size() + f->walls.size() > 400 || scale_ < 0.006) return;
    const Theme& t = theme();
    const auto& panels = desk_.panels();
    const auto& depths = desk_.depths();
    std::size_t worst = design::governing(depths);
    p.setFont(uiFont(10));
    for (std::size_t i = 0; i < panels.size(); ++i) {
        const auto& panel = panels[i];
        // Beside the centre where that lies in an opening.
        Point middle = panel.centre;
        auto open = [&](Point q) {
            return std::any_of(f->openings.begin(), f->openings.end(),
                               [&](const auto& o) { return geometry::contains(model::ring(o.outline), q); });
        };
        if (open(middle))
            for (double u : {-0.3, 0.3})
                for (int k : {0, 1}) {
                    double r = panel.spans[k].angle * M_PI / 180, d = u * panel.spans[k].length;
                    Point q{panel.centre.x + d * std::cos(r), panel.centre.y + d * std::sin(r)};
                    if (open(middle) && !open(q)) middle = q;
                }
        QPointF at = toPixel(middle.x, middle.y);
        // An arrow along the span of a one-way panel, a cross of two for two-way ones.
        auto arrow = [&](double degrees, double length) {
            double r = degrees * M_PI / 180;
            QPointF e(std::cos(r) * length, -std::sin(r) * length), n(-e.y() * 0.16, e.x() * 0.16);
            p.drawLine(at - e, at + e);
            for (double s : {1.0, -1.0}) {
                p.drawLine(at + s * e, at + s * 0.78 * e + n);
                p.drawLine(at + s * e, at + s * 0.78 * e - n);
            }
        };
        p.setPen(QPen(panel.differs ? t.attention : t.secondary, panel.differs ? 1.8 : 1));
        double size =
            std::clamp(0.16 * std::min(panel.spans[0].length, panel.spans[1].length) * scale_, 9.0, 26.0);
        if (panel.oneWay)
            arrow(panel.direction, size);
        else
            arrow(panel.spans[0].angle, size), arrow(panel.spans[1].angle, size);
        if (scale_ < 0.014) continue;
        QString text =
            QStringLiteral("%1 × %2").arg(session_.number(panel.spans[0].clear, units::Kind::Span),
                                          session_.number(panel.spans[1].clear, units::Kind::Span));
        const bool governs = i == worst && depths[i].thickness > 0;
        if (governs) text += tr(", h %1").arg(session_.text(depths[i].thickness, units::Kind::Length));
        tag(p, at + QPointF(0, size + 9), text, governs ? t.ink : t.secondary);
    }
}

void FloorCanvas::paintLoads(QPainter& p) {
    const Theme& t = theme();
    const auto* f = session_.floor();
    Id shown = desk_.loadCase();
    auto map = [this](double x, double y) { return toPixel(x, y); };
    p.setFont(uiFont(10));
    using Kind = model::FloorLoad::Kind;
    QString everywhere;
    for (const auto& l : f->actions.loads) {
        bool own = l.loadCase == shown;
        p.setOpacity(own ? 1 : 0.3);
        QColor ink = own ? t.barsX : t.secondary;
        switch (l.kind) {
            case Kind::Area: {
                if (l.outline.empty()) {
                    if (own)
                        everywhere += (everywhere.isEmpty() ? QString() : QStringLiteral(" + ")) +
                                      session_.text(model::intensity(l), units::Kind::AreaLoad);
                    break;
                }
                auto ring = mapped(model::ring(l.outline), map);
                QColor wash = ink;
                wash.setAlphaF(own ? 0.10f : 0.04f);
                p.setPen(QPen(ink, 1));
                p.setBrush(wash);
                p.drawPolygon(ring);
                if (own)
                    tag(p, ring.boundingRect().center(),
                        session_.text(model::intensity(l), units::Kind::AreaLoad), ink);
                break;
            }
            case Kind::Line: {
                QPointF a = toPixel(l.a.x, l.a.y), b = toPixel(l.b.x, l.b.y);
                p.setPen(QPen(ink, 2.4));
                p.drawLine(a, b);
                p.setPen(QPen(ink, 1));
                QLineF line(a, b);
                int ticks = std::clamp(int(line.length() / 14), 1, 60);
                for (int k = 0; k <= ticks; ++k) {
                    QPointF q = line.pointAt(double(k) / ticks);
                    p.drawLine(q, q + QPointF(4, -6));
                }
                if (own)
                    tag(p, line.center() + QPointF(0, -13),
                        session_.text(l.value, units::Kind::ForcePerWidth), ink);
                break;
            }
            case Kind::Point:
            case Kind::Moment: {
                QPointF at = toPixel(l.a.x, l.a.y);
                p.setPen(QPen(ink, 1.6));
                p.setBrush(Qt::NoBrush);
                if (l.kind == Kind::Point) {
                    if (l.width > 0) p.drawPolygon(mapped(model::footprint(l), map));
                    p.drawEllipse(at, 5, 5);
                    p.setBrush(ink);
                    p.drawEllipse(at, 1.8, 1.8);
                } else {
                    p.drawArc(QRectF(at - QPointF(9, 9), at + QPointF(9, 9)), 30 * 16, 280 * 16);
                }
                if (own)
                    tag(p, at + QPointF(12, -12),
                        l.kind == Kind::Point ? session_.text(l.value, units::Kind::Force)
                                              : session_.text(l.value, units::Kind::Moment),
                        ink, false);
            }
        }
    }
    p.setOpacity(1);
    // What supports carry in the case shown, from the answer.
    const auto* a = session_.floorAnalysis();
    if (a && a->good() && scale_ > 0.012) {
        std::size_t at = a->cases.size();
        for (std::size_t i = 0; i < a->cases.size(); ++i)
            if (a->cases[i].id == shown) at = i;
        if (at < a->cases.size()) {
            p.setOpacity(session_.stale() ? 0.4 : 1);
            for (std::size_t s = 0; s < a->model->supports.size(); ++s) {
                const auto& support = a->model->supports[s];
                tag(p, toPixel(support.at.x, support.at.y) + QPointF(10, 15),
                    session_.text(a->supportForces[at][s].up, units::Kind::Force), t.ink, false);
            }
            p.setOpacity(1);
        }
    }
    QString name;
    for (const auto& c : f->actions.cases)
        if (c.id == shown) name = qs(c.name);
    if (!everywhere.isEmpty()) name += tr(": %1 on every slab").arg(everywhere);
    p.setFont(uiFont(11));
    p.setPen(t.secondary);
    p.drawText(QPointF(14, 20), name);
}

QRectF FloorCanvas::dimensionAt(std::size_t side) const {
    const auto* f = desk_.floor();
    const auto* o =
        f && desk_.selection().size() == 1 ? layout::outlineOf(*f, *desk_.selection().begin()) : nullptr;
    if (!o || side >= o->size()) return {};
    const auto &a = (*o)[side], &b = (*o)[(side + 1) % o->size()];
    QLineF line(toPixel(a.x, a.y), toPixel(b.x, b.y));
    geometry::Ring plain;
    for (const auto& c : *o) plain.push_back({c.x, c.y});
    QPointF n(line.dy(), -line.dx());
    double L = std::max(1.0, line.length()), sign = geometry::area(plain) >= 0 ? 1 : -1;
    n *= -sign * 14 / L;
    QString text = session_.text(std::hypot(b.x - a.x, b.y - a.y), units::Kind::Span);
    QRectF box = QFontMetricsF(uiFont(11)).boundingRect(text).adjusted(-3, -1, 3, 1);
    box.moveCenter(line.center() + n);
    return box;
}

void FloorCanvas::paintSelection(QPainter& p) {
    const Theme& t = theme();
    const auto* f = session_.floor();
    auto map = [this](double x, double y) { return toPixel(x, y); };
    // Loose ends first: marked where they are, with the gap.
    if (session_.place() == Place::Layout && !desk_.dragging()) {
        p.setFont(uiFont(10, QFont::DemiBold));
        int shown = 0;
        for (const auto& e : session_.matters()) {
            if (e.kind != report::Matter::Kind::Loose || e.ids.empty()) continue;
            if (++shown > 60) break;
            QPointF at = toPixel(e.at.x, e.at.y);
            p.setPen(QPen(e.prevents ? t.over : t.attention, 1.8));
            p.setBrush(Qt::NoBrush);
            p.drawEllipse(at, 8, 8);
            p.drawLine(at + QPointF(6, -6), at + QPointF(13, -13));
            if (e.gap > 0)
                tag(p, at + QPointF(16, -16), session_.text(e.gap, units::Kind::Length),
                    e.prevents ? t.over : t.attention, false);
        }
    }
    QPen pen(t.selection, 2);
    model::eachMember(*f, [&](const std::string&, const auto& m) {
        if (!desk_.selection().contains(m.id)) return;
        p.setPen(pen);
        p.setBrush(Qt::NoBrush);
        using T = std::decay_t<decltype(m)>;
        if constexpr (std::is_same_v<T, model::Column>) {
            p.drawPolygon(mapped(model::footprint(m), map));
            p.drawEllipse(toPixel(m.x, m.y), m.width * scale_ / 2 + 5, m.width * scale_ / 2 + 5);
        } else if constexpr (std::is_same_v<T, model::Pile>) {
            p.drawEllipse(toPixel(m.x, m.y), m.diameter * scale_ / 2 + 3, m.diameter * scale_ / 2 + 3);
        } else if constexpr (std::is_same_v<T, model::FloorLoad>) {
            if (m.kind == model::FloorLoad::Kind::Area)
                p.drawPolygon(mapped(model::ring(m.outline), map));
            else if (m.kind == model::FloorLoad::Kind::Line)
                p.drawLine(map(m.a.x, m.a.y), map(m.b.x, m.b.y));
            else
                p.drawEllipse(map(m.a.x, m.a.y), 11, 11);
        } else if constexpr (requires { m.outline; }) {
            p.drawPolygon(mapped(model::ring(m.outline), map));
        } else if constexpr (requires { m.b; }) {
            p.drawLine(map(m.a.x, m.a.y), map(m.b.x, m.b.y));
        }
    });
    if (desk_.selection().size() != 1) return;
    Id id = *desk_.selection().begin();
    p.setFont(uiFont(11));
    if (const auto* o = layout::outlineOf(*f, id); o && o->size() <= 40)
        for (std::size_t i = 0; i < o->size(); ++i) {
            const auto &a = (*o)[i], &b = (*o)[(i + 1) % o->size()];
            if (int(i) == desk_.side()) {
                p.setPen(QPen(t.selection, 4));
                p.drawLine(toPixel(a.x, a.y), toPixel(b.x, b.y));
            }
            if (a.bulge == 0)
                pointed(p, dimensionAt(i).center(),
                        session_.text(std::hypot(b.x - a.x, b.y - a.y), units::Kind::Span), t.selection);
        }
    p.setPen(QPen(t.selection, 1.2));
    p.setBrush(t.paper);
    for (Point h : layout::handles(*f, id))
        p.drawRect(QRectF(toPixel(h.x, h.y) - QPointF(3.5, 3.5), QSizeF(7, 7)));
}

void FloorCanvas::paintPending(QPainter& p) {
    const Theme& t = theme();
    if (hand_ == Hand::Box) {
        QColor wash = t.selection;
        wash.setAlphaF(0.08f);
        bool crossing = desk_.tool() == Tool::Select && now_.x() < pressed_.x();
        p.setPen(QPen(t.selection, 1, crossing ? Qt::DashLine : Qt::SolidLine));
        p.setBrush(wash);
        p.drawRect(QRectF(pressed_, now_).normalized());
        auto a = toPlan(pressed_), b = toPlan(now_);
        p.setFont(uiFont(11));
        pointed(p, now_ + QPointF(14, 16),
                QStringLiteral("%1 × %2").arg(session_.text(std::abs(b.x - a.x), units::Kind::Span),
                                              session_.text(std::abs(b.y - a.y), units::Kind::Span)),
                t.selection, false);
    }
    if (desk_.tool() == Tool::Select && hand_ != Hand::Corner && hand_ != Hand::Whole) {
        if (!desk_.hovered().isEmpty() && hand_ == Hand::None) {
            p.setFont(uiFont(11));
            pointed(p, now_ + QPointF(14, 18), desk_.hovered(), t.ink, false);
        }
        return;
    }
    const auto& points = desk_.points();
    QPointF at = toPixel(desk_.pointer().x, desk_.pointer().y);
    p.setPen(QPen(t.selection, 1.8));
    p.setBrush(Qt::NoBrush);
    if (desk_.tool() != Tool::PlaceDrawing)
        for (std::size_t i = 0; i < points.size(); ++i)
            p.drawLine(toPixel(points[i].x, points[i].y),
                       i + 1 < points.size() ? toPixel(points[i + 1].x, points[i + 1].y) : at);
    else
        for (std::size_t i = 0; i < points.size(); i += 2) {
            QPointF from = toPixel(points[i].x, points[i].y);
            QPointF to = i + 1 < points.size() ? toPixel(points[i + 1].x, points[i + 1].y) : at;
            p.drawEllipse(from, 4, 4);
            p.setPen(QPen(t.selection, 1.2, Qt::DashLine));
            p.drawLine(from, to);
            p.setPen(QPen(t.selection, 1.8));
        }
    p.setFont(uiFont(11));
    QString beside;
    if (!points.empty()) {
        double dx = desk_.pointer().x - points.back().x, dy = desk_.pointer().y - points.back().y;
        double degrees = std::atan2(dy, dx) * 180 / M_PI;
        beside = tr("%1 at %2°")
                     .arg(session_.text(std::hypot(dx, dy), units::Kind::Span))
                     .arg(degrees + 0.0, 0, 'f', 1);
    }
    if (!desk_.typed().isEmpty()) beside = desk_.typed() + QStringLiteral("▏");
    if (!beside.isEmpty()) pointed(p, at + QPointF(16, 20), beside, t.selection, false);
    if (const auto& c = desk_.caught()) {
        // The mark's shape says why: a square for ends, a triangle for middles, a cross for crossings, a ring
        // else.
        p.setPen(QPen(t.attention, 1.8));
        using layout::Catch;
        if (c->reason == Catch::End || c->reason == Catch::Perpendicular)
            p.drawRect(QRectF(at - QPointF(5, 5), QSizeF(10, 10)));
        else if (c->reason == Catch::Middle)
            p.drawPolygon(QPolygonF({at + QPointF(0, -6), at + QPointF(6, 5), at + QPointF(-6, 5)}));
        else if (c->reason == Catch::Crossing || c->reason == Catch::Intersection) {
            p.drawLine(at + QPointF(-7, 0), at + QPointF(7, 0));
            p.drawLine(at + QPointF(0, -7), at + QPointF(0, 7));
        } else
            p.drawEllipse(at, 5, 5);
        pointed(p, at + QPointF(16, -14),
                tr("%1, %2").arg(QString::fromUtf8(layout::word(c->reason)), qs(c->of)), t.attention, false);
    }
}

void FloorCanvas::paintScale(QPainter& p) {
    const Theme& t = theme();
    p.setFont(uiFont(11));
    p.setPen(t.secondary);
    if (!drawing() && session_.place() != Place::Basis) {
        QString caption = QString::fromUtf8(analysis::title(field_)) + QStringLiteral(" in ") +
                          session_.unit(analysis::kind(field_));
        if (shown_ == Shown::Steel)
            caption =
                tr("Required steel %1 %2 in %3, not averaged over columns")
                    .arg(QString::fromUtf8(strips::directionName(steelDirection_)),
                         steelTop_ ? tr("top") : tr("bottom"), session_.unit(units::Kind::SteelPerWidth));
        if (shown_ == Shown::Proof) {
            caption =
                steelDirection_ > 1
                    ? tr("Shear utilisation (FE); within 2d of columns see punching")
                    : tr("Steel utilisation %1 %2, required/provided by the FE field; hatched where it fails")
                          .arg(QString::fromUtf8(strips::directionName(steelDirection_)),
                               steelTop_ ? tr("top") : tr("bottom"));
            const auto design = strips_.design();
            if (!design || !design->proof) caption = tr("The FE field check is still being calculated");
        }
        if (shown_ == Shown::Sag) {
            const auto design = strips_.design();
            const auto* sag = design ? design->sag.get() : nullptr;
            caption = !sag                ? tr("The deflection of the cracked slab is still being calculated")
                      : !sag->why.empty() ? qs(sag->why)
                                          : (sagAfter_ ? tr("Deflection after partitions in %1")
                                                       : tr("Long-term deflection in %1"))
                                                    .arg(session_.unit(units::Kind::Sag)) +
                                                tr(": cracked, with creep and shrinkage");
        }
        if (shown_ == Shown::Shear)
            caption = tr("Resultant shear in %1; bold line: v = v_Rd,c of the concrete alone")
                          .arg(session_.unit(units::Kind::ShearStress));
        if (shown_ == Shown::Nothing && connections_.inHand())
            caption = tr("%1: arrow keys select others, C goes to the next by ratio, K turns its shear "
                         "reinforcement")
                          .arg(qs(connections_.inHand()->name));
        else if (shown_ == Shown::Nothing)
            caption =
                tr("Strips %1").arg(QString::fromUtf8(strips::directionName(strips_.direction()))) +
                (strips_.strip() ? QString()
                                 : tr(": click one for its long section and checks, or press the up arrow"));
        if (step_ > 0 && !lines_.empty())
            caption +=
                (shown_ == Shown::Proof || shown_ == Shown::Shear ? tr(", lines every %1")
                                                                  : tr(", lines every %1; dashed below zero"))
                    .arg(step_ / displayFactor(), 0, 'g', 4);
        p.drawText(QPointF(14, 20), caption);
    }
    // A scale bar of a round length.
    bool metric = session_.project().basis.units == units::System::Metric;
    double length = metric ? 5000 : 20 * 304.8;
    while (length * scale_ < 40) length *= 10;
    while (length * scale_ > 420) length /= 5;
    QPointF a(14, height() - 14);
    p.drawLine(a, a + QPointF(length * scale_, 0));
    for (double x : {0.0, length * scale_}) p.drawLine(a + QPointF(x, -3), a + QPointF(x, 3));
    p.drawText(a + QPointF(length * scale_ + 8, 4), session_.text(length, units::Kind::Span));
}

}  // namespace talvik::app
