#include "formats/encoding.h"

#include <gtest/gtest.h>

#include <nlohmann/json.hpp>
#include <random>

using namespace talvik;

// Against the reader of JSON, which takes strings in UTF-8 alone: random bytes of the kinds that matter.
TEST(Encoding, IsUtf8WhatTheJsonReaderTakes) {
    constexpr unsigned char kinds[] = {0x20, 0x41, 0x7E, 0x80, 0x8F, 0x90, 0x9F, 0xA0, 0xBF,
                                       0xC0, 0xC1, 0xC2, 0xDF, 0xE0, 0xE1, 0xEC, 0xED, 0xEE,
                                       0xEF, 0xF0, 0xF1, 0xF3, 0xF4, 0xF5, 0xFF};
    std::mt19937 random(11);
    int valid = 0;
    for (int n = 0; n < 200000; ++n) {
        std::string s;
        for (auto k = random() % 6; k > 0; --k) s += char(kinds[random() % std::size(kinds)]);
        const bool is = formats::isUtf8(s);
        valid += is;
        ASSERT_EQ(is, nlohmann::json::accept("\"" + s + "\"")) << n;
        const auto made = formats::asUtf8(s);
        ASSERT_TRUE(formats::isUtf8(made)) << n;
        if (is) {
            ASSERT_EQ(made, s) << n;
        }
    }
    EXPECT_GT(valid, 10000);
}

TEST(Encoding, OtherBytesAreWesternLetters) {
    EXPECT_EQ(formats::asUtf8("K\xF6ln \x80 5 \x96 7"), "K\u00f6ln \u20ac 5 \u2013 7");
    EXPECT_EQ(formats::asUtf8("K\u00f6ln"), "K\u00f6ln");
    EXPECT_EQ(formats::asUtf8(std::string_view("a\0b\x1b[2Jc\r\n\td", 12)), "a b [2Jc\r\n\td");
    std::string out;
    for (unsigned code : {0x41u, 0xF6u, 0x20ACu, 0x1F6A2u, 0xD800u, 0x110000u}) formats::putUtf8(out, code);
    EXPECT_EQ(out, "A\u00f6\u20ac\U0001F6A2\uFFFD\uFFFD");
}
