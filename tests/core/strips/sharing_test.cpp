// The largest mean over a width, against trying many places.
#include "strips/sharing.h"

#include <gtest/gtest.h>

#include <random>

namespace talvik {

TEST(Sharing, WidthIsBetweenTwoAndFiveThicknesses) {
    EXPECT_EQ(strips::sharingWidth(200, 10000), 1000);
    EXPECT_EQ(strips::sharingWidth(200, 4000), 800);
    EXPECT_EQ(strips::sharingWidth(200, 1000), 400);
}

TEST(Sharing, TheLargestMeanIsThatOfBruteForce) {
    std::mt19937 random(7);
    auto u = [&](double low, double high) { return std::uniform_real_distribution<double>(low, high)(random); };
    for (int n = 0; n < 200; ++n) {
        std::vector<double> at, value;
        double place = u(-500, 500);
        const int pieces = 1 + int(u(0, 12));
        for (int k = 0; k < pieces; ++k) {
            at.push_back(place), value.push_back(k > 0 && u(0, 1) < 0.8 ? value.back() : u(-20, 100));
            place += u(20, 400);
            at.push_back(place), value.push_back(u(-20, 100));
        }
        const double whole = at.back() - at.front(), width = u(50, 1500);
        auto between = [&](double from, double to) {
            double sum = 0;
            constexpr int steps = 4000;
            for (int i = 0; i < steps; ++i) {
                const double x = from + (i + 0.5) / steps * (to - from);
                std::size_t k = 0;
                while (2 * (k + 1) < at.size() && x > at[2 * k + 1]) ++k;
                sum += value[2 * k] + (value[2 * k + 1] - value[2 * k]) * (x - at[2 * k]) / (at[2 * k + 1] - at[2 * k]);
            }
            return sum / steps;
        };
        double most = 0;
        if (whole <= width)
            most = std::max(0.0, between(at.front(), at.back()));
        else
            for (int i = 0; i <= 300; ++i)
                most = std::max(most, between(at.front() + i / 300.0 * (whole - width), at.front() + i / 300.0 * (whole - width) + width));
        const double found = strips::SharedMean(at, width).largest(value);
        EXPECT_GT(found, most - 2) << n;
        EXPECT_LT(found, most + 2) << n;
    }
}

}  // namespace talvik
