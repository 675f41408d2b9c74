// Moments and shears of a plate at points from its displacements. Per unit width; signs as in element.h.
#pragma once

#include <stop_token>
#include <vector>

#include "fem/plate/plate_system.h"

namespace talvik::fem {

// Where values are kept: one point per node, several where they may jump: where the thickness changes and on
// lines along which something holds or stiffens the plate.
struct FieldPoints {
    std::vector<int> node;      // per point
    std::vector<int> corner;    // three per triangle: its points
    std::vector<double> share;  // per point: 1 / sum of the areas of its triangles; 0 on an edge
    // On an edge a mean would look one way: there a polynomial is fitted to the values at the middles of the
    // triangles around (O. C. Zienkiewicz and J. Z. Zhu, The superconvergent patch recovery, 1992). Per
    // triangle, what its middle gives to which point.
    struct Part {
        int point;
        double weight;
    };
    std::vector<int> fitStart;
    std::vector<Part> fit;
};
FieldPoints fieldPoints(const PlateModel& model, const std::vector<std::pair<int, int>>& breaks,
                        std::stop_token stop = {});

// Mx, My, Mxy per point, one after the other.
using MomentField = std::vector<double>;
// Qx, Qy per point.
using ShearField = std::vector<double>;

// The elements' corner values, averaged by area at each point.
std::vector<MomentField> recoverMoments(const PlateModel& model, const FieldPoints& points,
                                        const std::vector<NodeVector>& u, Stages& stages,
                                        std::stop_token stop = {});
// Qx = Mx,x + Mxy,y and Qy = My,y + Mxy,x of the recovered moments, averaged by area.
ShearField recoverShears(const PlateModel& model, const FieldPoints& points, const MomentField& m);

}  // namespace talvik::fem
