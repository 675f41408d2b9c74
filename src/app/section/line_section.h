// The long section: how much. The line in hand with its supports and bars at an exaggerated depth; below, on
// the same axis, moments with the resistance of the bars, steel, shear, crack control and sag. Bars are
// edited here.
#pragma once

#include <QWidget>

#include "drawing/long_section.h"
#include "section/bar_desk.h"
#include "widgets/still.h"

namespace talvik::app {

class LineSection : public QWidget {
    Q_OBJECT
  public:
    // Pixels at u = 0, and per mm.
    struct Scale {
        double origin = 0, perMm = 1;
    };
    // `shared`: the scale of a plan above, for lines that run along it; none where the section takes its own.
    LineSection(Session& session, BarDesk& desk, std::function<std::optional<Scale>()> shared,
                QWidget* parent = nullptr);
    // What to say without a line in hand.
    void setEmptyText(const QString& text) { emptyText_ = text, update(); }
    void update() { still_.drop(), QWidget::update(); }
    // Where things are, for tests.
    QPointF handle(const model::Id& run, bool end) const;
    QRectF callout(const model::Id& run) const;
    QRectF endWord(std::size_t span, int side) const;  // the word for an end condition
    QRectF thicknessField() const;                     // of a one-way slab
    double pixel(double u) const;

  signals:
    void activated();
    void endWanted(std::size_t span, int side, QPoint at);  // side: -1 at the span's start
    void zoomed(double factor, double atPixel);

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
    using Data = drawing::LongSection;
    static constexpr double titles = 104;                                 // left of the line, for the rows
    static constexpr double bandTop = 64, bandDepth = 28, rowsTop = 150;  // pixels from the top
    struct Grip {
        model::Id run;
        bool end = false;
        bool operator==(const Grip&) const = default;
    };
    struct Strip {  // the room of a row
        double top, height;
    };
    void gather();
    const Data::Bar* bar(const model::Id& id) const;
    double barY(const Data::Bar& bar) const;
    QRectF placeCallout(const Data::Bar& bar, int lane) const;
    void placeCallouts();
    std::optional<Grip> gripAt(QPointF point) const;
    std::optional<std::pair<std::size_t, int>> wordAt(QPointF point) const;
    const Data::Bar* barAt(QPointF point) const;
    void editCallout(model::Id run);  // a copy: what is drawn is gathered anew when it is selected
    void editThickness();
    double toU(double pixel) const;
    Scale scale() const;
    void drawAll(QPainter&);  // but for the station
    Still still_;
    void drawHeader(QPainter&) const;
    void drawConcrete(QPainter&) const;
    void drawBars(QPainter&) const;
    void drawRow(QPainter&, const Data::Row&, Strip) const;
    void drawStation(QPainter&) const;

    Session& session_;
    BarDesk& desk_;
    std::function<std::optional<Scale>()> shared_;
    QString emptyText_;
    Data data_;
    std::map<model::Id, QRectF> callouts_;  // of bars whose text has room
    std::optional<Grip> dragged_, hovered_;
    double dragOffset_ = 0;
};

}  // namespace talvik::app
