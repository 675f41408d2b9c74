// Loads of a plate as forces at nodes. The sum and the moment about any axis are those of the load given.
#pragma once

#include <functional>
#include <vector>

#include "fem/mesh/mesh.h"
#include "fem/plate/plate_system.h"

namespace talvik::fem {

// Finds the triangle at a point.
class TriangleFinder {
  public:
    TriangleFinder(const std::vector<Point>& nodes, const std::vector<std::array<int, 3>>& triangles);
    // The triangle with the lowest number that contains p, -1 outside; `shares`: p by its corners, sum 1.
    int find(Point p, std::array<double, 3>* shares = nullptr) const;
    // Calls f(triangle) for triangles whose bounds touch the box; each once, ascending.
    void touching(Point low, Point high, const std::function<void(int)>& f) const;
    // Where the line from a to b meets sides of triangles, as shares of its length, ascending, with 0 and 1.
    std::vector<double> crossings(Point a, Point b) const;
    const std::vector<Point>& nodes() const { return nodes_; }
    const std::vector<std::array<int, 3>>& triangles() const { return triangles_; }

  private:
    const std::vector<Point>& nodes_;
    const std::vector<std::array<int, 3>>& triangles_;
    Point low_;
    double cell_ = 1;
    std::size_t columns_ = 1, rows_ = 1;
    std::vector<int> start_, list_;
    std::array<double, 3> shares(int t, Point p) const;
};

// All of these add to `f` (downwards positive) and give the total force put on.
// Pressure q on the triangles for which `loaded` holds.
double addPressure(const TriangleFinder& plate, double q, const std::function<bool(int)>& loaded,
                   NodeVector& f);
// Pressure inside a polygon, cut exactly at its edge.
double addPressure(const TriangleFinder& plate, double q, const geometry::Ring& polygon, NodeVector& f);
// Line load from a to b, force per length.
double addLine(const TriangleFinder& plate, double q, Point a, Point b, NodeVector& f);
// Force at a point; couples (mx, my) that go with the rotations bx, by. 0 when outside.
double addPoint(const TriangleFinder& plate, double force, double mx, double my, Point p, NodeVector& f);

}  // namespace talvik::fem
