// Fields, envelopes and values at places from the answers of an analysis.
#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <functional>
#include <limits>

#include "analysis/cuts.h"
#include "fem/parallel/pool.h"
#include "fem/plate/loads.h"

namespace talvik::analysis {

using model::Point;

const char* key(Field f) {
    constexpr const char* keys[] = {"deflection", "mx", "my", "mxy", "qx", "qy", "pressure"};
    return keys[int(f)];
}
const char* title(Field f) {
    constexpr const char* titles[] = {
        "Deflection",        "Moment mx, along x", "Moment my, along y",    "Twisting moment mxy",
        "Shear qx, along x", "Shear qy, along y",  "Pressure on the ground"};
    return titles[int(f)];
}
const char* unit(Field f) {
    constexpr const char* units[] = {"mm", "kNm/m", "kNm/m", "kNm/m", "kN/m", "kN/m", "kPa"};
    return units[int(f)];
}
double factor(Field f) {
    constexpr double factors[] = {1, 1e3, 1e3, 1e3, 1, 1, 1e-3};
    return factors[int(f)];
}

units::Kind kind(Field f) {
    using units::Kind;
    constexpr Kind kinds[] = {
        Kind::Sag,           Kind::MomentPerWidth, Kind::MomentPerWidth, Kind::MomentPerWidth,
        Kind::ForcePerWidth, Kind::ForcePerWidth,  Kind::AreaLoad};
    return kinds[int(f)];
}

namespace {

fem::ShearField shears(const FloorAnalysis& a, const std::vector<double>& factors) {
    fem::MomentField m(3 * a.model->points.node.size(), 0);
    for (std::size_t c = 0; c < factors.size(); ++c)
        if (factors[c] != 0)
            for (std::size_t i = 0; i < m.size(); ++i) m[i] += factors[c] * a.moments[c][i];
    return fem::recoverShears(a.model->plate, a.model->points, m);
}

// What to take the cases of `u` and `moments` times for a combination.
std::vector<double> weights(const FloorAnalysis& a, std::size_t combination) {
    if (!a.nonlinear) return a.combinations[combination].factors;
    std::vector<double> only(a.u.size(), 0);
    only[combination] = 1;
    return only;
}

}  // namespace

std::vector<double> FloorAnalysis::field(Field f, const std::vector<double>& factors) const {
    std::size_t count = perNode(f) ? model->plate.nodes.size() : model->points.node.size();
    std::vector<double> out(count, 0);
    if (f == Field::Deflection || f == Field::Pressure) {
        for (std::size_t c = 0; c < factors.size(); ++c)
            if (factors[c] != 0)
                for (std::size_t n = 0; n < count; ++n) out[n] += factors[c] * u[c][3 * n];
        if (f == Field::Pressure) {
            // Pressure is modulus times settlement: a node between two moduli takes the larger.
            std::vector<double> modulus(count, 0);
            for (std::size_t t = 0; t < model->bed.size(); ++t)
                for (int n : model->plate.triangles[t]) modulus[n] = std::max(modulus[n], model->bed[t]);
            for (std::size_t n = 0; n < count; ++n) {
                out[n] *= modulus[n];
                if (nonlinear) out[n] = std::max(0.0, out[n]);
            }
        }
        return out;
    }
    if (f == Field::Qx || f == Field::Qy) {
        const auto q = shears(*this, factors);
        for (std::size_t i = 0; i < count; ++i) out[i] = q[2 * i + (f == Field::Qy)];
        return out;
    }
    std::size_t d = f == Field::Mx ? 0 : f == Field::My ? 1 : 2;
    for (std::size_t c = 0; c < factors.size(); ++c)
        if (factors[c] != 0)
            for (std::size_t i = 0; i < count; ++i) out[i] += factors[c] * moments[c][3 * i + d];
    return out;
}

std::vector<double> FloorAnalysis::field(Field f, std::size_t combination) const {
    return field(f, weights(*this, combination));
}

FloorAnalysis::Envelope FloorAnalysis::envelope(Field f, actions::LimitState state) const {
    Envelope e;
    for (std::size_t k = 0; k < combinations.size(); ++k) {
        if (combinations[k].state != state) continue;
        auto values = field(f, k);
        if (e.most.empty()) {
            e.most.assign(values.size(), -std::numeric_limits<float>::infinity());
            e.least.assign(values.size(), std::numeric_limits<float>::infinity());
            e.mostBy.assign(values.size(), 0);
            e.leastBy.assign(values.size(), 0);
        }
        for (std::size_t i = 0; i < values.size(); ++i) {
            auto v = float(values[i]);
            if (v > e.most[i]) e.most[i] = v, e.mostBy[i] = std::uint16_t(k);
            if (v < e.least[i]) e.least[i] = v, e.leastBy[i] = std::uint16_t(k);
        }
    }
    return e;
}

// Combination by combination on all cores: no field is held longer than it is looked at.
std::vector<FloorAnalysis::Extremes> FloorAnalysis::extremes(actions::LimitState state) const {
    const bool ground = std::any_of(model->bed.begin(), model->bed.end(), [](double k) { return k > 0; });
    std::vector<std::size_t> which;
    for (std::size_t k = 0; k < combinations.size(); ++k)
        if (combinations[k].state == state) which.push_back(k);
    struct Found {
        float value = 0;
        std::size_t at = 0;
    };
    struct Pair {
        Found most, least;
    };
    std::vector<std::array<Pair, fieldCount>> found(which.size());
    fem::parallelFor(which.size(), [&](std::size_t n) {
        const auto factors = weights(*this, which[n]);
        auto look = [&](Field f, std::size_t count, auto value) {
            Pair p{{float(value(0)), 0}, {float(value(0)), 0}};
            for (std::size_t i = 1; i < count; ++i) {
                const auto v = float(value(i));
                if (v > p.most.value) p.most = {v, i};
                if (v < p.least.value) p.least = {v, i};
            }
            found[n][std::size_t(f)] = p;
        };
        for (Field f : {Field::Deflection, Field::Mx, Field::My, Field::Mxy, Field::Pressure}) {
            if (f == Field::Pressure && !ground) continue;
            const auto values = field(f, factors);
            look(f, values.size(), [&](std::size_t i) { return values[i]; });
        }
        const auto q = shears(*this, factors);
        look(Field::Qx, q.size() / 2, [&](std::size_t i) { return q[2 * i]; });
        look(Field::Qy, q.size() / 2, [&](std::size_t i) { return q[2 * i + 1]; });
    });
    std::vector<Extremes> all;
    for (int f = 0; f < fieldCount && !which.empty(); ++f) {
        if (Field(f) == Field::Pressure && !ground) continue;
        // The first place with the extreme, and the first combination there.
        auto of = [&](auto side, auto beyond) {
            std::size_t best = 0;
            for (std::size_t n = 1; n < which.size(); ++n) {
                const Found &x = side(found[n][std::size_t(f)]), &y = side(found[best][std::size_t(f)]);
                if (beyond(x.value, y.value) || (x.value == y.value && x.at < y.at)) best = n;
            }
            const Found& x = side(found[best][std::size_t(f)]);
            return Extreme{
                x.value, model->plate.nodes[perNode(Field(f)) ? x.at : std::size_t(model->points.node[x.at])],
                which[best]};
        };
        all.push_back({Field(f), of([](const Pair& p) -> const Found& { return p.most; }, std::greater<>()),
                       of([](const Pair& p) -> const Found& { return p.least; }, std::less<>())});
    }
    return all;
}

std::vector<SupportForce> FloorAnalysis::forces(std::size_t combination) const {
    if (nonlinear) return supportForces[combination];
    std::vector<SupportForce> sum;
    for (std::size_t s = 0; s < model->supports.size(); ++s) sum.push_back(force(combination, s));
    return sum;
}
SupportForce FloorAnalysis::force(std::size_t combination, std::size_t support) const {
    if (nonlinear) return supportForces[combination][support];
    SupportForce sum;
    for (std::size_t c = 0; c < cases.size(); ++c) {
        const double k = combinations[combination].factors[c];
        const auto& one = supportForces[c][support];
        sum.up += k * one.up, sum.mx += k * one.mx, sum.my += k * one.my;
    }
    return sum;
}

namespace {

// All fields of one combination, and where triangles are.
struct Fields {
    fem::TriangleFinder finder;
    std::vector<double> w, m[3], q[2];
    const FloorModel& model;
    Fields(const FloorAnalysis& a, std::size_t k)
        : finder(a.model->plate.nodes, a.model->plate.triangles), model(*a.model) {
        w = a.field(Field::Deflection, k);
        for (int i = 0; i < 3; ++i) m[i] = a.field(Field(int(Field::Mx) + i), k);
        for (int i = 0; i < 2; ++i) q[i] = a.field(Field(int(Field::Qx) + i), k);
    }
    PointValues at(Point p) const {
        PointValues v;
        std::array<double, 3> share;
        int t = finder.find(p, &share);
        if (t < 0) return v;
        v.onSlab = true;
        for (int i = 0; i < 3; ++i) {
            auto point = std::size_t(model.points.corner[3 * std::size_t(t) + i]);
            v.w += share[i] * w[std::size_t(model.plate.triangles[t][i])];
            v.mx += share[i] * m[0][point];
            v.my += share[i] * m[1][point];
            v.mxy += share[i] * m[2][point];
            v.qx += share[i] * q[0][point];
            v.qy += share[i] * q[1][point];
        }
        return v;
    }
};

}  // namespace

PointValues valuesAt(const FloorAnalysis& a, std::size_t combination, Point p) {
    return Fields(a, combination).at(p);
}

Cut cut(const FloorAnalysis& a, std::size_t combination, Point from, Point to) {
    const Cutter cutter(*a.model);
    return CombinationCuts(a, cutter, combination).cut(from, to);
}

}  // namespace talvik::analysis
