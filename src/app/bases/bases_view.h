// The plan of a set of bases: sizes, types, what is over, and in place 3 the loads. Paper ground and ink, as
// all plans.
#pragma once

#include <QWidget>

#include "design/bases.h"
#include "document/session.h"

namespace talvik::app {

class BasesView : public QWidget {
    Q_OBJECT
  public:
    explicit BasesView(Session& session, QWidget* parent = nullptr);
    void fit();
    QPointF at(geometry::Point plan) const;  // in the widget

  signals:
    void pointerMoved(double x, double y);  // mm
    void activated();

  protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void mouseDoubleClickEvent(QMouseEvent*) override;
    void wheelEvent(QWheelEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

  private:
    void paintLoads(QPainter& p) const;
    const design::BasePart* under(QPointF point) const;
    void step(double dx, double dy);  // to the next base in a direction
    void zoom(double factor, QPointF at);

    Session& session_;
    double perMm_ = 0.02, left_ = 0, top_ = 0;  // pixel of the plan's origin
    bool own_ = false;                          // zoomed or panned by hand
    QPointF pressed_, last_;
    bool panning_ = false;
};

}  // namespace talvik::app
