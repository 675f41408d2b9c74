#include "fem/mesh/size_field.h"

#include <algorithm>
#include <cmath>

namespace talvik::fem {

SizeField::SizeField(const MeshTask& input, Point from, Point to)
    : low(from), size_(input.size), growth_(input.growth), fine_(input.fine) {
    double width = std::max(to.x - from.x, size_), height = std::max(to.y - from.y, size_);
    cellSide = std::max(2 * size_, std::sqrt(width * height / 4e6));
    columns = std::size_t(width / cellSide) + 1;
    rows = std::size_t(height / cellSide) + 1;
    std::erase_if(fine_, [&](const MeshTask::Fine& f) { return f.size >= size_; });
    std::vector<std::pair<int, int>> touches;  // cell, source
    for (std::size_t i = 0; i < fine_.size(); ++i) {
        const auto& f = fine_[i];
        double reach = f.radius + (size_ - f.size) / growth_;
        auto clampCell = [&](double v, std::size_t n) {
            return std::size_t(std::clamp(std::floor(v / cellSide), 0.0, double(n - 1)));
        };
        for (std::size_t r = clampCell(f.at.y - reach - low.y, rows);
             r <= clampCell(f.at.y + reach - low.y, rows); ++r)
            for (std::size_t c = clampCell(f.at.x - reach - low.x, columns);
                 c <= clampCell(f.at.x + reach - low.x, columns); ++c)
                touches.push_back({int(r * columns + c), int(i)});
    }
    std::sort(touches.begin(), touches.end());
    start_.assign(columns * rows + 1, 0);
    for (auto [cell, source] : touches) {
        ++start_[cell + 1];
        list_.push_back(source);
    }
    for (std::size_t c = 0; c + 1 < start_.size(); ++c) start_[c + 1] += start_[c];
}

std::size_t SizeField::cellOf(Point p) const {
    auto index = [&](double v, std::size_t n) {
        return std::size_t(std::clamp(std::floor(v / cellSide), 0.0, double(n - 1)));
    };
    return index(p.y - low.y, rows) * columns + index(p.x - low.x, columns);
}

double SizeField::at(Point p) const {
    std::size_t cell = cellOf(p);
    double s = size_;
    for (int k = start_[cell]; k < start_[cell + 1]; ++k) {
        const auto& f = fine_[list_[k]];
        double d = std::hypot(p.x - f.at.x, p.y - f.at.y) - f.radius;
        s = std::min(s, f.size + growth_ * std::max(0.0, d));
    }
    return s;
}

double SizeField::leastIn(std::size_t cell) const {
    Point c = centre(cell);
    double s = size_, half = cellSide / 2;
    for (int k = start_[cell]; k < start_[cell + 1]; ++k) {
        const auto& f = fine_[list_[k]];
        double dx = std::max(0.0, std::abs(c.x - f.at.x) - half);
        double dy = std::max(0.0, std::abs(c.y - f.at.y) - half);
        s = std::min(s, f.size + growth_ * std::max(0.0, std::hypot(dx, dy) - f.radius));
    }
    return s;
}

}  // namespace talvik::fem
