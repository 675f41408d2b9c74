#include "issue/sheet_preview.h"

#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>
#include <cmath>

#include "drawing/slab_sheet.h"
#include "paper/paper.h"
#include "widgets/theme.h"

namespace talvik::app {

SheetPreview::SheetPreview(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    setObjectName(QStringLiteral("sheetPreview"));
    setAccessibleName(tr("Drawing"));
    for (auto signal : {&Session::changed, &Session::answered})
        connect(&session, signal, this, [this] {
            if (isVisible()) refresh();
        });
}

void SheetPreview::showEvent(QShowEvent*) {
    refresh();
}

void SheetPreview::refresh() {
    const auto* d = session_.slabDesign();
    sheet_.reset();
    if (d && d->error.empty()) sheet_ = drawing::slabSheet(session_.project(), session_.design(), *d);
    update();
}

void SheetPreview::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.fillRect(rect(), theme().chromeDark);
    if (!sheet_) {
        p.setPen(theme().secondary);
        p.drawText(rect(), Qt::AlignCenter, tr("There is nothing to draw yet; add a slab first."));
        return;
    }
    p.setRenderHint(QPainter::Antialiasing);
    double scale = std::min((width() - 32.0) / sheet_->width, (height() - 32.0) / sheet_->height) * zoom_;
    p.translate(width() / 2.0 + shift_.x() - sheet_->width * scale / 2,
                height() / 2.0 + shift_.y() - sheet_->height * scale / 2);
    p.scale(scale, scale);
    p.fillRect(QRectF(0.8, 0.8, sheet_->width, sheet_->height), theme().hairline);
    p.fillRect(QRectF(0, 0, sheet_->width, sheet_->height), Qt::white);
    paper::paint(p, *sheet_);
}

void SheetPreview::wheelEvent(QWheelEvent* event) {
    double factor = std::pow(1.0015, event->angleDelta().y()), next = std::clamp(zoom_ * factor, 0.5, 12.0);
    QPointF from = event->position() - QPointF(width() / 2.0, height() / 2.0) - shift_;
    shift_ -= from * (next / zoom_ - 1);
    zoom_ = next;
    update();
}

void SheetPreview::mousePressEvent(QMouseEvent* event) {
    last_ = event->position();
}
void SheetPreview::mouseMoveEvent(QMouseEvent* event) {
    shift_ += event->position() - last_;
    last_ = event->position();
    update();
}
void SheetPreview::mouseDoubleClickEvent(QMouseEvent*) {
    zoom_ = 1;
    shift_ = {};
    update();
}

}  // namespace talvik::app
