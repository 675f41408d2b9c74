// The tools of each place and the margin's keyboard, in the real window.
#include <gtest/gtest.h>

#include <QApplication>
#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>
#include <QSettings>
#include <QTableWidget>
#include <QTemporaryDir>
#include <QtTest/QTest>

#include "open_window.h"
#include "plan/plan_view.h"

using namespace talvik;
using namespace talvik::app;

namespace {

class Tools : public OpenWindow {
  protected:
    void SetUp() override {
        OpenWindow::SetUp();
        window.openDemo(false);
        answer();
    }
};

}  // namespace

TEST_F(Tools, BasisFieldsReachTheProject) {
    session().setPlace(Place::Basis);
    choose("concrete", QStringLiteral("C40/50"));
    EXPECT_EQ(basis().concreteStrength, 40);
    type("concreteStrength", "32");
    EXPECT_EQ(basis().concreteStrength, 32);
    EXPECT_EQ(basis().concrete, "own concrete");
    choose("steel", QStringLiteral("B550B"));
    EXPECT_EQ(basis().steelYield, 550);
    choose("surroundings", QStringLiteral("XC4"));
    EXPECT_EQ(basis().coverTop, 40);
    EXPECT_EQ(basis().coverBottom, 40);
    type("coverTop", "30");
    EXPECT_EQ(part<QComboBox>("surroundings")->currentText(), QStringLiteral("own covers"));
    type("creep", "2.5");
    EXPECT_EQ(basis().creep, 2.5);
    type("shrinkage", "0.5");
    EXPECT_NEAR(basis().shrinkage, 5e-4, 1e-15);
    type("crackTop", "0.2");
    EXPECT_EQ(basis().crackLimitTop, 0.2);
    type("mainBars", "H12, H16");
    EXPECT_EQ(basis().mainBars, (std::vector<std::string>{"H12", "H16"}));
    type("mainBars", "H13");
    EXPECT_EQ(basis().mainBars.size(), 2u);
    EXPECT_TRUE(part<QLabel>("notice")->text().contains(QStringLiteral("H13")));
    type("stockLength", "14");
    EXPECT_EQ(basis().stockLength, 14000);
    int steps = session().undoStack().count();
    EXPECT_EQ(steps, 10);
}

TEST_F(Tools, AnotherBarCatalogueTakesTheNearestSizes) {
    session().setPlace(Place::Basis);
    choose("barCatalog", QStringLiteral("us"));
    EXPECT_EQ(basis().barCatalog, "us");
    EXPECT_EQ(basis().mainBars.front(), "#3");
    for (const auto& run : slabDesign().bars) EXPECT_EQ(run.bar[0], '#');
    EXPECT_TRUE(model::validate(session().project()).empty());
    session().undoStack().undo();
    EXPECT_EQ(slabDesign().bars.front().bar, "H10");
    // What someone fixed goes along.
    session().select(Spot::In::Run, slabDesign().bars.front().id);
    bars().changeSpacing(-1);
    choose("barCatalog", QStringLiteral("us"));
    EXPECT_EQ(slab().bars.front().bar, "#3");
}

TEST_F(Tools, LayoutTableEditsSupports) {
    session().setPlace(Place::Layout);
    auto* table = part<QTableWidget>("supports");
    ASSERT_EQ(table->rowCount(), 6);
    table->item(1, 2)->setText(QStringLiteral("350"));
    EXPECT_EQ(slab().supports[1].width, 350);
    table->item(1, 2)->setText(QStringLiteral("wide"));
    EXPECT_EQ(slab().supports[1].width, 350);
    EXPECT_EQ(table->item(1, 2)->text(), QStringLiteral("350")) << "refused text does not stay";
    auto* kind = qobject_cast<QComboBox*>(table->cellWidget(2, 1));
    ASSERT_NE(kind, nullptr);
    kind->setCurrentIndex(1);
    emit kind->textActivated(kind->currentText());
    EXPECT_EQ(slab().supports[2].kind, model::Support::Kind::Wall);
    auto* joint = qobject_cast<QComboBox*>(table->cellWidget(2, 3));
    joint->setCurrentIndex(1);
    emit joint->textActivated(joint->currentText());
    EXPECT_FALSE(slab().supports[2].monolithic);
    type("slabName", "Upper gallery");
    EXPECT_EQ(slab().name, "Upper gallery");
    type("slabName", " ");
    EXPECT_EQ(slab().name, "Upper gallery");
    QTest::mouseClick(part<QCheckBox>("thicknessPinned"), Qt::LeftButton, Qt::NoModifier, QPoint(8, 8));
    EXPECT_TRUE(slab().thicknessPinned);
}

TEST_F(Tools, ActionsTableEditsLayers) {
    session().setPlace(Place::Actions);
    auto* table = part<QTableWidget>("finishes");
    ASSERT_EQ(table->rowCount(), 2);
    double before = session().slabDesign()->analysis.load.finishes;
    table->item(0, 1)->setText(QStringLiteral("80"));
    EXPECT_EQ(slab().finishes[0].thickness, 80);
    EXPECT_NEAR(slabDesign().analysis.load.finishes - before, 20 * 22e-6, 1e-12);
    table->item(0, 2)->setText(QStringLiteral("20"));
    EXPECT_NEAR(slab().finishes[0].density, 20e-6, 1e-15);
    auto* material = qobject_cast<QComboBox*>(table->cellWidget(1, 0));
    material->setCurrentText(QStringLiteral("Natural stone"));
    emit material->textActivated(QStringLiteral("Natural stone"));
    EXPECT_EQ(slab().finishes[1].material, "Natural stone");
    EXPECT_NEAR(slab().finishes[1].density, 27e-6, 1e-15);
    choose("imposedUse", QStringLiteral("B"));
    EXPECT_EQ(slab().imposed, 3e-3);
    type("otherDead", "0.8");
    EXPECT_NEAR(slab().otherDead, 0.8e-3, 1e-15);
    type("imposed", "-3");
    EXPECT_EQ(slab().imposed, 3e-3);
}

TEST_F(Tools, BarsTableAndButtons) {
    session().setPlace(Place::Bars);
    auto* table = part<QTableWidget>("runs");
    table->item(0, 2)->setText(QStringLiteral("150"));
    ASSERT_EQ(slab().bars.size(), 1u);
    EXPECT_EQ(slab().bars[0].spacing, 150);
    answer();
    EXPECT_TRUE(table->item(0, 0)->text().contains(QChar(0x2022)));
    table->item(0, 1)->setText(QStringLiteral("H99"));
    EXPECT_EQ(slab().bars[0].bar, "H10");
    table->item(0, 3)->setText(QStringLiteral("99"));
    EXPECT_LT(slab().bars[0].from, 0) << "a run cannot start beyond its end";
    session().select(Spot::In::Support, slab().supports[2].id);
    QTest::mouseClick(part<QPushButton>("addRun"), Qt::LeftButton);
    EXPECT_EQ(slab().bars.back().role, model::Role::TopMain);
    EXPECT_TRUE(session().selected(Spot::In::Run));
    const auto count = slab().bars.size();
    QTest::mouseClick(part<QPushButton>("giveBack"), Qt::LeftButton);
    EXPECT_EQ(slab().bars.size(), count - 1);
    QTest::mouseClick(part<QPushButton>("giveAllBack"), Qt::LeftButton);
    EXPECT_TRUE(slab().bars.empty());
    EXPECT_EQ(over(), 0);
}

TEST_F(Tools, IssueFieldsFillTheTitleBlock) {
    session().setPlace(Place::Issue);
    type("projectName", "Sundvarg, stage two");
    type("sheetNumber", "SFL-202");
    type("sheetRevision", "B");
    type("sheetDate", "2026-12-01");
    EXPECT_EQ(session().project().name, "Sundvarg, stage two");
    EXPECT_EQ(session().project().sheet.number, "SFL-202");
    EXPECT_EQ(session().project().sheet.revision, "B");
    type("projectName", "");
    EXPECT_EQ(session().project().name, "Sundvarg, stage two");
    window.askSavePath = [&](const QString&, const QString&, const QString&) {
        return folder.filePath(QStringLiteral("out"));
    };
    QTest::mouseClick(part<QPushButton>("export_schedule"), Qt::LeftButton);
    EXPECT_TRUE(part<QLabel>("notice")->text().contains(QStringLiteral("out-schedule.xlsx")));
    EXPECT_TRUE(QFile::exists(folder.filePath(QStringLiteral("out-schedule.csv"))));
}

TEST_F(Tools, MarginIsWalkedByKeyboard) {
    session().select(Spot::In::Span, slab().spans[1].id);
    auto& margin = window.margin();
    auto keys = margin.listed();
    ASSERT_GT(keys.size(), 6u);
    margin.setFocus();
    press(margin, Qt::Key_Down);
    press(margin, Qt::Key_Down);
    press(margin, Qt::Key_Return);
    EXPECT_TRUE(margin.isOpen(keys[1]) || margin.isOpen(keys[0]) || margin.isOpen(keys[2]));
    press(margin, Qt::Key_Escape);
    for (const auto& k : keys) EXPECT_FALSE(margin.isOpen(k));
    press(margin, Qt::Key_Escape);
    EXPECT_TRUE(session().selected(Spot::In::Whole));
    press(margin, Qt::Key_Escape);
    EXPECT_FALSE(session().selection());
    keys = margin.listed();
    EXPECT_TRUE(std::any_of(keys.begin(), keys.end(), [](const auto& k) {
        return k.find("omitted") != std::string::npos;
    })) << "the state of the project";
}

TEST_F(Tools, OpenedWorkingStaysOpenThroughAnEdit) {
    const std::string key = "s1/" + slab().spans[2].id + "/flexure-bottom";
    session().select(Spot::In::Whole);
    window.margin().open(key);
    press(window, Qt::Key_PageUp);
    answer();
    EXPECT_TRUE(window.margin().isOpen(key));
    auto keys = window.margin().listed();
    EXPECT_NE(std::find(keys.begin(), keys.end(), key), keys.end());
}

TEST_F(Tools, SeveralSlabsAreKeptApart) {
    press(window, Qt::Key_L, Qt::ControlModifier);
    ASSERT_EQ(session().project().slabs.size(), 2u);
    EXPECT_EQ(slab().name, "Slab 2");
    std::string first = formats::projectText(session().project());
    press(window, Qt::Key_PageUp);
    EXPECT_EQ(session().project().slabs[0]->thickness, 200);
    EXPECT_EQ(session().project().slabs[1]->thickness, 210);
    session().setElement("s1");
    EXPECT_EQ(slab().name, "Visitors' gallery");
    session().undoStack().undo();
    EXPECT_EQ(formats::projectText(session().project()), first);
}

// From the state of the project to a check of an element that is not in hand.
TEST_F(Tools, TheStateOfTheProjectLeadsToOtherElements) {
    press(window, Qt::Key_L, Qt::ControlModifier);
    answer();
    session().setPlace(Place::Checks);
    const model::Id second = session().element();
    ASSERT_NE(second, "s1");
    for (int i = 0; i < 8; ++i) press(window, Qt::Key_PageDown);
    ASSERT_GT(over(), 0);
    session().setElement("s1");
    answer();
    session().select(std::nullopt);
    auto& margin = window.margin();
    ASSERT_TRUE(QTest::qWaitFor([&] { return !margin.listed().empty() && over() > 0; }, 5000));
    const std::string first = margin.listed().front();
    EXPECT_EQ(first.rfind(second + "/", 0), 0u) << first;
    margin.setFocus();
    press(margin, Qt::Key_Return);
    press(margin, Qt::Key_Return);
    EXPECT_EQ(session().element(), second);
    EXPECT_TRUE(session().selected(Spot::In::Whole));
    EXPECT_TRUE(margin.isOpen(first));
}

TEST_F(Tools, RecentFilesAreListed) {
    QString path = folder.filePath(QStringLiteral("a.talvik"));
    ASSERT_TRUE(window.saveAs(path));
    QMenu* recent = nullptr;
    for (auto* menu : window.findChildren<QMenu*>())
        if (menu->title().contains(QStringLiteral("recent"))) recent = menu;
    ASSERT_NE(recent, nullptr);
    emit recent->aboutToShow();
    ASSERT_EQ(recent->actions().size(), 1);
    press(window, Qt::Key_PageUp);
    window.askUnsaved = [] { return MainWindow::Unsaved::Discard; };
    recent->actions().first()->trigger();
    EXPECT_EQ(slab().thickness, 200);
    EXPECT_EQ(session().path(), path);
}

TEST_F(Tools, StationLinksThePictures) {
    QPointF at = window.plan().spanCentre(1);
    point(window.plan(), at.toPoint());
    QMouseEvent move(QEvent::MouseMove, at, window.plan().mapToGlobal(at), Qt::NoButton, Qt::NoButton,
                     Qt::NoModifier);
    QApplication::sendEvent(&window.plan(), &move);
    EXPECT_NEAR(session().station(), model::spanStart(slab(), 1) + slab().spans[1].length / 2, 40);
    QEvent leave(QEvent::Leave);
    QApplication::sendEvent(&window.plan(), &leave);
    EXPECT_TRUE(std::isnan(session().station()));
}

TEST_F(Tools, PicturesAreSaved) {
    for (const char* name : {"plan.svg", "plan.png"}) {
        QString path = folder.filePath(QString::fromLatin1(name));
        EXPECT_TRUE(window.savePicture(window.plan(), path));
        EXPECT_GT(QFile(path).size(), 1000);
    }
    EXPECT_FALSE(window.savePicture(window.plan(), folder.filePath(QStringLiteral("plan.bmp"))));
    EXPECT_FALSE(window.savePicture(window.plan(), QStringLiteral("/nonexistent/plan.png")));
}
