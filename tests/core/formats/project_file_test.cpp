// The project file: round trips, located trouble for hostile input, a crash that leaves the old file whole.
#include "formats/project_file.h"

#include <gtest/gtest.h>
#include <sys/stat.h>

#include <filesystem>
#include <nlohmann/json.hpp>
#include <random>

#include "design/design.h"
#include "formats/file.h"
#include "support/chosen_bars.h"
#include "support/random_slab.h"
#include "support/reference.h"

using namespace talvik;
using formats::readProject;
namespace fs = std::filesystem;

namespace {

std::string trouble(const std::string& text) {
    return formats::sentences(readProject(text).trouble);
}
std::string changed(const std::function<void(nlohmann::json&)>& change) {
    auto j = nlohmann::json::parse(formats::projectText(formats::demoProject()));
    change(j);
    return j.dump();
}
fs::path scratch() {
    fs::path dir = fs::temp_directory_path() / ("talvik-test-" + std::to_string(::getpid()));
    fs::create_directories(dir);
    return dir;
}

}  // namespace

TEST(ProjectFile, RoundTripsToTheByte) {
    for (unsigned seed = 1; seed <= 60; ++seed) {
        model::Project p = test::chosenBars(test::randomProject(seed));
        p.basis.parameters["gamma_c"] = 1.45;
        std::string text = formats::projectText(p);
        auto read = readProject(text);
        ASSERT_TRUE(read.trouble.empty()) << formats::sentences(read.trouble);
        EXPECT_EQ(formats::projectText(read.project), text);
        EXPECT_EQ(read.project.slabs.size(), p.slabs.size());
        EXPECT_EQ(read.project.slabs[0]->bars.size(), p.slabs[0]->bars.size());
        EXPECT_NEAR(read.project.slabs[0]->imposed, p.slabs[0]->imposed, 1e-15);
    }
}

TEST(ProjectFile, ShippedDemoIsAsWritten) {
    std::string text = test::readText(std::string(TALVIK_SOURCE_DIR) + "/demos/sundvarg_gallery.talvik");
    EXPECT_EQ(formats::projectText(formats::demoProject()), text);
    model::Project p = formats::demoProject();
    EXPECT_EQ(p.slabs[0]->spans.size(), 6u);
    EXPECT_TRUE(p.slabs[0]->cantileverEnd);
}

// Up to version 5 a slab kept all of its bars: those pinned are fixed now, the others follow from the slab.
TEST(ProjectFile, VersionFiveKeepsTheBarsThatSomeoneFixed) {
    auto j = nlohmann::json::parse(
        test::readText(std::string(TALVIK_SOURCE_DIR) + "/tests/core/formats/older/gallery_5.talvik"));
    ASSERT_EQ(j["talvik"], 5);
    auto read = readProject(j.dump());
    ASSERT_TRUE(read.trouble.empty()) << formats::sentences(read.trouble);
    EXPECT_TRUE(read.project.slabs[0]->bars.empty());
    EXPECT_EQ(read.project.marks.size(), 13u) << "marks given out stay";
    EXPECT_EQ(design::run(read.project).summary().over, 0);
    auto& pinned = j["slabs"][0]["bars"][3];
    pinned["pinned"] = true;
    read = readProject(j.dump());
    ASSERT_EQ(read.project.slabs[0]->bars.size(), 1u);
    const auto& bars = read.project.slabs[0]->bars[0];
    EXPECT_EQ(bars.id, pinned["id"]);
    EXPECT_EQ(bars.from, pinned["from_mm"]);
    EXPECT_EQ(bars.role, model::Role::BottomMain);
    EXPECT_EQ(readProject(formats::projectText(read.project)).project.slabs[0]->bars[0], bars);
}

TEST(ProjectFile, TruncatedAnywhereIsLocated) {
    std::string text = formats::projectText(formats::demoProject());
    for (std::size_t n = 0; n < text.size() - 2; n += 37) {
        auto read = readProject(text.substr(0, n));
        ASSERT_FALSE(read.trouble.empty()) << n;
        EXPECT_NE((read.trouble[0].path + read.trouble[0].message).find("line"), std::string::npos);
    }
}

TEST(ProjectFile, MistypedKeysAndTypesAreNamed) {
    EXPECT_NE(
        trouble(changed([](auto& j) { j["slabs"][0]["thicknes_mm"] = 5; })).find("slabs[0].thicknes_mm"),
        std::string::npos);
    EXPECT_NE(trouble(changed([](auto& j) {
                  j["slabs"][0].erase("thickness_mm");
              })).find("slabs[0].thickness_mm: This is missing"),
              std::string::npos);
    EXPECT_NE(trouble(changed([](auto& j) {
                  j["slabs"][0]["spans"][2]["length_mm"] = "long";
              })).find("slabs[0].spans[2].length_mm: Expected a number, found text"),
              std::string::npos);
    EXPECT_NE(
        trouble(changed([](auto& j) { j["slabs"][0]["spans"][2]["length_mm"] = nullptr; })).find("nothing"),
        std::string::npos);
    EXPECT_NE(trouble(changed([](auto& j) { j["slabs"] = 3; })).find("Expected a list"), std::string::npos);
    EXPECT_NE(trouble(changed([](auto& j) { j["slabs"][0] = 3; })).find("Expected an object"),
              std::string::npos);
    EXPECT_NE(
        trouble(changed([](auto& j) { j["slabs"][0]["supports"][0]["kind"] = "column"; })).find("beam, wall"),
        std::string::npos);
    EXPECT_NE(trouble(changed([](auto& j) {
                  auto& j0 = j["slabs"][0]["bars"];
                  j0.push_back({{"id", "b1"},
                                {"part", ""},
                                {"role", "side"},
                                {"from_mm", 0},
                                {"to_mm", 900},
                                {"bar", "H12"},
                                {"spacing_mm", 200},
                                {"start", "hook"},
                                {"end", "hook"}});
              })).find("bars[0].role"),
              std::string::npos);
    EXPECT_NE(trouble(changed([](auto& j) { j["basis"]["units"] = 7; })).find("basis.units"),
              std::string::npos);
    EXPECT_NE(trouble(changed([](auto& j) { j["marks"]["x"] = -1; })).find("marks.x"), std::string::npos);
    EXPECT_NE(trouble(changed([](auto& j) { j["basis"]["parameters"]["gamma_c"] = "big"; })).find("gamma_c"),
              std::string::npos);
}

TEST(ProjectFile, HostileContentIsRefusedWithASentence) {
    auto spans = [](std::size_t n) {
        return changed([n](auto& j) {
            nlohmann::json one = j["slabs"][0]["spans"][0], all = nlohmann::json::array();
            for (std::size_t i = 0; i < n; ++i) {
                one["id"] = "p" + std::to_string(1000 + i);
                all.push_back(one);
            }
            j["slabs"][0]["spans"] = all;
        });
    };
    EXPECT_NE(trouble(spans(1000000)).find("1000000 entries"), std::string::npos);
    EXPECT_NE(trouble(spans(0)), "");
    EXPECT_NE(trouble(changed([](auto& j) {
                  j["slabs"][0]["spans"][1]["id"] = j["slabs"][0]["spans"][0]["id"];
              })).find("used twice"),
              std::string::npos);
    EXPECT_NE(trouble(changed([](auto& j) { j["talvik"] = 99; })).find("version 99"), std::string::npos);
    EXPECT_EQ(readProject(changed([](auto& j) { j["talvik"] = 99; })).trouble.size(), 1u);
    EXPECT_NE(trouble(changed([](auto& j) { j.erase("talvik"); })), "");
    EXPECT_NE(trouble("[1,2]"), "");
    EXPECT_NE(trouble("{\"talvik\": NaN}"), "");
    EXPECT_NE(trouble(std::string(300000, '[')), "");
    std::string text = formats::projectText(formats::demoProject());
    std::string big = text;
    big.replace(big.find("\"thickness_mm\": "), 19, "\"thickness_mm\": 1e999, \"x\": 1");
    EXPECT_NE(trouble(big), "");
    EXPECT_NE(trouble(changed([](auto& j) { j["slabs"][0]["thickness_mm"] = 1e300; })), "");
    EXPECT_NE(trouble(changed([](auto& j) { j["slabs"][0]["name"] = std::string(20000, 'x'); })), "");
    EXPECT_NE(trouble(std::string("\xff\xfe\x00binary", 9)), "");
}

// Random damage never crashes, and what is accepted can be run and written again.
TEST(ProjectFile, MutatedFilesNeverCrash) {
    std::string text = formats::projectText(formats::demoProject());
    std::mt19937 random(42);
    const std::string pieces[] = {
        "-1", "1e308", "null", "[]", "{}", "\"\"", "0", "true", "99999999999999999999", "\\u0000"};
    int accepted = 0;
    for (int trial = 0; trial < 1500; ++trial) {
        std::string damaged = text;
        for (unsigned k = 0; k < 1 + random() % 3; ++k) {
            std::size_t at = random() % damaged.size();
            switch (random() % 4) {
                case 0:
                    damaged[at] = static_cast<char>(random() % 256);
                    break;
                case 1:
                    damaged.erase(at, 1 + random() % 20);
                    break;
                case 2:
                    damaged.insert(at, pieces[random() % 10]);
                    break;
                default: {
                    std::size_t colon = damaged.find(": ", at), end = damaged.find_first_of(",\n", colon);
                    if (colon != std::string::npos && end != std::string::npos)
                        damaged.replace(colon + 2, end - colon - 2, pieces[random() % 10]);
                }
            }
        }
        auto read = readProject(damaged);
        if (!read.trouble.empty()) continue;
        ++accepted;
        auto design = design::run(read.project, {.trace = false});
        (void)formats::projectText(read.project);
    }
    EXPECT_GT(accepted, 15);
}

TEST(ProjectFile, IdsGoOnAfterTheLargestInTheFile) {
    auto read = readProject(changed([](auto& j) {
        j["next_id"] = 1;
        j["slabs"][0]["spans"][2]["id"] = "p41";
    }));
    ASSERT_TRUE(read.trouble.empty());
    EXPECT_EQ(read.project.nextId, 42);
}

TEST(WriteFile, IsWholeOrNotAtAll) {
    fs::path file = scratch() / "a.talvik";
    ASSERT_EQ(formats::writeFile(file.string(), "old"), "");
    ASSERT_EQ(formats::writeFile(file.string(), "new"), "");
    EXPECT_EQ(formats::readFile(file.string()).text, "new");
    EXPECT_EQ(std::distance(fs::directory_iterator(scratch()), fs::directory_iterator()), 1)
        << "no temporary file is left";
    EXPECT_NE(formats::writeFile((scratch() / "none" / "a").string(), "x"), "");
    // The target cannot be replaced: the old content stays and nothing is left beside it.
    fs::path folder = scratch() / "taken";
    fs::create_directories(folder / "inside");
    EXPECT_NE(formats::writeFile(folder.string(), "x"), "");
    EXPECT_TRUE(fs::is_directory(folder));
    EXPECT_EQ(std::distance(fs::directory_iterator(scratch()), fs::directory_iterator()), 2);
    fs::remove_all(scratch());
}

TEST(ReadFile, SaysWhyNot) {
    EXPECT_NE(formats::readFile("/nonexistent/file").error, "");
    EXPECT_NE(formats::readFile("/").error.find("folder"), std::string::npos);
    fs::path file = scratch() / "big";
    ASSERT_EQ(formats::writeFile(file.string(), std::string(2 << 20, 'x')), "");
    EXPECT_NE(formats::readFile(file.string(), 1 << 20).error.find("larger"), std::string::npos);
    EXPECT_NE(formats::openProject("/nonexistent.talvik").trouble.size(), 0u);
    fs::remove_all(scratch());
}
