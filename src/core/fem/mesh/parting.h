// Parts a mesh along lines: what lies on one side no longer hangs on what lies on the other.
#pragma once

#include "fem/mesh/mesh.h"

namespace talvik::fem {

// Triangles that meet only along `lines` (which the mesh follows to `tolerance`) get nodes of their own there; nodes
// at which they stay joined round an end of a line stay one, and so do those of the mesh's own edges: what runs along
// or across there holds both. Returns pairs of the node there was and each that was added at its place.
std::vector<std::pair<int, int>> part(Mesh& mesh, const std::vector<geometry::Segment>& lines, double tolerance);

}  // namespace talvik::fem
