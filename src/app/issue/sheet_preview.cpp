#include "issue/sheet_preview.h"

#include <QKeyEvent>
#include <QLabel>
#include <QMouseEvent>
#include <QPainter>
#include <QToolButton>
#include <QWheelEvent>
#include <cmath>

#include "drawing/sheets.h"
#include "paper/paper.h"
#include "widgets/text.h"
#include "widgets/theme.h"

namespace talvik::app {

SheetPreview::SheetPreview(Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      before_(new QToolButton(this)),
      next_(new QToolButton(this)),
      title_(new QLabel(this)) {
    setFocusPolicy(Qt::StrongFocus);
    for (const auto& [b, arrow, name, by] : {std::tuple(before_, Qt::LeftArrow, "sheetBefore", -1),
                                             std::tuple(next_, Qt::RightArrow, "sheetNext", 1)}) {
        b->setArrowType(arrow);
        b->setAutoRaise(true);
        b->setObjectName(QString::fromLatin1(name));
        b->setToolTip(by < 0 ? tr("Sheet before (left arrow)") : tr("Next sheet (right arrow)"));
        b->setAccessibleName(by < 0 ? tr("Sheet before") : tr("Next sheet"));
        connect(b, &QToolButton::clicked, this, [this, by = by] { turn(by); });
    }
    title_->setObjectName(QStringLiteral("sheetTitle"));
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
    const auto* e = session_.answer();
    sheets_ = e ? drawing::sheets(session_.project(), session_.design(), *e) : std::vector<drawing::Sheet>{};
    const QString element = e ? qs(e->element) : QString();
    if (element != element_) at_ = 0, zoom_ = 1, shift_ = {};
    element_ = element;
    at_ = sheets_.empty() ? 0 : std::min(at_, sheets_.size() - 1);
    turn(0);
}

void SheetPreview::turn(int by) {
    if (!sheets_.empty())
        at_ = std::size_t(
            std::clamp<std::ptrdiff_t>(std::ptrdiff_t(at_) + by, 0, std::ptrdiff_t(sheets_.size()) - 1));
    const bool several = sheets_.size() > 1;
    for (QWidget* w :
         {static_cast<QWidget*>(before_), static_cast<QWidget*>(next_), static_cast<QWidget*>(title_)})
        w->setVisible(several);
    if (several) {
        before_->setEnabled(at_ > 0);
        next_->setEnabled(at_ + 1 < sheets_.size());
        title_->setText(
            tr("Sheet %1 of %2 · %3").arg(at_ + 1).arg(sheets_.size()).arg(qs(sheets_[at_].title)));
        title_->adjustSize();
    }
    update();
}

void SheetPreview::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Right)
        turn(1);
    else if (event->key() == Qt::Key_Left)
        turn(-1);
    else
        QWidget::keyPressEvent(event);
}

void SheetPreview::resizeEvent(QResizeEvent*) {
    before_->setGeometry(8, 4, 24, 24);
    next_->setGeometry(34, 4, 24, 24);
    title_->move(66, 8);
}

void SheetPreview::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.fillRect(rect(), theme().chromeDark);
    if (sheets_.empty()) {
        p.setPen(theme().secondary);
        p.drawText(rect(), Qt::AlignCenter, tr("There is nothing to draw yet."));
        return;
    }
    p.setRenderHint(QPainter::Antialiasing);
    const auto& sheet = sheets_[at_];
    const double bar = sheets_.size() > 1 ? 28 : 0;  // in which the title stands
    double scale = std::min((width() - 32.0) / sheet.width, (height() - 32.0 - bar) / sheet.height) * zoom_;
    p.save();
    if (bar > 0) p.setClipRect(QRectF(0, bar, width(), height() - bar));
    p.translate(width() / 2.0 + shift_.x() - sheet.width * scale / 2,
                (height() + bar) / 2.0 + shift_.y() - sheet.height * scale / 2);
    p.scale(scale, scale);
    p.fillRect(QRectF(0.8, 0.8, sheet.width, sheet.height), theme().hairline);
    p.fillRect(QRectF(0, 0, sheet.width, sheet.height), Qt::white);
    paper::paint(p, sheet);
    p.restore();
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
