// Beside the plan in Actions: load cases with their totals, layers of finishes, the load selected or drawn
// next.
#pragma once

#include <QWidget>

#include "floor/floor_desk.h"

class QComboBox;
class QLabel;
class QPushButton;

namespace talvik::app {

class PropertyForm;
class TrayTable;

class ActionsSide : public QWidget {
    Q_OBJECT
  public:
    explicit ActionsSide(FloorDesk& desk, QWidget* parent = nullptr);
    PropertyForm& form() { return *form_; }
    TrayTable& cases() { return *cases_; }

  private:
    FloorDesk& desk_;
    QLabel *title_, *note_, *layersTitle_;
    TrayTable *cases_, *layers_;
    PropertyForm* form_;
    QPushButton *addCase_, *removeCase_;
    QComboBox *arrangement_, *moveTo_;

    void refresh();
    void editCase(int row, int column, const QString& text);
    void editLayer(int row, int column, const QString& text);
    // The load on every slab of a case; made when it is not there.
    static model::FloorLoad& everywhere(model::Floor& floor, model::Project& project, const Id& loadCase);
    static const model::FloorLoad* everywhere(const model::Floor& floor, const Id& loadCase);
};

}  // namespace talvik::app
