// The page of a floor: analysed in the background, shown as lines of equal value, never blocking.
#include <gtest/gtest.h>

#include <QComboBox>
#include <QFile>
#include <QLabel>
#include <QPushButton>
#include <QSignalSpy>
#include <QTemporaryDir>
#include <QTest>
#include <QToolButton>
#include <cmath>

#include "formats/project_file.h"
#include "issue/sheet_preview.h"
#include "margin/margin_view.h"
#include "model/edits.h"
#include "open_window.h"

using namespace talvik;
using namespace talvik::app;

namespace {

class FloorWindow : public OpenWindow {
  protected:
    void SetUp() override {
        OpenWindow::SetUp();
        window.openFloorDemo();
        answer();
    }
    model::Project moved(double dx) {
        return model::editFloor(session().base(), "f1",
                                [&](model::Floor& f, model::Project&) { f.columns[6].x += dx; });
    }
};

}  // namespace

TEST_F(FloorWindow, ShowsBalanceExtremesAndLines) {
    EXPECT_TRUE(canvas().isVisible());
    EXPECT_TRUE(window.margin().isVisible());
    QString text = analysisText();
    for (const char* part :
         {"Fish hall deck", "unknowns; smallest angle", "Loads and reactions", "Ice store",
          "below 1e-9 of the loads", "Support forces", "Cross-check, ", "Assumptions"})
        EXPECT_TRUE(text.contains(QString::fromUtf8(part))) << part << text.toStdString();
    EXPECT_GT(canvas().lineCount(), 6);
    // The value on the canvas is the envelope's.
    const auto* a = session().floorAnalysis();
    double most = -1e300;
    for (std::size_t k = 0; k < a->combinations.size(); ++k)
        if (a->combinations[k].state == actions::LimitState::Ultimate)
            most = std::max(most, analysis::valuesAt(*a, k, {18300, 10000}).mx);
    EXPECT_NEAR(canvas().valueAt({18300, 10000}), most, 0.03 * std::abs(most));
    EXPECT_TRUE(std::isnan(canvas().valueAt({-500, 0}))) << "outside";
    EXPECT_TRUE(std::isnan(canvas().valueAt({11000, 9000}))) << "in the opening";
}

// Analysed, and not designed: every place says so or goes without, and the figures of the analysis stand.
TEST_F(FloorWindow, ASlabTooThinForItsBarsIsSaidAndComesBack) {
    session().apply(QStringLiteral("thin"), model::editFloor(session().base(), "f1", [](auto& f, auto&) {
                        f.slabs[0].thickness = 60, f.choices.meshSize = 700;
                    }));
    answer();
    auto* status = window.findChild<QLabel*>(QStringLiteral("status"));
    ASSERT_TRUE(status);
    const QString why = QString::fromStdString(session().answer()->error);
    EXPECT_TRUE(why.contains(QLatin1String("60 mm thick, leaves no room"))) << why.toStdString();
    for (int place = int(Place::Basis); place <= int(Place::Issue); ++place) {
        session().setPlace(Place(place));
        QCoreApplication::processEvents();
        EXPECT_EQ(status->text().toStdString(), why.toStdString()) << place;
        window.grab();
        for (int f = 0; canvas().isVisible() && f < fields().count(); ++f) {
            fields().setCurrentIndex(f);
            for (double x = -1000; x < 26000; x += 4600) click(canvas(), canvas().pixel({x, 5300}).toPoint());
            window.grab();
        }
    }
    EXPECT_TRUE(analysisText().contains(QLatin1String("Loads and reactions")));
    EXPECT_FALSE(session().floorDesign());
    session().undoStack().undo();
    answer();
    EXPECT_TRUE(session().floorDesign());
}

TEST_F(FloorWindow, ThePointerReadsEveryFieldInEveryPlace) {
    QLabel* coordinates = window.findChild<QLabel*>(QStringLiteral("coordinates"));
    ASSERT_TRUE(coordinates);
    ASSERT_TRUE(
        QTest::qWaitFor([&] { return session().floorDesign() && session().floorDesign()->proof; }, 60000));
    for (int place = int(Place::Layout); place <= int(Place::Bars); ++place) {
        session().setPlace(Place(place));
        QCoreApplication::processEvents();
        for (int f = 0; f < fields().count(); ++f) {
            fields().setCurrentIndex(f);
            for (double x = -1000; x < 26000; x += 2300) point(canvas(), canvas().pixel({x, 5300}).toPoint());
            QCoreApplication::processEvents();
            point(canvas(), canvas().pixel({3600, 9400}).toPoint());
            QCoreApplication::processEvents();
            const int shown = fields().currentData().toInt();
            const bool drawing = place <= int(Place::Actions);
            const QString value = canvas().valueText({3600, 9400});
            EXPECT_EQ(value.isEmpty(), shown < 0) << place << " " << shown;
            if (drawing || shown < 0) continue;
            // The same words in the bottom line; the pointer stands on a pixel, not on the very place.
            const auto words = value.split(QLatin1Char(' '));
            EXPECT_TRUE(shown >= 200 || coordinates->text().contains(words.first()))
                << coordinates->text().toStdString();
            if (shown < 200) {
                EXPECT_TRUE(coordinates->text().endsWith(words.last()))
                    << coordinates->text().toStdString() << " for " << value.toStdString();
            }
            // Steel of all four kinds with its unit, and between nothing and what any slab has.
            if (shown < 100 || shown >= 200) continue;
            EXPECT_TRUE(coordinates->text().contains(QStringLiteral("steel")))
                << coordinates->text().toStdString();
            EXPECT_TRUE(coordinates->text().endsWith(QStringLiteral("mm²/m")))
                << coordinates->text().toStdString();
            EXPECT_GE(canvas().valueAt({3600, 9400}), 0);
            EXPECT_LT(canvas().valueAt({3600, 9400}), 10);
        }
    }
}

TEST_F(FloorWindow, AProjectWithAnUnknownStandardOpensAndSaysSo) {
    auto p = formats::demoFloorProject();
    p.basis.standard = "none";
    QTemporaryDir dir;
    auto file = dir.filePath(QStringLiteral("unknown.talvik"));
    ASSERT_TRUE(formats::saveProject(file.toStdString(), p).empty());
    window.openFile(file);
    answer();
    ASSERT_TRUE(session().floorAnalysis());
    ASSERT_FALSE(session().floorAnalysis()->good());
    EXPECT_TRUE(analysisText().contains(QStringLiteral("no standard \"none\"")))
        << analysisText().toStdString();
    for (int place = int(Place::Basis); place <= int(Place::Issue); ++place) {
        session().setPlace(Place(place));
        QCoreApplication::processEvents();
    }
}

TEST_F(FloorWindow, ChoosesFieldsAndCombinations) {
    for (int f = 0; f < analysis::fieldCount - 1; ++f) {
        fields().setCurrentIndex(f);
        EXPECT_GT(canvas().lineCount(), 3) << f;
    }
    fields().setCurrentIndex(0);
    int before = window.tray().combinations().count();
    EXPECT_EQ(before, int(session().floorAnalysis()->combinations.size()) + 2);
    double envelope = canvas().valueAt({3600, 9400});
    window.tray().combinations().setCurrentIndex(before - 1);
    emit window.tray().combinations().activated(before - 1);
    EXPECT_NE(canvas().valueAt({3600, 9400}), envelope);
    fields().setCurrentIndex(6);
    EXPECT_EQ(canvas().lineCount(), 0) << "no ground, no pressure";
}

TEST_F(FloorWindow, AnEditIsAnsweredInTheBackgroundAndUndone) {
    double before = canvas().valueAt({10800, 3000});
    ASSERT_TRUE(session().apply("Move column", moved(600)));
    EXPECT_TRUE(session().stale()) << "the old answer is marked at once";
    answer();
    EXPECT_NE(canvas().valueAt({10800, 3000}), before);
    session().undoStack().undo();
    answer();
    EXPECT_EQ(canvas().valueAt({10800, 3000}), before);
    // Many edits one after the other: the last one counts.
    for (int i = 1; i <= 20; ++i) session().apply("Move column", moved(10), "drag");
    answer();
    EXPECT_NEAR(session().floorAnalysis()->model->supports[6].at.x, session().floor()->columns[6].x, 1e-9);
}

TEST_F(FloorWindow, AnAnswerToAnOlderEditIsNotTakenForTheNewest) {
    ASSERT_TRUE(session().apply("Move column", moved(300)));
    QThread::msleep(1500);  // answered by now, and waiting to be handed over
    ASSERT_TRUE(session().apply("Move column", moved(300)));
    QCoreApplication::processEvents();
    EXPECT_TRUE(session().stale() ||
                session().floorAnalysis()->model->supports[6].at.x == session().floor()->columns[6].x);
    answer();
    EXPECT_EQ(session().floorAnalysis()->model->supports[6].at.x, session().floor()->columns[6].x);
}

TEST_F(FloorWindow, StopLeavesTheAnswerStaleAndTheNextEditAnswers) {
    auto fine = model::editFloor(session().base(), "f1",
                                 [](model::Floor& f, model::Project&) { f.choices.meshSize = 60; });
    ASSERT_TRUE(session().apply("Finer", fine));
    QTest::qWait(60);
    session().stopAnswers();
    QTest::qWait(100);
    EXPECT_TRUE(session().stale());
    EXPECT_TRUE(analysisText().contains("older than the drawing") || !analysisText().isEmpty());
    session().undoStack().undo();
    answer();
    EXPECT_LT(session().floorAnalysis()->unknowns, 7000);
}

// What was stopped is asked for anew where a report needs it.
TEST_F(FloorWindow, AReportIsWrittenAlsoAfterAStop) {
    ASSERT_TRUE(session().apply("Move", moved(200)));
    session().stopAnswers();
    EXPECT_TRUE(session().stale());
    QTemporaryDir dir;
    EXPECT_EQ(window.exportFiles("report", dir.path() + "/deck").size(), 3);
    EXPECT_FALSE(session().stale());
}

TEST_F(FloorWindow, ConvergenceIsTold) {
    analysisText();
    auto* button = part<QPushButton>("convergence");
    ASSERT_TRUE(button->isEnabled());
    QTest::mouseClick(button, Qt::LeftButton);
    ASSERT_TRUE(
        QTest::qWaitFor([&] { return analysisText().contains("On a mesh of half the size"); }, 30000));
    EXPECT_TRUE(analysisText().contains("largest column reaction"));
}

TEST_F(FloorWindow, WritesAllThatLeavesTheOffice) {
    QTemporaryDir dir;
    auto written = window.exportFiles("issue", dir.path() + "/deck");
    // Five sheets as DXF and SVG, one PDF of all; schedule twice and as data for bending; model, results,
    // quantities, cutting list, what is open; report three times.
    ASSERT_EQ(written.size(), 5 + 5 + 1 + 3 + 5 + 3);
    QFile html(dir.path() + "/deck/report.html");
    ASSERT_TRUE(html.open(QIODevice::ReadOnly));
    QString text = QString::fromUtf8(html.readAll());
    for (const char* part : {"Fish hall deck", "Loads and reactions", "Ultimate extremes", "Support forces",
                             "On a mesh of half the size", "Assumptions", "Cross-check"})
        EXPECT_TRUE(text.contains(QString::fromUtf8(part))) << part;
    EXPECT_EQ(window.exportFiles("drawing", dir.path() + "/one").size(), 11);
    EXPECT_EQ(window.exportFiles("schedule", dir.path() + "/one").size(), 6);
}

// Place 7 shows the sheets of a floor; keys and the arrows at its top turn them.
TEST_F(FloorWindow, ItsSheetsAreTurned) {
    answer();
    session().setPlace(Place::Issue);
    QCoreApplication::processEvents();
    auto* sheet = part<SheetPreview>("sheetPreview");
    ASSERT_TRUE(sheet->isVisible());
    ASSERT_EQ(sheet->count(), 5u);
    EXPECT_EQ(sheet->current(), 0u);
    QTest::keyClick(sheet, Qt::Key_Right);
    EXPECT_EQ(sheet->current(), 1u);
    QTest::mouseClick(part<QToolButton>("sheetNext"), Qt::LeftButton);
    EXPECT_TRUE(part<QLabel>("sheetTitle")->text().contains(QStringLiteral("long sections")));
    for (int k = 0; k < 5; ++k) QTest::keyClick(sheet, Qt::Key_Right);
    EXPECT_EQ(sheet->current(), 4u);
    EXPECT_FALSE(part<QToolButton>("sheetNext")->isEnabled());
    for (int k = 0; k < 5; ++k) QTest::keyClick(sheet, Qt::Key_Left);
    EXPECT_EQ(sheet->current(), 0u);
    session().setPlace(Place::Checks);
    EXPECT_FALSE(sheet->isVisible());
}

TEST_F(FloorWindow, FollowsTheProjectsUnits) {
    auto us = session().base();
    us.basis.units = units::System::UsCustomary;
    ASSERT_TRUE(session().apply("Units", us));
    answer();
    ASSERT_TRUE(session().unit(units::Kind::MomentPerWidth).contains("kip"));
    EXPECT_TRUE(analysisText().contains("results were kept")) << "display does not ask for a new analysis";
    EXPECT_TRUE(analysisText().contains(session().unit(units::Kind::MomentPerWidth)))
        << analysisText().toStdString();
    EXPECT_FALSE(analysisText().contains("kNm/m"));
    EXPECT_GT(canvas().lineCount(), 6);
}

TEST_F(FloorWindow, TroubleIsASentence) {
    auto bare =
        model::editFloor(session().base(), "f1", [](model::Floor& f, model::Project&) { f.columns.clear(); });
    ASSERT_TRUE(session().apply("Remove columns", bare));
    answer();
    EXPECT_TRUE(analysisText().contains("Slab S1 has no support near")) << analysisText().toStdString();
    EXPECT_EQ(canvas().lineCount(), 0);
}

TEST_F(FloorWindow, KeysMoveAndFitThePlan) {
    auto& plan = canvas();
    window.activateWindow();
    QApplication::setActiveWindow(&window);
    plan.setFocus();
    QSignalSpy spy(&plan, &FloorCanvas::pointerMoved);
    auto at = [&](QPoint p) {
        point(plan, p + QPoint(1, 0));
        point(plan, p);
        QTest::qWait(20);
        return spy.isEmpty() ? QPointF() : QPointF(spy.last()[0].toDouble(), spy.last()[1].toDouble());
    };
    session().setPlace(Place::Actions);  // where arrows do not walk strips
    QCoreApplication::processEvents();
    plan.fit();
    plan.setFocus();
    QPointF before = at({300, 300});
    QTest::keyClick(&plan, Qt::Key_Right);
    QPointF after = at({300, 300});
    EXPECT_NE(before.x(), after.x());
    QTest::keyClick(&plan, Qt::Key_F);
    EXPECT_NEAR(at({300, 300}).x(), before.x(), 1);
    plan.showMesh(true);
    EXPECT_FALSE(plan.grab().isNull());
}

TEST_F(FloorWindow, SlabsAndFloorsLiveInOneProject) {
    model::Project both = formats::demoProject();
    both.floors = session().project().floors;
    both.nextId = 10000;
    session().start(both, {});
    EXPECT_NE(session().slab(), nullptr);
    EXPECT_EQ(session().floor(), nullptr);
    EXPECT_TRUE(window.margin().isVisible());
    session().setElement("f1");
    EXPECT_EQ(session().slab(), nullptr);
    ASSERT_NE(session().floor(), nullptr);
    answer();
    EXPECT_TRUE(window.margin().isVisible());
    session().setElement(both.slabs[0]->id);
    EXPECT_TRUE(window.margin().isVisible());
}
