// The start page and the guide: nothing is added that was not asked for, what is begun has the values of its
// standard, and F1 opens the page of what is in hand.
#include <QComboBox>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QTextBrowser>

#include "bench/bench_window.h"
#include "board/floor_desk.h"
#include "help/help_window.h"
#include "open_window.h"
#include "start/start_page.h"

namespace talvik::app {
namespace {

class Start : public OpenWindow {
  protected:
    void SetUp() override {
        OpenWindow::SetUp();
        window.startEmpty();
        QCoreApplication::processEvents();
    }
    StartPage& page() { return *window.findChild<StartPage*>(); }
    void begin(const char* name) {
        auto* button = page().findChild<QPushButton*>(QLatin1String(name));
        ASSERT_TRUE(button && button->isVisible()) << name;
        click(*button, button->rect().center());
    }
    const model::Project& project() { return session().project(); }
};

TEST_F(Start, ANewProjectHoldsNothingAndShowsWhatCanBeBegun) {
    EXPECT_TRUE(page().isVisible());
    EXPECT_TRUE(project().slabs.empty() && project().floors.empty() && project().bases.empty());
    EXPECT_FALSE(window.below().isVisible());
    EXPECT_FALSE(window.margin().isVisible());
    begin("startFloor");
    EXPECT_EQ(project().floors.size(), 1u);
    EXPECT_TRUE(project().slabs.empty() && project().bases.empty());
    EXPECT_FALSE(page().isVisible());
    EXPECT_TRUE(window.canvas().isVisible());
    EXPECT_EQ(session().place(), Place::Layout);
    session().undoStack().undo();
    QCoreApplication::processEvents();
    EXPECT_TRUE(page().isVisible()) << "undone, nothing is there again";
}

TEST_F(Start, EveryKindBeginsByItself) {
    begin("startSlab");
    EXPECT_EQ(project().slabs.size(), 1u);
    window.startEmpty();
    begin("startCaps");
    ASSERT_EQ(project().bases.size(), 1u);
    EXPECT_EQ(project().bases[0]->kind, model::BaseSet::Kind::Caps);
    window.startEmpty();
    begin("startPads");
    ASSERT_EQ(project().bases.size(), 1u);
    EXPECT_EQ(project().bases[0]->kind, model::BaseSet::Kind::Pads);
    window.startEmpty();
    begin("startBench");
    ASSERT_TRUE(window.bench());
    EXPECT_TRUE(window.bench()->isVisible());
    EXPECT_TRUE(project().slabs.empty());
}

TEST_F(Start, InchPoundWorkBeginsInInchPoundValues) {
    auto& standard = *page().findChild<QComboBox*>(QStringLiteral("startStandard"));
    const int us = standard.findData(QStringLiteral("aci318-us"));
    ASSERT_GE(us, 0);
    standard.setFocus();
    standard.setCurrentIndex(us);
    emit standard.activated(us);
    begin("startSlab");
    const auto& b = project().basis;
    EXPECT_EQ(b.units, units::System::UsCustomary);
    EXPECT_EQ(b.steel, "Grade 60");
    EXPECT_EQ(b.barCatalog, "us");
    EXPECT_NEAR(project().slabs[0]->thickness, 8 * 25.4, 1e-9);
    // Also what is drawn next on a floor; and it is remembered for the next new project, not carried into
    // others.
    window.startEmpty();
    begin("startFloor");
    EXPECT_NEAR(window.desk().next().columns[0].width, 16 * 25.4, 1e-9);
    auto& again = *page().findChild<QComboBox*>(QStringLiteral("startStandard"));
    emit again.activated(again.findData(QStringLiteral("aci318-us")));
    window.openFloorDemo();
    answer();
    EXPECT_EQ(window.desk().next().columns[0].width, 400);
    QSettings().remove(QStringLiteral("standard"));
}

TEST_F(Start, TheGuideOpensAtWhatIsInHandAndIsSearched) {
    for (const auto& name : HelpWindow::pages())
        EXPECT_TRUE(QFile::exists(QStringLiteral(":/guide/%1.md").arg(name))) << name.toStdString();
    begin("startFloor");
    press(window.canvas(), Qt::Key_F1);
    auto* help = window.help();
    ASSERT_TRUE(help && help->isVisible());
    EXPECT_EQ(help->page(), QLatin1String("layout"));
    session().setPlace(Place::Strips);
    press(window.canvas(), Qt::Key_F1);
    EXPECT_EQ(help->page(), QLatin1String("strips"));
    // Links lead to pages that are there.
    for (const auto& name : HelpWindow::pages()) {
        QFile file(QStringLiteral(":/guide/%1.md").arg(name));
        ASSERT_TRUE(file.open(QIODevice::ReadOnly));
        const QString text = QString::fromUtf8(file.readAll());
        static const QRegularExpression link(QStringLiteral("\\]\\(([a-z]+)\\.md\\)"));
        for (auto i = link.globalMatch(text); i.hasNext();)
            EXPECT_TRUE(HelpWindow::pages().contains(i.next().captured(1))) << name.toStdString();
    }
    auto* search = help->findChild<QLineEdit*>();
    auto* list = help->findChild<QListWidget*>();
    const int all = list->count();
    QTest::keyClicks(search, QStringLiteral("precamber"));
    EXPECT_LT(list->count(), all);
    EXPECT_GE(list->count(), 1);
    EXPECT_TRUE(help->findChild<QTextBrowser*>()->toPlainText().contains(QLatin1String("precamber"),
                                                                         Qt::CaseInsensitive));
    search->clear();
    EXPECT_EQ(list->count(), all);
    help->close();
}

}  // namespace
}  // namespace talvik::app
