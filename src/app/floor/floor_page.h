// A floor in hand. The plan, and around it what the place of work needs: tools above, tables below and forms
// beside it in Layout and Actions; the field chosen, balance, extremes and supports where results are read.
#pragma once

#include <QWidget>
#include <map>
#include <thread>

#include "floor/floor_canvas.h"
#include "section/line_section.h"

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
    explicit FloorPage(Session& session, BarDesk& bars, QWidget* parent = nullptr);
    ~FloorPage() override;
    FloorDesk& desk() { return *desk_; }
    FloorCanvas& canvas() { return *canvas_; }
    StripDesk& stripDesk() { return *strips_; }
    LineSection& section() { return *section_; }
    // Whether the checks of the strip in hand stand beside the plan here.
    static bool withMargin(Place place) { return place >= Place::Strips && place <= Place::Bars; }
    LayoutSide& layoutSide() { return *layout_; }
    ActionsSide& actionsSide() { return *actions_; }
    FloorRegister& registerBelow() { return *register_; }
    QString summary() const;  // the text beside the plan, as shown
    QComboBox& fields() { return *fields_; }
    QComboBox& combinations() { return *combinations_; }
    QPushButton& convergenceButton() { return *convergence_; }

  signals:
    void marginWanted();  // the checks of what is in hand
    void said(const QString& sentence);

  private:
    Session& session_;
    FloorDesk* desk_;
    StripDesk* strips_;
    FloorCanvas* canvas_;
    LineSection* section_;
    LayoutSide* layout_;
    ActionsSide* actions_;
    FloorRegister* register_;
    QStackedWidget* side_;
    QWidget *toolBar_, *fieldBar_;
    std::vector<QToolButton*> tools_;
    QLabel* prompt_;
    QComboBox *fields_, *combinations_;
    QToolButton *mesh_, *stop_, *directions_[2], *analysis_;
    std::map<int, int> shownIn_;  // what contours were chosen in a place
    QProgressBar* progress_;
    QPushButton* convergence_;
    QTextBrowser* text_;
    analysis::Convergence found_;  // how far from converged, once that was asked
    int convergenceSerial_ = 0;
    std::jthread convergenceRun_;

    void refresh();
    void showPlace();
    void fillTools();
    void fillStripTools();
    void fillRules(class QMenu* menu);
    void showContours();
    void showSection();
    void fillCombinations();
    void refreshText();
    void seekConvergence();
    std::optional<LineSection::Scale> sharedScale() const;
    void chooseEnd(std::size_t span, int side, QPoint at);
};

}  // namespace talvik::app
