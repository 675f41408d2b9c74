// A mesh task in axes of its own, and as the half or quarter that its mirror axes leave: so that a floor
// turned in plan has the same mesh, turned, and a symmetric floor a symmetric one.
#pragma once

#include "fem/mesh/mesh.h"

namespace talvik::fem {

// The task with its origin in the middle of its slabs and x along the longest of their edges (the first of
// those as long), cut to the parts with x <= 0 and y <= 0 for the mirror axes x = 0 and y = 0 that it has.
// Slabs, openings, lines, points and fine spots all have to be symmetric within a fiftieth of the tolerance;
// lines may differ in their ids.
class ReducedTask {
  public:
    explicit ReducedTask(const MeshTask& input);
    const MeshTask& task() const { return task_; }
    bool mirrored(int axis) const { return mirror_[axis]; }
    // The mesh of the whole, in the axes of the input, from that of task(). `part` numbers go on in the
    // mirrored parts, each with its own part points.
    Mesh whole(Mesh reduced) const;
    Point toPlan(Point p) const;  // from the axes of task() to those of the input

  private:
    const MeshTask& input_;
    MeshTask local_, task_;
    double alike_;  // places closer than this are one
    Point origin_;
    double c_ = 1, s_ = 0;
    bool mirror_[2] = {false, false};   // x = 0, y = 0
    std::vector<int> partner_[2];       // per line of the input: its image, by place in the list
    std::vector<int> pointPartner_[2];  // per point
    std::vector<int> pointAt_;          // per point of the input: its place in the reduced task, -1
    Point toLocal(Point p) const;
    bool symmetric(int axis);
    void cut(int axis);
    void unfold(Mesh& m, int axis) const;
};

}  // namespace talvik::fem
