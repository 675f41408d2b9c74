// Lines of equal value over a mesh of triangles: where they cross its edges, joined to chains and smoothed.
// Values are known at the ends of edges and run straight between.
#pragma once

#include <QPolygonF>
#include <map>
#include <vector>

namespace talvik::app {

class Crossings {
  public:
    // A crossing is known by the edge it lies on.
    struct End {
        std::pair<int, int> edge;
        QPointF at;
    };
    void add(const End& a, const End& b);  // both on one triangle
    // A chain that closes ends where it begins. Each point has moved a quarter of the way to its neighbours,
    // twice: the facets of the mesh go, by less than its size. Ends stay.
    std::vector<QPolygonF> chains() const;

  private:
    std::map<std::pair<int, int>, std::size_t> known_;
    std::vector<QPointF> at_;
    std::vector<std::vector<std::size_t>> next_;
    std::size_t point(const End& e);
};

}  // namespace talvik::app
