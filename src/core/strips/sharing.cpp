#include "strips/sharing.h"

#include <algorithm>

namespace talvik::strips {

double sharingWidth(double h, double l) {
    return std::max(2 * h, std::min(5 * h, l / 5));
}

SharedMean::SharedMean(std::span<const double> at, double width) : width_(width) {
    const std::size_t pieces = at.size() / 2;
    std::vector<double> place(1, 0);  // of the pieces pushed together
    for (std::size_t k = 0; k < pieces; ++k) {
        part_.push_back(at[2 * k + 1] - at[2 * k]);
        place.push_back(place.back() + part_.back());
    }
    whole_ = place.back();
    sum_.resize(pieces + 1);
    if (whole_ <= width_) return;
    // A stretch begins or ends where a piece does; both ends move along together.
    std::size_t low = 0, high = 0;
    for (std::size_t i = 0, j = 0; i <= pieces || j <= pieces;) {
        const double first = i <= pieces ? place[i] : 1e300, second = j <= pieces ? place[j] - width : 1e300;
        const double from = std::min(first, second);
        first <= second ? ++i : ++j;
        if (from < 0 || from + width > whole_ * (1 + 1e-12)) continue;
        while (low + 1 < pieces && place[low + 1] <= from) ++low;
        while (high + 1 < pieces && place[high + 1] <= from + width) ++high;
        auto share = [&](std::size_t k, double x) { return part_[k] > 0 ? (x - place[k]) / part_[k] : 0; };
        stretches_.push_back({low, high, share(low, from), share(high, from + width), from});
    }
}

double SharedMean::largest(std::span<const double> value) const {
    if (whole_ <= 0 || std::all_of(value.begin(), value.end(), [](double v) { return v <= 0; })) return 0;
    for (std::size_t k = 0; k < part_.size(); ++k)
        sum_[k + 1] = sum_[k] + (value[2 * k] + value[2 * k + 1]) / 2 * part_[k];
    if (stretches_.empty()) return std::max(0.0, sum_.back() / whole_);
    auto upTo = [&](std::size_t k, double t) {
        return sum_[k] + (value[2 * k] + (value[2 * k + 1] - value[2 * k]) * t / 2) * t * part_[k];
    };
    double most = 0;
    auto slope = [&](std::size_t k) { return part_[k] > 0 ? (value[2 * k + 1] - value[2 * k]) / part_[k] : 0; };
    auto at = [&](std::size_t k, double t) { return value[2 * k] + (value[2 * k + 1] - value[2 * k]) * t; };
    for (std::size_t i = 0; i < stretches_.size(); ++i) {
        const auto& s = stretches_[i];
        const double sum = upTo(s.high, s.to) - upTo(s.low, s.from);
        most = std::max(most, sum);
        if (i + 1 == stretches_.size()) break;
        // Moved on from here the sum grows by what enters less what leaves, both linear: it may peak between.
        const double step = stretches_[i + 1].place - s.place, grows = at(s.high, s.to) - at(s.low, s.from),
                     bends = slope(s.high) - slope(s.low);
        if (grows > 0 && bends < 0 && -grows / bends < step) most = std::max(most, sum - grows * grows / bends / 2);
    }
    return most / width_;
}

}  // namespace talvik::strips
