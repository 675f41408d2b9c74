// A floor from nothing: drawn by mouse and keyboard, and made of an architect's drawing; both are the shipped
// demo.
#include <gtest/gtest.h>

#include <QAction>
#include <QApplication>
#include <QCheckBox>
#include <QComboBox>
#include <QLineEdit>
#include <QMenuBar>
#include <QPushButton>
#include <QTableWidget>
#include <QTemporaryDir>
#include <QTest>
#include <QTextBrowser>
#include <QWheelEvent>
#include <random>

#include "design/floors.h"
#include "formats/project_file.h"
#include "model/edits.h"
#include "open_window.h"
#include "register/register.h"
#include "support/likeness.h"
#include "tray/drawing_below.h"
#include "tray/table.h"

using namespace talvik;
using namespace talvik::app;

namespace {

// Counts what hands do: presses of keys and buttons.
class Hands : public QObject {
  public:
    int keys = 0, clicks = 0;
    bool eventFilter(QObject* object, QEvent* event) override {
        if (object->isWidgetType() && event->type() == QEvent::MouseButtonPress) ++clicks;
        if (object->isWidgetType() && event->type() == QEvent::KeyPress) ++keys;
        return false;
    }
};

class Drawing : public OpenWindow {
  protected:
    Hands hands;
    ~Drawing() override { qApp->removeEventFilter(&hands); }
    void SetUp() override {
        OpenWindow::SetUp();
        for (auto* action : window.menuBar()->findChildren<QAction*>())
            if (action->shortcut() == QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_N)) action->trigger();
        QCoreApplication::processEvents();
        ASSERT_NE(floor(), nullptr);
    }
    FloorDesk& desk() { return window.desk(); }
    QWidget* layoutSide() { return part<QWidget>("floorLayoutPage"); }
    QWidget* actionsSide() { return part<QWidget>("floorActionsPage"); }
    const model::Floor* floor() { return session().floor(); }

    void focusCanvas() {
        QApplication::setActiveWindow(&window);
        canvas().setFocus();
    }
    void key(Qt::Key k, Qt::KeyboardModifiers m = {}) {
        focusCanvas();
        QTest::keyClick(&canvas(), k, m);
    }
    void point(const char* typed) {
        focusCanvas();
        QTest::keyClicks(&canvas(), typed);
        QTest::keyClick(&canvas(), Qt::Key_Return);
    }
    void outline(std::initializer_list<const char*> corners) {
        for (const char* c : corners) point(c);
        key(Qt::Key_Return);
    }
    QPoint at(double x, double y) { return canvas().pixel({x, y}).toPoint(); }
    void click(double x, double y, Qt::KeyboardModifiers m = {}) {
        OpenWindow::point(canvas(), at(x, y) + QPoint(2, 2));
        OpenWindow::point(canvas(), at(x, y));
        QTest::mouseClick(&canvas(), Qt::LeftButton, m, at(x, y));
    }
    void drag(QPoint from, QPoint to) {
        QTest::mousePress(&canvas(), Qt::LeftButton, {}, from);
        for (int k = 1; k <= 4; ++k) {
            QPoint p = from + (to - from) * k / 4;
            QMouseEvent move(QEvent::MouseMove, p, canvas().mapToGlobal(p), Qt::NoButton, Qt::LeftButton, {});
            QApplication::sendEvent(&canvas(), &move);
        }
        QTest::mouseRelease(&canvas(), Qt::LeftButton, {}, to);
    }
    void box(double x0, double y0, double x1, double y1) { drag(at(x0, y0), at(x1, y1)); }
    void typeInto(QWidget* side, const char* name, const char* text) {
        QCoreApplication::processEvents();
        auto* edit = side->findChild<QLineEdit*>(QLatin1String(name));
        ASSERT_TRUE(edit && edit->isVisibleTo(side)) << name;
        edit->setFocus();
        edit->selectAll();
        QTest::keyClicks(edit, text);
        QTest::keyClick(edit, Qt::Key_Return);
    }
    void layoutField(const char* name, const char* text) { typeInto(layoutSide(), name, text); }
    void actionField(const char* name, const char* text) { typeInto(actionsSide(), name, text); }
    void choose(QComboBox* box, const QString& text) {
        ASSERT_TRUE(box);
        ASSERT_GE(box->findText(text), 0) << text.toStdString();
        box->setFocus();
        box->setCurrentIndex(box->findText(text));
        emit box->activated(box->currentIndex());
        emit box->textActivated(text);
    }
    void cell(QTableWidget* table, int row, int column, const char* text) {
        if (auto* box = qobject_cast<QComboBox*>(table->cellWidget(row, column)))
            return choose(box, QLatin1String(text));
        QApplication::setActiveWindow(&window);
        table->setFocus();
        table->setCurrentCell(row, column);
        table->editItem(table->item(row, column));
        auto* edit = qobject_cast<QLineEdit*>(QApplication::focusWidget());
        ASSERT_TRUE(edit);
        edit->selectAll();
        QTest::keyClicks(edit, text);
        QTest::keyClick(edit, Qt::Key_Return);
        QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
        QCoreApplication::processEvents();
    }
    void press(const char* name) {
        auto* b = window.findChild<QPushButton*>(QLatin1String(name));
        ASSERT_TRUE(b) << name;
        QTest::mouseClick(b, Qt::LeftButton);
    }
    // The cases and loads of the demo that lie on the whole floor.
    void casesAndLayers() {
        key(Qt::Key_3, Qt::ControlModifier);
        ASSERT_EQ(session().place(), Place::Actions);
        auto* cases = part<QTableWidget>("cases");
        cell(cases, 2, 0, "Hall");
        cell(cases, 2, 2, "D");
        cell(cases, 2, 3, "5");
        press("addCase");
        cell(cases, 3, 0, "Ice store");
        cell(cases, 3, 2, "E");
        cell(cases, 3, 3, " ");
        cases->setCurrentCell(1, 0);
        auto* layers = actionsSide()->findChild<QTableWidget*>("caseLayers");
        cell(layers, 0, 0, "Screed");
        cell(layers, 0, 1, "55");
        cell(layers, 0, 2, "20");
        cell(layers, 1, 0, "Resin and tiles");
        cell(layers, 1, 1, "15");
        cell(layers, 1, 2, "20");
        cell(cases, 1, 3, "1.6");
    }
    void expectDemo() {
        auto demo = formats::demoFloorProject();
        EXPECT_EQ(test::likeness(*floor()), test::likeness(*demo.floors[0]));
        answer();
        const auto* a = session().floorAnalysis();
        ASSERT_TRUE(a && a->good());
        auto b = design::analyseFloor(demo, 0);
        ASSERT_EQ(a->cases.size(), b.cases.size());
        for (std::size_t i = 0; i < b.cases.size(); ++i)
            EXPECT_NEAR(a->cases[i].load, b.cases[i].load, 1e-6 * b.cases[i].load) << b.cases[i].name;
        EXPECT_EQ(looseEnds(), 0);
    }
};

}  // namespace

TEST_F(Drawing, FromAnEmptyProjectToTheDemoFloor) {
    qApp->installEventFilter(&hands);
    layoutField("gridAlong", "3@7.2 7");
    layoutField("gridAcross", "2@6.2");
    layoutField("gridX", "0.3");
    layoutField("gridY", "0.3");
    canvas().fit();
    key(Qt::Key_A);
    layoutField("prop_thickness", "290");
    outline({"0,0", "29.2,0", "29.2,9.4", "25.6,13", "@-25.6,0"});
    ASSERT_EQ(floor()->slabs.size(), 1u);
    key(Qt::Key_C);
    for (auto [name, text] : {std::pair{"prop_width", "450"},
                              {"prop_depth", "450"},
                              {"prop_heightBelow", "3.4"},
                              {"prop_heightAbove", "4.2 m"}})
        layoutField(name, text);
    box(-1500, -1500, 30500, 14200);
    ASSERT_EQ(floor()->columns.size(), 15u);
    // The one at C/5 stands beside the chamfer: it is marked, and moved to where it should be.
    EXPECT_GT(looseEnds(), 0);
    key(Qt::Key_Escape);
    click(28900, 12700);
    ASSERT_EQ(desk().selection().size(), 1u);
    layoutField("prop_x", "27.15");
    layoutField("prop_y", "11.05");
    layoutField("prop_angle", "45");
    EXPECT_EQ(looseEnds(), 0);
    key(Qt::Key_Escape);
    box(6000, 5500, 24000, 7500);
    ASSERT_EQ(desk().selection().size(), 3u);
    choose(layoutSide()->findChild<QComboBox*>("prop_shape"), "circular");
    layoutField("prop_width", "550");
    key(Qt::Key_Escape);
    click(7500, 6500);
    auto* above = layoutSide()->findChild<QCheckBox*>("prop_above");
    ASSERT_TRUE(above);
    above->click();
    key(Qt::Key_Escape);
    key(Qt::Key_B);
    layoutField("prop_depth", "600");
    click(360, 250);
    EXPECT_TRUE(desk().caught());
    click(28850, 340);
    ASSERT_EQ(floor()->beams.size(), 1u);
    key(Qt::Key_O);
    outline({"10.2,8", "2.4<0", "3.2<90", "@-2.4,0"});
    key(Qt::Key_Z);
    layoutField("prop_thickness", "430");
    outline({"13.5,5.3", "15.9,5.3", "15.9,7.7", "13.5,7.7"});
    key(Qt::Key_Escape);
    casesAndLayers();
    key(Qt::Key_L);
    actionField("prop_value", "7.5");
    point("3,3.4");
    point("16<0");
    key(Qt::Key_Escape);
    part<QTableWidget>("cases")->setCurrentCell(3, 0);
    key(Qt::Key_A);
    actionField("prop_value", "7.5");
    outline({"15.5,8.2", "21,8.2", "21,12.4", "15.5,12.4"});
    key(Qt::Key_P);
    actionField("prop_value", "45");
    actionField("prop_width", "900");
    actionField("prop_depth", "900");
    point("18.2,4.8");
    key(Qt::Key_Escape);
    expectDemo();
    qApp->removeEventFilter(&hands);
    RecordProperty("keys", hands.keys);
    RecordProperty("clicks", hands.clicks);
    EXPECT_LT(hands.keys, 700);
    // Everything taken back, and done again.
    std::string drawn = formats::projectText(session().project());
    key(Qt::Key_2, Qt::ControlModifier);
    while (session().undoStack().canUndo()) session().undoStack().undo();
    EXPECT_TRUE(floor()->columns.empty());
    while (session().undoStack().canRedo()) session().undoStack().redo();
    EXPECT_EQ(formats::projectText(session().project()), drawn);
}

TEST_F(Drawing, FromTheArchitectsDrawingToTheDemoFloor) {
    part<DrawingBelow>("drawingBelow")->askDrawing = [] {
        return QString::fromLatin1(TALVIK_SOURCE_DIR "/demos/sundvarg_fish_hall.dxf");
    };
    press("openDrawing");
    ASSERT_TRUE(QTest::qWaitFor([&] { return !desk().reading() && !floor()->underlays.empty(); }, 10000));
    EXPECT_GT(desk().below().size(), 60u);
    canvas().fit();
    press("placeDrawing");
    click(112000, 48000);
    ASSERT_EQ(desk().points().size(), 1u);
    EXPECT_NEAR(desk().points()[0].x, 112000, 1e-6) << "caught the drawing's corner";
    point("0,0");
    click(141200, 48000);
    point("29.2,0");
    ASSERT_NEAR(layout::placed(floor()->underlays[0], model::Point{112, 48}).x, 0, 1e-6);
    canvas().fit();
    // What is made takes what is set for the tools.
    key(Qt::Key_C);
    layoutField("prop_heightBelow", "3.4");
    layoutField("prop_heightAbove", "4.2");
    key(Qt::Key_B);
    layoutField("prop_depth", "600");
    key(Qt::Key_A);
    layoutField("prop_thickness", "290");
    key(Qt::Key_Z);
    layoutField("prop_thickness", "430");
    key(Qt::Key_Escape);
    key(Qt::Key_Escape);
    auto* layers = layoutSide()->findChild<QTableWidget*>("layers");
    auto becomes = [&](const char* layer, const char* what) {
        for (int r = 0; r < layers->rowCount(); ++r)
            if (layers->item(r, 0)->text() == QLatin1String(layer)) return cell(layers, r, 3, what);
        FAIL() << layer;
    };
    for (auto [layer, what] : {std::pair{"GRID", "grid"},
                               {"SLAB EDGE", "slab"},
                               {"VOID", "opening"},
                               {"COLUMN", "column"},
                               {"COLUMN ABOVE", "column"},
                               {"EDGE BEAM", "beam"},
                               {"DROP", "thickness zone"},
                               {"PARTITION", "line load"},
                               {"ICE STORE", "area load"}})
        becomes(layer, what);
    press("makeMembers");
    ASSERT_EQ(floor()->columns.size(), 15u);
    EXPECT_EQ(floor()->columns[0].name, "A1") << "named after the grid, which was made first";
    canvas().fit();
    click(7500, 6500);
    auto* above = layoutSide()->findChild<QCheckBox*>("prop_above");
    ASSERT_TRUE(above);
    above->click();
    key(Qt::Key_Escape);
    casesAndLayers();
    click(10000, 3400);
    ASSERT_EQ(desk().selection().size(), 1u);
    actionField("prop_value", "7.5");
    click(15500, 10000);
    ASSERT_EQ(desk().selection().size(), 1u);
    actionField("prop_value", "7.5");
    choose(actionsSide()->findChild<QComboBox*>("loadCase"), "Ice store");
    key(Qt::Key_Escape);
    key(Qt::Key_P);
    actionField("prop_value", "45");
    actionField("prop_width", "900");
    actionField("prop_depth", "900");
    point("18.2,4.8");
    key(Qt::Key_Escape);
    expectDemo();
    // A picked line becomes a wall; hidden layers catch nothing.
    key(Qt::Key_2, Qt::ControlModifier);
    std::size_t shown = desk().below().size();
    for (int r = 0; r < layers->rowCount(); ++r)
        if (layers->item(r, 0)->text() == QLatin1String("GRID")) cell(layers, r, 2, "no");
    EXPECT_EQ(desk().below().size(), shown - 8);
    press("pickLines");
    click(10000, 3400);
    ASSERT_EQ(desk().picked().size(), 1u);
    choose(layoutSide()->findChild<QComboBox*>("makeAs"), "wall");
    press("makeMembers");
    EXPECT_EQ(floor()->walls.size(), 1u);
    // Saved and opened again, the drawing is there again.
    ASSERT_TRUE(window.saveAs(folder.filePath("hall.talvik")));
    ASSERT_TRUE(window.openFile(folder.filePath("hall.talvik")));
    ASSERT_TRUE(QTest::qWaitFor([&] { return !desk().below().empty(); }, 10000));
}

TEST_F(Drawing, DrawingAidsConstrainSnapAndSay) {
    layoutField("gridAlong", "2@6");
    layoutField("gridAcross", "5");
    canvas().fit();
    key(Qt::Key_W);
    EXPECT_TRUE(desk().prompt().contains("start"));
    click(60, 40);
    ASSERT_TRUE(desk().caught());
    EXPECT_EQ(desk().caught()->reason, layout::Catch::Crossing);
    EXPECT_EQ(desk().caught()->of, "A1");
    // Shift keeps the line straight along the grid.
    click(4000, 300, Qt::ShiftModifier);
    ASSERT_EQ(floor()->walls.size(), 1u);
    EXPECT_EQ(floor()->walls[0].b.y, 0);
    // Backspace takes a typed figure and then a point back; Escape drops the line, then the tool.
    key(Qt::Key_A);
    point("1,1");
    point("2,1");
    QTest::keyClicks(&canvas(), "12");
    EXPECT_EQ(desk().typed(), "12");
    key(Qt::Key_Backspace);
    key(Qt::Key_Backspace);
    EXPECT_EQ(desk().typed(), "");
    key(Qt::Key_Backspace);
    EXPECT_EQ(desk().points().size(), 1u);
    QTest::keyClicks(&canvas(), "1 zz");
    key(Qt::Key_Return);
    EXPECT_EQ(desk().points().size(), 1u);
    EXPECT_FALSE(desk().typed().isEmpty()) << "what cannot be read stays to be mended";
    key(Qt::Key_Escape);
    key(Qt::Key_Escape);
    key(Qt::Key_Escape);
    EXPECT_EQ(desk().tool(), Tool::Select);
    // A box over bays places slabs and beams; a rectangle elsewhere is drawn.
    key(Qt::Key_A);
    box(-900, -900, 12900, 5900);
    EXPECT_EQ(floor()->slabs.size(), 2u);
    key(Qt::Key_B);
    box(-900, -900, 12900, 5900);
    EXPECT_EQ(floor()->beams.size(), 7u);
    key(Qt::Key_O);
    box(1500, 1500, 2500, 2500);
    EXPECT_EQ(floor()->openings.size(), 1u);
    key(Qt::Key_Escape);
    // Hovering names; wheel and drag never lose the floor.
    OpenWindow::point(canvas(), at(2000, 2000));
    EXPECT_EQ(desk().hovered(), "Opening O1");
    for (int k = 0; k < 60; ++k) {
        QWheelEvent wheel(QPointF(5, 5), canvas().mapToGlobal(QPointF(5, 5)), {}, QPoint(0, 240), {}, {},
                          Qt::NoScrollPhase, false);
        QApplication::sendEvent(&canvas(), &wheel);
    }
    QRectF view(canvas().rect());
    QRectF shown = QRectF(canvas().pixel({-1000, 6000}), canvas().pixel({13000, -1000}));
    EXPECT_TRUE(view.intersects(shown));
    key(Qt::Key_F);
    EXPECT_TRUE(view.contains(canvas().pixel({6000, 2500})));
}

TEST_F(Drawing, MembersAreMovedCopiedSplitOffsetAndMended) {
    layoutField("gridAlong", "2@6");
    layoutField("gridAcross", "5");
    canvas().fit();
    key(Qt::Key_C);
    box(-900, -900, 12900, 5900);
    key(Qt::Key_B);
    click(0, 0);
    point("12,0");
    ASSERT_EQ(floor()->beams.size(), 1u);
    key(Qt::Key_Escape);
    click(3000, 0);
    ASSERT_EQ(desk().selection().size(), 1u);
    press("split");
    EXPECT_EQ(floor()->beams.size(), 2u);
    session().undoStack().undo();
    EXPECT_EQ(floor()->beams.size(), 1u);
    click(3000, 0);
    layoutField("copyBy", "0, 2.5, 2");
    press("copy");
    EXPECT_EQ(floor()->beams.size(), 3u);
    EXPECT_EQ(desk().selection().size(), 2u);
    key(Qt::Key_Up);
    key(Qt::Key_Up);
    EXPECT_EQ(floor()->beams[2].a.y, 5200);
    key(Qt::Key_Down, Qt::ShiftModifier);
    EXPECT_EQ(floor()->beams[2].a.y, 5190);
    key(Qt::Key_Delete);
    EXPECT_EQ(floor()->beams.size(), 1u);
    // A slab by bays' outline, one side moved out, one length typed.
    key(Qt::Key_A);
    outline({"0,0", "12,0", "12,5", "0,5"});
    key(Qt::Key_Escape);
    click(4000, 3500);
    ASSERT_EQ(desk().selection().size(), 1u);
    layoutField("offsetBy", "0.5");
    press("offset");
    EXPECT_EQ(floor()->slabs[0].outline[0].x, -500);
    click(4000, 5500);
    EXPECT_GE(desk().side(), 0);
    layoutField("offsetBy", "0.25");
    press("offset");
    EXPECT_NEAR(geometry::area(model::ring(floor()->slabs[0].outline)) / 1e6, 13 * 6.25, 1e-6);
    // A corner dragged, in one step of history.
    int steps = session().undoStack().index();
    desk().setSide(-1);
    drag(at(12500, -500), at(13200, -900));
    EXPECT_GT(floor()->slabs[0].outline[1].x, 12900);
    EXPECT_EQ(session().undoStack().index(), steps + 1);
    session().undoStack().undo();
    // The first column falls short of a beam by 3 mm: marked, and mended from the list.
    key(Qt::Key_Escape);
    desk().edit("slip", [](model::Floor& f, model::Project&) { f.beams[0].b.x = 11797; });
    ASSERT_EQ(looseEnds(), 1);
    EXPECT_NEAR(session().matters()[0].gap, 3, 1e-6);
    desk().select({});
    EXPECT_NE(session().matters()[0].message.find("ends 3 mm short"), std::string::npos);
    const QRect mend = window.margin().mendButton(0);
    ASSERT_TRUE(mend.isValid());
    QTest::mouseClick(window.margin().viewport(), Qt::LeftButton, {}, mend.center());
    EXPECT_EQ(looseEnds(), 0);
    EXPECT_EQ(floor()->beams[0].b.x, 12000);
    // Mirror in the line x = 0, by two clicks.
    click(3000, 0);
    press("mirror");
    point("0,0");
    point("0,1");
    EXPECT_EQ(floor()->beams.size(), 2u);
    EXPECT_EQ(floor()->beams[1].b.x, -12000);
}

TEST_F(Drawing, GridLinesArcsAndLoadsAreEditedOnPlan) {
    session().start(formats::demoFloorProject(), {});
    key(Qt::Key_2, Qt::ControlModifier);
    for (auto side : {MainWindow::Side::Below, MainWindow::Side::Margin}) window.fold(side);
    QCoreApplication::processEvents();
    canvas().fit();
    canvas().grab();
    // The bubble of line 3 dragged by about 0.4 m to the right, in one step; its neighbours stay.
    auto lines = layout::gridLines(floor()->grids[0], 600);
    double top = canvas().pixel(lines[2].line.b).y();
    QPoint bubble;
    for (int up = 0; up < 80 && bubble.isNull(); ++up) {
        QPoint p(at(14700, 0).x(), int(top) + 20 - up);
        int before = session().undoStack().index();
        drag(p, p + QPoint(int(400 * (at(1000, 0).x() - at(0, 0).x()) / 1000.0), 0));
        if (session().undoStack().index() == before + 1) bubble = p;
        desk().select({});
    }
    ASSERT_FALSE(bubble.isNull());
    EXPECT_NEAR(floor()->grids[0].along[1], 7600, 51);
    EXPECT_NEAR(floor()->grids[0].along[1] + floor()->grids[0].along[2], 14400, 1e-9);
    session().undoStack().undo();
    // Its label typed anew.
    QTest::mouseDClick(&canvas(), Qt::LeftButton, {}, bubble);
    auto* edit = canvas().findChild<QLineEdit*>();
    ASSERT_TRUE(edit);
    edit->selectAll();
    QTest::keyClicks(edit, "Quay");
    QTest::keyClick(edit, Qt::Key_Return);
    EXPECT_EQ(layout::label(floor()->grids[0], true, 2), "Quay");
    // The right edge of the slab becomes an arc that rises by half a metre.
    double before = geometry::area(model::ring(floor()->slabs[0].outline));
    key(Qt::Key_Escape);
    click(25000, 9500);
    ASSERT_EQ(desk().selection(), (std::set<model::Id>{floor()->slabs[0].id}));
    click(29200, 5000);
    ASSERT_EQ(desk().side(), 1);
    layoutField("arcBy", "0.5");
    press("arc");
    EXPECT_NEAR(geometry::area(model::ring(floor()->slabs[0].outline, 0.1)) - before, 2.0 / 3 * 9400 * 500,
                2e4);
    session().undoStack().undo();
    // A load's value typed on plan; a panel loaded by a double click; a name found.
    key(Qt::Key_3, Qt::ControlModifier);
    key(Qt::Key_Escape);
    QTest::mouseDClick(&canvas(), Qt::LeftButton, {}, at(10000, 3400));
    edit = canvas().findChild<QLineEdit*>();
    ASSERT_TRUE(edit);
    edit->selectAll();
    QTest::keyClicks(edit, "8.5");
    QTest::keyClick(edit, Qt::Key_Return);
    EXPECT_EQ(floor()->actions.loads[1].value, 8.5);
    std::size_t loads = floor()->actions.loads.size();
    key(Qt::Key_A);
    click(3500, 2500);
    QTest::mouseDClick(&canvas(), Qt::LeftButton, {}, at(3500, 2500));
    ASSERT_EQ(floor()->actions.loads.size(), loads + 1);
    EXPECT_NEAR(geometry::area(model::ring(floor()->actions.loads.back().outline)), 7200.0 * 6200, 1);
}

TEST_F(Drawing, PanelsCombinationsAndSupportsAreTables) {
    session().start(formats::demoFloorProject(), {});
    key(Qt::Key_2, Qt::ControlModifier);
    auto& table = window.below().table();
    ASSERT_EQ(table.rowCount(), 8);
    EXPECT_EQ(table.item(0, 3)->text(), "two-way");
    cell(&table, 0, 3, "one-way");
    EXPECT_EQ(floor()->panels.size(), 1u);
    EXPECT_TRUE(desk().panels()[0].differs);
    cell(&table, 0, 4, "30");
    EXPECT_EQ(desk().panels()[0].direction, 30);
    cell(&table, 0, 3, "-");
    EXPECT_TRUE(floor()->panels.empty());
    double before = floor()->slabs[0].thickness;
    press("adoptThickness");
    EXPECT_NE(floor()->slabs[0].thickness, before);
    key(Qt::Key_3, Qt::ControlModifier);
    window.below().show(Register::Page::Combinations);
    int generated = table.rowCount();
    EXPECT_GE(generated, 12);
    press("ownCombinations");
    ASSERT_EQ(int(floor()->actions.combinations.size()), generated);
    cell(&table, 0, 3, "1.2");
    EXPECT_EQ(floor()->actions.combinations[0].factors.begin()->second, 1.2);
    press("ownCombinations");
    EXPECT_TRUE(floor()->actions.combinations.empty());
    // No word makes the side wider than its place: 420 of 1280 pixels.
    EXPECT_LE(actionsSide()->minimumSizeHint().width(), 420);
    choose(actionsSide()->findChild<QComboBox*>("arrangement"), "none: all panels loaded");
    EXPECT_EQ(floor()->actions.arrangement, model::Arrangement::All);
    answer();
    EXPECT_EQ(session().floorAnalysis()->combinations.size(), std::size_t(generated));
    choose(actionsSide()->findChild<QComboBox*>("arrangement"), "by the standard");
    answer();
    EXPECT_GT(session().floorAnalysis()->combinations.size(), std::size_t(generated));
    window.below().show(Register::Page::Supports);
    answer();
    ASSERT_EQ(table.rowCount(), 15 + 2);
    EXPECT_EQ(table.item(15, 1)->text(), table.item(16, 1)->text()) << "reactions and loads of self-weight";
}

TEST_F(Drawing, BasisTemplatesMaterialsAndSources) {
    session().start(formats::demoFloorProject(), {});
    key(Qt::Key_1, Qt::ControlModifier);
    auto* materials = window.findChild<QTableWidget*>("materials");
    ASSERT_TRUE(materials);
    cell(materials, 1, 2, "45");
    EXPECT_EQ(session().project().basis.column.strength, 45);
    QTest::mouseClick(window.findChild<QPushButton*>("materialToAll"), Qt::LeftButton);
    EXPECT_EQ(session().project().basis.column.strength, 35);
    auto* sources = window.findChild<QTableWidget*>("sources");
    ASSERT_GE(sources->rowCount(), 6);
    cell(sources, 0, 2, "client");
    EXPECT_EQ(session().project().sources.at("concrete").kind, model::Source::Kind::Client);
    auto* rates = window.findChild<QTableWidget*>("rates");
    cell(rates, 1, 1, "2.1");
    EXPECT_EQ(session().project().basis.rates.steel.price, 2.1);
}

// Floors drawn at random through the desk, undone and redone in random order, end as they were, byte for
// byte.
TEST(RandomDrawing, UndoneAndRedoneInAnyOrderEndsByteEqual) {
    Session session;
    FloorDesk desk(session);
    for (unsigned seed = 0; seed < 300; ++seed) {
        std::mt19937 random(seed);
        auto u = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(random); };
        model::Project p = model::emptyProject();
        layout::addFloor(p, "F");
        session.start(std::move(p), {});
        session.setPlace(Place::Layout);
        model::Grid g;
        for (int k = 0; k < 2 + int(u(0, 3)); ++k) g.along.push_back(std::round(u(4000, 8000)));
        for (int k = 0; k < 1 + int(u(0, 3)); ++k) g.across.push_back(std::round(u(4000, 8000)));
        g.angle = u(0, 1) < 0.3 ? u(-30, 30) : 0;
        desk.edit("Grid", [&](model::Floor& f, model::Project& project) { layout::add(project, f, g); });
        for (int step = 0; step < 8; ++step) {
            Tool tools[] = {Tool::Column,  Tool::Beam, Tool::Slab,     Tool::Wall,
                            Tool::Opening, Tool::Zone, Tool::PointLoad};
            desk.setTool(tools[std::size_t(u(0, 7))]);
            Point a{u(-2000, 20000), u(-2000, 15000)}, b{a.x + u(500, 15000), a.y + u(500, 12000)};
            if (u(0, 1) < 0.6) {
                desk.box(a, b, 150, false);
            } else {
                for (int k = 0; k < 4; ++k) desk.click({u(a.x, b.x), u(a.y, b.y)}, 150, u(0, 1) < 0.3, false);
                desk.finish();
            }
            if (u(0, 1) < 0.4) {
                desk.setTool(Tool::Select);
                desk.box({-1e5, -1e5}, {u(0, 2e4), u(0, 2e4)}, 150, false);
                double what = u(0, 1);
                if (what < 0.3)
                    desk.nudge(u(-500, 500), u(-500, 500));
                else if (what < 0.5)
                    desk.removeSelection();
                else if (what < 0.7)
                    desk.copySelection({u(-3000, 3000), u(-3000, 3000)}, 1);
                else if (what < 0.85)
                    desk.splitSelection();
                else if (const auto ends = session.matters(); !ends.empty())
                    desk.mend(ends.front());
                session.endMerge();
            }
        }
        std::string drawn = formats::projectText(session.project());
        auto& undo = session.undoStack();
        for (int k = 0; k < 30; ++k) u(0, 1) < 0.55 ? undo.undo() : undo.redo();
        while (undo.canRedo()) undo.redo();
        ASSERT_EQ(formats::projectText(session.project()), drawn) << seed;
        ASSERT_TRUE(formats::readProject(drawn).trouble.empty())
            << seed << formats::sentences(formats::readProject(drawn).trouble);
    }
    session.stopAnswers();
}
