// talvik bases as a process: what it writes, and what it says of what it cannot use.
#include <gtest/gtest.h>
#include <sys/wait.h>

#include <filesystem>
#include <fstream>
#include <nlohmann/json.hpp>
#include <set>

#include "support/reference.h"

namespace fs = std::filesystem;
using talvik::test::readText;

namespace {

class BasesCommand : public ::testing::Test {
  protected:
    fs::path dir = fs::temp_directory_path() / ("talvik-bases-" + std::to_string(::getpid()));
    void SetUp() override { fs::create_directories(dir); }
    void TearDown() override { fs::remove_all(dir); }
    int run(const std::string& arguments) {
        const std::string command =
            "cd '" + dir.string() + "' && '" TALVIK_BINARY "' bases " + arguments + " > out 2> err";
        return WEXITSTATUS(std::system(command.c_str()));
    }
    std::string word(const char* name) const { return readText((dir / name).string()); }
    void write(const char* name, const std::string& text) const { std::ofstream(dir / name) << text; }
};

const std::string demos = TALVIK_SOURCE_DIR "/demos/";
const std::string canopy =
    "'" + demos + "sundvarg_canopy_loads.csv' --ground '" + demos + "sundvarg_canopy_ground.json'";
const char* head =
    "column,x[m],y[m],width[mm],depth[mm],case,nature,use,N[kN],Hx[kN],Hy[kN],Mx[kNm],My[kNm]\n";

}  // namespace

TEST_F(BasesCommand, DemoToAFolder) {
    ASSERT_EQ(run(canopy + " --out set"), 0) << word("err");
    const auto rows = talvik::test::rows(readText((dir / "set/register.csv").string()));
    ASSERT_EQ(rows.size(), 20u) << "21 columns, two of them on one base";
    for (const auto& r : rows) {
        EXPECT_EQ(r.at("kind"), "pad");
        EXPECT_FALSE(r.at("type").empty());
        EXPECT_LE(std::stod(r.at("ratio")), 1.0);
        EXPECT_GT(std::stod(r.at("concrete")), 0.1);
    }
    const auto checks = nlohmann::json::parse(readText((dir / "set/checks.json").string()));
    ASSERT_EQ(checks.size(), 20u);
    bool pressure = false;
    for (const auto& c : checks[0]["checks"])
        if (c["title"].get<std::string>().find("pressure") != std::string::npos) {
            pressure = true;
            EXPECT_LE(c["demand"].get<double>(), 175.001);
        }
    EXPECT_TRUE(pressure);
    for (const char* name :
         {"bases.talvik", "drawings.pdf", "schedule.csv", "schedule.xlsx", "report.html", "report.pdf"})
        EXPECT_TRUE(fs::exists(dir / "set" / name)) << name;
    // The project opens again, and its checks are the same.
    const std::string command = "'" TALVIK_BINARY "' check '" + (dir / "set/bases.talvik").string() +
                                "' --json > '" + (dir / "again").string() + "'";
    EXPECT_EQ(WEXITSTATUS(std::system(command.c_str())), 0);
    const auto again = nlohmann::json::parse(word("again"));
    EXPECT_EQ(again["elements"][0]["parts"].size(), 20u);
    EXPECT_EQ(again["elements"][0]["parts"][0]["name"], "Base A1");
    // Fewer types; the same twice to the byte.
    ASSERT_EQ(run(canopy + " --out few --types 2"), 0) << word("err");
    std::set<std::string> types;
    for (const auto& r : talvik::test::rows(readText((dir / "few/register.csv").string())))
        types.insert(r.at("type"));
    EXPECT_LE(types.size(), 2u);
    ASSERT_EQ(run(canopy + " --out again2"), 0);
    EXPECT_EQ(readText((dir / "set/register.csv").string()),
              readText((dir / "again2/register.csv").string()));
    EXPECT_EQ(readText((dir / "set/checks.json").string()), readText((dir / "again2/checks.json").string()));
}

TEST_F(BasesCommand, CapsWithTheirPiles) {
    ASSERT_EQ(run("'" + demos + "sundvarg_cap_loads.csv' --ground '" + demos +
                  "sundvarg_cap_ground.json' --out caps"),
              0)
        << word("err");
    const auto checks = nlohmann::json::parse(readText((dir / "caps/checks.json").string()));
    ASSERT_EQ(checks.size(), 5u);
    for (const auto& b : checks) {
        EXPECT_GE(b["piles"].size(), 2u);
        bool compression = false;
        for (const auto& c : b["checks"])
            compression |= c["title"] == "Pile compression" && c["unit"] == "kN";
        EXPECT_TRUE(compression);
    }
}

// Sets of hundreds: the files that grow with every bar of every base are left out unless they are asked for,
// and the report has a register and one base of each type.
TEST_F(BasesCommand, OfManyTheFilesStaySmall) {
    std::string rows = head;
    for (int i = 0; i < 504; ++i)
        for (const char* load : {"G,permanent,,%d,0,0,0,0", "Q,imposed,B,%d,0,0,0,0"}) {
            char line[160], all[200];
            std::snprintf(line, sizeof line, load, (load[0] == 'G' ? 300 : 150) + 25 * (i % 12));
            std::snprintf(all, sizeof all, "K%d,%d,%d,400,400,%s\n", i + 1, i % 24 * 7, i / 24 * 7, line);
            rows += all;
        }
    write("many.csv", rows);
    write("ground.json",
          R"({"kind": "pads", "allowable_kPa": 200, "allowable_is": "gross", "founding_depth_m": 1.2})");
    ASSERT_EQ(run("many.csv --ground ground.json --types 4 --out many"), 0) << word("err");
    EXPECT_EQ(talvik::test::rows(readText((dir / "many/register.csv").string())).size(), 504u);
    double size = 0;
    for (const auto& f : fs::recursive_directory_iterator(dir / "many")) {
        if (!f.is_regular_file()) continue;
        size += double(f.file_size());
        for (const char* left : {".ifc", ".odt", ".html"}) EXPECT_NE(f.path().extension(), left) << f.path();
    }
    EXPECT_LT(size / 504, 20e3) << "bytes for each base";
    EXPECT_TRUE(fs::exists(dir / "many/report.pdf"));
    EXPECT_NE((word("out") + word("err")).find("--all"), std::string::npos) << "what was left out is said";
}

TEST_F(BasesCommand, ExitCodesAndSentences) {
    const std::string ground = " --ground '" + demos + "sundvarg_canopy_ground.json' --out set";
    write("good.csv", std::string(head) + "A1,0,0,400,400,G,permanent,,300,0,0,0,0\n");
    ASSERT_EQ(run("good.csv" + ground), 0) << word("err");
    const auto kept = readText((dir / "set/register.csv").string());
    // A row kept out.
    write("some.csv",
          std::string(head) +
              "A1,0,0,400,400,G,permanent,,300,0,0,0,0\nA2,0,0,400,400,G,permanent,,nan,0,0,0,0\n");
    EXPECT_EQ(run("some.csv" + ground), 1);
    EXPECT_NE(word("err").find("row 3"), std::string::npos);
    // Nothing usable: nothing written.
    write("none.csv", "column,x[m]\nA1,0\n");
    EXPECT_EQ(run("none.csv" + ground), 2);
    write("bad.json", R"({"kind":"pads","allowable_kPa":0,"allowable_is":"gross"})");
    EXPECT_EQ(run("good.csv --ground bad.json --out set"), 2);
    EXPECT_NE(word("err").find("allowable_kPa"), std::string::npos);
    EXPECT_EQ(run("good.csv" + ground + " --types 0"), 2);
    EXPECT_NE(readText((dir / "set/register.csv").string()), "");
    EXPECT_EQ(run("nowhere.csv" + ground), 2);
    write("taken", "a file");
    EXPECT_EQ(run("good.csv --ground '" + demos + "sundvarg_canopy_ground.json' --out taken"), 3);
    // A column that no base holds is named and over.
    write("up.csv", std::string(head) + "A1,0,0,400,400,G,permanent,,-90000,0,0,0,0\n");
    EXPECT_EQ(run("up.csv" + ground), 1);
    EXPECT_NE(word("err").find("Base A1"), std::string::npos);
    const auto checks = nlohmann::json::parse(readText((dir / "set/checks.json").string()));
    bool over = false;
    for (const auto& c : checks[0]["checks"]) over |= c["outcome"] == "over";
    EXPECT_TRUE(over);
    // A name that would be a formula, or a path.
    write("name.csv",
          std::string(head) +
              "=1+2,0,0,400,400,G,permanent,,300,0,0,0,0\n../../x,5,0,400,400,G,permanent,,300,0,0,0,0\n");
    EXPECT_EQ(run("name.csv" + ground), 0) << word("err");
    EXPECT_NE(readText((dir / "set/register.csv").string()).find("\n'=1+2,"), std::string::npos);
    EXPECT_FALSE(fs::exists(dir.parent_path() / "x"));
    EXPECT_NE(kept, "");
}
