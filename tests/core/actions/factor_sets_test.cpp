// The sets themselves against the independent table, and what must hold of any.
#include "actions/factor_sets.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include "calc/topics.h"
#include "support/reference.h"

using namespace talvik;

TEST(FactorSets, AreThoseOfTheTable) {
    const auto rows = test::rows(test::readText(test::referencePath("wind_combos")));
    ASSERT_GE(rows.size(), 20u);
    for (const auto& row : rows) {
        std::string is;
        for (const auto& s : calc::combinationSets(row.at("rule"), row.at("cases"))) {
            if (!is.empty()) is += ';';
            for (std::size_t i = 0; i < s.factors.size(); ++i)
                is += fmt::format("{}{:.6g}", i ? ":" : "", s.factors[i]);
        }
        EXPECT_EQ(is, row.at("sets")) << row.at("rule") << " " << row.at("cases");
    }
}

TEST(FactorSets, WindsExcludeOneAnother) {
    using actions::Nature;
    const std::vector<actions::ActionKind> kinds{{Nature::Permanent, ""},
                                                 {Nature::Imposed, "B"},
                                                 {Nature::Wind, ""},
                                                 {Nature::Wind, ""},
                                                 {Nature::Wind, ""}};
    const actions::Leading rule{{1.35, 1.0}, 1.5, [](const auto&) { return 0.6; }, "x"};
    for (const auto& sets :
         {actions::leading(kinds, rule), actions::accompanyingOnly(kinds, rule), actions::aciStrength(kinds),
          actions::aciService(kinds), actions::aciStability(kinds), actions::csaUltimate(kinds)}) {
        int winds[3] = {0, 0, 0};
        EXPECT_GT(sets.size(), 4u);
        for (const auto& s : sets) {
            int on = 0;
            for (int i : {2, 3, 4})
                if (s.factors[std::size_t(i)] != 0) ++on, ++winds[i - 2];
            EXPECT_LE(on, 1);
        }
        EXPECT_GT(winds[0], 0);
        EXPECT_TRUE(winds[0] == winds[1] && winds[1] == winds[2]);
    }
}

TEST(FactorSets, ManyImposedActionsStayFew) {
    std::vector<actions::ActionKind> kinds{{actions::Nature::Permanent, ""}};
    for (int i = 0; i < 14; ++i) kinds.push_back({actions::Nature::Imposed, "B"});
    const auto sets = actions::leading(kinds, {{1.35, 1.0}, 1.5, [](const auto&) { return 0.7; }, "x"});
    EXPECT_LT(sets.size(), 100u);
    bool all = false;
    for (const auto& s : sets) all |= s.factors.back() > 0 && s.factors[1] > 0 && s.factors[7] > 0;
    EXPECT_TRUE(all);
}

TEST(FactorSets, AccidentalActionsStandAloneOrWithLessOfTheOthers) {
    using actions::Nature;
    const std::vector<actions::ActionKind> kinds{
        {Nature::Permanent, ""}, {Nature::Imposed, "B"}, {Nature::Accidental, ""}, {Nature::Accidental, ""}};
    const auto sets = actions::accidental(
        kinds, [](const auto&) { return 0.5; }, [](const auto&) { return 0.3; }, "EN 1990 (6.11)");
    ASSERT_EQ(sets.size(), 4u);
    for (const auto& s : sets) {
        EXPECT_EQ(s.factors[0], 1);
        EXPECT_EQ(s.factors[2] + s.factors[3], 1);
        EXPECT_TRUE(s.factors[1] == 0 || s.factors[1] == 0.5);
    }
    EXPECT_TRUE(actions::accidental({{Nature::Permanent, ""}}, {}, {}, "").empty());
}
