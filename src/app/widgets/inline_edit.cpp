#include "widgets/inline_edit.h"

#include <QKeyEvent>
#include <QToolTip>

#include "widgets/theme.h"

namespace talvik::app {

InlineEdit* InlineEdit::open(QWidget* parent, const QRectF& at, const QString& text,
                             std::function<QString(const QString&)> take) {
    auto* edit = new InlineEdit(parent);
    edit->setObjectName(QStringLiteral("inlineEdit"));
    edit->take_ = std::move(take);
    edit->setFont(uiFont(13));
    edit->setText(text);
    edit->selectAll();
    int width = std::max(110, static_cast<int>(at.width()) + 30);
    edit->setGeometry(
        std::clamp(static_cast<int>(at.center().x()) - width / 2, 0, std::max(0, parent->width() - width)),
        static_cast<int>(at.center().y()) - 13, width, 26);
    edit->show();
    edit->setFocus();
    return edit;
}

void InlineEdit::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Escape) return close();
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) {
        QString why = take_(text());
        if (why.isEmpty()) return close();
        QToolTip::showText(mapToGlobal(QPoint(0, height())), why, this);
        return;
    }
    QLineEdit::keyPressEvent(event);
}

void InlineEdit::focusOutEvent(QFocusEvent* event) {
    QLineEdit::focusOutEvent(event);
    close();
}

void InlineEdit::close() {
    take_ = [](const QString&) { return QString(); };
    hide();
    deleteLater();
    if (parentWidget()) parentWidget()->setFocus();
}

}  // namespace talvik::app
