#include "widgets/quantity_edit.h"

#include <QKeyEvent>

namespace talvik::app {

void showText(QLineEdit& edit, const QString& text) {
    if (edit.hasFocus() && edit.isModified()) return;
    if (edit.text() != text) edit.setText(text);
}

QuantityEdit::QuantityEdit(units::Kind kind, QWidget* parent) : QLineEdit(parent), kind_(kind) {
    connect(this, &QLineEdit::editingFinished, this, &QuantityEdit::finish);
}

void QuantityEdit::setAutomatic(std::optional<double> chosen) {
    automatic_ = true;
    setPlaceholderText(
        chosen && *chosen != 0
            ? tr("auto: %1").arg(QString::fromStdString(units::number(*chosen, kind_, system_)))
            : tr("auto"));
}

void QuantityEdit::setStored(double value) {
    stored_ = value;
    if (automatic_ && value == 0) return showText(*this, {});
    // Enough digits to show what is stored: more than the usual display where needed.
    std::string shown = units::number(value, kind_, system_),
                exact = units::plain(value / units::unit(kind_, system_).factor, 6);
    showText(*this, QString::fromStdString(units::evaluate(shown).value == units::evaluate(exact).value ||
                                                   exact.size() > 9
                                               ? shown
                                               : exact));
}

void QuantityEdit::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Escape && isModified()) {
        setModified(false);
        setStored(stored_);
        return;
    }
    QLineEdit::keyPressEvent(event);
}

void QuantityEdit::finish() {
    if (!isModified()) return;
    setModified(false);
    if (automatic_ && text().trimmed().isEmpty()) {
        if (stored_ != 0) emit entered(0);
        return setStored(stored_);
    }
    auto parsed = units::parse(text().toStdString(), kind_, system_);
    if (parsed.value)
        emit entered(*parsed.value);
    else
        emit refused(QString::fromStdString(parsed.error));
    setStored(stored_);
}

}  // namespace talvik::app
