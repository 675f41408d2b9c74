// The long section of the strip in hand: slab, supports and bars at an exaggerated depth; below, on the same
// axis, moments with the resistance of the bars, steel required and provided, shear, crack control. Bars are
// edited here.
#pragma once

#include <QWidget>

#include "floor/floor_canvas.h"

namespace talvik::app {

class StripSection : public QWidget {
    Q_OBJECT
  public:
    StripSection(Session& session, StripDesk& desk, FloorCanvas& canvas, QWidget* parent = nullptr);
    // Where things are, for tests.
    QPointF handle(const std::string& run, bool end) const;
    QRectF callout(const std::string& run) const;
    QRectF endWord(std::size_t span, int side) const;  // the word for an end condition
    double pixel(double u) const { return X(u); }

  signals:
    void activated();

  protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void mouseDoubleClickEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;
    void leaveEvent(QEvent*) override;

  private:
    static constexpr double bandTop = 58, bandDepth = 26, rowsTop = 138;
    struct Row {
        double top, height;
    };
    struct Grip {
        std::string run;
        bool end = false;
    };
    double X(double u) const;
    double toU(double x) const;
    bool shared() const;  // strip along the plan's horizontal: same scale and origin as the plan
    double barY(const reinforcement::Run& run) const;
    std::optional<Grip> gripAt(QPointF p) const;
    void editCallout(const std::string& run);
    void chooseEnd(std::size_t span, int side, QPoint at);
    double perWidth(const design::StripDesign& d, std::size_t i, double v) const;
    void drawSlab(QPainter&) const;
    void drawBars(QPainter&) const;
    void drawMoments(QPainter&, Row) const;
    void drawSteel(QPainter&, Row) const;
    void drawShear(QPainter&, Row) const;
    void drawCracks(QPainter&, Row) const;
    void rowTitle(QPainter&, Row, const QString& text) const;
    void axisLine(QPainter&, double y) const;

    Session& session_;
    StripDesk& desk_;
    FloorCanvas& canvas_;
    std::optional<Grip> dragged_, hovered_;
    double dragOffset_ = 0;
};

}  // namespace talvik::app
