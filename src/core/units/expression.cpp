// Recursive-descent evaluator behind units::evaluate. Grammar, loosest first:
//   sum := product (('+'|'-') product)*      product := power (('*'|'/') power)*
//   power := unary ('^' power)?              unary := '-'? atom
//   atom := number | symbol | function '(' sum (',' sum)* ')' | '(' sum ')'
#include <fmt/format.h>

#include <charconv>
#include <cmath>
#include <stdexcept>

#include "units/units.h"

namespace talvik::units {
namespace {

using Symbols = std::map<std::string, double, std::less<>>;

class Evaluator {
  public:
    Evaluator(std::string_view text, const Symbols& symbols) : text_(text), symbols_(symbols) {}

    double run() {
        double value = sum();
        skip();
        if (at_ < text_.size()) fail(fmt::format("\"{}\" is not understood", text_.substr(at_)));
        if (!std::isfinite(value)) fail("the result is not a finite number");
        return value;
    }

  private:
    [[noreturn]] static void fail(const std::string& why) { throw std::invalid_argument(why + "."); }

    void skip() {
        while (at_ < text_.size() && std::isspace(static_cast<unsigned char>(text_[at_]))) ++at_;
    }
    bool take(char c) {
        skip();
        if (at_ < text_.size() && text_[at_] == c) return ++at_, true;
        return false;
    }
    static bool wordStart(char c) { return std::isalpha(static_cast<unsigned char>(c)) || (c & 0x80); }
    static bool wordPart(char c) {
        return wordStart(c) || std::isdigit(static_cast<unsigned char>(c)) || c == '_' || c == '\'' ||
               c == '.';
    }

    double sum() {
        if (++depth_ > 100) fail("too many nested brackets");
        double value = product();
        while (true) {
            if (take('+'))
                value += product();
            else if (take('-'))
                value -= product();
            else
                break;
        }
        --depth_;
        return value;
    }
    double product() {
        double value = power();
        while (true) {
            if (take('*')) {
                value *= power();
            } else if (take('/')) {
                double by = power();
                if (by == 0) fail("division by zero");
                value /= by;
            } else {
                return value;
            }
        }
    }
    double power() {
        bool negative = false;  // -a^b means -(a^b)
        while (take('-')) negative = !negative;
        double value = atom();
        if (take('^')) value = std::pow(value, power());
        return negative ? -value : value;
    }
    double atom() {
        skip();
        if (at_ >= text_.size()) fail("something is missing at the end");
        if (take('(')) {
            double value = sum();
            if (!take(')')) fail("a closing bracket is missing");
            return value;
        }
        char c = text_[at_];
        if (std::isdigit(static_cast<unsigned char>(c)) || c == '.') {
            double value = 0;
            auto [end, code] = std::from_chars(text_.data() + at_, text_.data() + text_.size(), value);
            if (code != std::errc()) fail("a number cannot be read");
            at_ = static_cast<std::size_t>(end - text_.data());
            return value;
        }
        if (wordStart(c)) return word();
        fail(fmt::format("\"{}\" is not understood", text_.substr(at_)));
    }
    double word() {
        std::size_t from = at_;
        while (at_ < text_.size()) {
            // A comma belongs to a symbol such as f_ctk,0.05 or V_Rd,c only when a known symbol says so.
            if (wordPart(text_[at_]))
                ++at_;
            else if (text_[at_] == ',' && longerSymbol(from))
                ++at_;
            else
                break;
        }
        std::string_view name = text_.substr(from, at_ - from);
        if (auto known = symbols_.find(name); known != symbols_.end()) return known->second;
        if (take('(')) {
            std::vector<double> args{sum()};
            while (take(',')) args.push_back(sum());
            if (!take(')')) fail("a closing bracket is missing");
            return call(name, args);
        }
        fail(fmt::format("\"{}\" is not known here", name));
    }
    bool longerSymbol(std::size_t from) const {
        std::string_view sofar = text_.substr(from, at_ + 1 - from);
        for (auto it = symbols_.lower_bound(sofar); it != symbols_.end() && it->first.starts_with(sofar);
             ++it)
            if (text_.substr(from).starts_with(it->first)) return true;
        return false;
    }
    static double call(std::string_view name, const std::vector<double>& a) {
        double value = a[0];
        if (name == "min") {
            for (double v : a) value = std::min(value, v);
        } else if (name == "max") {
            for (double v : a) value = std::max(value, v);
        } else if (name == "sqrt") {
            if (value < 0) fail("the root of a negative number");
            value = std::sqrt(value);
        } else if (name == "abs") {
            value = std::abs(value);
        } else if (name == "ln") {
            value = std::log(value);
        } else {
            fail(fmt::format("\"{}\" is not known here", name));
        }
        return value;
    }

    std::string_view text_;
    const Symbols& symbols_;
    std::size_t at_ = 0;
    int depth_ = 0;
};

}  // namespace

Parsed evaluate(std::string_view expression, const Symbols& symbols) {
    try {
        return {Evaluator(expression, symbols).run(), {}};
    } catch (const std::invalid_argument& why) {
        return {{}, why.what()};
    }
}

}  // namespace talvik::units
