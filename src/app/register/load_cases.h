// The load cases of a floor: kind, use, load on every slab, total.
#pragma once

#include <QWidget>

#include "board/floor_desk.h"

namespace talvik::app {

class TrayTable;

class LoadCases : public QWidget {
    Q_OBJECT
  public:
    explicit LoadCases(FloorDesk& desk, QWidget* parent = nullptr);
    QWidget& table();
    void refresh();

  private:
    FloorDesk& desk_;
    TrayTable* cases_;

    void add();
    void remove();
    void edit(int row, int column, const QString& text);
};

}  // namespace talvik::app
