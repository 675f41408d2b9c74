#include "strips/sharing.h"

#include <algorithm>
#include <vector>

namespace talvik::strips {

double sharingWidth(double h, double l) {
    return std::max(2 * h, std::min(5 * h, l / 5));
}

double largestMean(std::span<const double> at, std::span<const double> value, double width) {
    const std::size_t pieces = at.size() / 2;
    if (pieces == 0) return 0;
    // Pieces pushed together, and the integral up to each of their ends.
    thread_local std::vector<double> place, sum;
    place.assign(1, 0), sum.assign(1, 0);
    for (std::size_t k = 0; k < pieces; ++k) {
        const double part = at[2 * k + 1] - at[2 * k];
        place.push_back(place.back() + part);
        sum.push_back(sum.back() + (value[2 * k] + value[2 * k + 1]) / 2 * part);
    }
    const double whole = place.back();
    if (whole <= 0) return 0;
    if (whole <= width) return sum.back() / whole;
    auto integral = [&](double x, std::size_t& k) {
        const double part = place[k + 1] - place[k], t = part > 0 ? (x - place[k]) / part : 0;
        const double slope = value[2 * k + 1] - value[2 * k];
        return sum[k] + (value[2 * k] + slope * t / 2) * t * part;
    };
    // The stretch begins or ends where a piece does; both ends move along together.
    double most = -1e300;
    std::size_t low = 0, high = 0;
    for (std::size_t i = 0, j = 0; i <= pieces || j <= pieces;) {
        const double first = i <= pieces ? place[i] : 1e300, second = j <= pieces ? place[j] - width : 1e300;
        const double from = std::min(first, second);
        if (first <= second)
            ++i;
        else
            ++j;
        if (from < 0 || from + width > whole * (1 + 1e-12)) continue;
        while (low + 1 < pieces && place[low + 1] <= from) ++low;
        while (high + 1 < pieces && place[high + 1] <= from + width) ++high;
        most = std::max(most, (integral(from + width, high) - integral(from, low)) / width);
    }
    return most;
}

}  // namespace talvik::strips
