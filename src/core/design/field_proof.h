// Proof by field: a second route beside the strips. At every point of the slab the moments of the mesh's own
// field against the bars that lie there, anchored; and the resultant shear against what the slab resists.
#pragma once

#include <array>
#include <memory>
#include <stop_token>
#include <string>
#include <vector>

#include "geometry/polygon.h"
#include "verify/check_list.h"

namespace talvik::design {

struct FloorDesign;

// What was found for the bars of one direction and face, or for shear. Areas mm2; moments per width N, shears
// per width N/mm.
struct ProofOf {
    std::vector<float> ratio;  // per field point of the analysis: asked over provided; -1 where not judged
    double judged = 0;         // area looked at
    double byRule = 0;     // area inside supports, or between their faces: held to the moment at the faces
    double shortArea = 0;  // of it, where more is asked than provided
    double worst = 0;      // largest ratio
    geometry::Point at;    // where, in plan
    double asked = 0, provided = 0, width = 0;  // there: means over the width
    std::string combination;
};
// Steel of a face of a strip that the field needs, for its moments or for concrete to carry its shear, where
// the strip's own forces ask for less.
struct SteelWanted {
    std::string strip;
    bool top = true;
    double u = 0, area = 0;  // mm along the strip; mm2 per mm
    bool operator==(const SteelWanted&) const = default;
};
struct FieldProof {
    std::array<std::array<ProofOf, 2>, 2> steel;  // [direction][top]
    ProofOf shear;
    std::vector<SteelWanted> wanted;  // by strip, face and place; of what more steel would mend
    double punching =
        0;  // area within two effective depths of columns, wall ends and point loads: no shear there
};

// Reads fields of the analysis and the bars of the design, no forces of strips. Moments: for every ultimate
// combination the moment to be resisted (twisting by Wood and Armer (1968), bars askew as laid; twisting left
// out where the rules of the strips say so) and the resistance of the bars, both as means over a width across
// the bars that contains the point. A point has enough when there is such a width, not over
// strips::sharingWidth, or a width that someone chose, or in the top over columns not over the standard's
// column and middle strips; the ratio is that of the most favourable place of this width. Bars count as far
// as they are anchored from their ends; within a slab thickness of an edge U-bars are taken to hold. Shear:
// the resultant averaged over 2 d across it, against the resistance with the tension steel there, its ratio
// taken by the direction of the shear (EN 1992-2 Annex LL). Nullptr when stopped.
std::shared_ptr<const FieldProof> proveByField(const FloorDesign& design, std::stop_token stop = {});

// The checks of a proof, or, without one, their place until it is there.
void proofChecks(const FloorDesign& design, const FieldProof* proof, verify::CheckList& list);

}  // namespace talvik::design
