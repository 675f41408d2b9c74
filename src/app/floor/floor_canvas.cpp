#include "floor/floor_canvas.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>
#include <cmath>
#include <limits>

#include "widgets/theme.h"

namespace talvik::app {
namespace {

QPolygonF polygon(const geometry::Ring& ring) {
    QPolygonF p;
    for (auto v : ring) p << QPointF(v.x, v.y);
    return p;
}

// A round step that leaves about `lines` lines between the ends.
double roundStep(double span, int lines) {
    double raw = span / lines, power = std::pow(10, std::floor(std::log10(raw)));
    for (double k : {1.0, 2.0, 5.0})
        if (raw <= k * power) return k * power;
    return 10 * power;
}

}  // namespace

FloorCanvas::FloorCanvas(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setMinimumSize(320, 240);
    setAccessibleName(tr("Plan of the floor with lines of equal value"));
}

void FloorCanvas::showField(analysis::Field field, int combination) {
    field_ = field;
    combination_ = combination;
    refresh();
}

void FloorCanvas::showMesh(bool on) {
    mesh_ = on;
    update();
}

void FloorCanvas::refresh() {
    values_.clear();
    finder_.reset();
    model_.reset();
    const auto* a = session_.floorAnalysis();
    if (a && a->good() && !a->combinations.empty()) {
        model_ = a->model;
        finder_ = std::make_unique<fem::TriangleFinder>(model_->plate.nodes, model_->plate.triangles);
        if (combination_ >= 0 && combination_ < int(a->combinations.size())) {
            values_ = a->field(field_, std::size_t(combination_));
        } else {
            auto e = a->envelope(field_, field_ == analysis::Field::Deflection
                                             ? actions::LimitState::QuasiPermanent
                                             : actions::LimitState::Ultimate);
            const auto& from = combination_ == Least ? e.least : e.most;
            values_.assign(from.begin(), from.end());
        }
        if (a->perNode(field_) && !values_.empty()) {
            std::vector<double> spread(model_->points.node.size());
            for (std::size_t i = 0; i < spread.size(); ++i)
                spread[i] = values_[std::size_t(model_->points.node[i])];
            values_ = std::move(spread);
        }
    }
    traceLines();
    update();
}

void FloorCanvas::traceLines() {
    lines_.clear();
    if (values_.empty()) return;
    // The peaks over columns would leave few lines for the spans: steps follow the middle 96 of 100 values.
    std::vector<double> sorted = values_;
    std::sort(sorted.begin(), sorted.end());
    double low = sorted[sorted.size() / 50], high = sorted[sorted.size() - 1 - sorted.size() / 50];
    double unit = displayFactor();
    if (!(high - low > 1e-9 * std::max(std::abs(low), std::abs(high)))) return;
    step_ = roundStep((high - low) / unit, 12) * unit;
    int first = int(std::ceil(sorted.front() / step_)), last = int(std::floor(sorted.back() / step_));
    first = std::max(first, int(std::floor(low / step_)) - 12);
    last = std::min(last, int(std::ceil(high / step_)) + 12);
    for (int k = first; k <= last; ++k) lines_.push_back({k * step_, {}});
    const auto& nodes = model_->plate.nodes;
    for (std::size_t t = 0; t < model_->plate.triangles.size(); ++t) {
        double v[3];
        QPointF p[3];
        for (std::size_t i = 0; i < 3; ++i) {
            v[i] = values_[std::size_t(model_->points.corner[3 * t + i])];
            auto n = nodes[std::size_t(model_->plate.triangles[t][i])];
            p[i] = {n.x, n.y};
        }
        double least = std::min({v[0], v[1], v[2]}), most = std::max({v[0], v[1], v[2]});
        for (int k = std::max(first, int(std::ceil(least / step_)));
             k <= std::min(last, int(std::floor(most / step_))); ++k) {
            double level = k * step_;
            QPointF ends[3];
            int count = 0;
            for (int i = 0; i < 3; ++i) {
                int j = (i + 1) % 3;
                if ((v[i] < level) == (v[j] < level)) continue;
                ends[count++] = p[i] + (level - v[i]) / (v[j] - v[i]) * (p[j] - p[i]);
            }
            if (count == 2) lines_[std::size_t(k - first)].pieces.push_back({ends[0], ends[1]});
        }
    }
    std::erase_if(lines_, [](const Line& l) { return l.pieces.empty(); });
}

double FloorCanvas::displayFactor() const {
    return units::unit(analysis::kind(field_), session_.project().basis.units).factor;
}

double FloorCanvas::valueAt(model::Point p) const {
    std::array<double, 3> share;
    int t = finder_ ? finder_->find(p, &share) : -1;
    if (t < 0 || values_.empty()) return std::numeric_limits<double>::quiet_NaN();
    double v = 0;
    for (std::size_t i = 0; i < 3; ++i)
        v += share[i] * values_[std::size_t(model_->points.corner[3 * std::size_t(t) + i])];
    return v;
}

void FloorCanvas::fit() {
    const auto* f = session_.floor();
    fitted_ = true;
    if (!f || f->slabs.empty()) return;
    QRectF box;
    for (const auto& s : f->slabs) box |= polygon(model::ring(s.outline)).boundingRect();
    scale_ = std::min((width() - 60) / box.width(), (height() - 90) / box.height());
    origin_ = {width() / 2.0 - box.center().x() * scale_, height() / 2.0 + box.center().y() * scale_ + 6};
    update();
}

void FloorCanvas::resizeEvent(QResizeEvent*) {
    if (fitted_) fit();
}

void FloorCanvas::paintStructure(QPainter& p) {
    const auto* f = session_.floor();
    if (!f) return;
    const Theme& t = theme();
    auto mapped = [&](const geometry::Ring& ring) {
        QPolygonF out;
        for (auto v : ring) out << toPixel(v.x, v.y);
        return out;
    };
    p.setPen(QPen(t.ink, 1.4));
    p.setBrush(t.concrete);
    for (const auto& s : f->slabs) p.drawPolygon(mapped(model::ring(s.outline)));
    if (mesh_ && model_) {
        p.setPen(QPen(t.hairline, 0.6));
        for (const auto& tri : model_->plate.triangles) {
            QPolygonF out;
            for (int n : tri)
                out << toPixel(model_->plate.nodes[std::size_t(n)].x, model_->plate.nodes[std::size_t(n)].y);
            p.setBrush(Qt::NoBrush);
            p.drawPolygon(out);
        }
    }
    p.setFont(uiFont(10));
    for (const auto& z : f->zones) {
        auto ring = mapped(model::ring(z.outline));
        p.setPen(QPen(t.secondary, 1, Qt::DashLine));
        p.setBrush(Qt::NoBrush);
        p.drawPolygon(ring);
        p.setPen(t.secondary);
        p.drawText(ring.boundingRect().bottomLeft() + QPointF(2, 11),
                   session_.text(z.thickness, units::Kind::Length));
    }
    for (const auto& o : f->openings) {
        auto ring = mapped(model::ring(o.outline));
        p.setPen(QPen(t.ink, 1));
        p.setBrush(t.paper);
        p.drawPolygon(ring);
        p.setPen(QPen(t.hairline, 1));
        auto b = ring.boundingRect();
        p.drawLine(b.topLeft(), b.bottomRight());
        p.drawLine(b.topRight(), b.bottomLeft());
    }
    auto along = [&](model::Point a, model::Point b, double width, const QPen& pen, const QBrush& brush) {
        double L = std::hypot(b.x - a.x, b.y - a.y);
        if (L == 0) return;
        double nx = -(b.y - a.y) / L * width / 2, ny = (b.x - a.x) / L * width / 2;
        p.setPen(pen);
        p.setBrush(brush);
        p.drawPolygon(QPolygonF({toPixel(a.x + nx, a.y + ny), toPixel(b.x + nx, b.y + ny),
                                 toPixel(b.x - nx, b.y - ny), toPixel(a.x - nx, a.y - ny)}));
    };
    for (const auto& b : f->beams) along(b.a, b.b, b.width, QPen(t.secondary, 1, Qt::DashLine), Qt::NoBrush);
    for (const auto& w : f->walls) along(w.a, w.b, w.thickness, QPen(t.structure, 1), t.structure);
    for (const auto& e : f->edges) {
        p.setPen(
            QPen(t.structure, 3, e.kind == model::LineSupport::Kind::Symmetry ? Qt::DotLine : Qt::SolidLine));
        p.drawLine(toPixel(e.a.x, e.a.y), toPixel(e.b.x, e.b.y));
    }
    for (const auto& l : f->actions.loads) {
        p.setPen(QPen(t.secondary, 1, Qt::DotLine));
        p.setBrush(Qt::NoBrush);
        if (l.kind == model::FloorLoad::Kind::Line) p.drawLine(toPixel(l.a.x, l.a.y), toPixel(l.b.x, l.b.y));
        if (l.kind == model::FloorLoad::Kind::Area && !l.outline.empty())
            p.drawPolygon(mapped(model::ring(l.outline)));
        if (l.kind == model::FloorLoad::Kind::Point && l.width > 0)
            p.drawPolygon(mapped(model::footprint(l)));
    }
    for (const auto& pile : f->piles) {
        p.setPen(QPen(t.structure, 1, Qt::DashLine));
        double r = pile.diameter / 2 * scale_;
        p.drawEllipse(toPixel(pile.x, pile.y), r, r);
    }
}

void FloorCanvas::paintLines(QPainter& p) {
    const Theme& t = theme();
    p.setOpacity(session_.floorStale() ? 0.35 : 1);
    double unit = displayFactor();
    struct Label {
        QPointF at;
        double angle;
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
        pen.setCapStyle(Qt::FlatCap);
        p.setPen(pen);
        QPainterPath path;
        QPointF last;
        for (const auto& piece : line.pieces) {
            QPointF a = toPixel(piece.x1(), piece.y1()), b = toPixel(piece.x2(), piece.y2());
            path.moveTo(a);
            path.lineTo(b);
        }
        if (line.value < 0) {  // dashes cannot run through separate pieces: leave every third one out instead
            QPainterPath dashed;
            for (const auto& piece : line.pieces) {
                QPointF a = toPixel(piece.x1(), piece.y1()), b = toPixel(piece.x2(), piece.y2());
                double phase = std::fmod(std::abs(a.x() + b.x()) / 2 + std::abs(a.y() + b.y()) / 2, 12);
                if (phase > 3.5) {
                    dashed.moveTo(a);
                    dashed.lineTo(b);
                }
            }
            path = dashed;
            pen.setStyle(Qt::SolidLine);
            p.setPen(pen);
        }
        p.drawPath(path);
        QString text = QString::number(line.value / unit, 'g', 6);
        double wide = metrics.horizontalAdvance(text);
        int put = 0;
        for (std::size_t i = 0; i < line.pieces.size() && put < 4; i += 7) {
            QPointF a = toPixel(line.pieces[i].x1(), line.pieces[i].y1()),
                    b = toPixel(line.pieces[i].x2(), line.pieces[i].y2());
            QPointF at = (a + b) / 2;
            bool free = rect().adjusted(20, 20, -20, -20).contains(at.toPoint());
            for (const auto& c : session_.floor()->columns) {  // nor under a column or its name
                QPointF q = toPixel(c.x, c.y);
                free &= std::abs(q.x() + 10 - at.x()) > 24 + wide / 2 || std::abs(q.y() - 4 - at.y()) > 22;
            }
            for (const auto& l : labels) free &= std::hypot(l.at.x() - at.x(), l.at.y() - at.y()) > 26 + wide;
            for (const auto& l : labels)
                free &= l.text != text || std::hypot(l.at.x() - at.x(), l.at.y() - at.y()) > 170;
            if (!free) continue;
            labels.push_back({at, 0, text});
            ++put;
        }
    }
    for (const auto& l : labels) {
        QRectF box(0, 0, metrics.horizontalAdvance(l.text) + 5, metrics.height());
        box.moveCenter(l.at);
        p.setPen(Qt::NoPen);
        p.setBrush(t.concrete);
        p.drawRect(box);
        p.setPen(t.ink);
        p.drawText(box, Qt::AlignCenter, l.text);
    }
    p.setOpacity(1);
}

void FloorCanvas::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Theme& t = theme();
    p.fillRect(rect(), t.paper);
    const auto* f = session_.floor();
    if (!f) return;
    paintStructure(p);
    paintLines(p);
    p.setFont(uiFont(10, QFont::DemiBold));
    for (const auto& c : f->columns) {
        QPolygonF ring;
        for (auto v : model::footprint(c)) ring << toPixel(v.x, v.y);
        p.setPen(QPen(t.structure, 1.2));
        p.setBrush(c.below ? QBrush(t.structure) : Qt::NoBrush);
        if (c.circular)
            p.drawEllipse(toPixel(c.x, c.y), c.width / 2 * scale_, c.width / 2 * scale_);
        else
            p.drawPolygon(ring);
        p.setPen(t.ink);
        p.drawText(ring.boundingRect().topRight() + QPointF(3, -2), QString::fromStdString(c.name));
    }
    p.setFont(uiFont(11));
    p.setPen(t.secondary);
    QString caption = QString::fromUtf8(analysis::title(field_)) + QStringLiteral(" in ") +
                      session_.unit(analysis::kind(field_));
    if (step_ > 0 && !lines_.empty())
        caption += tr(", lines every %1; below zero broken").arg(step_ / displayFactor(), 0, 'g', 4);
    p.drawText(QPointF(14, 20), caption);
    // Scale bar of five metres.
    QPointF a(14, height() - 14);
    p.drawLine(a, a + QPointF(5000 * scale_, 0));
    for (double x : {0.0, 5000 * scale_}) p.drawLine(a + QPointF(x, -3), a + QPointF(x, 3));
    p.drawText(a + QPointF(5000 * scale_ + 8, 4), session_.text(5000, units::Kind::Span));
}

void FloorCanvas::wheelEvent(QWheelEvent* e) {
    double k = std::pow(1.0015, e->angleDelta().y());
    k = std::clamp(scale_ * k, 1e-4, 2.0) / scale_;
    origin_ = e->position() + (origin_ - e->position()) * k;
    scale_ *= k;
    fitted_ = false;
    update();
}
void FloorCanvas::mousePressEvent(QMouseEvent* e) {
    grabbed_ = e->position();
    setFocus();
}
void FloorCanvas::mouseMoveEvent(QMouseEvent* e) {
    if (e->buttons() & (Qt::LeftButton | Qt::MiddleButton)) {
        origin_ += e->position() - grabbed_;
        grabbed_ = e->position();
        fitted_ = false;
        update();
    }
    auto p = toPlan(e->position());
    emit pointerMoved(p.x, p.y, valueAt(p));
}
void FloorCanvas::keyPressEvent(QKeyEvent* e) {
    double step = 40;
    switch (e->key()) {
        case Qt::Key_Left:
            origin_.rx() += step;
            break;
        case Qt::Key_Right:
            origin_.rx() -= step;
            break;
        case Qt::Key_Up:
            origin_.ry() += step;
            break;
        case Qt::Key_Down:
            origin_.ry() -= step;
            break;
        case Qt::Key_F:
        case Qt::Key_Home:
            return fit();
        default:
            return QWidget::keyPressEvent(e);
    }
    fitted_ = false;
    update();
}

}  // namespace talvik::app
