// Below the plan: panels in Layout; combinations and what supports carry in Actions. One row each.
#pragma once

#include <QWidget>

#include "floor/floor_desk.h"

class QComboBox;
class QLabel;
class QPushButton;
class QTableWidget;

namespace talvik::app {

class FloorRegister : public QWidget {
    Q_OBJECT
  public:
    explicit FloorRegister(FloorDesk& desk, QWidget* parent = nullptr);
    QTableWidget& table() { return *table_; }

  signals:
    void showWanted(double x, double y);

  private:
    FloorDesk& desk_;
    QLabel *title_, *note_;
    QComboBox* which_;
    QPushButton *own_, *add_, *remove_, *adopt_;
    QTableWidget* table_;
    bool filling_ = false;
    QString shape_;

    void refresh();
    void fill(const QStringList& heads, const std::vector<QStringList>& rows, const std::set<int>& editable);
    void edited(int row, int column, const QString& text);
    void fillPanels();
    void fillCombinations();
    void fillTakeOff();
};

}  // namespace talvik::app
