// A text field opened over a number in a picture: Enter takes it, Esc or leaving drops it.
#pragma once

#include <QLineEdit>
#include <functional>

namespace talvik::app {

class InlineEdit : public QLineEdit {
    Q_OBJECT
  public:
    // `take` gets the text; it returns an empty string or the sentence why not, which is shown while the
    // field stays.
    static InlineEdit* open(QWidget* parent, const QRectF& at, const QString& text,
                            std::function<QString(const QString&)> take);

  protected:
    void keyPressEvent(QKeyEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;

  private:
    using QLineEdit::QLineEdit;
    void close();
    std::function<QString(const QString&)> take_;
};

}  // namespace talvik::app
