// The plan: where. Paper ground, ink outlines, grid bubbles; results written on it as the place of work asks.
#pragma once

#include <QWidget>

#include "document/strip_scale.h"
#include "section/bar_desk.h"

namespace talvik::app {

class PlanView : public QWidget {
    Q_OBJECT
  public:
    PlanView(Session& session, BarDesk& desk, StripScale& scale, QWidget* parent = nullptr);
    void fit();  // all of the slab, and again whenever the view is resized until the user zooms or pans
    // Where things are drawn, for tests and for the find palette.
    QPointF spanCentre(std::size_t span) const;
    QRectF spanDimension(std::size_t span) const;

  signals:
    void pointerMoved(double x, double y);  // mm
    void activated();                       // Enter or double click on the selection

  protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void mouseDoubleClickEvent(QMouseEvent*) override;
    void wheelEvent(QWheelEvent*) override;
    void leaveEvent(QEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

  private:
    QPointF at(double x, double y) const;
    QRectF concrete() const;
    void drawGrid(QPainter&) const;
    void drawSupports(QPainter&) const;
    void drawDimensions(QPainter&) const;
    void drawSelection(QPainter&) const;
    void drawLoads(QPainter&) const;
    void drawVerdicts(QPainter&) const;
    void drawBars(QPainter&) const;
    void drawScaleBar(QPainter&) const;
    double barY(const bars::Run& run, int turn) const;
    std::optional<Spot> under(QPointF point) const;
    void editSpan(std::size_t span);

    Session& session_;
    BarDesk& desk_;
    StripScale& scale_;
    double yTop_ = 90;
    bool ownView_ = false;  // the user has zoomed or panned
    QPointF pressed_, lastDrag_;
    bool panning_ = false;
};

}  // namespace talvik::app
