// Connections in the real window: found, walked, given shear steel, taken back.
#include <QCheckBox>
#include <QHeaderView>
#include <QPushButton>
#include <QTableWidget>
#include <QUndoStack>

#include "connections/connection_table.h"
#include "connections/connection_view.h"
#include "open_window.h"

namespace talvik::app {

class Connections : public OpenWindow {
  protected:
    void SetUp() override {
        OpenWindow::SetUp();
        window.openFloorDemo();
        answer();
        session().setPlace(Place::Checks);
        QCoreApplication::processEvents();
    }
    const design::ConnectionDesign& connection(const char* key) {
        answer();
        return *session().floorDesign()->connection(key);
    }
    std::string inHand() { return session().selection() ? session().selection()->part.key : std::string(); }
    QPoint at(double x, double y) { return canvas().pixel({x, y}).toPoint(); }
    void whole() {
        ASSERT_TRUE(
            QTest::qWaitFor([&] { return !session().stale() && session().answer()->complete; }, 30000));
    }
};

// The job of the demo: from "punching over" to a rail that passes, by the keyboard alone, and back.
TEST_F(Connections, FromOverToAPassingRailAndBack) {
    const std::string start = text();
    canvas().setFocus();
    press(canvas(), Qt::Key_C);
    EXPECT_EQ(inHand(), "c112") << "the worst first";
    EXPECT_GT(connection("c112").worst(), 1);
    press(canvas(), Qt::Key_K);
    const auto& c = connection("c112");
    ASSERT_TRUE(c.steel) << c.steelTrouble;
    EXPECT_EQ(c.steel->kind, standards::ShearSteel::Studs);
    EXPECT_LE(c.worst(), 1);
    // Drawn: in the picture of the connection, on plan, in words.
    auto* view = window.findChild<ConnectionView*>(QStringLiteral("connectionView"));
    ASSERT_TRUE(view);
    EXPECT_TRUE(view->isVisible());
    int legs = 0;
    for (const auto& item : view->sheet().items)
        if (const auto* circle = std::get_if<drawing::Circle>(&item))
            legs += circle->layer == drawing::Layer::ShearSteel;
    EXPECT_EQ(legs, int(c.steel->legs.legs.size()));
    EXPECT_GT(window.grab().toImage().pixelColor(5, 5).value(), 0);
    // Links next, then none; each an undoable step.
    press(canvas(), Qt::Key_K);
    EXPECT_EQ(connection("c112").choice.steel, model::ConnectionChoice::Steel::Links);
    press(canvas(), Qt::Key_K);
    EXPECT_FALSE(connection("c112").wanted);
    EXPECT_EQ(session().undoStack().count(), 3);
    while (session().undoStack().canUndo()) session().undoStack().undo();
    EXPECT_EQ(text(), start);
}

TEST_F(Connections, AreClickedAndWalkedOnPlan) {
    click(canvas(), at(7500, 6500));
    EXPECT_EQ(inHand(), "c110");
    canvas().setFocus();
    press(canvas(), Qt::Key_Right);
    EXPECT_EQ(inHand(), "c111");
    press(canvas(), Qt::Key_Up);
    EXPECT_EQ(inHand(), "c116");
    press(canvas(), Qt::Key_Left);
    EXPECT_EQ(inHand(), "c115");
    press(canvas(), Qt::Key_Down);
    EXPECT_EQ(inHand(), "c110");
    press(canvas(), Qt::Key_Escape);
    EXPECT_FALSE(session().selection());
    // Beside columns strips are taken, and in Strips columns are theirs.
    click(canvas(), at(5000, 6500));
    EXPECT_EQ(session().selection()->part.kind, model::PartKind::Strip);
    session().setPlace(Place::Strips);
    click(canvas(), at(7500, 6500));
    EXPECT_EQ(session().selection()->part.kind, model::PartKind::Strip);
}

TEST_F(Connections, TheRegisterFiltersSortsAndGivesManySteel) {
    window.below().show(Register::Page::Connections);
    auto& t = window.below().connections().table();
    auto* over = part<QCheckBox>("connectionsOver");
    EXPECT_EQ(t.rowCount(), int(session().floorDesign()->connections.size()));
    EXPECT_EQ(t.item(0, 0)->text(), QStringLiteral("B4")) << "those over first";
    over->click();
    EXPECT_EQ(t.rowCount(), 1);
    over->click();
    // Sorted by force, the smallest first.
    QTest::mouseClick(t.horizontalHeader()->viewport(), Qt::LeftButton, {},
                      QPoint(t.horizontalHeader()->sectionViewportPosition(2) + 12, 8));
    double last = -2;
    for (int r = 0; r < t.rowCount(); ++r) {
        const double v = t.item(r, 2)->data(Qt::UserRole + 2).toDouble();
        EXPECT_GE(v, last);
        last = v;
    }
    // Rows walk the plan; several together are given links.
    t.setFocus();
    int b4 = -1, b2 = -1;
    for (int r = 0; r < t.rowCount(); ++r)
        b4 = t.item(r, 0)->text() == QStringLiteral("B4") ? r : b4,
        b2 = t.item(r, 0)->text() == QStringLiteral("B2") ? r : b2;
    t.setCurrentCell(b4, 0);
    EXPECT_EQ(inHand(), "c112");
    t.selectionModel()->select(t.model()->index(b2, 0),
                               QItemSelectionModel::Select | QItemSelectionModel::Rows);
    EXPECT_EQ(window.below().connections().chosen().size(), 2u);
    const int steps = session().undoStack().count();
    part<QPushButton>("connectionSteel_1")->click();
    EXPECT_EQ(session().undoStack().count(), steps + 1) << "one step for all";
    EXPECT_EQ(connection("c112").choice.steel, model::ConnectionChoice::Steel::Links);
    EXPECT_EQ(connection("c110").choice.steel, model::ConnectionChoice::Steel::Links);
    EXPECT_EQ(window.below().connections().chosen().size(), 2u) << "what was chosen stays so";
    part<QPushButton>("connectionSteel_0")->click();
    EXPECT_FALSE(connection("c110").wanted);
    session().undoStack().undo();
    // And pinned together, so that no remedy makes their columns larger.
    part<QPushButton>("connectionPin")->click();
    EXPECT_TRUE(connection("c112").choice.pinned && connection("c110").choice.pinned);
    part<QPushButton>("connectionPin")->click();
    EXPECT_FALSE(connection("c112").choice.pinned || connection("c110").choice.pinned);
    session().undoStack().undo();
    session().undoStack().undo();
    session().undoStack().undo();
    EXPECT_EQ(connection("c110").choice.steel, model::ConnectionChoice::Steel::Studs);
}

TEST_F(Connections, TheFormAsksForSteelAndLoadsTables) {
    click(canvas(), at(21900, 6500));
    auto* steel = part<QComboBox>("shearSteel");
    auto* diameter = part<QComboBox>("shearDiameter");
    EXPECT_EQ(diameter->count(), 1) << "nothing to choose without steel";
    steel->setCurrentIndex(1);
    emit steel->textActivated(steel->currentText());
    EXPECT_TRUE(connection("c112").steel);
    EXPECT_EQ(diameter->count(), 5) << "the sizes of the table";
    diameter->setCurrentIndex(3);
    emit diameter->textActivated(diameter->currentText());
    EXPECT_EQ(connection("c112").steel->diameter, 14);
    // Another table: what is specified comes from it. A broken one changes nothing and says where it is
    // broken.
    auto write = [&](const char* name, const QByteArray& rows) {
        QFile f(folder.filePath(QString::fromLatin1(name)));
        EXPECT_TRUE(f.open(QIODevice::WriteOnly));
        f.write("name,diameter mm,height mm,first mm,spacing mm,least studs,most studs,yield MPa\n" + rows);
        return f.fileName();
    };
    ConnectionDesk desk(session());
    EXPECT_TRUE(
        desk.loadStuds(write("broken.csv", "A,14,x,70,140,2,8,500\n")).contains(QStringLiteral("Line 2")));
    EXPECT_TRUE(session().project().basis.studRails.empty());
    EXPECT_TRUE(desk.loadStuds(folder.filePath(QStringLiteral("none.csv"))).size() > 10);
    EXPECT_TRUE(desk.loadStuds(write("Quay stock.csv", "Q14,14,235,65,130,2,9,500\n")).isEmpty());
    EXPECT_EQ(session().project().basis.studTable, "Quay stock");
    EXPECT_EQ(connection("c112").steel->product, "Q14");
    session().undoStack().undo();
    EXPECT_NE(connection("c112").steel->product, "Q14");
    // Beside a square column at the edge legs stand on a grid by choice; its size is pinned.
    ConnectionDesk own(session());
    own.select("c109");
    auto* lines = part<QComboBox>("legLines");
    ASSERT_TRUE(connection("c109").steel);
    auto aslant = [&] {
        const auto& all = connection("c109").steel->legs.lines;
        return std::count_if(all.begin(), all.end(), [](const auto& l) {
            return std::min(std::abs(l.way.x), std::abs(l.way.y)) > 0.01;
        });
    };
    EXPECT_GT(aslant(), 0);
    lines->setCurrentIndex(1);
    emit lines->textActivated(lines->currentText());
    ASSERT_TRUE(connection("c109").steel);
    EXPECT_EQ(aslant(), 0) << "the corners are filled by lines along the sides";
    EXPECT_LE(connection("c109").worst(), 1);
    part<QCheckBox>("pinned")->click();
    EXPECT_TRUE(connection("c109").choice.pinned);
    auto* fixed = part<QCheckBox>("fixedEccentricity");
    const double before = connection("c114").shownDemand()->stress;
    fixed->click();
    EXPECT_NE(connection("c114").shownDemand()->stress, before);
}

TEST_F(Connections, WhatWouldMakeItPassIsFoundForTheOneInHandAndTakenByAClick) {
    whole();
    const std::string start = text();
    click(canvas(), at(21900, 6500));
    ASSERT_TRUE(
        QTest::qWaitFor([&] { return session().sought() && session().soughtFor().key == "c112"; }, 240000));
    const auto& found = session().remedies();
    ASSERT_GE(found.size(), 3u);
    EXPECT_EQ(found[0].text, "Studs on rails");
    for (const auto& r : found) EXPECT_LE(r.worst, 1 + 1e-9) << r.text;
    adoptRemedy(0);
    EXPECT_TRUE(connection("c112").steel);
    session().undoStack().undo();
    EXPECT_EQ(text(), start);
}

TEST_F(Connections, TheShearPictureHasItsStrongLine) {
    fields().setCurrentIndex(fields().findData(300));
    QCoreApplication::processEvents();
    EXPECT_GT(canvas().lineCount(), 3);
    // Highest beside columns, low in the middle of panels; in MPa.
    EXPECT_GT(canvas().valueAt({21900 + 400, 6500}), canvas().valueAt({18300, 10000}));
    EXPECT_LT(canvas().valueAt({18300, 10000}), 0.3);
    EXPECT_TRUE(canvas().valueText({18300, 10000}).endsWith(QStringLiteral("MPa")));
    EXPECT_TRUE(canvas().hasStrongLine());
}

}  // namespace talvik::app
