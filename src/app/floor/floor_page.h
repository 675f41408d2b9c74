// A floor in hand: its plan with the field chosen, and beside it balance, extremes, supports and what to look
// at.
#pragma once

#include <QWidget>
#include <thread>

#include "floor/floor_canvas.h"

class QComboBox;
class QLabel;
class QProgressBar;
class QPushButton;
class QTextBrowser;
class QToolButton;

namespace talvik::app {

class FloorPage : public QWidget {
    Q_OBJECT
  public:
    explicit FloorPage(Session& session, QWidget* parent = nullptr);
    ~FloorPage() override;
    FloorCanvas& canvas() { return *canvas_; }
    QString summary() const;  // the text beside the plan, as shown
    QComboBox& fields() { return *fields_; }
    QComboBox& combinations() { return *combinations_; }
    QPushButton& convergenceButton() { return *convergence_; }

  private:
    Session& session_;
    FloorCanvas* canvas_;
    QComboBox *fields_, *combinations_;
    QToolButton *mesh_, *stop_;
    QProgressBar* progress_;
    QPushButton* convergence_;
    QTextBrowser* text_;
    QString convergenceText_;
    int convergenceSerial_ = 0;
    std::jthread convergenceRun_;

    void refresh();
    void fillCombinations();
    void refreshText();
    void seekConvergence();
};

}  // namespace talvik::app
