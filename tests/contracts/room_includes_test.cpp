// Who may include whom: the rooms of src/core include only what src/core/CMakeLists.txt says they use;
// nothing in the core includes Qt; window and command line never include each other.
#include <gtest/gtest.h>

#include <filesystem>
#include <map>
#include <regex>
#include <set>
#include <sstream>

#include "support/reference.h"

namespace fs = std::filesystem;
using talvik::test::readText;

namespace {

const fs::path source = fs::path(TALVIK_SOURCE_DIR) / "src";

std::map<std::string, std::set<std::string>> rooms() {
    std::string text = readText((source / "core/CMakeLists.txt").string());
    std::map<std::string, std::set<std::string>> all;
    std::regex room(R"(talvik_room\((\w+)([^)]*)\))");
    for (std::sregex_iterator it(text.begin(), text.end(), room), end; it != end; ++it) {
        std::set<std::string>& uses = all[(*it)[1]];
        std::istringstream words((*it)[2]);
        for (std::string word; words >> word && word != "LIBS";)
            if (word != "USES") uses.insert(word);
    }
    return all;
}

std::vector<std::string> includes(const fs::path& file, const char* pattern) {
    std::string text = readText(file.string());
    std::vector<std::string> all;
    std::regex include(pattern);
    for (std::sregex_iterator it(text.begin(), text.end(), include), end; it != end; ++it)
        all.push_back((*it)[1]);
    return all;
}

}  // namespace

TEST(Rooms, IncludeOnlyWhatTheyUse) {
    auto all = rooms();
    ASSERT_GE(all.size(), 15u);
    int seen = 0;
    for (const auto& [room, uses] : all)
        for (const auto& entry : fs::recursive_directory_iterator(source / "core" / room)) {
            if (!entry.is_regular_file()) continue;
            for (const std::string& path : includes(entry.path(), R"re(#include "([^"]+)")re")) {
                std::string other = path.substr(0, path.find('/'));
                EXPECT_TRUE(other == room || uses.contains(other)) << entry.path() << " includes " << path;
                ++seen;
            }
            for (const std::string& path : includes(entry.path(), R"re(#include <([^>]+)>)re"))
                EXPECT_NE(path[0], 'Q') << entry.path() << " includes " << path;
        }
    EXPECT_GT(seen, 80);
}

TEST(Rooms, StandardsKnowNoModel) {
    auto all = rooms();
    for (const char* forbidden : {"model", "fem", "analysis", "design"})
        EXPECT_FALSE(all.at("standards").contains(forbidden));
    EXPECT_FALSE(all.at("fem").contains("model"));
}

TEST(Rooms, WindowAndCommandLineAreApart) {
    for (auto [folder, other] : {std::pair{"app", "cli/"}, std::pair{"cli", "app/"}})
        for (const auto& entry : fs::recursive_directory_iterator(source / folder))
            if (entry.is_regular_file()) {
                for (const std::string& path : includes(entry.path(), R"re(#include "([^"]+)")re"))
                    EXPECT_FALSE(path.starts_with(other)) << entry.path();
            }
}

// A standard's name decides nothing outside its folder and the catalogue.
TEST(Rooms, NoBranchOnTheStandardsName) {
    for (const auto& entry : fs::recursive_directory_iterator(source)) {
        std::string path = entry.path().string();
        if (!entry.is_regular_file() || path.find("/standards/") != std::string::npos ||
            path.find("/calc/") != std::string::npos)
            continue;
        std::string text = readText(path);
        EXPECT_EQ(text.find("== \"en1992\""), std::string::npos) << path;
        EXPECT_EQ(text.find("== \"aci318"), std::string::npos) << path;
    }
}
