// The plan of a floor with one field of its analysis as labelled lines of equal value.
#pragma once

#include <QPainterPath>
#include <QWidget>
#include <memory>

#include "document/session.h"
#include "fem/plate/loads.h"

namespace talvik::app {

class FloorCanvas : public QWidget {
    Q_OBJECT
  public:
    explicit FloorCanvas(Session& session, QWidget* parent = nullptr);
    // What is drawn: a field under a combination, or the envelope's largest or smallest values when
    // `combination` is Most or Least.
    static constexpr int Most = -1, Least = -2;
    void showField(analysis::Field field, int combination);
    void showMesh(bool on);
    void refresh();  // the session has another answer
    void fit();
    // Value of the field at a plan point, NaN outside.
    double valueAt(model::Point p) const;
    int lineCount() const { return static_cast<int>(lines_.size()); }

  signals:
    void pointerMoved(double x, double y, double value);  // mm; value in stored units

  protected:
    void paintEvent(QPaintEvent*) override;
    void wheelEvent(QWheelEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;
    void resizeEvent(QResizeEvent*) override;

  private:
    // A line of equal value: pieces in plan, mm.
    struct Line {
        double value;
        std::vector<QLineF> pieces;
    };
    Session& session_;
    analysis::Field field_ = analysis::Field::Deflection;
    int combination_ = Most;
    bool mesh_ = false, fitted_ = true;
    double scale_ = 0.02;  // pixels per mm
    QPointF origin_;       // pixel of the plan's origin
    QPointF grabbed_;
    std::vector<double> values_;
    std::vector<Line> lines_;
    double step_ = 0;
    std::shared_ptr<const analysis::FloorModel> model_;
    std::unique_ptr<fem::TriangleFinder> finder_;

    QPointF toPixel(double x, double y) const { return {origin_.x() + x * scale_, origin_.y() - y * scale_}; }
    model::Point toPlan(QPointF p) const {
        return {(p.x() - origin_.x()) / scale_, (origin_.y() - p.y()) / scale_};
    }
    double displayFactor() const;  // stored value of one displayed unit
    void traceLines();
    void paintStructure(QPainter& painter);
    void paintLines(QPainter& painter);
};

}  // namespace talvik::app
