// One line of text; what has no room gives way to an ellipsis and is told by the tool tip.
#pragma once

#include <QLabel>

namespace talvik::app {

class ElidedLabel : public QLabel {
  public:
    explicit ElidedLabel(QWidget* parent = nullptr) : QLabel(parent) {
        setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    }
    bool fits() const { return fontMetrics().horizontalAdvance(text()) <= contentsRect().width(); }

  protected:
    void paintEvent(QPaintEvent*) override;
};

}  // namespace talvik::app
