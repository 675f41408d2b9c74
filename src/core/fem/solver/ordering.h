// Orderings of the node graph for sparse factorisation.
#pragma once

#include <stop_token>
#include <vector>

#include "geometry/polygon.h"

namespace talvik::fem {

// Undirected graph: neighbours of node i are to[start[i]] .. to[start[i+1]-1], ascending, without i itself.
struct Graph {
    std::vector<int> start, to;
    int size() const { return int(start.size()) - 1; }
};

// Nested dissection by coordinates: halves at the median of the longer side, the separator on the side where
// it is shorter, down to small leaves; then a postorder of the elimination tree, so that columns of like
// structure lie together. Gives position -> node. A. George, Nested dissection of a regular finite element
// mesh, 1973; J. W. H. Liu, The role of elimination trees in sparse factorization, 1990.
// Once a stop is asked for, the order is any.
std::vector<int> dissect(const Graph& graph, const std::vector<geometry::Point>& at,
                         std::stop_token stop = {});

}  // namespace talvik::fem
