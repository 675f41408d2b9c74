// The working of a calculation as data: each step is a formula, the numbers put in, the result and the
// clause. Margin, report and tests read the same steps; a contract test re-evaluates every expression.
#pragma once

#include <initializer_list>
#include <string>
#include <string_view>
#include <vector>

namespace talvik::trace {

// One named number of a formula. `unit` is the unit the number is in ("mm", "MPa", "-").
struct Quantity {
    std::string symbol;
    double value = 0;
    std::string unit;
};

// One line of working. `expression` uses ASCII arithmetic understood by units::evaluate and the symbols of
// `inputs`; evaluated with them it gives `result` in `unit`. A step without expression states a given value
// or a choice, explained by `note`.
struct Step {
    std::string symbol;
    std::string expression;
    std::vector<Quantity> inputs;
    double result = 0;
    std::string unit;
    std::string clause;
    std::string note;
};

using Steps = std::vector<Step>;

struct Input {
    std::string_view symbol;
    double value;
    std::string_view unit = "";
};

// Adds a step where `steps` is not null; costs nothing otherwise. Returns the result, for use in line.
double step(Steps* steps, std::string_view symbol, std::string_view expression,
            std::initializer_list<Input> inputs, double result, std::string_view unit,
            std::string_view clause, std::string_view note = "");

// Text forms of a step. Numbers are printed with `significant` digits.
enum class Form { Plain, Html };
std::string formula(const Step& step, Form form);  // "v_Rd,c = 0.18/γ_c · k · ..." with subscripts in HTML
std::string substituted(const Step& step, Form form);  // the same with the numbers put in
std::string result(const Step& step, Form form);       // "= 0.72 MPa"
// The substituted expression as ASCII arithmetic, as a machine can evaluate it.
std::string substitutedExpression(const Step& step);
// A symbol for people: Greek names become letters, text after '_' a subscript in HTML.
std::string symbol(std::string_view ascii, Form form);

// The steps in their order, each once: the same step may come from two rules.
Steps withoutRepeats(Steps steps);

}  // namespace talvik::trace
