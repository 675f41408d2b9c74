// The drawing below the plan of a floor: opened, placed, its layers shown or made members of.
#pragma once

#include <QWidget>
#include <functional>

#include "board/floor_desk.h"

class QComboBox;
class QProgressBar;
class QPushButton;

namespace talvik::app {

class TrayTable;

class DrawingBelow : public QWidget {
    Q_OBJECT
  public:
    explicit DrawingBelow(FloorDesk& desk, QWidget* parent = nullptr);
    std::function<QString()> askDrawing;  // path of a DXF file; replaced in tests
    void refresh();

  private:
    void makeFromLayers();
    FloorDesk& desk_;
    QPushButton *openDrawing_, *place_, *pick_, *make_, *stop_;
    QComboBox* makeAs_;
    TrayTable* layers_;
    QProgressBar* progress_;
    std::vector<QString> becomes_;  // per layer
};

}  // namespace talvik::app
