// The window: places on top; left the tray, what you say; in the middle the plan and below it long section or
// register, where and how much; right the margin, what it answers. The same for every kind of element and
// place.
#pragma once

#include <QMainWindow>
#include <functional>
#include <set>

#include "document/session.h"
#include "document/strip_scale.h"
#include "report/report.h"
#include "section/bar_desk.h"

class QLabel;
class QProgressBar;
class QProgressDialog;
class QSplitter;
class QStackedWidget;
class QToolButton;

namespace talvik::formats {
struct Kept;
}

namespace talvik::app {

class BenchWindow;
class Keeper;
class HelpWindow;
class StartPage;
class SweepWindow;
class ConnectionDesk;
class ElidedLabel;
class BasesView;
class FloorCanvas;
class FloorDesk;
class LineSection;
class MarginView;
class Message;
class PlaceBar;
class PlanView;
class Register;
class SheetPreview;
class StripDesk;
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
    FloorDesk& desk() { return *desk_; }
    StripDesk& strips() { return *strips_; }
    FloorCanvas& canvas() { return *canvas_; }
    BasesView& basesPlan() { return *basesPlan_; }
    // Columns with their loads from a table, into a set of bases; a sentence where it cannot be used.
    QString importBases(const QString& path);
    QString pasteBases(const QString& cells);  // of a spreadsheet
    Register& below() { return *below_; }
    Tray& tray() { return *tray_; }
    // The plan of the element in hand.
    QWidget& picture();
    void fit();
    // What stands at the sides and below the plan, and can be folded away.
    enum class Side { Tray, Below, Margin };
    bool isShown(Side side) const;
    void fold(Side side);                    // away, or back again
    BenchWindow* bench() { return bench_; }  // null before it was asked for
    void showBench();
    SweepWindow* sweep() { return sweep_; }  // likewise
    HelpWindow* help() { return help_; }     // likewise
    void showSweep();

    // Opens a file; on trouble shows the sentences and keeps what is open.
    // `ask`: whether to offer what was kept of it when the program did not end as usual.
    bool openFile(const QString& path, bool ask = true);
    void startEmpty();  // a new project with nothing in it, and the start page
    void openDemo(bool withHint);
    void openFloorDemo();
    bool save();
    bool saveAs(const QString& path);
    // Writes drawings, schedules or reports with `stem` as the path without extension, or the issue set into
    // the folder `stem`; what was written, or an empty list after saying why not.
    QStringList exportFiles(const QString& what, const QString& stem);
    // Shows what differs between that project file and the one in hand; else a sentence.
    QString compareWith(const QString& path);
    // Plan or long section as they are drawn now, to .svg or .png; says why not and gives false otherwise.
    bool savePicture(QWidget& part, const QString& path);
    // A sentence over a corner of the plan, for a while; moves nothing.
    void say(const QString& sentence);
    // What went, in the bottom line, with undo.
    void sayRemoved(const QString& what);

    static QString fileFilter() { return tr("Talvik project (*.talvik)"); }

    enum class Unsaved { Save, Discard, Cancel };
    // Asks what to do with unsaved changes; tests put their own answer here.
    std::function<Unsaved()> askUnsaved;
    // What was kept of a run that did not end as usual; and a file that someone else has written meanwhile.
    enum class Recover { Take, Later, ThrowAway };
    std::function<Recover(const QString& sentence)> askRecover;
    enum class Conflict { Mine, Theirs, Beside, Cancel };
    std::function<Conflict(const QString& sentence)> askConflict;
    // Offers what there is of projects without a name.
    void offerKept();
    Keeper& keeper() { return *keeper_; }
    std::function<QString(const QString& title, const QString& suggestion, const QString& filter)>
        askSavePath;
    std::function<QString(const QString& title, const QString& filter)> askOpenPath;
    std::function<QString(const QString& title)> askFolder;

  protected:
    void closeEvent(QCloseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    bool eventFilter(QObject* object, QEvent* event) override;  // Esc puts the hint away before anything else

  private:
    QString importLoads(const std::string& csv);
    bool isEmpty() const;  // no element
    void buildMenus();
    void buildStatus();
    void connectParts();
    void showPlace();
    void arrange();  // which sides are there, by what is folded and the room there is
    void rememberWidths();
    void refreshStatus();
    QString state() const;  // of the answer, in a line
    void refreshTitle();
    void openMargin();
    bool mayLeave();
    static bool shown(QProgressDialog& progress, double share);  // false when it was stopped
    QStringList issueInto(const QString& folder, const report::Convergences& further);
    void designThickness();
    void economicalBars();
    void find();
    void go(const model::Spot& spot, const std::string& check);
    void goToMember(const model::Id& id);
    void chooseStandard(QPoint at);
    void chooseElement(QPoint at);
    void showElement(const model::Id& id);
    void walkElements(int by);
    void chooseEnd(std::size_t span, int side, QPoint at);
    void remember(const QString& path);
    void fillRecent();
    void changeThickness(int steps);
    void addSlab();
    void addFloor();
    void addEmptyBases(model::BaseSet::Kind kind);
    void openAsked();  // after what is unsaved is dealt with
    void addBases();
    void print();
    void showHelp();
    void exportAsked(const QString& what);
    std::optional<report::Convergences> convergences();  // of all floors; none when stopped

    Session session_;
    StripScale scale_;
    BarDesk bars_{session_};
    FloorDesk* desk_;
    StripDesk* strips_;
    ConnectionDesk* connections_;
    PlaceBar* places_;
    PlanView* plan_;
    FloorCanvas* canvas_;
    BasesView* basesPlan_;
    LineSection* section_;
    MarginView* margin_;
    Tray* tray_;
    SheetPreview* sheet_;
    Register* below_;
    QStackedWidget* pictures_;
    QSplitter *across_, *middle_;
    Message* message_;
    QLabel* hint_;
    ElidedLabel* status_;
    QLabel *removed_, *coordinates_;
    QProgressBar* progress_;
    QToolButton* stop_;
    QMenu* recent_ = nullptr;
    BenchWindow* bench_ = nullptr;
    SweepWindow* sweep_ = nullptr;
    HelpWindow* help_ = nullptr;
    StartPage* start_;
    void beginFrom(int what);  // a StartPage::Begin
    Keeper* keeper_;
    bool offer(const formats::Kept& kept);
    std::set<Side> folded_, byHand_;  // byHand_: opened although there is little room
};

}  // namespace talvik::app
