// A form of what is selected on the plan of a floor or will be drawn next: one row for each property, rebuilt
// only when other properties come.
#pragma once

#include <QWidget>

#include "board/floor_desk.h"

class QFormLayout;

namespace talvik::app {

class PropertyForm : public QWidget {
    Q_OBJECT
  public:
    explicit PropertyForm(FloorDesk& desk, QWidget* parent = nullptr);
    // Of what the tool in hand will draw; without one of these members, hidden where they share nothing.
    void showInHand(const std::set<Id>& members);
    // Tab comes here from this widget; otherwise from the page around.
    void follow(QWidget* before) { before_ = before; }

  private:
    // `mixed`: keys in which the members differ; their fields are empty until typed in.
    void show(const std::vector<layout::Property>& properties, const std::set<std::string>& mixed,
              units::System system);
    void changed(const std::string& key, const layout::Value& value);
    FloorDesk& desk_;
    QWidget* before_ = nullptr;
    QFormLayout* form_;
    std::string shape_;
    std::map<std::string, QWidget*> fields_;
};

}  // namespace talvik::app
