// What leaves the core: schedule tables, results, DXF read back by the library's own reader, drawing and
// report.
#include <dxflib/dl_creationadapter.h>
#include <dxflib/dl_dxf.h>
#include <gtest/gtest.h>

#include <cmath>
#include <filesystem>
#include <nlohmann/json.hpp>
#include <sstream>

#include "drawing/slab_sheet.h"
#include "formats/dxf.h"
#include "formats/project_file.h"
#include "formats/tables.h"
#include "model/edits.h"
#include "report/report.h"
#include "support/reference.h"

using namespace talvik;
namespace fs = std::filesystem;

namespace {

struct Demo {
    model::Project project = formats::demoProject();
    design::Design design = design::run(project);
    const model::OneWaySlab& slab = *project.slabs[0];
    drawing::Sheet sheet = drawing::slabSheet(project, design, design.slab(0));
};
std::string temporary(const char* name) {
    return (fs::temp_directory_path() / (std::to_string(::getpid()) + name)).string();
}

struct Reader : DL_CreationAdapter {
    int layers = 0, polylines = 0, texts = 0, circles = 0;
    double xMin = 1e300, xMax = -1e300;
    std::string allText;
    void addLayer(const DL_LayerData&) override { ++layers; }
    void addPolyline(const DL_PolylineData&) override { ++polylines; }
    void addVertex(const DL_VertexData& v) override {
        xMin = std::min(xMin, v.x), xMax = std::max(xMax, v.x);
    }
    void addText(const DL_TextData& t) override { ++texts, allText += t.text + "\n"; }
    void addCircle(const DL_CircleData&) override { ++circles; }
};

}  // namespace

TEST(Dxf, ReadsBackAtFullSize) {
    Demo demo;
    std::string path = temporary(".dxf");
    ASSERT_EQ(formats::writeDxf(path, demo.sheet), "");
    Reader reader;
    DL_Dxf dxf;
    ASSERT_TRUE(dxf.in(path, &reader));
    std::size_t texts = 0, circles = 0;
    for (const auto& item : demo.sheet.items)
        texts += std::holds_alternative<drawing::Text>(item),
            circles += std::holds_alternative<drawing::Circle>(item);
    EXPECT_EQ(reader.texts, static_cast<int>(texts));
    EXPECT_EQ(reader.circles, static_cast<int>(circles));
    EXPECT_GT(reader.polylines, 50);
    EXPECT_EQ(reader.layers, static_cast<int>(drawing::layers().size()) + 1);
    EXPECT_NEAR(reader.xMax - reader.xMin, (demo.sheet.width - 30) * demo.sheet.scale, 1)
        << "the frame, at full size";
    for (const auto& item : demo.design.slab(0).items)
        if (item.layer == "B1") {
            EXPECT_NE(reader.allText.find(schedule::callout(item, demo.design.marks, units::System::Metric)),
                      std::string::npos);
        }
    std::string first = test::readText(path);
    ASSERT_EQ(formats::writeDxf(path, demo.sheet), "");
    EXPECT_EQ(test::readText(path), first) << "equal drawings are equal files";
    fs::remove(path);
    EXPECT_NE(formats::writeDxf("/nonexistent/x.dxf", demo.sheet), "");
}

// U+1F6A2 by RFC 2781: 0xF6A2 is 0x3D of ten bits and 0x2A2.
TEST(Dxf, LettersBeyondFourDigitsAreTwo) {
    Demo demo;
    drawing::Text text;
    text.height = 3, text.text = "Pier \U0001F6A2 \u00f6";
    demo.sheet.items.push_back(text);
    const std::string path = temporary(".dxf");
    ASSERT_EQ(formats::writeDxf(path, demo.sheet), "");
    EXPECT_NE(test::readText(path).find("Pier \\U+D83D\\U+DEA2 \\U+00F6"), std::string::npos);
    fs::remove(path);
}

TEST(Drawing, StaysOnItsPaperAndShowsEveryRun) {
    Demo demo;
    auto inside = [&](drawing::Point p) {
        return p.x > -1 && p.y > -1 && p.x < demo.sheet.width + 1 && p.y < demo.sheet.height + 1;
    };
    std::string text;
    for (const auto& item : demo.sheet.items) {
        if (const auto* line = std::get_if<drawing::Polyline>(&item)) {
            for (auto p : line->points) EXPECT_TRUE(inside(p)) << p.x << " " << p.y;
        } else if (const auto* t = std::get_if<drawing::Text>(&item)) {
            EXPECT_TRUE(inside(t->at)) << t->text;
            EXPECT_GE(t->height, 1.8) << "legible on paper";
            text += t->text + "\n";
        }
    }
    for (const auto& run : demo.design.slab(0).bars)
        EXPECT_NE(text.find(demo.design.callout(demo.design.slab(0), run.id, units::System::Metric)),
                  std::string::npos)
            << run.id;
    for (const char* wanted : {"Sundvarg ferry landing", "SFL-201", "C30/37", "Cover: top 25 mm",
                               "Not checked by this calculation"})
        EXPECT_NE(text.find(wanted), std::string::npos) << wanted;
    EXPECT_EQ(text.find("NOT FOR CONSTRUCTION"), std::string::npos);
}

TEST(Drawing, WarnsWhereAChecksIsOver) {
    Demo demo;
    auto thin =
        model::editSlab(demo.project, "s1", [](model::OneWaySlab& s, model::Project&) { s.thickness = 130; });
    auto design = design::run(thin);
    auto sheet = drawing::slabSheet(thin, design, design.slab(0));
    bool warned = std::any_of(sheet.items.begin(), sheet.items.end(), [](const auto& item) {
        const auto* t = std::get_if<drawing::Text>(&item);
        return t && t->text.find("NOT FOR CONSTRUCTION") != std::string::npos;
    });
    EXPECT_TRUE(warned);
}

TEST(Drawing, TextIsBrokenIntoLinesThatFit) {
    for (const auto& line : drawing::wrapped("one two three four five six seven eight nine ten", 2.5, 30))
        EXPECT_LE(drawing::textWidth(line, 2.5), 30);
    EXPECT_EQ(drawing::wrapped("", 2, 10).size(), 0u);
}

TEST(Schedule, CsvHasARowPerMarkAndTotals) {
    Demo demo;
    std::string csv = formats::scheduleCsv(demo.project, demo.design);
    auto rows = test::rows(csv);
    const auto s = demo.design.schedule();
    ASSERT_EQ(rows.size(), s.rows.size() + s.totals.size() + 1);
    double mass = 0;
    for (std::size_t i = 0; i < s.rows.size(); ++i) {
        mass += std::stod(rows[i].at("Mass "));
        EXPECT_EQ(std::stoi(rows[i].at("In each")), s.rows[i].number);
    }
    EXPECT_NEAR(mass, s.mass, 0.01 * static_cast<double>(s.rows.size()));
    auto us = demo.project;
    us.basis.units = units::System::UsCustomary;
    EXPECT_NE(formats::scheduleCsv(us, demo.design).find("[in]"), std::string::npos);
}

TEST(Schedule, WorkbookIsWritten) {
    Demo demo;
    std::string path = temporary(".xlsx");
    ASSERT_EQ(formats::writeScheduleXlsx(path, demo.project, demo.design), "");
    std::string first = test::readText(path);
    EXPECT_EQ(first.substr(0, 2), "PK");
    EXPECT_GT(first.size(), 5000u);
    ASSERT_EQ(formats::writeScheduleXlsx(path, demo.project, demo.design), "");
    EXPECT_EQ(test::readText(path), first);
    fs::remove(path);
    EXPECT_NE(formats::writeScheduleXlsx("/nonexistent/a.xlsx", demo.project, demo.design), "");
}

TEST(Results, JsonCarriesTheSameChecks) {
    Demo demo;
    auto j = nlohmann::json::parse(formats::resultsJson(demo.project, demo.design));
    const auto& checks = demo.design.slab(0).checks;
    ASSERT_EQ(j["slabs"][0]["checks"].size(), checks.size());
    for (std::size_t i = 0; i < checks.size(); ++i) {
        const auto& c = j["slabs"][0]["checks"][i];
        EXPECT_EQ(c["key"], checks[i].key);
        EXPECT_EQ(c["outcome"], checks::name(checks[i].outcome));
        if (c.contains("ratio")) {
            EXPECT_NEAR(c["ratio"].get<double>(), checks::ratio(checks[i]), 1e-4);
        }
        EXPECT_EQ(c.contains("steps") ? c["steps"].size() : 0, checks[i].steps.size());
    }
    EXPECT_EQ(j["summary"]["over"], 0);
}

TEST(Report, HoldsEveryCheckWithItsWorking) {
    Demo demo;
    std::string full =
        report::html(report::make(demo.project, demo.design, report::Depth::Full), report::Target::Page);
    std::string brief =
        report::html(report::make(demo.project, demo.design, report::Depth::Summary), report::Target::Page);
    EXPECT_GT(full.size(), brief.size() * 3 / 2);
    auto escaped = [](std::string s) {
        for (std::size_t at = 0; (at = s.find('&', at)) != std::string::npos; at += 5)
            s.replace(at, 1, "&amp;");
        return s;
    };
    for (const auto& c : demo.design.slab(0).checks) {
        EXPECT_NE(full.find(escaped(c.title)), std::string::npos) << c.title;
        EXPECT_NE(brief.find(escaped(c.title)), std::string::npos);
        for (const auto& step : c.steps)
            EXPECT_NE(full.find(trace::formula(step, trace::Form::Html)), std::string::npos)
                << step.expression;
    }
    for (const char* wanted : {"Cross-check", "Reactions", "Basis of design", "<svg", "Bars"})
        EXPECT_NE(full.find(wanted), std::string::npos) << wanted;
    EXPECT_EQ(full, report::html(report::make(demo.project, demo.design, report::Depth::Full),
                                 report::Target::Page));
}

TEST(Report, HostileNamesAreEscaped) {
    Demo demo;
    demo.project.name = "<script>alert(1)</script> & \"Co\"";
    std::string html =
        report::html(report::make(demo.project, demo.design, report::Depth::Summary), report::Target::Page);
    EXPECT_EQ(html.find("<script>"), std::string::npos);
    EXPECT_NE(html.find("&lt;script&gt;"), std::string::npos);
}
