#include "section/line_section.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QWheelEvent>
#include <cmath>
#include <limits>

#include "model/edits.h"
#include "widgets/inline_edit.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {

using units::Kind;

LineSection::LineSection(Session& session, BarDesk& desk, std::function<std::optional<Scale>()> shared,
                         QWidget* parent)
    : QWidget(parent), session_(session), desk_(desk), shared_(std::move(shared)) {
    setObjectName(QStringLiteral("section"));
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setMinimumSize(260, 120);
    setAccessibleName(tr("Long section"));
    for (auto signal : {&Session::changed, &Session::selectionChanged, &Session::answered})
        connect(&session, signal, this, &LineSection::gather);
    connect(&session, &Session::placeChanged, this, &LineSection::update);
    connect(&session, &Session::stationChanged, this, qOverload<>(&QWidget::update));
    gather();
}

void LineSection::gather() {
    const auto* line = session_.line();
    data_ = line ? drawing::longSection(*line, session_.project().basis, session_.design().marks) : Data{};
    update();
}

LineSection::Scale LineSection::scale() const {
    if (auto s = shared_()) return *s;
    const double perMm = (width() - titles - 34) / std::max(1.0, data_.to - data_.from);
    return {titles - data_.from * perMm, perMm};
}
double LineSection::pixel(double u) const {
    const auto s = scale();
    return s.origin + u * s.perMm;
}
double LineSection::toU(double x) const {
    const auto s = scale();
    return (x - s.origin) / s.perMm;
}

const LineSection::Data::Bar* LineSection::bar(const model::Id& id) const {
    for (const auto& b : data_.bars)
        if (b.id == id) return &b;
    return nullptr;
}
double LineSection::barY(const Data::Bar& b) const {
    const double shift = (b.turn % 2 ? 3.5 : 0) + (b.band ? 7 : 0);
    return b.top ? bandTop + 5 + shift : bandTop + bandDepth - 5 - shift;
}
QPointF LineSection::handle(const model::Id& id, bool end) const {
    const auto* b = bar(id);
    return b ? QPointF(pixel(end ? b->to : b->from), barY(*b)) : QPointF();
}

// Over top bars and under bottom bars; those of bottom bars in the middle of the span that they pass through.
QRectF LineSection::placeCallout(const Data::Bar& b, int lane) const {
    double middle = (b.from + b.to) / 2;
    for (const auto& s : data_.spans)
        if (!b.top && s.from < middle && s.to > middle && b.from < s.from + 500 && b.to > s.to - 500)
            middle = (s.from + s.to) / 2;
    const double x = std::clamp(pixel(middle), 64.0, std::max(64.0, width() - 64.0));
    return b.top ? QRectF(x - 60, bandTop - 17 - 13 * lane, 120, 13)
                 : QRectF(x - 60, bandTop + bandDepth + 15 + 13 * lane, 120, 13);
}
void LineSection::placeCallouts() {
    callouts_.clear();
    const QFontMetricsF metrics(uiFont(11, QFont::DemiBold));
    double taken[2][2] = {{-1e9, -1e9}, {-1e9, -1e9}};  // face, lane
    auto order = data_.bars;
    std::stable_sort(order.begin(), order.end(),
                     [](const auto& a, const auto& b) { return a.from + a.to < b.from + b.to; });
    for (const auto& b : order) {
        const double room = pixel(b.to) - pixel(b.from);
        const QString& text = qs(room < 90 ? b.brief : b.callout);
        const double half = metrics.horizontalAdvance(text) / 2 + 3;
        for (int lane : {0, 1}) {
            const QRectF r = placeCallout(b, lane);
            if (r.center().x() - half < taken[b.top][lane]) continue;
            taken[b.top][lane] = r.center().x() + half;
            callouts_[b.id] = r;
            break;
        }
    }
}
QRectF LineSection::callout(const model::Id& id) const {
    const auto found = callouts_.find(id);
    const auto* b = bar(id);
    return found != callouts_.end() ? found->second : b ? placeCallout(*b, 0) : QRectF();
}
// Beside the support, under the concrete.
QRectF LineSection::endWord(std::size_t span, int side) const {
    if (span >= data_.spans.size()) return {};
    const auto& s = data_.spans[span];
    const double a = pixel(s.from), b = pixel(s.to), w = std::min(118.0, (b - a) / 2 - 6),
                 y = bandTop + bandDepth + 42;
    return side < 0 ? QRectF(a + 5, y, w, 13) : QRectF(b - 5 - w, y, w, 13);
}
QRectF LineSection::thicknessField() const {
    return session_.slab() ? QRectF(width() - 150, 6, 136, 20) : QRectF();
}

std::optional<LineSection::Grip> LineSection::gripAt(QPointF point) const {
    std::optional<Grip> best;
    double nearest = 9;
    for (const auto& b : data_.bars)
        for (bool end : {false, true}) {
            const QPointF away = handle(b.id, end) - point;
            // The handles of the run in hand come first.
            const double distance =
                std::hypot(away.x(), away.y()) - (session_.selected(Spot::In::Run, b.id) ? 3 : 0);
            if (distance < nearest) nearest = distance, best = Grip{b.id, end};
        }
    return best;
}
std::optional<std::pair<std::size_t, int>> LineSection::wordAt(QPointF point) const {
    if (!session_.floor()) return {};
    for (std::size_t i = 0; i < data_.spans.size(); ++i)
        for (int side : {-1, 1})
            if (endWord(i, side).contains(point)) return std::pair(i, side);
    return {};
}
const LineSection::Data::Bar* LineSection::barAt(QPointF point) const {
    for (const auto& b : data_.bars) {
        const bool on =
            std::abs(point.y() - barY(b)) < 3 && point.x() > pixel(b.from) && point.x() < pixel(b.to);
        if (on || (callouts_.contains(b.id) && callout(b.id).contains(point))) return &b;
    }
    return nullptr;
}

void LineSection::mousePressEvent(QMouseEvent* event) {
    setFocus();
    if (event->button() != Qt::LeftButton) return;
    const QPointF point = event->position();
    if (auto word = wordAt(point))
        return emit endWanted(word->first, word->second, mapToGlobal(point.toPoint()));
    if (auto grip = gripAt(point)) {
        dragged_ = grip;
        dragOffset_ = handle(grip->run, grip->end).x() - point.x();
        return session_.select(Spot::In::Run, grip->run);
    }
    if (const auto* b = barAt(point)) return session_.select(Spot::In::Run, b->id);
    for (const auto& p : data_.supports)
        if (std::abs(point.x() - pixel(p.u)) < std::max(5.0, (pixel(p.to) - pixel(p.from)) / 2))
            return session_.select(Spot::In::Support, p.id);
    if (auto spot = desk_.spanAt(toU(point.x()))) session_.select(*spot);
}

void LineSection::mouseMoveEvent(QMouseEvent* event) {
    const QPointF point = event->position();
    const double u = toU(point.x());
    session_.setStation(u >= data_.from && u <= data_.to ? u : std::numeric_limits<double>::quiet_NaN());
    if (dragged_) {
        const double step = event->modifiers() & Qt::ShiftModifier ? 100 : 10;
        if (auto run = desk_.run())
            desk_.dragEnd(*run, dragged_->end, std::round(toU(point.x() + dragOffset_) / step) * step);
        return;
    }
    auto grip = gripAt(point);
    setCursor(grip ? Qt::SizeHorCursor : wordAt(point) ? Qt::PointingHandCursor : Qt::ArrowCursor);
    if (grip == hovered_) return;
    hovered_ = grip;
    update();
}

void LineSection::mouseReleaseEvent(QMouseEvent*) {
    if (dragged_) desk_.endDrag();
    dragged_.reset();
}

void LineSection::mouseDoubleClickEvent(QMouseEvent* event) {
    for (const auto& b : data_.bars)
        if (callouts_.contains(b.id) && callout(b.id).contains(event->position())) return editCallout(b.id);
    if (thicknessField().contains(event->position())) editThickness();
}

void LineSection::editCallout(model::Id id) {
    const auto run = desk_.find(id);
    if (!run) return;
    session_.select(Spot::In::Run, id);
    const QString now =
        QStringLiteral("%1 @ %2").arg(qs(run->bar), session_.number(run->spacing, Kind::BarSpacing));
    InlineEdit::open(this, callout(id), now,
                     [this, id](const QString& text) { return desk_.write(id, text); });
}

void LineSection::editThickness() {
    InlineEdit::open(this, thicknessField(), session_.number(session_.slab()->thickness, Kind::Length),
                     [this](const QString& text) {
                         const auto parsed =
                             units::parse(text.toStdString(), Kind::Length, session_.project().basis.units);
                         if (!parsed.value) return qs(parsed.error);
                         const auto* s = session_.slab();
                         const bool good =
                             s &&
                             session_.apply(tr("Thickness"),
                                            model::editSlab(session_.base(), s->id,
                                                            [&](model::OneWaySlab& slab, model::Project&) {
                                                                slab.thickness = *parsed.value;
                                                            }));
                         return good ? QString() : tr("This thickness is not possible here.");
                     });
}

void LineSection::wheelEvent(QWheelEvent* event) {
    emit zoomed(std::pow(1.0015, event->angleDelta().y()), event->position().x());
}

void LineSection::leaveEvent(QEvent*) {
    session_.setStation(std::numeric_limits<double>::quiet_NaN());
}

void LineSection::keyPressEvent(QKeyEvent* event) {
    const bool alt = event->modifiers() & Qt::AltModifier, control = event->modifiers() & Qt::ControlModifier,
               shift = event->modifiers() & Qt::ShiftModifier;
    switch (event->key()) {
        case Qt::Key_Plus:
        case Qt::Key_Minus:
            desk_.changeSpacing(event->key() == Qt::Key_Plus ? 1 : -1);
            return;
        case Qt::Key_BracketRight:
        case Qt::Key_BracketLeft:
            desk_.changeBar(event->key() == Qt::Key_BracketRight ? 1 : -1);
            return;
        case Qt::Key_H:
            desk_.toggleHook(!shift);
            return;
        case Qt::Key_S:
            desk_.splitRun(session_.station());
            return;
        case Qt::Key_A:
            desk_.addRun();
            return;
        case Qt::Key_Delete:
            desk_.release();
            return;
        case Qt::Key_Return:
        case Qt::Key_Enter:
            if (desk_.run())
                editCallout(session_.selectedId());
            else
                emit activated();
            return;
        case Qt::Key_Escape:
            return session_.stepBack();
        case Qt::Key_Left:
        case Qt::Key_Right: {
            const int sign = event->key() == Qt::Key_Left ? -1 : 1;
            if (alt || control)
                desk_.moveEnd(control, sign * (shift ? 10 : 50));
            else
                desk_.walk(sign);
            return;
        }
        case Qt::Key_Up:
        case Qt::Key_Down:
            return desk_.walkRuns(event->key() == Qt::Key_Down ? 1 : -1);
        default:
            QWidget::keyPressEvent(event);
    }
}

}  // namespace talvik::app
