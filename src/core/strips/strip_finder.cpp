#include "strips/strip_finder.h"

#include <algorithm>

namespace talvik::strips {

StripFinder::StripFinder(const StripLayout& layout, int direction) {
    for (std::size_t s = 0; s < layout.strips.size(); ++s) {
        if (layout.strips[s].direction != direction) continue;
        for (const auto& ring : layout.strips[s].parts) {
            Part part{int(s), &ring};
            for (Point p : ring) {
                part.low = {std::min(part.low.x, p.x), std::min(part.low.y, p.y)};
                part.high = {std::max(part.high.x, p.x), std::max(part.high.y, p.y)};
            }
            parts_.push_back(part);
        }
    }
}

int StripFinder::at(Point p) const {
    for (std::size_t k = 0; k < parts_.size(); ++k) {
        const std::size_t i = (last_ + k) % parts_.size();
        const Part& part = parts_[i];
        if (p.x < part.low.x || p.y < part.low.y || p.x > part.high.x || p.y > part.high.y ||
            !geometry::contains(*part.ring, p))
            continue;
        last_ = i;
        return part.strip;
    }
    return -1;
}

}  // namespace talvik::strips
