// The long section: how much. Slab, supports and bars at an exaggerated depth; below, on the same axis,
// moments with the resistance of the bars, shear, crack control and sag. Bars are edited here.
#pragma once

#include <QWidget>

#include "document/session.h"
#include "document/strip_scale.h"

namespace talvik::app {

class SectionView : public QWidget {
    Q_OBJECT
  public:
    SectionView(Session& session, StripScale& scale, QWidget* parent = nullptr);
    // Where a run's end handle and call-out are, for tests.
    QPointF handle(const model::Id& run, bool end) const;
    QRectF callout(const model::Id& run) const;
    QRectF thicknessField() const;

    // Edits of the selected run from the keyboard; each says whether there was one.
    bool changeSpacing(int steps);
    bool changeBar(int steps);
    bool moveEnd(bool end, double by);
    bool toggleHook(bool end);
    bool removeRun();

  protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void mouseDoubleClickEvent(QMouseEvent*) override;
    void wheelEvent(QWheelEvent*) override;
    void keyPressEvent(QKeyEvent*) override;
    void leaveEvent(QEvent*) override;

  private:
    static constexpr double header = 30, bandTop = 64, bandDepth = 30, rowsTop = 150;  // pixels from the top
    struct Grip {
        model::Id run;
        bool end = false;
    };
    struct Row {
        double top, height;
    };
    double X(double mm) const { return scale_.toPixel(mm); }
    double usualSpan() const;  // pixels of a typical span: how much room figures have
    double barY(const model::BarRun& run) const;
    const model::BarRun* selectedRun() const;
    bool editRun(const QString& text, const model::BarRun& run, const QString& merge = {});
    std::optional<Grip> gripAt(QPointF point) const;
    void drawSlab(QPainter&) const;
    void drawBars(QPainter&) const;
    void drawMoments(QPainter&, Row) const;
    void drawShear(QPainter&, Row) const;
    void drawCracks(QPainter&, Row) const;
    void drawSag(QPainter&, Row) const;
    void rowTitle(QPainter&, Row, const QString& name, const QString& unit) const;
    void editCallout(const model::Id& run);

    Session& session_;
    StripScale& scale_;
    std::optional<Grip> dragged_, hovered_;
    double dragOffset_ = 0;
};

}  // namespace talvik::app
