// A picture kept as it was painted, for as long as only what lies over it moves. What is not painted in
// pixels, such as a file of vectors, is drawn each time.
#pragma once

#include <QPaintEngine>
#include <QPainter>
#include <QPixmap>
#include <QWidget>

namespace talvik::app {

class Still {
  public:
    void drop() { picture_ = {}; }
    template <class Draw>
    void paint(QPainter& p, const QWidget& widget, Draw draw) {
        if (p.paintEngine()->type() != QPaintEngine::Raster) return draw(p);
        const qreal ratio = widget.devicePixelRatioF();
        const QSize size = widget.size() * ratio;
        if (picture_.size() != size) {
            picture_ = QPixmap(size);
            picture_.setDevicePixelRatio(ratio);
            QPainter inner(&picture_);
            draw(inner);
        }
        p.drawPixmap(0, 0, picture_);
    }

  private:
    QPixmap picture_;
};

}  // namespace talvik::app
