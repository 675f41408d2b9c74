// Tables of column loads as people have them: units, signs, slips.
#include "formats/column_loads.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <random>

#include "design/bases.h"
#include "formats/encoding.h"
#include "formats/project_file.h"
#include "model/edits.h"

using namespace talvik;

namespace {

const char* head =
    "column,x[m],y[m],width[mm],depth[mm],case,nature,use,N[kN],Hx[kN],Hy[kN],Mx[kNm],My[kNm]\n";

formats::ColumnLoads read(const std::string& csv, const std::map<std::string, std::string>& map = {}) {
    auto project = model::emptyProject();
    return formats::readColumnLoads(csv, map, project);
}
bool told(const formats::ColumnLoads& r, const char* words) {
    for (const auto& s : r.keptOut)
        if (s.find(words) != std::string::npos) return true;
    return false;
}

}  // namespace

TEST(ColumnLoads, PlainTable) {
    const auto r =
        read(std::string(head) +
             "A1,1.5,2,400,500,G,permanent,,100,1,2,3,4\nA1,1.5,2,400,500,Q,imposed,C3,50,0,0,0,0\n");
    ASSERT_EQ(r.error, "");
    EXPECT_TRUE(r.keptOut.empty());
    ASSERT_EQ(r.set.columns.size(), 1u);
    const auto& c = r.set.columns[0];
    EXPECT_EQ(c.x, 1500);
    EXPECT_EQ(c.depth, 500);
    ASSERT_EQ(c.actions.size(), 2u);
    EXPECT_EQ(c.actions[0].N, 100e3);
    EXPECT_EQ(c.actions[0].My, 4e6);
    EXPECT_EQ(r.set.cases[1].kind.use, "C3");
    EXPECT_EQ(r.set.bases.size(), 1u);
}

TEST(ColumnLoads, UnitsOrderQuotesAndMarks) {
    const auto r = read(
        "\xEF\xBB\xBFN[kip];case;\"My "
        "(kip\u00b7ft)\";column;x[ft];y[in];width[cm];depth[in];nature;note;Hx[N];Hy[MN];Mx[kN\u00b7m]\r\n"
        "10;G;2;\"A;1\";10;12;40;16;Permanent;\"he said \"\"so\"\"\";1000;0.001;5\r\n\r\n");
    ASSERT_EQ(r.error, "");
    ASSERT_EQ(r.set.columns.size(), 1u);
    const auto& c = r.set.columns[0];
    EXPECT_EQ(c.name, "A;1");
    EXPECT_NEAR(c.x, 3048, 1e-9);
    EXPECT_NEAR(c.y, 304.8, 1e-9);
    EXPECT_NEAR(c.width, 400, 1e-9);
    EXPECT_NEAR(c.actions[0].N, 44482.216, 0.01);
    EXPECT_NEAR(c.actions[0].My, 2 * 4448.2216 * 304.8, 1);
    EXPECT_NEAR(c.actions[0].Hx, 1000, 1e-9);
    EXPECT_NEAR(c.actions[0].Hy, 1000, 1e-9);
    EXPECT_NEAR(c.actions[0].Mx, 5e6, 1e-3);
}

TEST(ColumnLoads, HeadsByAMap) {
    const std::string csv =
        "Mark,Axial "
        "(kN),X,Y,b[mm],h[mm],LC,Kind,Hx[kN],Hy[kN],Mx[kNm],My[kNm]\nA1,10,1,2,300,300,G,permanent,0,0,0,0\n";
    std::map<std::string, std::string> map;
    const std::string json =
        "{\"column\":\"Mark\",\"N\":\"Axial (kN)\",\"x\":\"X\",\"y\":\"Y\",\"width\":\"b[mm]\","
        "\"depth\":\"h\",\"case\":\"LC\",\"nature\":\"Kind\"}";
    EXPECT_EQ(formats::readColumnMap(json, map), "");
    const auto r = read(csv, map);
    ASSERT_EQ(r.error, "");
    EXPECT_EQ(r.set.columns[0].actions[0].N, 10e3);
    EXPECT_EQ(r.set.columns[0].x, 1000);
    EXPECT_NE(formats::readColumnMap(R"({"axial":"N"})", map), "");
    EXPECT_NE(formats::readColumnMap("[1]", map), "");
    EXPECT_NE(read(csv, {{"N", "not there"}}).error.find("not there"), std::string::npos);
}

TEST(ColumnLoads, BrokenRowsAreNamedAndTheirColumnsKeptOut) {
    const auto r = read(std::string(head) +
                        "A1,0,0,400,400,G,permanent,,100,0,0,0,0\n"     // 2
                        ",0,0,400,400,G,permanent,,100,0,0,0,0\n"       // 3 no name
                        "A2,0,0,400,400,G,permanent,,nan,0,0,0,0\n"     // 4
                        "A3,0,0,0,400,G,permanent,,100,0,0,0,0\n"       // 5
                        "A4,0,0,400,400,G,snow,,100,0,0,0,0\n"          // 6
                        "A5,0,0,400\n"                                  // 7
                        "A1,0,0,400,400,Q,imposed,B,10,0,0,0,0\n"       // 8
                        "A6,0,0,400,400,G,permanent,,1,0,0,0,0\n"       // 9
                        "A6,0,0,400,400,G,permanent,,2,0,0,0,0\n"       // 10 twice
                        "A7,0,0,400,400,G,permanent,,1,0,0,0,0\n"       // 11
                        "A7,1,0,400,400,Q,imposed,B,2,0,0,0,0\n"        // 12 elsewhere
                        "A8,0,0,400,400,G,permanent,,1e999,0,0,0,0\n"   // 13
                        "A9,0,0,400,400,G,permanent,,0x10,0,0,0,0\n");  // 14
    ASSERT_EQ(r.error, "");
    ASSERT_EQ(r.set.columns.size(), 1u);
    EXPECT_EQ(r.set.columns[0].name, "A1");
    for (const char* row :
         {"row 3:", "row 4:", "row 5:", "row 6:", "row 7:", "row 10:", "row 12:", "row 13:", "row 14:"})
        EXPECT_TRUE(told(r, row)) << row;
    EXPECT_FALSE(told(r, "row 2:") || told(r, "row 8:") || told(r, "row 9:"));
    EXPECT_TRUE(told(r, "Column A6 is not imported."));
}

TEST(ColumnLoads, UnusableTablesSayWhy) {
    EXPECT_NE(read("").error, "");
    EXPECT_NE(read("a,b\n1,2\n").error.find("lacks: column"), std::string::npos);
    std::string wrong = head;
    wrong.replace(wrong.find("N[kN]"), 5, "N[mm]");
    EXPECT_NE(read(wrong + "A1,0,0,400,400,G,permanent,,1,0,0,0,0\n").error.find("mm"), std::string::npos);
    EXPECT_NE(read(head).error, "");
    EXPECT_NE(read(std::string(head) + "A1,0,0,-1,400,G,permanent,,1,0,0,0,0\n").error, "");
}

// A large table with broken rows among it, and tables of noise: sentences, never a crash.
TEST(ColumnLoads, HundredThousandRowsAndNoise) {
    std::string csv = head;
    for (int i = 0; i < 100000; ++i)
        csv += i % 1000 == 7 ? "broken,row\n"
                             : "C" + std::to_string(i) + "," + std::to_string(i % 300) +
                                   ",0,400,400,G,permanent,,100,0,0,0,0\n";
    const auto r = read(csv);
    ASSERT_EQ(r.error, "");
    EXPECT_EQ(r.set.columns.size(), 99900u);
    EXPECT_EQ(r.keptOut.size(), 101u) << "the rows, and the column that all of them name";
    std::mt19937 random(1);
    for (int k = 0; k < 300; ++k) {
        std::string noise = k % 2 ? head : "";
        const std::string pieces[] = {",",     "\"", "\n",        "A1", "nan", "-",
                                      "1e308", ";",  "permanent", "\r", "\0x"};
        for (int i = 0; i < 200; ++i) noise += pieces[random() % std::size(pieces)];
        (void)read(noise);
    }
}

TEST(ColumnLoads, GroundNamesTheKeyThatIsWrong) {
    auto why = [](const char* json) {
        auto p = model::emptyProject();
        model::BaseSet set;
        std::string source;
        return formats::readGround(json, p, set, source);
    };
    EXPECT_EQ(why(R"({"kind":"pads","allowable_kPa":150,"allowable_is":"net"})"), "");
    EXPECT_EQ(why(R"({"kind":"pads","bearing":{"c_kPa":5,"phi_deg":30,"unit_weight_kN_m3":18}})"), "");
    for (auto [json, key] :
         {std::pair(R"({"allowable_kPa":150,"allowable_is":"net"})", "kind"),
          {R"({"kind":"pads"})", "allowable_kPa"},
          {R"({"kind":"pads","allowable_kPa":150})", "allowable_is"},
          {R"({"kind":"pads","allowable_kPa":-5,"allowable_is":"net"})", "allowable_kPa"},
          {R"({"kind":"pads","allowable_kPa":"x","allowable_is":"net"})", "allowable_kPa"},
          {R"({"kind":"caps"})", "pile"},
          {R"({"kind":"caps","pile":{"diameter_mm":600,"compression_kN":0,"at":"service"}})",
           "compression_kN"},
          {R"({"kind":"pads","allowable_kPa":150,"allowable_is":"net","colour":1})", "colour"},
          {R"({"kind":"pads","bearing":{"phi":30}})", "phi"},
          {R"({"kind":"pads","standard":"bs","allowable_kPa":1,"allowable_is":"net"})", "standard"},
          {"[]", "object"}})
        EXPECT_NE(why(json).find(key), std::string::npos) << json << ": " << why(json);
}

// The same columns however the table is written.
TEST(ColumnLoads, OneTableInManyHands) {
    const std::string rows[] = {"A1;0,5;0;400;400;G;permanent;;1050,5;;;;12,25",
                                "B1;6,25;0;400;400;G;permanent;;700;0;0;0;0"};
    const std::string heads =
        "column;x[m];y[m];width[mm];depth[mm];case;nature;use;N[kN];Hx[kN];Hy[kN];Mx[kNm];My[kNm]";
    auto with = [](std::string text, char from, char to) {
        std::replace(text.begin(), text.end(), from, to);
        return text;
    };
    const std::string semicolons = heads + "\n" + rows[0] + "\n" + rows[1] + "\n";
    std::string points = with(semicolons, ',', '.');
    std::string utf16 = "\xFF\xFE";
    for (char c : semicolons) utf16 += c, utf16 += '\0';
    std::string bigEndian;
    for (char c : semicolons) bigEndian += '\0', bigEndian += c;
    std::string thousands = points;
    thousands.replace(thousands.find("1050.5"), 6, "1,050.5");
    for (const auto& text :
         {semicolons, "sep=;\r\n" + semicolons,
          "Loads of the ferry landing, revision A, for the bases\n\n" + semicolons,
          with(semicolons, ';', '\t'), points, with(points, ';', ','), "sep=,\n" + with(points, ';', ','),
          thousands, with(thousands, ';', '\t'), formats::asUtf8(utf16), formats::asUtf8(bigEndian)}) {
        const auto r = read(text);
        ASSERT_EQ(r.error, "") << text;
        EXPECT_TRUE(r.keptOut.empty()) << text;
        ASSERT_EQ(r.set.columns.size(), 2u) << text;
        EXPECT_NEAR(r.set.columns[0].x, 500, 1e-9);
        EXPECT_NEAR(r.set.columns[1].x, 6250, 1e-9);
        EXPECT_NEAR(r.set.columns[0].actions[0].N, 1050.5e3, 1e-6);
        EXPECT_NEAR(r.set.columns[0].actions[0].My, 12.25e6, 1e-3);
        EXPECT_EQ(r.set.columns[0].actions[0].Hx, 0);
    }
    // Between commas a comma in a figure is doubtful, unless there is a point as well.
    const auto doubtful = read(with(points, ';', ',') + "C1,\"1,050\",0,400,400,G,permanent,,1,0,0,0,0\n");
    EXPECT_TRUE(told(doubtful, "row 4:"));
    EXPECT_EQ(doubtful.set.columns.size(), 2u);
}

TEST(ColumnLoads, QuotesAndLineBreaksCostNoOtherColumn) {
    const std::string good = "A1,0,0,400,400,G,permanent,,100,0,0,0,0\n";
    const auto open = read(std::string(head) + good + "\"B1,1,0,400,400,G,permanent,,100,0,0,0,0\n" +
                           "C1,2,0,400,400,G,permanent,,100,0,0,0,0\n");
    EXPECT_NE(open.error.find("Row 3 "), std::string::npos) << open.error;
    const auto broken = read(std::string(head) + good + "\"B\n1\",1,0,400,400,G,permanent,,100,0,0,0,0\n" +
                             "C1,2,0,400,400,G,permanent,,100,0,0,0,0\n");
    EXPECT_EQ(broken.error, "");
    EXPECT_EQ(broken.set.columns.size(), 2u);
    EXPECT_TRUE(told(broken, "row 3:"));
    // A place or a size that is left blank is no nought.
    const auto blank = read(std::string(head) + good + "B1,,0,400,400,G,permanent,,100,0,0,0,0\n");
    EXPECT_TRUE(told(blank, "row 3:"));
}

TEST(ColumnLoads, TheTableToFillInCanBeRead) {
    for (auto system : {units::System::Metric, units::System::UsCustomary}) {
        const auto r = read(formats::columnLoadsTemplate(system));
        EXPECT_EQ(r.error, "");
        EXPECT_TRUE(r.keptOut.empty());
        EXPECT_EQ(r.set.columns.size(), 2u);
        EXPECT_EQ(r.set.cases.size(), 3u);
    }
}

// Inch-pound bases begin with what is round in their units, and hold.
TEST(ColumnLoads, GroundInInchPound) {
    auto project = model::emptyProject();
    auto loads =
        formats::readColumnLoads(formats::columnLoadsTemplate(units::System::UsCustomary), {}, project);
    ASSERT_EQ(loads.error, "");
    std::string source;
    ASSERT_EQ(formats::readGround(R"({"kind":"pads","standard":"aci318-us","allowable_kPa":190,
                                      "allowable_is":"gross"})",
                                  project, loads.set, source),
              "");
    EXPECT_EQ(project.basis.units, units::System::UsCustomary);
    EXPECT_NEAR(project.basis.foundation.strength, 4000 * 0.00689476, 0.01);
    loads.set.id = "f1";
    const auto answer = design::designBases(std::make_shared<model::BaseSet>(loads.set), project.basis,
                                            standards::makeStandard("aci318-us"));
    ASSERT_EQ(answer->bases.size(), 2u);
    for (const auto& b : answer->bases) {
        EXPECT_EQ(b->trouble(), "");
        for (const auto& c : b->checks) EXPECT_NE(c.outcome, checks::Outcome::Over) << c.title;
        // Steps of 3 in.
        for (double v : {b->size().B, b->size().L, b->size().h})
            EXPECT_NEAR(std::remainder(v, 76.2), 0, 1e-6) << v;
        EXPECT_EQ(b->bottom()[0].bar->name.substr(0, 1), "#");
    }
}
