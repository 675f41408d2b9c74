// Panels loaded in turn: which panels of a floor carry the imposed load, besides all of them.
#pragma once

#include <memory>

#include "layout/panels.h"
#include "model/project.h"
#include "standards/rules.h"

namespace talvik::design {

// Which panels carry the imposed load. A value.
struct PanelLoading {
    std::string title;         // "columns 1, 3, …", "rows 2 and 3"
    std::vector<char> loaded;  // per panel
};
// Every second row and column of panels, panels like a chessboard, and each two neighbouring rows and columns
// with the others unloaded (EN 1992-1-1 5.1.3(1)P; ACI 318-19 6.4.2, 6.4.3.3). Pairs five rows apart share an
// arrangement: over three unloaded spans they do not touch each other. None where all or no panels would be
// loaded.
std::vector<PanelLoading> panelLoadings(const std::vector<layout::Panel>& panels);

// The floor with a case for every such arrangement of every imposed case, where imposed loads stand on panels
// in turn and the standard asks for it: the cases' ids are those of their own case, a slash and a number.
// Area and line loads are cut at the panels' edges. `word` says what was done and by which clause.
struct Arranged {
    std::shared_ptr<const model::Floor> floor;
    std::string word;
    double share = 1;  // of the imposed load that counts on some panels alone
};
Arranged arranged(const std::shared_ptr<const model::Floor>& floor, const model::Basis& basis,
                  const standards::Standard& standard);

}  // namespace talvik::design
