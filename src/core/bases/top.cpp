#include "bases/top.h"

#include <algorithm>
#include <cmath>

namespace talvik::bases {

Top::Top(const PadSize& s, geometry::Point at, const double (&sides)[2], const model::BaseTop& top)
    : B_(s.B),
      L_(s.L),
      h_(s.h),
      edge_(std::min(s.h, top.edge > 0 ? top.edge : std::max(250.0, units::roundUp(s.h / 2, 50)))) {
    using Kind = model::BaseTop::Kind;
    level_ = top.kind == Kind::Level || edge_ >= s.h - 1e-9;
    if (level_) edge_ = s.h;
    stepped_ = top.kind == Kind::Stepped;
    for (int axis : {0, 1}) {
        const double half = s.side(axis) / 2, middle = axis == 0 ? at.x : at.y,
                     reach = sides[axis] / 2 + top.shoulder;
        auto* u = &upper_[std::size_t(2 * axis)];
        u[0] = std::max(-half, middle - reach), u[1] = std::min(half, middle + reach);
        const double low = u[0] + half, high = half - u[1];  // beyond the shoulder on either side
        run_[axis] = low > 1 && high > 1 ? std::min(low, high) : std::max(low, high);
        shoulder_[axis] = top.shoulder;
    }
    if (run_[0] <= 1 && run_[1] <= 1) level_ = true, edge_ = s.h;
}

double Top::area(double z) const {
    if (z <= edge_) return B_ * L_;
    const double t = stepped_ ? 1 : (z - edge_) / (h_ - edge_);
    const double b = upper_[1] - upper_[0], l = upper_[3] - upper_[2];
    return (B_ + t * (b - B_)) * (L_ + t * (l - L_));
}
double Top::volume() const {
    if (level_) return B_ * L_ * h_;
    // Areas are of the second degree in z: exact.
    return B_ * L_ * edge_ +
           (h_ - edge_) / 6 * (area(edge_ + 1e-9 * h_) + 4 * area((edge_ + h_) / 2) + area(h_));
}
double Top::soil(double depth) const {
    const double A = B_ * L_;
    if (level_) return A * std::max(0.0, depth - h_);
    const double to = std::clamp(depth, edge_, h_), from = edge_ + 1e-9 * h_;
    const double beside =
        (to - edge_) / 6 * (3 * 2 * A - area(from) - 4 * area((from + to) / 2) - area(std::max(from, to)));
    return std::max(0.0, beside) + A * std::max(0.0, depth - h_);
}
double Top::formwork() const {
    double all = 2 * (B_ + L_) * edge_;
    if (level_) return all;
    const double b = upper_[1] - upper_[0], l = upper_[3] - upper_[2], rise = h_ - edge_;
    if (stepped_) return all + 2 * (b + l) * rise;
    const double over[4] = {upper_[0] + B_ / 2, B_ / 2 - upper_[1], upper_[2] + L_ / 2, L_ / 2 - upper_[3]};
    for (int k = 0; k < 4; ++k)
        if (rise * 3 > over[k]) all += ((k < 2 ? L_ + l : B_ + b) / 2) * std::hypot(rise, over[k]);
    return all;
}
double Top::height(int axis, double from) const {
    if (level_ || from <= shoulder_[axis]) return h_;
    if (stepped_) return edge_;
    const double t = run_[axis] > 1 ? std::min(1.0, (from - shoulder_[axis]) / run_[axis]) : 0;
    return h_ - t * (h_ - edge_);
}
double Top::breadth(int axis, double from) const {
    const double whole = axis == 0 ? L_ : B_;
    if (level_) return whole;
    const auto* u = &upper_[std::size_t(2 * (1 - axis))];
    const double up = u[1] - u[0];
    if (from <= shoulder_[axis]) return up;
    if (stepped_) return whole;
    const double t = run_[axis] > 1 ? std::min(1.0, (from - shoulder_[axis]) / run_[axis]) : 1;
    return up + t * (whole - up);
}
std::vector<double> Top::places(int axis) const {
    if (level_ || run_[axis] <= 1) return {};
    const double a = shoulder_[axis], r = run_[axis];
    if (stepped_) return {a + 1e-6};
    return {a + r / 4, a + r / 2, a + 3 * r / 4};
}

}  // namespace talvik::bases
