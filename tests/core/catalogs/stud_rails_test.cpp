#include <gtest/gtest.h>

#include "catalogs/catalogs.h"

using namespace talvik::catalogs;

namespace {

const std::string head = "name,diameter mm,height mm,first mm,spacing mm,least studs,most studs,yield MPa\n";

bool says(const StudTable& t, const std::string& part) {
    for (const auto& s : t.trouble)
        if (s.find(part) != std::string::npos) return true;
    return false;
}

}  // namespace

TEST(StudRails, TheListThatShipsIsSound) {
    const auto& all = studRails();
    EXPECT_GT(all.size(), 100u);
    for (const auto& r : all) {
        EXPECT_FALSE(r.name.empty());
        EXPECT_GE(r.diameter, 10);
        EXPECT_LE(r.diameter, 20);
        EXPECT_LE(r.first, r.spacing);
        EXPECT_LT(r.spacing, r.height);
        EXPECT_LE(r.least, r.most);
    }
}

TEST(StudRails, AreReadInBothSystemsAndInAnyOrderOfColumns) {
    const auto metric = readStudRails(head + "A,12,205,70,140,2,8,500\n\nB,14,255.5,80,160,3,6,450\r\n");
    ASSERT_TRUE(metric.trouble.empty()) << metric.trouble.front();
    ASSERT_EQ(metric.rails.size(), 2u);
    EXPECT_EQ(metric.rails[1].height, 255.5);
    EXPECT_EQ(metric.rails[1].least, 3);
    const auto inch = readStudRails(
        "\xEF\xBB\xBFspacing in,name,diameter in,height in,first in,most studs,least studs,yield ksi\n"
        "5.5,S,0.5,8,2.75,8,2,51\n");
    ASSERT_TRUE(inch.trouble.empty()) << inch.trouble.front();
    EXPECT_NEAR(inch.rails[0].diameter, 12.7, 1e-9);
    EXPECT_NEAR(inch.rails[0].spacing, 139.7, 1e-9);
    EXPECT_NEAR(inch.rails[0].yield, 351.6, 0.1);
}

TEST(StudRails, ABrokenTableIsRefusedWithThePlace) {
    EXPECT_TRUE(says(readStudRails(""), "no rows"));
    EXPECT_TRUE(says(readStudRails(head), "no rows"));
    EXPECT_TRUE(
        says(readStudRails("name,diameter,height mm\n"), "Line 1: there is no column \"diameter mm\""));
    // Inches under a heading in mm.
    const auto inches = readStudRails(head + "A,0.5,8,2.75,5.5,2,8,500\n");
    EXPECT_TRUE(says(inches, "Line 2, column diameter: 0.5 cannot be right"));
    EXPECT_TRUE(inches.rails.empty());
    const auto broken = readStudRails(head + "A,12,205,70,140,2,8,500\nB,12,x,70,140,2,8,500\nC,12,205\n");
    EXPECT_TRUE(says(broken, "Line 3, column height: \"x\" is no number"));
    EXPECT_TRUE(says(broken, "Line 4 has 3 cells"));
    EXPECT_TRUE(broken.rails.empty()) << "nothing half-read";
    EXPECT_TRUE(says(readStudRails(head + ",12,205,70,140,2,8,500\n"), "the name is missing"));
    EXPECT_TRUE(says(readStudRails(head + "A,12,205,70,140,5,3,500\n"), "fewer than the least"));
    EXPECT_TRUE(says(readStudRails(head + "A,12,205,70,140,2,8,5e9\n"), "yield"));
    EXPECT_TRUE(says(readStudRails(head + "A,nan,205,70,140,2,8,500\n"), "is no number"));
}
