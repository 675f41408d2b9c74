// The plan of a floor: members, grid and the drawing below; loads where loads are worked on, one field of the
// analysis as labelled lines of equal value where results are. Hands the pointer and the keys to the desk.
#pragma once

#include <QPainterPath>
#include <QPixmap>
#include <QWidget>
#include <memory>

#include "board/floor_desk.h"
#include "connections/connection_desk.h"
#include "document/session.h"
#include "fem/plate/loads.h"
#include "strips/strip_desk.h"
#include "widgets/labels.h"
#include "widgets/still.h"

namespace talvik::app {

class FloorCanvas : public QWidget {
    Q_OBJECT
  public:
    FloorCanvas(Session& session, FloorDesk& desk, StripDesk& strips, ConnectionDesk& connections,
                QWidget* parent = nullptr);
    // What is drawn: a field under a combination, or the envelope's largest or smallest values when
    // `combination` is Most or Least.
    static constexpr int Most = -1, Least = -2;
    void showField(analysis::Field field, int combination);
    // Required steel of a direction and face instead.
    void showSteel(int direction, bool top);
    // What the proof by field found: asked over provided, of a direction and face; direction 2: shear.
    void showProof(int direction, bool top);
    // Resultant shear stress, with the strength of the concrete as one strong line.
    void showShear();
    // Sag of the cracked slab: long-term, or what of it comes after partitions.
    void showSag(bool after);
    void showNothing();
    void showMesh(bool on);
    void refresh();  // the session has another answer
    void update() { still_.drop(), QWidget::update(); }
    void fit();
    void askAngle();                // to which the strip in hand turns
    void centreOn(model::Point p);  // without changing the scale
    void show(model::Point middle, double across);  // so many millimetres of plan from side to side
    // Value of what is shown at a plan point, NaN outside; in words with its unit, empty outside.
    double valueAt(model::Point p) const;
    QString valueText(model::Point p) const;
    // Where a plan point is on the screen, for tests.
    // What a remedy would make of the floor, drawn over it; null: nothing.
    void setPreview(std::shared_ptr<const model::Floor> floor);
    QPointF pixel(model::Point p) const { return toPixel(p.x, p.y); }
    double pixelX(double x) const { return toPixel(x, 0).x(); }
    double perMm() const { return scale_; }
    int lineCount() const { return static_cast<int>(lines_.size()); }
    bool hasStrongLine() const { return strong_ && !strong_->chains.empty(); }

  signals:
    void moved();                                                 // scale or origin changed
    void activated();                                             // Enter on a strip
    void pointerMoved(double x, double y, const QString& value);  // mm; as valueText

  protected:
    void paintEvent(QPaintEvent*) override;
    void wheelEvent(QWheelEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void mouseDoubleClickEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;
    bool event(QEvent*) override;
    void resizeEvent(QResizeEvent*) override;

  private:
    // A line of equal value: chains of points in plan, mm, smoothed between the mesh's edges.
    struct Line {
        double value;
        std::vector<QPolygonF> chains;
    };
    Session& session_;
    FloorDesk& desk_;
    StripDesk& strips_;
    ConnectionDesk& connections_;
    enum class Hand { None, Pan, Box, Corner, Whole, GridLine, StripEdge } hand_ = Hand::None;
    QPointF pressed_, now_;
    model::Id held_;
    int handle_ = -1;
    analysis::Field field_ = analysis::Field::Deflection;
    int combination_ = Most;
    enum class Shown { Nothing, Field, Steel, Proof, Shear, Sag } shown_ = Shown::Field;
    bool sagAfter_ = false;
    int steelDirection_ = 0;  // also of the proof
    bool steelTop_ = false;
    strips::EdgeOf heldEdge_, hotEdge_;
    bool mesh_ = false, fitted_ = true;
    std::vector<model::Grid> grids_;  // those last seen
    double scale_ = 0.02;             // pixels per mm
    QPointF origin_;                  // pixel of the plan's origin
    QPointF grabbed_;
    std::vector<double> values_;
    std::vector<Line> lines_;
    double step_ = 0;
    std::optional<Line> strong_;  // where the shear stress is the strength
    std::shared_ptr<const analysis::FloorModel> model_;
    std::shared_ptr<const model::Floor> preview_;
    std::unique_ptr<fem::TriangleFinder> finder_;

    QPointF toPixel(double x, double y) const { return {origin_.x() + x * scale_, origin_.y() - y * scale_}; }
    model::Point toPlan(QPointF p) const {
        return {(p.x() - origin_.x()) / scale_, (origin_.y() - p.y()) / scale_};
    }
    units::Kind shownKind() const;
    double displayFactor() const;  // stored value of one displayed unit
    void traceLines();
    Line traced(const std::vector<double>& values, double level) const;
    // A word on a ground of paper, clear of those put before; left out where there is no room.
    void tag(QPainter& p, QPointF at, const QString& text, const QColor& ink, bool centred = true);
    void reserveNames();  // of columns and grid lines, which stand where they are
    QRectF nameRect(const model::Column& column) const;
    Labels labels_;
    struct StripName {
        QRectF box;
        QString text;
        QColor ink;
    };
    std::vector<StripName> stripNames_;
    double reach() const { return 12 / scale_; }  // of catching, mm
    bool drawing() const;                         // places 2 and 3
    bool stripping() const;                       // places 4 to 6
    const char* shows() const;                    // a field: non-null
    bool stripKey(QKeyEvent* e);
    bool connectionKey(QKeyEvent* e);
    void paintAll(QPainter& painter);      // but for the station
    void paintStation(QPainter& painter);  // across the strip in hand
    Still still_;
    void placeStripNames(QPainter& painter);
    void paintStripNames(QPainter& painter);
    void paintStrips(QPainter& painter);
    void paintStripBars(QPainter& painter);
    void paintConnections(QPainter& painter);
    void paintDrawnPoints(QPainter& painter);
    void rememberView();
    int handleAt(QPointF p) const;
    // The bubble of a grid line: where it is drawn, and the one at a pixel.
    struct Bubble {
        model::Id grid;
        bool along = true;
        std::size_t index = 0;
        QPointF at, end;
        QString label;
    };
    std::vector<Bubble> bubbles() const;
    const Bubble* bubbleAt(const std::vector<Bubble>& all, QPointF p) const;
    void moveGridLine(model::Point to);
    Bubble heldLine_;
    void paintBelow(QPainter& painter);
    void paintGrid(QPainter& painter);
    void paintStructure(QPainter& painter);
    void paintColumns(QPainter& painter);
    void paintPanels(QPainter& painter);
    void paintLoads(QPainter& painter);
    void paintSelection(QPainter& painter);
    void paintPreview(QPainter& painter);
    void paintPending(QPainter& painter);
    void paintLines(QPainter& painter);
    void paintShort(QPainter& painter);  // where the proof found too little
    void paintScale(QPainter& painter);
    QRectF bounds() const;
    QPixmap belowPixmap_;  // of the drawing below, as long as the view stands still
    QString belowKey_;
    QRectF dimensionAt(std::size_t side) const;
};

}  // namespace talvik::app
