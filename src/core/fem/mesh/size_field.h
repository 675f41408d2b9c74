// The wanted side of a triangle at any point: small near columns and ends of lines, growing away from them.
// Inside the mesh generator only.
#pragma once

#include "fem/mesh/mesh.h"

namespace talvik::fem {

// A grid of square cells over the domain; each knows what can make triangles small inside it.
class SizeField {
  public:
    SizeField(const MeshTask& input, Point low, Point high);
    double at(Point p) const;
    // Smallest wanted size inside a cell, at least roughly from below.
    double leastIn(std::size_t cell) const;
    std::size_t columns = 0, rows = 0;
    double cellSide = 0;
    Point low;
    std::size_t cellOf(Point p) const;
    Point centre(std::size_t cell) const {
        return {low.x + (double(cell % columns) + 0.5) * cellSide,
                low.y + (double(cell / columns) + 0.5) * cellSide};
    }

  private:
    double size_, growth_;
    std::vector<MeshTask::Fine> fine_;
    std::vector<int> start_, list_;  // per cell
};

}  // namespace talvik::fem
