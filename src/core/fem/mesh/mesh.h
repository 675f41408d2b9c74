// Triangle meshes of plates in plan. Any one unit of length.
#pragma once

#include <array>
#include <optional>
#include <stop_token>
#include <string>
#include <vector>

#include "geometry/polygon.h"

namespace talvik::fem {

using geometry::Point;

// What the mesh has to follow. `slabs` may touch or overlap; the domain is their union less `openings`.
struct MeshTask {
    struct Line {
        Point a, b;
        int id = -1;  // the caller's; -1 where the mesh only has to follow
        // Its ends matter less than a good mesh: lines that pass within `crossing` go through them.
        bool yields = false;
        // Along or square to the rows of the lattice of seeds, through one of these: divided as the lattice
        // is where triangles are of full size.
        enum class Lattice { No, Along, Across } lattice = Lattice::No;
    };
    // Triangles no larger than `size` within `radius` of `at`, growing beyond by `growth` per length.
    struct Fine {
        Point at;
        double radius = 0, size = 0;
    };
    std::vector<geometry::Ring> slabs, openings;
    std::vector<Line> lines;
    std::vector<Point> points;  // each becomes a node
    std::vector<Fine> fine;
    double size = 0;  // side of the triangles far from everything
    double growth = 0.3;
    double tolerance = 0.5;  // what lies nearer than this is taken as one
    double crossing = 10;    // lines that cross so near to an end meet there
    double leastAngle = 22;  // degrees; smaller angles are refined away where the outline allows
    // A seed of the lattice, where not the middle of the slabs, and whether its rows run along y.
    std::optional<Point> lattice;
    bool upright = false;
};

struct Mesh {
    std::vector<Point> nodes;
    std::vector<std::array<int, 3>> triangles;  // counter-clockwise
    std::vector<int> part;  // per triangle: which part of the plane cut by outlines and lines it lies in
    std::vector<Point> partPoint;  // a point inside each part
    struct Edge {
        int a, b, line;
    };
    std::vector<Edge> edges;     // mesh edges along input lines with an id >= 0, in the order from a to b
    std::vector<int> pointNode;  // per input point; -1 outside the domain
    double smallestAngle = 0;    // degrees
    Point smallestAngleAt;
    double shortestSide = 0, longestSide = 0;
    std::vector<std::string> notes;  // what was mended
    std::string error;               // a sentence naming what is wrong; the rest is empty then
};

// Constrained Delaunay triangulation (CGAL) of nested lattices of seeds, shortly refined by Delaunay
// refinement (J. R. Shewchuk, Delaunay refinement algorithms for triangular mesh generation, 2002, as in
// CGAL). Lattices of halved spacing nest, so graded parts meet without slivers. Deterministic; a task turned
// or moved in plan has the same mesh turned and moved, and one with mirror axes a mesh with these. More than
// `mostNodes` is an error. Stops with error "stopped" soon after the token asks for it.
Mesh makeMesh(const MeshTask& input, std::stop_token stop = {}, std::size_t mostNodes = 2'000'000);

// Straight pieces of lines that meet only at their ends: crossing lines are cut, points and ends within
// `tolerance` of one another or of a line are joined, and a crossing within `crossing` of an end is at
// that end. `of` lists the input lines each piece lies on.
struct Linework {
    struct Piece {
        int a, b;
        std::vector<int> of;
    };
    std::vector<Point> points;
    std::vector<int> pointOf;  // per extra input point: where it went
    std::vector<Piece> pieces;
    int joined = 0;  // ends that were moved together, although not equal
    Point firstJoined{0, 0};
};
Linework joinLines(const std::vector<MeshTask::Line>& lines, const std::vector<Point>& points,
                   double tolerance, double crossing);

}  // namespace talvik::fem
