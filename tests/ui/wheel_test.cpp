// The wheel scrolls and zooms; it changes nothing that it passes over, in any place, of any kind of element.
#include <QAbstractSpinBox>
#include <QScrollBar>
#include <QTableWidget>
#include <QWheelEvent>
#include <random>

#include "canopy.h"
#include "open_window.h"
#include "support/regular_floor.h"
#include "window/place_bar.h"

namespace talvik::app {
namespace {

class Wheel : public OpenWindow {
  protected:
    void turn(QWidget* w, int way) {
        const QPointF at(w->rect().center());
        QWheelEvent event(at, w->mapToGlobal(at.toPoint()), {}, {0, way}, Qt::NoButton, Qt::NoModifier,
                          Qt::NoScrollPhase, false);
        QApplication::sendEvent(w, &event);
    }
    // Fields that the wheel would change: no wheel gives them the keyboard, and without it none changes
    // anything.
    int overEverything() {
        int seen = 0;
        for (int place = 1; place <= 7; ++place) {
            session().setPlace(static_cast<Place>(place));
            answer();
            const std::string before = text();
            for (auto* w : window.findChildren<QWidget*>()) {
                if (!w->isVisible()) continue;
                const bool field = qobject_cast<QComboBox*>(w) || qobject_cast<QAbstractSpinBox*>(w);
                if (field) {
                    ++seen;
                    EXPECT_NE(w->focusPolicy(), Qt::WheelFocus) << w->objectName().toStdString();
                    w->clearFocus();
                }
                if (!field && !qobject_cast<QTableWidget*>(w) && !qobject_cast<QLineEdit*>(w)) continue;
                const QString shown =
                    qobject_cast<QComboBox*>(w) ? qobject_cast<QComboBox*>(w)->currentText() : QString();
                for (int way : {-120, 120, -120, -120}) turn(w, way);
                if (auto* choice = qobject_cast<QComboBox*>(w)) {
                    EXPECT_EQ(choice->currentText(), shown);
                }
            }
            QCoreApplication::processEvents();
            EXPECT_EQ(text(), before) << "place " << place;
            EXPECT_EQ(int(session().place()), place);
        }
        return seen;
    }
};

TEST_F(Wheel, ChangesNothingOfASlab) {
    window.openDemo(false);
    answer();
    EXPECT_GT(overEverything(), 10);
}
TEST_F(Wheel, ChangesNothingOfAFloor) {
    window.openFloorDemo();
    answer();
    EXPECT_GT(overEverything(), 20);
}
TEST_F(Wheel, ChangesNothingOfBases) {
    openCanopy(window);
    ASSERT_TRUE(session().bases());
    answer();
    EXPECT_GT(overEverything(), 5);
}

// Wheel and hover at random, without a click.
TEST_F(Wheel, TwoThousandTurnsAtRandomLeaveTheProjectAlone) {
    window.openFloorDemo();
    answer();
    const std::string before = text();
    std::mt19937 random(5);
    for (int k = 0; k < 2000; ++k) {
        const QPoint at(int(random() % unsigned(window.width())), int(random() % unsigned(window.height())));
        if (k % 250 == 0)
            session().setPlace(static_cast<Place>(1 + k / 250 % 7)), QCoreApplication::processEvents();
        QWidget* w = window.childAt(at);
        if (!w) continue;
        const QPointF own(w->mapFrom(&window, at));
        if (k % 3 == 0) {
            QMouseEvent event(QEvent::MouseMove, own, QPointF(window.mapToGlobal(at)), Qt::NoButton,
                              Qt::NoButton, Qt::NoModifier);
            QApplication::sendEvent(w, &event);
        } else {
            QWheelEvent event(own, window.mapToGlobal(at), {}, {0, k % 2 ? 120 : -120}, Qt::NoButton,
                              Qt::NoModifier, Qt::NoScrollPhase, false);
            QApplication::sendEvent(w, &event);
        }
    }
    QCoreApplication::processEvents();
    EXPECT_EQ(text(), before);
}

// While remedies are sought the checks below stay where they are, and what is listed keeps its place; a click
// shows one on plan, its button adopts it.
TEST_F(Wheel, RemediesMoveNothingWhileTheyAreFound) {
    auto p = test::regularFloor(3, 3, 7600, 7600, 230);
    session().start(p, {});
    session().setPlace(Place::Checks);
    answer();
    auto& margin = window.margin();
    // Where checks stand in the list, whatever its scroll.
    auto stands = [&] {
        std::map<std::string, int> all;
        for (const auto& key : margin.listed()) all[key] = margin.checkRect(key).top();
        return all;
    };
    ASSERT_TRUE(QTest::qWaitFor([&] { return session().seeking() || session().sought(); }, 60000));
    const auto before = stands();
    ASSERT_FALSE(before.empty());
    ASSERT_TRUE(QTest::qWaitFor([&] { return session().sought(); }, 240000));
    QCoreApplication::processEvents();
    EXPECT_FALSE(session().remedies().empty());
    EXPECT_EQ(stands(), before);
    const std::string start = text();
    adoptRemedy(0);
    EXPECT_NE(text(), start);
}

}  // namespace
}  // namespace talvik::app
