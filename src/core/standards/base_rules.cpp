#include "standards/base_rules.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include "units/units.h"

namespace talvik::standards {

std::string BaseCombination::name(const std::vector<std::string>& actions) const {
    std::string all;
    for (std::size_t i = 0; i < factors.size() && i < actions.size(); ++i)
        if (factors[i] != 0)
            all += fmt::format("{}{} {}", all.empty() ? "" : " + ",
                               units::plain(units::rounded(factors[i], 5)), actions[i]);
    if (all.empty()) all = "weight alone";
    return lightStrap ? all + ", no imposed load on inner column" : all;
}

double FootingPunching::depth(double a) const {
    if (low <= 0 || a <= shoulder) return d;
    return step ? low : d - (d - low) * std::clamp((a - shoulder) / std::max(1.0, run), 0.0, 1.0);
}
double FootingPunching::clear(geometry::Point at) const {
    return std::hypot(std::max(0.0, std::abs(at.x) - sides[0] / 2),
                      std::max(0.0, std::abs(at.y) - sides[1] / 2));
}

namespace {

struct Cuts {
    bool cut[4];
    double ext[4];
    Cuts(const FootingPunching& in, double a) {
        for (int i = 0; i < 4; ++i) cut[i] = in.over[i] < a, ext[i] = std::clamp(in.over[i], 0.0, a);
    }
};

}  // namespace

FootingPerimeter footingPerimeter(const FootingPunching& in, double a, bool rounded) {
    const Cuts c(in, a);
    const double arc = rounded ? std::numbers::pi * a / 2 : 2 * a,
                 off = rounded ? (1 - std::numbers::pi / 4) * a * a : 0;
    FootingPerimeter p;
    p.area = (in.sides[0] + c.ext[0] + c.ext[1]) * (in.sides[1] + c.ext[2] + c.ext[3]);
    for (int i = 0; i < 4; ++i) {
        p.whole = p.whole && !c.cut[i];
        if (!c.cut[i]) p.length += in.sides[i < 2 ? 1 : 0];
    }
    for (int i : {0, 1})
        for (int j : {2, 3}) {
            if (!c.cut[i] && !c.cut[j]) p.length += arc, p.area -= off;
            if (c.cut[i] != c.cut[j]) p.length += c.cut[i] ? c.ext[i] : c.ext[j];
        }
    p.open = p.length < 1;
    return p;
}

FootingMoments footingMoments(const FootingPunching& in, double a, bool rounded, int axis) {
    const Cuts c(in, a);
    // Pieces as stretches along the axis, each a length at a place, or spread evenly between two.
    struct Piece {
        double from, to, length;
    };
    std::vector<Piece> all;
    const int lo = axis == 0 ? 0 : 2, ac = axis == 0 ? 2 : 0;  // sides at the ends of the axis, and across it
    const double half = in.sides[axis] / 2, across = in.sides[1 - axis];
    FootingMoments m;
    for (int s : {0, 1}) {
        // The side at the end of the axis.
        if (!c.cut[lo + s]) {
            const double at = (s == 0 ? -1 : 1) * (half + a);
            all.push_back({at, at, across});
        }
        // The side along the axis.
        if (!c.cut[ac + s]) all.push_back({-half, half, 2 * half}), m.along += 2 * half;
    }
    for (int i : {0, 1})
        for (int j : {0, 1}) {
            const double sign = i == 0 ? -1 : 1;
            const bool ci = c.cut[lo + i], cj = c.cut[ac + j];
            if (!ci && !cj && rounded) {
                constexpr int parts = 12;
                for (int k = 0; k < parts; ++k) {
                    auto at = [&](int n) {
                        return sign * (half + a * std::sin(std::numbers::pi / 2 * n / parts));
                    };
                    all.push_back({at(k), at(k + 1), std::numbers::pi * a / 2 / parts});
                }
            } else if (!ci && !cj) {
                all.push_back({sign * half, sign * (half + a), a}), m.along += a;
                all.push_back({sign * (half + a), sign * (half + a), a});
            } else if (ci && !cj) {
                all.push_back({sign * half, sign * (half + c.ext[lo + i]), c.ext[lo + i]}),
                    m.along += c.ext[lo + i];
            } else if (!ci && cj) {
                all.push_back({sign * (half + a), sign * (half + a), c.ext[ac + j]});
            }
        }
    double length = 0;
    for (const Piece& p : all) m.centroid += p.length * (p.from + p.to) / 2, length += p.length;
    if (length <= 0) return m;
    m.centroid /= length;
    for (Piece p : all) {
        p.from -= m.centroid, p.to -= m.centroid;
        if (p.from > p.to) std::swap(p.from, p.to);
        const double w = p.to - p.from, mid = (p.from + p.to) / 2;
        m.second += p.length * (mid * mid + w * w / 12);
        m.first += w > 1e-9 && p.from < 0 && p.to > 0 ? p.length / w * (p.from * p.from + p.to * p.to) / 2
                                                      : p.length * std::abs(mid);
        m.far = std::max({m.far, std::abs(p.from), std::abs(p.to)});
    }
    return m;
}

}  // namespace talvik::standards
