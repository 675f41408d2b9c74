#include "drawing/sheets.h"

#include "drawing/base_sheets.h"
#include "drawing/floor_sheets.h"
#include "drawing/slab_sheet.h"

namespace talvik::drawing {

std::vector<Sheet> sheets(const model::Project& project, const design::Design& design,
                          const design::ElementAnswer& element) {
    if (!element.error.empty()) return {};
    if (const auto* slab = dynamic_cast<const design::SlabAnswer*>(&element))
        return {slabSheet(project, design, *slab->design)};
    if (const auto* floor = dynamic_cast<const design::FloorDesign*>(&element))
        return floor->layout ? floorSheets(project, design, *floor) : std::vector<Sheet>{};
    if (const auto* bases = dynamic_cast<const design::BasesAnswer*>(&element))
        return baseSheets(project, design, *bases);
    return {};
}

}  // namespace talvik::drawing
