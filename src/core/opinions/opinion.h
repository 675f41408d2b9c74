// A second opinion: what another route says beside the analysis. A value, signed or a magnitude as its maker
// says.
#pragma once

#include <string>

#include "units/units.h"

namespace talvik::opinions {

struct Opinion {
    std::string source, what;
    double engine = 0, opinion = 0;
    units::Kind kind = units::Kind::Moment;
    std::string word = {};  // when they differ more than expected
    double ratio() const { return opinion != 0 ? engine / opinion : 0; }
};
// "12.3 / 12.0 = 1.03" in display units.
std::string beside(const Opinion& o, units::System system);

}  // namespace talvik::opinions
