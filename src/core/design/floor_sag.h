// Long-term sag of floors on the plate: cracked, with creep and shrinkage, by the rules of the standard at
// every triangle in both directions of its strips, with the bars that lie there.
//
// Readings. Cracks follow from the elastic moments of the characteristic combinations, twisting added to the
// moment of either direction (Wood and Armer); what the slab carries when it is cracked is in equilibrium on
// the softened plate. Curvatures of one direction by another follow Poisson's ratio of the uncracked slab;
// twisting softens by the root of both directions. Sag counts from the straight line between two places of a
// panel that something holds: its corners, and the middles of sides that lie on walls, beams or line
// supports. A free tip counts from the nearest place held, turning included. Beams are not designed: cracked
// they have half of their stiffness. Units N, mm.
#pragma once

#include <memory>
#include <stop_token>

#include "geometry/polygon.h"
#include "standards/rules.h"
#include "verify/check_list.h"

namespace talvik::design {

struct FloorDesign;

struct FloorSag {
    std::string why;  // why none was worked out; the rest is empty then
    // Per node of the analysis, downwards: at once and uncracked under the sustained loads; long-term; after
    // partitions; of the imposed load at once (empty where the standard has no such limit).
    std::vector<float> elastic, total, after, live;
    // The line of a panel on which most of a limit is used.
    struct Row {
        std::string panel;
        geometry::Point centre, from, to, at;
        standards::SagLimit limit{};
        double span = 0, sag = 0, allowed = 0;
        bool tip = false;
        // Of the long-term sag there, one after the other: elastic, and what cracks, creep and shrinkage add.
        double elastic = 0, cracks = 0, creep = 0, shrinkage = 0;
    };
    std::vector<Row> rows;
    std::string combination;  // of the sustained loads
    int rounds = 0;           // of the longest of the searches for balance
    double ratio() const;     // largest of all rows
};
// Null when stopped.
std::shared_ptr<const FloorSag> floorSag(const FloorDesign& design, std::stop_token stop = {});

// One check for each panel and limit.
void sagChecks(const FloorDesign& design, const FloorSag* sag, verify::CheckList& list);

}  // namespace talvik::design
