// What the program says is not checked follows from the list of clauses, which docs/coverage.md prints.
#include <gtest/gtest.h>

#include <nlohmann/json.hpp>
#include <set>

#include "design/floor_design.h"
#include "support/reference.h"
#include "support/regular_floor.h"

namespace talvik {

TEST(Coverage, DocumentAndOmissionsAreThoseOfTheList) {
    const std::string doc = test::readText(TALVIK_SOURCE_DIR "/docs/coverage.md");
    for (auto [file, id] :
         {std::pair("coverage_en1992", "en1992"), std::pair("coverage_aci318", "aci318-si")}) {
        const auto list =
            nlohmann::json::parse(test::readText(std::string(TALVIK_SOURCE_DIR) + "/data/" + file + ".json"));
        EXPECT_GT(list.size(), 30u);
        std::set<std::string> floors, slabs;
        for (const auto& row : list) {
            const std::string clause = row.at("clause"), title = row.at("title");
            EXPECT_NE(doc.find("| " + clause + " | " + title + " | "), std::string::npos) << clause;
            EXPECT_TRUE(row.contains("does") || row.contains("reason")) << clause << " says nothing";
            if (row.contains("does")) {
                EXPECT_FALSE(std::string(row.at("where")).empty()) << clause;
            }
            const std::string of = row.value("for", "none");
            if (of == "floors" || of == "both") floors.insert(row.at("key"));
            if (of == "slabs" || of == "both") slabs.insert(row.at("key"));
        }
        auto p = test::regularFloor(3, 3, 6000, 6000);
        p.basis.standard = id;
        auto d = design::designFloor(p, 0, {}, false);
        ASSERT_TRUE(d);
        std::set<std::string> said;
        for (const auto& c : d->checks)
            if (auto at = c.key.find("/omitted-"); at != std::string::npos) {
                said.insert(c.key.substr(at + 9));
                EXPECT_EQ(c.outcome, checks::Outcome::NotChecked);
                EXPECT_FALSE(c.reason.empty());
            }
        floors.erase("steps");  // there is none
        EXPECT_EQ(said, floors) << id;
        std::set<std::string> ofSlabs;
        for (const auto& o : d->standard->omissions)
            if (o.slabs) ofSlabs.insert(o.key);
        EXPECT_EQ(ofSlabs, slabs) << id;
    }
}

}  // namespace talvik
