// The menus: every command with its keys.
#include <QAbstractSlider>
#include <QAbstractSpinBox>
#include <QAction>
#include <QApplication>
#include <QComboBox>
#include <QFileDialog>
#include <QKeyEvent>
#include <QMenuBar>
#include <QScrollBar>
#include <QTableWidget>

#include "bases/bases_view.h"
#include "board/floor_canvas.h"
#include "layout/placing.h"
#include "margin/margin_view.h"
#include "model/edits.h"
#include "plan/plan_view.h"
#include "register/register.h"
#include "section/line_section.h"
#include "strips/strip_desk.h"
#include "tray/tray.h"
#include "widgets/text.h"
#include "window/main_window.h"
#include "window/place_bar.h"

namespace talvik::app {
namespace {

// Keeps the hand from changing what it did not mean: on some desktops fields of text take Ctrl+E and Ctrl+U
// for the end of the line and for deleting it, which are ours; and the wheel changes no choice, number or
// slider that it only passes over: it scrolls. It takes a field that was clicked or reached by Tab, never the
// keyboard.
class Guard final : public QObject {
  public:
    using QObject::QObject;
    bool eventFilter(QObject* object, QEvent* event) override {
        if (event->type() == QEvent::Polish || event->type() == QEvent::Show)
            if (auto* field = turned(object); field && field->focusPolicy() == Qt::WheelFocus)
                field->setFocusPolicy(Qt::StrongFocus);
        if (event->type() == QEvent::Wheel) {
            const auto* field = turned(object);
            if (!field || field->hasFocus()) return false;
            event->ignore();  // on to what it stands in
            return true;
        }
        if (event->type() != QEvent::ShortcutOverride) return false;
        const auto* key = static_cast<QKeyEvent*>(event);
        if (key->modifiers() != Qt::ControlModifier || (key->key() != Qt::Key_E && key->key() != Qt::Key_U))
            return false;
        event->ignore();
        return true;
    }

  private:
    // What the wheel would change.
    static QWidget* turned(QObject* object) {
        if (auto* w = qobject_cast<QComboBox*>(object)) return w;
        if (auto* w = qobject_cast<QAbstractSpinBox*>(object)) return w;
        auto* w = qobject_cast<QAbstractSlider*>(object);
        return qobject_cast<QScrollBar*>(object) ? nullptr : w;
    }
};

}  // namespace

void MainWindow::buildMenus() {
    qApp->installEventFilter(new Guard(this));
    auto add = [this](QMenu* menu, const QString& text, const QKeySequence& keys, auto call) {
        QAction* action = menu->addAction(text, this, call);
        action->setShortcut(keys);
        return action;
    };
    QMenu* file = menuBar()->addMenu(tr("&File"));
    add(file, tr("&New project"), QKeySequence::New, [this] {
        if (mayLeave()) startEmpty();
    });
    add(file, tr("&Open…"), QKeySequence::Open, [this] { openAsked(); });
    add(file, tr("New project with a fl&oor"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_N), [this] {
        if (!mayLeave()) return;
        model::Project p = model::freshProject();
        layout::addFloor(p, "Floor 1");
        session_.start(std::move(p), {});
        session_.setPlace(Place::Layout);
        fit();
        picture().setFocus();
    });
    recent_ = file->addMenu(tr("Open &recent"));
    connect(recent_, &QMenu::aboutToShow, this, &MainWindow::fillRecent);
    add(file, tr("Open the demo &floor"), {}, [this] {
        if (mayLeave()) openFloorDemo();
    });
    add(file, tr("Open the &demo"), {}, [this] {
        if (mayLeave()) openDemo(true);
    });
    file->addSeparator();
    add(file, tr("&Save"), QKeySequence::Save, [this] { save(); });
    add(file, tr("Save &as…"), QKeySequence::SaveAs, [this] {
        if (QString path = askSavePath(tr("Save as"), session_.path(), fileFilter()); !path.isEmpty())
            saveAs(path);
    });
    file->addSeparator();
    add(file, tr("Add f&loor"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_L), [this] { addFloor(); });
    add(file, tr("Add &slab"), QKeySequence(Qt::CTRL | Qt::Key_L), [this] { addSlab(); });
    add(file, tr("Add set of &bases"), QKeySequence(Qt::CTRL | Qt::Key_K), [this] { addEmptyBases(model::BaseSet::Kind::Pads); });
    add(file, tr("Columns with their loads, from a &table…"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_K),
        [this] { addBases(); });
    file->addSeparator();
    add(file, tr("&Issue set into a folder…"), QKeySequence(Qt::CTRL | Qt::Key_E),
        [this] { exportAsked(QStringLiteral("issue")); });
    add(file, tr("&Compare with…"), {}, [this] {
        const QString path = QFileDialog::getOpenFileName(this, tr("Compare with"), {}, fileFilter());
        if (path.isEmpty()) return;
        if (const QString why = compareWith(path); !why.isEmpty()) say(why);
    });
    add(file, tr("&Print the drawing…"), QKeySequence::Print, [this] { print(); });
    add(file, tr("&Quit"), QKeySequence::Quit, [this] { close(); });

    QMenu* edit = menuBar()->addMenu(tr("&Edit"));
    QAction* undo = session_.undoStack().createUndoAction(this, tr("&Undo"));
    undo->setShortcut(QKeySequence::Undo);
    QAction* redo = session_.undoStack().createRedoAction(this, tr("&Redo"));
    redo->setShortcuts({QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_Z), QKeySequence(Qt::CTRL | Qt::Key_Y)});
    edit->addActions({undo, redo});
    edit->addSeparator();
    add(edit, tr("&Find…"), QKeySequence::Find, [this] { find(); });
    // Keys without Ctrl act where a picture has the keyboard; in tables and fields they scroll.
    for (QAction* action :
         {add(edit, tr("&Thicker slab"), QKeySequence(Qt::Key_PageUp), [this] { changeThickness(1); }),
          add(edit, tr("Th&inner slab"), QKeySequence(Qt::Key_PageDown), [this] { changeThickness(-1); })}) {
        action->setShortcutContext(Qt::WidgetShortcut);
        for (QWidget* pictured : std::initializer_list<QWidget*>{plan_, canvas_, basesPlan_, section_})
            pictured->addAction(action);
    }

    QMenu* bars = menuBar()->addMenu(tr("&Bars"));
    add(bars, tr("Reset &all to automatic"), QKeySequence(Qt::CTRL | Qt::Key_B),
        [this] { bars_.releaseAll(); });
    add(bars, tr("Find &thickness and bars"), QKeySequence(Qt::CTRL | Qt::Key_T),
        [this] { designThickness(); });
    add(bars, tr("&Optimise reinforcement…"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_E),
        [this] { economicalBars(); });
    add(bars, tr("Compare sla&b thicknesses…"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_T),
        [this] { showSweep(); });
    bars->addSeparator();
    add(bars, tr("&Wider spacing"), {}, [this] { bars_.changeSpacing(1); });
    add(bars, tr("&Closer spacing"), {}, [this] { bars_.changeSpacing(-1); });
    add(bars, tr("&Larger bar"), {}, [this] { bars_.changeBar(1); });
    add(bars, tr("&Smaller bar"), {}, [this] { bars_.changeBar(-1); });
    add(bars, tr("&Hook at the end"), {}, [this] { bars_.toggleHook(true); });
    add(bars, tr("Hook at the s&tart"), {}, [this] { bars_.toggleHook(false); });
    add(bars, tr("&Divide at the station line"), {}, [this] { bars_.splitRun(session_.station()); });
    add(bars, tr("&Join with the next"), {}, [this] { bars_.joinRuns(); });
    add(bars, tr("&Add bars at the span or support"), {}, [this] { bars_.addRun(); });
    add(bars, tr("&Reset to automatic"), {}, [this] { bars_.release(); });

    QMenu* view = menuBar()->addMenu(tr("&View"));
    for (int i = 1; i <= 7; ++i) {
        QAction* action = view->addAction(tr("&%1  %2").arg(i).arg(PlaceBar::name(static_cast<Place>(i))),
                                          this, [this, i] { session_.setPlace(static_cast<Place>(i)); });
        action->setShortcut(QKeySequence(Qt::CTRL | static_cast<Qt::Key>(Qt::Key_0 + i)));
    }
    view->addSeparator();
    add(view, tr("&Fit"), QKeySequence(Qt::CTRL | Qt::Key_0), [this] { fit(); });
    auto picture = [this](QWidget& part, const QString& name) {
        QString path = askSavePath(tr("Save picture"), name, tr("Pictures (*.svg *.png)"));
        if (!path.isEmpty()) savePicture(part, path);
    };
    add(view, tr("Save the plan as a picture…"), {},
        [this, picture] { picture(this->picture(), QStringLiteral("plan.svg")); });
    add(view, tr("Save the long section as a picture…"), {},
        [this, picture] { picture(*section_, QStringLiteral("section.svg")); });
    view->addSeparator();
    add(view, tr("Next &part"), QKeySequence(Qt::Key_F6), [this] {
        QList<QWidget*> parts{&this->picture()};
        if (isShown(Side::Below)) parts << &below_->part();
        if (isShown(Side::Margin)) parts << margin_;
        if (isShown(Side::Tray)) parts << tray_->page();
        qsizetype at = 0;
        for (qsizetype i = 0; i < parts.size(); ++i)
            if (parts[i]->hasFocus() || parts[i]->isAncestorOf(QApplication::focusWidget())) at = i + 1;
        parts[at % parts.size()]->setFocus();
    });
    add(view, tr("Long section or &register"), QKeySequence(Qt::Key_F4), [this] {
        if (!isShown(Side::Below)) fold(Side::Below);
        below_->change();
    });
    add(view, tr("Hide &input panel"), QKeySequence(Qt::Key_F7), [this] { fold(Side::Tray); });
    add(view, tr("Hide &lower panel"), QKeySequence(Qt::Key_F8), [this] { fold(Side::Below); });
    add(view, tr("Hide resul&ts panel"), QKeySequence(Qt::Key_F9), [this] { fold(Side::Margin); });
    add(view, tr("&Elements…"), QKeySequence(Qt::CTRL | Qt::Key_G), [this] {
        chooseElement(places_->mapToGlobal(QPoint(int(places_->elementRect().left()), places_->height())));
    });
    add(view, tr("Ne&xt element"), QKeySequence(Qt::CTRL | Qt::Key_PageDown), [this] { walkElements(1); });
    add(view, tr("Pre&vious element"), QKeySequence(Qt::CTRL | Qt::Key_PageUp), [this] { walkElements(-1); });
    view->addSeparator();
    add(view, tr("Panel &bench…"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_B), [this] { showBench(); });
    add(view, tr("&Standard and units…"), QKeySequence(Qt::CTRL | Qt::Key_U), [this] {
        chooseStandard(places_->mapToGlobal(QPoint(int(places_->standardRect().left()), places_->height())));
    });

    QMenu* help = menuBar()->addMenu(tr("&Help"));
    add(help, tr("&How to work with Talvik"), QKeySequence::HelpContents, [this] { showHelp(); });
}

}  // namespace talvik::app
