#include "widgets/labels.h"

#include <algorithm>
#include <cmath>

namespace talvik::app {

bool Labels::free(const QRectF& box) const {
    return std::none_of(taken_.begin(), taken_.end(), [&](const QRectF& t) { return t.intersects(box); });
}

std::optional<QRectF> Labels::place(const QRectF& wanted) {
    // In steps of half a label, up to two of them away.
    const double dx = wanted.width() / 2 + 2, dy = wanted.height() / 2 + 1;
    std::optional<QRectF> best;
    double nearest = 1e300;
    for (int i = -2; i <= 2; ++i)
        for (int j = -4; j <= 4; ++j) {
            const double away = std::hypot(i * dx, j * dy);
            const QRectF box = wanted.translated(i * dx, j * dy);
            if (away < nearest && free(box)) nearest = away, best = box;
        }
    if (best) reserve(*best);
    return best;
}

}  // namespace talvik::app
