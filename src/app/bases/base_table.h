// The register of bases: a row for each, sorted and filtered, sizes and bars pinned for many at once.
#pragma once

#include <QWidget>

#include "design/bases.h"
#include "document/session.h"

class QAbstractTableModel;
class QLineEdit;
class QTableView;
class QCheckBox;

namespace talvik::app {

class BaseTable : public QWidget {
    Q_OBJECT
  public:
    explicit BaseTable(Session& session, QWidget* parent = nullptr);
    QTableView& table() { return *table_; }
    void refresh();
    // Rows of a spreadsheet: with heads they go to the bases that their first column names, without them to the
    // cells from the current one on. All of it as one step, or nothing and a sentence.
    void paste(const QString& text);
    // All bases as .csv or .xlsx; a sentence where it fails.
    QString save(const QString& path) const;

  signals:
    void said(const QString& sentence);

  private:
    class Rows;
    void copy() const;

    Session& session_;
    QTableView* table_;
    QLineEdit* filter_;
    QCheckBox* over_;
    Rows* rows_;
    bool following_ = false;
};

}  // namespace talvik::app
