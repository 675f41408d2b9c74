// Places 4 to 6 of a floor: strips by keyboard and mouse, the long section, the margin, undo; and the panel
// bench.
#include <gtest/gtest.h>

#include <QCheckBox>
#include <QComboBox>
#include <QFile>
#include <QLineEdit>
#include <QMenu>
#include <QTemporaryDir>
#include <QTest>
#include <QTextBrowser>
#include <QToolButton>
#include <cmath>

#include "bench/bench_window.h"
#include "open_window.h"
#include "support/cases.h"
#include "support/regular_floor.h"
#include "widgets/inline_edit.h"
#include "window/place_bar.h"

using namespace talvik;
using namespace talvik::app;

namespace {

class Strips : public OpenWindow {
  protected:
    void SetUp() override {
        OpenWindow::SetUp();
        window.openFloorDemo();
        answer();
        session().setPlace(Place::Strips);
        QApplication::setActiveWindow(&window);
        canvas().setFocus();
        QCoreApplication::processEvents();
        canvas().fit();
    }
    StripDesk& desk() { return window.strips(); }
    LineSection& section() { return window.section(); }
    void key(QWidget& w, Qt::Key k, Qt::KeyboardModifiers m = Qt::NoModifier) { QTest::keyClick(&w, k, m); }
    void select(const char* name) {
        for (const auto& s : desk().layout()->strips)
            if (s.name == name) {
                desk().select(s.key);
                QCoreApplication::processEvents();  // the long section takes its room from the plan
                return;
            }
        FAIL() << "there is no strip " << name;
    }
};

}  // namespace

TEST_F(Strips, AreWalkedByKeyboardAndOpenTheirChecks) {
    EXPECT_TRUE(section().isVisible()) << "its place is kept: a click on the plan moves nothing";
    const QRect before = canvas().geometry();
    EXPECT_TRUE(window.margin().isVisible());
    EXPECT_FALSE(desk().strip());
    EXPECT_FALSE(window.margin().listed().empty()) << "with nothing selected: the state of the floor";
    key(canvas(), Qt::Key_Up);
    ASSERT_TRUE(desk().strip());
    EXPECT_EQ(desk().strip()->name, "XA");
    QCoreApplication::processEvents();
    EXPECT_EQ(canvas().geometry(), before);
    key(canvas(), Qt::Key_Up);
    key(canvas(), Qt::Key_Up);
    EXPECT_EQ(desk().strip()->name, "XB");
    for (const auto& k : window.margin().listed()) EXPECT_NE(k.find(desk().strip()->key), std::string::npos);
    key(canvas(), Qt::Key_Right);
    EXPECT_TRUE(session().selected(Spot::In::Support));
    key(canvas(), Qt::Key_Right);
    EXPECT_TRUE(session().selected(Spot::In::Span));
    EXPECT_TRUE(std::isfinite(session().station()));
    key(canvas(), Qt::Key_Return);
    ASSERT_FALSE(window.margin().listed().empty());
    EXPECT_TRUE(window.margin().isOpen(window.margin().listed().front()));
    canvas().setFocus();
    key(canvas(), Qt::Key_Escape);
    EXPECT_TRUE(session().selected(Spot::In::Whole));
    key(canvas(), Qt::Key_Escape);
    EXPECT_FALSE(session().selection());
    key(canvas(), Qt::Key_Y);
    key(canvas(), Qt::Key_Down);
    ASSERT_TRUE(desk().strip());
    EXPECT_EQ(desk().strip()->direction, 1);
}

TEST_F(Strips, EdgesBarsAndEndConditionsAreChangedAndAllIsUndone) {
    const auto start = session().project();
    select("XB");
    const double width = desk().strip()->area();
    auto edges = strips::edgesOf(*desk().layout(), *desk().strip());
    ASSERT_EQ(edges.size(), 2u);
    // Drag the edge on the left of the strip further out.
    const auto& e = edges[1];
    geometry::Point mid = e.handle;
    drag(canvas(), canvas().pixel(mid), canvas().pixel({mid.x, mid.y + 600}));
    answer();
    EXPECT_GT(desk().strip()->area(), width * 1.1);
    EXPECT_TRUE(desk().strip()->changed);
    EXPECT_EQ(session().undoStack().count(), 1) << "one drag is one step";
    for (const auto& c : desk().layout()->coverage) EXPECT_EQ(c.uncovered + c.overlapped, 0);
    // Bars: a wider spacing, then a moved end, in the long section.
    section().setFocus();
    key(section(), Qt::Key_Down);
    ASSERT_TRUE(bars().run());
    const double spacing = bars().run()->spacing;
    key(section(), Qt::Key_Plus);
    answer();
    ASSERT_TRUE(bars().run());
    EXPECT_TRUE(bars().run()->fixed);
    EXPECT_GT(bars().run()->spacing, spacing);
    const std::string id = bars().run()->id;
    const double end = bars().run()->to;
    drag(section(), section().handle(id, true), section().handle(id, true) - QPointF(60, 0));
    answer();
    ASSERT_TRUE(bars().run());
    EXPECT_LT(bars().run()->to, end - 200);
    // An end condition, by the menu beside the support.
    QTest::mouseClick(&section(), Qt::LeftButton, {}, section().endWord(0, -1).center().toPoint());
    auto* menu = window.findChild<QMenu*>(QStringLiteral("endMenu"));
    ASSERT_TRUE(menu);
    for (auto* action : menu->actions())
        if (action->text() == QLatin1String("continuous")) action->trigger();
    menu->close();
    answer();
    EXPECT_TRUE(desk().strip()->spans[0].overruled[0]);
    bool said = false;
    for (const auto& c : desk().stripDesign()->checks)
        for (const auto& n : c.notes) said |= n.find("user override") != std::string::npos;
    EXPECT_TRUE(said) << "what was overruled says so";
    while (session().undoStack().canUndo()) session().undoStack().undo();
    answer();
    EXPECT_TRUE(session().project() == start);
    EXPECT_NEAR(desk().strip()->area(), width, 1);
}

TEST_F(Strips, BarsAreDividedAndAddedInTheLongSection) {
    const auto start = session().project();
    QString said;
    QObject::connect(&bars(), &BarDesk::said, [&](const QString& sentence) { said = sentence; });
    select("XB");
    section().setFocus();
    key(section(), Qt::Key_A);
    EXPECT_TRUE(said.contains("Select the span or the support")) << said.toStdString();
    const auto* d = desk().stripDesign();
    const std::size_t runs = d->runs.size();
    const bars::Run* longest = &d->runs.front();
    for (const auto& r : d->runs)
        if (!r.top() && r.to - r.from > longest->to - longest->from) longest = &r;
    const double u = longest->from + 0.4 * (longest->to - longest->from), end = longest->to;
    session().select(Spot::In::Run, longest->id);
    session().setStation(longest->from + 50);
    key(section(), Qt::Key_S);
    EXPECT_TRUE(said.contains("lap")) << said.toStdString();
    EXPECT_EQ(session().project(), start) << "refused, and nothing changed";
    session().setStation(u);
    key(section(), Qt::Key_S);
    answer();
    ASSERT_TRUE(bars().run()) << "the second part is in hand";
    EXPECT_EQ(bars().run()->to, end);
    EXPECT_LT(bars().run()->from, u);
    EXPECT_EQ(desk().stripDesign()->runs.size(), runs + 1);
    // More bars over the first support that has top bars.
    const auto& support = desk().strip()->supports[1];
    session().select(Spot::In::Support, support.id);
    QCoreApplication::processEvents();
    key(section(), Qt::Key_A);
    answer();
    ASSERT_TRUE(bars().run());
    EXPECT_TRUE(bars().run()->top() && bars().run()->fixed);
    EXPECT_LT(bars().run()->from, support.u);
    EXPECT_GT(bars().run()->to, support.u);
    EXPECT_EQ(desk().stripDesign()->runs.size(), runs + 2);
    EXPECT_EQ(session().undoStack().count(), 2);
    while (session().undoStack().canUndo()) session().undoStack().undo();
    EXPECT_EQ(session().project(), start);
}

TEST_F(Strips, AreSplitMergedTurnedDrawnAndGivenBack) {
    select("XA-B");
    const auto count = desk().layout()->strips.size();
    key(canvas(), Qt::Key_S);
    EXPECT_EQ(desk().tool(), StripTool::Split);
    auto a = desk().strip()->axis.front(), b = desk().strip()->axis.back();
    geometry::Point third{a.x + (b.x - a.x) / 3, a.y};
    QTest::mouseClick(&canvas(), Qt::LeftButton, {}, canvas().pixel(third).toPoint());
    answer();
    EXPECT_EQ(desk().layout()->strips.size(), count + 1);
    ASSERT_EQ(session().floor()->strips.drawn.size(), 2u);
    desk().select(session().floor()->strips.drawn[0].id);
    QCoreApplication::processEvents();
    key(canvas(), Qt::Key_M);
    auto p = session().floor()->strips.drawn[1].outline;
    geometry::Point in{(p[0].x + p[2].x) / 2, (p[0].y + p[2].y) / 2};
    QTest::mouseClick(&canvas(), Qt::LeftButton, {}, canvas().pixel(in).toPoint());
    answer();
    ASSERT_EQ(session().floor()->strips.drawn.size(), 1u);
    desk().select(session().floor()->strips.drawn[0].id);
    QCoreApplication::processEvents();
    key(canvas(), Qt::Key_T);
    auto* edit = canvas().findChild<InlineEdit*>();
    ASSERT_TRUE(edit);
    edit->setText(QStringLiteral("15"));
    QTest::keyClick(edit, Qt::Key_Return);
    answer();
    EXPECT_EQ(session().floor()->strips.drawn[0].angle, 15);
    ASSERT_TRUE(desk().stripDesign());
    EXPECT_FALSE(desk().stripDesign()->checks.empty()) << "bars askew are designed too";
    key(canvas(), Qt::Key_R);
    answer();
    QCoreApplication::processEvents();
    EXPECT_TRUE(session().floor()->strips.drawn.empty());
    EXPECT_EQ(desk().layout()->strips.size(), count);
    // Drawn by hand: four corners and Enter.
    key(canvas(), Qt::Key_D);
    for (geometry::Point q : {geometry::Point{8000, 1000}, {14000, 1000}, {14000, 5000}, {8000, 5000}})
        QTest::mouseClick(&canvas(), Qt::LeftButton, {}, canvas().pixel(q).toPoint());
    key(canvas(), Qt::Key_Return);
    answer();
    ASSERT_EQ(session().floor()->strips.drawn.size(), 1u);
    EXPECT_NEAR(desk().strip()->area(), 24e6, 1.5e6);
    for (const auto& c : desk().layout()->coverage) EXPECT_EQ(c.uncovered + c.overlapped, 0);
}

TEST_F(Strips, AnAreaHasDirectionsOfItsOwnUntilGivenBack) {
    const auto count = desk().layout()->strips.size();
    key(canvas(), Qt::Key_A);
    for (geometry::Point q : {geometry::Point{15000, 500}, {28500, 500}, {28500, 6000}, {15000, 6000}})
        QTest::mouseClick(&canvas(), Qt::LeftButton, {}, canvas().pixel(q).toPoint());
    key(canvas(), Qt::Key_Return);
    ASSERT_EQ(session().floor()->strips.areas.size(), 1u);
    auto* edit = canvas().findChild<InlineEdit*>();
    ASSERT_TRUE(edit);
    edit->setText(QStringLiteral("30 110"));
    QTest::keyClick(edit, Qt::Key_Return);
    answer();
    ASSERT_TRUE(desk().strip());
    EXPECT_EQ(desk().strip()->axes.angle, 30);
    EXPECT_EQ(desk().strip()->otherAngle, 110);
    ASSERT_TRUE(desk().stripDesign());
    bool skew = false;
    for (const auto& c : desk().stripDesign()->checks)
        for (const auto& n : c.notes) skew |= n.find("80 degrees to those that cross") != std::string::npos;
    EXPECT_TRUE(skew) << "the method for bars askew is named";
    for (const auto& c : desk().layout()->coverage) EXPECT_EQ(c.uncovered + c.overlapped, 0);
    canvas().setFocus();
    key(canvas(), Qt::Key_R);
    answer();
    EXPECT_EQ(desk().layout()->strips.size(), count);
}

TEST_F(Strips, AGapIsCountedShadedAndListed) {
    EXPECT_EQ(PlaceBar::open(session(), Place::Strips), 0);
    desk().setRules(QStringLiteral("only by hand"), [](model::StripChoices& r) { r.automatic[1] = false; });
    answer();
    EXPECT_GT(PlaceBar::open(session(), Place::Strips), 0);
    session().select(std::nullopt);
    bool listed = false;
    for (const auto& k : window.margin().listed()) listed |= k.find("uncovered-2") != std::string::npos;
    EXPECT_TRUE(listed);
}

TEST_F(Strips, ContoursShowMomentsAndRequiredSteel) {
    session().setPlace(Place::Checks);
    fields().setCurrentIndex(fields().findData(103));
    EXPECT_GT(canvas().lineCount(), 3);
    EXPECT_GT(canvas().valueAt({7200, 6000}), 0);
    session().setPlace(Place::Strips);
    EXPECT_EQ(canvas().lineCount(), 0) << "strips come without lines";
    session().setPlace(Place::Checks);
    EXPECT_EQ(fields().currentData().toInt(), 103) << "what was chosen in a place stays with it";
}

TEST_F(Strips, ACheckOfTheFloorsStateLeadsToItsStrip) {
    ASSERT_TRUE(session().apply(
        "Heavy", model::editFloor(session().base(), "f1", [](model::Floor& f, model::Project&) {
            for (auto& l : f.actions.loads) l.value *= 6;
        })));
    answer();
    session().setPlace(Place::Checks);
    session().select(std::nullopt);
    std::string about;
    for (const auto& k : window.margin().listed())
        if (const auto* c = session().floorDesign()->check(k);
            c && c->place.spot.part.kind == model::PartKind::Strip && about.empty())
            about = k;
    ASSERT_FALSE(about.empty()) << "nothing of a strip is listed";
    ASSERT_EQ(session().floorDesign()->check(about)->outcome, checks::Outcome::Over);
    auto strip = session().floorDesign()->check(about)->place.spot.part.key;
    ASSERT_EQ(window.margin().listed().front(), about) << "what is over comes first";
    window.margin().setFocus();
    key(window.margin(), Qt::Key_Return);  // takes the first in hand
    key(window.margin(), Qt::Key_Return);
    EXPECT_EQ(session().selection()->part.key, strip);
    EXPECT_TRUE(desk().strip());
}

TEST_F(Strips, WhatWouldMakeAFloorPassIsFoundTakenAndTakenBack) {
    // On columns so wide that punching decides nothing.
    session().start(model::editFloor(test::regularFloor(3, 3, 6000, 6000, 190, 400), "f1",
                                     [](model::Floor& f, model::Project&) {
                                         for (auto& c : f.columns) c.width = c.depth = 900;
                                     }),
                    {});
    answer();
    session().setPlace(Place::Checks);
    // They are listed as they are found, and in their order at the end.
    ASSERT_TRUE(QTest::qWaitFor([&] { return session().sought(); }, test::patience(30000)));
    ASSERT_FALSE(session().remedies().empty());
    session().select(std::nullopt);
    QCoreApplication::processEvents();
    const QRect box = window.margin().remedyRect(0);
    ASSERT_TRUE(box.isValid()) << "listed with the state of the floor";
    const auto before = session().floor()->slabs[0].thickness;
    adoptRemedy(0);
    EXPECT_GT(session().floor()->slabs[0].thickness, before);
    EXPECT_TRUE(session().remedies().empty()) << "those of the floor before do not stay";
    ASSERT_TRUE(QTest::qWaitFor(
        [&] { return !session().stale() && session().floorDesign() && session().floorDesign()->proof; },
        20000));
    EXPECT_EQ(session().floorDesign()->summary.over, 0);
    session().undoStack().undo();
    EXPECT_EQ(session().floor()->slabs[0].thickness, before);
    // A load lowered while the floor fails is kept as such.
    answer();
    ASSERT_GT(session().floorDesign()->summary.over, 0);
    ASSERT_TRUE(session().apply(
        "Load", model::editFloor(session().base(), "f1", [](model::Floor& f, model::Project&) {
            for (auto& l : f.actions.loads) l.value *= 0.9;
        })));
    bool kept = false;
    for (const auto& [key, source] : session().project().sources)
        for (const auto& change : source.history) kept |= change.afterFailure;
    EXPECT_TRUE(kept);
}

TEST_F(Strips, ThePanelBenchAnswersAsValuesAreTyped) {
    window.showBench();
    auto* bench = window.bench();
    ASSERT_TRUE(bench);
    QCoreApplication::processEvents();
    ASSERT_FALSE(bench->answer().rows.empty());
    double before = bench->answer().rows.front().moment;
    auto* lx = bench->findChild<QLineEdit*>(QStringLiteral("lx"));
    ASSERT_TRUE(lx);
    lx->selectAll();
    QTest::keyClicks(lx, QStringLiteral("5.5"));
    EXPECT_GT(bench->answer().rows.front().moment, before);
    bench->findChild<QCheckBox*>(QStringLiteral("edge0"))->setChecked(false);
    EXPECT_NE(bench->answer().source.find("discontinuous"), std::string::npos);
    QString page = bench->findChild<QTextBrowser*>()->toPlainText();
    for (const char* part : {"Two-way panel", "span, shorter way", "Span/depth ratio", "left out here"})
        EXPECT_TRUE(page.contains(QString::fromUtf8(part))) << part;
    for (const char* name : {"/p.html", "/p.pdf"}) {
        EXPECT_TRUE(bench->save(folder.path() + name).isEmpty());
        EXPECT_GT(QFile(folder.path() + name).size(), 1500);
    }
    QFile pdf(folder.path() + "/p.pdf");
    ASSERT_TRUE(pdf.open(QIODevice::ReadOnly));
    QByteArray bytes = pdf.readAll();
    EXPECT_EQ(bytes.count("/Type /Page\n") + bytes.count("/Type /Page "), 1) << "one page";
    for (auto* box : bench->findChildren<QCheckBox*>())
        if (box->text().contains(QLatin1String("every check"))) box->setChecked(true);
    page = bench->findChild<QTextBrowser*>()->toPlainText();
    for (const char* part :
         {"Flexure bottom", "Minimum reinforcement", "Crack control", "Neutral axis depth x/d"})
        EXPECT_TRUE(page.contains(QString::fromUtf8(part))) << part;
    auto input = bench->input();
    input.thickness = 40;
    bench->setInput(input);
    EXPECT_FALSE(bench->answer().trouble.empty());
    EXPECT_FALSE(bench->save(folder.path() + "/q.pdf").isEmpty()) << "no page without an answer";
    for (auto kind : {opinions::BenchInput::Kind::Section, opinions::BenchInput::Kind::OneWay}) {
        input = {};
        input.kind = kind;
        bench->setInput(input);
        EXPECT_TRUE(bench->answer().trouble.empty());
        EXPECT_FALSE(bench->answer().checks.empty());
    }
}
