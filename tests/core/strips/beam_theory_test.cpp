// Floors that span one way against continuous beams solved by the theorem of three moments.
#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "design/floor_design.h"
#include "model/edits.h"
#include "support/regular_floor.h"

namespace talvik {
namespace {

// Loads of one kind on a continuous beam: per length on each span, and forces at places.
struct Loads {
    std::vector<double> spread;                     // per span
    std::vector<std::pair<double, double>> forces;  // place from the first support, force
};

// A beam of constant stiffness on knife edges (B. P. E. Clapeyron, 1857). Moments sagging positive.
class Beam {
  public:
    explicit Beam(std::vector<double> spans) : L_(std::move(spans)) {
        x_.push_back(0);
        for (double l : L_) x_.push_back(x_.back() + l);
    }
    double start(std::size_t i) const { return x_[i]; }
    std::vector<double> supportMoments(const Loads& q) const {
        const std::size_t n = L_.size(), m = n - 1;
        std::vector<double> M(n + 1, 0), a(m), b(m), c(m), r(m);
        // 6 A a / L of the moment areas of each span taken as simple: seen from its right and its left end.
        auto term = [&](std::size_t i, bool fromLeft) {
            const double l = L_[i];
            double sum = q.spread[i] * l * l * l / 4;
            for (auto [x, P] : q.forces) {
                const double u = x - x_[i];
                if (u <= 0 || u >= l) continue;
                const double d = fromLeft ? u : l - u;
                sum += P * d * (l * l - d * d) / l;
            }
            return sum;
        };
        for (std::size_t k = 0; k < m; ++k) {
            a[k] = L_[k], b[k] = 2 * (L_[k] + L_[k + 1]), c[k] = L_[k + 1];
            r[k] = -term(k, true) - term(k + 1, false);
        }
        for (std::size_t k = 1; k < m; ++k) {
            const double f = a[k] / b[k - 1];
            b[k] -= f * c[k - 1], r[k] -= f * r[k - 1];
        }
        for (std::size_t k = m; k-- > 0;) M[k + 1] = (r[k] - (k + 1 < m ? c[k] * M[k + 2] : 0)) / b[k];
        return M;
    }
    // Moment and shear (dM/dx) at x inside a span.
    std::pair<double, double> at(const Loads& q, const std::vector<double>& M, double x) const {
        std::size_t i = 0;
        while (i + 1 < L_.size() && x > x_[i + 1]) ++i;
        const double l = L_[i], u = x - x_[i];
        double left = q.spread[i] * l / 2, m, v;
        for (auto [p, P] : q.forces)
            if (double d = p - x_[i]; d > 0 && d < l) left += P * (l - d) / l;
        v = left - q.spread[i] * u, m = left * u - q.spread[i] * u * u / 2;
        for (auto [p, P] : q.forces)
            if (double d = p - x_[i]; d > 0 && d < u) v -= P, m -= P * (u - d);
        return {m + M[i] + (M[i + 1] - M[i]) * u / l, v + (M[i + 1] - M[i]) / l};
    }

  private:
    std::vector<double> L_, x_;
};

struct Case {
    std::vector<double> spans;
    Loads permanent, imposed;  // per mm of width
    model::Project project;
};

// Spans of 3 to 7 m, 4 m wide, on line supports; line loads across, permanent and imposed, anywhere.
Case random(unsigned seed) {
    std::mt19937 random(seed);
    auto u = [&](double low, double high) { return std::uniform_real_distribution<double>(low, high)(random); };
    Case c;
    const int n = 2 + int(u(0, 4));
    double length = 0;
    for (int i = 0; i < n; ++i) c.spans.push_back(std::round(u(3000, 7000) / 10) * 10), length += c.spans.back();
    const double width = 4000, h = std::round(u(160, 260) / 10) * 10;
    const double dead = u(0.5e-3, 3e-3), live = u(1e-3, 6e-3);
    c.permanent.spread.assign(std::size_t(n), dead + h * 25e-6);
    c.imposed.spread.assign(std::size_t(n), live);
    auto p = test::regularFloor(2, 2, length, width, h, 0);
    double x = 0;
    std::vector<double> starts{0};
    for (double l : c.spans) starts.push_back(starts.back() + l);
    c.project = model::editFloor(p, "f1", [&](model::Floor& f, model::Project&) {
        f.columns.clear();
        f.choices.shearDeformation = false;
        f.slabs[0].outline = test::rectangle(0, 0, length, width);
        for (int i = 0; i <= n; ++i) {
            f.edges.push_back({"e" + std::to_string(i), "", {x, 0}, {x, width}});
            if (i < n) x += c.spans[std::size_t(i)];
        }
        f.actions.loads[0].value = dead, f.actions.loads[1].value = live;
        for (int k = 0; k < 3; ++k) {
            const auto span = std::size_t(u(0, n));
            // Anywhere, in every third floor close to a support.
            const double l = c.spans[span], at = starts[span] + (seed % 3 == 0 && k == 0 ? u(250, 600) : u(300, l - 300)),
                         q = u(5, 60);
            model::FloorLoad line;
            line.id = "l" + std::to_string(20 + k), line.loadCase = k == 2 ? "q3" : "q2";
            line.kind = model::FloorLoad::Kind::Line, line.value = q;
            line.a = {at, 0}, line.b = {at, width};
            f.actions.loads.push_back(line);
            (k == 2 ? c.imposed : c.permanent).forces.emplace_back(at, q);
        }
    });
    return c;
}

// EN 1990 (6.10) with 1.35 or 1.0 G and 1.5 Q; EN 1992-1-1 5.1.3(1)P: all spans, every second one, each two neighbours.
struct Envelope {
    double most = -1e300, least = 1e300, shear = 0;
};
std::vector<Envelope> envelope(const Case& c, const std::vector<double>& places) {
    const std::size_t n = c.spans.size();
    const Beam beam(c.spans);
    std::vector<std::vector<char>> patterns{std::vector<char>(n, 1)};
    for (std::size_t odd : {0u, 1u}) {
        patterns.emplace_back(n, 0);
        for (std::size_t i = odd; i < n; i += 2) patterns.back()[i] = 1;
    }
    for (std::size_t i = 0; i + 1 < n; ++i) {
        patterns.emplace_back(n, 0);
        patterns.back()[i] = patterns.back()[i + 1] = 1;
    }
    std::vector<Envelope> all(places.size());
    for (double g : {1.35, 1.0})
        for (const auto& pattern : patterns) {
            Loads q;
            for (std::size_t i = 0; i < n; ++i)
                q.spread.push_back(g * c.permanent.spread[i] + (pattern[i] ? 1.5 * c.imposed.spread[i] : 0));
            for (auto [x, P] : c.permanent.forces) q.forces.emplace_back(x, g * P);
            for (auto [x, P] : c.imposed.forces) {
                std::size_t i = 0;
                while (x > beam.start(i + 1)) ++i;
                if (pattern[i]) q.forces.emplace_back(x, 1.5 * P);
            }
            const auto M = beam.supportMoments(q);
            for (std::size_t k = 0; k < places.size(); ++k) {
                auto [m, v] = beam.at(q, M, places[k]);
                all[k].most = std::max(all[k].most, m), all[k].least = std::min(all[k].least, m);
                all[k].shear = std::max(all[k].shear, std::abs(v));
            }
        }
    return all;
}

TEST(BeamTheory, OneWayFloorsAgreeWithContinuousBeamsAlsoLoadedInTurn) {
    int compared = 0;
    double worstMoment = 0, worstShear = 0;
    for (unsigned seed = 1; seed <= 200; ++seed) {
        const auto c = random(seed);
        auto d = design::designFloor(c.project, 0, {}, false);
        ASSERT_TRUE(d) << seed << [&] { auto t = design::analyseFloor(c.project, 0).trouble; return t.empty() ? "" : t.front().path + t.front().message; }();
        for (const auto& s : d->strips) {
            if (s->strip->direction != 0) continue;
            ASSERT_EQ(s->strip->spans.size(), c.spans.size()) << seed;
            std::vector<double> places;
            for (const auto& station : s->stations()) places.push_back(station.u);
            const auto exact = envelope(c, places);
            double moment = 0, shear = 0;
            for (const auto& e : exact)
                moment = std::max({moment, e.most, -e.least}), shear = std::max(shear, e.shear);
            const double depth = s->stations()[0].thickness - 40;
            for (std::size_t i = 0; i < places.size(); ++i) {
                const double width = s->stations()[i].width;
                if (s->stations()[i].span < 0) continue;
                // Short of the beam's by 3 % at most; over a support next to a load the field may stand above by 5 %.
                auto off = [](double more) { return more > 0 ? more * 3 / 5 : -more; };
                // What no bar is chosen for does not matter: the least sagging, the least hogging.
                const double dm = std::max(off(std::max(0.0, s->demand.most[i].value / width) - std::max(0.0, exact[i].most)),
                                           off(std::min(0.0, exact[i].least) - std::min(0.0, s->demand.least[i].value / width))) /
                                  moment;
                // At critical sections, which have the largest moments of their span or support, and elsewhere.
                bool critical = false;
                for (std::size_t k = 0; k < c.spans.size(); ++k) {
                    const auto& span = s->strip->spans[k];
                    double most = 0, least = 0;
                    for (std::size_t j = 0; j < places.size(); ++j)
                        if (places[j] > span.from - 5 && places[j] < span.to + 5)
                            most = std::max(most, exact[j].most), least = std::min(least, exact[j].least);
                    if (places[i] > span.from - 5 && places[i] < span.to + 5)
                        critical |= exact[i].most > 0.98 * most || exact[i].least < 0.98 * least;
                }
                worstMoment = std::max(worstMoment, critical ? dm : dm / 2);
                EXPECT_LT(dm, critical ? 0.03 : 0.06)
                    << seed << " " << s->strip->key << " at " << places[i] << ": "
                    << s->demand.most[i].value / width << " " << exact[i].most << " "
                    << s->demand.least[i].value / width << " " << exact[i].least;
                // Shear from an effective depth off the supports on, and at faces beside which a load stands.
                bool near = false, beside = false;
                for (const auto& p : s->strip->supports) {
                    near |= std::abs(p.u - places[i]) < depth;
                    if (std::abs(p.u - places[i]) > 5) continue;
                    for (const auto* loads : {&c.permanent, &c.imposed})
                        for (auto [x, P] : loads->forces)
                            beside |= std::abs(x - p.u) < 600 && (x > p.u) == (places[i] > p.u);
                }
                if (near && !beside) continue;
                const double dv = std::abs(s->demand.shear[i].value / width - exact[i].shear) / shear;
                worstShear = std::max(worstShear, dv);
                EXPECT_LT(dv, 0.03) << seed << " " << s->strip->key << " at " << places[i] << ": "
                                    << s->demand.shear[i].value / width << " of " << exact[i].shear;
                ++compared;
            }
        }
    }
    EXPECT_GT(compared, 10000);
    RecordProperty("worst_moment", std::to_string(worstMoment));
    RecordProperty("worst_shear", std::to_string(worstShear));
}

}  // namespace
}  // namespace talvik
