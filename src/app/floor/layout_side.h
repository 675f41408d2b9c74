// Beside the plan in Layout: what is selected or will be drawn, the grid, the drawing below, what is loose.
#pragma once

#include <QWidget>
#include <functional>

#include "floor/floor_desk.h"

class QComboBox;
class QLabel;
class QLineEdit;
class QProgressBar;
class QPushButton;
class QTextBrowser;

namespace talvik::app {

class PropertyForm;
class TrayTable;

class LayoutSide : public QWidget {
    Q_OBJECT
  public:
    explicit LayoutSide(FloorDesk& desk, QWidget* parent = nullptr);
    std::function<QString()> askDrawing;  // path of a DXF file; replaced in tests
    PropertyForm& form() { return *form_; }

  signals:
    void showWanted(double x, double y);  // a place on plan

  private:
    FloorDesk& desk_;
    QLabel *title_, *note_;
    PropertyForm* form_;
    QWidget *selectionTools_, *floorPart_, *offsetRow_, *arcRow_;
    QLineEdit *name_, *along_, *across_, *originX_, *originY_, *angle_, *between_, *copyBy_, *offsetBy_,
        *arcBy_;
    QTextBrowser* loose_;
    QWidget* drawingPart_;
    QPushButton *openDrawing_, *place_, *pick_, *make_;
    QComboBox* makeAs_;
    TrayTable* layers_;
    QProgressBar* progress_;
    QPushButton* stop_;
    std::vector<QString> becomes_;  // per layer
    QString looseShown_;

    void refresh();
    void refreshFloor();
    void refreshDrawing();
    void setGrid(const QString& what, const std::function<QString(model::Grid&)>& change);
    void makeFromLayers();
};

}  // namespace talvik::app
