#include "bases/context.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "schedule/cutting.h"

namespace talvik::bases {
namespace {

std::shared_ptr<const model::Basis> special(const model::BaseSet& set, const model::Basis& basis) {
    auto b = std::make_shared<model::Basis>(basis);
    const auto& m = set.kind == model::BaseSet::Kind::Pads ? basis.foundation : basis.pileCap;
    b->concrete = m.concrete, b->concreteStrength = m.strength, b->concreteDensity = m.density;
    b->steel = m.steel, b->steelYield = m.yield, b->creep = m.creep, b->shrinkage = m.shrinkage;
    b->coverTop = b->coverBottom = b->coverSide = basis.coverFoundation;
    b->mainBars = set.bars;
    return b;
}

}  // namespace

Context::Context(const model::BaseSet& s, const model::Basis& b,
                 std::shared_ptr<const standards::Standard> by)
    : set(s), basis(special(s, b)), standard(std::move(by)), rules(*standard->bases) {
    fc = basis->concreteStrength, fy = basis->steelYield, density = basis->concreteDensity,
    cover = basis->coverBottom;
    for (const auto& c : set.columns) columns_.emplace(c.id, &c);
    std::vector<actions::ActionKind> kinds;
    for (std::size_t i = 0; i < set.cases.size(); ++i) {
        cases_.emplace(set.cases[i].id, i);
        caseNames.push_back(set.cases[i].name);
        kinds.push_back(set.cases[i].kind);
    }
    for (int k = 0; k < states; ++k)
        combinations[std::size_t(k)] =
            rules.combinations(kinds, BaseState(k), {set.twoFormulas, set.approach});
    choices = bars::barChoices(set.bars, basis->spacingMost, *basis, *standard);
}

const model::BaseColumn* Context::column(const model::Id& id) const {
    const auto found = columns_.find(id);
    return found == columns_.end() ? nullptr : found->second;
}

std::vector<Forces> Context::actions(const model::BaseColumn& column) const {
    std::vector<Forces> all(set.cases.size());
    for (const auto& a : column.actions)
        if (const auto found = cases_.find(a.loadCase); found != cases_.end())
            all[found->second] = {a.N, a.Hx, a.Hy, a.Mx, a.My};
    return all;
}

Forces combined(const std::vector<Forces>& actions, const std::vector<double>& factors) {
    Forces f;
    for (std::size_t i = 0; i < actions.size(); ++i) {
        const double k = factors[i];
        f.N += k * actions[i].N, f.Hx += k * actions[i].Hx, f.Hy += k * actions[i].Hy;
        f.Mx += k * actions[i].Mx, f.My += k * actions[i].My;
    }
    return f;
}

std::string Mat::text() const {
    return bar && number ? fmt::format("{} {}-{}", number, bar->name, units::plain(spacing)) : std::string();
}

Mat mat(const Context& in, const model::Base& base, double width, double area, double most) {
    auto numberOf = [&](const catalogs::Bar& bar, double spacing) {
        return std::max(2, int(std::ceil((width - 2 * in.cover - bar.diameter) / spacing - 1e-9)) + 1);
    };
    Mat best;
    if (!base.bar.empty() || base.spacing > 0) {
        for (const auto& c : in.choices) {
            if (!base.bar.empty() && c.bar->name != base.bar) continue;
            if (base.spacing > 0 && std::abs(c.spacing - base.spacing) > 0.5) continue;
            Mat m{c.bar, c.spacing, numberOf(*c.bar, c.spacing)};
            if (best.bar && best.area() >= area && m.area() >= best.area()) continue;
            if (!best.bar || m.area() > best.area() || m.area() >= area) best = m;
        }
        return best;
    }
    for (const auto& c : in.choices) {
        // What a choice gives over the width is at the least its own steel: none that costs more can be
        // better.
        if (best.bar && c.area() * (width - 2 * in.cover - c.bar->diameter) > best.area()) break;
        if (c.spacing > most + 1e-9) continue;
        Mat m{c.bar, c.spacing, numberOf(*c.bar, c.spacing)};
        if (m.area() + 1e-9 < area) continue;
        if (!best.bar || m.area() < best.area() - 1e-9) best = m;
    }
    return best;
}

schedule::Item matItem(const Context& in, const Mat& mat, int axis, double length, double width, double h,
                       bool top, geometry::Point centre) {
    schedule::Item i;
    i.run = fmt::format("{}{}", top ? "top/" : "bottom/", axis == 0 ? "x" : "y");
    i.bar = mat.bar->name, i.diameter = mat.bar->diameter, i.number = mat.number, i.spacing = mat.spacing;
    i.layer = fmt::format("{}{}", top ? 'T' : 'B', axis == 0 ? 1 : 2);
    const double straight = units::roundDown(length - 2 * in.cover, 5);
    i.from = -straight / 2, i.to = straight / 2;
    const auto& anchorage = *in.standard->anchorage;
    const double depth = units::roundDown(h - 2 * in.cover, 5),
                 leg = std::max(depth, schedule::hookLeg(depth, i.diameter, anchorage));
    schedule::shape(i, straight, leg, mat.hooked, mat.hooked);
    if (mat.hooked && leg > depth) i.note = schedule::tilted;
    schedule::cut(i, *mat.bar, anchorage);
    const double pitch = mat.number > 1 ? (width - 2 * in.cover - i.diameter) / (mat.number - 1) : 0;
    for (int k = 0; k < mat.number; ++k) {
        const double v = (k - (mat.number - 1) / 2.0) * pitch;
        auto at = [&](double u) {
            return axis == 0 ? geometry::Point{centre.x + u, centre.y + v}
                             : geometry::Point{centre.x + v, centre.y + u};
        };
        i.lie.push_back({at(i.from), at(i.to)});
    }
    return i;
}

}  // namespace talvik::bases
