// Pairs of bar and spacing that a project allows.
#pragma once

#include <optional>
#include <utility>
#include <vector>

#include "line/section.h"

namespace talvik::bars {

struct BarChoice {
    const catalogs::Bar* bar = nullptr;
    double spacing = 0;
    double area() const { return bar->area / spacing; }  // mm2 per mm
};
// All pairs of the allowed bars and the spacings between the least and `largest`, least steel first; the
// larger spacing where equal.
std::vector<BarChoice> barChoices(const std::vector<std::string>& allowed, double largest,
                                  const model::Basis& basis, const standards::Standard& standard);
// The steel that a moment asks for, mm2 per mm, where the choice gives it without compression steel and keeps
// the standard's least and most steel and crack rule; none where it does not. Moments per mm of width,
// `service` that of the crack rule's state.
std::optional<double> suffices(const BarChoice& choice, bool top, double thickness, double moment,
                               double service, const line::LineBasis& in);

// A run gets at the most so many times its least steel to be like others.
constexpr double littleMore = 1.2;
// Of choices, each with the steel (any unit) that lies in it: those kept when others give way to the next one
// with more steel per width, within `littleMore`, wherever that adds less than a fiftieth of all the steel
// for each choice that goes. The least of added steel and fiftieths, exactly (choices in a row by their area,
// groups by dynamic programming).
std::vector<BarChoice> usualChoices(std::vector<std::pair<BarChoice, double>> choices);

}  // namespace talvik::bars
