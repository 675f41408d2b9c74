// Bases in the real window: from a table to solved bases, pinned, given a remedy, grouped, and back.
#include <QLineEdit>
#include <QPushButton>
#include <QTableView>
#include <QUndoStack>

#include "bases/base_table.h"
#include "bases/bases_view.h"
#include "open_window.h"

namespace talvik::app {

class BasesWindow : public OpenWindow {
  protected:
    void SetUp() override {
        OpenWindow::SetUp();
        window.askOpenPath = [](const QString&, const QString&) {
            return QStringLiteral(TALVIK_SOURCE_DIR "/demos/sundvarg_canopy_loads.csv");
        };
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
    EXPECT_EQ(bases().summary.over, 0);
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
}

}  // namespace talvik::app
