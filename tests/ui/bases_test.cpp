// Bases in the real window: from a table to solved bases, pinned, given a remedy, grouped, and back.
#include <QApplication>
#include <QClipboard>
#include <QComboBox>
#include <QFileInfo>
#include <QLineEdit>
#include <QPointer>
#include <QPushButton>
#include <QTableView>
#include <QTemporaryDir>
#include <QUndoStack>

#include "bases/base_pane.h"
#include "bases/base_table.h"
#include "bases/bases_view.h"
#include "canopy.h"
#include "model/base_edits.h"
#include "open_window.h"
#include "register/register.h"

namespace talvik::app {

class BasesWindow : public OpenWindow {
  protected:
    void SetUp() override {
        OpenWindow::SetUp();
        askForCanopy(window);
    }
    const design::BasesAnswer& bases() {
        answer();
        return *session().basesAnswer();
    }
    BasesView& plan() { return window.basesPlan(); }
    const design::BasePart& base(const char* name) {
        for (const auto& b : bases().bases)
            if (b->name == std::string("Base ") + name) return *b;
        ADD_FAILURE() << name;
        return *bases().bases.front();
    }
};

TEST_F(BasesWindow, FromATableToSolvedPinnedMendedAndBack) {
    const std::string start = text();
    press(window, Qt::Key_K, Qt::ControlModifier | Qt::ShiftModifier);
    ASSERT_TRUE(session().bases());
    ASSERT_EQ(bases().bases.size(), 21u);
    EXPECT_EQ(bases().summary.over, 2) << "two columns stand so near that their bases lie on each other";
    EXPECT_EQ(base("A3").overlaps.size(), 1u);
    EXPECT_EQ(base("B3").overlaps.size(), 1u);
    EXPECT_TRUE(plan().isVisible());
    // Click one, walk to its neighbour.
    const auto c = base("D2").centre;
    click(plan(), plan().at({c.x + 300, c.y + 300}));
    ASSERT_TRUE(session().selection());
    EXPECT_EQ(session().selection()->part, base("D2").part);
    press(plan(), Qt::Key_Right);
    EXPECT_EQ(session().selection()->part, base("E2").part);
    press(plan(), Qt::Key_Left);
    // Pin its size too small: over, with a remedy that is taken.
    session().setPlace(Place::Layout);
    answer();
    auto* along = window.findChild<QLineEdit*>(QStringLiteral("pinB"));
    ASSERT_TRUE(along && along->isVisible());
    along->setFocus();
    along->selectAll();
    QTest::keyClicks(along, QStringLiteral("1200"));
    QTest::keyClick(along, Qt::Key_Return);
    EXPECT_EQ(base("D2").size().B, 1200);
    ASSERT_GT(session().bases()->bases.size(), 10u);
    auto* table = window.findChild<QTableView*>(QStringLiteral("bases"));
    ASSERT_TRUE(table && table->isVisible());
    EXPECT_EQ(table->model()->rowCount(), 21);
    // The register: filtered, pinned too deep for all that are chosen, freed.
    auto* filter = window.findChild<QLineEdit*>(QStringLiteral("basesFilter"));
    filter->setFocus();
    QTest::keyClicks(filter, QStringLiteral("d2"));
    EXPECT_EQ(table->model()->rowCount(), 1);
    filter->clear();
    table->selectAll();
    EXPECT_TRUE(table->model()->setData(table->model()->index(0, 4), QStringLiteral("900"), Qt::EditRole));
    for (const auto& b : bases().bases) EXPECT_EQ(b->size().h, 900) << b->name;
    EXPECT_TRUE(table->model()->setData(table->model()->index(0, 4), QStringLiteral("-"), Qt::EditRole));
    EXPECT_LT(base("A1").size().h, 900);
    table->model()->sort(2, Qt::DescendingOrder);
    EXPECT_GE(table->model()->index(0, 2).data().toString().toDouble(),
              table->model()->index(20, 2).data().toString().toDouble());
    // Two columns on one base, and apart again.
    table->model()->sort(0, Qt::AscendingOrder);
    table->clearSelection();
    table->selectRow(0);
    table->selectionModel()->select(table->model()->index(1, 0),
                                    QItemSelectionModel::Select | QItemSelectionModel::Rows);
    click(*window.findChild<QPushButton*>(QStringLiteral("joinBases")), {5, 5});
    EXPECT_EQ(bases().bases.size(), 20u);
    table->clearSelection();
    table->selectRow(0);
    click(*window.findChild<QPushButton*>(QStringLiteral("partBases")), {5, 5});
    EXPECT_EQ(bases().bases.size(), 21u);
    // At the most two types.
    auto* types = window.findChild<QLineEdit*>(QStringLiteral("basesTypes"));
    types->setFocus();
    types->selectAll();
    QTest::keyClicks(types, QStringLiteral("2"));
    QTest::keyClick(types, Qt::Key_Return);
    EXPECT_LE(bases().types.size(), 3u) << "two, and the one that is pinned too small";
    while (session().undoStack().canUndo()) session().undoStack().undo();
    EXPECT_EQ(text(), start);
}

TEST_F(BasesWindow, APinTooSmallHasARemedyThatMendsIt) {
    press(window, Qt::Key_K, Qt::ControlModifier | Qt::ShiftModifier);
    ASSERT_EQ(bases().bases.size(), 21u);
    const auto part = base("D2").part;
    session().apply(QStringLiteral("Pin"), model::editBases(session().base(), session().bases()->id,
                                                            [&](model::BaseSet& s, model::Project&) {
                                                                for (auto& b : s.bases)
                                                                    if (b.id == part.key) b.B = b.L = 1300;
                                                            }));
    session().select(Spot{part, Spot::In::Whole, {}});
    answer();
    EXPECT_GT(bases().find(part)->worst(), 1);
    ASSERT_TRUE(QTest::qWaitFor([&] { return session().sought() && !session().remedies().empty(); }, 20000));
    const auto remedy = session().remedies().front();
    session().apply(QString::fromStdString(remedy.text), remedy.project);
    answer();
    EXPECT_LE(bases().find(part)->worst(), 1 + 1e-9);
}

// A base on the boundary gets a strap, another a top that slopes: chosen in the tray, drawn, saved and taken
// back.
TEST_F(BasesWindow, StrapsAndTops) {
    press(window, Qt::Key_K, Qt::ControlModifier | Qt::ShiftModifier);
    ASSERT_EQ(bases().bases.size(), 21u);
    session().apply(
        QStringLiteral("Site"),
        model::editBases(session().base(), session().bases()->id, [&](model::BaseSet& s, model::Project&) {
            s.site = {{-3000, -3000}, {43450, -3000}, {43450, 19000}, {-3000, 19000}};
        }));
    const std::string start = text();
    session().setPlace(Place::Layout);
    session().select(Spot{base("G3").part, Spot::In::Whole, {}});
    answer();
    auto* to = window.findChild<QComboBox*>(QStringLiteral("strapTo"));
    ASSERT_TRUE(to && to->isVisible());
    ASSERT_GE(to->findText(QStringLiteral("F3")), 0) << "in one line along x";
    EXPECT_LT(to->findText(QStringLiteral("A1")), 0) << "askew";
    emit to->textActivated(QStringLiteral("F3"));
    EXPECT_TRUE(base("G3").strap);
    EXPECT_EQ(base("G3").trouble(), "");
    auto* pane = window.findChild<BasePane*>();
    ASSERT_TRUE(pane);
    QTemporaryDir dir;
    for (auto shows : {BasePane::Shows::AlongX, BasePane::Shows::AlongY, BasePane::Shows::Cage}) {
        pane->show(shows);
        pane->grab();
        EXPECT_EQ(pane->savePicture(dir.filePath(QStringLiteral("%1.svg").arg(int(shows)))), QString());
    }
    bool told = false;
    for (const auto& fact : bases().facts(session().selection(), units::System::Metric))
        told |= fact.text == "Strap";
    EXPECT_TRUE(told);
    // A top that slopes, of a base without a strap.
    session().select(Spot{base("C2").part, Spot::In::Whole, {}});
    answer();
    const double level = base("C2").concrete;
    auto* edge = window.findChild<QLineEdit*>(QStringLiteral("topEdge"));
    edge->setFocus();
    edge->selectAll();
    QTest::keyClicks(edge, QStringLiteral("220"));
    QTest::keyClick(edge, Qt::Key_Return);
    emit window.findChild<QComboBox*>(QStringLiteral("baseTop"))->textActivated(QStringLiteral("sloped"));
    ASSERT_TRUE(base("C2").shaped);
    EXPECT_LT(base("C2").concrete, level * 1.1);
    pane->show(BasePane::Shows::AlongX);
    pane->grab();
    plan().grab();
    // A strap beside a slope is refused with a word, and nothing changes.
    const std::string before = text();
    emit window.findChild<QComboBox*>(QStringLiteral("strapTo"))->textActivated(QStringLiteral("D2"));
    EXPECT_EQ(text(), before);
    while (session().undoStack().count() && session().undoStack().index() > 2) session().undoStack().undo();
    EXPECT_EQ(text(), start);
}

// What stands beside the register: sections, the cage that turns and is saved, sizes and types as dots.
TEST_F(BasesWindow, SectionsCageSizesAndTypes) {
    press(window, Qt::Key_K, Qt::ControlModifier | Qt::ShiftModifier);
    ASSERT_EQ(bases().bases.size(), 21u);
    auto& pane = window.below().basePane();
    ASSERT_TRUE(pane.isVisible());
    const auto part = base("D2").part;
    session().select(Spot{part, Spot::In::Whole, {}});
    auto picture = [&] {
        QCoreApplication::processEvents();
        return pane.grab().toImage();
    };
    const QImage along = picture();
    auto mode = [&](int k) {
        click(*pane.findChild<QWidget*>(QStringLiteral("baseShows%1").arg(k)), {6, 6});
    };
    mode(2);
    EXPECT_EQ(pane.shows(), BasePane::Shows::Cage);
    const QImage cage = picture();
    EXPECT_NE(cage, along);
    const auto before = pane.view();
    QTest::mousePress(&pane, Qt::LeftButton, {}, {150, 150});
    QTest::mouseMove(&pane, {210, 170});
    QTest::mouseRelease(&pane, Qt::LeftButton, {}, {210, 170});
    press(pane, Qt::Key_Left);
    EXPECT_FALSE(pane.view() == before);
    EXPECT_NE(picture(), cage);
    // Saved as a drawing, whatever the ending; not as something else.
    QTemporaryDir out;
    for (const char* ending : {"svg", "pdf", "dxf"}) {
        const QString path = out.filePath(QStringLiteral("cage.") + QLatin1String(ending));
        EXPECT_EQ(pane.savePicture(path), QString());
        EXPECT_GT(QFileInfo(path).size(), 1000) << ending;
    }
    EXPECT_NE(pane.savePicture(out.filePath(QStringLiteral("cage.txt"))), QString());
    // Sizes come by themselves; a click on a dot pins that one, undo frees it.
    mode(3);
    ASSERT_TRUE(QTest::qWaitFor([&] { return !pane.seeking() && (pane.repaint(), pane.dots() > 3); }, 10000));
    const auto size = base("D2").size();
    picture();
    int other = -1;
    for (int i = 0; i < pane.dots(); ++i)
        if (pane.rect().contains(pane.dot(i).toPoint())) other = i;
    ASSERT_GE(other, 0);
    QTest::mouseMove(&pane, pane.dot(other).toPoint());
    click(pane, pane.dot(other));
    answer();
    const auto* pinned = dynamic_cast<const design::BasePart*>(bases().find(part));
    EXPECT_GT(session().bases()->bases[pinned->number].B, 0);
    EXPECT_TRUE(pinned->size().B != size.B || pinned->size().h != size.h);
    EXPECT_LE(pinned->worst(), 1 + 1e-9);
    session().undoStack().undo();
    EXPECT_EQ(base("D2").size().h, size.h);
    // Types: the third dot asks for three at the most, once more gives it back.
    mode(4);
    picture();
    ASSERT_GE(pane.dots(), 4);
    click(pane, pane.dot(2));
    EXPECT_EQ(session().bases()->mostTypes, 3);
    EXPECT_LE(bases().types.size(), 3u);
    picture();
    EXPECT_GE(pane.dots(), 4) << "the whole curve stays";
    click(pane, pane.dot(2));
    EXPECT_EQ(session().bases()->mostTypes, 0);
}

// A spreadsheet's rows come in as one step, or not at all; the register goes out as a table.
TEST_F(BasesWindow, RegisterPastedAndSaved) {
    press(window, Qt::Key_K, Qt::ControlModifier | Qt::ShiftModifier);
    ASSERT_EQ(bases().bases.size(), 21u);
    auto& table = window.below().bases();
    const std::string before = text();
    const QString x = table.table().model()->headerData(2, Qt::Horizontal).toString(),
                  depth = table.table().model()->headerData(4, Qt::Horizontal).toString();
    table.paste(QStringLiteral("Base\t%1\t%2\nA1\t2400\t600\nC2\t3000\t\n").arg(x, depth));
    EXPECT_EQ(base("A1").size().B, 2400);
    EXPECT_EQ(base("A1").size().h, 600);
    EXPECT_EQ(base("C2").size().B, 3000);
    session().undoStack().undo();
    EXPECT_EQ(text(), before);
    // A row that names no base, or a figure that is none: nothing of it.
    QString said;
    QObject::connect(&table, &BaseTable::said, [&](const QString& s) { said = s; });
    table.paste(QStringLiteral("Base\t%1\nA1\t2400\nZ9\t2500\n").arg(x));
    EXPECT_TRUE(said.contains(QStringLiteral("Z9"))) << said.toStdString();
    EXPECT_EQ(text(), before);
    table.paste(QStringLiteral("Base\t%1\nA1\t2400\nA2\twide\n").arg(x));
    EXPECT_EQ(text(), before);
    // Without heads from the current cell on.
    table.table().model()->sort(0, Qt::AscendingOrder);
    table.table().setCurrentIndex(table.table().model()->index(0, 4));
    table.paste(QStringLiteral("700\n750\n"));
    EXPECT_EQ(base("A1").size().h, 700);
    EXPECT_EQ(base("A2").size().h, 750);
    // What was copied goes back in without a change.
    session().undoStack().undo();
    answer();
    table.table().selectAll();
    press(table.table(), Qt::Key_C, Qt::ControlModifier);
    table.paste(QApplication::clipboard()->text());
    EXPECT_EQ(text(), before);
    QTemporaryDir out;
    for (const char* ending : {"csv", "xlsx"}) {
        const QString path = out.filePath(QStringLiteral("register.") + QLatin1String(ending));
        EXPECT_EQ(table.save(path), QString());
        EXPECT_GT(QFileInfo(path).size(), 1000) << ending;
    }
    EXPECT_NE(table.save(out.filePath(QStringLiteral("register.doc"))), QString());
}

// An answer that comes while a cell is typed into takes nothing of it away.
TEST_F(BasesWindow, WordsInACellOutliveAnAnswer) {
    press(window, Qt::Key_K, Qt::ControlModifier | Qt::ShiftModifier);
    ASSERT_EQ(bases().bases.size(), 21u);
    auto& table = window.below().bases().table();
    table.model()->sort(0, Qt::AscendingOrder);
    table.setFocus();
    table.setCurrentIndex(table.model()->index(0, 4));
    table.edit(table.currentIndex());
    const QPointer<QLineEdit> field = table.viewport()->findChild<QLineEdit*>();
    ASSERT_TRUE(field);
    field->selectAll();
    QTest::keyClicks(field, QStringLiteral("7"));
    // Something else is edited meanwhile, and answered.
    ASSERT_TRUE(session().apply(QStringLiteral("Depth"),
                                model::editBases(session().base(), session().bases()->id,
                                                 [](model::BaseSet& s, auto&) { s.bases[5].h = 800; })));
    answer();
    ASSERT_TRUE(field);
    QTest::keyClicks(field, QStringLiteral("50"));
    QTest::keyClick(field, Qt::Key_Return);
    QCoreApplication::processEvents();  // return comes in by the loop
    EXPECT_EQ(base("A1").size().h, 750);
    // Left, the rows follow.
    auto shown = [&] { return table.model()->index(0, 4).data().toString().remove(QLatin1Char(' ')); };
    EXPECT_TRUE(QTest::qWaitFor([&] { return shown() == QStringLiteral("750"); })) << shown().toStdString();
    EXPECT_TRUE(session().selection());
}

// A floor hands its columns down: linked in place 3, followed by the bases, taken note of, unlinked.
TEST_F(BasesWindow, AFloorHandsItsLoadsDown) {
    ASSERT_EQ(session().open(QStringLiteral(TALVIK_SOURCE_DIR "/demos/sundvarg_fish_hall.talvik")),
              QString());
    ASSERT_FALSE(session().project().floors.empty());
    const auto floor = session().project().floors.front();
    press(window, Qt::Key_K, Qt::ControlModifier);
    ASSERT_TRUE(session().bases());
    const auto set = session().bases()->id;
    session().setPlace(Place::Actions);
    auto* link = window.findChild<QComboBox*>(QStringLiteral("linkFloor"));
    ASSERT_TRUE(link && link->isVisible());
    auto choose = [&](const QString& words) {
        ASSERT_GE(link->findText(words), 0) << words.toStdString();
        emit link->textActivated(words);
    };
    choose(QStringLiteral("link ") + QString::fromStdString(floor->name));
    ASSERT_FALSE(session().bases()->columns.empty());
    ASSERT_TRUE(QTest::qWaitFor([&] { return session().basesAnswer() && !session().stale(); }, 60000));
    ASSERT_EQ(session().basesAnswer()->error, "");
    EXPECT_FALSE(session().basesAnswer()->changed.empty());
    auto* note = window.findChild<QPushButton*>(QStringLiteral("takeNote"));
    ASSERT_TRUE(note->isEnabled());
    click(*note, {5, 5});
    ASSERT_TRUE(QTest::qWaitFor(
        [&] { return !session().stale() && session().basesAnswer()->changed.empty(); }, 60000));
    // The floor becomes heavier while the bases are looked at.
    session().apply(QStringLiteral("Thicker"),
                    model::editFloor(session().base(), floor->id, [](model::Floor& f, model::Project&) {
                        for (auto& s : f.slabs) s.thickness += 100;
                    }));
    ASSERT_TRUE(QTest::qWaitFor(
        [&] { return !session().stale() && !session().basesAnswer()->changed.empty(); }, 60000));
    const auto* a = session().basesAnswer();
    double now = 0, then = 0;
    for (const auto& c : a->changed) now += c.now, then += c.before;
    EXPECT_GT(now, then * 1.05) << "100 mm of concrete more";
    EXPECT_EQ(session().element(), set);
    choose(QStringLiteral("unlink ") + QString::fromStdString(floor->name));
    EXPECT_TRUE(session().bases()->columns.empty());
}

// An empty set says what to do; every place of it stands without a slab or a floor.
TEST_F(BasesWindow, AnEmptySetAndAllPlaces) {
    press(window, Qt::Key_K, Qt::ControlModifier);
    ASSERT_TRUE(session().bases());
    for (int i = 1; i <= 7; ++i) {
        session().setPlace(static_cast<Place>(i));
        QCoreApplication::processEvents();
        EXPECT_GT(window.grab().width(), 100);
    }
    EXPECT_EQ(window.importBases(QStringLiteral(TALVIK_SOURCE_DIR "/demos/sundvarg_canopy_loads.csv")),
              QString());
    EXPECT_EQ(session().project().bases.size(), 1u);
    answer();
    for (int i = 1; i <= 7; ++i) {
        session().setPlace(static_cast<Place>(i));
        QCoreApplication::processEvents();
        EXPECT_GT(window.grab().width(), 100);
    }
    EXPECT_FALSE(window.importBases(QStringLiteral("/nowhere.csv")).isEmpty());
    // The same cells from a spreadsheet, by the button of place 3, into a set of their own.
    session().setPlace(Place::Actions);
    QApplication::clipboard()->setText(QStringLiteral(
        "column\tx[m]\ty[m]\twidth[mm]\tdepth[mm]\tcase\tnature\tuse\tN[kN]\tHx[kN]\tHy[kN]\tMx[kNm]"
        "\tMy[kNm]\nA, left\t0\t0\t400\t400\tG\tpermanent\t\t500\t0\t0\t0\t0\n"));
    click(*window.findChild<QPushButton*>(QStringLiteral("pasteLoads")), {5, 5});
    ASSERT_EQ(session().project().bases.size(), 2u);
    EXPECT_EQ(session().project().bases.back()->columns.front().name, "A, left");
}

// From an empty set: the table to fill in, pasted with decimal commas, caps cut to their piles and as driven.
TEST_F(BasesWindow, CapsFromATableToFillIn) {
    press(window, Qt::Key_K, Qt::ControlModifier);
    session().setPlace(Place::Actions);
    QTemporaryDir out;
    const QString path = out.filePath(QStringLiteral("loads.csv"));
    window.askSavePath = [&](const QString&, const QString&, const QString&) { return path; };
    click(*window.findChild<QPushButton*>(QStringLiteral("saveLoadsTemplate")), {5, 5});
    ASSERT_GT(QFileInfo(path).size(), 200);
    EXPECT_EQ(window.importBases(path), QString());
    EXPECT_EQ(bases().set->columns.size(), 2u);
    press(window, Qt::Key_K, Qt::ControlModifier);
    EXPECT_EQ(
        window.pasteBases(QStringLiteral(
            "Loads of the landing\ncolumn\tx[m]\ty[m]\twidth[mm]\tdepth[mm]\tcase\tnature\tuse\tN[kN]"
            "\tHx[kN]\tHy[kN]\tMx[kNm]\tMy[kNm]\nQ1\t0,5\t0\t450\t450\tG\tpermanent\t\t1500,5\t\t\t\t\n")),
        QString());
    session().setPlace(Place::Layout);
    emit window.findChild<QComboBox*>(QStringLiteral("basesKind"))
        ->textActivated(QStringLiteral("pile caps"));
    auto cap = [&]() -> const design::BasePart& { return *bases().bases.front(); };
    ASSERT_EQ(bases().set->kind, model::BaseSet::Kind::Caps);
    EXPECT_EQ(bases().set->columns[0].x, 500);
    session().select(model::Spot{cap().part, model::Spot::In::Whole, {}});
    auto type = [&](const char* name, const char* text) {
        auto* field = window.findChild<QLineEdit*>(QLatin1String(name));
        ASSERT_NE(field, nullptr) << name;
        field->setFocus();
        field->selectAll();
        press(*field, Qt::Key_Delete);
        QTest::keyClicks(field, QLatin1String(text));
        press(*field, Qt::Key_Return);
        answer();
    };
    type("pinPiles", "3");
    ASSERT_EQ(cap().piles().size(), 3u);
    auto outline = [&](const char* words) {
        emit window.findChild<QComboBox*>(QStringLiteral("capOutline"))->textActivated(QLatin1String(words));
        return cap().outline().size();
    };
    EXPECT_EQ(outline("parallel to the piles"), 3u);
    EXPECT_EQ(outline("rectangular"), 4u);
    EXPECT_EQ(outline("corners cut"), 6u);
    EXPECT_EQ(cap().trouble(), "");
    // As driven: where the piles are, from the column.
    type("pinPilesAt", "-0.95 -0.5; 0.9 -0.52; 0.05 1.1");
    ASSERT_EQ(cap().piles().size(), 3u);
    EXPECT_NEAR(cap().centre.x + cap().piles()[2].x, 500 + 50, 1e-6);
    EXPECT_NEAR(cap().centre.y + cap().piles()[2].y, 1100, 1e-6);
    EXPECT_EQ(cap().outline().size(), 4u);
    type("pinPilesAt", "");
    EXPECT_EQ(cap().outline().size(), 6u);
    // Their length puts them into the cost.
    const double cost = cap().cost;
    type("pileLength", "10");
    EXPECT_NEAR(cap().cost - cost, 3 * 10 * session().project().basis.rates.pile.price, 1);
}

}  // namespace talvik::app
