// The elements of the project: kind, worst ratio, what is open; searched, opened, made, renamed, copied,
// removed and put in order. A list that drops down from the header.
#pragma once

#include <QDialog>

#include "document/session.h"

class QLineEdit;
class QTreeWidget;

namespace talvik::app {

class ElementList : public QDialog {
    Q_OBJECT
  public:
    explicit ElementList(Session& session, QWidget* parent = nullptr);

  signals:
    void chosen(const model::Id& element);
    void slabWanted();
    void floorWanted();
    void removed(const QString& what);

  protected:
    bool eventFilter(QObject* object, QEvent* event) override;

  private:
    Session& session_;
    QLineEdit* edit_;
    QTreeWidget* list_;

    void refresh();
    model::Id current() const;
    void choose();
    void rename(const QString& name);
    void copy();
    void remove();
    void shift(int by);
};

}  // namespace talvik::app
