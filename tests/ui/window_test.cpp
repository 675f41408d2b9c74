// The real window, driven by mouse and keyboard events.
#include <gtest/gtest.h>

#include <QAction>
#include <QApplication>
#include <QCheckBox>
#include <QClipboard>
#include <QComboBox>
#include <QDir>
#include <QFile>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSettings>
#include <QTableWidget>
#include <QTemporaryDir>
#include <QtTest/QTest>

#include "model/edits.h"
#include "open_window.h"
#include "plan/plan_view.h"
#include "tray/table.h"
#include "widgets/inline_edit.h"
#include "widgets/quantity_edit.h"
#include "window/place_bar.h"

using namespace talvik;
using namespace talvik::app;

namespace {

class Window : public OpenWindow {
  protected:
    void SetUp() override {
        OpenWindow::SetUp();
        window.openDemo(true);
        answer();
    }
    bars::Run firstTop() {
        for (const auto& r : slabDesign().runs)
            if (r.top() && r.start == model::BarEnd::Straight) return r;
        return {};
    }
};

}  // namespace

// The tour: demo, strip, bar end, thickness, undo, save, reopen, export.
TEST_F(Window, WholeJob) {
    const std::string start = text();
    EXPECT_EQ(over(), 0);
    EXPECT_TRUE(part<QLabel>("hint")->isVisible());
    press(window.plan(), Qt::Key_Escape);
    EXPECT_FALSE(part<QLabel>("hint")->isVisible()) << "the first Esc puts the note away";
    press(window.plan(), Qt::Key_Escape);
    EXPECT_FALSE(session().selection());
    click(window.plan(), window.plan().spanCentre(1));
    EXPECT_TRUE(session().selected(Spot::In::Whole));
    click(window.plan(), window.plan().spanCentre(1));
    ASSERT_TRUE(session().selected(Spot::In::Span));
    EXPECT_EQ(session().selectedId(), slab().spans[1].id);
    for (const auto& key : window.margin().listed())
        EXPECT_NE(key.find(slab().spans[1].id), std::string::npos);

    // A top bar pulled back: its bar-end check goes over, in the drag.
    const auto run = firstTop();
    QPointF handle = window.section().handle(run.id, false);
    drag(window.section(), handle, handle + QPointF(60, 0));
    ASSERT_EQ(slab().bars.size(), 1u) << "the run is fixed now, and no other";
    EXPECT_GT(slab().bars[0].from, run.from + 500);
    EXPECT_EQ(session().selectedId(), slab().bars[0].id);
    EXPECT_GT(over(), 0);
    EXPECT_EQ(session().undoStack().count(), 1) << "one drag is one step";
    press(window, Qt::Key_Z, Qt::ControlModifier);
    EXPECT_EQ(over(), 0);

    // Thinner until something is over.
    for (int i = 0; i < 7; ++i) press(window, Qt::Key_PageDown);
    EXPECT_EQ(slab().thickness, 130);
    EXPECT_GT(over(), 5);
    EXPECT_EQ(PlaceBar::open(session(), Place::Checks), over());
    while (session().undoStack().canUndo()) session().undoStack().undo();
    EXPECT_EQ(text(), start) << "undoing everything restores the start to the byte";
    session().undoStack().redo();
    session().undoStack().redo();
    EXPECT_NE(text(), start);

    QString path = folder.filePath(QStringLiteral("gallery.talvik"));
    EXPECT_TRUE(session().modified());
    ASSERT_TRUE(window.saveAs(path));
    EXPECT_FALSE(session().modified());
    const std::string saved = text();
    window.openDemo(false);
    EXPECT_EQ(text(), start);
    ASSERT_TRUE(window.openFile(path));
    EXPECT_EQ(text(), saved);
    answer();
    QStringList written =
        window.exportFiles(QStringLiteral("issue"), folder.filePath(QStringLiteral("gallery")));
    EXPECT_EQ(written.size(), 14);
    for (const QString& file : written) EXPECT_GT(QFile(file).size(), 500) << file.toStdString();
    // Marks that left the office stay, and are worth saving.
    const auto marks = session().project().marks;
    EXPECT_FALSE(marks.empty());
    EXPECT_TRUE(session().modified());
    press(window, Qt::Key_PageUp);
    session().undoStack().undo();
    EXPECT_EQ(session().project().marks, marks) << "no step of history takes them back";
}

TEST_F(Window, KeyboardWalksAndEditsBars) {
    press(window.plan(), Qt::Key_Right);
    EXPECT_TRUE(session().selected(Spot::In::Support));
    press(window.plan(), Qt::Key_Right);
    EXPECT_EQ(session().selectedId(), slab().spans[0].id);
    press(window.plan(), Qt::Key_Return);
    EXPECT_TRUE(window.margin().isOpen(window.margin().listed().front()));
    press(window.section(), Qt::Key_Down);
    ASSERT_TRUE(session().selected(Spot::In::Run));
    auto selected = [&] { return *bars().run(); };
    const double spacing = selected().spacing, step = basis().spacingStep;
    const std::string bar = selected().bar;
    press(window.section(), Qt::Key_Minus);
    press(window.section(), Qt::Key_Minus);
    EXPECT_EQ(selected().spacing, spacing - 2 * step) << "no key is lost while the answer is under way";
    press(window.section(), Qt::Key_BracketRight);
    EXPECT_NE(selected().bar, bar);
    const double to = selected().to;
    press(window.section(), Qt::Key_Left, Qt::ControlModifier);
    EXPECT_EQ(selected().to, to - 50);
    press(window.section(), Qt::Key_H);
    EXPECT_EQ(selected().end, model::BarEnd::Hook);
    ASSERT_EQ(slab().bars.size(), 1u);
    press(window.section(), Qt::Key_Delete);
    EXPECT_TRUE(slab().bars.empty()) << "given back";
    EXPECT_EQ(over(), 0) << "and the program's own are there again";
    press(window.section(), Qt::Key_Down);
    press(window.section(), Qt::Key_BracketRight);
    press(window.section(), Qt::Key_Down);
    press(window.section(), Qt::Key_BracketRight);
    EXPECT_FALSE(slab().bars.empty());
    press(window, Qt::Key_B, Qt::ControlModifier);
    EXPECT_TRUE(slab().bars.empty());
    EXPECT_EQ(over(), 0);
}

// Runs of one-way slabs are divided and added as those of strips.
TEST_F(Window, BarsAreDividedAndAdded) {
    press(window.section(), Qt::Key_Down);
    const auto run = *bars().run();
    const auto count = slabDesign().runs.size();
    session().setStation(run.from + 0.4 * (run.to - run.from));
    press(window.section(), Qt::Key_S);
    answer();
    ASSERT_EQ(slab().bars.size(), 2u);
    EXPECT_EQ(slabDesign().runs.size(), count + 1);
    EXPECT_GE(slab().bars[0].to - slab().bars[1].from, 20 * run.diameter) << "they lap";
    session().select(Spot::In::Support, slab().supports[2].id);
    press(window.section(), Qt::Key_A);
    answer();
    EXPECT_EQ(slab().bars.back().role, model::Role::TopMain);
    EXPECT_GT(slabDesign().runs.size(), count + 1);
}

// What an edit of a slab asks of the window: the slab is worked out elsewhere.
TEST_F(Window, EditsReturnBeforeTheAnswer) {
    session().select(Spot::In::Whole);
    const auto before = session().slabDesign()->slab;
    press(window, Qt::Key_PageUp);
    EXPECT_TRUE(session().stale());
    EXPECT_EQ(session().slabDesign()->slab, before) << "what is shown is the last answer";
    answer();
    EXPECT_EQ(session().slabDesign()->slab->thickness, slab().thickness);
}

TEST_F(Window, CallOutsSpansAndThicknessAreEditedInPlace) {
    window.grab();
    const model::Id run = slabDesign().runs.front().id;
    QTest::mouseDClick(&window.section(), Qt::LeftButton, Qt::NoModifier,
                       window.section().callout(run).center().toPoint());
    auto* edit = window.findChild<InlineEdit*>();
    ASSERT_NE(edit, nullptr);
    type(edit, QStringLiteral("H16 @ 150"));
    EXPECT_EQ(slab().bars.front().bar, "H16");
    EXPECT_EQ(slab().bars.front().spacing, 150);
    QApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
    QTest::mouseDClick(&window.plan(), Qt::LeftButton, Qt::NoModifier,
                       window.plan().spanDimension(0).center().toPoint());
    edit = window.findChild<InlineEdit*>();
    ASSERT_NE(edit, nullptr);
    type(edit, QStringLiteral("4.6"));
    EXPECT_EQ(slab().spans[0].length, 4600);
    QApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
    QTest::mouseDClick(&window.section(), Qt::LeftButton, Qt::NoModifier,
                       window.section().thicknessField().center().toPoint());
    edit = window.findChild<InlineEdit*>();
    ASSERT_NE(edit, nullptr);
    type(edit, QStringLiteral("nonsense"));
    EXPECT_EQ(slab().thickness, 200) << "refused, and the field stays";
    press(*edit, Qt::Key_Escape);
    QApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
    EXPECT_EQ(window.findChild<InlineEdit*>(), nullptr);
}

// From an empty project to a drawing, by keyboard and fields alone.
TEST_F(Window, NewSlabFromNothing) {
    session().start(model::emptyProject(), {});
    EXPECT_EQ(session().slab(), nullptr);
    EXPECT_TRUE(window.margin().listed().empty());
    EXPECT_EQ(PlaceBar::open(session(), Place::Layout), 1);
    press(window, Qt::Key_L, Qt::ControlModifier);
    ASSERT_NE(session().slab(), nullptr);
    EXPECT_EQ(session().place(), Place::Layout);
    type(part<QLineEdit>("spans"), QStringLiteral("2@4.8 5.2 1.4"));
    EXPECT_EQ(slab().spans.size(), 4u);
    QTest::mouseClick(part<QCheckBox>("cantileverEnd"), Qt::LeftButton, Qt::NoModifier,
                      QPoint(8, part<QCheckBox>("cantileverEnd")->height() / 2));
    EXPECT_TRUE(slab().cantileverEnd);
    type(part<QLineEdit>("width"), QStringLiteral("6.5"));
    EXPECT_EQ(slab().width, 6500);
    session().setPlace(Place::Actions);
    type(part<QLineEdit>("imposed"), QStringLiteral("2*2"));
    EXPECT_NEAR(slab().imposed, 4e-3, 1e-15);
    QTest::mouseClick(part<QPushButton>("addLayer"), Qt::LeftButton);
    EXPECT_EQ(slab().finishes.size(), 1u);
    press(window, Qt::Key_T, Qt::ControlModifier);
    EXPECT_EQ(over(), 0);
    EXPECT_FALSE(slabDesign().bars.empty());
    EXPECT_EQ(window.exportFiles(QStringLiteral("drawing"), folder.filePath(QStringLiteral("x"))).size(), 3);
}

TEST_F(Window, FieldsRefuseNonsenseWithASentence) {
    session().setPlace(Place::Layout);
    const std::string before = text();
    type(part<QLineEdit>("thickness"), QStringLiteral("thick"));
    EXPECT_EQ(text(), before);
    auto* notice = part<QLabel>("notice");
    EXPECT_TRUE(notice->isVisible());
    EXPECT_TRUE(notice->text().contains(QStringLiteral("thick")));
    type(part<QLineEdit>("thickness"), QStringLiteral("5000"));
    EXPECT_EQ(text(), before);
    EXPECT_TRUE(notice->text().contains(QStringLiteral("between"))) << notice->text().toStdString();
    type(part<QLineEdit>("spans"), QStringLiteral("99@5"));
    EXPECT_EQ(text(), before);
    type(part<QLineEdit>("thickness"), QStringLiteral("8 in"));
    EXPECT_NEAR(slab().thickness, 203.2, 1e-9);
}

TEST_F(Window, StandardAndUnitsSwitch) {
    session().setPlace(Place::Basis);
    auto* standard = part<QComboBox>("standard");
    int at = standard->findText(QStringLiteral("ACI 318-19 inch-pound"));
    ASSERT_GE(at, 0);
    standard->setCurrentIndex(at);
    emit standard->textActivated(standard->itemText(at));
    EXPECT_EQ(session().project().basis.standard, "aci318-us");
    EXPECT_EQ(session().design().standard->id, "aci318-us");
    const std::string stored = formats::projectText(session().project());
    auto* units_ = part<QComboBox>("units");
    emit units_->textActivated(units_->itemText(1));
    EXPECT_EQ(session().text(203.2, units::Kind::Length), QStringLiteral("8.00 in"));
    session().undoStack().undo();
    EXPECT_EQ(formats::projectText(session().project()), stored)
        << "units change the display, not the values";
    session().undoStack().undo();
    EXPECT_EQ(session().project().basis.standard, "en1992");
}

TEST_F(Window, BadFilesLeaveTheProjectAsItWas) {
    const std::string before = text();
    QString bad = folder.filePath(QStringLiteral("bad.talvik"));
    QFile file(bad);
    ASSERT_TRUE(file.open(QIODevice::WriteOnly));
    file.write("{\"talvik\": 1, \"slabs\": [{]}");
    file.close();
    EXPECT_FALSE(window.openFile(bad));
    EXPECT_EQ(text(), before);
    EXPECT_TRUE(part<QLabel>("notice")->text().contains(QStringLiteral("line 1")));
    EXPECT_FALSE(window.openFile(folder.filePath(QStringLiteral("none.talvik"))));
    EXPECT_EQ(text(), before);
    EXPECT_FALSE(window.saveAs(QStringLiteral("/nonexistent/x.talvik")));
    EXPECT_TRUE(window.exportFiles(QStringLiteral("issue"), QStringLiteral("/proc/x")).isEmpty());
    EXPECT_TRUE(window.exportFiles(QStringLiteral("drawing"), QStringLiteral("/nonexistent/x")).isEmpty());
}

TEST_F(Window, UnsavedChangesAreGuarded) {
    int asked = 0;
    auto choice = MainWindow::Unsaved::Cancel;
    window.askUnsaved = [&] { return ++asked, choice; };
    window.askSavePath = [&](const QString&, const QString&, const QString&) {
        return folder.filePath(QStringLiteral("kept"));
    };
    EXPECT_TRUE(window.close());
    EXPECT_EQ(asked, 0) << "nothing was changed";
    auto again = [&] {
        window.show();
        ASSERT_TRUE(QTest::qWaitForWindowExposed(&window));
    };
    again();
    press(window, Qt::Key_PageUp);
    ASSERT_TRUE(session().modified());
    EXPECT_FALSE(window.close());
    EXPECT_EQ(asked, 1);
    choice = MainWindow::Unsaved::Save;
    EXPECT_TRUE(window.close());
    EXPECT_TRUE(QFile::exists(folder.filePath(QStringLiteral("kept.talvik"))));
    EXPECT_TRUE(QSettings()
                    .value(QStringLiteral("recent"))
                    .toStringList()
                    .first()
                    .endsWith(QStringLiteral("kept.talvik")));
    again();
    press(window, Qt::Key_PageUp);
    choice = MainWindow::Unsaved::Discard;
    EXPECT_TRUE(window.close());
}

TEST_F(Window, RemediesAreFoundInTheBackgroundAndAdoptedByTheirButton) {
    EXPECT_TRUE(session().remedies().empty());
    for (int i = 0; i < 6; ++i) press(window, Qt::Key_PageDown);
    ASSERT_GT(over(), 0);
    ASSERT_TRUE(QTest::qWaitFor([&] { return !session().remedies().empty(); }, 20000));
    const std::string before = text();
    adoptRemedy(0);
    EXPECT_EQ(over(), 0);
    EXPECT_TRUE(session().remedies().empty());
    session().undoStack().undo();
    EXPECT_EQ(text(), before) << "one step back";
    ASSERT_TRUE(QTest::qWaitFor([&] { return !session().remedies().empty(); }, 20000));
}

TEST_F(Window, IdsAreNeverReusedAfterUndo) {
    session().setPlace(Place::Bars);
    session().select(Spot::In::Span, slab().spans[1].id);
    QTest::mouseClick(part<QPushButton>("addRun"), Qt::LeftButton);
    model::Id first = slab().bars.back().id;
    session().undoStack().undo();
    answer();
    session().select(Spot::In::Span, slab().spans[1].id);
    QTest::mouseClick(part<QPushButton>("addRun"), Qt::LeftButton);
    EXPECT_NE(slab().bars.back().id, first);
}

TEST_F(Window, PlacesByKeyAndTheirToolsAreThere) {
    for (int i = 1; i <= 7; ++i) {
        press(window.plan(), static_cast<Qt::Key>(Qt::Key_0 + i), Qt::ControlModifier);
        QApplication::processEvents();
        EXPECT_EQ(static_cast<int>(session().place()), i);
        QPixmap picture = window.grab();
        EXPECT_EQ(picture.width(), static_cast<int>(1280 * picture.devicePixelRatio()));
        EXPECT_EQ(part<QWidget>("tray")->isVisible(), i != 5);
    }
    EXPECT_TRUE(part<QWidget>("sheetPreview")->isVisible());
    auto* runs = part<QTableWidget>("runs");
    EXPECT_EQ(runs->rowCount(), static_cast<int>(slabDesign().bars.size()));
    session().setPlace(Place::Bars);
    runs->setFocus();
    press(*runs, Qt::Key_C, Qt::ControlModifier);
    EXPECT_TRUE(QApplication::clipboard()->text().contains(QStringLiteral("H10\t")));
}

TEST_F(Window, FindGoesToMarksSpansChecksAndCommands) {
    auto look = [&](const QString& words) {
        press(window, Qt::Key_F, Qt::ControlModifier);
        QApplication::processEvents();
        auto* edit = window.findChild<QLineEdit*>(QStringLiteral("findEdit"));
        ASSERT_NE(edit, nullptr);
        QTest::keyClicks(edit, words);
        press(*edit, Qt::Key_Return);
        QApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
        QApplication::processEvents();
    };
    look(QStringLiteral("span C-D"));
    EXPECT_EQ(session().selectedId(), slab().spans[2].id);
    look(QStringLiteral("mark 03"));
    EXPECT_TRUE(session().selected(Spot::In::Run));
    look(QStringLiteral("shear span B-C"));
    EXPECT_TRUE(window.margin().isOpen("s1/" + slab().spans[1].id + "/shear"));
    double h = slab().thickness;
    look(QStringLiteral("thicker slab"));
    EXPECT_EQ(slab().thickness, h + 10);
}

TEST_F(Window, NationalParametersAreEdited) {
    session().setPlace(Place::Basis);
    auto* table = part<QTableWidget>("parameters");
    table->item(0, 1)->setText(QStringLiteral("1.3"));
    EXPECT_EQ(session().project().basis.parameters.at("gamma_c"), 1.3);
    table->item(0, 1)->setText(QStringLiteral("0"));
    EXPECT_EQ(session().project().basis.parameters.at("gamma_c"), 1.3);
    EXPECT_TRUE(part<QLabel>("notice")->isVisible());
    table->item(0, 1)->setText(QStringLiteral("1.5"));
    EXPECT_TRUE(session().project().basis.parameters.empty()) << "the recommended value is no change";
}

TEST_F(Window, ZoomAndPanKeepThePlaceUnderThePointer) {
    QPointF before = window.plan().spanCentre(2);
    QWheelEvent wheel(before, window.plan().mapToGlobal(before), QPoint(), QPoint(0, 240), Qt::NoButton,
                      Qt::NoModifier, Qt::NoScrollPhase, false);
    QApplication::sendEvent(&window.plan(), &wheel);
    EXPECT_NEAR(window.plan().spanCentre(2).x(), before.x(), 1);
    EXPECT_NEAR(window.plan().spanCentre(2).y(), before.y(), 1);
    EXPECT_GT(window.plan().spanCentre(3).x() - before.x(), 50);
    press(window, Qt::Key_0, Qt::ControlModifier);
    EXPECT_NEAR(window.plan().spanCentre(2).x(), before.x(), 1);
}
// A field that is left because of an edit, an undo or a redo brings its words in then: after that step, so
// that history leads back to the start whatever came in when.
TEST_F(Window, AnEditDuringAStepOfHistoryComesAfterIt) {
    window.openDemo(false);
    answer();
    const std::string start = text();
    int wanted = 0;
    QObject::connect(&session(), &Session::changed, &session(), [&] {
        if (wanted == 0) return;
        auto next = session().base();
        next.sheet.note = "note " + std::to_string(wanted);
        wanted = 0;
        session().apply(QStringLiteral("Note"), next);
    });
    auto thicker = [&](double t) {
        session().apply(QStringLiteral("Thickness"),
                        model::editSlab(session().base(), slab().id,
                                        [&](model::OneWaySlab& s, model::Project&) { s.thickness = t; }));
    };
    auto& stack = session().undoStack();
    wanted = 1;
    thicker(260);
    EXPECT_EQ(session().project().sheet.note, "note 1");
    EXPECT_EQ(slab().thickness, 260);
    EXPECT_EQ(stack.count(), 2);
    stack.undo();
    EXPECT_NE(session().project().sheet.note, "note 1");
    EXPECT_EQ(slab().thickness, 260) << "the last step alone";
    wanted = 2;
    stack.undo();
    EXPECT_NE(slab().thickness, 260);
    EXPECT_EQ(session().project().sheet.note, "note 2");
    EXPECT_EQ(stack.count(), 1) << "what was taken back gave way";
    while (stack.canUndo()) stack.undo();
    EXPECT_TRUE(text() == start);
    // An edit that merges into nothing leaves nothing, not even an id used up.
    auto named = [&](bool on) {
        auto next = session().base();
        if (on) model::newId(next, 'x');
        next.sheet.note = on ? "x" : "";
        session().apply(QStringLiteral("Note"), next, QStringLiteral("note"));
    };
    ASSERT_TRUE(session().project().sheet.note.empty());
    named(true), named(false);
    EXPECT_FALSE(stack.canUndo());
    EXPECT_TRUE(text() == start);
}

// Words in a field belong to the element they were typed for: they come in when another one is taken in hand,
// and never go to that one.
TEST_F(Window, WordsInAFieldStayWithTheirElement) {
    window.openDemo(false);
    answer();
    const auto first = slab().id;
    const auto copied = formats::withCopy(session().base(), first, "Second");
    ASSERT_TRUE(session().apply(QStringLiteral("Copy"), copied.project));
    session().setPlace(Place::Layout);
    auto* name = window.tray().findChild<QLineEdit*>(QStringLiteral("slabName"));
    ASSERT_TRUE(name);
    auto type = [&](const char* words) {
        name->setFocus();
        name->selectAll();
        QTest::keyClicks(name, QString::fromLatin1(words));
        ASSERT_EQ(window.focusWidget(), name);
    };
    auto named = [&](const model::Id& id) { return model::findSlab(session().project(), id)->name; };
    type("Jetty");
    session().setElement(copied.copy);
    EXPECT_EQ(named(first), "Jetty");
    EXPECT_EQ(named(copied.copy), "Second");
    // The element goes while words for it stand in the field; another project of another kind comes.
    type("Nowhere");
    session().undoStack().undo(), session().undoStack().undo();
    ASSERT_EQ(session().project().slabs.size(), 1u);
    name->clearFocus();
    EXPECT_NE(named(session().element()), "Nowhere");
    type("Quay");
    window.openFloorDemo();
    name->clearFocus();
    answer();
    EXPECT_TRUE(session().floor());
}

TEST_F(Window, WordsInACellStayWithTheirElement) {
    window.openDemo(false);
    answer();
    const auto first = slab().id;
    const auto copied = formats::withCopy(session().base(), first, "Second");
    ASSERT_TRUE(session().apply(QStringLiteral("Copy"), copied.project));
    session().setPlace(Place::Actions);
    auto* table = window.tray().findChild<TrayTable*>(QStringLiteral("finishes"));
    ASSERT_TRUE(table);
    auto depth = [&](const model::Id& id) {
        return model::findSlab(session().project(), id)->finishes.at(0).thickness;
    };
    const double was = depth(first);
    auto type = [&](const char* words) {
        auto* cell = table->item(0, 1);
        ASSERT_TRUE(cell);
        table->setFocus();
        table->editItem(cell);
        auto* field = table->viewport()->findChild<QLineEdit*>();
        ASSERT_TRUE(field);
        field->selectAll();
        QTest::keyClicks(field, QString::fromLatin1(words));
        ASSERT_EQ(window.focusWidget(), field);
    };
    auto leave = [&] {
        window.setFocus();
        QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
    };
    type("77");
    session().setElement(copied.copy);
    EXPECT_EQ(depth(first), 77);
    EXPECT_EQ(depth(copied.copy), was);
    leave();
    EXPECT_EQ(depth(copied.copy), was);
    // The element goes while words for it stand in the cell; another project of another kind comes.
    type("88");
    session().undoStack().undo(), session().undoStack().undo();
    ASSERT_EQ(session().project().slabs.size(), 1u);
    leave();
    EXPECT_EQ(depth(session().element()), was);
    EXPECT_EQ(table->item(0, 1)->text().toDouble(), was);
    type("99");
    window.openFloorDemo();
    leave();
    answer();
    EXPECT_TRUE(session().floor());
}
