#include "widgets/message.h"

#include "widgets/theme.h"

namespace talvik::app {

Message::Message(QWidget* parent) : QLabel(parent) {
    setObjectName(QStringLiteral("notice"));
    setAttribute(Qt::WA_TransparentForMouseEvents);
    setWordWrap(true);
    setFont(uiFont(12));
    setStyleSheet(QStringLiteral(
                      "QLabel{background:%1;border:1px solid %2;border-radius:4px;padding:8px 12px;color:%3}")
                      .arg(theme().field.name(), theme().attention.name(), theme().ink.name()));
    fading_.setSingleShot(true);
    connect(&fading_, &QTimer::timeout, this, &QWidget::hide);
    hide();
}

void Message::say(const QString& sentence) {
    setText(sentence);
    place();
    show();
    raise();
    fading_.start(6000 + 60 * static_cast<int>(sentence.size()));
}

void Message::standAt(QPoint corner) {
    corner_ = corner;
    if (isVisible()) place();
}

void Message::place() {
    const int room = std::max(160, std::min(420, corner_.x() - 20)),
              wanted =
                  fontMetrics().boundingRect(0, 0, room - 30, 10000, Qt::TextWordWrap, text()).width() + 44,
              width = std::min(room, wanted);
    resize(width, heightForWidth(width));
    move(corner_ - QPoint(this->width(), height()));
}

}  // namespace talvik::app
