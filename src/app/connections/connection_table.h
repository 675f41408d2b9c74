// The register of connections: a row each, with gauges; sorted by any column, the worst first at the
// beginning; those over alone, if asked. Rows chosen together are given a kind of shear steel together.
#pragma once

#include <QWidget>

#include "connections/connection_desk.h"

class QCheckBox;
class QTableWidget;

namespace talvik::app {

class ElidedLabel;

class ConnectionTable : public QWidget {
    Q_OBJECT
  public:
    explicit ConnectionTable(ConnectionDesk& desk, QWidget* parent = nullptr);
    QTableWidget& table() { return *table_; }
    void refresh();
    std::vector<std::string> chosen() const;  // keys of the rows that are selected

  private:
    ConnectionDesk& desk_;
    QTableWidget* table_;
    QCheckBox* over_;
    ElidedLabel* note_;
    bool filling_ = false, sorted_ = false;
    void follow();  // the selection of the session
    QString copied() const;
};

}  // namespace talvik::app
