// A form made of properties: one row each, rebuilt only when other properties come.
#pragma once

#include <QWidget>

#include "layout/properties.h"

class QFormLayout;

namespace talvik::app {

class PropertyForm : public QWidget {
    Q_OBJECT
  public:
    explicit PropertyForm(QWidget* parent = nullptr);
    // `mixed`: keys in which the members differ; their fields are empty until typed in.
    void show(const std::vector<layout::Property>& properties, const std::set<std::string>& mixed,
              units::System system);

  signals:
    void changed(const std::string& key, const layout::Value& value);
    void refused(const QString& sentence);

  private:
    QFormLayout* form_;
    std::string shape_;
    std::map<std::string, QWidget*> fields_;
};

}  // namespace talvik::app
