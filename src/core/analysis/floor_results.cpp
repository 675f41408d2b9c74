// Fields, envelopes and values at places from the answers of an analysis.
#include <algorithm>
#include <cmath>
#include <cstdint>
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
        fem::MomentField m(3 * count, 0);
        for (std::size_t c = 0; c < factors.size(); ++c)
            if (factors[c] != 0)
                for (std::size_t i = 0; i < m.size(); ++i) m[i] += factors[c] * moments[c][i];
        auto q = fem::recoverShears(model->plate, model->points, m);
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
    if (!nonlinear) return field(f, combinations[combination].factors);
    std::vector<double> only(u.size(), 0);
    only[combination] = 1;
    return field(f, only);
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

std::vector<FloorAnalysis::Extremes> FloorAnalysis::extremes(actions::LimitState state) const {
    std::vector<Extremes> all;
    bool ground = std::any_of(model->bed.begin(), model->bed.end(), [](double k) { return k > 0; });
    for (int f = 0; f < fieldCount; ++f) {
        if (Field(f) == Field::Pressure && !ground) continue;
        Envelope e = envelope(Field(f), state);
        if (e.most.empty()) continue;
        Extremes x{Field(f), {}, {}};
        auto most = std::size_t(std::max_element(e.most.begin(), e.most.end()) - e.most.begin());
        auto least = std::size_t(std::min_element(e.least.begin(), e.least.end()) - e.least.begin());
        auto place = [&](std::size_t i) {
            return model->plate.nodes[perNode(Field(f)) ? i : std::size_t(model->points.node[i])];
        };
        x.most = {e.most[most], place(most), e.mostBy[most]};
        x.least = {e.least[least], place(least), e.leastBy[least]};
        all.push_back(x);
    }
    return all;
}

std::vector<SupportForce> FloorAnalysis::forces(std::size_t combination) const {
    if (nonlinear) return supportForces[combination];
    std::vector<SupportForce> sum(model->supports.size());
    for (std::size_t c = 0; c < cases.size(); ++c)
        for (std::size_t s = 0; s < sum.size(); ++s) {
            double k = combinations[combination].factors[c];
            sum[s].up += k * supportForces[c][s].up;
            sum[s].mx += k * supportForces[c][s].mx;
            sum[s].my += k * supportForces[c][s].my;
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
