#include "units/rows.h"

#include <gtest/gtest.h>

using namespace talvik::units;

TEST(Rows, ReadAndWrittenBack) {
    const std::vector<Kind> corner{Kind::Span, Kind::Span};
    const auto r = parseRows("0 0; 46 0; 46, 19.5;", corner, System::Metric);
    ASSERT_EQ(r.error, "");
    ASSERT_EQ(r.rows.size(), 3u);
    EXPECT_EQ(r.rows[2], (std::vector<double>{46000, 19500}));
    EXPECT_EQ(rowsText(r.rows, corner, System::Metric), "0 0; 46 0; 46 19.5");
    EXPECT_EQ(parseRows(rowsText(r.rows, corner, System::Metric), corner, System::Metric).rows, r.rows);
    const std::vector<Kind> layer{Kind::Span, Kind::Stress, Kind::None};
    EXPECT_EQ(parseRows("3 30; 6 60 0.25", layer, System::Metric, 1).rows[1].size(), 3u);
    EXPECT_TRUE(parseRows("", corner, System::Metric).rows.empty());
}

TEST(Rows, SlipsNameTheirRow) {
    const std::vector<Kind> corner{Kind::Span, Kind::Span};
    for (const char* slip : {"0 0; 46", "0 0; 1 2 3", "0 0; 1 x"}) {
        const auto r = parseRows(slip, corner, System::Metric);
        EXPECT_TRUE(r.rows.empty()) << slip;
        EXPECT_NE(r.error.find("Row 2"), std::string::npos) << r.error;
    }
}
