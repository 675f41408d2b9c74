#include "units/units.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace talvik::units;

TEST(Parse, TakesArithmeticAndUnits) {
    struct Case {
        const char* text;
        Kind kind;
        System system;
        double stored;
    };
    const Case cases[] = {
        {"220", Kind::Length, System::Metric, 220},
        {"8 in", Kind::Length, System::Metric, 203.2},
        {"8\"", Kind::Length, System::Metric, 203.2},
        {"0.2 m", Kind::Length, System::Metric, 200},
        {"1.1*500/280", Kind::None, System::Metric, 1.1 * 500 / 280},
        {"5.4", Kind::Span, System::Metric, 5400},
        {"5400mm", Kind::Span, System::Metric, 5400},
        {"16", Kind::Span, System::UsCustomary, 16 * 304.8},
        {"16'", Kind::Span, System::Metric, 16 * 304.8},
        {"5 kN/m2", Kind::AreaLoad, System::UsCustomary, 5e-3},
        {"100 psf", Kind::AreaLoad, System::Metric, 100 * 4.4482216152605 / 304.8 / 304.8},
        {"(2+3)^2", Kind::Count, System::Metric, 25},
        {"-2^2", Kind::None, System::Metric, -4},
        {"4 ksi", Kind::Stress, System::Metric, 4 * 6.894757293168361},
        {"0.4 %", Kind::Percent, System::Metric, 0.004},
    };
    for (const auto& c : cases) {
        Parsed p = parse(c.text, c.kind, c.system);
        ASSERT_TRUE(p.value) << c.text << ": " << p.error;
        EXPECT_NEAR(*p.value, c.stored, 1e-12 * std::max(1.0, std::abs(c.stored))) << c.text;
    }
}

TEST(Parse, SaysInASentenceWhatIsWrong) {
    for (const char* bad :
         {"", "   ", "abc", "5 furlong", "1/0", "2*", "(3", "5 kPa", "1e400", "sqrt(0-1)", "3 3"}) {
        Parsed p = parse(bad, Kind::Length, System::Metric);
        EXPECT_FALSE(p.value) << bad;
        EXPECT_EQ(p.error.back(), '.') << bad << ": " << p.error;
        EXPECT_NE(p.error.find(' '), std::string::npos);
    }
}

TEST(Parse, DeepNestingIsRefusedNotCrashed) {
    std::string deep(100000, '(');
    EXPECT_FALSE(evaluate(deep).value);
    EXPECT_FALSE(evaluate(std::string(50000, '-')).value);
}

TEST(SpacingList, UnderstandsRepeatsAndUnits) {
    auto list = parseSpacingList("5@6.0 4.5", Kind::Span, System::Metric);
    EXPECT_EQ(list.error, "");
    EXPECT_EQ(list.values, (std::vector<double>{6000, 6000, 6000, 6000, 6000, 4500}));
    list = parseSpacingList("2 @ 6 m, 4.5; 300 mm", Kind::Span, System::Metric);
    EXPECT_EQ(list.values, (std::vector<double>{6000, 6000, 4500, 300}));
    EXPECT_EQ(spacingList({6000, 6000, 4500}, Kind::Span, System::Metric), "2@6 4.5");
}

TEST(SpacingList, RefusesNonsense) {
    for (const char* bad : {"", "0@5", "1.5@5", "a", "3@", "-4", "51@3", "1000000@1", "3@0"})
        EXPECT_NE(parseSpacingList(bad, Kind::Span, System::Metric).error, "") << bad;
}

TEST(SpacingList, RoundTrips) {
    for (auto system : {System::Metric, System::UsCustomary})
        for (const std::vector<double>& lengths :
             {std::vector<double>{4200, 4800, 5400}, {304.8, 304.8}, {3658, 3657.6}}) {
            auto back = parseSpacingList(spacingList(lengths, Kind::Span, system), Kind::Span, system);
            ASSERT_EQ(back.values.size(), lengths.size());
            for (std::size_t i = 0; i < lengths.size(); ++i) EXPECT_NEAR(back.values[i], lengths[i], 0.01);
        }
}

TEST(Display, RoundsAndNeverShowsMinusZero) {
    EXPECT_EQ(text(220, Kind::Length, System::Metric), "220 mm");
    EXPECT_EQ(text(-0.0001, Kind::Sag, System::Metric), "0.0 mm");
    EXPECT_EQ(text(5400, Kind::Span, System::Metric), "5.40 m");
    EXPECT_EQ(text(5e-3, Kind::AreaLoad, System::Metric), "5.00 kN/m²");
    EXPECT_EQ(text(200, Kind::Length, System::UsCustomary), "7.87 in");
    EXPECT_EQ(text(0.5, Kind::Percent, System::Metric), "50.00%");
}

TEST(Plain, PrintsWithoutExponentAndTrailingZeros) {
    EXPECT_EQ(plain(0), "0");
    EXPECT_EQ(plain(4250), "4250");
    EXPECT_EQ(plain(0.035, 5), "0.035");
    EXPECT_EQ(plain(1234.5678, 6), "1234.57");
    EXPECT_EQ(plain(200000), "200000");
}

TEST(Rounding, ForgivesNoise) {
    EXPECT_EQ(roundUp(2325.0000000001, 25), 2325);
    EXPECT_EQ(roundUp(2325.1, 25), 2350);
    EXPECT_EQ(roundDown(224.9999999999, 25), 225);
}

TEST(Rounding, KeepsSignificantDigitsInAnyLocale) {
    EXPECT_EQ(rounded(1234.5678, 6), 1234.57);
    EXPECT_EQ(rounded(0.1 + 0.2, 12), 0.3);
    EXPECT_EQ(rounded(-1e-9, 3), -1e-9);
    EXPECT_EQ(rounded(0, 3), 0);
}
