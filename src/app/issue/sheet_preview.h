// The drawing as it will be issued, in place of the plan. The wheel zooms, dragging moves.
#pragma once

#include <QWidget>
#include <optional>

#include "document/session.h"
#include "drawing/drawing.h"

namespace talvik::app {

class SheetPreview : public QWidget {
    Q_OBJECT
  public:
    explicit SheetPreview(Session& session, QWidget* parent = nullptr);

  protected:
    void paintEvent(QPaintEvent*) override;
    void wheelEvent(QWheelEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseDoubleClickEvent(QMouseEvent*) override;
    void showEvent(QShowEvent*) override;

  private:
    void refresh();
    Session& session_;
    std::optional<drawing::Sheet> sheet_;
    double zoom_ = 1;
    QPointF shift_, last_;
};

}  // namespace talvik::app
