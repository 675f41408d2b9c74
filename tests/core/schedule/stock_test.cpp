// Cutting from stock: the reference table, sets of its own, and that what is cut is what was asked for.
#include "schedule/stock.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numeric>
#include <random>

#include "design/design.h"
#include "formats/project_file.h"
#include "support/reference.h"

using namespace talvik;
using schedule::Piece;

namespace {

// "13x3300;11x1475"
std::vector<Piece> read(const std::string& text) {
    std::vector<Piece> all;
    std::istringstream in(text);
    for (std::string one; std::getline(in, one, ';');) {
        const auto x = one.find('x');
        all.push_back({std::stod(one.substr(x + 1)), std::stoi(one.substr(0, x)), int(all.size()) + 1});
    }
    return all;
}

// Every piece is cut once under its mark, no bar holds more than there is, and the sums are right.
void sound(const std::vector<Piece>& asked, const schedule::CuttingPlan& plan) {
    std::map<std::pair<int, double>, int> want, got;
    for (const auto& p : asked) want[{p.mark, p.length}] += p.number;
    int bars = 0;
    double used = 0;
    for (const auto& c : plan.cuts) {
        double length = 0;
        for (const auto& p : c.pieces) {
            length += p.number * p.length;
            got[{p.mark, p.length}] += p.number * c.bars;
        }
        EXPECT_LE(length, plan.stock + 1e-9);
        EXPECT_NEAR(c.left, plan.stock - length, 1e-6);
        EXPECT_GT(c.bars, 0);
        bars += c.bars, used += length * c.bars;
    }
    for (const auto& p : plan.tooLong) got[{p.mark, p.length}] += p.number;
    EXPECT_EQ(got, want);
    EXPECT_EQ(bars, plan.bars);
    EXPECT_NEAR(used, plan.used, 1e-6);
    EXPECT_GE(plan.bars, plan.bound);
    EXPECT_GE(plan.bound * plan.stock, plan.used - 1e-6);
}

}  // namespace

TEST(Stock, ReferenceRowsAreReachedOrBettered) {
    const auto rows = test::rows(test::readText(test::referencePath("cutting_stock")));
    ASSERT_EQ(rows.size(), 16u);
    for (const auto& row : rows) {
        const auto pieces = read(row.at("pieces"));
        const double stock = test::num(row, "stock");
        const auto plan = schedule::cutFromStock(pieces, stock);
        sound(pieces, plan);
        EXPECT_EQ(schedule::firstFit(pieces, stock), test::num(row, "ffd")) << row.at("pieces");
        EXPECT_LE(plan.bars, test::num(row, "ffd")) << row.at("pieces");
        EXPECT_GE(plan.bound, test::num(row, "bound")) << row.at("pieces");
        if (plan.bars == test::num(row, "ffd")) {
            EXPECT_NEAR(100 * (1 - plan.waste()), test::num(row, "used"), 0.001);
        }
    }
}

TEST(Stock, WasteStaysNearTheLeast) {
    std::mt19937 random(7);
    for (int k = 0; k < 50; ++k) {
        std::vector<Piece> pieces;
        const int kinds = 3 + int(random() % 18);
        for (int i = 0; i < kinds; ++i)
            pieces.push_back({25.0 * int(20 + random() % 460), 1 + int(random() % 60), i + 1});
        const auto plan = schedule::cutFromStock(pieces, 12000);
        sound(pieces, plan);
        // One whole bar more is what rounding may cost where there are few.
        EXPECT_LE(plan.bars, std::max(plan.bound + 1, int(std::floor(1.03 * plan.bound)))) << k;
        if (plan.bound > 34) {
            EXPECT_LE(plan.waste() - plan.leastWaste(), 0.03) << k;
        }
        const auto quick = schedule::cutFromStock(pieces, 12000, schedule::Effort::Quick);
        sound(pieces, quick);
        EXPECT_GE(quick.bars, plan.bars);
    }
}

TEST(Stock, AgainstEveryWayOfCuttingFewPieces) {
    std::mt19937 random(3);
    int better = 0;
    for (int k = 0; k < 200; ++k) {
        std::vector<int> pieces;
        for (int i = 0; i < 7; ++i) pieces.push_back(1000 + 100 * int(random() % 80));
        // Least number of bars by trying all assignments.
        int least = 8;
        std::vector<int> bars;
        auto go = [&](auto&& self, std::size_t at) -> void {
            if (int(bars.size()) >= least) return;
            if (at == pieces.size()) return void(least = int(bars.size()));
            for (std::size_t b = 0; b < bars.size(); ++b) {
                if (bars[b] + pieces[at] > 12000) continue;
                bars[b] += pieces[at];
                self(self, at + 1);
                bars[b] -= pieces[at];
            }
            bars.push_back(pieces[at]);
            self(self, at + 1);
            bars.pop_back();
        };
        go(go, 0);
        std::vector<Piece> asked;
        for (int p : pieces) asked.push_back({double(p), 1, 1});
        const auto plan = schedule::cutFromStock(asked, 12000);
        EXPECT_LE(plan.bound, least);
        EXPECT_GE(plan.bars, least);
        better += plan.bars == least;
    }
    EXPECT_GE(better, 198);
}

TEST(Stock, PiecesLongerThanTheStockAreNamedAndLeftOut) {
    const auto plan = schedule::cutFromStock({{13000, 2, 4}, {6000, 3, 5}}, 12000);
    ASSERT_EQ(plan.tooLong.size(), 1u);
    EXPECT_EQ(plan.tooLong[0].mark, 4);
    EXPECT_EQ(plan.bars, 2);
    EXPECT_NEAR(plan.waste(), 0.25, 1e-9);
    EXPECT_TRUE(schedule::cutFromStock({}, 12000).cuts.empty());
}

TEST(Stock, ListOfAScheduleCutsAllItsBars) {
    const auto p = formats::demoFloorProject();
    const auto d = design::run(p, {.trace = false});
    const auto s = d.schedule();
    double length = 0, wanted = 0;
    for (const auto& size : schedule::cuttingList(s, p.basis.stockLength)) {
        EXPECT_TRUE(size.plan.tooLong.empty()) << size.bar;
        length += size.plan.used;
        EXPECT_GT(size.massPerMetre, 0.2);
    }
    for (const auto& row : s.rows)
        if (row.shape != "99") wanted += row.total() * row.cutLength;
    EXPECT_NEAR(length, wanted, 1e-3);
}
