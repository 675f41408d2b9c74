// The window: places on top, plan above, long section below, margin at the side, tools of the place on the
// left.
#pragma once

#include <QLabel>
#include <QMainWindow>
#include <functional>

#include "document/session.h"
#include "document/strip_scale.h"
#include "report/report.h"
#include "section/bar_desk.h"

class QSplitter;
class QStackedWidget;

namespace talvik::app {

class MarginView;
class PlaceBar;
class PlanView;
class LineSection;
class BenchWindow;
class FloorPage;
class SheetPreview;
class Tray;

class MainWindow : public QMainWindow {
    Q_OBJECT
  public:
    MainWindow();
    ~MainWindow() override;

    Session& session() { return session_; }
    BarDesk& bars() { return bars_; }
    PlanView& plan() { return *plan_; }
    LineSection& section() { return *section_; }
    MarginView& margin() { return *margin_; }
    FloorPage& floorPage() { return *floor_; }
    BenchWindow* bench() { return bench_; }  // null before it was asked for
    void showBench();

    // Opens a file; on trouble shows the sentences and keeps what is open.
    bool openFile(const QString& path);
    void openDemo(bool withHint);
    void openFloorDemo();
    bool save();
    bool saveAs(const QString& path);
    // Writes drawings, schedules, reports or all of them with `stem` as the path without extension; what was
    // written, or an empty list after saying why not.
    QStringList exportFiles(const QString& what, const QString& stem);
    // Plan or long section as they are drawn now, to .svg or .png; says why not and gives false otherwise.
    bool savePicture(QWidget& part, const QString& path);
    // A sentence above the plan, until dismissed.
    void say(const QString& sentence);

    static QString fileFilter() { return tr("Talvik project (*.talvik)"); }

    enum class Unsaved { Save, Discard, Cancel };
    // Asks what to do with unsaved changes; tests put their own answer here.
    std::function<Unsaved()> askUnsaved;
    std::function<QString(const QString& title, const QString& suggestion, const QString& filter)>
        askSavePath;

  protected:
    void closeEvent(QCloseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool eventFilter(QObject* object, QEvent* event) override;  // Esc puts the hint away before anything else

  private:
    void buildMenus();
    void connectParts();
    void showPlace();
    void refreshStatus();
    void refreshTitle();
    bool mayLeave();
    void designThickness();
    void find();
    void go(const model::Spot& spot, const std::string& check);
    void chooseStandard(QPoint at);
    void chooseSlab(QPoint at);
    void remember(const QString& path);
    void fillRecent();
    void changeThickness(int steps);
    void addSlab();
    void addFloor();
    void print();
    void showHelp();
    void exportAsked(const QString& what);
    std::optional<report::Convergences> convergences();  // of all floors; none when stopped

    Session session_;
    StripScale scale_;
    BarDesk bars_{session_};
    PlaceBar* places_;
    PlanView* plan_;
    LineSection* section_;
    MarginView* margin_;
    Tray* tray_;
    SheetPreview* sheet_;
    FloorPage* floor_;
    QStackedWidget* centre_;
    QSplitter* across_;
    QWidget* notice_;
    QLabel* noticeText_;
    QLabel* hint_;
    QLabel* status_;
    QLabel* coordinates_;
    QMenu* recent_ = nullptr;
    BenchWindow* bench_ = nullptr;
};

}  // namespace talvik::app
