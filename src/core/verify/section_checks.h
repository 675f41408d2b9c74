// What the bars of one face have to keep at a section, whatever it is a section of.
#pragma once

#include <vector>

#include "model/project.h"
#include "standards/rules.h"
#include "verify/check_list.h"

namespace talvik::verify {

// Steel in mm2 per mm of width; spacing centre to centre of the main bars, `closest` that of all bars
// together.
struct BarsAt {
    double area = 0, spacing = 0, closest = 0, diameter = 0;
};
// Bending of a section on its width: `moment` per mm of width against the steel of the face in tension, and
// of the other where it is needed in compression. Not judged yet.
checks::Finding bending(const standards::Section& section, double moment, double area, double otherFace,
                        const standards::Standard& standard, units::System system, trace::Steps* steps);
// Neutral axis, least and most steel, spacing, clear distance; on the section's width. `crackLimit`: the
// largest crack width of a face that service loads put in tension, 0 for others; `twoWay`: of a slab that
// carries both ways. With steps where `tracing`.
std::vector<NamedFinding> sectionChecks(const standards::Section& section, const BarsAt& bars,
                                        const model::Basis& basis, const standards::Standard& standard,
                                        double crackLimit, bool twoWay, bool tracing);

}  // namespace talvik::verify
