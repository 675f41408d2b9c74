// Sheets of floors: texts overlap neither texts nor bars, nothing leaves the sheet, and every run is called
// out.
#include <gtest/gtest.h>

#include <set>

#include "design/floor_design.h"
#include "drawing/label_places.h"
#include "drawing/sheets.h"
#include "formats/project_file.h"
#include "model/edits.h"
#include "support/cases.h"
#include "support/random_floor.h"
#include "support/random_slab.h"
#include "support/regular_floor.h"

using namespace talvik;
using namespace talvik::drawing;

namespace {

bool isBar(Layer l) {
    return l == Layer::BarsX || l == Layer::BarsXTop || l == Layer::BarsY || l == Layer::BarsYTop;
}
bool meets(const geometry::Ring& box, Point a, Point b) {
    if (geometry::contains(box, a) || geometry::contains(box, b)) return true;
    for (std::size_t i = 0; i < box.size(); ++i)
        if (geometry::cross(a, b, box[i], box[(i + 1) % box.size()], nullptr)) return true;
    return false;
}
// Pairs of texts that overlap, and bars through texts.
std::pair<int, int> overlaps(const Sheet& s) {
    std::vector<std::pair<const Text*, geometry::Ring>> boxes;
    for (const auto& item : s.items)
        if (const auto* t = std::get_if<Text>(&item)) boxes.emplace_back(t, LabelPlaces::box(*t, 0));
    int texts = 0, bars = 0;
    for (std::size_t i = 0; i < boxes.size(); ++i)
        for (std::size_t k = 0; k < i; ++k) {
            if (geometry::length(boxes[i].first->at, boxes[k].first->at) > 200) continue;
            const auto part = geometry::clipped(boxes[i].second, boxes[k].second);
            if (part.size() > 2 && std::abs(geometry::area(part)) > 0.02) {
                ++texts;
                ADD_FAILURE() << boxes[i].first->text << " over " << boxes[k].first->text << " at "
                              << boxes[i].first->at.x << ", " << boxes[i].first->at.y;
            }
        }
    for (const auto& item : s.items)
        if (const auto* line = std::get_if<Polyline>(&item); line && isBar(line->layer))
            for (std::size_t k = 0; k + 1 < line->points.size(); ++k)
                for (const auto& [t, box] : boxes)
                    if (meets(box, line->points[k], line->points[k + 1])) {
                        ++bars;
                        ADD_FAILURE() << "a bar through " << t->text << " at " << t->at.x << ", " << t->at.y;
                    }
    return {texts, bars};
}
void inside(const Sheet& s) {
    for (const auto& item : s.items) {
        auto in = [&](Point p) { return p.x >= 0 && p.y >= 0 && p.x <= s.width && p.y <= s.height; };
        if (const auto* t = std::get_if<Text>(&item)) {
            for (Point p : LabelPlaces::box(*t, 0)) EXPECT_TRUE(in(p)) << t->text;
        } else if (const auto* line = std::get_if<Polyline>(&item)) {
            for (Point p : line->points) EXPECT_TRUE(in(p)) << s.title;
        }
    }
}

}  // namespace

TEST(FloorSheets, DemoHasItsSheetsWithEveryRunCalledOut) {
    const auto p = formats::demoFloorProject();
    const auto d = design::run(p, {.trace = false});
    const auto sheets = drawing::sheets(p, d, *d.elements[0]);
    ASSERT_EQ(sheets.size(), 5u);
    EXPECT_EQ(sheets[0].title, "Fish hall deck: bottom bars");
    EXPECT_EQ(sheets[2].title, "Fish hall deck: long sections");
    EXPECT_EQ(sheets[3].title, "Fish hall deck: shear reinforcement");
    std::multiset<std::string> words;
    std::string all;
    for (const auto& s : sheets) {
        inside(s);
        for (const auto& item : s.items)
            if (const auto* t = std::get_if<Text>(&item)) words.insert(t->text), all += t->text + "\n";
        const auto [texts, bars] = overlaps(s);
        EXPECT_EQ(texts, 0) << s.title;
        EXPECT_EQ(bars, 0) << s.title;
    }
    const auto& f = dynamic_cast<const design::FloorDesign&>(*d.elements[0]);
    int runs = 0;
    for (const auto& s : f.strips)
        for (const auto& r : s->runs) {
            const auto label = d.callout(*s, r.id, p.basis.units);
            if (label.empty()) continue;
            ++runs;
            EXPECT_TRUE(words.contains(label)) << s->name << " " << r.id << " " << label;
        }
    EXPECT_GT(runs, 60);
    // Every mark stands in the schedule at the end; the warning and what is not checked on the plans.
    std::set<std::string> marks;
    for (const auto& item : sheets[4].items)
        if (const auto* t = std::get_if<Text>(&item)) marks.insert(t->text);
    for (const auto& row : d.scheduleOf(f).rows) {
        char mark[16];
        std::snprintf(mark, sizeof mark, "%02d", row.mark);
        EXPECT_TRUE(marks.contains(mark)) << mark;
    }
    EXPECT_NE(all.find("NOT FOR CONSTRUCTION"), std::string::npos);
    EXPECT_NE(all.find("Not checked by this calculation"), std::string::npos);
    EXPECT_NE(all.find("Sheet 5 of 5"), std::string::npos);
}

TEST(SlabSheet, OfTheDemoAndRandomSlabsNothingOverlaps) {
    for (unsigned seed = 0; seed <= 30; ++seed) {
        const auto p = seed == 0 ? formats::demoProject() : test::randomProject(seed);
        const auto d = design::run(p, {.trace = false});
        if (d.elements.empty() || !d.elements[0]->error.empty()) continue;
        for (const auto& s : drawing::sheets(p, d, *d.elements[0])) {
            const auto [texts, bars] = overlaps(s);
            EXPECT_EQ(texts, 0) << seed;
            EXPECT_EQ(bars, 0) << seed;
            inside(s);
        }
    }
}

TEST(FloorSheets, OfRandomFloorsNothingOverlaps) {
    int sheets = 0, floors = 0;
    const int all = test::share(50);
    for (unsigned seed = 1; seed <= unsigned(all); ++seed) {
        auto p = model::emptyProject();
        p.floors.push_back(std::make_shared<const model::Floor>(test::randomFloor(seed)));
        const auto d = design::run(p, {.trace = false});
        if (d.elements.empty() || !d.elements[0]->error.empty()) continue;
        ++floors;
        for (const auto& s : drawing::sheets(p, d, *d.elements[0])) {
            ++sheets;
            const auto [texts, bars] = overlaps(s);
            EXPECT_EQ(texts, 0) << seed << " " << s.title;
            EXPECT_EQ(bars, 0) << seed << " " << s.title;
            inside(s);
        }
    }
    EXPECT_GE(floors, all * 4 / 5);
    EXPECT_GE(sheets, all * 12 / 5);
}

TEST(LabelPlaces, TakesTheFirstFreePlaceElseOneNearByWithALeader) {
    LabelPlaces places({0, 0}, {200, 100});
    auto text = [](double x, double y) {
        return Text{{x, y}, 2, "12 H10-01-200 B1", Align::Centre, 0, true, Layer::Text};
    };
    LabelPlaces::Place a, b, c;
    EXPECT_TRUE(places.put({text(50, 50), text(100, 50)}, {50, 50}, a));
    EXPECT_EQ(a.text.at.x, 50);
    EXPECT_TRUE(places.put({text(52, 51), text(100, 50)}, {50, 50}, b));
    EXPECT_EQ(b.text.at.x, 100) << "the first is taken";
    places.block({0, 30}, {200, 30});
    EXPECT_TRUE(places.put({text(60, 30)}, {60, 30}, c));
    EXPECT_TRUE(c.leader);
    EXPECT_GT(std::abs(c.text.at.y + 1 - 30), 1) << "off the bar";
    EXPECT_EQ(places.beside({10, 31}, {90, 31}), 1);
    EXPECT_EQ(places.beside({10, 40}, {90, 40}), 0);
    // Where all is full it says so.
    LabelPlaces full({0, 0}, {10, 10});
    EXPECT_FALSE(full.put({text(50, 50)}, {50, 50}, a));
}

// Depths on sheets are the slab's: 6 in, not what covers and legs of bars leave when they are added up again.
TEST(FloorSheets, DepthsAreThoseOfTheSlab) {
    auto p = test::regularFloor(2, 2, 5486.4, 5486.4, 152.4);
    p.basis.standard = "aci318-us", p.basis.units = units::System::UsCustomary;
    const auto design = design::run(p);
    ASSERT_TRUE(design.trouble.empty()) << design.trouble[0].message;
    int told = 0;
    for (const auto& sheet : drawing::sheets(p, design, *design.elements[0]))
        for (const auto& item : sheet.items)
            if (const auto* t = std::get_if<Text>(&item)) {
                told += t->text.find("6.00 in") != std::string::npos;
                EXPECT_EQ(t->text.find("5.8"), std::string::npos) << t->text;
            }
    EXPECT_GT(told, 0);
}
