// Pairs of bar and spacing that a project allows.
#pragma once

#include <optional>
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

}  // namespace talvik::bars
