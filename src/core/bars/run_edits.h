// Bars as people write and step them, and edits of the bars of an element. An edited run is fixed: it stands
// among the bars that the project keeps, and the program does not change it any more.
#pragma once

#include <optional>
#include <string_view>

#include "bars/steel.h"

namespace talvik::bars {

// "H16 @ 150", "H16 150", "H16-150", "H16" or "150": a bar of the project's catalogue, a spacing in displayed
// units, or both. What is not written stays empty; `trouble` is a sentence where nothing can be made of it.
struct WrittenBars {
    std::optional<std::string> bar;
    std::optional<double> spacing;
    std::string trouble;
};
WrittenBars readBars(std::string_view text, const model::Basis& basis);

// The next spacing so many steps on, within the allowed ones; from one between steps, the nearest step
// counts.
double nextSpacing(double spacing, int steps, const model::Basis& basis);
// The bar so many sizes on in the catalogue.
std::string nextBar(const std::string& bar, int steps, const model::Basis& basis);

// The bars of an element that someone fixed.
using Fixed = std::vector<model::BarRun>;
// Makes a run one that is fixed, with what changed about it; its id.
model::Id fixRun(model::Project& project, Fixed& fixed, const Run& run);

// Lap of a run, by the standard, all of its bars lapped at one place; rounded up to 10 mm.
double lapLength(const Run& run, double thickness, const line::LineBasis& in);

// Two runs in place of one, lapped over `lap` with its middle at u. Refused, with a sentence, where one of
// them would be shorter than the lap.
struct SplitRun {
    std::string trouble;
    model::Id first, second;
};
SplitRun splitRun(model::Project& project, Fixed& fixed, const Run& run, double u, double lap);

// The run after this one (else the one before) in the same face of the line, of the same kind; null without.
const Run* neighbour(const std::vector<Run>& runs, const Run& run);
// One run in place of two, over both, with the stronger bars of the two and their outer ends; its id.
model::Id joinRuns(model::Project& project, Fixed& fixed, const Run& run, const Run& with);

// Where one more run would lie: over a support a quarter of each span that meets there, whole overhangs; in a
// span all but 0.15 of it at either end; in steps of 50 mm, within the cover. Empty where less than 300 mm is
// left. `at`: id of the support (top) or span (bottom).
struct RoomForRun {
    double from = 0, to = 0, middle = 0;
};
std::optional<RoomForRun> roomForRun(const line::Line& line, bool top, const model::Id& at, double cover);

// One more run, from..to, with the bar and spacing of `like`. Those of `runs` that lie there are fixed first,
// so that the new one adds to them.
model::Id addRun(model::Project& project, Fixed& fixed, const Run& like, double from, double to,
                 const std::vector<Run>& runs);

}  // namespace talvik::bars
