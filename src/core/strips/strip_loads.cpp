#include "strips/strip_loads.h"

#include <algorithm>
#include <cmath>

namespace talvik::strips {
namespace {

constexpr double piece = 50;  // of a line load, mm

bool on(const Strip& strip, Point p) {
    return std::any_of(strip.parts.begin(), strip.parts.end(),
                       [&](const Ring& r) { return geometry::contains(r, p); });
}

}  // namespace

StripLoads::StripLoads(const Strip& strip, const model::Floor& floor, const analysis::FloorAnalysis& a)
    : strip_(strip), floor_(floor), a_(a), reach_(1.5 * a.model->meshSize), loads_(a.cases.size()) {
    using Kind = model::FloorLoad::Kind;
    if (a.nonlinear) {
        loads_.resize(a.moments.size());
        return;
    }
    for (const auto& l : floor.actions.loads) {
        if (l.kind != Kind::Line && l.kind != Kind::Point) continue;
        const auto c = std::size_t(std::find_if(a.cases.begin(), a.cases.end(),
                                                [&](const auto& x) { return x.id == l.loadCase; }) -
                                   a.cases.begin());
        if (c == a.cases.size()) continue;
        auto& into = loads_[c];
        const std::size_t first = into.size();  // of this load
        auto add = [&](Point p, double force, bool line) {
            if (!on(strip, p)) return;
            const double u = strip.axes.local(p).x;
            // Pieces of a line across the strip stand at one place.
            if (line && into.size() > first && std::abs(into.back().u - u) < 30)
                into.back().force += force;
            else
                into.push_back({u, force, line});
        };
        if (l.kind == Kind::Point) {
            add(l.a, l.value, false);
            continue;
        }
        const double length = geometry::length(l.a, l.b);
        const int n = std::max(1, int(std::ceil(length / piece)));
        for (int k = 0; k < n; ++k) {
            const double t = (k + 0.5) / n;
            add({l.a.x + t * (l.b.x - l.a.x), l.a.y + t * (l.b.y - l.a.y)}, l.value * length / n, true);
        }
    }
    for (auto& list : loads_)
        std::stable_sort(list.begin(), list.end(), [](const auto& x, const auto& y) { return x.u < y.u; });
}

double StripLoads::spread(std::size_t c, const Station& at) const {
    double sum = 0, area = 0;
    for (const auto& s : floor_.slabs) area += geometry::area(model::ring(s.outline));
    const auto& id = a_.cases[c].id;
    for (const auto& x : floor_.actions.cases)
        if (x.id == id && x.nature == model::LoadCase::Nature::SelfWeight && area > 0)
            sum += a_.cases[c].load / area * at.width;
    for (const auto& l : floor_.actions.loads) {
        if (l.kind != model::FloorLoad::Kind::Area || l.loadCase != id) continue;
        const Ring ring = l.outline.empty() ? Ring{} : model::ring(l.outline);
        for (const auto& cut : at.cuts) {
            const Point middle{(cut.a.x + cut.b.x) / 2, (cut.a.y + cut.b.y) / 2};
            if (ring.empty() || geometry::contains(ring, middle))
                sum += model::intensity(l) * geometry::length(cut.a, cut.b);
        }
    }
    return sum;
}

void StripLoads::putRight(std::size_t c, const std::vector<Station>& stations, std::vector<double>& shear,
                          std::vector<double>& moment) const {
    std::vector<ConcentratedLoad> list = loads_[c];
    // Small ones among many are a line along the strip: they are smooth already.
    double total = 0, most = 0;
    for (const auto& l : list) total += std::abs(l.force), most = std::max(most, std::abs(l.force));
    if (most < 0.05 * total) list.clear();
    auto toLoad = [&](double u) {
        double least = 1e300;
        for (const auto& l : list) least = std::min(least, std::abs(l.u - u));
        return least;
    };
    auto toLine = [&](double u) {  // of support
        double least = 1e300;
        for (const auto& p : strip_.supports)
            if (p.kind == Support::Kind::Wall || p.kind == Support::Kind::Line || p.kind == Support::Kind::Beam)
                least = std::min(least, std::abs(p.u - u));
        return least;
    };
    auto away = [&](double u) { return std::min({toLoad(u), toLine(u), reach_}); };
    const auto before = shear, bending = moment;
    for (std::size_t i = 0; i < stations.size(); ++i) {
        const double u = stations[i].u;
        if (away(u) >= reach_ || stations[i].span < 0) continue;
        // The nearest station that is clear, without passing a support; else the clearest.
        std::size_t best = stations.size();
        double clearest = std::max(0.4 * reach_, away(u));
        for (int way : {-1, 1})
            for (std::size_t k = i; way < 0 ? k > 0 : k + 1 < stations.size();) {
                k = way < 0 ? k - 1 : k + 1;
                const double low = std::min(u, stations[k].u), high = std::max(u, stations[k].u);
                const bool passes =
                    stations[k].span < 0 ||
                    std::any_of(strip_.supports.begin(), strip_.supports.end(),
                                [&](const auto& p) { return p.u > low && p.u < high; });
                if (passes || high - low > 4 * reach_) break;
                const double clear = away(stations[k].u);
                if (clear > clearest + 1 || (clear > clearest - 1 && best < stations.size() &&
                                             std::abs(stations[k].u - u) < std::abs(stations[best].u - u)))
                    clearest = std::max(clearest, clear), best = k;
                if (clear >= reach_) break;
            }
        if (best == stations.size()) continue;
        const double v = stations[best].u, low = std::min(u, v), high = std::max(u, v), length = high - low;
        const double p = (spread(c, stations[i]) + spread(c, stations[best])) / 2;
        double between = p * length, arms = p * length * length / 2;
        bool line = toLoad(u) < reach_;
        for (const auto& l : list) {
            if (std::abs(l.u - u) < reach_) line = line && l.line;
            if (l.u <= low || l.u >= high) continue;
            between += l.force;
            arms += l.force * std::abs(u - l.u);
        }
        shear[i] = before[best] + (v > u ? between : -between);
        // M(u) = M(v) + V(v) (u - v) - loads between with their arms about u.
        if (line && toLine(u) > 0.3 * reach_) moment[i] = bending[best] + before[best] * (u - v) - arms;
    }
}

}  // namespace talvik::strips
