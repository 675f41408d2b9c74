// A table of a tray: cells of text, edited in place, copied to and pasted from a spreadsheet as tab-separated
// text.
#pragma once

#include <QTableWidget>
#include <functional>
#include <map>
#include <set>

namespace talvik::app {

class TrayTable : public QTableWidget {
    Q_OBJECT
  public:
    // Columns that hold a choice are given their options; the others are typed.
    // `widths` in pixels, 0 for a column that takes what is left.
    TrayTable(const QStringList& heads, const std::vector<int>& widths,
              const std::map<int, QStringList>& choices, QWidget* parent = nullptr);
    // Shows rows; keeps scroll position and current cell, and leaves untouched what is equal.
    void show(const std::vector<QStringList>& rows);
    void setHeads(const QStringList& heads) { setHorizontalHeaderLabels(heads); }
    void setReadOnly(const std::set<int>& columns) { readOnly_ = columns; }

  signals:
    void edited(int row, int column, const QString& text);

  protected:
    void keyPressEvent(QKeyEvent* event) override;
    bool eventFilter(QObject* object, QEvent* event) override;  // arrows in a choice walk on

  private:
    std::map<int, QStringList> choices_;
    std::set<int> readOnly_;
    std::vector<QStringList> shown_;
};

}  // namespace talvik::app
