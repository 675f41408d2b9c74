#include "opinions/opinion.h"

#include <fmt/format.h>

namespace talvik::opinions {

std::string beside(const Opinion& o, units::System system) {
    return fmt::format("{} / {} = {:.2f}", units::number(o.engine, o.kind, system),
                       units::number(o.opinion, o.kind, system), o.ratio());
}

}  // namespace talvik::opinions
