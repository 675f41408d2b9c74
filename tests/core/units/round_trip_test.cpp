// What is shown can be typed again, for every kind of quantity in both systems.
#include <gtest/gtest.h>

#include <cmath>

#include "units/units.h"

using namespace talvik::units;

class EveryKind : public ::testing::TestWithParam<Kind> {};

TEST_P(EveryKind, ShownTextIsUnderstoodAgain) {
    for (auto system : {System::Metric, System::UsCustomary})
        for (double shown : {0.0, 1.0, 2.5, 12.0, 345.6, -7.25}) {
            const Unit& u = unit(GetParam(), system);
            double stored = shown * u.factor;
            Parsed p = parse(number(stored, GetParam(), system), GetParam(), system);
            ASSERT_TRUE(p.value) << p.error;
            EXPECT_NEAR(*p.value / u.factor, shown, 0.5 * std::pow(10, -u.decimals) + 1e-9);
            std::string with = text(stored, GetParam(), system);
            EXPECT_NE(with.find(u.symbol), std::string::npos);
            if (Parsed q = parse(with, GetParam(), system);
                !u.symbol.empty() && u.symbol.find("·") == std::string_view::npos) {
                ASSERT_TRUE(q.value) << with << ": " << q.error;
                EXPECT_NEAR(*q.value, *p.value, 1e-9 * std::max(1.0, std::abs(*p.value))) << with;
            }
        }
}

TEST_P(EveryKind, UnitsOfAnotherKindAreRefused) {
    const char* foreign = GetParam() == Kind::Density ? "5 mm" : "5 kN/m3";
    EXPECT_FALSE(parse(foreign, GetParam(), System::Metric).value);
}

INSTANTIATE_TEST_SUITE_P(All, EveryKind,
                         ::testing::Values(Kind::None, Kind::Length, Kind::Span, Kind::BarSpacing, Kind::Area,
                                           Kind::SteelPerWidth, Kind::Force, Kind::ForcePerWidth,
                                           Kind::MomentPerWidth, Kind::Moment, Kind::Stress, Kind::AreaLoad,
                                           Kind::Density, Kind::Crack, Kind::Sag, Kind::Mass, Kind::Percent,
                                           Kind::Strain, Kind::Count));
