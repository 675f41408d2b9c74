// Random keys, clicks and drags in the real window, in every place and on every kind of element: nothing
// crashes, what is asked is answered, and undo leads back to the start byte by byte. TALVIK_SEED and
// TALVIK_EVENTS for more; the seed is in what a failure says. TALVIK_MEMORY names a file for the memory over
// time of TALVIK_ROUNDS rounds, of which scripts/memory_picture.py makes a picture.
#include <sys/resource.h>

#include <QAbstractButton>
#include <QElapsedTimer>
#include <QMenu>
#include <QTimer>
#include <QUndoStack>
#include <algorithm>
#include <fstream>
#include <nlohmann/json.hpp>
#include <random>

#include "canopy.h"
#include "open_window.h"

namespace talvik::app {

namespace {

// MB of memory in use.
double memory() {
    std::ifstream in("/proc/self/statm");
    double pages = 0, resident = 0;
    in >> pages >> resident;
    return resident * 4096 / 1e6;
}

}  // namespace

class Monkey : public OpenWindow {
  protected:
    std::mt19937 random{1};
    QTimer closer;
    QElapsedTimer since;
    int done = 0;  // events
    void SetUp() override {
        OpenWindow::SetUp();
        window.askUnsaved = [] { return MainWindow::Unsaved::Cancel; };
        window.askSavePath = [](const QString&, const QString&, const QString&) { return QString(); };
        window.askOpenPath = [](const QString&, const QString&) { return QString(); };
        window.askFolder = [](const QString&) { return QString(); };
        window.askConflict = [](const QString&) { return MainWindow::Conflict::Cancel; };
        // Whatever stands in front is closed again.
        QObject::connect(&closer, &QTimer::timeout, &closer, [] {
            if (auto* front = QApplication::activePopupWidget()) front->close();
            if (auto* front = QApplication::activeModalWidget()) front->close();
        });
        closer.start(50);
    }
    // Marks that have left the office stay, whatever is undone.
    std::string withoutMarks() {
        auto j = nlohmann::json::parse(text());
        j.erase("marks");
        return j.dump();
    }
    int below(int n) { return int(random() % unsigned(std::max(1, n))); }
    QWidget& somewhere() {
        QWidgetList all;
        for (QWidget* w : window.findChildren<QWidget*>())
            if (w->isVisible() && w->isEnabled() && w->width() > 4 && w->height() > 4 &&
                w->window() == &window && !w->inherits("QMenuBar"))
                all << w;
        // The plan as often as all else.
        if (below(2) && session().floor() && canvas().isVisible()) return canvas();
        return all.empty() ? static_cast<QWidget&>(window) : *all[below(int(all.size()))];
    }
    void event() {
        static const Qt::Key keys[] = {
            Qt::Key_A,     Qt::Key_B,        Qt::Key_C,        Qt::Key_D,      Qt::Key_E,      Qt::Key_G,
            Qt::Key_I,     Qt::Key_K,        Qt::Key_L,        Qt::Key_M,      Qt::Key_O,      Qt::Key_P,
            Qt::Key_R,     Qt::Key_S,        Qt::Key_T,        Qt::Key_W,      Qt::Key_X,      Qt::Key_Y,
            Qt::Key_Z,     Qt::Key_1,        Qt::Key_2,        Qt::Key_3,      Qt::Key_4,      Qt::Key_5,
            Qt::Key_6,     Qt::Key_7,        Qt::Key_0,        Qt::Key_Period, Qt::Key_Minus,  Qt::Key_Up,
            Qt::Key_Down,  Qt::Key_Left,     Qt::Key_Right,    Qt::Key_Return, Qt::Key_Escape, Qt::Key_Delete,
            Qt::Key_Tab,   Qt::Key_PageUp,   Qt::Key_PageDown, Qt::Key_F6,     Qt::Key_Home,   Qt::Key_End,
            Qt::Key_Space, Qt::Key_Backspace};
        const int what = below(10);
        QWidget& w = somewhere();
        const QPoint at(below(w.width()), below(w.height()));
        const auto shift = below(6) == 0 ? Qt::ShiftModifier : Qt::NoModifier;
        if (what < 4) {
            QWidget* held = QApplication::focusWidget();
            press(held ? *held : static_cast<QWidget&>(window), keys[below(int(std::size(keys)))], shift);
        } else if (what < 7) {
            QTest::mouseClick(&w, Qt::LeftButton, shift, at);
        } else if (what < 8) {
            QTest::mouseDClick(&w, Qt::LeftButton, shift, at);
        } else if (what < 9) {
            const QPointF to(below(w.width()), below(w.height()));
            QTest::mousePress(&w, Qt::LeftButton, shift, at);
            for (int i = 1; i <= 3; ++i) {
                const QPointF p = at + (to - at) * i / 3;
                QMouseEvent move(QEvent::MouseMove, p, w.mapToGlobal(p), Qt::NoButton, Qt::LeftButton, shift);
                QApplication::sendEvent(&w, &move);
            }
            QTest::mouseRelease(&w, Qt::LeftButton, shift, to.toPoint());
        } else {
            press(window, below(3) ? Qt::Key_Z : Qt::Key_Y, Qt::ControlModifier);
        }
        QCoreApplication::processEvents(QEventLoop::AllEvents, 20);
    }
    void play(const std::string& name, int events) {
        for (int place = 1; place <= 7; ++place) {
            session().setPlace(static_cast<Place>(place));
            session().undoStack().clear();
            const std::string start = withoutMarks();
            for (int i = 0; i < events; ++i) event();
            press(window, Qt::Key_Escape);
            // Fresh again: Escape may have stopped the answer.
            session().resumeAnswers();
            ASSERT_TRUE(QTest::qWaitFor([&] { return !session().stale(); }, 60000)) << name << " " << place;
            // Words still in a field come in when it is left.
            while (session().undoStack().canUndo()) {
                while (session().undoStack().canUndo()) session().undoStack().undo();
                ASSERT_TRUE(QTest::qWaitFor([&] { return !session().stale(); }, 60000))
                    << name << " " << place;
            }
            const auto now = withoutMarks();
            const auto differs = std::mismatch(now.begin(), now.end(), start.begin(), start.end());
            const auto at = std::size_t(std::max<std::ptrdiff_t>(0, differs.first - now.begin() - 60));
            EXPECT_TRUE(now == start) << name << " " << place << ": undone to the start\n"
                                      << now.substr(at, 160) << "\n"
                                      << start.substr(at, 160);
            done += events;
            if (const auto file = qEnvironmentVariable("TALVIK_MEMORY"); !file.isEmpty())
                std::ofstream(file.toStdString(), std::ios::app)
                    << double(since.elapsed()) / 1000 << "," << done << "," << memory() << "\n";
        }
    }
    void round(int events) {
        window.openDemo(false);
        answer();
        play("one-way slab", events);
        window.openFloorDemo();
        answer();
        window.fit();
        play("floor", events);
        window.openDemo(false);
        openCanopy(window);
        window.askOpenPath = [](const QString&, const QString&) { return QString(); };
        if (session().bases()) {
            answer();
            play("bases", events);
        }
    }
};

TEST_F(Monkey, LeavesAllAsItWas) {
    unsigned seed = qEnvironmentVariable("TALVIK_SEED").toUInt();
    if (seed == 0) seed = 20261128;
    int events = qEnvironmentVariable("TALVIK_EVENTS").toInt();
    if (events <= 0) events = 25;
    random.seed(seed);
    SCOPED_TRACE(seed);
    const double before = memory();
    since.start();
    for (int rounds = std::max(1, qEnvironmentVariable("TALVIK_ROUNDS").toInt()); rounds > 0; --rounds)
        round(events);
    std::printf("seed %u, %d events: %.0f MB before, %.0f MB after\n", seed, done, before, memory());
    EXPECT_LT(memory(), before + 1500) << "memory does not grow without end";
}

}  // namespace talvik::app
