// DXF drawings of two writers, damaged ones, and what becomes of their lines.
#include "formats/dxf_reading.h"

#include <dxflib/dl_dxf.h>
#include <gtest/gtest.h>

#include <cmath>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <random>

#include "formats/import_map.h"
#include "model/edits.h"
#include "support/likeness.h"
#include "support/reference.h"

using namespace talvik;
using layout::As;
using model::Outline;

namespace {

std::string source(const char* name) {
    return std::string(TALVIK_SOURCE_DIR) + "/" + name;
}
std::string entities(const std::string& body) {
    return "0\nSECTION\n2\nENTITIES\n" + body + "0\nENDSEC\n0\nEOF\n";
}
// What a drawing shows, whatever the order of its paths: lengths and corners as text.
std::vector<std::string> summary(const layout::Linework& work) {
    std::vector<std::string> all;
    for (const auto& p : work.paths) {
        std::string s = work.layers[std::size_t(p.layer)] + (p.closed ? " closed" : " open");
        for (const auto& c : p.corners) {
            char text[80];
            std::snprintf(text, sizeof text, " (%.3f,%.3f,%.5f)", c.x + 0.0, c.y + 0.0,
                          p.closed || &c != &p.corners.back() ? c.bulge + 0.0 : 0.0);
            s += text;
        }
        for (std::size_t at; (at = s.find("-0.000")) != std::string::npos && !std::isdigit(s[at + 6]);)
            s.erase(at, 1);
        all.push_back(s);
    }
    std::sort(all.begin(), all.end());
    return all;
}

// The same drawing by dxflib: R2000.
void writeByDxflib(const std::string& path) {
    DL_Dxf dxf;
    std::unique_ptr<DL_WriterA> out(dxf.out(path.c_str(), DL_Codes::AC1015));
    ASSERT_TRUE(out);
    dxf.writeHeader(*out);
    out->dxfString(9, "$INSUNITS");
    out->dxfInt(70, 4);
    out->sectionEnd();
    out->sectionTables();
    dxf.writeVPort(*out);
    out->tableLinetypes(1);
    dxf.writeLinetype(*out, DL_LinetypeData("CONTINUOUS", "Continuous", 0, 0, 0));
    out->tableEnd();
    out->tableLayers(3);
    for (const char* name : {"0", "EDGE", "CURVES"})
        dxf.writeLayer(*out, DL_LayerData(name, 0), DL_Attributes("", 7, 25, "CONTINUOUS", 1.0));
    out->tableEnd();
    out->sectionEnd();
    out->sectionBlocks();
    dxf.writeBlock(*out, DL_BlockData("INNER", 0, 10, 20, 0));
    dxf.writeLine(*out, DL_LineData(10, 20, 0, 110, 20, 0), DL_Attributes("0", 256, -1, "BYLAYER", 1.0));
    dxf.writeEndBlock(*out, "INNER");
    dxf.writeBlock(*out, DL_BlockData("OUTER", 0, 0, 0, 0));
    dxf.writeInsert(*out, DL_InsertData("INNER", 500, 0, 0, 2, 2, 1, 90, 1, 1, 0, 0),
                    DL_Attributes("0", 256, -1, "BYLAYER", 1.0));
    dxf.writeCircle(*out, DL_CircleData(0, 0, 0, 50), DL_Attributes("CURVES", 256, -1, "BYLAYER", 1.0));
    dxf.writeEndBlock(*out, "OUTER");
    out->sectionEnd();
    out->sectionEntities();
    DL_Attributes edge("EDGE", 256, -1, "BYLAYER", 1.0), curves("CURVES", 256, -1, "BYLAYER", 1.0);
    dxf.writePolyline(*out, DL_PolylineData(4, 0, 0, 1), edge);
    dxf.writeVertex(*out, DL_VertexData(0, 0, 0, 0.5));
    dxf.writeVertex(*out, DL_VertexData(9000, 0, 0, 0));
    dxf.writeVertex(*out, DL_VertexData(9000, 6000, 0, -0.25));
    dxf.writeVertex(*out, DL_VertexData(0, 6000, 0, 0));
    dxf.writePolylineEnd(*out);
    dxf.writeLine(*out, DL_LineData(100, 200, 0, 300, 400, 0), edge);
    dxf.writeArc(*out, DL_ArcData(1000, 1000, 0, 500, 30, 300), curves);
    dxf.writeCircle(*out, DL_CircleData(4000, 3000, 0, 250), curves);
    dxf.writeEllipse(*out, DL_EllipseData(2000, 2000, 0, 800, 0, 0, 0.5, 0, 2 * M_PI), curves);
    dxf.writeSpline(*out, DL_SplineData(3, 10, 6, 0, 8), curves);
    for (double k : {0., 0., 0., 0., 1., 2., 3., 3., 3., 3.}) dxf.writeKnot(*out, DL_KnotData(k));
    for (int i = 0; i < 6; ++i)
        dxf.writeControlPoint(*out, DL_ControlPointData(1000.0 * i, i % 2 ? 700 : 0, 0, 1));
    dxf.writeInsert(*out, DL_InsertData("OUTER", 7000, 4000, 0, 1, 1, 1, 30, 2, 1, 400, 0), edge);
    out->sectionEnd();
    out->dxfEOF();
    out->close();
}

// And by ezdxf, from Debian's python3-ezdxf; the script says why when that is not there.
const char* ezdxfScript = R"(
import sys, ezdxf
version, path = sys.argv[1], sys.argv[2]
doc = ezdxf.new(version, setup=False)
doc.header['$INSUNITS'] = 4
for name in ('EDGE', 'CURVES'):
    doc.layers.new(name)
inner = doc.blocks.new('INNER', base_point=(10, 20))
inner.add_line((10, 20), (110, 20), dxfattribs={'layer': '0'})
outer = doc.blocks.new('OUTER')
outer.add_blockref('INNER', (500, 0), dxfattribs={'xscale': 2, 'yscale': 2, 'rotation': 90, 'layer': '0'})
outer.add_circle((0, 0), 50, dxfattribs={'layer': 'CURVES'})
space = doc.modelspace()
points = [(0, 0, 0.5), (9000, 0, 0), (9000, 6000, -0.25), (0, 6000, 0)]
if version == 'R12':
    space.add_polyline2d(points, format='xyb', close=True, dxfattribs={'layer': 'EDGE'})
else:
    space.add_lwpolyline(points, format='xyb', close=True, dxfattribs={'layer': 'EDGE'})
space.add_line((100, 200), (300, 400), dxfattribs={'layer': 'EDGE'})
space.add_arc((1000, 1000), 500, 30, 300, dxfattribs={'layer': 'CURVES'})
space.add_circle((4000, 3000), 250, dxfattribs={'layer': 'CURVES'})
if version != 'R12':
    space.add_ellipse((2000, 2000), (800, 0), 0.5, dxfattribs={'layer': 'CURVES'})
    spline = space.add_open_spline([(1000 * i, 700 if i % 2 else 0) for i in range(6)], degree=3,
                                   dxfattribs={'layer': 'CURVES'})
    spline.knots = [0, 0, 0, 0, 1, 2, 3, 3, 3, 3]
    space.add_text('left out')
space.add_blockref('OUTER', (7000, 4000), dxfattribs={'rotation': 30, 'layer': 'EDGE', 'column_count': 2,
                                                      'column_spacing': 400})
doc.saveas(path)
)";

}  // namespace

TEST(DxfReading, TwoIndependentWritersReadBackEqual) {
    auto folder = std::filesystem::temp_directory_path() / ("talvik_dxf_" + std::to_string(::getpid()));
    std::filesystem::create_directories(folder);
    std::string one = folder / "dxflib.dxf", script = folder / "make.py";
    writeByDxflib(one);
    auto a = formats::openDxf(one);
    ASSERT_TRUE(a.error.empty()) << a.error;
    EXPECT_EQ(a.work.unit, 1);
    EXPECT_TRUE(a.work.unitKnown);
    auto expected = summary(a.work);
    // Outline, line, arc, circle, ellipse, spline, and twice a line and a circle from blocks.
    ASSERT_EQ(expected.size(), 10u);
    std::ofstream(script) << ezdxfScript;
    for (const char* version : {"R12", "R2000", "R2007", "R2010", "R2013", "R2018"}) {
        std::string path = folder / (std::string(version) + ".dxf");
        ASSERT_EQ(std::system(("/usr/bin/python3 " + script + " " + version + " " + path).c_str()), 0)
            << "python3-ezdxf is listed in scripts/packages.txt; ./test installs it";
        auto b = formats::openDxf(path);
        ASSERT_TRUE(b.error.empty()) << b.error;
        auto got = summary(b.work);
        if (std::string(version) == "R12") {  // knows no ellipses and splines
            EXPECT_EQ(got.size(), 8u);
            for (const auto& line : got)
                EXPECT_NE(std::find(expected.begin(), expected.end(), line), expected.end()) << line;
        } else {
            EXPECT_EQ(got, expected) << version;
            EXPECT_EQ(b.work.unread.at("TEXT"), 1);
        }
    }
    // By hand: the inner line, 200 long after its scale, turned by 90 + 30 degrees, at OUTER's (500, 0).
    double c = std::cos(M_PI / 6), s = std::sin(M_PI / 6);
    bool found = false;
    for (const auto& p : a.work.paths) {
        if (p.closed || p.corners.size() != 2 || a.work.layers[std::size_t(p.layer)] != "EDGE") continue;
        found |= std::abs(p.corners[0].x - (7000 + 500 * c)) < 1e-6 &&
                 std::abs(p.corners[0].y - (4000 + 500 * s)) < 1e-6 &&
                 std::abs(p.corners[1].x - (7000 + 500 * c - 200 * s)) < 1e-6;
    }
    EXPECT_TRUE(found) << "the block's line takes the layer of what shows it";
    std::filesystem::remove_all(folder);
}

TEST(DxfReading, CurvesLieWhereTheyShould) {
    auto read =
        formats::readDxfText(entities("0\nARC\n8\nA\n10\n1000\n20\n2000\n40\n500\n50\n30\n51\n300\n"
                                      "0\nSPLINE\n8\nA\n71\n2\n40\n0\n40\n0\n40\n0\n40\n1\n40\n1\n40\n1\n"
                                      "10\n1000\n20\n0\n41\n1\n10\n1000\n20\n1000\n41\n0.70710678118654752\n"
                                      "10\n0\n20\n1000\n41\n1\n"));
    ASSERT_EQ(read.work.paths.size(), 2u);
    model::Underlay here;
    auto arc = read.work;
    arc.paths.pop_back();
    for (const auto& s : layout::segments(arc, here))
        EXPECT_NEAR(std::hypot(s.a.x - 1000, s.a.y - 2000), 500, 1e-6);
    // A rational quadratic draws a quarter circle exactly.
    for (const auto& c : read.work.paths[1].corners) EXPECT_NEAR(std::hypot(c.x, c.y), 1000, 1e-6);
    // Seen from below, a circle's centre is mirrored.
    auto mirrored = formats::readDxfText(entities("0\nCIRCLE\n8\nA\n10\n1000\n20\n0\n40\n5\n230\n-1\n"));
    ASSERT_EQ(mirrored.work.paths.size(), 1u);
    EXPECT_LT(mirrored.work.paths[0].corners[0].x, -990);
}

TEST(DxfReading, SaysWhatItCannotRead) {
    EXPECT_NE(formats::readDxfText("hello\nworld\n").error.find("Line 1 should hold a group code"),
              std::string::npos);
    EXPECT_NE(formats::readDxfText("").error.find("no sections"), std::string::npos);
    EXPECT_NE(formats::readDxfText(std::string("binary\0", 7)).error.find("binary"), std::string::npos);
    EXPECT_FALSE(formats::openDxf("/nowhere/plan.dxf").error.empty());
    auto cut = formats::readDxfText(
        "0\nSECTION\n2\nENTITIES\n0\nLINE\n8\nA\n10\n0\n20\n0\n11\n5\n21\n5\n0\nLINE\n8\n");
    EXPECT_EQ(cut.work.paths.size(), 1u);
    ASSERT_FALSE(cut.work.notes.empty());
    EXPECT_NE(cut.work.notes[0].find("ends early, at line 1"), std::string::npos);
    auto odd = formats::readDxfText(
        entities("0\nHATCH\n8\nA\n0\nMTEXT\n1\nx\n0\nMTEXT\n1\ny\n0\nLINE\n8\nA\n10\nx\n20\n0\n11\n1\n21\n1\n"
                 "0\nINSERT\n2\nNONE\n10\n0\n20\n0\n"));
    EXPECT_EQ(odd.work.unread.at("HATCH"), 1);
    EXPECT_EQ(odd.work.unread.at("MTEXT"), 2);
    EXPECT_EQ(odd.work.unread.at("LINE with values missing or damaged"), 1);
    EXPECT_EQ(odd.work.unread.at("INSERT of a block that is not there"), 1);
    // A block that holds itself, and a small file that asks for a thousand million lines.
    auto self = formats::readDxfText(
        "0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n2\nA\n10\n0\n20\n0\n0\nLINE\n10\n0\n20\n0\n11\n1\n21\n1\n0\nINSERT"
        "\n2\nA\n10\n1\n20\n0\n0\nENDBLK\n0\nENDSEC\n" +
        entities("0\nINSERT\n2\nA\n10\n0\n20\n0\n"));
    EXPECT_GT(self.work.unread.at("INSERT nested too deeply"), 0);
    auto bomb = formats::readDxfText(
        "0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n2\nA\n10\n0\n20\n0\n0\nLINE\n10\n0\n20\n0\n11\n1\n21\n1\n0\nENDBLK"
        "\n0\nBLOCK\n2\nB\n10\n0\n20\n0\n0\nINSERT\n2\nA\n10\n1\n20\n0\n70\n9999\n71\n9999\n0\nENDBLK\n0\nEND"
        "SEC\n" +
        entities("0\nINSERT\n2\nB\n10\n0\n20\n0\n70\n9999\n"));
    EXPECT_LE(bomb.work.paths.size(), 2000000u);
    bool said = false;
    for (const auto& n : bomb.work.notes) said |= n.find("more lines than can be shown") != std::string::npos;
    EXPECT_TRUE(said);
    // Layers that are off are listed as such, and other letters come through.
    auto layers = formats::readDxfText(
        "0\nSECTION\n2\nTABLES\n0\nTABLE\n2\nLAYER\n0\nLAYER\n2\nM\\U+00D6BEL\n62\n-"
        "7\n0\nLAYER\n2\nW\xC4NDE\n70\n0\n62\n7\n0\nLAYER\n2\n\\U+D83D\\U+DEA2\\U+D83D-\\U+DEA2\\U+-123"
        "\n62\n7\n0\nENDTAB\n0\nENDSEC\n" +
        entities(""));
    ASSERT_EQ(layers.work.layers.size(), 3u);
    // The two of UTF-16 are one letter, a half of them is none.
    EXPECT_EQ(layers.work.layers[2], "\U0001F6A2\\U+D83D-\\U+DEA2\\U+-123");
    EXPECT_EQ(layers.work.layers[0], "MÖBEL");
    EXPECT_EQ(layers.work.layers[1], "WÄNDE");
    EXPECT_TRUE(layers.work.offInFile[0] && !layers.work.offInFile[1]);
}

// Arrays of blocks that show nothing: few bytes, and millions of steps if each were gone through.
TEST(DxfReading, BlocksThatShowNothingCostLittle) {
    const auto drawing = [](const std::string& inner) {
        return "0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n2\nIN\n" + inner + "0\nENDBLK\n0\nENDSEC\n" +
               entities(
                   "0\nINSERT\n2\nIN\n70\n30000\n71\n30000\n41\n1e9\n42\n1e9\n0\nLINE\n10\n0\n20\n0\n11\n5\n2"
                   "1\n0\n");
    };
    // Texts alone: passed over at once, and nothing else is lost.
    const auto texts = formats::readDxfText(drawing("0\nTEXT\n10\n0\n20\n0\n40\n5\n1\nword\n"));
    ASSERT_EQ(texts.error, "");
    EXPECT_EQ(texts.work.paths.size(), 1u);
    for (const auto& n : texts.work.notes) EXPECT_EQ(n.find("left out"), std::string::npos) << n;
    // Blocks that are not there, and lines too far away: given up after a while, and told.
    for (const auto& [inner, what] :
         {std::pair("0\nINSERT\n2\nNOWHERE\n", "INSERT of a block that is not there"),
          std::pair("0\nLINE\n10\n1e6\n20\n0\n11\n0\n21\n0\n", "lines too far away")}) {
        const auto read = formats::readDxfText(drawing(inner));
        ASSERT_EQ(read.error, "");
        ASSERT_TRUE(read.work.unread.contains(what)) << what;
        EXPECT_LE(read.work.unread.at(what), 500'001) << what;
        bool told = false;
        for (const auto& n : read.work.notes) told |= n.find("left out") != std::string::npos;
        EXPECT_TRUE(told) << what;
        EXPECT_EQ(read.work.paths.size(), 1u);  // the line beside them
    }
}

TEST(DxfReading, TwoThousandDamagedFilesNeitherCrashNorHang) {
    std::string good = test::readText(source("demos/sundvarg_fish_hall.dxf"));
    std::mt19937 random(11);
    auto pick = [&](std::size_t n) { return std::uniform_int_distribution<std::size_t>(0, n - 1)(random); };
    std::vector<std::string> lines;
    for (std::size_t i = 0; i < good.size();) {
        std::size_t end = good.find('\n', i);
        lines.push_back(good.substr(i, end - i));
        i = end + 1;
    }
    int usable = 0;
    for (int k = 0; k < 2000; ++k) {
        std::string text = good;
        if (k % 3 == 0) {
            for (int m = 0; m < 20; ++m) text[pick(text.size())] = static_cast<char>(pick(256));
        } else if (k % 3 == 1) {
            text.resize(pick(text.size()));
        } else {
            auto all = lines;
            for (int m = 0; m < 15; ++m) {
                std::size_t i = pick(all.size());
                static const char* odd[] = {"1e308", "-1",     "nan",    "inf",    "999999999999", "",
                                            "0",     "INSERT", "SPLINE", "ENDBLK", "230"};
                switch (pick(3)) {
                    case 0:
                        all[i] = odd[pick(std::size(odd))];
                        break;
                    case 1:
                        all.erase(all.begin() + std::ptrdiff_t(i));
                        break;
                    default:
                        std::swap(all[i], all[pick(all.size())]);
                }
            }
            text.clear();
            for (const auto& l : all) text += l + "\n";
        }
        auto read = formats::readDxfText(text);
        if (!read.error.empty()) continue;
        ++usable;
        model::Underlay under = layout::placeAsDrawn(read.work, "x");
        for (const auto& s : layout::segments(read.work, under))
            ASSERT_TRUE(std::isfinite(s.a.x) && std::isfinite(s.b.y));
        if (k % 10 == 2) {
            auto imported = formats::importFloor(model::emptyProject(), read, "x.dxf",
                                                 test::readText(source("demos/sundvarg_fish_hall.map.json")));
            if (imported.trouble.empty()) {
                EXPECT_TRUE(model::validate(imported.project).empty());
            }
        }
    }
    EXPECT_GT(usable, 700);
}

TEST(Linework, JoinsLinesIntoOutlinesAndKnowsSections) {
    auto read =
        formats::readDxfText(entities("0\nLINE\n8\nA\n10\n0\n20\n0\n11\n4000\n21\n0\n"
                                      "0\nLINE\n8\nA\n10\n0\n20\n3000\n11\n0\n21\n2\n"
                                      "0\nARC\n8\nA\n10\n4000\n20\n1500\n40\n1500\n50\n270\n51\n90\n"
                                      "0\nLINE\n8\nA\n10\n4000\n20\n3000\n11\n1\n21\n3000\n"
                                      "0\nLINE\n8\nA\n10\n9000\n20\n0\n11\n9500\n21\n0\n"));
    model::Underlay here;
    auto joined = layout::join(read.work, here, {0, 1, 2, 3, 4});
    ASSERT_EQ(joined.closed.size(), 1u);
    ASSERT_EQ(joined.open.size(), 1u);
    EXPECT_NEAR(geometry::area(model::ring(joined.closed[0], 0.01)), 12e6 + M_PI * 1500 * 1500 / 2, 5e3);
    model::Project p;
    model::Floor f;
    std::vector<std::string> notes;
    layout::make(p, f, read.work, here, {0, 1, 2, 3, 4}, As::Slab, {}, notes);
    EXPECT_EQ(f.slabs.size(), 1u);
    ASSERT_EQ(notes.size(), 1u);
    EXPECT_NE(notes[0].find("does not close: 500 mm are missing"), std::string::npos);
    // Turned rectangle to column; long one to wall; circle in two arcs.
    auto outline = [](double x, double y, double w, double d, double degrees) {
        double t = degrees * M_PI / 180, c = std::cos(t), s = std::sin(t);
        Outline o;
        for (auto [u, v] : {std::pair(-0.5, -0.5), {0.5, -0.5}, {0.5, 0.5}, {-0.5, 0.5}})
            o.push_back({x + u * w * c - v * d * s, y + u * w * s + v * d * c});
        return o;
    };
    layout::Linework work;
    work.layers = {"A"}, work.offInFile = {false};
    work.paths = {{0, outline(1000, 2000, 500, 300, 30), true},
                  {0, outline(5000, 0, 200, 4000, 0), true},
                  {0, {{2750, 0, 1}, {3250, 0, 1}}, true},
                  {0, {{0, 0}, {500, 0}, {700, 300}, {0, 300}}, true}};
    notes.clear();
    layout::make(p, f, work, here, {0, 2, 3}, As::Column, {}, notes);
    ASSERT_EQ(f.columns.size(), 3u);
    EXPECT_NEAR(f.columns[0].angle, 30, 0.01);
    EXPECT_NEAR(f.columns[0].width, 500, 0.02);
    EXPECT_NEAR(f.columns[0].x, 1000, 0.02);
    EXPECT_TRUE(f.columns[1].circular && f.columns[1].width == 500 && f.columns[1].x == 3000);
    EXPECT_EQ(notes.size(), 1u) << "the four-sided one that is no rectangle";
    layout::make(p, f, work, here, {1}, As::Wall, {}, notes);
    ASSERT_EQ(f.walls.size(), 1u);
    EXPECT_EQ(f.walls[0].thickness, 200);
    EXPECT_EQ(f.walls[0].a, (geometry::Point{5000, -2000}));
    // Two points place a drawing, turn and scale it.
    model::Underlay under;
    layout::placeByTwoPoints(under, {0, 0}, {10, 0}, {1000, 1000}, {1000, 11000});
    EXPECT_NEAR(layout::placed(under, geometry::Point{10, 0}).y, 11000, 1e-9);
    EXPECT_NEAR(under.scale, 1000, 1e-9);
    EXPECT_NEAR(under.angle, 90, 1e-9);
}

TEST(ImportMap, MakesTheDemoFloorOfTheArchitectsPlan) {
    auto drawing = formats::openDxf(source("demos/sundvarg_fish_hall.dxf"));
    auto imported = formats::importFloor(model::emptyProject(), drawing, "sundvarg_fish_hall.dxf",
                                         test::readText(source("demos/sundvarg_fish_hall.map.json")));
    ASSERT_TRUE(imported.trouble.empty()) << formats::sentences(imported.trouble);
    ASSERT_EQ(imported.project.floors.size(), 1u);
    const auto& got = *imported.project.floors[0];
    const auto project = formats::demoFloorProject();
    const auto& demo = *project.floors[0];
    EXPECT_EQ(test::likeness(got), test::likeness(demo));
}

// Choices are named as in the window, and as maps named them before that.
TEST(ImportMap, ChoicesOfEarlierMapsAreUnderstood) {
    const auto drawing = formats::openDxf(source("demos/sundvarg_fish_hall.dxf"));
    std::string layer;
    for (std::size_t k = 0; k < drawing.work.layers.size(); ++k)
        if (drawing.work.layers[k].find("BEAM") != std::string::npos) layer = drawing.work.layers[k];
    ASSERT_NE(layer, "");
    for (const char* choice : {"above the slab", "upstand"}) {
        const auto imported =
            formats::importFloor(model::emptyProject(), drawing, "x.dxf",
                                 R"({"talvik_import":1,"make":[{"as":"beam","layers":[")" + layer +
                                     R"("],"set":{"upstand":")" + choice + R"("}}]})");
        ASSERT_TRUE(imported.trouble.empty()) << formats::sentences(imported.trouble);
        ASSERT_FALSE(imported.project.floors[0]->beams.empty());
        EXPECT_TRUE(imported.project.floors[0]->beams[0].upstand) << choice;
    }
}

TEST(ImportMap, NamesWhatIsWrongAndChangesNothing) {
    auto drawing = formats::openDxf(source("demos/sundvarg_fish_hall.dxf"));
    auto trouble = [&](const char* map) {
        auto imported = formats::importFloor(model::emptyProject(), drawing, "x.dxf", map);
        EXPECT_TRUE(imported.project.floors.empty());
        return imported.trouble.empty() ? std::string() : formats::sentences(imported.trouble);
    };
    EXPECT_NE(trouble("{").find("not complete JSON"), std::string::npos);
    EXPECT_NE(trouble("{}").find("not an import map"), std::string::npos);
    EXPECT_NE(trouble(R"({"talvik_import":1,"make":[{"as":"slob","layers":["VOID"]}]})")
                  .find("make[0].as: Expected one of: area load, beam"),
              std::string::npos);
    EXPECT_NE(
        trouble(R"({"talvik_import":1,"make":[{"as":"slab","layers":["NONE"]}]})").find("no layer \"NONE\""),
        std::string::npos);
    EXPECT_NE(
        trouble(R"({"talvik_import":1,"make":[{"as":"slab","layers":["VOID"],"set":{"thickness":"thick"}}]})")
            .find("make[0].set.thickness"),
        std::string::npos);
    EXPECT_NE(trouble(R"({"talvik_import":1,"make":[{"as":"slab","layers":["VOID"],"set":{"colour":"x"}}]})")
                  .find("no property \"colour\""),
              std::string::npos);
    EXPECT_NE(trouble(R"({"talvik_import":1,"make":[{"as":"line load","layers":["VOID"],"case":"Wind"}]})")
                  .find("no load case \"Wind\""),
              std::string::npos);
    EXPECT_NE(trouble(R"({"talvik_import":1,"make":[],"more":1})").find("more: This key is not known"),
              std::string::npos);
}
