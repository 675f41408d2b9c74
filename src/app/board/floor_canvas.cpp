#include "board/floor_canvas.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>
#include <cmath>
#include <limits>

#include "board/crossings.h"
#include "design/shear_picture.h"
#include "design/steel_field.h"
#include "widgets/inline_edit.h"
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

FloorCanvas::FloorCanvas(Session& session, FloorDesk& desk, StripDesk& strips, ConnectionDesk& connections,
                         QWidget* parent)
    : QWidget(parent), session_(session), desk_(desk), strips_(strips), connections_(connections) {
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setObjectName(QStringLiteral("floorPlan"));
    setMinimumSize(320, 150);
    setAccessibleName(tr("Plan of the floor"));
    // A new grid is shown whole, unless someone has chosen what to see, or holds it.
    connect(&session_, &Session::changed, this, [this] {
        const auto* f = session_.floor();
        if (f && f->grids != grids_ && fitted_ && hand_ == Hand::None) fit();
        if (f) grids_ = f->grids;
    });
    connect(&desk_, &FloorDesk::changed, this, &FloorCanvas::update);
    connect(&desk_, &FloorDesk::pointed, this, &FloorCanvas::update);
    connect(&strips_, &StripDesk::changed, this, &FloorCanvas::update);
    connect(&strips_, &StripDesk::anglesWanted, this, &FloorCanvas::askAngle);
    for (auto signal : {&Session::placeChanged, &Session::selectionChanged, &Session::answered})
        connect(&session_, signal, this, &FloorCanvas::update);
    connect(&session_, &Session::stationChanged, this, qOverload<>(&QWidget::update));
}

void FloorCanvas::showSteel(int direction, bool top) {
    shown_ = Shown::Steel;
    steelDirection_ = direction;
    steelTop_ = top;
    refresh();
}
void FloorCanvas::showProof(int direction, bool top) {
    shown_ = Shown::Proof;
    steelDirection_ = direction;
    steelTop_ = top;
    refresh();
}
void FloorCanvas::showShear() {
    shown_ = Shown::Shear;
    refresh();
}
void FloorCanvas::showSag(bool after) {
    shown_ = Shown::Sag;
    sagAfter_ = after;
    refresh();
}
void FloorCanvas::showNothing() {
    shown_ = Shown::Nothing;
    refresh();
}
const char* FloorCanvas::shows() const {
    return shown_ == Shown::Nothing ? nullptr
           : shown_ == Shown::Steel ? "steel"
           : shown_ == Shown::Proof ? "proof"
           : shown_ == Shown::Shear ? "shear"
           : shown_ == Shown::Sag   ? "sag"
                                    : analysis::key(field_);
}
void FloorCanvas::showField(analysis::Field field, int combination) {
    shown_ = Shown::Field;
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
    strong_.reset();
    finder_.reset();
    model_.reset();
    const auto* a = session_.floorAnalysis();
    if (a && a->good() && !a->combinations.empty()) {
        model_ = a->model;
        finder_ = std::make_unique<fem::TriangleFinder>(model_->plate.nodes, model_->plate.triangles);
        auto design = strips_.design();
        if (shown_ == Shown::Nothing) {
            values_.clear();
        } else if (shown_ == Shown::Shear) {
            if (design && design->analysis.get() == a) {
                const auto picture = design::shearPicture(*design);
                values_ = picture.stress;
                std::vector<double> share(values_.size(), 0);
                for (std::size_t i = 0; i < share.size(); ++i)
                    share[i] = picture.strength[i] > 0 ? picture.stress[i] / picture.strength[i] : 0;
                strong_ = traced(share, 1);
            }
        } else if (shown_ == Shown::Steel) {
            if (design && design->analysis.get() == a)
                values_ = design::requiredSteelField(*design, steelDirection_, steelTop_);
        } else if (shown_ == Shown::Proof) {
            if (design && design->proof && design->analysis.get() == a) {
                const auto& found = steelDirection_ > 1
                                        ? design->proof->shear
                                        : design->proof->steel[std::size_t(steelDirection_)][steelTop_];
                values_.assign(found.ratio.begin(), found.ratio.end());
                for (double& v : values_)
                    v = std::min(v, 3.0);  // so that a place without bars leaves lines elsewhere
            }
        } else if (shown_ == Shown::Sag) {
            if (design && design->sag && design->analysis.get() == a) {
                const auto& from = sagAfter_ ? design->sag->after : design->sag->total;
                if (!from.empty())
                    for (int node : model_->points.node) values_.push_back(double(from[std::size_t(node)]));
            }
        } else if (combination_ >= 0 && combination_ < int(a->combinations.size())) {
            values_ = a->field(field_, std::size_t(combination_));
        } else {
            auto e = a->envelope(field_, field_ == analysis::Field::Deflection
                                             ? actions::LimitState::QuasiPermanent
                                             : actions::LimitState::Ultimate);
            const auto& from = combination_ == Least ? e.least : e.most;
            values_.assign(from.begin(), from.end());
        }
        if (shown_ == Shown::Field && a->perNode(field_) && !values_.empty()) {
            std::vector<double> spread(model_->points.node.size());
            for (std::size_t i = 0; i < spread.size(); ++i)
                spread[i] = values_[std::size_t(model_->points.node[i])];
            values_ = std::move(spread);
        }
    }
    traceLines();
    update();
}

FloorCanvas::Line FloorCanvas::traced(const std::vector<double>& values, double level) const {
    Crossings crossings;
    const auto& nodes = model_->plate.nodes;
    for (std::size_t t = 0; t < model_->plate.triangles.size(); ++t) {
        std::vector<Crossings::End> ends;
        for (std::size_t i = 0; i < 3; ++i) {
            const std::size_t j = (i + 1) % 3;
            const int from = model_->points.corner[3 * t + i], to = model_->points.corner[3 * t + j];
            const double v = values[std::size_t(from)], w = values[std::size_t(to)];
            if ((v < level) == (w < level)) continue;
            const auto &a = nodes[std::size_t(model_->plate.triangles[t][i])],
                       &b = nodes[std::size_t(model_->plate.triangles[t][j])];
            const double k = (level - v) / (w - v);
            ends.push_back({std::minmax(from, to), {a.x + k * (b.x - a.x), a.y + k * (b.y - a.y)}});
        }
        if (ends.size() == 2) crossings.add(ends[0], ends[1]);
    }
    return {level, crossings.chains()};
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
    step_ = shown_ == Shown::Proof ? 0.25 : roundStep((high - low) / unit, 12) * unit;
    int first = int(std::ceil(sorted.front() / step_)), last = int(std::floor(sorted.back() / step_));
    first = std::max(first, int(std::floor(low / step_)) - 12);
    last = std::min(last, int(std::ceil(high / step_)) + 12);
    for (int k = first; k <= last; ++k) lines_.push_back({k * step_, {}});
    const auto& nodes = model_->plate.nodes;
    std::vector<Crossings> crossings(lines_.size());
    for (std::size_t t = 0; t < model_->plate.triangles.size(); ++t) {
        double v[3];
        QPointF p[3];
        int corner[3];
        for (std::size_t i = 0; i < 3; ++i) {
            corner[i] = model_->points.corner[3 * t + i];
            v[i] = values_[std::size_t(corner[i])];
            auto n = nodes[std::size_t(model_->plate.triangles[t][i])];
            p[i] = {n.x, n.y};
        }
        if (shown_ == Shown::Proof && std::min({v[0], v[1], v[2]}) < 0) continue;  // not judged there
        double least = std::min({v[0], v[1], v[2]}), most = std::max({v[0], v[1], v[2]});
        for (int k = std::max(first, int(std::ceil(least / step_)));
             k <= std::min(last, int(std::floor(most / step_))); ++k) {
            double level = k * step_;
            std::vector<Crossings::End> ends;
            for (int i = 0; i < 3; ++i) {
                int j = (i + 1) % 3;
                if ((v[i] < level) == (v[j] < level)) continue;
                ends.push_back({std::minmax(corner[i], corner[j]),
                                p[i] + (level - v[i]) / (v[j] - v[i]) * (p[j] - p[i])});
            }
            if (ends.size() == 2) crossings[std::size_t(k - first)].add(ends[0], ends[1]);
        }
    }
    for (std::size_t k = 0; k < lines_.size(); ++k) lines_[k].chains = crossings[k].chains();
    std::erase_if(lines_, [](const Line& l) { return l.chains.empty(); });
}

double FloorCanvas::displayFactor() const {
    return units::unit(shownKind(), session_.project().basis.units).factor;
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

units::Kind FloorCanvas::shownKind() const {
    return shown_ == Shown::Steel   ? units::Kind::SteelPerWidth
           : shown_ == Shown::Shear ? units::Kind::ShearStress
           : shown_ == Shown::Proof ? units::Kind::None
           : shown_ == Shown::Sag   ? units::Kind::Sag
                                    : analysis::kind(field_);
}

QString FloorCanvas::valueText(model::Point p) const {
    const double v = valueAt(p);
    if (std::isnan(v)) return {};
    if (shown_ == Shown::Proof && v < 0) return tr("not assessed here: support faces, or punching");
    if (shown_ == Shown::Proof)
        return steelDirection_ > 1 ? tr("shear utilisation %1").arg(v, 0, 'f', 2)
                                   : tr("required/provided %1 %2 %3")
                                         .arg(QString::fromUtf8(strips::directionName(steelDirection_)),
                                              steelTop_ ? tr("top") : tr("bottom"))
                                         .arg(v, 0, 'f', 2);
    if (shown_ == Shown::Sag)
        return (sagAfter_ ? tr("deflection after partitions %1") : tr("long-term deflection %1"))
            .arg(session_.text(v, shownKind()));
    if (shown_ == Shown::Shear) return tr("shear %1").arg(session_.text(v, shownKind()));
    QString what = shown_ == Shown::Steel
                       ? tr("steel %1 %2")
                             .arg(QString::fromUtf8(strips::directionName(steelDirection_)),
                                  steelTop_ ? tr("top") : tr("bottom"))
                       : QString::fromUtf8(analysis::key(field_));
    return QStringLiteral("%1 %2").arg(what, session_.text(v, shownKind()));
}

QRectF FloorCanvas::bounds() const {
    QRectF box;
    auto take = [&](double x, double y) { box |= QRectF(x - 1, y - 1, 2, 2); };
    const auto* f = session_.floor();
    if (!f) return box;
    for (const auto& s : f->slabs) box |= polygon(model::ring(s.outline)).boundingRect();
    for (const auto& c : f->columns) take(c.x, c.y);
    for (const auto& w : f->walls) take(w.a.x, w.a.y), take(w.b.x, w.b.y);
    for (const auto& b : f->beams) take(b.a.x, b.a.y), take(b.b.x, b.b.y);
    for (const auto& g : f->grids)
        for (const auto& l : layout::gridLines(g, 1000))
            take(l.line.a.x, l.line.a.y), take(l.line.b.x, l.line.b.y);
    if (box.isNull())
        for (const auto& s : desk_.below()) take(s.a.x, s.a.y), take(s.b.x, s.b.y);
    if (box.isNull()) box = QRectF(-2000, -2000, 24000, 16000);
    return box;
}

void FloorCanvas::fit() {
    fitted_ = true;
    if (!session_.floor()) return;
    QRectF box = bounds();
    scale_ = std::min((width() - 70) / box.width(), (height() - 100) / box.height());
    origin_ = {width() / 2.0 - box.center().x() * scale_, height() / 2.0 + box.center().y() * scale_ + 6};
    emit moved();
    update();
}

void FloorCanvas::show(model::Point middle, double across) {
    scale_ = width() / across;
    centreOn(middle);
}
void FloorCanvas::centreOn(model::Point p) {
    origin_ += rect().center() - toPixel(p.x, p.y);
    rememberView();
}

// The floor never leaves the view altogether.
void FloorCanvas::rememberView() {
    fitted_ = false;
    QRectF box = bounds();
    QRectF shown(toPixel(box.left(), box.bottom()), toPixel(box.right(), box.top()));
    constexpr double keep = 60;
    if (shown.right() < keep) origin_.rx() += keep - shown.right();
    if (shown.left() > width() - keep) origin_.rx() -= shown.left() - (width() - keep);
    if (shown.bottom() < keep) origin_.ry() += keep - shown.bottom();
    if (shown.top() > height() - keep) origin_.ry() -= shown.top() - (height() - keep);
    emit moved();
    update();
}

bool FloorCanvas::drawing() const {
    return session_.place() == Place::Layout || session_.place() == Place::Actions;
}

bool FloorCanvas::stripping() const {
    return session_.place() == Place::Strips || session_.place() == Place::Checks ||
           session_.place() == Place::Bars;
}

void FloorCanvas::resizeEvent(QResizeEvent*) {
    if (fitted_) fit();
}

void FloorCanvas::wheelEvent(QWheelEvent* e) {
    double k = std::pow(1.0015, e->angleDelta().y());
    k = std::clamp(scale_ * k, 1e-4, 2.0) / scale_;
    origin_ = e->position() + (origin_ - e->position()) * k;
    scale_ *= k;
    rememberView();
}

int FloorCanvas::handleAt(QPointF p) const {
    if (desk_.selection().size() != 1 || !desk_.floor()) return -1;
    auto corners = layout::handles(*desk_.floor(), *desk_.selection().begin());
    for (std::size_t i = 0; i < corners.size(); ++i)
        if (QLineF(toPixel(corners[i].x, corners[i].y), p).length() < 7) return int(i);
    return -1;
}

void FloorCanvas::mousePressEvent(QMouseEvent* e) {
    setFocus();
    pressed_ = now_ = grabbed_ = e->position();
    hand_ = Hand::None;
    if (stripping() && e->button() == Qt::LeftButton && session_.place() == Place::Strips &&
        strips_.tool() == StripTool::Select) {
        heldEdge_ = strips_.edgeAt(toPlan(pressed_), 7 / scale_);
        if (!heldEdge_.line.empty()) {
            hand_ = Hand::StripEdge;
            return;
        }
    }
    if (e->button() == Qt::MiddleButton || !drawing()) {
        hand_ = Hand::Pan;
        return;
    }
    if (e->button() != Qt::LeftButton) return;
    if (desk_.tool() == Tool::Select && desk_.floor()) {
        auto all = bubbles();
        if (const auto* b = session_.place() == Place::Layout ? bubbleAt(all, e->position()) : nullptr) {
            hand_ = Hand::GridLine, heldLine_ = *b;
        } else if (int h = handleAt(e->position()); h >= 0) {
            hand_ = Hand::Corner, handle_ = h, held_ = *desk_.selection().begin();
        } else if (auto id = layout::hit(*desk_.floor(), toPlan(e->position()), reach() / 2);
                   desk_.selection().contains(id)) {
            hand_ = Hand::Whole, held_ = id;
        }
    }
}

void FloorCanvas::mouseMoveEvent(QMouseEvent* e) {
    now_ = e->position();
    auto p = toPlan(now_);
    bool straight = e->modifiers() & Qt::ShiftModifier;
    if (hand_ == Hand::StripEdge && e->buttons()) {
        if (QLineF(pressed_, now_).length() > 4) strips_.dragEdge(heldEdge_, p);
    } else if (hand_ == Hand::Pan && e->buttons() &&
               (QLineF(pressed_, now_).length() > 4 || grabbed_ != pressed_)) {
        origin_ += now_ - grabbed_;
        grabbed_ = now_;
        rememberView();
    } else if (drawing()) {
        bool far = QLineF(pressed_, now_).length() > 6;
        if ((e->buttons() & Qt::LeftButton) && far && hand_ == Hand::Corner)
            desk_.drag(held_, handle_, p, reach(), straight);
        else if ((e->buttons() & Qt::LeftButton) && far && hand_ == Hand::Whole)
            desk_.drag(held_, -1, p, reach(), straight);
        else if ((e->buttons() & Qt::LeftButton) && far && hand_ == Hand::GridLine)
            moveGridLine(p);
        else if ((e->buttons() & Qt::LeftButton) && far && hand_ == Hand::None)
            hand_ = Hand::Box;
        if (hand_ == Hand::None || hand_ == Hand::Box) desk_.move(p, reach(), straight);
        if (desk_.tool() == Tool::Select && !e->buttons())
            setCursor(handleAt(now_) >= 0 ? Qt::SizeAllCursor : Qt::ArrowCursor);
        else if (desk_.tool() != Tool::Select)
            setCursor(Qt::CrossCursor);
        auto at = desk_.tool() == Tool::Select ? p : desk_.pointer();
        update();
        return emit pointerMoved(at.x, at.y, QString());
    } else if (stripping() && !e->buttons()) {
        auto edge = session_.place() == Place::Strips && strips_.tool() == StripTool::Select
                        ? strips_.edgeAt(p, 7 / scale_)
                        : strips::EdgeOf{};
        if (edge.line != hotEdge_.line || edge.side != hotEdge_.side) update();
        hotEdge_ = edge;
        setCursor(!edge.line.empty()                    ? Qt::SizeAllCursor
                  : strips_.tool() != StripTool::Select ? Qt::CrossCursor
                                                        : Qt::ArrowCursor);
        if (const auto* s = strips_.strip()) {
            bool in = std::any_of(s->parts.begin(), s->parts.end(),
                                  [&](const geometry::Ring& r) { return geometry::contains(r, p); });
            session_.setStation(in ? s->axes.local(p).x : std::numeric_limits<double>::quiet_NaN());
        }
        if (!strips_.points().empty()) update();
    } else {
        setCursor(Qt::ArrowCursor);
    }
    emit pointerMoved(p.x, p.y, drawing() ? QString() : valueText(p));
}

// The line follows the pointer in steps of 50 mm (2 in); its neighbours stay where they are, and the first
// line takes the grid's origin along.
void FloorCanvas::moveGridLine(model::Point to) {
    double step = session_.project().basis.units == units::System::Metric ? 50 : 50.8;
    auto held = heldLine_;
    desk_.edit(
        tr("Move grid line"),
        [&](model::Floor& f, model::Project&) {
            for (auto& g : f.grids) {
                if (g.id != held.grid) continue;
                double a = g.angle * M_PI / 180, b = (g.angle + g.between) * M_PI / 180;
                model::Point e{std::cos(a), std::sin(a)}, n{std::cos(b), std::sin(b)};
                double det = e.x * n.y - e.y * n.x, dx = to.x - g.origin.x, dy = to.y - g.origin.y;
                double at = held.along ? (dx * n.y - dy * n.x) / det : (e.x * dy - e.y * dx) / det;
                at = std::round(at / step) * step;
                auto& spacings = held.along ? g.along : g.across;
                auto where = layout::positions(spacings);
                std::size_t i = held.index;
                if (i > 0) at = std::max(at, where[i - 1] + 500);
                if (i + 1 < where.size()) at = std::min(at, where[i + 1] - 500);
                if (i == 0) {
                    const auto& u = held.along ? e : n;
                    g.origin = {g.origin.x + at * u.x, g.origin.y + at * u.y};
                    if (!spacings.empty()) spacings[0] -= at;
                } else {
                    spacings[i - 1] = at - where[i - 1];
                    if (i < spacings.size()) spacings[i] = where[i + 1] - at;
                }
            }
        },
        QStringLiteral("gridline%1%2").arg(held.along).arg(held.index));
}

void FloorCanvas::mouseReleaseEvent(QMouseEvent* e) {
    bool add = e->modifiers() & Qt::ShiftModifier, far = QLineF(pressed_, e->position()).length() > 6;
    Hand hand = hand_;
    hand_ = Hand::None;
    if (hand == Hand::StripEdge) {
        strips_.endDrag();
        return update();
    }
    if (stripping() && e->button() == Qt::LeftButton && QLineF(pressed_, e->position()).length() <= 4) {
        if (session_.place() != Place::Strips)
            if (const auto key = connections_.at(toPlan(e->position()), 6 / scale_); !key.empty())
                return connections_.select(key);
        return strips_.click(toPlan(e->position()), add);
    }
    if (stripping() && e->button() == Qt::RightButton)
        return strips_.points().size() > 2 ? strips_.finish() : strips_.cancel();
    if (!drawing()) return;
    if (e->button() == Qt::RightButton) return desk_.points().empty() ? desk_.cancel() : desk_.finish();
    if (e->button() != Qt::LeftButton) return;
    if (hand == Hand::GridLine) return far ? desk_.endDrag() : void();
    if ((hand == Hand::Corner || hand == Hand::Whole) && far) return desk_.endDrag();
    if (hand == Hand::Box && far) return desk_.box(toPlan(pressed_), toPlan(e->position()), reach(), add);
    desk_.click(toPlan(e->position()), reach(), add, add);
}

void FloorCanvas::mouseDoubleClickEvent(QMouseEvent* e) {
    if (stripping() && e->button() == Qt::LeftButton) {
        // The distance of an edge is typed anew where it stands.
        auto edge = strips_.edgeAt(toPlan(e->position()), 7 / scale_);
        if (session_.place() == Place::Strips && !edge.line.empty())
            InlineEdit::open(this, QRectF(e->position() - QPointF(40, 12), QSizeF(80, 24)),
                             session_.number(edge.offset, units::Kind::Span),
                             [this, edge](const QString& text) -> QString {
                                 auto v = units::parse(text.toStdString(), units::Kind::Span,
                                                       session_.project().basis.units);
                                 if (!v.value) return QString::fromStdString(v.error);
                                 strips_.typeOffset(edge, *v.value);
                                 strips_.endDrag();
                                 return {};
                             });
        return;
    }
    if (!drawing() || e->button() != Qt::LeftButton) return;
    // A grid line's label, and a load's value, are typed anew where they stand.
    if (const auto* g = desk_.floor(); g && desk_.tool() == Tool::Select) {
        auto all = bubbles();
        if (const auto* b = session_.place() == Place::Layout ? bubbleAt(all, e->position()) : nullptr) {
            Bubble held = *b;
            InlineEdit::open(this, QRectF(held.at - QPointF(32, 12), QSizeF(64, 24)), held.label,
                             [this, held](const QString& text) -> QString {
                                 desk_.edit(tr("Label"), [&](model::Floor& f, model::Project&) {
                                     for (auto& grid : f.grids) {
                                         if (grid.id != held.grid) continue;
                                         auto& labels = held.along ? grid.alongLabels : grid.acrossLabels;
                                         if (labels.size() <= held.index) labels.resize(held.index + 1);
                                         labels[held.index] = text.trimmed().toStdString();
                                     }
                                 });
                                 return {};
                             });
            return;
        }
        auto under = session_.place() == Place::Actions ? layout::hits(*g, toPlan(e->position()), reach() / 2)
                                                        : std::vector<model::Id>{};
        for (const auto& l : g->actions.loads) {
            if (under.empty() || l.id != under.front()) continue;
            using K = model::FloorLoad::Kind;
            auto kind = l.kind == K::Area    ? units::Kind::AreaLoad
                        : l.kind == K::Line  ? units::Kind::ForcePerWidth
                        : l.kind == K::Point ? units::Kind::Force
                                             : units::Kind::Moment;
            InlineEdit::open(
                this, QRectF(e->position() - QPointF(40, 12), QSizeF(80, 24)), session_.number(l.value, kind),
                [this, kind, id = l.id](const QString& text) -> QString {
                    auto v = units::parse(text.toStdString(), kind, session_.project().basis.units);
                    if (!v.value) return QString::fromStdString(v.error);
                    desk_.edit(tr("Load"), [&](model::Floor& f, model::Project&) {
                        layout::setProperty(f, {id}, "value", *v.value);
                    });
                    return {};
                });
            return;
        }
    }
    // A length written beside the selected outline is typed anew in its place.
    const auto* f = desk_.floor();
    if (f && desk_.selection().size() == 1 && desk_.tool() == Tool::Select)
        if (model::Id id = *desk_.selection().begin(); const auto* o = layout::outlineOf(*f, id))
            for (std::size_t i = 0; i < o->size(); ++i) {
                QRectF at = dimensionAt(i);
                if (!at.adjusted(-3, -3, 3, 3).contains(e->position())) continue;
                double length = std::hypot((*o)[(i + 1) % o->size()].x - (*o)[i].x,
                                           (*o)[(i + 1) % o->size()].y - (*o)[i].y);
                InlineEdit::open(
                    this, at.adjusted(-14, -3, 14, 3), session_.number(length, units::Kind::Span),
                    [this, id, i](const QString& text) -> QString {
                        auto v = units::parse(text.toStdString(), units::Kind::Span,
                                              session_.project().basis.units);
                        if (!v.value) return QString::fromStdString(v.error);
                        desk_.edit(tr("Length of a side"), [&](model::Floor& g, model::Project&) {
                            auto* line = layout::outlineOf(g, id);
                            *line = layout::setSideLength(*line, i, *v.value);
                        });
                        return {};
                    });
                return;
            }
    desk_.doubleClick(toPlan(e->position()), reach());
}

// Letters and digits belong to the drawing while a tool is in hand, before menus and places see them.
bool FloorCanvas::event(QEvent* e) {
    if (e->type() == QEvent::ShortcutOverride && stripping()) {
        auto* key = static_cast<QKeyEvent*>(e);
        bool plain = !(key->modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier));
        if (plain && QStringLiteral("XYSDMATRCK").contains(QChar(key->key() < 0x80 ? key->key() : ' ')))
            e->accept();
    }
    if (e->type() == QEvent::ShortcutOverride && drawing()) {
        auto* key = static_cast<QKeyEvent*>(e);
        bool plain = !(key->modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier));
        if (plain && key->key() < 0x80) e->accept();
    }
    return QWidget::event(e);
}

// Keys of the places of strips; whether it was one.
bool FloorCanvas::stripKey(QKeyEvent* e) {
    if (e->modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier)) return false;
    const bool strips = session_.place() == Place::Strips;
    if (!strips && connectionKey(e)) return true;
    switch (e->key()) {
        case Qt::Key_Up:
            strips_.walk(1, 0);
            return true;
        case Qt::Key_Down:
            strips_.walk(-1, 0);
            return true;
        case Qt::Key_Left:
            strips_.walk(0, -1);
            return true;
        case Qt::Key_Right:
            strips_.walk(0, 1);
            return true;
        case Qt::Key_X:
            strips_.setDirection(0);
            return true;
        case Qt::Key_Y:
            strips_.setDirection(1);
            return true;
        case Qt::Key_Escape:
            strips_.stepBack();
            return true;
        case Qt::Key_Backspace:
            strips_.cancel();
            return true;
        case Qt::Key_Return:
        case Qt::Key_Enter:
            strips_.tool() == StripTool::Draw || strips_.tool() == StripTool::Area ? strips_.finish()
                                                                                   : emit
                                                                                     activated();
            return true;
        default:
            break;
    }
    if (!strips) return false;
    switch (e->key()) {
        case Qt::Key_S:
            strips_.setTool(StripTool::Split);
            return true;
        case Qt::Key_D:
            strips_.setTool(StripTool::Draw);
            return true;
        case Qt::Key_M:
            strips_.setTool(StripTool::Merge);
            return true;
        case Qt::Key_A:
            strips_.setTool(StripTool::Area);
            return true;
        case Qt::Key_R:
            strips_.release();
            return true;
        case Qt::Key_T:
            askAngle();
            return true;
        default:
            return false;
    }
}

// C goes to the connection that is worst, then on; with one in hand arrows walk to those around it.
bool FloorCanvas::connectionKey(QKeyEvent* e) {
    if (e->key() == Qt::Key_C) {
        connections_.next(e->modifiers() & Qt::ShiftModifier ? -1 : 1);
        if (const auto* c = connections_.inHand();
            c && !rect().contains(toPixel(c->place.middle.x, c->place.middle.y).toPoint()))
            centreOn(c->place.middle);
        return true;
    }
    if (!connections_.inHand()) return false;
    switch (e->key()) {
        case Qt::Key_Up:
            connections_.walk(0, 1);
            return true;
        case Qt::Key_Down:
            connections_.walk(0, -1);
            return true;
        case Qt::Key_Left:
            connections_.walk(-1, 0);
            return true;
        case Qt::Key_Right:
            connections_.walk(1, 0);
            return true;
        case Qt::Key_K:
            connections_.turnSteel();
            return true;
        default:
            return false;
    }
}

void FloorCanvas::askAngle() {
    const auto* s = strips_.strip();
    if (!s) return strips_.turn(0);  // says what to select first
    const bool area = !s->within.empty();
    auto mid = s->axis[s->axis.size() / 2];
    QPointF at = toPixel((s->axis.front().x + mid.x) / 2, (s->axis.front().y + mid.y) / 2);
    if (area) {
        double first = s->direction == 0 ? s->axes.angle : s->otherAngle,
               second = s->direction == 0 ? s->otherAngle : s->axes.angle;
        InlineEdit::open(
            this, QRectF(at - QPointF(50, 12), QSizeF(100, 24)),
            QStringLiteral("%1 %2").arg(first).arg(second), [this](const QString& text) -> QString {
                auto words = QString(text).remove(QChar(0xb0)).simplified().split(QLatin1Char(' '));
                bool a = false, b = false;
                double x = words.value(0).toDouble(&a), y = words.value(1).toDouble(&b);
                if (!a || !b)
                    return tr("Write the two directions of the area's bars in degrees, such as 30 120.");
                return strips_.turnArea(x, y) ? QString() : tr("These directions are not possible here.");
            });
        return;
    }
    InlineEdit::open(this, QRectF(at - QPointF(36, 12), QSizeF(72, 24)),
                     QString::number(s->axes.angle, 'g', 6) + QStringLiteral("°"),
                     [this](const QString& text) -> QString {
                         bool good = false;
                         double angle = QString(text).remove(QChar(0xb0)).trimmed().toDouble(&good);
                         if (!good || std::abs(angle) > 360)
                             return tr("Write an angle in degrees, such as 30.");
                         strips_.turn(angle);
                         return {};
                     });
}

void FloorCanvas::keyPressEvent(QKeyEvent* e) {
    if (stripping() && stripKey(e)) return;
    double step = 40;
    bool ours = drawing();
    bool plain = !(e->modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier));
    if (ours && plain) {
        static const QString figures = QStringLiteral("0123456789.,@<+-*/()'\" ");
        QString text = e->text();
        bool tool = desk_.tool() != Tool::Select;
        if (tool && e->key() == Qt::Key_G && desk_.typed().isEmpty() && desk_.onWholeGrid()) return;
        if (tool && text.size() == 1 &&
            (figures.contains(text) || (!desk_.typed().isEmpty() && text[0].isLetter())))
            return desk_.type(text);
        switch (e->key()) {
            case Qt::Key_Return:
            case Qt::Key_Enter:
                return desk_.enterTyped();
            case Qt::Key_Backspace:
                return tool ? desk_.back() : desk_.removeSelection();
            case Qt::Key_Delete:
                return desk_.removeSelection();
            case Qt::Key_Escape:
                if (desk_.tool() == Tool::Select && desk_.selection().empty()) break;
                return desk_.cancel();
            default:
                break;
        }
        if (text.size() == 1 && text[0].isLetter())
            if (auto t = FloorDesk::toolOf(text, session_.place())) return desk_.setTool(*t);
        double by = e->modifiers() & Qt::ShiftModifier ? 10 : 100;
        if (session_.project().basis.units == units::System::UsCustomary) by *= 0.254 * 2;
        if (!desk_.selection().empty()) switch (e->key()) {
                case Qt::Key_Left:
                    return desk_.nudge(-by, 0);
                case Qt::Key_Right:
                    return desk_.nudge(by, 0);
                case Qt::Key_Up:
                    return desk_.nudge(0, by);
                case Qt::Key_Down:
                    return desk_.nudge(0, -by);
                default:
                    break;
            }
    }
    if (ours && e->matches(QKeySequence::SelectAll) && desk_.floor())
        return desk_.select(layout::inside(*desk_.floor(), {{-1e9, -1e9}, {1e9, 1e9}}, false));
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
    rememberView();
}

}  // namespace talvik::app
