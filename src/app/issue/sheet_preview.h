// The drawings as they will be issued, in place of the plan. The wheel zooms, dragging moves; with several
// sheets, the arrow keys or the bar at the top turn to the next and to the one before.
#pragma once

#include <QWidget>
#include <vector>

#include "document/session.h"
#include "drawing/drawing.h"

class QLabel;
class QToolButton;

namespace talvik::app {

class SheetPreview : public QWidget {
    Q_OBJECT
  public:
    explicit SheetPreview(Session& session, QWidget* parent = nullptr);
    std::size_t count() const { return sheets_.size(); }
    std::size_t current() const { return at_; }
    void turn(int by);

  protected:
    void paintEvent(QPaintEvent*) override;
    void wheelEvent(QWheelEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseDoubleClickEvent(QMouseEvent*) override;
    void showEvent(QShowEvent*) override;
    void keyPressEvent(QKeyEvent*) override;
    void resizeEvent(QResizeEvent*) override;

  private:
    void refresh();
    Session& session_;
    std::vector<drawing::Sheet> sheets_;
    std::size_t at_ = 0;
    QString element_;  // whose sheets they are
    QToolButton *before_, *next_;
    QLabel* title_;
    double zoom_ = 1;
    QPointF shift_, last_;
};

}  // namespace talvik::app
