// A floor in hand. The plan, and around it what the place of work needs: tools above, tables below and forms
// beside it in Layout and Actions; the field chosen, balance, extremes and supports where results are read.
#pragma once

#include <QWidget>
#include <thread>

#include "floor/floor_canvas.h"

class QComboBox;
class QLabel;
class QProgressBar;
class QPushButton;
class QTextBrowser;
class QStackedWidget;
class QToolButton;

namespace talvik::app {

class LayoutSide;
class ActionsSide;
class FloorRegister;

class FloorPage : public QWidget {
    Q_OBJECT
  public:
    explicit FloorPage(Session& session, QWidget* parent = nullptr);
    ~FloorPage() override;
    FloorDesk& desk() { return *desk_; }
    FloorCanvas& canvas() { return *canvas_; }
    LayoutSide& layoutSide() { return *layout_; }
    ActionsSide& actionsSide() { return *actions_; }
    FloorRegister& registerBelow() { return *register_; }
    QString summary() const;  // the text beside the plan, as shown
    QComboBox& fields() { return *fields_; }
    QComboBox& combinations() { return *combinations_; }
    QPushButton& convergenceButton() { return *convergence_; }

  signals:
    void said(const QString& sentence);

  private:
    Session& session_;
    FloorDesk* desk_;
    FloorCanvas* canvas_;
    LayoutSide* layout_;
    ActionsSide* actions_;
    FloorRegister* register_;
    QStackedWidget* side_;
    QWidget *toolBar_, *fieldBar_;
    std::vector<QToolButton*> tools_;
    QLabel* prompt_;
    QComboBox *fields_, *combinations_;
    QToolButton *mesh_, *stop_;
    QProgressBar* progress_;
    QPushButton* convergence_;
    QTextBrowser* text_;
    QString convergenceText_;
    int convergenceSerial_ = 0;
    std::jthread convergenceRun_;

    void refresh();
    void showPlace();
    void fillTools();
    void fillCombinations();
    void refreshText();
    void seekConvergence();
};

}  // namespace talvik::app
