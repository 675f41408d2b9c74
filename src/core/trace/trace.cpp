#include "trace/trace.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <utility>

#include "units/units.h"

namespace talvik::trace {
namespace {

constexpr int significant = 5;

constexpr std::array greek{
    std::pair{"alpha", "α"},   std::pair{"beta", "β"}, std::pair{"gamma", "γ"}, std::pair{"delta", "δ"},
    std::pair{"epsilon", "ε"}, std::pair{"eta", "η"},  std::pair{"zeta", "ζ"},  std::pair{"kappa", "κ"},
    std::pair{"lambda", "λ"},  std::pair{"xi", "ξ"},   std::pair{"rho", "ρ"},   std::pair{"sigma", "σ"},
    std::pair{"phi", "φ"},     std::pair{"psi", "ψ"},  std::pair{"Delta", "Δ"},
};

bool wordChar(char c) {
    return std::isalnum(static_cast<unsigned char>(c)) || c == '_' || c == '\'' || (c & 0x80);
}

// The symbol of `step.inputs` that starts at `at`, longest first; nullptr when a plain character stands
// there.
const Quantity* symbolAt(const Step& step, std::size_t at) {
    const std::string& e = step.expression;
    if (!wordChar(e[at]) || (at > 0 && wordChar(e[at - 1]))) return nullptr;
    const Quantity* best = nullptr;
    for (const auto& q : step.inputs) {
        std::size_t n = q.symbol.size();
        bool ends = at + n >= e.size() || !wordChar(e[at + n]);
        if (e.compare(at, n, q.symbol) == 0 && ends && (!best || n > best->symbol.size())) best = &q;
    }
    return best;
}

// Walks the expression, giving symbols to `onSymbol` and everything else, prettified, to the output.
template <class F>
std::string walk(const Step& step, Form form, bool pretty, F onSymbol) {
    std::string out;
    const std::string& e = step.expression;
    for (std::size_t i = 0; i < e.size();) {
        if (const Quantity* q = symbolAt(step, i)) {
            out += onSymbol(*q);
            i += q->symbol.size();
        } else if (pretty && e.compare(i, 5, "sqrt(") == 0) {
            out += "√(";
            i += 5;
        } else if (pretty && e[i] == 'e' && i > 0 && std::isdigit(static_cast<unsigned char>(e[i - 1])) &&
                   i + 1 < e.size() &&
                   (std::isdigit(static_cast<unsigned char>(e[i + 1])) || e[i + 1] == '-')) {
            std::size_t j = i + 1 + (e[i + 1] == '-');
            while (j < e.size() && std::isdigit(static_cast<unsigned char>(e[j]))) ++j;
            std::string power = e.substr(i + 1, j - i - 1);
            if (!out.empty() && out.back() == '1' &&
                (out.size() < 2 || !(std::isdigit(static_cast<unsigned char>(out[out.size() - 2])) ||
                                     out[out.size() - 2] == '.')))
                out.pop_back();
            else
                out += " × ";
            out += form == Form::Html ? "10<sup>" + power + "</sup>" : "10^" + power;
            i = j;
        } else if (pretty && e[i] == '*') {
            out += " · ";
            ++i;
        } else if (pretty && (e[i] == '+' || e[i] == '-' || e[i] == '/') && i > 0 && e[i - 1] != '(') {
            if (e[i] == '/')
                out += " / ";
            else
                out += e[i] == '-' ? " − " : " + ";
            ++i;
        } else if (pretty && e[i] == ' ') {
            ++i;
        } else if (pretty && e[i] == ',') {
            out += ", ";
            ++i;
        } else if (pretty && form == Form::Html && e[i] == '^') {
            std::size_t j = i + 1;
            if (j < e.size() && e[j] == '(') {
                j = e.find(')', j);
                j = j == std::string::npos ? e.size() : j + 1;
            } else {
                while (j < e.size() && (std::isdigit(static_cast<unsigned char>(e[j])) || e[j] == '.')) ++j;
            }
            out += "<sup>" + e.substr(i + 1, j - i - 1) + "</sup>";
            i = std::max(j, i + 1);
        } else {
            out += e[i++];
        }
    }
    return out;
}

std::string bracketed(double value) {
    std::string s = units::plain(value, significant);
    return value < 0 ? "(" + s + ")" : s;
}

}  // namespace

double step(Steps* steps, std::string_view symbol, std::string_view expression,
            std::initializer_list<Input> inputs, double result, std::string_view unit,
            std::string_view clause, std::string_view note) {
    if (!steps) return result;
    Step s{std::string(symbol), std::string(expression), {}, result, std::string(unit),
           std::string(clause), std::string(note)};
    for (const auto& in : inputs)
        s.inputs.push_back({std::string(in.symbol), in.value, std::string(in.unit)});
    steps->push_back(std::move(s));
    return result;
}

std::string symbol(std::string_view ascii, Form form) {
    std::string base(ascii.substr(0, ascii.find('_')));
    std::string sub =
        ascii.find('_') == std::string_view::npos ? "" : std::string(ascii.substr(ascii.find('_') + 1));
    for (std::string* part : {&base, &sub})
        for (auto [name, letter] : greek)
            if (*part == name) *part = letter;
    if (sub.empty()) return base;
    return form == Form::Html ? base + "<sub>" + sub + "</sub>" : base + "_" + sub;
}

std::string formula(const Step& step, Form form) {
    std::string head = symbol(step.symbol, form);
    if (step.expression.empty()) return head;
    return head + " = " + walk(step, form, true, [&](const Quantity& q) { return symbol(q.symbol, form); });
}

std::string substituted(const Step& step, Form form) {
    if (step.expression.empty() || step.inputs.empty()) return {};
    return "= " + walk(step, form, true, [](const Quantity& q) { return bracketed(q.value); });
}

std::string result(const Step& step, Form) {
    std::string unit = step.unit == "-" ? "" : step.unit;
    return "= " + units::plain(step.result, significant) + (unit.empty() ? "" : " " + unit);
}

std::string substitutedExpression(const Step& step) {
    return walk(step, Form::Plain, false, [](const Quantity& q) { return bracketed(q.value); });
}

Steps withoutRepeats(Steps steps) {
    Steps once;
    for (auto& step : steps) {
        bool known = std::any_of(once.begin(), once.end(), [&](const Step& t) {
            return t.symbol == step.symbol && t.expression == step.expression && t.result == step.result;
        });
        if (!known) once.push_back(std::move(step));
    }
    return once;
}

}  // namespace talvik::trace
