#include "trace/trace.h"

#include <gtest/gtest.h>

#include <cmath>

#include "units/units.h"

using namespace talvik;
using trace::Form;

namespace {

trace::Step sample() {
    trace::Steps steps;
    trace::step(&steps, "v_Rd,c", "0.18/gamma_c*k*(100*rho_l*f_ck)^(1/3)",
                {{"gamma_c", 1.5}, {"k", 2}, {"rho_l", 0.005}, {"f_ck", 30, "MPa"}},
                0.12 * 2 * std::cbrt(15.0), "MPa", "6.2.2(1)");
    return steps.front();
}

}  // namespace

TEST(Trace, CostsNothingWithoutSteps) {
    EXPECT_EQ(trace::step(nullptr, "x", "1+1", {}, 2, "", ""), 2);
}

TEST(Trace, ShowsFormulaWithGreekAndSubscripts) {
    EXPECT_EQ(trace::formula(sample(), Form::Plain), "v_Rd,c = 0.18 / γ_c · k · (100 · ρ_l · f_ck)^(1 / 3)");
    std::string html = trace::formula(sample(), Form::Html);
    EXPECT_NE(html.find("v<sub>Rd,c</sub>"), std::string::npos);
    EXPECT_NE(html.find("γ<sub>c</sub>"), std::string::npos);
    EXPECT_NE(html.find("<sup>(1/3)</sup>"), std::string::npos);
}

TEST(Trace, SubstitutedNumbersEvaluateToTheResult) {
    auto value = units::evaluate(trace::substitutedExpression(sample()));
    ASSERT_TRUE(value.value) << value.error;
    EXPECT_NEAR(*value.value, sample().result, 1e-4 * sample().result);
    EXPECT_EQ(trace::result(sample(), Form::Plain).substr(0, 2), "= ");
}

TEST(Trace, SymbolsThatStartAlikeAreToldApart) {
    trace::Steps steps;
    trace::step(&steps, "y", "d - d_2*d'", {{"d", 10}, {"d_2", 2}, {"d'", 3}}, 4, "", "c");
    EXPECT_EQ(trace::substitutedExpression(steps[0]), "10 - 2*3");
}

TEST(Trace, NegativeNumbersAreBracketed) {
    trace::Steps steps;
    trace::step(&steps, "y", "a - b", {{"a", 1}, {"b", -2}}, 3, "", "c");
    EXPECT_EQ(*units::evaluate(trace::substitutedExpression(steps[0])).value, 3);
}
