// What stands open in an element before any check: what is not joined or held, and what carries no load.
#pragma once

#include "layout/connectivity.h"

namespace talvik::report {

// The sentence, the place, the members and the mend as of a loose end.
struct Matter : layout::LooseEnd {
    enum class Kind { Loose, Unloaded } kind = Kind::Loose;
};
// Of a floor its loose ends, or that there is no slab; then cases without load, no imposed load at all, and imposed loads kept from
// standing on panels in turn where the standard asks for it; of a one-way slab that it carries no imposed
// load. `element` may be unknown: nothing then.
std::vector<Matter> openMatters(const model::Project& project, std::string_view element);

}  // namespace talvik::report
