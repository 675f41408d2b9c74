// The real window for tests: what hands do in it, and waiting for answers, which come from the background.
#pragma once

#include <gtest/gtest.h>

#include <QApplication>
#include <QComboBox>
#include <QLineEdit>
#include <QMouseEvent>
#include <QSettings>
#include <QTemporaryDir>
#include <QtTest/QTest>

#include "board/floor_canvas.h"
#include "formats/project_file.h"
#include "margin/margin_view.h"
#include "model/edits.h"
#include "register/analysis_text.h"
#include "register/register.h"
#include "section/line_section.h"
#include "tray/tray.h"
#include "window/main_window.h"

namespace talvik::app {

class OpenWindow : public ::testing::Test {
  protected:
    MainWindow window;
    QTemporaryDir folder;

    void SetUp() override {
        QSettings().clear();
        window.askUnsaved = [] { return MainWindow::Unsaved::Discard; };
        window.resize(1280, 800);
        window.show();
        ASSERT_TRUE(QTest::qWaitForWindowExposed(&window));
    }
    Session& session() { return window.session(); }
    const model::OneWaySlab& slab() { return *session().slab(); }
    const model::Basis& basis() { return session().project().basis; }
    FloorCanvas& canvas() { return window.canvas(); }
    QComboBox& fields() { return window.tray().fields(); }
    // What the register says about the analysis of the floor in hand.
    QString analysisText() {
        window.below().show(Register::Page::Analysis);
        return window.below().analysis().text();
    }
    int looseEnds() {
        int n = 0;
        for (const auto& m : session().matters()) n += m.kind == report::Matter::Kind::Loose;
        return n;
    }
    BarDesk& bars() { return window.bars(); }
    std::string text() { return formats::projectText(session().project()); }

    // Until the element in hand is answered for as it is now.
    void answer() {
        ASSERT_TRUE(QTest::qWaitFor([&] { return !session().stale(); }, 20000));
        QCoreApplication::processEvents();
    }
    int over() {
        answer();
        return session().design().summary().over;
    }
    const design::SlabDesign& slabDesign() {
        answer();
        return *session().slabDesign();
    }

    void click(QWidget& w, QPointF at) {
        QTest::mouseClick(&w, Qt::LeftButton, Qt::NoModifier, at.toPoint());
    }
    void press(QWidget& w, Qt::Key key, Qt::KeyboardModifiers modifiers = Qt::NoModifier) {
        QApplication::setActiveWindow(&window);  // shortcuts need it, and there may be no window manager
        QTest::keyClick(&w, key, modifiers);
    }
    // A remedy is chosen by a click, which shows it on plan, and adopted by its button.
    void adoptRemedy(std::size_t listed) {
        auto& margin = window.margin();
        const std::string before = text();
        click(*margin.viewport(), margin.remedyRect(listed).center());
        EXPECT_EQ(text(), before) << "a click alone adopts nothing";
        ASSERT_TRUE(margin.adoptRect(listed).isValid());
        click(*margin.viewport(), margin.adoptRect(listed).center());
    }
    // Moves the pointer and waits till the widget has been told: under X11 the server does so in its own
    // time.
    void point(QWidget& w, QPoint at) {
        struct Watch : QObject {
            QPointF last{-1e9, -1e9};
            bool eventFilter(QObject*, QEvent* event) override {
                if (event->type() == QEvent::MouseMove) last = static_cast<QMouseEvent*>(event)->position();
                return false;
            }
        } watch;
        if (QCursor::pos() == w.mapToGlobal(at)) return;
        w.installEventFilter(&watch);
        QTest::mouseMove(&w, at);
        const bool told =
            QTest::qWaitFor([&] { return watch.last.toPoint() == at; }, w.rect().contains(at) ? 5000 : 50);
        EXPECT_TRUE(told || !w.rect().contains(at)) << at.x() << " " << at.y();
    }
    void drag(QWidget& w, QPointF from, QPointF to) {
        point(w, from.toPoint());
        QTest::mousePress(&w, Qt::LeftButton, Qt::NoModifier, from.toPoint());
        for (int i = 1; i <= 6; ++i) {
            const QPointF p = from + (to - from) * i / 6;
            QMouseEvent move(QEvent::MouseMove, p, w.mapToGlobal(p), Qt::NoButton, Qt::LeftButton,
                             Qt::NoModifier);
            QApplication::sendEvent(&w, &move);
        }
        QTest::mouseRelease(&w, Qt::LeftButton, Qt::NoModifier, to.toPoint());
    }
    template <class T>
    T* part(const char* name) {
        T* found = window.findChild<T*>(QString::fromLatin1(name));
        EXPECT_NE(found, nullptr) << name;
        return found;
    }
    void type(QLineEdit* edit, const QString& value) {
        edit->setFocus();
        edit->selectAll();
        QTest::keyClicks(edit, value);
        press(*edit, Qt::Key_Return);
        QApplication::processEvents();
    }
    void type(const char* field, const char* value) {
        type(part<QLineEdit>(field), QString::fromUtf8(value));
    }
    void choose(const char* box, const QString& text) {
        auto* combo = part<QComboBox>(box);
        const int at = combo->findText(text, Qt::MatchStartsWith);
        ASSERT_GE(at, 0) << text.toStdString();
        combo->setCurrentIndex(at);
        emit combo->textActivated(combo->itemText(at));
    }
};

}  // namespace talvik::app
