// What is typed goes into the cell that is selected, from its first character on, in every table of every
// place; a digit or a letter changes nothing else.
#include <QTableView>

#include "by_keyboard.h"
#include "canopy.h"
#include "document/session.h"

namespace talvik::app {
namespace {

class Typing : public ByKeyboard {
  protected:
    // 7.5 into every cell that can be typed into, by the keyboard alone; the number of such cells.
    int intoEveryCell() {
        int seen = 0;
        for (int place = 1; place <= 7; ++place) {
            session().setPlace(static_cast<Place>(place));
            answer();
            QCoreApplication::processEvents();
            const std::string before = text();
            using Page = Register::Page;
            for (Page page : {Page::Panels, Page::Cases, Page::Combinations, Page::Supports, Page::Bases}) {
                window.below().show(page);
                if (page != Page::Panels && window.below().page() != page) continue;
                QCoreApplication::processEvents();
                for (QTableView* table : window.findChildren<QTableView*>()) {
                    if (!table->isVisible() || table->editTriggers() == QAbstractItemView::NoEditTriggers)
                        continue;
                    const auto* model = table->model();
                    for (int r = 0; r < std::min(model->rowCount(), 3); ++r)
                        for (int c = 0; c < model->columnCount(); ++c) {
                            const auto index = model->index(r, c);
                            if (table->isColumnHidden(c) || table->indexWidget(index)) continue;
                            const bool typed = index.flags() & Qt::ItemIsEditable;
                            QApplication::setActiveWindow(&window);
                            table->setCurrentIndex(index);
                            table->setFocus();
                            QCoreApplication::processEvents();
                            for (Qt::Key key : {Qt::Key_7, Qt::Key_Period, Qt::Key_5}) {
                                QWidget* at = QApplication::focusWidget();
                                QTest::keyClick(at ? at : table, key);
                            }
                            EXPECT_EQ(int(session().place()), place) << table->objectName().toStdString();
                            auto* edit = qobject_cast<QLineEdit*>(QApplication::focusWidget());
                            const std::string where = table->objectName().toStdString() + " in place " +
                                                      std::to_string(place) + ", " + std::to_string(r) +
                                                      ", " + std::to_string(c);
                            EXPECT_EQ(edit != nullptr, typed) << where;
                            if (!edit || !table->isAncestorOf(edit)) continue;
                            ++seen;
                            EXPECT_EQ(edit->text(), QStringLiteral("7.5")) << where;
                            strike(Qt::Key_Escape);
                        }
                }
            }
            EXPECT_EQ(text(), before) << "place " << place;
        }
        return seen;
    }
};

TEST_F(Typing, IntoTheTablesOfASlab) {
    window.openDemo(false);
    answer();
    EXPECT_GT(intoEveryCell(), 20);
}
TEST_F(Typing, IntoTheTablesOfAFloor) {
    window.openFloorDemo();
    answer();
    EXPECT_GT(intoEveryCell(), 20);
}
TEST_F(Typing, IntoTheTablesOfBases) {
    openCanopy(window);
    ASSERT_TRUE(session().bases());
    answer();
    EXPECT_GT(intoEveryCell(), 20);
}

// A cell that was typed into stays the one in hand: the next figure goes into the same column.
TEST_F(Typing, TheColumnStaysInHand) {
    window.openDemo(false);
    session().setPlace(Place::Bars);
    answer();
    auto* runs = part<QTableWidget>("runs");
    QApplication::setActiveWindow(&window);
    runs->setFocus();
    runs->setCurrentCell(0, 2);
    for (const char* spacing : {"150", "175"}) {
        for (const char* c = spacing; *c; ++c) QTest::keyClick(QApplication::focusWidget(), *c);
        strike(Qt::Key_Return);
        answer();
        QCoreApplication::processEvents();
        EXPECT_EQ(runs->item(0, 2)->text(), QString::fromLatin1(spacing));
        EXPECT_EQ(runs->currentColumn(), 2);
        EXPECT_TRUE(runs->hasFocus());
    }
}

// Pages scroll where a table or a field has the keyboard; the thickness changes where a picture has it.
TEST_F(Typing, PagesChangeTheThicknessOnThePicturesAlone) {
    window.openDemo(false);
    session().setPlace(Place::Bars);
    answer();
    const std::string before = text();
    auto* runs = part<QTableWidget>("runs");
    runs->setFocus();
    for (Qt::Key key : {Qt::Key_PageDown, Qt::Key_PageUp, Qt::Key_PageUp}) strike(key);
    window.margin().setFocus();
    for (Qt::Key key : {Qt::Key_PageDown, Qt::Key_PageUp, Qt::Key_PageUp}) strike(key);
    EXPECT_EQ(text(), before);
    window.picture().setFocus();
    strike(Qt::Key_PageUp);
    EXPECT_NE(text(), before);
}

}  // namespace
}  // namespace talvik::app
