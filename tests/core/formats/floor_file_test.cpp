// Floors in the project file, and fields of their analysis as text.
#include <gtest/gtest.h>

#include <nlohmann/json.hpp>

#include "design/floors.h"
#include "formats/fields.h"
#include "formats/project_file.h"
#include "model/edits.h"
#include "support/random_floor.h"
#include "support/reference.h"

using namespace talvik;

TEST(FloorFile, RoundTripsEveryMember) {
    for (unsigned seed = 1; seed <= 40; ++seed) {
        model::Project p = model::emptyProject();
        auto f = test::randomFloor(seed);
        p.floors.push_back(std::make_shared<model::Floor>(f));
        p.nextId = 1000;
        std::string text = formats::projectText(p);
        auto read = formats::readProject(text);
        ASSERT_TRUE(read.trouble.empty()) << seed << " " << formats::sentences(read.trouble);
        EXPECT_EQ(formats::projectText(read.project), text) << seed;
        ASSERT_EQ(read.project.floors.size(), 1u);
        const auto& g = *read.project.floors[0];
        EXPECT_EQ(g.columns.size(), f.columns.size());
        EXPECT_EQ(g.choices, f.choices);
        EXPECT_NEAR(g.columns[0].x, f.columns[0].x, 1e-6);
        p.nextId = 1;
        EXPECT_GT(formats::readProject(formats::projectText(p)).project.nextId, 5)
            << "ids of floors count as used";
    }
}

namespace {

// What project files of version 6 did not have.
void beforeIssue(nlohmann::json& j) {
    j.erase("bases");
    j.erase("revisions");
    j["basis"].erase("length_step_mm");
    if (j["basis"].contains("rates"))
        for (const char* key : {"bar_mark", "bar_piece", "stronger_m3_MPa"}) j["basis"]["rates"].erase(key);
    for (auto& f : j["floors"])
        if (f.contains("strip_rules")) f["strip_rules"].erase("shear_links");
    for (const char* key : {"paper", "scale", "north_degrees", "every_bar"}) j["sheet"].erase(key);
    for (const char* list : {"slabs", "floors"})
        for (auto& e : j[list])
            for (const char* key : {"members", "cambers", "sag_lines"}) e.erase(key);
}
void beforeConnections(nlohmann::json& j) {
    beforeIssue(j);
    for (const char* key : {"stud_table", "stud_rails", "shear_steel"}) j["basis"].erase(key);
    for (auto& f : j["floors"])
        for (const char* key : {"connections", "fixed_eccentricity", "more_by_bending", "vibration"})
            f.erase(key);
}
// What a project file of version 2 did not have.
void makeOlder(nlohmann::json& j) {
    beforeConnections(j);
    j["talvik"] = 2;
    j.erase("sources");
    for (auto& slab : j["slabs"]) slab.erase("shear_links");
    for (const char* key : {"cover_foundation_mm", "link_bars", "materials", "minimum_steel", "rates",
                            "sag_limit_after_partitions_span_over", "sag_limit_span_over"})
        j["basis"].erase(key);
    for (auto& f : j["floors"]) {
        for (const char* key :
             {"grids", "underlays", "panels", "combinations", "imposed_arrangement", "strip_rules",
              "strip_areas", "strip_edges", "strips_drawn", "span_ends", "bars"})
            f.erase(key);
        for (auto& s : f["slabs"]) s.erase("level_mm");
        for (auto& c : f["cases"]) c.erase("reduction_area_m2");
        for (auto& l : f["loads"]) l.erase("layers");
    }
}

}  // namespace

TEST(FloorFile, VersionTwoStillOpensWithOneMaterialForAll) {
    model::Project p = formats::demoFloorProject();
    auto j = nlohmann::json::parse(formats::projectText(p));
    makeOlder(j);
    j["basis"]["concrete_strength_MPa"] = 35.0;
    auto read = formats::readProject(j.dump());
    ASSERT_TRUE(read.trouble.empty()) << formats::sentences(read.trouble);
    EXPECT_EQ(read.project.basis.column.strength, 35);
    EXPECT_EQ(read.project.floors[0]->columns, p.floors[0]->columns);
    EXPECT_TRUE(read.project.floors[0]->grids.empty());
}

TEST(FloorFile, TemplatesCarryTheBasisAlone) {
    model::Basis b;
    b.beam.strength = 45, b.rates.steel.price = 2.5, b.linkBars = {"H10"}, b.minimumSteel = false;
    auto read = formats::readTemplate(formats::templateText(b));
    ASSERT_TRUE(read.trouble.empty()) << formats::sentences(read.trouble);
    EXPECT_EQ(formats::templateText(read.basis), formats::templateText(b));
    EXPECT_FALSE(formats::readTemplate(formats::projectText(model::newProject())).trouble.empty());
    EXPECT_FALSE(formats::readProject(formats::templateText(b)).trouble.empty());
    EXPECT_FALSE(formats::readTemplate("{").trouble.empty());
    b.beam.strength = 5;
    EXPECT_NE(formats::sentences(formats::readTemplate(formats::templateText(b)).trouble)
                  .find("basis.beam.strength"),
              std::string::npos);
}

TEST(FloorFile, VersionOneHasNoFloorsAndStillOpens) {
    model::Project p = model::newProject();
    auto j = nlohmann::json::parse(formats::projectText(p));
    makeOlder(j);
    j["talvik"] = 1;
    j.erase("floors");
    auto read = formats::readProject(j.dump());
    EXPECT_TRUE(read.trouble.empty()) << formats::sentences(read.trouble);
    EXPECT_EQ(read.project.slabs.size(), 1u);
}

TEST(FloorFile, NamesBadPlaces) {
    auto p = formats::demoFloorProject();
    auto j = nlohmann::json::parse(formats::projectText(p));
    auto told = [](const nlohmann::json& x) {
        return formats::sentences(formats::readProject(x.dump()).trouble);
    };
    auto bad = j;
    bad["floors"][0]["slabs"][0]["outline_mm"][1] = "corner";
    EXPECT_NE(told(bad).find("floors[0].slabs[0].outline_mm: Expected corners"), std::string::npos)
        << told(bad);
    bad = j;
    bad["floors"][0]["columns"][3]["bearing"] = "floating";
    EXPECT_NE(told(bad).find("floors[0].columns[3].bearing"), std::string::npos) << told(bad);
    bad = j;
    bad["floors"][0]["columns"][1]["id"] = bad["floors"][0]["columns"][0]["id"];
    EXPECT_NE(told(bad).find("is used twice"), std::string::npos) << told(bad);
    bad = j;
    bad["floors"][0].erase("walls");
    EXPECT_NE(told(bad).find("floors[0].walls: This is missing"), std::string::npos) << told(bad);
}

TEST(FloorFile, DemoIsCanonical) {
    std::string path = std::string(TALVIK_SOURCE_DIR) + "/demos/sundvarg_fish_hall.talvik";
    EXPECT_EQ(test::readText(path), formats::projectText(formats::demoFloorProject()));
}

TEST(Fields, CsvAndVtuHoldTheField) {
    auto a = design::analyseFloor(formats::demoFloorProject(), 0);
    ASSERT_TRUE(a.good());
    auto csv = formats::fieldText(a, "mx", "", "csv");
    ASSERT_EQ(csv.error, "");
    auto rows = test::rows(csv.text);
    ASSERT_EQ(rows.size(), a.model->points.node.size());
    auto values = a.field(analysis::Field::Mx, std::size_t(0));
    for (std::size_t i = 0; i < rows.size(); i += 97)
        EXPECT_NEAR(test::num(rows[i], "mx"), values[i] / 1000, 1e-3);
    EXPECT_EQ(test::rows(formats::fieldText(a, "deflection", "Hall", "csv").text).size(),
              a.model->plate.nodes.size());
    auto vtu = formats::fieldText(a, "all", "", "vtu").text;
    for (const char* part : {"<VTKFile type=\"UnstructuredGrid\"", "Name=\"connectivity\"",
                             "Name=\"mx [kNm/m]\"", "Name=\"deflection [mm]\"", "</VTKFile>"})
        EXPECT_NE(vtu.find(part), std::string::npos) << part;
    EXPECT_NE(vtu.find("NumberOfCells=\"" + std::to_string(a.model->plate.triangles.size()) + "\""),
              std::string::npos);
    EXPECT_NE(formats::fieldText(a, "colour", "", "csv").error.find("there are: deflection, mx"),
              std::string::npos);
    EXPECT_NE(formats::fieldText(a, "mx", "nothing", "csv").error.find("Ice store"), std::string::npos);
    EXPECT_EQ(formats::fieldText(a, "all", "", "vtu").text, vtu) << "the same every time";
}

TEST(FloorFile, WhatWasDecidedAboutStripsIsKept) {
    model::Project p = formats::demoFloorProject();
    auto f = std::make_shared<model::Floor>(*p.floors[0]);
    auto& s = f->strips;
    s.rules.ownAngles = true;
    s.rules.angle[0] = 12.5, s.rules.angle[1] = 95;
    s.rules.width = model::StripChoices::Width::Full;
    s.rules.twisting = model::StripChoices::Twisting::None;
    s.rules.outerTop = 1;
    s.rules.redistribution = 0.1;
    s.rules.automatic[1] = false;
    s.areas.push_back({"a900", "bay", {{0, 0}, {5000, 0}, {5000, 4000}}, {10, 100}});
    s.edges.push_back({"e900", 1, "c3", -1, 1234.5});
    s.drawn.push_back({"t900", "by hand", 1, 30, {{0, 0}, {5000, 0}, {5000, 4000}}});
    s.ends.push_back({"e901", "1/c3/column", "c3", -1, model::EndCondition::OnBeam});
    s.bars.push_back({"b900", "1/c3/column", model::Role::TopBand, -100, 2500, "H16", 125,
                      model::BarEnd::Hook, model::BarEnd::Straight});
    p.floors[0] = f;
    auto read = formats::readProject(formats::projectText(p));
    ASSERT_TRUE(read.trouble.empty()) << formats::sentences(read.trouble);
    EXPECT_TRUE(read.project.floors[0]->strips == s);
    // What cannot be is said with its place.
    auto bad = std::make_shared<model::Floor>(*f);
    bad->strips.bars[0].bar = "H17";
    bad->strips.drawn[0].direction = 7;
    p.floors[0] = bad;
    auto words = formats::sentences(formats::readProject(formats::projectText(p)).trouble);
    EXPECT_NE(words.find("H17"), std::string::npos);
    EXPECT_NE(words.find("direction 0 or 1"), std::string::npos);
}

// As version 11 had them: without precamber and limits of sag; what stands in such a file is not read.
TEST(FloorFile, VersionElevenOpensWithoutPrecamber) {
    for (const char* name : {"fish_hall_11", "gallery_11"}) {
        auto j = nlohmann::json::parse(
            test::readText(std::string(TALVIK_SOURCE_DIR) + "/tests/core/formats/older/" + name + ".talvik"));
        const auto read = formats::readProject(j.dump());
        ASSERT_TRUE(read.trouble.empty()) << formats::sentences(read.trouble);
        for (const auto& f : read.project.floors) EXPECT_TRUE(f->cambers.empty() && f->sagLines.empty());
        const auto text = formats::projectText(read.project);
        EXPECT_EQ(formats::projectText(formats::readProject(text).project), text);
    }
}
// Winds and accidents of floors, precamber and limits survive the file.
TEST(FloorFile, KeepsWindPrecamberAndLimitsOfSag) {
    auto p = formats::demoFloorProject();
    p = model::editFloor(p, p.floors[0]->id, [](model::Floor& f, model::Project&) {
        f.cambers.push_back({"k900", {3000, 3000}, 15});
        f.sagLines.push_back({"s900", "West", {300, 300}, {300, 9000}, model::SagLine::Of::Total, 12.5});
        f.actions.cases.push_back({"q900", "Storm", model::LoadCase::Nature::Wind, "B"});
        f.actions.cases.push_back({"q901", "Blast", model::LoadCase::Nature::Accidental, "B"});
    });
    const auto read = formats::readProject(formats::projectText(p));
    ASSERT_TRUE(read.trouble.empty()) << formats::sentences(read.trouble);
    EXPECT_TRUE(*read.project.floors[0] == *p.floors[0]);
    auto bad = model::editFloor(p, p.floors[0]->id, [](model::Floor& f, model::Project&) {
        f.sagLines[1].limit = -1;
        f.cambers[0].rise = 9000;
    });
    EXPECT_EQ(model::validate(bad).size(), 2u) << formats::sentences(model::validate(bad));
    // Names are bounded and hold no control characters.
    for (const std::string& name : {std::string("a\nb"), std::string("a\x1b[31m"), std::string(400, 'x')}) {
        auto named = p;
        named.name = name;
        EXPECT_EQ(model::validate(named).size(), 1u);
        EXPECT_EQ(formats::sentences(model::validate(named)).find('\x1b'), std::string::npos);
        named = model::editFloor(p, p.floors[0]->id,
                                 [&](model::Floor& f, model::Project&) { f.columns[0].name = name; });
        EXPECT_EQ(model::validate(named).size(), 1u);
    }
}

// As version 10 had them: sets of bases without a site, pedestals, starter bars of their own.
TEST(FloorFile, VersionTenOpensWithWhatIsNewAtRest) {
    for (const char* name : {"fish_hall_10", "gallery_10", "canopy_10"}) {
        const auto read = formats::openProject(std::string(TALVIK_SOURCE_DIR) + "/tests/core/formats/older/" +
                                               name + ".talvik");
        ASSERT_TRUE(read.trouble.empty()) << formats::sentences(read.trouble);
        EXPECT_EQ(read.project.bases.size(), name[0] == 'c' ? 1u : 0u);
        for (const auto& s : read.project.bases) {
            EXPECT_TRUE(s->site.empty() && s->ground.layers.empty() && s->leftOut.empty());
            EXPECT_EQ(s->ground.passiveShare, 0);
            EXPECT_EQ(s->bases.size(), 20u);
        }
        const auto text = formats::projectText(read.project);
        EXPECT_EQ(formats::projectText(formats::readProject(text).project), text);
    }
}

// As version 12 had them: no straps, level tops, no links in caps, nobody looks at vibration.
TEST(FloorFile, VersionTwelveOpensWithWhatIsNewAtRest) {
    for (const char* name : {"fish_hall_12", "gallery_12", "canopy_12"}) {
        const auto read = formats::openProject(std::string(TALVIK_SOURCE_DIR) + "/tests/core/formats/older/" +
                                               name + ".talvik");
        ASSERT_TRUE(read.trouble.empty()) << formats::sentences(read.trouble);
        EXPECT_EQ(read.project.bases.size(), name[0] == 'c' ? 1u : 0u);
        for (const auto& s : read.project.bases) {
            EXPECT_EQ(s->linkBar, "");
            for (const auto& b : s->bases)
                EXPECT_TRUE(b.top == model::BaseTop{} && b.strap == model::Strap{}) << b.id;
        }
        for (const auto& f : read.project.floors) EXPECT_FALSE(f->vibration.on);
        const auto text = formats::projectText(read.project);
        EXPECT_EQ(formats::projectText(formats::readProject(text).project), text);
    }
}

// As version 14 had them: no links in strips; what stronger concrete costs is the usual.
TEST(FloorFile, VersionFourteenOpensWithoutLinks) {
    for (const char* name : {"fish_hall_14", "gallery_14"}) {
        const auto read = formats::openProject(std::string(TALVIK_SOURCE_DIR) + "/tests/core/formats/older/" +
                                               name + ".talvik");
        ASSERT_TRUE(read.trouble.empty()) << formats::sentences(read.trouble);
        EXPECT_EQ(read.project.basis.rates.stronger, model::Rates{}.stronger);
        for (const auto& f : read.project.floors) EXPECT_FALSE(f->strips.rules.links);
        const auto text = formats::projectText(read.project);
        EXPECT_EQ(formats::projectText(formats::readProject(text).project), text);
    }
    EXPECT_TRUE(model::StripChoices{}.links) << "new floors have them where they are needed";
}

// As version 15 had them: no links in one-way slabs.
TEST(FloorFile, VersionFifteenOpensWithoutLinksInSlabs) {
    for (const char* name : {"fish_hall_15", "gallery_15"}) {
        const auto read = formats::openProject(std::string(TALVIK_SOURCE_DIR) + "/tests/core/formats/older/" +
                                               name + ".talvik");
        ASSERT_TRUE(read.trouble.empty()) << formats::sentences(read.trouble);
        EXPECT_EQ(read.project.slabs.size() + read.project.floors.size(), 1u);
        for (const auto& s : read.project.slabs) EXPECT_FALSE(s->shearLinks);
        const auto text = formats::projectText(read.project);
        EXPECT_EQ(formats::projectText(formats::readProject(text).project), text);
    }
    EXPECT_TRUE(model::OneWaySlab{}.shearLinks) << "new slabs have them where they are needed";
}

// The demos as version 6 had them: they open, and say again what they said.
TEST(FloorFile, VersionSixOpensWithoutConnections) {
    for (const char* name : {"fish_hall_6", "gallery_6"}) {
        const auto read = formats::openProject(std::string(TALVIK_SOURCE_DIR) + "/tests/core/formats/older/" +
                                               name + ".talvik");
        ASSERT_TRUE(read.trouble.empty()) << formats::sentences(read.trouble);
        EXPECT_TRUE(read.project.basis.studRails.empty());
        for (const auto& f : read.project.floors) EXPECT_TRUE(f->punching == model::FloorPunching{});
        const auto text = formats::projectText(read.project);
        EXPECT_EQ(formats::projectText(formats::readProject(text).project), text);
    }
}

// The demo as version 7 had it, with shear steel asked for at a column: it opens and says the same.
TEST(FloorFile, VersionSevenOpensWithItsConnections) {
    auto j = nlohmann::json::parse(
        test::readText(std::string(TALVIK_SOURCE_DIR) + "/tests/core/formats/older/fish_hall_7.talvik"));
    j["floors"][0]["connections"] = {
        {{"id", "p900"}, {"connection", "c112"}, {"shear_steel", "studs"}, {"diameter_mm", 14}}};
    const auto read = formats::readProject(j.dump());
    ASSERT_TRUE(read.trouble.empty()) << formats::sentences(read.trouble);
    const auto& p = read.project.floors[0]->punching;
    ASSERT_EQ(p.choices.size(), 1u);
    EXPECT_EQ(p.choices[0],
              (model::ConnectionChoice{"p900", "c112", model::ConnectionChoice::Steel::Studs, 14}));
    EXPECT_FALSE(p.moreByBending);
}

// The demos as version 8 had them.
TEST(FloorFile, VersionEightOpensWithoutRevisionsAndMembers) {
    for (const char* name : {"fish_hall_8", "gallery_8"}) {
        const auto read = formats::openProject(std::string(TALVIK_SOURCE_DIR) + "/tests/core/formats/older/" +
                                               name + ".talvik");
        ASSERT_TRUE(read.trouble.empty()) << formats::sentences(read.trouble);
        EXPECT_TRUE(read.project.revisions.empty());
        EXPECT_EQ(read.project.sheet.scale, 0);
        for (const auto& f : read.project.floors) EXPECT_EQ(f->members, 1);
        for (const auto& s : read.project.slabs) EXPECT_EQ(s->members, 1);
        auto now = name[0] == 'f' ? formats::demoFloorProject() : formats::demoProject();
        if (name[0] == 'f') {  // a limit of sag has come since
            now = model::editFloor(now, now.floors[0]->id,
                                   [](model::Floor& f, model::Project&) { f.sagLines.clear(); });
            now.nextId = read.project.nextId;
        } else {  // and links
            now = model::editSlab(now, now.slabs[0]->id, [](model::OneWaySlab& s, model::Project&) { s.shearLinks = false; });
        }
        EXPECT_TRUE(read.project == now) << "the same project as the demo that comes with the program";
    }
}

TEST(FloorFile, VersionFiveWroteTheBarsOfStripsDifferently) {
    auto j = nlohmann::json::parse(formats::projectText(formats::demoFloorProject()));
    j["talvik"] = 5;
    beforeConnections(j);
    auto& floor = j["floors"][0];
    floor.erase("bars");
    nlohmann::json bars{{"id", "b900"},    {"strip", "1/c3/column"}, {"top", true},  {"band", false},
                        {"from_mm", 0},    {"to_mm", 2500},          {"bar", "H16"}, {"spacing_mm", 125},
                        {"start", "hook"}, {"end", "straight"}};
    for (bool band : {false, true}) {
        bars["band"] = band;
        bars["id"] = band ? "b901" : "b900";
        floor["strip_bars"].push_back(bars);
    }
    auto read = formats::readProject(j.dump());
    ASSERT_TRUE(read.trouble.empty()) << formats::sentences(read.trouble);
    const auto& kept = read.project.floors[0]->strips.bars;
    ASSERT_EQ(kept.size(), 2u);
    EXPECT_EQ(kept[0], (model::BarRun{"b900", "1/c3/column", model::Role::TopMain, 0, 2500, "H16", 125,
                                      model::BarEnd::Hook, model::BarEnd::Straight}));
    EXPECT_EQ(kept[1].role, model::Role::TopBand);
}

TEST(FloorFile, VersionThreeOpensWithStripsByThemselves) {
    auto j = nlohmann::json::parse(formats::projectText(formats::demoFloorProject()));
    for (auto& f : j["floors"])
        for (const char* key :
             {"strip_rules", "strip_areas", "strip_edges", "strips_drawn", "span_ends", "bars"})
            f.erase(key);
    beforeConnections(j);
    j["talvik"] = 3;
    auto read = formats::readProject(j.dump());
    ASSERT_TRUE(read.trouble.empty()) << formats::sentences(read.trouble);
    EXPECT_TRUE(read.project.floors[0]->strips == model::FloorStrips{});
}
