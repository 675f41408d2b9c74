// What another kind of element has to bring: an answer with its parts. A plinth of one span with one check,
// made here, appears in margin, JSON, schedule, report and find, of which none has heard of it.
#include <gtest/gtest.h>

#include <nlohmann/json.hpp>

#include "drawing/long_section.h"
#include "formats/project_file.h"
#include "formats/tables.h"
#include "report/index.h"
#include "report/margin.h"
#include "report/report.h"
#include "verify/check_list.h"

using namespace talvik;

namespace {

// A strip of 1 m on two supports 4 m apart, with bars at the bottom.
struct PlinthLine : design::LineAnswer {
    line::Line line;
    std::vector<line::Station> stations;
    line::Demand demand;
    line::View view() const override { return {line, stations, demand}; }
};
struct PlinthAnswer : design::ElementAnswer {
    std::vector<design::Fact> facts(const std::optional<model::Spot>& spot, units::System) const override {
        return spot ? std::vector<design::Fact>{}
                    : std::vector<design::Fact>{{design::Fact::Kind::Pair, "Stones", "7"}};
    }
};

class SmallKind : public ::testing::Test {
  protected:
    model::Project project = formats::demoProject();
    std::shared_ptr<const standards::Standard> standard = standards::makeStandard("en1992");
    model::PartRef part{"k1", model::PartKind::OneWaySlab, "east"};

    std::shared_ptr<const PlinthAnswer> plinth() {
        auto d = std::make_shared<PlinthLine>();
        d->part = part;
        d->name = "East plinth";
        d->line.from = 0, d->line.to = 4000;
        for (double u : {0.0, 4000.0}) {
            line::Support s;
            s.id = u == 0 ? "u1" : "u2", s.name = u == 0 ? "W" : "E";
            s.u = s.from = s.to = u;
            d->line.supports.push_back(s);
        }
        line::Span span;
        span.id = "p1", span.name = "W–E", span.left = 0, span.right = 1;
        span.from = span.clearFrom = 0, span.to = span.clearTo = 4000;
        d->line.spans.push_back(span);
        const double w = 20;  // N/mm
        for (double u = 0; u <= 4000; u += 500) {
            line::Station s;
            s.u = u, s.span = 0, s.width = 1000, s.thickness = s.leastThickness = 300;
            d->stations.push_back(s);
            d->demand.bottom.push_back({w * u * (4000 - u) / 2, 0});
            d->demand.shear.push_back({std::abs(w * (2000 - u)), 0});
            d->demand.top.push_back({}), d->demand.bottomService.push_back({}),
                d->demand.topService.push_back({});
            d->demand.shearHogs.push_back(0);
        }
        const line::LineBasis in{project.basis, *standard};
        bars::Run run{{"bottom", "east", model::Role::BottomMain, 35, 3965, "H12", 150}};
        bars::size(run, 300, in);
        d->runs = {run};
        verify::fillCurves(*d, d->view(), in);
        verify::CheckList list("k1/east/");
        checks::Finding f;
        f.kind = units::Kind::Moment, f.demand = 40e6, f.limit = 32e6, f.clause = "its own rule";
        f.notes = {"A plinth is taken as lying on two points."};
        list.add({"bending", "Bending", checks::Topic::Flexure, checks::judged(f), {}},
                 {{part, model::Spot::In::Span, "p1"}, "span W–E", 2000, 0, 4000});
        d->checks = list.take();
        d->items = schedule::items(d->runs, {300, 1000}, in);
        auto e = std::make_shared<PlinthAnswer>();
        e->element = "k1", e->name = "Plinths";
        e->standard = standard;
        e->basis = std::make_shared<model::Basis>(project.basis);
        e->parts = {d};
        e->summarise();
        return e;
    }
    design::Design design() {
        auto answers = design::run(project, {.trace = false}).elements;
        answers.push_back(plinth());
        return design::joined(project, standard, answers);
    }
};

}  // namespace

TEST_F(SmallKind, IsCountedAndHasMarksOfItsOwn) {
    const auto d = design();
    EXPECT_EQ(d.summary().over, 1);
    const auto& line = *d.find("k1")->parts[0];
    EXPECT_EQ(d.callout(line, "bottom", units::System::Metric).substr(0, 6), "8 H12-")
        << "7 gaps of 150 in 930";
    std::set<int> marks;
    for (const auto& [what, mark] : d.marks) EXPECT_TRUE(marks.insert(mark).second) << what;
}

TEST_F(SmallKind, AppearsInTheMargin) {
    const auto d = design();
    auto has = [](const std::vector<report::MarginLine>& lines, report::MarginLine::Kind kind,
                  const char* text) {
        return std::any_of(lines.begin(), lines.end(), [&](const auto& l) {
            return l.kind == kind && (l.check ? l.check->title : l.text).find(text) != std::string::npos;
        });
    };
    using Kind = report::MarginLine::Kind;
    const auto state = report::margin(project, d, {"k1", {}});
    EXPECT_TRUE(has(state, Kind::Check, "Bending"));
    EXPECT_TRUE(has(state, Kind::Note, "lying on two points")) << "what it assumes";
    EXPECT_TRUE(has(state, Kind::Pair, "Stones"));
    const auto whole = report::margin(project, d, {"k1", model::Spot{part, model::Spot::In::Whole, {}}});
    EXPECT_TRUE(has(whole, Kind::Title, "East plinth"));
    EXPECT_TRUE(has(whole, Kind::Remedies, ""));
    const auto span = report::margin(project, d, {"k1", model::Spot{part, model::Spot::In::Span, "p1"}});
    EXPECT_TRUE(has(span, Kind::Title, "Span W–E") && has(span, Kind::Check, "Bending"));
    const auto support = report::margin(project, d, {"k1", model::Spot{part, model::Spot::In::Support, "u1"}});
    EXPECT_FALSE(has(support, Kind::Check, "Bending"));
    const auto run = report::margin(project, d, {"k1", model::Spot{part, model::Spot::In::Run, "bottom"}});
    EXPECT_TRUE(has(run, Kind::Title, "8 H12-") && has(run, Kind::Pair, "Mark"));
}

TEST_F(SmallKind, AppearsInFilesAndReport) {
    const auto d = design();
    const auto j = nlohmann::json::parse(formats::resultsJson(project, d));
    ASSERT_EQ(j["elements"].size(), 1u);
    EXPECT_EQ(j["elements"][0]["name"], "Plinths");
    EXPECT_EQ(j["elements"][0]["parts"][0]["checks"][0]["outcome"], "over");
    EXPECT_EQ(j["elements"][0]["parts"][0]["bars"][0]["bar"], "H12");
    EXPECT_EQ(j["summary"]["over"], 1);
    EXPECT_NE(formats::scheduleCsv(project, d).find("\nPlinths,"), std::string::npos);
    const auto html = report::html(report::make(project, d, report::Depth::Full), report::Target::Page);
    for (const char* wanted : {"Plinths", "Bending", "its own rule", "8 H12-"})
        EXPECT_NE(html.find(wanted), std::string::npos) << wanted;
}

TEST_F(SmallKind, IsFound) {
    const auto d = design();
    const auto all = report::index(d, "k1", units::System::Metric);
    auto found = [&](const char* text) {
        return std::find_if(all.begin(), all.end(),
                            [&](const auto& e) { return e.text.find(text) != std::string::npos; });
    };
    ASSERT_NE(found("support W"), all.end());
    EXPECT_EQ(found("support W")->spot, (model::Spot{part, model::Spot::In::Support, "u1"}));
    EXPECT_EQ(found("8 H12-")->spot.id, "bottom");
    EXPECT_EQ(found("Bending")->check, "k1/east/p1/bending");
    EXPECT_NE(found("Flexure bottom"), all.end()) << "and the slab beside it";
}

TEST_F(SmallKind, HasALongSection) {
    const auto d = design();
    const auto& line = dynamic_cast<const design::LineAnswer&>(*d.find("k1")->parts[0]);
    const auto s = drawing::longSection(line, project.basis, d.marks);
    EXPECT_EQ(s.supports.size(), 2u);
    ASSERT_EQ(s.bars.size(), 1u);
    EXPECT_EQ(s.bars[0].fromFace, project.basis.coverBottom + 6);
    ASSERT_FALSE(s.rows.empty());
    EXPECT_LE(s.rows[0].low, -40e6 / 1000);
}
