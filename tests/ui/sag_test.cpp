// Sag of floors in the real window: limits drawn on plan, precamber typed, remedies taken; the economical
// slab.
#include <QCheckBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>
#include <QUndoStack>
#include <QtTest/QSignalSpy>

#include "layout/panels.h"
#include "open_window.h"
#include "support/regular_floor.h"
#include "sweep/sweep_window.h"

namespace talvik::app {

class SagWindow : public OpenWindow {
  protected:
    // One panel between two line supports that sags too far by a little.
    void SetUp() override {
        OpenWindow::SetUp();
        // Limits that the project sets hold whatever span to depth says.
        auto p = test::regularFloor(2, 2, 4400, 6400, 190, 200);
        p.basis.sagLimit = 251, p.basis.sagLimitAfter = 501;
        session().start(model::editFloor(p, "f1",
                                         [](model::Floor& f, model::Project&) {
                                             f.columns.clear();
                                             f.edges.push_back({"e1", "", {0, -200}, {0, 6600}});
                                             f.edges.push_back({"e2", "", {4400, -200}, {4400, 6600}});
                                         }),
                        {});
        whole();
        window.fit();
        QCoreApplication::processEvents();
    }
    // With what takes longer.
    void whole() {
        ASSERT_TRUE(QTest::qWaitFor(
            [&] {
                return !session().stale() && session().floorDesign() && session().floorDesign()->complete;
            },
            30000));
        QCoreApplication::processEvents();
    }
    const checks::Check* check(const char* title) {
        for (const auto* c : session().answer()->all())
            if (c->title.find(title) != std::string::npos) return c;
        return nullptr;
    }
    const model::Floor& floor() { return *session().floor(); }
};

TEST_F(SagWindow, ALimitIsDrawnAndPrecamberTyped) {
    session().setPlace(Place::Layout);
    const std::string start = text();
    press(canvas(), Qt::Key_L);
    click(canvas(), canvas().pixel({2200, 600}));
    click(canvas(), canvas().pixel({2200, 5800}));
    ASSERT_EQ(floor().sagLines.size(), 1u);
    EXPECT_EQ(floor().sagLines[0].limit, 10);
    press(canvas(), Qt::Key_Escape);
    whole();
    ASSERT_TRUE(check("line F1"));
    EXPECT_EQ(check("line F1")->outcome, checks::Outcome::Over);
    // Its limit by the form, once it is selected.
    click(canvas(), canvas().pixel({2200, 4000}));
    type("prop_limit", "80");
    EXPECT_EQ(floor().sagLines[0].limit, 80);
    whole();
    EXPECT_EQ(check("line F1")->outcome, checks::Outcome::Within);
    // Precamber in the table of panels.
    window.below().show(Register::Page::Panels);
    auto* table = window.below().findChild<QTableWidget*>(QStringLiteral("register"));
    ASSERT_TRUE(table);
    ASSERT_TRUE(table->horizontalHeaderItem(7)->text().startsWith(QStringLiteral("Precamber")));
    table->item(0, 7)->setText(QStringLiteral("10"));
    QCoreApplication::processEvents();
    ASSERT_EQ(floor().cambers.size(), 1u);
    EXPECT_EQ(floor().cambers[0].rise, 10);
    whole();
    EXPECT_TRUE(check("Precamber"));
    table->item(0, 7)->setText(QStringLiteral("-5"));
    QCoreApplication::processEvents();
    EXPECT_EQ(floor().cambers[0].rise, 10) << "refused";
    table->item(0, 7)->setText(QStringLiteral("–"));
    QCoreApplication::processEvents();
    EXPECT_TRUE(floor().cambers.empty());
    while (session().undoStack().canUndo()) session().undoStack().undo();
    EXPECT_EQ(text(), start);
}

// Vibration is switched on, its limit typed, and taken back.
TEST_F(SagWindow, VibrationIsLookedAtWhereItIsAskedFor) {
    const std::string start = text();
    EXPECT_FALSE(check("Response to walking"));
    session().setPlace(Place::Actions);
    whole();
    auto* on = window.findChild<QCheckBox*>(QStringLiteral("vibration"));
    ASSERT_TRUE(on && on->isVisibleTo(&window));
    on->click();
    whole();
    ASSERT_TRUE(floor().vibration.on);
    ASSERT_TRUE(check("ibration") || check("Response to walking"));
    auto* damping = window.findChild<QLineEdit*>(QStringLiteral("vibrationDamping"));
    ASSERT_TRUE(damping);
    EXPECT_EQ(damping->text().toDouble(), 3);
    damping->setFocus();
    damping->selectAll();
    QTest::keyClicks(damping, QStringLiteral("2"));
    QTest::keyClick(damping, Qt::Key_Return);
    EXPECT_NEAR(floor().vibration.damping, 0.02, 1e-9);
    whole();
    while (session().undoStack().canUndo()) session().undoStack().undo();
    EXPECT_EQ(text(), start);
}

TEST_F(SagWindow, WhatWouldMendItIsListedAndTaken) {
    session().setPlace(Place::Checks);
    ASSERT_GT(session().answer()->summary.over, 0);
    ASSERT_TRUE(QTest::qWaitFor([&] { return session().sought(); }, 60000));
    const auto& found = session().remedies();
    ASSERT_FALSE(found.empty());
    // The check that governed is within after it; what stays over is named.
    std::string governs;
    double most = 0;
    for (const auto* c : session().answer()->all())
        if (checks::isJudged(*c) && checks::ratio(*c) > most) most = checks::ratio(*c), governs = c->key;
    const auto left = found[0].left;
    auto& margin = window.margin();
    const QRect at = margin.remedyRect(0);
    ASSERT_TRUE(at.isValid());
    const std::string start = text();
    adoptRemedy(0);
    EXPECT_NE(text(), start);
    whole();
    EXPECT_EQ(session().answer()->summary.over, int(left.size()));
    const auto* now = session().answer()->check(governs);
    EXPECT_TRUE(!now || checks::ratio(*now) <= 1) << governs;
    session().undoStack().undo();
    EXPECT_EQ(text(), start);
}

TEST_F(SagWindow, ThicknessesAreTriedAndOneIsTaken) {
    const std::string start = text();
    press(window, Qt::Key_T, Qt::ControlModifier | Qt::ShiftModifier);
    auto* sweep = window.sweep();
    ASSERT_TRUE(sweep && sweep->isVisible());
    auto* go = sweep->findChild<QPushButton*>(QStringLiteral("sweepGo"));
    auto field = [&](const char* name, const char* value) {
        auto* edit = sweep->findChild<QLineEdit*>(QString::fromLatin1(name));
        ASSERT_TRUE(edit);
        edit->setText(QString::fromLatin1(value));
    };
    // What cannot be tried is said.
    field("sweepFrom", "250"), field("sweepTo", "200");
    EXPECT_FALSE(sweep->start().isEmpty());
    field("sweepTo", "9000"), field("sweepStep", "1");
    EXPECT_TRUE(sweep->start().contains(QStringLiteral("maximum")));
    field("sweepFrom", "190"), field("sweepTo", "230"), field("sweepStep", "20");
    click(*go, go->rect().center());
    EXPECT_TRUE(sweep->running());
    ASSERT_TRUE(QTest::qWaitFor([&] { return !sweep->running(); }, 60000));
    ASSERT_EQ(sweep->points().size(), 3u);
    EXPECT_GT(sweep->points()[0].over, 0);
    EXPECT_LT(sweep->points()[2].over, sweep->points()[0].over);
    EXPECT_EQ(text(), start) << "nothing is taken yet";
    auto& picture = sweep->picture();
    picture.repaint();
    ASSERT_EQ(picture.dots(), 3);
    EXPECT_LT(picture.dot(0).x(), picture.dot(1).x());
    // Walk, then take the last by a click.
    press(picture, Qt::Key_Right);
    press(picture, Qt::Key_Right);
    EXPECT_EQ(picture.shown(), 1);
    click(picture, picture.dot(2));
    EXPECT_EQ(floor().slabs[0].thickness, 230);
    session().undoStack().undo();
    EXPECT_EQ(text(), start);
    // By the keyboard.
    press(picture, Qt::Key_Right);
    const int shown = picture.shown();
    press(picture, Qt::Key_Return);
    EXPECT_EQ(floor().slabs[0].thickness, sweep->points()[std::size_t(shown)].thickness);
    session().undoStack().undo();
    // Stopped in the middle, it keeps what is done.
    field("sweepFrom", "190"), field("sweepTo", "400"), field("sweepStep", "2");
    click(*go, go->rect().center());
    ASSERT_TRUE(QTest::qWaitFor([&] { return !sweep->points().empty(); }, 60000));
    click(*go, go->rect().center());
    ASSERT_TRUE(QTest::qWaitFor([&] { return !sweep->running(); }, 60000));
    EXPECT_LT(sweep->points().size(), 106u);
    EXPECT_EQ(text(), start);
}

}  // namespace talvik::app
