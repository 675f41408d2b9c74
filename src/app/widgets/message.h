// A message that takes no room from anything: it floats over a corner of its parent, lets clicks through and
// goes by itself after a while.
#pragma once

#include <QLabel>
#include <QTimer>

namespace talvik::app {

class Message : public QLabel {
    Q_OBJECT
  public:
    explicit Message(QWidget* parent);
    void say(const QString& sentence);
    // Its lower right corner, in the parent.
    void standAt(QPoint corner);

  private:
    QTimer fading_;
    QPoint corner_;
    void place();
};

}  // namespace talvik::app
