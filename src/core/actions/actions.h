// Load combinations and arrangements of imposed load by spans.
#pragma once

#include <string>
#include <vector>

namespace talvik::actions {

enum class LimitState { Ultimate, Characteristic, Frequent, QuasiPermanent };

// One combination of permanent (G) and imposed (Q) action with its factors. A value.
struct Combination {
    std::string name;  // "1.35 G + 1.5 Q"
    std::string clause;
    LimitState state = LimitState::Ultimate;
    double factorG = 1, factorQ = 0;
};

// Which spans carry the imposed load, in the order of the slab's spans (cantilevers included).
struct Arrangement {
    std::string name;  // "all spans", "spans 1, 3, 5", "spans 2 + 3"
    std::vector<bool> loaded;
};

// Arrangements for continuous one-way members: all spans, alternate spans (odd, even) and each two neighbours
// loaded. `names` are the spans' labels. EN 1992-1-1 5.1.3(1), ACI 318-19 6.4.2. The unloaded slab needs no
// arrangement of its own: alternate spans cover it.
std::vector<Arrangement> spanArrangements(const std::vector<std::string>& names);

}  // namespace talvik::actions
