// Long-term sag of floors on the plate: cracked, with creep and shrinkage, by the rules of the standard at
// every triangle in both directions of its strips, with the bars that lie there.
//
// Readings. Cracks follow from the elastic moments of the characteristic combinations, twisting added to the
// moment of either direction (Wood and Armer); what the slab carries when it is cracked is in equilibrium on
// the softened plate. Curvatures of one direction by another follow Poisson's ratio of the uncracked slab;
// twisting softens by the root of both directions. Sag counts from the straight line between two places of a
// panel that something holds: its corners, and the middles of sides that lie on walls, beams or line
// supports. Precamber is taken off the long-term sag: a parabola between sides that hold the panel, of half
// its rise on the sides of a panel that columns alone hold. A free tip counts from the nearest place held,
// turning included. Beams are not designed: cracked they have half of their stiffness. Units N, mm.
#pragma once

#include <memory>
#include <stop_token>

#include "design/answer.h"
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
        double span = 0, sag = 0, allowed = 0;  // the sag less the precamber there
        bool tip = false;
        model::Id line;        // of a limit that someone drew: counted from the level as cast
        double camber = 0;     // there, of what the panel's formwork is raised by in the middle
        double raised = 0;     // in the middle
        double permanent = 0;  // long-term sag there under the loads that are always there
        // Of the long-term sag there, one after the other: elastic, and what cracks, creep and shrinkage add.
        double elastic = 0, cracks = 0, creep = 0, shrinkage = 0;
    };
    std::vector<Row> rows;
    // Along the middle of every strip, for each of its spans, less the precamber; with a limit where
    // both ends are held. Empty where the middle leaves the slab.
    std::vector<std::vector<SpanSag>> strips;
    std::string combination;  // of the sustained loads
    int rounds = 0;           // of the longest of the searches for balance
    double ratio() const;     // largest of all rows
};
// Null when stopped.
std::shared_ptr<const FloorSag> floorSag(const FloorDesign& design, std::stop_token stop = {});

// What formwork of a panel is proposed to be raised by so that its long-term sag is within: in steps of 5 mm,
// no more than `camberShare` of what the permanent loads bring, nor than the standard's part of the span; 0
// where that does not do or nothing is over.
inline constexpr double camberShare = 0.8;
double proposedCamber(const FloorSag::Row& row, const standards::SagRules& rules);

// One check for each panel and limit, for each line with a limit of its own, and for precamber.
void sagChecks(const FloorDesign& design, const FloorSag* sag, verify::CheckList& list);

}  // namespace talvik::design
