#include "units/units.h"

#include <fmt/format.h>

#include <array>
#include <charconv>
#include <cmath>

namespace talvik::units {
namespace {

constexpr double in = 25.4, ft = 304.8, lbf = 4.4482216152605, kip = 1000 * lbf;

struct KindUnits {
    Kind kind;
    Unit metric, us;
};

constexpr std::array table{
    KindUnits{Kind::None, {"", 1, 2}, {"", 1, 2}},
    KindUnits{Kind::Length, {"mm", 1, 0}, {"in", in, 2}},
    KindUnits{Kind::Span, {"m", 1000, 2}, {"ft", ft, 2}},
    KindUnits{Kind::BarSpacing, {"mm", 1, 0}, {"in", in, 1}},
    KindUnits{Kind::Area, {"mm²", 1, 0}, {"in²", in* in, 2}},
    KindUnits{Kind::SteelPerWidth, {"mm²/m", 1e-3, 0}, {"in²/ft", in* in / ft, 3}},
    KindUnits{Kind::Force, {"kN", 1000, 1}, {"kip", kip, 2}},
    KindUnits{Kind::ForcePerWidth, {"kN/m", 1, 1}, {"kip/ft", kip / ft, 2}},
    KindUnits{Kind::MomentPerWidth, {"kNm/m", 1000, 1}, {"kip·ft/ft", kip, 2}},
    KindUnits{Kind::Moment, {"kNm", 1e6, 1}, {"kip·ft", kip* ft, 2}},
    KindUnits{Kind::Stress, {"MPa", 1, 1}, {"psi", lbf / (in * in), 0}},
    KindUnits{Kind::ShearStress, {"MPa", 1, 2}, {"psi", lbf / (in * in), 0}},
    KindUnits{Kind::AreaLoad, {"kN/m²", 1e-3, 2}, {"psf", lbf / (ft * ft), 1}},
    KindUnits{Kind::Density, {"kN/m³", 1e-6, 1}, {"pcf", lbf / (ft * ft * ft), 0}},
    KindUnits{Kind::Crack, {"mm", 1, 2}, {"in", in, 3}},
    KindUnits{Kind::Sag, {"mm", 1, 1}, {"in", in, 2}},
    KindUnits{Kind::Mass, {"kg", 1, 1}, {"lb", 0.45359237, 1}},
    KindUnits{Kind::Percent, {"%", 0.01, 2}, {"%", 0.01, 2}},
    KindUnits{Kind::Strain, {"‰", 1e-3, 2}, {"‰", 1e-3, 2}},
    KindUnits{Kind::PlanArea, {"m²", 1e6, 2}, {"ft²", ft* ft, 1}},
    KindUnits{Kind::Subgrade, {"MN/m³", 1e-3, 1}, {"pci", lbf / (in * in * in), 0}},
    KindUnits{Kind::Stiffness, {"kN/mm", 1e3, 1}, {"kip/in", kip / in, 1}},
    KindUnits{Kind::Angle, {"°", 1, 1}, {"°", 1, 1}},
    KindUnits{Kind::Volume, {"m³", 1e9, 1}, {"ft³", ft* ft* ft, 0}},
    KindUnits{Kind::MassPerVolume, {"kg/m³", 1e-9, 0}, {"lb/ft³", 0.45359237 / (ft * ft * ft), 1}},
    KindUnits{Kind::MassPerArea, {"kg/m²", 1e-6, 1}, {"lb/ft²", 0.45359237 / (ft * ft), 2}},
    KindUnits{Kind::Count, {"", 1, 0}, {"", 1, 0}},
};

// What a user may type behind a number, per kind of quantity.
struct Spelling {
    std::string_view text;
    double factor;
};

std::vector<Spelling> spellings(Kind kind) {
    switch (kind) {
        case Kind::Length:
        case Kind::Span:
        case Kind::BarSpacing:
        case Kind::Crack:
        case Kind::Sag:
            return {{"mm", 1}, {"cm", 10}, {"m", 1000}, {"in", in}, {"\"", in}, {"ft", ft}, {"'", ft}};
        case Kind::Area:
            return {{"mm2", 1}, {"cm2", 100}, {"in2", in * in}};
        case Kind::SteelPerWidth:
            return {{"mm2/m", 1e-3}, {"cm2/m", 0.1}, {"in2/ft", in * in / ft}};
        case Kind::Force:
            return {{"kN", 1000}, {"N", 1}, {"kip", kip}, {"lbf", lbf}};
        case Kind::ForcePerWidth:
            return {{"kN/m", 1}, {"kip/ft", kip / ft}};
        case Kind::MomentPerWidth:
            return {{"kNm/m", 1000}, {"kip ft/ft", kip}};
        case Kind::Moment:
            return {{"kNm", 1e6}, {"kip ft", kip * ft}};
        case Kind::Stress:
        case Kind::ShearStress:
            return {{"MPa", 1}, {"N/mm2", 1}, {"kPa", 1e-3}, {"psi", lbf / in / in}, {"ksi", kip / in / in}};
        case Kind::AreaLoad:
            return {{"kN/m2", 1e-3}, {"kPa", 1e-3}, {"psf", lbf / ft / ft}, {"ksf", kip / ft / ft}};
        case Kind::Density:
            return {{"kN/m3", 1e-6}, {"pcf", lbf / ft / ft / ft}};
        case Kind::Mass:
            return {{"kg", 1}, {"t", 1000}, {"lb", 0.45359237}};
        case Kind::Percent:
            return {{"%", 0.01}};
        case Kind::Strain:
            return {{"‰", 1e-3}};
        case Kind::PlanArea:
            return {{"m2", 1e6}, {"mm2", 1}, {"ft2", ft * ft}};
        case Kind::Subgrade:
            return {{"MN/m3", 1e-3}, {"kN/m3", 1e-6}, {"pci", lbf / (in * in * in)}};
        case Kind::Stiffness:
            return {{"kN/mm", 1e3}, {"kN/m", 1}, {"MN/m", 1e3}, {"kip/in", kip / in}};
        case Kind::Angle:
            return {{"°", 1}, {"deg", 1}};
        case Kind::Volume:
            return {{"m3", 1e9}, {"m³", 1e9}, {"ft3", ft * ft * ft}};
        case Kind::MassPerVolume:
            return {{"kg/m3", 1e-9}};
        case Kind::MassPerArea:
            return {{"kg/m2", 1e-6}};
        case Kind::None:
        case Kind::Count:
            return {};
    }
    return {};
}

std::string_view trimmed(std::string_view s) {
    while (!s.empty() && std::isspace(static_cast<unsigned char>(s.front()))) s.remove_prefix(1);
    while (!s.empty() && std::isspace(static_cast<unsigned char>(s.back()))) s.remove_suffix(1);
    return s;
}

std::string replaced(std::string text, std::string_view from, std::string_view to) {
    for (std::size_t at = 0; (at = text.find(from, at)) != std::string::npos; at += to.size())
        text.replace(at, from.size(), to);
    return text;
}

}  // namespace

const Unit& unit(Kind kind, System system) {
    for (const auto& row : table)
        if (row.kind == kind) return system == System::Metric ? row.metric : row.us;
    return table.front().metric;
}

std::string number(double stored, Kind kind, System system) {
    return number(stored, kind, system, 0);
}
std::string number(double stored, Kind kind, System system, int more) {
    const Unit& u = unit(kind, system);
    std::string s = fmt::format("{:.{}f}", stored / u.factor, u.decimals + more);
    if (s.find_first_not_of("-0.") == std::string::npos && s.front() == '-') s.erase(0, 1);
    return s;
}

std::string text(double stored, Kind kind, System system) {
    const Unit& u = unit(kind, system);
    std::string s = number(stored, kind, system);
    if (u.symbol.empty()) return s;
    return s + (u.symbol == "%" ? "" : " ") + std::string(u.symbol);
}

Parsed parse(std::string_view input, Kind kind, System system) {
    std::string cleaned = replaced(replaced(std::string(trimmed(input)), "²", "2"), "³", "3");
    cleaned = replaced(replaced(cleaned, "·", " "), "×", "*");
    std::string_view s = trimmed(cleaned);
    if (s.empty()) return {{}, "Nothing is written here; give a number."};
    double factor = unit(kind, system).factor;
    std::size_t longest = 0;
    for (const auto& known : spellings(kind)) {
        if (known.text.size() > longest && s.size() > known.text.size() && s.ends_with(known.text)) {
            char before = s[s.size() - known.text.size() - 1];
            if (std::isalpha(static_cast<unsigned char>(before)) || before == '/') continue;
            longest = known.text.size();
            factor = known.factor;
        }
    }
    Parsed result = evaluate(trimmed(s.substr(0, s.size() - longest)));
    if (result.value) {
        result.value = *result.value * factor;
    } else {
        std::string_view symbol = unit(kind, system).symbol;
        result.error = fmt::format(
            "\"{}\" is not {}: {}", trimmed(input),
            symbol.empty() ? std::string("a number") : fmt::format("a value in {}", symbol), result.error);
    }
    return result;
}

ParsedList parseSpacingList(std::string_view input, Kind kind, System system, std::size_t limit) {
    ParsedList list;
    std::string s =
        replaced(replaced(replaced(replaced(std::string(input), ",", " "), ";", " "), " @", "@"), "@ ", "@");
    for (const char* u : {" mm", " m", " ft", " in", " cm"})  // keep a unit with its number
        s = replaced(s, u, u + 1);
    for (std::size_t at = 0; at < s.size();) {
        std::size_t end = s.find(' ', at);
        if (end == std::string::npos) end = s.size();
        std::string_view word(s.data() + at, end - at);
        at = end + 1;
        if (word.empty()) continue;
        double count = 1;
        if (auto sign = word.find('@'); sign != std::string_view::npos) {
            Parsed n = evaluate(word.substr(0, sign));
            if (!n.value || *n.value < 1 || *n.value != std::floor(*n.value)) {
                list.error = fmt::format("\"{}\": before @ stands how many, a whole number from 1.", word);
                return list;
            }
            count = *n.value;
            word.remove_prefix(sign + 1);
        }
        Parsed value = parse(word, kind, system);
        if (!value.value) {
            list.error = value.error;
            return list;
        }
        if (*value.value <= 0) {
            list.error = fmt::format("\"{}\": lengths must be more than zero.", word);
            return list;
        }
        if (static_cast<double>(list.values.size()) + count > static_cast<double>(limit)) {
            list.error = fmt::format("More than {} lengths; at most {} are possible.", limit, limit);
            return list;
        }
        list.values.insert(list.values.end(), static_cast<std::size_t>(count), *value.value);
    }
    if (list.values.empty()) list.error = "Give at least one length, for example 3@5.0 4.2.";
    return list;
}

std::string spacingList(const std::vector<double>& stored, Kind kind, System system) {
    std::string out;
    for (std::size_t i = 0; i < stored.size();) {
        std::size_t j = i;
        while (j < stored.size() && stored[j] == stored[i]) ++j;
        std::string value = plain(stored[i] / unit(kind, system).factor, 7);
        if (!out.empty()) out += ' ';
        out += j - i > 1 ? fmt::format("{}@{}", j - i, value) : value;
        i = j;
    }
    return out;
}

std::string plain(double value, int significant) {
    if (value == 0 || !std::isfinite(value)) return value == 0 ? "0" : fmt::format("{}", value);
    double magnitude = std::floor(std::log10(std::abs(value)));
    if (magnitude < -6 || magnitude > 9) return fmt::format("{:.{}g}", value, significant);
    int decimals = std::max(0, significant - 1 - static_cast<int>(magnitude));
    std::string s = fmt::format("{:.{}f}", value, decimals);
    if (s.find('.') != std::string::npos) {
        s.erase(s.find_last_not_of('0') + 1);
        if (s.back() == '.') s.pop_back();
    }
    return s;
}

double rounded(double value, int significant) {
    std::string text = fmt::format("{:.{}g}", value, significant);
    double result = value;
    std::from_chars(text.data(), text.data() + text.size(), result);
    return result;
}

double roundUp(double value, double step) {
    return std::ceil(value / step - 1e-9) * step;
}
double roundDown(double value, double step) {
    return std::floor(value / step + 1e-9) * step;
}

}  // namespace talvik::units
