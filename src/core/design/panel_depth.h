// First thickness of the panels of a floor by the standard's span-to-depth rules, and the panel that governs.
#pragma once

#include "layout/panels.h"
#include "model/project.h"
#include "standards/rules.h"
#include "trace/trace.h"

namespace talvik::design {

struct PanelDepth {
    double thickness = 0;  // overall, rounded up; 0 where no side is held
    std::string system;    // "end span", "interior span", "flat slab, edge panel"
    trace::Steps steps;
};
// One for each panel, in their order. Bars of 16 mm and the basis' cover are taken for the effective depth.
std::vector<PanelDepth> panelDepths(const model::Project& project, const model::Floor& floor,
                                    const std::vector<layout::Panel>& panels,
                                    const standards::Standard& standard);
// Index of the thickest; panels.size() for none.
std::size_t governing(const std::vector<PanelDepth>& depths);

}  // namespace talvik::design
