// Tables of the basis of design: materials of the other kinds of member, rates, where governing values come
// from; and the office template.
#pragma once

#include <QWidget>
#include <functional>

#include "document/session.h"

namespace talvik::app {

class TrayTable;

class BasisTables : public QWidget {
    Q_OBJECT
  public:
    explicit BasisTables(Session& session, QWidget* parent = nullptr);
    void refresh();
    std::function<QString(bool save)> askTemplate;  // path of a template; replaced in tests

  signals:
    void refused(const QString& sentence);

  private:
    Session& session_;
    TrayTable *materials_, *rates_, *sources_;

    void editMaterial(int row, int column, const QString& text);
    void editRate(int row, int column, const QString& text);
    void editSource(int row, int column, const QString& text);
};

}  // namespace talvik::app
