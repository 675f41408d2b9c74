// Bars of a strip at a place in plan, and the edges of the slab at which they end. Plan mm.
#pragma once

#include "design/floor_design.h"

namespace talvik::design {

// Edges of the slabs and of openings.
struct SlabEdges {
    std::vector<geometry::Ring> outline;  // of the slabs together, then of the openings

    explicit SlabEdges(const model::Floor& floor);
    double toEdge(geometry::Point p) const;
    // From a place to an edge along a unit vector.
    double along(geometry::Point p, double ex, double ey) const;
};

// Steel of a face along a strip, mm2 per mm: all of it, and as far as it is anchored.
struct SteelAt {
    double full = 0, anchored = 0, diameter = 0, spacing = 0;
};
// `local`: in the strip's axes. Runs that reach the end of their strip's axis go on to the slab's edge where
// this is askew. `edge`: within a slab thickness of an edge bars count past their ends as well.
SteelAt steelAt(const StripDesign& strip, bool top, geometry::Point local, bool edge, double cover,
                const SlabEdges& edges);

}  // namespace talvik::design
