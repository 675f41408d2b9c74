// Both demos by the keyboard alone, from an empty project: the slab to paper, the floor to its bars.
#include <QPushButton>

#include "by_keyboard.h"
#include "formats/project_file.h"
#include "support/likeness.h"
#include "window/place_bar.h"

namespace talvik::app {
namespace {

class Keyboard : public ByKeyboard {
  protected:
    const model::Floor& floor() { return *session().floor(); }
    void key(Qt::Key k, Qt::KeyboardModifiers m = {}) {
        focusPart(canvas());
        strike(k, m);
    }
    void typed(std::initializer_list<const char*> points) {
        focusPart(canvas());
        for (const char* p : points) write(p);
    }
    void outline(std::initializer_list<const char*> corners) {
        typed(corners);
        strike(Qt::Key_Return);
    }
};

TEST_F(Keyboard, TheGalleryFromNothingToPaper) {
    window.askSavePath = [this](auto&&...) { return folder.path() + QStringLiteral("/out"); };
    window.askFolder = [this](auto&&...) { return folder.path() + QStringLiteral("/set"); };
    strike(Qt::Key_N, Qt::ControlModifier);
    // The start page has the keyboard.
    strike(Qt::Key_Tab);
    ASSERT_EQ(QApplication::focusWidget()->objectName(), QLatin1String("startSlab"));
    strike(Qt::Key_Space);
    EXPECT_EQ(session().place(), Place::Layout);
    field("slabName", "Visitors' gallery");
    field("thickness", "200");
    field("width", "7.2");
    field("spans", "4.2 4.8 5.4 5 4.4 1.5");
    ASSERT_TRUE(tabTo("cantileverEnd"));
    strike(Qt::Key_Space);
    auto* supports = part<QTableWidget>("supports");
    ASSERT_TRUE(tabTo("supports"));
    cell(*supports, 0, 2, "250");
    ASSERT_TRUE(tabTo("supports"));
    pick(*supports, 0, 1, "wall");
    strike(Qt::Key_3, Qt::ControlModifier);
    ASSERT_TRUE(tabTo("imposedUse"));
    QTest::keyClicks(QApplication::focusWidget(), QStringLiteral("C3"));
    for (int i : {0, 1}) {
        ASSERT_TRUE(tabTo("addLayer"));
        strike(Qt::Key_Space);
        auto* finishes = part<QTableWidget>("finishes");
        ASSERT_EQ(finishes->rowCount(), i + 1);
        ASSERT_TRUE(tabTo("finishes"));
        pick(*finishes, i, 0, i == 0 ? "Sand" : "Terr");
        ASSERT_TRUE(tabTo("finishes"));
        cell(*finishes, i, 1, i == 0 ? "60" : "25");
    }
    field("otherDead", "0.5");
    const auto demo = formats::demoProject();
    const auto& want = *demo.slabs[0];
    EXPECT_EQ(slab().name, want.name);
    EXPECT_EQ(slab().imposed, want.imposed);
    EXPECT_EQ(slab().otherDead, want.otherDead);
    EXPECT_EQ(slab().cantileverEnd, want.cantileverEnd);
    for (std::size_t i = 0; i < want.spans.size(); ++i)
        EXPECT_EQ(slab().spans[i].length, want.spans[i].length);
    for (std::size_t i = 0; i < want.supports.size(); ++i) {
        EXPECT_EQ(slab().supports[i].kind, want.supports[i].kind) << i;
        EXPECT_EQ(slab().supports[i].width, want.supports[i].width) << i;
    }
    ASSERT_EQ(slab().finishes.size(), 2u);
    for (std::size_t i : {0u, 1u}) {
        EXPECT_EQ(slab().finishes[i].material, want.finishes[i].material);
        EXPECT_EQ(slab().finishes[i].thickness, want.finishes[i].thickness);
        EXPECT_EQ(slab().finishes[i].density, want.finishes[i].density);
    }
    EXPECT_EQ(over(), 0);
    strike(Qt::Key_6, Qt::ControlModifier);
    focusPart(window.section());
    strike(Qt::Key_Down);
    EXPECT_TRUE(session().selected(Spot::In::Run));
    strike(Qt::Key_7, Qt::ControlModifier);
    field("sheetNumber", "SFL-201");
    answer();
    strike(Qt::Key_E, Qt::ControlModifier);
    for (const char* file :
         {"set/drawing-visitors-gallery-1.dxf", "set/drawings.pdf", "set/schedule.csv", "set/report.pdf"})
        EXPECT_TRUE(QFile::exists(folder.filePath(QLatin1String(file)))) << file;
}

TEST_F(Keyboard, TheFishHallFromNothingToBars) {
    strike(Qt::Key_N, Qt::ControlModifier | Qt::ShiftModifier);
    ASSERT_NE(session().floor(), nullptr);
    field("gridAlong", "3@7.2 7");
    field("gridAcross", "2@6.2");
    field("gridX", "0.3");
    field("gridY", "0.3");
    key(Qt::Key_A);
    field("prop_thickness", "290");
    outline({"0,0", "29.2,0", "29.2,9.4", "25.6,13", "@-25.6,0"});
    key(Qt::Key_C);
    field("prop_width", "450");
    field("prop_depth", "450");
    field("prop_heightBelow", "3.4");
    field("prop_heightAbove", "4.2");
    key(Qt::Key_G);
    ASSERT_EQ(floor().columns.size(), 15u);
    key(Qt::Key_Escape);
    find("C5");
    field("prop_x", "27.15");
    field("prop_y", "11.05");
    field("prop_angle", "45");
    for (const char* name : {"B2", "B3", "B4"}) {
        find(name);
        ASSERT_TRUE(tabTo("prop_shape"));
        QTest::keyClicks(QApplication::focusWidget(), QStringLiteral("c"));
        field("prop_width", "550");
    }
    find("B2");
    ASSERT_TRUE(tabTo("prop_above"));
    strike(Qt::Key_Space);
    key(Qt::Key_Escape);
    key(Qt::Key_B);
    field("prop_depth", "600");
    typed({"0.3,0.3", "28.9,0.3"});
    ASSERT_EQ(floor().beams.size(), 1u);
    key(Qt::Key_O);
    outline({"10.2,8", "2.4<0", "3.2<90", "@-2.4,0"});
    key(Qt::Key_Z);
    field("prop_thickness", "430");
    outline({"13.5,5.3", "15.9,5.3", "15.9,7.7", "13.5,7.7"});
    key(Qt::Key_Escape);
    // Actions: the cases in their table, layers and loads in the tray.
    strike(Qt::Key_3, Qt::ControlModifier);
    auto* cases = part<QTableWidget>("cases");
    auto of = [&](int row, int column, const char* text) {
        focusPart(*cases);
        cases->setFocus();
        cell(*cases, row, column, text);
    };
    of(2, 0, "Hall");
    pick(*cases, 2, 2, "D");
    of(2, 3, "5");
    for (int i = 0; i < 30 && QApplication::focusWidget()->objectName() != QLatin1String("addCase"); ++i)
        strike(Qt::Key_Tab);
    strike(Qt::Key_Space);
    ASSERT_EQ(floor().actions.cases.size(), 4u);
    of(3, 0, "Ice store");
    pick(*cases, 3, 2, "E");
    of(3, 3, " ");
    auto inHand = [&](const char* name) {
        ASSERT_TRUE(tabTo("loadCase"));
        // Letters typed sooner would belong to the word before them.
        QTest::qWait(QApplication::keyboardInputInterval() + 50);
        QTest::keyClicks(QApplication::focusWidget(), QString::fromUtf8(name));
        QCoreApplication::processEvents();
    };
    inHand("Fin");
    auto* layers = part<QTableWidget>("caseLayers");
    const char* rows[2][3] = {{"Screed", "55", "20"}, {"Resin and tiles", "15", "20"}};
    for (int r : {0, 1})
        for (int c : {0, 1, 2}) {
            ASSERT_TRUE(tabTo("caseLayers"));
            cell(*layers, r, c, rows[r][c]);
        }
    of(1, 3, "1.6");
    key(Qt::Key_L);
    field("prop_value", "7.5");
    typed({"3,3.4", "16<0"});
    key(Qt::Key_Escape), key(Qt::Key_Escape);  // the tool, then what was drawn
    inHand("Ice");
    key(Qt::Key_A);
    field("prop_value", "7.5");
    outline({"15.5,8.2", "21,8.2", "21,12.4", "15.5,12.4"});
    key(Qt::Key_P);
    field("prop_value", "45");
    field("prop_width", "900");
    field("prop_depth", "900");
    typed({"18.2,4.8"});
    key(Qt::Key_Escape);
    EXPECT_EQ(test::likeness(floor()), test::likeness(*formats::demoFloorProject().floors[0]));
    EXPECT_EQ(looseEnds(), 0);
    answer();
    // To the bars of a strip, one of them fixed closer.
    strike(Qt::Key_6, Qt::ControlModifier);
    key(Qt::Key_Up);
    ASSERT_NE(session().line(), nullptr);
    EXPECT_FALSE(session().line()->runs.empty());
    focusPart(window.section());
    strike(Qt::Key_Down);
    EXPECT_TRUE(session().selected(Spot::In::Run));
    strike(Qt::Key_Minus);
    EXPECT_EQ(floor().strips.bars.size(), 1u) << "a closer spacing is fixed";
}

}  // namespace
}  // namespace talvik::app
