// The one arrangement: nothing that appears moves anything, digits stay figures while drawing, all of it
// fits, and whole jobs are done by the keyboard.
#include <QAbstractButton>
#include <QAccessible>
#include <QAction>
#include <QCheckBox>
#include <QDialog>
#include <QHeaderView>
#include <QLabel>
#include <QListWidget>
#include <QMenuBar>
#include <QPushButton>
#include <QScrollArea>
#include <QTableWidget>
#include <QToolButton>
#include <QTreeWidget>

#include "by_keyboard.h"
#include "layout/placing.h"
#include "plan/plan_view.h"
#include "report/margin.h"
#include "widgets/elided_label.h"
#include "widgets/labels.h"
#include "window/place_bar.h"

namespace talvik::app {
namespace {

class Arrangement : public ByKeyboard {
  protected:
    void SetUp() override {
        ByKeyboard::SetUp();
        window.askSavePath = [this](auto&&...) { return folder.path() + QStringLiteral("/out"); };
    }
    void demo(bool floor) {
        floor ? window.openFloorDemo() : window.openDemo(false);
        answer();
        ASSERT_TRUE(
            QTest::qWaitFor([&] { return session().answer() && session().answer()->complete; }, 20000));
        QCoreApplication::processEvents();
    }
    const model::Floor& floor() { return *session().floor(); }
    // Where every widget of the window stands now.
    std::map<const QWidget*, QRect> geometry() {
        std::map<const QWidget*, QRect> all;
        QCoreApplication::processEvents();
        for (const auto* w : window.findChildren<QWidget*>())
            if (w->isVisible() && w->objectName() != QLatin1String("notice"))
                all[w] = QRect(w->mapTo(&window, QPoint()), w->size());
        return all;
    }
};

// Text that has no room, widgets over each other or outside of the window; in words.
QStringList crowded(MainWindow& window, PlaceBar& places) {
    QStringList all;
    auto wide = [](const QWidget* w, const QString& text) {
        return w->fontMetrics().horizontalAdvance(text);
    };
    auto tell = [&](const QWidget* w, const QString& what) {
        all << QStringLiteral("%1 %2: %3")
                   .arg(QString::fromLatin1(w->metaObject()->className()), w->objectName(), what);
    };
    std::map<const QWidget*, std::vector<const QWidget*>> beside;
    for (const auto* w : window.findChildren<QWidget*>()) {
        if (!w->isVisible()) continue;
        QString text;
        if (const auto* b = qobject_cast<const QAbstractButton*>(w)) {
            text = b->text();
            if (!text.isEmpty() && w->width() + 1 < w->minimumSizeHint().width())
                tell(w, QStringLiteral("cut: ") + text);
        } else if (const auto* l = qobject_cast<const QLabel*>(w);
                   l && !dynamic_cast<const ElidedLabel*>(w)) {
            text = l->text();
            if (l->wordWrap() ? l->heightForWidth(l->width()) > l->height() + 1
                              : !text.isEmpty() && !text.contains(QLatin1Char('<')) &&
                                    wide(w, text) > l->contentsRect().width() + 1)
                tell(w, QStringLiteral("cut: ") + text);
        } else if (const auto* c = qobject_cast<const QComboBox*>(w)) {
            text = c->currentText();
            const bool inTable = qobject_cast<const QTableWidget*>(w->parentWidget()->parentWidget());
            if (inTable && wide(w, text) + 24 > w->width()) tell(w, QStringLiteral("cut: ") + text);
        } else if (const auto* t = qobject_cast<const QTableWidget*>(w)) {
            for (int k = 0; k < t->columnCount(); ++k)
                for (const auto& line : t->horizontalHeaderItem(k)->text().split(QLatin1Char('\n')))
                    if (t->horizontalHeader()->fontMetrics().horizontalAdvance(line) + 4 > t->columnWidth(k))
                        tell(w, QStringLiteral("head cut: ") + line);
        } else {
            continue;
        }
        beside[w->parentWidget()].push_back(w);
        bool scrolled = false;
        for (const auto* p = w->parentWidget(); p; p = p->parentWidget())
            scrolled |= qobject_cast<const QAbstractScrollArea*>(p) != nullptr;
        if (!scrolled && !window.rect().contains(QRect(w->mapTo(&window, QPoint()), w->size())))
            tell(w, QStringLiteral("outside of the window: ") + text);
    }
    for (const auto& [parent, widgets] : beside)
        for (std::size_t i = 0; i < widgets.size(); ++i)
            for (std::size_t k = 0; k < i; ++k)
                if (widgets[i]->geometry().intersects(widgets[k]->geometry()) &&
                    widgets[i]->objectName() != QLatin1String("notice") &&
                    widgets[k]->objectName() != QLatin1String("notice"))
                    tell(widgets[i], QStringLiteral("over ") + widgets[k]->objectName());
    QRectF last = places.elementRect();
    if (last.left() < 40 || last.width() < 40) all << QStringLiteral("no room for project and element");
    for (int i = 1; i <= 7; ++i) {
        const QRectF r = places.placeRect(static_cast<Place>(i));
        if (r.left() < last.right() - 1)
            all << PlaceBar::name(static_cast<Place>(i)) + QStringLiteral(" over what is before");
        last = r;
    }
    if (places.standardRect().left() < last.right()) all << QStringLiteral("the standard over the places");
    return all;
}

}  // namespace

TEST_F(Arrangement, MessagesMoveNothing) {
    for (bool floor : {false, true}) {
        demo(floor);
        for (Place place : {Place::Layout, Place::Actions, Place::Bars}) {
            session().setPlace(place);
            const auto before = geometry();
            window.say(QStringLiteral(
                "Six slabs placed, and something else that takes more than one line to be told "
                "in full, so that it would need room."));
            EXPECT_TRUE(part<QLabel>("notice")->isVisible());
            EXPECT_EQ(geometry(), before) << int(place);
            // What is under the message still gets the mouse.
            EXPECT_NE(window.childAt(part<QLabel>("notice")->mapTo(&window, QPoint(5, 5))),
                      part<QLabel>("notice"));
            part<QLabel>("notice")->hide();
            EXPECT_EQ(geometry(), before) << int(place);
        }
    }
}

// Drawn, told, edited: the next double click lands in the cell it was meant for.
TEST_F(Arrangement, ADoubleClickMeantForACellReachesIt) {
    demo(true);
    session().setPlace(Place::Actions);
    auto* cases = part<QTableWidget>("cases");
    const auto count = floor().actions.cases.size();
    QCoreApplication::processEvents();
    const QPoint at = cases->viewport()->mapTo(&window, cases->visualItemRect(cases->item(3, 0)).center());
    window.say(QStringLiteral("6 slabs placed"));
    window.desk().edit(QStringLiteral("Load"),
                       [](model::Floor& f, model::Project&) { f.actions.loads[0].value += 1e-4; });
    QCoreApplication::processEvents();
    EXPECT_EQ(window.childAt(at), cases->viewport());
    QTest::mouseDClick(window.childAt(at), Qt::LeftButton, {}, cases->viewport()->mapFrom(&window, at));
    EXPECT_EQ(cases->currentRow(), 3);
    EXPECT_EQ(floor().actions.cases.size(), count);
}

TEST_F(Arrangement, WhatCarriesOthersGoesWithAWordAndComesBack) {
    demo(true);
    session().setPlace(Place::Actions);
    const std::string before = text();
    auto* cases = part<QTableWidget>("cases");
    cases->setCurrentCell(2, 0);
    const auto geometryBefore = geometry();
    QTest::mouseClick(part<QPushButton>("removeCase"), Qt::LeftButton);
    ASSERT_EQ(floor().actions.cases.size(), 3u);
    auto* removed = part<QLabel>("removed");
    EXPECT_TRUE(removed->isVisible());
    EXPECT_TRUE(removed->text().contains(QStringLiteral("Hall is removed with its load")))
        << removed->text().toStdString();
    EXPECT_TRUE(geometryBefore.contains(cases));
    emit removed->linkActivated(QStringLiteral("undo"));
    EXPECT_EQ(text(), before);
    EXPECT_FALSE(removed->isVisible());
}

TEST_F(Arrangement, DigitsAreFiguresAndCtrlChangesThePlace) {
    demo(true);
    session().setPlace(Place::Layout);
    canvas().setFocus();
    press(canvas(), Qt::Key_5);
    EXPECT_EQ(session().place(), Place::Layout) << "a digit alone changes no place";
    press(canvas(), Qt::Key_C);
    press(canvas(), Qt::Key_3);
    EXPECT_EQ(window.desk().typed(), QStringLiteral("3"));
    EXPECT_EQ(session().place(), Place::Layout);
    for (int i : {5, 2, 7, 2}) {
        press(canvas(), static_cast<Qt::Key>(Qt::Key_0 + i), Qt::ControlModifier);
        EXPECT_EQ(session().place(), static_cast<Place>(i));
        if (i == 2) press(canvas(), Qt::Key_A), press(canvas(), Qt::Key_4);
    }
}

TEST_F(Arrangement, FindRanksWhatIsNamedSo) {
    demo(true);
    auto first = [&](const char* words) {
        press(window, Qt::Key_F, Qt::ControlModifier);
        auto* palette = window.findChild<QDialog*>(QStringLiteral("findPalette"));
        EXPECT_NE(palette, nullptr);
        QTest::keyClicks(palette->findChild<QLineEdit*>(), QString::fromUtf8(words));
        auto* list = palette->findChild<QListWidget*>();
        QString text = list->count() ? list->item(0)->text() : QString();
        int checks = 0;
        for (int i = 0; i < list->count(); ++i) {
            const bool check = list->item(i)->text().contains(QStringLiteral("check,"));
            EXPECT_TRUE(check || !checks) << "checks come last, " << list->item(i)->text().toStdString();
            checks += check;
        }
        delete palette;
        return text;
    };
    EXPECT_TRUE(first("B2").startsWith(QStringLiteral("Column B2"))) << first("B2").toStdString();
    EXPECT_TRUE(first("C/2").contains(QStringLiteral("grid crossing"))) << first("C/2").toStdString();
    EXPECT_TRUE(first("strip y3").startsWith(QStringLiteral("Strip Y3"))) << first("strip y3").toStdString();
    EXPECT_TRUE(first("find").startsWith(QStringLiteral("Find"))) << first("find").toStdString();
}

TEST_F(Arrangement, EveryPlaceFitsFromSmallToLarge) {
    auto* places = part<PlaceBar>("placeBar");
    for (bool floor : {false, true}) {
        demo(floor);
        for (auto [w, h] : {std::pair(1000, 560), {1024, 600}, {1280, 800}, {1920, 1080}}) {
            window.resize(w, h);
            for (int i = 1; i <= 7; ++i) {
                session().setPlace(static_cast<Place>(i));
                QTest::qWait(25);
                // Fields fold and unfold by posted events: on a busy machine they need a few turns.
                (void)QTest::qWaitFor([&] { return crowded(window, *places).isEmpty(); }, 2000);
                EXPECT_EQ(window.width(), w);
                EXPECT_EQ(window.height(), h);
                for (const auto& what : crowded(window, *places))
                    ADD_FAILURE() << (floor ? "floor " : "slab ") << w << " place " << i << " "
                                  << what.toStdString();
                // Room enough for the plan, whatever stands around it.
                EXPECT_GE(window.picture().width(), 400) << w << " " << i;
                if (i != 7) {
                    EXPECT_GE(window.picture().height(), 150) << w << " " << i;
                }
            }
        }
    }
}

// The wheel over a choice without the keyboard moves on what it stands in, not the choice; arrows walk a
// table and change nothing in it.
TEST_F(Arrangement, PassingOverChoicesChangesNothing) {
    demo(false);
    session().setPlace(Place::Actions);
    QCoreApplication::processEvents();
    const std::string before = text();
    auto* use = part<QComboBox>("imposedUse");
    window.plan().setFocus();
    QWheelEvent wheel(QPointF(10, 8), use->mapToGlobal(QPointF(10, 8)), {}, QPoint(0, -240), {}, {},
                      Qt::NoScrollPhase, false);
    QApplication::sendEvent(use, &wheel);
    auto* finishes = part<QTableWidget>("finishes");
    finishes->setFocus();
    finishes->setCurrentCell(0, 0);
    for (Qt::Key k : {Qt::Key_Down, Qt::Key_Right, Qt::Key_Left, Qt::Key_Up, Qt::Key_Down}) {
        strike(k);
        EXPECT_TRUE(finishes->hasFocus() || finishes->isAncestorOf(QApplication::focusWidget()));
    }
    EXPECT_EQ(finishes->currentRow(), 1);
    EXPECT_EQ(text(), before);
}

// What a screen reader says of everything that takes the keyboard.
TEST_F(Arrangement, WhatTakesTheKeyboardHasAName) {
    for (bool floor : {false, true}) {
        demo(floor);
        for (int i = 1; i <= 7; ++i) {
            session().setPlace(static_cast<Place>(i));
            QCoreApplication::processEvents();
            int seen = 0;
            for (auto* w : window.findChildren<QWidget*>()) {
                if (!w->isVisible() || !(w->focusPolicy() & Qt::TabFocus) || qobject_cast<QScrollArea*>(w))
                    continue;
                auto* named = QAccessible::queryAccessibleInterface(w);
                EXPECT_TRUE(named && !named->text(QAccessible::Name).isEmpty())
                    << w->metaObject()->className() << " " << w->objectName().toStdString() << " in place "
                    << i;
                ++seen;
            }
            EXPECT_GT(seen, 4) << i;
        }
    }
}

TEST_F(Arrangement, SidesFoldAwayAreRememberedAndComeBack) {
    demo(true);
    session().setPlace(Place::Layout);
    const int wide = canvas().width();
    for (auto [key, side] : {std::pair(Qt::Key_F7, MainWindow::Side::Tray),
                             {Qt::Key_F8, MainWindow::Side::Below},
                             {Qt::Key_F9, MainWindow::Side::Margin}}) {
        press(window, key);
        EXPECT_FALSE(window.isShown(side));
    }
    QCoreApplication::processEvents();
    EXPECT_GT(canvas().width(), wide + 400);
    {
        MainWindow other;
        other.openFloorDemo();
        EXPECT_FALSE(other.isShown(MainWindow::Side::Tray));
        EXPECT_FALSE(other.isShown(MainWindow::Side::Margin));
    }
    for (Qt::Key key : {Qt::Key_F7, Qt::Key_F8, Qt::Key_F9}) press(window, key);
    QCoreApplication::processEvents();
    EXPECT_EQ(canvas().width(), wide);
    // Long section and register by one key.
    EXPECT_EQ(window.below().page(), Register::Page::Panels);
    press(window, Qt::Key_F4);
    EXPECT_EQ(window.below().page(), Register::Page::Section);
    press(window, Qt::Key_F4);
    EXPECT_EQ(window.below().page(), Register::Page::Panels);
}

TEST_F(Arrangement, WhatStandsOpenIsInTheMarginAndCounted) {
    demo(true);
    session().setPlace(Place::Actions);
    EXPECT_EQ(PlaceBar::open(session(), Place::Layout), 0);
    EXPECT_EQ(PlaceBar::open(session(), Place::Actions), 0);
    auto matters = [&](const char* words) {
        int n = 0;
        for (const auto& m : session().matters()) n += m.message.find(words) != std::string::npos;
        return n;
    };
    // A case without load, then no imposed load at all, then all panels at once.
    window.desk().edit(QStringLiteral("Cases"), [](model::Floor& f, model::Project& p) {
        model::LoadCase c;
        c.nature = model::LoadCase::Nature::Imposed, c.name = "Boats";
        layout::add(p, f, c);
    });
    EXPECT_EQ(matters("The imposed case Boats has no load"), 1);
    EXPECT_EQ(PlaceBar::open(session(), Place::Actions), 1);
    window.desk().edit(QStringLiteral("Loads"), [](model::Floor& f, model::Project&) {
        std::erase_if(f.actions.loads, [&](const auto& l) {
            for (const auto& c : f.actions.cases)
                if (c.id == l.loadCase) return c.nature == model::LoadCase::Nature::Imposed;
            return false;
        });
    });
    EXPECT_EQ(matters("No imposed load acts on this floor"), 1);
    session().undoStack().undo();
    window.desk().edit(QStringLiteral("All"), [](model::Floor& f, model::Project&) {
        f.actions.arrangement = model::Arrangement::All;
    });
    EXPECT_EQ(matters("requires pattern loading"), 1);
    // A slab without imposed load.
    demo(false);
    EXPECT_EQ(PlaceBar::open(session(), Place::Actions), 0);
    ASSERT_TRUE(
        session().apply(QStringLiteral("None"),
                        model::editSlab(session().base(), slab().id,
                                        [](model::OneWaySlab& s, model::Project&) { s.imposed = 0; })));
    EXPECT_EQ(matters("No imposed load acts on this slab"), 1);
    EXPECT_EQ(PlaceBar::open(session(), Place::Actions), 1);
}

// Of all like checks that are within, one line; opened on demand. Nothing is lost: all are listed once
// unfolded.
TEST_F(Arrangement, LikeChecksAreGathered) {
    demo(false);
    const auto& part = *session().answer()->parts.front();
    using Kind = report::MarginLine::Kind;
    report::MarginView view{session().element(), model::Spot{part.part, Spot::In::Whole, {}}};
    auto count = [&](Kind kind) {
        int n = 0;
        for (const auto& l : report::margin(session().project(), session().design(), view))
            n += l.kind == kind;
        return n;
    };
    const int likes = count(Kind::Like), single = count(Kind::Check);
    EXPECT_GT(likes, 8);
    EXPECT_LT(likes + single, int(part.checks.size()) / 2);
    for (const auto& c : part.checks) view.unfolded.insert(c.what);
    EXPECT_EQ(count(Kind::Check), int(part.checks.size()));
    // In the window, by the keyboard.
    session().setPlace(Place::Checks);
    window.margin().setFocus();
    const auto before = window.margin().listed().size();
    press(window.margin(), Qt::Key_Down);
    press(window.margin(), Qt::Key_Return);
    EXPECT_GT(window.margin().listed().size(), before);
}

TEST_F(Arrangement, ElementsAreWalkedRenamedCopiedOrderedAndRemoved) {
    demo(true);
    const auto first = session().element();
    auto list = [&] {
        press(window, Qt::Key_G, Qt::ControlModifier);
        auto* found = window.findChild<QDialog*>(QStringLiteral("elementList"));
        EXPECT_NE(found, nullptr);
        return found;
    };
    auto in = [&](QDialog* d, const char* name) { d->findChild<QToolButton*>(QLatin1String(name))->click(); };
    auto* tree = list()->findChild<QTreeWidget*>();
    ASSERT_EQ(tree->topLevelItemCount(), 1);
    EXPECT_EQ(tree->topLevelItem(0)->text(1), QStringLiteral("floor"));
    EXPECT_NEAR(tree->topLevelItem(0)->text(2).toDouble(), session().answer()->worst(), 0.01);
    // The next storey: the same floor with loads of its own.
    in(qobject_cast<QDialog*>(tree->parentWidget()), "copyElement");
    QCoreApplication::processEvents();
    ASSERT_EQ(session().project().floors.size(), 2u);
    const auto copy = session().element();
    EXPECT_NE(copy, first);
    EXPECT_EQ(floor().name, "Fish hall deck, copy");
    window.desk().edit(QStringLiteral("Load"),
                       [](model::Floor& f, model::Project&) { f.actions.loads[0].value *= 2; });
    EXPECT_NE(session().project().floors[0]->actions.loads[0].value, floor().actions.loads[0].value);
    answer();
    EXPECT_TRUE(session().answer()->error.empty()) << session().answer()->error;
    press(window, Qt::Key_PageDown, Qt::ControlModifier);
    EXPECT_EQ(session().element(), first);
    press(window, Qt::Key_PageUp, Qt::ControlModifier);
    EXPECT_EQ(session().element(), copy);
    auto* d = list();
    tree = d->findChild<QTreeWidget*>();
    tree->currentItem()->setText(0, QStringLiteral("Upper deck"));
    EXPECT_EQ(floor().name, "Upper deck");
    in(d, "elementUp");
    EXPECT_EQ(session().project().floors[0]->id, copy);
    d->findChild<QLineEdit*>(QStringLiteral("elementEdit"))->setText(QStringLiteral("upper"));
    ASSERT_EQ(tree->topLevelItemCount(), 1);
    in(d, "removeElement");
    EXPECT_EQ(session().project().floors.size(), 1u);
    EXPECT_EQ(session().element(), first);
    EXPECT_TRUE(part<QLabel>("removed")->text().contains(QStringLiteral("Upper deck is removed")));
    d->close();
    QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
    session().undoStack().undo();
    EXPECT_EQ(session().project().floors.size(), 2u);
}

// A floor of 3 by 2 bays with loads to its first checks, as a hand does it that knows where things are:
// counted, and timed by the keystroke-level model (S. K. Card, T. P. Moran, A. Newell, 1980): a key 0.28 s,
// pointing 1.1 s, a button of the mouse 0.1 s, 1.35 s to think before each step.
class Counted : public Arrangement, public QObject {
  protected:
    int keys = 0, clicks = 0, steps = 0;
    bool eventFilter(QObject* object, QEvent* event) override {
        if (object->isWidgetType()) {
            keys += event->type() == QEvent::KeyPress;
            clicks += event->type() == QEvent::MouseButtonPress;
        }
        return false;
    }
    void TearDown() override { qApp->removeEventFilter(this); }
    double seconds() const { return 0.28 * keys + 1.2 * clicks + 1.35 * steps; }
    void clickIn(QWidget& w, QPointF at) {
        ++steps;
        QTest::mouseMove(&w, at.toPoint());
        QTest::mouseClick(&w, Qt::LeftButton, {}, at.toPoint());
        QCoreApplication::processEvents();
    }
    void expectChecked() {
        answer();
        ASSERT_TRUE(session().answer());
        EXPECT_GT(session().answer()->summary.over + session().answer()->summary.within, 100);
        EXPECT_EQ(PlaceBar::open(session(), Place::Layout), 0);
        RecordProperty("seconds", int(seconds()));
    }
};

TEST_F(Counted, AFloorByTheMouseToItsFirstChecks) {
    qApp->installEventFilter(this);
    strike(Qt::Key_N, Qt::ControlModifier | Qt::ShiftModifier);
    auto field = [&](const char* name, const char* text) {
        clickIn(*part<QLineEdit>(name), {20, 8});
        part<QLineEdit>(name)->selectAll();
        QTest::keyClicks(part<QLineEdit>(name), QString::fromUtf8(text));
        QTest::keyClick(part<QLineEdit>(name), Qt::Key_Return);
        QCoreApplication::processEvents();
    };
    field("gridAlong", "3@6.0");
    field("gridAcross", "2@5.4");
    ASSERT_TRUE(QRectF(canvas().rect()).contains(canvas().pixel({18000, 10800})))
        << "the plan fits by itself";
    auto box = [&](const char* tool) {
        clickIn(*part<QToolButton>(tool), {10, 8});
        ++steps, ++clicks;
        drag(canvas(), canvas().pixel({-700, -700}), canvas().pixel({18700, 11500}));
        QCoreApplication::processEvents();
    };
    box("tool_1");
    EXPECT_EQ(floor().columns.size(), 12u);
    box("tool_4");
    EXPECT_FALSE(floor().slabs.empty());
    auto* places = part<PlaceBar>("placeBar");
    clickIn(*places, places->placeRect(Place::Actions).center());
    auto* cases = part<QTableWidget>("cases");
    const QPoint cell = cases->visualItemRect(cases->item(2, 3)).center();
    clickIn(*cases->viewport(), cell);
    QTest::mouseDClick(cases->viewport(), Qt::LeftButton, {}, cell);
    auto* edit = qobject_cast<QLineEdit*>(QApplication::focusWidget());
    ASSERT_TRUE(edit);
    QTest::keyClicks(edit, QStringLiteral("3"));
    QTest::keyClick(edit, Qt::Key_Return);
    clickIn(*places, places->placeRect(Place::Checks).center());
    expectChecked();
    EXPECT_LT(seconds(), 90) << keys << " keys, " << clicks << " clicks";
}

TEST_F(Counted, AFloorByTheKeyboardToItsFirstChecks) {
    qApp->installEventFilter(this);
    strike(Qt::Key_N, Qt::ControlModifier | Qt::ShiftModifier);
    ASSERT_TRUE(tabTo("gridAlong"));
    ++steps, write("3@6.0");
    strike(Qt::Key_Tab);
    ++steps, write("2@5.4");
    focusPart(canvas());
    ++steps, strike(Qt::Key_C), strike(Qt::Key_G);
    EXPECT_EQ(floor().columns.size(), 12u) << "columns on all crossings";
    ++steps, strike(Qt::Key_A), strike(Qt::Key_G);
    EXPECT_FALSE(floor().slabs.empty()) << "a slab over all bays";
    ++steps, strike(Qt::Key_3, Qt::ControlModifier);
    auto* cases = part<QTableWidget>("cases");
    focusPart(*cases);
    cases->setCurrentCell(2, 3);
    keys += 5;  // the arrow keys that go there
    ++steps, strike(Qt::Key_F2), write("3");
    ++steps, strike(Qt::Key_5, Qt::ControlModifier);
    expectChecked();
    EXPECT_LT(seconds(), 60) << keys << " keys";
}

TEST(LabelPlaces, NoneLiesOnAnother) {
    Labels labels;
    std::vector<QRectF> put;
    for (int i = 0; i < 60; ++i)
        if (auto box = labels.place(QRectF(10 * (i % 7), 9 * (i % 5), 40, 12))) put.push_back(*box);
    ASSERT_GT(put.size(), 8u);
    for (std::size_t i = 0; i < put.size(); ++i)
        for (std::size_t k = 0; k < i; ++k) EXPECT_FALSE(put[i].intersects(put[k])) << i << " " << k;
    EXPECT_EQ(labels.place(QRectF(500, 500, 40, 12)), QRectF(500, 500, 40, 12))
        << "where there is room, as wanted";
}

}  // namespace talvik::app
