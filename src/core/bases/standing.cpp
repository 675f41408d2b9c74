#include "bases/standing.h"

#include <algorithm>
#include <cmath>

namespace talvik::bases {

checks::Finding finding(units::Kind kind, double demand, double limit, std::string clause) {
    checks::Finding f;
    f.kind = kind, f.demand = demand, f.limit = limit, f.clause = std::move(clause);
    return f;
}

double ratioOf(const standards::PunchingFound& found) {
    return std::max(checks::isJudged(found.stress) ? checks::ratio(found.stress) : 0,
                    checks::isJudged(found.face) ? checks::ratio(found.face) : 0);
}

std::vector<schedule::Item> matItems(const Context& in, const std::array<Mat, 2>& bottom,
                                     const std::array<Mat, 2>& top, const PadSize& s,
                                     geometry::Point centre) {
    std::vector<schedule::Item> all;
    for (bool upper : {false, true})
        for (int axis : {0, 1}) {
            const Mat& m = (upper ? top : bottom)[std::size_t(axis)];
            if (m.bar && m.number)
                all.push_back(matItem(in, m, axis, s.side(axis), s.side(1 - axis), s.h, upper, centre));
        }
    return all;
}

Standing::Standing(const Context& in, const model::Base& base) : in_(in), base_(base) {
    for (const auto& id : base.columns)
        if (const auto* c = in.column(id)) columns_.push_back({c, {c->x, c->y}, in.actions(*c)});
    if (columns_.empty()) return;
    for (const auto& c : columns_)
        middle_.x += c.at.x / double(columns_.size()), middle_.y += c.at.y / double(columns_.size());
    for (auto& c : columns_) c.at.x -= middle_.x, c.at.y -= middle_.y;
    for (int s = 0; s < states; ++s)
        for (const auto& k : in.combinations[std::size_t(s)]) {
            Sum& sum = sums_[std::size_t(s)].emplace_back();
            for (const auto& c : columns_) {
                const Forces f = combined(c.actions, k.factors);
                sum.N += f.N, sum.Hx += f.Hx, sum.Hy += f.Hy;
                sum.alongX += f.N * c.at.x + f.My, sum.alongY += f.N * c.at.y - f.Mx;
            }
        }
}

std::string Standing::combination(BaseState s, int i) const {
    return i < 0 ? std::string() : of(s)[std::size_t(i)].name(in_.caseNames);
}

ground::Resultant Standing::resultant(const Sum& sum, const PadSize& s, double weight) const {
    return {sum.N + weight, sum.alongX + sum.Hx * s.h - sum.N * s.off.x,
            sum.alongY + sum.Hy * s.h - sum.N * s.off.y};
}

std::vector<std::size_t> Standing::worstLooking(const Column& c, double h, double d) const {
    std::vector<std::pair<double, std::size_t>> order;
    for (std::size_t i = 0; i < of(BaseState::Strength).size(); ++i) {
        const Forces f = forces(c, BaseState::Strength, i);
        const double more = std::abs(f.along(0, h)) / (c.column->width + 2 * d) +
                            std::abs(f.along(1, h)) / (c.column->depth + 2 * d);
        order.push_back({-(f.N + 1.5 * more), i});
    }
    std::sort(order.begin(), order.end());
    if (order.size() > 3) order.resize(3);
    std::vector<std::size_t> all;
    for (const auto& [key, i] : order) all.push_back(i);
    return all;
}

standards::FootingPunching Standing::pushing(geometry::Point at, double sideX, double sideY, const PadSize& s,
                                             const std::array<double, 2>& d,
                                             const std::array<Mat, 2>& bottom) const {
    standards::FootingPunching in;
    in.sides[0] = sideX, in.sides[1] = sideY;
    in.over[0] = s.B / 2 + at.x - sideX / 2, in.over[1] = s.B / 2 - at.x - sideX / 2;
    in.over[2] = s.L / 2 + at.y - sideY / 2, in.over[3] = s.L / 2 - at.y - sideY / 2;
    for (double& o : in.over) o = std::max(0.0, o);
    in.d = (d[0] + d[1]) / 2, in.fc = in_.fc;
    for (int axis : {0, 1})
        in.rho[axis] = bottom[std::size_t(axis)].area() / (s.side(1 - axis) * d[std::size_t(axis)]);
    return in;
}

}  // namespace talvik::bases
