#include "drawing/connection_detail.h"

#include <gtest/gtest.h>

#include <array>

#include "design/floor_design.h"
#include "formats/project_file.h"

using namespace talvik;
using namespace talvik::drawing;

// Every connection of the demo: what is drawn lies on the sheet, legs and perimeters are all there, words
// clear of each other.
TEST(ConnectionDetail, OfTheDemoLiesOnItsSheet) {
    const auto p = formats::demoFloorProject();
    const auto d = design::designFloor(p, 0, {}, false);
    ASSERT_TRUE(d);
    for (const auto& c : d->connections) {
        const auto s = connectionDetail(*c, p.basis);
        EXPECT_EQ(s.title, c->name);
        std::size_t legs = 0, perimeters = 0;
        std::vector<std::array<double, 4>> words;
        for (const auto& item : s.items) {
            auto on = [&](Point q) {
                EXPECT_GE(q.x, -0.5) << c->name;
                EXPECT_LE(q.x, s.width + 0.5) << c->name;
                EXPECT_GE(q.y, -2) << c->name;
                EXPECT_LE(q.y, s.height + 0.5) << c->name;
            };
            if (const auto* line = std::get_if<Polyline>(&item)) {
                for (Point q : line->points) on(q);
                perimeters += line->layer == Layer::Perimeter;
            } else if (const auto* circle = std::get_if<Circle>(&item)) {
                on(circle->centre);
                legs += circle->layer == Layer::ShearSteel;
            } else if (const auto* t = std::get_if<Text>(&item)) {
                const double w = textWidth(t->text, t->height),
                             x = t->at.x - (t->align == Align::Right    ? w
                                            : t->align == Align::Centre ? w / 2
                                                                        : 0);
                on({x, t->at.y}), on({x + w, t->at.y + t->height});
                for (const auto& o : words)
                    EXPECT_FALSE(x < o[2] && o[0] < x + w && t->at.y < o[3] && o[1] < t->at.y + t->height)
                        << c->name << ": " << t->text;
                words.push_back({x, t->at.y, x + w, t->at.y + t->height});
            }
        }
        EXPECT_EQ(legs, c->steel ? c->steel->legs.legs.size() : 0u) << c->name;
        EXPECT_EQ(perimeters > 0, c->shown() != nullptr) << c->name;
    }
}
