#include "fem/mesh/parting.h"

#include <algorithm>
#include <map>
#include <set>

namespace talvik::fem {

std::vector<std::pair<int, int>> part(Mesh& mesh, const std::vector<geometry::Segment>& lines, double tolerance) {
    std::vector<std::pair<int, int>> added;
    if (lines.empty()) return added;
    using Side = std::pair<int, int>;
    auto side = [](int a, int b) { return Side(std::min(a, b), std::max(a, b)); };
    auto on = [&](Point p, const geometry::Segment& s) { return geometry::distance(p, s.a, s.b) <= tolerance; };
    std::map<Side, std::vector<int>> beside;
    std::set<int> touched;
    std::set<Side> parted;
    for (std::size_t t = 0; t < mesh.triangles.size(); ++t)
        for (int k = 0; k < 3; ++k)
            beside[side(mesh.triangles[t][std::size_t(k)], mesh.triangles[t][std::size_t((k + 1) % 3)])].push_back(
                int(t));
    for (const auto& [s, triangles] : beside) {
        const Point a = mesh.nodes[std::size_t(s.first)], b = mesh.nodes[std::size_t(s.second)];
        if (triangles.size() < 2 ||
            std::none_of(lines.begin(), lines.end(), [&](const auto& l) { return on(a, l) && on(b, l); }))
            continue;
        parted.insert(s);
        touched.insert(s.first), touched.insert(s.second);
    }
    for (const auto& e : mesh.edges) touched.erase(e.a), touched.erase(e.b);
    std::map<int, std::vector<int>> around;
    for (std::size_t t = 0; t < mesh.triangles.size(); ++t)
        for (int n : mesh.triangles[t])
            if (touched.count(n)) around[n].push_back(int(t));
    std::map<std::pair<int, int>, int> renamed;  // of a triangle and its node
    for (const auto& [node, triangles] : around) {
        std::set<int> left(triangles.begin(), triangles.end());
        for (bool first = true; !left.empty(); first = false) {
            std::vector<int> group{*left.begin()};
            left.erase(left.begin());
            for (std::size_t g = 0; g < group.size(); ++g)
                for (int other : mesh.triangles[std::size_t(group[g])]) {
                    const Side s = side(node, other);
                    if (other == node || parted.count(s)) continue;
                    for (int t : beside.at(s))
                        if (left.erase(t)) group.push_back(t);
                }
            if (first) continue;
            const int copy = int(mesh.nodes.size());
            mesh.nodes.push_back(mesh.nodes[std::size_t(node)]);
            added.push_back({node, copy});
            for (int t : group) renamed[{t, node}] = copy;
        }
    }
    for (const auto& [at, copy] : renamed)
        for (int& n : mesh.triangles[std::size_t(at.first)])
            if (n == at.second) n = copy;
    return added;
}

}  // namespace talvik::fem
