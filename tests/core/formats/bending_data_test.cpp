// Bending data read again by a plain reader: check characters, fields, and lengths from legs and bends.
#include "formats/bending_data.h"

#include <gtest/gtest.h>

#include <map>
#include <numbers>
#include <sstream>

#include "formats/project_file.h"

using namespace talvik;

namespace {

struct Line {
    std::map<char, std::string> fields;
    std::vector<double> legs, angles;
};
// A reader of its own: blocks by their letters, the check character by the guideline's rule.
Line read(const std::string& text) {
    Line out;
    EXPECT_EQ(text.substr(0, 5), "BF2D@");
    const auto c = text.rfind("@C");
    EXPECT_NE(c, std::string::npos);
    int sum = 0;
    for (std::size_t i = 0; i <= c + 1; ++i) sum += static_cast<unsigned char>(text[i]);
    EXPECT_EQ(std::stoi(text.substr(c + 2)), 96 - sum % 32) << text;
    std::istringstream in(text.substr(5, c - 4));
    std::string field;
    char block = 0;
    while (std::getline(in, field, '@')) {
        if (field.empty()) continue;
        if (field[0] == 'H' || field[0] == 'G') block = field[0], field.erase(0, 1);
        if (block == 'H')
            out.fields[field[0]] = field.substr(1);
        else if (field[0] == 'l')
            out.legs.push_back(std::stod(field.substr(1)));
        else if (field[0] == 'w')
            out.angles.push_back(std::stod(field.substr(1)));
    }
    return out;
}

}  // namespace

TEST(BendingData, IsReadAgainWithItsCheckCharacters) {
    for (const auto& p : {formats::demoProject(), formats::demoFloorProject()}) {
        const auto d = design::run(p, {.trace = false});
        const auto schedule = d.schedule();
        std::map<int, const schedule::Row*> rows;
        for (const auto& r : schedule.rows)
            if (r.shape != "99") rows[r.mark] = &r;
        std::istringstream in(formats::bendingData(p, d));
        std::string text;
        std::size_t lines = 0;
        while (std::getline(in, text)) {
            ASSERT_EQ(text.back(), '\r');
            text.pop_back();
            const auto l = read(text);
            ++lines;
            ASSERT_TRUE(rows.contains(std::stoi(l.fields.at('p')))) << text;
            const auto& row = *rows.at(std::stoi(l.fields.at('p')));
            EXPECT_EQ(std::stoi(l.fields.at('n')), row.number);
            EXPECT_EQ(std::stod(l.fields.at('d')), row.diameter);
            EXPECT_NEAR(std::stod(l.fields.at('e')), row.massEach, 6e-4);
            EXPECT_EQ(l.fields.at('j'), p.name);
            EXPECT_EQ(l.legs.size(), l.angles.size());
            EXPECT_EQ(l.angles.back(), 0);
            // Along the middle of the bar the legs less what the bends take is the length that is cut, to 25
            // mm.
            const double mandrel = std::stod(l.fields.at('s')), r = mandrel / 2, dia = row.diameter;
            double length = 0;
            for (double leg : l.legs) length += leg;
            const double bends = double(l.legs.size()) - 1;
            length += bends * (std::numbers::pi / 2 * (r + dia / 2) - 2 * (r + dia));
            const double cut = std::stod(l.fields.at('l'));
            EXPECT_LE(length, cut + 5 * dia) << text;
            EXPECT_GE(length, cut - 25 - 5 * dia) << text;
        }
        EXPECT_EQ(lines, rows.size());
        EXPECT_GT(lines, 8u);
    }
}

TEST(BendingData, NamesCannotBreakItsFields) {
    auto p = formats::demoProject();
    p.name = "Quay @ 7 north";
    const auto d = design::run(p, {.trace = false});
    const auto text = formats::bendingData(p, d);
    EXPECT_NE(text.find("Quay - 7 north@r"), std::string::npos);
}
